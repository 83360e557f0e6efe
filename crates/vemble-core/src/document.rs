//! The document: one garment and its try-ons as they were measured. Everything else is derived from it.

use crate::fault::{Fault, Wrong};
use crate::fitting::TryOn;
use crate::garment::Garment;
use crate::length::Length;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The version of the document this code writes and reads.
pub const VERSION: u32 = 1;

/// A garment and its try-ons. Every length is text with its unit, exactly as written.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Document {
    /// Version of this format: 1.
    #[schema(minimum = 1, maximum = 1)]
    pub version: u32,
    /// The garment as looked over, and who wears it.
    pub garment: Garment,
    /// Try-ons, the oldest first.
    #[serde(default)]
    pub try_ons: Vec<TryOn>,
}

/// Most levels, seams, try-ons and readings of one document: far beyond any garment, far below what would tire a server.
const MOST: usize = 64;
/// Most readings on one seam.
const MOST_READINGS: usize = 200;

impl Document {
    /// What is wrong with the facts of the garment, apart from any pin; empty when all is well.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = Vec::new();
        let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
        for (path, name) in
            [("garment.name", &self.garment.name), ("garment.wearer.name", &self.garment.wearer.name)]
        {
            if name.trim().is_empty() {
                fault(path.into(), Wrong::Blank);
            } else if name.chars().count() > 120 {
                fault(path.into(), Wrong::TooLong { most: 120 });
            }
        }
        for (what, measure) in &self.garment.wearer.measurements {
            if measure.length <= Length::ZERO {
                let key = serde_variant(*what);
                fault(format!("garment.wearer.measurements.{key}"), Wrong::NotPositive { found: *measure });
            }
        }
        let counts = [("levels", self.garment.levels.len()), ("seams", self.garment.seams.len())];
        for (what, _) in counts.into_iter().filter(|c| c.1 > MOST) {
            fault(format!("garment.{what}"), Wrong::TooMany { what, most: MOST });
        }
        if self.try_ons.len() > MOST {
            fault("try_ons".into(), Wrong::TooMany { what: "try-ons", most: MOST });
        }
        for (t, try_on) in self.try_ons.iter().enumerate() {
            if try_on.conditions.chars().count() > 2000 {
                fault(format!("try_ons[{t}].conditions"), Wrong::TooLong { most: 2000 });
            }
            for (a, alteration) in try_on.alterations.iter().enumerate() {
                let path = format!("try_ons[{t}].alterations[{a}]");
                if try_on.alterations[..a].iter().any(|other| other.seam == alteration.seam) {
                    fault(format!("{path}.seam"), Wrong::Twice { what: alteration.seam.name() });
                }
                if alteration.readings.len() > MOST_READINGS {
                    let wrong = Wrong::TooMany { what: "readings on one seam", most: MOST_READINGS };
                    fault(format!("{path}.readings"), wrong);
                }
            }
        }
        faults.extend(self.wrong_levels());
        faults.extend(self.wrong_seams());
        faults
    }

    fn wrong_levels(&self) -> Vec<Fault> {
        let levels = &self.garment.levels;
        let mut faults = Vec::new();
        for (i, level) in levels.iter().enumerate() {
            let mut fault = |field: &str, wrong| {
                faults.push(Fault { path: format!("garment.levels[{i}].{field}"), wrong });
            };
            if level.station.length.is_negative() {
                fault("station", Wrong::Negative { found: level.station });
            }
            if level.width.girth() <= Length::ZERO {
                fault("width", Wrong::NotPositive { found: level.width.measure() });
            }
            for other in &levels[..i] {
                let (station, other_station) = (level.station.length, other.station.length);
                if other.level == level.level {
                    fault("level", Wrong::Twice { what: level.level.name() });
                } else if (level.level < other.level) == (station <= other_station) {
                    let (low, high) = if station <= other_station { (other, level) } else { (level, other) };
                    fault("station", Wrong::LevelsOutOfOrder { level: low.level, above: high.level });
                }
            }
        }
        faults
    }

    fn wrong_seams(&self) -> Vec<Fault> {
        let mut faults = Vec::new();
        for (i, seam) in self.garment.seams.iter().enumerate() {
            let mut fault = |field: String, wrong| {
                faults.push(Fault { path: format!("garment.seams[{i}].{field}"), wrong });
            };
            if self.garment.seams[..i].iter().any(|other| other.seam == seam.seam) {
                fault("seam".into(), Wrong::Twice { what: seam.seam.name() });
            }
            if seam.length.length <= Length::ZERO {
                fault("length".into(), Wrong::NotPositive { found: seam.length });
            }
            if seam.allowance.length.is_negative() {
                fault("allowance".into(), Wrong::Negative { found: seam.allowance });
            }
            for (n, thing) in seam.in_the_way.iter().enumerate() {
                for (end, station) in [("from", thing.from), ("to", thing.to)] {
                    if station.length.is_negative() || station.length > seam.length.length {
                        fault(
                            format!("in_the_way[{n}].{end}"),
                            Wrong::OffSeam { found: station, length: seam.length },
                        );
                    }
                }
            }
        }
        faults
    }
}

/// The name of a measurement as it stands in a document.
fn serde_variant(what: crate::body::BodyMeasurement) -> String {
    what.name().replace(' ', "_")
}
