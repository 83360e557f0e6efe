//! The chalk card: what lies beside the cloth while it is chalked, in the order in which the hand moves.

use crate::alteration::{ANCHOR, AlteredDart};
use crate::check::{Check, LevelResult, Outcome, Rule, Subject};
use crate::figure::{CardDrawing, dart_drawings, seam_drawings};
use crate::fitting::Worn;
use crate::garment::{Band, Level, Run, Seam};
use crate::length::{Figure, Length, Tape};
use crate::line::{AlteredSeam, End, START_ON_OLD_LINE};
use crate::solve::{MarkResult, SolvedElastic, SolvedSeam, dart_rows, seam_rows};
use serde::Serialize;
use utoipa::ToSchema;

/// A card for one seam, pair of darts or elastic.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Card {
    /// What is altered: "Outseam, both legs".
    pub title: String,
    /// Garment and wearer.
    pub garment: String,
    /// Names it among the cards of a try-on: `outseam`, `dart.back_waist`, `elastic`.
    pub key: String,
    /// What is altered, as it is called on this garment.
    pub name: String,
    /// How the numbers are measured, in one line.
    pub measured: String,
    /// The new line, drawn: one drawing, or one for each side and edge that differs.
    pub drawings: Vec<CardDrawing>,
    /// Heading of the stations.
    pub station_heading: String,
    /// Heading of each column of figures.
    pub columns: Vec<Column>,
    /// Its rows, from the datum on.
    pub marks: Vec<MarkResult>,
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

impl ColumnFigure {
    /// The figure of a row that it shows; nothing where there is none.
    pub fn of(self, row: &MarkResult) -> Option<Figure> {
        use ColumnFigure as F;
        let side = if self.is_left() { &row.left } else { &row.right }.as_ref()?;
        match self {
            F::LeftFront | F::RightFront => Some(side.front),
            F::LeftBack | F::RightBack => Some(side.back),
            F::LeftWhole | F::RightWhole => Some(side.whole),
            F::LeftCutFront | F::RightCutFront => side.cut.map(|c| c[0]),
            F::LeftCutBack | F::RightCutBack => side.cut.map(|c| c[1]),
        }
    }

    /// Of the left side, or of both where they agree.
    pub fn is_left(self) -> bool {
        use ColumnFigure as F;
        matches!(self, F::LeftFront | F::LeftBack | F::LeftWhole | F::LeftCutFront | F::LeftCutBack)
    }

    /// Both edges together; the other figures are measured on one.
    pub fn is_whole(self) -> bool {
        matches!(self, Self::LeftWhole | Self::RightWhole)
    }
}

pub(crate) fn card(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    solved: &SolvedSeam,
    levels: &[LevelResult],
    checks: &[Check],
) -> Card {
    let marks = seam_rows(subject, seam);
    let (name, panel) = (seam.facts.name(), panel(subject, seam.facts.seam));
    let (one, both) = limbs(subject, seam.facts.seam);
    let sides = match (solved.sides_agree, seam.lines[0].span().is_some()) {
        _ if seam.facts.seam.is_single() => String::new(),
        (true, _) => format!(", both {both} the same"),
        (false, true) if seam.lines[1].span().is_some() => format!(", each {one} its own"),
        (false, true) => format!(", left {one} only"),
        (false, false) => format!(", right {one} only"),
    };
    // What is not about a seam, a dart or the elastic is about the whole garment.
    let is_of_another = |c: &Check| match c.seam {
        Some(of) => of != seam.facts.seam,
        None => c.dart.is_some() || c.rule == Rule::Elastic,
    };
    let concerns = checks.iter().filter(|c| c.outcome > Outcome::Passes && !is_of_another(c));
    Card {
        title: format!("{}{sides}", capital(name)),
        garment: format!("{} · {}", subject.garment.name, subject.garment.wearer.name),
        key: solved.key.clone(),
        name: name.into(),
        measured: format!(
            "Stations in {unit}, {up}from the {datum} along the {name}. Figures in {unit}, sideways from the old stitching {}.",
            match Way::of(&marks) {
                Way::In => format!("into the {panel}"),
                Way::Out => format!("out into the allowance, away from the {panel}: so says the −"),
                Way::Both => format!("into the {panel}; those with a − out into the allowance"),
            },
            unit = subject.tape.unit_word(),
            up = if seam.facts.seam.run() == Run::Across { "" } else { "up " },
            datum = seam.facts.seam.datum(),
        ),
        drawings: seam_drawings(seam, solved, &marks),
        station_heading: format!("from {}, {}", seam.facts.seam.datum(), subject.tape.unit_name()),
        columns: columns(solved, &marks, subject.tape, "each edge", "altogether"),
        steps: steps(subject, seam, solved, &marks),
        cautions: concerns.map(caution).collect(),
        afterwards: afterwards(levels),
        notes: notes(subject, solved, &marks),
        marks,
    }
}

