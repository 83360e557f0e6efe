//! Photos of garments: before, after, and details.

use crate::schema::photos;
use crate::{AccountStore, StoreError};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use uuid::Uuid;

/// When a photo was taken: before or after the alteration, or of a detail.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Moment {
    /// As it was.
    Before,
    /// As it is now.
    After,
    /// A seam, a stain, a label.
    Detail,
}

impl Moment {
    const fn word(self) -> &'static str {
        match self {
            Self::Before => "before",
            Self::After => "after",
            Self::Detail => "detail",
        }
    }

    fn of(word: &str) -> Self {
        match word {
            "before" => Self::Before,
            "after" => Self::After,
            _ => Self::Detail,
        }
    }
}

/// A photo without its picture.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Photo {
    /// Its id.
    pub id: Uuid,
    /// When it was taken.
    pub moment: Moment,
    /// The photo of before that it stands beside.
    pub pair: Option<Uuid>,
    /// The try-on it was taken at.
    pub try_on: Option<Uuid>,
    /// What is to be seen.
    pub caption: String,
    /// Width in pixels.
    pub width: i32,
    /// Height in pixels.
    pub height: i32,
    /// `image/jpeg` or `image/png`.
    pub media_type: String,
}

/// A photo to store: cleaned, upright, with its thumbnail.
pub struct NewPhoto {
    /// Made by whoever took it.
    pub id: Uuid,
    /// When it was taken.
    pub moment: Moment,
    /// The try-on it was taken at.
    pub try_on: Option<Uuid>,
    /// Width and height in pixels.
    pub size: (u32, u32),
    /// `image/jpeg` or `image/png`.
    pub media_type: &'static str,
    /// The picture.
    pub image: Vec<u8>,
    /// The same, small, as JPEG.
    pub thumbnail: Vec<u8>,
}

type Row = (Uuid, String, Option<Uuid>, Option<Uuid>, String, i32, i32, String);

fn photo((id, moment, pair, try_on, caption, width, height, media_type): Row) -> Photo {
    Photo { id, moment: Moment::of(&moment), pair, try_on, caption, width, height, media_type }
}

impl AccountStore<'_> {
    /// The photos of a garment, the oldest first.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn photos(&self, garment: Uuid) -> Result<Vec<Photo>, StoreError> {
        let rows: Vec<Row> = photos::table
            .filter(photos::account_id.eq(self.account).and(photos::garment_id.eq(garment)))
            .order(photos::id)
            .select((
                photos::id,
                photos::moment,
                photos::pair_id,
                photos::try_on_id,
                photos::caption,
                photos::width,
                photos::height,
                photos::media_type,
            ))
            .load(&mut self.connection().await?)
            .await?;
        Ok(rows.into_iter().map(photo).collect())
    }

    /// Stores a photo of a garment.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if the garment is not this account's, [`StoreError::IdTaken`] if the id is used, [`StoreError::Full`] if
    /// the account has no room for it.
    pub async fn add_photo(&self, garment: Uuid, new: NewPhoto) -> Result<(), StoreError> {
        let mut connection = self.connection().await?;
        connection
            .transaction::<_, StoreError, _>(async |connection| {
                // Sent again, since nobody knew whether it arrived: it did.
                let own = photos::table.find((self.account, new.id)).filter(photos::garment_id.eq(garment));
                let own = own.filter(photos::image.eq(&new.image)).select(photos::id);
                if own.first::<Uuid>(connection).await.optional()?.is_some() {
                    return Ok(());
                }
                self.store.limits.photos(connection, self.account).await?.take(&new)?;
                self.insert_photo(connection, garment, "", new).await
            })
            .await
    }

    pub(crate) async fn insert_photo(
        &self,
        connection: &mut AsyncPgConnection,
        garment: Uuid,
        caption: &str,
        new: NewPhoto,
    ) -> Result<(), StoreError> {
        let row = (
            photos::account_id.eq(self.account),
            photos::id.eq(new.id),
            photos::garment_id.eq(garment),
            photos::moment.eq(new.moment.word()),
            photos::try_on_id.eq(new.try_on),
            photos::caption.eq(caption),
            photos::width.eq(new.size.0.cast_signed()),
            photos::height.eq(new.size.1.cast_signed()),
            photos::media_type.eq(new.media_type),
            photos::image.eq(new.image),
            photos::thumbnail.eq(new.thumbnail),
        );
        diesel::insert_into(photos::table).values(row).execute(connection).await?;
        Ok(())
    }

    /// The picture of a photo and its media type; or its thumbnail.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account has no such photo.
    pub async fn picture(&self, id: Uuid, small: bool) -> Result<(String, Vec<u8>), StoreError> {
        let own = photos::table.find((self.account, id));
        let mut connection = self.connection().await?;
        if small {
            let thumbnail = own.select(photos::thumbnail).first(&mut connection).await?;
            return Ok(("image/jpeg".into(), thumbnail));
        }
        Ok(own.select((photos::media_type, photos::image)).first(&mut connection).await?)
    }

    /// Changes what a photo says of itself.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account has no such photo, or none to stand beside.
    pub async fn change_photo(
        &self,
        id: Uuid,
        moment: Moment,
        pair: Option<Uuid>,
        caption: &str,
    ) -> Result<(), StoreError> {
        let set = (photos::moment.eq(moment.word()), photos::pair_id.eq(pair), photos::caption.eq(caption));
        let own = photos::table.find((self.account, id));
        match diesel::update(own).set(set).execute(&mut self.connection().await?).await? {
            0 => Err(StoreError::NotFound),
            _ => Ok(()),
        }
    }

    /// Removes a photo.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account has no such photo.
    pub async fn delete_photo(&self, id: Uuid) -> Result<(), StoreError> {
        let own = photos::table.find((self.account, id));
        match diesel::delete(own).execute(&mut self.connection().await?).await? {
            0 => Err(StoreError::NotFound),
            _ => Ok(()),
        }
    }
}
