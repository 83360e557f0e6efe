//! What is yours to keep: the whole database as a backup, and one account or garment as an archive.

use crate::Failure;
use crate::settings::Place;
use std::ffi::OsString;
use std::fs::{File, OpenOptions};
use std::os::unix::fs::OpenOptionsExt;
use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};
use uuid::Uuid;
use vemble_store::{AccountStore, Store, Tables};

#[derive(clap::Args)]
pub struct Backup {
    #[command(flatten)]
    place: Place,
    /// The file to write; it is not there, or not whole, before all is in it.
    file: PathBuf,
}

#[derive(clap::Args)]
pub struct Restore {
    #[command(flatten)]
    place: Place,
    /// A file that `vemble backup` wrote.
    file: PathBuf,
}

/// Whose account.
#[derive(clap::Args)]
pub struct Whose {
    /// The address that the account signs in with.
    #[arg(long, required_unless_present = "household")]
    email: Option<String>,
    /// The account of the household.
    #[arg(long, conflicts_with = "email")]
    household: bool,
}

#[derive(clap::Args)]
pub struct Export {
    #[command(flatten)]
    place: Place,
    #[command(flatten)]
    whose: Whose,
    /// Only this garment, by its id: the last part of its address.
    #[arg(long)]
    garment: Option<Uuid>,
    /// The ZIP to write.
    file: PathBuf,
}

#[derive(clap::Args)]
pub struct Import {
    #[command(flatten)]
    place: Place,
    #[command(flatten)]
    whose: Whose,
    /// A ZIP that was taken out here or elsewhere.
    file: PathBuf,
}

/// A program of PostgreSQL, from the path or from where Debian keeps the newest.
fn tool(name: &str) -> Result<PathBuf, Failure> {
    let on_path = std::env::var_os("PATH").unwrap_or_default();
    let mut places: Vec<PathBuf> = std::env::split_paths(&on_path).collect();
    let versions = std::fs::read_dir("/usr/lib/postgresql").into_iter().flatten().flatten();
    let mut versions: Vec<(u32, PathBuf)> = versions
        .filter_map(|v| Some((v.file_name().to_str()?.parse().ok()?, v.path().join("bin"))))
        .collect();
    versions.sort();
    places.extend(versions.into_iter().rev().map(|(_, folder)| folder));
    let found = places.into_iter().map(|folder| folder.join(name)).find(|path| path.is_file());
    found.ok_or_else(|| Failure::Other(format!("{name} is not there: install PostgreSQL's client programs")))
}

/// The program, told by its environment which database: nothing secret stands among its arguments.
fn postgres(name: &str, url: &str) -> Result<Command, Failure> {
    let config: tokio_postgres::Config =
        url.parse().map_err(|_| Failure::Other(vemble_store::Why::BadUrl.words().into()))?;
    let mut command = Command::new(tool(name)?);
    let host = config.get_hosts().first().map(|host| match host {
        tokio_postgres::config::Host::Tcp(name) => OsString::from(name),
        tokio_postgres::config::Host::Unix(path) => path.clone().into_os_string(),
    });
    let password = config.get_password().map(|word| String::from_utf8_lossy(word).into_owned());
    let known = [
        ("PGHOST", host),
        ("PGPORT", config.get_ports().first().map(|port| port.to_string().into())),
        ("PGUSER", config.get_user().map(OsString::from)),
        ("PGDATABASE", config.get_dbname().or(config.get_user()).map(OsString::from)),
        ("PGPASSWORD", password.map(OsString::from)),
    ];
    command.envs(known.into_iter().filter_map(|(name, value)| Some((name, value?))));
    command.env("PGCONNECT_TIMEOUT", "5").arg("--no-password");
    Ok(command)
}

fn run(command: &mut Command) -> Result<Vec<u8>, Failure> {
    let done = command.stdin(Stdio::null()).output()?;
    if done.status.success() {
        return Ok(done.stdout);
    }
    let said = String::from_utf8_lossy(&done.stderr);
    Err(Failure::Other(format!("{}: {}", command.get_program().to_string_lossy(), said.trim())))
}

/// A file that only its owner reads, which gets its name once it is whole.
struct Whole {
    partial: PathBuf,
    file: PathBuf,
}

impl Whole {
    fn begin(file: &Path) -> Result<(Self, File), Failure> {
        let wrong = |e: std::io::Error| Failure::Other(format!("{}: {e}", file.display()));
        let mut partial = file.as_os_str().to_owned();
        partial.push(".partial");
        let partial = PathBuf::from(partial);
        let open = OpenOptions::new().write(true).create(true).truncate(true).mode(0o600).open(&partial);
        Ok((Self { partial, file: file.to_owned() }, open.map_err(wrong)?))
    }

