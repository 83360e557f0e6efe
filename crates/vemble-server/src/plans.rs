//! What lies ahead of the whole account, and what was: evenings, plans, the log, the record's page, the calendar.

use crate::error::ApiError;
use crate::garments::NewVersion;
use crate::queue::Queue;
use crate::request::{Body, OnTape, invalid, none_of, read_body};
use crate::session::SignedIn;
use crate::token::{hash_of, new_token};
use crate::wire::{Problem, WorkroomState};
use actix_web::dev::ServiceRequest;
use actix_web::http::Uri;
use actix_web::http::header::{ContentDisposition, DispositionParam, DispositionType};
use actix_web::{HttpMessage, HttpRequest, HttpResponse, delete, get, post, put, web};
use futures_util::FutureExt;
use jiff::Timestamp;
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;
use vemble_core::ahead::{Ahead, EveningLine, OfGarment, Wanted, ahead, corrected_try_on, may_log, now_what};
use vemble_core::document::Document;
use vemble_core::history::{AsSewn, History, StandingLine, history, standing_adjustments};
use vemble_core::length::Tape;
use vemble_core::try_on::TryOn;
use vemble_core::work::{Correction, Logged, Wishes, Workroom, wrong_wishes, wrong_workroom};
use vemble_exchange::calendar::calendar;
use vemble_exchange::document::Complaint;
use vemble_store::{AccountStore, Store, StoredDocument};

/// What all garments of the account share.
#[utoipa::path(responses((status = 200, body = WorkroomState), (status = 401, body = Problem)))]
#[get("/workroom")]
pub(crate) async fn the_workroom(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(WorkroomState::of(store.account(account.id).workroom().await?)))
}

/// A workroom to store.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WorkroomChange {
    /// The version that was read; 0 where nothing was stored.
    version: i32,
    /// Everything in it.
    workroom: Workroom,
}

/// Stores what all garments of the account share, whole or not at all.
#[utoipa::path(
    params(OnTape),
    request_body = WorkroomChange,
    responses(
        (status = 200, body = NewVersion),
        (status = 401, body = Problem),
        (status = 409, body = Problem, description = "Changed elsewhere; `stored_workroom` has the other state"),
        (status = 422, body = Problem),
    )
)]
#[put("/workroom")]
pub(crate) async fn put_workroom(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let WorkroomChange { version, workroom } = read_body(&request, body)?;
    none_of(&wrong_workroom(&workroom), on.tape)?;
    let version = store.account(account.id).put_workroom(version, &workroom).await?;
    Ok(HttpResponse::Ok().json(NewVersion { version }))
}

/// How much is told of what lies ahead.
#[derive(Clone, Copy, Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct AheadWanted {
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    tape: Tape,
    /// The garment whose tasks are told one by one.
    garment: Option<Uuid>,
    /// Ways out are looked for where something is late.
    #[serde(default)]
    ways_out: bool,
}

/// Every garment that is not put away, as it is planned.
async fn planned(store: &AccountStore<'_>) -> Result<(Vec<StoredDocument>, Workroom), ApiError> {
    let mut documents = store.documents().await?;
    documents.retain(|stored| !stored.archived);
    Ok((documents, store.workroom().await?.workroom))
}

fn of(stored: &StoredDocument) -> OfGarment<'_> {
    OfGarment { id: stored.id, wearer: stored.wearer_id, document: &stored.document }
}

fn told(documents: &[StoredDocument], room: &Workroom, tape: Tape, wanted: Wanted) -> Ahead {
    let all: Vec<OfGarment<'_>> = documents.iter().map(of).collect();
    ahead(&all, room, Timestamp::now(), tape, wanted)
}

/// What lies ahead: the tasks of every garment, laid over the evenings there are.
#[utoipa::path(params(AheadWanted), responses((status = 200, body = Ahead), (status = 401, body = Problem)))]
#[get("/ahead")]
pub(crate) async fn ahead_of_all(
    SignedIn(account): SignedIn,
    wanted: web::Query<AheadWanted>,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (documents, room) = planned(&store.account(account.id)).await?;
    let AheadWanted { tape, garment, ways_out } = *wanted;
    let wanted = Wanted { tasks_of: garment, ways_out };
    let answer = queue.run(account.id, move || told(&documents, &room, tape, wanted)).await?;
    Ok(HttpResponse::Ok().json(answer))
}

