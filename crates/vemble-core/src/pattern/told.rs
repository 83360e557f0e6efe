//! Paper in words and figures: the pieces old and new, what was done, what does not match and what mends it, and the cloth they need.

use super::change::CannotBe;
use super::cloth::{ClothLies, USUAL_WIDTH, cloth_words, off_border};
use super::cut_line::cut_line;
use super::joined::{joined_to, lies_in_middle};
use super::joins::Join;
use super::lay::{Set, lay};
use super::made::{around_pocket, is_faced};
use super::piece::{Edge, Piece, PieceDart};
use super::sheets::marks;
use super::toile::{ToileShown, says, toile_shown};
use super::truing::{DIFFER, is_upwards, true_up};
use super::untrue::{UntrueLine, at_marks, untrue_line};
use crate::document::Document;
use crate::fault::Fault;
use crate::fitting::GarmentSide;
use crate::garment::{Dart, Seam};
use crate::length::{Figure, Length, Measure, Tape};
use crate::told::capital;
use crate::work::{
    EdgeName, EdgePlace, MarkSettled, PieceChange, PieceDoes, PieceFace, PieceKey, PieceLayer, PiecePart,
    PieceShare,
};
use kurbo::{Affine, BezPath, Shape};
use serde::Serialize;
use utoipa::ToSchema;

/// The pieces of a garment, as they are and as they will be.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Pieces {
    /// One set, or one for each side where left and right differ.
    pub sets: Vec<PieceSet>,
    /// What is done to them, in order: what was read, what was chalked, what was marked, then what was entered here.
    pub chips: Vec<PieceChip>,
    /// What is chalked and cannot be carried to paper.
    pub left: Vec<String>,
    /// Why there are none.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub none: Option<&'static str>,
    /// What may be changed on them.
    pub may: Vec<PieceMay>,
    /// How a toile of it is made and marked.
    pub toile: ToileShown,
    /// How wide the cloth is.
    pub cloth_width: Figure,
    /// How much of it they need, in words.
    pub cloth: String,
    /// How pieces may lie on it.
    pub cloth_ways: Vec<ClothWay>,
    /// Hems that do not lie straight along a border, where there is one.
    pub off_border: Vec<String>,
}

/// A way that pieces may lie on their cloth.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct ClothWay {
    /// Which.
    pub lies: ClothLies,
    /// In words.
    pub words: &'static str,
}

/// What they are cut from.
#[derive(Clone, Copy, Debug, Default)]
pub struct OfCloth {
    /// How wide it is; as is usual when nobody says so.
    pub width: Option<Length>,
    /// How they may lie on it.
    pub lies: Option<ClothLies>,
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
    /// Dart by dart.
    pub darts: Vec<DartShown>,
}

/// A dart of a piece.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DartShown {
    /// What it is called.
    pub words: String,
    /// What it takes at its widest, altogether.
    pub takes: Figure,
    /// How long it is along its middle.
    pub long: Figure,
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

/// Something that was done.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PieceChip {
    /// What, with its figure.
    pub words: String,
    /// Its place among what was entered here; nothing of what is chalked.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub entered: Option<usize>,
    /// Its place among the pieces that were read from a file.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub drawn: Option<usize>,
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
    /// Its darts that begin on an edge.
    pub darts: Vec<Dart>,
    /// What can be done to it.
    pub does: Vec<PieceDoes>,
    /// Seams along which it may be joined to the piece beside it.
    pub joins: Vec<Seam>,
    /// Seams in its middle that may be laid on a fold.
    pub folds: Vec<Seam>,
    /// Edges that may be faced.
    pub faced: Vec<EdgeShownName>,
}

/// An edge that may be named.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct EdgeShownName {
    /// Which.
    pub name: EdgeName,
    /// What it is called.
    pub words: String,
    /// Where places along it are measured from.
    pub from: &'static str,
    /// What its ends are called, the lower one first.
    pub ends: [&'static str; 2],
}

