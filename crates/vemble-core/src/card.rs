//! The chalk card: what lies beside the cloth while it is chalked, in the order in which the hand moves.

use crate::check::{Check, LevelResult, Outcome, Subject};
use crate::fitting::Worn;
use crate::garment::{Level, Run, Seam};
use crate::length::{Figure, Length, Tape};
use crate::line::{AlteredSeam, End, START_ON_OLD_LINE};
use crate::solve::SolvedSeam;
use serde::Serialize;
use utoipa::ToSchema;

/// A card for one seam; its rows are the marks of that seam.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Card {
    /// What is altered: "Outseam, both legs".
    pub title: String,
    /// Garment and wearer.
    pub garment: String,
    /// Which seam.
    pub seam: Seam,
    /// What it is called on this garment.
    pub seam_name: String,
    /// How the numbers are measured, in one line.
    pub measured: String,
    /// Heading of the stations.
    pub station_heading: String,
    /// Heading of each column of figures.
    pub columns: Vec<Column>,
    /// What the hand does, in order.
    pub steps: Vec<String>,
    /// What is known to be awkward, the gravest first.
    pub cautions: Vec<String>,
    /// What the garment should measure afterwards.
    pub afterwards: Vec<String>,
    /// Under the table, where a figure needs a word.
    pub notes: Vec<String>,
}

/// A column of the card.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Column {
    /// Which figure of a row it shows.
    pub shows: ColumnFigure,
    /// Its heading.
    pub heading: String,
}

/// A figure of a row.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ColumnFigure {
    /// The left side, or both where they agree: front edge, or each edge.
    LeftFront,
    /// The left side: back edge.
    LeftBack,
    /// The left side altogether.
    LeftWhole,
    /// The left side's cut line on the front edge, or each edge.
    LeftCutFront,
    /// The left side's cut line on the back edge.
    LeftCutBack,
    /// The right side: front edge, or each edge.
    RightFront,
    /// The right side: back edge.
    RightBack,
    /// The right side altogether.
    RightWhole,
    /// The right side's cut line on the front edge, or each edge.
    RightCutFront,
    /// The right side's cut line on the back edge.
    RightCutBack,
}

pub(crate) fn card(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    solved: &SolvedSeam,
    levels: &[LevelResult],
    checks: &[Check],
) -> Card {
    let name = seam.facts.name();
    let (one, both) = limbs(subject, seam.facts.seam);
    let sides = match (solved.sides_agree, seam.lines[0].span().is_some()) {
        _ if seam.facts.seam.is_single() => String::new(),
        (true, _) => format!(", both {both} the same"),
        (false, true) if seam.lines[1].span().is_some() => format!(", each {one} its own"),
        (false, true) => format!(", left {one} only"),
        (false, false) => format!(", right {one} only"),
    };
    let concerns =
        checks.iter().filter(|c| c.outcome > Outcome::Passes && c.seam.is_none_or(|s| s == seam.facts.seam));
    let afterwards = levels.iter().filter(|l| l.is_changed());
    Card {
        title: format!("{}{sides}", capital(name)),
        garment: format!("{} · {}", subject.garment.name, subject.garment.wearer.name),
        seam: seam.facts.seam,
        seam_name: name.into(),
        measured: format!(
            "Stations in {unit}, up from the {datum} along the {name}. Figures in {unit}, sideways from the old stitching into the {}.",
            panel(subject, seam.facts.seam),
            unit = subject.tape.unit_word(),
            datum = seam.facts.seam.datum(),
        ),
        station_heading: format!("from {}, {}", seam.facts.seam.datum(), subject.tape.unit_name()),
        columns: columns(solved, subject.tape),
        steps: steps(subject, seam, solved),
        cautions: concerns.map(caution).collect(),
        afterwards: afterwards
            .map(|l| {
                let is_opening = matches!(l.level, Level::Hem | Level::SleeveHem);
                let round = if is_opening { "opening" } else { "girth" };
                format!("{}: {round} {} (now {})", capital(&l.name()), l.after.text(), l.before.text())
            })
            .collect(),
        notes: notes(subject, solved),
    }
}

/// What comes in pairs where this seam is: legs, sleeves, or just sides.
fn limbs(subject: &Subject<'_>, seam: Seam) -> (&'static str, &'static str) {
    match (seam.run(), seam) {
        (Run::DownSleeve, _) => ("sleeve", "sleeves"),
        (_, Seam::Outseam | Seam::Inseam) if subject.garment.has_legs() => ("leg", "legs"),
        _ => ("side", "sides"),
    }
}

