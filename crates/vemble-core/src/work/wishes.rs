//! What somebody wishes for the work on one garment: by when, how it is sewn, what comes first, what may be left out.

use super::key::TaskKey;
use super::pattern::{Pattern, wrong_pattern};
use super::room::Money;
use crate::change::ChangeKey;
use crate::change::hem::Cutting;
use crate::choice::choice;
use crate::fault::{Fault, Wrong};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// What somebody wishes for the work on one garment.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Wishes {
    /// What it is to be worn at: an event of the workroom.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub event: Option<Uuid>,
    /// By when, where that is no event.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<String>, format = Date)]
    pub by: Option<jiff::civil::Date>,
    /// How it is sewn, where practitioners differ.
    #[serde(default)]
    pub schools: Schools,
    /// Tasks of one's own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub own: Vec<OwnTask>,
    /// What is to be done before what, besides what must be.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub first: Vec<Arrow>,
    /// What cannot begin before a day: a part that was ordered.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub not_before: Vec<NotBefore>,
    /// What a change is worth; one that is not named here is wanted.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub worth: Vec<Worth>,
    /// What a shop would take for all of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub quote: Option<Money>,
    /// What the garment itself cost.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub paid: Option<Money>,
    /// The pattern it is cut from, where it is still to be made.
    #[serde(default, skip_serializing_if = "is_unentered")]
    pub pattern: Pattern,
}

fn is_unentered(pattern: &Pattern) -> bool {
    *pattern == Pattern::default()
}

choice! {
    /// What happens to the allowance of a seam.
    AllowanceIs {
        PressedOpen => "pressed open",
        ToOneSide => "pressed to one side",
    }
}

choice! {
    /// How the point of a dart is secured.
    DartEnd {
        Knotted => "tied by hand",
        ShortStitches => "short stitches to the point",
    }
}

choice! {
    /// How a sleeve is sewn in.
    SleeveSet {
        Round => "set in round",
        Flat => "sewn flat, then the side in one pass",
    }
}

choice! {
    /// How a hem is sewn.
    SewnBy {
        Machine => "by machine",
        Hand => "by hand",
    }
}

/// How it is sewn, where practitioners differ. What nobody says is as usual for the garment.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Schools {
    /// When cloth outside a new seam is cut; after the next try-on when absent. A hem has its own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cutting: Option<Cutting>,
    /// How an allowance lies.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub allowance: Option<AllowanceIs>,
    /// How a dart ends.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dart_end: Option<DartEnd>,
    /// How a sleeve is sewn in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sleeve: Option<SleeveSet>,
    /// How hems are sewn.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hem: Option<SewnBy>,
}

/// A task of one's own.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnTask {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// What is to be done.
    pub title: String,
    /// How long it takes, in minutes.
    #[schema(minimum = 1, maximum = 600)]
    pub minutes: u16,
    /// How long nothing can go on afterwards, in minutes.
    #[serde(default, skip_serializing_if = "is_nought")]
    #[schema(maximum = 20160)]
    pub waits: u16,
    /// It needs somebody's help.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub helper: bool,
    /// It cannot be left off in the middle.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub in_one_go: bool,
    /// What has to be done before.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub after: Vec<TaskKey>,
    /// What it has to be done before.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub before: Vec<TaskKey>,
}

const fn is_nought(minutes: &u16) -> bool {
    *minutes == 0
}

/// One task before another.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Arrow {
    /// This.
    pub first: TaskKey,
    /// Before this.
    pub then: TaskKey,
}

/// A task that has to wait.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NotBefore {
    /// Which.
    pub task: TaskKey,
    /// The first day it can be done.
    #[schema(value_type = String, format = Date)]
    pub day: jiff::civil::Date,
    /// What for: "the zip that was ordered".
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub why: String,
}

choice! {
    /// What a change is worth when time runs out.
    Worthy {
        IfThereIsTime => "if there is time",
        Wanted => "wanted",
        Must => "must be",
        NotThisTime => "not this time",
    }
}

/// What one change is worth.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Worth {
    /// Which.
    pub change: ChangeKey,
    /// How much.
    pub worth: Worthy,
}

impl Wishes {
    /// What a change is worth.
    pub fn worth_of(&self, change: ChangeKey) -> Worthy {
        self.worth.iter().find(|w| w.change == change).map_or(Worthy::Wanted, |w| w.worth)
    }

    /// The same with a change worth so much.
    #[must_use]
    pub fn with_worth(&self, change: ChangeKey, worth: Worthy) -> Self {
        let mut wishes = self.clone();
        wishes.worth.retain(|w| w.change != change);
        wishes.worth.push(Worth { change, worth });
        wishes
    }
}

/// Most of each list: more than anybody enters, far below what would tire a server.
const MOST: usize = 64;
/// The longest title, and the longest word why, in letters.
const LONGEST: usize = 400;
/// The longest task of one's own in minutes, and the longest wait after it: two weeks.
const LONGEST_TASK: u16 = 600;
const LONGEST_WAIT: u16 = 20_160;

/// What is wrong with wishes, as paths below them. Whether they come round in a circle shows once tasks are known.
pub fn wrong_wishes(wishes: &Wishes) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
    let lists = [
        ("own", wishes.own.len()),
        ("first", wishes.first.len()),
        ("not_before", wishes.not_before.len()),
        ("worth", wishes.worth.len()),
    ];
    for (field, _) in lists.into_iter().filter(|(_, count)| *count > MOST) {
        fault(field.into(), Wrong::TooMany { what: "entries", most: MOST });
    }
    for (n, own) in wishes.own.iter().enumerate() {
        if wishes.own[..n].iter().any(|other| other.id == own.id) {
            fault(format!("own[{n}].id"), Wrong::Twice { what: "task" });
        }
        match own.title.chars().count() {
            _ if own.title.trim().is_empty() => fault(format!("own[{n}].title"), Wrong::Blank),
            letters if letters > LONGEST => {
                fault(format!("own[{n}].title"), Wrong::TooLong { most: LONGEST });
            }
            _ => {}
        }
        if own.minutes == 0 || own.minutes > LONGEST_TASK {
            fault(
                format!("own[{n}].minutes"),
                Wrong::NotMinutes { found: own.minutes.into(), most: LONGEST_TASK.into() },
            );
        }
        if own.waits > LONGEST_WAIT {
            fault(
                format!("own[{n}].waits"),
                Wrong::NotMinutes { found: own.waits.into(), most: LONGEST_WAIT.into() },
            );
        }
        for (field, tasks) in [("after", &own.after), ("before", &own.before)] {
            if tasks.len() > MOST {
                fault(format!("own[{n}].{field}"), Wrong::TooMany { what: "tasks", most: MOST });
            }
        }
    }
    for (n, wait) in wishes.not_before.iter().enumerate() {
        if wait.why.chars().count() > LONGEST {
            fault(format!("not_before[{n}].why"), Wrong::TooLong { most: LONGEST });
        }
    }
    for (n, worth) in wishes.worth.iter().enumerate() {
        if wishes.worth[..n].iter().any(|other| other.change == worth.change) {
            fault(format!("worth[{n}].change"), Wrong::ChangeTwice { which: worth.change.to_string() });
        }
    }
    for (field, money) in [("quote", wishes.quote), ("paid", wishes.paid)] {
        if money.is_some_and(|money| !money.is_sum()) {
            fault(field.into(), Wrong::NotASum);
        }
    }
    let below = |fault: Fault| Fault { path: format!("pattern.{}", fault.path), ..fault };
    faults.extend(wrong_pattern(&wishes.pattern).into_iter().map(below));
    faults
}
