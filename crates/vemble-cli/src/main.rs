//! The `vemble` program: serve, solve a file without a server, print the formats it speaks.

use clap::builder::{PossibleValue, PossibleValuesParser, TypedValueParser};
use clap::{Parser, Subcommand, ValueEnum};
use std::io::{IsTerminal, Read, Write};
use std::net::{IpAddr, SocketAddr, TcpListener};
use std::path::{Path, PathBuf};
use std::process::ExitCode;
use tracing_subscriber::EnvFilter;
use vemble_core::change::ChangeKey;
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
    /// Read a document and print what follows from it.
    Solve(Solve),
    /// Print the description of the HTTP interface (OpenAPI).
    Openapi,
    /// Print the JSON Schema of the document.
    Schema,
}

#[derive(clap::Args)]
struct Serve {
    /// The PostgreSQL database to use.
    #[arg(long, env = "DATABASE_URL", hide_env_values = true)]
    database_url: String,
    /// The address to listen on; loopback unless you decide otherwise.
    #[arg(long, default_value = "127.0.0.1")]
    host: IpAddr,
    /// The port to listen on; 0 takes a free one.
    #[arg(long, default_value_t = 8080)]
    port: u16,
    /// The folder of the built front end.
    #[arg(long)]
    web: Option<PathBuf>,
    /// A file with at least 64 bytes that sign the session cookie; the same file for all instances.
    #[arg(long, env = "VEMBLE_SECRET_FILE")]
    secret_file: PathBuf,
    /// One account for everybody at home, without a password; only on loopback.
    #[arg(long)]
    household: bool,
    /// Where a digital tape measure answers, such as 127.0.0.1:7410; only on loopback.
    #[arg(long)]
    tape: Option<SocketAddr>,
    /// Make the example account before the first request.
    #[arg(long)]
    example: bool,
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
        Command::Serve(serve) => serve_until_stopped(&serve),
        Command::Solve(solve) => solve_file(&solve),
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

fn solve_file(solve: &Solve) -> Result<(), Failure> {
    let mut json = Vec::new();
    if solve.file == Path::new("-") {
        std::io::stdin().read_to_end(&mut json)?;
    } else {
        json = std::fs::read(&solve.file)
            .map_err(|e| Failure::Other(format!("{}: {e}", solve.file.display())))?;
    }
    let (tape, card) = (solve.tape, solve.card);
    let document = read_document(&json).map_err(|c| Failure::Document(vec![c]))?;
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

#[actix_web::main]
async fn serve_until_stopped(serve: &Serve) -> Result<(), Failure> {
    let filter =
        EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("info,tracing_actix_web=warn"));
    tracing_subscriber::fmt().json().with_env_filter(filter).with_writer(std::io::stderr).init();
    let secret = std::fs::read(&serve.secret_file)
        .map_err(|e| Failure::Other(format!("{}: {e}", serve.secret_file.display())))?;
    let listener = TcpListener::bind((serve.host, serve.port))
        .map_err(|e| Failure::Other(format!("port {}: {e}; choose another with --port", serve.port)))?;
    let store = vemble_store::Store::open(&serve.database_url).await?;
    if serve.example {
        store.example_account(&vemble_server::example_documents()).await?;
    }
    let Serve { web, household, tape, .. } = serve;
    let config = vemble_server::Config {
        listener,
        store,
        secret,
        web: web.clone(),
        household: *household,
        tape: *tape,
    };
    let (server, address) = vemble_server::serve(config)?;
    // On standard output, for whoever started it on port 0 and waits for the address.
    write_out(format!("http://{address}\n"))?;
    tracing::info!(%address, "serving");
    server.await?;
    tracing::info!("stopped");
    Ok(())
}
