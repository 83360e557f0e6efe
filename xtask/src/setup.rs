//! What a fresh Debian machine with Rust and Node still needs.

use crate::postgres;
use crate::shell::{Done, is_root, npm, program, root, run};
use std::path::Path;

/// A program and the Debian package it comes in.
const BROWSER: [(&str, &str); 2] =
    [("/usr/bin/chromium", "chromium"), ("/usr/bin/chromedriver", "chromium-driver")];

/// Installs what is missing when allowed to, or says exactly what to install.
pub fn machine(with_browser: bool) -> Done {
    let mut missing: Vec<&str> = Vec::new();
    if postgres::binaries().is_none() {
        missing.push("postgresql");
    }
    if with_browser {
        missing.extend(BROWSER.iter().filter(|b| !Path::new(b.0).exists()).map(|b| b.1));
    }
    if missing.is_empty() {
        return Ok(());
    }
    let packages = missing.join(" ");
    if !is_root() {
        return Err(format!("missing Debian packages; install them with: sudo apt-get install {packages}"));
    }
    run(&mut program("apt-get", &["update", "-q"]))?;
    let mut install = program("apt-get", &["install", "-y", "-q", "--no-install-recommends"]);
    run(install.args(missing).env("DEBIAN_FRONTEND", "noninteractive"))
}

/// Installs the front end's packages as the lockfile says, unless exactly these are there.
pub fn front_end_packages() -> Done {
    let lock =
        std::fs::read(root().join("web/package-lock.json")).map_err(|e| format!("package-lock.json: {e}"))?;
    let installed = root().join("web/node_modules/.installed-lock.json");
    if std::fs::read(&installed).is_ok_and(|i| i == lock) {
        return Ok(());
    }
    run(&mut npm(&["ci", "--no-audit", "--no-fund"]))?;
    std::fs::write(&installed, lock).map_err(|e| e.to_string())
}

/// Builds the front end into `web/dist`.
pub fn front_end() -> Done {
    front_end_packages()?;
    run(&mut npm(&["run", "--silent", "build"]))
}
