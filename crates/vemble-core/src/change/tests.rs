//! Darts, shared amounts, lines in one pass and elastic, on small garments: worked examples, what must always hold, and refusals.

use super::ChangeKey;
use super::seam::{AlteredSeam, SeamChange, SeamShare, StitchingLine, draw, edge_lengths};
use crate::change::dart::DartChange;
use crate::change::elastic::{ElasticAt, ElasticChange};
use crate::fault::Fault;
use crate::fitting::{End, Fairing, GarmentSide, How, Reading, SidePolicy, Worn};
use crate::garment::{Band, Dart, DartFacts, Kind, Lined, Pocket, Seam, Width};
use crate::judge::tests::kinds::{all_along, round, sum_at};
use crate::judge::{Outcome, Rule};
use crate::length::{Length, Measure, Station, Tape, Unit};
use crate::place::Level;
use crate::solve::{SolvedTryOn, solve};
use crate::tests::kit::{Fitted, m, meets, pin, trousers, trying};
use crate::told::Check;
use crate::try_on::{PassedOver, TryOn};
use kurbo::{BezPath, ParamCurveNearest, Point, Rect, Shape};
use proptest::prelude::*;

const LEFT: GarmentSide = GarmentSide::Left;
const RIGHT: GarmentSide = GarmentSide::Right;

fn attempt(garment: &Fitted, try_on: TryOn) -> Result<SolvedTryOn, Vec<Fault>> {
    solve(&garment.document(vec![try_on]), Tape::Cm).map(|mut s| s.try_ons.remove(0))
}

/// Seams drawn together.
fn alter_all<'a>(of: &'a Fitted, changes: &'a [SeamChange]) -> Vec<AlteredSeam<'a>> {
    let on = super::On { garment: of, wearer: &of.wearer, hem_marks: &[], keeps_all: false };
    draw(on, &changes.iter().enumerate().collect::<Vec<_>>()).unwrap()
}

fn solved(garment: &Fitted, try_on: TryOn) -> SolvedTryOn {
    attempt(garment, try_on).unwrap_or_else(|f| panic!("{f:?}"))
}

fn refused(garment: &Fitted, try_on: TryOn) -> (String, String) {
    let faults = attempt(garment, try_on).unwrap_err();
    assert_eq!(faults.len(), 1, "{faults:?}");
    (faults[0].path.replacen("try_ons[0].", "", 1), faults[0].wrong.found(Tape::Cm))
}

fn find<'a>(result: &'a SolvedTryOn, title: &str) -> &'a Check {
    result.check(title)
}

fn darts(dart: Dart, pins: &[(&str, &str)]) -> DartChange {
    let readings = pins.iter().map(|(station, depth)| pin(LEFT, station, depth)).collect();
    DartChange { readings, ..DartChange::of(dart) }
}

fn with_darts(pins: DartChange) -> TryOn {
    trying(vec![pins])
}

/// A shirt whose waist lies 20 cm above its hem and whose chest lies at 42.
fn shirt() -> Fitted {
    let mut shirt = round(Kind::Shirt);
    for level in &mut shirt.levels {
        level.station = match level.level {
            Level::Hem => m("0 cm"),
            Level::Waist => m("20 cm"),
            Level::Bust => m("42 cm"),
            _ => level.station,
        };
    }
    shirt.seams.iter_mut().filter(|s| s.seam == Seam::SideSeam).for_each(|s| s.length = m("42 cm"));
    shirt
}

/// From the hem, its depths are 1.0 at 0, 10 and 20, 0.5 at 31, nought at 42. From the point they are 42 less those.
fn example_d() -> DartChange {
    let pins = [("11 cm", "0.5 cm"), ("22 cm", "1 cm"), ("32 cm", "1 cm"), ("42 cm", "1 cm")];
    DartChange { point: Some(m("42 cm")), base: Some(m("0 cm")), ..darts(Dart::BackWaist, &pins) }
}

#[test]
fn worked_example_d() {
    let result = solved(&shirt(), with_darts(example_d()));
    let off = |level| result.levels.iter().find(|l| l.level == level).unwrap().off.text();
    assert_eq!([off(Level::Bust), off(Level::Waist), off(Level::Hem)], ["0.0 cm", "4.0 cm", "4.0 cm"]);
    assert_eq!(
        sum_at(&result, Level::Waist),
        "100.0 cm as measured round; 100.0 − 4.0 (2 new back waist darts × 2 sides of the fold × 1.0) = 96.0 cm"
    );
    let point = find(&result, "Point of the new back waist dart");
    assert_eq!(
        (point.outcome, point.figures.as_str()),
        (Outcome::Passes, "11.0 cm long ÷ 0.5 cm folded = 22.0")
    );
    assert_eq!(result.cards.len(), 1);
    insta::assert_debug_snapshot!("card_of_example_d", result.cards[0]);
}

