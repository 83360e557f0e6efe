//! The toile in words: what of it is cut and how it is sewn, what is marked on it in which stage, and what becomes of each mark.

use super::drawn::drawn_of;
use super::lay::{Laid, Set};
use super::marks::{Carried, changes_of};
use super::words::{cannot_words, change_words};
use crate::document::LONGEST_NAME;
use crate::garment::{Closure, Garment, Run, Seam};
use crate::length::{Measure, Tape, Taught};
use crate::told::capital;
use crate::work::{DrawnPiece, EdgeName, MarkSettled, Marked, Pattern, TOILES, ToileMark, ToileStage};
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
    /// Which toile is worn now: the first is 1.
    pub newest: u8,
    /// How many were sewn before: what was marked on them stays as it is.
    pub before_it: u8,
    /// Those that may be marked: as many as there were, and one more.
    pub toiles: Vec<u8>,
    /// What may be begun from its pieces: the next toile where something was done to them, the garment itself.
    pub begins: Vec<CutFromToile>,
}

/// A garment that is cut from the pieces of a toile: what nobody has measured on it is assumed.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CutFromToile {
    /// What is begun, as a button says it.
    pub words: String,
    /// What its pieces are.
    pub says: String,
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

/// The pieces of a toile as they were left. Nothing where they follow from its figures: unchanged, or where sides differ and no piece is that of both.
fn as_left(sets: &[Set], on_toile: &Pattern) -> Vec<DrawnPiece> {
    match sets {
        [set] if set.pieces != set.old || !on_toile.drawn.is_empty() => {
            set.pieces.iter().map(|piece| DrawnPiece { of_toile: true, ..drawn_of(piece) }).collect()
        }
        _ => Vec::new(),
    }
}

/// What the pieces of a garment are that is cut from those of a toile, so many lines of which say that something does not match.
fn as_left_words(sets: &[Set], untrue: usize) -> String {
    let has = match sets {
        [_, _, ..] => {
            "Its left and right pieces differ: what is begun has one figure for both, which lies in the middle. Print these before."
        }
        _ => "What is begun has these pieces, as they are left here.",
    };
    match untrue {
        0 => has.into(),
        1 => format!("{has} One thing does not match yet: see Pieces."),
        _ => format!("{has} {untrue} things do not match yet: see Pieces."),
    }
}

/// A garment with the figures that its pieces have: nobody has measured them.
fn unmeasured(cut: &Garment) -> Garment {
    let mut garment = cut.clone();
    garment.levels.iter_mut().for_each(|level| level.assumed = true);
    garment.seams.iter_mut().for_each(|seam| seam.assumed = true);
    garment.darts.iter_mut().for_each(|dart| dart.assumed = true);
    garment
}

/// The name of a toile with what is cut from it, instead of which toile it is; as much of it as there is room for.
fn named(toile: &Garment, on_toile: &Pattern, what: &str) -> String {
    let number = format!(", toile {}", on_toile.toiles_before + 1);
    let own = toile.name.strip_suffix(&number).unwrap_or(&toile.name);
    own.chars().take(LONGEST_NAME - what.len() - 2).chain(format!(", {what}").chars()).collect()
}

/// It is cut once its toile fits: what was left for it waits, and more is left at seams that are fitted.
fn in_real_cloth(
    cut: &Garment,
    (sets, left, says): (&[Set], &[DrawnPiece], String),
    on_toile: &Pattern,
    tape: Tape,
) -> Option<CutFromToile> {
    let wide = |own: Measure| {
        let wide = Measure { length: LEFT.on(tape), unit: tape.unit() };
        if own.length < wide.length { wide } else { own }
    };
    if !cut.toile || sets.iter().all(|set| set.pieces.is_empty()) {
        return None;
    }
    let waits = on_toile.standing_marks().copied().filter(|m| m.settled == Some(MarkSettled::RealCloth));
    let mut pattern = Pattern { marks: waits.collect(), drawn: left.to_vec(), ..Pattern::default() };
    let outer = pattern.drawn.iter_mut().filter(|piece| piece.piece.layer.is_outer());
    for edge in outer.flat_map(|piece| &mut piece.edges) {
        if matches!(edge.name, EdgeName::Seam(seam) if is_fitted(seam)) {
            edge.allowance = edge.allowance.map(wide);
        }
    }
    let mut garment = unmeasured(cut);
    garment.toile = false;
    garment.name = named(cut, on_toile, "in its real cloth");
    for facts in garment.seams.iter_mut().filter(|facts| is_fitted(facts.seam)) {
        facts.allowance = wide(facts.allowance);
        facts.allowance_back = facts.allowance_back.map(wide);
    }
    let words = "Begin the garment in its real cloth".into();
    Some(CutFromToile { words, says, garment, pattern })
}

