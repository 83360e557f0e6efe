//! From pins to stitching lines: the sides are made to agree, the pins are faired, the ends run out.

mod curve;
mod fair;
mod length;
mod marks;
mod one_pass;
mod share;
mod sides;

pub use curve::{Curve, Piece};
pub use length::{EDGES_MAY_DIFFER, EdgeLengths, edge_lengths};
pub(crate) use marks::marks_between;
pub use marks::{Mark, Place, START_ON_OLD_LINE, marks};
pub use sides::{AGREE_WITHIN, SidePolicy, Sides, Suggestion, Taken, reconcile};

use crate::fault::Wrong;
use crate::fitting::{Alteration, Edges, GarmentSide};
use crate::garment::{Garment, Level, Seam, SeamFacts};
use crate::length::{Length, Measure, PerEdge, Station, Tape, Unit, Whole};
use fair::{Knot, fair};
use serde::{Deserialize, Serialize};
use std::borrow::Cow;
use std::cell::OnceCell;
use utoipa::ToSchema;

/// How far a smooth line may pass beside a pin: 3 mm (teaching value: pins wobble by 3 to 6 mm).
pub const TOLERANCE: Length = Length::from_mm(3);

/// A shallow line may pass no further beside its pins than a sixth of the deepest, or smoothing would take most of it away: 3 mm
/// then belong to pins of 18 mm and more (teaching value; `docs/decisions/0014`).
const TOLERANCE_OF_DEEPEST: (i64, i64) = (1, 6);

/// How a line goes through the pins.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Fairing {
    /// The smoothest line within tolerance of every pin.
    #[default]
    Smooth,
    /// Through every pin, without a swing between them.
    EveryPin,
    /// Straight from pin to pin.
    Straight,
}

/// What happens at one end of the altered stretch.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", tag = "end", deny_unknown_fields)]
pub enum End {
    /// Runs into the old stitching at a station, without a bend there.
    MeetsOldStitching {
        /// Where it meets.
        station: Measure,
    },
    /// Carries its slope on to the edge of the garment.
    RunsOff {},
    /// Turns the corner and goes on in the seam it meets there, in one pass: under the arm.
    CarriesOn {
        /// Which seam.
        into: Seam,
    },
    /// Stays parallel to the old stitching from a station to the edge: a waistband's depth.
    StraightThrough {
        /// Where the straight stretch begins, seen from the pins.
        from: Measure,
    },
}

/// A pin with what it takes off each edge, after the sides were made to agree.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Pin {
    /// Where on the seam.
    pub station: Station,
    /// What it takes off.
    pub edges: Edges,
}

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

    /// First and last altered station.
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

/// A seam with its new lines.
#[derive(Clone, Debug)]
pub struct AlteredSeam<'a> {
    /// The seam as it was found.
    pub facts: &'a SeamFacts,
    /// What is to be done, as it was entered; nothing was, where another seam brings it.
    pub alteration: Cow<'a, Alteration>,
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
    lengths: [OnceCell<Option<EdgeLengths>>; 2],
}

impl AlteredSeam<'_> {
    /// The line on one side of the garment.
    pub fn line(&self, side: GarmentSide) -> &StitchingLine {
        &self.lines[side as usize]
    }

    /// Both sides have the same line.
    pub fn sides_agree(&self) -> bool {
        self.lines[0] == self.lines[1]
    }

    /// From the first to the last altered station over both sides.
    pub fn span(&self) -> Option<(Station, Station)> {
        let spans = self.lines.iter().filter_map(StitchingLine::span);
        spans.reduce(|a, b| (a.0.min(b.0), a.1.max(b.1)))
    }
}

/// What is wrong with an alteration: the path of its field below it, and why.
type Wrongs = Vec<(String, Wrong)>;

/// A seam on its way to its lines: its sides agree, nothing is drawn yet.
struct Draft<'a> {
    facts: &'a SeamFacts,
    alteration: Cow<'a, Alteration>,
    sides: Sides,
    keeps_percent: u8,
    /// Where it ends, and how far beside a pin it may pass, where another seam's line says so.
    given: Option<(Ends, Length)>,
}

impl<'a> Draft<'a> {
    fn of(garment: &'a Garment, alteration: &'a Alteration) -> Result<Self, Wrongs> {
        let Some(facts) = garment.seam(alteration.seam) else {
            return Err(vec![("seam".into(), Wrong::NotLookedOver { seam: alteration.seam })]);
        };
        let faults = wrong_readings(garment, facts, alteration);
        if !faults.is_empty() {
            return Err(faults);
        }
        let sides = reconcile(alteration);
        Ok(Self { facts, alteration: Cow::Borrowed(alteration), sides, keeps_percent: 100, given: None })
    }

    /// A seam on which nothing is pinned, for what others bring.
    fn empty(garment: &'a Garment, seam: Seam) -> Result<Self, Wrong> {
        let facts = garment.seam(seam).ok_or(Wrong::NotLookedOver { seam })?;
        let alteration = Alteration::of(seam);
        let sides = reconcile(&alteration);
        Ok(Self { facts, alteration: Cow::Owned(alteration), sides, keeps_percent: 100, given: None })
    }

