//! Darts: not too deep for one fold, run out gently, and end short of what they shape.

use super::{AlteredDart, DartChange};
use crate::change::seam::{LiningThere, StitchingLine};
use crate::change::{Change, ChangeKey, Curve, DrawnChange, NOUGHT};
use crate::fitting::{FrontShare, GarmentSide, How, Reading, SidePolicy};
use crate::garment::{Band, Dart, Garment, Seam};
use crate::judge::{Finding, FindingKey, Judge, Outcome, Partner, Rule, Subject, TwoSides, runs_out};
use crate::length::{Length, Measure, Station, Taught, Unit};
use crate::place::Level;

/// Deeper than this one fold stands off: 1.9 cm, three quarters of an inch (teaching value).
pub(super) const ONE_FOLD: Taught = Taught::new(19, 48);
/// A front dart ends at least so far from the bust point: 2.5 cm, an inch (teaching value: a point on the point shows).
pub(super) const OFF_BUST: Taught = Taught::new(25, 64);

/// So near the waist a dart begins in its edge: 1 cm (teaching value: half a seam's turnings).
const AT_THE_WAIST: Length = Length::from_mm(10);

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
    /// It is let out: how deep it is now, and what is left of that on the side where less is.
    LetOut { depth: Length, left: Length, shows_holes: bool },
    /// The seam that it ends in moves.
    IntoSeam { seam: Seam, most: Length },
    /// The edge that it begins in changes by so much; altogether at the waist, on each side where it lies across.
    IntoEdge { edge: Edge, off: Length },
    /// A lining that has to follow.
    Lining(LiningThere),
}

/// What a dart begins in.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Edge {
    /// The waistband or facing, or what stands in its place.
    Band(Option<Band>),
    /// One edge of a seam, by its place among both: the other one keeps its length.
    Of(Seam, usize),
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
        all.extend(self.depth_found(subject));
        all.extend(self.run_out_found(subject));
        all.extend(self.place_found(subject));
        all.extend(self.let_out_found(subject));
        all.extend(self.seam_it_ends_in(subject));
        all.extend(self.edge_it_begins_in(subject));
        all.extend(self.lining(subject));
        all
    }
}

