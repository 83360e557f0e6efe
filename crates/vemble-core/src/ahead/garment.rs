//! How the work on one garment stands, and its tasks one by one.

use super::lines::{
    GateLine, NeedLine, SettingLine, TaskLine, UsedLine, WhenLine, day_words, moment_words, task_minutes,
    when_lines,
};
use super::shelf::{MoneyLine, money};
use super::{Bench, Table};
use crate::choice::choice;
use crate::plan::{MinuteOfTime, StandsAt, day_of, minute};
use crate::record::lessons_for;
use crate::told::{
    Teller, about_words, long_words, minutes_words, settings_words, supply_words, why_not_words,
};
use crate::work::{Step, TaskKey, TaskOf};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

choice! {
    /// How the work on a garment looks.
    Outlook {
        NotToBeAltered => "not to be altered",
        Circle => "tasks wait for each other",
        Settle => "something has to be settled first",
        Over => "its day is past",
        Late => "not ready in time",
        NoPlace => "not all of it finds an evening",
        Tight => "ready in time, with little to spare",
        InTime => "ready in time",
        NoDay => "no day to be ready by",
        Finished => "finished",
        NothingYet => "nothing to sew yet",
    }
}

/// How the work on one garment stands.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GarmentAhead {
    /// Which.
    pub id: Uuid,
    /// What it is called.
    pub name: String,
    /// Who wears it.
    pub wearer: String,
    /// The state that is worked on.
    pub state: Uuid,
    /// How it looks.
    pub outlook: Outlook,
    /// The same in a few words.
    pub outlook_words: &'static str,
    /// The same in a sentence or two, with what it rests on.
    pub says: String,
    /// The next task: its key and title.
    pub next: Option<NeedLine>,
    /// How many tasks are done, and how many there are.
    pub done: [usize; 2],
    /// Minutes left: least, likely, most.
    pub minutes: crate::plan::Minutes,
    /// The same in words.
    pub minutes_words: String,
    /// Days until it has to be ready; negative once they are past.
    pub days_left: Option<i32>,
    /// The day it has to be ready by, as a date.
    pub due_day: Option<String>,
    /// When it has to be ready, in words.
    pub due: Option<String>,
    /// When it is, in words.
    pub finish: Option<String>,
    /// Minutes of evenings before its day that nothing needs.
    pub slack_minutes: Option<u32>,
    /// Minutes of it that come too late.
    pub late_minutes: u32,
    /// What has no place, and why.
    pub unplaced: Vec<NeedLine>,
    /// What was learnt and matters here.
    pub lessons: Vec<String>,
    /// What it costs and saves.
    pub money: Option<MoneyLine>,
    /// Its tasks, in an order that keeps every arrow; none where they were not asked for.
    pub tasks: Vec<TaskLine>,
}

/// Less than so many minutes to spare is little: half an evening (teaching value).
const LITTLE: u32 = 45;

