//! What two people enter at once, brought together entry by entry; and going back without taking away what others entered.
//!
//! A three-way merge: `base` is what both began from. What only one of them changed is taken from that one; what both
//! changed to the same is taken; what both changed differently is named, and somebody decides.

use super::{Chalked, LeftOut, PassedOver, TryOn, Version};
use crate::change::{Change, ChangeKey, kinds};
use crate::fitting::{GarmentSide, HemMark, How, Movement, MovementTest, Observation, Reading, WantedChange};
use crate::judge::FindingKey;
use crate::length::{Length, Measure, Tape, Unit};
use crate::place::Level;
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
/// again gives the same, so what is sent twice arrives once. Takes the product of the lengths of each list.
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
    let mut merging = Merging { prefer, tape, apart: Vec::new() };
    if is_turned_under_pins(base, mine, theirs) {
        let what = "which way out it was worn, while sides were entered".into();
        let (mine_words, theirs_words) = (mine.worn.name().into(), theirs.worn.name().into());
        // Sides entered under the other answer cannot be brought together with these.
        return match prefer {
            Some(Prefer::Mine) => Ok(mine.clone()),
            Some(Prefer::Theirs) => Ok(theirs.clone()),
            None => Err(vec![Apart { what, mine: mine_words, theirs: theirs_words }]),
        };
    }
    let merged = try_on(&mut merging, [base, mine, theirs]);
    if merging.apart.is_empty() { Ok(merged) } else { Err(merging.apart) }
}

/// What leads `from` one state `to` another, done to a third: so one goes back and forth in what one did oneself, and what somebody
/// else entered meanwhile stays. Where that cannot be, `onto` stays as it is.
pub fn rebase(from: &TryOn, to: &TryOn, onto: &TryOn) -> TryOn {
    if is_turned_under_pins(from, to, onto) {
        return onto.clone();
    }
    merge(from, to, onto, Some(Prefer::Mine), Tape::default()).unwrap_or_else(|_| onto.clone())
}

/// One of them turned the garment while the other entered sides: a side without its answer means nothing.
fn is_turned_under_pins(base: &TryOn, mine: &TryOn, theirs: &TryOn) -> bool {
    let sides = |t: &TryOn| {
        let mut t = t.clone();
        t.worn = base.worn;
        let sides: Vec<GarmentSide> = t.sides_mut().map(|s| *s).collect();
        (sides, t.readings().filter_map(|r| r.id).collect::<Vec<_>>())
    };
    let turned = |t: &TryOn| t.worn != base.worn;
    let entered = |t: &TryOn| sides(t) != sides(base);
    mine.worn != theirs.worn && (turned(mine) && entered(theirs) || turned(theirs) && entered(mine))
}

/// Every field of a try-on; each is named, so that a new one cannot be forgotten.
fn try_on(m: &mut Merging, [base, mine, theirs]: [&TryOn; 3]) -> TryOn {
    macro_rules! of {
        ($field:ident) => {
            [&base.$field, &mine.$field, &theirs.$field]
        };
    }
    let TryOn {
        id: _,
        state: _,
        date: _,
        worn: _,
        pinned_by: _,
        layers: _,
        shoes: _,
        shut: _,
        posture: _,
        conditions: _,
        wanted: _,
        changes: _,
        versions: _,
        passed_over: _,
        chalked: _,
        hem_marks: _,
        observations: _,
        movements: _,
        left_out: _,
        closed: _,
    } = base;
    TryOn {
        id: theirs.id.or(mine.id),
        state: m.value("the state it was measured on", of!(state), ToString::to_string),
        date: m.value("the day", of!(date), ToString::to_string),
        worn: m.value("which way out", of!(worn), |w| w.name().into()),
        pinned_by: m.value("who pinned", of!(pinned_by), |p| p.name().into()),
        layers: m.text("layers", of!(layers)),
        shoes: m.text("shoes", of!(shoes)),
        shut: m.value("how it was closed", of!(shut), |s| s.map_or("nothing", |s| s.name()).into()),
        posture: m.text("posture", of!(posture)),
        conditions: m.text("conditions", of!(conditions)),
        wanted: m.list(of!(wanted)),
        changes: m.list(of!(changes)),
        versions: m.list(of!(versions)),
        passed_over: m.list(of!(passed_over)),
        chalked: m.list(of!(chalked)),
        hem_marks: m.list(of!(hem_marks)),
        observations: m.list(of!(observations)),
        movements: m.list(of!(movements)),
        left_out: m.list(of!(left_out)),
        // Two who both answered otherwise than before said the same.
        closed: m.value("whether it is over", of!(closed), ToString::to_string),
    }
}

