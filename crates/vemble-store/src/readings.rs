//! Readings as rows: exact, with the unit that was written.

use crate::StoreError;
use crate::schema::readings;
use diesel::prelude::*;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::Value;
use uuid::Uuid;
use vemble_core::fitting::Reading;
use vemble_core::length::{Length, Measure};
use vemble_core::try_on::TryOn;

#[derive(Clone, Debug, PartialEq, Eq, Queryable, Selectable, Insertable, AsChangeset)]
#[diesel(table_name = readings, primary_key(account_id, id))]
pub(crate) struct ReadingRow {
    account_id: Uuid,
    id: Uuid,
    try_on_id: Uuid,
    change: i32,
    position: i32,
    side: String,
    station_nm: i64,
    station_unit: String,
    amount_nm: i64,
    amount_unit: String,
    how: String,
}

/// The word an enumeration has in documents is the word it has in the database.
fn word<T: Serialize>(value: T) -> String {
    match serde_json::to_value(value) {
        Ok(Value::String(word)) => word,
        _ => String::new(),
    }
}

fn from_word<T: DeserializeOwned>(word: &str) -> Result<T, StoreError> {
    Ok(serde_json::from_value(Value::String(word.into()))?)
}

/// All readings of a try-on as rows; one without an id gets a new one.
pub(crate) fn rows_of(account: Uuid, try_on_id: Uuid, try_on: &TryOn) -> Vec<ReadingRow> {
    let numbered = try_on.changes.iter().zip(0..);
    let rows = numbered.flat_map(|(change, number)| {
        change.readings().iter().zip(0..).map(move |(reading, position)| ReadingRow {
            account_id: account,
            id: reading.id.unwrap_or_else(Uuid::now_v7),
            try_on_id,
            change: number,
            position,
            side: word(reading.side),
            station_nm: reading.station.length.nm(),
            station_unit: word(reading.station.unit),
            amount_nm: reading.amount.length.nm(),
            amount_unit: word(reading.amount.unit),
            how: word(reading.how),
        })
    });
    rows.collect()
}

/// The readings of these try-ons.
pub(crate) async fn readings_in(
    connection: &mut AsyncPgConnection,
    account: Uuid,
    try_ons: &[Uuid],
) -> Result<Vec<ReadingRow>, StoreError> {
    let rows = readings::table
        .filter(readings::account_id.eq(account).and(readings::try_on_id.eq_any(try_ons)))
        .order((readings::try_on_id, readings::change, readings::position))
        .select(ReadingRow::as_select());
    Ok(rows.load(connection).await?)
}

/// Makes the stored readings of a try-on, which are `old`, into `new`: only what differs is written.
pub(crate) async fn write_readings(
    connection: &mut AsyncPgConnection,
    old: &[ReadingRow],
    new: &[ReadingRow],
) -> Result<(), StoreError> {
    let gone: Vec<Uuid> = old.iter().filter(|o| new.iter().all(|n| n.id != o.id)).map(|row| row.id).collect();
    if let Some(row) = old.first().filter(|_| !gone.is_empty()) {
        let own =
            readings::table.filter(readings::account_id.eq(row.account_id).and(readings::id.eq_any(gone)));
        diesel::delete(own).execute(connection).await?;
    }
    let (mut added, mut changed) = (Vec::new(), Vec::new());
    for row in new {
        match old.iter().find(|o| o.id == row.id) {
            None => added.push(row),
            Some(same) if same == row => {}
            Some(_) => changed.push(row),
        }
    }
    for row in changed {
        let own = readings::table.find((row.account_id, row.id));
        diesel::update(own).set(row).execute(connection).await?;
    }
    // One is what a hand enters at a time; the statement for one is prepared once.
    match added[..] {
        [] => 0,
        [one] => diesel::insert_into(readings::table).values(one).execute(connection).await?,
        _ => diesel::insert_into(readings::table).values(added).execute(connection).await?,
    };
    Ok(())
}

/// The readings of the change of that number, in the order they were taken.
pub(crate) fn readings_of(
    rows: &[ReadingRow],
    try_on: Uuid,
    change: usize,
) -> Result<Vec<Reading>, StoreError> {
    let own = rows.iter().filter(|r| r.try_on_id == try_on && usize::try_from(r.change) == Ok(change));
    let measure =
        |nm, unit: &str| Ok::<_, StoreError>(Measure { length: Length::from_nm(nm), unit: from_word(unit)? });
    own.map(|row| {
        Ok(Reading {
            id: Some(row.id),
            side: from_word(&row.side)?,
            station: measure(row.station_nm, &row.station_unit)?,
            amount: measure(row.amount_nm, &row.amount_unit)?,
            how: from_word(&row.how)?,
        })
    })
    .collect()
}
