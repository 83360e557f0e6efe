//! Girth and ease at each level: what the garment measures after the changes, and what that leaves the body.

use super::{Check, Outcome, Rule, Subject};
use crate::body::EaseBand;
use crate::fitting::{Edges, GarmentSide};
use crate::garment::{GarmentLevel, Level, Round};
use crate::length::{Figure, Length, PerEdge, Station, Tape, adjusted_words};
use serde::Serialize;
use utoipa::ToSchema;

/// Ease against what is usual at a level, in a word.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EaseWord {
    /// Below the least that one can move in.
    TooTight,
    /// Between least and usual.
    Close,
    /// What such garments have.
    Usual,
    /// Between usual and loose.
    Roomy,
    /// A loose garment here.
    Loose,
}

impl EaseWord {
    fn of(ease: Length, band: &EaseBand) -> Self {
        match ease {
            e if e < band.least => Self::TooTight,
            e if e < band.usual_from => Self::Close,
            e if e <= band.usual_to => Self::Usual,
            e if e < band.loose => Self::Roomy,
            _ => Self::Loose,
        }
    }
}

/// The ease that is comfortable at a level.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Comfort {
    /// Least ease.
    pub least: Figure,
    /// Usual ease, from.
    pub usual_from: Figure,
    /// Usual ease, to.
    pub usual_to: Figure,
    /// Loose from here on.
    pub loose: Figure,
    /// The garment now, in a word.
    pub now: EaseWord,
    /// The garment after the changes, in a word.
    pub after: EaseWord,
}

/// A level before and after the changes.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct LevelResult {
    /// Which level.
    pub level: Level,
    /// Whose girth: the whole garment, each leg, or the leg of one side.
    pub of: LevelOf,
    /// How far up from the hem.
    pub station: Figure,
    /// Nobody measured it.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub assumed: bool,
    /// Girth now.
    pub before: Figure,
    /// What comes off altogether.
    pub off: Figure,
    /// Girth after the changes.
    pub after: Figure,
    /// How the girth after comes about.
    pub sum: String,
    /// The body's girth at this level.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub body: Option<Figure>,
    /// Ease now.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub ease_before: Option<Figure>,
    /// Ease after.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub ease_after: Option<Figure>,
    /// The ease wanted, where there is a teaching value and a body measurement.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub comfort: Option<Comfort>,
}

/// Whose girth a level is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LevelOf {
    /// Round the whole garment.
    Garment,
    /// Either leg: both are the same.
    EachLeg,
    /// The leg on the garment's left.
    LeftLeg,
    /// The leg on the garment's right.
    RightLeg,
    /// Either sleeve: both are the same.
    EachSleeve,
    /// The sleeve on the garment's left.
    LeftSleeve,
    /// The sleeve on the garment's right.
    RightSleeve,
}

impl LevelOf {
    /// Both legs or both sleeves, which are the same.
    pub const fn is_of_both(self) -> bool {
        matches!(self, Self::Garment | Self::EachLeg | Self::EachSleeve)
    }

    pub(crate) fn sides(self) -> &'static [GarmentSide] {
        match self {
            Self::Garment => &GarmentSide::BOTH,
            Self::EachLeg | Self::LeftLeg | Self::EachSleeve | Self::LeftSleeve => &[GarmentSide::Left],
            Self::RightLeg | Self::RightSleeve => &[GarmentSide::Right],
        }
    }

    /// Whose girth it is, in words: "each leg".
    pub const fn words(self) -> &'static str {
        match self {
            Self::Garment => "all round",
            Self::EachLeg => "each leg",
            Self::LeftLeg => "left leg",
            Self::RightLeg => "right leg",
            Self::EachSleeve => "each sleeve",
            Self::LeftSleeve => "left sleeve",
            Self::RightSleeve => "right sleeve",
        }
    }
}

impl LevelResult {
    /// True where the changes reach this level.
    pub fn is_changed(&self) -> bool {
        self.off.nm.abs() >= UNSEEN.nm()
    }

    /// Its name with whose girth it is, in a sentence.
    pub fn name(&self) -> String {
        match self.of {
            LevelOf::Garment => self.level.name().into(),
            one => format!("{}, {}", self.level.name(), one.words()),
        }
    }
}

