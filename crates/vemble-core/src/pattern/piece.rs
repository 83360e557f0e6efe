//! A piece of a pattern: an outline of named edges, its darts and marks. All in mm, y up from the lower edge, x out from the middle.

use crate::garment::{Dart, Seam};
use crate::place::Level;
use crate::work::{Eased, EdgeName, Fullness, PieceKey, kept, straight};
use kurbo::{
    BezPath, CubicBez, Line, ParamCurve, ParamCurveArclen, ParamCurveDeriv, ParamCurveNearest, PathSeg,
    Point, Shape, Vec2,
};

/// Lengths of curves are exact to so many mm.
pub(super) const EXACT: f64 = 1e-6;

/// What is left of an edge that is cut off whole, in mm: it still has a way to run.
const HAIR: f64 = 1e-3;

/// What leaves a straight by no more, in mm, is one.
const STRAIGHT: f64 = 0.01;

/// One edge of an outline, from its first corner to the next.
#[derive(Clone, Debug, PartialEq)]
pub struct Edge {
    /// What it is.
    pub name: EdgeName,
    /// The second one of that name on the piece: a sleeve is sewn to itself.
    pub second: bool,
    /// Its line, curve by curve.
    pub curves: Vec<CubicBez>,
    /// What is cut outside of it.
    pub allowance: f64,
    /// Marks on it.
    pub notches: Vec<Notch>,
    /// What of it is gathered or eased in.
    pub eased: Option<Eased>,
}

/// A mark on an edge.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Notch {
    /// How far from the start of the edge.
    pub along: f64,
    /// What it marks.
    pub level: Option<Level>,
}

/// A dart of a piece.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PieceDart {
    /// Which.
    pub dart: Dart,
    /// The ends of its legs, on an edge; of a fish-eye dart its widest place.
    pub mouth: [Point; 2],
    /// Where its legs meet.
    pub point: Point,
    /// The other point of a fish-eye dart.
    pub other: Option<Point>,
    /// It is not stitched: its cloth is gathered, or eased in.
    pub loose: Option<Fullness>,
}

impl PieceDart {
    /// It begins on an edge and is stitched: it can be turned about its point.
    pub fn is_turnable(&self) -> bool {
        self.other.is_none() && self.loose.is_none()
    }

    /// How much of its edge it takes, or of the piece's width.
    pub fn takes(&self) -> f64 {
        self.mouth[0].distance(self.mouth[1])
    }

    /// How long it is: from its edge, or its other point, to its point.
    pub fn long(&self) -> f64 {
        self.other.unwrap_or(self.mouth[0].midpoint(self.mouth[1])).distance(self.point)
    }

    /// What it is called, and what becomes of it where it is not stitched.
    pub fn called(&self) -> String {
        let into = self.loose.map_or_else(String::new, |into| format!(", {}", into.name()));
        format!("{}{into}", self.dart.name())
    }

    /// How much longer one leg is than the other.
    pub fn legs_apart(&self) -> f64 {
        if self.loose.is_some() {
            return 0.0;
        }
        (self.mouth[0].distance(self.point) - self.mouth[1].distance(self.point)).abs()
    }
}

/// A piece of a pattern.
#[derive(Clone, Debug, PartialEq)]
pub struct Piece {
    /// Which.
    pub key: PieceKey,
    /// Which one it was before anything was done; nothing of one that was made from another.
    pub was: Option<PieceKey>,
    /// Its outline, edge by edge, against the clock.
    pub edges: Vec<Edge>,
    /// Its darts.
    pub darts: Vec<PieceDart>,
    /// Along the warp.
    pub grain: [Point; 2],
    /// How many are cut.
    pub cut: u8,
    /// Levels that cross it, and how high.
    pub levels: Vec<(Level, f64)>,
    /// Places inside that a file marks by drill holes; those of its darts follow from them.
    pub drills: Vec<Point>,
}

