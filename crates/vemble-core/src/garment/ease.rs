//! Ease: what a garment measures beyond the body, level by level. Teaching values of fitting practice.

use crate::length::{Length, Tape, Taught};
use crate::place::{EaseClass, Level, Structure};

/// Ease that a level wants on the whole girth, at the marks of a tape: least to move in, and the usual range.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct EaseBand {
    /// Less than this binds.
    pub least: Length,
    /// What most garments of this kind have, from.
    pub usual_from: Length,
    /// What most garments of this kind have, to.
    pub usual_to: Length,
    /// From here on it is a loose garment.
    pub loose: Length,
}

impl EaseBand {
    /// The middle of the usual range.
    pub fn middle(&self) -> Length {
        (self.usual_from + self.usual_to).fraction(1, 2)
    }
}

/// Ease in mm, as people say it on either tape: a pair each, in sixty-fourths of an inch.
const fn said(mm: i64) -> Taught {
    let sixty_fourths = match mm {
        -30 => -80,
        -20 => -48,
        10 => 24,
        15 => 40,
        20 => 48,
        25 => 64,
        30 => 80,
        40 => 96,
        50 => 128,
        60 => 160,
        70 => 176,
        80 => 192,
        90 => 224,
        100 => 256,
        110 => 280,
        120 => 304,
        140 => 352,
        150 => 384,
        160 => 400,
        180 => 448,
        200 => 512,
        220 => 560,
        _ => 0,
    };
    Taught::new(mm, sixty_fourths)
}

/// Woven cloth without stretch, whole girth in mm: least, usual from, to, loose.
///
/// Teaching values: a waistband that is closed all day wants little, a hip must sit, a thigh, a knee and an elbow must
/// bend, a jacket and a coat go over what is worn below. There is no figure for a hem: taste and openings decide there.
const fn woven(level: Level, class: EaseClass) -> Option<[i64; 4]> {
    use EaseClass as C;
    Some(match level {
        Level::Bust => match class {
            C::Dress => [40, 50, 100, 120],
            C::Jacket => [80, 90, 140, 180],
            C::Coat => [120, 140, 200, 220],
            C::Boned => [-30, -20, 10, 30],
            C::Waistband => return None,
        },
        Level::Waist => match class {
            C::Dress | C::Boned => [20, 30, 80, 100],
            C::Waistband => [10, 10, 30, 40],
            C::Jacket => [50, 80, 140, 160],
            C::Coat => [90, 140, 200, 220],
        },
        Level::Hip => match class {
            C::Jacket => [40, 60, 120, 140],
            C::Coat => [80, 120, 180, 200],
            C::Dress | C::Boned | C::Waistband => [30, 50, 80, 100],
        },
        Level::Thigh => [30, 50, 80, 120],
        Level::Knee | Level::Calf => [40, 60, 120, 150],
        // Over an elbow that is bent.
        Level::Elbow => [30, 50, 90, 110],
        Level::Wrist => [20, 30, 60, 80],
        Level::UpperArm => match class {
            C::Coat => [70, 80, 120, 140],
            C::Dress | C::Jacket | C::Boned | C::Waistband => [30, 40, 70, 90],
        },
        // A collar that buttons.
        Level::Neck => [10, 15, 25, 40],
        // Below the bust a garment is fitted as at the waist; a boned one is held there too.
        Level::UnderBust => match class {
            C::Boned => [-30, -20, 10, 30],
            C::Dress => [20, 30, 80, 100],
            C::Jacket => [50, 80, 140, 160],
            C::Coat => [90, 140, 200, 220],
            C::Waistband => return None,
        },
        // Whatever else goes round the body is not smaller than it.
        Level::Ankle => [0, 20, 120, 160],
        Level::Shoulder | Level::Hem | Level::SleeveHem => return None,
    })
}

