//! Truing: whether what is sewn together still matches, and what mends it.

use super::joined::lies_in_middle;
use super::joins::{At, Join};
use super::mouth::turns_at;
use super::notches::{from_below, sewn_from_below};
use super::panels::rank;
use super::piece::Piece;
use crate::garment::{Dart, Run, Seam};
use crate::work::EdgeName;
use kurbo::Vec2;

/// Edges may differ by so much, in mm (teaching value: a hand eases that in without seeing it): 3 mm, or 1/8 in, and what is shown as that.
pub const DIFFER: f64 = 3.2;
/// Lines run smooth where they meet at a straight angle, or a square one, to so many degrees (teaching value).
pub(super) const DEGREES: f64 = 3.0;

/// What does not match.
#[derive(Clone, Debug, PartialEq)]
pub enum Untrue {
    /// Edges that are sewn together are not equally long.
    Lengths {
        /// Which of the joins.
        join: usize,
        /// How long both are, in mm.
        lengths: [f64; 2],
        /// By how much the second is longer than it may be.
        off: f64,
    },
    /// Notches do not meet.
    Notches {
        /// Which of the joins.
        join: usize,
        /// Which one of each edge, counted from the lower end.
        numbers: [usize; 2],
        /// How far they lie from each other, in mm.
        apart: f64,
    },
    /// Lines do not run smooth across a seam.
    Corner {
        /// Which of the joins.
        join: usize,
        /// On which pieces.
        pieces: [usize; 2],
        /// The edges that meet there: of the first piece, of the second.
        meet: [EdgeName; 2],
        /// The two corners together, in degrees.
        together: f64,
    },
    /// A corner at the middle is not square.
    Square {
        /// Which edge.
        at: At,
        /// What meets it.
        meets: EdgeName,
        /// The corner.
        degrees: f64,
    },
    /// The legs of a dart differ.
    Legs {
        /// On which piece.
        piece: usize,
        /// Which dart.
        dart: Dart,
        /// By how much, in mm.
        apart: f64,
    },
    /// An edge does not run smooth over a dart that is closed.
    Mouth {
        /// On which piece.
        piece: usize,
        /// Which dart.
        dart: Dart,
        /// What begins there.
        on: EdgeName,
        /// By how much it turns, in degrees: less than nought where it dips.
        turns: f64,
    },
}

/// Everything that does not match.
pub fn true_up(pieces: &[Piece], joins: &[Join]) -> Vec<Untrue> {
    let mut all = Vec::new();
    for (n, join) in joins.iter().enumerate() {
        let off = join.off(pieces);
        if off.abs() > DIFFER {
            all.push(Untrue::Lengths { join: n, lengths: join.lengths(pieces), off });
        }
        if join.sides[0].1 != join.sides[1].1 {
            continue;
        }
        if let Some(pair) = join.pair() {
            notches(pieces, pair, n, &mut all);
        }
        // What lies on the other does not go on beside it.
        if join.is_faced {
            continue;
        }
        if join.name == EdgeName::Waist {
            all.extend(across_waist(pieces, join).into_iter().filter_map(|ends| corner(pieces, ends, n)));
            continue;
        }
        for upper in [false, true] {
            let ends = join.sides.each_ref().map(|(edges, _)| at_end(pieces, edges, upper));
            if let [Some(one), Some(other)] = ends {
                let ends = [one, other].map(|at| (at, is_upwards(&pieces[at.piece], at.edge) == upper));
                all.extend(corner(pieces, ends, n));
            }
        }
    }
    for (p, piece) in pieces.iter().enumerate() {
        for (e, edge) in piece.edges.iter().enumerate() {
            if is_middle(edge.name) || RISES.contains(&edge.name) {
                squares(piece, At { piece: p, edge: e }, &mut all);
            }
        }
        let uneven = piece.darts.iter().filter(|dart| dart.legs_apart() > DIFFER);
        all.extend(uneven.map(|d| Untrue::Legs { piece: p, dart: d.dart, apart: d.legs_apart() }));
        let over = piece.darts.iter().filter_map(|dart| Some((dart.dart, turns_at(piece, dart)?)));
        let bent = over.filter(|(_, (_, turns))| turns.abs() > DEGREES);
        all.extend(bent.map(|(dart, (on, turns))| Untrue::Mouth { piece: p, dart, on, turns }));
    }
    all
}

/// Notches of both edges, each from the same end.
fn notches(pieces: &[Piece], pair: [At; 2], join: usize, all: &mut Vec<Untrue>) {
    let from_below = |at: At| {
        let (piece, edge) = (&pieces[at.piece], &pieces[at.piece].edges[at.edge]);
        let level = |n: usize| edge.notches[n].level;
        let order = from_below(piece, at.edge).into_iter();
        order.map(|n| (level(n), sewn_from_below(piece, at.edge, edge.notches[n].along))).collect::<Vec<_>>()
    };
    let [first, second] = pair.map(from_below);
    for (number, (level, along)) in first.iter().enumerate() {
        // Those of a level by it; others by how many there are below.
        let rank = first[..number].iter().filter(|(l, _)| l == level).count();
        let mut of_level = second.iter().enumerate().filter(|(_, (l, _))| l == level);
        let Some((own, (_, other))) = of_level.nth(rank) else { continue };
        let apart = other - along;
        if apart.abs() > DIFFER {
            all.push(Untrue::Notches { join, numbers: [number, own], apart });
        }
    }
}

