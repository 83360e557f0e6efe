//! Garments of an account: the rail, one garment, and its try-ons.

use crate::error::{ApiError, Problem};
use crate::session::Account;
use crate::solving::{Body, OnTape, read_body};
use actix_web::{HttpRequest, HttpResponse, get, put, web};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::check::Outcome;
use vemble_core::document::Document;
use vemble_core::figure::Stand;
use vemble_core::fitting::TryOn;
use vemble_core::length::Tape;
use vemble_core::solve::solve;
use vemble_exchange::document::Complaint;
use vemble_store::{Store, StoredTryOn};

/// A garment on the rail.
#[derive(Serialize, ToSchema)]
pub struct OnTheRail {
    /// Its id.
    id: Uuid,
    /// What it is called.
    name: String,
    /// Who wears it.
    wearer: String,
    /// What it is made of.
    cloth: String,
    /// What to do next, in a few words.
    next_step: String,
    /// How many cautions its newest try-on has.
    cautions: usize,
    /// How many stops its newest try-on has.
    stops: usize,
    /// The garment, drawn with the changes of its newest try-on.
    stand: Option<Stand>,
}

/// Every garment of the account.
#[utoipa::path(responses((status = 200, body = Vec<OnTheRail>), (status = 401, body = Problem)))]
#[get("/rail")]
pub(crate) async fn rail(account: Account, store: web::Data<Store>) -> Result<HttpResponse, ApiError> {
    let documents = store.account(account.0).documents().await?;
    let mut rail = Vec::new();
    for stored in documents {
        let mut solved =
            solve(&stored.document, Tape::default()).map_err(|f| invalid(&f, Tape::default()))?;
        let newest = solved.try_ons.pop();
        let count = |outcome| newest.iter().flat_map(|t| &t.checks).filter(|c| c.outcome == outcome).count();
        let garment = stored.document.garment;
        rail.push(OnTheRail {
            id: stored.id,
            name: garment.name,
            wearer: garment.wearer.name,
            cloth: garment.cloth.name,
            next_step: solved.next_step,
            cautions: count(Outcome::Caution),
            stops: count(Outcome::Stop),
            stand: newest.map_or(solved.stand, |t| Some(t.stand)),
        });
    }
    Ok(HttpResponse::Ok().json(rail))
}

fn invalid(faults: &[vemble_core::fault::Fault], tape: Tape) -> ApiError {
    ApiError::Invalid(Complaint::all(faults, tape))
}

/// A garment with its wearer and try-ons.
#[derive(Serialize, ToSchema)]
pub struct GarmentState {
    /// The garment's id.
    id: Uuid,
    /// The version of the garment's facts.
    version: i32,
    /// The version of each try-on, in the document's order.
    try_on_versions: Vec<i32>,
    /// Garment, wearer and try-ons.
    document: Document,
}

/// One garment.
#[utoipa::path(responses((status = 200, body = GarmentState), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/garments/{garment}")]
pub(crate) async fn one_garment(
    account: Account,
    garment: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let stored = store.account(account.0).document(*garment).await?;
    Ok(HttpResponse::Ok().json(GarmentState {
        id: stored.id,
        version: stored.version,
        try_on_versions: stored.try_on_versions,
        document: stored.document,
    }))
}

/// A try-on with the version that the next change has to name.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TryOnState {
    /// The version that was read; 0 for a new try-on.
    version: i32,
    /// The try-on, whole.
    try_on: TryOn,
}

impl TryOnState {
    pub(crate) fn of(stored: StoredTryOn) -> Self {
        Self { version: stored.version, try_on: stored.try_on }
    }
}

/// Stores a try-on whole, or not at all. Made by the client: its id and the ids of its readings.
#[utoipa::path(
    params(OnTape),
    request_body = TryOnState,
    responses(
        (status = 200, body = TryOnState),
        (status = 400, body = Problem),
        (status = 401, body = Problem),
        (status = 404, body = Problem),
        (status = 409, body = Problem, description = "Changed elsewhere; `stored` has the other state"),
        (status = 413, body = Problem),
        (status = 422, body = Problem),
    )
)]
#[put("/garments/{garment}/try-ons/{try_on}")]
pub(crate) async fn put_try_on(
    account: Account,
    request: HttpRequest,
    path: web::Path<(Uuid, Uuid)>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let (garment, id) = path.into_inner();
    let sent: TryOnState = read_body(&request, body)?;
    let store = store.account(account.0);
    let document = store.document(garment).await?.document;
    let alone = Document { try_ons: vec![sent.try_on], ..document };
    if let Err(faults) = solve(&alone, on.tape) {
        let below = |fault: &vemble_core::fault::Fault| {
            let complaint = Complaint::of(fault, on.tape);
            Complaint { path: complaint.path.replacen("try_ons[0]", "try_on", 1), ..complaint }
        };
        return Err(ApiError::Invalid(faults.iter().map(below).collect()));
    }
    let stored = store.put_try_on(garment, id, sent.version, &alone.try_ons[0]).await?;
    Ok(HttpResponse::Ok().json(TryOnState::of(stored)))
}
