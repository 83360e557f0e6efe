//! The evenings there are: the weekly pattern and the single ones, in their time zone, clock changes and all.

use crate::work::Workroom;
use jiff::civil::{Date, DateTime, Time};
use jiff::tz::{TimeZone, TimeZoneDatabase};
use jiff::{Timestamp, ToSpan, Zoned};
use uuid::Uuid;

/// A moment, in whole minutes of Unix time.
pub type MinuteOfTime = i64;

/// The minute of a moment.
pub fn minute(at: Timestamp) -> MinuteOfTime {
    at.as_second().div_euclid(60)
}

/// Time to sew, from a moment on.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Evening {
    /// The pattern or the single evening that it comes from.
    pub source: Uuid,
    /// Its day, by the clock on the wall.
    pub date: Date,
    /// It comes every week.
    pub is_weekly: bool,
    /// When it begins.
    pub start: MinuteOfTime,
    /// How many minutes there are.
    pub minutes: u32,
    /// Who is there to help; nobody when empty.
    pub helper: String,
}

impl Evening {
    /// When it is over.
    pub const fn end(&self) -> MinuteOfTime {
        self.start + self.minutes as i64
    }
}

/// How far ahead evenings are looked for where no event is later: 12 weeks.
const AHEAD_DAYS: i64 = 84;
/// Never further than this, however late an event is.
const AT_MOST_DAYS: i64 = 400;
/// And never more than so many.
const MOST: usize = 240;

/// The time zone of a workroom, from the database that the program carries: the same everywhere. UTC where it is not known.
pub(crate) fn zone(room: &Workroom) -> TimeZone {
    TimeZoneDatabase::bundled().get(&room.time_zone).unwrap_or(TimeZone::UTC)
}

/// When a civil time is in a zone. One that the clock skips in spring is as much later; of one that comes twice in autumn it is the first.
fn moment(date: Date, time: Time, zone: &TimeZone) -> Option<Zoned> {
    zone.to_ambiguous_zoned(DateTime::from_parts(date, time)).compatible().ok()
}

/// When the day of a moment begins where the workroom is; that day.
pub(crate) fn day_of(at: Timestamp, room: &Workroom) -> Date {
    at.to_zoned(zone(room)).date()
}

/// The moment that something has to be finished by: when the event begins, or its day.
pub(crate) fn due(date: Date, time: Option<Time>, room: &Workroom) -> Option<MinuteOfTime> {
    moment(date, time.unwrap_or(Time::midnight()), &zone(room)).map(|at| minute(at.timestamp()))
}

/// All evenings from a moment on, in order, none over another: what is left of one that has begun, and of two that overlap the second
/// begins when the first is over.
pub fn evenings(room: &Workroom, now: Timestamp) -> Vec<Evening> {
    let zone = zone(room);
    let today = now.to_zoned(zone.clone()).date();
    let farthest = room.events.iter().map(|event| (event.date - today).get_days().into()).max().unwrap_or(0);
    let days = farthest.clamp(AHEAD_DAYS, AT_MOST_DAYS);
    let mut all: Vec<Evening> = Vec::new();
    let mut add = |source: Uuid, is_weekly: bool, date: Date, start: Time, minutes: u16, helper: &str| {
        if let Some(at) = moment(date, start, &zone) {
            let (start, minutes) = (minute(at.timestamp()), u32::from(minutes));
            all.push(Evening { source, date, is_weekly, start, minutes, helper: helper.into() });
        }
    };
    // From yesterday: an evening may go past midnight.
    for days in -1..=days {
        let Ok(date) = today.checked_add(days.days()) else { break };
        for weekly in room.weekly.iter().filter(|w| w.day == date.weekday().to_monday_one_offset()) {
            if !room.left_out.iter().any(|out| out.weekly == weekly.id && out.date == date) {
                add(weekly.id, true, date, weekly.start, weekly.minutes, &weekly.helper);
            }
        }
        for single in room.single.iter().filter(|single| single.date == date) {
            add(single.id, false, date, single.start, single.minutes, &single.helper);
        }
    }
    all.sort_by_key(|evening| (evening.start, evening.source));
    let now = minute(now);
    let mut free = now;
    let mut left: Vec<Evening> = Vec::new();
    for mut evening in all {
        let (start, end) = (evening.start.max(free), evening.end());
        if end > start {
            evening.minutes = (end - start) as u32;
            evening.start = start;
            free = end;
            left.push(evening);
        }
    }
    left.truncate(MOST);
    left
}
