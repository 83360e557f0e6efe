//! How a long edge is brought to a short one: what is too long, shared out among pleats at marks of the tape.

use super::input::GathersChange;
use crate::change::{Drawn, Input, On, Term, Wrongs};
use crate::fault::Wrong;
use crate::fitting::GarmentSide;
use crate::garment::{Garment, GatherHow, LongEdge};
use crate::length::{Length, Tape, Taught};
use crate::place::Level;

/// On one edge nobody folds more pleats than so many.
pub(super) const MOST: u8 = 120;

/// A pleat is so deep when nobody says otherwise: 2.5 cm, 1 in (teaching value: it stays folded when it is walked in).
const USUAL_DEPTH: Taught = Taught::new(25, 64);

/// So many pleats more or fewer than wanted are taken where all then come out alike.
const GIVES_WAY: i64 = 2;

/// An edge that is gathered or pleated, as it was entered: what it is brought to depends on the seams.
#[derive(Clone, Copy, Debug)]
pub struct GatheredEdge<'a> {
    /// What was entered.
    pub change: &'a GathersChange,
}

/// One pleat on the long edge.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Pleat {
    /// Where it begins, along the long edge.
    pub from: Length,
    /// Where that is brought to: all between lies folded away.
    pub to: Length,
}

/// What it comes to on a tape, all at marks.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct GatherSums {
    /// How long the edge is.
    pub long: Length,
    /// What it is brought to.
    pub short: Length,
    /// Its pleats along the edge; none of gathers.
    pub pleats: Vec<Pleat>,
    /// How.
    pub how: GatherHow,
}

impl GatherSums {
    /// Brings `long` to `short`, both at marks; nothing where nothing is too long.
    pub(super) fn of(change: &GathersChange, long: Length, short: Length, tape: Tape) -> Option<Self> {
        let is_too_long = short > Length::ZERO && long > short;
        let pleats = match change.how.depths().filter(|_| is_too_long) {
            None => Vec::new(),
            Some(depths) => {
                let depth = change.depth.map_or_else(|| tape.round(USUAL_DEPTH.on(tape)), |m| m.length);
                let even = || come_out_even(long - short, depth, depths, tape);
                pleats(long, short, change.count.map_or_else(even, i64::from), depths, tape)
            }
        };
        is_too_long.then_some(Self { long, short, pleats, how: change.how })
    }

    /// What is too long.
    pub fn excess(&self) -> Length {
        self.long - self.short
    }

    /// Long edge ÷ short edge.
    pub fn ratio(&self) -> f64 {
        self.long.cm() / self.short.cm()
    }

    /// What the pleats take, least and most.
    pub fn takes(&self) -> Option<[Length; 2]> {
        let takes = || self.pleats.iter().map(|pleat| pleat.to - pleat.from);
        Some([takes().min()?, takes().max()?])
    }
}

impl GatheredEdge<'_> {
    /// Which edge.
    pub const fn key(&self) -> LongEdge {
        self.change.at
    }
}

/// How many pleats of about `depth` take up `excess`: the nearest number for which all are alike at marks, if there is one near; else the
/// nearest.
fn come_out_even(excess: Length, depth: Length, depths: i64, tape: Tape) -> i64 {
    let takes = (depth * depths).nm().max(1);
    let wanted = ((2 * excess.nm() + takes) / (2 * takes)).clamp(1, i64::from(MOST));
    let step = tape.mark().nm() * depths;
    let alike = |count: &i64| (1..=i64::from(MOST)).contains(count) && excess.nm() % (count * step) == 0;
    let near = (0..=GIVES_WAY).flat_map(|off| [wanted - off, wanted + off]);
    near.into_iter().find(alike).unwrap_or(wanted)
}

