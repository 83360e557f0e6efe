//! How pins become a line, as far as somebody says so: the way between them, what happens at an end, how two sides agree.

use crate::choice::choice;
use crate::garment::Seam;
use crate::length::Measure;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// One of the two ends of an altered stretch.
    EndOf {
        Lower => "lower end",
        Upper => "upper end",
    }
}

impl EndOf {
    /// Which way stations go on beyond it: 1 or −1.
    pub const fn beyond(self) -> i64 {
        match self {
            Self::Lower => -1,
            Self::Upper => 1,
        }
    }
}

choice! {
    /// How a line goes through the pins.
    #[derive(Default)]
    Fairing {
        /// The pins are made fair, each within its tolerance, and a line is drawn through them.
        #[default]
        Smooth => "smooth",
        /// Through every pin, without a swing between them.
        EveryPin => "every pin",
        /// Straight from pin to pin.
        Straight => "straight",
    }
}

/// What happens at one end of the altered stretch.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", tag = "end", deny_unknown_fields)]
pub enum End {
    /// Runs into the old stitching at a station, without a bend there.
    MeetsOldStitching {
        /// Where it meets.
        station: Measure,
    },
    /// Carries its slope on to the edge of the garment.
    RunsOff {},
    /// Turns the corner and goes on in the seam it meets there, in one pass: under the arm.
    CarriesOn {
        /// Which seam.
        into: Seam,
    },
    /// Stays parallel to the old stitching from a station to the edge: a waistband's depth.
    StraightThrough {
        /// Where the straight stretch begins, seen from the pins.
        from: Measure,
    },
}

choice! {
    /// How the two sides are made to agree, when the sewist says so.
    SidePolicy {
        /// Halfway between them.
        Mean => "the mean",
        /// The one that takes more off.
        Larger => "the larger",
        /// The one that takes less off.
        Smaller => "the smaller",
        /// The garment's left, on both.
        Left => "left on both",
        /// The garment's right, on both.
        Right => "right on both",
        /// Each side as it was pinned.
        KeepEach => "keep each",
    }
}

choice! {
    /// What to do when the sides disagree and nobody has decided.
    Suggestion {
        /// The wearer's notes explain the difference.
        KeepEach => "keep each",
        /// Nothing explains it.
        PinAgain => "pin again",
    }
}
