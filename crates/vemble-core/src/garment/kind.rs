//! Kinds of garment. A kind is a file in `kinds/` and a row of [`Kind::template`]: its template says which seams,
//! darts, hems, levels, closures and pockets it starts with, and what may be added.

use super::kinds;
use super::parts::{Closure, Collar, Dart, HemEdge, HemTurn, Neckline, Opening, Pocket, StitchedBy};
use super::seam::{Seam, SeamSpec};
use crate::body::{BodyMeasurement, Landmark};
use crate::place::{EaseClass, Level};
use serde::{Deserialize, Serialize};
use strum::{IntoStaticStr, VariantArray};
use utoipa::ToSchema;

/// What sort of garment it is.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema, VariantArray, IntoStaticStr,
)]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
#[expect(missing_docs, reason = "each has its name and a line about it in its template")]
pub enum Kind {
    Trousers,
    Jeans,
    PullOnTrousers,
    Skirt,
    Shirt,
    KnitTop,
    DressWithWaistSeam,
    Dress,
    BonedBodice,
    Jacket,
    LinedCoat,
    Coverall,
}

impl Kind {
    /// All of them, in the order they are offered.
    pub const ALL: &'static [Self] = Self::VARIANTS;

    /// What garments of this kind start with.
    pub const fn template(self) -> &'static Template {
        match self {
            Self::Trousers => &kinds::trousers::TEMPLATE,
            Self::Jeans => &kinds::jeans::TEMPLATE,
            Self::PullOnTrousers => &kinds::pull_on_trousers::TEMPLATE,
            Self::Skirt => &kinds::skirt::TEMPLATE,
            Self::Shirt => &kinds::shirt::TEMPLATE,
            Self::KnitTop => &kinds::knit_top::TEMPLATE,
            Self::DressWithWaistSeam => &kinds::dress_with_waist_seam::TEMPLATE,
            Self::Dress => &kinds::dress::TEMPLATE,
            Self::BonedBodice => &kinds::boned_bodice::TEMPLATE,
            Self::Jacket => &kinds::jacket::TEMPLATE,
            Self::LinedCoat => &kinds::lined_coat::TEMPLATE,
            Self::Coverall => &kinds::coverall::TEMPLATE,
        }
    }
}

/// What garments of a kind start with, until somebody says otherwise.
#[derive(Debug)]
pub struct Template {
    /// Its name.
    pub name: &'static str,
    /// What belongs here, in one line.
    pub says: &'static str,
    /// Which ease it wants.
    pub ease: EaseClass,
    /// It has two legs.
    pub legs: bool,
    /// A cloth it is often made of.
    pub cloth: &'static str,
    /// Where its lower edge is on the body.
    pub hem: HemAt,
    /// Its levels, from the top down, and what they start at.
    pub levels: &'static [(Level, Start)],
    /// Its seams.
    pub seams: &'static [SeamSpec],
    /// Seams that some garments of this kind have besides.
    pub may_have: &'static [SeamSpec],
    /// Its darts: which, fold depth, length and distance from the centre in mm.
    pub darts: &'static [(Dart, [i64; 3])],
    /// Its hems.
    pub hems: &'static [(HemEdge, HemTurn, StitchedBy)],
    /// Its closures, with how many of each.
    pub closures: &'static [(Closure, Opening, u8)],
    /// Its pockets.
    pub pockets: &'static [Pocket],
    /// Depth of its waistband in mm, if it has one.
    pub waistband_mm: Option<i64>,
    /// How many belt loops.
    pub loops: u8,
    /// The edge at the neck.
    pub neckline: Neckline,
    /// What stands round the neck.
    pub collar: Collar,
    /// How far its sleeve goes, if it has one.
    pub sleeve: Option<SleeveTo>,
    /// Seams stitched again on the right side.
    pub topstitched: &'static [Seam],
}

impl Template {
    /// People sit down in it, and it has a seat to sit with.
    pub fn sits(&self) -> bool {
        self.levels.iter().any(|l| l.0 == Level::Hip)
    }
}

/// What a level starts at, before anybody measures it.
#[derive(Clone, Copy, Debug)]
pub enum Start {
    /// The body girth of this level with the middle of its usual ease.
    UsualEase,
    /// A body girth with so many mm more.
    Over(BodyMeasurement, i64),
    /// Flat across the shoulders: from tip to tip, so many mm wider than the body.
    AcrossShoulders(i64),
}

/// Where a lower edge is on the body: at a landmark, so many mm above it.
#[derive(Clone, Copy, Debug)]
pub enum HemAt {
    /// Above the floor.
    Floor(i64),
    /// Above a landmark; negative below it.
    Landmark(Landmark, i64),
}

/// How far a sleeve goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum SleeveTo {
    /// Halfway down the upper arm.
    UpperArm,
    /// The wrist, so many mm past it.
    Wrist(i64),
}
