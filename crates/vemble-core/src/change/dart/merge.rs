//! What two devices changed on one pair of darts, part by part.

use super::DartChange;
use crate::length::Measure;
use crate::try_on::{Merging, Parts};

impl Parts for DartChange {
    fn of_what(&self) -> String {
        self.dart.name().into()
    }

    fn merged(m: &mut Merging, what: &str, [base, mine, theirs]: [&Self; 3]) -> Self {
        let part = |part: &str| format!("{what}: {part}");
        let Self { dart, readings: _, sides: _, point: _, base: _, from_side_seam: _ } = base;
        let lengths = |of: fn(&Self) -> &Option<Measure>| [of(base), of(mine), of(theirs)];
        Self {
            dart: *dart,
            readings: m.readings(what, [&base.readings, &mine.readings, &theirs.readings]),
            sides: m.value(&part("sides"), [&base.sides, &mine.sides, &theirs.sides], |s| {
                s.map_or("as usual", |s| s.name()).into()
            }),
            point: m.length(&part("point"), "as usual", lengths(|d| &d.point)),
            base: m.length(&part("other end"), "as usual", lengths(|d| &d.base)),
            from_side_seam: m.length(
                &part("distance from the side seam"),
                "as usual",
                lengths(|d| &d.from_side_seam),
            ),
        }
    }
}
