//! Pieces made from others: facings, linings, the bags of pockets. What is changed on a piece afterwards is not changed on these; truing says so.

use super::carry::{inwards, move_hem_in};
use super::change::{CannotBe, crosses, mm};
use super::mouth::{lay_flat, true_mouth};
use super::part::{Spot, cut_from, is_clear, part};
use super::piece::{Edge, Piece, PieceDart, is_on, meetings};
use super::turn::{CLEAR, turn_dart};
use super::unroll::ALLOWANCE;
use crate::garment::Seam;
use crate::length::{Length, Measure, Unit};
use crate::work::{EdgeName, EdgePlace, PieceKey, PieceLayer, PiecePart, straight};
use kurbo::{CubicBez, Line, ParamCurve, ParamCurveArclen, ParamCurveNearest, Point};

/// A line inside an edge is drawn through points so far apart, in mm.
const STEP: f64 = 2.0;
/// Its ends lie no nearer to a point that it is drawn through than so large a share of a step.
const NO_STEP: f64 = 0.2;
/// So much longer than they are, in mm, its straights are looked at where they meet other edges.
const SLACK: f64 = 1e-3;
/// A facing is measured in so many places.
const LOOKED_AT: u8 = 16;
/// A lining ends so far above what it lies in, and is turned up by as much, in mm (teaching value: an inch, so that it never shows).
const LINING_ENDS: f64 = 25.0;

/// A piece of the layer that is seen, and the key of one that is made from it.
fn outer(pieces: &[Piece], n: usize, layer: PieceLayer) -> Result<(&Piece, PieceKey), CannotBe> {
    let made = pieces[n].key.of(layer);
    match pieces.iter().any(|piece| piece.key == made) {
        true => Err(CannotBe::Twice),
        false if !pieces[n].key.layer.is_outer() => Err(CannotBe::NotThere),
        false => Ok((&pieces[n], made)),
    }
}

fn keep(pieces: &mut Vec<Piece>, made: Piece) {
    pieces.push(Piece { was: None, ..made });
}

/// An edge that may be faced: a sleeve is sewn into its armhole, and a band is folded along its upper edge.
pub(super) fn is_faced(piece: &Piece, edge: EdgeName) -> bool {
    let is_cap = piece.key.part == PiecePart::Sleeve && edge == EdgeName::Seam(Seam::ArmholeSeam);
    let is_band = piece.key.part == PiecePart::Waistband && edge == EdgeName::Top;
    EdgeName::FACED.contains(&edge) && !is_cap && !is_band
}

/// The edges of a piece that a pocket lies between: the seam at its side, its waist, its middle.
pub(super) fn around_pocket(piece: &Piece) -> Option<[usize; 3]> {
    let count = piece.edges.len();
    let waist = piece.edges.iter().position(|edge| edge.name == EdgeName::Waist)?;
    let [side, middle] = [(waist + count - 1) % count, (waist + 1) % count];
    piece.edges[side].name.is_side().then_some([side, waist, middle])
}

/// Makes a facing: a strip so wide along an edge, with the darts that begin there closed.
pub(super) fn make_facing(
    pieces: &mut Vec<Piece>,
    from: usize,
    edge: EdgeName,
    wide: f64,
) -> Result<(), CannotBe> {
    let (source, made) = outer(pieces, from, PieceLayer::Facing(edge))?;
    if !is_faced(source, edge) {
        return Err(CannotBe::NotFaced);
    }
    if wide < CLEAR {
        return Err(CannotBe::TooLittle);
    }
    let (source, n) = with_darts_closed(source, edge)?;
    let (spots, line) = line_inside(&source, n, wide)?;
    is_clear(&source, &line, spots)?;
    let [strip, rest] = part(&source, spots, &line, EdgeName::Inner);
    // It leaves the piece, and comes back to it.
    if crosses(&Piece { edges: rest, ..source.clone() }) {
        return Err(CannotBe::TooMuch);
    }
    let cut = cut_of(&source, &strip);
    let mut facing = cut_from(&source, made, strip, cut);
    // A hem that is faced is sewn there, and not turned up.
    if edge == EdgeName::Hem {
        for piece in [&mut facing, &mut pieces[from]] {
            piece.edges.iter_mut().filter(|own| own.name == edge).for_each(|own| own.allowance = ALLOWANCE);
        }
    }
    keep(pieces, facing);
    Ok(())
}

