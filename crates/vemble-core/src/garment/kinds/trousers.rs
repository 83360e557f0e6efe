//! Trousers with a waistband, a fly and slant pockets.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "trousers",
    says: "Waistband, fly, slant pockets; wool, cotton, corduroy.",
    ease: EaseClass::Waistband,
    legs: true,
    cloth: "wool gabardine",
    hem: HemAt::Floor(20),
    levels: &[
        (Level::Waist, Start::UsualEase),
        (Level::Hip, Start::UsualEase),
        (Level::Thigh, Start::UsualEase),
        (Level::Knee, Start::UsualEase),
        (Level::Hem, Start::Over(B::HeelGirth, 110)),
    ],
    seams: &[
        seam(Seam::Outseam, Level::Hem, Level::Waist, 15, Finish::SergedOpen),
        seam(Seam::Inseam, Level::Hem, Level::Thigh, 15, Finish::SergedOpen),
        seam(Seam::SeatSeam, Level::Thigh, Level::Waist, 30, Finish::SergedOpen),
        seam(Seam::FrontRise, Level::Thigh, Level::Waist, 10, Finish::SergedOpen),
    ],
    may_have: PANELS,
    darts: &[(Dart::BackWaist, [10, 100, 90])],
    hems: &[(HemEdge::Leg, HemTurn::Blind, StitchedBy::Machine)],
    closures: &[(Closure::Zip, Opening::CentreFront, 1), (Closure::Buttons, Opening::CentreFront, 1)],
    pockets: &[Pocket::Slant, Pocket::BackWelt],
    waistband_mm: Some(40),
    loops: 7,
    neckline: Neckline::None,
    collar: Collar::None,
    sleeve: None,
    topstitched: &[],
};

/// Long seams that legs may have besides.
pub(super) const PANELS: &[SeamSpec] = &[
    seam(Seam::PanelFront, Level::Hem, Level::Waist, 15, Finish::SergedOpen),
    seam(Seam::PanelBack, Level::Hem, Level::Waist, 15, Finish::SergedOpen),
];
