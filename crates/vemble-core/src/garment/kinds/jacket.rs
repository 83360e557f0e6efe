//! A jacket: lapels, two-piece sleeves, worn over a shirt.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "jacket",
    says: "Over a shirt: blazers, suit jackets, waistcoats with sleeves taken off.",
    ease: EaseClass::Jacket,
    legs: false,
    cloth: "wool flannel",
    hem: HemAt::Landmark(Landmark::Hip, -70),
    levels: &[
        (Level::Neck, Start::Over(B::NeckGirth, 60)),
        (Level::Shoulder, Start::AcrossShoulders(20)),
        (Level::Bust, Start::UsualEase),
        (Level::Waist, Start::Over(B::WaistGirth, 140)),
        (Level::Hip, Start::Over(B::HipGirth, 100)),
        (Level::Hem, Start::Over(B::HipGirth, 110)),
        (Level::UpperArm, Start::Over(B::UpperArmGirth, 80)),
        (Level::Elbow, Start::Over(B::UpperArmGirth, 40)),
        (Level::SleeveHem, Start::Over(B::WristGirth, 100)),
    ],
    seams: TAILORED,
    may_have: super::shirt::UPPER_PANELS,
    darts: &[(Dart::FrontFishEye, [8, 220, 95])],
    hems: &[
        (HemEdge::Body, HemTurn::Blind, StitchedBy::Hand),
        (HemEdge::Sleeve, HemTurn::Blind, StitchedBy::Hand),
    ],
    closures: &[(Closure::Buttons, Opening::CentreFront, 2)],
    pockets: &[Pocket::Flap, Pocket::Breast],
    waistband_mm: None,
    loops: 0,
    neckline: Neckline::V,
    collar: Collar::Notched,
    sleeve: Some(SleeveTo::Wrist(10)),
    topstitched: &[],
};

/// Seams of jackets and coats: pressed open under a lining, two-piece sleeves.
pub(super) const TAILORED: &[SeamSpec] = &[
    seam(Seam::SideSeam, Level::Hem, Level::Bust, 20, Finish::Open),
    seam(Seam::CentreBack, Level::Hem, Level::Neck, 20, Finish::Open),
    seam(Seam::PanelBack, Level::Hem, Level::Bust, 15, Finish::Open),
    seam(Seam::ShoulderSeam, Level::Neck, Level::Shoulder, 15, Finish::Open),
    seam(Seam::ArmholeSeam, Level::Bust, Level::Shoulder, 12, Finish::Open),
    seam(Seam::SleeveSeam, Level::SleeveHem, Level::UpperArm, 12, Finish::Open),
    seam(Seam::SleeveBackSeam, Level::SleeveHem, Level::UpperArm, 15, Finish::Open),
];
