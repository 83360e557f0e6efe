//! Lengths come after the size: what the paper is drawn for against the wearer, what becomes of it on the pieces, and where its hem lands.

use super::search::Candidate;
use super::{Table, Wanted};
use crate::body::{BodyMeasurement, Proportions};
use crate::garment::{Garment, Seam};
use crate::length::{Length, Measure, Taught};
use crate::place::Level;
use crate::work::{ChartSays, PieceChange, PiecePart};

use BodyMeasurement as B;

/// Lengths that a chart may have, and the level whose size they go with.
const LENGTHS: [(B, Level); 5] = [
    (B::BackNeckToWaist, Level::Bust),
    (B::BodyRise, Level::Hip),
    (B::InsideLeg, Level::Hip),
    (B::OutsideLeg, Level::Hip),
    (B::ArmLength, Level::Bust),
];

/// How finely a place of the body is known that nobody measured: 1 cm, 1/2 in.
const ABOUT: Taught = Taught::new(10, 32);

/// What is found about one length.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct OfLength {
    pub what: LengthOf,
    pub found: Found,
    /// What becomes of it on the pieces, at lines across them; nothing where it is right, or tells no more than where something ends.
    pub changes: Vec<PieceChange>,
    /// The pieces have the wearer's own length there already: they follow from figures that nobody took from a garment or from paper.
    pub is_of_wearer: bool,
    /// Where those lines lie.
    pub at: &'static str,
}

/// Which length.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum LengthOf {
    Body(B),
    /// Of the whole garment.
    Garment,
}

/// What is found about it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Found {
    /// The paper is drawn for this length, the wearer has that one; so much of it is made longer above already.
    DrawnFor { paper: Length, body: Length, above: Length },
    /// The finished garment has this length, the wearer that one, and both are to be the same.
    Finished { finished: Length, body: Length },
    /// The finished garment may have another length than the body: a rise more, a sleeve more or less.
    Leaves { finished: Length, body: Length },
    /// Paper held to the body was too short by so much.
    Held { by: Length },
    /// The finished garment, with what it is made longer by, reaches down so far from where its wearer's floor is so far away; in which size,
    /// where several are blended.
    Lands { finished: Length, size: Option<String>, longer: Length, floor: Vec<Length> },
}

impl Found {
    /// By how much the paper is made longer.
    fn longer(&self) -> Length {
        match self {
            Self::DrawnFor { paper, body, above } => *body - *paper - *above,
            Self::Finished { finished, body } => *body - *finished,
            Self::Held { by } => *by,
            Self::Leaves { .. } | Self::Lands { .. } => Length::ZERO,
        }
    }
}

/// Lines across pieces that a length is drawn out at, and where they lie. Nothing where a garment has no such length.
fn lines_of(garment: &Garment, what: B) -> Option<(PiecePart, Vec<Level>, &'static str)> {
    let has = |level| garment.level(level).is_some();
    let legs =
        |below: Level, at| (garment.has_legs() && has(below)).then(|| (PiecePart::Leg, vec![below], at));
    if what == B::BackNeckToWaist {
        let is_sewn_there = garment.seam(Seam::WaistSeam).is_some();
        let part = if is_sewn_there { PiecePart::Bodice } else { PiecePart::Body };
        let is_there = garment.hangs_from_shoulders() && has(Level::Bust) && has(Level::Waist);
        return is_there.then(|| (part, vec![Level::Bust], "between bust and waist, front and back"));
    }
    match what == B::ArmLength {
        true => of_sleeve(garment),
        false if what == B::BodyRise => legs(Level::Hip, "between hip and crotch, front and back"),
        false if has(Level::Knee) => legs(Level::Knee, "between knee and hem, front and back"),
        false => legs(Level::Thigh, "between crotch and hem, front and back"),
    }
}

