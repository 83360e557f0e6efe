//! Running other programs, and where things are.

use std::path::PathBuf;
use std::process::{Command, Stdio};

/// What went wrong, in words for whoever called.
pub type Done<T = ()> = Result<T, String>;

/// The top of the project.
pub fn root() -> PathBuf {
    PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("..").canonicalize().unwrap_or_else(|_| PathBuf::from("."))
}

/// Where Cargo builds.
pub fn target() -> PathBuf {
    std::env::var_os("CARGO_TARGET_DIR").map_or_else(|| root().join("target"), PathBuf::from)
}

/// A program to run at the top of the project.
pub fn program(name: &str, arguments: &[&str]) -> Command {
    let mut command = Command::new(name);
    command.args(arguments).current_dir(root());
    command
}

/// Cargo, the same one that runs this.
pub fn cargo(arguments: &[&str]) -> Command {
    program(&std::env::var("CARGO").unwrap_or_else(|_| "cargo".into()), arguments)
}

/// npm in the front end's folder.
pub fn npm(arguments: &[&str]) -> Command {
    let mut command = program("npm", arguments);
    command.current_dir(root().join("web"));
    command
}

fn words(command: &Command) -> String {
    let name = PathBuf::from(command.get_program());
    let name = name.file_name().unwrap_or_default().to_string_lossy().into_owned();
    let arguments = command.get_args().map(|a| a.to_string_lossy().into_owned());
    std::iter::once(name).chain(arguments).collect::<Vec<_>>().join(" ")
}

/// Runs a program to its end; its output goes where ours goes.
pub fn run(command: &mut Command) -> Done {
    let words = words(command);
    eprintln!("▸ {words}");
    match command.stdin(Stdio::null()).status() {
        Ok(status) if status.success() => Ok(()),
        Ok(status) => Err(format!("`{words}` failed ({status})")),
        Err(error) => Err(format!("`{words}` could not be started: {error}")),
    }
}

/// Runs a program quietly and gives what it printed.
pub fn output(command: &mut Command) -> Done<String> {
    let words = words(command);
    let output =
        command.stdin(Stdio::null()).output().map_err(|e| format!("`{words}` could not be started: {e}"))?;
    if output.status.success() {
        return Ok(String::from_utf8_lossy(&output.stdout).into_owned());
    }
    Err(format!("`{words}` failed: {}", String::from_utf8_lossy(&output.stderr)))
}

/// True for the superuser.
pub fn is_root() -> bool {
    output(&mut program("id", &["-u"])).is_ok_and(|id| id.trim() == "0")
}
