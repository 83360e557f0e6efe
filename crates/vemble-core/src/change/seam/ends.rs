//! Where a line ends: as somebody set it, or as is safe for the cloth.

use super::fair::SHAPE;
use super::input::SeamChange;
use super::line::TOLERANCE;
use crate::change::{Pin, UNSEEN};
use crate::fitting::{Edges, End, EndOf, Fairing};
use crate::garment::{Garment, SeamFacts};
use crate::length::{Length, Measure, Station, Unit};
use crate::place::Level;

/// An end that nobody set lies at least so far from the outermost pin: 5 cm (teaching value: shorter than a hand's width nobody bends a
/// line on purpose).
const SHORTEST_RUN_OUT: Length = Length::from_mm(50);

/// So near an edge nobody means a line to end before it: 5 cm, which is said 2 in on the other tape; the longer of the two.
const NEAR_AN_EDGE: Length = Length::from_64ths(128);

/// The ends of an altered stretch, each with whether it was assumed.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Ends {
    /// At the hem.
    pub lower: End,
    /// At the top of the seam.
    pub upper: End,
    /// The lower end was not given: it runs off an edge that is near, or meets the old stitching where that is safe.
    pub lower_is_assumed: bool,
    /// The upper end was not given: likewise.
    pub upper_is_assumed: bool,
}

impl Default for Ends {
    fn default() -> Self {
        let edge = End::RunsOff {};
        Self { lower: edge, upper: edge, lower_is_assumed: true, upper_is_assumed: true }
    }
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

/// The ends of the line through the pins of one side, as given. A missing one runs off an edge that is near the outermost pin, parallel to
/// the old stitching; else it meets that where the safe run-out (8, 6 or 4 times the offset by cloth) is reached, at least 5 cm on, or at
/// the edge where that comes first. A pin of nought ends the line.
///
/// So a line is never carried further than its pins can answer for: one pin at the waist of a dress says nothing about its hem.
pub(super) fn ends(garment: &Garment, facts: &SeamFacts, change: &SeamChange, pins: &[Pin]) -> Ends {
    let (below, altered, above) = altered(pins);
    // Pins of nought at one place end the line where the first of them lies.
    let last_below = below.chunk_by(|a, b| b.station.0 - a.station.0 < UNSEEN).last();
    let upper = change.upper.or_else(|| through_the_band(garment, facts, altered));
    let end = |of: EndOf| {
        let (set, nought) = match of {
            EndOf::Lower => (change.lower, last_below.and_then(|place| place.first())),
            EndOf::Upper => (upper, above.first()),
        };
        match (set, nought) {
            (set, Some(pin)) if !contradicts(set, of, pin.station.0) => meets(pin.station.0),
            (Some(set), _) => set,
            (None, _) => assumed_end(garment, (facts, change), of, altered, [change.lower, upper]),
        }
    };
    Ends {
        lower: end(EndOf::Lower),
        upper: end(EndOf::Upper),
        lower_is_assumed: change.lower.is_none() && below.is_empty(),
        upper_is_assumed: change.upper.is_none() && above.is_empty(),
    }
}

/// The pins below those that take something, those, and the pins above them. No pins at all where none takes anything.
pub(super) fn altered(pins: &[Pin]) -> (&[Pin], &[Pin], &[Pin]) {
    let takes = |pin: &Pin| pin.edges != Edges::default();
    let (Some(mut from), Some(last)) = (pins.iter().position(takes), pins.iter().rposition(takes)) else {
        return (&[], &[], &[]);
    };
    let mut to = last + 1;
    // A pin of nought at the same place as one that takes something is one with it.
    let is_one = |a: usize| pins[a + 1].station.0 - pins[a].station.0 < UNSEEN;
    while from > 0 && is_one(from - 1) {
        from -= 1;
    }
    while to < pins.len() && is_one(to - 1) {
        to += 1;
    }
    (&pins[..from], &pins[from..to], &pins[to..])
}

/// Where the run-out at one end starts whose outermost pin is `pin`, when the other end is like that.
pub(super) fn taper_from(pin: &Pin, of: EndOf, other: Option<End>) -> Station {
    match other {
        Some(End::StraightThrough { from }) if (from.length - pin.station.0) * of.beyond() > Length::ZERO => {
            Station(from.length)
        }
        Some(
            End::StraightThrough { .. }
            | End::MeetsOldStitching { .. }
            | End::RunsOff {}
            | End::CarriesOn { .. },
        )
        | None => pin.station,
    }
}

fn meets(station: Length) -> End {
    End::MeetsOldStitching { station: Measure { length: station, unit: Unit::Cm } }
}

/// Whether an end that somebody set has the line altered at a pin of nought beyond it.
pub(super) fn contradicts(set: Option<End>, of: EndOf, nought: Length) -> bool {
    match set {
        Some(End::MeetsOldStitching { station }) => (station.length - nought) * of.beyond() < Length::ZERO,
        Some(End::StraightThrough { .. }) => true,
        Some(End::RunsOff {} | End::CarriesOn { .. }) | None => false,
    }
}

/// An end that nobody set, of a line whose other end may go straight through a stretch: the taper starts only beyond that.
fn assumed_end(
    garment: &Garment,
    (facts, change): (&SeamFacts, &SeamChange),
    of: EndOf,
    altered: &[Pin],
    set: [Option<End>; 2],
) -> End {
    let (pin, edge, other) = match of {
        EndOf::Lower => (altered.first(), Length::ZERO, set[1]),
        EndOf::Upper => (altered.last(), facts.end(), set[0]),
    };
    let Some(pin) = pin else { return End::RunsOff {} };
    // As deep as fairing may make it, so that the end is far enough for the line and not only for the pin.
    let places = 1 + altered.windows(2).filter(|w| w[1].station.0 - w[0].station.0 >= UNSEEN).count();
    let wobbles = change.fairing == Fairing::Smooth && places > SHAPE;
    let tolerance = change.tolerance.map_or(TOLERANCE, |set| set.length);
    let more = |depth: Length| if wobbles { tolerance.min(depth.fraction(1, 6)) } else { Length::ZERO };
    let depth = |pin: &Pin| pin.edges.deepest() + more(pin.edges.deepest());
    let Station(start) = taper_from(pin, of, other);
    let offset =
        if start == pin.station.0 { depth(pin) } else { altered.iter().map(depth).max().unwrap_or_default() };
    let room = (edge - start) * of.beyond();
    let reach = (offset * garment.cloth.safe_run_out()).max(SHORTEST_RUN_OUT);
    if room <= NEAR_AN_EDGE { End::RunsOff {} } else { meets(start + reach.min(room) * of.beyond()) }
}

/// A centre seam that is pinned at the waist, in the band or near it, goes straight through the band, unless pins within it say otherwise.
fn through_the_band(garment: &Garment, facts: &SeamFacts, altered: &[Pin]) -> Option<End> {
    let depth = garment.waistband_depth?.length;
    let is_down_the_middle = facts.seam.is_single() && !facts.seam.has_sides();
    if !is_down_the_middle || garment.span_of(facts.seam).1 != Level::Waist {
        return None;
    }
    let (top, below) = altered.split_last()?;
    let band = facts.end() - depth;
    if top.station.0 < band.min(facts.end() - NEAR_AN_EDGE) {
        return None;
    }
    let is_alone = below.last().is_none_or(|pin| pin.station.0 < band.min(top.station.0));
    let from = if is_alone { band.min(top.station.0) } else { top.station.0 };
    Some(End::StraightThrough { from: Measure { length: from, unit: Unit::Cm } })
}
