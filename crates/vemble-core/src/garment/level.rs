//! Levels: where girths are compared.

use crate::body::BodyMeasurement;
use crate::length::{Length, Measure};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Where girths are compared: the body from the top down, then the sleeve from the top down.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Level {
    /// The edge or seam at the neck.
    Neck,
    /// Across from shoulder tip to shoulder tip.
    Shoulder,
    /// The fullest part of the bust or chest.
    Bust,
    /// Right below the bust.
    UnderBust,
    /// The natural waist.
    Waist,
    /// The fullest part of the seat.
    Hip,
    /// The fullest part of the thigh, just below the crotch.
    Thigh,
    /// The knee.
    Knee,
    /// The fullest part of the calf.
    Calf,
    /// The narrowest part above the foot.
    Ankle,
    /// The finished lower edge of the body or of each leg.
    Hem,
    /// The fullest part of the upper arm.
    UpperArm,
    /// The elbow.
    Elbow,
    /// The wrist.
    Wrist,
    /// The finished edge of the sleeve.
    SleeveHem,
}

impl Level {
    /// All of them, from the top down, the sleeve last.
    pub const ALL: [Self; 15] = [
        Self::Neck,
        Self::Shoulder,
        Self::Bust,
        Self::UnderBust,
        Self::Waist,
        Self::Hip,
        Self::Thigh,
        Self::Knee,
        Self::Calf,
        Self::Ankle,
        Self::Hem,
        Self::UpperArm,
        Self::Elbow,
        Self::Wrist,
        Self::SleeveHem,
    ];

    /// Its name in a sentence.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Neck => "neck",
            Self::Shoulder => "shoulder",
            Self::Bust => "bust",
            Self::UnderBust => "under-bust",
            Self::Waist => "waist",
            Self::Hip => "hip",
            Self::Thigh => "thigh",
            Self::Knee => "knee",
            Self::Calf => "calf",
            Self::Ankle => "ankle",
            Self::Hem => "hem",
            Self::UpperArm => "upper arm",
            Self::Elbow => "elbow",
            Self::Wrist => "wrist",
            Self::SleeveHem => "sleeve hem",
        }
    }

    /// True on the sleeve, whose stations are measured up from the sleeve's own hem.
    pub const fn is_of_sleeve(self) -> bool {
        matches!(self, Self::UpperArm | Self::Elbow | Self::Wrist | Self::SleeveHem)
    }

    /// True below the crotch.
    pub const fn is_below_crotch(self) -> bool {
        matches!(self, Self::Thigh | Self::Knee | Self::Calf | Self::Ankle | Self::Hem)
    }
}

/// How wide the garment is at a level, in one of the two ways it is measured.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Width {
    /// The width of the garment lying flat: half its girth.
    LaidFlat(Measure),
    /// All the way round.
    Girth(Measure),
}

impl Width {
    /// All the way round.
    pub fn girth(self) -> Length {
        match self {
            Self::LaidFlat(m) => m.length * 2,
            Self::Girth(m) => m.length,
        }
    }

    /// As it was written.
    pub const fn measure(self) -> Measure {
        match self {
            Self::LaidFlat(m) | Self::Girth(m) => m,
        }
    }

    /// The same figure, measured the other way.
    pub const fn otherwise(self) -> Self {
        match self {
            Self::LaidFlat(m) => Self::Girth(m),
            Self::Girth(m) => Self::LaidFlat(m),
        }
    }
}

/// A measured level of the garment.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GarmentLevel {
    /// Which level.
    pub level: Level,
    /// How far up from the hem, along the side seam or outseam and straight up from there; on a sleeve, up from its hem.
    pub station: Measure,
    /// How wide it is there.
    pub width: Width,
    /// Nobody measured it: it starts from the wearer or from proportions.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub assumed: bool,
}

/// The body girth that a level of a garment goes round; `legs` where the garment has them.
pub(super) const fn body_at(level: Level, legs: bool) -> Option<BodyMeasurement> {
    Some(match level {
        Level::Bust => BodyMeasurement::BustGirth,
        Level::UnderBust => BodyMeasurement::UnderBustGirth,
        Level::Waist => BodyMeasurement::WaistGirth,
        Level::Hip => BodyMeasurement::HipGirth,
        Level::Thigh if legs => BodyMeasurement::ThighGirth,
        Level::Knee if legs => BodyMeasurement::KneeGirth,
        Level::Calf if legs => BodyMeasurement::CalfGirth,
        Level::Ankle if legs => BodyMeasurement::AnkleGirth,
        Level::UpperArm => BodyMeasurement::UpperArmGirth,
        Level::Wrist => BodyMeasurement::WristGirth,
        _ => return None,
    })
}
