//! One task: what the hand does to what, how long it takes, and whether it can be undone.

use super::caution::Caution;
use super::chain::TasksOf;
use super::settings::Settings;
use super::supplies::Supply;
use crate::change::{ChangeKey, DrawnChange, kinds};
use crate::choice::choice;
use crate::garment::{Closure, Pocket};
use crate::length::Length;
use crate::work::{Step, TaskKey, Worthy};
use serde::Serialize;
use utoipa::ToSchema;

/// How long something takes: the least, what is likely, the most.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, ToSchema)]
pub struct Minutes {
    /// On a good day.
    pub least: u32,
    /// Usually.
    pub likely: u32,
    /// When it will not go.
    pub most: u32,
}

impl Minutes {
    /// About so long: from two thirds of it to half as long again (teaching value, until the log knows better: what one pair of hands does
    /// on different evenings).
    pub const fn about(likely: u32) -> Self {
        Self { least: (likely * 2).div_ceil(3), likely, most: (likely * 3).div_ceil(2) }
    }

    /// At a pace, in percent of the usual: least, likely and most.
    #[must_use]
    pub fn at(percent: [u32; 3], usual: u32) -> Self {
        let [least, likely, most] = percent.map(|percent| (usual * percent).div_ceil(100).max(1));
        Self { least, likely, most }
    }
}

impl std::ops::Add for Minutes {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self {
            least: self.least + other.least,
            likely: self.likely + other.likely,
            most: self.most + other.most,
        }
    }
}

impl std::iter::Sum for Minutes {
    fn sum<I: Iterator<Item = Self>>(all: I) -> Self {
        all.fold(Self::default(), |a, b| a + b)
    }
}

/// An edge or seam that is worked along: how often it is there, and how long each is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Stretch {
    /// How many of it.
    pub times: u32,
    /// How long each is, at marks of the tape.
    pub each: Length,
}

impl Stretch {
    /// All of it together.
    pub fn whole(self) -> Length {
        self.each * i64::from(self.times)
    }

    /// So many minutes for every 10 cm of it, at least one.
    pub fn minutes(self, per_10_cm: u32) -> u32 {
        let tenths = self.whole().cm().max(0.0) / 10.0;
        ((tenths * f64::from(per_10_cm)).ceil() as u32).max(1)
    }
}

choice! {
    /// Whether something can be undone.
    Undone {
        Freely => "can be undone",
        ByUnpicking => "can be unpicked",
        Never => "cannot be undone",
    }
}

choice! {
    /// Where one sits or stands for it: what is done at one place is done together.
    Place {
        Table => "at the table",
        Machine => "at the machine",
        Overlocker => "at the overlocker",
        Hand => "with needle and thread",
        Iron => "at the ironing board",
        Body => "on the body",
        Tub => "in the wash",
        Desk => "at the desk",
    }
}

choice! {
    /// What is reached for.
    Tool {
        Chalk => "chalk and tape",
        Ripper => "seam ripper",
        Scissors => "scissors",
        Needle => "hand needle",
        Pins => "pins",
        SewingMachine => "sewing machine",
        OverlockMachine => "overlocker",
        IronAndBoard => "iron and board",
        Ham => "tailor’s ham",
        PressCloth => "press cloth",
        Mirror => "mirror",
        Hanger => "hanger",
        Awl => "awl and hammer",
        Bodkin => "bodkin or safety pin",
    }
}

/// Something that is taken off or opened first, and put back at the end.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Thing {
    /// The waistband, where the seam goes through it.
    Band,
    /// Belt loop and label.
    LoopAndLabel,
    /// What opens there.
    Closure(Closure),
    /// Pockets in the seam.
    Pockets(Pocket),
    /// Stitching on the right side, along so much of it.
    Topstitching,
    /// A seam that crosses.
    Crossing(crate::garment::Seam),
    /// The hem, where the line reaches it.
    Hem,
    /// The lining.
    Lining,
    /// Something named in the look-over.
    Named,
    /// The seam itself, along a panel that is set into it.
    Itself(crate::garment::Seam),
}

