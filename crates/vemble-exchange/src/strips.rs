//! What is chalked, at true size: SVG and DXF here, tiled pages in `pdf/tiles`. All in mm.

use dxf::entities::{Entity, EntityType, LwPolyline, Text};
use dxf::enums::{AcadVersion, Units};
use dxf::tables::Layer;
use dxf::{Drawing, LwPolylineVertex};
use kurbo::{Affine, BezPath, PathEl, Point, Rect, Shape};
use std::fmt::Write;
use vemble_core::change::ChangeKey;
use vemble_core::paper::{NamedLine, NamedPiece, PaperInk, PaperSheet, sheets};
use vemble_core::solve::Solved;

/// Sheets lie so far apart, and so far from the edge of what is drawn.
const APART: f64 = 18.0;
/// Squares to measure the print by, 5 cm and 2 in, lie side by side above everything.
const SQUARES: [f64; 2] = [50.0, 50.8];
/// A curve is flattened to so many mm: a tenth of what a tape shows.
const FLAT: f64 = 0.01;
const LETTERS: f64 = 4.5;

/// Why there is no file.
#[derive(Debug, thiserror::Error)]
pub enum StripsError {
    /// Nothing has a shape of its own.
    #[error("nothing of it has a line to print at true size")]
    Nothing,
    /// What the writer reports.
    #[error("it could not be written: {0}")]
    Write(String),
}

/// Everything of one file, laid out on one plane: the squares, then the sheets in columns.
pub struct Laid {
    /// Lines, with what they are; nothing of a test square.
    pub lines: Vec<(Option<PaperInk>, BezPath)>,
    /// Words, with where they begin.
    pub words: Vec<(Point, String)>,
    /// Pieces line by line, by name.
    pub pieces: Vec<NamedPiece>,
    /// The box of all of it.
    pub bounds: Rect,
}

/// Lays out the sheets of all changes, or of the one with a key.
///
/// # Errors
/// Where none of them has any.
pub fn laid(solved: &Solved, key: Option<ChangeKey>) -> Result<Laid, StripsError> {
    let changes = solved.try_ons.iter().flat_map(|try_on| &try_on.changes);
    let wanted = changes.filter(|change| change.has_card && key.is_none_or(|key| key == change.key));
    laid_out(wanted.flat_map(sheets).collect())
}

/// A column of sheets is no higher than so many mm, but for one sheet (teaching value: what can be looked at on one table).
const COLUMN: f64 = 3000.0;

/// Lays out sheets, one below the other, in columns.
///
/// # Errors
/// Where there are none.
pub fn laid_out(all: Vec<PaperSheet>) -> Result<Laid, StripsError> {
    if all.is_empty() {
        return Err(StripsError::Nothing);
    }
    let (mut lines, mut words, mut pieces) = (Vec::new(), Vec::new(), Vec::new());
    let mut x = 0.0;
    for (side, says) in SQUARES.into_iter().zip(["5 cm", "2 in"]) {
        lines.push((None, Rect::new(x, 0.0, x + side, side).to_path(FLAT)));
        words.push((Point::new(x + 3.0, side / 2.0), format!("{says}: measure it")));
        x += side + APART;
    }
    let first = SQUARES[1] + APART;
    let (mut y, mut column, mut widest) = (first, 0.0, x);
    for sheet in all {
        let own = sheet.bounds();
        if y > first && y + own.height() > COLUMN {
            (y, column, widest) = (first, column + widest + APART, 0.0);
        }
        widest = own.width().max(widest);
        words.push((Point::new(column, y), sheet.title));
        let place = Affine::translate((column - own.x0, y + APART - own.y0));
        lines.extend(sheet.lines.into_iter().map(|(ink, path)| (Some(ink), place * path)));
        words.extend(sheet.words.into_iter().map(|(at, says)| (place * at, says)));
        pieces.extend(sheet.piece.map(|piece| {
            let laid = |line: NamedLine| NamedLine { path: place * line.path, ..line };
            NamedPiece { lines: piece.lines.into_iter().map(laid).collect(), ..piece }
        }));
        y += own.height() + 2.0 * APART;
    }
    let drawn =
        lines.iter().map(|(_, path)| path.bounding_box()).reduce(|a, b| a.union(b)).unwrap_or_default();
    Ok(Laid { lines, words, pieces, bounds: drawn.inflate(APART / 2.0, APART / 2.0) })
}

/// As SVG whose millimetres are millimetres.
///
/// # Errors
/// Where nothing has a line.
pub fn strips_svg(solved: &Solved, key: Option<ChangeKey>) -> Result<String, StripsError> {
    Ok(as_svg(&laid(solved, key)?))
}

