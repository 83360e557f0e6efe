//! Accounts: who may sign in, examples, and the account of a household.

use crate::notices::{Notice, tell};
use crate::schema::accounts::dsl;
use crate::schema::{garments, sign_up_codes};
use crate::{Sees, Store, StoreError};
use diesel::dsl::{now, sql};
use diesel::prelude::*;
use diesel::sql_types::{Bool, Nullable, Timestamptz};
use diesel_async::{AsyncConnection, RunQueryDsl};
use uuid::Uuid;
use vemble_core::document::Document;
use vemble_core::work::Workroom;

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

pub(crate) const COLUMNS: (dsl::id, dsl::name, dsl::email, dsl::is_example, dsl::is_household) =
    (dsl::id, dsl::name, dsl::email, dsl::is_example, dsl::is_household);

/// Most examples at once: so many visitors in a day, and less than a hundred megabytes.
const EXAMPLES: i64 = 300;

impl Store {
    /// What to compare the password of whoever signs in with this address with; nothing if nobody has it.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn credentials(&self, email: &str) -> Result<Option<Credentials>, StoreError> {
        let mut connection = self.connection(Sees::Email(email)).await?;
        let found = dsl::accounts
            .filter(dsl::email.eq(email))
            .select((dsl::id, dsl::password_hash))
            .first(&mut connection)
            .await;
        Ok(found.optional()?)
    }

    /// Makes an account; with the hash of a code where it takes one, which is used up. Nothing happens where somebody has the address already,
    /// and nobody is told.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if there is no such code.
    pub async fn sign_up(&self, new: &NewAccount, code_hash: Option<&[u8]>) -> Result<(), StoreError> {
        let row = (
            dsl::id.eq(new.id),
            dsl::name.eq(&new.name),
            dsl::email.eq(&new.email),
            dsl::password_hash.eq(&new.password_hash),
        );
        if let Some(code) = code_hash {
            let mut connection = self.connection(Sees::SignUp(code)).await?;
            let open = sign_up_codes::table.find(code).filter(sign_up_codes::ends_at.gt(now));
            if diesel::delete(open).execute(&mut connection).await? == 0 {
                return Err(StoreError::NotFound);
            }
        }
        let mut connection = self.connection(Sees::Account(new.id)).await?;
        let made = diesel::insert_into(dsl::accounts).values(row).on_conflict_do_nothing();
        made.execute(&mut connection).await?;
        Ok(())
    }

    /// Makes a code that somebody may sign up with, once and within a week.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn invite_to_sign_up(&self, code_hash: &[u8]) -> Result<(), StoreError> {
        let row = (
            sign_up_codes::code_hash.eq(code_hash),
            sign_up_codes::ends_at.eq(sql::<Timestamptz>("now() + interval '7 days'")),
        );
        let mut connection = self.connection(Sees::SignUp(code_hash)).await?;
        diesel::insert_into(sign_up_codes::table).values(row).execute(&mut connection).await?;
        Ok(())
    }

    /// The account of that id.
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

    /// Removes an account with everything in it.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if there is no such account.
    pub async fn delete_account(&self, id: Uuid) -> Result<(), StoreError> {
        let mut connection = self.connection(Sees::Account(id)).await?;
        let gone = connection.transaction::<_, StoreError, _>(async |connection| {
            // Garments point at their wearers: they go first, and everything else with the account.
            diesel::delete(garments::table.filter(garments::account_id.eq(id))).execute(connection).await?;
            match diesel::delete(dsl::accounts.find(id)).execute(connection).await? {
                0 => Err(StoreError::NotFound),
                _ => tell(connection, &Notice::Ended { account: id }).await,
            }
        });
        gone.await
    }

    /// An example of somebody's own, filled with `documents` and a workroom; it ends after a day.
    ///
    /// # Errors
    /// [`StoreError::Full`] when there are too many just now.
    pub async fn new_example(
        &self,
        documents: &[Document],
        workroom: &Workroom,
    ) -> Result<Account, StoreError> {
        let id = Uuid::now_v7();
        let mut connection = self.connection(Sees::Examples).await?;
        let there: i64 = dsl::accounts.filter(dsl::is_example).count().get_result(&mut connection).await?;
        drop(connection);
        if there >= EXAMPLES {
            return Err(StoreError::Full("examples"));
        }
        let row = (
            dsl::id.eq(id),
            dsl::name.eq("Example"),
            dsl::is_example.eq(true),
            dsl::ends_at.eq(sql::<Nullable<Timestamptz>>("now() + interval '1 day'")),
        );
        let mut connection = self.connection(Sees::Account(id)).await?;
        let made = diesel::insert_into(dsl::accounts).values(row).returning(COLUMNS);
        let account: Account = made.get_result(&mut connection).await?;
        drop(connection);
        self.account(id).replace_all(documents, workroom).await?;
        Ok(account)
    }

    /// Forgets examples that have ended; gives how many.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn forget_examples(&self) -> Result<usize, StoreError> {
        let mut connection = self.connection(Sees::Examples).await?;
        let ended = dsl::accounts.filter(sql::<Bool>("ends_at < now()")).select(dsl::id);
        let ended: Vec<Uuid> = ended.load(&mut connection).await?;
        drop(connection);
        for id in &ended {
            match self.delete_account(*id).await {
                // Another instance was faster.
                Ok(()) | Err(StoreError::NotFound) => {}
                Err(error) => return Err(error),
            }
        }
        Ok(ended.len())
    }

    /// The one account of a household, made if there is none yet.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn household_account(&self) -> Result<Account, StoreError> {
        let id = Uuid::now_v7();
        let mut connection = self.connection(Sees::Account(id)).await?;
        let find = || dsl::accounts.filter(dsl::is_household).select(COLUMNS);
        if let Some(account) = find().first(&mut connection).await.optional()? {
            return Ok(account);
        }
        let row = (dsl::id.eq(id), dsl::name.eq("Household"), dsl::is_household.eq(true));
        diesel::insert_into(dsl::accounts)
            .values(row)
            .on_conflict_do_nothing()
            .execute(&mut connection)
            .await?;
        Ok(find().first(&mut connection).await?)
    }
}
