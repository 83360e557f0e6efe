//! What must always hold of a line, for any pins.

use super::*;
use crate::chalk::MarkedPlace;
use crate::change::{Piece, Pin, Sides, SidesFrom, reconcile};
use crate::fitting::Fairing;
use crate::fitting::{End, FrontShare, GarmentSide, Reading, SidePolicy};
use crate::length::Tape;
use crate::length::{Length, Measure, Station, Unit};
use crate::place::Level;
use crate::tests::kit::{meets, outseam, trousers};
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
    let alteration = SeamChange { fairing: way, ..outseam(readings, meets("80 cm")) };
    alter(&trousers(), &alteration).unwrap().lines
}

/// The greatest distance between two lines from a station in mm upwards, in mm.
fn apart(a: &StitchingLine, b: &StitchingLine, from: i64) -> f64 {
    let difference = |mm: i64| (a.front.at(mm as f64 / 10.0) - b.front.at(mm as f64 / 10.0)).abs() * 10.0;
    (from..=800).map(difference).fold(0.0, f64::max)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 800, max_global_rejects: 20_000, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn no_peak_loses_more_than_a_sixth(at in 100_i64..600, depth in 20_i64..400) {
        let [line, _] = line(Fairing::Smooth, readings(GarmentSide::Left, &[(at, depth)]));
        let there = line.front.at(at as f64 / 10.0) * 100.0;
        prop_assert!(there >= depth as f64 * 5.0 / 6.0 - 1e-3, "{there} of {depth}");
    }

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

    /// Read twice, on one tape and on the other: what lies nearer than cloth knows is one place, and nothing swings or breaks there.
    #[test]
    fn a_pin_read_twice_is_one_pin(
        pins in pins(), which: prop::sample::Index, beside in 1_i64..100_000, amount in 0_i64..400, way in way()
    ) {
        let once = readings(GarmentSide::Left, &pins);
        let mut again = which.get(&once).clone();
        again.station.length = again.station.length + Length::from_nm(beside);
        let [line_once, _] = line(way, once.clone());
        let [line_twice, _] = line(way, [&once[..], &[again.clone()]].concat());
        prop_assert_eq!(&line_once.front, &line_twice.front);
        // With another figure it is the mean of both, and the line goes no further than either.
        again.amount = Measure { length: Length::from_nm(amount * 100_000), ..again.amount };
        let [apart, _] = line(way, [&once[..], &[again]].concat());
        let most = pins.iter().map(|p| p.1).chain([amount]).max().unwrap() as f64 / 100.0;
        let (low, high) = apart.front.range(pins[0].0 as f64 / 10.0, 80.0);
        prop_assert!(low > -1.5e-3 && high <= most + 0.3 + 1.5e-3, "{low} to {high}, not to {most}");
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
        // Pins steeper than 1 : 1 to each other are no line that cloth follows: between them the lath is bent over posts of its own, which
        // a pin among them moves.
        prop_assume!(pins.windows(2).all(|w| (w[1].1 - w[0].1).abs() <= 10 * (w[1].0 - w[0].0)));
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
        prop_assert!(moved <= 0.75, "moved by {moved} mm");
    }

    #[test]
    fn edges_make_the_whole_everywhere(pins in pins(), percent in 0_u8..=100, at in 0_i64..800) {
        let mut alteration = outseam(readings(GarmentSide::Left, &pins), meets("80 cm"));
        alteration.front_share = Some(percent.try_into().unwrap());
        let garment = trousers();
        let altered = alter(&garment, &alteration).unwrap();
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

mod curves {
    use super::*;
    use crate::change::Curve;

    /// Smooth curves over 0 to 80 cm with any values and slopes.
    fn curve() -> impl Strategy<Value = Curve> {
        prop::collection::vec((-4.0..4.0_f64, -0.5..0.5_f64), 3..7).prop_map(|knots| {
            let step = 80.0 / (knots.len() - 1) as f64;
            let knots: Vec<_> =
                knots.iter().enumerate().map(|(i, &(y, m))| (i as f64 * step, y, m)).collect();
            Curve::through(&knots)
        })
    }

    proptest! {
        #![proptest_config(ProptestConfig { cases: 200, failure_persistence: None, ..ProptestConfig::default() })]

        #[test]
        fn sums_are_exact_at_every_station(a in curve(), b in curve(), s in 0.0..80.0_f64, factor in -2.0..2.0_f64) {
            let sum = a.plus(factor, &b);
            prop_assert!((sum.at(s) - (a.at(s) + factor * b.at(s))).abs() < 1e-9);
            let eased = a.eased(&b, 0.25);
            prop_assert!((eased.at(s) - (0.75 * a.at(s) + 0.25 * b.at(s))).abs() < 1e-9);
        }

        #[test]
        fn range_and_steepness_bound_every_station(a in curve(), from in 0.0..40.0_f64, run in 1.0..40.0_f64) {
            let (low, high) = a.range(from, from + run);
            let steepest = a.steepest(from, from + run);
            for n in 0..200 {
                let s = from + run * f64::from(n) / 200.0;
                prop_assert!(low - 1e-9 <= a.at(s) && a.at(s) <= high + 1e-9);
                let slope = (a.at(s + 1e-5) - a.at(s)) / 1e-5;
                prop_assert!(slope.abs() <= steepest + 1e-3);
            }
        }

        #[test]
        fn a_path_lies_on_its_curve(a in curve()) {
            use kurbo::{ParamCurve, PathSeg};
            let path = a.path(kurbo::Point::new);
            for segment in path.segments() {
                prop_assert!(matches!(segment, PathSeg::Cubic(_)));
                for t in [0.0, 0.3, 0.7, 1.0] {
                    let point = segment.eval(t);
                    prop_assert!((a.at(point.x.clamp(0.0, 80.0)) - point.y).abs() < 1e-6);
                }
            }
        }
    }

    #[test]
    fn a_curve_without_swings_stays_between_its_points() {
        let curve = Curve::without_swings(&[(0.0, 1.0), (10.0, 1.0), (20.0, 4.0), (30.0, 4.0), (40.0, 2.0)]);
        assert_eq!(curve.range(0.0, 40.0), (1.0, 4.0));
        assert_eq!((curve.at(5.0), curve.at(25.0)), (1.0, 4.0));
        assert_eq!(curve.at(41.0), 0.0, "beyond its end nothing is altered");
        assert_eq!(Curve::default().span(), None);
    }
}

mod smoothness {
    use super::*;

    /// ∫y″² over a line, by its pieces: y″ is straight on each, so Simpson's rule is exact.
    fn bending(line: &StitchingLine) -> f64 {
        let energy = |p: &Piece| {
            let h = p.s[1] - p.s[0];
            let chord = (p.y[1] - p.y[0]) / h;
            let low = (6.0 * chord - 4.0 * p.m[0] - 2.0 * p.m[1]) / h;
            let high = (2.0 * p.m[0] + 4.0 * p.m[1] - 6.0 * chord) / h;
            let middle = f64::midpoint(low, high);
            h / 6.0 * (low * low + 4.0 * middle * middle + high * high)
        };
        line.front.pieces.iter().map(energy).sum()
    }

    fn with_tolerance(pins: &[(i64, i64)], mm: i64) -> StitchingLine {
        let tolerance = Some(Measure { length: Length::from_mm(mm), unit: Unit::Mm });
        let readings = readings(GarmentSide::Left, pins);
        let alteration = SeamChange { tolerance, ..outseam(readings, meets("80 cm")) };
        let [line, _] = alter(&trousers(), &alteration).unwrap().lines;
        line
    }

    proptest! {
        #![proptest_config(ProptestConfig { cases: 200, failure_persistence: None, ..ProptestConfig::default() })]

        #[test]
        fn following_every_pin_never_bends_less(pins in pins()) {
            let [smooth, _] = line(Fairing::Smooth, readings(GarmentSide::Left, &pins));
            let [every_pin, _] = line(Fairing::EveryPin, readings(GarmentSide::Left, &pins));
            // A gate put where the line would swing may let it pass by a hundredth of a millimetre.
            prop_assert!(bending(&smooth) <= bending(&every_pin) * 1.01 + 1e-6);
        }

        #[test]
        fn more_tolerance_never_bends_more(pins in pins()) {
            let (tight, wide) = (with_tolerance(&pins, 2), with_tolerance(&pins, 6));
            prop_assert!(bending(&wide) <= bending(&tight) * 1.01 + 1e-6);
        }
    }

    #[test]
    fn one_wobbling_pin_is_passed_by_and_the_others_are_kept() {
        // An even taper of 1 : 20, with one pin 4 mm off it.
        let line = with_tolerance(&[(0, 300), (100, 250), (200, 240), (300, 150), (400, 100)], 4);
        for (s, wanted) in [(0.0, 3.0), (10.0, 2.5), (20.0, 2.0), (30.0, 1.5)] {
            assert!((line.front.at(s) - wanted).abs() < 0.25, "{} at {s}", line.front.at(s));
        }
    }
}

mod two_sides {
    use super::*;

    fn both(left: &[(i64, i64)], right: &[(i64, i64)], sides: Option<SidePolicy>) -> Sides {
        let readings = [readings(GarmentSide::Left, left), readings(GarmentSide::Right, right)].concat();
        reconcile(&readings, FrontShare::default(), sides)
    }

    fn offsets(sides: &Sides, side: GarmentSide) -> Vec<(i64, i64)> {
        let tenths = |p: &Pin| (p.station.0.nm() / 1_000_000, p.edges.front.0.nm() / 100_000);
        sides.pins[side as usize].iter().map(tenths).collect()
    }

    #[test]
    fn stations_need_not_agree() {
        let sides = both(&[(0, 200), (200, 100)], &[(100, 160), (300, 100)], Some(SidePolicy::Mean));
        // Each side is read off between its pins; beyond them the other decides alone.
        assert_eq!(offsets(&sides, GarmentSide::Left), [(0, 200), (100, 155), (200, 115), (300, 100)]);
        assert_eq!(sides.pins[0], sides.pins[1]);
    }

    #[test]
    fn every_policy_does_what_it_says() {
        let (left, right) = ([(0, 200), (100, 100)], [(0, 150), (100, 130)]);
        let by = |policy| {
            let sides = both(&left, &right, Some(policy));
            assert_eq!(sides.from, SidesFrom::By(policy));
            (offsets(&sides, GarmentSide::Left), offsets(&sides, GarmentSide::Right))
        };
        let twice = |a: [(i64, i64); 2]| (a.to_vec(), a.to_vec());
        assert_eq!(by(SidePolicy::Mean), twice([(0, 175), (100, 115)]));
        assert_eq!(by(SidePolicy::Larger), twice([(0, 200), (100, 130)]));
        assert_eq!(by(SidePolicy::Smaller), twice([(0, 150), (100, 100)]));
        assert_eq!(by(SidePolicy::Left), twice(left));
        assert_eq!(by(SidePolicy::Right), twice(right));
        assert_eq!(by(SidePolicy::KeepEach), (left.to_vec(), right.to_vec()));
    }

    #[test]
    fn six_millimetres_are_a_wobble_and_more_is_a_question() {
        let decided = both(&[(0, 200)], &[(0, 140)], None);
        assert_eq!((decided.from, decided.undecided), (SidesFrom::By(SidePolicy::Mean), false));
        let asked = both(&[(0, 200)], &[(0, 139)], None);
        assert_eq!((asked.from, asked.undecided), (SidesFrom::By(SidePolicy::KeepEach), true));
        assert_eq!(asked.apart.unwrap().0, Length::from_nm(6_100_000));
        assert_eq!(both(&[(0, 200)], &[], None).from, SidesFrom::Copied(GarmentSide::Left));
        assert_eq!(both(&[], &[], None).from, SidesFrom::Nothing);
    }

    proptest! {
        #[test]
        fn the_mean_lies_between_the_sides(left in pins(), right in pins()) {
            let by = |policy| both(&left, &right, Some(policy));
            let (smaller, mean, larger) = (by(SidePolicy::Smaller), by(SidePolicy::Mean), by(SidePolicy::Larger));
            for ((low, middle), high) in smaller.pins[0].iter().zip(&mean.pins[0]).zip(&larger.pins[0]) {
                prop_assert_eq!(low.station, middle.station);
                prop_assert!(low.edges.whole() <= middle.edges.whole());
                prop_assert!(middle.edges.whole() <= high.edges.whole());
            }
        }
    }
}

mod chalk {
    use super::*;

    proptest! {
        #![proptest_config(ProptestConfig { cases: 200, failure_persistence: None, ..ProptestConfig::default() })]

        #[test]
        fn marks_lie_on_the_tape_close_enough_and_none_is_forgotten(
            pins in pins(),
            tape in prop_oneof![Just(Tape::Cm), Just(Tape::CmHalves), Just(Tape::In), Just(Tape::InSixteenths)],
        ) {
            let alteration = SeamChange { lower: Some(End::RunsOff {}), ..outseam(readings(GarmentSide::Left, &pins), meets("80 cm")) };
            let garment = trousers();
            let seam = alter(&garment, &alteration).unwrap();
            let marks = seam.rows(&garment, tape);
            prop_assert!(marks.windows(2).all(|w| w[0].station < w[1].station));
            prop_assert!(marks.iter().all(|m| m.station.0.nm() % tape.mark().nm() == 0));
            prop_assert!(marks.windows(2).all(|w| w[1].station.0 - w[0].station.0 <= tape.chalk_step()));
            for pin in &seam.lines[0].pins {
                let at = Station(tape.round(pin.station.0));
                prop_assert!(marks.iter().any(|m| m.station == at && m.places.contains(&MarkedPlace::Pin)));
            }
            prop_assert!(marks[0].places.contains(&MarkedPlace::Edge));
            prop_assert!(marks.iter().any(|m| m.places.contains(&MarkedPlace::Level(Level::Knee))));
            prop_assert!(marks.last().unwrap().places.contains(&MarkedPlace::MeetsOldStitching));
        }
    }

    /// One pin answers for its own place: without ends that somebody set, the line comes back on either side of it.
    #[test]
    fn one_pin_alone_is_not_carried_to_the_ends_of_its_seam() {
        let garment = trousers();
        let at = |station: &str| {
            let alteration = outseam(vec![crate::tests::kit::pin(GarmentSide::Left, station, "1 cm")], None);
            let seam = alter(&garment, &alteration).unwrap();
            (seam.ends.lower, seam.ends.upper)
        };
        let meets = |station: &str| End::MeetsOldStitching { station: crate::tests::kit::m(station) };
        assert_eq!(at("50 cm"), (meets("42 cm"), meets("58 cm")), "8 times the offset in woven cloth");
        assert_eq!(at("3 cm"), (End::RunsOff {}, meets("11 cm")), "the hem is nearer than that");
    }
}