    fn ends(&self, garment: &Garment, tape: Tape) -> Ends {
        ends(garment, self.facts, &self.alteration, &self.sides, tape)
    }

    /// As it was set, or as it suits the depth of the pins.
    fn tolerance(&self) -> Length {
        self.alteration.tolerance.map_or_else(
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

    fn drawn(self, garment: &Garment, tape: Tape) -> Result<AlteredSeam<'a>, Wrongs> {
        let (ends, tolerance) = self.given.unwrap_or_else(|| (self.ends(garment, tape), self.tolerance()));
        let Self { facts, alteration, sides, keeps_percent, .. } = self;
        let draw =
            |side: GarmentSide| draw(&sides.pins[side as usize], ends, facts, alteration.fairing, tolerance);
        let left = draw(GarmentSide::Left)?;
        let right = if sides.pins[0] == sides.pins[1] { left.clone() } else { draw(GarmentSide::Right)? };
        let lines = [left, right];
        Ok(AlteredSeam {
            facts,
            alteration,
            keeps_percent,
            sides,
            ends,
            tolerance,
            lines,
            lengths: Default::default(),
        })
    }
}

/// Draws the new lines of one altered seam by itself.
///
/// # Errors
/// Each with the field of the alteration that is wrong, as a path below it.
pub fn alter<'a>(
    garment: &'a Garment,
    alteration: &'a Alteration,
    tape: Tape,
) -> Result<AlteredSeam<'a>, Wrongs> {
    Draft::of(garment, alteration)?.drawn(garment, tape)
}

/// Draws the new lines of all altered seams of a try-on together: seams give each other shares, and lines carry on into others.
///
/// First those that were entered, in their order, then those that only others bring something to.
///
/// # Errors
/// Each with the number of the alteration and the field that is wrong, as a path below it.
pub fn alter_all<'a>(
    garment: &'a Garment,
    alterations: &'a [Alteration],
    tape: Tape,
) -> Result<Vec<AlteredSeam<'a>>, Vec<(usize, String, Wrong)>> {
    let mut faults = Vec::new();
    let mut drafts = Vec::new();
    for (n, alteration) in alterations.iter().enumerate() {
        match Draft::of(garment, alteration) {
            Ok(draft) => drafts.push(draft),
            Err(wrong) => faults.extend(wrong.into_iter().map(|(field, wrong)| (n, field, wrong))),
        }
    }
    if faults.is_empty() {
        faults = share::share_out(garment, &mut drafts, tape);
    }
    if faults.is_empty() { one_pass::drawn(garment, drafts, tape) } else { Err(faults) }
}

fn wrong_readings(garment: &Garment, facts: &SeamFacts, alteration: &Alteration) -> Vec<(String, Wrong)> {
    let mut faults = Vec::new();
    for (i, reading) in alteration.readings.iter().enumerate() {
        let mut fault = |field: &str, wrong| faults.push((format!("readings[{i}].{field}"), wrong));
        let (station, amount) = (reading.station, reading.amount);
        if station.length.is_negative() || station.length > facts.length.length {
            fault("station", Wrong::OffSeam { found: station, length: facts.length });
        } else if let Some(first) =
            alteration.readings[..i].iter().position(|r| r.side == reading.side && r.at() == reading.at())
        {
            fault("station", Wrong::SameStation { found: station, side: reading.side, first });
        }
        if amount.length.is_negative() {
            fault("amount", Wrong::Negative { found: amount });
        } else if let Some(girth) = garment.girth_of_one_side(alteration.seam, station.length) {
            let whole = reading.edges(alteration.front_share.unwrap_or_default()).whole();
            if whole.0 >= girth {
                fault(
                    "amount",
                    Wrong::TooDeep { found: amount, girth: Measure { length: girth, unit: amount.unit } },
                );
            }
        }
    }
    for (field, measure) in [("tolerance", alteration.tolerance), ("trim_to", alteration.trim_to)] {
        if let Some(found) = measure.filter(|m| m.length <= Length::ZERO) {
            faults.push((field.into(), Wrong::NotPositive { found }));
        }
    }
    faults
}

/// The ends as given; a missing one meets the old stitching where the safe run-out (handbook: 8, 6 or 4 times the offset by
/// cloth) is reached, at least 5 cm on, or runs off where the seam is too short for that.
///
/// So a line is never carried further than its pins can answer for: one pin at the waist of a dress says nothing about its hem.
fn ends(garment: &Garment, facts: &SeamFacts, alteration: &Alteration, sides: &Sides, tape: Tape) -> Ends {
    let reach = |pin: &Pin| {
        let offset = pin.edges.front.0.abs().max(pin.edges.back.0.abs());
        (offset * garment.cloth.safe_run_out()).max(Length::from_mm(50))
    };
    let meets = |station| End::MeetsOldStitching { station: Measure { length: station, unit: tape.unit() } };
    let lowest =
        sides.pins.iter().filter_map(|pins| pins.first()).map(|pin| pin.station.0 - reach(pin)).min();
    let highest =
        sides.pins.iter().filter_map(|pins| pins.last()).map(|pin| pin.station.0 + reach(pin)).max();
    let lower = match lowest.map(|station| -(-station).up_to(tape.mark())) {
        Some(station) if station >= Length::ZERO => meets(station),
        _ => End::RunsOff {},
    };
    let upper = match highest.unwrap_or(Length::ZERO).up_to(tape.mark()) {
        station if station <= facts.length.length => meets(station),
        _ => through_the_band(garment, facts, sides, tape).unwrap_or(End::RunsOff {}),
    };
    Ends {
        lower: alteration.lower.unwrap_or(lower),
        upper: alteration.upper.unwrap_or(upper),
        lower_is_assumed: alteration.lower.is_none(),
        upper_is_assumed: alteration.upper.is_none(),
    }
}

