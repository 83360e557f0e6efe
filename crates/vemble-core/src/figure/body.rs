//! The wearer, as the stand: soft shapes from girths, lengths and posture.

use super::limb::Limb;
use super::pose::Pose;
use super::view::ViewSide;
use super::{Canvas, follow, mirrored};
use crate::body::{BodyMeasurement as B, Landmark as L};
use crate::change::Curve;
use crate::place::Level;
use kurbo::{BezPath, Ellipse, Point, Shape};

/// The body's shapes in one view, back to front.
pub(super) fn body(pose: &Pose<'_>, view: ViewSide, canvas: &Canvas) -> Vec<BezPath> {
    match view {
        ViewSide::Front | ViewSide::Back => facing(pose, canvas),
        ViewSide::Side => sideways(pose, canvas),
    }
}

/// Levels of the trunk with a girth, from the hip up.
const TRUNK: [(Level, B); 4] = [
    (Level::Hip, B::HipGirth),
    (Level::Waist, B::WaistGirth),
    (Level::UnderBust, B::UnderBustGirth),
    (Level::Bust, B::BustGirth),
];
/// Levels of a leg with a girth, from the ankle up.
const LEG: [(Level, B); 4] = [
    (Level::Ankle, B::AnkleGirth),
    (Level::Calf, B::CalfGirth),
    (Level::Knee, B::KneeGirth),
    (Level::Thigh, B::ThighGirth),
];

fn facing(pose: &Pose<'_>, canvas: &Canvas) -> Vec<BezPath> {
    let body = &pose.body;
    let up = |level| body.up_at(level).unwrap_or_default();
    let thigh = body.cm(B::ThighGirth);
    let mut outer: Vec<(f64, f64)> = Vec::new();
    let mut inner: Vec<(f64, f64)> = Vec::new();
    for (level, what) in LEG {
        let (h, half) = (up(level), Pose::half_limb(body.cm(what)));
        let middle = pose.leg_middle(h, thigh);
        outer.push((h, middle + half));
        inner.push((h, middle - half));
    }
    for (level, what) in TRUNK {
        outer.push((up(level), pose.half_width(up(level), body.cm(what))));
    }
    let crotch = body.up(L::Crotch);
    inner.push((crotch, 0.0));
    let tip_x = crate::garment::across_shoulders(body) / 2.0 - 1.5;
    let armpit = Point::new(
        (pose.half_width(up(Level::Bust), body.cm(B::BustGirth)) - 0.8).min(tip_x),
        body.up(L::Armpit),
    );
    outer.push((armpit.y, armpit.x));
    let (outer, inner) = (Curve::without_swings(&outer), Curve::without_swings(&inner));
    let mut shapes = Vec::new();
    let neck = (pose.half_neck(), pose.neck_side());
    let mut trunk = BezPath::new();
    for left in [true, false] {
        let tip = Point::new(tip_x, body.up(L::ShoulderTip) - pose.shoulder_drop(left));
        let mut half = BezPath::new();
        half.move_to((0.0, neck.1 + 2.0));
        half.line_to((neck.0, neck.1 + 2.0));
        half.curve_to((neck.0 + 0.4, neck.1 - 0.5), (tip.x - 4.0, tip.y + 1.2), (tip.x, tip.y));
        half.line_to(armpit);
        follow(&mut half, &outer, false);
        let ankle = up(Level::Ankle);
        let (out, within) = (outer.at(ankle), inner.at(ankle));
        half.curve_to((out + 0.6, ankle * 0.5), (out + 2.2, 1.0), (out + 1.4, 0.0));
        half.line_to((within - 0.2, 0.0));
        half.line_to((within, ankle));
        follow(&mut half, &inner, true);
        let half = if left { half } else { mirrored(&half).reverse_subpaths() };
        super::append(&mut trunk, &half);
        let girths = [
            (0.26, B::UpperArmGirth, 1.0),
            (0.57, B::UpperArmGirth, 0.84),
            (0.74, B::UpperArmGirth, 0.8),
            (1.0, B::WristGirth, 1.0),
        ]
        .map(|(share, what, of)| {
            (share * body.cm_of_side(B::ArmLength, left), of * body.cm_of_side(what, left))
        });
        let length = body.cm_of_side(B::ArmLength, left);
        let top = Point::new(tip.x - 0.5, tip.y);
        let under = Point::new(armpit.x - 2.6, armpit.y);
        if let Some(arm) = Limb::new(length, &girths, top, under) {
            let mut path = arm.outline();
            path.close_path();
            shapes.push(if left { path } else { mirrored(&path) });
            let hand = arm.at(length + 0.045 * body.height(), 0.0);
            let size = (0.019 * body.height(), 0.052 * body.height());
            let hand = Ellipse::new(hand, size, super::pose::ARM_ANGLE).to_path(0.01);
            shapes.push(if left { hand } else { mirrored(&hand) });
        }
    }
    trunk.close_path();
    shapes.push(trunk);
    let (crown, chin) = (body.up(L::Crown), body.up(L::Chin));
    let throat = kurbo::Rect::new(-neck.0 * 0.94, neck.1, neck.0 * 0.94, chin + 2.0).to_path(0.1);
    let half_head = Pose::half_limb(body.cm(B::HeadGirth)) * 0.86;
    let head = Ellipse::new((0.0, f64::midpoint(crown, chin)), (half_head, (crown - chin) / 2.0), 0.0);
    shapes.extend([throat, head.to_path(0.01)]);
    shapes.into_iter().map(|s| canvas.place(&s)).collect()
}

