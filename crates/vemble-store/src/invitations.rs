//! Invitations to one try-on: for a second screen, or for a helper who has no account.

use crate::schema::invitations::dsl;
use crate::{AccountStore, Sees, Store, StoreError};
use diesel::dsl::{now, sql};
use diesel::prelude::*;
use diesel::sql_types::{Bool, Timestamptz};
use diesel_async::RunQueryDsl;
use uuid::Uuid;

/// An invitation that is still open.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Queryable)]
pub struct Invitation {
    /// Whose garment it is.
    pub account: Uuid,
    /// Its id.
    pub id: Uuid,
    /// The garment.
    pub garment: Uuid,
    /// The try-on, and nothing else.
    pub try_on: Uuid,
    /// Whoever joins may add to the try-on; they only look on otherwise.
    pub may_add: bool,
}

/// An invitation to make. It ends three hours after it was made: longer than any try-on, shorter than an evening.
pub struct NewInvitation<'a> {
    /// Made by whoever invites.
    pub id: Uuid,
    /// The garment.
    pub garment: Uuid,
    /// Its try-on.
    pub try_on: Uuid,
    /// Whoever joins may add to it.
    pub may_add: bool,
    /// The code that opens it, hashed.
    pub code_hash: &'a [u8],
}

const COLUMNS: (dsl::account_id, dsl::id, dsl::garment_id, dsl::try_on_id, dsl::may_add) =
    (dsl::account_id, dsl::id, dsl::garment_id, dsl::try_on_id, dsl::may_add);

impl Store {
    /// The open invitation with this code.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn joining(&self, code_hash: &[u8]) -> Result<Option<Invitation>, StoreError> {
        let mut connection = self.connection(Sees::Joining(code_hash)).await?;
        let open = dsl::invitations.filter(dsl::code_hash.eq(code_hash).and(dsl::ends_at.gt(now)));
        Ok(open.select(COLUMNS).first(&mut connection).await.optional()?)
    }
}

impl AccountStore<'_> {
    /// Invites to a try-on that is stored; one that is over takes nobody.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account's garment has no such try-on.
    pub async fn invite(&self, new: &NewInvitation<'_>) -> Result<(), StoreError> {
        self.try_on(new.garment, new.try_on).await?;
        let row = (
            dsl::account_id.eq(self.account),
            dsl::id.eq(new.id),
            dsl::garment_id.eq(new.garment),
            dsl::try_on_id.eq(new.try_on),
            dsl::may_add.eq(new.may_add),
            dsl::code_hash.eq(new.code_hash),
            dsl::ends_at.eq(sql::<Timestamptz>("now() + interval '3 hours'")),
        );
        let mut connection = self.connection().await?;
        // What ended is forgotten by the way.
        diesel::delete(dsl::invitations.filter(sql::<Bool>("ends_at < now()")))
            .execute(&mut connection)
            .await?;
        diesel::insert_into(dsl::invitations).values(row).execute(&mut connection).await?;
        Ok(())
    }

    /// The open invitations to a try-on.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn invitations(&self, try_on: Uuid) -> Result<Vec<Invitation>, StoreError> {
        let own = dsl::invitations.filter(dsl::account_id.eq(self.account).and(dsl::try_on_id.eq(try_on)));
        let open = own.filter(dsl::ends_at.gt(now)).order(dsl::id).select(COLUMNS);
        Ok(open.load(&mut self.connection().await?).await?)
    }

    /// One invitation, while it is open.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn invitation(&self, id: Uuid) -> Result<Option<Invitation>, StoreError> {
        let own = dsl::invitations.find((self.account, id)).filter(dsl::ends_at.gt(now));
        Ok(own.select(COLUMNS).first(&mut self.connection().await?).await.optional()?)
    }

    /// Ends an invitation: whoever joined by it is out.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account has no such invitation.
    pub async fn end_invitation(&self, id: Uuid) -> Result<(), StoreError> {
        let own = dsl::invitations.find((self.account, id));
        match diesel::delete(own).execute(&mut self.connection().await?).await? {
            0 => Err(StoreError::NotFound),
            _ => Ok(()),
        }
    }
}
