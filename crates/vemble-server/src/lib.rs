//! The HTTP door: parse, ask the core, store, answer. Holds no rule of the craft and no state of its own.

mod begun;
mod cards;
mod error;
mod example;
mod garments;
mod guesses;
mod invitations;
mod live;
mod photos;
mod queue;
mod request;
mod session;
mod solving;
mod statics;
mod tapes;
mod try_ons;
mod unbroken;
mod wearers;
mod wire;

pub use example::documents as example_documents;
pub use queue::Queue;
pub use unbroken::unbroken;

use actix_session::SessionMiddleware;
use actix_session::config::CookieContentSecurity;
use actix_session::storage::CookieSessionStore;
use actix_web::body::MessageBody;
use actix_web::cookie::{Key, SameSite};
use actix_web::dev::{Server, ServiceRequest, ServiceResponse};
use actix_web::middleware::{DefaultHeaders, Next, from_fn};
use actix_web::{App, HttpResponse, HttpServer, get, web};
use error::ApiError;
use futures_util::FutureExt;
use guesses::Guesses;
use std::net::{SocketAddr, TcpListener};
use std::panic::AssertUnwindSafe;
use std::path::PathBuf;
use tracing_actix_web::TracingLogger;
use utoipa::OpenApi;
use utoipa::openapi::path::{Operation, ParameterIn};
use utoipa::openapi::{Content, PathItem, Ref, RefOr, ResponseBuilder};
use utoipa_actix_web::{AppExt, scope};
use vemble_store::{Store, StoreError};

/// The largest body that is read: a document is a few kilobytes, so 1 MB is far beyond any.
const BODY_LIMIT: usize = 1_000_000;

/// What a server needs to start.
pub struct Config {
    /// An open listener; loopback unless somebody decided otherwise.
    pub listener: TcpListener,
    /// The store, opened and migrated.
    pub store: Store,
    /// 64 bytes or more that sign the session cookie; the same for all instances.
    pub secret: Vec<u8>,
    /// The folder of the built front end; without it only the API is served.
    pub web: Option<PathBuf>,
    /// One account for everybody who reaches the server, without a password; only on loopback.
    pub household: bool,
    /// Where a digital tape measure answers; only on loopback.
    pub tape: Option<SocketAddr>,
}

#[derive(OpenApi)]
#[openapi(
    info(
        title = "Vemble",
        description = "Fit, pin, draw and chalk alterations. Errors are problem details (RFC 9457)."
    ),
    components(schemas(wire::Problem))
)]
struct Api;

/// Adds every route of `/api/v1` to an application; one list for the server and for its description.
macro_rules! api {
    ($app:expr) => {
        $app.into_utoipa_app().openapi(Api::openapi()).service(
            // What a drag asks for comes first: routes are tried in this order.
            scope::scope("/api/v1")
                .service(solving::solve)
                .service(solving::bring_up)
                .service(session::sign_up)
                .service(session::sign_in)
                .service(session::who)
                .service(session::sign_out)
                .service(session::change_password)
                .service(session::leave)
                .service(session::open_example)
                .service(example::reset)
                .service(garments::rail)
                .service(begun::kinds)
                .service(begun::cloths)
                .service(begun::words)
                .service(begun::begin_garment)
                .service(begun::look_over_garment)
                .service(begun::stand_of_garment)
                .service(garments::one_garment)
                .service(garments::put_garment)
                .service(garments::delete_garment)
                .service(garments::record)
                .service(garments::enter)
                .service(try_ons::one_try_on)
                .service(try_ons::put_try_on)
                .service(try_ons::delete_try_on)
                .service(cards::cards)
                .service(try_ons::ask)
                .service(try_ons::comparison)
                .service(try_ons::turned)
                .service(try_ons::rebased)
                .service(invitations::invite)
                .service(invitations::open_invitations)
                .service(invitations::end_invitation)
                .service(invitations::join)
                .service(invitations::guest)
                .service(invitations::put_as_guest)
                .service(live::events)
                .service(live::guest_events)
                .service(live::asked)
                .service(live::guest_asked)
                .service(tapes::tape)
                .service(tapes::pair_tape)
                .service(tapes::part_from_tape)
                .service(photos::photos)
                .service(photos::put_photo)
                .service(photos::one_photo)
                .service(photos::thumbnail)
                .service(photos::change_photo)
                .service(photos::delete_photo)
                .service(wearers::wearers)
                .service(wearers::wearer_csv)
                .service(wearers::one_wearer)
                .service(wearers::view_wearer)
                .service(wearers::put_wearer)
                .service(wearers::delete_wearer)
                .service(wearers::read_csv)
                .service(wearers::measurements)
                .service(solving::length)
                .service(health),
        )
    };
}

