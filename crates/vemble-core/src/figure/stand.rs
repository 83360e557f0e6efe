//! The stand: the garment on its wearer's figure, from the front and from the back, as it is and as it will be.
//!
//! A girth is drawn as wide as it looks when worn: round at the leg (girth ÷ π), a flat oval at hip and waist. Body
//! and garment follow the same rule, so the gap between them is their ease. x is 0 at the centre, y runs down
//! from the waist.

use super::{hundredths, svg};
use crate::body::BodyMeasurement;
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Level, Seam};
use crate::length::Length;
use crate::line::{AlteredSeam, Curve};
use kurbo::{BezPath, Point};
use serde::Serialize;
use std::f64::consts::PI;
use utoipa::ToSchema;

/// The drawing of a garment.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Stand {
    /// Width of each view in mm; x runs from minus half of it.
    pub width_mm: f64,
    /// Height of each view in mm.
    pub height_mm: f64,
    /// The cloth's colour.
    pub colour: String,
    /// Front, then back.
    pub views: Vec<View>,
}

/// The side one looks at.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ViewSide {
    /// From the front: the garment's left is on the right of the drawing.
    Front,
    /// From the back.
    Back,
}

/// One view.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct View {
    /// From where.
    pub view: ViewSide,
    /// The wearer's body, where enough of it is measured.
    pub body: Option<String>,
    /// Outline of the garment as it is.
    pub outline: String,
    /// Outline of the garment after the changes, where there are any.
    pub outline_after: Option<String>,
    /// Seams, edges and openings.
    pub parts: Vec<Part>,
    /// Levels, from the top down.
    pub levels: Vec<StandLevel>,
}

/// A part that can be picked.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Part {
    /// What it is, in words: "outseam, garment's left".
    pub name: String,
    /// The seam it is, if it is one that can be altered.
    pub seam: Option<Seam>,
    /// The garment's side, where it has one.
    pub side: Option<GarmentSide>,
    /// As it is.
    pub path: String,
    /// After the changes, only the stretch that moves.
    pub after: Option<String>,
}

/// A level across the drawing.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StandLevel {
    /// Which level.
    pub level: Level,
    /// Its height on the drawing, in mm from the top.
    pub y_mm: f64,
    /// Where the garment's edge is at this level, in mm from the centre.
    pub edge_mm: f64,
}

/// How much wider than a circle of the same girth a level looks from the front.
///
/// An oval k times as wide as deep has, to within a percent, the half width g/2π × √(2/(1 + 1/k²)); k is about 1.35 at
/// the waist and 1.45 at the hip of an adult (drawing values), 1 at the legs.
fn oval(level: Level) -> f64 {
    let k: f64 = match level {
        Level::Waist => 1.35,
        Level::Hip => 1.45,
        _ => 1.0,
    };
    (2.0 / (1.0 + 1.0 / (k * k))).sqrt()
}

/// Outer and inner edge of one half of a figure, over the station in cm.
struct Half {
    outer: Curve,
    inner: Curve,
    crotch: f64,
}

/// Room between the thighs at the crotch, in cm (drawing value).
const BETWEEN_LEGS: f64 = 0.3;
/// How far the feet stand out from under the thighs, in cm (drawing value).
const STANCE: f64 = 2.0;

impl Half {
    /// From girths at levels, hem first. `centre` gives the middle of the leg at a station.
    fn new(girths: &[(Level, f64, Length)], centre: impl Fn(f64) -> f64) -> Option<Self> {
        let (mut outer, mut inner) = (Vec::new(), Vec::new());
        for &(level, s, girth) in girths {
            let half = girth.cm() / (2.0 * PI) * oval(level);
            if level.is_of_one_leg() {
                outer.push((s, centre(s) + half));
                inner.push((s, centre(s) - half));
            } else {
                outer.push((s, half));
            }
        }
        let crotch = inner.last()?.0 + 1.5;
        inner.push((crotch, 0.0));
        (inner.len() > 2 && outer.len() > inner.len() - 1).then(|| Self {
            outer: Curve::without_swings(&outer),
            inner: Curve::without_swings(&inner),
            crotch,
        })
    }

