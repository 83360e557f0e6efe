//! A dress without a waist seam: shift, princess, panelled.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "dress without a waist seam",
    says: "Shift, princess or panelled: shaped by long seams and darts.",
    ease: EaseClass::Dress,
    legs: false,
    cloth: "viscose crepe",
    hem: HemAt::Landmark(Landmark::Knee, 0),
    levels: &[
        (Level::Neck, Start::Over(B::NeckGirth, 140)),
        (Level::Shoulder, Start::AcrossShoulders(0)),
        (Level::Bust, Start::UsualEase),
        (Level::Waist, Start::Over(B::WaistGirth, 90)),
        (Level::Hip, Start::UsualEase),
        (Level::Hem, Start::Over(B::HipGirth, 200)),
        (Level::UpperArm, Start::UsualEase),
        (Level::SleeveHem, Start::Over(B::UpperArmGirth, 45)),
    ],
    seams: &[
        seam(Seam::SideSeam, Level::Hem, Level::Bust, 15, Finish::SergedOpen),
        seam(Seam::CentreBack, Level::Hem, Level::Neck, 20, Finish::SergedOpen),
        seam(Seam::PrincessFront, Level::Hem, Level::Shoulder, 15, Finish::SergedOpen),
        seam(Seam::PrincessBack, Level::Hem, Level::Shoulder, 15, Finish::SergedOpen),
        seam(Seam::ShoulderSeam, Level::Neck, Level::Shoulder, 15, Finish::SergedOpen),
        seam(Seam::ArmholeSeam, Level::Bust, Level::Shoulder, 12, Finish::SergedTogether),
        seam(Seam::SleeveSeam, Level::SleeveHem, Level::UpperArm, 15, Finish::SergedOpen),
    ],
    may_have: super::shirt::UPPER_PANELS,
    darts: &[],
    hems: &[
        (HemEdge::Body, HemTurn::Deep, StitchedBy::Hand),
        (HemEdge::Sleeve, HemTurn::NarrowDouble, StitchedBy::Machine),
    ],
    closures: &[(Closure::InvisibleZip, Opening::CentreBack, 1)],
    pockets: &[],
    waistband_mm: None,
    loops: 0,
    neckline: Neckline::Round,
    collar: Collar::None,
    sleeve: Some(SleeveTo::UpperArm),
    topstitched: &[],
};
