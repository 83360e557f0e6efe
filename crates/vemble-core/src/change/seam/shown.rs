//! An altered seam in figures and words.

use super::{AlteredSeam, StitchingLine, edge_lengths};
use crate::change::{ChangeKey, Drawn};
use crate::fitting::{End, EndOf, GarmentSide, Reading};
use crate::garment::{Garment, Seam};
use crate::judge::Subject;
use crate::length::{Figure, Length, Tape};
use crate::shown::{LineAtPin, NamedSeam, PinResult, Show, SidesResult, SolvedLine, ways_to_measure};

/// What is shown of it.
pub type Shown = SolvedLine;

impl Show for AlteredSeam<'_> {
    type Shown = SolvedLine;

    fn show(&self, subject: &Subject<'_>, tape: Tape) -> SolvedLine {
        let seam = self.facts.seam;
        let is_altered = self.is_altered();
        let tolerance = self.change.tolerance.map_or(self.tolerance, |t| t.length);
        SolvedLine {
            datum: seam.datum().into(),
            edges: seam.edges().map(Into::into),
            ways: ways_to_measure(ChangeKey::Seam(seam)),
            top: subject.garment.top_of(seam).into(),
            length: tape.figure(self.facts.end()),
            allowance: tape.figure(self.facts.least_allowance().length),
            sides: SidesResult::of(&self.sides, ChangeKey::Seam(seam), subject, tape),
            ends: [EndOf::Lower, EndOf::Upper].map(|end| self.end_words(end, subject.garment, tape)),
            lower_is_assumed: is_altered && self.is_assumed(EndOf::Lower),
            upper_is_assumed: is_altered && self.is_assumed(EndOf::Upper),
            lower_station: self.end_station(EndOf::Lower, tape),
            upper_station: self.end_station(EndOf::Upper, tape),
            tolerance: tape.figure(tolerance),
            moves: self.moves(tape),
            keeps_percent: self.keeps_percent,
            goes_on_into: subject
                .garment
                .goes_on_into(seam)
                .filter(|into| subject.garment.seam(*into).is_some())
                .map(|seam| NamedSeam { seam, name: ChangeKey::Seam(seam).name(subject.garment) }),
            place: None,
            is_new: false,
            lengths: self.length_words(subject.garment, tape),
            pins: self.change.readings.iter().map(|r| self.pin(r, subject, tape)).collect(),
            is_altered,
            has_sides: seam.has_sides(),
            sides_agree: self.sides_agree(),
            edges_equal: self.lines.iter().all(StitchingLine::has_equal_edges),
            strip: self.strip(subject.garment, subject.put_on, tape),
        }
    }
}

impl AlteredSeam<'_> {
    /// What is said of each line, with its side where the two differ in that.
    pub(super) fn by_side(&self, say: impl Fn(&StitchingLine) -> String) -> Vec<String> {
        let mut lines: Vec<_> = self.each_line().collect();
        if lines.is_empty() {
            lines.push((None, &self.lines[0]));
        }
        let said: Vec<String> = lines.iter().map(|(_, line)| say(line)).collect();
        if said.iter().all(|words| *words == said[0]) {
            return said.into_iter().take(1).collect();
        }
        let of_side = |(words, (side, _)): (&String, &(Option<GarmentSide>, _))| {
            format!("{}: {words}", side.map_or("both", GarmentSide::name))
        };
        said.iter().zip(&lines).map(of_side).collect()
    }

    /// One end of one of its lines was not given.
    pub(super) fn is_assumed(&self, end: EndOf) -> bool {
        self.each_line().any(|(_, line)| line.ends.is_assumed(end))
    }

    /// Where one end of the lines is, in words.
    pub(super) fn end_words(&self, end: EndOf, garment: &Garment, tape: Tape) -> String {
        self.by_side(|line| self.end_of_line(line, end, garment, tape)).join("; ")
    }

    /// Where one end of one line is, in words.
    pub(super) fn end_of_line(
        &self,
        line: &StitchingLine,
        end: EndOf,
        garment: &Garment,
        tape: Tape,
    ) -> String {
        let edge = match end {
            EndOf::Lower => self.facts.seam.datum(),
            EndOf::Upper => garment.top_of(self.facts.seam),
        };
        match line.ends.of(end) {
            End::MeetsOldStitching { station } => {
                format!("meets the old stitching at {}", tape.show(station.length))
            }
            End::RunsOff {} => format!("runs off at the {edge}"),
            End::CarriesOn { into } => {
                format!("carries on into the {} in one pass", ChangeKey::Seam(into).name(garment))
            }
            End::StraightThrough { from } => {
                format!("goes straight through from {} to the {edge}", tape.show(from.length))
            }
        }
    }

    /// Where one end meets the old stitching or goes straight; nothing where nothing can be assumed without a pin.
    pub(super) fn end_station(&self, end: EndOf, tape: Tape) -> Option<Figure> {
        let line = self.each_line().next().map_or(&self.lines[0], |(_, line)| line);
        match line.ends.of(end) {
            End::MeetsOldStitching { station } | End::StraightThrough { from: station } => {
                (self.is_altered() || !line.ends.is_assumed(end)).then(|| tape.figure(station.length))
            }
            End::RunsOff {} | End::CarriesOn { .. } => None,
        }
    }

    /// How far the seam moves around the body where it moves most, and which way: towards the edge that more is taken from.
    fn moves(&self, tape: Tape) -> Option<String> {
        let of_line = |line: &StitchingLine| -> Vec<Length> {
            let pins = line.pins.iter().map(|pin| pin.edges.chalked(tape));
            pins.map(|edges| (edges.front.0 - edges.back.0).fraction(1, 2)).collect()
        };
        let most = self.lines.iter().flat_map(of_line).max_by_key(|m| m.abs())?;
        let [one, other] = self.facts.seam.edges();
        let to = if most.is_negative() { other } else { one };
        (most != Length::ZERO)
            .then(|| format!("the seam moves up to {} towards the {to}", tape.show(most.abs())))
    }

    fn pin(&self, reading: &Reading, subject: &Subject<'_>, tape: Tape) -> PinResult {
        let line = LineAtPin {
            share: self.change.front_share.unwrap_or_default(),
            names: Seam::edges(self.facts.seam),
            keeps_percent: self.keeps_percent,
            takes: self.line(reading.side).at(reading.at()),
            chalked: self.line(reading.side).chalked(reading.at(), tape),
            tolerance: self.tolerance,
        };
        PinResult::of(reading, &line, subject, tape)
    }

    /// How long both edges are afterwards; one entry where both sides are the same.
    fn length_words(&self, garment: &Garment, tape: Tape) -> Vec<String> {
        let [one, other] = self.facts.seam.edges();
        let of = |side: &GarmentSide| {
            let l = edge_lengths(garment, self, *side)?;
            let whose = if self.sides_agree() { String::new() } else { format!("{}: ", side.name()) };
            let now = tape.bare(l.old);
            Some(match l.front == l.back {
                true => format!(
                    "{whose}the altered stretch is {} long on each edge, {now} before",
                    tape.show(l.front)
                ),
                false => format!(
                    "{whose}the altered stretch is {} long on the {one} edge and {} on the {other} edge, {now} before",
                    tape.bare(l.front),
                    tape.show(l.back)
                ),
            })
        };
        // Either edge of a panel is sewn to one that stays as long as it was.
        if self.change.set_in { Vec::new() } else { self.told_sides().iter().filter_map(of).collect() }
    }
}
