//! Garments of an account, with their wearers and try-ons.

use crate::notices::{Notice, tell};
use crate::readings::{ReadingRow, readings_of, rows_of, write_readings};
use crate::schema::{garments, invitations, readings, try_ons, wearers};
use crate::{AccountStore, StoreError};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use futures_util::future::try_join;
use serde_json::Value;
use std::collections::HashMap;
use uuid::Uuid;
use vemble_core::document::{Document, VERSION};
use vemble_core::fitting::TryOn;
use vemble_core::garment::Garment;

/// A garment as stored, with the versions a change has to name.
#[derive(Clone, Debug)]
pub struct StoredDocument {
    /// The garment's id.
    pub id: Uuid,
    /// The version of the garment's facts.
    pub version: i32,
    /// Who wears it.
    pub wearer_id: Uuid,
    /// It is put away.
    pub archived: bool,
    /// The version of each try-on, in the document's order.
    pub try_on_versions: Vec<i32>,
    /// Garment, wearer and try-ons.
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
}

/// What a garment is changed to.
pub struct StoredGarment {
    /// Who wears it.
    pub wearer_id: Uuid,
    /// It is put away.
    pub archived: bool,
    /// Its facts; the wearer in it is not stored with it.
    pub garment: Garment,
}

/// A try-on as stored.
#[derive(Clone, Debug)]
pub struct StoredTryOn {
    /// Its version: the next change has to name it.
    pub version: i32,
    /// The try-on; its own id and the ids of its readings are set.
    pub try_on: TryOn,
}

