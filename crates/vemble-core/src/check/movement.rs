//! Movement: what sitting adds must be there as ease.

use super::{Check, LevelResult, Outcome, Rule, Subject};
use crate::body::{BodyMeasurement, sitting_adds};
use crate::garment::Level;
use crate::length::Length;

/// Sitting, at each changed level it widens. The wearer's own seated girth counts before the teaching value.
pub(super) fn checks(subject: &Subject<'_>, levels: &[LevelResult]) -> impl Iterator<Item = Check> {
    levels.iter().filter(|l| l.is_changed()).filter_map(|l| {
        let body = Length::from_nm(l.body.as_ref()?.nm);
        let ease = Length::from_nm(l.ease_after.as_ref()?.nm);
        let seated =
            subject.garment.wearer.get(BodyMeasurement::HipGirthSeated).filter(|_| l.level == Level::Hip);
        let (adds, known) = match seated {
            Some(seated) => (seated - body, "as measured on this wearer"),
            None => (sitting_adds(l.level)?, "a teaching value; the seated girth would be better"),
        };
        let stretch = body.fraction(i64::from(subject.garment.cloth.stretch_percent), 100);
        let outcome = if ease + stretch >= adds { Outcome::Passes } else { Outcome::Stop };
        let figures =
            format!("sitting adds {} ({known}); ease after is {}", subject.show(adds), subject.show(ease));
        let reason = if outcome == Outcome::Passes { "There is room to sit." } else { "No room to sit." };
        let mut check =
            Check::new(outcome, Rule::Movement, format!("Sitting: {}", l.name()), figures, reason);
        check.level = Some(l.level);
        let short = (adds - ease - stretch).up_to(subject.tape.mark());
        Some(check.remedy(format!("Leave {} more altogether at this level.", subject.show(short))))
    })
}
