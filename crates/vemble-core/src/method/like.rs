//! Like one that fits: two garments laid flat and measured at the same levels, and what the difference cannot tell.

use crate::fitting::WantedChange;
use crate::garment::Garment;
use crate::length::{Figure, Length, Measure, Tape};
use crate::place::{Level, Structure};
use crate::told::Teller;
use serde::Serialize;
use utoipa::ToSchema;

/// How far two cloths may stretch apart, in percent, before one says little about the other (teaching value: a class of knits is 20 wide).
const STRETCH_APART: u8 = 10;

/// What would make one garment measure like another.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Like {
    /// What is wanted at every level that both have: exact, in the unit in which the other was measured.
    pub wanted: Vec<WantedChange>,
    /// The same in figures, from the top down.
    pub lines: Vec<LikeLine>,
    /// What cannot be copied, or is not to be trusted.
    pub cannot: Vec<String>,
}

/// A level of both.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct LikeLine {
    /// Which level.
    pub level: Level,
    /// What it is called.
    pub name: String,
    /// The one that is altered.
    pub own: Figure,
    /// The one that fits.
    pub other: Figure,
    /// How the difference comes about.
    pub sum: String,
}

/// By how much one garment differs from another at the levels that both have, that go round the same, and that somebody measured.
pub(super) fn differences(own: &Garment, other: &Garment) -> Vec<WantedChange> {
    let mut levels = own.levels.clone();
    levels.sort_by_key(|l| l.level);
    let compared = levels.iter().filter_map(|mine| {
        let level = mine.level;
        let theirs = other.level(level)?;
        let is_known = !mine.assumed && !theirs.assumed;
        let unit = theirs.width.measure().unit;
        let by = theirs.width.girth() - mine.width.girth();
        (is_a_place(level) && is_known && own.round(level) == other.round(level))
            .then_some(WantedChange { level, by: Measure { length: by, unit } })
    });
    compared.collect()
}

/// A level of the body: edges lie wherever the garment ends, and nothing goes round a shoulder.
fn is_a_place(level: Level) -> bool {
    level != Level::Shoulder && !level.is_at_an_edge()
}

/// Compares two garments, with figures on a tape.
pub(super) fn compare(own: &Garment, other: &Garment, tape: Tape) -> Like {
    let wanted = differences(own, other);
    let to = Teller::of(own, tape);
    let line = |wanted: &WantedChange| {
        let [mine, theirs] = [own.level(wanted.level)?, other.level(wanted.level)?].map(|l| l.width.on(tape));
        let by = theirs - mine;
        let way = if by.is_negative() { "smaller" } else { "wider" };
        let result = match by == Length::ZERO {
            true => "the same".into(),
            false => format!("{} {way}", to.show(by.abs())),
        };
        Some(LikeLine {
            level: wanted.level,
            name: wanted.level.name().into(),
            own: tape.figure(mine),
            other: tape.figure(theirs),
            sum: format!("{} instead of {}: {result}", to.bare(theirs), to.bare(mine)),
        })
    };
    Like { lines: wanted.iter().filter_map(line).collect(), cannot: cannot(own, other, &wanted), wanted }
}

fn cannot(own: &Garment, other: &Garment, wanted: &[WantedChange]) -> Vec<String> {
    let mut all = Vec::new();
    let (mine, theirs) = (&own.cloth, &other.cloth);
    if mine.structure != theirs.structure {
        let word = |structure| if structure == Structure::Knit { "a knit" } else { "woven" };
        all.push(format!(
            "{} is {}, {} is {}: what fits in one says little about the other. Try it on before anything is sewn.",
            other.name,
            word(theirs.structure),
            own.name,
            word(mine.structure)
        ));
    } else if mine.stretch_percent.abs_diff(theirs.stretch_percent) > STRETCH_APART {
        all.push(format!(
            "{} stretches by {} %, {} by {} %: copy less than the whole difference, and try it on.",
            other.name, theirs.stretch_percent, own.name, mine.stretch_percent
        ));
    }
    if own.kind != other.kind {
        all.push(format!(
            "{} and {} are not of one kind ({}, {}): only what both have is compared.",
            other.name,
            own.name,
            other.kind.template().name,
            own.kind.template().name
        ));
    }
    let missing =
        own.levels.iter().filter(|l| is_a_place(l.level) && !wanted.iter().any(|w| w.level == l.level));
    let names: Vec<&str> = missing.map(|l| l.level.name()).collect();
    if !names.is_empty() {
        all.push(format!(
            "Not compared, since it is not measured on both or goes round something else: {}.",
            names.join(", ")
        ));
    }
    all.push("Its cut and its grain cannot be copied: darts, the slope of the shoulders and where its seams lie stay as they are.".into());
    all
}
