//! Findings as checks: what was checked, the figures, the reason, and what would mend it.

use super::{Teller, level_name};
use crate::change::{Change, ChangeKey, kinds};
use crate::fitting::{GarmentSide, WearerSide};
use crate::judge::{
    Differ, Ease, Facts, Finding, FindingKey, Girth, Hang, Moving, Outcome, Part, Passing, Reaching, Turned,
    TwoSides,
};
use crate::length::{Figure, Length, Station};
use crate::place::Level;
use serde::Serialize;
use utoipa::ToSchema;

/// A finding in words.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Check {
    /// Names it among the checks of a try-on: what is passed over is remembered by it, whatever it is called.
    pub key: FindingKey,
    /// How it came out.
    pub outcome: Outcome,
    /// What was checked, in a few words.
    pub title: String,
    /// The figures, as a sum a person can follow.
    pub figures: String,
    /// Why it came out so.
    pub reason: String,
    /// What would make it pass.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub remedy: Option<String>,
    /// Changes that together mend it, each in place of the one there is or beside those there are: made, this check passes.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub mend: Vec<Change>,
    /// The station it is about.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub station: Option<Figure>,
    /// Why the sewist passes over it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub passed_over: Option<String>,
}

impl Check {
    /// It stands in the way: a stop that nobody passed over.
    pub fn stands_in_the_way(&self) -> bool {
        self.outcome == Outcome::Stop && self.passed_over.is_none()
    }
}

/// What is said of a finding.
pub(crate) struct Said {
    pub title: String,
    pub figures: String,
    pub reason: String,
    pub remedy: Option<String>,
}

impl Said {
    pub fn new(title: impl Into<String>, figures: impl Into<String>, reason: impl Into<String>) -> Self {
        Self { title: title.into(), figures: figures.into(), reason: reason.into(), remedy: None }
    }

    /// What would mend it, put into words only where it does not pass.
    pub fn mended<S: Into<String>>(mut self, outcome: Outcome, remedy: impl FnOnce() -> S) -> Self {
        if outcome != Outcome::Passes {
            self.remedy = Some(remedy().into());
        }
        self
    }
}

/// What a kind of change owes: sentences of its own findings.
pub(crate) trait Tell {
    /// What is said of a finding that rests on these figures.
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said;
}

macro_rules! tell_facts {
    ($($(#[$doc:meta])* $Kind:ident in $folder:ident: $Input:ident, $Key:ident, $Drawn:ident;)+) => {
        impl Tell for Facts {
            fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
                match self {
                    Self::Sides(facts) => facts.tell(key, outcome, to),
                    Self::Ease(facts) => facts.tell(key, outcome, to),
                    Self::Gone(girth) => gone(girth, outcome, to),
                    Self::Moving(facts) => facts.tell(key, outcome, to),
                    Self::Reaching(facts) => facts.tell(key, outcome, to),
                    Self::Passing(facts) => facts.tell(key, outcome, to),
                    Self::Hang(facts) => facts.tell(key, outcome, to),
                    Self::Turned(facts) => facts.tell(key, outcome, to),
                    $(Self::$Kind(facts) => facts.tell(key, outcome, to),)+
                }
            }
        }
    };
}
kinds!(tell_facts);

/// A finding in words.
pub(crate) fn tell(finding: &Finding, to: &Teller<'_>) -> Check {
    let to = Teller { mends: !finding.mend.is_empty(), ..*to };
    let Said { title, figures, reason, remedy } = finding.facts.tell(&finding.key, finding.outcome, &to);
    Check {
        key: finding.key,
        outcome: finding.outcome,
        title,
        figures,
        reason,
        remedy,
        mend: finding.mend.clone(),
        station: finding.station.map(|station| to.tape.figure(station.0)),
        passed_over: None,
    }
}

/// Notes at each check that is passed over why it is, and its key as that was kept; a word is asked for, so none without one is.
pub(crate) fn pass_over<'p>(
    checks: &mut [Check],
    passed_over: &(impl Iterator<Item = (&'p FindingKey, &'p str)> + Clone),
) {
    for check in checks.iter_mut().filter(|c| c.outcome != Outcome::Passes) {
        let kept = passed_over.clone().find(|(key, why)| key.is(&check.key) && !why.trim().is_empty());
        if let Some((key, why)) = kept {
            check.key = *key;
            check.passed_over = Some(why.trim().to_owned());
        }
    }
}

