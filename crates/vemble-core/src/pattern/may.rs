//! What may be done to a piece, and what may be named on it.

use super::change::lines_of;
use super::corner::trueable;
use super::joined::{joined_to, lies_in_middle};
use super::made::{around_pocket, is_faced};
use super::notches::from_below;
use super::piece::Piece;
use super::upper::has_armhole;
use super::words::{end_words, measured_from};
use crate::garment::{Dart, Seam};
use crate::told::capital;
use crate::work::{EdgeName, PieceDoes, PieceKey, PieceLayer, PiecePart};
use serde::Serialize;
use utoipa::ToSchema;

/// A piece, and what may be named on it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PieceMay {
    /// Which.
    pub key: PieceKey,
    /// What it is called.
    pub name: String,
    /// Levels below which a line may be.
    pub levels: Vec<crate::place::Level>,
    /// Its edges.
    pub edges: Vec<EdgeShownName>,
    /// Its darts that begin on an edge.
    pub darts: Vec<Dart>,
    /// What can be done to it.
    pub does: Vec<PieceDoes>,
    /// Seams along which it may be joined to the piece beside it.
    pub joins: Vec<Seam>,
    /// Seams in its middle that may be laid on a fold.
    pub folds: Vec<Seam>,
    /// Edges that may be faced.
    pub faced: Vec<EdgeShownName>,
}

/// An edge that may be named.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct EdgeShownName {
    /// Which.
    pub name: EdgeName,
    /// What it is called.
    pub words: String,
    /// Where places along it are measured from.
    pub from: &'static str,
    /// What its ends are called, the lower one first.
    pub ends: [&'static str; 2],
    /// Its notches, from the lower end up.
    pub notches: Vec<String>,
    /// Edges beside it at which it can be drawn anew.
    pub beside: Vec<EdgeName>,
}

/// What may be done to one of these pieces.
pub(super) fn may(piece: &Piece, all: &[Piece]) -> PieceMay {
    let mut edges: Vec<EdgeShownName> = Vec::new();
    let corners = all.iter().position(|other| other.key == piece.key);
    let corners = corners.map_or_else(Vec::new, |n| trueable(all, n));
    let notches = |n: usize| -> Vec<String> {
        let order = from_below(piece, n).into_iter().enumerate();
        let at = |notch: usize| piece.edges[n].notches[notch].level;
        let at = |notch| at(notch).map_or_else(String::new, |level| format!(", at the {}", level.name()));
        order.map(|(number, notch)| format!("notch {}{}", number + 1, at(notch))).collect()
    };
    for (n, edge) in piece.edges.iter().enumerate() {
        if edges.iter().all(|other| other.name != edge.name) {
            let (name, words) = (edge.name, edge.name.name().into());
            let ends = [false, true].map(|upper| end_words(name, upper));
            let beside = corners.iter().filter(|[own, _]| *own == name).map(|[_, beside]| *beside).collect();
            let (from, notches) = (measured_from(piece.key, name), notches(n));
            edges.push(EdgeShownName { name, words, from, ends, notches, beside });
        }
    }
    let levels = lines_of(piece);
    let darts: Vec<_> = piece.darts.iter().filter(|dart| dart.is_turnable()).map(|dart| dart.dart).collect();
    let seams = || {
        piece
            .edges
            .iter()
            .filter_map(|edge| if let EdgeName::Seam(seam) = edge.name { Some(seam) } else { None })
    };
    let folds: Vec<Seam> = seams().filter(|seam| lies_in_middle(*seam)).collect();
    let joins: Vec<Seam> = seams().filter(|seam| joined_to(all, piece, *seam).is_some()).collect();
    let is_made = |layer: PieceLayer| all.iter().any(|other| other.key == piece.key.of(layer));
    let is_outer = piece.key.layer.is_outer();
    let faced = edges
        .iter()
        .filter(|edge| is_outer && is_faced(piece, edge.name) && !is_made(PieceLayer::Facing(edge.name)));
    let faced: Vec<EdgeShownName> = faced.cloned().collect();
    let has = |name: EdgeName| piece.edge(name).is_some();
    let is_possible = |does: &PieceDoes| match does {
        PieceDoes::Length => !levels.is_empty() && piece.key.layer.has_lines(),
        PieceDoes::Wedge => !levels.is_empty(),
        PieceDoes::Width | PieceDoes::Flare | PieceDoes::Allowance | PieceDoes::End | PieceDoes::Slash => {
            true
        }
        PieceDoes::MoveEdge | PieceDoes::Eased | PieceDoes::Drill => true,
        PieceDoes::Notch => edges.iter().any(|edge| !edge.notches.is_empty()),
        PieceDoes::TrueCorner => !corners.is_empty(),
        PieceDoes::TurnDart | PieceDoes::DartPoint | PieceDoes::SlideDart => !darts.is_empty(),
        PieceDoes::TrueDart | PieceDoes::LooseDart => !darts.is_empty(),
        PieceDoes::Armhole | PieceDoes::Shoulder => has_armhole(piece),
        PieceDoes::Neckline => has(EdgeName::Neckline) && has(EdgeName::Seam(Seam::ShoulderSeam)),
        PieceDoes::Split => piece.key.part != PiecePart::Waistband,
        PieceDoes::Join => !joins.is_empty(),
        PieceDoes::OnFold => !folds.is_empty(),
        PieceDoes::Facing => !faced.is_empty(),
        PieceDoes::Lining => is_outer && !is_made(PieceLayer::Lining),
        PieceDoes::Pocket => is_outer && around_pocket(piece).is_some() && !is_made(PieceLayer::Pocket),
    };
    let does = PieceDoes::ALL.iter().copied().filter(is_possible).collect();
    PieceMay {
        key: piece.key,
        name: capital(&piece.key.name()),
        levels,
        edges,
        darts,
        does,
        joins,
        folds,
        faced,
    }
}
