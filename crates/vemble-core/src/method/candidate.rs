//! Candidates: what could carry what is wanted, and how several share it, in whole marks.

use super::share::{Part, in_marks};
use super::wanted::Wanted;
use crate::body::Wearer;
use crate::change::dart::DartChange;
use crate::change::elastic::{ElasticAt, ElasticChange};
use crate::change::seam::{SeamChange, gives_at};
use crate::change::{Change, ChangeKey, DrawnChange, On, Term, draw};
use crate::choice::choice;
use crate::fitting::{Fairing, GarmentSide, How, Reading};
use crate::garment::{Dart, Garment, Round, Run, Seam};
use crate::judge::Girth;
use crate::length::{Length, Measure, Tape, Taught};
use crate::place::Level;

/// So many carriers share an amount at most, besides all seams together (teaching value: more are never marked and basted evenly).
const MOST_TOGETHER: usize = 3;
/// How exact the length of a casing is proposed (teaching value: it is cut between two loops, wherever they are).
const CASING_STEP: Taught = Taught::new(10, 32);

/// Something that could carry an amount.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Carrier {
    Seam(Seam),
    Dart(Dart),
    Elastic(ElasticAt),
    /// A panel set into a seam.
    Panel(Seam),
}

impl Carrier {
    pub const fn key(self) -> ChangeKey {
        match self {
            Self::Seam(seam) | Self::Panel(seam) => ChangeKey::Seam(seam),
            Self::Dart(dart) => ChangeKey::Dart(dart),
            Self::Elastic(at) => ChangeKey::Elastic(at),
        }
    }

    /// It is there once, in the middle: what both sides want goes through its two edges.
    const fn is_single(self) -> bool {
        matches!(self, Self::Seam(seam) | Self::Panel(seam) if seam.is_single())
    }

    /// It can take something at a level.
    pub fn reaches(self, garment: &Garment, level: Level) -> bool {
        match self {
            Self::Seam(seam) | Self::Panel(seam) => garment.station_on(seam, level).is_some(),
            Self::Dart(_) | Self::Elastic(_) => level == Level::Waist,
        }
    }
}

choice! {
    /// How carriers share what is wanted at a level.
    Split {
        Even => "evenly",
        EdgesAlike => "every edge the same",
        FirstMore => "two thirds and a third",
        SecondMore => "a third and two thirds",
        AsItHas => "each as much as is inside it",
        DartsTheRest => "the darts taking what the waist wants beyond the rest",
    }
}

/// One way to carry what is wanted.
#[derive(Clone, Debug)]
pub(super) struct Candidate {
    /// What carries it, in the order of the garment.
    pub carriers: Vec<Carrier>,
    /// How they share it.
    pub split: Split,
    /// The changes that do it.
    pub changes: Vec<Change>,
}

impl Candidate {
    /// What it takes off a level by itself, beside whatever else is changed there.
    pub fn off(&self, girth: &Girth) -> Length {
        self.own(girth).map(Term::off).sum()
    }

    /// Its own terms of a level.
    pub fn own<'g>(&self, girth: &'g Girth) -> impl Iterator<Item = &'g Term> {
        girth.terms.iter().filter(|term| self.carriers.iter().any(|carrier| carrier.key() == term.change))
    }
}

/// What goes with a level: of each carrier how much of the whole.
type Shares = Vec<(usize, f64)>;

/// Something on the garment changes the girth at a level.
pub(super) fn is_reached(garment: &Garment, level: Level) -> bool {
    let long = |seam: Seam| matches!(seam.run(), Run::Down | Run::DownSleeve);
    let seams = garment.seams.iter().filter(|s| long(s.seam)).map(|s| Carrier::Seam(s.seam));
    let darts = Dart::ALL.iter().filter(|dart| is_of_girth(garment, **dart)).map(|dart| Carrier::Dart(*dart));
    seams.chain(darts).any(|carrier| carrier.reaches(garment, level))
}

