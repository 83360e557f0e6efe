//! Fairing: from wobbling pins to a line that can be sewn.
//!
//! The smooth way is a lath, as a shipwright bends one, pushed no further than it must be: of all curves within
//! tolerance of every pin, the one with the least bending energy ∫y″² ds. It is a natural cubic spline (C. H.
//! Reinsch, "Smoothing by spline functions", Numerische Mathematik 10, 1967), but with the tolerance as a gate at
//! each pin instead of one smoothing parameter for all: so a pin that lies on the line already cannot move it, which
//! one parameter does not grant. The minimiser is a cubic between its knots, so value and slope at each knot are
//! the unknowns and the energy is that of a beam, piece by piece; an end that meets the old stitching is clamped.
//!
//! The gates make it a quadratic programme with bounds, solved by block principal pivoting (J. J. Júdice and F. M.
//! Pires, "A block principal pivoting algorithm for large-scale strictly monotone linear complementarity
//! problems", Computers & Operations Research 21, 1994), which ends for any pins. Where the lath would swing to the
//! other side of the old stitching or past the largest pin between two pins, a gate is added there and it is bent
//! anew. What rounding leaves of a swing is eased towards the monotone cubic through the pins (F. N. Fritsch and
//! R. E. Carlson, "Monotone piecewise cubic interpolation", SIAM J. Numer. Anal. 17, 1980), which has none.

use crate::change::{Curve, Piece};
use crate::fitting::Fairing;

/// A station where something is known of the line. All lengths in cm.
#[derive(Clone, Copy, Debug)]
pub(super) struct Knot {
    pub s: f64,
    /// The offset wanted here.
    pub wanted: f64,
    /// How many pins want it: 0 where the line only runs on to an edge.
    pub pins: u32,
    /// Exactly here, whatever the smoothing.
    pub held: bool,
    /// Parallel to the old stitching here.
    pub level: bool,
}

impl Knot {
    fn is_known(&self) -> bool {
        self.pins > 0 || self.held
    }
}

/// The line through `knots` (from the lowest station up), in the way that is asked for.
pub(super) fn fair(knots: &[Knot], way: Fairing, tolerance: f64) -> Curve {
    let known = knots.iter().filter(|k| k.is_known()).count();
    if known < 2 {
        let y = knots.iter().find(|k| k.is_known()).map_or(0.0, |k| k.wanted);
        return Curve::through(&knots.iter().map(|k| (k.s, y, 0.0)).collect::<Vec<_>>());
    }
    match way {
        Fairing::Straight => straight(knots),
        Fairing::EveryPin => monotone(knots),
        Fairing::Smooth => smooth(knots, tolerance),
    }
}

/// Values at all knots: an unknown edge goes on straight from its neighbour with the slope there, but never
/// past nought where all pins have one sign, since taking in must not turn into letting out where nobody pinned.
fn carried_on(knots: &[Knot], slopes: &mut [f64]) -> Vec<f64> {
    let mut y: Vec<f64> = knots.iter().map(|k| k.wanted).collect();
    let last = knots.len() - 1;
    let one_sign = y.iter().all(|y| *y >= 0.0) || y.iter().all(|y| *y <= 0.0);
    let sign = y.iter().sum::<f64>();
    for (edge, neighbour) in [(0, 1), (last, last - 1)] {
        if !knots[edge].is_known() {
            let run = knots[edge].s - knots[neighbour].s;
            let mut end = y[neighbour] + slopes[neighbour] * run;
            if one_sign && end * sign < 0.0 {
                end = 0.0;
                slopes[neighbour] = -y[neighbour] / run;
            }
            y[edge] = end;
            slopes[edge] = slopes[neighbour];
        }
    }
    y
}

/// Straight from pin to pin; no slope is promised at the ends.
fn straight(knots: &[Knot]) -> Curve {
    let known: Vec<&Knot> = knots.iter().filter(|k| k.is_known()).collect();
    let secant = |a: &Knot, b: &Knot| (b.wanted - a.wanted) / (b.s - a.s);
    let mut slopes = vec![0.0; knots.len()];
    if !knots[0].is_known() {
        slopes[1] = secant(known[0], known[1]);
    }
    if !knots[knots.len() - 1].is_known() {
        slopes[knots.len() - 2] = secant(known[known.len() - 2], known[known.len() - 1]);
    }
    let y = carried_on(knots, &mut slopes);
    let pieces = knots.windows(2).zip(y.windows(2)).map(|(k, y)| {
        let m = (y[1] - y[0]) / (k[1].s - k[0].s);
        Piece { s: [k[0].s, k[1].s], y: [y[0], y[1]], m: [m, m] }
    });
    Curve { pieces: pieces.collect() }
}

/// The monotone curve through points that are all known.
pub(crate) fn through(points: &[(f64, f64)]) -> Curve {
    let knot = |&(s, wanted): &(f64, f64)| Knot { s, wanted, pins: 1, held: true, level: false };
    monotone(&points.iter().map(knot).collect::<Vec<_>>())
}

