//! The plan: what is to be done, in which order and why, when it fits into the evenings there are, and what is behind which gate.
//!
//! [`chain`] derives the tasks of one garment from its changes, its making and its cloth; [`progress`] folds the log into how each of them
//! stands; [`plan`] lays the tasks of all garments over the evenings. Nothing here is a sentence: `told` says it.

mod caution;
mod chain;
mod corrected;
mod evenings;
mod order;
mod pace;
mod progress;
mod schedule;
mod settings;
mod supplies;
mod task;
mod ways;

#[cfg(test)]
mod tests;

pub use caution::Caution;
pub(crate) use chain::{Chain, TasksOf, chain, is_traced, unpicked};
pub(crate) use corrected::corrected;
pub use evenings::{Evening, MinuteOfTime, evenings, minute};
pub(crate) use evenings::{day_of, due, zone};
pub(crate) use order::in_order_of_the_hand;
pub use order::{Because, Circle};
pub(crate) use pace::paces;
pub use pace::{Pace, Ratio};
pub use progress::{GateStands, Progress, Refused, Standing, StandsAt};
pub(crate) use progress::{may_enter, progress};
pub(crate) use schedule::PIECE;
pub use schedule::{GarmentPlan, GarmentWork, Placed, Planned, WhyNot, moved_by, plan, right_now};
pub(crate) use settings::is_basted_by_hand;
pub use settings::{Foot, IronUse, NeedlePoint, Settings, StitchKind, ThreadKind};
pub(crate) use supplies::thread;
pub use supplies::{Shelf, Supply, on_the_shelf};
pub(crate) use task::{HasTasks, key, put_back};
pub use task::{Minutes, Place, Stretch, Task, Thing, Tool, Undone};
pub(crate) use ways::{Otherwise, ways_out};
pub use ways::{Simpler, WayOut};
