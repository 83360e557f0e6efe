//! The document: one garment with its history, its wearer and its try-ons, as they were measured. Everything else is derived from it.

mod record;
pub mod v1;
mod validity;

#[cfg(test)]
mod tests;

pub use record::{Entry, Happened};
pub(crate) use validity::LONGEST_NAME;
pub use validity::{
    MOST_ENTRIES, MOST_TRY_ONS, too_many_readings, wrong_entry, wrong_logged, wrong_state, wrong_try_on,
    wrong_wearer,
};

use crate::body::Wearer;
use crate::garment::Garment;
use crate::try_on::TryOn;
use crate::work::{Logged, Wishes};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// The version of the document this code writes. It reads every one before.
pub const VERSION: u32 = 2;

/// A garment with its history, who wears it, and its try-ons. Every length is text with its unit, exactly as written.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Document {
    /// Version of this format: 2.
    #[schema(minimum = 2, maximum = 2)]
    pub version: u32,
    /// What was done to the garment, the oldest first. Nothing in it is changed or taken away; what undoes something is a new entry.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub record: Vec<Entry>,
    /// Who wears it.
    pub wearer: Wearer,
    /// The garment as it was found each time, the oldest first: the newest is how it is now.
    pub states: Vec<State>,
    /// Try-ons, the oldest first; each names the state it was measured on.
    #[serde(default)]
    pub try_ons: Vec<TryOn>,
    /// What is wished for the work on it.
    #[serde(default, skip_serializing_if = "is_unsaid")]
    pub wishes: Wishes,
    /// What was done, task by task, the oldest first. It only grows.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub log: Vec<Logged>,
}

fn is_unsaid(wishes: &Wishes) -> bool {
    *wishes == Wishes::default()
}

/// A garment between one sewing and the next. Correcting what was found is a new revision of the same state, and what was measured on it
/// follows; sewing makes the next state, and what was measured on older ones stays with them.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct State {
    /// Made by whoever made the state; stays with it for good.
    pub id: Uuid,
    /// Goes up by one with every correction.
    #[serde(default = "first_revision")]
    pub revision: u32,
    /// Its facts.
    pub garment: Garment,
}

const fn first_revision() -> u32 {
    1
}

impl State {
    /// A garment that was found so for the first time.
    pub const fn first(id: Uuid, garment: Garment) -> Self {
        Self { id, revision: first_revision(), garment }
    }
}

impl Document {
    /// A document of a garment in one state, on its wearer.
    pub fn of(wearer: Wearer, state: State, try_ons: Vec<TryOn>) -> Self {
        Self { try_ons, ..Self::of_states(wearer, vec![state]) }
    }

    /// A document of a garment in these states, on its wearer, and nothing else yet.
    pub fn of_states(wearer: Wearer, states: Vec<State>) -> Self {
        Self {
            version: VERSION,
            record: Vec::new(),
            wearer,
            states,
            try_ons: Vec::new(),
            wishes: Wishes::default(),
            log: Vec::new(),
        }
    }

    /// The state of that id. Nothing where there is none.
    pub fn state(&self, id: Uuid) -> Option<&State> {
        self.states.iter().find(|state| state.id == id)
    }

    /// Its newest state was made by its record, and nobody tried it on since.
    pub fn is_finished(&self) -> bool {
        let newest = self.newest().map(|state| state.id);
        let made = self.record.iter().rev().find_map(Entry::made).map(|(_, to)| to);
        made.is_some() && made == newest && self.try_ons.iter().all(|try_on| Some(try_on.state) != newest)
    }

    /// How the garment is now; nothing in a document without a state, which has a fault.
    pub fn newest(&self) -> Option<&State> {
        self.states.last()
    }
}
