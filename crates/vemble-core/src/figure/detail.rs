//! The parts of a garment as lines: seams, darts, hems, closures, pockets, collars, bands and topstitching.
//!
//! Each is drawn for the left half and mirrored; what exists once is drawn once. Sizes that nobody measures (a button, a
//! pocket mouth, a collar) are drawing values.

use super::drape::{Drape, Shoulder};
use super::stand::ViewSide;
use super::{follow, line, mirrored, polygon};
use crate::fitting::GarmentSide;
use crate::garment::{
    Closure, ClosureFacts, Collar, Dart, DartFacts, HemEdge, HemFacts, HemTurn, Level, Opening, Pocket, Run,
    Seam, SeamFacts, word,
};
use crate::line::Curve;
use kurbo::{BezPath, Circle, Point, Shape};
use serde::Serialize;
use utoipa::ToSchema;

/// How a line of the garment is drawn.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Look {
    /// Old stitching: short dashes.
    Seam,
    /// A second row on the right side: fine short dashes.
    Topstitching,
    /// A finished edge or fold: a plain line.
    Edge,
    /// A button, an eyelet, a loop: a small shape.
    Button,
    /// A piece of cloth on top: collar, pocket, lapel.
    Piece,
}

/// A line of the garment, on the left half; lengths in cm.
pub(super) struct Detail {
    pub name: String,
    /// What it belongs to in the look-over: `seam.outseam`, `dart.bust`, `hem.leg`, `closure.0`, `pocket.slant`.
    pub key: Option<String>,
    pub look: Look,
    pub path: BezPath,
    /// It exists on the other side too.
    pub paired: bool,
}

/// The outline of one half, drawn as if it were the left.
#[derive(Clone, Copy)]
pub(super) struct Half<'a> {
    pub side: GarmentSide,
    pub outer: &'a Curve,
    pub inner: Option<&'a Curve>,
}

fn detail(name: impl Into<String>, key: Option<String>, look: Look, path: BezPath, paired: bool) -> Detail {
    Detail { name: name.into(), key, look, path, paired }
}

/// The line of a seam on the left half of one view; nothing where it cannot be seen from there.
pub(super) fn seam_line(
    drape: &Drape<'_>,
    seam: &SeamFacts,
    view: ViewSide,
    half: Half<'_>,
) -> Option<BezPath> {
    use ViewSide::{Back, Front, Side};
    let from = drape.up_on(seam.seam, 0.0);
    let to = match seam.seam.run() {
        Run::Down => (drape.up_on(seam.seam, seam.length.length.cm())).min(drape.top),
        _ => drape.top,
    };
    let edge = |curve: &Curve| {
        let mut path = BezPath::new();
        follow(&mut path, &curve.cut(from, to), true);
        (!path.elements().is_empty()).then_some(path)
    };
    // A seam between the middle and the outer edge, at a share of the way.
    let within = |share: f64, to: f64| {
        let points: Vec<Point> = (0..=6)
            .map(|n| from + (to - from) * f64::from(n) / 6.0)
            .map(|h| {
                let inner = half.inner.filter(|i| i.span().is_some_and(|s| h < s.1)).map_or(0.0, |i| i.at(h));
                Point::new(inner + (half.outer.at(h) - inner) * share, h)
            })
            .collect();
        smooth(&points)
    };
    let limb = || drape.sleeve(drape.tip(half.side)?);
    Some(match (seam.seam, view) {
        (Seam::Outseam | Seam::SideSeam, Side) => {
            let points: Vec<Point> = (0..=6)
                .map(|n| from + (to - from) * f64::from(n) / 6.0)
                .map(|h| Point::new(f64::midpoint(drape.back.at(h), drape.front.at(h)), h))
                .collect();
            smooth(&points)
        }
        (Seam::Outseam | Seam::SideSeam, _) => edge(half.outer)?,
        (Seam::Inseam, Front | Back) => edge(half.inner?)?,
        (Seam::SeatSeam, Back) | (Seam::FrontRise, Front) => {
            let crotch = half.inner.and_then(Curve::span).map_or(from, |s| s.1);
            line((0.0, crotch), (0.0, drape.below_band()))
        }
        (Seam::CentreFront, Front) => line((0.0, from), (0.0, centre_top(drape, true))),
        (Seam::CentreBack, Back) => line((0.0, from), (0.0, centre_top(drape, false))),
        (Seam::PrincessFront, Front) | (Seam::PrincessBack, Back) => {
            let mut path = within(0.52, drape.top);
            if let Some(Shoulder { tip, neck, .. }) = drape.shoulder {
                let start = Point::new(half.outer.at(drape.top) * 0.52, drape.top);
                let end = neck.lerp(tip, 0.45);
                path.curve_to((start.x, start.y + 5.0), (end.x, end.y - 6.0), (end.x, end.y));
            }
            path
        }
        (Seam::PanelFront, Front) | (Seam::PanelBack, Back) => within(0.74, to),
        (Seam::ShoulderSeam, Front | Back) => {
            let shoulder = drape.shoulder?;
            line(shoulder.neck, drape.tip(half.side)?)
        }
        (Seam::ArmholeSeam, Front | Back) => drape.armhole(drape.tip(half.side)?),
        (Seam::SleeveSeam, Front | Back) => limb()?.line(-0.97),
        (Seam::SleeveBackSeam, Back) => limb()?.line(0.35),
        (Seam::YokeSeam, Back) => yoke(drape, half)?,
        (Seam::YokeSeam, Front) if !drape.garment.hangs_from_shoulders() && !drape.garment.has_legs() => {
            yoke(drape, half)?
        }
        (Seam::WaistSeam, Front | Back) => {
            let h = drape.up_at(Level::Waist)?;
            across(half.outer.at(h), h)
        }
        (Seam::NeckSeam, Front | Back) => drape.shoulder?.neckline(drape.garment, view == Front),
        _ => return None,
    })
}

