//! A candidate tried out: drawn and judged like any other change, with what it takes in time and what shows of it.

use super::Table;
use super::candidate::{Candidate, Carrier};
use super::wanted::Wanted;
use crate::change::Drawn;
use crate::choice::choice;
use crate::garment::Dart;
use crate::judge::{Finding, FindingKey, Girth, LevelOf, Outcome, Rule, Subject, girths, judge};
use crate::length::Length;
use crate::place::Level;
use crate::plan::{Task, TasksOf, Thing, Undone, chain};
use crate::work::Wishes;

choice! {
    /// What shows outside afterwards.
    Trace {
        OldStitching => "the old stitching line shows where it is let out",
        NewDarts => "darts where there were none",
        /// Where everybody looks: of two that are alike the one behind comes first.
        InFront => "they lie in front",
        ElasticRows => "two short rows of stitching at the ends of the elastic",
        Topstitching => "topstitching that is sewn again",
        Panel => "a panel of other cloth, with a seam on either side of it",
    }
}

/// What is found out about a garment, and how long it takes, with only what no method touches: none is to blame for it.
#[derive(Default)]
pub(super) struct Baseline {
    found: Vec<(FindingKey, Outcome)>,
    minutes: u32,
}

impl Baseline {
    pub fn of(kept: &Subject<'_>) -> Self {
        let findings = judge(kept, &girths(kept));
        let found = findings.into_iter().map(|f| (f.key, f.outcome)).collect();
        Self { found, minutes: tasks(kept).iter().map(|task| task.usual).sum() }
    }

    /// It was found before, and was no better.
    pub fn knows(&self, finding: &Finding) -> bool {
        self.found.iter().any(|(key, outcome)| key.is(&finding.key) && *outcome >= finding.outcome)
    }
}

/// Everything that is to be done, whatever it is worth to somebody.
fn tasks(subject: &Subject<'_>) -> Vec<Task> {
    let wishes = Wishes { schools: subject.schools, ..Wishes::default() };
    // Only wishes and tasks of one's own make a circle, and there are none.
    chain(&TasksOf { subject, wishes: &wishes }).unwrap_or_default().tasks
}

/// Why a candidate falls.
#[derive(Clone, Debug)]
pub(super) enum Fell {
    /// Something stops it.
    Stopped(Box<Finding>),
    /// It does not come to what is wanted there.
    Misses { level: Level, gets: Length, wanted: Length },
    /// It cannot be drawn: so much is not there.
    CannotBe(String),
}

/// What came of a candidate.
#[derive(Clone, Debug)]
pub(super) struct Trial {
    pub fell: Option<Fell>,
    pub cautions: usize,
    /// What it adds at the usual pace.
    pub minutes: u32,
    pub traces: Vec<Trace>,
    /// What is opened or taken off first.
    pub things: Vec<Thing>,
    /// Something is cut that cannot be put back.
    pub is_for_good: bool,
}

impl Trial {
    pub const fn falls(&self) -> bool {
        self.fell.is_some()
    }

    /// Other cloth is set in.
    pub fn takes_cloth(&self) -> bool {
        self.traces.contains(&Trace::Panel)
    }

    /// What it is ranked by; the least is the best.
    pub fn order(&self) -> (bool, bool, usize, u32, usize) {
        (self.falls(), self.takes_cloth(), self.cautions, self.minutes, self.traces.len())
    }
}

/// Tries a candidate out on a garment; nothing where it comes to nothing.
pub(super) fn try_out(
    table: &Table<'_>,
    candidate: &Candidate,
    wanted: &[Wanted],
    baseline: &Baseline,
) -> Option<Trial> {
    let mut changes = table.kept_changes(wanted);
    changes.extend(candidate.changes.iter().cloned());
    match table.draws(&changes, |subject| judged(subject, candidate, wanted, baseline)) {
        Ok(trial) => trial,
        Err(wrong) => Some(Trial {
            fell: Some(Fell::CannotBe(wrong.found(table.tape))),
            cautions: 0,
            minutes: 0,
            traces: Vec::new(),
            things: Vec::new(),
            is_for_good: false,
        }),
    }
}