/// An entry of a list: what it is known by, and what is said of it.
trait Entry: Clone + PartialEq {
    type Key: PartialEq;

    /// What it is known by, whatever it says.
    fn key(&self) -> Self::Key;

    /// What it is, in words.
    fn what(&self, tape: Tape) -> String;

    /// What it says, in a few words.
    fn says(&self, tape: Tape) -> String;

    /// What two that differ say, in words that differ too.
    fn say_apart(mine: &Self, theirs: &Self, tape: Tape) -> [String; 2] {
        [mine.says(tape), theirs.says(tape)]
    }

    /// Brings together what was in the base, what is mine and what is theirs; whole, unless an entry has parts of its own.
    fn together(m: &mut Merging, what: &str, [base, mine, theirs]: [Option<&Self>; 3]) -> Option<Self> {
        if mine == theirs || theirs == base {
            return mine.cloned();
        }
        if mine == base {
            return theirs.cloned();
        }
        let tape = m.tape;
        let says = |entry: Option<&Self>| entry.map_or("taken away".into(), |e| e.says(tape));
        let apart = || {
            let [mine, theirs] = match (mine, theirs) {
                (Some(mine), Some(theirs)) => Self::say_apart(mine, theirs, tape),
                (mine, theirs) => [says(mine), says(theirs)],
            };
            Apart { what: what.into(), mine, theirs }
        };
        m.decide(mine.cloned(), theirs.cloned(), apart)
    }
}

/// A merge under way: whose entries are taken, and what nobody has decided yet.
pub(crate) struct Merging {
    prefer: Option<Prefer>,
    tape: Tape,
    apart: Vec<Apart>,
}

impl Merging {
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

    /// One value, taken from whoever changed it.
    pub fn value<T: Clone + PartialEq>(
        &mut self,
        what: &str,
        [base, mine, theirs]: [&T; 3],
        says: impl Fn(&T) -> String,
    ) -> T {
        if mine == theirs || theirs == base {
            return mine.clone();
        }
        if mine == base {
            return theirs.clone();
        }
        let apart = || Apart { what: what.into(), mine: says(mine), theirs: says(theirs) };
        self.decide(mine.clone(), theirs.clone(), apart)
    }

    fn text(&mut self, what: &str, texts: [&String; 3]) -> String {
        self.value(what, texts, Clone::clone)
    }

    /// A length that somebody may leave out; `usual` says what is then done.
    pub fn length(&mut self, what: &str, usual: &str, lengths: [&Option<Measure>; 3]) -> Option<Measure> {
        self.value(what, lengths, |l| l.map_or(usual.into(), |l| l.to_string()))
    }

