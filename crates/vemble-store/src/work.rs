//! What is entered about the work: the workroom, wishes, and the log.

use crate::format::{FORMAT, read};
use crate::schema::{garments, log_entries, wishes, workrooms};
use crate::{AccountStore, Failed, Sees, Store, StoreError, StoredDocument};
use diesel::prelude::*;
use diesel::upsert::excluded;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use futures_util::future::BoxFuture;
use serde_json::Value;
use std::collections::HashMap;
use uuid::Uuid;
use vemble_core::work::{Logged, Wishes, Workroom};

/// A workroom as stored.
#[derive(Clone, Debug)]
pub struct StoredWorkroom {
    /// The next change has to name it; 0 where nothing is stored yet.
    pub version: i32,
    /// It has a calendar that others can read by its code.
    pub has_calendar: bool,
    /// What is in it.
    pub workroom: Workroom,
}

/// The wishes of garments, each with its version.
pub(crate) async fn wishes_in(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    garments: &[Uuid],
) -> Result<HashMap<Uuid, (i32, Wishes)>, StoreError> {
    let rows: Vec<(Uuid, i32, i32, Value)> = wishes::table
        .filter(wishes::account_id.eq(account).and(wishes::garment_id.eq_any(garments)))
        .select((wishes::garment_id, wishes::version, wishes::format, wishes::facts))
        .load(connection)
        .await?;
    rows.into_iter().map(|(id, version, format, facts)| Ok((id, (version, read(format, facts)?)))).collect()
}

/// The logs of garments, from the oldest entry to the newest.
pub(crate) async fn logs_in(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    garments: &[Uuid],
) -> Result<HashMap<Uuid, Vec<Logged>>, StoreError> {
    let rows: Vec<(Uuid, i32, Value)> = log_entries::table
        .filter(log_entries::account_id.eq(account).and(log_entries::garment_id.eq_any(garments)))
        .order((log_entries::garment_id, log_entries::position))
        .select((log_entries::garment_id, log_entries::format, log_entries::facts))
        .load(connection)
        .await?;
    let mut logs: HashMap<Uuid, Vec<Logged>> = HashMap::new();
    for (garment, format, facts) in rows {
        logs.entry(garment).or_default().push(read(format, facts)?);
    }
    Ok(logs)
}

/// Adds an entry to the log of a garment.
pub(crate) async fn add_logged(
    connection: &mut AsyncPgConnection,
    (account, garment): (Uuid, Uuid),
    position: i32,
    entry: &Logged,
) -> Result<(), StoreError> {
    let row = (
        log_entries::account_id.eq(account),
        log_entries::garment_id.eq(garment),
        log_entries::id.eq(entry.id),
        log_entries::position.eq(position),
        log_entries::format.eq(FORMAT),
        log_entries::facts.eq(serde_json::to_value(entry)?),
    );
    diesel::insert_into(log_entries::table).values(row).execute(connection).await?;
    Ok(())
}

/// Stores the wishes for a garment for the first time.
pub(crate) async fn add_wishes(
    connection: &mut AsyncPgConnection,
    (account, garment): (Uuid, Uuid),
    wished: &Wishes,
) -> Result<usize, StoreError> {
    let row = (
        wishes::account_id.eq(account),
        wishes::garment_id.eq(garment),
        wishes::format.eq(FORMAT),
        wishes::facts.eq(serde_json::to_value(wished)?),
    );
    let added = diesel::insert_into(wishes::table).values(row).on_conflict_do_nothing();
    Ok(added.execute(connection).await?)
}

impl Store {
    /// The account whose calendar has this code.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn account_of_calendar(&self, code_hash: &[u8]) -> Result<Option<Uuid>, StoreError> {
        let mut connection = self.connection(Sees::Calendar(code_hash)).await?;
        let found =
            workrooms::table.filter(workrooms::calendar_hash.eq(code_hash)).select(workrooms::account_id);
        Ok(found.first(&mut connection).await.optional()?)
    }
}

