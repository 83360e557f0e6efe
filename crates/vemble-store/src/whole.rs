//! A whole account, filled from documents.

use crate::format::{FORMAT, facts_of};
use crate::readings::rows_of;
use crate::schema::{garments, readings, try_ons, wearers, workrooms};
use crate::states::{add_entry, add_state};
use crate::work::{add_logged, add_wishes};
use crate::{AccountStore, StoreError};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use serde_json::Value;
use uuid::Uuid;
use vemble_core::body::Wearer;
use vemble_core::document::Document;
use vemble_core::work::{Wishes, Workroom};

impl AccountStore<'_> {
    /// Empties the account and fills it with `documents` and a workroom, whole or not at all.
    ///
    /// # Errors
    /// Whatever the database reports; the account is then as it was.
    pub async fn replace_all(&self, documents: &[Document], workroom: &Workroom) -> Result<(), StoreError> {
        let account = self.account;
        let mut connection = self.connection().await?;
        connection
            .transaction::<_, StoreError, _>(async |connection| {
                diesel::delete(garments::table.filter(garments::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                diesel::delete(wearers::table.filter(wearers::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                diesel::delete(workrooms::table.find(account)).execute(connection).await?;
                let room = (
                    workrooms::account_id.eq(account),
                    workrooms::format.eq(FORMAT),
                    workrooms::facts.eq(serde_json::to_value(workroom)?),
                );
                diesel::insert_into(workrooms::table).values(room).execute(connection).await?;
                let mut known: Vec<(Value, Uuid)> = Vec::new();
                for document in documents {
                    insert(connection, account, document, &mut known).await?;
                }
                Ok(())
            })
            .await
    }
}

/// Adds a garment of a document, and its wearer where they are not among `known`.
async fn insert(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    document: &Document,
    known: &mut Vec<(Value, Uuid)>,
) -> Result<(), StoreError> {
    let wearer = serde_json::to_value(&document.wearer)?;
    let wearer_id = match known.iter().find(|k| k.0 == wearer) {
        Some((_, id)) => *id,
        None => {
            let id = Uuid::now_v7();
            add_wearer(connection, (account, id), &document.wearer).await?;
            known.push((wearer, id));
            id
        }
    };
    add_garment(connection, (account, Uuid::now_v7()), (wearer_id, false), document).await
}

/// Adds a wearer.
pub(crate) async fn add_wearer(
    connection: &mut AsyncPgConnection,
    (account, id): (Uuid, Uuid),
    wearer: &Wearer,
) -> Result<(), StoreError> {
    let row = (
        wearers::account_id.eq(account),
        wearers::id.eq(id),
        wearers::format.eq(FORMAT),
        wearers::facts.eq(serde_json::to_value(wearer)?),
    );
    diesel::insert_into(wearers::table).values(row).execute(connection).await?;
    Ok(())
}

/// Adds a garment of a document under its id: worn by whom, put away or not.
pub(crate) async fn add_garment(
    connection: &mut AsyncPgConnection,
    (account, garment): (Uuid, Uuid),
    (wearer, archived): (Uuid, bool),
    document: &Document,
) -> Result<(), StoreError> {
    let row = (
        garments::account_id.eq(account),
        garments::id.eq(garment),
        garments::wearer_id.eq(wearer),
        garments::archived.eq(archived),
    );
    diesel::insert_into(garments::table).values(row).execute(connection).await?;
    for (state, position) in document.states.iter().zip(0..) {
        add_state(connection, (account, garment), position, state).await?;
    }
    for (entry, position) in document.record.iter().zip(0..) {
        add_entry(connection, (account, garment), position, entry).await?;
    }
    if document.wishes != Wishes::default() {
        add_wishes(connection, (account, garment), &document.wishes).await?;
    }
    for (entry, position) in document.log.iter().zip(0..) {
        add_logged(connection, (account, garment), position, entry).await?;
    }
    for try_on in &document.try_ons {
        let id = try_on.id.unwrap_or_else(Uuid::now_v7);
        let row = (
            try_ons::account_id.eq(account),
            try_ons::id.eq(id),
            try_ons::garment_id.eq(garment),
            try_ons::state_id.eq(try_on.state),
            try_ons::format.eq(FORMAT),
            try_ons::facts.eq(facts_of(try_on)?),
        );
        diesel::insert_into(try_ons::table).values(row).execute(connection).await?;
        diesel::insert_into(readings::table)
            .values(&rows_of(account, id, try_on))
            .execute(connection)
            .await?;
    }
    Ok(())
}
