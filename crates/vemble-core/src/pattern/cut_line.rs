//! What is cut: its allowance outside every edge, and the corners between them.

use super::outline::crossing;
use super::piece::{Edge, Piece};
use crate::work::EdgeName;
use kurbo::{BezPath, Line, ParamCurveNearest, PathEl, Point, Vec2};

/// Curves are flattened to so many mm: finer than a blade.
const FLAT: f64 = 0.02;
/// Points nearer than this, in mm, are one.
const SAME: f64 = 1e-6;
/// What is cut has no steps shorter than this, in mm: they would only cross.
const HAIR: f64 = 0.05;
/// A mitred corner goes out no further than so many allowances; beyond it is cut off square.
const MITRE: f64 = 3.0;

/// The cut line of a piece, once round: parallel to each edge. Corners are mitred, hollow ones meet where their edges' lines do; beside a hem that is
/// turned up they mirror the edges above it, so that what is folded lies on what is below.
pub fn cut_line(piece: &Piece) -> BezPath {
    let count = piece.edges.len();
    let mut lines: Vec<Vec<Point>> = piece.edges.iter().map(offset).collect();
    let mut corners: Vec<Vec<Point>> = Vec::with_capacity(count);
    for n in 0..count {
        let next = (n + 1) % count;
        let (mut before, mut after) = (std::mem::take(&mut lines[n]), std::mem::take(&mut lines[next]));
        // Both lead away from their corner.
        before.reverse();
        corners.push(corner((&piece.edges[n], &mut before), (&piece.edges[next], &mut after)));
        before.reverse();
        (lines[n], lines[next]) = (before, after);
    }
    let mut points: Vec<Point> =
        lines.into_iter().zip(corners).flat_map(|(line, corner)| [line, corner].concat()).collect();
    points.dedup_by(|b, a| a.distance(*b) < HAIR);
    let mut path = BezPath::new();
    for (n, point) in points.into_iter().enumerate() {
        path.push(if n == 0 { PathEl::MoveTo(point) } else { PathEl::LineTo(point) });
    }
    path.close_path();
    path
}

/// An edge as points, moved out by its allowance. Where it is bent more tightly than that, what would fold back is left out.
pub(super) fn offset(edge: &Edge) -> Vec<Point> {
    let points = flat(edge);
    let way = |a: Point, b: Point| if a.distance(b) > 0.0 { (b - a).normalize() } else { Vec2::ZERO };
    let out = |v: Vec2| Vec2::new(v.y, -v.x) * edge.allowance;
    let last = points.len() - 1;
    let [first_way, last_way] = edge.ways();
    let moved = (0..=last).map(|n| {
        // Where it turns, as far out as both its sides are.
        let [into, on] = match n {
            0 => [first_way; 2],
            n if n == last => [last_way; 2],
            n => [way(points[n - 1], points[n]), way(points[n], points[n + 1])],
        };
        let both = if (into + on).hypot() > 0.0 { (into + on).normalize() } else { Vec2::ZERO };
        (points[n] + out(both) / both.dot(on).max(1.0 / MITRE), both)
    });
    let moved: Vec<(Point, Vec2)> = moved.collect();
    let goes_back = |before: Point, (p, way): (Point, Vec2)| (p - before).dot(way) <= 0.0;
    let all: Vec<Point> = moved.iter().map(|(p, _)| *p).collect();
    if !moved.windows(2).any(|pair| goes_back(pair[0].0, pair[1])) {
        return all;
    }
    let near = (edge.allowance.abs() - FLAT).max(0.0).powi(2);
    let is_outside = |p: Point| {
        points.windows(2).all(|pair| Line::new(pair[0], pair[1]).nearest(p, SAME).distance_sq >= near)
    };
    let mut kept: Vec<usize> = Vec::with_capacity(moved.len());
    for (n, own) in moved.iter().enumerate().filter(|(_, (p, _))| is_outside(*p)) {
        while kept.len() > 1 && kept.last().is_some_and(|before| goes_back(all[*before], *own)) {
            kept.pop();
        }
        // Where it begins it begins.
        if !kept.last().is_some_and(|before| goes_back(all[*before], *own)) {
            kept.push(n);
        }
    }
    if kept.len() < 2 {
        return all;
    }
    // What is left meets where it crosses.
    let meet = |n: usize, m: usize| {
        let met = crossing([all[n], all[n + 1]], [all[m - 1], all[m]]).filter(|_| m > n + 1);
        met.filter(|at| {
            [n, m].iter().all(|n| all[*n].distance(*at) > HAIR)
                && !goes_back(all[n], (*at, moved[n].1))
                && !goes_back(*at, moved[m])
        })
    };
    let gaps = kept.windows(2).map(|pair| meet(pair[0], pair[1])).chain([None]);
    kept.iter().zip(gaps).flat_map(|(n, meets)| [Some(all[*n]), meets]).flatten().collect()
}

