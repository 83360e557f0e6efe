//! Lines that were drawn elsewhere, read as pieces: which end joins which, what each line is called here, and what nobody can know but the
//! one who drew them.

use super::outline::{JOINS, NEAR, Named, called, corners_of, move_in, on_edge, once_round};
use super::piece::{Edge, SAME_HOLE, drilled};
use crate::fitting::GarmentSide;
use crate::garment::{Dart, Seam};
use crate::length::{Figure, Length, Measure, Tape, Unit};
use crate::place::Level;
use crate::told::capital;
use crate::work::{
    DrawnDart, DrawnEdge, DrawnLevel, DrawnNotch, DrawnPiece, Eased, EdgeName, FAR, Fullness, PieceFace,
    PieceKey, PieceLayer, PiecePart, PieceShare, kept, path_crosses, point, xy,
};
use kurbo::{Affine, BezPath, PathEl, Point, Shape, Vec2};
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
    /// Its drill marks, but for those of its darts.
    pub drills_mm: Vec<[f64; 2]>,
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
                eased: edge.eased,
            })
        });
        Some(DrawnPiece {
            piece: self.piece?,
            cut: self.cut,
            edges: edges.collect::<Option<_>>()?,
            darts: self.darts.clone(),
            drills_mm: self.drills_mm.clone(),
            grain_mm: self.grain_mm,
            levels: self.levels.clone(),
            has: Vec::new(),
            has_marks: Vec::new(),
            has_try_on: None,
            of_toile: false,
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
    /// So much of it is gathered or eased in, where the file says so.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub eased: Option<Eased>,
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
    let mut pieces: Vec<ReadPiece> = pieces.collect::<Result<_, _>>()?;
    // Of both sides the first is taken; which of several it is, somebody says.
    for n in 1..pieces.len() {
        if pieces[..n].iter().any(|before| before.piece.is_some() && before.piece == pieces[n].piece) {
            pieces[n].piece = None;
        }
    }
    let named = |piece: PieceKey| PieceNamed { words: capital(&piece.name()), piece };
    let edge = |name: EdgeName| EdgeNamed { words: name.name().into(), name };
    Ok(ReadPieces {
        pieces,
        piece_names: layers()
            .flat_map(|layer| piece_keys().map(move |key| key.of(layer)))
            .map(named)
            .collect(),
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
            let is_there = move |share: &&PieceShare| match part {
                PiecePart::Waistband => **share == PieceShare::Whole,
                PiecePart::Sleeve => {
                    matches!(share, PieceShare::Whole | PieceShare::Upper | PieceShare::Lower)
                }
                PiecePart::Body | PiecePart::Bodice | PiecePart::Skirt | PiecePart::Leg => true,
            };
            let shares = PieceShare::ALL.iter().filter(is_there);
            shares.map(move |share| PieceKey::outer(*part, *face, *share))
        })
    })
}

/// The layers that a piece may be cut for.
fn layers() -> impl Iterator<Item = PieceLayer> {
    let facings = EdgeName::FACED.into_iter().map(PieceLayer::Facing);
    [PieceLayer::Outer, PieceLayer::Lining, PieceLayer::Pocket].into_iter().chain(facings)
}

/// Every edge that may be.
fn edge_names() -> impl Iterator<Item = EdgeName> {
    let others = [EdgeName::Waist, EdgeName::Hem, EdgeName::Neckline, EdgeName::Fold, EdgeName::Opening];
    let ends = [EdgeName::End, EdgeName::Top, EdgeName::Inner];
    let seams = Seam::ALL.iter().filter(|seam| !matches!(seam, Seam::WaistSeam));
    others.into_iter().chain(ends).chain(seams.map(|seam| EdgeName::Seam(*seam)))
}

