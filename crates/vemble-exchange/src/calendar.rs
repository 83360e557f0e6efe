//! The evenings as a calendar (iCalendar, RFC 5545): one event for each evening in which something is done, and one for each day that
//! something has to be ready by. Moments are in UTC, so that no reader has to know about clock changes.

use chrono::{DateTime, Duration, NaiveDate, Utc};
use icalendar::{Calendar, Component, Event, EventLike};
use vemble_core::ahead::{Ahead, EveningLine};

/// The calendar of what lies ahead, written at a moment (RFC 3339). Evenings with nothing in them are left out.
pub fn calendar(ahead: &Ahead, written: &str) -> String {
    let mut calendar = Calendar::new();
    calendar.name("Vemble").description("What is sewn when");
    let written = moment(written).unwrap_or_default();
    for evening in &ahead.evenings {
        if let Some(event) = event(evening, written) {
            calendar.push(event);
        }
    }
    for garment in ahead.garments.iter().filter(|garment| garment.minutes.likely > 0) {
        if let (Some(day), Some(due)) = (garment.due_day.as_deref().and_then(date), &garment.due) {
            let event = Event::new()
                .uid(&format!("due-{}@vemble", garment.id))
                .timestamp(written)
                .all_day(day)
                .summary(&format!("{} has to be ready", garment.name))
                .description(&format!("{due}. {}", garment.says))
                .done();
            calendar.push(event);
        }
    }
    folded(&calendar.to_string())
}

/// So many octets a line has at most (RFC 5545, 3.1).
const LONGEST: usize = 75;

/// The library counts the last part of a folded line without the space that it begins with: what is longer by that is folded once more.
fn folded(text: &str) -> String {
    let mut all = String::with_capacity(text.len());
    for line in text.split_inclusive("\r\n") {
        let end = line.trim_end_matches("\r\n").len();
        if end > LONGEST {
            let cut = (0..=LONGEST).rev().find(|at| line.is_char_boundary(*at)).unwrap_or(end);
            all.push_str(&line[..cut]);
            all.push_str("\r\n ");
            all.push_str(&line[cut..]);
        } else {
            all.push_str(line);
        }
    }
    all
}

fn moment(text: &str) -> Option<DateTime<Utc>> {
    DateTime::parse_from_rfc3339(text).ok().map(|at| at.with_timezone(&Utc))
}

fn date(text: &str) -> Option<NaiveDate> {
    text.parse().ok()
}

fn event(evening: &EveningLine, written: DateTime<Utc>) -> Option<Event> {
    let begins = moment(&evening.begins)?;
    let mut garments: Vec<&str> = evening.pieces.iter().map(|piece| &piece.garment_name[..]).collect();
    garments.dedup();
    if garments.is_empty() {
        return None;
    }
    let lines: Vec<String> = evening
        .pieces
        .iter()
        .map(|piece| format!("{} {} ({}, {} min)", piece.at, piece.title, piece.garment_name, piece.minutes))
        .collect();
    let helper =
        if evening.helper.is_empty() { String::new() } else { format!("\nWith {}.", evening.helper) };
    let event = Event::new()
        .uid(&format!("{}-{}@vemble", evening.source, evening.date))
        .timestamp(written)
        .starts(begins)
        .ends(begins + Duration::minutes(i64::from(evening.minutes)))
        .summary(&format!("Sew: {}", garments.join(", ")))
        .description(&format!("{}{helper}", lines.join("\n")))
        .done();
    Some(event)
}
