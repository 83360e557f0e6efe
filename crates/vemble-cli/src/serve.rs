//! `vemble serve`: the interface and its API, until it is stopped.

use crate::settings::{Place, Set, Settings};
use crate::{Failure, write_out};
use std::net::TcpListener;
use tracing_subscriber::EnvFilter;
use vemble_server::{Config, Doors, Web};
use vemble_store::{Store, Tables};

#[derive(clap::Args)]
pub struct Serve {
    #[command(flatten)]
    place: Place,
    #[command(flatten)]
    settings: Settings,
    /// Bring the tables up to date first, where they are behind.
    #[arg(long, env = "VEMBLE_MIGRATE")]
    migrate: bool,
}

/// Where the front end is: in the folder that is named, or in the program where it was built in.
pub fn front_end(set: &Set) -> Web {
    match &set.web {
        Some(folder) => Web::Folder(folder.clone()),
        #[cfg(feature = "embedded")]
        None => Web::Embedded,
        #[cfg(not(feature = "embedded"))]
        None => Web::None,
    }
}

/// What is to be done where the tables are not those of this program; nothing where they are.
pub const fn about(tables: Tables) -> Option<&'static str> {
    match tables {
        Tables::Current => None,
        Tables::None => Some("the database has no tables yet: run `vemble migrate`"),
        Tables::Behind(_) => Some(
            "the tables are of an older Vemble: run `vemble backup FILE`, then `vemble migrate`, then serve again",
        ),
        Tables::Ahead => Some("the tables are of a later Vemble: use that one; nothing was changed"),
    }
}

pub async fn serve(serve: Serve) -> Result<(), Failure> {
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("info"));
    tracing_subscriber::fmt().json().with_env_filter(filter).with_writer(std::io::stderr).init();
    let (file, url) = serve.place.read()?;
    let set = serve.settings.over(file);
    let listener = TcpListener::bind(set.address)
        .map_err(|e| Failure::Other(format!("{}: {e}; choose another --host or --port", set.address)))?;
    let address = listener.local_addr()?;
    let doors = Doors::new(address, set.public_url.as_deref(), &set.allowed_hosts, &set.trusted_proxies);
    let doors = doors.map_err(Failure::Other)?;
    if !address.ip().is_loopback() && !doors.is_https() {
        tracing::warn!(
            "whoever is on the network of {address} can read along, passwords too: put a proxy with TLS in front \
             and name it with --public-url, or leave out --host"
        );
    }
    vemble_store::wait_for(&url, |error| tracing::warn!("waiting for the database: {error}")).await?;
    if serve.migrate {
        vemble_store::migrate(&url).await?;
    }
    if let Some(words) = about(vemble_store::tables(&url).await?) {
        return Err(Failure::Other(words.into()));
    }
    let store = Store::connect(&url)?;
    let metrics = match set.metrics_port {
        None => None,
        Some(port) => {
            let listener = TcpListener::bind(("127.0.0.1", port))
                .map_err(|e| Failure::Other(format!("metrics port {port}: {e}")))?;
            tracing::info!(address = %listener.local_addr()?, "metrics");
            Some(vemble_server::install_metrics(listener)?)
        }
    };
    let config = Config {
        web: front_end(&set),
        doors,
        household: set.household,
        example: set.example,
        sign_up: set.sign_up,
        tape: set.tape,
        ..Config::at(listener, store)?
    };
    let (server, address) = vemble_server::serve(config)?;
    // On standard output, for whoever started it on port 0 and waits for the address.
    write_out(format!("http://{address}\n"))?;
    tracing::info!(%address, "serving");
    match metrics {
        None => server.await?,
        Some(metrics) => {
            let telling = actix_web::rt::spawn(metrics);
            server.await?;
            telling.abort();
        }
    }
    tracing::info!("stopped");
    Ok(())
}
