//! What does not match, in words and figures, and what mends it.

use super::change::apply;
use super::joins::{At, Join};
use super::lay::Set;
use super::notches::{from_below, further_up, sewn_from_below};
use super::piece::Piece;
use super::truing::{DIFFER, Untrue, is_middle};
use super::words::{end_words, wider_words};
use crate::garment::{Dart, Seam};
use crate::length::{Length, Measure, Tape};
use crate::work::{EdgeName, Fullness, PieceChange, PiecePart};
use serde::Serialize;
use utoipa::ToSchema;

/// Lengths are reckoned to so many mm and better.
const EXACTLY: f64 = 0.1;

/// What does not match.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct UntrueLine {
    /// What: "The side seam does not match".
    pub title: String,
    /// With both edges, and the difference.
    pub figures: String,
    /// The pieces it is about, by their place in the set.
    pub pieces: Vec<usize>,
    /// What would mend it.
    pub mends: Vec<PieceMend>,
}

/// A way to mend it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PieceMend {
    /// What is done.
    pub words: String,
    /// As it is entered.
    pub change: PieceChange,
}

/// Tells one of them.
pub(super) fn untrue_line(set: &Set, untrue: &Untrue, tape: Tape) -> UntrueLine {
    let join = |n: usize| &set.joins[n];
    let names = |n: usize| {
        join(n).sides.each_ref().map(|(edges, _)| {
            let names: Vec<String> = edges.iter().map(|at| set.pieces[at.piece].key.name()).collect();
            names.join(" and ")
        })
    };
    let about = |n: usize| {
        let mut all: Vec<usize> =
            join(n).sides.iter().flat_map(|(edges, _)| edges.iter().map(|at| at.piece)).collect();
        all.sort_unstable();
        all.dedup();
        all
    };
    let show = |mm: f64| tape.show(tape.round(Length::from_cm(mm.abs() / 10.0)));
    match untrue {
        Untrue::Lengths { join: n, off, .. } => {
            let [one, other] = names(*n);
            let [a, b] = at_marks(set, join(*n), tape);
            let by = off_at_marks(join(*n), [a, b], *off, tape);
            let (which, by) = (if *off > 0.0 { &other } else { &one }, by.abs());
            // On a tape whose marks are too coarse for it, one length and the difference.
            let figures = match by == off_shown(join(*n), [a, b], tape).abs() {
                true => format!(
                    "{} on the {one}, {} on the {other}: {} too long on the {which}{}",
                    tape.show(a),
                    tape.show(b),
                    tape.show(by),
                    beyond_ease(join(*n), *off > 0.0, tape)
                ),
                false => format!("{} on the {one}: {} too long on the {which}", tape.show(a), tape.show(by)),
            };
            UntrueLine {
                title: format!("The {} does not match", join(*n).name.name()),
                figures,
                pieces: about(*n),
                mends: mends(set, join(*n), *off > 0.0, by, tape),
            }
        }
        Untrue::Notches { join: n, numbers, apart } => UntrueLine {
            title: format!("A notch of the {} does not meet", join(*n).name.name()),
            figures: {
                let [one, other] = names(*n);
                let [a, b] = numbers.map(|number| number + 1);
                format!(
                    "notch {a} of the {one} and notch {b} of the {other} lie {} apart, measured from the same end",
                    show(*apart)
                )
            },
            pieces: about(*n),
            mends: notch_mends(set, join(*n), *numbers, *apart, tape),
        },
        Untrue::Corner { join: n, pieces, meet, together } => UntrueLine {
            title: format!("The {} comes to a point at the {}", meet[0].name(), join(*n).name.name()),
            figures: {
                let [one, other] = pieces.map(|piece| set.pieces[piece].key.name());
                format!("{one} and {other} make {together:.0}° together, not 180°")
            },
            pieces: pieces.to_vec(),
            mends: corner_mend(set, pieces[0], meet[0], join(*n).name, "Draw it smooth across the seam"),
        },
        Untrue::Square { at, meets, degrees } => {
            let beside = set.pieces[at.piece].edges[at.edge].name;
            let to = if is_middle(beside) { "middle" } else { beside.name() };
            UntrueLine {
                title: format!("The {} is not square to the {to}", meets.name()),
                figures: format!("{degrees:.0}° on the {}, not 90°", set.pieces[at.piece].key.name()),
                pieces: vec![at.piece],
                mends: corner_mend(set, at.piece, *meets, beside, &format!("Draw it square to the {to}")),
            }
        }
        Untrue::Legs { piece, dart, apart } => UntrueLine {
            title: format!("The legs of the {} differ", dart.name()),
            figures: format!("by {} on the {}", show(*apart), set.pieces[*piece].key.name()),
            pieces: vec![*piece],
            mends: vec![true_dart(set, *piece, *dart, "Move its point across, so that they are equal")],
        },
        Untrue::Mouth { piece, dart, on, turns } => UntrueLine {
            title: format!("The {} comes to a point over the {}", on.name(), dart.name()),
            figures: {
                let which = if *turns > 0.0 { "rises" } else { "dips" };
                let piece = set.pieces[*piece].key.name();
                format!("it {which} by {:.0}° on the {piece} when the dart is closed", turns.abs())
            },
            pieces: vec![*piece],
            mends: vec![true_dart(set, *piece, *dart, "Draw the edge smooth over the closed dart")],
        },
    }
}

