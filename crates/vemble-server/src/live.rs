//! What happens, as it happens: server-sent events for whoever is signed in, and for guests of one try-on.

use crate::error::ApiError;
use crate::invitations::Guest;
use crate::request::{Body, read_body};
use crate::session::{InSession, SignedIn};
use crate::wire::Problem;
use actix_web::http::header::CACHE_CONTROL;
use actix_web::web::Bytes;
use actix_web::{HttpRequest, HttpResponse, get, post, rt, web};
use futures_util::stream::unfold;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;
use tokio::signal::unix::{SignalKind, signal};
use tokio::sync::broadcast::error::RecvError;
use tokio::sync::{broadcast, watch};
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::change::ChangeKey;
use vemble_core::fitting::GarmentSide;
use vemble_exchange::document::Complaint;
use vemble_store::{Invitation, Notice, Store};

/// How many notices may wait for a slow listener before it has to look again.
const WAITING: usize = 256;
/// A line is sent at least this often, so that nobody on the way takes the connection for dead.
const SIGN_OF_LIFE: Duration = Duration::from_secs(15);
/// How many may listen in one account at once: every page of every device.
const LISTENERS: usize = 64;

/// Passes on what this instance hears.
#[derive(Clone)]
pub struct Live {
    notices: broadcast::Sender<Notice>,
    closing: watch::Receiver<bool>,
    seats: Seats,
}

impl Live {
    /// Begins to listen, until the server is told to stop: open streams end then, so that nobody waits for them.
    pub fn start(store: &Store) -> std::io::Result<Self> {
        let (notices, _) = broadcast::channel(WAITING);
        let (close, closing) = watch::channel(false);
        let (store, sender) = (store.clone(), notices.clone());
        rt::spawn(async move {
            // Nobody may be listening; that is fine.
            store.hear(|notice| drop(sender.send(notice))).await;
        });
        let (mut interrupt, mut terminate) =
            (signal(SignalKind::interrupt())?, signal(SignalKind::terminate())?);
        rt::spawn(async move {
            tokio::select! {
                _ = interrupt.recv() => {}
                _ = terminate.recv() => {}
            }
            close.send_replace(true);
        });
        Ok(Self { notices, closing, seats: Seats::default() })
    }

    /// Tells once the server is to stop.
    pub fn closing(&self) -> watch::Receiver<bool> {
        self.closing.clone()
    }

    /// Everything that `hears` lets through, as a stream that ends with the server, or once `who` may not listen any more.
    fn stream(
        &self,
        store: web::Data<Store>,
        who: Listener,
        hears: impl Fn(&Notice) -> Option<Event> + 'static,
    ) -> Result<HttpResponse, ApiError> {
        let seat = Seat::take(&self.seats, who.account())?;
        let state = (self.notices.subscribe(), self.closing.clone(), hears, seat, true);
        let stream = unfold(state, move |(mut notices, mut closing, hears, seat, first)| {
            let store = store.clone();
            async move {
                if first {
                    return Some((Event::Again {}.line(), (notices, closing, hears, seat, false)));
                }
                let line = loop {
                    tokio::select! {
                        _ = closing.wait_for(|closing| *closing) => return None,
                        () = tokio::time::sleep(SIGN_OF_LIFE) => {
                            if !who.may_listen(&store).await {
                                return None;
                            }
                            break Ok(Bytes::from_static(b": here\n\n"));
                        }
                        heard = notices.recv() => match heard {
                            Ok(Notice::Ended { account }) if account == who.account() => {
                                if !who.may_listen(&store).await {
                                    return None;
                                }
                            }
                            Ok(notice) => if let Some(event) = hears(&notice) {
                                if matches!(who, Listener::Guest(_)) && !who.may_listen(&store).await {
                                    return None;
                                }
                                break event.line();
                            },
                            Err(RecvError::Lagged(_)) => break Event::Again {}.line(),
                            Err(RecvError::Closed) => return None,
                        }
                    }
                };
                Some((line, (notices, closing, hears, seat, false)))
            }
        });
        Ok(HttpResponse::Ok()
            .content_type("text/event-stream")
            .insert_header((CACHE_CONTROL, "no-store"))
            .insert_header(("X-Accel-Buffering", "no"))
            .streaming(stream))
    }
}

/// Who listens: as long as their session, or what they were invited to, has not ended.
#[derive(Clone, Copy)]
enum Listener {
    Account(Uuid, Option<Uuid>),
    Guest(Invitation),
}

impl Listener {
    const fn account(self) -> Uuid {
        match self {
            Self::Account(account, _) => account,
            Self::Guest(invitation) => invitation.account,
        }
    }

    /// A database that does not answer just now ends nothing.
    async fn may_listen(self, store: &Store) -> bool {
        let store = store.account(self.account());
        match self {
            Self::Account(_, None) => true,
            Self::Account(_, Some(session)) => store.is_open(session).await.unwrap_or(true),
            Self::Guest(invitation) => store.invitation(invitation.id).await.is_ok_and(|open| open.is_some()),
        }
    }
}

/// How many listen in each account.
type Seats = Arc<Mutex<HashMap<Uuid, usize>>>;

/// A listener's place; it is free again when the stream has ended.
struct Seat(Seats, Uuid);

impl Seat {
    fn take(seats: &Seats, account: Uuid) -> Result<Self, ApiError> {
        let mut taken = seats.lock().unwrap_or_else(PoisonError::into_inner);
        let own = taken.entry(account).or_default();
        if *own >= LISTENERS {
            return Err(ApiError::Busy);
        }
        *own += 1;
        Ok(Self(seats.clone(), account))
    }
}

