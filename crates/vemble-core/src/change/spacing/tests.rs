//! Fastenings spaced along an edge: the reference, what must hold for every edge, and what is refused.

use super::places::gaps;
use super::{Spaced, SpacingChange, even, onward, straddling};
use crate::change::hem::HemChange;
use crate::change::{Change, ChangeKey, Input};
use crate::garment::{Closure, ClosureFacts, HemEdge, Kind, Opening};
use crate::judge::tests::kinds::round;
use crate::judge::{Outcome, Rule};
use crate::length::{Length, Measure, Tape, Unit};
use crate::place::Level;
use crate::shown::Shows;
use crate::solve::{SolvedTryOn, solve};
use crate::tests::kit::{Fitted, m, trying};
use proptest::prelude::*;
use serde_json::Value;

/// A shirt whose front is fastened by so many of something.
fn shirt(closure: Closure, count: u8) -> Fitted {
    let mut shirt = round(Kind::Shirt);
    shirt.closures = vec![ClosureFacts { closure, at: Opening::CentreFront, count }];
    shirt
}

fn spacing(edge: &str) -> SpacingChange {
    SpacingChange { edge: Some(m(edge)), ..SpacingChange::of(Opening::CentreFront) }
}

fn spaced(result: &SolvedTryOn) -> Vec<f64> {
    let shown = result.changes.iter().find_map(|change| match &change.shows {
        Shows::Spacing(shown) => shown.comes.as_ref(),
        _ => None,
    });
    shown.unwrap().places_mm.clone()
}

fn lengths(value: &Value) -> Vec<Length> {
    value
        .as_array()
        .unwrap()
        .iter()
        .map(|mm| Length::from_nm((mm.as_f64().unwrap() * 1e6).round() as i64))
        .collect()
}

#[test]
fn every_place_of_the_reference_is_given() {
    let reference: Value = serde_json::from_str(include_str!("../hem/hems.json")).unwrap();
    let near = |found: Vec<Length>, wanted: Vec<Length>, case: &Value| {
        assert_eq!(found.len(), wanted.len(), "{case}");
        assert!(
            found.iter().zip(&wanted).all(|(a, b)| (*a - *b).abs() <= Length::from_nm(1)),
            "{case} {found:?}"
        );
    };
    let mut cases = 0;
    for case in reference["even"].as_array().unwrap() {
        let of = |field: &str| Length::from_mm(case[field].as_i64().unwrap());
        let n = gaps(of("last") - of("first"), of("pitch"));
        near(even(of("first"), of("last"), n), lengths(&case["at"]), case);
        cases += 1;
    }
    for case in reference["straddling"].as_array().unwrap() {
        let of = |field: &str| Length::from_mm(case[field].as_i64().unwrap());
        near(straddling(of("top"), of("bottom"), of("waist"), of("pitch")), lengths(&case["at"]), case);
        cases += 1;
    }
    assert_eq!(cases, 7);
}

#[test]
fn a_shortened_front_is_spaced_anew_between_its_ends() {
    let shirt = shirt(Closure::Buttons, 7);
    let typed = SpacingChange { first: Some(m("6 cm")), last: Some(m("10 cm")), ..spacing("70 cm") };
    let now = shirt.solved(trying(vec![typed.clone()]), Tape::Cm);
    assert_eq!(spaced(&now), [60.0, 150.0, 240.0, 330.0, 420.0, 510.0, 600.0]);
    let hem = HemChange { off: Some(m("6 cm")), ..HemChange::of(HemEdge::Body) };
    let changes: Vec<Change> = vec![hem.into(), typed.clone().into()];
    let shorter = shirt.solved(trying(changes.clone()), Tape::Cm);
    assert_eq!(spaced(&shorter), [60.0, 140.0, 220.0, 300.0, 380.0, 460.0, 540.0]);
    let card =
        shorter.cards.iter().find(|card| card.key == ChangeKey::Spacing(Opening::CentreFront)).unwrap();
    assert_eq!(card.title, "Buttons, centre front");
    assert_eq!(card.figures()[1], ["2", "14.0"]);
    let said = card.sentences().join("\n");
    assert!(said.contains("7 on each edge, 8.0 cm apart"), "{said}");
    let sum = "Edge 70.0 − 6.0 off at the hem − 6.0 to the first − 10.0 below the last = 48.0 cm to space";
    assert!(said.contains(sum), "{said}");
    // Left where they are, the last would come to lie 4 cm above the new edge: it stays; shortened by 9 cm it is dropped.
    let kept = SpacingChange { how: Spaced::Kept, ..typed };
    let with = |off: &str| {
        let hem = HemChange { off: Some(m(off)), ..HemChange::of(HemEdge::Body) };
        shirt.solved(trying(vec![Change::from(hem), kept.clone().into()]), Tape::Cm)
    };
    assert_eq!(spaced(&with("6 cm")).len(), 7);
    assert_eq!(spaced(&with("9 cm")), [60.0, 150.0, 240.0, 330.0, 420.0, 510.0]);
}

