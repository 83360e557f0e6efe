//! Who is signed in: signing up, in and out, on which devices, changing the password, leaving for good.
//!
//! A cookie that only the server can read, sent back by this site alone, holds a token; its session is a row that can be ended.

use crate::doors::{Doors, Source};
use crate::error::ApiError;
use crate::guesses::{Guesses, Who as Guesser};
use crate::request::{Body, read_body};
use crate::token::{hash_of, hash_of_code, new_token};
use crate::wire::Problem;
use actix_web::cookie::time::Duration;
use actix_web::cookie::{Cookie, SameSite};
use actix_web::dev::Payload;
use actix_web::http::header::USER_AGENT;
use actix_web::{FromRequest, HttpRequest, HttpResponse, delete, get, post, put, web};
use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use std::future::Future;
use std::pin::Pin;
use std::sync::LazyLock;
use tokio::sync::Semaphore;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_exchange::document::Complaint;
use vemble_store::{Account, NewAccount, NewSession, Store, StoreError};

/// What an account is asked for by those who reach this server.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SignUp {
    /// Anybody may make one.
    #[default]
    Open,
    /// Whoever has a code of `vemble invite`.
    ByCode,
    /// Nobody.
    Closed,
}

/// What somebody who is at the door may do.
#[derive(Clone, Copy, Debug, Serialize, ToSchema)]
pub struct Offers {
    /// The example can be opened.
    pub example: bool,
    /// Who may make an account.
    pub sign_up: SignUp,
    /// Whoever asks may use the household's account without signing in.
    pub household: bool,
}

/// The name of a cookie: one that belongs to this host alone, where TLS allows to say so (RFC 6265bis).
fn cookie_name(what: &str, doors: &Doors) -> String {
    format!("{}vemble_{what}", if doors.is_https() { "__Host-" } else { "" })
}

/// The cookie that holds a token, until the browser forgets it after 180 days; the session says when it ends.
pub(crate) fn cookie(what: &'static str, token: String, doors: &Doors) -> Cookie<'static> {
    Cookie::build(cookie_name(what, doors), token)
        .path("/")
        .http_only(true)
        .same_site(SameSite::Strict)
        .secure(doors.is_https())
        .max_age(Duration::days(180))
        .finish()
}

/// What the token in a cookie hashes to.
pub(crate) fn token_of(request: &HttpRequest, what: &str) -> Option<Vec<u8>> {
    let doors = request.app_data::<web::Data<Doors>>()?;
    request.cookie(&cookie_name(what, doors)).map(|cookie| hash_of(cookie.value()))
}

const SESSION: &str = "session";

/// The account that a request is for, and its session; a household has none. Without either it is answered with 401.
pub struct InSession(pub Account, pub Option<Uuid>);

impl FromRequest for InSession {
    type Error = ApiError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let token = token_of(request, SESSION);
        let store = request.app_data::<web::Data<Store>>().cloned();
        let household = request.app_data::<web::Data<Offers>>().is_some_and(|offers| offers.household);
        Box::pin(async move {
            let store = store.ok_or(ApiError::SignedOut)?;
            let found = match token {
                Some(token) => store.signed_in(&token).await?,
                None => None,
            };
            match found {
                Some((account, session)) => Ok(Self(account, Some(session))),
                None if household => Ok(Self(store.household_account().await?, None)),
                None => Err(ApiError::SignedOut),
            }
        })
    }
}

/// The account that a request is for.
pub struct SignedIn(pub Account);

impl FromRequest for SignedIn {
    type Error = ApiError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(request: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let whose = InSession::from_request(request, payload);
        Box::pin(async move { whose.await.map(|InSession(account, _)| Self(account)) })
    }
}

