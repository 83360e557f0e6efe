//! A lined coat, worn over a jumper.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "lined coat",
    says: "Over a jumper, lined throughout: overcoats, duffels, long jackets.",
    ease: EaseClass::Coat,
    legs: false,
    cloth: "herringbone tweed",
    hem: HemAt::Landmark(Landmark::Knee, -20),
    levels: &[
        (Level::Neck, Start::Over(B::NeckGirth, 90)),
        (Level::Shoulder, Start::AcrossShoulders(40)),
        (Level::Bust, Start::UsualEase),
        (Level::Waist, Start::Over(B::BustGirth, 120)),
        (Level::Hip, Start::Over(B::HipGirth, 160)),
        (Level::Hem, Start::Over(B::HipGirth, 300)),
        (Level::UpperArm, Start::UsualEase),
        (Level::Elbow, Start::Over(B::UpperArmGirth, 70)),
        (Level::SleeveHem, Start::Over(B::WristGirth, 140)),
    ],
    seams: super::jacket::TAILORED,
    may_have: super::shirt::UPPER_PANELS,
    darts: &[],
    hems: &[
        (HemEdge::Body, HemTurn::Blind, StitchedBy::Hand),
        (HemEdge::Sleeve, HemTurn::Blind, StitchedBy::Hand),
    ],
    closures: &[(Closure::Buttons, Opening::CentreFront, 3)],
    pockets: &[Pocket::Flap],
    waistband_mm: None,
    loops: 0,
    neckline: Neckline::V,
    collar: Collar::Notched,
    sleeve: Some(SleeveTo::Wrist(20)),
    topstitched: &[],
};
