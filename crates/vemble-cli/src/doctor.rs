//! `vemble doctor`: what is wrong, and how to mend it.

use crate::serve::{about, front_end};
use crate::settings::{Place, Settings};
use crate::{Failure, write_out};
use std::net::TcpListener;
use vemble_server::{Doors, SignUp, Web};
use vemble_store::{Store, StoreError};

#[derive(clap::Args)]
pub struct Doctor {
    #[command(flatten)]
    place: Place,
    #[command(flatten)]
    settings: Settings,
}

/// What was looked at, and what is wrong with it.
type Looked = (&'static str, Result<String, String>);

/// Looks at everything, and says of each whether it is well; fails where anything is not.
pub async fn look(doctor: Doctor) -> Result<(), Failure> {
    let (file, url) = doctor.place.read()?;
    let set = doctor.settings.over(file);
    let mut looked: Vec<Looked> = vec![("settings", Ok("read".into()))];
    let doors = Doors::new(set.address, set.public_url.as_deref(), &set.allowed_hosts, &set.trusted_proxies);
    looked.push((
        "way in",
        match doors {
            Err(why) => Err(why),
            Ok(doors) if !set.address.ip().is_loopback() && !doors.is_https() => Err(format!(
                "{} is beyond loopback without TLS: whoever is on that network can read along, passwords too; put a \
                 proxy in front and name it with public_url",
                set.address
            )),
            Ok(_) if set.household && !set.address.ip().is_loopback() => {
                Err("a household is served on loopback only: leave out host or household".into())
            }
            Ok(_) => Ok(match &set.public_url {
                Some(url) => format!("{url}, by way of {}", set.address),
                None => set.address.to_string(),
            }),
        },
    ));
    let accounts = match set.sign_up {
        SignUp::Open => "anybody who gets in may make one",
        SignUp::ByCode => "by a code of `vemble invite`",
        SignUp::Closed => "nobody new",
    };
    looked.push(("accounts", Ok(accounts.into())));
    looked.push((
        "port",
        match TcpListener::bind(set.address) {
            Ok(_) => Ok("free".into()),
            Err(error) if error.kind() == std::io::ErrorKind::AddrInUse => {
                Ok("taken: by Vemble, if it runs; otherwise choose another port".into())
            }
            Err(error) => Err(format!("{}: {error}; choose another host or port", set.address)),
        },
    ));
    looked.push((
        "front end",
        match front_end(&set) {
            Web::Folder(folder) if folder.join("index.html").is_file() => Ok(folder.display().to_string()),
            Web::Folder(folder) => {
                Err(format!("{} has no index.html: build it (npm run build)", folder.display()))
            }
            Web::None => Err("there is none, only the API: name its folder with web".into()),
            #[cfg(feature = "embedded")]
            Web::Embedded => Ok("in the program".into()),
        },
    ));
    looked.push(("room for uploads", tempfile_is_there()));
    looked.extend(of_database(&url).await);
    let mut text = String::new();
    for (what, found) in &looked {
        match found {
            Ok(words) => text.push_str(&format!("  well   {what}: {words}\n")),
            Err(words) => text.push_str(&format!("  WRONG  {what}: {words}\n")),
        }
    }
    write_out(text)?;
    match looked.iter().filter(|(_, found)| found.is_err()).count() {
        0 => Ok(()),
        1 => Err(Failure::Other("one thing is to be mended".into())),
        count => Err(Failure::Other(format!("{count} things are to be mended"))),
    }
}

fn tempfile_is_there() -> Result<String, String> {
    let folder = std::env::temp_dir();
    let made =
        tempfile::tempfile_in(&folder).and_then(|mut file| std::io::Write::write_all(&mut file, &[0; 4096]));
    let wrong = |e| format!("{}: {e}; make room there, or name another folder in TMPDIR", folder.display());
    made.map(|()| folder.display().to_string()).map_err(wrong)
}

async fn of_database(url: &str) -> Vec<Looked> {
    let words = |error: &StoreError| match error {
        StoreError::Unreachable { why, source } => format!("{} ({source})", why.words()),
        error => error.to_string(),
    };
    let tables = match vemble_store::tables(url).await {
        Ok(tables) => tables,
        Err(error) => return vec![("database", Err(words(&error)))],
    };
    let mut looked: Vec<Looked> = vec![("database", Ok("answers".into()))];
    if let Some(what) = about(tables) {
        looked.push(("tables", Err(what.into())));
        return looked;
    }
    looked.push(("tables", Ok("those of this Vemble".into())));
    let asked = match Store::connect(url) {
        Ok(store) => store.is_alive().await,
        Err(error) => Err(error),
    };
    looked.push(("rights", asked.map(|()| "accounts are kept apart".into()).map_err(|error| words(&error))));
    looked
}
