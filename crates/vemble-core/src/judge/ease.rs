//! Ease: a stop where a change brings it below the least, a caution where it was below already.

use super::{EaseWord, Finding, FindingKey, Girth, Outcome, Rule};
use crate::length::Length;

/// Ease at a level that is changed.
#[derive(Clone, Debug)]
pub(crate) struct Ease {
    pub girth: Girth,
    pub body: Length,
    pub least: Length,
    pub usual: [Length; 2],
    /// It was too tight before, and is not taken in.
    pub was_tight: bool,
}

pub(super) fn judge(girths: &[Girth]) -> impl Iterator<Item = Finding> {
    girths.iter().filter(|g| g.is_changed()).filter_map(|g| {
        let (body, wanted, [now, after]) = (g.body?, g.wanted?, g.words()?);
        let was_tight = now == EaseWord::TooTight && g.off() <= Length::ZERO;
        let outcome = match after {
            EaseWord::TooTight if was_tight => Outcome::Caution,
            EaseWord::TooTight => Outcome::Stop,
            EaseWord::Close | EaseWord::Usual | EaseWord::Roomy | EaseWord::Loose => Outcome::Passes,
        };
        let usual = [wanted.usual_from, wanted.usual_to];
        let facts = Ease { girth: g.clone(), body, least: wanted.least, usual, was_tight };
        Some(Finding::new(key(Rule::Ease, g), outcome, super::Facts::Ease(facts)))
    })
}

/// A finding about one level, and one leg or sleeve where they differ.
pub(super) const fn key(rule: Rule, girth: &Girth) -> FindingKey {
    FindingKey { level: Some(girth.level.level), side: girth.of.side(), ..FindingKey::of(rule) }
}
