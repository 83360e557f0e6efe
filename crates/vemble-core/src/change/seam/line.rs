//! From pins to stitching lines: the sides agree, the pins are faired, the ends run out. No tape has a say in it.

use super::fair::{Knot, fair};
use super::input::SeamChange;
use super::length::EdgeLengths;
use super::{one_pass, share};
use crate::change::{Curve, Piece, Pin, Sides, UNSEEN, Wrongs, joined, reconcile, wrong_readings};
use crate::fault::Wrong;
use crate::fitting::{Edges, End, EndOf, Fairing, GarmentSide};
use crate::garment::{Garment, Seam, SeamFacts};
use crate::length::{Length, Measure, PerEdge, Station, Unit, Whole};
use crate::place::Level;
use std::borrow::Cow;
use std::cell::OnceCell;

/// How far a smooth line may pass beside a pin: 3 mm (teaching value: pins wobble by 3 to 6 mm).
pub const TOLERANCE: Length = Length::from_mm(3);

/// A shallow line may pass no further beside its pins than a sixth of the deepest, or smoothing would take most of it away: 3 mm
/// then belong to pins of 18 mm and more (teaching value; `docs/decisions/0014`).
const TOLERANCE_OF_DEEPEST: (i64, i64) = (1, 6);

/// An end that nobody set lies at least so far from the outermost pin: 5 cm (teaching value: shorter than a hand's width nobody bends a
/// line on purpose).
const SHORTEST_RUN_OUT: Length = Length::from_mm(50);

/// The new stitching line of one side of a seam: one curve for each edge, offset from the old stitching.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct StitchingLine {
    /// Off the front edge; positive takes in.
    pub front: Curve,
    /// Off the back edge.
    pub back: Curve,
    /// The pins it was drawn through, from the hem up.
    pub pins: Vec<Pin>,
}

impl StitchingLine {
    /// What comes off each edge at a station.
    pub fn at(&self, station: Station) -> Edges {
        let s = station.0.cm();
        Edges {
            front: PerEdge(Length::from_cm(self.front.at(s))),
            back: PerEdge(Length::from_cm(self.back.at(s))),
        }
    }

    /// What comes off altogether at a station.
    pub fn whole(&self, station: Station) -> Whole {
        self.at(station).whole()
    }

    /// The deeper of the two edges at a station, without sign.
    pub fn deepest(&self, station: Station) -> Length {
        let edges = self.at(station);
        edges.front.0.abs().max(edges.back.0.abs())
    }

    /// Least and greatest of the front edge and of the back edge between two stations, in cm.
    pub fn ranges(&self, from: Station, to: Station) -> [(f64, f64); 2] {
        let range = |edge: &Curve| edge.range(from.0.cm(), to.0.cm());
        let front = range(&self.front);
        [front, if self.has_equal_edges() { front } else { range(&self.back) }]
    }

    /// The deeper of the two edges anywhere between two stations, without sign.
    pub fn deepest_between(&self, from: Station, to: Station) -> Length {
        let [front, back] = self.ranges(from, to);
        Length::from_cm(front.1.max(-front.0).max(back.1).max(-back.0))
    }

    /// First and last altered station. Nothing where nothing is altered.
    pub fn span(&self) -> Option<(Station, Station)> {
        let (from, to) = self.front.span()?;
        Some((Station(Length::from_cm(from)), Station(Length::from_cm(to))))
    }

    /// Both edges moved by the same amount everywhere.
    pub fn has_equal_edges(&self) -> bool {
        self.front == self.back
    }
}

/// The ends of an altered stretch, each with whether it was assumed.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Ends {
    /// At the hem.
    pub lower: End,
    /// At the top of the seam.
    pub upper: End,
    /// The lower end was not given: it meets the old stitching as soon as that is safe, or runs off before.
    pub lower_is_assumed: bool,
    /// The upper end was not given: likewise.
    pub upper_is_assumed: bool,
}

