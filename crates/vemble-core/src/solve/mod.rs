//! From a document to everything that follows from it. One call serves the screen, the card, the file and the
//! command line.

mod dart;
mod result;
mod seam;
#[cfg(test)]
mod tests;

pub(crate) use dart::dart_rows;
pub use result::{
    MarkResult, MarkSide, PinResult, SidesResult, Solved, SolvedElastic, SolvedSeam, SolvedTryOn,
};

pub(crate) use seam::seam_rows;

use crate::alteration::{
    ANCHOR, AlteredDart, HOLD_PERCENT, HOLDS_PERCENT, alter_dart, elastic_shown, elastic_sum,
};
use crate::card::{Card, card, dart_card, elastic_card};
use crate::check::{Check, LevelResult, Outcome, Subject, checks, levels, pass_over};
use crate::document::{Document, wrong_garment, wrong_try_ons};
use crate::fault::{Fault, Wrong};
use crate::figure::{Hanging, hanging, stand_changes};
use crate::fitting::{ElasticPlan, TryOn};
use crate::garment::{Garment, Level};
use crate::length::{Length, Tape};
use crate::line::{AlteredSeam, alter_all};

/// Derives everything from `document`, with figures on `tape`.
///
/// # Errors
/// Every fault found, each with its JSON path; never a result beside a fault.
pub fn solve(document: &Document, tape: Tape) -> Result<Solved, Vec<Fault>> {
    let faults = document.faults();
    if !faults.is_empty() {
        return Err(faults);
    }
    derive(&document.garment.with_levels_in_order(), &document.try_ons, tape, true)
}

/// A garment that nothing is wrong with, to be solved with one try-on after another: what stays the same while a pin is dragged is done
/// once.
pub struct SoundGarment(Garment);

impl SoundGarment {
    /// Judges a garment.
    ///
    /// # Errors
    /// Every fault of the garment.
    pub fn new(garment: &Garment) -> Result<Self, Vec<Fault>> {
        let faults = wrong_garment(garment);
        if faults.is_empty() { Ok(Self(garment.with_levels_in_order().into_owned())) } else { Err(faults) }
    }

    /// As [`solve`], with chalk cards only if asked: a drag does not need them.
    ///
    /// # Errors
    /// As [`solve`].
    pub fn solve(&self, try_ons: &[TryOn], tape: Tape, with_cards: bool) -> Result<Solved, Vec<Fault>> {
        let faults = wrong_try_ons(&self.0, try_ons);
        if faults.is_empty() { derive(&self.0, try_ons, tape, with_cards) } else { Err(faults) }
    }
}

/// Of a garment with its levels in order, when nothing is wrong with it and its try-ons.
fn derive(garment: &Garment, try_ons: &[TryOn], tape: Tape, with_cards: bool) -> Result<Solved, Vec<Fault>> {
    let mut faults = Vec::new();
    let mut solved = Vec::new();
    let mut first_to_chalk = None;
    for (t, try_on) in try_ons.iter().enumerate() {
        match changes(garment, try_on, tape) {
            Ok(changes) => {
                first_to_chalk = changes.first_to_chalk();
                solved.push(solve_try_on(garment, &changes, try_on, tape, with_cards));
            }
            Err(wrong) => faults.extend(
                wrong
                    .into_iter()
                    .map(|(field, wrong)| Fault { path: format!("try_ons[{t}].{field}"), wrong }),
            ),
        }
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let as_it_is = || levels(&Subject::as_it_is(garment, tape));
    Ok(Solved {
        tape,
        mark_nm: tape.mark().nm(),
        unit: tape.unit_name().into(),
        next_step: NextStep::after(
            garment,
            solved.last().map(|t: &SolvedTryOn| (&t.checks[..], first_to_chalk.as_deref())),
        )
        .words(),
        levels: if solved.is_empty() { as_it_is() } else { Vec::new() },
        try_ons: solved,
    })
}

/// What to do next with a garment; what presses most comes first.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum NextStep {
    /// A check stands in the way: its title.
    Settle(String),
    /// Everything is clear: this seam.
    Chalk(String),
    /// A try-on was begun.
    EnterPins,
    /// It was measured.
    TryOn,
    /// Nobody looked at it yet.
    LookOver,
}

