//! Checks on every set of changes. Each says whether it passes, with the figures, the reason and what would mend it.

mod allowance;
mod dart;
mod elastic;
mod girth;
mod hang;
mod in_the_way;
mod movement;
mod opening;
mod partners;
mod run_out;

pub(crate) use girth::levels;
pub use girth::{Comfort, EaseWord, LevelOf, LevelResult};

use crate::alteration::AlteredDart;
use crate::fitting::{ElasticPlan, GarmentSide, PassedOver, Worn};
use crate::garment::{Dart, Garment, Level, Seam, word};
use crate::length::{Figure, Length, Station, Tape};
use crate::line::{AlteredSeam, StitchingLine, Suggestion};
use serde::Serialize;
use utoipa::ToSchema;

/// How a check came out.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Outcome {
    /// Nothing against it.
    Passes,
    /// It can be done; know this first.
    Caution,
    /// Not like this, unless the sewist knows better.
    Stop,
}

/// Which rule was applied.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Rule {
    /// The two sides agree, or somebody decided.
    Sides,
    /// What an uneven body asked for inside out lies on the garment's other side.
    Turned,
    /// Ease at a level, now and after.
    Ease,
    /// Sitting and bending.
    Movement,
    /// A body part goes through an opening.
    Opening,
    /// The line runs out gently enough.
    RunOut,
    /// No kink between two pins.
    Kink,
    /// What the slope does where nobody pinned.
    CarriedOn,
    /// What the seam can give when let out.
    Capacity,
    /// What stays inside after taking in.
    Kept,
    /// Pockets, loops and crossings.
    InTheWay,
    /// Grain and hang.
    Hang,
    /// What is sewn to an altered edge still fits it.
    Partners,
    /// Depth and point of a dart.
    Dart,
    /// Elastic drawn into a waistband.
    Elastic,
}

/// The result of one check.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Check {
    /// Names it among the checks of a try-on: what is passed over is remembered by it.
    pub key: String,
    /// How it came out.
    pub outcome: Outcome,
    /// Which rule was applied.
    pub rule: Rule,
    /// What was checked, in a few words.
    pub title: String,
    /// The figures, as a sum a person can follow.
    pub figures: String,
    /// Why it came out so.
    pub reason: String,
    /// What would make it pass.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub remedy: Option<String>,
    /// The seam it is about.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub seam: Option<Seam>,
    /// The level it is about.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub level: Option<Level>,
    /// The station it is about.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub station: Option<Figure>,
    /// The dart it is about.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub dart: Option<Dart>,
    /// Why the sewist passes over it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub passed_over: Option<String>,
}

/// What all checks look at.
pub(crate) struct Subject<'a> {
    pub garment: &'a Garment,
    pub seams: &'a [AlteredSeam<'a>],
    pub darts: &'a [AlteredDart<'a>],
    pub elastic: Option<&'a ElasticPlan>,
    pub worn: Worn,
    pub tape: Tape,
}

impl<'a> Subject<'a> {
    /// The garment as it is, with nothing changed.
    pub const fn as_it_is(garment: &'a Garment, tape: Tape) -> Self {
        Self { garment, seams: &[], darts: &[], elastic: None, worn: Worn::RightSideOut, tape }
    }
}

impl Subject<'_> {
    fn show(&self, length: Length) -> String {
        self.tape.show(length)
    }

    /// Each line that changes something, with the words for its side; one entry for both sides where they agree.
    fn lines(&self) -> impl Iterator<Item = (&AlteredSeam<'_>, &StitchingLine, &'static str)> {
        self.seams.iter().flat_map(|seam| {
            let agree = seam.sides_agree();
            let sides = if agree { &GarmentSide::BOTH[..1] } else { &GarmentSide::BOTH };
            let words = move |side: GarmentSide| match (agree, side) {
                (true, _) => "both sides",
                (_, GarmentSide::Left) => "the garment's left",
                (_, GarmentSide::Right) => "the garment's right",
            };
            sides
                .iter()
                .map(move |&side| (seam, seam.line(side), words(side)))
                .filter(|l| l.1.span().is_some())
        })
    }
}

impl Check {
    /// It stands in the way: a stop that nobody passed over.
    pub fn stands_in_the_way(&self) -> bool {
        self.outcome == Outcome::Stop && self.passed_over.is_none()
    }

    fn new(outcome: Outcome, rule: Rule, title: String, figures: String, reason: impl Into<String>) -> Self {
        let reason = reason.into();
        let key = format!("{}: {title}", word(&rule));
        Self {
            key,
            outcome,
            rule,
            title,
            figures,
            reason,
            remedy: None,
            seam: None,
            dart: None,
            level: None,
            station: None,
            passed_over: None,
        }
    }

    /// What would mend it, put into words only where it does not pass.
    fn remedy<S: Into<String>>(mut self, remedy: impl FnOnce() -> S) -> Self {
        if self.outcome != Outcome::Passes {
            self.remedy = Some(remedy().into());
        }
        self
    }

