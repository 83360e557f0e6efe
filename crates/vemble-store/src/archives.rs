//! An account, or one garment of it, taken out whole and brought in again.

use crate::schema::{garments, photos, wearers, workrooms};
use crate::whole::{add_garment, add_wearer};
use crate::{AccountStore, Failed, NewPhoto, Photo, StoreError, StoredDocument, StoredWearer};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use futures_util::future::BoxFuture;
use uuid::Uuid;
use vemble_core::work::Workroom;

/// Everything of an account but its photos’ pictures.
pub struct Whole {
    /// What all garments share; nothing where one garment is taken out, or nothing was entered.
    pub workroom: Option<Workroom>,
    /// Who wears the garments; of a whole account everybody.
    pub wearers: Vec<StoredWearer>,
    /// The garments.
    pub garments: Vec<StoredDocument>,
    /// Their photos, each with its garment.
    pub photos: Vec<(Uuid, Photo)>,
}

/// A photo to bring in.
pub struct BroughtPhoto {
    /// Its garment.
    pub garment: Uuid,
    /// The photo of before that it stands beside.
    pub pair: Option<Uuid>,
    /// What is to be seen.
    pub caption: String,
    /// The rest.
    pub photo: NewPhoto,
}

/// How much was brought in.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Brought {
    /// Garments.
    pub garments: usize,
    /// Wearers that were not there yet.
    pub wearers: usize,
    /// Photos.
    pub photos: usize,
}

impl AccountStore<'_> {
    /// The account, or one garment of it with its wearer.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account has no such garment.
    pub async fn whole(&self, garment: Option<Uuid>) -> Result<Whole, StoreError> {
        let garments = match garment {
            Some(id) => vec![self.document(id).await?],
            None => self.documents().await?,
        };
        let mut wearers = self.wearers().await?;
        let mut workroom = None;
        if garment.is_some() {
            wearers.retain(|wearer| garments.iter().any(|stored| stored.wearer_id == wearer.id));
        } else {
            workroom = Some(self.workroom().await?).filter(|room| room.version > 0).map(|room| room.workroom);
        }
        let mut photos = Vec::new();
        for stored in &garments {
            let own = self.photos(stored.id).await?;
            photos.extend(own.into_iter().map(|photo| (stored.id, photo)));
        }
        Ok(Whole { workroom, wearers, garments, photos })
    }

    /// Brings in what was taken out, whole or not at all, under the ids it had; `next` gives one photo after the other. Wearers and a workroom
    /// that are there stay as they are: theirs are the newer facts.
    ///
    /// # Errors
    /// [`StoreError::AlreadyThere`] with the names of garments that are, [`StoreError::Full`] if there is no room for it, and whatever
    /// `next` fails with.
    pub async fn bring_in<'a, E: From<StoreError> + Send>(
        &self,
        whole: &Whole,
        mut next: impl FnMut() -> BoxFuture<'a, Result<Option<BroughtPhoto>, E>> + Send + 'a,
    ) -> Result<Brought, E> {
        let (account, limits) = (self.account, self.store.limits);
        let mut connection = self.connection().await?;
        let done = connection.transaction::<_, Failed<E>, _>(async |connection| {
            let known: Vec<Uuid> = wearers::table
                .filter(wearers::account_id.eq(account))
                .select(wearers::id)
                .load(connection)
                .await?;
            let new: Vec<&StoredWearer> = whole.wearers.iter().filter(|w| !known.contains(&w.id)).collect();
            limits.wearers(connection, account, new.len()).await?;
            limits.garments(connection, account, whole.garments.len()).await?;
            let there: Vec<Uuid> = garments::table
                .filter(garments::account_id.eq(account))
                .select(garments::id)
                .load(connection)
                .await?;
            let twice = whole.garments.iter().filter(|stored| there.contains(&stored.id));
            let name = |stored: &StoredDocument| stored.document.newest().map(|s| s.garment.name.clone());
            let twice: Vec<String> = twice.filter_map(name).collect();
            if !twice.is_empty() {
                return Err(StoreError::AlreadyThere(twice).into());
            }
            if let Some(room) = &whole.workroom {
                let row = (
                    workrooms::account_id.eq(account),
                    workrooms::format.eq(crate::format::FORMAT),
                    workrooms::facts.eq(serde_json::to_value(room).map_err(StoreError::from)?),
                );
                let added = diesel::insert_into(workrooms::table).values(row).on_conflict_do_nothing();
                added.execute(connection).await?;
            }
            for wearer in &new {
                add_wearer(connection, (account, wearer.id), &wearer.wearer).await?;
            }
            for stored in &whole.garments {
                let of = (stored.wearer_id, stored.archived);
                add_garment(connection, (account, stored.id), of, &stored.document).await?;
            }
            let mut room = limits.photos(connection, account).await?;
            let (mut pairs, mut photos) = (Vec::new(), 0);
            while let Some(BroughtPhoto { garment, pair, caption, photo }) = next().await.map_err(Failed)? {
                room.take(&photo)?;
                pairs.extend(pair.map(|pair| (photo.id, pair)));
                self.insert_photo(connection, garment, &caption, photo).await?;
                photos += 1;
            }
            for (id, pair) in pairs {
                let own = photos::table.find((account, id));
                diesel::update(own).set(photos::pair_id.eq(pair)).execute(connection).await?;
            }
            Ok(Brought { garments: whole.garments.len(), wearers: new.len(), photos })
        });
        done.await.map_err(|Failed(error)| error)
    }
}
