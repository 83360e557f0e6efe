//! What two devices changed on one seam, part by part.

use super::{SeamChange, SeamShare};
use crate::fitting::End;
use crate::try_on::{Merging, Parts};

impl Parts for SeamChange {
    fn of_what(&self) -> String {
        self.seam.name().into()
    }

    fn merged(m: &mut Merging, what: &str, [base, mine, theirs]: [&Self; 3]) -> Self {
        macro_rules! of {
            ($field:ident) => {
                [&base.$field, &mine.$field, &theirs.$field]
            };
        }
        let part = |part: &str| format!("{what}: {part}");
        let Self {
            seam,
            readings: _,
            sides: _,
            fairing: _,
            tolerance: _,
            lower: _,
            upper: _,
            front_share: _,
            trim_to: _,
            set_in: _,
            spread: _,
        } = base;
        let end = |end: &Option<End>| end.as_ref().map_or("as the pins suggest".into(), end_words);
        Self {
            seam: *seam,
            readings: m.readings(what, of!(readings)),
            sides: m.value(&part("sides"), of!(sides), |s| s.map_or("as usual", |s| s.name()).into()),
            fairing: m.value(&part("smoothing"), of!(fairing), |f| f.name().into()),
            tolerance: m.length(&part("tolerance"), "as usual", of!(tolerance)),
            lower: m.value(&part("lower end"), of!(lower), end),
            upper: m.value(&part("upper end"), of!(upper), end),
            front_share: m.value(&part("front share"), of!(front_share), |s| {
                s.map_or("half".into(), |s| format!("{} %", u8::from(s)))
            }),
            trim_to: m.length(&part("trimming"), "keep all", of!(trim_to)),
            set_in: m.value(&part("panel"), of!(set_in), |s| if *s { "set in" } else { "none" }.into()),
            spread: m.value(&part("shares"), of!(spread), |s| {
                let share = |s: &SeamShare| format!("{} % on the {}", s.percent, s.seam.name());
                match &s[..] {
                    [] => "all of it here".into(),
                    shares => shares.iter().map(share).collect::<Vec<_>>().join(", "),
                }
            }),
        }
    }
}

/// What happens at an end, as one says it.
fn end_words(end: &End) -> String {
    match end {
        End::MeetsOldStitching { station } => format!("meets the old stitching at {station}"),
        End::RunsOff {} => "runs off the edge".into(),
        End::CarriesOn { into } => format!("carries on into the {}", into.name()),
        End::StraightThrough { from } => format!("straight through from {from}"),
    }
}
