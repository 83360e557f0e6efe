//! The document: one garment and its try-ons as they were measured. Everything else is derived from it.

use crate::body::{BodyMeasurement, Wearer};
use crate::fault::{Fault, Wrong};
use crate::fitting::{HemMark, Reading, TryOn};
use crate::garment::Garment;
use crate::length::{Length, Measure};
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
/// Most measurements kept of one wearer: all of them, monthly for years.
const MOST_MEASUREMENTS: usize = 2000;

impl Document {
    /// What is wrong with the garment and its try-ons, apart from pins on seams: those are judged where their line is drawn. Empty
    /// when all is well.
    pub fn faults(&self) -> Vec<Fault> {
        [wrong_garment(&self.garment), wrong_try_ons(&self.garment, &self.try_ons)].concat()
    }
}

/// What is wrong with the facts of a garment, with paths below its document.
pub(crate) fn wrong_garment(garment: &Garment) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
    for (path, name) in [("garment.name", &garment.name), ("garment.wearer.name", &garment.wearer.name)] {
        if name.trim().is_empty() {
            fault(path.into(), Wrong::Blank);
        } else if name.chars().count() > 120 {
            fault(path.into(), Wrong::TooLong { most: 120 });
        }
    }
    let of_wearer = wrong_wearer(&garment.wearer).into_iter();
    for (field, wrong) in of_wearer.map(|f| (f.path, f.wrong)).filter(|f| f.0 != "name") {
        fault(format!("garment.wearer.{field}"), wrong);
    }
    let counts = [
        ("levels", garment.levels.len()),
        ("seams", garment.seams.len()),
        ("darts", garment.darts.len()),
        ("hems", garment.hems.len()),
        ("closures", garment.closures.len()),
        ("pockets", garment.pockets.len()),
    ];
    for (what, _) in counts.into_iter().filter(|c| c.1 > MOST) {
        fault(format!("garment.{what}"), Wrong::TooMany { what, most: MOST });
    }
    faults.extend(wrong_levels(garment));
    faults.extend(wrong_seams(garment));
    faults.extend(wrong_parts(garment));
    faults
}

/// What is wrong with the try-ons of a garment, with paths below its document.
pub(crate) fn wrong_try_ons(garment: &Garment, try_ons: &[TryOn]) -> Vec<Fault> {
    let mut faults = Vec::new();
    if try_ons.len() > MOST {
        faults.push(Fault { path: "try_ons".into(), wrong: Wrong::TooMany { what: "try-ons", most: MOST } });
    }
    for (t, try_on) in try_ons.iter().enumerate() {
        faults.extend(
            wrong_try_on(garment, try_on)
                .into_iter()
                .map(|(field, wrong)| Fault { path: format!("try_ons[{t}].{field}"), wrong }),
        );
    }
    faults
}

