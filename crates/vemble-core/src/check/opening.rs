//! Openings: a foot goes through a trouser leg that nothing unfastens.

use super::{Check, LevelResult, Outcome, Rule, Subject};
use crate::body::BodyMeasurement;
use crate::garment::Level;
use crate::length::Length;

/// What an opening needs over the heel girth: 1 cm (teaching value: a sock, and a hand's push).
const OVER_HEEL: Length = Length::from_mm(10);

/// Each leg opening against the heel girth; the cloth's stretch counts.
pub(super) fn checks(subject: &Subject<'_>, levels: &[LevelResult]) -> impl Iterator<Item = Check> {
    let hems = levels.iter().filter(|l| l.level == Level::Hem && l.is_changed());
    hems.map(|l| {
        let after = Length::from_nm(l.after.nm);
        let title = format!("Foot through the {}", l.name());
        let Some(heel) = subject.garment.wearer.get(BodyMeasurement::HeelGirth) else {
            let figures = format!("the opening measures {} round", l.after.text);
            return Check::new(
                Outcome::Caution,
                Rule::Opening,
                title,
                figures,
                "The heel girth is not known.",
            )
            .remedy("Measure the heel girth, around heel and instep.");
        };
        let needs = heel + OVER_HEEL;
        let opens_to = after + after.fraction(i64::from(subject.garment.cloth.stretch_percent), 100);
        let outcome = if opens_to >= needs { Outcome::Passes } else { Outcome::Stop };
        let figures = format!(
            "heel girth {} + {} = {} needed; the opening measures {}",
            subject.tape.bare(heel),
            subject.tape.bare(OVER_HEEL),
            subject.show(needs),
            l.after.text
        );
        let reason = if outcome == Outcome::Passes {
            "The foot goes through."
        } else {
            "The foot does not go through."
        };
        let mut check = Check::new(outcome, Rule::Opening, title, figures, reason);
        check.level = Some(l.level);
        let short = (needs - opens_to).up_to(subject.tape.mark());
        check.remedy(format!("Leave {} more altogether at the hem, or plan a slit.", subject.show(short)))
    })
}
