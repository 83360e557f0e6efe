//! Garments of an account: the rail, one garment, its states and its record.

use crate::error::ApiError;
use crate::queue::Queue;
use crate::request::{Body, OnTape, invalid, none_of, read_body};
use crate::session::SignedIn;
use crate::unbroken::unbroken;
use crate::wire::{GarmentState, Problem};
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put, web};
use quick_cache::sync::Cache;
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use std::collections::HashMap;
use std::sync::Arc;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::document::{Document, Entry, Happened, State, wrong_entry, wrong_state};
use vemble_core::figure::Hanging;
use vemble_core::garment::Garment;
use vemble_core::history::taken_back;
use vemble_core::length::Tape;
use vemble_core::method::{Like, wanted_like};
use vemble_core::solve::{Glance, NextStep, glance};
use vemble_exchange::document::Complaint;
use vemble_store::{Entered, RailKey, Store, StoreError, StoredDocument, StoredGarment};

/// A garment on the rail.
#[derive(Serialize, ToSchema)]
pub struct OnTheRail {
    /// Its id.
    id: Uuid,
    /// The version of its facts.
    version: i32,
    /// What it is called.
    name: String,
    /// What kind it is, in words.
    kind: &'static str,
    /// A trial garment.
    toile: bool,
    /// Who wears it.
    wearer: String,
    /// Their id.
    wearer_id: Uuid,
    /// What it is made of.
    cloth: String,
    /// It is put away.
    archived: bool,
    /// What to do next, in a few words.
    next_step: String,
    /// How many cautions its newest try-on has.
    cautions: usize,
    /// How many stops its newest try-on has.
    stops: usize,
    /// The garment, drawn with the changes of its newest try-on.
    hanging: Option<Hanging>,
    /// Why it cannot be shown, where it cannot.
    #[serde(skip_serializing_if = "Option::is_none")]
    trouble: Option<&'static str>,
}

/// What the rails showed lately, by all that it depends on: most of a rail is as it was when it was last looked at. A cache
/// of results, in memory, of each instance for itself; it is never wrong, only sometimes empty.
pub struct Seen(Cache<(RailKey, Tape), Arc<Hung>>);

/// A place on the rail, ready to be sent.
struct Hung {
    version: i32,
    /// Garments put away hang last, the others by what presses most.
    order: (bool, NextStep),
    json: Box<RawValue>,
}

/// Garments kept in memory: a few kilobytes each.
const SEEN: usize = 5_000;

impl Default for Seen {
    fn default() -> Self {
        Self(Cache::new(SEEN))
    }
}

/// Every garment of the account, what presses most first, as it is judged at the marks of a tape.
#[utoipa::path(params(OnTape), responses((status = 200, body = Vec<OnTheRail>), (status = 401, body = Problem)))]
#[get("/rail")]
pub(crate) async fn rail(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
    seen: web::Data<Seen>,
    on: web::Query<OnTape>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (store, tape) = (store.account(account.id), on.tape);
    let keys = store.rail_keys().await?;
    let mut known: HashMap<Uuid, Arc<Hung>> =
        keys.iter().filter_map(|key| Some((key.garment.0, seen.0.get(&(*key, tape))?))).collect();
    let unknown: Vec<Uuid> =
        keys.iter().map(|key| key.garment.0).filter(|id| !known.contains_key(id)).collect();
    for stored in store.documents_of(&unknown).await? {
        let id = stored.id;
        let hung = queue.run(account.id, move || hung(stored, |document| glance(document, tape))).await??;
        let Some(hung) = hung.map(Arc::new) else { continue };
        // What was changed between the two queries is kept under what it was read as.
        let key = keys.iter().find(|key| key.garment == (id, hung.version));
        if let Some(key) = key {
            seen.0.insert((*key, tape), hung.clone());
        }
        known.insert(id, hung);
    }
    let mut rail: Vec<&Hung> =
        keys.iter().filter_map(|key| known.get(&key.garment.0).map(AsRef::as_ref)).collect();
    rail.sort_by(|a, b| a.order.cmp(&b.order));
    Ok(HttpResponse::Ok().json(rail.into_iter().map(|hung| &hung.json).collect::<Vec<_>>()))
}

/// What is said of a garment that cannot be shown.
const CANNOT_BE_SHOWN: &str =
    "It cannot be drawn as it was entered. Look it over: a figure may have slipped.";

/// Nothing of a garment without a state. One that breaks whatever looks at it hangs there undrawn, with the way to its look-over; the others
/// hang as ever.
fn hung(
    stored: StoredDocument,
    look: impl Fn(&Document) -> Option<Glance>,
) -> Result<Option<Hung>, ApiError> {
    let broken = || Glance { next_step: NextStep::LookOver, cautions: 0, stops: 0, hanging: None };
    let (glance, trouble) = match unbroken(|| look(&stored.document)) {
        Some(glance) => (glance, None),
        None => (Some(broken()), Some(CANNOT_BE_SHOWN)),
    };
    let (Some(glance), Some(newest)) = (glance, stored.document.newest()) else {
        return Ok(None);
    };
    let Glance { next_step, cautions, stops, hanging } = glance;
    let garment = newest.garment.clone();
    let on_the_rail = OnTheRail {
        id: stored.id,
        version: stored.version,
        kind: garment.kind.template().name,
        toile: garment.toile,
        name: garment.name,
        wearer: stored.document.wearer.name,
        wearer_id: stored.wearer_id,
        cloth: garment.cloth.name,
        archived: stored.archived,
        next_step: next_step.words(),
        cautions,
        stops,
        hanging,
        trouble,
    };
    let json = serde_json::value::to_raw_value(&on_the_rail).map_err(StoreError::from)?;
    Ok(Some(Hung { version: on_the_rail.version, order: (on_the_rail.archived, next_step), json }))
}

