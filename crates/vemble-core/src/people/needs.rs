//! Which measurements matter, and what each would unlock: nothing is asked for that nothing needs.

use crate::body::BodyMeasurement;
use crate::garment::{Garment, moving_adds};
use crate::length::{Length, Tape};
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
        // A height is the wearer's, whatever they wear.
        let is_of_a_garment = what != BodyMeasurement::Height;
        unlocks.extend(by_use.into_iter().map(|(use_, names)| {
            if is_of_a_garment { format!("{use_} ({})", names.join(", ")) } else { use_ }
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
        let some_girth = Length::from_mm(1000);
        if garment.ease_wanted(level, some_girth, Tape::default()).is_some() {
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
        B::HipGirthSeated => (has(Level::Hip) && template.sits()).then_some("sitting, with your own figure"),
        B::AcrossBackWidth => shoulders.then_some("width across the back"),
        B::AcrossBackReaching => (shoulders && sleeves).then_some("reaching forward"),
        B::UpperArmGirthFlexed => sleeves.then_some("bending the elbow, with your own figure"),
        B::HandGirth => sleeves.then_some("a hand through the sleeve"),
        B::HeelGirth => legs.then_some("a foot through the leg"),
        B::HeadGirth => (shoulders && garment.is_pulled_on()).then_some("a head through the neck"),
        B::ShoulderGirth => (shoulders && garment.is_pulled_on()).then_some("getting in from above"),
        B::ArmLength => sleeves.then_some("where the sleeve ends on the arm"),
        B::BackNeckToWaist => (shoulders && has(Level::Waist)).then_some("where the waist sits"),
        B::OutsideLeg => (has(Level::Waist) && !shoulders).then_some("where the hem falls"),
        B::InsideLeg | B::BodyRise => legs.then_some("depth of the crotch"),
        B::Height => Some("a figure of the right size on the stand"),
        B::NeckGirth
        | B::ShoulderLength
        | B::BustGirth
        | B::UnderBustGirth
        | B::WaistGirth
        | B::WaistToHip
        | B::HipGirth
        | B::ThighGirth
        | B::KneeGirth
        | B::CalfGirth
        | B::AnkleGirth
        | B::UpperArmGirth
        | B::ElbowGirth
        | B::WristGirth => None,
    };
    uses.extend(more.map(String::from));
    uses.into_iter()
}
