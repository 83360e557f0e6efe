//! A program in place of the device: it sends what it is told to, good and bad.

use crate::{CODE_DIGITS, Line, PROTOCOL};
use std::io::{ErrorKind, Read, Write};
use std::net::{SocketAddr, TcpListener, TcpStream};
use std::str::FromStr;
use std::sync::mpsc::{Receiver, RecvTimeoutError, Sender, channel};
use std::time::Duration;
use vemble_core::length::{Measure, Unit};

/// What a stand-in is told to do.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Command {
    /// Send a reading.
    Read(Measure),
    /// Say that the battery is low.
    Low,
    /// Send a line that is none.
    Garbage,
    /// Drop out: hang up, and answer again when called.
    Drop,
    /// Wait, in milliseconds.
    Wait(u64),
    /// Stop.
    Quit,
}

/// A command that is none.
#[derive(Debug, thiserror::Error)]
#[error("“{0}” is no command; expected read LENGTH, low, garbage, drop, wait MILLISECONDS or quit")]
pub struct NotACommand(String);

impl FromStr for Command {
    type Err = NotACommand;

    fn from_str(line: &str) -> Result<Self, NotACommand> {
        let wrong = || NotACommand(line.into());
        let (word, rest) = line.trim().split_once(' ').unwrap_or((line.trim(), ""));
        Ok(match word {
            "read" => Self::Read(Measure::read(rest, Some(Unit::Cm)).map_err(|_| wrong())?),
            "low" => Self::Low,
            "garbage" => Self::Garbage,
            "drop" => Self::Drop,
            "wait" => Self::Wait(rest.parse().map_err(|_| wrong())?),
            "quit" => Self::Quit,
            _ => return Err(wrong()),
        })
    }
}

/// A tape that listens on loopback and does what it is told.
pub struct StandIn {
    /// Where it answers.
    pub address: SocketAddr,
    /// What its display shows.
    pub code: String,
    /// Tells it what to do.
    pub told: Sender<Command>,
}

impl StandIn {
    /// Starts one on its own thread.
    ///
    /// # Errors
    /// When the port cannot be had.
    pub fn start(port: u16, serial: &str, code: &str) -> std::io::Result<Self> {
        let listener = TcpListener::bind(("127.0.0.1", port))?;
        let address = listener.local_addr()?;
        let (told, commands) = channel();
        let hello = Line::Hello { serial: serial.into(), code: code.into(), protocol: PROTOCOL };
        std::thread::spawn(move || answer(&listener, &hello, &commands));
        Ok(Self { address, code: code.into(), told })
    }

    /// A code as a display would show it, from any number.
    pub fn code_of(number: u32) -> String {
        format!("{:0width$}", number % 10_u32.pow(CODE_DIGITS as u32), width = CODE_DIGITS)
    }
}

/// Answers one caller after the other, until it is told to stop.
fn answer(listener: &TcpListener, hello: &Line, commands: &Receiver<Command>) {
    let mut battery = 87;
    for caller in listener.incoming().flatten() {
        if serve(caller, hello, commands, &mut battery).is_ok_and(|stop| stop) {
            return;
        }
    }
}

/// Serves one caller; true when it is told to stop.
fn serve(
    mut caller: TcpStream,
    hello: &Line,
    commands: &Receiver<Command>,
    battery: &mut u8,
) -> std::io::Result<bool> {
    send(&mut caller, hello)?;
    caller.set_nonblocking(true)?;
    loop {
        // Whoever hung up is told nothing: what is said next is for the next caller.
        if has_hung_up(&mut caller) {
            return Ok(false);
        }
        let command = match commands.recv_timeout(Duration::from_millis(50)) {
            Ok(command) => command,
            Err(RecvTimeoutError::Timeout) => continue,
            Err(RecvTimeoutError::Disconnected) => return Ok(true),
        };
        match command {
            Command::Read(measure) => {
                // The text of a length ends in its unit.
                let text = measure.to_string();
                let value = text.rsplit_once(' ').map_or(text.as_str(), |(value, _)| value).to_owned();
                send(&mut caller, &Line::Reading { value, unit: measure.unit, battery: *battery })?;
                *battery = battery.saturating_sub(1).max(1);
            }
            Command::Low => {
                *battery = 9;
                send(&mut caller, &Line::LowBattery { percent: *battery })?;
            }
            Command::Garbage => caller.write_all(b"\x15{\"reading\": 12,4 cm\n")?,
            Command::Drop => return Ok(false),
            Command::Wait(milliseconds) => std::thread::sleep(Duration::from_millis(milliseconds)),
            Command::Quit => return Ok(true),
        }
    }
}

fn has_hung_up(caller: &mut TcpStream) -> bool {
    match caller.read(&mut [0; 16]) {
        Ok(read) => read == 0,
        Err(error) => error.kind() != ErrorKind::WouldBlock,
    }
}

fn send(caller: &mut TcpStream, line: &Line) -> std::io::Result<()> {
    caller.write_all(format!("{}\n", serde_json::to_string(line)?).as_bytes())
}
