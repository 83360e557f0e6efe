//! DXF by ASTM D6673: a block is a piece; 1 what is cut, 4 notches, 7 grain, 8 lines inside, 13 drill holes, 14 what is sewn, 15 words. Words beside a line
//! name it.

use super::{Said, complaint, mm_of, no_unit};
use crate::document::Complaint;
use crate::strips::{StripsError, flattened, metric, saved};
use dxf::entities::{Entity, EntityType, Insert, Line, LwPolyline, ModelPoint, Text, Vertex};
use dxf::enums::Units;
use dxf::{Block, Drawing, LwPolylineVertex};
use kurbo::{Affine, BezPath, ParamCurveNearest, Point, Shape};
use vemble_core::length::{Measure, Unit};
use vemble_core::paper::{PaperInk, PaperSheet};
use vemble_core::pattern::{RawLine, RawPiece};

const CUT: &str = "1";
const NOTCH: &str = "4";
const GRAIN: &str = "7";
const INSIDE: &str = "8";
const DRILL: &str = "13";
const SEWN: &str = "14";
const WORDS: &str = "15";
/// Words name a line that passes them so near, in mm.
const BESIDE: f64 = 1.0;
/// How exactly arcs are drawn, in a file's units.
const EXACT: f64 = 1e-6;
/// So tall are words, in mm.
const LETTERS: f64 = 4.5;

/// Writes pieces, each a block.
///
/// # Errors
/// Where there are none; otherwise what the writer reports.
pub fn pieces_dxf(sheets: &[PaperSheet]) -> Result<Vec<u8>, StripsError> {
    if sheets.is_empty() {
        return Err(StripsError::Nothing);
    }
    let mut drawing = metric([CUT, NOTCH, GRAIN, INSIDE, DRILL, SEWN, WORDS]);
    let mut y = 0.0;
    for sheet in sheets {
        let mut block = Block { name: sheet.title.clone(), ..Block::default() };
        let mut add = |layer: &str, kind| block.entities.push(entity(layer, kind));
        for (_, path) in sheet.lines.iter().filter(|(ink, _)| *ink == PaperInk::Cut) {
            polylines(path).for_each(|line| add(CUT, line));
        }
        let corner = sheet.bounds().center();
        if let Some(piece) = &sheet.piece {
            add(WORDS, text(corner, format!("Piece Name: {}", piece.name)));
            let below = Point::new(corner.x, corner.y + 2.0 * LETTERS);
            add(WORDS, text(below, format!("Quantity: {}", piece.cut)));
            for line in &piece.lines {
                let first =
                    line.path.elements().first().and_then(kurbo::PathEl::end_point).unwrap_or_default();
                let layer = layer_of(&line.name);
                if layer == DRILL {
                    let location = dxf::Point::new(first.x, -first.y, 0.0);
                    add(DRILL, EntityType::ModelPoint(ModelPoint { location, ..ModelPoint::default() }));
                    continue;
                }
                polylines(&line.path).for_each(|line| add(layer, line));
                let at = if layer == SEWN { middle_of(&line.path) } else { first };
                let says = match line.allowance {
                    Some(allowance) => format!("{}; {allowance}", line.name),
                    None => line.name.clone(),
                };
                add(WORDS, text(at, says));
            }
        }
        let location = dxf::Point::new(0.0, -y, 0.0);
        let insert = Insert { name: sheet.title.clone(), location, ..Insert::default() };
        y += sheet.bounds().height() + 50.0;
        drawing.add_block(block);
        drawing.add_entity(entity(CUT, EntityType::Insert(insert)));
    }
    drawing.add_entity(entity(WORDS, text(Point::new(0.0, -50.0), "Units: METRIC".into())));
    saved(&drawing)
}

fn entity(layer: &str, kind: EntityType) -> Entity {
    let mut entity = Entity::new(kind);
    entity.common.layer = layer.into();
    entity
}

/// The layer of a line by its name.
fn layer_of(name: &str) -> &'static str {
    match name.split(':').next().unwrap_or_default() {
        "notch" => NOTCH,
        "grain" => GRAIN,
        "dart" | "level" => INSIDE,
        "drill" => DRILL,
        _ => SEWN,
    }
}

/// Words; upwards there.
fn text(at: Point, value: String) -> EntityType {
    let location = dxf::Point::new(at.x, -at.y, 0.0);
    EntityType::Text(Text { location, text_height: LETTERS, value, ..Text::default() })
}

fn polylines(path: &BezPath) -> impl Iterator<Item = EntityType> {
    let vertex = |p: &Point| LwPolylineVertex { x: p.x, y: -p.y, ..LwPolylineVertex::default() };
    flattened(path).into_iter().map(move |points| {
        let vertices = points.iter().map(vertex).collect();
        EntityType::LwPolyline(LwPolyline { vertices, ..LwPolyline::default() })
    })
}