#[test]
fn a_dart_is_deepened_let_out_and_kept_apart_on_each_side() {
    let mut skirt = round(Kind::Skirt);
    skirt.darts = vec![DartFacts {
        dart: Dart::BackWaist,
        name: None,
        fold_depth: m("1 cm"),
        length: m("10 cm"),
        from_centre: m("8 cm"),
        assumed: false,
    }];
    let waist = |pins: DartChange| {
        let result = solved(&skirt, with_darts(pins));
        result.levels.iter().find(|l| l.level == Level::Waist).unwrap().off.text()
    };
    assert_eq!(waist(darts(Dart::BackWaist, &[("10 cm", "0.4 cm")])), "1.6 cm");
    let mut out = darts(Dart::BackWaist, &[("10 cm", "1 cm")]);
    out.readings[0].how = How::Gap;
    assert_eq!(
        waist(out.clone()),
        "−2.0 cm",
        "a gap of 1 lets half of it out on each side of the fold, four times"
    );
    out.readings[0].amount = m("2.4 cm");
    let (path, found) = refused(&skirt, with_darts(out));
    assert_eq!(
        (path.as_str(), found.as_str()),
        ("changes[0].dart.readings[0].amount", "2.4 cm let out, but the dart is 1.0 cm deep there")
    );
    // The sides apart by more than pins wobble: nobody decides by halves.
    let mut apart = darts(Dart::BackWaist, &[("10 cm", "0.2 cm")]);
    apart.readings.push(pin(RIGHT, "10 cm", "1.2 cm"));
    assert_eq!(
        find(&solved(&skirt, with_darts(apart.clone())), "Left and right of the back waist dart").outcome,
        Outcome::Stop
    );
    assert_eq!(waist(DartChange { sides: Some(SidePolicy::Mean), ..apart.clone() }), "2.8 cm");
    assert_eq!(waist(apart), "2.8 cm", "each its own: 2 × 0.2 and 2 × 1.2");
}

/// A skirt, 60 cm from hem to waist, with a pair of back darts that are 2 cm deep and end 12 cm below the waist.
fn skirt_with_darts(depth: &str) -> Fitted {
    let mut skirt = round(Kind::Skirt);
    let facts = |dart| DartFacts {
        dart,
        name: None,
        fold_depth: m(depth),
        length: m("12 cm"),
        from_centre: m("8 cm"),
        assumed: false,
    };
    skirt.darts = vec![facts(Dart::BackWaist)];
    skirt
}

#[test]
fn a_dart_that_is_there_can_be_made_shorter_and_gives_what_it_took_beyond_its_new_point() {
    let mut skirt = skirt_with_darts("2 cm");
    let waist = skirt.level(Level::Waist).unwrap().station.length;
    let hip = waist - Length::from_mm(90);
    for level in skirt.levels.iter_mut().filter(|level| level.level == Level::Hip) {
        level.station = Measure { length: hip, unit: Unit::Cm };
    }
    let below = |mm| Some(Measure { length: waist - Length::from_mm(mm), unit: Unit::Cm });
    let off = |point| {
        let result = solved(&skirt, with_darts(DartChange { point, ..DartChange::of(Dart::BackWaist) }));
        let at = |level| result.levels.iter().find(|l| l.level == level).unwrap().off.text();
        (at(Level::Waist), at(Level::Hip), result.cards.len())
    };
    // 9 cm below the waist the old dart is 0.5 deep: ended at 6 cm it takes nothing there any more, four times 0.5.
    assert_eq!(off(below(60)), ("0.0 cm".into(), "−2.0 cm".into(), 1));
    // Made longer, to 18 cm, it is 1.0 deep there.
    assert_eq!(off(below(180)), ("0.0 cm".into(), "2.0 cm".into(), 1));
    assert_eq!(off(None).2, 0, "nothing is done to it");
    let turned = DartChange { point: below(-10), ..DartChange::of(Dart::BackWaist) };
    let (path, found) = refused(&skirt, with_darts(turned));
    assert_eq!(
        (path.as_str(), found.as_str()),
        ("changes[0].dart.point", "the point of the back waist dart beyond its other end")
    );
}

