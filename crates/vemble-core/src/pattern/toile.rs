//! The toile in words: what of it is cut and how it is sewn, what is marked on it in which stage, and what becomes of each mark.

use super::drawn::drawn_of;
use super::lay::{Laid, Set};
use super::marks::{Carried, changes_of};
use super::words::{cannot_words, change_words};
use crate::document::LONGEST_NAME;
use crate::garment::{Closure, Garment, Run, Seam};
use crate::length::{Measure, Tape, Taught};
use crate::told::capital;
use crate::work::{DrawnPiece, EdgeName, MarkSettled, Marked, Pattern, ToileMark, ToileStage};
use serde::Serialize;
use utoipa::ToSchema;

/// How a toile is made and marked.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ToileShown {
    /// What is to be done before it is worn, line by line.
    pub before: Vec<String>,
    /// What is marked, stage by stage.
    pub stages: Vec<StageOfMarks>,
    /// What was marked.
    pub marks: Vec<MarkShown>,
    /// What waits for the real cloth, line by line.
    pub waiting: Vec<String>,
    /// How it stands: "2 marks are not settled".
    pub stands: String,
    /// How that is cut and basted, line by line: what is left for a fitting stays until it fits.
    pub basted: Vec<String>,
    /// The garment to begin in its real cloth.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub real: Option<InRealCloth>,
}

/// A garment that is cut once its toile fits: what nobody has measured on it is assumed, and what was left for it waits.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct InRealCloth {
    /// Its facts.
    pub garment: Garment,
    /// What of the toile's pattern goes with it.
    pub pattern: Pattern,
}

/// What is left outside of a seam that is fitted: 2.5 cm, 1 in (teaching value: what a basted seam is let out by on each edge, and trimmed once it fits).
const LEFT: Taught = Taught::new(25, 64);

/// It is fitted on the body: it runs down, or over the shoulder. Armholes, necklines, waists and crotches are bent, and are cut as they are.
fn is_fitted(seam: Seam) -> bool {
    let is_bent = matches!(seam, Seam::SeatSeam | Seam::FrontRise);
    seam == Seam::ShoulderSeam || matches!(seam.run(), Run::Down | Run::DownSleeve) && !is_bent
}

/// Its pieces are those of its toile, with more left at seams that are fitted, and its figures those that they have: nobody has measured them.
fn in_real_cloth(cut: &Garment, sets: &[Set], on_toile: &Pattern, tape: Tape) -> Option<InRealCloth> {
    let left = |own: Measure| {
        let left = Measure { length: LEFT.on(tape), unit: tape.unit() };
        if own.length < left.length { left } else { own }
    };
    let waits = on_toile.marks.iter().copied().filter(|mark| mark.settled == Some(MarkSettled::RealCloth));
    let mut pattern = Pattern { marks: waits.collect(), ..Pattern::default() };
    if !cut.toile || sets.iter().all(|set| set.pieces.is_empty()) {
        return None;
    }
    // Its pieces are those of the toile as they were left. Where sides differ there is no one piece for both, and they follow from its figures.
    if let [set] = sets
        && set.pieces != set.old
    {
        let drawn = set.pieces.iter().map(|piece| DrawnPiece { of_toile: true, ..drawn_of(piece) });
        pattern.drawn = drawn.collect();
        let outer = pattern.drawn.iter_mut().filter(|piece| piece.piece.layer.is_outer());
        for edge in outer.flat_map(|piece| &mut piece.edges) {
            if matches!(edge.name, EdgeName::Seam(seam) if is_fitted(seam)) {
                edge.allowance = edge.allowance.map(left);
            }
        }
    }
    let mut garment = cut.clone();
    garment.toile = false;
    garment.name = format!("{}, in its real cloth", cut.name).chars().take(LONGEST_NAME).collect();
    garment.levels.iter_mut().for_each(|level| level.assumed = true);
    for facts in &mut garment.seams {
        facts.assumed = true;
        if is_fitted(facts.seam) {
            facts.allowance = left(facts.allowance);
            facts.allowance_back = facts.allowance_back.map(left);
        }
    }
    garment.darts.iter_mut().for_each(|dart| dart.assumed = true);
    Some(InRealCloth { garment, pattern })
}

/// The marks of a stage.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StageOfMarks {
    /// Which.
    pub stage: ToileStage,
    /// What it is called.
    pub words: &'static str,
    /// What is done first in it.
    pub first: &'static str,
    /// Marks that may be made.
    pub marks: Vec<MarkOffered>,
}

/// A mark that may be made.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MarkOffered {
    /// Which.
    pub mark: ToileMark,
    /// What it is called.
    pub words: String,
    /// What is measured, and which way is less than nought.
    pub how: &'static str,
}

