//! Partners: what is sewn to an altered edge still fits it. The other edge of the seam itself, sleeve and armhole, band and waist, lining
//! and outer.

use super::judge::Found;
use super::{AlteredSeam, EDGES_MAY_DIFFER, EdgeLengths, StitchingLine, edge_lengths};
use crate::change::Drawn;
use crate::fitting::{Edges, End, GarmentSide};
use crate::garment::{Band, Lined, LiningOpens, Run, Seam};
use crate::judge::{Finding, FindingKey, Outcome, Partner, Rule, Subject};
use crate::length::{Length, Station};
use crate::place::Level;

/// How long both edges of a side are afterwards.
#[derive(Clone, Copy, Debug)]
pub(crate) struct EdgesApart {
    pub lengths: EdgeLengths,
}

/// What armhole and sleeve change by under the arm.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Armhole {
    pub edges: Edges,
    pub of_sleeve: Length,
}

/// What the band, or what stands in its place, changes by.
#[derive(Clone, Copy, Debug)]
pub(crate) struct BandThere {
    pub edges: Edges,
    /// How many such seams change it.
    pub seams: i64,
    pub band: Option<Band>,
}

/// A lining that has to follow.
#[derive(Clone, Copy, Debug)]
pub(crate) struct LiningThere {
    pub most: Length,
    pub lined: Lined,
    pub opens: Option<LiningOpens>,
}

pub(super) fn judge(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    side: Option<GarmentSide>,
    line: &StitchingLine,
) -> Vec<Finding> {
    let of = side.unwrap_or(GarmentSide::Left);
    let all = [
        edges(subject, seam, of).map(|found| (Partner::OtherEdge, found)),
        under_the_arm(subject, seam, line, of).map(|found| (Partner::Sleeve, found)),
        band(subject, seam, line).map(|found| (Partner::Band, found)),
    ];
    let finding = |(partner, (outcome, found, at)): (Partner, (Outcome, Found, Station))| {
        let key = FindingKey { partner: Some(partner), ..seam.finding(Rule::Partners, side) };
        Finding::new(key, outcome, found).at(at)
    };
    all.into_iter().flatten().map(finding).collect()
}

/// The two edges of one seam, along the real edges.
fn edges(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    of: GarmentSide,
) -> Option<(Outcome, Found, Station)> {
    let lengths = edge_lengths(subject.garment, seam, of)?.on(subject.tape);
    let fits = lengths.mismatch().abs() <= EDGES_MAY_DIFFER.on(subject.tape) || lengths.eases_in();
    let outcome = if fits { Outcome::Passes } else { Outcome::Caution };
    Some((outcome, Found::EdgesApart(EdgesApart { lengths }), seam.line(of).span()?.0))
}

/// A side seam that runs off under the arm makes the armhole smaller by twice its offset; a sleeve that stays no longer fits.
fn under_the_arm(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    line: &StitchingLine,
    of: GarmentSide,
) -> Option<(Outcome, Found, Station)> {
    let into = seam.facts.seam.goes_on_into()?;
    // A skirt's side seam ends at the waist.
    if seam.facts.seam != Seam::SideSeam || subject.garment.span_of(Seam::SideSeam).1 == Level::Waist {
        return None;
    }
    let top = Station(seam.facts.length.length);
    let edges = line.chalked(top, subject.tape)?;
    if edges == Edges::default() {
        return None;
    }
    let sleeve = Station(subject.garment.seam(into)?.length.length);
    let partner = subject.seams().find(|s| s.facts.seam == into);
    let of_sleeve = partner
        .map_or(Length::ZERO, |s| s.line(of).chalked(sleeve, subject.tape).unwrap_or_default().whole().0);
    let fits = (edges.whole().0 - of_sleeve).abs() <= EDGES_MAY_DIFFER.on(subject.tape);
    let outcome = if fits { Outcome::Passes } else { Outcome::Caution };
    Some((outcome, Found::Armhole(Armhole { edges, of_sleeve }), top))
}

/// A line that goes through or off the waist changes the band, or what stands in its place, by as much.
fn band(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    line: &StitchingLine,
) -> Option<(Outcome, Found, Station)> {
    let garment = subject.garment;
    if seam.facts.seam.run() != Run::Down
        || garment.span_of(seam.facts.seam).1 != Level::Waist
        || matches!(line.ends.upper, End::MeetsOldStitching { .. })
    {
        return None;
    }
    let top = Station(seam.facts.length.length);
    let edges = line.chalked(top, subject.tape)?;
    if edges == Edges::default() {
        return None;
    }
    let seams = if seam.facts.seam.is_single() || !seam.sides_agree() { 1 } else { 2 };
    let found = Found::Band(BandThere { edges, seams, band: garment.found.band });
    Some((Outcome::Caution, found, top))
}

/// A lining is taken in with its outer; said once, at the first seam that changes.
pub(super) fn lining(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> Option<Finding> {
    let lined = subject.garment.found.lined.filter(|l| *l != Lined::No)?;
    let first = subject.seams().find(|s| s.span().is_some())?;
    if first.facts.seam != seam.facts.seam {
        return None;
    }
    let deepest = |seam: &AlteredSeam<'_>| {
        let (from, to) = seam.span()?;
        seam.lines.iter().map(|line| line.deepest_chalked(from, to, subject.tape)).max()
    };
    let most = subject.seams().filter_map(deepest).max()?;
    let key = FindingKey { partner: Some(Partner::Lining), ..seam.finding(Rule::Partners, None) };
    let opens = subject.garment.found.lining_opens;
    Some(Finding::new(key, Outcome::Caution, Found::Lining(LiningThere { most, lined, opens })))
}
