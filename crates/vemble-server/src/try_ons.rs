//! Try-ons: stored whole, brought together entry by entry where two devices change one; and what is derived from them.

use crate::doors::Source;
use crate::error::ApiError;
use crate::queue::Queue;
use crate::request::{Body, OnTape, invalid, none_of, read_body};
use crate::session::SignedIn;
use crate::wire::{Problem, TryOnState};
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put, web};
use futures_util::FutureExt;
use serde::Deserialize;
use std::sync::Arc;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::asking::{Asking, asking};
use vemble_core::compare::{Comparison, compare};
use vemble_core::document::{Document, wrong_try_on};
use vemble_core::fault::Fault;
use vemble_core::fitting::Worn;
use vemble_core::length::Tape;
use vemble_core::solve::{For, solve_for};
use vemble_core::try_on::{Meant, Prefer, TryOn, merge, rebase};
use vemble_exchange::document::Complaint;
use vemble_store::{AccountStore, Store, StoreError, StoredTryOn};

/// A try-on to store.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TryOnChange {
    /// The version that was read; 0 for a new try-on.
    version: i32,
    /// The try-on, whole.
    try_on: TryOn,
    /// The try-on as it was read: with it, what somebody else stored meanwhile is brought together with this.
    #[serde(default)]
    base: Option<TryOn>,
    /// Whose entry is taken where both changed the same one; without it, they are named and nothing is stored.
    #[serde(default)]
    prefer: Option<Prefer>,
}

impl TryOnChange {
    /// Leaves it to whoever invited to close the try-on.
    pub(crate) const fn stay_open(&mut self) {
        self.try_on.closed = false;
    }
}

/// Stores a try-on of a garment, brought together with what was stored since it was read; gives what is stored then.
pub(crate) async fn store_try_on(
    (store, queue): (AccountStore<'_>, &Queue),
    whose: Uuid,
    (garment, id): (Uuid, Uuid),
    change: TryOnChange,
    tape: Tape,
) -> Result<TryOnState, ApiError> {
    within_limits(change.base.iter().map(|base| ("base", base)).chain([("try_on", &change.try_on)]), tape)?;
    let change = Arc::new(change);
    let decide = |garment: Document, there: Option<StoredTryOn>| {
        let change = change.clone();
        let decided = queue.run(whose, move || decided(&change, garment, there.as_ref(), tape));
        decided.map(|done| done?).boxed()
    };
    let stored = store.change_try_on(garment, id, decide).await?;
    let as_sent = stored.try_on == TryOn { id: Some(id), ..change.try_on.clone() };
    Ok(TryOnState::after(stored, as_sent))
}

/// What is stored of a change, as things stand: nothing where that is there already.
fn decided(
    change: &TryOnChange,
    garment: Document,
    there: Option<&StoredTryOn>,
    tape: Tape,
) -> Result<Option<TryOn>, ApiError> {
    let wanted = match there {
        Some(there) if there.version != change.version => together(change, there, tape)?,
        None if change.version != 0 => return Err(ApiError::Store(StoreError::NotFound)),
        _ => change.try_on.clone(),
    };
    if there.is_some_and(|there| there.version != change.version && there.try_on == wanted) {
        return Ok(None);
    }
    let alone = Document { try_ons: vec![wanted], ..garment };
    check(&alone, tape)?;
    Ok(alone.try_ons.into_iter().next())
}

/// Refuses try-ons that are larger than any, before anything is compared with anything else.
fn within_limits<'t>(
    try_ons: impl Iterator<Item = (&'t str, &'t TryOn)>,
    tape: Tape,
) -> Result<(), ApiError> {
    let below = |path: &str, fault: Fault| Fault { path: format!("{path}.{}", fault.path), ..fault };
    let faults = try_ons.flat_map(|(path, t)| wrong_try_on(t).into_iter().map(move |f| below(path, f)));
    none_of(&faults.collect::<Vec<_>>(), tape)
}

fn together(change: &TryOnChange, there: &StoredTryOn, tape: Tape) -> Result<TryOn, ApiError> {
    let stale = || ApiError::Store(StoreError::Stale(Box::new(there.clone())));
    let base = match &change.base {
        Some(base) => base.clone(),
        // Made here and sent again because the answer was lost: nothing was there before.
        None if change.version == 0 => there.try_on.begun(),
        None => return Err(stale()),
    };
    merge(&base, &change.try_on, &there.try_on, change.prefer, tape)
        .map_err(|apart| ApiError::Apart(Box::new(there.clone()), apart))
}

fn check(alone: &Document, tape: Tape) -> Result<(), ApiError> {
    let below = |fault: &Fault| {
        let complaint = Complaint::of(fault, tape);
        Complaint { path: complaint.path.replacen("try_ons[0]", "try_on", 1), ..complaint }
    };
    match solve_for(alone, tape, For::Drag) {
        Ok(_) => Ok(()),
        Err(faults) => Err(ApiError::Invalid(faults.iter().map(below).collect())),
    }
}

