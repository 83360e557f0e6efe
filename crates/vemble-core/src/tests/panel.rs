//! A panel that is set into a seam: as wide as what is let out, and nothing from the allowances.

use crate::change::seam::SeamChange;
use crate::change::{Change, On, draw};
use crate::document::Document;
use crate::fitting::{Fairing, GarmentSide, How, Reading, SidePolicy};
use crate::garment::Seam;
use crate::judge::{Outcome, Rule, Subject};
use crate::length::{Length, Measure, Tape, Unit};
use crate::plan::{Supply, Task, TasksOf, chain};
use crate::solve::{SolvedTryOn, solve};
use crate::tests::kit::{m, meets, outseam, trousers, trying};
use crate::work::{Step, SupplyKind, Wishes};
use proptest::prelude::*;

/// The gap of an opened seam, alike on both sides.
fn gaps(at: &[(&str, Measure)]) -> Vec<Reading> {
    let reading =
        |side, station: &str, amount| Reading { id: None, side, station: m(station), amount, how: How::Gap };
    at.iter().flat_map(|(station, gap)| GarmentSide::BOTH.map(|side| reading(side, station, *gap))).collect()
}

fn let_out(at: &[(&str, Measure)], set_in: bool) -> SeamChange {
    SeamChange {
        set_in,
        lower: meets("8 cm"),
        fairing: Fairing::EveryPin,
        ..outseam(gaps(at), meets("100 cm"))
    }
}

fn solved(change: SeamChange, tape: Tape) -> SolvedTryOn {
    trousers().solved(trying(vec![change]), tape)
}

proptest! {
    /// It adds to every level what letting out adds, asks nothing of the allowances, and is cut as wide as its widest row; its rows are
    /// the line's, the other way round.
    #[test]
    fn it_is_as_wide_as_what_is_let_out(knee in prop_oneof![1_i64..5, 1_i64..120], thigh in prop_oneof![1_i64..5, 1_i64..120], tape in proptest::sample::select(Tape::ALL)) {
        let mm = |mm: i64| Measure { length: Length::from_nm(mm * 1_000_000), unit: Unit::Cm };
        let at = [("45 cm", mm(knee)), ("74 cm", mm(thigh))];
        let [plain, panel] = [false, true].map(|set_in| solved(let_out(&at, set_in), tape));
        prop_assert_eq!(&plain.levels, &panel.levels);
        prop_assert!(panel.checks.iter().all(|c| c.key.rule != Rule::Capacity || c.outcome == Outcome::Passes));
        let widths = |of: &SolvedTryOn| -> Vec<Vec<i64>> {
            let rows = &of.cards[0].table().rows;
            rows.iter().map(|row| row.cells.iter().skip(1).map(|c| c.figure.as_ref().map_or(0, |v| v.nm)).collect()).collect()
        };
        if panel.cards.is_empty() {
            return Ok(());
        }
        let (lines, rows) = (widths(&plain), widths(&panel));
        prop_assert_eq!(lines.len(), rows.len());
        for (line, row) in lines.iter().zip(&rows) {
            prop_assert_eq!(row[0] * 2, row[1], "either way, and altogether");
            prop_assert_eq!((-line[0], -line[1]), (row[0], row[1]));
        }
        let widest = Length::from_nm(rows.iter().map(|row| row[1]).max().unwrap());
        // What is less than a mark everywhere is no panel, and nothing is cut for it.
        if widest == Length::ZERO {
            prop_assert!(panel.checks.iter().all(|c| !c.title.contains("panel")), "{:?}", panel.checks);
            return Ok(());
        }
        // What is said to be lacking is said alike by what mends it.
        let lacks = plain.check("Letting out the outseam");
        if lacks.outcome == Outcome::Stop && !lacks.mend.is_empty() {
            let said = format!("Set in a panel {} wide at its widest", tape.show(widest));
            prop_assert!(lacks.remedy.as_deref().unwrap().starts_with(&said), "{:?} {}", lacks.remedy, said);
        }
        let says = format!("up to {} altogether, between the old lines", tape.show(widest));
        prop_assert_eq!(&panel.check("A panel in the outseam").figures, &says);
        let cloth = panel.check("Cloth for the panel");
        prop_assert!(cloth.figures.starts_with(&format!("2 pieces, each {} + 2 allowances", tape.bare(widest))), "{}", cloth.figures);
        prop_assert!(panel.cards[0].sentences()[0].contains(&cloth.figures));
    }
}

#[test]
fn what_the_allowance_lacks_a_panel_has() {
    let short = solved(let_out(&[("45 cm", m("4 cm")), ("74 cm", m("4 cm"))], false), Tape::Cm);
    let lacks = short.check("Letting out the outseam");
    assert_eq!(lacks.outcome, Outcome::Stop);
    assert!(
        lacks.remedy.as_deref().unwrap().starts_with("Set in a panel 4.0 cm wide at its widest"),
        "{lacks:?}"
    );
    let mended: Vec<_> = lacks.mend.clone();
    let panel = trousers().solved(trying(mended), Tape::Cm);
    assert_eq!(
        panel.check("A panel in the outseam").figures,
        "up to 4.0 cm altogether, between the old lines"
    );
    insta::assert_snapshot!(panel.cards[0].sentences().join("\n"));
}

