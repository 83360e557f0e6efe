//! What is wrong with a document, in words: what was found, and what would be right. Lengths are spoken of in the unit that was typed, and
//! stations from where they are measured.

use crate::fault::Wrong;
use crate::length::{Length, Measure, Tape};

/// A length beside one that somebody typed: in that one's unit, on the reader's own tape where that has the unit.
fn beside(typed: &Measure, length: Length, tape: Tape) -> String {
    tape.speaking(typed.unit).show(length)
}

/// The most that may be typed, as [`beside`]: at a mark that is not more.
fn most_beside(typed: &Measure, most: Length, tape: Tape) -> String {
    let tape = tape.speaking(typed.unit);
    tape.show(-(-most).up_to(tape.mark()))
}

/// The least that may be typed, as [`beside`]: at a mark that is not less.
fn least_beside(typed: &Measure, least: Length, tape: Tape) -> String {
    let tape = tape.speaking(typed.unit);
    tape.show(least.up_to(tape.mark()))
}

impl Wrong {
    /// What was found. Figures that nobody typed are on `tape`, or in the unit of the figure beside them.
    pub fn found(&self, tape: Tape) -> String {
        match self {
            Self::Negative { found } | Self::NotPositive { found } => found.to_string(),
            Self::NotLookedOver { seam } => {
                format!("the {} is altered but not among the garment's seams", seam.name())
            }
            Self::ChangeTwice { which } => format!("the change {which} a second time"),
            Self::Twice { what } => format!("the {what} stands here a second time"),
            Self::OffEnd { found, length, datum } => {
                format!(
                    "{found}, but it is {} long, measured from the {datum}",
                    most_beside(found, *length, tape)
                )
            }
            Self::OffDatum { found, datum } => format!("{found}, which lies beyond the {datum}"),
            Self::SameStation { found, side, first } => {
                let side = side.map_or_else(String::new, |side| format!(" on the {} side", side.name()));
                format!("{found}, where reading {} already is{side}", first + 1)
            }
            Self::TooDeep { found, girth } => format!(
                "{found}: that takes out more than the {} the garment measures there",
                beside(found, *girth, tape)
            ),
            Self::EndAmongPins { found, pin } => {
                format!("{found}, but a pin stands at {}", beside(found, *pin, tape))
            }
            Self::EndsCross { found } => format!("{found}, beyond the other end of the line"),
            Self::NoPinInStretch { found } => format!("{found}, but no pin stands in that stretch"),
            Self::StretchDisagrees { found, tolerance } => format!(
                "{found}, but the pins in that stretch differ by more than {} from their mean",
                beside(found, *tolerance, tape)
            ),
            Self::LevelsOutOfOrder { level, above } => {
                format!("the {} lies above the {}", level.name(), above.name())
            }
            Self::NoLevel { level } => format!("the {}, which nobody measured", level.name()),
            Self::TooMany { what, most } => format!("over {most} {what}"),
            Self::Blank | Self::NoState => "nothing".into(),
            Self::TooLong { most } => format!("over {most} letters"),
            Self::NoFigure { what } => format!("the {} without a figure", what.name()),
            Self::NotInOnePass { seam, into, .. } => {
                format!("the {} carried on into the {}", seam.name(), into.name())
            }
            Self::PinsOfItsOwn { seam } => {
                format!("a share for the {}, which has pins of its own", seam.name())
            }
            Self::NotAShare { percent } => format!("{percent} % given to other seams"),
            Self::OffOtherSeam { station, seam } => {
                format!("a pin at {station}, where the {} does not run", seam.name())
            }
            Self::DartLiesAcross { what } => {
                format!("a height above the hem for the {what}, which lies across")
            }
            Self::DartTurned { what } => format!("the point of the {what} beyond its other end"),
            Self::FoldHasNoPanels => "taken from one panel only, on a dart".into(),
            Self::NoPlaceForDart { what } => format!("no place for the new {what}"),
            Self::AtThePoint { found } => format!("{found} at the point of the dart"),
            Self::AtTheLowerPoint { found } => {
                format!("{found} at the lower point of the dart, where it ends in nothing")
            }
            Self::ShallowerThanNought { found, depth } => {
                format!("{found} let out, but the dart is {} deep there", most_beside(found, *depth, tape))
            }
            Self::NoSuchHem { hem } => format!("a hem at {}, which this garment does not have", hem.name()),
            Self::NotOfASleeve => "what only a lower edge can have, for a sleeve".into(),
            Self::NoSeamThere { what } => format!("taken off {what}, where this garment has no seam"),
            Self::AboveTheBody { found, height } => {
                format!("{found} above the floor, but it hangs from {}", most_beside(found, *height, tape))
            }
            Self::LongerThan { found, length } => {
                format!("{found}, but the garment is {} long there", most_beside(found, *length, tape))
            }
            Self::MovesTooFar { found, .. } => format!("{found}, more than half the depth of the armhole"),
            Self::NothingToSpace { at } => {
                format!("fastenings, {}, where this garment has none to space", at.name())
            }
            Self::NothingToGather { what } => format!("gathers {what}, where this garment has none"),
            Self::NotACount { .. } => "a number that nobody sews".into(),
            Self::NotAHold { percent } => format!("a hold of {percent} %"),
            Self::NotOfABody { what, found, height: None, .. } => format!("{found} as {}", what.name()),
            Self::NotOfABody { what, found, height: Some(height), .. } => {
                format!("{found} as {} of somebody {} tall", what.name(), beside(found, *height, tape))
            }
            Self::NoSuchState { id } => format!("the state {id}, which this document does not have"),
            Self::StateTwice { id } => format!("the state {id} a second time"),
            Self::NotMinutes { found, .. } => format!("{found} minutes"),
            Self::NotADay { found } => format!("day {found} of the week"),
            Self::NotASum => "a sum that nobody pays".into(),
            Self::NotOneEach { found, sizes } => format!("{found} figures for {sizes} sizes"),
            Self::Falls { found, before } => {
                format!("{found}, which is less than the {before} of the size before")
            }
            Self::NotALine => "what is no one line".into(),
            Self::TooFarOff => "something that lies further off than cloth is long".into(),
            Self::OffEdge => "a place beyond its edge, or more than there is of it".into(),
            Self::WiderThan { found, .. } => format!("{found}"),
            Self::NotClosed { apart_mm: Some(apart) } => {
                format!("an outline that is not closed: {apart:.1} mm to the next edge")
            }
            Self::NotClosed { apart_mm: None } => "an outline that is not closed".into(),
            Self::CrossesItself => "an outline that crosses itself".into(),
            Self::NoTimeZone { found } => format!("the time zone “{found}”"),
            Self::NoCurrency => "a currency that is none".into(),
            Self::Circle { tasks } => format!("tasks that wait for each other: {}", tasks.join(", ")),
            Self::GateIsShut { gate } => format!("done before its try-on ({gate}) has a verdict"),
            Self::NoWordWhy => "nothing".into(),
            Self::NoSuchTask { task } => format!("the task {task}, which this garment does not have now"),
            Self::NoGate { task } => format!("a verdict on {task}, which is no try-on"),
            Self::NotSewn => "an entry that sewed nothing".into(),
            Self::NotTheNewest => "an entry that others follow".into(),
            Self::CutAway => "an entry that cut cloth away".into(),
            Self::OffTheLine { found } => format!("{found}, where the line was not basted"),
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
            Self::Twice { .. } | Self::ChangeTwice { .. } => "each once".into(),
            Self::OffEnd { found, length, datum } => {
                format!(
                    "a station from 0 to {}, measured from the {datum}",
                    most_beside(found, *length, tape)
                )
            }
            Self::OffDatum { datum, .. } => format!("0 or more, measured from the {datum}"),
            Self::SameStation { side: Some(_), .. } => "one pin at each station of a side".into(),
            Self::SameStation { side: None, .. } => {
                "one pin at each station: this seam is there once and has edges, no sides".into()
            }
            Self::TooDeep { found, girth } => {
                format!("less than {} altogether", beside(found, *girth, tape))
            }
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
            Self::NotInOnePass { seam, meets, .. } => match meets {
                Some(into) => format!("the {} in one pass with the {}", into.name(), seam.name()),
                None => "a line that runs off the edge here, or meets the old stitching".into(),
            },
            Self::PinsOfItsOwn { .. } => "a seam without pins, or no share for it".into(),
            Self::NotAShare { .. } => "1 to 100 percent altogether, each seam once".into(),
            Self::OffOtherSeam { seam, .. } => {
                format!("pins where both seams run, or no share for the {}", seam.name())
            }
            Self::DartLiesAcross { .. } => {
                "no place: pins deepen it and gaps let it out, where it is".into()
            }
            Self::DartTurned { .. } => "a point on the side of its other end where it is now".into(),
            Self::FoldHasNoPanels => "fold, whole pinch or gap: a fold takes the same from both of its sides".into(),
            Self::NoPlaceForDart { .. } => {
                "how high above the hem its point and its other end lie, or a measured waist".into()
            }
            Self::AtThePoint { .. } => "nought at the point, and pins away from it".into(),
            Self::AtTheLowerPoint { .. } => {
                "nought there; or is that end open? A dart that is open at the hem is a waist dart with its other end at 0".into()
            }
            Self::ShallowerThanNought { found, depth } => {
                format!("at most {}", most_beside(found, *depth, tape))
            }
            Self::NoSuchHem { .. } => "a hem that it has".into(),
            Self::NoLevel { .. } => "nothing, until it is measured in the look-over".into(),
            Self::NoSeamThere { .. } => "a seam that it has, or the edge".into(),
            Self::NotOfASleeve => "marks, or what is to be taken off".into(),
            Self::AboveTheBody { found, height } => format!("less than {}", most_beside(found, *height, tape)),
            Self::LongerThan { found, length } => format!("less than {}", most_beside(found, *length, tape)),
            Self::MovesTooFar { found, most } => format!("{} at most", most_beside(found, *most, tape)),
            Self::NothingToSpace { .. } => "an opening with buttons, hooks or lacing".into(),
            Self::NothingToGather { .. } => "an edge that it has".into(),
            Self::NotACount { most } => format!("from 1 to {most}"),
            Self::NotAHold { .. } => "a hold of 110 to 125 percent".into(),
            Self::NotOfABody { found, least, most, .. } => {
                let (least, most) = (least_beside(found, *least, tape), most_beside(found, *most, tape));
                format!("something from {least} to {most}")
            }
            Self::NoState => "one state of the garment or more".into(),
            Self::NoSuchState { .. } => "the id of one of its states".into(),
            Self::StateTwice { .. } => "each state once".into(),
            Self::NotMinutes { most, .. } => format!("from 1 to {most} minutes"),
            Self::NotADay { .. } => "1 for Monday to 7 for Sunday".into(),
            Self::NotASum => "nought or more, and less than ten million".into(),
            Self::NotOneEach { .. } => "one figure for every size".into(),
            Self::Falls { .. } => "sizes from the smallest up, with figures that do not fall".into(),
            Self::NotALine => "path data of one stroke, in mm".into(),
            Self::TooFarOff => "coordinates from -10 000 to 10 000 mm".into(),
            Self::OffEdge => "a place on its edge".into(),
            Self::WiderThan { found, length } => format!("{} at most", most_beside(found, *length, tape)),
            Self::NotClosed { .. } => "edges that each begin where the one before ends, once round".into(),
            Self::CrossesItself => "an outline that goes once round".into(),
            Self::NoTimeZone { .. } => "a name of the IANA time zone database, like Europe/London".into(),
            Self::NoCurrency => "a code of ISO 4217, like GBP".into(),
            Self::Circle { .. } => "tasks of which one can begin: take one of these wishes back".into(),
            Self::GateIsShut { .. } => {
                "a verdict on every side first, since this cannot be undone; or pass the try-on with a word why".into()
            }
            Self::NoWordWhy => "a word why: it is kept".into(),
            Self::NoSuchTask { .. } => "a task of the plan".into(),
            Self::NoGate { .. } => "a verdict on a try-on".into(),
            Self::NotSewn | Self::NotTheNewest => "the entry that made the newest state".into(),
            Self::CutAway => "one that cut nothing; what is left inside can be let out by a new change".into(),
            Self::OffTheLine { .. } => "a place on the line that was basted".into(),
        }
    }
}
