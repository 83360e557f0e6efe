//! The chalk card: what lies beside the cloth while it is chalked, in the order in which the hand moves.
//!
//! A card is blocks: whoever paints it, on a screen, on paper, as text or as a table, paints blocks and knows no kind of change.

use crate::change::hem::Cutting;
use crate::change::{ChangeKey, DrawnChange, kinds};
use crate::figure::CardDrawing;
use crate::fitting::{GarmentSide, Worn};
use crate::garment::{Lined, LiningOpens};
use crate::judge::{FindingKey, Outcome, Rule, Subject};
use crate::length::{Figure, Measure, Station, Tape, Unit};
use crate::paper::has_sheets;
use crate::place::Level;
use crate::plan::in_order_of_the_hand;
use crate::told::{Check, LevelResult, capital};
use crate::work::{Schools, Step};
use serde::Serialize;
use utoipa::ToSchema;

/// A card for one change.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Card {
    /// Names it among the cards of a try-on: the change it is of.
    pub key: ChangeKey,
    /// What is altered: "Outseam, both legs the same".
    pub title: String,
    /// Garment and wearer.
    pub garment: String,
    /// What is altered, as it is called on this garment.
    pub name: String,
    /// It has lines that can be printed at true size.
    pub at_true_size: bool,
    /// What stands on it, from the top down.
    pub blocks: Vec<Block>,
}

/// One block of a card.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Block {
    /// A heading of what follows.
    Heading(String),
    /// A sentence or two.
    Text(String),
    /// Small print: where a figure above needs a word.
    Note(String),
    /// Something to know first.
    Caution(String),
    /// A line of what it comes to.
    Line(String),
    /// What the hand does, in order.
    Steps(Vec<HandStep>),
    /// Figures.
    Table(Table),
    /// A drawing.
    Drawing(CardDrawing),
}

/// What the hand does, in a sentence or two, with the step of the plan that it belongs to.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct HandStep {
    /// Which step of its change.
    pub step: Step,
    /// In words.
    pub text: String,
}

/// What is said of a change while it is written down, in any order.
#[derive(Default)]
pub(crate) struct Hand(Vec<HandStep>);

impl Hand {
    /// Says something of a step.
    pub fn say(&mut self, step: Step, text: impl Into<String>) {
        self.0.push(HandStep { step, text: text.into() });
    }

    /// Says more of a step.
    pub fn say_all<T: Into<String>>(&mut self, step: Step, all: impl IntoIterator<Item = T>) {
        all.into_iter().for_each(|text| self.say(step, text));
    }

    /// In the order of the hand: the plan's.
    pub fn block(mut self, change: ChangeKey, cutting: Cutting) -> Block {
        in_order_of_the_hand(&mut self.0, change, cutting, |said| said.step);
        Block::Steps(self.0)
    }

    /// Nothing is said.
    pub fn is_empty(&self) -> bool {
        self.0.is_empty()
    }
}

/// Figures in rows and columns. Every row has as many cells as there are columns.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Table {
    /// Its columns, the first naming the rows.
    pub columns: Vec<Column>,
    /// Its rows, in the order of the hand.
    pub rows: Vec<TableRow>,
}

/// A column of a table.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Column {
    /// Its heading, with its unit.
    pub heading: String,
    /// How large its figures are.
    pub emphasis: Emphasis,
    /// Which group of columns it belongs to: where all do not fit beside each other, each group has a table of its own.
    pub group: u8,
}

/// How large a figure stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Emphasis {
    /// What the hand measures: the largest.
    Chalked,
    /// What names the row.
    Station,
    /// What follows from it.
    Sum,
}

/// A row of a table.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct TableRow {
    /// Where it lies exactly: ticking it stores these, and it is ticked by any of them.
    pub at: Vec<Measure>,
    /// It is ticked.
    pub is_chalked: bool,
    /// Its figures, one for each column.
    pub cells: Vec<Cell>,
    /// What is there: pin, knee, hem; empty where it only guides the chalk.
    pub note: String,
}

/// A figure of a table.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Cell {
    /// The figure; none beyond the line.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub figure: Option<Figure>,
    /// As it is written in the table: without its unit, and a dash where there is none.
    pub text: String,
    /// How it comes about.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub sum: Option<String>,
}

impl Cell {
    /// A figure, and how it comes about.
    pub(crate) fn of(figure: Option<Figure>, sum: Option<String>) -> Self {
        Self { figure, text: figure.map_or("–".into(), Figure::bare), sum }
    }
}

/// What a card is made with.
pub(crate) struct CardOf<'a> {
    pub subject: &'a Subject<'a>,
    pub levels: &'a [LevelResult],
    pub checks: &'a [Check],
    /// The exact stations of this change that are chalked.
    pub chalked: &'a [Measure],
    pub tape: Tape,
}

/// What a kind of change owes: its card.
pub(crate) trait HasCard {
    /// When its turn comes: the lowest first.
    const TURN: u8;

    /// Title and blocks; nothing where there is nothing to chalk.
    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)>;
}