impl FindingKey {
    /// On which side, in words behind a name; nothing of what has no sides.
    pub(crate) fn and_side(&self) -> &'static str {
        match self.side {
            None if self.change.is_some_and(ChangeKey::is_single) => "",
            None => ", both sides",
            Some(GarmentSide::Left) => ", the garment’s left",
            Some(GarmentSide::Right) => ", the garment’s right",
        }
    }

    /// What its change is called on this garment; nothing where it is about none.
    pub(crate) fn name(&self, to: &Teller<'_>) -> String {
        self.change.map_or_else(String::new, |change| change.name(to.garment))
    }
}

impl Tell for TwoSides {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let reason = match (self.undecided, self.differ, self.is_wobble) {
            (true, Differ::By(..), _) => "The sides differ by more than pins wobble, and nobody has decided.",
            (true, Differ::NotBeside(_), _) => {
                "Pinned at different places only, the sides cannot be compared, and nobody has decided."
            }
            (false, Differ::By(..), true) => "No more than pins wobble.",
            (false, Differ::By(..) | Differ::NotBeside(_), _) => "Decided by hand.",
        };
        let stretch = |(from, until): (Station, Station)| match from == until {
            true => format!("at {}", to.show(from.0)),
            false => format!("from {} to {}", to.bare(from.0), to.show(until.0)),
        };
        let figures = match self.differ {
            Differ::By(apart, at) => {
                format!("{} apart on each edge, at {}", to.show(apart), to.show(at.0))
            }
            Differ::NotBeside([left, right]) => {
                format!("left pinned {}, right {}", stretch(left), stretch(right))
            }
        };
        Said::new(format!("Left and right of the {}", key.name(to)), figures, reason).mended(outcome, || {
            let advice = match (&self.explained, self.differ) {
                (Some(reason), _) => format!("Keep each: “{reason}” may explain it."),
                (None, Differ::By(..)) => "Pin again: nothing noted about the wearer explains it.".into(),
                (None, Differ::NotBeside(_)) => "Pin one side where the other is pinned.".into(),
            };
            match self.differ {
                Differ::By(..) => {
                    format!("{advice} Or choose the mean, the larger, the smaller or one side for both.")
                }
                Differ::NotBeside(_) => {
                    format!(
                        "{advice} Or choose one side for both, or the mean: the pins of both on one line."
                    )
                }
            }
        })
    }
}

impl Tell for Turned {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let side = |(most, side): (Length, GarmentSide)| {
            let (most, seen) = (to.show(most), self.put_on.seen_words(side));
            format!("{most} at most on the garment’s {}, the {seen} while pinning", side.name())
        };
        let reason = format!(
            "It was pinned inside out, and {} is uneven ({}). Worn right side out, the garment’s left is on the {} again: \
             a difference of the body must go to the garment’s other side.",
            self.wearer,
            self.uneven,
            self.put_on.pinned_by.seen_words(WearerSide::Left)
        );
        let title = format!("The {}, pinned inside out on an uneven body", key.name(to));
        Said::new(title, self.most.map(side).join("; "), reason).mended(outcome, || {
            "Exchange the figures of left and right if it is the body that differs; leave them if it is the garment."
        })
    }
}

