//! Stages: the way through a garment's work, what of it is settled, and where to go on.

use crate::choice::choice;
use crate::garment::Garment;
use serde::Serialize;
use utoipa::ToSchema;

choice! {
    /// A stage of the work on a garment.
    Stage {
        LookOver => "Look over",
        TryOn => "Try on",
        Lines => "Lines",
        Paper => "Paper",
        Plan => "Plan",
        Sew => "Sew",
        Record => "Record",
    }
}

impl Stage {
    /// A garment goes through it: paper is for a toile, and for what has pieces that are still to be cut.
    const fn is_of(self, garment: &Garment, has_pieces: bool) -> bool {
        match self {
            Self::Paper => garment.toile || has_pieces,
            Self::LookOver | Self::TryOn | Self::Lines | Self::Plan | Self::Sew | Self::Record => true,
        }
    }
}

/// A stage of one garment.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct StageLine {
    /// Which.
    pub stage: Stage,
    /// What it is called.
    pub name: &'static str,
    /// What belongs there is done, as far as it goes.
    pub is_settled: bool,
}

/// How far a garment's work has come.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(crate) struct Progress {
    /// It ends on paper.
    pub is_toile: bool,
    /// Somebody measured something of it.
    pub is_looked_over: bool,
    /// Somebody began to try it on.
    pub is_tried_on: bool,
    /// Something is pinned, so that there is a card.
    pub has_cards: bool,
    /// And nothing stops it.
    pub is_clear: bool,
    /// A size of its pattern was chosen.
    pub has_size: bool,
    /// Its pieces are there: as its toile left them, or from a file.
    pub has_pieces: bool,
    /// Its charts are there, and nobody chose yet.
    pub awaits_size: bool,
    /// It has a day to be ready by.
    pub has_day: bool,
    /// Something of it was begun at the table.
    pub is_begun: bool,
    /// It was tried on finished.
    pub is_sewn: bool,
    /// What was sewn is entered, and nothing was found on that since.
    pub is_finished: bool,
}

impl Progress {
    /// The stages of a garment, in order.
    pub fn stages(self, garment: &Garment) -> Vec<StageLine> {
        let line = |stage: Stage| StageLine {
            stage,
            name: stage.name(),
            is_settled: match stage {
                Stage::LookOver => self.is_looked_over,
                Stage::TryOn => self.has_cards,
                Stage::Lines => self.has_cards && self.is_clear,
                Stage::Plan => self.has_day || self.is_finished,
                Stage::Sew => self.is_sewn || self.is_finished,
                Stage::Record => self.is_finished,
                Stage::Paper => self.has_size,
            },
        };
        Stage::ALL.iter().copied().filter(|stage| stage.is_of(garment, self.has_pieces)).map(line).collect()
    }

    /// Where to go on: with what was begun or pinned, else with what is not measured yet.
    pub const fn go_on(self) -> Stage {
        match (self.is_tried_on, self.is_looked_over) {
            _ if self.is_finished => Stage::Record,
            (true, _) if self.is_begun => Stage::Sew,
            (true, _) => Stage::Lines,
            (false, false) if self.is_toile && self.awaits_size => Stage::Paper,
            (false, true) => Stage::TryOn,
            (false, false) => Stage::LookOver,
        }
    }
}
