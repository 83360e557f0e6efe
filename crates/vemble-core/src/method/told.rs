//! Methods in words and figures: the best side by side, and why the others fell.

use super::Table;
use super::candidate::{Candidate, Carrier, Split};
use super::trial::{Baseline, Fell, Trace, Trial, is_of_balance};
use super::wanted::Wanted;
use crate::change::{Change, ChangeKey};
use crate::figure::{StandChanges, stand_changes};
use crate::garment::{Garment, Round};
use crate::judge::{Finding, Outcome, Rule, Subject, girths, judge};
use crate::length::{Figure, Length};
use crate::place::Level;
use crate::plan::{Minutes, Thing};
use crate::told::{Check, Teller, capital, minutes_words, tell as tell_check, tell_levels, thing_words};
use serde::Serialize;
use utoipa::ToSchema;

/// So many that fell are named besides what stands alone (teaching value: enough to see why not, too few to read like a table).
const FALLEN: usize = 4;

/// What is wanted, and the ways to do it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Methods {
    /// Every level at which something is wanted, from the top down.
    pub wanted: Vec<WantedLine>,
    /// What is wanted where this garment has no such level, or nothing that changes it there.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub without: Vec<String>,
    /// The best ways, the best first; none where nothing is wanted, or nothing reaches it.
    pub best: Vec<Method>,
    /// Ways that fell, and why.
    pub fallen: Vec<Fallen>,
    /// Where nothing reaches what is wanted: how much something does.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub nearest: Option<Nearest>,
    /// How many ways were tried, in a sentence, and what they are ranked by.
    pub says: String,
}

/// What is wanted at a level.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct WantedLine {
    /// Which level.
    pub level: Level,
    /// What it is called, and whose girth it is: "thigh, each leg".
    pub name: String,
    /// By how much the girth is to change.
    pub by: Figure,
    /// In words: "5.0 cm smaller", "stays as it is".
    pub words: String,
}

/// One way to do what is wanted.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Method {
    /// Names it among all ways.
    pub key: String,
    /// What carries it, and how it is shared.
    pub title: String,
    /// What each level comes to, as it is chalked, from the top down.
    pub levels: Vec<MethodLevel>,
    /// What speaks against it, the gravest first.
    pub checks: Vec<Check>,
    /// How long it takes, try-ons and all; beside other changes of the try-on, what it adds to them.
    pub minutes: u32,
    /// The same in words.
    pub takes: String,
    /// What shows outside.
    pub shows: Vec<String>,
    /// What comes off or is opened first.
    pub opens: Vec<String>,
    /// Whether it can be undone.
    pub undone: String,
    /// What it does to pockets, print and balance.
    pub does: Vec<String>,
    /// Why it stands where it stands.
    pub because: String,
    /// The changes of the try-on as they would be: in place of everything that changes girths where something is wanted.
    pub changes: Vec<Change>,
    /// What moves on the stand.
    pub stand: StandChanges,
    /// Which change to look at first.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub first: Option<ChangeKey>,
}

/// What a level comes to.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct MethodLevel {
    /// Which level, and whose girth.
    pub name: String,
    /// By how much its girth changes, as it is chalked: "1.8 cm wider".
    pub words: String,
    /// How the girth after comes about.
    pub sum: String,
    /// Nobody asked for that: the line runs out there.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub is_unasked: bool,
    /// By how much that is not what is wanted, and why.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub beside: Option<String>,
}

/// Ways that fell for one reason.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Fallen {
    /// What would carry it, way by way.
    pub titles: Vec<String>,
    /// Why not, with the figures.
    pub why: String,
    /// What that means, where a check stops it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub reason: Option<String>,
}

/// As much of what is wanted as something reaches.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Nearest {
    /// What stands in the way of all of it, and how much goes.
    pub says: String,
    /// How that is done.
    pub method: Method,
}

