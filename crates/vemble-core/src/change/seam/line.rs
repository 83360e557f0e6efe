//! From pins to stitching lines: the sides agree, the pins are faired, the ends run out. No tape has a say in it.

use super::ends::{Ends, altered, contradicts, ends, taper_from};
use super::fair::{Close, Gate, Knot, fair};
use super::handed::{Handed, hand_out};
use super::input::SeamChange;
use super::length::EdgeLengths;
use super::{one_pass, share};
use crate::change::{Curve, On, Pin, Sides, UNSEEN, Wrongs, joined, reconcile, wrong_readings};
use crate::fault::Wrong;
use crate::fitting::{Edges, End, EndOf, Fairing, GarmentSide};
use crate::garment::{Garment, Seam, SeamFacts};
use crate::length::{Length, Measure, PerEdge, Station, Tape};
use std::borrow::Cow;
use std::cell::OnceCell;

/// How far a pin may move when the pins are made fair: 3 mm (teaching value: pins wobble by 3 to 6 mm).
pub const TOLERANCE: Length = Length::from_mm(3);

/// How far the deepest pin may move: 1 mm (teaching value: the garment was fitted closest there).
pub(super) const TOLERANCE_OF_DEEPEST: Length = Length::from_mm(1);

/// The new stitching line of one side of a seam: one curve for each edge, offset from the old stitching.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct StitchingLine {
    /// Off the front edge; positive takes in.
    pub front: Curve,
    /// Off the back edge.
    pub back: Curve,
    /// The pins it was drawn through, from the hem up.
    pub pins: Vec<Pin>,
    /// Where it ends.
    pub ends: Ends,
    /// Its place among the seams that one amount is handed out over; nothing where it has all of what is pinned on it.
    pub(super) handed: Option<Handed>,
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

    /// What is chalked at a station, at the marks of a tape: there and on each edge. Nothing beyond the line.
    pub fn chalked(&self, station: Station, tape: Tape) -> Option<Edges> {
        let (from, to) = self.span()?;
        let at = tape.round(station.0);
        // A mark may lie a little beyond the end of the line, which has the end's offset there.
        let is_on = from.0 - tape.mark() <= at && at <= to.0 + tape.mark();
        is_on.then(|| self.chalked_on(at.clamp(from.0, to.0), tape))
    }

    /// What is chalked at a station that it reaches.
    fn chalked_on(&self, at: Length, tape: Tape) -> Edges {
        match &self.handed {
            Some(handed) => handed.chalked(at, tape),
            None => self.at(Station(at)).chalked(tape),
        }
    }

    /// What is chalked at both ends, at each pin and at each end of a straight stretch between two stations: between those nothing is
    /// deeper or shallower.
    pub fn chalked_between(&self, from: Station, to: Station, tape: Tape) -> Vec<Edges> {
        let pins = self.pins.iter().map(|pin| pin.station).filter(|s| from < *s && *s < to);
        [from, to].into_iter().chain(pins).filter_map(|station| self.chalked(station, tape)).collect()
    }

    /// The deepest that is chalked on either edge between two stations, without sign.
    pub fn deepest_chalked(&self, from: Station, to: Station, tape: Tape) -> Length {
        self.chalked_between(from, to, tape).into_iter().map(Edges::deepest).max().unwrap_or_default()
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

    /// Where its run-out at one end starts: at the outermost pin that takes something, or below a stretch that goes straight through.
    /// Nothing where nothing is altered.
    pub fn taper_from(&self, end: EndOf) -> Option<Station> {
        let (_, altered, _) = altered(&self.pins);
        let (pin, other) = match end {
            EndOf::Lower => (altered.first()?, self.ends.upper),
            EndOf::Upper => (altered.last()?, self.ends.lower),
        };
        Some(taper_from(pin, end, Some(other)))
    }

    /// Both edges moved by the same amount everywhere.
    pub fn has_equal_edges(&self) -> bool {
        self.front == self.back
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

/// How far pins may move.
#[derive(Clone, Copy, Debug)]
pub(super) struct Tolerance {
    /// Any pin at most.
    pub any: Length,
    /// The deepest.
    pub deepest: Length,
}

impl Tolerance {
    /// A share of a line has the same share of its tolerance, so that it is drawn like the whole.
    pub fn fraction(self, over: i64, under: i64) -> Self {
        let of = |length: Length| length.fraction(over, under).max(Length::from_nm(1));
        Self { any: of(self.any), deepest: of(self.deepest) }
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
    /// Where it ends on each side, and how far beside a pin it may pass, where another seam's line says so.
    pub given: Option<([Ends; 2], Tolerance)>,
}

impl<'a> Draft<'a> {
    fn of(
        garment: &'a Garment,
        number: usize,
        change: &'a SeamChange,
        keeps_all: bool,
    ) -> Result<Self, Wrongs> {
        let Some(facts) = garment.seam(change.seam) else {
            return Err(vec![(number, "seam".into(), Wrong::NotLookedOver { seam: change.seam })]);
        };
        let faults = wrong_pins(garment, facts, change);
        if !faults.is_empty() {
            return Err(faults.into_iter().map(|(field, wrong)| (number, field, wrong)).collect());
        }
        let sides = reconcile(
            &change.readings,
            change.front_share.unwrap_or_default(),
            change.sides,
            !change.seam.has_sides(),
        );
        let change = match change.trim_to.is_some() && (keeps_all || change.set_in) {
            true => Cow::Owned(SeamChange { trim_to: None, ..change.clone() }),
            false => Cow::Borrowed(change),
        };
        Ok(Self { number, facts, change, sides, keeps_percent: 100, given: None })
    }

    /// A seam on which nothing is pinned, for what the change of that number brings.
    pub fn empty(garment: &'a Garment, number: usize, seam: Seam) -> Result<Self, Wrong> {
        let facts = garment.seam(seam).ok_or(Wrong::NotLookedOver { seam })?;
        let change = SeamChange::of(seam);
        let sides = reconcile(&[], Default::default(), None, !seam.has_sides());
        Ok(Self { number, facts, change: Cow::Owned(change), sides, keeps_percent: 100, given: None })
    }

    /// Where its line ends on each side.
    pub fn ends(&self, garment: &Garment) -> [Ends; 2] {
        self.sides.pins.each_ref().map(|pins| ends(garment, self.facts, &self.change, pins))
    }

    /// As it was set, or as pins wobble.
    pub fn tolerance(&self) -> Tolerance {
        let any = self.change.tolerance.map_or(TOLERANCE, |set| set.length);
        Tolerance { any, deepest: TOLERANCE_OF_DEEPEST }
    }

    pub fn drawn(self, garment: &Garment) -> Result<AlteredSeam<'a>, Wrongs> {
        let (ends, tolerance) = self.given.unwrap_or_else(|| (self.ends(garment), self.tolerance()));
        let Self { number, facts, change, sides, keeps_percent, .. } = self;
        let draw = |side: GarmentSide| {
            let at = side as usize;
            draw_line(&sides.pins[at], ends[at], facts, change.fairing, tolerance)
                .map_err(|(end, wrong)| vec![(number, end.word().to_owned(), wrong)])
        };
        let left = draw(GarmentSide::Left)?;
        let alike = sides.pins[0] == sides.pins[1] && ends[0] == ends[1];
        let right = if alike { left.clone() } else { draw(GarmentSide::Right)? };
        let lines = [left, right];
        let (tolerance, lengths) = (tolerance.any, Default::default());
        Ok(AlteredSeam { facts, change, keeps_percent, sides, tolerance, lines, lengths })
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
/// assert_eq!(at_the_hem.front.0.nearest(Length::from_mm(1)), Length::from_mm(34), "3.4 cm off each edge");
/// # Ok::<(), serde_json::Error>(())
/// ```
pub fn alter<'a>(
    garment: &'a Garment,
    change: &'a SeamChange,
) -> Result<AlteredSeam<'a>, Vec<(String, Wrong)>> {
    let drawn = Draft::of(garment, 0, change, false).and_then(|draft| draft.drawn(garment));
    drawn.map_err(|wrong| wrong.into_iter().map(|(_, field, wrong)| (field, wrong)).collect())
}

/// Draws the new lines of all altered seams of a try-on together: seams give each other shares, and lines carry on into others.
///
/// First those that were entered, in their order, then those that only others bring something to.
///
/// # Errors
/// Each with the number of its change and the field that is wrong, as a path below it.
pub(crate) fn draw<'a>(
    on: On<'a>,
    changes: &[(usize, &'a SeamChange)],
) -> Result<Vec<AlteredSeam<'a>>, Wrongs> {
    let garment = on.garment;
    let (mut drafts, mut faults) = (Vec::new(), Vec::new());
    for &(number, change) in changes {
        match Draft::of(garment, number, change, on.keeps_all) {
            Ok(draft) => drafts.push(draft),
            Err(wrong) => faults.extend(wrong),
        }
    }
    if faults.is_empty() {
        faults = share::share_out(garment, &mut drafts);
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let mut seams = one_pass::drawn(garment, drafts)?;
    hand_out(garment, &mut seams);
    Ok(seams)
}

fn wrong_pins(garment: &Garment, facts: &SeamFacts, change: &SeamChange) -> Vec<(String, Wrong)> {
    let mut faults =
        wrong_readings(&change.readings, facts.end(), change.seam.datum(), !change.seam.has_sides());
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

/// What is wrong with one end of a line.
type WrongEnd = (EndOf, Wrong);

/// The line of one side: without pieces where no pin takes anything.
fn draw_line(
    pins: &[Pin],
    ends: Ends,
    facts: &SeamFacts,
    way: Fairing,
    tolerance: Tolerance,
) -> Result<StitchingLine, WrongEnd> {
    let (below, altered, above) = altered(pins);
    let pins = pins.to_vec();
    if altered.is_empty() {
        return Ok(StitchingLine { pins, ends, ..StitchingLine::default() });
    }
    for (of, pin) in [(EndOf::Lower, below.last()), (EndOf::Upper, above.first())] {
        if let Some(pin) = pin
            && let End::MeetsOldStitching { station: found } = ends.of(of)
            && contradicts(Some(ends.of(of)), of, pin.station.0)
        {
            return Err((of, Wrong::EndAmongPins { found, pin: pin.station.0 }));
        }
    }
    let edge = |of: fn(Edges) -> PerEdge| {
        let offsets: Vec<(f64, f64)> =
            altered.iter().map(|p| (p.station.0.cm(), of(p.edges).0.cm())).collect();
        edge_curve(&offsets, ends, facts, way, tolerance)
    };
    let front = edge(|e| e.front)?;
    let back =
        if altered.iter().all(|p| p.edges.front == p.edges.back) { front.clone() } else { edge(|e| e.back)? };
    Ok(StitchingLine { front, back, pins, ends, ..StitchingLine::default() })
}

/// The curve of one edge through `(station, offset)` pins, with its ends.
fn edge_curve(
    pins: &[(f64, f64)],
    ends: Ends,
    facts: &SeamFacts,
    way: Fairing,
    tolerance: Tolerance,
) -> Result<Curve, WrongEnd> {
    let top = facts.end().cm();
    let knot = |(s, wanted): (f64, f64)| Knot { s, wanted, held: false };
    let mut knots: Vec<Knot> = joined(pins, [0.0, top]).into_iter().map(knot).collect();
    let mut closed = |of: EndOf| {
        let closed = closed(&mut knots, ends, of, facts, tolerance.any).map_err(|wrong| (of, wrong));
        knots.reverse();
        closed
    };
    let (lower, upper) = (closed(EndOf::Lower)?, closed(EndOf::Upper)?);
    if upper.station() - lower.station() < UNSEEN.cm() {
        let found = Measure { length: Length::from_cm(upper.station()), unit: facts.length.unit };
        return Err((EndOf::Upper, Wrong::EndsCross { found }));
    }
    let gate = Gate { any: tolerance.any.cm(), deepest: tolerance.deepest.cm() };
    Ok(fair(&knots, [lower, upper], way, gate))
}

/// How a line goes on from the first of `knots`, which come reversed at the upper end. Those that a straight stretch has the mean of become
/// one, where that begins.
fn closed(
    knots: &mut Vec<Knot>,
    ends: Ends,
    of: EndOf,
    facts: &SeamFacts,
    tolerance: Length,
) -> Result<Close, Wrong> {
    let (edge, datum) = (if of == EndOf::Lower { 0.0 } else { facts.end().cm() }, facts.seam.datum());
    let up = if of == EndOf::Lower { 1.0 } else { -1.0 };
    match ends.of(of) {
        End::RunsOff {} if ends.is_assumed(of) => Ok(Close::Parallel(edge)),
        End::RunsOff {} | End::CarriesOn { .. } => Ok(Close::Carries(edge)),
        End::MeetsOldStitching { station: found } => {
            let (s, first) = (found.length.cm(), knots[0].s);
            if (s - edge) * up < 0.0 {
                return Err(match of {
                    EndOf::Lower => Wrong::OffDatum { found, datum },
                    EndOf::Upper => Wrong::OffEnd { found, length: facts.end(), datum },
                });
            }
            if (first - s) * up < UNSEEN.cm() {
                return Err(Wrong::EndAmongPins { found, pin: Length::from_cm(first) });
            }
            Ok(Close::Meets(s))
        }
        End::StraightThrough { from } => {
            let s = from.length.cm();
            let is_inside = |knot: &Knot| (knot.s - s) * up < UNSEEN.cm();
            let inside: Vec<f64> = knots.iter().filter(|k| is_inside(k)).map(|k| k.wanted).collect();
            if inside.is_empty() {
                return Err(Wrong::NoPinInStretch { found: from });
            }
            let mean = inside.iter().sum::<f64>() / inside.len() as f64;
            if inside.iter().any(|d| (d - mean).abs() > tolerance.cm()) {
                return Err(Wrong::StretchDisagrees { found: from, tolerance });
            }
            knots.retain(|knot| !is_inside(knot));
            knots.insert(0, Knot { s, wanted: mean, held: true });
            Ok(Close::Parallel(edge))
        }
    }
}
