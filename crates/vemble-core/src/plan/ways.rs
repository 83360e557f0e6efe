//! Ways out where time runs out: each is really planned, and says what it comes to.

use super::evenings::{Evening, MinuteOfTime};
use super::schedule::{GarmentWork, Planned, plan};
use crate::change::ChangeKey;
use crate::change::hem::Cutting;
use crate::work::{SewnBy, Wishes, Worthy};
use uuid::Uuid;

/// A simpler method.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Simpler {
    /// Hems by machine instead of by hand.
    HemsByMachine,
    /// All of an allowance stays inside: nothing is trimmed and finished.
    NothingTrimmed,
}

/// A way out: what is done otherwise. Garments and evenings are named by their places in the plan.
#[derive(Clone, Debug, PartialEq, Eq)]
#[expect(missing_docs, reason = "each is said above it")]
pub enum WayOut {
    /// A change is left out this time.
    Drop { garment: usize, change: ChangeKey, worth: Worthy },
    /// It is sewn in a simpler way.
    Simplify { garment: usize, by: Simpler },
    /// One more evening.
    Another { start: MinuteOfTime, minutes: u32 },
    /// Somebody helps on an evening that is there.
    AskForHelp { evening: usize },
    /// A whole garment is left for another time.
    Later { garment: usize },
}

/// One more evening is so long (teaching value: what a weekday leaves after supper).
const EVENING: u32 = 90;
/// So many ways out are offered.
const OFFERED: usize = 3;
/// So many evenings of one sort are tried.
const TRIED: usize = 12;

/// What ways out are made of.
pub(crate) struct Otherwise<'a> {
    /// What is wished for each garment.
    pub wishes: &'a [&'a Wishes],
    /// The changes of each garment.
    pub changes: &'a [Vec<ChangeKey>],
    /// The work on a garment under other wishes; nothing where they cannot be.
    pub rework: &'a dyn Fn(usize, &Wishes) -> Option<GarmentWork>,
    /// When an evening could begin on every day that has none yet, in order.
    pub free: &'a [MinuteOfTime],
}

impl WayOut {
    /// The wishes for its garment, where it is about one.
    pub fn wishes(&self, of: &Wishes) -> Option<Wishes> {
        let mut wishes = of.clone();
        match self {
            Self::Drop { change, .. } => return Some(of.with_worth(*change, Worthy::NotThisTime)),
            Self::Simplify { by: Simpler::HemsByMachine, .. } => wishes.schools.hem = Some(SewnBy::Machine),
            Self::Simplify { by: Simpler::NothingTrimmed, .. } => {
                wishes.schools.cutting = Some(Cutting::Never);
            }
            Self::Later { .. } => (wishes.event, wishes.by) = (None, None),
            Self::Another { .. } | Self::AskForHelp { .. } => return None,
        }
        Some(wishes)
    }

    /// The garment that it is about.
    pub const fn garment(&self) -> Option<usize> {
        match self {
            Self::Drop { garment, .. } | Self::Simplify { garment, .. } | Self::Later { garment } => {
                Some(*garment)
            }
            Self::Another { .. } | Self::AskForHelp { .. } => None,
        }
    }

    /// What is given up: less comes first. Time and help cost the garment nothing, a simpler method little.
    const fn costs(&self) -> u8 {
        match self {
            Self::Drop { worth: Worthy::IfThereIsTime, .. } => 0,
            Self::AskForHelp { .. } => 1,
            Self::Another { .. } => 2,
            Self::Simplify { .. } => 3,
            Self::Drop { .. } => 4,
            Self::Later { .. } => 5,
        }
    }

    /// Of each sort one is offered.
    const fn sort(&self) -> u8 {
        match self {
            Self::Drop { .. } => 0,
            Self::Simplify { .. } => 1,
            Self::Another { .. } => 2,
            Self::AskForHelp { .. } => 3,
            Self::Later { .. } => 4,
        }
    }