/// Through every pin without a swing between them (Fritsch–Carlson, with their circle of radius 3).
fn monotone(knots: &[Knot]) -> Curve {
    let known: Vec<usize> = (0..knots.len()).filter(|&i| knots[i].is_known()).collect();
    let secants: Vec<f64> = known
        .windows(2)
        .map(|w| (knots[w[1]].wanted - knots[w[0]].wanted) / (knots[w[1]].s - knots[w[0]].s))
        .collect();
    let mut slopes = vec![0.0; knots.len()];
    for (n, &i) in known.iter().enumerate() {
        let before = n.checked_sub(1).map(|b| secants[b]);
        slopes[i] = match (before, secants.get(n)) {
            _ if knots[i].level => 0.0,
            (Some(a), Some(&b)) if a * b > 0.0 => f64::midpoint(a, b),
            (Some(_), Some(_)) | (None, None) => 0.0,
            (Some(m), None) | (None, Some(&m)) => m,
        };
    }
    for (n, w) in known.windows(2).enumerate() {
        let secant = secants[n];
        if secant == 0.0 {
            slopes[w[0]] = 0.0;
            slopes[w[1]] = 0.0;
            continue;
        }
        let length = (slopes[w[0]] / secant).hypot(slopes[w[1]] / secant);
        if length > 3.0 {
            slopes[w[0]] *= 3.0 / length;
            slopes[w[1]] *= 3.0 / length;
        }
    }
    let y = carried_on(knots, &mut slopes);
    Curve::through(&knots.iter().enumerate().map(|(i, k)| (k.s, y[i], slopes[i])).collect::<Vec<_>>())
}

/// Where the line may go: on one side of the old stitching when all pins are, and not far past the largest.
struct Bounds {
    low: f64,
    high: f64,
    /// Between the outermost known knots; beyond them the slope carries on past the largest pin.
    known: (f64, f64),
    /// How far beyond nothing swings yet: cloth does not know a hundredth of a millimetre. A share of a line has its share of it, so
    /// that it is drawn like the whole.
    slack: f64,
}

/// A three-hundredth of the tolerance may be left over: of 3 mm it is a hundredth of a millimetre.
const SLACK: f64 = 300.0;
/// A share of nothing has no tolerance: what rounding leaves, in cm.
const NO_SLACK: f64 = 1e-6;
/// How often posts are put where the lath swings out: a dozen pins need three or four rounds, and what still swings then is eased.
const MOST_POSTS: usize = 16;
/// How often the share of easing is halved: to a 16-millionth, far below a nanometre of any offset.
const HALVINGS: usize = 24;

/// How many steps may mend whole blocks without fewer gates being wrong, before they are mended one by one (Júdice and Pires 1994).
const BLOCKS: i32 = 8;
/// More steps than any lath took that ended: a bound, so that none goes on for ever.
const MOST_STEPS: usize = 100;

impl Bounds {
    fn of(knots: &[Knot], tolerance: f64) -> Self {
        let known = || knots.iter().filter(|k| k.is_known());
        let (least, most) =
            known().fold((0.0_f64, 0.0_f64), |(lo, hi), k| (lo.min(k.wanted), hi.max(k.wanted)));
        let low = if least < 0.0 { least - tolerance } else { 0.0 };
        let high = if most > 0.0 { most + tolerance } else { 0.0 };
        let ends = (known().next(), known().next_back());
        let known = (ends.0.map_or(0.0, |k| k.s), ends.1.map_or(0.0, |k| k.s));
        Self { low, high, known, slack: (tolerance / SLACK).max(NO_SLACK) }
    }

    /// The least and greatest value allowed at a station.
    fn at(&self, s: f64) -> (f64, f64) {
        if self.known.0 <= s && s <= self.known.1 {
            return (self.low, self.high);
        }
        let beyond = |bound: f64| if bound == 0.0 { 0.0 } else { bound.signum() * f64::INFINITY };
        (beyond(self.low), beyond(self.high))
    }

    /// The turning points at which a curve leaves the bounds.
    fn broken(&self, curve: &Curve) -> Vec<f64> {
        let slack = self.slack;
        let turns = curve.pieces.iter().flat_map(Piece::turns);
        let leaves = |s: &f64| {
            let ((low, high), y) = (self.at(*s), curve.at(*s));
            y < low - slack || y > high + slack
        };
        turns.filter(leaves).collect()
    }
}

/// The lath: the least bent line through the gates.
fn smooth(knots: &[Knot], tolerance: f64) -> Curve {
    let bounds = Bounds::of(knots, tolerance);
    let mut gates: Vec<Gate> = knots
        .iter()
        .map(|&knot| {
            let (low, high) = bounds.at(knot.s);
            let reach = if knot.pins == 0 { f64::INFINITY } else { tolerance };
            Gate { knot, low: low.max(knot.wanted - reach), high: high.min(knot.wanted + reach) }
        })
        .collect();
    let mut curve = least_bent(&gates);
    for _ in 0..MOST_POSTS {
        let broken = bounds.broken(&curve);
        if broken.is_empty() {
            return curve;
        }
        for s in broken {
            let (low, high) = bounds.at(s);
            let gate = Gate { knot: Knot { s, wanted: 0.0, pins: 0, held: false, level: false }, low, high };
            // Two posts closer than a millimetre would pinch the lath: the one put there before moves here.
            match gates.iter_mut().find(|g| (g.knot.s - s).abs() < 0.1) {
                Some(near) if near.knot.pins == 0 && !near.knot.held => *near = gate,
                Some(_) => {}
                None => gates.push(gate),
            }
        }
        gates.sort_by(|a, b| a.knot.s.total_cmp(&b.knot.s));
        curve = least_bent(&gates);
    }
    let easy = monotone(knots);
    let (mut too_little, mut enough) = (0.0, 1.0);
    for _ in 0..HALVINGS {
        let share = f64::midpoint(too_little, enough);
        if bounds.broken(&curve.eased(&easy, share)).is_empty() {
            enough = share;
        } else {
            too_little = share;
        }
    }
    curve.eased(&easy, enough)
}

