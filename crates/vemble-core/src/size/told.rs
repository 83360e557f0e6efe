//! Sizes in words and figures: the whole sum of each candidate, what is flagged, and what comes next.

use super::cut::AsCut;
use super::ease::{EaseFrom, WantedEase};
use super::flags::{flags, flags_of};
use super::lengths::{Found, LengthOf, OfLength, hangs_by, lengths, place_near};
use super::search::{Candidate, as_chosen};
use super::{Table, Wanted};
use crate::body::{BodyMeasurement, Taste};
use crate::garment::{Round, Seam};
use crate::length::{Figure, Length, Measure};
use crate::place::Level;
use crate::told::capital;
use crate::work::{Chart, Chosen, PieceChange, SizeAt};
use serde::Serialize;
use utoipa::ToSchema;

/// So many candidates are shown (teaching value: more are not compared by anybody).
const SHOWN: usize = 6;

/// What is wanted, and the sizes that come nearest.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Sizes {
    /// Every level that is compared, from the top down.
    pub wanted: Vec<WantedGirth>,
    /// The charts, as they were read.
    pub charts: Vec<ChartTable>,
    /// The allowance that the pieces are drawn with.
    pub allowance: Figure,
    /// Nobody said so.
    pub allowance_is_assumed: bool,
    /// Lengths along which paper can be held to the body, and what that said.
    pub held: Vec<HeldLine>,
    /// The nearest first.
    pub candidates: Vec<SizeCandidate>,
    /// What was chosen, reckoned anew, where it is none of the others.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub chosen: Option<SizeCandidate>,
    /// What the garment would have to be to be the one that was chosen, where it is another still.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub as_cut: Option<AsCut>,
    /// What is missing before anything can be said.
    pub needs: Vec<String>,
    /// What is flagged about the charts, or the wearer beside them.
    pub flags: Vec<String>,
    /// What they are ranked by, in a sentence.
    pub says: &'static str,
}

/// A length along which paper can be held to the body.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct HeldLine {
    /// Which.
    pub what: BodyMeasurement,
    /// What it is called.
    pub name: &'static str,
    /// By how much it was too short; less than nought where it was too long.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub by: Option<Figure>,
}

/// A chart to look at.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct ChartTable {
    /// What it is called.
    pub name: String,
    /// Its sizes.
    pub sizes: Vec<String>,
    /// Its rows, each with what it is called; a chart that is read anew understands these names.
    pub rows: Vec<ChartLine>,
}

/// A row of a chart to look at.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct ChartLine {
    /// What it says: "bust girth, finished".
    pub name: String,
    /// Size by size, as it was typed.
    pub cells: Vec<String>,
}

/// What a level is to measure.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct WantedGirth {
    /// Which.
    pub level: Level,
    /// What it is called, and whose girth it is.
    pub name: String,
    /// The ease that is wanted, on the whole girth.
    pub ease: Figure,
    /// Somebody typed it.
    pub is_typed: bool,
    /// What may be kept of the wearer: what was typed here, and is not kept yet.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub may_keep: Option<Taste>,
    /// Where it comes from.
    pub from: String,
    /// How the girth comes about: "37 + 2 1/2 = 39 1/2 in".
    pub sum: String,
}

/// One choice of sizes and allowance.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SizeCandidate {
    /// Names it among all.
    pub key: String,
    /// What is cut: "M, with allowances of 1/2 in".
    pub title: String,
    /// Level by level.
    pub levels: Vec<SizeLevel>,
    /// How near it comes: "exact at every level".
    pub closeness: String,
    /// What has to be done to the paper, one by one.
    pub operations: Vec<String>,
    /// What speaks against it.
    pub flags: Vec<String>,
    /// What its lengths say.
    pub lengths: Vec<SizeLength>,
    /// As a pattern holds it.
    pub choice: Chosen,
    /// It is the one that was chosen.
    pub is_chosen: bool,
}