    /// The plan it makes; nothing where it cannot be.
    fn tried(
        &self,
        works: &[GarmentWork],
        evenings: &[Evening],
        otherwise: &Otherwise<'_>,
    ) -> Option<Planned> {
        match self {
            Self::Another { start, minutes } => {
                let mut more = evenings.to_vec();
                more.push(Evening {
                    source: Uuid::nil(),
                    date: jiff::civil::Date::default(),
                    is_weekly: false,
                    start: *start,
                    minutes: *minutes,
                    helper: String::new(),
                });
                more.sort_by_key(|evening| evening.start);
                Some(plan(works, &more))
            }
            Self::AskForHelp { evening } => {
                let mut helped = evenings.to_vec();
                helped.get_mut(*evening)?.helper = "somebody".into();
                Some(plan(works, &helped))
            }
            Self::Drop { garment, .. } | Self::Simplify { garment, .. } | Self::Later { garment } => {
                let wishes = self.wishes(otherwise.wishes[*garment])?;
                let mut others = works.to_vec();
                *others.get_mut(*garment)? = (otherwise.rework)(*garment, &wishes)?;
                Some(plan(&others, evenings))
            }
        }
    }
}

/// Ways out of a plan in which something is late: those that bring the late minutes down, of each sort the best, what helps most first and
/// what costs least among those that help alike; each with the plan it makes.
///
/// Plans once for every change, every method and some evenings.
pub(crate) fn ways_out(
    works: &[GarmentWork],
    planned: &Planned,
    otherwise: &Otherwise<'_>,
) -> Vec<(WayOut, Planned)> {
    let late = planned.late();
    if late == 0 {
        return Vec::new();
    }
    let mut tries: Vec<WayOut> = Vec::new();
    let is_late = |garment: usize| planned.garments[garment].late > 0;
    let last_day = works.iter().enumerate().filter(|(n, _)| is_late(*n)).filter_map(|(_, w)| w.due).max();
    let last_day = last_day.unwrap_or(MinuteOfTime::MIN);
    for (garment, work) in
        works.iter().enumerate().filter(|(_, work)| work.due.is_some_and(|due| due <= last_day))
    {
        for change in &otherwise.changes[garment] {
            let worth = otherwise.wishes[garment].worth_of(*change);
            if matches!(worth, Worthy::IfThereIsTime | Worthy::Wanted) {
                tries.push(WayOut::Drop { garment, change: *change, worth });
            }
        }
        if work.minutes_left().likely > 0 {
            tries.extend(
                [Simpler::HemsByMachine, Simpler::NothingTrimmed].map(|by| WayOut::Simplify { garment, by }),
            );
            tries.push(WayOut::Later { garment });
        }
    }
    let free = otherwise.free.iter().filter(|start| **start + i64::from(EVENING) <= last_day).take(TRIED);
    tries.extend(free.map(|start| WayOut::Another { start: *start, minutes: EVENING }));
    let alone =
        planned.evenings.iter().enumerate().filter(|(_, e)| e.helper.is_empty() && e.end() <= last_day);
    tries.extend(alone.take(TRIED).map(|(evening, _)| WayOut::AskForHelp { evening }));
    let tried = tries.into_iter().filter_map(|way| {
        let then = way.tried(works, &planned.evenings, otherwise)?;
        (then.late() < late).then_some((way, then))
    });
    let mut ways: Vec<(WayOut, Planned)> = tried.collect();
    // What gives up least, of what leaves nothing late; what leaves less, of the rest.
    ways.sort_by_key(|(way, then)| (then.late(), way.costs()));
    let mut offered: Vec<(WayOut, Planned)> = Vec::new();
    for (way, then) in ways {
        if offered.len() < OFFERED && offered.iter().all(|(other, _)| other.sort() != way.sort()) {
            offered.push((way, then));
        }
    }
    offered
}
