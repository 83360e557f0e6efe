//! Sides that are turned, and what two devices enter at once, in every list of a try-on.

use super::*;
use crate::change::dart::DartChange;
use crate::change::elastic::{ElasticAt, ElasticChange};
use crate::change::seam::{SeamChange, SeamShare};
use crate::fitting::{Around, End, Face, Fairing, HemHow, How, HowItWent, Movement, Seen, Verdict};
use crate::garment::{Dart, HemEdge, Seam};
use crate::judge::{FindingKey, Rule};
use crate::length::{Length, Tape};
use crate::tests::kit::{m, trying};
use proptest::prelude::*;

fn seam(seam: Seam, readings: Vec<Reading>) -> SeamChange {
    SeamChange { readings, ..SeamChange::of(seam) }
}

const LEFT: GarmentSide = GarmentSide::Left;
const RIGHT: GarmentSide = GarmentSide::Right;

fn pinned(id: u128, side: GarmentSide, station: i64, mm: i64) -> Reading {
    let length = |mm| Measure { length: Length::from_mm(mm), unit: crate::length::Unit::Cm };
    let id = Some(Uuid::from_u128(id));
    Reading { id, side, station: length(station), amount: length(mm), how: How::Fold }
}

fn try_on(readings: Vec<Reading>) -> TryOn {
    trying(vec![seam(Seam::SideSeam, readings)])
}

/// One of everything that has a side.
fn full(worn: Worn) -> TryOn {
    TryOn {
        worn,
        hem_marks: vec![HemMark {
            id: Uuid::from_u128(20),
            edge: HemEdge::Leg,
            side: Some(LEFT),
            around: Around::Side,
            how: HemHow::TurnUp,
            amount: m("3 cm"),
            again: Some(m("2.5 cm")),
        }],
        observations: vec![Observation {
            id: Uuid::from_u128(30),
            sign: None,
            seen: Seen::Strain,
            level: Level::Bust,
            face: Face::Front,
            side: Some(RIGHT),
            verdict: Verdict::Watch,
            words: String::new(),
        }],
        left_out: vec![LeftOut {
            change: ChangeKey::Seam(Seam::Outseam),
            side: LEFT,
            level: Level::Knee,
            why: Why::OutOfReach,
        }],
        changes: vec![
            seam(Seam::SideSeam, vec![pinned(1, LEFT, 200, 19), pinned(2, RIGHT, 200, 13)]).into(),
            DartChange { readings: vec![pinned(9, RIGHT, 80, 12)], ..DartChange::of(Dart::BackWaist) }.into(),
        ],
        ..crate::tests::kit::try_on()
    }
}

#[test]
fn worked_example_b_left_there_was_the_wearers_right() {
    let inside_out = full(Worn::InsideOut);
    assert_eq!(inside_out.put_on().in_both_words(LEFT), "garment’s left, on the wearer’s right");
    assert_eq!(full(Worn::RightSideOut).put_on().in_both_words(LEFT), "garment’s left, on the wearer’s left");
    let on_a_form = TryOn { pinned_by: PinnedBy::DressForm, ..inside_out };
    assert_eq!(on_a_form.put_on().in_both_words(RIGHT), "garment’s right, on the form’s left");
}

