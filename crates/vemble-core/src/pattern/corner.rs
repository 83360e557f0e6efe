//! Corners: an edge drawn anew beside one, so that what meets there runs on across the seam, or is square to the middle.

use super::change::CannotBe;
use super::mouth::bend_end;
use super::piece::Piece;
use super::truing::{DEGREES, angle, is_middle, is_mirrored, runs_on_as};
use crate::garment::Seam;
use crate::work::{EdgeName, PieceKey};

/// What is further off, in degrees, is another shape, and no slip (teaching value).
const MOST: f64 = 30.0;

/// A corner: one end of an edge, and what the piece measures there, in degrees.
#[derive(Clone, Copy)]
struct Corner {
    edge: usize,
    at_end: bool,
    degrees: f64,
}

/// The corners of a piece where an edge of this name meets one of that.
fn corners(piece: &Piece, name: EdgeName, beside: EdgeName) -> Vec<Corner> {
    let count = piece.edges.len();
    let corner = |edge: usize, at_end: bool| {
        let other = if at_end { (edge + 1) % count } else { (edge + count - 1) % count };
        let [own, next] = if at_end { [edge, other] } else { [other, edge] };
        let degrees = angle(piece.edges[own].ways()[1], piece.edges[next].ways()[0]);
        (piece.edges[other].name == beside).then_some(Corner { edge, at_end, degrees })
    };
    let named = (0..count).filter(|n| piece.edges[*n].name == name);
    named.flat_map(|n| [false, true].map(|at_end| corner(n, at_end))).flatten().collect()
}

/// The piece on which an edge goes on across a seam: the one that is sewn to it there. A sleeve may be sewn to itself.
fn goes_on(pieces: &[Piece], n: usize, name: EdgeName, seam: EdgeName) -> Option<usize> {
    let key = pieces[n].key;
    let is_across = seam == EdgeName::Waist;
    let is_sewn = |other: PieceKey| {
        let is_beside = is_across || seam == EdgeName::Seam(Seam::YokeSeam);
        other.layer == key.layer
            && (other.part == key.part) != is_across
            && (other.face == key.face || !is_beside)
    };
    let others = (0..pieces.len()).filter(|m| {
        *m != n && is_sewn(pieces[*m].key) && corners(&pieces[*m], runs_on_as(name), seam).len() == 1
    });
    let mut others: Vec<usize> = others.collect();
    // A seam between panels has one of them on either side.
    if is_across && others.len() > 1 {
        others.retain(|m| pieces[*m].key.share == key.share);
    }
    match corners(&pieces[n], name, seam).len() {
        1 => Some(*others.first()?).filter(|_| others.len() == 1),
        2 => Some(n),
        _ => None,
    }
}

/// Edges of a piece that can be trued at a corner, each with the other edge there.
pub(super) fn trueable(pieces: &[Piece], n: usize) -> Vec<[EdgeName; 2]> {
    let edges = &pieces[n].edges;
    let names = |k: usize| [edges[k].name, edges[(k + 1) % edges.len()].name];
    let mut all: Vec<[EdgeName; 2]> =
        (0..edges.len()).map(names).flat_map(|[a, b]| [[a, b], [b, a]]).collect();
    all.sort_unstable();
    all.dedup();
    all.retain(|[name, beside]| {
        let is_free = !is_middle(*name);
        let is_sewn = matches!(beside, EdgeName::Seam(_) | EdgeName::Waist);
        is_free && (is_mirrored(*beside, *name) || is_sewn && goes_on(pieces, n, *name, *beside).is_some())
    });
    all
}

/// Draws an edge anew beside a corner, and on the piece that is sewn to it there what goes on across the seam: each turns by half of what is off.
pub(super) fn true_corner(
    pieces: &mut [Piece],
    n: usize,
    name: EdgeName,
    beside: EdgeName,
) -> Result<(), CannotBe> {
    let own = corners(&pieces[n], name, beside);
    if own.is_empty() {
        return Err(CannotBe::NotThere);
    }
    let all: Vec<(usize, Corner, f64)> = if is_mirrored(beside, name) {
        own.into_iter().map(|corner| (n, corner, 90.0 - corner.degrees)).collect()
    } else {
        let other = goes_on(pieces, n, name, beside).ok_or(CannotBe::NotBeside)?;
        let both: Vec<(usize, Corner)> = match other == n {
            true => own.into_iter().map(|corner| (n, corner)).collect(),
            false => {
                let there = corners(&pieces[other], runs_on_as(name), beside);
                own.into_iter().map(|c| (n, c)).chain(there.into_iter().map(|c| (other, c))).collect()
            }
        };
        let off = 180.0 - both.iter().map(|(_, corner)| corner.degrees).sum::<f64>();
        both.into_iter().map(|(piece, corner)| (piece, corner, off / 2.0)).collect()
    };
    for (piece, corner, off) in all {
        if off.abs() > MOST {
            return Err(CannotBe::TooMuch);
        }
        let way = if corner.at_end { 1.0 } else { -1.0 };
        bend_end(&mut pieces[piece], corner.edge, corner.at_end, way * off.to_radians())?;
        let is_true = |now: &Corner| (now.degrees - corner.degrees - off).abs() < DEGREES / 2.0;
        // A front rise goes on as a seat seam.
        let own = pieces[piece].edges[corner.edge].name;
        let mut now = corners(&pieces[piece], own, beside).into_iter();
        if !now.any(|now| (now.edge, now.at_end) == (corner.edge, corner.at_end) && is_true(&now)) {
            return Err(CannotBe::TooMuch);
        }
    }
    Ok(())
}