#[test]
fn a_fold_too_deep_is_split_over_two_pairs_that_take_the_same() {
    for (depth, added) in [("1 cm", "1.2 cm"), ("1.5 cm", "0.7 cm")] {
        let skirt = skirt_with_darts(depth);
        let deep = solved(&skirt, with_darts(darts(Dart::BackWaist, &[("12 cm", added)])));
        let check = find(&deep, "Depth of the back waist dart");
        assert_eq!((check.outcome, check.mend.len()), (Outcome::Caution, 2), "{check:?}");
        let split = solved(&skirt, trying(check.mend.clone()));
        let off =
            |result: &SolvedTryOn| result.levels.iter().find(|l| l.level == Level::Waist).unwrap().off.text();
        assert_eq!(off(&split), off(&deep), "{depth}");
        assert!(
            split.checks.iter().filter(|c| c.key.rule == Rule::Depth).all(|c| c.outcome == Outcome::Passes)
        );
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    /// However much a dart is let out, wherever: it is nowhere less than nothing, and where all of it goes nothing is left.
    #[test]
    fn a_dart_is_let_out_to_nothing_and_no_further(tenths in 3_i64..25, parts in prop::collection::vec(0_i64..=100, 3), two in any::<bool>()) {
        let dart = if two { Dart::BackFishEye } else { Dart::BackWaist };
        let mut shirt = shirt();
        shirt.darts = vec![DartFacts {
            dart,
            name: None,
            fold_depth: Measure { length: Length::from_mm(tenths), unit: Unit::Cm },
            length: m("20 cm"),
            from_centre: m("8 cm"),
            assumed: false,
        }];
        let old = |s: i64| if two { tenths * s.min(200 - s) / 100 } else { tenths * s / 200 };
        let out = |all: bool| {
            let mut change = DartChange::of(dart);
            for (s, part) in [50, 100, 150].into_iter().zip(&parts) {
                let share = if all { 100 } else { *part };
                let amount = Measure { length: Length::from_mm(2 * old(s)).fraction(share, 100), unit: Unit::Cm };
                let station = Measure { length: Length::from_mm(s), unit: Unit::Cm };
                change.readings.push(Reading { station, amount, how: How::Gap, ..pin(LEFT, "0 cm", "0 cm") });
            }
            change
        };
        for all in [false, true] {
            let result = solved(&shirt, with_darts(out(all)));
            let Some(card) = result.cards.first() else { continue };
            for row in card.figures() {
                prop_assert!(!row[1].starts_with('−'), "{row:?}");
            }
            let waist = result.levels.iter().find(|l| l.level == Level::Waist).unwrap();
            prop_assert!(waist.off.measure().length <= Length::ZERO);
        }
    }

    /// However an amount is shared between seams, pairs of them and those down the middle, alike on both sides or not: what is chalked on
    /// all together is what would be chalked on the one that was pinned, mark for mark, on every tape.
    #[test]
    fn shares_are_handed_out_in_whole_marks(
        depths in prop::collection::vec(1_i64..60, 1..5),
        right in -4_i64..5,
        way in 0_usize..5,
        percent in 1_u8..50,
        front in prop_oneof![Just(50_u8), 0_u8..=100],
    ) {
        let (garment, from, to): (_, _, &[Seam]) = match way {
            0 => (trousers(), Seam::Outseam, &[Seam::Inseam]),
            1 => (round(Kind::Dress), Seam::SideSeam, &[Seam::CentreBack]),
            2 => (round(Kind::Dress), Seam::CentreBack, &[Seam::SideSeam]),
            3 => (round(Kind::Dress), Seam::SideSeam, &[Seam::CentreBack, Seam::PrincessBack]),
            _ => (round(Kind::Dress), Seam::CentreBack, &[Seam::SideSeam, Seam::PrincessBack]),
        };
        // Edges that are called otherwise take evenly, whatever the share of the front is.
        let front = if way < 2 { front } else { 50 };
        let mut readings = Vec::new();
        for (n, mm) in (0..).zip(&depths) {
            for (side, more) in [(LEFT, 0), (RIGHT, right)] {
                let amount = Measure { length: Length::from_mm((mm + more).max(0)), unit: Unit::Mm };
                readings.push(Reading { amount, ..pin(side, &format!("{} cm", 10 * n + 2), "0 cm") });
            }
        }
        readings.retain(|reading| from.has_sides() || reading.side == LEFT);
        let change = |spread| SeamChange {
            readings: readings.clone(),
            fairing: Fairing::EveryPin,
            front_share: Some(front.try_into().unwrap()),
            lower: Some(End::RunsOff {}),
            upper: meets("55 cm"),
            sides: from.has_sides().then_some(SidePolicy::KeepEach),
            spread,
            ..SeamChange::of(from)
        };
        let spread = to.iter().map(|&seam| SeamShare { seam, percent }).collect();
        let (alone, shared) = ([change(vec![])], [change(spread)]);
        let (alone, shared) = (alter_all(&garment, &alone), alter_all(&garment, &shared));
        for tape in Tape::ALL {
            // Between pins a line through the sums of two sides is not the sum of their lines: those are looked at where a mark lies on them.
            let stations: Vec<i64> = match (right, tape.unit()) {
                (0, _) => (0..550).step_by(25).collect(),
                (_, Unit::In) => continue,
                _ => (20..).step_by(100).take(depths.len()).collect(),
            };
            for mm in stations {
                let at = Station(Length::from_mm(mm));
                let chalk = |seams: &[AlteredSeam<'_>]| -> Length {
                    let of = |seam: &AlteredSeam<'_>| -> Length {
                        let up = garment.height_of_datum(from) - garment.height_of_datum(seam.facts.seam);
                        let lines = &seam.lines[..if seam.facts.seam.is_single() { 1 } else { 2 }];
                        let at = Station(at.0 + up);
                        lines.iter().filter_map(|line| line.chalked(at, *tape)).map(|e| e.whole().0).sum()
                    };
                    seams.iter().map(of).sum()
                };
                prop_assert_eq!(chalk(&shared), chalk(&alone), "{:?} at {} mm", tape, mm);
            }
        }
    }

    /// A seam moves towards the edge that more is taken from, by half of the difference, however that came about.
    #[test]
    fn a_seam_moves_towards_the_edge_that_gives_more(front in 0_i64..40, back in 0_i64..40) {
        let reading = |station: &str, how, mm| Reading {
            how,
            amount: Measure { length: Length::from_mm(mm), unit: Unit::Cm },
            ..pin(LEFT, station, "0 cm")
        };
        // One pin of each panel alone: what is taken from one edge moves the seam to it.
        let readings = vec![reading("0 cm", How::FrontPanel, front), reading("40 cm", How::BackPanel, back)];
        let result = solved(&trousers(), trying(vec![SeamChange { readings, ..SeamChange::of(Seam::Outseam) }]));
        let moved = result.line(0).moves.clone();
        match front.cmp(&back) {
            _ if front.max(back) == 0 => prop_assert_eq!(moved, None),
            std::cmp::Ordering::Equal => prop_assert!(moved.is_some()),
            std::cmp::Ordering::Greater => prop_assert!(moved.unwrap().ends_with("towards the front")),
            std::cmp::Ordering::Less => prop_assert!(moved.unwrap().ends_with("towards the back")),
        }
    }
}

