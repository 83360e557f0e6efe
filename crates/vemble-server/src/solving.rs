//! Solving a document, and reading a length, without storing anything.

use crate::doors::Source;
use crate::error::ApiError;
use crate::queue::Queue;
use crate::request::{Body, OnTape, bytes, none_of};
use crate::wire::Problem;
use actix_web::http::header::ContentType;
use actix_web::{HttpRequest, HttpResponse, get, post, web};
use quick_cache::Weighter;
use quick_cache::sync::Cache;
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;
use vemble_core::document::Document;
use vemble_core::length::{Measure, Tape};
use vemble_core::method::{Methods, WantedFrom, methods};
use vemble_core::solve::{For, Solved, SoundState, solve_for};
use vemble_exchange::document::{Complaint, OneState, read_document};

/// States that were judged, by their id and revision; a drag sends the same again and again.
pub struct Sound(Cache<StateKey, Arc<Known>, ByLength>);

type StateKey = (Uuid, Option<u32>);

/// A state and the text that it was read from: another may say that it is the same one, in another account or after a slip.
struct Known {
    facts: [Box<str>; 2],
    state: SoundState,
}

/// How much text is kept in memory, in bytes: a thousand garments.
const KEPT: u64 = 8_000_000;

impl Default for Sound {
    fn default() -> Self {
        Self(Cache::with_weighter(1_000, KEPT, ByLength))
    }
}

impl Sound {
    /// The only state of a document. Nothing where it has a fault.
    fn of(&self, one: &OneState<'_>) -> Option<Arc<Known>> {
        let (key, facts) = (one.key(), one.facts());
        let known = self.0.get(&key).filter(|known| known.facts.iter().map(AsRef::as_ref).eq(facts));
        known.or_else(|| {
            let (state, wearer) = one.read_facts()?;
            let state = SoundState::new(&state, &wearer).ok()?;
            let known = Arc::new(Known { facts: facts.map(Into::into), state });
            self.0.insert(key, known.clone());
            Some(known)
        })
    }
}

#[derive(Clone)]
struct ByLength;

impl Weighter<StateKey, Arc<Known>> for ByLength {
    fn weight(&self, _: &StateKey, known: &Arc<Known>) -> u64 {
        known.facts.iter().map(|text| text.len() as u64).sum()
    }
}

/// What is derived.
#[derive(Clone, Copy, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Wanted {
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    tape: Tape,
    /// The chalk cards too; a page does not need them.
    #[serde(default)]
    cards: bool,
    /// While something is dragged: what would mend a check is neither tried nor offered.
    #[serde(default)]
    dragged: bool,
}

impl Wanted {
    const fn what(self) -> For {
        match (self.cards, self.dragged) {
            (true, _) => For::Cards,
            (false, false) => For::Page,
            (false, true) => For::Drag,
        }
    }
}

/// Derives lines, checks and drawings from a document, and its chalk cards if asked. Stores nothing.
#[utoipa::path(
    params(Wanted),
    request_body = Document,
    responses((status = 200, body = Solved), (status = 422, body = Problem))
)]
#[post("/solve")]
pub(crate) async fn solve(
    request: HttpRequest,
    source: Source,
    wanted: web::Query<Wanted>,
    sound: web::Data<Sound>,
    queue: web::Data<Queue>,
    body: Body,
) -> Result<HttpResponse, ApiError> {
    let (tape, wanted) = (wanted.tape, wanted.what());
    let json = bytes(&request, body)?;
    let answer = queue.run(source, move || derived(&json, tape, wanted, &sound)).await??;
    Ok(HttpResponse::Ok().content_type(ContentType::json()).body(answer))
}