#[test]
fn turning_the_answer_keeps_what_was_meant() {
    let mut before = full(Worn::RightSideOut);
    let Change::Seam(seam) = &mut before.changes[0] else { panic!("a seam") };
    seam.sides = Some(SidePolicy::Left);
    let sides = |t: &TryOn| t.clone().sides_mut().map(|s| *s).collect::<Vec<_>>();
    let on_wearer = |t: &TryOn| sides(t).into_iter().map(|s| t.worn.on_wearer(s)).collect::<Vec<_>>();

    let of_garment = before.turned(Worn::InsideOut, Meant::SidesOfGarment);
    assert_eq!(sides(&of_garment), sides(&before), "the garment's sides stay");
    assert_ne!(on_wearer(&of_garment), on_wearer(&before));

    let of_wearer = before.turned(Worn::InsideOut, Meant::SidesOfWearer);
    assert_eq!(on_wearer(&of_wearer), on_wearer(&before), "the wearer's sides stay");
    assert!(sides(&of_wearer).iter().zip(sides(&before)).all(|(a, b)| *a == b.other()));
    assert_eq!(
        of_wearer.clone().changes[0].policy_mut(),
        Some(&mut SidePolicy::Right),
        "“use the left” goes with its pins"
    );

    for meant in [Meant::SidesOfGarment, Meant::SidesOfWearer] {
        let there = before.turned(Worn::InsideOut, meant);
        assert_eq!(there.turned(Worn::RightSideOut, meant), before, "and back again");
        assert_eq!(before.turned(Worn::RightSideOut, meant), before, "the same answer changes nothing");
    }
    // As soon as anything has a side, by itself or as a policy, somebody must say what it meant.
    let mut sideless =
        TryOn { hem_marks: Vec::new(), observations: Vec::new(), left_out: Vec::new(), ..before.clone() };
    (sideless.versions, sideless.changes) = (Vec::new(), Vec::new());
    let unasked = sideless.turned_unasked(Worn::InsideOut).expect("nothing has a side");
    assert_eq!(unasked, TryOn { worn: Worn::InsideOut, ..sideless.clone() });
    for sided in [
        TryOn { hem_marks: before.hem_marks.clone(), ..sideless.clone() },
        TryOn { observations: before.observations.clone(), ..sideless.clone() },
        TryOn { left_out: before.left_out.clone(), ..sideless.clone() },
        TryOn {
            versions: vec![Version { name: "less".into(), changes: before.changes.clone() }],
            ..sideless.clone()
        },
        TryOn { changes: before.changes.clone(), ..sideless.clone() },
    ] {
        assert_eq!(sided.turned_unasked(Worn::InsideOut), None);
        assert_eq!(sided.turned_unasked(sided.worn), Some(sided), "nothing turns");
    }
}

fn together(base: &TryOn, mine: &TryOn, theirs: &TryOn) -> Result<TryOn, Vec<Apart>> {
    merge(base, mine, theirs, None, Tape::Cm)
}

#[test]
fn two_devices_at_once_keep_what_both_entered() {
    let base = try_on(vec![pinned(1, LEFT, 0, 10), pinned(2, LEFT, 100, 12)]);
    let mut mine = base.clone();
    let mut pins = mine.changes[0].readings().to_vec();
    pins.push(pinned(3, RIGHT, 0, 11));
    pins[0].amount = "1.5 cm".parse().unwrap();
    mine.changes[0].set_readings(pins);
    mine.shoes = "the black ones".into();
    let mut theirs = base.clone();
    theirs.changes[0].set_readings(vec![pinned(1, LEFT, 0, 10)]);
    theirs.changes.push(seam(Seam::Inseam, vec![pinned(4, LEFT, 50, 8)]).into());
    theirs.movements.push(MovementTest { movement: Movement::Sit, went: HowItWent::Tight });

    let both = together(&base, &mine, &theirs).unwrap();
    let ids =
        |n: usize| both.changes[n].readings().iter().map(|r| r.id.unwrap().as_u128()).collect::<Vec<_>>();
    assert_eq!(ids(0), [1, 3], "one was changed, one taken away, one added");
    assert_eq!(both.changes[0].readings()[0].amount.to_string(), "1.5 cm");
    assert_eq!((ids(1), both.movements.len(), both.shoes.as_str()), (vec![4], 1, "the black ones"));
    // Sent again because the answer was lost: nothing is there twice.
    assert_eq!(together(&base, &mine, &both).unwrap(), both);
}

