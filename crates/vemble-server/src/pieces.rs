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
use vemble_core::length::{Length, Measure, Tape};
use vemble_core::pattern::{Pieces, WhichPieces, pieces};
use vemble_core::work::{Pattern, Wishes, wrong_wishes};
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
    let OnCloth { tape, width } = *on;
    let no_width = width.filter(|found| found.length <= Length::ZERO);
    let no_width = no_width.map(|found| Fault { path: "width".into(), wrong: Wrong::NotPositive { found } });
    none_of(no_width.as_slice(), tape)?;
    let wished = Wishes { pattern, ..Wishes::default() };
    let below = |fault: Fault| Fault { path: format!("wishes.{}", fault.path), ..fault };
    none_of(&wrong_wishes(&wished).into_iter().map(below).collect::<Vec<_>>(), tape)?;
    let mut document = store.account(account.id).document(*id).await?.document;
    document.wishes.pattern = wished.pattern;
    let found = queue.run(account.id, move || pieces(&document, width.map(|w| w.length), tape)).await?;
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