/// What a candidate measures at a level.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct SizeLevel {
    /// Which.
    pub level: Level,
    /// What it is called.
    pub name: String,
    /// In which size.
    pub size: String,
    /// How its girth comes about, edges and all.
    pub sum: String,
    /// What it measures round.
    pub girth: Figure,
    /// The ease that leaves: "2 1/2 in ease".
    pub ease: String,
    /// How far that is from what is wanted.
    pub beside: String,
    /// Less than nought, nought, or more.
    pub is_exact: bool,
}

/// What is found about a length.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SizeLength {
    /// Which.
    pub name: &'static str,
    /// What is done about it: "lengthen by 1.0 cm between bust and waist, front and back".
    pub does: String,
    /// How that comes about.
    pub sum: String,
    /// What becomes of it on the pieces, where they are not yet made longer or shorter there.
    pub changes: Vec<PieceChange>,
    /// What the pieces have there: "done on the pieces".
    #[serde(skip_serializing_if = "Option::is_none")]
    pub on_paper: Option<String>,
}

pub(super) fn tell(table: &Table<'_>, wanted: &[Wanted], found: &[Candidate]) -> Sizes {
    let mut candidates: Vec<SizeCandidate> = Vec::new();
    // The nearest, and of each sort and each chart at least one.
    let sort = |c: &Candidate| (c.is_blended(), c.allowance != table.allowance());
    for (n, candidate) in found.iter().enumerate() {
        let before = &found[..n];
        let is_first_of_its_sort = before.iter().all(|other| sort(other) != sort(candidate));
        let is_first_of_its_chart = before.iter().all(|other| other.chart != candidate.chart);
        if n < SHOWN || is_first_of_its_sort || is_first_of_its_chart {
            candidates.push(told(table, wanted, candidate));
        }
    }
    let is_shown = candidates.iter().any(|c| c.is_chosen);
    let chosen = as_chosen(table, wanted).filter(|_| !is_shown).map(|c| told(table, wanted, &c));
    Sizes {
        wanted: wanted.iter().map(|w| wanted_girth(table, w)).collect(),
        charts: table.pattern.charts.iter().map(chart_table).collect(),
        allowance: table.tape.figure(table.allowance()),
        allowance_is_assumed: table.pattern.allowance.is_none(),
        held: held(table),
        candidates,
        chosen,
        as_cut: None,
        needs: needs(table, wanted),
        flags: flags(table, wanted),
        says: "Ranked by: no level below the least ease; nearest to what is wanted, all levels together; fewest operations on the paper.",
    }
}

/// Lengths that this garment has.
fn held(table: &Table<'_>) -> Vec<HeldLine> {
    use BodyMeasurement as B;
    let garment = table.garment;
    let lengths = [
        (B::BackNeckToWaist, garment.hangs_from_shoulders()),
        (B::BodyRise, garment.has_legs()),
        (B::InsideLeg, garment.has_legs()),
        (B::ArmLength, garment.sleeve_length.is_some()),
    ];
    let line = |(what, _): (B, bool)| {
        let by = table.pattern.held.iter().find(|held| held.what == what);
        let by = by.map(|held| table.tape.figure(table.read(held.by)));
        HeldLine { what, name: what.name(), by }
    };
    lengths.into_iter().filter(|(_, has)| *has).map(line).collect()
}

fn chart_table(chart: &Chart) -> ChartTable {
    let row = |row: &crate::work::ChartRow| ChartLine {
        name: format!("{}, {}", row.what.name(), row.says.name()),
        cells: row.figures.iter().map(Measure::to_string).collect(),
    };
    let long = ChartLine {
        name: "finished length".into(),
        cells: chart.long.iter().map(Measure::to_string).collect(),
    };
    let long = Some(long).filter(|line| !line.cells.is_empty());
    ChartTable {
        name: chart.name.clone(),
        sizes: chart.sizes.clone(),
        rows: chart.rows.iter().map(row).chain(long).collect(),
    }
}

/// "thigh, each leg".
pub(super) fn level_name(table: &Table<'_>, level: Level) -> String {
    match table.garment.round(level) {
        Round::Whole => level.name().into(),
        Round::Leg => format!("{}, each leg", level.name()),
        Round::Sleeve => format!("{}, each sleeve", level.name()),
    }
}