/// One try-on as it is stored.
#[utoipa::path(responses((status = 200, body = TryOnState), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/garments/{garment}/try-ons/{try_on}")]
pub(crate) async fn one_try_on(
    SignedIn(account): SignedIn,
    path: web::Path<(Uuid, Uuid)>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let (garment, id) = path.into_inner();
    let stored = store.account(account.id).try_on(garment, id).await?;
    Ok(HttpResponse::Ok().json(TryOnState::of(stored)))
}

/// Stores a try-on whole, or not at all. Made by the client: its id and the ids of its readings, so that what is sent twice
/// is stored once.
#[utoipa::path(
    params(OnTape),
    request_body = TryOnChange,
    responses(
        (status = 200, body = TryOnState, description = "As it is stored now, with what others entered"),
        (status = 401, body = Problem),
        (status = 404, body = Problem),
        (status = 409, body = Problem, description = "Both changed the same: `apart` names it, `stored` has the other state"),
        (status = 422, body = Problem),
    )
)]
#[put("/garments/{garment}/try-ons/{try_on}")]
pub(crate) async fn put_try_on(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    path: web::Path<(Uuid, Uuid)>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let change: TryOnChange = read_body(&request, body)?;
    let store = (store.account(account.id), &**queue);
    let stored = store_try_on(store, account.id, path.into_inner(), change, on.tape).await?;
    Ok(HttpResponse::Ok().json(stored))
}

/// Removes a try-on with its readings.
#[utoipa::path(responses((status = 204), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[delete("/garments/{garment}/try-ons/{try_on}")]
pub(crate) async fn delete_try_on(
    SignedIn(account): SignedIn,
    path: web::Path<(Uuid, Uuid)>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let (garment, id) = path.into_inner();
    store.account(account.id).delete_try_on(garment, id).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// What to ask in the newest try-on of a document, in order. Stores nothing.
#[utoipa::path(params(OnTape), request_body = Document, responses((status = 200, body = Asking), (status = 422, body = Problem)))]
#[post("/asking")]
pub(crate) async fn ask(
    request: HttpRequest,
    source: Source,
    on: web::Query<OnTape>,
    body: Body,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (document, tape): (Document, _) = (read_body(&request, body)?, on.tape);
    let answer =
        queue.run(source, move || none_of(&document.faults(), tape).map(|()| asking(&document, tape)));
    Ok(HttpResponse::Ok().json(answer.await??))
}

/// The try-ons of a document side by side. Stores nothing.
#[utoipa::path(params(OnTape), request_body = Document, responses((status = 200, body = Comparison), (status = 422, body = Problem)))]
#[post("/comparison")]
pub(crate) async fn comparison(
    request: HttpRequest,
    source: Source,
    on: web::Query<OnTape>,
    body: Body,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (document, tape): (Document, _) = (read_body(&request, body)?, on.tape);
    let compared = queue.run(source, move || compare(&document, tape)).await?;
    Ok(HttpResponse::Ok().json(compared.map_err(|faults| invalid(&faults, tape))?))
}

/// A try-on whose answer to "which way out?" changes after sides were entered.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Turn {
    /// The try-on as it is.
    try_on: TryOn,
    /// Which way out it was.
    worn: Worn,
    /// What the sides that were entered meant, once somebody said so.
    #[serde(default)]
    meant: Option<Meant>,
}

/// A try-on after it turned out which way out the garment was; null where sides were entered and nobody said yet what they meant. Stores
/// nothing.
#[utoipa::path(request_body = Turn, responses((status = 200, body = Option<TryOn>)))]
#[post("/turned")]
pub(crate) async fn turned(
    request: HttpRequest,
    source: Source,
    body: Body,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let Turn { try_on, worn, meant } = read_body(&request, body)?;
    let turned = queue.run(source, move || match meant {
        Some(meant) => Some(try_on.turned(worn, meant)),
        None => try_on.turned_unasked(worn),
    });
    Ok(HttpResponse::Ok().json(turned.await?))
}

/// Three states of one try-on.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Rebase {
    /// What was there when something was done.
    from: TryOn,
    /// What that led to, and what could be gone back or forward to from there.
    to: Vec<TryOn>,
    /// What is there now, with what others entered.
    onto: TryOn,
}

/// What leads `from` one state `to` others, done to what is there now: so one goes back in what one did oneself, and what others entered
/// stays. Gives one try-on for each of `to`. Stores nothing.
#[utoipa::path(request_body = Rebase, responses((status = 200, body = Vec<TryOn>), (status = 422, body = Problem)))]
#[post("/rebase")]
pub(crate) async fn rebased(
    request: HttpRequest,
    source: Source,
    body: Body,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let Rebase { from, to, onto } = read_body(&request, body)?;
    let all = [("from", &from), ("onto", &onto)].into_iter().chain(to.iter().map(|to| ("to", to)));
    within_limits(all, Tape::default())?;
    let rebased =
        queue.run(source, move || to.iter().map(|to| rebase(&from, to, &onto)).collect::<Vec<TryOn>>());
    Ok(HttpResponse::Ok().json(rebased.await?))
}
