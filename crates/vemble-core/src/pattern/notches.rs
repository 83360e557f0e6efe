//! Notches, counted and measured from the end that both edges of a seam begin at; and drill marks.

use super::carry::inwards;
use super::change::CannotBe;
use super::piece::{Piece, SAME_HOLE, within};
use super::truing::is_upwards;
use super::turn::cut_at;
use crate::work::{EdgeName, EdgePlace};

/// The notches of an edge by their place among them, from its lower end up.
pub(super) fn from_below(piece: &Piece, edge: usize) -> Vec<usize> {
    let notches = &piece.edges[edge].notches;
    let mut order: Vec<usize> = (0..notches.len()).collect();
    order.sort_by(|a, b| notches[*a].along.total_cmp(&notches[*b].along));
    if !is_upwards(piece, edge) {
        order.reverse();
    }
    order
}

/// How far from its lower end a place along an edge is sewn, in mm.
pub(super) fn sewn_from_below(piece: &Piece, edge: usize, along: f64) -> f64 {
    let own = &piece.edges[edge];
    let sewn = piece.sewn_along(own, along);
    if is_upwards(piece, edge) { sewn } else { piece.sewn(own) - sewn }
}

/// How far a notch is to be moved up its edge so that it is sewn further up by so much, in mm: over a dart it goes further.
pub(super) fn further_up(piece: &Piece, edge: usize, notch: usize, by: f64) -> f64 {
    let own = &piece.edges[edge];
    let (at, way) = (own.notches[notch].along, if is_upwards(piece, edge) { 1.0 } else { -1.0 });
    let wanted = piece.sewn_along(own, at) + by * way;
    let (mut low, mut high) = (0.0, own.length());
    for _ in 0..60 {
        let middle = f64::midpoint(low, high);
        if piece.sewn_along(own, middle) < wanted { low = middle } else { high = middle }
    }
    (high - at) * way
}

/// Moves a notch along its edge: up by so much, or down where that is less than nought.
pub(super) fn move_notch(piece: &mut Piece, name: EdgeName, notch: u8, up: f64) -> Result<(), CannotBe> {
    let n = piece.edges.iter().position(|edge| edge.name == name).ok_or(CannotBe::NotThere)?;
    let number = usize::from(notch).checked_sub(1).ok_or(CannotBe::NotThere)?;
    let own = *from_below(piece, n).get(number).ok_or(CannotBe::NotThere)?;
    let up = if is_upwards(piece, n) { up } else { -up };
    let along = piece.edges[n].notches[own].along + up;
    if !(0.0..=piece.edges[n].length()).contains(&along) {
        return Err(CannotBe::Misses);
    }
    piece.edges[n].notches[own].along = along;
    Ok(())
}

/// Marks a hole so far in from a place on an edge, square to it.
pub(super) fn drill(piece: &mut Piece, from: EdgePlace, by: f64) -> Result<(), CannotBe> {
    let cut = cut_at(piece, from)?;
    let (at, way) = piece.edges[cut.edge].at(cut.from);
    let hole = at + inwards(way) * by;
    if by <= 0.0 || !within(&piece.outline())(hole) {
        return Err(CannotBe::Misses);
    }
    if piece.drill_marks().iter().any(|other| other.distance(hole) < SAME_HOLE) {
        return Err(CannotBe::Twice);
    }
    piece.drills.push(hole);
    Ok(())
}
