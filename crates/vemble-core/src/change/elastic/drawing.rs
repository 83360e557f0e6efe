//! Elastic is not seen on the stand: it gathers what is there.

use super::CasedElastic;
use crate::figure::{Drawing, Moved, OnStand, ViewSide};

impl OnStand for CasedElastic<'_> {
    fn moved(&self, _: &Drawing<'_>, _: ViewSide) -> Vec<Moved> {
        Vec::new()
    }

    fn is_alike_from_behind(&self) -> bool {
        true
    }
}
