//! The allowance: what a seam can give when it is let out, and what stays inside when it is taken in.

use super::judge::Found;
use super::{AlteredSeam, StitchingLine};
use crate::fitting::{Edges, GarmentSide};
use crate::judge::{Finding, Outcome, Rule, Subject};
use crate::length::{Length, Taught};

/// More than this kept inside shows as bulk: 3.8 cm (teaching value: about an inch and a half).
pub(super) const BULKY: Taught = Taught::new(38, 96);

/// What an edge has to give, against what is asked of it.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Capacity {
    /// The edge that is shorter of what it must give, by its place among both; nothing where both are alike.
    pub edge: Option<usize>,
    pub let_out: Length,
    pub has: Length,
    pub keep: Length,
    pub is_clipped: bool,
    pub shows_holes: bool,
}

impl Capacity {
    /// What the edge can give.
    pub fn gives(&self) -> Length {
        self.has - self.keep
    }

    /// What it lacks; negative where it has more than enough.
    pub fn short(&self) -> Length {
        self.let_out - self.gives()
    }
}

/// What stays inside after taking in, per edge.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Kept {
    pub allowance: Length,
    pub taken_in: Length,
    pub kept: Length,
    /// It is trimmed to that after the next try-on.
    pub is_trimmed: bool,
}

pub(super) fn judge(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    side: Option<GarmentSide>,
    line: &StitchingLine,
) -> Option<Finding> {
    let ((from, to), tape) = (line.span()?, subject.tape);
    let chalked = line.chalked_between(from, to, tape);
    let least = [|edges: &Edges| edges.front.0, |edges: &Edges| edges.back.0]
        .map(|edge| chalked.iter().map(edge).min().unwrap_or_default());
    let facts = seam.facts;
    // The edge that is shorter of what it must give decides; where both are alike it is "per edge".
    let asked = least.map(|least| -least);
    let has =
        [facts.allowance, facts.allowance_back.unwrap_or(facts.allowance)].map(|m| tape.round(m.length));
    let worst = usize::from(asked[1] - has[1] > asked[0] - has[0]);
    let alike = asked[0] == asked[1] && has[0] == has[1];
    if asked[worst] > Length::ZERO {
        let cloth = &subject.garment.cloth;
        let capacity = Capacity {
            edge: (!alike).then_some(worst),
            let_out: asked[worst],
            has: has[worst],
            keep: cloth.keep().on(tape),
            is_clipped: facts.clipped,
            shows_holes: cloth.shows_holes,
        };
        let outcome = match capacity.short() > Length::ZERO {
            true => Outcome::Stop,
            false if capacity.is_clipped || capacity.shows_holes => Outcome::Caution,
            false => Outcome::Passes,
        };
        let key = seam.finding(Rule::Capacity, side);
        return Some(Finding::new(key, outcome, Found::Capacity(capacity)).at(from));
    }
    let allowance = tape.round(facts.least_allowance().length);
    let taken_in = chalked.into_iter().map(|edges| edges.front.0.max(edges.back.0)).max().unwrap_or_default();
    let trim = seam.change.trim_to.map(|trim| tape.round(trim.length));
    let kept = trim.unwrap_or(allowance + taken_in);
    let outcome = if kept > BULKY.on(tape) { Outcome::Caution } else { Outcome::Passes };
    let found = Kept { allowance, taken_in, kept, is_trimmed: trim.is_some() };
    Some(Finding::new(seam.finding(Rule::Kept, side), outcome, Found::Kept(found)).at(from))
}
