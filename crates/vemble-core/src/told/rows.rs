//! What is said of a row of a chalk card.

use crate::chalk::{MarkedPlace, Row};

/// What is there: pin, knee, hem; empty where it only guides the chalk.
pub(crate) fn row_note(row: &Row) -> String {
    let words = |place: &MarkedPlace| {
        Some(match place {
            MarkedPlace::Edge => "edge",
            MarkedPlace::MeetsOldStitching => "meets the old line",
            MarkedPlace::StraightFromHere => "straight from here",
            MarkedPlace::Point => "point",
            MarkedPlace::Corner => "turns the corner",
            MarkedPlace::Pin => "pin",
            MarkedPlace::Level(level) => level.name(),
            MarkedPlace::Between => return None,
        })
    };
    row.places.iter().filter_map(words).collect::<Vec<_>>().join(", ")
}