fn sideways(pose: &Pose<'_>, canvas: &Canvas) -> Vec<BezPath> {
    let body = &pose.body;
    let up = |level| body.up_at(level).unwrap_or_default();
    let mut back: Vec<(f64, f64)> = Vec::new();
    let mut front: Vec<(f64, f64)> = Vec::new();
    for (level, what) in LEG {
        let h = up(level);
        let half = pose.half_leg_depth(h, body.cm(what));
        // A calf stands out behind.
        let bulge = if level == Level::Calf { 0.8 } else { 0.0 };
        back.push((h, pose.middle(h) - half - bulge));
        front.push((h, pose.middle(h) + half - bulge));
    }
    let mut both = |h: f64, girth: f64| {
        let (b, f) = pose.depth(h, girth);
        back.push((h, b));
        front.push((h, f));
    };
    for (level, what) in TRUNK {
        both(up(level), body.cm(what));
        if level == Level::Hip {
            both(body.up(L::Abdomen), body.cm(B::HipGirth) * 0.42 + body.cm(B::WaistGirth) * 0.58);
        }
    }
    both(body.up(L::Armpit), body.cm(B::BustGirth) * 0.9);
    let neck = body.cm(B::NeckGirth);
    let (nape, pit) = (body.up(L::BackNeck), body.up(L::FrontNeck));
    back.push((body.up(L::ShoulderTip), pose.depth(body.up(L::ShoulderTip), body.cm(B::BustGirth) * 0.66).0));
    back.push((nape, pose.middle(nape) - Pose::half_limb(neck)));
    front.push((pit, pose.middle(pit) + Pose::half_limb(neck) * 0.95));
    let (back, front) = (Curve::without_swings(&back), Curve::without_swings(&front));
    let mut trunk = BezPath::new();
    let ankle = up(Level::Ankle);
    trunk.move_to((back.at(ankle), ankle));
    follow(&mut trunk, &back, true);
    let chin = body.up(L::Chin);
    let throat = Pose::half_limb(neck) * 0.92;
    trunk.line_to((pose.middle(chin) - throat, chin + 3.0));
    trunk.line_to((pose.middle(chin) + throat, chin));
    trunk.line_to((front.at(pit), pit));
    follow(&mut trunk, &front, false);
    let foot = 0.105 * body.height();
    trunk.curve_to((front.at(ankle) + 0.5, ankle * 0.6), (foot, ankle * 0.45), (foot, 0.6));
    trunk.line_to((foot - 0.6, 0.0));
    trunk.line_to((back.at(ankle) - 1.2, 0.0));
    trunk.curve_to(
        (back.at(ankle) - 1.6, ankle * 0.4),
        (back.at(ankle), ankle * 0.7),
        (back.at(ankle), ankle),
    );
    trunk.close_path();
    let (crown, bottom) = (body.up(L::Crown), body.up(L::Chin));
    let deep = Pose::half_limb(body.cm(B::HeadGirth)) * 1.1;
    let head = Ellipse::new(
        (pose.middle(bottom) + 0.6, f64::midpoint(crown, bottom)),
        (deep, (crown - bottom) / 2.0),
        0.0,
    );
    let arm = super::side_limb(
        pose,
        body.cm(B::ArmLength),
        &[
            (0.0, 1.05 * body.cm(B::UpperArmGirth)),
            (0.26, body.cm(B::UpperArmGirth)),
            (0.57, 0.84 * body.cm(B::UpperArmGirth)),
            (1.0, body.cm(B::WristGirth)),
        ],
    );
    [head.to_path(0.01), trunk, arm].iter().map(|s| canvas.place(s)).collect()
}
