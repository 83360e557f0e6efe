//! The corners of an edge that is sewn elsewhere than it was: on cloth what lies beside it stays where it is, and ends where the new line crosses it.

use super::{drag_start, drag_with_darts};
use crate::pattern::piece::{EXACT, Edge, Piece, along_curves, is_on, meetings};
use crate::work::straight;
use kurbo::{CubicBez, Line, ParamCurve, ParamCurveArclen, Point};

/// Beside a corner that moves by one millimetre lines are looked at so far, in mm, and no less far.
const REACH: f64 = 4.0;
const NEAR: f64 = 10.0;
/// A line is looked at as straights so long, in mm.
const STEP: f64 = 2.0;
/// What lies beside it is cut off no shorter, in mm.
const LEFT: f64 = 5.0;
/// No curve of it is shorter, in mm.
const SHORTEST: f64 = 0.2;

/// Puts an edge where it is sewn. Its neighbours stay as they lie and end where they meet it, or go on straight until they do; where they do not meet, they are
/// drawn to it.
pub(super) fn meet(piece: &mut Piece, n: usize, curves: Vec<CubicBez>) {
    let count = piece.edges.len();
    let (before, after) = ((n + count - 1) % count, (n + 1) % count);
    let was = piece.edges[n].length();
    let corners = [piece.edges[n].start(), piece.edges[n].end()];
    piece.edges[n].curves = curves;
    let share = piece.edges[n].length() / was.max(EXACT);
    piece.edges[n].notches.iter_mut().for_each(|notch| notch.along *= share);
    for (beside, is_end) in [(before, false), (after, true)] {
        // Both with their corner first.
        let facing =
            |edge: &Edge, is_turned: bool| if is_turned { edge.clone().turned() } else { edge.clone() };
        let mut own = facing(&piece.edges[n], is_end);
        let mut other = facing(&piece.edges[beside], !is_end);
        let moved = corners[usize::from(is_end)].distance(own.start());
        if moved < EXACT {
            continue;
        }
        let met = meeting(&own, &other, (moved * REACH).max(NEAR))
            .filter(|[_, along]| *along + LEFT < other.length());
        let is_free = |along: f64| {
            let darts = piece.darts.iter().filter(|dart| dart.other.is_none() && is_on(&other, dart));
            let mut mouths = darts.flat_map(|dart| dart.mouth.map(|end| along_curves(&other.curves, end)));
            mouths.all(|mouth| mouth > along + EXACT)
        };
        match met.filter(|[_, along]| is_free(*along)) {
            Some([own_along, along]) => {
                let corner = place(&other, along);
                begin_at(&mut own, own_along, corner);
                begin_at(&mut other, along, corner);
                piece.edges[n] = facing(&own, is_end);
                piece.edges[beside] = facing(&other, !is_end);
            }
            None => {
                let corner = own.start();
                drag_with_darts(piece, beside, |edge| {
                    let mut turned = facing(edge, !is_end);
                    drag_start(&mut turned, corner);
                    *edge = facing(&turned, !is_end);
                });
            }
        }
    }
}

/// Two parts of one edge, the second behind the first, whose corner moves by so much: both end where they meet, or go on straight until they do.
pub(super) fn joined(first: Edge, second: Edge, moved: f64) -> Edge {
    let (mut own, mut other) = (first.turned(), second);
    let corner = match meeting(&own, &other, (moved * REACH).max(NEAR)) {
        Some([own_along, along]) => {
            let corner = place(&other, along);
            begin_at(&mut own, own_along, corner);
            begin_at(&mut other, along, corner);
            corner
        }
        None => own.start(),
    };
    other.set_start(corner);
    let mut all = own.turned();
    all.curves.append(&mut other.curves);
    all
}

/// Where an edge is so far along it, or so far before its beginning.
fn place(edge: &Edge, along: f64) -> Point {
    if along > 0.0 { edge.at(along).0 } else { edge.start() + edge.ways()[0] * along }
}

/// Lets an edge begin so far along it, or so far before its beginning, at a corner there.
fn begin_at(edge: &mut Edge, along: f64, corner: Point) {
    if along > SHORTEST {
        edge.cut_off(along);
        // What is left of a curve would be too short to run anywhere.
        if edge.curves.len() > 1 && edge.curves[0].arclen(EXACT) < SHORTEST {
            edge.curves.remove(0);
        }
    } else if along < -SHORTEST {
        edge.notches.iter_mut().for_each(|notch| notch.along -= along);
        match edge.is_straight() {
            true => edge.curves = vec![straight(corner, edge.end())],
            false => edge.curves.insert(0, straight(corner, edge.start())),
        }
    }
    edge.set_start(corner);
}

/// How far along two edges that begin near each other they meet: of several places the nearest. Less than nought is before an edge begins, straight on.
fn meeting(own: &Edge, other: &Edge, reach: f64) -> Option<[f64; 2]> {
    let far = |[a, b]: &[f64; 2]| a.abs() + b.abs();
    let lines = stretch(other, reach);
    let mut met: Vec<[f64; 2]> = Vec::new();
    let mut along = -reach;
    let before = straight(own.start() - own.ways()[0] * reach, own.start());
    for curve in std::iter::once(&before).chain(&own.curves) {
        let long = curve.arclen(EXACT);
        if along > reach {
            break;
        }
        for (from, line) in &lines {
            met.extend(meetings(curve, *line).into_iter().map(|[t, share]| {
                [along + curve.subsegment(0.0..t).arclen(EXACT), from + share * line.p0.distance(line.p1)]
            }));
        }
        along += long;
    }
    met.into_iter()
        .filter(|at| at.iter().all(|along| along.abs() <= reach))
        .min_by(|a, b| far(a).total_cmp(&far(b)))
}

/// The beginning of an edge, and as much straight on before it, as straights: each with how far along it begins.
fn stretch(edge: &Edge, reach: f64) -> Vec<(f64, Line)> {
    let start = edge.start();
    let mut lines = vec![(-reach, Line::new(start - edge.ways()[0] * reach, start))];
    let steps = (reach.min(edge.length()) / STEP).ceil() as usize;
    let points: Vec<Point> = (0..=steps).map(|n| edge.at(n as f64 * STEP).0).collect();
    lines.extend(points.windows(2).zip(0..).map(|(pair, n)| (n as f64 * STEP, Line::new(pair[0], pair[1]))));
    lines
}
