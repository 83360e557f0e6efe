//! Which account a digital tape measure is paired with.

use crate::schema::tapes::dsl;
use crate::{AccountStore, Sees, Store, StoreError};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use uuid::Uuid;

impl Store {
    /// The account that the tape with this serial number was paired with.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn account_of_tape(&self, serial: &str) -> Result<Option<Uuid>, StoreError> {
        let mut connection = self.connection(Sees::Tape(serial)).await?;
        let found = dsl::tapes.filter(dsl::serial.eq(serial)).select(dsl::account_id);
        Ok(found.first(&mut connection).await.optional()?)
    }
}

impl AccountStore<'_> {
    /// Pairs a tape with this account, and with no other any more.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn pair_tape(&self, serial: &str) -> Result<(), StoreError> {
        let mut connection = self.store.connection(Sees::Tape(serial)).await?;
        diesel::delete(dsl::tapes.filter(dsl::serial.eq(serial))).execute(&mut connection).await?;
        drop(connection);
        let mut connection = self.connection().await?;
        let row = (dsl::account_id.eq(self.account), dsl::serial.eq(serial));
        diesel::insert_into(dsl::tapes)
            .values(row)
            .on_conflict(dsl::account_id)
            .do_update()
            .set(dsl::serial.eq(serial))
            .execute(&mut connection)
            .await?;
        Ok(())
    }

    /// The serial number of this account's tape.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn tape(&self) -> Result<Option<String>, StoreError> {
        let own = dsl::tapes.find(self.account).select(dsl::serial);
        Ok(own.first(&mut self.connection().await?).await.optional()?)
    }

    /// Parts the account from its tape.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn part_from_tape(&self) -> Result<(), StoreError> {
        diesel::delete(dsl::tapes.find(self.account)).execute(&mut self.connection().await?).await?;
        Ok(())
    }
}
