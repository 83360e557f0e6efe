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
        /// In front, at the sides and behind as long as somebody said, blended between the panel seams.
        Shaped => "shaped: front, side and back lengths",
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
        /// The tip of the longest finger, arms hanging.
        Fingertips => "the fingertips",
        /// Where the leg bends.
        Knee => "the knee",
        /// The fullest part of the calf.
        Calf => "the calf",
        /// The ankle bone.
        Ankle => "the ankle",
        /// Where a low shoe ends.
        ShoeTop => "the top of the shoe",
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

choice! {
    /// Where a length is taken off.
    #[derive(Default)]
    ShortenedAt {
        /// At the edge itself.
        #[default]
        Edge => "at the edge",
        /// At the waist seam: the edge stays as it is.
        Waist => "at the waist seam",
        /// At the top of the sleeve: what closes its edge stays where it is.
        Cap => "at the cap of the sleeve",
    }
}

impl ShortenedAt {
    fn is_the_edge(&self) -> bool {
        *self == Self::Edge
    }

    /// This garment has a seam there that the length above `hem` can be taken off at.
    pub fn is_there(self, garment: &Garment, hem: HemEdge) -> bool {
        let is_sleeve = hem == HemEdge::Sleeve;
        match self {
            Self::Edge => true,
            Self::Waist => !is_sleeve && garment.level(Level::Waist).is_some(),
            Self::Cap => is_sleeve,
        }
    }
}

choice! {
    /// Where a slit is.
    SlitAt {
        CentreFront => "centre front",
        CentreBack => "centre back",
        Sides => "both side seams",
        UnderFrontDart => "under the front darts",
        UnderBackDart => "under the back darts",
        BetweenFrontDarts => "midway between the front darts",
        BetweenBackDarts => "midway between the back darts",
    }
}

/// A new slit.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Slit {
    /// Where.
    pub at: SlitAt,
    /// How high it goes, up from the new edge.
    pub height: Measure,
    /// How far it opens at the edge; a straight cut when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Measure>,
}

/// Finished lengths, down from where the garment hangs.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Lengths {
    /// In front.
    pub front: Measure,
    /// At the sides.
    pub side: Measure,
    /// Behind.
    pub back: Measure,
}

/// How the lining is hemmed, where that is not as usual.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LiningWanted {
    /// Its fold above the outer’s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub above: Option<Measure>,
    /// What it has to spare along its length.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slack: Option<Measure>,
    /// It hangs free of the outer’s hem.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub free: bool,
    /// What is too long is folded up; nothing is cut.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub folded_up: bool,
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
    /// Finished lengths in front, at the sides and behind, instead of marks: for a shaped edge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lengths: Option<Lengths>,
    /// Left so much longer than marked: what washing will take.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub longer_by: Option<Measure>,
    /// It is worn over a petticoat or a hoop.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub over_petticoat: bool,
    /// Where it is taken off.
    #[serde(default, skip_serializing_if = "ShortenedAt::is_the_edge")]
    pub shortened_at: ShortenedAt,
    /// A slit that is new.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slit: Option<Slit>,
    /// How its lining is hemmed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lining: Option<LiningWanted>,
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
            lengths: None,
            longer_by: None,
            over_petticoat: false,
            shortened_at: ShortenedAt::default(),
            slit: None,
            lining: None,
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
