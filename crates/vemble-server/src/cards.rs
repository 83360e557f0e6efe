//! Chalk cards as files: PDF to print, text, and the marks as CSV.

use crate::error::ApiError;
use crate::queue::Queue;
use crate::session::SignedIn;
use crate::wire::Problem;
use actix_web::http::header::{ContentDisposition, DispositionParam, DispositionType};
use actix_web::{HttpResponse, get, web};
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;
use vemble_core::change::ChangeKey;
use vemble_core::document::Document;
use vemble_core::length::Tape;
use vemble_core::solve::{Solved, solve};
use vemble_exchange::document::Complaint;
use vemble_exchange::marks_csv::marks_csv;
use vemble_exchange::pdf::{CardsError, Paper, cards_pdf, strips_pdf};
use vemble_exchange::strips::{strips_dxf, strips_svg};
use vemble_exchange::text::cards_text;
use vemble_store::{Store, StoreError};

/// What a card is written as.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CardFormat {
    /// To print, with the drawing.
    Pdf,
    /// Plain text.
    Text,
    /// The marks alone.
    Csv,
    /// The lines at true size, over as many pages as it takes.
    TrueSizePdf,
    /// The lines at true size, in millimetres.
    TrueSizeSvg,
    /// The lines at true size, in millimetres, for programs that cut.
    TrueSizeDxf,
}

/// Which cards, and how.
#[derive(Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct CardFile {
    /// What they are written as.
    #[param(inline)]
    format: CardFormat,
    /// The key of one card; without it all of the try-on.
    #[param(value_type = Option<String>)]
    card: Option<ChangeKey>,
    /// The user's tape; centimetres when absent.
    #[serde(default)]
    tape: Tape,
    /// The paper of a PDF; A5 when absent.
    #[serde(default)]
    #[param(inline)]
    paper: Paper,
}

/// The chalk cards of a try-on as a file.
#[utoipa::path(
    params(CardFile),
    responses(
        (status = 200, content(
            (Vec<u8> = "application/pdf"),
            (String = "text/plain"),
            (String = "text/csv"),
            (String = "image/svg+xml"),
            (Vec<u8> = "image/vnd.dxf"),
        )),
        (status = 401, body = Problem),
        (status = 404, body = Problem),
    )
)]
#[get("/garments/{garment}/try-ons/{try_on}/cards")]
pub(crate) async fn cards(
    SignedIn(account): SignedIn,
    path: web::Path<(Uuid, Uuid)>,
    wanted: web::Query<CardFile>,
    store: web::Data<Store>,
    queue: web::Data<Queue>,
) -> Result<HttpResponse, ApiError> {
    let (garment, id) = path.into_inner();
    let document = store.account(account.id).document(garment).await?.document;
    let try_on = document.try_ons.into_iter().find(|t| t.id == Some(id)).ok_or(StoreError::NotFound)?;
    let document = Document { try_ons: vec![try_on], ..document };
    let wanted = wanted.into_inner();
    let file = queue.run(account.id, move || written(&document, &wanted)).await??;
    let attached = ContentDisposition {
        disposition: DispositionType::Attachment,
        parameters: vec![DispositionParam::Filename(file.name)],
    };
    Ok(HttpResponse::Ok().content_type(file.content_type).insert_header(attached).body(file.bytes))
}

struct File {
    content_type: &'static str,
    name: String,
    bytes: Vec<u8>,
}

fn written(document: &Document, wanted: &CardFile) -> Result<File, ApiError> {
    let solved: Solved = solve(document, wanted.tape)
        .map_err(|faults| ApiError::Invalid(Complaint::all(&faults, wanted.tape)))?;
    let key = wanted.card;
    let is_there = |key| solved.try_ons.iter().flat_map(|t| &t.cards).any(|card| card.key == key);
    if key.is_some_and(|key| !is_there(key)) {
        return Err(StoreError::NotFound.into());
    }
    let (content_type, ending, bytes) = match wanted.format {
        CardFormat::Pdf => ("application/pdf", "pdf", cards_pdf(&solved, key, wanted.paper)?),
        CardFormat::Text => ("text/plain; charset=utf-8", "txt", cards_text(&solved, key).into_bytes()),
        CardFormat::Csv => {
            let csv = marks_csv(&solved, key).map_err(|e| CardsError::Write(e.to_string()))?;
            ("text/csv; charset=utf-8", "csv", csv.into_bytes())
        }
        CardFormat::TrueSizePdf => ("application/pdf", "pdf", strips_pdf(&solved, key, wanted.paper)?),
        CardFormat::TrueSizeSvg => ("image/svg+xml", "svg", strips_svg(&solved, key)?.into_bytes()),
        CardFormat::TrueSizeDxf => ("image/vnd.dxf", "dxf", strips_dxf(&solved, key)?),
    };
    let what = match wanted.format {
        CardFormat::Pdf | CardFormat::Text | CardFormat::Csv => "chalk-card",
        CardFormat::TrueSizePdf | CardFormat::TrueSizeSvg | CardFormat::TrueSizeDxf => "true-size",
    };
    let name = match key {
        Some(key) => format!("{what}-{}.{ending}", key.to_string().replace(['.', '_'], "-")),
        None => format!("{what}s.{ending}"),
    };
    Ok(File { content_type, name, bytes })
}
