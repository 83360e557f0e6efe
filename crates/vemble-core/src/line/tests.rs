//! What must always hold of a line, for any pins.

use super::*;
use crate::fitting::{GarmentSide, Reading};
use crate::tests::{meets, outseam, trousers};
use proptest::prelude::*;

const TAU: i64 = 3;

fn reading(side: GarmentSide, station_mm: i64, amount_tenths: i64) -> Reading {
    let measure = |nm| Measure { length: Length::from_nm(nm), unit: Unit::Cm };
    Reading {
        id: None,
        side,
        station: measure(station_mm * 1_000_000),
        amount: measure(amount_tenths * 100_000),
        how: crate::fitting::How::Fold,
    }
}

/// Two to eight pins from the hem to 70 cm up, at least 1 cm apart, up to 4 cm deep.
fn pins() -> impl Strategy<Value = Vec<(i64, i64)>> {
    let gaps = prop::collection::vec((10_i64..120, 0_i64..400), 2..8);
    (gaps, any::<bool>()).prop_map(|(gaps, from_the_hem)| {
        let mut at = if from_the_hem { -gaps[0].0 } else { 0 };
        let place = |(gap, amount): (i64, i64)| {
            at += gap;
            (at, amount)
        };
        gaps.into_iter().map(place).filter(|p| p.0 <= 700).collect()
    })
}

fn way() -> impl Strategy<Value = Fairing> {
    prop_oneof![Just(Fairing::Smooth), Just(Fairing::EveryPin), Just(Fairing::Straight)]
}

fn readings(side: GarmentSide, pins: &[(i64, i64)]) -> Vec<Reading> {
    pins.iter().map(|&(s, a)| reading(side, s, a)).collect()
}

fn line(way: Fairing, readings: Vec<Reading>) -> [StitchingLine; 2] {
    let alteration = Alteration { fairing: way, ..outseam(readings, meets("80 cm")) };
    alter(&trousers(), &alteration, Tape::Cm).unwrap().lines
}

/// The greatest distance between two lines from a station in mm upwards, in mm.
fn apart(a: &StitchingLine, b: &StitchingLine, from: i64) -> f64 {
    let difference = |mm: i64| (a.front.at(mm as f64 / 10.0) - b.front.at(mm as f64 / 10.0)).abs() * 10.0;
    (from..=800).map(difference).fold(0.0, f64::max)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 800, max_global_rejects: 20_000, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn a_line_stays_within_tolerance_and_on_its_side(pins in pins(), way in way()) {
        let [line, _] = line(way, readings(GarmentSide::Left, &pins));
        let largest = pins.iter().map(|p| p.1).max().unwrap() as f64 / 100.0;
        for &(s, d) in &pins {
            let beside = line.front.at(s as f64 / 10.0) - d as f64 / 100.0;
            prop_assert!(beside.abs() * 10.0 <= TAU as f64 + 1e-6, "{beside} cm at {s} mm");
        }
        prop_assert!(line.front.range(0.0, 80.0).0 > -1.5e-3, "never changes sign");
        let (first, last) = (pins[0].0 as f64 / 10.0, 80.0);
        prop_assert!(line.front.range(first, last).1 <= largest + 0.3 + 1.5e-3, "never passes the largest pin");
        prop_assert_eq!(line.front.at(80.0), 0.0, "an end is exact");
        if pins[0].0 == 0 {
            prop_assert!((line.front.at(0.0) - pins[0].1 as f64 / 100.0).abs() < 1e-9, "a pin at the edge is exact");
        }
        if way != Fairing::Straight {
            prop_assert!(line.front.steepest(79.9999, 80.0) < 1e-3, "no bend where it meets");
        }
    }

    #[test]
    fn mirrored_in_mirrored_out(left in pins(), right in pins(), way in way()) {
        let both = |a: &[(i64, i64)], b: &[(i64, i64)]| {
            [readings(GarmentSide::Left, a), readings(GarmentSide::Right, b)].concat()
        };
        let [a, b] = line(way, both(&left, &right));
        let [d, c] = line(way, both(&right, &left));
        prop_assert_eq!(a.front, c.front);
        prop_assert_eq!(b.front, d.front);
    }

    #[test]
    fn letting_out_mirrors_taking_in(pins in pins(), way in way()) {
        let [taken_in, _] = line(way, readings(GarmentSide::Left, &pins));
        let gap = |r: Reading| Reading {
            how: crate::fitting::How::Gap,
            amount: Measure { length: r.amount.length * 2, ..r.amount },
            ..r
        };
        let [let_out, _] = line(way, readings(GarmentSide::Left, &pins).into_iter().map(gap).collect());
        prop_assert!(let_out.front.plus(1.0, &taken_in.front).range(0.0, 80.0).1.abs() < 1e-9);
    }

    #[test]
    fn a_pin_on_the_line_does_not_move_it(pins in pins(), at in 10_i64..690, way in prop_oneof![Just(Fairing::Smooth), Just(Fairing::Straight)]) {
        prop_assume!(pins.iter().all(|p| (p.0 - at).abs() >= 10) && at > pins[0].0 && at < pins[pins.len() - 1].0);
        let mut readings = readings(GarmentSide::Left, &pins);
        let [before, _] = line(way, readings.clone());
        let on_the_line = before.at(Station(Length::from_mm(at))).front.0;
        // A pin above all others would raise the bound that the largest pin sets.
        let largest = pins.iter().map(|p| p.1).max().unwrap() * 100_000;
        prop_assume!((0..=largest).contains(&on_the_line.nm()));
        readings.push(Reading { amount: Measure { length: on_the_line, unit: Unit::Cm }, ..reading(GarmentSide::Left, at, 0) });
        let [after, _] = line(way, readings);
        // Below the first pin the slope is carried on, and a steep one carries what rounding does to it far.
        let moved = apart(&before, &after, pins[0].0);
        prop_assert!(moved <= 1.0, "moved by {moved} mm");
    }

    #[test]
    fn edges_make_the_whole_everywhere(pins in pins(), percent in 0_u8..=100, at in 0_i64..800) {
        let mut alteration = outseam(readings(GarmentSide::Left, &pins), meets("80 cm"));
        alteration.front_share = Some(percent.try_into().unwrap());
        let garment = trousers();
        let altered = alter(&garment, &alteration, Tape::Cm).unwrap();
        let edges = altered.lines[0].at(Station(Length::from_mm(at)));
        prop_assert_eq!(edges.front.0 + edges.back.0, edges.whole().0);
    }
}

#[test]
fn a_swing_is_eased_by_the_least_that_cures_it() {
    // Nothing, nothing, then suddenly a lot: a free lath would swing to the other side of the old stitching.
    let pins = readings(GarmentSide::Left, &[(0, 0), (200, 0), (260, 300), (300, 320)]);
    let [line, _] = line(Fairing::Smooth, pins);
    assert!(line.front.range(0.0, 80.0).0 > -1.5e-3);
    assert!(line.front.range(0.0, 80.0).0 <= 0.0, "but no further than needed");
}

#[test]
fn the_slope_carries_on_to_the_edge() {
    let [line, _] = line(Fairing::Straight, readings(GarmentSide::Left, &[(100, 200), (300, 100)]));
    assert!((line.front.at(0.0) - 2.5).abs() < 1e-9);
}
