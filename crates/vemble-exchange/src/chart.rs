//! A size chart as people have it: typed, pasted from a page or a table, or read from a file.
//!
//! The first line has the chart's name and its sizes, every other one what it says and a figure for each size, between tabs,
//! semicolons or commas:
//!
//! ```text
//! regular,10,12,14
//! bust body,34 in,36 in,38 in
//! bust finished,37 in,39 in,41 in
//! waist ease,2 in,2 in,2 in
//! back neck to waist,16 in,16 1/4 in,16 1/2 in
//! finished length,40 in,40 1/4 in,40 1/2 in
//! ```
//!
//! A figure without a unit takes the one that is said for all of them, and is refused where none is: nobody guesses.

use crate::document::Complaint;
use vemble_core::body::BodyMeasurement;
use vemble_core::length::{Measure, Tape, Unit};
use vemble_core::place::Level;
use vemble_core::work::{Chart, ChartRow, ChartSays, wrong_chart};

/// What a row may begin with.
const EXPECTED: &str =
    "what is measured, then body, finished or ease: “hip finished”, “back neck to waist”, “finished length”";

/// Reads a chart; bare figures take `unit`.
///
/// # Errors
/// The first thing that is wrong, with its line; then nothing is taken.
pub fn read_chart(text: &str, unit: Option<Unit>, tape: Tape) -> Result<Chart, Complaint> {
    let complain = |line: u64, found: String, expected: &str| Complaint {
        path: format!("line {line}"),
        found,
        expected: expected.into(),
    };
    let text = text.trim_start_matches('\u{feff}');
    let between = ['\t', ';', ','].into_iter().find(|c| text.contains(*c)).unwrap_or(',');
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(u8::try_from(between).unwrap_or(b','))
        .has_headers(false)
        .flexible(true)
        .trim(csv::Trim::All)
        // A figure in inches has its own quotation marks: 2 1/4".
        .quoting(between != '\t')
        .from_reader(text.as_bytes());
    let mut chart = Chart { name: String::new(), sizes: Vec::new(), rows: Vec::new(), long: Vec::new() };
    let (mut lines, mut long_at): (Vec<u64>, u64) = (Vec::new(), 1);
    for record in reader.records() {
        let record = record.map_err(|e| {
            complain(1, e.to_string(), "lines with figures between tabs, semicolons or commas")
        })?;
        let line = record.position().map_or(1, csv::Position::line);
        let mut cells = record.iter();
        let label = cells.next().unwrap_or_default();
        let mut cells: Vec<&str> = cells.collect();
        // What a table leaves empty at its right.
        while cells.last().is_some_and(|cell| cell.is_empty()) {
            cells.pop();
        }
        if chart.sizes.is_empty() {
            if cells.is_empty() {
                return Err(complain(
                    line,
                    "no sizes".into(),
                    "the name of the chart and its sizes: regular, 10, 12",
                ));
            }
            chart.name = label.into();
            chart.sizes = cells.into_iter().map(Into::into).collect();
            continue;
        }
        if label.is_empty() && cells.is_empty() {
            continue;
        }
        // What it says may stand in a column of its own.
        let is_word = |cell: &&str| ChartSays::ALL.iter().any(|says| cell.eq_ignore_ascii_case(says.name()));
        let label = match cells.first().filter(|cell| is_word(cell)) {
            Some(_) => format!("{label} {}", cells.remove(0)),
            None => label.to_owned(),
        };
        let is_of = match read_label(&label) {
            Some(of) if of == RowOf::Garment && !chart.long.is_empty() => {
                return Err(complain(line, "the row stands here a second time".into(), "each row once"));
            }
            Some(of) => of,
            None => return Err(complain(line, format!("“{label}”"), EXPECTED)),
        };
        let mut figures = Vec::new();
        for (n, cell) in cells.iter().enumerate() {
            let size = chart.sizes.get(n).map_or("one size too many", String::as_str);
            if cell.is_empty() {
                return Err(complain(
                    line,
                    format!("no figure for size {size}"),
                    "one figure for every size",
                ));
            }
            let bare = |text: &str| {
                Measure::read(text, None).is_err() && Measure::read(text, Some(Unit::Cm)).is_ok()
            };
            if unit.is_none() && bare(cell) {
                let expected = "a figure with its unit, or say whether the chart is in cm or in inches";
                return Err(complain(line, format!("“{cell}” without a unit"), expected));
            }
            figures.push(Measure::read(cell, unit).map_err(|e| complain(line, e.to_string(), e.expected()))?);
        }
        match is_of {
            RowOf::Body(what, says) => {
                chart.rows.push(ChartRow { what, says, figures });
                lines.push(line);
            }
            RowOf::Garment => (chart.long, long_at) = (figures, line),
        }
    }
    if chart.rows.is_empty() {
        return Err(complain(1, "nothing".into(), "the name of the chart and its sizes, then its rows"));
    }
    match wrong_chart(&chart).into_iter().next() {
        None => Ok(chart),
        Some(fault) => {
            let row = fault
                .path
                .strip_prefix("rows[")
                .and_then(|rest| rest.split(']').next()?.parse::<usize>().ok());
            let of_row = row.and_then(|row| lines.get(row)).copied();
            let line = of_row.or(fault.path.starts_with("long").then_some(long_at)).unwrap_or(1);
            Err(complain(line, fault.wrong.found(tape), &fault.wrong.expected(tape)))
        }
    }
}

