//! One armhole laid flat and the cap of its sleeve, as curves: their true lengths are those of the curves.
//!
//! x runs from the middle of the garment outwards, y up from the seam under the arm as it is now. The armhole is as long as its seam was
//! found: how deep it is follows from that. Lengths in cm.

use crate::garment::{Garment, Seam};
use crate::place::Level;
use kurbo::{BezPath, CubicBez, ParamCurve, ParamCurveArclen, ParamCurveDeriv, Point, Vec2};

/// Lengths of curves are exact to so many cm: a hundredth of a micrometre.
const EXACT: f64 = 1e-6;
/// How far inside the tip of the shoulder an armhole is behind, halfway down, where nobody measured across the back (teaching value).
const BACK_INSIDE: f64 = 0.8;
/// How much further inside it is in front than behind (teaching value: the chest is narrower than the back).
const FRONT_INSIDE: f64 = 1.0;
/// Depths between which an armhole is looked for.
const DEPTHS: [f64; 2] = [2.0, 60.0];
/// A curve that is moved is looked at in so many steps.
const STEPS: u32 = 32;
/// So often a depth or height is halved: to a millionth of a cm.
const HALVINGS: usize = 48;

/// The points of an armhole.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Flat {
    pub tip: Point,
    /// How far the shoulder seam lies before the tip: the front edge is so much shorter at its top, the back edge longer.
    pub forward: f64,
    /// Halfway down in front, and behind.
    pub front: Point,
    pub back: Point,
    pub underarm: Point,
}

impl Flat {
    /// The armhole of a garment as it was found. Nothing where too little of it is known.
    pub fn of(garment: &Garment) -> Option<Self> {
        let length = garment.seam(Seam::ArmholeSeam)?.length.length.cm();
        let girth = |level| garment.level(level).map(|l| l.width.girth().cm());
        let (under, tip) = (girth(Level::Bust)? / 4.0, girth(Level::Shoulder)? / 4.0);
        let behind = garment.across_back.map_or(tip - BACK_INSIDE, |m| m.length.cm() / 2.0);
        let deep = |depth: f64| {
            let at = |x: f64| Point::new(x.min(under - 1.0), depth / 2.0);
            let back = at(behind);
            let front = Point::new(back.x - FRONT_INSIDE, back.y);
            Self { tip: Point::new(tip, depth), forward: 0.0, front, back, underarm: Point::new(under, 0.0) }
        };
        (length > 0.0).then(|| deep(solved(DEPTHS, length, |depth| deep(depth).lengths().iter().sum())))
    }

    /// From the seam under the arm up to the tip of the shoulder, in front.
    pub fn front_edge(&self) -> [CubicBez; 2] {
        self.edge(self.front, -self.forward)
    }

    /// The same behind.
    pub fn back_edge(&self) -> [CubicBez; 2] {
        self.edge(self.back, self.forward)
    }

    /// Level under the arm, upright halfway and at the tip.
    fn edge(&self, middle: Point, up: f64) -> [CubicBez; 2] {
        let (under, tip) = (self.underarm, Point::new(self.tip.x, self.tip.y + up));
        let (out, up) = (under.x - middle.x, middle.y - under.y);
        let below = CubicBez::new(
            under,
            Point::new(under.x - 0.75 * out, under.y),
            Point::new(middle.x, middle.y - 0.5 * up),
            middle,
        );
        let above = tip.y - middle.y;
        let upper = CubicBez::new(
            middle,
            Point::new(middle.x, middle.y + 0.5 * above),
            Point::new(tip.x, tip.y - 0.35 * above),
            tip,
        );
        [below, upper]
    }

    /// Which way it runs so far along, as a share of it from under the arm: in front, and it is much the same behind.
    pub fn way_at(&self, share: f64) -> Vec2 {
        let edge = self.front_edge();
        let [below, above] = edge.map(|curve| curve.arclen(EXACT));
        let along = share * (below + above);
        let (curve, along) = if along < below { (edge[0], along) } else { (edge[1], along - below) };
        curve.deriv().eval(curve.inv_arclen(along, EXACT)).to_vec2().normalize()
    }

