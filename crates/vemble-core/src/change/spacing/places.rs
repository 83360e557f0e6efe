//! Where fastenings stand: exact places from the top, by their wanted distance.

use crate::length::Length;

/// How many gaps of about `pitch` a run has: the nearest number, one at least.
///
/// # Panics
/// Where `pitch` is not more than nought.
pub(super) fn gaps(run: Length, pitch: Length) -> i64 {
    let (run, pitch) = (run.nm(), pitch.nm());
    ((2 * run + pitch) / (2 * pitch)).max(1)
}

/// Evenly from `first` to `last`, with so many gaps between.
pub fn even(first: Length, last: Length, gaps: i64) -> Vec<Length> {
    (0..=gaps).map(|n| first + (last - first).fraction(n, gaps)).collect()
}

/// From `first` in so many even gaps to `line`, and on at the same distance as far as `last`.
pub fn onward(first: Length, line: Length, last: Length, gaps: i64) -> Vec<Length> {
    let at = |n: i64| first + (line - first).fraction(n, gaps);
    (0..).map(at).take_while(|place| *place <= last).collect()
}

/// Half of `pitch` above and below `line`, and on at `pitch` from there, from `first` to `last`.
pub fn straddling(first: Length, last: Length, line: Length, pitch: Length) -> Vec<Length> {
    let half = pitch.fraction(1, 2);
    let mut up: Vec<Length> =
        (0..).map(|n| line - half - pitch * n).take_while(|place| *place >= first).collect();
    up.reverse();
    up.extend((0..).map(|n| line + half + pitch * n).take_while(|place| *place <= last));
    up.retain(|place| (first..=last).contains(place));
    up
}