pub(super) fn tell(
    table: &Table<'_>,
    wanted: &[Wanted],
    tried: &[(Candidate, Trial)],
    best: &[usize],
    nearest: Option<(Vec<Wanted>, Candidate, Trial)>,
    baseline: &Baseline,
    without: Vec<String>,
) -> Methods {
    let first = best.first().map(|n| &tried[*n].1);
    let methods: Vec<Method> = best
        .iter()
        .filter_map(|n| method(table, wanted, &tried[*n], because(&tried[*n].1, first), baseline))
        .collect();
    Methods {
        wanted: wanted.iter().map(|want| wanted_line(table, want)).collect(),
        without,
        best: methods,
        fallen: fallen(table, tried, best),
        nearest: nearest.and_then(|(less, candidate, trial)| {
            // What stops the same way from going on to all of it.
            let is_same = |c: &Candidate| c.carriers == candidate.carriers && c.split == candidate.split;
            let limit = tried.iter().find(|(c, _)| is_same(c)).and_then(|(c, t)| Some((c, t.fell.as_ref()?)));
            let limit = limit.map_or_else(String::new, |(candidate, fell)| {
                format!(" {}: {}.", capital(&title(table.garment, candidate)), why(table, fell))
            });
            let mut method =
                method(table, &less, &(candidate, trial), "The nearest that goes".into(), baseline)?;
            let asked = |name: &str| wanted.iter().find(|want| level_words(want.level, want.round) == name);
            let mut goes = Vec::new();
            for level in method.levels.iter_mut().filter(|level| !level.is_unasked) {
                goes.push(format!("{} {}", level.name, level.words));
                // What is missing is missing of what was asked for, not of the part that was tried.
                level.beside = asked(&level.name).map(|want| format!("wanted: {}", at_level(table, want)));
            }
            Some(Nearest {
                says: format!("Nothing reaches all of it.{limit} As near as it gets: {}.", goes.join(", ")),
                method,
            })
        }),
        says: match tried.len() {
            0 if wanted.iter().all(Wanted::is_nought) => "Nothing is wanted yet.".into(),
            0 => "No seam, dart or band of this garment can do that.".into(),
            n => format!(
                "{n} ways were tried. What stops falls; of the rest its own cloth comes before a panel, then fewer cautions, fewer minutes, less that shows outside."
            ),
        },
    }
}

/// What is wanted where the garment has no such level.
pub(super) fn not_there(garment: &Garment, level: Level) -> String {
    format!("{} has no {} yet: enter how wide it is there in the look-over.", garment.name, level.name())
}

/// What is wanted where nothing runs that could change it.
pub(super) fn not_reached(garment: &Garment, level: Level) -> String {
    format!(
        "Nothing of {} changes the girth at the {}: no seam or dart runs there.",
        garment.name,
        level.name()
    )
}

fn level_words(level: Level, round: Round) -> String {
    match round {
        Round::Whole => level.name().into(),
        Round::Leg => format!("{}, each leg", level.name()),
        Round::Sleeve => format!("{}, each sleeve", level.name()),
    }
}

fn wanted_line(table: &Table<'_>, want: &Wanted) -> WantedLine {
    let off = table.tape.round(want.off);
    WantedLine {
        level: want.level,
        name: level_words(want.level, want.round),
        by: table.tape.figure(-off),
        words: change_words(table, off),
    }
}

/// "5.0 cm smaller".
fn change_words(table: &Table<'_>, off: Length) -> String {
    match off {
        off if off == Length::ZERO => "stays as it is".into(),
        off if off.is_negative() => format!("{} wider", table.tape.show(-off)),
        off => format!("{} smaller", table.tape.show(off)),
    }
}

fn at_level(table: &Table<'_>, want: &Wanted) -> String {
    let off = table.tape.round(want.off);
    format!("{} {}", level_words(want.level, want.round), change_words(table, off))
}

/// "side seams and back waist darts, evenly".
fn title(garment: &Garment, candidate: &Candidate) -> String {
    let name = |carrier: &Carrier| {
        let name = carrier.key().name(garment);
        match carrier {
            Carrier::Panel(seam) if seam.is_single() => format!("a panel in the {name}"),
            Carrier::Panel(_) => format!("panels in the {name}s"),
            Carrier::Seam(seam) if seam.is_single() => name,
            Carrier::Elastic(_) => name,
            Carrier::Seam(_) | Carrier::Dart(_) => format!("{name}s"),
        }
    };
    let names: Vec<String> = candidate.carriers.iter().map(name).collect();
    let joined = match &names[..] {
        [one] => return one.clone(),
        [head @ .., last] => format!("{} and {last}", head.join(", ")),
        [] => String::new(),
    };
    let shared = match candidate.split {
        Split::Even if names.len() == 2 => "half each",
        Split::Even => "the same each",
        other @ (Split::EdgesAlike
        | Split::FirstMore
        | Split::SecondMore
        | Split::AsItHas
        | Split::DartsTheRest) => other.name(),
    };
    format!("{joined}, {shared}")
}