impl Ends {
    /// One of the two.
    pub const fn of(&self, end: EndOf) -> End {
        match end {
            EndOf::Lower => self.lower,
            EndOf::Upper => self.upper,
        }
    }

    /// One of the two was not given.
    pub const fn is_assumed(&self, end: EndOf) -> bool {
        match end {
            EndOf::Lower => self.lower_is_assumed,
            EndOf::Upper => self.upper_is_assumed,
        }
    }
}

/// A seam with its new lines.
#[derive(Clone, Debug)]
pub struct AlteredSeam<'a> {
    /// The seam as it was found.
    pub facts: &'a SeamFacts,
    /// What is to be done, as it was entered; nothing was, where another seam brings it.
    pub change: Cow<'a, SeamChange>,
    /// How much of what is pinned here stays here, in percent; other seams take the rest.
    pub keeps_percent: u8,
    /// How the sides were made to agree.
    pub sides: Sides,
    /// Where the lines end.
    pub ends: Ends,
    /// How far a smooth line may pass beside a pin.
    pub tolerance: Length,
    /// The garment's left and right, in this order; without pieces where nothing changes.
    pub lines: [StitchingLine; 2],
    /// How long both edges of either side are, once somebody asked.
    pub(super) lengths: [OnceCell<Option<EdgeLengths>>; 2],
}

impl AlteredSeam<'_> {
    /// The line on one side of the garment.
    pub fn line(&self, side: GarmentSide) -> &StitchingLine {
        &self.lines[side as usize]
    }

    /// From the first to the last altered station over both sides. Nothing where nothing is altered.
    pub fn span(&self) -> Option<(Station, Station)> {
        let spans = self.lines.iter().filter_map(StitchingLine::span);
        spans.reduce(|a, b| (a.0.min(b.0), a.1.max(b.1)))
    }
}

/// A seam on its way to its lines: its sides agree, nothing is drawn yet.
pub(super) struct Draft<'a> {
    /// The number of the change that it was entered with; what others bring has theirs.
    pub number: usize,
    pub facts: &'a SeamFacts,
    pub change: Cow<'a, SeamChange>,
    pub sides: Sides,
    pub keeps_percent: u8,
    /// Where it ends, and how far beside a pin it may pass, where another seam's line says so.
    pub given: Option<(Ends, Length)>,
}

impl<'a> Draft<'a> {
    fn of(garment: &'a Garment, number: usize, change: &'a SeamChange) -> Result<Self, Wrongs> {
        let Some(facts) = garment.seam(change.seam) else {
            return Err(vec![(number, "seam".into(), Wrong::NotLookedOver { seam: change.seam })]);
        };
        let faults = wrong_pins(garment, facts, change);
        if !faults.is_empty() {
            return Err(faults.into_iter().map(|(field, wrong)| (number, field, wrong)).collect());
        }
        let sides = reconcile(&change.readings, change.front_share.unwrap_or_default(), change.sides);
        Ok(Self { number, facts, change: Cow::Borrowed(change), sides, keeps_percent: 100, given: None })
    }

    /// A seam on which nothing is pinned, for what the change of that number brings.
    pub fn empty(garment: &'a Garment, number: usize, seam: Seam) -> Result<Self, Wrong> {
        let facts = garment.seam(seam).ok_or(Wrong::NotLookedOver { seam })?;
        let change = SeamChange::of(seam);
        let sides = reconcile(&[], Default::default(), None);
        Ok(Self { number, facts, change: Cow::Owned(change), sides, keeps_percent: 100, given: None })
    }

    pub fn ends(&self, garment: &Garment) -> Ends {
        ends(garment, self.facts, &self.change, &self.sides)
    }

