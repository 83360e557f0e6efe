//! What two devices changed on one gathered edge, part by part.

use super::GathersChange;
use crate::garment::GatherHow;
use crate::try_on::{Merging, Parts};

impl Parts for GathersChange {
    fn of_what(&self) -> String {
        format!("gathers or pleats {}", self.at.name())
    }

    fn merged(m: &mut Merging, what: &str, [base, mine, theirs]: [&Self; 3]) -> Self {
        let part = |part: &str| format!("{what}: {part}");
        Self {
            at: base.at,
            long: m.length(&part("long edge"), "not measured", [&base.long, &mine.long, &theirs.long]),
            short: m.length(&part("short edge"), "by the garment", [&base.short, &mine.short, &theirs.short]),
            how: m.value(&part("how"), [&base.how, &mine.how, &theirs.how], |how: &GatherHow| {
                how.name().into()
            }),
            count: m.value(&part("how many"), [&base.count, &mine.count, &theirs.count], |count| {
                count.map_or("by their depth".into(), |count| count.to_string())
            }),
            depth: m.length(&part("depth"), "as usual", [&base.depth, &mine.depth, &theirs.depth]),
        }
    }
}
