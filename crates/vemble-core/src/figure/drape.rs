//! The garment on its wearer: where its edges and seams lie, before and after the changes.
//!
//! What hangs from the shoulders hangs with its own shoulder at the wearer's, what hangs from the waist with its own waist
//! at the wearer's; everything else follows from its stations and girths.

use super::limb::Limb;
use super::pose::Pose;
use crate::body::Landmark;
use crate::change::Curve;
use crate::change::seam::AlteredSeam;
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Neckline, Round, Run, Seam, UNDERARM_ABOVE_BUST};
use crate::place::Level;
use kurbo::{BezPath, Point};
use std::f64::consts::PI;

/// A garment on a body. Lengths in cm, heights above the floor, x from the middle.
pub(crate) struct Drape<'a> {
    pub garment: &'a Garment,
    pub pose: &'a Pose<'a>,
    /// Height of its hem: a station on the body is this much lower than its height.
    pub base: f64,
    /// Half the width of the trunk from the hem to the underarm or waist; with legs, the outer edge of one.
    pub outer: Curve,
    /// The inner edge of a leg, hem to crotch.
    pub inner: Option<Curve>,
    /// Back and front from the side.
    pub back: Curve,
    pub front: Curve,
    /// Top of the outer edge.
    pub top: f64,
    pub shoulder: Option<Shoulder>,
    pub sleeve: Option<Sleeve>,
}

/// Neck and shoulders of a garment that hangs from them.
#[derive(Clone, Copy)]
pub(crate) struct Shoulder {
    /// The tip of the shoulder, without any drop.
    pub tip: Point,
    /// Where the neckline meets the shoulder seam.
    pub neck: Point,
    /// Height of the neckline at the centre front and back.
    pub front: f64,
    pub back: f64,
}

pub(crate) struct Sleeve {
    pub length: f64,
    /// Girths by distance from the tip, the widest first.
    pub girths: Vec<(f64, f64)>,
}

impl<'a> Drape<'a> {
    /// Hangs `garment` on a body; nothing where too little of it is known to draw.
    pub fn new(garment: &'a Garment, pose: &'a Pose<'a>) -> Option<Self> {
        let levels = garment.body_levels_up();
        let base = base(garment, pose)?;
        let up = |l: &crate::garment::GarmentLevel| base + l.station.length.cm();
        let thigh = garment.level(Level::Thigh).map_or(60.0, |l| l.width.girth().cm());
        let (mut outer, mut inner) = (Vec::new(), Vec::new());
        let (mut back, mut front) = (Vec::new(), Vec::new());
        for level in levels.iter().filter(|l| !matches!(l.level, Level::Neck | Level::Shoulder)) {
            let (h, girth) = (up(level), level.width.girth().cm());
            if garment.round(level.level) == Round::Leg {
                let (half, middle) = (Pose::half_limb(girth), pose.leg_middle(h, thigh));
                outer.push((h, middle + half));
                inner.push((h, middle - half));
                let deep = pose.half_leg_depth(h, girth);
                back.push((h, pose.middle(h) - deep));
                front.push((h, pose.middle(h) + deep));
            } else {
                outer.push((h, pose.half_width(h, girth)));
                let (b, f) = pose.depth(h, girth);
                back.push((h, b));
                front.push((h, f));
            }
        }
        let inner = garment.has_legs().then(|| {
            let crotch = garment.level(Level::Thigh).map_or(pose.body.up(Landmark::Crotch), |l| up(l) + 1.5);
            inner.push((crotch, 0.0));
            inner
        });
        let shoulder = Shoulder::of(garment, pose, base);
        let highest = outer.last()?.0;
        let strapless = garment.neckline() == Neckline::Strapless;
        if shoulder.is_some() || strapless {
            let (h, x) = *outer.last()?;
            outer.push((h + UNDERARM_ABOVE_BUST, x - 0.3));
            let (b, f) = (back.last()?.1, front.last()?.1);
            if let Some(shoulder) = shoulder {
                let (tip, neck) = (shoulder.tip.y, shoulder.back);
                back.push((f64::midpoint(h + UNDERARM_ABOVE_BUST, tip), b + 0.4));
                back.push((neck, pose.middle(neck) - pose.half_neck() - 0.3));
                // However deep the neckline is cut, from the side its edge runs up to the neck.
                let pit = pose.body.up(Landmark::FrontNeck) - 1.0;
                front.push((pit, (pose.middle(neck) + pose.half_neck() + 0.8).min(f)));
            } else {
                back.push((h + UNDERARM_ABOVE_BUST, b));
                front.push((h + UNDERARM_ABOVE_BUST, f - 0.4));
            }
        }
        let enough =
            |points: &Vec<(f64, f64)>| points.len() > 1 && points.windows(2).all(|w| w[0].0 < w[1].0);
        if ![&outer, &back, &front].into_iter().all(enough) || inner.as_ref().is_some_and(|i| !enough(i)) {
            return None;
        }
        let top = if shoulder.is_some() || strapless { highest + UNDERARM_ABOVE_BUST } else { highest };
        Some(Self {
            garment,
            pose,
            base,
            outer: Curve::without_swings(&outer),
            inner: inner.map(|i| Curve::without_swings(&i)),
            back: Curve::without_swings(&back),
            front: Curve::without_swings(&front),
            top,
            shoulder,
            sleeve: Sleeve::of(garment),
        })
    }

