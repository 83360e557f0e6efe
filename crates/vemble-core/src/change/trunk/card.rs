//! The card of a length of the trunk: from each middle to the side, how far the new line lies from the old edge.

use super::input::TrunkAt;
use super::sum::{AlteredTrunk, TrunkSums};
use super::told::what_words;
use crate::card::{Block, CardOf, Cell, Column, Emphasis, Hand, HasCard, Table, TableRow};
use crate::change::hem::Cutting;
use crate::change::{ChangeKey, Drawn};
use crate::length::{Length, Measure, Unit};
use crate::told::{Teller, capital};
use crate::work::Step;

impl HasCard for AlteredTrunk<'_> {
    /// After the seams of the body and its darts, before the hems.
    const TURN: u8 = 3;

    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)> {
        if !self.is_altered() {
            return None;
        }
        let (tape, to) = (of.tape, Teller::of(of.subject.garment, of.tape));
        let (sums, key) = (self.sums(tape), ChangeKey::Trunk(self.key()));
        let way = match self.key() {
            TrunkAt::AboveWaist => "up from it into the bodice; those with a − down into the allowance",
            TrunkAt::Rise => "down from it; those with a − up",
        };
        let mut blocks = vec![
            Block::Drawing(self.card_drawing(tape)),
            Block::Text(format!("{}.", what_words(self.key(), sums, &to))),
            Block::Note(format!(
                "Figures in {}: along the old edge from either middle to the side, and {way}. Left and right alike.",
                tape.unit_word()
            )),
            Block::Table(table(of, sums)),
            self.hand(of).block(key, Cutting::default()),
        ];
        blocks.extend(of.cautions(key, false));
        Some((capital(self.key().name()), blocks))
    }
}

fn table(of: &CardOf<'_>, sums: TrunkSums) -> Table {
    let (tape, unit) = (of.tape, of.tape.unit_name());
    let column = |heading: String, emphasis, group| Column { heading, emphasis, group };
    let columns = vec![
        column(format!("from the middle, {unit}"), Emphasis::Station, 0),
        column(format!("front, {unit}"), Emphasis::Chalked, 1),
        column(format!("back, {unit}"), Emphasis::Chalked, 1),
    ];
    let step = tape.chalk_step();
    let mut stations: Vec<Length> = (0..).map(|n| step * n).take_while(|at| *at < sums.quarter).collect();
    stations.push(sums.quarter);
    let row = |station: Length| {
        let at = vec![Measure { length: station, unit: Unit::Cm }];
        let off = |is_front: bool| Cell::of(Some(tape.figure(sums.at(is_front, station, tape))), None);
        let cells = vec![Cell::of(Some(tape.figure(station)), None), off(true), off(false)];
        let note = match station {
            s if s == Length::ZERO => "centre front, centre back",
            s if s == sums.quarter => "side",
            _ => "",
        };
        TableRow { is_chalked: of.is_chalked(&at), at, cells, note: note.into() }
    };
    Table { columns, rows: stations.into_iter().map(row).collect() }
}

impl AlteredTrunk<'_> {
    fn hand(&self, of: &CardOf<'_>) -> Hand {
        let garment = of.subject.garment;
        let mut hand = Hand::default();
        if let Some(lining) = of.lining_to_open() {
            hand.say(Step::OpenUp, format!("Open first: {lining}."));
            hand.say(Step::PutBack, "Shorten the lining by as much, and close it.");
        }
        let (edge, seam) = match self.key() {
            TrunkAt::AboveWaist if self.has_seam(garment) => ("the old waist seam", "the waist seam"),
            TrunkAt::AboveWaist => ("a thread at the waist, all round", "the fold"),
            TrunkAt::Rise => ("the old upper edge", "the band"),
        };
        let open = match self.key() {
            TrunkAt::AboveWaist if self.has_seam(garment) => {
                "Unpick the waist seam, and what opens through it a hand’s breadth to either side."
            }
            TrunkAt::AboveWaist => "Open what closes through the waist a hand’s breadth to either side.",
            TrunkAt::Rise => "Mark both middles and the sides on the band, then unpick it with its loops.",
        };
        hand.say(Step::Unpick, open);
        hand.say_all(
            Step::Chalk,
            [
                format!("Measure from {edge} at each place, and join the dots with a curve: level at both middles."),
                "Darts and seams run on to the new line as they ran to the old one.".into(),
            ],
        );
        let baste = match self.key() {
            TrunkAt::AboveWaist if !self.has_seam(garment) => {
                "Fold the cloth so that the new line lies on the thread, and baste along it."
            }
            TrunkAt::AboveWaist => {
                "Baste the new line to the old edge of the skirt: middles, sides, darts on darts."
            }
            TrunkAt::Rise => "Baste the band to the new line: middles and sides on their marks.",
        };
        hand.say(Step::Baste, baste);
        hand.say(Step::TryBasted, "Try it on, and sit down in it. Nothing is cut before.");
        hand.say(Step::Stitch, format!("Sew {seam}, then set in again what opens there."));
        hand.say(Step::TakeOut, "Take out the basting.");
        hand.say(Step::Press, format!("Press {seam} as sewn, then as it was."));
        hand
    }
}
