//! Worked examples and refusals, on small garments.

pub(crate) mod anything;
pub(crate) mod kit;
mod panel;
mod rooms;
mod table;

use crate::body::BodyMeasurement;
use crate::card::TableRow;
use crate::change::Change;
use crate::change::seam::SeamChange;
use crate::document::Document;
use crate::fitting::{End, Fairing, GarmentSide, How, Reading, SidePolicy, Worn};
use crate::garment::{InTheWay, Seam, Width};
use crate::judge::{LevelOf, Outcome, Rule};
use crate::length::{Length, Tape};
use crate::place::Level;
use crate::solve::{Solved, SolvedTryOn, solve};
use crate::tests::kit::{m, meets, outseam, pin, taken, trousers, trying};
use crate::told::Check;
use crate::try_on::TryOn;

fn document(changes: Vec<SeamChange>, worn: Worn) -> Document {
    trousers().document(vec![TryOn { worn, ..trying(changes) }])
}

fn solved(change: SeamChange) -> SolvedTryOn {
    solve(&document(vec![change], Worn::RightSideOut), Tape::Cm).unwrap().try_ons.remove(0)
}

fn refused(change: SeamChange) -> Vec<(String, String)> {
    let faults = solve(&document(vec![change], Worn::RightSideOut), Tape::Cm).unwrap_err();
    let at = "try_ons[0].changes[0].seam.";
    let words = |f: &crate::fault::Fault| (f.path.replacen(at, "", 1), f.wrong.found(Tape::Cm));
    faults.iter().map(words).collect()
}

/// The first seam that is changed.
fn first(document: &mut Document) -> &mut SeamChange {
    match &mut document.try_ons[0].changes[0] {
        Change::Seam(seam) => seam,
        other => panic!("{other:?}"),
    }
}

fn check(checks: &[Check], rule: Rule) -> &Check {
    checks.iter().find(|c| c.key.rule == rule).unwrap_or_else(|| panic!("no {rule:?}"))
}

fn example_a_pins(side: GarmentSide) -> Vec<Reading> {
    [("0 cm", "4.5 cm"), ("20 cm", "3.5 cm"), ("40 cm", "2 cm"), ("55 cm", "0.8 cm")]
        .map(|(s, a)| pin(side, s, a))
        .into()
}

#[test]
fn worked_example_a_tapering_a_leg_at_the_outseam() {
    for fairing in [Fairing::Smooth, Fairing::EveryPin, Fairing::Straight] {
        let alteration =
            SeamChange { fairing, ..outseam(example_a_pins(GarmentSide::Right), meets("65 cm")) };
        let result = solved(alteration);
        let hem = result.levels.iter().find(|l| l.level == Level::Hem).unwrap();
        assert_eq!(hem.sum, "48.0 cm as measured round; 48.0 − 9.0 (outseam: 2 edges × 4.5) = 39.0 cm");
        let opening = check(&result.checks, Rule::Opening);
        assert_eq!(opening.figures, "heel girth 33.0 + 1.0 = 34.0 cm needed; the opening measures 39.0 cm");
        assert_eq!(opening.outcome, Outcome::Passes);
        assert_eq!(check(&result.checks, Rule::RunOut).outcome, Outcome::Passes, "{fairing:?}");
        assert_eq!(check(&result.checks, Rule::Hang).outcome, Outcome::Caution);
        assert!(result.line(0).pins.iter().all(|p| !p.stands_off), "{fairing:?}");
        assert_eq!(result.line(0).sides.words, "right pinned, left copied from it");
        assert_eq!(result.cards[0].figures().last().unwrap()[1], "0.0", "an end is exact");
        if fairing != Fairing::Smooth {
            assert_eq!(check(&result.checks, Rule::RunOut).figures, "10.0 cm long ÷ 0.8 cm per edge = 12.5");
        }
    }
}

