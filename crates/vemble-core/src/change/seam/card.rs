//! The chalk card of a seam.

use super::{AlteredSeam, EDGES_MAY_DIFFER, StitchingLine, edge_lengths};
use crate::card::{Block, CardOf, Cell, Column, Emphasis, Hand, HasCard, Table, TableRow};
use crate::chalk::{Row, START_ON_OLD_LINE, Way};
use crate::change::{ChangeKey, Drawn};
use crate::fitting::{End, EndOf, Fairing, GarmentSide, Reading};
use crate::garment::{Band, Run, Seam};
use crate::judge::{Outcome, Rule};
use crate::length::{Length, Station, Tape};
use crate::plan::is_traced;
use crate::shown::edges_words;
use crate::told::{Teller, capital, edges_sum, row_note, without_sign};
use crate::work::{AllowanceIs, Step};

impl HasCard for AlteredSeam<'_> {
    /// After the darts that it crosses.
    const TURN: u8 = 2;

    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)> {
        let (tape, garment) = (of.tape, of.subject.garment);
        if !self.is_altered() {
            return None;
        }
        let rows = self.rows(garment, tape);
        let (name, datum) = (self.facts.name(), self.facts.seam.datum());
        let (one, both) = self.limbs(of);
        let sides = match (self.sides_agree(), self.lines.each_ref().map(|line| line.span().is_some())) {
            _ if !self.facts.seam.has_sides() => String::new(),
            (true, _) => format!(", both {both} the same"),
            (false, [true, true]) => format!(", each {one} its own"),
            (false, [true, false]) => format!(", left {one} only"),
            (false, [false, _]) => format!(", right {one} only"),
        };
        let panel = self.panel(of);
        let measured = self.set_in_words(&rows, of).unwrap_or_else(|| format!(
            "Stations in {unit}, {up}from the {datum} along the {name}. Figures in {unit}, sideways from the old stitching {}.",
            match Way::of(&rows) {
                Way::In => format!("into the {panel}"),
                Way::Out => format!("out into the allowance, away from the {panel}: so says the −"),
                Way::Both => format!("into the {panel}; those with a − out into the allowance"),
            },
            unit = tape.unit_word(),
            up = if self.facts.seam.run() == Run::Across { "" } else { "up " },
        ));
        let ends = [datum, garment.top_of(self.facts.seam)];
        let mut blocks: Vec<Block> =
            self.card_drawings(&rows, ends).into_iter().map(Block::Drawing).collect();
        blocks.push(Block::Text(measured));
        blocks.push(Block::Table(self.table(of, &rows)));
        blocks.extend(self.notes(of));
        let cutting = of.subject.schools.cutting.unwrap_or_default();
        blocks.push(self.hand(of, &rows).block(ChangeKey::Seam(self.key()), cutting));
        blocks.extend(of.cautions(ChangeKey::Seam(self.key()), true));
        blocks.extend(of.afterwards());
        let title = if self.change.set_in { format!("Panel in the {name}") } else { capital(name) };
        Some((format!("{title}{sides}"), blocks))
    }
}

