//! A wearer from the front, from the waist down, in shoes on the floor: where an edge hangs, where it will, and the places of the body that a
//! length is measured from.

use super::pose::Pose;
use super::view::ViewSide;
use super::{Canvas, hundredths, svg};
use crate::body::{BodyMeasurement, Landmark, Proportions, Wearer};
use crate::choice::choice;
use kurbo::{BezPath, Rect, Shape};
use serde::Serialize;
use utoipa::ToSchema;

choice! {
    /// What a line across the figure is.
    Across {
        Floor => "floor",
        Place => "a place of the body",
        Now => "now",
        New => "after",
    }
}

/// A line across the figure.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct AcrossLine {
    /// What it is.
    pub is: Across,
    /// Its name, with how high above the floor it is where that is known.
    pub name: String,
    /// Where it lies, in millimetres down from the top of the head.
    pub y_mm: f64,
}

/// The figure below the waist, in millimetres.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct HemFigure {
    /// What is seen of it: left, top, width and height.
    pub view: [f64; 4],
    /// The body, and under its feet the shoes.
    pub body: Vec<String>,
    /// The shoes.
    pub shoes: String,
    /// Lines across it, from the top down.
    pub lines: Vec<AcrossLine>,
}

/// Draws the lower half of a wearer in heels so high (cm), with lines so high above the naked foot (cm).
pub(crate) fn hem_figure(wearer: &Wearer, heel: f64, lines: Vec<(Across, String, f64)>) -> HemFigure {
    let pose = Pose::of(Proportions::of(wearer));
    let body = &pose.body;
    let top = body.height();
    let canvas = Canvas { top, flipped: false };
    let mut shoes = BezPath::new();
    let middle = pose.leg_middle(body.up(Landmark::Ankle), body.cm(BodyMeasurement::ThighGirth));
    for x in [-middle, middle] {
        shoes.extend(Rect::new(x - 4.2, -heel - 1.0, x + 4.2, 1.6).to_path(0.1));
    }
    let y_mm = |up: f64| hundredths((top - up) * 10.0);
    let floor = -heel - 1.0;
    let mut lines: Vec<AcrossLine> = lines
        .into_iter()
        .chain([(Across::Floor, Across::Floor.name().to_owned(), floor)])
        .map(|(is, name, up)| AcrossLine { is, name, y_mm: y_mm(up) })
        .collect();
    lines.sort_by(|a, b| a.y_mm.total_cmp(&b.y_mm));
    let from = y_mm(body.up(Landmark::Waist) + 6.0);
    let half = pose.half_width(body.up(Landmark::Hip), body.cm(BodyMeasurement::HipGirth)) * 10.0 + 90.0;
    HemFigure {
        view: [
            hundredths(-half),
            from,
            hundredths(2.0 * half + 420.0),
            hundredths(y_mm(floor) - from + 30.0),
        ],
        body: super::body::body(&pose, ViewSide::Front, &canvas).iter().map(svg).collect(),
        shoes: svg(&canvas.place(&shoes)),
        lines,
    }
}
