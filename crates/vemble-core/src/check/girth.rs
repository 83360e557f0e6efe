//! Girth and ease at each level: what the garment measures after the changes, and what that leaves the body.

use super::{Check, Outcome, Rule, Subject};
use crate::body::{EaseBand, ease_band};
use crate::fitting::GarmentSide;
use crate::garment::{GarmentLevel, Level, Seam};
use crate::length::{Figure, Length, Station, Whole};
use serde::Serialize;
use utoipa::ToSchema;

/// Ease against what is usual at a level, in a word.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EaseWord {
    /// Below the least that one can move in.
    TooTight,
    /// Between least and usual.
    Close,
    /// What such garments have.
    Usual,
    /// Between usual and loose.
    Roomy,
    /// A loose garment here.
    Loose,
}

impl EaseWord {
    fn of(ease: Length, band: &EaseBand) -> Self {
        match ease {
            e if e < band.least => Self::TooTight,
            e if e < band.usual_from => Self::Close,
            e if e <= band.usual_to => Self::Usual,
            e if e < band.loose => Self::Roomy,
            _ => Self::Loose,
        }
    }
}

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
    /// How far up from the hem.
    pub station: Figure,
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

/// Whose girth a level is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LevelOf {
    /// Round the whole garment.
    Garment,
    /// Either leg: both are the same.
    EachLeg,
    /// The leg on the garment's left.
    LeftLeg,
    /// The leg on the garment's right.
    RightLeg,
}

impl LevelOf {
    fn sides(self) -> &'static [GarmentSide] {
        match self {
            Self::Garment => &GarmentSide::BOTH,
            Self::EachLeg | Self::LeftLeg => &[GarmentSide::Left],
            Self::RightLeg => &[GarmentSide::Right],
        }
    }
}

impl LevelResult {
    /// True where the changes reach this level.
    pub fn is_changed(&self) -> bool {
        self.off.nm != 0
    }

    /// Its name with whose girth it is, in a sentence.
    pub fn name(&self) -> String {
        match self.of {
            LevelOf::Garment => self.level.name().into(),
            LevelOf::EachLeg => format!("{}, each leg", self.level.name()),
            LevelOf::LeftLeg => format!("{}, left leg", self.level.name()),
            LevelOf::RightLeg => format!("{}, right leg", self.level.name()),
        }
    }
}

/// All measured levels from the top down, before and after.
pub(crate) fn levels(subject: &Subject<'_>) -> Vec<LevelResult> {
    let symmetric = subject.seams.iter().all(super::AlteredSeam::sides_agree);
    let mut levels = subject.garment.levels_up();
    levels.reverse();
    let results = levels.iter().flat_map(|level| {
        let of: &[LevelOf] = match (level.level.is_of_one_leg(), symmetric) {
            (false, _) => &[LevelOf::Garment],
            (true, true) => &[LevelOf::EachLeg],
            (true, false) => &[LevelOf::LeftLeg, LevelOf::RightLeg],
        };
        of.iter().map(|of| result(subject, level, *of))
    });
    results.collect()
}

fn result(subject: &Subject<'_>, level: &GarmentLevel, of: LevelOf) -> LevelResult {
    let tape = subject.tape;
    let station = Station(level.station.length);
    let before = level.width.girth();
    // Terms of the sum: one for each altered seam and side that reaches this level.
    let reaches = |seam: Seam| seam == Seam::Outseam || level.level.is_of_one_leg();
    let seams = subject.seams.iter().filter(|s| reaches(s.facts.seam));
    let terms: Vec<(&str, Whole)> = seams
        .flat_map(|s| of.sides().iter().map(|side| (s.facts.seam.name(), s.line(*side).whole(station))))
        .filter(|(_, whole)| whole.0 != Length::ZERO)
        .collect();
    let off: Length = terms.iter().map(|(_, whole)| whole.0).sum();
    let after = before - off;
    let body = level.level.body().and_then(|b| subject.garment.wearer.get(b));
    let cloth = &subject.garment.cloth;
    let comfort = body.and_then(|body| {
        let band = ease_band(level.level, cloth.structure, cloth.stretch_percent, body)?;
        Some(Comfort {
            least: tape.figure(band.least),
            usual_from: tape.figure(band.usual_from),
            usual_to: tape.figure(band.usual_to),
            loose: tape.figure(band.loose),
            now: EaseWord::of(before - body, &band),
            after: EaseWord::of(after - body, &band),
        })
    });
    LevelResult {
        level: level.level,
        of,
        station: tape.figure(station.0),
        before: tape.figure(before),
        off: tape.figure(off),
        after: tape.figure(after),
        sum: sum(subject, level, &terms),
        body: body.map(|b| tape.figure(b)),
        ease_before: body.map(|b| tape.figure(before - b)),
        ease_after: body.map(|b| tape.figure(after - b)),
        comfort,
    }
}

