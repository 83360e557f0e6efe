//! Pieces of a pattern that were drawn elsewhere, as they were read: in mm, y up, each edge beginning where the one before it ends.

use super::marks::Marked;
use super::pattern::CHANGES;
use super::piece_change::{Fullness, PieceChange};
use super::pieces::{EdgeName, PieceKey};
use crate::fault::{Fault, Wrong};
use crate::garment::Dart;
use crate::length::{Length, Measure};
use crate::place::Level;
use kurbo::{BezPath, CubicBez, ParamCurveArclen, PathEl, PathSeg, Point};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A piece that was drawn elsewhere. It stands for the one of its name that the garment would be unrolled to.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrawnPiece {
    /// Which it is.
    pub piece: PieceKey,
    /// How many are cut: one, or two; when absent one on a fold, one band, and two of everything else.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cut: Option<u8>,
    /// Its stitching lines, once round.
    pub edges: Vec<DrawnEdge>,
    /// Its darts.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub darts: Vec<DrawnDart>,
    /// Along the warp, from its lower end to its upper one; upright when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub grain_mm: Option<[[f64; 2]; 2]>,
    /// Levels that cross it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub levels: Vec<DrawnLevel>,
    /// Places inside that are marked by drill holes; those of its darts follow from them.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub drills_mm: Vec<[f64; 2]>,
    /// What is done on paper and is in it already: it is not done again.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub has: Vec<PieceChange>,
    /// Marks of a toile that are in it already.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub has_marks: Vec<Marked>,
    /// The try-on whose adjustments are in it already.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub has_try_on: Option<Uuid>,
    /// It was read from no file: it is how the toile of the garment was left.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub of_toile: bool,
}

/// One edge of a piece.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrawnEdge {
    /// What it is.
    pub name: EdgeName,
    /// The second one of that name on the piece: a sleeve is sewn to itself.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub second: bool,
    /// Its line, as path data of SVG 2.
    pub path_mm: String,
    /// What is cut outside of it; as the garment has it when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub allowance: Option<Measure>,
    /// Marks on it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub notches: Vec<DrawnNotch>,
    /// So much of it is gathered or eased in, where it is sewn to a shorter one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub eased: Option<Eased>,
}

/// What of an edge is gathered, or eased in.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Eased {
    /// How much.
    pub by_mm: f64,
    /// Into what.
    pub into: Fullness,
}

/// A mark on an edge.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrawnNotch {
    /// How far from the beginning of its edge.
    pub along_mm: f64,
    /// What it marks.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub level: Option<Level>,
}

/// A dart.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrawnDart {
    /// Which.
    pub dart: Dart,
    /// The ends of its legs; of a fish-eye dart its widest place.
    pub mouth_mm: [[f64; 2]; 2],
    /// Where its legs meet.
    pub point_mm: [f64; 2],
    /// The other point of a fish-eye dart.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub other_mm: Option<[f64; 2]>,
    /// It is not stitched: its cloth is gathered, or eased in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub loose: Option<Fullness>,
}

/// A level that crosses a piece.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DrawnLevel {
    /// Which.
    pub level: Level,
    /// A place that it passes.
    pub at_mm: [f64; 2],
}

/// Most pieces: a lined jacket has so many.
const PIECES: usize = 40;
/// Most edges, darts, notches and levels of one of them.
const EACH: usize = 24;
/// The longest path data of one edge, in letters, and most curves of one piece.
const PATH: usize = 40_000;
const CURVES: usize = 3_000;
/// Nothing lies further off, in mm: cloth comes in such lengths.
pub(crate) const FAR: f64 = 10_000.0;
/// Ends that meet lie so near to each other, in mm.
const MEET: f64 = 0.01;
/// An outline is looked at as straights that leave its curves by so many mm; most of them.
const FLAT: f64 = 0.5;
const STRAIGHTS: usize = 6_000;

/// A place as it is kept.
pub(crate) const fn point([x, y]: [f64; 2]) -> Point {
    Point::new(x, y)
}

/// A place, to be kept: to a millionth of a mm, so that it is the same after it was written and read.
pub(crate) fn xy(point: Point) -> [f64; 2] {
    [kept(point.x), kept(point.y)]
}

