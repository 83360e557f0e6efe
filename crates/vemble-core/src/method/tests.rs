//! The search against brute force, and what it owes whoever asks.

use super::share::{Part, in_marks};
use super::{Methods, WantedFrom, methods, wanted_like};
use crate::change::armhole::{ArmholeAt, ArmholeChange};
use crate::change::seam::SeamChange;
use crate::change::{Change, ChangeKey, Input};
use crate::document::Document;
use crate::fitting::{Fairing, GarmentSide, How, Reading, WantedChange};
use crate::garment::{Garment, Run};
use crate::judge::Outcome;
use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use crate::solve::{Solved, solve};
use crate::tests::kit::{Fitted, m, pin, trousers, try_on};
use crate::try_on::TryOn;
use proptest::prelude::*;

fn demo(name: &str) -> Document {
    let path = format!("{}/../../demo/{name}.json", env!("CARGO_MANIFEST_DIR"));
    serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap()
}

/// A document whose newest try-on has nothing but these wishes.
fn wanting(mut document: Document, wanted: &[(Level, &str)]) -> Document {
    let state = document.newest().unwrap().id;
    let wanted = wanted.iter().map(|(level, by)| WantedChange { level: *level, by: m(by) }).collect();
    document.try_ons = vec![TryOn { wanted, ..TryOn::on(state, try_on().date) }];
    document
}

fn found(document: &Document, tape: Tape) -> Methods {
    methods(document, WantedFrom::Typed, tape).unwrap_or_else(|f| panic!("{f:?}"))
}

fn titles(found: &Methods) -> Vec<&str> {
    found.best.iter().map(|method| &method.title[..]).collect()
}

/// What its changes come to when they are opened in Lines.
fn opened(document: &Document, changes: &[Change], tape: Tape) -> Solved {
    let mut document = document.clone();
    document.try_ons.last_mut().unwrap().changes = changes.to_vec();
    solve(&document, tape).unwrap_or_else(|f| panic!("{f:?}"))
}

#[test]
fn a_shirt_is_taken_in_behind_or_at_its_sides_before_anybody_puts_darts_in_front() {
    let shirt = wanting(demo("concert-shirt"), &[(Level::Waist, "-6 cm")]);
    let found = found(&shirt, Tape::Cm);
    assert_eq!(titles(&found)[0], "New back fish-eye darts");
    assert_eq!(found.best[0].levels[0].words, "6.0 cm smaller");
    assert_eq!(found.best[0].shows, ["Darts where there were none"]);
    assert!(found.fallen.iter().any(|f| f.titles == ["Elastic in the waistband"] && f.reason.is_some()));
}

#[test]
fn one_that_nothing_reaches_says_what_stops_it_and_how_much_goes() {
    // What is inside has not enough for this: a panel does it.
    let some = found(&wanting(demo("tea-dress"), &[(Level::Waist, "14 cm")]), Tape::Cm);
    assert!(titles(&some)[0].starts_with("Panels in the "), "{:?}", titles(&some));
    assert_eq!(
        some.best[0].opens,
        ["the front panel seam itself, as far as the panel goes"],
        "as it is called here"
    );
    assert_eq!(some.best[0].shows, ["A panel of other cloth, with a seam on either side of it"]);
    let dress = wanting(demo("concert-shirt"), &[(Level::Waist, "-40 cm")]);
    let found = found(&dress, Tape::Cm);
    assert!(found.best.is_empty());
    let nearest = found.nearest.unwrap();
    insta::assert_snapshot!(nearest.says, @"Nothing reaches all of it. New front waist darts, new front fish-eye darts and new back fish-eye darts, the same each: Ease at the waist: 84.0 − 85.5 (waist body) = −1.5 cm ease altogether. As near as it gets: waist 36.0 cm smaller.");
    let none = methods(&wanting(demo("tea-dress"), &[]), WantedFrom::Typed, Tape::Cm).unwrap();
    assert_eq!((none.says.as_str(), none.nearest), ("Nothing is wanted yet.", None));
    let unknown = super::methods(
        &wanting(demo("concert-shirt"), &[(Level::Thigh, "-2 cm")]),
        WantedFrom::Typed,
        Tape::Cm,
    );
    assert_eq!(
        unknown.unwrap().without,
        ["Concert shirt has no thigh yet: enter how wide it is there in the look-over."]
    );
}

