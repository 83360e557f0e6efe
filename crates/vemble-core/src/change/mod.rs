//! Changes: what is done to a garment, as it was entered and as it is drawn.
//!
//! **A kind of change is one folder**, and one line of [`kinds`] with its `mod` and `use`. Its folder holds what is entered (`input`), its geometry, and, each in the
//! room of its name, its judgements (`judge`), its chalked rows, its sentences (`told`), its drawing, and its card. The traits of those
//! rooms name what a new kind owes; nothing else lists kinds.

pub mod armhole;
mod curve;
pub mod dart;
pub mod elastic;
pub mod gathers;
pub mod hem;
pub mod seam;
mod sides;
pub mod spacing;
pub mod trunk;

#[cfg(test)]
mod tests;

pub use curve::{Curve, Piece};
pub use sides::{AGREE_WITHIN, Sides, SidesFrom, reconcile};

use crate::body::Wearer;
use crate::fault::Wrong;
use crate::fitting::{Edges, GarmentSide, HemMark, Reading, SidePolicy};
use crate::garment::{Dart, Garment, HemEdge, LongEdge, Opening, Seam};
use crate::length::{Length, Station, Tape};
use crate::place::Level;
use armhole::{AlteredArmhole, ArmholeAt, ArmholeChange};
use dart::{AlteredDart, DartChange};
use elastic::{CasedElastic, ElasticAt, ElasticChange};
use gathers::{GatheredEdge, GathersChange};
use hem::{AlteredHem, HemChange};
use seam::{AlteredSeam, SeamChange};
use serde::{Deserialize, Serialize};
use spacing::{SpacedFastenings, SpacingChange};
use std::fmt;
use std::str::FromStr;
use trunk::{AlteredTrunk, TrunkAt, TrunkChange};
use utoipa::ToSchema;

/// The one list of kinds: its name, its folder, what is entered, what tells one from another, and what is drawn of it. In the order in
/// which sums name them.
macro_rules! kinds {
    ($callback:ident) => {
        $callback! {
            /// A seam.
            Seam in seam: SeamChange, Seam, AlteredSeam;
            /// A pair of darts.
            Dart in dart: DartChange, Dart, AlteredDart;
            /// Elastic in a band.
            Elastic in elastic: ElasticChange, ElasticAt, CasedElastic;
            /// An armhole and its sleeve.
            Armhole in armhole: ArmholeChange, ArmholeAt, AlteredArmhole;
            /// A hem.
            Hem in hem: HemChange, HemEdge, AlteredHem;
            /// Fastenings along an opening.
            Spacing in spacing: SpacingChange, Opening, SpacedFastenings;
            /// A length of the trunk.
            Trunk in trunk: TrunkChange, TrunkAt, AlteredTrunk;
            /// Gathers and pleats.
            Gathers in gathers: GathersChange, LongEdge, GatheredEdge;
        }
    };
}
pub(crate) use kinds;

/// What everything that is entered for a kind of change can do.
pub(crate) trait Input: Sized {
    /// What tells changes of this kind from each other.
    type Key: Copy;

    /// With nothing entered yet.
    fn of(key: Self::Key) -> Self;

    /// Which change it is.
    fn key(&self) -> Self::Key;

    /// What the change is called on this garment.
    fn name(garment: &Garment, key: Self::Key) -> String;

    /// Whether this garment can have it.
    fn fits(garment: &Garment, key: Self::Key) -> bool;

    /// What its pins' stations are measured from, and what its two edges are called.
    fn reads_from(key: Self::Key) -> (&'static str, [&'static str; 2]);

    /// What its edges are where both are alike.
    const EDGES: &'static str = "edges";

    /// Its edges are of different panels: a pin can be of one of them only.
    const HAS_PANELS: bool = true;

    /// A place of it can be said to be out of reach, or to be copied later.
    const MAY_BE_LEFT_OUT: bool = false;

    /// It is there once, in the middle, and has no sides.
    fn is_single(_key: Self::Key) -> bool {
        false
    }

    /// What its stations are measured from, as one says it: "the hem".
    fn from_words(key: Self::Key) -> String {
        format!("the {}", Self::reads_from(key).0)
    }

    /// Its pins, in the order they were read.
    fn readings(&self) -> &[Reading] {
        &[]
    }

    /// Its pins, to be changed one by one.
    fn readings_mut(&mut self) -> &mut [Reading] {
        &mut []
    }

    /// Puts other pins in place of its own; what has none keeps none.
    fn set_readings(&mut self, _readings: Vec<Reading>) {}

    /// How its two sides are made to agree, where somebody said so.
    fn policy_mut(&mut self) -> Option<&mut SidePolicy> {
        None
    }
}

