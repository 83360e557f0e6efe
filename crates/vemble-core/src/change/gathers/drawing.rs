//! Gathers are not seen on the stand: they take together what is there.

use super::GatheredEdge;
use crate::figure::{Drawing, Moved, OnStand, ViewSide};

impl OnStand for GatheredEdge<'_> {
    fn moved(&self, _: &Drawing<'_>, _: ViewSide) -> Vec<Moved> {
        Vec::new()
    }

    fn is_alike_from_behind(&self) -> bool {
        true
    }
}
