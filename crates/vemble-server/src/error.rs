//! Errors as problem details (RFC 9457): what was wrong, where, and what would be right.

use crate::wire::{GarmentState, Problem, TryOnState, WearerState, WorkroomState};
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, ResponseError};
use std::fmt;
use vemble_core::try_on::Apart;
use vemble_exchange::document::Complaint;
use vemble_exchange::pdf::CardsError;
use vemble_exchange::strips::StripsError;
use vemble_store::{StoreError, StoredTryOn};

/// Anything a route can fail with.
pub enum ApiError {
    /// Nobody is signed in.
    SignedOut,
    /// No account has this address and password.
    WrongPassword,
    /// Passwords were tried too often; how many seconds to wait.
    TooOften(u64),
    /// A request of another site.
    Elsewhere,
    /// A request that names another server.
    WrongHost,
    /// Nobody new is taken.
    NobodyNew,
    /// No invitation to sign up has this code.
    NoSuchInvitation,
    /// The database hangs.
    Silent,
    /// What was asked broke off, and may have been done.
    NotKnown,
    /// Not a ZIP by its own words.
    NotAnArchive,
    /// An archive over the limit.
    LargeArchive,
    /// There is no room on the disk for what is sent.
    NoDisk,
    /// A method that a path does not have; those it has.
    WrongMethod(Vec<&'static str>),
    /// Two devices changed the same entries of a try-on.
    Apart(Box<StoredTryOn>, Vec<Apart>),
    /// An invitation that has ended, or a try-on that takes nobody any more.
    Over,
    /// No try-on is open under a code.
    NoSuchCode,
    /// Somebody who may only look on tried to add something.
    LooksOn,
    /// No tape shows this code.
    NoSuchTape,
    /// Not a picture by its own words.
    NotAnImage,
    /// A picture over the limit.
    TooLarge,
    /// No thread was free to do it.
    Busy,
    /// What was asked broke while it was worked out: a fault of ours.
    Broken,
    /// What was sent has the wrong shape.
    Malformed(Complaint),
    /// What was sent has the right shape but cannot be.
    Invalid(Vec<Complaint>),
    /// Not JSON by its own words.
    NotJson,
    /// A body over the limit.
    Overlong,
    /// A body that broke off.
    BrokenOff,
    /// A file of cards that could not be made.
    Cards(CardsError),
    /// The store's.
    Store(StoreError),
}

impl From<actix_web::Error> for ApiError {
    /// Of a body that did not arrive.
    fn from(error: actix_web::Error) -> Self {
        match error.as_response_error().status_code() {
            StatusCode::PAYLOAD_TOO_LARGE => Self::Overlong,
            _ => Self::BrokenOff,
        }
    }
}

impl From<StoreError> for ApiError {
    fn from(error: StoreError) -> Self {
        Self::Store(error)
    }
}

impl From<StripsError> for ApiError {
    fn from(error: StripsError) -> Self {
        match error {
            StripsError::Nothing => Self::Store(StoreError::NotFound),
            StripsError::Write(reason) => Self::Cards(CardsError::Write(reason)),
        }
    }
}

impl From<CardsError> for ApiError {
    fn from(error: CardsError) -> Self {
        match error {
            CardsError::NoCard => Self::Store(StoreError::NotFound),
            CardsError::Write(_) => Self::Cards(error),
        }
    }
}

impl ApiError {
    /// A query string that cannot be read.
    pub fn query(error: &dyn fmt::Display) -> Self {
        let expected = "the parameters that /api/openapi.json describes".into();
        Self::Malformed(Complaint { path: "query".into(), found: error.to_string(), expected })
    }

    /// What went wrong, for a terminal.
    pub fn in_words(&self) -> String {
        let Problem { title, detail, errors, .. } = self.problem();
        let wrong = errors.iter().map(|c| format!("{}: found {}; expected {}", c.path, c.found, c.expected));
        std::iter::once(format!("{title}. {detail}")).chain(wrong).collect::<Vec<_>>().join("\n")
    }

