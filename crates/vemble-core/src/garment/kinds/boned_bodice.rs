//! A boned bodice or gown: no straps, held by its own girth.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "boned bodice or gown",
    says: "No straps: boned seams and lacing hold it; as a bodice or full length.",
    ease: EaseClass::Boned,
    legs: false,
    cloth: "silk dupion",
    hem: HemAt::Landmark(Landmark::Hip, 90),
    levels: &[
        (Level::Bust, Start::UsualEase),
        (Level::UnderBust, Start::Over(B::UnderBustGirth, 0)),
        (Level::Waist, Start::Over(B::WaistGirth, 20)),
        (Level::Hem, Start::Over(B::WaistGirth, 140)),
    ],
    seams: &[
        seam(Seam::SideSeam, Level::Hem, Level::Bust, 20, Finish::Open),
        seam(Seam::PrincessFront, Level::Hem, Level::Bust, 15, Finish::Open),
        seam(Seam::PrincessBack, Level::Hem, Level::Bust, 15, Finish::Open),
        seam(Seam::CentreFront, Level::Hem, Level::Bust, 15, Finish::Open),
    ],
    may_have: PANELS,
    darts: &[],
    hems: &[(HemEdge::Body, HemTurn::Faced, StitchedBy::Hand)],
    closures: &[(Closure::Lacing, Opening::CentreBack, 22)],
    pockets: &[],
    waistband_mm: None,
    loops: 0,
    neckline: Neckline::Strapless,
    collar: Collar::None,
    sleeve: None,
    topstitched: &[],
};

/// They all end at its upper edge.
const PANELS: &[SeamSpec] = &[
    seam(Seam::CentreBack, Level::Hem, Level::Bust, 15, Finish::Open),
    seam(Seam::PanelFront, Level::Hem, Level::Bust, 15, Finish::Open),
    seam(Seam::PanelBack, Level::Hem, Level::Bust, 15, Finish::Open),
];
