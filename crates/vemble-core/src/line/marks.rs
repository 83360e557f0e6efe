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
    let mut add = |station: Station, place: Place| found.push((Station(tape.round(station.0)), place));
    for (end, edge) in [(from, Station::default()), (to, top)] {
        add(end, if end == edge { Place::Edge } else { Place::MeetsOldStitching });
    }
    for end in [seam.ends.lower, seam.ends.upper] {
        if let super::End::StraightThrough { from } = end {
            add(Station(from.length), Place::StraightFromHere);
        }
    }
    for side in GarmentSide::BOTH {
        for pin in &seam.line(side).pins {
            add(pin.station, Place::Pin);
        }
    }
    for level in &garment.levels {
        let Some(station) = garment.station_on(seam.facts.seam, level.level).map(Station) else { continue };
        if from < station && station < to {
            add(station, Place::Level(level.level.name()));
        }
    }
    let mut grid = from.0.up_to(tape.chalk_step());
    while grid < to.0 {
        add(Station(grid), Place::Between);
        grid = grid + tape.chalk_step();
    }
    collect(found)
}

fn collect(mut found: Vec<(Station, Place)>) -> Vec<Mark> {
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
