//! Paper in words and figures: the pieces old and new, what was done, what does not match and what mends it, and the cloth they need.

use super::carry::carried;
use super::change::{CannotBe, apply};
use super::cut_line::cut_line;
use super::joins::{Join, joins};
use super::piece::{Edge, Piece};
use super::truing::{DIFFER, Untrue, true_up};
use super::unroll::unroll;
use crate::change::{ChangeKey, Drawn, DrawnChange, On, draw};
use crate::document::Document;
use crate::fault::{Fault, Wrong};
use crate::fitting::GarmentSide;
use crate::length::{Figure, Length, Measure, Tape};
use crate::paper::{PaperInk, PaperSheet};
use crate::told::capital;
use crate::try_on::TryOn;
use crate::work::{EdgeName, PieceChange, PieceKey};
use kurbo::{Affine, BezPath, Line, Point, Rect, Shape};
use serde::Serialize;
use utoipa::ToSchema;

/// Cloth is so wide where nobody says otherwise: 140 cm (teaching value: most cloth for clothes).
pub const USUAL_WIDTH: Length = Length::from_mm(1400);
/// Pieces lie so far apart on the cloth, in mm.
const APART: f64 = 10.0;

/// The pieces of a garment, as they are and as they will be.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Pieces {
    /// One set, or one for each side where left and right differ.
    pub sets: Vec<PieceSet>,
    /// What is done to them, in order: what was chalked, then what was entered here.
    pub chips: Vec<PieceChip>,
    /// What is chalked and cannot be carried to paper.
    pub left: Vec<String>,
    /// Why there are none.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub none: Option<&'static str>,
    /// What may be changed on them.
    pub may: Vec<PieceMay>,
    /// How wide the cloth is.
    pub cloth_width: Figure,
    /// How much of it they need, in words.
    pub cloth: String,
}

/// The pieces of both sides, or of one.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PieceSet {
    /// Of which side; nothing where both are alike.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<GarmentSide>,
    /// Piece by piece.
    pub pieces: Vec<PieceShown>,
    /// Every pair of edges that is sewn together.
    pub joins: Vec<JoinShown>,
    /// What does not match.
    pub untrue: Vec<UntrueLine>,
}

/// A piece to look at: in mm, y down.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PieceShown {
    /// Which.
    pub key: PieceKey,
    /// What it is called.
    pub name: String,
    /// How it is cut: "cut 2, one mirrored".
    pub cut: &'static str,
    /// Left, top, width, height of all of it.
    pub view: [f64; 4],
    /// Its stitching lines as they are, where they will be others.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub old: Option<String>,
    /// Its stitching lines as they will be.
    pub outline: String,
    /// What is cut.
    pub cut_line: String,
    /// Darts, notches and grain.
    pub marks: String,
    /// Edge by edge.
    pub edges: Vec<EdgeShown>,
}

/// An edge of a piece.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct EdgeShown {
    /// Which.
    pub name: EdgeName,
    /// What it is called.
    pub words: String,
    /// Its line.
    pub path: String,
    /// How long it is once its darts are closed.
    pub long: Figure,
    /// What is cut outside of it.
    pub allowance: Figure,
}

/// Edges that are sewn together, to be walked one along the other.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct JoinShown {
    /// What they are sewn into.
    pub name: String,
    /// The piece and the edge of either, where it is one each.
    pub pair: Vec<[usize; 2]>,
    /// How long both are: "21.4 and 21.4 cm".
    pub says: String,
    /// They match.
    pub is_true: bool,
    /// Both laid straight from the same end, with their notches: where each lies, in mm.
    pub walked: Vec<Walked>,
}

/// One edge laid straight.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Walked {
    /// Of which piece.
    pub piece: String,
    /// How long it is, in mm.
    pub long_mm: f64,
    /// Where its notches lie, in mm from the same end.
    pub notches_mm: Vec<f64>,
}

/// What does not match.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct UntrueLine {
    /// What: "The side seam does not match".
    pub title: String,
    /// With both edges, and the difference.
    pub figures: String,
    /// The pieces it is about, by their place in the set.
    pub pieces: Vec<usize>,
    /// What would mend it.
    pub mends: Vec<PieceMend>,
}