    fn at(mut self, seam: Seam, station: Station, tape: Tape) -> Self {
        self.seam = Some(seam);
        self.station = Some(tape.figure(station.0));
        self
    }
}

/// Every check on a set of changes, the gravest first.
pub(crate) fn checks(subject: &Subject<'_>, levels: &[LevelResult]) -> Vec<Check> {
    let mut all: Vec<Check> = sides(subject).collect();
    all.extend(turned(subject));
    all.extend(girth::checks(subject, levels));
    all.extend(movement::checks(subject, levels));
    all.extend(opening::checks(subject, levels));
    all.extend(run_out::checks(subject));
    all.extend(allowance::checks(subject));
    all.extend(in_the_way::checks(subject));
    all.extend(hang::checks(subject));
    all.extend(partners::checks(subject));
    all.extend(dart::checks(subject));
    all.extend(elastic::check(subject, levels));
    // Both ends of a seam have a run-out, and a band may have two loops: the second of a name has a key of its own.
    for n in 1..all.len() {
        let before = all[..n].iter().filter(|c| c.title == all[n].title && c.rule == all[n].rule).count();
        if before > 0 {
            all[n].key += &format!(" ({})", before + 1);
        }
    }
    all.sort_by_key(|c| std::cmp::Reverse(c.outcome));
    all
}

/// Notes at each check that is passed over why it is; a word is asked for, so none without one is.
pub(crate) fn pass_over(checks: &mut [Check], passed_over: &[PassedOver]) {
    for check in checks.iter_mut().filter(|c| c.outcome != Outcome::Passes) {
        let said = passed_over.iter().find(|p| p.check == check.key && !p.why.trim().is_empty());
        check.passed_over = said.map(|p| p.why.trim().to_owned());
    }
}

/// What to do about two sides that disagree: keep them where the wearer's notes explain it, else pin again.
pub(crate) fn suggestion(garment: &Garment) -> Suggestion {
    match garment.wearer.explains_a_difference() {
        None => Suggestion::PinAgain,
        Some(_) => Suggestion::KeepEach,
    }
}

fn sides(subject: &Subject<'_>) -> impl Iterator<Item = Check> {
    subject.seams.iter().filter_map(|seam| {
        let (apart, station) = seam.sides.apart?;
        let title = format!("Left and right of the {}", seam.facts.name());
        let figures = format!("{} apart on each edge, at {}", subject.show(apart), subject.show(station.0));
        let check = if seam.sides.undecided {
            let advice = match subject.garment.wearer.explains_a_difference() {
                Some(reason) => format!("Keep each: “{reason}” may explain it."),
                None => "Pin again: nothing noted about the wearer explains it.".into(),
            };
            Check::new(
                Outcome::Stop,
                Rule::Sides,
                title,
                figures,
                "The sides differ by more than pins wobble, and nobody has decided.",
            )
            .remedy(|| format!("{advice} Or choose the mean, the larger, the smaller or one side for both."))
        } else {
            let within = apart <= crate::line::AGREE_WITHIN;
            let reason = if within { "No more than pins wobble." } else { "Decided by hand." };
            Check::new(Outcome::Passes, Rule::Sides, title, figures, reason)
        };
        Some(check.at(seam.facts.seam, station, subject.tape))
    })
}

/// The asymmetry of a body flips when the garment is turned: a difference that was pinned inside out, and that the wearer's own
/// sides explain, would be sewn into the side that does not need it. One of the garment itself stays where it is.
fn turned(subject: &Subject<'_>) -> Option<Check> {
    let seam = subject.seams.iter().find(|s| !s.sides_agree() && subject.worn == Worn::InsideOut)?;
    let uneven = subject.garment.wearer.explains_a_difference()?;
    let side = |side: GarmentSide| {
        let most = seam.line(side).pins.iter().map(|p| p.edges.whole().0).max().unwrap_or(Length::ZERO);
        let on = subject.worn.on_wearer(side).name();
        format!(
            "{} at most on the garment's {}, the wearer's {on} while pinning",
            subject.show(most),
            side.name()
        )
    };
    let figures = GarmentSide::BOTH.map(side).join("; ");
    let reason = format!(
        "It was pinned inside out, and {} is uneven ({uneven}). Worn right side out, the garment's left is on the wearer's left again: \
         a difference of the body must go to the garment's other side.",
        subject.garment.wearer.name
    );
    let title = format!("The {}, pinned inside out on an uneven body", seam.facts.name());
    let mut check = Check::new(Outcome::Caution, Rule::Turned, title, figures, reason);
    check.seam = Some(seam.facts.seam);
    Some(check.remedy(|| "Exchange the figures of left and right if it is the body that differs; leave them if it is the garment."))
}

#[cfg(test)]
pub(crate) mod tests;
