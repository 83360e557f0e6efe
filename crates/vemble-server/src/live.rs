//! What happens, as it happens: server-sent events for whoever is signed in, and for guests of one try-on.

use crate::error::ApiError;
use crate::invitations::Guest;
use crate::request::{Body, read_body};
use crate::session::SignedIn;
use crate::wire::Problem;
use actix_web::http::header::CACHE_CONTROL;
use actix_web::web::Bytes;
use actix_web::{HttpRequest, HttpResponse, get, post, rt, web};
use futures_util::stream::unfold;
use serde::{Deserialize, Serialize};
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

/// Passes on what this instance hears.
#[derive(Clone)]
pub struct Live {
    notices: broadcast::Sender<Notice>,
    closing: watch::Receiver<bool>,
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
        Ok(Self { notices, closing })
    }

    /// Everything that `hears` lets through, as a stream that ends with the server or with the invitation.
    fn stream(
        &self,
        hears: impl Fn(&Notice) -> Option<Event> + 'static,
        guest: Option<(web::Data<Store>, Invitation)>,
    ) -> HttpResponse {
        let state = (self.notices.subscribe(), self.closing.clone(), hears, guest, true);
        let stream = unfold(state, async |(mut notices, mut closing, hears, guest, first)| {
            if first {
                return Some((Event::Again {}.line(), (notices, closing, hears, guest, false)));
            }
            let line = loop {
                tokio::select! {
                    _ = closing.wait_for(|closing| *closing) => return None,
                    () = tokio::time::sleep(SIGN_OF_LIFE) => break Ok(Bytes::from_static(b": here\n\n")),
                    heard = notices.recv() => match heard {
                        Ok(notice) => if let Some(event) = hears(&notice) {
                            if !is_open(guest.as_ref()).await {
                                return None;
                            }
                            break event.line();
                        },
                        Err(RecvError::Lagged(_)) => break Event::Again {}.line(),
                        Err(RecvError::Closed) => return None,
                    }
                }
            };
            Some((line, (notices, closing, hears, guest, false)))
        });
        HttpResponse::Ok()
            .content_type("text/event-stream")
            .insert_header((CACHE_CONTROL, "no-store"))
            .insert_header(("X-Accel-Buffering", "no"))
            .streaming(stream)
    }
}

async fn is_open(guest: Option<&(web::Data<Store>, Invitation)>) -> bool {
    let Some((store, invitation)) = guest else { return true };
    store.account(invitation.account).invitation(invitation.id).await.is_ok_and(|open| open.is_some())
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
        /// Its version now.
        version: i32,
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
            Notice::Asked { try_on, step, change, side, typed, .. } => {
                Self::Asked { try_on, step, change, side, typed }
            }
            Notice::Tape { reading, battery, .. } => Self::Tape { reading, battery },
            Notice::Missed => Self::Again {},
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
pub(crate) async fn events(SignedIn(account): SignedIn, live: web::Data<Live>) -> HttpResponse {
    let hears = move |n: &Notice| n.account().is_none_or(|whose| whose == account.id).then(|| Event::of(n));
    live.stream(hears, None)
}

/// What happens in the try-on that a guest was invited to, as server-sent events, until it is over.
#[utoipa::path(responses((status = 200, content_type = "text/event-stream", body = Event), (status = 410, body = Problem)))]
#[get("/guest/events")]
pub(crate) async fn guest_events(
    Guest(invitation): Guest,
    live: web::Data<Live>,
    store: web::Data<Store>,
) -> HttpResponse {
    let hears = move |n: &Notice| {
        let is_its_own = match n {
            Notice::TryOn { account, try_on, .. } | Notice::Asked { account, try_on, .. } => {
                (*account, *try_on) == (invitation.account, invitation.try_on)
            }
            Notice::Tape { .. } => false,
            Notice::Missed => true,
        };
        is_its_own.then(|| Event::of(n))
    };
    live.stream(hears, Some((store, invitation)))
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
