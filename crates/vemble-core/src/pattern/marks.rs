//! Marks on a worn toile, carried to named edges of its pieces.

use super::change::{CannotBe, apply_where};
use super::piece::Piece;
use crate::garment::{Dart, Seam};
use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use crate::work::{
    EdgeName, EdgePlace, MarkSettled, Marked, OpensAt, PieceChange, PieceFace, PieceKey, PiecePart,
    PieceShare, ToileMark,
};

/// What a mark does to pieces.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Carried {
    /// The changes that it becomes, as far as there are edges for them.
    pub changes: Vec<PieceChange>,
    /// Why it is not done, though it was to be now.
    pub cannot: Option<CannotBe>,
}

/// What a mark becomes on these pieces. Nothing where no piece has such an edge.
pub(super) fn changes_of(marked: &Marked, pieces: &[Piece], tape: Tape) -> Vec<PieceChange> {
    // What is made from a piece is made anew from it.
    let pieces: Vec<&Piece> = pieces.iter().filter(|piece| piece.key.layer.is_outer()).collect();
    let by = marked.by;
    let back = Measure { length: -by.length, ..by };
    let has = |piece: &Piece, edge: EdgeName| piece.edge(edge).is_some();
    let is_upper = |key: PieceKey| matches!(key.part, PiecePart::Body | PiecePart::Bodice);
    let is_lower = |key: PieceKey| matches!(key.part, PiecePart::Body | PiecePart::Skirt | PiecePart::Leg);
    let on = |of: &dyn Fn(&Piece) -> bool, change: &dyn Fn(PieceKey) -> PieceChange| -> Vec<PieceChange> {
        pieces.iter().filter(|piece| of(piece)).map(|piece| change(piece.key)).collect()
    };
    let lengths = |level: Level, of: &dyn Fn(PieceKey) -> bool| -> Vec<PieceChange> {
        let mut all: Vec<PieceChange> = Vec::new();
        for piece in pieces.iter().filter(|piece| of(piece.key)) {
            let change =
                PieceChange::Length { part: piece.key.part, face: Some(piece.key.face), below: level, by };
            if !all.contains(&change) {
                all.push(change);
            }
        }
        all
    };
    let shoulder = EdgeName::Seam(Seam::ShoulderSeam);
    let armhole = EdgeName::Seam(Seam::ArmholeSeam);
    match marked.mark {
        ToileMark::ShoulderTip => on(&|p| is_upper(p.key) && has(p, shoulder), &|piece| PieceChange::End {
            piece,
            edge: shoulder,
            upper: false,
            by,
        }),
        ToileMark::ArmholeHinge => {
            let own = pieces.iter().filter(|piece| is_upper(piece.key) && has(piece, armhole));
            let sides = own.filter_map(|piece| {
                Some((piece.key, piece.edges.iter().map(|edge| edge.name).find(|name| name.is_side())?))
            });
            sides.map(|(piece, edge)| PieceChange::End { piece, edge, upper: true, by: back }).collect()
        }
        ToileMark::NecklineGape => {
            let front = pieces.iter().find(|p| {
                is_upper(p.key)
                    && p.key.face == PieceFace::Front
                    && has(p, EdgeName::Neckline)
                    && has(p, armhole)
            });
            let half = |piece: &Piece, edge: EdgeName| {
                let long = piece.edge(edge).map_or(0.0, super::piece::Edge::length) / 2.0;
                EdgePlace { edge, at: tape.figure(Length::from_cm(long / 10.0)).measure() }
            };
            front
                .map(|p| PieceChange::Slash {
                    piece: p.key,
                    from: half(p, EdgeName::Neckline),
                    hinge: half(p, armhole),
                    by: back,
                })
                .into_iter()
                .collect()
        }
        ToileMark::BustPoint => {
            let bust = on(&|p| p.darts.iter().any(|d| d.dart == Dart::Bust), &|piece| {
                PieceChange::SlideDart { piece, dart: Dart::Bust, by }
            });
            let waist = on(
                &|p| {
                    is_upper(p.key) && p.darts.iter().any(|d| d.dart == Dart::FrontWaist && d.other.is_none())
                },
                &|piece| PieceChange::DartPoint { piece, dart: Dart::FrontWaist, by: back },
            );
            bust.into_iter().chain(waist).collect()
        }
        ToileMark::Waist => lengths(Level::Bust, &is_upper),
        ToileMark::Hem => {
            let below = |key: PieceKey| if key.part == PiecePart::Body { Level::Hip } else { Level::Waist };
            let parts = [PiecePart::Body, PiecePart::Skirt, PiecePart::Leg];
            parts
                .iter()
                .flat_map(|part| {
                    let of = |key: PieceKey| key.part == *part;
                    let level = pieces.iter().find(|p| of(p.key)).map_or(Level::Hip, |p| below(p.key));
                    lengths(level, &of)
                })
                .collect()
        }
        ToileMark::BalanceFront => on(&|p| is_lower(p.key) && p.key.face == PieceFace::Front, &|piece| {
            PieceChange::Wedge { piece, below: Level::Waist, at: OpensAt::Middle, by }
        }),
        ToileMark::BalanceBack => on(&|p| is_lower(p.key) && p.key.face == PieceFace::Back, &|piece| {
            PieceChange::Wedge { piece, below: Level::Waist, at: OpensAt::Middle, by: back }
        }),
        ToileMark::UpperArm => {
            // Of two pieces the upper one is widened: the other stays under the arm.
            let is_it = |p: &Piece| p.key.part == PiecePart::Sleeve && p.key.share != PieceShare::Lower;
            on(&is_it, &|piece| PieceChange::Width { piece, by })
        }
        ToileMark::Wrist => {
            let is_sleeve = |key: PieceKey| key.part == PiecePart::Sleeve;
            let levels = pieces.iter().filter(|p| is_sleeve(p.key)).flat_map(|p| &p.levels);
            let highest = levels.max_by(|a, b| a.1.total_cmp(&b.1));
            highest.map(|(level, _)| lengths(*level, &is_sleeve)).unwrap_or_default()
        }
    }
}

/// Does the marks that are settled now to pieces, one after the other: each whole or not at all, and none to a piece that has it already.
pub(super) fn carry_marks(
    marks: &[Marked],
    pieces: &mut Vec<Piece>,
    has: impl Fn(&Piece, &Marked) -> bool,
    tape: Tape,
) -> Vec<Carried> {
    let mut carry = |marked: &Marked| {
        let changes = changes_of(marked, pieces, tape);
        if marked.settled != Some(MarkSettled::Now) {
            return Carried { changes, cannot: None };
        }
        if changes.is_empty() {
            return Carried { changes, cannot: Some(CannotBe::NotThere) };
        }
        let mut next = pieces.clone();
        let has = |piece: &Piece| has(piece, marked);
        let done = changes.iter().try_for_each(|change| apply_where(&mut next, change, &has));
        if done.is_ok() {
            *pieces = next;
        }
        Carried { changes, cannot: done.err() }
    };
    marks.iter().map(&mut carry).collect()
}