fn judged(
    subject: &Subject<'_>,
    candidate: &Candidate,
    wanted: &[Wanted],
    baseline: &Baseline,
) -> Option<Trial> {
    if !subject.changes.iter().any(Drawn::is_altered) {
        return None;
    }
    let girths = girths(subject);
    let findings = judge(subject, &girths);
    let is_new = |finding: &&Finding| !baseline.knows(finding);
    let stop = findings.iter().filter(is_new).find(|f| f.outcome == Outcome::Stop);
    let is_held = matches!(candidate.carriers[..], [Carrier::Elastic(_)]);
    let missed = match is_held {
        true => not_held(wanted, &girths),
        false => missed(candidate, wanted, &girths, subject),
    };
    let fell = stop.map(|finding| Fell::Stopped(Box::new(finding.clone()))).or(missed);
    let (mut minutes, mut things, mut is_for_good) = (0, Vec::new(), false);
    // What falls is not sewn: nobody asks how long that would take.
    if fell.is_none() {
        let tasks = tasks(subject);
        let all: u32 = tasks.iter().map(|task| task.usual).sum();
        minutes = all.saturating_sub(baseline.minutes);
        let is_own = |task: &&Task| candidate.carriers.iter().any(|c| task.key.change() == Some(c.key()));
        is_for_good = tasks.iter().filter(is_own).any(|task| task.undone == Undone::Never);
        for thing in tasks.iter().filter(is_own).flat_map(|task| &task.things) {
            if !things.contains(thing) {
                things.push(*thing);
            }
        }
    }
    let cautions = findings.iter().filter(is_new).filter(|f| f.outcome == Outcome::Caution).count();
    let traces = traces(subject, candidate, wanted, &things);
    Some(Trial { fell, cautions, minutes, traces, things, is_for_good })
}

/// Where what is chalked comes to something else than what is wanted, by more than marks force: half a mark on each edge.
fn missed(candidate: &Candidate, wanted: &[Wanted], girths: &[Girth], subject: &Subject<'_>) -> Option<Fell> {
    wanted.iter().find_map(|want| {
        let mut there = girths.iter().filter(|girth| girth.level.level == want.level);
        there.find_map(|girth| {
            let should = match (want.sides, girth.of) {
                (None, _) => want.off,
                (Some(sides), LevelOf::Garment | LevelOf::EachLeg | LevelOf::EachSleeve) => {
                    sides[0] + sides[1]
                }
                (Some(sides), LevelOf::LeftLeg | LevelOf::LeftSleeve) => sides[0],
                (Some(sides), LevelOf::RightLeg | LevelOf::RightSleeve) => sides[1],
            };
            let gets = candidate.off(girth);
            let edges: i64 = candidate.own(girth).map(|term| 2 * term.times).sum();
            let by_marks = (subject.tape.mark() * edges.max(1)).fraction(1, 2);
            let misses = (gets - should).abs() > by_marks;
            misses.then_some(Fell::Misses { level: want.level, gets, wanted: should })
        })
    })
}

/// Where elastic does not come to what is wanted: it draws in to the body, and no further.
fn not_held(wanted: &[Wanted], girths: &[Girth]) -> Option<Fell> {
    wanted.iter().find_map(|want| {
        let girth = girths.iter().find(|girth| girth.level.level == want.level)?;
        let gets = girth.ease_before()?;
        (want.off > gets).then_some(Fell::Misses { level: want.level, gets, wanted: want.off })
    })
}

fn traces(subject: &Subject<'_>, candidate: &Candidate, wanted: &[Wanted], things: &[Thing]) -> Vec<Trace> {
    let garment = subject.garment;
    let has = |carrier: &Carrier| match carrier {
        Carrier::Dart(dart) => garment.darts.iter().any(|facts| facts.dart == *dart),
        Carrier::Seam(_) | Carrier::Elastic(_) | Carrier::Panel(_) => true,
    };
    // A panel is sewn along the old lines.
    let is_panel = candidate.carriers.iter().any(|c| matches!(c, Carrier::Panel(_)));
    let lets_out = || wanted.iter().any(|w| w.off.is_negative());
    let is_there = |trace: &Trace| match trace {
        Trace::OldStitching => garment.cloth.shows_holes && !is_panel && lets_out(),
        Trace::Panel => is_panel,
        Trace::NewDarts => !candidate.carriers.iter().all(has),
        Trace::InFront => candidate.carriers.iter().any(|c| is_in_front(*c) && !has(c)),
        Trace::ElasticRows => candidate.carriers.iter().any(|c| matches!(c, Carrier::Elastic(_))),
        Trace::Topstitching => things.contains(&Thing::Topstitching),
    };
    Trace::ALL.iter().copied().filter(is_there).collect()
}

const fn is_in_front(carrier: Carrier) -> bool {
    match carrier {
        Carrier::Dart(Dart::FrontWaist | Dart::OuterFrontWaist | Dart::FrontFishEye) => true,
        Carrier::Dart(
            Dart::BackWaist | Dart::OuterBackWaist | Dart::BackFishEye | Dart::Bust | Dart::Shoulder,
        )
        | Carrier::Seam(_)
        | Carrier::Elastic(_)
        | Carrier::Panel(_) => false,
    }
}

/// The rule that something is found by, of what is told beside a method: pockets and balance.
pub(super) const fn is_of_balance(rule: Rule) -> bool {
    matches!(rule, Rule::Hang | Rule::InTheWay)
}
