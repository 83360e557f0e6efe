//! What opens and closes, drawn: flies, buttons, zips, lacing, hooks, ties, wraps.

use super::detail::{Detail, centre_top, detail};
use super::drape::Drape;
use super::view::{Half, Look, ViewSide};
use super::{follow, line, mirrored, polygon};
use crate::change::Curve;
use crate::garment::{Closure, ClosureFacts, Collar, Opening};
use crate::place::Level;
use kurbo::{BezPath, Circle, Point, Shape};

/// What opens and closes, where it can be seen from one side.
pub(super) fn closed_by(
    drape: &Drape<'_>,
    closure: &ClosureFacts,
    key: &str,
    view: ViewSide,
    half: Half<'_>,
) -> Vec<Detail> {
    use ViewSide::{Back, Front, Side};
    let key = Some(key.to_owned());
    let name = format!("{}, {}", closure.closure.name(), closure.at.name());
    let one = |look, path, paired| detail(name.clone(), key.clone(), look, path, paired);
    let from_shoulders = drape.garment.hangs_from_shoulders();
    let low = drape.base + 2.0;
    let top = match closure.at {
        Opening::CentreFront => centre_top(drape, true),
        Opening::CentreBack | Opening::LeftSide | Opening::Waist | Opening::Cuff => centre_top(drape, false),
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
            Closure::Elastic | Closure::Wrap | Closure::Ties => Vec::new(),
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
        (Opening::CentreFront | Opening::Cuff, Back | Side)
        | (Opening::CentreBack, Front | Side)
        | (Opening::LeftSide, Side)
        | (Opening::Waist, _) => Vec::new(),
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
