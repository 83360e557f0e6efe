//! The pieces of a garment as a file: their cutting list, or drawn at true size.

use crate::drawn::pieces_dxf;
use crate::pdf::{CardsError, Paper, tiled};
use crate::strips::{StripsError, as_svg, laid_out};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vemble_core::document::Document;
use vemble_core::fault::Fault;
use vemble_core::length::Tape;
use vemble_core::pattern::{OfCloth, WhichPieces, piece_sheets, pieces};

/// What pieces are written as.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PieceFormat {
    /// The cutting list, as plain text.
    Text,
    /// Over as many pages as it takes.
    Pdf,
    /// In millimetres.
    Svg,
    /// In millimetres, for programs that cut.
    Dxf,
}

impl PieceFormat {
    /// Its media type.
    pub const fn media_type(self) -> &'static str {
        match self {
            Self::Text => "text/plain; charset=utf-8",
            Self::Pdf => "application/pdf",
            Self::Svg => "image/svg+xml",
            Self::Dxf => "image/vnd.dxf",
        }
    }

    /// How names of such files end.
    pub const fn ending(self) -> &'static str {
        match self {
            Self::Text => "txt",
            Self::Pdf => "pdf",
            Self::Svg => "svg",
            Self::Dxf => "dxf",
        }
    }
}

/// Why there is no file.
#[derive(Debug, thiserror::Error)]
pub enum PiecesError {
    /// Something is wrong with the document.
    #[error("the document is wrong")]
    Document(Vec<Fault>),
    /// There is nothing to draw, or it cannot be drawn.
    #[error(transparent)]
    Strips(#[from] StripsError),
    /// It cannot be put on pages.
    #[error(transparent)]
    Pages(#[from] CardsError),
}

impl From<Vec<Fault>> for PiecesError {
    fn from(faults: Vec<Fault>) -> Self {
        Self::Document(faults)
    }
}

/// Writes pieces: their cutting list names all of them; what is drawn is all, or those that changed. `paper` is that of a PDF.
///
/// # Errors
/// Where the document is wrong, or nothing is to be drawn.
pub fn write_pieces(
    document: &Document,
    format: PieceFormat,
    which: WhichPieces,
    paper: Paper,
    tape: Tape,
) -> Result<Vec<u8>, PiecesError> {
    if format == PieceFormat::Text {
        return Ok(pieces(document, OfCloth::default(), tape)?.cutting_list().into_bytes());
    }
    let sheets = piece_sheets(document, which, tape)?;
    Ok(match format {
        PieceFormat::Pdf => tiled(&laid_out(sheets)?, paper)?,
        PieceFormat::Svg | PieceFormat::Text => as_svg(&laid_out(sheets)?).into_bytes(),
        PieceFormat::Dxf => pieces_dxf(&sheets)?,
    })
}