/// The description of the HTTP interface.
pub fn openapi() -> utoipa::openapi::OpenApi {
    let mut description = api!(App::new()).split_for_parts().1;
    for path in description.paths.paths.values_mut() {
        let PathItem { get, put, post, delete, .. } = path;
        [get, put, post, delete].into_iter().flatten().for_each(add_what_any_may_answer);
    }
    description
}

/// What every operation with such a body, such a query or such a path may answer; the operation itself says only what is its own.
fn add_what_any_may_answer(operation: &mut Operation) {
    let parameters = operation.parameters.iter().flatten();
    let is_in =
        |place: ParameterIn| parameters.clone().any(|p| matches!(p, RefOr::T(p) if p.parameter_in == place));
    let body = operation.request_body.as_ref();
    let is_json = matches!(body, Some(RefOr::T(body)) if body.content.contains_key("application/json"));
    let may_answer = [
        ("400", body.is_some() || is_in(ParameterIn::Query), "Malformed"),
        ("404", is_in(ParameterIn::Path), "Not found"),
        ("413", body.is_some(), "Too large"),
        ("415", is_json, "Not JSON"),
    ];
    let responses = &mut operation.responses.responses;
    for (status, _, words) in may_answer.into_iter().filter(|(_, may, _)| *may) {
        let problem = Content::new(Some(Ref::from_schema_name("Problem")));
        let response = ResponseBuilder::new().description(words).content("application/json", problem);
        responses.entry(status.into()).or_insert_with(|| response.into());
    }
    for (status, response) in responses {
        if let RefOr::T(response) = response
            && status.starts_with(['4', '5'])
            && let Some(problem) = response.content.shift_remove("application/json")
        {
            response.content.insert("application/problem+json".into(), problem);
        }
    }
}

