//! The marks: what the sewist chalks, station by station.

use super::AlteredSeam;
use crate::fitting::GarmentSide;
use crate::garment::Garment;
use crate::length::{Length, Station, Tape};

/// Why a mark is where it is.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Place {
    /// The edge of the garment.
    Edge,
    /// The line meets the old stitching here.
    MeetsOldStitching,
    /// The line is straight from here to the edge.
    StraightFromHere,
    /// The line turns the corner into another seam.
    Corner,
    /// A dart ends here.
    Point,
    /// A pin was here, on this side or on both.
    Pin,
    /// A level of the garment.
    Level(&'static str),
    /// Only to guide the chalk.
    Between,
}

/// A mark on the cloth.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Mark {
    /// Where, on a tape mark.
    pub station: Station,
    /// Why here; the most telling reason first.
    pub places: Vec<Place>,
}

/// The stations to chalk: each pin, each landmark, both ends, and at least every [`Tape::chalk_step`].
///
/// All fall on tape marks; the figure at a mark is the exact line at that mark.
pub fn marks(garment: &Garment, seam: &AlteredSeam<'_>, tape: Tape) -> Vec<Mark> {
    let Some((from, to)) = seam.span() else { return Vec::new() };
    let top = Station(seam.facts.length.length);
    let mut found: Vec<(Station, Place)> = Vec::new();
    let mut add = |station: Station, place: Place| found.push((station, place));
    let turns = matches!(seam.ends.upper, super::End::CarriesOn { .. });
    for (end, edge) in [(from, Station::default()), (to, top)] {
        let at_edge = if edge == top && turns { Place::Corner } else { Place::Edge };
        add(end, if end == edge { at_edge } else { Place::MeetsOldStitching });
    }
    for end in [seam.ends.lower, seam.ends.upper] {
        if let super::End::StraightThrough { from } = end {
            add(Station(from.length), Place::StraightFromHere);
        }
    }
    for side in GarmentSide::BOTH {
        for pin in seam.line(side).pins.iter().filter(|p| !(turns && p.station == top)) {
            add(pin.station, Place::Pin);
        }
    }
    for level in &garment.levels {
        let Some(station) = garment.station_on(seam.facts.seam, level.level).map(Station) else { continue };
        if from < station && station < to {
            add(station, Place::Level(level.level.name()));
        }
    }
    marks_between(from, to, found, tape)
}

/// Marks at these places, and at least every [`Tape::chalk_step`] from `from` to `to`; all on tape marks.
pub(crate) fn marks_between(
    from: Station,
    to: Station,
    places: Vec<(Station, Place)>,
    tape: Tape,
) -> Vec<Mark> {
    let on_tape = |(station, place): (Station, Place)| (Station(tape.round(station.0)), place);
    let mut found: Vec<(Station, Place)> = places.into_iter().map(on_tape).collect();
    let mut grid = from.0.up_to(tape.chalk_step());
    while grid < to.0 {
        found.push((Station(tape.round(grid)), Place::Between));
        grid = grid + tape.chalk_step();
    }
    found.sort();
    found.dedup();
    let mut marks: Vec<Mark> = Vec::new();
    for (station, place) in found {
        match marks.last_mut().filter(|m| m.station == station) {
            Some(mark) if place != Place::Between => mark.places.push(place),
            Some(_) => {}
            None => marks.push(Mark { station, places: vec![place] }),
        }
    }
    marks
}

/// Where to begin stitching: on the old line, 3 cm before it leaves it (teaching value: enough stitches to lock in).
pub const START_ON_OLD_LINE: Length = Length::from_mm(30);
