//! One garment on the bench: its newest try-on drawn on its newest state, the tasks that follow, and how they stand.

use super::OfGarment;
use crate::card::{Block, Card, HandStep};
use crate::change::{ChangeKey, Drawn, DrawnChange};
use crate::document::{Document, State, wrong_logged};
use crate::fault::{Fault, Wrong};
use crate::garment::{Garment, Weight};
use crate::judge::Subject;
use crate::length::Tape;
use crate::plan::{
    Chain, Circle, GarmentWork, MinuteOfTime, Minutes, Pace, Progress, Refused, Task, TasksOf, chain,
    corrected, due, may_enter, progress,
};
use crate::solve::{cards_of, drawn_on, stops_of};
use crate::told::title;
use crate::try_on::TryOn;
use crate::work::{Correction, Logged, TaskKey, Wishes, Workroom, Worthy};
use uuid::Uuid;

/// A garment with everything that its plan is made of.
pub(super) struct Bench<'a> {
    pub id: Uuid,
    pub wearer: Uuid,
    pub document: &'a Document,
    pub wishes: &'a Wishes,
    pub tape: Tape,
    /// As it is now, its levels in order.
    pub garment: Garment,
    pub chain: Chain,
    pub progress: Progress,
    /// Changes that come to something.
    pub changes: Vec<ChangeKey>,
    /// What the cards say, by change.
    pub hand: Vec<(ChangeKey, Vec<HandStep>)>,
    /// What has to be settled first.
    pub stops: Vec<String>,
    /// Tasks that wait for each other.
    pub circle: Option<Circle>,
}

/// The newest try-on of a state.
fn newest_of(document: &Document, state: Uuid) -> Option<&TryOn> {
    document.try_ons.iter().rev().find(|try_on| try_on.state == state)
}

