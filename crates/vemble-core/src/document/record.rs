//! The record: what was done to a garment, entry by entry. It only grows.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// Something that was done.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Entry {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// The day.
    #[schema(value_type = String, format = Date)]
    pub date: jiff::civil::Date,
    /// What happened.
    pub what: Happened,
}

/// What can happen to a garment.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
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
    },
}

impl Entry {
    /// The state that it made.
    pub const fn made(&self) -> Uuid {
        match self.what {
            Happened::Sewn { to, .. } => to,
        }
    }
}
