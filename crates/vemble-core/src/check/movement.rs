//! Movement: what sitting adds must be there as ease.

use super::{Check, LevelResult, Outcome, Rule, Subject};
use crate::body::{BodyMeasurement, moving_adds};
use crate::garment::Level;
use crate::length::Length;

/// Sitting, at each changed level it widens. The wearer's own seated girth counts before the teaching value.
pub(super) fn checks(subject: &Subject<'_>, levels: &[LevelResult]) -> impl Iterator<Item = Check> {
    levels.iter().filter(|l| l.is_changed()).filter_map(|l| {
        let body = Length::from_nm(l.body.as_ref()?.nm);
        let ease = Length::from_nm(l.ease_after.as_ref()?.nm);
        let (moving, movement, doing) = match l.level {
            Level::Hip => (Some(BodyMeasurement::HipGirthSeated), "Sitting", "to sit"),
            Level::UpperArm => {
                (Some(BodyMeasurement::UpperArmGirthFlexed), "Bending the elbow", "to bend the arm")
            }
            _ => (None, "Sitting", "to sit"),
        };
        let measured = moving.and_then(|what| subject.garment.wearer.get(what));
        let (adds, known) = match (measured, moving) {
            (Some(measured), _) => (measured - body, "as measured on this wearer".to_owned()),
            (None, Some(what)) => {
                (moving_adds(l.level)?, format!("a teaching value; the {} would be better", what.name()))
            }
            (None, None) => (moving_adds(l.level)?, "a teaching value".to_owned()),
        };
        let stretch = body.fraction(i64::from(subject.garment.cloth.stretch_percent), 100);
        let outcome = if ease + stretch >= adds { Outcome::Passes } else { Outcome::Stop };
        let figures = format!(
            "{} adds {} ({known}); ease after is {}",
            movement.to_lowercase(),
            subject.show(adds),
            subject.show(ease)
        );
        let reason = match outcome {
            Outcome::Passes => format!("There is room {doing}."),
            _ => format!("No room {doing}."),
        };
        let mut check =
            Check::new(outcome, Rule::Movement, format!("{movement}, at the {}", l.name()), figures, reason);
        check.level = Some(l.level);
        let short = (adds - ease - stretch).up_to(subject.tape.mark());
        Some(check.remedy(|| format!("Leave {} more altogether at this level.", subject.show(short))))
    })
}
