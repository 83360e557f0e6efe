//! Which size: from the charts of a pattern and the ease that is wanted to the sizes that come nearest, before anything is cut.
//!
//! **The search is exact**: one size, or sizes blended from level to level, of one chart; with allowances as they are drawn, or narrower by
//! whole marks of the tape. **The objective**, in this order: fewest levels below the least ease; least in all beside what is wanted;
//! fewest operations; then the order of charts and sizes, and the wider allowance.

mod cut;
mod ease;
mod flags;
mod lengths;
mod search;
mod told;

#[cfg(test)]
mod tests;

pub use cut::AsCut;
pub use ease::{Fits, ease_of};
pub use told::{ChartLine, ChartTable, HeldLine, SizeCandidate, SizeLength, SizeLevel, Sizes, WantedGirth};

use crate::body::{BodyMeasurement, Posture, Wearer};
use crate::garment::{Closure, ClosureFacts, Garment, Opening, Round, Run, Seam};
use crate::length::{Length, Measure, Tape, Taught, Unit};
use crate::place::Level;
use crate::work::{Chart, ChartSays, Pattern};
use ease::WantedEase;

/// No seam is sewn with less (teaching value: below it a woven edge frays into its stitches, and nothing is left to let out).
const NARROWEST: Taught = Taught::new(10, 24);
/// The allowance of a pattern that does not say its own (teaching value: what most home patterns are drawn with).
const USUAL: Taught = Taught::new(15, 40);
/// Levels so far apart may be two sizes apart; nearer ones make a line that no body has (teaching value).
const FAR_APART: Length = Length::from_mm(150);

/// What sizes are compared for.
#[derive(Clone, Copy)]
struct Table<'a> {
    garment: &'a Garment,
    wearer: &'a Wearer,
    pattern: &'a Pattern,
    tape: Tape,
}

/// Seams, with how many of each.
type Counted = Vec<(Seam, i64)>;
/// Seams with a closure.
type Closed = Vec<(Seam, Closure)>;

/// A level at which sizes are compared.
#[derive(Clone, Debug, PartialEq)]
struct Wanted {
    level: Level,
    what: BodyMeasurement,
    body: Length,
    ease: WantedEase,
    /// Least that it may measure; nothing where none is taught.
    least: Option<Length>,
    /// The seams that cross it and could have narrower allowances, with how many of each.
    seams: Counted,
    /// Seams with a closure, which are left alone.
    closed: Closed,
    /// The level that it goes on from, and how many sizes it may be from that one. Nothing for the topmost.
    from: Option<Joined>,
}

/// The level that another goes on from: on the body and on a sleeve the one above, for the topmost of a sleeve the bust, where its armhole ends.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
struct Joined {
    /// Which of the levels.
    to: usize,
    /// At most so many sizes from it.
    apart: usize,
}

impl Wanted {
    fn girth(&self) -> Length {
        self.body + self.ease.ease
    }

    /// What goes round it gains by allowances that are `narrower` on every edge.
    fn gain(&self, narrower: Length) -> Length {
        let edges: i64 = self.seams.iter().map(|(_, seams)| 2 * seams).sum();
        narrower * edges
    }
}

