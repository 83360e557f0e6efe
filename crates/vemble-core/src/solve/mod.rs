//! From a document to everything that follows from it. One call serves the screen, the card, the file and the
//! command line.

mod next;

#[cfg(test)]
mod tests;

pub use next::NextStep;

use crate::body::Wearer;
use crate::card::{Card, CardOf, card, turn};
use crate::change::hem::Cutting;
use crate::change::{ChangeKey, Drawn, DrawnChange, On, draw};
use crate::document::{Document, State, wrong_state, wrong_try_on, wrong_wearer};
use crate::fault::{Fault, Wrong};
use crate::figure::{Hanging, StandChanges, hanging_with, stand_changes};
use crate::garment::Garment;
use crate::judge::{Finding, FindingKey, Outcome, Subject, girths, judge};
use crate::length::{Measure, Tape};
use crate::shown::{SolvedChange, show};
use crate::stages::{Progress, StageLine};
use crate::told::{Check, LevelResult, Teller, pass_over, tell, tell_levels};
use crate::try_on::TryOn;
use crate::work::{Did, Logged, Schools, Step, TaskKey, Wishes};
use serde::Serialize;
use std::borrow::Cow;
use utoipa::ToSchema;
use uuid::Uuid;

/// Everything derived from one document, in figures of one tape.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Solved {
    /// The tape the figures are shown on.
    pub tape: Tape,
    /// Its finest mark, in nanometres: what one nudge moves.
    pub mark_nm: i64,
    /// Its unit: `cm` or `in`.
    pub unit: String,
    /// What to do next with this garment, in a few words.
    pub next_step: String,
    /// The stages of its work, in order.
    pub stages: Vec<StageLine>,
    /// Everything that could be changed on it as it is now.
    pub changeable: Vec<NamedChange>,
    /// Levels as they are, of a garment that nobody tried on; otherwise each try-on has them, before and after.
    pub levels: Vec<LevelResult>,
    /// Each try-on, in the document's order.
    pub try_ons: Vec<SolvedTryOn>,
}

/// A change that could be made, with its name on this garment.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct NamedChange {
    /// Which.
    pub key: ChangeKey,
    /// What it is called.
    pub name: String,
}

/// Everything derived from one try-on, against the state that it was measured on.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedTryOn {
    /// Its changes: of each kind those that were entered, in the document's order, then those that take a share or that a line carries on
    /// into.
    pub changes: Vec<SolvedChange>,
    /// Girths and ease, from the top down.
    pub levels: Vec<LevelResult>,
    /// Checks, the gravest first.
    pub checks: Vec<Check>,
    /// The chalk cards, in the order of the hand; none where they were not asked for.
    pub cards: Vec<Card>,
    /// What moves on the stand.
    pub stand: StandChanges,
}

/// Derives everything from `document`, with figures on `tape`.
///
/// # Errors
/// Every fault found, each with its JSON path; never a result beside a fault.
///
/// # Examples
/// ```
/// use vemble_core::document::Document;
/// use vemble_core::length::Tape;
/// use vemble_core::solve::solve;
///
/// let json = include_str!("../../../../demo/corduroys.json");
/// let document: Document = serde_json::from_str(json)?;
/// let solved = solve(&document, Tape::Cm).expect("the example has no fault");
/// assert_eq!(solved.try_ons[0].cards[0].title, "Outseam, both legs the same");
/// # Ok::<(), serde_json::Error>(())
/// ```
pub fn solve(document: &Document, tape: Tape) -> Result<Solved, Vec<Fault>> {
    solve_for(document, tape, For::Cards)
}

/// What something is derived for: only that much of it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum For {
    /// Everything, with the chalk cards.
    Cards,
    /// A page, which shows no cards.
    Page,
    /// A hand that moves a pin: no cards, and what would mend a check is neither tried nor offered before it lets go.
    Drag,
}