#[test]
fn a_dart_too_deep_too_short_or_too_near_the_bust_is_cautioned() {
    let dress = round(Kind::Dress);
    let waist = dress.level(Level::Waist).unwrap().station.length;
    let bust = dress.level(Level::Bust).unwrap().station.length;
    let at = |height: Length| Some(Measure { length: height, unit: Unit::Cm });
    let deep = DartChange {
        point: at(bust - Length::from_mm(10)),
        base: at(waist - Length::from_mm(120)),
        ..darts(Dart::FrontFishEye, &[("6 cm", "2.2 cm")])
    };
    let result = solved(&dress, with_darts(deep));
    let titles: Vec<(Outcome, &str)> = result
        .checks
        .iter()
        .filter(|c| c.title.ends_with("dart") || c.title.ends_with("ends"))
        .map(|c| (c.outcome, c.title.as_str()))
        .collect();
    assert_eq!(
        titles,
        [
            (Outcome::Stop, "Point of the new front fish-eye dart"),
            (Outcome::Caution, "Depth of the new front fish-eye dart"),
            (Outcome::Caution, "Where the new front fish-eye dart ends"),
        ]
    );
    assert!(find(&result, "Depth").remedy.as_ref().unwrap().contains("the rest at a seam"));
}

#[test]
fn what_contradicts_itself_is_refused_with_a_way_out() {
    let shirt = shirt();
    let mut placed = example_d();
    placed.readings.push(pin(LEFT, "0 cm", "1 cm"));
    assert_eq!(refused(&shirt, with_darts(placed)).1, "1 cm at the point of the dart");
    let mut no_waist = shirt.clone();
    no_waist.levels.retain(|l| l.level != Level::Waist);
    let nowhere = darts(Dart::BackFishEye, &[("6 cm", "1 cm")]);
    assert_eq!(refused(&no_waist, with_darts(nowhere)).0, "changes[0].dart.point");

    let side = |alteration: SeamChange| trying(vec![alteration]);
    let spread = |shares: &[(Seam, u8)]| {
        let spread = shares.iter().map(|&(seam, percent)| SeamShare { seam, percent }).collect();
        SeamChange { spread, ..all_along(&shirt, Seam::SideSeam, "1 cm") }
    };
    assert_eq!(
        refused(&shirt, side(spread(&[(Seam::CentreBack, 50)]))).0,
        "changes[0].seam.spread[0]",
        "no such seam"
    );
    let too_much = spread(&[(Seam::SleeveSeam, 60), (Seam::CentreBack, 60)]);
    assert_eq!(
        refused(&shirt, side(too_much)),
        ("changes[0].seam.spread".into(), "120 % given to other seams".into())
    );
    let corner = SeamChange { upper: Some(End::CarriesOn { into: Seam::ArmholeSeam }), ..spread(&[]) };
    assert_eq!(
        refused(&shirt, side(corner)),
        ("changes[0].seam.upper".into(), "the side seam carried on into the armhole seam".into())
    );
    let elastic = trying(vec![ElasticChange {
        at: ElasticAt::Waistband,
        casing: Some(m("20 cm")),
        hold_percent: Some(150),
    }]);
    assert_eq!(refused(&shirt, elastic).0, "changes[0].elastic.hold_percent");
}

#[test]
fn side_seam_and_sleeve_are_chalked_in_one_pass() {
    let shirt = shirt();
    let pins = vec![pin(LEFT, "0 cm", "0 cm"), pin(LEFT, "20 cm", "1.5 cm"), pin(LEFT, "42 cm", "1.2 cm")];
    let alone = SeamChange { readings: pins, upper: Some(End::RunsOff {}), ..SeamChange::of(Seam::SideSeam) };
    let off = solved(&shirt, trying(vec![alone.clone()]));
    let misfit = find(&off, "Sleeve and armhole");
    assert_eq!(
        (misfit.outcome, misfit.figures.as_str()),
        (Outcome::Caution, "the armhole shrinks by 2 edges × 1.2 = 2.4 cm; the sleeve by 0.0 cm")
    );
    let carried = SeamChange { upper: Some(End::CarriesOn { into: Seam::SleeveSeam }), ..alone };
    let result = solved(&shirt, trying(vec![carried]));
    assert_eq!(find(&result, "Sleeve and armhole").outcome, Outcome::Passes);
    let keys: Vec<String> = result.cards.iter().map(|c| c.key.to_string()).collect();
    assert_eq!(keys, ["seam.side_seam", "seam.sleeve_seam"]);
    assert!(
        result.cards[0]
            .steps()
            .iter()
            .any(|s| s.contains("turns the corner as a curve into the sleeve seam: chalk both with 1.2 cm"))
    );
    let last = result.cards[1].table().rows.last().unwrap();
    assert_eq!((last.note.as_str(), last.cells[1].text.as_str()), ("turns the corner", "1.2"));
    assert_eq!(result.line(1).sides.words, "carries on from the side seam");
    // What the sleeve loses is checked too.
    assert!(result.levels.iter().any(|l| l.level == Level::UpperArm && l.off.text() == "2.4 cm"));
}

#[test]
fn one_amount_over_several_seams() {
    let dress = round(Kind::Dress);
    let spread = vec![
        SeamShare { seam: Seam::CentreBack, percent: 25 },
        SeamShare { seam: Seam::PrincessBack, percent: 25 },
    ];
    let side = SeamChange { spread, ..all_along(&dress, Seam::SideSeam, "1 cm") };
    let result = solved(&dress, trying(vec![side]));
    assert_eq!(
        sum_at(&result, Level::Waist),
        "100.0 cm as measured round; 100.0 − 2.0 (2 side seams × 2 edges × 0.5) − 1.2 (centre-back seam: 2 edges × 0.6) − 0.8 (2 back princess seams × 2 edges × 0.2) = 96.0 cm"
    );
    assert_eq!(result.line(1).sides.words, "25 % of what is pinned on the side seam");
    assert!(result.line(0).pins.iter().all(|p| !p.stands_off), "a pin is not blamed for what others take");
    assert_eq!(result.cards.len(), 3);
    let mut keys: Vec<String> = result.checks.iter().map(|c| format!("{:?}", c.key)).collect();
    keys.sort_unstable();
    assert!(keys.windows(2).all(|w| w[0] != w[1]), "what is passed over is one check: {keys:?}");
}