fn centre_top(drape: &Drape<'_>, front: bool) -> f64 {
    match drape.shoulder {
        Some(shoulder) => {
            if front {
                shoulder.front
            } else {
                shoulder.back
            }
        }
        None if drape.garment.hangs_from_shoulders() => drape.top,
        None => drape.below_band().min(drape.top),
    }
}

/// From the middle to the outer edge, bending down a little in the middle as a level round a body does.
fn across(half_width: f64, h: f64) -> BezPath {
    let mut path = BezPath::new();
    let dip = half_width * 0.05;
    path.move_to((0.0, h - dip));
    path.curve_to((half_width * 0.4, h - dip), (half_width * 0.8, h - dip * 0.4), (half_width, h));
    path
}

fn yoke(drape: &Drape<'_>, half: Half<'_>) -> Option<BezPath> {
    if let Some(shoulder) = drape.shoulder {
        let h = shoulder.tip.y - 7.0;
        let armhole = drape.armhole(drape.tip(half.side)?);
        let at = armhole.elements().last().and_then(kurbo::PathEl::end_point)?;
        return Some(line((0.0, h), (shoulder.tip.x.min(at.x + 3.0) - 1.6, h)));
    }
    let top = drape.below_band();
    // A jeans yoke is deepest at the seat seam; a hip yoke goes level.
    let (middle, side) = if drape.garment.has_legs() { (7.0, 3.5) } else { (11.0, 11.0) };
    Some(line((0.0, top - middle), (half.outer.at(top - side), top - side)))
}

fn smooth(points: &[Point]) -> BezPath {
    let mut path = BezPath::new();
    path.move_to(points[0]);
    super::smooth_through(&mut path, points);
    path
}

/// Everything but the seams and the outline.
pub(super) fn details(drape: &Drape<'_>, view: ViewSide, half: Half<'_>) -> Vec<Detail> {
    let mut all = Vec::new();
    let garment = drape.garment;
    if view != ViewSide::Side {
        all.extend(garment.darts.iter().filter_map(|d| dart(drape, d, view, half)));
        all.extend(garment.pockets.iter().flat_map(|p| pocket(drape, *p, view, half)));
        all.extend(topstitching(drape, view, half));
    }
    all.extend(garment.hems.iter().filter_map(|h| hem(drape, h, view, half)));
    all.extend(band(drape, view, half));
    all.extend(neck(drape, view));
    for (n, closure) in garment.closures.iter().enumerate() {
        all.extend(closed_by(drape, closure, &format!("closure.{n}"), view, half));
    }
    all
}

