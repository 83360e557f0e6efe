//! What is cut: its allowance outside every edge, and the corners between them.

use super::piece::{Edge, Piece};
use crate::work::EdgeName;
use kurbo::{BezPath, PathEl, Point, Vec2};

/// Curves are flattened to so many mm: finer than a blade.
const FLAT: f64 = 0.02;
/// A mitred corner goes out no further than so many allowances; beyond it is cut off square.
const MITRE: f64 = 3.0;

/// The cut line of a piece, once round: parallel to each edge. Corners are mitred; beside a hem that is turned up they mirror the edges above
/// it, so that what is folded lies on what is below.
pub fn cut_line(piece: &Piece) -> BezPath {
    let count = piece.edges.len();
    let offsets: Vec<Vec<Point>> = piece.edges.iter().map(offset).collect();
    let mut corners: Vec<Vec<Point>> = Vec::with_capacity(count);
    for n in 0..count {
        corners.push(corner(piece, n, (n + 1) % count, &offsets));
    }
    let mut path = BezPath::new();
    let points = (0..count).flat_map(|n| {
        let before = &corners[(n + count - 1) % count];
        let own = &offsets[n];
        let inner = own.get(1..own.len().saturating_sub(1)).unwrap_or_default();
        before
            .iter()
            .skip(1)
            .copied()
            .chain(inner.iter().copied())
            .chain(corners[n].first().copied())
            .collect::<Vec<_>>()
    });
    for (n, point) in points.enumerate() {
        if n == 0 {
            path.move_to(point);
        } else {
            path.line_to(point);
        }
    }
    path.close_path();
    path
}

/// An edge as points, moved out by its allowance.
pub(super) fn offset(edge: &Edge) -> Vec<Point> {
    let points = flat(edge);
    let way = |a: Point, b: Point| if a.distance(b) > 0.0 { (b - a).normalize() } else { Vec2::ZERO };
    let out = |v: Vec2| Vec2::new(v.y, -v.x) * edge.allowance;
    let last = points.len() - 1;
    let [first_way, last_way] = edge.ways();
    (0..points.len())
        .map(|n| match n {
            0 => points[0] + out(first_way),
            n if n == last => points[n] + out(last_way),
            n => {
                let both = way(points[n - 1], points[n]) + way(points[n], points[n + 1]);
                points[n] + out(if both.hypot() > 0.0 { both.normalize() } else { Vec2::ZERO })
            }
        })
        .collect()
}

fn flat(edge: &Edge) -> Vec<Point> {
    let mut path = BezPath::new();
    path.move_to(edge.start());
    edge.curves.iter().for_each(|c| path.curve_to(c.p1, c.p2, c.p3));
    let mut points: Vec<Point> = Vec::new();
    kurbo::flatten(&path, FLAT, |element| match element {
        PathEl::MoveTo(p) | PathEl::LineTo(p) => {
            if points.last().is_none_or(|last| last.distance(p) > 1e-6) {
                points.push(p);
            }
        }
        PathEl::QuadTo(..) | PathEl::CurveTo(..) | PathEl::ClosePath => {}
    });
    if points.len() < 2 {
        points.push(edge.end());
    }
    points
}

/// From the end of one edge's cut line to the start of the next one's: first a point on the first, last one on the second.
fn corner(piece: &Piece, own: usize, next: usize, offsets: &[Vec<Point>]) -> Vec<Point> {
    let (a, b) = (&piece.edges[own], &piece.edges[next]);
    let (end, start) = (offsets[own].last().copied(), offsets[next].first().copied());
    let (Some(end), Some(start)) = (end, start) else { return Vec::new() };
    let (into, out) = (a.ways()[1], b.ways()[0]);
    // A hem is mirrored: the edge beside it goes on below as it comes from above.
    if b.name == EdgeName::Hem && b.allowance > 0.0 {
        let below = mirrored(&a.clone().turned(), b, a.allowance);
        return below;
    }
    if a.name == EdgeName::Hem && a.allowance > 0.0 {
        let below = mirrored(b, &a.clone().turned(), b.allowance);
        return below.into_iter().rev().collect();
    }
    let turn = into.cross(out);
    if turn.abs() < 1e-6 {
        return vec![end, start];
    }
    let t = (start - end).cross(out) / turn;
    let meet = end + into * t;
    let corner = a.end();
    let far = MITRE * a.allowance.max(b.allowance).max(1.0);
    if meet.distance(corner) <= far { vec![meet, meet] } else { vec![end, start] }
}

/// The cut line of an edge that leaves the hem upwards, mirrored at the hem's fold: from the fold down to the depth of the hem.
fn mirrored(edge: &Edge, hem: &Edge, allowance: f64) -> Vec<Point> {
    // The way of the hem, away from the corner.
    let way = hem.ways()[0];
    let corner = edge.start();
    let square = Vec2::new(-way.y, way.x);
    let points = flat(edge);
    // By where it goes over the depth of the hem: its first bit may lean.
    let deep = edge.at(hem.allowance.min(edge.length())).0;
    let upwards = (deep - corner).dot(square).signum();
    let inwards = way;
    let mut all: Vec<(Point, f64)> = Vec::new();
    for pair in points.windows(2) {
        let along = (pair[1] - pair[0]).normalize();
        // Outside is away from the hem.
        let mut out = Vec2::new(along.y, -along.x);
        if out.dot(inwards) > 0.0 {
            out = -out;
        }
        for (n, p) in pair.iter().enumerate() {
            if n == 1 && !all.is_empty() && p.distance(corner) < hem.allowance * 0.2 {
                continue;
            }
            let p = *p + out * allowance;
            let high = (p - corner).dot(square) * upwards;
            if high > hem.allowance + 1e-6 {
                // Just at the depth of the hem.
                if let Some((last, last_high)) = all.last().copied() {
                    let share = (hem.allowance - last_high) / (high - last_high).max(1e-9);
                    all.push((last.lerp(p, share.clamp(0.0, 1.0)), hem.allowance));
                }
                return flipped(&all, square, upwards);
            }
            all.push((p, high));
        }
    }
    flipped(&all, square, upwards)
}

fn flipped(points: &[(Point, f64)], square: Vec2, upwards: f64) -> Vec<Point> {
    points.iter().map(|(p, high)| *p - square * (2.0 * high * upwards)).collect()
}
