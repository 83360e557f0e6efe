//! Sides: the garment's and the wearer's, which agree or not by which way out the garment is.

use super::{Meant, TryOn};
use crate::line::SidePolicy;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

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
    /// In words.
    pub const fn name(self) -> &'static str {
        match self {
            Self::RightSideOut => "right side out",
            Self::InsideOut => "inside out",
        }
    }

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

impl PinnedBy {
    /// In words.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Helper => "a helper",
            Self::SelfInMirror => "oneself, in a mirror",
            Self::DressForm => "on a dress form",
        }
    }

    /// Whose sides are seen while pinning.
    pub const fn whose(self) -> &'static str {
        match self {
            Self::Helper | Self::SelfInMirror => "wearer’s",
            Self::DressForm => "form’s",
        }
    }
}

impl GarmentSide {
    /// The other one.
    pub const fn other(self) -> Self {
        match self {
            Self::Left => Self::Right,
            Self::Right => Self::Left,
        }
    }
}

impl TryOn {
    /// A side of the garment in both words: "garment’s right, on the wearer’s left".
    pub fn in_both_words(&self, side: GarmentSide) -> String {
        let on_wearer = self.worn.on_wearer(side).name();
        format!("garment’s {}, on the {} {on_wearer}", side.name(), self.pinned_by.whose())
    }

    /// The same try-on after it turned out which way out the garment was worn.
    ///
    /// Sides that were meant as the wearer's move to the garment's other side; the answer must say so, it cannot be derived.
    pub fn turned(&self, worn: Worn, meant: Meant) -> Self {
        let mut turned = Self { worn, ..self.clone() };
        if worn != self.worn && meant == Meant::SidesOfWearer {
            for side in turned.sides_mut() {
                *side = side.other();
            }
            for policy in turned.alterations.iter_mut().filter_map(|a| a.sides.as_mut()) {
                *policy = match *policy {
                    SidePolicy::Left => SidePolicy::Right,
                    SidePolicy::Right => SidePolicy::Left,
                    same => same,
                };
            }
        }
        turned
    }
}