/// What the garment measures afterwards, wherever that changes.
fn afterwards(levels: &[LevelResult]) -> Vec<String> {
    let words = |l: &LevelResult| {
        let is_opening = matches!(l.level, Level::Hem | Level::SleeveHem);
        let round = if is_opening { "opening" } else { "girth" };
        format!("{}: {round} {} (now {})", capital(&l.name()), l.after.text(), l.before.text())
    };
    levels.iter().filter(|l| l.before.text() != l.after.text()).map(words).collect()
}

/// The card of a pair of darts.
pub(crate) fn dart_card(
    subject: &Subject<'_>,
    dart: &AlteredDart<'_>,
    solved: &SolvedSeam,
    levels: &[LevelResult],
    checks: &[Check],
) -> Card {
    let tape = subject.tape;
    let marks = dart_rows(subject, dart);
    let sides = if solved.sides_agree { "a pair, both the same" } else { "a pair, each its own" };
    let concerns = checks.iter().filter(|c| c.outcome > Outcome::Passes && c.dart == Some(dart.dart()));
    let two = dart.dart().has_two_points();
    let mut steps = vec![
        match &solved.place {
            Some(place) => format!(
                "Inside out, draw the middle of each dart: {}. Both alike.",
                place.trim_start_matches("assumed: ")
            ),
            None => "Inside out, draw the middle of each dart from its old point. Both alike.".into(),
        },
        format!("Lay the tape along the middle with 0 at the {}. Tick each station.", solved.datum),
        "From each tick measure the fold depth to either side of the middle and make a dot.".into(),
        match dart.facts {
            Some(_) => "Join the dots; fold along the middle, dots on dots, and pin across.".into(),
            None => {
                "Join the dots to a lens or a wedge; fold along the middle, dots on dots, and pin across."
                    .into()
            }
        },
        "Baste, and try it on again.".into(),
    ];
    steps.push(match two {
        true => "Sew from the middle to one point, then from the middle to the other.".into(),
        false => format!("Sew from the {} to the point.", solved.top),
    });
    steps.push("Finish each point with short stitches or a hand knot, without a lump. Press over a ham, towards the centre.".into());
    let mut notes = Vec::new();
    if dart.place_is_assumed {
        notes.push(format!(
            "{}. Nobody said where it lies: put in its point and its other end.",
            capital(solved.place.as_deref().unwrap_or("assumed"))
        ));
    }
    notes.extend(inside_out(subject));
    Card {
        title: format!("{}, {sides}", capital(&dart.name())),
        garment: format!("{} · {}", subject.garment.name, subject.garment.wearer.name),
        key: solved.key.clone(),
        name: dart.name(),
        measured: format!(
            "Stations in {unit} from the {}. Fold depths in {unit}, from the middle of the dart to either side.",
            solved.datum,
            unit = tape.unit_word()
        ),
        drawings: dart_drawings(dart, solved, &marks),
        station_heading: format!("from {}, {}", solved.datum, tape.unit_name()),
        columns: columns(solved, &marks, tape, "fold depth", "taken by each"),
        marks,
        steps,
        cautions: concerns.map(caution).collect(),
        afterwards: afterwards(levels),
        notes,
    }
}

