//! What is read on the body: pins and how they were measured, on which side, and what else is seen. Readings stay as they were taken.

mod seen;
mod side;
mod sign;
mod wanted;
mod ways;

pub use seen::{
    Around, Face, HemHow, HemMark, HowItWent, Movement, MovementTest, Observation, Seen, Shut, Verdict, Why,
};
pub use side::{GarmentSide, PinnedBy, PutOn, WearerSide, Worn};
pub use sign::{Sign, SignPlace};
pub use wanted::WantedChange;
pub use ways::{End, EndOf, Fairing, SidePolicy, Suggestion};

use crate::choice::choice;
use crate::length::{Length, Measure, PerEdge, Station, Tape, Whole};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

choice! {
    /// How a pin was measured once the garment was off the body.
    #[derive(Default)]
    How {
        /// From the old seam to the pin on folded cloth: r comes off each edge, 2r altogether.
        #[default]
        Fold => "fold",
        /// All that is pinched out: r altogether, shared between the edges.
        Whole => "whole pinch",
        /// Taken from the front edge only, or the first of the two edges of its seam: r altogether.
        FrontPanel => "front only",
        /// Taken from the other edge only: r altogether.
        BackPanel => "back only",
        /// The gap that appears in an opened seam: r is let out altogether.
        Gap => "gap (let out)",
    }
}

impl How {
    /// What the tape reads for one unit off an edge, where both edges share equally.
    pub const fn amount_per_edge(self) -> i8 {
        match self {
            Self::Fold | Self::FrontPanel | Self::BackPanel => 1,
            Self::Whole => 2,
            Self::Gap => -2,
        }
    }
}

/// One pin as it was read.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Reading {
    /// Made by whoever entered it; stays with the reading for good.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub id: Option<Uuid>,
    /// Which side of the garment.
    pub side: GarmentSide,
    /// How far from the hem, along the seam.
    pub station: Measure,
    /// What the tape said; never negative (a gap is let out).
    pub amount: Measure,
    /// How it was measured.
    pub how: How,
}

/// What comes off the front edge and the back edge at one station.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Edges {
    /// Off the front edge.
    pub front: PerEdge,
    /// Off the back edge.
    pub back: PerEdge,
}

impl Edges {
    /// Both edges together.
    pub fn whole(self) -> Whole {
        self.front + self.back
    }

    /// As they are chalked: each at a mark of a tape.
    pub const fn chalked(self, tape: Tape) -> Self {
        Self { front: PerEdge(tape.round(self.front.0)), back: PerEdge(tape.round(self.back.0)) }
    }

    /// The deeper of the two, without sign.
    pub fn deepest(self) -> Length {
        self.front.0.abs().max(self.back.0.abs())
    }
}

/// How much of the whole comes off the front edge, in percent; 50 keeps the seam where it is on the body.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(try_from = "u8", into = "u8")]
#[schema(value_type = u8, maximum = 100)]
pub struct FrontShare(u8);

impl FrontShare {
    /// All of it comes off the front edge.
    pub const ALL: Self = Self(100);
    /// None of it does: all comes off the back edge.
    pub const NONE: Self = Self(0);

    /// How much of `whole` comes off the front edge.
    fn front(self, whole: Whole) -> PerEdge {
        PerEdge(whole.0.fraction(i64::from(self.0), 100))
    }
}
impl Default for FrontShare {
    fn default() -> Self {
        Self(50)
    }
}
impl TryFrom<u8> for FrontShare {
    type Error = String;
    fn try_from(percent: u8) -> Result<Self, String> {
        if percent <= 100 {
            Ok(Self(percent))
        } else {
            Err(format!("{percent} is not a share; expected 0 to 100 percent"))
        }
    }
}
impl From<FrontShare> for u8 {
    fn from(share: FrontShare) -> u8 {
        share.0
    }
}

impl Reading {
    /// Where it is on the seam.
    pub const fn at(&self) -> Station {
        Station(self.station.length)
    }

    /// What the reading takes off each edge: the table of halving and doubling, once and for all.
    pub fn edges(&self, share: FrontShare) -> Edges {
        let r = self.amount.length;
        let shared = |whole: Whole| {
            let front = share.front(whole);
            Edges { front, back: PerEdge(whole.0 - front.0) }
        };
        match self.how {
            How::Fold => shared(PerEdge(r) + PerEdge(r)),
            How::Whole => shared(Whole(r)),
            How::FrontPanel => Edges { front: PerEdge(r), back: PerEdge::default() },
            How::BackPanel => Edges { front: PerEdge::default(), back: PerEdge(r) },
            How::Gap => shared(Whole(-r)),
        }
    }
}
