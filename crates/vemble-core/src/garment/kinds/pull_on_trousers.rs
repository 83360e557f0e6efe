//! Pull-on trousers: elastic at the waist, nothing that opens.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "pull-on trousers",
    says: "Elastic waist, nothing opens; leggings, pyjamas, tracksuits too.",
    ease: EaseClass::Waistband,
    legs: true,
    cloth: "rayon challis",
    hem: HemAt::Floor(30),
    levels: &[
        (Level::Waist, Start::Over(B::HipGirth, 30)),
        (Level::Hip, Start::Over(B::HipGirth, 100)),
        (Level::Thigh, Start::Over(B::ThighGirth, 120)),
        (Level::Knee, Start::Over(B::KneeGirth, 140)),
        (Level::Hem, Start::Over(B::HeelGirth, 130)),
    ],
    seams: &[
        seam(Seam::Outseam, Level::Hem, Level::Waist, 12, Finish::SergedTogether),
        seam(Seam::Inseam, Level::Hem, Level::Thigh, 12, Finish::SergedTogether),
        seam(Seam::SeatSeam, Level::Thigh, Level::Waist, 12, Finish::SergedTogether),
        seam(Seam::FrontRise, Level::Thigh, Level::Waist, 12, Finish::SergedTogether),
    ],
    may_have: super::trousers::PANELS,
    darts: &[],
    hems: &[(HemEdge::Leg, HemTurn::Double, StitchedBy::Machine)],
    closures: &[(Closure::Elastic, Opening::Waist, 1)],
    pockets: &[Pocket::InSeam],
    waistband_mm: Some(35),
    loops: 0,
    neckline: Neckline::None,
    collar: Collar::None,
    sleeve: None,
    topstitched: &[],
};
