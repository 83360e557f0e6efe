//! Lines that were drawn elsewhere, as one outline: joined once round, cut where they turn, points in a row as the curve they were taken from,
//! lines to cut along moved in to where they are sewn.

use super::cut_line::{nearest_crossing, offset};
use super::piece::{Edge, along_curves, is_corner, is_straight};
use super::read::{RawLine, Unread};
use crate::length::Measure;
use crate::work::{DrawnNotch, Eased, EdgeName, curves_of, straight};
use kurbo::{BezPath, CubicBez, ParamCurve, ParamCurveArea, ParamCurveNearest, PathEl, Point, Vec2};

/// Ends join that lie so near to each other, in mm (teaching value: a line's width and a slip of the hand).
pub(super) const JOINS: f64 = 1.0;
/// A notch begins so near to its edge, in mm.
pub(super) const NEAR: f64 = 2.0;
/// Points in a row are one straight where they leave it by no more than so many mm: a tenth of what is measured.
const STRAIGHT: f64 = 0.01;
/// They are a curve where it leaves their straights by no more than so many mm and they turn by no more than so many radians; otherwise they are
/// corners (teaching values: finer than a pen, and no dart's mouth).
const BULGE: f64 = 0.2;
const TURNS: f64 = 0.3;

/// What the name of an edge says: which it is, the second one of that name, and how it is sewn.
#[derive(Clone, Copy)]
pub(super) struct Named {
    pub name: Option<EdgeName>,
    pub second: bool,
    pub eased: Option<Eased>,
}

/// An edge of which not everything is known.
pub(super) struct Drawn {
    pub says: String,
    pub name: Option<EdgeName>,
    pub second: bool,
    pub allowance: Option<Measure>,
    pub eased: Option<Eased>,
    pub curves: Vec<CubicBez>,
    pub notches: Vec<DrawnNotch>,
}

/// Edges in order, once round, each beginning where the one before it ends.
/// What was drawn in points has corners where a dart ends.
pub(super) fn once_round(lines: Vec<(Named, &RawLine)>, mouths: &[Point]) -> Result<Vec<Drawn>, Unread> {
    let mut all: Vec<Drawn> = Vec::new();
    for (Named { name, second, eased }, line) in lines {
        let not_one = || Unread::NotALine(line.says.clone());
        let curves = curves_of(&opened(&line.path)).ok_or_else(not_one)?;
        let is_round = curves[0].p0.distance(curves[curves.len() - 1].p3) <= JOINS;
        let parts = if is_round { at_corners(curves) } else { vec![curves] };
        let is_whole = parts.len() == 1;
        for curves in parts {
            let (name, eased) = (name.filter(|_| is_whole), eased.filter(|_| is_whole));
            let (says, allowance) = (line.says.clone(), line.allowance);
            let curves = as_curve(curves, mouths);
            all.push(Drawn { says, name, second, allowance, eased, curves, notches: Vec::new() });
        }
    }
    let ends = |edge: &Drawn| (edge.curves[0].p0, edge.curves[edge.curves.len() - 1].p3);
    if all.is_empty() {
        return Err(Unread::NoPiece);
    }
    let mut round = vec![all.remove(0)];
    loop {
        let (first, _) = ends(&round[0]);
        let (_, at) = ends(&round[round.len() - 1]);
        let near = all.iter().enumerate().map(|(n, edge)| {
            let (start, end) = ends(edge);
            let (from_start, from_end) = (at.distance(start), at.distance(end));
            (n, from_start.min(from_end), from_end < from_start)
        });
        let next = near.min_by(|a, b| a.1.total_cmp(&b.1));
        let home = if round.len() > 1 || all.is_empty() { at.distance(first) } else { f64::INFINITY };
        match next {
            Some((n, apart, turned)) if apart <= JOINS && apart <= home => {
                let mut edge = all.remove(n);
                let mut drawn = Edge::new(EdgeName::Top, edge.curves);
                if turned {
                    drawn = drawn.turned();
                }
                if drawn.start().distance(at) > 1e-9 {
                    drawn.set_start(at);
                }
                edge.curves = drawn.curves;
                round.push(edge);
            }
            _ if home <= JOINS => break,
            next => {
                let apart = next.map_or(home, |(_, apart, _)| apart.min(home));
                let after = called(&round[round.len() - 1].says);
                return Err(Unread::NotClosed { after, apart });
            }
        }
    }
    if let Some(loose) = all.first() {
        return Err(Unread::Loose(called(&loose.says)));
    }
    if round.len() < 2 {
        return Err(Unread::NoCorner);
    }
    let (first, end) = (ends(&round[0]).0, ends(&round[round.len() - 1]).1);
    if let Some(last) = round.last_mut().filter(|_| first.distance(end) > 1e-9) {
        let mut drawn = Edge::new(EdgeName::Top, std::mem::take(&mut last.curves));
        drawn.set_end(first);
        last.curves = drawn.curves;
    }
    // Of two that are called the same, one is the second.
    for n in 1..round.len() {
        let (before, rest) = round.split_at_mut(n);
        let is_again = |edge: &&Drawn| edge.name.is_some() && edge.name == rest[0].name;
        let same: Vec<&Drawn> = before.iter().filter(is_again).collect();
        if same.len() == 1 && !same[0].second {
            rest[0].second = true;
        }
    }
    Ok(round)
}

