//! Darts: new ones, deepened ones, and ones that are let out.
//!
//! A dart is fold depth, half of what it takes in, by the station from its point. Darts come in pairs: both have equal length
//! and equal stations, and each fold depth d takes 2d, so a pair takes 4d.

use super::input::DartChange;
use crate::change::{Curve, NOUGHT, On, Sides, UNSEEN, Wrongs, joined, reconcile, wrong_readings};
use crate::fault::Wrong;
use crate::fitting::{FrontShare, GarmentSide, How};
use crate::garment::{BELOW_BUST, Dart, DartFacts, Garment, Seam};
use crate::length::{Length, Station, Tape};
use crate::place::Level;

/// From the waist up to the point of a new dart that nobody placed: 16 cm (teaching value: below the shoulder blade).
const ABOVE_WAIST: Length = Length::from_mm(160);
/// From the waist down to its lower point: 14 cm (teaching value: above the fullest hip).
const BELOW_WAIST: Length = Length::from_mm(140);
/// How far from the middle a new dart lies that nobody placed: 9 cm (teaching value: below the bust point).
const FROM_CENTRE: Length = Length::from_mm(90);

/// A pair of darts with its new fold depths.
#[derive(Clone, Debug)]
pub struct AlteredDart<'a> {
    /// What was pinned.
    pub change: &'a DartChange,
    /// As it was found; nothing for a new one.
    pub facts: Option<&'a DartFacts>,
    /// How high above the hem its point lies, the upper one of two; nothing for a dart that does not run up and down.
    pub point: Option<Length>,
    /// How high above the hem its other end lies.
    pub base: Option<Length>,
    /// From the point to the other end.
    pub length: Length,
    /// Nobody said where a new one lies.
    pub place_is_assumed: bool,
    /// How the two sides were made to agree.
    pub sides: Sides,
    /// Fold depth as it is, by the station from the point as it will lie: where that is moved, it may begin before it or end short of it.
    pub old: Curve,
    /// Fold depth of the pair where it will lie, before its pins.
    pub placed: Curve,
    /// Fold depth as it will be, left and right.
    pub new: [Curve; 2],
}

/// Where a dart lies: its point and its other end, above the hem.
type DartSpan = (Length, Length);

