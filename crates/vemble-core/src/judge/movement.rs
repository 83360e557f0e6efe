//! Movement: what sitting and bending add must be there as ease.

use super::{Facts, Finding, Girth, Outcome, Rule, Subject, ease::key};
use crate::body::BodyMeasurement;
use crate::garment::moving_adds;
use crate::length::Length;
use crate::place::Level;

/// What a movement adds at a level, and the ease there is for it.
#[derive(Clone, Debug)]
pub(crate) struct Moving {
    pub girth: Girth,
    pub adds: Length,
    /// It was measured on this wearer.
    pub is_own: bool,
    /// The measurement that would be better than the teaching value.
    pub better: Option<BodyMeasurement>,
    pub ease: Length,
    /// What the cloth stretches by, on the body's girth.
    pub stretch: Length,
    /// What is missing, with the cloth's stretch counted.
    pub short: Length,
}

/// At each changed level that a movement widens. The wearer's own figure counts before the teaching value.
pub(super) fn judge(subject: &Subject<'_>, girths: &[Girth]) -> impl Iterator<Item = Finding> {
    girths.iter().filter(|g| g.is_changed()).filter_map(|g| {
        let (body, ease) = (g.body?, g.ease_after()?);
        let better = moving_measure(g.level.level);
        let own = better.and_then(|what| subject.body(what)).map(|moving| moving - body);
        let adds = own.or_else(|| Some(subject.tape.round(moving_adds(g.level.level)?.on(subject.tape))))?;
        let stretch =
            subject.tape.round(body.fraction(i64::from(subject.garment.cloth.stretch_percent), 100));
        let outcome = match ease + stretch >= adds {
            true => Outcome::Passes,
            // Letting out helps, even where it is not enough.
            false if g.off() < Length::ZERO => Outcome::Caution,
            false => Outcome::Stop,
        };
        let short = adds - ease - stretch;
        let facts = Moving { girth: g.clone(), adds, is_own: own.is_some(), better, ease, stretch, short };
        Some(Finding::new(key(Rule::Movement, g), outcome, Facts::Moving(facts)))
    })
}

/// The wearer's own moving measurement at a level.
fn moving_measure(level: Level) -> Option<BodyMeasurement> {
    match level {
        Level::Hip => Some(BodyMeasurement::HipGirthSeated),
        Level::UpperArm => Some(BodyMeasurement::UpperArmGirthFlexed),
        Level::Neck | Level::Shoulder | Level::Bust | Level::UnderBust | Level::Waist | Level::Thigh => None,
        Level::Knee | Level::Calf | Level::Ankle | Level::Hem => None,
        Level::Elbow | Level::Wrist | Level::SleeveHem => None,
    }
}