/// Moves lines that are cut along in to where they are sewn along: so far at every place, each to where it meets the next.
pub(super) fn move_in(edges: &mut [Drawn], by: f64, mouths: &[Point]) -> Result<(), Unread> {
    let area =
        |edges: &[Drawn]| edges.iter().flat_map(|e| &e.curves).map(ParamCurveArea::signed_area).sum::<f64>();
    let whole = area(edges);
    let inwards = if whole > 0.0 { -by } else { by };
    let mut lines: Vec<Vec<Point>> = Vec::with_capacity(edges.len());
    for drawn in &*edges {
        let edge = Edge { allowance: inwards, ..Edge::new(EdgeName::Top, drawn.curves.clone()) };
        let ([from, to], mut points) = (edge.ways(), offset(&edge));
        // Longer than it is, so that it meets its neighbours at corners that are hollow too.
        let (first, last) = (points[0] - from * (by * 3.0), points[points.len() - 1] + to * (by * 3.0));
        points.insert(0, first);
        points.push(last);
        lines.push(points);
    }
    let count = lines.len();
    let corners: Vec<Point> = edges.iter().map(|edge| edge.curves[edge.curves.len() - 1].p3).collect();
    let mets: Vec<Option<([usize; 2], Point)>> = (0..count)
        .map(|n| nearest_crossing([&lines[n], &lines[(n + 1) % count]], corners[n], by * 5.0))
        .collect();
    for (n, drawn) in edges.iter_mut().enumerate() {
        let line = &lines[n];
        let (start, first) = match mets[(n + count - 1) % count] {
            Some(([_, b], at)) => (at, b + 1),
            None => (line[1], 2),
        };
        let (end, last) = match mets[n] {
            Some(([a, _], at)) => (at, a + 1),
            None => (line[line.len() - 2], line.len() - 2),
        };
        let inner = line.get(first..last).unwrap_or_default();
        let points: Vec<Point> = std::iter::once(start).chain(inner.iter().copied()).chain([end]).collect();
        let pairs = points.windows(2).filter(|pair| pair[0].distance(pair[1]) > 1e-6);
        drawn.curves = as_curve(pairs.map(|pair| straight(pair[0], pair[1])).collect(), mouths);
        if drawn.curves.is_empty() {
            return Err(Unread::Crosses);
        }
    }
    // Lines that go on smoothly do not cross: the next begins where the last one ends.
    for n in 0..count {
        let next = (n + 1) % count;
        let end = edges[n].curves[edges[n].curves.len() - 1].p3;
        if end.distance(edges[next].curves[0].p0) > 1e-9 {
            let mut edge = Edge::new(EdgeName::Top, std::mem::take(&mut edges[next].curves));
            edge.set_start(end);
            edges[next].curves = edge.curves;
        }
    }
    if whole * area(edges) <= 0.0 {
        return Err(Unread::Crosses);
    }
    Ok(())
}

/// Where two straights cross.
pub(super) fn crossing([a, b]: [Point; 2], [c, d]: [Point; 2]) -> Option<Point> {
    let (own, other) = (b - a, d - c);
    let turn = own.cross(other);
    let (t, u) = ((c - a).cross(other) / turn, (c - a).cross(own) / turn);
    (turn.abs() > 1e-9 && (0.0..=1.0).contains(&t) && (0.0..=1.0).contains(&u)).then(|| a + own * t)
}

pub(super) fn called(says: &str) -> String {
    if says.is_empty() { "a line without a name".into() } else { says.into() }
}

/// A closed path as the stroke that it is.
fn opened(path: &BezPath) -> BezPath {
    let mut open = BezPath::new();
    let (mut first, mut last) = (Point::ZERO, Point::ZERO);
    for element in path.elements() {
        match *element {
            PathEl::MoveTo(p) => (first, last) = (p, p),
            PathEl::LineTo(p) | PathEl::QuadTo(_, p) | PathEl::CurveTo(_, _, p) => last = p,
            PathEl::ClosePath => {
                if last.distance(first) > 1e-9 {
                    open.line_to(first);
                }
                continue;
            }
        }
        open.push(*element);
    }
    open
}