#[test]
fn a_front_that_gapes_at_the_bust_gets_a_button_there() {
    let mut shirt = shirt(Closure::Buttons, 7);
    let bust = shirt.levels.iter_mut().find(|l| l.level == Level::Bust).unwrap();
    bust.station = m("49 cm");
    let result = shirt.solved(trying(vec![spacing("70 cm")]), Tape::Cm);
    // 1.5 + 60.5 ÷ 6 each: 21.7 is the third, 0.7 from 21.0.
    assert_eq!(result.check("Buttons, centre front at the bust").outcome, Outcome::Passes);
    let few = SpacingChange { count: Some(5), ..spacing("70 cm") };
    let result = shirt.solved(trying(vec![few]), Tape::Cm);
    let check = result.check("Buttons, centre front at the bust");
    assert_eq!(check.outcome, Outcome::Caution);
    assert!(check.figures.starts_with("the bust line lies 21.0 cm below the top"), "{}", check.figures);
    let mended = shirt.solved(trying(check.mend.clone()), Tape::Cm);
    assert!(spaced(&mended).contains(&210.0), "{:?}", spaced(&mended));
    assert_eq!(mended.check("Buttons, centre front at the bust").outcome, Outcome::Passes);
}

#[test]
fn more_than_fit_are_not_crammed_in() {
    let shirt = shirt(Closure::Buttons, 7);
    let many = SpacingChange { count: Some(40), ..spacing("50 cm") };
    let result = shirt.solved(trying(vec![many]), Tape::Cm);
    let check = result.check("Spacing of the buttons");
    assert_eq!((check.outcome, result.cards.len()), (Outcome::Stop, 0));
    assert_eq!(check.reason, "Closer than 2.0 cm they cannot be worked: 21 fit.");
    let mended = shirt.solved(trying(check.mend.clone()), Tape::Cm);
    assert_eq!(
        (spaced(&mended).len(), mended.check("Spacing of the buttons").outcome),
        (21, Outcome::Passes)
    );
    // Nothing is left between the first and the last; one alone has nothing to be apart from; two may gape.
    let check = |change| shirt.solved(trying(vec![change]), Tape::Cm).check("Spacing of the buttons").clone();
    assert_eq!(check(spacing("9 cm")).reason, "Nothing is left between the first and the last.");
    let one = check(SpacingChange { count: Some(1), ..spacing("50 cm") });
    assert_eq!((one.outcome, one.figures.as_str()), (Outcome::Passes, "1 on each edge"));
    let two = check(SpacingChange { count: Some(2), ..spacing("50 cm") });
    assert_eq!((two.outcome, two.mend.len()), (Outcome::Caution, 1));
    let mended = shirt.solved(trying(two.mend), Tape::Cm);
    assert_eq!(mended.check("Spacing of the buttons").outcome, Outcome::Passes);
}

