//! The try-on: one session of trying on and pinning, with everything that was entered in it. Kept as it was entered; everything else is
//! derived.

mod merge;

#[cfg(test)]
mod tests;

pub use merge::{Apart, Prefer, merge, rebase};
pub(crate) use merge::{Merging, Parts};

use crate::change::{Change, ChangeKey};
use crate::choice::choice;
use crate::fitting::{
    GarmentSide, HemMark, MovementTest, Observation, PinnedBy, PutOn, Reading, Shut, SidePolicy,
    WantedChange, Worn,
};
use crate::judge::FindingKey;
use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// One session of trying on and pinning.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TryOn {
    /// Made by whoever entered it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub id: Option<Uuid>,
    /// The state of the garment that it was measured on: its stations are measured from that one's edges.
    pub state: Uuid,
    /// The day.
    #[schema(value_type = String, format = Date)]
    pub date: jiff::civil::Date,
    /// Right side out or inside out.
    #[serde(default)]
    pub worn: Worn,
    /// Who set the pins.
    #[serde(default)]
    pub pinned_by: PinnedBy,
    /// What is worn beneath.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub layers: String,
    /// The shoes it is worn with: hems are marked in them.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub shoes: String,
    /// How it was closed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shut: Option<Shut>,
    /// How the wearer stood, where that matters.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub posture: String,
    /// Whatever else matters, in the sewist's words.
    #[serde(default)]
    pub conditions: String,
    /// By how much girths are to change, where nobody has decided yet which seams carry it; each level once.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub wanted: Vec<WantedChange>,
    /// What is to be changed, and what was pinned for it; each change once.
    #[serde(default)]
    pub changes: Vec<Change>,
    /// Other ways that were tried out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub versions: Vec<Version>,
    /// Checks that are passed over.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub passed_over: Vec<PassedOver>,
    /// Rows of cards that are chalked.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub chalked: Vec<Chalked>,
    /// Marks around hems.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub hem_marks: Vec<HemMark>,
    /// What the cloth did.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub observations: Vec<Observation>,
    /// How moving about went.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub movements: Vec<MovementTest>,
    /// Places that could not be reached, or are to be copied from their other side.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub left_out: Vec<LeftOut>,
    /// It is over: nobody who was invited adds to it any more.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub closed: bool,
}

/// Changes that were tried out and kept under a name, beside those that are to be sewn.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Version {
    /// What it is called.
    pub name: String,
    /// What it changes.
    #[serde(default)]
    pub changes: Vec<Change>,
}

/// A check that the sewist passes over, and why.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PassedOver {
    /// Which finding: known by what it is about, whatever it is called.
    pub finding: FindingKey,
    /// A word why; kept with the try-on.
    pub why: String,
}

/// A row of a card that is chalked: known by where it lies, whatever the tape and the device.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Chalked {
    /// On the card of which change.
    pub change: ChangeKey,
    /// The exact station.
    pub at: Measure,
}

choice! {
    /// Why a place has no pin.
    Why {
        OutOfReach => "out of reach",
        CopyLater => "to be copied from the other side",
    }
}

/// A place without a pin that nobody forgot.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LeftOut {
    /// Of which change.
    pub change: ChangeKey,
    /// On which side of the garment.
    pub side: GarmentSide,
    /// At which level.
    pub level: Level,
    /// Why.
    pub why: Why,
}

/// What was meant by the sides that were entered, when it turns out that the garment was worn the other way out.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Meant {
    /// They were the garment's: a pin stays on its side of the garment.
    SidesOfGarment,
    /// They were the wearer's: a pin stays on its side of the wearer, and so moves to the garment's other side.
    SidesOfWearer,
}

impl TryOn {
    /// A try-on of a state of a garment, with nothing in it yet.
    pub fn on(state: Uuid, date: jiff::civil::Date) -> Self {
        Self {
            id: None,
            state,
            date,
            worn: Worn::default(),
            pinned_by: PinnedBy::default(),
            layers: String::new(),
            shoes: String::new(),
            shut: None,
            posture: String::new(),
            conditions: String::new(),
            wanted: Vec::new(),
            changes: Vec::new(),
            versions: Vec::new(),
            passed_over: Vec::new(),
            chalked: Vec::new(),
            hem_marks: Vec::new(),
            observations: Vec::new(),
            movements: Vec::new(),
            left_out: Vec::new(),
            closed: false,
        }
    }

    /// A try-on as this one was when it was begun: the same day, worn the same way, and nothing entered in any of its lists.
    pub fn begun(&self) -> Self {
        Self {
            id: self.id,
            worn: self.worn,
            pinned_by: self.pinned_by,
            layers: self.layers.clone(),
            shoes: self.shoes.clone(),
            shut: self.shut,
            posture: self.posture.clone(),
            conditions: self.conditions.clone(),
            closed: self.closed,
            ..Self::on(self.state, self.date)
        }
    }

    /// A new try-on of a state, worn as this one was.
    pub fn again(&self, state: Uuid, date: jiff::civil::Date) -> Self {
        Self {
            worn: self.worn,
            pinned_by: self.pinned_by,
            layers: self.layers.clone(),
            shoes: self.shoes.clone(),
            ..Self::on(state, date)
        }
    }

    /// The change of that key, if it was entered.
    pub fn change(&self, key: ChangeKey) -> Option<&Change> {
        self.changes.iter().find(|change| change.key() == key)
    }

    /// Every side that something was entered for.
    pub(crate) fn sides_mut(&mut self) -> impl Iterator<Item = &mut GarmentSide> {
        let tried = self.versions.iter_mut().flat_map(|v| &mut v.changes);
        let pins = self.changes.iter_mut().chain(tried).flat_map(Change::readings_mut).map(|r| &mut r.side);
        let passed = self.passed_over.iter_mut().filter_map(|p| p.finding.side.as_mut());
        let hems = self.hem_marks.iter_mut().filter_map(|m| m.side.as_mut());
        let seen = self.observations.iter_mut().filter_map(|o| o.side.as_mut());
        pins.chain(passed).chain(hems).chain(seen).chain(self.left_out.iter_mut().map(|l| &mut l.side))
    }

    /// Every reading, whatever it is on.
    pub fn readings(&self) -> impl Iterator<Item = &Reading> {
        self.changes.iter().flat_map(Change::readings)
    }

    /// How the garment was put on.
    pub const fn put_on(&self) -> PutOn {
        PutOn { worn: self.worn, pinned_by: self.pinned_by }
    }

    /// The same try-on after it turned out which way out the garment was worn; nothing where sides were entered, and whoever entered them
    /// must say what they meant.
    pub fn turned_unasked(&self, worn: Worn) -> Option<Self> {
        let turned = self.turned(worn, Meant::SidesOfGarment);
        (turned == self.turned(worn, Meant::SidesOfWearer)).then_some(turned)
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
            let tried = turned.versions.iter_mut().flat_map(|v| &mut v.changes);
            for policy in turned.changes.iter_mut().chain(tried).filter_map(Change::policy_mut) {
                *policy = match *policy {
                    SidePolicy::Left => SidePolicy::Right,
                    SidePolicy::Right => SidePolicy::Left,
                    same @ (SidePolicy::Mean
                    | SidePolicy::Larger
                    | SidePolicy::Smaller
                    | SidePolicy::KeepEach) => same,
                };
            }
        }
        turned
    }
}