#[test]
fn what_nothing_changes_is_named_and_the_rest_is_done() {
    let asked = |wanted: &[(Level, &str)]| found(&wanting(demo("concert-shirt"), wanted), Tape::Cm);
    let neck = asked(&[(Level::Neck, "-2 cm")]);
    assert_eq!(
        neck.without,
        ["Nothing of Concert shirt changes the girth at the neck: no seam or dart runs there."]
    );
    assert!(neck.best.is_empty() && neck.nearest.is_none() && neck.fallen.is_empty());
    let both = asked(&[(Level::Neck, "-2 cm"), (Level::Waist, "-6 cm")]);
    assert_eq!((both.without.len(), both.best.len()), (1, 3));
}

#[test]
fn what_an_armhole_does_to_a_sleeve_is_neither_wanted_again_nor_counted_for_a_seam() {
    let mut shirt = wanting(demo("concert-shirt"), &[(Level::UpperArm, "-2 cm")]);
    let armhole = ArmholeChange { widen: Some(m("1 cm")), ..ArmholeChange::of(ArmholeAt::Both) };
    shirt.try_ons[0].changes = vec![armhole.into()];
    let found = found(&shirt, Tape::Cm);
    let arm = found.best[0].levels.iter().find(|l| l.name.starts_with("upper arm")).unwrap();
    assert_eq!((arm.words.as_str(), &arm.beside), ("2.0 cm smaller", &None));
    assert!(arm.sum.contains("= 44.0 cm"), "{}", arm.sum);
    let pinned = methods(&shirt, WantedFrom::Pins, Tape::Cm).unwrap();
    assert!(pinned.wanted.is_empty(), "{:?}", pinned.wanted);
}

#[test]
fn pins_of_one_seam_are_carried_by_any() {
    let mut document = trousers().document(vec![try_on()]);
    let pins = [GarmentSide::Left, GarmentSide::Right].map(|side| pin(side, "45 cm", "1.5 cm"));
    document.try_ons[0].changes =
        vec![SeamChange { readings: pins.into(), ..SeamChange::of(crate::garment::Seam::Outseam) }.into()];
    let found = methods(&document, WantedFrom::Pins, Tape::Cm).unwrap();
    let knee = found.wanted.iter().find(|w| w.level == Level::Knee).unwrap();
    assert_eq!((knee.name.as_str(), knee.words.as_str()), ("knee, each leg", "3.0 cm smaller"));
    let keys: Vec<ChangeKey> = found.best.iter().filter_map(|b| b.first).collect();
    assert!(keys.contains(&"seam.inseam".parse().unwrap()), "{keys:?}");
}

#[test]
fn a_garment_wants_to_be_like_another_by_what_both_measure_and_like_itself_by_nothing() {
    let own = trousers();
    assert!(wanted_like(&own, &own, Tape::Cm).wanted.iter().all(|wanted| wanted.by.length == Length::ZERO));
    let mut blue: Garment = own.garment.clone();
    blue.levels.retain(|level| level.level != Level::Thigh);
    for level in &mut blue.levels {
        level.width = crate::garment::Width::LaidFlat(m("20 in"));
    }
    blue.cloth.structure = crate::place::Structure::Knit;
    let like = wanted_like(&own, &blue, Tape::Cm);
    assert!(like.cannot[0].contains("says little about the other"), "{:?}", like.cannot);
    assert!(like.cannot[1].ends_with("thigh."), "{:?}", like.cannot);
    assert_eq!(like.lines[0].sum, "101.6 instead of 86.0: 15.6 cm wider");
    let wanted = like.wanted;
    let waist = wanted.iter().find(|w| w.level == Level::Waist).unwrap();
    assert_eq!(waist.by.length, Length::from_nm(2 * 20 * 25_400_000) - m("86 cm").length);
    assert_eq!(waist.by.unit, crate::length::Unit::In, "as the other was measured");
    assert!(wanted.iter().all(|w| w.level != Level::Thigh && !w.level.is_at_an_edge()));
}

#[test]
fn what_is_pinned_where_nothing_is_wanted_stays_as_it_was_pinned() {
    let mut document = demo("pinafore-toile");
    let before = document.try_ons.last().unwrap().changes.clone();
    document.try_ons.last_mut().unwrap().wanted = vec![WantedChange { level: Level::Waist, by: m("-1 cm") }];
    let found = found(&document, Tape::Cm);
    assert!(!found.best.is_empty());
    for method in &found.best {
        // The shoulder seam, the bust dart, the armholes, hem and gathers; the side seam gives way.
        for kept in before.iter().filter(|change| change.key().to_string() != "seam.side_seam") {
            assert!(method.changes.contains(kept), "{}: {}", method.title, kept.key());
        }
    }
}

