//! A seam with pins: from readings to new stitching lines on both edges and both sides.

mod allowance;
mod card;
mod drawing;
mod ends;
mod fair;
mod handed;
mod in_the_way;
mod input;
mod judge;
mod length;
mod line;
mod merge;
mod one_pass;
mod panel;
mod panel_card;
mod partners;
mod rows;
mod run_out;
mod share;
mod shown;
mod tasks;
mod told;

#[cfg(test)]
mod tests;

pub(crate) use allowance::gives_at;
pub use ends::Ends;
pub(crate) use fair::{fair_through, through, through_from_a_straight};
pub use input::{SeamChange, SeamShare};
pub(crate) use judge::Found;
pub use length::{EDGES_MAY_DIFFER, EdgeLengths, edge_lengths};
pub(crate) use line::draw;
pub use line::{AlteredSeam, StitchingLine, TOLERANCE, alter};
pub(crate) use partners::LiningThere;

pub use shown::Shown;

use super::{ChangeKey, Drawn, Term};
use crate::fitting::{Edges, GarmentSide};
use crate::garment::{Garment, Seam};
use crate::length::{Length, PerEdge, Station, Tape};
use crate::place::Level;

/// So far beyond the end of a seam a level still has what the seam takes at that end: 5 cm (teaching value: an armhole is cut so low under a
/// bust that was measured over its fullest part).
const JUST_BEYOND: Length = Length::from_mm(50);

impl AlteredSeam<'_> {
    /// Which seam.
    pub const fn key(&self) -> Seam {
        self.facts.seam
    }

    /// Both sides, or one where they are the same.
    pub(crate) fn told_sides(&self) -> &'static [GarmentSide] {
        if self.sides_agree() { &GarmentSide::BOTH[..1] } else { &GarmentSide::BOTH }
    }

    /// What is chalked on one side at a level of the body that the seam crosses, or so far `up` from it, or that it runs up to: just beyond its end it takes what it takes
    /// there. Nothing where the seam does not run.
    pub(crate) fn chalked_at(
        &self,
        garment: &Garment,
        level: Level,
        up: Length,
        side: GarmentSide,
        tape: Tape,
    ) -> Option<Edges> {
        // A shoulder seam begins at the neckline, which loses there what it does.
        let at_neck = self.facts.seam == Seam::ShoulderSeam && level == Level::Neck;
        let station = if at_neck { Length::ZERO } else { garment.station_on(self.facts.seam, level)? };
        let (station, end) = (station + up, self.facts.end());
        // What is let down below the present edge goes on as that does.
        let station = if up.is_negative() { station.max(Length::ZERO) } else { station };
        let at = if station > end && station - end <= JUST_BEYOND { end } else { station };
        Some(self.line(side).chalked(Station(at), tape).unwrap_or_default())
    }

    /// What a neckline goes round more by where its seam is sewn lower. Nothing where its edge goes on below what was measured.
    fn lengthens_neck(&self, garment: &Garment, tape: Tape) -> Option<Length> {
        if self.facts.seam != Seam::NeckSeam || !garment.is_neck_its_edge() {
            return None;
        }
        let (line, end) = (self.line(GarmentSide::Left), self.facts.end().cm());
        let lower = |share: f64| line.at(Station(Length::from_cm(end * share))).back.0.cm();
        Some(tape.round(Length::from_cm(garment.neck_grows(lower)) * 2))
    }

    /// Each side that changes something, with its line; one for both where they agree, without its name.
    pub(crate) fn each_line(&self) -> impl Iterator<Item = (Option<GarmentSide>, &StitchingLine)> {
        let agree = self.sides_agree();
        let sides = self.told_sides().iter();
        sides
            .map(move |&side| ((!agree).then_some(side), self.line(side)))
            .filter(|(_, line)| line.span().is_some())
    }
}

impl Drawn for AlteredSeam<'_> {
    fn is_altered(&self) -> bool {
        self.span().is_some()
    }

    fn takes(
        &self,
        garment: &Garment,
        level: Level,
        up: Length,
        sides: &[GarmentSide],
        tape: Tape,
    ) -> Vec<Term> {
        if self.facts.seam == Seam::NeckSeam && level == Level::Neck {
            let edges = |grows| Edges { front: PerEdge(Length::ZERO - grows), back: PerEdge::default() };
            let term = |grows| Term {
                change: ChangeKey::Seam(self.facts.seam),
                side: None,
                times: 1,
                edges: edges(grows),
            };
            return self.lengthens_neck(garment, tape).map(term).into_iter().collect();
        }
        let sides = if self.facts.seam.is_single() { &GarmentSide::BOTH[..1] } else { sides };
        let takes = |side: &GarmentSide| self.chalked_at(garment, level, up, *side, tape);
        if sides.first().and_then(takes).is_none() {
            return Vec::new();
        }
        Term::of_sides(ChangeKey::Seam(self.facts.seam), sides, |side| takes(&side).unwrap_or_default())
    }

    fn sides_agree(&self) -> bool {
        self.lines[0] == self.lines[1]
    }
}
