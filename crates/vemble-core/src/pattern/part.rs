//! An outline cut in two along a line from one place on it to another: what splitting is made of, and pieces that are made from others.

use super::change::{CannotBe, crosses};
use super::piece::{EXACT, Edge, Notch, Piece, is_on, within};
use super::turn::{CLEAR, along_mouth, cut_at, legs, slash_lies_inside};
use super::unroll::{ALLOWANCE, notch};
use crate::garment::Seam;
use crate::work::{Eased, EdgeName, EdgePlace, PieceFace, PieceKey, PiecePart, PieceShare, meet, straight};
use kurbo::{BezPath, CubicBez, Line, Point, Shape, Vec2};

/// A place on an outline: so far along one of its edges.
#[derive(Clone, Copy, Debug)]
pub(super) struct Spot {
    pub edge: usize,
    pub along: f64,
}

/// A new seam leaves an edge by no less, in radians (teaching value: 15 degrees; what is more pointed is a needle that no hand turns out).
const NEEDLE: f64 = std::f64::consts::PI / 12.0;

/// Cuts a piece in two along a straight, with a seam between both parts.
pub(super) fn split_piece(pieces: &mut Vec<Piece>, n: usize, ends: [EdgePlace; 2]) -> Result<(), CannotBe> {
    let [from, to] = ends.map(|end| cut_at(&pieces[n], end));
    split_at(pieces, n, [from?, to?].map(|cut| Spot { edge: cut.edge, along: cut.from }))
}

/// The same between two places on its outline.
pub(super) fn split_at(pieces: &mut Vec<Piece>, n: usize, spots: [Spot; 2]) -> Result<(), CannotBe> {
    let piece = &pieces[n];
    let key = piece.key;
    let [start, end] = spots.map(|spot| piece.edges[spot.edge].at(spot.along).0);
    let run = end - start;
    let leaves = |spot: &Spot| piece.edges[spot.edge].at(spot.along).1.cross(run.normalize()).abs();
    if run.hypot() < 2.0 * CLEAR || spots.iter().any(|spot| leaves(spot) < NEEDLE.sin()) {
        return Err(CannotBe::Misses);
    }
    slash_lies_inside(piece, Line::new(start, end))?;
    let line = [straight(start, end)];
    is_clear(piece, &line, spots)?;
    let is_across = run.x.abs() > run.y.abs();
    let (shares, seam) = names_of_parts(pieces, key, is_across).ok_or(CannotBe::NoName)?;
    let mut parts = part(piece, spots, &line, EdgeName::Seam(seam));
    // A sliver is no piece.
    if parts.iter().any(|edges| outline_of(edges).area().abs() < run.hypot() * CLEAR / 2.0) {
        return Err(CannotBe::Misses);
    }
    let centre = |edges: &[Edge]| outline_of(edges).bounding_box().center();
    let [one, other] = parts.each_ref().map(|edges| centre(edges));
    // From the middle to the side, and from above down; of a sleeve the larger one is the upper.
    let is_the_other_way = match key.face {
        PieceFace::Round => outline_of(&parts[0]).area().abs() < outline_of(&parts[1]).area().abs(),
        PieceFace::Front | PieceFace::Back if is_across => one.y < other.y,
        PieceFace::Front | PieceFace::Back => one.x > other.x,
    };
    if is_the_other_way {
        parts.reverse();
    }
    let is_on_fold = piece.edge(EdgeName::Fold).is_some();
    let halves = parts.into_iter().zip(shares).map(|(edges, share)| {
        let cut =
            if is_on_fold && edges.iter().all(|edge| edge.name != EdgeName::Fold) { 2 } else { piece.cut };
        let mut half = cut_from(piece, PieceKey { share, ..key }, edges, cut);
        let levels = half.levels.clone();
        for edge in half.edges.iter_mut().filter(|edge| edge.name == EdgeName::Seam(seam)) {
            edge.allowance = ALLOWANCE;
            edge.notches = match is_across {
                true => vec![Notch { along: edge.length() / 2.0, level: None }],
                false => levels.iter().filter_map(|(level, y)| notch(edge, *level, *y)).collect(),
            };
        }
        half
    });
    let halves: Vec<Piece> = halves.collect();
    // It left the piece where nobody looked.
    if halves.iter().any(crosses) {
        return Err(CannotBe::Misses);
    }
    pieces.splice(n..=n, halves);
    Ok(())
}

