//! What is said of elastic in a waistband.

use super::judge::Found;
use crate::judge::{FindingKey, Outcome};
use crate::length::Length;
use crate::told::{Said, Tell, Teller};

impl Tell for Found {
    fn tell(&self, _: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let title = "Elastic in the waistband";
        match *self {
            Self::NoBand { casing } => {
                let figures = format!("the casing runs {}", to.show(casing));
                Said::new(title, figures, "No waistband is entered to draw it into.").mended(
                    outcome,
                    || "Say in the look-over how deep the waistband is, or leave the elastic out.",
                )
            }
            Self::LongerThanBand { casing, garment } => {
                let figures =
                    format!("the casing runs {}, the waist goes {} round", to.bare(casing), to.show(garment));
                Said::new(title, figures, "A casing cannot be longer than its band.")
                    .mended(outcome, || format!("Let the casing run {} at most.", to.show(garment)))
            }
            Self::Unknown { casing } => {
                let figures = format!("the casing runs {}", to.show(casing));
                Said::new(title, figures, "The waist of the garment or of the wearer is not known.")
                    .mended(outcome, || "Measure both: the elastic is what lies between them.")
            }
            Self::TooShort { casing, excess } => {
                let figures =
                    format!("casing {}, the waist is {} too wide", to.show(casing), to.show(excess));
                Said::new(title, figures, "The casing would have to shrink to nought.").mended(outcome, || {
                    let wanted = to.show_at_least(excess * 5);
                    format!(
                        "Take the waist in at a seam, or let the casing run at least {wanted}: there it gathers by a quarter."
                    )
                })
            }
            Self::Comes { sum, garment, body } => {
                let (casing, spans) = (to.bare(sum.casing), to.bare(sum.spans));
                let figures = format!(
                    "casing {casing} − ({} − {}) = {} to span; {casing} ÷ {spans} = gathers {:.2}",
                    to.bare(garment),
                    to.bare(body),
                    to.show(sum.spans),
                    sum.gathers()
                );
                let (reason, remedy) = match (sum.excess <= Length::ZERO, outcome) {
                    (true, _) => (
                        "The waist is no wider than the body: nothing needs to be held.",
                        "Leave the elastic out.",
                    ),
                    (false, Outcome::Passes) => ("Up to 1.25 it lies flat.", ""),
                    (false, Outcome::Caution | Outcome::Stop) => (
                        "Over 1.25 the cloth gathers visibly.",
                        "Let the casing run longer, or take part of it in at a seam.",
                    ),
                };
                Said::new(title, figures, reason).mended(outcome, || remedy)
            }
        }
    }
}