/// What changes are drawn on: a garment on its wearer, with the marks around its hems.
#[derive(Clone, Copy)]
pub(crate) struct On<'a> {
    pub garment: &'a Garment,
    pub wearer: &'a Wearer,
    pub hem_marks: &'a [HemMark],
    /// All of an allowance stays inside, whatever it was to be trimmed to.
    pub keeps_all: bool,
}

/// What everything that is drawn of a kind of change can do, without a tape.
pub(crate) trait Drawn {
    /// What it does comes to something.
    fn is_altered(&self) -> bool;

    /// What it takes off a level, or so far `up` from it: from whole girths, from either leg, from either sleeve.
    fn takes(
        &self,
        garment: &Garment,
        level: Level,
        up: Length,
        sides: &[GarmentSide],
        tape: Tape,
    ) -> Vec<Term>;

    /// Left and right are the same.
    fn sides_agree(&self) -> bool {
        true
    }
}

/// What one change takes off a level.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Term {
    /// Which change.
    pub change: ChangeKey,
    /// On which side, where both are not the same.
    pub side: Option<GarmentSide>,
    /// How often it is there: both of a pair count together where they take the same.
    pub times: i64,
    /// What comes off the two edges of one of them.
    pub edges: Edges,
}

impl Term {
    /// What comes off altogether.
    pub fn off(&self) -> Length {
        self.edges.whole().0 * self.times
    }

    /// One term for what is the same on all `sides`, else one for each.
    pub fn of_sides(
        change: ChangeKey,
        sides: &[GarmentSide],
        takes: impl Fn(GarmentSide) -> Edges,
    ) -> Vec<Self> {
        let at: Vec<Edges> = sides.iter().map(|side| takes(*side)).collect();
        match at.first() {
            Some(&edges) if at.iter().all(|other| *other == edges) => {
                vec![Self { change, side: None, times: at.len() as i64, edges }]
            }
            _ => sides
                .iter()
                .zip(at)
                .map(|(side, edges)| Self { change, side: Some(*side), times: 1, edges })
                .collect(),
        }
    }
}

/// What is wrong with changes: the number of the change, the path of the field below it, and why.
pub(crate) type Wrongs = Vec<(usize, String, Wrong)>;

