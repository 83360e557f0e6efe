//! Gathers and pleats on small garments.

use super::GathersChange;
use crate::change::Input;
use crate::garment::{GatherHow, Kind, LongEdge, Width, cloth_named};
use crate::judge::Outcome;
use crate::judge::tests::kinds::round;
use crate::length::Tape;
use crate::place::Level;
use crate::solve::{SolvedTryOn, solve};
use crate::tests::kit::{Fitted, m, trying};

fn waist(long: &str, short: Option<&str>, how: GatherHow) -> GathersChange {
    GathersChange { long: Some(m(long)), short: short.map(m), how, ..GathersChange::of(LongEdge::Waist) }
}

/// Its hip is wide enough for whatever is gathered above it.
fn wide_below(kind: Kind) -> Fitted {
    let mut garment = round(kind);
    let hip = garment.levels.iter_mut().find(|level| level.level == Level::Hip).unwrap();
    hip.width = Width::Girth(m("400 cm"));
    garment
}

fn solved(change: GathersChange, tape: Tape) -> SolvedTryOn {
    wide_below(Kind::Skirt).solved(trying(vec![change]), tape)
}

const TITLE: &str = "Gathers or pleats at the waist";

#[test]
fn a_long_edge_is_brought_to_a_short_one() {
    for (change, outcome, figures) in [
        (
            waist("150 cm", Some("75 cm"), GatherHow::Gathers),
            Outcome::Passes,
            "150.0 − 75.0 = 75.0 cm to take up; 150.0 ÷ 75.0 = 2.00 to 1",
        ),
        // What the garment will measure there: 100.0.
        (
            waist("110 cm", None, GatherHow::Gathers),
            Outcome::Caution,
            "110.0 − 100.0 = 10.0 cm to take up; 110.0 ÷ 100.0 = 1.10 to 1",
        ),
        (
            waist("350 cm", None, GatherHow::Gathers),
            Outcome::Caution,
            "350.0 − 100.0 = 250.0 cm to take up; 350.0 ÷ 100.0 = 3.50 to 1",
        ),
        (waist("100 cm", None, GatherHow::Gathers), Outcome::Stop, "100.0 to be brought to 100.0 cm"),
        // 75 ÷ 5 = 15 pleats of 5.
        (
            waist("150 cm", Some("75 cm"), GatherHow::KnifePleats),
            Outcome::Passes,
            "150.0 − 75.0 = 75.0 cm to take up; 150.0 ÷ 75.0 = 2.00 to 1; 15 pleats, each takes 5.0 cm: 2.5 cm deep",
        ),
        // 80 ÷ 10 = 8 box pleats of 10, two folds of 2.5 on either side.
        (
            waist("150 cm", Some("70 cm"), GatherHow::BoxPleats),
            Outcome::Passes,
            "150.0 − 70.0 = 80.0 cm to take up; 150.0 ÷ 70.0 = 2.14 to 1; 8 pleats, each takes 10.0 cm: 2.5 cm deep",
        ),
        // 74.4 ÷ 5 is near 15: none takes the same near marks of 2 mm, but 12.4 × 6 is too far away.
        (
            GathersChange { count: Some(7), ..waist("150 cm", Some("75.4 cm"), GatherHow::KnifePleats) },
            Outcome::Passes,
            "150.0 − 75.4 = 74.6 cm to take up; 150.0 ÷ 75.4 = 1.99 to 1; 7 pleats: 2 take 10.8, 5 take 10.6 cm",
        ),
        (
            waist("320 cm", None, GatherHow::KnifePleats),
            Outcome::Caution,
            "320.0 − 100.0 = 220.0 cm to take up; 320.0 ÷ 100.0 = 3.20 to 1; 44 pleats, each takes 5.0 cm: 2.5 cm deep",
        ),
    ] {
        let result = solved(change.clone(), Tape::Cm);
        let check = result.check(TITLE);
        assert_eq!((check.outcome, check.figures.as_str()), (outcome, figures), "{change:?}");
        assert_eq!(result.cards.len(), usize::from(outcome != Outcome::Stop));
    }
}

#[test]
fn its_card_says_where_every_fold_lies() {
    let result = solved(waist("30 cm", Some("20 cm"), GatherHow::KnifePleats), Tape::Cm);
    let card = &result.cards[0];
    assert_eq!(card.title, "Pleats, all one way at the waist");
    // Two pleats of 5: half a gap of 10 before the first.
    assert_eq!(card.figures(), [["1", "5.0", "10.0"], ["2", "20.0", "25.0"]]);
    let result = solved(waist("60 in", Some("30 in"), GatherHow::Gathers), Tape::In);
    assert_eq!(result.cards[0].figures()[0], ["1 of 4", "15", "7 1/2"]);
    // Heavy cloth stands up sooner.
    let mut heavy = wide_below(Kind::Skirt);
    heavy.cloth = cloth_named("canvas").unwrap();
    let result = heavy.solved(trying(vec![waist("160 cm", Some("75 cm"), GatherHow::Gathers)]), Tape::Cm);
    assert_eq!(result.check(TITLE).outcome, Outcome::Caution);
    // An edge that is longer than the hip below it, by a mark; and of a sleeve nothing lies below.
    for (long, says) in [
        ("130 cm", "It lies well so."),
        ("130.2 cm", "The hip goes round 130.0 cm, less than this edge: below it the cloth would narrow."),
    ] {
        let mut narrow = round(Kind::Skirt);
        narrow.levels.iter_mut().find(|level| level.level == Level::Hip).unwrap().width =
            Width::Girth(m("130 cm"));
        let check = narrow.solved(trying(vec![waist(long, None, GatherHow::Gathers)]), Tape::Cm);
        assert_eq!(check.check(TITLE).reason, says, "{long}");
    }
}

#[test]
fn what_is_no_length_or_number_is_refused() {
    let with =
        |change| solve(&round(Kind::Skirt).document(vec![trying(vec![change])]), Tape::Cm).unwrap_err();
    for (change, path) in [
        (waist("0 cm", None, GatherHow::Gathers), "long"),
        (GathersChange { count: Some(0), ..waist("90 cm", None, GatherHow::KnifePleats) }, "count"),
        (GathersChange { depth: Some(m("0 cm")), ..waist("90 cm", None, GatherHow::KnifePleats) }, "depth"),
        (GathersChange { long: None, ..GathersChange::of(LongEdge::SleeveHem) }, "at"),
    ] {
        assert_eq!(with(change)[0].path, format!("try_ons[0].changes[0].gathers.{path}"));
    }
}