/// As [`solve`], as much as is wanted.
///
/// # Errors
/// As [`solve`].
pub fn solve_for(document: &Document, tape: Tape, wanted: For) -> Result<Solved, Vec<Fault>> {
    let faults = document.faults();
    if !faults.is_empty() {
        return Err(faults);
    }
    let states: Vec<Sound<'_>> =
        document.states.iter().map(|state| Sound::of(state, &document.wearer)).collect();
    let mut solved = derive(&states, &document.try_ons, &document.wishes, tape, wanted)?;
    if let Some(newest) = states.last() {
        let progress = progress(&newest.garment, solved.try_ons.last()).of(document);
        solved.stages = progress.stages(&newest.garment);
        if progress.is_finished {
            solved.next_step = NextStep::Finished.words();
        }
    }
    Ok(solved)
}

/// A state of a garment on its wearer with which nothing is wrong, to be solved with one try-on after another: what stays the same while a
/// pin is dragged is done once.
pub struct SoundState {
    id: Uuid,
    garment: Garment,
    wearer: Wearer,
}

impl SoundState {
    /// Judges a state.
    ///
    /// # Errors
    /// Every fault of the state or its wearer, with its path in a document that has no other.
    pub fn new(state: &State, wearer: &Wearer) -> Result<Self, Vec<Fault>> {
        let below = |path: &'static str, faults: Vec<Fault>| {
            faults.into_iter().map(move |f| Fault { path: format!("{path}.{}", f.path), ..f })
        };
        let mut faults: Vec<Fault> = below("wearer", wrong_wearer(wearer)).collect();
        faults.extend(below("states[0]", wrong_state(state)));
        if !faults.is_empty() {
            return Err(faults);
        }
        let garment = state.garment.with_levels_in_order(wearer).into_owned();
        Ok(Self { id: state.id, garment, wearer: wearer.clone() })
    }

    /// As [`solve_for`].
    ///
    /// # Errors
    /// As [`solve`].
    pub fn solve(
        &self,
        try_ons: &[TryOn],
        (wishes, log): (&Wishes, &[Logged]),
        tape: Tape,
        wanted: For,
    ) -> Result<Solved, Vec<Fault>> {
        let mut faults = Vec::new();
        for (n, try_on) in try_ons.iter().enumerate() {
            let wrong = wrong_try_on(try_on).into_iter();
            faults.extend(wrong.map(|f| Fault { path: format!("try_ons[{n}].{}", f.path), ..f }));
            if try_on.state != self.id {
                let path = format!("try_ons[{n}].state");
                faults.push(Fault { path, wrong: Wrong::NoSuchState { id: try_on.state } });
            }
        }
        if !faults.is_empty() {
            return Err(faults);
        }
        let sound = Sound { id: self.id, garment: Cow::Borrowed(&self.garment), wearer: &self.wearer };
        let mut solved = derive(&[sound], try_ons, wishes, tape, wanted)?;
        let progress = progress(&self.garment, solved.try_ons.last()).with(self.id, wishes, log);
        solved.stages = progress.stages(&self.garment);
        Ok(solved)
    }
}

/// A state with its levels in order, when nothing is wrong with it.
struct Sound<'a> {
    id: Uuid,
    garment: Cow<'a, Garment>,
    wearer: &'a Wearer,
}

impl<'a> Sound<'a> {
    fn of(state: &'a State, wearer: &'a Wearer) -> Self {
        Self { id: state.id, garment: state.garment.with_levels_in_order(wearer), wearer }
    }
}