#[test]
fn a_panel_cannot_take_in() {
    let at = [("45 cm", m("4 cm"))];
    let mut mixed = let_out(&at, true);
    mixed.readings.extend(GarmentSide::BOTH.map(|side| crate::tests::kit::pin(side, "74 cm", "1 cm")));
    let stopped = solved(mixed, Tape::Cm);
    let check = stopped.check("A panel in the outseam");
    assert_eq!((check.outcome, check.figures.as_str()), (Outcome::Stop, "taken in by up to 1.0 cm per edge"));
}

#[test]
fn each_side_has_a_panel_of_its_own_where_they_differ() {
    let mut readings = gaps(&[("45 cm", m("3 cm"))]);
    readings[1].amount = m("5 cm");
    let change = SeamChange { readings, sides: Some(SidePolicy::KeepEach), ..let_out(&[], true) };
    let both = solved(change, Tape::Cm);
    let words = both.cards[0].sentences()[0].to_owned();
    assert!(words.starts_with("Cut left: 1 piece 3.0 + 2 allowances × 1.5 = 6.0 cm wide"), "{words}");
    assert!(words.contains("right: 1 piece 5.0 + 2 allowances × 1.5 = 8.0 cm wide"), "{words}");
}

#[test]
fn a_seam_behind_has_one_panel_and_runs_into_the_hem() {
    let json = include_str!("../../../../demo/tea-dress.json");
    let mut dress: Document = serde_json::from_str(json).unwrap();
    let reading = |station: &str, gap: &str| Reading {
        id: None,
        side: GarmentSide::Left,
        station: m(station),
        amount: m(gap),
        how: How::Gap,
    };
    let readings = vec![reading("0 cm", "6 cm"), reading("39.5 cm", "2 cm")];
    dress.try_ons.truncate(1);
    dress.try_ons[0].changes =
        vec![SeamChange { readings, set_in: true, ..SeamChange::of(Seam::CentreBack) }.into()];
    let try_on = solve(&dress, Tape::Cm).unwrap().try_ons.remove(0);
    let cloth = try_on.check("Cloth for the panel");
    assert!(
        cloth.figures.starts_with("1 piece 6.0 + 2 allowances × 1.5 = 9.0 cm wide, "),
        "{}",
        cloth.figures
    );
    // 5 cm are turned up inside.
    let long = cloth.figures.split_once("wide, ").unwrap().1;
    assert!(
        long.ends_with(" cm long") && long.contains(" + 1 allowance of 1.5 + 5.0 turned up = "),
        "{long}"
    );
    dress.states[0].garment.hems.clear();
    let unknown = solve(&dress, Tape::Cm).unwrap().try_ons.remove(0);
    assert!(unknown.check("Cloth for the panel").figures.ends_with("long, and what the hem turns up"));
}

#[test]
fn each_half_of_a_seam_that_lies_across_has_a_piece_and_no_leg_twists_for_a_panel() {
    let json = include_str!("../../../../demo/pinafore-toile.json");
    let mut toile: Document = serde_json::from_str(json).unwrap();
    toile.try_ons.truncate(1);
    toile.try_ons[0].hem_marks.clear();
    let gap = |side| Reading { id: None, side, station: m("20 cm"), amount: m("3 cm"), how: How::Gap };
    let readings = GarmentSide::BOTH.map(gap).into();
    toile.try_ons[0].changes =
        vec![SeamChange { readings, set_in: true, ..SeamChange::of(Seam::WaistSeam) }.into()];
    let try_on = solve(&toile, Tape::Cm).unwrap().try_ons.remove(0);
    assert!(try_on.check("Cloth for the panel in the waist seam").figures.starts_with("2 pieces, each "));
    let deep = solved(let_out(&[("45 cm", m("8 cm")), ("74 cm", m("8 cm"))], true), Tape::Cm);
    assert!(deep.checks.iter().all(|check| !check.title.starts_with("Grain of the leg")));
}

#[test]
fn what_it_is_cut_from_is_on_the_list_and_either_edge_is_sewn() {
    let at = [("45 cm", m("4 cm")), ("74 cm", m("4 cm"))];
    let of = |set_in| -> Vec<Task> {
        let (fitted, changes) = (trousers(), [Change::from(let_out(&at, set_in))]);
        let on = On { garment: &fitted.garment, wearer: &fitted.wearer, hem_marks: &[], keeps_all: false };
        let drawn = draw(on, &changes).unwrap();
        let as_it_is = Subject::as_it_is(&fitted.garment, &fitted.wearer, Tape::Cm);
        let subject = Subject { changes: &drawn, ..as_it_is };
        chain(&TasksOf { subject: &subject, wishes: &Wishes::default() }).unwrap_or_default().tasks
    };
    let ([plain, panel], find) = ([of(false), of(true)], |tasks: &[Task], step| {
        tasks.iter().find(|task| task.key.step == step).cloned()
    });
    let cloth = find(&panel, Step::Chalk).unwrap().supplies;
    assert!(cloth.contains(&Supply::of(SupplyKind::PanelCloth, 190)), "2 × 95 cm: {cloth:?}");
    let sewn = |tasks: &[Task]| find(tasks, Step::Stitch).unwrap().along.unwrap().times;
    assert_eq!((sewn(&plain), sewn(&panel)), (2, 4));
    assert!(find(&panel, Step::Unpick).is_none() && find(&panel, Step::Cut).is_none());
}
