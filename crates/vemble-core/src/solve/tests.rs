//! What must hold of every try-on of every kind of garment, whatever was pinned where and how.

use super::SolvedTryOn;
use crate::card::Emphasis;
use crate::change::seam::SeamChange;
use crate::fitting::{Fairing, GarmentSide, How, PinnedBy, Reading, SidePolicy, Worn};
use crate::garment::{Kind, Seam, SeamFacts};
use crate::judge::tests::kinds::round;
use crate::judge::{LevelOf, Rule};
use crate::length::{Figure, Length, Measure, Tape, Unit};
use crate::tests::kit::{Fitted, document_of, m, pin, trying};
use crate::try_on::TryOn;
use proptest::prelude::*;
use proptest::sample::{Index, select};

fn measure(nm: i64) -> Measure {
    Measure { length: Length::from_nm(nm), unit: Unit::Cm }
}

/// Pins on one seam as (which tenth of its length, tenths of a millimetre, how, on the right), one a place and side.
fn pins() -> impl Strategy<Value = Vec<(i64, i64, How, bool)>> {
    let how = prop_oneof![
        4 => Just(How::Fold), 1 => Just(How::Whole), 1 => Just(How::FrontPanel), 1 => Just(How::BackPanel)
    ];
    prop::collection::vec((0_i64..=10, 0_i64..150, how, any::<bool>()), 1..8).prop_map(|mut pins| {
        pins.sort_by_key(|p| (p.0, p.3));
        pins.dedup_by_key(|p| (p.0, p.3));
        pins
    })
}

/// A garment of any kind with pins on one to three of its seams.
fn pinned() -> impl Strategy<Value = (Fitted, Vec<SeamChange>)> {
    let policy = prop_oneof![
        2 => Just(None), 1 => Just(Some(SidePolicy::Mean)), 1 => Just(Some(SidePolicy::Larger)),
        1 => Just(Some(SidePolicy::Left)), 2 => Just(Some(SidePolicy::KeepEach)),
    ];
    let way = select(vec![Fairing::Smooth, Fairing::EveryPin, Fairing::Straight]);
    let seam = (any::<Index>(), pins(), policy, way, 0_u8..=100);
    (select(Kind::ALL.to_vec()), prop::collection::vec(seam, 1..4)).prop_map(|(kind, seams)| {
        let garment = round(kind);
        let there: Vec<Seam> = garment.seams.iter().map(|s| s.seam).collect();
        let mut alterations: Vec<SeamChange> = Vec::new();
        for (which, pins, sides, fairing, share) in seams {
            let seam = *which.get(&there);
            let end = garment.seam(seam).unwrap().end();
            let reading = |(tenth, amount, how, right): (i64, i64, How, bool)| Reading {
                id: None,
                side: if right && seam.has_sides() { GarmentSide::Right } else { GarmentSide::Left },
                station: measure(end.fraction(tenth, 10).nm()),
                amount: measure(amount * 100_000),
                how,
            };
            let mut readings: Vec<Reading> = pins.into_iter().map(reading).collect();
            readings.dedup_by_key(|r| (r.station.length, r.side));
            if alterations.iter().all(|a| a.seam != seam) {
                let front_share = Some(share.try_into().unwrap());
                alterations.push(SeamChange {
                    readings,
                    sides,
                    fairing,
                    front_share,
                    ..SeamChange::of(seam)
                });
            }
        }
        (garment, alterations)
    })
}

fn solved(garment: &Fitted, changes: Vec<SeamChange>, worn: Worn, tape: Tape) -> SolvedTryOn {
    garment.solved(TryOn { worn, ..trying(changes) }, tape)
}

/// Exact figures of every level: whose, off and after.
fn girths(result: &SolvedTryOn) -> Vec<(crate::place::Level, LevelOf, i64, i64)> {
    result.levels.iter().map(|l| (l.level, l.of, l.off.nm, l.after.nm)).collect()
}

