//! Lines that were drawn elsewhere, read as pieces: which end joins which, what each line is called here, and what nobody can know but the
//! one who drew them.

use super::cut_line::offset;
use super::piece::{Edge, along_curves, is_straight};
use crate::garment::{Dart, Seam};
use crate::length::{Figure, Length, Measure, Tape};
use crate::place::Level;
use crate::told::capital;
use crate::work::{
    DrawnDart, DrawnEdge, DrawnLevel, DrawnNotch, DrawnPiece, EdgeName, FAR, PieceFace, PieceKey, PiecePart,
    PieceShare, curves_of, kept, path_crosses, straight, xy,
};
use kurbo::{
    Affine, BezPath, CubicBez, ParamCurve, ParamCurveArea, ParamCurveNearest, PathEl, Point, Shape, Vec2,
};
use serde::Serialize;
use utoipa::ToSchema;

/// The lines of one piece as a file has them: in mm, y up.
#[derive(Clone, Debug, Default)]
pub struct RawPiece {
    /// What it is called there.
    pub says: String,
    /// How many are cut, where the file says so.
    pub cut: Option<u8>,
    /// Its lines.
    pub lines: Vec<RawLine>,
    /// How much of what its lines enclose is allowance, where they are lines to cut along.
    pub outside: Option<Measure>,
}

/// A line as a file has it.
#[derive(Clone, Debug)]
pub struct RawLine {
    /// What it is called there; nothing where it has no name.
    pub says: String,
    /// The line.
    pub path: BezPath,
    /// What is cut outside of it, where the file says so.
    pub allowance: Option<Measure>,
}

/// Pieces that were read, and the names that may be given to them.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ReadPieces {
    /// Piece by piece.
    pub pieces: Vec<ReadPiece>,
    /// What a piece may be.
    pub piece_names: Vec<PieceNamed>,
    /// What an edge may be.
    pub edge_names: Vec<EdgeNamed>,
}

/// A piece that may be named.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PieceNamed {
    /// Which.
    pub piece: PieceKey,
    /// What it is called.
    pub words: String,
}

/// An edge that a name may be given to.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct EdgeNamed {
    /// Which.
    pub name: EdgeName,
    /// What it is called.
    pub words: String,
}

/// A piece that was read: what is missing of it nobody but its owner knows.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ReadPiece {
    /// What the file calls it.
    pub says: String,
    /// Which it is, where that is clear.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub piece: Option<PieceKey>,
    /// How many are cut, where the file says so.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cut: Option<u8>,
    /// Its edges, once round.
    pub edges: Vec<ReadEdge>,
    /// Its darts.
    pub darts: Vec<DrawnDart>,
    /// Along the warp.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub grain_mm: Option<[[f64; 2]; 2]>,
    /// Levels that cross it.
    pub levels: Vec<DrawnLevel>,
    /// Left, top, width, height of what is drawn: in mm, y down.
    pub view: [f64; 4],
    /// Its stitching lines, y down.
    pub outline: String,
    /// How wide and how tall it is: what a tape would say of the file's own size.
    pub size: [Figure; 2],
}

impl ReadPiece {
    /// As it is kept. Nothing where somebody has to say first what it is, or what its edges are.
    pub fn drawn(&self) -> Option<DrawnPiece> {
        let edges = self.edges.iter().map(|edge| {
            Some(DrawnEdge {
                name: edge.name?,
                second: edge.second,
                path_mm: edge.path_mm.clone(),
                allowance: edge.allowance,
                notches: edge.notches.clone(),
            })
        });
        Some(DrawnPiece {
            piece: self.piece?,
            cut: self.cut,
            edges: edges.collect::<Option<_>>()?,
            darts: self.darts.clone(),
            grain_mm: self.grain_mm,
            levels: self.levels.clone(),
            has: Vec::new(),
            has_marks: Vec::new(),
            has_try_on: None,
        })
    }
}

/// An edge that was read.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ReadEdge {
    /// What the file calls it.
    pub says: String,
    /// Which it is, where that is clear.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub name: Option<EdgeName>,
    /// The second one of that name.
    pub second: bool,
    /// Its line, y up.
    pub path_mm: String,
    /// What is cut outside of it, where the file says so.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub allowance: Option<Measure>,
    /// Marks on it.
    pub notches: Vec<DrawnNotch>,
    /// Its middle as it is drawn, y down.
    pub middle_mm: [f64; 2],
    /// How long it is.
    pub long: Figure,
}

