//! Body measurements, named as in ISO 8559-1, with how each is taken.

use crate::place::Level;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};
use utoipa::ToSchema;

/// Measurements of the body, in the order in which a tape goes down it.
#[derive(
    Clone,
    Copy,
    Debug,
    PartialEq,
    Eq,
    PartialOrd,
    Ord,
    Hash,
    Serialize,
    Deserialize,
    ToSchema,
    VariantArray,
    IntoStaticStr,
    EnumString,
)]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
#[expect(missing_docs, reason = "each has its name and how it is taken in the table below")]
pub enum BodyMeasurement {
    Height,
    HeadGirth,
    NeckGirth,
    ShoulderLength,
    ShoulderGirth,
    AcrossBackWidth,
    AcrossBackReaching,
    BustGirth,
    UnderBustGirth,
    BackNeckToWaist,
    WaistGirth,
    WaistToHip,
    HipGirth,
    HipGirthSeated,
    BodyRise,
    ThighGirth,
    KneeGirth,
    CalfGirth,
    AnkleGirth,
    HeelGirth,
    InsideLeg,
    OutsideLeg,
    ArmLength,
    UpperArmGirth,
    UpperArmGirthFlexed,
    ElbowGirth,
    WristGirth,
    HandGirth,
}

/// What is known of a measurement before anybody takes it.
#[derive(Debug)]
pub struct Facts {
    /// Its term.
    pub name: &'static str,
    /// How to take it, in one line.
    pub how: &'static str,
    /// It may differ between left and right.
    pub sided: bool,
    /// It is taken in movement.
    pub moving: bool,
    /// Its usual share of the height: what stands in for it, in drawings and starting measurements only, while it is
    /// not taken. Teaching values: rounded from the eight-heads figure that drapers draw.
    pub share: f64,
    /// Least and greatest share of the height that any body has: beyond it there is a slip of the pen.
    pub possible: (f64, f64),
    /// Where the tape lies, for the small picture.
    pub tape: TapePlace,
}

/// Where the tape lies on the body.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum TapePlace {
    /// Round the trunk, a leg or the neck at a level.
    Round(Level),
    /// Round the head, above the ears.
    RoundHead,
    /// Round both shoulders and the arms.
    RoundShoulders,
    /// Round the hand, thumb laid in.
    RoundHand,
    /// Round heel and instep.
    RoundHeel,
    /// Crown to floor.
    Upright,
    /// Neck to shoulder tip.
    AlongShoulder,
    /// Arm crease to arm crease, behind.
    AcrossBack,
    /// Straight down at the centre back or the side, from one level to another.
    Down(Level, Level),
    /// Down to the floor from a level.
    ToFloor(Level),
    /// Seat to waist, sitting.
    Rise,
    /// Shoulder tip over the elbow to the wrist.
    AlongArm,
}

const fn facts(
    name: &'static str,
    how: &'static str,
    (sided, moving): (bool, bool),
    share: f64,
    possible: (f64, f64),
    tape: TapePlace,
) -> Facts {
    Facts { name, how, sided, moving, share, possible, tape }
}

const ONCE: (bool, bool) = (false, false);
const SIDED: (bool, bool) = (true, false);
const MOVING: (bool, bool) = (false, true);
const SIDED_MOVING: (bool, bool) = (true, true);

impl BodyMeasurement {
    /// Which part of the body it is a measure of.
    pub const fn limb(self) -> super::Limb {
        use super::Limb;
        match self {
            Self::ShoulderLength | Self::ShoulderGirth | Self::NeckGirth | Self::HeadGirth => Limb::Shoulder,
            Self::ArmLength
            | Self::UpperArmGirth
            | Self::UpperArmGirthFlexed
            | Self::ElbowGirth
            | Self::WristGirth
            | Self::HandGirth => Limb::Arm,
            Self::Height
            | Self::AcrossBackWidth
            | Self::AcrossBackReaching
            | Self::BustGirth
            | Self::UnderBustGirth
            | Self::BackNeckToWaist
            | Self::WaistGirth
            | Self::WaistToHip
            | Self::HipGirth
            | Self::HipGirthSeated
            | Self::BodyRise => Limb::Trunk,
            Self::ThighGirth
            | Self::KneeGirth
            | Self::CalfGirth
            | Self::AnkleGirth
            | Self::HeelGirth
            | Self::InsideLeg
            | Self::OutsideLeg => Limb::Leg,
        }
    }

    /// All of them, from the top of the body down, arms last.
    pub const ALL: &'static [Self] = Self::VARIANTS;

