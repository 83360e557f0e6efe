//! A pair of darts in figures and words: like a seam whose edges are the two sides of its fold.

use super::{AlteredDart, DartChange};
use crate::change::{ChangeKey, Drawn, Input};
use crate::fitting::{Edges, FrontShare};
use crate::judge::Subject;
use crate::length::{Length, PerEdge, Tape};
use crate::shown::{LineAtPin, PinResult, Show, SidesResult, SolvedLine, ways_to_measure};

/// What is shown of it.
pub type Shown = SolvedLine;

impl Show for AlteredDart<'_> {
    type Shown = SolvedLine;

    fn show(&self, subject: &Subject<'_>, tape: Tape) -> SolvedLine {
        let (datum, names) = DartChange::reads_from(self.key());
        let other_end = self.other_end();
        let pins = self.change.readings.iter().map(|reading| {
            let both = |added: Length| Edges { front: PerEdge(added), back: PerEdge(added) };
            let line = LineAtPin {
                share: FrontShare::default(),
                names,
                keeps_percent: 100,
                takes: both(self.added(reading.side, reading.at())),
                chalked: Some(both(self.chalked_more(reading.side, reading.at(), tape))),
                tolerance: Length::ZERO,
            };
            PinResult::of(reading, &line, subject, tape)
        });
        SolvedLine {
            edges: names.map(Into::into),
            ways: ways_to_measure(ChangeKey::Dart(self.key())),
            datum: datum.into(),
            top: other_end.into(),
            length: tape.figure(self.length),
            allowance: tape.figure(Length::ZERO),
            sides: SidesResult::of(&self.sides, ChangeKey::Dart(self.key()), subject, tape),
            ends: [
                "runs out to nothing at its point".into(),
                format!("as deep as the last pin at its {other_end}"),
            ],
            lower_is_assumed: false,
            upper_is_assumed: false,
            lower_station: None,
            upper_station: None,
            tolerance: tape.figure(Length::ZERO),
            moves: None,
            keeps_percent: 100,
            goes_on_into: None,
            place: self.place_words(tape).map(|place| match self.place_is_assumed {
                true => format!("assumed: {place}"),
                false => place,
            }),
            is_new: self.facts.is_none(),
            lengths: Vec::new(),
            pins: pins.collect(),
            is_altered: self.is_altered(),
            has_sides: true,
            sides_agree: self.sides_agree(),
            edges_equal: true,
            strip: self.strip(subject.garment, subject.put_on),
        }
    }
}

impl AlteredDart<'_> {
    /// What its end away from its datum is.
    pub(super) const fn other_end(&self) -> &'static str {
        if self.key().has_two_points() { "lower point" } else { "other end" }
    }

    /// Where it lies, in words; nothing for a dart that does not run up and down.
    pub(super) fn place_words(&self, tape: Tape) -> Option<String> {
        let (point, base) = (self.point?, self.base?);
        let from = self
            .change
            .from_side_seam
            .map_or(String::new(), |m| format!(", {} from the side seam", tape.show(m.length)));
        Some(match self.key().has_two_points() {
            true => format!("from {} down to {} above the hem{from}", tape.bare(point), tape.show(base)),
            false if base == Length::ZERO => format!("from the hem up to {}{from}", tape.show(point)),
            false => format!(
                "its point {} above the hem, its other end {}{from}",
                tape.bare(point),
                tape.show(base)
            ),
        })
    }
}
