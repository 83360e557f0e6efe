//! How to take a measurement, on a small body: the wearer's own, or one by proportion.

use super::pose::{ARM_ANGLE, Pose};
use super::view::ViewSide;
use super::{Canvas, Ink, Picture, Stroke, line, svg};
use crate::body::{BodyMeasurement, Landmark, Proportions, TapePlace, Wearer};
use crate::place::Level;
use kurbo::{BezPath, Ellipse, Point, Shape};

/// The body of `wearer`, small, with the tape where the measurement is taken.
pub fn taking_picture(what: BodyMeasurement, wearer: &Wearer) -> Picture {
    let pose = Pose::of(Proportions::of(wearer));
    let behind = matches!(what.facts().tape, TapePlace::AcrossBack | TapePlace::Down(Level::Neck, _));
    let view = if behind { ViewSide::Back } else { ViewSide::Front };
    let mut picture = picture_of(&pose, view);
    let tape = canvas(&pose, view).place(&tape(&pose, what));
    picture.strokes.push(Stroke { ink: Ink::Tape, path: coarse(&tape) });
    picture
}

/// The body of `wearer`, small.
pub fn body_picture(wearer: &Wearer, view: ViewSide) -> Picture {
    picture_of(&Pose::of(Proportions::of(wearer)), view)
}

fn canvas(pose: &Pose<'_>, view: ViewSide) -> Canvas {
    Canvas { top: pose.body.height(), flipped: view != ViewSide::Front }
}

/// To whole millimetres: finer than a small picture shows.
fn coarse(path: &BezPath) -> String {
    svg(&super::mapped(path, |p| Point::new(p.x.round(), p.y.round())))
}

fn picture_of(pose: &Pose<'_>, view: ViewSide) -> Picture {
    let body = super::body::body(pose, view, &canvas(pose, view));
    let strokes = body.iter().map(|path| Stroke { ink: Ink::Body, path: coarse(path) }).collect();
    let (half, height) = (2.4 * pose.body.height(), pose.body.height() * 10.0);
    Picture { view: [-half, -20.0, 2.0 * half, height + 40.0].map(f64::round), strokes }
}

fn tape(pose: &Pose<'_>, what: BodyMeasurement) -> BezPath {
    let body = &pose.body;
    let up = |level| body.up_at(level).unwrap_or_default();
    let round = |centre: (f64, f64), half: f64| {
        Ellipse::new(centre, (half + 0.4, half * 0.16 + 0.5), 0.0).to_path(0.05)
    };
    let tip = Point::new(crate::garment::across_shoulders(body) / 2.0 - 1.0, body.up(Landmark::ShoulderTip));
    // The arm's middle at a share of its length, hanging as it is drawn.
    let arm = |share: f64| {
        let length = share * body.cm(BodyMeasurement::ArmLength);
        Point::new(tip.x + 2.0 + ARM_ANGLE.sin() * length, tip.y - ARM_ANGLE.cos() * length)
    };
    let girth = body.cm(what);
    let thigh = body.cm(BodyMeasurement::ThighGirth);
    match what.facts().tape {
        TapePlace::Round(Level::Neck) => round((0.0, pose.neck_side() + 0.5), pose.half_neck()),
        TapePlace::Round(Level::UpperArm) => round((arm(0.3).x, arm(0.3).y), Pose::half_limb(girth)),
        TapePlace::Round(Level::Wrist) => round((arm(1.0).x, arm(1.0).y), Pose::half_limb(girth)),
        TapePlace::Round(level) if level.is_below_crotch() => {
            round((pose.leg_middle(up(level), thigh), up(level)), Pose::half_limb(girth))
        }
        TapePlace::Round(level) => round((0.0, up(level)), pose.half_width(up(level), girth)),
        TapePlace::RoundHead => {
            let h = body.up(Landmark::Chin) + 0.62 * (body.height() - body.up(Landmark::Chin));
            round((0.0, h), Pose::half_limb(girth) * 0.86)
        }
        TapePlace::RoundShoulders => round((0.0, body.up(Landmark::Armpit) + 3.0), tip.x + 5.0),
        TapePlace::RoundHand => round((arm(1.12).x, arm(1.12).y), Pose::half_limb(girth)),
        TapePlace::RoundHeel => round((pose.leg_middle(3.0, thigh), 3.4), Pose::half_limb(girth) * 0.9),
        TapePlace::Upright => measured((-0.17 * body.height(), body.height()), (-0.17 * body.height(), 0.0)),
        TapePlace::AlongShoulder => measured((pose.half_neck(), pose.neck_side()), (tip.x, tip.y)),
        TapePlace::AcrossBack => {
            let (h, half) = (f64::midpoint(tip.y, body.up(Landmark::Armpit)), girth / 2.0);
            measured((-half, h), (half, h))
        }
        TapePlace::Down(Level::Neck, to) => measured((0.0, body.up(Landmark::BackNeck)), (0.0, up(to))),
        TapePlace::Down(from, to) => {
            let x = pose.half_width(up(to), body.cm(BodyMeasurement::HipGirth)) + 2.0;
            measured((x, up(from)), (x, up(to)))
        }
        TapePlace::ToFloor(Level::Thigh) => measured((0.0, body.up(Landmark::Crotch)), (0.0, 0.0)),
        TapePlace::ToFloor(level) => {
            let x = pose.half_width(up(Level::Hip), body.cm(BodyMeasurement::HipGirth)) + 2.0;
            measured((x, up(level)), (x, 0.0))
        }
        TapePlace::Rise => {
            let (x, waist) =
                (pose.half_width(up(Level::Hip), body.cm(BodyMeasurement::HipGirth)) + 2.0, up(Level::Waist));
            measured((x, waist), (x, waist - girth))
        }
        TapePlace::AlongArm => {
            let mut path = measured((tip.x, tip.y), (arm(0.57).x + 1.5, arm(0.57).y));
            path.extend(measured((arm(0.57).x + 1.5, arm(0.57).y), (arm(1.0).x, arm(1.0).y)));
            path
        }
    }
}

/// A tape from here to there, with a tick at either end.
fn measured(from: (f64, f64), to: (f64, f64)) -> BezPath {
    let (from, to) = (Point::from(from), Point::from(to));
    let across = (to - from).normalize().turn_90() * 1.8;
    let mut path = line(from, to);
    for end in [from, to] {
        path.move_to(end - across);
        path.line_to(end + across);
    }
    path
}
