//! Lengths of the trunk: what is taken out across it, or put in, above the waist or at its upper edge.

mod card;
mod drawing;
mod input;
mod judge;
mod merge;
mod shown;
mod sum;
mod tasks;
mod told;

#[cfg(test)]
mod tests;

pub use input::{TrunkAt, TrunkChange};
pub(crate) use judge::Found;
pub use shown::SolvedTrunk as Shown;
pub use sum::AlteredTrunk;
pub(crate) use sum::draw;
