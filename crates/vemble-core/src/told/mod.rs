//! Told: sentences, sums and figures on a tape, made of findings, girths and faults; and the words of every choice. Nothing reads them back.

mod check;
mod fault;
mod level;
mod plan;
mod rows;
mod sums;
mod terms;
mod words;

pub use check::Check;
pub(crate) use check::{Said, Tell, pass_over, tell};
pub use level::{Comfort, LevelResult};
pub(crate) use level::{level_name, tell_levels, term_words};
pub(crate) use plan::{
    about_words, amount_words, long_words, minutes_words, money_words, settings_words, supply_words,
    thing_words, title, way_words, why_not_words,
};
pub(crate) use rows::row_note;
pub(crate) use sums::{edges_sum, without_sign};
pub use terms::{ReadUp, Term, TermLine, read_up};
pub use words::{ManyWords, Word, words};

use crate::garment::Garment;
use crate::length::{Length, Tape};

/// To whom it is told: on which tape, and what things are called on this garment.
#[derive(Clone, Copy)]
pub(crate) struct Teller<'a> {
    pub garment: &'a Garment,
    pub tape: Tape,
    /// What is told of can be mended by a change that was tried: only then is that change named.
    pub mends: bool,
}

impl<'a> Teller<'a> {
    /// Of a garment on a tape, where nothing is to be mended.
    pub const fn of(garment: &'a Garment, tape: Tape) -> Self {
        Self { garment, tape, mends: false }
    }
}

impl Teller<'_> {
    /// A figure with its unit.
    pub fn show(&self, length: Length) -> String {
        self.tape.show(length)
    }

    /// A figure without its unit.
    pub fn bare(&self, length: Length) -> String {
        self.tape.bare(length)
    }

    /// The next mark of the tape: what has to be at least so much is said so that the hand can do it.
    pub fn show_at_least(&self, length: Length) -> String {
        self.tape.show(length.up_to(self.tape.mark()))
    }
}

/// A sentence's first word with a capital.
pub(crate) fn capital(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or_else(String::new, |c| c.to_uppercase().chain(chars).collect())
}
