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
    /// Whose sides are seen while pinning.
    pub const fn whose(self) -> &'static str {
        match self {
            Self::Helper | Self::SelfInMirror => "wearer’s",
            Self::DressForm => "form’s",
        }
    }
}
