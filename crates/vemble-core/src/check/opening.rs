//! Openings: a foot goes through a trouser leg, a hand through a sleeve, that nothing unfastens.

use super::{Check, LevelResult, Outcome, Rule, Subject};
use crate::body::BodyMeasurement;
use crate::garment::{Band, Level, Opening};
use crate::length::Length;

/// What an opening needs over the heel or hand girth: 1 cm (teaching value: a sock or a ring, and a push).
const OVER: Length = Length::from_mm(10);

/// Each changed leg or sleeve opening against what must pass it; the cloth's stretch counts. An open cuff lets a hand through.
pub(super) fn checks(subject: &Subject<'_>, levels: &[LevelResult]) -> impl Iterator<Item = Check> {
    hems(subject, levels).chain(pulled_on(subject, levels))
}

/// The narrowest place of what is pulled on has to pass the hip, or the shoulders where it goes over the head: 2 cm more than they measure
/// (teaching value: a push). The cloth's stretch counts.
fn pulled_on(subject: &Subject<'_>, levels: &[LevelResult]) -> Option<Check> {
    let garment = subject.garment;
    if !garment.is_pulled_on() || garment.found.band == Some(Band::Elastic) {
        return None;
    }
    let waist = levels.iter().find(|l| l.level == Level::Waist && l.is_changed())?;
    let wearer = &garment.wearer;
    let over = if garment.hangs_from_shoulders() { "head and shoulders" } else { "hips" };
    let passing = match garment.hangs_from_shoulders() {
        true => [BodyMeasurement::HipGirth, BodyMeasurement::ShoulderGirth]
            .map(|what| wearer.get(what))
            .into_iter()
            .flatten()
            .max(),
        false => wearer.get(BodyMeasurement::HipGirth),
    };
    let title = format!("Pulling it on over the {over}");
    let Some(passing) = passing else {
        let figures = format!("the waist measures {} round", waist.after.text());
        let check =
            Check::new(Outcome::Caution, Rule::Opening, title, figures, "What must pass is not known.");
        return Some(
            check.remedy(|| "Measure the hip girth, and the shoulder girth for what goes over the head."),
        );
    };
    let needs = passing + OVER * 2;
    let after = Length::from_nm(waist.after.nm);
    let opens_to = after + after.fraction(i64::from(garment.cloth.stretch_percent), 100);
    let outcome = if opens_to >= needs { Outcome::Passes } else { Outcome::Stop };
    let figures = format!(
        "{} + {} = {} needed; the waist opens to {}",
        subject.tape.bare(passing),
        subject.tape.bare(OVER * 2),
        subject.show(needs),
        subject.show(opens_to)
    );
    let reason =
        if outcome == Outcome::Passes { "It goes on." } else { "Nothing unfastens: it does not go on." };
    let mut check = Check::new(outcome, Rule::Opening, title, figures, reason);
    check.level = Some(Level::Waist);
    let short = (needs - opens_to).up_to(subject.tape.mark());
    Some(
        check.remedy(|| {
            format!("Leave {} more altogether at the waist, or set in a zip.", subject.show(short))
        }),
    )
}

/// Each changed leg or sleeve opening.
fn hems(subject: &Subject<'_>, levels: &[LevelResult]) -> impl Iterator<Item = Check> {
    let garment = subject.garment;
    let cuffs_open = garment.closures.iter().any(|c| c.at == Opening::Cuff);
    let hems = levels.iter().filter(|l| l.is_changed()).filter_map(move |l| match l.level {
        Level::Hem if garment.has_legs() => Some((l, BodyMeasurement::HeelGirth, "foot", "instep and heel")),
        Level::SleeveHem if !cuffs_open => {
            Some((l, BodyMeasurement::HandGirth, "hand", "the knuckles, thumb laid in"))
        }
        _ => None,
    });
    hems.map(|(l, what, part, around)| {
        let after = Length::from_nm(l.after.nm);
        let title = format!("{} through the {}", if part == "foot" { "Foot" } else { "Hand" }, l.name());
        let Some(passing) = garment.wearer.get(what) else {
            let figures = format!("the opening measures {} round", l.after.text());
            let reason = format!("The {} is not known.", what.name());
            return Check::new(Outcome::Caution, Rule::Opening, title, figures, reason)
                .remedy(|| format!("Measure the {}, round {around}.", what.name()));
        };
        let needs = passing + OVER;
        let opens_to = after + after.fraction(i64::from(subject.garment.cloth.stretch_percent), 100);
        let outcome = if opens_to >= needs { Outcome::Passes } else { Outcome::Stop };
        let figures = format!(
            "{} {} + {} = {} needed; the opening measures {}",
            what.name(),
            subject.tape.bare(passing),
            subject.tape.bare(OVER),
            subject.show(needs),
            l.after.text()
        );
        let reason = match outcome {
            Outcome::Passes => format!("The {part} goes through."),
            _ => format!("The {part} does not go through."),
        };
        let mut check = Check::new(outcome, Rule::Opening, title, figures, reason);
        check.level = Some(l.level);
        let short = (needs - opens_to).up_to(subject.tape.mark());
        check.remedy(|| format!("Leave {} more altogether at the hem, or plan a slit.", subject.show(short)))
    })
}
