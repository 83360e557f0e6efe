//! Each rule on small garments: where it passes, where it cautions, where it stops, and what it says.

pub(crate) mod kinds;

use super::{EaseWord, LevelOf, Outcome, Rule};
use crate::body::BodyMeasurement;
use crate::change::seam::SeamChange;
use crate::fitting::{End, Fairing, GarmentSide, How, Reading, SidePolicy, Worn};
use crate::garment::{Drape, Frays, InTheWay};
use crate::length::{Length, Measure, Tape, Unit};
use crate::place::Level;
use crate::place::Structure;
use crate::solve::SolvedTryOn;
use crate::tests::kit::{Fitted, document_of, m, meets, outseam, pin, taken, trousers};
use crate::told::Check;
use proptest::prelude::*;

const LEFT: GarmentSide = GarmentSide::Left;

fn solved(garment: &Fitted, alteration: SeamChange) -> SolvedTryOn {
    let document = document_of(garment, vec![alteration]);
    crate::solve::solve(&document, Tape::Cm).unwrap().try_ons.remove(0)
}

fn only(checks: &[Check], rule: Rule) -> Option<&Check> {
    let is_of_seam = |c: &&Check| c.key.partner.is_none() && c.title != "Opened first on the outseam";
    let mut of_rule = checks.iter().filter(|c| c.key.rule == rule).filter(is_of_seam);
    let first = of_rule.next();
    assert!(of_rule.next().is_none(), "more than one {rule:?}");
    first
}

/// Straight in from the hem to just above the waist: the same amount at every level.
fn all_the_way(amount: &str) -> SeamChange {
    let ends = vec![pin(LEFT, "0 cm", amount), pin(LEFT, "104 cm", amount)];
    SeamChange { fairing: Fairing::Straight, ..outseam(ends, Some(End::RunsOff {})) }
}

#[test]
fn a_whole_girth_counts_both_sides_and_a_leg_its_own() {
    let result = solved(&trousers(), all_the_way("1 cm"));
    let off: Vec<_> = result.levels.iter().map(|l| (l.level, l.of, l.off.text())).collect();
    let off: Vec<_> = off.iter().map(|(level, of, text)| (*level, *of, text.as_str())).collect();
    assert_eq!(
        off,
        [
            (Level::Waist, LevelOf::Garment, "4.0 cm"),
            (Level::Hip, LevelOf::Garment, "4.0 cm"),
            (Level::Thigh, LevelOf::EachLeg, "2.0 cm"),
            (Level::Knee, LevelOf::EachLeg, "2.0 cm"),
            (Level::Hem, LevelOf::EachLeg, "2.0 cm"),
        ]
    );
    assert_eq!(
        result.levels[0].sum,
        "86.0 cm as measured round; 86.0 − 4.0 (2 outseams × 2 edges × 1.0) = 82.0 cm"
    );
    let one_leg = SeamChange { sides: Some(SidePolicy::KeepEach), ..all_the_way("1 cm") };
    let result = solved(&trousers(), one_leg);
    let waist = &result.levels[0];
    assert_eq!(
        (waist.off.text().as_str(), result.levels.len()),
        ("2.0 cm", 8),
        "both legs are listed when they differ"
    );
}

#[test]
fn ease_is_judged_by_the_table_and_by_the_cloth() {
    // Hip 108 on a body of 100: 8 of ease; least 3, usual 5 to 8, loose from 10.
    let word = |garment: Fitted, per_edge: &str| {
        let result = solved(&garment, all_the_way(per_edge));
        let hip = result.levels.into_iter().find(|l| l.level == Level::Hip).unwrap();
        (hip.ease_after.unwrap().text(), hip.comfort.unwrap().after)
    };
    assert_eq!(word(trousers(), "0.5 cm"), ("6.0 cm".into(), EaseWord::Usual));
    assert_eq!(word(trousers(), "1 cm"), ("4.0 cm".into(), EaseWord::Close));
    assert_eq!(word(trousers(), "1.5 cm"), ("2.0 cm".into(), EaseWord::TooTight));
    let mut elastane = trousers();
    elastane.cloth.stretch_percent = 4;
    assert_eq!(word(elastane, "1.5 cm"), ("2.0 cm".into(), EaseWord::Close), "elastane halves the least");
    let mut knit = trousers();
    knit.cloth.structure = Structure::Knit;
    knit.cloth.stretch_percent = 40;
    assert_eq!(word(knit, "3 cm").1, EaseWord::Close, "a knit may be smaller than the body");
}

