//! How what goes round a garment lies on its front and its back, cut and sewn: the same on paper, on the stand and in the record.

use super::{Dart, DartFacts, Garment, Seam};
use crate::length::Length;
use crate::place::Level;

/// A princess seam lies so far from the middle, and any other long seam so far: shares of the way to the side.
pub(crate) const PRINCESS: f64 = 0.52;
pub(crate) const PANEL: f64 = 0.74;
/// A princess seam meets the shoulder so far from the neck, as a share of it.
pub(crate) const AT_SHOULDER: f64 = 0.45;
/// A panel seam ends so far along the armhole, from under the arm, as a share of it (teaching value: where the arm does not rub it).
pub(crate) const AT_ARMHOLE: f64 = 0.3;
/// A shoulder falls by so much, in radians: about 20° (teaching value).
pub(crate) const SLOPE: f64 = 0.349;
/// A back is so much wider than a front at the hip of legs, on each side of a quarter, in cm (teaching value: the seat wants more than the front).
pub(crate) const BACK_HIP: f64 = 0.5;
/// Of what is taken from hip to waist so large a share goes off each edge of the outseam, the middle in front and the middle behind
/// (teaching values).
pub(crate) const AT_SIDE: f64 = 0.3;
const AT_FRONT: f64 = 0.1;
const AT_BACK: f64 = 0.3;

impl Garment {
    /// The seams of half of a storey that run down, from the middle in front to the middle behind, but for those in the middles. Those of legs end
    /// below a bodice.
    pub(crate) fn divisions(&self, is_bodice: bool) -> Vec<Seam> {
        let side = self.side_seam();
        let all = [Seam::PrincessFront, Seam::PanelFront, side, Seam::PanelBack, Seam::PrincessBack];
        let goes_here = |seam| !is_bodice || self.span_of(seam).1 < Level::Waist;
        let is_there = |seam: &Seam| *seam == side || self.seam(*seam).is_some() && goes_here(*seam);
        all.into_iter().filter(is_there).collect()
    }

    /// Its yoke is a part of its back alone, and ends at the sides: that of a skirt goes all round.
    pub(crate) fn has_yoke_behind(&self) -> bool {
        self.seam(Seam::YokeSeam).is_some() && (self.hangs_from_shoulders() || self.has_legs())
    }

    /// Heights between which a dart takes of what goes round, in cm: its wide end first. None of one that runs across.
    pub(crate) fn spans_of(&self, dart: &DartFacts) -> Vec<f64> {
        let long = dart.length.length.cm();
        let waist = self.level(Level::Waist).map_or(0.0, |level| level.station.length.cm());
        match dart.dart {
            Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => {
                vec![waist, if self.goes_above_waist() { waist + long } else { waist - long }]
            }
            Dart::FrontFishEye | Dart::BackFishEye => vec![waist, waist + long / 2.0, waist - long / 2.0],
            Dart::Bust | Dart::Shoulder => Vec::new(),
        }
    }

    /// What one dart takes of what goes round at a height, both in cm.
    pub(crate) fn taken_by(&self, dart: &DartFacts, height: f64) -> f64 {
        let spans = self.spans_of(dart);
        let Some((wide, points)) = spans.split_first() else { return 0.0 };
        let share = |point: &f64| {
            let share = (height - point) / (wide - point);
            // At its wide end nothing hangs on the last digit.
            if (0.0..1.0 + 1e-9).contains(&share) { share } else { 0.0 }
        };
        2.0 * dart.fold_depth.length.cm() * points.iter().map(share).fold(0.0, f64::max)
    }

    /// What its darts take at a level on one side, in cm: of both faces, or of one.
    fn taken_at(&self, level: Level, of: impl Fn(Dart) -> bool) -> f64 {
        let height = self.level(level).map_or(0.0, |level| level.station.length.cm());
        self.darts.iter().filter(|d| of(d.dart)).map(|d| self.taken_by(d, height)).sum()
    }

    /// From the middle to the side of a leg along its waist as it is cut, in cm, darts open, and with so much of it on one side gathered in; nothing where hip or
    /// waist is not known.
    pub(crate) fn leg_at_waist(&self, is_front: bool, gathered: f64) -> Option<f64> {
        let hip = self.level(Level::Hip)?.width.girth().cm();
        let (more, share) = if is_front { (-BACK_HIP, AT_FRONT) } else { (BACK_HIP, AT_BACK) };
        Some(hip / 4.0 + more - (AT_SIDE + share) * (self.falls()? - gathered))
    }

    /// What edges lose on one side from hip to waist besides what darts take, in cm.
    pub(crate) fn falls(&self) -> Option<f64> {
        let [hip, waist] = [Level::Hip, Level::Waist].map(|l| Some(self.level(l)?.width.girth().cm()));
        // Those of a coverall are in its bodice.
        Some((hip? - waist?) / 2.0 - self.taken_at(Level::Waist, |_| !self.goes_above_waist()))
    }

    /// From the middle to the side along the waist, sewn; nothing where the waist is not known. Every edge of a seam that runs down loses as much as
    /// the others, so that a face with more of them is narrower.
    pub fn face_at_waist(&self, is_front: bool) -> Option<Length> {
        let taken = self.taken_at(Level::Waist, |dart| dart.is_in_front() == is_front);
        let is_bodice = self.goes_above_waist() && self.seam(Seam::WaistSeam).is_some();
        if self.has_legs() && !is_bodice {
            return Some(Length::from_cm(self.leg_at_waist(is_front, 0.0)? - taken));
        }
        let half =
            |level: Level| Some(self.level(level)?.width.girth().cm() / 2.0 + self.taken_at(level, |_| true));
        let waist = half(Level::Waist)?;
        let bust = if self.goes_above_waist() { half(Level::Bust) } else { None };
        let divisions = self.divisions(is_bodice);
        let side = divisions.iter().position(|seam| *seam == self.side_seam()).unwrap_or(0);
        let inner = if is_front { side } else { divisions.len() - 1 - side };
        let edges = (2 * inner + 1) as f64 / (2 * divisions.len()) as f64;
        let cut = edges * waist + (1.0 - 2.0 * edges) * bust.unwrap_or(waist) / 2.0;
        Some(Length::from_cm(cut - taken))
    }
}
