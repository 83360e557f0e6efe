//! How much an account may hold. It is counted while the account's row is held fast, so that nobody slips past by coming twice at once.

use crate::schema::{accounts, garments, photos, wearers};
use crate::{NewPhoto, StoreError};
use diesel::dsl::sql;
use diesel::prelude::*;
use diesel::sql_types::BigInt;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use uuid::Uuid;

/// Most things of an account. A garment's own try-ons, readings, log and record are bounded by what a document may hold.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Limits {
    /// Garments, put away or not.
    pub garments: i64,
    /// Wearers.
    pub wearers: i64,
    /// Photos.
    pub photos: i64,
    /// What all photos take, in bytes.
    pub photo_bytes: i64,
}

impl Default for Limits {
    /// A sewing circle's worth: thirty garments a year for ten years, each with a dozen photos of some 600 kB.
    fn default() -> Self {
        Self { garments: 300, wearers: 100, photos: 4_000, photo_bytes: 2_500_000_000 }
    }
}

impl Limits {
    /// Of an example, which anybody may fill: its own seven garments, and what somebody tries out in a day.
    const EXAMPLE: Self = Self { garments: 30, wearers: 20, photos: 30, photo_bytes: 60_000_000 };

    /// Holds the account fast until the transaction ends; gives its limits.
    async fn held(self, connection: &mut AsyncPgConnection, account: Uuid) -> Result<Self, StoreError> {
        let own = accounts::table.find(account).select(accounts::is_example).for_update();
        Ok(if own.first(connection).await? { Self::EXAMPLE } else { self })
    }

    /// # Errors
    /// [`StoreError::Full`] when so many garments more are too many.
    pub(crate) async fn garments(
        self,
        connection: &mut AsyncPgConnection,
        account: Uuid,
        more: usize,
    ) -> Result<(), StoreError> {
        let most = self.held(connection, account).await?.garments;
        let own = garments::table.filter(garments::account_id.eq(account));
        fits(own.count().get_result(connection).await?, more, most, "garments")
    }

    /// # Errors
    /// [`StoreError::Full`] when so many wearers more are too many.
    pub(crate) async fn wearers(
        self,
        connection: &mut AsyncPgConnection,
        account: Uuid,
        more: usize,
    ) -> Result<(), StoreError> {
        let most = self.held(connection, account).await?.wearers;
        let own = wearers::table.filter(wearers::account_id.eq(account));
        fits(own.count().get_result(connection).await?, more, most, "wearers")
    }

    /// The room for photos, until the transaction ends.
    pub(crate) async fn photos(
        self,
        connection: &mut AsyncPgConnection,
        account: Uuid,
    ) -> Result<PhotoRoom, StoreError> {
        let most = self.held(connection, account).await?;
        // The length of what lies apart is known without reading it.
        let sum = "coalesce(sum(octet_length(image) + octet_length(thumbnail)), 0)::bigint";
        let own = photos::table.filter(photos::account_id.eq(account));
        let taken: (i64, i64) =
            own.select((diesel::dsl::count_star(), sql::<BigInt>(sum))).first(connection).await?;
        Ok(PhotoRoom { count: taken.0, bytes: taken.1, most })
    }
}

fn fits(there: i64, more: usize, most: i64, what: &'static str) -> Result<(), StoreError> {
    let wanted = i64::try_from(more).unwrap_or(i64::MAX).saturating_add(there);
    if wanted > most { Err(StoreError::Full(what)) } else { Ok(()) }
}

/// How many photos an account has and what they take: measured once, however many are added.
pub(crate) struct PhotoRoom {
    count: i64,
    bytes: i64,
    most: Limits,
}

impl PhotoRoom {
    /// Takes the room of one more photo.
    ///
    /// # Errors
    /// [`StoreError::Full`] when there is none.
    pub fn take(&mut self, photo: &NewPhoto) -> Result<(), StoreError> {
        let bytes = photo.image.len() + photo.thumbnail.len();
        fits(self.count, 1, self.most.photos, "photos")?;
        fits(self.bytes, bytes, self.most.photo_bytes, "photos")?;
        self.count += 1;
        self.bytes += i64::try_from(bytes).unwrap_or(i64::MAX);
        Ok(())
    }
}
