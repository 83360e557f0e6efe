//! Practice rounds: one to answer, and what was right; an account remembers which slips were made.

use crate::doors::Source;
use crate::error::ApiError;
use crate::queue::Queue;
use crate::request::{Body, read_body};
use crate::session::SignedIn;
use crate::wire::Problem;
use actix_web::{HttpRequest, HttpResponse, get, post, web};
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};
use vemble_core::length::Tape;
use vemble_core::practice::{Answered, Round, answered, next_slip, round};
use vemble_core::work::Slip;
use vemble_store::{AccountStore, Store, StoreError};

/// Which round.
#[derive(Clone, Copy, Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct WhichRound {
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    tape: Tape,
    /// Its number: the same number makes the same round.
    number: u32,
    /// What it is about; what needs practice most, when absent.
    slip: Option<Slip>,
}

/// An answer to a round.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GivenAnswer {
    /// What it was about.
    slip: Slip,
    /// Its number.
    number: u32,
    /// The tape that it was asked on.
    #[serde(default)]
    tape: Tape,
    /// Which option was chosen, counted from nought.
    chosen: usize,
}

/// A practice round. What needs practice most is known of whoever is signed in.
#[utoipa::path(params(WhichRound), responses((status = 200, body = Round), (status = 400, body = Problem)))]
#[get("/practice")]
pub(crate) async fn practice_round(
    who: Option<SignedIn>,
    source: Source,
    which: web::Query<WhichRound>,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let WhichRound { tape, number, slip } = which.into_inner();
    let practised = match (slip, who) {
        (None, Some(SignedIn(account))) => store.account(account.id).workroom().await?.workroom.practised,
        _ => Vec::new(),
    };
    let asked = move || round(slip.unwrap_or_else(|| next_slip(&practised, number)), number, tape);
    Ok(HttpResponse::Ok().json(queue.run(source, asked).await?))
}

/// What is right in a round, and why. Whoever is signed in is reminded of their slips.
#[utoipa::path(request_body = GivenAnswer, responses((status = 200, body = Answered), (status = 422, body = Problem)))]
#[post("/practice")]
pub(crate) async fn answer_round(
    who: Option<SignedIn>,
    request: HttpRequest,
    source: Source,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let GivenAnswer { slip, number, tape, chosen }: GivenAnswer = read_body(&request, body)?;
    let answer = queue.run(source, move || answered(slip, number, chosen, tape)).await?;
    if let Some(SignedIn(account)) = who {
        remember(&store.account(account.id), slip, answer.is_right).await?;
    }
    Ok(HttpResponse::Ok().json(answer))
}

/// Adds to what was practised, whoever else changes the workroom meanwhile.
async fn remember(store: &AccountStore<'_>, slip: Slip, is_right: bool) -> Result<(), ApiError> {
    const TRIES: usize = 5;
    for _ in 0..TRIES {
        let stored = store.workroom().await?;
        let mut workroom = stored.workroom;
        workroom.remember(slip, is_right);
        match store.put_workroom(stored.version, &workroom).await {
            Err(StoreError::StaleWorkroom(_)) => {}
            other => return Ok(other.map(|_| ())?),
        }
    }
    Ok(())
}
