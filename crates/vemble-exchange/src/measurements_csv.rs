//! A wearer's measurements as CSV (RFC 4180, UTF-8), with the unit in the header; in and out.
//!
//! `measurement,date,value_cm,left_cm,right_cm`: one row for each time something was measured. Importing takes all rows or
//! none, and names the line that is wrong.

use crate::document::Complaint;
use vemble_core::body::{BodyMeasurement, Taken};
use vemble_core::length::{Length, Measure, Tape, Unit};

/// The columns after the measurement's name, without their unit.
const FIGURES: [&str; 3] = ["value", "left", "right"];

/// Every measurement that was taken, in body order, each exactly.
///
/// # Errors
/// Only what the writer reports; writing to memory does not fail.
pub fn measurements_csv(measurements: &[Taken], tape: Tape) -> Result<String, csv::Error> {
    let unit = tape.unit();
    let mut writer = csv::WriterBuilder::new().terminator(csv::Terminator::CRLF).from_writer(Vec::new());
    let named = FIGURES.map(|f| format!("{f}_{}", tape.unit_name()));
    writer.write_record(["measurement", "date"].into_iter().chain(named.iter().map(String::as_str)))?;
    let mut sorted: Vec<&Taken> = measurements.iter().collect();
    sorted.sort_by_key(|t| (t.what, t.date));
    // Exact, without the unit, which stands in the header.
    let bare = |measure: Option<Measure>| {
        let text = measure.map(|m| Measure { unit, ..m }.to_string()).unwrap_or_default();
        match text.strip_suffix(tape.unit_name()) {
            Some(figure) => figure.trim().to_owned(),
            None => text,
        }
    };
    for taken in sorted {
        let date = taken.date.map(|d| d.to_string()).unwrap_or_default();
        writer.write_record([
            taken.what.word().to_owned(),
            date,
            bare(taken.value),
            bare(taken.left),
            bare(taken.right),
        ])?;
    }
    let bytes = writer.into_inner().map_err(|e| csv::Error::from(e.into_error()))?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}

/// Reads what [`measurements_csv`] writes, in any order of columns, in cm, mm or inches.
///
/// # Errors
/// The first thing that is wrong, with its line; then nothing is taken.
pub fn read_measurements_csv(csv: &[u8]) -> Result<Vec<Taken>, Complaint> {
    let complain = |line: u64, found: String, expected: &str| Complaint {
        path: format!("line {line}"),
        found,
        expected: expected.into(),
    };
    let csv = csv.strip_prefix(b"\xef\xbb\xbf").unwrap_or(csv);
    let mut reader = csv::ReaderBuilder::new().trim(csv::Trim::All).from_reader(csv);
    let line_of = |e: &csv::Error| e.position().map_or(1, csv::Position::line);
    let unreadable =
        |e: csv::Error| complain(line_of(&e), e.to_string(), "comma-separated rows of one length");
    let header = reader.headers().map_err(unreadable)?.clone();
    let column = |name: &str| header.iter().position(|h| h == name);
    let mut figures: Vec<(usize, &str, Unit)> = Vec::new();
    for (at, heading) in header.iter().enumerate().filter(|(_, h)| !matches!(*h, "measurement" | "date")) {
        let (name, unit) = heading.rsplit_once(['_', ' ']).unwrap_or((heading, ""));
        let Some(name) = FIGURES.iter().find(|f| **f == name) else {
            let expected = "measurement, date, value, left or right, each figure with its unit: value_cm";
            return Err(complain(1, format!("a column “{heading}”"), expected));
        };
        let unit = match unit {
            "cm" => Unit::Cm,
            "mm" => Unit::Mm,
            "in" => Unit::In,
            other => {
                return Err(complain(1, format!("the unit “{other}” of “{heading}”"), "cm, mm or in"));
            }
        };
        figures.push((at, name, unit));
    }
    let Some(what_at) = column("measurement").filter(|_| !figures.is_empty()) else {
        return Err(complain(
            1,
            "no column “measurement” with figures beside it".into(),
            "measurement,date,value_cm",
        ));
    };
    let date_at = column("date");
    let mut all = Vec::new();
    for record in reader.records() {
        let record = record.map_err(unreadable)?;
        let line = record.position().map_or(1, csv::Position::line);
        let name = &record[what_at];
        let what = BodyMeasurement::ALL
            .iter()
            .copied()
            .find(|what| what.word() == name || what.name() == name)
            .ok_or_else(|| {
                complain(line, format!("a measurement “{name}”"), "an ISO 8559-1 term, like waist_girth")
            })?;
        let date = match date_at.map(|at| &record[at]).filter(|text| !text.is_empty()) {
            Some(text) => Some(
                text.parse()
                    .map_err(|_| complain(line, format!("the date “{text}”"), "a day like 2026-09-27"))?,
            ),
            None => None,
        };
        let mut taken = Taken { what, date, value: None, left: None, right: None };
        for &(at, name, unit) in &figures {
            let text = &record[at];
            if text.is_empty() {
                continue;
            }
            let measure =
                Measure::read(text, Some(unit)).map_err(|e| complain(line, e.to_string(), e.expected()))?;
            match name {
                "left" => taken.left = Some(measure),
                "right" => taken.right = Some(measure),
                _ => taken.value = Some(measure),
            }
        }
        if taken.figure().is_none_or(|m| m.length <= Length::ZERO) {
            return Err(complain(
                line,
                format!("the {} without a figure", what.name()),
                "a length above nought",
            ));
        }
        all.push(taken);
    }
    Ok(all)
}
