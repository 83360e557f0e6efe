//! A whole account, filled from documents.

use crate::format::{FORMAT, facts_of};
use crate::readings::rows_of;
use crate::schema::{garments, readings, try_ons, wearers};
use crate::states::{add_entry, add_state};
use crate::{AccountStore, StoreError};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use serde_json::Value;
use uuid::Uuid;
use vemble_core::document::Document;

impl AccountStore<'_> {
    /// Empties the account and fills it with `documents`, whole or not at all.
    ///
    /// # Errors
    /// Whatever the database reports; the account is then as it was.
    pub async fn replace_all(&self, documents: &[Document]) -> Result<(), StoreError> {
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
                let mut known: Vec<(Value, Uuid)> = Vec::new();
                for document in documents {
                    insert(connection, account, document, &mut known).await?;
                }
                Ok(())
            })
            .await
    }
}

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
            let row = (
                wearers::account_id.eq(account),
                wearers::id.eq(id),
                wearers::format.eq(FORMAT),
                wearers::facts.eq(&wearer),
            );
            diesel::insert_into(wearers::table).values(row).execute(connection).await?;
            known.push((wearer, id));
            id
        }
    };
    let garment = Uuid::now_v7();
    let row = (garments::account_id.eq(account), garments::id.eq(garment), garments::wearer_id.eq(wearer_id));
    diesel::insert_into(garments::table).values(row).execute(connection).await?;
    for (state, position) in document.states.iter().zip(0..) {
        add_state(connection, (account, garment), position, state).await?;
    }
    for (entry, position) in document.record.iter().zip(0..) {
        add_entry(connection, (account, garment), position, entry).await?;
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
