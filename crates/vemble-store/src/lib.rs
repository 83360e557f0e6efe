//! PostgreSQL through Diesel. Core types go in and come out; SQL stays here. Accounts are kept apart twice: every query
//! names its account, and row-level security holds for the role that serves them.

mod accounts;
mod format;
mod garments;
mod invitations;
mod notices;
mod photos;
mod readings;
mod schema;
mod states;
mod tapes;
mod try_ons;
mod wearers;
mod whole;

pub use accounts::{Account, Credentials, NewAccount};
pub use garments::{RailKey, StoredDocument, StoredGarment};
pub use invitations::{Invitation, NewInvitation};
pub use notices::Notice;
pub use photos::{Moment, NewPhoto, Photo};
pub use states::Sewing;
pub use try_ons::StoredTryOn;
pub use wearers::StoredWearer;

use diesel::prelude::*;
use diesel::sql_types::Text;
use diesel_async::pg::TransactionBuilder;
use diesel_async::pooled_connection::deadpool::{Object, Pool};
use diesel_async::pooled_connection::{AsyncDieselConnectionManager, ManagerConfig, RecyclingMethod};
use diesel_async::{
    AsyncConnection, AsyncMigrationHarness, AsyncPgConnection, RunQueryDsl, SimpleAsyncConnection,
};
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};
use uuid::Uuid;

const MIGRATIONS: EmbeddedMigrations = embed_migrations!();

/// What can go wrong in the store.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// There is no such thing in this account.
    #[error("not found")]
    NotFound,
    /// Somebody else changed a try-on since it was read; this is how it stands now.
    #[error("changed since it was read")]
    Stale(Box<StoredTryOn>),
    /// Somebody else changed a garment since it was read.
    #[error("changed since it was read")]
    StaleGarment(Box<StoredDocument>),
    /// Somebody else changed a wearer since it was read.
    #[error("changed since it was read")]
    StaleWearer(Box<StoredWearer>),
    /// An id already belongs to another thing of the account.
    #[error("an id is used twice")]
    IdTaken,
    /// Somebody has signed up with this address already.
    #[error("the address is taken")]
    EmailTaken,
    /// The wearer still has garments, these.
    #[error("still has garments")]
    HasGarments(Vec<String>),
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
        match &error {
            Error::NotFound => Self::NotFound,
            Error::DatabaseError(Kind::UniqueViolation, about)
                if about.constraint_name() == Some("one_account_per_email") =>
            {
                Self::EmailTaken
            }
            Error::DatabaseError(Kind::UniqueViolation, _) => Self::IdTaken,
            Error::DatabaseError(Kind::ForeignKeyViolation, _) => Self::NotFound,
            Error::DatabaseError(Kind::ClosedConnection, _) => Self::Unreachable(Box::new(error)),
            _ => Self::Refused(error),
        }
    }
}

fn unreachable(error: impl std::error::Error + Send + Sync + 'static) -> StoreError {
    StoreError::Unreachable(Box::new(error))
}

/// All accounts. Holds only a pool of connections; several instances may share one database.
#[derive(Clone)]
pub struct Store {
    pool: Pool<AsyncPgConnection>,
    url: std::sync::Arc<str>,
}

