//! Elastic drawn into a band, where no seam can take the waist in.

mod card;
mod drawing;
mod input;
mod judge;
mod merge;
mod shown;
mod sum;
mod tasks;
mod told;

pub use input::{ElasticAt, ElasticChange};
pub(crate) use judge::Found;
pub use shown::SolvedElastic as Shown;
pub(crate) use sum::draw;
pub use sum::{ANCHOR, CasedElastic, ElasticSum, HOLD_PERCENT, HOLDS_PERCENT, elastic_sum};
