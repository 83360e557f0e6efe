//! Which measurements matter, and what each would unlock: nothing is asked for that nothing needs.

use crate::body::BodyMeasurement;
use crate::garment::{Garment, ease_band, moving_adds};
use crate::length::Length;
use crate::place::Level;
use serde::Serialize;
use utoipa::ToSchema;

/// A measurement that some garment of a wearer could use.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Asked {
    /// What to measure.
    pub what: BodyMeasurement,
    /// What it would unlock, in words: "ease at the hip (corduroys)".
    pub unlocks: Vec<String>,
}

/// What the garments of a wearer have use for, in body order; measurements that were taken are listed too.
pub fn asked(garments: &[&Garment]) -> Vec<Asked> {
    let asked = |what: BodyMeasurement| {
        let mut unlocks: Vec<String> = Vec::new();
        let mut by_use: Vec<(String, Vec<&str>)> = Vec::new();
        for garment in garments {
            for use_ in uses(what, garment) {
                match by_use.iter_mut().find(|u| u.0 == use_) {
                    Some((_, names)) => names.push(&garment.name),
                    None => by_use.push((use_, vec![&garment.name])),
                }
            }
        }
        unlocks.extend(by_use.into_iter().map(|(use_, names)| match what {
            // The figure is the wearer's, whatever they wear.
            BodyMeasurement::Height => use_,
            BodyMeasurement::HeadGirth
            | BodyMeasurement::NeckGirth
            | BodyMeasurement::ShoulderLength
            | BodyMeasurement::ShoulderGirth
            | BodyMeasurement::AcrossBackWidth
            | BodyMeasurement::AcrossBackReaching
            | BodyMeasurement::BustGirth
            | BodyMeasurement::UnderBustGirth
            | BodyMeasurement::BackNeckToWaist
            | BodyMeasurement::WaistGirth
            | BodyMeasurement::WaistToHip
            | BodyMeasurement::HipGirth
            | BodyMeasurement::HipGirthSeated
            | BodyMeasurement::BodyRise
            | BodyMeasurement::ThighGirth
            | BodyMeasurement::KneeGirth
            | BodyMeasurement::CalfGirth
            | BodyMeasurement::AnkleGirth
            | BodyMeasurement::HeelGirth
            | BodyMeasurement::InsideLeg
            | BodyMeasurement::OutsideLeg
            | BodyMeasurement::ArmLength
            | BodyMeasurement::UpperArmGirth
            | BodyMeasurement::UpperArmGirthFlexed
            | BodyMeasurement::WristGirth
            | BodyMeasurement::HandGirth => format!("{use_} ({})", names.join(", ")),
        }));
        (!unlocks.is_empty()).then_some(Asked { what, unlocks })
    };
    BodyMeasurement::ALL.iter().copied().filter_map(asked).collect()
}

/// What one garment does with a measurement.
fn uses(what: BodyMeasurement, garment: &Garment) -> impl Iterator<Item = String> {
    use BodyMeasurement as B;
    let has = |level: Level| garment.levels.iter().any(|l| l.level == level);
    let template = garment.kind.template();
    let mut uses: Vec<String> = Vec::new();
    for level in Level::ALL.iter().copied().filter(|l| has(*l) && garment.body_at(*l) == Some(what)) {
        let cloth = &garment.cloth;
        let some_girth = Length::from_mm(1000);
        if ease_band(level, template.ease, cloth.structure, cloth.stretch_percent, some_girth).is_some() {
            uses.push(format!("ease at the {}", level.name()));
        }
        if moving_adds(level).is_some() && template.sits() {
            uses.push(format!("sitting, at the {}", level.name()));
        }
    }
    let sleeves = garment.sleeve_length.is_some();
    let legs = garment.has_legs();
    let shoulders = has(Level::Shoulder);
    let more = match what {
        B::HipGirthSeated if has(Level::Hip) && template.sits() => "sitting, with your own figure",
        B::AcrossBackWidth if shoulders => "width across the back",
        B::AcrossBackReaching if shoulders && sleeves => "reaching forward",
        B::UpperArmGirthFlexed if sleeves => "bending the elbow, with your own figure",
        B::HandGirth if sleeves => "a hand through the sleeve",
        B::HeelGirth if legs => "a foot through the leg",
        B::HeadGirth if shoulders && garment.is_pulled_on() => "a head through the neck",
        B::ShoulderGirth if shoulders && garment.is_pulled_on() => "getting in from above",
        B::ArmLength if sleeves => "where the sleeve ends on the arm",
        B::BackNeckToWaist if shoulders && has(Level::Waist) => "where the waist sits",
        B::OutsideLeg if has(Level::Waist) && !shoulders => "where the hem falls",
        B::InsideLeg | B::BodyRise if legs => "depth of the crotch",
        B::Height => "a figure of the right size on the stand",
        B::HeadGirth
        | B::NeckGirth
        | B::ShoulderLength
        | B::ShoulderGirth
        | B::AcrossBackWidth
        | B::AcrossBackReaching
        | B::BustGirth
        | B::UnderBustGirth
        | B::BackNeckToWaist
        | B::WaistGirth
        | B::WaistToHip
        | B::HipGirth
        | B::HipGirthSeated
        | B::BodyRise
        | B::ThighGirth
        | B::KneeGirth
        | B::CalfGirth
        | B::AnkleGirth
        | B::HeelGirth
        | B::InsideLeg
        | B::OutsideLeg
        | B::ArmLength
        | B::UpperArmGirth
        | B::UpperArmGirthFlexed
        | B::WristGirth
        | B::HandGirth => return uses.into_iter(),
    };
    uses.push(more.into());
    uses.into_iter()
}
