//! Wearers of an account: measurements, posture, and what their garments ask for.

use crate::doors::Source;
use crate::error::ApiError;
use crate::queue::Queue;
use crate::request::{Body, OnTape, invalid, read_body};
use crate::session::SignedIn;
use crate::wire::{Problem, WearerState};
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put, web};
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::body::{BodyMeasurement, Taken, Wearer};
use vemble_core::document::wrong_wearer;
use vemble_core::figure::{Picture, taking_picture};
use vemble_core::garment::Garment;
use vemble_core::length::Tape;
use vemble_core::people::{Person, person};
use vemble_exchange::measurements_csv::{measurements_csv, read_measurements_csv};
use vemble_store::{Store, StoredDocument, StoredWearer};

/// A wearer to store.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WearerChange {
    /// The version that was read; 0 for somebody new.
    version: i32,
    /// Name, measurements and notes, whole.
    wearer: Wearer,
}

/// A wearer with everything that follows from what was measured.
#[derive(Debug, Serialize, ToSchema)]
pub struct WearerPage {
    /// As stored.
    state: WearerState,
    /// What follows.
    person: Person,
    /// Their garments, by id and name.
    garments: Vec<NamedGarment>,
}

/// A garment by its name.
#[derive(Debug, Serialize, ToSchema)]
pub struct NamedGarment {
    /// Its id.
    id: Uuid,
    /// Its name.
    name: String,
}

/// Everybody in the account.
#[utoipa::path(responses((status = 200, body = Vec<WearerState>), (status = 401, body = Problem)))]
#[get("/wearers")]
pub(crate) async fn wearers(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let all = store.account(account.id).wearers().await?;
    Ok(HttpResponse::Ok().json(all.into_iter().map(WearerState::of).collect::<Vec<_>>()))
}

/// One wearer: measurements in body order with their history, and what each would unlock.
#[utoipa::path(params(OnTape), responses((status = 200, body = WearerPage), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/wearers/{wearer}")]
pub(crate) async fn one_wearer(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (store, id, tape) = (store.account(account.id), *id, on.tape);
    let (stored, documents) = (store.wearer(id).await?, store.documents().await?);
    Ok(HttpResponse::Ok().json(queue.run(account.id, move || page(stored, documents, tape)).await?))
}

/// Everything that follows from a wearer as they are now, with what the garments of the stored one ask for. Stores nothing.
#[utoipa::path(
    params(OnTape),
    request_body = Wearer,
    responses((status = 200, body = Person), (status = 401, body = Problem), (status = 422, body = Problem))
)]
#[post("/wearers/{wearer}/view")]
pub(crate) async fn view_wearer(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let wearer: Wearer = read_body(&request, body)?;
    let documents = store.account(account.id).documents().await?;
    let (id, tape) = (*id, on.tape);
    let answer = queue.run(account.id, move || {
        let theirs = documents.iter().filter(|d| d.wearer_id == id && !d.archived);
        let theirs: Vec<_> = theirs.filter_map(|d| d.document.newest()).map(|state| &state.garment).collect();
        person(&wearer, &theirs, tape)
    });
    Ok(HttpResponse::Ok().json(answer.await?))
}

fn page(stored: StoredWearer, documents: Vec<StoredDocument>, tape: Tape) -> WearerPage {
    let id = stored.id;
    let theirs: Vec<_> = documents.into_iter().filter(|d| d.wearer_id == id && !d.archived).collect();
    let newest = |d: &'_ StoredDocument| d.document.newest().map(|state| state.garment.clone());
    let theirs: Vec<(Uuid, Garment)> = theirs.iter().filter_map(|d| Some((d.id, newest(d)?))).collect();
    let facts: Vec<_> = theirs.iter().map(|(_, garment)| garment).collect();
    let person = person(&stored.wearer, &facts, tape);
    let garments = theirs.iter().map(|(id, garment)| NamedGarment { id: *id, name: garment.name.clone() });
    WearerPage { person, garments: garments.collect(), state: WearerState::of(stored) }
}

/// Stores a wearer whole; made by the client, its id too.
#[utoipa::path(
    params(OnTape),
    request_body = WearerChange,
    responses(
        (status = 200, body = WearerPage),
        (status = 401, body = Problem),
        (status = 409, body = Problem, description = "Changed elsewhere; `stored_wearer` has the other state"),
        (status = 422, body = Problem),
    )
)]
#[put("/wearers/{wearer}")]
pub(crate) async fn put_wearer(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let sent: WearerChange = read_body(&request, body)?;
    let faults = wrong_wearer(&sent.wearer);
    if !faults.is_empty() {
        return Err(invalid(&faults, on.tape));
    }
    let store = store.account(account.id);
    store.put_wearer(*id, sent.version, &sent.wearer).await?;
    let (stored, documents, tape) = (store.wearer(*id).await?, store.documents().await?, on.tape);
    Ok(HttpResponse::Ok().json(queue.run(account.id, move || page(stored, documents, tape)).await?))
}

/// Removes a wearer who has no garments.
#[utoipa::path(responses((status = 204), (status = 401, body = Problem), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/wearers/{wearer}")]
pub(crate) async fn delete_wearer(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    store.account(account.id).delete_wearer(*id).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// All measurements of a wearer as CSV, with the unit in the header.
#[utoipa::path(params(OnTape), responses((status = 200, content_type = "text/csv", body = String), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/wearers/{wearer}/measurements.csv")]
pub(crate) async fn wearer_csv(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let stored = store.account(account.id).wearer(*id).await?;
    let csv = measurements_csv(&stored.wearer.measurements, on.tape).map_err(|_| ApiError::Busy)?;
    Ok(HttpResponse::Ok()
        .content_type("text/csv; charset=utf-8")
        .insert_header(("Content-Disposition", "attachment; filename=\"measurements.csv\""))
        .body(csv))
}

/// Reads measurements from CSV without storing them: all of them, or the line that is wrong.
#[utoipa::path(
    request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = Vec<Taken>), (status = 401, body = Problem), (status = 422, body = Problem))
)]
#[post("/measurements/read-csv")]
pub(crate) async fn read_csv(_: SignedIn, body: Body) -> Result<HttpResponse, ApiError> {
    let taken = read_measurements_csv(&body.map_err(ApiError::from)?);
    Ok(HttpResponse::Ok().json(taken.map_err(|c| ApiError::Invalid(vec![c]))?))
}

/// How to take a measurement, drawn.
#[derive(Serialize, ToSchema)]
pub struct Taking {
    /// Which measurement.
    what: BodyMeasurement,
    /// The tape on a body.
    picture: Picture,
}

/// How to take each measurement, on a body by proportion.
#[utoipa::path(responses((status = 200, body = Vec<Taking>)))]
#[get("/measurements")]
pub(crate) async fn measurements(source: Source, queue: web::Data<Queue>) -> Result<HttpResponse, ApiError> {
    let all = queue.run(source, || &*TAKING).await?;
    Ok(HttpResponse::Ok().insert_header(("Cache-Control", "public, max-age=3600")).json(all))
}

/// They are the same for everybody: drawn once.
static TAKING: LazyLock<Vec<Taking>> = LazyLock::new(|| {
    let body = Wearer::default();
    let taking = |what: &BodyMeasurement| Taking { what: *what, picture: taking_picture(*what, &body) };
    BodyMeasurement::ALL.iter().map(taking).collect()
});
