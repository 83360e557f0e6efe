//! Garments of an account: the rail, one garment, its look-over, and its try-ons.

use crate::error::{ApiError, Problem};
use crate::session::SignedIn;
use crate::solving::{Body, OnTape, read_body};
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put, web};
use quick_cache::sync::Cache;
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use std::collections::HashMap;
use std::sync::Arc;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::body::Wearer;
use vemble_core::document::{Document, VERSION};
use vemble_core::fault::Fault;
use vemble_core::figure::{Hanging, hanging};
use vemble_core::figure::{Stand, stand};
use vemble_core::garment::{Beginning, Cloth, Garment, Kind, begin, cloth_named, named_cloths};
use vemble_core::length::Tape;
use vemble_core::look_over::{LookOver, look_over};
use vemble_core::solve::{NextStep, glance};
use vemble_exchange::document::Complaint;
use vemble_store::{RailKey, Store, StoreError, StoredDocument, StoredGarment};

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
}

/// What the rails showed lately, by all that it depends on: most of a rail is as it was when it was last looked at. A cache
/// of results, in memory, of each instance for itself; it is never wrong, only sometimes empty.
pub struct Seen(Cache<RailKey, Arc<Hung>>);

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

/// Every garment of the account, what presses most first.
#[utoipa::path(responses((status = 200, body = Vec<OnTheRail>), (status = 401, body = Problem)))]
#[get("/rail")]
pub(crate) async fn rail(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
    seen: web::Data<Seen>,
) -> Result<HttpResponse, ApiError> {
    let store = store.account(account.id);
    let keys = store.rail_keys().await?;
    let mut known: HashMap<Uuid, Arc<Hung>> =
        keys.iter().filter_map(|key| Some((key.garment.0, seen.0.get(key)?))).collect();
    let unknown: Vec<Uuid> =
        keys.iter().map(|key| key.garment.0).filter(|id| !known.contains_key(id)).collect();
    for stored in store.documents_of(&unknown).await? {
        let id = stored.id;
        let hung = Arc::new(hung(stored)?);
        // What was changed between the two queries is kept under what it was read as.
        let key = keys.iter().find(|key| key.garment == (id, hung.version));
        if let Some(key) = key {
            seen.0.insert(*key, hung.clone());
        }
        known.insert(id, hung);
    }
    let mut rail: Vec<&Hung> =
        keys.iter().filter_map(|key| known.get(&key.garment.0).map(AsRef::as_ref)).collect();
    rail.sort_by(|a, b| a.order.cmp(&b.order));
    Ok(HttpResponse::Ok().json(rail.into_iter().map(|hung| &hung.json).collect::<Vec<_>>()))
}

fn hung(stored: StoredDocument) -> Result<Hung, ApiError> {
    let glance = glance(&stored.document);
    let garment = stored.document.garment;
    let on_the_rail = OnTheRail {
        id: stored.id,
        version: stored.version,
        kind: garment.kind.template().name,
        toile: garment.toile,
        name: garment.name,
        wearer: garment.wearer.name,
        wearer_id: stored.wearer_id,
        cloth: garment.cloth.name,
        archived: stored.archived,
        next_step: glance.next_step.words(),
        cautions: glance.cautions,
        stops: glance.stops,
        hanging: glance.hanging,
    };
    let json = serde_json::value::to_raw_value(&on_the_rail).map_err(StoreError::from)?;
    Ok(Hung { version: on_the_rail.version, order: (on_the_rail.archived, glance.next_step), json })
}

pub(crate) fn invalid(faults: &[Fault], tape: Tape) -> ApiError {
    ApiError::Invalid(Complaint::all(faults, tape))
}

/// A kind of garment that can be begun.
#[derive(Serialize, ToSchema)]
pub struct KindLine {
    /// Which.
    kind: Kind,
    /// Its name.
    name: &'static str,
    /// What belongs here, in one line.
    says: &'static str,
    /// A cloth it is often made of.
    cloth: &'static str,
    /// How it looks, on a figure by proportion.
    hanging: Option<Hanging>,
}

/// Every kind of garment, drawn.
#[utoipa::path(responses((status = 200, body = Vec<KindLine>)))]
#[get("/kinds")]
pub(crate) async fn kinds() -> HttpResponse {
    let line = |kind: Kind| {
        let template = kind.template();
        let cloth = cloth_named(template.cloth)?;
        let wearer = Wearer::default();
        let garment = begin(Beginning { name: String::new(), kind, toile: false, wearer, cloth });
        let hanging = hanging(&garment, &[]);
        Some(KindLine { kind, name: template.name, says: template.says, cloth: template.cloth, hanging })
    };
    let lines: Vec<KindLine> = Kind::ALL.into_iter().filter_map(line).collect();
    HttpResponse::Ok().insert_header(("Cache-Control", "public, max-age=3600")).json(lines)
}