/// A way to mend it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PieceMend {
    /// What is done.
    pub words: String,
    /// As it is entered.
    pub change: PieceChange,
}

/// Something that was done.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PieceChip {
    /// What, with its figure.
    pub words: String,
    /// Its place among what was entered here; nothing of what is chalked.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub entered: Option<usize>,
    /// Why it cannot be, and is not done.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cannot: Option<&'static str>,
}

/// A piece, and what may be named on it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PieceMay {
    /// Which.
    pub key: PieceKey,
    /// What it is called.
    pub name: String,
    /// Levels below which a line may be.
    pub levels: Vec<crate::place::Level>,
    /// Its edges.
    pub edges: Vec<EdgeShownName>,
}

/// An edge that may be named.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct EdgeShownName {
    /// Which.
    pub name: EdgeName,
    /// What it is called.
    pub words: String,
}

/// What is worked out before it is told.
struct Table {
    pieces: Vec<Piece>,
    old: Vec<Piece>,
    joins: Vec<Join>,
    side: Option<GarmentSide>,
}

/// The pieces of a garment with everything that is chalked in its newest try-on, and entered on paper; with figures on a tape, and on cloth so
/// wide.
///
/// # Errors
/// Every fault of the document, and of what is pinned in its newest try-on.
pub fn pieces(document: &Document, width: Option<Length>, tape: Tape) -> Result<Pieces, Vec<Fault>> {
    let laid = lay(document, tape)?;
    let width = width.unwrap_or(USUAL_WIDTH);
    let first = laid.sets.first();
    Ok(Pieces {
        none: first.is_none_or(|set| set.pieces.is_empty()).then_some(
            "This garment is not unrolled: too few of its levels are known, or legs and shoulders are cut in one.",
        ),
        may: first.map(|set| set.pieces.iter().map(may).collect()).unwrap_or_default(),
        cloth_width: tape.figure(width),
        cloth: cloth_words(&laid.sets, width, tape),
        sets: laid.sets.iter().map(|set| set_shown(set, tape)).collect(),
        chips: laid.chips,
        left: laid.left,
    })
}

impl Pieces {
    /// What is cut, line by line: each piece, how often, and what is left outside its edges; then the cloth.
    pub fn cutting_list(&self) -> String {
        let mut lines: Vec<String> = Vec::new();
        for set in &self.sets {
            for piece in &set.pieces {
                let side = set.side.map_or_else(String::new, |side| format!(", {} side", side.name()));
                lines.push(format!("{}{side}: {}", piece.name, piece.cut));
                lines.extend(piece.edges.iter().map(|edge| {
                    let outside = if edge.allowance.nm == 0 {
                        "no allowance".into()
                    } else {
                        format!("{} allowance, per edge", edge.allowance.text())
                    };
                    format!("  {}: {} sewn, {outside}", edge.words, edge.long.text())
                }));
            }
        }
        lines.push(self.cloth.clone());
        lines.join("\n") + "\n"
    }
}

/// The sheets of all pieces, or of one, at true size: what is cut, what is sewn, as it was and as it will be.
///
/// # Errors
/// As [`pieces`].
pub fn piece_sheets(
    document: &Document,
    key: Option<PieceKey>,
    tape: Tape,
) -> Result<Vec<PaperSheet>, Vec<Fault>> {
    let laid = lay(document, tape)?;
    let mut sheets = Vec::new();
    for set in &laid.sets {
        for (piece, old) in
            set.pieces.iter().zip(&set.old).filter(|(p, _)| key.is_none_or(|key| key == p.key))
        {
            sheets.push(sheet(piece, old, set.side, tape));
        }
    }
    Ok(sheets)
}

struct Laid {
    sets: Vec<Table>,
    chips: Vec<PieceChip>,
    left: Vec<String>,
}

