//! Shoulder, armhole and sleeve: the shoulder shortened, sloped, moved forward, with pads or without; the armhole raised, lowered or brought in;
//! the sleeve widened, its cap shaped to the armhole and turned in it. One kind, since each moves the others: `docs/decisions/0029`.
//!
//! `flat` is one armhole laid flat and the cap that is sewn into it, as curves with their true lengths; `lift` is how far an arm goes up.

mod card;
mod drawing;
mod facing;
mod flat;
mod input;
mod judge;
mod lift;
mod merge;
mod shown;
mod sum;
mod tasks;
mod told;

#[cfg(test)]
mod tests;

pub(crate) use flat::{Flat, cap, cap_height, solved};
pub use input::{ArmholeAt, ArmholeChange, ArmholeField};
pub(crate) use judge::Found;
pub use shown::SolvedArmhole as Shown;
pub(crate) use sum::draw;
pub use sum::{AlteredArmhole, ArmholeSums, CapEase};
