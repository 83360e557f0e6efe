//! What a garment is once a size is chosen: its levels as the chart has them, its seams with the allowance that is left.

use super::search::Candidate;
use super::told::level_name;
use super::{Table, Wanted};
use crate::garment::{Garment, GarmentLevel, Round, Run, SeamFacts, Width};
use crate::length::Measure;
use serde::Serialize;
use utoipa::ToSchema;

/// A garment as it is cut, where it still has other figures that nobody measured.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct AsCut {
    /// What it has instead.
    pub says: String,
    /// All of its levels, as it is cut; those that were measured as they were.
    pub levels: Vec<GarmentLevel>,
    /// All of its seams, as they will be inside.
    pub seams: Vec<SeamFacts>,
}

/// What a garment would have to be to be the one that was chosen. Nothing where it is, or where what differs was measured.
pub(super) fn as_cut(
    table: &Table<'_>,
    found: &Garment,
    wanted: &[Wanted],
    chosen: &Candidate,
) -> Option<AsCut> {
    let unit = table.tape.unit();
    let chart = &table.pattern.charts[chosen.chart];
    let narrower = table.allowance() - chosen.allowance;
    let mut differs: Vec<String> = Vec::new();
    let (mut levels, mut seams) = (found.levels.clone(), found.seams.clone());
    for (w, size) in wanted.iter().zip(&chosen.sizes) {
        let length = table.finished(chart, w.what, *size)? + w.gain(narrower);
        let Some(level) = levels.iter_mut().find(|l| l.level == w.level && l.assumed) else { continue };
        let is = level.width.girth();
        // What nobody sees on this tape does not differ.
        if table.tape.round(is) != table.tape.round(length) {
            let (cut, now) = (table.show(length), table.tape.bare(is));
            let round = if found.round(w.level) == Round::Whole { ", all round" } else { "" };
            differs.push(format!("{}{round}, {now} instead of {cut}", level_name(table, w.level)));
            level.width = Width::Girth(Measure { length, unit });
        }
    }
    for facts in seams.iter_mut().filter(|facts| facts.assumed && facts.seam.run() != Run::Across) {
        let is_closed = found.closures.iter().any(|closure| closure.at.is_in(facts.seam));
        let length = if is_closed { table.allowance() } else { chosen.allowance };
        if table.tape.round(facts.allowance.length) != table.tape.round(length) {
            let (cut, now) = (table.show(length), table.tape.bare(facts.allowance.length));
            differs.push(format!("{} allowance, per edge, {now} instead of {cut}", facts.seam.name()));
            facts.allowance = Measure { length, unit };
        }
    }
    let says = format!("The stand and the pieces have other figures still: {}", differs.join("; "));
    (!differs.is_empty()).then_some(AsCut { says, levels, seams })
}
