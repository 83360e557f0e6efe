//! Shown: one change as screens and files get it, in figures on a tape and in words.

use crate::change::{ChangeKey, Drawn, DrawnChange, Sides, SidesFrom, kinds};
use crate::figure::Strip;
use crate::fitting::{Edges, FrontShare, GarmentSide, How, Reading, SidePolicy, Suggestion};
use crate::garment::{Garment, Seam};
use crate::judge::{Subject, suggestion};
use crate::length::{Figure, Length, PerEdge, Tape};
use crate::told::edges_sum;
use serde::Serialize;
use utoipa::ToSchema;

/// One change, as it is shown.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedChange {
    /// Names it among the changes of a try-on, and its card.
    pub key: ChangeKey,
    /// What it is called on this garment.
    pub name: String,
    /// What it does comes to something.
    pub is_altered: bool,
    /// There is a card of it.
    pub has_card: bool,
    /// What there is to see of it.
    pub shows: Shows,
}

impl SolvedChange {
    /// Its line, where it is one: of a seam, or of a dart, whose edges are the two sides of its fold.
    pub fn line(&self) -> Option<&SolvedLine> {
        self.shows.line()
    }
}

macro_rules! shows {
    ($($(#[$doc:meta])* $Kind:ident in $folder:ident: $Input:ident, $Key:ident, $Drawn:ident;)+) => {
        /// What there is to see of a change, by its kind.
        #[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
        #[serde(rename_all = "snake_case")]
        pub enum Shows { $($(#[$doc])* $Kind(crate::change::$folder::Shown),)+ }

        impl Shows {
            /// Its line, where it is one.
            pub fn line(&self) -> Option<&SolvedLine> {
                match self { $(Self::$Kind(shown) => shown.as_line(),)+ }
            }
        }

        /// A change in figures and words.
        pub(crate) fn show(change: &DrawnChange<'_>, subject: &Subject<'_>, tape: Tape) -> SolvedChange {
            let shows = match change { $(DrawnChange::$Kind(drawn) => Shows::$Kind(drawn.show(subject, tape)),)+ };
            let has_card = match &shows { $(Shows::$Kind(shown) => shown.has_card(),)+ };
            let key = change.key();
            let name = key.name(subject.garment);
            SolvedChange { key, name, is_altered: change.is_altered(), has_card, shows }
        }
    };
}
kinds!(shows);

/// What a kind of change owes: how it is shown.
pub(crate) trait Show {
    /// What there is to see of it.
    type Shown: Shown;

    /// Its figures and words.
    fn show(&self, subject: &Subject<'_>, tape: Tape) -> Self::Shown;
}

/// What is shown of a change.
pub(crate) trait Shown {
    /// There is a card of it.
    fn has_card(&self) -> bool;

    /// As a line, if it is one.
    fn as_line(&self) -> Option<&SolvedLine> {
        None
    }
}

/// One altered seam, or pair of darts.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedLine {
    /// Where its stations are measured from: hem, crotch, sleeve hem, point.
    pub datum: String,
    /// Where it ends, away from its datum: waist, crotch.
    pub top: String,
    /// Its length.
    pub length: Figure,
    /// The allowance on each edge.
    pub allowance: Figure,
    /// How the sides were made to agree.
    pub sides: SidesResult,
    /// Where the line ends, in words, the datum's end first.
    pub ends: [String; 2],
    /// The lower end was not given and is assumed.
    pub lower_is_assumed: bool,
    /// The upper end was not given and is assumed.
    pub upper_is_assumed: bool,
    /// Where the lower end meets the old stitching or goes straight, when it does.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lower_station: Option<Figure>,
    /// Where the upper end meets the old stitching or goes straight, when it does.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub upper_station: Option<Figure>,
    /// How far a smooth line may pass beside a pin.
    pub tolerance: Figure,
    /// How far the seam moves around the body at its deepest, and which way; nothing when it stays.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub moves: Option<String>,
    /// How much of what is pinned here stays here, in percent; other seams take the rest.
    pub keeps_percent: u8,
    /// The seam that its line can carry on into at its top, in one pass, where the garment has it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub goes_on_into: Option<NamedSeam>,
    /// Where a pair of darts lies, in words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub place: Option<String>,
    /// It is one that the garment does not have yet, and so has to be placed.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub is_new: bool,
    /// What its two edges are called; what a reading calls front comes first.
    pub edges: [String; 2],
    /// How a pin on it can be measured.
    pub ways: Vec<WayToMeasure>,
    /// How long both edges are afterwards, in words.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub lengths: Vec<String>,
    /// The pins as read, in the document's order.
    pub pins: Vec<PinResult>,
    /// It has a new line.
    pub is_altered: bool,
    /// It has a left and a right, on which pins are; a seam down the middle has none.
    pub has_sides: bool,
    /// Both sides have the same line.
    pub sides_agree: bool,
    /// Front and back edge move by the same amount everywhere.
    pub edges_equal: bool,
    /// The drawing.
    pub strip: Strip,
}

impl Shown for SolvedLine {
    fn has_card(&self) -> bool {
        self.is_altered
    }

    fn as_line(&self) -> Option<&SolvedLine> {
        Some(self)
    }
}

/// A way to measure a pin on two edges with names.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct WayToMeasure {
    /// Which.
    pub how: How,
    /// In a list.
    pub label: String,
    /// In a word where there is no room.
    pub short: String,
    /// What the tape says, in a sentence.
    pub says: String,
}

/// The ways to measure a pin of a change.
pub fn ways_to_measure(change: ChangeKey) -> Vec<WayToMeasure> {
    let [one, other] = change.edges();
    let way = |how: &How| {
        let only = |edge: &str| {
            let short = edge.split(' ').next().unwrap_or(edge).to_owned();
            (format!("{edge} only"), short, format!("Taken from the {edge} edge only"))
        };
        let said = |label: &str, short: &str, says: &str| (label.into(), short.into(), says.into());
        let (label, short, says) = match how {
            How::Fold => {
                said("fold", "fold", "From the old seam to the pin on folded cloth: comes off each edge")
            }
            How::Whole => {
                said("whole pinch", "pinch", "All that is pinched out: shared between the two edges")
            }
            How::FrontPanel => only(one),
            How::BackPanel => only(other),
            How::Gap => {
                said("gap (let out)", "gap", "The gap that appears in the opened seam: let out altogether")
            }
        };
        WayToMeasure { how: *how, label, short, says }
    };
    let is_of_one = |how: &&How| matches!(how, How::FrontPanel | How::BackPanel);
    How::ALL.iter().filter(|how| change.has_panels() || !is_of_one(how)).map(way).collect()
}

/// A seam with its name on this garment.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct NamedSeam {
    /// Which.
    pub seam: Seam,
    /// What it is called.
    pub name: String,
}

/// How two sides were made to agree.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SidesResult {
    /// What was done, in words.
    pub words: String,
    /// The largest difference per edge between the sides.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub apart: Option<Figure>,
    /// Somebody has to decide; this is suggested.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub suggestion: Option<Suggestion>,
}

impl SidesResult {
    /// What was done with the sides of a change.
    pub(crate) fn of(sides: &Sides, change: ChangeKey, subject: &Subject<'_>, tape: Tape) -> Self {
        Self {
            words: sides_words(sides, subject.garment),
            apart: sides.apart.map(|(by, _)| tape.figure(by)),
            suggestion: sides.undecided.then(|| suggestion(subject, change)),
        }
    }
}

fn sides_words(sides: &Sides, garment: &Garment) -> String {
    let name = |seam: Seam| ChangeKey::Seam(seam).name(garment);
    match sides.from {
        SidesFrom::Nothing => "no pins yet".into(),
        SidesFrom::Shared(from, percent) => format!("{percent} % of what is pinned on the {}", name(from)),
        SidesFrom::Carried(from) => format!("carries on from the {}", name(from)),
        SidesFrom::Copied(side) => format!("{} pinned, {} copied from it", side.name(), side.other().name()),
        SidesFrom::Once => "one seam, without sides".into(),
        SidesFrom::By(_) if sides.not_beside.is_some() && sides.undecided => {
            "left and right are pinned at different places; each kept until you decide".into()
        }
        SidesFrom::By(_) if sides.undecided => "left and right disagree; each kept until you decide".into(),
        SidesFrom::By(policy) => match policy {
            SidePolicy::Mean => "the mean of left and right on both",
            SidePolicy::Larger => "the larger of left and right on both",
            SidePolicy::Smaller => "the smaller of left and right on both",
            SidePolicy::Left => "the left on both",
            SidePolicy::Right => "the right on both",
            SidePolicy::KeepEach => "each side as it was pinned",
        }
        .into(),
    }
}

/// A pin as it was read, against the line.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PinResult {
    /// The garment's side it was pinned on.
    pub side: GarmentSide,
    /// Where that was while pinning: "wearer’s right".
    pub seen_words: String,
    /// Where on the seam.
    pub station: Figure,
    /// What the tape said.
    pub amount: Figure,
    /// The same as it was typed, where that is finer than the marks of the tape.
    pub read: String,
    /// The offset at which the pin is drawn, off the edge it was measured on.
    pub drawn: Figure,
    /// What the amount changes by when the drawn offset changes by one: 1, 2 or −2, by how it was measured.
    pub amount_per_drawn: i8,
    /// Off the front edge.
    pub front: Figure,
    /// Off the back edge.
    pub back: Figure,
    /// What comes off each edge, in words: one figure, or one with the name of its edge for each.
    pub edges: String,
    /// Off altogether.
    pub whole: Figure,
    /// What is chalked there off each edge, and how far beside the pin that passes: `chalk 3.3 cm, 0.1 cm less`. Nothing where the line
    /// does not reach it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub chalked: Option<String>,
    /// How far what is chalked passes beside it, per edge; positive where it takes more.
    pub beside: Figure,
    /// It stands further from the line than the tolerance.
    pub stands_off: bool,
    /// How front, back and whole come from what the tape said.
    pub sum: String,
}

/// A line at a pin: what it takes there, how much of the pin stays on its seam, and how far it may pass beside.
pub(crate) struct LineAtPin {
    pub share: FrontShare,
    pub names: [&'static str; 2],
    pub keeps_percent: u8,
    pub takes: Edges,
    /// The same as it is chalked; nothing beyond the line.
    pub chalked: Option<Edges>,
    pub tolerance: Length,
}

/// What rounding of a curve leaves: a hundredth of a millimetre.
const ROUNDING: Length = Length::from_nm(10_000);

impl PinResult {
    /// A pin against the line that was drawn.
    pub(crate) fn of(reading: &Reading, line: &LineAtPin, subject: &Subject<'_>, tape: Tape) -> Self {
        let read = reading.edges(line.share);
        let kept = |edge: PerEdge| PerEdge(edge.0.fraction(i64::from(line.keeps_percent), 100));
        let kept = Edges { front: kept(read.front), back: kept(read.back) };
        let beside = |of: Edges, wanted: Edges| {
            let (front, back) = (of.front.0 - wanted.front.0, of.back.0 - wanted.back.0);
            if front.abs() >= back.abs() { front } else { back }
        };
        let wanted = read.chalked(tape);
        let passes = beside(line.chalked.unwrap_or_default(), kept.chalked(tape));
        Self {
            side: reading.side,
            seen_words: subject.put_on.seen_words(reading.side),
            station: tape.figure(reading.station.length),
            amount: tape.figure(reading.amount.length),
            read: format!("{} {}", tape.as_typed(reading.amount), tape.unit_name()),
            drawn: tape.figure(if reading.how == How::BackPanel { read.back.0 } else { read.front.0 }),
            amount_per_drawn: reading.how.amount_per_edge(),
            front: tape.figure(wanted.front.0),
            back: tape.figure(wanted.back.0),
            edges: edges_words(wanted, line.names, tape),
            whole: tape.figure(wanted.whole().0),
            chalked: line.chalked.map(|edges| chalked_words(edges, passes, line.names, tape)),
            beside: tape.figure(passes),
            stands_off: beside(line.takes, kept).abs() > line.tolerance + ROUNDING,
            sum: pin_sum(reading, wanted, line.names, tape),
        }
    }
}

/// What is chalked at a pin, and by how much that passes beside it.
fn chalked_words(edges: Edges, passes: Length, names: [&str; 2], tape: Tape) -> String {
    let chalked = edges_words(edges, names, tape);
    match passes {
        Length::ZERO => format!("chalk {chalked}"),
        less if less.is_negative() => format!("chalk {chalked}, {} less", tape.show(-less)),
        more => format!("chalk {chalked}, {} more", tape.show(more)),
    }
}

/// What comes off each edge: `1.6 cm`, or `1.0 front, 0.6 cm back`.
pub(crate) fn edges_words(edges: Edges, [one, other]: [&str; 2], tape: Tape) -> String {
    match edges.front == edges.back {
        true => tape.show(edges.front.0),
        false => format!("{} {one}, {} {other}", tape.bare(edges.front.0), tape.show(edges.back.0)),
    }
}

/// `1.6 from the old seam to the pin, folded: 2 edges × 1.6 = 3.2 cm altogether`.
fn pin_sum(reading: &Reading, edges: Edges, names: [&str; 2], tape: Tape) -> String {
    let [one, other] = names;
    let read = tape.as_typed(reading.amount);
    let how = match reading.how {
        How::Fold => "from the old seam to the pin, folded",
        How::Whole => "pinched out",
        How::FrontPanel => &format!("off the {one} edge only"),
        How::BackPanel => &format!("off the {other} edge only"),
        How::Gap => "gap of the opened seam, let out",
    };
    let left_over = match reading.how {
        How::Whole => edges.whole().0 - tape.round(reading.amount.length),
        How::Gap => -edges.whole().0 - tape.round(reading.amount.length),
        How::Fold | How::FrontPanel | How::BackPanel => Length::ZERO,
    };
    let than = match left_over {
        Length::ZERO => String::new(),
        over if over.is_negative() => format!(", {} less than was read", tape.show(-over)),
        over => format!(", {} more than was read", tape.show(over)),
    };
    format!("{read} {how}: {} altogether{than}", edges_sum(edges, 1, names, tape))
}
