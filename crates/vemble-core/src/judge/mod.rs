//! Judged: what is found out about a set of changes, in exact types. A finding has a key, an outcome, its figures, and what would mend it
//! as a change; sentences are made of it later, in `told`, and never read back.
//!
//! A rule about one change stands in that change's folder; a rule about the garment as a whole has a file here.

mod ease;
mod girth;
mod hang;
mod movement;
mod opening;
mod turned;

#[cfg(test)]
pub(crate) mod tests;

pub(crate) use ease::Ease;
pub use girth::{EaseWord, LevelOf};
pub(crate) use girth::{Girth, girth_at, girths};
pub(crate) use hang::Hang;
pub(crate) use movement::{Moving, Reaching};
pub(crate) use opening::{Part, Passing};
pub(crate) use turned::Turned;

use crate::body::{BodyMeasurement, Limb, Wearer};
use crate::change::{Change, ChangeKey, Drawn, DrawnChange, kinds, seam::AlteredSeam};
use crate::choice::choice;
use crate::fitting::{EndOf, GarmentSide, PutOn, Suggestion};
use crate::garment::{Dart, Garment, HemEdge, Run, Seam};
use crate::length::{Length, Measure, Station, Tape};
use crate::place::Level;
use crate::work::Schools;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// How a check came out.
    Outcome {
        /// Nothing against it.
        Passes => "passes",
        /// It can be done; know this first.
        Caution => "caution",
        /// Not like this, unless the sewist knows better.
        Stop => "stop",
    }
}

choice! {
    /// Which rule was applied; in the order in which findings of one gravity are told.
    Rule {
        /// The two sides agree, or somebody decided.
        Sides => "left and right",
        /// What an uneven body asked for inside out lies on the garment's other side.
        Turned => "inside out",
        /// Ease at a level, now and after.
        Ease => "ease",
        /// Sitting and bending.
        Movement => "movement",
        /// A body part goes through an opening.
        Opening => "openings",
        /// The line runs out gently enough.
        RunOut => "run-out",
        /// No kink between two pins.
        Kink => "bends",
        /// What the slope does where nobody pinned.
        /// Is found no more; documents that passed it over are read all the same.
        CarriedOn => "carried on",
        /// What the seam can give when let out.
        Capacity => "what it can give",
        /// What stays inside after taking in.
        Kept => "what stays inside",
        /// Pockets, loops and crossings.
        InTheWay => "in the way",
        /// Grain and hang.
        Hang => "grain and hang",
        /// What is sewn to an altered edge still fits it.
        Partners => "partners",
        /// How deep one fold may be.
        Depth => "depth",
        /// Where a dart ends on the body.
        Placement => "where it ends",
        /// How much cloth elastic gathers.
        Gathers => "gathers",
        /// How far the marks around a hem agree.
        Level => "level edge",
        /// What a mark lacks.
        Marks => "marks",
        /// How two readings of one mark differ.
        Readings => "readings",
        /// How much fuller a turned-up edge is than what it lies on.
        Fullness => "fullness",
        /// What unwashed cloth loses of a finished length.
        Shrinkage => "shrinkage",
        /// How thick a turned-up edge gets.
        Bulk => "bulk",
        /// What an old fold leaves behind.
        Crease => "old crease",
        /// How far fastenings stand apart.
        Spacing => "spacing",
    }
}

/// Names a finding among all findings of a try-on, and from one day to the next: never by its words. What is passed over is known by it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FindingKey {
    /// Which rule.
    pub rule: Rule,
    /// About which change, if it is about one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub change: Option<ChangeKey>,
    /// At which level, if at one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub level: Option<Level>,
    /// On which side of the garment, where both are not the same.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<GarmentSide>,
    /// At which end of the altered stretch.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub end: Option<EndOf>,
    /// Which of several things along a seam: the one that begins here.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Measure>,
    /// Which partner of an edge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub partner: Option<Partner>,
}

choice! {
    /// What is sewn to an altered edge.
    Partner {
        /// The other edge of the same seam.
        OtherEdge => "other edge",
        /// The sleeve, at its armhole.
        Sleeve => "sleeve",
        /// The waistband or what stands in its place.
        Band => "band",
        /// The lining.
        Lining => "lining",
        /// The seam that a dart ends in.
        Seam => "seam",
        /// The pair of pockets that it comes between.
        Pockets => "pockets",
        /// The edge that it is trimmed to.
        CutLine => "cut line",
        /// The edge that it ends in.
        EndsIn => "edge it ends in",
        /// What closes, lies just above or is sewn to the edge.
        AtTheEdge => "what lies at the edge",
        /// The edge as such, where it cannot be cut.
        TheEdge => "edge itself",
        /// What the turned-up cloth comes near to.
        AboveTheEdge => "what lies above the edge",
        /// A vent or slit that is there.
        Vent => "vent",
        /// A slit that is new.
        Slit => "slit",
        /// The top of the sleeve.
        Cap => "cap",
        /// What carries the garment where it is worn.
        Beneath => "what is worn beneath",
    }
}

