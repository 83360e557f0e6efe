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
///
/// Written by hand in whole hundredths: printing the shortest decimal of every coordinate took most of a solve.
fn svg(path: &BezPath) -> String {
    let mut text = String::with_capacity(path.elements().len() * 24);
    for element in path.elements() {
        let (letter, points): (char, &[kurbo::Point]) = match element {
            kurbo::PathEl::MoveTo(p) => ('M', &[*p]),
            kurbo::PathEl::LineTo(p) => ('L', &[*p]),
            kurbo::PathEl::QuadTo(a, p) => ('Q', &[*a, *p]),
            kurbo::PathEl::CurveTo(a, b, p) => ('C', &[*a, *b, *p]),
            kurbo::PathEl::ClosePath => ('Z', &[]),
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
    let hundredths = (mm * 100.0).round() as i64;
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
