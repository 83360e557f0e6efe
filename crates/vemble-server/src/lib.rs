//! The HTTP door: parse, ask the core, store, answer. Holds no rule of the craft and no state of its own.

mod answer;
mod archives;
mod asked;
mod begun;
mod cards;
mod doors;
mod error;
mod example;
mod garments;
mod guesses;
mod invitations;
mod live;
mod measured;
mod photos;
mod pieces;
mod plans;
mod practice;
mod queue;
mod request;
mod session;
mod sizing;
mod solving;
mod statics;
mod tapes;
mod token;
mod try_ons;
mod unbroken;
mod wearers;
mod wire;

pub use archives::{bring_in, take_out};
pub use doors::Doors;
pub use example::{documents as example_documents, workroom as example_workroom};
pub use measured::install as install_metrics;
pub use queue::Queue;
pub use session::{SignUp, set_password};
pub use statics::Web;
pub use token::{hash_of_code, new_code};
pub use unbroken::unbroken;

use actix_web::dev::Server;
use actix_web::middleware::{DefaultHeaders, from_fn};
use actix_web::{App, HttpResponse, HttpServer, get, rt, web};
use error::ApiError;
use guesses::Guesses;
use session::Offers;
use std::net::{SocketAddr, TcpListener};
use std::sync::LazyLock;
use std::time::Duration;
use utoipa::OpenApi;
use utoipa::openapi::path::{Operation, ParameterBuilder, ParameterIn};
use utoipa::openapi::security::{ApiKey, ApiKeyValue, SecurityRequirement, SecurityScheme};
use utoipa::openapi::{Content, ObjectBuilder, PathItem, Ref, RefOr, Required, ResponseBuilder, Type};
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
    /// Where the front end is.
    pub web: Web,
    /// Which names it answers to, and who passes requests on.
    pub doors: Doors,
    /// One account for everybody who reaches the server, without a password; only on loopback.
    pub household: bool,
    /// Visitors may open an example of their own.
    pub example: bool,
    /// Who may make an account.
    pub sign_up: SignUp,
    /// Where a digital tape measure answers; only on loopback.
    pub tape: Option<SocketAddr>,
}