#[test]
fn letting_out_what_is_too_tight_is_a_caution_not_a_stop() {
    let mut garment = trousers();
    garment.wearer.measurements.push(taken(BodyMeasurement::KneeGirth, "50 cm"));
    let gap = Reading { how: How::Gap, ..pin(LEFT, "45 cm", "0.8 cm") };
    let let_out = SeamChange {
        lower: meets("30 cm"),
        fairing: Fairing::EveryPin,
        ..outseam(vec![gap], meets("60 cm"))
    };
    let result = solved(&garment, let_out);
    let ease = only(&result.checks, Rule::Ease).unwrap();
    assert_eq!((ease.outcome, ease.key.level), (Outcome::Caution, Some(Level::Knee)));
    assert_eq!(ease.remedy.as_deref(), Some("Let out 1.2 cm more altogether at this level."));
}

#[test]
fn sitting_uses_the_wearers_own_seated_girth_first() {
    let sitting = |garment: Fitted| {
        let result = solved(&garment, all_the_way("1 cm"));
        result
            .checks
            .into_iter()
            .find(|c| c.key.rule == Rule::Movement && c.key.level == Some(Level::Hip))
            .unwrap()
    };
    let taught = sitting(trousers());
    assert_eq!(taught.outcome, Outcome::Passes, "4 cm of ease is just what sitting adds");
    assert!(taught.figures.contains("a teaching value"));
    let mut measured = trousers();
    measured.wearer.measurements.push(taken(BodyMeasurement::HipGirthSeated, "106 cm"));
    let own = sitting(measured);
    assert_eq!(own.figures, "sitting adds 6.0 cm (as measured on this wearer); ease after is 4.0 cm");
    assert_eq!(
        (own.outcome, own.remedy.as_deref()),
        (Outcome::Stop, Some("Leave 2.0 cm more altogether at this level."))
    );
}

#[test]
fn a_foot_must_go_through_and_an_unknown_foot_is_a_caution() {
    let opening = |garment: Fitted, amount: &str| {
        let result = solved(&garment, all_the_way(amount));
        only(&result.checks, Rule::Opening).unwrap().clone()
    };
    assert_eq!(opening(trousers(), "7 cm").outcome, Outcome::Passes, "48 − 14 = 34 is just enough");
    let stop = opening(trousers(), "7.1 cm");
    assert_eq!(
        (stop.outcome, stop.remedy.as_deref()),
        (Outcome::Stop, Some("Leave 0.2 cm more altogether at the hem, or plan a slit."))
    );
    let mut stretchy = trousers();
    stretchy.cloth.stretch_percent = 2;
    assert_eq!(opening(stretchy, "7.1 cm").outcome, Outcome::Passes, "the opening's stretch counts");
    let mut unknown = trousers();
    unknown.wearer.measurements.retain(|t| t.what != BodyMeasurement::HeelGirth);
    assert_eq!(opening(unknown, "1 cm").outcome, Outcome::Caution);
}

#[test]
fn softer_cloth_bears_a_shorter_run_out() {
    let outcome = |structure, drape| {
        let mut garment = trousers();
        garment.cloth.structure = structure;
        garment.cloth.drape = drape;
        // 10 cm for 1.9 cm: 5.3.
        let pins = vec![pin(LEFT, "0 cm", "1.9 cm"), pin(LEFT, "20 cm", "1.9 cm")];
        let result =
            solved(&garment, SeamChange { fairing: Fairing::EveryPin, ..outseam(pins, meets("30 cm")) });
        only(&result.checks, Rule::RunOut).unwrap().outcome
    };
    assert_eq!(outcome(Structure::Woven, Drape::Crisp), Outcome::Caution);
    assert_eq!(outcome(Structure::Woven, Drape::Fluid), Outcome::Caution);
    assert_eq!(outcome(Structure::Knit, Drape::Soft), Outcome::Passes);
}