#[test]
fn worked_example_b_two_sides_pinned_inside_out() {
    let pins = vec![pin(GarmentSide::Left, "104 cm", "1.9 cm"), pin(GarmentSide::Right, "104 cm", "1.3 cm")];
    let alteration =
        SeamChange { lower: meets("70 cm"), upper: Some(End::RunsOff {}), ..outseam(pins, None) };
    let result = solve(&document(vec![alteration], Worn::InsideOut), Tape::Cm).unwrap().try_ons.remove(0);
    let seam = result.line(0);
    assert_eq!(seam.sides.apart.as_ref().unwrap().text(), "0.6 cm");
    assert_eq!(seam.sides.words, "the mean of left and right on both");
    assert_eq!(result.cards[0].figures().last().unwrap()[1..], ["1.6", "3.2"]);
    assert!(seam.sides_agree);
    let waist = &result.levels[0];
    assert_eq!(
        (waist.level, waist.off.text().as_str(), waist.after.text().as_str()),
        (Level::Waist, "6.4 cm", "79.6 cm")
    );
    assert_eq!(seam.pins[0].seen_words, "wearer’s right", "the garment's left was on the wearer's right");
    assert_eq!(seam.strip.sides[0].side, GarmentSide::Right, "the wearer's left is drawn first");
}

#[test]
fn sides_that_disagree_are_kept_until_somebody_decides() {
    let pins = || {
        let mut pins = example_a_pins(GarmentSide::Left);
        pins.push(pin(GarmentSide::Right, "30 cm", "1.5 cm"));
        pins
    };
    let asked = solved(outseam(pins(), meets("70 cm")));
    let sides = check(&asked.checks, Rule::Sides);
    assert_eq!(
        (sides.outcome, sides.figures.as_str()),
        (Outcome::Stop, "1.3 cm apart on each edge, at 30.0 cm")
    );
    assert!(!asked.line(0).sides_agree);
    assert!(asked.levels.iter().any(|l| (l.level, l.of) == (Level::Hem, LevelOf::LeftLeg)));
    let decided = solved(SeamChange { sides: Some(SidePolicy::Larger), ..outseam(pins(), meets("70 cm")) });
    assert_eq!(check(&decided.checks, Rule::Sides).outcome, Outcome::Passes);
    assert!(decided.line(0).sides_agree);
    let kept = solved(SeamChange {
        sides: Some(SidePolicy::KeepEach),
        ..outseam(example_a_pins(GarmentSide::Left), meets("65 cm"))
    });
    assert!(
        kept.cards[0].figures().iter().all(|row| row[3..].iter().all(|text| *text == "–")),
        "the side nobody pinned stays as it is"
    );
}

#[test]
fn a_band_is_taken_in_straight_through_its_depth() {
    let pins = vec![pin(GarmentSide::Left, "98 cm", "1.0 cm"), pin(GarmentSide::Left, "102 cm", "1.2 cm")];
    let straight = Some(End::StraightThrough { from: m("97 cm") });
    let result = solved(SeamChange { lower: meets("85 cm"), ..outseam(pins, straight) });
    let figures = result.cards[0].figures();
    let figures: Vec<_> = figures.iter().map(|row| (row[0], row[1])).collect();
    assert_eq!(figures.first().unwrap(), &("85.0", "0.0"));
    assert_eq!(
        figures[figures.len() - 5..],
        [("90.0", "0.4"), ("97.0", "1.1"), ("98.0", "1.1"), ("102.0", "1.1"), ("104.0", "1.1")]
    );
}

#[test]
fn a_missing_end_is_assumed_and_said() {
    let result = solved(outseam(
        vec![pin(GarmentSide::Left, "0 cm", "2 cm"), pin(GarmentSide::Left, "40 cm", "1 cm")],
        None,
    ));
    assert_eq!(result.line(0).ends[1], "meets the old stitching at 48.0 cm");
    assert!(result.cards[0].sentences().iter().any(|n| n.starts_with("Assumed: ")));
}

