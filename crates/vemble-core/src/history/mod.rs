//! The history of a garment: what was done to it, what each state measured, what is left inside, and what it would be once the changes at hand
//! are sewn.

#[cfg(test)]
mod tests;

use crate::change::{ChangeKey, Drawn, DrawnChange};
use crate::document::{Document, Entry, Happened, State, wrong_state};
use crate::fault::{Fault, Wrong};
use crate::garment::{Garment, GarmentLevel};
use crate::judge::Subject;
use crate::length::{Figure, Length, Tape};
use crate::place::Level;
use crate::plan::{Chain, TasksOf, Undone, chain, corrected, progress};
use crate::record::{Gives, Reserve, StandingAdjustment, can_go, next_state, reserve, standing, taken_at};
use crate::solve::drawn_on;
use crate::told::{money_words, term_words};
use crate::try_on::TryOn;
use crate::work::{Correction, Step, Wishes};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// The history of a garment, and what is left inside it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct History {
    /// What was done, the newest first.
    pub entries: Vec<EntryLine>,
    /// Its states, the newest first.
    pub states: Vec<StateLine>,
    /// What is left inside each part.
    pub reserve: Vec<ReserveLine>,
    /// How far it can go at each level.
    pub can_go: Vec<CanGoLine>,
    /// What could be entered as sewn; nothing where nothing is changed on it now.
    pub proposal: Option<Proposal>,
}

/// One entry.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct EntryLine {
    /// Which.
    pub id: Uuid,
    /// The day.
    pub date: String,
    /// What happened, in a sentence.
    pub says: String,
    /// Why.
    pub why: String,
    /// Before and after, where that differs: "waist: 88.0 cm, now 84.0 cm".
    pub figures: Vec<String>,
    /// It can be taken back: it made the newest state, and nothing was cut.
    pub can_be_taken_back: bool,
    /// Why it cannot, where it is the newest.
    pub why_not: Option<&'static str>,
}

/// One state.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StateLine {
    /// Which.
    pub id: Uuid,
    /// What it is called: "as it was found", "after 12 November 2026".
    pub name: String,
    /// Its girths, from the top down.
    pub levels: Vec<StateLevel>,
}

/// A girth of a state.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StateLevel {
    /// At which level.
    pub level: Level,
    /// In words.
    pub name: &'static str,
    /// All round.
    pub girth: Figure,
    /// Nobody measured it.
    pub assumed: bool,
}

/// What is left inside one part.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ReserveLine {
    /// Which.
    pub part: ChangeKey,
    /// What it is called.
    pub name: String,
    /// What it gives where it gives most, in a few words: "can be let out 2 × 0.9 cm".
    pub says: String,
    /// It gives something.
    pub gives: bool,
    /// The same at each level.
    pub levels: Vec<String>,
}

/// How far a garment can go at a level.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CanGoLine {
    /// At which level.
    pub level: Level,
    /// In words.
    pub name: &'static str,
    /// How much all seams give together there.
    pub gives: Figure,
    /// What it measures then.
    pub to: Figure,
    /// The sum.
    pub sum: String,
}

/// What could be entered as sewn.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Proposal {
    /// The state that it is sewn from.
    pub from: Uuid,
    /// The try-on that is sewn.
    pub try_on: Option<Uuid>,
    /// Its changes: which, what they are called, whether their stitching is done, whether cloth was cut.
    pub changes: Vec<SewnChange>,
    /// The garment as it is then.
    pub garment: Garment,
    /// What it measures then, from the top down.
    pub levels: Vec<DerivedLevel>,
}

/// One change that could be entered.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SewnChange {
    /// Which.
    pub key: ChangeKey,
    /// What it is called.
    pub name: String,
    /// Its stitching is done.
    pub is_sewn: bool,
    /// Cloth was cut for it.
    pub is_cut: bool,
    /// It is among those that are entered.
    pub is_entered: bool,
}

/// A girth as it was, and as it follows from what was sewn, or was measured.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DerivedLevel {
    /// At which level.
    pub level: Level,
    /// In words.
    pub name: &'static str,
    /// As it was.
    pub before: Figure,
    /// As it is then.
    pub after: Figure,
    /// It was measured afterwards.
    pub is_measured: bool,
}

/// What was sewn, as far as somebody says so.
#[derive(Clone, Debug, Default, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AsSewn {
    /// Which changes; those whose stitching is done when absent, or all where none is.
    #[serde(default)]
    pub changes: Option<Vec<ChangeKey>>,
    /// Where it was sewn otherwise than chalked.
    #[serde(default)]
    pub otherwise: Vec<Correction>,
    /// What was measured afterwards.
    #[serde(default)]
    pub measured: Vec<GarmentLevel>,
}