/// A sleeve is drawn out above and below the elbow alike, as far as those lines lie below the arm.
fn of_sleeve(garment: &Garment) -> Option<(PiecePart, Vec<Level>, &'static str)> {
    garment.sleeve_length?;
    let under = garment.seam(Seam::SleeveSeam)?.length.length;
    let is_below = |l: &Level| garment.level(*l).is_some_and(|l| l.station.length < under);
    let lines: Vec<Level> = [Level::UpperArm, Level::Elbow].into_iter().filter(is_below).collect();
    let at = match &lines[..] {
        [] => "below the arm",
        [Level::Elbow] => "below the elbow",
        [_] => "below the upper arm",
        _ => "half above the elbow, half below",
    };
    Some((PiecePart::Sleeve, lines, at))
}

/// What is found about every length of a candidate. What was held to the body goes before what is reckoned.
pub(super) fn lengths(table: &Table<'_>, wanted: &[Wanted], candidate: &Candidate) -> Vec<OfLength> {
    let chart = &table.pattern.charts[candidate.chart];
    let mut all: Vec<OfLength> = Vec::new();
    for (what, level) in LENGTHS {
        let Some((part, lines, at)) = lines_of(table.garment, what) else { continue };
        // What both legs and rise say is not said a third time.
        let is_known = |of: &OfLength| of.what == LengthOf::Body(B::InsideLeg);
        if what == B::OutsideLeg && all.iter().any(is_known) {
            continue;
        }
        // A whole leg has its rise in it.
        let is_above = |of: &&OfLength| what == B::OutsideLeg && of.what == LengthOf::Body(B::BodyRise);
        let above = all.iter().filter(is_above).fold(Length::ZERO, |sum, of| sum + of.found.longer());
        let figure = |says| table.figure(chart, what, says, size_at(wanted, candidate, level));
        let held = table.pattern.held.iter().find(|held| held.what == what);
        let (drawn_for, finished) = (figure(ChartSays::Body), figure(ChartSays::Finished));
        let found = match (held, drawn_for, finished, table.body(what)) {
            (Some(held), ..) => Found::Held { by: table.read(held.by) },
            (None, Some(paper), _, Some(body)) => Found::DrawnFor { paper, body, above },
            // A rise may leave something to sit with, and an arm may be covered or not.
            (None, None, Some(finished), Some(body)) => {
                let may_differ = match what == B::BodyRise {
                    true => finished >= body,
                    false => what == B::ArmLength,
                };
                match may_differ {
                    true => Found::Leaves { finished, body },
                    false if matches!(what, B::InsideLeg | B::OutsideLeg) => continue,
                    false => Found::Finished { finished, body },
                }
            }
            (None, ..) => continue,
        };
        let changes = drawn_out(table, part, &lines, found.longer());
        let is_of_wearer = is_of_wearer(table, part, &lines) && !matches!(found, Found::Held { .. });
        all.push(OfLength { what: LengthOf::Body(what), found, changes, is_of_wearer, at });
    }
    all.extend(lands(table, candidate, &all, size_at(wanted, candidate, Level::Hip)));
    all
}

/// Nobody measured a garment where these lines are, and no paper was read: pieces are as long there as the wearer.
fn is_of_wearer(table: &Table<'_>, part: PiecePart, lines: &[Level]) -> bool {
    let is_on_file = table.pattern.drawn.iter().any(|drawn| drawn.piece.part == part);
    !is_on_file && lines.iter().any(|line| table.garment.level(*line).is_some_and(|l| l.assumed))
}

/// How long the garment of a candidate is from where it hangs, once its paper is as long as the wearer. What was held to the body is not in it: that
/// is done on the pieces. Nothing where its chart does not say so.
pub(super) fn finished_length(table: &Table<'_>, wanted: &[Wanted], candidate: &Candidate) -> Option<Length> {
    let chart = &table.pattern.charts[candidate.chart];
    let size = size_at(wanted, candidate, Level::Hip);
    let of_legs = || table.figure(chart, B::OutsideLeg, ChartSays::Finished, size);
    let finished = chart.long.get(size).map(|typed| table.read(*typed)).or_else(of_legs)?;
    let found = lengths(table, wanted, candidate);
    let on_body = found.iter().filter(|f| f.what != LengthOf::Body(B::ArmLength));
    let drawn = on_body.filter(|f| !matches!(f.found, Found::Held { .. }));
    Some(drawn.fold(finished, |sum, f| sum + f.found.longer()))
}

