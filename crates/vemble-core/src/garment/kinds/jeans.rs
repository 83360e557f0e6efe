//! Jeans: a back yoke, patch pockets behind, felled and topstitched seams.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "jeans",
    says: "Denim: back yoke, patch pockets, felled and topstitched seams.",
    ease: EaseClass::Waistband,
    legs: true,
    cloth: "denim",
    hem: HemAt::Floor(15),
    levels: &[
        (Level::Waist, Start::UsualEase),
        (Level::Hip, Start::Over(B::HipGirth, 40)),
        (Level::Thigh, Start::Over(B::ThighGirth, 40)),
        (Level::Knee, Start::Over(B::KneeGirth, 45)),
        (Level::Hem, Start::Over(B::HeelGirth, 50)),
    ],
    seams: &[
        seam(Seam::Outseam, Level::Hem, Level::Waist, 15, Finish::SergedTogether),
        seam(Seam::Inseam, Level::Hem, Level::Thigh, 10, Finish::FlatFelled),
        seam(Seam::SeatSeam, Level::Thigh, Level::Waist, 10, Finish::FlatFelled),
        seam(Seam::FrontRise, Level::Thigh, Level::Waist, 10, Finish::FlatFelled),
        seam(Seam::YokeSeam, Level::Waist, Level::Waist, 10, Finish::FlatFelled),
    ],
    may_have: super::trousers::PANELS,
    darts: &[],
    hems: &[(HemEdge::Leg, HemTurn::Double, StitchedBy::Machine)],
    closures: &[(Closure::Zip, Opening::CentreFront, 1), (Closure::Buttons, Opening::CentreFront, 1)],
    pockets: &[Pocket::FrontScoop, Pocket::BackPatch],
    waistband_mm: Some(40),
    loops: 5,
    neckline: Neckline::None,
    collar: Collar::None,
    sleeve: None,
    topstitched: &[Seam::Inseam, Seam::SeatSeam, Seam::FrontRise, Seam::YokeSeam],
};
