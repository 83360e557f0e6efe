//! `cargo xtask …`: what the README's commands call. Sets the machine up, starts what is needed, stops what it started.

mod demo;
mod generate;
mod postgres;
mod setup;
mod shell;
mod test;

use clap::{Parser, Subcommand};
use std::process::ExitCode;

#[derive(Parser)]
#[command(name = "cargo xtask", about = "Build, start and test Vemble.")]
struct Arguments {
    #[command(subcommand)]
    command: Task,
}

#[derive(Subcommand)]
enum Task {
    /// Set up, build, and start Vemble with demo data; Ctrl-C stops all of it.
    Demo(demo::Options),
    /// Set up, then check formats, lints and types and run every test.
    Test,
    /// Like demo, with the front end rebuilt as it is edited.
    Dev(demo::Options),
    /// Write the files that are generated from the code: document schema, API description, API client.
    Generate,
    /// Build the program as it is installed: optimized, stripped, with the front end inside.
    Release,
    /// Measure speed.
    Bench,
    /// Send documents with figures, words and parts exchanged through everything, far more than the tests do.
    Fuzz {
        /// How many.
        #[arg(default_value_t = 100_000)]
        documents: u32,
    },
}

fn release() -> shell::Done {
    setup::front_end()?;
    shell::run(&mut shell::cargo(&[
        "build",
        "--release",
        "--package",
        "vemble-cli",
        "--features",
        "embedded",
    ]))?;
    println!("\n{}", shell::target().join("release/vemble").display());
    Ok(())
}

fn main() -> ExitCode {
    let done = match Arguments::parse().command {
        Task::Demo(options) => demo::demo(&options),
        Task::Test => test::test(),
        Task::Dev(options) => demo::dev(&options),
        Task::Generate => setup::front_end_packages().and_then(|()| generate::write()),
        Task::Release => release(),
        Task::Bench => test::bench(),
        Task::Fuzz { documents } => test::fuzz(documents),
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(message) => {
            eprintln!("\nxtask: {message}");
            ExitCode::FAILURE
        }
    }
}