#[test]
fn a_run_out_without_room_says_what_else_to_do() {
    let pins = vec![pin(LEFT, "0 cm", "2 cm"), pin(LEFT, "98 cm", "2 cm")];
    let result =
        solved(&trousers(), SeamChange { fairing: Fairing::EveryPin, ..outseam(pins, meets("103 cm")) });
    let run_out = only(&result.checks, Rule::RunOut).unwrap();
    assert_eq!(run_out.outcome, Outcome::Stop);
    assert_eq!(
        run_out.remedy.as_deref(),
        Some("The seam is too short for 16.0 cm: take less at the last pin, or run off the edge.")
    );
}

#[test]
fn a_kink_is_named_between_its_two_pins() {
    let pins = vec![pin(LEFT, "0 cm", "3 cm"), pin(LEFT, "40 cm", "3 cm"), pin(LEFT, "44 cm", "1 cm")];
    let result =
        solved(&trousers(), SeamChange { fairing: Fairing::Straight, ..outseam(pins, meets("60 cm")) });
    let kink = only(&result.checks, Rule::Kink).unwrap();
    assert_eq!(
        (kink.outcome, kink.figures.as_str()),
        (Outcome::Caution, "steepest 1 : 2.0, between 40.0 and 44.0 cm")
    );
}

#[test]
fn what_can_be_let_out_depends_on_the_fraying() {
    let outcome = |frays, gap: &str| {
        let mut garment = trousers();
        garment.cloth.frays = frays;
        let reading = Reading { how: How::Gap, ..pin(LEFT, "0 cm", gap) };
        let result = solved(&garment, outseam(vec![reading], meets("30 cm")));
        only(&result.checks, Rule::Capacity).unwrap().clone()
    };
    // 1.5 allowance: 0.9 to give per edge in tight weaves, 0.5 where it frays.
    assert_eq!(outcome(Frays::Little, "1.8 cm").outcome, Outcome::Passes);
    let short = outcome(Frays::Badly, "1.8 cm");
    assert_eq!((short.outcome, short.reason.as_str()), (Outcome::Stop, "Short by 0.4 cm per edge."));
    assert_eq!(
        short.remedy.as_deref(),
        Some(
            "Set in a panel 1.8 cm wide at its widest between the old lines, or let out other seams too. At the hem all seams together can give 2.0 cm: outseam: 2 edges × 0.5; inseam: 2 edges × 0.5."
        )
    );
}

#[test]
fn what_is_kept_inside_shows_as_bulk_until_it_is_trimmed() {
    let kept = |trim: Option<&str>| {
        let alteration =
            SeamChange { trim_to: trim.map(m), ..outseam(vec![pin(LEFT, "0 cm", "2.5 cm")], meets("40 cm")) };
        only(&solved(&trousers(), alteration).checks, Rule::Kept).unwrap().clone()
    };
    let all = kept(None);
    assert_eq!(
        (all.outcome, all.figures.as_str()),
        (Outcome::Caution, "1.5 allowance + 2.5 taken in = 4.0 cm kept per edge")
    );
    let trimmed = kept(Some("1.3 cm"));
    assert_eq!(
        (trimmed.outcome, trimmed.reason.as_str()),
        (Outcome::Passes, "What is trimmed cannot be let out again.")
    );
}

#[test]
fn what_lies_across_the_altered_stretch_is_named_and_what_lies_beyond_is_not() {
    let mut garment = trousers();
    let thing = |what: &str, from, to| InTheWay { what: what.into(), from: m(from), to: m(to) };
    garment.seams[0].in_the_way =
        vec![thing("patch", "30 cm", "38 cm"), thing("pocket opening", "83 cm", "99 cm")];
    let result = solved(&garment, outseam(vec![pin(LEFT, "0 cm", "2 cm")], meets("40 cm")));
    let in_the_way = only(&result.checks, Rule::InTheWay).unwrap();
    assert_eq!((in_the_way.title.as_str(), in_the_way.outcome), ("In the way: patch", Outcome::Caution));
}

