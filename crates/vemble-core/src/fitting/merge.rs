//! What two people enter at once, brought together entry by entry.
//!
//! A three-way merge: `base` is what both began from. What only one of them changed is taken from that one; what both
//! changed to the same is taken; what both changed differently is named, and somebody decides.

use super::{Alteration, DartPins, GarmentSide, Reading, SeamShare, TryOn};
use crate::garment::Seam;
use crate::length::{Length, Measure, Tape};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// Whose entry is taken where both changed the same one.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Prefer {
    /// What is being stored now.
    Mine,
    /// What was stored meanwhile.
    Theirs,
}

/// Something that both changed, each in another way; in words for whoever decides.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Apart {
    /// What it is: "outseam, garment’s left at 20.0 cm".
    pub what: String,
    /// As it is being stored now.
    pub mine: String,
    /// As it was stored meanwhile.
    pub theirs: String,
}

/// Brings `mine` and `theirs` together, which both began as `base`.
///
/// Without a preference everything that both changed differently is an error, by name; with one there are no errors. Merging
/// again gives the same, so what is sent twice arrives once.
///
/// # Errors
/// What is apart, when nobody has decided.
pub fn merge(
    base: &TryOn,
    mine: &TryOn,
    theirs: &TryOn,
    prefer: Option<Prefer>,
    tape: Tape,
) -> Result<TryOn, Vec<Apart>> {
    let mut m = Merge { prefer, tape, apart: Vec::new() };
    if m.is_turned_under_pins(base, mine, theirs) {
        let (mine_words, theirs_words) = (mine.worn.name().to_owned(), theirs.worn.name().to_owned());
        m.apart.push(Apart {
            what: "which way out it was worn, while sides were entered".into(),
            mine: mine_words,
            theirs: theirs_words,
        });
        // Sides entered under the other answer cannot be brought together with these.
        return match prefer {
            Some(Prefer::Mine) => Ok(mine.clone()),
            Some(Prefer::Theirs) => Ok(theirs.clone()),
            None => Err(m.apart),
        };
    }
    let merged = TryOn {
        id: theirs.id.or(mine.id),
        date: m.value("the day", [&base.date, &mine.date, &theirs.date], ToString::to_string),
        worn: m.value("which way out", [&base.worn, &mine.worn, &theirs.worn], |w| w.name().into()),
        pinned_by: m
            .value("who pinned", [&base.pinned_by, &mine.pinned_by, &theirs.pinned_by], |p| p.name().into()),
        layers: m.text("layers", [&base.layers, &mine.layers, &theirs.layers]),
        shoes: m.text("shoes", [&base.shoes, &mine.shoes, &theirs.shoes]),
        shut: m.value("how it was closed", [&base.shut, &mine.shut, &theirs.shut], |s| {
            s.map_or("nothing", |s| s.name()).into()
        }),
        posture: m.text("posture", [&base.posture, &mine.posture, &theirs.posture]),
        conditions: m.text("conditions", [&base.conditions, &mine.conditions, &theirs.conditions]),
        alterations: m.alterations([&base.alterations, &mine.alterations, &theirs.alterations]),
        darts: m.darts([&base.darts, &mine.darts, &theirs.darts]),
        elastic: m.value("elastic", [&base.elastic, &mine.elastic, &theirs.elastic], |e| {
            e.map_or("none".into(), |e| format!("{} of casing", e.casing))
        }),
        versions: m.list(
            [&base.versions, &mine.versions, &theirs.versions],
            |v| v.name.clone(),
            |v, _| (format!("the version “{}”", v.name), format!("{} seams", v.alterations.len())),
        ),
        passed_over: m.list(
            [&base.passed_over, &mine.passed_over, &theirs.passed_over],
            |p| p.check.clone(),
            |p, _| (format!("passing over {}", p.check), p.why.clone()),
        ),
        hem_marks: m.list(
            [&base.hem_marks, &mine.hem_marks, &theirs.hem_marks],
            |h| h.id,
            |h, tape| {
                (format!("hem mark, {} {}", h.edge.name(), h.around.name()), tape.show(h.amount.length))
            },
        ),
        observations: m.list(
            [&base.observations, &mine.observations, &theirs.observations],
            |o| o.id,
            |o, _| (format!("{} at the {}", o.seen.name(), o.level.name()), o.verdict.name().into()),
        ),
        movements: m.list(
            [&base.movements, &mine.movements, &theirs.movements],
            |t| t.movement,
            |t, _| (t.movement.name().into(), t.went.name().into()),
        ),
        left_out: m.list(
            [&base.left_out, &mine.left_out, &theirs.left_out],
            |l| (l.seam, l.side, l.level),
            |l, _| (format!("{} at the {}", l.seam.name(), l.level.name()), l.why.name().into()),
        ),
        // Once it is over it stays over.
        closed: mine.closed || theirs.closed,
    };
    if m.apart.is_empty() { Ok(merged) } else { Err(m.apart) }
}

