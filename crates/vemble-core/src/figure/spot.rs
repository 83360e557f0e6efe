//! Where on the stand a pin sits.

use super::detail::seam_line;
use super::drape::Drape;
use super::pose::Pose;
use super::view::{Half, ViewSide};
use super::{Canvas, hundredths, mirrored};
use crate::body::{Proportions, Wearer};
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Run, Seam, SeamFacts};
use crate::length::Length;
use kurbo::{BezPath, ParamCurve, ParamCurveArclen, Point};
use serde::Serialize;
use utoipa::ToSchema;

/// A place on one view of the stand.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Spot {
    /// On which view.
    pub view: ViewSide,
    /// From the middle of the view, in mm.
    pub x_mm: f64,
    /// From the top of the view, in mm.
    pub y_mm: f64,
}

/// A place on a seam: side and station.
pub type OnSeam = (Seam, GarmentSide, Length);

/// Where the places are drawn; nothing for those that cannot be seen from front or back.
pub fn spots(garment: &Garment, wearer: &Wearer, wanted: &[OnSeam]) -> Vec<Option<Spot>> {
    let pose = Pose::of(Proportions::of(wearer));
    let Some(drape) = Drape::new(garment, &pose) else { return vec![None; wanted.len()] };
    wanted.iter().map(|place| spot(&drape, *place)).collect()
}

fn spot(drape: &Drape<'_>, (seam, side, station): OnSeam) -> Option<Spot> {
    let facts = drape.garment.seam(seam)?;
    let half = Half { side, outer: &drape.outer, inner: drape.inner.as_ref() };
    // Of a level seam the half from the side on lies behind.
    let in_front = drape.garment.share_in_front(seam);
    let is_behind = seam.is_level() && station.cm() > facts.end().cm() * in_front;
    let views = [ViewSide::Front, ViewSide::Back];
    let (view, path) = views
        .into_iter()
        .skip(usize::from(is_behind))
        .find_map(|view| Some((view, seam_line(drape, facts, view, half)?)))?;
    let path = if side == GarmentSide::Left { path } else { mirrored(&path) };
    let from_start = share_of((facts, in_front), station, view);
    let canvas = Canvas { top: drape.pose.body.height(), flipped: view != ViewSide::Front };
    let at = canvas.point(along(&path, from_start)?);
    Some(Spot { view, x_mm: hundredths(at.x), y_mm: hundredths(at.y) })
}

/// How far along its drawn line a station of a seam is, as a share of the line.
///
/// A line is drawn from its datum, but for seams down a sleeve and the armhole: those begin at the top. A level seam's is drawn from the middle to the side, and its
/// stations run on from the middle in front to the middle behind.
pub(crate) fn share_of((facts, in_front): (&SeamFacts, f64), station: Length, view: ViewSide) -> f64 {
    let share = (station.cm() / facts.end().cm()).clamp(0.0, 1.0);
    if facts.seam.is_level() {
        let from_middle =
            if view == ViewSide::Back { (1.0 - share) / (1.0 - in_front) } else { share / in_front };
        return from_middle.min(1.0);
    }
    let from_the_top = facts.seam.run() == Run::DownSleeve || facts.seam == Seam::ArmholeSeam;
    if from_the_top { 1.0 - share } else { share }
}

/// The part of a path between two shares of its length.
pub(crate) fn part_of(path: &BezPath, a: f64, b: f64) -> BezPath {
    let (from, to) = (a.min(b), a.max(b));
    let lengths: Vec<_> = path.segments().map(|s| (s, s.arclen(TO))).collect();
    let whole: f64 = lengths.iter().map(|l| l.1).sum();
    let (from, to, mut done) = (from * whole, to * whole, 0.0);
    let mut part = Vec::new();
    for (segment, length) in lengths {
        let (low, high) = ((from - done).max(0.0), (to - done).min(length));
        if high - low > TO {
            part.push(segment.subsegment(segment.inv_arclen(low, TO)..segment.inv_arclen(high, TO)));
        }
        done += length;
    }
    BezPath::from_path_segments(part.into_iter())
}

/// How exactly lengths along a path are taken, in cm.
const TO: f64 = 0.01;

/// The point at a share of a path's length.
fn along(path: &BezPath, share: f64) -> Option<Point> {
    let lengths: Vec<_> = path.segments().map(|s| (s, s.arclen(TO))).collect();
    let mut left = share * lengths.iter().map(|l| l.1).sum::<f64>();
    for (segment, length) in &lengths {
        if left <= *length {
            return Some(segment.eval(segment.inv_arclen(left, TO)));
        }
        left -= length;
    }
    lengths.last().map(|(segment, _)| segment.eval(1.0))
}
