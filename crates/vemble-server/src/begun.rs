//! A garment before anything is stored of it: kinds, cloths, words, what it usually is, what to find out, and how it looks.

use crate::doors::Source;
use crate::error::ApiError;
use crate::queue::Queue;
use crate::request::{Body, OnTape, none_of, read_body};
use crate::wire::Problem;
use actix_web::{HttpRequest, HttpResponse, get, post, web};
use serde::{Deserialize, Serialize};
use std::sync::LazyLock;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::body::Wearer;
use vemble_core::document::{State, wrong_state, wrong_wearer};
use vemble_core::fault::Fault;
use vemble_core::figure::{Hanging, Stand, hanging, stand};
use vemble_core::garment::{Beginning, Cloth, Garment, Kind, begin, cloth_named, named_cloths};
use vemble_core::length::Tape;
use vemble_core::look_over::{LookOver, look_over};
use vemble_core::signs::{Signs, every_sign, signs};
use vemble_core::told::{ManyWords, ReadUp, read_up, words as all_words};

/// A kind of garment that can be begun.
#[derive(Serialize, ToSchema)]
pub struct KindLine {
    /// Which.
    kind: Kind,
    /// Its name.
    name: &'static str,
    /// What belongs here, in one line.
    says: &'static str,
    /// A cloth it is often made of.
    cloth: &'static str,
    /// How it looks, on a figure by proportion.
    hanging: Option<Hanging>,
}

/// Every kind of garment, drawn.
#[utoipa::path(responses((status = 200, body = Vec<KindLine>)))]
#[get("/kinds")]
pub(crate) async fn kinds(source: Source, queue: web::Data<Queue>) -> Result<HttpResponse, ApiError> {
    let all = queue.run(source, || &*KINDS).await?;
    Ok(HttpResponse::Ok().insert_header(("Cache-Control", "public, max-age=3600")).json(all))
}

/// They are the same for everybody: drawn once.
static KINDS: LazyLock<Vec<KindLine>> = LazyLock::new(|| {
    let line = |kind: Kind| {
        let template = kind.template();
        let cloth = cloth_named(template.cloth)?;
        let wearer = Wearer::default();
        let beginning = Beginning { name: String::new(), kind, toile: false, wearer: wearer.clone(), cloth };
        let hanging = hanging(&begin(beginning), &wearer);
        Some(KindLine { kind, name: template.name, says: template.says, cloth: template.cloth, hanging })
    };
    Kind::ALL.iter().copied().filter_map(line).collect()
});

/// Cloths by name, with what is usual for each.
#[utoipa::path(responses((status = 200, body = Vec<Cloth>)))]
#[get("/cloths")]
pub(crate) async fn cloths() -> HttpResponse {
    HttpResponse::Ok()
        .insert_header(("Cache-Control", "public, max-age=3600"))
        .json(named_cloths().collect::<Vec<_>>())
}

/// The words of every choice that a screen offers.
#[utoipa::path(responses((status = 200, body = ManyWords)))]
#[get("/words")]
pub(crate) async fn words() -> HttpResponse {
    HttpResponse::Ok().insert_header(("Cache-Control", "public, max-age=3600")).json(all_words())
}

/// The words of the trade, and what keeps hands safe.
#[utoipa::path(responses((status = 200, body = ReadUp)))]
#[get("/terms")]
pub(crate) async fn terms() -> HttpResponse {
    HttpResponse::Ok().insert_header(("Cache-Control", "public, max-age=3600")).json(read_up())
}

/// A garment of a kind as it usually is on a wearer, every figure assumed. Stores nothing.
#[utoipa::path(request_body = Beginning, responses((status = 200, body = Garment), (status = 422, body = Problem)))]
#[post("/garments/begin")]
pub(crate) async fn begin_garment(
    request: HttpRequest,
    source: Source,
    body: Body,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let beginning: Beginning = read_body(&request, body)?;
    let begun = queue.run(source, move || {
        let wearer = beginning.wearer.clone();
        let worn = WornGarment { garment: begin(beginning), wearer };
        checked(&worn, Tape::default()).map(|()| worn.garment)
    });
    Ok(HttpResponse::Ok().json(begun.await??))
}

/// A garment in one state on its wearer.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WornGarment {
    /// The garment's facts.
    garment: Garment,
    /// Who wears it.
    wearer: Wearer,
}

/// Everything to find out about a garment. Stores nothing.
#[utoipa::path(params(OnTape), request_body = WornGarment, responses((status = 200, body = LookOver), (status = 422, body = Problem)))]
#[post("/look-over")]
pub(crate) async fn look_over_garment(
    request: HttpRequest,
    source: Source,
    on: web::Query<OnTape>,
    body: Body,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (worn, tape): (WornGarment, _) = (read_body(&request, body)?, on.tape);
    let answer = queue
        .run(source, move || checked(&worn, tape).map(|()| look_over(&worn.garment, &worn.wearer, tape)));
    Ok(HttpResponse::Ok().json(answer.await??))
}

/// A garment as it is, drawn on its wearer. Stores nothing.
#[utoipa::path(params(OnTape), request_body = WornGarment, responses((status = 200, body = Stand), (status = 422, body = Problem)))]
#[post("/stand")]
pub(crate) async fn stand_of_garment(
    request: HttpRequest,
    source: Source,
    on: web::Query<OnTape>,
    body: Body,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (worn, tape): (WornGarment, _) = (read_body(&request, body)?, on.tape);
    let answer =
        queue.run(source, move || checked(&worn, tape).map(|()| stand(&worn.garment, &worn.wearer, tape)));
    Ok(HttpResponse::Ok().json(answer.await??))
}

/// A wearer, and a garment on them where one is at hand.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignsOf {
    /// Who wears it.
    wearer: Wearer,
    /// What is worn; garments as they usually are, when absent.
    #[serde(default)]
    garment: Option<Garment>,
}

/// What the cloth says: the signs of a garment, or all of them, drawn, with what they may come from and where they lead. Stores nothing.
#[utoipa::path(params(OnTape), request_body = SignsOf, responses((status = 200, body = Signs), (status = 422, body = Problem)))]
#[post("/signs")]
pub(crate) async fn find_signs(
    request: HttpRequest,
    source: Source,
    on: web::Query<OnTape>,
    body: Body,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (SignsOf { wearer, garment }, tape): (SignsOf, _) = (read_body(&request, body)?, on.tape);
    let answer = queue.run(source, move || match garment {
        Some(garment) => {
            let worn = WornGarment { garment, wearer };
            checked(&worn, tape).map(|()| signs(&worn.garment, &worn.wearer, tape))
        }
        None => checked_wearer(&wearer, tape).map(|()| every_sign(&wearer, tape)),
    });
    Ok(HttpResponse::Ok().json(answer.await??))
}

fn checked_wearer(wearer: &Wearer, tape: Tape) -> Result<(), ApiError> {
    none_of(&faults_of(wearer), tape)
}

fn faults_of(wearer: &Wearer) -> Vec<Fault> {
    let below = |f: Fault| Fault { path: format!("wearer.{}", f.path), ..f };
    wrong_wearer(wearer).into_iter().map(below).collect()
}

/// A garment or wearer that cannot be is named by its paths in what was sent.
fn checked(worn: &WornGarment, tape: Tape) -> Result<(), ApiError> {
    let mut faults = faults_of(&worn.wearer);
    faults.extend(wrong_state(&State::first(Uuid::nil(), worn.garment.clone())));
    none_of(&faults, tape)
}