impl AccountStore<'_> {
    /// The workroom; an empty one where nothing is stored yet.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn workroom(&self) -> Result<StoredWorkroom, StoreError> {
        let mut connection = self.connection().await?;
        let row: Option<(i32, i32, Value, Option<Vec<u8>>)> = workrooms::table
            .find(self.account)
            .select((workrooms::version, workrooms::format, workrooms::facts, workrooms::calendar_hash))
            .first(&mut connection)
            .await
            .optional()?;
        match row {
            Some((version, format, facts, calendar)) => Ok(StoredWorkroom {
                version,
                has_calendar: calendar.is_some(),
                workroom: read(format, facts)?,
            }),
            None => Ok(StoredWorkroom { version: 0, has_calendar: false, workroom: Workroom::default() }),
        }
    }

    /// Stores the workroom; `version` is the one that was read. Gives the new version.
    ///
    /// # Errors
    /// [`StoreError::StaleWorkroom`] with what is stored if somebody was faster.
    pub async fn put_workroom(&self, version: i32, workroom: &Workroom) -> Result<i32, StoreError> {
        let facts = serde_json::to_value(workroom)?;
        let mut connection = self.connection().await?;
        let changed = if version == 0 {
            let row = (
                workrooms::account_id.eq(self.account),
                workrooms::format.eq(FORMAT),
                workrooms::facts.eq(facts),
            );
            let made = diesel::insert_into(workrooms::table).values(row).on_conflict_do_nothing();
            made.execute(&mut connection).await?
        } else {
            let own = workrooms::table.find(self.account).filter(workrooms::version.eq(version));
            let set = (
                workrooms::version.eq(version.saturating_add(1)),
                workrooms::format.eq(FORMAT),
                workrooms::facts.eq(facts),
            );
            diesel::update(own).set(set).execute(&mut connection).await?
        };
        drop(connection);
        let next = version.saturating_add(1);
        if changed == 1 {
            return Ok(next);
        }
        let there = self.workroom().await?;
        let is_this = there.version == next && there.workroom == *workroom;
        if is_this { Ok(next) } else { Err(StoreError::StaleWorkroom(Box::new(there))) }
    }

    /// Gives the calendar a code, in place of any it had; or none, and nobody reads it any more.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn set_calendar(&self, code_hash: Option<&[u8]>) -> Result<(), StoreError> {
        let row = (
            workrooms::account_id.eq(self.account),
            workrooms::format.eq(FORMAT),
            workrooms::facts.eq(serde_json::to_value(Workroom::default())?),
            workrooms::calendar_hash.eq(code_hash),
        );
        diesel::insert_into(workrooms::table)
            .values(row)
            .on_conflict(workrooms::account_id)
            .do_update()
            .set(workrooms::calendar_hash.eq(excluded(workrooms::calendar_hash)))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Stores what is wished for a garment; `version` is the one that was read, 0 where nothing was. Gives the new version.
    ///
    /// # Errors
    /// [`StoreError::StaleGarment`] with what is stored if somebody was faster, [`StoreError::NotFound`] if the garment is not this account's.
    pub async fn put_wishes(&self, garment: Uuid, version: i32, wished: &Wishes) -> Result<i32, StoreError> {
        let mut connection = self.connection().await?;
        let changed = if version == 0 {
            add_wishes(&mut connection, (self.account, garment), wished).await?
        } else {
            let own = wishes::table.find((self.account, garment)).filter(wishes::version.eq(version));
            let set = (
                wishes::version.eq(version.saturating_add(1)),
                wishes::format.eq(FORMAT),
                wishes::facts.eq(serde_json::to_value(wished)?),
            );
            diesel::update(own).set(set).execute(&mut connection).await?
        };
        drop(connection);
        let next = version.saturating_add(1);
        if changed == 1 {
            return Ok(next);
        }
        let there = self.document(garment).await?;
        let is_this = there.wishes_version == next && there.document.wishes == *wished;
        if is_this { Ok(next) } else { Err(StoreError::StaleGarment(Box::new(there))) }
    }

    /// Adds entries to the log of a garment, all or none, in one transaction in which nobody else adds any. What is there already is left as it
    /// is. `may` judges what is stored, with the entries; what it says against them is given.
    ///
    /// # Errors
    /// What `may` fails with; [`StoreError::NotFound`] if the garment is not this account's.
    pub async fn log<'a, W: Send, E: From<StoreError> + Send>(
        &self,
        garment: Uuid,
        entries: &[Logged],
        may: impl FnOnce(StoredDocument, Vec<Logged>) -> BoxFuture<'a, Result<Result<(), W>, E>> + Send + 'a,
    ) -> Result<Result<(), W>, E> {
        let account = self.account;
        let _place = self.store.deciding().await?;
        let mut connection = self.connection().await?;
        connection
            .transaction::<_, Failed<E>, _>(async |connection| {
                let own = garments::table.find((account, garment));
                own.select(garments::id).for_update().first::<Uuid>(connection).await?;
                let stored =
                    self.loaded(connection, Some(&[garment])).await?.pop().ok_or(StoreError::NotFound)?;
                let known = stored.document.log.clone();
                if let Err(against) = may(stored, entries.to_vec()).await.map_err(Failed)? {
                    return Ok(Err(against));
                }
                let new = entries.iter().filter(|entry| known.iter().all(|other| other.id != entry.id));
                for (entry, position) in new.zip(i32::try_from(known.len()).unwrap_or(i32::MAX)..) {
                    add_logged(connection, (account, garment), position, entry).await?;
                }
                Ok(Ok(()))
            })
            .await
            .map_err(|Failed(error)| error)
    }
}
