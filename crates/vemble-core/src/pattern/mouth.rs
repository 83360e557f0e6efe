//! The mouth of a dart: what lies on both sides of it runs on smoothly once the dart is closed.

use super::change::CannotBe;
use super::part::between;
use super::piece::{EXACT, Edge, Notch, Piece, PieceDart, is_on, way_of};
use super::turn::{ONE_POINT, along_mouth, blended};
use crate::garment::Dart;
use crate::work::{EdgeName, Fullness};
use kurbo::{CubicBez, ParamCurve, ParamCurveArclen, Point, Vec2};
use std::collections::VecDeque;

/// An edge is bent so far beside a mouth, in mm, but not beyond another mouth, nor a notch that leaves it so
/// much (teaching values: a hand's width, as corners are, and two fingers).
const TRUED: f64 = 50.0;
const SHORTEST: f64 = 15.0;
/// Where one of its curves begins within so many mm of that, from there.
const NEAR: f64 = 1.0;
/// What runs on less towards its end, as a cosine, is no stretch to be bent.
const STEEPEST: f64 = 0.5;
/// What turns by no more, in degrees, was drawn smooth (teaching value: what points in a row leave of a curve).
const FAIR: f64 = 1.0;
/// What turns by more, in degrees, is a corner; it is rounded off over so much of its edge on either side, in mm (teaching value: what a pencil rounds), and of
/// one edge no more than so many are.
const CORNER: f64 = 2.0;
const ROUNDED: f64 = 5.0;
const MOST: usize = 8;
/// What is off by no more, in radians, stays as it is.
const SMOOTH: f64 = 1e-6;

/// The edge that a dart begins on, and how far that turns there once the dart is closed, in degrees: less than nought where it dips. Nothing of one
/// that is not stitched, or begins on none.
pub(super) fn turns_at(piece: &Piece, dart: &PieceDart) -> Option<(EdgeName, f64)> {
    let edge = piece.edges.iter().find(|edge| dart.is_turnable() && is_on(edge, dart))?;
    let mouth = along_mouth(edge, dart);
    Some((edge.name, (turns(&parts(edge, mouth)) - closes(edge, mouth, dart)).to_degrees()))
}

/// Does something to pieces while edges that run smooth over a closed dart lie flat beside its mouth, so that they bend as one line; afterwards they
/// run smooth again, and over new darts too.
pub(super) fn while_flat<T>(
    pieces: &mut Vec<Piece>,
    is_about: impl Fn(&Piece) -> bool,
    does: impl FnOnce(&mut Vec<Piece>) -> T,
) -> T {
    let before = pieces.clone();
    let mut smooth: Vec<Dart> = Vec::new();
    for piece in pieces.iter_mut().filter(|piece| is_about(piece)) {
        for dart in piece.darts.clone() {
            if turns_at(piece, &dart).is_some_and(|(_, turns)| turns.abs() < FAIR) {
                lay_flat(piece, &dart);
                smooth.push(dart.dart);
            }
        }
    }
    let flat = pieces.clone();
    let done = does(pieces);
    let is_new = |dart: Dart| before.iter().flat_map(|piece| &piece.darts).all(|old| old.dart != dart);
    for piece in pieces.iter_mut() {
        if let Some(n) = flat.iter().position(|flat| flat == piece) {
            piece.clone_from(&before[n]);
            continue;
        }
        if let Some(flat) = flat.iter().find(|flat| flat.key == piece.key) {
            round_off(piece, flat);
        }
        for dart in piece.darts.clone() {
            if smooth.contains(&dart.dart) || is_new(dart.dart) {
                true_mouth(piece, &dart);
            }
        }
    }
    done
}

/// Rounds off what a dart has left behind: corners of edges that had none but at its mouth.
fn round_off(piece: &mut Piece, was: &Piece) {
    for (n, old) in was.edges.iter().enumerate().filter(|(_, old)| was.taken_of(old) > 0.0) {
        let is_it = |edge: &Edge| edge.name == old.name && edge.second == old.second;
        if !piece.edges.get(n).is_some_and(is_it) || !corners(was, old).is_empty() {
            continue;
        }
        // One at a time: the next lies a little nearer then.
        for _ in 0..MOST {
            let edge = &piece.edges[n];
            let Some(stretch) = corners(piece, edge).pop() else { break };
            let [before, corner, after] = parts(edge, stretch);
            let ([start, end], [leaves, comes]) =
                ([corner.start(), corner.end()], [before.ways()[1], after.ways()[0]]);
            let curves = vec![blended([start, end], [leaves, comes])];
            piece.edges[n] = joined(edge, [before, Edge { curves, ..corner }, after]);
        }
    }
}

