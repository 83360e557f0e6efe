//! What is wanted at a level, whatever carries it.

use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// By how much a girth is to change, before anybody knows which seam carries it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WantedChange {
    /// At which level.
    pub level: Level,
    /// By how much its girth changes, all round the garment or round each leg or sleeve: −5 cm takes in, 2 cm lets out, 0 cm keeps it.
    pub by: Measure,
}
