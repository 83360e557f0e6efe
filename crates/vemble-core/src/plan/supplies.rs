//! Supplies: what a task uses up, and what is left in the drawer.

use super::settings::{Settings, StitchKind};
use super::task::Stretch;
use crate::work::{Logged, Stocked, SupplyKind};

/// What a task uses up: centimetres, or pieces.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Supply {
    /// What.
    pub kind: SupplyKind,
    /// Which: the cloth's colour, a width. Empty where any will do.
    pub which: String,
    /// How much: centimetres, or pieces.
    pub amount: u32,
}

impl Supply {
    /// So much of it, whichever.
    pub const fn of(kind: SupplyKind, amount: u32) -> Self {
        Self { kind, which: String::new(), amount }
    }

    /// The thread that stitching along an edge takes, and 30 cm of it to begin and end with.
    fn thread(stitch: StitchKind, along: Stretch) -> Self {
        let kind = match stitch {
            StitchKind::BastingStitch | StitchKind::Running => SupplyKind::BastingThread,
            StitchKind::Overlock | StitchKind::Coverstitch => SupplyKind::OverlockThread,
            StitchKind::Lockstitch | StitchKind::Zigzag | StitchKind::NarrowZigzag | StitchKind::Slip => {
                SupplyKind::Thread
            }
        };
        let cm = along.whole().cm().max(0.0) * stitch.thread_per_cm();
        Self::of(kind, cm.ceil() as u32 + 30)
    }
}

/// The thread of what is set, along an edge; none where nothing is stitched.
pub(crate) fn thread(settings: &Settings, along: Stretch) -> Option<Supply> {
    settings.stitch.map(|(stitch, _)| Supply::thread(stitch, along))
}

/// One thing that is needed, against what there is of it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Shelf {
    /// What.
    pub kind: SupplyKind,
    /// Which.
    pub which: String,
    /// How much is needed: centimetres, or pieces.
    pub needed: u32,
    /// How much there is left.
    pub has: u32,
    /// What buying the rest costs, in hundredths, where a price is known.
    pub costs: Option<i64>,
}

impl Shelf {
    /// How much has to be bought.
    pub const fn buy(&self) -> u32 {
        self.needed.saturating_sub(self.has)
    }
}

/// What is left of something in the drawer: what was counted, less what was used since.
fn left(stocked: &Stocked, logs: &[&[Logged]]) -> u32 {
    let used: u32 = logs
        .iter()
        .flat_map(|log| log.iter())
        .filter(|entry| entry.at >= stocked.counted)
        .flat_map(|entry| &entry.used)
        .filter(|used| used.kind == stocked.kind && used.which == stocked.which)
        .map(|used| used.amount)
        .fold(0, u32::saturating_add);
    stocked.amount.saturating_sub(used)
}

/// All that is needed, each thing once, against what is left of it in the drawer; and what is there and not needed. In the order of kinds.
pub fn on_the_shelf(needed: &[Supply], stock: &[Stocked], logs: &[&[Logged]]) -> Vec<Shelf> {
    let mut shelf: Vec<Shelf> = Vec::new();
    let mut of = |kind: SupplyKind, which: &str| -> usize {
        match shelf.iter().position(|s| s.kind == kind && s.which == which) {
            Some(at) => at,
            None => {
                shelf.push(Shelf { kind, which: which.into(), needed: 0, has: 0, costs: None });
                shelf.len() - 1
            }
        }
    };
    let needs: Vec<(usize, u32)> = needed.iter().map(|s| (of(s.kind, &s.which), s.amount)).collect();
    let has: Vec<(usize, u32, Option<i64>)> =
        stock.iter().map(|s| (of(s.kind, &s.which), left(s, logs), s.price.map(|p| p.0))).collect();
    for (at, amount) in needs {
        shelf[at].needed = shelf[at].needed.saturating_add(amount);
    }
    for (at, amount, price) in has {
        shelf[at].has = shelf[at].has.saturating_add(amount);
        shelf[at].costs = shelf[at].costs.or(price);
    }
    for line in &mut shelf {
        let units = match line.kind.unit() {
            crate::work::Unit::Metres => i64::from(line.buy().div_ceil(100)),
            crate::work::Unit::Pieces => i64::from(line.buy()),
        };
        line.costs = line.costs.map(|price| price.saturating_mul(units)).filter(|_| units > 0);
    }
    shelf.sort_by(|a, b| (a.kind, &a.which).cmp(&(b.kind, &b.which)));
    shelf
}
