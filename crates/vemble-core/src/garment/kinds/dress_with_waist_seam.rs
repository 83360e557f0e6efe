//! A dress whose bodice and skirt meet in a waist seam; pinafores and wrap dresses too.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "dress with a waist seam",
    says: "Bodice and skirt joined at the waist; pinafores and wrap dresses too.",
    ease: EaseClass::Dress,
    legs: false,
    cloth: "cotton lawn",
    hem: HemAt::Landmark(Landmark::Knee, -60),
    levels: &[
        (Level::Neck, Start::Over(B::NeckGirth, 150)),
        (Level::Shoulder, Start::AcrossShoulders(0)),
        (Level::Bust, Start::UsualEase),
        (Level::Waist, Start::UsualEase),
        (Level::Hip, Start::Over(B::HipGirth, 140)),
        (Level::Hem, Start::Over(B::HipGirth, 700)),
        (Level::UpperArm, Start::UsualEase),
        (Level::SleeveHem, Start::Over(B::UpperArmGirth, 50)),
    ],
    seams: &[
        seam(Seam::SideSeam, Level::Hem, Level::Bust, 15, Finish::SergedOpen),
        seam(Seam::WaistSeam, Level::Waist, Level::Waist, 15, Finish::SergedTogether),
        seam(Seam::CentreBack, Level::Hem, Level::Neck, 20, Finish::SergedOpen),
        seam(Seam::ShoulderSeam, Level::Neck, Level::Shoulder, 15, Finish::SergedOpen),
        seam(Seam::ArmholeSeam, Level::Bust, Level::Shoulder, 12, Finish::SergedTogether),
        seam(Seam::SleeveSeam, Level::SleeveHem, Level::UpperArm, 15, Finish::SergedOpen),
    ],
    may_have: super::shirt::UPPER_PANELS,
    darts: &[
        (Dart::Bust, [12, 90, 160]),
        (Dart::FrontWaist, [10, 110, 85]),
        (Dart::BackWaist, [10, 130, 85]),
    ],
    hems: &[
        (HemEdge::Body, HemTurn::Double, StitchedBy::Machine),
        (HemEdge::Sleeve, HemTurn::NarrowDouble, StitchedBy::Machine),
    ],
    closures: &[(Closure::InvisibleZip, Opening::CentreBack, 1)],
    pockets: &[Pocket::InSeam],
    waistband_mm: None,
    loops: 0,
    neckline: Neckline::Round,
    collar: Collar::None,
    sleeve: Some(SleeveTo::UpperArm),
    topstitched: &[],
};
