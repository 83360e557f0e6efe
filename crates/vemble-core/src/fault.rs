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
    NotInOnePass { seam: Seam, into: Seam },
    PinsOfItsOwn { seam: Seam },
    NotAShare { percent: u32 },
    OffOtherSeam { station: Measure, seam: Seam },
    DartIsThere { what: &'static str },
    NoPlaceForDart { what: &'static str },
    AtThePoint { found: Measure },
    ShallowerThanNought { found: Measure, depth: Length },
    NotAHold { percent: u8 },
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
            Self::NotInOnePass { seam, into } => {
                format!("the {} carried on into the {}", seam.name(), into.name())
            }
            Self::PinsOfItsOwn { seam } => {
                format!("a share for the {}, which has pins of its own", seam.name())
            }
            Self::NotAShare { percent } => format!("{percent} % given to other seams"),
            Self::OffOtherSeam { station, seam } => {
                format!("a pin at {station}, where the {} does not run", seam.name())
            }
            Self::DartIsThere { what } => format!("a place for the {what}, which the garment has already"),
            Self::NoPlaceForDart { what } => format!("no place for the new {what}"),
            Self::AtThePoint { found } => format!("{found} at the point of the dart"),
            Self::ShallowerThanNought { found, depth } => {
                format!("{found} let out, but the dart is {} deep there", tape.show(*depth))
            }
            Self::NotAHold { percent } => format!("a hold of {percent} %"),
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
            Self::NotInOnePass { seam, .. } => match seam.goes_on_into() {
                Some(into) => format!("the {} in one pass with the {}", into.name(), seam.name()),
                None => "a line that runs off the edge here, or meets the old stitching".into(),
            },
            Self::PinsOfItsOwn { .. } => "a seam without pins, or no share for it".into(),
            Self::NotAShare { .. } => "1 to 100 percent altogether, each seam once".into(),
            Self::OffOtherSeam { seam, .. } => {
                format!("pins where both seams run, or no share for the {}", seam.name())
            }
            Self::DartIsThere { .. } => "no place: pins deepen it, gaps let it out, where it is".into(),
            Self::NoPlaceForDart { .. } => {
                "how high above the hem its point and its other end lie, or a measured waist".into()
            }
            Self::AtThePoint { .. } => "nought at the point, and pins away from it".into(),
            Self::ShallowerThanNought { depth, .. } => format!("at most {}", tape.show(*depth)),
            Self::NotAHold { .. } => "a hold of 110 to 125 percent".into(),
            Self::NotOfABody { least, most, .. } => {
                format!("something from {} to {}", tape.show(*least), tape.show(*most))
            }
        }
    }
}
