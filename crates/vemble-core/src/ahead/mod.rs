//! What lies ahead: the tasks of every garment, laid over the evenings there are, in words and figures for screens, files and calendars.
//!
//! [`ahead`] is the entry. A what-if is the same on other wishes or other evenings.

mod bench;
mod garment;
mod lines;
mod shelf;

#[cfg(test)]
mod tests;

pub use bench::{corrected_try_on, may_log};
pub use garment::{GarmentAhead, Outlook};
pub use lines::{
    EveningLine, GateLine, LearntLine, NeedLine, PieceLine, SettingLine, TaskLine, WayOutLine, WhenLine,
};
pub use shelf::{MoneyLine, ShelfLine};

use crate::document::Document;
use crate::length::Tape;
use crate::plan::{
    Evening, GarmentWork, MinuteOfTime, Otherwise, Pace, Planned, WayOut, evenings, minute, moved_by, paces,
    plan, right_now, ways_out, zone,
};
use crate::told::{capital, long_words, way_words};
use crate::work::{Wishes, Workroom};
use bench::Bench;
use jiff::{Timestamp, ToSpan};
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;
use uuid::Uuid;

/// A garment that is planned.
#[derive(Clone, Copy)]
pub struct OfGarment<'a> {
    /// Which.
    pub id: Uuid,
    /// Who wears it.
    pub wearer: Uuid,
    /// The garment with its history, its wishes and its log.
    pub document: &'a Document,
}

/// Everything that lies ahead.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Ahead {
    /// The day it is where the workroom is.
    pub today: String,
    /// The time zone that it is told in.
    pub time_zone: String,
    /// What to do now, in a sentence.
    pub what_now: String,
    /// Evenings from now on, with what is done in each; those after the last task only where something has a day.
    pub evenings: Vec<EveningLine>,
    /// Every garment that there is something to do of, or was; what presses most first.
    pub garments: Vec<GarmentAhead>,
    /// How long all that is left takes, in words.
    pub left: String,
    /// Minutes that come too late, or have no place, of everything that has a day.
    pub late_minutes: u32,
    /// The same in words.
    pub late: String,
    /// Ways out, where something is late; each was planned.
    pub ways_out: Vec<WayOutLine>,
    /// What is needed against what is there.
    pub shelf: Vec<ShelfLine>,
    /// How often thread, needle, foot or place change.
    pub set_ups: usize,
    /// How long kinds of tasks really take, where that was learnt.
    pub learnt: Vec<LearntLine>,
    /// What the plan seeks, in words.
    pub seeks: &'static str,
}

/// What the plan seeks, as `plan/schedule` does it.
const SEEKS: &str = "As little as possible after its day; then everything in some evening; then try-ons with help as early as they can \
                     be; then what is wanted first, first; then few changes of thread, needle, foot and place. The same evenings \
                     and tasks give the same plan.";

/// How much is told.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Wanted {
    /// The tasks of this garment, one by one.
    pub tasks_of: Option<Uuid>,
    /// Ways out are looked for.
    pub ways_out: bool,
}

