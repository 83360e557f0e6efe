//! Things in the way: what an altered stretch crosses has to be unpicked first, and what it shifts is checked.

use super::AlteredSeam;
use super::judge::Found;
use crate::change::ChangeKey;
use crate::fitting::GarmentSide;
use crate::garment::{Pocket, Seam};
use crate::judge::{Finding, FindingKey, Outcome, Partner, Rule, Subject};
use crate::length::{Length, Station, Taught};

/// Between back pockets: 2.5 cm at least (teaching value).
pub(super) const POCKETS_APART: Taught = Taught::new(25, 64);

/// Something that lies across the altered stretch.
#[derive(Clone, Debug)]
pub(crate) struct Crossed {
    pub what: String,
    pub from: Length,
    pub to: Length,
}

/// Pockets that come closer by all that a seam between them takes in.
#[derive(Clone, Copy, Debug)]
pub(crate) struct PocketGap {
    pub pockets: Pocket,
    pub whole: Length,
    pub at: Station,
    /// How far they are apart now, if somebody measured it.
    pub apart: Option<Length>,
}

pub(super) fn judge(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> Vec<Finding> {
    let span = seam.span();
    let crossed =
        seam.facts.in_the_way.iter().filter(|thing| {
            span.is_some_and(|(from, to)| thing.from.length < to.0 && thing.to.length > from.0)
        });
    let crossed = crossed.map(|thing| {
        let facts = Crossed { what: thing.what.clone(), from: thing.from.length, to: thing.to.length };
        let key = FindingKey { at: Some(thing.from), ..seam.finding(Rule::InTheWay, None) };
        Finding::new(key, Outcome::Caution, Found::Crossed(facts)).at(Station(thing.from.length))
    });
    crossed.chain(pocket_gap(subject, seam)).collect()
}

fn pocket_gap(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> Option<Finding> {
    let pockets = subject.garment.back_pockets()?;
    if !matches!(seam.facts.seam, Seam::SeatSeam | Seam::CentreBack) {
        return None;
    }
    let (from, to) = seam.span()?;
    // They lie in the upper half of the seat.
    let middle = Station((from.0 + seam.facts.length.length).fraction(1, 2).min(to.0));
    let tape = subject.tape;
    let whole = seam.line(GarmentSide::Left).chalked(middle, tape)?.whole().0;
    if whole <= Length::ZERO {
        return None;
    }
    let apart = subject.garment.found.back_pockets_apart.map(|m| tape.round(m.length));
    let outcome = match apart {
        Some(apart) if apart - whole >= POCKETS_APART.on(tape) => Outcome::Passes,
        Some(_) | None => Outcome::Caution,
    };
    let key = FindingKey {
        partner: Some(Partner::Pockets),
        ..FindingKey::about(Rule::InTheWay, ChangeKey::Seam(seam.facts.seam))
    };
    let facts = Found::PocketGap(PocketGap { pockets, whole, at: middle, apart });
    Some(Finding::new(key, outcome, facts).at(middle))
}
