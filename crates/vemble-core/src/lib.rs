//! The rules of fitting and altering a garment: pure functions over plain types.
//!
//! No I/O, no clock, no database, no interface. [`solve::solve`] is the way through: a [`document::Document`] of
//! readings goes in, lines, checks, cards and drawings come out.

pub mod alteration;
pub mod asking;
pub mod body;
pub mod card;
pub mod check;
pub mod compare;
pub mod document;
pub mod fault;
pub mod figure;
pub mod fitting;
pub mod garment;
pub mod length;
pub mod line;
pub mod look_over;
pub mod people;
pub mod solve;

#[cfg(test)]
mod tests;