    /// The same after the changes on one side: a girth reads as 1/π of itself across, so what a seam takes off both its
    /// edges moves the outline by 1/π of that, on the side of the seam.
    pub fn altered(&self, seams: &[&AlteredSeam<'_>], side: GarmentSide) -> (Curve, Option<Curve>) {
        let (mut outer, mut inner) = (self.outer.clone(), self.inner.clone());
        for seam in seams.iter().filter(|s| s.facts.seam.run() == Run::Down) {
            // A centre seam takes half of its whole off either side.
            let share = if seam.facts.seam.is_single() { 0.5 } else { 1.0 };
            let line = seam.line(side);
            let edges: &[_] = match line.has_equal_edges() {
                true => &[(&line.front, 2.0)],
                false => &[(&line.front, 1.0), (&line.back, 1.0)],
            };
            for (edge, times) in edges {
                let moved = edge.along(self.up_on(seam.facts.seam, 0.0));
                match (&mut inner, seam.facts.seam) {
                    (Some(inner), Seam::Inseam) => *inner = inner.plus(times * share / PI, &moved),
                    _ => outer = outer.plus(-times * share / PI, &moved),
                }
            }
        }
        (outer, inner)
    }

    /// Height of a station on a seam.
    pub fn up_on(&self, seam: Seam, station: f64) -> f64 {
        self.base + self.garment.height_of_datum(seam).cm() + station
    }

    /// Height of a level of the garment. Nothing where the garment has no such level.
    pub fn up_at(&self, level: Level) -> Option<f64> {
        Some(self.base + self.garment.level(level)?.station.length.cm())
    }

    /// Height of the lower edge of the waistband, or of the waist.
    pub fn below_band(&self) -> f64 {
        let waist = self.up_at(Level::Waist).unwrap_or(self.top);
        waist - self.garment.waistband_depth.map_or(0.0, |d| d.length.cm())
    }

    /// The sleeve on one side, after the changes of its own seams if there are any.
    pub fn sleeve(&self, tip: Point) -> Option<Limb> {
        let sleeve = self.sleeve.as_ref()?;
        // The sleeve begins a little inside the trunk, which lies over it.
        let underarm = Point::new(self.outer.at(self.top) - 2.4, self.top);
        Limb::new(sleeve.length, &sleeve.girths, tip, underarm)
    }

    /// From the tip of the shoulder round to the underarm.
    pub fn armhole(&self, tip: Point) -> BezPath {
        let underarm = Point::new(self.outer.at(self.top), self.top);
        let drop = tip.y - underarm.y;
        let mut path = BezPath::new();
        path.move_to(tip);
        path.curve_to(
            (tip.x - 1.8, tip.y - 0.45 * drop),
            (tip.x - 1.6, underarm.y + 0.08 * drop),
            (underarm.x, underarm.y),
        );
        path
    }

    /// The tip of the shoulder on one side. Nothing where no shoulders are drawn.
    pub fn tip(&self, side: GarmentSide) -> Option<Point> {
        let drop = self.pose.shoulder_drop(side == GarmentSide::Left);
        self.shoulder.map(|s| Point::new(s.tip.x, s.tip.y - drop))
    }
}

impl Shoulder {
    fn of(garment: &Garment, pose: &Pose<'_>, base: f64) -> Option<Self> {
        let level = garment.level(Level::Shoulder)?;
        let tip = Point::new(level.width.girth().cm() / 4.0, base + level.station.length.cm());
        let around = garment.level(Level::Neck).map_or(40.0, |l| l.width.girth().cm());
        // On a body the neckline is an oval of the measured girth: how wide and how deep it is, by its style (drawing values).
        let round = around / (2.0 * PI);
        let wide = match garment.neckline() {
            Neckline::Boat => 1.5,
            Neckline::Square => 1.1,
            Neckline::Wrap => 1.05,
            Neckline::Round | Neckline::High | Neckline::V | Neckline::None | Neckline::Strapless => 1.0,
        };
        // Inside the tips of the shoulders, however narrow those were measured.
        let half = (round * wide).max(pose.half_neck() * 0.9).min((tip.x - 1.5).max(tip.x * 0.5));
        // On the slope from the neck to the tip.
        let slope = (pose.neck_side() - tip.y).max(1.0);
        let run = (tip.x - pose.half_neck()).max(1.0);
        let neck = Point::new(half, tip.y + slope * ((tip.x - half) / run).min(1.0));
        let back = neck.y + 0.8 - (half - pose.half_neck()).max(0.0) * 0.25;
        let front = neck.y - garment.styled_neck_depth();
        Some(Self { tip, neck, front, back: back.min(neck.y + 0.8) })
    }

