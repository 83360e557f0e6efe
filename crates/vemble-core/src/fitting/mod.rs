//! The try-on: how the garment was worn, what was pinned where, and what else was seen. Readings stay as they were taken.

mod merge;
mod seen;
mod side;

#[cfg(test)]
mod tests;

pub use merge::{Apart, Prefer, merge};
pub use seen::{
    Around, Face, HemHow, HemMark, HowItWent, LeftOut, Movement, MovementTest, Observation, Seen, Shut,
    Verdict, Why,
};
pub use side::{GarmentSide, PinnedBy, WearerSide, Worn};

use crate::garment::{Dart, Seam};
use crate::length::{Length, Measure, PerEdge, Station, Tape, Whole, adjusted_words};
use crate::line::{End, Fairing, SidePolicy};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// How a pin was measured once the garment was off the body.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum How {
    /// From the old seam to the pin on folded cloth: r comes off each edge, 2r altogether.
    #[default]
    Fold,
    /// All that is pinched out: r altogether, shared between the edges.
    Whole,
    /// Taken from the front edge only, or the first of [`crate::garment::Seam::edges`]: r altogether.
    FrontPanel,
    /// Taken from the other edge only: r altogether.
    BackPanel,
    /// The gap that appears in an opened seam: r is let out altogether.
    Gap,
}

impl How {
    /// What the tape reads for one unit off an edge, where both edges share equally.
    pub const fn amount_per_edge(self) -> i8 {
        match self {
            Self::Fold | Self::FrontPanel | Self::BackPanel => 1,
            Self::Whole => 2,
            Self::Gap => -2,
        }
    }
}

/// One pin as it was read.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Reading {
    /// Made by whoever entered it; stays with the reading for good.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub id: Option<Uuid>,
    /// Which side of the garment.
    pub side: GarmentSide,
    /// How far from the hem, along the seam.
    pub station: Measure,
    /// What the tape said; never negative (a gap is let out).
    pub amount: Measure,
    /// How it was measured.
    pub how: How,
}

/// What comes off the front edge and the back edge at one station.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Edges {
    /// Off the front edge.
    pub front: PerEdge,
    /// Off the back edge.
    pub back: PerEdge,
}

impl Edges {
    /// Both edges together.
    pub fn whole(self) -> Whole {
        self.front + self.back
    }

    /// As a sewist says it where a word tells in from out.
    pub(crate) fn without_sign(self) -> Self {
        let turned = |edge: PerEdge| if self.whole().0.is_negative() { PerEdge(-edge.0) } else { edge };
        Self { front: turned(self.front), back: turned(self.back) }
    }

    /// How so many seams come to their whole: `2 edges × 1.6 = 3.2 cm`, `2 × 2 edges × 1.6 = 6.4 cm`, and with
    /// the names of its edges where they differ `front 1.0 + back 0.6 = 1.6 cm`.
    pub(crate) fn sum(self, seams: i64, names: [&str; 2], tape: Tape) -> String {
        format!("{} = {}", self.product(seams, names, tape), tape.show(self.whole().0 * seams))
    }

    /// The left side of [`Edges::sum`].
    fn product(self, seams: i64, [one, other]: [&str; 2], tape: Tape) -> String {
        let Self { front, back } = self;
        let whole = self.whole().0;
        if front == back {
            let each = tape.factor(front.0, 2 * seams, whole * seams);
            return if seams == 1 {
                format!("2 edges × {each}")
            } else {
                format!("{seams} × 2 edges × {each}")
            };
        }
        if seams == 1 {
            let (parts, adjusted) = tape.apportion(&[front.0, back.0]);
            let [front, back] = [tape.bare(parts[0]), tape.bare(parts[1])];
            format!("{one} {front} + {other} {back}{}", adjusted_words(adjusted))
        } else {
            let [front, back] = tape.factors([front.0, back.0], seams, whole * seams);
            format!("{seams} × ({one} {front} + {other} {back})")
        }
    }
}

/// How much of the whole comes off the front edge, in percent; 50 keeps the seam where it is on the body.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(try_from = "u8", into = "u8")]
#[schema(value_type = u8, maximum = 100)]
pub struct FrontShare(u8);

impl FrontShare {
    /// How much of `whole` comes off the front edge.
    fn front(self, whole: Whole) -> PerEdge {
        PerEdge(whole.0.fraction(i64::from(self.0), 100))
    }