#[test]
fn lacing_stands_astride_the_waist() {
    let mut bodice = round(Kind::BonedBodice);
    bodice.closures = vec![ClosureFacts { closure: Closure::Lacing, at: Opening::CentreBack, count: 28 }];
    let lacing = SpacingChange {
        how: Spaced::Straddling,
        edge: Some(m("39 cm")),
        first: Some(m("1 cm")),
        last: Some(m("1 cm")),
        apart: Some(m("2.5 cm")),
        line: Some(m("20 cm")),
        ..SpacingChange::of(Opening::CentreBack)
    };
    let result = bodice.solved(trying(vec![lacing.clone()]), Tape::CmHalves);
    let at = spaced(&result);
    assert!(at.contains(&190.0) && at.contains(&215.0), "12.5 on either side, at half centimetres: {at:?}");
    assert_eq!(at.len(), 15);
    let unknown = bodice.solved(trying(vec![SpacingChange { line: None, ..lacing.clone() }]), Tape::Cm);
    assert!(unknown.check("Spacing of the eyelets").reason.contains("not known along this edge"));
    let low = SpacingChange { line: Some(m("37.9 cm")), ..lacing };
    let half = bodice.solved(trying(vec![low]), Tape::Cm);
    assert_eq!(half.check("Eyelets, centre back about the waist").outcome, Outcome::Caution);
}

#[test]
fn what_cannot_be_is_refused_by_name() {
    let shirt = shirt(Closure::Buttons, 7);
    for (change, path) in [
        (spacing("0 cm"), "edge"),
        (SpacingChange { first: Some(m("-1 cm")), ..spacing("50 cm") }, "first"),
        (SpacingChange { apart: Some(m("0 cm")), ..spacing("50 cm") }, "apart"),
        (SpacingChange { count: Some(0), ..spacing("50 cm") }, "count"),
        (SpacingChange { count: Some(61), ..spacing("50 cm") }, "count"),
        (SpacingChange { at: Opening::Cuff, ..spacing("50 cm") }, "at"),
    ] {
        let faults = solve(&shirt.document(vec![trying(vec![change])]), Tape::Cm).unwrap_err();
        assert_eq!(faults[0].path, format!("try_ons[0].changes[0].spacing.{path}"));
    }
}

proptest! {
    /// Evenly: the first and the last where they are to be, and no two further apart than any others by more than a mark.
    #[test]
    fn what_is_even_stays_even_on_every_tape(edge in 200_i64..1500, off in -50_i64..100, count in 2_u8..20) {
        let shirt = shirt(Closure::Buttons, count);
        let mm = |mm: i64| Some(Measure { length: Length::from_mm(mm), unit: Unit::Cm });
        let hem = HemChange { off: mm(off), ..HemChange::of(HemEdge::Body) };
        let change = SpacingChange { edge: mm(edge), first: mm(20), last: mm(60), ..SpacingChange::of(Opening::CentreFront) };
        for tape in Tape::ALL.iter().copied() {
            let Ok(result) = solve(&shirt.document(vec![trying(vec![Change::from(hem.clone()), change.clone().into()])]), tape) else { continue };
            let result = &result.try_ons[0];
            let at = spaced(result);
            let stops = result.checks.iter().any(|c| c.key.rule == Rule::Spacing && c.outcome == Outcome::Stop);
            prop_assert_eq!(at.is_empty(), stops);
            if at.is_empty() { continue }
            prop_assert_eq!(at.len(), usize::from(count));
            let on = |mm: i64| tape.round(Length::from_mm(mm));
            let last = on(edge) - on(off) - on(60);
            prop_assert_eq!((at[0], at[at.len() - 1]), (on(20).cm() * 10.0, last.cm() * 10.0));
            let gaps: Vec<f64> = at.windows(2).map(|pair| pair[1] - pair[0]).collect();
            let (least, most) = gaps.iter().fold((f64::MAX, 0.0_f64), |(a, b), g| (a.min(*g), b.max(*g)));
            prop_assert!(most - least <= tape.mark().cm() * 10.0 * 1.01, "{gaps:?}");
        }
    }

    /// On the line: one stands there, the first where it is, all at one distance, and none below the last.
    #[test]
    fn one_stands_on_the_line(first in 0_i64..50, line in 60_i64..400, more in 0_i64..400, pitch in 15_i64..120) {
        let [first, line, last] = [first, line, line + more].map(Length::from_mm);
        let at = onward(first, line, last, gaps(line - first, Length::from_mm(pitch)));
        prop_assert!(at[0] == first && at.contains(&line) && at[at.len() - 1] <= last);
        let next = at[at.len() - 1] + (at[1] - at[0]);
        prop_assert!(next > last - Length::from_nm(2));
        let astride = straddling(first, last, line, Length::from_mm(pitch));
        prop_assert!(astride.iter().all(|place| (first..=last).contains(place) && *place != line));
    }
}