fn dart(drape: &Drape<'_>, dart: &DartFacts, view: ViewSide, half: Half<'_>) -> Option<Detail> {
    let is_front = matches!(dart.dart, Dart::FrontWaist | Dart::FrontFishEye | Dart::Bust);
    if is_front != (view == ViewSide::Front) {
        return None;
    }
    let (depth, length) = (dart.fold_depth.length.cm(), dart.length.length.cm());
    let x = dart.from_centre.length.cm();
    let p = Point::new;
    let points = match dart.dart {
        Dart::FrontWaist | Dart::BackWaist => {
            let upwards = drape.garment.hangs_from_shoulders();
            let h = if upwards { drape.up_at(Level::Waist)? } else { drape.below_band() };
            let tip = if upwards { h + length } else { h - length };
            vec![p(x - depth / 2.0, h), p(x, tip), p(x + depth / 2.0, h)]
        }
        Dart::FrontFishEye | Dart::BackFishEye => {
            let h = drape.up_at(Level::Waist)?;
            let (up, down) = (h + length / 2.0, h - length / 2.0);
            vec![p(x, up), p(x + depth / 2.0, h), p(x, down), p(x - depth / 2.0, h), p(x, up)]
        }
        Dart::Bust => {
            let bust = drape.up_at(Level::Bust)?;
            let (h, out) = (bust - 3.0, half.outer.at(bust - 3.0));
            vec![p(out, h + depth / 2.0), p((out - length).max(1.0), bust), p(out, h - depth / 2.0)]
        }
        Dart::Shoulder => {
            let shoulder = drape.shoulder?;
            let at = shoulder.neck.lerp(shoulder.tip, 0.5);
            vec![p(at.x - depth / 2.0, at.y), p(at.x - 0.5, at.y - length), p(at.x + depth / 2.0, at.y)]
        }
    };
    let mut path = polygon(&points);
    path.pop();
    let key = format!("dart.{}", word(&dart.dart));
    Some(detail(dart.name(), Some(key), Look::Seam, path, true))
}

/// The row of stitching that holds a hem, as far up as it is turned.
fn hem(drape: &Drape<'_>, hem: &HemFacts, view: ViewSide, half: Half<'_>) -> Option<Detail> {
    let up = match hem.turn {
        HemTurn::Bound => 0.8,
        // The inner turn lies inside: the stitching sits at the depth of the outer one.
        HemTurn::Deep | HemTurn::Blind => hem.turn_up.length.cm() - 1.0,
        HemTurn::Double | HemTurn::NarrowDouble | HemTurn::Rolled => hem.turn_up.length.cm() / 2.0,
        HemTurn::Band => 5.5,
        _ => hem.turn_up.length.cm(),
    }
    .max(0.5);
    let h = drape.base + up;
    let path = match (hem.edge, view) {
        (HemEdge::Sleeve, ViewSide::Side) => return None,
        (HemEdge::Sleeve, _) => drape.sleeve(drape.tip(half.side)?)?.across(up),
        (HemEdge::Body | HemEdge::Leg, ViewSide::Side) => line((drape.back.at(h), h), (drape.front.at(h), h)),
        (HemEdge::Leg, _) => line((half.inner?.at(h), h), (half.outer.at(h), h)),
        (HemEdge::Body, _) => across(half.outer.at(h), h),
    };
    let look = if hem.turn == HemTurn::Band { Look::Edge } else { Look::Topstitching };
    let key = format!("hem.{}", word(&hem.edge));
    Some(detail(format!("hem, {}", hem.edge.name()), Some(key), look, path, view != ViewSide::Side))
}

