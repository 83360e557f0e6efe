//! Fairing: from wobbling pins to a line that can be sewn. All lengths are in cm.
//!
//! 1. *The pins are made fair.* Wobble can be told from intention only where there are more pins than a shape needs. From four on, they
//!    move to where Σ(z − d)² + λ∫f″² is least, f the natural cubic spline through them (C. H. Reinsch, "Smoothing by spline functions",
//!    Numerische Mathematik 10, 1967), but no pin further than its gate.
//! 2. *A line is drawn through them without swing*: cubic Hermite pieces with the slopes of that spline, limited so that no piece leaves
//!    the span of its two ends (J. M. Hyman, "Accurate monotonicity preserving cubic interpolation", SIAM J. Sci. Stat. Comput. 4, 1983).
//! 3. *Run-outs are pieces of their own*, and bend nothing else.
//!
//! The gates make the first step a quadratic programme with bounds, solved by block principal pivoting (J. J. Júdice and F. M. Pires, "A
//! block principal pivoting algorithm for large-scale strictly monotone linear complementarity problems", Computers & Operations
//! Research 21, 1994), which ends for any pins. Value and slope at each pin are its unknowns, and the energy that of a beam, piece by
//! piece, so that its matrix is a band.

use super::line::{TOLERANCE, TOLERANCE_OF_DEEPEST};
use crate::change::{Curve, Piece};
use crate::fitting::Fairing;

/// A station where the offset is known.
#[derive(Clone, Copy, Debug)]
pub(super) struct Knot {
    pub s: f64,
    /// The offset wanted here.
    pub wanted: f64,
    /// Exactly here and parallel to the old stitching, whatever the smoothing: where a straight stretch begins.
    pub held: bool,
}

/// How a line goes on from its outermost knot.
#[derive(Clone, Copy, Debug)]
pub(super) enum Close {
    /// To nought at this station, where it is parallel to the old stitching.
    Meets(f64),
    /// As deep as it is, to this edge.
    Parallel(f64),
    /// With its slope to this edge, but no deeper than at the knot, and never to the other side of the old stitching.
    Carries(f64),
}

impl Close {
    /// Where the line ends.
    pub const fn station(self) -> f64 {
        match self {
            Self::Meets(s) | Self::Parallel(s) | Self::Carries(s) => s,
        }
    }
}

/// How far a pin may move when the pins are made fair.
#[derive(Clone, Copy, Debug)]
pub(super) struct Gate {
    /// Any pin at most.
    pub any: f64,
    /// The deepest.
    pub deepest: f64,
}

/// Stiffness of the lath, in cm³ (teaching value: from pin to pin every 8 cm a wobble keeps a seventh of its bend, a shape of 40 cm nearly
/// all of it).
const STIFFNESS: f64 = 100.0;
/// No pin moves by more than a sixth of its depth, or smoothing would take most of a shallow one away (teaching value).
pub(super) const SHARE_OF_DEPTH: f64 = 1.0 / 6.0;
/// Up to so many pins are a shape, of which nothing can be told to be wobble.
pub(super) const SHAPE: usize = 3;

/// How many steps may mend whole blocks without fewer gates being wrong, before they are mended one by one (Júdice and Pires 1994).
const BLOCKS: i32 = 8;
/// More steps for each pin than any took that ended: a bound, so that none goes on for ever.
const MOST_STEPS: usize = 100;

/// Station, offset and slope.
type Point = (f64, f64, f64);

/// The line through `knots` (from the lowest station up, one at least), closed below and above, in the way that is asked for. Takes
/// time by the number of knots.
pub(super) fn fair(knots: &[Knot], [below, above]: [Close; 2], way: Fairing, gate: Gate) -> Curve {
    let offsets = match way {
        Fairing::Smooth if knots.len() > SHAPE => made_fair(knots, gate),
        Fairing::Smooth | Fairing::EveryPin | Fairing::Straight => knots.iter().map(|k| k.wanted).collect(),
    };
    let points: Vec<(f64, f64)> = knots.iter().zip(offsets).map(|(k, y)| (k.s, y)).collect();
    let is_straight = way == Fairing::Straight;
    let slopes = if is_straight { secants_of_ends(&points) } else { without_swing(&points) };
    let mut points: Vec<Point> = points.iter().zip(slopes).map(|(&(s, y), m)| (s, y, m)).collect();
    for (point, _) in points.iter_mut().zip(knots).filter(|(_, knot)| knot.held) {
        point.2 = 0.0;
    }
    let last = points.len() - 1;
    let lower = run_out(&mut points[0], below, is_straight);
    let upper = run_out(&mut points[last], above, is_straight);
    let inner = points.windows(2).map(|w| piece(w[0], w[1], is_straight));
    Curve { pieces: lower.into_iter().chain(inner).chain(upper).collect() }
}

