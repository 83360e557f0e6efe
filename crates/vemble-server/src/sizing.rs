//! Which size of a pattern: reading its charts, and comparing its sizes. Stores nothing.

use crate::error::ApiError;
use crate::queue::Queue;
use crate::request::{Body, OnTape, none_of, read_body};
use crate::session::SignedIn;
use crate::wire::Problem;
use actix_web::{HttpRequest, HttpResponse, post, web};
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::fault::Fault;
use vemble_core::length::Unit;
use vemble_core::size::{Fits, Sizes, sizes};
use vemble_core::work::{Chart, Pattern, Wishes, wrong_wishes};
use vemble_exchange::chart::read_chart;
use vemble_store::{Store, StoreError};

/// A chart as somebody has it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ChartText {
    /// Its lines: the name and the sizes, then a row for each measurement, between tabs, semicolons or commas.
    #[schema(max_length = 20_000)]
    text: String,
    /// What figures without a unit are in. Nothing is guessed.
    #[serde(default)]
    unit: Option<Unit>,
}

/// The longest chart, in bytes: all sizes and rows there may be.
const LONGEST: usize = 20_000;

/// Reads a chart that was typed, pasted, or is the text of a file. Stores nothing.
#[utoipa::path(params(OnTape), request_body = ChartText, responses((status = 200, body = Chart), (status = 422, body = Problem)))]
#[post("/charts")]
pub(crate) async fn read_a_chart(
    request: HttpRequest,
    on: web::Query<OnTape>,
    body: Body,
) -> Result<HttpResponse, ApiError> {
    let ChartText { text, unit } = read_body(&request, body)?;
    if text.len() > LONGEST {
        return Err(ApiError::Overlong);
    }
    let chart = read_chart(&text, unit, on.tape).map_err(|complaint| ApiError::Invalid(vec![complaint]))?;
    Ok(HttpResponse::Ok().json(chart))
}

/// A pattern to compare.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OfPattern {
    /// As it is entered now.
    pattern: Pattern,
}

/// The sizes of a pattern that come nearest to what is wanted of a garment. Where no ease was typed, garments of the same wearer that were
/// finished tell what is liked. Stores nothing.
#[utoipa::path(
    params(OnTape),
    request_body = OfPattern,
    responses((status = 200, body = Sizes), (status = 401, body = Problem), (status = 404, body = Problem), (status = 422, body = Problem))
)]
#[post("/garments/{garment}/sizes")]
pub(crate) async fn find_sizes(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let OfPattern { pattern } = read_body(&request, body)?;
    let tape = on.tape;
    // Its faults stand where they would in what is wished.
    let wished = Wishes { pattern, ..Wishes::default() };
    let below = |fault: Fault| Fault { path: format!("wishes.{}", fault.path), ..fault };
    none_of(&wrong_wishes(&wished).into_iter().map(below).collect::<Vec<_>>(), tape)?;
    let documents = store.account(account.id).documents().await?;
    let own = documents.iter().position(|stored| stored.id == *id).ok_or(StoreError::NotFound)?;
    let found = queue.run(account.id, move || {
        let own = &documents[own];
        let newest = own.document.newest()?;
        let of_wearer = documents.iter().filter(|s| s.wearer_id == own.wearer_id && s.id != own.id);
        let fit = of_wearer.filter(|stored| stored.document.is_finished());
        let fit: Vec<Fits<'_>> = fit
            .filter_map(|s| Some(Fits { garment: &s.document.newest()?.garment, wearer: &s.document.wearer }))
            .collect();
        Some(sizes(&newest.garment, &own.document.wearer, &wished.pattern, &fit, tape))
    });
    Ok(HttpResponse::Ok().json(found.await?.ok_or(StoreError::NotFound)?))
}
