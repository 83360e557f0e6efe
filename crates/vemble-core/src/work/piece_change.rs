//! What is done to the pieces of a pattern, each with its figure.

use super::pieces::{EdgeName, PieceFace, PieceKey, PiecePart};
use crate::choice::choice;
use crate::fault::Wrong;
use crate::garment::{Dart, Seam};
use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A place on the outline of a piece.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EdgePlace {
    /// On which edge.
    pub edge: EdgeName,
    /// How far along it: from its upper end, or where it runs across, from its end nearer the middle.
    pub at: Measure,
}

/// So far in at a place along an edge.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EdgePin {
    /// How far along it, as of an edge's place.
    pub at: Measure,
    /// So far inwards, per edge; less than nought is outwards.
    pub by: Measure,
}

choice! {
    /// What becomes of the cloth of a dart that is not stitched.
    Fullness {
        Gathers => "gathered",
        /// Folds that all lie one way.
        Pleats => "pleated",
        /// Two folds that meet or part.
        BoxPleats => "laid in box pleats",
        Ease => "eased in",
    }
}

choice! {
    /// Which of its long edges a wedge is opened at.
    OpensAt {
        Middle => "the middle",
        Side => "the side",
    }
}

choice! {
    /// What can be done to a piece.
    PieceDoes {
        Length => "longer or shorter, right across",
        Width => "wider or narrower, right along",
        Wedge => "a wedge, to nothing at one edge",
        Flare => "flare at the lower edge",
        Allowance => "another allowance",
        End => "an edge longer or shorter at one end",
        MoveEdge => "an edge moved in or out, by figures along it",
        Armhole => "another armhole",
        Shoulder => "another shoulder",
        TurnDart => "a dart turned to another edge; to the hem it becomes flare",
        DartPoint => "a dart longer or shorter",
        SlideDart => "a dart moved along its edge",
        Slash => "slashed and spread, to nothing at a hinge",
        LooseDart => "a dart gathered or eased in, and not stitched",
        Eased => "part of an edge gathered or eased in",
        Notch => "a notch moved along its edge",
        Drill => "a drill mark, measured in from an edge",
        TrueCorner => "a corner trued: smooth across its seam, or square to the middle",
        TrueDart => "a dart trued: equal legs, and its edge smooth over it",
        Neckline => "another neckline",
        Split => "cut in two, with a seam between",
        Join => "joined to the piece beside it",
        OnFold => "cut on the fold, without a seam in the middle",
        Facing => "a facing made from it",
        Lining => "a lining made from it",
        Pocket => "the bag of a pocket made from it",
    }
}

