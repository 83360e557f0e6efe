//! Solving a document, and reading a length, without storing anything.

use crate::error::{ApiError, Problem};
use crate::queue::Queue;
use actix_web::http::header::{CONTENT_TYPE, ContentType};
use actix_web::{HttpRequest, HttpResponse, get, post, web};
use quick_cache::Weighter;
use quick_cache::sync::Cache;
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use utoipa::{IntoParams, ToSchema};
use vemble_core::document::Document;
use vemble_core::fitting::TryOn;
use vemble_core::length::{Measure, Tape};
use vemble_core::solve::{Solved, SoundGarment};
use vemble_exchange::document::{Complaint, halves, read, read_beginning, read_document, read_try_ons};

/// Garments that were judged, by the text of their documents before the try-ons; a drag sends the same again and again.
pub struct Sound(Cache<Box<str>, Arc<Known>, ByLength>);

/// What stood before the try-ons.
struct Known {
    garment: SoundGarment,
    version: Option<u32>,
}

/// How much text is kept in memory, in bytes: a thousand garments.
const KEPT: u64 = 8_000_000;

impl Default for Sound {
    fn default() -> Self {
        Self(Cache::with_weighter(1_000, KEPT, ByLength))
    }
}

impl Sound {
    /// Nothing where there is no garment, or one with a fault.
    fn of(&self, text: &str) -> Option<Arc<Known>> {
        self.0.get(text).or_else(|| {
            let (garment, version) = read_beginning(text)?;
            let known = Arc::new(Known { garment: SoundGarment::new(&garment).ok()?, version });
            self.0.insert(text.into(), known.clone());
            Some(known)
        })
    }

    /// A document, if it is whole and its garment has no fault.
    fn read(&self, json: &[u8]) -> Option<(Arc<Known>, Vec<TryOn>)> {
        let (beginning, rest) = halves(json)?;
        let known = self.of(beginning)?;
        let try_ons = read_try_ons(rest, known.version)?;
        Some((known, try_ons))
    }
}

#[derive(Clone)]
struct ByLength;

impl Weighter<Box<str>, Arc<Known>> for ByLength {
    fn weight(&self, text: &Box<str>, _: &Arc<Known>) -> u64 {
        text.len() as u64
    }
}

/// A body as it arrived; an overlong one is an error with a status of its own.
pub type Body = Result<web::Bytes, actix_web::Error>;

/// A JSON body of any type, checked for shape with the path of what is wrong.
pub fn read_body<T: DeserializeOwned>(request: &HttpRequest, body: Body) -> Result<T, ApiError> {
    read(&bytes(request, body)?).map_err(ApiError::Malformed)
}

fn bytes(request: &HttpRequest, body: Body) -> Result<web::Bytes, ApiError> {
    let content_type = request.headers().get(CONTENT_TYPE).and_then(|v| v.to_str().ok()).unwrap_or("");
    if !content_type.starts_with("application/json") {
        return Err(ApiError::NotJson);
    }
    body.map_err(ApiError::from)
}

/// Which tape figures are shown on.
#[derive(Clone, Copy, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct OnTape {
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    pub tape: Tape,
}

/// What is derived.
#[derive(Clone, Copy, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Wanted {
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    tape: Tape,
    /// The chalk cards too; a drag does not need them.
    #[serde(default)]
    cards: bool,
}

/// Derives lines, checks and drawings from a document, and its chalk cards if asked. Stores nothing.
#[utoipa::path(
    params(Wanted),
    request_body = Document,
    responses((status = 200, body = Solved), (status = 400, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem))
)]
#[post("/solve")]
pub(crate) async fn solve(
    request: HttpRequest,
    wanted: web::Query<Wanted>,
    sound: web::Data<Sound>,
    queue: web::Data<Queue>,
    body: Body,
) -> Result<HttpResponse, ApiError> {
    let Wanted { tape, cards } = wanted.into_inner();
    let json = bytes(&request, body)?;
    let answer = queue.run(move || derived(&json, tape, cards, &sound)).await??;
    Ok(HttpResponse::Ok().content_type(ContentType::json()).body(answer))
}

/// What follows from the document `json`, as JSON.
fn derived(json: &[u8], tape: Tape, cards: bool, sound: &Sound) -> Result<Vec<u8>, ApiError> {
    let solved = match sound.read(json) {
        Some((known, try_ons)) => known.garment.solve(&try_ons, tape, cards),
        // What is written another way, does not read, or has a fault is read whole: that says what is wrong.
        None => {
            let document = read_document(json).map_err(ApiError::Malformed)?;
            let garment = SoundGarment::new(&document.garment).map_err(|_| document.faults());
            garment.and_then(|garment| garment.solve(&document.try_ons, tape, cards))
        }
    };
    let solved = solved.map_err(|faults| ApiError::Invalid(Complaint::all(&faults, tape)))?;
    // A garment with one altered seam is some 15 kB; a buffer that grows is copied again and again.
    let mut answer = Vec::with_capacity(32 * 1024);
    serde_json::to_writer(&mut answer, &solved).map_err(actix_web::Error::from)?;
    Ok(answer)
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
