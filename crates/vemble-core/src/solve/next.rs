//! What to do next with a garment.

use crate::card::turn;
use crate::change::Drawn;
use crate::garment::Garment;
use crate::judge::Subject;
use crate::told::Check;
use crate::work::Wishes;

/// What to do next with a garment; what presses most comes first.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum NextStep {
    /// A check stands in the way: its title.
    Settle(String),
    /// Everything is clear: this seam.
    Chalk(String),
    /// A try-on was begun.
    EnterPins,
    /// It is still to be made, and its charts are there.
    ChooseSize,
    /// It was measured.
    TryOn,
    /// Nobody looked at it yet.
    LookOver,
    /// It is finished, and hangs there to be worn.
    Finished,
}

impl NextStep {
    /// After the newest try-on with these checks, whose first change to be chalked is called so.
    pub(super) fn after(
        garment: &Garment,
        wishes: &Wishes,
        newest: Option<(&[Check], Option<String>)>,
    ) -> Self {
        let Some((checks, altered)) = newest else {
            let nobody_looked = garment.levels.iter().all(|l| l.assumed);
            return match nobody_looked {
                true if awaits_size(garment, wishes) => Self::ChooseSize,
                true => Self::LookOver,
                false => Self::TryOn,
            };
        };
        let stop = checks.iter().find(|c| c.stands_in_the_way());
        match (stop, altered) {
            (Some(check), _) => Self::Settle(check.title.clone()),
            (None, Some(change)) => Self::Chalk(change),
            (None, None) => Self::EnterPins,
        }
    }

    /// In a few words.
    pub fn words(&self) -> String {
        match self {
            Self::Settle(title) => format!("Settle first: {title}"),
            Self::Chalk(change) => format!("Chalk the {change}"),
            Self::EnterPins => "Enter the pins".into(),
            Self::ChooseSize => "Choose a size".into(),
            Self::TryOn => "Try it on and pin it".into(),
            Self::LookOver => "Look it over".into(),
            Self::Finished => "Finished".into(),
        }
    }
}

/// It is still to be made, its charts are there, and nobody chose yet.
pub(super) fn awaits_size(garment: &Garment, wishes: &Wishes) -> bool {
    garment.toile && !wishes.pattern.charts.is_empty() && wishes.pattern.chosen.is_none()
}

/// What the hand begins with, as it is called on this garment.
pub(super) fn first_to_chalk(subject: &Subject<'_>) -> Option<String> {
    let altered = subject.changes.iter().filter(|change| change.is_altered());
    altered.min_by_key(|change| turn(change)).map(|change| change.key().name(subject.garment))
}
