//! The chalk card of a pair of darts.

use super::judge::Edge;
use super::{AlteredDart, DartChange};
use crate::card::{Block, CardOf, Cell, Column, Emphasis, Hand, HasCard, Table, TableRow};
use crate::chalk::Row;
use crate::change::{ChangeKey, Drawn, Input};
use crate::fitting::GarmentSide;
use crate::told::{capital, row_note};
use crate::work::{DartEnd, Step};

impl HasCard for AlteredDart<'_> {
    /// Before the side seams that it crosses.
    const TURN: u8 = 1;

    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)> {
        if !self.is_altered() {
            return None;
        }
        let (tape, garment) = (of.tape, of.subject.garment);
        let rows = self.rows(garment, tape);
        let (datum, _) = DartChange::reads_from(self.key());
        let sides = if self.sides_agree() { "a pair, both the same" } else { "a pair, each its own" };
        let name = DartChange::name(garment, self.key());
        let measured = format!(
            "Stations in {unit} from the {datum}. Fold depths in {unit}, from the middle of the dart to either side.",
            unit = tape.unit_word()
        );
        let mut blocks: Vec<Block> =
            self.card_drawings(&rows, [datum, self.other_end()]).into_iter().map(Block::Drawing).collect();
        blocks.push(Block::Text(measured));
        blocks.push(Block::Table(self.table(of, &rows, datum)));
        if self.place_is_assumed {
            blocks.push(Block::Note(format!(
                "Assumed: {}. Nobody said where it lies: put in its point and its other end.",
                self.place_words(tape).unwrap_or_default()
            )));
        }
        blocks.extend(of.inside_out());
        let cutting = of.subject.schools.cutting.unwrap_or_default();
        blocks.push(self.hand(of, datum).block(ChangeKey::Dart(self.key()), cutting));
        blocks.extend(of.cautions(ChangeKey::Dart(self.key()), false));
        blocks.extend(of.afterwards());
        Some((format!("{}, {sides}", capital(&name)), blocks))
    }
}

impl AlteredDart<'_> {
    fn table(&self, of: &CardOf<'_>, rows: &[Row], datum: &str) -> Table {
        let (tape, unit) = (of.tape, of.tape.unit_name());
        let column = |emphasis, heading: String, group| Column { heading, emphasis, group };
        let mut columns = vec![column(Emphasis::Station, format!("from {datum}, {unit}"), 0)];
        let sides: &[(GarmentSide, &str)] = match self.sides_agree() {
            true => &[(GarmentSide::Left, "")],
            false => &[(GarmentSide::Left, "left: "), (GarmentSide::Right, "right: ")],
        };
        for (group, (_, words)) in (1..).zip(sides) {
            columns.push(column(Emphasis::Chalked, format!("{words}fold depth, {unit}"), group));
            columns.push(column(Emphasis::Sum, format!("{words}taken by each, {unit}"), group));
        }
        let row = |row: &Row| {
            let mut cells = vec![Cell::of(Some(tape.figure(row.station.0)), None)];
            for (side, _) in sides {
                let depth = self.chalked(*side, row.station, tape);
                let added = self.chalked_more(*side, row.station, tape);
                let old = match depth == added {
                    true => String::new(),
                    false => {
                        format!(
                            "{} deep without the pins, {} with them; ",
                            tape.bare(depth - added),
                            tape.bare(depth)
                        )
                    }
                };
                let sum = format!("{old}2 × {} = {} taken by each", tape.bare(depth), tape.show(depth * 2));
                for figure in [depth, depth * 2] {
                    cells.push(Cell::of(Some(tape.figure(figure)), Some(sum.clone())));
                }
            }
            let at = of.places(&row.exact);
            TableRow { is_chalked: of.is_chalked(&at), at, cells, note: row_note(row) }
        };
        Table { columns, rows: rows.iter().map(row).collect() }
    }

    /// What the hand does, step by step of the plan.
    fn hand(&self, of: &CardOf<'_>, datum: &str) -> Hand {
        let is_there = self.facts.is_some();
        let join = match is_there {
            true => "Join the dots; fold along the middle, dots on dots, and pin across.",
            false => {
                "Join the dots to a lens or a wedge; fold along the middle, dots on dots, and pin across."
            }
        };
        let sew = match self.key().has_two_points() {
            true => "Sew from the middle to one point, then from the middle to the other.".into(),
            false => format!("Sew from the {} to the point.", self.other_end()),
        };
        // Where it takes as much of the edge as before, that stays closed.
        let edge = self.edge_found(of.subject).map(|(edge, _)| match edge {
            Edge::Band(_) => "the waistband there".to_owned(),
            Edge::Of(seam, _) => format!("the {} there", ChangeKey::Seam(seam).name(of.subject.garment)),
        });
        let opened: Vec<String> = of.lining_to_open().into_iter().chain(edge).collect();
        let lets_out = self.lets_out();
        let mut hand = Hand::default();
        if !opened.is_empty() {
            hand.say(Step::OpenUp, format!("Open first: {}.", opened.join(", ")));
        }
        hand.say(
            Step::Chalk,
            match self.place_words(of.tape) {
                Some(place) => format!("Inside out, draw the middle of each dart: {place}. Both alike."),
                None => "Inside out, draw the middle of each dart from its old point. Both alike.".into(),
            },
        );
        hand.say(
            Step::Chalk,
            format!("Lay the tape along the middle with 0 at the {datum}. Tick each station."),
        );
        hand.say(
            Step::Chalk,
            "From each tick measure the fold depth to either side of the middle and make a dot.",
        );
        hand.say(Step::Chalk, join);
        hand.say(Step::Baste, "Baste along the chalk.");
        if lets_out || self.is_moved() {
            hand.say(Step::Unpick, "Unpick the old dart and press it flat; the basting holds the new one.");
        }
        hand.say(Step::TryBasted, "Try it on again.");
        hand.say(Step::Stitch, sew);
        hand.say(
            Step::Stitch,
            match of.subject.schools.dart_end {
                Some(DartEnd::Knotted) => "Tie the threads of each point by hand, without a lump.",
                Some(DartEnd::ShortStitches) => {
                    "Finish each point with short stitches, right off the cloth, without a lump."
                }
                None => "Finish each point with short stitches or a hand knot, without a lump.",
            },
        );
        hand.say(
            Step::TakeOut,
            match is_there && !lets_out && !self.is_moved() {
                true => "Take out the basting, and the old stitching inside the fold.",
                false => "Take out the basting.",
            },
        );
        hand.say(Step::Press, "Press over a ham, towards the centre.");
        if !opened.is_empty() {
            hand.say(Step::PutBack, "Close what was opened.");
        }
        hand
    }
}
