//! The record: what a garment is after it was sewn, what is left inside it, and what was learnt.

mod darts;
mod heights;
mod lessons;
mod next_state;
mod reserve;
mod standing;

pub use lessons::lessons_for;
pub(crate) use next_state::{follow_round, next_state, width};
pub(crate) use reserve::can_go;
pub use reserve::{Gives, Reserve, reserve};
pub(crate) use standing::taken_at;
pub use standing::{StandingAdjustment, standing};
