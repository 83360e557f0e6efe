//! Who is signed in. There is one example account for now, entered from the start page.

use crate::error::{ApiError, Problem};
use actix_session::{Session, SessionExt};
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest, HttpResponse, delete, get, post, web};
use serde::Serialize;
use std::future::Future;
use std::pin::Pin;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_store::Store;

const ACCOUNT: &str = "account";

/// The account that a request is for; a request without one is answered with 401.
pub struct Account(pub Uuid);

impl FromRequest for Account {
    type Error = ApiError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let account = request.get_session().get::<Uuid>(ACCOUNT).ok().flatten();
        Box::pin(async move { account.map(Account).ok_or(ApiError::SignedOut) })
    }
}

/// Who is signed in.
#[derive(Serialize, ToSchema)]
pub struct SignedIn {
    /// The example account: its data is made up and can be reset.
    example: bool,
}

/// Signs in to the example account.
#[utoipa::path(responses((status = 200, body = SignedIn)))]
#[post("/session")]
pub(crate) async fn sign_in(session: Session, store: web::Data<Store>) -> Result<HttpResponse, ApiError> {
    let account = store.example_account(&crate::example_documents()).await?;
    session.renew();
    session.insert(ACCOUNT, account).map_err(|_| ApiError::SignedOut)?;
    Ok(HttpResponse::Ok().json(SignedIn { example: true }))
}

/// Says who is signed in.
#[utoipa::path(responses((status = 200, body = SignedIn), (status = 401, body = Problem)))]
#[get("/session")]
pub(crate) async fn who(account: Account, store: web::Data<Store>) -> Result<HttpResponse, ApiError> {
    if !store.has_account(account.0).await? {
        return Err(ApiError::SignedOut);
    }
    Ok(HttpResponse::Ok().json(SignedIn { example: true }))
}

/// Signs out.
#[utoipa::path(responses((status = 204)))]
#[delete("/session")]
pub(crate) async fn sign_out(session: Session) -> HttpResponse {
    session.purge();
    HttpResponse::NoContent().finish()
}