    /// How much longer both edges are together once they are moved into the garment, by so many cm at each share of the way up.
    pub fn longer_by(&self, off: impl Fn(f64) -> f64) -> f64 {
        let moved = |edge: [CubicBez; 2]| {
            let whole: f64 = edge.iter().map(|curve| curve.arclen(EXACT)).sum();
            let mut before = 0.0;
            let points = edge.iter().flat_map(|curve| {
                let from = before;
                before += curve.arclen(EXACT);
                let place = move |n: u32| {
                    let t = f64::from(n) / f64::from(STEPS);
                    let along = from + curve.subsegment(0.0..t).arclen(EXACT);
                    let way = curve.deriv().eval(t).to_vec2().normalize();
                    (curve.eval(t), Vec2::new(-way.y, way.x), along)
                };
                (0..=STEPS).map(place)
            });
            let points: Vec<Point> =
                points.map(|(p, inwards, along)| p + inwards * off(along / whole)).collect();
            points.windows(2).map(|pair| pair[0].distance(pair[1])).sum::<f64>() - whole
        };
        moved(self.front_edge()) + moved(self.back_edge())
    }

    /// How long the front edge is, and the back edge.
    pub fn lengths(&self) -> [f64; 2] {
        [self.front_edge(), self.back_edge()].map(|edge| edge.iter().map(|c| c.arclen(EXACT)).sum())
    }
}

/// The edge of a cap: level at both underarms and at its top, `wide` at the upper arm and `high` above it.
pub(crate) fn cap(wide: f64, high: f64) -> [CubicBez; 2] {
    let half = wide / 2.0;
    let (from, top, to) = (Point::ZERO, Point::new(half, high), Point::new(wide, 0.0));
    [
        CubicBez::new(from, Point::new(half / 2.0, 0.0), Point::new(half / 2.0, high), top),
        CubicBez::new(top, Point::new(wide - half / 2.0, high), Point::new(wide - half / 2.0, 0.0), to),
    ]
}

/// How long the edge of a cap is.
pub(super) fn cap_length(wide: f64, high: f64) -> f64 {
    cap(wide, high).iter().map(|curve| curve.arclen(EXACT)).sum()
}

/// How high a cap is whose edge is so long. Nothing where it is no longer than the sleeve is wide.
pub(crate) fn cap_height(wide: f64, length: f64) -> Option<f64> {
    (length > wide).then(|| solved([0.0, length], length, |high| cap_length(wide, high)))
}

/// Where a growing function comes to `wanted`, between two ends; the nearer end where it does not.
pub(crate) fn solved([mut low, mut high]: [f64; 2], wanted: f64, mut of: impl FnMut(f64) -> f64) -> f64 {
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        if of(middle) < wanted {
            low = middle;
        } else {
            high = middle;
        }
    }
    f64::midpoint(low, high)
}

/// How far a point of `old` so far along it has to go sideways, square to it, to meet `new`: positive towards the middle of the garment.
/// Nothing where it does not meet it.
pub(super) fn beside(old: &[CubicBez; 2], new: &[CubicBez; 2], along: f64) -> Option<f64> {
    let (at, way) = place(old, along)?;
    // Square to it, towards the middle of the garment or up where it runs level.
    let square = kurbo::Vec2::new(-way.y, way.x);
    let mut nearest: Option<f64> = None;
    for curve in new {
        let ray = kurbo::Line::new(at - square * REACH, at + square * REACH);
        for met in kurbo::PathSeg::Cubic(*curve).intersect_line(ray) {
            let off = REACH * (2.0 * met.line_t - 1.0);
            if nearest.is_none_or(|n| off.abs() < n.abs()) {
                nearest = Some(off);
            }
        }
    }
    nearest
}

/// No armhole moves further than so many cm.
const REACH: f64 = 12.0;

/// The point so far along an edge, and which way the edge runs there.
pub(super) fn place(edge: &[CubicBez; 2], along: f64) -> Option<(Point, kurbo::Vec2)> {
    use kurbo::ParamCurveDeriv;
    let first = edge[0].arclen(EXACT);
    let (curve, along) = if along <= first { (edge[0], along) } else { (edge[1], along - first) };
    let length = curve.arclen(EXACT);
    if along < 0.0 || along > length + 1e-6 {
        return None;
    }
    let t = curve.inv_arclen(along.min(length), EXACT);
    let way = curve.deriv().eval(t).to_vec2();
    let way = if way.hypot() > 1e-9 { way } else { curve.eval((t + 1e-3).min(1.0)) - curve.eval(t) };
    Some((curve.eval(t), way.normalize()))
}

/// Two curves as one path.
pub(super) fn path(curves: &[CubicBez; 2]) -> BezPath {
    let mut path = BezPath::new();
    path.move_to(curves[0].p0);
    for curve in curves {
        path.curve_to(curve.p1, curve.p2, curve.p3);
    }
    path
}