/// A browser and its system, by the words that each puts into how it names itself (RFC 9110, 10.1.5): the first that is there.
pub(crate) fn device(request: &HttpRequest) -> String {
    const BROWSERS: [(&str, &str); 6] = [
        ("Edg", "Edge"),
        ("OPR/", "Opera"),
        ("Firefox/", "Firefox"),
        ("Chrom", "Chrome"),
        ("Safari/", "Safari"),
        ("curl/", "curl"),
    ];
    const SYSTEMS: [(&str, &str); 6] = [
        ("Android", "Android"),
        ("iPhone", "an iPhone"),
        ("iPad", "an iPad"),
        ("Windows", "Windows"),
        ("Mac OS", "a Mac"),
        ("Linux", "Linux"),
    ];
    let named = request.headers().get(USER_AGENT).and_then(|v| v.to_str().ok()).unwrap_or_default();
    let first = |of: [(&'static str, &'static str); 6]| of.into_iter().find(|(sign, _)| named.contains(sign));
    match (first(BROWSERS), first(SYSTEMS)) {
        (Some((_, browser)), Some((_, system))) => format!("{browser} on {system}"),
        (Some((_, browser)), None) => browser.into(),
        (None, Some((_, system))) => format!("A program on {system}"),
        (None, None) => "A program".into(),
    }
}

/// Begins a session and answers with its cookie.
pub(crate) async fn begin(
    request: &HttpRequest,
    store: &Store,
    doors: &Doors,
    account: Account,
) -> Result<HttpResponse, ApiError> {
    // Whoever enters another account leaves the one they are in.
    end(request, store).await?;
    let token = new_token();
    let new = NewSession {
        id: Uuid::now_v7(),
        token_hash: &hash_of(&token),
        device: &device(request),
        invitation: None,
    };
    store.account(account.id).begin_session(&new).await?;
    Ok(HttpResponse::Ok().cookie(cookie(SESSION, token, doors)).json(Who::of(account)))
}

