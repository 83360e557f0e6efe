//! The tasks of one garment, from its changes, its making and its cloth, with the order between them.

use super::caution::Caution;
use super::order::{Because, Circle, arrows};
use super::settings::Settings;
use super::task::{HasTasks, Place, Task, Tool, Undone};
use crate::body::{BodyMeasurement, Wearer};
use crate::change::hem::Cutting;
use crate::change::{ChangeKey, Drawn};
use crate::fitting::PinnedBy;
use crate::garment::{Closure, Cloth, Finish, Garment, Kind, Lined, Origin, Seam, SeamFacts, Washed};
use crate::judge::Subject;
use crate::length::Length;
use crate::place::Level;
use crate::work::{Step, TaskKey, TaskOf, Wishes, Worthy};
use std::collections::HashSet;

/// What tasks are made with.
pub(crate) struct TasksOf<'a> {
    pub subject: &'a Subject<'a>,
    pub wishes: &'a Wishes,
}

impl TasksOf<'_> {
    /// What the garment is made of.
    pub const fn cloth(&self) -> &Cloth {
        &self.subject.garment.cloth
    }

    /// When cloth outside a new seam is cut.
    pub fn cutting(&self) -> Cutting {
        self.wishes.schools.cutting.unwrap_or_default()
    }

    /// Its outer and lining are one closed thing.
    pub fn is_lined(&self) -> bool {
        self.subject.garment.found.lined == Some(Lined::Fully)
    }
}

/// It is traced with thread, since chalk does not last or must be seen from both sides: tailored and boned garments (teaching value).
pub(crate) const fn is_traced(kind: Kind) -> bool {
    matches!(kind, Kind::Jacket | Kind::LinedCoat | Kind::BonedBodice)
}

/// How many minutes 10 cm of a seam take to unpick, by how it is sewn: lockstitch 3, overcast together 5, felled and French 8 (teaching
/// values of the handbook; tiny and dark stitches too).
pub(crate) const fn unpicked(facts: &SeamFacts) -> u32 {
    match facts.finish {
        Finish::Open | Finish::SergedOpen => 3,
        Finish::SergedTogether => 5,
        Finish::Bound | Finish::FlatFelled | Finish::French => 8,
    }
}

/// Washing with what belongs to it, and how long it dries; a try-on; what is left at the end: minutes (teaching values).
const WASH: u32 = 10;
const DRIES: u32 = 24 * 60;
const TRY_ON: u32 = 10;
const FINAL_PRESS: u32 = 10;
const WRITE: u32 = 5;
const CLOSE_LINING: u32 = 5;
/// From so many minutes on something is a long stretch of one thing.
const LONG: u32 = 40;
/// Shorter than this is a child.
const CHILD: Length = Length::from_mm(1500);

/// All tasks of a garment, in an order that keeps every arrow, and the arrows between them by their places.
#[derive(Clone, Debug, Default)]
pub(crate) struct Chain {
    pub tasks: Vec<Task>,
    pub arrows: Vec<(usize, usize, Because)>,
}

impl Chain {
    /// The task of that key.
    pub fn task(&self, key: TaskKey) -> Option<&Task> {
        self.tasks.iter().find(|task| task.key == key)
    }

    /// What has to be done right before a task, and why.
    pub fn needs(&self, task: usize) -> impl Iterator<Item = (usize, Because)> {
        self.arrows.iter().filter(move |(_, then, _)| *then == task).map(|(first, _, why)| (*first, *why))
    }

    /// The gate that keeps a task shut; nothing where it can be undone, or none is before it.
    pub fn gate_of(&self, task: usize) -> Option<usize> {
        if self.tasks[task].undone != Undone::Never {
            return None;
        }
        let mut open = vec![task];
        let mut seen: HashSet<usize> = HashSet::new();
        // The nearest one: breadth first.
        while !open.is_empty() {
            let before: Vec<usize> =
                open.iter().flat_map(|at| self.needs(*at).map(|(first, _)| first)).collect();
            if let Some(gate) = before.iter().find(|at| self.tasks[**at].key.step.is_gate()) {
                return Some(*gate);
            }
            open = before.into_iter().filter(|at| seen.insert(*at)).collect();
        }
        None
    }
}

