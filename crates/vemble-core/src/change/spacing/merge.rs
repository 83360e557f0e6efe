//! What two devices changed on the fastenings of one opening, part by part.

use super::{Spaced, SpacingChange};
use crate::length::Measure;
use crate::try_on::{Merging, Parts};

impl Parts for SpacingChange {
    fn of_what(&self) -> String {
        format!("fastenings, {}", self.at.name())
    }

    fn merged(m: &mut Merging, what: &str, [base, mine, theirs]: [&Self; 3]) -> Self {
        let part = |part: &str| format!("{what}: {part}");
        let lengths = |of: fn(&Self) -> &Option<Measure>| [of(base), of(mine), of(theirs)];
        Self {
            at: base.at,
            edge: m.length(&part("length of its edge"), "not measured", lengths(|s| &s.edge)),
            to_hem: m.value(&part("ends in the hem"), [&base.to_hem, &mine.to_hem, &theirs.to_hem], |to| {
                to.map_or("as usual", |to| if to { "yes" } else { "no" }).into()
            }),
            first: m.length(&part("the first"), "as usual", lengths(|s| &s.first)),
            last: m.length(&part("the last"), "as usual", lengths(|s| &s.last)),
            apart: m.length(&part("how far apart"), "by their number", lengths(|s| &s.apart)),
            count: m.value(&part("how many"), [&base.count, &mine.count, &theirs.count], |count| {
                count.map_or("as many as there are".into(), |count| count.to_string())
            }),
            how: m.value(
                &part("how they are spaced"),
                [&base.how, &mine.how, &theirs.how],
                |how: &Spaced| how.name().into(),
            ),
            line: m.length(&part("line of the body"), "by its levels", lengths(|s| &s.line)),
        }
    }
}