/// Where an edge has corners beside the mouths of its darts: the stretch over which each is rounded off.
fn corners(piece: &Piece, edge: &Edge) -> Vec<[f64; 2]> {
    let darts = piece.darts.iter().filter(|dart| dart.other.is_none() && is_on(edge, dart));
    let ends: Vec<f64> = darts.flat_map(|dart| along_mouth(edge, dart)).chain([0.0, edge.length()]).collect();
    let mut along = 0.0;
    let turned = edge.curves.windows(2).filter_map(|pair| {
        along += pair[0].arclen(EXACT);
        let [into, out] = [way_of(&pair[0], 1.0), way_of(&pair[1], 0.0)];
        let turns = into.cross(out).atan2(into.dot(out)).to_degrees().abs();
        (turns > CORNER).then_some(along)
    });
    // From one mouth to the next, and none at a mouth itself.
    let clear = |at: &f64| ends.iter().all(|end| (end - at).abs() > 2.0 * ONE_POINT);
    turned
        .filter(clear)
        .map(|at| {
            let [from, to] = [at - ROUNDED, at + ROUNDED];
            [
                ends.iter().copied().filter(|end| *end < at).fold(from, f64::max),
                ends.iter().copied().filter(|end| *end > at).fold(to, f64::min),
            ]
        })
        .collect()
}

/// Draws the edge beside a dart so that it runs on as if there were none.
pub(super) fn lay_flat(piece: &mut Piece, dart: &PieceDart) {
    true_mouth(piece, &PieceDart { loose: Some(Fullness::Ease), ..*dart });
}

/// Draws the edge beside a dart so that it runs smooth once that is closed, or lies flat where it is not stitched.
pub(super) fn true_mouth(piece: &mut Piece, dart: &PieceDart) {
    let Some(n) = piece.edges.iter().position(|edge| dart.other.is_none() && is_on(edge, dart)) else {
        return;
    };
    let edge = &piece.edges[n];
    let mouth = along_mouth(edge, dart);
    let closed = if dart.loose.is_some() { 0.0 } else { closes(edge, mouth, dart) };
    let parts = parts(edge, mouth);
    let off = turns(&parts) - closed;
    if off.abs() < SMOOTH {
        return;
    }
    let others = piece.darts.iter().filter(|other| other.other.is_none() && is_on(edge, other));
    let ends = others.flat_map(|other| along_mouth(edge, other)).chain([0.0, edge.length()]);
    let ends: Vec<f64> = ends.collect();
    // A notch is passed over where it lies so near that the edge would turn in a jerk.
    let room = |from: f64, away: f64| {
        let beyond = |mark: &f64| (mark - from) * away;
        let ends = ends.iter().map(beyond).filter(|room| *room > 2.0 * ONE_POINT);
        let notches = edge.notches.iter().map(|notch| beyond(&notch.along)).filter(|room| *room > SHORTEST);
        ends.chain(notches).fold(TRUED, f64::min)
    };
    let [before, between, after] = parts;
    let before = bent(before, room(mouth[0], -1.0), off / 2.0);
    let after = bent(after.turned(), room(mouth[1], 1.0), -off / 2.0).turned();
    let ends = [before.end(), after.start()];
    let is_it = |own: &&mut PieceDart| (own.dart, own.mouth) == (dart.dart, dart.mouth);
    for own in piece.darts.iter_mut().filter(is_it) {
        let is_turned = own.mouth[0].distance(ends[0]) > own.mouth[0].distance(ends[1]);
        own.mouth = if is_turned { [ends[1], ends[0]] } else { ends };
    }
    piece.edges[n] = joined(&piece.edges[n], [before, between, after]);
}

