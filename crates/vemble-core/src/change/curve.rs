//! A curve over the station: pieces of cubic Hermite polynomial, offset against station, both in cm.

use kurbo::{BezPath, Point};

/// One cubic between two stations, given by value and slope at its ends.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Piece {
    /// Stations of its ends.
    pub s: [f64; 2],
    /// Values at its ends.
    pub y: [f64; 2],
    /// Slopes at its ends.
    pub m: [f64; 2],
}

impl Piece {
    fn run(&self) -> f64 {
        self.s[1] - self.s[0]
    }

    /// How much it curves outwards at `s`, away from nought: −y″ ÷ (1 + y′²)^(3/2).
    pub(crate) fn bulge(&self, s: f64) -> f64 {
        let run = 1.0 + self.at(s).1.powi(2);
        -self.bend(s) / (run * run.sqrt())
    }

    /// Value and slope at station `s` (Hermite form; Farin, *Curves and Surfaces for CAGD*, ch. 7).
    pub(crate) fn at(&self, s: f64) -> (f64, f64) {
        if s == self.s[1] {
            return (self.y[1], self.m[1]);
        }
        let (h, t) = (self.run(), (s - self.s[0]) / self.run());
        let [y0, y1] = self.y;
        let [m0, m1] = [self.m[0] * h, self.m[1] * h];
        let a = 2.0 * (y0 - y1) + m0 + m1;
        let b = 3.0 * (y1 - y0) - 2.0 * m0 - m1;
        (((a * t + b) * t + m0) * t + y0, ((3.0 * a * t + 2.0 * b) * t + m0) / h)
    }

    /// Second derivative at station `s`.
    fn bend(&self, s: f64) -> f64 {
        let (h, t) = (self.run(), (s - self.s[0]) / self.run());
        let [y0, y1] = self.y;
        let [m0, m1] = [self.m[0] * h, self.m[1] * h];
        (6.0 * (2.0 * (y0 - y1) + m0 + m1) * t + 2.0 * (3.0 * (y1 - y0) - 2.0 * m0 - m1)) / (h * h)
    }

    /// Stations inside the piece where the slope is nought.
    pub(crate) fn turns(&self) -> impl Iterator<Item = f64> + use<> {
        self.turns_and_steepest().0.into_iter().flatten()
    }

    /// Stations inside the piece where the slope is nought, and where it is steepest.
    fn turns_and_steepest(&self) -> ([Option<f64>; 2], Option<f64>) {
        let h = self.run();
        let [m0, m1] = [self.m[0] * h, self.m[1] * h];
        let a = 3.0 * (2.0 * (self.y[0] - self.y[1]) + m0 + m1);
        let b = 2.0 * (3.0 * (self.y[1] - self.y[0]) - 2.0 * m0 - m1);
        let inside = |t: f64| (t > 0.0 && t < 1.0).then_some(self.s[0] + t * h);
        let roots = kurbo::common::solve_quadratic(m0, b, a);
        let flat = [roots.first().copied().and_then(inside), roots.get(1).copied().and_then(inside)];
        (flat, if a == 0.0 { None } else { inside(-b / (2.0 * a)) })
    }
}

/// A continuous curve: pieces that follow each other without a gap. Empty when nothing is altered.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Curve {
    /// From the lowest station up.
    pub pieces: Vec<Piece>,
}

impl Curve {
    /// The curve through `(station, value, slope)` knots, from the lowest station up.
    pub fn through(knots: &[(f64, f64, f64)]) -> Self {
        let piece =
            |w: &[(f64, f64, f64)]| Piece { s: [w[0].0, w[1].0], y: [w[0].1, w[1].1], m: [w[0].2, w[1].2] };
        Self { pieces: knots.windows(2).map(piece).collect() }
    }

    /// A smooth curve through `(station, value)` points that does not swing between them.
    pub fn without_swings(points: &[(f64, f64)]) -> Self {
        super::seam::through(points)
    }

    /// The same, straight over the lower half of its first stretch: what lies above an edge, or is added below it, is what lies between two levels.
    pub fn straight_above_an_edge(points: &[(f64, f64)]) -> Self {
        super::seam::through_from_a_straight(points)
    }

    /// The line through pins of an edge that is so long, as one is drawn on cloth.
    pub fn fair_through(pins: &[(f64, f64)], long: f64) -> Self {
        super::seam::fair_through(pins, long)
    }

    /// First and last station. Nothing where nothing is altered.
    pub fn span(&self) -> Option<(f64, f64)> {
        Some((self.pieces.first()?.s[0], self.pieces.last()?.s[1]))
    }

    /// Value at `s`; nought outside the span, where the old stitching stays.
    pub fn at(&self, s: f64) -> f64 {
        self.piece(s).map_or(0.0, |p| p.at(s).0)
    }

