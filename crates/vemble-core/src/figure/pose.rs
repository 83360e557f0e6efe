//! How a body stands: how wide and how deep anything that goes round it looks, from the front and from the side.
//!
//! Girths are drawn as ovals. An oval k times as wide as deep has, to within a percent, the half width
//! g/2π × √(2/(1 + 1/k²)) and the half depth of that over k (Ramanujan's ellipse, first term). Everything else here is a
//! drawing value: where the middle of the body lies, seen from the side, and what posture does to it.

use crate::body::{BodyMeasurement, Landmark, Posture, Proportions};
use std::f64::consts::PI;

/// A body to draw, and to hang garments on. All lengths in cm, heights above the floor, x to the wearer's left from the
/// front and forwards from the side.
pub(crate) struct Pose<'a> {
    pub body: Proportions<'a>,
    /// How much wider than deep, over the height.
    oval: Vec<(f64, f64)>,
    /// Where the middle lies from the side, over the height.
    middle: Vec<(f64, f64)>,
    /// How much of the depth lies before the middle (1 is half of it), over the height.
    forward: Vec<(f64, f64)>,
    /// What the abdomen adds in front, at its fullest.
    abdomen: f64,
}

/// Room between the thighs at the crotch.
const BETWEEN_LEGS: f64 = 0.3;
/// How far the feet stand out from under the thighs.
const STANCE: f64 = 2.0;
/// How far the arms hang away from the body, in radians: about 15°.
pub(super) const ARM_ANGLE: f64 = 0.26;

/// Straight between points, level beyond them.
fn between(points: &[(f64, f64)], at: f64) -> f64 {
    let above = points.partition_point(|p| p.0 < at);
    match (above.checked_sub(1).and_then(|i| points.get(i)), points.get(above)) {
        (Some(a), Some(b)) => a.1 + (b.1 - a.1) * (at - a.0) / (b.0 - a.0),
        (a, b) => a.or(b).map_or(0.0, |p| p.1),
    }
}

impl<'a> Pose<'a> {
    /// How the wearer stands.
    pub fn of(body: Proportions<'a>) -> Self {
        use Landmark as L;
        let up = |l| body.up(l);
        let has = |p| body.wearer().stands(p);
        let sway = if has(Posture::SwayBack) { 2.2 } else { 0.0 };
        let shoulder = if has(Posture::ForwardShoulder) { 2.6 } else { 0.0 };
        let abdomen = if has(Posture::FullAbdomen) { 4.0 } else { 0.0 };
        let oval = vec![
            (up(L::Knee), 1.2),
            (up(L::Crotch), 1.4),
            (up(L::Hip), 1.45),
            (up(L::Waist), 1.3),
            (up(L::UnderBust), 1.2),
            (up(L::Bust), 1.1),
            (up(L::Armpit), 1.12),
            (up(L::ShoulderTip), 1.6),
            (up(L::FrontNeck), 1.05),
        ];
        let middle = vec![
            (up(L::Ankle), -1.4),
            (up(L::Calf), -0.7),
            (up(L::Knee), 0.4),
            (up(L::Crotch), -1.4),
            (up(L::Hip), -0.9 - 0.45 * sway),
            (up(L::Waist), 0.2 + sway),
            (up(L::UnderBust), 0.2 + 0.4 * sway),
            (up(L::Bust), 0.6),
            (up(L::Armpit), -0.2 + 0.5 * shoulder),
            (up(L::ShoulderTip), -0.9 + shoulder),
            (up(L::BackNeck), 0.8 + 0.7 * shoulder),
            (up(L::Chin), 2.2 + 0.8 * shoulder),
        ];
        let forward = vec![
            (up(L::Crotch), 1.0),
            (up(L::Hip), 0.93),
            (up(L::Waist), 0.98),
            (up(L::UnderBust), 1.0),
            (up(L::Bust), 1.12),
            (up(L::Armpit), 0.98),
            (up(L::BackNeck), 1.0),
        ];
        Self { body, oval, middle, forward, abdomen }
    }

    /// Half the width of a girth round the whole body at a height, from the front.
    pub fn half_width(&self, up: f64, girth: f64) -> f64 {
        let k = between(&self.oval, up);
        girth / (2.0 * PI) * (2.0 / (1.0 + 1.0 / (k * k))).sqrt()
    }

    /// Back and front of a girth round the whole body at a height, from the side.
    pub fn depth(&self, up: f64, girth: f64) -> (f64, f64) {
        let half = self.half_width(up, girth) / between(&self.oval, up);
        let (middle, share) = (self.middle(up), between(&self.forward, up));
        (middle - half * (2.0 - share), middle + half * share + self.abdomen_at(up))
    }

    /// Where the middle of the body lies, from the side.
    pub fn middle(&self, up: f64) -> f64 {
        between(&self.middle, up)
    }

    /// A full abdomen stands out most between waist and hip, and is gone at the ribs and the crotch.
    fn abdomen_at(&self, up: f64) -> f64 {
        let at = |l| self.body.up(l);
        let bulge = [
            (at(Landmark::Crotch), 0.0),
            (at(Landmark::Hip), 0.55 * self.abdomen),
            (at(Landmark::Abdomen), self.abdomen),
            (at(Landmark::Waist), 0.6 * self.abdomen),
            (at(Landmark::UnderBust), 0.0),
        ];
        between(&bulge, up)
    }

    /// Half the depth of a girth round one leg, from the side: a thigh is deeper than wide.
    pub fn half_leg_depth(&self, up: f64, girth: f64) -> f64 {
        let crotch = self.body.up(Landmark::Crotch);
        Self::half_limb(girth) * (1.0 + 0.12 * (up / crotch).clamp(0.0, 1.0).powi(2))
    }

    /// Half the width of a girth round one leg or arm.
    pub fn half_limb(girth: f64) -> f64 {
        girth / (2.0 * PI)
    }

    /// Where the middle of a leg lies at a height, from the front; `thigh` is the girth of what the leg wears there.
    pub fn leg_middle(&self, up: f64, thigh: f64) -> f64 {
        let crotch = self.body.up(Landmark::Crotch);
        Self::half_limb(thigh) + BETWEEN_LEGS + STANCE * (1.0 - up / crotch).max(0.0)
    }

    /// How much lower one shoulder tip stands; 1.5 cm where it was noted.
    pub fn shoulder_drop(&self, left: bool) -> f64 {
        let lower = if left { Posture::LeftShoulderLower } else { Posture::RightShoulderLower };
        if self.body.wearer().stands(lower) { 1.5 } else { 0.0 }
    }

    /// Half the width of the neck.
    pub fn half_neck(&self) -> f64 {
        Self::half_limb(self.body.cm(BodyMeasurement::NeckGirth)) * 1.02
    }

    /// Height where the neck turns into the shoulder.
    pub fn neck_side(&self) -> f64 {
        self.body.up(Landmark::BackNeck) - 1.2
    }
}
