//! The neckline, as it lies flat: how deep it is cut in front, so that all of it is as long as it was measured, and how much longer it is once it is cut lower.

use super::faces::SLOPE;
use super::{Closure, Collar, Garment, Neckline, Opening, Seam};
use crate::place::Level;
use kurbo::{CubicBez, ParamCurve, ParamCurveArclen, ParamCurveDeriv, Point, Vec2};
use std::f64::consts::PI;

/// A back neckline lies so far below the neck point in the middle, in cm (teaching value).
pub(crate) const BACK_NECK: f64 = 2.0;
/// A front neckline lies so far below it at least, in cm (teaching value: it goes round the neck in front, or cuts into it).
pub(crate) const HIGHEST_NECK: f64 = 1.0;
/// A neck that nobody measured goes round so much, in cm.
const USUAL: f64 = 40.0;
/// A neckline is lowered so often until it is as long as it is to be; each time what is left becomes half of it or less.
const FIXES: usize = 24;
/// It is looked at in so many places of each of its curves, and lengths are exact to so much, in cm.
const PLACES: usize = 32;
const EXACT: f64 = 1e-4;

impl Garment {
    /// What goes round at its neck was measured along the edge of its neckline: not where a front wraps over or turns back into lapels, whose edge goes on down.
    pub fn is_neck_its_edge(&self) -> bool {
        let wraps = self.closures.iter().any(|c| c.at == Opening::CentreFront && c.closure == Closure::Wrap);
        let ends_there = match self.neckline() {
            Neckline::Round | Neckline::High | Neckline::Boat | Neckline::V | Neckline::Square => true,
            Neckline::None | Neckline::Wrap | Neckline::Strapless => false,
        };
        ends_there && !wraps && self.collar() != Collar::Notched
    }

    /// How far below the neck point its front neckline lies in the middle, in cm, where it begins `half` cm from the middle: front and back together go round what
    /// was measured. By its style where its edge goes on down (drawing values).
    pub(crate) fn neck_depth(&self, half: f64) -> f64 {
        if !self.is_neck_its_edge() {
            return self.styled_neck_depth();
        }
        let (around, style) = (self.around_neck(), self.neckline());
        let long = |style, deep| -> f64 { flat(style, half, deep).iter().map(|c| c.arclen(EXACT)).sum() };
        let wanted = around / 2.0 - long(Neckline::Round, BACK_NECK);
        (0..FIXES).fold(half, |deep, _| (deep + wanted - long(style, deep)).max(HIGHEST_NECK))
    }

    /// The same as its style has it, round what was measured, in cm (drawing values).
    pub(crate) fn styled_neck_depth(&self) -> f64 {
        let times = match self.neckline() {
            Neckline::Boat => 0.5,
            Neckline::High => 0.95,
            Neckline::V => 2.6,
            Neckline::Wrap => 2.9,
            Neckline::Round | Neckline::Square | Neckline::None | Neckline::Strapless => 1.2,
        };
        self.around_neck() / (2.0 * PI) * times
    }

    fn around_neck(&self) -> f64 {
        self.level(Level::Neck).map_or(USUAL, |level| level.width.girth().cm())
    }

    /// How much longer half of its neckline is, in cm, once it is cut lower by `lower` cm at each share of the way from the middle in front to the middle behind, square to
    /// its edge, up to the shoulder and to both middles.
    pub(crate) fn neck_grows(&self, lower: impl Fn(f64) -> f64) -> f64 {
        let [front, back] = self.neck_edges();
        let share = self.share_in_front(Seam::NeckSeam);
        // Both run from the neck point to the middle.
        grows(&front, |along| lower(share * (1.0 - along)))
            + grows(&back, |along| lower(share + (1.0 - share) * along))
    }

    /// How large a share of a seam lies in front that goes round on one level: half of it, but of a neckline as much more as it lies lower there.
    pub(crate) fn share_in_front(&self, seam: Seam) -> f64 {
        if seam != Seam::NeckSeam {
            return 0.5;
        }
        let [front, back] =
            self.neck_edges().map(|curves| curves.iter().map(|c| c.arclen(EXACT)).sum::<f64>());
        front / (front + back)
    }