type GarmentRow = (Uuid, i32, Uuid, bool, Value, Value);
type TryOnRow = (Uuid, Uuid, i32, Value);

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
        let key = |(garment, version, wearer, of_wearer)| RailKey {
            account: self.account,
            garment: (garment, version),
            wearer: (wearer, of_wearer),
            try_on: newest.get(&garment).copied(),
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
                    garments::facts,
                    wearers::facts,
                ))
                .into_boxed();
        let of_garment = try_ons::table
            .filter(try_ons::account_id.eq(account))
            .order(try_ons::id)
            .select((try_ons::id, try_ons::garment_id, try_ons::version, try_ons::facts))
            .into_boxed();
        let (joined, of_garment) = match only {
            Some(ids) => {
                (joined.filter(garments::id.eq_any(ids)), of_garment.filter(try_ons::garment_id.eq_any(ids)))
            }
            None => (joined, of_garment),
        };
        let garments: Vec<GarmentRow> = joined.load(&mut connection).await?;
        let try_ons: Vec<TryOnRow> = of_garment.load(&mut connection).await?;
        let ids: Vec<Uuid> = try_ons.iter().map(|t| t.0).collect();
        let rows = readings_in(&mut connection, account, &ids).await?;
        let document = |(id, version, wearer_id, archived, facts, wearer): GarmentRow| {
            let (mut try_on_versions, mut document) = (
                Vec::new(),
                Document { version: VERSION, garment: garment_with(facts, wearer)?, try_ons: Vec::new() },
            );
            for (try_on, _, version, facts) in try_ons.iter().filter(|t| t.1 == id) {
                try_on_versions.push(*version);
                document.try_ons.push(try_on_with(*try_on, facts.clone(), &rows)?);
            }
            Ok(StoredDocument { id, version, wearer_id, archived, try_on_versions, document })
        };
        garments.into_iter().map(document).collect()
    }

    /// Stores a garment's facts; `version` is the one that was read, 0 makes a new garment. Gives the new version.
    ///
    /// # Errors
    /// [`StoreError::StaleGarment`] with the stored state if somebody was faster, [`StoreError::NotFound`] if the garment or
    /// its wearer is not this account's.
    pub async fn put_garment(&self, id: Uuid, version: i32, new: &StoredGarment) -> Result<i32, StoreError> {
        let facts = garment_without_wearer(&new.garment)?.0;
        let mut connection = self.connection().await?;
        let changed = if version == 0 {
            let row = (
                garments::account_id.eq(self.account),
                garments::id.eq(id),
                garments::wearer_id.eq(new.wearer_id),
                garments::archived.eq(new.archived),
                garments::facts.eq(facts),
            );
            diesel::insert_into(garments::table)
                .values(row)
                .on_conflict_do_nothing()
                .execute(&mut connection)
                .await?
        } else {
            let own = garments::table.find((self.account, id)).filter(garments::version.eq(version));
            let set = (
                garments::version.eq(version + 1),
                garments::wearer_id.eq(new.wearer_id),
                garments::archived.eq(new.archived),
                garments::facts.eq(facts),
            );
            diesel::update(own).set(set).execute(&mut connection).await?
        };
        drop(connection);
        match changed {
            0 => Err(StoreError::StaleGarment(Box::new(self.document(id).await?))),
            _ => Ok(version + 1),
        }
    }

    /// Removes a garment with its try-ons and photos.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account has no such garment.
    pub async fn delete_garment(&self, id: Uuid) -> Result<(), StoreError> {
        let own = garments::table.find((self.account, id));
        match diesel::delete(own).execute(&mut self.connection().await?).await? {
            0 => Err(StoreError::NotFound),
            _ => Ok(()),
        }
    }

    /// Changes a try-on of a garment, or makes it: `decide` sees the garment and the try-on as it is stored, if it is, and gives the
    /// try-on as it shall be, or nothing to leave it. Nobody else changes it meanwhile. Gives what is stored then.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if the garment or try-on is not this account's, [`StoreError::IdTaken`] if a reading's id is
    /// used elsewhere, and whatever `decide` refuses with; nothing is stored then.
    pub async fn change_try_on<E: From<StoreError> + Send>(
        &self,
        garment: Uuid,
        id: Uuid,
        decide: impl Fn(&Garment, Option<&StoredTryOn>) -> Result<Option<TryOn>, E> + Sync,
    ) -> Result<StoredTryOn, E> {
        let mut connection = self.connection().await?;
        // Somebody may make it between looking and making; then it is there at the second look.
        for _ in 0..2 {
            let mut refused = None;
            let done = connection
                .transaction::<_, StoreError, _>(async |connection| {
                    let (worn, stored, rows) = self.held(connection, garment, id).await?;
                    match decide(&worn, stored.as_ref()) {
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

    /// The garment as worn, and its try-on held fast until the transaction ends.
    async fn held(
        &self,
        connection: &mut AsyncPgConnection,
        garment: Uuid,
        id: Uuid,
    ) -> Result<(Garment, Option<StoredTryOn>, Vec<ReadingRow>), StoreError> {
        let worn =
            garments::table
                .inner_join(wearers::table.on(
                    wearers::account_id.eq(garments::account_id).and(wearers::id.eq(garments::wearer_id)),
                ))
                .filter(garments::account_id.eq(self.account).and(garments::id.eq(garment)))
                .select((garments::facts, wearers::facts));
        let own = self.own_try_on(garment, id).select((try_ons::version, try_ons::facts)).for_update();
        let both = &*connection;
        let ((facts, wearer), held) =
            try_join(worn.first::<(Value, Value)>(&mut &*both), own.load::<(i32, Value)>(&mut &*both))
                .await?;
        let worn = garment_with(facts, wearer)?;
        let Some((version, facts)) = held.into_iter().next() else {
            return Ok((worn, None, Vec::new()));
        };
        let rows = readings_in(connection, self.account, &[id]).await?;
        let try_on = try_on_with(id, facts, &rows)?;
        Ok((worn, Some(StoredTryOn { version, try_on }), rows))
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
            let new = (
                try_ons::account_id.eq(account),
                try_ons::id.eq(id),
                try_ons::garment_id.eq(garment),
                try_ons::facts.eq(&facts),
            );
            let made = diesel::insert_into(try_ons::table).values(new).on_conflict_do_nothing();
            if made.execute(connection).await? == 0 {
                return Ok(None);
            }
        } else {
            let set = (try_ons::version.eq(version + 1), try_ons::facts.eq(&facts));
            diesel::update(try_ons::table.find((account, id))).set(set).execute(connection).await?;
        }
        write_readings(connection, old, &rows).await?;
        if try_on.closed {
            let over = invitations::table
                .filter(invitations::account_id.eq(account).and(invitations::try_on_id.eq(id)));
            diesel::delete(over).execute(connection).await?;
        }
        let version = version + 1;
        tell(connection, &Notice::TryOn { account, garment, try_on: id, version }).await?;
        Ok(Some(StoredTryOn { version, try_on: try_on_with(id, facts, &rows)? }))
    }

    /// Removes a try-on with its readings.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account's garment has no such try-on.
    pub async fn delete_try_on(&self, garment: Uuid, id: Uuid) -> Result<(), StoreError> {
        let own = try_ons::table.find((self.account, id)).filter(try_ons::garment_id.eq(garment));
        match diesel::delete(own).execute(&mut self.connection().await?).await? {
            0 => Err(StoreError::NotFound),
            _ => Ok(()),
        }
    }

    /// One try-on as it is stored.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] if this account's garment has no such try-on.
    pub async fn try_on(&self, garment: Uuid, id: Uuid) -> Result<StoredTryOn, StoreError> {
        let mut connection = self.connection().await?;
        let own = self.own_try_on(garment, id).select((try_ons::version, try_ons::facts));
        let (version, facts): (i32, Value) = own.first(&mut connection).await?;
        let rows = readings_in(&mut connection, self.account, &[id]).await?;
        Ok(StoredTryOn { version, try_on: try_on_with(id, facts, &rows)? })
    }

    #[diesel::dsl::auto_type(no_type_alias)]
    fn own_try_on(&self, garment: Uuid, id: Uuid) -> _ {
        let account: Uuid = self.account;
        try_ons::table.filter(
            try_ons::account_id.eq(account).and(try_ons::id.eq(id)).and(try_ons::garment_id.eq(garment)),
        )
    }

    /// Empties the account and fills it with `documents`, whole or not at all.
    ///
    /// # Errors
    /// Whatever the database reports; the account is then as it was.
    pub async fn replace_all(&self, documents: &[Document]) -> Result<(), StoreError> {
        let account = self.account;
        let mut connection = self.connection().await?;
        connection
            .transaction::<_, StoreError, _>(async |connection| {
                diesel::delete(garments::table.filter(garments::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                diesel::delete(wearers::table.filter(wearers::account_id.eq(account)))
                    .execute(connection)
                    .await?;
                let mut known: Vec<(Value, Uuid)> = Vec::new();
                for document in documents {
                    insert(connection, account, document, &mut known).await?;
                }
                Ok(())
            })
            .await
    }
}

async fn insert(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    document: &Document,
    known: &mut Vec<(Value, Uuid)>,
) -> Result<(), StoreError> {
    let (facts, wearer) = garment_without_wearer(&document.garment)?;
    let wearer_id = match known.iter().find(|k| k.0 == wearer) {
        Some((_, id)) => *id,
        None => {
            let id = Uuid::now_v7();
            let row = (wearers::account_id.eq(account), wearers::id.eq(id), wearers::facts.eq(&wearer));
            diesel::insert_into(wearers::table).values(row).execute(connection).await?;
            known.push((wearer, id));
            id
        }
    };
    let garment = Uuid::now_v7();
    let row = (
        garments::account_id.eq(account),
        garments::id.eq(garment),
        garments::wearer_id.eq(wearer_id),
        garments::facts.eq(facts),
    );
    diesel::insert_into(garments::table).values(row).execute(connection).await?;
    for try_on in &document.try_ons {
        let id = try_on.id.unwrap_or_else(Uuid::now_v7);
        let row = (
            try_ons::account_id.eq(account),
            try_ons::id.eq(id),
            try_ons::garment_id.eq(garment),
            try_ons::facts.eq(facts_of(try_on)?),
        );
        diesel::insert_into(try_ons::table).values(row).execute(connection).await?;
        diesel::insert_into(readings::table)
            .values(&rows_of(account, id, try_on))
            .execute(connection)
            .await?;
    }
    Ok(())
}

async fn readings_in(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    try_ons: &[Uuid],
) -> Result<Vec<ReadingRow>, StoreError> {
    let rows = readings::table
        .filter(readings::account_id.eq(account).and(readings::try_on_id.eq_any(try_ons)))
        .order((readings::try_on_id, readings::alteration, readings::position))
        .select(ReadingRow::as_select());
    Ok(rows.load(connection).await?)
}

/// A garment's facts, and its wearer's, which have a place of their own.
fn garment_without_wearer(garment: &Garment) -> Result<(Value, Value), StoreError> {
    let mut facts = serde_json::to_value(garment)?;
    let wearer = facts.as_object_mut().and_then(|f| f.remove("wearer")).unwrap_or_default();
    Ok((facts, wearer))
}

fn garment_with(mut facts: Value, wearer: Value) -> Result<Garment, StoreError> {
    if let Some(facts) = facts.as_object_mut() {
        facts.insert("wearer".into(), wearer);
    }
    Ok(serde_json::from_value(facts)?)
}

/// A try-on without its id and readings, which have places of their own.
fn facts_of(try_on: &TryOn) -> Result<Value, StoreError> {
    let mut facts = TryOn { id: None, ..try_on.clone() };
    for alteration in &mut facts.alterations {
        alteration.readings.clear();
    }
    Ok(serde_json::to_value(facts)?)
}

fn try_on_with(id: Uuid, facts: Value, rows: &[ReadingRow]) -> Result<TryOn, StoreError> {
    let mut try_on: TryOn = serde_json::from_value(facts)?;
    try_on.id = Some(id);
    for (number, alteration) in try_on.alterations.iter_mut().enumerate() {
        alteration.readings = readings_of(rows, id, number)?;
    }
    Ok(try_on)
}
