//! PostgreSQL through Diesel. Core types go in and come out; SQL stays here. Accounts are kept apart twice: every query
//! names its account, and row-level security holds for the role that serves them.

mod accounts;
mod archives;
mod connect;
mod format;
mod garments;
mod invitations;
mod limits;
mod notices;
mod photos;
mod readings;
mod schema;
mod sessions;
mod states;
mod tapes;
mod try_ons;
mod wearers;
mod whole;
mod work;

pub use accounts::{Account, Credentials, NewAccount};
pub use archives::{Brought, BroughtPhoto, Whole};
pub use connect::{Tables, Why, make_role, migrate, own_versions, tables, wait_for};
pub use garments::{RailKey, StoredDocument, StoredGarment};
pub use invitations::{Invitation, NewInvitation};
pub use limits::Limits;
pub use notices::Notice;
pub use photos::{Moment, NewPhoto, Photo};
pub use sessions::{NewSession, Session};
pub use states::Entered;
pub use try_ons::StoredTryOn;
pub use wearers::StoredWearer;
pub use work::StoredWorkroom;

use connect::PATIENCE;
use diesel::prelude::*;
use diesel::sql_types::Text;
use diesel_async::pg::TransactionBuilder;
use diesel_async::pooled_connection::deadpool::{Object, Pool};
use diesel_async::pooled_connection::{AsyncDieselConnectionManager, ManagerConfig, RecyclingMethod};
use diesel_async::{AsyncPgConnection, RunQueryDsl, SimpleAsyncConnection};
use std::time::Duration;
use tokio::sync::{Semaphore, SemaphorePermit};
use uuid::Uuid;

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
    /// Somebody else changed the workroom since it was read.
    #[error("changed since it was read")]
    StaleWorkroom(Box<StoredWorkroom>),
    /// An id already belongs to another thing of the account.
    #[error("an id is used twice")]
    IdTaken,
    /// The wearer still has garments, these.
    #[error("still has garments")]
    HasGarments(Vec<String>),
    /// These garments are in the account already.
    #[error("in the account already")]
    AlreadyThere(Vec<String>),
    /// The account holds as many of these as it may.
    #[error("no more {0}")]
    Full(&'static str),
    /// The database cannot be used.
    #[error("the database cannot be used: {}", why.words())]
    Unreachable {
        /// What is in the way.
        why: Why,
        /// What it said.
        source: Box<dyn std::error::Error + Send + Sync>,
    },
    /// The connection broke while something was stored: it may be there or not.
    #[error("not known whether it was stored")]
    Unknown(#[source] diesel::result::Error),
    /// The database has no room left on its disk; what was to be stored was not.
    #[error("no room left on the disk of the database")]
    NoDisk,
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
            Error::DatabaseError(Kind::UniqueViolation, _) => Self::IdTaken,
            Error::DatabaseError(Kind::ForeignKeyViolation, _) => Self::NotFound,
            Error::DatabaseError(Kind::ClosedConnection | Kind::UnableToSendCommand, _) => {
                Self::Unknown(error)
            }
            // PostgreSQL is stopping, or was killed.
            Error::DatabaseError(Kind::Unknown, about)
                if about.message().starts_with("terminating connection") =>
            {
                Self::Unknown(error)
            }
            // "could not extend file …: No space left on device", or whatever else limits files.
            Error::DatabaseError(Kind::Unknown, about)
                if about.message().starts_with("could not extend file") =>
            {
                Self::NoDisk
            }
            Error::DatabaseError(Kind::Unknown, about)
                if about.message().starts_with("canceling statement") =>
            {
                Self::Unreachable { why: Why::Silent, source: Box::new(error) }
            }
            _ => Self::Refused(error),
        }
    }
}

/// What a transaction ends with: whatever the database reports among it.
pub(crate) struct Failed<E>(pub E);

impl<E: From<StoreError>> From<StoreError> for Failed<E> {
    fn from(error: StoreError) -> Self {
        Self(error.into())
    }
}

impl<E: From<StoreError>> From<diesel::result::Error> for Failed<E> {
    fn from(error: diesel::result::Error) -> Self {
        StoreError::from(error).into()
    }
}

fn unreachable(error: impl std::error::Error + Send + Sync + 'static) -> StoreError {
    StoreError::Unreachable { why: Why::Broken, source: Box::new(error) }
}

/// All accounts. Holds only a pool of connections; several instances may share one database.
#[derive(Clone)]
pub struct Store {
    pool: Pool<AsyncPgConnection>,
    url: std::sync::Arc<str>,
    limits: Limits,
    /// Half of the connections, for what holds one while something is worked out: the others stay free for whoever only reads.
    deciding: std::sync::Arc<Semaphore>,
}

/// Connections to the database.
const CONNECTIONS: usize = 16;
/// How long to wait for a place: what is worked out may wait its turn.
const PLACE: Duration = Duration::from_secs(20);