#[test]
fn too_short_a_run_out_names_the_station_that_is_safe() {
    let pins = || vec![pin(GarmentSide::Left, "0 cm", "2 cm"), pin(GarmentSide::Left, "40 cm", "2 cm")];
    let run_out = |station: &str| {
        let alteration = SeamChange { fairing: Fairing::EveryPin, ..outseam(pins(), meets(station)) };
        check(&solved(alteration).checks, Rule::RunOut).clone()
    };
    assert_eq!(run_out("56 cm").outcome, Outcome::Passes);
    let poke = run_out("50 cm");
    assert_eq!(
        (poke.outcome, poke.remedy.unwrap().as_str()),
        (Outcome::Caution, "Let it meet the old stitching at 56.0 cm.")
    );
    assert_eq!(run_out("45 cm").outcome, Outcome::Stop);
}

#[test]
fn letting_out_stops_at_what_the_seam_can_give() {
    let gap = |amount: &str| vec![Reading { how: How::Gap, ..pin(GarmentSide::Left, "0 cm", amount) }];
    let capacity = |amount: &str| {
        let result = solved(outseam(gap(amount), meets("30 cm")));
        (check(&result.checks, Rule::Capacity).outcome, result.levels.last().unwrap().after.text())
    };
    assert_eq!(capacity("1 cm"), (Outcome::Passes, "49.0 cm".into()));
    assert_eq!(capacity("1.2 cm").0, Outcome::Stop);
}

#[test]
fn taking_too_much_at_the_knee_is_a_stop_with_its_remedy() {
    let pins = vec![pin(GarmentSide::Left, "0 cm", "2 cm"), pin(GarmentSide::Left, "45 cm", "4.5 cm")];
    let result = solved(SeamChange { fairing: Fairing::EveryPin, ..outseam(pins, meets("90 cm")) });
    let ease = check(&result.checks, Rule::Ease);
    assert_eq!(
        (ease.outcome, ease.figures.as_str()),
        (Outcome::Stop, "43.0 − 40.0 (knee body) = 3.0 cm ease altogether")
    );
    assert_eq!(ease.remedy.as_deref(), Some("Take 1.0 cm less altogether at this level."));
}

#[test]
fn refusals_name_the_field_and_what_was_read() {
    let left = GarmentSide::Left;
    let one = |reading| refused(outseam(vec![reading], meets("65 cm"))).remove(0);
    assert_eq!(one(pin(left, "10 cm", "-3 cm")), ("readings[0].amount".into(), "-3 cm".into()));
    assert_eq!(
        one(pin(left, "110 cm", "1 cm")),
        ("readings[0].station".into(), "110 cm, but it is 104.0 cm long, measured from the hem".into())
    );
    assert_eq!(
        one(pin(left, "0 cm", "24 cm")),
        (
            "readings[0].amount".into(),
            "24 cm: that takes out more than the 48.0 cm the garment measures there".into()
        )
    );
    let twice =
        refused(outseam(vec![pin(left, "10 cm", "1 cm"), pin(left, "100 mm", "2 cm")], meets("65 cm")));
    assert_eq!(
        twice,
        [("readings[1].station".into(), "100 mm, where reading 1 already is on the left side".into())]
    );
    let end = refused(outseam(example_a_pins(left), meets("50 cm")));
    assert_eq!(end, [("upper".into(), "50 cm, but a pin stands at 55.0 cm".into())]);
    let other = refused(SeamChange { tolerance: Some(m("0 cm")), ..outseam(vec![], None) });
    assert_eq!(other[0].0, "tolerance");
}

#[test]
fn levels_in_the_wrong_order_are_refused() {
    let mut document = document(vec![], Worn::RightSideOut);
    document.states[0].garment.levels[1].station = m("80 cm");
    let faults = solve(&document, Tape::Cm).unwrap_err();
    assert_eq!(faults[0].path, "states[0].garment.levels[2].station");
    assert_eq!(faults[0].wrong.found(Tape::Cm), "the knee lies above the thigh");
}

