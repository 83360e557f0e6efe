//! What must hold of a document before anything is drawn.

use super::{Document, Entry, Happened, State};
use crate::body::{BodyMeasurement, Wearer};
use crate::fault::{Fault, Wrong};
use crate::fitting::HemMark;
use crate::garment::Garment;
use crate::length::{Length, Measure};
use crate::try_on::{TryOn, Version};
use crate::work::{Did, Logged, wrong_wishes};
use uuid::Uuid;

/// Most levels, seams, try-ons and readings of one document: far beyond any garment, far below what would tire a server.
const MOST: usize = 64;
/// Most try-ons of a garment.
pub const MOST_TRY_ONS: usize = MOST;
/// Most entries of its record.
pub const MOST_ENTRIES: usize = MOST;
/// Most readings on one seam.
const MOST_READINGS: usize = 200;
/// Most readings of one try-on, and of all try-ons of a document: ten seams with sixty pins, and a dozen try-ons of a garment with four.
/// What is compared with everything else costs the square of them.
const MOST_IN_A_TRY_ON: usize = 600;
const MOST_IN_ALL: usize = 2000;
/// Most rows of cards that are chalked: every row of every seam.
const MOST_CHALKED: usize = 2000;
/// Longest name, longest text, longest word why, in letters: more than anybody types, far below what would tire a server.
pub(crate) const LONGEST_NAME: usize = 120;
const LONGEST_TEXT: usize = 2000;
const LONGEST_WHY: usize = 400;
/// Most entries of a log: every task ticked, reopened and ticked again, for years.
const MOST_LOGGED: usize = 4000;
/// The longest that a task can have taken, in minutes: a day and a night.
const LONGEST_TASK: u16 = 1440;
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
        if self.try_ons.len() > MOST_TRY_ONS {
            let wrong = Wrong::TooMany { what: "try-ons", most: MOST_TRY_ONS };
            faults.push(Fault { path: "try_ons".into(), wrong });
        }
        if let Some(wrong) = too_many_readings(self.try_ons.iter().flat_map(TryOn::readings).count()) {
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
        faults.extend(below("wishes".into(), wrong_wishes(&self.wishes)));
        if self.log.len() > MOST_LOGGED {
            let wrong = Wrong::TooMany { what: "entries", most: MOST_LOGGED };
            faults.push(Fault { path: "log".into(), wrong });
        }
        for (n, entry) in self.log.iter().enumerate() {
            if self.state(entry.state).is_none() {
                let wrong = Wrong::NoSuchState { id: entry.state };
                faults.push(Fault { path: format!("log[{n}].state"), wrong });
            }
            faults.extend(below(format!("log[{n}]"), wrong_logged(entry)));
        }
        faults
    }
}

/// More readings in all try-ons of a garment than can be worked out at once. Whoever adds to what is stored asks with the new sum.
pub fn too_many_readings(count: usize) -> Option<Wrong> {
    (count > MOST_IN_ALL).then_some(Wrong::TooMany { what: "readings in all try-ons", most: MOST_IN_ALL })
}

/// What is wrong with an entry of the log, as paths below it. Whether it may be entered as things stand is the plan's to say.
pub fn wrong_logged(entry: &Logged) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: &str, wrong| faults.push(Fault { path: path.into(), wrong });
    if entry.note.chars().count() > LONGEST_TEXT {
        fault("note", Wrong::TooLong { most: LONGEST_TEXT });
    }
    if let Some(found) = entry.minutes.filter(|minutes| *minutes == 0 || *minutes > LONGEST_TASK) {
        fault("minutes", Wrong::NotMinutes { found: found.into(), most: LONGEST_TASK.into() });
    }
    if entry.used.len() > MOST {
        fault("used", Wrong::TooMany { what: "entries", most: MOST });
    }
    if let Did::FitsNot { corrections } = &entry.did
        && corrections.len() > MOST_READINGS
    {
        fault("did.fits_not.corrections", Wrong::TooMany { what: "corrections", most: MOST_READINGS });
    }
    faults
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
    for (n, entry) in record.iter().enumerate() {
        let Entry { id, what, .. } = entry;
        let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
        if record[..n].iter().any(|other| other.id == *id) {
            fault(format!("record[{n}].id"), Wrong::Twice { what: "entry" });
        }
        let mut no_state = |field: &str, id: Uuid| {
            if document.state(id).is_none() {
                fault(format!("record[{n}].what.{field}"), Wrong::NoSuchState { id });
            }
        };
        match what {
            Happened::Sewn { from, to, .. } => {
                no_state("sewn.from", *from);
                no_state("sewn.to", *to);
            }
            Happened::TakenBack { from, to, .. } => {
                no_state("taken_back.from", *from);
                no_state("taken_back.to", *to);
            }
            Happened::Worn { .. } | Happened::Spent { .. } => {}
        }
        faults.extend(
            wrong_entry(entry).into_iter().map(|f| Fault { path: format!("record[{n}].{}", f.path), ..f }),
        );
    }
    faults
}