/// Reads a body all of whose fields may be missing: a list is none.
fn read_object<T: DeserializeOwned>(request: &HttpRequest, body: Body) -> Result<T, ApiError> {
    let value: serde_json::Map<String, serde_json::Value> = read_body(request, body)?;
    serde_json::from_value(value.into()).map_err(|error| {
        let expected = "what /api/openapi.json describes".into();
        ApiError::Malformed(Complaint { path: ".".into(), found: error.to_string(), expected })
    })
}

/// What would be otherwise.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WhatIf {
    /// The workroom as it would be.
    #[serde(default)]
    workroom: Option<Workroom>,
    /// The garment that something else is wished for.
    #[serde(default)]
    garment: Option<Uuid>,
    /// What is wished for it.
    #[serde(default)]
    wishes: Option<Wishes>,
}

/// What would lie ahead with other evenings, or other wishes for one garment. Stores nothing.
#[utoipa::path(
    params(AheadWanted),
    request_body = WhatIf,
    responses((status = 200, body = Ahead), (status = 401, body = Problem), (status = 404, body = Problem), (status = 422, body = Problem))
)]
#[post("/ahead/what-if")]
pub(crate) async fn what_if(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    wanted: web::Query<AheadWanted>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let WhatIf { workroom, garment, wishes } = read_object(&request, body)?;
    none_of(&workroom.as_ref().map(wrong_workroom).unwrap_or_default(), wanted.tape)?;
    none_of(&wishes.as_ref().map(wrong_wishes).unwrap_or_default(), wanted.tape)?;
    let (mut documents, room) = planned(&store.account(account.id)).await?;
    let room = workroom.unwrap_or(room);
    if let Some(wishes) = wishes {
        let here = documents.iter_mut().find(|stored| Some(stored.id) == garment);
        here.ok_or(vemble_store::StoreError::NotFound)?.document.wishes = wishes;
    }
    let AheadWanted { tape, garment, ways_out } = *wanted;
    let wanted = Wanted { tasks_of: garment, ways_out };
    let answer = queue.run(account.id, move || told(&documents, &room, tape, wanted)).await?;
    Ok(HttpResponse::Ok().json(answer))
}

/// How much time there is now.
#[derive(Clone, Copy, Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct TimeNow {
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    tape: Tape,
    /// How many minutes.
    #[param(minimum = 1, maximum = 960)]
    minutes: u16,
    /// Somebody is there to help.
    #[serde(default)]
    helper: bool,
}

/// What to do in so many minutes from now on.
#[utoipa::path(params(TimeNow), responses((status = 200, body = EveningLine), (status = 401, body = Problem), (status = 422, body = Problem)))]
#[get("/ahead/now")]
pub(crate) async fn right_now(
    SignedIn(account): SignedIn,
    time: web::Query<TimeNow>,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (documents, room) = planned(&store.account(account.id)).await?;
    let TimeNow { tape, minutes, helper } = *time;
    if !(1..=960).contains(&minutes) {
        return Err(ApiError::query(&format!("{minutes} minutes; from 1 to 960")));
    }
    let answer = queue.run(account.id, move || {
        let all: Vec<OfGarment<'_>> = documents.iter().map(of).collect();
        now_what(&all, &room, Timestamp::now(), tape, (minutes.into(), helper))
    });
    Ok(HttpResponse::Ok().json(answer.await?))
}

/// Wishes to store.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WishesChange {
    /// The version that was read; 0 where nothing was wished.
    version: i32,
    /// All that is wished.
    wishes: Wishes,
}

/// Stores what is wished for the work on a garment, whole or not at all.
#[utoipa::path(
    params(OnTape),
    request_body = WishesChange,
    responses(
        (status = 200, body = NewVersion),
        (status = 401, body = Problem),
        (status = 404, body = Problem),
        (status = 409, body = Problem, description = "Changed elsewhere; `stored_garment` has the other state"),
        (status = 422, body = Problem),
    )
)]
#[put("/garments/{garment}/wishes")]
pub(crate) async fn put_wishes(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let WishesChange { version, wishes } = read_body(&request, body)?;
    none_of(&wrong_wishes(&wishes), on.tape)?;
    let version = store.account(account.id).put_wishes(*id, version, &wishes).await?;
    Ok(HttpResponse::Ok().json(NewVersion { version }))
}