/// Waistband, its loops, and elastic in it.
fn band(drape: &Drape<'_>, view: ViewSide, half: Half<'_>) -> Vec<Detail> {
    let Some(depth) = drape.garment.waistband_depth else { return Vec::new() };
    let (low, key) = (drape.below_band(), Some("band".to_owned()));
    if view == ViewSide::Side {
        let path = line((drape.back.at(low), low), (drape.front.at(low), low));
        return vec![detail("waistband seam", key, Look::Edge, path, false)];
    }
    let mut all =
        vec![detail("waistband seam", key.clone(), Look::Edge, across(half.outer.at(low), low), true)];
    let width = half.outer.at(low);
    let top = low + depth.length.cm();
    if drape.garment.belt_loops > 0 {
        let shares: &[f64] = if view == ViewSide::Front { &[0.5] } else { &[0.0, 0.62] };
        for share in shares {
            let x = width * share;
            let path = kurbo::Rect::new(
                x - 0.45,
                low - 0.7 - 0.05 * width * (1.0 - share),
                x + 0.45,
                top + 0.1 - 0.04 * width * (1.0 - share),
            )
            .to_path(0.1);
            all.push(detail("belt loop", key.clone(), Look::Button, path, *share > 0.0));
        }
    }
    if drape.garment.closures.iter().any(|c| c.closure == Closure::Elastic) {
        for n in 0..9 {
            let x = width * (f64::from(n) + 0.5) / 9.0;
            let dip = 0.05 * width * (1.0 - x / width);
            let path = line((x, low - 1.6 - dip), (x * 1.01, top - 0.4 - dip));
            all.push(detail("gathers", None, Look::Edge, path, true));
        }
    }
    all
}

/// Collar, lapels, or a finished neckline.
fn neck(drape: &Drape<'_>, view: ViewSide) -> Vec<Detail> {
    let Some(shoulder) = drape.shoulder else { return Vec::new() };
    let front = view == ViewSide::Front;
    if view == ViewSide::Side {
        return Vec::new();
    }
    let neck = shoulder.neck;
    let centre = if front { shoulder.front } else { shoulder.back };
    let p = Point::new;
    let piece =
        |points: &[Point]| detail("collar", Some("collar".into()), Look::Piece, polygon(points), true);
    match drape.garment.collar() {
        Collar::None => Vec::new(),
        Collar::Band => {
            let mut path = shoulder.neckline(drape.garment, front);
            path = super::mapped(&path, |q| p(q.x * 1.2, q.y - 1.9 + 0.5 * (q.x / neck.x)));
            vec![detail("neckband", Some("collar".into()), Look::Edge, path, true)]
        }
        Collar::Stand => vec![piece(&[
            p(0.0, centre),
            p(neck.x, neck.y),
            p(neck.x - 0.6, neck.y + 3.6),
            p(0.4, centre + 3.2),
        ])],
        Collar::Flat => {
            vec![piece(&[
                p(0.2, centre),
                neck,
                p(neck.x + 5.5, neck.y - 3.0),
                p(neck.x + 3.0, centre - 3.5),
                p(2.0, centre - 5.5),
            ])]
        }
        Collar::Shirt if front => vec![piece(&[
            p(0.2, centre + 0.4),
            p(neck.x * 0.86, neck.y + 3.4),
            p(neck.x + 1.2, neck.y + 0.6),
            p(neck.x * 0.72, centre - 3.8),
        ])],
        Collar::Shirt => vec![piece(&[
            p(0.0, centre + 4.4),
            p(neck.x * 0.86, neck.y + 3.4),
            p(neck.x + 1.2, neck.y - 0.4),
            p(0.0, centre - 0.9),
        ])],
        Collar::Notched if front => {
            let fold = p(0.6, shoulder.front);
            let gorge = neck.lerp(fold, 0.34);
            let notch = p(gorge.x + 4.6, gorge.y - 0.6);
            vec![
                piece(&[
                    fold,
                    gorge,
                    p(notch.x + 1.6, notch.y + 0.2),
                    p(neck.x * 0.95 + 3.6, fold.y + (neck.y - fold.y) * 0.42),
                ]),
                piece(&[
                    gorge,
                    p(neck.x * 0.9, neck.y + 2.4),
                    p(neck.x + 2.6, neck.y - 1.4),
                    p(notch.x + 0.6, notch.y + 2.6),
                    notch,
                ]),
            ]
        }
        Collar::Notched => vec![piece(&[
            p(0.0, centre + 2.8),
            p(neck.x * 0.9, neck.y + 2.4),
            p(neck.x + 2.6, neck.y - 1.6),
            p(0.0, centre - 3.6),
        ])],
    }
}