/// Holes that lie so near to each other, in mm, are one.
pub(super) const SAME_HOLE: f64 = 1.0;
/// A hole lies so far inside the point of a dart, in mm, so that it is sewn over (teaching value), but no further than halfway.
const DRILLED: f64 = 10.0;

/// Where the points of a dart are marked by drill holes.
pub(super) fn drilled(mouth: [Point; 2], point: Point, other: Option<Point>) -> Vec<Point> {
    let middle = mouth[0].midpoint(mouth[1]);
    let inside = |p: Point| p.lerp(middle, (DRILLED / p.distance(middle).max(EXACT)).min(0.5));
    [point].into_iter().chain(other).map(inside).collect()
}

impl Edge {
    pub(super) fn new(name: EdgeName, curves: Vec<CubicBez>) -> Self {
        Self { name, second: false, curves, allowance: 0.0, notches: Vec::new(), eased: None }
    }

    pub(super) fn line(name: EdgeName, from: Point, to: Point) -> Self {
        Self::new(name, vec![straight(from, to)])
    }

    /// Its first corner.
    pub fn start(&self) -> Point {
        self.curves.first().map(|c| c.p0).unwrap_or_default()
    }

    /// Its last corner.
    pub fn end(&self) -> Point {
        self.curves.last().map(|c| c.p3).unwrap_or_default()
    }

    /// How long it is.
    pub fn length(&self) -> f64 {
        self.curves.iter().map(|c| c.arclen(EXACT)).sum()
    }

    /// The point so far along it, and which way it runs there.
    pub fn at(&self, along: f64) -> (Point, Vec2) {
        let mut left = along.max(0.0);
        for (n, curve) in self.curves.iter().enumerate() {
            let length = curve.arclen(EXACT);
            if left <= length || n + 1 == self.curves.len() {
                let t = if length > 0.0 { curve.inv_arclen(left.min(length), EXACT) } else { 0.0 };
                return (curve.eval(t), way_of(curve, t));
            }
            left -= length;
        }
        (self.start(), Vec2::new(1.0, 0.0))
    }

    /// Which way it leaves its first corner, and which way it comes to its last.
    pub fn ways(&self) -> [Vec2; 2] {
        let first = self.curves.first().map(|c| way_of(c, 0.0));
        let last = self.curves.last().map(|c| way_of(c, 1.0));
        [first.unwrap_or_default(), last.unwrap_or_default()]
    }

    /// Moves its first corner, and the curve beside it.
    pub(super) fn set_start(&mut self, to: Point) {
        if let Some(first) = self.curves.first_mut() {
            let by = to - first.p0;
            first.p1 = if is_straight(first) { to.lerp(first.p3, 1.0 / 3.0) } else { first.p1 + by };
            first.p2 = if is_straight(first) { to.lerp(first.p3, 2.0 / 3.0) } else { first.p2 };
            first.p0 = to;
        }
    }

    /// It runs straight from its first corner to its last, in however many curves.
    pub(super) fn is_straight(&self) -> bool {
        let chord = kurbo::Line::new(self.start(), self.end());
        let off = |p: Point| chord.nearest(p, EXACT).distance_sq;
        self.curves.iter().all(|c| is_straight(c) && off(c.p3) < STRAIGHT * STRAIGHT)
    }

    /// As path data of SVG, to what is kept of a millimetre.
    pub(super) fn path_data(&self) -> String {
        let near = |p: Point| Point::from((kept(p.x), kept(p.y)));
        let mut path = BezPath::new();
        path.move_to(near(self.start()));
        for c in &self.curves {
            match is_straight(c) {
                true => path.line_to(near(c.p3)),
                false => path.curve_to(near(c.p1), near(c.p2), near(c.p3)),
            }
        }
        path.to_svg()
    }

    /// The place on it that is nearest to a point.
    pub(super) fn nearest(&self, to: Point) -> Point {
        self.at(along_curves(&self.curves, to)).0
    }