#[test]
fn units_change_the_figures_but_not_the_line() {
    let in_cm = outseam(
        vec![pin(GarmentSide::Left, "0 cm", "25.4 mm"), pin(GarmentSide::Left, "508 mm", "12.7 mm")],
        meets("762 mm"),
    );
    let in_inches = outseam(
        vec![pin(GarmentSide::Left, "0 in", "1 in"), pin(GarmentSide::Left, "20 in", "1/2 in")],
        meets("30 in"),
    );
    let strip = |alteration| solve(&document(vec![alteration], Worn::RightSideOut), Tape::In).unwrap();
    let (a, b): (Solved, Solved) = (strip(in_cm), strip(in_inches));
    let strips =
        |solved: &Solved| solved.try_ons[0].lines().iter().map(|l| l.strip.clone()).collect::<Vec<_>>();
    assert_eq!(strips(&a), strips(&b));
    assert_eq!(a.try_ons[0].cards[0].figures(), b.try_ons[0].cards[0].figures());
    let at = |row: &TableRow| row.cells[0].figure.as_ref().unwrap().nm;
    let rows = &a.try_ons[0].cards[0].table().rows;
    let near = Length::from_64ths(48) * 2;
    assert!(rows.windows(2).all(|w| Length::from_nm(at(&w[1]) - at(&w[0])) <= Tape::In.chalk_step() + near));
}

/// A way to spoil a document.
type Spoil = fn(&mut Document);

#[test]
fn every_impossible_document_is_refused_at_its_place() {
    let cases: [(Spoil, &str, &str); 16] = [
        (|d| d.states[0].garment.name = "  ".into(), "states[0].garment.name", "nothing"),
        (|d| d.wearer.name = "x".repeat(121), "wearer.name", "over 120 letters"),
        (
            |d| d.wearer.measurements.push(taken(BodyMeasurement::KneeGirth, "0 cm")),
            "wearer.measurements[3].value",
            "0 cm",
        ),
        (
            |d| d.states[0].garment.levels[0].station = m("-1 cm"),
            "states[0].garment.levels[0].station",
            "-1 cm",
        ),
        (
            |d| d.states[0].garment.levels[2].width = Width::LaidFlat(m("0 in")),
            "states[0].garment.levels[2].width",
            "0 in",
        ),
        (
            |d| d.states[0].garment.levels[1].level = Level::Hem,
            "states[0].garment.levels[1].level",
            "the hem stands here a second time",
        ),
        (
            |d| d.states[0].garment.levels[1].station = m("0 cm"),
            "states[0].garment.levels[1].station",
            "the hem lies above the knee",
        ),
        (
            |d| d.states[0].garment.seams[1].seam = Seam::Outseam,
            "states[0].garment.seams[1].seam",
            "the outseam stands here a second time",
        ),
        (|d| d.states[0].garment.seams[0].length = m("0 cm"), "states[0].garment.seams[0].length", "0 cm"),
        (
            |d| d.states[0].garment.seams[1].allowance = m("-2 mm"),
            "states[0].garment.seams[1].allowance",
            "-2 mm",
        ),
        (
            |d| {
                let patch = InTheWay { what: "patch".into(), from: m("70 cm"), to: m("80 cm") };
                d.states[0].garment.seams[1].in_the_way.push(patch);
            },
            "states[0].garment.seams[1].in_the_way[0].to",
            "80 cm, but it is 76.0 cm long, measured from the hem",
        ),
        (
            |d| d.try_ons[0].changes.push(outseam(vec![], None).into()),
            "try_ons[0].changes[1]",
            "the change seam.outseam a second time",
        ),
        (
            |d| first(d).readings = vec![pin(GarmentSide::Left, "1 cm", "1 cm"); 201],
            "try_ons[0].changes[0].seam.readings",
            "over 200 readings on one seam",
        ),
        (|d| d.try_ons = vec![d.try_ons[0].clone(); 65], "try_ons", "over 64 try-ons"),
        (|d| d.try_ons[0].conditions = "y".repeat(2001), "try_ons[0].conditions", "over 2000 letters"),
        (
            |d| drop(d.states[0].garment.seams.remove(0)),
            "try_ons[0].changes[0].seam.seam",
            "the outseam is altered but not among the garment's seams",
        ),
    ];
    for (spoil, path, found) in cases {
        let mut spoilt = document(vec![outseam(vec![], None)], Worn::RightSideOut);
        spoil(&mut spoilt);
        let faults = solve(&spoilt, Tape::Cm).unwrap_err();
        assert_eq!((faults[0].path.as_str(), faults[0].wrong.found(Tape::Cm).as_str()), (path, found));
        assert!(!faults[0].wrong.expected(Tape::Cm).is_empty());
    }
}