/// Every candidate there is for what is wanted, in the order of the garment's seams and darts.
pub(super) fn candidates(garment: &Garment, wanted: &[Wanted], tape: Tape) -> Vec<Candidate> {
    let asked: Vec<&Wanted> = wanted.iter().filter(|w| !w.is_nought()).collect();
    let one_of = |carrier: &Carrier| asked.iter().any(|w| carrier.reaches(garment, w.level));
    let long = |s: &&crate::garment::SeamFacts| matches!(s.seam.run(), Run::Down | Run::DownSleeve);
    let seams = garment.seams.iter().filter(long).map(|s| Carrier::Seam(s.seam));
    // There is nothing to let out of a dart that is not there.
    let lets_out = asked.iter().any(|w| w.level == Level::Waist && w.off.is_negative());
    let has = |dart: Dart| garment.darts.iter().any(|facts| facts.dart == dart);
    let can = |dart: &&Dart| is_of_girth(garment, **dart) && (has(**dart) || !lets_out);
    let darts = Dart::ALL.iter().filter(can).map(|dart| Carrier::Dart(*dart));
    let seams: Vec<Carrier> = seams.filter(one_of).collect();
    let all: Vec<Carrier> = seams.iter().copied().chain(darts.filter(one_of)).collect();
    let mut sets: Vec<Vec<Carrier>> = Vec::new();
    for many in 1..=MOST_TOGETHER.min(all.len()) {
        choose(&all, many, &mut Vec::new(), &mut sets);
    }
    if seams.len() > MOST_TOGETHER {
        sets.push(seams.clone());
    }
    let mut found: Vec<Candidate> = Vec::new();
    for carriers in sets {
        for split in Split::ALL {
            if let Some(candidate) = build(garment, wanted, &carriers, *split, tape) {
                // The same figures another way are the same candidate.
                if found.iter().all(|other| other.changes != candidate.changes) {
                    found.push(candidate);
                }
            }
        }
    }
    // A panel carries all of it by itself, where all of it is let out.
    if asked
        .iter()
        .all(|w| w.off.is_negative() && w.sides.is_none_or(|of| of.iter().all(|off| *off <= Length::ZERO)))
    {
        let panels = seams.iter().map(|carrier| match *carrier {
            Carrier::Seam(seam) | Carrier::Panel(seam) => Carrier::Panel(seam),
            other @ (Carrier::Dart(_) | Carrier::Elastic(_)) => other,
        });
        found.extend(panels.filter_map(|panel| build(garment, wanted, &[panel], Split::Even, tape)));
    }
    found.extend(elastic(garment, &asked, tape));
    found
}

/// A dart that shapes a waist, which the garment has or could have. A second pair comes only beside a first.
pub(super) fn is_of_girth(garment: &Garment, dart: Dart) -> bool {
    let has = |dart: Dart| garment.darts.iter().any(|facts| facts.dart == dart);
    match dart {
        Dart::Bust | Dart::Shoulder => false,
        Dart::OuterFrontWaist => has(dart) || has(Dart::FrontWaist),
        Dart::OuterBackWaist => has(dart) || has(Dart::BackWaist),
        Dart::FrontWaist | Dart::BackWaist | Dart::FrontFishEye | Dart::BackFishEye => {
            ChangeKey::Dart(dart).fits(garment)
        }
    }
}

fn choose(all: &[Carrier], many: usize, so_far: &mut Vec<Carrier>, sets: &mut Vec<Vec<Carrier>>) {
    if many == 0 {
        sets.push(so_far.clone());
        return;
    }
    for (n, carrier) in all.iter().enumerate() {
        so_far.push(*carrier);
        choose(&all[n + 1..], many - 1, so_far, sets);
        so_far.pop();
    }
}

/// What each carrier takes at a level, as parts of one; nothing where a split means nothing for these carriers, or none of them is there.
fn shares(
    garment: &Garment,
    wanted: &[Wanted],
    at: &Wanted,
    carriers: &[Carrier],
    split: Split,
    tape: Tape,
) -> Option<Shares> {
    let there: Vec<usize> = (0..carriers.len()).filter(|n| carriers[*n].reaches(garment, at.level)).collect();
    let count = there.len() as f64;
    let is_pair = carriers.len() == 2;
    let even = || there.iter().map(|n| (*n, 1.0 / count)).collect::<Shares>();
    let of_two = |first: f64| match there[..] {
        [a, b] => vec![(a, first), (b, 1.0 - first)],
        _ => even(),
    };
    Some(match split {
        _ if there.is_empty() => return at.is_nought().then(Vec::new),
        Split::Even => even(),
        Split::EdgesAlike => {
            let edges = |n: &usize| if carriers[*n].is_single() { 1.0 } else { 2.0 };
            let all: f64 = there.iter().map(edges).sum();
            there.iter().map(|n| (*n, edges(n) / all)).collect()
        }
        Split::FirstMore if is_pair => of_two(2.0 / 3.0),
        Split::SecondMore if is_pair => of_two(1.0 / 3.0),
        Split::FirstMore | Split::SecondMore => return None,
        // What is taken in anywhere is inside nothing yet.
        Split::AsItHas if !at.off.is_negative() => return at.is_nought().then(even),
        Split::AsItHas => {
            let gives = gives_at(garment, at.level, tape);
            let has = |n: &usize| {
                let of = gives.iter().find(|term| term.change == carriers[*n].key());
                of.map_or(0.0, |term| term.off().cm())
            };
            let all: f64 = there.iter().map(has).sum();
            if all <= 0.0 {
                return None;
            }
            there.iter().map(|n| (*n, has(n) / all)).collect()
        }
        Split::DartsTheRest => {
            let is_dart = |n: &usize| matches!(carriers[*n], Carrier::Dart(_));
            let (darts, seams): (Vec<usize>, Vec<usize>) = there.iter().copied().partition(is_dart);
            if !carriers.iter().any(|c| matches!(c, Carrier::Dart(_))) {
                return None;
            }
            if darts.is_empty() || seams.is_empty() {
                return Some(even());
            }
            // What the seams take elsewhere, no more than is wanted here.
            let same_way = |w: &&Wanted| w.level != at.level && w.round == at.round;
            let elsewhere = wanted.iter().filter(same_way).map(|w| w.off.cm() / at.off.cm());
            let of_seams = elsewhere.filter(|part| *part > 0.0).fold(0.0, f64::max).min(1.0);
            if !of_seams.is_finite() || of_seams <= 0.0 || of_seams >= 1.0 {
                return None;
            }
            let each_seam = seams.iter().map(|n| (*n, of_seams / seams.len() as f64));
            each_seam.chain(darts.iter().map(|n| (*n, (1.0 - of_seams) / darts.len() as f64))).collect()
        }
    })
}

