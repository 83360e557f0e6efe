//! Pieces at true size: lines to print and cut out, with what is written on them.

use super::carry::inwards;
use super::cut_line::cut_line;
use super::lay::{Set, lay};
use super::piece::{Edge, Piece};
use super::read::eased_in_words;
use super::words::with_eased;
use crate::document::Document;
use crate::fault::Fault;
use crate::length::{Length, Measure, Tape, Unit};
use crate::paper::{NamedLine, NamedPiece, PaperInk, PaperSheet};
use crate::told::capital;
use crate::work::Fullness;
use kurbo::{Affine, BezPath, Line, Point, Shape, Vec2};

/// The arms of a drill mark, in mm.
const DRILL: f64 = 4.0;
/// How long, and how high, a wave of the line beside what is gathered is, in mm.
const WAVE: f64 = 6.0;

/// Which pieces are drawn.
#[derive(
    Clone, Copy, Debug, Default, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema,
)]
#[serde(rename_all = "snake_case")]
pub enum WhichPieces {
    /// Every one.
    #[default]
    All,
    /// Those that are not as they were.
    Changed,
}

/// The sheets of pieces at true size: what is cut, what is sewn, as it was and as it will be.
///
/// # Errors
/// As [`super::pieces`].
pub fn piece_sheets(
    document: &Document,
    which: WhichPieces,
    tape: Tape,
) -> Result<Vec<PaperSheet>, Vec<Fault>> {
    let laid = lay(document, tape)?;
    let all = laid.sets.iter().flat_map(|set| (0..set.pieces.len()).map(move |n| (set, n)));
    let all = all.filter(|(set, n)| !set.is_cut_already(*n));
    let wanted = all.filter(|(set, n)| which == WhichPieces::All || set.old_of(*n) != Some(&set.pieces[*n]));
    Ok(wanted.map(|(set, n)| sheet(set, n, tape)).collect())
}

/// Words are written so far from what they are about, in mm, and each of their letters takes about so much.
const BESIDE: f64 = 6.0;
const WRITTEN: f64 = 2.0;
/// And they begin so far inside of their piece, in mm.
const LEAST: f64 = 2.0;
/// A level is marked by a line so long, in mm.
const LEVEL: f64 = 15.0;

/// One piece at true size, with what is written on it.
fn sheet(set: &Set, n: usize, tape: Tape) -> PaperSheet {
    let piece = &set.pieces[n];
    let flip = Affine::FLIP_Y;
    let mut lines = vec![(PaperInk::New, flip * piece.outline()), (PaperInk::Cut, flip * cut_line(piece))];
    if let Some(old) = set.old_of(n).filter(|old| *old != piece) {
        lines.push((PaperInk::Old, flip * old.outline()));
    }
    lines.push((PaperInk::Mark, flip * marks(piece)));
    for (_, y) in &piece.levels {
        let [a, b] = level_line(piece, *y);
        lines.push((PaperInk::Mark, flip * Line::new(a, b).to_path(0.01)));
    }
    let of = set.side.map_or_else(String::new, |side| format!(", {} side", side.name()));
    let centre = piece.bounds().center();
    // Beside the grain, and below one that lies across.
    let beside = piece.grain[0].midpoint(piece.grain[1]) + Vec2::new(BESIDE, -BESIDE);
    let mut words = vec![(Point::new(beside.x, -beside.y), set.cut_words(n).to_owned())];
    for edge in &piece.edges {
        let (at, way) = edge.at(edge.length() / 2.0);
        let sewn = tape.show(Length::from_cm(piece.sewn(edge) / 10.0));
        let said = with_eased(format!("{} {sewn}", edge.name.name()), edge, tape);
        // They begin inside of it, or end there where it leans to the left; no further out than the piece begins at that height.
        let inside = at + inwards(way) * BESIDE;
        let leans = inwards(way).x < -0.1;
        let back = if leans { WRITTEN * said.chars().count() as f64 } else { 0.0 };
        let least = piece.reach(inside.y).map_or(inside.x, |[least, _]| (least + LEAST).min(inside.x));
        words.push((Point::new((inside.x - back).max(least), -inside.y), said));
    }
    for dart in piece.darts.iter().filter(|dart| dart.loose.is_some()) {
        let at = dart.mouth[0].midpoint(dart.mouth[1]).lerp(centre, 0.12);
        let takes = tape.show(tape.round(Length::from_cm(dart.takes() / 10.0)));
        words.push((Point::new(at.x, -at.y), format!("{}: takes {takes} altogether", dart.called())));
    }
    PaperSheet {
        title: format!("{}{of}", capital(&piece.key.name())),
        lines,
        words,
        piece: Some(NamedPiece { name: format!("{}{of}", piece.key.name()), ..named(piece) }),
    }
}