/// A knot with the least and greatest offset the line may have there.
#[derive(Clone, Copy, Debug)]
struct Gate {
    knot: Knot,
    low: f64,
    high: f64,
}

/// Which post of its gate the lath leans on.
#[derive(Clone, Copy, Debug, PartialEq)]
enum Leans {
    Free,
    Low,
    High,
}

/// The line of least energy through all gates.
///
/// Where that leaves a choice (a straight line fits through all of them) it is the one nearest to the pins, by least
/// squares.
fn least_bent(gates: &[Gate]) -> Curve {
    let mut leaning = vec![Leans::Free; gates.len()];
    let mut fewest = usize::MAX;
    let mut blocks_left = BLOCKS;
    // Each step mends every gate that is wrong, as long as that makes them fewer; else only the first, which ends.
    for _ in 0..MOST_STEPS * gates.len() {
        let (u, push) = bend(gates, &leaning);
        let wrong: Vec<(usize, Leans)> = (0..gates.len())
            .filter_map(|i| {
                let (gate, y) = (&gates[i], u[2 * i]);
                let mended = match leaning[i] {
                    _ if gate.knot.held => return None,
                    Leans::Free if y < gate.low - 1e-9 => Leans::Low,
                    Leans::Free if y > gate.high + 1e-9 => Leans::High,
                    Leans::Low if push[i] < 0.0 => Leans::Free,
                    Leans::High if push[i] > 0.0 => Leans::Free,
                    Leans::Free | Leans::Low | Leans::High => return None,
                };
                Some((i, mended))
            })
            .collect();
        if wrong.is_empty() {
            return curve_of(gates, &u);
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
    monotone(&gates.iter().map(|g| g.knot).filter(Knot::is_known).collect::<Vec<_>>())
}

fn curve_of(gates: &[Gate], u: &[f64]) -> Curve {
    let span = gates[gates.len() - 1].knot.s - gates[0].knot.s;
    let knots = gates.iter().enumerate().map(|(i, g)| (g.knot.s, u[2 * i], u[2 * i + 1] / span));
    Curve::through(&knots.collect::<Vec<_>>())
}

/// Value and slope at each gate, and the push each post feels: positive where it holds the lath up.
///
/// The beam's stiffness is 100 on a span scaled to 1: it outweighs the pull of the pins wherever there is a bend.
fn bend(gates: &[Gate], leaning: &[Leans]) -> (Vec<f64>, Vec<f64>) {
    const STIFFNESS: f64 = 100.0;
    let span = gates[gates.len() - 1].knot.s - gates[0].knot.s;
    let mut matrix = vec![[0.0_f64; 4]; 2 * gates.len()];
    let mut pull = vec![0.0; 2 * gates.len()];
    for (i, w) in gates.windows(2).enumerate() {
        let h = (w[1].knot.s - w[0].knot.s) / span;
        let (a, b, c, d) = (12.0 / (h * h * h), 6.0 / (h * h), 4.0 / h, 2.0 / h);
        let beam = [[a, b, -a, b], [b, c, -b, d], [-a, -b, a, -b], [b, d, -b, c]];
        for (row, values) in beam.iter().enumerate() {
            for (column, value) in values.iter().enumerate().take(row + 1) {
                matrix[2 * i + row][row - column] += STIFFNESS * value;
            }
        }
    }
    for (i, Gate { knot, .. }) in gates.iter().enumerate() {
        matrix[2 * i][0] += f64::from(knot.pins);
        pull[2 * i] = f64::from(knot.pins) * knot.wanted;
    }
    let (mut held, mut u) = (matrix.clone(), pull.clone());
    for (i, gate) in gates.iter().enumerate() {
        match leaning[i] {
            _ if gate.knot.held => hold(&mut held, &mut u, 2 * i, gate.knot.wanted),
            Leans::Low => hold(&mut held, &mut u, 2 * i, gate.low),
            Leans::High => hold(&mut held, &mut u, 2 * i, gate.high),
            Leans::Free => {}
        }
        if gate.knot.level {
            hold(&mut held, &mut u, 2 * i + 1, 0.0);
        }
    }
    solve_banded(&mut held, &mut u);
    let push = (0..gates.len()).map(|i| times(&matrix, &u, 2 * i) - pull[2 * i]).collect();
    (u, push)
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