    /// As it was set, or as it suits the depth of the pins.
    pub fn tolerance(&self) -> Length {
        self.change.tolerance.map_or_else(
            || {
                let edges = self.sides.pins.iter().flatten().flat_map(|p| [p.edges.front.0, p.edges.back.0]);
                let (of, six) = TOLERANCE_OF_DEEPEST;
                let deepest = edges.map(Length::abs).max();
                let suits = deepest.map_or(TOLERANCE, |deepest| deepest.fraction(of, six));
                TOLERANCE.min(suits).max(Length::from_nm(1))
            },
            |t| t.length,
        )
    }

    pub fn drawn(self, garment: &Garment) -> Result<AlteredSeam<'a>, Wrongs> {
        let (ends, tolerance) = self.given.unwrap_or_else(|| (self.ends(garment), self.tolerance()));
        let Self { number, facts, change, sides, keeps_percent, .. } = self;
        let draw = |side: GarmentSide| {
            draw_line(&sides.pins[side as usize], ends, facts, change.fairing, tolerance)
                .map_err(|(end, wrong)| vec![(number, end.word().to_owned(), wrong)])
        };
        let left = draw(GarmentSide::Left)?;
        let right = if sides.pins[0] == sides.pins[1] { left.clone() } else { draw(GarmentSide::Right)? };
        let lines = [left, right];
        let lengths = Default::default();
        Ok(AlteredSeam { facts, change, keeps_percent, sides, ends, tolerance, lines, lengths })
    }
}

/// Draws the new lines of one altered seam by itself: both edges on both sides, exact and without a tape.
///
/// `garment` has the seam among its facts. Takes some microseconds for a dozen pins.
///
/// # Errors
/// Each with the field of the change that is wrong, as a path below it.
///
/// # Examples
/// ```
/// use vemble_core::change::Change;
/// use vemble_core::change::seam::alter;
/// use vemble_core::document::Document;
/// use vemble_core::fitting::GarmentSide;
/// use vemble_core::length::{Length, Station};
///
/// let json = include_str!("../../../../../demo/corduroys.json");
/// let document: Document = serde_json::from_str(json)?;
/// let Change::Seam(outseam) = &document.try_ons[0].changes[0] else { panic!("it begins with a seam") };
/// let altered = alter(&document.states[0].garment, outseam).expect("its pins make a line");
/// let at_the_hem = altered.line(GarmentSide::Left).at(Station(Length::ZERO));
/// assert_eq!(at_the_hem.whole().0, Length::from_mm(68), "2 edges of 3.4 cm");
/// # Ok::<(), serde_json::Error>(())
/// ```
pub fn alter<'a>(
    garment: &'a Garment,
    change: &'a SeamChange,
) -> Result<AlteredSeam<'a>, Vec<(String, Wrong)>> {
    let drawn = Draft::of(garment, 0, change).and_then(|draft| draft.drawn(garment));
    drawn.map_err(|wrong| wrong.into_iter().map(|(_, field, wrong)| (field, wrong)).collect())
}

/// Draws the new lines of all altered seams of a try-on together: seams give each other shares, and lines carry on into others.
///
/// First those that were entered, in their order, then those that only others bring something to.
///
/// # Errors
/// Each with the number of its change and the field that is wrong, as a path below it.
pub(crate) fn draw<'a>(
    garment: &'a Garment,
    changes: &[(usize, &'a SeamChange)],
) -> Result<Vec<AlteredSeam<'a>>, Wrongs> {
    let (mut drafts, mut faults) = (Vec::new(), Vec::new());
    for &(number, change) in changes {
        match Draft::of(garment, number, change) {
            Ok(draft) => drafts.push(draft),
            Err(wrong) => faults.extend(wrong),
        }
    }
    if faults.is_empty() {
        faults = share::share_out(garment, &mut drafts);
    }
    if faults.is_empty() { one_pass::drawn(garment, drafts) } else { Err(faults) }
}