/// What goes to the fold is cut once.
fn cut_of(source: &Piece, edges: &[Edge]) -> u8 {
    match source.edge(EdgeName::Fold) {
        Some(_) if edges.iter().any(|edge| edge.name == EdgeName::Fold) => 1,
        Some(_) => 2,
        None => source.cut,
    }
}

/// A piece whose darts on an edge are closed, and opened anywhere else; with the place of that edge.
fn with_darts_closed(source: &Piece, name: EdgeName) -> Result<(Piece, usize), CannotBe> {
    let n = source.edges.iter().position(|edge| edge.name == name).ok_or(CannotBe::NotThere)?;
    let mut piece = source.clone();
    while let Some(dart) =
        piece.darts.iter().find(|d| d.other.is_none() && is_on(&piece.edges[n], d)).copied()
    {
        // A fold stays straight.
        let is_open = |edge: &&Edge| edge.name != name && edge.name != EdgeName::Fold;
        let mut others: Vec<&Edge> = piece.edges.iter().filter(is_open).collect();
        others.sort_by_key(|edge| edge.name != EdgeName::Hem);
        let places = others.into_iter().flat_map(|edge| {
            [0.5, 0.35, 0.65, 0.2, 0.8].map(|share| {
                let at = Measure { length: Length::from_cm(edge.length() * share / 10.0), unit: Unit::Mm };
                EdgePlace { edge: edge.name, at }
            })
        });
        let closed = places.into_iter().find_map(|to| {
            let mut next = piece.clone();
            turn_dart(&mut next, dart.dart, to, None).ok().filter(|()| !crosses(&next))?;
            (next.edges.len() == piece.edges.len()).then_some(next)
        });
        piece = closed.ok_or(CannotBe::ThroughDart)?;
    }
    Ok((piece, n))
}

/// A line so far inside an edge, from the edge before it to the one after it.
fn line_inside(piece: &Piece, n: usize, wide: f64) -> Result<([Spot; 2], Vec<CubicBez>), CannotBe> {
    let count = piece.edges.len();
    let (before, after) = ((n + count - 1) % count, (n + 1) % count);
    if before == after {
        return Err(CannotBe::TooMuch);
    }
    let edge = &piece.edges[n];
    let is_straight = edge.length() - edge.start().distance(edge.end()) < 1e-6;
    let steps = if is_straight { 1 } else { (edge.length() / STEP).ceil().max(1.0) as usize };
    let inside = |k: usize| {
        let (at, way) = edge.at(edge.length() * k as f64 / steps as f64);
        at + inwards(way) * wide
    };
    let [leaves, comes] = edge.ways();
    // Straight on at both ends, until it meets the edges there.
    let mut points = vec![inside(0) - leaves * (2.0 * wide)];
    points.extend((0..=steps).map(inside));
    points.push(inside(steps) + comes * (2.0 * wide));
    let lines: Vec<Line> = points.windows(2).map(|pair| Line::new(pair[0], pair[1])).collect();
    let met = |edge: usize| -> Vec<(f64, f64)> {
        let mut all = Vec::new();
        let mut done = 0.0;
        for curve in &piece.edges[edge].curves {
            for (k, line) in lines.iter().enumerate() {
                // Where an edge is square to the one beside it, the line meets that in a point that it is drawn through: a little longer, none
                // of both lines there misses it.
                let longer = (line.p1 - line.p0).normalize() * SLACK;
                let hits = meetings(curve, Line::new(line.p0 - longer, line.p1 + longer));
                all.extend(hits.into_iter().map(|[t, on_line]| {
                    let along = done + curve.subsegment(0.0..t).arclen(super::piece::EXACT);
                    let share = (on_line * (line.length() + 2.0 * SLACK) - SLACK) / line.length();
                    (k as f64 + share.clamp(0.0, 1.0), along)
                }));
            }
            done += curve.arclen(super::piece::EXACT);
        }
        all
    };
    // It enters the piece where it last meets the edge before, and leaves it where it then meets the one after.
    let from = met(before).into_iter().max_by(|a, b| a.0.total_cmp(&b.0)).ok_or(CannotBe::TooMuch)?;
    let to = met(after).into_iter().filter(|hit| hit.0 > from.0).min_by(|a, b| a.0.total_cmp(&b.0));
    let to = to.ok_or(CannotBe::TooMuch)?;
    let is_short = |(_, along): (f64, f64), edge: usize| {
        let edge = &piece.edges[edge];
        along < CLEAR || along > edge.length() - CLEAR
    };
    if is_short(from, before) || is_short(to, after) {
        return Err(CannotBe::TooMuch);
    }
    let at = |(place, _): (f64, f64)| {
        let k = (place as usize).min(lines.len() - 1);
        lines[k].eval(place - k as f64)
    };
    let (first, last) = (1.0, (lines.len() - 1) as f64);
    let between = points.iter().enumerate().filter(|(k, _)| {
        let k = *k as f64;
        (first..=last).contains(&k) && k > from.0 + NO_STEP && k < to.0 - NO_STEP
    });
    // Smooth beside its edge, straight where it goes on beyond it.
    let mut beside: Vec<Point> = between.map(|(_, p)| *p).collect();
    let (start, end) = (at(from), at(to));
    if from.0 >= first || beside.is_empty() {
        beside.insert(0, start);
    }
    if to.0 <= last || beside.len() < 2 {
        beside.push(end);
    }
    let mut line = super::carry::smooth(&beside);
    if beside[0].distance(start) > super::piece::EXACT {
        line.insert(0, straight(start, beside[0]));
    }
    if beside[beside.len() - 1].distance(end) > super::piece::EXACT {
        line.push(straight(beside[beside.len() - 1], end));
    }
    let spots = [Spot { edge: before, along: from.1 }, Spot { edge: after, along: to.1 }];
    Ok((spots, line))
}