    /// How far the seam moves around the body towards the back: (f − ½) × whole.
    pub fn moves(self, whole: Whole) -> Length {
        whole.0.fraction(i64::from(self.0) - 50, 100)
    }
}
impl Default for FrontShare {
    fn default() -> Self {
        Self(50)
    }
}
impl TryFrom<u8> for FrontShare {
    type Error = String;
    fn try_from(percent: u8) -> Result<Self, String> {
        if percent <= 100 {
            Ok(Self(percent))
        } else {
            Err(format!("{percent} is not a share; expected 0 to 100 percent"))
        }
    }
}
impl From<FrontShare> for u8 {
    fn from(share: FrontShare) -> u8 {
        share.0
    }
}

impl Reading {
    /// Where it is on the seam.
    pub const fn at(&self) -> Station {
        Station(self.station.length)
    }

    /// What the reading takes off each edge: the table of halving and doubling, once and for all.
    pub fn edges(&self, share: FrontShare) -> Edges {
        let r = self.amount.length;
        let shared = |whole: Whole| {
            let front = share.front(whole);
            Edges { front, back: PerEdge(whole.0 - front.0) }
        };
        match self.how {
            How::Fold => shared(PerEdge(r) + PerEdge(r)),
            How::Whole => shared(Whole(r)),
            How::FrontPanel => Edges { front: PerEdge(r), back: PerEdge::default() },
            How::BackPanel => Edges { front: PerEdge::default(), back: PerEdge(r) },
            How::Gap => shared(Whole(-r)),
        }
    }
}

/// What is done to one seam: its pins and how they become a line.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Alteration {
    /// Which seam is altered.
    pub seam: Seam,
    /// The pins, in the order they were read.
    #[serde(default)]
    pub readings: Vec<Reading>,
    /// How the two sides are made to agree; chosen from the readings when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sides: Option<SidePolicy>,
    /// How the line goes through the pins.
    #[serde(default)]
    pub fairing: Fairing,
    /// How far a smooth line may pass beside a pin; when absent 3 mm, or a sixth of the deepest pin where that is less.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tolerance: Option<Measure>,
    /// What happens at the lower end; meets the old stitching at a safe distance when absent, or runs off the edge where that is nearer.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lower: Option<End>,
    /// What happens at the other end; likewise when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub upper: Option<End>,
    /// How much of the whole comes off the front edge; half when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub front_share: Option<FrontShare>,
    /// Allowance to trim to, after the next try-on; everything is kept inside when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub trim_to: Option<Measure>,
    /// Other seams that take a share of what is pinned here; this seam keeps the rest.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub spread: Vec<SeamShare>,
}

/// A seam that takes a share of what is pinned on another.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SeamShare {
    /// Which seam.
    pub seam: Seam,
    /// How much of the whole, in percent.
    pub percent: u8,
}

impl Alteration {
    /// A seam with nothing pinned on it yet.
    pub const fn of(seam: Seam) -> Self {
        Self {
            seam,
            readings: Vec::new(),
            sides: None,
            fairing: Fairing::Smooth,
            tolerance: None,
            lower: None,
            upper: None,
            front_share: None,
            trim_to: None,
            spread: Vec::new(),
        }
    }
}

/// What was pinned on a pair of darts: what is added to the fold depth, with the point at 0. Of a dart with two points it is the upper
/// one. A dart that is let out has gaps.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DartPins {
    /// Which pair; one that the garment does not have yet is a new one.
    pub dart: Dart,
    /// The pins, in the order they were read.
    pub readings: Vec<Reading>,
    /// How the two sides are made to agree; chosen from the readings when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sides: Option<SidePolicy>,
    /// Of a new pair: how high above the hem its point lies, the upper one of two.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub point: Option<Measure>,
    /// Of a new pair: how high above the hem its other end lies, at a seam or edge, or the lower point of two.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub base: Option<Measure>,
    /// Of a new pair: how far each lies from its side seam.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from_side_seam: Option<Measure>,
}

impl DartPins {
    /// A pair of darts with nothing pinned on it yet.
    pub const fn of(dart: Dart) -> Self {
        Self { dart, readings: Vec::new(), sides: None, point: None, base: None, from_side_seam: None }
    }
}