/// Turns an edge at one of its ends by so much, in radians, against the clock; what lies beyond a hand's width, or a dart, stays.
pub(super) fn bend_end(piece: &mut Piece, n: usize, at_end: bool, by: f64) -> Result<(), CannotBe> {
    let edge = &piece.edges[n];
    let darts = piece.darts.iter().filter(|dart| dart.other.is_none() && is_on(edge, dart));
    let from = if at_end { edge.length() } else { 0.0 };
    let room = darts.flat_map(|dart| along_mouth(edge, dart)).map(|mouth| (mouth - from).abs());
    let room = room.fold(TRUED, f64::min);
    if room < SHORTEST {
        return Err(CannotBe::ThroughDart);
    }
    piece.edges[n] = match at_end {
        true => bent(edge.clone(), room, by),
        false => bent(edge.clone().turned(), room, by).turned(),
    };
    Ok(())
}

/// How far an edge turns from before a mouth to behind it, as it lies on the table.
fn turns([before, _, after]: &[Edge; 3]) -> f64 {
    let [into, out] = [before.ways()[1], after.ways()[0]];
    into.cross(out).atan2(into.dot(out))
}

/// What closing a dart turns one side against the other by.
fn closes(edge: &Edge, mouth: [f64; 2], dart: &PieceDart) -> f64 {
    let [from, to] = mouth.map(|along| edge.at(along).0 - dart.point);
    from.cross(to).atan2(from.dot(to))
}

/// What lies before a mouth, in it, and behind it.
fn parts(edge: &Edge, [from, to]: [f64; 2]) -> [Edge; 3] {
    [between(edge, 0.0, from), between(edge, from, to), between(edge, to, edge.length())]
}

/// An edge whose last stretch, about so long, comes to its end turned by so much: most beside it, and fading. Where one of its curves begins near there
/// the stretch does, so that it can be bent back.
fn bent(mut edge: Edge, room: f64, by: f64) -> Edge {
    let (end, comes, mut rest) = (edge.end(), edge.ways()[1], room);
    let mut stretch = VecDeque::new();
    while let Some(last) = edge.curves.pop() {
        let stays = last.arclen(EXACT) - rest;
        if stays > NEAR {
            let t = last.inv_arclen(stays, EXACT);
            edge.curves.push(last.subsegment(0.0..t));
            stretch.push_front(last.subsegment(t..1.0));
            break;
        }
        stretch.push_front(last);
        rest = -stays;
        if rest < NEAR {
            break;
        }
    }
    let start = stretch.front().map_or(end, |c| c.p0);
    let (long, along) = (start.distance(end), (end - start).normalize());
    let across = Vec2::new(-along.y, along.x);
    let turned = comes.rotate_scale(Vec2::from_angle(by));
    let steep = [comes, turned].map(|way| way.dot(across) / way.dot(along));
    // An edge that does not run towards its end is left as it is: truing says so.
    if [comes, turned].iter().all(|way| way.dot(along) > STEEPEST) {
        let by = steep[1] - steep[0];
        let share = |p: Point| ((p - start).dot(along) / long).clamp(0.0, 1.0);
        let to = |p: Point| p + across * (by * long * share(p).powi(2) * (share(p) - 1.0));
        let way =
            |p: Point, way: Vec2| way + across * (by * way.dot(along) * share(p) * (3.0 * share(p) - 2.0));
        for c in &mut stretch {
            let [p0, p3] = [to(c.p0), to(c.p3)];
            *c = CubicBez::new(p0, p0 + way(c.p0, c.p1 - c.p0), p3 + way(c.p3, c.p2 - c.p3), p3);
        }
    }
    edge.curves.extend(stretch);
    edge
}

/// Parts of an edge one after the other, with the notches that they have.
fn joined(edge: &Edge, parts: [Edge; 3]) -> Edge {
    let mut all = Edge { curves: Vec::new(), notches: Vec::new(), ..edge.clone() };
    for part in parts {
        let done = all.length();
        let moved = part.notches.iter().map(|notch| Notch { along: done + notch.along, ..*notch });
        all.notches.extend(moved);
        let at = all.curves.last().map(|c| c.p3);
        all.curves.extend(part.curves.into_iter().enumerate().map(|(n, c)| match (n, at) {
            (0, Some(p0)) => CubicBez { p0, ..c },
            _ => c,
        }));
    }
    all
}
