//! Gathers and pleats in figures and words, and along their edge.

use super::GatheredEdge;
use super::told::{excess_words, pleats_words};
use crate::judge::Subject;
use crate::length::{Figure, Length, Tape};
use crate::shown::{Show, Shown};
use crate::told::Teller;
use serde::Serialize;
use utoipa::ToSchema;

/// An edge that is gathered or pleated, as it is shown.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedGathers {
    /// How long it is, once somebody said so.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub long: Option<Figure>,
    /// What it is brought to: as typed, or what the garment will measure.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub short: Option<Figure>,
    /// How deep a pleat is wanted, where somebody said so.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub depth: Option<Figure>,
    /// What is taken up, as a sum; empty where nothing can be.
    pub sum: String,
    /// How many pleats, and what each takes.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pleats: Option<String>,
    /// Both edges in millimetres, the long one first.
    pub edges_mm: [f64; 2],
    /// From where to where each pleat lies on the long edge, in millimetres.
    pub pleats_mm: Vec<[f64; 2]>,
}

impl Shown for SolvedGathers {
    fn has_card(&self) -> bool {
        !self.sum.is_empty()
    }
}

impl Show for GatheredEdge<'_> {
    type Shown = SolvedGathers;

    fn show(&self, subject: &Subject<'_>, tape: Tape) -> SolvedGathers {
        let to = Teller::of(subject.garment, tape);
        let sums = self.sums(subject);
        let mm = |length: Length| length.cm() * 10.0;
        SolvedGathers {
            long: self.change.long.map(|m| tape.figure(m.length)),
            short: self.short(subject).map(|short| tape.figure(short)),
            depth: self.change.depth.map(|m| tape.figure(m.length)),
            sum: sums.as_ref().map_or_else(String::new, |sums| excess_words(sums, &to)),
            pleats: sums.as_ref().and_then(|sums| pleats_words(sums, &to)),
            edges_mm: sums.as_ref().map_or([0.0; 2], |sums| [mm(sums.long), mm(sums.short)]),
            pleats_mm: sums.iter().flat_map(|sums| &sums.pleats).map(|p| [mm(p.from), mm(p.to)]).collect(),
        }
    }
}