/// Makes a lining: without what its facings take, and shorter where it is hemmed.
pub(super) fn make_lining(pieces: &mut Vec<Piece>, n: usize) -> Result<(), CannotBe> {
    let (source, made) = outer(pieces, n, PieceLayer::Lining)?;
    let (key, mut lining) = (source.key, Piece { key: made, ..source.clone() });
    for facing in pieces.iter_mut().filter(|piece| piece.key.of(PieceLayer::Outer) == key) {
        let PieceLayer::Facing(faced) = facing.key.layer else { continue };
        let Some(wide) = width_of(facing, faced) else { continue };
        lining = without_strip(&lining, faced, wide)?;
        // Both are sewn together there.
        for edge in facing.edges.iter_mut().filter(|edge| edge.name == EdgeName::Inner) {
            edge.allowance = ALLOWANCE;
        }
    }
    if let Some(n) = lining.edges.iter().position(|edge| edge.name == EdgeName::Hem) {
        if lining.bounds().height() < 4.0 * LINING_ENDS {
            return Err(CannotBe::TooLittle);
        }
        let beside = pieces.iter().filter(|p| p.key.layer.is_outer() && p.key.part == lining.key.part);
        let hems = beside.filter_map(|piece| piece.edge(EdgeName::Hem)).map(Edge::length);
        let room = hems.fold(lining.edges[n].length(), f64::min);
        move_hem_in(&mut lining, (n, room), |_| LINING_ENDS);
        lining.edges[n].allowance = LINING_ENDS;
    }
    keep(pieces, lining);
    Ok(())
}

/// How wide a facing is, in most places: where its edge comes to a corner it is wider.
fn width_of(facing: &Piece, faced: EdgeName) -> Option<f64> {
    let [outer, inner] = [facing.edge(faced)?, facing.edge(EdgeName::Inner)?];
    let at = |n: u8| inner.at(inner.length() * f64::from(n) / f64::from(LOOKED_AT)).0;
    let off = |p: Point| outer.curves.iter().map(|c| c.nearest(p, 1e-6).distance_sq.sqrt()).reduce(f64::min);
    let mut all: Vec<f64> = (1..LOOKED_AT).filter_map(|n| off(at(n))).collect();
    all.sort_by(f64::total_cmp);
    all.get(all.len() / 2).copied()
}

