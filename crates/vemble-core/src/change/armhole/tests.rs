//! Armholes and caps: lengths against integration, what goes up and down again, and what speaks against them.

use super::flat::{Flat, beside, cap, cap_height, cap_length, place};
use super::lift::{lifts_to, stands_at};
use super::{AlteredArmhole, ArmholeAt, ArmholeChange, draw};
use crate::body::BodyMeasurement;
use crate::change::seam::SeamChange;
use crate::change::{Change, Input, On};
use crate::fitting::GarmentSide;
use crate::garment::Seam;
use crate::judge::{Outcome, Partner, Rule};
use crate::length::{Length, Measure, Tape};
use crate::solve::{SolvedTryOn, solve};
use crate::tests::kit::{Fitted, m, trying};
use kurbo::{CubicBez, ParamCurve, ParamCurveDeriv};
use proptest::prelude::*;

fn demo(name: &str) -> Fitted {
    let path = format!("{}/../../demo/{name}.json", env!("CARGO_MANIFEST_DIR"));
    let document: crate::document::Document =
        serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap();
    Fitted { garment: document.newest().unwrap().garment.clone(), wearer: document.wearer }
}

const SLEEVED: [&str; 4] = ["concert-shirt", "tea-dress", "overcoat", "jersey-top"];

fn change() -> ArmholeChange {
    ArmholeChange::of(ArmholeAt::Both)
}

fn solved(fitted: &Fitted, change: ArmholeChange, tape: Tape) -> SolvedTryOn {
    fitted.solved(trying(vec![change]), tape)
}

fn drawn<'a>(fitted: &'a Fitted, change: &'a ArmholeChange) -> AlteredArmhole<'a> {
    let Fitted { garment, wearer } = fitted;
    draw(On { garment, wearer, hem_marks: &[], keeps_all: false }, &[(0, change)]).unwrap().remove(0)
}

/// Length by Simpson's rule, of the speed along the curve.
fn integrated(curves: &[CubicBez]) -> f64 {
    const STEPS: u32 = 2_000;
    let of = |curve: &CubicBez| {
        let speed = |n: u32| curve.deriv().eval(f64::from(n) / f64::from(STEPS)).to_vec2().hypot();
        let inner: f64 = (1..STEPS).map(|n| if n % 2 == 1 { 4.0 * speed(n) } else { 2.0 * speed(n) }).sum();
        (speed(0) + inner + speed(STEPS)) / (3.0 * f64::from(STEPS))
    };
    curves.iter().map(of).sum()
}

#[test]
fn an_armhole_is_as_long_as_its_seam_was_found_and_as_integration_says() {
    for name in SLEEVED {
        let fitted = demo(name);
        let flat = Flat::of(&fitted).unwrap();
        let [front, back] = flat.lengths();
        let found = fitted.seam(Seam::ArmholeSeam).unwrap().length.length.cm();
        assert!((front + back - found).abs() < 1e-4, "{name}: {front} + {back}, found {found}");
        assert!((integrated(&flat.front_edge()) - front).abs() < 1e-4, "{name}");
        assert!((integrated(&flat.back_edge()) - back).abs() < 1e-4, "{name}");
        assert!(front > back, "{name}: the front goes further in, and is longer for it");
    }
}

#[test]
fn a_low_armhole_with_a_flat_cap_ties_the_arm_down_and_raising_it_sets_it_free() {
    let shirt = demo("concert-shirt");
    let low = ArmholeChange { hinge: Some(m("6 cm")), ..change() };
    let lift = |raise: &str| {
        let change = ArmholeChange { raise: Some(m(raise)), ..low.clone() };
        drawn(&shirt, &change).sums(Tape::Cm).lift.map(Option::unwrap)
    };
    let [before, raised] = lift("2 cm");
    assert!(raised > before + 10, "{before}° to {raised}°");
    let [_, lowered] = lift("-2 cm");
    assert!(lowered < before, "{before}° to {lowered}°");
    let tied = solved(&shirt, ArmholeChange { raise: Some(m("-2 cm")), ..low }, Tape::Cm);
    assert_eq!(tied.check("Lifting the arm").outcome, Outcome::Caution);
}

