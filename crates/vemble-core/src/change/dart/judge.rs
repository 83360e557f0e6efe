//! Darts: not too deep for one fold, run out gently, and end short of what they shape.

use super::{AlteredDart, DartChange};
use crate::change::seam::StitchingLine;
use crate::change::{Change, ChangeKey, NOUGHT};
use crate::fitting::{GarmentSide, SidePolicy};
use crate::garment::{Dart, Seam};
use crate::judge::{Finding, FindingKey, Judge, Outcome, Partner, Rule, Subject, TwoSides, runs_out};
use crate::length::{Length, Station, Tape, Taught};
use crate::place::Level;

/// Deeper than this one fold stands off: 1.9 cm, three quarters of an inch (teaching value).
pub(super) const ONE_FOLD: Taught = Taught::new(19, 48);
/// A front dart ends at least so far from the bust point: 2.5 cm, an inch (teaching value: a point on the point shows).
pub(super) const OFF_BUST: Taught = Taught::new(25, 64);

/// The figures that findings about a pair of darts rest on.
#[derive(Clone, Debug)]
pub(crate) enum Found {
    /// The deepest fold of both sides.
    Depth { deepest: Length },
    /// The last stretch to a point, and the fold it runs out from.
    RunOut { run: Length, depth: Length, safe: i64 },
    /// A point in front, so far below the bust line.
    BelowBust { away: Length, bust: Length },
    /// The lower free point behind, and the fullest hip, above the hem.
    AboveHip { free: Length, hip: Length },
    /// It is let out: how deep it is now.
    LetOut { depth: Length, shows_holes: bool },
    /// The seam that it ends in moves.
    IntoSeam { seam: Seam, most: Length },
}

impl Judge for AlteredDart<'_> {
    fn judge(&self, subject: &Subject<'_>) -> Vec<Finding> {
        let keep_each = || {
            let change: DartChange = DartChange { sides: Some(SidePolicy::KeepEach), ..self.change.clone() };
            Change::Dart(change)
        };
        let mut all: Vec<Finding> =
            TwoSides::judge(subject, ChangeKey::Dart(self.key()), &self.sides, keep_each)
                .into_iter()
                .collect();
        all.extend(self.depth_found(subject.tape));
        all.extend(self.run_out_found(subject));
        all.extend(self.place_found(subject));
        all.extend(self.let_out_found(subject));
        all.extend(self.seam_it_ends_in(subject));
        all
    }
}

impl AlteredDart<'_> {
    fn finding(&self, rule: Rule, outcome: Outcome, found: Found) -> Finding {
        Finding::new(FindingKey::about(rule, ChangeKey::Dart(self.key())), outcome, found)
    }

    fn depth_found(&self, tape: Tape) -> Option<Finding> {
        let at = |side: GarmentSide| {
            let pins = self.sides.pins[side as usize].iter().map(|p| p.station);
            pins.chain([Station(self.length)]).map(move |s| self.chalked(side, s, tape))
        };
        let deepest = GarmentSide::BOTH.into_iter().flat_map(at).max()?;
        let outcome = if deepest > ONE_FOLD.on(tape) { Outcome::Caution } else { Outcome::Passes };
        Some(self.finding(Rule::Depth, outcome, Found::Depth { deepest }))
    }

    /// Towards each point the fold runs out from the pin next to it; the fastest decides.
    fn run_out_found(&self, subject: &Subject<'_>) -> Option<Finding> {
        let (safe, tape) = (subject.garment.cloth.safe_run_out(), subject.tape);
        let length = tape.round(self.length);
        let ends = |side: GarmentSide| {
            let pins = &self.sides.pins[side as usize];
            let first = pins.first().map(|p| (p.station, tape.round(p.station.0)));
            let last = pins.last().filter(|_| self.key().has_two_points());
            let last = last.map(|p| (p.station, length - tape.round(p.station.0)));
            first.into_iter().chain(last).map(move |(station, run)| (run, self.chalked(side, station, tape)))
        };
        let fast = |(run, depth): &(Length, Length)| run.cm() / depth.cm();
        let all = GarmentSide::BOTH.into_iter().flat_map(ends).filter(|e| e.1 > Length::ZERO);
        let (run, depth) = all.min_by(|a, b| fast(a).total_cmp(&fast(b)))?;
        let outcome = runs_out(run, depth, safe);
        Some(self.finding(Rule::RunOut, outcome, Found::RunOut { run, depth, safe }))
    }

    /// In front the point stays off the bust point; behind the lower one ends at the fullest hip or above it.
    fn place_found(&self, subject: &Subject<'_>) -> Option<Finding> {
        let level = if self.key().is_in_front() { Level::Bust } else { Level::Hip };
        let tape = subject.tape;
        let height = tape.round(subject.garment.level(level)?.station.length);
        let (point, base) = (tape.round(self.point?), tape.round(self.base?));
        let two = self.key().has_two_points();
        let (fits, found) = if level == Level::Bust {
            let away = height - point;
            (away >= OFF_BUST.on(tape), Found::BelowBust { away, bust: height })
        } else if base < point && !two {
            // From a seam or edge below the hip upwards nothing ends free down there.
            return None;
        } else {
            let free = if two { base } else { point };
            (free >= height, Found::AboveHip { free, hip: height })
        };
        Some(self.finding(Rule::Placement, if fits { Outcome::Passes } else { Outcome::Caution }, found))
    }

    fn let_out_found(&self, subject: &Subject<'_>) -> Option<Finding> {
        let depth = self.facts?.fold_depth.length;
        let gives = |side: GarmentSide| {
            self.sides.pins[side as usize].iter().any(|p| self.added(side, p.station) < -NOUGHT)
        };
        let shows_holes = subject.garment.cloth.shows_holes;
        let outcome = if shows_holes { Outcome::Caution } else { Outcome::Passes };
        let found = Found::LetOut { depth, shows_holes };
        GarmentSide::BOTH.into_iter().any(gives).then(|| self.finding(Rule::Capacity, outcome, found))
    }

    /// A dart that ends in a seam which is altered there changes what the seam crosses.
    fn seam_it_ends_in(&self, subject: &Subject<'_>) -> Option<Finding> {
        let seam = match self.key() {
            Dart::Bust => Seam::SideSeam,
            Dart::Shoulder => Seam::ShoulderSeam,
            Dart::FrontWaist | Dart::BackWaist | Dart::FrontFishEye | Dart::BackFishEye => return None,
        };
        let altered = subject.seams().find(|s| s.facts.seam == seam)?;
        let at_the_end = |line: &StitchingLine| Some(line.chalked(line.span()?.1, subject.tape)?.deepest());
        let most = altered.lines.iter().filter_map(at_the_end).max().filter(|most| *most > Length::ZERO)?;
        let mut found = self.finding(Rule::Partners, Outcome::Caution, Found::IntoSeam { seam, most });
        found.key.partner = Some(Partner::Seam);
        Some(found)
    }
}
