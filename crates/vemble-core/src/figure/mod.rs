//! Geometry to draw: the browser paints these paths and makes none of its own. All in mm.

mod body;
mod chalked;
mod closing;
mod detail;
mod drape;
mod drawing;
mod folds;
mod hanging;
mod hemline;
mod inside;
mod limb;
mod pose;
mod spot;
mod stand;
mod strip;
mod taking;
mod view;

#[cfg(test)]
mod tests;

pub use chalked::CardDrawing;
pub(crate) use chalked::{Chalk, chalk_drawing};
pub(crate) use detail::{edge_across, seam_line};
pub(crate) use drawing::{Drawing, on_side};
pub use folds::{place_spot, sign_picture};
pub(crate) use hanging::hanging_with;
pub use hanging::{Hanging, hanging};
pub(crate) use hemline::hem_figure;
pub use hemline::{Across, AcrossLine, HemFigure};
pub use inside::{finish_picture, hem_picture, turn_up_picture};
pub use spot::{OnSeam, Spot, spots};
pub(crate) use spot::{part_of, share_of};
pub use stand::{Moved, MovedLook, Part, Shade, Stand, StandChanges, StandLevel, View, ViewChanges, stand};
pub(crate) use stand::{OnStand, stand_changes};
pub use strip::{Strip, StripBlock, StripLevel, StripLines, StripSide};
pub(crate) use strip::{curve_path, mm, strip_sides};
pub use taking::{body_picture, taking_picture};
pub(crate) use view::Half;
pub use view::{Look, ViewSide};

use crate::change::Curve;
use kurbo::{BezPath, PathEl, Point};
use pose::Pose;
use serde::Serialize;
use utoipa::ToSchema;

/// A small drawing that explains: strokes and fills in a box, in mm.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Picture {
    /// Left, top, width and height of the box.
    pub view: [f64; 4],
    /// What is painted, back to front.
    pub strokes: Vec<Stroke>,
}

/// One line or shape of a picture.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Stroke {
    /// What it stands for; says how it is painted.
    pub ink: Ink,
    /// SVG path data.
    pub path: String,
}

/// What a stroke stands for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Ink {
    /// The body.
    Body,
    /// Cloth, as a surface.
    Cloth,
    /// Cloth, seen from its edge.
    Edge,
    /// A row of stitching.
    Stitching,
    /// What one measures or looks at.
    Tape,
    /// A line as it is.
    Before,
    /// A line as it will be.
    After,
    /// What the cloth does where it does not fit.
    Fold,
}

/// From heights above the floor in cm to a drawing in mm, y down from the top; seen from behind and from the side the
/// wearer's left is on the left.
pub(crate) struct Canvas {
    top: f64,
    flipped: bool,
}

impl Canvas {
    fn point(&self, p: Point) -> Point {
        let x = if self.flipped { -p.x } else { p.x };
        // To a tenth of a millimetre: a whole figure is some 1 700 of them high.
        Point::new((x * 100.0).round() / 10.0, ((self.top - p.y) * 100.0).round() / 10.0)
    }

    pub fn place(&self, path: &BezPath) -> BezPath {
        mapped(path, |p| self.point(p))
    }
}

fn mapped(path: &BezPath, place: impl Fn(Point) -> Point) -> BezPath {
    path.elements()
        .iter()
        .map(|element| match *element {
            PathEl::MoveTo(p) => PathEl::MoveTo(place(p)),
            PathEl::LineTo(p) => PathEl::LineTo(place(p)),
            PathEl::QuadTo(a, p) => PathEl::QuadTo(place(a), place(p)),
            PathEl::CurveTo(a, b, p) => PathEl::CurveTo(place(a), place(b), place(p)),
            PathEl::ClosePath => PathEl::ClosePath,
        })
        .collect()
}

/// The same on the wearer's other side.
fn mirrored(path: &BezPath) -> BezPath {
    mapped(path, |p| Point::new(-p.x, p.y))
}

/// Goes on with another path, with a straight line between the two.
fn append(path: &mut BezPath, more: &BezPath) {
    for element in more.elements() {
        match *element {
            PathEl::MoveTo(p) if path.elements().is_empty() => path.move_to(p),
            PathEl::MoveTo(p) => path.line_to(p),
            other @ (PathEl::LineTo(_) | PathEl::QuadTo(..) | PathEl::CurveTo(..) | PathEl::ClosePath) => {
                path.push(other);
            }
        }
    }
}