macro_rules! cards {
    ($($(#[$doc:meta])* $Kind:ident in $folder:ident: $Input:ident, $Key:ident, $Drawn:ident;)+) => {
        /// When the turn of a change comes on the table.
        pub(crate) const fn turn(change: &DrawnChange<'_>) -> u8 {
            match change { $(DrawnChange::$Kind(_) => <crate::change::$folder::$Drawn<'_> as HasCard>::TURN,)+ }
        }

        /// The card of a change; nothing where there is nothing to chalk.
        pub(crate) fn card(change: &DrawnChange<'_>, garment: String, of: &CardOf<'_>) -> Option<Card> {
            let (title, mut blocks) = match change { $(DrawnChange::$Kind(drawn) => drawn.card(of),)+ }?;
            let key = change.key();
            // Before the steps that follow it.
            let at = blocks.iter().position(|block| matches!(block, Block::Steps(_))).unwrap_or(blocks.len());
            blocks.splice(at..at, of.school(key));
            Some(Card { key, title, garment, name: key.name(of.subject.garment), at_true_size: has_sheets(key), blocks })
        }
    };
}
kinds!(cards);

impl CardOf<'_> {
    /// Which school it follows, where practitioners differ and somebody chose; nothing where it is done as usual.
    fn school(&self, key: ChangeKey) -> Option<Block> {
        let Schools { cutting, allowance, dart_end, sleeve, hem } = self.subject.schools;
        let cut = || cutting.map(|cutting| format!("outside the seam {}", cutting.name()));
        let all: Vec<Option<String>> = match key {
            ChangeKey::Seam(_) => vec![cut(), allowance.map(|is| format!("the allowance {}", is.name()))],
            ChangeKey::Dart(_) => {
                vec![cut(), dart_end.map(|end| format!("the point of a dart {}", end.name()))]
            }
            ChangeKey::Armhole(_) => vec![sleeve.map(|set| format!("the sleeve {}", set.name()))],
            ChangeKey::Hem(_) => vec![hem.map(|by| format!("the hem {}", by.name()))],
            ChangeKey::Elastic(_) | ChangeKey::Spacing(_) | ChangeKey::Trunk(_) | ChangeKey::Gathers(_) => {
                Vec::new()
            }
        };
        let all: Vec<String> = all.into_iter().flatten().collect();
        (!all.is_empty()).then(|| Block::Note(format!("As you chose: {}.", all.join("; "))))
    }

    /// What is known to be awkward about this change, and about the garment as a whole where it says so; the gravest first.
    pub fn cautions(&self, key: ChangeKey, and_of_the_whole: bool) -> Vec<Block> {
        let concerns = |check: &&Check| match check.key.change {
            Some(change) => change == key,
            None => and_of_the_whole,
        };
        // What is opened first is the first step, and not said again.
        let is_a_step =
            |key: &FindingKey| key.rule == Rule::InTheWay && key.at.is_none() && key.partner.is_none();
        let checks = self.checks.iter().filter(|c| !is_a_step(&c.key));
        let grave = checks.filter(|c| c.outcome > Outcome::Passes).filter(concerns);
        let mut blocks: Vec<Block> = grave.map(|check| Block::Caution(caution(check))).collect();
        if !blocks.is_empty() {
            blocks.insert(0, Block::Heading("Know first".into()));
        }
        blocks
    }

    /// A lining that is closed all over, with where it opens: nothing is reached under it.
    pub fn lining_to_open(&self) -> Option<String> {
        let found = &self.subject.garment.found;
        let opens = || found.lining_opens.map_or("where it can be opened", LiningOpens::name);
        (found.lined == Some(Lined::Fully)).then(|| format!("the lining ({})", opens()))
    }

    /// What the garment measures afterwards, wherever that changes.
    pub fn afterwards(&self) -> Vec<Block> {
        let shown = |figure: &Figure| self.tape.round(figure.measure().length);
        let changed = self.levels.iter().filter(|l| shown(&l.before) != shown(&l.after));
        let line = |l: &LevelResult| {
            let round = match l.level {
                Level::Hem | Level::SleeveHem => "opening",
                Level::Neck | Level::Shoulder | Level::Bust | Level::UnderBust | Level::Waist => "girth",
                Level::Hip | Level::Thigh | Level::Knee | Level::Calf | Level::Ankle => "girth",
                Level::UpperArm | Level::Elbow | Level::Wrist => "girth",
            };
            Block::Line(format!("{}: {round} {} (now {})", capital(&l.name), l.after.text(), l.before.text()))
        };
        let mut blocks: Vec<Block> = changed.map(line).collect();
        if !blocks.is_empty() {
            blocks.insert(0, Block::Heading("Afterwards it should measure".into()));
        }
        blocks
    }

    /// Stations as a row is known by them: written one way on every tape.
    pub fn places(&self, exact: &[Station]) -> Vec<Measure> {
        exact.iter().map(|station| Measure { length: station.0, unit: Unit::Cm }).collect()
    }

    /// One of these stations is chalked.
    pub fn is_chalked(&self, at: &[Measure]) -> bool {
        at.iter().any(|at| self.chalked.iter().any(|chalked| chalked.length == at.length))
    }

    /// What has to be known of left and right where it was pinned inside out. Nothing otherwise.
    pub fn inside_out(&self) -> Option<Block> {
        let put_on = self.subject.put_on;
        (put_on.worn == Worn::InsideOut).then(|| {
            let seen = put_on.seen_words(GarmentSide::Left);
            Block::Note(format!(
                "It was pinned inside out: the garment’s left was on the {seen}. Left and right here are the garment’s, as it is worn."
            ))
        })
    }
}

fn caution(check: &Check) -> String {
    let stop = if check.outcome == Outcome::Stop { "Stop. " } else { "" };
    format!(
        "{stop}{}: {}. {}",
        capital(&check.title),
        check.figures,
        check.remedy.as_deref().unwrap_or(&check.reason)
    )
}