fn pocket(drape: &Drape<'_>, pocket: Pocket, view: ViewSide, half: Half<'_>) -> Vec<Detail> {
    let is_back = matches!(pocket, Pocket::BackPatch | Pocket::BackWelt);
    if is_back != (view == ViewSide::Back) {
        return Vec::new();
    }
    let key = Some(format!("pocket.{}", word(&pocket)));
    let name = pocket.name();
    let waist = drape.below_band();
    let hip = drape.up_at(Level::Hip).unwrap_or(waist - 18.0);
    let low_waist = drape.up_at(Level::Waist).unwrap_or(waist);
    let out = |h: f64| half.outer.at(h);
    let p = Point::new;
    let one = |look, path, paired| vec![detail(name, key.clone(), look, path, paired)];
    match pocket {
        Pocket::Slant => one(
            Look::Edge,
            line((out(waist) - 3.4, waist - 0.6), (out(waist - 15.5) - 0.3, waist - 15.5)),
            true,
        ),
        Pocket::InSeam => {
            let from = if drape.garment.hangs_from_shoulders() { low_waist - 4.0 } else { waist - 4.0 };
            one(
                Look::Edge,
                smooth(&[
                    p(out(from) - 0.7, from),
                    p(out(from - 8.0) - 1.0, from - 8.0),
                    p(out(from - 15.0) - 0.7, from - 15.0),
                ]),
                true,
            )
        }
        Pocket::FrontScoop => {
            let mut path = BezPath::new();
            path.move_to((out(waist) - 8.5, waist - 0.4));
            path.curve_to(
                (out(waist) - 8.2, waist - 5.5),
                (out(waist - 7.0) - 4.0, waist - 7.6),
                (out(waist - 7.6), waist - 7.6),
            );
            one(Look::Edge, path, true)
        }
        Pocket::Patch => one(Look::Piece, patch(p(out(hip) * 0.56, hip + 7.0), 13.0, 15.0), true),
        Pocket::BackPatch => one(Look::Piece, patch(p(out(hip) * 0.52, waist - 7.5), 13.5, 14.5), true),
        Pocket::BackWelt => {
            let x = out(waist - 9.0) * 0.52;
            one(Look::Piece, kurbo::Rect::new(x - 6.5, waist - 10.0, x + 6.5, waist - 9.0).to_path(0.1), true)
        }
        Pocket::Welt | Pocket::Flap => {
            let (h, x) = (low_waist - 9.0, out(low_waist - 9.0) * 0.6);
            let deep = if pocket == Pocket::Flap { 5.2 } else { 1.6 };
            one(
                Look::Piece,
                polygon(&[
                    p(x - 7.0, h),
                    p(x + 7.0, h + 0.8),
                    p(x + 7.0, h + 0.8 - deep),
                    p(x - 7.0, h - deep),
                ]),
                true,
            )
        }
        Pocket::Breast => {
            let bust = drape.up_at(Level::Bust).unwrap_or(drape.top);
            let path = if drape.garment.collar() == Collar::Notched {
                polygon(&[p(7.0, bust + 4.0), p(16.0, bust + 5.0), p(16.0, bust + 3.0), p(7.0, bust + 2.0)])
            } else {
                patch(p(out(bust) * 0.52, bust + 5.5), 10.5, 12.0)
            };
            one(Look::Piece, path, false)
        }
    }
}

/// A patch pocket: straight mouth, lower edge with a point.
fn patch(top: Point, width: f64, height: f64) -> BezPath {
    let (x, h) = (width / 2.0, top.y);
    polygon(&[
        Point::new(top.x - x, h),
        Point::new(top.x + x, h),
        Point::new(top.x + x, h - height + 2.2),
        Point::new(top.x, h - height),
        Point::new(top.x - x, h - height + 2.2),
    ])
}

/// A second row beside the seams that have one.
fn topstitching<'a>(
    drape: &'a Drape<'_>,
    view: ViewSide,
    half: Half<'a>,
) -> impl Iterator<Item = Detail> + 'a {
    let rows = drape.garment.seams.iter().filter(|s| s.topstitched);
    rows.filter_map(move |seam| {
        let path = seam_line(drape, seam, view, half)?;
        let moved = match seam.seam.run() {
            Run::Across => super::mapped(&path, |p| Point::new(p.x, p.y - 0.8)),
            _ if seam.seam.is_single() => super::mapped(&path, |p| Point::new(p.x + 0.8, p.y)),
            _ => super::mapped(&path, |p| {
                Point::new(p.x + if seam.seam == Seam::Inseam { 0.8 } else { -0.8 }, p.y)
            }),
        };
        Some(detail(
            format!("topstitching, {}", seam.name()),
            None,
            Look::Topstitching,
            moved,
            !seam.seam.is_single() || seam.seam.run() == Run::Across,
        ))
    })
}

