//! Lines of what lies ahead: evenings and their pieces, tasks, gates, ways out; and moments in words, by the clock on the wall.

use super::Table;
use crate::change::ChangeKey;
use crate::plan::{Evening, GarmentWork, MinuteOfTime, Minutes, Pace, Planned, Undone, WayOut, zone};
use crate::told::long_words;
use crate::work::{Correction, Single, Step, SupplyKind, TaskKey, Wishes, Workroom, Worthy};
use jiff::Timestamp;
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// A task by its key and title, and why it is named here.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct NeedLine {
    /// Which.
    pub task: TaskKey,
    /// What it is called.
    pub title: String,
    /// Why; empty where that is plain.
    pub why: String,
}

/// How one thing is set.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct SettingLine {
    /// What: stitch, needle, thread, foot, iron.
    pub what: &'static str,
    /// How.
    pub words: String,
}

/// What a task uses up, as an entry of the log holds it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct UsedLine {
    /// What.
    pub kind: SupplyKind,
    /// Which.
    pub which: String,
    /// Centimetres, or pieces.
    pub amount: u32,
}

/// A gate: what it judges, and its verdicts.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GateLine {
    /// Left and right are judged each by itself.
    pub by_side: bool,
    /// It fits there: left, right.
    pub fits: [bool; 2],
    /// It was passed without a verdict, and why.
    pub passed: Option<String>,
    /// It did not fit.
    pub failed: bool,
    /// What is to be changed.
    pub corrections: Vec<Correction>,
    /// What is judged.
    pub changes: Vec<ChangeKey>,
}

/// A piece of a task in an evening.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct WhenLine {
    /// When it begins, in words: "today 19:30", "Thu 5 Nov 19:30".
    pub words: String,
    /// The place of the evening among those that are shown.
    pub evening: usize,
    /// How long.
    pub minutes: u32,
}

/// One task, with everything that is known of it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct TaskLine {
    /// Names it.
    pub key: TaskKey,
    /// What the hand does.
    pub step: Step,
    /// What it is called.
    pub title: String,
    /// The change it belongs to.
    pub change: Option<ChangeKey>,
    /// Minutes: least, likely, most.
    pub minutes: Minutes,
    /// The same in words.
    pub minutes_words: String,
    /// What it is about besides: what is opened, how long the edge is.
    pub about: Vec<String>,
    /// How things are set.
    pub settings: Vec<SettingLine>,
    /// What is reached for.
    pub tools: Vec<&'static str>,
    /// What it uses up, in words.
    pub supplies: Vec<String>,
    /// The same, for the log.
    pub uses: Vec<UsedLine>,
    /// What to know.
    pub caution: Option<&'static str>,
    /// Whether it can be undone.
    pub undone: Undone,
    /// The same in words.
    pub undone_words: &'static str,
    /// Where it is done.
    pub place: &'static str,
    /// It needs somebody's help.
    pub helper: bool,
    /// How long nothing can go on afterwards.
    pub waits: Option<String>,
    /// What its change is worth.
    pub worth: Worthy,
    /// It is one's own.
    pub is_own: bool,
    /// It lies on the longest way through what is left.
    pub is_critical: bool,
    /// What has to be done before, and why.
    pub needs: Vec<NeedLine>,
    /// The gate that keeps it shut.
    pub shut_by: Option<NeedLine>,
    /// Of a gate: its verdicts.
    pub gate: Option<GateLine>,
    /// How it stands: open, begun, done, skipped.
    pub stands: &'static str,
    /// When it was begun.
    pub begun: Option<String>,
    /// How long it took, in minutes.
    pub took: Option<u32>,
    /// Its timer ran so long that somebody may have forgotten it.
    pub is_doubtful: bool,
    /// It could not be done, and why.
    pub trouble: Option<String>,
    /// What was noted.
    pub notes: Vec<String>,
    /// What the hand does, as its card says.
    pub hand: Vec<String>,
    /// When it is done, piece by piece.
    pub when: Vec<WhenLine>,
    /// Why it has no place.
    pub no_place: Option<String>,
}

/// A piece of some garment's task.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct PieceLine {
    /// Which garment.
    pub garment: Uuid,
    /// What it is called.
    pub garment_name: String,
    /// Which task.
    pub task: TaskKey,
    /// What it is called.
    pub title: String,
    /// When it begins, by the clock on the wall: "19:30".
    pub at: String,
    /// When it begins, as an instant.
    pub begins: String,
    /// How long.
    pub minutes: u32,
    /// "1 of 2" of a task that is done in pieces.
    pub piece: Option<String>,
    /// It is tried on.
    pub is_gate: bool,
    /// It cannot be undone.
    pub is_for_good: bool,
    /// Where it is done.
    pub place: &'static str,
    /// Its garment has to be ready before it begins.
    pub is_late: bool,
}

