//! Pace: how long things really take, learnt from the log, by kind of task. What was done lately weighs more.

use super::chain::Chain;
use super::progress::Progress;
use super::task::{Minutes, Task};
use crate::work::Step;
use std::collections::BTreeMap;

/// How long a kind of task takes, in percent of the usual.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Ratio {
    /// How often it was timed.
    pub count: usize,
    /// Least, likely, most.
    pub percent: [u32; 3],
}

/// From so many timed tasks on the log is believed (teaching value: two may both have been bad days).
const ENOUGH: usize = 3;
/// What was done before counts so many percent of what was done after it (teaching value: hands get faster within a garment or two).
const FADES: f64 = 0.7;
/// The last so many are looked at.
const LAST: usize = 12;
/// A ratio beyond these is a slip, not a pace.
const BELIEVED: [u32; 2] = [20, 500];

/// How long kinds of tasks take.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Pace(BTreeMap<Step, Ratio>);

impl Pace {
    /// How long a task takes: as learnt, or as usual.
    pub fn of(&self, task: &Task) -> Minutes {
        match self.0.get(&task.key.step) {
            Some(ratio) if ratio.count >= ENOUGH => Minutes::at(ratio.percent, task.usual),
            Some(_) | None => Minutes::about(task.usual),
        }
    }

    /// What was learnt so far, by step.
    pub fn learnt(&self) -> impl Iterator<Item = (Step, Ratio)> {
        self.0.iter().map(|(step, ratio)| (*step, *ratio))
    }
}

/// Learns from everything that was done: each task's actual ÷ usual minutes, by its step, the older ones weighing less.
pub(crate) fn paces<'a>(done: impl Iterator<Item = (&'a Chain, &'a Progress)>) -> Pace {
    let mut timed: BTreeMap<Step, Vec<(jiff::Timestamp, u32)>> = BTreeMap::new();
    for (chain, progress) in done {
        for task in &chain.tasks {
            let standing = progress.of(task.key);
            if let (super::StandsAt::Done(at), Some(minutes)) = (standing.at, standing.minutes) {
                let percent = (minutes * 100).div_ceil(task.usual.max(1));
                if (BELIEVED[0]..=BELIEVED[1]).contains(&percent) {
                    timed.entry(task.key.step).or_default().push((at, percent));
                }
            }
        }
    }
    let ratio = |mut all: Vec<(jiff::Timestamp, u32)>| {
        all.sort_unstable();
        let lately: Vec<u32> = all.iter().rev().take(LAST).map(|(_, percent)| *percent).collect();
        let weigh = || std::iter::successors(Some(1.0), |weight| Some(weight * FADES));
        let weights: f64 = weigh().take(lately.len()).sum();
        let mean = lately.iter().zip(weigh()).map(|(p, w)| f64::from(*p) * w).sum::<f64>()
            / weights.max(f64::MIN_POSITIVE);
        let likely = mean.round() as u32;
        let least = lately.iter().copied().min().unwrap_or(likely);
        let most = lately.iter().copied().max().unwrap_or(likely);
        Ratio { count: all.len(), percent: [least.min(likely), likely, most.max(likely)] }
    };
    Pace(timed.into_iter().map(|(step, all)| (step, ratio(all))).collect())
}
