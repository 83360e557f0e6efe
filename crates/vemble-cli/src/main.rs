//! The `vemble` program: serve and what belongs to it, solve a file without a server, print the formats it speaks.

mod doctor;
mod keep;
mod pieces;
mod serve;
mod settings;

use clap::builder::{PossibleValue, PossibleValuesParser, TypedValueParser};
use clap::{Parser, Subcommand, ValueEnum};
use doctor::Doctor;
use serve::Serve;
use settings::Place;
use std::io::{IsTerminal, Read, Write};
use std::path::{Path, PathBuf};
use std::process::ExitCode;
use vemble_core::change::ChangeKey;
use vemble_core::document::Document;
use vemble_core::length::Tape;
use vemble_exchange::document::{Complaint, read_document};
use vemble_exchange::pdf::Paper;

/// A solve makes hundreds of short texts: this allocator halves its time.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

#[derive(Parser)]
#[command(name = "vemble", version, about = "Fit, pin, draw and chalk alterations.")]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Serve the interface and its API.
    Serve(Serve),
    /// Bring the tables of the database up to date.
    Migrate(Place),
    /// Say what is wrong, and how to mend it.
    Doctor(Doctor),
    /// Make a code that somebody may sign up with, once and within a week.
    Invite(Place),
    /// Give an account another password, read from standard input; every session of it ends.
    Passwd(Passwd),
    /// Write everything to a file.
    Backup(keep::Backup),
    /// Fill an empty database from a backup, whole or not at all.
    Restore(keep::Restore),
    /// Take an account, or one garment of it, out as a ZIP.
    Export(keep::Export),
    /// Bring a ZIP that was taken out into an account, whole or not at all.
    Import(keep::Import),
    /// Read a document and print what follows from it.
    Solve(Solve),
    /// Read a document and write the pieces of its garment: a cutting list, or drawn at true size.
    Pieces(pieces::Pieces),
    /// Print the description of the HTTP interface (OpenAPI).
    Openapi,
    /// Print the JSON Schema of the document.
    Schema,
}

#[derive(clap::Args)]
struct Passwd {
    #[command(flatten)]
    place: Place,
    /// The address that the account signs in with.
    email: String,
}

#[derive(clap::Args)]
struct Solve {
    /// The document, or - for standard input.
    file: PathBuf,
    /// What to print.
    #[arg(long, value_enum, default_value_t = Format::Json)]
    format: Format,
    /// The tape that figures are shown on.
    #[arg(long, default_value = Tape::default().word(), value_parser = tape_names())]
    tape: Tape,
    /// Only the card with this key, such as seam.outseam or dart.back_waist.
    #[arg(long)]
    card: Option<ChangeKey>,
    /// The paper of a PDF.
    #[arg(long, value_enum, default_value_t = PaperName::A5)]
    paper: PaperName,
}

#[derive(Clone, Copy, ValueEnum)]
enum Format {
    /// Everything derived, as JSON.
    Json,
    /// The chalk cards, as text.
    Text,
    /// The marks, as CSV.
    Csv,
    /// The chalk cards, as PDF.
    Pdf,
}

#[derive(Clone, Copy, ValueEnum)]
enum PaperName {
    A5,
    A4,
    Letter,
}

impl From<PaperName> for Paper {
    fn from(name: PaperName) -> Self {
        match name {
            PaperName::A5 => Self::A5,
            PaperName::A4 => Self::A4,
            PaperName::Letter => Self::Letter,
        }
    }
}

/// The names that documents and the HTTP interface have for tapes.
fn tape_names() -> impl TypedValueParser<Value = Tape> {
    let named = |tape: &Tape| PossibleValue::new(tape.word()).alias(tape.word().replace('_', "-"));
    PossibleValuesParser::new(Tape::ALL.iter().map(named)).try_map(|name| name.parse::<Tape>())
}

/// What went wrong, and the exit code that says what kind it was.
enum Failure {
    /// The document is wrong: exit 2.
    Document(Vec<Complaint>),
    /// Anything else: exit 1.
    Other(String),
}

impl<E: std::error::Error> From<E> for Failure {
    fn from(error: E) -> Self {
        Self::Other(error.to_string())
    }
}

