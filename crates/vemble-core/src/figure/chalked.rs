//! The small drawing of a chalk card: one edge of one side, station to the right, offset upwards, sideways stretched.

use super::{hundredths, svg};
use crate::alteration::AlteredDart;
use crate::fitting::GarmentSide;
use crate::length::Figure;
use crate::line::{AlteredSeam, Curve};
use crate::solve::{MarkResult, MarkSide, SolvedSeam};
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

/// What is drawn together.
struct Drawn<'a> {
    length: f64,
    old: Option<&'a Curve>,
    new: &'a Curve,
    cut: Option<Curve>,
    of: Option<String>,
}

/// The drawings of a seam: one, or one for each side and edge that differs.
pub(crate) fn seam_drawings(
    seam: &AlteredSeam<'_>,
    solved: &SolvedSeam,
    marks: &[MarkResult],
) -> Vec<CardDrawing> {
    let mut drawings = Vec::new();
    for side in sides(solved) {
        let line = seam.line(*side);
        let edges = [&line.front, &line.back].into_iter().zip(seam.facts.seam.edges());
        for (edge, (curve, name)) in edges.enumerate().take(if solved.edges_equal { 1 } else { 2 }) {
            let of: Vec<String> = [
                (!solved.sides_agree).then(|| format!("garment’s {}", side.name())),
                (!solved.edges_equal).then(|| format!("{name} edge")),
            ]
            .into_iter()
            .flatten()
            .collect();
            let drawn = Drawn {
                length: seam.facts.length.length.cm(),
                old: None,
                new: curve,
                cut: seam.alteration.trim_to.map(|w| curve.shifted(-w.length.cm())),
                of: (!of.is_empty()).then(|| of.join(", ")),
            };
            let figure = |m: &MarkSide| if edge == 0 { m.front } else { m.back };
            drawings.extend(drawing(&drawn, solved, marks, *side, figure));
        }
    }
    drawings
}

/// The drawings of a pair of darts: one, or one for each side.
pub(crate) fn dart_drawings(
    dart: &AlteredDart<'_>,
    solved: &SolvedSeam,
    marks: &[MarkResult],
) -> Vec<CardDrawing> {
    let of_side = |side: &GarmentSide| {
        let drawn = Drawn {
            length: dart.length.cm(),
            old: Some(&dart.old),
            new: &dart.new[*side as usize],
            cut: None,
            of: (!solved.sides_agree).then(|| format!("garment’s {}", side.name())),
        };
        drawing(&drawn, solved, marks, *side, |m| m.front)
    };
    sides(solved).iter().filter_map(of_side).collect()
}

fn sides(solved: &SolvedSeam) -> &'static [GarmentSide] {
    if solved.sides_agree { &GarmentSide::BOTH[..1] } else { &GarmentSide::BOTH }
}

fn drawing(
    drawn: &Drawn<'_>,
    solved: &SolvedSeam,
    marks: &[MarkResult],
    side: GarmentSide,
    figure: impl Fn(&MarkSide) -> Figure,
) -> Option<CardDrawing> {
    drawn.new.span()?;
    let curves = [Some(drawn.new), drawn.old, drawn.cut.as_ref()];
    let ranges = curves.into_iter().flatten().map(|c| c.range(0.0, drawn.length));
    // The old stitching is always in sight.
    let (low, high) = ranges.fold((0.0_f64, 0.0_f64), |(low, high), (l, h)| (low.min(l), high.max(h)));
    let across = (WIDTH - 2.0 * ROOM) / drawn.length;
    let sideways = (HIGH / (high - low).max(1.0)).min(STRETCH * across);
    let place = |s: f64, y: f64| Point::new(ROOM + s * across, ROOM + (high - y) * sideways);
    let mut old = BezPath::new();
    old.move_to(place(0.0, 0.0));
    old.line_to(place(drawn.length, 0.0));
    if let Some(fold) = drawn.old {
        old.extend(fold.path(place));
    }
    let dot = |mark: &MarkResult| {
        let of_side = if side == GarmentSide::Left { &mark.left } else { &mark.right };
        let at = place(mark.station.nm as f64 / 1e7, figure(of_side.as_ref()?).nm as f64 / 1e7);
        Some([hundredths(at.x), hundredths(at.y)])
    };
    Some(CardDrawing {
        width: WIDTH,
        height: hundredths((high - low) * sideways + 2.0 * ROOM),
        old: svg(&old),
        new: svg(&drawn.new.path(place)),
        cut: drawn.cut.as_ref().map(|c| svg(&c.path(place))),
        dots: marks.iter().filter_map(dot).collect(),
        from: solved.datum.clone(),
        to: solved.top.clone(),
        of: drawn.of.clone(),
    })
}
