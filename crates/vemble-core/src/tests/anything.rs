//! Whatever a document can hold, sensible or not: it is solved or refused, in words that a person would write, and always alike.

use crate::asking::asking;
use crate::card::Emphasis;
use crate::change::armhole::{ArmholeAt, ArmholeChange};
use crate::change::dart::DartChange;
use crate::change::elastic::ElasticChange;
use crate::change::gathers::GathersChange;
use crate::change::hem::{
    Cutting, FromBody, HemChange, HemLandmark, HemShape, Lengths, LiningWanted, ShortenedAt, Slit, SlitAt,
};
use crate::change::seam::{SeamChange, SeamShare};
use crate::change::spacing::{Spaced, SpacingChange};
use crate::change::trunk::{TrunkAt, TrunkChange};
use crate::change::{Change, ChangeKey, Input};
use crate::compare::compare;
use crate::document::Document;
use crate::document::v1::DocumentV1;
use crate::fitting::{
    Around, End, Fairing, GarmentSide, HemHow, HemMark, How, PinnedBy, Reading, SidePolicy, WantedChange,
    Worn,
};
use crate::garment::{Dart, HemEdge, HemTurn, Kind, Opening, Seam};
use crate::garment::{GatherHow, LongEdge};
use crate::judge::tests::kinds::round;
use crate::judge::{FindingKey, Outcome};
use crate::length::{Length, Measure, Tape, Unit};
use crate::look_over::look_over;
use crate::method::{WantedFrom, methods};
use crate::place::Level;
use crate::solve::{For, glance, solve, solve_for, stages};
use crate::tests::kit::{Fitted, trying};
use crate::try_on::{Chalked, LeftOut, TryOn, Version, Why};
use proptest::prelude::*;
use serde_json::{Value, json};
use uuid::Uuid;

/// Takes one thing after the other by a number that the test was begun with: the same number, the same document. Two of three documents
/// are such as people enter; in the others anything may stand that the format allows.
struct Chooser {
    state: u64,
    is_odd: bool,
}

impl Chooser {
    fn new(seed: u64) -> Self {
        let mut chooser = Self { state: seed, is_odd: false };
        chooser.is_odd = chooser.below(3) == 0;
        chooser
    }

