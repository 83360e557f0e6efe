//! Reading requests: bodies, the tape, and what is wrong with either. It knows no route.

use crate::error::ApiError;
use actix_web::http::header::CONTENT_TYPE;
use actix_web::{HttpRequest, web};
use serde::Deserialize;
use serde::de::DeserializeOwned;
use utoipa::IntoParams;
use vemble_core::fault::Fault;
use vemble_core::length::Tape;
use vemble_exchange::document::{Complaint, no_text, read};

/// A body as it arrived; an overlong one is an error with a status of its own.
pub type Body = Result<web::Bytes, actix_web::Error>;

/// A JSON body of any type, checked for shape with the path of what is wrong.
pub fn read_body<T: DeserializeOwned>(request: &HttpRequest, body: Body) -> Result<T, ApiError> {
    read(&bytes(request, body)?).map_err(ApiError::Malformed)
}

/// A JSON body as it is, by its own words.
pub fn bytes(request: &HttpRequest, body: Body) -> Result<web::Bytes, ApiError> {
    let content_type = request.headers().get(CONTENT_TYPE).and_then(|v| v.to_str().ok()).unwrap_or("");
    if !content_type.starts_with("application/json") {
        return Err(ApiError::NotJson);
    }
    let body = body.map_err(ApiError::from)?;
    no_text(&body).map_or(Ok(body), |complaint| Err(ApiError::Invalid(vec![complaint])))
}

/// Which tape figures are shown on.
#[derive(Clone, Copy, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct OnTape {
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    pub tape: Tape,
}

/// No fault, or all of them in words.
pub fn none_of(faults: &[Fault], tape: Tape) -> Result<(), ApiError> {
    if faults.is_empty() { Ok(()) } else { Err(invalid(faults, tape)) }
}

/// All faults in words.
pub fn invalid(faults: &[Fault], tape: Tape) -> ApiError {
    ApiError::Invalid(Complaint::all(faults, tape))
}
