//! The ease that is wanted: as somebody said, as in garments that fit, or as is taught.

use super::Table;
use crate::body::Wearer;
use crate::garment::{EaseBand, Garment};
use crate::length::{Length, Tape};
use crate::place::Level;
use crate::work::LevelEase;

/// A garment of the same wearer that fits.
#[derive(Clone, Copy)]
pub struct Fits<'a> {
    /// As it is now.
    pub garment: &'a Garment,
    /// Who wears it.
    pub wearer: &'a Wearer,
}

/// Ease that is wanted, and where from.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct WantedEase {
    pub ease: Length,
    pub from: EaseFrom,
}

#[derive(Clone, Debug, PartialEq)]
pub(super) enum EaseFrom {
    /// Somebody typed it.
    Typed,
    /// These garments have it: the middle one of them.
    Fits(Vec<String>),
    /// The middle of what is usual.
    Taught,
}

/// The ease of a garment on its wearer at every level that somebody measured, at the marks of a tape.
pub fn ease_of(garment: &Garment, wearer: &Wearer, tape: Tape) -> Vec<LevelEase> {
    let levels = garment.levels.iter().filter(|level| !level.assumed);
    let eases = levels.filter_map(|level| {
        let body = wearer.get(garment.body_at(level.level)?)?;
        let length = level.width.on(tape) - tape.round(body);
        let ease = crate::length::Measure { length, unit: tape.unit() };
        Some(LevelEase { level: level.level, ease })
    });
    eases.collect()
}

impl Table<'_> {
    /// The ease that is wanted at a level. Nothing where nobody said so, nothing that fits has it and none is taught.
    pub(super) fn ease(&self, level: Level, band: Option<EaseBand>, fit: &[Fits<'_>]) -> Option<WantedEase> {
        if let Some(typed) = self.pattern.ease.iter().find(|e| e.level == level) {
            return Some(WantedEase { ease: self.read(typed.ease), from: EaseFrom::Typed });
        }
        if let Some(learnt) = self.learnt(level, fit) {
            return Some(learnt);
        }
        let ease = self.tape.round(band?.middle());
        Some(WantedEase { ease, from: EaseFrom::Taught })
    }

    /// What garments of this sort that fit have there: the middle one, of two in the middle the smaller.
    fn learnt(&self, level: Level, fit: &[Fits<'_>]) -> Option<WantedEase> {
        let class = |garment: &Garment| (garment.kind.template().ease, garment.cloth.structure);
        let mut there: Vec<(Length, &str)> = fit
            .iter()
            .filter(|f| class(f.garment) == class(self.garment) && f.garment.body_at(level).is_some())
            .filter_map(|f| {
                let own = ease_of(f.garment, f.wearer, self.tape).into_iter().find(|e| e.level == level)?;
                Some((own.ease.length, f.garment.name.as_str()))
            })
            .collect();
        there.sort_unstable();
        let ease = there.get(there.len().checked_sub(1)? / 2)?.0;
        let names = there.iter().map(|(_, name)| (*name).to_owned()).collect();
        Some(WantedEase { ease, from: EaseFrom::Fits(names) })
    }
}
