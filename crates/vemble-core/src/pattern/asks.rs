//! What is asked before something is done to a piece: field by field, as a form shows it.

use crate::work::PieceDoes;
use serde::Serialize;
use utoipa::ToSchema;

/// What is asked for one thing that may be done.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct ChangeAsks {
    /// What is done.
    pub does: PieceDoes,
    /// It is done to all pieces of a part, and not to one.
    pub of_part: bool,
    /// Field by field.
    pub fields: Vec<FieldAsked>,
}

/// One field.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct FieldAsked {
    /// What it is called in the change.
    pub name: &'static str,
    /// What is entered, or chosen.
    pub is: FieldIs,
    /// What it is, for those who cannot see it.
    pub label: &'static str,
    /// What stands before it.
    pub before: &'static str,
    /// What stands in it while it is empty.
    pub hint: &'static str,
    /// What it means when it is empty.
    pub empty: FieldEmpty,
}

/// What is entered in a field, or chosen.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FieldIs {
    /// One of the levels that cross the piece.
    Level,
    /// In front, behind, or both.
    Face,
    /// Where a wedge opens.
    OpensAt,
    /// One of the piece's edges.
    Edge,
    /// One of the edges that may be faced.
    Faced,
    /// One of the edges that have notches.
    Notched,
    /// One of the notches of the edge that is chosen.
    Notch,
    /// One of the edges that can be drawn anew at a corner.
    AtCorner,
    /// The other edge at a corner of the one that is chosen.
    Beside,
    /// One end of the edge that is chosen.
    End,
    /// One of the piece's darts.
    Dart,
    /// One of the seams along which it may be joined.
    Join,
    /// One of the seams that may be laid on a fold.
    Fold,
    /// Gathered, or eased in.
    Fullness,
    /// A place on its outline.
    Place,
    /// A length.
    Figure,
    /// Lengths at places along the edge that is chosen.
    Pins,
}

/// What an empty field means.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FieldEmpty {
    /// Nothing can be done yet.
    Missing,
    /// Nought, as long as another is not.
    Nought,
    /// It is left out.
    LeftOut,
}

/// A length that has to be there.
const fn figure(name: &'static str, label: &'static str, before: &'static str) -> FieldAsked {
    FieldAsked { name, is: FieldIs::Figure, label, before, hint: "1, or −1", empty: FieldEmpty::Missing }
}

/// A length that is nought when nobody says so.
const fn nought(name: &'static str, label: &'static str, before: &'static str) -> FieldAsked {
    FieldAsked { hint: "0", empty: FieldEmpty::Nought, ..figure(name, label, before) }
}

const fn chosen(name: &'static str, is: FieldIs, label: &'static str) -> FieldAsked {
    FieldAsked { name, is, label, before: "", hint: "", empty: FieldEmpty::Missing }
}

const fn place(name: &'static str, label: &'static str, before: &'static str) -> FieldAsked {
    FieldAsked { before, ..chosen(name, FieldIs::Place, label) }
}

const BY: FieldAsked = figure("by", "By so much; less than nought takes away", "by");
const EDGE: FieldAsked = chosen("edge", FieldIs::Edge, "Which edge");
const DART: FieldAsked = chosen("dart", FieldIs::Dart, "Which dart");
const BELOW: FieldAsked = chosen("below", FieldIs::Level, "Below which level");

/// What is asked for everything that may be done.
pub(super) fn asks() -> Vec<ChangeAsks> {
    let of = |does: &PieceDoes| ChangeAsks {
        does: *does,
        of_part: *does == PieceDoes::Length,
        fields: fields(*does),
    };
    PieceDoes::ALL.iter().map(of).collect()
}