/// What follows from the document `json`, as JSON.
fn derived(json: &[u8], tape: Tape, wanted: For, sound: &Sound) -> Result<Vec<u8>, ApiError> {
    let known =
        OneState::read(json).and_then(|one| Some((sound.of(&one)?, one.try_ons, one.wishes, one.log)));
    let solved: Result<Solved, _> = match known {
        Some((known, try_ons, wishes, log)) => known.state.solve(&try_ons, (&wishes, &log), tape, wanted),
        // What has a history, does not read, or has a fault is read whole: that says what is wrong.
        None => {
            let document = read_document(json).map_err(ApiError::Malformed)?;
            solve_for(&document, tape, wanted)
        }
    };
    let solved = solved.map_err(|faults| ApiError::Invalid(Complaint::all(&faults, tape)))?;
    // A garment with one altered seam is some 15 kB; a buffer that grows is copied again and again.
    let mut answer = Vec::with_capacity(32 * 1024);
    serde_json::to_writer(&mut answer, &solved).map_err(actix_web::Error::from)?;
    Ok(answer)
}

/// Where what is wanted comes from.
#[derive(Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Asked {
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    tape: Tape,
    /// As it was typed in the newest try-on, or what its pins come to; typed when absent.
    #[serde(default)]
    #[param(inline)]
    from: WantedFrom,
}

/// The ways to do what is wanted in the newest try-on of a document: the best side by side, and why the others fell. Stores nothing.
#[utoipa::path(
    params(Asked),
    request_body = Document,
    responses((status = 200, body = Methods), (status = 422, body = Problem))
)]
#[post("/methods")]
pub(crate) async fn find_methods(
    request: HttpRequest,
    source: Source,
    asked: web::Query<Asked>,
    queue: web::Data<Queue>,
    body: Body,
) -> Result<HttpResponse, ApiError> {
    let json = bytes(&request, body)?;
    let Asked { tape, from } = asked.into_inner();
    let found = queue.run(source, move || {
        let document = read_document(&json).map_err(ApiError::Malformed)?;
        methods(&document, from, tape).map_err(|faults| ApiError::Invalid(Complaint::all(&faults, tape)))
    });
    Ok(HttpResponse::Ok().json(found.await??))
}

/// A document of any version that was ever released, in the present one. Stores nothing.
#[utoipa::path(params(OnTape), request_body = serde_json::Value, responses((status = 200, body = Document), (status = 422, body = Problem)))]
#[post("/brought-up")]
pub(crate) async fn bring_up(
    request: HttpRequest,
    source: Source,
    on: web::Query<OnTape>,
    body: Body,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let json = bytes(&request, body)?;
    let tape = on.tape;
    let document = queue.run(source, move || {
        let document = read_document(&json).map_err(ApiError::Malformed)?;
        none_of(&document.faults(), tape).map(|()| document)
    });
    Ok(HttpResponse::Ok().json(document.await??))
}

/// A length that somebody typed.
#[derive(Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Typed {
    /// What was typed: `2 1/4`, `5,7cm`.
    pub text: String,
    /// The tape of the page, whose unit a bare number takes.
    #[serde(default)]
    pub tape: Tape,
}

/// A length that was read.
#[derive(Serialize, ToSchema)]
pub struct ReadLength {
    /// As a document holds it, with its unit.
    pub measure: Measure,
    /// Exact, in nanometres.
    pub nm: i64,
}

/// Reads a length as people write it. Bare numbers take the unit of the tape.
#[utoipa::path(params(Typed), responses((status = 200, body = ReadLength), (status = 422, body = Problem)))]
#[get("/length")]
pub(crate) async fn length(typed: web::Query<Typed>) -> Result<HttpResponse, ApiError> {
    let complain = |e: vemble_core::length::LengthError| {
        ApiError::Invalid(vec![Complaint {
            path: "text".into(),
            found: e.to_string(),
            expected: e.expected().into(),
        }])
    };
    let measure = Measure::read(&typed.text, Some(typed.tape.unit())).map_err(complain)?;
    Ok(HttpResponse::Ok().json(ReadLength { measure, nm: measure.length.nm() }))
}
