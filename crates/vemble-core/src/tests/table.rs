//! Boundaries, refusals in either unit, and what must be the same whatever it is called: tables of cases.

use super::kit::{Fitted, m, meets, outseam, pin, seam_facts, taken, trousers, try_on, trying};
use crate::body::BodyMeasurement;
use crate::card::Block;
use crate::change::dart::DartChange;
use crate::change::seam::{SeamChange, alter};
use crate::change::{Change, ChangeKey};
use crate::document::{Document, Entry, Happened, State};
use crate::figure::{MovedLook, ViewSide};
use crate::fitting::{End, Fairing, GarmentSide, How, Reading, SidePolicy};
use crate::garment::{Dart, Kind, Seam, Width};
use crate::judge::tests::kinds::round;
use crate::judge::{EaseWord, Outcome, Rule};
use crate::length::{Figure, Length, Measure, Tape, Unit};
use crate::place::Level;
use crate::solve::{SolvedTryOn, glance, solve, stages};
use crate::stages::Stage;
use crate::told::words;
use crate::try_on::{Chalked, PassedOver, TryOn};
use kurbo::{BezPath, Shape};
use proptest::prelude::*;
use uuid::Uuid;

const LEFT: GarmentSide = GarmentSide::Left;
const RIGHT: GarmentSide = GarmentSide::Right;

fn solved(change: impl Into<Change>) -> SolvedTryOn {
    trousers().solved(trying(vec![change]), Tape::Cm)
}

fn straight(pins: &[(&str, &str)], lower: Option<End>, upper: Option<End>) -> SeamChange {
    let readings = pins.iter().map(|(station, amount)| pin(LEFT, station, amount)).collect();
    SeamChange { fairing: Fairing::Straight, lower, ..outseam(readings, upper) }
}

/// Hip 100 cm, at least 3 cm of ease, usually 5 to 8, loose from 10: each boundary belongs to the word that it begins, and usual to both.
#[test]
fn ease_is_named_by_its_boundaries_to_the_mark() {
    let word = |ease_nm: i64| {
        let mut garment = trousers();
        let hip = garment.levels.iter_mut().find(|l| l.level == Level::Hip).unwrap();
        let girth = Length::from_mm(1000) + Length::from_nm(ease_nm);
        hip.width = Width::Girth(Measure { length: girth, unit: Unit::Cm });
        let solved = solve(&garment.document(vec![]), Tape::Cm).unwrap();
        solved.levels.iter().find(|l| l.level == Level::Hip).unwrap().comfort.as_ref().unwrap().now
    };
    let mm = |mm: i64| Length::from_mm(mm).nm();
    for (ease, wanted) in [
        (mm(29), EaseWord::TooTight),
        (mm(30), EaseWord::Close),
        (mm(49), EaseWord::Close),
        (mm(50), EaseWord::Usual),
        (mm(80), EaseWord::Usual),
        (mm(81), EaseWord::Roomy),
        (mm(99), EaseWord::Roomy),
        (mm(100), EaseWord::Loose),
    ] {
        assert_eq!(word(ease), wanted, "{ease} nm");
    }
}

/// 1 : 4 is just not a kink.
#[test]
fn exactly_one_in_four_bends_and_a_hair_more_kinks() {
    let bends = |amount: &str| {
        let pins = [("10 cm", "1 cm"), ("14 cm", amount), ("40 cm", "1 cm")];
        let result = solved(straight(&pins, Some(End::RunsOff {}), Some(End::RunsOff {})));
        (result.check("Bends of the outseam").outcome, result.check("Bends of the outseam").figures.clone())
    };
    let (outcome, figures) = bends("2 cm");
    assert_eq!((outcome, figures.as_str()), (Outcome::Passes, "steepest 1 : 4.0, between 10.0 and 14.0 cm"));
    assert_eq!(bends("2.01 cm").0, Outcome::Caution);
}