struct Merge {
    prefer: Option<Prefer>,
    tape: Tape,
    apart: Vec<Apart>,
}

impl Merge {
    /// One of them turned the garment while the other entered sides: a side without its answer means nothing.
    fn is_turned_under_pins(&self, base: &TryOn, mine: &TryOn, theirs: &TryOn) -> bool {
        let sides = |t: &TryOn| {
            let mut t = t.clone();
            t.worn = base.worn;
            let sides: Vec<GarmentSide> = t.sides_mut().map(|s| *s).collect();
            (sides, t.alterations.iter().flat_map(|a| &a.readings).filter_map(|r| r.id).collect::<Vec<_>>())
        };
        let turned = |t: &TryOn| t.worn != base.worn;
        let entered = |t: &TryOn| sides(t) != sides(base);
        mine.worn != theirs.worn && (turned(mine) && entered(theirs) || turned(theirs) && entered(mine))
    }

    fn decide<T>(&mut self, mine: T, theirs: T, apart: impl FnOnce() -> Apart) -> T {
        match self.prefer {
            Some(Prefer::Mine) => mine,
            Some(Prefer::Theirs) => theirs,
            None => {
                self.apart.push(apart());
                theirs
            }
        }
    }

    fn value<T: Clone + PartialEq>(
        &mut self,
        what: &str,
        [base, mine, theirs]: [&T; 3],
        words: impl Fn(&T) -> String,
    ) -> T {
        if mine == theirs || theirs == base {
            return mine.clone();
        }
        if mine == base {
            return theirs.clone();
        }
        let apart = || Apart { what: what.into(), mine: words(mine), theirs: words(theirs) };
        self.decide(mine.clone(), theirs.clone(), apart)
    }

    fn text(&mut self, what: &str, texts: [&String; 3]) -> String {
        self.value(what, texts, Clone::clone)
    }

    /// Entries by their keys, theirs first in their order, then what only mine has.
    fn list<T: Clone + PartialEq, K: PartialEq>(
        &mut self,
        [base, mine, theirs]: [&[T]; 3],
        key: impl Fn(&T) -> K,
        words: impl Fn(&T, Tape) -> (String, String),
    ) -> Vec<T> {
        let find = |list: &'_ [T], wanted: &K| list.iter().find(|t| key(t) == *wanted).cloned();
        let only_mine = mine.iter().filter(|t| find(theirs, &key(t)).is_none());
        let mut merged = Vec::new();
        for entry in theirs.iter().chain(only_mine) {
            let wanted = key(entry);
            let all = [find(base, &wanted), find(mine, &wanted), find(theirs, &wanted)];
            let tape = self.tape;
            let name = words(entry, tape).0;
            let said = |t: &Option<T>| t.as_ref().map_or("taken away".into(), |t| words(t, tape).1);
            merged.extend(self.value(&name, [&all[0], &all[1], &all[2]], said));
        }
        merged
    }

    fn readings(&mut self, of: &str, lists: [&[Reading]; 3]) -> Vec<Reading> {
        // A reading without an id is known by its place.
        let key = |r: &Reading| -> (Option<Uuid>, Option<(GarmentSide, Length)>) {
            (r.id, r.id.is_none().then_some((r.side, r.station.length)))
        };
        let words = |r: &Reading, tape: Tape| {
            let place = format!("{of}, garment’s {} at {}", r.side.name(), tape.show(r.station.length));
            (place, tape.show(r.amount.length))
        };
        let mut merged = self.list(lists, key, words);
        // The same place entered on two devices: the same figure is one pin, two figures are a question.
        let mut kept: Vec<Reading> = Vec::new();
        let [_, mine, _] = lists;
        for reading in merged.drain(..) {
            let twin = kept.iter().position(|k| k.side == reading.side && k.at() == reading.at());
            let Some(twin) = twin.filter(|_| mine.contains(&reading)) else {
                kept.push(reading);
                continue;
            };
            let (theirs, tape) = (kept[twin].clone(), self.tape);
            if (theirs.amount.length, theirs.how) != (reading.amount.length, reading.how) {
                let (what, mine) = words(&reading, tape);
                let apart = || Apart { what, mine, theirs: words(&theirs, tape).1 };
                kept[twin] = self.decide(reading, theirs.clone(), apart);
            }
        }
        kept
    }