/// Elastic drawn into a stretch of waistband, between two slits on its inside.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ElasticPlan {
    /// How long the casing runs, from slit to slit.
    pub casing: Measure,
    /// Stretched ÷ relaxed, in percent: 110 to 125, 115 when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hold_percent: Option<u8>,
}

/// A check that the sewist passes over, and why.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PassedOver {
    /// The check's key.
    pub check: String,
    /// A word why; kept with the try-on.
    pub why: String,
}

/// Changes that were tried out and kept under a name, beside those that are to be sewn.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Version {
    /// What it is called.
    pub name: String,
    /// Seam by seam.
    #[serde(default)]
    pub alterations: Vec<Alteration>,
    /// Dart by dart.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub darts: Vec<DartPins>,
    /// Elastic in the waistband.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub elastic: Option<ElasticPlan>,
}

/// One session of trying on and pinning.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TryOn {
    /// Made by whoever entered it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub id: Option<Uuid>,
    /// The day.
    #[schema(value_type = String, format = Date)]
    pub date: jiff::civil::Date,
    /// Right side out or inside out.
    #[serde(default)]
    pub worn: Worn,
    /// Who set the pins.
    #[serde(default)]
    pub pinned_by: PinnedBy,
    /// What is worn beneath.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub layers: String,
    /// The shoes it is worn with: hems are marked in them.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub shoes: String,
    /// How it was closed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shut: Option<Shut>,
    /// How the wearer stood, where that matters.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub posture: String,
    /// Whatever else matters, in the sewist's words.
    #[serde(default)]
    pub conditions: String,
    /// What was pinned, seam by seam.
    #[serde(default)]
    pub alterations: Vec<Alteration>,
    /// What was pinned on darts.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub darts: Vec<DartPins>,
    /// Elastic in the waistband.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub elastic: Option<ElasticPlan>,
    /// Other ways that were tried out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub versions: Vec<Version>,
    /// Checks that are passed over.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub passed_over: Vec<PassedOver>,
    /// Marks around hems.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub hem_marks: Vec<HemMark>,
    /// What the cloth did.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub observations: Vec<Observation>,
    /// How moving about went.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub movements: Vec<MovementTest>,
    /// Places that could not be reached, or are to be copied from their other side.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub left_out: Vec<LeftOut>,
    /// It is over: nobody who was invited adds to it any more.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub closed: bool,
}

/// What was meant by the sides that were entered, when it turns out that the garment was worn the other way out.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Meant {
    /// They were the garment's: a pin stays on its side of the garment.
    SidesOfGarment,
    /// They were the wearer's: a pin stays on its side of the wearer, and so moves to the garment's other side.
    SidesOfWearer,
}

impl TryOn {
    /// A try-on with nothing in it yet.
    pub fn on(date: jiff::civil::Date) -> Self {
        Self {
            id: None,
            date,
            worn: Worn::default(),
            pinned_by: PinnedBy::default(),
            layers: String::new(),
            shoes: String::new(),
            shut: None,
            posture: String::new(),
            conditions: String::new(),
            alterations: Vec::new(),
            darts: Vec::new(),
            elastic: None,
            versions: Vec::new(),
            passed_over: Vec::new(),
            hem_marks: Vec::new(),
            observations: Vec::new(),
            movements: Vec::new(),
            left_out: Vec::new(),
            closed: false,
        }
    }

    /// Every side that something was entered for.
    fn sides_mut(&mut self) -> impl Iterator<Item = &mut GarmentSide> {
        let pins = self.alterations.iter_mut().flat_map(|a| &mut a.readings);
        let of_darts = self.darts.iter_mut().flat_map(|d| &mut d.readings);
        let pins = pins.chain(of_darts).map(|r| &mut r.side);
        let hems = self.hem_marks.iter_mut().filter_map(|m| m.side.as_mut());
        let seen = self.observations.iter_mut().filter_map(|o| o.side.as_mut());
        pins.chain(hems).chain(seen).chain(self.left_out.iter_mut().map(|l| &mut l.side))
    }

    /// Every reading, of seams and of darts.
    pub fn readings(&self) -> impl Iterator<Item = &Reading> {
        let of_darts = self.darts.iter().flat_map(|d| &d.readings);
        self.alterations.iter().flat_map(|a| &a.readings).chain(of_darts)
    }
}