fn wrong_pins(garment: &Garment, facts: &SeamFacts, change: &SeamChange) -> Vec<(String, Wrong)> {
    let mut faults = wrong_readings(&change.readings, facts.length.length, change.seam.datum());
    for (n, reading) in change.readings.iter().enumerate() {
        let girth = garment.girth_of_one_side(change.seam, reading.station.length);
        let whole = reading.edges(change.front_share.unwrap_or_default()).whole().0;
        if let Some(girth) = girth.filter(|girth| whole >= *girth && !reading.amount.length.is_negative()) {
            let wrong = Wrong::TooDeep { found: reading.amount, girth };
            faults.push((format!("readings[{n}].amount"), wrong));
        }
    }
    for (field, measure) in [("tolerance", change.tolerance), ("trim_to", change.trim_to)] {
        if let Some(found) = measure.filter(|m| m.length <= Length::ZERO) {
            faults.push((field.into(), Wrong::NotPositive { found }));
        }
    }
    faults
}

/// The ends as given; a missing one meets the old stitching where the safe run-out (8, 6 or 4 times the offset by cloth) is
/// reached, at least 5 cm on, or runs off where the seam is too short for that.
///
/// So a line is never carried further than its pins can answer for: one pin at the waist of a dress says nothing about its hem.
fn ends(garment: &Garment, facts: &SeamFacts, change: &SeamChange, sides: &Sides) -> Ends {
    let reach = |pin: &Pin| {
        let offset = pin.edges.front.0.abs().max(pin.edges.back.0.abs());
        (offset * garment.cloth.safe_run_out()).max(SHORTEST_RUN_OUT)
    };
    let meets = |station| End::MeetsOldStitching { station: Measure { length: station, unit: Unit::Cm } };
    let lowest =
        sides.pins.iter().filter_map(|pins| pins.first()).map(|pin| pin.station.0 - reach(pin)).min();
    let highest =
        sides.pins.iter().filter_map(|pins| pins.last()).map(|pin| pin.station.0 + reach(pin)).max();
    let lower = match lowest {
        Some(station) if station >= Length::ZERO => meets(station),
        Some(_) | None => End::RunsOff {},
    };
    let upper = match highest.unwrap_or_default() {
        station if station <= facts.length.length => meets(station),
        _ => through_the_band(garment, facts, sides).unwrap_or(End::RunsOff {}),
    };
    Ends {
        lower: change.lower.unwrap_or(lower),
        upper: change.upper.unwrap_or(upper),
        lower_is_assumed: change.lower.is_none(),
        upper_is_assumed: change.upper.is_none(),
    }
}

/// A centre seam that is taken in at the waist goes straight through the band, unless pins within it say otherwise.
fn through_the_band(garment: &Garment, facts: &SeamFacts, sides: &Sides) -> Option<End> {
    let depth = garment.waistband_depth?.length;
    if !facts.seam.is_single() || garment.span_of(facts.seam).1 != Level::Waist {
        return None;
    }
    let stations = || sides.pins.iter().flatten().map(|pin| pin.station.0);
    let top = stations().max()?;
    let below_band = top.min(facts.length.length - depth);
    let is_alone = !stations().any(|s| s != top && s >= below_band);
    let from = if is_alone { below_band } else { top };
    Some(End::StraightThrough { from: Measure { length: from, unit: Unit::Cm } })
}

/// What is wrong with one end of a line.
type WrongEnd = (EndOf, Wrong);

fn draw_line(
    pins: &[Pin],
    ends: Ends,
    facts: &SeamFacts,
    way: Fairing,
    tolerance: Length,
) -> Result<StitchingLine, WrongEnd> {
    if pins.is_empty() {
        return Ok(StitchingLine::default());
    }
    let edge = |of: fn(Edges) -> PerEdge| {
        let offsets: Vec<(f64, f64)> = pins.iter().map(|p| (p.station.0.cm(), of(p.edges).0.cm())).collect();
        edge_curve(&offsets, ends, facts, way, tolerance)
    };
    let front = edge(|e| e.front)?;
    let back =
        if pins.iter().all(|p| p.edges.front == p.edges.back) { front.clone() } else { edge(|e| e.back)? };
    Ok(StitchingLine { front, back, pins: pins.to_vec() })
}

