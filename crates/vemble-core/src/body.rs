//! The wearer: body measurements in the terms of ISO 8559-1, and how much ease each level wants.

use crate::garment::{Level, Structure};
use crate::length::{Length, Measure};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// Measurements of the body, named as in ISO 8559-1.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BodyMeasurement {
    /// Around the natural waist.
    WaistGirth,
    /// Around the fullest part of the seat.
    HipGirth,
    /// The same, seated: a moving value.
    HipGirthSeated,
    /// Around the fullest part of the thigh.
    ThighGirth,
    /// Around the knee.
    KneeGirth,
    /// Around the fullest part of the calf.
    CalfGirth,
    /// Around the narrowest part above the foot.
    AnkleGirth,
    /// Around heel and instep: what a trouser leg has to let through.
    HeelGirth,
    /// Crotch to floor.
    InsideLeg,
    /// Waist to floor at the side.
    OutsideLeg,
}

impl BodyMeasurement {
    /// Its name in a sentence.
    pub const fn name(self) -> &'static str {
        match self {
            Self::WaistGirth => "waist girth",
            Self::HipGirth => "hip girth",
            Self::HipGirthSeated => "hip girth seated",
            Self::ThighGirth => "thigh girth",
            Self::KneeGirth => "knee girth",
            Self::CalfGirth => "calf girth",
            Self::AnkleGirth => "ankle girth",
            Self::HeelGirth => "heel girth",
            Self::InsideLeg => "inside leg",
            Self::OutsideLeg => "outside leg",
        }
    }
}

/// Somebody the garment is fitted to.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Wearer {
    /// What they are called.
    pub name: String,
    /// What has been measured, by its ISO 8559-1 term.
    #[serde(default)]
    pub measurements: BTreeMap<BodyMeasurement, Measure>,
    /// What explains a difference between the sides, in the sewist's words.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub notes: Vec<String>,
}

impl Wearer {
    /// The measurement, if it was taken.
    pub fn get(&self, what: BodyMeasurement) -> Option<Length> {
        self.measurements.get(&what).map(|m| m.length)
    }
}

/// Ease that a level wants on the whole girth: least to move in, and the usual range.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct EaseBand {
    /// Less than this binds.
    pub least: Length,
    /// What most garments of this kind have, from.
    pub usual_from: Length,
    /// What most garments of this kind have, to.
    pub usual_to: Length,
    /// From here on it is a loose garment.
    pub loose: Length,
}

/// Ease in woven trousers without stretch, whole girth in mm: least, usual from, to, loose.
///
/// Teaching values of fitting practice: a waistband that is closed all day wants little, a hip must sit, a
/// thigh and a knee must bend. There is no figure for calf and hem: openings decide there.
const WOVEN_TROUSERS: [(Level, [i64; 4]); 4] = [
    (Level::Waist, [10, 10, 30, 40]),
    (Level::Hip, [30, 50, 80, 100]),
    (Level::Thigh, [30, 50, 80, 120]),
    (Level::Knee, [40, 60, 120, 150]),
];

/// The ease wanted at `level` over `body`, or nothing where no figure is taught.
///
/// Elastane wovens halve the least. Knits take a negative least: −(stretch in use) × body girth, with 0 % in use
/// for stable knits (under 15 % stretch), 3 % for 15–35 %, 7 % for 35–60 %, 10 % above.
pub fn ease_band(level: Level, structure: Structure, stretch_percent: u8, body: Length) -> Option<EaseBand> {
    let (_, mm) = WOVEN_TROUSERS.iter().find(|(l, _)| *l == level)?;
    let [least, usual_from, usual_to, loose] = mm.map(Length::from_mm);
    let least = match (structure, stretch_percent) {
        (Structure::Woven, 0) => least,
        (Structure::Woven, _) => least.fraction(1, 2),
        (Structure::Knit, 0..15) => Length::ZERO,
        (Structure::Knit, 15..35) => -body.fraction(3, 100),
        (Structure::Knit, 35..60) => -body.fraction(7, 100),
        (Structure::Knit, _) => -body.fraction(10, 100),
    };
    Some(EaseBand { least, usual_from, usual_to, loose })
}

/// What sitting adds to a girth where the wearer's own seated measurement is not known.
///
/// Teaching values: about 4 cm at the hip and 2 cm at the thigh.
pub fn sitting_adds(level: Level) -> Option<Length> {
    match level {
        Level::Hip => Some(Length::from_mm(40)),
        Level::Thigh => Some(Length::from_mm(20)),
        _ => None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_stretchy_cloth_needs_less_ease() {
        let thigh = Length::from_mm(600);
        let least = |structure, stretch| ease_band(Level::Thigh, structure, stretch, thigh).unwrap().least;
        assert_eq!(least(Structure::Woven, 0), Length::from_mm(30));
        assert_eq!(least(Structure::Woven, 4), Length::from_mm(15));
        assert_eq!(least(Structure::Knit, 40), Length::from_mm(-42));
        assert_eq!(ease_band(Level::Hem, Structure::Woven, 0, thigh), None);
    }
}