/// An evening, with what is done in it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct EveningLine {
    /// The pattern or single evening that it comes from.
    pub source: Uuid,
    /// It comes every week.
    pub is_weekly: bool,
    /// Its day, as a date.
    pub date: String,
    /// In words: "Thu 5 Nov".
    pub words: String,
    /// From when to when: "19:30 to 21:00".
    pub hours: String,
    /// When it begins, as an instant.
    pub begins: String,
    /// How many minutes there are.
    pub minutes: u32,
    /// How many nothing needs.
    pub free_minutes: u32,
    /// Who helps; nobody when empty.
    pub helper: String,
    /// What is done, in order.
    pub pieces: Vec<PieceLine>,
    /// What has to be ready on that day.
    pub events: Vec<String>,
}

/// An evening that a way out adds, or asks for help on.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct EveningToAdd {
    /// Its day.
    #[schema(value_type = String, format = Date)]
    pub date: jiff::civil::Date,
    /// When it begins.
    #[schema(value_type = String)]
    pub start: jiff::civil::Time,
    /// How long.
    pub minutes: u32,
    /// Somebody helps.
    pub helped: bool,
}

/// A way out.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WayOutLine {
    /// What to do.
    pub title: String,
    /// What that costs.
    pub costs: String,
    /// What it comes to: it was planned.
    pub says: String,
    /// Minutes fewer that come too late.
    pub saves_minutes: u32,
    /// Minutes that still do.
    pub late_minutes: u32,
    /// The garment that it is about.
    pub garment: Option<Uuid>,
    /// What is wished for it then.
    pub wishes: Option<Wishes>,
    /// The evening that it adds or asks for help on.
    pub evening: Option<EveningToAdd>,
}

/// How long one kind of task really takes.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct LearntLine {
    /// Which.
    pub step: Step,
    /// In words.
    pub name: &'static str,
    /// How often it was timed.
    pub count: usize,
    /// "120 % of the usual (90 to 160)".
    pub words: String,
}

/// What was learnt, in words.
pub(super) fn learnt(pace: &Pace) -> Vec<LearntLine> {
    pace.learnt()
        .map(|(step, ratio)| {
            let [least, likely, most] = ratio.percent;
            let words = format!("{likely} % of the usual ({least} to {most})");
            LearntLine { step, name: step.name(), count: ratio.count, words }
        })
        .collect()
}

/// The instant of a minute.
pub(super) fn timestamp(at: MinuteOfTime) -> Timestamp {
    Timestamp::from_second(at.saturating_mul(60)).unwrap_or(Timestamp::UNIX_EPOCH)
}

fn wall(at: MinuteOfTime, room: &Workroom) -> jiff::Zoned {
    timestamp(at).to_zoned(zone(room))
}

/// A day in words: "Thu 5 Nov"; with its time where that is not its beginning.
pub(super) fn day_words(at: MinuteOfTime, room: &Workroom) -> String {
    let at = wall(at, room);
    let is_midnight = at.hour() == 0 && at.minute() == 0;
    if is_midnight {
        at.strftime("%a %-d %b").to_string()
    } else {
        at.strftime("%a %-d %b, %H:%M").to_string()
    }
}

/// A moment in words: "today 19:30", "tomorrow 19:30", "Thu 5 Nov 19:30".
pub(super) fn moment_words(at: MinuteOfTime, room: &Workroom, now: Timestamp) -> String {
    let at = wall(at, room);
    let today = now.to_zoned(zone(room)).date();
    let time = at.strftime("%H:%M");
    match (at.date() - today).get_days() {
        0 => format!("today {time}"),
        1 => format!("tomorrow {time}"),
        _ => format!("{} {time}", at.strftime("%a %-d %b")),
    }
}

/// How long a task takes at the learnt pace.
pub(super) fn task_minutes(work: &GarmentWork, at: usize) -> Minutes {
    work.minutes[at]
}

/// When the tasks of a garment are done.
pub(super) fn when_lines(
    planned: &Planned,
    garment: usize,
    room: &Workroom,
    now: Timestamp,
) -> Vec<(TaskKey, WhenLine)> {
    let line = |placed: &crate::plan::Placed| {
        let when = WhenLine {
            words: moment_words(placed.start, room, now),
            evening: placed.evening,
            minutes: placed.minutes,
        };
        (placed.task, when)
    };
    planned.of(garment).map(line).collect()
}

/// What a way out costs.
pub(super) fn costs_words(way: &WayOut, works: &[GarmentWork], then: &Planned) -> String {
    match way {
        WayOut::Drop { garment, worth, .. } => {
            let left = works[*garment].minutes_left().likely;
            let after: u32 = then.of(*garment).map(|placed| placed.minutes).sum();
            let less = long_words(left.saturating_sub(after));
            match worth {
                Worthy::IfThereIsTime => {
                    format!("It was only to be done if there is time; {less} less to do.")
                }
                Worthy::Wanted | Worthy::Must | Worthy::NotThisTime => {
                    format!("It is wanted; {less} less to do.")
                }
            }
        }
        WayOut::Simplify { garment, .. } => {
            let left = works[*garment].minutes_left().likely;
            let after: u32 = then.of(*garment).map(|placed| placed.minutes).sum();
            format!(
                "It looks or feels a little different; {} less to do.",
                long_words(left.saturating_sub(after))
            )
        }
        WayOut::Another { minutes, .. } => format!("{} of a free evening.", long_words(*minutes)),
        WayOut::AskForHelp { .. } => "Somebody’s time, for as long as it is tried on.".into(),
        WayOut::Later { .. } => "It is not worn this time.".into(),
    }
}

