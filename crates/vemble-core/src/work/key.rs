//! Steps of the hand, and what names a task from one day to the next: its step and what it is done to, never a figure.

use crate::change::ChangeKey;
use crate::choice::choice;
use crate::fitting::GarmentSide;
use serde::{Deserialize, Serialize};
use std::fmt;
use std::str::FromStr;
use utoipa::ToSchema;
use uuid::Uuid;

choice! {
    /// What the hand does; in the order in which it usually comes.
    Step {
        Wash => "wash and dry",
        OpenUp => "open",
        Unpick => "unpick",
        Hang => "let it hang",
        Chalk => "chalk",
        ThreadTrace => "thread-trace",
        Baste => "baste",
        TryBasted => "try on, basted",
        Stitch => "stitch",
        TakeOut => "take out the old stitching",
        TryStitched => "try on, before anything is cut",
        Cut => "cut",
        Finish => "finish the edges",
        Press => "press",
        PutBack => "put back",
        LineIt => "close the lining",
        FinalPress => "press it all",
        FinalTryOn => "try it on, finished",
        EnterRecord => "write it down",
        Own => "own task",
    }
}

impl Step {
    /// Something is tried on and judged: what cannot be undone waits for it.
    pub const fn is_gate(self) -> bool {
        matches!(self, Self::TryBasted | Self::TryStitched)
    }
}

/// What a task is done to.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum TaskOf {
    /// The whole garment.
    Garment,
    /// One change, or one of its sides where one of a pair is finished before the other is begun.
    Change(ChangeKey, Option<GarmentSide>),
    /// Whatever the sewist wrote.
    Own(Uuid),
}

/// Names a task: `stitch.seam.outseam`, `cut.hem.leg.left`, `try_basted`, `own.0192…`.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[serde(try_from = "String", into = "String")]
pub struct TaskKey {
    /// What the hand does.
    pub step: Step,
    /// To what.
    pub of: TaskOf,
}

impl TaskKey {
    /// A step of the whole garment.
    pub const fn whole(step: Step) -> Self {
        Self { step, of: TaskOf::Garment }
    }

    /// A step of a change.
    pub const fn of(step: Step, change: ChangeKey) -> Self {
        Self { step, of: TaskOf::Change(change, None) }
    }

    /// The change it belongs to, if it belongs to one.
    pub const fn change(self) -> Option<ChangeKey> {
        match self.of {
            TaskOf::Change(change, _) => Some(change),
            TaskOf::Garment | TaskOf::Own(_) => None,
        }
    }
}

impl fmt::Display for TaskKey {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.step.word())?;
        match self.of {
            TaskOf::Garment => Ok(()),
            TaskOf::Change(change, None) => write!(f, ".{change}"),
            TaskOf::Change(change, Some(side)) => write!(f, ".{change}.{}", side.word()),
            TaskOf::Own(id) => write!(f, ".{id}"),
        }
    }
}

impl FromStr for TaskKey {
    type Err = String;
    fn from_str(text: &str) -> Result<Self, String> {
        let unknown = || {
            format!("“{text}” is no task; expected a step and what it is done to, like stitch.seam.outseam")
        };
        let (step, of) = text.split_once('.').map_or((text, None), |(step, of)| (step, Some(of)));
        let step: Step = step.parse().map_err(|_| unknown())?;
        let of = match of {
            None => TaskOf::Garment,
            Some(id) if step == Step::Own => TaskOf::Own(id.parse().map_err(|_| unknown())?),
            Some(change) => match change.rsplit_once('.').map(|(change, side)| (change, side.parse())) {
                Some((change, Ok(side))) => {
                    TaskOf::Change(change.parse().map_err(|_| unknown())?, Some(side))
                }
                Some((_, Err(_))) | None => TaskOf::Change(change.parse().map_err(|_| unknown())?, None),
            },
        };
        Ok(Self { step, of })
    }
}

impl From<TaskKey> for String {
    fn from(key: TaskKey) -> Self {
        key.to_string()
    }
}

impl TryFrom<String> for TaskKey {
    type Error = String;
    fn try_from(text: String) -> Result<Self, String> {
        text.parse()
    }
}

impl utoipa::PartialSchema for TaskKey {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        utoipa::openapi::ObjectBuilder::new()
            .schema_type(utoipa::openapi::schema::Type::String)
            .description(Some("Which task: a step, and what it is done to: `stitch.seam.outseam`."))
            .pattern(Some("^[a-z_]+(\\.[a-z0-9_-]+)*$"))
            .examples(["stitch.seam.outseam"])
            .build()
            .into()
    }
}
impl ToSchema for TaskKey {}
