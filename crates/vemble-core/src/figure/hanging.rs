//! A garment by itself, as it hangs on the rail.

use super::drape::Drape;
use super::drawing::Drawing;
use super::pose::Pose;
use super::view::{Look, ViewSide};
use super::{mapped, svg};
use crate::body::{Proportions, Wearer};
use crate::change::DrawnChange;
use crate::garment::Garment;
use kurbo::{BezPath, Point};
use serde::Serialize;
use utoipa::ToSchema;

/// A garment by itself, for the rail.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Hanging {
    /// Left, top, width and height in mm.
    pub view: [f64; 4],
    /// The cloth's colour.
    pub colour: String,
    /// Surfaces, back to front.
    pub cloth: Vec<String>,
    /// Pieces on top: collar, pockets.
    pub pieces: Vec<String>,
    /// Seams and topstitching.
    pub seams: String,
    /// Edges and buttons.
    pub edges: String,
    /// It hangs from the shoulders, not from the waist.
    pub from_shoulders: bool,
}

/// Draws the front of `garment` by itself, as it is; nothing where too little of it is known.
pub fn hanging(garment: &Garment, wearer: &Wearer) -> Option<Hanging> {
    hanging_with(garment, wearer, &[])
}

/// The same as it will be after `changes`.
pub(crate) fn hanging_with(
    garment: &Garment,
    wearer: &Wearer,
    changes: &[DrawnChange<'_>],
) -> Option<Hanging> {
    let pose = Pose::of(Proportions::of(wearer));
    let drape = Drape::new(garment, &pose)?;
    let drawing = Drawing::new(&drape, changes);
    let shapes = drawing.surfaces(ViewSide::Front);
    let bounds = shapes.iter().map(BezPath::control_box).reduce(|a, b| a.union(b))?;
    let (mut pieces, mut seam_lines, mut edges) = (Vec::new(), BezPath::new(), BezPath::new());
    for line in drawing.lines(ViewSide::Front) {
        match line.look {
            Look::Piece => pieces.push(line.path),
            Look::Seam | Look::Topstitching => seam_lines.extend(line.path),
            Look::Edge | Look::Button => edges.extend(line.path),
        }
    }
    // To whole millimetres: a rail shows hundreds, and a thumb's width each.
    let coarse = |path: &BezPath| svg(&mapped(path, |p| Point::new(p.x.round(), p.y.round())));
    Some(Hanging {
        view: [bounds.x0, bounds.y0, bounds.width(), bounds.height()].map(f64::round),
        colour: String::from(garment.cloth.colour.clone()),
        cloth: shapes.iter().map(coarse).collect(),
        pieces: pieces.iter().map(coarse).collect(),
        seams: coarse(&seam_lines),
        edges: coarse(&edges),
        from_shoulders: garment.hangs_from_shoulders(),
    })
}
