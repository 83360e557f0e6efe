//! A hem: from marks around an edge, or a length from the body, to where the cloth is folded and cut.

mod at_the_edge;
mod card;
mod drawing;
mod input;
mod judge;
mod lining;
mod marked;
mod merge;
mod regime;
mod ring;
mod scheme;
mod shown;
mod tasks;
mod told;

#[cfg(test)]
mod tests;

pub use input::{
    Cutting, FromBody, HemChange, HemLandmark, HemShape, Lengths, LiningWanted, ShortenedAt, Slit, SlitAt,
};
pub(crate) use judge::Found;
pub(crate) use marked::draw;
pub use marked::{AlteredHem, TakenAbove};
pub use regime::{KeptEdge, Regime, regime};
pub use ring::{Place, Ring};
pub use scheme::Because;
pub use shown::SolvedHem as Shown;
