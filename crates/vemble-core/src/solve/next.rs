//! What to do next with a garment.

use crate::card::turn;
use crate::change::Drawn;
use crate::garment::Garment;
use crate::judge::Subject;
use crate::told::Check;

/// What to do next with a garment; what presses most comes first.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum NextStep {
    /// A check stands in the way: its title.
    Settle(String),
    /// Everything is clear: this seam.
    Chalk(String),
    /// A try-on was begun.
    EnterPins,
    /// It was measured.
    TryOn,
    /// Nobody looked at it yet.
    LookOver,
    /// It is finished, and hangs there to be worn.
    Finished,
}

impl NextStep {
    /// After the newest try-on with these checks, whose first change to be chalked is called so.
    pub(super) fn after(garment: &Garment, newest: Option<(&[Check], Option<String>)>) -> Self {
        let Some((checks, altered)) = newest else {
            let nobody_looked = garment.levels.iter().all(|l| l.assumed);
            return if nobody_looked { Self::LookOver } else { Self::TryOn };
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
            Self::TryOn => "Try it on and pin it".into(),
            Self::LookOver => "Look it over".into(),
            Self::Finished => "Finished".into(),
        }
    }
}

/// What the hand begins with, as it is called on this garment.
pub(super) fn first_to_chalk(subject: &Subject<'_>) -> Option<String> {
    let altered = subject.changes.iter().filter(|change| change.is_altered());
    altered.min_by_key(|change| turn(change)).map(|change| change.key().name(subject.garment))
}
