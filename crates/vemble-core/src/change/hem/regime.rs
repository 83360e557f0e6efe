//! Where the cloth is folded and cut: three regimes of one subtraction, and an edge that stays.
//!
//! What is folded up inside and what is taken off is all the cloth there is: present turn-up + taken off = cut off + new allowance.

use crate::length::Length;

/// A facing needs so much cloth to be stitched to: 0.6 cm, 1/4 in.
pub(super) const FACED: crate::length::Taught = crate::length::Taught::new(6, 16);

/// How a new hem comes out of the cloth that is there.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Regime {
    /// The new edge lies so far above the present fold that everything below it is cut off there.
    AboveOldFold {
        /// The cut, above the present bottom fold.
        above_fold: Length,
        /// The old hem falls away with what is cut off; else it is unpicked first.
        falls_away: bool,
        /// The same cut from the raw edge, once that is unpicked and pressed flat.
        cut: Length,
    },
    /// The old hem is unpicked and pressed out, and what is too much is cut from its raw edge.
    FromTurnUp {
        /// What is cut off, from the raw edge; nought where all of it is turned up again.
        cut: Length,
    },
    /// The cloth does not reach.
    Short {
        /// What is missing.
        by: Length,
        /// The deepest allowance that there is cloth for.
        deepest: Length,
    },
}

/// The regime of a hem whose present turn-up is `turn_up` (inner turn and all) and shows `visible` from the fold to its stitching, when
/// `off` is taken off (negative: let down) and the new hem needs `allowance`.
///
/// All four are at marks of one tape, so that what follows is plain arithmetic.
pub fn regime(turn_up: Length, visible: Length, off: Length, allowance: Length) -> Regime {
    let cut = turn_up + off - allowance;
    if cut.is_negative() {
        return Regime::Short { by: -cut, deepest: (turn_up + off).max(Length::ZERO) };
    }
    match off - allowance {
        above if above.is_negative() => Regime::FromTurnUp { cut },
        above_fold => Regime::AboveOldFold { above_fold, falls_away: above_fold >= visible, cut },
    }
}

/// Over so much a tuck is trimmed after the try-on: 1.3 cm, 1/2 in (teaching value: more than that is felt inside a leg).
const DEEP_TUCK: crate::length::Taught = crate::length::Taught::new(13, 32);

/// A hem whose worn edge stays: the cloth above it is folded away in a tuck behind it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct KeptEdge {
    /// The crease, above the edge that stays.
    pub crease: Length,
    /// The two lines that are stitched together, above that edge.
    pub stitch: [Length; 2],
    /// How deep the tuck is.
    pub tuck: Length,
}

impl KeptEdge {
    /// Takes `off` off above a band `band` deep.
    pub fn of(off: Length, band: Length) -> Self {
        let tuck = off.fraction(1, 2);
        Self { crease: band + tuck, stitch: [band, band + off], tuck }
    }

    /// The same at the marks of a tape: the lines that are stitched together lie on them; where the fold falls between two, half a mark more
    /// is on its near side.
    #[must_use]
    pub fn on(self, tape: crate::length::Tape) -> Self {
        let crease = tape.round(self.crease);
        Self { crease, tuck: crease - self.stitch[0], ..self }
    }

