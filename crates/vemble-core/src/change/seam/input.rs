//! What is entered for one seam: its pins, and how they become a line.

use crate::change::Input;
use crate::fitting::{End, EndOf, Fairing, FrontShare, Reading, SidePolicy};
use crate::garment::{Garment, Seam};
use crate::length::Measure;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What is done to one seam: its pins and how they become a line.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SeamChange {
    /// Which seam is altered.
    pub seam: Seam,
    /// The pins, in the order they were read.
    #[serde(default)]
    pub readings: Vec<Reading>,
    /// How the two sides are made to agree; chosen from the readings when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sides: Option<SidePolicy>,
    /// How the line goes through the pins.
    #[serde(default)]
    pub fairing: Fairing,
    /// How far a smooth line may pass beside a pin; when absent 3 mm, or a sixth of the deepest pin where that is less.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tolerance: Option<Measure>,
    /// What happens at the lower end; meets the old stitching at a safe distance when absent, or runs off the edge where that is nearer.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lower: Option<End>,
    /// What happens at the other end; likewise when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub upper: Option<End>,
    /// How much of the whole comes off the front edge; half when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub front_share: Option<FrontShare>,
    /// Allowance to trim to, after the next try-on; everything is kept inside when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub trim_to: Option<Measure>,
    /// A panel as wide as what is let out is set in between the old lines; nothing of it is trimmed then.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub set_in: bool,
    /// Other seams that take a share of what is pinned here; this seam keeps the rest.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub spread: Vec<SeamShare>,
}

/// A seam that takes a share of what is pinned on another.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SeamShare {
    /// Which seam.
    pub seam: Seam,
    /// How much of the whole, in percent.
    pub percent: u8,
}

impl SeamChange {
    /// A seam with nothing pinned on it yet.
    pub const fn of(seam: Seam) -> Self {
        Self {
            seam,
            readings: Vec::new(),
            sides: None,
            fairing: Fairing::Smooth,
            tolerance: None,
            lower: None,
            upper: None,
            front_share: None,
            trim_to: None,
            set_in: false,
            spread: Vec::new(),
        }
    }

    /// What somebody said of one of its ends. Nothing where nobody said anything.
    pub const fn end(&self, of: EndOf) -> Option<End> {
        match of {
            EndOf::Lower => self.lower,
            EndOf::Upper => self.upper,
        }
    }
}

impl Input for SeamChange {
    type Key = Seam;

    fn of(seam: Seam) -> Self {
        Self::of(seam)
    }

    fn key(&self) -> Seam {
        self.seam
    }

    fn name(garment: &Garment, seam: Seam) -> String {
        garment.seam(seam).map_or(seam.name(), |facts| facts.name()).into()
    }

    fn fits(garment: &Garment, seam: Seam) -> bool {
        garment.seam(seam).is_some()
    }

    const MAY_BE_LEFT_OUT: bool = true;

    fn is_single(seam: Seam) -> bool {
        !seam.has_sides()
    }

    fn reads_from(seam: Seam) -> (&'static str, [&'static str; 2]) {
        (seam.datum(), seam.edges())
    }

    fn readings(&self) -> &[Reading] {
        &self.readings
    }

    fn readings_mut(&mut self) -> &mut [Reading] {
        &mut self.readings
    }

    fn set_readings(&mut self, readings: Vec<Reading>) {
        self.readings = readings;
    }

    fn policy_mut(&mut self) -> Option<&mut SidePolicy> {
        self.sides.as_mut()
    }
}
