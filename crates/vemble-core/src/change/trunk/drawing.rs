//! The new line across the trunk: laid straight, and on the stand.

use super::input::TrunkAt;
use super::sum::{AlteredTrunk, TrunkSums};
use crate::change::{ChangeKey, Drawn};
use crate::figure::{
    CardDrawing, Drawing, Ink, Moved, MovedLook, OnStand, Picture, Stroke, ViewSide, hundredths, on_side, svg,
};
use crate::fitting::GarmentSide;
use crate::length::{Length, Tape};
use crate::place::Level;
use kurbo::{Affine, BezPath, Point, Shape};

/// A drawing of a card is so wide, with so much room around it, in units of its own; what lies across is stretched.
const WIDTH: f64 = 600.0;
const ROOM: f64 = 8.0;
pub(super) const STRETCHED: f64 = 3.0;

impl AlteredTrunk<'_> {
    /// The old edge and the new one from the centre front round the side to the centre back, in cm, y down.
    fn edges(&self, tape: Tape) -> [BezPath; 2] {
        let sums = self.sums(tape);
        let quarter = sums.quarter.cm();
        let down = match self.key() {
            TrunkAt::AboveWaist => -1.0,
            TrunkAt::Rise => 1.0,
        };
        let (mut old, mut new) = (BezPath::new(), BezPath::new());
        old.move_to((0.0, 0.0));
        old.line_to((2.0 * quarter, 0.0));
        let front = sums.curve(true).path(|x, y| Point::new(x, down * y));
        let back = sums.curve(false).path(|x, y| Point::new(2.0 * quarter - x, down * y));
        new.extend(front.elements().iter().copied());
        // From the side on: the back is drawn from its middle.
        new.extend(back.reverse_subpaths().elements().iter().skip(1).copied());
        [old, new]
    }

    /// For a screen, in mm.
    pub(super) fn picture(&self, tape: Tape) -> Picture {
        let [old, new] =
            self.edges(tape).map(|edge| Affine::scale_non_uniform(10.0, 10.0 * STRETCHED) * edge);
        let view = old.bounding_box().union(new.bounding_box()).inflate(10.0, 25.0);
        let strokes =
            [(Ink::Before, old), (Ink::After, new)].map(|(ink, path)| Stroke { ink, path: svg(&path) });
        Picture {
            view: [view.x0, view.y0, view.width(), view.height()].map(hundredths),
            strokes: strokes.into(),
        }
    }

    /// For its card.
    pub(super) fn card_drawing(&self, tape: Tape) -> CardDrawing {
        let [old, new] = self.edges(tape);
        let bounds = old.bounding_box().union(new.bounding_box());
        let scale = (WIDTH - 2.0 * ROOM) / bounds.width();
        let place = Affine::translate((ROOM, ROOM))
            * Affine::scale_non_uniform(scale, scale * STRETCHED)
            * Affine::translate((-bounds.x0, -bounds.y0));
        CardDrawing {
            width: WIDTH,
            height: hundredths(bounds.height() * scale * STRETCHED + 2.0 * ROOM),
            old: svg(&(place * old)),
            new: svg(&(place * new)),
            cut: None,
            dots: Vec::new(),
            from: "centre front".into(),
            to: "centre back".into(),
            of: Some("half of the edge, heights three times as large".into()),
        }
    }
}

impl OnStand for AlteredTrunk<'_> {
    /// The line where it will lie on what is worn now.
    fn moved(&self, drawing: &Drawing<'_>, view: ViewSide) -> Vec<Moved> {
        let Some(waist) =
            drawing.drape.up_at(Level::Waist).filter(|_| self.is_altered() && view != ViewSide::Side)
        else {
            return Vec::new();
        };
        let sums: TrunkSums = self.sums(Tape::Cm);
        let is_front = view == ViewSide::Front;
        let up = match self.key() {
            TrunkAt::AboveWaist => 1.0,
            TrunkAt::Rise => -1.0,
        };
        let curve = sums.curve(is_front);
        let half = drawing.drape.outer.at(waist);
        let line = |side: &GarmentSide| {
            let mut path = BezPath::new();
            for n in 0..=8 {
                let share = f64::from(n) / 8.0;
                let point = Point::new(half * share, waist + up * curve.at(sums.quarter.cm() * share));
                if n == 0 { path.move_to(point) } else { path.line_to(point) }
            }
            let path = svg(&drawing.canvas(view).place(&on_side(*side, path)));
            Moved { change: ChangeKey::Trunk(self.key()), side: *side, look: MovedLook::Line, path }
        };
        GarmentSide::BOTH.iter().map(line).collect()
    }

    fn is_alike_from_behind(&self) -> bool {
        let sums = self.sums(Tape::Cm);
        sums.front == sums.back || sums.all() == [Length::ZERO; 3]
    }
}
