//! Marks as CSV (RFC 4180, UTF-8, the unit in the header).

use vemble_core::length::Figure;
use vemble_core::solve::{MarkSide, Solved};

/// One row for each mark and side: try-on, seam, side, station, front, back, whole, and the cut line where there is one. With a key only of that change.
///
/// # Errors
/// Only what the writer reports; writing to memory does not fail.
pub fn marks_csv(solved: &Solved, key: Option<&str>) -> Result<String, csv::Error> {
    let unit = &solved.unit;
    let mut writer = csv::WriterBuilder::new().terminator(csv::Terminator::CRLF).from_writer(Vec::new());
    let headings = ["station", "front_edge", "back_edge", "whole", "cut_front", "cut_back"];
    let mut header = vec!["try_on".to_owned(), "seam".into(), "garment_side".into(), "note".into()];
    header.extend(headings.map(|h| format!("{h}_{unit}")));
    writer.write_record(&header)?;
    for (number, try_on) in solved.try_ons.iter().enumerate() {
        for seam in try_on.seams.iter().chain(&try_on.darts) {
            if key.is_some_and(|k| k != seam.key) {
                continue;
            }
            let marks = try_on.cards.iter().find(|c| c.key == seam.key).map_or(&[][..], |c| &c.marks);
            for (side, is_as_left) in [("left", true), ("right", seam.sides_agree)] {
                for mark in marks {
                    let figures: Option<&MarkSide> =
                        if is_as_left { mark.left.as_ref() } else { mark.right.as_ref() };
                    let Some(figures) = figures else { continue };
                    // Other programs read an ASCII minus.
                    let plain = |figure: &Figure| figure.bare().replace('−', "-");
                    let cut = |edge: usize| figures.cut.as_ref().map_or(String::new(), |c| plain(&c[edge]));
                    writer.write_record([
                        (number + 1).to_string(),
                        seam.seam.map_or_else(|| seam.name.clone(), |s| s.name().into()),
                        side.into(),
                        mark.note.clone(),
                        plain(&mark.station),
                        plain(&figures.front),
                        plain(&figures.back),
                        plain(&figures.whole),
                        cut(0),
                        cut(1),
                    ])?;
                }
            }
        }
    }
    let bytes = writer.into_inner().map_err(|e| csv::Error::from(e.into_error()))?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}
