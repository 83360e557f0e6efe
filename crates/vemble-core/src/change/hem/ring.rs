//! Around a hem: what is taken off at every place of it, from marks or as it was typed.

use crate::change::Curve;
use crate::fitting::{Around, GarmentSide};
use crate::length::{Length, Tape};

/// Where a place lies around a hem, in parts of the whole: from the front over its left, or over the outside of a leg or sleeve, to the
/// back, and on.
pub(super) const fn part(around: Around) -> f64 {
    match around {
        Around::Front => 0.0,
        Around::SideFront => 0.125,
        Around::Side => 0.25,
        Around::SideBack => 0.375,
        Around::Back => 0.5,
        Around::Inside => 0.75,
    }
}

/// What is taken off at a place around.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Place {
    /// Where.
    pub around: Around,
    /// On which side of the garment, of a lower edge that goes round both; nothing in its middle and on a leg or sleeve.
    pub side: Option<GarmentSide>,
    /// How far around.
    pub part: f64,
    /// What is taken off, negative where it is let down.
    pub off: Length,
}

impl Place {
    pub(super) const fn of(around: Around, side: Option<GarmentSide>, off: Length) -> Self {
        let part = match (part(around), side) {
            (part, Some(GarmentSide::Right)) if part > 0.0 && part < 0.5 => 1.0 - part,
            (part, _) => part,
        };
        Self { around, side, part, off }
    }
}

/// One closed edge: the lower edge of a garment, or that of one leg or sleeve.
#[derive(Clone, Debug, PartialEq)]
pub struct Ring {
    /// Which leg or sleeve.
    pub side: Option<GarmentSide>,
    /// Its places, in order around.
    pub places: Vec<Place>,
    /// The same all round.
    pub level: Option<Length>,
    /// What is taken off, by parts of the way around; empty where it is level.
    curve: Curve,
}

impl Ring {
    /// Level: the same everywhere.
    pub(super) fn level(side: Option<GarmentSide>, places: Vec<Place>, off: Length) -> Self {
        Self { side, places, level: Some(off), curve: Curve::default() }
    }

    /// Through its marks, without swings, and on over where it begins. Needs one place at least.
    pub(super) fn following(side: Option<GarmentSide>, mut places: Vec<Place>) -> Self {
        places.sort_by(|a, b| a.part.total_cmp(&b.part));
        places.dedup_by(|a, b| a.part == b.part);
        if let [only] = places[..] {
            return Self::level(side, places, only.off);
        }
        let once: Vec<(f64, f64)> = places.iter().map(|p| (p.part, p.off.cm())).collect();
        let turns = [-1.0, 0.0, 1.0].iter().flat_map(|turn| once.iter().map(move |p| (p.0 + turn, p.1)));
        let curve = Curve::without_swings(&turns.collect::<Vec<_>>());
        Self { side, places, level: None, curve }
    }

    /// What is taken off at a part of the way around.
    pub fn at(&self, part: f64) -> Length {
        self.level.unwrap_or_else(|| Length::from_cm(self.curve.at(part.rem_euclid(1.0))))
    }

    /// What is chalked there.
    pub fn chalked(&self, part: f64, tape: Tape) -> Length {
        tape.round(self.at(part))
    }

    /// Least and greatest that is chalked at its places.
    pub fn range(&self, tape: Tape) -> [Length; 2] {
        let level = self.level.into_iter().map(|off| tape.round(off));
        let all: Vec<Length> = match self.level {
            Some(_) => level.collect(),
            None => self.places.iter().map(|p| self.chalked(p.part, tape)).collect(),
        };
        [all.iter().min(), all.iter().max()].map(|end| end.copied().unwrap_or_default())
    }

    /// What is taken off at its sides, on the whole: there the girth is read off.
    pub fn at_the_sides(&self, tape: Tape) -> Length {
        let [one, other] = [0.25, 0.75].map(|part| self.at(part));
        tape.round((one + other).fraction(1, 2))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        /// Nothing between two marks is deeper or shallower than both, it closes smoothly, and what is the same on both sides stays so.
        #[test]
        fn a_hem_follows_its_marks_without_swings(offs in prop::collection::vec(-50_i64..120, 5)) {
            let mirrored = |around, off| {
                let sides: &[Option<GarmentSide>] = match around {
                    Around::Front | Around::Back => &[None],
                    _ => &[Some(GarmentSide::Left), Some(GarmentSide::Right)],
                };
                sides.iter().map(move |side| Place::of(around, *side, off)).collect::<Vec<_>>()
            };
            let around = [Around::Front, Around::SideFront, Around::Side, Around::SideBack, Around::Back];
            let places: Vec<Place> =
                around.iter().zip(&offs).flat_map(|(a, mm)| mirrored(*a, Length::from_mm(*mm))).collect();
            let ring = Ring::following(None, places);
            for pair in ring.places.windows(2) {
                let (low, high) = (pair[0].off.min(pair[1].off).cm(), pair[0].off.max(pair[1].off).cm());
                for n in 0..=8 {
                    let part = pair[0].part + (pair[1].part - pair[0].part) * f64::from(n) / 8.0;
                    let off = ring.at(part).cm();
                    prop_assert!((low - 1e-6..=high + 1e-6).contains(&off), "{off} at {part}");
                    prop_assert!((ring.at(1.0 - part).cm() - off).abs() < 1e-4, "mirrored at {part}");
                }
            }
            prop_assert!((ring.at(0.0) - ring.at(0.999_999)).abs() < Length::from_mm(1));
            let level = Ring::level(None, Vec::new(), Length::from_mm(offs[0]));
            prop_assert_eq!(level.range(Tape::Cm), [Length::from_mm(offs[0]); 2]);
        }
    }
}
