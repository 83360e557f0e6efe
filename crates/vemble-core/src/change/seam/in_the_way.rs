//! Things in the way: what an altered stretch crosses has to be unpicked first, and what it shifts is checked.

use super::judge::Found;
use super::{AlteredSeam, StitchingLine};
use crate::change::ChangeKey;
use crate::fitting::{End, GarmentSide};
use crate::garment::{Closure, Garment, Opening, Pocket, Run, Seam, SpecialEdge};
use crate::judge::{Finding, FindingKey, Outcome, Partner, Rule, Subject};
use crate::length::{Length, Station, Taught};
use crate::place::Level;

/// Between back pockets: 2.5 cm at least (teaching value).
pub(super) const POCKETS_APART: Taught = Taught::new(25, 64);

/// So near a place that a line ends before it is still in the way: 1 cm (teaching value: a foot's width that has to be opened to sew up to
/// it).
const NEAR: Length = Length::from_mm(10);

/// Something that lies across the altered stretch, from station to station.
#[derive(Clone, Debug)]
pub(crate) struct Crossed {
    pub what: String,
    pub from: Length,
    pub to: Length,
}

/// Something that the facts of the garment put where the altered stretch is: it is opened first and closed last.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Thing {
    /// What opens there.
    Closure(Closure, Opening),
    /// Pockets whose openings lie in the seam or end in it.
    Pockets(Pocket),
    /// The seam is stitched again on the right side.
    Topstitching,
    /// Another seam crosses it.
    Crossing(Seam),
    /// The hem, where the line reaches it.
    Hem,
    /// A hem that cannot simply be sewn again.
    Edge(SpecialEdge),
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
    let things = seam.things_to_open(subject.garment);
    let opened = span.filter(|_| !things.is_empty()).map(|(from, _)| {
        // A hem and topstitching are opened every day.
        let is_plain = |thing: &Thing| matches!(thing, Thing::Hem | Thing::Topstitching);
        let outcome = if things.iter().all(is_plain) { Outcome::Passes } else { Outcome::Caution };
        Finding::new(seam.finding(Rule::InTheWay, None), outcome, Found::Opened(things)).at(from)
    });
    crossed.chain(opened).chain(pocket_gap(subject, seam)).collect()
}

impl AlteredSeam<'_> {
    /// It runs down the middle and is altered at the waist that it ends at.
    pub(super) fn goes_through_the_waist(&self, garment: &Garment) -> bool {
        let reaches = |line: &StitchingLine| !matches!(line.ends.upper, End::MeetsOldStitching { .. });
        let seam = self.facts.seam;
        seam.run() == Run::Down
            && seam.is_single()
            && garment.span_of(seam).1 == Level::Waist
            && self.each_line().any(|(_, line)| reaches(line))
    }

    /// What the facts of the garment put where this seam is altered, from the top down.
    pub(super) fn things_to_open(&self, garment: &Garment) -> Vec<Thing> {
        let Some((from, to)) = self.span() else { return Vec::new() };
        let (seam, mut things) = (self.facts.seam, Vec::new());
        let reaches = |level: Level| {
            let at = garment.station_on(seam, level);
            at.is_some_and(|at| from.0 <= at + NEAR && at <= to.0 + NEAR)
        };
        let closures = garment.closures.iter().filter(|closure| closure.at.is_in(seam));
        // A cuff opens at the sleeve's hem, everything else somewhere from hip to bust.
        let opens = [Level::Waist, Level::Hip, Level::Bust, Level::SleeveHem];
        things.extend(
            closures
                .filter(|_| opens.into_iter().any(reaches))
                .map(|closure| Thing::Closure(closure.closure, closure.at)),
        );
        let at_the_side = matches!(seam, Seam::SideSeam | Seam::Outseam);
        let pockets = garment.pockets.iter().copied().filter(|pocket| {
            at_the_side && matches!(pocket, Pocket::InSeam | Pocket::Slant | Pocket::FrontScoop)
        });
        things.extend(pockets.filter(|_| reaches(Level::Waist) || reaches(Level::Hip)).map(Thing::Pockets));
        if self.facts.topstitched {
            things.push(Thing::Topstitching);
        }
        let crosses = |other: Seam| match other {
            Seam::WaistSeam => garment.span_of(seam).1 != Level::Waist && reaches(Level::Waist),
            Seam::YokeSeam => matches!(seam, Seam::SeatSeam | Seam::CentreBack) && reaches(Level::Waist),
            Seam::Outseam
            | Seam::Inseam
            | Seam::SeatSeam
            | Seam::FrontRise
            | Seam::SideSeam
            | Seam::CentreFront
            | Seam::CentreBack
            | Seam::PrincessFront
            | Seam::PrincessBack
            | Seam::PanelFront
            | Seam::PanelBack
            | Seam::ShoulderSeam
            | Seam::ArmholeSeam
            | Seam::SleeveSeam
            | Seam::SleeveBackSeam
            | Seam::NeckSeam => false,
        };
        if seam.run() == Run::Down {
            let seams = garment.seams.iter().map(|facts| facts.seam);
            things.extend(seams.filter(|other| crosses(*other)).map(Thing::Crossing));
        }
        let begins = garment.span_of(seam).0;
        if matches!(begins, Level::Hem | Level::SleeveHem) && from.0 <= NEAR {
            let special = |edge: &SpecialEdge| *edge != SpecialEdge::Plain && begins == Level::Hem;
            things.push(garment.found.edge.filter(special).map_or(Thing::Hem, Thing::Edge));
        }
        things
    }
}

fn pocket_gap(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> Option<Finding> {
    let pockets = subject.garment.back_pockets()?;
    if !matches!(seam.facts.seam, Seam::SeatSeam | Seam::CentreBack) {
        return None;
    }
    let (from, to) = seam.span()?;
    // They lie in the upper half of the seat.
    let middle = Station((from.0 + seam.facts.end()).fraction(1, 2).min(to.0));
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
