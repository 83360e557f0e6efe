//! The card of an armhole and its sleeve: the armhole along its edges, the cap across its width.

use super::flat::{beside, cap};
use super::sum::{AlteredArmhole, ArmholeSums, at_a_mark};
use super::told::{armhole_words, ease_words, title, where_it_goes};
use crate::card::{Block, CardOf, Cell, Column, Emphasis, Hand, HasCard, Table, TableRow};
use crate::change::hem::Cutting;
use crate::change::{ChangeKey, Drawn};
use crate::length::{Length, Measure, Unit};
use crate::place::Level;
use crate::told::Teller;
use crate::work::{SleeveSet, Step};
use kurbo::{ParamCurve, PathSeg};

/// Stations of the shoulder seam are known apart from those of the armhole by so much.
const BEYOND: Length = Length::from_mm(10_000);

impl HasCard for AlteredArmhole<'_> {
    /// After the seams of the body, before the hems.
    const TURN: u8 = 3;

    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)> {
        if !self.is_altered() {
            return None;
        }
        let (tape, to) = (of.tape, Teller::of(of.subject.garment, of.tape));
        let (sums, key) = (self.sums(tape), ChangeKey::Armhole(self.key()));
        let mut blocks: Vec<Block> = self.card_drawings(tape).into_iter().map(Block::Drawing).collect();
        let [now, then] = [0, 1].map(|n| armhole_words(&sums, n, &to));
        let ease = self.has_sleeve.then(|| format!(" {}.", title(&ease_words(&sums, 1, &to))));
        blocks.push(Block::Text(format!("Armhole: {then}, now {now}.{}", ease.unwrap_or_default())));
        let unit = tape.unit_word();
        blocks.push(Block::Note(format!(
            "Figures in {unit}, from the seam under the arm along the old stitching, and sideways from it into the panel; those with a − out into the allowance."
        )));
        blocks.extend(self.shoulder_table(of));
        blocks.push(Block::Table(self.armhole_table(of)));
        if let Some(table) = cap_table(of, &sums) {
            blocks.push(Block::Heading("The cap".into()));
            blocks.push(Block::Note(format!(
                "Figures in {unit}: from the middle of the sleeve to either side, and up from the line across the underarms."
            )));
            blocks.push(Block::Table(table));
        }
        blocks.push(self.hand(of, &sums).block(key, Cutting::default()));
        blocks.extend(of.cautions(key, false));
        blocks.extend(of.afterwards());
        let name = key.name(of.subject.garment);
        Some((title(&name), blocks))
    }
}