/// The history of a garment with what could be entered now, with figures on `tape`.
///
/// # Errors
/// What was sewn otherwise, where no line was; what was measured, where that cannot be.
pub fn history(
    document: &Document,
    sewn: &AsSewn,
    tape: Tape,
    currency: &str,
) -> Result<History, Vec<Fault>> {
    let Some(newest) = document.newest() else {
        return Err(vec![Fault { path: "states".into(), wrong: Wrong::NoState }]);
    };
    let garment = newest.garment.with_levels_in_order(&document.wearer);
    Ok(History {
        entries: document
            .record
            .iter()
            .rev()
            .map(|entry| entry_line(document, entry, tape, currency))
            .collect(),
        states: document.states.iter().rev().map(|state| state_line(document, state, tape)).collect(),
        reserve: reserve(&garment, tape).iter().map(|r| reserve_line(r, &garment, tape)).collect(),
        can_go: garment.levels.iter().filter_map(|level| can_go_line(&garment, level, tape)).collect(),
        proposal: proposal(document, newest, sewn, tape)?,
    })
}

fn entry_line(document: &Document, entry: &Entry, tape: Tape, currency: &str) -> EntryLine {
    let made = entry.made();
    let states = made.and_then(|(from, to)| Some((document.state(from)?, document.state(to)?)));
    let is_newest = made.is_some_and(|(_, to)| document.newest().is_some_and(|state| state.id == to));
    let name = |key: &ChangeKey| states.map_or_else(|| key.to_string(), |(from, _)| key.name(&from.garment));
    let names = |keys: &[ChangeKey]| keys.iter().map(name).collect::<Vec<_>>().join(", ");
    let (says, can_be_taken_back, why_not) = match &entry.what {
        Happened::Sewn { changes, otherwise, measured, cut, .. } => {
            let mut says = match &changes[..] {
                [] => "Sewn".to_owned(),
                changes => format!("Sewn: {}", names(changes)),
            };
            if !otherwise.is_empty() {
                says = format!("{says}; otherwise than chalked in {} places", otherwise.len());
            }
            if !measured.is_empty() {
                says = format!("{says}; measured afterwards");
            }
            if !cut.is_empty() {
                says = format!("{says}; cut: {}", names(cut));
            }
            let why_not = match (is_newest, cut.is_empty()) {
                (true, false) => Some(
                    "Cloth was cut: it cannot be taken back as it was. What is left inside can still be let out.",
                ),
                (true, true) | (false, _) => None,
            };
            (says, is_newest && cut.is_empty(), why_not)
        }
        Happened::TakenBack { .. } => ("Taken back: it is as it was before".to_owned(), false, None),
        Happened::Worn { times: 1 } => ("Worn".to_owned(), false, None),
        Happened::Worn { times } => (format!("Worn {times} times"), false, None),
        Happened::Spent { on, money } => {
            (format!("Spent {} on {on}", money_words(*money, currency)), false, None)
        }
    };
    let figures = states.map_or_else(Vec::new, |(from, to)| {
        let changed = from.garment.levels.iter().filter_map(|before| {
            let after = to.garment.level(before.level)?;
            let [was, is] = [before.width.on(tape), after.width.on(tape)];
            (was != is).then(|| format!("{}: {}, now {}", before.level.name(), tape.show(was), tape.show(is)))
        });
        changed.collect()
    });
    EntryLine {
        id: entry.id,
        date: entry.date.to_string(),
        says: format!("{says}."),
        why: entry.why.clone(),
        figures,
        can_be_taken_back,
        why_not,
    }
}

fn state_line(document: &Document, state: &State, tape: Tape) -> StateLine {
    let made = document.record.iter().find(|entry| entry.made().is_some_and(|(_, to)| to == state.id));
    let name = made
        .map_or_else(|| "as it was found".into(), |entry| entry.date.strftime("after %-d %B %Y").to_string());
    let level = |l: &GarmentLevel| StateLevel {
        level: l.level,
        name: l.level.name(),
        girth: tape.figure(l.width.on(tape)),
        assumed: l.assumed,
    };
    // Nothing goes round a shoulder.
    let around = state.garment.levels.iter().filter(|l| l.level != Level::Shoulder);
    let mut levels: Vec<StateLevel> = around.map(level).collect();
    levels.sort_by_key(|l| l.level);
    StateLine { id: state.id, name, levels }
}

/// "can still be let out 2 × 0.9 cm", of a hem "can be let down 3.4 cm".
fn gives_words(part: ChangeKey, gives: &Gives, tape: Tape) -> String {
    let each = tape.show(gives.each);
    match part {
        _ if gives.each == Length::ZERO => "gives nothing".into(),
        ChangeKey::Hem(_) => format!("can be let down {each}"),
        ChangeKey::Dart(_) => format!("can be let out, 2 sides of the fold × {each} each dart"),
        ChangeKey::Seam(_)
        | ChangeKey::Elastic(_)
        | ChangeKey::Spacing(_)
        | ChangeKey::Gathers(_)
        | ChangeKey::Trunk(_)
        | ChangeKey::Armhole(_) => {
            let seams = if gives.edges == 4 { "each seam " } else { "" };
            format!("can still be let out {seams}2 × {each}")
        }
    }
}