/// The card of elastic in a waistband; nothing where it cannot be done.
pub(crate) fn elastic_card(subject: &Subject<'_>, elastic: &SolvedElastic, checks: &[Check]) -> Option<Card> {
    let cut = elastic.cut?;
    let spans = elastic.spans?;
    let concerns = checks.iter().filter(|c| c.outcome > Outcome::Passes && c.rule == Rule::Elastic);
    Some(Card {
        title: "Elastic in the waistband".into(),
        garment: format!("{} · {}", subject.garment.name, subject.garment.wearer.name),
        key: "elastic".into(),
        name: "elastic".into(),
        measured: format!("Cut {}, anchors and all. {}.", cut.text(), capital(&elastic.sum)),
        drawings: Vec::new(),
        station_heading: String::new(),
        columns: Vec::new(),
        marks: Vec::new(),
        steps: vec![
            format!(
                "Mark two slits on the inside of the band, {} apart, alike on both sides of the centre back and clear of loops.",
                elastic.casing.text()
            ),
            "Open the slits in the inner band only.".into(),
            format!(
                "Cut the elastic {} long. Draw it from slit to slit; hop out before a label that is sewn through, and in again after it.",
                cut.text()
            ),
            format!(
                "Pin each end {} deep, and try it on: it should hold without digging in.",
                subject.tape.show(ANCHOR)
            ),
            "Sew two short rows across each end; they show on the outside. Close the slits by hand.".into(),
        ],
        cautions: concerns.map(caution).collect(),
        afterwards: vec![format!("Worn, the elastic spans {}.", spans.text())],
        notes: Vec::new(),
    })
}

fn inside_out(subject: &Subject<'_>) -> Option<String> {
    (subject.worn == Worn::InsideOut).then(|| {
        "It was pinned inside out: the garment's left was on the wearer's right. Left and right here are the garment's, as it is worn.".into()
    })
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
    format!(
        "{stop}{}: {}. {}",
        capital(&check.title),
        check.figures,
        check.remedy.as_deref().unwrap_or(&check.reason)
    )
}

fn capital(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or_else(String::new, |c| c.to_uppercase().chain(chars).collect())
}

