//! What was practised: which slips were made, and which no more.

use crate::choice::choice;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// What goes wrong by hand, and is practised.
    Slip {
        Halving => "halving and doubling",
        Gap => "a gap and its edges",
        Darts => "what darts take",
        InsideOut => "inside out",
        Taper => "where a taper ends",
        HemCut => "what is cut off a hem",
    }
}

impl Slip {
    /// It costs cloth when it is made: it comes again sooner.
    pub const fn costs_cloth(self) -> bool {
        match self {
            Self::Halving | Self::Darts | Self::HemCut => true,
            Self::Gap | Self::InsideOut | Self::Taper => false,
        }
    }
}

/// How often a slip was made, and how often not.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Practised {
    /// Which.
    pub slip: Slip,
    /// Answered right.
    #[serde(default)]
    pub right: u16,
    /// Answered wrong.
    #[serde(default)]
    pub wrong: u16,
}
