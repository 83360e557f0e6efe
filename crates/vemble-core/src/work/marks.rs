//! Marks on a toile that is worn: what each says, and when it is settled.

use crate::choice::choice;
use crate::fault::{Fault, Wrong};
use crate::length::{Length, Measure};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// A mark on a worn toile, by its name.
    ToileMark {
        ShoulderTip => "shoulder tip",
        NecklineGape => "neckline gape",
        ArmholeHinge => "armhole hinge",
        BustPoint => "bust point",
        Waist => "waist",
        BalanceFront => "balance line in front",
        BalanceBack => "balance line behind",
        Hem => "hem",
        UpperArm => "upper arm",
        Wrist => "end of the sleeve",
    }
}

choice! {
    /// When a toile is marked: it is sewn in two stages.
    ToileStage {
        Bare => "without sleeves",
        Sleeved => "with one sleeve and all the rest",
    }
}

choice! {
    /// When a mark is settled.
    MarkSettled {
        Now => "now, on paper",
        RealCloth => "in the real cloth",
        NextTime => "next time",
    }
}

/// A mark that was made.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Marked {
    /// Which.
    pub mark: ToileMark,
    /// In which stage.
    pub stage: ToileStage,
    /// On which toile: the first, or one that was sewn after it was changed.
    pub toile: u8,
    /// By how much; less than nought is the other way.
    pub by: Measure,
    /// When it is settled; nothing until somebody says so.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub settled: Option<MarkSettled>,
}

/// Most toiles of one garment: whoever sews more begins another garment.
pub const TOILES: u8 = 4;
/// Nothing on a toile is moved further, in mm.
const FARTHEST: i64 = 500;

/// What is wrong with marks, as paths below the pattern.
pub(super) fn wrong_marks(marks: &[Marked]) -> Vec<Fault> {
    let mut faults = Vec::new();
    for (n, marked) in marks.iter().enumerate() {
        let mut fault =
            |field: &str, wrong| faults.push(Fault { path: format!("marks[{n}].{field}"), wrong });
        let key = |m: &Marked| (m.mark, m.stage, m.toile);
        if marks[..n].iter().any(|other| key(other) == key(marked)) {
            fault("mark", Wrong::Twice { what: "mark" });
        }
        if !(1..=TOILES).contains(&marked.toile) {
            fault("toile", Wrong::NotACount { most: TOILES.into() });
        }
        let most = Length::from_mm(FARTHEST);
        if marked.by.length.abs() > most {
            fault("by", Wrong::WiderThan { found: marked.by, length: most });
        }
    }
    faults
}
