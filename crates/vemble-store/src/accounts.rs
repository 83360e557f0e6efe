//! Accounts: who may sign in, the example, and the account of a household.

use crate::schema::accounts::dsl;
use crate::{Sees, Store, StoreError};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use uuid::Uuid;
use vemble_core::document::Document;

/// An account as its session sees it.
#[derive(Clone, Debug, PartialEq, Eq, Queryable)]
pub struct Account {
    /// Its id.
    pub id: Uuid,
    /// What its owner is called.
    pub name: String,
    /// The address it signs in with.
    pub email: Option<String>,
    /// Made-up data that anybody may change and put back.
    pub is_example: bool,
    /// The one account of a household, without a password.
    pub is_household: bool,
    /// Sessions that began under another number have ended.
    pub session_epoch: i32,
}

/// What a password is compared with.
#[derive(Clone, Debug, Queryable)]
pub struct Credentials {
    /// The account.
    pub id: Uuid,
    /// Its password, hashed.
    pub password_hash: Option<String>,
}

/// Somebody who signs up.
pub struct NewAccount {
    /// Made by whoever signs up.
    pub id: Uuid,
    /// What its owner is called.
    pub name: String,
    /// The address to sign in with, in small letters.
    pub email: String,
    /// The password, hashed.
    pub password_hash: String,
}

const COLUMNS: (dsl::id, dsl::name, dsl::email, dsl::is_example, dsl::is_household, dsl::session_epoch) =
    (dsl::id, dsl::name, dsl::email, dsl::is_example, dsl::is_household, dsl::session_epoch);

impl Store {
    /// The account, while it exists and its sessions of this epoch have not ended.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn account_in_session(&self, id: Uuid, epoch: i32) -> Result<Option<Account>, StoreError> {
        let mut connection = self.connection(Sees::Account(id)).await?;
        let account = dsl::accounts
            .filter(dsl::id.eq(id).and(dsl::session_epoch.eq(epoch)))
            .select(COLUMNS)
            .first(&mut connection)
            .await;
        Ok(account.optional()?)
    }

    /// What to compare the password of whoever signs in with this address with; nothing if nobody has it.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn credentials(&self, email: &str) -> Result<Option<Credentials>, StoreError> {
        let mut connection = self.connection(Sees::SigningIn(email)).await?;
        let found = dsl::accounts
            .filter(dsl::email.eq(email))
            .select((dsl::id, dsl::password_hash))
            .first(&mut connection)
            .await;
        Ok(found.optional()?)
    }

    /// Makes an account.
    ///
    /// # Errors
    /// [`StoreError::EmailTaken`] if somebody has the address already.
    pub async fn sign_up(&self, new: &NewAccount) -> Result<Account, StoreError> {
        let mut connection = self.connection(Sees::Account(new.id)).await?;
        let row = (
            dsl::id.eq(new.id),
            dsl::name.eq(&new.name),
            dsl::email.eq(&new.email),
            dsl::password_hash.eq(&new.password_hash),
        );
        let made = diesel::insert_into(dsl::accounts).values(row).returning(COLUMNS);
        Ok(made.get_result(&mut connection).await?)
    }

    /// The account of that id, whatever epoch its sessions have.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if there is none.
    pub async fn account_of(&self, id: Uuid) -> Result<Account, StoreError> {
        let mut connection = self.connection(Sees::Account(id)).await?;
        Ok(dsl::accounts.find(id).select(COLUMNS).first(&mut connection).await?)
    }

    /// The hashed password of an account.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if there is no such account.
    pub async fn password_hash(&self, id: Uuid) -> Result<Option<String>, StoreError> {
        let mut connection = self.connection(Sees::Account(id)).await?;
        Ok(dsl::accounts.find(id).select(dsl::password_hash).first(&mut connection).await?)
    }

    /// Changes the password and ends every session that is open; gives the epoch of new ones.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if there is no such account.
    pub async fn change_password(&self, id: Uuid, password_hash: &str) -> Result<i32, StoreError> {
        let mut connection = self.connection(Sees::Account(id)).await?;
        let changed = diesel::update(dsl::accounts.find(id))
            .set((dsl::password_hash.eq(password_hash), dsl::session_epoch.eq(dsl::session_epoch + 1)))
            .returning(dsl::session_epoch);
        Ok(changed.get_result(&mut connection).await?)
    }

    /// Removes an account with everything in it.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if there is no such account.
    pub async fn delete_account(&self, id: Uuid) -> Result<(), StoreError> {
        // Garments point at their wearers: they go first.
        self.account(id).replace_all(&[]).await?;
        let mut connection = self.connection(Sees::Account(id)).await?;
        match diesel::delete(dsl::accounts.find(id)).execute(&mut connection).await? {
            0 => Err(StoreError::NotFound),
            _ => Ok(()),
        }
    }

    /// The example account, made and filled with `documents` if there is none yet.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn example_account(&self, documents: &[Document]) -> Result<Account, StoreError> {
        let (account, is_new) = self.only("Example", true).await?;
        if is_new {
            self.account(account.id).replace_all(documents).await?;
        }
        Ok(account)
    }

    /// The one account of a household, made if there is none yet.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn household_account(&self) -> Result<Account, StoreError> {
        Ok(self.only("Household", false).await?.0)
    }

    /// The example or the household, and whether it was made just now.
    async fn only(&self, name: &str, example: bool) -> Result<(Account, bool), StoreError> {
        let id = Uuid::now_v7();
        let mut connection = self.connection(Sees::Account(id)).await?;
        let find = || {
            dsl::accounts
                .filter(dsl::is_example.eq(example).and(dsl::is_household.eq(!example)))
                .select(COLUMNS)
        };
        if let Some(account) = find().first(&mut connection).await.optional()? {
            return Ok((account, false));
        }
        let row =
            (dsl::id.eq(id), dsl::name.eq(name), dsl::is_example.eq(example), dsl::is_household.eq(!example));
        let made = diesel::insert_into(dsl::accounts)
            .values(row)
            .on_conflict_do_nothing()
            .execute(&mut connection)
            .await?;
        Ok((find().first(&mut connection).await?, made == 1))
    }
}