/// An edge drawn anew at a corner, where that can be.
fn corner_mend(set: &Set, piece: usize, edge: EdgeName, beside: EdgeName, words: &str) -> Vec<PieceMend> {
    let change = PieceChange::TrueCorner { piece: set.pieces[piece].key, edge, beside };
    let can_be = apply(&mut set.pieces.clone(), &change).is_ok();
    can_be.then(|| PieceMend { words: words.into(), change }).into_iter().collect()
}

/// One notch moved to where the other is, on either piece.
fn notch_mends(set: &Set, join: &Join, numbers: [usize; 2], apart: f64, tape: Tape) -> Vec<PieceMend> {
    let Some(pair) = join.pair() else { return Vec::new() };
    let mend = |(at, number, up): (At, usize, f64)| {
        let piece = &set.pieces[at.piece];
        let edge = &piece.edges[at.edge];
        let own = from_below(piece, at.edge)[number];
        let by = further_up(piece, at.edge, own, up);
        let by = Measure { length: tape.round(Length::from_cm(by / 10.0)), unit: tape.unit() };
        let end = end_words(edge.name, !by.length.is_negative());
        let words =
            format!("Move it {} towards the {end} on the {}", tape.show(by.length.abs()), piece.key.name());
        let notch = u8::try_from(number + 1).ok()?;
        let change = PieceChange::Notch { piece: piece.key, edge: edge.name, notch, by };
        // At an end of its edge it may not come so far.
        let mut moved = vec![piece.clone()];
        let is_done = !edge.second && apply(&mut moved, &change).is_ok();
        let at_last = |piece: &Piece| {
            let along = piece.edges[at.edge].notches[own].along;
            sewn_from_below(piece, at.edge, along)
        };
        let is_met = is_done && (at_last(&moved[0]) - at_last(piece) - up).abs() < DIFFER;
        is_met.then_some(PieceMend { words, change })
    };
    [(pair[0], numbers[0], apart), (pair[1], numbers[1], -apart)].into_iter().filter_map(mend).collect()
}

fn true_dart(set: &Set, piece: usize, dart: Dart, words: &str) -> PieceMend {
    let piece = set.pieces[piece].key;
    PieceMend { words: words.into(), change: PieceChange::TrueDart { piece, dart } }
}

/// What the second edge may be, or has to be, longer by.
fn beyond_ease(join: &Join, is_second: bool, tape: Tape) -> String {
    let [least, most] = join.ease.map(|ease| ease.on(tape));
    match is_second {
        true if most != Length::ZERO => format!(", beyond the {} that may be eased in", tape.show(most)),
        false if least != Length::ZERO => format!(", as the other is to be {} longer", tape.show(least)),
        _ => String::new(),
    }
}

/// How long both sides of a join are as they are shown: what is altogether is the sum of its edges.
pub(super) fn at_marks(set: &Set, join: &Join, tape: Tape) -> [Length; 2] {
    join.sides.each_ref().map(|(edges, times)| {
        let sewn = |at: &At| {
            let piece = &set.pieces[at.piece];
            tape.round(Length::from_cm(piece.sewn(&piece.edges[at.edge]) / 10.0))
        };
        edges.iter().map(sewn).sum::<Length>() * i64::from(*times)
    })
}

