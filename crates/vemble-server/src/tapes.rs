//! The digital tape measure that this instance is connected to: its readings go to the account that paired it.

use crate::error::ApiError;
use crate::guesses::{Guesses, Who};
use crate::request::{Body, read_body};
use crate::session::SignedIn;
use crate::wire::Problem;
use actix_web::{HttpRequest, HttpResponse, delete, get, post, rt, web};
use serde::{Deserialize, Serialize};
use std::net::SocketAddr;
use std::sync::{Arc, PoisonError, RwLock};
use std::time::Duration;
use tokio::io::{AsyncBufReadExt, AsyncReadExt, BufReader};
use tokio::net::TcpStream;
use utoipa::ToSchema;
use vemble_store::{Notice, Store};
use vemble_tape::{LONGEST_LINE, Line};

/// How long to wait before a tape that dropped out is called again.
const AGAIN: Duration = Duration::from_secs(1);

/// What is known of the tape just now.
#[derive(Clone, Default)]
struct Known {
    /// Its serial number and the code on its display, while it is connected.
    hello: Option<(String, String)>,
    battery: Option<u8>,
}

/// The tape, if this instance has one.
#[derive(Clone, Default)]
pub struct Tapes(Arc<RwLock<Known>>);

impl Tapes {
    /// Calls the tape at `address` and goes on calling it when it drops out.
    pub fn start(store: &Store, address: Option<SocketAddr>) -> Self {
        let tapes = Self::default();
        if let Some(address) = address {
            let (store, own) = (store.clone(), tapes.clone());
            rt::spawn(async move {
                loop {
                    if let Err(error) = own.listen(&store, address).await {
                        tracing::debug!(%error, %address, "no tape");
                    }
                    own.set(|known| known.hello = None);
                    tokio::time::sleep(AGAIN).await;
                }
            });
        }
        tapes
    }

    fn known(&self) -> Known {
        self.0.read().unwrap_or_else(PoisonError::into_inner).clone()
    }

    fn set(&self, change: impl FnOnce(&mut Known)) {
        change(&mut self.0.write().unwrap_or_else(PoisonError::into_inner));
    }

    /// Takes in lines until the tape hangs up. What is not a line of the protocol is skipped.
    async fn listen(&self, store: &Store, address: SocketAddr) -> std::io::Result<()> {
        let mut lines = BufReader::new(TcpStream::connect(address).await?);
        loop {
            let mut line = Vec::new();
            let most = LONGEST_LINE as u64 + 1;
            if (&mut lines).take(most).read_until(b'\n', &mut line).await? == 0 {
                return Ok(());
            }
            match Line::read(String::from_utf8_lossy(&line).trim()) {
                Ok(line) => self.take_in(store, &line).await,
                Err(garbage) => tracing::warn!(%garbage, "skipped"),
            }
        }
    }

    async fn take_in(&self, store: &Store, line: &Line) {
        let (reading, battery) = match line {
            Line::Hello { serial, code, .. } => {
                return self.set(|known| known.hello = Some((serial.clone(), code.clone())));
            }
            Line::Reading { battery, .. } => (line.measure(), *battery),
            Line::LowBattery { percent } => (None, *percent),
        };
        self.set(|known| known.battery = Some(battery));
        let Some((serial, _)) = self.known().hello else { return };
        let told = async {
            if let Some(account) = store.account_of_tape(&serial).await? {
                let reading = reading.map(|m| m.to_string());
                store.tell(&Notice::Tape { account, reading, battery: Some(battery) }).await?;
            }
            Ok::<(), vemble_store::StoreError>(())
        };
        if let Err(error) = told.await {
            tracing::error!(error = &error as &dyn std::error::Error, "a reading of the tape was lost");
        }
    }
}

/// The tape as an account sees it.
#[derive(Serialize, ToSchema)]
pub struct TapeState {
    /// A tape is switched on and in reach.
    connected: bool,
    /// It sends its readings to this account.
    paired: bool,
    /// What is left in its battery, in percent, as it said last.
    battery: Option<u8>,
}

/// What is on the tape's display.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pair {
    /// Six digits.
    code: String,
}

async fn state(tapes: &Tapes, store: &Store, account: uuid::Uuid) -> Result<TapeState, ApiError> {
    let (known, own) = (tapes.known(), store.account(account).tape().await?);
    let paired = own.is_some() && known.hello.as_ref().is_none_or(|(serial, _)| Some(serial) == own.as_ref());
    Ok(TapeState { connected: known.hello.is_some(), paired, battery: known.battery.filter(|_| paired) })
}

/// Whether there is a tape, and whose it is.
#[utoipa::path(responses((status = 200, body = TapeState), (status = 401, body = Problem)))]
#[get("/tape")]
pub(crate) async fn tape(
    SignedIn(account): SignedIn,
    tapes: web::Data<Tapes>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(state(&tapes, &store, account.id).await?))
}

/// Pairs the tape by the code on its display; it leaves whoever had it before.
#[utoipa::path(request_body = Pair, responses((status = 200, body = TapeState), (status = 401, body = Problem), (status = 404, body = Problem), (status = 429, body = Problem)))]
#[post("/tape")]
pub(crate) async fn pair_tape(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    body: Body,
    tapes: web::Data<Tapes>,
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
) -> Result<HttpResponse, ApiError> {
    let Pair { code } = read_body(&request, body)?;
    guesses.one_more(Who::In(account.id))?;
    let shown = tapes.known().hello.filter(|(_, shown)| *shown == code.trim());
    let (serial, _) = shown.ok_or(ApiError::NoSuchTape)?;
    store.account(account.id).pair_tape(&serial).await?;
    Ok(HttpResponse::Ok().json(state(&tapes, &store, account.id).await?))
}

/// Parts from the tape.
#[utoipa::path(responses((status = 204), (status = 401, body = Problem)))]
#[delete("/tape")]
pub(crate) async fn part_from_tape(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    store.account(account.id).part_from_tape().await?;
    Ok(HttpResponse::NoContent().finish())
}