/// Names a candidate: its carriers and how they share.
fn key(candidate: &Candidate) -> String {
    let panel = |c: &Carrier| if matches!(c, Carrier::Panel(_)) { ".panel" } else { "" };
    let carriers: Vec<String> =
        candidate.carriers.iter().map(|c| format!("{}{}", c.key(), panel(c))).collect();
    format!("{}:{}", carriers.join("+"), candidate.split.word())
}

fn why(table: &Table<'_>, fell: &Fell) -> String {
    let tape = table.tape;
    match fell {
        Fell::Stopped(finding) => {
            let check = tell_check(finding, &Teller::of(table.garment, tape));
            format!("{}: {}", check.title, check.figures)
        }
        Fell::Misses { level, gets, wanted } => {
            let said = |off: Length| change_words(table, tape.round(off));
            format!("at the {} it comes to {}, not {}", level.name(), said(*gets), said(*wanted))
        }
        Fell::CannotBe(found) => found.clone(),
    }
}

/// Why one that does not fall stands behind the first.
fn because(trial: &Trial, first: Option<&Trial>) -> String {
    let cautions = |n: usize| match n {
        0 => "nothing speaks against it".to_owned(),
        1 => "one caution".into(),
        n => format!("{n} cautions"),
    };
    let Some(first) = first.filter(|first| first.order() != trial.order()) else {
        return format!(
            "{}, {}",
            capital(&cautions(trial.cautions)),
            minutes_words(Minutes::about(trial.minutes))
        );
    };
    match () {
        () if trial.takes_cloth() && !first.takes_cloth() => {
            "It needs cloth like this, where the first does with its own".into()
        }
        () if trial.cautions > first.cautions => {
            format!(
                "{}, where the first has {}",
                capital(&cautions(trial.cautions)),
                match first.cautions {
                    0 => "none".to_owned(),
                    n => n.to_string(),
                }
            )
        }
        () if trial.minutes > first.minutes => {
            format!("As good, but some {} min longer", trial.minutes - first.minutes)
        }
        () => "As good and as quick, but more of it shows outside".into(),
    }
}

/// What stands alone and fell, then the next few of the rest.
fn fallen(table: &Table<'_>, tried: &[(Candidate, Trial)], best: &[usize]) -> Vec<Fallen> {
    let shown = |n: &usize| best.iter().any(|b| tried[*b].0.carriers == tried[*n].0.carriers);
    let first = best.first().map(|n| &tried[*n].1);
    let mut others: Vec<usize> = (0..tried.len()).filter(|n| !shown(n)).collect();
    // Of each set of carriers the best way to share.
    let mut seen: Vec<&[Carrier]> = Vec::new();
    others.retain(|n| {
        let carriers = &tried[*n].0.carriers[..];
        let is_new = !seen.contains(&carriers);
        seen.push(carriers);
        is_new
    });
    let alone = |n: &usize| tried[*n].0.carriers.len() == 1;
    let rest: Vec<usize> = others.iter().copied().filter(|n| !alone(n)).take(FALLEN).collect();
    others.retain(|n| alone(n) || rest.contains(n));
    let mut lines: Vec<Fallen> = Vec::new();
    for n in others {
        let (candidate, trial) = &tried[n];
        let stop = match &trial.fell {
            Some(Fell::Stopped(finding)) => Some(tell_check(finding, &Teller::of(table.garment, table.tape))),
            Some(Fell::Misses { .. } | Fell::CannotBe(_)) | None => None,
        };
        let (reason, title) = (stop.map(|check| check.reason), capital(&title(table.garment, candidate)));
        let why = match &trial.fell {
            Some(fell) => capital(&why(table, fell)),
            None => because(trial, first),
        };
        // What falls for the same reason is told once.
        match lines.iter_mut().find(|line| line.why == why) {
            Some(line) => line.titles.push(title),
            None => lines.push(Fallen { titles: vec![title], why, reason }),
        }
    }
    lines
}

