//! A pair of darts on its strip, on the stand, and on its card.

use super::AlteredDart;
use crate::chalk::Row;
use crate::change::{ChangeKey, Drawn};
use crate::figure::{
    CardDrawing, Chalk, Drawing, Moved, MovedLook, OnStand, Strip, StripLevel, StripLines, ViewSide,
    chalk_drawing, curve_path, hundredths, on_side, polygon, strip_sides, svg,
};
use crate::fitting::{GarmentSide, PutOn};
use crate::garment::Garment;
use crate::length::Station;
use kurbo::Point;

/// In so many steps the shape of a fold is drawn on the stand (drawing value: finer than a screen shows).
const STEPS: i32 = 12;

impl AlteredDart<'_> {
    /// The dart laid straight: the axis is the middle of the fold, the old fold lies beside it.
    pub(super) fn strip(&self, garment: &Garment, put_on: PutOn) -> Strip {
        let (sides, lines) =
            strip_sides(put_on, &self.change.readings, self.sides_agree(), self.length, |side| {
                let fold = &self.new[side as usize];
                let lines = StripLines {
                    line: curve_path(fold),
                    back_line: None,
                    old_line: curve_path(&self.old),
                    panel_mm: None,
                    tolerance: None,
                    cut: None,
                };
                (fold, lines)
            });
        let deepest = self.new.iter().map(|curve| curve.range(0.0, self.length.cm()).1).fold(0.0, f64::max);
        let levels = garment.body_levels_up().into_iter().filter_map(|l| {
            let station = self.station_at(l.station.length)?;
            Some(StripLevel { name: l.level.name().into(), at_mm: hundredths(station.0.cm() * 10.0) })
        });
        Strip {
            length_mm: hundredths(self.length.cm() * 10.0),
            allowance_mm: 0.0,
            outside_mm: 0.0,
            deepest_mm: hundredths(deepest * 10.0),
            sides,
            lines,
            blocks: Vec::new(),
            levels: levels.collect(),
        }
    }

    /// The drawings of its card: one, or one for each side.
    pub(super) fn card_drawings(&self, rows: &[Row], ends: [&str; 2]) -> Vec<CardDrawing> {
        let sides = if self.sides_agree() { &GarmentSide::BOTH[..1] } else { &GarmentSide::BOTH };
        let of_side = |side: &GarmentSide| {
            chalk_drawing(&Chalk {
                length: self.length,
                old: Some(&self.old),
                new: &self.new[*side as usize],
                cut: None,
                of: (!self.sides_agree()).then(|| format!("garment’s {}", side.name())),
                ends,
                marks: rows.iter().filter_map(|r| Some((r.station.0, r.of(*side)?.edges.front.0))).collect(),
            })
        };
        sides.iter().filter_map(of_side).collect()
    }
}

impl OnStand for AlteredDart<'_> {
    /// Both of the pair, as deep as they will be; nothing of what runs across, or lies on the other face.
    fn moved(&self, drawing: &Drawing<'_>, view: ViewSide) -> Vec<Moved> {
        let (Some(point), Some(base)) = (self.point, self.base) else { return Vec::new() };
        if self.key().is_in_front() != (view == ViewSide::Front) {
            return Vec::new();
        }
        let height = |share: f64| drawing.drape.base + point.cm() + (base - point).cm() * share;
        let outer = |side| drawing.half(side).outer.at(height(0.5));
        let draw = |side: GarmentSide| {
            let x = match self.change.from_side_seam.filter(|_| self.facts.is_none()) {
                Some(from) => outer(side) - from.length.cm(),
                None => self.from_centre(drawing.drape.garment).cm(),
            };
            let fold = |way: f64| {
                let at = move |n: i32| {
                    let station = Station(self.length.fraction(i64::from(n), i64::from(STEPS)));
                    let share = f64::from(n) / f64::from(STEPS);
                    Point::new(x + way * self.depth(side, station).cm() / 2.0, height(share))
                };
                (0..=STEPS).map(at)
            };
            let points: Vec<Point> = fold(-1.0).chain(fold(1.0).rev()).collect();
            let path = svg(&drawing.canvas(view).place(&on_side(side, polygon(&points))));
            Moved { change: ChangeKey::Dart(self.key()), side, look: MovedLook::Fold, path }
        };
        GarmentSide::BOTH.map(draw).into()
    }

    fn is_alike_from_behind(&self) -> bool {
        false
    }
}