fn wanted_girth(table: &Table<'_>, wanted: &Wanted) -> WantedGirth {
    let ease = wanted.ease.ease;
    let sign = if ease.is_negative() { "−" } else { "+" };
    let (body, by) = (table.bare(wanted.body), table.bare(ease.abs()));
    WantedGirth {
        level: wanted.level,
        name: level_name(table, wanted.level),
        ease: table.tape.figure(ease),
        is_typed: wanted.ease.from == EaseFrom::Typed,
        may_keep: may_keep(table, wanted),
        from: from_words(table, &wanted.ease),
        sum: format!("{body} {sign} {by} = {}", table.show(wanted.girth())),
    }
}

/// What was typed and is not kept of the wearer.
fn may_keep(table: &Table<'_>, wanted: &Wanted) -> Option<Taste> {
    let typed = table.pattern.ease.iter().find(|ease| ease.level == wanted.level)?;
    let taste = table.taste_at(wanted.level, typed.ease);
    (!table.wearer.taste.contains(&taste)).then_some(taste)
}

/// Where ease comes from, with what layers inside take of it: "the middle of what is usual, skirt; 1 layer inside × 0.3 cm of it".
fn from_words(table: &Table<'_>, ease: &WantedEase) -> String {
    let from = match &ease.from {
        EaseFrom::Typed => "as you said".into(),
        EaseFrom::Liked => format!("as {} likes it", table.wearer.name),
        EaseFrom::Fits(names) => format!("as in what fits: {}", names.join(", ")),
        EaseFrom::Taught => format!("the middle of what is usual, {}", table.garment.kind.template().name),
    };
    let layers = table.pattern.layers;
    let layer = |show: String| match layers {
        1 => format!("{from}, and {show} for the layer inside"),
        _ => format!("{from}, and {layers} layers inside × {show}"),
    };
    if ease.layer == Length::ZERO { from.clone() } else { layer(table.show(ease.layer)) }
}

fn told(table: &Table<'_>, wanted: &[Wanted], candidate: &Candidate) -> SizeCandidate {
    let choice = choice(table, wanted, candidate);
    let sizes: Vec<&str> = choice.sizes.iter().map(|s| s.size.as_str()).collect();
    SizeCandidate {
        key: format!("{}:{}:{}", choice.chart, sizes.join("/"), choice.allowance),
        title: title(table, &choice, candidate),
        levels: wanted.iter().enumerate().map(|(n, w)| level(table, w, candidate, n)).collect(),
        closeness: match candidate.cost.miss {
            Length::ZERO => "exact at every level".into(),
            miss if wanted.len() == 1 => format!("{} beside what is wanted", table.show(miss)),
            miss => format!("{} beside what is wanted, all levels together", table.show(miss)),
        },
        operations: operations(table, wanted, candidate),
        flags: flags_of(table, wanted, candidate),
        lengths: lengths(table, wanted, candidate).into_iter().map(|of| length(table, of)).collect(),
        is_chosen: table.pattern.chosen.as_ref().is_some_and(|chosen| is_same(table, chosen, &choice)),
        choice,
    }
}

fn is_same(table: &Table<'_>, chosen: &Chosen, choice: &Chosen) -> bool {
    let own = |level| chosen.sizes.iter().find(|s| s.level == level);
    chosen.chart == choice.chart
        && table.read(chosen.allowance) == table.read(choice.allowance)
        && choice.sizes.iter().all(|s| own(s.level) == Some(s))
}

fn choice(table: &Table<'_>, wanted: &[Wanted], candidate: &Candidate) -> Chosen {
    let chart = &table.pattern.charts[candidate.chart];
    let size = |(w, size): (&Wanted, &usize)| SizeAt { level: w.level, size: chart.sizes[*size].clone() };
    Chosen {
        chart: chart.name.clone(),
        sizes: wanted.iter().zip(&candidate.sizes).map(size).collect(),
        allowance: Measure { length: candidate.allowance, unit: table.tape.unit() },
    }
}