    /// Moves its last corner, and the curve beside it.
    pub(super) fn set_end(&mut self, to: Point) {
        self.curves.reverse();
        self.curves.iter_mut().for_each(|c| *c = turned(c));
        self.set_start(to);
        self.curves.reverse();
        self.curves.iter_mut().for_each(|c| *c = turned(c));
    }

    /// Cuts off its beginning; a hair of it is left at least.
    pub(super) fn cut_off(&mut self, along: f64) {
        self.notches.retain(|notch| notch.along > along);
        self.notches.iter_mut().for_each(|notch| notch.along -= along);
        let mut left = along;
        while let Some(first) = self.curves.first().copied() {
            let length = first.arclen(EXACT);
            if left < length - EXACT || self.curves.len() == 1 {
                let at = first.inv_arclen(left.min(length - HAIR).max(0.0), EXACT);
                self.curves[0] = first.subsegment(at..1.0);
                return;
            }
            left -= length;
            self.curves.remove(0);
        }
    }

    /// Cuts off its end.
    pub(super) fn cut_off_end(&mut self, along: f64) {
        let mut edge = self.clone().turned();
        edge.cut_off(along);
        *self = edge.turned();
    }

    /// The same the other way round.
    pub(super) fn turned(mut self) -> Self {
        let long = if self.notches.is_empty() { 0.0 } else { self.length() };
        self.notches.iter_mut().for_each(|notch| notch.along = long - notch.along);
        self.curves.reverse();
        self.curves.iter_mut().for_each(|c| *c = turned(c));
        self
    }
}

fn turned(c: &CubicBez) -> CubicBez {
    CubicBez::new(c.p3, c.p2, c.p1, c.p0)
}

pub(super) fn is_straight(c: &CubicBez) -> bool {
    let off = |p: Point| (p - c.p0).cross(c.p3 - c.p0).abs();
    off(c.p1) < 1e-6 && off(c.p2) < 1e-6
}

/// Where a curve and a straight meet, as shares of both. A straight curve is met as one: as a cubic whose higher terms are all but nought it may be
/// missed, or met beside the straight, so where it is met is found again from there (Newton).
pub(super) fn meetings(curve: &CubicBez, line: Line) -> Vec<[f64; 2]> {
    let way = line.p1 - line.p0;
    if is_straight(curve) {
        let hits = PathSeg::Line(Line::new(curve.p0, curve.p3)).intersect_line(line);
        let share = |t: f64| curve.nearest(curve.p0.lerp(curve.p3, t), EXACT).t;
        return hits.iter().map(|hit| [share(hit.segment_t), hit.line_t]).collect();
    }
    let off = |t: f64| (curve.eval(t) - line.p0).cross(way);
    let steep = |t: f64| curve.deriv().eval(t).to_vec2().cross(way);
    let step = |t: f64, _| if steep(t) == 0.0 { t } else { (t - off(t) / steep(t)).clamp(0.0, 1.0) };
    let mut met: Vec<f64> =
        PathSeg::Cubic(*curve).intersect_line(line).iter().map(|hit| hit.segment_t).collect();
    if met.is_empty() && off(0.0) * off(1.0) < 0.0 {
        met.push(0.5);
    }
    let met =
        met.into_iter().map(|t| (0..NEWTON).fold(t, step)).filter(|t| off(*t).abs() <= EXACT * way.hypot());
    let on_line = met.map(|t| [t, (curve.eval(t) - line.p0).dot(way) / way.hypot2()]);
    on_line.filter(|[_, on_line]| (-EXACT..=1.0 + EXACT).contains(on_line)).collect()
}

/// So many steps find where a curve meets a straight to the last digit.
const NEWTON: usize = 8;