fn reserve_line(reserve: &Reserve, garment: &Garment, tape: Tape) -> ReserveLine {
    let most = reserve.gives.iter().max_by_key(|gives| gives.each);
    let says = match most {
        _ if reserve.is_clipped => "clipped: measure how far the clips go".into(),
        Some(most) if reserve.is_assumed => {
            format!("{} (nobody looked inside)", gives_words(reserve.part, most, tape))
        }
        Some(most) => gives_words(reserve.part, most, tape),
        None => String::new(),
    };
    let level = |gives: &Gives| {
        let at = gives.level?;
        Some(format!(
            "{}: {} inside each edge, {}",
            at.name(),
            tape.show(gives.inside),
            gives_words(reserve.part, gives, tape)
        ))
    };
    ReserveLine {
        part: reserve.part,
        name: reserve.part.name(garment),
        says,
        gives: most.is_some_and(|most| most.each > Length::ZERO),
        levels: reserve.gives.iter().filter_map(level).collect(),
    }
}

fn can_go_line(garment: &Garment, level: &GarmentLevel, tape: Tape) -> Option<CanGoLine> {
    let terms = can_go(garment, level.level, tape);
    let gives: Length = terms.iter().map(crate::change::Term::off).sum();
    let now = level.width.on(tape);
    let all: Vec<String> = terms.iter().map(|term| term_words(garment, term, tape)).collect();
    (gives > Length::ZERO).then(|| CanGoLine {
        level: level.level,
        name: level.level.name(),
        gives: tape.figure(gives),
        to: tape.figure(now + gives),
        sum: format!(
            "{} = {} more; {} + {} = {}",
            all.join(" + "),
            tape.show(gives),
            tape.bare(now),
            tape.bare(gives),
            tape.show(now + gives)
        ),
    })
}

/// What could be entered: the changes of the newest try-on of the newest state, as they were sewn.
fn proposal(
    document: &Document,
    newest: &State,
    sewn: &AsSewn,
    tape: Tape,
) -> Result<Option<Proposal>, Vec<Fault>> {
    let Some(try_on) = document.try_ons.iter().rev().find(|try_on| try_on.state == newest.id) else {
        return Ok(None);
    };
    let garment = newest.garment.with_levels_in_order(&document.wearer).into_owned();
    let wishes = &document.wishes;
    let Some(drawn) = drawn_on(&garment, &document.wearer, try_on, wishes.schools) else { return Ok(None) };
    if !drawn.iter().any(Drawn::is_altered) {
        return Ok(None);
    }
    let subject = Subject {
        changes: &drawn,
        put_on: try_on.put_on(),
        schools: wishes.schools,
        ..Subject::as_it_is(&garment, &document.wearer, tape)
    };
    let changes = changes(document, newest, &subject, wishes, sewn);
    let at = |(n, wrong)| Fault { path: format!("otherwise[{n}].station"), wrong };
    let as_sewn = corrected(&subject, try_on, &sewn.otherwise)
        .map_err(|wrong| wrong.into_iter().map(at).collect::<Vec<Fault>>())?;
    let entered: Vec<ChangeKey> =
        changes.iter().filter(|change| change.is_entered).map(|change| change.key).collect();
    let as_sewn = only(&as_sewn, &entered);
    let Some(drawn) = drawn_on(&garment, &document.wearer, &as_sewn, wishes.schools) else { return Ok(None) };
    let mut next = next_state(&Subject { changes: &drawn, ..subject });
    for level in &sewn.measured {
        match next.levels.iter_mut().find(|known| known.level == level.level) {
            Some(known) => (known.width, known.assumed) = (level.width, false),
            None => next.levels.push(*level),
        }
    }
    let faults = wrong_state(&State::first(newest.id, next.clone()));
    if !faults.is_empty() {
        return Err(faults);
    }
    let around = garment.levels.iter().filter(|l| l.level != Level::Shoulder);
    let levels = around.filter_map(|before| {
        let after = next.level(before.level)?;
        Some(DerivedLevel {
            level: before.level,
            name: before.level.name(),
            before: tape.figure(before.width.on(tape)),
            after: tape.figure(after.width.on(tape)),
            is_measured: sewn.measured.iter().any(|m| m.level == before.level),
        })
    });
    let levels = levels.collect();
    Ok(Some(Proposal { from: newest.id, try_on: try_on.id, changes, garment: next, levels }))
}