/// All measured levels from the top down, before and after; legs and sleeves one by one where the changes make them differ.
pub(crate) fn levels(subject: &Subject<'_>) -> Vec<LevelResult> {
    let symmetric = subject.seams.iter().all(super::AlteredSeam::sides_agree);
    // A shoulder is as wide as it is; nothing goes round it.
    let around = subject.garment.levels.iter().filter(|l| l.level != Level::Shoulder);
    let mut levels: Vec<&GarmentLevel> = around.collect();
    levels.sort_by_key(|l| l.level);
    let mut results = Vec::with_capacity(2 * levels.len());
    for level in levels {
        let (both, each) = match subject.garment.round(level.level) {
            Round::Whole => (LevelOf::Garment, None),
            Round::Leg => (LevelOf::EachLeg, Some([LevelOf::LeftLeg, LevelOf::RightLeg])),
            Round::Sleeve => (LevelOf::EachSleeve, Some([LevelOf::LeftSleeve, LevelOf::RightSleeve])),
        };
        let one_by_one = each.filter(|_| !symmetric).map(|each| each.map(|of| result(subject, level, of)));
        match one_by_one {
            Some([left, right]) if (left.off, &left.sum) != (right.off, &right.sum) => {
                results.extend([left, right]);
            }
            Some([left, _]) => results.push(LevelResult { of: both, ..left }),
            None => results.push(result(subject, level, both)),
        }
    }
    results
}

fn result(subject: &Subject<'_>, level: &GarmentLevel, of: LevelOf) -> LevelResult {
    let tape = subject.tape;
    let before = level.width.girth();
    let terms = terms(subject, level.level, of);
    let off: Length = terms.iter().map(Term::off).sum();
    let after = before - off;
    let body = subject.garment.body_at(level.level).and_then(|b| subject.garment.wearer.get(b));
    let comfort = body.and_then(|body| {
        let band = subject.garment.ease_wanted(level.level, body)?;
        Some(Comfort {
            least: tape.figure(band.least),
            usual_from: tape.figure(band.usual_from),
            usual_to: tape.figure(band.usual_to),
            loose: tape.figure(band.loose),
            now: EaseWord::of(before - body, &band),
            after: EaseWord::of(after - body, &band),
        })
    });
    LevelResult {
        level: level.level,
        of,
        station: tape.figure(level.station.length),
        assumed: level.assumed,
        before: tape.figure(before),
        off: tape.figure(off),
        after: tape.figure(after),
        sum: sum(tape, level, &terms),
        body: body.map(|b| tape.figure(b)),
        ease_before: body.map(|b| tape.figure(before - b)),
        ease_after: body.map(|b| tape.figure(after - b)),
        comfort,
    }
}

/// Less than half a millimetre altogether is below any tape's mark: a level is not changed by it.
const UNSEEN: Length = Length::from_nm(500_000);

/// What one seam takes off a level.
struct Term {
    seam: String,
    /// How many such seams there are: both sides of a pair count together where they take the same.
    seams: i64,
    edges: Edges,
    /// What its edges are called.
    names: [&'static str; 2],
    /// What takes on each: edges, or the sides of a fold.
    of: &'static str,
}

impl Term {
    fn off(&self) -> Length {
        self.edges.whole().0 * self.seams
    }

    /// `outseam: 2 edges × 4.5`, `2 side seams × 2 edges × 1.6`, `outseam: front 3.0, back 1.0`: how it comes to
    /// what is shown of it.
    fn words(&self, shown: Length, tape: Tape) -> String {
        let (Edges { front, back }, [one, other]) = (self.edges, self.names);
        if front == back {
            let each = tape.factor(front.0.abs(), 2 * self.seams, shown);
            return match self.seams {
                1 => format!("{}: 2 {} × {each}", self.seam, self.of),
                n => format!("{n} {}s × 2 {} × {each}", self.seam, self.of),
            };
        }
        let signed = if self.off().is_negative() { -shown } else { shown };
        let [front, back] = tape.factors([front.0, back.0], self.seams, signed);
        match self.seams {
            1 => format!("{}: {one} {front}, {other} {back}", self.seam),
            n => format!("{n} {}s × ({one} {front}, {other} {back})", self.seam),
        }
    }
}

/// One term for each altered seam that crosses the level, or one for each side where they differ.
fn terms(subject: &Subject<'_>, level: Level, of: LevelOf) -> Vec<Term> {
    let mut terms = Vec::new();
    for altered in subject.seams {
        let facts = altered.facts;
        let Some(station) = subject.garment.station_on(facts.seam, level).map(Station) else { continue };
        let sides = if facts.seam.is_single() { &GarmentSide::BOTH[..1] } else { of.sides() };
        let at: Vec<Edges> = sides.iter().map(|side| altered.line(*side).at(station)).collect();
        let all_the_same = at.windows(2).all(|w| w[0] == w[1]);
        let (name, names) = (|| facts.name().to_owned(), facts.seam.edges());
        if all_the_same && let Some(&edges) = at.first() {
            terms.push(Term { seam: name(), seams: at.len() as i64, edges, names, of: "edges" });
        } else {
            let side = |(edges, side): (Edges, &GarmentSide)| Term {
                seam: format!("{} {}", side.name(), facts.name()),
                seams: 1,
                edges,
                names,
                of: "edges",
            };
            terms.extend(at.into_iter().zip(sides).map(side));
        }
    }
    terms.extend(dart_terms(subject, level));
    terms.retain(|term| term.off() != Length::ZERO);
    terms
}

/// One term for each pair of darts that reaches the level, or one for each side where they differ: each takes twice its fold depth.
fn dart_terms(subject: &Subject<'_>, level: Level) -> Vec<Term> {
    let height = subject.garment.level(level).filter(|_| subject.garment.round(level) == Round::Whole);
    let Some(height) = height.map(|l| l.station.length) else { return Vec::new() };
    let of_dart = |dart: &crate::alteration::AlteredDart<'_>| {
        let station = dart.station_at(height)?;
        let [left, right] = GarmentSide::BOTH.map(|side| {
            let depth = PerEdge(dart.added(side, station));
            Edges { front: depth, back: depth }
        });
        let (of, names) = ("sides of the fold", ["one", "other"]);
        Some(match left == right {
            true => vec![Term { seam: dart.name(), seams: 2, edges: left, names, of }],
            false => vec![
                Term { seam: format!("left {}", dart.name()), seams: 1, edges: left, names, of },
                Term { seam: format!("right {}", dart.name()), seams: 1, edges: right, names, of },
            ],
        })
    };
    subject.darts.iter().filter_map(of_dart).flatten().collect()
}

