//! What is taken out across the trunk, exactly, and at the marks of a tape.

use super::input::{TrunkAt, TrunkChange};
use crate::change::{Curve, Drawn, Input, On, Term, Wrongs};
use crate::fault::Wrong;
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Seam, Width};
use crate::length::{Length, Measure, Tape};
use crate::place::Level;

/// A length of the trunk, drawn. Without a tape.
#[derive(Clone, Debug)]
pub struct AlteredTrunk<'a> {
    /// What was entered.
    pub change: &'a TrunkChange,
    /// How wide it was found at the waist: a quarter of that runs from a middle to a side.
    pub(super) waist: Width,
}

/// What it comes to on a tape, all at marks; negative is put in.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct TrunkSums {
    /// At the centre front.
    pub front: Length,
    /// At either side.
    pub side: Length,
    /// At the centre back.
    pub back: Length,
    /// From a middle to a side.
    pub quarter: Length,
}

impl TrunkSums {
    /// In front, at the sides, behind.
    pub const fn all(self) -> [Length; 3] {
        [self.front, self.side, self.back]
    }

    /// What is taken out so far from the middle, in front or behind, at a mark: level where it meets its mirror image, and nowhere beyond its
    /// two ends (Fritsch and Carlson 1980).
    pub fn at(self, is_front: bool, from_middle: Length, tape: Tape) -> Length {
        let middle = if is_front { self.front } else { self.back };
        tape.round(Length::from_cm(self.curve(is_front).at(from_middle.cm())))
            .clamp(middle.min(self.side), middle.max(self.side))
    }

    /// The same exactly, over the way from a middle to a side in cm.
    pub(crate) fn curve(self, is_front: bool) -> Curve {
        let (own, other) = if is_front { (self.front, self.back) } else { (self.back, self.front) };
        let run = self.quarter.cm();
        let rise = |from: Length, to: Length| (to - from).cm() / run;
        // One line goes round: at the side it is as steep as both halves allow.
        let (one, two) = (rise(own, self.side), rise(self.side, other));
        let steep = if one * two > 0.0 { 2.0 * one * two / (one + two) } else { 0.0 };
        Curve::through(&[(0.0, own.cm(), 0.0), (run, self.side.cm(), steep)])
    }

    /// Between the middle of each quarter: what it comes to on the whole, at a mark.
    pub fn on_the_whole(self, tape: Tape) -> Length {
        tape.round((self.front + self.side * 2 + self.back).fraction(1, 4))
    }
}

impl AlteredTrunk<'_> {
    /// Which.
    pub const fn key(&self) -> TrunkAt {
        self.change.at
    }

    /// What it comes to.
    pub fn sums(&self, tape: Tape) -> TrunkSums {
        let at = |m: Option<Measure>| m.map(|m| tape.round(m.length));
        let side = at(self.change.side).unwrap_or_default();
        TrunkSums {
            front: at(self.change.front).unwrap_or(side),
            side,
            back: at(self.change.back).unwrap_or(side),
            quarter: tape.round(self.waist.on(tape).fraction(1, 4)).max(tape.mark()),
        }
    }

    /// What is taken out at a share of the way from the middle in front to the middle behind, at a mark.
    pub fn takes_at(&self, share: f64, tape: Tape) -> Length {
        let sums = self.sums(tape);
        let is_front = share <= 0.5;
        let from_middle = 2.0 * if is_front { share } else { 1.0 - share };
        sums.at(is_front, Length::from_cm(sums.quarter.cm() * from_middle), tape)
    }

    /// There is a seam across that it is sewn in: the waist seam, or the edge that the band sits on.
    pub fn has_seam(&self, garment: &Garment) -> bool {
        match self.key() {
            TrunkAt::AboveWaist => garment.seam(Seam::WaistSeam).is_some(),
            TrunkAt::Rise => true,
        }
    }
}

impl Drawn for AlteredTrunk<'_> {
    fn is_altered(&self) -> bool {
        let TrunkChange { front, side, back, .. } = self.change;
        [front, side, back].into_iter().flatten().any(|m| m.length != Length::ZERO)
    }

    /// What is taken out across it changes no girth where one is measured.
    fn takes(&self, _: &Garment, _: Level, _: Length, _: &[GarmentSide], _: Tape) -> Vec<Term> {
        Vec::new()
    }

    fn sides_agree(&self) -> bool {
        true
    }
}

/// Every length that was entered.
///
/// # Errors
/// Each with the number of its change and the field that is wrong.
pub(crate) fn draw<'a>(
    on: On<'a>,
    changes: &[(usize, &'a TrunkChange)],
) -> Result<Vec<AlteredTrunk<'a>>, Wrongs> {
    let (mut drawn, mut faults) = (Vec::new(), Vec::new());
    for &(number, change) in changes {
        let level = |level| on.garment.level(level);
        let there = level(Level::Waist).zip(level(change.at.other()));
        let Some((waist, other)) = there.filter(|_| TrunkChange::fits(on.garment, change.at)) else {
            faults.push((number, "at".into(), Wrong::NoLevel { level: Level::Waist }));
            continue;
        };
        // All there is between both levels is no length any more.
        let length = (waist.station.length - other.station.length).abs();
        let fields = [("front", change.front), ("side", change.side), ("back", change.back)];
        for (field, found) in fields {
            if let Some(found) = found.filter(|m| m.length.abs() >= length) {
                faults.push((number, field.into(), Wrong::LongerThan { found, length }));
            }
        }
        drawn.push(AlteredTrunk { change, waist: waist.width });
    }
    if faults.is_empty() { Ok(drawn) } else { Err(faults) }
}
