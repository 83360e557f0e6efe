//! One file for each kind of garment. All figures are teaching values: what such a garment usually has, shown as
//! assumed until somebody measures.

pub(super) mod boned_bodice;
pub(super) mod coverall;
pub(super) mod dress;
pub(super) mod dress_with_waist_seam;
pub(super) mod jacket;
pub(super) mod jeans;
pub(super) mod knit_top;
pub(super) mod lined_coat;
pub(super) mod pull_on_trousers;
pub(super) mod shirt;
pub(super) mod skirt;
pub(super) mod trousers;

/// What the templates are written with.
mod prelude {
    pub(super) use crate::body::{BodyMeasurement as B, Landmark};
    pub(super) use crate::garment::kind::{HemAt, SleeveTo, Start, Template};
    pub(super) use crate::garment::parts::{
        Closure, Collar, Dart, HemEdge, HemTurn, Neckline, Opening, Pocket, StitchedBy,
    };
    pub(super) use crate::garment::seam::{Finish, Seam, SeamSpec, seam};
    pub(super) use crate::place::EaseClass;
    pub(super) use crate::place::Level;
}
