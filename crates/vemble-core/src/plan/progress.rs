//! How each task stands: the log folded, entry by entry, in the order in which it was done. Gates are shut or open by their verdicts.

use super::chain::Chain;
use super::task::Undone;
use crate::change::ChangeKey;
use crate::work::{Correction, Did, Logged, Step, TaskKey, TaskOf};
use jiff::Timestamp;
use std::collections::HashMap;
use uuid::Uuid;

/// How far a task is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum StandsAt {
    /// To be done.
    #[default]
    Open,
    /// Begun, and when.
    Begun(Timestamp),
    /// Done, and when.
    Done(Timestamp),
    /// Left out.
    Skipped,
}

impl StandsAt {
    /// Nothing is left to do of it.
    pub const fn is_settled(self) -> bool {
        matches!(self, Self::Done(_) | Self::Skipped)
    }
}

/// The verdicts of a gate.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct GateStands {
    /// It fits there: left, right.
    pub fits: [bool; 2],
    /// It does not fit: what is to be changed.
    pub corrections: Vec<Correction>,
    /// It was passed without a verdict, and why.
    pub passed: Option<String>,
}

/// Everything that is known of one task.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Standing {
    /// How far it is.
    pub at: StandsAt,
    /// Of a gate: its verdicts.
    pub gate: GateStands,
    /// It could not be done, and why.
    pub trouble: Option<String>,
    /// What was noted.
    pub notes: Vec<String>,
    /// How long it took, in minutes, once it is done and somebody said so or it was timed.
    pub minutes: Option<u32>,
    /// It was timed, and much longer than such a task takes: somebody may have forgotten to say that it was done.
    pub is_doubtful: bool,
}

/// How all tasks of a garment stand.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Progress(HashMap<TaskKey, Standing>);

impl Progress {
    /// How one task stands.
    pub fn of(&self, key: TaskKey) -> Standing {
        self.0.get(&key).cloned().unwrap_or_default()
    }

    /// Nothing is left to do of it.
    pub fn is_settled(&self, key: TaskKey) -> bool {
        self.0.get(&key).is_some_and(|standing| standing.at.is_settled())
    }

    /// Minutes of everything that was done.
    pub fn minutes(&self) -> u32 {
        self.0.values().filter_map(|standing| standing.minutes).sum()
    }
}

/// A timer that ran longer than this many times the most that a task takes was forgotten (teaching value: nobody presses a seam for an hour).
const FORGOTTEN: u32 = 3;
/// And longer than this, in minutes: a short task may well take a while.
const SURELY: u32 = 60;

/// Folds the log of one state of a garment. `chalked` says which changes have every row of their card ticked: that is their chalking done.
pub(crate) fn progress(chain: &Chain, log: &[Logged], state: Uuid, chalked: &[ChangeKey]) -> Progress {
    let mut all: HashMap<TaskKey, Standing> = HashMap::new();
    // A task of one's own is done once, whatever is sewn after it.
    let counts = |entry: &&Logged| entry.state == state || matches!(entry.task.of, TaskOf::Own(_));
    let mut entries: Vec<&Logged> = log.iter().filter(counts).collect();
    // As it was done; what was entered at one moment, as it was entered.
    entries.sort_by_key(|entry| entry.at);
    let mut known: Vec<Uuid> = Vec::new();
    for entry in entries {
        if known.contains(&entry.id) {
            continue;
        }
        known.push(entry.id);
        let is_by_side = chain.task(entry.task).is_some_and(|task| task.by_side);
        let usual = chain.task(entry.task).map_or(SURELY, |task| task.usual);
        let here = all.entry(entry.task).or_default();
        enter(here, entry, is_by_side, usual);
        if let Did::FitsNot { corrections } = &entry.did {
            reopen(chain, entry.task, corrections, &mut all);
        }
    }
    for change in chalked {
        let here = all.entry(TaskKey::of(Step::Chalk, *change)).or_default();
        if !here.at.is_settled() {
            here.at = StandsAt::Done(Timestamp::UNIX_EPOCH);
        }
    }
    Progress(all)
}