#[test]
fn what_both_changed_differently_is_named_and_somebody_decides() {
    let base = try_on(vec![pinned(1, LEFT, 200, 10)]);
    let with = |mm| try_on(vec![pinned(1, LEFT, 200, mm)]);
    let apart = together(&base, &with(15), &with(12)).unwrap_err();
    let said = Apart {
        what: "side seam, garment’s left at 20.0 cm".into(),
        mine: "1.5 cm".into(),
        theirs: "1.2 cm".into(),
    };
    assert_eq!(apart, [said]);
    let decided = |prefer| merge(&base, &with(15), &with(12), Some(prefer), Tape::Cm).unwrap();
    assert_eq!(decided(Prefer::Mine), with(15));
    assert_eq!(decided(Prefer::Theirs), with(12));
    // Taken away by one, changed by the other.
    let gone = together(&base, &try_on(vec![]), &with(12)).unwrap_err();
    assert_eq!((gone[0].mine.as_str(), gone[0].theirs.as_str()), ("taken away", "1.2 cm"));

    // The same place on two devices: one figure is one pin, two are a question.
    let empty = try_on(vec![]);
    let here = |id, mm| try_on(vec![pinned(id, LEFT, 200, mm)]);
    assert_eq!(together(&empty, &here(7, 10), &here(8, 10)).unwrap(), here(8, 10));
    assert_eq!(together(&empty, &here(7, 10), &here(8, 14)).unwrap_err()[0].mine, "1.0 cm");

    // Turned on one device while the other entered sides: no side may change its meaning in silence.
    let turned = base.turned(Worn::InsideOut, Meant::SidesOfWearer);
    let mut more = base.clone();
    let pins = [base.changes[0].readings(), &[pinned(5, RIGHT, 100, 9)]].concat();
    more.changes[0].set_readings(pins);
    assert!(together(&base, &turned, &more).unwrap_err()[0].what.contains("which way out"));
    assert!(together(&base, &more, &turned).is_err());
    assert_eq!(together(&base, &turned, &base).unwrap(), turned);
}

/// A try-on with some of ten pins, each one of a few amounts.
fn any_try_on() -> impl Strategy<Value = TryOn> {
    prop::collection::btree_map(1_u128..10, 5_i64..9, 0..8).prop_map(|pins| {
        let reading =
            |(id, mm): (u128, i64)| pinned(id, GarmentSide::BOTH[id as usize % 2], 10 * id as i64, mm);
        try_on(pins.into_iter().map(reading).collect())
    })
}

proptest! {
    #[test]
    fn merging_loses_nothing_and_repeats_nothing(base in any_try_on(), mine in any_try_on(), theirs in any_try_on()) {
        let amounts = |t: &TryOn| -> std::collections::BTreeMap<_, _> {
            t.readings().map(|r| (r.id.unwrap(), r.amount.length)).collect()
        };
        let (b, m, t) = (amounts(&base), amounts(&mine), amounts(&theirs));
        for prefer in [Prefer::Mine, Prefer::Theirs] {
            let merged = merge(&base, &mine, &theirs, Some(prefer), Tape::Cm).unwrap();
            let after = amounts(&merged);
            prop_assert_eq!(after.len(), merged.readings().count(), "none is there twice");
            for id in b.keys().chain(m.keys()).chain(t.keys()) {
                let (b, m, t) = (b.get(id), m.get(id), t.get(id));
                let wanted = if m == t || t == b { m } else if m == b { t } else if prefer == Prefer::Mine { m } else { t };
                prop_assert_eq!(after.get(id), wanted);
            }
            // Storing the same again changes nothing.
            let again = merge(&base, &mine, &merged, Some(Prefer::Mine), Tape::Cm).unwrap();
            if prefer == Prefer::Mine {
                prop_assert_eq!(amounts(&again), after);
            }
        }
        if let Ok(merged) = together(&base, &mine, &theirs) {
            prop_assert_eq!(amounts(&merged), amounts(&together(&base, &theirs, &mine).unwrap()), "it does not matter who was first");
        }
    }
}