/// Which way a curve runs.
pub(super) fn way_of(curve: &CubicBez, t: f64) -> Vec2 {
    let way = curve.deriv().eval(t).to_vec2();
    let way = if way.hypot() > 1e-9 {
        way
    } else if t < 0.5 {
        curve.eval(t + 1e-3) - curve.eval(t)
    } else {
        curve.eval(t) - curve.eval(t - 1e-3)
    };
    if way.hypot() > 0.0 { way.normalize() } else { Vec2::new(1.0, 0.0) }
}

/// Where an edge turns by more it has a corner, in degrees (teaching value: a curve that is drawn smooth turns by less in one place).
const CORNER: f64 = 20.0;

/// What goes on behind a curve turns away from it.
pub(super) fn is_corner(before: &CubicBez, after: &CubicBez) -> bool {
    let [into, out] = [way_of(before, 1.0), way_of(after, 0.0)];
    into.cross(out).atan2(into.dot(out)).to_degrees().abs() > CORNER
}

/// It runs down the middle of its face.
pub(super) fn is_middle(name: EdgeName) -> bool {
    match name {
        EdgeName::Fold | EdgeName::Opening => true,
        EdgeName::Seam(seam) => {
            matches!(seam, Seam::CentreFront | Seam::CentreBack | Seam::SeatSeam | Seam::FrontRise)
        }
        EdgeName::Waist
        | EdgeName::Hem
        | EdgeName::Neckline
        | EdgeName::End
        | EdgeName::Top
        | EdgeName::Inner => false,
    }
}

impl Piece {
    /// The edge of a name.
    pub fn edge(&self, name: EdgeName) -> Option<&Edge> {
        self.edges.iter().find(|edge| edge.name == name)
    }

    /// Its stitching lines, once round.
    pub fn outline(&self) -> BezPath {
        let mut path = BezPath::new();
        if let Some(first) = self.edges.first() {
            path.move_to(first.start());
        }
        for curve in self.edges.iter().flat_map(|edge| &edge.curves) {
            if is_straight(curve) {
                path.line_to(curve.p3);
            } else {
                path.curve_to(curve.p1, curve.p2, curve.p3);
            }
        }
        path.close_path();
        path
    }

    /// How much cloth lies inside its stitching lines, in mm².
    pub fn area(&self) -> f64 {
        self.outline().area().abs()
    }

    /// What its darts take of an edge.
    pub fn taken_of(&self, edge: &Edge) -> f64 {
        self.darts.iter().filter(|d| d.other.is_none() && is_on(edge, d)).map(PieceDart::takes).sum()
    }

    /// How far along an edge a place lies once its darts are closed, and what is eased in is spread evenly.
    pub fn sewn_along(&self, edge: &Edge, along: f64) -> f64 {
        let on = self.darts.iter().filter(|d| d.other.is_none() && is_on(edge, d));
        let taken = on.map(|dart| {
            let [a, b] = dart.mouth.map(|p| along_curves(&edge.curves, p));
            (along - a.min(b)).clamp(0.0, (a - b).abs())
        });
        let closed = along - taken.sum::<f64>();
        let Some(eased) = edge.eased else { return closed };
        closed * (1.0 - eased.by_mm / (edge.length() - self.taken_of(edge)).max(EXACT))
    }

    /// How long an edge is once its darts are closed, and what is eased in is.
    pub fn sewn(&self, edge: &Edge) -> f64 {
        edge.length() - self.taken_of(edge) - edge.eased.map_or(0.0, |eased| eased.by_mm)
    }

    /// Every drill mark: those of its darts that are stitched, and its own.
    pub fn drill_marks(&self) -> Vec<Point> {
        let stitched = self.darts.iter().filter(|dart| dart.loose.is_none());
        let of_darts = stitched.flat_map(|dart| drilled(dart.mouth, dart.point, dart.other));
        of_darts.chain(self.drills.iter().copied()).collect()
    }