impl FindingKey {
    /// Of a rule about the garment as a whole.
    pub const fn of(rule: Rule) -> Self {
        Self { rule, change: None, level: None, side: None, end: None, at: None, partner: None }
    }

    /// It names the same finding, however its place was written.
    pub fn is(&self, other: &Self) -> bool {
        let place = |key: &Self| (key.at.map(|at| at.length), Self { at: None, ..*key });
        place(self) == place(other)
    }

    /// Of a rule about one change.
    pub const fn about(rule: Rule, change: ChangeKey) -> Self {
        Self { change: Some(change), ..Self::of(rule) }
    }
}

/// What a rule found.
#[derive(Clone, Debug)]
pub(crate) struct Finding {
    pub key: FindingKey,
    pub outcome: Outcome,
    /// The figures that it rests on.
    pub facts: Facts,
    /// Where on a seam it is about.
    pub station: Option<Station>,
    /// What would mend it, where that is something that could be made: changes in place of those there are, or beside them.
    pub mend: Vec<Change>,
}

impl Finding {
    pub fn new(key: FindingKey, outcome: Outcome, facts: impl Into<Facts>) -> Self {
        Self { key, outcome, facts: facts.into(), station: None, mend: Vec::new() }
    }

    pub fn at(mut self, station: Station) -> Self {
        self.station = Some(station);
        self
    }

    /// Mended by this change, which is made only where it does not pass.
    pub fn mended<M: IntoIterator<Item = Change>>(mut self, mend: impl FnOnce() -> M) -> Self {
        if self.outcome != Outcome::Passes {
            self.mend = mend().into_iter().collect();
        }
        self
    }
}

macro_rules! facts {
    ($($(#[$doc:meta])* $Kind:ident in $folder:ident: $Input:ident, $Key:ident, $Drawn:ident;)+) => {
        /// The figures that a finding rests on, as types.
        #[derive(Clone, Debug)]
        pub(crate) enum Facts {
            /// How the two sides of a change were made to agree.
            Sides(TwoSides),
            /// Ease at a level.
            Ease(Ease),
            /// A level of which nothing is left.
            Gone(Girth),
            /// Moving, at a level.
            Moving(Moving),
            /// Reaching forward, across the back.
            Reaching(Reaching),
            /// A body part through an opening.
            Passing(Passing),
            /// Too much at one place of the whole.
            Hang(Hang),
            /// Pinned inside out on an uneven body.
            Turned(Turned),
            $($(#[$doc])* $Kind(crate::change::$folder::Found),)+
        }

        $(impl From<crate::change::$folder::Found> for Facts {
            fn from(found: crate::change::$folder::Found) -> Self {
                Self::$Kind(found)
            }
        })+

        impl Judge for DrawnChange<'_> {
            fn judge(&self, subject: &Subject<'_>) -> Vec<Finding> {
                match self { $(Self::$Kind(drawn) => drawn.judge(subject),)+ }
            }
        }
    };
}
kinds!(facts);

/// A run-out by its length for what is taken where it starts: safe at the cloth's figure, may poke down to half of it, will poke below.
pub(crate) fn runs_out(run: Length, offset: Length, safe: i64) -> Outcome {
    match () {
        () if run >= offset * safe => Outcome::Passes,
        () if run * 2 >= offset * safe => Outcome::Caution,
        () => Outcome::Stop,
    }
}

/// What a kind of change owes: its own judgements.
pub(crate) trait Judge {
    /// Everything there is to find out about this change.
    fn judge(&self, subject: &Subject<'_>) -> Vec<Finding>;
}

/// How two sides that were pinned differ.
#[derive(Clone, Copy, Debug)]
pub(crate) enum Differ {
    /// By so much on each edge at most, there.
    By(Length, Station),
    /// Nothing can be compared: left and right are pinned from here to there, nowhere beside each other.
    NotBeside([(Station, Station); 2]),
}

/// Two sides that were pinned, and how far they are apart.
#[derive(Clone, Debug)]
pub(crate) struct TwoSides {
    pub differ: Differ,
    /// Nobody has decided, and they are further apart than pins wobble.
    pub undecided: bool,
    /// No further than pins wobble.
    pub is_wobble: bool,
    /// What may explain it, noted of the wearer.
    pub explained: Option<String>,
}

impl TwoSides {
    /// What is found out about the two sides of a change; nothing where only one was pinned.
    pub fn judge(
        subject: &Subject<'_>,
        change: ChangeKey,
        sides: &crate::change::Sides,
        kept_each: impl FnOnce() -> Change,
    ) -> Option<Finding> {
        let (differ, station) = match (sides.apart, sides.not_beside) {
            (Some((by, at)), _) => (Differ::By(by, at), at),
            (None, Some(reach)) => (Differ::NotBeside(reach), reach[0].0),
            (None, None) => return None,
        };
        let outcome = if sides.undecided { Outcome::Stop } else { Outcome::Passes };
        let explained = subject.wearer.explains_a_difference(subject.limb_of(change));
        let keep = explained.is_some();
        let facts = Facts::Sides(Self {
            differ,
            undecided: sides.undecided,
            is_wobble: sides.agree_by_themselves(),
            explained,
        });
        let finding = Finding::new(FindingKey::about(Rule::Sides, change), outcome, facts).at(station);
        Some(finding.mended(|| keep.then(kept_each)))
    }
}

/// What all rules look at: a garment on its wearer, with what is chalked on it at the marks of a tape.
#[derive(Clone, Copy)]
pub(crate) struct Subject<'a> {
    pub garment: &'a Garment,
    pub wearer: &'a Wearer,
    pub changes: &'a [DrawnChange<'a>],
    pub put_on: PutOn,
    /// How it is sewn, where practitioners differ.
    pub schools: Schools,
    pub tape: Tape,
}

impl<'a> Subject<'a> {
    /// The garment as it is, with nothing changed.
    pub fn as_it_is(garment: &'a Garment, wearer: &'a Wearer, tape: Tape) -> Self {
        Self { garment, wearer, changes: &[], put_on: PutOn::default(), schools: Schools::default(), tape }
    }

    /// A measurement of the wearer at the marks of the tape, if it is known.
    pub fn body(&self, what: BodyMeasurement) -> Option<Length> {
        self.wearer.get(what).map(|length| self.tape.round(length))
    }

    /// Which part of the body a change lies on.
    pub fn limb_of(&self, change: ChangeKey) -> Limb {
        match change {
            ChangeKey::Seam(Seam::Outseam | Seam::Inseam) if self.garment.has_legs() => Limb::Leg,
            ChangeKey::Seam(seam) if seam.run() == Run::DownSleeve => Limb::Arm,
            ChangeKey::Seam(Seam::ShoulderSeam | Seam::ArmholeSeam) | ChangeKey::Dart(Dart::Shoulder) => {
                Limb::Shoulder
            }
            ChangeKey::Armhole(_) => Limb::Shoulder,
            ChangeKey::Hem(HemEdge::Leg) => Limb::Leg,
            ChangeKey::Hem(HemEdge::Sleeve) => Limb::Arm,
            ChangeKey::Seam(_)
            | ChangeKey::Dart(_)
            | ChangeKey::Elastic(_)
            | ChangeKey::Hem(_)
            | ChangeKey::Spacing(_)
            | ChangeKey::Trunk(_)
            | ChangeKey::Gathers(_) => Limb::Trunk,
        }
    }

    /// Every hem that is drawn.
    pub fn hems(&self) -> impl Iterator<Item = &'a crate::change::hem::AlteredHem<'a>> + use<'a> {
        self.changes
            .iter()
            .filter_map(|change| if let DrawnChange::Hem(hem) = change { Some(hem) } else { None })
    }

    /// Every seam that is drawn.
    pub fn seams(&self) -> impl Iterator<Item = &'a AlteredSeam<'a>> + use<'a> {
        seams(self.changes)
    }

    /// Every pair of darts that is drawn.
    pub fn darts(&self) -> impl Iterator<Item = &'a crate::change::dart::AlteredDart<'a>> + use<'a> {
        self.changes
            .iter()
            .filter_map(|change| if let DrawnChange::Dart(dart) = change { Some(dart) } else { None })
    }

    /// Left and right are the same all over.
    pub fn is_symmetric(&self) -> bool {
        self.changes.iter().all(Drawn::sides_agree)
    }
}