impl Thing {
    /// How long it takes to put back, in minutes (teaching values: by what has to be set in again).
    pub const fn minutes(self) -> u32 {
        match self {
            Self::Band => 20,
            Self::LoopAndLabel => 10,
            Self::Closure(Closure::Zip | Closure::InvisibleZip) => 30,
            Self::Closure(
                Closure::Buttons
                | Closure::Hooks
                | Closure::Lacing
                | Closure::Elastic
                | Closure::Wrap
                | Closure::Ties,
            ) => 10,
            Self::Pockets(_) => 15,
            Self::Topstitching => 10,
            Self::Crossing(_) | Self::Hem | Self::Named => 8,
            // Taken apart and sewn at their own pace.
            Self::Lining | Self::Itself(_) => 0,
        }
    }
}

/// One task.
#[derive(Clone, Debug)]
pub struct Task {
    /// Names it.
    pub key: TaskKey,
    /// How long it takes at the usual pace, in minutes.
    pub usual: u32,
    /// The edge that is worked along, if it is one.
    pub along: Option<Stretch>,
    /// How machine, needle, thread and iron are set.
    pub settings: Settings,
    /// What is reached for.
    pub tools: Vec<Tool>,
    /// What is used up.
    pub supplies: Vec<Supply>,
    /// What is opened, or put back.
    pub things: Vec<Thing>,
    /// What to know; each once in a plan.
    pub caution: Option<Caution>,
    /// Whether it can be undone.
    pub undone: Undone,
    /// Where it is done.
    pub place: Place,
    /// It needs somebody's help.
    pub helper: bool,
    /// It can be left off and taken up again.
    pub splits: bool,
    /// So long nothing can go on afterwards, in minutes.
    pub waits: u32,
    /// Of a gate: left and right are judged each by itself.
    pub by_side: bool,
    /// What its change is worth.
    pub worth: Worthy,
}

impl Task {
    /// A task with nothing said of it but where it is done and how long it takes.
    pub(crate) const fn new(key: TaskKey, place: Place, usual: u32) -> Self {
        Self {
            key,
            usual,
            along: None,
            settings: Settings::NONE,
            tools: Vec::new(),
            supplies: Vec::new(),
            things: Vec::new(),
            caution: None,
            undone: Undone::Freely,
            place,
            helper: false,
            splits: true,
            waits: 0,
            by_side: false,
            worth: Worthy::Wanted,
        }
    }

    /// Along an edge.
    pub(crate) fn along(mut self, along: Stretch) -> Self {
        self.along = Some(along);
        self
    }

    /// With these in hand.
    pub(crate) fn with(mut self, tools: &[Tool]) -> Self {
        self.tools.extend(tools);
        self
    }

    /// Not to be undone; done in one go.
    pub(crate) fn for_good(mut self) -> Self {
        self.undone = Undone::Never;
        self.splits = false;
        self
    }

    /// Heavy work of a machine, which has to cool.
    pub fn is_of_a_machine(&self) -> bool {
        matches!(self.place, Place::Machine | Place::Overlocker)
    }
}

/// What a kind of change owes: its tasks, in any order.
pub(crate) trait HasTasks {
    /// What is to be done for it.
    fn tasks(&self, of: &TasksOf<'_>) -> Vec<Task>;
}

macro_rules! tasks {
    ($($(#[$doc:meta])* $Kind:ident in $folder:ident: $Input:ident, $Key:ident, $Drawn:ident;)+) => {
        impl HasTasks for DrawnChange<'_> {
            fn tasks(&self, of: &TasksOf<'_>) -> Vec<Task> {
                match self { $(Self::$Kind(drawn) => drawn.tasks(of),)+ }
            }
        }
    };
}
kinds!(tasks);

/// What a change opened is put back: sewn at the machine where cloth was, laid in its place where that is a lining only, which is closed with
/// everything else of it.
pub(crate) fn put_back(of: &TasksOf<'_>, change: ChangeKey, sewn: Vec<Thing>) -> Task {
    /// Laying what was opened in its place: minutes (teaching value).
    const LAID: u32 = 2;
    let minutes = sewn.iter().map(|thing| thing.minutes()).sum::<u32>().max(LAID);
    let place = if sewn.is_empty() { Place::Table } else { Place::Machine };
    let mut task = Task::new(key(Step::PutBack, change), place, minutes);
    if !sewn.is_empty() {
        task.settings = Settings::seam(of.cloth());
        task = task.with(&[Tool::SewingMachine, Tool::Needle]);
    }
    task.things = sewn;
    task
}

/// A step of a change, unless there is nothing of it.
pub(crate) const fn key(step: Step, change: ChangeKey) -> TaskKey {
    TaskKey::of(step, change)
}
