//! Openings: a foot goes through a trouser leg, a hand through a sleeve, a body into what is pulled on, where nothing unfastens.

use super::{Facts, Finding, Girth, Outcome, Rule, Subject, ease::key};
use crate::body::BodyMeasurement;
use crate::garment::{Band, Opening};
use crate::length::{Length, Taught};
use crate::place::Level;

/// What an opening needs over a heel or hand girth: 1 cm (teaching value: a sock or a ring, and a push). What is pulled on over hips or
/// shoulders needs twice that.
pub(crate) const OVER: Taught = Taught::new(10, 24);

/// Which part of the body goes through.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Part {
    /// A foot through a trouser leg.
    Foot,
    /// A hand through a sleeve.
    Hand,
    /// Hips into what hangs from the waist.
    Hips,
    /// Head and shoulders into what hangs from them.
    HeadAndShoulders,
    /// The head through the neck.
    Head,
}

impl Part {
    /// Nothing unfastens: it is pulled on over this part.
    pub const fn is_pulled_over(self) -> bool {
        matches!(self, Self::Hips | Self::HeadAndShoulders | Self::Head)
    }
}

/// A body part and the opening that it has to pass.
#[derive(Clone, Debug)]
pub(crate) struct Passing {
    pub part: Part,
    pub girth: Girth,
    /// Round what passes, if it is known.
    pub passing: Option<Length>,
    /// What it needs more than that.
    pub over: Length,
    /// What the opening stretches to.
    pub opens_to: Length,
    /// It was too narrow before the change too, and yet it went on: something unfastens that nobody entered.
    pub went_on: bool,
}

impl Passing {
    /// What is missing; nothing is where it is not known.
    pub fn short(&self) -> Option<Length> {
        Some(self.passing? + self.over - self.opens_to)
    }
}

/// Each changed leg or sleeve opening against what must pass it, and the narrowest place of what is pulled on. The cloth's stretch counts.
pub(super) fn judge(subject: &Subject<'_>, girths: &[Girth]) -> Vec<Finding> {
    let all = girths.iter().filter(|g| g.is_changed()).filter_map(|g| {
        let (part, passing) = passing(subject, g)?;
        let over = match part {
            Part::Foot | Part::Hand | Part::Head => OVER.on(subject.tape),
            Part::Hips | Part::HeadAndShoulders => OVER.on(subject.tape) * 2,
        };
        let stretch = i64::from(subject.garment.cloth.stretch_percent);
        let opens_to = |girth: Length| girth + subject.tape.round(girth.fraction(stretch, 100));
        let went_on = part.is_pulled_over() && passing.is_some_and(|p| p + over > opens_to(g.before()));
        let facts = Passing { part, girth: g.clone(), passing, over, opens_to: opens_to(g.after), went_on };
        let outcome = match facts.short() {
            None => Outcome::Caution,
            // Letting out helps, even where it is not enough.
            Some(short) if short > Length::ZERO && (went_on || g.off() < Length::ZERO) => Outcome::Caution,
            Some(short) if short > Length::ZERO => Outcome::Stop,
            Some(_) => Outcome::Passes,
        };
        Some(Finding::new(key(Rule::Opening, g), outcome, Facts::Passing(facts)))
    });
    all.collect()
}

/// What has to pass at a level, and how much it measures round; nothing where nothing has to.
fn passing(subject: &Subject<'_>, girth: &Girth) -> Option<(Part, Option<Length>)> {
    let (garment, get) = (subject.garment, |what| subject.body(what));
    match girth.level.level {
        Level::Hem if garment.has_legs() => Some((Part::Foot, get(BodyMeasurement::HeelGirth))),
        Level::SleeveHem if garment.closures.iter().all(|c| c.at != Opening::Cuff) => {
            Some((Part::Hand, get(BodyMeasurement::HandGirth)))
        }
        Level::Waist if garment.is_pulled_on() && garment.found.band != Some(Band::Elastic) => {
            let hips = get(BodyMeasurement::HipGirth);
            Some(match garment.hangs_from_shoulders() {
                true => (Part::HeadAndShoulders, hips.max(get(BodyMeasurement::ShoulderGirth))),
                false => (Part::Hips, hips),
            })
        }
        Level::Neck if garment.is_pulled_on() => Some((Part::Head, get(BodyMeasurement::HeadGirth))),
        Level::Neck | Level::Shoulder | Level::Bust | Level::UnderBust | Level::Waist | Level::Hip => None,
        Level::Thigh | Level::Knee | Level::Calf | Level::Ankle | Level::Hem => None,
        Level::UpperArm | Level::Elbow | Level::Wrist | Level::SleeveHem => None,
    }
}
