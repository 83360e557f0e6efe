//! Ease: a stop where a change brings it below the least, a caution where it was below already. Seams that together take all there is stop
//! as well.

use super::{EaseWord, Finding, FindingKey, Girth, Outcome, Rule, Subject};
use crate::garment::stretch_in_use;
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
    /// What of the body's girth a knit may stretch by in wear, in percent; nought of what is woven.
    pub stretch_in_use: i64,
}

pub(super) fn judge(subject: &Subject<'_>, girths: &[Girth]) -> impl Iterator<Item = Finding> {
    let cloth = &subject.garment.cloth;
    let stretch_in_use = stretch_in_use(cloth.structure, cloth.stretch_percent);
    girths.iter().filter(|g| g.is_changed()).filter_map(move |g| {
        if g.after <= Length::ZERO {
            return Some(Finding::new(key(Rule::Ease, g), Outcome::Stop, super::Facts::Gone(g.clone())));
        }
        let (body, wanted, [now, after]) = (g.body?, g.wanted?, g.words()?);
        let was_tight = now == EaseWord::TooTight && g.off() <= Length::ZERO;
        let outcome = match after {
            EaseWord::TooTight if was_tight => Outcome::Caution,
            EaseWord::TooTight => Outcome::Stop,
            EaseWord::Close | EaseWord::Usual | EaseWord::Roomy | EaseWord::Loose => Outcome::Passes,
        };
        let usual = [wanted.usual_from, wanted.usual_to];
        let facts = Ease { girth: g.clone(), body, least: wanted.least, usual, was_tight, stretch_in_use };
        Some(Finding::new(key(Rule::Ease, g), outcome, super::Facts::Ease(facts)))
    })
}

/// A finding about one level, and one leg or sleeve where they differ.
pub(super) const fn key(rule: Rule, girth: &Girth) -> FindingKey {
    FindingKey { level: Some(girth.level.level), side: girth.of.side(), ..FindingKey::of(rule) }
}