/// The piece between two points, whichever comes first.
fn piece(a: Point, b: Point, is_straight: bool) -> Piece {
    let (a, b) = if a.0 <= b.0 { (a, b) } else { (b, a) };
    let m = if is_straight { [secant((a.0, a.1), (b.0, b.1)); 2] } else { [a.2, b.2] };
    Piece { s: [a.0, b.0], y: [a.1, b.1], m }
}

/// How the line goes on from its outermost point, whose slope is limited to that; nothing where it ends there.
fn run_out(from: &mut Point, close: Close, is_straight: bool) -> Option<Piece> {
    let (s, y, m) = *from;
    let end = match close {
        Close::Meets(end) => (end, 0.0, 0.0),
        Close::Parallel(end) => (end, y, 0.0),
        Close::Carries(end) => {
            let at = y + m * (end - s);
            match () {
                () if at * y < 0.0 => return run_out(from, Close::Meets(end), is_straight),
                () if at.abs() > y.abs() => return run_out(from, Close::Parallel(end), is_straight),
                () => (end, at, m),
            }
        }
    };
    if end.0 == s {
        return None;
    }
    match close {
        Close::Meets(_) => from.2 = limited(m, &[secant((s, y), (end.0, 0.0))]),
        // It bends nothing else: the line may have a corner at this pin.
        Close::Parallel(_) => return Some(piece((s, y, 0.0), end, is_straight)),
        Close::Carries(_) => {}
    }
    Some(piece(*from, end, is_straight))
}

/// The line through offsets at stations, in cm and from the lowest up, of something as long as that: drawn as through pins of which nobody
/// said anything else. An outermost one of nought is where it meets what was there; any other goes on as it runs.
pub(crate) fn fair_through(pins: &[(f64, f64)], long: f64) -> Curve {
    let is_off = |(_, wanted): &(f64, f64)| *wanted != 0.0;
    let (Some(first), Some(last)) = (pins.iter().position(is_off), pins.iter().rposition(is_off)) else {
        return Curve::default();
    };
    let knots: Vec<Knot> =
        pins[first..=last].iter().map(|&(s, wanted)| Knot { s, wanted, held: false }).collect();
    let below = pins[..first].last().map_or(Close::Carries(0.0), |(s, _)| Close::Meets(*s));
    let above = pins.get(last + 1).map_or(Close::Carries(long), |(s, _)| Close::Meets(*s));
    let gate = Gate { any: TOLERANCE.cm(), deepest: TOLERANCE_OF_DEEPEST.cm() };
    fair(&knots, [below, above], Fairing::Smooth, gate)
}

/// The curve through points that are all known, from the lowest station up, without a swing between them.
pub(crate) fn through(points: &[(f64, f64)]) -> Curve {
    with_slopes(points, &without_swing(points))
}

/// The same, straight over the lower half of its first stretch.
pub(crate) fn through_from_a_straight(points: &[(f64, f64)]) -> Curve {
    let Some([first, second]) = points.first_chunk() else { return through(points) };
    let middle = (first.0.midpoint(second.0), first.1.midpoint(second.1));
    let points: Vec<(f64, f64)> = [&[*first, middle], &points[1..]].concat();
    let mut slopes = without_swing(&points);
    slopes[..2].fill(secant(*first, *second));
    with_slopes(&points, &slopes)
}

fn with_slopes(points: &[(f64, f64)], slopes: &[f64]) -> Curve {
    Curve::through(&points.iter().zip(slopes).map(|(&(s, y), m)| (s, y, *m)).collect::<Vec<_>>())
}

fn secant(a: (f64, f64), b: (f64, f64)) -> f64 {
    (b.1 - a.1) / (b.0 - a.0)
}

/// The slopes at both ends of straight pieces, as if they went on; nought between.
fn secants_of_ends(points: &[(f64, f64)]) -> Vec<f64> {
    let mut slopes = vec![0.0; points.len()];
    if let (Some([a, b]), Some([c, d])) = (points.first_chunk(), points.last_chunk()) {
        slopes[0] = secant(*a, *b);
        slopes[points.len() - 1] = secant(*c, *d);
    }
    slopes
}