/// What both parts of a piece are called, and the seam between them: of an upper one and a lower one the yoke seam. Nothing where there are as
/// many pieces beside each other as have names.
fn names_of_parts(pieces: &[Piece], key: PieceKey, is_across: bool) -> Option<([PieceShare; 2], Seam)> {
    let beside = || pieces.iter().filter(|p| PieceKey { share: key.share, ..p.key } == key);
    let is_there = |share: PieceShare| beside().any(|piece| piece.key.share == share);
    if key.face == PieceFace::Round {
        let is_whole_sleeve = key.part == PiecePart::Sleeve && key.share == PieceShare::Whole;
        let names = ([PieceShare::Upper, PieceShare::Lower], Seam::SleeveBackSeam);
        return (is_whole_sleeve && !is_across).then_some(names);
    }
    let is_middle_free = !is_there(PieceShare::Middle);
    let shares = match key.share {
        PieceShare::Whole if is_across => [PieceShare::Upper, PieceShare::Lower],
        PieceShare::Whole => [PieceShare::Centre, PieceShare::Side],
        PieceShare::Centre if is_middle_free && !is_across => [PieceShare::Centre, PieceShare::Middle],
        PieceShare::Side if is_middle_free && !is_across => [PieceShare::Middle, PieceShare::Side],
        PieceShare::Centre | PieceShare::Middle | PieceShare::Side => return None,
        PieceShare::Upper | PieceShare::Lower => return None,
    };
    let seams = match (key.face, is_across) {
        (PieceFace::Round, _) => return None,
        (_, true) => return Some((shares, Seam::YokeSeam)),
        (PieceFace::Front, false) if key.part == PiecePart::Leg => [Seam::PanelFront, Seam::PrincessFront],
        (PieceFace::Back, false) if key.part == PiecePart::Leg => [Seam::PanelBack, Seam::PrincessBack],
        (PieceFace::Front, false) => [Seam::PrincessFront, Seam::PanelFront],
        (PieceFace::Back, false) => [Seam::PrincessBack, Seam::PanelBack],
    };
    let is_free = |seam: &Seam| beside().all(|piece| piece.edge(EdgeName::Seam(*seam)).is_none());
    Some((shares, seams.into_iter().find(is_free)?))
}

/// A line runs beside every dart, and ends beside every mouth.
pub(super) fn is_clear(piece: &Piece, line: &[CubicBez], spots: [Spot; 2]) -> Result<(), CannotBe> {
    let crosses = |leg: Line| line.iter().any(|c| meet(leg, Line::new(c.p0, c.p3)));
    let is_in_mouth = |spot: Spot| {
        let edge = &piece.edges[spot.edge];
        piece.darts.iter().filter(|dart| dart.other.is_none() && is_on(edge, dart)).any(|dart| {
            let [from, to] = along_mouth(edge, dart);
            (from - CLEAR..to + CLEAR).contains(&spot.along)
        })
    };
    let is_met = piece.darts.iter().flat_map(legs).any(crosses) || spots.into_iter().any(is_in_mouth);
    if is_met { Err(CannotBe::ThroughDart) } else { Ok(()) }
}

/// Both parts of a piece cut along a line from one place to another: first what follows the first place against the clock. The line is an edge
/// of either.
pub(super) fn part(
    piece: &Piece,
    [from, to]: [Spot; 2],
    line: &[CubicBez],
    name: EdgeName,
) -> [Vec<Edge>; 2] {
    let line = Edge::new(name, line.to_vec());
    let close = |mut edges: Vec<Edge>, mut line: Edge| {
        if let (Some(first), Some(last)) = (edges.first(), edges.last()) {
            line.set_start(last.end());
            line.set_end(first.start());
        }
        edges.push(line);
        edges
    };
    [close(stretch(piece, from, to), line.clone().turned()), close(stretch(piece, to, from), line)]
}