/// `2 × 24.0 laid flat = 48.0; 48.0 − 9.0 (outseam: 2 edges × 4.5) = 39.0 cm`, with parts that add up as shown.
fn sum(subject: &Subject<'_>, level: &GarmentLevel, terms: &[(&str, Whole)]) -> String {
    let tape = subject.tape;
    let before = level.width.girth();
    let flat = match level.width {
        crate::garment::Width::LaidFlat(m) => {
            format!("2 × {} laid flat = {}", tape.bare(m.length), tape.show(before))
        }
        crate::garment::Width::Girth(_) => format!("{} as measured round", tape.show(before)),
    };
    if terms.is_empty() {
        return flat;
    }
    let mut exact = vec![before];
    exact.extend(terms.iter().map(|(_, whole)| -whole.0));
    let (shown, adjusted) = tape.apportion(&exact);
    let mut text = format!("{flat}; {}", tape.bare(shown[0]));
    for ((seam, whole), part) in terms.iter().zip(&shown[1..]) {
        let sign = if part.is_negative() { "−" } else { "+" };
        let edge = tape.bare(whole.0.fraction(1, 2).abs());
        text += &format!(" {sign} {} ({seam}: 2 edges × {edge})", tape.bare(part.abs()));
    }
    text += &format!(" = {}", tape.show(shown.iter().copied().sum()));
    if adjusted {
        text += " (parts rounded so that they add up)";
    }
    text
}

/// A stop where a change brings ease below least, a caution where it was below already.
pub(super) fn checks(subject: &Subject<'_>, levels: &[LevelResult]) -> impl Iterator<Item = Check> {
    let tape = subject.tape;
    levels.iter().filter(|l| l.is_changed()).filter_map(move |l| {
        let (comfort, body) = (l.comfort.as_ref()?, l.body.as_ref()?);
        let after = l.ease_after.as_ref()?;
        let (outcome, reason) = match (comfort.after, comfort.now) {
            (EaseWord::TooTight, EaseWord::TooTight) if l.off.nm <= 0 => {
                (Outcome::Caution, format!("Still less than the least ease of {}.", comfort.least.text))
            }
            (EaseWord::TooTight, _) => {
                (Outcome::Stop, format!("Less than the least ease of {}: it would bind.", comfort.least.text))
            }
            _ => (
                Outcome::Passes,
                format!("Usual here is {} to {} of ease.", comfort.usual_from.bare, comfort.usual_to.text),
            ),
        };
        let figures = format!(
            "{} − {} ({} body) = {} ease altogether",
            l.after.bare,
            body.bare,
            l.level.name(),
            after.text
        );
        let short = Length::from_nm(comfort.least.nm - after.nm);
        let mut check = Check::new(outcome, Rule::Ease, format!("Ease at the {}", l.name()), figures, reason);
        check.level = Some(l.level);
        let short = tape.show(short.up_to(tape.mark()));
        Some(check.remedy(match l.off.nm > 0 {
            true => format!("Take {short} less altogether at this level."),
            false => format!("Let out {short} more altogether at this level."),
        }))
    })
}
