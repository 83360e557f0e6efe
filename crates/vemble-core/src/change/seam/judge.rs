//! What is found out about an altered seam, rule by rule.

use super::allowance::{Capacity, Kept, Trimmed};
use super::in_the_way::{Crossed, PocketGap, Thing};
use super::panel::Panel;
use super::partners::{Armhole, BandThere, EdgesApart, EndsIn, LiningThere};
use super::run_out::{Kink, RunOut};
use super::share::not_beside;
use super::{AlteredSeam, SeamChange, SeamShare, StitchingLine};
use super::{allowance, in_the_way, panel, partners, run_out};
use crate::change::{Change, ChangeKey};
use crate::fitting::{GarmentSide, SidePolicy};
use crate::garment::{Run, Seam};
use crate::judge::{Finding, FindingKey, Judge, Outcome, Rule, Subject, TwoSides};
use crate::length::{Length, Station, Taught};
use crate::place::Level;

/// From one seam of a leg or sleeve, per edge (teaching value: beyond it the grain visibly tips).
const LIMB_EDGE: Taught = Taught::new(25, 64);

/// The figures that findings about a seam rest on.
#[derive(Clone, Debug)]
pub(crate) enum Found {
    RunOut(RunOut),
    Kink(Kink),
    Capacity(Capacity),
    Panel {
        panel: Panel,
        is_needed: bool,
    },
    /// What the panel is cut from.
    PanelCloth(Panel),
    /// A panel cannot take in: so much is taken in on an edge.
    PanelTakesIn(Length),
    Kept(Kept),
    Trimmed(Trimmed),
    Grain(Grain),
    Crossed(Crossed),
    /// What is opened first, from the top down.
    Opened(Vec<Thing>),
    PocketGap(PocketGap),
    EdgesApart(EdgesApart),
    Armhole(Armhole),
    Band(BandThere),
    Lining(LiningThere),
    /// What is sewn to a neckline that goes round more, or less with a minus.
    RoundTheNeck {
        longer: Length,
    },
    EndsIn(EndsIn),
}

/// What one seam of a limb takes.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Grain {
    pub limb: Limb,
    pub deepest: Length,
    pub most: Length,
}

/// A limb that a seam runs along, and the seam that it can be shared with, where there is one.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Limb {
    Leg { other: Seam },
    Sleeve,
}

impl Judge for AlteredSeam<'_> {
    fn judge(&self, subject: &Subject<'_>) -> Vec<Finding> {
        let mut all: Vec<Finding> =
            TwoSides::judge(subject, ChangeKey::Seam(self.key()), &self.sides, || {
                Change::Seam(SeamChange { sides: Some(SidePolicy::KeepEach), ..self.change.as_ref().clone() })
            })
            .into_iter()
            .collect();
        for (side, line) in self.each_line() {
            all.extend(run_out::judge(subject, self, side, line));
            match self.change.set_in {
                true => all.extend(panel::judge(subject, self, side, line)),
                false => all.extend(allowance::judge(subject, self, side, line)),
            }
            // The edges of a panel stay where they are on the cloth.
            all.extend(grain(subject, self, side, line).filter(|_| !self.change.set_in));
            all.extend(partners::judge(subject, self, side, line));
        }
        all.extend(in_the_way::judge(subject, self));
        all.extend(partners::lining(subject, self));
        all
    }
}

impl AlteredSeam<'_> {
    /// The key of a finding about this seam, on one side or on both where they are the same.
    pub(super) const fn finding(&self, rule: Rule, side: Option<GarmentSide>) -> FindingKey {
        FindingKey { side, ..FindingKey::about(rule, ChangeKey::Seam(self.facts.seam)) }
    }
}

/// Too much from one seam tips the cloth's grain: the limb twists.
fn grain(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    side: Option<GarmentSide>,
    line: &StitchingLine,
) -> Option<Finding> {
    let (from, to) = line.span()?;
    let crotch = || subject.garment.station_on(seam.facts.seam, Level::Thigh).map(Station);
    let (limb, top) = if seam.facts.seam.run() == Run::DownSleeve {
        (Limb::Sleeve, None)
    } else if seam.facts.seam == Seam::Outseam && subject.garment.has_legs() {
        (Limb::Leg { other: Seam::Inseam }, crotch())
    } else if seam.facts.seam == Seam::Inseam {
        (Limb::Leg { other: Seam::Outseam }, crotch())
    } else {
        return None;
    };
    let top = to.min(top.unwrap_or(to));
    if from >= top {
        return None;
    }
    let deepest = line.deepest_chalked(from, top, subject.tape);
    let most = LIMB_EDGE.on(subject.tape);
    let outcome = if deepest > most { Outcome::Caution } else { Outcome::Passes };
    let split = || {
        let Limb::Leg { other } = limb else { return None };
        if subject.tape.round(deepest.fraction(1, 2)) > most {
            return None;
        }
        // An end that somebody set on it need not lie beyond what it would be given.
        let has_its_own = |drawn: &AlteredSeam<'_>| {
            let is_pinned = drawn.sides.pins.iter().any(|pins| !pins.is_empty());
            is_pinned || drawn.change.lower.is_some() || drawn.change.upper.is_some()
        };
        let other_facts = subject.garment.seam(other)?;
        let can_share = seam.change.spread.is_empty()
            && !subject.seams().any(|drawn| drawn.facts.seam == other && has_its_own(drawn))
            && not_beside(subject.garment, &seam.sides.pins, seam.facts.seam, other_facts).is_none();
        let share = SeamShare { seam: other, percent: 50 };
        can_share.then(|| Change::Seam(SeamChange { spread: vec![share], ..seam.change.as_ref().clone() }))
    };
    let facts = Found::Grain(Grain { limb, deepest, most });
    Some(Finding::new(seam.finding(Rule::Hang, side), outcome, facts).at(from).mended(split))
}
