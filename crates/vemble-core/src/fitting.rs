//! The try-on: how the garment was worn, and what was pinned where. Readings stay as they were taken.

use crate::garment::Seam;
use crate::length::{Length, Measure, PerEdge, Station, Whole};
use crate::line::{End, Fairing, SidePolicy};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A side of the garment, as if it lay right side out on a wearer.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GarmentSide {
    /// The garment's left.
    Left,
    /// The garment's right.
    Right,
}

impl GarmentSide {
    /// Both sides, left first.
    pub const BOTH: [GarmentSide; 2] = [Self::Left, Self::Right];

    /// Its name in a sentence.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Left => "left",
            Self::Right => "right",
        }
    }
}

/// A side of the person inside the garment.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WearerSide {
    /// The wearer's left.
    Left,
    /// The wearer's right.
    Right,
}

impl WearerSide {
    /// Its name in a sentence.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Left => "left",
            Self::Right => "right",
        }
    }
}

/// Which way out the garment was while it was pinned.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Worn {
    /// As it is worn every day.
    #[default]
    RightSideOut,
    /// Turned: the garment's left is on the wearer's right.
    InsideOut,
}

impl Worn {
    /// Where a side of the garment was on the wearer.
    pub const fn on_wearer(self, side: GarmentSide) -> WearerSide {
        match (self, side) {
            (Self::RightSideOut, GarmentSide::Left) | (Self::InsideOut, GarmentSide::Right) => {
                WearerSide::Left
            }
            (Self::RightSideOut, GarmentSide::Right) | (Self::InsideOut, GarmentSide::Left) => {
                WearerSide::Right
            }
        }
    }

    /// Which side of the garment was on a side of the wearer.
    pub const fn of_garment(self, side: WearerSide) -> GarmentSide {
        match (self, side) {
            (Self::RightSideOut, WearerSide::Left) | (Self::InsideOut, WearerSide::Right) => {
                GarmentSide::Left
            }
            (Self::RightSideOut, WearerSide::Right) | (Self::InsideOut, WearerSide::Left) => {
                GarmentSide::Right
            }
        }
    }
}

/// Who set the pins.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PinnedBy {
    /// Somebody else.
    Helper,
    /// The wearer, in a mirror.
    #[default]
    SelfInMirror,
    /// On a dress form.
    DressForm,
}

/// How a pin was measured once the garment was off the body.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum How {
    /// From the old seam to the pin on folded cloth: r comes off each edge, 2r altogether.
    #[default]
    Fold,
    /// All that is pinched out: r altogether, shared between the edges.
    Whole,
    /// Taken from the front edge only: r altogether.
    FrontPanel,
    /// Taken from the back edge only: r altogether.
    BackPanel,
    /// The gap that appears in an opened seam: r is let out altogether.
    Gap,
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
}

/// How much of the whole comes off the front edge, in percent; 50 keeps the seam where it is on the body.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(try_from = "u8", into = "u8")]
#[schema(value_type = u8, maximum = 100)]
pub struct FrontShare(u8);

impl FrontShare {
    /// How much of `whole` comes off the front edge.
    fn front(self, whole: Whole) -> PerEdge {
        PerEdge(whole.0.fraction(i64::from(self.0), 100))
    }

    /// How far the seam moves around the body towards the back: (f − ½) × whole.
    pub fn moves(self, whole: Whole) -> Length {
        whole.0.fraction(i64::from(self.0) - 50, 100)
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

/// What is done to one seam: its pins and how they become a line.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Alteration {
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
    /// How far a smooth line may pass beside a pin; 3 mm when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tolerance: Option<Measure>,
    /// What happens at the hem end; runs off the edge when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lower: Option<End>,
    /// What happens at the other end; meets the old stitching at a safe distance when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub upper: Option<End>,
    /// How much of the whole comes off the front edge; half when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub front_share: Option<FrontShare>,
    /// Allowance to trim to, after the next try-on; everything is kept inside when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub trim_to: Option<Measure>,
}

/// One session of trying on and pinning.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TryOn {
    /// Made by whoever entered it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub id: Option<Uuid>,
    /// The day.
    #[schema(value_type = String, format = Date)]
    pub date: jiff::civil::Date,
    /// Right side out or inside out.
    #[serde(default)]
    pub worn: Worn,
    /// Who set the pins.
    #[serde(default)]
    pub pinned_by: PinnedBy,
    /// Shoes, layers and whatever else matters, in the sewist's words.
    #[serde(default)]
    pub conditions: String,
    /// What was pinned, seam by seam.
    #[serde(default)]
    pub alterations: Vec<Alteration>,
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn reading(how: How, mm: i64) -> Reading {
        let length = |mm| Measure { length: Length::from_mm(mm), unit: crate::length::Unit::Cm };
        Reading { id: None, side: GarmentSide::Left, station: length(200), amount: length(mm), how }
    }

    #[test]
    fn each_way_of_measuring_halves_and_doubles_as_it_should() {
        for (how, front, back, whole) in [
            (How::Fold, 20, 20, 40),
            (How::Whole, 10, 10, 20),
            (How::FrontPanel, 20, 0, 20),
            (How::BackPanel, 0, 20, 20),
            (How::Gap, -10, -10, -20),
        ] {
            let edges = reading(how, 20).edges(FrontShare::default());
            let mm = (edges.front.0, edges.back.0, edges.whole().0);
            assert_eq!(
                mm,
                (Length::from_mm(front), Length::from_mm(back), Length::from_mm(whole)),
                "{how:?}"
            );
        }
    }

    #[test]
    fn inside_out_swaps_the_sides_both_ways() {
        assert_eq!(Worn::InsideOut.on_wearer(GarmentSide::Left), WearerSide::Right);
        for worn in [Worn::RightSideOut, Worn::InsideOut] {
            for side in GarmentSide::BOTH {
                assert_eq!(worn.of_garment(worn.on_wearer(side)), side);
            }
        }
    }

    proptest! {
        #[test]
        fn the_edges_always_make_the_whole(mm in 0_i64..200, percent in 0_u8..=100) {
            let share = FrontShare::try_from(percent).unwrap();
            let edges = reading(How::Fold, mm).edges(share);
            prop_assert_eq!(edges.whole().0, Length::from_mm(2 * mm));
            prop_assert_eq!(share.moves(edges.whole()) + edges.whole().0.fraction(1, 2), edges.front.0);
        }
    }
}