/// Of states with which nothing is wrong, and try-ons that name one of them each.
fn derive(
    states: &[Sound<'_>],
    try_ons: &[TryOn],
    wishes: &Wishes,
    tape: Tape,
    wanted: For,
) -> Result<Solved, Vec<Fault>> {
    let Some(newest) = states.last() else {
        return Err(vec![Fault { path: "states".into(), wrong: Wrong::NoState }]);
    };
    let schools = wishes.schools;
    let (mut faults, mut solved, mut last) = (Vec::new(), Vec::new(), None);
    for (n, try_on) in try_ons.iter().enumerate() {
        let Some(state) = states.iter().find(|state| state.id == try_on.state) else { continue };
        match draw_below(&state.garment, state.wearer, try_on, schools) {
            Ok(changes) => {
                let subject = Subject {
                    garment: &state.garment,
                    wearer: state.wearer,
                    changes: &changes,
                    put_on: try_on.put_on(),
                    schools,
                    tape,
                };
                solved.push(solve_try_on(&subject, try_on, wanted));
                last = Some(next::first_to_chalk(&subject));
            }
            Err(wrong) => faults.extend(
                wrong
                    .into_iter()
                    .map(|(field, wrong)| Fault { path: format!("try_ons[{n}].{field}"), wrong }),
            ),
        }
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let as_it_is = || {
        let girths = girths(&Subject::as_it_is(&newest.garment, newest.wearer, tape));
        tell_levels(&newest.garment, &girths, tape)
    };
    let at_last = solved.last().map(|t: &SolvedTryOn| (&t.checks[..], last.flatten()));
    let changeable = ChangeKey::all().filter(|key| key.fits(&newest.garment));
    Ok(Solved {
        tape,
        mark_nm: tape.mark().nm(),
        unit: tape.unit_name().into(),
        next_step: NextStep::after(&newest.garment, wishes, at_last).words(),
        stages: progress(&newest.garment, solved.last()).stages(&newest.garment),
        changeable: changeable.map(|key| NamedChange { key, name: key.name(&newest.garment) }).collect(),
        levels: if solved.is_empty() { as_it_is() } else { Vec::new() },
        try_ons: solved,
    })
}

/// How far a garment has come with what its newest try-on says.
fn progress(garment: &Garment, newest: Option<&SolvedTryOn>) -> Progress {
    Progress {
        is_toile: garment.toile,
        is_looked_over: garment.levels.iter().any(|l| !l.assumed),
        is_tried_on: newest.is_some(),
        has_cards: newest.is_some_and(|t| t.changes.iter().any(|change| change.has_card)),
        is_clear: newest.is_some_and(|t| !t.checks.iter().any(Check::stands_in_the_way)),
        ..Progress::default()
    }
}

impl Progress {
    /// With what a document says of its work.
    fn of(self, document: &Document) -> Self {
        let newest = document.newest().map(|state| state.id).unwrap_or_default();
        Self { is_finished: document.is_finished(), ..self.with(newest, &document.wishes, &document.log) }
    }

    /// With what is wished for the work on a state, and what was done.
    fn with(mut self, state: Uuid, wishes: &Wishes, log: &[Logged]) -> Self {
        let mut log = log.iter().filter(|entry| entry.state == state);
        let is_last = |task: TaskKey| task == TaskKey::whole(Step::FinalTryOn);
        self.has_day = wishes.event.is_some() || wishes.by.is_some();
        self.has_size = wishes.pattern.chosen.is_some();
        self.has_pieces = !wishes.pattern.drawn.is_empty();
        self.awaits_size = !wishes.pattern.charts.is_empty() && !self.has_size;
        self.is_begun = log.clone().next().is_some();
        self.is_sewn = log.any(|entry| is_last(entry.task) && entry.did == Did::Done);
        self
    }
}

/// As much of a garment as its place on the rail shows.
#[derive(Clone, Debug, PartialEq)]
pub struct Glance {
    /// What to do next.
    pub next_step: NextStep,
    /// How many cautions its newest try-on has.
    pub cautions: usize,
    /// How many stops its newest try-on has.
    pub stops: usize,
    /// The garment with the changes of its newest try-on.
    pub hanging: Option<Hanging>,
}

/// What the rail shows of a document: its newest try-on only, and nothing that nobody sees from there, on a tape. Nothing of a document
/// without a state.
pub fn glance(document: &Document, tape: Tape) -> Option<Glance> {
    let wearer = &document.wearer;
    let is_finished = document.is_finished();
    let newest = document.try_ons.last().filter(|_| !is_finished);
    let state = newest.and_then(|t| document.state(t.state)).or(document.newest())?;
    let garment = &*state.garment.with_levels_in_order(wearer);
    // A try-on is checked before it is stored; should one not solve any more, the garment still hangs here as it is.
    let changes =
        newest.and_then(|t| draw_below(garment, wearer, t, document.wishes.schools).ok()).unwrap_or_default();
    let put_on = newest.map(TryOn::put_on).unwrap_or_default();
    let subject =
        Subject { garment, wearer, changes: &changes, put_on, schools: document.wishes.schools, tape };
    let checks = match newest.filter(|_| !changes.is_empty()) {
        Some(try_on) => told_checks(&subject, &judge(&subject, &girths(&subject)), try_on),
        None => Vec::new(),
    };
    let count = |outcome| checks.iter().filter(|c| c.outcome == outcome && c.passed_over.is_none()).count();
    let altered = next::first_to_chalk(&subject);
    Some(Glance {
        next_step: match is_finished {
            true => NextStep::Finished,
            false => NextStep::after(garment, &document.wishes, newest.map(|_| (&checks[..], altered))),
        },
        cautions: count(Outcome::Caution),
        stops: count(Outcome::Stop),
        hanging: hanging_with(garment, wearer, &changes),
    })
}

/// The stages of the work on a garment and where to go on, by a document: what a page asks before anything is solved.
pub fn stages(document: &Document, tape: Tape) -> (Vec<StageLine>, crate::stages::Stage) {
    let Some(state) = document.newest() else { return (Vec::new(), crate::stages::Stage::LookOver) };
    let newest = document.try_ons.last().map(|t| vec![t.clone()]).unwrap_or_default();
    let alone = Document { try_ons: newest, ..document.clone() };
    let solved = solve(&alone, tape).ok();
    let last = solved.as_ref().and_then(|s| s.try_ons.last());
    let mut progress = progress(&state.garment, last);
    progress.is_tried_on = !document.try_ons.is_empty();
    let progress = progress.of(document);
    (progress.stages(&state.garment), progress.go_on())
}

/// Draws what a try-on changes. Faults have their path below the try-on.
pub(crate) fn draw_below<'a>(
    garment: &'a Garment,
    wearer: &'a Wearer,
    try_on: &'a TryOn,
    schools: Schools,
) -> Result<Vec<DrawnChange<'a>>, Vec<(String, Wrong)>> {
    let keeps_all = schools.cutting == Some(Cutting::Never);
    let on = On { garment, wearer, hem_marks: &try_on.hem_marks, keeps_all };
    draw(on, &try_on.changes).map_err(|wrong| {
        let path = |(n, field, wrong): (usize, String, Wrong)| {
            let kind: &'static str = (&try_on.changes[n]).into();
            (format!("changes[{n}].{kind}.{field}"), wrong)
        };
        wrong.into_iter().map(path).collect()
    })
}

