//! Who is signed in where: a row each, found by the hash of the token that their cookie holds.

use crate::notices::{Notice, tell};
use crate::schema::{accounts, sessions};
use crate::{Account, AccountStore, Invitation, Sees, Store, StoreError};
use diesel::dsl::sql;
use diesel::prelude::*;
use diesel::sql_types::Bool;
use diesel_async::{AsyncConnection, RunQueryDsl};
use jiff_diesel::Timestamp;
use uuid::Uuid;

/// Somebody who is signed in on a device.
#[derive(Clone, Debug, PartialEq, Eq, Queryable)]
pub struct Session {
    /// Its id: it can be ended by it, not entered.
    pub id: Uuid,
    /// The browser and the system, as it named itself.
    pub device: String,
    /// Since when.
    pub created: Timestamp,
    /// When it was last used, to five minutes.
    pub seen: Timestamp,
}

/// A session to begin.
pub struct NewSession<'a> {
    /// Made by the server.
    pub id: Uuid,
    /// What its token hashes to.
    pub token_hash: &'a [u8],
    /// The browser and the system.
    pub device: &'a str,
    /// Of a guest: what they were invited to.
    pub invitation: Option<Uuid>,
}

/// Unused for 30 days, or half a year old, a session has ended (OWASP asks for both bounds; a sewist comes back after weeks, not seasons).
const IS_OPEN: &str = "seen_at > now() - interval '30 days' AND created_at > now() - interval '180 days' AND invitation_id IS NULL";
const HAS_ENDED: &str = "seen_at < now() - interval '30 days' OR created_at < now() - interval '180 days'";
/// Most sessions of an account, and most guests; the longest unused make room.
const MOST: i64 = 50;

impl Store {
    /// The account that is signed in with a token, and its session.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn signed_in(&self, token_hash: &[u8]) -> Result<Option<(Account, Uuid)>, StoreError> {
        let mut connection = self.connection(Sees::Session(token_hash)).await?;
        let found: Option<(Account, Uuid, bool)> = sessions::table
            .inner_join(accounts::table)
            .filter(sessions::token_hash.eq(token_hash))
            .filter(sql::<Bool>(IS_OPEN))
            .filter(sql::<Bool>("(ends_at IS NULL OR ends_at > now())"))
            .select((
                crate::accounts::COLUMNS,
                sessions::id,
                sql::<Bool>("seen_at < now() - interval '5 minutes'"),
            ))
            .first(&mut connection)
            .await
            .optional()?;
        drop(connection);
        let Some((account, id, long_ago)) = found else { return Ok(None) };
        if long_ago {
            let mut connection = self.connection(Sees::Account(account.id)).await?;
            let own = sessions::table.find((account.id, id));
            diesel::update(own).set(sessions::seen_at.eq(diesel::dsl::now)).execute(&mut connection).await?;
        }
        Ok(Some((account, id)))
    }

    /// What a guest with this token was invited to, while it is open.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn guest(&self, token_hash: &[u8]) -> Result<Option<Invitation>, StoreError> {
        let mut connection = self.connection(Sees::Session(token_hash)).await?;
        let found: Option<(Uuid, Option<Uuid>)> = sessions::table
            .filter(sessions::token_hash.eq(token_hash))
            .select((sessions::account_id, sessions::invitation_id))
            .first(&mut connection)
            .await
            .optional()?;
        drop(connection);
        match found {
            Some((account, Some(invitation))) => self.account(account).invitation(invitation).await,
            _ => Ok(None),
        }
    }
}

impl AccountStore<'_> {
    /// Begins a session. What has ended is forgotten by the way.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn begin_session(&self, new: &NewSession<'_>) -> Result<(), StoreError> {
        let row = (
            sessions::account_id.eq(self.account),
            sessions::id.eq(new.id),
            sessions::token_hash.eq(new.token_hash),
            sessions::device.eq(new.device),
            sessions::invitation_id.eq(new.invitation),
        );
        let mut connection = self.connection().await?;
        diesel::delete(sessions::table.filter(sql::<Bool>(HAS_ENDED))).execute(&mut connection).await?;
        // Of what is of the same kind: guests never push out whoever invited them.
        let mut alike = sessions::table.filter(sessions::account_id.eq(self.account)).into_boxed();
        alike = match new.invitation {
            Some(_) => alike.filter(sessions::invitation_id.is_not_null()),
            None => alike.filter(sessions::invitation_id.is_null()),
        };
        let alike = alike.order((sessions::seen_at.desc(), sessions::id.desc())).offset(MOST - 1);
        let too_many: Vec<Uuid> = alike.select(sessions::id).load(&mut connection).await?;
        let others = sessions::table.filter(sessions::account_id.eq(self.account));
        diesel::delete(others.filter(sessions::id.eq_any(too_many))).execute(&mut connection).await?;
        diesel::insert_into(sessions::table).values(row).execute(&mut connection).await?;
        Ok(())
    }

    /// The sessions of the account, the last used first.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn sessions(&self) -> Result<Vec<Session>, StoreError> {
        let own = sessions::table.filter(sessions::account_id.eq(self.account)).filter(sql::<Bool>(IS_OPEN));
        let all = own.order((sessions::seen_at.desc(), sessions::id.desc()));
        let all = all.select((sessions::id, sessions::device, sessions::created_at, sessions::seen_at));
        Ok(all.load(&mut self.connection().await?).await?)
    }

    /// Whether a session is still open.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn is_open(&self, id: Uuid) -> Result<bool, StoreError> {
        let own = sessions::table.find((self.account, id)).filter(sql::<Bool>(IS_OPEN));
        let there: Option<Uuid> =
            own.select(sessions::id).first(&mut self.connection().await?).await.optional()?;
        Ok(there.is_some())
    }

    /// Ends a session.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account has no such session.
    pub async fn end_session(&self, id: Uuid) -> Result<(), StoreError> {
        let mut connection = self.connection().await?;
        let own = sessions::table.find((self.account, id));
        if diesel::delete(own).execute(&mut connection).await? == 0 {
            return Err(StoreError::NotFound);
        }
        tell(&mut connection, &Notice::Ended { account: self.account }).await
    }

    /// Changes the password, and ends every session but `this`.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if there is no such account.
    pub async fn change_password(&self, password_hash: &str, this: Option<Uuid>) -> Result<(), StoreError> {
        let account = self.account;
        let mut connection = self.connection().await?;
        connection
            .transaction::<_, StoreError, _>(async |connection| {
                let set = accounts::password_hash.eq(password_hash);
                let changed =
                    diesel::update(accounts::table.find(account)).set(set).execute(connection).await?;
                if changed == 0 {
                    return Err(StoreError::NotFound);
                }
                let own = sessions::table.filter(sessions::account_id.eq(account));
                let others = own.filter(sessions::id.ne(this.unwrap_or_else(Uuid::nil)));
                diesel::delete(others.filter(sessions::invitation_id.is_null())).execute(connection).await?;
                tell(connection, &Notice::Ended { account }).await
            })
            .await
    }
}