/// One garment.
#[utoipa::path(params(OnTape), responses((status = 200, body = GarmentState), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/garments/{garment}")]
pub(crate) async fn one_garment(
    SignedIn(account): SignedIn,
    garment: web::Path<Uuid>,
    on: web::Query<OnTape>,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (stored, tape) = (store.account(account.id).document(*garment).await?, on.tape);
    Ok(HttpResponse::Ok().json(queue.run(account.id, move || GarmentState::of(stored, tape)).await?))
}

/// What would make a garment measure like another of the account that fits, as both are now: to be typed into a try-on.
#[utoipa::path(params(OnTape), responses((status = 200, body = Like), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/garments/{garment}/like/{other}")]
pub(crate) async fn like_another(
    SignedIn(account): SignedIn,
    both: web::Path<(Uuid, Uuid)>,
    on: web::Query<OnTape>,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (garment, other) = *both;
    let (account_store, tape) = (store.account(account.id), on.tape);
    let (own, other) = (account_store.document(garment).await?, account_store.document(other).await?);
    let like = queue.run(account.id, move || {
        let [own, other] = [&own, &other].map(|stored| stored.document.newest());
        Some(wanted_like(&own?.garment, &other?.garment, tape))
    });
    Ok(HttpResponse::Ok().json(like.await?.ok_or(StoreError::NotFound)?))
}

/// A garment to store.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GarmentChange {
    /// The version that was read; 0 for a new garment.
    version: i32,
    /// Who wears it.
    wearer_id: Uuid,
    /// It is put away.
    #[serde(default)]
    archived: bool,
    /// The state that is corrected; of a new garment its first, made by the client.
    state: Uuid,
    /// The facts of that state, whole.
    garment: Garment,
}

/// The version that a change made.
#[derive(Serialize, ToSchema)]
pub struct NewVersion {
    /// The next change has to name it.
    pub version: i32,
}

/// Stores the facts of one state of a garment whole, or not at all: a correction, which everything that was measured on that state follows.
/// Made by the client, its id too.
#[utoipa::path(
    params(OnTape),
    request_body = GarmentChange,
    responses(
        (status = 200, body = NewVersion),
        (status = 401, body = Problem),
        (status = 404, body = Problem),
        (status = 409, body = Problem, description = "Changed elsewhere; `stored_garment` has the other state"),
        (status = 422, body = Problem),
    )
)]
#[put("/garments/{garment}")]
pub(crate) async fn put_garment(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let GarmentChange { version, wearer_id, archived, state, garment } = read_body(&request, body)?;
    none_of(&wrong_state(&State::first(state, garment.clone())), on.tape)?;
    let new = StoredGarment { wearer_id, archived, state, garment };
    let version = store.account(account.id).put_garment(*id, version, &new).await?;
    Ok(HttpResponse::Ok().json(NewVersion { version }))
}

/// Removes a garment with its try-ons and photos.
#[utoipa::path(responses((status = 204), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[delete("/garments/{garment}")]
pub(crate) async fn delete_garment(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    store.account(account.id).delete_garment(*id).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// What was done.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewEntry {
    /// The entry, made by the client, its id and that of the state it makes too.
    entry: Entry,
    /// The facts of the garment as it is then, where it was sewn. What is taken back is as it was before.
    #[serde(default)]
    garment: Option<Garment>,
}

/// The record of a garment, the oldest entry first.
#[utoipa::path(responses((status = 200, body = Vec<Entry>), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/garments/{garment}/record")]
pub(crate) async fn record(
    SignedIn(account): SignedIn,
    garment: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let stored = store.account(account.id).document(*garment).await?;
    Ok(HttpResponse::Ok().json(stored.document.record))
}

/// Enters in the record of a garment what was sewn, which makes its next state; what was measured on older ones stays with them. Nothing in
/// the record can be changed or taken away. What is sent twice is entered once.
#[utoipa::path(
    params(OnTape),
    request_body = NewEntry,
    responses(
        (status = 200, body = GarmentState),
        (status = 401, body = Problem),
        (status = 404, body = Problem),
        (status = 409, body = Problem, description = "Sewn from another state than the newest; `stored_garment` has what is stored"),
        (status = 422, body = Problem),
    )
)]
#[post("/garments/{garment}/record")]
pub(crate) async fn enter(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let NewEntry { entry, garment } = read_body(&request, body)?;
    none_of(&wrong_entry(&entry), on.tape)?;
    let store = store.account(account.id);
    let garment = match (&entry.what, garment) {
        (Happened::TakenBack { entry: taken, .. }, _) => {
            let stored = store.document(*id).await?;
            let known = stored.document.record.iter().any(|known| known.id == entry.id);
            let (taken, tape) = (*taken, on.tape);
            let back = queue.run(account.id, move || {
                if known {
                    return Ok(stored.document.newest().map(|state| state.garment.clone()));
                }
                taken_back(&stored.document, taken).map(Some).map_err(|faults| invalid(&faults, tape))
            });
            back.await??
        }
        (Happened::Sewn { .. }, None) => {
            let expected = "the garment as it is then".into();
            let complaint = Complaint { path: "garment".into(), found: "nothing".into(), expected };
            return Err(ApiError::Invalid(vec![complaint]));
        }
        (_, garment) => garment,
    };
    if let (Some((_, to)), Some(garment)) = (entry.made(), &garment) {
        none_of(&wrong_state(&State::first(to, garment.clone())), on.tape)?;
    }
    let (stored, tape) = (store.enter(*id, &Entered { entry, garment }).await?, on.tape);
    Ok(HttpResponse::Ok().json(queue.run(account.id, move || GarmentState::of(stored, tape)).await?))
}