impl NextStep {
    fn after(garment: &Garment, newest: Option<(&[Check], Option<&str>)>) -> Self {
        let Some((checks, altered)) = newest else {
            let nobody_looked = garment.levels.iter().all(|l| l.assumed);
            return if nobody_looked { Self::LookOver } else { Self::TryOn };
        };
        let stop = checks.iter().find(|c| c.stands_in_the_way());
        match (stop, altered) {
            (Some(check), _) => Self::Settle(check.title.clone()),
            (None, Some(seam)) => Self::Chalk(seam.into()),
            (None, None) => Self::EnterPins,
        }
    }

    /// In a few words.
    pub fn words(&self) -> String {
        match self {
            Self::Settle(title) => format!("Settle first: {title}"),
            Self::Chalk(seam) => format!("Chalk the {seam}"),
            Self::EnterPins => "Enter the pins".into(),
            Self::TryOn => "Try it on and pin it".into(),
            Self::LookOver => "Look it over".into(),
        }
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

/// What the rail shows of a document: its newest try-on only, and nothing that nobody sees from there.
pub fn glance(document: &Document) -> Glance {
    let (garment, tape) = (&*document.garment.with_levels_in_order(), Tape::default());
    let newest = document.try_ons.last();
    // A try-on is checked before it is stored; should one not solve any more, the garment still hangs here as it is.
    let changed = newest.and_then(|t| changes(garment, t, tape).ok()).unwrap_or_default();
    let subject = newest.map_or(Subject::as_it_is(garment, tape), |t| changed.subject(garment, t, tape));
    let mut checks = if changed.is_empty() { Vec::new() } else { checks(&subject, &levels(&subject)) };
    pass_over(&mut checks, newest.map_or(&[], |t| &t.passed_over));
    let altered = changed.first_to_chalk();
    let count = |outcome| checks.iter().filter(|c| c.outcome == outcome && c.passed_over.is_none()).count();
    Glance {
        next_step: NextStep::after(garment, newest.map(|_| (&checks[..], altered.as_deref()))),
        cautions: count(Outcome::Caution),
        stops: count(Outcome::Stop),
        hanging: hanging(garment, &changed.seams),
    }
}

/// The changes of one try-on, drawn.
#[derive(Default)]
struct Changes<'a> {
    seams: Vec<AlteredSeam<'a>>,
    darts: Vec<AlteredDart<'a>>,
    elastic: Option<&'a ElasticPlan>,
}

impl<'a> Changes<'a> {
    fn subject(&'a self, garment: &'a Garment, try_on: &TryOn, tape: Tape) -> Subject<'a> {
        let Self { seams, darts, elastic } = self;
        Subject { garment, seams, darts, elastic: *elastic, worn: try_on.worn, tape }
    }

    /// What the hand begins with: darts are sewn before the side seams that they cross.
    fn first_to_chalk(&self) -> Option<String> {
        let dart = self.darts.iter().find(|d| d.is_altered()).map(AlteredDart::name);
        let seam = || self.seams.iter().find(|s| s.span().is_some()).map(|s| s.facts.name().to_owned());
        dart.or_else(seam).or_else(|| self.elastic.map(|_| "elastic".into()))
    }

    const fn is_empty(&self) -> bool {
        self.seams.is_empty() && self.darts.is_empty() && self.elastic.is_none()
    }
}

