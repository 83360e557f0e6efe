//! The facing of an armhole that has no sleeve: cut anew for the new edge.

use super::flat::path;
use crate::length::Taught;
use kurbo::{Affine, BezPath, CubicBez, ParamCurve, PathEl, PathSeg, Point};

/// A facing is so wide: 6 cm, 2 3/8 in (teaching value: it stays inside where the arm moves).
pub(super) const WIDE: Taught = Taught::new(60, 152);
/// Offset curves are true to so many cm: a hundredth of a millimetre.
const TRUE_TO: f64 = 0.001;

/// One facing, at true size in mm, y down.
#[derive(Clone, Debug, PartialEq)]
pub struct Facing {
    /// Which.
    pub name: &'static str,
    /// The edge that it is sewn to.
    pub stitching: BezPath,
    /// What is cut.
    pub cut: BezPath,
}

impl Facing {
    /// Along an edge of an armhole from the seam under the arm up to the tip of the shoulder, with `allowance` all round but for its free
    /// edge, both in cm.
    pub(super) fn along(name: &'static str, edge: &[CubicBez; 2], wide: f64, allowance: f64) -> Self {
        // To its left, seen from the seam up, lies the garment.
        let sewn = beside(edge, -allowance);
        let free = beside(edge, wide);
        let (under, tip) = (kurbo::Vec2::new(allowance, 0.0), kurbo::Vec2::new(0.0, allowance));
        let mut cut = BezPath::new();
        cut.move_to(start(&sewn) + under);
        cut.line_to(start(&sewn));
        cut.extend(sewn.iter().skip(1));
        cut.line_to(end(&sewn) + tip);
        cut.line_to(end(&free) + tip);
        cut.line_to(end(&free));
        cut.extend(free.reverse_subpaths().iter().skip(1));
        cut.line_to(start(&free) + under);
        cut.close_path();
        let to_mm = Affine::scale(10.0) * Affine::FLIP_Y;
        Self { name, stitching: to_mm * path(edge), cut: to_mm * cut }
    }
}

/// The curves beside an edge, so far to its left, joined (Levien, *Parallel curves of cubic Béziers*, 2022). Where an edge is rounder than that
/// they turn back on themselves: that stretch is left out.
fn beside(edge: &[CubicBez; 2], by: f64) -> BezPath {
    let mut all = BezPath::new();
    for curve in edge {
        let mut one = BezPath::new();
        kurbo::offset::offset_cubic(*curve, by, TRUE_TO, &mut one);
        let goes_on = |piece: &PathSeg| (piece.end() - piece.start()).dot(curve.p3 - curve.p0) > 0.0;
        for piece in one.segments().filter(goes_on) {
            match all.is_empty() {
                true => all.move_to(piece.start()),
                false if end(&all).distance(piece.start()) > TRUE_TO => all.line_to(piece.start()),
                false => {}
            }
            all.push(piece.as_path_el());
        }
    }
    all
}

fn start(path: &BezPath) -> Point {
    match path.elements().first() {
        Some(PathEl::MoveTo(point)) => *point,
        _ => Point::ZERO,
    }
}

fn end(path: &BezPath) -> Point {
    path.elements().last().and_then(PathEl::end_point).unwrap_or_default()
}
