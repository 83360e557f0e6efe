//! The ease that is wanted: as somebody said, as in garments that fit, or as is taught.

use super::Table;
use crate::body::{Taste, Wearer};
use crate::garment::{EaseBand, Garment};
use crate::length::{Length, Measure, Tape, Taught};
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
    /// All of it.
    pub ease: Length,
    pub from: EaseFrom,
    /// What of it each layer inside takes; nothing where none does.
    pub layer: Length,
}

/// A layer inside takes so much ease where it lies close: bust, waist and upper arm (handbook 11.5).
const LAYER: Taught = Taught::new(3, 8);

#[derive(Clone, Debug, PartialEq)]
pub(super) enum EaseFrom {
    /// Somebody typed it.
    Typed,
    /// It was kept as what the wearer likes.
    Liked,
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
            return Some(WantedEase {
                ease: self.read(typed.ease),
                from: EaseFrom::Typed,
                layer: Length::ZERO,
            });
        }
        let kept = self.taste_at(level, Measure { length: Length::ZERO, unit: self.tape.unit() });
        let kept = self.wearer.taste.iter().find(|taste| taste.is_of(&kept));
        let (ease, from) = match (kept, self.learnt(level, fit)) {
            (Some(kept), _) => (self.read(kept.ease), EaseFrom::Liked),
            (None, Some(learnt)) => learnt,
            (None, None) => (self.tape.round(band?.middle()), EaseFrom::Taught),
        };
        let is_close =
            matches!(level, Level::Bust | Level::Waist | Level::UpperArm) && self.pattern.layers > 0;
        let layer = if is_close { LAYER.on(self.tape) } else { Length::ZERO };
        Some(WantedEase { ease: ease + layer * i64::from(self.pattern.layers), from, layer })
    }

    /// So much ease at a level, as it may be kept for garments of this sort.
    pub(super) fn taste_at(&self, level: Level, ease: Measure) -> Taste {
        let (class, structure) = (self.garment.kind.template().ease, self.garment.cloth.structure);
        Taste { level, class, structure, ease }
    }

    /// What garments of this sort that fit have there: the middle one, of two in the middle the smaller.
    fn learnt(&self, level: Level, fit: &[Fits<'_>]) -> Option<(Length, EaseFrom)> {
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
        Some((ease, EaseFrom::Fits(names)))
    }
}