/// The pieces of a garment with everything that is chalked in its newest try-on, and entered on paper; with figures on a tape, and on a
/// cloth.
///
/// # Errors
/// Every fault of the document, and of what is pinned in its newest try-on.
pub fn pieces(document: &Document, cloth: OfCloth, tape: Tape) -> Result<Pieces, Vec<Fault>> {
    let laid = lay(document, tape)?;
    let (width, lies) =
        (cloth.width.unwrap_or_else(|| USUAL_WIDTH.on(tape)), cloth.lies.unwrap_or(ClothLies::OneWay));
    let first = laid.sets.first();
    let chalked = laid.chalked.iter().map(|name| PieceChip {
        words: format!("{}, as it is chalked", capital(name)),
        entered: None,
        drawn: None,
        cannot: None,
    });
    let read = document.wishes.pattern.drawn.iter().enumerate().map(|(n, piece)| PieceChip {
        words: format!("{}, from a file", capital(&piece.piece.name())),
        entered: None,
        drawn: Some(n),
        cannot: None,
    });
    let marks = document.wishes.pattern.marks.iter().zip(&laid.marks);
    let on_paper = marks.filter(|(marked, _)| marked.settled == Some(MarkSettled::Now));
    let marks = on_paper.map(|(marked, carried)| PieceChip {
        words: format!("{}, as it was marked on toile {}", says(marked, tape), marked.toile),
        entered: None,
        drawn: None,
        cannot: carried.cannot.map(cannot_words),
    });
    let entered = document.wishes.pattern.changes.iter().zip(&laid.cannot).enumerate();
    let entered = entered.map(|(n, (change, cannot))| PieceChip {
        words: change_words(change, tape),
        entered: Some(n),
        drawn: None,
        cannot: cannot.map(cannot_words),
    });
    Ok(Pieces {
        none: first.is_none_or(|set| set.pieces.is_empty()).then_some(
            "This garment is not unrolled: too few of its levels are known, or legs and shoulders are cut in one.",
        ),
        may: first.map(|set| set.pieces.iter().map(|piece| may(piece, &set.pieces)).collect()).unwrap_or_default(),
        toile: toile_shown((&laid.garment, &document.wearer), &document.wishes.pattern.marks, &laid, tape),
        cloth_width: tape.figure(width),
        cloth: cloth_words(&laid.sets, width, lies, tape),
        cloth_ways: ClothLies::ALL.iter().map(|lies| ClothWay { lies: *lies, words: lies.name() }).collect(),
        off_border: match (lies, first) {
            (ClothLies::Border, Some(_)) => laid.sets.iter().flat_map(|set| off_border(&set.pieces, tape)).collect(),
            (ClothLies::Border | ClothLies::OneWay | ClothLies::Either, _) => Vec::new(),
        },
        sets: laid.sets.iter().map(|set| set_shown(set, tape)).collect(),
        chips: read.chain(chalked).chain(marks).chain(entered).collect(),
        left: laid.left.iter().map(|name| capital(name)).collect(),
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
                lines.extend(piece.darts.iter().map(|dart| {
                    format!(
                        "  {}: takes {} altogether, {} long",
                        dart.words,
                        dart.takes.text(),
                        dart.long.text()
                    )
                }));
            }
        }
        lines.push(self.cloth.clone());
        lines.join("\n") + "\n"
    }
}

fn may(piece: &Piece, all: &[Piece]) -> PieceMay {
    let mut edges: Vec<EdgeShownName> = Vec::new();
    for edge in &piece.edges {
        if edges.iter().all(|other| other.name != edge.name) {
            let (name, words) = (edge.name, edge.name.name().into());
            let ends = [false, true].map(|upper| end_words(name, upper));
            edges.push(EdgeShownName { name, words, from: measured_from(piece.key, name), ends });
        }
    }
    let levels: Vec<_> = piece.levels.iter().map(|(level, _)| *level).collect();
    let darts: Vec<_> =
        piece.darts.iter().filter(|dart| dart.other.is_none()).map(|dart| dart.dart).collect();
    let seams = || {
        piece
            .edges
            .iter()
            .filter_map(|edge| if let EdgeName::Seam(seam) = edge.name { Some(seam) } else { None })
    };
    let folds: Vec<Seam> = seams().filter(|seam| lies_in_middle(*seam)).collect();
    let joins: Vec<Seam> = seams().filter(|seam| joined_to(all, piece, *seam).is_some()).collect();
    let is_made = |layer: PieceLayer| all.iter().any(|other| other.key == piece.key.of(layer));
    let is_outer = piece.key.layer.is_outer();
    let faced = edges
        .iter()
        .filter(|edge| is_outer && is_faced(piece, edge.name) && !is_made(PieceLayer::Facing(edge.name)));
    let faced: Vec<EdgeShownName> = faced.cloned().collect();
    let has = |name: EdgeName| piece.edge(name).is_some();
    let is_possible = |does: &PieceDoes| match does {
        PieceDoes::Length | PieceDoes::Wedge => !levels.is_empty(),
        PieceDoes::Width | PieceDoes::Flare | PieceDoes::Allowance | PieceDoes::End | PieceDoes::Slash => {
            true
        }
        PieceDoes::TurnDart | PieceDoes::DartPoint | PieceDoes::SlideDart | PieceDoes::EvenLegs => {
            !darts.is_empty()
        }
        PieceDoes::Neckline => has(EdgeName::Neckline) && has(EdgeName::Seam(Seam::ShoulderSeam)),
        PieceDoes::Split => piece.key.part != PiecePart::Waistband,
        PieceDoes::Join => !joins.is_empty(),
        PieceDoes::OnFold => !folds.is_empty(),
        PieceDoes::Facing => !faced.is_empty(),
        PieceDoes::Lining => is_outer && !is_made(PieceLayer::Lining),
        PieceDoes::Pocket => is_outer && around_pocket(piece).is_some() && !is_made(PieceLayer::Pocket),
    };
    let does = PieceDoes::ALL.iter().copied().filter(is_possible).collect();
    PieceMay {
        key: piece.key,
        name: capital(&piece.key.name()),
        levels,
        edges,
        darts,
        does,
        joins,
        folds,
        faced,
    }
}

