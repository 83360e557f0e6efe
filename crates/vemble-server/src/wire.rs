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
use vemble_core::work::Workroom;
use vemble_exchange::document::Complaint;
use vemble_store::{StoredDocument, StoredTryOn, StoredWearer, StoredWorkroom};

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
    /// The version of what is wished for the work on it; 0 where nothing is.
    wishes_version: i32,
    /// The stages of its work, in order.
    stages: Vec<StageLine>,
    /// Where to go on.
    go_on: Stage,
    /// The garment with its history, its wearer and its try-ons.
    document: Document,
}

impl GarmentState {
    /// As it is stored, without its stages: for whoever was behind, who asks anew.
    pub fn behind(stored: StoredDocument) -> Self {
        let StoredDocument { id, version, wearer_id, archived, try_on_versions, wishes_version, document } =
            stored;
        let (stages, go_on) = (Vec::new(), Stage::LookOver);
        Self { id, version, wearer_id, archived, try_on_versions, wishes_version, stages, go_on, document }
    }

    /// With its stages as they are judged on a tape.
    pub fn of(stored: StoredDocument, tape: Tape) -> Self {
        // What cannot be worked out is looked over.
        let staged = unbroken(|| stages(&stored.document, tape));
        let (stages, go_on) = staged.unwrap_or_else(|| (Vec::new(), Stage::LookOver));
        Self { stages, go_on, ..Self::behind(stored) }
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

/// A workroom with the version that the next change has to name.
#[derive(Debug, Serialize, ToSchema)]
pub struct WorkroomState {
    /// The version that was read; 0 where nothing is stored yet.
    version: i32,
    /// Others read its evenings by a code.
    has_calendar: bool,
    /// What is in it.
    workroom: Workroom,
}

impl WorkroomState {
    pub fn of(stored: StoredWorkroom) -> Self {
        let StoredWorkroom { version, has_calendar, workroom } = stored;
        Self { version, has_calendar, workroom }
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
    /// The id of the request, by which the log tells what happened.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub request: Option<Uuid>,
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
    /// The workroom as it is stored now, when somebody else was faster.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub stored_workroom: Option<Box<WorkroomState>>,
}