    /// SplitMix64 (Steele, Lea, Flood: Fast Splittable Pseudorandom Number Generators, 2014).
    fn next(&mut self) -> u64 {
        self.state = self.state.wrapping_add(0x9e37_79b9_7f4a_7c15);
        let z = (self.state ^ (self.state >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
        let z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
        z ^ (z >> 31)
    }

    fn below(&mut self, most: usize) -> usize {
        (self.next() % most as u64) as usize
    }

    fn of<T: Copy>(&mut self, all: &[T]) -> T {
        all[self.below(all.len())]
    }

    /// Once in so many times.
    fn once_in<T>(&mut self, times: usize, thing: impl FnOnce(&mut Self) -> T) -> Option<T> {
        (self.below(times) == 0).then(|| thing(self))
    }

    /// The same, in a document in which anything may stand.
    fn oddly_once_in<T>(&mut self, times: usize, thing: impl FnOnce(&mut Self) -> T) -> Option<T> {
        if self.is_odd { self.once_in(times, thing) } else { None }
    }

    fn several<T>(&mut self, most: usize, thing: impl Fn(&mut Self) -> T) -> Vec<T> {
        (0..self.below(most + 1)).map(|_| thing(self)).collect()
    }

    fn measure(&mut self, nm: i64) -> Measure {
        Measure { length: Length::from_nm(nm), unit: self.of(&[Unit::Mm, Unit::Cm, Unit::In]) }
    }

    /// From nothing to the longest there is; mostly what a pin reads.
    fn amount(&mut self) -> Measure {
        let usual = [2, 5, 8, 12, 14, 19, 25, 33].map(|mm| mm * 1_000_000);
        let odd = [0, 1, 3_175_000, 60_000_000, 127_000_000, 400_000_000, Length::LONGEST.nm()];
        let nm = if self.is_odd && self.below(8) == 0 {
            self.of(&odd)
        } else {
            self.of(&usual) + self.of(&[0, 300_000, 1])
        };
        self.measure(nm)
    }

    /// The same, now and then the other way.
    fn amount_either_way(&mut self) -> Measure {
        let amount = self.amount();
        if self.below(3) == 0 { Measure { length: -amount.length, ..amount } } else { amount }
    }

    /// Along something so long: its ends, its tenths, and now and then beyond.
    fn station(&mut self, whole: Length) -> Measure {
        let tenth = self.below(11) as i64;
        let beside = [0, 0, 0, 1, -1, 700_000, 1_000_000_000];
        let nm = whole.fraction(tenth, 10).nm()
            + if self.is_odd && self.below(4) == 0 { self.of(&beside) } else { 0 };
        self.measure(nm.max(0))
    }

    fn side(&mut self) -> GarmentSide {
        self.of(&[GarmentSide::Left, GarmentSide::Right])
    }

    fn readings(&mut self, whole: Length, is_single: bool) -> Vec<Reading> {
        let how = self.of(&[How::Fold, How::Fold, How::Gap, How::Whole]);
        let mut readings = self.several(6, |c| Reading {
            id: None,
            side: if is_single && !c.is_odd { GarmentSide::Left } else { c.side() },
            station: c.station(whole),
            amount: c.amount(),
            how: c.oddly_once_in(6, |c| c.of(How::ALL)).unwrap_or(how),
        });
        if !self.is_odd {
            readings.sort_by_key(|reading| (reading.side, reading.station.length));
            readings.dedup_by_key(|reading| (reading.side, reading.station.length));
        }
        readings
    }

    fn end(&mut self, whole: Length) -> End {
        match self.below(4) {
            0 => End::MeetsOldStitching { station: self.station(whole) },
            1 => End::RunsOff {},
            2 => End::CarriesOn { into: self.of(Seam::ALL) },
            _ => End::StraightThrough { from: self.station(whole) },
        }
    }

    /// Now and then an end at the edge, as people set them.
    fn end_at(&mut self, edge: Length) -> Option<End> {
        let station = Measure { length: edge, unit: Unit::Cm };
        self.once_in(3, |c| c.of(&[End::RunsOff {}, End::MeetsOldStitching { station }]))
    }

    fn change(&mut self, garment: &Fitted) -> Change {
        match self.below(13) {
            12 => TrunkChange {
                front: self.once_in(2, Self::amount_either_way),
                side: self.once_in(2, Self::amount_either_way),
                back: self.once_in(2, Self::amount_either_way),
                ..TrunkChange::of(self.of(TrunkAt::ALL))
            }
            .into(),
            11 => ArmholeChange {
                hinge: self.once_in(2, Self::amount),
                shorten: self.once_in(3, Self::amount_either_way),
                slope: self.once_in(3, Self::amount_either_way),
                forward: self.once_in(4, Self::amount_either_way),
                pads_out: self.once_in(4, Self::amount_either_way),
                gape: self.once_in(4, Self::amount),
                raise: self.once_in(2, Self::amount_either_way),
                front_in: self.once_in(3, Self::amount_either_way),
                back_in: self.once_in(3, Self::amount_either_way),
                widen: self.once_in(2, Self::amount_either_way),
                widen_elbow: self.once_in(4, Self::amount_either_way),
                cap: self.once_in(4, |c| c.station(Length::from_mm(700))),
                cap_ease: self.once_in(3, Self::amount_either_way),
                pitch: self.once_in(4, Self::amount_either_way),
                ..ArmholeChange::of(self.of(ArmholeAt::ALL))
            }
            .into(),
            10 => {
                let own: Vec<Opening> = garment.closures.iter().map(|closure| closure.at).collect();
                let at = self.of(if own.is_empty() || self.is_odd { Opening::ALL } else { &own });
                SpacingChange {
                    edge: self.once_in(2, |c| c.station(Length::from_mm(900))),
                    to_hem: self.once_in(3, |c| c.below(2) == 0),
                    first: self.once_in(3, Self::amount),
                    last: self.once_in(3, Self::amount),
                    apart: self.once_in(3, Self::amount),
                    count: self.once_in(3, |c| c.of(&[1, 2, 5, 9, 40, 60, 61])),
                    how: self.of(Spaced::ALL),
                    line: self.once_in(3, |c| c.station(Length::from_mm(900))),
                    at,
                }
                .into()
            }
            9 => GathersChange {
                long: self.once_in(2, |c| c.station(Length::from_mm(2000))),
                short: self.once_in(3, |c| c.station(Length::from_mm(1200))),
                how: self.of(GatherHow::ALL),
                count: self.once_in(3, |c| c.of(&[1, 2, 7, 40, 120, 121])),
                depth: self.once_in(3, Self::amount),
                ..GathersChange::of(self.of(LongEdge::ALL))
            }
            .into(),
            8 => {
                let hem = self.of(HemEdge::ALL);
                let landmark = self.of(HemLandmark::ALL);
                HemChange {
                    off: self.once_in(2, Self::amount_either_way),
                    from_body: self.once_in(6, |c| FromBody {
                        landmark,
                        above: c.amount(),
                        heel: c.once_in(3, Self::amount),
                    }),
                    clearance: self.once_in(2, Self::amount),
                    shape: self.once_in(2, |c| c.of(HemShape::ALL)),
                    sides: self.once_in(2, |c| c.of(SidePolicy::ALL)),
                    turn: self.once_in(2, |c| c.of(HemTurn::ALL)),
                    lengths: self.once_in(6, |c| Lengths {
                        front: c.station(Length::from_mm(700)),
                        side: c.station(Length::from_mm(700)),
                        back: c.station(Length::from_mm(700)),
                    }),
                    longer_by: self.once_in(6, Self::amount),
                    over_petticoat: self.below(6) == 0,
                    shortened_at: self.once_in(5, |c| c.of(ShortenedAt::ALL)).unwrap_or_default(),
                    slit: self.once_in(4, |c| Slit {
                        at: c.of(SlitAt::ALL),
                        height: c.station(Length::from_mm(500)),
                        width: c.once_in(2, Self::amount),
                    }),
                    lining: self.once_in(4, |c| LiningWanted {
                        above: c.once_in(2, Self::amount),
                        slack: c.once_in(2, Self::amount),
                        free: c.below(2) == 0,
                        folded_up: c.below(2) == 0,
                    }),
                    turns: self.once_in(4, |c| c.several(3, Self::amount)).unwrap_or_default(),
                    may_show: self.once_in(3, |c| c.below(2) == 0),
                    cutting: self.of(Cutting::ALL),
                    ..HemChange::of(hem)
                }
                .into()
            }
            0 => {
                let casing = self.once_in(2, Self::amount);
                let hold_percent = self.once_in(2, |c| c.of(&[100, 110, 115, 125, 126]));
                ElasticChange { at: Default::default(), casing, hold_percent }.into()
            }
            1 | 2 => {
                let readings = self.readings(Length::from_mm(140), false);
                let sides = self.once_in(2, |c| c.of(SidePolicy::ALL));
                let mut height = |times| self.oddly_once_in(times, |c| c.station(Length::from_mm(600)));
                let (point, base, from_side_seam) = (height(2), height(2), height(3));
                let dart = self.of(Dart::ALL);
                DartChange { dart, readings, sides, point, base, from_side_seam }.into()
            }
            _ => {
                let own: Vec<Seam> = garment.seams.iter().map(|facts| facts.seam).collect();
                let seam = self.oddly_once_in(20, |c| c.of(Seam::ALL)).unwrap_or_else(|| self.of(&own));
                let whole = garment.seam(seam).map_or(Length::from_mm(500), |facts| facts.length.length);
                SeamChange {
                    seam,
                    readings: self.readings(whole, seam.is_single()),
                    sides: self.once_in(2, |c| c.of(SidePolicy::ALL)),
                    fairing: self.of(Fairing::ALL),
                    tolerance: self.once_in(4, Self::amount),
                    lower: self.oddly_once_in(3, |c| c.end(whole)).or_else(|| self.end_at(Length::ZERO)),
                    upper: self.oddly_once_in(3, |c| c.end(whole)).or_else(|| self.end_at(whole)),
                    front_share: self.once_in(3, |c| c.of(&[0, 30, 50, 100]).try_into().unwrap()),
                    trim_to: self.once_in(4, Self::amount),
                    set_in: self.once_in(6, |_| ()).is_some(),
                    spread: self
                        .oddly_once_in(5, |c| SeamShare {
                            seam: c.of(&own),
                            percent: c.of(&[0, 25, 50, 100]),
                        })
                        .into_iter()
                        .collect(),
                }
                .into()
            }
        }
    }

    /// Each change once.
    fn changes(&mut self, garment: &Fitted) -> Vec<Change> {
        let mut changes = self.several(4, |c| c.change(garment));
        let mut known: Vec<ChangeKey> = Vec::new();
        changes.retain(|change| {
            !known.contains(&change.key()) && {
                known.push(change.key());
                true
            }
        });
        changes
    }

    fn try_on(&mut self, garment: &Fitted) -> TryOn {
        let changes = self.changes(garment);
        let keys: Vec<ChangeKey> = changes.iter().map(Change::key).collect();
        let chalked = |c: &mut Self| Chalked { change: c.of(&keys), at: c.amount() };
        let left_out = |c: &mut Self| LeftOut {
            change: c.of(&keys),
            side: c.side(),
            level: c.of(&garment.levels.iter().map(|l| l.level).collect::<Vec<_>>()),
            why: c.of(Why::ALL),
        };
        let hem_mark = |c: &mut Self| HemMark {
            id: Uuid::from_u128(u128::from(c.next())),
            edge: c.of(HemEdge::ALL),
            side: c.once_in(2, Self::side),
            around: c.of(Around::ALL),
            how: c.of(HemHow::ALL),
            amount: c.amount(),
            again: c.once_in(3, Self::amount),
        };
        TryOn {
            worn: self.of(Worn::ALL),
            pinned_by: self.of(PinnedBy::ALL),
            chalked: if keys.is_empty() { Vec::new() } else { self.several(2, chalked) },
            left_out: if keys.is_empty() { Vec::new() } else { self.several(2, left_out) },
            hem_marks: self.several(3, hem_mark),
            wanted: self.wanted(garment),
            versions: self
                .once_in(4, |c| Version { name: "looser".into(), changes: c.changes(garment) })
                .into_iter()
                .collect(),
            ..trying(changes)
        }
    }

    /// What is wanted at some of its levels, each once.
    fn wanted(&mut self, garment: &Fitted) -> Vec<WantedChange> {
        let levels: Vec<Level> = garment.levels.iter().map(|l| l.level).collect();
        let mut wanted =
            self.several(4, |c| WantedChange { level: c.of(&levels), by: c.amount_either_way() });
        wanted.sort_by_key(|w| w.level);
        wanted.dedup_by_key(|w| w.level);
        wanted
    }

    fn document(&mut self) -> Document {
        let garment = round(self.of(Kind::ALL));
        let mut try_ons = vec![self.try_on(&garment)];
        try_ons.extend(self.once_in(3, |c| c.try_on(&garment)));
        garment.document(try_ons)
    }
}

/// A document such as people enter, by the number that it is begun with.
pub(crate) fn sensible_document(seed: u64) -> Document {
    Chooser { state: seed, is_odd: false }.document()
}

/// What nobody would write: leftovers of code, figures that are none, words that run into each other.
fn is_written_by_nobody(text: &str) -> bool {
    let leftovers = [
        "Some(", "None", "::", "{", "}", "_", "NaN", "inf", "  ", " ,", " .", " ;", "..", ",,", "()",
        "−0.0 ", "-0",
    ];
    let ends_badly = text.ends_with([' ', ',', ':', '(']) || text.starts_with([' ', ',', '.']);
    leftovers.iter().any(|leftover| text.contains(leftover)) || ends_badly
}

/// Every sentence in what is sent: text with a space in it that is no path of a drawing.
fn sentences<'v>(value: &'v Value, path: &str, all: &mut Vec<(String, &'v str)>) {
    match value {
        Value::String(text) => {
            let is_path = text.starts_with('M')
                && text[1..].starts_with(|c: char| c.is_ascii_digit() || c == '-' || c == '.');
            if is_path {
                assert!(!text.contains("NaN") && !text.contains("inf"), "{path}: {text}");
            } else if text.contains(' ') && text.parse::<Measure>().is_err() {
                all.push((path.to_owned(), text));
            }
        }
        Value::Array(items) => items.iter().for_each(|item| sentences(item, &format!("{path}[]"), all)),
        Value::Object(fields) => {
            fields.iter().for_each(|(field, item)| sentences(item, &format!("{path}.{field}"), all));
        }
        Value::Null | Value::Bool(_) | Value::Number(_) => {}
    }
}

pub(crate) fn is_well_said(value: &impl serde::Serialize) {
    let value = serde_json::to_value(value).unwrap();
    let mut all = Vec::new();
    sentences(&value, "", &mut all);
    for (path, text) in all {
        assert!(!is_written_by_nobody(text), "{path}: “{text}”");
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn whatever_a_document_holds_is_solved_or_refused_in_plain_words(seed: u64) {
        let document = Chooser::new(seed).document();
        let faults = document.faults();
        for tape in Tape::ALL.iter().copied() {
            let solved = match solve(&document, tape) {
                Ok(solved) => solved,
                Err(wrong) => {
                    prop_assert!(!wrong.is_empty());
                    for fault in wrong {
                        let (found, expected) = (fault.wrong.found(tape), fault.wrong.expected(tape));
                        prop_assert!(!fault.path.is_empty() && !found.is_empty() && !expected.is_empty());
                        for words in [found, expected] {
                            prop_assert!(!is_written_by_nobody(&words), "{}: {words}", fault.path);
                        }
                    }
                    continue;
                }
            };
            prop_assert_eq!(&faults, &vec![], "what is solved has no fault");
            is_well_said(&solved);
            is_well_said(&asking(&document, tape));
            is_well_said(&compare(&document, tape).unwrap());
            let newest = document.newest().unwrap();
            is_well_said(&look_over(&newest.garment, &document.wearer, tape));
        }
    }

    /// Whatever is wanted, typed or pinned, ways are found or it is said why not; and each is, opened in Lines, what was said of it.
    #[test]
    fn every_way_is_what_is_said_of_it(seed: u64, tape in proptest::sample::select(Tape::ALL)) {
        let document = Chooser::new(seed).document();
        for from in [WantedFrom::Typed, WantedFrom::Pins] {
            let Ok(found) = methods(&document, from, tape) else { continue };
            is_well_said(&found);
            for method in found.best.iter().chain(found.nearest.iter().map(|n| &n.method)) {
                let mut tried = document.clone();
                tried.try_ons.drain(..document.try_ons.len() - 1);
                tried.try_ons.last_mut().unwrap().changes.clone_from(&method.changes);
                let solved = solve(&tried, tape).unwrap();
                let there = solved.try_ons.last().unwrap();
                for level in &method.levels {
                    let same = there.levels.iter().find(|l| l.name == level.name).unwrap();
                    prop_assert_eq!(&same.sum, &level.sum, "{}", &method.title);
                }
                prop_assert!(method.checks.iter().all(|check| check.outcome != Outcome::Stop));
                prop_assert!(there.stand == method.stand);
            }
        }
    }

    /// A card speaks of figures with a − where it has some, on whichever tape, and nowhere else.
    #[test]
    fn a_card_speaks_of_a_minus_where_there_is_one(seed: u64) {
        let document = Chooser::new(seed).document();
        for tape in Tape::ALL.iter().copied() {
            let Ok(solved) = solve(&document, tape) else { continue };
            let cards = solved.try_ons.iter().flat_map(|t| &t.cards);
            for card in cards.filter(|card| matches!(card.key, ChangeKey::Seam(_))) {
                let table = card.table();
                let chalked = |n: &usize| table.columns[*n].emphasis == Emphasis::Chalked;
                let columns: Vec<usize> = (0..table.columns.len()).filter(chalked).collect();
                let mut cells = table.rows.iter().flat_map(|row| columns.iter().map(|n| &row.cells[*n].text));
                let has_one = cells.any(|text| text.starts_with('−'));
                let speaks = card.sentences().iter().filter(|s| ["a − out", "the −", "its −"].iter().any(|w| s.contains(w))).count();
                prop_assert_eq!(has_one, speaks > 0, "{:?} {} {:?} {:?}", tape, card.title, card.figures(), card.sentences());
            }
        }
    }

    /// What a try-on comes to depends on its own state and on nothing that stands beside it.
    #[test]
    fn a_try_on_is_solved_alike_alone_and_among_others(seed: u64) {
        let document = Chooser::new(seed).document();
        let Ok(together) = solve(&document, Tape::Cm) else { return Ok(()) };
        for (try_on, among) in document.try_ons.iter().zip(&together.try_ons) {
            let alone = Document { try_ons: vec![try_on.clone()], ..document.clone() };
            let alone = solve(&alone, Tape::Cm).unwrap();
            prop_assert!(
                serde_json::to_value(&alone.try_ons[0]).unwrap() == serde_json::to_value(among).unwrap()
            );
        }
        // Without cards it is the same, without cards.
        let mut bare = solve_for(&document, Tape::Cm, For::Page).unwrap();
        for (bare, full) in bare.try_ons.iter_mut().zip(&together.try_ons) {
            prop_assert!(bare.cards.is_empty());
            bare.cards.clone_from(&full.cards);
        }
        prop_assert!(serde_json::to_value(&bare).unwrap() == serde_json::to_value(&together).unwrap());
    }

    /// The rail, the stages and the page say the same of the newest try-on.
    #[test]
    fn the_rail_says_what_the_page_says(seed: u64, tape in proptest::sample::select(Tape::ALL)) {
        let document = Chooser::new(seed).document();
        let Ok(solved) = solve(&document, tape) else { return Ok(()) };
        let glance = glance(&document, tape).unwrap();
        prop_assert_eq!(glance.next_step.words(), solved.next_step.clone());
        let newest = solved.try_ons.last().unwrap();
        let count = |outcome| newest.checks.iter().filter(|c| c.outcome == outcome && c.passed_over.is_none()).count();
        prop_assert_eq!((glance.stops, glance.cautions), (count(Outcome::Stop), count(Outcome::Caution)));
        let (lines, go_on) = stages(&document, tape);
        prop_assert!(serde_json::to_value(&lines).unwrap() == serde_json::to_value(&solved.stages).unwrap());
        prop_assert!(lines.iter().any(|line| line.stage == go_on), "it goes on where one can go");
    }
}

/// What is stored of a change in the list of version 1 that its kind had; nothing of what that version had no place for.
fn in_lists_of_v1(changes: &[Change]) -> (Vec<Change>, Value) {
    let (mut kept, mut lists) = (Vec::new(), json!({ "alterations": [], "darts": [] }));
    let in_turn = |kind: fn(&Change) -> bool| changes.iter().filter(move |change| kind(change));
    let seams = in_turn(|change| matches!(change, Change::Seam(_)));
    let darts = in_turn(|change| matches!(change, Change::Dart(_)));
    let elastic = in_turn(|change| matches!(change, Change::Elastic(elastic) if elastic.casing.is_some()));
    for change in seams.chain(darts).chain(elastic) {
        kept.push(change.clone());
        match serde_json::to_value(change).unwrap() {
            Value::Object(mut of_kind) => {
                if let Some(seam) = of_kind.remove("seam") {
                    lists["alterations"].as_array_mut().unwrap().push(seam);
                } else if let Some(dart) = of_kind.remove("dart") {
                    lists["darts"].as_array_mut().unwrap().push(dart);
                } else {
                    let mut elastic = of_kind.remove("elastic").unwrap();
                    elastic.as_object_mut().unwrap().remove("at");
                    lists["elastic"] = elastic;
                }
            }
            other => panic!("{other}"),
        }
    }
    (kept, lists)
}

/// What version 1 could hold of a document, and the same as version 1 wrote it.
fn as_version_1(document: &Document) -> (Document, Value) {
    // As it was stored: inches that no tape has are written in millimetres.
    let mut document: Document = serde_json::from_value(serde_json::to_value(document).unwrap()).unwrap();
    let mut try_ons = Vec::new();
    for try_on in &mut document.try_ons {
        try_on.chalked.clear();
        try_on.wanted.clear();
        try_on.left_out.retain(|left_out| matches!(left_out.change, ChangeKey::Seam(_)));
        let mut value = serde_json::to_value(&*try_on).unwrap();
        let fields = value.as_object_mut().unwrap();
        fields.retain(|field, _| !["state", "changes"].contains(&&field[..]));
        let lists = |changes: &mut Vec<Change>, fields: &mut serde_json::Map<String, Value>| {
            let (kept, lists) = in_lists_of_v1(changes);
            *changes = kept;
            let Value::Object(lists) = lists else { panic!("lists") };
            fields.extend(lists);
        };
        lists(&mut try_on.changes, fields);
        for (version, value) in try_on.versions.iter_mut().zip(0..) {
            let fields = fields["versions"][value].as_object_mut().unwrap();
            fields.remove("changes");
            lists(&mut version.changes, fields);
        }
        for left_out in fields.get_mut("left_out").and_then(Value::as_array_mut).into_iter().flatten() {
            let key = left_out.as_object_mut().unwrap().remove("change").unwrap();
            left_out["seam"] = key.as_str().unwrap().strip_prefix("seam.").unwrap().into();
        }
        try_ons.push(value);
    }
    let mut garment = serde_json::to_value(&document.newest().unwrap().garment).unwrap();
    garment["wearer"] = serde_json::to_value(&document.wearer).unwrap();
    (document, json!({ "version": 1, "garment": garment, "try_ons": try_ons }))
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 1000, failure_persistence: None, ..ProptestConfig::default() })]

