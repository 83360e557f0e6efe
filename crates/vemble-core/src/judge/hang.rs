//! Hang: too much at one place of the whole drags other seams round. Whether the grain of a limb tips is judged seam by seam.

use super::{Facts, Finding, FindingKey, Outcome, Rule, Subject};
use crate::fitting::GarmentSide;
use crate::length::{Length, Taught};
use crate::place::Level;

/// At one seam of a waist, whole (teaching value: beyond it pockets and side seams are dragged to it).
const WAIST_WHOLE: Taught = Taught::new(40, 96);
/// At bust or hip altogether, whole (teaching value: two sizes).
const RECUT_WHOLE: Taught = Taught::new(60, 160);

/// What comes off a level, at one seam of a waist or altogether elsewhere.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Hang {
    pub level: Level,
    pub off: Length,
    pub most: Length,
}

pub(super) fn judge(subject: &Subject<'_>) -> impl Iterator<Item = Finding> {
    subject.garment.levels.iter().filter_map(move |level| {
        let level = level.level;
        let at = |side| {
            subject
                .seams()
                .filter(move |s| side == GarmentSide::Left || !s.facts.seam.is_single())
                .filter_map(move |s| {
                    Some(s.chalked_at(subject.garment, level, Length::ZERO, side, subject.tape)?.whole().0)
                })
        };
        let mut offs = at(GarmentSide::Left).chain(at(GarmentSide::Right));
        let (off, most) = match level {
            Level::Waist => (offs.max()?, WAIST_WHOLE),
            Level::Hip | Level::Bust => (offs.by_ref().sum(), RECUT_WHOLE),
            Level::Neck | Level::Shoulder | Level::UnderBust | Level::Thigh | Level::Knee => return None,
            Level::Calf | Level::Ankle | Level::Hem => return None,
            Level::UpperArm | Level::Elbow | Level::Wrist | Level::SleeveHem => return None,
        };
        let most = most.on(subject.tape);
        let key = FindingKey { level: Some(level), ..FindingKey::of(Rule::Hang) };
        (off > most).then(|| Finding::new(key, Outcome::Caution, Facts::Hang(Hang { level, off, most })))
    })
}