/// A try-on with only these changes, and the marks of only those hems.
fn only(try_on: &TryOn, keys: &[ChangeKey]) -> TryOn {
    let mut left = try_on.clone();
    left.changes.retain(|change| keys.contains(&change.key()));
    left.hem_marks.retain(|mark| keys.contains(&ChangeKey::Hem(mark.edge)));
    left
}

/// Every change that comes to something, with what the log says of it.
fn changes(
    document: &Document,
    newest: &State,
    subject: &Subject<'_>,
    wishes: &Wishes,
    sewn: &AsSewn,
) -> Vec<SewnChange> {
    let chain: Chain = chain(&TasksOf { subject, wishes }).unwrap_or_default();
    let progress = progress(&chain, &document.log, newest.id, &[]);
    let own = |key: ChangeKey| chain.tasks.iter().filter(move |task| task.key.change() == Some(key));
    let is_done = |key: crate::work::TaskKey| matches!(progress.of(key).at, crate::plan::StandsAt::Done(_));
    let is_sewn = |key: ChangeKey| {
        let mut last =
            own(key).filter(|task| matches!(task.key.step, Step::Stitch | Step::PutBack)).peekable();
        last.peek().is_some() && last.all(|task| is_done(task.key))
    };
    let is_cut = |key: ChangeKey| own(key).any(|task| task.undone == Undone::Never && is_done(task.key));
    let altered: Vec<ChangeKey> =
        subject.changes.iter().filter(|change| change.is_altered()).map(DrawnChange::key).collect();
    let any_sewn = altered.iter().any(|key| is_sewn(*key));
    // Without a log everything that is cut by its plan counts as cut.
    let cuts = |key: ChangeKey| own(key).any(|task| task.undone == Undone::Never);
    altered
        .into_iter()
        .map(|key| SewnChange {
            key,
            name: key.name(subject.garment),
            is_sewn: is_sewn(key),
            is_cut: if any_sewn { is_cut(key) } else { cuts(key) },
            is_entered: match &sewn.changes {
                Some(keys) => keys.contains(&key),
                None => !any_sewn || is_sewn(key),
            },
        })
        .collect()
}

/// The garment as it was before an entry, to be entered as taken back.
///
/// # Errors
/// The entry did not make the newest state, or cloth was cut.
pub fn taken_back(document: &Document, entry: Uuid) -> Result<Garment, Vec<Fault>> {
    let cannot = |wrong| vec![Fault { path: "entry".into(), wrong }];
    let found = document.record.iter().find(|known| known.id == entry);
    let Some(Entry { what: Happened::Sewn { from, to, cut, .. }, .. }) = found else {
        return Err(cannot(Wrong::NotSewn));
    };
    let is_newest = document.newest().is_some_and(|state| state.id == *to);
    match document.state(*from) {
        _ if !is_newest => Err(cannot(Wrong::NotTheNewest)),
        _ if !cut.is_empty() => Err(cannot(Wrong::CutAway)),
        Some(before) => Ok(before.garment.clone()),
        None => Err(cannot(Wrong::NoSuchState { id: *from })),
    }
}

/// What three or more garments of one wearer needed in the same place, at the marks of a tape.
pub fn standing_adjustments(documents: &[&Document], tape: Tape) -> Vec<StandingLine> {
    let taken: Vec<_> = documents
        .iter()
        .filter_map(|document| {
            let try_on = document.try_ons.last()?;
            let state = document.state(try_on.state)?;
            let garment = state.garment.with_levels_in_order(&document.wearer);
            let drawn = drawn_on(&garment, &document.wearer, try_on, document.wishes.schools)?;
            Some((garment.name.clone(), taken_at(&garment, &drawn, tape)))
        })
        .collect();
    standing(&taken, tape).iter().map(|adjustment| standing_line(adjustment, tape)).collect()
}

/// A standing adjustment, as a pin to begin with.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StandingLine {
    /// At which seam.
    pub change: ChangeKey,
    /// At which level.
    pub level: Level,
    /// What is taken off each edge, or let out.
    pub per_edge: Figure,
    /// It is let out.
    pub lets_out: bool,
    /// In a sentence.
    pub says: String,
}

fn standing_line(adjustment: &StandingAdjustment, tape: Tape) -> StandingLine {
    let StandingAdjustment { seam, level, per_edge, garments } = adjustment;
    let way = if per_edge.is_negative() { "let out" } else { "taken in" };
    StandingLine {
        change: ChangeKey::Seam(*seam),
        level: *level,
        per_edge: tape.figure(per_edge.abs()),
        lets_out: per_edge.is_negative(),
        says: format!(
            "{} garments ({}) were {way} at the {}, {}: {} on each edge is where to begin.",
            garments.len(),
            garments.join(", "),
            level.name(),
            seam.name(),
            tape.show(per_edge.abs())
        ),
    }
}
