//! The garment on its wearer, as it is and sewn from its pieces.

use super::lay::Laid;
use crate::body::Wearer;
use crate::figure::{Moved, MovedLook, Stand, StandChanges, View, ViewChanges, stand};
use crate::fitting::GarmentSide;
use crate::garment::Garment;
use crate::length::Tape;
use serde::Serialize;
use utoipa::ToSchema;

/// A garment on its wearer before anything was done to it, and after.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StandOnPaper {
    /// As it is.
    pub before: Stand,
    /// Sewn from its pieces: with what is chalked, what was marked, and what is done on paper.
    pub after: StandChanges,
}

/// Nothing where nothing is done on paper: what is chalked is on the stand already.
pub(super) fn on_stand(laid: &Laid, cut: &Garment, wearer: &Wearer, tape: Tape) -> Option<StandOnPaper> {
    if laid.sets.iter().all(|set| set.pieces == set.chalked) {
        return None;
    }
    let before = stand(&laid.garment, wearer, tape);
    let sewn = stand(cut, wearer, tape);
    let views = before.views.iter().zip(&sewn.views).map(|(is, will)| moved(is, will)).collect();
    Some(StandOnPaper { before, after: StandChanges { views } })
}

/// Everything that lies elsewhere.
fn moved(is: &View, will: &View) -> ViewChanges {
    let lies_there = |name: &str, side: Option<GarmentSide>, path: &str| {
        is.parts.iter().any(|part| part.name == name && part.side == side && part.path == path)
    };
    let parts = will.parts.iter().filter(|part| !lies_there(&part.name, part.side, &part.path));
    let moved = parts.filter_map(|part| {
        let (change, side) = (part.change?, part.side.unwrap_or(GarmentSide::Left));
        Some(Moved { change, side, look: MovedLook::Line, path: part.path.clone() })
    });
    ViewChanges {
        view: is.view,
        trunk: will.cloth.last().filter(|trunk| is.cloth.last() != Some(trunk)).cloned(),
        moved: moved.collect(),
        shades: will.shades.clone(),
    }
}