/// The changes of a try-on as they are drawn on a garment; nothing where they cannot be.
pub(crate) fn drawn_on<'a>(
    garment: &'a Garment,
    wearer: &'a Wearer,
    try_on: &'a TryOn,
    schools: Schools,
) -> Option<Vec<DrawnChange<'a>>> {
    draw_below(garment, wearer, try_on, schools).ok()
}

/// The cards of a try-on, in the order of the hand.
pub(crate) fn cards_of(subject: &Subject<'_>, try_on: &TryOn) -> Vec<Card> {
    let girths = girths(subject);
    let levels = tell_levels(subject.garment, &girths, subject.tape);
    let checks = told_checks(subject, &judge(subject, &girths), try_on);
    cards(subject, try_on, &levels, &checks)
}

/// The titles of what stands in the way of a try-on's changes.
pub(crate) fn stops_of(subject: &Subject<'_>, try_on: &TryOn) -> Vec<String> {
    let checks = told_checks(subject, &judge(subject, &girths(subject)), try_on);
    checks.into_iter().filter(Check::stands_in_the_way).map(|check| check.title).collect()
}

/// What is said of what was found, after what would mend it was left as it is or tried.
fn told_checks(subject: &Subject<'_>, findings: &[Finding], try_on: &TryOn) -> Vec<Check> {
    let to = Teller::of(subject.garment, subject.tape);
    let mut checks: Vec<Check> = findings.iter().map(|finding| tell(finding, &to)).collect();
    pass_over(&mut checks, &try_on.passed_over.iter().map(|p| (&p.finding, &p.why[..])));
    checks
}