macro_rules! define {
    ($($(#[$doc:meta])* $Kind:ident in $folder:ident: $Input:ident, $Key:ident, $Drawn:ident;)+) => {
        /// Something that is done to a garment, as it was entered.
        #[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema, strum::IntoStaticStr)]
        #[serde(rename_all = "snake_case")]
        #[strum(serialize_all = "snake_case")]
        pub enum Change { $($(#[$doc])* $Kind($Input),)+ }

        $(impl From<$Input> for Change {
            fn from(input: $Input) -> Self {
                Self::$Kind(input)
            }
        })+

        /// Which change: `seam.outseam`, `dart.back_waist`, `elastic.waistband`.
        #[derive(
            Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, strum::IntoStaticStr,
        )]
        #[serde(try_from = "String", into = "String")]
        #[strum(serialize_all = "snake_case")]
        pub enum ChangeKey { $($(#[$doc])* $Kind($Key),)+ }

        /// A change as it is drawn.
        #[derive(Clone, Debug)]
        #[expect(clippy::large_enum_variant, reason = "a handful at a time, most of them seams")]
        pub(crate) enum DrawnChange<'a> { $($(#[$doc])* $Kind($Drawn<'a>),)+ }

        impl fmt::Display for ChangeKey {
            fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
                let kind: &'static str = self.into();
                match self { $(Self::$Kind(key) => write!(f, "{kind}.{}", key.word()),)+ }
            }
        }

        impl FromStr for ChangeKey {
            type Err = String;
            fn from_str(text: &str) -> Result<Self, String> {
                let unknown = || format!("“{text}” is no change; expected a kind and a name, like seam.outseam");
                let (kind, name) = text.split_once('.').ok_or_else(unknown)?;
                match kind {
                    $(stringify!($folder) => name.parse().map(Self::$Kind).map_err(|_| unknown()),)+
                    _ => Err(unknown()),
                }
            }
        }

        impl ChangeKey {
            /// Every change there could be, whatever the garment.
            pub fn all() -> impl Iterator<Item = Self> {
                std::iter::empty()$(.chain($Key::ALL.iter().copied().map(Self::$Kind)))+
            }

            /// What it is called on this garment.
            pub fn name(self, garment: &Garment) -> String {
                match self { $(Self::$Kind(key) => <$Input as Input>::name(garment, key),)+ }
            }

            /// Whether this garment can have it.
            pub fn fits(self, garment: &Garment) -> bool {
                match self { $(Self::$Kind(key) => <$Input as Input>::fits(garment, key),)+ }
            }

            /// What its pins' stations are measured from.
            pub fn datum(self) -> &'static str {
                match self { $(Self::$Kind(key) => <$Input as Input>::reads_from(key).0,)+ }
            }

            /// What its stations are measured from, as one says it: "the hem", "its point".
            pub fn from_words(self) -> String {
                match self { $(Self::$Kind(key) => <$Input as Input>::from_words(key),)+ }
            }

            /// It is there once, in the middle, and has no sides.
            pub fn is_single(self) -> bool {
                match self { $(Self::$Kind(key) => <$Input as Input>::is_single(key),)+ }
            }

            /// A place of it can be said to be out of reach, or to be copied later.
            pub fn may_be_left_out(self) -> bool {
                match self { $(Self::$Kind(_) => <$Input as Input>::MAY_BE_LEFT_OUT,)+ }
            }

            /// Its edges are of different panels: a pin can be of one of them only.
            pub fn has_panels(self) -> bool {
                match self { $(Self::$Kind(_) => <$Input as Input>::HAS_PANELS,)+ }
            }

            /// What its edges are where both are alike: "edges", "sides of the fold".
            pub fn edge_word(self) -> &'static str {
                match self { $(Self::$Kind(_) => <$Input as Input>::EDGES,)+ }
            }

            /// What its two edges are called; what a reading calls front comes first.
            pub fn edges(self) -> [&'static str; 2] {
                match self { $(Self::$Kind(key) => <$Input as Input>::reads_from(key).1,)+ }
            }
        }

        impl Change {
            /// A change with nothing entered yet.
            pub fn of(key: ChangeKey) -> Self {
                match key { $(ChangeKey::$Kind(key) => Self::$Kind(<$Input as Input>::of(key)),)+ }
            }

            /// Which change it is.
            pub fn key(&self) -> ChangeKey {
                match self { $(Self::$Kind(change) => ChangeKey::$Kind(change.key()),)+ }
            }

            /// Its pins, in the order they were read.
            pub fn readings(&self) -> &[Reading] {
                match self { $(Self::$Kind(change) => change.readings(),)+ }
            }

            /// Its pins, to be changed one by one.
            pub fn readings_mut(&mut self) -> &mut [Reading] {
                match self { $(Self::$Kind(change) => change.readings_mut(),)+ }
            }

            /// Puts other pins in place of its own.
            pub fn set_readings(&mut self, readings: Vec<Reading>) {
                match self { $(Self::$Kind(change) => change.set_readings(readings),)+ }
            }

            /// How its two sides are made to agree, where somebody said so.
            pub(crate) fn policy_mut(&mut self) -> Option<&mut SidePolicy> {
                match self { $(Self::$Kind(change) => change.policy_mut(),)+ }
            }
        }

        impl DrawnChange<'_> {
            /// Which change it is.
            pub fn key(&self) -> ChangeKey {
                match self { $(Self::$Kind(drawn) => ChangeKey::$Kind(drawn.key()),)+ }
            }
        }

        impl Drawn for DrawnChange<'_> {
            fn is_altered(&self) -> bool {
                match self { $(Self::$Kind(drawn) => drawn.is_altered(),)+ }
            }

            fn takes(&self, garment: &Garment, level: Level, up: Length, sides: &[GarmentSide], tape: Tape) -> Vec<Term> {
                match self { $(Self::$Kind(drawn) => drawn.takes(garment, level, up, sides, tape),)+ }
            }

            fn sides_agree(&self) -> bool {
                match self { $(Self::$Kind(drawn) => drawn.sides_agree(),)+ }
            }
        }

        /// Draws all changes of a try-on together, kind by kind: those that were entered, then what they bring
        /// to others.
        ///
        /// # Errors
        /// Every one that cannot be, with the number of its change and the path of its field below that.
        pub(crate) fn draw<'a>(
            on: On<'a>,
            changes: &'a [Change],
        ) -> Result<Vec<DrawnChange<'a>>, Wrongs> {
            let (mut all, mut faults) = (Vec::new(), Vec::new());
            $(
                let own = changes.iter().enumerate();
                let own: Vec<(usize, &$Input)> = own
                    .filter_map(|(n, change)| if let Change::$Kind(input) = change { Some((n, input)) } else { None })
                    .collect();
                match $folder::draw(on, &own) {
                    Ok(drawn) => all.extend(drawn.into_iter().map(DrawnChange::$Kind)),
                    Err(wrong) => faults.extend(wrong),
                }
            )+
            if faults.is_empty() { Ok(all) } else { Err(faults) }
        }
    };
}
kinds!(define);