    /// The piece at `s`, where there is one.
    pub(crate) fn piece(&self, s: f64) -> Option<&Piece> {
        self.pieces.iter().find(|p| p.s[0] <= s && s <= p.s[1])
    }

    /// Least and greatest value between `from` and `to`.
    pub fn range(&self, from: f64, to: f64) -> (f64, f64) {
        let mut range = (f64::INFINITY, f64::NEG_INFINITY);
        let mut take = |y: f64| range = (range.0.min(y), range.1.max(y));
        for piece in &self.pieces {
            let (low, high) = (piece.s[0].max(from), piece.s[1].min(to));
            if low <= high {
                let turns = piece.turns().filter(|s| low <= *s && *s <= high);
                [low, high].into_iter().chain(turns).for_each(|s| take(piece.at(s).0));
            }
        }
        [from, to].into_iter().filter(|s| !self.covers(*s)).for_each(|_| take(0.0));
        range
    }

    fn covers(&self, s: f64) -> bool {
        self.span().is_some_and(|(low, high)| low <= s && s <= high)
    }

    /// The greatest steepness between `from` and `to`, as change over run, without sign.
    pub fn steepest(&self, from: f64, to: f64) -> f64 {
        let mut steepest = 0.0_f64;
        for piece in &self.pieces {
            let (lo, hi) = (piece.s[0].max(from), piece.s[1].min(to));
            if lo < hi {
                let turn = piece.turns_and_steepest().1.filter(|t| lo < *t && *t < hi);
                let ends = [Some(lo), turn, Some(hi)];
                steepest = ends.into_iter().flatten().fold(steepest, |m, s| m.max(piece.at(s).1.abs()));
            }
        }
        steepest
    }

    /// This curve plus `factor` times another, over this curve's span. Exact: cubics add up to cubics.
    pub fn plus(&self, factor: f64, other: &Self) -> Self {
        let Some((from, to)) = self.span() else { return Self::default() };
        let ends = |curve: &Self| curve.pieces.iter().flat_map(|p| p.s).collect::<Vec<_>>();
        let mut cuts = ends(self);
        cuts.extend(ends(other).into_iter().filter(|s| from <= *s && *s <= to));
        cuts.sort_by(f64::total_cmp);
        cuts.dedup();
        let pieces = cuts.windows(2).map(|w| {
            let middle = f64::midpoint(w[0], w[1]);
            let parts = [self.piece(middle), other.piece(middle)];
            let sum = |s: f64| {
                let [a, b] = parts.map(|part| part.map_or((0.0, 0.0), |p| p.at(s)));
                (a.0 + factor * b.0, a.1 + factor * b.1)
            };
            let (low, high) = (sum(w[0]), sum(w[1]));
            Piece { s: [w[0], w[1]], y: [low.0, high.0], m: [low.1, high.1] }
        });
        Self { pieces: pieces.collect() }
    }

    /// The stretch between two stations, exactly: part of a cubic is a cubic.
    pub fn cut(&self, from: f64, to: f64) -> Self {
        let part = |p: &Piece| {
            let s = [p.s[0].max(from), p.s[1].min(to)];
            // Stations that went through nanometres and back differ by rounding.
            (s[1] - s[0] > 1e-6).then(|| {
                let ends = s.map(|s| p.at(s));
                Piece { s, y: ends.map(|e| e.0), m: ends.map(|e| e.1) }
            })
        };
        Self { pieces: self.pieces.iter().filter_map(part).collect() }
    }

    /// The curve moved sideways.
    pub fn shifted(&self, by: f64) -> Self {
        Self { pieces: self.pieces.iter().map(|p| Piece { y: p.y.map(|y| y + by), ..*p }).collect() }
    }

    /// The curve moved along its stations.
    pub fn along(&self, by: f64) -> Self {
        Self { pieces: self.pieces.iter().map(|p| Piece { s: p.s.map(|s| s + by), ..*p }).collect() }
    }

    /// The curve as a path, exactly: a cubic over its station is a Bézier with evenly spaced stations.
    pub fn path(&self, place: impl Fn(f64, f64) -> Point) -> BezPath {
        let mut path = BezPath::with_capacity(self.pieces.len() + 1);
        for (i, p) in self.pieces.iter().enumerate() {
            let third = p.run() / 3.0;
            if i == 0 {
                path.move_to(place(p.s[0], p.y[0]));
            }
            path.curve_to(
                place(p.s[0] + third, p.y[0] + p.m[0] * third),
                place(p.s[1] - third, p.y[1] - p.m[1] * third),
                place(p.s[1], p.y[1]),
            );
        }
        path
    }
}
