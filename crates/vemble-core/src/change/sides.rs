//! Two sides of one seam: readings from left and right become pins for both.

use super::Pin;
use crate::fitting::{Edges, FrontShare, GarmentSide, Reading, SidePolicy};
use crate::garment::Seam;
use crate::length::{Length, PerEdge, Station};
use std::cmp::Ordering;

/// Up to this difference per edge the mean is taken without asking: 6 mm, which is said 1/4 in on the other tape; the longer of the two
/// (teaching value: what pins wobble).
pub const AGREE_WITHIN: Length = Length::from_64ths(16);

/// Where the pins of both sides come from.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum SidesFrom {
    /// Nothing is pinned yet.
    Nothing,
    /// Only this side was pinned; the other is its copy.
    Copied(GarmentSide),
    /// It is there once and has no sides, on whichever side its pins were entered.
    Once,
    /// By a policy.
    By(SidePolicy),
    /// A share of what is pinned on another seam, in percent.
    Shared(Seam, u8),
    /// What a line brings that carries on from another seam.
    Carried(Seam),
}

/// Both sides after they were made to agree.
#[derive(Clone, Debug, PartialEq)]
pub struct Sides {
    /// Where its pins come from.
    pub from: SidesFrom,
    /// The largest difference per edge between the sides and where it is, where both are known.
    pub apart: Option<(Length, Station)>,
    /// From where to where each side is pinned, when both are and nowhere beside each other: nothing can be compared.
    pub not_beside: Option<[(Station, Station); 2]>,
    /// True while somebody has to decide; the sides are kept as pinned until then.
    pub undecided: bool,
    /// Pins of the garment's left and right, from the hem up.
    pub pins: [Vec<Pin>; 2],
}

impl Sides {
    /// Nothing is apart, or no more than pins wobble.
    pub fn agree_by_themselves(&self) -> bool {
        self.apart.is_none_or(|(by, _)| by <= AGREE_WITHIN)
    }
}

/// Makes the two sides of a change agree: the readings of both, how much of each comes off the front edge, and what somebody said.
///
/// Without a policy one pinned side is copied; two sides within [`AGREE_WITHIN`] give their mean; otherwise, and where they are pinned
/// nowhere beside each other, each keeps its own and the result is undecided. Stations need not agree: each side is read off between its
/// pins. What `is_single` has no sides to agree.
pub fn reconcile(
    readings: &[Reading],
    share: FrontShare,
    policy: Option<SidePolicy>,
    is_single: bool,
) -> Sides {
    let of_side = |side: GarmentSide| {
        let own = readings.iter().filter(|r| is_single || r.side == side);
        let mut pins: Vec<Pin> = own.map(|r| Pin { station: r.at(), edges: r.edges(share) }).collect();
        pins.sort_by_key(|p| p.station);
        pins
    };
    let pinned = GarmentSide::BOTH.map(of_side);
    if is_single {
        let from = if readings.is_empty() { SidesFrom::Nothing } else { SidesFrom::Once };
        return Sides { from, apart: None, not_beside: None, undecided: false, pins: pinned };
    }
    let [left, right] = &pinned;
    let apart = stations(left, right)
        .filter_map(|s| Some((difference(between(left, s)?, between(right, s)?), s)))
        .reduce(|a, b| if b.0 > a.0 { b } else { a });
    let reach = |pins: &[Pin]| Some((pins.first()?.station, pins.last()?.station));
    let not_beside =
        reach(left).zip(reach(right)).filter(|_| apart.is_none()).map(|(left, right)| [left, right]);
    let differ = not_beside.is_some() || apart.is_some_and(|(by, _)| by > AGREE_WITHIN);
    let (from, undecided) = match (left.is_empty(), right.is_empty(), policy) {
        (true, true, _) => (SidesFrom::Nothing, false),
        (_, _, Some(SidePolicy::KeepEach)) => (SidesFrom::By(SidePolicy::KeepEach), false),
        (false, true, _) => (SidesFrom::Copied(GarmentSide::Left), false),
        (true, false, _) => (SidesFrom::Copied(GarmentSide::Right), false),
        (_, _, Some(policy)) => (SidesFrom::By(policy), false),
        _ if differ => (SidesFrom::By(SidePolicy::KeepEach), true),
        _ => (SidesFrom::By(SidePolicy::Mean), false),
    };
    let pins = match from {
        SidesFrom::Nothing | SidesFrom::Once | SidesFrom::Shared(..) | SidesFrom::Carried(_) => pinned,
        SidesFrom::By(SidePolicy::KeepEach) => pinned,
        SidesFrom::Copied(side) => twice(pinned[side as usize].clone()),
        SidesFrom::By(SidePolicy::Left) => twice(pinned[0].clone()),
        SidesFrom::By(SidePolicy::Right) => twice(pinned[1].clone()),
        SidesFrom::By(policy @ (SidePolicy::Mean | SidePolicy::Larger | SidePolicy::Smaller)) => {
            twice(merged(left, right, policy))
        }
    };
    Sides { from, apart, not_beside, undecided, pins }
}