/// The evening that a way out adds or asks for help on.
pub(super) fn evening_to_add(way: &WayOut, evenings: &[Evening], room: &Workroom) -> Option<EveningToAdd> {
    let (start, minutes, helped) = match way {
        WayOut::Another { start, minutes } => (*start, *minutes, false),
        WayOut::AskForHelp { evening } => {
            let evening = evenings.get(*evening)?;
            (evening.start, evening.minutes, true)
        }
        WayOut::Drop { .. } | WayOut::Simplify { .. } | WayOut::Later { .. } => return None,
    };
    let at = wall(start, room);
    Some(EveningToAdd { date: at.date(), start: at.time(), minutes, helped })
}

/// As a single evening of the workroom.
impl EveningToAdd {
    /// With an id of its own and whoever helps.
    pub fn single(&self, id: Uuid, helper: String) -> Single {
        let minutes = u16::try_from(self.minutes).unwrap_or(u16::MAX);
        Single { id, date: self.date, start: self.start, minutes, helper }
    }
}

impl Table<'_> {
    /// Evenings with their pieces: up to the last that something is done in or has to be ready before, and a week more.
    pub(super) fn evening_lines(&self, planned: &Planned) -> Vec<EveningLine> {
        let last_piece = planned.placed.iter().map(|placed| placed.evening).max();
        let last_due =
            self.works.iter().filter(|work| work.minutes_left().likely > 0).filter_map(|work| work.due).max();
        let until =
            planned.evenings.partition_point(|evening| last_due.is_some_and(|due| evening.start < due));
        let count = last_piece.map_or(0, |at| at + 1).max(until).max(7).min(planned.evenings.len());
        let line = |(n, evening): (usize, &Evening)| {
            let begins = wall(evening.start, self.room);
            let pieces: Vec<PieceLine> =
                planned.placed.iter().filter(|p| p.evening == n).map(|placed| self.piece(placed)).collect();
            let used: u32 = planned.placed.iter().filter(|p| p.evening == n).map(|p| p.minutes).sum();
            let events = self.room.events.iter().filter(|event| event.date == begins.date());
            EveningLine {
                source: evening.source,
                is_weekly: evening.is_weekly,
                date: begins.date().to_string(),
                words: begins.strftime("%a %-d %b").to_string(),
                hours: format!(
                    "{} to {}",
                    begins.strftime("%H:%M"),
                    wall(evening.end(), self.room).strftime("%H:%M")
                ),
                begins: timestamp(evening.start).to_string(),
                minutes: evening.minutes,
                free_minutes: evening.minutes.saturating_sub(used),
                helper: evening.helper.clone(),
                pieces,
                events: events.map(|event| event.name.clone()).collect(),
            }
        };
        planned.evenings.iter().enumerate().take(count).map(line).collect()
    }

    /// An evening in which nothing can be done.
    pub(super) fn empty_evening(&self, minutes: u32) -> EveningLine {
        let start = crate::plan::minute(self.now);
        let begins = wall(start, self.room);
        let end = wall(start + i64::from(minutes), self.room);
        EveningLine {
            source: Uuid::nil(),
            is_weekly: false,
            date: begins.date().to_string(),
            words: begins.strftime("%a %-d %b").to_string(),
            hours: format!("{} to {}", begins.strftime("%H:%M"), end.strftime("%H:%M")),
            begins: timestamp(start).to_string(),
            minutes,
            free_minutes: minutes,
            helper: String::new(),
            pieces: Vec::new(),
            events: Vec::new(),
        }
    }

    fn piece(&self, placed: &crate::plan::Placed) -> PieceLine {
        let bench = &self.benches[placed.garment];
        let task = bench.chain.task(placed.task);
        PieceLine {
            garment: bench.id,
            garment_name: bench.garment.name.clone(),
            task: placed.task,
            title: bench.title(placed.task),
            at: wall(placed.start, self.room).strftime("%H:%M").to_string(),
            begins: timestamp(placed.start).to_string(),
            minutes: placed.minutes,
            piece: (placed.piece.1 > 1).then(|| format!("{} of {}", placed.piece.0, placed.piece.1)),
            is_gate: placed.task.step.is_gate(),
            is_for_good: task.is_some_and(|task| task.undone == Undone::Never),
            place: task.map_or("", |task| task.place.name()),
            is_late: self.works[placed.garment].due.is_some_and(|due| placed.end() > due),
        }
    }
}
