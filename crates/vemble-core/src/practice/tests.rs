//! What a practice round calls right is what the core says; every answer explains itself; slips that were made come again.

use super::rounds::{Numbers, garment, measured, pins, solved};
use super::*;
use crate::change::seam::SeamChange;
use crate::fitting::{End, How};
use crate::garment::{Kind, Seam};
use crate::judge::{Outcome, Rule};
use crate::length::Length;
use crate::tests::anything::is_well_said;
use proptest::prelude::*;
use std::collections::BTreeSet;

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn every_round_can_be_answered_and_says_why(number: u32, slip in proptest::sample::select(Slip::ALL), tape in proptest::sample::select(Tape::ALL)) {
        let round = round(slip, number, tape);
        prop_assert!(!round.question.is_empty() && round.options.len() >= 2);
        let distinct: BTreeSet<&String> = round.options.iter().collect();
        prop_assert_eq!(distinct.len(), round.options.len(), "{:?}", round.options);
        is_well_said(&round);
        let right = answered(slip, number, 0, tape).right;
        for chosen in 0..round.options.len() {
            let answer = answered(slip, number, chosen, tape);
            prop_assert_eq!(answer.is_right, chosen == right);
            is_well_said(&answer);
        }
        prop_assert!(!answered(slip, number, 99, tape).is_right);
        // The figure that is right stands in the sum that explains it; a side is named.
        let figure = round.options[right].trim_start_matches("nothing: the cloth is too short for it");
        let bare = figure.trim_end_matches(" cm").trim_end_matches(" in").trim_start_matches("the ");
        let why = answered(slip, number, right, tape).explains;
        prop_assert!(why.contains(bare), "{bare} in {why}");
        prop_assert_eq!(super::round(slip, number, tape), round);
    }

    /// A taper that ends where the round says is safe; one that ends a mark earlier is not.
    #[test]
    fn a_taper_ends_where_the_judge_says(marks in 6_i64..16, cloth in proptest::sample::select(&["cotton lawn", "denim", "jersey"][..])) {
        let tape = Tape::Cm;
        let read = tape.mark() * marks;
        let Some(garment) = garment(Kind::Trousers, cloth) else { return Ok(()) };
        let outcome = |end: Length| {
            let change = SeamChange {
                readings: pins(tape.round(Length::from_mm(200)), read, How::Fold, tape),
                upper: Some(End::MeetsOldStitching { station: measured(end, tape) }),
                lower: Some(End::RunsOff {}),
                ..SeamChange::of(Seam::Outseam)
            };
            let solved = solved(&garment, vec![change.into()], tape)?;
            let check = solved.try_ons[0].checks.iter().find(|check| check.key.rule == Rule::RunOut)?;
            Some(check.outcome)
        };
        let end = Length::from_mm(200) + read * garment.cloth.safe_run_out();
        prop_assert_eq!(outcome(end), Some(Outcome::Passes));
        prop_assert_eq!(outcome(end - tape.mark()), Some(Outcome::Caution));
    }
}

/// The figures of a question, in cm, in their order.
fn figures(question: &str) -> Vec<f64> {
    let words: Vec<&str> = question.split([' ', ';', '?', ',']).collect();
    words
        .windows(2)
        .filter(|pair| pair[1].starts_with("cm"))
        .filter_map(|pair| pair[0].parse().ok())
        .collect()
}

/// What is right, counted here with nothing of the core: four edges of two seams, half of a gap, two folds of two darts, and what is
/// turned up, more by what comes off, less by the new hem.
#[test]
fn right_answers_by_hand() {
    for slip in [Slip::Halving, Slip::Gap, Slip::Darts, Slip::HemCut] {
        for number in 0..200 {
            let round = round(slip, number, Tape::Cm);
            let read = figures(&round.question);
            let wanted = match slip {
                Slip::Halving if round.question.contains("folded cloth") => read[0] * 4.0,
                Slip::Halving => read[0] * 2.0,
                Slip::Gap => read[0] / 2.0,
                Slip::Darts => read[0] * 4.0,
                Slip::HemCut => read[0] + read[1] - read[2],
                Slip::InsideOut | Slip::Taper => unreachable!(),
            };
            let right = &round.options[answered(slip, number, 0, Tape::Cm).right];
            let is_nothing = wanted < 0.05;
            let wanted = if is_nothing {
                "nothing: the cloth is too short for it".into()
            } else {
                format!("{wanted:.1} cm")
            };
            assert_eq!(*right, wanted, "{}", round.question);
        }
    }
}

#[test]
fn slips_that_were_made_come_again_and_those_that_cost_cloth_first() {
    let often = |practised: &[Practised], slip: Slip| {
        (0..4000).filter(|number| next_slip(practised, *number) == slip).count()
    };
    let nothing = Slip::ALL.iter().map(|slip| often(&[], *slip)).collect::<Vec<_>>();
    assert!(nothing.iter().all(|count| *count > 200), "{nothing:?}");
    assert!(often(&[], Slip::Halving) > often(&[], Slip::Taper));
    let wrong = [Practised { slip: Slip::Taper, right: 0, wrong: 3 }];
    assert!(often(&wrong, Slip::Taper) > 2 * often(&[], Slip::Taper));
    let right = [Practised { slip: Slip::Taper, right: 9, wrong: 0 }];
    assert!(often(&right, Slip::Taper) < often(&[], Slip::Taper));
    let mut room = crate::work::Workroom::default();
    room.remember(Slip::Gap, false);
    room.remember(Slip::Gap, true);
    room.remember(Slip::Gap, true);
    assert_eq!(room.practised, [Practised { slip: Slip::Gap, right: 2, wrong: 1 }]);
    assert!(Numbers::of(7).below(0) == 0);
}
