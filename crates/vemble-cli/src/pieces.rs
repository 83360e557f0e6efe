//! `vemble pieces`: the pieces of a document's garment as files, and pieces out of a file into a document.

use crate::{Failure, PaperName, document_of, print, tape_names, write_out};
use clap::ValueEnum;
use clap::builder::{PossibleValuesParser, TypedValueParser};
use std::io::IsTerminal;
use std::path::{Path, PathBuf};
use vemble_core::length::{Measure, Tape, Unit};
use vemble_core::pattern::{OfCloth, ReadPiece, WhichPieces};
use vemble_core::work::DrawnPiece;
use vemble_exchange::document::Complaint;
use vemble_exchange::drawn::{DrawnFormat, Said, read_drawn};
use vemble_exchange::pieces::{PieceFormat, PiecesError, write_pieces};

#[derive(clap::Args)]
pub struct Pieces {
    /// The document, or - for standard input.
    file: PathBuf,
    /// What to write.
    #[arg(long, value_enum, default_value_t = PieceFormatName::Text)]
    format: PieceFormatName,
    /// Only the pieces that are not as they were.
    #[arg(long)]
    changed: bool,
    /// Read pieces from an SVG or DXF file, and write the document with them instead.
    #[arg(long)]
    read: Option<PathBuf>,
    /// What one unit of that file is, where it does not say.
    #[arg(long, value_parser = units())]
    unit: Option<Unit>,
    /// How much is allowance, per edge, where that file has lines to cut along only.
    #[arg(long)]
    allowance: Option<Measure>,
    /// The tape that figures are shown on.
    #[arg(long, default_value = Tape::default().word(), value_parser = tape_names())]
    tape: Tape,
    /// The paper of a PDF.
    #[arg(long, value_enum, default_value_t = PaperName::A4)]
    paper: PaperName,
}

#[derive(Clone, Copy, ValueEnum)]
enum PieceFormatName {
    /// The cutting list.
    Text,
    /// Over as many pages as it takes.
    Pdf,
    /// In millimetres.
    Svg,
    /// In millimetres, for programs that cut.
    Dxf,
    /// What the Paper stage shows, as JSON.
    Json,
}

fn units() -> impl TypedValueParser<Value = Unit> {
    let unit = |word: String| match &*word {
        "cm" => Unit::Cm,
        "in" => Unit::In,
        _ => Unit::Mm,
    };
    PossibleValuesParser::new(["mm", "cm", "in"]).map(unit)
}

/// The pieces of a file that was drawn elsewhere: all of it, or what is not clear.
fn drawn_of(file: &Path, wanted: &Pieces) -> Result<Vec<DrawnPiece>, Failure> {
    let is_dxf = file.extension().is_some_and(|ending| ending.eq_ignore_ascii_case("dxf"));
    let format = if is_dxf { DrawnFormat::Dxf } else { DrawnFormat::Svg };
    let bytes = std::fs::read(file).map_err(|e| Failure::Other(format!("{}: {e}", file.display())))?;
    let said = Said { unit: wanted.unit, allowance: wanted.allowance };
    let read = read_drawn(&bytes, format, said, wanted.tape)
        .map_err(|complaint| Failure::Document(vec![complaint]))?;
    let unclear = |piece: &ReadPiece| {
        let unnamed = piece.edges.iter().filter(|edge| edge.name.is_none()).map(|edge| &*edge.says);
        let unnamed: Vec<&str> = unnamed.collect();
        Failure::Other(format!("“{}”: name it, and its edges: {}", piece.says, unnamed.join(", ")))
    };
    read.pieces.iter().map(|piece| piece.drawn().ok_or_else(|| unclear(piece))).collect()
}

/// Writes them, or reads them.
pub fn pieces_of_file(wanted: &Pieces) -> Result<(), Failure> {
    let mut document = document_of(&wanted.file)?;
    let tape = wanted.tape;
    if let Some(file) = &wanted.read {
        document.wishes.pattern.drawn = drawn_of(file, wanted)?;
        return print(&document);
    }
    let wrong = |faults: &[_]| Failure::Document(Complaint::all(faults, tape));
    let format = match wanted.format {
        PieceFormatName::Json => {
            let pieces =
                vemble_core::pattern::pieces(&document, OfCloth::default(), tape).map_err(|f| wrong(&f))?;
            return print(&pieces);
        }
        PieceFormatName::Text => PieceFormat::Text,
        PieceFormatName::Pdf => PieceFormat::Pdf,
        PieceFormatName::Svg => PieceFormat::Svg,
        PieceFormatName::Dxf => PieceFormat::Dxf,
    };
    if format == PieceFormat::Pdf && std::io::stdout().is_terminal() {
        return Err(Failure::Other("a PDF is for a file: add > pieces.pdf".into()));
    }
    let which = if wanted.changed { WhichPieces::Changed } else { WhichPieces::All };
    let written = write_pieces(&document, format, which, wanted.paper.into(), tape);
    write_out(written.map_err(|error| match error {
        PiecesError::Document(faults) => wrong(&faults),
        PiecesError::Strips(_) | PiecesError::Pages(_) => error.into(),
    })?)
}
