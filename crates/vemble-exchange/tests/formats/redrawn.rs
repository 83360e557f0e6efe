//! Cards drawn again from nothing but their printed figures.

use vemble_core::card::{Block, Card, TableRow};
use vemble_core::change::seam::alter;
use vemble_core::change::{Change, ChangeKey, Curve};
use vemble_core::fitting::{End, GarmentSide};
use vemble_core::length::{Measure, Tape};
use vemble_core::solve::solve;
use vemble_exchange::document::read_document;

/// The example's garments, each with a card or more.
const GARMENTS: [&str; 7] =
    ["corduroys", "concert-shirt", "jersey-top", "overcoat", "pinafore-toile", "school-skirt", "tea-dress"];

/// Whoever has only the printed figures draws the line that was computed: dots at them, joined by a curve that does not swing, lie within
/// half a mark of the tape and a chalk line's breadth (1 mm) of it; on a tape of 5 mm within its mark.
#[test]
fn a_card_drawn_again_from_its_figures_lies_on_the_line() {
    let mut drawn = 0;
    for name in GARMENTS {
        let json = std::fs::read(format!("../../demo/{name}.json")).unwrap();
        let document = read_document(&json).unwrap();
        let (garment, try_on) = (&document.states[0].garment, document.try_ons.last().unwrap());
        for tape in Tape::ALL {
            let solved = solve(&document, *tape).unwrap();
            for change in &try_on.changes {
                let Change::Seam(change) = change else { continue };
                let key = ChangeKey::Seam(change.seam);
                // A line that shares or carries on is not drawn by itself alone.
                let Ok(seam) = alter(garment, change) else { continue };
                let alone = change.spread.is_empty() && !matches!(change.upper, Some(End::CarriesOn { .. }));
                let card = solved.try_ons.last().unwrap().cards.iter().find(|card| card.key == key);
                let Some(card) = card.filter(|_| alone) else { continue };
                let off = farthest(card, &seam.line(GarmentSide::Left).front, *tape);
                let most = (tape.mark().cm() / 2.0 + 0.1).max(tape.mark().cm());
                assert!(off <= most, "{name}, {}, {tape:?}: {:.2} mm", card.title, off * 10.0);
                drawn += 1;
            }
        }
    }
    assert!(drawn >= 20, "{drawn} cards");
}

/// How far the line that is drawn from a card's first column of figures lies from the one that was computed, in cm.
fn farthest(card: &Card, line: &Curve, tape: Tape) -> f64 {
    let of = |block: &Block| if let Block::Table(table) = block { Some(table.clone()) } else { None };
    let table = card.blocks.iter().find_map(of).unwrap();
    let read = |text: &str| Measure::read(&text.replace('−', "-"), Some(tape.unit())).ok();
    let dot =
        |row: &TableRow| Some((read(&row.cells[0].text)?.length.cm(), read(&row.cells[1].text)?.length.cm()));
    let dots: Vec<(f64, f64)> = table.rows.iter().filter_map(dot).collect();
    let (Some(first), Some(last), Some((from, to))) = (dots.first(), dots.last(), line.span()) else {
        return 0.0;
    };
    let (from, to) = (first.0.max(from), last.0.min(to));
    let joined = Curve::without_swings(&dots);
    let steps = 400;
    let at = |n: i32| from + (to - from) * f64::from(n) / f64::from(steps);
    (0..=steps).map(|n| (joined.at(at(n)) - line.at(at(n))).abs()).fold(0.0, f64::max)
}