impl Table<'_> {
    /// One garment; with its tasks where they are wanted.
    pub(super) fn garment(&self, n: usize, with_tasks: bool) -> GarmentAhead {
        let (bench, work, planned) = (&self.benches[n], &self.works[n], &self.planned.garments[n]);
        let minutes = work.minutes_left();
        let outlook = self.outlook(n);
        let title = |key: TaskKey| NeedLine { task: key, title: bench.title(key), why: String::new() };
        let settled = bench.chain.tasks.iter().filter(|task| bench.progress.is_settled(task.key)).count();
        let today = day_of(self.now, self.room);
        let due_day = work.due.map(|due| lines_day(due, self));
        let unplaced = planned.unplaced.iter().map(|(key, why)| NeedLine {
            why: why_not_words(*why, &bench.garment, bench.wishes),
            ..title(*key)
        });
        let steps: Vec<Step> = bench.chain.tasks.iter().map(|task| task.key.step).collect();
        let lessons = lessons_for(&self.room.lessons, (bench.id, &bench.garment), bench.wearer, &steps);
        GarmentAhead {
            id: bench.id,
            name: bench.garment.name.clone(),
            wearer: bench.document.wearer.name.clone(),
            state: bench.document.newest().map(|state| state.id).unwrap_or_default(),
            outlook,
            outlook_words: outlook.name(),
            says: self.says(n, outlook),
            next: self.next(n).map(title),
            done: [settled, bench.chain.tasks.len()],
            minutes,
            minutes_words: if minutes.likely == 0 { String::new() } else { long_words(minutes.likely) },
            days_left: due_day.map(|day| (day - today).get_days()),
            due_day: due_day.map(|day| day.to_string()),
            due: work.due.map(|due| day_words(due, self.room)),
            finish: planned.finish.map(|finish| moment_words(finish, self.room, self.now)),
            slack_minutes: planned.slack,
            late_minutes: planned.late,
            unplaced: unplaced.collect(),
            lessons: lessons.into_iter().map(|lesson| lesson.words.clone()).collect(),
            money: money(bench, self.room),
            tasks: if with_tasks { self.tasks(n) } else { Vec::new() },
        }
    }

    /// What comes first of it: in the plan, else in the order of its tasks.
    fn next(&self, n: usize) -> Option<TaskKey> {
        let placed = self.planned.of(n).next().map(|placed| placed.task);
        placed.or_else(|| self.works[n].left().next().map(|(_, task)| task.key))
    }

    fn outlook(&self, n: usize) -> Outlook {
        let planned = self.planned_outlook(n);
        if self.benches[n].stops.is_empty() {
            return planned;
        }
        match planned {
            done @ (Outlook::NotToBeAltered | Outlook::Circle | Outlook::Finished | Outlook::NothingYet) => {
                done
            }
            Outlook::Settle
            | Outlook::Over
            | Outlook::Late
            | Outlook::NoPlace
            | Outlook::Tight
            | Outlook::InTime
            | Outlook::NoDay => Outlook::Settle,
        }
    }

    /// How it looks once everything is settled.
    fn planned_outlook(&self, n: usize) -> Outlook {
        let (bench, work, planned) = (&self.benches[n], &self.works[n], &self.planned.garments[n]);
        let left = work.minutes_left();
        let is_done = left.likely == 0;
        let spread = left.most - left.likely;
        match () {
            () if bench.is_refused() => Outlook::NotToBeAltered,
            () if bench.circle.is_some() => Outlook::Circle,
            () if bench.document.is_finished() => Outlook::Finished,
            () if bench.chain.tasks.is_empty() => Outlook::NothingYet,
            () if is_done => Outlook::Finished,
            () if work.due.is_some_and(|due| due <= minute(self.now)) => Outlook::Over,
            () if planned.late > 0 => Outlook::Late,
            () if !planned.unplaced.is_empty() => Outlook::NoPlace,
            () if work.due.is_none() => Outlook::NoDay,
            () if planned.slack.is_some_and(|slack| slack < LITTLE.max(spread)) => Outlook::Tight,
            () => Outlook::InTime,
        }
    }

    fn says(&self, n: usize, outlook: Outlook) -> String {
        let (bench, work, planned) = (&self.benches[n], &self.works[n], &self.planned.garments[n]);
        let finish =
            planned.finish.map(|finish| moment_words(finish, self.room, self.now)).unwrap_or_default();
        let due = work.due.map(|due| day_words(due, self.room)).unwrap_or_default();
        let slack = planned.slack.map(long_words).unwrap_or_default();
        let left = long_words(work.minutes_left().likely);
        let unplaced = || {
            let (key, why) = planned.unplaced.first()?;
            Some(format!(
                "“{}” has no place: {}.",
                bench.title(*key),
                why_not_words(*why, &bench.garment, bench.wishes)
            ))
        };
        match outlook {
            Outlook::NotToBeAltered => {
                "It protects whoever wears it: altering it voids that. Ask the maker, and keep to what is prescribed where you live.".into()
            }
            Outlook::Circle => {
                let tasks = bench.circle.iter().flat_map(|circle| &circle.0).map(|key| bench.title(*key));
                format!("These wait for each other: {}. Take one of your wishes back.", tasks.collect::<Vec<_>>().join(" · "))
            }
            Outlook::Finished => "Everything is done.".into(),
            Outlook::NothingYet => "Nothing is changed on it yet: try it on and pin it.".into(),
            Outlook::Settle => {
                format!("Settle first: {}. {}", bench.stops.join(", "), self.says(n, self.planned_outlook(n)))
            }
            Outlook::Over => format!("It was to be ready by {due}. {left} of work are left."),
            Outlook::Late => match unplaced() {
                Some(unplaced) => format!("Not ready by {due}: {} of {left} come too late. {unplaced}", long_words(planned.late)),
                None => format!("Ready {finish}, but {} of {left} come after {due}.", long_words(planned.late)),
            },
            Outlook::NoPlace => unplaced().unwrap_or_default(),
            Outlook::Tight => format!("Ready {finish}, {slack} to spare before {due}. Such work may take up to {}.", long_words(work.minutes_left().most)),
            Outlook::InTime => format!("Ready {finish}, {slack} to spare before {due}."),
            Outlook::NoDay => format!("Ready {finish}."),
        }
    }

    /// Its tasks, one by one.
    fn tasks(&self, n: usize) -> Vec<TaskLine> {
        let (bench, work, planned) = (&self.benches[n], &self.works[n], &self.planned.garments[n]);
        let to = Teller::of(&bench.garment, self.tape);
        let when: Vec<(TaskKey, WhenLine)> = when_lines(&self.planned, n, self.room, self.now);
        let line = |(at, task): (usize, &crate::plan::Task)| {
            let standing = bench.progress.of(task.key);
            let needs = bench.chain.needs(at).map(|(first, why)| NeedLine {
                task: bench.chain.tasks[first].key,
                title: bench.title(bench.chain.tasks[first].key),
                why: why.name().into(),
            });
            let minutes = task_minutes(work, at);
            let gate = task.key.step.is_gate().then(|| GateLine {
                by_side: task.by_side,
                fits: standing.gate.fits,
                passed: standing.gate.passed.clone(),
                failed: !standing.gate.corrections.is_empty(),
                corrections: standing.gate.corrections.clone(),
                changes: gated(bench, at),
            });
            TaskLine {
                key: task.key,
                step: task.key.step,
                title: bench.title(task.key),
                change: task.key.change(),
                minutes,
                minutes_words: minutes_words(minutes),
                about: about_words(task, &to),
                settings: settings_words(&task.settings)
                    .into_iter()
                    .map(|(what, words)| SettingLine { what, words })
                    .collect(),
                tools: task.tools.iter().map(|tool| tool.name()).collect(),
                supplies: task.supplies.iter().map(supply_words).collect(),
                uses: task
                    .supplies
                    .iter()
                    .map(|s| UsedLine { kind: s.kind, which: s.which.clone(), amount: s.amount })
                    .collect(),
                caution: task.caution.map(crate::plan::Caution::name),
                undone: task.undone,
                undone_words: task.undone.name(),
                place: task.place.name(),
                helper: task.helper,
                waits: (task.waits > 0).then(|| long_words(task.waits)),
                worth: task.worth,
                is_own: matches!(task.key.of, TaskOf::Own(_)),
                is_critical: planned.critical.contains(&task.key),
                needs: needs.collect(),
                shut_by: bench.shut_by(at).map(|gate| NeedLine {
                    task: gate.key,
                    title: bench.title(gate.key),
                    why: crate::plan::Because::NothingIsCutBefore.name().into(),
                }),
                gate,
                stands: match standing.at {
                    StandsAt::Open => "open",
                    StandsAt::Begun(_) => "begun",
                    StandsAt::Done(_) => "done",
                    StandsAt::Skipped => "skipped",
                },
                begun: match standing.at {
                    StandsAt::Begun(at) => Some(at.to_string()),
                    StandsAt::Open | StandsAt::Done(_) | StandsAt::Skipped => None,
                },
                took: standing.minutes,
                is_doubtful: standing.is_doubtful,
                trouble: standing.trouble,
                notes: standing.notes,
                hand: bench.hand_of(task.key),
                when: when.iter().filter(|(key, _)| *key == task.key).map(|(_, when)| when.clone()).collect(),
                no_place: planned
                    .unplaced
                    .iter()
                    .find(|(key, _)| *key == task.key)
                    .map(|(_, why)| why_not_words(*why, &bench.garment, bench.wishes)),
            }
        };
        bench.chain.tasks.iter().enumerate().map(line).collect()
    }
}

/// The changes that are judged at a gate, each with its sides.
fn gated(bench: &Bench<'_>, gate: usize) -> Vec<crate::change::ChangeKey> {
    let own = bench.chain.tasks[gate].key.change();
    let mut changes: Vec<_> = match own {
        Some(change) => vec![change],
        None => {
            bench.chain.needs(gate).filter_map(|(first, _)| bench.chain.tasks[first].key.change()).collect()
        }
    };
    changes.sort_unstable();
    changes.dedup();
    changes
}

fn lines_day(at: MinuteOfTime, table: &Table<'_>) -> jiff::civil::Date {
    day_of(super::lines::timestamp(at), table.room)
}