#[test]
fn what_speaks_against_an_armhole_is_told_with_what_would_mend_it() {
    let shirt = demo("concert-shirt");
    // Above the arm.
    let above = ArmholeChange { hinge: Some(m("1.5 cm")), raise: Some(m("2 cm")), ..change() };
    let above = solved(&shirt, above, Tape::Cm);
    let check = above.check("Under the arm");
    assert_eq!(
        (check.outcome, check.figures.as_str()),
        (Outcome::Stop, "1.5 below the hinge of the arm − 2.0 = −0.5 cm")
    );
    // More cloth than the seam has.
    assert_eq!(above.check("Cloth at the armhole").outcome, Outcome::Stop);
    let mut toile = shirt.clone();
    toile.toile = true;
    let on_paper = solved(&toile, ArmholeChange { raise: Some(m("1 cm")), ..change() }, Tape::Cm);
    assert!(on_paper.checks.iter().all(|check| check.key.rule != Rule::Capacity), "a toile is pieced");
    // A cap shorter than its armhole, which is mended by shaping it.
    let short = ArmholeChange { cap: Some(m("52 cm")), raise: Some(m("-1 cm")), ..change() };
    let document = shirt.document(vec![trying(vec![short])]);
    let stopped = solve(&document, Tape::Cm).unwrap().try_ons.remove(0);
    let check = stopped.check("Cap of the");
    assert_eq!(check.outcome, Outcome::Stop);
    assert!(check.figures.contains(": too short; 0.0 to 1.5 cm is usual here"), "{}", check.figures);
    // Wider by more than the seam gives: a gusset, with its width.
    let wide = solved(&shirt, ArmholeChange { widen: Some(m("4 cm")), ..change() }, Tape::Cm);
    let check =
        wide.checks.iter().find(|c| c.key.partner == Some(Partner::Sleeve) && c.key.rule == Rule::Capacity);
    assert!(check.unwrap().remedy.as_ref().unwrap().starts_with("Set a gusset in under the arm"));
    // Nothing of a cap is left.
    let none = solved(&shirt, ArmholeChange { cap: Some(m("30 cm")), ..change() }, Tape::Cm);
    assert!(none.checks.is_empty(), "what is measured alone changes nothing");
    let none = ArmholeChange { cap: Some(m("30 cm")), pitch: Some(m("1 cm")), ..change() };
    assert_eq!(solved(&shirt, none, Tape::Cm).check("Cap of the").outcome, Outcome::Stop);
}

#[test]
fn a_shoulder_is_shortened_to_where_the_arm_begins_and_slopes_with_its_armhole() {
    let mut coat = demo("overcoat");
    let seam = coat.seam(Seam::ShoulderSeam).unwrap().length.length;
    let body = Measure { length: seam - Length::from_mm(25), unit: crate::length::Unit::Cm };
    coat.wearer.measurements.retain(|taken| taken.what != BodyMeasurement::ShoulderLength);
    coat.wearer.measurements.push(crate::body::Taken {
        what: BodyMeasurement::ShoulderLength,
        date: None,
        value: Some(body),
        left: None,
        right: None,
    });
    let little = solved(&coat, ArmholeChange { shorten: Some(m("0.5 cm")), ..change() }, Tape::Cm);
    let check = little.check("Length of the shoulder");
    assert_eq!(check.outcome, Outcome::Caution);
    assert_eq!(check.remedy.as_deref(), Some("Shorten it by 1.0 to 3.0 cm."));
    let enough = solved(&coat, ArmholeChange { shorten: Some(m("2 cm")), ..change() }, Tape::Cm);
    assert_eq!(enough.check("Length of the shoulder").outcome, Outcome::Passes);
    // Pads out and a slope take the whole armhole down: it is as long as before, and as low under the arm.
    let sloped = ArmholeChange { slope: Some(m("0.6 cm")), pads_out: Some(m("1 cm")), ..change() };
    let drawn = drawn(&coat, &sloped);
    let sums = drawn.sums(Tape::Cm);
    assert_eq!((sums.armhole()[0], sums.drop[0]), (sums.armhole()[1], sums.drop[1]));
    assert_eq!(drawn.off_shoulder(Tape::Cm)[1], [m("1.6 cm").length; 2]);
    // Square shoulders need cloth.
    let square = solved(&coat, ArmholeChange { slope: Some(m("-2 cm")), ..change() }, Tape::Cm);
    assert_eq!(square.check("Cloth at the shoulder seam").outcome, Outcome::Stop);
    // Forward: what the front edge loses the back edge gains.
    let forward = ArmholeChange { forward: Some(m("0.8 cm")), ..change() };
    let [front, back] = self::drawn(&coat, &forward).off_shoulder(Tape::Cm)[1];
    assert_eq!(front, -back);
    // What is pinched out of the neckline comes off its front on both sides, and the collar with it.
    let gape = solved(&coat, ArmholeChange { gape: Some(m("0.7 cm")), ..change() }, Tape::Cm);
    let neck = gape.levels.iter().find(|l| l.level == crate::place::Level::Neck).unwrap();
    assert!(neck.sum.contains("− 1.4 (front of the neckline: 2 sides × 0.7)"), "{}", neck.sum);
    assert_eq!(gape.check("What is sewn to the neck").figures, "2 sides × 0.7 = 1.4 cm off the neckline");
}