#[test]
fn a_centre_back_waist_goes_through_the_band_as_that_is_made() {
    let mut garment = trousers();
    garment.seams.push(crate::tests::kit::seam_facts(Seam::SeatSeam, "30 cm", "3 cm"));
    garment.pockets = vec![Pocket::BackWelt];
    garment.belt_loops = 5;
    let pins = vec![pin(LEFT, "30 cm", "1.5 cm"), pin(LEFT, "26 cm", "1.5 cm")];
    let alteration = SeamChange {
        readings: pins,
        upper: Some(End::StraightThrough { from: m("26 cm") }),
        lower: meets("8 cm"),
        ..SeamChange::of(Seam::SeatSeam)
    };
    let steps = |band: Option<Band>| {
        garment.found.band = band;
        let result = solved(&garment, trying(vec![alteration.clone()]));
        assert_eq!(result.levels[0].off.text(), "3.0 cm");
        assert_eq!(find(&result, "Waistband").figures, "2 edges × 1.5 = 3.0 cm shorter");
        assert!(find(&result, "Gap between the back welt pockets").figures.contains("closer"));
        result.cards[0].steps().join(" ")
    };
    let mut steps = steps;
    let ways = [Band::OnePiece, Band::CentreBackSeam, Band::Separate].map(|band| steps(Some(band)));
    assert!(ways[0].contains("Cut the band at the middle"));
    assert!(ways[1].contains("Sew the band’s own seam"));
    assert!(ways[2].contains("Cut and rejoin the inner band there, or fold it"));
    assert!(ways.iter().all(|w| w.contains("stitching in the ditch") && w.contains("belt loop")));
}

#[test]
fn back_pockets_keep_their_distance() {
    let mut garment = trousers();
    garment.seams.push(crate::tests::kit::seam_facts(Seam::SeatSeam, "30 cm", "3 cm"));
    garment.pockets = vec![Pocket::BackPatch];
    let readings = vec![pin(LEFT, "30 cm", "1.5 cm"), pin(LEFT, "10 cm", "1.5 cm")];
    let alteration = SeamChange { readings, fairing: Fairing::Straight, ..SeamChange::of(Seam::SeatSeam) };
    let mut gap = |apart: &str| {
        garment.found.back_pockets_apart = Some(m(apart));
        let result = solved(&garment, trying(vec![alteration.clone()]));
        let check = find(&result, "Gap between the back patch pockets");
        (check.outcome, check.figures.clone(), check.remedy.clone().unwrap_or_default())
    };
    let (outcome, figures, remedy) = gap("4 cm");
    assert_eq!(outcome, Outcome::Caution);
    assert!(figures.starts_with("4.0 − 3.0 = 1.0 cm between them, at "), "{figures}");
    assert!(remedy.starts_with("Take at most 1.5 cm here"), "{remedy}");
    assert_eq!(gap("5.5 cm").0, Outcome::Passes, "2.5 cm is enough");
    assert_eq!(gap("5.4 cm").0, Outcome::Caution);
    assert!(gap("2 cm").2.starts_with("Take at most 0.0 cm here"));
}

#[test]
fn a_centre_seam_goes_through_the_band_unless_its_pins_say_otherwise() {
    let mut garment = trousers();
    garment.seams.push(crate::tests::kit::seam_facts(Seam::SeatSeam, "30 cm", "3 cm"));
    let mut end = |depth: Option<&str>, pins: &[(&str, &str)]| {
        garment.waistband_depth = depth.map(m);
        let readings = pins.iter().map(|(station, amount)| pin(LEFT, station, amount)).collect();
        let alteration = SeamChange { readings, ..SeamChange::of(Seam::SeatSeam) };
        let result = solved(&garment, trying(vec![alteration]));
        assert!(result.line(0).upper_is_assumed);
        result.line(0).ends[1].clone()
    };
    let pins = [("29 cm", "1.5 cm"), ("18 cm", "0.8 cm")];
    assert_eq!(end(Some("4 cm"), &pins), "goes straight through from 26.0 cm to the waist");
    assert_eq!(end(None, &pins), "runs off at the waist");
    let within = [("29 cm", "1.5 cm"), ("27 cm", "1 cm")];
    assert_eq!(end(Some("4 cm"), &within), "goes straight through from 29.0 cm to the waist");
    assert_eq!(end(Some("4 cm"), &[("12 cm", "0.5 cm")]), "meets the old stitching at 17.0 cm");
}

