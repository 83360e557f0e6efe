//! From a document to everything that follows from it. One call serves the screen, the card, the file and the
//! command line.

use crate::card::{Card, card};
use crate::check::{Check, LevelResult, Outcome, Subject, checks, levels, suggestion};
use crate::document::Document;
use crate::fault::Fault;
use crate::figure::{Hanging, StandChanges, Strip, hanging, stand_changes, strip};
use crate::fitting::{Edges, GarmentSide, How, WearerSide, Worn};
use crate::garment::{Garment, Seam};
use crate::length::{Figure, Length, Tape};
use crate::line::{AlteredSeam, End, Mark, Place, Suggestion, Taken, alter, marks};
use serde::Serialize;
use utoipa::ToSchema;

/// Everything derived from one document, in figures of one tape.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Solved {
    /// The tape the figures are shown on.
    pub tape: Tape,
    /// Its finest mark, in nanometres: what one nudge moves.
    pub mark_nm: i64,
    /// Its unit: `cm` or `in`.
    pub unit: String,
    /// What to do next with this garment, in a few words.
    pub next_step: String,
    /// Levels as they are, before any change.
    pub levels: Vec<LevelResult>,
    /// Each try-on, in the document's order.
    pub try_ons: Vec<SolvedTryOn>,
}

/// Everything derived from one try-on.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedTryOn {
    /// Its seams, in the document's order.
    pub seams: Vec<SolvedSeam>,
    /// Girths and ease, from the top down.
    pub levels: Vec<LevelResult>,
    /// Checks, the gravest first.
    pub checks: Vec<Check>,
    /// The chalk cards, one for each altered seam.
    pub cards: Vec<Card>,
    /// What moves on the stand.
    pub stand: StandChanges,
}

/// One altered seam.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedSeam {
    /// Which seam.
    pub seam: Seam,
    /// What it is called on this garment.
    pub name: String,
    /// Where its stations are measured from: hem, crotch, sleeve hem.
    pub datum: String,
    /// Where it ends, away from its datum: waist, crotch.
    pub top: String,
    /// Its length.
    pub length: Figure,
    /// The allowance on each edge.
    pub allowance: Figure,
    /// How the sides were made to agree.
    pub sides: SidesResult,
    /// Where the line ends, in words, the hem end first.
    pub ends: [String; 2],
    /// The lower end was not given and is assumed.
    pub lower_is_assumed: bool,
    /// The upper end was not given and is assumed.
    pub upper_is_assumed: bool,
    /// Where the lower end meets the old stitching or goes straight, when it does.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lower_station: Option<Figure>,
    /// Where the upper end meets the old stitching or goes straight, when it does.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub upper_station: Option<Figure>,
    /// How far a smooth line may pass beside a pin.
    pub tolerance: Figure,
    /// How far the seam moves around the body at its deepest, and which way; nothing when it stays.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub moves: Option<String>,
    /// The pins as read, in the document's order.
    pub pins: Vec<PinResult>,
    /// Marks, from the hem up.
    pub marks: Vec<MarkResult>,
    /// Both sides have the same line.
    pub sides_agree: bool,
    /// Front and back edge move by the same amount everywhere.
    pub edges_equal: bool,
    /// The drawing.
    pub strip: Strip,
}

/// How two sides were made to agree.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SidesResult {
    /// What was done, in words.
    pub words: String,
    /// The largest difference per edge between the sides.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub apart: Option<Figure>,
    /// Somebody has to decide; this is suggested.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub suggestion: Option<Suggestion>,
}

/// A pin as it was read, against the line.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PinResult {
    /// The garment's side it was pinned on.
    pub side: GarmentSide,
    /// Whose side that was on the wearer.
    pub wearer_side: WearerSide,
    /// Where on the seam.
    pub station: Figure,
    /// What the tape said.
    pub amount: Figure,
    /// The offset at which the pin is drawn, off the edge it was measured on.
    pub drawn: Figure,
    /// What the amount changes by when the drawn offset changes by one: 1, 2 or −2, by how it was measured.
    pub amount_per_drawn: i8,
    /// Off the front edge.
    pub front: Figure,
    /// Off the back edge.
    pub back: Figure,
    /// Off altogether.
    pub whole: Figure,
    /// How far the line passes beside it, per edge; positive where it takes more.
    pub beside: Figure,
    /// It stands further from the line than the tolerance.
    pub stands_off: bool,
}