/// A point on a line, halfway through its points.
fn middle_of(path: &BezPath) -> Point {
    let points = flattened(path).concat();
    match points.len() {
        0 => Point::ZERO,
        2 => points[0].midpoint(points[1]),
        count => points[count / 2],
    }
}

/// Reads the blocks of a drawing.
pub(super) fn read(file: &[u8], said: Said) -> Result<Vec<RawPiece>, Complaint> {
    let drawing = Drawing::load(&mut &*file).map_err(|error| {
        // It may quote what is no text.
        let readable: String = error.to_string().chars().filter(|c| !c.is_control()).take(80).collect();
        complaint("file", readable, "DXF")
    })?;
    let blocks: Vec<&Block> = drawing.blocks().filter(|block| !block.name.starts_with('*')).collect();
    let all = drawing.entities().chain(blocks.iter().flat_map(|block| &block.entities));
    let says = all.filter_map(|entity| words_of(entity).map(|(_, text)| text.to_lowercase()));
    let named = says.filter_map(|text| text.strip_prefix("units:").map(|unit| unit.trim().to_owned()));
    let own = named.into_iter().find_map(|unit| match &*unit {
        "metric" => Some(Unit::Mm),
        "english" => Some(Unit::In),
        _ => None,
    });
    let header = match drawing.header.default_drawing_units {
        Units::Millimeters => Some(Unit::Mm),
        Units::Centimeters => Some(Unit::Cm),
        Units::Inches => Some(Unit::In),
        _ => None,
    };
    let scale = mm_of(own.or(header).or(said.unit).ok_or_else(no_unit)?);
    blocks
        .into_iter()
        .filter(|block| !block.entities.is_empty())
        .map(|block| piece(block, scale, said))
        .collect()
}

fn piece(block: &Block, scale: f64, said: Said) -> Result<RawPiece, Complaint> {
    let place = Affine::scale(scale);
    let words: Vec<(Point, &str)> =
        block.entities.iter().filter_map(words_of).map(|(at, text)| (place * at, text)).collect();
    let told = |key: &str| {
        words.iter().find_map(|(_, text)| {
            let (name, value) = text.split_once(':')?;
            name.trim().eq_ignore_ascii_case(key).then(|| value.trim().to_owned())
        })
    };
    let on = |layer: &'static str| -> Result<Vec<BezPath>, Complaint> {
        let own = block.entities.iter().filter(move |entity| entity.common.layer == layer);
        let paths = own.filter_map(|entity| path_of(entity).transpose());
        paths.map(|path| path.map(|path| place * path).map_err(|no| unread(block, no))).collect()
    };
    // Words are of the layer of what they begin with: those of a level stand on an edge too.
    let beside = |path: &BezPath, layer: &str| {
        let near = |at: Point| {
            let off = path.segments().map(|segment| segment.nearest(at, 1e-3).distance_sq);
            off.fold(f64::INFINITY, f64::min).sqrt()
        };
        let is_told = |text: &str| text.starts_with("Piece Name:") || text.starts_with("Quantity:");
        let own = words.iter().filter(|(_, text)| !is_told(text) && layer_of(text) == layer);
        let nearest = own.map(|(at, text)| (near(*at), *text)).min_by(|a, b| a.0.total_cmp(&b.0));
        nearest.filter(|(off, _)| *off <= BESIDE).map_or("", |(_, text)| text)
    };
    let says = told("piece name").unwrap_or_else(|| block.name.clone());
    let mut lines: Vec<RawLine> = Vec::new();
    for path in on(SEWN)? {
        let (name, allowance) = beside(&path, SEWN).split_once(';').unwrap_or((beside(&path, SEWN), ""));
        let read = |text: &str| Measure::read(text, None).map_err(|e| complaint(&says, text, e.expected()));
        let allowance = Some(allowance.trim()).filter(|text| !text.is_empty()).map(read).transpose()?;
        lines.push(RawLine { says: name.trim().to_owned(), path, allowance });
    }
    let mut outside = None;
    if lines.is_empty() {
        let open = || {
            let found = "lines to cut along, and none to sew along";
            complaint("allowance", found, "how much of it is allowance, per edge: 0 where there is none")
        };
        let cut = on(CUT)?;
        if !cut.is_empty() {
            outside = Some(said.allowance.ok_or_else(open)?);
        }
        lines.extend(cut.into_iter().map(|path| RawLine { says: String::new(), path, allowance: outside }));
    }
    let marked = |layer, name: &str| {
        let own = on(layer)?.into_iter().filter_map(|path| {
            let says = beside(&path, layer);
            let says = if says.is_empty() { name } else { says };
            (!says.is_empty()).then(|| RawLine { says: says.to_owned(), path, allowance: None })
        });
        Ok(own.collect::<Vec<_>>())
    };
    lines.extend(marked(NOTCH, "notch")?);
    // Its words may stand beside the line of something else.
    let grains = on(GRAIN)?.into_iter();
    lines.extend(grains.map(|path| RawLine { says: "grain".into(), path, allowance: None }));
    let inside = marked(INSIDE, "")?.into_iter();
    lines.extend(inside.filter(|line| line.says.starts_with("dart:") || line.says.starts_with("level:")));
    // A hole is a point, or a small circle.
    let holes = block.entities.iter().filter(|entity| entity.common.layer == DRILL);
    let centres = holes.filter_map(|entity| match &entity.specific {
        EntityType::ModelPoint(point) => Some(&point.location),
        EntityType::Circle(circle) => Some(&circle.center),
        _ => None,
    });
    lines.extend(centres.map(|at| {
        let at = place * Point::new(at.x, at.y);
        let path = kurbo::Line::new(at, Point::new(at.x + 1.0, at.y)).to_path(0.1);
        RawLine { says: "drill".into(), path, allowance: None }
    }));
    let cut = told("quantity").and_then(|text| text.split([',', ' ']).next().and_then(|n| n.parse().ok()));
    Ok(RawPiece { says, cut, lines, outside })
}