/// `2 × 24.0 laid flat = 48.0; 48.0 − 9.0 (outseam: 2 edges × 4.5) = 39.0 cm`, with parts that add up as shown; what shows
/// as nothing is left out.
fn sum(tape: Tape, level: &GarmentLevel, terms: &[Term]) -> String {
    let before = level.width.girth();
    let mut flat = match level.width {
        crate::garment::Width::LaidFlat(m) => {
            format!("2 × {} laid flat = {}", tape.bare(m.length), tape.show(before))
        }
        crate::garment::Width::Girth(_) if level.assumed => format!("{} assumed", tape.show(before)),
        crate::garment::Width::Girth(_) => format!("{} as measured round", tape.show(before)),
    };
    if terms.is_empty() {
        return flat;
    }
    let mut exact = vec![before];
    exact.extend(terms.iter().map(|term| -term.off()));
    let (shown, adjusted) = tape.apportion(&exact);
    if shown[1..].iter().all(|part| *part == Length::ZERO) {
        return flat;
    }
    flat.push_str("; ");
    flat.push_str(&tape.bare(shown[0]));
    for (term, part) in terms.iter().zip(&shown[1..]).filter(|(_, part)| **part != Length::ZERO) {
        let sign = if part.is_negative() { "−" } else { "+" };
        flat += &format!(" {sign} {} ({})", tape.bare(part.abs()), term.words(part.abs(), tape));
    }
    flat += &format!(" = {}", tape.show(shown.iter().copied().sum()));
    flat + adjusted_words(adjusted)
}

/// A stop where a change brings ease below least, a caution where it was below already.
pub(super) fn checks(subject: &Subject<'_>, levels: &[LevelResult]) -> impl Iterator<Item = Check> {
    let tape = subject.tape;
    levels.iter().filter(|l| l.is_changed()).filter_map(move |l| {
        let (comfort, body) = (l.comfort.as_ref()?, l.body.as_ref()?);
        let after = l.ease_after.as_ref()?;
        let (outcome, reason) = match (comfort.after, comfort.now) {
            (EaseWord::TooTight, EaseWord::TooTight) if l.off.nm <= 0 => {
                (Outcome::Caution, format!("Still less than the least ease of {}.", comfort.least.text()))
            }
            (EaseWord::TooTight, _) => (
                Outcome::Stop,
                format!("Less than the least ease of {}: it would bind.", comfort.least.text()),
            ),
            _ => (
                Outcome::Passes,
                format!(
                    "Usual here is {} to {} of ease.",
                    comfort.usual_from.bare(),
                    comfort.usual_to.text()
                ),
            ),
        };
        let figures = format!(
            "{} − {} ({} body) = {} ease altogether",
            l.after.bare(),
            body.bare(),
            l.level.name(),
            after.text()
        );
        let short = Length::from_nm(comfort.least.nm - after.nm);
        let mut check = Check::new(outcome, Rule::Ease, format!("Ease at the {}", l.name()), figures, reason);
        check.level = Some(l.level);
        Some(check.remedy(|| {
            let short = tape.show(short.up_to(tape.mark()));
            match l.off.nm > 0 {
                true => format!("Take {short} less altogether at this level."),
                false => format!("Let out {short} more altogether at this level."),
            }
        }))
    })
}