impl AlteredDart<'_> {
    /// Which pair.
    pub const fn key(&self) -> Dart {
        self.change.dart
    }

    /// What its pins add to the fold depth at a station; negative where it is let out.
    pub fn added(&self, side: GarmentSide, station: Station) -> Length {
        let s = station.0.cm();
        Length::from_cm(self.new[side as usize].at(s) - self.placed.at(s))
    }

    /// How far from the middle it lies, measured on the garment: one that is there as it is sewn; the middle of a new one as it was placed from the side
    /// seam, or where such darts lie: an outer one halfway from its neighbour to the side.
    pub fn from_centre(&self, garment: &Garment) -> Length {
        if let Some(facts) = self.facts {
            return facts.from_centre.length;
        }
        let side = garment.face_at_waist(self.key().is_in_front());
        let placed = side.zip(self.change.from_side_seam).map(|(side, from)| side - from.length);
        if let Some(from) = placed.filter(|from| *from > Length::ZERO) {
            return from;
        }
        let inner = match self.key() {
            Dart::OuterFrontWaist => Dart::FrontWaist,
            Dart::OuterBackWaist => Dart::BackWaist,
            Dart::FrontWaist
            | Dart::BackWaist
            | Dart::FrontFishEye
            | Dart::BackFishEye
            | Dart::Bust
            | Dart::Shoulder => return FROM_CENTRE,
        };
        let inner = garment.darts.iter().find(|facts| facts.dart == inner);
        let inner = inner.map_or(FROM_CENTRE, |facts| facts.from_centre.length);
        side.map_or(inner, |side| (inner + side).fraction(1, 2))
    }

    /// It takes less somewhere than it does now: its old stitching comes out first.
    pub fn lets_out(&self) -> bool {
        let pins = self.sides.pins.iter().flatten();
        let mut added = pins.flat_map(|pin| GarmentSide::BOTH.map(|side| self.added(side, pin.station)));
        added.any(|added| added < -NOUGHT)
    }

    /// A pair that is there will lie elsewhere.
    pub const fn is_moved(&self) -> bool {
        self.facts.is_some() && (self.change.point.is_some() || self.change.base.is_some())
    }

    /// The fold depth at a station.
    pub fn depth(&self, side: GarmentSide, station: Station) -> Length {
        Length::from_cm(self.new[side as usize].at(station.0.cm()))
    }

    /// The fold depth that is chalked at a station: there and so deep at the marks of a tape.
    pub fn chalked(&self, side: GarmentSide, station: Station, tape: Tape) -> Length {
        let at = tape.round(station.0).clamp(Length::ZERO, self.length);
        tape.round(self.depth(side, Station(at)))
    }

    /// How much deeper that is than without its pins; negative where it is let out.
    pub fn chalked_more(&self, side: GarmentSide, station: Station, tape: Tape) -> Length {
        let at = tape.round(station.0).clamp(Length::ZERO, self.length);
        self.chalked(side, station, tape) - tape.round(Length::from_cm(self.placed.at(at.cm())))
    }

    /// How much deeper it is chalked at a height above the hem than it is there now. Nothing where neither reaches, or it runs another way.
    pub fn chalked_more_at(&self, side: GarmentSide, height: Length, tape: Tape) -> Option<Length> {
        let station = self.axis_at(height)?;
        let reaches = self.station_at(height).is_some();
        // A mark may lie a little beyond the end of the dart, which has the end's depth there.
        let at = if reaches { tape.round(station).clamp(Length::ZERO, self.length) } else { station };
        let new = if reaches { self.chalked(side, Station(at), tape) } else { Length::ZERO };
        let old = self.old.span().filter(|(from, to)| (*from..=*to).contains(&at.cm()));
        let was = old.map_or(Length::ZERO, |_| tape.round(Length::from_cm(self.old.at(at.cm()))));
        (reaches || old.is_some()).then_some(new - was)
    }

    /// How far from its point a height above the hem lies, towards its other end; nothing where the dart runs another way.
    fn axis_at(&self, height: Length) -> Option<Length> {
        let (point, base) = (self.point?, self.base?);
        Some(if base <= point { point - height } else { height - point })
    }

    /// How high above the hem a station lies; nothing where the dart runs another way.
    pub fn height_of(&self, station: Station) -> Option<Length> {
        let (point, base) = (self.point?, self.base?);
        Some(if base <= point { point - station.0 } else { point + station.0 })
    }

    /// The station at a height above the hem; nothing where the dart does not reach, or runs another way.
    pub fn station_at(&self, height: Length) -> Option<Station> {
        let station = self.axis_at(height)?;
        (!station.is_negative() && station <= self.length).then_some(Station(station))
    }
}

/// Draws the new fold depths of every pair of darts, in the order of their changes.
///
/// # Errors
/// Each with the number of its change and the field that is wrong, as a path below it.
pub(crate) fn draw<'a>(
    on: On<'a>,
    changes: &[(usize, &'a DartChange)],
) -> Result<Vec<AlteredDart<'a>>, Wrongs> {
    let (mut drawn, mut faults) = (Vec::new(), Vec::new());
    for &(number, change) in changes {
        match alter(on.garment, change) {
            Ok(dart) => drawn.push(dart),
            Err(wrong) => faults.extend(wrong.into_iter().map(|(field, wrong)| (number, field, wrong))),
        }
    }
    if faults.is_empty() { Ok(drawn) } else { Err(faults) }
}