/// A mark that was made, and what becomes of it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MarkShown {
    /// Which.
    pub mark: ToileMark,
    /// In which stage.
    pub stage: ToileStage,
    /// On which toile.
    pub toile: u8,
    /// What it says: "Neckline gape: 0.8 cm".
    pub says: String,
    /// By how much, as it was entered.
    pub by: String,
    /// When it is settled.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub settled: Option<MarkSettled>,
    /// The changes that it becomes.
    pub becomes: Vec<String>,
    /// Why it cannot be, and is not done.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cannot: Option<&'static str>,
    /// What the toile before said there.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub earlier: Option<String>,
}

/// The toile of a garment, with what was marked on it, and the garment that is cut from its pieces.
pub(super) fn toile_shown(cut: &Garment, pattern: &Pattern, laid: &Laid, tape: Tape) -> ToileShown {
    let (marks, garment) = (&pattern.marks, &laid.garment);
    let pieces = laid.sets.first().map_or(&[][..], |set| &set.pieces[..]);
    let has_sleeves = garment.sleeve_length.is_some();
    let offered = |stage: ToileStage| {
        let marks = ToileMark::ALL.iter().copied().filter(|mark| is_made_in(*mark, stage));
        let would_be = |mark: ToileMark| {
            let by = tape.figure(tape.mark()).measure();
            !changes_of(&Marked { mark, stage, toile: 1, by, settled: None }, pieces, tape).is_empty()
        };
        let words = |mark: ToileMark| MarkOffered { mark, words: capital(mark.name()), how: how(mark) };
        marks.filter(|mark| would_be(*mark)).map(words).collect::<Vec<_>>()
    };
    let first = |stage| match stage {
        ToileStage::Bare if has_sleeves => {
            "Without its sleeves, closed as it will be: pull nothing straight."
        }
        ToileStage::Bare => {
            "What hangs from the shoulders first, closed as it will be: pull nothing straight."
        }
        ToileStage::Sleeved if has_sleeves => {
            "One sleeve is set in, and what was left off is sewn on: reach, sit, lift both arms."
        }
        ToileStage::Sleeved => "What was left off is sewn on: reach, sit, bend, walk.",
    };
    let shown = marks.iter().zip(&laid.marks).map(|(marked, Carried { changes, cannot })| {
        let before =
            |m: &&Marked| (m.mark, m.stage, m.toile + 1) == (marked.mark, marked.stage, marked.toile);
        MarkShown {
            mark: marked.mark,
            stage: marked.stage,
            toile: marked.toile,
            says: says(marked, tape),
            by: show(marked, tape),
            settled: marked.settled,
            becomes: changes.iter().map(|change| change_words(change, tape)).collect(),
            cannot: cannot.map(cannot_words),
            earlier: marks.iter().find(before).map(|m| format!("{} on the toile before", show(m, tape))),
        }
    });
    let waits = marks.iter().filter(|m| m.settled == Some(MarkSettled::RealCloth));
    let waiting: Vec<String> = waits.map(|m| says(m, tape)).collect();
    let count = |settled: Option<MarkSettled>| marks.iter().filter(|m| m.settled == settled).count();
    ToileShown {
        before: before(garment, laid),
        stages: ToileStage::ALL
            .iter()
            .map(|stage| StageOfMarks {
                stage: *stage,
                words: stage_words(*stage, has_sleeves),
                first: first(*stage),
                marks: offered(*stage),
            })
            .collect(),
        marks: shown.collect(),
        stands: stands(marks.len(), count(None), waiting.len(), count(Some(MarkSettled::NextTime))),
        waiting,
        basted: basted(garment, tape),
        real: in_real_cloth(cut, &laid.sets, pattern, tape),
    }
}

fn show(marked: &Marked, tape: Tape) -> String {
    let tape = tape.speaking(marked.by.unit);
    format!("{} {}", tape.as_typed(marked.by), tape.unit_name())
}

/// "Neckline gape: 0.8 cm".
pub(super) fn says(marked: &Marked, tape: Tape) -> String {
    format!("{}: {}", capital(marked.mark.name()), show(marked, tape))
}

const fn stage_words(stage: ToileStage, has_sleeves: bool) -> &'static str {
    match (stage, has_sleeves) {
        (ToileStage::Bare, true) => "First, without sleeves",
        (ToileStage::Bare, false) => "First, what it hangs by",
        (ToileStage::Sleeved, true) => "Then with one sleeve and all the rest",
        (ToileStage::Sleeved, false) => "Then with all the rest",
    }
}

