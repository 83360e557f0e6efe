//! Geometry to draw: the browser paints these paths and makes none of its own. All in mm.

mod stand;
mod strip;

pub use stand::{Part, Stand, StandLevel, View, ViewSide, stand};
pub use strip::{Strip, StripBlock, StripSide, strip};

use kurbo::BezPath;

/// Millimetres to a hundredth: finer than a screen or a printer shows.
fn hundredths(mm: f64) -> f64 {
    (mm * 100.0).round() / 100.0
}

/// A path as SVG path data, to a hundredth of a millimetre.
fn svg(path: BezPath) -> String {
    let round = |p: kurbo::Point| kurbo::Point::new(hundredths(p.x), hundredths(p.y));
    let elements = path.into_iter().map(|element| match element {
        kurbo::PathEl::MoveTo(p) => kurbo::PathEl::MoveTo(round(p)),
        kurbo::PathEl::LineTo(p) => kurbo::PathEl::LineTo(round(p)),
        kurbo::PathEl::QuadTo(a, p) => kurbo::PathEl::QuadTo(round(a), round(p)),
        kurbo::PathEl::CurveTo(a, b, p) => kurbo::PathEl::CurveTo(round(a), round(b), round(p)),
        kurbo::PathEl::ClosePath => kurbo::PathEl::ClosePath,
    });
    elements.collect::<BezPath>().to_svg()
}