    /// Taken in: each girth reads as 1/π of itself across.
    fn taken_in(&self, seams: &[AlteredSeam<'_>], side: GarmentSide) -> Self {
        let mut half = Self { outer: self.outer.clone(), inner: self.inner.clone(), crotch: self.crotch };
        for seam in seams {
            let line = seam.line(side);
            for curve in [&line.front, &line.back] {
                match seam.facts.seam {
                    Seam::Outseam => half.outer = half.outer.plus(-1.0 / PI, curve),
                    Seam::Inseam => half.inner = half.inner.plus(1.0 / PI, curve),
                }
            }
        }
        half
    }
}

/// Draws `garment` with the lines of `seams` on its wearer.
pub fn stand(garment: &Garment, seams: &[AlteredSeam<'_>]) -> Stand {
    let levels = garment.levels_up();
    let girths: Vec<_> = levels.iter().map(|l| (l.level, l.station.length.cm(), l.width.girth())).collect();
    let thigh =
        girths.iter().find(|g| g.0 == Level::Thigh).map(|g| (g.1, g.2.cm() / (2.0 * PI) + BETWEEN_LEGS));
    let (top, colour) = (girths.last().map_or(0.0, |g| g.1), String::from(garment.cloth.colour.clone()));
    let Some((thigh_station, thigh_centre)) = thigh.filter(|t| t.0 > 0.0) else {
        return Stand { width_mm: 400.0, height_mm: 400.0, colour, views: Vec::new() };
    };
    let centre = move |s: f64| thigh_centre + STANCE * (1.0 - s / thigh_station).max(0.0);
    let Some(half) = Half::new(&girths, centre) else {
        return Stand { width_mm: 400.0, height_mm: 400.0, colour, views: Vec::new() };
    };
    let body: Vec<_> = levels
        .iter()
        .filter_map(|l| {
            let what = l.level.body().unwrap_or(BodyMeasurement::AnkleGirth);
            Some((l.level, l.station.length.cm(), garment.wearer.get(what)?))
        })
        .collect();
    let body = Half::new(&body, centre);
    let changed = seams.iter().any(|s| s.span().is_some());
    let after = GarmentSide::BOTH.map(|side| half.taken_in(seams, side));
    let reach = half.outer.range(0.0, top).1;
    let views = [ViewSide::Front, ViewSide::Back].map(|view| {
        let draw = Draw { view, top, band: garment.waistband_depth.map(|d| d.length.cm()) };
        View {
            view,
            body: body.as_ref().map(|b| svg(&draw.outline(&[b, b]))),
            outline: svg(&draw.outline(&[&half, &half])),
            outline_after: changed.then(|| svg(&draw.outline(&[&after[0], &after[1]]))),
            parts: draw.parts(garment, seams, &half, changed.then_some(&after)),
            levels: girths
                .iter()
                .rev()
                .map(|g| StandLevel {
                    level: g.0,
                    y_mm: hundredths((top - g.1) * 10.0),
                    edge_mm: hundredths(half.outer.at(g.1) * 10.0),
                })
                .collect(),
        }
    });
    Stand {
        width_mm: hundredths(reach * 20.0),
        height_mm: hundredths(top * 10.0),
        colour,
        views: views.into(),
    }
}

struct Draw {
    view: ViewSide,
    top: f64,
    band: Option<f64>,
}

impl Draw {
    /// Where a point of one side lies: seen from the front, the garment's left is on the right.
    fn place(&self, side: GarmentSide, s: f64, x: f64) -> Point {
        let across = match (self.view, side) {
            (ViewSide::Front, GarmentSide::Left) | (ViewSide::Back, GarmentSide::Right) => x,
            _ => -x,
        };
        Point::new(across * 10.0, (self.top - s) * 10.0)
    }

    fn edge(&self, side: GarmentSide, curve: &Curve) -> BezPath {
        curve.path(|s, x| self.place(side, s, x))
    }

    /// Down one leg, up to the crotch, down and up the other, across the waist.
    fn outline(&self, halves: &[&Half; 2]) -> BezPath {
        let mut outline = BezPath::new();
        let mut join = |path: BezPath| {
            for element in path {
                match element {
                    kurbo::PathEl::MoveTo(p) if outline.elements().is_empty() => outline.move_to(p),
                    kurbo::PathEl::MoveTo(p) => outline.line_to(p),
                    other => outline.push(other),
                }
            }
        };
        let [left, right] = halves;
        join(self.edge(GarmentSide::Left, &left.outer).reverse_subpaths());
        join(self.edge(GarmentSide::Left, &left.inner));
        join(self.edge(GarmentSide::Right, &right.inner).reverse_subpaths());
        join(self.edge(GarmentSide::Right, &right.outer));
        outline.close_path();
        outline
    }

    fn parts(
        &self,
        garment: &Garment,
        seams: &[AlteredSeam<'_>],
        half: &Half,
        after: Option<&[Half; 2]>,
    ) -> Vec<Part> {
        let mut parts = Vec::new();
        for side in GarmentSide::BOTH {
            for (seam, of) in
                [(Seam::Outseam, (|h| &h.outer) as fn(&Half) -> &Curve), (Seam::Inseam, |h| &h.inner)]
            {
                let moved = seams
                    .iter()
                    .filter(|s| s.facts.seam == seam)
                    .find_map(|s| s.line(side).span())
                    .zip(after)
                    .map(|((from, to), after)| of(&after[side as usize]).between(from.0.cm(), to.0.cm()));
                parts.push(Part {
                    name: format!("{}, garment's {}", seam.name(), side.name()),
                    seam: garment.seam(seam).map(|s| s.seam),
                    side: Some(side),
                    path: svg(&self.edge(side, of(half))),
                    after: moved.map(|curve| svg(&self.edge(side, &curve))),
                });
            }
        }
        let mut line = |name: &str, from: Point, to: Point| {
            let mut path = BezPath::new();
            path.move_to(from);
            path.line_to(to);
            parts.push(Part { name: name.into(), seam: None, side: None, path: svg(&path), after: None });
        };
        let across = |s: f64| {
            let x = half.outer.at(s);
            (self.place(GarmentSide::Left, s, x), self.place(GarmentSide::Right, s, x))
        };
        let below_band = self.top - self.band.unwrap_or(0.0);
        if self.band.is_some() {
            let (left, right) = across(below_band);
            line("waistband seam", left, right);
        }
        let middle = |s| self.place(GarmentSide::Left, s, 0.0);
        let name = if self.view == ViewSide::Front { "centre front" } else { "centre back" };
        line(name, middle(below_band), middle(half.crotch));
        for thing in garment.seam(Seam::Outseam).iter().flat_map(|s| &s.in_the_way) {
            let (low, high) = (thing.from.length.cm(), thing.to.length.cm());
            for side in GarmentSide::BOTH {
                // Laid a finger's breadth inside the seam it sits in.
                let at = |s: f64| self.place(side, s, half.outer.at(s) - 1.2);
                line(&thing.what, at(low), at(high));
            }
        }
        parts
    }
}
