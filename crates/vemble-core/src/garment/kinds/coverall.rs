//! A coverall: trousers and top in one; jumpsuits and boiler suits.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "coverall",
    says: "Top and trousers in one: jumpsuits, boiler suits, dungarees with sleeves.",
    ease: EaseClass::Dress,
    legs: true,
    cloth: "cotton twill",
    hem: HemAt::Floor(30),
    levels: &[
        (Level::Neck, Start::Over(B::NeckGirth, 30)),
        (Level::Shoulder, Start::AcrossShoulders(20)),
        (Level::Bust, Start::Over(B::BustGirth, 120)),
        (Level::Waist, Start::Over(B::WaistGirth, 150)),
        (Level::Hip, Start::Over(B::HipGirth, 110)),
        (Level::Thigh, Start::Over(B::ThighGirth, 120)),
        (Level::Knee, Start::Over(B::KneeGirth, 110)),
        (Level::Hem, Start::Over(B::HeelGirth, 100)),
        (Level::UpperArm, Start::Over(B::UpperArmGirth, 80)),
        (Level::Elbow, Start::Over(B::UpperArmGirth, 40)),
        (Level::SleeveHem, Start::Over(B::WristGirth, 70)),
    ],
    seams: &[
        seam(Seam::Outseam, Level::Hem, Level::Bust, 12, Finish::FlatFelled),
        seam(Seam::Inseam, Level::Hem, Level::Thigh, 12, Finish::FlatFelled),
        seam(Seam::SeatSeam, Level::Thigh, Level::Waist, 12, Finish::FlatFelled),
        seam(Seam::FrontRise, Level::Thigh, Level::Waist, 12, Finish::FlatFelled),
        seam(Seam::WaistSeam, Level::Waist, Level::Waist, 12, Finish::SergedTogether),
        seam(Seam::ShoulderSeam, Level::Neck, Level::Shoulder, 12, Finish::FlatFelled),
        seam(Seam::ArmholeSeam, Level::Bust, Level::Shoulder, 12, Finish::FlatFelled),
        seam(Seam::SleeveSeam, Level::SleeveHem, Level::UpperArm, 12, Finish::FlatFelled),
    ],
    may_have: super::trousers::PANELS,
    darts: &[],
    hems: &[
        (HemEdge::Leg, HemTurn::Double, StitchedBy::Machine),
        (HemEdge::Sleeve, HemTurn::Band, StitchedBy::Machine),
    ],
    closures: &[(Closure::Zip, Opening::CentreFront, 1)],
    pockets: &[Pocket::Slant, Pocket::Breast],
    waistband_mm: None,
    loops: 0,
    neckline: Neckline::High,
    collar: Collar::Shirt,
    sleeve: Some(SleeveTo::Wrist(10)),
    topstitched: &[Seam::WaistSeam],
};