#[test]
fn a_straight_line_runs_off_either_edge_with_its_slope_and_never_past_nought() {
    let at_edges = |pins: &[(&str, &str)]| {
        let garment = trousers();
        let change = straight(pins, Some(End::RunsOff {}), Some(End::RunsOff {}));
        let line = alter(&garment, &change).unwrap().lines[0].front.clone();
        [line.at(0.0), line.at(104.0)]
    };
    let near = |found: [f64; 2], wanted: [f64; 2]| {
        assert!(found.iter().zip(wanted).all(|(f, w)| (f - w).abs() < 1e-9), "{found:?}, not {wanted:?}");
    };
    near(at_edges(&[("10 cm", "2 cm"), ("30 cm", "1 cm")]), [2.0, 0.0]);
    near(at_edges(&[("10 cm", "1 cm"), ("30 cm", "1.2 cm")]), [0.9, 1.2]);
    // Carried on it would turn from in to out: it stops at nought. Nor is it deeper than at the pin.
    near(at_edges(&[("20 cm", "0.5 cm"), ("30 cm", "2.5 cm")]), [0.0, 2.5]);
    near(at_edges(&[("70 cm", "2 cm"), ("90 cm", "1 cm")]), [2.0, 0.3]);
    near(at_edges(&[("80 cm", "2 cm"), ("100 cm", "0.1 cm")]), [2.0, 0.0]);
}

#[test]
fn a_run_out_from_nothing_is_no_run_out() {
    let run_outs = |last: &str| {
        let result = solved(straight(&[("20 cm", "1 cm"), ("60 cm", last)], meets("5 cm"), meets("70 cm")));
        result.checks.iter().filter(|c| c.key.rule == Rule::RunOut).count()
    };
    assert_eq!(run_outs("0.5 cm"), 2);
    assert_eq!(run_outs("0 cm"), 2, "a pin of nought ends the line: it runs out from the one before");
    let nothing = solved(straight(&[("20 cm", "0 cm"), ("60 cm", "0 cm")], meets("5 cm"), meets("70 cm")));
    assert!(nothing.checks.iter().all(|c| c.key.rule != Rule::RunOut), "nothing runs out of nothing");
}

/// A seam that is altered on the garment's right alone moves there alone: from in front on the left of the picture, from behind on its right.
#[test]
fn what_moves_on_the_right_is_drawn_on_the_right() {
    for (side, in_front) in [(RIGHT, -1.0), (LEFT, 1.0)] {
        let readings = vec![pin(side, "0 cm", "3 cm"), pin(side, "40 cm", "2 cm")];
        let change = SeamChange { sides: Some(SidePolicy::KeepEach), ..outseam(readings, meets("70 cm")) };
        let result = solved(change);
        let as_it_is = crate::figure::stand(&trousers(), &trousers().wearer, Tape::Cm);
        for view in &result.stand.views {
            let sign = if view.view == ViewSide::Back { -in_front } else { in_front };
            let own: Vec<_> = view.moved.iter().filter(|moved| moved.look == MovedLook::Line).collect();
            assert!(!own.is_empty() && own.iter().all(|m| m.side == side), "{side:?} {:?}", view.view);
            let box_of = |path: &str| BezPath::from_svg(path).unwrap().bounding_box();
            assert!(own.iter().all(|m| box_of(&m.path).center().x * sign > 0.0), "{side:?} {:?}", view.view);
            // The leg on that side is narrower at the hem, the other as wide as it was.
            let before = as_it_is.views.iter().find(|v| v.view == view.view).unwrap().cloth.last().unwrap();
            let half = |path: &str, sign: f64| {
                let path = BezPath::from_svg(path).unwrap();
                let low = path.bounding_box().y1 - 3.0;
                let xs = path.segments().flat_map(|s| {
                    use kurbo::ParamCurve;
                    (0..=50).map(move |n| s.eval(f64::from(n) / 50.0))
                });
                xs.filter(|p| p.y > low && p.x * sign > 0.0).map(|p| p.x * sign).fold(0.0, f64::max)
            };
            let after = view.trunk.as_ref().unwrap();
            assert!(half(after, sign) < half(before, sign) - 5.0, "{side:?} {:?}", view.view);
            assert!((half(after, -sign) - half(before, -sign)).abs() < 0.5, "{side:?} {:?}", view.view);
        }
    }
}

