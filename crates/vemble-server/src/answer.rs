//! What every request goes through: it gets an id, is checked at the doors, is answered in time, and is told in the log and in numbers,
//! without anything that was in it.

use crate::asked::{Asked, within};
use crate::doors::Doors;
use crate::error::ApiError;
use actix_web::body::{BoxBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::error::InternalError;
use actix_web::http::header::{HeaderName, HeaderValue, STRICT_TRANSPORT_SECURITY};
use actix_web::middleware::Next;
use actix_web::{HttpRequest, HttpResponse, ResponseError, web};
use futures_util::FutureExt;
use std::collections::HashMap;
use std::panic::AssertUnwindSafe;
use std::time::{Duration, Instant};
use tokio::sync::watch;
use utoipa::openapi::{OpenApi, PathItem};
use uuid::Uuid;
use vemble_store::{Store, StoreError};

/// From when on a request is not waited for where the database has no pulse, which is known two and a half seconds after it stopped: whoever
/// waits is told within five seconds.
const LOOKED_AFTER: Duration = Duration::from_millis(3_500);
/// How long a request may take to arrive and be answered.
const LONGEST: Duration = Duration::from_secs(60);
/// The same for photos and archives: 15 MB over the slowest line there is, or hundreds.
const LONGEST_FILE: Duration = Duration::from_secs(900);

/// The header that carries the id.
const REQUEST_ID: HeaderName = HeaderName::from_static("x-request-id");

/// Whether the database answers, as it was felt last.
pub struct Pulse(watch::Receiver<bool>);

impl Pulse {
    /// Feels it from now on.
    pub fn start(store: &Store) -> Self {
        let (beats, pulse) = watch::channel(true);
        let store = store.clone();
        actix_web::rt::spawn(async move {
            store
                .feel(|alive| {
                    beats.send_replace(alive);
                })
                .await;
        });
        Self(pulse)
    }
}

/// Answers a request, whatever happens.
pub async fn answer(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    let asked = Asked { id: Uuid::now_v7(), changes: !request.method().is_safe() };
    within(asked, answered(asked, request, next)).await
}

async fn answered(
    asked: Asked,
    mut request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    crate::plans::hide_code(&mut request);
    let from = Instant::now();
    let method = request.method().clone();
    let is_https = request.app_data::<web::Data<Doors>>().is_some_and(|doors| doors.is_https());
    let (route, done) = match check(&request) {
        Err(refused) => ("refused".to_owned(), Ok(request.into_response(refused.error_response()))),
        Ok(()) => {
            let done = in_time(asked, request, next).await;
            let pattern = done.as_ref().ok().and_then(|answer| answer.request().match_pattern());
            (pattern.unwrap_or_else(|| "other".into()), done)
        }
    };
    let mut done = done.map_err(|error| error.error_response());
    let (status, headers) = match &mut done {
        Ok(answer) => (answer.status(), answer.headers_mut()),
        Err(answer) => (answer.status(), answer.headers_mut()),
    };
    if let Ok(id) = HeaderValue::from_str(&asked.id.to_string()) {
        headers.insert(REQUEST_ID, id);
    }
    if is_https {
        headers.insert(STRICT_TRANSPORT_SECURITY, HeaderValue::from_static("max-age=63072000"));
    }
    let took = from.elapsed();
    let (code, ms) = (status.as_u16(), took.as_secs_f64() * 1e3);
    if status.is_server_error() {
        tracing::warn!(request = %asked.id, %method, route, status = code, ms, "answered");
    } else {
        tracing::info!(request = %asked.id, %method, route, status = code, ms, "answered");
    }
    // There are as many methods as somebody makes up: only those that a path has are counted apart.
    let method = if ["GET", "PUT", "POST", "DELETE", "HEAD"].contains(&method.as_str()) {
        method.as_str()
    } else {
        "other"
    };
    let labels = [("method", method.to_owned()), ("route", route), ("status", code.to_string())];
    metrics::counter!("vemble_requests_total", &labels).increment(1);
    metrics::histogram!("vemble_request_seconds", &labels[..2]).record(took.as_secs_f64());
    // What broke has no request any more: its answer is carried as an error, and written as it is.
    done.map_err(|answer| InternalError::from_response("broke", answer).into())
}

/// Which server is meant, and whether a page of this site writes to it.
fn check(request: &ServiceRequest) -> Result<(), ApiError> {
    let doors = request.app_data::<web::Data<Doors>>().ok_or(ApiError::WrongHost)?;
    doors.check_host(request.headers(), request.uri())?;
    if !request.method().is_safe() {
        doors.check_page(request.headers())?;
    }
    // A character that no text has is refused before it reaches anything, wherever in the address it stands.
    if request.path().contains("%00") {
        return Err(StoreError::NotFound.into());
    }
    if request.query_string().contains("%00") {
        return Err(ApiError::query(&"a character of no text (NUL)"));
    }
    Ok(())
}

/// The answer, or that there is none: what breaks while it is worked out does not hang up, and a database that hangs keeps nobody waiting.
async fn in_time(
    asked: Asked,
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    let pulse = request.app_data::<web::Data<Pulse>>().map(|pulse| pulse.0.clone());
    let is_file = request.path().contains("/photos/") || request.path().ends_with("/archives");
    let work = AssertUnwindSafe(next.call(request)).catch_unwind();
    let late = async {
        tokio::time::sleep(LOOKED_AFTER).await;
        let stopped = async {
            match pulse {
                Some(mut pulse) => drop(pulse.wait_for(|beats| !beats).await),
                None => std::future::pending().await,
            }
        };
        let is_known = tokio::time::timeout(if is_file { LONGEST_FILE } else { LONGEST }, stopped).await;
        match (asked.changes, is_known) {
            (true, _) => ApiError::NotKnown,
            (false, Ok(())) => ApiError::Silent,
            (false, Err(_)) => ApiError::Busy,
        }
    };
    tokio::select! {
        biased;
        done = work => match done {
            Ok(done) => done.map(ServiceResponse::map_into_boxed_body),
            Err(_) => Err(ApiError::Broken.into()),
        },
        why = late => Err(why.into()),
    }
}

/// The methods of every path that is described.
pub struct Methods(HashMap<String, Vec<&'static str>>);

impl Methods {
    /// Of the whole description.
    pub fn of(description: &OpenApi) -> Self {
        let of = |item: &PathItem| {
            let has =
                [("GET", &item.get), ("PUT", &item.put), ("POST", &item.post), ("DELETE", &item.delete)];
            has.into_iter().filter_map(|(name, operation)| operation.as_ref().map(|_| name)).collect()
        };
        Self(description.paths.paths.iter().map(|(path, item)| (path.clone(), of(item))).collect())
    }
}

/// What is nowhere, or somewhere by another method.
pub async fn nowhere(request: HttpRequest, methods: web::Data<Methods>) -> Result<HttpResponse, ApiError> {
    let has = request.match_pattern().and_then(|pattern| methods.0.get(&pattern).cloned());
    Err(has.map_or_else(|| StoreError::NotFound.into(), ApiError::WrongMethod))
}