/// The ease wanted at `level` over `body`, at the marks of a tape, or nothing where no figure is taught.
///
/// Elastane wovens halve the least. Knits take a negative least: −([stretch in use](stretch_in_use)) × body girth.
pub fn ease_band(
    level: Level,
    class: EaseClass,
    structure: Structure,
    stretch_percent: u8,
    body: Length,
    tape: Tape,
) -> Option<EaseBand> {
    let row = woven(level, class)?;
    let [least, usual_from, usual_to, loose] = row.map(|mm| tape.round(said(mm).on(tape)));
    let least = match (structure, stretch_percent) {
        (Structure::Woven, 0) => least,
        (Structure::Woven, _) if least.is_negative() => least,
        (Structure::Woven, _) => tape.round(least.fraction(1, 2)),
        (Structure::Knit, _) => tape.round(-body.fraction(stretch_in_use(structure, stretch_percent), 100)),
    };
    Some(EaseBand { least, usual_from, usual_to, loose })
}

/// What of the body's girth a knit may stretch by in wear, in percent: nought for stable knits (under 15 % stretch), 3 for 15–35 %, 7 for
/// 35–60 %, 10 above (teaching values: a fraction of what the hand can stretch it by). Nought of what is woven.
pub const fn stretch_in_use(structure: Structure, stretch_percent: u8) -> i64 {
    match (structure, stretch_percent) {
        (Structure::Woven, _) | (Structure::Knit, 0..15) => 0,
        (Structure::Knit, 15..35) => 3,
        (Structure::Knit, 35..60) => 7,
        (Structure::Knit, _) => 10,
    }
}

/// What moving adds to a girth where the wearer's own moving measurement is not known.
///
/// Teaching values: sitting adds about 4 cm at the hip and 2 cm at the thigh, bending the elbow about 2.5 cm at the upper arm.
pub const fn moving_adds(level: Level) -> Option<Taught> {
    match level {
        Level::Hip => Some(said(40)),
        Level::Thigh => Some(said(20)),
        Level::UpperArm => Some(said(25)),
        Level::Neck
        | Level::Shoulder
        | Level::Bust
        | Level::UnderBust
        | Level::Waist
        | Level::Knee
        | Level::Calf
        | Level::Ankle
        | Level::Hem
        | Level::Elbow
        | Level::Wrist
        | Level::SleeveHem => None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_stretchy_cloth_needs_less_ease() {
        let thigh = Length::from_mm(600);
        let least = |structure, stretch| {
            let class = EaseClass::Waistband;
            ease_band(Level::Thigh, class, structure, stretch, thigh, Tape::Cm).unwrap().least
        };
        assert_eq!(least(Structure::Woven, 0), Length::from_mm(30));
        assert_eq!(least(Structure::Woven, 4), Length::from_mm(15));
        assert_eq!(least(Structure::Knit, 10), Length::ZERO);
        assert_eq!(least(Structure::Knit, 40), Length::from_mm(-42));
        assert_eq!(ease_band(Level::Hem, EaseClass::Waistband, Structure::Woven, 0, thigh, Tape::Cm), None);
    }

    #[test]
    fn the_table_is_in_order_and_a_coat_wants_more_than_a_jacket_than_a_dress() {
        use EaseClass as C;
        for level in Level::ALL.iter().copied() {
            for class in [C::Dress, C::Jacket, C::Coat, C::Boned, C::Waistband] {
                let Some(row) = woven(level, class) else { continue };
                assert!(row.windows(2).all(|w| w[0] <= w[1]), "{level:?} {class:?}");
                // What is said in inches lies beside it: within an eighth, or a tenth where that is more.
                for mm in row {
                    let (cm, inches) = (said(mm).on(Tape::Cm).cm(), said(mm).on(Tape::In).cm());
                    assert!((cm - inches).abs() <= (0.1 * cm.abs()).max(0.32), "{mm} mm: {cm} and {inches}");
                }
            }
        }
        let least = |level, class| woven(level, class).unwrap()[0];
        assert!(least(Level::Bust, C::Boned) < least(Level::Bust, C::Dress));
        assert!(least(Level::Bust, C::Dress) < least(Level::Bust, C::Jacket));
        assert!(least(Level::Bust, C::Jacket) < least(Level::Bust, C::Coat));
        assert!(least(Level::UpperArm, C::Dress) < least(Level::UpperArm, C::Coat));
    }
}
