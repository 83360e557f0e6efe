//! A knit top: pulled over the head, overcast seams, a knitted band at the neck.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "knit top",
    says: "Jersey, pulled over the head: tees, vests, jumpers cut from cloth.",
    ease: EaseClass::Dress,
    legs: false,
    cloth: "jersey",
    hem: HemAt::Landmark(Landmark::Hip, 30),
    levels: &[
        (Level::Neck, Start::Over(B::NeckGirth, 120)),
        (Level::Shoulder, Start::AcrossShoulders(0)),
        (Level::Bust, Start::Over(B::BustGirth, 20)),
        (Level::Waist, Start::Over(B::WaistGirth, 80)),
        (Level::Hem, Start::Over(B::HipGirth, 0)),
        (Level::UpperArm, Start::Over(B::UpperArmGirth, 40)),
        (Level::SleeveHem, Start::Over(B::UpperArmGirth, 30)),
    ],
    seams: &[
        seam(Seam::SideSeam, Level::Hem, Level::Bust, 6, Finish::SergedTogether),
        seam(Seam::ShoulderSeam, Level::Neck, Level::Shoulder, 6, Finish::SergedTogether),
        seam(Seam::ArmholeSeam, Level::Bust, Level::Shoulder, 6, Finish::SergedTogether),
        seam(Seam::SleeveSeam, Level::SleeveHem, Level::UpperArm, 6, Finish::SergedTogether),
        seam(Seam::NeckSeam, Level::Neck, Level::Neck, 6, Finish::SergedTogether),
    ],
    may_have: super::shirt::UPPER_PANELS,
    darts: &[],
    hems: &[
        (HemEdge::Body, HemTurn::Coverstitched, StitchedBy::Machine),
        (HemEdge::Sleeve, HemTurn::Coverstitched, StitchedBy::Machine),
    ],
    closures: &[],
    pockets: &[],
    waistband_mm: None,
    loops: 0,
    neckline: Neckline::Round,
    collar: Collar::Band,
    sleeve: Some(SleeveTo::UpperArm),
    topstitched: &[],
};