/// What a row is about.
#[derive(Clone, Copy, PartialEq)]
enum RowOf {
    /// A measurement, and whose.
    Body(BodyMeasurement, ChartSays),
    /// How long the finished garment is.
    Garment,
}

/// Words for how long a garment is, that charts have.
const LONG: [&str; 4] = ["length", "back length", "total length", "full length"];

/// What a row says of what: "hip finished", "Hip girth, finished garment", "back neck to waist". What says nothing of it is the body's.
fn read_label(label: &str) -> Option<RowOf> {
    let mut says = ChartSays::Body;
    let mut words: Vec<String> = Vec::new();
    let text = label.to_lowercase().replace(['_', ',', ':', '(', ')', '.'], " ");
    for word in text.split_whitespace() {
        match word {
            "finished" | "garment" => says = ChartSays::Finished,
            "ease" => says = ChartSays::Ease,
            "body" if text.trim_start().starts_with("body rise") && words.is_empty() => {
                words.push(word.into());
            }
            "body" | "measurement" => {}
            word => words.push(word.into()),
        }
    }
    let name = words.join(" ");
    if LONG.contains(&name.as_str()) && says == ChartSays::Finished {
        return Some(RowOf::Garment);
    }
    let is_named = |what: &&BodyMeasurement| {
        let full = what.name();
        full == name || full.strip_suffix(" girth") == Some(&name) || what.word().replace('_', " ") == name
    };
    let by_level = || {
        let level = Level::ALL.iter().find(|level| level.name() == name)?;
        let girth = format!("{} girth", level.name());
        BodyMeasurement::ALL.iter().find(|what| what.name() == girth)
    };
    let same = match name.as_str() {
        "chest" => Some(&BodyMeasurement::BustGirth),
        "rise" | "crotch depth" => Some(&BodyMeasurement::BodyRise),
        _ => None,
    };
    let what = BodyMeasurement::ALL.iter().find(is_named).or(same).or_else(by_level)?;
    Some(RowOf::Body(*what, says))
}

#[cfg(test)]
mod tests {
    use super::*;
    use vemble_core::body::Wearer;
    use vemble_core::garment::{Beginning, Kind, begin, cloth_named};
    use vemble_core::size::sizes;
    use vemble_core::work::Pattern;

    fn read(text: &str, unit: Option<Unit>) -> Result<Chart, String> {
        read_chart(text, unit, Tape::Cm).map_err(|c| format!("{}: {}", c.path, c.found))
    }

    #[test]
    fn a_chart_is_read_however_it_is_written() {
        let typed = "regular,10,12\nbust body,34,36\nBust girth, finished,37 1/4,39\n";
        assert_eq!(read(typed, Some(Unit::In)).unwrap().rows[1].says, ChartSays::Finished);
        let tabs = "regular\t10\t12\t\nbust body\t34\t36\nBust girth, finished\t37 1/4\"\t39\"\nbody rise\t10\t11\nchest ease\t3\t3\n\n";
        let chart = read(tabs, Some(Unit::In)).unwrap();
        assert_eq!((chart.name.as_str(), chart.sizes.len(), chart.rows.len()), ("regular", 2, 4));
        assert_eq!(chart.rows[1].what, BodyMeasurement::BustGirth);
        assert_eq!(chart.rows[1].figures[0].to_string(), "37 1/4 in");
        assert_eq!((chart.rows[2].what, chart.rows[2].says), (BodyMeasurement::BodyRise, ChartSays::Body));
        let semicolons = "\u{feff};S;M\nhip finished;98,5 cm;102 cm\n";
        assert_eq!(read(semicolons, None).unwrap().rows[0].figures[0].to_string(), "98.5 cm");
        let long = read("dress,S,M\nlength,finished,98,99\nbust finished,90,94\n", Some(Unit::Cm)).unwrap();
        assert_eq!((long.long.len(), long.rows.len()), (2, 1));
    }