    /// Its word in documents.
    pub fn word(self) -> &'static str {
        self.into()
    }

    /// What is known of it.
    pub const fn facts(self) -> &'static Facts {
        use TapePlace as T;
        macro_rules! row {
            ($($row:tt)*) => {{
                const ROW: Facts = facts($($row)*);
                &ROW
            }};
        }
        match self {
            Self::Height => row!(
                "height",
                "Without shoes, back to a wall, a book level on the head.",
                ONCE,
                1.0,
                (1.0, 1.0),
                T::Upright
            ),
            Self::HeadGirth => row!(
                "head girth",
                "Round the widest part, above the ears.",
                ONCE,
                0.335,
                (0.2, 0.7),
                T::RoundHead
            ),
            Self::NeckGirth => row!(
                "neck girth",
                "Round the base of the neck, where a necklace lies; one finger under the tape.",
                ONCE,
                0.215,
                (0.12, 0.4),
                T::Round(Level::Neck)
            ),
            Self::ShoulderLength => row!(
                "shoulder length",
                "From the side of the neck to the bone at the shoulder tip.",
                SIDED,
                0.074,
                (0.03, 0.15),
                T::AlongShoulder
            ),
            Self::ShoulderGirth => row!(
                "shoulder girth",
                "Round both shoulders and the arms, arms hanging.",
                ONCE,
                0.62,
                (0.35, 1.2),
                T::RoundShoulders
            ),
            Self::AcrossBackWidth => row!(
                "across-back width",
                "Behind, from arm crease to arm crease, halfway down the armhole.",
                ONCE,
                0.205,
                (0.12, 0.4),
                T::AcrossBack
            ),
            Self::AcrossBackReaching => row!(
                "across-back reaching",
                "The same with both arms stretched forward.",
                MOVING,
                0.232,
                (0.13, 0.5),
                T::AcrossBack
            ),
            Self::BustGirth => row!(
                "bust girth",
                "Round the fullest part of the bust or chest, level behind.",
                ONCE,
                0.545,
                (0.3, 1.2),
                T::Round(Level::Bust)
            ),
            Self::UnderBustGirth => row!(
                "under-bust girth",
                "Round the ribs right below the bust.",
                ONCE,
                0.47,
                (0.25, 1.1),
                T::Round(Level::UnderBust)
            ),
            Self::BackNeckToWaist => row!(
                "back neck to waist",
                "Down the back, from the bone at the neck to a string tied round the waist.",
                ONCE,
                0.245,
                (0.14, 0.4),
                T::Down(Level::Neck, Level::Waist)
            ),
            Self::WaistGirth => row!(
                "waist girth",
                "Round the natural waist, where the body bends sideways.",
                ONCE,
                0.445,
                (0.22, 0.999),
                T::Round(Level::Waist)
            ),
            Self::WaistToHip => row!(
                "waist to hip",
                "Down the side, from the waist to the fullest part of the seat.",
                ONCE,
                0.12,
                (0.05, 0.25),
                T::Down(Level::Waist, Level::Hip)
            ),
            Self::HipGirth => row!(
                "hip girth",
                "Round the fullest part of the seat, feet together.",
                ONCE,
                0.58,
                (0.32, 1.2),
                T::Round(Level::Hip)
            ),
            Self::HipGirthSeated => row!(
                "hip girth seated",
                "The same place, sitting on a hard chair.",
                MOVING,
                0.61,
                (0.32, 1.3),
                T::Round(Level::Hip)
            ),
            Self::BodyRise => row!(
                "body rise",
                "Sitting on a hard chair: down the side from the waist to the chair.",
                ONCE,
                0.16,
                (0.08, 0.3),
                T::Rise
            ),
            Self::ThighGirth => row!(
                "thigh girth",
                "Round the fullest part, close under the crotch.",
                SIDED,
                0.335,
                (0.17, 0.65),
                T::Round(Level::Thigh)
            ),
            Self::KneeGirth => row!(
                "knee girth",
                "Round the middle of the kneecap, leg straight.",
                SIDED,
                0.225,
                (0.12, 0.45),
                T::Round(Level::Knee)
            ),
            Self::CalfGirth => row!(
                "calf girth",
                "Round the fullest part of the calf.",
                SIDED,
                0.217,
                (0.11, 0.45),
                T::Round(Level::Calf)
            ),
            Self::AnkleGirth => row!(
                "ankle girth",
                "Round the narrowest part above the foot.",
                SIDED,
                0.14,
                (0.08, 0.3),
                T::Round(Level::Ankle)
            ),
            Self::HeelGirth => row!(
                "heel girth",
                "Round heel and instep, foot stretched: what a trouser leg lets through.",
                SIDED,
                0.195,
                (0.1, 0.4),
                T::RoundHeel
            ),
            Self::InsideLeg => row!(
                "inside leg",
                "From the crotch down the inside to the floor.",
                SIDED,
                0.465,
                (0.25, 0.65),
                T::ToFloor(Level::Thigh)
            ),
            Self::OutsideLeg => row!(
                "outside leg",
                "From the waist down the side to the floor.",
                SIDED,
                0.615,
                (0.4, 0.8),
                T::ToFloor(Level::Waist)
            ),
            Self::ArmLength => row!(
                "arm length",
                "From the shoulder tip over the bent elbow to the wrist bone.",
                SIDED,
                0.345,
                (0.2, 0.5),
                T::AlongArm
            ),
            Self::UpperArmGirth => row!(
                "upper-arm girth",
                "Round the fullest part of the upper arm, arm hanging.",
                SIDED,
                0.17,
                (0.08, 0.4),
                T::Round(Level::UpperArm)
            ),
            Self::UpperArmGirthFlexed => row!(
                "upper-arm girth flexed",
                "The same place, elbow bent and muscle hard.",
                SIDED_MOVING,
                0.183,
                (0.08, 0.45),
                T::Round(Level::UpperArm)
            ),
            Self::ElbowGirth => row!(
                "elbow girth",
                "Round the elbow, arm bent.",
                SIDED,
                0.16,
                (0.08, 0.45),
                T::Round(Level::Elbow)
            ),
            Self::WristGirth => row!(
                "wrist girth",
                "Round the wrist, over the bone.",
                SIDED,
                0.097,
                (0.05, 0.2),
                T::Round(Level::Wrist)
            ),
            Self::HandGirth => row!(
                "hand girth",
                "Round the knuckles with the thumb laid in: what a sleeve lets through.",
                SIDED,
                0.13,
                (0.07, 0.25),
                T::RoundHand
            ),
        }
    }

    /// Its name in a sentence.
    pub const fn name(self) -> &'static str {
        self.facts().name
    }
}
