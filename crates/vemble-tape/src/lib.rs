//! A digital tape measure: the lines it sends, and a stand-in that sends them when told.
//!
//! The protocol is line-delimited JSON over TCP, one object a line, each with one key; `docs/tape.md` describes it.

mod stand_in;

pub use stand_in::{Command, NotACommand, StandIn};

use serde::{Deserialize, Serialize};
use vemble_core::length::{Measure, Unit};

/// The version of the protocol that is spoken here.
pub const PROTOCOL: u32 = 1;
/// The longest line that is read: anything longer is garbage.
pub const LONGEST_LINE: usize = 1024;
/// The code that pairs with a tape has this many digits.
pub const CODE_DIGITS: usize = 6;

/// One line from a tape.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Line {
    /// The first line of every connection.
    Hello {
        /// Which tape it is.
        serial: String,
        /// What its display shows: whoever types it pairs with it.
        code: String,
        /// The version of the protocol.
        protocol: u32,
    },
    /// Its button was pressed.
    Reading {
        /// What it shows, as text: exact, without rounding on the way.
        value: String,
        /// In this unit.
        unit: Unit,
        /// What is left in the battery, in percent.
        battery: u8,
    },
    /// The battery is low.
    LowBattery {
        /// What is left in it, in percent.
        percent: u8,
    },
}

/// A line that is not one of the protocol.
#[derive(Debug, thiserror::Error)]
#[error("a tape sent what is not a line of its protocol: {0}")]
pub struct Garbage(String);

impl Line {
    /// Reads a line.
    ///
    /// # Errors
    /// [`Garbage`] for anything else, which is skipped and never guessed at.
    pub fn read(line: &str) -> Result<Self, Garbage> {
        if line.len() > LONGEST_LINE {
            return Err(Garbage(format!("{} bytes in one line", line.len())));
        }
        let read: Self = serde_json::from_str(line).map_err(|e| Garbage(e.to_string()))?;
        match &read {
            Self::Hello { protocol, .. } if *protocol != PROTOCOL => {
                Err(Garbage(format!("protocol {protocol}, expected {PROTOCOL}")))
            }
            Self::Reading { .. } if read.measure().is_none() => {
                Err(Garbage("a value that is no length".into()))
            }
            _ => Ok(read),
        }
    }

    /// The length that was read, if this is a reading of one.
    pub fn measure(&self) -> Option<Measure> {
        let Self::Reading { value, unit, .. } = self else { return None };
        Measure::read(value, Some(*unit)).ok().filter(|m| !m.length.is_negative())
    }
}