fn flat(edge: &Edge) -> Vec<Point> {
    let mut path = BezPath::new();
    path.move_to(edge.start());
    edge.curves.iter().for_each(|c| path.curve_to(c.p1, c.p2, c.p3));
    let mut points: Vec<Point> = Vec::new();
    kurbo::flatten(&path, FLAT, |element| match element {
        PathEl::MoveTo(p) | PathEl::LineTo(p) => {
            if points.last().is_none_or(|last| last.distance(p) > SAME) {
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

/// What lies between the cut lines of an edge and of the next one, both leading away from the corner: they are cut off, or go on, to where it begins.
fn corner((a, before): (&Edge, &mut Vec<Point>), (b, after): (&Edge, &mut Vec<Point>)) -> Vec<Point> {
    // A hem is mirrored: the edge beside it goes on below as it comes from above.
    if b.name == EdgeName::Hem && b.allowance > 0.0 {
        if let Some(below) = mirrored((&a.clone().turned(), before), b) {
            cut_hem(after, &below, b.ways()[0]);
            return below;
        }
    } else if a.name == EdgeName::Hem && a.allowance > 0.0 {
        let hem = a.clone().turned();
        if let Some(mut below) = mirrored((b, after), &hem) {
            cut_hem(before, &below, hem.ways()[0]);
            below.reverse();
            return below;
        }
    }
    let (into, out, corner) = (a.ways()[1], b.ways()[0], a.end());
    let far = MITRE * a.allowance.max(b.allowance).max(1.0);
    // Longer than they are, so that they meet whichever way they turn.
    before.insert(0, before[0] + into * far);
    after.insert(0, after[0] - out * far);
    if let Some(([n, m], at)) = nearest_crossing([before, after], corner, far) {
        before.splice(..=n, [at]);
        after.splice(..=m, [at]);
        return Vec::new();
    }
    let longer = [before.remove(0), after.remove(0)];
    // What folds back was left out: then it is no needle.
    let is_whole = |line: &[Point], way: Vec2, edge: &Edge| {
        line[0].distance(corner + Vec2::new(way.y, -way.x) * edge.allowance) < HAIR
    };
    if into.dot(out) > 0.0 || !is_whole(before, into, a) || !is_whole(after, out, b) {
        return Vec::new();
    }
    // A needle is cut off square, as far out as its sides are.
    let ahead = (into - out).normalize();
    let reach = |p: Point| (p - corner).dot(ahead);
    let square = |from: Point, to: Point| {
        from.lerp(to, ((far / MITRE - reach(from)) / (reach(to) - reach(from))).max(0.0))
    };
    vec![square(before[0], longer[0]), square(after[0], longer[1])]
}

/// Which straights of two lines cross, and where: nearest to a corner, and no further from it than so much.
pub(super) fn nearest_crossing(
    [one, other]: [&[Point]; 2],
    corner: Point,
    within: f64,
) -> Option<([usize; 2], Point)> {
    let near =
        |pair: &[Point]| Line::new(pair[0], pair[1]).nearest(corner, SAME).distance_sq <= within * within;
    let straights = |line: &'_ [Point]| {
        line.windows(2)
            .enumerate()
            .filter(|(_, pair)| near(pair))
            .map(|(n, pair)| (n, [pair[0], pair[1]]))
            .collect::<Vec<_>>()
    };
    let others = straights(other);
    let all = straights(one)
        .into_iter()
        .flat_map(|(n, a)| others.iter().filter_map(move |(m, b)| Some(([n, *m], crossing(a, *b)?))));
    let all = all.filter(|(_, at)| at.distance(corner) <= within);
    all.min_by(|a, b| a.1.distance(corner).total_cmp(&b.1.distance(corner)))
}

/// The cut line of an edge that leaves a hem upwards, mirrored at the hem's fold: from the fold down to the depth of the hem. Itself it begins at the fold.
/// Nothing where it runs along the hem rather than up from it.
fn mirrored((edge, line): (&Edge, &mut Vec<Point>), hem: &Edge) -> Option<Vec<Point>> {
    let (corner, way, depth) = (edge.start(), hem.ways()[0], hem.allowance);
    // By where it goes over the depth of the hem: its first bit may lean.
    let deep = edge.at(depth.min(edge.length())).0;
    let square = Vec2::new(-way.y, way.x);
    let square = square * (deep - corner).dot(square).signum();
    let high = |p: Point| (p - corner).dot(square);
    // Between two points of it, or straight on from them, where it is so high.
    let at = |a: Point, b: Point, up: f64| a.lerp(b, (up - high(a)) / (high(b) - high(a)));
    let above = (1..line.len()).find(|n| high(line[*n]) > high(line[*n - 1]) && high(line[*n]) > 0.0)?;
    let fold = at(line[above - 1], line[above], 0.0);
    if fold.distance(corner) > MITRE * depth.max(edge.allowance) {
        return None;
    }
    line.splice(..above, [fold]);
    let inside = line.iter().take_while(|p| high(**p) < depth).count();
    let mut below = line[..inside].to_vec();
    if let Some(beyond) = line.get(inside) {
        below.push(at(line[inside - 1], *beyond, depth));
    }
    below.iter_mut().for_each(|p| *p -= square * (2.0 * high(*p)));
    Some(below)
}

/// The cut line of a hem begins where the mirrored edge beside it comes down to it.
fn cut_hem(hem: &mut Vec<Point>, below: &[Point], way: Vec2) {
    let Some(end) = below.last() else { return };
    let behind = hem.iter().take_while(|p| (**p - *end).dot(way) <= 0.0).count().max(1);
    hem.splice(..behind.min(hem.len() - 1), [*end]);
}
