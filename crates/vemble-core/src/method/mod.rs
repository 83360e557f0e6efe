//! Which method: from what is wanted at levels to the seams, darts and other means that could carry it, each tried out, and the best of them.
//!
//! **The search is exact**: every set of up to three carriers, and all seams together, in the few ways in which they can share what is
//! wanted, in whole marks of the tape. Each is drawn and judged like any other change. **The objective**, in this order: nothing that stops;
//! what is wanted is reached as it is chalked; the garment’s own cloth before any that is set in; fewest cautions; fewest minutes; fewest traces that show; fewest carriers; then the order of
//! the garment's seams and darts. The same garment and the same wish give the same answer.

mod candidate;
mod like;
mod share;
mod told;
mod trial;
mod wanted;

#[cfg(test)]
mod tests;

pub use like::{Like, LikeLine};
pub use told::{Fallen, Method, MethodLevel, Methods, Nearest, WantedLine};
pub use trial::Trace;

use crate::body::Wearer;
use crate::change::hem::Cutting;
use crate::change::{Change, On, draw};
use crate::document::{Document, State};
use crate::fault::{Fault, Wrong};
use crate::garment::Garment;
use crate::judge::{Subject, girths};
use crate::length::Tape;
use crate::solve::draw_below;
use crate::try_on::TryOn;
use candidate::{Candidate, Carrier, candidates, is_of_girth, is_reached};
use serde::{Deserialize, Serialize};
use trial::{Baseline, Trial, try_out};
use utoipa::ToSchema;
use wanted::Wanted;

/// How many are shown side by side.
const BEST: usize = 3;
/// Where nothing reaches what is wanted, it is looked for to so many parts of it.
const PARTS: i64 = 20;

/// Where what is wanted comes from.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WantedFrom {
    /// It was typed, level by level.
    #[default]
    Typed,
    /// It is what the pins of the try-on come to, whatever seam they stand on.
    Pins,
}

/// What all ways are tried on.
#[derive(Clone, Copy)]
struct Table<'a> {
    document: &'a Document,
    garment: &'a Garment,
    wearer: &'a Wearer,
    try_on: &'a TryOn,
    tape: Tape,
}

/// Finds the ways to do what is wanted in the newest try-on of `document`, with figures on `tape`.
///
/// # Errors
/// Every fault of the document, and of what is pinned in its newest try-on.
///
/// # Complexity
/// Draws and judges once for each candidate: some two hundred for ten seams and four darts; up to six times as many where nothing
/// reaches what is wanted.
pub fn methods(document: &Document, from: WantedFrom, tape: Tape) -> Result<Methods, Vec<Fault>> {
    let faults = document.faults();
    if !faults.is_empty() {
        return Err(faults);
    }
    let no_state = || vec![Fault { path: "states".into(), wrong: Wrong::NoState }];
    let newest = document.newest().ok_or_else(no_state)?;
    let fresh = TryOn::on(newest.id, jiff::civil::Date::default());
    let try_on = document.try_ons.last().unwrap_or(&fresh);
    let state: &State = document.state(try_on.state).unwrap_or(newest);
    let garment = state.garment.with_levels_in_order(&document.wearer);
    let table = Table { document, garment: &garment, wearer: &document.wearer, try_on, tape };
    let at = document.try_ons.len().saturating_sub(1);
    let below = |(field, wrong)| Fault { path: format!("try_ons[{at}].{field}"), wrong };
    let drawn = draw_below(&garment, &document.wearer, try_on, document.wishes.schools)
        .map_err(|wrong| wrong.into_iter().map(below).collect::<Vec<_>>())?;
    let wanted: Vec<Wanted> = match from {
        WantedFrom::Typed => wanted::typed(&garment, &try_on.wanted),
        WantedFrom::Pins => {
            let subject = Subject { changes: &drawn, put_on: try_on.put_on(), ..table.as_it_is() };
            wanted::of_girths(&girths(&subject))
        }
    };
    Ok(table.told(&wanted))
}

/// What would make a garment measure like another that fits, laid flat and measured at the same levels, with figures on a tape. What is
/// wanted is exact, and may be typed into a try-on as it is.
pub fn wanted_like(own: &Garment, other: &Garment, tape: Tape) -> Like {
    like::compare(own, other, tape)
}