/// The size of a candidate at a level, or at its first one.
fn size_at(wanted: &[Wanted], candidate: &Candidate, level: Level) -> usize {
    candidate.sizes[wanted.iter().position(|w| w.level == level).unwrap_or(0)]
}

/// Drawn out by so much: at several lines in equal shares, as far as the marks of the tape allow.
fn drawn_out(table: &Table<'_>, part: PiecePart, lines: &[Level], by: Length) -> Vec<PieceChange> {
    let (mut left, mut all) = (by, Vec::new());
    for (n, &below) in lines.iter().enumerate() {
        let share = if n + 1 == lines.len() {
            left
        } else {
            table.tape.round(left.fraction(1, (lines.len() - n) as i64))
        };
        left = left - share;
        if share != Length::ZERO {
            let by = Measure { length: share, unit: table.tape.unit() };
            all.push(PieceChange::Length { part, face: None, below, by });
        }
    }
    all
}

/// Where the hem lands: by how long a leg is, or how long the whole garment is from where it hangs.
fn lands(table: &Table<'_>, candidate: &Candidate, found: &[OfLength], size: usize) -> Option<OfLength> {
    let chart = &table.pattern.charts[candidate.chart];
    let longer = |of: &[B]| {
        let is_it = |f: &&OfLength| of.iter().any(|what| f.what == LengthOf::Body(*what));
        found.iter().filter(is_it).fold(Length::ZERO, |sum, f| sum + f.found.longer())
    };
    let told = |what, finished, longer, floor| {
        let of_several = candidate.is_blended().then(|| chart.sizes[size].clone());
        let found = Found::Lands { finished, size: of_several, longer, floor };
        Some(OfLength { what, found, changes: Vec::new(), is_of_wearer: false, at: "" })
    };
    for what in [B::InsideLeg, B::OutsideLeg].into_iter().filter(|_| table.garment.has_legs()) {
        let finished = table.figure(chart, what, ChartSays::Finished, size);
        if let (Some(finished), Some(floor)) = (finished, table.body(what)) {
            let of: &[B] = if what == B::InsideLeg {
                &[B::InsideLeg]
            } else {
                &[B::BodyRise, B::InsideLeg, B::OutsideLeg]
            };
            return told(LengthOf::Body(what), finished, longer(of), vec![floor]);
        }
    }
    let finished = table.read(*chart.long.get(size)?);
    let floor: Vec<Length> =
        hangs_by(table.garment).iter().map(|what| table.body(*what)).collect::<Option<_>>()?;
    let longer = longer(&[B::BackNeckToWaist, B::BodyRise, B::InsideLeg, B::OutsideLeg]);
    told(LengthOf::Garment, finished, longer, floor)
}

/// What of the body, one after the other, leads from where a garment hangs to the floor.
pub(super) fn hangs_by(garment: &Garment) -> &'static [B] {
    if garment.hangs_from_shoulders() { &[B::BackNeckToWaist, B::OutsideLeg] } else { &[B::OutsideLeg] }
}

/// The place of the body nearest to a height above the floor, and how far below it that is. Nothing below the ankle.
pub(super) fn place_near(table: &Table<'_>, up: Length) -> Option<(Level, Length)> {
    let body = Proportions::of(table.wearer);
    let levels = [Level::Waist, Level::Hip, Level::Knee, Level::Calf, Level::Ankle];
    let below = |level| Some((level, Length::from_cm(body.up_at(level)?) - up));
    let (level, below) = levels.into_iter().filter_map(below).min_by_key(|(_, below)| below.abs())?;
    (level != Level::Ankle || below <= Length::ZERO).then(|| (level, below.nearest(ABOUT.on(table.tape))))
}
