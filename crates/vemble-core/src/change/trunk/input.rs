//! What is entered for a length of the trunk.

use crate::change::Input;
use crate::choice::choice;
use crate::garment::Garment;
use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// Which length.
    TrunkAt {
        AboveWaist => "length above the waist",
        Rise => "rise",
    }
}

impl TrunkAt {
    /// The level that lies at the other end of the cloth that gets shorter.
    pub const fn other(self) -> Level {
        match self {
            Self::AboveWaist => Level::Bust,
            Self::Rise => Level::Hip,
        }
    }
}

/// What is taken out across the trunk in front, at the sides and behind; negative is put in. A wedge is a figure behind and none in front.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrunkChange {
    /// Which length.
    pub at: TrunkAt,
    /// At the centre front; as at the sides when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub front: Option<Measure>,
    /// At either side; nothing when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Measure>,
    /// At the centre back; as at the sides when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub back: Option<Measure>,
}

impl Input for TrunkChange {
    type Key = TrunkAt;

    const HAS_PANELS: bool = false;

    fn of(at: TrunkAt) -> Self {
        Self { at, front: None, side: None, back: None }
    }

    fn key(&self) -> TrunkAt {
        self.at
    }

    fn name(_: &Garment, at: TrunkAt) -> String {
        at.name().into()
    }

    /// Above the waist of what hangs from the shoulders; the rise of what hangs from the waist.
    fn fits(garment: &Garment, at: TrunkAt) -> bool {
        let is_of = match at {
            TrunkAt::AboveWaist => garment.hangs_from_shoulders(),
            TrunkAt::Rise => !garment.goes_above_waist(),
        };
        is_of && [Level::Waist, at.other()].into_iter().all(|level| garment.level(level).is_some())
    }

    fn reads_from(_: TrunkAt) -> (&'static str, [&'static str; 2]) {
        ("middle", ["front", "back"])
    }
}