    /// Half of its neckline in front and behind, in cm.
    fn neck_edges(&self) -> [Vec<CubicBez>; 2] {
        let shoulder = self.level(Level::Shoulder).zip(self.seam(Seam::ShoulderSeam));
        let between = shoulder
            .map(|(across, seam)| across.width.girth().cm() / 4.0 - seam.length.length.cm() * SLOPE.cos());
        let half = between.unwrap_or(self.around_neck() / (2.0 * PI)).max(HIGHEST_NECK);
        [flat(self.neckline(), half, self.neck_depth(half)), flat(Neckline::Round, half, BACK_NECK)]
    }
}

/// Half of a neckline on a shoulder that slopes as usual, from the neck point to the middle, in cm.
fn flat(style: Neckline, half: f64, deep: f64) -> Vec<CubicBez> {
    let square = Vec2::new(SLOPE.sin(), SLOPE.cos());
    neck_edge(style, (Point::new(half, deep), square), Point::ZERO)
}

/// Half of a neckline in its style, from the neck point, square to the shoulder there (`across`, upwards), to the middle.
pub(crate) fn neck_edge(style: Neckline, (neck, across): (Point, Vec2), low: Point) -> Vec<CubicBez> {
    let straight =
        |from: Point, to: Point| CubicBez::new(from, from.lerp(to, 1.0 / 3.0), from.lerp(to, 2.0 / 3.0), to);
    match style {
        Neckline::V | Neckline::Wrap => vec![straight(neck, low)],
        Neckline::Square => {
            let corner = Point::new(neck.x * 0.92, low.y);
            vec![straight(neck, corner), straight(corner, low)]
        }
        Neckline::Boat | Neckline::High | Neckline::Round | Neckline::None | Neckline::Strapless => {
            let down = neck.y - low.y;
            // The deeper it is the more of its way it goes straight down. Level where it meets its mirror image.
            let deeper = (down / neck.x.max(1.0) - 1.0).clamp(0.0, 1.0);
            let reach = (down * (0.55 - 0.15 * deeper)).min(neck.x * 0.8);
            let level = (neck.x - low.x) * (0.6 + 0.25 * deeper);
            vec![CubicBez::new(neck, neck - across * reach, Point::new(low.x + level, low.y), low)]
        }
    }
}

/// How much longer curves from the neck point to the middle are once they are moved down by `lower` at each share of the way, on to the shoulder and to the middle.
fn grows(curves: &[CubicBez], lower: impl Fn(f64) -> f64) -> f64 {
    let all: f64 = curves.iter().map(|c| c.arclen(EXACT)).sum();
    let Some(neck) = curves.first() else { return 0.0 };
    // A line goes on, or is cut off, where it meets the next.
    let meets = |(at, way): (Point, Vec2), (on, runs): (Point, Vec2)| {
        let turns = way.cross(runs);
        if turns.abs() < 1e-6 { at } else { at + way * ((on - at).cross(runs) / turns) }
    };
    let mut before = 0.0;
    let mut moved: Vec<(Point, Vec2)> = Vec::new();
    for curve in curves {
        for n in 0..=PLACES {
            let t = n as f64 / PLACES as f64;
            let along = before + curve.subsegment(0.0..t).arclen(EXACT);
            let way = curve.deriv().eval(t).to_vec2().normalize();
            // From the neck point down, the cloth lies on the left.
            let here = (curve.eval(t) + Vec2::new(-way.y, way.x) * lower(along / all), way);
            if let Some(last) = moved.last().copied().filter(|_| n == 0) {
                moved.push((meets(last, here), way));
            }
            moved.push(here);
        }
        before += curve.arclen(EXACT);
    }
    let (Some(first), Some(last)) = (moved.first(), moved.last()) else { return 0.0 };
    let [start, end] = [
        meets(*first, (neck.p0, Vec2::new(SLOPE.cos(), -SLOPE.sin()))),
        meets(*last, (Point::ZERO, Vec2::new(0.0, 1.0))),
    ];
    let points: Vec<Point> = moved.iter().map(|(at, _)| *at).collect();
    let middle: f64 = points.windows(2).map(|pair| pair[0].distance(pair[1])).sum();
    // An end that is cut off counts against it.
    let end_long = |at: Point, to: Point, way: Vec2| (to - at).dot(way);
    middle + end_long(start, first.0, first.1) + end_long(last.0, end, last.1) - all
}