#[test]
fn what_cannot_be_of_an_armhole_is_refused_with_its_field() {
    let shirt = demo("concert-shirt");
    let wrong = |change: ArmholeChange| {
        let document = shirt.document(vec![trying(vec![change])]);
        let faults = solve(&document, Tape::Cm).unwrap_err();
        let fault = &faults[0];
        (fault.path.rsplit('.').next().unwrap().to_owned(), fault.wrong.found(Tape::Cm))
    };
    let far = wrong(ArmholeChange { raise: Some(m("30 cm")), ..change() });
    assert_eq!(far, ("raise".into(), "30 cm, more than half the depth of the armhole".into()));
    assert_eq!(wrong(ArmholeChange { hinge: Some(m("-1 cm")), ..change() }).0, "hinge");
    assert_eq!(wrong(ArmholeChange { cap: Some(m("0 cm")), ..change() }).0, "cap");
    assert_eq!(wrong(ArmholeChange { widen: Some(m("-90 cm")), ..change() }).0, "widen");
    let both = [ArmholeAt::Both, ArmholeAt::OnLeft].map(ArmholeChange::of);
    let twice = solve(&shirt.document(vec![trying(both.into())]), Tape::Cm).unwrap_err();
    assert_eq!(twice[0].path, "try_ons[0].changes[1].armhole.at");
    let mut skirt = demo("school-skirt");
    skirt.garment.toile = true;
    assert!(solve(&skirt.document(vec![trying(vec![change()])]), Tape::Cm).is_err());
}

#[test]
fn a_seam_that_ends_at_the_armhole_is_named_beside_its_lengths() {
    let shirt = demo("concert-shirt");
    let pinned = |seam, station: &str| {
        let pins = GarmentSide::BOTH.map(|side| crate::tests::kit::pin(side, station, "0.5 cm"));
        Change::from(SeamChange { readings: pins.into(), ..SeamChange::of(seam) })
    };
    let raised = Change::from(ArmholeChange { raise: Some(m("0.4 cm")), ..change() });
    let top = shirt.seam(Seam::SideSeam).unwrap().length.to_string();
    let sleeve = shirt.seam(Seam::SleeveSeam).unwrap().length.to_string();
    for (seam, station, edge) in [
        (Seam::ShoulderSeam, "6 cm", Some("the armhole is not")),
        (Seam::SideSeam, &top[..], Some("the armhole is not")),
        (Seam::SideSeam, "20 cm", None),
        (Seam::SleeveSeam, &sleeve[..], Some("the cap is not")),
    ] {
        let solved = shirt.solved(trying(vec![pinned(seam, station), raised.clone()]), Tape::Cm);
        let named = solved.checks.iter().find(|c| c.title.starts_with("Altered beside"));
        assert_eq!(named.is_some(), edge.is_some(), "{seam:?} at {station}");
        assert!(named.is_none_or(|named| named.reason.contains(edge.unwrap())), "{named:?}");
    }
}

#[test]
fn one_side_alone_changes_its_own_sleeve() {
    let shirt = demo("concert-shirt");
    let left = ArmholeChange { at: ArmholeAt::OnLeft, widen: Some(m("2 cm")), ..change() };
    let solved = solved(&shirt, left, Tape::Cm);
    let arms: Vec<(&str, String)> = solved
        .levels
        .iter()
        .filter(|l| l.level == crate::place::Level::UpperArm)
        .map(|l| (&l.name[..], l.off.text()))
        .collect();
    assert_eq!(
        arms,
        [("upper arm, left sleeve", "−2.0 cm".into()), ("upper arm, right sleeve", "0.0 cm".into())]
    );
}

#[test]
fn the_card_of_an_armhole_is_read_whole() {
    let shirt = demo("concert-shirt");
    let change = ArmholeChange {
        hinge: Some(m("4 cm")),
        raise: Some(m("1 cm")),
        front_in: Some(m("0.8 cm")),
        widen: Some(m("1.2 cm")),
        cap_ease: Some(m("1 cm")),
        pitch: Some(m("1 cm")),
        shorten: Some(m("0.6 cm")),
        slope: Some(m("0.4 cm")),
        ..change()
    };
    for tape in [Tape::Cm, Tape::In] {
        let solved = solved(&shirt, change.clone(), tape);
        let card = &solved.cards[0];
        let tables: Vec<String> = card
            .blocks
            .iter()
            .filter_map(|block| if let crate::card::Block::Table(table) = block { Some(table) } else { None })
            .map(|table| {
                let row = |row: &crate::card::TableRow| {
                    row.cells.iter().map(|cell| cell.text.clone()).collect::<Vec<_>>().join(" | ")
                };
                table.rows.iter().map(row).collect::<Vec<_>>().join("\n")
            })
            .collect();
        insta::assert_snapshot!(
            format!("armhole_card_{}", tape.word()),
            format!("{}\n\n{}\n\n{}", card.title, card.sentences().join("\n"), tables.join("\n\n"))
        );
    }
}