/// So many pleats along the edge, evenly, half a gap before the first and behind the last. What does not come out alike at marks is taken by
/// pleats nearest the middle.
fn pleats(long: Length, short: Length, count: i64, depths: i64, tape: Tape) -> Vec<Pleat> {
    // A pleat is folded in so many layers: what it takes is so many marks at a time where that comes out.
    let (excess, mark) = ((long - short).nm(), tape.mark().nm());
    let step = if (excess / mark) % depths == 0 { mark * depths } else { mark };
    let (each, over) = (excess / step / count, excess / step % count);
    // From the middle outwards, in turn.
    let mut order: Vec<i64> = (0..count).collect();
    order.sort_by_key(|n| ((2 * n + 1 - count).abs(), *n));
    let takes = |n: i64| {
        let more = order.iter().position(|place| *place == n).is_some_and(|rank| (rank as i64) < over);
        Length::from_nm((each + i64::from(more)) * step)
    };
    let mut folded = Length::ZERO;
    let along = |n: i64| tape.round(short.fraction(2 * n + 1, 2 * count));
    (0..count)
        .map(|n| {
            let from = along(n) + folded;
            folded = folded + takes(n);
            Pleat { from, to: along(n) + folded }
        })
        .collect()
}

impl Drawn for GatheredEdge<'_> {
    fn is_altered(&self) -> bool {
        self.change.long.is_some()
    }

    /// It gathers cloth and takes none away.
    fn takes(&self, _: &Garment, _: Level, _: Length, _: &[GarmentSide], _: Tape) -> Vec<Term> {
        Vec::new()
    }
}

/// Every edge that was entered.
///
/// # Errors
/// Each with the number of its change and the field that is wrong.
pub(crate) fn draw<'a>(
    on: On<'a>,
    changes: &[(usize, &'a GathersChange)],
) -> Result<Vec<GatheredEdge<'a>>, Wrongs> {
    let (mut drawn, mut faults) = (Vec::new(), Vec::new());
    for &(number, change) in changes {
        if !GathersChange::fits(on.garment, change.at) {
            faults.push((number, "at".into(), Wrong::NothingToGather { what: change.at.name() }));
        }
        for (field, length) in [("long", change.long), ("short", change.short), ("depth", change.depth)] {
            if let Some(found) = length.filter(|m| m.length <= Length::ZERO) {
                faults.push((number, field.into(), Wrong::NotPositive { found }));
            }
        }
        if change.count.is_some_and(|count| count == 0 || count > MOST) {
            faults.push((number, "count".into(), Wrong::NotACount { most: usize::from(MOST) }));
        }
        drawn.push(GatheredEdge { change });
    }
    if faults.is_empty() { Ok(drawn) } else { Err(faults) }
}

#[cfg(test)]
mod properties {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        /// Pleats take up all that is too long and no more, one behind the other, alike from both ends, and differ by a step at most.
        #[test]
        fn pleats_take_up_what_is_too_long(short in 100_i64..2000, more in 1_i64..3000, count in 1_i64..120, depths in prop::sample::select(vec![2_i64, 4])) {
            for tape in Tape::ALL.iter().copied() {
                let [short, long] = [short, short + more].map(|mm| tape.round(Length::from_mm(mm)));
                if long <= short { continue }
                let all = pleats(long, short, count, depths, tape);
                let takes: Vec<Length> = all.iter().map(|pleat| pleat.to - pleat.from).collect();
                prop_assert_eq!(takes.iter().copied().sum::<Length>(), long - short);
                let [least, most] = [takes.iter().min(), takes.iter().max()].map(|take| *take.unwrap());
                prop_assert!(most - least <= tape.mark() * depths);
                prop_assert!(all.windows(2).all(|pair| pair[0].to <= pair[1].from));
                prop_assert!(all[0].from >= Length::ZERO && all[all.len() - 1].to <= long);
                // From the other end the same, but for the one that is over and what falls between two marks.
                let differ = takes.iter().zip(takes.iter().rev()).filter(|(a, b)| a != b).count();
                prop_assert!(differ <= 2, "{:?}", takes);
            }
        }
    }
}