fn solve_try_on(subject: &Subject<'_>, try_on: &TryOn, wanted: For) -> SolvedTryOn {
    let (girths, tape) = (girths(subject), subject.tape);
    let levels = tell_levels(subject.garment, &girths, tape);
    let mut findings = judge(subject, &girths);
    if wanted != For::Drag {
        keep_what_mends(&mut findings, subject, try_on);
    }
    let mut checks = told_checks(subject, &findings, try_on);
    if wanted == For::Drag {
        checks.iter_mut().for_each(|check| check.mend.clear());
    }
    let changes = subject.changes.iter().map(|change| show(change, subject, tape)).collect();
    let cards = if wanted == For::Cards { cards(subject, try_on, &levels, &checks) } else { Vec::new() };
    let stand = stand_changes(subject.garment, subject.wearer, subject.changes, &girths);
    SolvedTryOn { changes, levels, checks, cards, stand }
}

/// Leaves only those mends that mend: tried, their check passes and none that passed stops. What would mend one thing and break another is
/// no way out. Takes as long as judging once for each that is offered.
fn keep_what_mends(findings: &mut [Finding], subject: &Subject<'_>, try_on: &TryOn) {
    let passing: Vec<FindingKey> =
        findings.iter().filter(|f| f.outcome == Outcome::Passes).map(|f| f.key).collect();
    for finding in findings.iter_mut().filter(|finding| !finding.mend.is_empty()) {
        let mut changes = try_on.changes.clone();
        finding.mend.iter().cloned().for_each(|change| change.put_among(&mut changes));
        let on = On {
            garment: subject.garment,
            wearer: subject.wearer,
            hem_marks: &try_on.hem_marks,
            keeps_all: subject.schools.cutting == Some(Cutting::Never),
        };
        let mends = draw(on, &changes).is_ok_and(|drawn| {
            let mended = Subject { changes: &drawn, ..*subject };
            let found = judge(&mended, &girths(&mended));
            let outcome = |key: &FindingKey| found.iter().find(|f| f.key.is(key)).map(|f| f.outcome);
            outcome(&finding.key).is_none_or(|outcome| outcome == Outcome::Passes)
                && passing.iter().all(|key| outcome(key) != Some(Outcome::Stop))
        });
        if !mends {
            finding.mend.clear();
        }
    }
}

/// The cards, in the order of the hand.
fn cards(subject: &Subject<'_>, try_on: &TryOn, levels: &[LevelResult], checks: &[Check]) -> Vec<Card> {
    let mut in_turn: Vec<&DrawnChange<'_>> = subject.changes.iter().filter(|c| c.is_altered()).collect();
    in_turn.sort_by_key(|change| turn(change));
    let of_whom = format!("{} · {}", subject.garment.name, subject.wearer.name);
    let card_of = |change: &&DrawnChange<'_>| {
        let own = try_on.chalked.iter().filter(|chalked| chalked.change == change.key());
        let chalked: Vec<Measure> = own.map(|chalked| chalked.at).collect();
        card(
            change,
            of_whom.clone(),
            &CardOf { subject, levels, checks, chalked: &chalked, tape: subject.tape },
        )
    };
    in_turn.iter().filter_map(card_of).collect()
}