/// A fault speaks in the unit that was typed, and from where stations of that seam are measured, on every tape.
#[test]
fn faults_are_told_in_the_unit_that_was_typed_and_from_their_datum() {
    let mut garment = trousers();
    garment.seams.push(seam_facts(Seam::SeatSeam, "40 in", "1 in"));
    let of = |seam: Seam, station: &str, amount: &str| {
        let readings = vec![pin(LEFT, "1 in", "0.5 cm"), pin(LEFT, station, amount)];
        let change = SeamChange { readings, ..SeamChange::of(seam) };
        let document = garment.document(vec![trying(vec![change])]);
        // What stands beside is as fine as the marks of the tape: of two that are as fine as each other it is the same.
        [Tape::Cm, Tape::In]
            .iter()
            .map(|tape| {
                let faults = solve(&document, *tape).unwrap_err();
                assert_eq!(faults.len(), 1, "{faults:?}");
                (faults[0].wrong.found(*tape), faults[0].wrong.expected(*tape))
            })
            .collect::<Vec<_>>()
    };
    for (seam, station, amount, found, expected) in [
        (
            Seam::SeatSeam,
            "41 in",
            "1 cm",
            "41 in, but it is 40 in long, measured from the crotch",
            "a station from 0 to 40 in, measured from the crotch",
        ),
        (
            Seam::SeatSeam,
            "110 cm",
            "1 cm",
            "110 cm, but it is 101.6 cm long, measured from the crotch",
            "a station from 0 to 101.6 cm, measured from the crotch",
        ),
        (
            Seam::Outseam,
            "41 1/2 in",
            "1 cm",
            "41 1/2 in, but it is 40 7/8 in long, measured from the hem",
            "a station from 0 to 40 7/8 in, measured from the hem",
        ),
        (
            Seam::Outseam,
            "-1 in",
            "1 cm",
            "-1 in, which lies beyond the hem",
            "0 or more, measured from the hem",
        ),
        (
            Seam::Outseam,
            "25.4 mm",
            "1 cm",
            "25.4 mm, where reading 1 already is on the left side",
            "one pin at each station of a side",
        ),
        (
            Seam::Outseam,
            "2 in",
            "10 in",
            "10 in: that takes out more than the 19 1/8 in the garment measures there",
            "less than 19 1/8 in altogether",
        ),
    ] {
        let told = of(seam, station, amount);
        assert!(told.iter().all(|one| *one == told[0]), "whatever the tape: {told:?}");
        assert_eq!((told[0].0.as_str(), told[0].1.as_str()), (found, expected));
    }
}

proptest! {
    /// The most that a refusal names is not refused itself, on any tape.
    #[test]
    fn what_a_refusal_names_can_be_entered(long in 200_000_000_i64..2_000_000_000, tape in proptest::sample::select(Tape::ALL)) {
        let at = |station: &str| {
            let mut garment = trousers();
            let outseam = garment.seams.iter_mut().find(|facts| facts.seam == Seam::Outseam).unwrap();
            outseam.length = Measure { length: Length::from_nm(long), unit: Unit::Cm };
            let change = SeamChange { readings: vec![pin(LEFT, station, "1 cm")], ..SeamChange::of(Seam::Outseam) };
            garment.document(vec![trying(vec![change])])
        };
        let over = format!("{} {}", long / 10_000_000 + 1, tape.unit_name());
        let station = |document: Document| match solve(&document, tape) {
            Ok(_) => None,
            Err(faults) => faults.iter().find(|f| f.path.ends_with(".station")).map(|f| f.wrong.expected(tape)),
        };
        let Some(expected) = station(at(&over)) else { return Err(TestCaseError::fail("it was not refused")) };
        let most = expected.strip_prefix("a station from 0 to ").unwrap().split(',').next().unwrap();
        prop_assert_eq!(station(at(most)), None, "{}", most);
    }
}

