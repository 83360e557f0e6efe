//! SVG 2: a group is a piece, a path in it a line; groups that are called "notes" are not read.

use super::{Said, complaint, mm_of, no_unit};
use crate::document::Complaint;
use kurbo::{Affine, BezPath, Point, Shape};
use roxmltree::{Document, Node};
use std::str::FromStr;
use svgtypes::{Length, LengthUnit, PointsParser, Transform, ViewBox};
use vemble_core::length::Measure;
use vemble_core::pattern::{RawLine, RawPiece};

/// Groups lie so deep in each other at most.
const DEEP: usize = 32;
/// How exactly curves are drawn, in a file's units.
const EXACT: f64 = 1e-6;

/// Reads the groups of a drawing.
pub(super) fn read(file: &[u8], said: Said) -> Result<Vec<RawPiece>, Complaint> {
    let text = std::str::from_utf8(file).map_err(|_| complaint("file", "what is no text", "SVG in UTF-8"))?;
    let options = roxmltree::ParsingOptions { nodes_limit: 100_000, ..Default::default() };
    let document = Document::parse_with_options(text, options)
        .map_err(|error| complaint("file", error.to_string(), "SVG"))?;
    let root = document.root_element();
    if root.tag_name().name() != "svg" {
        return Err(complaint("file", format!("<{}>", root.tag_name().name()), "SVG"));
    }
    let mut pieces = Vec::new();
    collect(root, to_mm(root, said)?, 0, &mut pieces)?;
    Ok(pieces)
}

/// From what is written to mm, y up.
fn to_mm(root: Node<'_, '_>, said: Said) -> Result<Affine, Complaint> {
    let side = |name: &str| root.attribute(name).and_then(|text| Length::from_str(text).ok());
    let mm = |length: Length| match length.unit {
        LengthUnit::Mm => Some(length.number),
        LengthUnit::Cm => Some(length.number * 10.0),
        LengthUnit::In => Some(length.number * 25.4),
        LengthUnit::Pt => Some(length.number * 25.4 / 72.0),
        LengthUnit::Pc => Some(length.number * 25.4 / 6.0),
        // A pixel is a 96th of an inch by the standard, and was others before: the file does not say.
        LengthUnit::Px | LengthUnit::None | LengthUnit::Percent | LengthUnit::Em | LengthUnit::Ex => None,
    };
    let view = root.attribute("viewBox").and_then(|text| ViewBox::from_str(text).ok());
    let own = view.zip(side("width").and_then(mm)).zip(side("height").and_then(mm));
    let scale = match own {
        Some(((view, wide), tall)) => {
            let (across, up) = (wide / view.w, tall / view.h);
            if !(across > 0.0 && up > 0.0 && (across / up - 1.0).abs() < 0.01) {
                let found = "a drawing that is stretched: its width and its viewBox disagree with its height";
                return Err(complaint("file", found, "one scale for both"));
            }
            // The standard fits the whole of it in.
            across.min(up)
        }
        None => mm_of(said.unit.ok_or_else(no_unit)?),
    };
    Ok(Affine::scale_non_uniform(scale, -scale))
}

/// Every group with lines of its own.
fn collect(
    node: Node<'_, '_>,
    place: Affine,
    deep: usize,
    pieces: &mut Vec<RawPiece>,
) -> Result<(), Complaint> {
    if deep > DEEP {
        return Err(complaint("file", "groups too deep in each other", format!("{DEEP} at most")));
    }
    let says = name_of(node);
    if says.eq_ignore_ascii_case("notes") {
        return Ok(());
    }
    let place = place * own_place(node, &says)?;
    let cut = node.attribute("data-cut").and_then(|text| text.parse().ok());
    let mut piece = RawPiece { says, cut, lines: Vec::new(), outside: None };
    for child in node.children().filter(Node::is_element) {
        let name = name_of(child);
        if let Some(path) = path_of(child, &name)? {
            let read =
                |text: &str| Measure::read(text, None).map_err(|e| complaint(&name, text, e.expected()));
            let allowance = child.attribute("data-allowance").map(read).transpose()?;
            let path = place * own_place(child, &name)? * path;
            piece.lines.push(RawLine { says: name, path, allowance });
        }
    }
    if !piece.lines.is_empty() {
        pieces.push(piece);
    }
    for group in node.children().filter(|child| child.tag_name().name() == "g") {
        collect(group, place, deep + 1, pieces)?;
    }
    Ok(())
}

/// What is written as its title, its label, its name or its id.
fn name_of(node: Node<'_, '_>) -> String {
    let title =
        node.children().find(|child| child.tag_name().name() == "title").and_then(|title| title.text());
    let called = |wanted: &str| node.attributes().find(|a| a.name() == wanted).map(|a| a.value());
    let name = title.or_else(|| called("label")).or_else(|| called("data-name")).or_else(|| called("id"));
    name.unwrap_or_default().trim().to_owned()
}

fn own_place(node: Node<'_, '_>, name: &str) -> Result<Affine, Complaint> {
    let Some(text) = node.attribute("transform") else { return Ok(Affine::IDENTITY) };
    let Transform { a, b, c, d, e, f } = Transform::from_str(text)
        .map_err(|error| complaint(name, error.to_string(), "a transform of SVG"))?;
    Ok(Affine::new([a, b, c, d, e, f]))
}

/// The line that an element draws.
fn path_of(node: Node<'_, '_>, name: &str) -> Result<Option<BezPath>, Complaint> {
    let number = |name: &str| node.attribute(name).and_then(|text| text.parse::<f64>().ok()).unwrap_or(0.0);
    let points = |is_round: bool| {
        let mut path = BezPath::new();
        for (n, (x, y)) in PointsParser::from(node.attribute("points").unwrap_or_default()).enumerate() {
            if n == 0 { path.move_to((x, y)) } else { path.line_to((x, y)) }
        }
        if is_round && !path.is_empty() {
            path.close_path();
        }
        path
    };
    Ok(Some(match node.tag_name().name() {
        "path" => BezPath::from_svg(node.attribute("d").unwrap_or_default())
            .map_err(|error| complaint(name, error.to_string(), "path data of SVG"))?,
        "line" => {
            let mut path = BezPath::new();
            path.move_to(Point::new(number("x1"), number("y1")));
            path.line_to(Point::new(number("x2"), number("y2")));
            path
        }
        "rect" => {
            let from = Point::new(number("x"), number("y"));
            kurbo::Rect::from_origin_size(from, (number("width"), number("height"))).to_path(EXACT)
        }
        "polyline" => points(false),
        "polygon" => points(true),
        _ => return Ok(None),
    }))
}
