//! What a garment is once a size is chosen: its levels as the chart has them, its seams with the allowance that is left.

use super::lengths::finished_length;
use super::search::Candidate;
use super::told::level_name;
use super::{Table, Wanted};
use crate::garment::{Garment, GarmentLevel, Round, Run, SeamFacts, Width};
use crate::length::{Length, Measure, Taught};
use crate::place::Level;
use crate::record::follow_round;
use serde::Serialize;
use utoipa::ToSchema;

/// Heights that nobody measured are no finer than this: 5 mm, 1/4 in.
const NEAR: Taught = Taught::new(5, 16);

/// A garment as it is cut, where it still has other figures that nobody measured.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct AsCut {
    /// What it has instead.
    pub says: String,
    /// The same, figure by figure.
    pub differs: Vec<Differs>,
    /// All of its levels, as it is cut; those that were measured as they were.
    pub levels: Vec<GarmentLevel>,
    /// All of its seams, as they will be inside.
    pub seams: Vec<SeamFacts>,
}

/// A figure that is not as it is cut.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Differs {
    /// Of what, and what it goes round or is counted by.
    pub of: String,
    /// As it is.
    pub is: String,
    /// As it is cut.
    pub cut: String,
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
    let mut differs: Vec<Differs> = Vec::new();
    let (mut levels, mut seams) = (found.levels.clone(), found.seams.clone());
    for (w, size) in wanted.iter().zip(&chosen.sizes) {
        let length = table.finished(chart, w.what, *size)? + w.gain(narrower);
        let Some(level) = levels.iter_mut().find(|l| l.level == w.level && l.assumed) else { continue };
        let is = level.width.girth();
        // What nobody sees on this tape does not differ.
        if table.tape.round(is) != table.tape.round(length) {
            let round = if found.round(w.level) == Round::Whole { ", all round" } else { "" };
            let of = format!("{}{round}", level_name(table, w.level));
            differs.push(Differs { of, is: table.tape.show(is), cut: table.show(length) });
            level.width = Width::Girth(Measure { length, unit });
        }
    }
    for facts in seams.iter_mut().filter(|facts| facts.assumed && facts.seam.run() != Run::Across) {
        let is_closed = table.closure_in(facts.seam).is_some();
        let length = if is_closed { table.allowance() } else { chosen.allowance };
        if table.tape.round(facts.allowance.length) != table.tape.round(length) {
            let of = format!("{} allowance, per edge", facts.seam.name());
            let (is, cut) = (table.tape.show(facts.allowance.length), table.show(length));
            differs.push(Differs { of, is, cut });
            facts.allowance = Measure { length, unit };
        }
    }
    if let Some((is, cut)) = longer(table, wanted, chosen) {
        let by = cut - is;
        let is_up = |l: &&mut GarmentLevel| !l.level.is_of_sleeve() && l.level != Level::Hem;
        levels.iter_mut().filter(is_up).for_each(|l| l.station.length = l.station.length + by);
        let from_hem = |f: &&mut SeamFacts| f.assumed && found.span_of(f.seam).0 == Level::Hem;
        let runs_down = |f: &&mut SeamFacts| f.seam.run() == Run::Down;
        let seams = seams.iter_mut().filter(runs_down).filter(from_hem);
        seams.for_each(|f| f.length.length = f.length.length + by);
        let of = format!("length from the {}", hangs_at(found).1);
        differs.push(Differs { of, is: table.tape.show(is), cut: table.show(cut) });
    }
    let lines: Vec<String> =
        differs.iter().map(|Differs { of, is, cut }| format!("{of}, {is} instead of {cut}")).collect();
    let says = format!("The stand and the pieces have other figures still: {}", lines.join("; "));
    // What is sewn to a waist or a neckline goes with it.
    let mut cut = Garment { levels, seams, ..found.clone() };
    follow_round(&mut cut, found, table.tape);
    (!lines.is_empty()).then_some(AsCut { says, differs, levels: cut.levels, seams: cut.seams })
}

/// Where a garment hangs, and what that is called.
fn hangs_at(garment: &Garment) -> (Level, &'static str) {
    if garment.hangs_from_shoulders() { (Level::Neck, "back neck") } else { (Level::Waist, "waist") }
}

/// How long a garment is whose lengths nobody measured, and how long it is cut. Nothing where that is nearly the same, or where it would end
/// above another of its levels.
fn longer(table: &Table<'_>, wanted: &[Wanted], chosen: &Candidate) -> Option<(Length, Length)> {
    let garment = table.garment;
    let mut levels = garment.levels.iter().filter(|l| !l.level.is_of_sleeve());
    let is = garment.level(hangs_at(garment).0)?.station.length;
    let cut = finished_length(table, wanted, chosen)?;
    let lowest = levels.clone().filter(|l| l.level != Level::Hem).map(|l| l.station.length).min()?;
    let is_other = (cut - is).abs() > NEAR.on(table.tape) && lowest + (cut - is) > Length::ZERO;
    (is_other && levels.all(|l| l.assumed)).then_some((is, cut))
}