/// Of a carrier at a level: marks off each edge on the garment's left and right.
type Marks = (Wanted, [i64; 2]);

fn build(
    garment: &Garment,
    wanted: &[Wanted],
    carriers: &[Carrier],
    split: Split,
    tape: Tape,
) -> Option<Candidate> {
    let mut marks: Vec<Vec<Marks>> = vec![Vec::new(); carriers.len()];
    for at in wanted {
        let shares = shares(garment, wanted, at, carriers, split, tape)?;
        for (n, of) in marks_at(at, carriers, &shares, tape) {
            marks[n].push((*at, of));
        }
    }
    let takes_part = |marks: &Vec<Marks>| marks.iter().any(|(_, of)| *of != [0, 0]);
    if !marks.iter().all(takes_part) {
        return None;
    }
    let change = |(carrier, marks): (&Carrier, &Vec<Marks>)| match *carrier {
        Carrier::Seam(seam) => seam_change(garment, seam, marks, tape),
        Carrier::Dart(dart) => dart_change(garment, dart, marks, tape),
        Carrier::Panel(seam) => set_in(seam_change(garment, seam, marks, tape)?),
        Carrier::Elastic(_) => None,
    };
    let changes: Option<Vec<Change>> = carriers.iter().zip(&marks).map(change).collect();
    Some(Candidate { carriers: carriers.to_vec(), split, changes: changes? })
}

/// Hands out what is wanted at a level: both edges of a seam the same, both sides the same where both want the same.
fn marks_at(at: &Wanted, carriers: &[Carrier], shares: &Shares, tape: Tape) -> Vec<(usize, [i64; 2])> {
    let mark = tape.mark().cm();
    let side = |side: GarmentSide| at.of_side(side);
    let whole = |cm: f64| (cm / mark).round() as i64;
    if at.sides.is_none() {
        // A limb stands for both; of a whole girth both sides of a pair count.
        let of_pair = if at.round == Round::Whole { 4 } else { 2 };
        let part = |(n, share): &(usize, f64)| match carriers[*n].is_single() {
            true => Part { each: share * side(GarmentSide::Left) / mark, edges: 2 },
            false => Part { each: share * side(GarmentSide::Left) / 2.0 / mark, edges: of_pair },
        };
        let marks = in_marks(&shares.iter().map(part).collect::<Vec<_>>(), whole(at.off.cm()));
        return shares.iter().zip(marks).map(|((n, _), marks)| (*n, [marks; 2])).collect();
    }
    let mut found: Vec<(usize, [i64; 2])> = shares.iter().map(|(n, _)| (*n, [0, 0])).collect();
    // A seam down the middle takes its share of both evenly; what is left is each side's own.
    let both = side(GarmentSide::Left) + side(GarmentSide::Right);
    let mut of_single = 0.0;
    for (place, (n, share)) in shares.iter().enumerate() {
        if carriers[*n].is_single() {
            let each = (share * both / 2.0 / mark).round();
            found[place].1 = [each as i64; 2];
            of_single += each * mark;
        }
    }
    for (s, of) in GarmentSide::BOTH.into_iter().enumerate() {
        let pairs: Vec<usize> = (0..shares.len()).filter(|p| !carriers[shares[*p].0].is_single()).collect();
        let part = |place: &usize| Part { each: shares[*place].1 * side(of) / 2.0 / mark, edges: 2 };
        let parts: Vec<Part> = pairs.iter().map(part).collect();
        for (place, marks) in pairs.iter().zip(in_marks(&parts, whole(side(of) - of_single))) {
            found[*place].1[s] = marks;
        }
    }
    found
}

