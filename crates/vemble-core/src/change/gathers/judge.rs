//! Gathers and pleats: whether there is something to take together, whether it lies well, and what the garment has of it once it is sewn.

use super::pleats::{GatherSums, GatheredEdge};
use crate::change::{ChangeKey, DrawnChange};
use crate::fitting::GarmentSide;
use crate::garment::{GatherHow, GatheredFacts, LongEdge, Weight};
use crate::judge::{Finding, FindingKey, Judge, Outcome, Rule, Subject, girth_at, girths};
use crate::length::{Length, Tape};
use crate::place::Level;

/// Below so many percent of its length a gathered edge looks eased by mistake (teaching value).
const SHOWS_FROM: i64 = 120;
/// Above so many percent it stands up like a ruff: in light and medium cloth, and in heavy (teaching values).
const STANDS_FROM: [i64; 2] = [300, 200];
/// Pleats all one way lie on each other above three times their length; box pleats as well.
const OVERLAPS_FROM: i64 = 300;

/// The figures that findings about gathers rest on.
#[derive(Clone, Debug)]
pub(crate) enum Found {
    /// What it is brought to is not known.
    Unknown { long: Length },
    /// Nothing is too long.
    Nothing { long: Length, short: Length },
    /// What it comes to, and what speaks against it.
    Comes { sums: GatherSums, against: Option<Against> },
}

/// What speaks against gathers or pleats.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Against {
    /// So little looks like a mistake.
    Little,
    /// It is longer than what goes round below it: this.
    Narrows { hip: Length },
    /// So much does not lie.
    Much,
    /// Pleats lie on each other.
    Overlap,
    /// Not every pleat is alike.
    Unlike,
}

impl Judge for GatheredEdge<'_> {
    fn judge(&self, subject: &Subject<'_>) -> Vec<Finding> {
        let Some(long) = self.change.long.map(|m| subject.tape.round(m.length)) else { return Vec::new() };
        let (outcome, found) = match (self.sums(subject), self.short(subject)) {
            (Some(sums), _) => {
                let against = self.against(subject, &sums);
                let outcome = match against {
                    None | Some(Against::Unlike) => Outcome::Passes,
                    Some(_) => Outcome::Caution,
                };
                (outcome, Found::Comes { sums, against })
            }
            (None, Some(short)) => (Outcome::Stop, Found::Nothing { long, short }),
            (None, None) => (Outcome::Stop, Found::Unknown { long }),
        };
        let key = FindingKey::about(Rule::Gathers, ChangeKey::Gathers(self.key()));
        vec![Finding::new(key, outcome, found)]
    }
}

impl GatheredEdge<'_> {
    /// What it is brought to: as typed, or what the garment will measure there.
    pub(super) fn short(&self, subject: &Subject<'_>) -> Option<Length> {
        let typed = self.change.short.map(|m| subject.tape.round(m.length));
        typed.or_else(|| self.will_measure(subject))
    }

    /// What the garment will measure there, at a mark.
    pub(super) fn will_measure(&self, subject: &Subject<'_>) -> Option<Length> {
        let level = self.key().level();
        let girth = match self.key().hem() {
            None => girths(subject).into_iter().find(|g| g.level.level == level).map(|g| g.after),
            Some(edge) => {
                let hem = subject.hems().find(|hem| hem.key() == edge);
                let off = hem.and_then(|hem| Some(hem.ring(GarmentSide::Left)?.at_the_sides(subject.tape)));
                girth_at(subject, level, off.unwrap_or_default(), GarmentSide::Left)
            }
        };
        girth.map(|girth| subject.tape.round(girth))
    }

    /// What it comes to; nothing while a length is not known, or where nothing is too long.
    pub(crate) fn sums(&self, subject: &Subject<'_>) -> Option<GatherSums> {
        let long = subject.tape.round(self.change.long?.length);
        GatherSums::of(self.change, long, self.short(subject)?, subject.tape)
    }

    /// What the hip will go round, where the edge hangs down to it.
    fn hip_below(&self, subject: &Subject<'_>) -> Option<Length> {
        let hip = || girths(subject).into_iter().find(|g| g.level.level == Level::Hip).map(|g| g.after);
        match self.key() {
            LongEdge::Waist => hip(),
            LongEdge::SleeveHem | LongEdge::Flounce => None,
        }
    }

    fn against(&self, subject: &Subject<'_>, sums: &GatherSums) -> Option<Against> {
        let heavy = subject.garment.cloth.weight == Weight::Heavy;
        let over = |percent: i64| sums.long * 100 > sums.short * percent;
        if let Some(hip) = self.hip_below(subject).filter(|hip| *hip < sums.long) {
            return Some(Against::Narrows { hip });
        }
        match sums.how {
            GatherHow::Gathers if !over(SHOWS_FROM) => Some(Against::Little),
            GatherHow::Gathers => over(STANDS_FROM[usize::from(heavy)]).then_some(Against::Much),
            GatherHow::KnifePleats | GatherHow::BoxPleats if over(OVERLAPS_FROM) => Some(Against::Overlap),
            GatherHow::KnifePleats | GatherHow::BoxPleats => {
                sums.takes().filter(|[least, most]| least != most).map(|_| Against::Unlike)
            }
        }
    }
}

/// An edge that is taken together, all of it at marks.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Gathered {
    /// Which.
    pub at: LongEdge,
    /// How.
    pub how: GatherHow,
    /// How long it is cut.
    pub long: Length,
    /// What it is brought to.
    pub short: Length,
    /// What the garment will measure there.
    pub round: Length,
}

impl Gathered {
    /// What a garment has of it once it is sewn.
    pub(crate) fn facts(&self, tape: Tape) -> GatheredFacts {
        GatheredFacts { at: self.at, by: tape.figure(self.long - self.short).measure(), how: self.how }
    }
}

/// Every edge that `subject` gathers or pleats and that comes to something, in order.
pub(crate) fn gathered_in(subject: &Subject<'_>) -> Vec<Gathered> {
    let of = |edge: &GatheredEdge<'_>| {
        let (sums, round) = (edge.sums(subject)?, edge.will_measure(subject)?);
        Some(Gathered { at: edge.key(), how: sums.how, long: sums.long, short: sums.short, round })
    };
    let edges = subject.changes.iter().filter_map(|change| match change {
        DrawnChange::Gathers(edge) => Some(edge),
        DrawnChange::Seam(_) | DrawnChange::Dart(_) | DrawnChange::Elastic(_) | DrawnChange::Hem(_) => None,
        DrawnChange::Spacing(_) | DrawnChange::Armhole(_) | DrawnChange::Trunk(_) => None,
    });
    edges.filter_map(of).collect()
}