/// Cuts curves that go once round where they turn.
fn at_corners(curves: Vec<CubicBez>) -> Vec<Vec<CubicBez>> {
    let count = curves.len();
    let corners: Vec<usize> =
        (0..count).filter(|n| is_corner(&curves[(n + count - 1) % count], &curves[*n])).collect();
    let Some(first) = corners.first().copied() else { return vec![curves] };
    let mut parts: Vec<Vec<CubicBez>> = Vec::new();
    for n in (0..count).map(|n| (n + first) % count) {
        if corners.contains(&n) {
            parts.push(Vec::new());
        }
        if let Some(part) = parts.last_mut() {
            part.push(curves[n]);
        }
    }
    parts
}

/// Points in a row as the curve that they were taken from, without those that lie on the way between others; in parts from one of these corners to
/// the next.
fn as_curve(curves: Vec<CubicBez>, corners: &[Point]) -> Vec<CubicBez> {
    if curves.len() < 2 || !curves.iter().all(is_straight) {
        return curves;
    }
    let points: Vec<Point> = curves[..1].iter().map(|c| c.p0).chain(curves.iter().map(|c| c.p3)).collect();
    let mut kept = vec![0];
    keep(&points, 0, points.len() - 1, &mut kept);
    let points: Vec<Point> = kept.into_iter().map(|n| points[n]).collect();
    let is_corner = |point: &Point| corners.iter().any(|corner| corner.distance(*point) < BULGE);
    let way = |n: usize| {
        let around = points.get(n.wrapping_sub(1)..n + 2)?;
        if is_corner(&around[1]) { None } else { way_past(around) }
    };
    let ways: Vec<Option<Vec2>> = (0..points.len()).map(way).collect();
    let curve = |n: usize| {
        let (from, to) = (points[n], points[n + 1]);
        let chord = to - from;
        // As it comes to its other end where nothing is known of one: round.
        let reflected = |way: Vec2| chord * (2.0 * way.dot(chord) / chord.hypot2()) - way;
        let (out, into) = match (ways[n], ways[n + 1]) {
            (Some(out), Some(into)) => (out, into),
            (Some(out), None) => (out, reflected(out)),
            (None, Some(into)) => (reflected(into), into),
            (None, None) => return straight(from, to),
        };
        let reach = chord.hypot() / 3.0;
        CubicBez::new(from, from + out * reach, to - into * reach, to)
    };
    (0..points.len() - 1).map(curve).collect()
}

/// Which way a line runs past the middle one of three points: as the circle through them, and where one of its straights is much longer, as
/// that one. Nothing at a corner.
fn way_past(points: &[Point]) -> Option<Vec2> {
    let [a, b, c] = points else { return None };
    let (one, other) = (*b - *a, *c - *b);
    let (short, long) = (one.hypot().min(other.hypot()), one.hypot().max(other.hypot()));
    let turn = one.cross(other).atan2(one.dot(other)).abs();
    let is_even = long < 3.0 * short;
    let bulge = turn / 8.0 * if is_even { long } else { short };
    if bulge > BULGE || turn > TURNS {
        return None;
    }
    let way = match is_even {
        true => one / one.hypot2() + other / other.hypot2(),
        false if one.hypot() > other.hypot() => one,
        false => other,
    };
    Some(way.normalize())
}

/// Which points are needed between two of them and up to the second (Douglas and Peucker 1973).
fn keep(points: &[Point], from: usize, to: usize, kept: &mut Vec<usize>) {
    let chord = kurbo::Line::new(points[from], points[to]);
    let off = |n: usize| chord.nearest(points[n], 1e-6).distance_sq;
    let farthest = (from + 1..to).max_by(|a, b| off(*a).total_cmp(&off(*b)));
    match farthest.filter(|n| off(*n) > STRAIGHT * STRAIGHT) {
        Some(n) => {
            keep(points, from, n, kept);
            keep(points, n, to, kept);
        }
        None => kept.push(to),
    }
}

/// The points of a line that is drawn with straights.
pub(super) fn corners_of(path: &BezPath) -> Vec<Point> {
    let mut points: Vec<Point> = Vec::new();
    for segment in opened(path).segments() {
        if points.is_empty() {
            points.push(segment.start());
        }
        points.push(segment.end());
    }
    points
}

/// Which edge a point lies on, and how far along it.
pub(super) fn on_edge(edges: &[Drawn], at: Point) -> Option<(usize, f64)> {
    let near = |edge: &Drawn| {
        edge.curves.iter().map(|c| c.nearest(at, 1e-3).distance_sq).fold(f64::INFINITY, f64::min)
    };
    let (n, off) = edges.iter().map(near).enumerate().min_by(|a, b| a.1.total_cmp(&b.1))?;
    let along = along_curves(&edges[n].curves, at).max(0.0);
    (off <= NEAR * NEAR).then_some((n, along))
}