/// One entry of some list of a try-on, in one of three wordings: what two people do at once.
fn any_entry() -> impl Strategy<Value = (usize, usize)> {
    (0_usize..LISTS, 0_usize..3)
}

/// How many lists and single answers a try-on has.
const LISTS: usize = 15;

/// The try-on with the entry of that list in that wording, or without it.
fn with_entry(mut t: TryOn, list: usize, wording: Option<usize>) -> TryOn {
    let length = |n: usize| m(["5 mm", "7 mm", "9 mm"][n]);
    let text = |n: usize| ["one", "another", "a third"][n].to_owned();
    fn set<T>(entries: &mut Vec<T>, is_it: impl Fn(&T) -> bool, entry: Option<T>) {
        entries.retain(|e| !is_it(e));
        entries.extend(entry);
    }
    let finding =
        FindingKey { side: Some(LEFT), ..FindingKey::about(Rule::Sides, ChangeKey::Seam(Seam::Inseam)) };
    match list {
        0 => {
            let change =
                wording.map(|n| seam(Seam::Inseam, vec![pinned(40, LEFT, 100, 5 + n as i64)]).into());
            set(&mut t.changes, |c: &Change| c.key() == ChangeKey::Seam(Seam::Inseam), change);
        }
        // A dart that is placed, without a pin.
        1 => {
            let key = ChangeKey::Dart(Dart::BackFishEye);
            let placed =
                |n| DartChange { point: Some(length(n)), ..DartChange::of(Dart::BackFishEye) }.into();
            set(&mut t.changes, |c: &Change| c.key() == key, wording.map(placed));
        }
        2 => {
            let held = |n: usize| ElasticChange {
                at: ElasticAt::Waistband,
                casing: Some(m("42 cm")),
                hold_percent: Some(110 + n as u8),
            };
            let key = ChangeKey::Elastic(ElasticAt::Waistband);
            set(&mut t.changes, |c: &Change| c.key() == key, wording.map(|n| held(n).into()));
        }
        3 => {
            let version = |n| Version {
                name: "looser".into(),
                changes: vec![seam(Seam::Outseam, vec![pinned(50, LEFT, 10, 4 + n as i64)]).into()],
            };
            set(&mut t.versions, |v: &Version| v.name == "looser", wording.map(version));
        }
        4 => {
            let passed = wording.map(|n| PassedOver { finding, why: text(n) });
            set(&mut t.passed_over, |p: &PassedOver| p.finding.is(&finding), passed);
        }
        5 => {
            let at = Chalked { change: ChangeKey::Seam(Seam::Outseam), at: m("20 cm") };
            set(&mut t.chalked, |c: &Chalked| *c == at, wording.map(|_| at));
        }
        6 => {
            let mark = |n| HemMark {
                id: Uuid::from_u128(60),
                edge: HemEdge::Leg,
                side: Some(LEFT),
                around: Around::Front,
                how: HemHow::TurnUp,
                amount: length(n),
                again: None,
            };
            set(&mut t.hem_marks, |h: &HemMark| h.id == Uuid::from_u128(60), wording.map(mark));
        }
        7 => {
            let seen = |n| Observation {
                id: Uuid::from_u128(70),
                sign: None,
                seen: Seen::Gape,
                level: Level::Waist,
                face: Face::Back,
                side: None,
                verdict: Verdict::Leave,
                words: text(n),
            };
            set(&mut t.observations, |o: &Observation| o.id == Uuid::from_u128(70), wording.map(seen));
        }
        8 => {
            let went = |n: usize| MovementTest { movement: Movement::Sit, went: HowItWent::ALL[n] };
            set(&mut t.movements, |m: &MovementTest| m.movement == Movement::Sit, wording.map(went));
        }
        // Two places of one seam: neither is the other.
        9 | 10 => {
            let side = if list == 9 { LEFT } else { RIGHT };
            let why = |n: usize| Why::ALL[n % Why::ALL.len()];
            let change = ChangeKey::Seam(Seam::Outseam);
            let left = wording.map(|n| LeftOut { change, side, level: Level::Knee, why: why(n) });
            set(&mut t.left_out, |l: &LeftOut| l.side == side, left);
        }
        11 => t.shoes = wording.map_or(String::new(), text),
        12 => t.shut = wording.map(|n| Shut::ALL[n]),
        13 => t.pinned_by = wording.map_or(PinnedBy::default(), |n| PinnedBy::ALL[n]),
        _ => t.conditions = wording.map_or(String::new(), text),
    }
    t
}