/// Whose rows a connection may see: those of an account, or what somebody shows a key to.
#[derive(Clone, Copy)]
enum Sees<'a> {
    Account(Uuid),
    Email(&'a str),
    Session(&'a [u8]),
    SignUp(&'a [u8]),
    Joining(&'a [u8]),
    Calendar(&'a [u8]),
    Tape(&'a str),
    Examples,
    Nobody,
}

impl Sees<'_> {
    /// The account, and what is shown, as the rules of the tables read them.
    fn told(self) -> (String, String) {
        let hex = |hash: &[u8]| hash.iter().map(|byte| format!("{byte:02x}")).collect::<String>();
        let shown = match self {
            Self::Account(id) => return (id.to_string(), String::new()),
            Self::Email(email) => format!("email:{email}"),
            Self::Session(hash) => format!("session:{}", hex(hash)),
            Self::SignUp(hash) => format!("sign-up:{}", hex(hash)),
            Self::Joining(hash) => format!("joining:{}", hex(hash)),
            Self::Calendar(hash) => format!("calendar:{}", hex(hash)),
            Self::Tape(serial) => format!("tape:{serial}"),
            Self::Examples => "examples:".into(),
            Self::Nobody => String::new(),
        };
        (String::new(), shown)
    }
}

/// What every connection is told when it is made. Every statement finds its rows by their keys: a plan is made once for a connection, not for
/// every call. No statement takes seconds when all is well; one that does is ended before whoever waits has gone.
const SETUP: &str = "SET ROLE vemble_app; SET plan_cache_mode = force_generic_plan; SET statement_timeout = '20s'; \
    SET lock_timeout = '5s'; SET idle_in_transaction_session_timeout = '30s'";

impl Store {
    /// Brings the tables of the database at `url` up to date and opens it.
    ///
    /// # Errors
    /// [`StoreError::Unreachable`] when nothing answers there or a migration fails.
    pub async fn open(url: &str) -> Result<Self, StoreError> {
        migrate(url).await?;
        Self::connect(url)
    }

    /// Opens the database at `url`, whose tables are [`Tables::Current`]. Nothing is asked of it yet.
    ///
    /// # Errors
    /// When no pool can be made.
    pub fn connect(url: &str) -> Result<Self, StoreError> {
        let mut config = ManagerConfig::default();
        config.custom_setup = Box::new(|url| {
            let url = url.to_owned();
            Box::pin(async move {
                let cannot = |e: StoreError| ConnectionError::BadConnection(e.to_string());
                let mut connection = connect::establish(&url).await.map_err(cannot)?;
                connection.batch_execute(SETUP).await.map_err(ConnectionError::CouldntSetupConfiguration)?;
                Ok(connection)
            })
        });
        // Whether a connection still lives shows when it is told whose rows it may see.
        config.recycling_method = RecyclingMethod::Fast;
        let manager = AsyncDieselConnectionManager::<AsyncPgConnection>::new_with_config(url, config);
        let pool = Pool::builder(manager).max_size(CONNECTIONS).build().map_err(unreachable)?;
        let deciding = Semaphore::new(CONNECTIONS / 2).into();
        Ok(Self { pool, url: url.into(), limits: Limits::default(), deciding })
    }

    /// The same store with other limits.
    pub const fn limited(mut self, limits: Limits) -> Self {
        self.limits = limits;
        self
    }

    /// A connection that sees only these rows, whatever it saw before. One that broke while nobody used it is thrown away; one that says
    /// nothing is too, and whoever asked is told within three seconds.
    async fn connection(&self, sees: Sees<'_>) -> Result<Object<AsyncPgConnection>, StoreError> {
        let silent = |error| StoreError::Unreachable { why: Why::Silent, source: Box::new(error) };
        let (account, shown) = sees.told();
        loop {
            let got = tokio::time::timeout(PATIENCE, self.pool.get()).await.map_err(silent)?;
            let refused = |error| StoreError::Unreachable { why: Why::Refused, source: Box::new(error) };
            let mut connection = got.map_err(refused)?;
            let is_new = Object::metrics(&connection).recycle_count == 0;
            let set = "SELECT set_config('vemble.account', $1, false), set_config('vemble.shown', $2, false)";
            let set = diesel::sql_query(set).bind::<Text, &str>(&account).bind::<Text, &str>(&shown);
            match tokio::time::timeout(PATIENCE, set.execute(&mut connection)).await {
                Ok(Ok(_)) => return Ok(connection),
                Ok(Err(error)) if is_new => return Err(error.into()),
                Ok(Err(_)) => drop(Object::take(connection)),
                Err(error) => {
                    drop(Object::take(connection));
                    return Err(silent(error));
                }
            }
        }
    }

    /// Waits for a place among those who hold a connection while something is worked out.
    async fn deciding(&self) -> Result<SemaphorePermit<'_>, StoreError> {
        let silent = |error| StoreError::Unreachable { why: Why::Silent, source: Box::new(error) };
        tokio::time::timeout(PLACE, self.deciding.acquire()).await.map_err(silent)?.map_err(unreachable)
    }

    /// Connections that are in use, and that there may be.
    pub fn pool(&self) -> (usize, usize) {
        let status = self.pool.status();
        (status.size - status.available, status.max_size)
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