fn lay(document: &Document, tape: Tape) -> Result<Laid, Vec<Fault>> {
    let faults = document.faults();
    if !faults.is_empty() {
        return Err(faults);
    }
    let no_state = || vec![Fault { path: "states".into(), wrong: Wrong::NoState }];
    let newest = document.newest().ok_or_else(no_state)?;
    let fresh = TryOn::on(newest.id, jiff::civil::Date::default());
    let is_finished = document.is_finished();
    let try_on = document.try_ons.last().filter(|_| !is_finished).unwrap_or(&fresh);
    let state = document.state(try_on.state).unwrap_or(newest);
    let garment = &*state.garment.with_levels_in_order(&document.wearer);
    let keeps_all = false;
    let on = On { garment, wearer: &document.wearer, hem_marks: &try_on.hem_marks, keeps_all };
    let at = document.try_ons.len().saturating_sub(1);
    let drawn = draw(on, &try_on.changes).map_err(|wrong| {
        let path = |(n, field, wrong): (usize, String, Wrong)| Fault {
            path: format!("try_ons[{at}].changes[{n}].{field}"),
            wrong,
        };
        wrong.into_iter().map(path).collect::<Vec<_>>()
    })?;
    let old = unroll(garment, &document.wearer, None);
    let mut chips: Vec<PieceChip> = Vec::new();
    let (mut sets, mut left): (Vec<Table>, Vec<ChangeKey>) = (Vec::new(), Vec::new());
    let entered = &document.wishes.pattern.changes;
    let mut cannot: Vec<Option<CannotBe>> = vec![None; entered.len()];
    for side in GarmentSide::BOTH {
        let (mut pieces, out) = carried((garment, &document.wearer), &drawn, side, tape);
        left = out;
        for (change, cannot) in entered.iter().zip(&mut cannot) {
            if let Err(why) = apply(&mut pieces, change) {
                *cannot = Some(why);
            }
        }
        let joins = joins(garment, &pieces);
        sets.push(Table { pieces, old: old.clone(), joins, side: Some(side) });
    }
    if sets.len() == 2 && sets[0].pieces == sets[1].pieces {
        sets.truncate(1);
        sets[0].side = None;
    }
    let is_done = |change: &&DrawnChange<'_>| change.is_altered() && !left.contains(&change.key());
    chips.extend(drawn.iter().filter(is_done).map(|change| PieceChip {
        words: format!("{}, as it is chalked", capital(&change.key().name(garment))),
        entered: None,
        cannot: None,
    }));
    chips.extend(entered.iter().zip(cannot).enumerate().map(|(n, (change, cannot))| PieceChip {
        words: change_words(change, tape),
        entered: Some(n),
        cannot: cannot.map(cannot_words),
    }));
    let left = left
        .iter()
        .filter(|key| drawn.iter().any(|change| change.key() == **key && change.is_altered()))
        .map(|key| capital(&key.name(garment)))
        .collect();
    Ok(Laid { sets, chips, left })
}

fn may(piece: &Piece) -> PieceMay {
    let mut edges: Vec<EdgeShownName> = Vec::new();
    for edge in &piece.edges {
        if edges.iter().all(|other| other.name != edge.name) {
            edges.push(EdgeShownName { name: edge.name, words: edge.name.name().into() });
        }
    }
    let levels = piece.levels.iter().map(|(level, _)| *level).collect();
    PieceMay { key: piece.key, name: capital(&piece.key.name()), levels, edges }
}

const fn cannot_words(why: CannotBe) -> &'static str {
    match why {
        CannotBe::NotThere => "there is no such piece, or no such edge of it",
        CannotBe::NoLevel => "that level does not cross the piece",
        CannotBe::TooMuch => "that is more than the piece has there",
        CannotBe::Crosses => "its outline would cross itself",
    }
}

/// "Side front 1.0 cm longer below the waist".
fn change_words(change: &PieceChange, tape: Tape) -> String {
    let show = |by: Measure| tape.speaking(by.unit).as_typed(Measure { length: by.length.abs(), ..by });
    let unit = |by: Measure| tape.speaking(by.unit).unit_name();
    let than = |by: Measure, more: &str, less: &str| {
        format!("{} {} {}", show(by), unit(by), if by.length.is_negative() { less } else { more })
    };
    match change {
        PieceChange::Length { part, face, below, by } => {
            let which = match face {
                Some(face) => format!("{}, {} only", part.name(), face.name()),
                None => format!("{}, front and back", part.name()),
            };
            format!("{} {} below the {}", capital(&which), than(*by, "longer", "shorter"), below.name())
        }
        PieceChange::Width { piece, by } => {
            format!("{} {}, on the piece", capital(&piece.name()), than(*by, "wider", "narrower"))
        }
        PieceChange::Wedge { piece, below, at, by } => format!(
            "{} {} below the {}, from {} to nothing",
            capital(&piece.name()),
            than(*by, "opened", "folded out"),
            below.name(),
            at.name()
        ),
        PieceChange::Flare { piece, by } => {
            format!("{} {} at its lower edge", capital(&piece.name()), than(*by, "opened", "closed"))
        }
        PieceChange::Allowance { piece, edge, width } => {
            format!(
                "{}: {} {} allowance at the {}",
                capital(&piece.name()),
                show(*width),
                unit(*width),
                edge.name()
            )
        }
        PieceChange::End { piece, edge, upper, by } => format!(
            "{}: {} {} at its {} end",
            capital(&piece.name()),
            edge.name(),
            than(*by, "longer", "shorter"),
            if *upper { "upper" } else { "lower" }
        ),
    }
}