/// The slopes of the natural cubic spline through points, limited so that nothing between two of them is deeper or shallower than both.
fn without_swing(points: &[(f64, f64)]) -> Vec<f64> {
    let secants: Vec<f64> = points.windows(2).map(|w| secant(w[0], w[1])).collect();
    let natural = natural_slopes(points, &secants);
    let near = |i: usize| &secants[i.saturating_sub(1)..(i + 1).min(secants.len())];
    natural.into_iter().enumerate().map(|(i, slope)| limited(slope, near(i))).collect()
}

/// A slope no more than three times as steep as any of these beside it, and level where one goes the other way (Hyman 1983).
fn limited(slope: f64, beside: &[f64]) -> f64 {
    match beside.iter().any(|secant| slope * secant <= 0.0) {
        true => 0.0,
        false => {
            beside.iter().fold(slope.abs(), |least, secant| least.min(3.0 * secant.abs())) * slope.signum()
        }
    }
}

/// The slopes at which pieces meet with one second derivative, nought at both ends: a tridiagonal system (Farin, *Curves and Surfaces for
/// CAGD*, ch. 9), solved from below and back again.
fn natural_slopes(points: &[(f64, f64)], secants: &[f64]) -> Vec<f64> {
    let run = |i: usize| points[i + 1].0 - points[i].0;
    if secants.is_empty() {
        return vec![0.0; points.len()];
    }
    let last = secants.len();
    let mut above = vec![0.0; points.len()];
    let mut slopes = vec![0.0; points.len()];
    for i in 0..=last {
        let lower = if i > 0 { 1.0 / run(i - 1) } else { 0.0 };
        let upper = if i < last { 1.0 / run(i) } else { 0.0 };
        let wanted =
            lower * secants.get(i.wrapping_sub(1)).unwrap_or(&0.0) + upper * secants.get(i).unwrap_or(&0.0);
        let (left, left_above) = if i > 0 { (slopes[i - 1], above[i - 1]) } else { (0.0, 0.0) };
        let diagonal = 2.0 * (lower + upper) - lower * left_above;
        above[i] = upper / diagonal;
        slopes[i] = (3.0 * wanted - lower * left) / diagonal;
    }
    for i in (0..last).rev() {
        slopes[i] -= above[i] * slopes[i + 1];
    }
    slopes
}

/// A knot with the least and greatest offset the line may have there.
#[derive(Clone, Copy, Debug)]
struct Gated {
    knot: Knot,
    low: f64,
    high: f64,
}

/// Which post of its gate a pin leans on.
#[derive(Clone, Copy, Debug, PartialEq)]
enum Leans {
    Free,
    Low,
    High,
}

/// The offsets at which the pins are fair.
fn made_fair(knots: &[Knot], gate: Gate) -> Vec<f64> {
    let range =
        knots.iter().fold((0.0_f64, 0.0_f64), |(low, high), k| (low.min(k.wanted), high.max(k.wanted)));
    let deepest = range.1.max(-range.0);
    let gated = |&knot: &Knot| {
        let depth = knot.wanted.abs();
        let reach = match () {
            () if knot.held => 0.0,
            () if depth == deepest => gate.any.min(depth * SHARE_OF_DEPTH).min(gate.deepest),
            () => gate.any.min(depth * SHARE_OF_DEPTH),
        };
        let low = (knot.wanted - reach).max(range.0 - gate.deepest);
        Gated { knot, low, high: (knot.wanted + reach).min(range.1 + gate.deepest) }
    };
    least_bent(&knots.iter().map(gated).collect::<Vec<_>>())
}

/// The offsets of least Σ(z − d)² + λ∫f″² within all gates.
fn least_bent(gates: &[Gated]) -> Vec<f64> {
    let mut leaning = vec![Leans::Free; gates.len()];
    let mut fewest = usize::MAX;
    let mut blocks_left = BLOCKS;
    // Each step mends every gate that is wrong, as long as that makes them fewer; else only the first, which ends.
    for _ in 0..MOST_STEPS * gates.len() {
        let (y, push) = bend(gates, &leaning);
        let wrong: Vec<(usize, Leans)> = (0..gates.len())
            .filter_map(|i| {
                let mended = match leaning[i] {
                    _ if gates[i].knot.held => return None,
                    Leans::Free if y[i] < gates[i].low - 1e-9 => Leans::Low,
                    Leans::Free if y[i] > gates[i].high + 1e-9 => Leans::High,
                    Leans::Low if push[i] < 0.0 => Leans::Free,
                    Leans::High if push[i] > 0.0 => Leans::Free,
                    Leans::Free | Leans::Low | Leans::High => return None,
                };
                Some((i, mended))
            })
            .collect();
        if wrong.is_empty() {
            return y;
        }
        if wrong.len() < fewest {
            (fewest, blocks_left) = (wrong.len(), BLOCKS);
        } else if blocks_left > 0 {
            blocks_left -= 1;
        }
        let take = if blocks_left > 0 { wrong.len() } else { 1 };
        for &(i, mended) in wrong.iter().take(take) {
            leaning[i] = mended;
        }
    }
    gates.iter().map(|gate| gate.knot.wanted).collect()
}

