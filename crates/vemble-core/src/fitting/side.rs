//! Sides: the garment's and the wearer's, which agree or not by which way out the garment is.

use crate::choice::choice;

choice! {
    /// A side of the garment, as if it lay right side out on a wearer.
    GarmentSide {
        /// The garment's left.
        Left => "left",
        /// The garment's right.
        Right => "right",
    }
}

impl GarmentSide {
    /// Both sides, left first.
    pub const BOTH: [GarmentSide; 2] = [Self::Left, Self::Right];

    /// The other one.
    pub const fn other(self) -> Self {
        match self {
            Self::Left => Self::Right,
            Self::Right => Self::Left,
        }
    }
}

choice! {
    /// A side of the person inside the garment.
    WearerSide {
        /// The wearer's left.
        Left => "left",
        /// The wearer's right.
        Right => "right",
    }
}

choice! {
    /// Which way out the garment was while it was pinned.
    #[derive(Default)]
    Worn {
        /// As it is worn every day.
        #[default]
        RightSideOut => "right side out",
        /// Turned: the garment's left is on the wearer's right.
        InsideOut => "inside out",
    }
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

choice! {
    /// Who set the pins.
    #[derive(Default)]
    PinnedBy {
        /// Somebody else.
        Helper => "a helper",
        /// The wearer, in a mirror.
        #[default]
        SelfInMirror => "oneself, in a mirror",
        /// On a dress form.
        DressForm => "on a dress form",
    }
}

impl PinnedBy {
    /// A side that is seen while pinning: "wearer’s left", "form’s left".
    pub fn seen_words(self, side: WearerSide) -> String {
        let whose = match self {
            Self::Helper | Self::SelfInMirror => "wearer’s",
            Self::DressForm => "form’s",
        };
        format!("{whose} {}", side.name())
    }
}

/// How a garment was put on, and on whom, when its pins were set: what left and right meant then.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct PutOn {
    /// Which way out.
    pub worn: Worn,
    /// Who pinned, and so on whom.
    pub pinned_by: PinnedBy,
}

impl PutOn {
    /// Where a side of the garment was: "wearer’s right".
    pub fn seen_words(self, side: GarmentSide) -> String {
        self.pinned_by.seen_words(self.worn.on_wearer(side))
    }

    /// A side of the garment in both words: "garment’s right, on the wearer’s left".
    pub fn in_both_words(self, side: GarmentSide) -> String {
        format!("garment’s {}, on the {}", side.name(), self.seen_words(side))
    }
}