/// How much too long the second of two shown lengths is; less than nought where the first is.
fn off_shown(join: &Join, [one, other]: [Length; 2], tape: Tape) -> Length {
    let [least, most] = join.ease.map(|ease| ease.on(tape));
    let longer = other - one;
    if longer > most {
        longer - most
    } else if longer < least {
        longer - least
    } else {
        Length::ZERO
    }
}

/// How far two edges are off, at a mark: as their shown lengths have it, or where that would not mend it, as it is.
fn off_at_marks(join: &Join, lengths: [Length; 2], off: f64, tape: Tape) -> Length {
    at_a_mark(off_shown(join, lengths, tape), off, tape)
}

/// A difference as shown lengths have it, or where less than what edges may differ by would not be left then, as it is: in mm.
fn at_a_mark(shown: Length, off: f64, tape: Tape) -> Length {
    let mends = (shown.cm() * 10.0 - off).abs() < DIFFER - EXACTLY && shown != Length::ZERO;
    let least = if off > 0.0 { tape.mark() } else { -tape.mark() };
    let exact = tape.round(Length::from_cm(off / 10.0));
    if mends {
        shown
    } else if exact == Length::ZERO {
        least
    } else {
        exact
    }
}

/// Trim the longer edge, or go on with the shorter one: at either end.
fn mends(set: &Set, join: &Join, is_second: bool, by: Length, tape: Tape) -> Vec<PieceMend> {
    // What faces an armhole is no sleeve.
    let is_cap = join.name == EdgeName::Seam(Seam::ArmholeSeam) && !join.is_faced;
    let Some(pair) = join.pair().filter(|_| !is_cap) else {
        return mends_of_several(set, join, is_second, by, tape);
    };
    let [shorter, longer] = if is_second { pair } else { [pair[1], pair[0]] };
    let mut all = Vec::new();
    // The second edge of a piece that is sewn to itself has no name of its own: the first one is mended.
    let is_named = |(at, _): &(At, Length)| !set.pieces[at.piece].edges[at.edge].second;
    for (at, by) in [(longer, -by), (shorter, by)].into_iter().filter(is_named) {
        for upper in [false, true] {
            let piece = &set.pieces[at.piece];
            let (key, edge) = (piece.key, piece.edges[at.edge].name);
            let end = end_words(edge, upper);
            let does = if by.is_negative() { "Trim" } else { "Add" };
            let words = format!("{does} {} at the {end} of the {}", tape.show(by.abs()), key.name());
            let by = Measure { length: by, unit: tape.unit() };
            all.push(PieceMend { words, change: PieceChange::End { piece: key, edge, upper, by } });
        }
    }
    let eased = [(longer, by), (shorter, -by)].into_iter().filter(is_named);
    all.extend(eased.filter_map(|(at, more)| ease_mend(set, at, more, tape)));
    all.retain(|mend| mends_it(set, join, &mend.change));
    all
}

/// Whether a change can be done, and leaves both sides equally long.
fn mends_it(set: &Set, join: &Join, change: &PieceChange) -> bool {
    let mut pieces = set.pieces.clone();
    apply(&mut pieces, change).is_ok() && join.off(&pieces).abs() <= DIFFER
}

