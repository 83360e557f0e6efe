//! What a document comes to: the types that screens, cards, files and the command line share.

use crate::card::Card;
use crate::check::{Check, LevelResult};
use crate::figure::{StandChanges, Strip};
use crate::fitting::{GarmentSide, WearerSide};
use crate::garment::{Dart, Seam};
use crate::length::{Figure, Tape};
use crate::line::Suggestion;
use serde::Serialize;
use utoipa::ToSchema;

/// Everything derived from one document, in figures of one tape.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Solved {
    /// The tape the figures are shown on.
    pub tape: Tape,
    /// Its finest mark, in nanometres: what one nudge moves.
    pub mark_nm: i64,
    /// Its unit: `cm` or `in`.
    pub unit: String,
    /// What to do next with this garment, in a few words.
    pub next_step: String,
    /// Levels as they are, of a garment that nobody tried on; otherwise each try-on has them, before and after.
    pub levels: Vec<LevelResult>,
    /// Each try-on, in the document's order.
    pub try_ons: Vec<SolvedTryOn>,
}

/// Everything derived from one try-on.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedTryOn {
    /// Its seams: those that were entered, in the document's order, then those that take a share or that a line carries on into.
    pub seams: Vec<SolvedSeam>,
    /// Its darts, each like a seam whose edges are the two sides of its fold.
    pub darts: Vec<SolvedSeam>,
    /// The elastic in its waistband.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub elastic: Option<SolvedElastic>,
    /// Girths and ease, from the top down.
    pub levels: Vec<LevelResult>,
    /// Checks, the gravest first.
    pub checks: Vec<Check>,
    /// The chalk cards, one for each altered seam, pair of darts and elastic; none where they were not asked for.
    pub cards: Vec<Card>,
    /// What moves on the stand.
    pub stand: StandChanges,
}

/// One altered seam, or pair of darts.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedSeam {
    /// Names it among the changes of a try-on, and its card: `outseam`, `dart.back_waist`.
    pub key: String,
    /// Which seam, if it is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub seam: Option<Seam>,
    /// Which pair of darts, if it is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub dart: Option<Dart>,
    /// What it is called on this garment.
    pub name: String,
    /// Where its stations are measured from: hem, crotch, sleeve hem.
    pub datum: String,
    /// Where it ends, away from its datum: waist, crotch.
    pub top: String,
    /// Its length.
    pub length: Figure,
    /// The allowance on each edge.
    pub allowance: Figure,
    /// How the sides were made to agree.
    pub sides: SidesResult,
    /// Where the line ends, in words, the hem end first.
    pub ends: [String; 2],
    /// The lower end was not given and is assumed.
    pub lower_is_assumed: bool,
    /// The upper end was not given and is assumed.
    pub upper_is_assumed: bool,
    /// Where the lower end meets the old stitching or goes straight, when it does.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lower_station: Option<Figure>,
    /// Where the upper end meets the old stitching or goes straight, when it does.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub upper_station: Option<Figure>,
    /// How far a smooth line may pass beside a pin.
    pub tolerance: Figure,
    /// How far the seam moves around the body at its deepest, and which way; nothing when it stays.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub moves: Option<String>,
    /// How much of what is pinned here stays here, in percent; other seams take the rest.
    pub keeps_percent: u8,
    /// The seam that its line can carry on into at its top, in one pass, where the garment has it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub goes_on_into: Option<Seam>,
    /// Where a pair of darts lies, in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub place: Option<String>,
    /// What its two edges are called; what a reading calls front comes first.
    pub edges: [String; 2],
    /// How long both edges are afterwards, in words.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub lengths: Vec<String>,
    /// The pins as read, in the document's order.
    pub pins: Vec<PinResult>,
    /// It has a new line, and so a card.
    pub is_altered: bool,
    /// Both sides have the same line.
    pub sides_agree: bool,
    /// Front and back edge move by the same amount everywhere.
    pub edges_equal: bool,
    /// The drawing.
    pub strip: Strip,
}

/// How two sides were made to agree.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SidesResult {
    /// What was done, in words.
    pub words: String,
    /// The largest difference per edge between the sides.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub apart: Option<Figure>,
    /// Somebody has to decide; this is suggested.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub suggestion: Option<Suggestion>,
}

/// A pin as it was read, against the line.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PinResult {
    /// The garment's side it was pinned on.
    pub side: GarmentSide,
    /// Whose side that was on the wearer.
    pub wearer_side: WearerSide,
    /// Where on the seam.
    pub station: Figure,
    /// What the tape said.
    pub amount: Figure,
    /// The offset at which the pin is drawn, off the edge it was measured on.
    pub drawn: Figure,
    /// What the amount changes by when the drawn offset changes by one: 1, 2 or −2, by how it was measured.
    pub amount_per_drawn: i8,
    /// Off the front edge.
    pub front: Figure,
    /// Off the back edge.
    pub back: Figure,
    /// Off altogether.
    pub whole: Figure,
    /// How far the line passes beside it, per edge; positive where it takes more.
    pub beside: Figure,
    /// It stands further from the line than the tolerance.
    pub stands_off: bool,
    /// How front, back and whole come from what the tape said.
    pub sum: String,
}

/// A row of marks.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MarkResult {
    /// Where on the seam, from the hem.
    pub station: Figure,
    /// What is there: pin, knee, hem; empty where the mark only guides the chalk.
    pub note: String,
    /// On the garment's left, or on both sides where they agree; nothing beyond the line.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub left: Option<MarkSide>,
    /// On the garment's right, where it is not as on the left; nothing beyond the line.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub right: Option<MarkSide>,
}

/// What is chalked on one side.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MarkSide {
    /// From the old stitching, on the front edge.
    pub front: Figure,
    /// From the old stitching, on the back edge.
    pub back: Figure,
    /// Both edges together.
    pub whole: Figure,
    /// How these figures come about.
    pub sum: String,
    /// The cut line from the old stitching on each edge, only if it is trimmed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cut: Option<[Figure; 2]>,
}

/// Elastic drawn into a stretch of waistband.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedElastic {
    /// From slit to slit.
    pub casing: Figure,
    /// Stretched ÷ relaxed, in percent: as chosen, or the usual one.
    pub hold_percent: u8,
    /// The holds that can be chosen, from and to.
    pub holds_percent: [u8; 2],
    /// What it spans when worn; nothing where the casing is too short or a girth is not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub spans: Option<Figure>,
    /// What to cut, anchors and all.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cut: Option<Figure>,
    /// How that comes about.
    pub sum: String,
}