fn title(table: &Table<'_>, choice: &Chosen, candidate: &Candidate) -> String {
    let sizes = if candidate.is_blended() {
        let mut parts: Vec<(&str, Vec<&str>)> = Vec::new();
        for at in &choice.sizes {
            match parts.last_mut() {
                Some((size, levels)) if *size == at.size => levels.push(at.level.name()),
                _ => parts.push((&at.size, vec![at.level.name()])),
            }
        }
        let parts: Vec<String> =
            parts.iter().map(|(size, levels)| format!("{size} at the {}", levels.join(" and "))).collect();
        parts.join(", ")
    } else {
        choice.sizes.first().map_or_else(String::new, |s| s.size.clone())
    };
    let sizes = if table.pattern.charts.len() > 1 { format!("{} {sizes}", choice.chart) } else { sizes };
    let title = match candidate.allowance == table.allowance() {
        true => sizes,
        false => format!("{sizes}, with allowances of {}", table.show(candidate.allowance)),
    };
    title.trim().to_owned()
}

/// "2 side seams".
fn counted(seam: Seam, seams: i64) -> String {
    match seams {
        1 => format!("1 {}", seam.name()),
        n => format!("{n} {}s", seam.name()),
    }
}

fn level(table: &Table<'_>, wanted: &Wanted, candidate: &Candidate, at: usize) -> SizeLevel {
    let chart = &table.pattern.charts[candidate.chart];
    let size = candidate.sizes[at];
    let finished = table.finished(chart, wanted.what, size).unwrap_or_default();
    let narrower = table.allowance() - candidate.allowance;
    let gain = wanted.gain(narrower);
    let girth = finished + gain;
    let name = &chart.sizes[size];
    let sum = if narrower == Length::ZERO {
        format!("size {name}: {}", table.show(finished))
    } else {
        let each = wanted.seams.iter().map(|(seam, seams)| {
            let gives = table.show(narrower * 2 * *seams);
            format!("{} × 2 edges × {} = {gives}", counted(*seam, *seams), table.show(narrower))
        });
        let alone = wanted.closed.iter().map(|(seam, closure)| {
            format!("the {} has the {} and is left alone", seam.name(), closure.name())
        });
        let parts: Vec<String> = each.chain(alone).collect();
        let gives = wanted.seams.iter().map(|(_, seams)| format!(" + {}", table.bare(narrower * 2 * *seams)));
        let (start, girth) = (table.bare(finished), table.show(girth));
        format!("size {name}: {start}; {}; {start}{} = {girth}", parts.join("; "), gives.collect::<String>())
    };
    let miss = girth - wanted.girth();
    SizeLevel {
        level: wanted.level,
        name: level_name(table, wanted.level),
        size: name.clone(),
        sum,
        girth: table.tape.figure(girth),
        ease: format!("{} ease", table.show(girth - wanted.body)),
        beside: match miss {
            Length::ZERO => "as wanted".into(),
            miss if miss.is_negative() => format!("{} narrower than wanted", table.show(-miss)),
            miss => format!("{} wider than wanted", table.show(miss)),
        },
        is_exact: miss == Length::ZERO,
    }
}

fn operations(table: &Table<'_>, wanted: &[Wanted], candidate: &Candidate) -> Vec<String> {
    let chart = &table.pattern.charts[candidate.chart];
    let mut all = Vec::new();
    for (w, &size) in wanted.iter().zip(&candidate.sizes) {
        let Some((from, above)) = w.from.map(|from| (candidate.sizes[from.to], &wanted[from.to])) else {
            continue;
        };
        let (of, level, from_level) = (&chart.sizes[size], w.level.name(), above.level.name());
        let from_size = &chart.sizes[from];
        let is_armhole = above.level.is_of_sleeve() != w.level.is_of_sleeve();
        if from != size {
            all.push(match is_armhole {
                true => format!(
                    "draw the sleeve in {of} at the {level}, and its cap to the armhole of {from_size} at the {from_level}"
                ),
                false => {
                    format!("draw a smooth line from {from_size} at the {from_level} to {of} at the {level}")
                }
            });
        }
    }
    if candidate.allowance != table.allowance() {
        let mut closed: Vec<&str> =
            wanted.iter().flat_map(|w| &w.closed).map(|(seam, _)| seam.name()).collect();
        closed.sort_unstable();
        closed.dedup();
        let but = match &closed[..] {
            [] => String::new(),
            names => format!("; the {} as drawn", names.join(" and the ")),
        };
        let [new, old] = [candidate.allowance, table.allowance()].map(|length| table.show(length));
        all.push(format!("sew every lengthwise seam {new} from the raw edge instead of {old}{but}"));
    }
    all
}