/// What follows from a try-on on a state: nothing where it cannot be drawn.
fn with_subject<R>(
    document: &Document,
    state: &State,
    wishes: &Wishes,
    tape: Tape,
    follow: impl FnOnce(&Subject<'_>, &TryOn) -> R,
) -> Option<R> {
    let garment = state.garment.with_levels_in_order(&document.wearer);
    let none = TryOn::on(state.id, jiff::civil::Date::default());
    let try_on = newest_of(document, state.id).unwrap_or(&none);
    let changes = drawn_on(&garment, &document.wearer, try_on, wishes.schools)?;
    let subject = Subject {
        garment: &garment,
        wearer: &document.wearer,
        changes: &changes,
        put_on: try_on.put_on(),
        schools: wishes.schools,
        tape,
    };
    Some(follow(&subject, try_on))
}

/// Changes every row of whose card is ticked.
fn chalked(cards: &[Card]) -> Vec<ChangeKey> {
    let is_chalked = |card: &&Card| {
        let mut rows = card.blocks.iter().filter_map(|block| match block {
            Block::Table(table) => Some(table.rows.iter()),
            Block::Heading(_)
            | Block::Text(_)
            | Block::Note(_)
            | Block::Caution(_)
            | Block::Line(_)
            | Block::Steps(_)
            | Block::Drawing(_) => None,
        });
        let all: Vec<bool> = rows.by_ref().flatten().map(|row| row.is_chalked).collect();
        !all.is_empty() && all.into_iter().all(|ticked| ticked)
    };
    cards.iter().filter(is_chalked).map(|card| card.key).collect()
}

fn hand(card: Card) -> (ChangeKey, Vec<HandStep>) {
    let steps = card.blocks.into_iter().filter_map(|block| match block {
        Block::Steps(steps) => Some(steps),
        Block::Heading(_)
        | Block::Text(_)
        | Block::Note(_)
        | Block::Caution(_)
        | Block::Line(_)
        | Block::Table(_)
        | Block::Drawing(_) => None,
    });
    (card.key, steps.flatten().collect())
}

impl<'a> Bench<'a> {
    /// Nothing of a garment without a state, which has a fault.
    pub fn new(of: OfGarment<'a>, tape: Tape) -> Option<Self> {
        let document = of.document;
        let (state, wishes) = (document.newest()?, &document.wishes);
        let mut bench = Self {
            id: of.id,
            wearer: of.wearer,
            document,
            wishes,
            tape,
            garment: state.garment.with_levels_in_order(&document.wearer).into_owned(),
            chain: Chain::default(),
            progress: Progress::default(),
            changes: Vec::new(),
            hand: Vec::new(),
            stops: Vec::new(),
            circle: None,
        };
        if bench.is_refused() {
            return Some(bench);
        }
        let drawn = with_subject(document, state, wishes, tape, |subject, try_on| {
            let is_altered = subject.changes.iter().any(Drawn::is_altered);
            let cards = if is_altered { cards_of(subject, try_on) } else { Vec::new() };
            let changes: Vec<ChangeKey> =
                subject.changes.iter().filter(|c| c.is_altered()).map(DrawnChange::key).collect();
            let stops = if is_altered { stops_of(subject, try_on) } else { Vec::new() };
            (chain(&TasksOf { subject, wishes }), cards, changes, stops)
        });
        if let Some((chain, cards, changes, stops)) = drawn {
            match chain {
                Ok(chain) => bench.chain = chain,
                Err(circle) => bench.circle = Some(circle),
            }
            let chalked = chalked(&cards);
            bench.progress = progress(&bench.chain, &document.log, state.id, &chalked);
            bench.hand = cards.into_iter().map(hand).collect();
            (bench.changes, bench.stops) = (changes, stops);
        }
        Some(bench)
    }

    /// It protects: it is not altered.
    pub fn is_refused(&self) -> bool {
        self.garment.found.protective == Some(true)
    }

    /// What a task of it is called.
    pub fn title(&self, key: TaskKey) -> String {
        title(key, &self.garment, self.wishes)
    }

    /// Chains and logs of earlier states: what pace is learnt from.
    pub fn earlier(&self) -> Vec<(Chain, Progress)> {
        let Some((_, earlier)) = self.document.states.split_last() else { return Vec::new() };
        let worked_on = earlier.iter().filter(|s| self.document.log.iter().any(|entry| entry.state == s.id));
        let of_state = |state: &State| {
            let wishes = self.wishes;
            let chain = with_subject(self.document, state, wishes, self.tape, |subject, _| {
                chain(&TasksOf { subject, wishes })
            })?;
            let chain = chain.ok()?;
            let progress = progress(&chain, &self.document.log, state.id, &[]);
            Some((chain, progress))
        };
        worked_on.filter_map(of_state).collect()
    }

    pub fn work(&self, room: &Workroom, pace: &Pace) -> GarmentWork {
        self.work_of(self.chain.clone(), self.progress.clone(), self.wishes, room, pace)
    }

    fn work_of(
        &self,
        chain: Chain,
        progress: Progress,
        wishes: &Wishes,
        room: &Workroom,
        pace: &Pace,
    ) -> GarmentWork {
        let minutes: Vec<Minutes> = chain.tasks.iter().map(|task| pace.of(task)).collect();
        let from = |wait: &crate::work::NotBefore| Some((wait.task, due(wait.day, None, room)?));
        GarmentWork {
            id: self.id,
            // What has to be settled first is settled before it is sewn: it is planned all the same, so that one sees what it would take.
            minutes,
            due: due_of(wishes, room),
            heavy: self.garment.cloth.weight == Weight::Heavy,
            thread: String::from(self.garment.cloth.colour.clone()),
            not_before: wishes.not_before.iter().filter_map(from).collect(),
            chain,
            progress,
        }
    }

    /// The work under other wishes; nothing where they cannot be.
    pub fn under(&self, wishes: &Wishes, room: &Workroom, pace: &Pace) -> Option<GarmentWork> {
        let state = self.document.newest()?;
        let chain = with_subject(self.document, state, wishes, self.tape, |subject, _| {
            chain(&TasksOf { subject, wishes })
        })?;
        let chain = chain.ok()?;
        let progress = progress(&chain, &self.document.log, state.id, &[]);
        Some(self.work_of(chain, progress, wishes, room, pace))
    }

    /// Changes that are not left out, and of which something is to be done.
    pub fn open_changes(&self) -> Vec<ChangeKey> {
        let is_open = |change: &&ChangeKey| {
            self.wishes.worth_of(**change) != Worthy::NotThisTime
                && self
                    .chain
                    .tasks
                    .iter()
                    .any(|t| t.key.change() == Some(**change) && !self.progress.is_settled(t.key))
        };
        // What was begun is not dropped.
        let is_begun = |change: &ChangeKey| {
            self.chain
                .tasks
                .iter()
                .any(|t| t.key.change() == Some(*change) && self.progress.is_settled(t.key))
        };
        self.changes.iter().filter(is_open).filter(|change| !is_begun(change)).copied().collect()
    }

    /// The task before which one is shut; nothing where it is open.
    pub fn shut_by(&self, at: usize) -> Option<&Task> {
        let gate = self.chain.gate_of(at)?;
        let gate = &self.chain.tasks[gate];
        (!self.progress.is_settled(gate.key)).then_some(gate)
    }

    /// What the hand does for a task, in the words of its card.
    pub fn hand_of(&self, key: TaskKey) -> Vec<String> {
        let steps =
            self.hand.iter().filter(|(change, _)| Some(*change) == key.change()).flat_map(|(_, steps)| steps);
        steps.filter(|said| said.step == key.step).map(|said| said.text.clone()).collect()
    }
}

/// The moment that a garment has to be finished by.
fn due_of(wishes: &Wishes, room: &Workroom) -> Option<MinuteOfTime> {
    let event = wishes.event.and_then(|id| room.events.iter().find(|event| event.id == id));
    match event {
        Some(event) => due(event.date, event.time, room),
        None => wishes.by.and_then(|date| due(date, None, room)),
    }
}

/// Whether entries may be added to the log of a document as it stands, one after the other.
///
/// # Errors
/// Each that may not, with its path in a list of entries, and why: what cannot be undone waits for its gate.
pub fn may_log(document: &Document, entries: &[Logged], tape: Tape) -> Result<(), Vec<Fault>> {
    let mut faults = Vec::new();
    let mut then = document.clone();
    for (n, entry) in entries.iter().enumerate() {
        let mut fault =
            |field: &str, wrong| faults.push(Fault { path: format!("entries[{n}].{field}"), wrong });
        for wrong in wrong_logged(entry) {
            fault(&wrong.path, wrong.wrong);
        }
        if document.log.iter().any(|known| known.id == entry.id) {
            continue;
        }
        let newest = document.newest().map(|state| state.id);
        if newest != Some(entry.state) {
            fault("state", Wrong::NoSuchState { id: entry.state });
            continue;
        }
        let Some(bench) =
            Bench::new(OfGarment { id: Uuid::nil(), wearer: Uuid::nil(), document: &then }, tape)
        else {
            continue;
        };
        match may_enter(&bench.chain, &bench.progress, entry) {
            Ok(()) => then.log.push(entry.clone()),
            Err(Refused::GateIsShut(gate)) => fault("task", Wrong::GateIsShut { gate: bench.title(gate) }),
            Err(Refused::NoWordWhy) => fault("note", Wrong::NoWordWhy),
            Err(Refused::NoSuchTask) => fault("task", Wrong::NoSuchTask { task: entry.task.to_string() }),
            Err(Refused::NoGate) => fault("did", Wrong::NoGate { task: bench.title(entry.task) }),
        }
    }
    if faults.is_empty() { Ok(()) } else { Err(faults) }
}

/// The newest try-on of the newest state with its lines corrected: what was basted is the datum.
///
/// # Errors
/// Each correction that lies on no line, with its path in a list of corrections.
pub fn corrected_try_on(
    document: &Document,
    corrections: &[Correction],
    tape: Tape,
) -> Result<TryOn, Vec<Fault>> {
    let no_state = || vec![Fault { path: "states".into(), wrong: Wrong::NoState }];
    let state = document.newest().ok_or_else(no_state)?;
    let corrected = with_subject(document, state, &document.wishes, tape, |subject, try_on| {
        corrected(subject, try_on, corrections)
    });
    corrected.ok_or_else(no_state)?.map_err(|wrong| {
        let at = |(n, wrong)| Fault { path: format!("corrections[{n}].station"), wrong };
        wrong.into_iter().map(at).collect()
    })
}
