//! Starting Vemble with demo data.

use crate::postgres::{Cluster, state_folder};
use crate::setup;
use crate::shell::{Done, cargo, program, root, run, target};
use std::io::{BufRead, BufReader};
use std::process::{Child, Stdio};
use std::sync::mpsc::{Receiver, RecvTimeoutError, channel};
use std::time::Duration;

/// How to start.
#[derive(clap::Args)]
pub struct Options {
    /// Begin again: forget everything an earlier start kept.
    #[arg(long)]
    fresh: bool,
    /// The port to serve on.
    #[arg(long, default_value_t = 8080)]
    port: u16,
}

/// Builds all, starts a database and the server, and waits for Ctrl-C.
pub fn demo(options: &Options) -> Done {
    let stop = on_stop()?;
    setup::machine(false)?;
    setup::front_end()?;
    let (mut server, mut tape, _cluster) = start(options)?;
    wait(&stop, &mut [&mut server]);
    end(&mut tape);
    Ok(())
}

/// The same, with Vite serving the front end as it is edited.
pub fn dev(options: &Options) -> Done {
    let stop = on_stop()?;
    setup::machine(false)?;
    setup::front_end()?;
    let (mut server, mut tape, _cluster) = start(options)?;
    let api = format!("http://127.0.0.1:{}", options.port);
    // By itself: npm would leave it running when it is ended.
    let mut vite = program("node", &["node_modules/vite/bin/vite.js"]);
    let mut vite =
        vite.current_dir(root().join("web")).env("VEMBLE_API", api).spawn().map_err(|e| e.to_string())?;
    wait(&stop, &mut [&mut vite, &mut server]);
    end(&mut tape);
    Ok(())
}

/// Tells when somebody wants us to stop.
fn on_stop() -> Done<Receiver<()>> {
    let (sender, stop) = channel();
    ctrlc::set_handler(move || {
        let _ = sender.send(());
    })
    .map_err(|e| e.to_string())?;
    Ok(stop)
}

/// The stand-in for a digital tape, which does what is typed here; and where it answers.
fn stand_in() -> Done<(Child, String)> {
    let mut tape = program(&target().join("debug/vemble-tape").to_string_lossy(), &["--port", "0"])
        .stdout(Stdio::piped())
        .spawn()
        .map_err(|e| e.to_string())?;
    let mut said = String::new();
    if let Some(printed) = tape.stdout.take() {
        BufReader::new(printed).read_line(&mut said).map_err(|e| e.to_string())?;
    }
    let address = said.split(" at ").nth(1).and_then(|rest| rest.split(',').next());
    let address = address.ok_or("the stand-in for a tape did not start")?.to_owned();
    println!("\nA stand-in for a digital tape measure is on: {}", said.trim());
    println!("Pair with its code under Account; then type here what it measures: read 12.4 cm");
    Ok((tape, address))
}

fn start(options: &Options) -> Done<(Child, Child, Option<Cluster>)> {
    run(&mut cargo(&["build", "--quiet", "--package", "vemble-cli", "--package", "vemble-tape"]))?;
    let folder = state_folder("demo")?;
    if options.fresh {
        std::fs::remove_dir_all(&folder).map_err(|e| format!("{}: {e}", folder.display()))?;
        state_folder("demo")?;
    }
    let (cluster, url) = match std::env::var("DATABASE_URL") {
        Ok(url) => (None, url),
        Err(_) => {
            let cluster = Cluster::start("demo", false)?;
            let url = cluster.url.clone();
            (Some(cluster), url)
        }
    };
    let (tape, tape_address) = stand_in()?;
    let mut server = program(
        &target().join("debug/vemble").to_string_lossy(),
        &["serve", "--migrate", "--example", "--port"],
    )
    .arg(options.port.to_string())
    .arg("--web")
    .arg(root().join("web/dist"))
    .args(["--tape", &tape_address])
    .env("DATABASE_URL", url)
    .stdin(Stdio::null())
    .stdout(Stdio::piped())
    .stderr(std::fs::File::create(folder.join("server.log")).map_err(|e| e.to_string())?)
    .spawn()
    .map_err(|e| e.to_string())?;
    let mut address = String::new();
    if let Some(printed) = server.stdout.take() {
        BufReader::new(printed).read_line(&mut address).map_err(|e| e.to_string())?;
    }
    if address.is_empty() {
        let log = std::fs::read_to_string(folder.join("server.log")).unwrap_or_default();
        let _ = server.wait();
        return Err(format!("the server did not start:\n{log}"));
    }
    println!("\nVemble is at {}   (Ctrl-C stops it)\n", address.trim());
    Ok((server, tape, cluster))
}

/// Waits until somebody wants us to stop or a child ends, then stops the children.
fn wait(stop: &Receiver<()>, children: &mut [&mut Child]) {
    while let Err(RecvTimeoutError::Timeout) = stop.recv_timeout(Duration::from_millis(200)) {
        if children.iter_mut().any(|c| matches!(c.try_wait(), Ok(Some(_)) | Err(_))) {
            break;
        }
    }
    for child in children {
        end(child);
    }
}

fn end(child: &mut Child) {
    // It may have had the same Ctrl-C and be gone already.
    let _ = program("kill", &["-TERM", &child.id().to_string()]).stderr(Stdio::null()).status();
    let _ = child.wait();
}
