//! The words of every choice that a screen offers: the word in documents, and how it is said.

use crate::body::Posture;
use crate::change::armhole::ArmholeField;
use crate::change::hem::{Cutting, HemLandmark, HemShape, ShortenedAt, SlitAt};
use crate::change::spacing::Spaced;
use crate::fitting::{
    Around, EndOf, Face, Fairing, HemHow, How, HowItWent, Movement, PinnedBy, Seen, Shut, SidePolicy, Sign,
    Verdict, WearerSide, Worn,
};
use crate::garment::GatherHow;
use crate::garment::{Dart, Drape, Frays, Heat, HemEdge, HemTurn, Seam, Weight};
use crate::judge::{EaseWord, LevelOf, Outcome, Rule};
use crate::place::{Level, Structure};
use crate::try_on::Why;
use crate::work::{
    AllowanceIs, DartEnd, Fullness, MarkSettled, OpensAt, PieceDoes, PieceFace, SewnBy, SleeveSet, Step,
    SupplyKind, Worthy,
};
use serde::Serialize;
use utoipa::ToSchema;

/// One variant of a choice.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Word {
    /// Its word in documents.
    pub value: &'static str,
    /// How it is said.
    pub words: &'static str,
}

macro_rules! many_words {
    ($($(#[$doc:meta])* $field:ident: $Choice:ident,)+) => {
        /// The words of every choice.
        #[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
        pub struct ManyWords { $($(#[$doc])* pub $field: Vec<Word>,)+ }

        /// The words of every choice that a screen offers.
        pub fn words() -> ManyWords {
            ManyWords {
                $($field: $Choice::ALL.iter().map(|c| Word { value: c.word(), words: c.name() }).collect(),)+
            }
        }
    };
}
many_words! {
    /// What can be done to a piece.
    piece_does: PieceDoes,
    /// When a mark is settled.
    mark_settled: MarkSettled,
    /// Where a piece lies.
    piece_face: PieceFace,
    /// Where a wedge is opened.
    opens_at: OpensAt,
    /// What becomes of a dart that is not stitched.
    fullness: Fullness,
    /// What stays true of how a wearer stands.
    posture: Posture,
    /// Levels of body and sleeve.
    level: Level,
    /// Whose girth a level is.
    level_of: LevelOf,
    /// Ease, in a word.
    ease: EaseWord,
    /// Seams.
    seam: Seam,
    /// Darts.
    dart: Dart,
    /// Sides as a wearer has them.
    side: WearerSide,
    /// Which way out it was worn.
    worn: Worn,
    /// Who pinned.
    pinned_by: PinnedBy,
    /// How it was closed.
    shut: Shut,
    /// How a pin was measured.
    how: How,
    /// Why a place has no pin.
    why: Why,
    /// The two ends of a line.
    end_of: EndOf,
    /// How a line goes through its pins.
    fairing: Fairing,
    /// How two sides agree.
    sides: SidePolicy,
    /// Which hem.
    hem_edge: HemEdge,
    /// Where around a hem.
    around: Around,
    /// How a hem was marked.
    hem_how: HemHow,
    /// How a hem follows its marks.
    hem_shape: HemShape,
    /// When cloth is cut.
    cutting: Cutting,
    /// Where a length is taken off.
    shortened_at: ShortenedAt,
    /// Where a slit is.
    slit_at: SlitAt,
    /// What a finished length is measured from.
    hem_landmark: HemLandmark,
    /// How a hem is turned.
    hem_turn: HemTurn,
    /// What is entered of an armhole.
    armhole_field: ArmholeField,
    /// How fastenings are spaced.
    spaced: Spaced,
    /// How an edge is taken together.
    gather_how: GatherHow,
    /// What cloth does.
    seen: Seen,
    /// What cloth says, by name.
    sign: Sign,
    /// From where it is seen.
    face: Face,
    /// What is to be done about it.
    verdict: Verdict,
    /// Movements.
    movement: Movement,
    /// How a movement went.
    went: HowItWent,
    /// How a check came out.
    outcome: Outcome,
    /// Which rule.
    rule: Rule,
    /// How cloth is made.
    structure: Structure,
    /// How it falls.
    drape: Drape,
    /// How heavy it is.
    weight: Weight,
    /// How much it frays.
    frays: Frays,
    /// How hot an iron it takes.
    heat: Heat,
    /// What the hand does.
    step: Step,
    /// What a change is worth when time runs out.
    worth: Worthy,
    /// How an allowance lies.
    allowance: AllowanceIs,
    /// How a dart ends.
    dart_end: DartEnd,
    /// How a sleeve is sewn in.
    sleeve: SleeveSet,
    /// How hems are sewn.
    sewn_by: SewnBy,
    /// What is used up.
    supply: SupplyKind,
}