/// "3 marks: 1 is not settled yet, 1 waits for the real cloth".
fn stands(all: usize, open: usize, waiting: usize, next: usize) -> String {
    let marks = |n: usize| if n == 1 { "1 mark".to_owned() } else { format!("{n} marks") };
    if all == 0 {
        return "Nothing is marked yet.".into();
    }
    let parts: Vec<String> = [
        (open, "is not settled yet", "are not settled yet"),
        (all - open - waiting - next, "is on paper", "are on paper"),
        (waiting, "waits for the real cloth", "wait for the real cloth"),
        (next, "is for next time", "are for next time"),
    ]
    .into_iter()
    .filter(|(n, ..)| *n > 0)
    .map(|(n, one, many)| format!("{n} {}", if n == 1 { one } else { many }))
    .collect();
    format!("{}: {}.", marks(all), parts.join(", "))
}

/// How the real garment is cut and basted, so that it is fitted as its toile was (handbook 11.1 and 14).
fn basted(garment: &Garment, tape: Tape) -> Vec<String> {
    let seams = garment.seams.iter().map(|facts| facts.seam).filter(|seam| is_fitted(*seam));
    let seams: Vec<String> = seams.map(|seam| format!("{}s", seam.name())).collect();
    let left = tape.show(LEFT.on(tape));
    vec![
        format!("Cut with {left} per edge at the {}: it stays until everything fits.", seams.join(", at the ")),
        "Thread-trace every seam line, the middles and the balance lines, so that they are seen from both sides.".into(),
        "Baste it together by hand or in the longest stitch; nothing is trimmed, clipped or pressed hard.".into(),
        "Pin it on the body in Try on: its lines, its plan and its try-ons before cutting are those of every garment.".into(),
    ]
}

/// What is done before it is worn (handbook 11.1).
fn before(garment: &Garment, laid: &Laid) -> Vec<String> {
    let names = laid.sets.first().map_or_else(Vec::new, |set| {
        let outer = set.pieces.iter().filter(|piece| piece.key.layer.is_outer());
        outer.map(|piece| piece.key.name()).collect::<Vec<_>>()
    });
    let mut lines = vec![format!("Cut only what fits the body: {}.", names.join("; "))];
    let left: Vec<&str> = [
        (!garment.pockets.is_empty(), "pockets"),
        (garment.belt_loops > 0, "belt loops"),
        (garment.closures.iter().any(|c| c.closure == Closure::Buttons), "button stands and buttons"),
        (true, "facings, lining and trims"),
    ]
    .into_iter()
    .filter(|(has, _)| *has)
    .map(|(_, name)| name)
    .collect();
    lines.push(format!("Leave out {}.", left.join(", ")));
    lines.push("Cloth of like weight and drape, grain marked; balance lines drawn level across front and back at bust, waist and hip.".into());
    lines.push(
        "Longest straight stitch, 5 mm, so that it rips; every allowance clipped where it curves in.".into(),
    );
    let closures: Vec<String> =
        garment.closures.iter().map(|c| format!("{} {}", c.closure.name(), c.at.name())).collect();
    lines.push(match closures.is_empty() {
        true => "It is pulled on as it will be.".into(),
        false => format!("Its closure in, or pinned on the closing line: {}.", closures.join(", ")),
    });
    if garment.sleeve_length.is_some() {
        lines.push("First without sleeves, then with one.".into());
    }
    lines
}

/// A mark is made in this stage.
const fn is_made_in(mark: ToileMark, stage: ToileStage) -> bool {
    match mark {
        ToileMark::ShoulderTip | ToileMark::ArmholeHinge | ToileMark::NecklineGape => true,
        ToileMark::BustPoint | ToileMark::Waist => matches!(stage, ToileStage::Bare),
        ToileMark::BalanceFront | ToileMark::BalanceBack | ToileMark::Hem => true,
        ToileMark::UpperArm | ToileMark::Wrist => matches!(stage, ToileStage::Sleeved),
    }
}

/// What is measured, and which way is less than nought.
const fn how(mark: ToileMark) -> &'static str {
    match mark {
        ToileMark::ShoulderTip => "the arm begins so far beyond the seam, each side; −1 inside it",
        ToileMark::NecklineGape => {
            "the edge is so much too long, twice the depth of a fold that takes it in, each side"
        }
        ToileMark::ArmholeHinge => "the arm hinges so far below the armhole, each side; −1 above it",
        ToileMark::BustPoint => "so much lower than the darts point; −1 higher",
        ToileMark::Waist => "the waist lies so much lower than its line; −1 higher",
        ToileMark::BalanceFront => "the line rises so much at the middle; −1 it drops there",
        ToileMark::BalanceBack => "the line drops so much at the middle; −1 it rises there",
        ToileMark::Hem => "so much longer, all round; −1 shorter",
        ToileMark::UpperArm => "so much wider, each sleeve; −1 narrower",
        ToileMark::Wrist => "so much longer; −1 shorter",
    }
}