    /// Entries by their keys, theirs first in their order, then what only mine has. Of several with one key the first belongs to the
    /// first, and so on.
    fn list<T: Entry>(&mut self, [base, mine, theirs]: [&Vec<T>; 3]) -> Vec<T> {
        if mine == theirs || theirs == base {
            return mine.clone();
        }
        if mine == base {
            return theirs.clone();
        }
        let nth = |list: &[T], n: usize| list[..n].iter().filter(|e| e.key() == list[n].key()).count();
        fn find<'l, T: Entry>(list: &'l [T], key: &T::Key, nth: usize) -> Option<&'l T> {
            list.iter().filter(|e| e.key() == *key).nth(nth)
        }
        let mut wanted: Vec<(&T, usize)> = (0..theirs.len()).map(|n| (&theirs[n], nth(theirs, n))).collect();
        for n in 0..mine.len() {
            let place = nth(mine, n);
            if find(theirs, &mine[n].key(), place).is_none() {
                wanted.push((&mine[n], place));
            }
        }
        let mut merged = Vec::new();
        for (entry, nth) in wanted {
            let key = entry.key();
            let all = [base, mine, theirs].map(|list| find(list, &key, nth));
            merged.extend(T::together(self, &entry.what(self.tape), all));
        }
        merged
    }

    /// The readings of one change. The same place entered on two devices: the same figure is one pin, two figures are a question.
    pub fn readings(&mut self, of: &str, lists: [&Vec<Reading>; 3]) -> Vec<Reading> {
        let apart_before = self.apart.len();
        let mut merged = self.list(lists);
        for apart in &mut self.apart[apart_before..] {
            apart.what = format!("{of}, {}", apart.what);
        }
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
                let what = format!("{of}, {}", reading.what(tape));
                let [mine, of_theirs] = Reading::say_apart(&reading, &theirs, tape);
                let apart = || Apart { what, mine, theirs: of_theirs };
                kept[twin] = self.decide(reading.clone(), theirs.clone(), apart);
            }
        }
        kept
    }
}

impl Entry for Reading {
    // A reading without an id is known by its place.
    type Key = (Option<Uuid>, Option<(GarmentSide, Length)>);

    fn key(&self) -> Self::Key {
        (self.id, self.id.is_none().then_some((self.side, self.station.length)))
    }

    fn what(&self, tape: Tape) -> String {
        format!("garment’s {} at {}", self.side.name(), tape.show(self.station.length))
    }

    fn says(&self, tape: Tape) -> String {
        tape.show(self.amount.length)
    }

    fn say_apart(mine: &Self, theirs: &Self, tape: Tape) -> [String; 2] {
        let said = [mine, theirs].map(|r| match r.how {
            How::Fold => r.says(tape),
            how @ (How::Whole | How::FrontPanel | How::BackPanel | How::Gap) => {
                format!("{}, {}", r.says(tape), how.name())
            }
        });
        // Apart by less than a mark, or in another place: exactly as it was written.
        let in_full = |r: &Self| format!("{} at {}, garment’s {}", r.amount, r.station, r.side.name());
        if said[0] == said[1] { [in_full(mine), in_full(theirs)] } else { said }
    }
}