/// All there is at a level for seams, counted by hand: every seam and every pair, every split, in whole marks, solved by the one entry.
fn by_brute_force(document: &Document, off: Length, tape: Tape) -> Vec<(usize, Vec<ChangeKey>)> {
    let garment = &document.newest().unwrap().garment;
    let level = Level::Waist;
    let seams: Vec<_> = garment
        .seams
        .iter()
        .map(|s| s.seam)
        .filter(|s| s.run() == Run::Down && garment.station_on(*s, level).is_some())
        .collect();
    let most = (off.abs().cm() / tape.mark().cm()).round() as i64;
    let mut good = Vec::new();
    for set in 1..1_u32 << seams.len() {
        let chosen: Vec<_> = (0..seams.len()).filter(|n| set >> n & 1 == 1).map(|n| seams[n]).collect();
        if chosen.len() > 2 {
            continue;
        }
        // Every way to hand out marks that comes as near as marks can: for two carriers all pairs.
        let edges = |n: usize| if chosen[n].is_single() { 2 } else { 4 };
        let ways: Vec<Vec<i64>> = match chosen.len() {
            1 => (0..=most).map(|a| vec![a]).collect(),
            _ => (1..=most).flat_map(|a| (1..=most).map(move |b| vec![a, b])).collect(),
        };
        let sum = |way: &Vec<i64>| (0..way.len()).map(|n| way[n] * edges(n)).sum::<i64>();
        for way in ways.into_iter().filter(|way| (sum(way) - most).abs() <= chosen.len() as i64) {
            let changes: Vec<Change> = (0..chosen.len())
                .map(|n| {
                    let station = garment.station_on(chosen[n], level).unwrap();
                    let length = garment.seam(chosen[n]).unwrap().length.length;
                    let (how, times) = if off.is_negative() { (How::Gap, 2) } else { (How::Fold, 1) };
                    let reading = |side| Reading {
                        id: None,
                        side,
                        station: Measure { length: station.clamp(Length::ZERO, length), unit: tape.unit() },
                        amount: Measure { length: tape.mark() * (times * way[n]), unit: tape.unit() },
                        how,
                    };
                    let sides =
                        if chosen[n].is_single() { &GarmentSide::BOTH[..1] } else { &GarmentSide::BOTH[..] };
                    let readings = sides.iter().map(|side| reading(*side)).collect();
                    SeamChange { readings, fairing: Fairing::EveryPin, ..SeamChange::of(chosen[n]) }.into()
                })
                .collect();
            let solved = opened(document, &changes, tape);
            let checks = &solved.try_ons[0].checks;
            if checks.iter().all(|check| check.outcome != Outcome::Stop) {
                let cautions = checks.iter().filter(|check| check.outcome == Outcome::Caution).count();
                good.push((cautions, changes.iter().map(Change::key).collect()));
            }
        }
    }
    good.sort();
    good
}

#[test]
fn nothing_that_brute_force_finds_with_seams_is_better_than_the_best() {
    for (name, by) in
        [("tea-dress", "2.4 cm"), ("tea-dress", "-2 cm"), ("school-skirt", "1.2 cm"), ("overcoat", "-2.4 cm")]
    {
        let document = wanting(demo(name), &[(Level::Waist, by)]);
        let best = found(&document, Tape::Cm);
        let brute = by_brute_force(&document, -m(by).length, Tape::Cm);
        match brute.first() {
            Some((cautions, keys)) => {
                let own = best.best[0].checks.iter().filter(|c| c.outcome == Outcome::Caution).count();
                assert!(own <= *cautions, "{name} {by}: {own} cautions, but {keys:?} has {cautions}");
            }
            None => assert!(
                best.best.iter().all(|b| b.first.is_none_or(|key| !matches!(key, ChangeKey::Seam(_))))
            ),
        }
    }
}