/// Upside down, as it is painted.
fn painted(path: &BezPath) -> String {
    crate::figure::svg(&(Affine::FLIP_Y * path))
}

fn edge_path(edge: &Edge) -> BezPath {
    let mut path = BezPath::new();
    path.move_to(edge.start());
    edge.curves.iter().for_each(|c| path.curve_to(c.p1, c.p2, c.p3));
    path
}

/// Darts, notches, and the grain with its arrows.
fn marks(piece: &Piece) -> BezPath {
    let mut path = BezPath::new();
    for dart in &piece.darts {
        let [a, b] = dart.mouth;
        path.move_to(a);
        path.line_to(dart.point);
        path.line_to(b);
        if let Some(other) = dart.other {
            path.line_to(other);
            path.line_to(a);
        }
    }
    for edge in &piece.edges {
        for notch in &edge.notches {
            let (at, way) = edge.at(notch.along);
            path.move_to(at);
            path.line_to(at + kurbo::Vec2::new(way.y, -way.x) * edge.allowance.clamp(4.0, 12.0));
        }
    }
    let [low, high] = piece.grain;
    path.move_to(low);
    path.line_to(high);
    let way = (high - low).normalize();
    let side = kurbo::Vec2::new(-way.y, way.x);
    for (tip, back) in [(high, -1.0), (low, 1.0)] {
        path.move_to(tip + way * (back * 8.0) + side * 4.0);
        path.line_to(tip);
        path.line_to(tip + way * (back * 8.0) - side * 4.0);
    }
    path
}

fn cut_words(piece: &Piece) -> &'static str {
    match piece.cut {
        1 if piece.edge(EdgeName::Fold).is_some() => "cut 1 on the fold",
        1 => "cut 1",
        _ => "cut 2, one mirrored",
    }
}

fn set_shown(set: &Table, tape: Tape) -> PieceSet {
    PieceSet {
        side: set.side,
        pieces: set.pieces.iter().zip(&set.old).map(|(piece, old)| shown(piece, old, tape)).collect(),
        joins: set.joins.iter().map(|join| join_shown(set, join, tape)).collect(),
        untrue: true_up(&set.pieces, &set.joins)
            .iter()
            .map(|untrue| untrue_line(set, untrue, tape))
            .collect(),
    }
}

fn figure(mm: f64, tape: Tape) -> Figure {
    tape.figure(tape.round(Length::from_cm(mm / 10.0)))
}

fn shown(piece: &Piece, old: &Piece, tape: Tape) -> PieceShown {
    let cut = cut_line(piece);
    let all = cut.bounding_box().union(old.bounds()).inflate(4.0, 4.0);
    PieceShown {
        key: piece.key,
        name: capital(&piece.key.name()),
        cut: cut_words(piece),
        view: [all.x0, -all.y1, all.width(), all.height()].map(|v| (v * 100.0).round() / 100.0),
        old: (piece != old).then(|| painted(&old.outline())),
        outline: painted(&piece.outline()),
        cut_line: painted(&cut),
        marks: painted(&marks(piece)),
        edges: piece
            .edges
            .iter()
            .map(|edge| EdgeShown {
                name: edge.name,
                words: edge.name.name().into(),
                path: painted(&edge_path(edge)),
                long: figure(piece.sewn(edge), tape),
                allowance: figure(edge.allowance, tape),
            })
            .collect(),
    }
}