/// Exact figures of every row of every card: card, station, then what is chalked there.
type Chalked = (String, Vec<Option<i64>>);

fn chalked(result: &SolvedTryOn) -> Vec<Chalked> {
    let of_card = |card: &crate::card::Card| {
        let key = card.key.to_string();
        let row = move |row: &crate::card::TableRow| {
            (key.clone(), row.cells.iter().map(|cell| cell.figure.as_ref().map(|f| f.nm)).collect())
        };
        card.table().rows.iter().map(row).collect::<Vec<_>>()
    };
    let mut all: Vec<Chalked> = result.cards.iter().flat_map(of_card).collect();
    all.sort();
    all
}

/// The columns of the other side in place of each side's, where both have columns of their own.
fn sides_exchanged((key, mut row): Chalked, sides_agree: bool) -> Chalked {
    let one = (row.len() - 1) / 2;
    if !sides_agree {
        row[1..].rotate_left(one);
    }
    (key, row)
}

/// A figure as it is shown, without its unit: `4.5`, `1 3/4`.
fn shown(text: &str, tape: Tape) -> Length {
    Measure::read(&text.replace('−', "-"), Some(tape.unit()))
        .unwrap_or_else(|e| panic!("“{text}”: {e}"))
        .length
}

/// A figure as it is read off the screen.
fn read(figure: &Figure, tape: Tape) -> Length {
    shown(figure.text().rsplit_once(' ').unwrap().0, tape)
}

