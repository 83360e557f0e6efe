//! Wearers: who the garments of an account are fitted to.

use crate::format::{FORMAT, read};
use crate::notices::{Notice, tell};
use crate::schema::{garment_states, garments, wearers};
use crate::{AccountStore, StoreError};
use diesel::dsl::count;
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use serde_json::Value;
use std::collections::HashMap;
use uuid::Uuid;
use vemble_core::body::Wearer;

/// A wearer as stored.
#[derive(Clone, Debug)]
pub struct StoredWearer {
    /// Their id.
    pub id: Uuid,
    /// The next change has to name it.
    pub version: i32,
    /// Name, measurements and notes.
    pub wearer: Wearer,
    /// How many garments they have.
    pub garments: i64,
}

impl AccountStore<'_> {
    /// Everybody in the account, in the order they were entered.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn wearers(&self) -> Result<Vec<StoredWearer>, StoreError> {
        let mut connection = self.connection().await?;
        let rows: Vec<(Uuid, i32, i32, Value)> = wearers::table
            .filter(wearers::account_id.eq(self.account))
            .order(wearers::id)
            .select((wearers::id, wearers::version, wearers::format, wearers::facts))
            .load(&mut connection)
            .await?;
        let counts: HashMap<Uuid, i64> = garments::table
            .filter(garments::account_id.eq(self.account))
            .group_by(garments::wearer_id)
            .select((garments::wearer_id, count(garments::id)))
            .load::<(Uuid, i64)>(&mut connection)
            .await?
            .into_iter()
            .collect();
        let stored = |(id, version, format, facts): (Uuid, i32, i32, Value)| {
            let garments = counts.get(&id).copied().unwrap_or(0);
            Ok(StoredWearer { id, version, wearer: read(format, facts)?, garments })
        };
        rows.into_iter().map(stored).collect()
    }

    /// One wearer.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account has nobody of that id.
    pub async fn wearer(&self, id: Uuid) -> Result<StoredWearer, StoreError> {
        let mut connection = self.connection().await?;
        let (version, format, facts): (i32, i32, Value) = wearers::table
            .find((self.account, id))
            .select((wearers::version, wearers::format, wearers::facts))
            .first(&mut connection)
            .await?;
        let garments = garments::table
            .filter(garments::account_id.eq(self.account).and(garments::wearer_id.eq(id)))
            .count()
            .get_result(&mut connection)
            .await?;
        Ok(StoredWearer { id, version, wearer: read(format, facts)?, garments })
    }

    /// Stores a wearer; `version` is the one that was read, 0 makes a new one. Gives the new version.
    ///
    /// # Errors
    /// [`StoreError::StaleWearer`] with the stored state if somebody was faster, [`StoreError::Full`] if there are as many as there may be.
    pub async fn put_wearer(&self, id: Uuid, version: i32, wearer: &Wearer) -> Result<i32, StoreError> {
        let facts = serde_json::to_value(wearer)?;
        let account = self.account;
        let mut connection = self.connection().await?;
        let changed = connection
            .transaction::<_, StoreError, _>(async |connection| {
                let changed = if version == 0 {
                    self.store.limits.wearers(connection, account, 1).await?;
                    let row = (
                        wearers::account_id.eq(self.account),
                        wearers::id.eq(id),
                        wearers::format.eq(FORMAT),
                        wearers::facts.eq(facts),
                    );
                    diesel::insert_into(wearers::table)
                        .values(row)
                        .on_conflict_do_nothing()
                        .execute(connection)
                        .await?
                } else {
                    let own = wearers::table.find((self.account, id)).filter(wearers::version.eq(version));
                    diesel::update(own)
                        .set((
                            wearers::version.eq(version.saturating_add(1)),
                            wearers::format.eq(FORMAT),
                            wearers::facts.eq(facts),
                        ))
                        .execute(connection)
                        .await?
                };
                if changed != 0 {
                    let version = Some(version.saturating_add(1));
                    tell(connection, &Notice::Wearer { account, wearer: id, version }).await?;
                }
                Ok(changed)
            })
            .await?;
        drop(connection);
        let next = version.saturating_add(1);
        if changed == 1 {
            return Ok(next);
        }
        let there = self.wearer(id).await?;
        // Sent again, since nobody knew whether it arrived: it did.
        let is_this = there.version == next && there.wearer == *wearer;
        if is_this { Ok(next) } else { Err(StoreError::StaleWearer(Box::new(there))) }
    }

    /// Removes a wearer who has no garments.
    ///
    /// # Errors
    /// [`StoreError::HasGarments`] with their names, [`StoreError::NotFound`] if there is nobody of that id.
    pub async fn delete_wearer(&self, id: Uuid) -> Result<(), StoreError> {
        let mut connection = self.connection().await?;
        // Of each garment the newest state.
        let theirs: Vec<Value> = garments::table
            .inner_join(
                garment_states::table.on(garment_states::account_id
                    .eq(garments::account_id)
                    .and(garment_states::garment_id.eq(garments::id))),
            )
            .filter(garments::account_id.eq(self.account).and(garments::wearer_id.eq(id)))
            .distinct_on(garments::id)
            .order((garments::id, garment_states::position.desc()))
            .select(garment_states::facts)
            .load(&mut connection)
            .await?;
        if !theirs.is_empty() {
            let name = |facts: &Value| facts["name"].as_str().unwrap_or_default().to_owned();
            return Err(StoreError::HasGarments(theirs.iter().map(name).collect()));
        }
        match diesel::delete(wearers::table.find((self.account, id))).execute(&mut connection).await? {
            0 => Err(StoreError::NotFound),
            _ => {
                let account = self.account;
                tell(&mut connection, &Notice::Wearer { account, wearer: id, version: None }).await
            }
        }
    }
}