fn join_shown(set: &Table, join: &Join, tape: Tape) -> JoinShown {
    let lengths = join.lengths(&set.pieces);
    let [one, other] = lengths.map(|mm| figure(mm, tape));
    let eased = join.ease[1] > 0.0;
    let walked = join.pair().map(|pair| {
        pair.map(|at| {
            let piece = &set.pieces[at.piece];
            let edge = &piece.edges[at.edge];
            let along = edge.notches.iter().map(|notch| {
                let along = piece.sewn_along(edge, notch.along);
                let upwards = super::truing::is_upwards(piece, at.edge);
                if upwards { along } else { piece.sewn(edge) - along }
            });
            Walked { piece: piece.key.name(), long_mm: piece.sewn(edge), notches_mm: along.collect() }
        })
    });
    JoinShown {
        name: capital(join.name.name()),
        pair: join.pair().map(|pair| pair.map(|at| [at.piece, at.edge]).to_vec()).unwrap_or_default(),
        says: match eased {
            true => format!("{} round, and {} sewn into it", one.text(), other.text()),
            false => format!("{} and {}", one.bare(), other.text()),
        },
        is_true: join.off(&set.pieces).abs() <= DIFFER,
        walked: walked.map(Vec::from).unwrap_or_default(),
    }
}

fn untrue_line(set: &Table, untrue: &Untrue, tape: Tape) -> UntrueLine {
    let join = |n: usize| &set.joins[n];
    let names = |n: usize| {
        join(n).sides.each_ref().map(|(edges, _)| {
            let names: Vec<String> = edges.iter().map(|at| set.pieces[at.piece].key.name()).collect();
            names.join(" and ")
        })
    };
    let about = |n: usize| {
        let mut all: Vec<usize> =
            join(n).sides.iter().flat_map(|(edges, _)| edges.iter().map(|at| at.piece)).collect();
        all.sort_unstable();
        all.dedup();
        all
    };
    let show = |mm: f64| figure(mm.abs(), tape).text();
    match untrue {
        Untrue::Lengths { join: n, lengths, off } => {
            let [one, other] = names(*n);
            let [a, b] = lengths.map(|mm| figure(mm, tape));
            let which = if *off > 0.0 { &other } else { &one };
            UntrueLine {
                title: format!("The {} does not match", join(*n).name.name()),
                figures: format!(
                    "{} on the {one}, {} on the {other}: {} too long on the {which}",
                    a.text(),
                    b.text(),
                    show(*off)
                ),
                pieces: about(*n),
                mends: mends(set, join(*n), *off, tape),
            }
        }
        Untrue::Notches { join: n, number, apart } => UntrueLine {
            title: format!("A notch of the {} does not meet", join(*n).name.name()),
            figures: format!("notch {} lies {} apart, measured from the same end", number + 1, show(*apart)),
            pieces: about(*n),
            mends: Vec::new(),
        },
        Untrue::Corner { join: n, meet, together } => UntrueLine {
            title: format!("The {} comes to a point at the {}", meet[0].name(), join(*n).name.name()),
            figures: format!("{} and {} make {together:.0}° together, not 180°", names(*n)[0], names(*n)[1]),
            pieces: about(*n),
            mends: Vec::new(),
        },
        Untrue::Square { at, meets, degrees } => UntrueLine {
            title: format!("The {} is not square to the middle", meets.name()),
            figures: format!("{degrees:.0}° on the {}, not 90°", set.pieces[at.piece].key.name()),
            pieces: vec![at.piece],
            mends: Vec::new(),
        },
        Untrue::Legs { piece, dart, apart } => UntrueLine {
            title: format!("The legs of the {} differ", dart.name()),
            figures: format!("by {} on the {}", show(*apart), set.pieces[*piece].key.name()),
            pieces: vec![*piece],
            mends: Vec::new(),
        },
    }
}