#[test]
fn a_card_says_which_way_its_figures_go_and_how_they_come_about() {
    let reading = |side, station: &str, amount: &str, how| Reading { how, ..pin(side, station, amount) };
    let card = |alteration: SeamChange| solved(&trousers(), trying(vec![alteration])).cards.remove(0);
    let of = |readings| SeamChange { readings, fairing: Fairing::EveryPin, ..SeamChange::of(Seam::Outseam) };
    let gap = reading(LEFT, "40 cm", "1 cm", How::Gap);
    let out = card(of(vec![gap.clone()]));
    assert!(
        out.sentences()[0].ends_with("out into the allowance, away from the leg: so says the −."),
        "{}",
        out.sentences()[0]
    );
    let steps = out.steps().join(" ");
    assert!(steps.contains("sideways out into the allowance and make a dot"), "{steps}");
    // With the old stitching in, nothing is tried.
    let at = |words: &str| steps.find(words).unwrap_or_else(|| panic!("{words}: {steps}"));
    assert!(
        at("Baste along") < at("Unpick the old line") && at("Unpick the old line") < at("Try it on again")
    );
    assert!(!steps.contains("lets out again"), "{steps}");
    let both = card(of(vec![gap, pin(LEFT, "70 cm", "1 cm")]));
    assert!(
        both.sentences()[0].ends_with("into the leg; those with a − out into the allowance."),
        "{}",
        both.sentences()[0]
    );
    let taken_in = card(of(vec![pin(LEFT, "40 cm", "1 cm")]));
    assert!(
        taken_in.sentences()[0].ends_with("into the leg.")
            && taken_in.steps().join(" ").contains("lets out again")
    );

    let at_40 = |alteration: SeamChange| {
        let card = card(alteration);
        let row = card.table().rows.iter().find(|row| row.cells[0].text == "40.0").unwrap();
        row.cells[1].sum.clone().unwrap()
    };
    assert_eq!(
        at_40(of(vec![reading(LEFT, "40 cm", "1.4 cm", How::BackPanel)])),
        "pinned left 1.4 altogether; the line here: front 0.0 + back 1.4 = 1.4 cm altogether"
    );
    let two = vec![pin(LEFT, "40 cm", "1.6 cm"), pin(RIGHT, "40 cm", "1.3 cm")];
    assert_eq!(
        at_40(SeamChange { trim_to: Some(m("1 cm")), ..of(two) }),
        "pinned left 3.2, right 2.6 altogether, taken as 3.0; the line here: 2 edges × 1.5 = 3.0 cm altogether; cut 1.0 cm outside the new stitching"
    );
    let spread = vec![SeamShare { seam: Seam::Inseam, percent: 50 }];
    assert_eq!(
        at_40(SeamChange { spread, ..of(vec![pin(LEFT, "40 cm", "2 cm")]) }),
        "pinned left 4.0 altogether; 50 % of it stays on this seam; the line here: 2 edges × 1.0 = 2.0 cm altogether"
    );
}

#[test]
fn elastic_holds_what_is_left_after_the_seams() {
    let mut garment = trousers();
    garment.waistband_depth = Some(m("4 cm"));
    garment
        .wearer
        .measurements
        .push(crate::tests::kit::taken(crate::body::BodyMeasurement::WaistGirth, "81 cm"));
    let elastic = |casing: &str| {
        trying(vec![ElasticChange { at: ElasticAt::Waistband, casing: Some(m(casing)), hold_percent: None }])
    };
    let result = solved(&garment, elastic("42 cm"));
    let crate::shown::Shows::Elastic(shown) = &result.changes[0].shows else { panic!("{result:?}") };
    assert_eq!(
        shown.sum,
        "42.0 − (86.0 − 81.0) = 37.0 cm spans; 37.0 ÷ 1.15 + 2 anchors × 1.0 = 34.2 cm to cut"
    );
    assert_eq!(find(&result, "Elastic").outcome, Outcome::Passes);
    assert_eq!(result.cards[0].key, ChangeKey::Elastic(ElasticAt::Waistband));
    let short = solved(&garment, elastic("4 cm"));
    assert_eq!((find(&short, "Elastic").outcome, short.cards.len()), (Outcome::Stop, 0));
    garment.wearer.measurements.clear();
    let unknown = solved(&garment, elastic("42 cm"));
    assert!(find(&unknown, "Elastic").remedy.as_ref().unwrap().starts_with("Measure both"));
}

#[test]
fn a_stop_is_passed_over_with_a_word_and_only_with_one() {
    let garment = trousers();
    let deep = || trying(vec![all_along(&garment, Seam::Outseam, "4 cm")]);
    let result = solved(&garment, deep());
    let stop = result.checks.iter().find(|c| c.outcome == Outcome::Stop).unwrap().key;
    let said = |why: &str| {
        let passed_over = vec![PassedOver { finding: stop, why: why.into() }];
        let result = solved(&garment, TryOn { passed_over, ..deep() });
        result.checks.iter().find(|c| c.key == stop).unwrap().stands_in_the_way()
    };
    assert!(!said("She likes it tight."));
    let passed_over = vec![PassedOver { finding: stop, why: "  ".into() }];
    assert_eq!(refused(&garment, TryOn { passed_over, ..deep() }).0, "passed_over[0].why");
}

#[test]
fn one_edge_let_out_past_its_allowance_is_named() {
    let mut garment = trousers();
    garment.found.lined = Some(Lined::Fully);
    garment.seams[0].allowance_back = Some(m("1.2 cm"));
    let mut out = all_along(&garment, Seam::Outseam, "1 cm");
    out.readings.iter_mut().for_each(|r| r.how = How::Gap);
    let result = solved(&garment, trying(vec![out]));
    let check = find(&result, "Letting out the outseam");
    assert_eq!((check.outcome, check.reason.as_str()), (Outcome::Stop, "Short by 0.3 cm on the back edge."));
    assert_eq!(find(&result, "Lining and outseam").outcome, Outcome::Caution);
}

