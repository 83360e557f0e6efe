//! What happens, told to every instance of the server that works on the same database (PostgreSQL's LISTEN and NOTIFY).

use crate::connect::establish;
use crate::{Sees, Store, StoreError};
use diesel::sql_types::Text;
use diesel_async::{AsyncPgConnection, RunQueryDsl, SimpleAsyncConnection};
use futures_util::StreamExt;
use serde::{Deserialize, Serialize};
use std::time::Duration;
use tokio::time::timeout;
use uuid::Uuid;
use vemble_core::change::ChangeKey;
use vemble_core::fitting::GarmentSide;

const CHANNEL: &str = "vemble";
/// How long the database may take for nothing: a thousand times what it takes.
const BEAT: Duration = Duration::from_millis(1_500);

/// Something that happened. It says where to look, never what is there: whoever hears it asks, and sees what they may.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Notice {
    /// A try-on has a new version.
    TryOn {
        /// Whose it is.
        account: Uuid,
        /// Its garment.
        garment: Uuid,
        /// Which.
        try_on: Uuid,
        /// Its version now; nothing when it was removed.
        version: Option<i32>,
    },
    /// A garment has a new version.
    Garment {
        /// Whose it is.
        account: Uuid,
        /// Which.
        garment: Uuid,
        /// Its version now; nothing when it was removed.
        version: Option<i32>,
    },
    /// A wearer has a new version.
    Wearer {
        /// Whose they are.
        account: Uuid,
        /// Who.
        wearer: Uuid,
        /// Their version now; nothing when they were removed.
        version: Option<i32>,
    },
    /// Sessions of the account have ended, or all of it: whoever listens asks whether they are still in.
    Ended {
        /// Whose.
        account: Uuid,
    },
    /// Somebody is being asked about a place just now.
    Asked {
        /// Whose try-on it is.
        account: Uuid,
        /// Which.
        try_on: Uuid,
        /// The step that is open: `pins.waist`.
        step: String,
        /// Which change is pinned there, if it is one.
        change: Option<ChangeKey>,
        /// On which side of the garment.
        side: Option<GarmentSide>,
        /// What is typed so far, for showing.
        typed: String,
    },
    /// The account's digital tape says something.
    Tape {
        /// Whose it is.
        account: Uuid,
        /// What was read, as a length with its unit; nothing when only the battery spoke.
        reading: Option<String>,
        /// What is left in the battery, in percent.
        battery: Option<u8>,
    },
    /// Some notices were missed: look again.
    Missed,
}

impl Notice {
    /// Whose it is; a missed one is everybody's.
    pub const fn account(&self) -> Option<Uuid> {
        match self {
            Self::TryOn { account, .. }
            | Self::Garment { account, .. }
            | Self::Wearer { account, .. }
            | Self::Ended { account }
            | Self::Asked { account, .. }
            | Self::Tape { account, .. } => Some(*account),
            Self::Missed => None,
        }
    }
}

/// Tells a notice on a connection: with its transaction, if there is one.
pub(crate) async fn tell(connection: &mut AsyncPgConnection, notice: &Notice) -> Result<(), StoreError> {
    diesel::sql_query("SELECT pg_notify($1, $2)")
        .bind::<Text, _>(CHANNEL)
        .bind::<Text, _>(serde_json::to_string(notice)?)
        .execute(connection)
        .await?;
    Ok(())
}

impl Store {
    /// Tells every instance.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn tell(&self, notice: &Notice) -> Result<(), StoreError> {
        tell(&mut *self.connection(Sees::Nobody).await?, notice).await
    }

    /// Hears what every instance tells, for as long as it is awaited. Where the connection breaks a new one is made, and
    /// [`Notice::Missed`] is heard.
    pub async fn hear(&self, heard: impl Fn(Notice)) {
        loop {
            if let Err(error) = self.hear_until_it_breaks(&heard).await {
                tracing::warn!(error = &error as &dyn std::error::Error, "notices stopped; listening again");
            }
            tokio::time::sleep(Duration::from_secs(1)).await;
        }
    }

    /// Feels the pulse of the database, on a connection of its own, for as long as it is awaited: whoever waits for one that hangs is not
    /// taken for one of many who wait for a connection.
    pub async fn feel(&self, felt: impl Fn(bool)) {
        loop {
            if let Ok(mut connection) = establish(&self.url).await {
                let beat = async |connection: &mut AsyncPgConnection| {
                    matches!(timeout(BEAT, connection.batch_execute("SELECT 1")).await, Ok(Ok(())))
                };
                while beat(&mut connection).await {
                    felt(true);
                    tokio::time::sleep(Duration::from_secs(1)).await;
                }
            }
            felt(false);
            tokio::time::sleep(Duration::from_millis(300)).await;
        }
    }

    async fn hear_until_it_breaks(&self, heard: &impl Fn(Notice)) -> Result<(), StoreError> {
        let mut connection = establish(&self.url).await?;
        connection.batch_execute(&format!("LISTEN {CHANNEL}")).await?;
        heard(Notice::Missed);
        let mut notices = std::pin::pin!(connection.notifications_stream());
        while let Some(notice) = notices.next().await {
            match serde_json::from_str(&notice?.payload) {
                Ok(notice) => heard(notice),
                Err(error) => tracing::warn!(%error, "a notice that cannot be read"),
            }
        }
        Ok(())
    }
}