fn needs(table: &Table<'_>, wanted: &[Wanted]) -> Vec<String> {
    let charts = &table.pattern.charts;
    if charts.is_empty() {
        return vec![
            "Enter what is printed with the pattern: its sizes, and what body or garment each is.".into(),
        ];
    }
    let mut all = Vec::new();
    for level in Level::ALL.iter().copied() {
        let Some(what) = table.garment.body_at(level) else { continue };
        let is_charted = charts.iter().any(|chart| table.finished(chart, what, 0).is_some());
        let is_compared = wanted.iter().any(|w| w.level == level);
        if is_charted && !is_compared && table.body(what).is_none() {
            all.push(format!("Measure the {} of {}: the chart has it.", what.name(), table.wearer.name));
        }
    }
    for chart in charts {
        let missing: Vec<&str> = wanted
            .iter()
            .filter(|w| table.finished(chart, w.what, 0).is_none())
            .map(|w| w.what.name())
            .collect();
        if !missing.is_empty() {
            let name = if chart.name.is_empty() { "The chart" } else { &chart.name };
            all.push(format!(
                "{} has no finished {}: it cannot be compared until it has.",
                capital(name),
                missing.join(", ")
            ));
        }
    }
    if charts.iter().any(|chart| !chart.long.is_empty()) {
        let missing = hangs_by(table.garment).iter().filter(|what| table.body(**what).is_none());
        let missing: Vec<&str> = missing.map(|what| what.name()).collect();
        if !missing.is_empty() {
            let (what, name) = (missing.join(" and the "), &table.wearer.name);
            all.push(format!("Measure the {what} of {name}: where the hem lands follows from it."));
        }
    }
    if wanted.is_empty() {
        all.push("No finished girth of the charts is one of this garment’s levels.".into());
    }
    all
}

fn length(table: &Table<'_>, of: OfLength) -> SizeLength {
    let OfLength { what, found, changes, is_of_wearer, at } = of;
    let (show, bare) = (|length| table.show(length), |length| table.bare(length));
    let longer = |by: Length| match by {
        Length::ZERO => "as it is".to_owned(),
        by if by.is_negative() => format!("shorten by {} {at}", show(-by)),
        by => format!("lengthen by {} {at}", show(by)),
    };
    let less = |body: Length, what: &str, paper: Length, above: Length| {
        let by = body - paper - above;
        let (sign, unit) = (if by.is_negative() { "−" } else { "" }, table.tape.unit_name());
        let done = done(table, above);
        format!("body {} − {what} {}{done} = {sign}{} {unit}", bare(body), bare(paper), bare(by.abs()))
    };
    let (does, sum) = match found {
        Found::DrawnFor { paper, body, above } => {
            (longer(body - paper - above), less(body, "drawn for", paper, above))
        }
        Found::Finished { finished, body } => {
            (longer(body - finished), less(body, "finished", finished, Length::ZERO))
        }
        Found::Held { by } => {
            let way = if by.is_negative() { "too long" } else { "too short" };
            let sum = match by {
                Length::ZERO => "held to the body it was right".into(),
                by => format!("held to the body it was {} {way}", show(by.abs())),
            };
            (longer(by), sum)
        }
        Found::Leaves { finished, body } => {
            let left = finished - body;
            let is_arm = what == LengthOf::Body(BodyMeasurement::ArmLength);
            let does = match (is_arm, left) {
                (true, Length::ZERO) => "the sleeve ends at the wrist".into(),
                (true, left) if left.is_negative() => {
                    format!("the sleeve ends {} above the wrist", show(-left))
                }
                (true, left) => format!("the sleeve ends {} beyond the wrist", show(left)),
                (false, left) => format!("leaves {} to sit with", show(left)),
            };
            (does, less(body, "finished", finished, Length::ZERO))
        }
        Found::Lands { finished, size, longer, floor } => lands(table, (finished, size), longer, &floor),
    };
    let (changes, on_paper) = match is_of_wearer && !changes.is_empty() {
        true => (Vec::new(), Some(format!("the pieces are as long there as {}", table.wearer.name))),
        false => on_paper(table, changes),
    };
    let name = match what {
        LengthOf::Body(what) => what.name(),
        LengthOf::Garment => "hem",
    };
    SizeLength { name, does, sum, changes, on_paper }
}