/// Where several edges lie on one side: each of the longer ones eased in, a band made as long, a sleeve as wide as its cap has to be.
fn mends_of_several(set: &Set, join: &Join, is_second: bool, by: Length, tape: Tape) -> Vec<PieceMend> {
    let part = |at: &At| set.pieces[at.piece].key.part;
    let is_cap = join.name == EdgeName::Seam(Seam::ArmholeSeam);
    let [shorter, longer] = [!is_second, is_second].map(|second| &join.sides[usize::from(second)]);
    let mut all = Vec::new();
    for at in join.sides.iter().flat_map(|(edges, _)| edges) {
        let widen = match part(at) {
            PiecePart::Waistband if longer.0.contains(at) => Some(-by),
            PiecePart::Waistband => Some(by),
            PiecePart::Sleeve if is_cap => wider_cap(set, join, at.piece, tape),
            PiecePart::Body | PiecePart::Bodice | PiecePart::Skirt | PiecePart::Leg | PiecePart::Sleeve => {
                None
            }
        };
        let piece = set.pieces[at.piece].key;
        all.extend(widen.map(|by| PieceMend {
            words: format!("Make the {} {} {}", piece.name(), tape.show(by.abs()), wider_words(piece, by)),
            change: PieceChange::Width { piece, by: Measure { length: by, unit: tape.unit() } },
        }));
    }
    // A cap is eased in by all that it is longer; an armhole is not.
    let [one, other] = at_marks(set, join, tape);
    let [armhole, cap] = join.lengths(&set.pieces);
    let more = |times: u8| match is_cap {
        true => at_a_mark(other - one, cap - armhole, tape),
        false => by.fraction(1, i64::from(times)),
    };
    let is_named = |at: &&At| !set.pieces[at.piece].edges[at.edge].second;
    let may_be = |at: &&At| !is_cap || part(at) == PiecePart::Sleeve;
    for (edges, more) in [(&longer.0, more(longer.1)), (&shorter.0, -by.fraction(1, i64::from(shorter.1)))] {
        let eased = edges.iter().filter(is_named).filter(may_be);
        all.extend(eased.filter_map(|at| ease_mend(set, *at, more, tape)));
    }
    // Of a cap that is eased in by a figure, no other ease is reckoned with.
    all.retain(|mend| is_cap || mends_it(set, join, &mend.change));
    all
}

/// By how much a sleeve is to be wider so that its cap goes into its armhole: to the middle of the ease that is usual. Nothing where no width does it.
fn wider_cap(set: &Set, join: &Join, sleeve: usize, tape: Tape) -> Option<Length> {
    let piece = set.pieces[sleeve].key;
    let wider = |by: Length| {
        let by = Measure { length: by, unit: tape.unit() };
        let mut pieces = set.pieces.clone();
        apply(&mut pieces, &PieceChange::Width { piece, by }).ok()?;
        let [armhole, cap] = join.lengths(&pieces);
        Some(cap - armhole)
    };
    let [least, most] = join.ease.map(|ease| ease.on(tape).cm() * 10.0);
    let wanted = f64::midpoint(least, most);
    let (mut by, mut had) = (0.0, wider(Length::ZERO)?);
    // A cap grows by less than its sleeve, and evenly: a few steps are enough.
    let mut next = wanted - had;
    for _ in 0..4 {
        let has = wider(Length::from_cm(next / 10.0))?;
        if (has - had).abs() < 1e-6 {
            break;
        }
        (by, next, had) = (next, next + (wanted - has) * (next - by) / (has - had), has);
    }
    let by = tape.round(Length::from_cm(next / 10.0));
    let fits = wider(by)?;
    (least - DIFFER..=most + DIFFER).contains(&fits).then_some(by).filter(|by| *by != Length::ZERO)
}

/// What is too long eased in, or gathered where that is more than a hand eases in; of what is too short, less of it. Nothing where it cannot be either.
fn ease_mend(set: &Set, at: At, more: Length, tape: Tape) -> Option<PieceMend> {
    let piece = &set.pieces[at.piece];
    let edge = &piece.edges[at.edge];
    let said = edge.eased.map_or(Length::ZERO, |eased| tape.round(Length::from_cm(eased.by_mm / 10.0)));
    let by = Some(said + more).filter(|by| !by.is_negative())?;
    let by = Measure { length: by, unit: tape.unit() };
    let change = |into: Fullness| PieceChange::Eased { piece: piece.key, edge: edge.name, by, into };
    let mut ways =
        [("Ease in", "Ease nothing in", Fullness::Ease), ("Gather", "Gather nothing", Fullness::Gathers)];
    // What is gathered already stays so.
    ways.sort_by_key(|(.., into)| edge.eased.is_some_and(|eased| eased.into != *into));
    let can_be = |(.., into): &(_, _, Fullness)| apply(&mut vec![piece.clone()], &change(*into)).is_ok();
    let (does, does_not, into) = ways.into_iter().find(can_be)?;
    // Where some is eased in already, what is said is all of it.
    let all = if said == Length::ZERO { "" } else { " in all" };
    let what = match by.length == Length::ZERO {
        true => does_not.into(),
        false => format!("{does} {} {}{all}", tape.as_typed(by), tape.unit_name()),
    };
    Some(PieceMend { words: format!("{what} on the {}", piece.key.name()), change: change(into) })
}