/// Starts serving. The server stops by itself on SIGINT or SIGTERM after it has answered what it was asked.
///
/// # Errors
/// When the listener cannot be used or the secret is too short.
pub fn serve(config: Config) -> std::io::Result<(Server, SocketAddr)> {
    let address = config.listener.local_addr()?;
    let key = Key::try_from(&config.secret[..]).map_err(std::io::Error::other)?;
    let description = openapi().to_json().map_err(std::io::Error::other)?;
    let Config { listener, store, web: web_root, household, tape, .. } = config;
    if household && !address.ip().is_loopback() {
        return Err(std::io::Error::other(
            "a household is served on loopback only; leave out --host or --household",
        ));
    }
    if tape.is_some_and(|tape| !tape.ip().is_loopback()) {
        return Err(std::io::Error::other("a tape is reached on loopback only"));
    }
    let live = web::Data::new(live::Live::start(&store)?);
    let tapes = web::Data::new(tapes::Tapes::start(&store, tape));
    let guesses = web::Data::new(Guesses::default());
    let seen = web::Data::new(garments::Seen::default());
    let sound = web::Data::new(solving::Sound::default());
    let queue = web::Data::new(queue::Queue::start().map_err(std::io::Error::other)?);
    let server = HttpServer::new(move || {
        let sessions = SessionMiddleware::builder(CookieSessionStore::default(), key.clone())
            .cookie_name("vemble_session".into())
            .cookie_same_site(SameSite::Strict)
            .cookie_secure(false)
            .cookie_content_security(CookieContentSecurity::Private)
            .build();
        let description = description.clone();
        let describe = move || {
            let body = description.clone();
            async move { HttpResponse::Ok().content_type("application/json").body(body) }
        };
        let (app, _) = api!(App::new()).split_for_parts();
        app.app_data(web::Data::new(store.clone()))
            .app_data(web::Data::new(session::IsHousehold(household)))
            .app_data(guesses.clone())
            .app_data(seen.clone())
            .app_data(sound.clone())
            .app_data(queue.clone())
            .app_data(live.clone())
            .app_data(tapes.clone())
            .app_data(web::PayloadConfig::new(BODY_LIMIT))
            .app_data(
                web::PathConfig::default().error_handler(|_, _| ApiError::from(StoreError::NotFound).into()),
            )
            .app_data(web::QueryConfig::default().error_handler(|e, _| ApiError::query(&e).into()))
            .route("/api/openapi.json", web::get().to(describe))
            .configure(|services| statics::configure(services, web_root.as_ref()))
            .default_service(web::to(|| async {
                Err::<HttpResponse, _>(ApiError::from(StoreError::NotFound))
            }))
            .wrap(from_fn(whole))
            .wrap(sessions)
            .wrap(from_fn(from_this_site))
            .wrap(security_headers())
            .wrap(TracingLogger::default())
    })
    .shutdown_timeout(10)
    .listen(listener)?
    .run();
    Ok((server, address))
}

/// Refuses what another site sends with this site's cookie. The cookie is `SameSite=Strict` already; browsers also say where a
/// request comes from (Fetch Metadata, W3C), and programs that are no browsers say nothing.
async fn from_this_site(
    request: ServiceRequest,
    next: Next<impl MessageBody>,
) -> Result<ServiceResponse<impl MessageBody>, actix_web::Error> {
    let site = request.headers().get("sec-fetch-site").and_then(|v| v.to_str().ok());
    let elsewhere = matches!(site, Some("cross-site" | "same-site"));
    if elsewhere && !request.method().is_safe() {
        return Err(ApiError::Elsewhere.into());
    }
    next.call(request).await
}

/// Answers what breaks while it is worked out as what it is, instead of hanging up; and refuses a character that no text has before it
/// reaches anything, wherever in the address it stands.
async fn whole(
    request: ServiceRequest,
    next: Next<impl MessageBody>,
) -> Result<ServiceResponse<impl MessageBody>, actix_web::Error> {
    let address = request.uri();
    if address.path().contains("%00") {
        return Err(ApiError::from(StoreError::NotFound).into());
    }
    if address.query().is_some_and(|query| query.contains("%00")) {
        return Err(ApiError::query(&"a character of no text (NUL)").into());
    }
    AssertUnwindSafe(next.call(request)).catch_unwind().await.unwrap_or_else(|_| Err(ApiError::Broken.into()))
}

/// No inline script, nothing from outside, no frames. Styles may be inline: the component library sets them so.
fn security_headers() -> DefaultHeaders {
    DefaultHeaders::new()
        .add((
            "Content-Security-Policy",
            "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; \
             object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
        ))
        .add(("X-Content-Type-Options", "nosniff"))
        .add(("Referrer-Policy", "same-origin"))
        .add(("Cross-Origin-Opener-Policy", "same-origin"))
}

/// Whether the server and its database are well.
#[utoipa::path(responses((status = 200, description = "Server and database answer"), (status = 503, body = wire::Problem)))]
#[get("/health")]
async fn health(store: web::Data<Store>) -> Result<HttpResponse, ApiError> {
    store.is_alive().await?;
    Ok(HttpResponse::Ok().json(serde_json::json!({ "database": "answers" })))
}
