//! How a hem is turned: its turns on either tape, and which is recommended for a cloth, with the reason.

use crate::choice::choice;
use crate::garment::{Cloth, Drape, HemTurn};
use crate::length::{Length, Tape, Taught};
use crate::place::Structure;

/// The turns of a scheme, inner first, as people say them on either tape. Teaching values of hem schemes.
const fn said(turn: HemTurn) -> &'static [Taught] {
    macro_rules! t {
        ($($mm:literal = $sixty_fourths:literal),*) => {{
            const TURNS: &[Taught] = &[$(Taught::new($mm, $sixty_fourths)),*];
            TURNS
        }};
    }
    match turn {
        HemTurn::NarrowDouble => t!(6 = 16, 6 = 16),
        HemTurn::Double => t!(10 = 24, 10 = 24),
        HemTurn::Deep => t!(10 = 24, 30 = 80),
        HemTurn::SingleFinished | HemTurn::Fused => t!(30 = 80),
        HemTurn::Blind => t!(10 = 24, 40 = 104),
        HemTurn::Rolled => t!(3 = 8, 3 = 8),
        HemTurn::Faced => t!(6 = 16),
        HemTurn::Bound | HemTurn::Kept => t!(),
        HemTurn::Coverstitched => t!(22 = 56),
        HemTurn::Cuff => t!(40 = 104, 35 = 88),
        HemTurn::Band => t!(10 = 24),
    }
}

/// The turns of a scheme at the marks of a tape, inner first: its own, or as usual.
pub(super) fn turns(turn: HemTurn, own: &[Length], tape: Tape) -> Vec<Length> {
    let rounded = |length: Length| tape.round(length);
    match own.is_empty() {
        true => said(turn).iter().map(|t| rounded(t.on(tape))).collect(),
        false => own.iter().copied().map(rounded).collect(),
    }
}

choice! {
    /// Why a scheme is recommended.
    Because {
        /// A knit.
        Stretches => "two rows of stitching give with a knit",
        /// The worn edge is to be kept.
        WornEdge => "its worn edge stays, with a tuck behind it",
        /// A strongly curved edge.
        Curved => "turned up, an edge so curved would be too full: a shaped facing follows it",
        /// A curved edge.
        Flared => "on a curved edge only a narrow turn lies flat",
        /// Light cloth.
        Light => "light cloth hangs best from a narrow turn",
        /// A lining covers its raw edge.
        Lined => "turned once: its lining covers the raw edge",
        /// Heavy cloth.
        Heavy => "turned twice, heavy cloth makes a ridge: one turn with a finished edge",
        /// Stitching must not show.
        Unseen => "stitched blind, nothing shows outside",
        /// Everything else.
        Usual => "it is what such garments have",
    }
}

/// Over so many percent of fullness a narrow turn is better, and over so many a facing (teaching values: what an iron shrinks away, and
/// what an ease-stitch can hold).
pub(super) const PRESSED_IN: i64 = 2;
pub(super) const EASED_IN: i64 = 5;

/// The scheme recommended for a hem: by its cloth, how full it would be when turned deep (in percent), whether its worn edge stays, and
/// whether stitching may show.
pub(super) fn recommended(
    cloth: &Cloth,
    fullness_percent: i64,
    keeps_edge: bool,
    is_lined: bool,
    may_show: bool,
    usual: HemTurn,
) -> (HemTurn, Because) {
    use crate::garment::Weight;
    let light = cloth.weight == Weight::Light || cloth.drape == Drape::Fluid;
    match (cloth.structure, cloth.weight) {
        _ if keeps_edge => (HemTurn::Kept, Because::WornEdge),
        (Structure::Knit, _) => (HemTurn::Coverstitched, Because::Stretches),
        _ if fullness_percent > EASED_IN => (HemTurn::Faced, Because::Curved),
        _ if is_lined => (HemTurn::SingleFinished, Because::Lined),
        (Structure::Woven, Weight::Heavy) => (HemTurn::SingleFinished, Because::Heavy),
        (Structure::Woven, _) if fullness_percent > PRESSED_IN => (HemTurn::NarrowDouble, Because::Flared),
        (Structure::Woven, _) if light => (HemTurn::NarrowDouble, Because::Light),
        (Structure::Woven, _) if !may_show => (HemTurn::Blind, Because::Unseen),
        (Structure::Woven, _) => (usual, Because::Usual),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::garment::cloth_named;

    #[test]
    fn each_turn_is_said_on_both_tapes_and_drawn_as_it_is_said() {
        for turn in HemTurn::ALL.iter().copied() {
            let of = |tape| turns(turn, &[], tape).into_iter().sum::<Length>().cm();
            assert!((of(Tape::Cm) - of(Tape::In)).abs() < 0.4, "{turn:?}");
            assert_eq!(of(Tape::Cm), turn.turn_up_mm() as f64 / 10.0, "{turn:?}");
        }
    }

    #[test]
    fn a_cloth_and_a_curve_decide_how_it_is_turned() {
        let turn = |cloth: &str, fullness, kept, shows| {
            recommended(&cloth_named(cloth).unwrap(), fullness, kept, false, shows, HemTurn::Double)
        };
        assert_eq!(turn("cotton poplin", 0, false, true), (HemTurn::Double, Because::Usual));
        assert_eq!(turn("cotton poplin", 0, false, false).0, HemTurn::Blind);
        assert_eq!(turn("cotton poplin", 3, false, true).0, HemTurn::NarrowDouble);
        assert_eq!(turn("cotton poplin", 6, false, true).0, HemTurn::Faced);
        assert_eq!(turn("cotton lawn", 0, false, true).0, HemTurn::NarrowDouble);
        assert_eq!(turn("canvas", 0, false, true), (HemTurn::SingleFinished, Because::Heavy));
        assert_eq!(
            turn("canvas", 4, false, true),
            (HemTurn::SingleFinished, Because::Heavy),
            "a ridge is worse than easing"
        );
        assert_eq!(turn("canvas", 0, true, true).0, HemTurn::Kept);
        let coat = recommended(&cloth_named("cotton poplin").unwrap(), 3, false, true, true, HemTurn::Blind);
        assert_eq!(coat, (HemTurn::SingleFinished, Because::Lined));
    }
}
