//! How far an arm goes up before the sleeve takes the body with it.
//!
//! A model of three figures. A sleeve hangs by itself at the angle of its cap: flat and wide it stands out, high and narrow it hangs down.
//! From there the cloth between the side and the sleeve has to reach round the hinge of the arm: at a seam d below the hinge it spans
//! 2 d · sin(½ angle), and gives a little before it drags. So a seam close under the arm lets it up, and a low one ties it down.
//!
//! **It leaves out** how the cloth stretches, how the shoulder blade widens the back, pads, and how long the sleeve is.

use crate::length::Taught;

/// So far below the hinge of the arm a seam lies where nobody read it: 2.5 cm, 1 in (teaching value: it clears the skin and no more).
pub(super) const USUAL_DROP: Taught = Taught::new(25, 64);
/// So much the cloth of the body gives way before it is felt: 3 cm, 1 1/4 in (teaching value: the hem of a jacket may rise as much).
pub(super) const GIVES: Taught = Taught::new(30, 80);
/// An arm goes no further.
const STRAIGHT_UP: f64 = 180.0;

/// The angle that a sleeve stands at by itself, in degrees from hanging down: the cap's height against half the sleeve's width.
pub(super) fn stands_at(wide: f64, high: f64) -> f64 {
    (wide / 2.0).atan2(high).to_degrees()
}

/// How far the arm goes up, in degrees: a sleeve that stands at an angle, with its seam so far below the hinge, in cloth that gives so much.
pub(super) fn lifts_to(stands_at: f64, drop: f64, gives: f64) -> f64 {
    if drop <= 0.0 {
        return STRAIGHT_UP;
    }
    let half = (stands_at.to_radians() / 2.0).sin() + gives / (2.0 * drop);
    if half >= 1.0 { STRAIGHT_UP } else { 2.0 * half.asin().to_degrees() }
}