/// What one measures into, away from the old stitching.
fn panel(subject: &Subject<'_>, seam: Seam) -> &'static str {
    match limbs(subject, seam).0 {
        "side" => "panel",
        limb => limb,
    }
}

fn caution(check: &Check) -> String {
    let stop = if check.outcome == Outcome::Stop { "Stop. " } else { "" };
    format!("{stop}{}: {}. {}", check.title, check.figures, check.remedy.as_deref().unwrap_or(&check.reason))
}

fn capital(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or_else(String::new, |c| c.to_uppercase().chain(chars).collect())
}

fn columns(solved: &SolvedSeam, tape: Tape) -> Vec<Column> {
    use ColumnFigure as F;
    let cut = solved.marks.iter().any(|m| [&m.left, &m.right].into_iter().flatten().any(|s| s.cut.is_some()));
    let side = |words: &str, f: [F; 5]| {
        let column =
            |shows, what: &str| Column { shows, heading: format!("{words}{what}, {}", tape.unit_name()) };
        let mut columns = match solved.edges_equal {
            true => vec![column(f[0], "each edge")],
            false => vec![column(f[0], "front edge"), column(f[1], "back edge")],
        };
        columns.push(column(f[2], "altogether"));
        match (cut, solved.edges_equal) {
            (true, true) => columns.push(column(f[3], "cut line, each edge")),
            (true, false) => {
                columns.extend([column(f[3], "cut line, front"), column(f[4], "cut line, back")]);
            }
            _ => {}
        }
        columns
    };
    let left = [F::LeftFront, F::LeftBack, F::LeftWhole, F::LeftCutFront, F::LeftCutBack];
    let right = [F::RightFront, F::RightBack, F::RightWhole, F::RightCutFront, F::RightCutBack];
    if solved.sides_agree {
        return side("", left);
    }
    [side("left: ", left), side("right: ", right)].concat()
}

fn steps(subject: &Subject<'_>, seam: &AlteredSeam<'_>, solved: &SolvedSeam) -> Vec<String> {
    let tape = subject.tape;
    let name = seam.facts.name();
    let (datum, panel) = (seam.facts.seam.datum(), panel(subject, seam.facts.seam));
    let mut steps = vec![
        format!("Turn the garment inside out and press the {name} flat."),
        format!(
            "Lay the tape along the old stitching with 0 at the {datum}. Tick each station on both edges."
        ),
        match solved.edges_equal {
            true => format!(
                "From each tick measure the figure sideways into the {panel} and make a dot, on the front edge and again on the back edge."
            ),
            false => format!(
                "From each tick measure sideways into the {panel} and make a dot: front and back edge have figures of their own."
            ),
        },
        "Join the dots with a curve, without corners.".into(),
    ];
    if let End::MeetsOldStitching { station } = seam.ends.upper {
        let start = (station.length + START_ON_OLD_LINE).min(seam.facts.length.length);
        steps.push(format!(
            "Start stitching on the old line at {}, {} before it leaves it at {}, and sew towards the {datum}.",
            tape.show(start),
            tape.show(start - station.length),
            tape.show(station.length)
        ));
    } else {
        steps.push(format!("The line {}.", solved.ends[1]));
    }
    steps.push("Baste, and try it on again. Nothing is cut before.".into());
    match seam.alteration.trim_to {
        Some(trim) => steps.push(format!(
            "After the try-on only: trim along the cut line, {} outside the new stitching.",
            tape.show(trim.length)
        )),
        None => steps.push("Keep all of the allowance inside: it lets out again.".into()),
    }
    steps
}

fn notes(subject: &Subject<'_>, solved: &SolvedSeam) -> Vec<String> {
    let tape = subject.tape;
    let mut sides = solved.marks.iter().flat_map(|m| [&m.left, &m.right]).flatten();
    let shown = |figure: &Figure| tape.round(Length::from_nm(figure.nm));
    let mut notes = Vec::new();
    if sides.any(|s| shown(&s.front) + shown(&s.back) != shown(&s.whole)) {
        notes.push("“Altogether” is rounded once from the exact line, so it can differ by one mark from twice the edge.".into());
    }
    if subject.worn == Worn::InsideOut {
        notes.push("It was pinned inside out: the garment's left was on the wearer's right. Left and right here are the garment's, as it is worn.".into());
    }
    // At an edge that the pins reach there is nothing to set.
    if solved.lower_is_assumed && solved.lower_station.is_some() {
        notes.push(format!("Assumed: the line {}. Nobody set its lower end.", solved.ends[0]));
    }
    if solved.upper_is_assumed {
        notes.push(format!("Assumed: the line {}. Nobody set its upper end.", solved.ends[1]));
    }
    notes
}
