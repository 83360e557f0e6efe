//! Girth and ease at each level: what the garment measures after the changes, and what that leaves the body.

use super::Subject;
use crate::change::hem::ShortenedAt;
use crate::change::{Drawn, DrawnChange, Term};
use crate::choice::choice;
use crate::fitting::GarmentSide;
use crate::garment::{EaseBand, GarmentLevel, Round};
use crate::length::Length;
use crate::place::Level;

choice! {
    /// Ease against what is usual at a level, in a word.
    EaseWord {
        /// Below the least that one can move in.
        TooTight => "too tight",
        /// Between least and usual.
        Close => "close",
        /// What such garments have.
        Usual => "usual",
        /// Between usual and loose.
        Roomy => "roomy",
        /// A loose garment here.
        Loose => "loose",
    }
}

impl EaseWord {
    pub(super) fn of(ease: Length, band: &EaseBand) -> Self {
        match ease {
            e if e < band.least => Self::TooTight,
            e if e < band.usual_from => Self::Close,
            e if e <= band.usual_to => Self::Usual,
            e if e < band.loose => Self::Roomy,
            _ => Self::Loose,
        }
    }
}

choice! {
    /// Whose girth a level is.
    LevelOf {
        /// Round the whole garment.
        Garment => "all round",
        /// Either leg: both are the same.
        EachLeg => "each leg",
        /// The leg on the garment's left.
        LeftLeg => "left leg",
        /// The leg on the garment's right.
        RightLeg => "right leg",
        /// Either sleeve: both are the same.
        EachSleeve => "each sleeve",
        /// The sleeve on the garment's left.
        LeftSleeve => "left sleeve",
        /// The sleeve on the garment's right.
        RightSleeve => "right sleeve",
    }
}

impl LevelOf {
    /// Both legs or both sleeves, which are the same.
    pub const fn is_of_both(self) -> bool {
        matches!(self, Self::Garment | Self::EachLeg | Self::EachSleeve)
    }

    /// Which side's it is, where both are not the same.
    pub const fn side(self) -> Option<GarmentSide> {
        match self {
            Self::Garment | Self::EachLeg | Self::EachSleeve => None,
            Self::LeftLeg | Self::LeftSleeve => Some(GarmentSide::Left),
            Self::RightLeg | Self::RightSleeve => Some(GarmentSide::Right),
        }
    }

    pub(crate) const fn sides(self) -> &'static [GarmentSide] {
        match self {
            Self::Garment => &GarmentSide::BOTH,
            Self::EachLeg | Self::LeftLeg | Self::EachSleeve | Self::LeftSleeve => &[GarmentSide::Left],
            Self::RightLeg | Self::RightSleeve => &[GarmentSide::Right],
        }
    }
}

/// A level before and after the changes.
#[derive(Clone, Debug)]
pub(crate) struct Girth {
    /// The level as it was found.
    pub level: GarmentLevel,
    /// Whose girth: the whole garment, each leg, or the leg of one side.
    pub of: LevelOf,
    /// Girth now.
    before: Length,
    /// How far above the present edge it lies then, and what goes round there now: of an edge that is moved.
    pub moved: Option<(Length, Length)>,
    /// What the changes take off.
    pub terms: Vec<Term>,
    /// Girth after the changes.
    pub after: Length,
    /// The body's girth at this level.
    pub body: Option<Length>,
    /// The ease wanted, where there is a teaching value and a body measurement.
    pub wanted: Option<EaseBand>,
}

impl Girth {
    /// Girth now.
    pub const fn before(&self) -> Length {
        self.before
    }

    /// What comes off altogether.
    pub fn off(&self) -> Length {
        self.before() - self.after
    }

    /// The changes reach this level.
    pub fn is_changed(&self) -> bool {
        self.off() != Length::ZERO
    }

    /// Ease now. Nothing where the body is not measured there.
    pub fn ease_before(&self) -> Option<Length> {
        Some(self.before() - self.body?)
    }

    /// Ease after the changes. Nothing where the body is not measured there.
    pub fn ease_after(&self) -> Option<Length> {
        Some(self.after - self.body?)
    }