/// Everything that is said of a method holds once it is opened in Lines.
fn holds_when_opened(document: &Document, tape: Tape) {
    let found = found(document, tape);
    let methods = found.best.iter().chain(found.nearest.iter().map(|nearest| &nearest.method));
    for method in methods {
        let solved = opened(document, &method.changes, tape);
        let there = &solved.try_ons[0];
        for level in &method.levels {
            let same = there.levels.iter().find(|l| l.name == level.name).unwrap();
            assert_eq!(same.sum, level.sum, "{}", method.title);
        }
        let against: Vec<_> = there.checks.iter().filter(|c| c.outcome != Outcome::Passes).collect();
        for check in &method.checks {
            assert!(
                check.outcome == Outcome::Passes
                    || against.iter().any(|c| c.key.is(&check.key) && c.figures == check.figures),
                "{}: {}",
                method.title,
                check.title
            );
        }
        assert!(method.checks.iter().all(|check| check.outcome != Outcome::Stop), "{}", method.title);
        assert_eq!(there.stand, method.stand);
    }
}

#[test]
fn what_is_said_of_a_method_holds_when_it_is_opened() {
    let wishes: [&[(Level, &str)]; 5] = [
        &[(Level::Waist, "-4 cm")],
        &[(Level::Waist, "3 cm"), (Level::Hip, "1 cm")],
        &[(Level::Bust, "-2 cm"), (Level::Waist, "-5 cm"), (Level::Hip, "0 cm")],
        &[(Level::Waist, "-1 1/2 in"), (Level::Knee, "-1 in")],
        &[(Level::UpperArm, "-2 cm"), (Level::Elbow, "-1 cm")],
    ];
    for name in ["concert-shirt", "tea-dress", "corduroys", "school-skirt", "jersey-top", "overcoat"] {
        for wish in wishes {
            for tape in [Tape::Cm, Tape::In] {
                holds_when_opened(&wanting(demo(name), wish), tape);
            }
        }
    }
}

fn mirrored(mut fitted: Fitted) -> Fitted {
    fitted.garment.seams.reverse();
    fitted
}

#[test]
fn the_order_in_which_seams_were_entered_changes_no_figure() {
    let asked = |fitted: &Fitted| {
        let document = wanting(fitted.document(vec![]), &[(Level::Knee, "-3 cm"), (Level::Hem, "-2 cm")]);
        let mut said: Vec<(Vec<String>, u32, usize)> = found(&document, Tape::Cm)
            .best
            .iter()
            .map(|b| (b.levels.iter().map(|l| l.words.clone()).collect(), b.minutes, b.checks.len()))
            .collect();
        said.sort();
        said
    };
    assert_eq!(asked(&trousers()), asked(&mirrored(trousers())));
}

proptest! {
    /// Handed out in marks, the sum is as near as any whole marks beside the exact ones are.
    #[test]
    fn marks_come_as_near_as_marks_can(
        parts in prop::collection::vec((-40.0..40.0_f64, prop::sample::select(vec![2_i64, 4])), 1..5),
    ) {
        let parts: Vec<Part> = parts.into_iter().map(|(each, edges)| Part { each, edges }).collect();
        let whole = parts.iter().map(|p| p.each * p.edges as f64).sum::<f64>().round() as i64;
        let marks = in_marks(&parts, whole);
        let sum: i64 = marks.iter().zip(&parts).map(|(m, p)| m * p.edges).sum();
        let least = parts.iter().map(|p| p.edges).min().unwrap();
        prop_assert!((sum - whole).abs() <= least, "{sum} for {whole}");
        for (marks, part) in marks.iter().zip(&parts) {
            prop_assert!((*marks as f64 - part.each).abs() <= 1.0 + 1e-6);
        }
    }
}

#[test]
fn several_seams_let_out_what_each_has_inside() {
    let dress = found(&wanting(demo("tea-dress"), &[(Level::Waist, "9 cm")]), Tape::Cm);
    let first = &dress.best[0];
    assert_eq!(
        first.title,
        "Side seams, centre-back seam and front panel seams, each as much as is inside it"
    );
    let waist = first.levels.iter().find(|l| l.name == "waist").unwrap();
    assert!(
        waist.sum.contains("(centre-back seam: 2 edges × 1.1)"),
        "1.2 of 9.6 that all give: {}",
        waist.sum
    );
    // A dart that is let out altogether leaves cloth flat over what it was shaped for.
    let skirt = found(&wanting(demo("school-skirt"), &[(Level::Waist, "4 cm")]), Tape::Cm);
    let darts = skirt.best.iter().find(|method| method.title == "Back waist darts").unwrap();
    let flat = darts.checks.iter().find(|c| c.title == "Letting out the back waist dart").unwrap();
    assert_eq!(
        (flat.outcome, &flat.figures[..]),
        (Outcome::Caution, "it is 1.0 deep now, 0.0 cm afterwards")
    );
}