fn closed_by(
    drape: &Drape<'_>,
    closure: &ClosureFacts,
    key: &str,
    view: ViewSide,
    half: Half<'_>,
) -> Vec<Detail> {
    use ViewSide::{Back, Front};
    let key = Some(key.to_owned());
    let name = format!("{}, {}", closure.closure.name(), closure.at.name());
    let one = |look, path, paired| detail(name.clone(), key.clone(), look, path, paired);
    let from_shoulders = drape.garment.hangs_from_shoulders();
    let low = drape.base + 2.0;
    let top = match closure.at {
        Opening::CentreFront => centre_top(drape, true),
        _ => centre_top(drape, false),
    };
    let waist = drape.up_at(Level::Waist).unwrap_or(top);
    match (closure.at, view) {
        (Opening::CentreFront, Front) if drape.garment.has_legs() && !from_shoulders => {
            fly(drape, closure, &one)
        }
        (Opening::CentreFront, Front) => {
            let end = if drape.garment.has_legs() {
                drape.inner.as_ref().and_then(Curve::span).map_or(low, |s| s.1 + 6.0)
            } else {
                low - 2.0
            };
            match closure.closure {
                Closure::Wrap => {
                    let mut path = BezPath::new();
                    let neck = drape.shoulder.map_or(Point::new(0.0, top), |s| s.neck);
                    let side = half.outer.at(waist);
                    path.move_to((-neck.x, neck.y));
                    path.curve_to(
                        (-neck.x * 0.6, top + 4.0),
                        (side * 0.5, waist + 6.0),
                        (side * 0.96, waist),
                    );
                    path.line_to((half.outer.at(low) * 0.5, low - 1.0));
                    vec![one(Look::Edge, path, false)]
                }
                Closure::Buttons => buttons(drape, closure.count, (top - 1.4, end), &one),
                Closure::Zip | Closure::InvisibleZip => zip(0.0, top, end, closure.closure, &one),
                Closure::Lacing => lacing(closure.count, top, end, &one),
                Closure::Hooks => hooks(closure.count, top, &one),
                Closure::Ties | Closure::Elastic => Vec::new(),
            }
        }
        (Opening::CentreBack, Back) => match closure.closure {
            Closure::Buttons => buttons(drape, closure.count, (top - 1.4, waist - 4.0), &one),
            Closure::Zip | Closure::InvisibleZip => {
                // It opens as far as the hips need it.
                let end = waist - 16.0;
                zip(0.0, if from_shoulders { top } else { waist }, end.max(low), closure.closure, &one)
            }
            Closure::Lacing => lacing(closure.count, top.max(drape.top), low, &one),
            Closure::Hooks => hooks(closure.count, if from_shoulders { top } else { waist }, &one),
            _ => Vec::new(),
        },
        (Opening::LeftSide, Front | Back) => {
            let upper = if from_shoulders { (waist + 9.0).min(drape.top) } else { waist };
            let mut path = BezPath::new();
            follow(&mut path, &half.outer.cut((waist - 14.0).max(low), upper), true);
            vec![one(Look::Edge, super::mapped(&path, |p| Point::new(p.x - 0.7, p.y)), false)]
        }
        (Opening::Waist, Front) if closure.closure == Closure::Ties => {
            let h = waist - 0.5;
            let bow = polygon(&[Point::new(0.0, h), Point::new(5.0, h + 2.4), Point::new(5.4, h - 2.2)]);
            vec![one(Look::Piece, bow, true), one(Look::Edge, line((0.4, h), (3.2, h - 11.0)), true)]
        }
        (Opening::Cuff, Front) => {
            let Some(limb) = drape.tip(half.side).and_then(|tip| drape.sleeve(tip)) else {
                return Vec::new();
            };
            let at = limb.at(limb.length() - 2.6, 0.55);
            vec![one(Look::Button, Circle::new(at, 0.55).to_path(0.05), true)]
        }
        _ => Vec::new(),
    }
}

