//! Edges that are longer than what they are sewn to: gathered, or laid in pleats.

use super::HemEdge;
use crate::choice::choice;
use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// Which long edge is brought to a short one.
    LongEdge {
        Waist => "at the waist",
        SleeveHem => "at the sleeve hems",
        Flounce => "of a flounce at the hem",
    }
}

choice! {
    /// How cloth that is too long is taken together.
    #[derive(Default)]
    GatherHow {
        /// Drawn up on two threads.
        #[default]
        Gathers => "gathers",
        /// Folds that all lie one way.
        KnifePleats => "pleats, all one way",
        /// Two folds that meet or part.
        BoxPleats => "box pleats",
    }
}

impl GatherHow {
    /// How many layers lie under one fold's depth: what a pleat takes is so often its depth. Nothing of gathers.
    pub const fn depths(self) -> Option<i64> {
        match self {
            Self::Gathers => None,
            Self::KnifePleats => Some(2),
            Self::BoxPleats => Some(4),
        }
    }
}

/// An edge that is gathered or pleated, as it was sewn.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GatheredFacts {
    /// Which.
    pub at: LongEdge,
    /// So much longer it is than what it is sewn to, altogether; of sleeves each.
    pub by: Measure,
    /// How that is taken together.
    #[serde(default)]
    pub how: GatherHow,
}

impl LongEdge {
    /// The level of the garment that it is brought to.
    pub const fn level(self) -> Level {
        match self {
            Self::Waist => Level::Waist,
            Self::SleeveHem => Level::SleeveHem,
            Self::Flounce => Level::Hem,
        }
    }

    /// The hem that its level is the new edge of.
    pub const fn hem(self) -> Option<HemEdge> {
        match self {
            Self::Waist => None,
            Self::SleeveHem => Some(HemEdge::Sleeve),
            Self::Flounce => Some(HemEdge::Body),
        }
    }
}
