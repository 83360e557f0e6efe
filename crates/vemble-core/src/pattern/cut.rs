//! A piece cut in two along a line, and its parts moved apart: what lengthening, widening and opening are made of.

use super::piece::{Edge, Piece, meetings};
use crate::work::straight;
use kurbo::{CubicBez, Line, ParamCurve, Point, Vec2};

/// Points so near to a line lie on it.
const NEAR: f64 = 1e-7;

/// Cuts every curve of an edge where `height` of its points is nought, so that each lies on one side.
pub(super) fn split(edge: &mut Edge, height: impl Fn(Point) -> f64, line: Line) {
    let mut curves = Vec::with_capacity(edge.curves.len());
    for curve in edge.curves.drain(..) {
        let met = meetings(&curve, line).into_iter().map(|[t, _]| t);
        let mut at: Vec<f64> = met.filter(|t| *t > 1e-6 && *t < 1.0 - 1e-6).collect();
        at.sort_by(f64::total_cmp);
        let mut from = 0.0;
        for t in at.into_iter().chain([1.0]) {
            if t - from > 1e-9 {
                let mut part = curve.subsegment(from..t);
                // On the line to the last digit.
                for p in [&mut part.p0, &mut part.p3] {
                    let off = height(*p);
                    if off.abs() < 1e-4 {
                        let square = Vec2::new(-(line.p1 - line.p0).y, (line.p1 - line.p0).x).normalize();
                        *p -= square * off;
                    }
                }
                curves.push(part);
            }
            from = t;
        }
    }
    edge.curves = curves;
}

/// Opens a piece across at a height by so much: what lies above goes up, or what lies below goes down. Where it is closed instead (less than
/// nought), what lay between is taken out.
pub(super) fn open_across(piece: &mut Piece, height: f64, by: f64, upwards: bool) {
    let line = Line::new((-1e5, height), (1e5, height));
    let move_by = if upwards { Vec2::new(0.0, by) } else { Vec2::new(0.0, -by) };
    open(piece, |p| p.y - height, line, |p, is_beyond| if is_beyond == upwards { p + move_by } else { p });
}

/// Cuts a piece along a line and moves its two parts: those where `height` is more than nought, and the others. Where the outline was cut, its
/// ends are joined by a straight.
pub(super) fn open(
    piece: &mut Piece,
    height: impl Fn(Point) -> f64 + Copy,
    line: Line,
    place: impl Fn(Point, bool) -> Point,
) {
    for edge in &mut piece.edges {
        split(edge, height, line);
        let is_beyond = |c: &CubicBez| height(c.eval(0.5)) > 0.0;
        let mut curves: Vec<CubicBez> = Vec::with_capacity(edge.curves.len() + 1);
        for c in edge.curves.drain(..) {
            let beyond = is_beyond(&c);
            let to = |p| place(p, beyond);
            let moved = CubicBez::new(to(c.p0), to(c.p1), to(c.p2), to(c.p3));
            if let Some(last) = curves.last().map(|l| l.p3).filter(|last| last.distance(moved.p0) > NEAR) {
                curves.push(straight(last, moved.p0));
            }
            curves.push(moved);
        }
        edge.curves = curves;
    }
    // Between edges: the corner was cut.
    for n in 0..piece.edges.len() {
        let next = piece.edges[(n + 1) % piece.edges.len()].start();
        let end = piece.edges[n].end();
        if end.distance(next) > NEAR {
            piece.edges[n].curves.push(straight(end, next));
        }
    }
    let to = |p: Point| place(p, height(p) > 0.0);
    for dart in &mut piece.darts {
        dart.mouth = dart.mouth.map(to);
        dart.point = to(dart.point);
        dart.other = dart.other.map(to);
    }
    for (_, y) in &mut piece.levels {
        let at = Point::new(piece.grain[0].x, *y);
        *y = place(at, height(at) > 0.0).y;
    }
    piece.drills.iter_mut().for_each(|p| *p = to(*p));
    piece.grain = piece.grain.map(to);
}