/// What is laid out, as SVG whose millimetres are millimetres.
pub fn as_svg(Laid { lines, words, pieces, bounds }: &Laid) -> String {
    let mut svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{w:.2}mm\" height=\"{h:.2}mm\" viewBox=\"{x:.2} {y:.2} {w:.2} {h:.2}\" fill=\"none\" stroke=\"#000\">\n",
        x = bounds.x0,
        y = bounds.y0,
        w = bounds.width(),
        h = bounds.height()
    );
    // Pieces by the names that they are read by again; everything beside them is for people.
    for piece in pieces {
        let _ = writeln!(svg, " <g data-cut=\"{}\">\n  <title>{}</title>", piece.cut, escaped(&piece.name));
        for line in &piece.lines {
            let outside = line.allowance.map_or_else(String::new, |a| format!(" data-allowance=\"{a}\""));
            let (class, look) = if line.allowance.is_some() { ("new", "0.6") } else { ("mark", "0.3") };
            let _ = writeln!(
                svg,
                "  <path class=\"{class}\" data-name=\"{}\"{outside} stroke-width=\"{look}\" d=\"{}\"/>",
                escaped(&line.name),
                line.path.to_svg()
            );
        }
        svg.push_str(" </g>\n");
    }
    svg.push_str(" <g>\n  <title>notes</title>\n");
    let is_drawn = |ink: &Option<PaperInk>| !pieces.is_empty() && *ink == Some(PaperInk::New);
    for (ink, path) in lines.iter().filter(|(ink, _)| !is_drawn(ink)) {
        let (name, look) = match ink {
            Some(PaperInk::Old) => ("old", "stroke-width=\"0.4\" stroke-dasharray=\"3 2\""),
            Some(PaperInk::New) => ("new", "stroke-width=\"0.6\""),
            Some(PaperInk::Cut) => ("cut", "stroke-width=\"0.35\" stroke-dasharray=\"9 3\""),
            Some(PaperInk::Mark) => ("mark", "stroke-width=\"0.3\""),
            None => ("test-square", "stroke-width=\"0.3\""),
        };
        let _ = writeln!(svg, "  <path class=\"{name}\" {look} d=\"{}\"/>", path.to_svg());
    }
    for (at, says) in words {
        let escaped = escaped(says);
        let _ = writeln!(
            svg,
            "  <text x=\"{:.2}\" y=\"{:.2}\" font-family=\"serif\" font-size=\"{LETTERS}\" fill=\"#000\" stroke=\"none\">{escaped}</text>",
            at.x, at.y
        );
    }
    svg.push_str(" </g>\n</svg>\n");
    svg
}

fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('"', "&quot;")
}

/// As DXF in mm, on the layers of ASTM D6673: 8 what was sewn, 14 the sew line, 11 what is cut, 4 marks, 1 the test squares.
///
/// # Errors
/// Where nothing has a line; otherwise what the writer reports.
pub fn strips_dxf(solved: &Solved, key: Option<ChangeKey>) -> Result<Vec<u8>, StripsError> {
    as_dxf(laid(solved, key)?)
}

/// An empty drawing in mm with these layers.
pub(crate) fn metric<const N: usize>(layers: [&str; N]) -> Drawing {
    let mut drawing = Drawing::new();
    drawing.header.version = AcadVersion::R2000;
    drawing.header.default_drawing_units = Units::Millimeters;
    for name in layers {
        drawing.add_layer(Layer { name: name.into(), ..Layer::default() });
    }
    drawing
}

/// A drawing as its file.
pub(crate) fn saved(drawing: &Drawing) -> Result<Vec<u8>, StripsError> {
    let mut bytes = Vec::new();
    drawing.save(&mut bytes).map_err(|e| StripsError::Write(e.to_string()))?;
    Ok(bytes)
}

/// What is laid out, as DXF in mm.
fn as_dxf(Laid { lines, words, .. }: Laid) -> Result<Vec<u8>, StripsError> {
    let mut drawing = metric(["1", "4", "8", "11", "14"]);
    let mut add = |layer: &str, kind: EntityType| {
        let mut entity = Entity::new(kind);
        entity.common.layer = layer.into();
        drawing.add_entity(entity);
    };
    for (ink, path) in &lines {
        let layer = match ink {
            Some(PaperInk::Old) => "8",
            Some(PaperInk::New) => "14",
            Some(PaperInk::Cut) => "11",
            Some(PaperInk::Mark) => "4",
            None => "1",
        };
        for points in flattened(path) {
            // Upwards there.
            let vertex = |p: &Point| LwPolylineVertex { x: p.x, y: -p.y, ..LwPolylineVertex::default() };
            let vertices = points.iter().map(vertex).collect();
            add(layer, EntityType::LwPolyline(LwPolyline { vertices, ..LwPolyline::default() }));
        }
    }
    for (at, says) in words {
        let location = dxf::Point::new(at.x, -at.y, 0.0);
        add("8", EntityType::Text(Text { location, text_height: LETTERS, value: says, ..Text::default() }));
    }
    saved(&drawing)
}

/// Every stroke of a path as points.
pub(crate) fn flattened(path: &BezPath) -> Vec<Vec<Point>> {
    let mut strokes: Vec<Vec<Point>> = Vec::new();
    kurbo::flatten(path, FLAT, |element| match element {
        PathEl::MoveTo(p) => strokes.push(vec![p]),
        PathEl::LineTo(p) => {
            if let Some(stroke) = strokes.last_mut() {
                stroke.push(p);
            }
        }
        PathEl::ClosePath => {
            if let Some(stroke) = strokes.last_mut()
                && let Some(first) = stroke.first().copied()
            {
                stroke.push(first);
            }
        }
        PathEl::QuadTo(..) | PathEl::CurveTo(..) => {}
    });
    strokes
}
