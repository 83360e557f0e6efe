//! Who is signed in: signing up, in and out, changing the password, leaving for good.
//!
//! The session is a cookie that only the server can read, sent back by this site alone. It names the account and the
//! epoch it began in; a changed password begins a new epoch, which ends every other session.

use crate::error::ApiError;
use crate::guesses::Guesses;
use crate::request::{Body, read_body};
use crate::wire::Problem;
use actix_session::{Session, SessionExt};
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest, HttpResponse, delete, get, post, put, web};
use serde::{Deserialize, Serialize};
use std::future::Future;
use std::pin::Pin;
use std::sync::LazyLock;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_exchange::document::Complaint;
use vemble_store::{Account, NewAccount, Store};

const ACCOUNT: &str = "account";
const EPOCH: &str = "epoch";

/// Whoever asks may use the household's account without signing in.
#[derive(Clone, Copy)]
pub struct IsHousehold(pub bool);

/// The account that a request is for; a request without one is answered with 401.
pub struct SignedIn(pub Account);

impl FromRequest for SignedIn {
    type Error = ApiError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let session = request.get_session();
        let named = (session.get::<Uuid>(ACCOUNT).ok().flatten(), session.get::<i32>(EPOCH).ok().flatten());
        let store = request.app_data::<web::Data<Store>>().cloned();
        let household = request.app_data::<web::Data<IsHousehold>>().is_some_and(|h| h.0);
        Box::pin(async move {
            let store = store.ok_or(ApiError::SignedOut)?;
            let found = match named {
                (Some(id), Some(epoch)) => store.account_in_session(id, epoch).await?,
                _ => None,
            };
            match found {
                Some(account) => Ok(Self(account)),
                None if household => Ok(Self(store.household_account().await?)),
                None => Err(ApiError::SignedOut),
            }
        })
    }
}

/// Who is signed in.
#[derive(Serialize, ToSchema)]
pub struct Who {
    /// What they are called.
    name: String,
    /// The address they sign in with; none for the example and a household.
    email: Option<String>,
    /// The example account: its data is made up and can be put back.
    example: bool,
    /// A household's account: there is nothing to sign in to.
    household: bool,
}

impl Who {
    fn of(account: Account) -> Self {
        Self {
            name: account.name,
            email: account.email,
            example: account.is_example,
            household: account.is_household,
        }
    }
}

fn begin(session: &Session, account: &Account) -> Result<(), ApiError> {
    session.renew();
    let kept =
        session.insert(ACCOUNT, account.id).and_then(|()| session.insert(EPOCH, account.session_epoch));
    kept.map_err(|_| ApiError::SignedOut)
}

/// An address and a password.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignIn {
    /// The address.
    email: String,
    /// The password.
    password: String,
}

/// Somebody new.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignUp {
    /// What to call them.
    name: String,
    /// The address to sign in with.
    email: String,
    /// A password of ten letters or more.
    password: String,
}

/// A password and its successor.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewPassword {
    /// The present one.
    old: String,
    /// The next one.
    new: String,
}

/// Says the password once more, so that nothing is removed by a stray hand.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Leaving {
    /// The present password.
    password: String,
}

/// A hash of nothing anybody uses: comparing with it takes as long as comparing with a real one, so an unknown
/// address cannot be told from a wrong password by the clock.
static NOBODYS: LazyLock<String> = LazyLock::new(|| password_auth::generate_hash(Uuid::now_v7().as_bytes()));

/// Hashing is slow on purpose: it is done beside the workers, so that nobody else waits for it.
async fn hash(password: String) -> Result<String, ApiError> {
    web::block(move || password_auth::generate_hash(password)).await.map_err(|_| ApiError::Busy)
}

async fn is_right(password: String, hash: Option<String>) -> Result<bool, ApiError> {
    let compare = move || {
        let known = hash.is_some();
        let hash = hash.unwrap_or_else(|| NOBODYS.clone());
        password_auth::verify_password(password, &hash).is_ok() && known
    };
    web::block(compare).await.map_err(|_| ApiError::Busy)
}

fn wrong(path: &str, found: &str, expected: &str) -> Complaint {
    Complaint { path: path.into(), found: found.into(), expected: expected.into() }
}

fn address(email: &str) -> Result<String, Complaint> {
    let email = email.trim().to_lowercase();
    let fits = email.len() <= 254
        && email
            .split_once('@')
            .is_some_and(|(local, at)| !local.is_empty() && at.len() > 2 && !at.contains('@'))
        && !email.contains(char::is_whitespace);
    if fits { Ok(email) } else { Err(wrong("email", "no address", "an address like odile@example.org")) }
}

/// Length matters more than signs (NIST SP 800-63B, 5.1.1.2); the upper bound keeps hashing cheap to refuse.
fn strong(path: &str, password: &str) -> Result<(), Complaint> {
    match password.chars().count() {
        10..=200 => Ok(()),
        0..10 => Err(wrong(
            path,
            "a password that is easily guessed",
            "ten letters or more, the longer the better",
        )),
        _ => Err(wrong(path, "a password over 200 letters", "at most 200 letters")),
    }
}