/// The curve of one edge through `(station, offset)` pins, with its ends.
fn edge_curve(
    pins: &[(f64, f64)],
    ends: Ends,
    facts: &SeamFacts,
    way: Fairing,
    tolerance: Length,
) -> Result<Curve, WrongEnd> {
    let top = facts.length.length.cm();
    let datum = facts.seam.datum();
    let knot = |(s, wanted): (f64, f64)| Knot { s, wanted, pins: 1, held: false, level: false };
    let mut knots: Vec<Knot> = joined(pins, [0.0, top]).into_iter().map(knot).collect();
    let mut close = |of: EndOf, edge: f64, up: f64| {
        let off = |found: Measure| match of {
            EndOf::Lower => Wrong::OffDatum { found, datum },
            EndOf::Upper => Wrong::OffEnd { found, length: facts.length.length, datum },
        };
        let closed =
            close_end(&mut knots, ends.of(of), edge, up, tolerance, off).map_err(|wrong| (of, wrong));
        knots.reverse();
        closed
    };
    let (low, low_flat) = close(EndOf::Lower, 0.0, 1.0)?;
    let (high, high_flat) = close(EndOf::Upper, top, -1.0)?;
    if high - low < UNSEEN.cm() {
        let found = Measure { length: Length::from_cm(high), unit: facts.length.unit };
        return Err((EndOf::Upper, Wrong::EndsCross { found }));
    }
    let mut curve = fair(&knots, way, tolerance.cm());
    let level = |s: [f64; 2], y: f64| Piece { s, y: [y, y], m: [0.0, 0.0] };
    if low_flat && low > 0.0 {
        curve.pieces.insert(0, level([0.0, low], curve.at(low)));
    }
    if high_flat && high < top {
        curve.pieces.push(level([high, top], curve.at(high)));
    }
    Ok(curve)
}

/// Puts the knot of an end before the first of `knots`. `up` is 1 at the lower end and −1 at the upper one, where the
/// knots come reversed; `off` is what is wrong with a station beyond the edge. Gives the station of the end knot, and whether the line is
/// level beyond it.
fn close_end(
    knots: &mut Vec<Knot>,
    end: End,
    edge: f64,
    up: f64,
    tolerance: Length,
    off: impl Fn(Measure) -> Wrong,
) -> Result<(f64, bool), Wrong> {
    let first = knots[0].s;
    match end {
        End::RunsOff {} | End::CarriesOn { .. } if first == edge => knots[0].held = true,
        End::RunsOff {} | End::CarriesOn { .. } => {
            knots.insert(0, Knot { s: edge, wanted: 0.0, pins: 0, held: false, level: false });
        }
        End::MeetsOldStitching { station } => {
            let s = station.length.cm();
            if (first - s) * up < UNSEEN.cm() {
                return Err(Wrong::EndAmongPins { found: station, pin: Length::from_cm(first) });
            }
            if (s - edge) * up < 0.0 {
                return Err(off(station));
            }
            knots.insert(0, Knot { s, wanted: 0.0, pins: 0, held: true, level: true });
        }
        End::StraightThrough { from } => {
            let s = from.length.cm();
            let inside: Vec<f64> =
                knots.iter().filter(|k| (k.s - s) * up < UNSEEN.cm()).map(|k| k.wanted).collect();
            if inside.is_empty() {
                return Err(Wrong::NoPinInStretch { found: from });
            }
            let mean = inside.iter().sum::<f64>() / inside.len() as f64;
            if inside.iter().any(|d| (d - mean).abs() > tolerance.cm()) {
                return Err(Wrong::StretchDisagrees { found: from, tolerance });
            }
            knots.retain(|k| (k.s - s) * up >= UNSEEN.cm());
            knots.insert(0, Knot { s, wanted: mean, pins: 0, held: true, level: true });
        }
    }
    Ok((knots[0].s, matches!(end, End::StraightThrough { .. })))
}