    fn problem(&self) -> Problem {
        let problem = |status: StatusCode, kind, title, detail: &str| Problem {
            kind,
            title,
            status: status.as_u16(),
            detail: detail.into(),
            errors: Vec::new(),
            stored: None,
            apart: Vec::new(),
            stored_garment: None,
            stored_wearer: None,
            stored_workroom: None,
            request: crate::asked::id(),
        };
        match self {
            Self::SignedOut => problem(
                StatusCode::UNAUTHORIZED,
                "signed-out",
                "Signed out",
                "Sign in again; what you typed is kept here.",
            ),
            Self::WrongPassword => problem(
                StatusCode::UNAUTHORIZED,
                "wrong-password",
                "That is not it",
                "No account has this address with this password.",
            ),
            Self::TooOften(wait) => problem(
                StatusCode::TOO_MANY_REQUESTS,
                "too-often",
                "Tried too often",
                &format!("Try again in {wait} seconds."),
            ),
            Self::Elsewhere => problem(
                StatusCode::FORBIDDEN,
                "elsewhere",
                "Not from here",
                "Another site sent this; nothing was done.",
            ),
            Self::WrongHost => problem(
                StatusCode::MISDIRECTED_REQUEST,
                "wrong-host",
                "Not this server",
                "Vemble does not go by this name. Whoever runs it can add it: --allowed-host, or --public-url.",
            ),
            Self::NobodyNew => problem(
                StatusCode::FORBIDDEN,
                "nobody-new",
                "Nobody new is taken",
                "Whoever runs this Vemble can let you in.",
            ),
            Self::NoSuchInvitation => problem(
                StatusCode::NOT_FOUND,
                "no-such-invitation",
                "No invitation with this code",
                "Check the eight signs; a code is good once and for a week. Whoever runs this Vemble makes a new one.",
            ),
            Self::Silent => problem(
                StatusCode::SERVICE_UNAVAILABLE,
                "no-database",
                "The database does not answer",
                "Try again in a moment; what you typed is kept here.",
            ),
            Self::NotKnown => problem(
                StatusCode::SERVICE_UNAVAILABLE,
                "not-known",
                "Not known whether it was stored",
                "The answer broke off. Send it again: what is there already is not stored twice.",
            ),
            Self::NotAnArchive => problem(
                StatusCode::UNSUPPORTED_MEDIA_TYPE,
                "not-an-archive",
                "Not an archive",
                "Send a ZIP that Vemble wrote as application/zip.",
            ),
            Self::NoDisk => problem(
                StatusCode::INSUFFICIENT_STORAGE,
                "no-disk",
                "No room left on the disk",
                "Nothing was stored. Whoever runs this Vemble has to make room first.",
            ),
            Self::WrongMethod(methods) => problem(
                StatusCode::METHOD_NOT_ALLOWED,
                "wrong-method",
                "Not a method of this path",
                &format!("It has {}.", methods.join(", ")),
            ),
            Self::LargeArchive => problem(
                StatusCode::PAYLOAD_TOO_LARGE,
                "too-large",
                "Too large",
                "An archive has at most 3 GB. Nothing was stored.",
            ),
            Self::Apart(stored, apart) => Problem {
                stored: Some(TryOnState::of(stored.as_ref().clone())),
                apart: apart.clone(),
                ..problem(
                    StatusCode::CONFLICT,
                    "stale",
                    "Changed on another device too",
                    "Both changed the same: choose which to go on with. Everything else is kept from both.",
                )
            },
            Self::Over => problem(
                StatusCode::GONE,
                "over",
                "This try-on is over",
                "Ask whoever invited you for a new code.",
            ),
            Self::NoSuchCode => problem(
                StatusCode::NOT_FOUND,
                "no-such-code",
                "No try-on under this code",
                "Check the eight signs; a code ends after three hours, or when its try-on is closed.",
            ),
            Self::LooksOn => problem(
                StatusCode::FORBIDDEN,
                "looks-on",
                "Only looking on",
                "This code is for a second screen. Ask for a helper’s code to add something.",
            ),
            Self::NoSuchTape => problem(
                StatusCode::NOT_FOUND,
                "no-such-tape",
                "No tape shows this code",
                "Switch the tape on, wait for its six digits and type them.",
            ),
            Self::NotAnImage => problem(
                StatusCode::UNSUPPORTED_MEDIA_TYPE,
                "not-an-image",
                "Not a picture",
                "Send a JPEG, PNG or WebP picture as image/jpeg, image/png or image/webp.",
            ),
            Self::TooLarge => problem(
                StatusCode::PAYLOAD_TOO_LARGE,
                "too-large",
                "Too large",
                "A photo has at most 15 MB. Nothing was stored.",
            ),
            Self::Busy => problem(
                StatusCode::SERVICE_UNAVAILABLE,
                "busy",
                "Too busy just now",
                "Try again in a moment; what you typed is kept here.",
            ),
            Self::Broken => problem(
                StatusCode::INTERNAL_SERVER_ERROR,
                "broken",
                "This could not be worked out",
                "The fault is ours, not yours. What you typed is kept here, and the look-over still opens: a figure there may be the cause.",
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
                "Send the header Content-Type: application/json; without a body, the header Vemble-Client with any value.",
            ),
            Self::Overlong => problem(
                StatusCode::PAYLOAD_TOO_LARGE,
                "too-large",
                "Too large",
                "A document has at most 1 MB. Nothing was stored.",
            ),
            Self::BrokenOff => problem(
                StatusCode::BAD_REQUEST,
                "broken-off",
                "Broken off",
                "The body did not arrive whole; send it again.",
            ),
            Self::Cards(_) => problem(
                StatusCode::INTERNAL_SERVER_ERROR,
                "no-file",
                "The file could not be made",
                "The card on the screen is complete: print it from there.",
            ),
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
            StoreError::StaleGarment(stored) => Problem {
                stored_garment: Some(Box::new(GarmentState::behind(stored.as_ref().clone()))),
                ..problem(
                    StatusCode::CONFLICT,
                    "stale",
                    "Changed elsewhere",
                    "This garment was changed since you read it. Both states are kept: choose which one to go on with.",
                )
            },
            StoreError::StaleWearer(stored) => Problem {
                stored_wearer: Some(Box::new(WearerState::of(stored.as_ref().clone()))),
                ..problem(
                    StatusCode::CONFLICT,
                    "stale",
                    "Changed elsewhere",
                    "This wearer was changed since you read them. Both states are kept: choose which one to go on with.",
                )
            },
            StoreError::StaleWorkroom(stored) => Problem {
                stored_workroom: Some(Box::new(WorkroomState::of(stored.as_ref().clone()))),
                ..problem(
                    StatusCode::CONFLICT,
                    "stale",
                    "Changed elsewhere",
                    "The evenings and what else all garments share were changed since you read them. Both states are kept: choose which one to go on with.",
                )
            },
            StoreError::HasGarments(names) => problem(
                StatusCode::CONFLICT,
                "has-garments",
                "Still has garments",
                &format!("Remove them or give them to somebody else first: {}.", names.join(", ")),
            ),
            StoreError::IdTaken => problem(
                StatusCode::CONFLICT,
                "id-taken",
                "Id used twice",
                "Give each thing an id of its own.",
            ),
            StoreError::AlreadyThere(names) => problem(
                StatusCode::CONFLICT,
                "already-there",
                "In this account already",
                &format!(
                    "Remove them first, or keep them as they are: {}. Nothing was brought in.",
                    names.join(", ")
                ),
            ),
            StoreError::Full(what) => problem(
                StatusCode::INSUFFICIENT_STORAGE,
                "full",
                "No room left",
                &format!(
                    "There are no more {what} in one account than there are. Remove some first; nothing was stored."
                ),
            ),
            StoreError::NoDisk => Self::NoDisk.problem(),
            // Where nothing is changed nothing is in doubt.
            StoreError::Unknown(_) if crate::asked::changes() => Self::NotKnown.problem(),
            StoreError::Unreachable { .. } | StoreError::Unknown(_) => Self::Silent.problem(),
            StoreError::Refused(_) | StoreError::Unreadable(_) => problem(
                StatusCode::INTERNAL_SERVER_ERROR,
                "failed",
                "Something failed on our side",
                "Nothing was stored. The server's log says more.",
            ),
        }
    }
}

/// Its kind and nothing that somebody sent or stored: whatever prints an error prints this.
impl fmt::Debug for ApiError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.problem().kind)
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
        let request = crate::asked::id().map(|id| id.to_string());
        match self {
            Self::Store(
                error @ (StoreError::Refused(_)
                | StoreError::Unreadable(_)
                | StoreError::Unknown(_)
                | StoreError::Unreachable { .. }),
            ) => tracing::error!(request, error = error as &dyn std::error::Error, "the store failed"),
            Self::Cards(error) => {
                tracing::error!(
                    request,
                    error = error as &dyn std::error::Error,
                    "a file of cards was not made"
                );
            }
            _ => {}
        }
        let mut response = HttpResponse::build(self.status_code());
        match self {
            Self::TooOften(wait) => drop(response.insert_header(("Retry-After", wait.to_string()))),
            Self::WrongMethod(methods) => drop(response.insert_header(("Allow", methods.join(", ")))),
            _ => {}
        }
        response.content_type("application/problem+json").json(self.problem())
    }
}