/// A row of marks.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MarkResult {
    /// Where on the seam, from the hem.
    pub station: Figure,
    /// What is there: pin, knee, hem; empty where the mark only guides the chalk.
    pub note: String,
    /// On the garment's left; nothing beyond the line.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub left: Option<MarkSide>,
    /// On the garment's right.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub right: Option<MarkSide>,
}

/// What is chalked on one side.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MarkSide {
    /// From the old stitching, on the front edge.
    pub front: Figure,
    /// From the old stitching, on the back edge.
    pub back: Figure,
    /// Both edges together.
    pub whole: Figure,
    /// The cut line from the old stitching on each edge, only if it is trimmed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cut: Option<[Figure; 2]>,
}

/// Derives everything from `document`, with figures on `tape`.
///
/// # Errors
/// Every fault found, each with its JSON path; never a result beside a fault.
pub fn solve(document: &Document, tape: Tape) -> Result<Solved, Vec<Fault>> {
    let faults = document.faults();
    if !faults.is_empty() {
        return Err(faults);
    }
    let garment = &*document.garment.with_levels_in_order();
    let mut faults = Vec::new();
    let mut try_ons = Vec::new();
    for (t, try_on) in document.try_ons.iter().enumerate() {
        let mut seams = Vec::new();
        for (a, alteration) in try_on.alterations.iter().enumerate() {
            match alter(garment, alteration, tape) {
                Ok(seam) => seams.push(seam),
                Err(wrong) => faults.extend(wrong.into_iter().map(|(field, wrong)| Fault {
                    path: format!("try_ons[{t}].alterations[{a}].{field}"),
                    wrong,
                })),
            }
        }
        if faults.is_empty() {
            try_ons.push(solve_try_on(garment, &seams, try_on.worn, tape));
        }
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let as_it_is = Subject { garment, seams: &[], worn: Worn::RightSideOut, tape };
    let levels_now = levels(&as_it_is);
    Ok(Solved {
        tape,
        mark_nm: tape.mark().nm(),
        unit: tape.unit_name().into(),
        next_step: NextStep::after(
            garment,
            try_ons.last().map(|t| (&t.checks[..], t.cards.first().map(|c| &c.seam_name[..]))),
        )
        .words(),
        levels: levels_now,
        try_ons,
    })
}

/// What to do next with a garment; what presses most comes first.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum NextStep {
    /// A check stands in the way: its title.
    Settle(String),
    /// Everything is clear: this seam.
    Chalk(String),
    /// A try-on was begun.
    EnterPins,
    /// It was measured.
    TryOn,
    /// Nobody looked at it yet.
    LookOver,
}

impl NextStep {
    fn after(garment: &Garment, newest: Option<(&[Check], Option<&str>)>) -> Self {
        let Some((checks, altered)) = newest else {
            let nobody_looked = garment.levels.iter().all(|l| l.assumed);
            return if nobody_looked { Self::LookOver } else { Self::TryOn };
        };
        let stop = checks.iter().find(|c| c.outcome == Outcome::Stop);
        match (stop, altered) {
            (Some(check), _) => Self::Settle(check.title.clone()),
            (None, Some(seam)) => Self::Chalk(seam.into()),
            (None, None) => Self::EnterPins,
        }
    }

    /// In a few words.
    pub fn words(&self) -> String {
        match self {
            Self::Settle(title) => format!("Settle first: {title}"),
            Self::Chalk(seam) => format!("Chalk the {seam}"),
            Self::EnterPins => "Enter the pins".into(),
            Self::TryOn => "Try it on and pin it".into(),
            Self::LookOver => "Look it over".into(),
        }
    }
}

/// As much of a garment as its place on the rail shows.
#[derive(Clone, Debug, PartialEq)]
pub struct Glance {
    /// What to do next.
    pub next_step: NextStep,
    /// How many cautions its newest try-on has.
    pub cautions: usize,
    /// How many stops its newest try-on has.
    pub stops: usize,
    /// The garment with the changes of its newest try-on.
    pub hanging: Option<Hanging>,
}

