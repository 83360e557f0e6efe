//! A whole figure from what was measured: what is missing is filled in by proportion, for drawings and starting
//! measurements only. No check is ever made against a filled-in figure.

use super::{BodyMeasurement, Posture, Wearer};
use crate::length::Length;
use crate::place::Level;

/// Height of an adult nobody measured: 168 cm (drawing value, between the usual means of women and men).
const ADULT: f64 = 168.0;

/// A place on the body with a height above the floor.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[expect(missing_docs, reason = "each is what its name says")]
pub enum Landmark {
    Crown,
    Chin,
    BackNeck,
    FrontNeck,
    ShoulderTip,
    Armpit,
    Bust,
    UnderBust,
    Waist,
    Abdomen,
    Hip,
    Crotch,
    Knee,
    Calf,
    Ankle,
}

/// A wearer with every measurement: taken, or by proportion.
#[derive(Clone, Debug)]
pub struct Proportions<'a> {
    wearer: &'a Wearer,
    /// What was taken, by measurement: a drawing asks for each many times.
    taken: [Option<Length>; BodyMeasurement::ALL.len()],
    height: f64,
    /// How much stouter or slimmer than the usual shares the measured girths are.
    girth_scale: f64,
}

impl<'a> Proportions<'a> {
    /// The figure of `wearer`.
    pub fn of(wearer: &'a Wearer) -> Self {
        use BodyMeasurement as B;
        let mut taken = [None; B::ALL.len()];
        B::ALL.iter().for_each(|what| taken[*what as usize] = wearer.get(*what));
        let cm = |what: B| taken[what as usize].map(Length::cm);
        let lengths = [B::OutsideLeg, B::InsideLeg, B::BackNeckToWaist, B::ArmLength];
        let by_length = lengths.iter().find_map(|what| Some(cm(*what)? / what.facts().share));
        let height = cm(B::Height).or(by_length).unwrap_or(ADULT);
        let girths = [B::BustGirth, B::WaistGirth, B::HipGirth, B::ThighGirth, B::UpperArmGirth];
        let scales: Vec<f64> =
            girths.iter().filter_map(|what| Some(cm(*what)? / (what.facts().share * height))).collect();
        let girth_scale =
            if scales.is_empty() { 1.0 } else { scales.iter().sum::<f64>() / scales.len() as f64 };
        Self { wearer, taken, height, girth_scale }
    }

    /// A measurement in cm: as taken, or by proportion.
    pub fn cm(&self, what: BodyMeasurement) -> f64 {
        self.taken(what).map_or_else(|| self.filled_in(what), Length::cm)
    }

    /// A measurement in cm of one side, left first.
    pub fn cm_of_side(&self, what: BodyMeasurement, left: bool) -> f64 {
        let taken = self.wearer.newest(what);
        let side = taken.and_then(|t| if left { t.left } else { t.right });
        side.map_or_else(|| self.cm(what), |m| m.length.cm())
    }

    /// True where it stands in for a measurement nobody took.
    pub fn is_filled_in(&self, what: BodyMeasurement) -> bool {
        self.taken(what).is_none()
    }

    const fn taken(&self, what: BodyMeasurement) -> Option<Length> {
        self.taken[what as usize]
    }

    fn filled_in(&self, what: BodyMeasurement) -> f64 {
        use BodyMeasurement as B;
        let by_share = what.facts().share * self.height;
        // A stouter body has wider limbs; bones, hands and heads change little (drawing value: a third of it).
        let scale = match what {
            B::UnderBustGirth | B::BustGirth | B::WaistGirth | B::HipGirth | B::HipGirthSeated => {
                self.girth_scale
            }
            B::ThighGirth | B::UpperArmGirth | B::UpperArmGirthFlexed => self.girth_scale,
            B::NeckGirth
            | B::ShoulderGirth
            | B::AcrossBackWidth
            | B::AcrossBackReaching
            | B::KneeGirth
            | B::CalfGirth
            | B::ElbowGirth => 1.0 + (self.girth_scale - 1.0) / 2.0,
            B::AnkleGirth | B::HeelGirth | B::WristGirth | B::HandGirth | B::HeadGirth => {
                1.0 + (self.girth_scale - 1.0) / 3.0
            }
            // A short waist is about 2 cm shorter on an adult (drawing value).
            B::BackNeckToWaist if self.wearer.stands(Posture::ShortWaist) => 1.0 - 0.05,
            B::Height
            | B::ShoulderLength
            | B::BackNeckToWaist
            | B::WaistToHip
            | B::BodyRise
            | B::InsideLeg
            | B::OutsideLeg
            | B::ArmLength => 1.0,
        };
        by_share * scale
    }

    /// Height of a landmark above the floor, in cm.
    pub fn up(&self, landmark: Landmark) -> f64 {
        use BodyMeasurement as B;
        let h = self.height;
        let back_neck = 0.858 * h;
        let waist = match self.taken(B::OutsideLeg) {
            Some(outside) if self.is_filled_in(B::BackNeckToWaist) => outside.cm(),
            _ => back_neck - self.cm(B::BackNeckToWaist),
        };
        let hip = waist - self.cm(B::WaistToHip);
        // A body whose parts were measured apart may contradict itself; the drawing keeps them in order.
        let crotch = self.cm(B::InsideLeg).min(hip - 0.02 * h);
        match landmark {
            Landmark::Crown => h,
            Landmark::Chin => 0.878 * h,
            Landmark::BackNeck => back_neck,
            Landmark::FrontNeck => 0.832 * h,
            Landmark::ShoulderTip => 0.824 * h,
            Landmark::Armpit => 0.752 * h,
            Landmark::Bust => 0.722 * h,
            Landmark::UnderBust => (0.686 * h).max(waist + 0.02 * h),
            Landmark::Waist => waist,
            Landmark::Abdomen => waist - 0.45 * (waist - hip),
            Landmark::Hip => hip,
            Landmark::Crotch => crotch,
            Landmark::Knee => 0.595 * crotch,
            Landmark::Calf => 0.43 * crotch,
            Landmark::Ankle => 0.1 * crotch,
        }
    }

    /// Height of a garment's level above the floor, where the body has it.
    pub fn up_at(&self, level: Level) -> Option<f64> {
        Some(self.up(match level {
            Level::Neck => Landmark::BackNeck,
            Level::Shoulder => Landmark::ShoulderTip,
            Level::Bust => Landmark::Bust,
            Level::UnderBust => Landmark::UnderBust,
            Level::Waist => Landmark::Waist,
            Level::Hip => Landmark::Hip,
            // The fullest part of the thigh lies a hand's breadth under the crotch.
            Level::Thigh => return Some(self.up(Landmark::Crotch) - 0.018 * self.height),
            Level::Knee => Landmark::Knee,
            Level::Calf => Landmark::Calf,
            Level::Ankle => Landmark::Ankle,
            Level::Hem | Level::UpperArm | Level::Elbow | Level::Wrist | Level::SleeveHem => return None,
        }))
    }

    /// Height of the body, in cm.
    pub const fn height(&self) -> f64 {
        self.height
    }

    /// The wearer it is of.
    pub const fn wearer(&self) -> &'a Wearer {
        self.wearer
    }
}
