//! Particular alterations that are no seam with pins: darts, and elastic in a waistband.

mod dart;
mod elastic;

pub use dart::{AlteredDart, alter_dart};
pub use elastic::{ElasticSum, HOLD_PERCENT, elastic_sum};

#[cfg(test)]
mod tests;