/// Whether an edge runs up, or in from the tip of the shoulder.
pub(super) fn is_upwards(piece: &Piece, edge: usize) -> bool {
    let edge = &piece.edges[edge];
    let across = matches!(edge.name, EdgeName::Seam(seam) if seam.run() == Run::Across);
    if across { edge.start().x > edge.end().x } else { edge.start().y < edge.end().y }
}

/// Of edges one after the other the one at an end: up and down by a yoke, across from the middle to the side.
fn at_end(pieces: &[Piece], edges: &[At], upper: bool) -> Option<At> {
    let rank = |at: &&At| rank(pieces[at.piece].key.share);
    if upper { edges.iter().min_by_key(rank) } else { edges.iter().max_by_key(rank) }.copied()
}

/// The edge beside an edge, before its start or after its end.
fn beside(pieces: &[Piece], (at, at_end): (At, bool)) -> EdgeName {
    let edges = &pieces[at.piece].edges;
    edges[(at.edge + if at_end { 1 } else { edges.len() - 1 }) % edges.len()].name
}

/// Ends of edges at the waist, above and below it, where a seam goes on across it: in front and behind, of panels each in its own.
fn across_waist(pieces: &[Piece], join: &Join) -> Vec<[(At, bool); 2]> {
    let [upper, lower] =
        join.sides.each_ref().map(|(edges, _)| edges.iter().flat_map(|at| [(*at, false), (*at, true)]));
    let key = |(at, _): &(At, bool)| pieces[at.piece].key;
    let below = |own: (At, bool)| {
        let is_it = |other: &(At, bool)| {
            key(other).face == key(&own).face && beside(pieces, *other) == beside(pieces, own)
        };
        let all: Vec<(At, bool)> = lower.clone().filter(is_it).collect();
        let of_panel = all.iter().find(|other| key(other).share == key(&own).share).copied();
        Some([own, of_panel.or(all.first().copied().filter(|_| all.len() == 1))?])
    };
    upper.filter_map(below).collect()
}

/// The corner at one end of both edges: what meets there goes on across the seam.
fn corner(pieces: &[Piece], ends: [(At, bool); 2], join: usize) -> Option<Untrue> {
    let inside = |(at, at_end): (At, bool)| {
        let piece = &pieces[at.piece];
        let count = piece.edges.len();
        let [own, next] =
            if at_end { [at.edge, (at.edge + 1) % count] } else { [(at.edge + count - 1) % count, at.edge] };
        let (into, out) = (piece.edges[own].ways()[1], piece.edges[next].ways()[0]);
        (angle(into, out), beside(pieces, (at, at_end)))
    };
    let [(one, meets), (other, met)] = ends.map(inside);
    let together = one + other;
    // What goes on into the same: seams that cross it, and free edges; between the legs, from the front to the back.
    let is_one_line = runs_on_as(meets) == met && !is_middle(meets);
    (is_one_line && (together - 180.0).abs() > DEGREES).then_some(Untrue::Corner {
        join,
        pieces: ends.map(|(at, _)| at.piece),
        meet: [meets, met],
        together,
    })
}

/// The corner inside a piece where an edge that comes this way meets one that leaves that way, in degrees.
pub(super) fn angle(into: Vec2, out: Vec2) -> f64 {
    let turn = into.cross(out).atan2(into.dot(out)).to_degrees();
    180.0 - turn
}

/// It is a fold, or a seam in the middle: what meets it goes on in its own mirror image.
pub(super) fn is_middle(name: EdgeName) -> bool {
    name == EdgeName::Fold || matches!(name, EdgeName::Seam(seam) if lies_in_middle(seam))
}

/// Where one leg of trousers is sewn to the other, above the crotch: in front, and behind.
const RISES: [EdgeName; 2] = [EdgeName::Seam(Seam::FrontRise), EdgeName::Seam(Seam::SeatSeam)];

/// What an edge goes on as across a seam: between the legs what is in front as what is behind.
pub(super) fn runs_on_as(name: EdgeName) -> EdgeName {
    let [front, back] = RISES;
    if name == front {
        back
    } else if name == back {
        front
    } else {
        name
    }
}

/// What meets an edge there goes on in its own mirror image: at the middle, and at the top of a leg.
pub(super) fn is_mirrored(name: EdgeName, meets: EdgeName) -> bool {
    is_middle(name) || RISES.contains(&name) && meets == EdgeName::Waist
}

/// Both corners at a fold, or a seam in the middle: what meets its mirror image is square to it.
fn squares(piece: &Piece, at: At, all: &mut Vec<Untrue>) {
    let count = piece.edges.len();
    for (own, next, other) in [
        ((at.edge + count - 1) % count, at.edge, (at.edge + count - 1) % count),
        (at.edge, (at.edge + 1) % count, (at.edge + 1) % count),
    ] {
        let degrees = angle(piece.edges[own].ways()[1], piece.edges[next].ways()[0]);
        let meets = piece.edges[other].name;
        // A neckline may come to a point there, and its facing with it.
        let is_free = matches!(meets, EdgeName::Neckline | EdgeName::Inner);
        if (degrees - 90.0).abs() > DEGREES && !is_free && is_mirrored(piece.edges[at.edge].name, meets) {
            all.push(Untrue::Square { at, meets, degrees });
        }
    }
}
