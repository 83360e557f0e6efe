//! What must always hold of a line, for any pins.

use super::fair::{Close, Gate, Knot, fair};
use super::*;
use crate::chalk::MarkedPlace;
use crate::change::{Pin, Sides, SidesFrom, reconcile};
use crate::fitting::Fairing;
use crate::fitting::{End, FrontShare, GarmentSide, Reading, SidePolicy};
use crate::length::Tape;
use crate::length::{Length, Measure, Station, Unit};
use crate::place::Level;
use crate::tests::kit::{meets, outseam, trousers};
use proptest::prelude::*;

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

/// Pins 5 to 9 cm apart along a shape, each up to 3 mm beside it.
fn wobbling(count: std::ops::Range<usize>) -> impl Strategy<Value = Vec<(i64, i64)>> {
    let pins = prop::collection::vec((50_i64..90, -30_i64..=30), count);
    (pins, 40_i64..300, 40_i64..300, -60_i64..200).prop_map(|(pins, first, last, bulge)| {
        let length: i64 = pins.iter().map(|p| p.0).sum();
        let mut at = 0;
        let place = |(gap, wobble): (i64, i64)| {
            at += gap;
            let shape =
                first + (last - first) * at / length + bulge * 4 * at / length * (length - at) / length;
            (at, (shape + wobble).max(5))
        };
        pins.into_iter().map(place).collect()
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

/// Pins of which those below nought are let out.
fn gaps_below_nought(pins: &[(i64, i64)]) -> Vec<Reading> {
    let signed = |reading: Reading| match reading.amount.length.is_negative() {
        true => Reading {
            how: crate::fitting::How::Gap,
            amount: Measure { length: reading.amount.length * -2, ..reading.amount },
            ..reading
        },
        false => reading,
    };
    readings(GarmentSide::Left, pins).into_iter().map(signed).collect()
}

/// Both ends, set or not.
fn ends() -> impl Strategy<Value = [Option<End>; 2]> {
    let end = |at: &'static str| prop_oneof![Just(None), Just(Some(End::RunsOff {})), Just(meets(at))];
    (end("0 cm"), end("90 cm")).prop_map(|(lower, upper)| [lower, upper])
}

/// The greatest distance between two lines from a station in mm upwards, in mm.
fn apart(a: &StitchingLine, b: &StitchingLine, from: i64) -> f64 {
    let difference = |mm: i64| (a.front.at(mm as f64 / 10.0) - b.front.at(mm as f64 / 10.0)).abs() * 10.0;
    (from..=800).map(difference).fold(0.0, f64::max)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 800, max_global_rejects: 20_000, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn each_pin_stays_within_its_gate_and_the_line_on_its_side(pins in pins(), way in way()) {
        let [line, _] = line(way, readings(GarmentSide::Left, &pins));
        let deepest = pins.iter().map(|p| p.1).max().unwrap() as f64 / 100.0;
        let takes = |p: &(i64, i64)| p.1 > 0;
        let (first, last) = (pins.iter().position(takes), pins.iter().rposition(takes));
        let fair = way == Fairing::Smooth && last.map_or(0, |last| last + 1 - first.unwrap()) > 3;
        for &(s, d) in &pins {
            let d = d as f64 / 100.0;
            let gate = if d == deepest { 0.1_f64.min(d / 6.0) } else { 0.3_f64.min(d / 6.0) };
            let beside = (line.front.at(s as f64 / 10.0) - d).abs();
            prop_assert!(beside <= if fair { gate } else { 0.0 } + 1e-6, "{beside} cm at {s} mm");
        }
        prop_assert!(line.front.range(0.0, 80.0).0 > -1e-6, "never changes sign");
        prop_assert!(line.front.range(0.0, 80.0).1 <= deepest + 0.1 + 1e-6, "nor passes the deepest pin by more than 1 mm");
        prop_assert_eq!(line.front.at(80.0), 0.0, "an end is exact");
        if way != Fairing::Straight {
            prop_assert!(line.front.steepest(79.9999, 80.0) < 1e-3, "no bend where it meets");
        }
    }

    /// Nothing between two pins is deeper or shallower than the line at both, and nothing beyond the outermost is deeper than there.
    #[test]
    fn a_line_does_not_swing(pins in pins(), way in way(), ends in ends(), let_out in any::<bool>()) {
        let sign = if let_out { -1 } else { 1 };
        let signed: Vec<(i64, i64)> = pins.iter().enumerate().map(|(n, p)| (p.0, if n % 2 == 0 { p.1 } else { sign * p.1 })).collect();
        let change = SeamChange { lower: ends[0], upper: ends[1], fairing: way, ..outseam(gaps_below_nought(&signed), None) };
        let Ok(altered) = alter(&trousers(), &change).map(|seam| seam.lines[0].clone()) else { return Ok(()) };
        let at: Vec<f64> = signed.iter().map(|p| p.0 as f64 / 10.0).collect();
        let y: Vec<f64> = at.iter().map(|s| altered.front.at(*s)).collect();
        for n in 1..at.len() {
            let (low, high) = altered.front.range(at[n - 1], at[n]);
            prop_assert!(low >= y[n - 1].min(y[n]) - 1e-6 && high <= y[n - 1].max(y[n]) + 1e-6, "{low} to {high} between {n} pins");
        }
        for (from, to, y) in [(0.0, at[0], y[0]), (at[at.len() - 1], 104.0, y[y.len() - 1])] {
            let (low, high) = altered.front.range(from, to);
            prop_assert!(low >= y.min(0.0) - 1e-6 && high <= y.max(0.0) + 1e-6, "{low} to {high} beyond {y}");
        }
    }

    /// One millimetre more at a pin moves a line whose ends nobody set by about as much: no end jumps.
    #[test]
    fn a_millimetre_more_moves_the_line_by_a_little(pins in wobbling(1..9), which: prop::sample::Index, way in way()) {
        let mut more = pins.clone();
        more[which.index(pins.len())].1 += 10;
        let drawn = |pins: &[(i64, i64)]| {
            let change = SeamChange { fairing: way, ..outseam(readings(GarmentSide::Left, pins), None) };
            let [line, _] = alter(&trousers(), &change).unwrap().lines;
            line
        };
        // The deepest pin may move by less than others, and which one that is may change.
        let moved = apart(&drawn(&pins), &drawn(&more), 0);
        prop_assert!(moved <= 4.0, "moved by {moved} mm");
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
        prop_assert!(apart(&line_once, &line_twice, 0) <= 0.1);
        // With another figure it is the mean of both, and the line goes no further than either.
        again.amount = Measure { length: Length::from_nm(amount * 100_000), ..again.amount };
        let [apart, _] = line(way, [&once[..], &[again]].concat());
        let most = pins.iter().map(|p| p.1).chain([amount]).max().unwrap() as f64 / 100.0;
        let (low, high) = apart.front.range(pins[0].0 as f64 / 10.0, 80.0);
        prop_assert!(low > -1e-6 && high <= most + 0.1 + 1e-6, "{low} to {high}, not to {most}");
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

    /// From five pins on: fewer are a shape as they are.
    #[test]
    fn a_pin_on_the_line_hardly_moves_it(pins in wobbling(5..9), between: prop::sample::Index) {
        let mut readings = readings(GarmentSide::Left, &pins);
        let [before, _] = line(Fairing::Smooth, readings.clone());
        let n = between.index(pins.len() - 1);
        let at = i64::midpoint(pins[n].0, pins[n + 1].0);
        let amount = Measure { length: before.at(Station(Length::from_mm(at))).front.0, unit: Unit::Cm };
        readings.push(Reading { amount, ..reading(GarmentSide::Left, at, 0) });
        let [after, _] = line(Fairing::Smooth, readings);
        let moved = apart(&before, &after, 0);
        // A new deepest pin may move by less than the one before it: that is what two millimetres and a half are reached by.
        prop_assert!(moved <= 2.5, "moved by {moved} mm");
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

/// Lines from an independent implementation, in another language and with other mathematics.
#[test]
fn lines_are_as_drawn_elsewhere() {
    #[derive(serde::Deserialize)]
    struct Elsewhere {
        case: String,
        stations: Vec<f64>,
        pins: Vec<f64>,
        meets_below: Option<f64>,
        meets_above: Option<f64>,
        faired: Vec<(f64, f64)>,
        line: Vec<(f64, f64)>,
    }
    let cases: Vec<Elsewhere> = serde_json::from_str(include_str!("fairing.json")).unwrap();
    for case in cases {
        let all = case.stations.iter().zip(&case.pins).map(|(&s, &wanted)| Knot { s, wanted, held: false });
        let knots: Vec<Knot> = all.filter(|knot| knot.wanted != 0.0).collect();
        let close = |meets: Option<f64>, knot: &Knot| meets.map_or(Close::Parallel(knot.s), Close::Meets);
        let close = [close(case.meets_below, &knots[0]), close(case.meets_above, &knots[knots.len() - 1])];
        let gate = Gate { any: 0.3, deepest: 0.1 };
        let line =
            StitchingLine { front: fair(&knots, close, Fairing::Smooth, gate), ..StitchingLine::default() };
        for (s, wanted) in case.faired.into_iter().chain(case.line) {
            let drawn = line.front.at(s);
            assert!((drawn - wanted).abs() <= 0.001, "{}: {drawn} at {s}, not {wanted}", case.case);
        }
    }
}

#[test]
fn ends_that_nobody_set() {
    let garment = trousers();
    let ends = |pins: &[(&str, &str)], lower: Option<End>| {
        let pins =
            pins.iter().map(|(at, amount)| crate::tests::kit::pin(GarmentSide::Left, at, amount)).collect();
        let change = SeamChange { lower, ..outseam(pins, None) };
        let [line, _] = alter(&garment, &change).unwrap().lines;
        let end = |end| match end {
            End::MeetsOldStitching { station } => station.to_string(),
            _ => "off".into(),
        };
        (end(line.ends.lower), end(line.ends.upper), line.front)
    };
    for (pins, lower, upper) in [
        (&[("50 cm", "1 cm")][..], "42 cm", "58 cm"),
        (&[("50 cm", "0.3 cm")], "45 cm", "55 cm"),
        (&[("3 cm", "1 cm")], "off", "11 cm"),
        (&[("2 in", "1 cm")], "off", "13.08 cm"),
        (&[("5.1 cm", "1 cm")], "0 cm", "13.1 cm"),
        (&[("16 cm", "2 cm")], "0 cm", "32 cm"),
        (&[("15 cm", "2 cm")], "0 cm", "31 cm"),
        (&[("100 cm", "1 cm")], "92 cm", "off"),
        (&[("90 cm", "2 cm")], "74 cm", "104 cm"),
        (&[("40 cm", "0 cm"), ("60 cm", "1.8 cm"), ("80 cm", "0 cm")], "40 cm", "80 cm"),
        (&[("30 cm", "0 cm"), ("40 cm", "0 cm"), ("60 cm", "1.8 cm")], "40 cm", "74.4 cm"),
        (&[("0 cm", "0 cm"), ("60 cm", "1 cm")], "0 cm", "68 cm"),
    ] {
        let (low, high, front) = ends(pins, None);
        assert_eq!((low.as_str(), high.as_str()), (lower, upper), "{pins:?}");
        assert!(front.range(0.0, 104.0).0 >= 0.0);
    }
    // Near an edge it is as deep there as at its pin, whichever way it slopes.
    let (.., front) = ends(&[("3 cm", "1 cm"), ("20 cm", "2 cm")], None);
    assert!((front.at(0.0) - 1.0).abs() < 1e-9);
    // Where somebody says that it runs off its slope carries on, but no deeper, and never to the other side.
    let off = Some(End::RunsOff {});
    let at_the_hem = |pins: &[(&str, &str)]| ends(pins, off).2.at(0.0);
    assert!((at_the_hem(&[("10 cm", "1 cm"), ("30 cm", "2 cm")]) - 0.5).abs() < 1e-9);
    assert!((at_the_hem(&[("10 cm", "2 cm"), ("30 cm", "1 cm")]) - 2.0).abs() < 1e-9);
    assert!(at_the_hem(&[("30 cm", "0.5 cm"), ("40 cm", "2 cm")]).abs() < 1e-9);
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

mod two_sides {
    use super::*;

    fn both(left: &[(i64, i64)], right: &[(i64, i64)], sides: Option<SidePolicy>) -> Sides {
        let readings = [readings(GarmentSide::Left, left), readings(GarmentSide::Right, right)].concat();
        reconcile(&readings, FrontShare::default(), sides, false)
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
    fn sides_that_are_pinned_nowhere_beside_each_other_are_asked_about() {
        let apart = both(&[(0, 200), (100, 150)], &[(200, 100), (300, 100)], None);
        assert_eq!(
            (apart.from, apart.undecided, apart.apart),
            (SidesFrom::By(SidePolicy::KeepEach), true, None)
        );
        let at = |mm| Station(Length::from_mm(mm));
        assert_eq!(apart.not_beside, Some([(at(0), at(100)), (at(200), at(300))]));
        let decided = both(&[(0, 200)], &[(200, 100)], Some(SidePolicy::Mean));
        assert!(!decided.undecided && decided.not_beside.is_some());
        assert_eq!(both(&[(0, 200)], &[(0, 200)], None).not_beside, None);
    }

    proptest! {
        /// What is there once is the same line whichever side its pins were entered on, and needs no decision.
        #[test]
        fn what_has_no_sides_is_one_line(pins in prop::collection::vec((0_i64..30, 1_i64..40, any::<bool>()), 1..6)) {
            let reading = |(n, (gap, depth, right)): (i64, &(i64, i64, bool))| Reading {
                side: if *right { GarmentSide::Right } else { GarmentSide::Left },
                ..readings(GarmentSide::Left, &[(n * 40 + gap, *depth)]).remove(0)
            };
            let mixed: Vec<Reading> = (0..).zip(&pins).map(reading).collect();
            let left: Vec<Reading> =
                mixed.iter().map(|r| Reading { side: GarmentSide::Left, ..r.clone() }).collect();
            let [mixed, left] = [mixed, left].map(|r| reconcile(&r, FrontShare::default(), Some(SidePolicy::Mean), true));
            prop_assert_eq!(&mixed.pins, &left.pins);
            prop_assert_eq!(&mixed.pins[0], &mixed.pins[1]);
            prop_assert_eq!((mixed.from, mixed.undecided, mixed.apart), (SidesFrom::Once, false, None));
        }
    }

    #[test]
    fn a_quarter_inch_is_a_wobble_and_more_is_a_question() {
        let decided = both(&[(0, 200)], &[(0, 140)], None);
        assert_eq!((decided.from, decided.undecided), (SidesFrom::By(SidePolicy::Mean), false));
        let quarter = both(&[(0, 2000)], &[(0, 1937)], None);
        assert!(!quarter.undecided, "1/4 in is no question yet");
        let asked = both(&[(0, 200)], &[(0, 136)], None);
        assert_eq!((asked.from, asked.undecided), (SidesFrom::By(SidePolicy::KeepEach), true));
        assert_eq!(asked.apart.unwrap().0, Length::from_nm(6_400_000));
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
            // What only guides the chalk stands by itself: never near what is chalked for its own sake, and nowhere missing.
            let near = if tape.unit() == Unit::In { Length::from_64ths(48) } else { Length::from_mm(20) };
            let guides = |m: &crate::chalk::Row| m.places == [MarkedPlace::Between];
            for w in marks.windows(2) {
                let gap = w[1].station.0 - w[0].station.0;
                prop_assert!(gap <= tape.chalk_step() + near * 2);
                prop_assert!(guides(&w[0]) == guides(&w[1]) || gap > near);
            }
            let Some((low, high)) = seam.span() else { return Ok(()) };
            for pin in seam.lines[0].pins.iter().filter(|pin| low <= pin.station && pin.station <= high) {
                let at = Station(tape.round(pin.station.0));
                prop_assert!(marks.iter().any(|m| m.station == at && m.places.contains(&MarkedPlace::Pin)));
            }
            let begins = if low.0 == Length::ZERO && pins[0].1 > 0 { MarkedPlace::Edge } else { MarkedPlace::MeetsOldStitching };
            prop_assert!(marks[0].places.contains(&begins), "{:?}", marks[0]);
            let knee = garment.level(Level::Knee).unwrap().station.length;
            prop_assert_eq!(marks.iter().any(|m| m.places.contains(&MarkedPlace::Level(Level::Knee))), (low.0..high.0).contains(&knee));
            prop_assert!(marks.last().unwrap().places.contains(&MarkedPlace::MeetsOldStitching));
        }
    }
}