impl Config {
    /// With the doors of loopback, accounts for anybody, and nothing else.
    ///
    /// # Errors
    /// When the listener cannot be used.
    pub fn at(listener: TcpListener, store: Store) -> std::io::Result<Self> {
        let doors = Doors::new(listener.local_addr()?, None, &[], &[]).map_err(std::io::Error::other)?;
        let (web, household, example, sign_up, tape) = (Web::None, false, false, SignUp::Open, None);
        Ok(Self { listener, store, web, doors, household, example, sign_up, tape })
    }
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

/// Adds every route of `/api/v1` to a scope; one list for the server and for its description.
macro_rules! routes {
    ($scope:expr) => {
        $scope
            // What a drag asks for comes first: routes are tried in this order.
            .service(solving::solve)
            .service(solving::bring_up)
            .service(solving::find_methods)
            .service(session::way_in)
            .service(session::sign_up)
            .service(session::sign_in)
            .service(session::who)
            .service(session::sign_out)
            .service(session::sessions)
            .service(session::end_session)
            .service(session::change_password)
            .service(session::leave)
            .service(example::open)
            .service(archives::account_archive)
            .service(archives::garment_archive)
            .service(archives::read_archive)
            .service(example::reset)
            .service(garments::rail)
            .service(begun::kinds)
            .service(begun::cloths)
            .service(begun::words)
            .service(begun::terms)
            .service(begun::begin_garment)
            .service(begun::look_over_garment)
            .service(begun::stand_of_garment)
            .service(begun::find_signs)
            .service(practice::practice_round)
            .service(practice::answer_round)
            .service(garments::one_garment)
            .service(garments::like_another)
            .service(sizing::read_a_chart)
            .service(sizing::find_sizes)
            .service(pieces::look_at_pieces)
            .service(pieces::piece_file)
            .service(pieces::read_piece_file)
            .service(garments::put_garment)
            .service(garments::delete_garment)
            .service(garments::record)
            .service(garments::enter)
            .service(plans::the_workroom)
            .service(plans::put_workroom)
            .service(plans::ahead_of_all)
            .service(plans::what_if)
            .service(plans::right_now)
            .service(plans::put_wishes)
            .service(plans::log)
            .service(plans::corrected)
            .service(plans::history_of)
            .service(plans::before)
            .service(plans::calendar_file)
            .service(plans::open_calendar)
            .service(plans::close_calendar)
            .service(plans::calendar_of_code)
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
            .service(health)
    };
}

/// The description of the HTTP interface.
pub fn openapi() -> utoipa::openapi::OpenApi {
    let described = App::new().into_utoipa_app().openapi(Api::openapi());
    let mut description = described.service(routes!(scope::scope("/api/v1"))).split_for_parts().1;
    for (path, item) in &mut description.paths.paths {
        let PathItem { get, put, post, delete, .. } = item;
        [get].into_iter().flatten().for_each(|operation| add_what_any_may_answer(path, operation, false));
        let changing = [put, post, delete].into_iter().flatten();
        changing.for_each(|operation| add_what_any_may_answer(path, operation, true));
    }
    let cookie = |name: &str| SecurityScheme::ApiKey(ApiKey::Cookie(ApiKeyValue::new(name)));
    let components = description.components.get_or_insert_default();
    components.add_security_scheme("session", cookie("vemble_session"));
    components.add_security_scheme("guest", cookie("vemble_guest"));
    for (status, words) in ANY {
        let problem = Content::new(Some(Ref::from_schema_name("Problem")));
        let any = ResponseBuilder::new().description(words).content("application/problem+json", problem);
        components.responses.insert(format!("Any{status}"), any.into());
    }
    description
}

/// What any operation may answer with that is no success, in one place: operations refer to it.
const ANY: [(&str, &str); 9] = [
    ("400", "Malformed"),
    ("403", "Not from a page of this site"),
    ("404", "Not found"),
    ("405", "Not a method of this path"),
    ("413", "Too large"),
    ("415", "Not JSON, or without the header that says it is no form"),
    ("421", "Not a name of this server"),
    ("422", "It has a character of no text, or cannot be"),
    ("503", "Too busy, or the database does not answer"),
];

/// What every operation with such a body, such a query or such a path may answer; the operation itself says only what is its own.
fn add_what_any_may_answer(path: &str, operation: &mut Operation, changes: bool) {
    let parameters = operation.parameters.iter().flatten();
    let is_in =
        |place: ParameterIn| parameters.clone().any(|p| matches!(p, RefOr::T(p) if p.parameter_in == place));
    let body = operation.request_body.as_ref();
    let is_json = matches!(body, Some(RefOr::T(body)) if body.content.contains_key("application/json"));
    let has_body = body.is_some();
    let may_answer = [
        ("400", has_body || is_in(ParameterIn::Query)),
        ("403", changes),
        ("404", is_in(ParameterIn::Path)),
        ("405", true),
        ("413", has_body),
        ("415", is_json || changes),
        ("422", is_json),
        ("421", true),
        ("503", true),
    ];
    let answers = operation.responses.responses.keys().cloned().collect::<Vec<_>>();
    let responses = &mut operation.responses.responses;
    for (status, _) in may_answer.into_iter().filter(|(_, may)| *may) {
        let any = || RefOr::Ref(Ref::from_response_name(format!("Any{status}")));
        responses.entry(status.into()).or_insert_with(any);
    }
    for (status, response) in responses {
        if let RefOr::T(response) = response
            && status.starts_with(['4', '5'])
            && let Some(problem) = response.content.shift_remove("application/json")
        {
            response.content.insert("application/problem+json".into(), problem);
        }
    }
    // Who is signed out, or not a guest any more, is told so where somebody has to be in.
    let wants = |status: &str| answers.iter().any(|answer| answer == status);
    let is_way_in = path.ends_with("/session") && changes;
    let scheme = match (wants("401") && !is_way_in, wants("410") && path.contains("/guest")) {
        (true, _) => Some("session"),
        (_, true) => Some("guest"),
        _ => None,
    };
    operation.security = scheme.map(|scheme| vec![SecurityRequirement::new(scheme, Vec::<String>::new())]);
    if changes && !has_body {
        let says = "Any value, where no Content-Type is sent: a form of another site cannot send it.";
        let header = ParameterBuilder::new()
            .name("Vemble-Client")
            .parameter_in(ParameterIn::Header)
            .required(Required::False)
            .description(Some(says))
            .schema(Some(ObjectBuilder::new().schema_type(Type::String).pattern(Some("^[a-z]+$"))));
        operation.parameters.get_or_insert_default().push(header.build().into());
    }
}

/// The description as it is served. It takes long to gather, so it is gathered once, and no worker does.
static DESCRIPTION: LazyLock<utoipa::openapi::OpenApi> = LazyLock::new(openapi);

/// Connections of one worker at once: each may be sending a body.
const CONNECTIONS: usize = 512;
/// How often what has ended is looked for.
const SWEEP: Duration = Duration::from_secs(600);

/// Starts serving. The server stops by itself on SIGINT or SIGTERM after it has answered what it was asked.
///
/// # Errors
/// When the listener cannot be used.
pub fn serve(config: Config) -> std::io::Result<(Server, SocketAddr)> {
    let address = config.listener.local_addr()?;
    let methods = web::Data::new(answer::Methods::of(&DESCRIPTION));
    let description = DESCRIPTION.to_json().map_err(std::io::Error::other)?;
    let Config { listener, store, web: front_end, doors, household, example, sign_up, tape } = config;
    if household && !address.ip().is_loopback() {
        return Err(std::io::Error::other(
            "a household is served on loopback only; leave out --host or --household",
        ));
    }
    if tape.is_some_and(|tape| !tape.ip().is_loopback()) {
        return Err(std::io::Error::other("a tape is reached on loopback only"));
    }
    let live = web::Data::new(live::Live::start(&store)?);
    let mut closing = live.closing();
    let tapes = web::Data::new(tapes::Tapes::start(&store, tape));
    let guesses = web::Data::new(Guesses::default());
    let seen = web::Data::new(garments::Seen::default());
    let sound = web::Data::new(solving::Sound::default());
    let turns = web::Data::new(photos::Turns::default());
    let queue = web::Data::new(queue::Queue::start().map_err(std::io::Error::other)?);
    let offers = web::Data::new(Offers { example, sign_up, household });
    let doors = web::Data::new(doors);
    let pulse = web::Data::new(answer::Pulse::start(&store));
    sweep(&store);
    measured::watch(&store, &queue);
    let server = HttpServer::new(move || {
        let description = description.clone();
        let describe = move || {
            let body = description.clone();
            async move { HttpResponse::Ok().content_type("application/json").body(body) }
        };
        App::new()
            .service(routes!(web::scope("/api/v1")))
            .app_data(web::Data::new(store.clone()))
            .app_data(methods.clone())
            .app_data(pulse.clone())
            .app_data(offers.clone())
            .app_data(doors.clone())
            .app_data(guesses.clone())
            .app_data(seen.clone())
            .app_data(sound.clone())
            .app_data(queue.clone())
            .app_data(turns.clone())
            .app_data(live.clone())
            .app_data(tapes.clone())
            .app_data(web::PayloadConfig::new(BODY_LIMIT))
            .app_data(
                web::PathConfig::default().error_handler(|_, _| ApiError::from(StoreError::NotFound).into()),
            )
            .app_data(web::QueryConfig::default().error_handler(|e, _| ApiError::query(&e).into()))
            .route("/api/openapi.json", web::get().to(describe))
            .configure(|services| statics::configure(services, &front_end))
            .default_service(web::to(answer::nowhere))
            .wrap(from_fn(answer::answer))
            .wrap(security_headers())
    })
    .client_request_timeout(Duration::from_secs(10))
    .max_connections(CONNECTIONS)
    .shutdown_timeout(10)
    // Signals are heard from the first moment on, by whoever ends the streams too.
    .disable_signals()
    .listen(listener)?
    .run();
    let handle = server.handle();
    rt::spawn(async move {
        let _ = closing.wait_for(|closing| *closing).await;
        handle.stop(true).await;
    });
    Ok((server, address))
}

/// Forgets examples that have ended, now and from time to time.
fn sweep(store: &Store) {
    let store = store.clone();
    rt::spawn(async move {
        loop {
            match store.forget_examples().await {
                Ok(0) => {}
                Ok(count) => tracing::info!(count, "examples that had ended were forgotten"),
                Err(error) => {
                    tracing::warn!(error = &error as &dyn std::error::Error, "examples were not forgotten");
                }
            }
            tokio::time::sleep(SWEEP).await;
        }
    });
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