proptest! {
    /// A cap is found again by its length, whatever its width; longer is higher.
    #[test]
    fn a_cap_is_as_long_as_it_was_asked_to_be(wide in 20.0..60.0_f64, more in 0.5..40.0_f64) {
        let length = wide + more;
        let high = cap_height(wide, length).unwrap();
        prop_assert!((cap_length(wide, high) - length).abs() < 1e-4);
        prop_assert!((integrated(&cap(wide, high)) - length).abs() < 1e-4);
        prop_assert!(cap_height(wide, length + 1.0).unwrap() > high);
        prop_assert!(cap_height(wide, wide).is_none());
    }

    /// Up and down again is as it was; nothing moved lies nowhere beside itself; what goes in makes no armhole shorter under the arm.
    #[test]
    fn raising_and_lowering_is_the_identity(raise in -40_i64..40, front in -20_i64..30, back in -20_i64..30, name in 0..4_usize) {
        let mut fitted = demo(SLEEVED[name]);
        let mm = |n: i64| Some(Measure { length: Length::from_mm(n), unit: crate::length::Unit::Cm });
        let there = ArmholeChange { raise: mm(raise), front_in: mm(front), back_in: mm(back), ..change() };
        let drawn_there = drawn(&fitted, &there);
        let back_again = Flat {
            underarm: drawn_there.new.underarm - kurbo::Vec2::new(0.0, raise as f64 / 10.0),
            front: drawn_there.new.front + kurbo::Vec2::new(front as f64 / 10.0, 0.0),
            back: drawn_there.new.back + kurbo::Vec2::new(back as f64 / 10.0, 0.0),
            ..drawn_there.new
        };
        for (a, b) in back_again.lengths().iter().zip(drawn_there.old.lengths()) {
            prop_assert!((a - b).abs() < 1e-9);
        }
        let edge = drawn_there.old.front_edge();
        for along in [0.0, 3.0, 9.0, 15.0] {
            prop_assert!(beside(&edge, &edge, along).unwrap().abs() < 1e-6);
            prop_assert!(place(&edge, along).is_some());
        }
        // The sums are sums on every tape.
        for tape in Tape::ALL.iter().copied() {
            let sums = drawn_there.sums(tape);
            let [[f0, b0], [f1, b1]] = sums.edges;
            prop_assert_eq!(sums.armhole(), [f0 + b0, f1 + b1]);
            prop_assert_eq!(sums.ease()[1] + sums.armhole()[1], sums.cap[1]);
        }
        fitted.garment.toile = true;
        let solved = solved(&fitted, there.clone(), Tape::In);
        prop_assert!(solved.changes.iter().any(|c| c.key.to_string() == "armhole.both"));
        let _ = Change::from(there);
    }

    /// Round the upper arm is one figure, whoever says it: the form, and the level.
    #[test]
    fn a_sleeve_is_as_wide_as_its_level_says(widen in -30_i64..40, elbow in -20_i64..20, name in 0..4_usize, tape in proptest::sample::select(Tape::ALL)) {
        let mut fitted = demo(SLEEVED[name]);
        fitted.garment.toile = true;
        let mm = |n: i64| Some(Measure { length: Length::from_mm(n), unit: crate::length::Unit::Cm });
        let has_elbow = fitted.level(crate::place::Level::Elbow).is_some();
        let change = ArmholeChange { widen: mm(widen), widen_elbow: mm(elbow).filter(|_| has_elbow), ..change() };
        let solved = solved(&fitted, change, tape);
        let level = solved.levels.iter().find(|l| l.level == crate::place::Level::UpperArm).unwrap();
        let shown = solved.changes.iter().find(|c| c.key.to_string() == "armhole.both").unwrap();
        let crate::shown::Shows::Armhole(shown) = &shown.shows else { panic!("an armhole") };
        let line = shown.lines.iter().find(|line| line.name == "round the upper arm").unwrap();
        prop_assert_eq!((&line.now, &line.then), (&level.before.text(), &level.after.text()));
    }

    /// The nearer the seam lies to the hinge, and the further a sleeve stands out, the higher the arm goes; never below where it stands.
    #[test]
    fn the_arm_goes_up_with_the_armhole(wide in 25.0..50.0_f64, high in 4.0..18.0_f64, drop in 1.0..12.0_f64, gives in 1.0..4.0_f64) {
        let stands = stands_at(wide, high);
        let lifts = lifts_to(stands, drop, gives);
        prop_assert!(lifts >= stands && lifts <= 180.0);
        prop_assert!(lifts_to(stands, drop - 0.5, gives) >= lifts);
        prop_assert!(lifts_to(stands_at(wide + 1.0, high), drop, gives) >= lifts);
        prop_assert!(lifts_to(stands_at(wide, high + 1.0), drop, gives) <= lifts);
    }
}
