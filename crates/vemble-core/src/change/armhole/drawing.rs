//! An armhole and its cap laid on each other, old and new; and on the stand.

use super::AlteredArmhole;
use super::flat::{Flat, cap, path};
use crate::change::{ChangeKey, Drawn};
use crate::figure::{
    CardDrawing, Drawing, Ink, Moved, MovedLook, OnStand, Picture, Stroke, ViewSide, hundredths, on_side, svg,
};
use crate::length::Tape;
use kurbo::{Affine, BezPath, Rect, Shape};

/// A drawing of a card is so wide, with so much room around it, in units of its own.
const WIDTH: f64 = 600.0;
const ROOM: f64 = 8.0;

impl AlteredArmhole<'_> {
    /// Both edges of an armhole as one path: front, then back.
    fn armhole_path(flat: &Flat) -> BezPath {
        let mut edges = path(&flat.front_edge());
        edges.extend(path(&flat.back_edge()));
        edges
    }

    /// The armhole as it is and as it will be, in cm, y down.
    fn armholes(&self) -> [BezPath; 2] {
        [&self.old, &self.new].map(|flat| Affine::FLIP_Y * Self::armhole_path(flat))
    }

    /// The cap as it is and as it will be, middle on middle, in cm, y down. Nothing where there is none.
    fn caps(&self, tape: Tape) -> Option<[BezPath; 2]> {
        let sums = self.sums(tape);
        let of = |n: usize| {
            let wide = sums.wide[n].cm();
            let centred = Affine::translate((-wide / 2.0, 0.0));
            Some(Affine::FLIP_Y * centred * path(&cap(wide, sums.high[n]?.cm())))
        };
        Some([of(0)?, of(1)?])
    }

    /// For a screen: the armhole with the cap that is sewn into it beside it, in mm.
    pub(super) fn picture(&self, tape: Tape) -> Picture {
        let mut pairs = vec![self.armholes()];
        pairs.extend(self.caps(tape));
        let mut strokes = Vec::new();
        let (mut right, mut box_mm) = (0.0, Rect::ZERO);
        for pair in pairs {
            let bounds = pair.iter().map(Shape::bounding_box).reduce(|a, b| a.union(b)).unwrap_or_default();
            // One beside the other, feet on one line.
            let move_to = Affine::scale(10.0) * Affine::translate((right - bounds.x0, -bounds.y1));
            right += bounds.width() + 4.0;
            for (one, ink) in pair.iter().zip([Ink::Before, Ink::After]) {
                let placed = move_to * one.clone();
                box_mm = box_mm.union(placed.bounding_box());
                strokes.push(Stroke { ink, path: svg(&placed) });
            }
        }
        let view = box_mm.inflate(15.0, 15.0);
        let view = [view.x0, view.y0, view.width(), view.height()].map(hundredths);
        Picture { view, strokes }
    }

    /// For its card: the armhole, then the cap.
    pub(super) fn card_drawings(&self, tape: Tape) -> Vec<CardDrawing> {
        let draw = |[old, new]: [BezPath; 2], of: &str, [from, to]: [&str; 2]| {
            let bounds = old.bounding_box().union(new.bounding_box());
            let scale = ((WIDTH - 2.0 * ROOM) / bounds.width()).min(12.0);
            let left = (WIDTH - bounds.width() * scale) / 2.0;
            let place = Affine::translate((left, ROOM))
                * Affine::scale(scale)
                * Affine::translate((-bounds.x0, -bounds.y0));
            CardDrawing {
                width: WIDTH,
                height: hundredths(bounds.height() * scale + 2.0 * ROOM),
                old: svg(&(place * old)),
                new: svg(&(place * new)),
                cut: None,
                dots: Vec::new(),
                from: from.into(),
                to: to.into(),
                of: Some(of.into()),
            }
        };
        let armhole =
            draw(self.armholes(), "armhole, front and back", ["towards the middle", "towards the side"]);
        let cap = self.caps(tape).map(|caps| draw(caps, "cap of the sleeve", ["underarm", "underarm"]));
        std::iter::once(armhole).chain(cap).collect()
    }
}

impl OnStand for AlteredArmhole<'_> {
    /// The armhole as it will be, from in front and behind: as far from the tip and the seam under the arm as laid flat.
    fn moved(&self, drawing: &Drawing<'_>, view: ViewSide) -> Vec<Moved> {
        if !self.is_altered() || view == ViewSide::Side {
            return Vec::new();
        }
        let edge = if view == ViewSide::Front { self.new.front_edge() } else { self.new.back_edge() };
        let was = if view == ViewSide::Front { self.old.front_edge() } else { self.old.back_edge() };
        let draw = |side: &crate::fitting::GarmentSide| {
            let tip = drawing.drape.tip(*side)?;
            let seen = drawing.drape.armhole(tip);
            // What is drawn on the body is narrower and shorter than what is laid flat.
            let under = seen.elements().last()?.end_point()?;
            let [wide, deep] = [
                (under.x - tip.x) / (was[0].p0.x - was[1].p3.x),
                (tip.y - under.y) / (was[1].p3.y - was[0].p0.y),
            ];
            let place = Affine::translate(tip.to_vec2())
                * Affine::scale_non_uniform(if wide.is_finite() { wide } else { 1.0 }, deep)
                * Affine::translate(-was[1].p3.to_vec2());
            let path = svg(&drawing.canvas(view).place(&on_side(*side, place * path(&edge))));
            Some(Moved { change: ChangeKey::Armhole(self.key()), side: *side, look: MovedLook::Fold, path })
        };
        self.key().sides().iter().filter_map(draw).collect()
    }

    fn is_alike_from_behind(&self) -> bool {
        false
    }
}
