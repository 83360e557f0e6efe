//! A length of the trunk in figures and words.

use super::AlteredTrunk;
use super::drawing::STRETCHED;
use super::told::what_words;
use crate::change::Drawn;
use crate::figure::Picture;
use crate::judge::Subject;
use crate::length::{Figure, Tape};
use crate::shown::{Show, Shown};
use crate::told::Teller;
use serde::Serialize;
use utoipa::ToSchema;

/// A length of the trunk, as it is shown.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedTrunk {
    /// At the centre front: as typed, or as it follows.
    pub front: Figure,
    /// At either side.
    pub side: Figure,
    /// At the centre back.
    pub back: Figure,
    /// What is done; nothing while nothing is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub says: Option<String>,
    /// Half of the edge laid straight, as it is and as it will be, heights three times as large.
    pub picture: Picture,
    /// So many times as large heights are in it.
    pub stretched: f64,
}

impl Shown for SolvedTrunk {
    fn has_card(&self) -> bool {
        self.says.is_some()
    }
}

impl Show for AlteredTrunk<'_> {
    type Shown = SolvedTrunk;

    fn show(&self, subject: &Subject<'_>, tape: Tape) -> SolvedTrunk {
        let (sums, to) = (self.sums(tape), Teller::of(subject.garment, tape));
        SolvedTrunk {
            front: tape.figure(sums.front),
            side: tape.figure(sums.side),
            back: tape.figure(sums.back),
            says: self.is_altered().then(|| what_words(self.key(), sums, &to)),
            picture: self.picture(tape),
            stretched: STRETCHED,
        }
    }
}