/// The seams among changes: what crosses, carries on or is sewn to another edge is one.
pub(crate) fn seams<'a>(
    changes: &'a [DrawnChange<'a>],
) -> impl Iterator<Item = &'a AlteredSeam<'a>> + use<'a> {
    changes.iter().filter_map(|change| if let DrawnChange::Seam(seam) = change { Some(seam) } else { None })
}

/// Everything that is found out about a set of changes, the gravest first, then rule by rule.
pub(crate) fn judge(subject: &Subject<'_>, girths: &[Girth]) -> Vec<Finding> {
    let mut all = judge_in_turn(subject, girths);
    all.sort_by_key(|finding| (std::cmp::Reverse(finding.outcome), finding.key.rule));
    all
}

/// The same, change by change and then the garment as a whole.
pub(crate) fn judge_in_turn(subject: &Subject<'_>, girths: &[Girth]) -> Vec<Finding> {
    let mut all: Vec<Finding> = subject.changes.iter().flat_map(|change| change.judge(subject)).collect();
    all.extend(turned::judge(subject));
    all.extend(ease::judge(subject, girths));
    all.extend(movement::judge(subject, girths));
    all.extend(movement::reaching(subject));
    all.extend(opening::judge(subject, girths));
    all.extend(hang::judge(subject));
    all
}

/// What to do about two sides of a change that disagree: keep them where what is known of the wearer there explains it, else pin again.
pub(crate) fn suggestion(subject: &Subject<'_>, change: ChangeKey) -> Suggestion {
    match subject.wearer.explains_a_difference(subject.limb_of(change)) {
        None => Suggestion::PinAgain,
        Some(_) => Suggestion::KeepEach,
    }
}