/// Draws the new fold depths of a pair of darts.
fn alter<'a>(garment: &'a Garment, pins: &'a DartChange) -> Result<AlteredDart<'a>, Vec<(String, Wrong)>> {
    let facts = garment.darts.iter().find(|d| d.dart == pins.dart);
    if !pins.dart.runs_up_and_down() {
        let given = [("point", pins.point), ("base", pins.base)].into_iter().find(|g| g.1.is_some());
        if let Some((field, _)) = given {
            return Err(vec![(field.into(), Wrong::DartLiesAcross { what: pins.dart.name() })]);
        }
    }
    let found = facts.and_then(|facts| place_of(garment, facts));
    let place = match found {
        Some((point, base)) => {
            let moved = [pins.point, pins.base].map(|at| at.map(|m| m.length));
            let moved = (moved[0].unwrap_or(point), moved[1].unwrap_or(base));
            let turns = (moved.0 < moved.1) != (point < base) || (moved.0 - moved.1).abs() < UNSEEN;
            if turns {
                let field = if pins.point.is_some() { "point" } else { "base" };
                return Err(vec![(field.into(), Wrong::DartTurned { what: pins.dart.name() })]);
            }
            Some(moved)
        }
        None if facts.is_some() => None,
        None => new_place(garment, pins),
    };
    let deepest_pin = pins.readings.iter().map(|r| r.station.length).max().unwrap_or_default();
    let length = match (facts, place) {
        (_, Some((point, base))) => (point - base).abs(),
        (Some(facts), None) => facts.length.length,
        (None, None) if pins.dart.runs_up_and_down() => {
            return Err(vec![("point".into(), Wrong::NoPlaceForDart { what: pins.dart.name() })]);
        }
        (None, None) => deepest_pin,
    };
    let placed = facts.map_or_else(Curve::default, |f| profile(f, length));
    // As it is now, by the station from where its point will lie.
    let old = match (facts, found, place) {
        (Some(facts), Some(found), Some((point, base))) => {
            let towards = if base > point { 1 } else { -1 };
            profile(facts, facts.length.length).along(((found.0 - point) * towards).cm())
        }
        _ => placed.clone(),
    };
    let faults = wrong_pins(pins, &placed, length);
    if !faults.is_empty() {
        return Err(faults);
    }
    let sides = reconcile(&pins.readings, FrontShare::default(), pins.sides, false);
    let new = GarmentSide::BOTH.map(|side| {
        let added: Vec<(f64, f64)> =
            sides.pins[side as usize].iter().map(|p| (p.station.0.cm(), p.edges.front.0.cm())).collect();
        deepened(&placed, &added, length.cm(), pins.dart.has_two_points())
    });
    Ok(AlteredDart {
        change: pins,
        facts,
        point: place.map(|p| p.0),
        base: place.map(|p| p.1),
        length,
        place_is_assumed: facts.is_none()
            && pins.dart.runs_up_and_down()
            && (pins.point.is_none() || pins.base.is_none()),
        sides,
        old,
        placed,
        new,
    })
}

/// Where a dart that is there lies: from the waist up on what hangs from the shoulders, else down; one with two points has its
/// middle at the waist.
fn place_of(garment: &Garment, facts: &DartFacts) -> Option<DartSpan> {
    let waist = garment.level(Level::Waist)?.station.length;
    let length = facts.length.length;
    Some(match facts.dart {
        Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => {
            (if garment.goes_above_waist() { waist + length } else { waist - length }, waist)
        }
        Dart::FrontFishEye | Dart::BackFishEye => {
            let half = length.fraction(1, 2);
            (waist + half, waist + half - length)
        }
        Dart::Bust | Dart::Shoulder => return None,
    })
}

