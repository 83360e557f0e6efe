//! The look-over: what to find out about a garment before anything is pinned, one question at a time, each with what its
//! answer will be used for. Anything may be skipped; what nobody answered stays assumed.

mod additions;
mod cautions;
mod places;

#[cfg(test)]
mod tests;

use crate::body::Wearer;
use crate::figure::Picture;
use crate::garment::{ClosureFacts, DartFacts, Doubt, Garment, GarmentLevel, HemFacts, SeamFacts, doubts};
use crate::judge::{Subject, girths};
use crate::length::{Figure, Tape};
use crate::told::{LevelResult, tell_levels};
use additions::additions;
use cautions::cautions;
use places::places;
use serde::Serialize;
use utoipa::ToSchema;

/// A garment as looked over so far.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LookOver {
    /// What to find out, place by place.
    pub places: Vec<Place>,
    /// How many questions are settled.
    pub settled: usize,
    /// Of how many.
    pub of: usize,
    /// Figures that look like a slip.
    pub doubts: Vec<Doubt>,
    /// What to know before going on.
    pub cautions: Vec<Caution>,
    /// Parts that could be added.
    pub additions: Vec<Addition>,
    /// Girth and ease as it is, from the top down.
    pub levels: Vec<LevelResult>,
}

/// Questions about one place of the garment.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Place {
    /// Which place.
    pub name: &'static str,
    /// What it is good for, in one line.
    pub why: &'static str,
    /// What to find out there.
    pub questions: Vec<Question>,
}

/// One thing to find out.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Question {
    /// Its name, which parts of the stand carry too: `seam.outseam`, `level.hip`.
    pub key: String,
    /// What is asked about.
    pub title: String,
    /// What the answer is used for.
    pub why: String,
    /// What can be entered.
    pub fields: Vec<Field>,
    /// Somebody answered.
    pub settled: bool,
    /// Set this to false with any answer: a JSON pointer into the garment.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub settles: Option<String>,
    /// The part can be taken away: a JSON pointer to it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub removes: Option<String>,
    /// The part can be given a name of its own: a JSON pointer to it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub renames: Option<String>,
}

/// Something to enter. Every `path` is a JSON pointer into the garment.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case", tag = "is")]
pub enum Field {
    /// A length.
    Length {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// As it is now.
        shown: Option<Figure>,
        /// It can be taken away again: then it is what the fields beside it say.
        #[serde(skip_serializing_if = "std::ops::Not::not")]
        may_be_empty: bool,
    },
    /// A width, laid flat or all round.
    Width {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// As it is now.
        shown: Figure,
        /// It is measured flat.
        laid_flat: bool,
        /// The whole girth, in words.
        girth: String,
    },
    /// One of several.
    Choice {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// The word chosen now.
        value: Option<&'static str>,
        /// What there is to choose from.
        options: Vec<Choice>,
    },
    /// Any of several, as a list.
    Several {
        /// Where the list goes.
        path: String,
        /// What it is.
        label: String,
        /// The words chosen now.
        values: Vec<&'static str>,
        /// What there is to choose from.
        options: Vec<Choice>,
    },
    /// Yes or no.
    YesNo {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// The answer now.
        value: Option<bool>,
    },
    /// A small number.
    Count {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// The number now.
        value: u8,
    },
    /// Words.
    Text {
        /// Where it goes.
        path: String,
        /// What it is.
        label: String,
        /// As it is now.
        value: String,
    },
}

/// Something to choose.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Choice {
    /// The word in the document.
    pub value: &'static str,
    /// In words.
    pub words: String,
    /// How it looks, cut through.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub picture: Option<Picture>,
}

/// Something to know before going on.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Caution {
    /// It must not be altered at all.
    pub grave: bool,
    /// What it is about.
    pub title: &'static str,
    /// What to do.
    pub says: String,
}

/// A part that could be added to this garment.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Addition {
    /// What it is, in words.
    pub words: String,
    /// The list it is added to.
    pub list: &'static str,
    /// The part, to be put at the end of the list.
    pub part: Part,
}

/// A part as it stands in a document.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[schema(as = PartToAdd)]
#[serde(untagged)]
pub enum Part {
    /// A level, with a figure between its neighbours'.
    Level(GarmentLevel),
    /// A seam.
    Seam(SeamFacts),
    /// A pair of darts.
    Dart(DartFacts),
    /// A hem.
    Hem(HemFacts),
    /// A closure.
    Closure(ClosureFacts),
}

/// Everything to find out about `garment` on its wearer, with figures on `tape`.
pub fn look_over(garment: &Garment, wearer: &Wearer, tape: Tape) -> LookOver {
    let garment = &*garment.with_levels_in_order(wearer);
    let places = places(garment, tape);
    let questions = || places.iter().flat_map(|p| &p.questions);
    LookOver {
        settled: questions().filter(|q| q.settled).count(),
        of: questions().count(),
        doubts: doubts(garment, wearer, tape),
        cautions: cautions(garment, wearer),
        additions: additions(garment, wearer),
        levels: tell_levels(garment, &girths(&Subject::as_it_is(garment, wearer, tape)), tape),
        places,
    }
}