/// Makes an account and signs in to it.
#[utoipa::path(
    request_body = SignUp,
    responses((status = 201, body = Who), (status = 409, body = Problem), (status = 422, body = Problem), (status = 429, body = Problem))
)]
#[post("/accounts")]
pub(crate) async fn sign_up(
    request: HttpRequest,
    body: Body,
    session: Session,
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
) -> Result<HttpResponse, ApiError> {
    let SignUp { name, email, password } = read_body(&request, body)?;
    let name = name.trim().to_owned();
    let named = match name.chars().count() {
        1..=120 => Ok(()),
        _ => Err(wrong("name", "no name", "what to call you, up to 120 letters")),
    };
    let (email, strength) = (address(&email), strong("password", &password));
    let complaints: Vec<Complaint> =
        [named.err(), email.clone().err(), strength.err()].into_iter().flatten().collect();
    let (true, Ok(email)) = (complaints.is_empty(), email) else {
        return Err(ApiError::Invalid(complaints));
    };
    guesses.at(&request)?;
    let new = NewAccount { id: Uuid::now_v7(), name, email, password_hash: hash(password).await? };
    let account = store.sign_up(&new).await?;
    begin(&session, &account)?;
    Ok(HttpResponse::Created().json(Who::of(account)))
}

/// Signs in.
#[utoipa::path(
    request_body = SignIn,
    responses((status = 200, body = Who), (status = 401, body = Problem), (status = 429, body = Problem))
)]
#[post("/session")]
pub(crate) async fn sign_in(
    request: HttpRequest,
    body: Body,
    session: Session,
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
) -> Result<HttpResponse, ApiError> {
    let SignIn { email, password } = read_body(&request, body)?;
    let email = email.trim().to_lowercase();
    guesses.at(&request)?;
    guesses.on(&email)?;
    let found = store.credentials(&email).await?;
    let (id, hash) = found.map_or((None, None), |c| (Some(c.id), c.password_hash));
    let right = is_right(password, hash).await?;
    let Some(id) = id.filter(|_| right) else { return Err(ApiError::WrongPassword) };
    let account = store.account_of(id).await?;
    begin(&session, &account)?;
    Ok(HttpResponse::Ok().json(Who::of(account)))
}

/// Says who is signed in.
#[utoipa::path(responses((status = 200, body = Who), (status = 401, body = Problem)))]
#[get("/session")]
pub(crate) async fn who(SignedIn(account): SignedIn) -> HttpResponse {
    HttpResponse::Ok().json(Who::of(account))
}

/// Signs out.
#[utoipa::path(responses((status = 204)))]
#[delete("/session")]
pub(crate) async fn sign_out(session: Session) -> HttpResponse {
    session.purge();
    HttpResponse::NoContent().finish()
}

/// Changes the password; every other session ends.
#[utoipa::path(
    request_body = NewPassword,
    responses((status = 204), (status = 401, body = Problem), (status = 403, body = Problem), (status = 422, body = Problem), (status = 429, body = Problem))
)]
#[put("/account/password")]
pub(crate) async fn change_password(
    SignedIn(mut account): SignedIn,
    request: HttpRequest,
    body: Body,
    session: Session,
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
) -> Result<HttpResponse, ApiError> {
    let NewPassword { old, new } = read_body(&request, body)?;
    guesses.on(&account.id.to_string())?;
    strong("new", &new).map_err(|c| ApiError::Invalid(vec![c]))?;
    if !is_right(old, store.password_hash(account.id).await?).await? {
        return Err(ApiError::Invalid(vec![wrong("old", "another password", "the present one")]));
    }
    account.session_epoch = store.change_password(account.id, &hash(new).await?).await?;
    begin(&session, &account)?;
    Ok(HttpResponse::NoContent().finish())
}

/// Removes the account with everything in it.
#[utoipa::path(
    request_body = Leaving,
    responses((status = 204), (status = 401, body = Problem), (status = 422, body = Problem), (status = 429, body = Problem))
)]
#[delete("/account")]
pub(crate) async fn leave(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    body: Body,
    session: Session,
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
) -> Result<HttpResponse, ApiError> {
    let Leaving { password } = read_body(&request, body)?;
    guesses.on(&account.id.to_string())?;
    if !is_right(password, store.password_hash(account.id).await?).await? {
        return Err(ApiError::Invalid(vec![wrong("password", "another password", "the present one")]));
    }
    store.delete_account(account.id).await?;
    session.purge();
    Ok(HttpResponse::NoContent().finish())
}

/// Signs in to the example account.
#[utoipa::path(responses((status = 200, body = Who)))]
#[post("/example/session")]
pub(crate) async fn open_example(
    session: Session,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let account = store.example_account(&crate::example_documents()).await?;
    begin(&session, &account)?;
    Ok(HttpResponse::Ok().json(Who::of(account)))
}
