//! PostgreSQL through Diesel. Core types go in and come out; SQL stays here, and every query is scoped to an account.

mod documents;
mod readings;
mod schema;

pub use documents::{AccountStore, StoredDocument, StoredTryOn};

use diesel::prelude::*;
use diesel_async::pooled_connection::AsyncDieselConnectionManager;
use diesel_async::pooled_connection::deadpool::{Object, Pool};
use diesel_async::{
    AsyncConnection, AsyncMigrationHarness, AsyncPgConnection, RunQueryDsl, SimpleAsyncConnection,
};
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};
use uuid::Uuid;
use vemble_core::document::Document;

const MIGRATIONS: EmbeddedMigrations = embed_migrations!();

/// What can go wrong in the store.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// There is no such thing in this account.
    #[error("not found")]
    NotFound,
    /// Somebody else changed it since it was read; this is how it stands now.
    #[error("changed since it was read")]
    Stale(Box<StoredTryOn>),
    /// An id of this try-on already belongs to another thing of the account.
    #[error("an id is used twice")]
    IdTaken,
    /// The database cannot be reached.
    #[error("the database cannot be reached; is it running, and is DATABASE_URL right?")]
    Unreachable(#[source] Box<dyn std::error::Error + Send + Sync>),
    /// The database refused a query.
    #[error("the database refused: {0}")]
    Refused(#[source] diesel::result::Error),
    /// What is stored cannot be read by this version.
    #[error("stored data cannot be read: {0}")]
    Unreadable(#[from] serde_json::Error),
}

impl From<diesel::result::Error> for StoreError {
    fn from(error: diesel::result::Error) -> Self {
        use diesel::result::{DatabaseErrorKind as Kind, Error};
        match error {
            Error::NotFound => Self::NotFound,
            Error::DatabaseError(Kind::UniqueViolation, _) => Self::IdTaken,
            Error::DatabaseError(Kind::ForeignKeyViolation, _) => Self::NotFound,
            Error::DatabaseError(Kind::ClosedConnection, _) => Self::Unreachable(Box::new(error)),
            other => Self::Refused(other),
        }
    }
}

/// All accounts. Holds only a pool of connections; several instances may share one database.
#[derive(Clone)]
pub struct Store {
    pool: Pool<AsyncPgConnection>,
}

impl Store {
    /// Opens the database at `url` and brings its tables up to date.
    ///
    /// # Errors
    /// [`StoreError::Unreachable`] when nothing answers there or a migration fails.
    pub async fn open(url: &str) -> Result<Self, StoreError> {
        let own_url = url.to_owned();
        tokio::task::spawn_blocking(move || migrate(&own_url))
            .await
            .map_err(|e| StoreError::Unreachable(Box::new(e)))??;
        let manager = AsyncDieselConnectionManager::<AsyncPgConnection>::new(url);
        let pool =
            Pool::builder(manager).max_size(16).build().map_err(|e| StoreError::Unreachable(Box::new(e)))?;
        Ok(Self { pool })
    }

    pub(crate) async fn connection(&self) -> Result<Object<AsyncPgConnection>, StoreError> {
        self.pool.get().await.map_err(|e| StoreError::Unreachable(Box::new(e)))
    }

    /// Asks the database for a sign of life.
    ///
    /// # Errors
    /// When it gives none.
    pub async fn is_alive(&self) -> Result<(), StoreError> {
        Ok(self.connection().await?.batch_execute("SELECT 1").await?)
    }

    /// The garments, wearers and try-ons of one account, and of no other.
    pub fn account(&self, account: Uuid) -> AccountStore<'_> {
        AccountStore { store: self, account }
    }

    /// True while the account exists.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn has_account(&self, account: Uuid) -> Result<bool, StoreError> {
        use schema::accounts::dsl;
        let found =
            dsl::accounts.find(account).select(dsl::id).first::<Uuid>(&mut self.connection().await?).await;
        Ok(found.optional()?.is_some())
    }

    /// The example account, made and filled with `documents` if there is none yet.
    ///
    /// # Errors
    /// Whatever the database reports.
    pub async fn example_account(&self, documents: &[Document]) -> Result<Uuid, StoreError> {
        use schema::accounts::dsl;
        let mut connection = self.connection().await?;
        let find = || dsl::accounts.filter(dsl::is_example).select(dsl::id);
        if let Some(id) = find().first::<Uuid>(&mut connection).await.optional()? {
            return Ok(id);
        }
        let id = Uuid::now_v7();
        let row = (dsl::id.eq(id), dsl::name.eq("Example"), dsl::is_example.eq(true));
        let made = diesel::insert_into(dsl::accounts)
            .values(row)
            .on_conflict_do_nothing()
            .execute(&mut connection)
            .await?;
        if made == 0 {
            return Ok(find().first(&mut connection).await?);
        }
        drop(connection);
        self.account(id).replace_all(documents).await?;
        Ok(id)
    }
}

/// Brings the tables up to date. The migration harness blocks on a runtime with several threads, which the
/// caller's may not be, so it gets one of its own.
fn migrate(url: &str) -> Result<(), StoreError> {
    let unreachable = |e: std::io::Error| StoreError::Unreachable(Box::new(e));
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(1).enable_all().build();
    runtime.map_err(unreachable)?.block_on(async {
        let mut connection =
            AsyncPgConnection::establish(url).await.map_err(|e| StoreError::Unreachable(Box::new(e)))?;
        // Instances that start together take turns; the lock ends with this connection.
        connection.batch_execute("SELECT pg_advisory_lock(7361001)").await?;
        let mut harness = AsyncMigrationHarness::new(connection);
        harness.run_pending_migrations(MIGRATIONS).map(drop).map_err(StoreError::Unreachable)
    })
}