impl AlteredArmhole<'_> {
    /// Along the old stitching from the seam under the arm: how far the new line lies beside it on the front and on the back edge.
    fn armhole_table(&self, of: &CardOf<'_>) -> Table {
        let (tape, unit) = (of.tape, of.tape.unit_name());
        let column = |heading: String, emphasis, group| Column { heading, emphasis, group };
        let columns = vec![
            column(format!("from the underarm, {unit}"), Emphasis::Station, 0),
            column(format!("front edge, {unit}"), Emphasis::Chalked, 1),
            column(format!("back edge, {unit}"), Emphasis::Chalked, 1),
        ];
        let edges =
            [(self.old.front_edge(), self.new.front_edge()), (self.old.back_edge(), self.new.back_edge())];
        let longest = self.old.lengths().into_iter().fold(0.0, f64::max);
        let step = tape.chalk_step();
        let stations = (0..).map(|n| step * n).take_while(|station| station.cm() < longest);
        let row = |station: Length| {
            let at = vec![Measure { length: station, unit: Unit::Cm }];
            let cell = |(old, new)| {
                let off = beside(old, new, station.cm());
                Cell::of(off.map(|off| tape.figure(tape.round(Length::from_cm(off)))), None)
            };
            let mut cells = vec![Cell::of(Some(tape.figure(station)), None)];
            cells.extend(edges.iter().map(|(old, new)| cell((old, new))));
            let note = if station == Length::ZERO { "seam under the arm" } else { "" };
            TableRow { is_chalked: of.is_chalked(&at), at, cells, note: note.into() }
        };
        Table { columns, rows: stations.map(row).collect() }
    }

    /// Along the shoulder seam from the neck: what comes off its front edge and off its back edge. Nothing where it stays.
    fn shoulder_table(&self, of: &CardOf<'_>) -> Vec<Block> {
        let (tape, unit) = (of.tape, of.tape.unit_name());
        let ends = self.off_shoulder(tape);
        let Some(length) = self.shoulder(of.subject).filter(|_| self.moves_shoulder(tape)) else {
            return Vec::new();
        };
        let column = |heading: String, emphasis, group| Column { heading, emphasis, group };
        let columns = vec![
            column(format!("from the neck, {unit}"), Emphasis::Station, 0),
            column(format!("front edge, {unit}"), Emphasis::Chalked, 1),
            column(format!("back edge, {unit}"), Emphasis::Chalked, 1),
        ];
        let step = tape.chalk_step();
        let mut stations: Vec<Length> = (0..).map(|n| step * n).take_while(|at| *at < length).collect();
        stations.push(length);
        let row = |station: Length| {
            // Beyond every armhole: so that no row of one is ticked with one of the other.
            let at = vec![Measure { length: station + BEYOND, unit: Unit::Cm }];
            let share = station.cm() / length.cm();
            let off = |edge: usize| {
                let [neck, tip] = ends.map(|end| end[edge].cm());
                Cell::of(Some(tape.figure(tape.round(Length::from_cm(neck + (tip - neck) * share)))), None)
            };
            let cells = vec![Cell::of(Some(tape.figure(station)), None), off(0), off(1)];
            let note = match station {
                s if s == Length::ZERO => "neck",
                s if s == length => "tip",
                _ => "",
            };
            TableRow { is_chalked: of.is_chalked(&at), at, cells, note: note.into() }
        };
        vec![
            Block::Heading("The shoulder seam".into()),
            Block::Table(Table { columns, rows: stations.into_iter().map(row).collect() }),
            Block::Heading("The armhole".into()),
        ]
    }

    /// What the hand does at the shoulder, before the sleeve.
    fn at_the_shoulder(&self, hand: &mut Hand, tape: crate::length::Tape, to: &Teller<'_>) {
        let change = self.change;
        if self.moves_shoulder(tape) {
            hand.say(Step::Unpick, "Unpick the shoulder seam from the armhole to the neck, and what is sewn to the neck over it.");
            hand.say(Step::Baste, "Baste the shoulder seam first.");
            hand.say(Step::Stitch, "Sew the shoulder seam first, then what was sewn to the neck over it.");
            hand.say(Step::Press, "Press the shoulder seam as sewn, then as it was.");
            hand.say(
                Step::Chalk,
                "On the shoulder seam measure each edge sideways from the old stitching and join the dots with a ruler; the facing is changed by the same.",
            );
        }
        let pads = at_a_mark(change.pads_out, tape);
        if pads != Length::ZERO {
            let way = if pads.is_negative() { "Pin the new pads in" } else { "Take the pads out" };
            hand.say(Step::Unpick, format!("{way}: they are {} thick.", to.show(pads.abs())));
        }
        if self.down(tape) != Length::ZERO {
            let way = if self.down(tape).is_negative() { "up" } else { "down" };
            hand.say(
                Step::Chalk,
                format!(
                    "The whole armhole goes {way} with the shoulder, by {}: so it keeps its size.",
                    to.show(self.down(tape).abs())
                ),
            );
        }
        let shorten = at_a_mark(change.shorten, tape);
        if shorten != Length::ZERO && self.has_sleeve {
            let way = if shorten.is_negative() { "lower" } else { "higher" };
            hand.say(
                Step::TryBasted,
                format!("The sleeves end {} {way} than now: look at their hems.", to.show(shorten.abs())),
            );
        }
        let forward = at_a_mark(change.forward, tape);
        if forward != Length::ZERO && self.has_sleeve {
            let way = if forward.is_negative() { "back" } else { "forward" };
            hand.say(
                Step::Baste,
                format!(
                    "The notch of the cap goes {way} with the shoulder seam, by {}.",
                    to.show(forward.abs())
                ),
            );
        }
    }

    /// What the hand does at the seam of the sleeve, where that gets wider or narrower.
    fn at_the_sleeve(&self, of: &CardOf<'_>, hand: &mut Hand, to: &Teller<'_>) {
        let (tape, garment) = (of.tape, of.subject.garment);
        if !self.moves_sleeve(tape) {
            return;
        }
        let at = |level: Level, name: &str| {
            let station = garment.level(level)?.station.length;
            let off = self.off_sleeve(garment, station, tape);
            let way = if off.is_negative() { "out" } else { "in" };
            (off != Length::ZERO).then(|| format!("{} {way} per edge at the {name}", to.show(off.abs())))
        };
        let places: Vec<String> =
            [at(Level::UpperArm, "upper arm"), at(Level::Elbow, "elbow")].into_iter().flatten().collect();
        if places.is_empty() {
            return;
        }
        let bends = garment.level(Level::Elbow).is_some() && self.change.widen_elbow.is_none();
        let end = if bends { "elbow" } else { "lower edge" };
        hand.say(
            Step::Unpick,
            "Unpick the seam of the sleeve from the underarm down as far as its line moves.",
        );
        hand.say(
            Step::Chalk,
            format!("On the seam of the sleeve measure {}; join with a ruler, and run out into the old line at the {end}.", places.join(", ")),
        );
        hand.say(Step::Baste, "Baste the seam of the sleeve.");
        hand.say(Step::Stitch, "Sew the seam of the sleeve.");
        hand.say(Step::Press, "Press the seam of the sleeve.");
    }

    fn hand(&self, of: &CardOf<'_>, sums: &ArmholeSums) -> Hand {
        let (tape, to) = (of.tape, Teller::of(of.subject.garment, of.tape));
        let mut hand = Hand::default();
        if let Some(lining) = of.lining_to_open() {
            hand.say(Step::OpenUp, format!("Open first: {lining}."));
            hand.say(Step::PutBack, "Set the lining in again, and close it.");
        }
        hand.say(
            Step::Unpick,
            match self.has_sleeve {
                true => "Mark the notch of the cap and the shoulder seam, then unpick the sleeve.",
                false => "Unpick the facing or binding of the armhole, and keep it.",
            },
        );
        self.at_the_shoulder(&mut hand, tape, &to);
        hand.say_all(
            Step::Chalk,
            [
                "Press both edges flat. Lay the tape along the old stitching of the armhole with 0 at the seam under the arm, and measure sideways from it.",
                "Join the dots with a curve: level under the arm, without a corner.",
            ],
        );
        if !self.has_sleeve {
            let wide = of.tape.show(super::facing::WIDE.on(of.tape));
            hand.say(
                Step::Chalk,
                format!("Change the facing or binding by the same: a new facing {wide} wide is among the papers at true size."),
            );
            hand.say(Step::Baste, "Baste the facing or binding on.");
            hand.say(Step::TryBasted, "Try it on. Lift the arm. Nothing is cut before.");
            hand.say(Step::Stitch, "Sew it on, and clip it only as far as the stitching.");
            hand.say(Step::TakeOut, "Take out the basting.");
            hand.say(Step::Press, "Press the seam as sewn, then the facing inside.");
            return hand;
        }
        hand.say(
            Step::Chalk,
            "Draw a line across the sleeve from underarm to underarm, and measure the cap up from it.",
        );
        self.at_the_sleeve(of, &mut hand, &to);
        if let Some(pitch) = self.change.pitch.filter(|m| m.length != Length::ZERO) {
            let by = to.show(tape.round(pitch.length.abs()));
            let way = if pitch.length.is_negative() { "behind" } else { "in front of" };
            hand.say(
                Step::Chalk,
                format!(
                    "Turn the sleeve: its notch comes {by} {way} the shoulder seam, and its own seam as far the other way under the arm."
                ),
            );
        }
        hand.say(Step::Baste, where_it_goes(sums, self.cap_ease.most.on(tape), &to));
        let baste = match of.subject.schools.sleeve {
            Some(SleeveSet::Flat) => {
                "Baste the cap to the open armhole, then the side and the sleeve in one pass."
            }
            Some(SleeveSet::Round) | None => {
                "Baste the sleeve in round: underarm on underarm, notch on shoulder seam or where it was turned to."
            }
        };
        hand.say(Step::Baste, baste);
        hand.say(
            Step::TryBasted,
            "Try it on. Lift the arm, and look at the cap from the side. Nothing is cut before.",
        );
        hand.say(Step::Stitch, "Sew with the sleeve on top, so that its ease lies where it was basted.");
        hand.say(Step::TakeOut, "Take out the basting.");
        hand.say(
            Step::Press,
            "Press the seam as sewn; then over a ham, into the sleeve, and never across the cap.",
        );
        hand
    }
}

