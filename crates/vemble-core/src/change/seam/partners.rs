//! Partners: what is sewn to an altered edge still fits it. The other edge of the seam itself, sleeve and armhole, band and waist, lining
//! and outer.

use super::judge::Found;
use super::{AlteredSeam, EDGES_MAY_DIFFER, EdgeLengths, StitchingLine, edge_lengths};
use crate::change::Drawn;
use crate::fitting::{Edges, End, EndOf, GarmentSide};
use crate::garment::{Band, Garment, Lined, LiningOpens, Run, Seam};
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
    /// The line could go on into the sleeve in one pass.
    pub can_carry_on: bool,
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
    /// The most that the outer is taken in, and let out, per edge.
    pub taken_in: Length,
    pub let_out: Length,
    pub lined: Lined,
    pub opens: Option<LiningOpens>,
}

impl LiningThere {
    /// Of a garment that is lined, where something of its outer changes.
    pub fn of(subject: &Subject<'_>, taken_in: Length, let_out: Length) -> Option<Self> {
        let lined = subject.garment.found.lined.filter(|l| *l != Lined::No)?;
        let opens = subject.garment.found.lining_opens;
        let changes = taken_in > Length::ZERO || let_out > Length::ZERO;
        changes.then_some(Self { taken_in, let_out, lined, opens })
    }
}

/// The edge that a seam ends in, and what it changes by.
#[derive(Clone, Copy, Debug)]
pub(crate) struct EndsIn {
    pub edge: MetEdge,
    pub edges: Edges,
}

/// An edge that seams end in, and what is sewn to it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum MetEdge {
    /// The neck, with collar or facing.
    Neck,
    /// The armhole, with the sleeve's cap.
    Armhole,
    /// The armhole or the shoulder seam, wherever the panels end.
    ArmholeOrShoulder,
    /// The seams that meet between the legs, seen from the inseam.
    Rise,
    /// The same, seen from the seat seam or the front rise.
    Inseams,
}

/// A line along the neck makes the neckline longer or shorter; what is sewn to it keeps its length.
fn round_the_neck(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    line: &StitchingLine,
) -> Option<(Outcome, Found, Station)> {
    let longer = seam.lengthens_neck(subject.garment, subject.tape)?;
    let fits = longer.abs() <= EDGES_MAY_DIFFER.on(subject.tape);
    let outcome = if fits { Outcome::Passes } else { Outcome::Caution };
    Some((outcome, Found::RoundTheNeck { longer }, line.span()?.0))
}

pub(super) fn judge(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    side: Option<GarmentSide>,
    line: &StitchingLine,
) -> Vec<Finding> {
    let of = side.unwrap_or(GarmentSide::Left);
    // Each edge is sewn to a panel that is as long as it was.
    let other_edge = (!seam.change.set_in).then(|| edges(subject, seam, of)).flatten();
    let all = [
        other_edge.map(|found| (Partner::OtherEdge, found)),
        under_the_arm(subject, seam, line, of).map(|found| (Partner::Sleeve, found)),
        band(subject, seam, line).map(|found| (Partner::Band, found)),
        round_the_neck(subject, seam, line).map(|found| (Partner::AtTheEdge, found)),
    ];
    let met =
        EndOf::ALL.iter().filter_map(|end| ends_in(subject, seam, line, *end).map(|found| (*end, found)));
    let met = met.map(|(end, (found, at))| {
        let partner = Some(Partner::EndsIn);
        let key = FindingKey { partner, end: Some(end), ..seam.finding(Rule::Partners, side) };
        Finding::new(key, Outcome::Caution, Found::EndsIn(found)).at(at)
    });
    let met: Vec<Finding> = met.collect();
    let finding = |(partner, (outcome, found, at)): (Partner, (Outcome, Found, Station))| {
        let key = FindingKey { partner: Some(partner), ..seam.finding(Rule::Partners, side) };
        Finding::new(key, outcome, found).at(at)
    };
    all.into_iter().flatten().map(finding).chain(met).collect()
}