/// A length in mm, to be kept.
pub(crate) fn kept(mm: f64) -> f64 {
    (mm * 1e6).round() / 1e6
}

/// A straight edge as a curve.
pub(crate) fn straight(from: Point, to: Point) -> CubicBez {
    CubicBez::new(from, from.lerp(to, 1.0 / 3.0), from.lerp(to, 2.0 / 3.0), to)
}

/// A stroke as curves, end to end. Nothing where it is no one stroke.
pub(crate) fn curves_of(path: &BezPath) -> Option<Vec<CubicBez>> {
    let begins = path.elements().iter().filter(|el| matches!(el, PathEl::MoveTo(_))).count();
    let curves = path.segments().map(|segment| match segment {
        PathSeg::Line(line) => straight(line.p0, line.p1),
        PathSeg::Quad(_) | PathSeg::Cubic(_) => segment.to_cubic(),
    });
    // By its corners: what is far off is refused before anything of it is measured.
    let reach = |c: &CubicBez| c.p0.distance(c.p1) + c.p1.distance(c.p2) + c.p2.distance(c.p3);
    let curves: Vec<CubicBez> = curves.filter(|c| reach(c) > 1e-6).collect();
    (begins == 1 && !curves.is_empty()).then_some(curves)
}

impl DrawnEdge {
    /// Its line, curve by curve. Nothing where it is no one stroke.
    pub(crate) fn curves(&self) -> Option<Vec<CubicBez>> {
        curves_of(&BezPath::from_svg(&self.path_mm).ok()?)
    }
}

/// Whether an outline crosses itself: two of its stretches meet that are no neighbours. Nothing where it has more of them than can be looked at.
pub(crate) fn path_crosses(outline: &BezPath) -> Option<bool> {
    let mut points: Vec<Point> = Vec::new();
    kurbo::flatten(outline, FLAT, |element| match element {
        PathEl::MoveTo(p) | PathEl::LineTo(p) => {
            // What is shorter than ends may lie apart crosses nothing.
            if points.last().is_none_or(|last| last.distance(p) > MEET) {
                points.push(p);
            }
        }
        PathEl::ClosePath | PathEl::QuadTo(..) | PathEl::CurveTo(..) => {}
    });
    let lines: Vec<kurbo::Line> = points.windows(2).map(|pair| kurbo::Line::new(pair[0], pair[1])).collect();
    let count = lines.len();
    if count > STRAIGHTS {
        return None;
    }
    Some((0..count).any(|a| {
        (a + 2..count).any(|b| {
            let is_neighbour = a == 0 && b + 1 == count;
            !is_neighbour && meet(lines[a], lines[b])
        })
    }))
}

/// Two straights cross, other than at their ends.
pub(crate) fn meet(a: kurbo::Line, b: kurbo::Line) -> bool {
    let side = |l: kurbo::Line, p: Point| (l.p1 - l.p0).cross(p - l.p0);
    let opposite = |x: f64, y: f64| (x > 1e-6 && y < -1e-6) || (x < -1e-6 && y > 1e-6);
    opposite(side(a, b.p0), side(a, b.p1)) && opposite(side(b, a.p0), side(b, a.p1))
}

/// What is wrong with pieces that were drawn, as paths below the pattern.
pub(super) fn wrong_drawn(drawn: &[DrawnPiece]) -> Vec<Fault> {
    let mut faults = Vec::new();
    if drawn.len() > PIECES {
        let wrong = Wrong::TooMany { what: "pieces", most: PIECES };
        return vec![Fault { path: "drawn".into(), wrong }];
    }
    for (n, piece) in drawn.iter().enumerate() {
        if drawn[..n].iter().any(|other| other.piece == piece.piece) {
            faults.push(Fault { path: format!("drawn[{n}].piece"), wrong: Wrong::Twice { what: "piece" } });
        }
        let below = |fault: Fault| Fault { path: format!("drawn[{n}].{}", fault.path), ..fault };
        faults.extend(wrong_piece(piece).err().map(below));
    }
    faults
}

