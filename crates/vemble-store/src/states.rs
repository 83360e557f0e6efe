//! The history of a garment: its states, and the record of what was done to it.

use crate::format::{FORMAT, read};
use crate::notices::{Notice, tell};
use crate::schema::{garment_states, garments, record_entries, try_ons};
use crate::{AccountStore, StoreError, StoredDocument};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use serde_json::Value;
use std::collections::HashMap;
use uuid::Uuid;
use vemble_core::document::{Entry, Happened, MOST_ENTRIES, State};
use vemble_core::garment::Garment;

/// What was done: an entry of the record, and the garment as it is then.
pub struct Entered {
    /// The entry; it names the state it makes, if it makes one.
    pub entry: Entry,
    /// The facts of that state; not looked at where the entry makes none.
    pub garment: Option<Garment>,
}

/// The states of garments, from the oldest to the newest.
pub(crate) async fn states_in(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    garments: &[Uuid],
) -> Result<HashMap<Uuid, Vec<State>>, StoreError> {
    let rows: Vec<(Uuid, Uuid, i32, i32, Value)> = garment_states::table
        .filter(garment_states::account_id.eq(account).and(garment_states::garment_id.eq_any(garments)))
        .order((garment_states::garment_id, garment_states::position))
        .select((
            garment_states::garment_id,
            garment_states::id,
            garment_states::revision,
            garment_states::format,
            garment_states::facts,
        ))
        .load(connection)
        .await?;
    let mut states: HashMap<Uuid, Vec<State>> = HashMap::new();
    for (garment, id, revision, format, facts) in rows {
        let revision = revision.unsigned_abs();
        states.entry(garment).or_default().push(State { id, revision, garment: read(format, facts)? });
    }
    Ok(states)
}

/// The records of garments, from the oldest entry to the newest.
pub(crate) async fn records_in(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    garments: &[Uuid],
) -> Result<HashMap<Uuid, Vec<Entry>>, StoreError> {
    let rows: Vec<(Uuid, i32, Value)> = record_entries::table
        .filter(record_entries::account_id.eq(account).and(record_entries::garment_id.eq_any(garments)))
        .order((record_entries::garment_id, record_entries::position))
        .select((record_entries::garment_id, record_entries::format, record_entries::facts))
        .load(connection)
        .await?;
    let mut records: HashMap<Uuid, Vec<Entry>> = HashMap::new();
    for (garment, format, facts) in rows {
        records.entry(garment).or_default().push(read(format, facts)?);
    }
    Ok(records)
}

/// Adds a state to a garment.
pub(crate) async fn add_state(
    connection: &mut AsyncPgConnection,
    (account, garment): (Uuid, Uuid),
    position: i32,
    state: &State,
) -> Result<(), StoreError> {
    let row = (
        garment_states::account_id.eq(account),
        garment_states::garment_id.eq(garment),
        garment_states::id.eq(state.id),
        garment_states::position.eq(position),
        garment_states::revision.eq(i32::try_from(state.revision).unwrap_or(i32::MAX)),
        garment_states::format.eq(FORMAT),
        garment_states::facts.eq(serde_json::to_value(&state.garment)?),
    );
    diesel::insert_into(garment_states::table).values(row).execute(connection).await?;
    Ok(())
}

/// Adds an entry to the record of a garment.
pub(crate) async fn add_entry(
    connection: &mut AsyncPgConnection,
    (account, garment): (Uuid, Uuid),
    position: i32,
    entry: &Entry,
) -> Result<(), StoreError> {
    let row = (
        record_entries::account_id.eq(account),
        record_entries::garment_id.eq(garment),
        record_entries::id.eq(entry.id),
        record_entries::position.eq(position),
        record_entries::format.eq(FORMAT),
        record_entries::facts.eq(serde_json::to_value(entry)?),
    );
    diesel::insert_into(record_entries::table).values(row).execute(connection).await?;
    Ok(())
}

impl AccountStore<'_> {
    /// Enters in the record of a garment what was done, with the state that it makes if it makes one; both or neither. What is sent twice is
    /// entered once. Gives the garment as it is stored then.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if the garment, or the try-on that was sewn, is not this account's; [`StoreError::StaleGarment`] with what
    /// is stored if it was sewn from another state than the newest; [`StoreError::IdTaken`] if an id is another's already.
    pub async fn enter(&self, garment: Uuid, entered: &Entered) -> Result<StoredDocument, StoreError> {
        let (account, Entered { entry, garment: facts }) = (self.account, entered);
        let try_on = match &entry.what {
            Happened::Sewn { try_on, .. } => *try_on,
            Happened::TakenBack { .. } | Happened::Worn { .. } | Happened::Spent { .. } => None,
        };
        let mut connection = self.connection().await?;
        let is_from_newest = connection
            .transaction::<_, StoreError, _>(async |connection| {
                let own = garments::table.find((account, garment));
                // Whoever else changes this garment waits until this is done.
                own.select(garments::id).for_update().first::<Uuid>(connection).await?;
                let mut records = records_in(connection, account, &[garment]).await?;
                let record = records.remove(&garment).unwrap_or_default();
                if let Some(known) = record.iter().find(|known| known.id == entry.id) {
                    return if known == entry { Ok(true) } else { Err(StoreError::IdTaken) };
                }
                let mut states = states_in(connection, account, &[garment]).await?;
                let states = states.remove(&garment).unwrap_or_default();
                let made = entry.made().zip(facts.as_ref());
                if entry.made().is_some_and(|(from, _)| states.last().is_none_or(|newest| newest.id != from))
                {
                    return Ok(false);
                }
                if entry.made().is_some() && made.is_none() {
                    return Err(StoreError::NotFound);
                }
                if let Some(try_on) = try_on {
                    let of_garment = try_ons::table.find((account, try_on));
                    let of_garment = of_garment.filter(try_ons::garment_id.eq(garment));
                    of_garment.select(try_ons::id).first::<Uuid>(connection).await?;
                }
                if record.len() >= MOST_ENTRIES {
                    return Err(StoreError::Full("entries in the record of one garment"));
                }
                let at = |n: usize| i32::try_from(n).unwrap_or(i32::MAX);
                if let Some(((_, to), facts)) = made {
                    let state = State::first(to, facts.clone());
                    add_state(connection, (account, garment), at(states.len()), &state).await?;
                }
                add_entry(connection, (account, garment), at(record.len()), entry).await?;
                let newer = garments::version.eq(garments::version + 1);
                let version = diesel::update(own).set(newer).returning(garments::version);
                let version = Some(version.get_result(connection).await?);
                tell(connection, &Notice::Garment { account, garment, version }).await?;
                Ok(true)
            })
            .await?;
        drop(connection);
        let stored = self.document(garment).await?;
        if is_from_newest { Ok(stored) } else { Err(StoreError::StaleGarment(Box::new(stored))) }
    }
}