/// What is wrong with an entry of the record by itself, as paths below it.
pub fn wrong_entry(entry: &Entry) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: &str, wrong| faults.push(Fault { path: path.into(), wrong });
    if entry.why.chars().count() > LONGEST_TEXT {
        fault("why", Wrong::TooLong { most: LONGEST_TEXT });
    }
    match &entry.what {
        Happened::Sewn { changes, otherwise, measured, cut, .. } => {
            let lists = [
                ("changes", changes.len()),
                ("otherwise", otherwise.len()),
                ("measured", measured.len()),
                ("cut", cut.len()),
            ];
            for (field, _) in lists.into_iter().filter(|(_, count)| *count > MOST_READINGS) {
                fault(&format!("what.sewn.{field}"), Wrong::TooMany { what: "entries", most: MOST_READINGS });
            }
        }
        Happened::Spent { on, money } => {
            if let Some(wrong) = wrong_name(on) {
                fault("what.spent.on", wrong);
            }
            if !money.is_sum() {
                fault("what.spent.money", Wrong::NotASum);
            }
        }
        Happened::TakenBack { .. } | Happened::Worn { .. } => {}
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
        ("gathered", garment.gathered.len()),
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
    if try_on.readings().count() > MOST_IN_A_TRY_ON {
        let wrong = Wrong::TooMany { what: "readings in one try-on", most: MOST_IN_A_TRY_ON };
        fault("changes".into(), wrong);
    }
    let kept = |version: &Version| version.changes.iter().map(|c| c.readings().len()).sum::<usize>();
    if try_on.versions.iter().map(kept).sum::<usize>() > MOST_IN_ALL {
        fault("versions".into(), Wrong::TooMany { what: "readings in versions", most: MOST_IN_ALL });
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
    for (n, wanted) in try_on.wanted.iter().enumerate() {
        if try_on.wanted[..n].iter().any(|other| other.level == wanted.level) {
            fault(format!("wanted[{n}].level"), Wrong::Twice { what: wanted.level.name() });
        }
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
                let (found, datum, length) = (station, seam.seam.datum(), seam.end());
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
    lengths.extend((0..).zip(&garment.gathered).map(|(n, g)| (format!("gathered[{n}].by"), g.by)));
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
    for (n, edge) in garment.gathered.iter().enumerate() {
        if garment.gathered[..n].iter().any(|other| other.at == edge.at) {
            let wrong = Wrong::Twice { what: "edge" };
            faults.push(Fault { path: format!("gathered[{n}].at"), wrong });
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

/// Nobody likes more ease, in mm.
const MOST_EASE: i64 = 1_000;

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
    for (n, taste) in wearer.taste.iter().enumerate() {
        if wearer.taste[..n].iter().any(|other| other.is_of(taste)) {
            fault(format!("taste[{n}].level"), Wrong::Twice { what: "level" });
        }
        let most = Length::from_mm(MOST_EASE);
        if taste.ease.length.abs() > most {
            fault(format!("taste[{n}].ease"), Wrong::WiderThan { found: taste.ease, length: most });
        }
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
