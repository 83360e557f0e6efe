//! A pair of darts: new, deepened or let out.

mod card;
mod drawing;
mod fold;
mod input;
mod judge;
mod merge;
mod rows;
mod shown;
mod tasks;
mod told;

pub use fold::AlteredDart;
pub(crate) use fold::draw;
pub use input::DartChange;
pub(crate) use judge::Found;

pub use shown::Shown;

use super::{ChangeKey, Drawn, Term};
use crate::fitting::{Edges, GarmentSide};
use crate::garment::{Garment, Round};
use crate::length::{Length, PerEdge, Tape};
use crate::place::Level;

impl Drawn for AlteredDart<'_> {
    fn is_altered(&self) -> bool {
        self.is_moved() || self.sides.pins.iter().any(|pins| !pins.is_empty())
    }

    /// Each takes twice its fold depth from what goes round the whole; across a leg or sleeve it takes nothing.
    fn takes(&self, garment: &Garment, level: Level, up: Length, _: &[GarmentSide], tape: Tape) -> Vec<Term> {
        let height = garment.level(level).filter(|_| garment.round(level) == Round::Whole);
        let Some(height) = height.map(|l| l.station.length + up) else { return Vec::new() };
        Term::of_sides(ChangeKey::Dart(self.key()), &GarmentSide::BOTH, |side| {
            let depth = PerEdge(self.chalked_more_at(side, height, tape).unwrap_or_default());
            Edges { front: depth, back: depth }
        })
    }

    fn sides_agree(&self) -> bool {
        self.new[0] == self.new[1]
    }
}
