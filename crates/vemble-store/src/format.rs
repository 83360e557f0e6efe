//! The format of what is stored: each row says its own, and every one that was ever released is read.

use crate::StoreError;
use crate::readings::{ReadingRow, readings_of};
use serde::de::{DeserializeOwned, Error};
use serde_json::Value;
use uuid::Uuid;
use vemble_core::document::v1::TryOnV1;
use vemble_core::document::{Document, VERSION};
use vemble_core::try_on::TryOn;

/// What rows are written in: the version of the document.
pub(crate) const FORMAT: i32 = VERSION as i32;

/// Facts of a wearer, a state or the record: these are the same in every format so far.
///
/// # Errors
/// [`StoreError::Unreadable`] for a format that is newer than this code, and for what is no such facts.
pub(crate) fn read<T: DeserializeOwned>(format: i32, facts: Value) -> Result<T, StoreError> {
    match format {
        1 | FORMAT => Ok(serde_json::from_value(facts)?),
        _ => Err(StoreError::Unreadable(later(format))),
    }
}

fn later(format: i32) -> serde_json::Error {
    serde_json::Error::custom(format!("format {format} needs a newer Vemble"))
}

/// A try-on as it is stored, apart from its readings.
#[derive(Clone, diesel::Queryable)]
pub(crate) struct TryOnRow {
    pub id: Uuid,
    pub garment_id: Uuid,
    pub state_id: Uuid,
    pub version: i32,
    format: i32,
    facts: Value,
}

impl TryOnRow {
    /// The try-on of this row with its readings, brought up where it is of an older format; `garment` is the document that it stands in.
    ///
    /// # Errors
    /// As [`read`].
    pub fn read(self, garment: &Document, rows: &[ReadingRow]) -> Result<TryOn, StoreError> {
        let Self { id, state_id, format, facts, .. } = self;
        let mut try_on = match format {
            1 => {
                let old: TryOnV1 = serde_json::from_value(facts)?;
                let old = old.with_readings(|number| readings_of(rows, id, number))?;
                let state = garment.state(state_id).ok_or(StoreError::NotFound)?;
                old.brought_up(state_id, &state.garment, &garment.wearer)
            }
            FORMAT => {
                let mut try_on: TryOn = serde_json::from_value(facts)?;
                for (number, change) in try_on.changes.iter_mut().enumerate() {
                    change.set_readings(readings_of(rows, id, number)?);
                }
                try_on
            }
            _ => return Err(StoreError::Unreadable(later(format))),
        };
        try_on.id = Some(id);
        try_on.state = state_id;
        Ok(try_on)
    }
}

/// A try-on without its id and readings, which have places of their own.
pub(crate) fn facts_of(try_on: &TryOn) -> Result<Value, StoreError> {
    let mut facts = TryOn { id: None, ..try_on.clone() };
    facts.changes.iter_mut().for_each(|change| change.set_readings(Vec::new()));
    Ok(serde_json::to_value(facts)?)
}