impl AlteredDart<'_> {
    fn finding(&self, rule: Rule, outcome: Outcome, found: Found) -> Finding {
        Finding::new(FindingKey::about(rule, ChangeKey::Dart(self.key())), outcome, found)
    }

    fn depth_found(&self, subject: &Subject<'_>) -> Option<Finding> {
        let tape = subject.tape;
        let at = |side: GarmentSide| {
            let pins = self.sides.pins[side as usize].iter().map(|p| p.station);
            pins.chain([Station(self.length)]).map(move |s| self.chalked(side, s, tape))
        };
        let deepest = GarmentSide::BOTH.into_iter().flat_map(at).max()?;
        let most = ONE_FOLD.on(tape);
        let outcome = if deepest > most { Outcome::Caution } else { Outcome::Passes };
        let found = Found::Depth { deepest };
        Some(self.finding(Rule::Depth, outcome, found).mended(|| self.in_two(subject, most)))
    }

    /// What its pins take in two pairs: of a new one half of it each, in whole marks; of one that is there all that is added goes to the outer
    /// pair. Nothing where there is no outer pair to be had, or two would be too deep as well.
    fn in_two(&self, subject: &Subject<'_>, most: Length) -> Vec<Change> {
        let tape = subject.tape;
        let other = self.key().outer().filter(|outer| {
            let is_drawn = |change: &DrawnChange<'_>| change.key() == ChangeKey::Dart(*outer);
            !subject.changes.iter().any(is_drawn) && subject.garment.darts.iter().all(|d| d.dart != *outer)
        });
        let (Some(outer), Some(point), Some(base)) = (other, self.point, self.base) else {
            return Vec::new();
        };
        let share = |reading: &Reading, of_outer: bool| {
            let amount = tape.round(reading.amount.length);
            let half =
                amount.fraction(1, 2).up_to(tape.mark() * if reading.how == How::Fold { 1 } else { 2 });
            let part = match (self.facts.is_some(), of_outer) {
                (true, true) => amount,
                (true, false) => Length::ZERO,
                (false, true) => amount - half.min(amount),
                (false, false) => half.min(amount),
            };
            Reading { amount: tape.figure(part).measure(), id: None, ..reading.clone() }
        };
        let part = |of_outer: bool| -> Vec<Reading> {
            self.change.readings.iter().map(|reading| share(reading, of_outer)).collect()
        };
        let deepest = |readings: &[Reading], placed: bool| {
            let depth = |r: &Reading| {
                let old = if placed {
                    Length::from_cm(self.placed.at(r.station.length.cm()))
                } else {
                    Length::ZERO
                };
                tape.round(old) + tape.round(r.edges(FrontShare::default()).deepest())
            };
            readings.iter().map(depth).max().unwrap_or_default()
        };
        let (inner, of_outer) = (part(false), part(true));
        if deepest(&inner, true) > most || deepest(&of_outer, false) > most {
            return Vec::new();
        }
        let cm = |length: Length| Some(Measure { length, unit: Unit::Cm });
        let outer = DartChange {
            dart: outer,
            readings: of_outer,
            point: cm(point),
            base: cm(base),
            sides: self.change.sides,
            from_side_seam: None,
        };
        let inner = DartChange { readings: inner, ..self.change.clone() };
        vec![Change::Dart(inner), Change::Dart(outer)]
    }

    /// The same change with its point or its other end at another height; its pins stay where they are on the cloth. Nothing where one would
    /// lie beyond it.
    fn moved(&self, point: Length, base: Length) -> Option<Change> {
        let (old_point, old_base) = (self.point?, self.base?);
        let towards = if old_base > old_point { 1 } else { -1 };
        let length = (base - point) * towards;
        let by = (point - old_point) * towards;
        let moved = |reading: &Reading| {
            let length = reading.station.length - by;
            Reading { station: Measure { length, ..reading.station }, ..reading.clone() }
        };
        let readings: Vec<Reading> = self.change.readings.iter().map(moved).collect();
        let is_on = |reading: &Reading| {
            let at = reading.station.length;
            let ends = if self.key().has_two_points() { length } else { length + Length::from_nm(1) };
            Length::ZERO < at && at < ends || reading.amount.length == Length::ZERO && at == Length::ZERO
        };
        let cm = |length: Length| Some(Measure { length, unit: Unit::Cm });
        (length > Length::ZERO && readings.iter().all(is_on)).then(|| {
            let point = if point == old_point { self.change.point } else { cm(point) };
            let base = if base == old_base { self.change.base } else { cm(base) };
            Change::Dart(DartChange { readings, point, base, ..self.change.clone() })
        })
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
        let outcome = if fits { Outcome::Passes } else { Outcome::Caution };
        let mend = || {
            let (point, base) = (self.point?, self.base?);
            match (level == Level::Bust, two) {
                (true, _) => self.moved(height - OFF_BUST.on(tape), base),
                (false, true) => self.moved(point, height),
                (false, false) => self.moved(height, base),
            }
        };
        Some(self.finding(Rule::Placement, outcome, found).mended(mend))
    }

    fn let_out_found(&self, subject: &Subject<'_>) -> Option<Finding> {
        let depth = self.facts?.fold_depth.length;
        let gives = |side: GarmentSide| {
            self.sides.pins[side as usize].iter().any(|p| self.added(side, p.station) < -NOUGHT)
        };
        let shows_holes = subject.garment.cloth.shows_holes;
        let tape = subject.tape;
        let deepest = |side: GarmentSide| self.new[side as usize].range(0.0, self.length.cm()).1;
        let left = GarmentSide::BOTH.map(deepest).into_iter().fold(f64::MAX, f64::min);
        let left = tape.round(Length::from_cm(left)).max(Length::ZERO);
        let is_flat = left == Length::ZERO;
        let outcome = if shows_holes || is_flat { Outcome::Caution } else { Outcome::Passes };
        let found = Found::LetOut { depth, left, shows_holes };
        GarmentSide::BOTH.into_iter().any(gives).then(|| self.finding(Rule::Capacity, outcome, found))
    }

    /// A dart that ends in a seam which is altered there changes what the seam crosses.
    fn seam_it_ends_in(&self, subject: &Subject<'_>) -> Option<Finding> {
        let seam = match self.key() {
            Dart::Bust => subject.garment.side_seam(),
            Dart::Shoulder => Seam::ShoulderSeam,
            Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => return None,
            Dart::FrontFishEye | Dart::BackFishEye => return None,
        };
        let altered = subject.seams().find(|s| s.facts.seam == seam)?;
        let at_the_end = |line: &StitchingLine| Some(line.chalked(line.span()?.1, subject.tape)?.deepest());
        let most = altered.lines.iter().filter_map(at_the_end).max().filter(|most| *most > Length::ZERO)?;
        let mut found = self.finding(Rule::Partners, Outcome::Caution, Found::IntoSeam { seam, most });
        found.key.partner = Some(Partner::Seam);
        Some(found)
    }

    /// The edge that it begins in; nothing where both its ends are free, or it begins in no edge.
    fn edge(&self, garment: &Garment) -> Option<Edge> {
        let of = |seam: Seam, edge: usize| garment.seam(seam).map(|_| Edge::Of(seam, edge));
        match self.key() {
            Dart::Bust => of(garment.side_seam(), 0),
            Dart::Shoulder => of(Seam::ShoulderSeam, 1),
            Dart::FrontFishEye | Dart::BackFishEye => None,
            Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => {
                let waist = garment.level(Level::Waist)?.station.length;
                if (self.base? - waist).abs() > AT_THE_WAIST {
                    return None;
                }
                let upper = usize::from(!garment.goes_above_waist() || self.point? < self.base?);
                let band = || (!garment.goes_above_waist()).then_some(Edge::Band(garment.found.band));
                of(Seam::WaistSeam, upper).or_else(band)
            }
        }
    }

    /// The edge that it begins in and what that loses, negative where it gains; nothing where that stays as it is.
    pub(super) fn edge_found(&self, subject: &Subject<'_>) -> Option<(Edge, Length)> {
        let edge = self.edge(subject.garment)?;
        let [left, right] =
            GarmentSide::BOTH.map(|side| self.chalked_more(side, Station(self.length), subject.tape) * 2);
        let off = if self.key().runs_up_and_down() { left + right } else { left.max(right) };
        (off != Length::ZERO).then_some((edge, off))
    }

    /// What it begins in gets shorter by what it takes there, or longer; the other edge keeps its length.
    fn edge_it_begins_in(&self, subject: &Subject<'_>) -> Option<Finding> {
        let (edge, off) = self.edge_found(subject)?;
        let partner = match edge {
            Edge::Band(_) => Partner::Band,
            Edge::Of(..) => Partner::OtherEdge,
        };
        let mut found = self.finding(Rule::Partners, Outcome::Caution, Found::IntoEdge { edge, off });
        found.key.partner = Some(partner);
        Some(found)
    }

    /// A lining has the same dart, or a pleat in its place.
    fn lining(&self, subject: &Subject<'_>) -> Option<Finding> {
        // Where its shape turns: at its pins, and where it is moved at its ends, before and after.
        let turns = |curve: &Curve| curve.pieces.iter().flat_map(|piece| piece.s).collect::<Vec<_>>();
        let ends: Vec<f64> = if self.is_moved() {
            [&self.old, &self.placed].into_iter().flat_map(turns).collect()
        } else {
            Vec::new()
        };
        let more = |side: GarmentSide| {
            let pins = self.sides.pins[side as usize].iter().map(|pin| pin.station);
            let stations = pins.chain(ends.iter().map(|s| Station(Length::from_cm(*s))));
            stations.map(move |station| match self.height_of(station) {
                Some(height) => self.chalked_more_at(side, height, subject.tape).unwrap_or_default(),
                None => self.chalked_more(side, station, subject.tape),
            })
        };
        let all: Vec<Length> = GarmentSide::BOTH.into_iter().flat_map(more).collect();
        let (least, most) = (all.iter().min()?, all.iter().max()?);
        let there = LiningThere::of(subject, *most, -*least)?;
        let mut found = self.finding(Rule::Partners, Outcome::Caution, Found::Lining(there));
        found.key.partner = Some(Partner::Lining);
        Some(found)
    }
}