#[test]
fn ends_that_cannot_be_are_refused() {
    let left = GarmentSide::Left;
    let straight = |from: &str| Some(End::StraightThrough { from: m(from) });
    let pins = || vec![pin(left, "40 cm", "1 cm"), pin(left, "50 cm", "2 cm")];
    let with = |lower, upper| refused(SeamChange { lower, ..outseam(pins(), upper) });
    for (lower, upper, field, found) in [
        (None, meets("50 cm"), "upper", "50 cm, but a pin stands at 50.0 cm"),
        (meets("41 cm"), meets("70 cm"), "lower", "41 cm, but a pin stands at 40.0 cm"),
        (None, meets("105 cm"), "upper", "105 cm, but it is 104.0 cm long, measured from the hem"),
        (meets("-2 cm"), meets("70 cm"), "lower", "-2 cm, which lies beyond the hem"),
        (None, straight("60 cm"), "upper", "60 cm, but no pin stands in that stretch"),
        (
            None,
            straight("35 cm"),
            "upper",
            "35 cm, but the pins in that stretch differ by more than 0.3 cm from their mean",
        ),
    ] {
        assert_eq!(with(lower, upper), [(field.to_owned(), found.to_owned())]);
    }
}

#[test]
fn a_share_moves_the_seam_and_says_where_to() {
    let share = |percent: u8| {
        let pins = vec![pin(GarmentSide::Left, "0 cm", "2 cm"), pin(GarmentSide::Left, "40 cm", "1 cm")];
        let front_share = Some(percent.try_into().unwrap());
        let mut result = solved(SeamChange { front_share, ..outseam(pins, meets("60 cm")) });
        (result.line(0).clone(), result.cards.remove(0))
    };
    let (seam, card) = share(75);
    assert_eq!(seam.moves.as_deref(), Some("the seam moves up to 1.0 cm towards the front"));
    assert_eq!(card.figures()[0][1..], ["3.0", "1.0", "4.0"]);
    assert_eq!(share(0).0.moves.as_deref(), Some("the seam moves up to 2.0 cm towards the back"));
    assert_eq!(share(50).0.moves, None);
}

#[test]
fn what_comes_next_is_said_in_a_few_words() {
    let next = |try_ons: Vec<SeamChange>| {
        let mut document = document(try_ons, Worn::RightSideOut);
        document.try_ons.retain(|t| !t.changes.is_empty());
        solve(&document, Tape::Cm).unwrap().next_step
    };
    assert_eq!(next(vec![]), "Try it on and pin it");
    assert_eq!(next(vec![outseam(vec![], None)]), "Enter the pins");
    assert_eq!(next(vec![outseam(example_a_pins(GarmentSide::Left), meets("65 cm"))]), "Chalk the outseam");
    assert_eq!(
        next(vec![outseam(example_a_pins(GarmentSide::Left), meets("56 cm"))]),
        "Settle first: Run-out of the outseam at its upper end, both sides"
    );
}

#[test]
fn two_seams_of_a_leg_are_summed() {
    let inseam = SeamChange {
        seam: Seam::Inseam,
        ..outseam(vec![pin(GarmentSide::Left, "0 cm", "1 cm")], meets("60 cm"))
    };
    let both = vec![outseam(vec![pin(GarmentSide::Left, "0 cm", "2 cm")], meets("60 cm")), inseam];
    let result = solve(&document(both, Worn::RightSideOut), Tape::Cm).unwrap().try_ons.remove(0);
    let hem = result.levels.last().unwrap();
    assert_eq!(
        hem.sum,
        "48.0 cm as measured round; 48.0 − 4.0 (outseam: 2 edges × 2.0) − 2.0 (inseam: 2 edges × 1.0) = 42.0 cm"
    );
    assert_eq!(result.cards.len(), 2);
    assert_eq!(result.cards[1].title, "Inseam, both legs the same");
    assert_eq!(result.line(1).top, "crotch");
}