#[test]
fn a_history_that_cannot_be_is_refused_at_its_place() {
    let garment = trousers();
    let [first, second, nowhere] = [1, 2, 9].map(Uuid::from_u128);
    let sewn = |from, to| Entry {
        id: Uuid::from_u128(7),
        date: jiff::civil::date(2026, 11, 1),
        what: Happened::Sewn {
            from,
            to,
            try_on: None,
            changes: vec![],
            otherwise: vec![],
            measured: vec![],
            cut: vec![],
        },
        why: String::new(),
    };
    let state = |id| State::first(id, garment.garment.clone());
    let base = || Document {
        states: vec![state(first), state(second)],
        record: vec![sewn(first, second)],
        ..garment.document(vec![])
    };
    let refused = |document: &Document| {
        let faults = solve(document, Tape::Cm).unwrap_err();
        (faults[0].path.clone(), faults[0].wrong.found(Tape::Cm), faults[0].wrong.expected(Tape::Cm))
    };
    assert_eq!(base().faults(), []);
    let cases: [(Document, &str); 7] = [
        (Document { states: vec![], record: vec![], ..base() }, "states"),
        (Document { states: vec![state(first), state(first)], record: vec![], ..base() }, "states[1].id"),
        (Document { record: vec![sewn(nowhere, second)], ..base() }, "record[0].what.sewn.from"),
        (Document { record: vec![sewn(first, nowhere)], ..base() }, "record[0].what.sewn.to"),
        (Document { record: vec![sewn(first, second); 2], ..base() }, "record[1].id"),
        (
            Document { try_ons: vec![TryOn::on(nowhere, jiff::civil::date(2026, 11, 1))], ..base() },
            "try_ons[0].state",
        ),
        (Document { states: (0..65).map(|n| state(Uuid::from_u128(n + 1))).collect(), ..base() }, "states"),
    ];
    for (document, path) in cases {
        let (at, found, expected) = refused(&document);
        assert_eq!(at, path);
        assert!(!found.is_empty() && !expected.is_empty());
    }
    assert!(glance(&Document { states: vec![], record: vec![], ..base() }, Tape::Cm).is_none());
}

/// A try-on is solved against the state it names: what another one says moves nothing of it.
#[test]
fn each_try_on_belongs_to_its_state() {
    let (before, mut after) = (trousers(), trousers());
    after
        .levels
        .iter_mut()
        .for_each(|l| l.station.length = (l.station.length - Length::from_mm(50)).max(Length::ZERO));
    after.seams[0].length = m("99 cm");
    let [first, second] = [1, 2].map(Uuid::from_u128);
    let pins = || vec![outseam(vec![pin(LEFT, "0 cm", "2 cm"), pin(LEFT, "40 cm", "1 cm")], meets("60 cm"))];
    let on = |state| TryOn { state, ..trying(pins()) };
    let of = |fitted: &Fitted, id| State::first(id, fitted.garment.clone());
    let both = Document {
        states: vec![of(&before, first), of(&after, second)],
        try_ons: vec![on(first), on(second)],
        ..before.document(vec![])
    };
    let together = solve(&both, Tape::Cm).unwrap();
    for (n, (fitted, id)) in [(&before, first), (&after, second)].into_iter().enumerate() {
        let alone =
            Document { states: vec![of(fitted, id)], try_ons: vec![on(id)], ..fitted.document(vec![]) };
        assert_eq!(solve(&alone, Tape::Cm).unwrap().try_ons[0], together.try_ons[n], "state {n}");
    }
    assert_ne!(together.try_ons[0], together.try_ons[1]);
}

