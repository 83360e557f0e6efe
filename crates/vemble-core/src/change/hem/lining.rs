//! The hem of a lining: never longer than the outer, never so short that it pulls.

use super::AlteredHem;
use super::judge::Found;
use crate::garment::{HemEdge, LiningOpens};
use crate::judge::{Finding, Outcome, Partner, Rule, Subject};
use crate::length::{Length, Taught};

/// A lining's fold ends so far above the outer's, on a body and in a sleeve: 1 cm, 3/8 in; 1.3 cm, 1/2 in.
const ABOVE: [Taught; 2] = [Taught::new(10, 24), Taught::new(13, 32)];
/// One that hangs free ends so far above it: 2.5 cm, 1 in.
const FREE_ABOVE: Taught = Taught::new(25, 64);
/// More than this above it the outer's inside is seen: 5 cm, 2 in (teaching value).
const MOST_ABOVE: Taught = Taught::new(50, 128);
/// So much slack a lining has along its length: 1 cm, 3/8 in (teaching value: too short pulls the outer up).
const SLACK: Taught = Taught::new(10, 24);
/// With less than this it pulls: 0.5 cm, 3/16 in (teaching value).
const LEAST_SLACK: Taught = Taught::new(5, 12);
/// A lining's own turn: 1 cm twice, 3/8 in.
const TURN: Taught = Taught::new(20, 48);

/// The hem of a lining.
#[derive(Clone, Copy, Debug)]
pub(crate) struct LiningHem {
    /// Its fold above the outer's; negative where it would hang out.
    pub above: Length,
    pub slack: Length,
    pub turn: Length,
    /// What is taken off the outer, negative where it is let down.
    pub off: Length,
    /// How long a sleeve is now, from the shoulder tip.
    pub sleeve: Option<Length>,
    pub opens: Option<LiningOpens>,
    pub is_free: bool,
    /// What is too long is folded up inside it, and not cut.
    pub is_folded_up: bool,
    pub against: Option<Against>,
}

/// What speaks against how a lining is hemmed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Against {
    /// It is longer than the outer.
    HangsOut,
    /// It pulls the outer up.
    Pulls,
    /// The outer's inside is seen.
    TooShort,
}

impl AlteredHem<'_> {
    /// The hem of the lining on a tape, where there is one.
    pub(super) fn lining(&self, subject: &Subject<'_>, off: Length) -> Option<LiningHem> {
        if !self.is_lined(subject) {
            return None;
        }
        let tape = subject.tape;
        let is_sleeve = self.key() == HemEdge::Sleeve;
        let wanted = self.change.lining.unwrap_or_default();
        let is_free = wanted.free && !is_sleeve;
        let usual = if is_free { FREE_ABOVE } else { ABOVE[usize::from(is_sleeve)] };
        let said = |said: Option<crate::length::Measure>, usual: Length| {
            tape.round(said.map_or(usual, |m| m.length))
        };
        let above = said(wanted.above, usual.on(tape));
        let slack = if is_free { Length::ZERO } else { said(wanted.slack, SLACK.on(tape)) };
        let against = match () {
            () if above.is_negative() => Some(Against::HangsOut),
            () if !is_free && slack < LEAST_SLACK.on(tape) => Some(Against::Pulls),
            () if above > MOST_ABOVE.on(tape) => Some(Against::TooShort),
            () => None,
        };
        Some(LiningHem {
            above,
            slack,
            turn: tape.round(TURN.on(tape)),
            off,
            sleeve: subject.garment.sleeve_length.filter(|_| is_sleeve).map(|m| tape.round(m.length)),
            opens: subject.garment.found.lining_opens,
            is_free,
            is_folded_up: wanted.folded_up,
            against,
        })
    }

    pub(super) fn lining_found(&self, subject: &Subject<'_>, off: Length) -> Option<Finding> {
        let lining = self.lining(subject, off)?;
        let outcome = match lining.against {
            Some(Against::HangsOut) => Outcome::Stop,
            Some(Against::Pulls | Against::TooShort) | None => Outcome::Caution,
        };
        let mut found = self.finding(Rule::Partners, None, outcome, Found::Lining(lining));
        found.key.partner = Some(Partner::Lining);
        Some(found)
    }
}