impl Drop for Seat {
    fn drop(&mut self) {
        let mut taken = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(own) = taken.get_mut(&self.1) {
            *own -= 1;
            if *own == 0 {
                taken.remove(&self.1);
            }
        }
    }
}

/// What a listener hears.
#[derive(Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Event {
    /// A try-on has a new version.
    TryOn {
        /// Its garment.
        garment: Uuid,
        /// Which.
        try_on: Uuid,
        /// Its version now; nothing when it was removed.
        version: Option<i32>,
    },
    /// A garment has a new version.
    Garment {
        /// Which.
        garment: Uuid,
        /// Its version now; nothing when it was removed.
        version: Option<i32>,
    },
    /// A wearer has a new version.
    Wearer {
        /// Who.
        wearer: Uuid,
        /// Their version now; nothing when they were removed.
        version: Option<i32>,
    },
    /// A place is being asked about.
    Asked {
        /// In which try-on.
        try_on: Uuid,
        /// The step: `pins.waist`.
        step: String,
        /// Which change is pinned there, if it is one.
        change: Option<ChangeKey>,
        /// On which side of the garment.
        side: Option<GarmentSide>,
        /// What is typed so far.
        typed: String,
    },
    /// The digital tape says something.
    Tape {
        /// What was read, with its unit.
        reading: Option<String>,
        /// What is left in its battery, in percent.
        battery: Option<u8>,
    },
    /// Something may have been missed: look again.
    Again {},
}

impl Event {
    fn of(notice: &Notice) -> Self {
        match notice.clone() {
            Notice::TryOn { garment, try_on, version, .. } => Self::TryOn { garment, try_on, version },
            Notice::Garment { garment, version, .. } => Self::Garment { garment, version },
            Notice::Wearer { wearer, version, .. } => Self::Wearer { wearer, version },
            Notice::Asked { try_on, step, change, side, typed, .. } => {
                Self::Asked { try_on, step, change, side, typed }
            }
            Notice::Tape { reading, battery, .. } => Self::Tape { reading, battery },
            Notice::Ended { .. } | Notice::Missed => Self::Again {},
        }
    }

    fn line(&self) -> Result<Bytes, actix_web::Error> {
        let json = serde_json::to_string(self).unwrap_or_default();
        Ok(format!("data: {json}\n\n").into())
    }
}

/// Everything that happens in the account, as server-sent events.
#[utoipa::path(responses((status = 200, content_type = "text/event-stream", body = Event), (status = 401, body = Problem)))]
#[get("/events")]
pub(crate) async fn events(
    InSession(account, session): InSession,
    live: web::Data<Live>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let hears = move |n: &Notice| n.account().is_none_or(|whose| whose == account.id).then(|| Event::of(n));
    live.stream(store, Listener::Account(account.id, session), hears)
}

/// What happens in the try-on that a guest was invited to, as server-sent events, until it is over.
#[utoipa::path(responses((status = 200, content_type = "text/event-stream", body = Event), (status = 410, body = Problem)))]
#[get("/guest/events")]
pub(crate) async fn guest_events(
    Guest(invitation): Guest,
    live: web::Data<Live>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let hears = move |n: &Notice| {
        let is_its_own = match n {
            Notice::TryOn { account, try_on, .. } | Notice::Asked { account, try_on, .. } => {
                (*account, *try_on) == (invitation.account, invitation.try_on)
            }
            Notice::Garment { .. } | Notice::Wearer { .. } | Notice::Ended { .. } | Notice::Tape { .. } => {
                false
            }
            Notice::Missed => true,
        };
        is_its_own.then(|| Event::of(n))
    };
    live.stream(store, Listener::Guest(invitation), hears)
}

/// The place that somebody is being asked about just now.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AskedNow {
    /// The step: `pins.waist`.
    step: String,
    /// Which change is pinned there, if it is one.
    #[serde(default)]
    change: Option<ChangeKey>,
    /// On which side of the garment.
    #[serde(default)]
    side: Option<GarmentSide>,
    /// What is typed so far.
    #[serde(default)]
    typed: String,
}

impl AskedNow {
    /// Short texts only: they go to every instance.
    fn notice(self, account: Uuid, try_on: Uuid) -> Result<Notice, ApiError> {
        if self.step.len() > 60 || self.typed.len() > 200 {
            let complaint = Complaint {
                path: "typed".into(),
                found: "a long text".into(),
                expected: "a few words".into(),
            };
            return Err(ApiError::Invalid(vec![complaint]));
        }
        let Self { step, change, side, typed } = self;
        Ok(Notice::Asked { account, try_on, step, change, side, typed })
    }
}

/// Tells second screens what is being asked. Stores nothing.
#[utoipa::path(request_body = AskedNow, responses((status = 204), (status = 401, body = Problem)))]
#[post("/try-ons/{try_on}/asked")]
pub(crate) async fn asked(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    try_on: web::Path<Uuid>,
    body: Body,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let now: AskedNow = read_body(&request, body)?;
    store.tell(&now.notice(account.id, *try_on)?).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// The same, from a helper.
#[utoipa::path(request_body = AskedNow, responses((status = 204), (status = 403, body = Problem), (status = 410, body = Problem)))]
#[post("/guest/asked")]
pub(crate) async fn guest_asked(
    Guest(invitation): Guest,
    request: HttpRequest,
    body: Body,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    if !invitation.may_add {
        return Err(ApiError::LooksOn);
    }
    let now: AskedNow = read_body(&request, body)?;
    store.tell(&now.notice(invitation.account, invitation.try_on)?).await?;
    Ok(HttpResponse::NoContent().finish())
}