/// What a term in brackets comes to: `outseam: 2 edges × 4.5`, `2 side seams × (front 1.0, back 0.6)`.
fn term(words: &str, tape: Tape) -> Length {
    let words = words.rsplit_once(": ").map_or(words, |w| w.1);
    let (times, one) = match words.split_once(" × (") {
        Some((seams, one)) => (seams, one.trim_end_matches(')')),
        None => ("1", words),
    };
    let count =
        |text: &str| text.split(' ').next().unwrap().parse::<i64>().unwrap_or_else(|_| panic!("{words}"));
    if one.contains(" × ") {
        let factors: Vec<&str> = one.split(" × ").collect();
        let (each, counts) = factors.split_last().unwrap();
        return shown(each, tape) * counts.iter().map(|c| count(c)).product::<i64>();
    }
    let edges = one
        .split([',', '+'])
        .map(|e| shown(&e[e.find(|c: char| c == '−' || c.is_ascii_digit()).unwrap()..], tape));
    edges.sum::<Length>() * count(times)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 250, failure_persistence: None, ..ProptestConfig::default() })]

    /// Nobody pins from the hem up, nor seam by seam: the order in which it was written down means nothing.
    #[test]
    fn the_order_of_pins_and_seams_does_not_matter((garment, alterations) in pinned()) {
        let one = solved(&garment, alterations.clone(), Worn::RightSideOut, Tape::Cm);
        let mut turned = alterations;
        turned.reverse();
        turned.iter_mut().for_each(|a| a.readings.reverse());
        let other = solved(&garment, turned, Worn::RightSideOut, Tape::Cm);
        prop_assert_eq!(girths(&one), girths(&other));
        prop_assert_eq!(chalked(&one), chalked(&other));
        let said = |result: &SolvedTryOn| {
            let mut said: Vec<_> = result.checks.iter().map(|c| (format!("{:?}", c.key), c.outcome)).collect();
            said.sort();
            said
        };
        prop_assert_eq!(said(&one), said(&other));
    }

    /// What was pinned left and right exchanged: so is what is chalked, and the girth of each leg and sleeve.
    #[test]
    fn exchanging_the_sides_exchanges_what_follows((garment, alterations) in pinned()) {
        let pairs: Vec<SeamChange> = alterations.into_iter().filter(|a| !a.seam.is_single()).collect();
        let exchanged = pairs.iter().cloned().map(|mut a| {
            a.readings.iter_mut().for_each(|r| r.side = GarmentSide::BOTH[1 - r.side as usize]);
            a.sides = if a.sides == Some(SidePolicy::Left) { Some(SidePolicy::Right) } else { a.sides };
            a
        });
        let exchanged = exchanged.collect();
        let one = solved(&garment, pairs, Worn::RightSideOut, Tape::Cm);
        let other = solved(&garment, exchanged, Worn::RightSideOut, Tape::Cm);
        let mut swapped = girths(&other);
        for level in &mut swapped {
            level.1 = match level.1 {
                LevelOf::LeftLeg => LevelOf::RightLeg,
                LevelOf::RightLeg => LevelOf::LeftLeg,
                LevelOf::LeftSleeve => LevelOf::RightSleeve,
                LevelOf::RightSleeve => LevelOf::LeftSleeve,
                both => both,
            };
        }
        let sorted = |mut girths: Vec<(crate::place::Level, LevelOf, i64, i64)>| {
            girths.sort_by_key(|g| (g.0, g.1 as u8));
            girths
        };
        prop_assert_eq!(sorted(girths(&one)), sorted(swapped));
        for (change, (a, b)) in one.changes.iter().zip(one.lines().into_iter().zip(other.lines())) {
            let of = |row: &Chalked| row.0 == change.key.to_string();
            prop_assert_eq!((a.sides_agree, a.edges_equal), (b.sides_agree, b.edges_equal));
            for (a, b) in a.ends.iter().zip(&b.ends) {
                let exchanged = match b.strip_prefix("left: ").and_then(|both| both.split_once("; right: ")) {
                    Some((left, right)) => format!("left: {right}; right: {left}"),
                    None => b.clone(),
                };
                prop_assert_eq!(a, &exchanged);
            }
            let rows = chalked(&other).into_iter().filter(of).map(|row| sides_exchanged(row, b.sides_agree));
            let (one, other): (Vec<_>, Vec<_>) = (chalked(&one).into_iter().filter(of).collect(), rows.collect());
            prop_assert_eq!(one, other);
        }
    }

    /// Pins are read off the garment: which way round it was worn says whose side that was, and moves no line.
    #[test]
    fn inside_out_names_the_other_side_of_the_wearer_and_moves_nothing((garment, alterations) in pinned()) {
        let [one, other] = [Worn::RightSideOut, Worn::InsideOut].map(|worn| solved(&garment, alterations.clone(), worn, Tape::Cm));
        prop_assert_eq!(girths(&one), girths(&other));
        prop_assert_eq!(chalked(&one), chalked(&other));
        let others = other.checks.iter().filter(|c| c.key.rule != Rule::Turned);
        prop_assert!(one.checks.iter().map(|c| &c.key).eq(others.map(|c| &c.key)));
        for (a, b) in one.lines().into_iter().zip(other.lines()) {
            for (pin, turned) in a.pins.iter().zip(&b.pins) {
                prop_assert_eq!((pin.side, pin.whole.nm, pin.beside.nm), (turned.side, turned.whole.nm, turned.beside.nm));
                prop_assert_ne!(&pin.seen_words, &turned.seen_words);
            }
            // The wearer's left comes first, whoever's side of the garment that is.
            prop_assert_eq!(a.strip.sides[0].side, b.strip.sides[1].side);
            prop_assert_eq!(a.strip.lines.first(), b.strip.lines.last());
        }
    }

    /// On a dress form every word of a side is the form's, on strips, pins, cards and checks alike; nothing else differs.
    #[test]
    fn on_a_form_no_side_is_called_the_wearers((garment, alterations) in pinned()) {
        let words = |pinned_by| {
            let try_on = TryOn { worn: Worn::InsideOut, pinned_by, ..trying(alterations.clone()) };
            format!("{:?}", garment.solved(try_on, Tape::Cm))
        };
        let (on_a_wearer, on_a_form) = (words(PinnedBy::Helper), words(PinnedBy::DressForm));
        prop_assert!(on_a_wearer.contains("wearer’s ") && !on_a_form.contains("wearer’s"));
        prop_assert_eq!(on_a_wearer.replace("wearer’s ", "form’s "), on_a_form);
    }

    /// Another tape has other marks on the same line, also where an end is assumed.
    #[test]
    fn no_tape_moves_a_line((garment, alterations) in pinned()) {
        let on = |tape| solved(&garment, alterations.clone(), Worn::RightSideOut, tape);
        let in_cm = on(Tape::Cm);
        for tape in [Tape::CmHalves, Tape::In, Tape::InSixteenths] {
            let other = on(tape);
            for (a, b) in in_cm.lines().into_iter().zip(other.lines()) {
                prop_assert_eq!(&a.strip.lines, &b.strip.lines);
                prop_assert!(a.pins.iter().map(|p| (p.drawn.nm, p.stands_off)).eq(b.pins.iter().map(|p| (p.drawn.nm, p.stands_off))));
            }
        }
    }

    /// Where stitching starts is as far from where the line leaves the old one as the card says, on every tape.
    #[test]
    fn where_stitching_starts_adds_up_as_it_is_shown((garment, alterations) in pinned(), tape in select(Tape::ALL.to_vec())) {
        let result = solved(&garment, alterations, Worn::RightSideOut, tape);
        for step in result.cards.iter().flat_map(|card| card.steps()).filter_map(|s| s.strip_prefix("Start stitching on the old line at ")) {
            let (start, rest) = step.split_once(", ").unwrap();
            let (over, rest) = rest.split_once(" before it leaves it at ").unwrap();
            let (leaves, _) = rest.split_once(", and sew").unwrap();
            let [start, over, leaves] = [start, over, leaves].map(|text| text.parse::<Measure>().unwrap().length);
            prop_assert_eq!(leaves + over, start, "{}", step);
        }
    }

    /// Whoever adds up what a level says with pencil and paper gets what it says, in every step.
    #[test]
    fn sums_add_up_as_they_are_shown((garment, alterations) in pinned(), tape in select(Tape::ALL)) {
        let result = solved(&garment, alterations, Worn::RightSideOut, tape);
        for level in &result.levels {
            let ease = level.body.as_ref().zip(level.ease_after.as_ref());
            prop_assert!(ease.is_none_or(|(body, ease)| read(&level.after, tape) - read(body, tape) == read(ease, tape)));
            let Some((_, sum)) = level.sum.split_once("; ") else { continue };
            let (terms, total) = sum.rsplit_once(" = ").unwrap();
            prop_assert_eq!(total, &level.after.text(), "{}", level.sum);
            // `48.0 − 9.0 (outseam: 2 edges × 4.5) − 1.2 (…)`: outside brackets it is one sum.
            let mut left = Length::ZERO;
            for (n, part) in terms.split(") ").enumerate() {
                let (figures, words) = part.split_once(" (").unwrap();
                let (before, sign, off) = match figures.rsplit_once("− ") {
                    Some((before, off)) => (before, -1, shown(off, tape)),
                    None => figures.rsplit_once("+ ").map(|(before, off)| (before, 1, shown(off, tape))).unwrap(),
                };
                if n == 0 {
                    left = shown(before.trim(), tape);
                }
                left = left + off * sign;
                prop_assert_eq!(term(words.trim_end_matches(')'), tape).abs(), off, "{}", level.sum);
            }
            prop_assert_eq!(left, read(&level.after, tape), "{}", level.sum);
        }
    }

    /// What is chalked is what is sewn: on every tape, each row's edges make its whole, all at marks of the tape, and a level takes what
    /// stands in its row.
    #[test]
    fn no_row_disagrees_with_itself((garment, alterations) in pinned(), tape in select(Tape::ALL)) {
        let result = solved(&garment, alterations, Worn::RightSideOut, tape);
        for card in &result.cards {
            let table = card.table();
            for row in &table.rows {
                for group in 1..=2 {
                    let of = |wanted: Emphasis| {
                        let cells = table.columns.iter().zip(&row.cells);
                        let own = cells.filter(move |(column, _)| column.group == group && column.emphasis == wanted);
                        own.filter_map(|(_, cell)| cell.figure.as_ref()).map(|f| read(f, tape)).collect::<Vec<_>>()
                    };
                    let (edges, whole) = (of(Emphasis::Chalked), of(Emphasis::Sum));
                    let Some(whole) = whole.first() else { continue };
                    let sum = if edges.len() == 1 { edges[0] * 2 } else { edges.iter().copied().sum() };
                    prop_assert_eq!(sum, *whole, "{:?}", row);
                }
                prop_assert!(row.cells.iter().filter_map(|c| c.figure.as_ref()).all(|f| f.nm % tape.mark().nm() == 0));
            }
        }
        for level in &result.levels {
            prop_assert_eq!(level.off.nm % tape.mark().nm(), 0, "{}", level.sum);
        }
        for pin in result.lines().iter().flat_map(|line| &line.pins) {
            prop_assert_eq!(read(&pin.front, tape) + read(&pin.back, tape), read(&pin.whole, tape), "{}", pin.sum);
        }
        let finer = |text: &str| text.contains("/64") || text.contains("/32") || text.contains("rounded");
        let said = result.checks.iter().flat_map(|c| [&c.figures, &c.reason]).chain(result.levels.iter().map(|l| &l.sum));
        prop_assert!(said.clone().all(|text| !finer(text)), "{:?}", said.filter(|text| finer(text)).collect::<Vec<_>>());
    }
}