/// Where places along an edge are measured from. Of a piece that goes all round no end is nearer the middle.
pub(super) fn measured_from(piece: PieceKey, edge: EdgeName) -> &'static str {
    // Of a sleeve in two pieces a cap has an upper end.
    let is_cap = edge == EdgeName::Seam(Seam::ArmholeSeam) && piece.share == PieceShare::Whole;
    match piece.face {
        _ if edge == EdgeName::Inner => "from its left end on paper",
        PieceFace::Round if edge.runs_across() || is_cap => "from its left end on paper",
        PieceFace::Front | PieceFace::Back if edge.runs_across() => "from the middle",
        PieceFace::Front | PieceFace::Back | PieceFace::Round => "from its upper end",
    }
}

/// An end of an edge.
pub(super) const fn end_words(edge: EdgeName, upper: bool) -> &'static str {
    match (edge, upper) {
        (EdgeName::Seam(Seam::ShoulderSeam), true) => "neck end",
        (EdgeName::Seam(Seam::ShoulderSeam), false) => "outer end",
        (_, true) => "upper end",
        (_, false) => "lower end",
    }
}

pub(super) const fn cannot_words(why: CannotBe) -> &'static str {
    match why {
        CannotBe::NotThere => "there is no such piece, or no such edge of it",
        CannotBe::NoLevel => "that level does not cross the piece",
        CannotBe::TooMuch => "that is more than the piece has there",
        CannotBe::Crosses => "its outline would cross itself",
        CannotBe::Misses => "the line misses: it ends beside its edge, at a corner, or leaves the piece",
        CannotBe::ThroughDart => "a dart is in the way: turn it elsewhere first",
        CannotBe::TooLittle => "that is too little to cut or to sew",
        CannotBe::Twice => "there is one already",
        CannotBe::NoName => "there are as many pieces or darts beside each other as can be",
        CannotBe::NotBeside => "only panels beside each other, and a yoke with what is below it, are joined",
        CannotBe::Unequal => "the two edges are not equally long: true them first",
        CannotBe::NotStraight => "the middle is not straight: it cannot lie on a fold",
        CannotBe::NotMiddle => "that is not in the middle of the piece",
        CannotBe::NotFaced => "that edge is not faced: it is sewn to another, or lies on a fold",
    }
}

