//! Try-ons of a garment: changed by one at a time, their readings row by row.

use crate::format::{FORMAT, TryOnRow, facts_of, read};
use crate::garments::TRY_ON;
use crate::notices::{Notice, tell};
use crate::readings::{ReadingRow, readings_in, readings_of, rows_of, write_readings};
use crate::schema::{garments, invitations, readings, try_ons, wearers};
use crate::states::{records_in, states_in};
use crate::{AccountStore, StoreError, one_moment};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use futures_util::future::BoxFuture;
use serde_json::Value;
use uuid::Uuid;
use vemble_core::document::{Document, MOST_TRY_ONS, too_many_readings};
use vemble_core::try_on::TryOn;

/// A try-on as stored.
#[derive(Clone, Debug)]
pub struct StoredTryOn {
    /// Its version: the next change has to name it.
    pub version: i32,
    /// The try-on; its own id and the ids of its readings are set.
    pub try_on: TryOn,
}

impl AccountStore<'_> {
    /// Changes a try-on of a garment, or makes it: `decide` sees the garment, without its try-ons, and the try-on as it is stored, if it
    /// is, and gives the try-on as it shall be, or nothing to leave it. Nobody else changes it meanwhile. Gives what is stored then.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if the garment or try-on is not this account's, [`StoreError::IdTaken`] if a reading's id is
    /// used elsewhere, and whatever `decide` refuses with; nothing is stored then.
    pub async fn change_try_on<'a, E: From<StoreError> + Send>(
        &self,
        garment: Uuid,
        id: Uuid,
        decide: impl Fn(Document, Option<StoredTryOn>) -> BoxFuture<'a, Result<Option<TryOn>, E>> + Sync + 'a,
    ) -> Result<StoredTryOn, E> {
        let _place = self.store.deciding().await?;
        let mut connection = self.connection().await?;
        // Somebody may make it between looking and making; then it is there at the second look.
        for _ in 0..2 {
            let mut refused = None;
            let done = connection
                .transaction::<_, StoreError, _>(async |connection| {
                    let (worn, stored, rows) = self.held(connection, garment, id).await?;
                    match decide(worn, stored.clone()).await {
                        Ok(None) => stored.ok_or(StoreError::NotFound).map(Some),
                        Ok(Some(try_on)) => {
                            let version = stored.map_or(0, |s| s.version);
                            self.write(connection, garment, id, version, &try_on, &rows).await
                        }
                        Err(why) => {
                            refused = Some(why);
                            Ok(None)
                        }
                    }
                })
                .await?;
            match (done, refused) {
                (_, Some(why)) => return Err(why),
                (Some(stored), None) => return Ok(stored),
                (None, None) => {}
            }
        }
        Err(StoreError::NotFound.into())
    }

    /// The garment without its try-ons, and this one held fast until the transaction ends.
    async fn held(
        &self,
        connection: &mut AsyncPgConnection,
        garment: Uuid,
        id: Uuid,
    ) -> Result<(Document, Option<StoredTryOn>, Vec<ReadingRow>), StoreError> {
        let held: Option<TryOnRow> =
            self.own_try_on(garment, id).select(TRY_ON).for_update().first(connection).await.optional()?;
        let document = self.without_try_ons(connection, garment).await?;
        let Some(row) = held else { return Ok((document, None, Vec::new())) };
        let rows = readings_in(connection, self.account, &[id]).await?;
        let version = row.version;
        let try_on = row.read(&document, &rows)?;
        Ok((document, Some(StoredTryOn { version, try_on }), rows))
    }

    /// A garment with its history and its wearer.
    async fn without_try_ons(
        &self,
        connection: &mut AsyncPgConnection,
        garment: Uuid,
    ) -> Result<Document, StoreError> {
        let account = self.account;
        let (format, facts): (i32, Value) =
            garments::table
                .inner_join(wearers::table.on(
                    wearers::account_id.eq(garments::account_id).and(wearers::id.eq(garments::wearer_id)),
                ))
                .filter(garments::account_id.eq(account).and(garments::id.eq(garment)))
                .select((wearers::format, wearers::facts))
                .first(connection)
                .await?;
        let mut states = states_in(connection, account, &[garment]).await?;
        let mut records = records_in(connection, account, &[garment]).await?;
        let (wearer, states) = (read(format, facts)?, states.remove(&garment).unwrap_or_default());
        Ok(Document {
            record: records.remove(&garment).unwrap_or_default(),
            ..Document::of_states(wearer, states)
        })
    }

    /// Writes a try-on, and of its readings those that are not in `old` already. Nothing if somebody made it meanwhile.
    async fn write(
        &self,
        connection: &mut AsyncPgConnection,
        garment: Uuid,
        id: Uuid,
        version: i32,
        try_on: &TryOn,
        old: &[ReadingRow],
    ) -> Result<Option<StoredTryOn>, StoreError> {
        let account = self.account;
        let facts = facts_of(try_on)?;
        let rows = rows_of(account, id, try_on);
        if version == 0 {
            let others =
                try_ons::table.filter(try_ons::account_id.eq(account).and(try_ons::garment_id.eq(garment)));
            let others: i64 = others.count().get_result(connection).await?;
            if others >= MOST_TRY_ONS as i64 {
                return Err(StoreError::Full("try-ons of one garment"));
            }
            let new = (
                try_ons::account_id.eq(account),
                try_ons::id.eq(id),
                try_ons::garment_id.eq(garment),
                try_ons::state_id.eq(try_on.state),
                try_ons::format.eq(FORMAT),
                try_ons::facts.eq(&facts),
            );
            let made = diesel::insert_into(try_ons::table).values(new).on_conflict_do_nothing();
            if made.execute(connection).await? == 0 {
                return Ok(None);
            }
        } else {
            let set = (
                try_ons::version.eq(version.saturating_add(1)),
                try_ons::state_id.eq(try_on.state),
                try_ons::format.eq(FORMAT),
                try_ons::facts.eq(&facts),
            );
            diesel::update(try_ons::table.find((account, id))).set(set).execute(connection).await?;
        }
        write_readings(connection, old, &rows).await?;
        let all = try_ons::table.inner_join(
            readings::table
                .on(readings::account_id.eq(try_ons::account_id).and(readings::try_on_id.eq(try_ons::id))),
        );
        let all = all.filter(try_ons::account_id.eq(account).and(try_ons::garment_id.eq(garment)));
        let all: i64 = all.count().get_result(connection).await?;
        if rows.len() > old.len() && too_many_readings(usize::try_from(all).unwrap_or(0)).is_some() {
            return Err(StoreError::Full("readings of one garment"));
        }
        if try_on.closed {
            let over = invitations::table
                .filter(invitations::account_id.eq(account).and(invitations::try_on_id.eq(id)));
            diesel::delete(over).execute(connection).await?;
        }
        let version = version.saturating_add(1);
        let told = Notice::TryOn { account, garment, try_on: id, version: Some(version) };
        tell(connection, &told).await?;
        Ok(Some(StoredTryOn { version, try_on: with_ids(id, try_on, &rows)? }))
    }

    /// Removes a try-on with its readings.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account's garment has no such try-on.
    pub async fn delete_try_on(&self, garment: Uuid, id: Uuid) -> Result<(), StoreError> {
        let own = try_ons::table.find((self.account, id)).filter(try_ons::garment_id.eq(garment));
        let mut connection = self.connection().await?;
        match diesel::delete(own).execute(&mut connection).await? {
            0 => Err(StoreError::NotFound),
            _ => {
                let account = self.account;
                tell(&mut connection, &Notice::TryOn { account, garment, try_on: id, version: None }).await
            }
        }
    }

    /// One try-on as it is stored.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account's garment has no such try-on.
    pub async fn try_on(&self, garment: Uuid, id: Uuid) -> Result<StoredTryOn, StoreError> {
        let mut connection = self.connection().await?;
        let read = async |connection: &mut AsyncPgConnection| {
            let row: TryOnRow = self.own_try_on(garment, id).select(TRY_ON).first(connection).await?;
            let document = self.without_try_ons(connection, garment).await?;
            let rows = readings_in(connection, self.account, &[id]).await?;
            Ok(StoredTryOn { version: row.version, try_on: row.read(&document, &rows)? })
        };
        one_moment(&mut connection).run(read).await
    }

    #[diesel::dsl::auto_type(no_type_alias)]
    fn own_try_on(&self, garment: Uuid, id: Uuid) -> _ {
        let account: Uuid = self.account;
        try_ons::table.filter(
            try_ons::account_id.eq(account).and(try_ons::id.eq(id)).and(try_ons::garment_id.eq(garment)),
        )
    }
}

/// A try-on as its rows have it: its own id, and one for every reading.
fn with_ids(id: Uuid, try_on: &TryOn, rows: &[ReadingRow]) -> Result<TryOn, StoreError> {
    let mut stored = TryOn { id: Some(id), ..try_on.clone() };
    for (number, change) in stored.changes.iter_mut().enumerate() {
        change.set_readings(readings_of(rows, id, number)?);
    }
    Ok(stored)
}
