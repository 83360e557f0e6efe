//! Paper in words and figures: the pieces old and new, what was done, what does not match and what mends it, and the cloth they need.

use super::as_cut::{cut_from_pieces, mean, outer, round_at};
use super::asks::{ChangeAsks, asks};
use super::cloth::{ClothLies, USUAL_WIDTH, cloth_words, not_drawn, off_border};
use super::cut_line::cut_line;
use super::joins::{At, Join};
use super::lay::{Laid, Set, lay};
use super::may::{PieceMay, may};
use super::on_stand::{StandOnPaper, on_stand};
use super::piece::{Edge, Piece, PieceDart, is_on};
use super::sheets::marks;
use super::toile::{ToileShown, says, toile_shown};
use super::truing::{DIFFER, is_upwards, true_up};
use super::untrue::{UntrueLine, at_marks, untrue_line};
use super::words::{cannot_words, change_words, eased_words, with_eased};
use crate::document::Document;
use crate::fault::Fault;
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Seam};
use crate::judge::LevelOf;
use crate::length::{Figure, Length, Tape};
use crate::place::Level;
use crate::record::{follow_round, width};
use crate::told::{LevelResult, capital};
use crate::work::{DrawnPiece, EdgeName, MarkSettled, Marked, PieceKey};
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
    /// It on its wearer, before and after; nothing where nothing is done on paper.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub stand: Option<StandOnPaper>,
    /// What is asked for everything that may be done to a piece.
    pub asks: Vec<ChangeAsks>,
    /// What goes round it otherwise than it is chalked, by what is done on paper.
    pub round: Vec<RoundOnPaper>,
    /// What may be changed on them.
    pub may: Vec<PieceMay>,
    /// How a toile of it is made and marked.
    pub toile: ToileShown,
    /// How wide the cloth is.
    pub cloth_width: Figure,
    /// How much of it they need, in words.
    pub cloth: String,
    /// What the garment has beside them, in sentences.
    pub not_drawn: Vec<String>,
    /// How pieces may lie on it.
    pub cloth_ways: Vec<ClothWay>,
    /// Hems that do not lie straight along a border, where there is one.
    pub off_border: Vec<String>,
}

/// What goes round at a level.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RoundOnPaper {
    /// Where, and round what: "hip, all round".
    pub name: String,
    /// As it is chalked.
    pub chalked: Figure,
    /// With what is done on paper.
    pub on_paper: Figure,
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
    /// What it takes at its widest, altogether: "takes 2.4 cm altogether".
    pub says: String,
    /// How long it is along its middle; nothing of one that is not stitched.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub long: Option<Figure>,
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
    let is_drawn = !document.wishes.pattern.drawn.is_empty();
    let cut = match laid.sets.iter().any(|set| set.pieces != set.old) {
        true => {
            let cut = cut_from_pieces((&laid.garment, &document.wearer), &laid.sets, is_drawn, tape);
            goes_round_as_told(cut, &laid, tape)
        }
        false => laid.garment.clone(),
    };
    let chalked = laid.chalked.iter().map(|name| PieceChip {
        words: format!("{}, as it is chalked", capital(name)),
        entered: None,
        drawn: None,
        cannot: None,
    });
    let read = document.wishes.pattern.drawn.iter().enumerate().map(|(n, piece)| PieceChip {
        words: format!(
            "{}, {}",
            capital(&piece.piece.name()),
            if piece.of_toile { "as its toile was left" } else { "from a file" }
        ),
        entered: None,
        drawn: Some(n),
        cannot: None,
    });
    let marks = document.wishes.pattern.marks.iter().zip(&laid.marks);
    let is_done = |m: &Marked| m.settled == Some(MarkSettled::Now) && !document.wishes.pattern.is_past(m);
    let on_paper = marks.filter(|(marked, _)| is_done(marked));
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
    let sets: Vec<PieceSet> = laid.sets.iter().map(|set| set_shown(set, tape)).collect();
    let untrue = sets.iter().map(|set| set.untrue.len()).sum();
    Ok(Pieces {
        none: first.is_none_or(|set| set.pieces.is_empty()).then_some(
            "This garment is not unrolled: too few of its levels are known, or legs and shoulders are cut in one.",
        ),
        stand: on_stand(&laid, &cut, &document.wearer, tape),
        asks: asks(),
        round: round_on_paper(&laid, tape),
        may: first.map(|set| set.pieces.iter().map(|piece| may(piece, &set.pieces)).collect()).unwrap_or_default(),
        toile: toile_shown(&cut, &document.wishes.pattern, (&laid, untrue), tape),
        cloth_width: tape.figure(width),
        cloth: cloth_words(&laid.sets, width, lies, tape),
        not_drawn: not_drawn(&laid.garment, &laid.sets)
            .into_iter()
            .chain(contradiction(&laid, &document.wishes.pattern.drawn, tape))
            .collect(),
        cloth_ways: ClothLies::ALL.iter().map(|lies| ClothWay { lies: *lies, words: lies.name() }).collect(),
        off_border: match (lies, first) {
            (ClothLies::Border, Some(_)) => laid.sets.iter().flat_map(|set| off_border(&set.pieces, tape)).collect(),
            (ClothLies::Border | ClothLies::OneWay | ClothLies::Either, _) => Vec::new(),
        },
        sets,
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
                    let long = dart.long.map_or_else(String::new, |long| format!(", {} long", long.text()));
                    format!("  {}: {}{long}", dart.words, dart.says)
                }));
            }
        }
        lines.push(self.cloth.clone());
        lines.extend(self.not_drawn.clone());
        lines.join("\n") + "\n"
    }
}