/// What is wrong with a try-on, apart from pins on seams: those are judged where their line is drawn.
fn wrong_try_on(garment: &Garment, try_on: &TryOn) -> Vec<(String, Wrong)> {
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push((path, wrong));
    for (field, text) in [
        ("layers", &try_on.layers),
        ("shoes", &try_on.shoes),
        ("posture", &try_on.posture),
        ("conditions", &try_on.conditions),
    ] {
        if text.chars().count() > 2000 {
            fault(field.into(), Wrong::TooLong { most: 2000 });
        }
    }
    for (v, version) in try_on.versions.iter().enumerate() {
        let path = |field: &str| format!("versions[{v}].{field}");
        if version.name.trim().is_empty() {
            fault(path("name"), Wrong::Blank);
        } else if version.name.chars().count() > 120 {
            fault(path("name"), Wrong::TooLong { most: 120 });
        }
        let readings = version.alterations.iter().map(|a| a.readings.len()).max().unwrap_or(0);
        if version.alterations.len() > MOST || version.darts.len() > MOST || readings > MOST_READINGS {
            fault(path("alterations"), Wrong::TooMany { what: "entries", most: MOST });
        }
    }
    for (p, passed) in try_on.passed_over.iter().enumerate() {
        if passed.why.trim().is_empty() {
            fault(format!("passed_over[{p}].why"), Wrong::Blank);
        } else if passed.why.chars().count().max(passed.check.chars().count()) > 400 {
            fault(format!("passed_over[{p}].why"), Wrong::TooLong { most: 400 });
        }
    }
    for (a, alteration) in try_on.alterations.iter().enumerate() {
        if try_on.alterations[..a].iter().any(|other| other.seam == alteration.seam) {
            fault(format!("alterations[{a}].seam"), Wrong::Twice { what: alteration.seam.name() });
        }
    }
    for (d, pins) in try_on.darts.iter().enumerate() {
        if try_on.darts[..d].iter().any(|other| other.dart == pins.dart) {
            fault(format!("darts[{d}].dart"), Wrong::Twice { what: pins.dart.name() });
        }
        let length = garment.darts.iter().find(|f| f.dart == pins.dart).map(|f| f.length);
        for (r, reading) in pins.readings.iter().enumerate() {
            let path = |field: &str| format!("darts[{d}].readings[{r}].{field}");
            let station = reading.station;
            if station.length.is_negative() {
                fault(path("station"), Wrong::Negative { found: station });
            } else if let Some(length) = length.filter(|l| station.length > l.length) {
                fault(path("station"), Wrong::OffSeam { found: station, length });
            }
            if reading.amount.length.is_negative() {
                fault(path("amount"), Wrong::Negative { found: reading.amount });
            }
            let same = |o: &Reading| o.side == reading.side && o.at() == reading.at();
            if let Some(first) = pins.readings[..r].iter().position(same) {
                fault(path("station"), Wrong::SameStation { found: station, side: reading.side, first });
            }
        }
    }
    let lists = [
        ("hem_marks", try_on.hem_marks.len()),
        ("observations", try_on.observations.len()),
        ("left_out", try_on.left_out.len()),
        ("versions", try_on.versions.len()),
        ("passed_over", try_on.passed_over.len()),
    ];
    for (field, _) in lists.into_iter().filter(|l| l.1 > MOST) {
        fault(field.into(), Wrong::TooMany { what: "entries", most: MOST });
    }
    let on_seams =
        try_on.alterations.iter().enumerate().map(|(a, x)| (format!("alterations[{a}]"), &x.readings));
    let on_darts = try_on.darts.iter().enumerate().map(|(d, x)| (format!("darts[{d}]"), &x.readings));
    for (path, _) in on_seams.chain(on_darts).filter(|l| l.1.len() > MOST_READINGS) {
        let wrong = Wrong::TooMany { what: "readings on one seam", most: MOST_READINGS };
        fault(format!("{path}.readings"), wrong);
    }
    for (n, mark) in try_on.hem_marks.iter().enumerate() {
        let place = |m: &HemMark| (m.edge, m.side, m.around);
        if try_on.hem_marks[..n].iter().any(|other| place(other) == place(mark)) {
            fault(format!("hem_marks[{n}].around"), Wrong::Twice { what: mark.around.name() });
        }
        for (field, found) in [("amount", Some(mark.amount)), ("again", mark.again)] {
            if let Some(found) = found.filter(|f| f.length.is_negative()) {
                fault(format!("hem_marks[{n}].{field}"), Wrong::Negative { found });
            }
        }
    }
    for (n, seen) in try_on.observations.iter().enumerate() {
        if seen.words.chars().count() > 2000 {
            fault(format!("observations[{n}].words"), Wrong::TooLong { most: 2000 });
        }
    }
    for (n, tried) in try_on.movements.iter().enumerate() {
        if try_on.movements[..n].iter().any(|other| other.movement == tried.movement) {
            fault(format!("movements[{n}].movement"), Wrong::Twice { what: tried.movement.name() });
        }
    }
    faults
}

fn wrong_levels(garment: &Garment) -> Vec<Fault> {
    let levels = &garment.levels;
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
            } else if other.level.is_of_sleeve() != level.level.is_of_sleeve() {
                // A sleeve has a hem of its own to be measured from.
            } else if !level.assumed
                && !other.assumed
                && (level.level < other.level) == (station <= other_station)
            {
                let (low, high) = if station <= other_station { (other, level) } else { (level, other) };
                fault("station", Wrong::LevelsOutOfOrder { level: low.level, above: high.level });
            }
        }
    }
    faults
}

