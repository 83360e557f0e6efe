//! What is entered for a hem: how much, in what shape, and how it is turned. Its marks stand in the try-on, as they were read.

use crate::change::Input;
use crate::choice::choice;
use crate::fitting::SidePolicy;
use crate::garment::{Garment, HemEdge, HemTurn};
use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// How the new edge follows what was marked.
    HemShape {
        /// One figure all round: the mean of the marks.
        Level => "level: the same all round",
        /// A smooth closed line through the marks.
        FollowMarks => "follow the marks",
    }
}

choice! {
    /// When cloth is cut. Practitioners differ; cloth cannot be put back.
    #[derive(Default)]
    Cutting {
        /// Nothing is cut before a basted or pinned try-on.
        #[default]
        AfterTryOn => "cut after the next try-on",
        /// Cut, then turned up.
        First => "cut first, then turn up",
        /// Stitched, then trimmed close to the stitching.
        StitchThenTrim => "stitch first, then trim",
        /// All of it stays inside.
        Never => "keep all of it inside",
    }
}

choice! {
    /// What of the body a finished length is measured from.
    HemLandmark {
        /// Where the leg bends.
        Knee => "the knee",
        /// The fullest part of the calf.
        Calf => "the calf",
        /// The ankle bone.
        Ankle => "the ankle",
        /// Under the shoes.
        Floor => "the floor",
    }
}

/// A finished length from the body.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FromBody {
    /// From where.
    pub landmark: HemLandmark,
    /// The wanted edge above it; negative below.
    pub above: Measure,
    /// How high the heels are that it is worn with.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub heel: Option<Measure>,
}

/// What is done to a hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HemChange {
    /// Which.
    pub hem: HemEdge,
    /// What is taken off, negative where it is let down, as somebody typed it; by the marks when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub off: Option<Measure>,
    /// A finished length from the body, instead of marks.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from_body: Option<FromBody>,
    /// How far above the floor the new edge is to be: marks that were read from the floor need it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clearance: Option<Measure>,
    /// How it follows the marks; level where they agree, when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shape: Option<HemShape>,
    /// How left and right are made to agree.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sides: Option<SidePolicy>,
    /// How it is turned; as recommended when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<HemTurn>,
    /// Its turns, inner first, where they are not the usual ones.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub turns: Vec<Measure>,
    /// Stitching may show outside; where it may is known by the garment, when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub may_show: Option<bool>,
    /// When cloth is cut.
    #[serde(default)]
    pub cutting: Cutting,
}

impl Input for HemChange {
    type Key = HemEdge;

    fn of(hem: HemEdge) -> Self {
        Self {
            hem,
            off: None,
            from_body: None,
            clearance: None,
            shape: None,
            sides: None,
            turn: None,
            turns: Vec::new(),
            may_show: None,
            cutting: Cutting::default(),
        }
    }

    fn key(&self) -> HemEdge {
        self.hem
    }

    fn name(_: &Garment, hem: HemEdge) -> String {
        match hem {
            HemEdge::Body => "hem",
            HemEdge::Leg => "leg hems",
            HemEdge::Sleeve => "sleeve hems",
        }
        .into()
    }

    fn fits(garment: &Garment, hem: HemEdge) -> bool {
        match hem {
            HemEdge::Body => !garment.has_legs() && garment.level(Level::Hem).is_some(),
            HemEdge::Leg => garment.has_legs() && garment.level(Level::Hem).is_some(),
            HemEdge::Sleeve => garment.level(Level::SleeveHem).is_some(),
        }
    }

    fn reads_from(_: HemEdge) -> (&'static str, [&'static str; 2]) {
        ("present edge", ["left", "right"])
    }

    const HAS_PANELS: bool = false;

    fn policy_mut(&mut self) -> Option<&mut SidePolicy> {
        self.sides.as_mut()
    }
}
