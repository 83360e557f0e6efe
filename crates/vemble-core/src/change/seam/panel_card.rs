//! What the card of a seam says where a panel is set in.

use super::allowance::TRIMMED;
use super::told::panel_words;
use super::{AlteredSeam, StitchingLine};
use crate::card::{CardOf, Hand};
use crate::chalk::Row;
use crate::fitting::{End, Fairing, GarmentSide};
use crate::length::Tape;
use crate::told::Teller;
use crate::work::Step;

impl AlteredSeam<'_> {
    /// What its card says above the figures; nothing where nothing is set in.
    pub(super) fn set_in_words(&self, rows: &[Row], of: &CardOf<'_>) -> Option<String> {
        let (garment, tape, to) = (of.subject.garment, of.tape, Teller::of(of.subject.garment, of.tape));
        let panels = self.panels(garment, rows, tape);
        let cut = panels.iter().map(|(side, panel)| {
            let whose = side.map_or_else(String::new, |side| format!("{}: ", side.name()));
            format!("{whose}{}", panel_words(*panel, &to))
        });
        let cut: Vec<String> = cut.collect();
        let cannot = match self.takes_in(garment, tape) {
            true => "; what has the − cannot be sewn, a panel only lets out",
            false => "",
        };
        (!cut.is_empty()).then(|| {
            format!(
                "Cut {}. Stations in {unit}, from the {} along the panel’s middle line. Figures in {unit}, from that line out to the stitching line{cannot}.",
                cut.join("; "),
                self.facts.seam.datum(),
                unit = tape.unit_word(),
            )
        })
    }

    /// The stretch of the seam that is taken apart for it.
    pub(super) fn stretch_to_open(&self, tape: Tape) -> Vec<String> {
        let stretch = |(side, line): (Option<GarmentSide>, &StitchingLine)| {
            let ((from, to), name) = (line.span()?, self.facts.name());
            let whose = side.map_or_else(String::new, |side| format!("{} ", side.name()));
            let [from, to] = [from, to].map(|at| tape.round(at.0));
            Some(format!("the {whose}{name} from {} to {}", tape.bare(from), tape.show(to)))
        };
        self.each_line().filter_map(stretch).collect()
    }

    /// What the hand does to set it in, after what was `opened`.
    pub(super) fn set_in_by_hand(&self, mut hand: Hand, of: &CardOf<'_>, opened: &[String]) -> Hand {
        let (name, datum, tape) = (self.facts.name(), self.facts.seam.datum(), of.tape);
        let [one, other] = self.facts.seam.edges();
        let ends_in_a_point = self.each_line().any(|(_, line)| {
            [line.ends.lower, line.ends.upper].iter().any(|end| matches!(end, End::MeetsOldStitching { .. }))
        });
        hand.say(
            Step::OpenUp,
            format!(
                "Before the {name} is unpicked chalk its old stitching line on both edges: the panel is sewn to it."
            ),
        );
        hand.say_all(
            Step::Chalk,
            [
                format!("Draw the panel’s middle line along the grain of its own cloth, with 0 at the {datum}, and tick each station."),
                match self.lines.iter().all(StitchingLine::has_equal_edges) {
                    true => "From each tick measure the figure out to either side and make a dot.".to_owned(),
                    false => format!("From each tick measure out and make a dot: towards the {one} edge and towards the {other} edge it has figures of its own."),
                },
                match self.change.fairing {
                    Fairing::Straight => "Join the dots with a ruler, from dot to dot.".into(),
                    Fairing::Smooth | Fairing::EveryPin => "Join the dots with a curve, without corners.".into(),
                },
                format!("Cut the panel out {} outside that line. Of the garment nothing is cut.", tape.show(TRIMMED.on(tape))),
            ],
        );
        hand.say(Step::Baste, format!("Baste either edge of the panel to its old stitching line, stations on stations, beginning at the {datum}."));
        hand.say(Step::TryBasted, "Try it on again before it is sewn.");
        if ends_in_a_point {
            hand.say(
                Step::Stitch,
                "Where it runs out to a point stay that with a few stitches, and sew either edge towards it.",
            );
        } else {
            hand.say(Step::Stitch, "Sew either edge of the panel, both the same way.");
        }
        hand.say(Step::TakeOut, "Take out the basting.");
        hand.say(Step::Finish, "Finish the edges of the panel.");
        hand.say(
            Step::Press,
            format!(
                "Press both seams of the panel as sewn, then away from it. What is inside the {name} stays."
            ),
        );
        if opened.len() > self.stretch_to_open(tape).len() {
            hand.say(Step::PutBack, "Close what else was opened, the last first.");
        }
        hand
    }
}
