//! What two devices changed on one elastic, part by part.

use super::ElasticChange;
use crate::try_on::{Merging, Parts};

impl Parts for ElasticChange {
    fn of_what(&self) -> String {
        format!("elastic in the {}", self.at.name())
    }

    fn merged(m: &mut Merging, what: &str, [base, mine, theirs]: [&Self; 3]) -> Self {
        let Self { at, casing: _, hold_percent: _ } = base;
        let casing = [&base.casing, &mine.casing, &theirs.casing];
        let hold = [&base.hold_percent, &mine.hold_percent, &theirs.hold_percent];
        Self {
            at: *at,
            casing: m.length(&format!("{what}: casing"), "none", casing),
            hold_percent: m.value(&format!("{what}: hold"), hold, |hold| {
                hold.map_or("as usual".into(), |percent| format!("{percent} %"))
            }),
        }
    }
}