/// The edges from one place to another against the clock.
fn stretch(piece: &Piece, from: Spot, to: Spot) -> Vec<Edge> {
    let mut all = Vec::new();
    let Spot { edge: mut n, along: mut start } = from;
    for _ in 0..=piece.edges.len() {
        let edge = &piece.edges[n];
        let is_last = n == to.edge && to.along > start;
        let end = if is_last { to.along } else { edge.length() };
        if end - start > EXACT {
            all.push(between(edge, start, end));
        }
        if is_last {
            break;
        }
        (n, start) = ((n + 1) % piece.edges.len(), 0.0);
    }
    all
}

/// What remains of an edge between two places along it.
pub(super) fn between(edge: &Edge, from: f64, to: f64) -> Edge {
    let mut part = Edge { notches: Vec::new(), ..edge.clone() };
    let long = edge.length();
    part.eased = edge.eased.map(|eased| Eased { by_mm: eased.by_mm * (to - from) / long, ..eased });
    let off = long - to;
    if off > EXACT {
        part.cut_off_end(off);
    }
    if from > EXACT {
        part.cut_off(from);
    }
    let inside = edge.notches.iter().filter(|notch| notch.along > from && notch.along < to);
    part.notches = inside.map(|notch| Notch { along: notch.along - from, ..*notch }).collect();
    part
}

/// A piece within these edges of another, with what lies inside of them.
pub(super) fn cut_from(source: &Piece, key: PieceKey, mut edges: Vec<Edge>, cut: u8) -> Piece {
    let outline = outline_of(&edges);
    let (bounds, holds) = (outline.bounding_box(), within(&outline));
    for n in 0..edges.len() {
        let name = edges[n].name;
        edges[n].second &= edges.iter().any(|edge| edge.name == name && !edge.second);
    }
    let is_inside = |dart: &&super::piece::PieceDart| {
        let mouth = dart.mouth[0].midpoint(dart.mouth[1]);
        holds(mouth.lerp(dart.point, 0.1))
    };
    let darts = source.darts.iter().filter(is_inside).copied().collect();
    let levels =
        source.levels.iter().copied().filter(|(_, y)| *y > bounds.y0 + CLEAR && *y < bounds.y1 - CLEAR);
    let levels = levels.collect();
    let drills = source.drills.iter().copied().filter(|p| holds(*p)).collect();
    let mut piece = Piece { key, was: source.was, edges, darts, grain: source.grain, cut, levels, drills };
    put_grain(&mut piece);
    piece
}

/// Lays the grain through the middle of a piece, as it runs; of one that is bent or lies aslant as far beside that, and as much shorter, as it needs to lie
/// inside.
pub(super) fn put_grain(piece: &mut Piece) {
    let [low, high] = piece.grain;
    let bounds = piece.bounds();
    let (way, middle) = (high - low, bounds.center());
    let reach = 0.2 * if way.y.abs() > way.x.abs() { bounds.height() } else { bounds.width() };
    if way.hypot() == 0.0 {
        return;
    }
    let (way, holds) = (way.normalize(), within(&piece.outline()));
    let side = Vec2::new(-way.y, way.x);
    let at = |aside: f64, along: f64| middle + side * aside + way * along;
    let is_clear = |&(aside, reach): &(f64, f64)| {
        let beside = [-CLEAR, CLEAR]
            .into_iter()
            .flat_map(|by| [-reach, 0.0, reach].map(|along| at(aside + by, along)));
        beside.into_iter().all(&holds)
    };
    let most = bounds.width().max(bounds.height()) / 2.0;
    let asides = (0..).map(|step| f64::from(step) * CLEAR).take_while(|aside| *aside < most);
    let asides: Vec<f64> = asides.flat_map(|aside| [aside, -aside]).collect();
    let shorter = [1.0, 0.75, 0.5, 0.25].map(|share| share * reach);
    let mut tried = shorter.iter().flat_map(|reach| asides.iter().map(move |aside| (*aside, *reach)));
    let (aside, reach) = tried.find(is_clear).unwrap_or((0.0, reach));
    piece.grain = [at(aside, -reach), at(aside, reach)];
}

fn outline_of(edges: &[Edge]) -> BezPath {
    let mut path = BezPath::new();
    path.move_to(edges.first().map(Edge::start).unwrap_or(Point::ZERO));
    edges.iter().flat_map(|edge| &edge.curves).for_each(|c| path.curve_to(c.p1, c.p2, c.p3));
    path.close_path();
    path
}
