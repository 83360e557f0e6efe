//! Gathers and pleats: a long edge brought to the length of a short one.

mod card;
mod drawing;
mod input;
mod judge;
mod merge;
mod pleats;
mod shown;
mod tasks;
mod told;

#[cfg(test)]
mod tests;

pub use input::{GatherHow, GathersChange, LongEdge};
pub(crate) use judge::Found;
pub(crate) use pleats::draw;
pub use pleats::{GatherSums, GatheredEdge, Pleat};
pub use shown::SolvedGathers as Shown;