/// Derives the tasks of a garment with what is changed on it. A garment on which nothing is changed has none but those of its wash.
///
/// # Errors
/// A circle that the sewist's own tasks or wishes make, with what is in it.
pub(crate) fn chain(of: &TasksOf<'_>) -> Result<Chain, Circle> {
    let (subject, wishes) = (of.subject, of.wishes);
    let garment = subject.garment;
    let mut tasks: Vec<Task> = Vec::new();
    for change in subject.changes.iter().filter(|change| change.is_altered()) {
        let worth = wishes.worth_of(change.key());
        if worth == Worthy::NotThisTime {
            continue;
        }
        tasks.extend(change.tasks(of).into_iter().map(|task| Task { worth, ..task }));
    }
    let is_worked_on = !tasks.is_empty();
    tasks.extend(wash(garment));
    if is_worked_on {
        tasks.extend(gates(of, &tasks));
        tasks.extend(at_last(of));
    }
    for own in &wishes.own {
        let mut task =
            Task::new(TaskKey { step: Step::Own, of: TaskOf::Own(own.id) }, Place::Table, own.minutes.into());
        (task.waits, task.helper, task.splits) = (own.waits.into(), own.helper, !own.in_one_go);
        tasks.push(task);
    }
    let arrows = arrows(of, &mut tasks)?;
    set_cautions(&mut tasks, garment, subject.wearer);
    Ok(Chain { tasks, arrows })
}

/// Washing, where it is due: second-hand and not washed yet, or never washed and bound to shrink.
fn wash(garment: &Garment) -> Option<Task> {
    let found = &garment.found;
    let is_second_hand = matches!(found.origin, Some(Origin::Thrifted | Origin::Inherited));
    let is_washed = matches!(found.washed, Some(Washed::Once | Washed::Often));
    let shrinks =
        garment.cloth.shrinks_along_percent > 0 && found.washed == Some(Washed::Never) && !garment.toile;
    (is_second_hand && !is_washed || shrinks).then(|| {
        let mut task = Task::new(TaskKey::whole(Step::Wash), Place::Tub, WASH);
        task.waits = DRIES;
        task
    })
}

/// Kinds of change that are tried on together, all basted.
const fn is_tried_together(change: ChangeKey) -> bool {
    match change {
        ChangeKey::Seam(_) | ChangeKey::Dart(_) | ChangeKey::Gathers(_) => true,
        ChangeKey::Armhole(_) | ChangeKey::Trunk(_) => true,
        ChangeKey::Hem(_) | ChangeKey::Spacing(_) | ChangeKey::Elastic(_) => false,
    }
}

/// The gate that a basted change is tried at.
pub(super) const fn gate_for(change: ChangeKey) -> TaskKey {
    if is_tried_together(change) {
        TaskKey::whole(Step::TryBasted)
    } else {
        TaskKey::of(Step::TryBasted, change)
    }
}

/// Try-ons that cloth waits for: one of everything that is basted, one of each hem, and one before anything outside a seam is cut.
fn gates(of: &TasksOf<'_>, tasks: &[Task]) -> Vec<Task> {
    let subject = of.subject;
    let mut gates: Vec<Task> = Vec::new();
    let gate = |key: TaskKey, by_side: bool| {
        let mut task = Task::new(key, Place::Body, TRY_ON).with(&[Tool::Pins, Tool::Mirror]);
        task.helper = subject.put_on.pinned_by == PinnedBy::Helper;
        task.splits = false;
        task.by_side = by_side;
        task
    };
    for change in subject.changes.iter().filter(|c| tasks.iter().any(|t| t.key.change() == Some(c.key()))) {
        let key = gate_for(change.key());
        let by_side = has_sides(change.key());
        match gates.iter_mut().find(|gate| gate.key == key) {
            Some(gate) => gate.by_side |= by_side,
            None => gates.push(gate(key, by_side)),
        }
    }
    let waiting: Vec<ChangeKey> = tasks
        .iter()
        .filter_map(|task| task.key.change())
        .filter(|change| waits_to_be_cut(of, tasks, *change))
        .collect();
    if !waiting.is_empty() {
        gates.push(gate(TaskKey::whole(Step::TryStitched), waiting.into_iter().any(has_sides)));
    }
    gates
}

/// It is cut only after the try-on that all stitched seams wait for. A hem and fastenings have a gate of their own.
pub(super) fn waits_to_be_cut(of: &TasksOf<'_>, tasks: &[Task], change: ChangeKey) -> bool {
    let is_cut = |task: &Task| task.key.step == Step::Cut && task.key.change() == Some(change);
    of.cutting() == Cutting::AfterTryOn && is_tried_together(change) && tasks.iter().any(is_cut)
}