/// A centre seam that is taken in at the waist goes straight through the band, unless pins within it say otherwise.
fn through_the_band(garment: &Garment, facts: &SeamFacts, sides: &Sides, tape: Tape) -> Option<End> {
    let depth = garment.waistband_depth?.length;
    if !facts.seam.is_single() || garment.span_of(facts.seam).1 != Level::Waist {
        return None;
    }
    let stations = || sides.pins.iter().flatten().map(|pin| pin.station.0);
    let top = stations().max()?;
    let below_band = top.min(facts.length.length - depth);
    let is_alone = !stations().any(|s| s != top && s >= below_band);
    let from = if is_alone { below_band } else { top };
    Some(End::StraightThrough { from: Measure { length: from, unit: tape.unit() } })
}

fn draw(
    pins: &[Pin],
    ends: Ends,
    facts: &SeamFacts,
    way: Fairing,
    tolerance: Length,
) -> Result<StitchingLine, Vec<(String, Wrong)>> {
    if pins.is_empty() {
        return Ok(StitchingLine::default());
    }
    let edge = |of: fn(Edges) -> PerEdge| {
        let offsets: Vec<(f64, f64)> = pins.iter().map(|p| (p.station.0.cm(), of(p.edges).0.cm())).collect();
        edge_curve(&offsets, ends, facts.length, way, tolerance)
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
    length: Measure,
    way: Fairing,
    tolerance: Length,
) -> Result<Curve, Vec<(String, Wrong)>> {
    let top = length.length.cm();
    let mut knots: Vec<Knot> =
        pins.iter().map(|&(s, wanted)| Knot { s, wanted, pins: 1, held: false, level: false }).collect();
    let (low, low_flat) =
        close(&mut knots, ends.lower, 0.0, 1.0, tolerance).map_err(|w| vec![("lower".into(), w)])?;
    knots.reverse();
    let (high, high_flat) =
        close(&mut knots, ends.upper, top, -1.0, tolerance).map_err(|w| vec![("upper".into(), w)])?;
    knots.reverse();
    if low >= high {
        let found = Measure { length: Length::from_cm(high), unit: length.unit };
        return Err(vec![("upper".into(), Wrong::EndsCross { found })]);
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
/// knots come reversed. Gives the station of the end knot, and whether the line is level beyond it.
fn close(
    knots: &mut Vec<Knot>,
    end: End,
    edge: f64,
    up: f64,
    tolerance: Length,
) -> Result<(f64, bool), Wrong> {
    let first = knots[0].s;
    let measure = |cm: f64| Measure { length: Length::from_cm(cm), unit: Unit::Cm };
    match end {
        End::RunsOff {} | End::CarriesOn { .. } if first == edge => knots[0].held = true,
        End::RunsOff {} | End::CarriesOn { .. } => {
            knots.insert(0, Knot { s: edge, wanted: 0.0, pins: 0, held: false, level: false });
        }
        End::MeetsOldStitching { station } => {
            let s = station.length.cm();
            if (first - s) * up <= 0.0 {
                return Err(Wrong::EndAmongPins { found: station, pin: measure(first) });
            }
            if (s - edge) * up < 0.0 {
                return Err(Wrong::OffSeam {
                    found: station,
                    length: measure(if up > 0.0 { 0.0 } else { edge }),
                });
            }
            knots.insert(0, Knot { s, wanted: 0.0, pins: 0, held: true, level: true });
        }
        End::StraightThrough { from } => {
            let s = from.length.cm();
            let inside: Vec<f64> = knots.iter().filter(|k| (k.s - s) * up <= 0.0).map(|k| k.wanted).collect();
            if inside.is_empty() {
                return Err(Wrong::NoPinInStretch { found: from });
            }
            let mean = inside.iter().sum::<f64>() / inside.len() as f64;
            if inside.iter().any(|d| (d - mean).abs() > tolerance.cm()) {
                let tolerance = Measure { length: tolerance, unit: from.unit };
                return Err(Wrong::StretchDisagrees { found: from, tolerance });
            }
            knots.retain(|k| (k.s - s) * up > 0.0);
            knots.insert(0, Knot { s, wanted: mean, pins: 0, held: true, level: true });
        }
    }
    Ok((knots[0].s, matches!(end, End::StraightThrough { .. })))
}

#[cfg(test)]
mod tests;
