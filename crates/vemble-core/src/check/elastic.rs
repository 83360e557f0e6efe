//! Elastic in a waistband: whether there is casing enough, and how much it gathers.

use super::{Check, LevelResult, Outcome, Rule, Subject};
use crate::alteration::{elastic_shown, elastic_sum};
use crate::garment::Level;
use crate::length::Length;

pub(super) fn check(subject: &Subject<'_>, levels: &[LevelResult]) -> Option<Check> {
    let plan = subject.elastic?;
    let make = |outcome, figures: String, reason: &str| {
        let mut check =
            Check::new(outcome, Rule::Elastic, "Elastic in the waistband".into(), figures, reason);
        check.level = Some(Level::Waist);
        check
    };
    let waist = levels.iter().find(|l| l.level == Level::Waist);
    let Some((garment, body)) = waist.and_then(|w| Some((w.after, w.body?))) else {
        let figures = format!("the casing runs {}", subject.show(plan.casing.length));
        return Some(
            make(Outcome::Stop, figures, "The waist of the garment or of the wearer is not known.")
                .remedy(|| "Measure both: the elastic is what lies between them."),
        );
    };
    let (garment, body) = (Length::from_nm(garment.nm), Length::from_nm(body.nm));
    let excess = garment - body;
    let Some(sum) = elastic_sum(plan, garment, body) else {
        let figures = format!(
            "casing {}, the waist is {} too wide",
            subject.show(plan.casing.length),
            subject.show(excess)
        );
        let wanted = subject.show((excess * 5).up_to(subject.tape.mark()));
        return Some(
            make(Outcome::Stop, figures, "The casing would have to shrink to nought.").remedy(|| format!(
                "Take the waist in at a seam, or let the casing run at least {wanted}: there it gathers by a quarter."
            )),
        );
    };
    let [casing, of_garment, of_body, spans, adjusted] = elastic_shown(&sum, garment, body, subject.tape);
    let gathers = sum.gathers();
    let figures = format!(
        "casing {casing} − ({of_garment} − {of_body}) = {spans} to span{adjusted}; {casing} ÷ {} = gathers {gathers:.2}",
        subject.tape.bare(sum.spans)
    );
    Some(match (excess <= Length::ZERO, sum.gathers_too_much()) {
        (true, _) => {
            make(Outcome::Caution, figures, "The waist is no wider than the body: nothing needs to be held.")
                .remedy(|| "Leave the elastic out.")
        }
        (false, true) => make(Outcome::Caution, figures, "Over 1.25 the cloth gathers visibly.")
            .remedy(|| "Let the casing run longer, or take part of it in at a seam."),
        (false, false) => make(Outcome::Passes, figures, "Up to 1.25 it lies flat."),
    })
}
