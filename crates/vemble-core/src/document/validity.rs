//! What must hold of a document before anything is drawn.

use super::{Document, Entry, Happened, State};
use crate::body::{BodyMeasurement, Wearer};
use crate::fault::{Fault, Wrong};
use crate::fitting::HemMark;
use crate::garment::Garment;
use crate::length::{Length, Measure};
use crate::try_on::TryOn;

/// Most levels, seams, try-ons and readings of one document: far beyond any garment, far below what would tire a server.
const MOST: usize = 64;
/// Most readings on one seam.
const MOST_READINGS: usize = 200;
/// Most rows of cards that are chalked: every row of every seam.
const MOST_CHALKED: usize = 2000;
/// Longest name, longest text, longest word why, in letters: more than anybody types, far below what would tire a server.
const LONGEST_NAME: usize = 120;
const LONGEST_TEXT: usize = 2000;
const LONGEST_WHY: usize = 400;
/// Most measurements kept of one wearer: all of them, monthly for years.
const MOST_MEASUREMENTS: usize = 2000;

impl Document {
    /// What is wrong with the garment, its wearer and its try-ons, apart from changes: those are judged where they are drawn. Empty
    /// when all is well.
    pub fn faults(&self) -> Vec<Fault> {
        let mut faults = Vec::new();
        let below = |path: String, inner: Vec<Fault>| {
            inner.into_iter().map(move |f| Fault { path: format!("{path}.{}", f.path), ..f })
        };
        faults.extend(below("wearer".into(), wrong_wearer(&self.wearer)));
        faults.extend(wrong_history(self));
        for (n, state) in self.states.iter().enumerate() {
            faults.extend(below(format!("states[{n}]"), wrong_state(state)));
        }
        if self.try_ons.len() > MOST {
            let wrong = Wrong::TooMany { what: "try-ons", most: MOST };
            faults.push(Fault { path: "try_ons".into(), wrong });
        }
        for (n, try_on) in self.try_ons.iter().enumerate() {
            let path = format!("try_ons[{n}]");
            if self.state(try_on.state).is_none() {
                let wrong = Wrong::NoSuchState { id: try_on.state };
                faults.push(Fault { path: format!("{path}.state"), wrong });
            }
            faults.extend(below(path, wrong_try_on(try_on)));
        }
        faults
    }
}

/// States that are there, each once, and a record that speaks of them.
fn wrong_history(document: &Document) -> Vec<Fault> {
    let (states, record) = (&document.states, &document.record);
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
    if states.is_empty() {
        fault("states".into(), Wrong::NoState);
    }
    for (what, count) in [("states", states.len()), ("record", record.len())] {
        if count > MOST {
            fault(what.into(), Wrong::TooMany { what: "entries", most: MOST });
        }
    }
    for (n, state) in states.iter().enumerate() {
        if states[..n].iter().any(|other| other.id == state.id) {
            fault(format!("states[{n}].id"), Wrong::StateTwice { id: state.id });
        }
    }
    for (n, Entry { id, what, .. }) in record.iter().enumerate() {
        if record[..n].iter().any(|other| other.id == *id) {
            fault(format!("record[{n}].id"), Wrong::Twice { what: "entry" });
        }
        match *what {
            Happened::Sewn { from, to, try_on: _ } => {
                for (field, id) in [("from", from), ("to", to)] {
                    if document.state(id).is_none() {
                        fault(format!("record[{n}].what.sewn.{field}"), Wrong::NoSuchState { id });
                    }
                }
            }
        }
    }
    faults
}

/// What is wrong with a state, as paths below it.
pub fn wrong_state(state: &State) -> Vec<Fault> {
    let below = |f: Fault| Fault { path: format!("garment.{}", f.path), ..f };
    wrong_garment(&state.garment).into_iter().map(below).collect()
}

/// What is wrong with the facts of a garment, as paths below it.
fn wrong_garment(garment: &Garment) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
    if let Some(wrong) = wrong_name(&garment.name) {
        fault("name".into(), wrong);
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
        fault(what.into(), Wrong::TooMany { what, most: MOST });
    }
    faults.extend(wrong_levels(garment));
    faults.extend(wrong_seams(garment));
    faults.extend(wrong_parts(garment));
    faults
}

/// A name is there, and not endless.
fn wrong_name(name: &str) -> Option<Wrong> {
    match name.chars().count() {
        _ if name.trim().is_empty() => Some(Wrong::Blank),
        letters if letters > LONGEST_NAME => Some(Wrong::TooLong { most: LONGEST_NAME }),
        _ => None,
    }
}

