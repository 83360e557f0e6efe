//! One pair of darts in figures and words: like a seam whose edges are the two sides of its fold.

use super::result::{MarkResult, MarkSide, SolvedSeam};
use super::seam::{pin, place_words, sides};
use crate::alteration::AlteredDart;
use crate::check::Subject;
use crate::figure::dart_strip;
use crate::fitting::{Edges, FrontShare, GarmentSide};
use crate::garment::word;
use crate::length::{Length, PerEdge, Station};
use crate::line::{Mark, Place, marks_between};

/// A fold has no front and back.
const EDGES: [&str; 2] = ["one side", "other side"];

pub(super) fn solve_dart(subject: &Subject<'_>, dart: &AlteredDart<'_>) -> SolvedSeam {
    let tape = subject.tape;
    let other_end = if dart.dart().has_two_points() { "lower point" } else { "other end" };
    let pins = dart.pins.readings.iter().map(|reading| {
        let added = PerEdge(dart.added(reading.side, reading.at()));
        let line = Edges { front: added, back: added };
        pin(subject, reading, (FrontShare::default(), EDGES), 100, line, Length::ZERO)
    });
    SolvedSeam {
        key: format!("dart.{}", word(&dart.dart())),
        seam: None,
        dart: Some(dart.dart()),
        name: dart.name(),
        edges: EDGES.map(Into::into),
        datum: if dart.dart().has_two_points() { "upper point" } else { "point" }.into(),
        top: other_end.into(),
        length: tape.figure(dart.length),
        allowance: tape.figure(Length::ZERO),
        sides: sides(subject, &dart.sides),
        ends: [
            "runs out to nothing at its point".into(),
            format!("as deep as the last pin at its {other_end}"),
        ],
        lower_is_assumed: false,
        upper_is_assumed: false,
        lower_station: None,
        upper_station: None,
        tolerance: tape.figure(Length::ZERO),
        moves: None,
        keeps_percent: 100,
        goes_on_into: None,
        place: place(subject, dart),
        lengths: Vec::new(),
        pins: pins.collect(),
        is_altered: dart.is_altered(),
        sides_agree: dart.sides_agree(),
        edges_equal: true,
        strip: dart_strip(subject.garment, dart, subject.worn),
    }
}

fn place(subject: &Subject<'_>, dart: &AlteredDart<'_>) -> Option<String> {
    let (point, base) = (dart.point?, dart.base?);
    let tape = subject.tape;
    let assumed = if dart.place_is_assumed { "assumed: " } else { "" };
    let from = dart
        .pins
        .from_side_seam
        .map_or(String::new(), |m| format!(", {} from the side seam", tape.show(m.length)));
    Some(match dart.dart().has_two_points() {
        true => format!("{assumed}from {} down to {} above the hem{from}", tape.bare(point), tape.show(base)),
        false if base == Length::ZERO => format!("{assumed}from the hem up to {}{from}", tape.show(point)),
        false => format!(
            "{assumed}its point {} above the hem, its other end {}{from}",
            tape.bare(point),
            tape.show(base)
        ),
    })
}

/// The rows of its card: both points or ends, each pin, each level, and at least every 5 cm.
pub(crate) fn dart_rows(subject: &Subject<'_>, dart: &AlteredDart<'_>) -> Vec<MarkResult> {
    let end = Station(dart.length);
    let mut places = vec![(Station::default(), Place::Point)];
    places.push((end, if dart.dart().has_two_points() { Place::Point } else { Place::Edge }));
    for pins in &dart.sides.pins {
        places.extend(pins.iter().map(|p| (p.station, Place::Pin)));
    }
    for level in subject.garment.body_levels_up() {
        let station = dart.station_at(level.station.length);
        places.extend(station.map(|s| (s, Place::Level(level.level.name()))));
    }
    let result = |mark: &Mark| {
        let side = |side: GarmentSide| {
            let tape = subject.tape;
            let station = mark.station.min(end);
            let (depth, added) = (dart.depth(side, station), dart.added(side, station));
            let old = match depth == added {
                true => String::new(),
                false => {
                    format!("{} deep now, {} with the pins; ", tape.bare(depth - added), tape.bare(depth))
                }
            };
            let sum = format!(
                "{old}2 × {} = {} taken by each",
                tape.factor(depth, 2, depth * 2),
                tape.show(depth * 2)
            );
            MarkSide {
                front: tape.figure(depth),
                back: tape.figure(depth),
                whole: tape.figure(depth * 2),
                sum,
                cut: None,
            }
        };
        MarkResult {
            station: subject.tape.figure(mark.station.0),
            note: mark.places.iter().filter_map(place_words).collect::<Vec<_>>().join(", "),
            left: Some(side(GarmentSide::Left)),
            right: (!dart.sides_agree()).then(|| side(GarmentSide::Right)),
        }
    };
    marks_between(Station::default(), end, places, subject.tape).iter().map(result).collect()
}
