//! A skirt with a waistband and darts.

use super::prelude::*;

pub const TEMPLATE: Template = Template {
    name: "skirt",
    says: "Straight, flared or gathered, on a waistband or a facing.",
    ease: EaseClass::Waistband,
    legs: false,
    cloth: "wool flannel",
    hem: HemAt::Landmark(Landmark::Knee, 20),
    levels: &[
        (Level::Waist, Start::UsualEase),
        (Level::Hip, Start::UsualEase),
        (Level::Hem, Start::Over(B::HipGirth, 180)),
    ],
    seams: &[
        seam(Seam::SideSeam, Level::Hem, Level::Waist, 15, Finish::SergedOpen),
        seam(Seam::CentreBack, Level::Hem, Level::Waist, 20, Finish::SergedOpen),
    ],
    may_have: &[
        seam(Seam::CentreFront, Level::Hem, Level::Waist, 15, Finish::SergedOpen),
        seam(Seam::PanelFront, Level::Hem, Level::Waist, 15, Finish::SergedOpen),
        seam(Seam::PanelBack, Level::Hem, Level::Waist, 15, Finish::SergedOpen),
        seam(Seam::YokeSeam, Level::Waist, Level::Waist, 10, Finish::SergedTogether),
    ],
    darts: &[(Dart::FrontWaist, [8, 90, 85]), (Dart::BackWaist, [12, 130, 90])],
    hems: &[(HemEdge::Body, HemTurn::Deep, StitchedBy::Hand)],
    closures: &[(Closure::InvisibleZip, Opening::CentreBack, 1), (Closure::Hooks, Opening::CentreBack, 1)],
    pockets: &[],
    waistband_mm: Some(30),
    loops: 0,
    neckline: Neckline::None,
    collar: Collar::None,
    sleeve: None,
    topstitched: &[],
};