/// Renaming a seam, or another tape, does not un-pass what was passed over, nor untick what was chalked.
#[test]
fn what_is_passed_over_and_chalked_has_no_name() {
    let mut garment = trousers();
    let pins = || outseam(vec![pin(LEFT, "0 cm", "4 cm"), pin(LEFT, "45 cm", "5 cm")], meets("60 cm"));
    let plain = garment.solved(trying(vec![pins()]), Tape::Cm);
    let stopped: Vec<_> =
        plain.checks.iter().filter(|c| c.outcome != Outcome::Passes).map(|c| c.key).collect();
    assert!(stopped.len() >= 3, "{stopped:?}");
    let row = plain.cards[0].table().rows[3].at.clone();
    let kept = TryOn {
        passed_over: stopped
            .iter()
            .map(|finding| PassedOver { finding: *finding, why: "It is a trial.".into() })
            .collect(),
        chalked: vec![Chalked { change: ChangeKey::Seam(Seam::Outseam), at: row[0] }],
        ..trying(vec![pins()])
    };
    for name in [None, Some("side stripe"), Some("Left and right"), Some("a (2)")] {
        garment.seams[0].name = name.map(Into::into);
        for tape in Tape::ALL {
            let result = garment.solved(kept.clone(), *tape);
            let open =
                result.checks.iter().filter(|c| c.outcome != Outcome::Passes && c.passed_over.is_none());
            assert_eq!(open.count(), 0, "{name:?}");
            // The same place is written the same way on every tape.
            assert!(result.cards[0].table().rows.iter().flat_map(|r| &r.at).all(|at| at.unit == Unit::Cm));
            let ticked: Vec<_> = result.cards[0].table().rows.iter().filter(|r| r.is_chalked).collect();
            // On a finer tape one place may be a row of its own; on a coarser it shares one.
            assert!(ticked.len() <= 1 && (*tape != Tape::Cm || ticked.len() == 1), "{tape:?}");
        }
    }
}

#[test]
fn where_to_go_on_and_what_is_settled_follow_from_what_was_done() {
    let mut garment = trousers();
    let of = |document: &Document| {
        let (lines, go_on) = stages(document, Tape::Cm);
        let settled: Vec<_> = lines.iter().filter(|l| l.is_settled).map(|l| l.stage).collect();
        (lines.len(), settled, go_on)
    };
    garment.levels.iter_mut().for_each(|l| l.assumed = true);
    assert_eq!(of(&garment.document(vec![])), (6, vec![], Stage::LookOver));
    garment.levels[0].assumed = false;
    assert_eq!(of(&garment.document(vec![])), (6, vec![Stage::LookOver], Stage::TryOn));
    assert_eq!(of(&garment.document(vec![try_on()])), (6, vec![Stage::LookOver], Stage::Lines));
    let pinned = |upper| trying(vec![outseam(vec![pin(LEFT, "0 cm", "2 cm")], meets(upper))]);
    let (_, settled, _) = of(&garment.document(vec![pinned("60 cm")]));
    assert_eq!(settled, [Stage::LookOver, Stage::TryOn, Stage::Lines]);
    let (_, settled, _) = of(&garment.document(vec![pinned("4 cm")]));
    assert_eq!(settled, [Stage::LookOver, Stage::TryOn], "a stop stands in the way");
    garment.toile = true;
    assert_eq!(of(&garment.document(vec![])).0, 7, "a toile ends on paper");
}

#[test]
fn a_garment_is_offered_what_it_can_have() {
    let offered = |kind: Kind| -> Vec<ChangeKey> {
        let garment = round(kind);
        solve(&garment.document(vec![]), Tape::Cm).unwrap().changeable.into_iter().map(|c| c.key).collect()
    };
    let has = |kind, dart| offered(kind).contains(&ChangeKey::Dart(dart));
    assert!(
        !has(Kind::Trousers, Dart::Bust)
            && !has(Kind::Skirt, Dart::Shoulder)
            && !has(Kind::Jeans, Dart::BackFishEye)
    );
    assert!(
        has(Kind::Trousers, Dart::BackWaist)
            && has(Kind::Dress, Dart::Bust)
            && has(Kind::Shirt, Dart::BackFishEye)
    );
    for kind in Kind::ALL {
        let garment = round(*kind);
        let keys = offered(*kind);
        assert!(garment.seams.iter().all(|s| keys.contains(&ChangeKey::Seam(s.seam))), "{kind:?}");
        // Whatever is offered can be begun: it is drawn and named before anything is entered.
        for key in keys {
            let result = garment.solved(trying(vec![Change::of(key)]), Tape::Cm);
            let there = result.changes.iter().find(|c| c.key == key);
            assert!(there.is_some_and(|c| !c.name.is_empty() && !c.is_altered), "{kind:?} {key}");
            assert!(result.cards.is_empty(), "{kind:?} {key}");
        }
    }
}