/// So many marks off each edge, as one reads it: folded, or the gap of an opened seam.
fn reading(side: GarmentSide, station: Length, marks: i64, tape: Tape) -> Reading {
    let measure = |length: Length| Measure { length, unit: tape.unit() };
    let (how, amount) = match marks.is_negative() {
        true => (How::Gap, tape.mark() * (2 * -marks)),
        false => (How::Fold, tape.mark() * marks),
    };
    Reading { id: None, side, station: measure(station), amount: measure(amount), how }
}

/// Readings at stations, on both sides where there are sides.
fn readings(at: impl Iterator<Item = (Length, [i64; 2])>, is_single: bool, tape: Tape) -> Vec<Reading> {
    let sides: &[GarmentSide] = if is_single { &[GarmentSide::Left] } else { &GarmentSide::BOTH };
    at.flat_map(|(station, marks)| {
        sides.iter().map(move |side| reading(*side, station, marks[*side as usize], tape))
    })
    .collect()
}

/// A line through what is wanted at its levels, exactly: nobody's hand wobbled.
fn seam_change(garment: &Garment, seam: Seam, marks: &[Marks], tape: Tape) -> Option<Change> {
    let length = garment.seam(seam)?.end();
    let mut at: Vec<(Length, [i64; 2])> = Vec::new();
    for (wanted, marks) in marks {
        let station = garment.station_on(seam, wanted.level)?.clamp(Length::ZERO, length);
        if at.iter().all(|(other, _)| *other != station) {
            at.push((station, *marks));
        }
    }
    at.sort_by_key(|(station, _)| *station);
    // Both sides of one that is pinned each its own way are meant.
    let sides = at.iter().any(|(_, of)| of[0] != of[1]).then_some(crate::fitting::SidePolicy::KeepEach);
    let readings = readings(at.into_iter(), seam.is_single(), tape);
    Some(SeamChange { readings, sides, fairing: Fairing::EveryPin, ..SeamChange::of(seam) }.into())
}

/// The same with a panel set in, instead of what is inside.
fn set_in(change: Change) -> Option<Change> {
    match change {
        Change::Seam(seam) => Some(SeamChange { set_in: true, ..seam }.into()),
        Change::Dart(_) | Change::Elastic(_) | Change::Armhole(_) | Change::Hem(_) => None,
        Change::Spacing(_) | Change::Trunk(_) | Change::Gathers(_) => None,
    }
}

/// A dart that is deepened or let out at the waist, where it lies or would lie.
fn dart_change(garment: &Garment, dart: Dart, marks: &[Marks], tape: Tape) -> Option<Change> {
    let waist = garment.level(Level::Waist)?.station.length;
    let bare = [Change::Dart(DartChange::of(dart))];
    let nobody = Wearer::default();
    let drawn = draw(On { garment, wearer: &nobody, hem_marks: &[], keeps_all: false }, &bare).ok()?;
    let DrawnChange::Dart(there) = drawn.first()? else { return None };
    let station = there.station_at(waist)?.0;
    let sides = marks.iter().any(|(_, of)| of[0] != of[1]).then_some(crate::fitting::SidePolicy::KeepEach);
    let readings = readings(marks.iter().map(|(_, of)| (station, *of)), false, tape);
    Some(DartChange { readings, sides, ..DartChange::of(dart) }.into())
}

/// Elastic along the back half of the waist, where that is all that is wanted, and less.
fn elastic(garment: &Garment, asked: &[&Wanted], tape: Tape) -> Option<Candidate> {
    let [only] = asked else { return None };
    let at = ElasticAt::Waistband;
    let can_be = only.level == Level::Waist
        && only.sides.is_none()
        && !only.off.is_negative()
        && ChangeKey::Elastic(at).fits(garment);
    let half = garment.level(Level::Waist)?.width.girth().fraction(1, 2).nearest(CASING_STEP.on(tape));
    let casing = Some(Measure { length: half, unit: tape.unit() });
    let change = ElasticChange { at, casing, hold_percent: None };
    can_be.then(|| Candidate {
        carriers: vec![Carrier::Elastic(at)],
        split: Split::Even,
        changes: vec![change.into()],
    })
}