impl<'a> Table<'a> {
    fn as_it_is(&self) -> Subject<'a> {
        let put_on = self.try_on.put_on();
        let schools = self.document.wishes.schools;
        Subject { put_on, schools, ..Subject::as_it_is(self.garment, self.wearer, self.tape) }
    }

    /// Tries all candidates for what is wanted, the best first; those that fall last.
    fn tried(&self, wanted: &[Wanted], baseline: &Baseline) -> Vec<(Candidate, Trial)> {
        let mut all: Vec<(Candidate, Trial)> = candidates(self.garment, wanted, self.tape)
            .into_iter()
            .filter_map(|candidate| Some((try_out(self, &candidate, wanted, baseline)?, candidate)))
            .map(|(trial, candidate)| (candidate, trial))
            .collect();
        // Stable: what is equal stays in the order of the garment.
        all.sort_by_key(|(candidate, trial)| (trial.order(), candidate.carriers.len()));
        all
    }

    /// Without what cannot be reached at all, which is named beside the rest.
    fn told(&self, all: &[Wanted]) -> Methods {
        let (wanted, others): (Vec<Wanted>, Vec<Wanted>) =
            all.iter().copied().partition(|w| w.is_nought() || is_reached(self.garment, w.level));
        let not_there = self.without().map(|level| told::not_there(self.garment, level));
        let not_reached = others.iter().map(|w| told::not_reached(self.garment, w.level));
        let without: Vec<String> = not_there.chain(not_reached).collect();
        let wanted = &wanted[..];
        let baseline = self.draws(&self.kept_changes(wanted), Baseline::of).unwrap_or_default();
        let is_wanted = wanted.iter().any(|w| !w.is_nought());
        let tried = if is_wanted { self.tried(wanted, &baseline) } else { Vec::new() };
        // Of every set of carriers the best way to share; the first few of those that do not fall.
        let mut best: Vec<usize> = Vec::new();
        for (n, (candidate, trial)) in tried.iter().enumerate() {
            let is_new = best.iter().all(|b| tried[*b].0.carriers != candidate.carriers);
            if best.len() < BEST && is_new && !trial.falls() {
                best.push(n);
            }
        }
        let nearest = (is_wanted && best.is_empty()).then(|| self.nearest(wanted, &baseline)).flatten();
        told::tell(self, wanted, &tried, &best, nearest, &baseline, without)
    }

    /// As much of what is wanted as something reaches; nothing where nothing reaches a twentieth. What goes by less goes by more: halved
    /// again and again.
    fn nearest(&self, wanted: &[Wanted], baseline: &Baseline) -> Option<(Vec<Wanted>, Candidate, Trial)> {
        let part = |part: i64| {
            let less: Vec<Wanted> = wanted.iter().map(|w| w.part(part, PARTS, self.tape)).collect();
            let is_wanted = !less.iter().all(Wanted::is_nought);
            let (candidate, trial) = is_wanted.then(|| self.tried(&less, baseline).into_iter().next())??;
            (!trial.falls()).then_some((less, candidate, trial))
        };
        let (mut goes, mut fails, mut found) = (0, PARTS, None);
        while fails - goes > 1 {
            let middle = (goes + fails) / 2;
            match part(middle) {
                Some(there) => (goes, found) = (middle, Some(there)),
                None => fails = middle,
            }
        }
        found
    }

    /// Levels at which something is wanted, and which the garment does not have.
    fn without(&self) -> impl Iterator<Item = crate::place::Level> {
        let levels = self.try_on.wanted.iter().map(|wanted| wanted.level);
        levels.filter(|level| self.garment.level(*level).is_none())
    }

    /// What a method leaves as it is: everything that takes nothing off a girth where something is wanted.
    fn kept_changes(&self, wanted: &[Wanted]) -> Vec<Change> {
        let reaches = |carrier: Carrier| wanted.iter().any(|w| carrier.reaches(self.garment, w.level));
        let carries = |change: &Change| match change {
            Change::Seam(seam) => {
                let others = seam.spread.iter().map(|share| share.seam);
                std::iter::once(seam.seam).chain(others).any(|seam| reaches(Carrier::Seam(seam)))
            }
            Change::Dart(dart) => is_of_girth(self.garment, dart.dart) && reaches(Carrier::Dart(dart.dart)),
            Change::Elastic(elastic) => reaches(Carrier::Elastic(elastic.at)),
            Change::Armhole(_) | Change::Hem(_) | Change::Spacing(_) => false,
            Change::Gathers(_) | Change::Trunk(_) => false,
        };
        self.try_on.changes.iter().filter(|change| !carries(change)).cloned().collect()
    }

    /// Draws other changes, and looks at them.
    ///
    /// # Errors
    /// The first thing that is wrong with them.
    fn draws<T>(&self, changes: &[Change], then: impl FnOnce(&Subject<'_>) -> T) -> Result<T, Wrong> {
        let keeps_all = self.document.wishes.schools.cutting == Some(Cutting::Never);
        let on =
            On { garment: self.garment, wearer: self.wearer, hem_marks: &self.try_on.hem_marks, keeps_all };
        let drawn =
            draw(on, changes).map_err(|wrong| wrong.into_iter().next().map_or(Wrong::Blank, |w| w.2))?;
        Ok(then(&Subject { changes: &drawn, ..self.as_it_is() }))
    }
}