#[test]
fn too_much_at_one_seam_drags_the_waist_and_two_sizes_mean_recutting() {
    let titles = |amount: &str| {
        let result = solved(&trousers(), all_the_way(amount));
        let hang =
            result.checks.into_iter().filter(|c| c.key.rule == Rule::Hang && c.outcome == Outcome::Caution);
        hang.map(|c| c.title).collect::<Vec<_>>()
    };
    assert!(titles("1.5 cm").is_empty());
    assert_eq!(titles("2.1 cm"), ["Hang at the hip", "Hang of the waist"]);
    assert_eq!(titles("2.6 cm").len(), 3, "and the grain of the leg tips");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 200, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn girths_after_follow_the_line_exactly(amounts in prop::collection::vec(0_i64..300, 2..6), percent in 0_u8..=100) {
        let mut alteration = outseam(
            (0..).zip(&amounts).map(|(n, tenths)| Reading {
                amount: Measure { length: Length::from_nm(tenths * 100_000), unit: Unit::Cm },
                ..pin(LEFT, &format!("{} cm", n * 12), "0 cm")
            }).collect(),
            meets("95 cm"),
        );
        alteration.front_share = Some(percent.try_into().unwrap());
        let result = solved(&trousers(), alteration);
        for level in &result.levels {
            prop_assert_eq!(level.before.nm - level.off.nm, level.after.nm);
            if let (Some(body), Some(ease)) = (&level.body, &level.ease_after) {
                prop_assert_eq!(level.after.nm - body.nm, ease.nm);
            }
        }
        let hem = result.levels.last().unwrap();
        let beside = (hem.off.nm - amounts[0] * 200_000).abs();
        prop_assert!(beside <= amounts[0] * 200_000 / 6 + 1_000_000, "no pin loses more than a sixth and half a mark on each edge");
        // The gravest come first.
        prop_assert!(result.checks.windows(2).all(|w| w[0].outcome >= w[1].outcome));
        // What does not pass says what would make it pass.
        prop_assert!(result.checks.iter().all(|c| (c.outcome == Outcome::Passes) == c.remedy.is_none()));
    }
}

#[test]
fn the_asymmetry_of_a_body_flips_inside_out_and_that_of_a_garment_does_not() {
    use crate::body::Posture;
    let checked = |posture: &[Posture], worn, right: &str| {
        let mut garment = trousers();
        garment.wearer.posture = posture.to_vec();
        let pins = vec![pin(GarmentSide::Left, "0 cm", "2 cm"), pin(GarmentSide::Right, "0 cm", right)];
        let kept = SeamChange { sides: Some(SidePolicy::KeepEach), ..outseam(pins, meets("40 cm")) };
        let mut document = document_of(&garment, vec![kept]);
        document.try_ons[0].worn = worn;
        let checks = crate::solve::solve(&document, Tape::Cm).unwrap().try_ons.remove(0).checks;
        checks.into_iter().find(|c| c.key.rule == Rule::Turned)
    };
    let uneven = [Posture::LeftLegLonger];
    let caution = checked(&uneven, Worn::InsideOut, "3 cm").unwrap();
    assert_eq!(caution.outcome, Outcome::Caution);
    assert_eq!(
        caution.figures,
        "4.0 cm at most on the garment’s left, the wearer’s right while pinning; 6.0 cm at most on the garment’s right, the wearer’s left while pinning"
    );
    assert_eq!(checked(&uneven, Worn::RightSideOut, "3 cm"), None, "the sides are the body's own");
    assert_eq!(checked(&uneven, Worn::InsideOut, "2 cm"), None, "both sides alike");
    assert_eq!(checked(&[], Worn::InsideOut, "3 cm"), None, "an even body: the garment differs");
}
