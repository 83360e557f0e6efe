//! The parts of a garment as lines: seams, darts, hems, closures, pockets, collars, bands and topstitching.
//!
//! Each is drawn for the left half and mirrored; what exists once is drawn once. Sizes that nobody measures (a button, a
//! pocket mouth, a collar) are drawing values.

use super::drape::{Drape, Shoulder};
use super::view::{Half, Look, ViewSide};
use super::{follow, line, polygon};
use crate::change::{ChangeKey, Curve};
use crate::garment::{
    AT_SHOULDER, Closure, Collar, Dart, DartFacts, HemEdge, HemFacts, HemTurn, PANEL, PRINCESS, Pocket, Run,
    Seam, SeamFacts,
};
use crate::place::Level;
use kurbo::{BezPath, Point, Shape};

/// A line of the garment, on the left half; lengths in cm.
pub(super) struct Detail {
    pub name: String,
    /// What it belongs to in the look-over: `seam.outseam`, `dart.bust`, `hem.leg`, `closure.0`, `pockets`.
    pub key: Option<String>,
    /// The change it could have, if pins are set on it.
    pub change: Option<ChangeKey>,
    pub look: Look,
    pub path: BezPath,
    /// It exists on the other side too.
    pub paired: bool,
}

pub(super) fn detail(
    name: impl Into<String>,
    key: Option<String>,
    look: Look,
    path: BezPath,
    paired: bool,
) -> Detail {
    Detail { name: name.into(), key, change: None, look, path, paired }
}

/// From which sides a seam is seen.
const fn seen_from(seam: Seam) -> &'static [ViewSide] {
    use ViewSide::{Back, Front, Side};
    match seam {
        Seam::Outseam | Seam::SideSeam => &[Front, Back, Side],
        Seam::Inseam
        | Seam::ShoulderSeam
        | Seam::ArmholeSeam
        | Seam::SleeveSeam
        | Seam::YokeSeam
        | Seam::WaistSeam
        | Seam::NeckSeam => &[Front, Back],
        Seam::FrontRise | Seam::CentreFront | Seam::PrincessFront | Seam::PanelFront => &[Front],
        Seam::SeatSeam | Seam::CentreBack | Seam::PrincessBack | Seam::PanelBack | Seam::SleeveBackSeam => {
            &[Back]
        }
    }
}