/// Entries for the log.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewLogged {
    /// In the order in which they were done; each with an id that the client made.
    #[schema(max_items = 100)]
    entries: Vec<Logged>,
}

/// Most entries at once.
const ENTRIES: usize = 100;

/// Adds entries to the log of a garment, all or none. What is sent twice is entered once. What cannot be undone is refused as long as the
/// gate before it has no verdict on every side.
#[utoipa::path(
    params(OnTape),
    request_body = NewLogged,
    responses((status = 204), (status = 401, body = Problem), (status = 404, body = Problem), (status = 422, body = Problem))
)]
#[post("/garments/{garment}/log")]
pub(crate) async fn log(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let NewLogged { entries } = read_body(&request, body)?;
    if entries.len() > ENTRIES {
        return Err(ApiError::Overlong);
    }
    let tape = on.tape;
    let may = |stored: StoredDocument, entries: Vec<Logged>| {
        queue.run(account.id, move || may_log(&stored.document, &entries, tape)).boxed()
    };
    match store.account(account.id).log(*id, &entries, may).await {
        Ok(Ok(())) => Ok(HttpResponse::NoContent().finish()),
        Ok(Err(faults)) => Err(invalid(&faults, tape)),
        Err(error) => Err(error),
    }
}

/// Corrections of lines that were basted.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Corrections {
    /// What is to be changed; the basted line is the datum.
    #[schema(max_items = 100)]
    corrections: Vec<Correction>,
}

/// The newest try-on with its lines corrected. Stores nothing: whoever asked stores it as any other change of the try-on.
#[utoipa::path(
    params(OnTape),
    request_body = Corrections,
    responses((status = 200, body = TryOn), (status = 401, body = Problem), (status = 404, body = Problem), (status = 422, body = Problem))
)]
#[post("/garments/{garment}/corrected")]
pub(crate) async fn corrected(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let Corrections { corrections } = read_body(&request, body)?;
    if corrections.len() > ENTRIES {
        return Err(ApiError::Overlong);
    }
    let document = store.account(account.id).document(*id).await?.document;
    let tape = on.tape;
    let try_on = queue.run(account.id, move || corrected_try_on(&document, &corrections, tape)).await?;
    Ok(HttpResponse::Ok().json(try_on.map_err(|faults| invalid(&faults, tape))?))
}

/// The history of a garment, what is left inside it, and what it would be once what is sewn is entered. Stores nothing.
#[utoipa::path(
    params(OnTape),
    request_body = AsSewn,
    responses((status = 200, body = History), (status = 401, body = Problem), (status = 404, body = Problem), (status = 422, body = Problem))
)]
#[post("/garments/{garment}/history")]
pub(crate) async fn history_of(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let sewn: AsSewn = read_object(&request, body)?;
    let store = store.account(account.id);
    let (document, room) = (store.document(*id).await?.document, store.workroom().await?.workroom);
    let tape = on.tape;
    let answer = queue.run(account.id, move || history(&document, &sewn, tape, &room.currency)).await?;
    Ok(HttpResponse::Ok().json(answer.map_err(|faults| invalid(&faults, tape))?))
}

/// What was learnt before and matters for a garment.
#[derive(Debug, Serialize, ToSchema)]
pub struct Before {
    /// Lessons on it, its wearer, its cloth, or the way of working.
    lessons: Vec<String>,
    /// What three or more garments of its wearer needed in the same place.
    standing: Vec<StandingLine>,
}