impl Tell for Ease {
    fn tell(&self, _: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let least = to.show(self.least);
        let reason = match (outcome, self.was_tight) {
            (Outcome::Passes, _) => {
                format!("Usual here is {} to {} of ease.", to.bare(self.usual[0]), to.show(self.usual[1]))
            }
            (Outcome::Caution | Outcome::Stop, true) => format!("Still less than the least ease of {least}."),
            (Outcome::Caution | Outcome::Stop, false) => {
                format!("Less than the least ease of {least}: it would bind.")
            }
        };
        // What a knit stretches in wear is why its least ease may be less than nothing.
        let reason = match self.stretch_in_use {
            0 => reason,
            percent => format!("{reason} This knit may stretch by {percent} % of the body in wear."),
        };
        let ease = self.girth.after - self.body;
        let figures = format!(
            "{} − {} ({} body) = {} ease altogether",
            to.bare(self.girth.after),
            to.bare(self.body),
            self.girth.level.level.name(),
            to.show(ease)
        );
        Said::new(format!("Ease at the {}", level_name(&self.girth)), figures, reason).mended(outcome, || {
            let (short, off) = (self.least - ease, self.girth.off());
            match () {
                () if off <= Length::ZERO => {
                    format!("Let out {} more altogether at this level.", to.show_at_least(short))
                }
                () if short <= off => {
                    format!("Take {} less altogether at this level.", to.show_at_least(short))
                }
                () => format!(
                    "Take nothing here, and let out {} altogether: it was too tight before.",
                    to.show_at_least(short - off)
                ),
            }
        })
    }
}

/// What is said of a level of which nothing is left.
fn gone(girth: &Girth, outcome: Outcome, to: &Teller<'_>) -> Said {
    let figures = format!(
        "{} − {} = {} altogether",
        to.bare(girth.before()),
        to.bare(girth.off()),
        to.show(girth.after)
    );
    let title = format!("Ease at the {}", level_name(girth));
    Said::new(title, figures, "Together the changes take all there is at this level.")
        .mended(outcome, || format!("Take less here: there are {} altogether.", to.show(girth.before())))
}

impl Tell for Reaching {
    fn tell(&self, _: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let sign = if self.off.is_negative() { '+' } else { '−' };
        let known = if self.is_own { "as measured on this wearer" } else { "a teaching value" };
        let stretches = match self.stretch {
            Length::ZERO => String::new(),
            stretch => format!(", and the cloth stretches by {}", to.show(stretch)),
        };
        let figures = format!(
            "{} {sign} {} − {} of back = {} of room; reaching forward adds {} ({known}){stretches}",
            to.bare(self.before),
            to.bare(self.off.abs()),
            to.bare(self.body),
            to.show(self.ease()),
            to.show(self.adds)
        );
        let reason = match outcome {
            Outcome::Passes => "There is room to reach forward.",
            Outcome::Caution => "Arms will not reach all the way forward.",
            Outcome::Stop => "It will be narrower across than the back at rest.",
        };
        Said::new("Reaching forward, across the back", figures, reason).mended(outcome, || {
            let short = self.adds - self.ease() - self.stretch;
            match (self.off.is_negative(), short <= self.off) {
                (true, _) => format!("Let out {} more across the back.", to.show(short)),
                (false, true) => format!(
                    "Take {} less across the back, or let the line run out below the shoulder blades.",
                    to.show(short)
                ),
                (false, false) => {
                    "It was short of room before: let the line run out below the shoulder blades.".into()
                }
            }
        })
    }
}

impl Tell for Moving {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let (movement, doing) = match key.level {
            Some(Level::UpperArm) => ("Bending the elbow", "to bend the arm"),
            Some(_) | None => ("Sitting", "to sit"),
        };
        let known = match (self.is_own, self.better) {
            (true, _) => "as measured on this wearer".to_owned(),
            (false, Some(what)) => format!("a teaching value; the {} would be better", what.name()),
            (false, None) => "a teaching value".to_owned(),
        };
        let stretches = match self.stretch {
            Length::ZERO => String::new(),
            stretch => format!(", and the cloth stretches by {}", to.show(stretch)),
        };
        let figures = format!(
            "{} adds {} ({known}); ease after is {}{stretches}",
            movement.to_lowercase(),
            to.show(self.adds),
            to.show(self.ease)
        );
        let reason = match outcome {
            Outcome::Passes => format!("There is room {doing}."),
            Outcome::Caution | Outcome::Stop => format!("No room {doing}."),
        };
        let title = format!("{movement}, at the {}", level_name(&self.girth));
        Said::new(title, figures, reason).mended(outcome, || {
            format!("Leave {} more altogether at this level.", to.show_at_least(self.short))
        })
    }
}

