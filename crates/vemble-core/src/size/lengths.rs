//! Lengths come after the size: what the paper is drawn for against the wearer, and where its hem lands.

use super::search::Candidate;
use super::{Table, Wanted};
use crate::body::BodyMeasurement;
use crate::length::Length;
use crate::place::Level;
use crate::work::ChartSays;

/// Lengths that a chart may have, the level whose size they go with, and where paper is made longer or shorter for them.
const LENGTHS: [(BodyMeasurement, Level, &str); 5] = [
    (BodyMeasurement::BackNeckToWaist, Level::Bust, "between bust and waist, front and back"),
    (BodyMeasurement::BodyRise, Level::Hip, "between waist and crotch, front and back"),
    (BodyMeasurement::InsideLeg, Level::Hip, "between knee and hem, front and back"),
    (BodyMeasurement::OutsideLeg, Level::Hip, "between knee and hem, front and back"),
    (BodyMeasurement::ArmLength, Level::Bust, "half above the elbow, half below"),
];

/// What is found about one length.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Found {
    /// The paper is drawn for this length, the wearer has that one.
    DrawnFor { paper: Length, body: Length },
    /// Paper held to the body was too short by so much.
    Held { by: Length },
    /// The finished garment reaches down so far, the wearer's floor is that far.
    Reaches { finished: Length, floor: Length },
}

/// What is found about every length of a candidate. What was held to the body goes before what is reckoned.
pub(super) fn lengths(
    table: &Table<'_>,
    wanted: &[Wanted],
    candidate: &Candidate,
) -> Vec<(BodyMeasurement, &'static str, Found)> {
    let chart = &table.pattern.charts[candidate.chart];
    let mut all = Vec::new();
    for (what, level, line) in LENGTHS {
        let at = wanted.iter().position(|w| w.level == level).unwrap_or(0);
        let figure = |says| table.figure(chart, what, says, *candidate.sizes.get(at)?);
        let body = table.body(what);
        let held = table.pattern.held.iter().find(|held| held.what == what);
        let is_to_the_floor = matches!(what, BodyMeasurement::InsideLeg | BodyMeasurement::OutsideLeg);
        match (held, figure(ChartSays::Body), body) {
            (Some(held), _, _) => all.push((what, line, Found::Held { by: table.read(held.by) })),
            (None, Some(paper), Some(body)) => all.push((what, line, Found::DrawnFor { paper, body })),
            (None, _, _) => {}
        }
        if let (Some(finished), Some(floor), true) = (figure(ChartSays::Finished), body, is_to_the_floor) {
            all.push((what, line, Found::Reaches { finished, floor }));
        }
    }
    all
}
