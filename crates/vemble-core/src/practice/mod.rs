//! Practice rounds: short exercises on garments that nobody owns, each about one slip that costs cloth or an evening. What is right is what
//! the core says of the garment, never a sum of its own; and the answer explains itself.
//!
//! A round is known by its slip and its number: the same number makes the same round.

mod rounds;

#[cfg(test)]
mod tests;

use crate::length::Tape;
use crate::work::{Practised, Slip};
use rounds::{Made, Numbers, made};
use serde::Serialize;
use utoipa::ToSchema;

/// One exercise, without its answer.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Round {
    /// What it is about.
    pub slip: Slip,
    /// The same in words.
    pub about: &'static str,
    /// Its number.
    pub number: u32,
    /// What is asked.
    pub question: String,
    /// What could be answered.
    pub options: Vec<String>,
}

/// What was right, and why.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Answered {
    /// The chosen option was the right one.
    pub is_right: bool,
    /// Which option is right.
    pub right: usize,
    /// Why, with the sum.
    pub explains: String,
}

/// The exercise of a slip and a number. Solves one small document.
pub fn round(slip: Slip, number: u32, tape: Tape) -> Round {
    let Made { question, options, .. } = made(slip, number, tape);
    Round { slip, about: slip.name(), number, question, options }
}

/// What is right in it. Solves one small document.
pub fn answered(slip: Slip, number: u32, chosen: usize, tape: Tape) -> Answered {
    let Made { right, explains, .. } = made(slip, number, tape);
    Answered { is_right: chosen == right, right, explains }
}

/// Which slip comes next: those that were made come again, those that cost cloth before others, and what was never tried before what went
/// well (teaching values: a wrong answer weighs as much as three right ones).
pub fn next_slip(practised: &[Practised], number: u32) -> Slip {
    let weight = |slip: Slip| {
        let known = practised.iter().find(|known| known.slip == slip);
        let (right, wrong) = known.map_or((0, 0), |known| (u32::from(known.right), u32::from(known.wrong)));
        let cost = if slip.costs_cloth() { 2 } else { 1 };
        cost * (12 + 36 * wrong).div_ceil(1 + right + wrong)
    };
    let all: u32 = Slip::ALL.iter().map(|slip| weight(*slip)).sum();
    let mut at = Numbers::of(number).below(all);
    for slip in Slip::ALL {
        let own = weight(*slip);
        if at < own {
            return *slip;
        }
        at -= own;
    }
    Slip::Halving
}
