//! What can be wrong with a document that has the right shape, and where.

use crate::body::BodyMeasurement;
use crate::fitting::GarmentSide;
use crate::garment::{Level, Seam};
use crate::length::{Length, Measure, Tape};

/// Something wrong at one place of a document.
#[derive(Clone, Debug, PartialEq)]
pub struct Fault {
    /// The place, as a JSON path: `try_ons[0].alterations[0].readings[2].station`.
    pub path: String,
    /// What is wrong there.
    pub wrong: Wrong,
}

/// What is wrong; [`Wrong::found`] and [`Wrong::expected`] say it in words.
#[derive(Clone, Debug, PartialEq)]
#[expect(missing_docs, reason = "the words of each variant are right below")]
pub enum Wrong {
    Negative { found: Measure },
    NotPositive { found: Measure },
    NotLookedOver { seam: Seam },
    Twice { what: &'static str },
    OffSeam { found: Measure, length: Measure },
    SameStation { found: Measure, side: GarmentSide, first: usize },
    TooDeep { found: Measure, girth: Measure },
    EndAmongPins { found: Measure, pin: Measure },
    EndsCross { found: Measure },
    NoPinInStretch { found: Measure },
    StretchDisagrees { found: Measure, tolerance: Measure },
    LevelsOutOfOrder { level: Level, above: Level },
    TooMany { what: &'static str, most: usize },
    Blank,
    TooLong { most: usize },
    NoFigure { what: BodyMeasurement },
    NotOfABody { what: BodyMeasurement, found: Measure, least: Length, most: Length, height: Option<Length> },
}

impl Wrong {
    /// What was found.
    pub fn found(&self, tape: Tape) -> String {
        match self {
            Self::Negative { found } | Self::NotPositive { found } => found.to_string(),
            Self::NotLookedOver { seam } => {
                format!("the {} is altered but not among the garment's seams", seam.name())
            }
            Self::Twice { what } => format!("the {what} stands here a second time"),
            Self::OffSeam { found, length } => {
                format!("{found}, but the seam is {} long", tape.show(length.length))
            }
            Self::SameStation { found, side, first } => {
                format!("{found}, where reading {} already is on the {} side", first + 1, side.name())
            }
            Self::TooDeep { found, girth } => {
                format!(
                    "{found}: that takes out more than the {} the garment measures there",
                    tape.show(girth.length)
                )
            }
            Self::EndAmongPins { found, pin } => {
                format!("{found}, but a pin stands at {}", tape.show(pin.length))
            }
            Self::EndsCross { found } => format!("{found}, beyond the other end of the line"),
            Self::NoPinInStretch { found } => format!("{found}, but no pin stands in that stretch"),
            Self::StretchDisagrees { found, tolerance } => format!(
                "{found}, but the pins in that stretch differ by more than {} from their mean",
                tape.show(tolerance.length)
            ),
            Self::LevelsOutOfOrder { level, above } => {
                format!("the {} lies above the {}", level.name(), above.name())
            }
            Self::TooMany { what, most } => format!("over {most} {what}"),
            Self::Blank => "nothing".into(),
            Self::TooLong { most } => format!("over {most} letters"),
            Self::NoFigure { what } => format!("the {} without a figure", what.name()),
            Self::NotOfABody { what, found, height: None, .. } => format!("{found} as {}", what.name()),
            Self::NotOfABody { what, found, height: Some(height), .. } => {
                format!("{found} as {} of somebody {} tall", what.name(), tape.show(*height))
            }
        }
    }

    /// What would be right.
    pub fn expected(&self, tape: Tape) -> String {
        match self {
            Self::Negative { .. } => {
                "nought or more; to let a seam out, open it and enter the gap as “gap”".into()
            }
            Self::NotPositive { .. } => "more than nought".into(),
            Self::NotLookedOver { .. } => "the seam's length and allowance in the look-over".into(),
            Self::Twice { .. } => "each once".into(),
            Self::OffSeam { length, .. } => {
                format!("a station from 0 to {}, measured from the hem", tape.show(length.length))
            }
            Self::SameStation { .. } => "one pin at each station of a side".into(),
            Self::TooDeep { girth, .. } => format!("less than {} altogether", tape.show(girth.length)),
            Self::EndAmongPins { .. } => "an end beyond the outermost pin".into(),
            Self::EndsCross { .. } => "a lower end below the upper end".into(),
            Self::NoPinInStretch { .. } => "a pin inside the stretch that goes straight through".into(),
            Self::StretchDisagrees { .. } => "pins that agree, since the line is straight there".into(),
            Self::LevelsOutOfOrder { .. } => {
                "hem, knee, thigh, hip, waist, bust, neck: each above the one before".into()
            }
            Self::TooMany { most, .. } => format!("at most {most}"),
            Self::Blank => "a name".into(),
            Self::TooLong { most } => format!("at most {most} letters"),
            Self::NoFigure { .. } => "one figure, or left and right".into(),
            Self::NotOfABody { least, most, .. } => {
                format!("something from {} to {}", tape.show(*least), tape.show(*most))
            }
        }
    }
}
