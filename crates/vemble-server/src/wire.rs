//! What is sent of what is stored, with the version that the next change has to name, and problems. It knows no route.

use crate::unbroken::unbroken;
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::body::Wearer;
use vemble_core::document::Document;
use vemble_core::length::Tape;
use vemble_core::solve::stages;
use vemble_core::stages::{Stage, StageLine};
use vemble_core::try_on::{Apart, TryOn};
use vemble_exchange::document::Complaint;
use vemble_store::{StoredDocument, StoredTryOn, StoredWearer};

/// A garment with its history, its wearer and its try-ons.
#[derive(Debug, Serialize, ToSchema)]
pub struct GarmentState {
    /// The garment's id.
    id: Uuid,
    /// The version of the garment: it goes up with every correction and whatever is entered in its record.
    version: i32,
    /// Who wears it.
    wearer_id: Uuid,
    /// It is put away.
    archived: bool,
    /// The version of each try-on, in the document's order.
    try_on_versions: Vec<i32>,
    /// The stages of its work, in order.
    stages: Vec<StageLine>,
    /// Where to go on.
    go_on: Stage,
    /// The garment with its history, its wearer and its try-ons.
    document: Document,
}

impl GarmentState {
    /// With its stages as they are judged on a tape.
    pub fn of(stored: StoredDocument, tape: Tape) -> Self {
        let StoredDocument { id, version, wearer_id, archived, try_on_versions, document } = stored;
        // What cannot be worked out is looked over.
        let staged = unbroken(|| stages(&document, tape));
        let (stages, go_on) = staged.unwrap_or_else(|| (Vec::new(), Stage::LookOver));
        Self { id, version, wearer_id, archived, try_on_versions, stages, go_on, document }
    }
}

/// A try-on with the version that the next change has to name.
#[derive(Debug, Serialize, ToSchema)]
pub struct TryOnState {
    /// Its version.
    version: i32,
    /// The try-on, whole.
    try_on: TryOn,
    /// It is what was just sent, and nothing that somebody else entered.
    as_sent: bool,
}

impl TryOnState {
    pub fn of(stored: StoredTryOn) -> Self {
        Self::after(stored, false)
    }

    /// What is stored after something was sent: that and nothing else, or not.
    pub fn after(stored: StoredTryOn, as_sent: bool) -> Self {
        Self { version: stored.version, try_on: stored.try_on, as_sent }
    }
}

/// A wearer with the version that the next change has to name.
#[derive(Debug, Serialize, ToSchema)]
pub struct WearerState {
    /// Their id.
    id: Uuid,
    /// The version that was read.
    version: i32,
    /// Name, measurements and notes.
    wearer: Wearer,
    /// How many garments they have.
    garments: i64,
}

impl WearerState {
    pub fn of(stored: StoredWearer) -> Self {
        Self { id: stored.id, version: stored.version, wearer: stored.wearer, garments: stored.garments }
    }
}

/// A problem as it is sent: `application/problem+json`.
#[derive(Debug, Serialize, ToSchema)]
pub struct Problem {
    /// What kind of problem, as a word that does not change.
    #[serde(rename = "type")]
    pub kind: &'static str,
    /// The kind in words.
    pub title: &'static str,
    /// The HTTP status.
    pub status: u16,
    /// What to do about it.
    pub detail: String,
    /// Each thing wrong in what was sent, with its JSON path.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub errors: Vec<Complaint>,
    /// What is stored now, when somebody else was faster. What was sent is still with whoever sent it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub stored: Option<TryOnState>,
    /// What both changed, each in another way: the rest is brought together once somebody decides about these.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub apart: Vec<Apart>,
    /// The garment as it is stored now, when somebody else was faster.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub stored_garment: Option<Box<GarmentState>>,
    /// The wearer as they are stored now, when somebody else was faster.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub stored_wearer: Option<Box<WearerState>>,
}