/// Finds the sizes of its pattern that come nearest to what is wanted of a garment on its wearer, with figures on `tape`. Garments of the
/// same wearer that fit tell how much ease is liked where nobody typed it.
///
/// # Complexity
/// Sizes × 3 for each further level (× 5 where it lies far from the one before) × allowances, cut where it cannot come among the best.
pub fn sizes(garment: &Garment, wearer: &Wearer, pattern: &Pattern, fit: &[Fits<'_>], tape: Tape) -> Sizes {
    let ordered = garment.with_levels_in_order(wearer);
    let table = Table { garment: &ordered, wearer, pattern, tape };
    let wanted = table.wanted(fit);
    let found = search::best(&table, &wanted);
    let mut told = told::tell(&table, &wanted, &found);
    told.as_cut =
        search::as_chosen(&table, &wanted).and_then(|chosen| cut::as_cut(&table, garment, &wanted, &chosen));
    told
}

impl Table<'_> {
    /// A figure that somebody typed: exact on a tape of its own unit, at the nearest mark of another.
    fn read(&self, typed: Measure) -> Length {
        let is_inch = |unit| matches!(unit, Unit::In);
        if is_inch(typed.unit) == is_inch(self.tape.unit()) {
            typed.length
        } else {
            self.tape.round(typed.length)
        }
    }

    /// A figure as it is said: finer than the marks where somebody typed it so.
    fn bare(&self, length: Length) -> String {
        self.tape.as_typed(Measure { length, unit: self.tape.unit() })
    }

    fn show(&self, length: Length) -> String {
        format!("{} {}", self.bare(length), self.tape.unit_name())
    }

    /// The allowance that the pieces are drawn with.
    fn allowance(&self) -> Length {
        self.pattern.allowance.map_or_else(|| USUAL.on(self.tape), |typed| self.read(typed))
    }

    fn figure(&self, chart: &Chart, what: BodyMeasurement, says: ChartSays, size: usize) -> Option<Length> {
        chart.row(what, says)?.get(size).map(|typed| self.read(*typed))
    }

    /// What a chart's garment measures in a size: as it says, or the body it is for and its ease.
    fn finished(&self, chart: &Chart, what: BodyMeasurement, size: usize) -> Option<Length> {
        let figure = |says| self.figure(chart, what, says, size);
        figure(ChartSays::Finished).or_else(|| Some(figure(ChartSays::Body)? + figure(ChartSays::Ease)?))
    }

    fn body(&self, what: BodyMeasurement) -> Option<Length> {
        self.wearer.newest(what)?.figure().map(|typed| self.read(typed))
    }

    /// Every level that a chart has a finished girth for and the wearer a girth, from the top down.
    fn wanted(&self, fit: &[Fits<'_>]) -> Vec<Wanted> {
        let mut all: Vec<Wanted> = Vec::new();
        for level in Level::ALL.iter().copied() {
            let Some(what) = self.garment.body_at(level).filter(|_| self.garment.level(level).is_some())
            else {
                continue;
            };
            let is_charted = |chart: &Chart| self.finished(chart, what, 0).is_some();
            let (true, Some(body)) = (self.pattern.charts.iter().any(is_charted), self.body(what)) else {
                continue;
            };
            let band = self.garment.ease_wanted(level, body, self.tape);
            let Some(ease) = self.ease(level, band, fit) else { continue };
            let from = self.joined(&all, level);
            let (seams, closed) = self.seams_at(level);
            let least = band.map(|band| body + band.least);
            all.push(Wanted { level, what, body, ease, least, seams, closed, from });
        }
        all
    }

    /// What a level goes on from, of those above it.
    fn joined(&self, above: &[Wanted], level: Level) -> Option<Joined> {
        let last = above.len().checked_sub(1)?;
        if above[last].level.is_of_sleeve() == level.is_of_sleeve() {
            return Some(Joined { to: last, apart: self.may_be_apart(above[last].level, level) });
        }
        let to = above.iter().position(|w| w.level >= Level::Bust).unwrap_or(last);
        Some(Joined { to, apart: 1 })
    }

    /// At most one size from level to level; two where they lie far apart, unless the waist is short.
    fn may_be_apart(&self, above: Level, level: Level) -> usize {
        let height = |level| self.garment.level(level).map(|l| l.station.length);
        let [Some(above), Some(below)] = [height(above), height(level)] else { return 1 };
        if !self.wearer.stands(Posture::ShortWaist) && (above - below).abs() >= FAR_APART { 2 } else { 1 }
    }

    /// The seams that run through a level, with how many of each go round it; and those with a closure. Of a pair with a closure in one of them
    /// both are left alone: narrowed on one side alone, the garment would hang askew.
    fn seams_at(&self, level: Level) -> (Counted, Closed) {
        let (mut open, mut closed) = (Vec::new(), Vec::new());
        let garment = self.garment;
        // What ends at the waist seam of a coverall widens its legs there and not its bodice, which they are sewn to.
        let is_joined = level == Level::Waist && garment.seam(Seam::WaistSeam).is_some();
        let crosses = |seam: Seam| {
            let runs = if level.is_of_sleeve() { Run::DownSleeve } else { Run::Down };
            let goes_through = !is_joined || garment.span_of(seam).1 < level;
            seam.run() == runs && garment.station_on(seam, level).is_some() && goes_through
        };
        for facts in garment.seams.iter().filter(|facts| crosses(facts.seam)) {
            let seam = facts.seam;
            let of_one = !matches!(garment.round(level), Round::Whole);
            let seams = if of_one || seam.is_single() { 1 } else { 2 };
            match self.closure_in(seam) {
                Some(closure) => closed.push((seam, closure)),
                None => open.push((seam, seams)),
            }
        }
        (open, closed)
    }

    /// What opens a seam along its length.
    fn closure_in(&self, seam: Seam) -> Option<Closure> {
        let opens =
            |c: &&ClosureFacts| c.at.is_in(seam) && c.closure != Closure::Elastic && c.at != Opening::Cuff;
        self.garment.closures.iter().find(opens).map(|closure| closure.closure)
    }
}
