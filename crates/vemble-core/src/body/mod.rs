//! The wearer: body measurements in the terms of ISO 8559-1, posture, and a whole figure by proportion.

mod measurement;
mod proportion;

pub use measurement::{BodyMeasurement, Facts, TapePlace};
pub use proportion::{Landmark, Proportions};

use crate::choice::choice;
use crate::length::{Length, Measure};
use crate::place::{EaseClass, Level, Structure};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One measurement as it was taken on one day: one figure, or left and right where they differ.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Taken {
    /// What was measured.
    pub what: BodyMeasurement,
    /// The day; entries without one count as older than all with one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<String>, format = Date)]
    pub date: Option<jiff::civil::Date>,
    /// The figure, where one stands for both sides.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub value: Option<Measure>,
    /// On the wearer's left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub left: Option<Measure>,
    /// On the wearer's right.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right: Option<Measure>,
}

impl Taken {
    /// The figure that garments are fitted to: the larger side where they differ, since both must go in. Nothing where none is known.
    pub fn figure(&self) -> Option<Measure> {
        let sides = [self.value, self.left, self.right].into_iter().flatten();
        sides.max_by_key(|m| m.length)
    }

    /// How much left and right differ. Nothing where not both are known.
    pub fn apart(&self) -> Option<Length> {
        Some((self.left?.length - self.right?.length).abs())
    }
}

choice! {
    /// What stays true of a wearer's posture, whatever they wear.
    Posture {
        LeftShoulderLower => "left shoulder lower",
        RightShoulderLower => "right shoulder lower",
        SwayBack => "sway back",
        ForwardShoulder => "forward shoulder",
        ShortWaist => "short waist",
        FullAbdomen => "full abdomen",
        LeftLegLonger => "left leg longer",
        RightLegLonger => "right leg longer",
    }
}

impl Posture {
    /// What to look for, in one line.
    pub const fn sign(self) -> &'static str {
        match self {
            Self::LeftShoulderLower | Self::RightShoulderLower => {
                "In a mirror one shoulder stands lower; one strap slips."
            }
            Self::SwayBack => "Seen from the side the waist is hollow; cloth pools above it.",
            Self::ForwardShoulder => "Seen from the side the shoulder tip lies before the ear.",
            Self::ShortWaist => "Bought waists sit below the own one.",
            Self::FullAbdomen => {
                "Seen from the side the front below the waist is fuller than the seat is high."
            }
            Self::LeftLegLonger | Self::RightLegLonger => "Hems that were level lie uneven when worn.",
        }
    }

    /// Where it makes left and right differ: a shoulder that stands lower, on the trunk below it too; a leg that is longer, at the hip
    /// that it lifts.
    pub const fn shows_on(self) -> &'static [Limb] {
        match self {
            Self::LeftShoulderLower | Self::RightShoulderLower => &[Limb::Shoulder, Limb::Trunk],
            Self::LeftLegLonger | Self::RightLegLonger => &[Limb::Leg, Limb::Trunk],
            Self::SwayBack | Self::ForwardShoulder | Self::ShortWaist | Self::FullAbdomen => &[],
        }
    }
}

/// A part of the body that has a left and a right.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Limb {
    /// From neck to shoulder tip, and the armhole.
    Shoulder,
    /// The arm and hand.
    Arm,
    /// From the armpit down to the crotch.
    Trunk,
    /// The leg and foot.
    Leg,
}

/// Somebody the garment is fitted to.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Wearer {
    /// What they are called.
    pub name: String,
    /// What has been measured, in any order; the newest of each counts.
    #[serde(default)]
    pub measurements: Vec<Taken>,
    /// Standing notes on posture.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub posture: Vec<Posture>,
    /// Anything else that stays true, in the sewist's words.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub notes: Vec<String>,
    /// How much ease is liked, kept from what was asked for.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub taste: Vec<Taste>,
}

/// Ease that somebody likes at a level, on the whole girth.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Taste {
    /// Where.
    pub level: Level,
    /// In which garments.
    pub class: EaseClass,
    /// In which cloth.
    pub structure: Structure,
    /// How much; less than nought is smaller than the body.
    pub ease: Measure,
}

impl Taste {
    /// Both say something of the same place.
    pub fn is_of(&self, other: &Self) -> bool {
        (self.level, self.class, self.structure) == (other.level, other.class, other.structure)
    }

    /// "Waist, held by a waistband, woven".
    pub fn name(&self) -> String {
        format!("{}, {}, {}", self.level.name(), self.class.name(), self.structure.name())
    }
}

impl Wearer {
    /// The newest entry of a measurement; of two of one day the one written later. Nothing where it was never taken.
    pub fn newest(&self, what: BodyMeasurement) -> Option<&Taken> {
        self.measurements.iter().filter(|t| t.what == what).max_by_key(|t| t.date)
    }

    /// The measurement as garments are fitted to it, if it was taken.
    pub fn get(&self, what: BodyMeasurement) -> Option<Length> {
        Some(self.newest(what)?.figure()?.length)
    }

    /// True with a standing note.
    pub fn stands(&self, posture: Posture) -> bool {
        self.posture.contains(&posture)
    }

    /// What may explain a difference between left and right on a part of the body, in words: what is noted or measured there, and
    /// nothing else. Nothing when nothing does.
    pub fn explains_a_difference(&self, on: Limb) -> Option<String> {
        let posture = self.posture.iter().filter(|p| p.shows_on().contains(&on)).map(|p| p.name().to_owned());
        let there = BodyMeasurement::ALL.iter().filter(|what| what.limb() == on);
        let sides = there.filter_map(|what| {
            let apart = self.newest(*what)?.apart()?;
            (apart > Length::ZERO).then(|| format!("{} differs between left and right", what.name()))
        });
        let reasons: Vec<String> = posture.chain(sides).collect();
        (!reasons.is_empty()).then(|| reasons.join(", "))
    }
}
