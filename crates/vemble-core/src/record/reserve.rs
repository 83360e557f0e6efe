//! The reserve: what is left inside each seam, dart and hem, and so how far each can still be let out or down.

use crate::change::seam::gives_at;
use crate::change::{ChangeKey, Term};
use crate::garment::{Garment, HemTurn, Run};
use crate::length::{Length, Tape, Taught};
use crate::place::Level;

/// What one part of a garment still gives, and where.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Gives {
    /// At which level, of a seam.
    pub level: Option<Level>,
    /// What is inside each edge there: the less of the two.
    pub inside: Length,
    /// How far each edge can be let out, or a hem down.
    pub each: Length,
    /// How many such edges there are.
    pub edges: i64,
}

/// What is left inside one part.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Reserve {
    /// Which seam, dart or hem.
    pub part: ChangeKey,
    /// Nobody looked inside.
    pub is_assumed: bool,
    /// It was clipped, and nobody followed the clips: nothing is counted on.
    pub is_clipped: bool,
    /// What it gives, from the top down.
    pub gives: Vec<Gives>,
}

/// A hem needs so much cloth to be faced: 0.6 cm, 1/4 in (teaching value).
const FACED: Taught = Taught::new(6, 16);

/// What is left inside every seam, dart and hem of a garment, at the marks of a tape: never less than nothing.
pub fn reserve(garment: &Garment, tape: Tape) -> Vec<Reserve> {
    let keep = garment.cloth.keep().on(tape);
    let mut all: Vec<Reserve> = Vec::new();
    for facts in &garment.seams {
        let is_clipped = facts.clipped && facts.clips_leave.is_none();
        let mut levels: Vec<(Length, Level)> = garment
            .levels
            .iter()
            .filter_map(|l| Some((garment.station_on(facts.seam, l.level)?, l.level)))
            .filter(|(at, _)| *at <= facts.end())
            .collect();
        levels.sort_unstable_by(|a, b| b.cmp(a));
        let mut places: Vec<(Length, Option<Level>)> =
            levels.into_iter().map(|(at, level)| (at, Some(level))).collect();
        if places.is_empty() || facts.seam.run() == Run::Across {
            places = vec![(facts.end().fraction(1, 2), None)];
        }
        let gives = |(at, level): (Length, Option<Level>)| {
            let sides = [false, true].map(|right| facts.allowance_at(at, right, tape));
            let inside = sides.into_iter().flatten().min().unwrap_or_default().max(Length::ZERO);
            let clips = facts.clips_leave.filter(|_| facts.clipped).map(|m| tape.round(m.length));
            let beyond = (inside - keep).max(Length::ZERO);
            let each =
                if is_clipped { Length::ZERO } else { clips.map_or(beyond, |clips| clips.min(beyond)) };
            Gives { level, inside, each, edges: if facts.seam.is_single() { 2 } else { 4 } }
        };
        all.push(Reserve {
            part: ChangeKey::Seam(facts.seam),
            is_assumed: facts.assumed,
            is_clipped,
            gives: places.into_iter().map(gives).collect(),
        });
    }
    for facts in &garment.darts {
        let depth = tape.round(facts.fold_depth.length).max(Length::ZERO);
        all.push(Reserve {
            part: ChangeKey::Dart(facts.dart),
            is_assumed: facts.assumed,
            is_clipped: false,
            gives: vec![Gives { level: None, inside: depth, each: depth, edges: 4 }],
        });
    }
    for facts in &garment.hems {
        let inside = tape.round(facts.turn_up.length).max(Length::ZERO);
        // A tuck behind a kept edge comes out whole; else so much stays as a facing is sewn to.
        let each =
            if facts.turn == HemTurn::Kept { inside } else { (inside - FACED.on(tape)).max(Length::ZERO) };
        all.push(Reserve {
            part: ChangeKey::Hem(facts.edge),
            is_assumed: facts.assumed,
            is_clipped: false,
            gives: vec![Gives { level: None, inside, each, edges: 1 }],
        });
    }
    all
}

/// How far a garment can go at a level: what each of its seams gives there.
pub(crate) fn can_go(garment: &Garment, level: Level, tape: Tape) -> Vec<Term> {
    gives_at(garment, level, tape)
}