/// The offset at each gate, and the push each post feels: positive where it holds the lath up.
fn bend(gates: &[Gated], leaning: &[Leans]) -> (Vec<f64>, Vec<f64>) {
    let mut matrix = vec![[0.0_f64; 4]; 2 * gates.len()];
    let mut pull = vec![0.0; 2 * gates.len()];
    for (i, w) in gates.windows(2).enumerate() {
        let h = w[1].knot.s - w[0].knot.s;
        let (a, b, c, d) = (12.0 / (h * h * h), 6.0 / (h * h), 4.0 / h, 2.0 / h);
        let beam = [[a, b, -a, b], [b, c, -b, d], [-a, -b, a, -b], [b, d, -b, c]];
        for (row, values) in beam.iter().enumerate() {
            for (column, value) in values.iter().enumerate().take(row + 1) {
                matrix[2 * i + row][row - column] += STIFFNESS * value;
            }
        }
    }
    for (i, Gated { knot, .. }) in gates.iter().enumerate() {
        matrix[2 * i][0] += 1.0;
        pull[2 * i] = knot.wanted;
    }
    let (mut held, mut u) = (matrix.clone(), pull.clone());
    for (i, gate) in gates.iter().enumerate() {
        match leaning[i] {
            Leans::Low => hold(&mut held, &mut u, 2 * i, gate.low),
            Leans::High => hold(&mut held, &mut u, 2 * i, gate.high),
            Leans::Free if gate.knot.held => {
                hold(&mut held, &mut u, 2 * i, gate.knot.wanted);
                hold(&mut held, &mut u, 2 * i + 1, 0.0);
            }
            Leans::Free => {}
        }
    }
    solve_banded(&mut held, &mut u);
    let push = (0..gates.len()).map(|i| times(&matrix, &u, 2 * i) - pull[2 * i]).collect();
    (u.into_iter().step_by(2).collect(), push)
}

/// One row of a symmetric band matrix times a vector.
fn times(matrix: &[[f64; 4]], u: &[f64], row: usize) -> f64 {
    let left = (0..4.min(row + 1)).map(|k| matrix[row][k] * u[row - k]);
    let right = (1..4).filter(|k| row + k < u.len()).map(|k| matrix[row + k][k] * u[row + k]);
    left.chain(right).sum()
}

/// Fixes one unknown: its column moves to the right-hand side. `matrix[r][k]` is the entry at row r, column r − k.
fn hold(matrix: &mut [[f64; 4]], u: &mut [f64], at: usize, value: f64) {
    for k in 1..4 {
        if let Some(column) = at.checked_sub(k) {
            u[column] -= matrix[at][k] * value;
            matrix[at][k] = 0.0;
        }
        if let Some(row) = matrix.get_mut(at + k) {
            u[at + k] -= row[k] * value;
            row[k] = 0.0;
        }
    }
    matrix[at][0] = 1.0;
    u[at] = value;
}

/// LLᵀ of a symmetric positive definite band matrix, in place (Golub & Van Loan, *Matrix Computations*, 4.3.5).
fn solve_banded(matrix: &mut [[f64; 4]], u: &mut [f64]) {
    let n = u.len();
    for row in 0..n {
        for k in (0..4.min(row + 1)).rev() {
            let column = row - k;
            let shared = row.saturating_sub(3)..column;
            let sum: f64 = shared.map(|j| matrix[row][row - j] * matrix[column][column - j]).sum();
            let rest = matrix[row][k] - sum;
            matrix[row][k] =
                if k == 0 { rest.max(f64::MIN_POSITIVE).sqrt() } else { rest / matrix[column][0] };
        }
    }
    for row in 0..n {
        let sum: f64 = (1..4.min(row + 1)).map(|k| matrix[row][k] * u[row - k]).sum();
        u[row] = (u[row] - sum) / matrix[row][0];
    }
    for row in (0..n).rev() {
        let sum: f64 = (1..4).filter(|k| row + k < n).map(|k| matrix[row + k][k] * u[row + k]).sum();
        u[row] = (u[row] - sum) / matrix[row][0];
    }
}
