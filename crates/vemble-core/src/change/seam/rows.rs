//! The rows of a seam's card: each pin, each landmark, both ends, and enough between them.

use super::AlteredSeam;
use crate::chalk::{MarkedPlace, Row, RowSide, rows_at};
use crate::change::Drawn;
use crate::fitting::{End, GarmentSide};
use crate::garment::Garment;
use crate::length::{Length, Station, Tape};

impl AlteredSeam<'_> {
    /// Everything to chalk, from the datum on; nothing where nothing changes. All rows fall on tape marks, and have the exact line there.
    pub(crate) fn rows(&self, garment: &Garment, tape: Tape) -> Vec<Row> {
        let Some((from, to)) = self.span() else { return Vec::new() };
        let top = Station(self.facts.end());
        let mut places = Vec::new();
        for line in &self.lines {
            let Some((low, high)) = line.span() else { continue };
            for (station, end) in [(low, line.ends.lower), (high, line.ends.upper)] {
                let place = match end {
                    End::MeetsOldStitching { .. } => MarkedPlace::MeetsOldStitching,
                    End::CarriesOn { .. } => MarkedPlace::Corner,
                    End::RunsOff {} | End::StraightThrough { .. } => MarkedPlace::Edge,
                };
                places.push((station, place));
                if let End::StraightThrough { from } = end {
                    places.push((Station(from.length), MarkedPlace::StraightFromHere));
                }
            }
            let turns = matches!(line.ends.upper, End::CarriesOn { .. });
            let pins = line.pins.iter().filter(|p| !(turns && p.station == top));
            places.extend(
                pins.filter(|p| low <= p.station && p.station <= high)
                    .map(|pin| (pin.station, MarkedPlace::Pin)),
            );
        }
        for level in &garment.levels {
            let station = garment.station_on(self.facts.seam, level.level).map(Station);
            let within = station.filter(|s| from < *s && *s < to);
            places.extend(within.map(|s| (s, MarkedPlace::Level(level.level))));
        }
        let mut rows = rows_at(from, to, places, tape);
        for row in &mut rows {
            row.left = self.chalked(row.station, GarmentSide::Left, tape);
            row.right =
                (!self.sides_agree()).then(|| self.chalked(row.station, GarmentSide::Right, tape)).flatten();
        }
        rows
    }

    /// What is chalked on one side at a mark; nothing beyond its line.
    fn chalked(&self, at: Station, side: GarmentSide, tape: Tape) -> Option<RowSide> {
        let edges = self.line(side).chalked(at, tape)?;
        let cut = |width: Length| [edges.front.0 - tape.round(width), edges.back.0 - tape.round(width)];
        Some(RowSide { edges, cut: self.change.trim_to.map(|w| cut(w.length)) })
    }
}