    /// Whether it laps over the middle: with a stand for buttons, or as a front that wraps over, whose neckline runs on there.
    pub(super) fn laps(&self) -> bool {
        let runs_over = |edge: &Edge| edge.start().x.min(edge.end().x) < -1.0;
        let has_middle = self.edges.iter().any(|edge| is_middle(edge.name));
        self.edge(EdgeName::Opening).is_some()
            || !has_middle && self.edge(EdgeName::Neckline).is_some_and(runs_over)
    }

    /// What goes across it at a height, once its darts are closed: from the leftmost to the rightmost place where it is cut there. Nothing
    /// where it is not that high or not that low.
    pub fn across(&self, y: f64) -> Option<f64> {
        let [least, most] = self.reach(y)?;
        Some(most - least - self.darts.iter().map(|dart| taken_at(dart, y)).sum::<f64>())
    }

    /// From where to where it reaches at a height.
    pub(super) fn reach(&self, y: f64) -> Option<[f64; 2]> {
        let curves = self.edges.iter().flat_map(|edge| &edge.curves);
        let mut met: Vec<f64> = Vec::new();
        for curve in curves {
            let line = Line::new((-1e4, y), (1e4, y));
            met.extend(meetings(curve, line).into_iter().map(|[t, _]| curve.eval(t).x));
            met.extend([curve.p0, curve.p3].iter().filter(|p| (p.y - y).abs() < 1e-6).map(|p| p.x));
        }
        Some([met.iter().copied().reduce(f64::min)?, met.iter().copied().reduce(f64::max)?])
    }

    /// The box around its stitching lines.
    pub fn bounds(&self) -> kurbo::Rect {
        self.edges
            .iter()
            .flat_map(|e| &e.curves)
            .map(Shape::bounding_box)
            .reduce(|a, b| a.union(b))
            .unwrap_or_default()
    }
}

/// An outline is laid as straights so near to it, in mm, to tell what lies within.
const BESIDE: f64 = 0.01;

/// Whether points lie within an outline. Of curves themselves the library asks on which side one lies only where they rise or fall to the last digit, which curves
/// that were cut in two do not always do.
pub(super) fn within(outline: &BezPath) -> impl Fn(Point) -> bool + use<> {
    let mut straight = BezPath::new();
    kurbo::flatten(outline, BESIDE, |line| straight.push(line));
    move |point| straight.winding(point) != 0
}

/// A dart begins on an edge.
pub(super) fn is_on(edge: &Edge, dart: &PieceDart) -> bool {
    let near = |p: Point| edge.curves.iter().any(|c| c.nearest(p, EXACT).distance_sq < 0.25);
    dart.mouth.iter().all(|p| near(*p))
}

/// What a dart takes of the width at a height.
pub(super) fn taken_at(dart: &PieceDart, y: f64) -> f64 {
    let mouth = dart.mouth[0].midpoint(dart.mouth[1]);
    // One from the side takes length, not width; one that is not stitched takes nothing beside its edge.
    let is_across = (dart.mouth[0].x - dart.mouth[1].x).abs() >= (dart.mouth[0].y - dart.mouth[1].y).abs();
    if dart.loose.is_some() || !is_across {
        return 0.0;
    }
    let towards = |point: Point| {
        let share = (y - point.y) / (mouth.y - point.y);
        if (0.0..=1.0).contains(&share) { dart.takes() * share } else { 0.0 }
    };
    match dart.other {
        Some(other) => towards(dart.point).max(towards(other)),
        None => towards(dart.point),
    }
}

/// How far along curves the place nearest to a point lies.
pub(super) fn along_curves(curves: &[CubicBez], point: Point) -> f64 {
    let (mut nearest, mut at, mut done) = (f64::INFINITY, 0.0, 0.0);
    for curve in curves {
        let near = curve.nearest(point, 1e-3);
        if near.distance_sq < nearest {
            nearest = near.distance_sq;
            at = done + curve.subsegment(0.0..near.t).arclen(1e-3);
        }
        done += curve.arclen(1e-3);
    }
    at
}
