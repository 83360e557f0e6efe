//! Fastenings along an opening: buttons, hooks, eyelets spaced anew, between its ends or about a place of the body.

mod card;
mod drawing;
mod input;
mod judge;
mod merge;
mod places;
mod shown;
mod spaced;
mod tasks;
mod told;

#[cfg(test)]
mod tests;

pub use input::{Spaced, SpacingChange};
pub(crate) use judge::Found;
pub use places::{even, onward, straddling};
pub use shown::SolvedSpacing as Shown;
pub(crate) use spaced::draw;
pub use spaced::{SpacedFastenings, SpacingSums};
