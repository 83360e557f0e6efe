//! A shirt or blouse: buttons in front, a collar, cuffs, a yoke behind.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "shirt or blouse",
    says: "Woven top that buttons: collar, cuffs, often a yoke behind.",
    ease: EaseClass::Dress,
    legs: false,
    cloth: "cotton poplin",
    hem: HemAt::Landmark(Landmark::Hip, -30),
    levels: &[
        (Level::Neck, Start::Over(B::NeckGirth, 20)),
        (Level::Shoulder, Start::AcrossShoulders(20)),
        (Level::Bust, Start::Over(B::BustGirth, 110)),
        (Level::Waist, Start::Over(B::BustGirth, 80)),
        (Level::Hem, Start::Over(B::HipGirth, 70)),
        (Level::UpperArm, Start::Over(B::UpperArmGirth, 80)),
        (Level::Elbow, Start::Over(B::UpperArmGirth, 20)),
        (Level::SleeveHem, Start::Over(B::WristGirth, 60)),
    ],
    seams: &[
        seam(Seam::SideSeam, Level::Hem, Level::Bust, 10, Finish::FlatFelled),
        seam(Seam::ShoulderSeam, Level::Neck, Level::Shoulder, 10, Finish::SergedTogether),
        seam(Seam::ArmholeSeam, Level::Bust, Level::Shoulder, 10, Finish::FlatFelled),
        seam(Seam::SleeveSeam, Level::SleeveHem, Level::UpperArm, 10, Finish::FlatFelled),
        seam(Seam::YokeSeam, Level::Shoulder, Level::Shoulder, 10, Finish::SergedTogether),
        seam(Seam::NeckSeam, Level::Neck, Level::Neck, 6, Finish::Open),
    ],
    may_have: UPPER_PANELS,
    darts: &[],
    hems: &[
        (HemEdge::Body, HemTurn::NarrowDouble, StitchedBy::Machine),
        (HemEdge::Sleeve, HemTurn::Band, StitchedBy::Machine),
    ],
    closures: &[(Closure::Buttons, Opening::CentreFront, 7), (Closure::Buttons, Opening::Cuff, 1)],
    pockets: &[Pocket::Breast],
    waistband_mm: None,
    loops: 0,
    neckline: Neckline::High,
    collar: Collar::Shirt,
    sleeve: Some(SleeveTo::Wrist(15)),
    topstitched: &[Seam::YokeSeam],
};

/// Long seams that a top may have besides.
pub(super) const UPPER_PANELS: &[SeamSpec] = &[
    seam(Seam::CentreBack, Level::Hem, Level::Neck, 15, Finish::SergedOpen),
    seam(Seam::CentreFront, Level::Hem, Level::Neck, 15, Finish::SergedOpen),
    seam(Seam::PrincessFront, Level::Hem, Level::Shoulder, 15, Finish::SergedOpen),
    seam(Seam::PrincessBack, Level::Hem, Level::Shoulder, 15, Finish::SergedOpen),
    seam(Seam::PanelFront, Level::Hem, Level::Bust, 15, Finish::SergedOpen),
    seam(Seam::PanelBack, Level::Hem, Level::Bust, 15, Finish::SergedOpen),
];