type One<'a> = dyn Fn(Look, BezPath, bool) -> Detail + 'a;

/// The curved stitching of a fly, and the button on the band.
fn fly(drape: &Drape<'_>, closure: &ClosureFacts, one: &One<'_>) -> Vec<Detail> {
    let low = drape.below_band();
    if matches!(closure.closure, Closure::Buttons | Closure::Hooks) {
        let depth = drape.garment.waistband_depth.map_or(3.0, |d| d.length.cm());
        return vec![one(
            Look::Button,
            Circle::new((-0.9, low + depth / 2.0 - 0.9), 0.8).to_path(0.05),
            false,
        )];
    }
    let crotch = drape.inner.as_ref().and_then(Curve::span).map_or(low - 24.0, |s| s.1);
    let end = (low - 17.0).max(crotch + 4.0);
    let mut path = BezPath::new();
    path.move_to((3.4, low - 0.9));
    path.line_to((3.4, end + 4.0));
    path.curve_to((3.4, end + 1.5), (2.2, end), (0.0, end - 0.5));
    vec![one(Look::Topstitching, path, false)]
}

fn buttons(drape: &Drape<'_>, count: u8, (top, end): (f64, f64), one: &One<'_>) -> Vec<Detail> {
    let tailored = drape.garment.collar() == Collar::Notched;
    // The overlap of a placket: half of it lies past the middle.
    let over = if tailored { 2.4 } else { 1.5 };
    let mut all = vec![one(Look::Edge, line((-over, top), (-over, end)), false)];
    if !tailored {
        all.push(one(Look::Topstitching, line((over, top), (over, end)), false));
    }
    let waist = drape.up_at(Level::Waist).unwrap_or(end);
    let last = if tailored { waist - 6.0 } else { end + 9.0 };
    let gaps = f64::from(count.max(2) - 1);
    for n in 0..count {
        let h = top + (last - top) * f64::from(n) / gaps;
        all.push(one(
            Look::Button,
            Circle::new((0.0, h), if tailored { 1.0 } else { 0.6 }).to_path(0.05),
            false,
        ));
    }
    all
}

fn zip(x: f64, top: f64, end: f64, closure: Closure, one: &One<'_>) -> Vec<Detail> {
    let mut all = vec![one(Look::Edge, line((x, top), (x, end)), false)];
    if closure == Closure::Zip {
        all.push(one(Look::Topstitching, line((x + 0.9, top), (x + 0.9, end)), true));
    }
    all.push(one(
        Look::Button,
        kurbo::Rect::new(x - 0.35, top - 2.6, x + 0.35, top - 0.4).to_path(0.1),
        false,
    ));
    all
}

/// Eyelets down both edges, crossed.
fn lacing(count: u8, top: f64, end: f64, one: &One<'_>) -> Vec<Detail> {
    let pairs = f64::from((count / 2).max(2));
    let gap = 1.8;
    let at = |n: f64| top - 1.2 + (end - top + 2.0) * n / (pairs - 1.0);
    let mut all = vec![one(Look::Edge, line((gap, top), (gap, end)), true)];
    let mut cord = BezPath::new();
    for n in 0..(count / 2) {
        let h = at(f64::from(n));
        all.push(one(Look::Button, Circle::new((gap + 0.9, h), 0.3).to_path(0.05), true));
        let side = if n % 2 == 0 { 1.0 } else { -1.0 };
        if n == 0 {
            cord.move_to((side * (gap + 0.9), h));
        } else {
            cord.line_to((side * (gap + 0.9), h));
        }
    }
    all.push(one(Look::Edge, mirrored(&cord), false));
    all.push(one(Look::Edge, cord, false));
    all
}

fn hooks(count: u8, top: f64, one: &One<'_>) -> Vec<Detail> {
    (0..count.min(12))
        .map(|n| {
            one(Look::Button, Circle::new((0.0, top - 0.8 - 2.0 * f64::from(n)), 0.35).to_path(0.05), false)
        })
        .collect()
}