/// Where paper makes it wider or narrower, at a mark: by what its pieces have more than those that are chalked.
fn round_on_paper(laid: &Laid, tape: Tape) -> Vec<RoundOnPaper> {
    let told = |level: &LevelResult| {
        let chalked = Length::from_nm(level.after.nm);
        let on_paper = round_with_paper(laid, level, tape)?;
        let of = if level.of == LevelOf::Garment { ", all round" } else { "" };
        (on_paper != chalked).then(|| RoundOnPaper {
            name: format!("{}{of}", level.name),
            chalked: level.after,
            on_paper: tape.figure(on_paper),
        })
    };
    laid.levels.iter().filter_map(told).collect()
}

/// What goes round a level: as it is chalked, and as much more as paper makes it, at a mark. Nothing where pieces do not have it, and of a neckline that
/// goes on below what was measured.
fn round_with_paper(laid: &Laid, level: &LevelResult, tape: Tape) -> Option<Length> {
    let is_own = |set: &&Set| level.of.is_of_both() || set.side.is_none() || set.side == level.of.side();
    let more = laid.sets.iter().filter(is_own).map(|set| {
        let of = |pieces: &[Piece]| round_at(&laid.garment, &outer(pieces), level.level);
        Some(of(&set.pieces)? - of(&set.chalked)?)
    });
    let more = mean(&more.collect::<Option<Vec<f64>>>()?)?;
    let chalked = Length::from_nm(level.after.nm);
    let is_girth = level.level != Level::Neck || laid.garment.is_neck_its_edge();
    is_girth.then(|| tape.round(chalked + Length::from_cm(more / 10.0)))
}

