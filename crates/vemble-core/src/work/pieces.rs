//! Pieces of a pattern, as they are named, and what is changed on them.

use crate::choice::choice;
use crate::garment::{Dart, Run, Seam};
use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// What a piece is part of.
    PiecePart {
        Body => "body",
        Bodice => "bodice",
        Skirt => "skirt",
        Leg => "leg",
        Sleeve => "sleeve",
        Waistband => "waistband",
    }
}

choice! {
    /// Where a piece lies on the body.
    PieceFace {
        Front => "front",
        Back => "back",
        Round => "all round",
    }
}

choice! {
    /// Which of the pieces that lie beside each other from the middle to the side.
    PieceShare {
        Whole => "",
        Centre => "centre",
        Middle => "middle",
        Side => "side",
    }
}

/// Names a piece among those of a garment.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PieceKey {
    /// What it is part of.
    pub part: PiecePart,
    /// Where it lies.
    pub face: PieceFace,
    /// Which of several beside each other.
    pub share: PieceShare,
}

impl PieceKey {
    /// "skirt, side front", "sleeve".
    pub fn name(self) -> String {
        let Self { part, face, share } = self;
        match (face, share) {
            (PieceFace::Round, _) => part.name().into(),
            (_, PieceShare::Whole) if part == PiecePart::Body => face.name().into(),
            (_, PieceShare::Whole) => format!("{}, {}", part.name(), face.name()),
            _ if part == PiecePart::Body => format!("{} {}", share.name(), face.name()),
            _ => format!("{}, {} {}", part.name(), share.name(), face.name()),
        }
    }
}

/// What an edge is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EdgeName {
    /// It is sewn into a seam.
    Seam(Seam),
    /// It is sewn at the waist, to a band or to what is below or above.
    Waist,
    /// It ends free, and is hemmed.
    Hem,
    /// The edge at the neck.
    Neckline,
    /// The middle, laid on a fold of the cloth.
    Fold,
    /// The free edge in front, where it opens.
    Opening,
    /// An end of a band.
    End,
    /// A raw upper edge that nothing is known of.
    Top,
}

impl EdgeName {
    /// In words.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Seam(seam) => seam.name(),
            Self::Waist => "waist edge",
            Self::Hem => "hem",
            Self::Neckline => "neckline",
            Self::Fold => "fold",
            Self::Opening => "front edge",
            Self::End => "end",
            Self::Top => "upper edge",
        }
    }
}

impl EdgeName {
    /// It runs across the piece rather than up and down: places along it are counted out from the middle.
    pub const fn runs_across(self) -> bool {
        match self {
            Self::Seam(seam) => matches!(seam.run(), Run::Across) && !matches!(seam, Seam::ArmholeSeam),
            Self::Waist | Self::Hem | Self::Neckline | Self::Top => true,
            Self::Fold | Self::Opening | Self::End => false,
        }
    }
}

/// A place on the outline of a piece.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EdgePlace {
    /// On which edge.
    pub edge: EdgeName,
    /// How far along it: from its upper end, or where it runs across, from its end nearer the middle.
    pub at: Measure,
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
        TurnDart => "a dart turned to another edge; to the hem it becomes flare",
        DartPoint => "a dart longer or shorter",
        SlideDart => "a dart moved along its edge",
        Slash => "slashed and spread, to nothing at a hinge",
    }
}

/// One thing that is done to pieces, with its figure. They are done in order; each can be taken away again.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
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
    /// Opened across at one edge to nothing at the other, or folded out.
    Wedge {
        /// Which piece.
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
}

impl PieceChange {
    /// It changes the piece of this name.
    pub fn is_about(&self, key: PieceKey) -> bool {
        match self {
            Self::Length { part, face, .. } => *part == key.part && face.is_none_or(|face| face == key.face),
            Self::Width { piece, .. }
            | Self::Wedge { piece, .. }
            | Self::Flare { piece, .. }
            | Self::Allowance { piece, .. }
            | Self::End { piece, .. }
            | Self::TurnDart { piece, .. }
            | Self::DartPoint { piece, .. }
            | Self::SlideDart { piece, .. }
            | Self::Slash { piece, .. } => *piece == key,
        }
    }
}