/// Why lines are no piece.
#[derive(Clone, Debug, PartialEq)]
pub enum Unread {
    /// There is none at all.
    NoPiece,
    /// Too many pieces, or too many lines of one.
    TooMuch,
    /// No line begins where one ends.
    NotClosed {
        /// What that one is called.
        after: String,
        /// How far off the nearest is, in mm.
        apart: f64,
    },
    /// A line that the others do not need to close.
    Loose(String),
    /// One line that turns nowhere.
    NoCorner,
    /// Something lies further off than cloth is long.
    TooFar(String),
    /// The outline crosses itself.
    Crosses,
    /// A notch that lies on no edge.
    OffEdge(String),
    /// Of a dart that is none here, or has no legs.
    NotADart(String),
    /// A line that is no one stroke.
    NotALine(String),
}

impl Unread {
    /// What was found.
    pub fn found(&self) -> String {
        match self {
            Self::NoPiece => "no piece".into(),
            Self::TooMuch => "more pieces or lines than a pattern has".into(),
            Self::NotClosed { after, apart } => {
                format!(
                    "an outline that is not closed: after “{after}” there are {apart:.1} mm to the next line"
                )
            }
            Self::Loose(says) => format!("the line “{says}”, which is no part of the outline"),
            Self::NoCorner => "an outline without a corner".into(),
            Self::TooFar(says) => format!("“{says}”, further off than cloth is long"),
            Self::Crosses => "an outline that crosses itself".into(),
            Self::OffEdge(says) => format!("“{says}” beside every edge"),
            Self::NotADart(says) => format!("the dart “{says}”"),
            Self::NotALine(says) => format!("“{says}”, which is no one line"),
        }
    }

    /// What would be right.
    pub fn expected(&self) -> String {
        match self {
            Self::NoPiece => "a group of lines, or a block, for each piece".into(),
            Self::TooMuch => format!("{PIECES} pieces with {LINES} lines each of {POINTS} points at most"),
            Self::NotClosed { .. } => format!("lines whose ends meet to {JOINS} mm, once round"),
            Self::Loose(_) => "edges that go once round; what else is drawn in a group called “notes”".into(),
            Self::NoCorner => "its edges, each a line of its own".into(),
            Self::TooFar(_) => format!("everything within {FAR:.0} mm"),
            Self::Crosses => "an outline that goes once round".into(),
            Self::OffEdge(_) => format!("a notch that begins within {NEAR} mm of an edge"),
            Self::NotADart(_) => {
                let names: Vec<&str> = Dart::ALL.iter().map(|dart| dart.name()).collect();
                format!("“dart: ” and {}, drawn from leg to point to leg", names.join(", "))
            }
            Self::NotALine(_) => "a line drawn in one stroke".into(),
        }
    }
}

/// Most pieces of a file, and most lines of one: more than any pattern of this kind has.
const PIECES: usize = 40;
const LINES: usize = 120;
/// Most points of a line: which of them are needed is found in the square of that at worst.
const POINTS: usize = 3_000;
/// Most points of all of them.
const ALL_POINTS: usize = 60_000;
/// Ends join that lie so near to each other, in mm (teaching value: a line's width and a slip of the hand).
const JOINS: f64 = 1.0;
/// A notch begins so near to its edge, in mm.
const NEAR: f64 = 2.0;
/// One outline is cut into edges where it turns by so many degrees (teaching value: lines that run smoother are one).
const CORNER: f64 = 20.0;
/// Points in a row are one straight where they leave it by no more than so many mm: a tenth of what is measured.
const STRAIGHT: f64 = 0.01;
/// They are a curve where it leaves their straights by no more than so many mm and they turn by no more than so many radians; otherwise they are
/// corners (teaching values: finer than a pen, and no dart's mouth).
const BULGE: f64 = 0.2;
const TURNS: f64 = 0.3;

