//! Everything that has to pass.

use crate::postgres::Cluster;
use crate::shell::{Done, cargo, npm, root, run};
use crate::{generate, setup};

/// Formats, lints, types, generated files, and all tests: core, server against PostgreSQL, browser.
pub fn test() -> Done {
    setup::machine(true)?;
    run(&mut cargo(&["fmt", "--all", "--check"]))?;
    setup::front_end_packages()?;
    for check in ["format", "types", "lint"] {
        run(&mut npm(&["run", "--silent", check]))?;
    }
    setup::front_end()?;
    run(&mut cargo(&["clippy", "--quiet", "--workspace", "--all-targets", "--", "--deny", "warnings"]))?;
    // What tests need makes some packages another build: so nothing is built without them.
    run(&mut cargo(&["test", "--quiet", "--workspace", "--no-run"]))?;
    generate::check()?;
    let cluster = database()?;
    let mut tests = cargo(&["test", "--workspace", "--no-fail-fast"]);
    run(tests.env("INSTA_UPDATE", "no").envs(environment(cluster.as_ref())))
}

/// The benches of the core and of the server.
pub fn bench() -> Done {
    setup::machine(false)?;
    setup::front_end()?;
    let cluster = database()?;
    run(cargo(&["bench", "--workspace", "--benches"]).envs(environment(cluster.as_ref())))
}

/// The one test of whatever can be sent, with so many documents.
pub fn fuzz(documents: u32) -> Done {
    let mut fuzz =
        cargo(&["test", "--package", "vemble-exchange", "--test", "formats", "nothing_that_can_be_sent"]);
    run(fuzz.env("VEMBLE_FUZZ", documents.to_string()))
}

/// A cluster for this run alone, unless `DATABASE_URL` names another.
fn database() -> Done<Option<Cluster>> {
    match std::env::var_os("DATABASE_URL") {
        Some(_) => Ok(None),
        None => Cluster::start(&format!("test-{}", std::process::id()), true).map(Some),
    }
}

fn environment(cluster: Option<&Cluster>) -> Vec<(&'static str, String)> {
    let mut environment = vec![("VEMBLE_WEB", root().join("web/dist").to_string_lossy().into_owned())];
    environment.extend(cluster.map(|c| ("DATABASE_URL", c.url.clone())));
    environment
}