fn main() -> ExitCode {
    let done = match Arguments::parse().command {
        Command::Serve(serve) => wait(serve::serve(serve)),
        Command::Migrate(place) => wait(migrate(&place)),
        Command::Doctor(doctor) => wait(doctor::look(doctor)),
        Command::Invite(place) => wait(invite(&place)),
        Command::Passwd(command) => wait(passwd(&command)),
        Command::Backup(command) => wait(keep::backup(command)),
        Command::Restore(command) => wait(keep::restore(command)),
        Command::Export(command) => wait(keep::export(command)),
        Command::Import(command) => wait(keep::import(command)),
        Command::Solve(solve) => solve_file(&solve),
        Command::Pieces(pieces) => pieces::pieces_of_file(&pieces),
        Command::Openapi => print(&vemble_server::openapi()),
        Command::Schema => print(&vemble_exchange::document::schema()),
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(Failure::Document(complaints)) => {
            for complaint in complaints {
                eprintln!("{}: found {}; expected {}", complaint.path, complaint.found, complaint.expected);
            }
            ExitCode::from(2)
        }
        Err(Failure::Other(message)) => {
            eprintln!("vemble: {message}");
            ExitCode::FAILURE
        }
    }
}

fn print(value: &impl serde::Serialize) -> Result<(), Failure> {
    write_out(format!("{}\n", serde_json::to_string_pretty(value)?))
}

fn write_out(bytes: impl AsRef<[u8]>) -> Result<(), Failure> {
    match std::io::stdout().write_all(bytes.as_ref()) {
        // Whoever reads has read enough.
        Err(error) if error.kind() == std::io::ErrorKind::BrokenPipe => Ok(()),
        done => Ok(done?),
    }
}

/// The document of a file, or of standard input.
fn document_of(file: &Path) -> Result<Document, Failure> {
    let mut json = Vec::new();
    if file == Path::new("-") {
        std::io::stdin().read_to_end(&mut json)?;
    } else {
        json = std::fs::read(file).map_err(|e| Failure::Other(format!("{}: {e}", file.display())))?;
    }
    read_document(&json).map_err(|complaint| Failure::Document(vec![complaint]))
}

fn solve_file(solve: &Solve) -> Result<(), Failure> {
    let (tape, card) = (solve.tape, solve.card);
    let document = document_of(&solve.file)?;
    let solved = vemble_core::solve::solve(&document, tape)
        .map_err(|f| Failure::Document(Complaint::all(&f, tape)))?;
    let keys: Vec<ChangeKey> = solved.try_ons.iter().flat_map(|t| &t.cards).map(|card| card.key).collect();
    if let Some(wanted) = card.filter(|wanted| !keys.contains(wanted)) {
        let keys: Vec<String> = keys.iter().map(ToString::to_string).collect();
        return Err(Failure::Other(format!("no card {wanted}; there are: {}", keys.join(", "))));
    }
    match solve.format {
        Format::Json => print(&solved),
        Format::Text => write_out(vemble_exchange::text::cards_text(&solved, card)),
        Format::Csv => write_out(vemble_exchange::marks_csv::marks_csv(&solved, card)?),
        Format::Pdf if std::io::stdout().is_terminal() => {
            Err(Failure::Other("a PDF is for a file: add > card.pdf".into()))
        }
        Format::Pdf => write_out(vemble_exchange::pdf::cards_pdf(&solved, card, solve.paper.into())?),
    }
}

/// Runs what waits for others.
fn wait<F: Future<Output = Result<(), Failure>>>(work: F) -> Result<(), Failure> {
    actix_web::rt::System::new().block_on(work)
}

async fn migrate(place: &Place) -> Result<(), Failure> {
    let (_, url) = place.read()?;
    match vemble_store::migrate(&url).await? {
        0 => write_out("The tables are up to date.\n"),
        1 => write_out("One step was made; the tables are up to date.\n"),
        steps => write_out(format!("{steps} steps were made; the tables are up to date.\n")),
    }
}

async fn invite(place: &Place) -> Result<(), Failure> {
    let (_, url) = place.read()?;
    let code = vemble_server::new_code();
    keep::open(&url).await?.invite_to_sign_up(&vemble_server::hash_of_code(&code)).await?;
    write_out(format!("{code}\n"))
}

async fn passwd(passwd: &Passwd) -> Result<(), Failure> {
    let (_, url) = passwd.place.read()?;
    let store = keep::open(&url).await?;
    let typed = if std::io::stdin().is_terminal() {
        rpassword::prompt_password(format!("The next password of {}: ", passwd.email))?
    } else {
        std::io::read_to_string(std::io::stdin().take(1_000))?
    };
    let password = typed.trim_end_matches(['\r', '\n']).to_owned();
    vemble_server::set_password(&store, &passwd.email, password).await.map_err(Failure::Other)?;
    write_out("Changed. Every device has been signed out.\n")
}
