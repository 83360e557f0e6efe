//! What is entered for an edge that is gathered or pleated.

use crate::change::Input;
use crate::choice::choice;
use crate::garment::{Garment, HemEdge};
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

/// What is done to an edge that is longer than what it is sewn to.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GathersChange {
    /// Which.
    pub at: LongEdge,
    /// How long it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub long: Option<Measure>,
    /// What it is brought to; what the garment will measure there, when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub short: Option<Measure>,
    /// How.
    #[serde(default)]
    pub how: GatherHow,
    /// How many pleats; by their depth when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<u8>,
    /// How deep a pleat is wanted; as usual when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub depth: Option<Measure>,
}

impl Input for GathersChange {
    type Key = LongEdge;

    fn of(at: LongEdge) -> Self {
        Self { at, long: None, short: None, how: GatherHow::default(), count: None, depth: None }
    }

    fn key(&self) -> LongEdge {
        self.at
    }

    fn name(_: &Garment, at: LongEdge) -> String {
        format!("gathers or pleats {}", at.name())
    }

    fn fits(garment: &Garment, at: LongEdge) -> bool {
        garment.level(at.level()).is_some()
            && match at {
                LongEdge::Waist | LongEdge::SleeveHem => true,
                LongEdge::Flounce => !garment.has_legs(),
            }
    }

    fn reads_from(_: LongEdge) -> (&'static str, [&'static str; 2]) {
        ("end of the edge", ["one", "other"])
    }

    const HAS_PANELS: bool = false;
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