fn words_of(entity: &Entity) -> Option<(Point, &str)> {
    match &entity.specific {
        EntityType::Text(text) => Some((Point::new(text.location.x, text.location.y), text.value.trim())),
        _ => None,
    }
}

/// What is drawn with something else than lines and arcs.
fn unread(block: &Block, found: &str) -> Complaint {
    complaint(&block.name, found, "polylines, lines or arcs")
}

/// The line that an entity draws; nothing of words.
///
/// # Errors
/// Its kind, where it draws another line than can be read.
fn path_of(entity: &Entity) -> Result<Option<BezPath>, &'static str> {
    // Between two points of a polyline there may be an arc.
    let (points, is_round): (Vec<(Point, f64)>, bool) = match &entity.specific {
        EntityType::LwPolyline(line) => {
            (line.vertices.iter().map(|v| (Point::new(v.x, v.y), v.bulge)).collect(), line.is_closed())
        }
        EntityType::Polyline(line) if line.spline_fit_vertices_added() => {
            return Err("a polyline with a spline");
        }
        EntityType::Polyline(line) => {
            let at = |v: &Vertex| (Point::new(v.location.x, v.location.y), v.bulge);
            (line.vertices().map(at).collect(), line.is_closed())
        }
        EntityType::Line(Line { p1, p2, .. }) => {
            (vec![(Point::new(p1.x, p1.y), 0.0), (Point::new(p2.x, p2.y), 0.0)], false)
        }
        EntityType::ModelPoint(point) => {
            let at = Point::new(point.location.x, point.location.y);
            (vec![(at, 0.0), (Point::new(at.x + 1.0, at.y), 0.0)], false)
        }
        EntityType::Arc(arc) => {
            let on = |degrees: f64| {
                let centre = Point::new(arc.center.x, arc.center.y);
                centre + arc.radius * kurbo::Vec2::from_angle(degrees.to_radians())
            };
            let turns = (arc.end_angle - arc.start_angle).rem_euclid(360.0);
            (vec![(on(arc.start_angle), (turns.to_radians() / 4.0).tan()), (on(arc.end_angle), 0.0)], false)
        }
        EntityType::Spline(_) => return Err("a spline"),
        EntityType::Ellipse(_) => return Err("an ellipse"),
        _ => return Ok(None),
    };
    let mut path = BezPath::new();
    let first = points.first().copied();
    let mut before: Option<(Point, f64)> = None;
    for (point, bulge) in points.into_iter().chain(first.filter(|_| is_round)) {
        match before {
            None => path.move_to(point),
            Some((from, bulge)) => arc_to(&mut path, from, point, bulge),
        }
        before = Some((point, bulge));
    }
    if is_round {
        path.close_path();
    }
    Ok((path.elements().len() > 1).then_some(path))
}

/// Goes on to `to`, straight or in an arc: its bulge is the tangent of a quarter of what it turns by, to the left where it is positive (AutoCAD DXF reference, group 42).
fn arc_to(path: &mut BezPath, from: Point, to: Point, bulge: f64) {
    let chord = to - from;
    if bulge == 0.0 || chord.hypot() == 0.0 {
        path.line_to(to);
        return;
    }
    let turns = 4.0 * bulge.atan();
    // From the middle of the chord to the centre of the arc.
    let off = chord.hypot() / 2.0 / (turns / 2.0).tan();
    let centre = from.midpoint(to) + kurbo::Vec2::new(-chord.y, chord.x) / chord.hypot() * off;
    let radius = (from - centre).hypot();
    let arc = kurbo::Arc::new(centre, (radius, radius), (from - centre).atan2(), turns, 0.0);
    arc.to_cubic_beziers(EXACT, |a, b, end| path.curve_to(a, b, end));
}