/// Trim the longer edge, or go on with the shorter one: at either end.
fn mends(set: &Table, join: &Join, off: f64, tape: Tape) -> Vec<PieceMend> {
    let Some(pair) = join.pair() else { return Vec::new() };
    let [shorter, longer] = if off > 0.0 { pair } else { [pair[1], pair[0]] };
    let by = tape.round(Length::from_cm(off.abs() / 10.0));
    let mut all = Vec::new();
    // The second edge of a piece that is sewn to itself has no name of its own: the first one is mended.
    let is_named = |(at, _): &(super::joins::At, Length)| !set.pieces[at.piece].edges[at.edge].second;
    for (at, by) in [(longer, -by), (shorter, by)].into_iter().filter(is_named) {
        for upper in [false, true] {
            let piece = set.pieces[at.piece].key;
            let edge = set.pieces[at.piece].edges[at.edge].name;
            let end = if upper { "upper" } else { "lower" };
            let does = if by.is_negative() { "Trim" } else { "Add" };
            all.push(PieceMend {
                words: format!("{does} {} at the {end} end of the {}", tape.show(by.abs()), piece.name()),
                change: PieceChange::End {
                    piece,
                    edge,
                    upper,
                    by: Measure { length: by, unit: tape.unit() },
                },
            });
        }
    }
    all
}

/// How long a cloth they need: laid in rows, the tallest first, every piece the same way up.
fn cloth_words(sets: &[Table], width: Length, tape: Tape) -> String {
    let wide = width.cm() * 10.0;
    let mut boxes: Vec<(f64, f64)> = Vec::new();
    for set in sets {
        for piece in &set.pieces {
            let cut = cut_line(piece).bounding_box();
            let on_fold = piece.edge(EdgeName::Fold).is_some();
            // Of one side one, of both sides two.
            let count = if sets.len() > 1 || piece.cut == 1 { 1 } else { 2 };
            let once =
                (sets.len() == 2 && piece.cut == 1 && set.side == Some(GarmentSide::Right)).then_some(0);
            let across = if on_fold { 2.0 * cut.width() } else { cut.width() };
            boxes.extend((0..once.unwrap_or(count)).map(|_| (across, cut.height())));
        }
    }
    if boxes.is_empty() {
        return String::new();
    }
    if let Some((across, _)) = boxes.iter().find(|(across, _)| *across > wide) {
        let needs = tape.show(Length::from_cm(across / 10.0).up_to(tape.mark()));
        return format!("A piece is {needs} across: wider than this cloth");
    }
    boxes.sort_by(|a, b| b.1.total_cmp(&a.1));
    let mut rows: Vec<(f64, f64)> = Vec::new();
    for (across, tall) in boxes {
        match rows.iter_mut().find(|(used, _)| used + APART + across <= wide) {
            Some(row) => row.0 += APART + across,
            None => rows.push((across, tall)),
        }
    }
    let long: f64 = rows.iter().map(|(_, tall)| tall + APART).sum();
    let step = Length::from_mm(50);
    let long = Length::from_cm(long / 10.0).up_to(step);
    format!(
        "About {} of cloth {} wide, every piece the same way up, allowances and all",
        tape.show(long),
        tape.show(width)
    )
}

/// One piece at true size, with what is written on it.
fn sheet(piece: &Piece, old: &Piece, side: Option<GarmentSide>, tape: Tape) -> PaperSheet {
    let flip = Affine::FLIP_Y;
    let mut lines = vec![(PaperInk::New, flip * piece.outline()), (PaperInk::Cut, flip * cut_line(piece))];
    if piece != old {
        lines.push((PaperInk::Old, flip * old.outline()));
    }
    lines.push((PaperInk::Mark, flip * marks(piece)));
    for (_, y) in &piece.levels {
        let bounds: Rect = piece.bounds();
        let line = Line::new((bounds.x0, -*y), (bounds.x0 + 15.0, -*y));
        lines.push((PaperInk::Mark, line.to_path(0.01)));
    }
    let of = side.map_or_else(String::new, |side| format!(", {} side", side.name()));
    let centre = piece.bounds().center();
    let mut words = vec![(Point::new(centre.x - 30.0, -centre.y), cut_words(piece).to_owned())];
    for edge in &piece.edges {
        let (at, _) = edge.at(edge.length() / 2.0);
        let inside = at.lerp(centre, 0.06);
        let long = figure(piece.sewn(edge), tape);
        words.push((Point::new(inside.x, -inside.y), format!("{} {}", edge.name.name(), long.text())));
    }
    PaperSheet { title: format!("{}{of}", capital(&piece.key.name())), lines, words }
}