/// What goes round is chalked half by half: the line runs off at the middle behind at the latest, a pin beyond that is none of this half, and the tape is laid where the
/// seam begins, which a yoke of a back does at the side.
#[test]
fn a_level_seam_is_chalked_half_by_half() {
    let cases = [
        (Kind::Jeans, Seam::YokeSeam, " cm at the side."),
        (Kind::Shirt, Seam::YokeSeam, " cm at the side."),
        (Kind::Shirt, Seam::NeckSeam, "with 0 at the centre front."),
        (Kind::DressWithWaistSeam, Seam::WaistSeam, "with 0 at the centre front."),
        (Kind::Coverall, Seam::WaistSeam, "with 0 at the centre front."),
    ];
    for (kind, seam, from) in cases {
        let garment = round(kind);
        let end = garment.garment.seam(seam).unwrap().end();
        let pinned = |last: Length| {
            let at = [end.fraction(6, 10), last].map(|at| measure(at.nm()).to_string());
            let readings = at.iter().map(|at| pin(GarmentSide::Left, at, "0.5 cm")).collect();
            vec![SeamChange { readings, ..SeamChange::of(seam) }]
        };
        let result = solved(&garment, pinned(end), Worn::RightSideOut, Tape::Cm);
        let steps = result.cards[0].steps();
        let says = |words: &str| steps.iter().any(|step| step.contains(words));
        assert!(says("old stitching of each half with") && says(from), "{kind:?}, {seam:?}: {steps:?}");
        assert!(says("The line runs off at the centre back"), "{kind:?}, {seam:?}: {steps:?}");
        let beyond = document_of(&garment, pinned(end + Length::from_mm(5)));
        assert!(crate::solve::solve(&beyond, Tape::Cm).is_err(), "{kind:?}, {seam:?}");
        // Half of an odd length ends at a mark, where somebody finds it.
        for (whole, last) in [("82.1 cm", "41 cm"), ("32 3/8 in", "16 1/8 in")] {
            let facts = SeamFacts { length: m(whole), ..garment.garment.seam(seam).unwrap().clone() };
            assert!(!seam.goes_round() || facts.end() == m(last).length, "{seam:?}: {:?}", facts.end());
        }
    }
}