impl Change {
    /// Puts it among others, in place of the one of its key; what has nothing entered yet gets a place at the end.
    pub fn put_among(self, changes: &mut Vec<Self>) {
        match changes.iter_mut().find(|change| change.key() == self.key()) {
            Some(place) => *place = self,
            None => changes.push(self),
        }
    }
}

impl From<ChangeKey> for String {
    fn from(key: ChangeKey) -> Self {
        key.to_string()
    }
}

impl TryFrom<String> for ChangeKey {
    type Error = String;
    fn try_from(text: String) -> Result<Self, String> {
        text.parse()
    }
}

impl utoipa::PartialSchema for ChangeKey {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        utoipa::openapi::ObjectBuilder::new()
            .schema_type(utoipa::openapi::schema::Type::String)
            .description(Some("Which change: a kind and a name, like `seam.outseam`."))
            .pattern(Some("^[a-z_]+\\.[a-z_]+$"))
            .examples(["seam.outseam"])
            .build()
            .into()
    }
}
impl ToSchema for ChangeKey {}

/// What is wrong with pins, whatever they are on: each with its path below the change. `length` is how far stations go; what `is_single` has
/// one pin at a station, whichever its side.
pub(crate) fn wrong_readings(
    readings: &[Reading],
    length: Length,
    datum: &'static str,
    is_single: bool,
) -> Vec<(String, Wrong)> {
    let mut faults = Vec::new();
    for (n, reading) in readings.iter().enumerate() {
        let mut fault = |field: &str, wrong| faults.push((format!("readings[{n}].{field}"), wrong));
        let found = reading.station;
        let same = |other: &Reading| (is_single || other.side == reading.side) && other.at() == reading.at();
        if found.length.is_negative() {
            fault("station", Wrong::OffDatum { found, datum });
        } else if found.length > length {
            fault("station", Wrong::OffEnd { found, length, datum });
        } else if let Some(first) = readings[..n].iter().position(same) {
            let side = (!is_single).then_some(reading.side);
            fault("station", Wrong::SameStation { found, side, first });
        }
        if reading.amount.length.is_negative() {
            fault("amount", Wrong::Negative { found: reading.amount });
        }
    }
    faults
}

/// Below this nothing is altered: a tenth of the finest mark there is.
pub(crate) const UNSEEN: Length = Length::from_nm(100_000);

/// `(station, value)` points in their order, in cm, where those less than [`UNSEEN`] from the one before are one with it: no cloth can be
/// sewn to two values there, and no curve be computed through them. It has the first one's station and the mean of their values; of those
/// beside `from` and `to` the station is that end's.
pub(crate) fn joined(points: &[(f64, f64)], [from, to]: [f64; 2]) -> Vec<(f64, f64)> {
    let is_near = |a: f64, b: f64| (a - b).abs() < UNSEEN.cm();
    let at = |s: f64| [from, to].into_iter().find(|end| is_near(s, *end)).unwrap_or(s);
    let places = points.chunk_by(|a, b| is_near(at(a.0), at(b.0)));
    let mean = |place: &[(f64, f64)]| place.iter().map(|p| p.1).sum::<f64>() / place.len() as f64;
    places.map(|place| (at(place[0].0), mean(place))).collect()
}

/// Half of that: what rounding of a curve leaves where it should be nought.
pub(crate) const NOUGHT: Length = Length::from_nm(50_000);

/// A pin with what it takes off each edge, after the sides were made to agree.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Pin {
    /// Where on the seam.
    pub station: Station,
    /// What it takes off.
    pub edges: Edges,
}
