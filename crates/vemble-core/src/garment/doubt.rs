//! Doubts: figures that can be, but look like a slip; each is a question with the figure that was perhaps meant.

use super::{Garment, Width, across_shoulders};
use crate::body::{BodyMeasurement, Proportions, Wearer};
use crate::length::{Length, Tape};
use crate::place::{Level, Structure};
use serde::Serialize;
use utoipa::ToSchema;

/// A question about a figure. What was entered stays until somebody says otherwise.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Doubt {
    /// The figure, as a JSON path: `levels[2].width`.
    pub path: String,
    /// The question.
    pub question: String,
    /// What was perhaps meant.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub instead: Option<Instead>,
}

/// A figure to put in place of one that is doubted.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Instead {
    /// The answer, in words.
    pub words: String,
    /// The same figure measured the other way.
    pub width: Width,
}

/// A garment this much smaller than the body it goes round was probably measured flat, and one this much larger probably
/// all round (teaching value: half and double with room for any ease).
const LOOKS_FLAT: f64 = 0.7;
const LOOKS_ROUND: f64 = 1.75;

/// Everything doubtful about a garment and its wearer.
pub fn doubts(garment: &Garment, wearer: &Wearer, tape: Tape) -> Vec<Doubt> {
    let mut doubts: Vec<Doubt> = of_wearer(wearer, tape);
    doubts.extend(widths(garment, wearer, tape));
    doubts.extend(one_shoulder(garment, wearer, tape));
    doubts
}

/// A garment so much narrower than its wearer from shoulder tip to shoulder tip was probably measured along one shoulder (teaching value:
/// half of it, with room for a sleeveless cut).
const LOOKS_LIKE_ONE: f64 = 0.6;

fn one_shoulder(garment: &Garment, wearer: &Wearer, tape: Tape) -> Option<Doubt> {
    let n = garment.levels.iter().position(|level| level.level == Level::Shoulder)?;
    let across = garment.levels[n].width.girth().fraction(1, 2);
    let body = Proportions::of(wearer);
    let one = Length::from_cm(body.cm(BodyMeasurement::ShoulderLength));
    let body = Length::from_cm(across_shoulders(&body));
    if across.cm() >= LOOKS_LIKE_ONE * body.cm() {
        return None;
    }
    // Both shoulders, and the neck between them: what is left of the body's width.
    let neck = body - one * 2;
    let both = tape.round(across * 2 + neck.max(Length::ZERO));
    let question = format!(
        "{} from shoulder tip to shoulder tip is much less than the body’s {}. Is that one shoulder?",
        tape.show(across),
        tape.show(body)
    );
    let words = format!("Yes: {} across both, with the neck between them", tape.show(both));
    let width = Width::LaidFlat(tape.figure(both).measure());
    Some(Doubt { path: format!("levels[{n}].width"), question, instead: Some(Instead { words, width }) })
}

fn widths<'a>(garment: &'a Garment, wearer: &'a Wearer, tape: Tape) -> impl Iterator<Item = Doubt> + 'a {
    let body = Proportions::of(wearer);
    garment.levels.iter().enumerate().filter_map(move |(n, level)| {
        let what = if level.level == Level::Hem && garment.has_legs() {
            BodyMeasurement::AnkleGirth
        } else {
            garment.body_at(level.level)?
        };
        let (girth, around) = (level.width.girth().cm(), body.cm(what));
        let least = if garment.cloth.structure == Structure::Knit { 0.8 * LOOKS_FLAT } else { LOOKS_FLAT };
        let name = level.level.name();
        let (question, words) = match level.width {
            Width::Girth(m) if girth < least * around => (
                format!(
                    "{} all round the {name} is much less than the body’s {}. Is that the width laid flat?",
                    tape.show(m.length),
                    tape.show(Length::from_cm(around))
                ),
                format!("Yes: laid flat, {} all round", tape.show(m.length * 2)),
            ),
            Width::LaidFlat(m)
                if girth > LOOKS_ROUND * around && !matches!(level.level, Level::Hem | Level::SleeveHem) =>
            {
                (
                    format!(
                        "{} laid flat makes {} all round the {name}. Is that the whole girth?",
                        tape.show(m.length),
                        tape.show(m.length * 2)
                    ),
                    format!("Yes: {} all round", tape.show(m.length)),
                )
            }
            Width::LaidFlat(_) | Width::Girth(_) => return None,
        };
        let instead = Some(Instead { words, width: level.width.otherwise() });
        Some(Doubt { path: format!("levels[{n}].width"), question, instead })
    })
}

/// Everything doubtful about the measurements of a wearer.
pub fn of_wearer(wearer: &Wearer, tape: Tape) -> Vec<Doubt> {
    use BodyMeasurement as B;
    let mut doubts = Vec::new();
    let mut ask = |what: B, question: String| {
        let path = format!("wearer.measurements.{}", <&str>::from(what));
        doubts.push(Doubt { path, question, instead: None });
    };
    let show = |what: B| wearer.get(what).map_or_else(String::new, |l| tape.show(l));
    for (larger, smaller) in [
        (B::HipGirthSeated, B::HipGirth),
        (B::AcrossBackReaching, B::AcrossBackWidth),
        (B::UpperArmGirthFlexed, B::UpperArmGirth),
        (B::ElbowGirth, B::WristGirth),
        (B::BustGirth, B::UnderBustGirth),
        (B::ThighGirth, B::KneeGirth),
        (B::CalfGirth, B::AnkleGirth),
        (B::HeelGirth, B::AnkleGirth),
        (B::HandGirth, B::WristGirth),
        (B::OutsideLeg, B::InsideLeg),
    ] {
        if let (Some(a), Some(b)) = (wearer.get(larger), wearer.get(smaller))
            && a < b
        {
            ask(
                larger,
                format!(
                    "The {} ({}) is less than the {} ({}). Are the two the wrong way round?",
                    larger.name(),
                    show(larger),
                    smaller.name(),
                    show(smaller)
                ),
            );
        }
    }
    for what in B::ALL.iter().copied().filter(|w| w.facts().sided) {
        let apart = wearer.newest(what).and_then(crate::body::Taken::apart);
        if let Some(apart) = apart.filter(|a| *a > Length::from_mm(30)) {
            ask(what, format!("Left and right {} are {} apart. Is that so?", what.name(), tape.show(apart)));
        }
    }
    doubts
}