/// The line of a seam on the left half of one view; nothing where it cannot be seen from there.
pub(crate) fn seam_line(
    drape: &Drape<'_>,
    seam: &SeamFacts,
    view: ViewSide,
    half: Half<'_>,
) -> Option<BezPath> {
    // No further than the half that it is drawn on: of a stretch that moves, only the stretch.
    let (lowest, highest) = half.outer.span().unwrap_or((drape.base, drape.top));
    let from = drape.up_on(seam.seam, 0.0).max(lowest);
    let to = match seam.seam.run() {
        Run::Down => drape.up_on(seam.seam, seam.length.length.cm()).min(drape.top).min(highest),
        Run::DownSleeve | Run::Across => drape.top,
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
    if !seen_from(seam.seam).contains(&view) {
        return None;
    }
    Some(match seam.seam {
        Seam::Outseam | Seam::SideSeam if view == ViewSide::Side => {
            let points: Vec<Point> = (0..=6)
                .map(|n| from + (to - from) * f64::from(n) / 6.0)
                .map(|h| Point::new(f64::midpoint(drape.back.at(h), drape.front.at(h)), h))
                .collect();
            smooth(&points)
        }
        Seam::Outseam | Seam::SideSeam => edge(half.outer)?,
        Seam::Inseam => edge(half.inner?)?,
        Seam::SeatSeam | Seam::FrontRise => {
            let crotch = half.inner.and_then(Curve::span).map_or(from, |s| s.1);
            line((0.0, crotch), (0.0, drape.below_band()))
        }
        Seam::CentreFront => line((0.0, from), (0.0, centre_end(drape, true, highest))),
        Seam::CentreBack => line((0.0, from), (0.0, centre_end(drape, false, highest))),
        Seam::PrincessFront | Seam::PrincessBack => {
            let mut path = within(PRINCESS, drape.top.min(highest));
            if let Some(Shoulder { tip, neck, .. }) = drape.shoulder.filter(|_| highest >= drape.top) {
                let start = Point::new(half.outer.at(drape.top) * PRINCESS, drape.top);
                let end = neck.lerp(tip, AT_SHOULDER);
                path.curve_to((start.x, start.y + 5.0), (end.x, end.y - 6.0), (end.x, end.y));
            }
            path
        }
        Seam::PanelFront | Seam::PanelBack => within(PANEL, to),
        Seam::ShoulderSeam => {
            let shoulder = drape.shoulder?;
            line(shoulder.neck, drape.tip(half.side)?)
        }
        Seam::ArmholeSeam => drape.armhole(drape.tip(half.side)?),
        Seam::SleeveSeam => limb()?.line(-0.97),
        Seam::SleeveBackSeam => limb()?.line(0.35),
        // Only a skirt's goes round to the front.
        Seam::YokeSeam if view == ViewSide::Front && drape.garment.has_yoke_behind() => return None,
        Seam::YokeSeam => yoke(drape, half)?,
        Seam::WaistSeam => {
            let h = drape.up_at(Level::Waist)?;
            across(half.outer.at(h), h)
        }
        Seam::NeckSeam => drape.shoulder?.neckline(drape.garment, view == ViewSide::Front),
    })
}

/// Where a centre seam ends on a half that reaches so high.
fn centre_end(drape: &Drape<'_>, front: bool, highest: f64) -> f64 {
    let top = centre_top(drape, front);
    if highest < drape.top { top.min(highest) } else { top }
}

pub(super) fn centre_top(drape: &Drape<'_>, front: bool) -> f64 {
    match drape.shoulder {
        Some(shoulder) => {
            if front {
                shoulder.front
            } else {
                shoulder.back
            }
        }
        None if drape.garment.goes_above_waist() => drape.top,
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
        all.extend(super::closing::closed_by(drape, closure, &format!("closure.{n}"), view, half));
    }
    all
}

fn dart(drape: &Drape<'_>, dart: &DartFacts, view: ViewSide, half: Half<'_>) -> Option<Detail> {
    if dart.dart.is_in_front() != (view == ViewSide::Front) {
        return None;
    }
    let (depth, length) = (dart.fold_depth.length.cm(), dart.length.length.cm());
    let x = dart.from_centre.length.cm();
    let p = Point::new;
    let points = match dart.dart {
        Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => {
            let upwards = drape.garment.goes_above_waist();
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
    let key = ChangeKey::Dart(dart.dart);
    let line = detail(dart.name(), Some(key.to_string()), Look::Seam, path, true);
    Some(Detail { change: Some(key), ..line })
}

/// The row of stitching that holds a hem, as far up as it is turned.
fn hem(drape: &Drape<'_>, hem: &HemFacts, view: ViewSide, half: Half<'_>) -> Option<Detail> {
    let up = match hem.turn {
        HemTurn::Bound => 0.8,
        // The inner turn lies inside: the stitching sits at the depth of the outer one.
        HemTurn::Deep | HemTurn::Blind => hem.turn_up.length.cm() - 1.0,
        HemTurn::Double | HemTurn::NarrowDouble | HemTurn::Rolled => hem.turn_up.length.cm() / 2.0,
        HemTurn::Band => 5.5,
        HemTurn::SingleFinished
        | HemTurn::Faced
        | HemTurn::Coverstitched
        | HemTurn::Fused
        | HemTurn::Cuff
        | HemTurn::Kept => hem.turn_up.length.cm(),
    }
    .max(0.5);
    let path = edge_across(drape, hem.edge, view, half, up)?;
    let look = if hem.turn == HemTurn::Band { Look::Edge } else { Look::Topstitching };
    let key = ChangeKey::Hem(hem.edge);
    let name = format!("hem, {}", hem.edge.name());
    let line = detail(name, Some(key.to_string()), look, path, view != ViewSide::Side);
    Some(Detail { change: Some(key), ..line })
}

/// Across a lower edge, one leg or one sleeve, so far above its present edge.
pub(crate) fn edge_across(
    drape: &Drape<'_>,
    edge: HemEdge,
    view: ViewSide,
    half: Half<'_>,
    up: f64,
) -> Option<BezPath> {
    let h = drape.base + up;
    Some(match (edge, view) {
        (HemEdge::Sleeve, ViewSide::Side) => return None,
        (HemEdge::Sleeve, _) => drape.sleeve(drape.tip(half.side)?)?.across(up),
        (HemEdge::Body | HemEdge::Leg, ViewSide::Side) => line((drape.back.at(h), h), (drape.front.at(h), h)),
        (HemEdge::Leg, _) => line((half.inner?.at(h), h), (half.outer.at(h), h)),
        (HemEdge::Body, _) => across(half.outer.at(h), h),
    })
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
    let key = Some("pockets".to_owned());
    let name = pocket.name();
    let waist = drape.below_band();
    let hip = drape.up_at(Level::Hip).unwrap_or(waist - 18.0);
    let low_waist = drape.up_at(Level::Waist).unwrap_or(waist);
    let out = |h: f64| half.outer.at(h);
    let p = Point::new;
    // The middle of a back pocket, where somebody measured how far the pair is apart.
    let apart = drape.garment.found.back_pockets_apart;
    let behind = |half_width: f64| apart.map(|m| m.length.cm() / 2.0 + half_width);
    let one = |look, path, paired| vec![detail(name, key.clone(), look, path, paired)];
    match pocket {
        Pocket::Slant => one(
            Look::Edge,
            line((out(waist) - 3.4, waist - 0.6), (out(waist - 15.5) - 0.3, waist - 15.5)),
            true,
        ),
        Pocket::InSeam => {
            let from = if drape.garment.goes_above_waist() { low_waist - 4.0 } else { waist - 4.0 };
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
        Pocket::BackPatch => {
            let x = behind(6.75).unwrap_or(out(hip) * 0.52);
            one(Look::Piece, patch(p(x, waist - 7.5), 13.5, 14.5), true)
        }
        Pocket::BackWelt => {
            let x = behind(6.5).unwrap_or(out(waist - 9.0) * 0.52);
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
            Run::Down | Run::DownSleeve => super::mapped(&path, |p| {
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