/// What is wrong with a try-on, as paths below it, apart from its changes: those are judged where they are drawn.
pub fn wrong_try_on(try_on: &TryOn) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
    for (field, text) in [
        ("layers", &try_on.layers),
        ("shoes", &try_on.shoes),
        ("posture", &try_on.posture),
        ("conditions", &try_on.conditions),
    ] {
        if text.chars().count() > LONGEST_TEXT {
            fault(field.into(), Wrong::TooLong { most: LONGEST_TEXT });
        }
    }
    for (n, change) in try_on.changes.iter().enumerate() {
        let kind: &'static str = change.into();
        if try_on.changes[..n].iter().any(|other| other.key() == change.key()) {
            fault(format!("changes[{n}]"), Wrong::ChangeTwice { which: change.key().to_string() });
        }
        if change.readings().len() > MOST_READINGS {
            let wrong = Wrong::TooMany { what: "readings on one seam", most: MOST_READINGS };
            fault(format!("changes[{n}].{kind}.readings"), wrong);
        }
    }
    for (v, version) in try_on.versions.iter().enumerate() {
        if let Some(wrong) = wrong_name(&version.name) {
            fault(format!("versions[{v}].name"), wrong);
        }
        let readings = version.changes.iter().map(|c| c.readings().len()).max().unwrap_or(0);
        if version.changes.len() > MOST || readings > MOST_READINGS {
            fault(format!("versions[{v}].changes"), Wrong::TooMany { what: "entries", most: MOST });
        }
    }
    for (p, passed) in try_on.passed_over.iter().enumerate() {
        if passed.why.trim().is_empty() {
            fault(format!("passed_over[{p}].why"), Wrong::Blank);
        } else if passed.why.chars().count() > LONGEST_WHY {
            fault(format!("passed_over[{p}].why"), Wrong::TooLong { most: LONGEST_WHY });
        }
    }
    let lists = [
        ("changes", try_on.changes.len(), MOST),
        ("versions", try_on.versions.len(), MOST),
        ("passed_over", try_on.passed_over.len(), MOST),
        ("chalked", try_on.chalked.len(), MOST_CHALKED),
        ("hem_marks", try_on.hem_marks.len(), MOST),
        ("observations", try_on.observations.len(), MOST),
        ("left_out", try_on.left_out.len(), MOST),
    ];
    for (field, _, most) in lists.into_iter().filter(|(_, count, most)| count > most) {
        fault(field.into(), Wrong::TooMany { what: "entries", most });
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
        if seen.words.chars().count() > LONGEST_TEXT {
            fault(format!("observations[{n}].words"), Wrong::TooLong { most: LONGEST_TEXT });
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
            faults.push(Fault { path: format!("levels[{i}].{field}"), wrong });
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
            faults.push(Fault { path: format!("seams[{i}].{field}"), wrong });
        };
        if garment.seams[..i].iter().any(|other| other.seam == seam.seam) {
            fault("seam".into(), Wrong::Twice { what: seam.seam.name() });
        }
        if seam.length.length <= Length::ZERO {
            fault("length".into(), Wrong::NotPositive { found: seam.length });
        }
        let allowances = [
            ("allowance", Some(seam.allowance)),
            ("allowance_back", seam.allowance_back),
            ("clips_leave", seam.clips_leave),
        ];
        for (field, found) in allowances {
            if let Some(found) = found.filter(|f| f.length.is_negative()) {
                fault(field.into(), Wrong::Negative { found });
            }
        }
        for (n, thing) in seam.in_the_way.iter().enumerate() {
            for (end, station) in [("from", thing.from), ("to", thing.to)] {
                let (found, datum, length) = (station, seam.seam.datum(), seam.length.length);
                if found.length.is_negative() {
                    fault(format!("in_the_way[{n}].{end}"), Wrong::OffDatum { found, datum });
                } else if found.length > length {
                    fault(format!("in_the_way[{n}].{end}"), Wrong::OffEnd { found, length, datum });
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
            lengths.push((format!("darts[{n}].{field}"), found));
        }
    }
    lengths.extend((0..).zip(&garment.hems).map(|(n, h)| (format!("hems[{n}].turn_up"), h.turn_up)));
    let shows = (0..).zip(&garment.hems).filter_map(|(n, h)| Some((n, h.visible?)));
    lengths.extend(shows.map(|(n, visible)| (format!("hems[{n}].visible"), visible)));
    lengths.extend(garment.waistband_depth.map(|d| ("waistband_depth".into(), d)));
    lengths.extend(garment.sleeve_length.map(|d| ("sleeve_length".into(), d)));
    lengths.extend(garment.across_back.map(|d| ("across_back".into(), d)));
    let apart = garment.found.back_pockets_apart;
    lengths.extend(apart.map(|d| ("found.back_pockets_apart".into(), d)));
    let negative = lengths.into_iter().filter(|(_, found)| found.length.is_negative());
    let mut faults: Vec<Fault> =
        negative.map(|(path, found)| Fault { path, wrong: Wrong::Negative { found } }).collect();
    for (n, hem) in garment.hems.iter().enumerate() {
        if garment.hems[..n].iter().any(|other| other.edge == hem.edge) {
            let wrong = Wrong::Twice { what: hem.edge.name() };
            faults.push(Fault { path: format!("hems[{n}].edge"), wrong });
        }
    }
    for (n, dart) in garment.darts.iter().enumerate() {
        if garment.darts[..n].iter().any(|other| other.dart == dart.dart) {
            let wrong = Wrong::Twice { what: dart.dart.name() };
            faults.push(Fault { path: format!("darts[{n}].dart"), wrong });
        }
    }
    if garment.found.remarks.chars().count() > LONGEST_TEXT {
        faults.push(Fault { path: "found.remarks".into(), wrong: Wrong::TooLong { most: LONGEST_TEXT } });
    }
    faults
}

/// What is wrong with a wearer, as paths below it: a body that cannot be.
pub fn wrong_wearer(wearer: &Wearer) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
    if let Some(wrong) = wrong_name(&wearer.name) {
        fault("name".into(), wrong);
    }
    if wearer.notes.iter().map(|n| n.chars().count()).sum::<usize>() > LONGEST_TEXT {
        fault("notes".into(), Wrong::TooLong { most: LONGEST_TEXT });
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
    let (least, most) = if what == BodyMeasurement::Height {
        (SHORTEST, TALLEST)
    } else {
        let (low, high) = what.facts().possible;
        (low * height.unwrap_or(SHORTEST), high * height.unwrap_or(TALLEST))
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
