//! The card of fastenings: where each stands, from the top, on both edges.

use super::SpacedFastenings;
use super::told::{apart_words, run_words};
use crate::card::{Block, CardOf, Cell, Column, Emphasis, Hand, HasCard, Table, TableRow};
use crate::change::ChangeKey;
use crate::change::hem::Cutting;
use crate::garment::Closure;
use crate::length::{Length, Measure, Unit};
use crate::told::{Teller, capital};
use crate::work::Step;

impl HasCard for SpacedFastenings<'_> {
    /// After the hem that shortens their edge.
    const TURN: u8 = 5;

    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)> {
        let sums = self.sums(of.subject).filter(|sums| !sums.placed().is_empty())?;
        let to = Teller::of(of.subject.garment, of.tape);
        let key = ChangeKey::Spacing(self.key());
        let column = |heading: String, emphasis| Column { heading, emphasis, group: 0 };
        let columns = vec![
            column("number".into(), Emphasis::Station),
            column(format!("from the top, {}", of.tape.unit_name()), Emphasis::Chalked),
        ];
        let row = |(n, place): (usize, &Length)| {
            let at = vec![Measure { length: *place, unit: Unit::Cm }];
            let number = Cell { figure: None, text: (n + 1).to_string(), sum: None };
            let on_the_line = sums.line == Some(*place);
            TableRow {
                is_chalked: of.is_chalked(&at),
                at,
                cells: vec![number, Cell::of(Some(of.tape.figure(*place)), None)],
                note: if on_the_line { "on the line".into() } else { String::new() },
            }
        };
        let rows = sums.placed().iter().enumerate().map(row).collect();
        let unit = of.tape.unit_word();
        let mut blocks = Vec::new();
        if sums.off != Length::ZERO {
            blocks.push(Block::Text("Hem it first: the lower end of the edge is the new hem.".into()));
        }
        blocks.extend([
            Block::Text(format!(
                "{}. Figures in {unit}, down from the top of the opening, the same on both edges.",
                capital(&apart_words(&sums, &to))
            )),
            Block::Table(Table { columns, rows }),
            Block::Note(capital(&run_words(&sums, &to))),
            hand(self.closure).block(key, Cutting::default()),
        ]);
        blocks.extend(of.cautions(key, false));
        Some((capital(&key.name(of.subject.garment)), blocks))
    }
}

fn hand(closure: Closure) -> Hand {
    let mut hand = Hand::default();
    hand.say(Step::Chalk, "Mark every place on one edge. Lay the other on it, tops level, and mark through.");
    hand.say(Step::TryBasted, "Pin it closed at the marks and try it on: sit, and reach forward.");
    hand.say(Step::Unpick, "Take off what comes to stand elsewhere, and steam the old marks out.");
    match closure {
        Closure::Lacing => hand.say(
            Step::Cut,
            "Open the eyelets with an awl, cut no more threads than needed, and set them from the outside.",
        ),
        Closure::Hooks => {
            hand.say(Step::PutBack, "Sew hooks and eyes on in turn, so that no edge pulls past the other.");
        }
        Closure::Buttons
        | Closure::Zip
        | Closure::InvisibleZip
        | Closure::Elastic
        | Closure::Wrap
        | Closure::Ties => {
            hand.say(Step::Stitch, "Work the buttonholes.");
            hand.say(Step::Cut, "Cut each open from its ends to the middle, with a pin across its end.");
            hand.say(Step::PutBack, "Sew each button on through its hole, closed edge to edge.");
        }
    }
    hand
}