/// Goes on along a curve over the height, to its upper or its lower end.
fn follow(path: &mut BezPath, curve: &Curve, upwards: bool) {
    let up = curve.path(|height, x| Point::new(x, height));
    append(path, &if upwards { up } else { up.reverse_subpaths() });
}

/// Goes on smoothly through points (Catmull and Rom 1974, as cubics).
fn smooth_through(path: &mut BezPath, points: &[Point]) {
    let Some(&first) = points.first() else { return };
    path.line_to(first);
    let at = |i: usize| points[i.min(points.len() - 1)];
    for i in 0..points.len() - 1 {
        let (before, a, b, after) = (at(i.saturating_sub(1)), at(i), at(i + 1), at(i + 2));
        path.curve_to(a + (b - before) / 6.0, b - (after - a) / 6.0, b);
    }
}

fn line(from: impl Into<Point>, to: impl Into<Point>) -> BezPath {
    let mut path = BezPath::new();
    path.move_to(from);
    path.line_to(to);
    path
}

pub(crate) fn polygon(points: &[Point]) -> BezPath {
    let mut path = BezPath::new();
    for (n, point) in points.iter().enumerate() {
        if n == 0 {
            path.move_to(*point);
        } else {
            path.line_to(*point);
        }
    }
    path.close_path();
    path
}

/// An arm or sleeve from the side, hanging from the shoulder with the elbow a little bent; girths by share of `length`.
fn side_limb(pose: &Pose<'_>, length: f64, girths: &[(f64, f64)]) -> BezPath {
    let top = pose.body.up(crate::body::Landmark::ShoulderTip);
    let start = pose.middle(top);
    // The forearm comes forward by a tenth of its length.
    let middle = |share: f64| start - 0.6 + 5.0 * (share - 0.45).max(0.0);
    let edge = |side: f64| -> Vec<Point> {
        girths
            .iter()
            .map(|&(share, girth)| {
                Point::new(middle(share) + side * Pose::half_limb(girth), top - share * length)
            })
            .collect()
    };
    let (front, mut back) = (edge(1.0), edge(-1.0));
    back.reverse();
    let mut path = BezPath::new();
    path.move_to(front[0]);
    smooth_through(&mut path, &front);
    smooth_through(&mut path, &back);
    let half = Pose::half_limb(girths[0].1);
    path.curve_to((back[back.len() - 1].x, top + half), (front[0].x, top + half), (front[0].x, front[0].y));
    path.close_path();
    path
}

/// Millimetres to a hundredth: finer than a screen or a printer shows.
pub(crate) fn hundredths(mm: f64) -> f64 {
    (mm * 100.0).round() / 100.0
}

/// A path as SVG path data, to a hundredth of a millimetre.
///
/// Written by hand in whole hundredths: printing the shortest decimal of every coordinate took most of a solve.
pub(crate) fn svg(path: &BezPath) -> String {
    let mut text = String::with_capacity(path.elements().len() * 24);
    for element in path.elements() {
        let (letter, points): (char, &[Point]) = match element {
            PathEl::MoveTo(p) => ('M', &[*p]),
            PathEl::LineTo(p) => ('L', &[*p]),
            PathEl::QuadTo(a, p) => ('Q', &[*a, *p]),
            PathEl::CurveTo(a, b, p) => ('C', &[*a, *b, *p]),
            PathEl::ClosePath => ('Z', &[]),
        };
        text.push(letter);
        for (n, point) in points.iter().enumerate() {
            if n > 0 {
                text.push(' ');
            }
            push_hundredths(&mut text, point.x);
            text.push(',');
            push_hundredths(&mut text, point.y);
        }
    }
    text
}

fn push_hundredths(text: &mut String, mm: f64) {
    // Ties go away from zero; what does not fit is cut off by the cast.
    let hundredths = (mm * 100.0 + 0.5_f64.copysign(mm)) as i64;
    if hundredths < 0 {
        text.push('-');
    }
    let (whole, rest) = (hundredths.unsigned_abs() / 100, hundredths.unsigned_abs() % 100);
    text.push_str(itoa::Buffer::new().format(whole));
    if rest > 0 {
        text.push('.');
        text.push(char::from(b'0' + (rest / 10) as u8));
        if rest % 10 > 0 {
            text.push(char::from(b'0' + (rest % 10) as u8));
        }
    }
}