/// Ends the session that a request is in, if it is in one.
async fn end(request: &HttpRequest, store: &Store) -> Result<(), ApiError> {
    let Some(token) = token_of(request, SESSION) else { return Ok(()) };
    if let Some((account, session)) = store.signed_in(&token).await? {
        match store.account(account.id).end_session(session).await {
            Ok(()) | Err(StoreError::NotFound) => {}
            Err(error) => return Err(error.into()),
        }
    }
    Ok(())
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
pub struct Newcomer {
    /// What to call them.
    name: String,
    /// The address to sign in with.
    email: String,
    /// A password of ten letters or more.
    password: String,
    /// The code of an invitation, where one is asked for.
    #[serde(default)]
    code: Option<String>,
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

/// Hashing is slow on purpose: it is done beside the workers, so that nobody else waits for it, and few at once, since each takes 19 MB.
static HASHING: Semaphore = Semaphore::const_new(4);

async fn slowly<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> Result<T, ApiError> {
    let _turn = HASHING.acquire().await.map_err(|_| ApiError::Busy)?;
    web::block(work).await.map_err(|_| ApiError::Busy)
}

async fn hash(password: String) -> Result<String, ApiError> {
    slowly(move || password_auth::generate_hash(password)).await
}

async fn is_right(password: String, hash: Option<String>) -> Result<bool, ApiError> {
    slowly(move || {
        let known = hash.is_some();
        let hash = hash.unwrap_or_else(|| NOBODYS.clone());
        password_auth::verify_password(password, &hash).is_ok() && known
    })
    .await
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

/// How hard a password is to guess, from 0 to 4; below this it is among the first million (zxcvbn: Wheeler, USENIX Security 2016).
const HARD: u8 = 2;

/// Length matters more than signs, and what everybody takes is no password (NIST SP 800-63B, 5.1.1.2); the upper bound keeps hashing cheap
/// to refuse. `about` is what its owner is called.
pub fn strong(path: &str, password: &str, about: &[&str]) -> Result<(), Complaint> {
    match password.chars().count() {
        10..=200 => {}
        0..10 => {
            return Err(wrong(
                path,
                "a password that is easily guessed",
                "ten letters or more, the longer the better",
            ));
        }
        _ => return Err(wrong(path, "a password over 200 letters", "at most 200 letters")),
    }
    // Its time grows with the square of the length: what is long enough is hard enough.
    let first: String = password.chars().take(60).collect();
    let is_about = about.iter().any(|own| own.eq_ignore_ascii_case(password.trim()));
    if is_about || u8::from(zxcvbn::zxcvbn(&first, about).score()) < HARD {
        let expected = "a sentence of your own: what many take, your name and your address are tried first";
        return Err(wrong(path, "a password that is easily guessed", expected));
    }
    Ok(())
}

/// The password of an account, changed from the outside: `vemble passwd`. Every session ends.
///
/// # Errors
/// What is wrong with the password, or that nobody has this address.
pub async fn set_password(store: &Store, email: &str, password: String) -> Result<(), String> {
    let email = email.trim().to_lowercase();
    strong("password", &password, &[&email]).map_err(|c| format!("{}; expected {}", c.found, c.expected))?;
    let told = |error: StoreError| error.to_string();
    let found = store.credentials(&email).await.map_err(told)?;
    let account = found.ok_or_else(|| format!("nobody signs in as {email}"))?;
    let hash = password_auth::generate_hash(password);
    store.account(account.id).change_password(&hash, None).await.map_err(told)
}

/// What somebody who is at the door may do: open the example, make an account.
#[utoipa::path(responses((status = 200, body = Offers)))]
#[get("/doors")]
pub(crate) async fn way_in(offers: web::Data<Offers>) -> HttpResponse {
    HttpResponse::Ok().json(**offers)
}

/// Makes an account. Whoever has the address already is not changed, and nobody is told: signing in shows which it was.
#[utoipa::path(
    request_body = Newcomer,
    responses((status = 202), (status = 403, body = Problem), (status = 404, body = Problem), (status = 422, body = Problem), (status = 429, body = Problem))
)]
#[post("/accounts")]
pub(crate) async fn sign_up(
    request: HttpRequest,
    source: Source,
    body: Body,
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
    offers: web::Data<Offers>,
) -> Result<HttpResponse, ApiError> {
    let Newcomer { name, email, password, code } = read_body(&request, body)?;
    let name = name.trim().to_owned();
    let named = match name.chars().count() {
        1..=120 => Ok(()),
        _ => Err(wrong("name", "no name", "what to call you, up to 120 letters")),
    };
    let known = email.trim().to_lowercase();
    let (email, strength) = (address(&email), strong("password", &password, &[&name, &known]));
    let complaints: Vec<Complaint> =
        [named.err(), email.clone().err(), strength.err()].into_iter().flatten().collect();
    let (true, Ok(email)) = (complaints.is_empty(), email) else {
        return Err(ApiError::Invalid(complaints));
    };
    guesses.one_more(Guesser::At(source))?;
    let code = match offers.sign_up {
        SignUp::Open => None,
        SignUp::ByCode => Some(hash_of_code(&code.unwrap_or_default())),
        SignUp::Closed => return Err(ApiError::NobodyNew),
    };
    let new = NewAccount { id: Uuid::now_v7(), name, email, password_hash: hash(password).await? };
    match store.sign_up(&new, code.as_deref()).await {
        Ok(()) => Ok(HttpResponse::Accepted().finish()),
        Err(StoreError::NotFound) => Err(ApiError::NoSuchInvitation),
        Err(error) => Err(error.into()),
    }
}

/// Signs in.
#[utoipa::path(
    request_body = SignIn,
    responses((status = 200, body = Who), (status = 401, body = Problem), (status = 429, body = Problem))
)]
#[post("/session")]
pub(crate) async fn sign_in(
    request: HttpRequest,
    source: Source,
    body: Body,
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
    doors: web::Data<Doors>,
) -> Result<HttpResponse, ApiError> {
    let SignIn { email, password } = read_body(&request, body)?;
    let email = email.trim().to_lowercase();
    guesses.one_more(Guesser::At(source))?;
    let found = store.credentials(&email).await?;
    let (id, hash) = found.map_or((None, None), |c| (Some(c.id), c.password_hash));
    let right = is_right(password, hash).await?;
    let Some(id) = id.filter(|_| right) else { return Err(ApiError::WrongPassword) };
    let account = store.account_of(id).await?;
    begin(&request, &store, &doors, account).await
}

