//! The card of an edge that is gathered or pleated.

use super::pleats::{GatherSums, GatheredEdge};
use super::told::{excess_words, pleats_words};
use crate::card::{Block, CardOf, Cell, Column, Emphasis, Hand, HasCard, Table, TableRow};
use crate::change::ChangeKey;
use crate::change::hem::Cutting;
use crate::garment::GatherHow;
use crate::length::{Length, Measure, Unit};
use crate::told::{Teller, capital};
use crate::work::Step;

impl HasCard for GatheredEdge<'_> {
    /// Last: what it is sewn to is as long as it will be.
    const TURN: u8 = 6;

    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)> {
        let sums = self.sums(of.subject)?;
        let to = Teller::of(of.subject.garment, of.tape);
        let key = ChangeKey::Gathers(self.key());
        let pleats =
            pleats_words(&sums, &to).map_or_else(String::new, |words| format!(" {}.", capital(&words)));
        let along = if sums.how == GatherHow::Gathers { "each edge" } else { "the long edge" };
        let mut blocks = vec![
            Block::Text(format!("{}.{pleats}", capital(&excess_words(&sums, &to)))),
            Block::Note(format!("Figures in {}, along {along} from its beginning.", of.tape.unit_word())),
            Block::Table(table(of, &sums)),
            hand(sums.how).block(key, Cutting::default()),
        ];
        blocks.extend(of.cautions(key, false));
        Some((capital(&format!("{} {}", sums.how.name(), self.key().name())), blocks))
    }
}

/// Of pleats where each is folded; of gathers the quarters of both edges, which are pinned together.
fn table(of: &CardOf<'_>, sums: &GatherSums) -> Table {
    let unit = of.tape.unit_name();
    let column = |heading: String, emphasis| Column { heading, emphasis, group: 0 };
    let [first, second] = match sums.how {
        GatherHow::Gathers => ["long edge", "short edge"],
        GatherHow::KnifePleats => ["fold at", "lay it on"],
        GatherHow::BoxPleats => ["fold from", "fold to"],
    };
    let columns = vec![
        column("mark".into(), Emphasis::Station),
        column(format!("{first}, {unit}"), Emphasis::Chalked),
        column(format!("{second}, {unit}"), Emphasis::Chalked),
    ];
    let row = |name: String, [one, other]: [Length; 2]| {
        let at = vec![Measure { length: one, unit: Unit::Cm }];
        let cell = |length| Cell::of(Some(of.tape.figure(length)), None);
        let cells = vec![Cell { figure: None, text: name, sum: None }, cell(one), cell(other)];
        TableRow { is_chalked: of.is_chalked(&at), at, cells, note: String::new() }
    };
    let rows = match sums.how {
        GatherHow::Gathers => (1..4)
            .map(|n| {
                row(format!("{n} of 4"), [sums.long, sums.short].map(|l| of.tape.round(l.fraction(n, 4))))
            })
            .collect(),
        GatherHow::KnifePleats | GatherHow::BoxPleats => {
            sums.pleats.iter().enumerate().map(|(n, p)| row((n + 1).to_string(), [p.from, p.to])).collect()
        }
    };
    Table { columns, rows }
}

fn hand(how: GatherHow) -> Hand {
    let mut hand = Hand::default();
    match how {
        GatherHow::Gathers => {
            hand.say(Step::Chalk, "Quarter both edges and mark them.");
            hand.say_all(
                Step::Baste,
                [
                    "Sew two rows of long stitches, one on either side of the seam line, and leave their ends long.",
                    "Pin quarter to quarter, right sides together; draw the threads up and share the cloth out.",
                    "Baste.",
                ],
            );
            hand.say(Step::TryBasted, "Try it on.");
            hand.say(Step::Stitch, "Sew with the gathers on top.");
            hand.say(Step::Press, "Draw the long stitches out and press into the gathers, not over them.");
        }
        GatherHow::KnifePleats | GatherHow::BoxPleats => {
            let (mark, fold) = match how {
                GatherHow::BoxPleats => (
                    "Mark every pleat on the edge, and its middle; and again a hand further down.",
                    "Bring both marks of a pleat to its middle from either side.",
                ),
                GatherHow::KnifePleats | GatherHow::Gathers => (
                    "Mark every pleat on the edge, and again a hand further down.",
                    "Fold at the first mark of each and lay it on the second; all face one way.",
                ),
            };
            hand.say(Step::Chalk, mark);
            hand.say_all(
                Step::Baste,
                [fold, "Baste across the top, and measure the pleated edge against the short one."],
            );
            hand.say(Step::TryBasted, "Try it on.");
            hand.say(Step::Stitch, "Sew it on.");
            hand.say(Step::Press, "Press the folds from inside.");
        }
    }
    hand
}
