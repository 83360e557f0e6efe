//! Edges that are gathered or pleated, carried to the pieces: each is cut as long as it is entered, whatever is done beside it, and as much of it taken together as it is
//! longer than what it is sewn to.

use super::has_in_file;
use crate::change::ChangeKey;
use crate::change::gathers::Gathered;
use crate::garment::{Garment, GatheredFacts, LongEdge};
use crate::length::{Length, Measure, Unit};
use crate::pattern::change::crosses;
use crate::pattern::piece::Piece;
use crate::pattern::unroll::{gather, gathered_edges, length_before};
use crate::work::{DrawnPiece, EdgeName, PiecePart};
use uuid::Uuid;

/// So often it is cut anew until it is as long as it is to be, to within so much, in mm.
const FIXES: usize = 8;
const TRUE: f64 = 1e-2;

/// The pieces that `carried` makes of a garment, which it is given with its edges as long as they have to be cut; and what of everything cannot be carried to paper.
/// Edges of pieces that were drawn elsewhere stay as they are.
pub(super) fn carry(
    garment: &Garment,
    (on_file, try_on): (&[DrawnPiece], Option<Uuid>),
    gathered: &[Gathered],
    carried: impl Fn(&Garment) -> (Vec<Piece>, Vec<ChangeKey>),
) -> (Vec<Piece>, Vec<ChangeKey>) {
    let (mut pieces, mut left) = carried(garment);
    let (mut cut, mut gathers_anew, mut done) = (garment.clone(), Vec::new(), Vec::new());
    for edge in gathered {
        let own = || gathered_edges(&pieces, edge.at).into_iter().map(|at| pieces[at.piece].key);
        let drawn: Vec<&DrawnPiece> =
            own().filter_map(|key| on_file.iter().find(|d| d.piece == key)).collect();
        let is_there = own().next().is_some();
        if is_there && drawn.is_empty() {
            let wanted = wanted((&cut, &pieces), edge);
            if let Some((longer, next, but)) = cut_long(&cut, (edge, wanted), &carried) {
                gathers_anew.push(edge);
                (cut, pieces, left) = (longer, next, but);
            }
        } else if is_there && drawn.len() == own().count() && drawn.iter().all(|d| has_in_file(d, try_on)) {
            done.push(edge.at);
        }
    }
    for edge in &gathers_anew {
        gather(&mut pieces, edge.at, mm(edge.long - edge.short), edge.how);
    }
    done.extend(gathers_anew.iter().map(|edge| edge.at));
    left.retain(|key| !done.iter().any(|at| *key == ChangeKey::Gathers(*at)));
    (pieces, left)
}

fn mm(length: Length) -> f64 {
    length.cm() * 10.0
}

/// How long the edges of one side are to be cut, in mm: of a waist what it is longer all round is shared by both sides, which may be sewn to bodices that differ.
fn wanted((garment, pieces): (&Garment, &[Piece]), edge: &Gathered) -> f64 {
    let more = mm(edge.long - edge.round) / 2.0;
    let bodice = pieces.iter().filter(|piece| piece.key.part == PiecePart::Bodice);
    let waists = bodice.flat_map(|p| p.edges.iter().filter(|e| e.name == EdgeName::Waist).map(|e| p.sewn(e)));
    match (edge.at, waists.sum::<f64>()) {
        (LongEdge::SleeveHem | LongEdge::Flounce, _) => mm(edge.long),
        (LongEdge::Waist, bodice) if bodice > 0.0 => bodice + more,
        (LongEdge::Waist, _) => {
            let had = garment.gathered.iter().find(|facts| facts.at == edge.at);
            long_of(pieces, edge.at) - had.map_or(0.0, |facts| mm(facts.by.length)) / 2.0 + more
        }
    }
}

fn long_of(pieces: &[Piece], at: LongEdge) -> f64 {
    gathered_edges(pieces, at).into_iter().map(|at| length_before(pieces, at)).sum()
}

/// A garment whose edge is cut so much longer than what it is sewn to that it is as long as it is to be, whatever else is done; and what becomes of it. Nothing where pieces
/// cannot be drawn so.
fn cut_long(
    garment: &Garment,
    (edge, wanted): (&Gathered, f64),
    carried: &impl Fn(&Garment) -> (Vec<Piece>, Vec<ChangeKey>),
) -> Option<(Garment, Vec<Piece>, Vec<ChangeKey>)> {
    let times = if edge.at == LongEdge::Waist { 2.0 } else { 1.0 };
    let mut by = mm(edge.long - edge.round);
    for _ in 0..FIXES {
        let mut cut = garment.clone();
        cut.gathered.retain(|facts| facts.at != edge.at);
        let more = Measure { length: Length::from_cm(by / 10.0), unit: Unit::Mm };
        cut.gathered.push(GatheredFacts { at: edge.at, by: more, how: edge.how });
        let (pieces, left) = carried(&cut);
        let missing = wanted - long_of(&pieces, edge.at);
        if missing.abs() < TRUE {
            return Some((cut, pieces, left)).filter(|(_, pieces, _)| !pieces.iter().any(crosses));
        }
        by += times * missing;
    }
    None
}