/// A piece without a strip along an edge. Its darts that begin there begin further in, where they are narrower.
fn without_strip(piece: &Piece, name: EdgeName, wide: f64) -> Result<Piece, CannotBe> {
    let n = piece.edges.iter().position(|edge| edge.name == name).ok_or(CannotBe::NotThere)?;
    // Within the strip a dart is open: what runs smooth over it once it is closed is drawn where it begins then.
    let (there, others): (Vec<PieceDart>, Vec<PieceDart>) =
        piece.darts.iter().partition(|dart| dart.other.is_none() && is_on(&piece.edges[n], dart));
    let mut piece = piece.clone();
    there.iter().for_each(|dart| lay_flat(&mut piece, dart));
    let piece = &piece;
    let (spots, line) = line_inside(piece, n, wide)?;
    is_clear(&Piece { darts: others.clone(), ..piece.clone() }, &line, spots)?;
    let [_, mut rest] = part(piece, spots, &line, EdgeName::Inner);
    for edge in rest.iter_mut().filter(|edge| edge.name == EdgeName::Inner) {
        edge.allowance = ALLOWANCE;
    }
    let cut = cut_of(piece, &rest);
    let mut left = cut_from(&Piece { darts: others, ..piece.clone() }, piece.key, rest, cut);
    for dart in there {
        let met = dart.mouth.map(|end| {
            let leg = Line::new(end, dart.point);
            let hits = |c: &CubicBez| meetings(c, leg).first().map(|[_, on_leg]| leg.eval(*on_leg));
            line.iter().find_map(hits)
        });
        match met {
            [Some(a), Some(b)] => {
                left.darts.push(PieceDart { mouth: [a, b], ..dart });
                true_mouth(&mut left, &PieceDart { mouth: [a, b], ..dart });
            }
            // It ends in the strip.
            [None, None] => {}
            [Some(_), None] | [None, Some(_)] => return Err(CannotBe::ThroughDart),
        }
    }
    Ok(left)
}

/// Makes the bag of a pocket: between the waist edge and the seam at the side, so deep; so wide, or extended to the middle.
pub(super) fn make_pocket(
    pieces: &mut Vec<Piece>,
    n: usize,
    deep: f64,
    wide: Option<Measure>,
) -> Result<(), CannotBe> {
    let (source, made) = outer(pieces, n, PieceLayer::Pocket)?;
    let [side, waist, middle] = around_pocket(source).ok_or(CannotBe::NotThere)?;
    let (source, _) = with_darts_closed(source, EdgeName::Waist)?;
    let fits = |far: f64, edge: usize| match far {
        far if far < CLEAR => Err(CannotBe::TooLittle),
        far if far > source.edges[edge].length() - CLEAR => Err(CannotBe::TooMuch),
        _ => Ok(()),
    };
    fits(deep, side)?;
    let from = Spot { edge: side, along: source.edges[side].length() - deep };
    let (start, way) = source.edges[side].at(from.along);
    let (to, line) = match wide.map(mm) {
        None => {
            fits(deep, middle)?;
            let end = source.edges[middle].at(deep).0;
            (Spot { edge: middle, along: deep }, straight(start, end))
        }
        Some(wide) => {
            fits(wide, waist)?;
            let (end, along) = source.edges[waist].at(wide);
            // Square to the side and to the waist: a bag without a corner.
            let [inwards, down] = [way, along].map(|v| kurbo::Vec2::new(-v.y, v.x));
            (
                Spot { edge: waist, along: wide },
                CubicBez::new(start, start + inwards * wide, end + down * deep, end),
            )
        }
    };
    let spots = [from, to];
    is_clear(&source, &[line], spots)?;
    let [bag, _] = part(&source, spots, &[line], EdgeName::Inner);
    let cut = cut_of(&source, &bag);
    let mut bag = cut_from(&source, made, bag, cut);
    for edge in bag.edges.iter_mut().filter(|edge| edge.name == EdgeName::Inner) {
        edge.allowance = ALLOWANCE;
    }
    keep(pieces, bag);
    Ok(())
}
