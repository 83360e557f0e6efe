//! Chalked: a curve at the marks of a tape. From here on figures are what the hand does, row by row.

use crate::fitting::{Edges, GarmentSide};
use crate::length::{Length, Station, Tape, Taught};
use crate::place::Level;

/// Why a row is where it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum MarkedPlace {
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
    Level(Level),
    /// Only to guide the chalk.
    Between,
}

/// A row of the chalk card: one station, with what is chalked there.
#[derive(Clone, Debug, PartialEq)]
pub struct Row {
    /// Where, on a mark of the tape.
    pub station: Station,
    /// Where exactly the places lie that are chalked here, whatever the tape: a row is known by them.
    pub exact: Vec<Station>,
    /// Why here; the most telling reason first.
    pub places: Vec<MarkedPlace>,
    /// On the garment's left, or on both sides where they agree; nothing beyond the line.
    pub left: Option<RowSide>,
    /// On the garment's right, where it is not as on the left; nothing beyond the line.
    pub right: Option<RowSide>,
}

/// What is chalked on one side.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct RowSide {
    /// From the old stitching, or from the middle of a dart, on each edge: at marks of the tape.
    pub edges: Edges,
    /// The cut line from the old stitching on each edge, only if it is trimmed.
    pub cut: Option<[Length; 2]>,
}

impl Row {
    /// What is chalked on one side. Nothing beyond the line there.
    pub const fn of(&self, side: GarmentSide) -> Option<&RowSide> {
        match side {
            GarmentSide::Left => self.left.as_ref(),
            GarmentSide::Right => self.right.as_ref(),
        }
    }

    /// The sides it has.
    pub fn sides(&self) -> impl Iterator<Item = &RowSide> {
        self.left.iter().chain(&self.right)
    }
}

/// So near a place that is chalked for its own sake no row is added to guide the chalk: 2 cm, 3/4 in (teaching value: two dots closer
/// than a thumb is wide bend the line between them).
const CLOSE_ENOUGH: Taught = Taught::new(20, 48);

/// Rows at these places, and every [`Tape::chalk_step`] from `from` to `to` where none of them is near, all on marks of the tape; with
/// nothing on them yet. What lies at the same mark is one row. Takes n log n of the places.
pub(crate) fn rows_at(
    from: Station,
    to: Station,
    places: Vec<(Station, MarkedPlace)>,
    tape: Tape,
) -> Vec<Row> {
    let on_tape = |station: Station| Station(tape.round(station.0));
    let mut found: Vec<(Station, MarkedPlace, Station)> =
        places.into_iter().map(|(station, place)| (on_tape(station), place, station)).collect();
    let mut grid = from.0.up_to(tape.chalk_step());
    while grid < to.0 {
        found.push((on_tape(Station(grid)), MarkedPlace::Between, Station(grid)));
        grid = grid + tape.chalk_step();
    }
    found.sort();
    let mut rows: Vec<Row> = Vec::new();
    for (station, place, exact) in found {
        match rows.last_mut().filter(|row| row.station == station) {
            Some(row) => {
                if place != MarkedPlace::Between && !row.places.contains(&place) {
                    row.places.push(place);
                }
                if !row.exact.contains(&exact) {
                    row.exact.push(exact);
                }
            }
            None => {
                rows.push(Row { station, exact: vec![exact], places: vec![place], left: None, right: None });
            }
        }
    }
    let own: Vec<Length> =
        rows.iter().filter(|row| row.places != [MarkedPlace::Between]).map(|row| row.station.0).collect();
    let is_near = |row: &Row| {
        let above = own.partition_point(|at| *at < row.station.0);
        let beside = [above.checked_sub(1).and_then(|below| own.get(below)), own.get(above)];
        beside.into_iter().flatten().any(|at| (*at - row.station.0).abs() <= CLOSE_ENOUGH.on(tape))
    };
    rows.retain(|row| row.places != [MarkedPlace::Between] || !is_near(row));
    rows
}

/// Which way the figures of rows go from the old stitching.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Way {
    /// Into the panel.
    In,
    /// Out into the allowance.
    Out,
    /// Here in, there out.
    Both,
}

impl Way {
    /// The way that `rows` go.
    pub fn of(rows: &[Row]) -> Self {
        let (mut takes_in, mut lets_out) = (false, false);
        for edge in rows.iter().flat_map(Row::sides).flat_map(|side| [side.edges.front, side.edges.back]) {
            takes_in |= edge.0 > Length::ZERO;
            lets_out |= edge.0 < Length::ZERO;
        }
        match (takes_in, lets_out) {
            (true, true) => Self::Both,
            (false, true) => Self::Out,
            (true | false, false) => Self::In,
        }
    }
}

/// Where to begin stitching: on the old line, 3 cm or 1 1/4 in before it leaves it (teaching value: enough stitches to lock in).
pub const START_ON_OLD_LINE: Taught = Taught::new(30, 80);