    /// Whatever version 1 could hold is read as what it is now, entry by entry.
    #[test]
    fn version_1_is_brought_up_whole(seed: u64) {
        let (document, written) = as_version_1(&Chooser::new(seed).document());
        let read: DocumentV1 = serde_json::from_value(written).unwrap();
        prop_assert_eq!(read.brought_up(), document);
    }
}

proptest! {
    // Few documents have one.
    #![proptest_config(ProptestConfig { cases: 3000, failure_persistence: None, ..ProptestConfig::default() })]

    /// What is offered as a mend can be made, and mends: its check passes then, and none that passed stops.
    #[test]
    fn every_mend_mends(seed: u64) {
        let document = Chooser::new(seed).document();
        let tape = Tape::ALL[seed as usize % Tape::ALL.len()];
        let Ok(solved) = solve_for(&document, tape, For::Page) else { return Ok(()) };
        for (n, solved) in solved.try_ons.iter().enumerate() {
            for check in solved.checks.iter().filter(|check| check.outcome != Outcome::Passes) {
                if check.mend.is_empty() {
                    continue;
                }
                let mut mended = document.clone();
                for change in check.mend.clone() {
                    change.put_among(&mut mended.try_ons[n].changes);
                }
                let again = solve_for(&mended, tape, For::Page);
                prop_assert!(again.is_ok(), "{:?}: {:?} of {:?}", again.err(), check.mend, check.key);
                let again = again.unwrap();
                let after = |key: &FindingKey| again.try_ons[n].checks.iter().find(|c| c.key.is(key));
                let own = after(&check.key).map(|c| c.outcome);
                prop_assert!(
                    own.is_none_or(|o| o == Outcome::Passes),
                    "{:?} of {:?} leaves {:?}", check.mend, check.key, own
                );
                for passed in solved.checks.iter().filter(|c| c.outcome == Outcome::Passes) {
                    let stops = after(&passed.key).is_some_and(|c| c.outcome == Outcome::Stop);
                    prop_assert!(!stops, "{:?} of {:?} stops {:?}", check.mend, check.key, passed.key);
                }
            }
        }
    }
}
