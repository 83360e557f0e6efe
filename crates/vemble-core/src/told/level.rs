//! A level before and after the changes, in figures on a tape, with the sum that leads from one to the other.

use crate::change::ChangeKey;
use crate::fitting::Edges;
use crate::garment::{Garment, GarmentLevel, Seam, Width};
use crate::judge::{EaseWord, Girth, LevelOf};
use crate::length::{Figure, Length, Tape};
use crate::place::Level;
use serde::Serialize;
use utoipa::ToSchema;

/// The ease that is comfortable at a level.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Comfort {
    /// Least ease.
    pub least: Figure,
    /// Usual ease, from.
    pub usual_from: Figure,
    /// Usual ease, to.
    pub usual_to: Figure,
    /// Loose from here on.
    pub loose: Figure,
    /// The garment now, in a word.
    pub now: EaseWord,
    /// The garment after the changes, in a word.
    pub after: EaseWord,
}

/// A level before and after the changes.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct LevelResult {
    /// Which level.
    pub level: Level,
    /// Whose girth: the whole garment, each leg, or the leg of one side.
    pub of: LevelOf,
    /// What it is called, and whose girth it is: "thigh, each leg".
    pub name: String,
    /// How far up from the hem.
    pub station: Figure,
    /// Nobody measured it.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub assumed: bool,
    /// The changes reach it.
    pub is_changed: bool,
    /// Girth now.
    pub before: Figure,
    /// What comes off altogether.
    pub off: Figure,
    /// Girth after the changes.
    pub after: Figure,
    /// How the girth after comes about.
    pub sum: String,
    /// The body's girth at this level.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub body: Option<Figure>,
    /// Ease now.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub ease_before: Option<Figure>,
    /// Ease after.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub ease_after: Option<Figure>,
    /// The ease wanted, where there is a teaching value and a body measurement.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub comfort: Option<Comfort>,
}

/// A level with whose girth it is, in a sentence.
pub(crate) fn level_name(girth: &Girth) -> String {
    match girth.of {
        LevelOf::Garment => girth.level.level.name().into(),
        of @ (LevelOf::EachLeg
        | LevelOf::LeftLeg
        | LevelOf::RightLeg
        | LevelOf::EachSleeve
        | LevelOf::LeftSleeve
        | LevelOf::RightSleeve) => format!("{}, {}", girth.level.level.name(), of.name()),
    }
}

/// Every level, from the top down.
pub(crate) fn tell_levels(garment: &Garment, girths: &[Girth], tape: Tape) -> Vec<LevelResult> {
    girths.iter().map(|girth| tell(garment, girth, tape)).collect()
}

fn tell(garment: &Garment, girth: &Girth, tape: Tape) -> LevelResult {
    let comfort = girth.wanted.zip(girth.words()).map(|(band, [now, after])| Comfort {
        least: tape.figure(band.least),
        usual_from: tape.figure(band.usual_from),
        usual_to: tape.figure(band.usual_to),
        loose: tape.figure(band.loose),
        now,
        after,
    });
    LevelResult {
        level: girth.level.level,
        of: girth.of,
        name: level_name(girth),
        station: tape.figure(girth.level.station.length),
        assumed: girth.level.assumed,
        is_changed: girth.is_changed(),
        before: tape.figure(girth.before()),
        off: tape.figure(girth.off()),
        after: tape.figure(girth.after),
        sum: sum(garment, girth, tape),
        body: girth.body.map(|b| tape.figure(b)),
        ease_before: girth.ease_before().map(|e| tape.figure(e)),
        ease_after: girth.ease_after().map(|e| tape.figure(e)),
        comfort,
    }
}

/// `2 × 24.0 laid flat = 48.0; 48.0 − 9.0 (outseam: 2 edges × 4.5) = 39.0 cm`: from what is chalked, by plain arithmetic.
fn sum(garment: &Garment, girth: &Girth, tape: Tape) -> String {
    let mut sum = measured(&girth.level, girth.before(), tape);
    let from = girth.moved.map_or(girth.before(), |(_, there)| there);
    if let Some((up, there)) = girth.moved {
        let way = if up.is_negative() { "lower" } else { "higher" };
        let edge = if girth.level.level == Level::Waist { "waist seam" } else { "edge" };
        let (up, there) = (tape.show(up.abs()), tape.show(there));
        sum += &format!("; the new {edge} lies {up} {way}, {there} round there");
    }
    if girth.terms.is_empty() {
        return sum;
    }
    sum += &format!("; {}", tape.bare(from));
    for term in &girth.terms {
        let sign = if term.off().is_negative() { "+" } else { "−" };
        sum += &format!(" {sign} {} ({})", tape.bare(term.off().abs()), term_words(garment, term, tape));
    }
    sum + &format!(" = {}", tape.show(girth.after))
}

/// How it was measured, and what that makes all round.
fn measured(level: &GarmentLevel, before: Length, tape: Tape) -> String {
    let round = tape.show(before);
    match level.width {
        Width::LaidFlat(m) => format!("2 × {} laid flat = {round}", tape.as_typed(m)),
        Width::Girth(_) if level.assumed => format!("{round} assumed"),
        Width::Girth(_) => format!("{round} as measured round"),
    }
}

/// `outseam: 2 edges × 4.5`, `2 side seams × 2 edges × 1.6`, `outseam: front 3.0, back 1.0`: how a term comes about.
pub(crate) fn term_words(garment: &Garment, term: &crate::change::Term, tape: Tape) -> String {
    let (Edges { front, back }, [one, other]) = (term.edges, term.change.edges());
    let name = match term.change {
        // Of all that an armhole is changed with, what is sewn where the girth is.
        ChangeKey::Armhole(_) if front == back => "sleeve seam".into(),
        ChangeKey::Armhole(_) => {
            let off = tape.bare(front.0);
            let side = term.side.map_or_else(String::new, |side| format!("{} ", side.name()));
            return match term.times {
                1 => format!("{side}front of the neckline: {off}"),
                n => format!("front of the neckline: {n} sides × {off}"),
            };
        }
        // A neckline is longer where it lies lower, shorter where it lies higher.
        ChangeKey::Seam(Seam::NeckSeam) => {
            let way = if front.0.is_negative() { "lower" } else { "higher" };
            let name = term.change.name(garment);
            return format!("{name}, where it lies {way}: {}", tape.bare(front.0.abs()));
        }
        ChangeKey::Seam(_)
        | ChangeKey::Dart(_)
        | ChangeKey::Elastic(_)
        | ChangeKey::Hem(_)
        | ChangeKey::Spacing(_)
        | ChangeKey::Trunk(_)
        | ChangeKey::Gathers(_) => term.change.name(garment),
    };
    let name = term.side.map_or(name.clone(), |side| format!("{} {name}", side.name()));
    if front == back {
        let (of, each) = (term.change.edge_word(), tape.bare(front.0.abs()));
        return match term.times {
            1 => format!("{name}: 2 {of} × {each}"),
            n => format!("{n} {name}s × 2 {of} × {each}"),
        };
    }
    let [front, back] = [tape.bare(front.0), tape.bare(back.0)];
    match term.times {
        1 => format!("{name}: {one} {front}, {other} {back}"),
        n => format!("{n} {name}s × ({one} {front}, {other} {back})"),
    }
}
