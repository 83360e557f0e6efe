//! The pieces of a garment: to look at, and as files at true size. Stores nothing.

use crate::error::ApiError;
use crate::queue::Queue;
use crate::request::{Body, invalid, none_of, read_body};
use crate::session::SignedIn;
use crate::wire::Problem;
use actix_web::http::header::{ContentDisposition, DispositionParam, DispositionType};
use actix_web::{HttpRequest, HttpResponse, get, post, web};
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;
use vemble_core::fault::{Fault, Wrong};
use vemble_core::length::{Length, Measure, Tape, Unit};
use vemble_core::pattern::{ClothLies, OfCloth, Pieces, ReadPieces, WhichPieces, pieces};
use vemble_core::work::{Pattern, Wishes, wrong_wishes};
use vemble_exchange::drawn::{DrawnFormat, LARGEST, Said, read_drawn};
use vemble_exchange::pdf::Paper;
use vemble_exchange::pieces::{PieceFormat, PiecesError, write_pieces};
use vemble_store::Store;

/// On which tape, and on which cloth.
#[derive(Clone, Copy, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct OnCloth {
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    tape: Tape,
    /// How wide the cloth is: `"140 cm"`.
    #[param(value_type = Option<String>)]
    width: Option<Measure>,
    /// How pieces may lie on it; every one the same way up when absent.
    #[param(inline)]
    lies: Option<ClothLies>,
}

/// What is entered about the paper now.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OnPaper {
    /// As it is entered now.
    pattern: Pattern,
}

/// The pieces of a garment with what is chalked in its newest try-on and changed on paper, and what of it does not match. Stores nothing.
#[utoipa::path(
    params(OnCloth),
    request_body = OnPaper,
    responses((status = 200, body = Pieces), (status = 401, body = Problem), (status = 404, body = Problem), (status = 422, body = Problem))
)]
#[post("/garments/{garment}/pieces")]
pub(crate) async fn look_at_pieces(
    SignedIn(account): SignedIn,
    request: HttpRequest,
    id: web::Path<Uuid>,
    on: web::Query<OnCloth>,
    body: Body,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let OnPaper { pattern } = read_body(&request, body)?;
    let OnCloth { tape, width, lies } = *on;
    let no_width = width.filter(|found| found.length <= Length::ZERO);
    let no_width = no_width.map(|found| Fault { path: "width".into(), wrong: Wrong::NotPositive { found } });
    none_of(no_width.as_slice(), tape)?;
    let wished = Wishes { pattern, ..Wishes::default() };
    let below = |fault: Fault| Fault { path: format!("wishes.{}", fault.path), ..fault };
    none_of(&wrong_wishes(&wished).into_iter().map(below).collect::<Vec<_>>(), tape)?;
    let mut document = store.account(account.id).document(*id).await?.document;
    document.wishes.pattern = wished.pattern;
    let cloth = OfCloth { width: width.map(|w| w.length), lies };
    let found = queue.run(account.id, move || pieces(&document, cloth, tape)).await?;
    Ok(HttpResponse::Ok().json(found.map_err(|faults| invalid(&faults, tape))?))
}

/// Which pieces, and how.
#[derive(Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct PieceFile {
    /// What they are written as.
    #[param(inline)]
    format: PieceFormat,
    /// Which of them are drawn; all when absent.
    #[serde(default)]
    #[param(inline)]
    which: WhichPieces,
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    tape: Tape,
    /// The paper of a PDF; A5 when absent.
    #[serde(default)]
    #[param(inline)]
    paper: Paper,
}

/// The pieces of a garment at true size, as a file.
#[utoipa::path(
    params(PieceFile),
    responses(
        (status = 200, content(
            (String = "text/plain"),
            (Vec<u8> = "application/pdf"),
            (String = "image/svg+xml"),
            (Vec<u8> = "image/vnd.dxf"),
        )),
        (status = 401, body = Problem),
        (status = 404, body = Problem),
        (status = 422, body = Problem),
    )
)]
#[get("/garments/{garment}/pieces")]
pub(crate) async fn piece_file(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    wanted: web::Query<PieceFile>,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let document = store.account(account.id).document(*id).await?.document;
    let PieceFile { format, which, tape, paper } = wanted.into_inner();
    let written = queue.run(account.id, move || write_pieces(&document, format, which, paper, tape)).await?;
    let bytes = written.map_err(|error| match error {
        PiecesError::Document(faults) => invalid(&faults, tape),
        PiecesError::Strips(error) => error.into(),
        PiecesError::Pages(error) => error.into(),
    })?;
    let attached = ContentDisposition {
        disposition: DispositionType::Attachment,
        parameters: vec![DispositionParam::Filename(format!("pieces.{}", format.ending()))],
    };
    Ok(HttpResponse::Ok().content_type(format.media_type()).insert_header(attached).body(bytes))
}

/// How a file is read.
#[derive(Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct PieceRead {
    /// What it is.
    #[param(inline)]
    read_as: DrawnFormat,
    /// What one of its units is, where it does not say. Nothing is guessed.
    unit: Option<Unit>,
    /// How much is allowance, per edge, where it has lines to cut along only.
    #[param(value_type = Option<String>)]
    allowance: Option<Measure>,
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    tape: Tape,
}

/// Reads pieces from a file that was drawn elsewhere. Where it does not say how large it is, `unit` is complained of; where it has no lines to
/// sew along, `allowance`. Stores nothing.
#[utoipa::path(
    params(PieceRead),
    request_body(content = Vec<u8>, content_type = "image/*"),
    responses((status = 200, body = ReadPieces), (status = 401, body = Problem), (status = 404, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem))
)]
#[post("/garments/{garment}/pieces/read")]
pub(crate) async fn read_piece_file(
    SignedIn(account): SignedIn,
    id: web::Path<Uuid>,
    on: web::Query<PieceRead>,
    payload: web::Payload,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let file = payload.to_bytes_limited(LARGEST).await;
    let file = file.map_err(|_| ApiError::Overlong)?.map_err(ApiError::from)?;
    // What it belongs to is there, and is theirs.
    store.account(account.id).document(*id).await?;
    let PieceRead { read_as, unit, allowance, tape } = on.into_inner();
    let said = Said { unit, allowance };
    let read = queue.run(account.id, move || read_drawn(&file, read_as, said, tape)).await?;
    Ok(HttpResponse::Ok().json(read.map_err(|complaint| ApiError::Invalid(vec![complaint]))?))
}
