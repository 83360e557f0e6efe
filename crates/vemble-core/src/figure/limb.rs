//! An arm or a sleeve: hung from the underarm, at the angle at which arms hang.

use super::pose::ARM_ANGLE;
use crate::change::Curve;
use kurbo::{BezPath, Point, Vec2};

/// A limb with half widths along its length. Lengths in cm; heights above the floor.
pub(crate) struct Limb {
    /// From the tip of the shoulder to its lower edge.
    length: f64,
    /// Outer and inner edge, as distance from its middle line, over the length from the tip.
    half: Curve,
    /// How far from the tip the widest place is, where the inner edge begins.
    widest: f64,
    tip: Point,
    underarm: Point,
}

impl Limb {
    /// From girths at distances from the tip, the widest first. Nothing where fewer than two girths lie apart.
    pub fn new(length: f64, girths: &[(f64, f64)], tip: Point, underarm: Point) -> Option<Self> {
        let mut half: Vec<(f64, f64)> =
            girths.iter().map(|&(t, girth)| (t, girth / (2.0 * std::f64::consts::PI))).collect();
        half.sort_by(|a, b| a.0.total_cmp(&b.0));
        half.dedup_by(|b, a| b.0 - a.0 < 0.5);
        let first = *half.first()?;
        if half.last()?.0 < length {
            half.push((length, half.last()?.1));
        }
        (half.len() > 1).then(|| Self {
            length,
            half: Curve::without_swings(&half),
            widest: first.0,
            tip,
            underarm,
        })
    }

    fn along() -> Vec2 {
        Vec2::new(ARM_ANGLE.sin(), -ARM_ANGLE.cos())
    }

    fn outwards() -> Vec2 {
        Vec2::new(ARM_ANGLE.cos(), ARM_ANGLE.sin())
    }

    /// A point across the limb at a distance from the tip: −1 its inner edge, 1 its outer.
    pub fn at(&self, t: f64, across: f64) -> Point {
        let start = self.underarm + Self::outwards() * self.half.at(self.widest);
        start + Self::along() * (t - self.widest) + Self::outwards() * (across * self.half.at(t))
    }

    /// A line along it, from near the armhole to its lower edge.
    pub fn line(&self, across: f64) -> BezPath {
        let mut path = BezPath::new();
        path.move_to(self.at(self.widest, across));
        self.follow(&mut path, across, false);
        path
    }

    fn follow(&self, path: &mut BezPath, across: f64, upwards: bool) {
        const STEPS: u32 = 5;
        let ends = (self.widest, self.length);
        let mut points: Vec<Point> = (0..=STEPS)
            .map(|n| self.at(ends.0 + (ends.1 - ends.0) * f64::from(n) / f64::from(STEPS), across))
            .collect();
        if upwards {
            points.reverse();
        }
        super::smooth_through(path, &points);
    }

    /// Its outline: over the shoulder, down the outer edge, across the lower edge, up the inner edge to the underarm.
    pub fn outline(&self) -> BezPath {
        let mut path = BezPath::new();
        let outer = self.at(self.widest, 1.0);
        path.move_to(self.tip);
        let reach = outer - self.tip;
        path.curve_to(
            self.tip + Vec2::new(reach.x * 0.55, reach.y * 0.08),
            outer - Self::along() * (reach.y.abs() * 0.45),
            outer,
        );
        self.follow(&mut path, 1.0, false);
        path.line_to(self.at(self.length, -1.0));
        self.follow(&mut path, -1.0, true);
        path.line_to(self.underarm);
        path
    }

    /// A line across it at a distance from its lower edge.
    pub fn across(&self, from_edge: f64) -> BezPath {
        let mut path = BezPath::new();
        path.move_to(self.at(self.length - from_edge, -1.0));
        path.line_to(self.at(self.length - from_edge, 1.0));
        path
    }

    /// From the tip to where it is widest.
    pub const fn widest(&self) -> f64 {
        self.widest
    }

    /// From the tip to its lower edge.
    pub const fn length(&self) -> f64 {
        self.length
    }
}