fn twice(pins: Vec<Pin>) -> [Vec<Pin>; 2] {
    [pins.clone(), pins]
}

/// All stations of both sides, in order, each once.
fn stations(left: &[Pin], right: &[Pin]) -> impl Iterator<Item = Station> {
    let mut stations: Vec<Station> = left.iter().chain(right).map(|p| p.station).collect();
    stations.sort();
    stations.dedup();
    stations.into_iter()
}

/// What a side takes off at a station, straight between its pins; nothing beyond them.
pub(crate) fn between(pins: &[Pin], at: Station) -> Option<Edges> {
    let next = pins.iter().position(|p| p.station >= at)?;
    if pins[next].station == at {
        return Some(pins[next].edges);
    }
    let (low, high) = (pins.get(next.checked_sub(1)?)?, pins[next]);
    let share = (at.0 - low.station.0).cm() / (high.station.0 - low.station.0).cm();
    let mix = |a: PerEdge, b: PerEdge| PerEdge(a.0 + Length::from_cm((b.0 - a.0).cm() * share));
    Some(Edges { front: mix(low.edges.front, high.edges.front), back: mix(low.edges.back, high.edges.back) })
}

fn difference(a: Edges, b: Edges) -> Length {
    (a.front.0 - b.front.0).abs().max((a.back.0 - b.back.0).abs())
}

/// One line for both sides; where only one side was pinned, that side decides. Larger and smaller are amounts, of what is taken in as of
/// what is let out; of two that are as large it is the mean.
fn merged(left: &[Pin], right: &[Pin], policy: SidePolicy) -> Vec<Pin> {
    let mean = |a: PerEdge, b: PerEdge| PerEdge((a.0 + b.0).fraction(1, 2));
    let merge = |a: Edges, b: Edges| {
        let amounts = a.whole().0.abs().cmp(&b.whole().0.abs());
        match (policy, amounts) {
            (SidePolicy::Larger, Ordering::Greater) | (SidePolicy::Smaller, Ordering::Less) => a,
            (SidePolicy::Larger, Ordering::Less) | (SidePolicy::Smaller, Ordering::Greater) => b,
            (SidePolicy::Larger | SidePolicy::Smaller, Ordering::Equal)
            | (SidePolicy::Mean | SidePolicy::Left | SidePolicy::Right | SidePolicy::KeepEach, _) => {
                Edges { front: mean(a.front, b.front), back: mean(a.back, b.back) }
            }
        }
    };
    let pins = stations(left, right).filter_map(|station| {
        let edges = match (between(left, station), between(right, station)) {
            (Some(a), Some(b)) => merge(a, b),
            (a, b) => a.or(b)?,
        };
        Some(Pin { station, edges })
    });
    pins.collect()
}
