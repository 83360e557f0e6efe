//! Particular alterations that are no seam with pins: darts, and elastic in a waistband.

mod dart;
mod elastic;

pub use dart::{AlteredDart, alter_dart};
pub(crate) use elastic::shown as elastic_shown;
pub use elastic::{ANCHOR, ElasticSum, HOLD_PERCENT, HOLDS_PERCENT, elastic_sum};

#[cfg(test)]
mod tests;
