//! The small drawing of a chalk card: one edge of one side, station to the right, offset upwards, sideways stretched.

use super::{hundredths, svg};
use crate::change::Curve;
use crate::length::Length;
use kurbo::{BezPath, Point};
use serde::Serialize;
use utoipa::ToSchema;

/// How wide every drawing is, in units of its own.
const WIDTH: f64 = 600.0;

/// How high the offsets may be drawn, and how much more they may be stretched than the stations (drawing values).
const HIGH: f64 = 60.0;
const STRETCH: f64 = 6.0;

/// Around it: half a stroke and half a dot.
const ROOM: f64 = 5.0;

/// The new line of one edge, made from the figures of the card. All in units of the drawing, y down from its top.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CardDrawing {
    /// Its width.
    pub width: f64,
    /// Its height.
    pub height: f64,
    /// The old stitching, or the middle of a dart and its old fold.
    pub old: String,
    /// The new stitching.
    pub new: String,
    /// The cut line, if it is trimmed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cut: Option<String>,
    /// Each mark: x, y.
    pub dots: Vec<[f64; 2]>,
    /// What is at its left end: hem, point.
    pub from: String,
    /// What is at its right end.
    pub to: String,
    /// Which side and edge it is of; nothing where all are the same.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub of: Option<String>,
}

/// What is drawn together: one edge of one side.
pub(crate) struct Chalk<'a> {
    /// How long the seam or dart is.
    pub length: Length,
    /// The old fold of a dart; a seam's old stitching is the axis.
    pub old: Option<&'a Curve>,
    pub new: &'a Curve,
    pub cut: Option<Curve>,
    /// Which side and edge it is of; nothing where all are the same.
    pub of: Option<String>,
    /// What is at its two ends.
    pub ends: [&'a str; 2],
    /// What is chalked: station and offset.
    pub marks: Vec<(Length, Length)>,
}

/// Draws what is chalked; nothing where nothing changes.
pub(crate) fn chalk_drawing(drawn: &Chalk<'_>) -> Option<CardDrawing> {
    drawn.new.span()?;
    let length = drawn.length.cm();
    let curves = [Some(drawn.new), drawn.old, drawn.cut.as_ref()];
    let ranges = curves.into_iter().flatten().map(|c| c.range(0.0, length));
    // The old stitching is always in sight.
    let (low, high) = ranges.fold((0.0_f64, 0.0_f64), |(low, high), (l, h)| (low.min(l), high.max(h)));
    let across = (WIDTH - 2.0 * ROOM) / length;
    let sideways = (HIGH / (high - low).max(1.0)).min(STRETCH * across);
    let place = |s: f64, y: f64| Point::new(ROOM + s * across, ROOM + (high - y) * sideways);
    let mut old = BezPath::new();
    old.move_to(place(0.0, 0.0));
    old.line_to(place(length, 0.0));
    if let Some(fold) = drawn.old {
        old.extend(fold.path(place));
    }
    let dot = |(station, offset): &(Length, Length)| {
        let at = place(station.cm(), offset.cm());
        [hundredths(at.x), hundredths(at.y)]
    };
    Some(CardDrawing {
        width: WIDTH,
        height: hundredths((high - low) * sideways + 2.0 * ROOM),
        old: svg(&old),
        new: svg(&drawn.new.path(place)),
        cut: drawn.cut.as_ref().map(|c| svg(&c.path(place))),
        dots: drawn.marks.iter().map(dot).collect(),
        from: drawn.ends[0].into(),
        to: drawn.ends[1].into(),
        of: drawn.of.clone(),
    })
}
