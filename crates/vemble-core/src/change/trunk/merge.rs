//! What two devices changed on one length of the trunk, part by part.

use super::TrunkChange;
use crate::try_on::{Merging, Parts};

impl Parts for TrunkChange {
    fn of_what(&self) -> String {
        self.at.name().into()
    }

    fn merged(m: &mut Merging, what: &str, [base, mine, theirs]: [&Self; 3]) -> Self {
        let part = |part: &str| format!("{what}: {part}");
        Self {
            at: base.at,
            front: m.length(
                &part("centre front"),
                "as at the sides",
                [&base.front, &mine.front, &theirs.front],
            ),
            side: m.length(&part("sides"), "nothing", [&base.side, &mine.side, &theirs.side]),
            back: m.length(&part("centre back"), "as at the sides", [&base.back, &mine.back, &theirs.back]),
        }
    }
}