/// Reads lines as pieces.
///
/// # Errors
/// The first that is no piece, by its place, and why.
pub fn read_pieces(raw: &[RawPiece], tape: Tape) -> Result<ReadPieces, (usize, Unread)> {
    if raw.is_empty() {
        return Err((0, Unread::NoPiece));
    }
    if raw.len() > PIECES {
        return Err((PIECES, Unread::TooMuch));
    }
    let points = raw.iter().flat_map(|piece| &piece.lines).map(|line| line.path.elements().len());
    if points.sum::<usize>() > ALL_POINTS {
        return Err((0, Unread::TooMuch));
    }
    let pieces = raw.iter().enumerate();
    let pieces = pieces.map(|(n, piece)| read_piece(piece, tape).map_err(|why| (n, why)));
    let named = |piece: PieceKey| PieceNamed { words: capital(&piece.name()), piece };
    let edge = |name: EdgeName| EdgeNamed { words: name.name().into(), name };
    Ok(ReadPieces {
        pieces: pieces.collect::<Result<_, _>>()?,
        piece_names: piece_keys().map(named).collect(),
        edge_names: edge_names().map(edge).collect(),
    })
}

/// Every piece that may be.
fn piece_keys() -> impl Iterator<Item = PieceKey> {
    PiecePart::ALL.iter().flat_map(|part| {
        let faces = match part {
            PiecePart::Sleeve | PiecePart::Waistband => &[PieceFace::Round][..],
            PiecePart::Body | PiecePart::Bodice | PiecePart::Skirt | PiecePart::Leg => {
                &[PieceFace::Front, PieceFace::Back][..]
            }
        };
        faces.iter().flat_map(move |face| {
            let has_shares = *face != PieceFace::Round && *part != PiecePart::Leg;
            let shares =
                PieceShare::ALL.iter().filter(move |share| has_shares || **share == PieceShare::Whole);
            shares.map(move |share| PieceKey { part: *part, face: *face, share: *share })
        })
    })
}

/// Every edge that may be.
fn edge_names() -> impl Iterator<Item = EdgeName> {
    let others = [EdgeName::Waist, EdgeName::Hem, EdgeName::Neckline, EdgeName::Fold, EdgeName::Opening];
    let ends = [EdgeName::End, EdgeName::Top];
    let seams = Seam::ALL.iter().filter(|seam| !matches!(seam, Seam::WaistSeam));
    others.into_iter().chain(ends).chain(seams.map(|seam| EdgeName::Seam(*seam)))
}