fn wrong_seams(garment: &Garment) -> Vec<Fault> {
    let mut faults = Vec::new();
    for (i, seam) in garment.seams.iter().enumerate() {
        let mut fault = |field: String, wrong| {
            faults.push(Fault { path: format!("garment.seams[{i}].{field}"), wrong });
        };
        if garment.seams[..i].iter().any(|other| other.seam == seam.seam) {
            fault("seam".into(), Wrong::Twice { what: seam.seam.name() });
        }
        if seam.length.length <= Length::ZERO {
            fault("length".into(), Wrong::NotPositive { found: seam.length });
        }
        let allowances = [("allowance", Some(seam.allowance)), ("allowance_back", seam.allowance_back)];
        for (field, found) in allowances {
            if let Some(found) = found.filter(|f| f.length.is_negative()) {
                fault(field.into(), Wrong::Negative { found });
            }
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

fn wrong_parts(garment: &Garment) -> Vec<Fault> {
    let mut lengths: Vec<(String, Measure)> = Vec::new();
    for (n, dart) in garment.darts.iter().enumerate() {
        for (field, found) in
            [("fold_depth", dart.fold_depth), ("length", dart.length), ("from_centre", dart.from_centre)]
        {
            lengths.push((format!("garment.darts[{n}].{field}"), found));
        }
    }
    lengths.extend((0..).zip(&garment.hems).map(|(n, h)| (format!("garment.hems[{n}].turn_up"), h.turn_up)));
    lengths.extend(garment.waistband_depth.map(|d| ("garment.waistband_depth".into(), d)));
    lengths.extend(garment.sleeve_length.map(|d| ("garment.sleeve_length".into(), d)));
    let apart = garment.found.back_pockets_apart;
    lengths.extend(apart.map(|d| ("garment.found.back_pockets_apart".into(), d)));
    let negative = lengths.into_iter().filter(|(_, found)| found.length.is_negative());
    let mut faults: Vec<Fault> =
        negative.map(|(path, found)| Fault { path, wrong: Wrong::Negative { found } }).collect();
    for (n, hem) in garment.hems.iter().enumerate() {
        if garment.hems[..n].iter().any(|other| other.edge == hem.edge) {
            let wrong = Wrong::Twice { what: hem.edge.name() };
            faults.push(Fault { path: format!("garment.hems[{n}].edge"), wrong });
        }
    }
    for (n, dart) in garment.darts.iter().enumerate() {
        if garment.darts[..n].iter().any(|other| other.dart == dart.dart) {
            let wrong = Wrong::Twice { what: dart.dart.name() };
            faults.push(Fault { path: format!("garment.darts[{n}].dart"), wrong });
        }
    }
    if garment.found.remarks.chars().count() > 2000 {
        faults.push(Fault { path: "garment.found.remarks".into(), wrong: Wrong::TooLong { most: 2000 } });
    }
    faults
}

/// What is wrong with a wearer, as paths below it: a body that cannot be.
pub fn wrong_wearer(wearer: &Wearer) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
    if wearer.name.trim().is_empty() {
        fault("name".into(), Wrong::Blank);
    } else if wearer.name.chars().count() > 120 {
        fault("name".into(), Wrong::TooLong { most: 120 });
    }
    if wearer.notes.iter().map(|n| n.chars().count()).sum::<usize>() > 2000 {
        fault("notes".into(), Wrong::TooLong { most: 2000 });
    }
    if wearer.measurements.len() > MOST_MEASUREMENTS {
        fault("measurements".into(), Wrong::TooMany { what: "measurements", most: MOST_MEASUREMENTS });
    }
    let height = wearer.get(BodyMeasurement::Height).map(Length::cm);
    for (n, taken) in wearer.measurements.iter().enumerate() {
        let figures = [("value", taken.value), ("left", taken.left), ("right", taken.right)];
        if figures.iter().all(|f| f.1.is_none()) {
            fault(format!("measurements[{n}].value"), Wrong::NoFigure { what: taken.what });
        }
        for (field, found) in figures {
            let Some(found) = found else { continue };
            if let Some(wrong) = impossible(taken.what, found, height) {
                fault(format!("measurements[{n}].{field}"), wrong);
            }
        }
    }
    faults
}

/// Bodies there are: 40 cm to 2.5 m tall, each measurement within its possible share of the height.
fn impossible(what: BodyMeasurement, found: Measure, height: Option<f64>) -> Option<Wrong> {
    const SHORTEST: f64 = 40.0;
    const TALLEST: f64 = 250.0;
    if found.length <= Length::ZERO {
        return Some(Wrong::NotPositive { found });
    }
    let (least, most) = match what {
        BodyMeasurement::Height => (SHORTEST, TALLEST),
        _ => {
            let (low, high) = what.facts().possible;
            (low * height.unwrap_or(SHORTEST), high * height.unwrap_or(TALLEST))
        }
    };
    let of_height = height.filter(|_| what != BodyMeasurement::Height).map(Length::from_cm);
    let is_within = (least..=most).contains(&found.length.cm());
    (!is_within).then_some(Wrong::NotOfABody {
        what,
        found,
        least: Length::from_cm(least),
        most: Length::from_cm(most),
        height: of_height,
    })
}
