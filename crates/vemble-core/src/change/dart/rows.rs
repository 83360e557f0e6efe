//! The rows of a pair of darts: both points or ends, each pin, each level, and enough between them.

use super::AlteredDart;
use crate::chalk::{MarkedPlace, Row, RowSide, rows_at};
use crate::change::Drawn;
use crate::fitting::{Edges, GarmentSide};
use crate::garment::Garment;
use crate::length::{PerEdge, Station, Tape};

impl AlteredDart<'_> {
    /// Everything to chalk, from the point on: fold depths to either side of the middle.
    pub(crate) fn rows(&self, garment: &Garment, tape: Tape) -> Vec<Row> {
        let end = Station(self.length);
        let at_end = if self.key().has_two_points() { MarkedPlace::Point } else { MarkedPlace::Edge };
        let mut places = vec![(Station::default(), MarkedPlace::Point), (end, at_end)];
        places.extend(self.sides.pins.iter().flatten().map(|pin| (pin.station, MarkedPlace::Pin)));
        for level in garment.body_levels_up() {
            let station = self.station_at(level.station.length);
            places.extend(station.map(|s| (s, MarkedPlace::Level(level.level))));
        }
        let mut rows = rows_at(Station::default(), end, places, tape);
        for row in &mut rows {
            let side = |side| {
                let depth = PerEdge(self.chalked(side, row.station, tape));
                Some(RowSide { edges: Edges { front: depth, back: depth }, cut: None })
            };
            row.left = side(GarmentSide::Left);
            row.right = (!self.sides_agree()).then(|| side(GarmentSide::Right)).flatten();
        }
        rows
    }
}