/// The first thing that is wrong with one piece, as a path below it.
fn wrong_piece(piece: &DrawnPiece) -> Result<(), Fault> {
    let fault = |path: String, wrong| Err(Fault { path, wrong });
    if piece.cut.is_some_and(|cut| !(1..=2).contains(&cut)) {
        return fault("cut".into(), Wrong::NotACount { most: 2 });
    }
    if piece.has.len() > CHANGES || piece.has_marks.len() > CHANGES {
        return fault("has".into(), Wrong::TooMany { what: "changes", most: CHANGES });
    }
    if let Some(wrong) = piece.has.iter().find_map(PieceChange::wrong) {
        return fault("has".into(), wrong);
    }
    for (what, count) in [
        ("edges", piece.edges.len()),
        ("darts", piece.darts.len()),
        ("levels", piece.levels.len()),
        ("drills_mm", piece.drills_mm.len()),
    ] {
        if count > EACH {
            return fault(what.into(), Wrong::TooMany { what, most: EACH });
        }
    }
    let is_near = |p: [f64; 2]| p.iter().all(|v| v.abs() <= FAR);
    let grain = piece.grain_mm.iter().flatten();
    let places = piece.darts.iter().flat_map(|d| d.mouth_mm.iter().chain([&d.point_mm]).chain(&d.other_mm));
    if !grain
        .chain(places)
        .chain(piece.levels.iter().map(|l| &l.at_mm))
        .chain(&piece.drills_mm)
        .all(|p| is_near(*p))
    {
        return fault("darts".into(), Wrong::TooFarOff);
    }
    if piece.grain_mm.is_some_and(|[a, b]| point(a).distance(point(b)) < 1.0) {
        return fault("grain_mm".into(), Wrong::NotALine);
    }
    let mut all: Vec<Vec<CubicBez>> = Vec::new();
    for (n, edge) in piece.edges.iter().enumerate() {
        let path = format!("edges[{n}].path_mm");
        if edge.path_mm.len() > PATH {
            return fault(path, Wrong::TooLong { most: PATH });
        }
        let Some(curves) = edge.curves() else { return fault(path, Wrong::NotALine) };
        if !curves.iter().flat_map(|c| [c.p0, c.p1, c.p2, c.p3]).all(|p| is_near([p.x, p.y])) {
            return fault(path, Wrong::TooFarOff);
        }
        let long = curves.iter().map(|c| c.arclen(1e-3)).sum::<f64>();
        if edge.notches.len() > EACH {
            return fault(format!("edges[{n}].notches"), Wrong::TooMany { what: "notches", most: EACH });
        }
        if let Some(k) = edge.notches.iter().position(|notch| !(0.0..=long + MEET).contains(&notch.along_mm))
        {
            return fault(format!("edges[{n}].notches[{k}]"), Wrong::OffEdge);
        }
        if edge.eased.is_some_and(|eased| !(0.0..long).contains(&eased.by_mm)) {
            return fault(format!("edges[{n}].eased"), Wrong::OffEdge);
        }
        let most = Length::from_mm(200);
        if let Some(found) = edge.allowance.filter(|a| a.length.is_negative() || a.length > most) {
            let is_less = found.length.is_negative();
            let wrong =
                if is_less { Wrong::Negative { found } } else { Wrong::WiderThan { found, length: most } };
            return fault(format!("edges[{n}].allowance"), wrong);
        }
        all.push(curves);
    }
    let count = all.len();
    if all.iter().map(Vec::len).sum::<usize>() > CURVES {
        return fault("edges".into(), Wrong::TooMany { what: "curves", most: CURVES });
    }
    if count < 2 {
        return fault("edges".into(), Wrong::NotClosed { apart_mm: None });
    }
    for n in 0..count {
        let (end, start) = (all[n][all[n].len() - 1].p3, all[(n + 1) % count][0].p0);
        let apart = end.distance(start);
        if apart > MEET {
            return fault(format!("edges[{n}].path_mm"), Wrong::NotClosed { apart_mm: Some(apart) });
        }
    }
    let mut outline = BezPath::new();
    outline.move_to(all[0][0].p0);
    all.iter().flatten().for_each(|c| outline.curve_to(c.p1, c.p2, c.p3));
    match path_crosses(&outline) {
        Some(false) => Ok(()),
        Some(true) => fault("edges".into(), Wrong::CrossesItself),
        None => fault("edges".into(), Wrong::TooMany { what: "curves", most: CURVES }),
    }
}
