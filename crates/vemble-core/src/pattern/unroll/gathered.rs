//! Edges that are cut longer than what they are sewn to, and how that is shared out among them.

use crate::garment::{GatherHow, LongEdge};
use crate::pattern::joins::At;
use crate::pattern::piece::Piece;
use crate::work::{Eased, EdgeName, Fullness, PieceKey, PiecePart, PieceShare};

/// The edges of one side that are one long edge together: the waist of a skirt or of both sides of a leg, the hem of a sleeve. None at a waist that belongs to a
/// yoke, and none of a flounce, which is a piece of its own.
pub(in crate::pattern) fn gathered_edges(pieces: &[Piece], at: LongEdge) -> Vec<At> {
    let is_of = |piece: &Piece, name: EdgeName| match at {
        LongEdge::Waist => {
            matches!(piece.key.part, PiecePart::Skirt | PiecePart::Leg) && name == EdgeName::Waist
        }
        LongEdge::SleeveHem => piece.key.part == PiecePart::Sleeve && name == EdgeName::Hem,
        LongEdge::Flounce => false,
    };
    let of = |(p, piece): (usize, &Piece)| -> Vec<At> {
        let own = piece.edges.iter().enumerate().filter(|(_, edge)| is_of(piece, edge.name));
        own.map(|(edge, _)| At { piece: p, edge }).collect()
    };
    let outer = pieces.iter().enumerate().filter(|(_, piece)| piece.key.layer.is_outer());
    let all: Vec<At> = outer.flat_map(of).collect();
    // A sleeve has an upper piece, too.
    let is_yoke = |at_one: &At| at == LongEdge::Waist && pieces[at_one.piece].key.share == PieceShare::Upper;
    if all.iter().any(is_yoke) { Vec::new() } else { all }
}

/// How long an edge is once its darts are closed, before anything of it is taken together, in mm.
pub(in crate::pattern) fn length_before(pieces: &[Piece], at: At) -> f64 {
    let piece = &pieces[at.piece];
    piece.edges[at.edge].length() - piece.taken_of(&piece.edges[at.edge])
}

/// Takes together so much of a long edge, in mm, altogether or of each sleeve: of each piece as much as it is longer than the piece of the bodice above it, so that seams
/// meet seams; where bodice and skirt have other seams as much in front and behind as it is longer there; evenly all round where there is no bodice.
pub(in crate::pattern) fn gather(pieces: &mut [Piece], at: LongEdge, by: f64, how: GatherHow) {
    let own = match at {
        LongEdge::Waist => by / 2.0,
        LongEdge::SleeveHem | LongEdge::Flounce => by,
    };
    let into = match how {
        GatherHow::Gathers => Fullness::Gathers,
        GatherHow::KnifePleats => Fullness::Pleats,
        GatherHow::BoxPleats => Fullness::BoxPleats,
    };
    let edges = gathered_edges(pieces, at);
    let shares = shares_of(pieces, &edges);
    for (at, share) in edges.iter().zip(shares) {
        let eased = Eased { by_mm: own * share, into };
        pieces[at.piece].edges[at.edge].eased = Some(eased).filter(|eased| eased.by_mm > 0.0);
    }
}

/// How large a share each of these edges has of what they are longer than what they are sewn to.
fn shares_of(pieces: &[Piece], edges: &[At]) -> Vec<f64> {
    let long = |at: &At| length_before(pieces, *at);
    let is_beside = |one: PieceKey, other: PieceKey| (one.face, one.share) == (other.face, other.share);
    let by: [&dyn Fn(PieceKey, PieceKey) -> bool; 2] = [&is_beside, &|one, other| one.face == other.face];
    let meeting = by.into_iter().find_map(|goes_with| {
        // How long all edges are that go with this one, and the bodice above them.
        let below = |at: &At| -> f64 {
            let own = |other: &&At| goes_with(pieces[other.piece].key, pieces[at.piece].key);
            edges.iter().filter(own).map(long).sum()
        };
        let above = |at: &At| -> f64 {
            let is_above =
                |p: &&Piece| p.key.part == PiecePart::Bodice && goes_with(p.key, pieces[at.piece].key);
            let waists =
                pieces.iter().filter(is_above).filter_map(|p| Some(p.sewn(p.edge(EdgeName::Waist)?)));
            waists.sum()
        };
        let over: Vec<f64> = edges.iter().map(|at| (below(at) - above(at)) * long(at) / below(at)).collect();
        let meets = edges.iter().zip(&over).all(|(at, over)| above(at) > 0.0 && *over > 0.0);
        meets.then_some(over)
    });
    let over = meeting.unwrap_or_else(|| edges.iter().map(long).collect());
    let over_all = over.iter().sum::<f64>().max(f64::MIN_POSITIVE);
    over.into_iter().map(|over| over / over_all).collect()
}
