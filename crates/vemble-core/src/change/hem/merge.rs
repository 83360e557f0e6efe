//! What two devices changed on one hem, part by part.

use super::{HemChange, HemShape};
use crate::fitting::SidePolicy;
use crate::garment::HemTurn;
use crate::length::Measure;
use crate::try_on::{Merging, Parts};

impl Parts for HemChange {
    fn of_what(&self) -> String {
        format!("hem at {}", self.hem.name())
    }

    fn merged(m: &mut Merging, what: &str, [base, mine, theirs]: [&Self; 3]) -> Self {
        let part = |part: &str| format!("{what}: {part}");
        let lengths = |of: fn(&Self) -> &Option<Measure>| [of(base), of(mine), of(theirs)];
        let said = |set: Option<&'static str>| set.unwrap_or("as usual").to_owned();
        Self {
            hem: base.hem,
            off: m.length(&part("taken off"), "by the marks", lengths(|h| &h.off)),
            from_body: m.value(
                &part("length from the body"),
                [&base.from_body, &mine.from_body, &theirs.from_body],
                |f| said(f.map(|f| f.landmark.name())),
            ),
            lengths: m.value(&part("lengths"), [&base.lengths, &mine.lengths, &theirs.lengths], |l| {
                l.map_or("by the marks".into(), |l| format!("{}, {}, {}", l.front, l.side, l.back))
            }),
            longer_by: m.length(&part("left longer"), "no longer", lengths(|h| &h.longer_by)),
            over_petticoat: m.value(
                &part("worn over a petticoat"),
                [&base.over_petticoat, &mine.over_petticoat, &theirs.over_petticoat],
                |over| if *over { "yes" } else { "no" }.into(),
            ),
            shortened_at: m.value(
                &part("where it is shortened"),
                [&base.shortened_at, &mine.shortened_at, &theirs.shortened_at],
                |at| at.name().into(),
            ),
            slit: m.value(&part("slit"), [&base.slit, &mine.slit, &theirs.slit], |slit| {
                slit.map_or("none".into(), |slit| format!("{}, {} high", slit.at.name(), slit.height))
            }),
            lining: m.value(&part("lining"), [&base.lining, &mine.lining, &theirs.lining], |lining| {
                let above = lining.and_then(|lining| lining.above);
                above.map_or("as usual".into(), |above| format!("{above} above the outer"))
            }),
            clearance: m.length(&part("above the floor"), "not said", lengths(|h| &h.clearance)),
            shape: m.value(&part("shape"), [&base.shape, &mine.shape, &theirs.shape], |s| {
                said(s.map(HemShape::name))
            }),
            sides: m.value(&part("sides"), [&base.sides, &mine.sides, &theirs.sides], |s| {
                said(s.map(SidePolicy::name))
            }),
            turn: m.value(&part("how it is turned"), [&base.turn, &mine.turn, &theirs.turn], |t| {
                said(t.map(HemTurn::name))
            }),
            turns: m.value(&part("turns"), [&base.turns, &mine.turns, &theirs.turns], |turns| {
                turns.iter().map(ToString::to_string).collect::<Vec<_>>().join(" + ")
            }),
            may_show: m.value(
                &part("stitching may show"),
                [&base.may_show, &mine.may_show, &theirs.may_show],
                |s| said(s.map(|s| if s { "yes" } else { "no" })),
            ),
            cutting: m.value(&part("when it is cut"), [&base.cutting, &mine.cutting, &theirs.cutting], |c| {
                c.name().into()
            }),
        }
    }
}
