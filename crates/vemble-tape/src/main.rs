//! `vemble-tape`: stands in for a digital tape measure. Type `read 12.4 cm`, `low`, `garbage`, `drop`, `wait 500`, `quit`, or
//! give a script of such lines.

use clap::Parser;
use std::io::BufRead;
use std::path::PathBuf;
use std::process::ExitCode;
use vemble_tape::{Command, StandIn};

#[derive(Parser)]
#[command(name = "vemble-tape", about = "Stands in for a digital tape measure, on loopback.")]
struct Arguments {
    /// The port to listen on; 0 takes a free one.
    #[arg(long, default_value_t = 7410)]
    port: u16,
    /// Which tape it is.
    #[arg(long, default_value = "VT-0001")]
    serial: String,
    /// What its display shows: six digits.
    #[arg(long, default_value = "418207", value_parser = six_digits)]
    code: String,
    /// Commands to begin with, one a line.
    #[arg(long)]
    script: Option<PathBuf>,
}

fn six_digits(text: &str) -> Result<String, String> {
    let fits = text.len() == vemble_tape::CODE_DIGITS && text.bytes().all(|b| b.is_ascii_digit());
    if fits { Ok(text.into()) } else { Err("expected six digits".into()) }
}

fn main() -> ExitCode {
    match run(&Arguments::parse()) {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("vemble-tape: {error}");
            ExitCode::FAILURE
        }
    }
}

fn run(arguments: &Arguments) -> Result<(), Box<dyn std::error::Error>> {
    let script = match &arguments.script {
        Some(file) => std::fs::read_to_string(file).map_err(|e| format!("{}: {e}", file.display()))?,
        None => String::new(),
    };
    let commands: Vec<Command> =
        script.lines().filter(|l| !l.trim().is_empty()).map(str::parse).collect::<Result<_, _>>()?;
    let tape = StandIn::start(arguments.port, &arguments.serial, &arguments.code)?;
    println!("tape {} at {}, code {}", arguments.serial, tape.address, tape.code);
    for command in commands {
        tape.told.send(command)?;
    }
    for line in std::io::stdin().lock().lines() {
        match line?.parse() {
            Ok(Command::Quit) => return Ok(()),
            Ok(command) => tape.told.send(command)?,
            Err(error) => eprintln!("{error}"),
        }
    }
    // Nobody types: it goes on with its script until it is stopped.
    loop {
        std::thread::park();
    }
}