/// What the rail shows of a document: its newest try-on only, and nothing that nobody sees from there.
pub fn glance(document: &Document) -> Glance {
    let (garment, tape) = (&*document.garment.with_levels_in_order(), Tape::default());
    let newest = document.try_ons.last();
    let alterations = newest.map_or(&[][..], |t| &t.alterations);
    // A try-on is checked before it is stored; should one not solve any more, the garment still hangs here as it is.
    let seams: Vec<AlteredSeam<'_>> =
        alterations.iter().filter_map(|a| alter(garment, a, tape).ok()).collect();
    let subject = Subject { garment, seams: &seams, worn: newest.map(|t| t.worn).unwrap_or_default(), tape };
    let checks = if seams.is_empty() { Vec::new() } else { checks(&subject, &levels(&subject)) };
    let altered = seams.iter().find(|s| s.span().is_some()).map(|s| s.facts.name());
    let count = |outcome| checks.iter().filter(|c| c.outcome == outcome).count();
    Glance {
        next_step: NextStep::after(garment, newest.map(|_| (&checks[..], altered))),
        cautions: count(Outcome::Caution),
        stops: count(Outcome::Stop),
        hanging: hanging(garment, &seams),
    }
}

fn solve_try_on(garment: &Garment, seams: &[AlteredSeam<'_>], worn: Worn, tape: Tape) -> SolvedTryOn {
    let subject = Subject { garment, seams, worn, tape };
    let levels = levels(&subject);
    let checks = checks(&subject, &levels);
    let solved: Vec<SolvedSeam> = seams.iter().map(|s| solve_seam(&subject, s)).collect();
    let altered = seams.iter().zip(&solved).filter(|(s, _)| s.span().is_some());
    let cards = altered.map(|(seam, solved)| card(&subject, seam, solved, &levels, &checks)).collect();
    let stand = stand_changes(garment, seams, &levels);
    SolvedTryOn { seams: solved, levels, checks, cards, stand }
}

fn solve_seam(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> SolvedSeam {
    let tape = subject.tape;
    let station = |end| match end {
        End::MeetsOldStitching { station } | End::StraightThrough { from: station } => {
            Some(tape.figure(station.length))
        }
        End::RunsOff {} => None,
    };
    SolvedSeam {
        seam: seam.facts.seam,
        name: seam.facts.name().into(),
        datum: seam.facts.seam.datum().into(),
        top: subject.garment.top_of(seam.facts.seam).into(),
        length: tape.figure(seam.facts.length.length),
        allowance: tape.figure(seam.facts.least_allowance().length),
        sides: sides(subject, seam),
        ends: [
            end_words(seam.ends.lower, seam.facts.seam.datum(), tape),
            end_words(seam.ends.upper, subject.garment.top_of(seam.facts.seam), tape),
        ],
        lower_is_assumed: seam.ends.lower_is_assumed,
        upper_is_assumed: seam.ends.upper_is_assumed,
        lower_station: station(seam.ends.lower),
        upper_station: station(seam.ends.upper),
        tolerance: tape.figure(seam.tolerance),
        moves: moves(seam, tape),
        pins: pins(subject, seam),
        marks: marks(subject.garment, seam, tape).iter().map(|m| mark(seam, m, tape)).collect(),
        sides_agree: seam.sides_agree(),
        edges_equal: seam.lines.iter().all(crate::line::StitchingLine::has_equal_edges),
        strip: strip(subject.garment, seam, subject.worn, tape),
    }
}

fn sides(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> SidesResult {
    use crate::line::SidePolicy as P;
    let words = match seam.sides.taken {
        Taken::Nothing => "no pins yet".into(),
        Taken::Copied(side) => {
            let other = GarmentSide::BOTH[1 - side as usize];
            format!("{} pinned, {} copied from it", side.name(), other.name())
        }
        Taken::By(_) if seam.sides.undecided => "left and right disagree; each kept until you decide".into(),
        Taken::By(policy) => match policy {
            P::Mean => "the mean of left and right on both",
            P::Larger => "the larger of left and right on both",
            P::Smaller => "the smaller of left and right on both",
            P::Left => "the left on both",
            P::Right => "the right on both",
            P::KeepEach => "each side as it was pinned",
        }
        .into(),
    };
    SidesResult {
        words,
        apart: seam.sides.apart.map(|(by, _)| subject.tape.figure(by)),
        suggestion: seam.sides.undecided.then(|| suggestion(subject.garment)),
    }
}

fn end_words(end: End, edge: &str, tape: Tape) -> String {
    match end {
        End::MeetsOldStitching { station } => {
            format!("meets the old stitching at {}", tape.show(station.length))
        }
        End::RunsOff {} => format!("runs off at the {edge}"),
        End::StraightThrough { from } => {
            format!("straight through from {} to the {edge}", tape.show(from.length))
        }
    }
}

fn moves(seam: &AlteredSeam<'_>, tape: Tape) -> Option<String> {
    let share = seam.alteration.front_share?;
    let pins = seam.lines.iter().flat_map(|l| &l.pins);
    let most = pins.map(|p| share.moves(p.edges.whole())).max_by_key(|m| m.abs())?;
    let to = if most.is_negative() { "front" } else { "back" };
    (most != Length::ZERO).then(|| format!("the seam moves up to {} to the {to}", tape.show(most.abs())))
}

fn pins(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> Vec<PinResult> {
    let tape = subject.tape;
    let share = seam.alteration.front_share.unwrap_or_default();
    let results = seam.alteration.readings.iter().map(|reading| {
        let wanted = reading.edges(share);
        let line = seam.line(reading.side).at(reading.at());
        let (front, back) = (line.front.0 - wanted.front.0, line.back.0 - wanted.back.0);
        let beside = if front.abs() >= back.abs() { front } else { back };
        PinResult {
            side: reading.side,
            wearer_side: subject.worn.on_wearer(reading.side),
            station: tape.figure(reading.station.length),
            amount: tape.figure(reading.amount.length),
            drawn: tape.figure(if reading.how == How::BackPanel { wanted.back.0 } else { wanted.front.0 }),
            amount_per_drawn: reading.how.amount_per_edge(),
            front: tape.figure(wanted.front.0),
            back: tape.figure(wanted.back.0),
            whole: tape.figure(wanted.whole().0),
            beside: tape.figure(beside),
            // A hundredth of a millimetre is rounding.
            stands_off: beside.abs() > seam.tolerance + Length::from_nm(10_000),
        }
    });
    results.collect()
}

fn mark(seam: &AlteredSeam<'_>, mark: &Mark, tape: Tape) -> MarkResult {
    let side = |side: GarmentSide| {
        let line = seam.line(side);
        let (from, to) = line.span()?;
        let reach = tape.mark();
        if mark.station.0 < from.0 - reach || mark.station.0 > to.0 + reach {
            return None;
        }
        let Edges { front, back } = line.at(mark.station);
        // Equal edges show the same figure; unequal ones are adjusted so that they add up.
        let shown = match front == back {
            true => vec![front.0, back.0],
            false => tape.apportion(&[front.0, back.0]).0,
        };
        let cut = seam.alteration.trim_to.map(|w| [front, back].map(|edge| tape.figure(edge.0 - w.length)));
        Some(MarkSide {
            front: tape.figure(shown[0]),
            back: tape.figure(shown[1]),
            whole: tape.figure((front + back).0),
            cut,
        })
    };
    let notes: Vec<&str> = mark.places.iter().filter_map(place_words).collect();
    MarkResult {
        station: tape.figure(mark.station.0),
        note: notes.join(", "),
        left: side(GarmentSide::Left),
        right: side(GarmentSide::Right),
    }
}

fn place_words(place: &Place) -> Option<&'static str> {
    Some(match place {
        Place::Edge => "edge",
        Place::MeetsOldStitching => "meets the old line",
        Place::StraightFromHere => "straight from here",
        Place::Pin => "pin",
        Place::Level(name) => name,
        Place::Between => return None,
    })
}