fn method(
    table: &Table<'_>,
    wanted: &[Wanted],
    (candidate, trial): &(Candidate, Trial),
    because: String,
    baseline: &Baseline,
) -> Option<Method> {
    let mut changes = table.kept_changes(wanted);
    changes.extend(candidate.changes.iter().cloned());
    let told = table.draws(&changes, |subject| told_of(table, subject, wanted, candidate, baseline)).ok()?;
    let (levels, checks, does, stand) = told;
    let opens = trial.things.iter().map(|thing: &Thing| thing_words(table.garment, *thing)).collect();
    let shows = trial.traces.iter().map(|trace: &Trace| capital(trace.name())).collect();
    Some(Method {
        key: key(candidate),
        title: capital(&title(table.garment, candidate)),
        levels,
        checks,
        minutes: trial.minutes,
        takes: minutes_words(Minutes::about(trial.minutes)),
        shows,
        opens,
        undone: match trial.is_for_good {
            true => "Cloth is cut off, which cannot be put back".into(),
            false => "All of it can be unpicked again".into(),
        },
        does,
        because,
        first: candidate.carriers.first().map(|carrier| carrier.key()),
        changes,
        stand,
    })
}

type Told = (Vec<MethodLevel>, Vec<Check>, Vec<String>, StandChanges);

fn told_of(
    table: &Table<'_>,
    subject: &Subject<'_>,
    wanted: &[Wanted],
    candidate: &Candidate,
    baseline: &Baseline,
) -> Told {
    let (garment, tape) = (table.garment, table.tape);
    let (girths, to) = (girths(subject), Teller::of(garment, tape));
    let findings = judge(subject, &girths);
    let is_elastic = |key: Option<ChangeKey>| matches!(key, Some(ChangeKey::Elastic(_)));
    let is_own = |f: &&Finding| candidate.carriers.iter().any(|c| f.key.change == Some(c.key()));
    let says = |f: &&Finding| {
        (f.outcome != Outcome::Passes && !baseline.knows(f)) || (is_elastic(f.key.change) && is_own(f))
    };
    let checks: Vec<Check> = findings.iter().filter(says).map(|finding| tell_check(finding, &to)).collect();
    let mut does: Vec<String> = findings
        .iter()
        .filter(|f| is_of_balance(f.key.rule) && f.outcome == Outcome::Passes && is_own(f))
        .map(|f| tell_check(f, &to))
        .filter(|check| check.key.rule == Rule::Hang || !check.figures.is_empty())
        .map(|check| format!("{}: {}", check.title, check.figures))
        .collect();
    if garment.found.one_way == Some(true) {
        let seams = candidate.carriers.iter().map(|carrier| carrier.key().name(garment));
        let seams: Vec<String> = seams.collect();
        does.push(format!("The print or nap no longer meets at the {}", seams.join(", ")));
    }
    let levels = tell_levels(garment, &girths, tape)
        .into_iter()
        .zip(&girths)
        .filter_map(|(told, girth)| {
            let want = wanted.iter().find(|want| want.level == girth.level.level);
            let off = candidate.off(girth);
            if off == Length::ZERO && want.is_none() {
                return None;
            }
            let is_held = matches!(candidate.carriers[..], [Carrier::Elastic(_)]);
            let held = girth.body.filter(|_| is_held && want.is_some()).map(|body| {
                format!(
                    "drawn in to the body’s {} while it is worn; the cloth stays as wide",
                    tape.show(body)
                )
            });
            let beside = want.filter(|want| want.sides.is_none() && !is_held).and_then(|want| {
                let by = off - tape.round(want.off);
                (by != Length::ZERO).then(|| {
                    let way = if by.is_negative() == want.off.is_negative() { "more" } else { "less" };
                    format!("{} {way} than wanted: every edge is chalked at a mark", tape.show(by.abs()))
                })
            });
            Some(MethodLevel {
                name: told.name,
                words: change_words(table, off),
                sum: told.sum,
                is_unasked: want.is_none(),
                beside: held.or(beside),
            })
        })
        .collect();
    let stand = stand_changes(garment, table.wearer, subject.changes, &girths);
    (levels, checks, does, stand)
}