fn with_entries(t: &TryOn, entries: &[(usize, usize)]) -> TryOn {
    entries.iter().fold(t.clone(), |t, (list, wording)| with_entry(t, *list, Some(*wording)))
}

/// The same lists, whatever their order.
fn sorted(mut t: TryOn) -> TryOn {
    fn sort<T: std::fmt::Debug>(list: &mut [T]) {
        list.sort_by_key(|entry| format!("{entry:?}"));
    }
    sort(&mut t.changes);
    sort(&mut t.left_out);
    sort(&mut t.movements);
    t
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, failure_persistence: None, ..ProptestConfig::default() })]

    /// Whatever list somebody changes: a change of one is taken, and one that both made says nothing.
    #[test]
    fn what_one_changed_is_taken_in_every_list(
        before in prop::collection::vec(any_entry(), 0..6),
        done in prop::collection::vec((0_usize..LISTS, prop::option::of(0_usize..3)), 1..5),
    ) {
        let base = with_entries(&try_on(vec![]), &before);
        let mine = done.iter().fold(base.clone(), |t, (list, wording)| with_entry(t, *list, *wording));
        prop_assert_eq!(together(&base, &mine, &base).unwrap(), mine.clone(), "mine alone");
        prop_assert_eq!(together(&base, &base, &mine).unwrap(), mine.clone(), "theirs alone");
        prop_assert_eq!(together(&base, &mine, &mine).unwrap(), mine.clone(), "both alike");
        // Made, and sent again as if nothing were there, because the answer was lost.
        prop_assert_eq!(sorted(together(&mine.begun(), &mine, &mine).unwrap()), sorted(mine));
    }

    /// Three people who change lists of their own: in whatever order they are brought together, everything is there.
    #[test]
    fn merging_is_associative_where_nothing_conflicts(entries in prop::collection::vec(any_entry(), 3..9)) {
        let base = with_entries(&try_on(vec![]), &entries);
        let of = |n: usize| {
            let own = entries.iter().filter(|(list, _)| list % 3 == n);
            own.fold(base.clone(), |t, (list, wording)| with_entry(t, *list, [Some((wording + 1) % 3), None][wording % 2]))
        };
        let [a, b, c] = [of(0), of(1), of(2)];
        let ab = together(&base, &a, &b).unwrap();
        let bc = together(&base, &b, &c).unwrap();
        prop_assert_eq!(sorted(together(&base, &ab, &c).unwrap()), sorted(together(&base, &a, &bc).unwrap()));
    }

    /// Back and forth again is where one was, also with what somebody else entered in between; and back takes away nothing of theirs.
    #[test]
    fn undo_then_redo_is_the_identity(
        before in prop::collection::vec(any_entry(), 0..4),
        mine in any_entry(),
        theirs in any_entry(),
    ) {
        prop_assume!(mine.0 != theirs.0);
        let base = with_entries(&try_on(vec![]), &before);
        let done = with_entry(base.clone(), mine.0, Some(mine.1));
        // Somebody else's entry arrives: what was there before is moved onto it.
        let both = with_entry(done.clone(), theirs.0, Some(theirs.1));
        let undone = rebase(&done, &base, &both);
        prop_assert_eq!(sorted(undone.clone()), sorted(with_entry(base, theirs.0, Some(theirs.1))), "theirs stays");
        let redone = rebase(&undone, &both, &undone);
        prop_assert_eq!(sorted(redone), sorted(both));
    }

    /// What both changed in two ways is asked about in words that differ, and say what they mean.
    #[test]
    fn a_question_says_two_things_in_words(list in 0_usize..LISTS, wordings in prop::sample::select(vec![(0_usize, 1_usize), (1, 2), (2, 0)])) {
        let base = try_on(vec![]);
        let [mine, theirs] = [wordings.0, wordings.1].map(|n| with_entry(base.clone(), list, Some(n)));
        prop_assume!(mine != theirs && mine != base && theirs != base);
        for apart in together(&base, &mine, &theirs).unwrap_err() {
            prop_assert_ne!(&apart.mine, &apart.theirs, "{}", apart.what);
            for words in [&apart.what, &apart.mine, &apart.theirs] {
                prop_assert!(!words.contains('{') && !words.contains('_') && !words.contains("Some("), "{}", words);
            }
        }
    }
}

