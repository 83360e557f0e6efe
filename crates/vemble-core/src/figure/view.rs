//! From where a garment is looked at, how its lines look, and the half that they are drawn on.

use crate::change::Curve;
use crate::fitting::GarmentSide;
use serde::Serialize;
use utoipa::ToSchema;

/// The side one looks at.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ViewSide {
    /// From the front: the garment's left is on the right of the drawing.
    Front,
    /// From the back.
    Back,
    /// From the wearer's left.
    Side,
}

/// How a line of the garment is drawn.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Look {
    /// Old stitching: short dashes.
    Seam,
    /// A second row on the right side: fine short dashes.
    Topstitching,
    /// A finished edge or fold: a plain line.
    Edge,
    /// A button, an eyelet, a loop: a small shape.
    Button,
    /// A piece of cloth on top: collar, pocket, lapel.
    Piece,
}

/// The outline of one half, drawn as if it were the left.
#[derive(Clone, Copy)]
pub(crate) struct Half<'a> {
    pub side: GarmentSide,
    pub outer: &'a Curve,
    pub inner: Option<&'a Curve>,
}
