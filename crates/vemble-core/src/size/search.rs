//! The search for sizes: exact, cut where what is chosen so far cannot come among the best.

use super::{NARROWEST, Table, Wanted};
use crate::length::Length;
use crate::work::Chart;

/// How many of each sort are kept.
const BEST: usize = 3;

/// How far beside what is wanted, in the order in which it counts.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord)]
pub(super) struct Cost {
    /// Levels that are below the least ease.
    pub below: usize,
    /// In all, over every level.
    pub miss: Length,
    pub operations: usize,
}

/// Sizes of one chart, level by level, and an allowance.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Candidate {
    pub chart: usize,
    pub sizes: Vec<usize>,
    pub allowance: Length,
    pub cost: Cost,
}

impl Candidate {
    pub fn is_blended(&self) -> bool {
        self.sizes.windows(2).any(|pair| pair[0] != pair[1])
    }
}

/// The best of one size and of blended ones, with allowances as they are and with narrower ones: of each sort a few, all in one order.
pub(super) fn best(table: &Table<'_>, wanted: &[Wanted]) -> Vec<Candidate> {
    let mut all = Vec::new();
    let allowance = table.allowance();
    for chart in 0..table.pattern.charts.len() {
        let Some(figures) = figures(table, &table.pattern.charts[chart], wanted) else { continue };
        let search = Search { table, wanted, figures, chart, allowance };
        for sort in [(false, false), (false, true), (true, false), (true, true)] {
            search.sort(sort, &mut all);
        }
    }
    // Stable: of what is equal, the chart and the sizes that come first, and the wider allowance.
    all.sort_by_key(|candidate| candidate.cost);
    all
}

/// What the garment measures at every wanted level, size by size. Nothing where the chart leaves one out, or nothing is wanted.
fn figures(table: &Table<'_>, chart: &Chart, wanted: &[Wanted]) -> Option<Vec<Vec<Length>>> {
    let row = |w: &Wanted| (0..chart.sizes.len()).map(|size| table.finished(chart, w.what, size)).collect();
    let rows: Option<Vec<Vec<Length>>> = wanted.iter().map(row).collect();
    rows.filter(|rows| !rows.is_empty())
}

struct Search<'a> {
    table: &'a Table<'a>,
    wanted: &'a [Wanted],
    /// By level, then by size.
    figures: Vec<Vec<Length>>,
    chart: usize,
    allowance: Length,
}

impl Search<'_> {
    /// Adds the best of one sort: blended or not, narrowed or not. Of one choice of sizes only its best allowance.
    fn sort(&self, (blended, narrowed): (bool, bool), all: &mut Vec<Candidate>) {
        let mut found: Vec<Candidate> = Vec::new();
        for allowance in self.allowances(narrowed) {
            self.go_on(allowance, blended, &mut Vec::new(), Cost::default(), &mut found);
        }
        all.extend(found);
    }

    /// As drawn; or every mark below it that is still wide enough, the widest first.
    fn allowances(&self, narrowed: bool) -> Vec<Length> {
        let mark = self.table.tape.mark();
        let narrowest = NARROWEST.on(self.table.tape);
        if !narrowed {
            return vec![self.allowance];
        }
        let below = (1..).map(|marks| self.allowance - mark * marks);
        below.take_while(|allowance| *allowance >= narrowest).collect()
    }

    fn go_on(
        &self,
        allowance: Length,
        blended: bool,
        sizes: &mut Vec<usize>,
        cost: Cost,
        found: &mut Vec<Candidate>,
    ) {
        let is_full = found.len() == BEST;
        if is_full
            && found.last().is_some_and(|worst| (cost.below, cost.miss) > (worst.cost.below, worst.cost.miss))
        {
            return;
        }
        let at = sizes.len();
        let Some(wanted) = self.wanted.get(at) else {
            let candidate = Candidate { chart: self.chart, sizes: sizes.clone(), allowance, cost };
            return self.keep(candidate, blended, found);
        };
        let gain = wanted.gain(self.allowance - allowance);
        let from = wanted.from.map(|from| (sizes[from.to], if blended { from.apart } else { 0 }));
        for (size, figure) in self.figures[at].iter().enumerate() {
            if from.is_some_and(|(from, apart)| from.abs_diff(size) > apart) {
                continue;
            }
            let girth = *figure + gain;
            let is_below = wanted.least.is_some_and(|least| girth < least);
            let miss = (girth - wanted.girth()).abs();
            let cost = Cost { below: cost.below + usize::from(is_below), miss: cost.miss + miss, ..cost };
            sizes.push(size);
            self.go_on(allowance, blended, sizes, cost, found);
            sizes.pop();
        }
    }

    fn keep(&self, mut candidate: Candidate, blended: bool, found: &mut Vec<Candidate>) {
        if candidate.is_blended() != blended {
            return;
        }
        let is_narrowed = candidate.allowance != self.allowance;
        candidate.cost.operations = usize::from(blended) + usize::from(is_narrowed);
        match found.iter().position(|other| other.sizes == candidate.sizes) {
            Some(there) if found[there].cost <= candidate.cost => return,
            Some(there) => drop(found.remove(there)),
            None => {}
        }
        let place = found.partition_point(|other| other.cost <= candidate.cost);
        found.insert(place, candidate);
        found.truncate(BEST);
    }
}

/// One candidate as it was chosen: what it costs today. Nothing where its chart or a size is no longer there.
pub(super) fn as_chosen(table: &Table<'_>, wanted: &[Wanted]) -> Option<Candidate> {
    let chosen = table.pattern.chosen.as_ref()?;
    let chart = table.pattern.charts.iter().position(|c| c.name == chosen.chart)?;
    let there = &table.pattern.charts[chart];
    let size = |w: &Wanted| {
        let named = chosen.sizes.iter().find(|s| s.level == w.level)?;
        there.sizes.iter().position(|size| *size == named.size)
    };
    let sizes: Vec<usize> = wanted.iter().map(size).collect::<Option<_>>()?;
    let figures = figures(table, there, wanted)?;
    let allowance = table.read(chosen.allowance);
    let mut cost = Cost::default();
    for ((w, size), row) in wanted.iter().zip(&sizes).zip(&figures) {
        let girth = row[*size] + w.gain(table.allowance() - allowance);
        cost.below += usize::from(w.least.is_some_and(|least| girth < least));
        cost.miss = cost.miss + (girth - w.girth()).abs();
    }
    let mut candidate = Candidate { chart, sizes, allowance, cost };
    candidate.cost.operations =
        usize::from(candidate.is_blended()) + usize::from(allowance != table.allowance());
    Some(candidate)
}