/// Every field of a seam's change, of a dart's and of elastic's: what one changed is taken, and what both changed is asked about.
#[test]
fn every_field_of_a_change_is_brought_together() {
    type Edit = (fn(&mut SeamChange), fn(&mut SeamChange));
    let edits: [Edit; 9] = [
        (|s| s.sides = Some(SidePolicy::Mean), |s| s.sides = Some(SidePolicy::Left)),
        (|s| s.fairing = Fairing::EveryPin, |s| s.fairing = Fairing::Straight),
        (|s| s.tolerance = Some(m("2 mm")), |s| s.tolerance = Some(m("5 mm"))),
        (
            |s| s.lower = Some(End::RunsOff {}),
            |s| s.lower = Some(End::MeetsOldStitching { station: m("5 cm") }),
        ),
        (|s| s.upper = Some(End::RunsOff {}), |s| s.upper = Some(End::StraightThrough { from: m("40 cm") })),
        (|s| s.front_share = Some(40.try_into().unwrap()), |s| s.front_share = Some(60.try_into().unwrap())),
        (|s| s.trim_to = Some(m("1 cm")), |s| s.trim_to = Some(m("1.5 cm"))),
        (
            |s| s.spread = vec![SeamShare { seam: Seam::Inseam, percent: 25 }],
            |s| s.spread = vec![SeamShare { seam: Seam::Inseam, percent: 50 }],
        ),
        (|s| s.readings = vec![pinned(1, LEFT, 10, 7)], |s| s.readings = vec![pinned(1, LEFT, 10, 9)]),
    ];
    let of = |done: &[fn(&mut SeamChange)]| {
        let mut change = seam(Seam::Outseam, vec![]);
        done.iter().for_each(|edit| edit(&mut change));
        trying(vec![change])
    };
    let base = of(&[]);
    for (n, (one, other)) in edits.iter().enumerate() {
        assert_eq!(together(&base, &of(&[*one]), &base).unwrap(), of(&[*one]), "field {n}");
        let apart = together(&base, &of(&[*one]), &of(&[*other])).unwrap_err();
        assert_eq!(apart.len(), 1, "field {n}: {apart:?}");
        assert_ne!(apart[0].mine, apart[0].theirs, "field {n}");
        assert!(apart[0].what.contains("outseam"), "field {n}: {}", apart[0].what);
        for words in [&apart[0].what, &apart[0].mine, &apart[0].theirs] {
            assert!(!words.contains('{') && !words.contains('_'), "field {n}: {words}");
        }
        // Any other field that somebody changed at the same time comes along.
        for (m, (another, _)) in edits.iter().enumerate().filter(|(m, _)| *m != n) {
            let both = together(&base, &of(&[*one]), &of(&[*another])).unwrap();
            let in_order = if n < m { of(&[*one, *another]) } else { of(&[*another, *one]) };
            assert_eq!(both, in_order, "fields {n} and {m}");
        }
    }
}
