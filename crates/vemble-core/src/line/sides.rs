//! Two sides of one seam: readings from left and right become pins for both.

use super::Pin;
use crate::fitting::{Alteration, Edges, GarmentSide};
use crate::garment::Seam;
use crate::length::{Length, PerEdge, Station};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Up to this difference per edge the mean is taken without asking: 6 mm (teaching value: what pins wobble).
pub const AGREE_WITHIN: Length = Length::from_mm(6);

/// How the two sides are made to agree, when the sewist says so.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SidePolicy {
    /// Halfway between them.
    Mean,
    /// The one that takes more off.
    Larger,
    /// The one that takes less off.
    Smaller,
    /// The garment's left, on both.
    Left,
    /// The garment's right, on both.
    Right,
    /// Each side as it was pinned.
    KeepEach,
}

/// What was done with the two sides.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Taken {
    /// Nothing is pinned yet.
    Nothing,
    /// Only this side was pinned; the other is its copy.
    Copied(GarmentSide),
    /// By a policy.
    By(SidePolicy),
    /// A share of what is pinned on another seam, in percent.
    Shared(Seam, u8),
    /// What a line brings that carries on from another seam.
    Carried(Seam),
}

/// What to do when the sides disagree and nobody has decided.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Suggestion {
    /// The wearer's notes explain the difference.
    KeepEach,
    /// Nothing explains it.
    PinAgain,
}

/// Both sides after they were made to agree.
#[derive(Clone, Debug, PartialEq)]
pub struct Sides {
    /// What was done.
    pub taken: Taken,
    /// The largest difference per edge between the sides and where it is, when both were pinned.
    pub apart: Option<(Length, Station)>,
    /// True while somebody has to decide; the sides are kept as pinned until then.
    pub undecided: bool,
    /// Pins of the garment's left and right, from the hem up.
    pub pins: [Vec<Pin>; 2],
}

/// Makes the two sides of an alteration agree.
///
/// Without a policy one pinned side is copied; two sides within [`AGREE_WITHIN`] give their mean; otherwise each
/// keeps its own and the result is undecided. Stations need not agree: each side is read off between its pins.
pub fn reconcile(alteration: &Alteration) -> Sides {
    let share = alteration.front_share.unwrap_or_default();
    let pinned = GarmentSide::BOTH.map(|side| {
        let readings = alteration.readings.iter().filter(|r| r.side == side);
        let mut pins: Vec<Pin> = readings.map(|r| Pin { station: r.at(), edges: r.edges(share) }).collect();
        pins.sort_by_key(|p| p.station);
        pins
    });
    let [left, right] = &pinned;
    let apart = stations(left, right)
        .filter_map(|s| Some((difference(between(left, s)?, between(right, s)?), s)))
        .reduce(|a, b| if b.0 > a.0 { b } else { a });
    let both_have_pins = !left.is_empty() && !right.is_empty();
    let (taken, undecided) = match (left.is_empty(), right.is_empty(), alteration.sides) {
        (true, true, _) => (Taken::Nothing, false),
        (_, _, Some(SidePolicy::KeepEach)) => (Taken::By(SidePolicy::KeepEach), false),
        (false, true, _) => (Taken::Copied(GarmentSide::Left), false),
        (true, false, _) => (Taken::Copied(GarmentSide::Right), false),
        (_, _, Some(policy)) => (Taken::By(policy), false),
        _ if apart.is_some_and(|(by, _)| by > AGREE_WITHIN) => (Taken::By(SidePolicy::KeepEach), true),
        _ => (Taken::By(SidePolicy::Mean), false),
    };
    let pins = match taken {
        Taken::Nothing | Taken::Shared(..) | Taken::Carried(_) => pinned,
        Taken::By(SidePolicy::KeepEach) => pinned,
        Taken::Copied(side) => twice(pinned[side as usize].clone()),
        Taken::By(SidePolicy::Left) => twice(pinned[0].clone()),
        Taken::By(SidePolicy::Right) => twice(pinned[1].clone()),
        Taken::By(policy) => twice(merged(left, right, policy)),
    };
    Sides { taken, apart: apart.filter(|_| both_have_pins), undecided, pins }
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
pub(super) fn between(pins: &[Pin], at: Station) -> Option<Edges> {
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

/// One line for both sides; where only one side was pinned, that side decides.
fn merged(left: &[Pin], right: &[Pin], policy: SidePolicy) -> Vec<Pin> {
    let merge = |a: Edges, b: Edges| match policy {
        SidePolicy::Larger => {
            if a.whole() >= b.whole() {
                a
            } else {
                b
            }
        }
        SidePolicy::Smaller => {
            if a.whole() <= b.whole() {
                a
            } else {
                b
            }
        }
        _ => Edges {
            front: PerEdge((a.front.0 + b.front.0).fraction(1, 2)),
            back: PerEdge((a.back.0 + b.back.0).fraction(1, 2)),
        },
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