/// "Side front 1.0 cm longer below the waist".
pub(super) fn change_words(change: &PieceChange, tape: Tape) -> String {
    let show = |by: Measure| tape.speaking(by.unit).as_typed(Measure { length: by.length.abs(), ..by });
    let unit = |by: Measure| tape.speaking(by.unit).unit_name();
    let than = |by: Measure, more: &str, less: &str| {
        format!("{} {} {}", show(by), unit(by), if by.length.is_negative() { less } else { more })
    };
    // Less than nought as it was typed: it is named, and cannot be.
    let typed = |far: Measure| format!("{} {}", tape.speaking(far.unit).as_typed(far), unit(far));
    let place = |piece: PieceKey, at: EdgePlace| {
        format!("{}, {} {}", at.edge.name(), typed(at.at), measured_from(piece, at.edge))
    };
    match change {
        PieceChange::Length { part, face, below, by } => {
            let which = match face {
                Some(face) => format!("{}, {} only", part.name(), face.name()),
                None if matches!(part, PiecePart::Sleeve | PiecePart::Waistband) => part.name().into(),
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
            "{}: {} {} at its {}",
            capital(&piece.name()),
            edge.name(),
            than(*by, "longer", "shorter"),
            end_words(*edge, *upper)
        ),
        PieceChange::TurnDart { piece, dart, to, keep } => {
            let becomes = if to.edge == EdgeName::Hem { "made flare at" } else { "turned to" };
            let kept = keep.filter(|kept| kept.length != Length::ZERO);
            let kept = kept
                .map_or_else(String::new, |kept| format!("; {} {} of it are kept", show(kept), unit(kept)));
            format!("{}: {} {becomes} the {}{kept}", capital(&piece.name()), dart.name(), place(*piece, *to))
        }
        PieceChange::DartPoint { piece, dart, by } => {
            format!("{}: {} {}", capital(&piece.name()), dart.name(), than(*by, "longer", "shorter"))
        }
        PieceChange::SlideDart { piece, dart, by } => {
            let than = than(*by, "further down or out", "further up or in");
            format!("{}: {} {than}, along its edge", capital(&piece.name()), dart.name())
        }
        PieceChange::Slash { piece, from, hinge, by } => format!(
            "{}: {} at the {}, to nothing at the {}",
            capital(&piece.name()),
            than(*by, "spread", "folded out"),
            place(*piece, *from),
            place(*piece, *hinge)
        ),
        PieceChange::EvenLegs { piece, dart } => {
            format!(
                "{}: legs of the {} made equal, its point moved across",
                capital(&piece.name()),
                dart.name()
            )
        }
        PieceChange::Neckline { piece, lower, wider } => {
            let does = [
                (lower, than(*lower, "lower in the middle", "higher in the middle")),
                (wider, than(*wider, "wider at the shoulder", "narrower at the shoulder")),
            ];
            let does = does.into_iter().filter(|(by, _)| by.length != Length::ZERO).map(|(_, words)| words);
            let does: Vec<String> = does.collect();
            let does = if does.is_empty() { "as it is".into() } else { does.join(", ") };
            format!("{}: neckline {does}, on the piece", capital(&piece.name()))
        }
        PieceChange::Split { piece, from, to } => {
            let [from, to] = [from, to].map(|at| place(*piece, *at));
            format!("{}: cut in two, from the {from}, to the {to}", capital(&piece.name()))
        }
        PieceChange::Join { piece, seam } => {
            format!("{}: joined to the piece beside it, without the {}", capital(&piece.name()), seam.name())
        }
        PieceChange::OnFold { piece, seam } => {
            format!("{}: on the fold, without the {}", capital(&piece.name()), seam.name())
        }
        PieceChange::Facing { piece, edge, wide } => {
            let made = piece.of(PieceLayer::Facing(*edge));
            format!("{}: made from the {}, {} wide", capital(&made.name()), piece.name(), typed(*wide))
        }
        PieceChange::Lining { piece } => {
            let made = piece.of(PieceLayer::Lining);
            format!("{}: made from the {}", capital(&made.name()), piece.name())
        }
        PieceChange::Pocket { piece, deep, wide } => {
            let wide =
                wide.map_or_else(|| "extended to the middle".into(), |wide| format!("{} wide", typed(wide)));
            format!(
                "{}: {} deep along the side, {wide}",
                capital(&piece.of(PieceLayer::Pocket).name()),
                typed(*deep)
            )
        }
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

fn set_shown(set: &Set, tape: Tape) -> PieceSet {
    PieceSet {
        side: set.side,
        pieces: (0..set.pieces.len()).map(|n| shown(set, n, tape)).collect(),
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

fn shown(set: &Set, n: usize, tape: Tape) -> PieceShown {
    let (piece, old) = (&set.pieces[n], set.old_of(n).filter(|old| **old != set.pieces[n]));
    let cut = cut_line(piece);
    let own = cut.bounding_box();
    let all = old.map_or(own, |old| own.union(old.bounds())).inflate(4.0, 4.0);
    PieceShown {
        key: piece.key,
        name: capital(&piece.key.name()),
        cut: set.cut_words(n),
        view: [all.x0, -all.y1, all.width(), all.height()].map(|v| (v * 100.0).round() / 100.0),
        old: old.map(|old| painted(&old.outline())),
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
        darts: piece.darts.iter().map(|dart| dart_shown(dart, tape)).collect(),
    }
}

fn dart_shown(dart: &PieceDart, tape: Tape) -> DartShown {
    let middle = dart.mouth[0].midpoint(dart.mouth[1]);
    DartShown {
        words: dart.dart.name().into(),
        takes: figure(dart.takes(), tape),
        long: figure(dart.point.distance(dart.other.unwrap_or(middle)), tape),
    }
}

fn join_shown(set: &Set, join: &Join, tape: Tape) -> JoinShown {
    let [one, other] = at_marks(set, join, tape).map(|length| tape.figure(length));
    let eased = join.is_eased();
    let walked = join.pair().map(|pair| {
        pair.map(|at| {
            let piece = &set.pieces[at.piece];
            let edge = &piece.edges[at.edge];
            let along = edge.notches.iter().map(|notch| {
                let along = piece.sewn_along(edge, notch.along);
                let upwards = is_upwards(piece, at.edge);
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