/// Whose rows a connection may see.
#[derive(Clone, Copy)]
enum Sees<'a> {
    Account(Uuid),
    SigningIn(&'a str),
    Joining(&'a [u8]),
    Tape(&'a str),
    Nobody,
}

impl Store {
    /// Opens the database at `url` and brings its tables up to date.
    ///
    /// # Errors
    /// [`StoreError::Unreachable`] when nothing answers there or a migration fails.
    pub async fn open(url: &str) -> Result<Self, StoreError> {
        let own_url = url.to_owned();
        tokio::task::spawn_blocking(move || migrate(&own_url)).await.map_err(unreachable)??;
        let mut config = ManagerConfig::default();
        config.custom_setup = Box::new(|url| {
            let url = url.to_owned();
            Box::pin(async move {
                let mut connection = AsyncPgConnection::establish(&url).await?;
                // Every statement finds its rows by their keys: a plan is made once for a connection, not for every call.
                connection
                    .batch_execute("SET ROLE vemble_app; SET plan_cache_mode = force_generic_plan")
                    .await
                    .map_err(ConnectionError::CouldntSetupConfiguration)?;
                Ok(connection)
            })
        });
        // Whether a connection still lives shows when it is told whose rows it may see.
        config.recycling_method = RecyclingMethod::Fast;
        let manager = AsyncDieselConnectionManager::<AsyncPgConnection>::new_with_config(url, config);
        let pool = Pool::builder(manager).max_size(16).build().map_err(unreachable)?;
        Ok(Self { pool, url: url.into() })
    }

    /// A connection that sees only these rows, whatever it saw before. One that broke while nobody used it is thrown away.
    async fn connection(&self, sees: Sees<'_>) -> Result<Object<AsyncPgConnection>, StoreError> {
        let (mut account, mut joining) = (String::new(), String::new());
        let (mut signing_in, mut tape) = ("", "");
        match sees {
            Sees::Account(id) => account = id.to_string(),
            Sees::SigningIn(email) => signing_in = email,
            Sees::Joining(hash) => joining = hash.iter().map(|byte| format!("{byte:02x}")).collect(),
            Sees::Tape(serial) => tape = serial,
            Sees::Nobody => {}
        }
        loop {
            let mut connection = self.pool.get().await.map_err(unreachable)?;
            let is_new = Object::metrics(&connection).recycle_count == 0;
            let set = "SELECT set_config('vemble.account', $1, false), set_config('vemble.signing_in', $2, false), \
                       set_config('vemble.joining', $3, false), set_config('vemble.tape', $4, false)";
            let told = diesel::sql_query(set)
                .bind::<Text, &str>(&account)
                .bind::<Text, &str>(signing_in)
                .bind::<Text, &str>(&joining)
                .bind::<Text, &str>(tape)
                .execute(&mut connection)
                .await;
            match told {
                Ok(_) => return Ok(connection),
                Err(error) if is_new => return Err(error.into()),
                Err(_) => drop(Object::take(connection)),
            }
        }
    }

    /// Asks the database for a sign of life.
    ///
    /// # Errors
    /// When it gives none.
    pub async fn is_alive(&self) -> Result<(), StoreError> {
        self.connection(Sees::Nobody).await.map(drop)
    }

    /// The wearers, garments, try-ons and photos of one account, and of no other.
    pub fn account(&self, account: Uuid) -> AccountStore<'_> {
        AccountStore { store: self, account }
    }
}

/// One account's part of the store.
#[derive(Clone, Copy)]
pub struct AccountStore<'a> {
    store: &'a Store,
    account: Uuid,
}

impl AccountStore<'_> {
    async fn connection(&self) -> Result<Object<AsyncPgConnection>, StoreError> {
        self.store.connection(Sees::Account(self.account)).await
    }
}

/// For reading in several queries what was there at one moment, whatever others store meanwhile: a try-on has its rows in three tables.
fn one_moment(connection: &mut AsyncPgConnection) -> TransactionBuilder<'_, AsyncPgConnection> {
    connection.build_transaction().repeatable_read().read_only()
}

/// Brings the tables up to date. The migration harness blocks on a runtime with several threads, which the
/// caller's may not be, so it gets one of its own.
fn migrate(url: &str) -> Result<(), StoreError> {
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(1).enable_all().build();
    runtime.map_err(unreachable)?.block_on(async {
        let mut connection = AsyncPgConnection::establish(url).await.map_err(unreachable)?;
        // Instances that start together take turns; the lock ends with this connection.
        connection.batch_execute("SELECT pg_advisory_lock(7361001)").await?;
        let mut harness = AsyncMigrationHarness::new(connection);
        harness.run_pending_migrations(MIGRATIONS).map(drop).map_err(StoreError::Unreachable)
    })
}
