//! Fastenings are not moved on the stand: where each comes to stand is drawn along its edge.

use super::SpacedFastenings;
use crate::figure::{Drawing, Moved, OnStand, ViewSide};

impl OnStand for SpacedFastenings<'_> {
    fn moved(&self, _: &Drawing<'_>, _: ViewSide) -> Vec<Moved> {
        Vec::new()
    }

    fn is_alike_from_behind(&self) -> bool {
        true
    }
}
