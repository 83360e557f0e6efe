//! Invitations to one try-on: a second screen that looks on, or a helper who adds to it. Nobody needs an account for that.
//!
//! A code opens it; only its hash is kept. It ends after three hours, when it is taken back, and when the try-on is closed.

use crate::doors::{Doors, Source};
use crate::error::ApiError;
use crate::guesses::{Guesses, Who};
use crate::queue::Queue;
use crate::request::{Body, OnTape, read_body};
use crate::session::{SignedIn, cookie, device, token_of};
use crate::token::{hash_of, hash_of_code, new_code, new_token};
use crate::try_ons::{TryOnChange, store_try_on};
use crate::wire::{Problem, TryOnState};
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest, HttpResponse, delete, get, post, put, web};
use serde::{Deserialize, Serialize};
use std::future::Future;
use std::pin::Pin;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::document::Document;
use vemble_store::{Invitation, NewInvitation, NewSession, Store};

const GUEST: &str = "guest";

/// Somebody who was invited, while the invitation is open.
pub struct Guest(pub Invitation);

impl FromRequest for Guest {
    type Error = ApiError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let token = token_of(request, GUEST);
        let store = request.app_data::<web::Data<Store>>().cloned();
        Box::pin(async move {
            let (Some(token), Some(store)) = (token, store) else {
                return Err(ApiError::Over);
            };
            store.guest(&token).await?.map(Self).ok_or(ApiError::Over)
        })
    }
}

/// A new invitation.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Invite {
    /// Whoever joins may add to the try-on, not only look on.
    may_add: bool,
}

/// An invitation with the code that opens it: the code is shown once and kept nowhere.
#[derive(Serialize, ToSchema)]
pub struct Invited {
    /// Its id, to take it back.
    id: Uuid,
    /// Whoever joins may add to the try-on.
    may_add: bool,
    /// Eight signs in two groups.
    code: String,
}

/// An invitation that is open.
#[derive(Serialize, ToSchema)]
pub struct InvitationState {
    /// Its id.
    id: Uuid,
    /// Whoever joins may add to the try-on.
    may_add: bool,
}

/// Invites to a try-on.
#[utoipa::path(request_body = Invite, responses((status = 201, body = Invited), (status = 401, body = Problem), (status = 404, body = Problem), (status = 410, body = Problem)))]
#[post("/garments/{garment}/try-ons/{try_on}/invitations")]
pub(crate) async fn invite(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    path: web::Path<(Uuid, Uuid)>,
    body: Body,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let (garment, try_on) = path.into_inner();
    let Invite { may_add } = read_body(&request, body)?;
    let store = store.account(account.id);
    if store.try_on(garment, try_on).await?.try_on.closed {
        return Err(ApiError::Over);
    }
    let (id, code) = (Uuid::now_v7(), new_code());
    store.invite(&NewInvitation { id, garment, try_on, may_add, code_hash: &hash_of_code(&code) }).await?;
    Ok(HttpResponse::Created().json(Invited { id, may_add, code }))
}

/// The open invitations to a try-on.
#[utoipa::path(responses((status = 200, body = Vec<InvitationState>), (status = 401, body = Problem)))]
#[get("/try-ons/{try_on}/invitations")]
pub(crate) async fn open_invitations(
    SignedIn(account): SignedIn,
    try_on: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let open = store.account(account.id).invitations(*try_on).await?;
    let state = |i: Invitation| InvitationState { id: i.id, may_add: i.may_add };
    Ok(HttpResponse::Ok().json(open.into_iter().map(state).collect::<Vec<_>>()))
}

/// Takes an invitation back: whoever joined by it is out.
#[utoipa::path(responses((status = 204), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[delete("/invitations/{invitation}")]
pub(crate) async fn end_invitation(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    store.account(account.id).end_invitation(*id).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// A code that somebody was told.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Join {
    /// Eight signs.
    code: String,
}

/// The try-on that somebody was invited to, and no more of the account than it takes to see it.
#[derive(Serialize, ToSchema)]
pub struct GuestState {
    /// They may add to it.
    may_add: bool,
    /// The garment's id.
    garment: Uuid,
    /// The try-on's id.
    try_on: Uuid,
    /// Its version: the next change has to name it.
    version: i32,
    /// The garment without its wearer's measurements and notes, and this try-on.
    document: Document,
}

async fn state_of(store: &Store, invitation: Invitation) -> Result<GuestState, ApiError> {
    let Invitation { account, garment, try_on, may_add, .. } = invitation;
    let stored = store.account(account).document(garment).await?;
    let mut document = stored.document;
    let place = document.try_ons.iter().position(|t| t.id == Some(try_on)).ok_or(ApiError::Over)?;
    document.try_ons = vec![document.try_ons.swap_remove(place)];
    document.wearer.measurements.clear();
    document.wearer.notes.clear();
    Ok(GuestState { may_add, garment, try_on, version: stored.try_on_versions[place], document })
}

/// Joins by a code.
#[utoipa::path(request_body = Join, responses((status = 200, body = GuestState), (status = 404, body = Problem), (status = 429, body = Problem)))]
#[post("/guest")]
pub(crate) async fn join(
    request: HttpRequest,
    source: Source,
    body: Body,
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
    doors: web::Data<Doors>,
) -> Result<HttpResponse, ApiError> {
    let Join { code } = read_body(&request, body)?;
    guesses.one_more(Who::At(source))?;
    let invitation = store.joining(&hash_of_code(&code)).await?.ok_or(ApiError::NoSuchCode)?;
    let state = state_of(&store, invitation).await?;
    let token = new_token();
    let new = NewSession {
        id: Uuid::now_v7(),
        token_hash: &hash_of(&token),
        device: &device(&request),
        invitation: Some(invitation.id),
    };
    store.account(invitation.account).begin_session(&new).await?;
    Ok(HttpResponse::Ok().cookie(cookie(GUEST, token, &doors)).json(state))
}

/// The try-on that a guest was invited to, as it is now.
#[utoipa::path(responses((status = 200, body = GuestState), (status = 410, body = Problem)))]
#[get("/guest")]
pub(crate) async fn guest(
    Guest(invitation): Guest,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(state_of(&store, invitation).await?))
}

/// Adds to the try-on that a helper was invited to. A helper cannot close it.
#[utoipa::path(
    params(OnTape),
    request_body = TryOnChange,
    responses((status = 200, body = TryOnState), (status = 403, body = Problem), (status = 409, body = Problem), (status = 410, body = Problem), (status = 422, body = Problem))
)]
#[put("/guest/try-on")]
pub(crate) async fn put_as_guest(
    Guest(invitation): Guest,
    request: HttpRequest,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    if !invitation.may_add {
        return Err(ApiError::LooksOn);
    }
    let mut change: TryOnChange = read_body(&request, body)?;
    change.stay_open();
    let Invitation { account, garment, try_on, .. } = invitation;
    let store = (store.account(account), &**queue);
    let stored = store_try_on(store, account, (garment, try_on), change, on.tape).await?;
    Ok(HttpResponse::Ok().json(stored))
}
