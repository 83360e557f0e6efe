//! Errors as problem details (RFC 9457): what was wrong, where, and what would be right.

use crate::garments::TryOnState;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, ResponseError};
use serde::Serialize;
use std::fmt;
use utoipa::ToSchema;
use vemble_exchange::document::Complaint;
use vemble_store::StoreError;

/// A problem as it is sent: `application/problem+json`.
#[derive(Debug, Serialize, ToSchema)]
pub struct Problem {
    /// What kind of problem, as a word that does not change.
    #[serde(rename = "type")]
    pub kind: &'static str,
    /// The kind in words.
    pub title: &'static str,
    /// The HTTP status.
    pub status: u16,
    /// What to do about it.
    pub detail: String,
    /// Each thing wrong in what was sent, with its JSON path.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub errors: Vec<Complaint>,
    /// What is stored now, when somebody else was faster. What was sent is still with whoever sent it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub stored: Option<TryOnState>,
}

/// Anything a route can fail with.
#[derive(Debug)]
pub enum ApiError {
    /// Nobody is signed in.
    SignedOut,
    /// What was sent has the wrong shape.
    Malformed(Complaint),
    /// What was sent has the right shape but cannot be.
    Invalid(Vec<Complaint>),
    /// Not JSON by its own words.
    NotJson,
    /// A body over the limit, or one that broke off.
    Body(actix_web::Error),
    /// The store's.
    Store(StoreError),
}

impl From<StoreError> for ApiError {
    fn from(error: StoreError) -> Self {
        Self::Store(error)
    }
}

impl ApiError {
    /// A query string that cannot be read.
    pub fn query(error: &dyn fmt::Display) -> Self {
        let expected = "the parameters that /api/openapi.json describes".into();
        Self::Malformed(Complaint { path: "query".into(), found: error.to_string(), expected })
    }

    fn problem(&self) -> Problem {
        let problem = |status: StatusCode, kind, title, detail: &str| Problem {
            kind,
            title,
            status: status.as_u16(),
            detail: detail.into(),
            errors: Vec::new(),
            stored: None,
        };
        match self {
            Self::SignedOut => problem(
                StatusCode::UNAUTHORIZED,
                "signed-out",
                "Signed out",
                "Sign in again; what you typed is kept here.",
            ),
            Self::Malformed(complaint) => Problem {
                errors: vec![complaint.clone()],
                ..problem(
                    StatusCode::BAD_REQUEST,
                    "malformed",
                    "Not a document",
                    "Correct what is named; nothing was stored.",
                )
            },
            Self::Invalid(complaints) => Problem {
                errors: complaints.clone(),
                ..problem(
                    StatusCode::UNPROCESSABLE_ENTITY,
                    "invalid",
                    "This cannot be",
                    "Correct what is named; nothing was stored.",
                )
            },
            Self::NotJson => problem(
                StatusCode::UNSUPPORTED_MEDIA_TYPE,
                "not-json",
                "Not JSON",
                "Send the header Content-Type: application/json.",
            ),
            Self::Body(error) => match error.as_response_error().status_code() {
                StatusCode::PAYLOAD_TOO_LARGE => problem(
                    StatusCode::PAYLOAD_TOO_LARGE,
                    "too-large",
                    "Too large",
                    "A document has at most 1 MB. Nothing was stored.",
                ),
                _ => problem(
                    StatusCode::BAD_REQUEST,
                    "broken-off",
                    "Broken off",
                    "The body did not arrive whole; send it again.",
                ),
            },
            Self::Store(error) => Self::of_store(error, problem),
        }
    }

    fn of_store(
        error: &StoreError,
        problem: impl Fn(StatusCode, &'static str, &'static str, &str) -> Problem,
    ) -> Problem {
        match error {
            StoreError::NotFound => problem(
                StatusCode::NOT_FOUND,
                "not-found",
                "Not found",
                "It may have been removed, or it is not in this account.",
            ),
            StoreError::Stale(stored) => Problem {
                stored: Some(TryOnState::of(stored.as_ref().clone())),
                ..problem(
                    StatusCode::CONFLICT,
                    "stale",
                    "Changed elsewhere",
                    "This try-on was changed since you read it. Both states are kept: choose which one to go on with.",
                )
            },
            StoreError::IdTaken => problem(
                StatusCode::CONFLICT,
                "id-taken",
                "Id used twice",
                "Give each reading an id of its own.",
            ),
            StoreError::Unreachable(_) => problem(
                StatusCode::SERVICE_UNAVAILABLE,
                "no-database",
                "The database does not answer",
                "Try again in a moment; what you typed is kept here.",
            ),
            StoreError::Refused(_) | StoreError::Unreadable(_) => problem(
                StatusCode::INTERNAL_SERVER_ERROR,
                "failed",
                "Something failed on our side",
                "Nothing was stored. The server's log says more.",
            ),
        }
    }
}

impl fmt::Display for ApiError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let problem = self.problem();
        write!(f, "{}: {}", problem.title, problem.detail)
    }
}

impl ResponseError for ApiError {
    fn status_code(&self) -> StatusCode {
        StatusCode::from_u16(self.problem().status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR)
    }

    fn error_response(&self) -> HttpResponse {
        if let Self::Store(
            error @ (StoreError::Refused(_) | StoreError::Unreadable(_) | StoreError::Unreachable(_)),
        ) = self
        {
            tracing::error!(error = error as &dyn std::error::Error, "the store failed");
        }
        HttpResponse::build(self.status_code()).content_type("application/problem+json").json(self.problem())
    }
}