impl Part {
    /// What it is, what is measured round it, and how.
    const fn words(self) -> (&'static str, &'static str, &'static str) {
        match self {
            Self::Foot => ("foot", "heel girth", "Measure the heel girth, round instep and heel."),
            Self::Hand => {
                ("hand", "hand girth", "Measure the hand girth, round the knuckles, thumb laid in.")
            }
            Self::Hips => ("hips", "hip girth", "Measure the hip girth."),
            Self::HeadAndShoulders => (
                "head and shoulders",
                "hips or shoulders",
                "Measure the hip girth, and the shoulder girth for what goes over the head.",
            ),
            Self::Head => ("head", "head girth", "Measure the head girth, above the ears."),
        }
    }
}

impl Tell for Passing {
    fn tell(&self, _: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let level = level_name(&self.girth);
        let (part, round, measure) = self.part.words();
        let title = match self.part {
            Part::Foot => format!("Foot through the {level}"),
            Part::Hand => format!("Hand through the {level}"),
            Part::Head => format!("Head through the {level}"),
            Part::Hips | Part::HeadAndShoulders => format!("Pulling it on over the {part}"),
        };
        // A leg or sleeve is called an opening; a waist or neck by its name.
        let opening = match self.part {
            Part::Foot | Part::Hand => "opening",
            Part::Hips | Part::HeadAndShoulders | Part::Head => self.girth.level.level.name(),
        };
        let after = to.show(self.girth.after);
        let measures = match self.opens_to == self.girth.after {
            true => format!("the {opening} measures {after}"),
            false => format!("the {opening} measures {after} and stretches to {}", to.show(self.opens_to)),
        };
        let (Some(passing), Some(short)) = (self.passing, self.short()) else {
            return Said::new(title, format!("{measures} round"), "What must pass is not known.")
                .mended(outcome, || measure);
        };
        let (over, needs) = (to.bare(self.over), to.show(passing + self.over));
        let figures = format!("{round} {} + {over} = {needs} needed; {measures}", to.bare(passing));
        let reason = match (outcome, self.part.is_pulled_over()) {
            (Outcome::Passes, true) => "It goes on.".into(),
            (Outcome::Passes, false) => format!("The {part} goes through."),
            (Outcome::Caution | Outcome::Stop, true) if self.went_on => {
                "It was too narrow before and yet went on: something unfastens that is not entered.".into()
            }
            (Outcome::Caution | Outcome::Stop, true) => "Nothing unfastens: it does not go on.".into(),
            (Outcome::Caution | Outcome::Stop, false) => format!("The {part} does not go through."),
        };
        Said::new(title, figures, reason).mended(outcome, || {
            let short = to.show_at_least(short);
            match self.part {
                _ if self.went_on => "Say in the look-over what opens, and where.".to_owned(),
                Part::Hips | Part::HeadAndShoulders | Part::Head => {
                    format!("Leave {short} more altogether at the {opening}, or set in a closure.")
                }
                Part::Foot | Part::Hand => {
                    format!("Leave {short} more altogether at the hem, or plan a slit.")
                }
            }
        })
    }
}

impl Tell for Hang {
    fn tell(&self, _: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let is_waist = self.level == Level::Waist;
        let title = match is_waist {
            true => "Hang of the waist".into(),
            false => format!("Hang at the {}", self.level.name()),
        };
        let reason = format!("Over {} drags pockets and seams out of place.", to.show(self.most));
        Said::new(title, format!("{} altogether", to.show(self.off)), reason).mended(outcome, || {
            match is_waist {
                true => "Split it over more seams.",
                false => "Consider recutting: this is about two sizes.",
            }
        })
    }
}