/// Where a new dart lies: as it was placed, and what nobody said from the waist.
fn new_place(garment: &Garment, pins: &DartChange) -> Option<DartSpan> {
    if !pins.dart.runs_up_and_down() {
        return None;
    }
    let waist = garment.level(Level::Waist).map(|l| l.station.length);
    let reach = pins.readings.iter().map(|r| r.station.length).max().unwrap_or_default();
    // In front it stays clear of the bust point, as far as what is pinned on it lets it.
    let bust =
        garment.level(Level::Bust).filter(|_| pins.dart.is_in_front()).map(|l| l.station.length - BELOW_BUST);
    let above = |waist: Length| {
        bust.map_or(waist + ABOVE_WAIST, |bust| (waist + ABOVE_WAIST).min(bust.max(waist + reach)))
    };
    let usual: Option<DartSpan> =
        waist.map(|waist| match (pins.dart.has_two_points(), garment.goes_above_waist()) {
            (true, _) => (above(waist), waist - BELOW_WAIST),
            // From the hem up, through the waist, where no seam crosses there.
            (false, true) if garment.seam(Seam::WaistSeam).is_none() => (above(waist), Length::ZERO),
            (false, true) => (above(waist), waist),
            (false, false) => (waist - reach.max(BELOW_WAIST), waist),
        });
    let point = pins.point.map(|m| m.length).or(usual.map(|u| u.0))?;
    let base = pins.base.map(|m| m.length).or(usual.map(|u| u.1))?;
    ((point - base).abs() >= UNSEEN).then_some((point, base))
}

/// A dart as it is found: straight from its point to where it is deepest.
fn profile(facts: &DartFacts, length: Length) -> Curve {
    let (length, depth) = (length.cm(), facts.fold_depth.length.cm());
    if facts.dart.has_two_points() {
        let middle = length / 2.0;
        let slope = depth / middle;
        let mut up = Curve::through(&[(0.0, 0.0, slope), (middle, depth, slope)]);
        up.pieces.extend(Curve::through(&[(middle, depth, -slope), (length, 0.0, -slope)]).pieces);
        return up;
    }
    let slope = depth / length;
    Curve::through(&[(0.0, 0.0, slope), (length, depth, slope)])
}

fn wrong_pins(change: &DartChange, placed: &Curve, length: Length) -> Vec<(String, Wrong)> {
    let two = change.dart.has_two_points();
    let datum = if two { "upper point" } else { "point" };
    let mut faults = wrong_readings(&change.readings, length, datum, false);
    for (n, reading) in change.readings.iter().enumerate() {
        let (station, found) = (reading.station.length, reading.amount);
        let added = reading.edges(FrontShare::default()).front.0;
        let depth = Length::from_cm(placed.at(station.cm()));
        if matches!(reading.how, How::FrontPanel | How::BackPanel) {
            faults.push((format!("readings[{n}].how"), Wrong::FoldHasNoPanels));
            continue;
        }
        let wrong = if station == Length::ZERO && added != Length::ZERO {
            Wrong::AtThePoint { found }
        } else if two && (length - station).abs() < UNSEEN && added != Length::ZERO {
            Wrong::AtTheLowerPoint { found }
        } else if depth + added < -NOUGHT && station <= length {
            Wrong::ShallowerThanNought { found, depth }
        } else {
            continue;
        };
        faults.push((format!("readings[{n}].amount"), wrong));
    }
    faults
}

/// The fold depth with what pins add: nought at each point, through every pin without a swing and never below nought, and as deep as the
/// last pin from there to a seam or edge.
fn deepened(placed: &Curve, added: &[(f64, f64)], length: f64, two_points: bool) -> Curve {
    if added.is_empty() || length < UNSEEN.cm() {
        return placed.clone();
    }
    let mut points = vec![(0.0, 0.0)];
    let is_inside = |p: &(f64, f64)| p.0 > 0.0 && !(two_points && p.0 >= length);
    points.extend(joined(added, [0.0, length]).into_iter().filter(is_inside));
    let last = points[points.len() - 1];
    if two_points {
        points.push((length, 0.0));
    } else if last.0 < length {
        points.push((length, last.1));
    }
    let more = Curve::without_swings(&points);
    // Where it is deepest now it has a knot as well, so that it keeps its depth there.
    let knots = placed.pieces.iter().map(|piece| piece.s[0]);
    let mut stations: Vec<f64> = points.iter().map(|p| p.0).chain(knots).collect();
    stations.sort_by(f64::total_cmp);
    stations.dedup_by(|a, b| (*a - *b).abs() < UNSEEN.cm());
    let depth = |s: f64| (s, (placed.at(s) + more.at(s)).max(0.0));
    Curve::without_swings(&stations.into_iter().map(depth).collect::<Vec<_>>())
}
