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

pub use input::GathersChange;
pub(crate) use judge::{Found, Gathered, gathered_in};
pub(crate) use pleats::draw;
pub use pleats::{GatherSums, GatheredEdge, Pleat};
pub use shown::SolvedGathers as Shown;