    /// Too deep to stay whole.
    pub fn is_trimmed(&self, tape: crate::length::Tape) -> bool {
        self.tuck > DEEP_TUCK.on(tape)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::length::Tape;
    use proptest::prelude::*;
    use serde_json::Value;

    const fn mm(mm: i64) -> Length {
        Length::from_mm(mm)
    }

    fn reference() -> Value {
        serde_json::from_str(include_str!("hems.json")).unwrap()
    }

    /// Whole millimetres, or halves of one.
    fn length(value: &Value) -> Length {
        Length::from_cm(value.as_f64().unwrap() / 10.0)
    }

    #[test]
    fn every_regime_of_the_reference_is_given() {
        let reference = reference();
        let cases = reference["regimes"].as_array().unwrap();
        assert_eq!(cases.len(), 540);
        for case in cases {
            let of = |field: &str| length(&case[field]);
            let found = regime(of("h"), of("v"), of("a"), of("A"));
            let wanted = match case["regime"].as_str().unwrap() {
                "short" => Regime::Short { by: of("short_by"), deepest: of("deepest_allowance") },
                "cut_above_old_fold" => Regime::AboveOldFold {
                    above_fold: of("above_present_fold"),
                    falls_away: case["old_hem_falls_away"].as_bool().unwrap(),
                    cut: of("cut_from_raw_edge"),
                },
                _ => Regime::FromTurnUp { cut: of("cut_from_raw_edge") },
            };
            assert_eq!(found, wanted, "{case}");
            if let (Regime::Short { deepest, .. }, Some(faced)) = (found, case["can_be_faced"].as_bool()) {
                assert_eq!(deepest >= FACED.on(Tape::Cm), faced, "{case}");
            }
        }
    }

    #[test]
    fn worked_example_e() {
        let skirt = |off| regime(mm(40), mm(30), mm(off), mm(35));
        assert_eq!(skirt(65), Regime::AboveOldFold { above_fold: mm(30), falls_away: true, cut: mm(70) });
        assert_eq!(skirt(20), Regime::FromTurnUp { cut: mm(25) });
        assert_eq!(skirt(-25), Regime::Short { by: mm(20), deepest: mm(15) });
        assert_eq!(regime(mm(40), mm(30), mm(-25), mm(15)), Regime::FromTurnUp { cut: mm(0) });
    }

    #[test]
    fn worked_example_f_and_every_kept_edge_of_the_reference() {
        let kept = KeptEdge::of(mm(70), mm(15));
        assert_eq!(kept, KeptEdge { crease: mm(50), stitch: [mm(15), mm(85)], tuck: mm(35) });
        for case in reference()["kept_edges"].as_array().unwrap() {
            let of = |field: &str| length(&case[field]);
            let kept = KeptEdge::of(of("a"), of("b"));
            assert_eq!(kept.crease, of("crease_above_edge"));
            assert_eq!(kept.stitch, [length(&case["stitch"][0]), length(&case["stitch"][1])]);
            assert_eq!(kept.tuck, of("tuck"));
            assert_eq!(kept.is_trimmed(Tape::Cm), case["trim"].as_bool().unwrap(), "{case}");
        }
    }

    proptest! {
        /// No cloth is lost or made, nothing is cut above the new fold, and what is let down and then taken up again is as before.
        #[test]
        fn cloth_balances(h in 0_i64..80, inner in 0_i64..80, off in -80_i64..200, allowance in 0_i64..80) {
            let (h, v) = (mm(h), mm((h - inner).max(0)));
            match regime(h, v, mm(off), mm(allowance)) {
                Regime::Short { by, deepest } => {
                    prop_assert_eq!(deepest.max(h + mm(off)) + by, mm(allowance).max(deepest + by));
                    prop_assert!(by > Length::ZERO);
                }
                Regime::AboveOldFold { above_fold, falls_away, cut } => {
                    prop_assert_eq!(h + mm(off), cut + mm(allowance));
                    prop_assert!(above_fold <= mm(off), "never above the new fold");
                    prop_assert_eq!(falls_away, above_fold >= v);
                }
                Regime::FromTurnUp { cut } => {
                    prop_assert_eq!(h + mm(off), cut + mm(allowance));
                    prop_assert!(cut <= h + mm(off));
                    // Nothing was cut: what is inside now lets the same edge come back.
                    if cut == Length::ZERO {
                        let back = regime(mm(allowance), mm(allowance), mm(-off), h);
                        prop_assert!(!matches!(back, Regime::Short { .. }), "{back:?}");
                    }
                }
            }
        }
    }
}