/// "the hem lands 45.0 cm above the floor, about 3 cm below the knee", and how that comes about.
fn lands(
    table: &Table<'_>,
    (finished, size): (Length, Option<String>),
    longer: Length,
    floor: &[Length],
) -> (String, String) {
    let size = size.map_or_else(String::new, |size| format!(" size {size}:"));
    let (show, bare) = (|length| table.show(length), |length| table.bare(length));
    let up = floor.iter().fold(Length::ZERO, |sum, part| sum + *part) - finished - longer;
    let at = match place_near(table, up) {
        None => String::new(),
        Some((level, Length::ZERO)) => format!(", about at the {}", level.name()),
        Some((level, below)) => {
            let way = if below.is_negative() { "above" } else { "below" };
            format!(", about {} {way} the {}", about(table, below.abs()), level.name())
        }
    };
    let does = match up {
        Length::ZERO => "the hem lands on the floor".into(),
        up if up.is_negative() => format!("the hem lies {} on the floor: shorten it", show(-up)),
        up => format!("the hem lands {} above the floor{at}", show(up)),
    };
    let done = done(table, longer);
    let body = floor.iter().map(|part| bare(*part)).collect::<Vec<_>>().join(" + ");
    let sign = if up.is_negative() { "−" } else { "" };
    let sum = format!(
        "body {body} − finished{size} {}{done} = {sign}{} {}",
        bare(finished),
        bare(up.abs()),
        table.tape.unit_name()
    );
    (does, sum)
}

/// What is made longer already, in a sum: " − lengthened 1.0".
fn done(table: &Table<'_>, longer: Length) -> String {
    match longer {
        Length::ZERO => String::new(),
        by if by.is_negative() => format!(" + shortened {}", table.bare(-by)),
        by => format!(" − lengthened {}", table.bare(by)),
    }
}

/// A length that nobody measured: "3 cm", "1 1/2 in".
fn about(table: &Table<'_>, length: Length) -> String {
    Measure { length, unit: table.tape.unit() }.to_string()
}

/// What of it is still to be done on the pieces, and what they have there.
fn on_paper(table: &Table<'_>, changes: Vec<PieceChange>) -> (Vec<PieceChange>, Option<String>) {
    let at = |change: &PieceChange| {
        let PieceChange::Length { part, face: None, below, by } = change else { return None };
        Some((*part, *below, table.read(*by)))
    };
    let lines: Vec<_> = changes.iter().filter_map(at).collect();
    let entered = table.pattern.changes.iter().filter_map(at);
    let there: Vec<Length> = entered
        .filter(|(part, below, _)| lines.iter().any(|(p, b, _)| (p, b) == (part, below)))
        .map(|(.., by)| by)
        .collect();
    if there.is_empty() {
        return (changes, None);
    }
    let sum = |all: &mut dyn Iterator<Item = Length>| all.fold(Length::ZERO, |sum, by| sum + by);
    let (wanted, has) = (sum(&mut lines.iter().map(|(.., by)| *by)), sum(&mut there.into_iter()));
    let says = match has - wanted {
        Length::ZERO => "done on the pieces".into(),
        _ if has.is_negative() => format!("the pieces are {} shorter there", table.show(-has)),
        _ => format!("the pieces are {} longer there", table.show(has)),
    };
    (Vec::new(), Some(says))
}
