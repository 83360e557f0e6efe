//! How wide a garment is at its levels.

use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How wide the garment is at a level, in one of the two ways it is measured.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Width {
    /// The width of the garment lying flat: half its girth.
    LaidFlat(Measure),
    /// All the way round.
    Girth(Measure),
}

impl Width {
    /// All the way round.
    pub fn girth(self) -> Length {
        match self {
            Self::LaidFlat(m) => m.length * 2,
            Self::Girth(m) => m.length,
        }
    }

    /// All the way round, at the marks of a tape: as it is read there, and doubled where it was laid flat.
    pub fn on(self, tape: Tape) -> Length {
        match self {
            Self::LaidFlat(m) if tape.unit() == m.unit => tape.round(m.length * 2),
            Self::LaidFlat(m) => tape.round(m.length) * 2,
            Self::Girth(m) => tape.round(m.length),
        }
    }

    /// As it was written.
    pub const fn measure(self) -> Measure {
        match self {
            Self::LaidFlat(m) | Self::Girth(m) => m,
        }
    }

    /// The same figure, measured the other way.
    pub const fn otherwise(self) -> Self {
        match self {
            Self::LaidFlat(m) => Self::Girth(m),
            Self::Girth(m) => Self::LaidFlat(m),
        }
    }
}

/// A measured level of the garment.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GarmentLevel {
    /// Which level.
    pub level: Level,
    /// How far up from the hem, along the side seam or outseam and straight up from there; on a sleeve, up from its hem.
    pub station: Measure,
    /// How wide it is there.
    pub width: Width,
    /// Nobody measured it: it starts from the wearer or from proportions.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub assumed: bool,
}