/// The edge that a line runs into at one end: it gets shorter by what is taken there, and what is sewn to it does not.
fn ends_in(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    line: &StitchingLine,
    end: EndOf,
) -> Option<(EndsIn, Station)> {
    let edge = met_edge(subject.garment, seam.facts.seam, end)?;
    let at = Station(if end == EndOf::Lower { Length::ZERO } else { seam.facts.end() });
    let edges = line.chalked(at, subject.tape).filter(|edges| *edges != Edges::default())?;
    Some((EndsIn { edge, edges }, at))
}

/// Which edge a seam ends in; nothing where that is a hem, a waist or an underarm, which have rules of their own.
fn met_edge(garment: &Garment, seam: Seam, end: EndOf) -> Option<MetEdge> {
    match (seam, end) {
        (Seam::ShoulderSeam, EndOf::Lower) => Some(MetEdge::Neck),
        (Seam::ShoulderSeam | Seam::SleeveBackSeam, EndOf::Upper) => Some(MetEdge::Armhole),
        (Seam::CentreFront | Seam::CentreBack, EndOf::Upper) => {
            (garment.span_of(seam).1 == Level::Neck).then_some(MetEdge::Neck)
        }
        (Seam::PrincessFront | Seam::PrincessBack, EndOf::Upper) => {
            garment.hangs_from_shoulders().then_some(MetEdge::ArmholeOrShoulder)
        }
        (Seam::Inseam, EndOf::Upper) => Some(MetEdge::Rise),
        (Seam::SeatSeam | Seam::FrontRise, EndOf::Lower) => Some(MetEdge::Inseams),
        (Seam::Outseam | Seam::SideSeam | Seam::PanelFront | Seam::PanelBack, _)
        | (Seam::PrincessFront | Seam::PrincessBack | Seam::CentreFront | Seam::CentreBack, EndOf::Lower)
        | (Seam::Inseam | Seam::SleeveBackSeam, EndOf::Lower)
        | (Seam::SeatSeam | Seam::FrontRise, EndOf::Upper)
        | (Seam::ArmholeSeam | Seam::SleeveSeam | Seam::YokeSeam | Seam::WaistSeam | Seam::NeckSeam, _) => {
            None
        }
    }
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
    let (own, into) = (seam.facts.seam, Seam::SleeveSeam);
    // A skirt's side seam ends at the waist, and so do trousers'.
    if !matches!(own, Seam::SideSeam | Seam::Outseam) || subject.garment.span_of(own).1 == Level::Waist {
        return None;
    }
    let top = Station(seam.facts.end());
    let edges = line.chalked(top, subject.tape)?;
    if edges == Edges::default() {
        return None;
    }
    let sleeve = Station(subject.garment.seam(into)?.end());
    let partner = subject.seams().find(|s| s.facts.seam == into);
    let of_sleeve = partner
        .map_or(Length::ZERO, |s| s.line(of).chalked(sleeve, subject.tape).unwrap_or_default().whole().0);
    let fits = (edges.whole().0 - of_sleeve).abs() <= EDGES_MAY_DIFFER.on(subject.tape);
    let outcome = if fits { Outcome::Passes } else { Outcome::Caution };
    Some((
        outcome,
        Found::Armhole(Armhole {
            edges,
            of_sleeve,
            can_carry_on: subject.garment.goes_on_into(own) == Some(into),
        }),
        top,
    ))
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
    let top = Station(seam.facts.end());
    let edges = line.chalked(top, subject.tape)?;
    if edges == Edges::default() {
        return None;
    }
    let seams = if seam.facts.seam.is_single() || !seam.sides_agree() { 1 } else { 2 };
    let found = Found::Band(BandThere { edges, seams, band: garment.found.band });
    Some((Outcome::Caution, found, top))
}

/// A lining is taken in with its outer, and let out at least as much; said of every seam that changes.
pub(super) fn lining(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> Option<Finding> {
    let lines = seam.lines.iter().filter_map(|line| Some((line, line.span()?)));
    let edges = lines.flat_map(|(line, (from, to))| line.chalked_between(from, to, subject.tape));
    let all: Vec<Length> = edges.flat_map(|edges| [edges.front.0, edges.back.0]).collect();
    let (least, most) = (all.iter().min()?, all.iter().max()?);
    LiningThere::of(subject, *most, -*least).map(|found| {
        let key = FindingKey { partner: Some(Partner::Lining), ..seam.finding(Rule::Partners, None) };
        Finding::new(key, Outcome::Caution, Found::Lining(found))
    })
}
