//! One amount in whole marks over several seams: what each takes of it is chalked so that all together it is what was pinned.
//!
//! Every edge of the pinned seam is handed out by largest remainder; both sides, and both edges of a seam, have the same where the amount is
//! the same there.

use super::line::AlteredSeam;
use crate::change::Curve;
use crate::fitting::Edges;
use crate::garment::{Garment, Seam};
use crate::length::{Length, PerEdge, Tape};
use std::sync::Arc;

/// The curves of both edges on both sides of a seam.
type Lines = [[Curve; 2]; 2];

/// What is handed out, by the stations of the seam that it was pinned on.
#[derive(Debug, PartialEq)]
struct HandedOut {
    kept: Lines,
    parts: Vec<Part>,
}

/// What another seam takes.
#[derive(Debug, PartialEq)]
struct Part {
    lines: Lines,
    of: PartOf,
}

/// How another seam lies to the one that was pinned.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum PartOf {
    /// Both are a pair, or both are down the middle: edge by edge.
    Like,
    /// A pair, of a seam down the middle: of either edge what both its edges take.
    Pair,
    /// A seam down the middle, of a pair: of all four edges.
    Middle,
}

/// Where a line stands among those that an amount is handed out over.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Handed {
    all: Arc<HandedOut>,
    /// Nought keeps the rest, others are counted from one.
    member: usize,
    side: usize,
    /// From its own stations to those of the seam that was pinned.
    up: Length,
}

/// Notes on every line that gives shares away, and on those that take them, what is handed out over all of them.
pub(super) fn hand_out(garment: &Garment, seams: &mut [AlteredSeam<'_>]) {
    for n in 0..seams.len() {
        let (from, spread) = (seams[n].facts.seam, seams[n].change.spread.clone());
        let places: Vec<usize> = spread
            .iter()
            .filter_map(|share| seams.iter().position(|seam| seam.facts.seam == share.seam))
            .collect();
        if places.is_empty() {
            continue;
        }
        let up = |seam: Seam| garment.height_of_datum(seam) - garment.height_of_datum(from);
        let lines = |seam: &AlteredSeam<'_>| {
            let by = up(seam.facts.seam).cm();
            seam.lines.each_ref().map(|line| [line.front.along(by), line.back.along(by)])
        };
        let part = |&at: &usize| Part {
            lines: lines(&seams[at]),
            of: match (from.is_single(), seams[at].facts.seam.is_single()) {
                (true, false) => PartOf::Pair,
                (false, true) => PartOf::Middle,
                (true, true) | (false, false) => PartOf::Like,
            },
        };
        let all = Arc::new(HandedOut { kept: lines(&seams[n]), parts: places.iter().map(part).collect() });
        for (member, at) in std::iter::once(n).chain(places).enumerate() {
            let alike = seams[at].lines[0] == seams[at].lines[1];
            let up = up(seams[at].facts.seam);
            for (side, line) in seams[at].lines.iter_mut().enumerate() {
                // Both sides that are the same stay the same.
                let side = if alike { 0 } else { side };
                line.handed = Some(Handed { all: Arc::clone(&all), member, side, up });
            }
        }
    }
}

impl Handed {
    /// What is chalked of it on both edges at a station.
    pub fn chalked(&self, at: Length, tape: Tape) -> Edges {
        let marks = self.all.marks((at + self.up).cm(), tape);
        let of = |side: usize, edge: usize| marks[side][edge][self.member];
        let [front, back] = match self.member.checked_sub(1).map(|n| self.all.parts[n].of) {
            None | Some(PartOf::Like) => [of(self.side, 0), of(self.side, 1)],
            Some(PartOf::Pair) => [of(0, 0) / 2; 2],
            Some(PartOf::Middle) => [(of(0, 0) + of(0, 1) + of(1, 0) + of(1, 1)) / 2; 2],
        };
        Edges { front: PerEdge(tape.mark() * front), back: PerEdge(tape.mark() * back) }
    }
}

impl HandedOut {
    /// What is handed out of each edge of the pinned seam, side by side, in marks: what it keeps, and what each other seam takes.
    fn marks(&self, at: f64, tape: Tape) -> [[Vec<i64>; 2]; 2] {
        let kept = self.kept.each_ref().map(|edges| edges.each_ref().map(|edge| edge.at(at)));
        let all: f64 = kept.iter().flatten().map(|kept| kept.abs()).sum();
        let mut marks = [0, 1].map(|side| {
            [0, 1].map(|edge| {
                let taken = self.parts.iter().map(|part| match part.of {
                    PartOf::Like => (part.lines[side][edge].at(at), 1),
                    PartOf::Pair => (part.lines[0][0].at(at) + part.lines[0][1].at(at), 2),
                    PartOf::Middle => {
                        let own = if all > 0.0 { kept[side][edge].abs() / all } else { 0.25 };
                        (2.0 * part.lines[0][0].at(at) * own, 1)
                    }
                });
                let parts: Vec<(f64, i64)> = std::iter::once((kept[side][edge], 1)).chain(taken).collect();
                by_largest_remainder(&parts, tape)
            })
        });
        // An odd mark of what a seam down the middle takes would make its edges differ: it stays where it was pinned.
        for n in 1..=self.parts.len() {
            let taken: i64 = marks.iter().flatten().map(|of| of[n]).sum();
            let is_odd = self.parts[n - 1].of == PartOf::Middle && taken % 2 != 0;
            if let Some(most) = marks.iter_mut().flatten().max_by_key(|of| of[n].abs()).filter(|_| is_odd) {
                most[0] += taken.signum();
                most[n] -= taken.signum();
            }
        }
        marks
    }
}

/// Hands the sum of some parts out in marks: each has the whole ones it has, and those that are left go to the greatest remainders. A part
/// is given so many marks at a time as stand beside it.
fn by_largest_remainder(parts: &[(f64, i64)], tape: Tape) -> Vec<i64> {
    let in_marks = |cm: f64| cm / tape.mark().cm();
    let whole: f64 = parts.iter().map(|part| part.0).sum();
    let sign = if whole < 0.0 { -1 } else { 1 };
    let exact: Vec<(f64, i64)> =
        parts.iter().map(|&(cm, step)| ((in_marks(cm) * sign as f64).max(0.0) / step as f64, step)).collect();
    let mut given: Vec<i64> = exact.iter().map(|(steps, _)| (steps + NEARLY).floor() as i64).collect();
    let used: i64 = given.iter().zip(&exact).map(|(given, (_, step))| given * step).sum();
    let whole = tape.round(Length::from_cm(whole)).abs();
    let mut left = in_marks(whole.cm()).round() as i64 - used;
    let mut in_turn: Vec<usize> = (0..parts.len()).filter(|n| exact[*n].0 > 0.0).collect();
    let remainder = |n: usize, given: i64| exact[n].0 - given as f64;
    in_turn.sort_by(|a, b| remainder(*b, given[*b]).total_cmp(&remainder(*a, given[*a])));
    for n in in_turn.into_iter().cycle().take(2 * parts.len()) {
        if exact[n].1 <= left {
            given[n] += 1;
            left -= exact[n].1;
        }
    }
    given.iter().zip(&exact).map(|(given, (_, step))| given * step * sign).collect()
}

/// So near a whole mark it is one: what binary fractions leave over.
const NEARLY: f64 = 1e-9;
