//! The pattern of a garment that is still to be made, as it is entered: what its charts say, what is wanted of it, and which size was chosen.

use super::drawn::{DrawnPiece, wrong_drawn};
use super::marks::{MarkSettled, Marked, TOILES, wrong_marks};
use super::piece_change::PieceChange;
use crate::body::BodyMeasurement;
use crate::fault::{Fault, Wrong};
use crate::length::{Length, Measure};
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What is entered about a pattern.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pattern {
    /// What is printed on its envelope; several where ranges overlap, a regular one and a fuller one.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub charts: Vec<Chart>,
    /// The seam allowance that its pieces have; as is usual when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub allowance: Option<Measure>,
    /// The ease that is wanted where somebody said so.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ease: Vec<LevelEase>,
    /// How many layers lie inside it: a lining, an interlining.
    #[serde(default, skip_serializing_if = "is_none")]
    pub layers: u8,
    /// Its cloth is thinner and falls more softly than that of its toile.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub drapes: bool,
    /// By how much paper held to the body was too short, or too long where that is less than nought.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub held: Vec<Held>,
    /// What is cut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub chosen: Option<Chosen>,
    /// Pieces that were read from a file.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub drawn: Vec<DrawnPiece>,
    /// How many toiles were sewn and changed before this one.
    #[serde(default, skip_serializing_if = "is_none")]
    pub toiles_before: u8,
    /// What was marked on its toiles, in order.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub marks: Vec<Marked>,
    /// What is done to its pieces, in order.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub changes: Vec<PieceChange>,
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "what serde calls")]
const fn is_none(count: &u8) -> bool {
    *count == 0
}

impl Pattern {
    /// Which toile is worn now, by what was marked: the first is 1.
    pub fn newest_toile(&self) -> u8 {
        self.marks.iter().map(|marked| marked.toile).fold(self.toiles_before.saturating_add(1), u8::max)
    }

    /// Marks that say something still: what was left open, or for later, on a toile before is not, where a later one was marked there too.
    pub fn standing_marks(&self) -> impl Iterator<Item = &Marked> {
        let is_marked_again = |own: &Marked| {
            let again = |m: &&Marked| (m.mark, m.stage) == (own.mark, own.stage) && m.toile > own.toile;
            self.marks.iter().any(|m| again(&m))
        };
        self.marks.iter().filter(move |own| match own.settled {
            Some(MarkSettled::Now) => true,
            Some(MarkSettled::RealCloth | MarkSettled::NextTime) => !is_marked_again(own),
            None => !is_marked_again(own) && !self.is_past(own),
        })
    }

    /// It was marked on a toile that was sewn and changed before this one: what it became is in the pieces.
    pub const fn is_past(&self, marked: &Marked) -> bool {
        marked.toile <= self.toiles_before
    }
}

/// A chart as it is printed: sizes from the smallest up, and a row for each measurement.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Chart {
    /// What it is called: "regular".
    pub name: String,
    /// Its sizes, the smallest first.
    pub sizes: Vec<String>,
    /// Its rows, in any order.
    pub rows: Vec<ChartRow>,
    /// How long the finished garment is in every size: from the back neck, or where it hangs from the waist, from there. Nothing where it
    /// does not say so.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub long: Vec<Measure>,
}

crate::choice::choice! {
    /// What a row of a chart says.
    ChartSays {
        Body => "body",
        Finished => "finished",
        Ease => "ease",
    }
}

/// One row: a figure for each size.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ChartRow {
    /// Of which measurement.
    pub what: BodyMeasurement,
    /// The body's, the finished garment's, or what the chart says lies between them.
    pub says: ChartSays,
    /// For every size in order.
    pub figures: Vec<Measure>,
}

/// Ease at a level, on the whole girth.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LevelEase {
    /// Where.
    pub level: Level,
    /// How much: less than nought for a garment that is smaller than the body.
    pub ease: Measure,
}

/// A piece of paper held to the body.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Held {
    /// Along which length.
    pub what: BodyMeasurement,
    /// By how much it was too short; less than nought where it was too long.
    pub by: Measure,
}

/// What is cut: sizes of one chart, and how wide its allowances are.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Chosen {
    /// The chart's name.
    pub chart: String,
    /// The size at each level that was compared.
    pub sizes: Vec<SizeAt>,
    /// The allowance of every seam without a closure.
    pub allowance: Measure,
}

/// A size at a level.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SizeAt {
    /// Where.
    pub level: Level,
    /// Which.
    pub size: String,
}

impl Chart {
    /// The figures of a row. Nothing where it has no such row.
    pub fn row(&self, what: BodyMeasurement, says: ChartSays) -> Option<&[Measure]> {
        self.rows.iter().find(|row| row.what == what && row.says == says).map(|row| &row.figures[..])
    }
}

/// Most layers inside a garment: lining, interlining, padding.
const LAYERS: u8 = 3;
/// Most changes of pieces.
pub(super) const CHANGES: usize = 64;
/// Most charts: a regular and a fuller one, and as many to compare with.
const CHARTS: usize = 4;
/// Most sizes of a chart, and most of its rows: more than any that is printed.
const SIZES: usize = 24;
const ROWS: usize = 40;
/// The longest name of a chart or size, in letters.
const LONGEST: usize = 40;