macro_rules! changes {
    ($($(#[$doc:meta])* $Kind:ident in $folder:ident: $Input:ident, $Key:ident, $Drawn:ident;)+) => {
        /// Part by part: what one of them has not yet is as if nothing were entered there.
        impl Entry for Change {
            type Key = ChangeKey;

            fn key(&self) -> Self::Key {
                Self::key(self)
            }

            fn what(&self, _: Tape) -> String {
                match self { $(Self::$Kind(change) => change.of_what(),)+ }
            }

            fn says(&self, tape: Tape) -> String {
                match self.readings().len() {
                    0 => Entry::what(self, tape),
                    pins => format!("{}, {pins} pins", Entry::what(self, tape)),
                }
            }

            fn together(m: &mut Merging, what: &str, all: [Option<&Self>; 3]) -> Option<Self> {
                let is_gone = all[0].is_some() && (all[1].is_none() || all[2].is_none());
                let empty = Self::of(all.into_iter().flatten().next()?.key());
                let merged = match all.map(|change| change.unwrap_or(&empty)) {
                    $([Self::$Kind(base), Self::$Kind(mine), Self::$Kind(theirs)] => {
                        Self::$Kind(Parts::merged(m, what, [base, mine, theirs]))
                    })+
                    // One key is one kind.
                    [_, mine, _] => mine.clone(),
                };
                (!is_gone || merged != empty).then_some(merged)
            }
        }
    };
}
kinds!(changes);

/// What a kind of change owes: its parts, brought together one by one.
pub(crate) trait Parts: Sized {
    /// What it is, in words.
    fn of_what(&self) -> String;

    fn merged(m: &mut Merging, what: &str, all: [&Self; 3]) -> Self;
}

impl Entry for Version {
    type Key = String;

    fn key(&self) -> String {
        self.name.clone()
    }

    fn what(&self, _: Tape) -> String {
        format!("the version “{}”", self.name)
    }

    fn says(&self, tape: Tape) -> String {
        let changes: Vec<String> = self.changes.iter().map(|change| Entry::says(change, tape)).collect();
        if changes.is_empty() { "no changes".into() } else { changes.join("; ") }
    }

    /// Part by part, as far as they differ.
    fn say_apart(mine: &Self, theirs: &Self, tape: Tape) -> [String; 2] {
        let mut m = Merging { prefer: None, tape, apart: Vec::new() };
        m.list([&Vec::new(), &mine.changes, &theirs.changes]);
        let said = |of: fn(&Apart) -> &String| {
            m.apart.iter().map(|a| format!("{}: {}", a.what, of(a))).collect::<Vec<_>>().join("; ")
        };
        match m.apart.is_empty() {
            true => [mine.says(tape), theirs.says(tape)],
            false => [said(|a| &a.mine), said(|a| &a.theirs)],
        }
    }
}

impl Entry for PassedOver {
    type Key = FindingKey;

    fn key(&self) -> FindingKey {
        let at = self.finding.at.map(|at| Measure { unit: Unit::Cm, ..at });
        FindingKey { at, ..self.finding }
    }

    fn what(&self, tape: Tape) -> String {
        let about = self.finding.change.map(|change| format!(", {}", Change::of(change).what(tape)));
        format!("passing over {}{}", self.finding.rule.name(), about.unwrap_or_default())
    }

    fn says(&self, _: Tape) -> String {
        self.why.clone()
    }
}

impl Entry for Chalked {
    type Key = (ChangeKey, Length);

    fn key(&self) -> Self::Key {
        (self.change, self.at.length)
    }

    fn what(&self, tape: Tape) -> String {
        format!("chalked at {}", tape.show(self.at.length))
    }

    fn says(&self, _: Tape) -> String {
        self.at.to_string()
    }
}

impl Entry for WantedChange {
    type Key = Level;

    fn key(&self) -> Level {
        self.level
    }

    fn what(&self, _: Tape) -> String {
        format!("what is wanted at the {}", self.level.name())
    }

    fn says(&self, _: Tape) -> String {
        self.by.to_string()
    }
}

impl Entry for HemMark {
    type Key = Uuid;

    fn key(&self) -> Uuid {
        self.id
    }

    fn what(&self, _: Tape) -> String {
        format!("hem mark, {} {}", self.edge.name(), self.around.name())
    }

    fn says(&self, tape: Tape) -> String {
        let again =
            self.again.map_or(String::new(), |again| format!(", upright {}", tape.show(again.length)));
        format!("{} {}{again}", tape.show(self.amount.length), self.how.name())
    }
}

impl Entry for Observation {
    type Key = Uuid;

    fn key(&self) -> Uuid {
        self.id
    }

    fn what(&self, _: Tape) -> String {
        format!("{} at the {}", self.seen.name(), self.level.name())
    }

    fn says(&self, _: Tape) -> String {
        let side = self.side.map_or(String::new(), |side| format!(", garment’s {}", side.name()));
        let words = if self.words.is_empty() { String::new() } else { format!(": “{}”", self.words) };
        format!(
            "{}{side}, {} at the {}, {}{words}",
            self.face.name(),
            self.seen.name(),
            self.level.name(),
            self.verdict.name()
        )
    }
}

impl Entry for MovementTest {
    type Key = Movement;

    fn key(&self) -> Self::Key {
        self.movement
    }

    fn what(&self, _: Tape) -> String {
        self.movement.name().into()
    }

    fn says(&self, _: Tape) -> String {
        self.went.name().into()
    }
}

impl Entry for LeftOut {
    type Key = (ChangeKey, GarmentSide, Level);

    fn key(&self) -> Self::Key {
        (self.change, self.side, self.level)
    }

    fn what(&self, tape: Tape) -> String {
        let change = Change::of(self.change).what(tape);
        format!("{change} at the {}, garment’s {}", self.level.name(), self.side.name())
    }

    fn says(&self, _: Tape) -> String {
        self.why.name().into()
    }
}