/// One thing that is done to pieces, with its figure. They are done in order; each can be taken away again.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum PieceChange {
    /// Made longer, or shorter, right across.
    Length {
        /// Which pieces: all of this part.
        part: PiecePart,
        /// Only those in front, or behind; both when absent.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        face: Option<PieceFace>,
        /// At the line below this level.
        below: Level,
        /// By so much; less than nought is shorter.
        by: Measure,
    },
    /// Made wider, or narrower, right along.
    Width {
        /// Which piece.
        piece: PieceKey,
        /// By so much on this piece; less than nought is narrower.
        by: Measure,
    },
    /// Opened across at one edge to nothing at the other, or folded out: through all panels of a face.
    Wedge {
        /// Which piece, or one of those panels.
        piece: PieceKey,
        /// At the line below this level.
        below: Level,
        /// Where it opens.
        at: OpensAt,
        /// By so much; less than nought is folded out.
        by: Measure,
    },
    /// Opened at its lower edge to nothing at its upper one.
    Flare {
        /// Which piece.
        piece: PieceKey,
        /// By so much at the lower edge; less than nought is closed.
        by: Measure,
    },
    /// Cut with another allowance.
    Allowance {
        /// Which piece.
        piece: PieceKey,
        /// Which of its edges.
        edge: EdgeName,
        /// How wide it is.
        width: Measure,
    },
    /// An edge made longer, or shorter, at one end.
    End {
        /// Which piece.
        piece: PieceKey,
        /// Which of its edges.
        edge: EdgeName,
        /// At its upper end: of a shoulder seam the one at the neck.
        upper: bool,
        /// By so much; less than nought is trimmed.
        by: Measure,
    },
    /// An edge moved in, or out, along a line through figures at places, as a seam is on cloth.
    MoveEdge {
        /// Which piece.
        piece: PieceKey,
        /// Which of its edges.
        edge: EdgeName,
        /// By how much at which places; beyond the outermost it goes on as it runs there.
        pins: Vec<EdgePin>,
    },
    /// The armhole lower at the underarm, or cut further in.
    Armhole {
        /// Which piece.
        piece: PieceKey,
        /// Lower by so much, along the side; less than nought is raised.
        lower: Measure,
        /// Further in by so much in its middle, to nothing at both ends; less than nought is filled up.
        inwards: Measure,
    },
    /// The shoulder shorter at its tip, or more sloping: the armhole goes with it.
    Shoulder {
        /// Which piece.
        piece: PieceKey,
        /// Shorter by so much at the tip; less than nought is longer.
        shorter: Measure,
        /// The tip lower by so much, to nothing at the neck, and the whole armhole with it; less than nought is squarer.
        lower: Measure,
    },
    /// A dart left unstitched: what it took is gathered, or eased in, where it begins.
    LooseDart {
        /// Which piece.
        piece: PieceKey,
        /// Which dart.
        dart: Dart,
        /// What becomes of it.
        into: Fullness,
    },
    /// A dart closed where it is and opened at another edge, turned about its point; at the hem it becomes flare.
    TurnDart {
        /// Which piece.
        piece: PieceKey,
        /// Which dart.
        dart: Dart,
        /// Where it opens.
        to: EdgePlace,
        /// What is kept of it where it is; nothing when absent.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        keep: Option<Measure>,
    },
    /// A dart made longer, or shorter: its point goes along its middle.
    DartPoint {
        /// Which piece.
        piece: PieceKey,
        /// Which dart.
        dart: Dart,
        /// By so much; less than nought is shorter.
        by: Measure,
    },
    /// A dart moved along its edge, down or outwards.
    SlideDart {
        /// Which piece.
        piece: PieceKey,
        /// Which dart.
        dart: Dart,
        /// By so much; less than nought is up or inwards.
        by: Measure,
    },
    /// Slashed from one edge to a hinge on another, and spread.
    Slash {
        /// Which piece.
        piece: PieceKey,
        /// Where it opens.
        from: EdgePlace,
        /// Where it holds.
        hinge: EdgePlace,
        /// By so much where it opens; less than nought is folded out.
        by: Measure,
    },
    /// The point of a dart moved across, so that its legs are equally long, and its edge drawn smooth over it.
    #[serde(alias = "even_legs")]
    TrueDart {
        /// Which piece.
        piece: PieceKey,
        /// Which dart.
        dart: Dart,
    },
    /// So much of an edge is gathered or eased in, where it is sewn to a shorter one.
    Eased {
        /// Which piece.
        piece: PieceKey,
        /// Which of its edges.
        edge: EdgeName,
        /// So much of it in all, per edge; nought where none is.
        by: Measure,
        /// What becomes of it.
        into: Fullness,
    },
    /// A notch moved along its edge.
    Notch {
        /// Which piece.
        piece: PieceKey,
        /// Which of its edges.
        edge: EdgeName,
        /// Which one, counted from the lower end, or the outer one.
        notch: u8,
        /// By so much towards the other end; less than nought is back.
        by: Measure,
    },
    /// A drill mark: where a pocket, a button or a dart of one's own goes.
    Drill {
        /// Which piece.
        piece: PieceKey,
        /// From where on its outline.
        from: EdgePlace,
        /// So far in from there, square to the edge.
        by: Measure,
    },
    /// An edge drawn anew at a corner, so that it runs smooth across the seam there, or is square to the middle. What goes on across the seam is drawn
    /// as much.
    TrueCorner {
        /// Which piece.
        piece: PieceKey,
        /// Which of its edges.
        edge: EdgeName,
        /// Where: at this other edge.
        beside: EdgeName,
    },
    /// The neckline lower in the middle, or wider at the shoulder.
    Neckline {
        /// Which piece.
        piece: PieceKey,
        /// Lower by so much, along the middle; less than nought is higher.
        lower: Measure,
        /// Wider by so much, along the shoulder; less than nought is narrower.
        wider: Measure,
    },
    /// Cut in two along a straight from one place to another: both parts are sewn together there.
    Split {
        /// Which piece.
        piece: PieceKey,
        /// From where.
        from: EdgePlace,
        /// To where.
        to: EdgePlace,
    },
    /// Joined to the piece that is sewn to it, and that seam left out. What the seam shaped is taken by darts.
    Join {
        /// Which piece.
        piece: PieceKey,
        /// Which seam is left out.
        seam: Seam,
    },
    /// Cut on the fold where its middle was a seam.
    OnFold {
        /// Which piece.
        piece: PieceKey,
        /// Which seam is left out.
        seam: Seam,
    },
    /// A facing made from it: a strip along an edge.
    Facing {
        /// Which piece.
        piece: PieceKey,
        /// Along which edge.
        edge: EdgeName,
        /// How wide.
        wide: Measure,
    },
    /// A lining made from it: without its facings, and shorter than it.
    Lining {
        /// Which piece.
        piece: PieceKey,
    },
    /// The bag of a pocket made from it: from its waist edge and the seam at its side.
    Pocket {
        /// Which piece.
        piece: PieceKey,
        /// How deep, along the seam at the side.
        deep: Measure,
        /// How wide, along the waist; extended to the middle when absent.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        wide: Option<Measure>,
    },
}

/// Most figures along an edge: more than any sewist pins.
const PINS: usize = 24;

impl PieceChange {
    /// What is wrong with it before any piece is looked at.
    pub(super) fn wrong(&self) -> Option<Wrong> {
        let Self::MoveEdge { pins, .. } = self else { return None };
        (pins.len() > PINS).then_some(Wrong::TooMany { what: "pins", most: PINS })
    }

    /// It changes the piece of this name, or makes another from it.
    pub fn is_about(&self, key: PieceKey) -> bool {
        match self {
            Self::Length { part, face, .. } => {
                *part == key.part && face.is_none_or(|face| face == key.face) && key.layer.has_lines()
            }
            Self::Wedge { piece, .. } => piece.goes_on_in(key),
            Self::Width { piece, .. }
            | Self::Flare { piece, .. }
            | Self::Allowance { piece, .. }
            | Self::End { piece, .. }
            | Self::MoveEdge { piece, .. }
            | Self::Armhole { piece, .. }
            | Self::Shoulder { piece, .. }
            | Self::LooseDart { piece, .. }
            | Self::TurnDart { piece, .. }
            | Self::DartPoint { piece, .. }
            | Self::SlideDart { piece, .. }
            | Self::Slash { piece, .. }
            | Self::Eased { piece, .. }
            | Self::Notch { piece, .. }
            | Self::Drill { piece, .. }
            | Self::TrueCorner { piece, .. }
            | Self::TrueDart { piece, .. }
            | Self::Neckline { piece, .. }
            | Self::Split { piece, .. }
            | Self::Join { piece, .. }
            | Self::OnFold { piece, .. }
            | Self::Facing { piece, .. }
            | Self::Lining { piece }
            | Self::Pocket { piece, .. } => *piece == key,
        }
    }
}