#[test]
fn every_change_is_known_by_its_key() {
    let mut all: Vec<String> = ChangeKey::all().map(|key| key.to_string()).collect();
    assert!(all.len() > 20);
    for (key, text) in ChangeKey::all().zip(&all) {
        assert_eq!(text.parse(), Ok(key));
        assert_eq!(serde_json::to_string(&key).unwrap(), format!("\"{text}\""));
        assert_eq!(Change::of(key).key(), key);
        let change = serde_json::to_value(Change::of(key)).unwrap();
        assert_eq!(
            serde_json::from_value::<Change>(change).unwrap(),
            Change::of(key),
            "nothing entered reads back"
        );
    }
    all.sort();
    all.dedup();
    assert_eq!(all.len(), ChangeKey::all().count());
    for wrong in [
        "",
        "outseam",
        "seam.",
        ".outseam",
        "seam.back_waist",
        "dart.outseam",
        "hem.collar",
        "seam.outseam.x",
    ] {
        assert!(wrong.parse::<ChangeKey>().is_err(), "{wrong}");
    }
}

/// The words a screen offers are the words that documents are written in.
#[test]
fn every_word_is_there_once_and_said() {
    let all = serde_json::to_value(words()).unwrap();
    let lists = all.as_object().unwrap();
    assert!(lists.len() > 25);
    for (choice, list) in lists {
        let values: Vec<&str> =
            list.as_array().unwrap().iter().map(|w| w["value"].as_str().unwrap()).collect();
        assert!(!values.is_empty(), "{choice}");
        for (n, value) in values.iter().enumerate() {
            assert!(!values[..n].contains(value), "{choice}: {value} twice");
            let said = list[n]["words"].as_str().unwrap();
            assert!(!said.is_empty() && !said.contains('_'), "{choice}: {said}");
        }
    }
    let hows: Vec<&str> = How::ALL.iter().map(|how| how.word()).collect();
    for (how, word) in How::ALL.iter().zip(hows) {
        assert_eq!(serde_json::to_value(how).unwrap(), word);
    }
}

/// A placed dart is refused and drawn in whichever unit its place was written.
#[test]
fn a_dart_is_placed_alike_in_either_unit() {
    let shirt = round(Kind::Shirt);
    let placed = |point: &str, base: &str, station: &str| {
        let readings = vec![pin(LEFT, station, "1 cm")];
        DartChange {
            point: Some(m(point)),
            base: Some(m(base)),
            readings,
            ..DartChange::of(Dart::BackFishEye)
        }
    };
    let cm = shirt.solved(trying(vec![placed("381 mm", "127 mm", "127 mm")]), Tape::Cm);
    let inches = shirt.solved(trying(vec![placed("15 in", "5 in", "5 in")]), Tape::Cm);
    assert_eq!(cm.cards, inches.cards);
    assert_eq!(cm.levels, inches.levels);
    let off = shirt.document(vec![trying(vec![placed("15 in", "5 in", "11 in")])]);
    let faults = solve(&off, Tape::Cm).unwrap_err();
    assert_eq!(faults[0].path, "try_ons[0].changes[0].dart.readings[0].station");
    assert_eq!(faults[0].wrong.found(Tape::Cm), "11 in, but it is 10 in long, measured from the upper point");
}