    /// The neckline from the centre to the shoulder seam.
    pub fn neckline(&self, garment: &Garment, from_front: bool) -> BezPath {
        let mut path = BezPath::new();
        let centre = if from_front { self.front } else { self.back };
        let depth = self.neck.y - centre;
        path.move_to((0.0, centre));
        match garment.neckline() {
            Neckline::V | Neckline::Wrap if from_front => path.line_to(self.neck),
            Neckline::Square if from_front => {
                path.line_to((self.neck.x * 0.92, centre));
                path.line_to(self.neck);
            }
            Neckline::None
            | Neckline::Round
            | Neckline::High
            | Neckline::Boat
            | Neckline::V
            | Neckline::Square
            | Neckline::Wrap
            | Neckline::Strapless => path.curve_to(
                (self.neck.x * 0.6, centre),
                (self.neck.x, centre + depth * 0.45),
                (self.neck.x, self.neck.y),
            ),
        }
        path
    }
}

impl Sleeve {
    fn of(garment: &Garment) -> Option<Self> {
        let length = garment.sleeve_length?.length.cm();
        let mut girths: Vec<(f64, f64)> = garment
            .sleeve_levels_up()
            .iter()
            .map(|l| (length - l.station.length.cm(), l.width.girth().cm()))
            .filter(|g| g.0 >= 0.0)
            .collect();
        girths.reverse();
        (length > 2.0 && !girths.is_empty()).then_some(Self { length, girths })
    }
}

fn base(garment: &Garment, pose: &Pose<'_>) -> Option<f64> {
    [Level::Shoulder, Level::Bust, Level::Waist, Level::Hip, Level::Thigh]
        .into_iter()
        .filter(|level| *level != Level::Bust || garment.neckline() == Neckline::Strapless)
        .find_map(|level| {
            let station = garment.level(level)?.station.length.cm();
            Some(pose.body.up_at(level)? - station)
        })
}
