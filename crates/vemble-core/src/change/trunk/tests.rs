//! Lengths of the trunk: the line across, what it does to what is sewn to it, and there and back again.

use super::{AlteredTrunk, TrunkAt, TrunkChange, draw};
use crate::change::{Input, On};
use crate::document::Document;
use crate::garment::{HemEdge, Seam};
use crate::judge::{Outcome, Partner, Rule};
use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use crate::solve::{SolvedTryOn, solve};
use crate::tests::kit::{Fitted, m, trying};
use proptest::prelude::*;

fn demo(name: &str) -> Fitted {
    let path = format!("{}/../../demo/{name}.json", env!("CARGO_MANIFEST_DIR"));
    let document: Document = serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap();
    Fitted { garment: document.newest().unwrap().garment.clone(), wearer: document.wearer }
}

/// The toile of a pinafore, with its bodice and skirt joined at the waist.
fn pinafore() -> Fitted {
    demo("pinafore-toile")
}

fn above(front: Option<&str>, side: Option<&str>, back: Option<&str>) -> TrunkChange {
    let typed = |text: Option<&str>| text.map(m);
    TrunkChange {
        front: typed(front),
        side: typed(side),
        back: typed(back),
        ..TrunkChange::of(TrunkAt::AboveWaist)
    }
}

fn solved(fitted: &Fitted, change: TrunkChange, tape: Tape) -> SolvedTryOn {
    fitted.solved(trying(vec![change]), tape)
}

fn drawn<'a>(fitted: &'a Fitted, change: &'a TrunkChange) -> AlteredTrunk<'a> {
    let Fitted { garment, wearer } = fitted;
    draw(On { garment, wearer, hem_marks: &[], keeps_all: false }, &[(0, change)]).unwrap().remove(0)
}

#[test]
fn a_wedge_for_a_hollow_back_says_what_follows_from_it() {
    let mut dress = pinafore();
    dress.garment.toile = false;
    let wedge = solved(&dress, above(None, None, Some("2 cm")), Tape::Cm);
    let hangs = wedge.check("How it hangs then");
    assert_eq!(hangs.outcome, Outcome::Caution);
    assert_eq!(hangs.figures, "its hem goes up with it: 0.0 in front, 0.0 at the sides, 2.0 cm behind");
    // All round it hangs higher, and level.
    let short = solved(&dress, above(None, Some("1.5 cm"), None), Tape::Cm);
    let hangs = short.check("How it hangs then");
    assert_eq!(
        (hangs.outcome, hangs.figures.as_str()),
        (Outcome::Passes, "its hem hangs 1.5 cm higher all round")
    );
    // The bodice is wider there than the skirt that it is sewn to: counted from the girths that were measured.
    let edge = short.checks.iter().find(|c| c.key.partner == Some(Partner::OtherEdge)).unwrap();
    let waist = dress.level(Level::Waist).unwrap().width.girth();
    let there = dress.girth_above(Level::Waist, Length::from_mm(15)).unwrap();
    let sum = format!(
        "edge {} − {} that it is sewn to = {}",
        Tape::Cm.bare(Tape::Cm.round(there)),
        Tape::Cm.bare(waist),
        Tape::Cm.show(Tape::Cm.round(there) - Tape::Cm.round(waist))
    );
    assert_eq!(edge.figures, sum);
    // What is put in comes out of an allowance that is not there.
    let long = solved(&dress, above(None, Some("-4 cm"), None), Tape::Cm);
    let cloth = long.checks.iter().find(|c| c.key.rule == Rule::Capacity).unwrap();
    assert_eq!(cloth.outcome, Outcome::Stop);
    assert!(cloth.remedy.as_ref().unwrap().starts_with("Set in a band "), "{:?}", cloth.remedy);
}

#[test]
fn a_hem_that_was_read_before_is_marked_anew() {
    let dress = pinafore();
    let hem = crate::change::hem::HemChange {
        off: Some(m("3 cm")),
        ..crate::change::hem::HemChange::of(HemEdge::Body)
    };
    let both: Vec<crate::change::Change> = vec![above(None, Some("1.5 cm"), None).into(), hem.into()];
    let solved = dress.solved(trying(both), Tape::Cm);
    let hangs = solved.check("How it hangs then");
    assert_eq!(hangs.outcome, Outcome::Caution);
    assert_eq!(hangs.remedy.as_deref(), Some("Sew this first, and mark the hem anew before it is cut."));
    // A lower rise is worn at the same waist: the legs go up with it.
    let lower = TrunkChange { side: Some(m("1 cm")), ..TrunkChange::of(TrunkAt::Rise) };
    let trousers = self::solved(&demo("corduroys"), lower, Tape::Cm);
    assert_eq!(trousers.check("How it hangs then").figures, "its hem hangs 1.0 cm higher all round");
}