    /// How its ease is now and after, in a word. Nothing where no ease is taught or the body is not measured there.
    pub fn words(&self) -> Option<[EaseWord; 2]> {
        let band = self.wanted?;
        Some([EaseWord::of(self.ease_before()?, &band), EaseWord::of(self.ease_after()?, &band)])
    }
}

/// All measured levels from the top down, before and after; legs and sleeves one by one where the changes make them differ.
pub(crate) fn girths(subject: &Subject<'_>) -> Vec<Girth> {
    let symmetric = subject.is_symmetric();
    // A shoulder is as wide as it is; nothing goes round it.
    let around = subject.garment.levels.iter().filter(|l| l.level != Level::Shoulder);
    let mut levels: Vec<&GarmentLevel> = around.collect();
    levels.sort_by_key(|l| l.level);
    let mut results = Vec::with_capacity(2 * levels.len());
    for level in levels {
        let (both, each) = match subject.garment.round(level.level) {
            Round::Whole => (LevelOf::Garment, None),
            Round::Leg => (LevelOf::EachLeg, Some([LevelOf::LeftLeg, LevelOf::RightLeg])),
            Round::Sleeve => (LevelOf::EachSleeve, Some([LevelOf::LeftSleeve, LevelOf::RightSleeve])),
        };
        match each.filter(|_| !symmetric).map(|each| each.map(|of| girth(subject, level, of))) {
            Some([left, right]) if left.terms != right.terms || left.moved != right.moved => {
                results.extend([left, right]);
            }
            Some([left, _]) => results.push(Girth { of: both, ..left }),
            None => results.push(girth(subject, level, both)),
        }
    }
    results
}

fn girth(subject: &Subject<'_>, level: &GarmentLevel, of: LevelOf) -> Girth {
    let garment = subject.garment;
    let up = new_edge(subject, level.level, of.sides());
    let terms = terms(subject, level.level, up.unwrap_or_default(), of.sides());
    let off: Length = terms.iter().map(Term::off).sum();
    let body = garment.body_at(level.level).and_then(|what| subject.body(what));
    let wanted = body.and_then(|body| garment.ease_wanted(level.level, body, subject.tape));
    let before = level.width.on(subject.tape);
    let moved = up.and_then(|up| Some((up, subject.tape.round(garment.girth_above(level.level, up)?))));
    let from = moved.map_or(before, |(_, there)| there);
    Girth { level: *level, of, before, moved, terms, after: from - off, body, wanted }
}

/// What the changes take off so far `up` from a level.
fn terms(subject: &Subject<'_>, level: Level, up: Length, sides: &[GarmentSide]) -> Vec<Term> {
    let takes = |c: &DrawnChange<'_>| c.takes(subject.garment, level, up, sides, subject.tape);
    let mut terms: Vec<Term> = subject.changes.iter().flat_map(takes).collect();
    terms.retain(|term| term.off() != Length::ZERO);
    terms
}

/// How far above the present edge a hem will lie at its sides; nothing where it stays, or no hem is there.
fn new_edge(subject: &Subject<'_>, level: Level, sides: &[GarmentSide]) -> Option<Length> {
    // Shortened at the waist, its waist comes to lie lower.
    let above = subject.hems().filter_map(|hem| hem.above).find(|above| above.at == ShortenedAt::Waist);
    if let Some(above) = above.filter(|_| level == Level::Waist) {
        let off = subject.tape.round(above.off);
        return (off != Length::ZERO).then_some(-off);
    }
    let hem = subject.hems().find(|hem| hem.level() == level)?;
    let up = hem.ring(*sides.first()?)?.at_the_sides(subject.tape);
    (up != Length::ZERO).then_some(up)
}

/// What goes round so far above the present edge of a leg, sleeve or lower edge after the changes, on one side where that is one of a pair.
pub(crate) fn girth_at(subject: &Subject<'_>, level: Level, up: Length, side: GarmentSide) -> Option<Length> {
    let sides: &[GarmentSide] = match subject.garment.round(level) {
        Round::Whole => &GarmentSide::BOTH,
        Round::Leg | Round::Sleeve => {
            if side == GarmentSide::Left {
                &GarmentSide::BOTH[..1]
            } else {
                &GarmentSide::BOTH[1..]
            }
        }
    };
    let there = subject.tape.round(subject.garment.girth_above(level, up)?);
    Some(there - terms(subject, level, up, sides).iter().map(Term::off).sum())
}