/// The toile that is sewn after one whose pieces were changed. What was marked goes with it, so that it is held against the one before.
fn next_toile(
    cut: &Garment,
    (sets, left, says): (&[Set], &[DrawnPiece], String),
    (on_toile, carried): (&Pattern, &[Carried]),
) -> Option<CutFromToile> {
    let is_changed = sets.iter().any(|set| set.pieces != set.old);
    let number = on_toile.newest_toile() + 1;
    if !cut.toile || !is_changed || number > TOILES {
        return None;
    }
    // What could not be done is not in its pieces.
    let settled = |(marked, carried): (&Marked, &Carried)| Marked {
        settled: marked.settled.filter(|_| carried.cannot.is_none()),
        ..*marked
    };
    let pattern = Pattern {
        toiles_before: number - 1,
        marks: on_toile.marks.iter().zip(carried).map(settled).collect(),
        drawn: left.to_vec(),
        ..Pattern::default()
    };
    let mut garment = unmeasured(cut);
    garment.name = named(cut, on_toile, &format!("toile {number}"));
    let words = format!("Begin toile {number}, cut from these pieces");
    Some(CutFromToile { words, says, garment, pattern })
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
    /// For each toile that may be marked what the last one before it said there: "0.8 cm on toile 1". Nothing where none was marked.
    pub earlier: Vec<Option<String>>,
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
    /// What became of it, where its toile was sewn and changed before this one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub past: Option<&'static str>,
    /// The changes that it becomes.
    pub becomes: Vec<String>,
    /// Why it cannot be, and is not done.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cannot: Option<&'static str>,
}

/// The toile of a garment, with what was marked on it, and the garment that is cut from its pieces, of which so many things do not match.
pub(super) fn toile_shown(
    cut: &Garment,
    pattern: &Pattern,
    (laid, untrue): (&Laid, usize),
    tape: Tape,
) -> ToileShown {
    let (marks, garment) = (&pattern.marks, &laid.garment);
    let pieces = laid.sets.first().map_or(&[][..], |set| &set.pieces[..]);
    let has_sleeves = garment.sleeve_length.is_some();
    let toiles = 1..=TOILES.min(pattern.newest_toile() + 1);
    let offered = |stage: ToileStage| {
        let may_be = ToileMark::ALL.iter().copied().filter(|mark| is_made_in(*mark, stage));
        let would_be = |mark: ToileMark| {
            let by = tape.figure(tape.mark()).measure();
            !changes_of(&Marked { mark, stage, toile: 1, by, settled: None }, pieces, tape).is_empty()
        };
        let earlier = |mark: ToileMark, toile: u8| {
            let before = marks.iter().filter(|m| (m.mark, m.stage) == (mark, stage) && m.toile < toile);
            let last = before.max_by_key(|m| m.toile)?;
            Some(format!("{} on toile {}", show(last, tape), last.toile))
        };
        let words = |mark: ToileMark| MarkOffered {
            mark,
            words: capital(mark.name()),
            how: how(mark),
            earlier: toiles.clone().map(|toile| earlier(mark, toile)).collect(),
        };
        may_be.filter(|mark| would_be(*mark)).map(words).collect::<Vec<_>>()
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
    let shown = marks.iter().zip(&laid.marks).map(|(marked, Carried { changes, cannot })| MarkShown {
        mark: marked.mark,
        stage: marked.stage,
        toile: marked.toile,
        says: says(marked, tape),
        by: show(marked, tape),
        settled: marked.settled,
        past: pattern.is_past(marked).then_some(match marked.settled {
            Some(MarkSettled::Now) => "was done on paper",
            Some(MarkSettled::RealCloth) => "left for the real cloth",
            Some(MarkSettled::NextTime) => "left for next time",
            None => "never settled",
        }),
        becomes: changes.iter().map(|change| change_words(change, tape)).collect(),
        cannot: cannot.map(cannot_words),
    });
    let left = as_left(&laid.sets, pattern);
    let pieces_left = || (&laid.sets[..], &left[..], as_left_words(&laid.sets, untrue));
    let standing: Vec<&Marked> = pattern.standing_marks().collect();
    let waits = standing.iter().filter(|m| m.settled == Some(MarkSettled::RealCloth));
    let waiting: Vec<String> = waits.map(|m| says(m, tape)).collect();
    let is_in_pieces = |m: &&&Marked| m.settled == Some(MarkSettled::Now) && pattern.is_past(m);
    let past = standing.iter().filter(is_in_pieces).count();
    let count = |settled| standing.iter().filter(|m| m.settled == settled).count();
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
        stands: stands(standing.len(), past, count(None), waiting.len(), count(Some(MarkSettled::NextTime))),
        waiting,
        basted: basted(garment, tape),
        newest: pattern.newest_toile(),
        before_it: pattern.toiles_before,
        toiles: toiles.clone().collect(),
        begins: [
            next_toile(cut, pieces_left(), (pattern, &laid.marks)),
            in_real_cloth(cut, pieces_left(), pattern, tape),
        ]
        .into_iter()
        .flatten()
        .collect(),
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
fn stands(all: usize, past: usize, open: usize, waiting: usize, next: usize) -> String {
    let marks = |n: usize| if n == 1 { "1 mark".to_owned() } else { format!("{n} marks") };
    if all == 0 {
        return "Nothing is marked yet.".into();
    }
    let parts: Vec<String> = [
        (open, "is not settled yet", "are not settled yet"),
        (past, "is in its pieces", "are in its pieces"),
        (all - past - open - waiting - next, "is on paper", "are on paper"),
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
