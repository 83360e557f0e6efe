//! The record: what was done to a garment, entry by entry. It only grows.

use crate::change::ChangeKey;
use crate::garment::GarmentLevel;
use crate::work::{Correction, Money};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// Something that was done.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Entry {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// The day.
    #[schema(value_type = String, format = Date)]
    pub date: jiff::civil::Date,
    /// What happened.
    pub what: Happened,
    /// Why, in the sewist's words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub why: String,
}

/// What can happen to a garment.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum Happened {
    /// It was sewn: from one state it came to the next.
    Sewn {
        /// The state before.
        from: Uuid,
        /// The state it made.
        to: Uuid,
        /// The try-on whose changes were sewn, if it was one.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        try_on: Option<Uuid>,
        /// Which of its changes were sewn; all of them when none is named.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        changes: Vec<ChangeKey>,
        /// Where it was sewn otherwise than chalked: the chalked line is the datum.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        otherwise: Vec<Correction>,
        /// What was measured afterwards: this replaces what was derived.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        measured: Vec<GarmentLevel>,
        /// Of which changes cloth was cut away: these cannot be taken back as they were.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        cut: Vec<ChangeKey>,
    },
    /// What an entry sewed was taken back, while nothing had been cut.
    TakenBack {
        /// The entry.
        entry: Uuid,
        /// The state before.
        from: Uuid,
        /// The state it made.
        to: Uuid,
    },
    /// It was worn.
    Worn {
        /// How often.
        times: u16,
    },
    /// Money was spent on it.
    Spent {
        /// What on.
        on: String,
        /// How much.
        money: Money,
    },
}

impl Entry {
    /// The states that it came from and made; nothing of an entry that leaves the garment as it is.
    pub const fn made(&self) -> Option<(Uuid, Uuid)> {
        match &self.what {
            Happened::Sewn { from, to, .. } | Happened::TakenBack { from, to, .. } => Some((*from, *to)),
            Happened::Worn { .. } | Happened::Spent { .. } => None,
        }
    }
}