    fn alterations(&mut self, [base, mine, theirs]: [&[Alteration]; 3]) -> Vec<Alteration> {
        let find = |list: &[Alteration], seam: Seam| list.iter().find(|a| a.seam == seam).cloned();
        let only_mine = mine.iter().filter(|a| find(theirs, a.seam).is_none());
        let seams: Vec<Seam> = theirs.iter().chain(only_mine).map(|a| a.seam).collect();
        let mut merged = Vec::new();
        for seam in seams {
            let found = [base, mine, theirs].map(|list| find(list, seam));
            let is_gone = found[0].is_some() && (found[1].is_none() || found[2].is_none());
            let [b, m, t] = found.map(|a| a.unwrap_or_else(|| Alteration::of(seam)));
            let name = seam.name();
            let of = |what: &str| format!("{name}: {what}");
            let end = |e: &Option<crate::line::End>| format!("{e:?}").to_lowercase();
            let alteration = Alteration {
                seam,
                readings: self.readings(name, [&b.readings, &m.readings, &t.readings]),
                sides: self.value(&of("sides"), [&b.sides, &m.sides, &t.sides], |s| {
                    s.map_or("as usual".into(), |s| crate::garment::word(&s).replace('_', " "))
                }),
                fairing: self.value(&of("smoothing"), [&b.fairing, &m.fairing, &t.fairing], |f| {
                    crate::garment::word(f).replace('_', " ")
                }),
                tolerance: self.value(&of("tolerance"), [&b.tolerance, &m.tolerance, &t.tolerance], |l| {
                    l.map_or("as usual".into(), |l| l.to_string())
                }),
                lower: self.value(&of("lower end"), [&b.lower, &m.lower, &t.lower], end),
                upper: self.value(&of("upper end"), [&b.upper, &m.upper, &t.upper], end),
                front_share: self.value(
                    &of("front share"),
                    [&b.front_share, &m.front_share, &t.front_share],
                    |s| s.map_or("half".into(), |s| format!("{} %", u8::from(s))),
                ),
                trim_to: self.value(&of("trimming"), [&b.trim_to, &m.trim_to, &t.trim_to], |l| {
                    l.map_or("keep all".into(), |l| l.to_string())
                }),
                spread: self.value(&of("shares"), [&b.spread, &m.spread, &t.spread], |s| {
                    let share = |s: &SeamShare| format!("{} % on the {}", s.percent, s.seam.name());
                    s.iter().map(share).collect::<Vec<_>>().join(", ")
                }),
            };
            if !(is_gone && alteration == Alteration::of(seam)) {
                merged.push(alteration);
            }
        }
        merged
    }

    fn darts(&mut self, [base, mine, theirs]: [&[DartPins]; 3]) -> Vec<DartPins> {
        let find = |list: &[DartPins], dart| {
            list.iter().find(|d| d.dart == dart).cloned().unwrap_or_else(|| DartPins::of(dart))
        };
        let only_mine = mine.iter().filter(|d| theirs.iter().all(|t| t.dart != d.dart));
        let darts = theirs.iter().chain(only_mine).map(|d| d.dart);
        let merged = darts.map(|dart| {
            let [b, m, t] = [base, mine, theirs].map(|list| find(list, dart));
            let of = |what: &str| format!("{}: {what}", dart.name());
            let length = |l: &Option<Measure>| l.map_or("as usual".into(), |l| l.to_string());
            DartPins {
                dart,
                readings: self.readings(dart.name(), [&b.readings, &m.readings, &t.readings]),
                sides: self.value(&of("sides"), [&b.sides, &m.sides, &t.sides], |s| {
                    s.map_or("as usual".into(), |s| crate::garment::word(&s).replace('_', " "))
                }),
                point: self.value(&of("point"), [&b.point, &m.point, &t.point], length),
                base: self.value(&of("other end"), [&b.base, &m.base, &t.base], length),
                from_side_seam: self.value(
                    &of("distance from the side seam"),
                    [&b.from_side_seam, &m.from_side_seam, &t.from_side_seam],
                    length,
                ),
            }
        });
        merged.filter(|d| !d.readings.is_empty()).collect()
    }
}
