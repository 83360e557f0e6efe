//! The fitting mode: what to ask while the garment is worn, one place after the other.
//!
//! In the order in which one fits, from the top down and lengths last: a change above alters everything below.

mod doubt;
mod steps;

#[cfg(test)]
mod tests;

pub use doubt::{PinDoubt, pin_doubts};

use crate::change::ChangeKey;
use crate::document::Document;
use crate::figure::Spot;
use crate::fitting::{Around, GarmentSide, HowItWent, Movement, PinnedBy, WearerSide};
use crate::garment::HemEdge;
use crate::judge::{Subject, girths};
use crate::length::{Figure, Measure, Tape};
use crate::place::Level;
use crate::shown::WayToMeasure;
use crate::try_on::Why;
use serde::Serialize;
use steps::Asked;
use utoipa::ToSchema;
use uuid::Uuid;

/// Everything to ask in one try-on, in order.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Asking {
    /// The steps, in order.
    pub steps: Vec<Step>,
    /// Whoever pins alone pins one side of each place, and copies it.
    pub one_side: bool,
    /// Pins that look like a slip of the hand.
    pub doubts: Vec<PinDoubt>,
}

/// One step: a place of the body, a hem, or moving about.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[schema(as = AskedStep)]
pub struct Step {
    /// Stays the same while the try-on is filled in: `pins.waist`.
    pub key: String,
    /// What it is called: "Waist".
    pub title: String,
    /// The question.
    pub question: String,
    /// Why it is suggested, or what to mind; one sentence each.
    pub hints: Vec<String>,
    /// There is a reason to look here.
    pub suggested: bool,
    /// Something was entered here.
    pub settled: bool,
    /// Where pins may be, on seams and darts that cross this place.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub pins: Vec<PinPlace>,
    /// Where a hem is marked.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub hem: Vec<HemPlace>,
    /// Movements to try.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub movements: Vec<MovementAsked>,
}

/// A seam or dart where it crosses a place of the body.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PinPlace {
    /// The change that a pin there is of.
    pub change: ChangeKey,
    /// What it is called.
    pub name: String,
    /// The ways to measure a pin there.
    pub hows: Vec<WayToMeasure>,
    /// It may be left out, with a word why.
    pub may_be_left_out: bool,
    /// At which level it is asked for.
    pub level: Level,
    /// Where on it, as a reading holds it.
    pub station: Measure,
    /// The same, for showing.
    pub at: Figure,
    /// Where it is, in words: "45.0 cm from the hem".
    pub at_words: String,
    /// One or two sides, the wearer's left first.
    pub sides: Vec<PinSide>,
}

/// One side of such a place.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PinSide {
    /// The garment's side: this is stored.
    pub side: GarmentSide,
    /// The wearer's side: this is seen.
    pub wearer_side: WearerSide,
    /// Both in words.
    pub words: String,
    /// The wearer's in words, short: "wearer’s left".
    pub seen_words: String,
    /// The garment's in words, short: "garment’s right".
    pub stored_words: String,
    /// The pin there, if there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pin: Option<PinThere>,
    /// Why there is none.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub left_out: Option<Why>,
    /// Where it is on the stand.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub spot: Option<Spot>,
}

/// A pin, and what it comes to.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PinThere {
    /// The reading's id.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub id: Option<Uuid>,
    /// What the tape said.
    pub read: Figure,
    /// Off each edge, in words.
    pub edges: String,
    /// Off altogether, here.
    pub whole: Figure,
}

/// A place around a hem.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct HemPlace {
    /// Which edge.
    pub edge: HemEdge,
    /// The garment's side, where there are two.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub side: Option<GarmentSide>,
    /// Where around it.
    pub around: Around,
    /// In words: "front", "side, garment’s left, on the wearer’s right".
    pub words: String,
    /// It is read again standing upright: bending makes the front drop, but no sleeve.
    pub is_read_upright: bool,
    /// The mark there, if there is one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub mark: Option<MarkThere>,
}

/// A hem mark, read once and perhaps again.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MarkThere {
    /// The mark's id.
    pub id: Uuid,
    /// The first reading.
    pub first: Figure,
    /// The reading upright.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub again: Option<Figure>,
    /// By how much the two differ.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub apart: Option<Figure>,
}

/// A movement to try, and how it went.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MovementAsked {
    /// Which.
    pub movement: Movement,
    /// In words.
    pub words: String,
    /// What to look at meanwhile.
    pub look: String,
    /// How it went, if it was tried.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub went: Option<HowItWent>,
}

/// Places of the body in the order in which one fits, each with the levels it stands for.
const ORDER: [(&str, &[Level]); 12] = [
    ("Shoulders", &[Level::Shoulder]),
    ("Bust", &[Level::Bust]),
    ("Under the bust", &[Level::UnderBust]),
    ("Waist", &[Level::Waist]),
    ("Hip", &[Level::Hip]),
    ("Thigh", &[Level::Thigh]),
    ("Knee", &[Level::Knee]),
    ("Calf", &[Level::Calf]),
    ("Lower edge", &[Level::Hem]),
    ("Upper arm", &[Level::UpperArm]),
    ("Elbow", &[Level::Elbow]),
    ("Wrist", &[Level::Wrist, Level::SleeveHem]),
];

/// What to ask in the newest try-on of `document`; earlier ones are remembered in hints. Figures on `tape`.
pub fn asking(document: &Document, tape: Tape) -> Asking {
    let newest = document.try_ons.split_last();
    let Some(((try_on, earlier), state)) = newest.and_then(|(t, e)| Some(((t, e), document.state(t.state)?)))
    else {
        return Asking { steps: Vec::new(), one_side: false, doubts: Vec::new() };
    };
    let wearer = &document.wearer;
    let garment = &*state.garment.with_levels_in_order(wearer);
    let as_it_is = girths(&Subject::as_it_is(garment, wearer, tape));
    let asked = Asked { garment, wearer, try_on, before: earlier.last(), girths: &as_it_is, tape };
    let mut steps: Vec<Step> = Vec::new();
    for (title, of) in ORDER {
        steps.extend(of.iter().find_map(|level| asked.pins_at(title, *level)));
        if title == "Shoulders" {
            steps.extend(asked.armholes());
        }
    }
    steps.extend(garment.hems.iter().map(|hem| asked.hem(hem.edge)));
    steps.push(asked.moving());
    asked.place_on_stand(&mut steps);
    let one_side = try_on.pinned_by == PinnedBy::SelfInMirror;
    Asking { steps, one_side, doubts: pin_doubts(garment, try_on, tape) }
}
