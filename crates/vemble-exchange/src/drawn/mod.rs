//! Pieces that were drawn elsewhere: their lines out of SVG or DXF, with the names that `docs/pieces.md` gives them. What they are is worked
//! out in the core.

mod dxf;
mod svg;

pub use self::dxf::pieces_dxf;

use crate::document::Complaint;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vemble_core::length::{Measure, Tape, Unit};
use vemble_core::pattern::{ReadPieces, read_pieces};

/// What pieces are read from.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DrawnFormat {
    /// Groups of paths.
    Svg,
    /// Blocks with the layers of ASTM D6673.
    Dxf,
}

/// What a file may leave open. Nobody guesses it.
#[derive(Clone, Copy, Debug, Default)]
pub struct Said {
    /// What one of the file's units is.
    pub unit: Option<Unit>,
    /// How much cloth lies outside the stitching lines, where it has lines to cut along only.
    pub allowance: Option<Measure>,
}

/// The largest file, in bytes: a jacket with its lining, every curve as points, takes a third of it.
pub const LARGEST: usize = 4_000_000;

fn complaint(path: &str, found: impl Into<String>, expected: impl Into<String>) -> Complaint {
    Complaint { path: path.into(), found: found.into(), expected: expected.into() }
}

/// Reads pieces from a file.
///
/// # Errors
/// The first thing that is wrong; its path is `unit` or `allowance` where that is to be said.
pub fn read_drawn(file: &[u8], format: DrawnFormat, said: Said, tape: Tape) -> Result<ReadPieces, Complaint> {
    if file.len() > LARGEST {
        let most = LARGEST / 1_000_000;
        return Err(complaint("file", "a file that is too large", format!("{most} MB at most")));
    }
    if let Some(found) = said.allowance.filter(|allowance| allowance.length.is_negative()) {
        return Err(complaint("allowance", found.to_string(), "how much is allowance, per edge: 0 or more"));
    }
    let raw = match format {
        DrawnFormat::Svg => svg::read(file, said)?,
        DrawnFormat::Dxf => dxf::read(file, said)?,
    };
    read_pieces(&raw, tape).map_err(|(n, why)| {
        let name = raw.get(n).map_or("file", |piece| &piece.says);
        complaint(name, why.found(), why.expected())
    })
}

/// How many mm one of a file's units is.
const fn mm_of(unit: Unit) -> f64 {
    match unit {
        Unit::Mm => 1.0,
        Unit::Cm => 10.0,
        Unit::In => 25.4,
    }
}

/// Nobody says what its units are.
fn no_unit() -> Complaint {
    complaint("unit", "a file that does not say how large it is", "what one of its units is: mm, cm or in")
}