/// Says where the neck goes round what no neckline between these shoulders does. Of pieces that were drawn elsewhere nothing.
fn contradiction(laid: &Laid, on_file: &[DrawnPiece], tape: Tape) -> Option<String> {
    let garment = &laid.garment;
    let around = garment.level(Level::Neck).filter(|_| garment.is_neck_its_edge() && on_file.is_empty())?;
    let pieces = outer(&laid.sets.first()?.old);
    // A button stand goes round twice.
    let stands = pieces.iter().filter(|piece| piece.edge(EdgeName::Neckline).is_some());
    let laps: f64 = stands
        .filter_map(|piece| piece.edge(EdgeName::Opening).map(|edge| -edge.start().x.max(edge.end().x)))
        .sum();
    let edge = Length::from_cm((round_at(garment, &pieces, Level::Neck)? - 2.0 * laps) / 10.0);
    let differs = (edge - around.width.girth()).abs() > Length::from_cm(DIFFER / 10.0);
    let end = if edge > around.width.girth() { "no less than" } else { "no more than" };
    differs.then(|| {
        format!(
            "The neck goes round {}; between these shoulders a neckline goes round {end} {}: measure the shoulders, their seam and the neck again",
            tape.show(tape.round(around.width.girth())),
            tape.show(tape.round(edge))
        )
    })
}

/// What is cut goes round what is told to go round it: of sides that differ what lies between them.
fn goes_round_as_told(mut cut: Garment, laid: &Laid, tape: Tape) -> Garment {
    for facts in &mut cut.levels {
        let own = laid.levels.iter().filter(|told| told.level == facts.level);
        let all: Option<Vec<f64>> = own.map(|told| Some(round_with_paper(laid, told, tape)?.cm())).collect();
        if let Some(round) = all.and_then(|all| mean(&all)).map(|cm| tape.round(Length::from_cm(cm)))
            && round != facts.width.on(tape)
        {
            facts.width = width(facts.width, round, tape);
        }
    }
    // What is sewn into a waist seam or a neck seam is as long as it, as in the record.
    for seam in [Seam::WaistSeam, Seam::NeckSeam] {
        let before = laid.garment.seam(seam).map(|before| before.length);
        if let Some((facts, before)) = cut.seams.iter_mut().find(|facts| facts.seam == seam).zip(before) {
            facts.length = before;
        }
    }
    follow_round(&mut cut, &laid.garment, tape);
    cut
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
                words: with_eased(edge.name.name().into(), edge, tape),
                path: painted(&edge_path(edge)),
                long: figure(piece.sewn(edge), tape),
                allowance: figure(edge.allowance, tape),
            })
            .collect(),
        darts: piece.darts.iter().map(|dart| dart_shown(dart, tape)).collect(),
    }
}

fn dart_shown(dart: &PieceDart, tape: Tape) -> DartShown {
    DartShown {
        words: dart.called(),
        says: format!("takes {} altogether", figure(dart.takes(), tape).text()),
        long: dart.loose.is_none().then(|| figure(dart.long(), tape)),
    }
}

fn join_shown(set: &Set, join: &Join, tape: Tape) -> JoinShown {
    let [one, other] = at_marks(set, join, tape).map(|length| tape.figure(length));
    let eased = join.is_eased();
    let at = |(edges, times): &(Vec<At>, u8)| edges.iter().map(|at| (*at, *times)).collect::<Vec<_>>();
    let loose = join.sides.iter().flat_map(at).flat_map(|(at, times)| {
        let piece = &set.pieces[at.piece];
        let on = piece.darts.iter().filter(|dart| is_on(&piece.edges[at.edge], dart));
        let told = |dart: &PieceDart| {
            let takes = tape.round(Length::from_cm(dart.takes() / 10.0)) * i64::from(times);
            let takes = tape.figure(takes).text();
            Some(format!("; {takes} {} on the {}, altogether", dart.loose?.name(), piece.key.name()))
        };
        let edge = &piece.edges[at.edge];
        let eased = eased_words(edge, tape).map(|eased| format!("; {eased} on the {}", piece.key.name()));
        on.filter_map(told).chain(eased).collect::<Vec<_>>()
    });
    let loose: String = loose.collect();
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
            true => format!("{} round, and {} sewn into it{loose}", one.text(), other.text()),
            false => format!("{} and {}{loose}", one.bare(), other.text()),
        },
        is_true: join.off(&set.pieces).abs() <= DIFFER,
        walked: walked.map(Vec::from).unwrap_or_default(),
    }
}