fn columns(solved: &SolvedSeam, marks: &[MarkResult], tape: Tape, edge: &str, whole: &str) -> Vec<Column> {
    use ColumnFigure as F;
    let [one, other] = &solved.edges;
    let cut = marks.iter().any(|m| [&m.left, &m.right].into_iter().flatten().any(|s| s.cut.is_some()));
    let side = |words: &str, f: [F; 5]| {
        let column =
            |shows, what: &str| Column { shows, heading: format!("{words}{what}, {}", tape.unit_name()) };
        let mut columns = match solved.edges_equal {
            true => vec![column(f[0], edge)],
            false => vec![column(f[0], &format!("{one} edge")), column(f[1], &format!("{other} edge"))],
        };
        columns.push(column(f[2], whole));
        match (cut, solved.edges_equal) {
            (true, true) => columns.push(column(f[3], "cut line, each edge")),
            (true, false) => {
                columns.extend([
                    column(f[3], &format!("cut line, {one}")),
                    column(f[4], &format!("cut line, {other}")),
                ]);
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

fn steps(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    solved: &SolvedSeam,
    marks: &[MarkResult],
) -> Vec<String> {
    let tape = subject.tape;
    let name = seam.facts.name();
    let datum = seam.facts.seam.datum();
    let [one, other] = &solved.edges;
    let way = Way::of(marks);
    let towards = match way {
        Way::In => format!("into the {}", panel(subject, seam.facts.seam)),
        Way::Out => "out into the allowance".into(),
        Way::Both => {
            format!("into the {}, with a − out into the allowance,", panel(subject, seam.facts.seam))
        }
    };
    let mut steps = vec![
        format!("Turn the garment inside out and press the {name} flat."),
        format!(
            "Lay the tape along the old stitching with 0 at the {datum}. Tick each station on both edges."
        ),
        match solved.edges_equal {
            true => format!(
                "From each tick measure the figure sideways {towards} and make a dot, on the {one} edge and again on the {other} edge."
            ),
            false => format!(
                "From each tick measure sideways {towards} and make a dot: {one} and {other} edge have figures of their own."
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
    } else if let End::CarriesOn { into } = seam.ends.upper {
        steps.push(format!(
            "The line turns the corner as a curve into the {}: chalk both with {} at the corner and sew them in one pass.",
            into.name(),
            marks.last().and_then(|m| Some(m.left.as_ref()?.front.text())).unwrap_or_default()
        ));
    } else {
        steps.push(format!("The line {}: start there and sew towards the {datum}.", solved.ends[1]));
    }
    match seam.ends.lower {
        End::MeetsOldStitching { station } => steps.push(format!(
            "It meets the old line at {}: go on along that for {} more.",
            tape.show(station.length),
            tape.show(START_ON_OLD_LINE.min(station.length))
        )),
        _ => steps.push(format!("At the other end it {}.", solved.ends[0])),
    }
    steps.extend(through_the_band(subject, seam));
    steps.push("Baste, and try it on again. Nothing is cut before.".into());
    match seam.alteration.trim_to {
        Some(trim) => steps.push(format!(
            "After the try-on only: trim along the cut line, {} outside the new stitching.",
            tape.show(trim.length)
        )),
        None if way == Way::In => steps.push("Keep all of the allowance inside: it lets out again.".into()),
        None => {
            steps.push("Unpick the old line only after the new one is sewn, where that is possible.".into());
        }
    }
    steps
}

/// Which way the figures of a card go from the old stitching.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Way {
    In,
    Out,
    Both,
}

impl Way {
    fn of(marks: &[MarkResult]) -> Self {
        let sides = marks.iter().flat_map(|m| [&m.left, &m.right]).flatten();
        let (mut takes_in, mut lets_out) = (false, false);
        for figure in sides.flat_map(|s| [s.front, s.back]) {
            takes_in |= figure.nm > 0;
            lets_out |= figure.nm < 0;
        }
        match (takes_in, lets_out) {
            (true, true) => Self::Both,
            (false, true) => Self::Out,
            _ => Self::In,
        }
    }
}

/// A centre-back waist goes through the band; how depends on how that is made.
fn through_the_band(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> Vec<String> {
    let goes_through = matches!(seam.ends.upper, End::StraightThrough { .. } | End::RunsOff {});
    let ends_there = subject.garment.span_of(seam.facts.seam).1 == Level::Waist;
    if !goes_through || !ends_there || !seam.facts.seam.is_single() {
        return Vec::new();
    }
    let band = match subject.garment.found.band {
        Some(Band::CentreBackSeam) => "Open the band's own seam and sew it again in one pass with this one.",
        Some(Band::OnePiece) => {
            "Cut the band at the centre back. Sew the short level seams first, then the upright one in one pass, allowances open."
        }
        Some(Band::Separate) => "Open the inner band there; cut and rejoin it, or fold it.",
        Some(Band::Elastic) => "Draw the elastic back before the band is cut.",
        None => "Look how the band is made before it is opened: the look-over asks.",
    };
    let mut steps =
        vec!["Take off belt loop and label at the centre back; they go back on at the end.".to_owned()];
    steps.push(band.into());
    steps.push("Keep the excess inside: it lets out again. Finish by stitching in the ditch.".into());
    steps
}

fn notes(subject: &Subject<'_>, solved: &SolvedSeam, marks: &[MarkResult]) -> Vec<String> {
    let tape = subject.tape;
    let mut sides = marks.iter().flat_map(|m| [&m.left, &m.right]).flatten();
    let shown = |figure: &Figure| tape.round(Length::from_nm(figure.nm));
    let mut notes = Vec::new();
    if sides.any(|s| shown(&s.front) + shown(&s.back) != shown(&s.whole)) {
        notes.push("“Altogether” is rounded once from the exact line, so it can differ by one mark from twice the edge.".into());
    }
    notes.extend(inside_out(subject));
    // At an edge that the pins reach there is nothing to set.
    if solved.lower_is_assumed && solved.lower_station.is_some() {
        notes.push(format!("Assumed: the line {}. Nobody set its lower end.", solved.ends[0]));
    }
    if solved.upper_is_assumed {
        notes.push(format!("Assumed: the line {}. Nobody set its upper end.", solved.ends[1]));
    }
    notes
}
