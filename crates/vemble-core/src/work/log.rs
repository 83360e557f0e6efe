//! The log: what was done when, entry by entry. It only grows; what takes something back is a new entry.

use super::key::TaskKey;
use super::room::SupplyKind;
use crate::change::ChangeKey;
use crate::fitting::GarmentSide;
use crate::length::Measure;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// Something that was done to a task.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Logged {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// The state of the garment that was worked on: the next one has tasks of its own.
    pub state: Uuid,
    /// When.
    #[schema(value_type = String, format = DateTime)]
    pub at: jiff::Timestamp,
    /// Which task.
    pub task: TaskKey,
    /// What was done.
    pub did: Did,
    /// How long it took, in minutes, as somebody said; else it is from when it was begun to when it was done.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(maximum = 1440)]
    pub minutes: Option<u16>,
    /// In the sewist's words; why, where a gate is passed without its verdict.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// What it used up.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub used: Vec<Used>,
}

/// What can be done to a task.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum Did {
    /// It was begun.
    Begin,
    /// It is done.
    Done,
    /// It is left out.
    Skip,
    /// It could not be done.
    CouldNot,
    /// It is to be done after all, or anew.
    Reopen,
    /// Of a gate: it fits.
    Fits {
        /// On this side; on all of it when absent.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        side: Option<GarmentSide>,
    },
    /// Of a gate: it does not fit yet, and what is to be changed about the line that was basted.
    FitsNot {
        /// What is to be changed.
        #[serde(default)]
        corrections: Vec<Correction>,
    },
    /// Of a gate: passed without its verdict; the note says why.
    PassAnyway,
    /// A word about it, and nothing else.
    Note,
}

/// What is to be changed about a line that was basted or sewn: that line is the datum.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Correction {
    /// Of which change.
    pub change: ChangeKey,
    /// On which side of the garment; both when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<GarmentSide>,
    /// Where, from what the change measures from.
    pub station: Measure,
    /// How much more comes off each edge; negative where less.
    pub per_edge: Measure,
}

/// Something that was used up.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Used {
    /// What.
    pub kind: SupplyKind,
    /// Which: a colour, a width.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub which: String,
    /// How much: centimetres, or pieces.
    pub amount: u32,
}
