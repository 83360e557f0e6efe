//! Edges that are gathered or pleated, carried to the pieces: each is cut as long as it is entered, whatever is done beside it, and as much of it taken together as it is
//! longer than what it is sewn to.

use super::has_in_file;
use crate::change::ChangeKey;
use crate::change::gathers::Gathered;
use crate::garment::{Garment, GatheredFacts, LongEdge};
use crate::length::{Length, Measure, Unit};
use crate::pattern::change::crosses;
use crate::pattern::joins::At;
use crate::pattern::piece::Piece;
use crate::pattern::unroll::{gather, gathered_edges, length_before};
use crate::work::{DrawnPiece, EdgeName, PiecePart};
use uuid::Uuid;

/// So often it is cut anew until it is as long as it is to be, to within so much, in mm.
const FIXES: usize = 8;
const TRUE: f64 = 0.05;

/// A garment as it is cut, its pieces with everything that is done, and what of that cannot be carried to paper.
type Cut = (Garment, Vec<Piece>, Vec<ChangeKey>);

/// The pieces that `carried` makes of a garment, which it is given with its edges as long as they have to be cut; and what of everything cannot be carried to paper.
/// Edges of pieces that were drawn elsewhere stay as they are.
pub(super) fn carry(
    garment: &Garment,
    (on_file, try_on): (&[DrawnPiece], Option<Uuid>),
    gathered: &[Gathered],
    carried: impl Fn(&Garment) -> (Vec<Piece>, Vec<ChangeKey>),
) -> (Vec<Piece>, Vec<ChangeKey>) {
    let mut anew: Vec<&Gathered> = Vec::new();
    let mut all: Option<Cut> = None;
    for edge in gathered {
        let before = all.as_ref().map_or(garment, |(cut, ..)| cut);
        if let Some(cut) = cut_long(before, edge, on_file, &carried) {
            anew.push(edge);
            all = Some(cut);
        }
    }
    let (mut pieces, mut left) = all.map_or_else(|| carried(garment), |(_, pieces, left)| (pieces, left));
    for edge in &anew {
        gather(&mut pieces, edge.at, mm(edge.long - edge.short), edge.how);
    }
    // What is in a file already is not done again.
    let is_in_file = |edge: &Gathered| {
        let own = gathered_edges(&pieces, edge.at);
        let has = |piece: &Piece| on_file.iter().any(|d| d.piece == piece.key && has_in_file(d, try_on));
        !own.is_empty() && own.iter().all(|at| has(&pieces[at.piece]))
    };
    let is_done = |edge: &&Gathered| anew.iter().any(|anew| anew.at == edge.at) || is_in_file(edge);
    let done: Vec<ChangeKey> =
        gathered.iter().filter(is_done).map(|edge| ChangeKey::Gathers(edge.at)).collect();
    left.retain(|key| !done.contains(key));
    (pieces, left)
}

fn mm(length: Length) -> f64 {
    length.cm() * 10.0
}

/// A garment whose edge is cut so much longer than what it is sewn to that it is as long as it is to be, whatever else is done. Nothing where pieces have no such edge, were drawn
/// elsewhere, or cannot be drawn so.
fn cut_long(
    garment: &Garment,
    edge: &Gathered,
    on_file: &[DrawnPiece],
    carried: &impl Fn(&Garment) -> (Vec<Piece>, Vec<ChangeKey>),
) -> Option<Cut> {
    let times = if edge.at == LongEdge::Waist { 2.0 } else { 1.0 };
    let mut by = mm(edge.long - edge.round);
    for _ in 0..FIXES {
        let mut cut = garment.clone();
        cut.gathered.retain(|facts| facts.at != edge.at);
        let more = Measure { length: Length::from_cm(by / 10.0), unit: Unit::Mm };
        cut.gathered.push(GatheredFacts { at: edge.at, by: more, how: edge.how });
        let (pieces, left) = carried(&cut);
        let own = gathered_edges(&pieces, edge.at);
        let is_drawn = |at: &At| on_file.iter().any(|d| d.piece == pieces[at.piece].key);
        // A waist that belongs to a yoke is not cut longer by that.
        let is_cut = own.iter().all(|at| pieces[at.piece].edges[at.edge].eased.is_some() || by <= 0.0);
        if own.is_empty() || own.iter().any(is_drawn) || !is_cut {
            return None;
        }
        let long: f64 = own.into_iter().map(|at| length_before(&pieces, at)).sum();
        let missing = wanted(&pieces, edge).map_or(0.0, |wanted| wanted - long);
        if missing.abs() < TRUE {
            return Some((cut, pieces, left)).filter(|(_, pieces, _)| !pieces.iter().any(crosses));
        }
        by += times * missing;
    }
    None
}

/// How long the edges of one side are to be cut, in mm: of a waist what it is longer all round is shared by both sides, which may be sewn to bodices that differ. Without a
/// bodice it is as long as it was cut to be.
fn wanted(pieces: &[Piece], edge: &Gathered) -> Option<f64> {
    let bodice = pieces.iter().filter(|piece| piece.key.part == PiecePart::Bodice);
    let waists = bodice.flat_map(|p| p.edges.iter().filter(|e| e.name == EdgeName::Waist).map(|e| p.sewn(e)));
    let bodice: f64 = waists.sum();
    match edge.at {
        LongEdge::SleeveHem | LongEdge::Flounce => Some(mm(edge.long)),
        LongEdge::Waist => (bodice > 0.0).then(|| bodice + mm(edge.long - edge.round) / 2.0),
    }
}