/// Across the sleeve from its middle: how high the cap is, now and then. Nothing where there is none.
fn cap_table(of: &CardOf<'_>, sums: &ArmholeSums) -> Option<Table> {
    let (tape, unit) = (of.tape, of.tape.unit_name());
    let heights = [sums.high[0]?, sums.high[1]?];
    let column = |heading: String, emphasis| Column { heading, emphasis, group: 0 };
    let columns = vec![
        column(format!("from the middle, {unit}"), Emphasis::Station),
        column(format!("height, {unit}"), Emphasis::Chalked),
        column(format!("height now, {unit}"), Emphasis::Sum),
    ];
    let half = |n: usize| sums.wide[n].fraction(1, 2);
    let height = |n: usize, out: Length| {
        (out <= half(n)).then(|| tape.figure(tape.round(Length::from_cm(height_at(sums, heights, n, out)))))
    };
    let step = tape.chalk_step();
    let mut stations: Vec<Length> = (0..).map(|i| step * i).take_while(|out| *out < half(1)).collect();
    // The cap ends where the sleeve does: at a mark, on the cloth.
    stations.push(-(-half(1)).up_to(tape.mark()));
    stations.dedup();
    let row = |out: Length| {
        // From the middle outwards: written the other way round, so that no station of the armhole is the same.
        let at = vec![Measure { length: -out - tape.mark(), unit: Unit::Cm }];
        let cells = vec![
            Cell::of(Some(tape.figure(out)), None),
            Cell::of(height(1, out), None),
            Cell::of(height(0, out), None),
        ];
        let note = if out == Length::ZERO { "top of the cap" } else { "" };
        TableRow { is_chalked: of.is_chalked(&at), at, cells, note: note.into() }
    };
    Some(Table { columns, rows: stations.into_iter().map(row).collect() })
}

/// How high a cap is so far from its middle.
fn height_at(sums: &ArmholeSums, heights: [Length; 2], n: usize, out: Length) -> f64 {
    let wide = sums.wide[n].cm();
    let [_, falling] = cap(wide, heights[n].cm());
    let x = wide / 2.0 + out.cm();
    let upright = kurbo::Line::new((x, -1.0), (x, heights[n].cm() + 1.0));
    let met = PathSeg::Cubic(falling).intersect_line(upright);
    met.first().map_or(0.0, |met| falling.eval(met.segment_t).y.max(0.0))
}
