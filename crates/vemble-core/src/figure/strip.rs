//! The seam strip: one seam laid straight, station along it, offsets to either side of the old stitching.
//!
//! x is the station in mm from the hem; y is the offset in mm from the old stitching of that side, positive into
//! the panel. The wearer's left comes first.

use super::svg;
use crate::change::Curve;
use crate::fitting::{GarmentSide, PutOn, Reading, WearerSide, Worn};
use crate::length::Length;
use kurbo::Point;
use serde::Serialize;
use utoipa::ToSchema;

/// One seam, both sides.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Strip {
    /// Length of the seam in mm.
    pub length_mm: f64,
    /// Allowance beyond the old stitching on each edge, in mm.
    pub allowance_mm: f64,
    /// How far its lines go out of the panel, or its allowance where that is more.
    pub outside_mm: f64,
    /// Largest offset drawn, in mm: how much room each side needs.
    pub deepest_mm: f64,
    /// The wearer's left, then the wearer's right.
    pub sides: Vec<StripSide>,
    /// What is drawn on each of them; once where both are the same.
    pub lines: Vec<StripLines>,
    /// What lies across the seam.
    pub blocks: Vec<StripBlock>,
    /// The levels that cross it.
    pub levels: Vec<StripLevel>,
}

/// A level that crosses the seam.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StripLevel {
    /// Its name.
    pub name: String,
    /// Its station, in mm.
    pub at_mm: f64,
}

/// One side of a seam strip.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StripSide {
    /// The garment's side.
    pub side: GarmentSide,
    /// Where that was while pinning, and the garment's side where it is the other one: "wearer’s left (the garment’s right)".
    pub words: String,
    /// The same without the garment's side, where there is little room.
    pub short_words: String,
    /// Nobody pinned it: it has the other side's line.
    pub is_copied: bool,
    /// There is more room for its name at its datum than at its other end.
    pub is_quiet_at_datum: bool,
}

/// The lines of a side, or of both.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StripLines {
    /// It is a panel that is set in: what is cut outside them and beyond their upper end, and beyond their lower one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub panel_mm: Option<[f64; 2]>,
    /// The new stitching of the front edge, or of both where they are the same.
    pub line: Option<String>,
    /// The new stitching of the back edge, where it differs.
    pub back_line: Option<String>,
    /// The old fold of a dart, which is no axis.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub old_line: Option<String>,
    /// How far a smooth line may pass beside the pins: a closed band.
    pub tolerance: Option<String>,
    /// The cut line of the front edge, where it is trimmed.
    pub cut: Option<String>,
}

/// Something across the seam.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StripBlock {
    /// What it is.
    pub what: String,
    /// From this station, in mm.
    pub from_mm: f64,
    /// To this station, in mm.
    pub to_mm: f64,
    /// Where, in words.
    pub place: String,
}

/// Both sides of a strip, the wearer's left first, and what is drawn on them: once where they `agree`.
pub(crate) fn strip_sides<'a>(
    put_on: PutOn,
    pinned: &[Reading],
    agree: bool,
    length: Length,
    drawn: impl Fn(GarmentSide) -> (&'a Curve, StripLines),
) -> (Vec<StripSide>, Vec<StripLines>) {
    let mut order = GarmentSide::BOTH;
    order.sort_by_key(|side| put_on.worn.on_wearer(*side) == WearerSide::Right);
    let of = |side| {
        let (curve, lines) = drawn(side);
        (is_quiet_at_datum(curve, length.cm()), lines)
    };
    let (quiet, lines): (Vec<_>, Vec<_>) = order[..if agree { 1 } else { 2 }].iter().map(|s| of(*s)).unzip();
    let side = |(n, side): (usize, GarmentSide)| {
        let short_words = put_on.seen_words(side);
        let words = match put_on.worn {
            Worn::RightSideOut => short_words.clone(),
            Worn::InsideOut => format!("{short_words} (the garment’s {})", side.name()),
        };
        let is_copied = agree && pinned.iter().all(|pin| pin.side != side);
        StripSide { side, words, short_words, is_copied, is_quiet_at_datum: quiet[if agree { 0 } else { n }] }
    };
    (order.into_iter().enumerate().map(side).collect(), lines)
}

/// A curve as a path of the strip; nothing where there is none.
pub(crate) fn curve_path(curve: &Curve) -> Option<String> {
    (!curve.pieces.is_empty()).then(|| svg(&curve.path(mm)))
}

/// Station and offset in cm, in mm.
pub(crate) fn mm(station: f64, offset: f64) -> Point {
    Point::new(station * 10.0, offset * 10.0)
}

/// Whether a curve stays nearer to nought in the first half of a seam than in the second.
fn is_quiet_at_datum(curve: &Curve, length: f64) -> bool {
    let deepest = |(low, high): (f64, f64)| high.max(-low);
    deepest(curve.range(0.0, length * 0.4)) < deepest(curve.range(length * 0.6, length))
}
