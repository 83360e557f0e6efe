//! Pieces of a pattern and their edges, as they are named.

use crate::choice::choice;
use crate::garment::{Run, Seam};
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
        /// What lies above a yoke seam, and below it; of a sleeve in two pieces the upper one and the one under the arm.
        Upper => "upper",
        Lower => "lower",
    }
}

/// Which layer of the garment a piece is cut for.
#[derive(
    Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema,
)]
#[serde(rename_all = "snake_case")]
pub enum PieceLayer {
    /// What is seen.
    #[default]
    Outer,
    /// What lies inside it.
    Lining,
    /// A strip that is sewn to an edge, and turned to the inside.
    Facing(EdgeName),
    /// The bag of a pocket.
    Pocket,
}

impl PieceLayer {
    /// It is no piece made from another.
    pub fn is_outer(&self) -> bool {
        *self == Self::Outer
    }

    /// It runs as far up and down as what it lies in: lines across go through it too.
    pub const fn has_lines(self) -> bool {
        match self {
            Self::Outer | Self::Lining => true,
            Self::Facing(edge) => {
                matches!(edge, EdgeName::Opening | EdgeName::Seam(Seam::CentreFront | Seam::CentreBack))
            }
            Self::Pocket => false,
        }
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
    /// For which layer; the one that is seen when absent.
    #[serde(default, skip_serializing_if = "PieceLayer::is_outer")]
    pub layer: PieceLayer,
}

impl PieceKey {
    /// A piece of the layer that is seen.
    pub const fn outer(part: PiecePart, face: PieceFace, share: PieceShare) -> Self {
        Self { part, face, share, layer: PieceLayer::Outer }
    }

    /// The same one of another layer.
    pub const fn of(self, layer: PieceLayer) -> Self {
        Self { layer, ..self }
    }

    /// It may have other panels beside it: what is all round has none, and what is cut in two across lies above or below.
    fn has_beside(self) -> bool {
        self.face != PieceFace::Round && !matches!(self.share, PieceShare::Upper | PieceShare::Lower)
    }

    /// It is the same piece, or another panel of the same face: what goes across one of them goes on in the other.
    pub fn goes_on_in(self, other: Self) -> bool {
        self == other || self.has_beside() && other.has_beside() && self.across() == other.across()
    }

    /// All panels of its face as one piece; what has none beside it as it is.
    pub fn across(self) -> Self {
        if self.has_beside() { Self { share: PieceShare::Whole, ..self } } else { self }
    }

    /// "skirt, side front", "sleeve", "neckline facing, bodice, front".
    pub fn name(self) -> String {
        let Self { part, face, share, layer } = self;
        let of = match (face, share) {
            (PieceFace::Round, PieceShare::Upper) => format!("upper {}", part.name()),
            (PieceFace::Round, PieceShare::Lower) => format!("under {}", part.name()),
            (PieceFace::Round, _) => part.name().into(),
            (_, PieceShare::Whole) if part == PiecePart::Body => face.name().into(),
            (_, PieceShare::Whole) => format!("{}, {}", part.name(), face.name()),
            _ if part == PiecePart::Body => format!("{} {}", share.name(), face.name()),
            _ => format!("{}, {} {}", part.name(), share.name(), face.name()),
        };
        match layer {
            PieceLayer::Outer => of,
            PieceLayer::Lining => format!("lining, {of}"),
            PieceLayer::Pocket => format!("pocket, {of}"),
            PieceLayer::Facing(EdgeName::Seam(Seam::ArmholeSeam)) => format!("armhole facing, {of}"),
            PieceLayer::Facing(EdgeName::Waist) => format!("waist facing, {of}"),
            PieceLayer::Facing(edge) => format!("{} facing, {of}", edge.name()),
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
    /// Of a facing or a pocket the edge that lies inside, and of a lining the one that is sewn to it.
    Inner,
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
            Self::Inner => "inner edge",
        }
    }
}

impl EdgeName {
    /// Edges that are faced.
    pub const FACED: [Self; 8] = [
        Self::Neckline,
        Self::Top,
        Self::Seam(Seam::ArmholeSeam),
        Self::Waist,
        Self::Hem,
        Self::Opening,
        Self::Seam(Seam::CentreFront),
        Self::Seam(Seam::CentreBack),
    ];

    /// It is the seam at the side, of a body or of a leg.
    pub const fn is_side(self) -> bool {
        matches!(self, Self::Seam(Seam::SideSeam | Seam::Outseam))
    }

    /// It runs across the piece rather than up and down: places along it are counted out from the middle.
    pub const fn runs_across(self) -> bool {
        match self {
            Self::Seam(seam) => matches!(seam.run(), Run::Across) && !matches!(seam, Seam::ArmholeSeam),
            Self::Waist | Self::Hem | Self::Neckline | Self::Top | Self::Inner => true,
            Self::Fold | Self::Opening | Self::End => false,
        }
    }
}