/// Every line of a piece by the name that `read` knows it by, y down.
fn named(piece: &Piece) -> NamedPiece {
    let line = |name: String, points: &[Point], allowance| {
        let mut path = BezPath::new();
        points.iter().enumerate().for_each(|(n, p)| if n == 0 { path.move_to(*p) } else { path.line_to(*p) });
        NamedLine { name, path: Affine::FLIP_Y * path, allowance }
    };
    let mut all = Vec::new();
    for edge in &piece.edges {
        let mut path = BezPath::new();
        path.move_to(edge.start());
        edge.curves.iter().for_each(|c| path.curve_to(c.p1, c.p2, c.p3));
        let eased = edge.eased.map_or_else(String::new, eased_in_words);
        let name = format!("{}{}{eased}", edge.name.name(), if edge.second { " 2" } else { "" });
        let allowance = Measure { length: Length::from_cm(edge.allowance / 10.0), unit: Unit::Mm };
        all.push(NamedLine { name, path: Affine::FLIP_Y * path, allowance: Some(allowance) });
        for notch in &edge.notches {
            let name = notch.level.map_or_else(|| "notch".into(), |level| format!("notch: {}", level.name()));
            all.push(line(name, &across(edge, notch.along), None));
        }
    }
    for dart in &piece.darts {
        let ([a, b], point) = (dart.mouth, dart.point);
        let points = match (dart.loose, dart.other) {
            (Some(_), _) => vec![a, b],
            (None, None) => vec![a, point, b],
            (None, Some(other)) => vec![a, point, b, other, a],
        };
        all.push(line(format!("dart: {}", dart.called()), &points, None));
    }
    for (level, y) in &piece.levels {
        all.push(line(format!("level: {}", level.name()), &level_line(piece, *y), None));
    }
    for at in piece.drill_marks() {
        all.push(line("drill".into(), &drill_mark(at), None));
    }
    all.push(line("grain".into(), &piece.grain, None));
    NamedPiece { name: piece.key.name(), cut: piece.cut, lines: all }
}

/// The mark of a drill hole: it begins where that is.
fn drill_mark(at: Point) -> [Point; 6] {
    let arm = |x: f64, y: f64| at + Vec2::new(x, y) * DRILL;
    [at, arm(1.0, 0.0), arm(-1.0, 0.0), at, arm(0.0, 1.0), arm(0.0, -1.0)]
}

/// Where a level lies: a short line into the piece from where it begins there.
fn level_line(piece: &Piece, y: f64) -> [Point; 2] {
    let x = piece.reach(y).map_or(piece.bounds().x0, |[least, _]| least);
    [Point::new(x, y), Point::new(x + LEVEL, y)]
}

/// A wavy line beside the stretch that is drawn together, on the side of a point.
fn waves(path: &mut BezPath, [a, b]: [Point; 2], side: Point) {
    if a.distance(b) < WAVE {
        return;
    }
    let way = (b - a).normalize();
    let into = inwards(way);
    let into = if into.dot(side - a) < 0.0 { -into } else { into };
    let count = (a.distance(b) / WAVE).ceil().max(2.0) as usize;
    let at = |n: usize, off: f64| a.lerp(b, n as f64 / count as f64) + into * off;
    path.move_to(at(0, 0.0));
    (0..=count).for_each(|n| path.line_to(at(n, if n % 2 == 0 { WAVE } else { WAVE / 2.0 })));
    path.line_to(at(count, 0.0));
}

/// The same along an edge.
fn waves_along(path: &mut BezPath, edge: &Edge) {
    let count = (edge.length() / WAVE).ceil().max(2.0) as usize;
    let at = |n: usize, off: f64| {
        let (at, way) = edge.at(edge.length() * n as f64 / count as f64);
        at + inwards(way) * off
    };
    path.move_to(at(1, WAVE / 2.0));
    (2..count).for_each(|n| path.line_to(at(n, if n % 2 == 0 { WAVE } else { WAVE / 2.0 })));
}

/// The mark of a notch: out from its edge.
fn across(edge: &Edge, along: f64) -> [Point; 2] {
    let (at, way) = edge.at(along);
    [at, at + Vec2::new(way.y, -way.x) * edge.allowance.clamp(4.0, 12.0)]
}

/// Darts, notches, and the grain with its arrows.
pub(super) fn marks(piece: &Piece) -> BezPath {
    let mut path = BezPath::new();
    for dart in &piece.darts {
        let [a, b] = dart.mouth;
        if dart.loose.is_some() {
            waves(&mut path, [a, b], dart.point);
            continue;
        }
        path.move_to(a);
        path.line_to(dart.point);
        path.line_to(b);
        if let Some(other) = dart.other {
            path.line_to(other);
            path.line_to(a);
        }
    }
    for edge in &piece.edges {
        if edge.eased.is_some_and(|eased| eased.into == Fullness::Gathers) {
            waves_along(&mut path, edge);
        }
        for notch in &edge.notches {
            let [at, out] = across(edge, notch.along);
            path.move_to(at);
            path.line_to(out);
        }
    }
    for at in piece.drill_marks() {
        drill_mark(at)
            .into_iter()
            .enumerate()
            .for_each(|(n, p)| if n == 0 { path.move_to(p) } else { path.line_to(p) });
    }
    let [low, high] = piece.grain;
    path.move_to(low);
    path.line_to(high);
    let way = (high - low).normalize();
    let side = Vec2::new(-way.y, way.x);
    for (tip, back) in [(high, -1.0), (low, 1.0)] {
        path.move_to(tip + way * (back * 8.0) + side * 4.0);
        path.line_to(tip);
        path.line_to(tip + way * (back * 8.0) - side * 4.0);
    }
    path
}
