//! What is entered for an edge that is gathered or pleated.

use crate::change::Input;
use crate::garment::{Garment, GatherHow, LongEdge};
use crate::length::Measure;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

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