/// A name as people and programs write it: without capitals, hyphens and commas.
fn plain(text: &str) -> String {
    let words = text.to_lowercase().replace(['-', '_', ','], " ");
    words.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// What a line is for.
enum Is {
    Edge(Option<EdgeName>, bool),
    Notch(Option<Level>),
    Grain,
    Dart(Option<Dart>),
    Level(Option<Level>),
}

fn kind_of(says: &str) -> Is {
    let text = plain(says);
    let level = |name: &str| Level::ALL.iter().copied().find(|level| plain(level.name()) == name.trim());
    match text.split_once(':').map(|(kind, name)| (kind.trim(), name.trim())) {
        Some(("notch", name)) => return Is::Notch(level(name)),
        Some(("level", name)) => return Is::Level(level(name)),
        Some(("dart", name)) => {
            return Is::Dart(Dart::ALL.iter().copied().find(|dart| plain(dart.name()) == name));
        }
        _ if text == "notch" => return Is::Notch(None),
        _ if text == "grain" => return Is::Grain,
        _ => {}
    }
    let (name, second) = text.strip_suffix(" 2").map_or((&*text, false), |name| (name, true));
    Is::Edge(edge_names().find(|edge| plain(edge.name()) == name), second)
}

/// Reads the lines of one piece.
fn read_piece(raw: &RawPiece, tape: Tape) -> Result<ReadPiece, Unread> {
    if raw.lines.len() > LINES || raw.lines.iter().any(|line| line.path.elements().len() > POINTS) {
        return Err(Unread::TooMuch);
    }
    let is_near = |p: Point| p.x.abs() <= FAR && p.y.abs() <= FAR;
    let is_far = |line: &&RawLine| {
        !line.path.iter().all(|element| match element {
            PathEl::MoveTo(p) | PathEl::LineTo(p) => is_near(p),
            PathEl::QuadTo(a, p) => is_near(a) && is_near(p),
            PathEl::CurveTo(a, b, p) => is_near(a) && is_near(b) && is_near(p),
            PathEl::ClosePath => true,
        })
    };
    if let Some(line) = raw.lines.iter().find(is_far) {
        return Err(Unread::TooFar(called(&line.says)));
    }
    let name = plain(&raw.says);
    let piece = piece_keys().find(|key| plain(&key.name()) == name);
    let lines: Vec<(Is, &RawLine)> = raw.lines.iter().map(|line| (kind_of(&line.says), line)).collect();
    let edges = lines.iter().filter_map(|(is, line)| match is {
        Is::Edge(name, second) => Some((*name, *second, *line)),
        Is::Notch(_) | Is::Grain | Is::Dart(_) | Is::Level(_) => None,
    });
    let mut edges = once_round(edges.collect())?;
    if let Some(outside) = raw.outside.filter(|outside| outside.length != Length::ZERO) {
        move_in(&mut edges, super::change::mm(outside))?;
    }
    let mut outline = BezPath::new();
    for (n, curve) in edges.iter().flat_map(|edge| &edge.curves).enumerate() {
        if n == 0 {
            outline.move_to(curve.p0);
        }
        outline.curve_to(curve.p1, curve.p2, curve.p3);
    }
    outline.close_path();
    match path_crosses(&outline) {
        Some(false) => {}
        Some(true) => return Err(Unread::Crosses),
        None => return Err(Unread::TooMuch),
    }
    let (mut darts, mut grain_mm, mut levels) = (Vec::new(), None, Vec::new());
    for (is, line) in &lines {
        let points = corners_of(&line.path);
        let says = || line.says.clone();
        match is {
            Is::Edge(..) => {}
            Is::Notch(level) => {
                let at = points.first().copied().ok_or_else(|| Unread::NotALine(says()))?;
                let (edge, along) = on_edge(&edges, at).ok_or_else(|| Unread::OffEdge(says()))?;
                edges[edge].notches.push(DrawnNotch { along_mm: kept(along), level: *level });
            }
            Is::Grain => match points[..] {
                [low, .., high] if low.distance(high) >= 1.0 => grain_mm = Some([xy(low), xy(high)]),
                _ => return Err(Unread::NotALine(says())),
            },
            Is::Dart(dart) => {
                let dart = dart.ok_or_else(|| Unread::NotADart(says()))?;
                darts.push(match points[..] {
                    [a, point, b] => {
                        DrawnDart { dart, mouth_mm: [xy(a), xy(b)], point_mm: xy(point), other_mm: None }
                    }
                    [a, point, b, other, _] => DrawnDart {
                        dart,
                        mouth_mm: [xy(a), xy(b)],
                        point_mm: xy(point),
                        other_mm: Some(xy(other)),
                    },
                    _ => return Err(Unread::NotADart(says())),
                });
            }
            Is::Level(level) => {
                if let (Some(level), Some(at)) = (level, points.first()) {
                    levels.push(DrawnLevel { level: *level, at_mm: xy(*at) });
                }
            }
        }
    }
    let bounds = outline.bounding_box();
    let figure = |mm: f64| tape.figure(Length::from_cm(mm / 10.0));
    let shown = edges.into_iter().map(|edge| {
        let drawn = Edge::new(edge.name.unwrap_or(EdgeName::Top), edge.curves);
        let (long, mut path) = (drawn.length(), BezPath::new());
        let near = |p: Point| Point::from((kept(p.x), kept(p.y)));
        path.move_to(near(drawn.start()));
        for c in &drawn.curves {
            if is_straight(c) {
                path.line_to(near(c.p3));
            } else {
                path.curve_to(near(c.p1), near(c.p2), near(c.p3));
            }
        }
        let (middle, _) = drawn.at(long / 2.0);
        ReadEdge {
            says: edge.says,
            name: edge.name,
            second: edge.second,
            path_mm: path.to_svg(),
            allowance: edge.allowance,
            notches: edge.notches,
            middle_mm: [middle.x, -middle.y],
            long: figure(long),
        }
    });
    Ok(ReadPiece {
        says: raw.says.clone(),
        piece,
        cut: raw.cut.filter(|cut| (1..=2).contains(cut)),
        edges: shown.collect(),
        darts,
        grain_mm,
        levels,
        view: [bounds.x0, -bounds.y1, bounds.width(), bounds.height()],
        outline: (Affine::FLIP_Y * outline).to_svg(),
        size: [figure(bounds.width()), figure(bounds.height())],
    })
}

/// An edge of which not everything is known.
struct Drawn {
    says: String,
    name: Option<EdgeName>,
    second: bool,
    allowance: Option<Measure>,
    curves: Vec<CubicBez>,
    notches: Vec<DrawnNotch>,
}

/// Edges in order, once round, each beginning where the one before it ends.
fn once_round(lines: Vec<(Option<EdgeName>, bool, &RawLine)>) -> Result<Vec<Drawn>, Unread> {
    let mut all: Vec<Drawn> = Vec::new();
    for (name, second, line) in lines {
        let not_one = || Unread::NotALine(line.says.clone());
        let curves = curves_of(&opened(&line.path)).ok_or_else(not_one)?;
        let is_round = curves[0].p0.distance(curves[curves.len() - 1].p3) <= JOINS;
        let parts = if is_round { at_corners(curves) } else { vec![curves] };
        let is_whole = parts.len() == 1;
        for curves in parts {
            let name = name.filter(|_| is_whole);
            let (says, allowance) = (line.says.clone(), line.allowance);
            let curves = as_curve(curves);
            all.push(Drawn { says, name, second, allowance, curves, notches: Vec::new() });
        }
    }
    let ends = |edge: &Drawn| (edge.curves[0].p0, edge.curves[edge.curves.len() - 1].p3);
    if all.is_empty() {
        return Err(Unread::NoPiece);
    }
    let mut round = vec![all.remove(0)];
    loop {
        let (first, _) = ends(&round[0]);
        let (_, at) = ends(&round[round.len() - 1]);
        let near = all.iter().enumerate().map(|(n, edge)| {
            let (start, end) = ends(edge);
            let (from_start, from_end) = (at.distance(start), at.distance(end));
            (n, from_start.min(from_end), from_end < from_start)
        });
        let next = near.min_by(|a, b| a.1.total_cmp(&b.1));
        let home = if round.len() > 1 || all.is_empty() { at.distance(first) } else { f64::INFINITY };
        match next {
            Some((n, apart, turned)) if apart <= JOINS && apart <= home => {
                let mut edge = all.remove(n);
                let mut drawn = Edge::new(EdgeName::Top, edge.curves);
                if turned {
                    drawn = drawn.turned();
                }
                if drawn.start().distance(at) > 1e-9 {
                    drawn.set_start(at);
                }
                edge.curves = drawn.curves;
                round.push(edge);
            }
            _ if home <= JOINS => break,
            next => {
                let apart = next.map_or(home, |(_, apart, _)| apart.min(home));
                let after = called(&round[round.len() - 1].says);
                return Err(Unread::NotClosed { after, apart });
            }
        }
    }
    if let Some(loose) = all.first() {
        return Err(Unread::Loose(called(&loose.says)));
    }
    if round.len() < 2 {
        return Err(Unread::NoCorner);
    }
    let (first, end) = (ends(&round[0]).0, ends(&round[round.len() - 1]).1);
    if let Some(last) = round.last_mut().filter(|_| first.distance(end) > 1e-9) {
        let mut drawn = Edge::new(EdgeName::Top, std::mem::take(&mut last.curves));
        drawn.set_end(first);
        last.curves = drawn.curves;
    }
    // Of two that are called the same, one is the second.
    for n in 1..round.len() {
        let (before, rest) = round.split_at_mut(n);
        let is_again = |edge: &&Drawn| edge.name.is_some() && edge.name == rest[0].name;
        let same: Vec<&Drawn> = before.iter().filter(is_again).collect();
        if same.len() == 1 && !same[0].second {
            rest[0].second = true;
        }
    }
    Ok(round)
}

/// Moves lines that are cut along in to where they are sewn along: so far at every place, each to where it meets the next.
fn move_in(edges: &mut [Drawn], by: f64) -> Result<(), Unread> {
    let area =
        |edges: &[Drawn]| edges.iter().flat_map(|e| &e.curves).map(ParamCurveArea::signed_area).sum::<f64>();
    let whole = area(edges);
    let inwards = if whole > 0.0 { -by } else { by };
    let mut lines: Vec<Vec<Point>> = Vec::with_capacity(edges.len());
    for drawn in &*edges {
        let edge = Edge { allowance: inwards, ..Edge::new(EdgeName::Top, drawn.curves.clone()) };
        let ([from, to], mut points) = (edge.ways(), offset(&edge));
        // Longer than it is, so that it meets its neighbours at corners that are hollow too.
        let (first, last) = (points[0] - from * (by * 3.0), points[points.len() - 1] + to * (by * 3.0));
        points.insert(0, first);
        points.push(last);
        lines.push(points);
    }
    let count = lines.len();
    let corners: Vec<Point> = edges.iter().map(|edge| edge.curves[edge.curves.len() - 1].p3).collect();
    let mets: Vec<Option<(usize, usize, Point)>> = (0..count)
        .map(|n| {
            let near = |pair: &[Point]| pair.iter().any(|p| p.distance(corners[n]) <= by * 5.0);
            let own = lines[n].windows(2).enumerate().filter(|(_, pair)| near(pair));
            let met = own.flat_map(|(a, pair)| {
                let next = lines[(n + 1) % count].windows(2).enumerate().filter(|(_, pair)| near(pair));
                next.filter_map(move |(b, other)| {
                    Some((a, b, crossing([pair[0], pair[1]], [other[0], other[1]])?))
                })
            });
            met.min_by(|a, b| a.2.distance(corners[n]).total_cmp(&b.2.distance(corners[n])))
        })
        .collect();
    for (n, drawn) in edges.iter_mut().enumerate() {
        let line = &lines[n];
        let (start, first) = match mets[(n + count - 1) % count] {
            Some((_, b, at)) => (at, b + 1),
            None => (line[1], 2),
        };
        let (end, last) = match mets[n] {
            Some((a, _, at)) => (at, a + 1),
            None => (line[line.len() - 2], line.len() - 2),
        };
        let inner = line.get(first..last).unwrap_or_default();
        let points: Vec<Point> = std::iter::once(start).chain(inner.iter().copied()).chain([end]).collect();
        let pairs = points.windows(2).filter(|pair| pair[0].distance(pair[1]) > 1e-6);
        drawn.curves = as_curve(pairs.map(|pair| straight(pair[0], pair[1])).collect());
        if drawn.curves.is_empty() {
            return Err(Unread::Crosses);
        }
    }
    // Lines that go on smoothly do not cross: the next begins where the last one ends.
    for n in 0..count {
        let next = (n + 1) % count;
        let end = edges[n].curves[edges[n].curves.len() - 1].p3;
        if end.distance(edges[next].curves[0].p0) > 1e-9 {
            let mut edge = Edge::new(EdgeName::Top, std::mem::take(&mut edges[next].curves));
            edge.set_start(end);
            edges[next].curves = edge.curves;
        }
    }
    if whole * area(edges) <= 0.0 {
        return Err(Unread::Crosses);
    }
    Ok(())
}

/// Where two straights cross.
fn crossing([a, b]: [Point; 2], [c, d]: [Point; 2]) -> Option<Point> {
    let (own, other) = (b - a, d - c);
    let turn = own.cross(other);
    let (t, u) = ((c - a).cross(other) / turn, (c - a).cross(own) / turn);
    (turn.abs() > 1e-9 && (0.0..=1.0).contains(&t) && (0.0..=1.0).contains(&u)).then(|| a + own * t)
}

fn called(says: &str) -> String {
    if says.is_empty() { "a line without a name".into() } else { says.into() }
}

/// A closed path as the stroke that it is.
fn opened(path: &BezPath) -> BezPath {
    let mut open = BezPath::new();
    let (mut first, mut last) = (Point::ZERO, Point::ZERO);
    for element in path.elements() {
        match *element {
            PathEl::MoveTo(p) => (first, last) = (p, p),
            PathEl::LineTo(p) | PathEl::QuadTo(_, p) | PathEl::CurveTo(_, _, p) => last = p,
            PathEl::ClosePath => {
                if last.distance(first) > 1e-9 {
                    open.line_to(first);
                }
                continue;
            }
        }
        open.push(*element);
    }
    open
}

/// Cuts curves that go once round where they turn.
fn at_corners(curves: Vec<CubicBez>) -> Vec<Vec<CubicBez>> {
    let count = curves.len();
    let turns = |n: usize| {
        let [into, out] = [
            super::piece::way_of(&curves[(n + count - 1) % count], 1.0),
            super::piece::way_of(&curves[n], 0.0),
        ];
        into.cross(out).atan2(into.dot(out)).to_degrees().abs() > CORNER
    };
    let corners: Vec<usize> = (0..count).filter(|n| turns(*n)).collect();
    let Some(first) = corners.first().copied() else { return vec![curves] };
    let mut parts: Vec<Vec<CubicBez>> = Vec::new();
    for n in (0..count).map(|n| (n + first) % count) {
        if corners.contains(&n) {
            parts.push(Vec::new());
        }
        if let Some(part) = parts.last_mut() {
            part.push(curves[n]);
        }
    }
    parts
}

/// Points in a row as the curve that they were taken from, without those that lie on the way between others.
fn as_curve(curves: Vec<CubicBez>) -> Vec<CubicBez> {
    if curves.len() < 2 || !curves.iter().all(is_straight) {
        return curves;
    }
    let points: Vec<Point> = curves[..1].iter().map(|c| c.p0).chain(curves.iter().map(|c| c.p3)).collect();
    let mut kept = vec![0];
    keep(&points, 0, points.len() - 1, &mut kept);
    let points: Vec<Point> = kept.into_iter().map(|n| points[n]).collect();
    let ways: Vec<Option<Vec2>> =
        (0..points.len()).map(|n| way_past(points.get(n.wrapping_sub(1)..n + 2)?)).collect();
    let curve = |n: usize| {
        let (from, to) = (points[n], points[n + 1]);
        let chord = to - from;
        // As it comes to its other end where nothing is known of one: round.
        let reflected = |way: Vec2| chord * (2.0 * way.dot(chord) / chord.hypot2()) - way;
        let (out, into) = match (ways[n], ways[n + 1]) {
            (Some(out), Some(into)) => (out, into),
            (Some(out), None) => (out, reflected(out)),
            (None, Some(into)) => (reflected(into), into),
            (None, None) => return straight(from, to),
        };
        let reach = chord.hypot() / 3.0;
        CubicBez::new(from, from + out * reach, to - into * reach, to)
    };
    (0..points.len() - 1).map(curve).collect()
}

/// Which way a line runs past the middle one of three points: as the circle through them, and where one of its straights is much longer, as
/// that one. Nothing at a corner.
fn way_past(points: &[Point]) -> Option<Vec2> {
    let [a, b, c] = points else { return None };
    let (one, other) = (*b - *a, *c - *b);
    let (short, long) = (one.hypot().min(other.hypot()), one.hypot().max(other.hypot()));
    let turn = one.cross(other).atan2(one.dot(other)).abs();
    let is_even = long < 3.0 * short;
    let bulge = turn / 8.0 * if is_even { long } else { short };
    if bulge > BULGE || turn > TURNS {
        return None;
    }
    let way = match is_even {
        true => one / one.hypot2() + other / other.hypot2(),
        false if one.hypot() > other.hypot() => one,
        false => other,
    };
    Some(way.normalize())
}

/// Which points are needed between two of them and up to the second (Douglas and Peucker 1973).
fn keep(points: &[Point], from: usize, to: usize, kept: &mut Vec<usize>) {
    let chord = kurbo::Line::new(points[from], points[to]);
    let off = |n: usize| chord.nearest(points[n], 1e-6).distance_sq;
    let farthest = (from + 1..to).max_by(|a, b| off(*a).total_cmp(&off(*b)));
    match farthest.filter(|n| off(*n) > STRAIGHT * STRAIGHT) {
        Some(n) => {
            keep(points, from, n, kept);
            keep(points, n, to, kept);
        }
        None => kept.push(to),
    }
}

/// The points of a line that is drawn with straights.
fn corners_of(path: &BezPath) -> Vec<Point> {
    let mut points: Vec<Point> = Vec::new();
    for segment in opened(path).segments() {
        if points.is_empty() {
            points.push(segment.start());
        }
        points.push(segment.end());
    }
    points
}

/// Which edge a point lies on, and how far along it.
fn on_edge(edges: &[Drawn], at: Point) -> Option<(usize, f64)> {
    let near = |edge: &Drawn| {
        edge.curves.iter().map(|c| c.nearest(at, 1e-3).distance_sq).fold(f64::INFINITY, f64::min)
    };
    let (n, off) = edges.iter().map(near).enumerate().min_by(|a, b| a.1.total_cmp(&b.1))?;
    let along = along_curves(&edges[n].curves, at).max(0.0);
    (off <= NEAR * NEAR).then_some((n, along))
}