fn fields(does: PieceDoes) -> Vec<FieldAsked> {
    let bare = |asked: FieldAsked| FieldAsked { hint: "", ..asked };
    match does {
        PieceDoes::Length => {
            let face = chosen("face", FieldIs::Face, "In front or behind");
            vec![BELOW, FieldAsked { empty: FieldEmpty::LeftOut, ..face }, BY]
        }
        PieceDoes::Wedge => vec![BELOW, chosen("at", FieldIs::OpensAt, "Where it opens"), BY],
        PieceDoes::Width | PieceDoes::Flare => vec![BY],
        PieceDoes::Allowance => vec![EDGE, bare(figure("width", "So wide, per edge", "so wide, per edge"))],
        PieceDoes::End => vec![EDGE, chosen("upper", FieldIs::End, "Which end"), BY],
        PieceDoes::MoveEdge => {
            vec![EDGE, chosen("pins", FieldIs::Pins, "So far in; less than nought is outwards")]
        }
        PieceDoes::Armhole => vec![
            nought("lower", "Lower at the underarm; less than nought is raised", "lower by"),
            nought("inwards", "Further in, in its middle; less than nought is filled up", "further in by"),
        ],
        PieceDoes::Shoulder => vec![
            nought("shorter", "Shorter at the tip; less than nought is longer", "shorter by"),
            nought("lower", "Lower at the tip; less than nought is squarer", "lower by"),
        ],
        PieceDoes::TurnDart => {
            let keep = nought("keep", "Kept of the dart where it is", "kept where it is");
            vec![
                DART,
                place("to", "Turned to", "turned to"),
                FieldAsked { empty: FieldEmpty::LeftOut, ..keep },
            ]
        }
        PieceDoes::DartPoint | PieceDoes::SlideDart => vec![DART, BY],
        PieceDoes::Slash => {
            vec![place("from", "Opens at", "opens at"), place("hinge", "Holds at", "holds at"), BY]
        }
        PieceDoes::LooseDart => {
            vec![DART, chosen("into", FieldIs::Fullness, "Gathered, pleated or eased in")]
        }
        PieceDoes::Eased => vec![
            EDGE,
            bare(figure("by", "So much of it, per edge", "so much of it, per edge")),
            chosen("into", FieldIs::Fullness, "Gathered, pleated or eased in"),
        ],
        PieceDoes::Notch => vec![
            chosen("edge", FieldIs::Notched, "Which edge"),
            chosen("notch", FieldIs::Notch, "Which notch"),
            figure("by", "By so much, towards its upper end; less than nought is down", "up by"),
        ],
        PieceDoes::Drill => vec![
            place("from", "From", "from"),
            bare(figure("by", "So far in, square to that edge", "so far in")),
        ],
        PieceDoes::TrueCorner => vec![
            chosen("edge", FieldIs::AtCorner, "Which edge"),
            chosen("beside", FieldIs::Beside, "At which other edge"),
        ],
        PieceDoes::TrueDart => vec![DART],
        PieceDoes::Neckline => vec![
            nought("lower", "Lower in the middle; less than nought is higher", "lower by"),
            nought("wider", "Wider at the shoulder; less than nought is narrower", "wider by"),
        ],
        PieceDoes::Split => vec![place("from", "From", "from"), place("to", "To", "to")],
        PieceDoes::Join => vec![chosen("seam", FieldIs::Join, "Without which seam")],
        PieceDoes::OnFold => vec![chosen("seam", FieldIs::Fold, "Without which seam")],
        PieceDoes::Facing => {
            let edge = chosen("edge", FieldIs::Faced, "Along which edge");
            vec![edge, bare(figure("wide", "So wide", "so wide"))]
        }
        PieceDoes::Lining => Vec::new(),
        PieceDoes::Pocket => {
            let deep = figure("deep", "So deep, along the side", "so deep");
            let says = "So wide, along the waist; extended to the middle when nothing is said";
            let wide = FieldAsked {
                hint: "to the middle",
                empty: FieldEmpty::LeftOut,
                ..figure("wide", says, "so wide")
            };
            vec![bare(deep), wide]
        }
    }
}