/// What was learnt before and matters for a garment: lessons, and where to begin.
#[utoipa::path(params(OnTape), responses((status = 200, body = Before), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[get("/garments/{garment}/before")]
pub(crate) async fn before(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    on: web::Query<OnTape>,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let store = store.account(account.id);
    let documents = store.documents().await?;
    let room = store.workroom().await?.workroom;
    let wearer = documents.iter().find(|stored| stored.id == *id).map(|stored| stored.wearer_id);
    let wearer = wearer.ok_or(vemble_store::StoreError::NotFound)?;
    let (id, tape) = (*id, on.tape);
    let answer = queue.run(account.id, move || {
        let others: Vec<&Document> = documents
            .iter()
            .filter(|stored| stored.wearer_id == wearer && stored.id != id)
            .map(|stored| &stored.document)
            .collect();
        let own: Vec<&StoredDocument> = documents.iter().filter(|stored| stored.id == id).collect();
        let wanted = Wanted { tasks_of: None, ways_out: false };
        let own: Vec<OfGarment<'_>> = own.into_iter().map(of).collect();
        let ahead = ahead(&own, &room, Timestamp::now(), tape, wanted);
        let lessons = ahead.garments.into_iter().flat_map(|garment| garment.lessons).collect();
        Before { lessons, standing: standing_adjustments(&others, tape) }
    });
    Ok(HttpResponse::Ok().json(answer.await?))
}

/// What lies ahead, as a calendar.
async fn written(store: &Store, account: Uuid, queue: &Queue) -> Result<String, ApiError> {
    let (documents, room) = planned(&store.account(account)).await?;
    queue
        .run(account, move || {
            let ahead = told(&documents, &room, Tape::default(), Wanted::default());
            calendar(&ahead, &Timestamp::now().to_string())
        })
        .await
}

/// The evenings as a calendar (iCalendar, RFC 5545).
#[utoipa::path(responses((status = 200, content((String = "text/calendar"))), (status = 401, body = Problem)))]
#[get("/calendar.ics")]
pub(crate) async fn calendar_file(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let name = DispositionParam::Filename("vemble.ics".into());
    let saved = ContentDisposition { disposition: DispositionType::Attachment, parameters: vec![name] };
    let text = written(&store, account.id, &queue).await?;
    Ok(HttpResponse::Ok().insert_header(saved).content_type("text/calendar; charset=utf-8").body(text))
}

/// The address of a calendar that others can read. It is shown once and kept nowhere.
#[derive(Debug, Serialize, ToSchema)]
pub struct OpenCalendar {
    /// Its path on this server.
    path: String,
}

/// Opens the evenings to whoever has the address that is answered, and closes the one before. It shows what is sewn when, and nothing else.
#[utoipa::path(responses((status = 201, body = OpenCalendar), (status = 401, body = Problem)))]
#[post("/calendar")]
pub(crate) async fn open_calendar(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let code = new_token();
    store.account(account.id).set_calendar(Some(&hash_of(&code))).await?;
    Ok(HttpResponse::Created().json(OpenCalendar { path: format!("/api/v1/calendar/{code}.ics") }))
}

/// Closes the evenings again: the address leads nowhere any more.
#[utoipa::path(responses((status = 204), (status = 401, body = Problem)))]
#[delete("/calendar")]
pub(crate) async fn close_calendar(
    SignedIn(account): SignedIn,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    store.account(account.id).set_calendar(None).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// The code of a calendar that is asked for.
#[derive(Clone, Default)]
struct Code(String);

/// Where calendars are read by their codes.
const CALENDARS: &str = "/api/v1/calendar/";

/// Takes the code of a calendar out of the address, before anything writes that down.
pub(crate) fn hide_code(request: &mut ServiceRequest) {
    let code = request.path().strip_prefix(CALENDARS).and_then(|rest| rest.strip_suffix(".ics"));
    if let Some(code) = code.map(|code| Code(code.to_owned())) {
        request.extensions_mut().insert(code);
        let hidden = Uri::from_static("/api/v1/calendar/shared.ics");
        request.match_info_mut().get_mut().update(&hidden);
        request.head_mut().uri = hidden;
    }
}

/// The evenings of whoever opened them, by their address.
#[utoipa::path(
    params(("code" = String, Path, description = "What opening it gave")),
    responses((status = 200, content((String = "text/calendar"))), (status = 404, body = Problem))
)]
#[get("/calendar/{code}.ics")]
pub(crate) async fn calendar_of_code(
    request: HttpRequest,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let code = request.extensions().get::<Code>().cloned().unwrap_or_default();
    let found = store.account_of_calendar(&hash_of(&code.0)).await?;
    let account = found.ok_or(vemble_store::StoreError::NotFound)?;
    let text = written(&store, account, &queue).await?;
    Ok(HttpResponse::Ok().content_type("text/calendar; charset=utf-8").body(text))
}