/// Everything that lies ahead of `garments` from `now` on, with figures on `tape`.
///
/// Draws every garment once, and plans once; with ways out some dozen times more.
pub fn ahead(
    garments: &[OfGarment<'_>],
    room: &Workroom,
    now: Timestamp,
    tape: Tape,
    wanted: Wanted,
) -> Ahead {
    Table::new(garments, room, now, tape).told(wanted)
}

/// What to do in so many minutes from now on, with or without help: pieces in order.
pub fn now_what(
    garments: &[OfGarment<'_>],
    room: &Workroom,
    now: Timestamp,
    tape: Tape,
    (minutes, helper): (u32, bool),
) -> EveningLine {
    let table = Table::new(garments, room, now, tape);
    let planned = right_now(&table.works, minute(now), minutes, helper);
    table.evening_lines(&planned).into_iter().next().unwrap_or_else(|| table.empty_evening(minutes))
}

/// Everything that is planned, before it is told.
struct Table<'a> {
    room: &'a Workroom,
    now: Timestamp,
    tape: Tape,
    benches: Vec<Bench<'a>>,
    works: Vec<GarmentWork>,
    pace: Pace,
    evenings: Vec<Evening>,
    planned: Planned,
}

impl<'a> Table<'a> {
    fn new(garments: &[OfGarment<'a>], room: &'a Workroom, now: Timestamp, tape: Tape) -> Self {
        let benches: Vec<Bench<'_>> = garments.iter().filter_map(|of| Bench::new(*of, tape)).collect();
        let done: Vec<_> = benches.iter().flat_map(Bench::earlier).collect();
        let pace = paces(
            benches
                .iter()
                .map(|bench| (&bench.chain, &bench.progress))
                .chain(done.iter().map(|(chain, progress)| (chain, progress))),
        );
        let works: Vec<GarmentWork> = benches.iter().map(|bench| bench.work(room, &pace)).collect();
        let evenings = evenings(room, now);
        let planned = plan(&works, &evenings);
        Self { room, now, tape, benches, works, pace, evenings, planned }
    }

    fn told(&self, wanted: Wanted) -> Ahead {
        let mut order: Vec<usize> = (0..self.benches.len()).collect();
        order.sort_by_key(|n| {
            let left = self.works[*n].minutes_left().likely;
            (left == 0, self.works[*n].due.unwrap_or(MinuteOfTime::MAX), left, self.works[*n].id)
        });
        let garments: Vec<GarmentAhead> =
            order.iter().map(|n| self.garment(*n, wanted.tasks_of == Some(self.works[*n].id))).collect();
        let left: u32 = self.works.iter().map(|work| work.minutes_left().likely).sum();
        Ahead {
            today: crate::plan::day_of(self.now, self.room).to_string(),
            time_zone: self.room.time_zone.clone(),
            what_now: self.what_now(&garments),
            evenings: self.evening_lines(&self.planned),
            left: long_words(left),
            late_minutes: self.planned.late(),
            late: long_words(self.planned.late()),
            ways_out: if wanted.ways_out { self.ways_out() } else { Vec::new() },
            shelf: shelf::lines(&self.works, &self.benches, self.room),
            set_ups: self.planned.set_ups,
            learnt: lines::learnt(&self.pace),
            seeks: SEEKS,
            garments,
        }
    }

    /// The piece that comes first, or why there is none.
    fn what_now(&self, garments: &[GarmentAhead]) -> String {
        if let Some(placed) = self.planned.placed.first() {
            let bench = &self.benches[placed.garment];
            let when = lines::moment_words(placed.start, self.room, self.now);
            return format!(
                "{}: {} ({}, {}).",
                capital(&when),
                bench.title(placed.task),
                bench.garment.name,
                long_words(placed.minutes)
            );
        }
        match garments.iter().find(|garment| garment.next.is_some()) {
            Some(garment) if self.evenings.is_empty() => {
                format!("{}: there are no evenings to do it in yet.", garment.name)
            }
            Some(garment) => format!("{}: nothing of it fits into the evenings there are.", garment.name),
            None => "Nothing waits to be sewn.".into(),
        }
    }

    fn ways_out(&self) -> Vec<WayOutLine> {
        let wishes: Vec<&Wishes> = self.benches.iter().map(|bench| bench.wishes).collect();
        let changes: Vec<_> = self.benches.iter().map(Bench::open_changes).collect();
        let rework =
            |garment: usize, wishes: &Wishes| self.benches.get(garment)?.under(wishes, self.room, &self.pace);
        let free = self.free_evenings();
        let otherwise = Otherwise { wishes: &wishes, changes: &changes, rework: &rework, free: &free };
        let ways = ways_out(&self.works, &self.planned, &otherwise);
        ways.into_iter().map(|(way, then)| self.way_line(&way, &then)).collect()
    }

    /// On every day without an evening from tomorrow on, when most evenings begin.
    fn free_evenings(&self) -> Vec<MinuteOfTime> {
        let zone = zone(self.room);
        let today = self.now.to_zoned(zone.clone()).date();
        let usual = usual_start(self.room);
        let days = (1..60).filter_map(|days| today.checked_add(days.days()).ok());
        days.filter(|day| self.evenings.iter().all(|evening| evening.date != *day))
            .filter_map(|day| crate::plan::due(day, Some(usual), self.room))
            .collect()
    }

    fn way_line(&self, way: &WayOut, then: &Planned) -> WayOutLine {
        let of = way.garment().unwrap_or_default();
        let bench = &self.benches[of];
        let start = match way {
            WayOut::Another { start, .. } => Some(*start),
            WayOut::AskForHelp { evening } => self.evenings.get(*evening).map(|evening| evening.start),
            WayOut::Drop { .. } | WayOut::Simplify { .. } | WayOut::Later { .. } => None,
        };
        let evening = start.map_or_else(String::new, |start| lines::moment_words(start, self.room, self.now));
        let saved = self.planned.late().saturating_sub(then.late());
        let mut says = match then.late() {
            0 => "Then everything is ready in time.".to_owned(),
            late => format!(
                "Then {} still come too late, instead of {}.",
                long_words(late),
                long_words(self.planned.late())
            ),
        };
        // Whoever has a day and is put off hears for whose sake.
        let has_day = |garment: &usize| self.works[*garment].due.is_some() && way.garment() != Some(*garment);
        let name = |garment: usize| &self.benches[garment].garment.name;
        for (garment, others) in
            moved_by(&self.planned, then).into_iter().filter(|(garment, _)| has_day(garment))
        {
            let others: Vec<usize> = others.into_iter().filter(has_day).collect();
            if others == [garment] {
                says = format!("{says} The {} is ready later, but its try-on comes earlier.", name(garment));
            } else if let Some((first, rest)) = others.split_first() {
                let more = if rest.is_empty() { "" } else { " and others" };
                let (put_off, first) = (name(garment), name(*first));
                says = format!("{says} The {put_off} is ready later, for the sake of the {first}{more}.");
            }
        }
        WayOutLine {
            title: way_words(way, &bench.garment, &evening),
            costs: lines::costs_words(way, &self.works, then),
            says,
            saves_minutes: saved,
            late_minutes: then.late(),
            garment: way.garment().map(|_| bench.id),
            wishes: way.garment().and_then(|_| way.wishes(bench.wishes)),
            evening: lines::evening_to_add(way, &self.evenings, self.room),
        }
    }
}

/// When most evenings of a workroom begin; half past seven where there are none.
fn usual_start(room: &Workroom) -> jiff::civil::Time {
    let mut starts: BTreeMap<jiff::civil::Time, usize> = BTreeMap::new();
    room.weekly.iter().for_each(|weekly| *starts.entry(weekly.start).or_default() += 1);
    let most = starts.into_iter().max_by_key(|(start, count)| (*count, std::cmp::Reverse(*start)));
    most.map_or_else(|| jiff::civil::time(19, 30, 0, 0), |(start, _)| start)
}

/// The work on one garment as the plan takes it, at the usual pace; nothing of a garment without a state.
pub fn work_of(of: OfGarment<'_>, room: &Workroom, tape: Tape) -> Option<GarmentWork> {
    Some(Bench::new(of, tape)?.work(room, &Pace::default()))
}