/// Says who is signed in.
#[utoipa::path(responses((status = 200, body = Who), (status = 401, body = Problem)))]
#[get("/session")]
pub(crate) async fn who(SignedIn(account): SignedIn) -> HttpResponse {
    HttpResponse::Ok().json(Who::of(account))
}

/// Signs out: the session ends, wherever its cookie may have been copied to.
#[utoipa::path(responses((status = 204)))]
#[delete("/session")]
pub(crate) async fn sign_out(
    request: HttpRequest,
    store: web::Data<Store>,
    doors: web::Data<Doors>,
) -> Result<HttpResponse, ApiError> {
    end(&request, &store).await?;
    let mut forgotten = cookie(SESSION, String::new(), &doors);
    forgotten.make_removal();
    Ok(HttpResponse::NoContent().cookie(forgotten).finish())
}

/// A device on which somebody is signed in.
#[derive(Debug, Serialize, ToSchema)]
pub struct SessionLine {
    /// Its id, to end it.
    id: Uuid,
    /// The browser and the system.
    device: String,
    /// Since when.
    #[schema(value_type = String, format = DateTime)]
    created: Timestamp,
    /// When it was last used, to five minutes.
    #[schema(value_type = String, format = DateTime)]
    seen: Timestamp,
    /// The one that asks.
    this: bool,
}

/// Where the account is signed in, the last used first.
#[utoipa::path(responses((status = 200, body = Vec<SessionLine>), (status = 401, body = Problem)))]
#[get("/sessions")]
pub(crate) async fn sessions(
    InSession(account, own): InSession,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    let all = store.account(account.id).sessions().await?;
    let line = |session: vemble_store::Session| SessionLine {
        this: own == Some(session.id),
        id: session.id,
        device: session.device,
        created: session.created.into(),
        seen: session.seen.into(),
    };
    Ok(HttpResponse::Ok().json(all.into_iter().map(line).collect::<Vec<_>>()))
}

/// Ends a session on another device, or this one.
#[utoipa::path(responses((status = 204), (status = 401, body = Problem), (status = 404, body = Problem)))]
#[delete("/sessions/{session}")]
pub(crate) async fn end_session(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    store: web::Data<Store>,
) -> Result<HttpResponse, ApiError> {
    store.account(account.id).end_session(*id).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Changes the password; every other session ends.
#[utoipa::path(
    request_body = NewPassword,
    responses((status = 204), (status = 401, body = Problem), (status = 422, body = Problem), (status = 429, body = Problem))
)]
#[put("/account/password")]
pub(crate) async fn change_password(
    InSession(account, own): InSession,
    request: HttpRequest,
    body: Body,
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
) -> Result<HttpResponse, ApiError> {
    let NewPassword { old, new } = read_body(&request, body)?;
    guesses.one_more(Guesser::In(account.id))?;
    let about = [account.name.as_str(), account.email.as_deref().unwrap_or_default()];
    strong("new", &new, &about).map_err(|c| ApiError::Invalid(vec![c]))?;
    if !is_right(old, store.password_hash(account.id).await?).await? {
        return Err(ApiError::Invalid(vec![wrong("old", "another password", "the present one")]));
    }
    store.account(account.id).change_password(&hash(new).await?, own).await?;
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
    store: web::Data<Store>,
    guesses: web::Data<Guesses>,
) -> Result<HttpResponse, ApiError> {
    let Leaving { password } = read_body(&request, body)?;
    guesses.one_more(Guesser::In(account.id))?;
    if !is_right(password, store.password_hash(account.id).await?).await? {
        return Err(ApiError::Invalid(vec![wrong("password", "another password", "the present one")]));
    }
    store.delete_account(account.id).await?;
    Ok(HttpResponse::NoContent().finish())
}