/// Side seam pins as (station mm, depth in tenths of a mm), at least 2 cm apart.
fn pins() -> impl Strategy<Value = Vec<(i64, i64)>> {
    prop::collection::vec((20_i64..90, 0_i64..300), 1..6).prop_map(|gaps| {
        let mut at = 0;
        let place = |(gap, depth): (i64, i64)| {
            at += gap;
            (at, depth)
        };
        gaps.into_iter().map(place).filter(|p| p.0 < 400).collect()
    })
}

fn readings(pins: &[(i64, i64)], how: How, side: GarmentSide, unit: Unit) -> Vec<Reading> {
    let measure = |nm| Measure { length: Length::from_nm(nm), unit };
    let reading = |&(s, a): &(i64, i64)| Reading {
        id: None,
        side,
        station: measure(s * 1_000_000),
        amount: measure(a * 100_000),
        how,
    };
    pins.iter().map(reading).collect()
}

fn way() -> impl Strategy<Value = Fairing> {
    prop_oneof![Just(Fairing::Smooth), Just(Fairing::EveryPin), Just(Fairing::Straight)]
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn shares_add_up_to_the_whole_line(pins in pins(), percent in 1_u8..=100, way in way()) {
        let garment = trousers();
        let whole = |spread: Vec<SeamShare>| {
            let readings = readings(&pins, How::Fold, LEFT, Unit::Cm);
            let alterations = [SeamChange { readings, fairing: way, spread, ..SeamChange::of(Seam::Outseam) }];
            let seams = alter_all(&garment, &alterations);
            let at = |mm: i64| -> f64 { seams.iter().map(|s| s.lines[0].front.at(mm as f64 / 10.0)).sum() };
            (0..700).step_by(9).map(at).collect::<Vec<f64>>()
        };
        for (alone, together) in whole(vec![]).iter().zip(whole(vec![SeamShare { seam: Seam::Inseam, percent }])) {
            prop_assert!((alone - together).abs() < 0.02, "{} and {}", alone, together);
        }
    }

    #[test]
    fn a_drawing_holds_its_line_and_its_marks(pins in pins(), out in any::<bool>(), trims in any::<bool>(), way in way()) {
        let how = if out { How::Gap } else { How::Fold };
        let alteration = SeamChange {
            readings: readings(&pins, how, LEFT, Unit::Cm),
            fairing: way,
            trim_to: trims.then(|| m("1 cm")),
            ..SeamChange::of(Seam::Outseam)
        };
        let result = solved(&trousers(), trying(vec![alteration]));
        // Without a pin that takes anything there is no card.
        for drawing in result.cards.first().into_iter().flat_map(|card| card.drawings()) {
            let lines = [Some(&drawing.old), Some(&drawing.new), drawing.cut.as_ref()];
            let paths: Vec<BezPath> = lines.into_iter().flatten().map(|d| BezPath::from_svg(d).unwrap()).collect();
            let room = Rect::new(-0.01, -0.01, drawing.width + 0.01, drawing.height + 0.01);
            for path in &paths {
                prop_assert_eq!(room.union(path.bounding_box()), room);
            }
            let new = paths[1].segments().collect::<Vec<_>>();
            for [x, y] in &drawing.dots {
                let beside = new.iter().map(|s| s.nearest(Point::new(*x, *y), 1e-3).distance_sq.sqrt());
                // A mark lies on the tape: at an end up to a mark beside the line.
                prop_assert!(beside.fold(f64::INFINITY, f64::min) < 0.7, "{x} {y}");
            }
        }
    }

    #[test]
    fn a_carried_line_has_equal_offsets_at_its_corner(pins in pins(), way in way(), apart in 0_i64..60) {
        let shirt = shirt();
        let mut both = readings(&pins, How::Fold, LEFT, Unit::Cm);
        both.extend(readings(&pins.iter().map(|p| (p.0, p.1 + apart)).collect::<Vec<_>>(), How::Fold, RIGHT, Unit::Cm));
        let alterations = [SeamChange { readings: both, fairing: way, sides: Some(SidePolicy::KeepEach), upper: Some(End::CarriesOn { into: Seam::SleeveSeam }), ..SeamChange::of(Seam::SideSeam) }];
        let seams = alter_all(&shirt, &alterations);
        prop_assert_eq!(seams.len(), 2);
        for side in GarmentSide::BOTH {
            let corner = |n: usize| seams[n].line(side).at(Station(seams[n].facts.length.length));
            prop_assert_eq!(corner(0), corner(1));
        }
    }

    #[test]
    fn in_then_out_by_the_same_is_the_identity(pins in pins(), way in way()) {
        let garment = trousers();
        let line = |how: How, times: i64, unit: Unit| {
            let doubled: Vec<(i64, i64)> = pins.iter().map(|p| (p.0, p.1 * times)).collect();
            let alterations = [SeamChange { readings: readings(&doubled, how, LEFT, unit), fairing: way, upper: meets("60 cm"), lower: Some(End::RunsOff {}), ..SeamChange::of(Seam::Outseam) }];
            alter_all(&garment, &alterations)[0].lines[0].clone()
        };
        // What is pinched out whole is twice the fold; a gap of as much lets it out again.
        let (taken, let_out, inches) = (line(How::Fold, 1, Unit::Cm), line(How::Gap, 2, Unit::Cm), line(How::Fold, 1, Unit::In));
        prop_assert_eq!(&taken, &inches, "units change nothing");
        for mm in (0..600).step_by(7) {
            let at = |line: &StitchingLine| line.front.at(f64::from(mm) / 10.0);
            prop_assert!((at(&taken) + at(&let_out)).abs() < 1e-6);
        }
    }

    #[test]
    fn a_mismatch_is_antisymmetric_and_nought_for_equal_edges(pins in pins(), percent in 0_u8..=100) {
        prop_assume!(pins.iter().any(|pin| pin.1 > 0));
        let mut garment = trousers();
        garment.levels.iter_mut().filter(|l| l.level == Level::Hip).for_each(|l| l.width = Width::Girth(m("112 cm")));
        let lengths = |percent: u8| {
            let share = Some(percent.try_into().unwrap());
            let alterations = [SeamChange { readings: readings(&pins, How::Fold, LEFT, Unit::Cm), fairing: Fairing::EveryPin, front_share: share, upper: meets("80 cm"), lower: Some(End::RunsOff {}), ..SeamChange::of(Seam::Outseam) }];
            let seams = alter_all(&garment, &alterations);
            edge_lengths(&garment, &seams[0], LEFT).unwrap()
        };
        let (one, other) = (lengths(percent), lengths(100 - percent));
        let apart = (one.mismatch() + other.mismatch()).abs();
        prop_assert!(apart <= Length::from_nm(2_000), "{apart:?}");
        if percent == 50 {
            prop_assert_eq!(one.mismatch(), Length::ZERO);
        }
    }

    #[test]
    fn no_edge_gives_more_than_it_has_without_a_stop(pins in pins(), allowance in 4_i64..40, back in 4_i64..40) {
        let mut garment = trousers();
        garment.seams[0].allowance = Measure { length: Length::from_mm(allowance), unit: Unit::Cm };
        garment.seams[0].allowance_back = Some(Measure { length: Length::from_mm(back), unit: Unit::Cm });
        let alteration = SeamChange { readings: readings(&pins, How::Gap, LEFT, Unit::Cm), fairing: Fairing::Straight, lower: meets("0 cm"),
            upper: meets("60 cm"), ..SeamChange::of(Seam::Outseam) };
        let result = solved(&garment, trying(vec![alteration]));
        let most = Tape::Cm.round(pins.iter().map(|p| Length::from_nm(p.1 * 50_000)).max().unwrap());
        let gives = Length::from_mm(allowance.min(back)) - garment.cloth.keep().on(Tape::Cm);
        let stopped = result.checks.iter().any(|c| c.key.rule == Rule::Capacity && c.outcome == Outcome::Stop);
        prop_assert_eq!(stopped, most > gives && most > Length::ZERO, "{:?} of {:?}", most, gives);
    }

    #[test]
    fn a_dart_is_exact_at_its_pins_nought_at_its_points_and_takes_four_times_its_depth(pins in pins(), waist_depth in 1_i64..25, worn in prop_oneof![Just(Worn::RightSideOut), Just(Worn::InsideOut)]) {
        let shirt = shirt();
        let mut dart = DartChange { point: Some(m("60 cm")), base: Some(m("0 cm")), ..DartChange::of(Dart::BackWaist) };
        dart.readings = readings(&pins.iter().filter(|p| p.0 < 390).copied().collect::<Vec<_>>(), How::Fold, LEFT, Unit::Cm);
        // The waist lies 40 cm below the point.
        dart.readings.push(pin(LEFT, "40 cm", &format!("{waist_depth} mm")));
        let altered = super::dart::draw(super::On { garment: &shirt, wearer: &shirt.wearer, hem_marks: &[], keeps_all: false }, &[(0, &dart)]).unwrap().remove(0);
        for side in GarmentSide::BOTH {
            prop_assert_eq!(altered.depth(side, Station::default()), Length::ZERO);
            for reading in &dart.readings {
                let beside = altered.depth(side, reading.at()) - reading.amount.length;
                prop_assert!(beside.abs() < Length::from_nm(1_000));
            }
            let mm = |s: i64| altered.depth(side, Station(Length::from_mm(s)));
            prop_assert!((0..=600).step_by(5).all(|s| mm(s) > Length::from_nm(-1_000)), "it never turns over");
        }
        let result = solved(&shirt, TryOn { worn, ..with_darts(dart) });
        let waist = result.levels.iter().find(|l| l.level == Level::Waist).unwrap();
        prop_assert!((Length::from_nm(waist.off.nm) - Length::from_mm(waist_depth * 4)).abs() < Length::from_nm(10_000));
    }
}

#[test]
fn a_lining_follows_a_dart_that_is_only_moved() {
    let mut shirt = shirt();
    let facts = DartFacts {
        dart: Dart::BackFishEye,
        name: None,
        fold_depth: m("1 cm"),
        length: m("20 cm"),
        from_centre: m("8 cm"),
        assumed: false,
    };
    shirt.darts.push(facts);
    shirt.found.lined = Some(Lined::Fully);
    let figures = |point: Option<&str>| {
        let moved = DartChange { point: point.map(m), ..DartChange::of(Dart::BackFishEye) };
        let result = solved(&shirt, with_darts(moved));
        result.checks.iter().find(|c| c.title.starts_with("Lining")).map(|c| c.figures.clone())
    };
    assert_eq!(figures(None), None, "nothing is changed");
    assert_eq!(figures(Some("30 cm")), None, "it lies there now");
    // Its upper half is 5 cm shorter: where it was deepest it is shallower now, and the other way round further down.
    let shorter = figures(Some("25 cm")).unwrap();
    assert!(shorter.contains("folded by up to") && shorter.contains("let out by up to"), "{shorter}");
}
