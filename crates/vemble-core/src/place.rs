//! Places: the levels at which a body and a garment are compared, and what cloth is made of. What everything else is spoken of by.

use crate::choice::choice;

choice! {
    /// Where girths are compared: the body from the top down, then the sleeve from the top down.
    Level {
        /// The edge or seam at the neck.
        Neck => "neck",
        /// Across from shoulder tip to shoulder tip.
        Shoulder => "shoulder",
        /// The fullest part of the bust or chest.
        Bust => "bust",
        /// Right below the bust.
        UnderBust => "under-bust",
        /// The natural waist.
        Waist => "waist",
        /// The fullest part of the seat.
        Hip => "hip",
        /// The fullest part of the thigh, just below the crotch.
        Thigh => "thigh",
        /// The knee.
        Knee => "knee",
        /// The fullest part of the calf.
        Calf => "calf",
        /// The narrowest part above the foot.
        Ankle => "ankle",
        /// The finished lower edge of the body or of each leg.
        Hem => "hem",
        /// The fullest part of the upper arm.
        UpperArm => "upper arm",
        /// The elbow.
        Elbow => "elbow",
        /// The wrist.
        Wrist => "wrist",
        /// The finished edge of the sleeve.
        SleeveHem => "sleeve hem",
    }
}

impl Level {
    /// True on the sleeve, whose stations are measured up from the sleeve's own hem.
    pub const fn is_of_sleeve(self) -> bool {
        matches!(self, Self::UpperArm | Self::Elbow | Self::Wrist | Self::SleeveHem)
    }

    /// True at an edge of the cloth, where a tape can be laid on: others lie somewhere on it.
    pub const fn is_at_an_edge(self) -> bool {
        matches!(self, Self::Hem | Self::SleeveHem)
    }

    /// True below the crotch.
    pub const fn is_below_crotch(self) -> bool {
        matches!(self, Self::Thigh | Self::Knee | Self::Calf | Self::Ankle | Self::Hem)
    }
}

choice! {
    /// How cloth is made.
    Structure {
        /// Warp and weft.
        Woven => "woven",
        /// Loops.
        Knit => "knit",
    }
}

choice! {
    /// What a garment is worn over and how it hangs: which rows of the table of ease it takes.
    EaseClass {
        /// Dress, blouse, shirt, coverall: next to the skin or a vest, held by shoulders.
        Dress => "next to the skin",
        /// Over a shirt.
        Jacket => "over a shirt",
        /// Over a jumper.
        Coat => "over a jumper",
        /// Boned or strapless: held by its own girth.
        Boned => "boned",
        /// Trousers and skirts: held by a waistband.
        Waistband => "held by a waistband",
    }
}
