//! What a try-on finds besides pins: marks around a hem, what the cloth does, how moving goes.

use super::{GarmentSide, Sign};
use crate::choice::choice;
use crate::garment::HemEdge;
use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

choice! {
    /// How the garment was closed while it was pinned.
    Shut {
        DoneUp => "done up",
        PinnedShut => "pinned shut",
        Open => "left open",
    }
}

choice! {
    /// Where around a hem.
    Around {
        Front => "front",
        SideFront => "side front",
        Side => "side",
        SideBack => "side back",
        Back => "back",
        Inside => "inside of the leg",
    }
}

choice! {
    /// How a hem mark was measured.
    HemHow {
        TurnUp => "turned up from the present edge",
        LetDown => "let down below the present edge",
        FromFloor => "above the floor",
    }
}

/// One mark around a hem.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HemMark {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// Which edge.
    pub edge: HemEdge,
    /// Which leg, sleeve or side; nothing at the middle of a lower edge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<GarmentSide>,
    /// Where around it.
    pub around: Around,
    /// How it was measured.
    pub how: HemHow,
    /// What was read first, while somebody bent or knelt.
    pub amount: Measure,
    /// What was read again, standing upright; both are kept.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub again: Option<Measure>,
}

choice! {
    /// What cloth does where it does not fit.
    Seen {
        Wrinkle => "wrinkle",
        Gape => "gape",
        Strain => "strain",
        Slide => "slides out of place",
        Other => "something else",
    }
}

choice! {
    /// From where it is seen.
    Face {
        Front => "front",
        Back => "back",
        Side => "side",
    }
}

choice! {
    /// What is to be done about it.
    Verdict {
        FixNow => "fix now",
        Watch => "watch in the real cloth",
        Leave => "leave",
        NextTime => "next time",
    }
}

/// Something that was seen, and what is to be done about it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Observation {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// What the cloth says, where that has a name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sign: Option<Sign>,
    /// What the cloth does.
    pub seen: Seen,
    /// At which level.
    pub level: Level,
    /// From where it is seen.
    pub face: Face,
    /// On which side of the garment, where it is on one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<GarmentSide>,
    /// What is to be done about it.
    pub verdict: Verdict,
    /// In the sewist's words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub words: String,
}

choice! {
    /// A movement to try.
    Movement {
        Sit => "sit down",
        ReachForward => "reach forward",
        ArmsUp => "arms up",
        Stride => "a long stride",
        BendElbow => "bend the elbow",
    }
}

choice! {
    /// How a movement went.
    HowItWent {
        Fine => "fine",
        Tight => "tight",
        Impossible => "impossible",
    }
}

/// A movement that was tried; each once.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MovementTest {
    /// Which.
    pub movement: Movement,
    /// How it went.
    pub went: HowItWent,
}

choice! {
    /// Why a place has no pin.
    Why {
        OutOfReach => "out of reach",
        CopyLater => "to be copied from the other side",
    }
}
