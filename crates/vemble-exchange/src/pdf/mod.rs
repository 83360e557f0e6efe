//! Chalk cards as PDF: vector lines and real text, for a printer or a tablet without a network.
//!
//! `typeset` sets words in lines, `sheet` is the paper they stand on, `card` puts a card on it, `tiles` what is chalked at true size.

mod card;
mod sheet;
mod tiles;
mod typeset;

pub use tiles::{strips_pdf, tiled};

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vemble_core::change::ChangeKey;
use vemble_core::solve::Solved;

/// The paper a card is printed on.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "lowercase")]
pub enum Paper {
    /// 148 × 210 mm: lies beside the cloth.
    #[default]
    A5,
    /// 210 × 297 mm.
    A4,
    /// 8½ × 11 in.
    Letter,
}

impl Paper {
    /// Width and height in points, 72 to the inch (ISO 216; ANSI/ASME Y14.1 for Letter).
    fn size(self) -> (f32, f32) {
        match self {
            Self::A5 => (419.53, 595.28),
            Self::A4 => (595.28, 841.89),
            Self::Letter => (612.0, 792.0),
        }
    }

    /// Running text in points: large enough to be read beside the cloth (teaching value: chosen at arm's length).
    fn type_size(self) -> f32 {
        match self {
            Self::A5 => 9.5,
            Self::A4 | Self::Letter => 12.0,
        }
    }
}

/// A file of cards that could not be made.
#[derive(Debug, thiserror::Error)]
pub enum CardsError {
    /// No card has that key.
    #[error("there is no card of that name")]
    NoCard,
    /// What the writer reports.
    #[error("the cards could not be written: {0}")]
    Write(String),
}

/// The cards of all try-ons, or the one with a key, each beginning on a page of its own.
///
/// # Errors
/// Where there is no such card, or none at all; otherwise only what the writer reports.
pub fn cards_pdf(solved: &Solved, key: Option<ChangeKey>, paper: Paper) -> Result<Vec<u8>, CardsError> {
    let mut sheets = sheet::Sheets::new(paper);
    for try_on in &solved.try_ons {
        for card in try_on.cards.iter().filter(|c| key.is_none_or(|k| k == c.key)) {
            card::put(&mut sheets, card);
        }
    }
    sheets.finish()
}