/// It is there left and right, and is judged on both.
pub(super) const fn has_sides(change: ChangeKey) -> bool {
    use crate::garment::HemEdge;
    match change {
        ChangeKey::Seam(seam) => seam.has_sides(),
        ChangeKey::Dart(_) => true,
        ChangeKey::Armhole(at) => at.sides().len() == 2,
        ChangeKey::Hem(HemEdge::Leg | HemEdge::Sleeve) => true,
        ChangeKey::Hem(HemEdge::Body)
        | ChangeKey::Elastic(_)
        | ChangeKey::Spacing(_)
        | ChangeKey::Gathers(_)
        | ChangeKey::Trunk(_) => false,
    }
}

/// What comes last of all.
fn at_last(of: &TasksOf<'_>) -> Vec<Task> {
    let mut all = Vec::new();
    if of.is_lined() {
        let mut task =
            Task::new(TaskKey::whole(Step::LineIt), Place::Hand, CLOSE_LINING).with(&[Tool::Needle]);
        task.settings = Settings::hem(of.cloth(), true);
        all.push(task);
    }
    let mut press = Task::new(TaskKey::whole(Step::FinalPress), Place::Iron, FINAL_PRESS);
    press.settings = Settings::iron(of.cloth());
    all.push(press.with(&[Tool::IronAndBoard, Tool::PressCloth]));
    let mut tried = Task::new(TaskKey::whole(Step::FinalTryOn), Place::Body, TRY_ON).with(&[Tool::Mirror]);
    tried.splits = false;
    all.push(tried);
    all.push(Task::new(TaskKey::whole(Step::EnterRecord), Place::Desk, WRITE));
    all
}

/// Gives each caution to the first task that it is about.
fn set_cautions(tasks: &mut [Task], garment: &Garment, wearer: &Wearer) {
    let is_child = wearer.get(BodyMeasurement::Height).is_some_and(|height| height < CHILD);
    let has_lacing = garment.closures.iter().any(|c| c.closure == Closure::Lacing);
    let is_laced = garment.kind == Kind::BonedBodice || has_lacing;
    let mut said: HashSet<Caution> = HashSet::new();
    let due = |caution: Caution, task: &Task| match caution {
        Caution::Pins => task.key.step.is_gate(),
        Caution::Child => is_child && task.place == Place::Body,
        Caution::Lacing => is_laced && task.place == Place::Body,
        Caution::RotaryCutter => task.key.step == Step::Cut && !task.tools.contains(&Tool::Awl),
        Caution::Awl => task.tools.contains(&Tool::Awl),
        Caution::MachineOff => task.is_of_a_machine(),
        Caution::Iron => task.place == Place::Iron,
        Caution::Rest => task.usual >= LONG,
        Caution::WashFirst => {
            task.key.step == Step::Wash && garment.found.origin.is_some_and(|o| o != Origin::HomeMade)
        }
    };
    for task in tasks {
        // One task says one thing; the gravest that nobody said yet.
        let grave = [
            Caution::Lacing,
            Caution::Child,
            Caution::Pins,
            Caution::Awl,
            Caution::RotaryCutter,
            Caution::MachineOff,
            Caution::Iron,
            Caution::WashFirst,
            Caution::Rest,
        ];
        task.caution = grave.into_iter().find(|caution| !said.contains(caution) && due(*caution, task));
        said.extend(task.caution);
    }
}

/// Where on the body a change lies, from the top down: what lies higher is done first.
pub(super) fn height(garment: &Garment, change: ChangeKey) -> u8 {
    let top = |level: Level| Level::ALL.iter().position(|l| *l == level).unwrap_or_default() as u8;
    match change {
        ChangeKey::Seam(Seam::ShoulderSeam | Seam::YokeSeam | Seam::NeckSeam) => 0,
        ChangeKey::Seam(Seam::ArmholeSeam) => 1,
        ChangeKey::Seam(seam) => top(garment.span_of(seam).1),
        ChangeKey::Dart(_) => 0,
        ChangeKey::Armhole(_) => 1,
        ChangeKey::Elastic(_) | ChangeKey::Trunk(_) => top(Level::Waist),
        ChangeKey::Gathers(at) => top(at.level()),
        ChangeKey::Hem(_) | ChangeKey::Spacing(_) => u8::MAX,
    }
}
