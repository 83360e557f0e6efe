//! The rules of fitting and altering a garment: pure functions over plain types.
//!
//! No I/O, no clock, no database, no interface. [`solve::solve`] is the way through: a [`document::Document`] of
//! readings goes in, lines, checks, cards and drawings come out. Each room below knows only those above it; `rooms` holds that order.

#![cfg_attr(
    not(test),
    deny(clippy::wildcard_enum_match_arm, reason = "a variant that is added must be met everywhere")
)]

pub mod length;

mod choice;
pub mod place;

pub mod body;
pub mod garment;

pub mod fitting;

pub mod fault;

pub mod change;

pub mod work;

pub mod chalk;

pub mod judge;

pub mod try_on;

pub mod document;

pub mod plan;

pub mod record;

pub mod told;

pub mod figure;

pub mod shown;

pub mod paper;

pub mod card;

pub mod stages;

pub mod solve;

pub mod ahead;
pub mod history;
pub mod method;

pub mod asking;
pub mod compare;
pub mod look_over;
pub mod pattern;
pub mod people;
pub mod practice;
pub mod signs;
pub mod size;

#[cfg(test)]
mod tests;