/// What one entry does to its task.
fn enter(here: &mut Standing, entry: &Logged, is_by_side: bool, usual: u32) {
    let is_gate = entry.task.step.is_gate();
    let note = Some(entry.note.trim()).filter(|note| !note.is_empty());
    match &entry.did {
        Did::Begin => here.at = StandsAt::Begun(entry.at),
        // A gate is done by its verdict, and by nothing else.
        Did::Done | Did::Skip if is_gate => {}
        Did::Done => done(here, entry, usual),
        Did::Skip => here.at = StandsAt::Skipped,
        Did::CouldNot => {
            here.at = StandsAt::Open;
            here.trouble = Some(entry.note.clone());
        }
        Did::Reopen => {
            here.at = StandsAt::Open;
            here.gate = GateStands::default();
        }
        Did::Fits { side } if is_gate => {
            match side {
                Some(side) if is_by_side => here.gate.fits[*side as usize] = true,
                Some(_) | None => here.gate.fits = [true; 2],
            }
            here.gate.corrections.clear();
            if here.gate.fits == [true; 2] {
                done(here, entry, usual);
            }
        }
        Did::FitsNot { corrections } if is_gate => {
            here.gate = GateStands { corrections: corrections.clone(), ..GateStands::default() };
            here.at = StandsAt::Open;
        }
        Did::PassAnyway if is_gate && note.is_some() => {
            here.gate.passed = Some(entry.note.clone());
            done(here, entry, usual);
        }
        Did::Fits { .. } | Did::FitsNot { .. } | Did::PassAnyway | Did::Note => {}
    }
    here.notes.extend(note.filter(|_| !matches!(entry.did, Did::CouldNot)).map(String::from));
}

fn done(here: &mut Standing, entry: &Logged, usual: u32) {
    let timed = match here.at {
        StandsAt::Begun(since) => {
            let minutes = entry.at.duration_since(since).as_mins().max(0);
            Some(u32::try_from(minutes).unwrap_or(u32::MAX).max(1))
        }
        StandsAt::Open | StandsAt::Done(_) | StandsAt::Skipped => None,
    };
    let most = (usual * 3).div_ceil(2);
    here.is_doubtful = entry.minutes.is_none()
        && timed.is_some_and(|ran| ran > SURELY && ran > most.saturating_mul(FORGOTTEN));
    here.minutes = entry.minutes.map(u32::from).or(timed.filter(|_| !here.is_doubtful));
    here.at = StandsAt::Done(entry.at);
    here.trouble = None;
}

/// A gate that failed: what is corrected is chalked and basted anew, and so is all of it where nobody said what.
fn reopen(chain: &Chain, gate: TaskKey, corrections: &[Correction], all: &mut HashMap<TaskKey, Standing>) {
    let is_corrected =
        |change: ChangeKey| corrections.is_empty() || corrections.iter().any(|c| c.change == change);
    let Some(at) = chain.tasks.iter().position(|task| task.key == gate) else { return };
    // What it takes to try it on once more: a line that was stitched already is sewn again.
    let is_stitched = gate.step == Step::TryStitched;
    let again = |step: Step| {
        matches!(step, Step::Chalk | Step::Baste)
            || is_stitched && matches!(step, Step::Stitch | Step::TakeOut)
    };
    let of_gate = |key: TaskKey| {
        let mut before = vec![at];
        let mut seen = vec![at];
        while let Some(task) = before.pop() {
            for (first, _) in chain.needs(task) {
                if chain.tasks[first].key == key {
                    return true;
                }
                if !seen.contains(&first) {
                    seen.push(first);
                    before.push(first);
                }
            }
        }
        false
    };
    let keys: Vec<TaskKey> = chain
        .tasks
        .iter()
        .map(|task| task.key)
        .filter(|key| again(key.step) && key.change().is_some_and(is_corrected) && of_gate(*key))
        .collect();
    for key in keys {
        all.entry(key).or_default().at = StandsAt::Open;
    }
}

/// Why something cannot be entered.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Refused {
    /// It cannot be undone, and this gate before it has no verdict.
    GateIsShut(TaskKey),
    /// A gate is passed without a word why.
    NoWordWhy,
    /// There is no such task.
    NoSuchTask,
    /// A verdict on what is no gate.
    NoGate,
}

/// Whether something may be entered as things stand.
///
/// # Errors
/// What cannot be undone is shut until its gate has a verdict on both sides; a gate is passed without one only with a word why.
pub(crate) fn may_enter(chain: &Chain, progress: &Progress, entry: &Logged) -> Result<(), Refused> {
    let at = chain.tasks.iter().position(|task| task.key == entry.task).ok_or(Refused::NoSuchTask)?;
    match &entry.did {
        Did::PassAnyway if entry.note.trim().is_empty() => Err(Refused::NoWordWhy),
        Did::PassAnyway | Did::Fits { .. } | Did::FitsNot { .. } if !entry.task.step.is_gate() => {
            Err(Refused::NoGate)
        }
        Did::Begin | Did::Done if chain.tasks[at].undone == Undone::Never => match chain.gate_of(at) {
            Some(gate) if !progress.is_settled(chain.tasks[gate].key) => {
                Err(Refused::GateIsShut(chain.tasks[gate].key))
            }
            Some(_) | None => Ok(()),
        },
        Did::Begin
        | Did::Done
        | Did::Skip
        | Did::CouldNot
        | Did::Reopen
        | Did::Fits { .. }
        | Did::FitsNot { .. }
        | Did::PassAnyway
        | Did::Note => Ok(()),
    }
}