impl AlteredSeam<'_> {
    fn edges_equal(&self) -> bool {
        self.lines.iter().all(StitchingLine::has_equal_edges)
    }

    /// What comes in pairs where this seam is: legs, sleeves, or just sides.
    fn limbs(&self, of: &CardOf<'_>) -> (&'static str, &'static str) {
        let seam = self.facts.seam;
        if seam.run() == Run::DownSleeve {
            ("sleeve", "sleeves")
        } else if matches!(seam, Seam::Outseam | Seam::Inseam) && of.subject.garment.has_legs() {
            ("leg", "legs")
        } else if seam.is_single() && seam.has_sides() {
            ("half", "halves")
        } else {
            ("side", "sides")
        }
    }

    /// What one measures into, away from the old stitching.
    fn panel(&self, of: &CardOf<'_>) -> &'static str {
        match self.limbs(of).0 {
            "side" | "half" => "panel",
            limb => limb,
        }
    }

    /// The columns of one side: each edge, or both where they differ, altogether, and the cut line.
    fn columns(&self, words: &str, group: u8, is_trimmed: bool, unit: &str) -> Vec<Column> {
        let [one, other] = self.facts.seam.edges();
        let column =
            |emphasis, what: &str| Column { heading: format!("{words}{what}, {unit}"), emphasis, group };
        let mut columns = match self.edges_equal() {
            true if self.change.set_in => vec![column(Emphasis::Chalked, "either way from its middle line")],
            true => vec![column(Emphasis::Chalked, "each edge")],
            false => [one, other].map(|edge| column(Emphasis::Chalked, &format!("{edge} edge"))).into(),
        };
        columns.push(column(Emphasis::Sum, "altogether"));
        match (is_trimmed, self.edges_equal()) {
            (true, true) => columns.push(column(Emphasis::Chalked, "cut line, each edge")),
            (true, false) => {
                columns
                    .extend([one, other].map(|edge| column(Emphasis::Chalked, &format!("cut line, {edge}"))));
            }
            (false, _) => {}
        }
        columns
    }

    fn table(&self, of: &CardOf<'_>, rows: &[Row]) -> Table {
        let (tape, unit) = (of.tape, of.tape.unit_name());
        let is_trimmed = self.change.trim_to.is_some();
        let mut columns = vec![Column {
            heading: format!("from {}, {unit}", self.facts.seam.datum()),
            emphasis: Emphasis::Station,
            group: 0,
        }];
        match self.sides_agree() {
            true => columns.extend(self.columns("", 1, is_trimmed, unit)),
            false => {
                columns.extend(self.columns("left: ", 1, is_trimmed, unit));
                columns.extend(self.columns("right: ", 2, is_trimmed, unit));
            }
        }
        let row = |row: &Row| {
            let mut cells = vec![Cell::of(Some(tape.figure(row.station.0)), None)];
            for side in self.told_sides() {
                cells.extend(self.cells(row, *side, is_trimmed, tape));
            }
            let at = of.places(&row.exact);
            TableRow { is_chalked: of.is_chalked(&at), at, cells, note: row_note(row) }
        };
        Table { columns, rows: rows.iter().map(row).collect() }
    }

    /// The cells of one side.
    fn cells(&self, row: &Row, side: GarmentSide, is_trimmed: bool, tape: Tape) -> Vec<Cell> {
        let edges = if self.edges_equal() { 1 } else { 2 };
        let count = 1 + edges * if is_trimmed { 2 } else { 1 };
        let Some(there) = row.of(side) else {
            return vec![Cell::of(None, None); count];
        };
        let sum = Some(self.row_sum(row, side, tape));
        // A panel is chalked out from its middle line.
        let cell = |length: Length| {
            let shown = if self.change.set_in { -length } else { length };
            Cell::of(Some(tape.figure(shown)), sum.clone())
        };
        let chalked = [there.edges.front.0, there.edges.back.0];
        let mut cells: Vec<Cell> = chalked.into_iter().take(edges).map(cell).collect();
        cells.push(cell(there.edges.whole().0));
        cells.extend(there.cut.iter().flat_map(|cut| cut.iter().take(edges)).map(|line| cell(*line)));
        cells
    }

    /// `pinned left 6.8, right 7.2 altogether, taken as 7.0; 50 % of it stays on this seam; the line here: 2 edges × 1.7 = 3.4 cm altogether`.
    fn row_sum(&self, row: &Row, side: GarmentSide, tape: Tape) -> String {
        let on_mark = |station: Station| tape.round(station.0) == row.station.0;
        let share = self.change.front_share.unwrap_or_default();
        let read = |r: &Reading| {
            let side =
                if !self.facts.seam.has_sides() { String::new() } else { format!("{} ", r.side.name()) };
            format!("{side}{}", tape.bare(r.edges(share).chalked(tape).whole().0))
        };
        let pinned: Vec<String> = self.change.readings.iter().filter(|r| on_mark(r.at())).map(read).collect();
        let mut sum = String::new();
        if !pinned.is_empty() {
            sum = format!("pinned {} altogether", pinned.join(", "));
            let taken = self.line(side).pins.iter().find(|p| on_mark(p.station));
            if let Some(pin) = taken.filter(|_| pinned.len() > 1 && self.keeps_percent == 100) {
                sum += &format!(", taken as {}", tape.bare(pin.edges.chalked(tape).whole().0));
            }
            if self.keeps_percent < 100 {
                sum += &format!("; {} % of it stays on this seam", self.keeps_percent);
            }
            sum += "; ";
        }
        if let Some(here) = row.of(side) {
            let (what, edges) = match self.change.set_in {
                true => ("panel", without_sign(here.edges)),
                false => ("line", here.edges),
            };
            let edges = edges_sum(edges, 1, self.facts.seam.edges(), tape);
            sum += &format!("the {what} here: {edges} altogether");
        }
        if let Some(trim) = self.change.trim_to {
            sum += &format!("; cut {} outside the new stitching", tape.show(trim.length));
        }
        sum
    }

    fn notes(&self, of: &CardOf<'_>) -> Vec<Block> {
        let (tape, garment) = (of.tape, of.subject.garment);
        let mut notes = Vec::new();
        notes.extend(of.inside_out());
        for end in [EndOf::Lower, EndOf::Upper] {
            // At an edge that the pins reach there is nothing to set.
            let is_plain = end == EndOf::Lower && self.end_station(end, tape).is_none();
            if self.is_assumed(end) && !is_plain {
                let words = self.end_words(end, garment, tape);
                notes.push(Block::Note(format!("Assumed: the line {words}. Nobody set its {}.", end.name())));
            }
        }
        notes
    }

    /// What the hand does, step by step of the plan.
    fn hand(&self, of: &CardOf<'_>, rows: &[Row]) -> Hand {
        let way = Way::of(rows);
        let opened = self.opened_first(of);
        let mut hand = Hand::default();
        if !opened.is_empty() {
            hand.say(Step::OpenUp, format!("Open first: {}.", opened.join(", ")));
        }
        if self.change.set_in {
            return self.set_in_by_hand(hand, of, &opened);
        }
        hand.say_all(Step::Chalk, self.steps_to_chalk(of, way));
        hand.say_all(Step::Chalk, self.step_to_ease(of));
        if is_traced(of.subject.garment.kind) {
            hand.say(Step::ThreadTrace, "Trace the chalk with thread, so that it is seen from both sides.");
        }
        hand.say(Step::Baste, "Baste along the chalk.");
        if way != Way::In {
            // With the old stitching in, nothing is tried.
            hand.say(Step::Unpick, "Unpick the old line where the new one lets out; the basting holds it.");
        }
        hand.say(Step::TryBasted, "Try it on again. Nothing is cut before.");
        hand.say_all(Step::Stitch, self.steps_to_sew(of));
        let [in_the_seam, closed] = self.through_the_band(of);
        hand.say_all(Step::Stitch, in_the_seam);
        hand.say_all(Step::PutBack, closed);
        if way != Way::Out {
            hand.say(Step::TakeOut, "Take out the basting, and the old line where the new one takes in.");
        } else {
            hand.say(Step::TakeOut, "Take out the basting.");
        }
        let is_trimmed = self.change.trim_to.is_some();
        let cut = self.step_to_trim(of, rows, way);
        hand.say(if is_trimmed { Step::Cut } else { Step::Press }, cut);
        if is_trimmed {
            hand.say(Step::Finish, "Finish the edges.");
        }
        hand.say(Step::Press, self.step_to_press(of));
        if !opened.is_empty() {
            hand.say(Step::PutBack, "Close what was opened, the last first.");
        }
        hand
    }

    /// As sewn, then as the allowance is to lie.
    fn step_to_press(&self, of: &CardOf<'_>) -> String {
        let name = self.facts.name();
        let to_one_side = match of.subject.schools.allowance {
            Some(lies) => lies == AllowanceIs::ToOneSide,
            None => self.facts.finish.is_to_one_side(),
        };
        match to_one_side {
            true => format!("Press the {name} as sewn, then both allowances to one side."),
            false => format!("Press the {name} as sewn, then open."),
        }
    }

    /// What has to come apart before anything is chalked, from the top down.
    fn opened_first(&self, of: &CardOf<'_>) -> Vec<String> {
        let (garment, to) = (of.subject.garment, Teller::of(of.subject.garment, of.tape));
        let mut opened: Vec<String> = of.lining_to_open().into_iter().collect();
        if self.change.set_in {
            opened.extend(self.stretch_to_open(of.tape));
        }
        if self.goes_through_the_waist(garment) && garment.has_band() {
            opened.push("the waistband there".to_owned());
            if garment.belt_loops > 0 {
                opened.push("belt loop and label".into());
            }
        }
        opened.extend(self.things_to_open(garment).into_iter().map(|thing| thing.name(&to)));
        opened
    }

    fn steps_to_chalk(&self, of: &CardOf<'_>, way: Way) -> Vec<String> {
        let (name, datum) = (self.facts.name(), self.facts.seam.datum());
        let [one, other] = self.facts.seam.edges();
        let panel = self.panel(of);
        let towards = match way {
            Way::In => format!("into the {panel}"),
            Way::Out => "out into the allowance".into(),
            Way::Both => format!("into the {panel}, with a − out into the allowance,"),
        };
        let half = if self.limbs(of).0 == "half" { " of each half" } else { "" };
        // Half of the way round lies before it begins.
        let from = match self.facts.seam == Seam::YokeSeam && of.subject.garment.has_yoke_behind() {
            true => format!("{} at the side", of.tape.show(of.tape.round(self.facts.end().fraction(1, 2)))),
            false => format!("0 at the {datum}"),
        };
        vec![
            format!("Turn the garment inside out and press the {name} flat."),
            format!(
                "Lay the tape along the old stitching{half} with {from}. Tick each station on both edges."
            ),
            match self.edges_equal() {
                true => format!(
                    "From each tick measure the figure sideways {towards} and make a dot, on the {one} edge and again on the {other} edge."
                ),
                false => format!(
                    "From each tick measure sideways {towards} and make a dot: {one} and {other} edge have figures of their own."
                ),
            },
            match self.change.fairing {
                Fairing::Straight => "Join the dots with a ruler, from dot to dot.".into(),
                Fairing::Smooth | Fairing::EveryPin => "Join the dots with a curve, without corners.".into(),
            },
        ]
    }

    /// Where one edge is a little longer afterwards it is eased in, between two marks.
    fn step_to_ease(&self, of: &CardOf<'_>) -> Vec<String> {
        let (tape, garment) = (of.tape, of.subject.garment);
        let [one, other] = self.facts.seam.edges();
        let ease = |(side, line): (Option<GarmentSide>, &StitchingLine)| {
            let lengths = edge_lengths(garment, self, side.unwrap_or(GarmentSide::Left))?.on(tape);
            let ((from, to), apart) = (line.span()?, lengths.mismatch());
            let is_eased = apart.abs() > EDGES_MAY_DIFFER.on(tape) && lengths.eases_in();
            let longer = if apart.is_negative() { other } else { one };
            let whose = side.map_or_else(String::new, |side| format!("{}: ", side.name()));
            is_eased.then(|| {
                format!(
                    "{whose}Mark “ease on” at {} and “ease off” at {} on the {longer} edge: {} of it are eased in between.",
                    tape.show(from.0),
                    tape.show(to.0),
                    tape.show(apart.abs())
                )
            })
        };
        self.each_line().filter_map(ease).collect()
    }

    fn steps_to_sew(&self, of: &CardOf<'_>) -> Vec<String> {
        let (tape, garment) = (of.tape, of.subject.garment);
        let datum = self.facts.seam.datum();
        let mut steps = Vec::new();
        steps.extend(self.by_side(|line| match line.ends.upper {
            End::MeetsOldStitching { station } => {
                // From mark to mark, so that what is said adds up.
                let leaves = tape.round(station.length);
                let start = (leaves + START_ON_OLD_LINE.on(tape)).min(tape.round(self.facts.end()));
                match start > leaves {
                    true => format!(
                        "Start stitching on the old line at {}, {} before it leaves it at {}, and sew towards the {datum}.",
                        tape.show(start),
                        tape.show(start - leaves),
                        tape.show(leaves)
                    ),
                    false => format!(
                        "Start stitching at the {}, where the new line leaves the old one, and sew towards the {datum}.",
                        garment.top_of(self.facts.seam)
                    ),
                }
            }
            End::CarriesOn { into } => format!(
                "The line turns the corner as a curve into the {}: chalk both with {} at the corner and sew them in one pass.",
                ChangeKey::Seam(into).name(garment),
                edges_words(
                    line.chalked(Station(self.facts.end()), tape).unwrap_or_default(),
                    self.facts.seam.edges(),
                    tape
                )
            ),
            End::RunsOff {} | End::StraightThrough { .. } => {
                let end = self.end_of_line(line, EndOf::Upper, garment, tape);
                format!("The line {end}: start there and sew towards the {datum}.")
            }
        }));
        steps.extend(self.by_side(|line| match line.ends.lower {
            End::MeetsOldStitching { station } => {
                let meets = tape.round(station.length);
                match meets > Length::ZERO {
                    true => format!(
                        "It meets the old line at {}: go on along that for {} more.",
                        tape.show(meets),
                        tape.show(START_ON_OLD_LINE.on(tape).min(meets))
                    ),
                    false => format!("It meets the old line at the {datum}."),
                }
            }
            End::RunsOff {} | End::CarriesOn { .. } | End::StraightThrough { .. } => {
                format!("At the other end it {}.", self.end_of_line(line, EndOf::Lower, garment, tape))
            }
        }));
        steps
    }

    /// What happens to the cloth outside the new stitching.
    fn step_to_trim(&self, of: &CardOf<'_>, rows: &[Row], way: Way) -> String {
        let is_bulky = of.checks.iter().any(|check| {
            let key = check.key;
            key.rule == Rule::Kept
                && key.partner.is_none()
                && key.change == Some(ChangeKey::Seam(self.key()))
                && check.outcome != Outcome::Passes
        });
        match (self.change.trim_to, way) {
            (Some(trim), _) => format!(
                "Trim along the cut line, {} outside the new stitching: {}.",
                of.tape.show(trim.length),
                match cuts(rows) {
                    [true, true] => {
                        "without a − it lies in the panel, inside the old stitching; with a − out in the allowance"
                    }
                    [true, false] => "it lies in the panel, inside the old stitching",
                    [false, true] => "its − lies out in the allowance, outside the old stitching",
                    [false, false] => "it lies along the old stitching",
                }
            ),
            (None, Way::In | Way::Both) if is_bulky => {
                "What stays inside is bulky: keep it to let it out again, or set a width to trim it to."
                    .into()
            }
            (None, Way::In | Way::Both) => "Keep all of the allowance inside: it lets out again.".into(),
            (None, Way::Out) => "Keep all of the allowance that is left.".into(),
        }
    }

    /// A centre-back waist goes through the band; how depends on how that is made.
    fn through_the_band(&self, of: &CardOf<'_>) -> [Option<&'static str>; 2] {
        let garment = of.subject.garment;
        if !self.goes_through_the_waist(garment) || !garment.has_band() {
            return [None, None];
        }
        let band = match garment.found.band {
            Some(Band::CentreBackSeam) => "Sew the band’s own seam in one pass with this one.",
            Some(Band::OnePiece) => {
                "Cut the band at the middle. Sew the short level seams first, then the upright one in one pass, allowances open."
            }
            Some(Band::Separate) => "Cut and rejoin the inner band there, or fold it.",
            Some(Band::Elastic) => "Draw the elastic back before the band is cut.",
            None => "Look how the band is made before it is opened: the look-over asks.",
        };
        [Some(band), Some("Close the band by stitching in the ditch.")]
    }
}

/// Whether the cut line lies inside the old stitching somewhere, and whether outside.
fn cuts(rows: &[Row]) -> [bool; 2] {
    let cuts = || rows.iter().flat_map(Row::sides).filter_map(|side| side.cut).flatten();
    [cuts().any(|cut| cut > Length::ZERO), cuts().any(Length::is_negative)]
}