/// Draws what a try-on changes. Faults have their path below the try-on.
fn changes<'a>(
    garment: &'a Garment,
    try_on: &'a TryOn,
    tape: Tape,
) -> Result<Changes<'a>, Vec<(String, Wrong)>> {
    let mut faults = Vec::new();
    let seams = alter_all(garment, &try_on.alterations, tape).unwrap_or_else(|wrong| {
        faults
            .extend(wrong.into_iter().map(|(a, field, wrong)| (format!("alterations[{a}].{field}"), wrong)));
        Vec::new()
    });
    let mut darts = Vec::new();
    for (d, pins) in try_on.darts.iter().enumerate() {
        match alter_dart(garment, pins) {
            Ok(dart) => darts.push(dart),
            Err(wrong) => {
                faults.extend(wrong.into_iter().map(|(field, wrong)| (format!("darts[{d}].{field}"), wrong)));
            }
        }
    }
    if let Some(elastic) = &try_on.elastic {
        if elastic.casing.length <= Length::ZERO {
            faults.push(("elastic.casing".into(), Wrong::NotPositive { found: elastic.casing }));
        }
        if let Some(percent) =
            elastic.hold_percent.filter(|p| !(HOLDS_PERCENT[0]..=HOLDS_PERCENT[1]).contains(p))
        {
            faults.push(("elastic.hold_percent".into(), Wrong::NotAHold { percent }));
        }
    }
    let changes = Changes { seams, darts, elastic: try_on.elastic.as_ref() };
    if faults.is_empty() { Ok(changes) } else { Err(faults) }
}

fn solve_try_on(
    garment: &Garment,
    changes: &Changes<'_>,
    try_on: &TryOn,
    tape: Tape,
    with_cards: bool,
) -> SolvedTryOn {
    let subject = changes.subject(garment, try_on, tape);
    let levels = levels(&subject);
    let mut checks = checks(&subject, &levels);
    pass_over(&mut checks, &try_on.passed_over);
    let seams: Vec<SolvedSeam> = changes.seams.iter().map(|s| seam::solve_seam(&subject, s)).collect();
    let darts: Vec<SolvedSeam> = changes.darts.iter().map(|d| dart::solve_dart(&subject, d)).collect();
    let elastic = changes.elastic.map(|plan| solve_elastic(plan, &levels, tape));
    let mut cards: Vec<Card> = Vec::new();
    if with_cards {
        // Darts are sewn before the side seams that they cross.
        let of_darts = darts.iter().zip(&changes.darts).filter(|(d, _)| d.is_altered);
        cards.extend(of_darts.map(|(solved, dart)| dart_card(&subject, dart, solved, &levels, &checks)));
        let of_seams = changes.seams.iter().zip(&seams).filter(|(_, s)| s.is_altered);
        cards.extend(of_seams.map(|(seam, solved)| card(&subject, seam, solved, &levels, &checks)));
        cards.extend(elastic.iter().filter_map(|e| elastic_card(&subject, e, &checks)));
    }
    let stand = stand_changes(garment, &changes.seams, &changes.darts, &levels);
    SolvedTryOn { seams, darts, elastic, levels, checks, cards, stand }
}

fn solve_elastic(plan: &ElasticPlan, levels: &[LevelResult], tape: Tape) -> SolvedElastic {
    let waist = levels.iter().find(|l| l.level == Level::Waist);
    let known = waist.and_then(|w| Some((Length::from_nm(w.after.nm), Length::from_nm(w.body?.nm))));
    let sum = known.and_then(|(garment, body)| Some((elastic_sum(plan, garment, body)?, garment, body)));
    SolvedElastic {
        casing: tape.figure(plan.casing.length),
        hold_percent: plan.hold_percent.unwrap_or(HOLD_PERCENT),
        holds_percent: HOLDS_PERCENT,
        spans: sum.map(|(s, ..)| tape.figure(s.spans)),
        cut: sum.map(|(s, ..)| tape.figure(s.cut)),
        sum: sum.map_or_else(String::new, |(s, garment, body)| {
            let [casing, of_garment, of_body, spans, adjusted] = elastic_shown(&s, garment, body, tape);
            format!(
                "{casing} − ({of_garment} − {of_body}) = {spans} spans{adjusted}; {} ÷ {}.{:02} + 2 anchors × {} = {} to cut",
                tape.bare(s.spans),
                s.hold_percent / 100,
                s.hold_percent % 100,
                tape.bare(ANCHOR),
                tape.show(s.cut)
            )
        }),
    }
}
