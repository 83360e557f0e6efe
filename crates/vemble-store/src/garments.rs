//! Garments of an account, with their wearers and try-ons.

use crate::format::{FORMAT, TryOnRow, read};
use crate::notices::{Notice, tell};
use crate::readings::readings_in;
use crate::schema::{garment_states, garments, try_ons, wearers, wishes};
use crate::states::{add_state, records_in, states_in};
use crate::work::{logs_in, wishes_in};
use crate::{AccountStore, StoreError, one_moment};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use serde_json::Value;
use std::collections::HashMap;
use uuid::Uuid;
use vemble_core::document::{Document, State, VERSION};
use vemble_core::garment::Garment;

/// A garment as stored, with the versions a change has to name.
#[derive(Clone, Debug)]
pub struct StoredDocument {
    /// The garment's id.
    pub id: Uuid,
    /// The version of the garment: it goes up with every correction and whatever is entered in its record.
    pub version: i32,
    /// Who wears it.
    pub wearer_id: Uuid,
    /// It is put away.
    pub archived: bool,
    /// The version of each try-on, in the document's order.
    pub try_on_versions: Vec<i32>,
    /// The version of what is wished for it; 0 where nothing is.
    pub wishes_version: i32,
    /// The garment with its history, its wearer and its try-ons.
    pub document: Document,
}

/// Everything that what the rail shows of a garment depends on: as long as this is the same, so is that.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct RailKey {
    /// The account.
    pub account: Uuid,
    /// The garment, and the version of its facts.
    pub garment: (Uuid, i32),
    /// Who wears it, and the version of theirs.
    pub wearer: (Uuid, i32),
    /// Its newest try-on and the version of that.
    pub try_on: Option<(Uuid, i32)>,
    /// The version of what is wished for it; 0 where nothing is.
    pub wishes: i32,
}

/// What a garment is changed to.
pub struct StoredGarment {
    /// Who wears it.
    pub wearer_id: Uuid,
    /// It is put away.
    pub archived: bool,
    /// The state that is corrected; of a new garment its first.
    pub state: Uuid,
    /// The facts of that state.
    pub garment: Garment,
}

type GarmentRow = (Uuid, i32, Uuid, bool, i32, Value);

/// What of a try-on's row is read.
pub(crate) const TRY_ON: (
    try_ons::id,
    try_ons::garment_id,
    try_ons::state_id,
    try_ons::version,
    try_ons::format,
    try_ons::facts,
) = (try_ons::id, try_ons::garment_id, try_ons::state_id, try_ons::version, try_ons::format, try_ons::facts);

