//! Panels of one face beside each other: in which order they lie, and how far across it a place of one of them is.

use super::piece::{Edge, Piece, PieceDart, along_curves};
use crate::garment::Seam;
use crate::place::Level;
use crate::work::{EdgeName, PiecePart, PieceShare};
use kurbo::Affine;

/// From the middle out, and from above down.
pub(super) const fn rank(share: PieceShare) -> u8 {
    match share {
        PieceShare::Whole | PieceShare::Centre | PieceShare::Upper => 0,
        PieceShare::Middle => 1,
        PieceShare::Side | PieceShare::Lower => 2,
    }
}

/// It runs down between the panels of a face.
pub(super) const fn is_between_panels(seam: Seam) -> bool {
    matches!(seam, Seam::PrincessFront | Seam::PrincessBack | Seam::PanelFront | Seam::PanelBack)
}

/// It runs rather across than up.
pub(super) fn is_across(edge: &Edge) -> bool {
    let way = edge.end() - edge.start();
    way.x.abs() > way.y.abs()
}

/// An edge of a piece that runs across.
#[derive(Clone, Copy, PartialEq)]
pub(super) enum Across {
    Upper,
    Lower,
}

/// From where to where its upper or lower edge reaches across; what laps over the middle is not counted.
fn ends_of(piece: &Piece, across: Across) -> [f64; 2] {
    let high = |edge: &&Edge| edge.start().y + edge.end().y;
    let edges = piece.edges.iter().filter(|edge| is_across(edge));
    let edge = match across {
        Across::Upper => edges.max_by(|a, b| high(a).total_cmp(&high(b))),
        Across::Lower => edges.min_by(|a, b| high(a).total_cmp(&high(b))),
    };
    let [a, b] = edge.map_or([piece.bounds().x0, piece.bounds().x1], |e| [e.start().x, e.end().x]);
    let laps = piece.edge(EdgeName::Opening).is_some();
    [if laps { a.min(b).max(0.0) } else { a.min(b) }, a.max(b)]
}

/// How far across its face a place of a panel lies at that edge, by its `x`: from nought in the middle to one at the side. Where the edges of two panels meet it
/// is the same on both, so that what moves by it leaves their seams as equal as they are.
pub(super) fn across_face(
    all: &[Piece],
    piece: &Piece,
    across: Across,
) -> impl Fn(f64) -> f64 + Copy + use<> {
    let (mut inside, mut whole) = (0.0, 0.0);
    for other in all.iter().filter(|other| piece.key.goes_on_in(other.key)) {
        let [from, to] = ends_of(other, across);
        whole += to - from;
        inside += if rank(other.key.share) < rank(piece.key.share) { to - from } else { 0.0 };
    }
    let [from, to] = ends_of(piece, across);
    move |x| (inside + (x.min(to) - from).max(0.0)) / whole
}

/// How far from the middle of its face a dart lies, in mm: of legs along their waist, which begins at the rise; anything else begins in its middle.
pub(super) fn from_middle(all: &[Piece], piece: &Piece, dart: &PieceDart) -> f64 {
    let middle = dart.mouth[0].midpoint(dart.mouth[1]);
    let Some(edge) = piece.edge(EdgeName::Waist).filter(|_| piece.key.part == PiecePart::Leg) else {
        return middle.x;
    };
    let is_inside =
        |other: &&Piece| piece.key.goes_on_in(other.key) && rank(other.key.share) < rank(piece.key.share);
    let inside = all.iter().filter(is_inside).filter_map(|other| other.edge(EdgeName::Waist));
    let along = along_curves(&edge.curves, middle);
    let out = if edge.start().x < edge.end().x { along } else { edge.length() - along };
    inside.map(Edge::length).sum::<f64>() + out
}

/// Lays panels that were drawn each for itself beside each other: each begins where the one inside of it ends, at the bust or at the edge of a waist.
pub(super) fn lay_beside(pieces: &mut [Piece]) {
    let reach = |piece: &Piece| {
        let bust = piece.levels.iter().find(|(level, _)| *level == Level::Bust);
        let is_below = piece.key.part == PiecePart::Skirt;
        let edge = || ends_of(piece, if is_below { Across::Upper } else { Across::Lower });
        bust.and_then(|(_, y)| piece.reach(*y)).unwrap_or_else(edge)
    };
    let mut order: Vec<usize> = (0..pieces.len()).collect();
    order.sort_by_key(|n| rank(pieces[*n].key.share));
    for (at, &n) in order.iter().enumerate() {
        let is_inside = |other: &&usize| pieces[n].key.goes_on_in(pieces[**other].key);
        if let Some(inside) = order[..at].iter().rfind(is_inside) {
            let by = reach(&pieces[*inside])[1] - reach(&pieces[n])[0];
            pieces[n].lay(Affine::translate((by, 0.0)));
        }
    }
}
