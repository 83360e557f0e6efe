//! Elastic in a waistband: whether there is casing enough, and how much it gathers.

use super::{CasedElastic, ElasticSum, elastic_sum};
use crate::change::{ChangeKey, Drawn};
use crate::judge::{Finding, FindingKey, Judge, Outcome, Rule, Subject, girths};
use crate::length::Length;
use crate::place::Level;

/// The figures that a finding about elastic rests on.
#[derive(Clone, Copy, Debug)]
pub(crate) enum Found {
    /// There is no band to draw it into.
    NoBand { casing: Length },
    /// The casing is longer than the band goes round.
    LongerThanBand { casing: Length, garment: Length },
    /// A girth is not known.
    Unknown { casing: Length },
    /// The casing is no longer than what is too wide.
    TooShort { casing: Length, excess: Length },
    /// What it comes to.
    Comes { sum: ElasticSum, garment: Length, body: Length },
}

impl CasedElastic<'_> {
    /// What the waist will measure and the body does, if both are known.
    pub(super) fn waist(&self, subject: &Subject<'_>) -> Option<(Length, Length)> {
        let waist = girths(subject).into_iter().find(|g| g.level.level == Level::Waist)?;
        Some((waist.after, waist.body?))
    }

    /// What it comes to; nothing where that is not known or cannot be.
    pub(crate) fn sum_on(&self, subject: &Subject<'_>) -> Option<ElasticSum> {
        let (garment, body) = self.waist(subject)?;
        elastic_sum(self.change, garment, body, subject.tape)
    }
}

impl Judge for CasedElastic<'_> {
    fn judge(&self, subject: &Subject<'_>) -> Vec<Finding> {
        let casing = self.change.casing.filter(|_| self.is_altered());
        let Some(casing) = casing.map(|m| subject.tape.round(m.length)) else {
            return Vec::new();
        };
        let (outcome, found) = match self.waist(subject) {
            _ if !subject.garment.has_band() => (Outcome::Stop, Found::NoBand { casing }),
            Some((garment, _)) if casing > garment => {
                (Outcome::Stop, Found::LongerThanBand { casing, garment })
            }
            None => (Outcome::Stop, Found::Unknown { casing }),
            Some((garment, body)) => match elastic_sum(self.change, garment, body, subject.tape) {
                None => (Outcome::Stop, Found::TooShort { casing, excess: garment - body }),
                Some(sum) => {
                    let outcome = match sum.excess <= Length::ZERO || sum.gathers_too_much() {
                        true => Outcome::Caution,
                        false => Outcome::Passes,
                    };
                    (outcome, Found::Comes { sum, garment, body })
                }
            },
        };
        vec![Finding::new(FindingKey::about(Rule::Gathers, ChangeKey::Elastic(self.key())), outcome, found)]
    }
}
