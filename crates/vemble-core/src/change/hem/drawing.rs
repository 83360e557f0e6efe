//! A hem on the stand: where its new edge will lie.

use super::AlteredHem;
use crate::change::{ChangeKey, Drawn};
use crate::figure::{Drawing, Moved, MovedLook, OnStand, ViewSide, edge_across, on_side, svg};
use crate::fitting::GarmentSide;

impl OnStand for AlteredHem<'_> {
    fn moved(&self, drawing: &Drawing<'_>, view: ViewSide) -> Vec<Moved> {
        let line = |side: GarmentSide| {
            let up = self.ring(side)?.at(0.25).cm();
            let path = edge_across(drawing.drape, self.key(), view, drawing.half(side), up)?;
            let path = drawing.canvas(view).place(&on_side(side, path));
            Some(Moved { change: ChangeKey::Hem(self.key()), side, look: MovedLook::Line, path: svg(&path) })
        };
        GarmentSide::BOTH.into_iter().filter_map(line).collect()
    }

    fn is_alike_from_behind(&self) -> bool {
        self.sides_agree()
    }
}
