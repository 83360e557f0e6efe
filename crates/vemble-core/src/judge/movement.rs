//! Movement: what sitting, bending and reaching add must be there as ease.

use super::{Facts, Finding, Girth, Outcome, Rule, Subject, ease::key};
use crate::body::BodyMeasurement;
use crate::change::DrawnChange;
use crate::fitting::GarmentSide;
use crate::garment::{Seam, moving_adds};
use crate::length::{Length, Station};
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

/// What reaching forward adds to the across-back width, in percent, where it was not measured on the wearer (teaching value: the blades slide
/// apart by a hand's breadth on most backs).
const REACHING_ADDS_PERCENT: i64 = 13;

/// What reaching forward adds across the back, and what there is for it.
#[derive(Clone, Debug)]
pub(crate) struct Reaching {
    /// Across the garment's back now.
    pub before: Length,
    /// What the changes take off it.
    pub off: Length,
    pub body: Length,
    pub adds: Length,
    /// It was measured on this wearer.
    pub is_own: bool,
    /// What the cloth stretches by, on the body's width.
    pub stretch: Length,
}

impl Reaching {
    /// What is wider than the body, after the changes.
    pub fn ease(&self) -> Length {
        self.before - self.off - self.body
    }
}

/// Across a back that is changed, where garment and wearer were measured there.
pub(super) fn reaching(subject: &Subject<'_>) -> Option<Finding> {
    let (garment, tape) = (subject.garment, subject.tape);
    let (before, height) = (tape.round(garment.across_back?.length), garment.height_across_back()?);
    let body = subject.body(BodyMeasurement::AcrossBackWidth)?;
    let off: Length = subject.changes.iter().map(|change| off_the_back(subject, change, height)).sum();
    if off == Length::ZERO {
        return None;
    }
    let own = subject.body(BodyMeasurement::AcrossBackReaching).map(|reaching| reaching - body);
    let adds = own.unwrap_or_else(|| tape.round(body.fraction(REACHING_ADDS_PERCENT, 100)));
    let stretch = tape.round(body.fraction(i64::from(garment.cloth.stretch_percent), 100));
    let facts = Reaching { before, off, body, adds, is_own: own.is_some(), stretch };
    let outcome = match facts.ease() + stretch >= adds {
        true => Outcome::Passes,
        // A woven back that is cut close is worn all the same: one reaches less far.
        false if off < Length::ZERO || facts.ease() >= Length::ZERO => Outcome::Caution,
        false => Outcome::Stop,
    };
    let key = super::FindingKey { level: Some(Level::Shoulder), ..super::FindingKey::of(Rule::Movement) };
    Some(Finding::new(key, outcome, Facts::Reaching(facts)))
}

/// What one change takes off the back between the armholes at a height above the hem.
fn off_the_back(subject: &Subject<'_>, change: &DrawnChange<'_>, height: Length) -> Length {
    let tape = subject.tape;
    match change {
        DrawnChange::Seam(seam) => {
            let lines = match seam.facts.seam {
                Seam::CentreBack => &seam.lines[..1],
                Seam::PrincessBack | Seam::PanelBack => &seam.lines[..],
                Seam::Outseam | Seam::Inseam | Seam::SeatSeam | Seam::FrontRise | Seam::SideSeam => {
                    return Length::ZERO;
                }
                Seam::CentreFront | Seam::PrincessFront | Seam::PanelFront | Seam::ShoulderSeam => {
                    return Length::ZERO;
                }
                Seam::ArmholeSeam | Seam::SleeveSeam | Seam::SleeveBackSeam => return Length::ZERO,
                Seam::YokeSeam | Seam::WaistSeam | Seam::NeckSeam => return Length::ZERO,
            };
            let station = Station(height - subject.garment.height_of_datum(seam.facts.seam));
            if station.0 > seam.facts.end() {
                return Length::ZERO;
            }
            lines.iter().filter_map(|line| line.chalked(station, tape)).map(|edges| edges.whole().0).sum()
        }
        DrawnChange::Dart(dart) if !dart.key().is_in_front() => GarmentSide::BOTH
            .into_iter()
            .filter_map(|side| dart.chalked_more_at(side, height, tape))
            .map(|depth| depth * 2)
            .sum(),
        DrawnChange::Dart(_) | DrawnChange::Elastic(_) | DrawnChange::Hem(_) => Length::ZERO,
        DrawnChange::Spacing(_) | DrawnChange::Gathers(_) => Length::ZERO,
        DrawnChange::Armhole(_) | DrawnChange::Trunk(_) => Length::ZERO,
    }
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
