//! How long the edges of a seam are afterwards: moving a curved edge sideways changes its length.
//!
//! Along an edge of curvature κ a line offset by y is ∫√((1 − κy)² + y′²) ds long (do Carmo, *Differential Geometry of Curves and
//! Surfaces*, 1–5, for parallel curves). The edge's own shape is read off the widths of the garment; front and back edge are taken to
//! have the same, which nobody measures.

use super::line::AlteredSeam;
use crate::change::Curve;
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Run};
use crate::length::{Length, Tape, Taught};
use kurbo::common::GAUSS_LEGENDRE_COEFFS_8;

/// Mismatch that needs nothing: 3 mm, an eighth of an inch (teaching value: one stitch).
pub const EDGES_MAY_DIFFER: Taught = Taught::new(3, 8);

/// What the new lines make of the length of both edges of one side, over the altered stretch.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct EdgeLengths {
    /// The old stitching over the altered stretch.
    pub old: Length,
    /// The new stitching of the front edge.
    pub front: Length,
    /// The new stitching of the back edge.
    pub back: Length,
}

impl EdgeLengths {
    /// At the marks of a tape.
    pub const fn on(self, tape: Tape) -> Self {
        Self { old: tape.round(self.old), front: tape.round(self.front), back: tape.round(self.back) }
    }

    /// How much longer the front edge is than the back edge.
    pub fn mismatch(&self) -> Length {
        self.front - self.back
    }

    /// It can be eased in: up to 1 % (teaching value; more puckers in most cloth).
    pub fn eases_in(&self) -> bool {
        self.mismatch().abs() * 100 <= self.front.max(self.back)
    }
}

/// The lengths of both edges of a side after the alteration; nothing where that side keeps its old stitching.
pub fn edge_lengths(garment: &Garment, seam: &AlteredSeam<'_>, side: GarmentSide) -> Option<EdgeLengths> {
    *seam.lengths[side as usize].get_or_init(|| measured(garment, seam, side))
}

fn measured(garment: &Garment, seam: &AlteredSeam<'_>, side: GarmentSide) -> Option<EdgeLengths> {
    let line = seam.line(side);
    let (from, to) = line.span()?;
    let (from, to) = (from.0.cm(), to.0.cm());
    let edge = edge_shape(garment, seam);
    let along = |offset: &Curve| Length::from_cm(offset_length(&edge, offset, from, to));
    let front = along(&line.front);
    let back = if line.has_equal_edges() { front } else { along(&line.back) };
    Some(EdgeLengths { old: Length::from_cm(to - from), front, back })
}

/// How far the edge stands out, over the station of its seam: what goes round one side, halved, or a quarter of a leg's way.
fn edge_shape(garment: &Garment, seam: &AlteredSeam<'_>) -> Curve {
    let facts = seam.facts;
    if facts.seam.run() == Run::Across || facts.seam.is_single() {
        return Curve::default();
    }
    let levels = garment.levels.iter().filter_map(|l| {
        let station = garment.station_on(facts.seam, l.level)?;
        Some((station.cm(), garment.girth_of_one_side(facts.seam, station)?.cm() / 2.0))
    });
    let mut points: Vec<(f64, f64)> = levels.collect();
    points.sort_by(|a, b| a.0.total_cmp(&b.0));
    points.dedup_by(|a, b| a.0 == b.0);
    if points.len() < 2 { Curve::default() } else { Curve::without_swings(&points) }
}

/// ∫√((1 − κy)² + y′²) ds, piece by piece: between the knots of both curves it is smooth, and eight points are enough
/// (Gauss–Legendre quadrature, exact for polynomials up to degree 15).
fn offset_length(edge: &Curve, offset: &Curve, from: f64, to: f64) -> f64 {
    let mut knots: Vec<f64> = [edge, offset].iter().flat_map(|c| &c.pieces).flat_map(|p| p.s).collect();
    knots.retain(|s| from < *s && *s < to);
    knots.extend([from, to]);
    knots.sort_by(f64::total_cmp);
    let piece = |w: &[f64]| {
        let (middle, half) = (f64::midpoint(w[0], w[1]), (w[1] - w[0]) / 2.0);
        let (edge, offset) = (edge.piece(middle), offset.piece(middle));
        let along = |s: f64| {
            let (y, slope) = offset.map_or((0.0, 0.0), |o| o.at(s));
            ((1.0 - edge.map_or(0.0, |e| e.bulge(s)) * y).powi(2) + slope * slope).sqrt()
        };
        half * GAUSS_LEGENDRE_COEFFS_8
            .iter()
            .map(|(weight, x)| weight * along(middle + half * x))
            .sum::<f64>()
    };
    knots.windows(2).map(piece).sum()
}