/// A name as people and programs write it: without capitals, hyphens and commas.
fn plain(text: &str) -> String {
    let words = text.to_lowercase().replace(['-', '_', ','], " ");
    words.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// An edge by its name, and what its name says of how it is sewn: as `eased_in_words` writes it.
fn eased_of(text: &str) -> Option<(&str, Option<Eased>)> {
    Fullness::ALL.iter().find_map(|into| {
        let (name, by) = text.split_once(&format!(" {} ", into.name()))?;
        let by = Measure::read(by, None).ok()?;
        Some((name, Some(Eased { by_mm: super::change::mm(by), into: *into })))
    })
}

/// How an edge is sewn, behind its name.
pub(super) fn eased_in_words(eased: Eased) -> String {
    let by = Measure { length: Length::from_cm(eased.by_mm / 10.0), unit: Unit::Mm };
    format!(", {} {by}", eased.into.name())
}

/// What a line is for.
enum Is {
    Edge(Named),
    Notch(Option<Level>),
    Grain,
    Dart(Option<(Dart, Option<Fullness>)>),
    Level(Option<Level>),
    Drill,
}

fn kind_of(says: &str) -> Is {
    let text = plain(says);
    let level = |name: &str| Level::ALL.iter().copied().find(|level| plain(level.name()) == name.trim());
    match text.split_once(':').map(|(kind, name)| (kind.trim(), name.trim())) {
        Some(("notch", name)) => return Is::Notch(level(name)),
        Some(("level", name)) => return Is::Level(level(name)),
        Some(("dart", name)) => {
            let loose = Fullness::ALL.iter().copied().find(|into| name.ends_with(into.name()));
            let name = loose.map_or(name, |into| name.trim_end_matches(into.name()).trim());
            let dart = Dart::ALL.iter().copied().find(|dart| plain(dart.name()) == name);
            return Is::Dart(dart.map(|dart| (dart, loose)));
        }
        _ if text == "notch" => return Is::Notch(None),
        _ if text == "grain" => return Is::Grain,
        _ if text == "drill" => return Is::Drill,
        _ => {}
    }
    let (text, eased) = eased_of(&text).unwrap_or((&text, None));
    let (name, second) = text.strip_suffix(" 2").map_or((text, false), |name| (name, true));
    Is::Edge(Named { name: edge_names().find(|edge| plain(edge.name()) == name), second, eased })
}

/// Where what is gathered between two places would be pressed to, if it were stitched: as far in as both are apart, towards the middle.
fn inside([a, b]: [Point; 2], middle: Point) -> Point {
    let way = Vec2::new(a.y - b.y, b.x - a.x);
    let from = a.midpoint(b);
    if way.dot(middle - from) < 0.0 { from - way } else { from + way }
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
    let name = GarmentSide::BOTH
        .iter()
        .find_map(|side| name.strip_suffix(&format!(" {} side", side.name())))
        .unwrap_or(&name);
    let mut keys = piece_keys().flat_map(|key| layers().map(move |layer| key.of(layer)));
    let piece = keys.find(|key| plain(&key.name()) == name);
    let lines: Vec<(Is, &RawLine)> = raw.lines.iter().map(|line| (kind_of(&line.says), line)).collect();
    let edges = lines.iter().filter_map(|(is, line)| match is {
        Is::Edge(named) => Some((*named, *line)),
        Is::Notch(_) | Is::Grain | Is::Dart(_) | Is::Level(_) | Is::Drill => None,
    });
    let darts = lines.iter().filter(|(is, _)| matches!(is, Is::Dart(_)));
    let mouths: Vec<Point> = darts.flat_map(|(_, line)| corners_of(&line.path)).collect();
    let mut edges = once_round(edges.collect(), &mouths)?;
    if let Some(outside) = raw.outside.filter(|outside| outside.length != Length::ZERO) {
        move_in(&mut edges, super::change::mm(outside), &mouths)?;
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
    let (mut darts, mut grain_mm, mut levels, mut drills) = (Vec::new(), None, Vec::new(), Vec::new());
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
                let (dart, loose) = dart.ok_or_else(|| Unread::NotADart(says()))?;
                let (mouth, point, other) = match (points[..].as_ref(), loose) {
                    (&[a, b], Some(_)) => ([a, b], inside([a, b], outline.bounding_box().center()), None),
                    (&[a, point, b], None) => ([a, b], point, None),
                    (&[a, point, b, other, _], None) => ([a, b], point, Some(other)),
                    _ => return Err(Unread::NotADart(says())),
                };
                let (mouth_mm, point_mm, other_mm) = (mouth.map(xy), xy(point), other.map(xy));
                darts.push(DrawnDart { dart, mouth_mm, point_mm, other_mm, loose });
            }
            Is::Drill => drills.extend(points.first().copied()),
            Is::Level(level) => {
                if let (Some(level), Some(at)) = (level, points.first()) {
                    levels.push(DrawnLevel { level: *level, at_mm: xy(*at) });
                }
            }
        }
    }
    // Those of its darts follow from them.
    let of_darts: Vec<Point> = darts
        .iter()
        .filter(|dart: &&DrawnDart| dart.loose.is_none())
        .flat_map(|d| drilled(d.mouth_mm.map(point), point(d.point_mm), d.other_mm.map(point)))
        .collect();
    drills.retain(|p: &Point| of_darts.iter().all(|own| own.distance(*p) > SAME_HOLE));
    let bounds = outline.bounding_box();
    let figure = |mm: f64| tape.figure(Length::from_cm(mm / 10.0));
    let shown = edges.into_iter().map(|edge| {
        let drawn = Edge::new(edge.name.unwrap_or(EdgeName::Top), edge.curves);
        let long = drawn.length();
        let (middle, _) = drawn.at(long / 2.0);
        ReadEdge {
            says: edge.says,
            name: edge.name,
            second: edge.second,
            path_mm: drawn.path_data(),
            allowance: edge.allowance,
            eased: edge.eased,
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
        drills_mm: drills.into_iter().map(xy).collect(),
        view: [bounds.x0, -bounds.y1, bounds.width(), bounds.height()],
        outline: (Affine::FLIP_Y * outline).to_svg(),
        size: [figure(bounds.width()), figure(bounds.height())],
    })
}