    /// Every row that there may be, as it is shown and can be typed again, is read as what it was.
    #[test]
    fn what_is_shown_of_a_chart_is_read_again() {
        let row = |what: &BodyMeasurement, says: &ChartSays| {
            let texts =
                if *says == ChartSays::Finished { ["30 1/8 in", "31 1/2 in"] } else { ["80.5 cm", "81 cm"] };
            let figures = texts.map(|text| Measure::read(text, None).unwrap()).into();
            ChartRow { what: *what, says: *says, figures }
        };
        let all = BodyMeasurement::ALL
            .iter()
            .flat_map(|what| ChartSays::ALL.iter().map(move |says| row(what, says)));
        let wearer = Wearer { name: "Odile".into(), ..Wearer::default() };
        let cloth = cloth_named(Kind::Dress.template().cloth).unwrap();
        let (kind, name) = (Kind::Dress, "it".into());
        let dress = begin(Beginning { name, kind, toile: true, wearer: wearer.clone(), cloth });
        for rows in all.collect::<Vec<_>>().chunks(40) {
            let long = vec![Measure::read("100 cm", None).unwrap(); 2];
            let sizes_of = vec!["S/M".into(), "L-XL".into()];
            let chart = Chart { name: "fuller, 2".into(), sizes: sizes_of, rows: rows.to_vec(), long };
            let pattern = Pattern { charts: vec![chart.clone()], ..Pattern::default() };
            let shown = &sizes(&dress, &wearer, &pattern, &[], Tape::Cm).charts[0];
            let head = format!("{}\t{}", shown.name, shown.sizes.join("\t"));
            let lines = shown.rows.iter().map(|row| format!("{}\t{}", row.name, row.cells.join("\t")));
            let typed: Vec<String> = std::iter::once(head).chain(lines).collect();
            for unit in [None, Some(Unit::Cm), Some(Unit::In)] {
                assert_eq!(read(&typed.join("\n"), unit).unwrap(), chart);
            }
        }
        for (text, says) in
            [("37½", "37 1/2 in"), ("37 ½\"", "37 1/2 in"), ("37-1/2", "37 1/2 in"), ("37.5″", "37 1/2 in")]
        {
            let read = read(&format!("regular\tM\nhip finished\t{text}"), Some(Unit::In));
            assert_eq!(read.map(|chart| chart.rows[0].figures[0].to_string()), Ok(says.to_owned()), "{text}");
        }
    }

    #[test]
    fn what_is_wrong_is_named_with_its_line() {
        for (text, unit, found) in [
            ("", None, "line 1: nothing"),
            ("regular\nhip,1", None, "line 1: no sizes"),
            ("regular,10,12\nhip finished,98,102", None, "line 2: “98” without a unit"),
            ("regular,10,12\nhip finished,98,", Some(Unit::Cm), "line 2: 1 figures for 2 sizes"),
            ("regular,10,12\nhip finished,,98", Some(Unit::Cm), "line 2: no figure for size 10"),
            ("regular,10,12\nhop finished,98,99", Some(Unit::Cm), "line 2: “hop finished”"),
            (
                "regular,10,12\nhip finished,98,97",
                Some(Unit::Cm),
                "line 2: 97 cm, which is less than the 98 cm of the size before",
            ),
            (
                "regular,10,12\nhip finished,98,99\nfinished length,60,59",
                Some(Unit::Cm),
                "line 3: 59 cm, which is less than the 60 cm of the size before",
            ),
            (
                "regular,10,12\nfinished length,59,60\nfinished back length,59,60",
                Some(Unit::Cm),
                "line 3: the row stands here a second time",
            ),
            (
                "regular,10,10\nhip finished,98,99",
                Some(Unit::Cm),
                "line 1: the size stands here a second time",
            ),
        ] {
            assert_eq!(read(text, unit).unwrap_err(), found, "{text}");
        }
    }
}
