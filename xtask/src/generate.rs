//! Files that follow from the code: written here, and checked to be current by the tests.

use crate::shell::{Done, cargo, npm, output, root, run, target};
use std::path::PathBuf;

const SCHEMA: &str = "docs/schema/document.schema.json";
const DESCRIPTION: &str = "docs/schema/openapi.json";
const CLIENT: &str = "web/src/api/schema.gen.ts";

/// Writes all of them.
pub fn write() -> Done {
    run(&mut cargo(&["build", "--quiet", "--package", "vemble-cli"]))?;
    for (file, content) in contents()? {
        let path = root().join(file);
        if let Some(folder) = path.parent() {
            std::fs::create_dir_all(folder).map_err(|e| e.to_string())?;
        }
        std::fs::write(&path, content).map_err(|e| format!("{file}: {e}"))?;
    }
    Ok(())
}

/// Fails if one of them is not what the code says, as it was built last.
pub fn check() -> Done {
    for (file, content) in contents()? {
        if std::fs::read_to_string(root().join(file)).ok().as_deref() != Some(&content) {
            return Err(format!("{file} is stale; run `cargo xtask generate` and commit it"));
        }
    }
    Ok(())
}

fn contents() -> Done<Vec<(&'static str, String)>> {
    let vemble = |command| output(std::process::Command::new(target().join("debug/vemble")).arg(command));
    let description = vemble("openapi")?;
    let scratch: PathBuf = target().join("openapi.json");
    std::fs::write(&scratch, &description).map_err(|e| e.to_string())?;
    let client = output(npm(&["exec", "--no", "--", "openapi-typescript"]).arg(&scratch))?;
    Ok(vec![(SCHEMA, vemble("schema")?), (DESCRIPTION, description), (CLIENT, client)])
}