    fn end(self) -> Result<(), Failure> {
        let written = File::open(&self.partial)?;
        written.sync_all()?;
        Ok(std::fs::rename(&self.partial, &self.file)?)
    }
}

impl Drop for Whole {
    fn drop(&mut self) {
        // It is gone where it was ended.
        let _ = std::fs::remove_file(&self.partial);
    }
}

/// Writes everything but who is signed in.
pub async fn backup(backup: Backup) -> Result<(), Failure> {
    let (_, url) = backup.place.read()?;
    if vemble_store::tables(&url).await? == Tables::None {
        return Err(Failure::Other("the database has no tables of Vemble: there is nothing to keep".into()));
    }
    let (whole, _) = Whole::begin(&backup.file)?;
    let mut dump = postgres("pg_dump", &url)?;
    dump.args(["--format=custom", "--no-owner", "--compress=1", "--exclude-table-data=sessions"]);
    run(dump.arg("--exclude-table-data=sign_up_codes").arg("--file").arg(&whole.partial))?;
    whole.end()
}

/// Fills an empty database from a backup, whole or not at all, and brings its tables up to date.
pub async fn restore(restore: Restore) -> Result<(), Failure> {
    let (_, url) = restore.place.read()?;
    let wrong = |why: &str| Failure::Other(format!("{}: {why}", restore.file.display()));
    File::open(&restore.file).map_err(|e| wrong(&e.to_string()))?;
    if vemble_store::tables(&url).await? != Tables::None {
        return Err(Failure::Other(
            "the database is in use: make an empty one (createdb) and name it in DATABASE_URL".into(),
        ));
    }
    // Which steps the tables in it have made.
    let mut list = postgres("pg_restore", &url)?;
    list.args(["--data-only", "--table=__diesel_schema_migrations", "--file=-"]).arg(&restore.file);
    let list = run(&mut list).map_err(|_| wrong("no backup of Vemble, or not the whole of one"))?;
    let list = String::from_utf8_lossy(&list);
    let steps = list.lines().filter_map(|line| line.split_once('\t')).map(|(version, _)| version);
    let steps: Vec<&str> = steps.filter(|step| step.bytes().all(|b| b.is_ascii_digit())).collect();
    let own = vemble_store::own_versions();
    match steps.iter().find(|step| !own.iter().any(|known| known == *step)) {
        Some(_) => return Err(wrong("the backup of a later Vemble: restore it with that one")),
        None if steps.is_empty() => return Err(wrong("no backup of Vemble")),
        None => {}
    }
    vemble_store::make_role(&url).await?;
    let database = url.parse::<tokio_postgres::Config>().ok();
    let database = database.and_then(|c| c.get_dbname().or(c.get_user()).map(str::to_owned));
    let mut fill = postgres("pg_restore", &url)?;
    fill.args(["--single-transaction", "--exit-on-error", "--no-owner", "--dbname"]);
    run(fill.arg(database.unwrap_or_default()).arg(&restore.file))?;
    vemble_store::migrate(&url).await?;
    Ok(())
}

async fn account<'s>(store: &'s Store, whose: &Whose) -> Result<AccountStore<'s>, Failure> {
    let Some(email) = &whose.email else { return Ok(store.account(store.household_account().await?.id)) };
    let email = email.trim().to_lowercase();
    let found = store.credentials(&email).await?;
    let found = found.ok_or_else(|| Failure::Other(format!("nobody signs in as {email}")))?;
    Ok(store.account(found.id))
}

/// Opens the database, whose tables are those of this program.
pub async fn open(url: &str) -> Result<Store, Failure> {
    match crate::serve::about(vemble_store::tables(url).await?) {
        Some(words) => Err(Failure::Other(words.into())),
        None => Ok(Store::connect(url)?),
    }
}

/// Takes an account, or one garment of it, out.
pub async fn export(export: Export) -> Result<(), Failure> {
    let (_, url) = export.place.read()?;
    let store = open(&url).await?;
    let account = account(&store, &export.whose).await?;
    let (whole, to) = Whole::begin(&export.file)?;
    vemble_server::take_out(account, export.garment, std::io::BufWriter::new(to)).await?;
    whole.end()
}

/// Brings an archive in, whole or not at all.
pub async fn import(import: Import) -> Result<(), Failure> {
    let (_, url) = import.place.read()?;
    let store = open(&url).await?;
    let account = account(&store, &import.whose).await?;
    let file =
        File::open(&import.file).map_err(|e| Failure::Other(format!("{}: {e}", import.file.display())))?;
    let brought = vemble_server::bring_in(account, file).await.map_err(Failure::Other)?;
    crate::write_out(format!(
        "{} garments, {} wearers and {} photos brought in\n",
        brought.garments, brought.wearers, brought.photos
    ))
}