/// What is wrong with a pattern, as paths below it: a chart with a figure missing, or whose figures fall from one size to the next.
pub(super) fn wrong_pattern(pattern: &Pattern) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
    let Pattern {
        charts,
        allowance,
        ease,
        layers,
        drapes: _,
        held,
        chosen,
        drawn,
        toiles_before,
        marks,
        changes,
    } = pattern;
    if changes.len() > CHANGES {
        fault("changes".into(), Wrong::TooMany { what: "changes", most: CHANGES });
    }
    for (n, change) in changes.iter().enumerate() {
        if let Some(wrong) = change.wrong() {
            fault(format!("changes[{n}]"), wrong);
        }
    }
    if charts.len() > CHARTS {
        fault("charts".into(), Wrong::TooMany { what: "charts", most: CHARTS });
    }
    for (n, chart) in charts.iter().enumerate() {
        if charts[..n].iter().any(|other| other.name == chart.name) {
            fault(format!("charts[{n}].name"), Wrong::Twice { what: "chart" });
        }
        for wrong in wrong_chart(chart) {
            fault(format!("charts[{n}].{}", wrong.path), wrong.wrong);
        }
    }
    if let Some(found) = allowance.filter(|a| a.length <= Length::ZERO) {
        fault("allowance".into(), Wrong::NotPositive { found });
    }
    for (n, wanted) in ease.iter().enumerate() {
        if ease[..n].iter().any(|other| other.level == wanted.level) {
            fault(format!("ease[{n}].level"), Wrong::Twice { what: "level" });
        }
    }
    for (n, paper) in held.iter().enumerate() {
        if held[..n].iter().any(|other| other.what == paper.what) {
            fault(format!("held[{n}].what"), Wrong::Twice { what: "length" });
        }
    }
    if let Some(chosen) = chosen {
        if chosen.allowance.length <= Length::ZERO {
            fault("chosen.allowance".into(), Wrong::NotPositive { found: chosen.allowance });
        }
        if chosen.sizes.len() > Level::ALL.len() {
            fault("chosen.sizes".into(), Wrong::TooMany { what: "sizes", most: Level::ALL.len() });
        }
        let mut names = chosen.sizes.iter().map(|s| &s.size).chain([&chosen.chart]);
        if names.any(|name| name.chars().count() > LONGEST) {
            fault("chosen".into(), Wrong::TooLong { most: LONGEST });
        }
    }
    if *layers > LAYERS {
        fault("layers".into(), Wrong::TooMany { what: "layers", most: LAYERS.into() });
    }
    if *toiles_before >= TOILES {
        fault("toiles_before".into(), Wrong::NotACount { most: (TOILES - 1).into() });
    }
    faults.extend(wrong_drawn(drawn));
    faults.extend(wrong_marks(marks));
    faults
}

/// What is wrong with one chart, as paths below it.
pub fn wrong_chart(chart: &Chart) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
    let long = |text: &str| text.chars().count() > LONGEST;
    if long(&chart.name) {
        fault("name".into(), Wrong::TooLong { most: LONGEST });
    }
    if chart.sizes.is_empty() {
        fault("sizes".into(), Wrong::Blank);
    }
    if chart.sizes.len() > SIZES {
        fault("sizes".into(), Wrong::TooMany { what: "sizes", most: SIZES });
    }
    if chart.rows.len() > ROWS {
        fault("rows".into(), Wrong::TooMany { what: "rows", most: ROWS });
    }
    for (n, size) in chart.sizes.iter().enumerate() {
        match () {
            () if size.trim().is_empty() => fault(format!("sizes[{n}]"), Wrong::Blank),
            () if long(size) => fault(format!("sizes[{n}]"), Wrong::TooLong { most: LONGEST }),
            () if chart.sizes[..n].contains(size) => {
                fault(format!("sizes[{n}]"), Wrong::Twice { what: "size" });
            }
            () => {}
        }
    }
    for (n, row) in chart.rows.iter().enumerate() {
        if chart.rows[..n].iter().any(|other| (other.what, other.says) == (row.what, row.says)) {
            faults.push(Fault { path: format!("rows[{n}].what"), wrong: Wrong::Twice { what: "row" } });
        }
        // What lies between body and garment may be anything, and may fall.
        let may_fall = row.says == ChartSays::Ease;
        faults.extend(wrong_figures(&format!("rows[{n}].figures"), &row.figures, chart, may_fall));
    }
    if !chart.long.is_empty() {
        faults.extend(wrong_figures("long", &chart.long, chart, false));
    }
    faults
}

/// What is wrong with the figures of one row: one for each size, and none less than nought or than the one before.
fn wrong_figures(path: &str, figures: &[Measure], chart: &Chart, may_fall: bool) -> Vec<Fault> {
    let (found, sizes) = (figures.len(), chart.sizes.len());
    if found != sizes {
        return vec![Fault { path: path.into(), wrong: Wrong::NotOneEach { found, sizes } }];
    }
    let wrong = |k: usize, figure: Measure| {
        let before = k.checked_sub(1).map(|before| figures[before]);
        match before.filter(|before| before.length > figure.length) {
            _ if may_fall => None,
            _ if figure.length <= Length::ZERO => Some(Wrong::NotPositive { found: figure }),
            Some(before) => Some(Wrong::Falls { found: figure, before }),
            None => None,
        }
    };
    let at = |(k, figure): (usize, &Measure)| {
        Some(Fault { path: format!("{path}[{k}]"), wrong: wrong(k, *figure)? })
    };
    figures.iter().enumerate().filter_map(at).collect()
}