#[test]
fn elastic_without_a_casing_is_begun_and_nothing_is_cut() {
    let mut garment = trousers();
    garment.wearer.measurements.push(taken(BodyMeasurement::WaistGirth, "81 cm"));
    let key = ChangeKey::Elastic(crate::change::elastic::ElasticAt::Waistband);
    let result = garment.solved(trying(vec![Change::of(key)]), Tape::Cm);
    assert!(result.cards.is_empty() && result.changes.iter().any(|c| c.key == key && !c.has_card));
    assert_eq!(result.levels, garment.solved(try_on(), Tape::Cm).levels);
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    /// What was written as a fraction is a fraction again, and exactly the same length.
    #[test]
    fn fractions_come_back_as_fractions(sixtyfourths in 1_i64..5000) {
        let measure = Measure { length: Length::from_64ths(sixtyfourths), unit: Unit::In };
        let text = measure.to_string();
        prop_assert_eq!(text.parse::<Measure>().unwrap(), measure);
        prop_assert_eq!(text.contains('/'), sixtyfourths % 64 != 0, "{}", &text);
        prop_assert!(!text.contains('.'), "{}", text);
        let read = serde_json::to_string(&measure).and_then(|json| serde_json::from_str::<Measure>(&json)).unwrap();
        prop_assert_eq!(read, measure);
    }

    /// What a figure says to store is exactly what it is, however coarse the tape that it is shown on.
    #[test]
    fn nothing_rounded_is_stored(nm in -2_000_000_000_i64..2_000_000_000, tape in prop::sample::select(Tape::ALL.to_vec())) {
        let figure: Figure = tape.figure(Length::from_nm(nm));
        let json = serde_json::to_value(figure).unwrap();
        let stored: Measure = serde_json::from_value(json["measure"].clone()).unwrap();
        prop_assert_eq!(stored.length, Length::from_nm(nm), "{}", &json);
        let shown: Measure = json["text"].as_str().unwrap().replace('−', "-").parse().unwrap();
        prop_assert!((shown.length - stored.length).abs() * 2 <= tape.mark(), "{}", json);
    }

    /// Straight through from exactly where a pin stands, on any tape: the end is where the pin is, not at a mark beside it.
    #[test]
    fn straight_through_begins_at_the_pin_itself(tenths in 700_i64..1030, tape in prop::sample::select(Tape::ALL.to_vec())) {
        let station = Measure { length: Length::from_nm(tenths * 1_000_000 + 300_000), unit: Unit::Cm };
        let reading = Reading { station, ..pin(LEFT, "0 cm", "1 cm") };
        let garment = trousers();
        let solved_pin = garment.solved(trying(vec![outseam(vec![reading.clone()], None)]), tape);
        let at = serde_json::to_value(solved_pin.line(0).pins[0].station).unwrap()["measure"].clone();
        let from: Measure = serde_json::from_value(at).unwrap();
        let change = outseam(vec![reading], Some(End::StraightThrough { from }));
        let document = garment.document(vec![trying(vec![change])]);
        prop_assert!(solve(&document, tape).is_ok(), "{:?}", solve(&document, tape).err());
    }

    /// Every row of every table has a cell for each column; what stands in one block is never empty.
    #[test]
    fn blocks_hold_together(kind in prop::sample::select(Kind::ALL.to_vec()), which in any::<prop::sample::Index>(), tape in prop::sample::select(Tape::ALL.to_vec()), apart in any::<bool>()) {
        let garment = round(kind);
        let seams: Vec<Seam> = garment.seams.iter().map(|s| s.seam).collect();
        let seam = *which.get(&seams);
        let top = garment.seam(seam).unwrap().length.length;
        let at = |n: i64| Measure { length: top.fraction(n, 10), unit: Unit::Cm };
        let of = |side, n: i64, amount: &str| Reading { station: at(n), ..pin(side, "0 cm", amount) };
        let mut readings = vec![of(LEFT, 3, "1 cm"), of(LEFT, 5, "0.8 cm")];
        if apart && !seam.is_single() {
            readings.push(of(RIGHT, 4, "0.3 cm"));
        }
        let change = SeamChange { readings, sides: apart.then_some(SidePolicy::KeepEach), trim_to: apart.then(|| m("1 cm")), ..SeamChange::of(seam) };
        let result = garment.solved(trying(vec![change]), tape);
        for block in result.cards.iter().flat_map(|c| &c.blocks) {
            match block {
                Block::Table(table) => {
                    prop_assert!(!table.rows.is_empty());
                    prop_assert!(table.rows.iter().all(|row| row.cells.len() == table.columns.len() && !row.at.is_empty()));
                    prop_assert!(table.columns.windows(2).all(|c| c[0].group <= c[1].group));
                    prop_assert!(table.columns.iter().all(|c| c.heading.contains(tape.unit_name())));
                }
                Block::Heading(text) | Block::Text(text) | Block::Note(text) | Block::Caution(text) | Block::Line(text) => prop_assert!(!text.trim().is_empty()),
                Block::Steps(steps) => prop_assert!(steps.iter().all(|step| step.text.ends_with('.')), "{:?}", steps),
                Block::Drawing(drawing) => prop_assert!(drawing.new.starts_with('M') && drawing.width > 0.0),
            }
        }
    }
}
