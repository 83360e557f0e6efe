//! What is wanted at levels: as somebody typed it, or as pins come to it.

use crate::change::{ChangeKey, Term};
use crate::fitting::{GarmentSide, WantedChange};
use crate::garment::{Garment, Round};
use crate::judge::{Girth, LevelOf};
use crate::length::{Length, Tape};
use crate::place::Level;

/// What is to come off at a level, of either half of a whole girth or of either limb; negative is let out.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Wanted {
    pub level: Level,
    /// What goes round there.
    pub round: Round,
    /// Off the whole girth, or off each limb where both are the same.
    pub off: Length,
    /// Off the halves of the garment's left and right, or off its left and right limb, where they are not the same.
    pub sides: Option<[Length; 2]>,
}

impl Wanted {
    pub fn is_nought(&self) -> bool {
        self.off == Length::ZERO && self.sides.is_none()
    }

    /// What one side's edges take together: half of a whole girth, all of a limb's.
    pub fn of_side(&self, side: GarmentSide) -> f64 {
        match (self.sides, self.round) {
            (Some(sides), _) => sides[side as usize].cm(),
            (None, Round::Whole) => self.off.cm() / 2.0,
            (None, Round::Leg | Round::Sleeve) => self.off.cm(),
        }
    }

    /// A part of it, at marks of a tape.
    pub fn part(&self, part: i64, of: i64, tape: Tape) -> Self {
        let less = |length: Length| tape.round(length.fraction(part, of));
        Self { off: less(self.off), sides: self.sides.map(|sides| sides.map(less)), ..*self }
    }
}

/// What was typed, at the levels that the garment has, from the top down.
pub(super) fn typed(garment: &Garment, wanted: &[WantedChange]) -> Vec<Wanted> {
    let there = wanted.iter().filter(|w| garment.level(w.level).is_some() && w.level != Level::Shoulder);
    let mut all: Vec<Wanted> = there
        .map(|w| Wanted { level: w.level, round: garment.round(w.level), off: -w.by.length, sides: None })
        .collect();
    all.sort_by_key(|w| w.level);
    all
}

/// It can be carried by something else: what is done to an armhole is done there.
const fn may_move(change: ChangeKey) -> bool {
    match change {
        ChangeKey::Seam(_) | ChangeKey::Dart(_) | ChangeKey::Elastic(_) => true,
        ChangeKey::Armhole(_) | ChangeKey::Hem(_) | ChangeKey::Spacing(_) => false,
        ChangeKey::Gathers(_) | ChangeKey::Trunk(_) => false,
    }
}

/// What changes come to at every level that they reach, whatever carries them.
pub(super) fn of_girths(girths: &[Girth]) -> Vec<Wanted> {
    let mut all: Vec<Wanted> = Vec::new();
    for girth in girths {
        let level = girth.level.level;
        let terms: Vec<&Term> = girth.terms.iter().filter(|term| may_move(term.change)).collect();
        if terms.is_empty() {
            continue;
        }
        let off: Length = terms.iter().map(|term| term.off()).sum();
        let round = match girth.of {
            LevelOf::Garment => Round::Whole,
            LevelOf::EachLeg | LevelOf::LeftLeg | LevelOf::RightLeg => Round::Leg,
            LevelOf::EachSleeve | LevelOf::LeftSleeve | LevelOf::RightSleeve => Round::Sleeve,
        };
        match girth.of.side() {
            // One limb by itself: the other stands beside it, or takes nothing.
            Some(side) => {
                let at = all.iter().position(|w| w.level == level).unwrap_or_else(|| {
                    all.push(Wanted { level, round, off, sides: Some([Length::ZERO; 2]) });
                    all.len() - 1
                });
                if let Some(sides) = &mut all[at].sides {
                    sides[side as usize] = off;
                    all[at].off = sides[0].abs().max(sides[1].abs());
                }
            }
            None => {
                let of = |side: GarmentSide| -> Length {
                    let own = |term: &&Term| match term.side {
                        None => term.off().fraction(1, 2),
                        Some(of) if of == side => term.off(),
                        Some(_) => Length::ZERO,
                    };
                    terms.iter().map(own).sum()
                };
                let [left, right] = GarmentSide::BOTH.map(of);
                let uneven = round == Round::Whole && (left - right).abs() > Length::from_nm(1);
                all.push(Wanted { level, round, off, sides: uneven.then_some([left, right]) });
            }
        }
    }
    all
}