impl AccountStore<'_> {
    /// Every garment of the account, the oldest first.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn documents(&self) -> Result<Vec<StoredDocument>, StoreError> {
        self.load(None).await
    }

    /// What the rail depends on, for every garment of the account, the oldest first.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn rail_keys(&self) -> Result<Vec<RailKey>, StoreError> {
        let mut connection = self.connection().await?;
        let garments: Vec<(Uuid, i32, Uuid, i32)> =
            garments::table
                .inner_join(wearers::table.on(
                    wearers::account_id.eq(garments::account_id).and(wearers::id.eq(garments::wearer_id)),
                ))
                .filter(garments::account_id.eq(self.account))
                .order(garments::id)
                .select((garments::id, garments::version, wearers::id, wearers::version))
                .load(&mut connection)
                .await?;
        // Later ones take the place of earlier ones: the newest is left.
        let newest: HashMap<Uuid, (Uuid, i32)> = try_ons::table
            .filter(try_ons::account_id.eq(self.account))
            .order(try_ons::id)
            .select((try_ons::garment_id, (try_ons::id, try_ons::version)))
            .load::<(Uuid, (Uuid, i32))>(&mut connection)
            .await?
            .into_iter()
            .collect();
        let wished: HashMap<Uuid, i32> = wishes::table
            .filter(wishes::account_id.eq(self.account))
            .select((wishes::garment_id, wishes::version))
            .load::<(Uuid, i32)>(&mut connection)
            .await?
            .into_iter()
            .collect();
        let key = |(garment, version, wearer, of_wearer)| RailKey {
            account: self.account,
            garment: (garment, version),
            wearer: (wearer, of_wearer),
            try_on: newest.get(&garment).copied(),
            wishes: wished.get(&garment).copied().unwrap_or(0),
        };
        Ok(garments.into_iter().map(key).collect())
    }

    /// These garments of the account, with their wearers and try-ons.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn documents_of(&self, garments: &[Uuid]) -> Result<Vec<StoredDocument>, StoreError> {
        self.load(Some(garments)).await
    }

    /// One garment with its wearer and try-ons.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account has no such garment.
    pub async fn document(&self, garment: Uuid) -> Result<StoredDocument, StoreError> {
        self.load(Some(&[garment])).await?.pop().ok_or(StoreError::NotFound)
    }

    async fn load(&self, only: Option<&[Uuid]>) -> Result<Vec<StoredDocument>, StoreError> {
        let mut connection = self.connection().await?;
        one_moment(&mut connection).run(async |connection| self.loaded(connection, only).await).await
    }

    pub(crate) async fn loaded(
        &self,
        connection: &mut AsyncPgConnection,
        only: Option<&[Uuid]>,
    ) -> Result<Vec<StoredDocument>, StoreError> {
        let account = self.account;
        let joined =
            garments::table
                .inner_join(wearers::table.on(
                    wearers::account_id.eq(garments::account_id).and(wearers::id.eq(garments::wearer_id)),
                ))
                .filter(garments::account_id.eq(account))
                .order(garments::id)
                .select((
                    garments::id,
                    garments::version,
                    garments::wearer_id,
                    garments::archived,
                    wearers::format,
                    wearers::facts,
                ))
                .into_boxed();
        let joined = match only {
            Some(ids) => joined.filter(garments::id.eq_any(ids)),
            None => joined,
        };
        let garments: Vec<GarmentRow> = joined.load(connection).await?;
        let ids: Vec<Uuid> = garments.iter().map(|garment| garment.0).collect();
        let mut states = states_in(connection, account, &ids).await?;
        let mut records = records_in(connection, account, &ids).await?;
        let mut wishes = wishes_in(connection, account, &ids).await?;
        let mut logs = logs_in(connection, account, &ids).await?;
        let try_ons: Vec<TryOnRow> = try_ons::table
            .filter(try_ons::account_id.eq(account).and(try_ons::garment_id.eq_any(&ids)))
            .order(try_ons::id)
            .select(TRY_ON)
            .load(connection)
            .await?;
        let ids: Vec<Uuid> = try_ons.iter().map(|t| t.id).collect();
        let rows = readings_in(connection, account, &ids).await?;
        let mut document = |(id, version, wearer_id, archived, format, wearer): GarmentRow| {
            let (wishes_version, wishes) = wishes.remove(&id).unwrap_or_default();
            let mut document = Document {
                version: VERSION,
                record: records.remove(&id).unwrap_or_default(),
                wearer: read(format, wearer)?,
                states: states.remove(&id).unwrap_or_default(),
                try_ons: Vec::new(),
                wishes,
                log: logs.remove(&id).unwrap_or_default(),
            };
            let mut try_on_versions = Vec::new();
            for row in try_ons.iter().filter(|t| t.garment_id == id) {
                try_on_versions.push(row.version);
                let try_on = row.clone().read(&document, &rows)?;
                document.try_ons.push(try_on);
            }
            Ok(StoredDocument { id, version, wearer_id, archived, try_on_versions, wishes_version, document })
        };
        garments.into_iter().map(&mut document).collect()
    }

    /// Stores a garment: corrects one of its states, says who wears it, puts it away. `version` is the one that was read, 0 makes a new
    /// garment in its first state. Gives the new version.
    ///
    /// # Errors
    /// [`StoreError::StaleGarment`] with what is stored if somebody was faster, [`StoreError::NotFound`] if the garment, the state or the
    /// wearer is not this account's, [`StoreError::Full`] if there are as many as there may be.
    pub async fn put_garment(&self, id: Uuid, version: i32, new: &StoredGarment) -> Result<i32, StoreError> {
        let account = self.account;
        let facts = serde_json::to_value(&new.garment)?;
        let mut connection = self.connection().await?;
        let is_done = connection
            .transaction::<_, StoreError, _>(async |connection| {
                if version == 0 {
                    self.store.limits.garments(connection, account, 1).await?;
                    let row = (
                        garments::account_id.eq(account),
                        garments::id.eq(id),
                        garments::wearer_id.eq(new.wearer_id),
                        garments::archived.eq(new.archived),
                    );
                    let made = diesel::insert_into(garments::table).values(row).on_conflict_do_nothing();
                    let is_new = made.execute(connection).await? == 1;
                    if is_new {
                        let first = State::first(new.state, new.garment.clone());
                        add_state(connection, (account, id), 0, &first).await?;
                        tell(connection, &Notice::Garment { account, garment: id, version: Some(1) }).await?;
                    }
                    return Ok(is_new);
                }
                let set = (
                    garments::version.eq(version.saturating_add(1)),
                    garments::wearer_id.eq(new.wearer_id),
                    garments::archived.eq(new.archived),
                );
                let own = garments::table.find((account, id)).filter(garments::version.eq(version));
                if diesel::update(own).set(set).execute(connection).await? == 0 {
                    return Ok(false);
                }
                let own = garment_states::table.find((account, id, new.state));
                let is = own.select(garment_states::facts).first::<Value>(connection).await?;
                if is != facts {
                    let set = (
                        garment_states::revision.eq(garment_states::revision + 1),
                        garment_states::format.eq(FORMAT),
                        garment_states::facts.eq(&facts),
                    );
                    diesel::update(own).set(set).execute(connection).await?;
                }
                let version = Some(version.saturating_add(1));
                tell(connection, &Notice::Garment { account, garment: id, version }).await?;
                Ok(true)
            })
            .await?;
        drop(connection);
        let next = version.saturating_add(1);
        if is_done {
            return Ok(next);
        }
        let there = self.document(id).await?;
        // Sent again, since nobody knew whether it arrived: it did.
        let is_this = (there.version, there.wearer_id, there.archived) == (next, new.wearer_id, new.archived)
            && there.document.state(new.state).is_some_and(|state| state.garment == new.garment);
        if is_this { Ok(next) } else { Err(StoreError::StaleGarment(Box::new(there))) }
    }

    /// Removes a garment with its try-ons and photos.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account has no such garment.
    pub async fn delete_garment(&self, id: Uuid) -> Result<(), StoreError> {
        let mut connection = self.connection().await?;
        match diesel::delete(garments::table.find((self.account, id))).execute(&mut connection).await? {
            0 => Err(StoreError::NotFound),
            _ => {
                let account = self.account;
                tell(&mut connection, &Notice::Garment { account, garment: id, version: None }).await
            }
        }
    }
}
