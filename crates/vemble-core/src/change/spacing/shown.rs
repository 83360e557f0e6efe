//! Fastenings in figures and words, and along their edge.

use super::SpacedFastenings;
use super::told::{apart_words, run_words};
use crate::judge::Subject;
use crate::length::{Figure, Tape};
use crate::shown::{Show, Shown};
use crate::told::Teller;
use serde::Serialize;
use utoipa::ToSchema;

/// Fastenings along an opening, as they are shown.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedSpacing {
    /// How long its edge is now.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub edge: Option<Figure>,
    /// It ends in the hem, and is shortened with it.
    pub to_hem: bool,
    /// The first below the top, as it was typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub first: Option<Figure>,
    /// The last above the lower end, as it was typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub last: Option<Figure>,
    /// How far apart, as it was typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub apart: Option<Figure>,
    /// The line of the body below the top, as it was typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub line: Option<Figure>,
    /// What comes of it, once the edge is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub comes: Option<SpacedEdge>,
}

/// An edge with its fastenings, as they come to stand.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SpacedEdge {
    /// How many, and how far apart; empty where nothing can be spaced.
    pub apart: String,
    /// How the run comes about.
    pub sum: String,
    /// Every one, from the top.
    pub places: Vec<Figure>,
    /// The same in millimetres.
    pub places_mm: Vec<f64>,
    /// Where they are now.
    pub before_mm: Vec<f64>,
    /// The edge in millimetres, now and after the hem.
    pub edge_mm: [f64; 2],
    /// The line of the body that they are spaced about, in millimetres.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub line_mm: Option<f64>,
}

impl Shown for SolvedSpacing {
    fn has_card(&self) -> bool {
        self.comes.as_ref().is_some_and(|comes| !comes.places.is_empty())
    }
}

impl Show for SpacedFastenings<'_> {
    type Shown = SolvedSpacing;

    fn show(&self, subject: &Subject<'_>, tape: Tape) -> SolvedSpacing {
        let to = Teller::of(subject.garment, tape);
        let sums = self.sums(subject);
        let mm = |length: crate::length::Length| length.cm() * 10.0;
        let all_mm = |places: &[crate::length::Length]| places.iter().map(|place| mm(*place)).collect();
        let typed = |m: Option<crate::length::Measure>| m.map(|m| tape.figure(m.length));
        let comes = sums.map(|sums| SpacedEdge {
            apart: if sums.placed().is_empty() { String::new() } else { apart_words(&sums, &to) },
            sum: run_words(&sums, &to),
            places: sums.placed().iter().map(|place| tape.figure(*place)).collect(),
            places_mm: all_mm(sums.placed()),
            before_mm: all_mm(&sums.before),
            edge_mm: [mm(sums.edge), mm(sums.new_edge())],
            line_mm: sums.line.map(mm),
        });
        SolvedSpacing {
            edge: typed(self.change.edge),
            to_hem: self.ends_in_the_hem(subject.garment),
            first: typed(self.change.first),
            last: typed(self.change.last),
            apart: typed(self.change.apart),
            line: typed(self.change.line),
            comes,
        }
    }
}