#[test]
fn the_edge_is_sewn_to_the_waist_as_it_will_be() {
    let dress = pinafore();
    let pins = crate::fitting::GarmentSide::BOTH
        .map(|side| crate::tests::kit::pin(side, &waist_on_the_side(&dress), "1 cm"));
    let side = crate::change::seam::SeamChange {
        readings: pins.into(),
        ..crate::change::seam::SeamChange::of(Seam::SideSeam)
    };
    for tape in Tape::ALL.iter().copied() {
        let both: Vec<crate::change::Change> =
            vec![above(None, Some("1.5 cm"), None).into(), side.clone().into()];
        let solved = dress.solved(trying(both), tape);
        let waist = solved.levels.iter().find(|l| l.level == Level::Waist).unwrap();
        let edge = solved.check("The edge at the waist");
        let bare = tape.bare(waist.after.measure().length);
        assert!(edge.figures.contains(&format!("− {bare} that it is sewn to")), "{} {bare}", edge.figures);
    }
}

fn waist_on_the_side(dress: &Fitted) -> String {
    let station = dress.station_on(Seam::SideSeam, Level::Waist).unwrap();
    Measure { length: station, unit: crate::length::Unit::Cm }.to_string()
}

#[test]
fn a_rise_is_of_what_hangs_from_the_waist_and_nothing_is_longer_than_it_is() {
    let trousers = demo("corduroys");
    let lower = TrunkChange { back: Some(m("1 cm")), ..TrunkChange::of(TrunkAt::Rise) };
    assert!(solved(&trousers, lower.clone(), Tape::Cm).cards.iter().any(|card| card.title == "Rise"));
    let refused = |fitted: &Fitted, change: TrunkChange| {
        let faults = solve(&fitted.document(vec![trying(vec![change])]), Tape::Cm).unwrap_err();
        faults[0].path.rsplit('.').next().unwrap().to_owned()
    };
    assert_eq!(refused(&pinafore(), lower), "at");
    assert_eq!(refused(&trousers, above(None, Some("1 cm"), None)), "at");
    assert_eq!(refused(&pinafore(), above(Some("60 cm"), None, None)), "front");
}

#[test]
fn the_card_of_a_shorter_bodice_is_read_whole() {
    for tape in [Tape::Cm, Tape::In] {
        let solved = solved(&pinafore(), above(Some("0.6 cm"), Some("1 cm"), Some("2.2 cm")), tape);
        let card = solved.cards.iter().find(|card| card.title == "Length above the waist").unwrap();
        let table = card.blocks.iter().find_map(|block| match block {
            crate::card::Block::Table(table) => Some(table),
            _ => None,
        });
        let rows = table.unwrap().rows.iter().map(|row| {
            let cells: Vec<String> = row.cells.iter().map(|cell| cell.text.clone()).collect();
            format!("{} {}", cells.join(" | "), row.note)
        });
        let rows: Vec<String> = rows.collect();
        insta::assert_snapshot!(
            format!("trunk_card_{}", tape.word()),
            format!("{}\n\n{}\n\n{}", card.title, card.sentences().join("\n"), rows.join("\n"))
        );
    }
}

proptest! {
    /// The line meets its mirror image level, leaves no span of its two ends, and is the same the other way round; sums are sums on every tape.
    #[test]
    fn the_line_across_is_fair(front in -30_i64..40, side in -30_i64..40, back in -30_i64..40, tape in proptest::sample::select(Tape::ALL)) {
        let mm = |n: i64| Some(Measure { length: Length::from_mm(n), unit: crate::length::Unit::Cm });
        let change = TrunkChange { front: mm(front), side: mm(side), back: mm(back), ..TrunkChange::of(TrunkAt::AboveWaist) };
        let other = TrunkChange { front: change.back, back: change.front, ..change.clone() };
        let dress = pinafore();
        let (drawn, turned) = (drawn(&dress, &change), self::drawn(&dress, &other));
        let (sums, turned) = (drawn.sums(tape), turned.sums(tape));
        for (is_front, middle) in [(true, sums.front), (false, sums.back)] {
            let curve = sums.curve(is_front);
            prop_assert!((curve.at(0.1) - curve.at(0.0)).abs() < 0.02, "level at the middle");
            for n in 0..=20 {
                let along = sums.quarter.fraction(n, 20);
                let at = sums.at(is_front, along, tape);
                prop_assert!(at >= middle.min(sums.side) && at <= middle.max(sums.side));
                prop_assert_eq!(tape.round(at), at);
                prop_assert_eq!(at, turned.at(!is_front, along, tape));
            }
            prop_assert_eq!(sums.at(is_front, Length::ZERO, tape), middle);
            prop_assert_eq!(sums.at(is_front, sums.quarter, tape), sums.side);
        }
        let places = [(0.0, sums.front), (0.5, sums.side), (1.0, sums.back)];
        prop_assert!(places.into_iter().all(|(share, takes)| drawn.takes_at(share, tape) == takes));
    }
}