/// Cloths by name, with what is usual for each.
#[utoipa::path(responses((status = 200, body = Vec<Cloth>)))]
#[get("/cloths")]
pub(crate) async fn cloths() -> HttpResponse {
    HttpResponse::Ok()
        .insert_header(("Cache-Control", "public, max-age=3600"))
        .json(named_cloths().collect::<Vec<_>>())
}

/// A garment of a kind as it usually is on a wearer, every figure assumed. Stores nothing.
#[utoipa::path(request_body = Beginning, responses((status = 200, body = Garment), (status = 400, body = Problem), (status = 422, body = Problem)))]
#[post("/garments/begin")]
pub(crate) async fn begin_garment(request: HttpRequest, body: Body) -> Result<HttpResponse, ApiError> {
    let beginning: Beginning = read_body(&request, body)?;
    let garment = begin(beginning);
    checked(&garment, Tape::default())?;
    Ok(HttpResponse::Ok().json(garment))
}

/// Everything to find out about a garment. Stores nothing.
#[utoipa::path(params(OnTape), request_body = Garment, responses((status = 200, body = LookOver), (status = 400, body = Problem), (status = 422, body = Problem)))]
#[post("/look-over")]
pub(crate) async fn look_over_garment(
    request: HttpRequest,
    on: web::Query<OnTape>,
    body: Body,
) -> Result<HttpResponse, ApiError> {
    let garment: Garment = read_body(&request, body)?;
    checked(&garment, on.tape)?;
    Ok(HttpResponse::Ok().json(look_over(&garment, on.tape)))
}

/// A garment as it is, drawn on its wearer. Stores nothing.
#[utoipa::path(request_body = Garment, responses((status = 200, body = Stand), (status = 400, body = Problem), (status = 422, body = Problem)))]
#[post("/stand")]
pub(crate) async fn stand_of_garment(request: HttpRequest, body: Body) -> Result<HttpResponse, ApiError> {
    let garment: Garment = read_body(&request, body)?;
    checked(&garment, Tape::default())?;
    Ok(HttpResponse::Ok().json(stand(&garment)))
}

/// A garment that cannot be is named by its paths, below the garment.
fn checked(garment: &Garment, tape: Tape) -> Result<(), ApiError> {
    let document = Document { version: VERSION, garment: garment.clone(), try_ons: Vec::new() };
    let faults = document.faults();
    if faults.is_empty() {
        return Ok(());
    }
    Err(invalid(&faults, tape))
}

/// A garment with its wearer and try-ons.
#[derive(Debug, Serialize, ToSchema)]
pub struct GarmentState {
    /// The garment's id.
    id: Uuid,
    /// The version of the garment's facts.
    version: i32,
    /// Who wears it.
    wearer_id: Uuid,
    /// It is put away.
    archived: bool,
    /// The version of each try-on, in the document's order.
    try_on_versions: Vec<i32>,
    /// Garment, wearer and try-ons.
    document: Document,
}

impl GarmentState {
    pub(crate) fn of(stored: StoredDocument) -> Self {
        let StoredDocument { id, version, wearer_id, archived, try_on_versions, document } = stored;
        Self { id, version, wearer_id, archived, try_on_versions, document }
    }
}

/// One garment.
#[utoipa::path(responses((status = 200, body = GarmentState), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/garments/{garment}")]
pub(crate) async fn one_garment(
    SignedIn(account): SignedIn,
    garment: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let stored = store.account(account.id).document(*garment).await?;
    Ok(HttpResponse::Ok().json(GarmentState::of(stored)))
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
    /// Its facts, whole; the wearer in it is not stored with it.
    garment: Garment,
}

/// The version that a change made.
#[derive(Serialize, ToSchema)]
pub struct NewVersion {
    /// The next change has to name it.
    version: i32,
}

/// Stores a garment's facts whole, or not at all; made by the client, its id too.
#[utoipa::path(
    params(OnTape),
    request_body = GarmentChange,
    responses(
        (status = 200, body = NewVersion),
        (status = 400, body = Problem),
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
    let GarmentChange { version, wearer_id, archived, garment } = read_body(&request, body)?;
    checked(&garment, on.tape)?;
    let new = StoredGarment { wearer_id, archived, garment };
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
