//! Halving and doubling, sides, and what two devices enter at once.

use super::*;
use proptest::prelude::*;

fn reading(how: How, mm: i64) -> Reading {
    let length = |mm| Measure { length: Length::from_mm(mm), unit: crate::length::Unit::Cm };
    Reading { id: None, side: GarmentSide::Left, station: length(200), amount: length(mm), how }
}

#[test]
fn each_way_of_measuring_halves_and_doubles_as_it_should() {
    for (how, front, back, whole) in [
        (How::Fold, 20, 20, 40),
        (How::Whole, 10, 10, 20),
        (How::FrontPanel, 20, 0, 20),
        (How::BackPanel, 0, 20, 20),
        (How::Gap, -10, -10, -20),
    ] {
        let edges = reading(how, 20).edges(FrontShare::default());
        let mm = (edges.front.0, edges.back.0, edges.whole().0);
        assert_eq!(mm, (Length::from_mm(front), Length::from_mm(back), Length::from_mm(whole)), "{how:?}");
    }
}

#[test]
fn inside_out_swaps_the_sides_both_ways() {
    assert_eq!(Worn::InsideOut.on_wearer(GarmentSide::Left), WearerSide::Right);
    for worn in [Worn::RightSideOut, Worn::InsideOut] {
        for side in GarmentSide::BOTH {
            assert_eq!(worn.of_garment(worn.on_wearer(side)), side);
        }
    }
}

proptest! {
    #[test]
    fn the_edges_always_make_the_whole(mm in 0_i64..200, percent in 0_u8..=100) {
        let share = FrontShare::try_from(percent).unwrap();
        let edges = reading(How::Fold, mm).edges(share);
        prop_assert_eq!(edges.whole().0, Length::from_mm(2 * mm));
        prop_assert_eq!(share.moves(edges.whole()) + edges.whole().0.fraction(1, 2), edges.front.0);
    }
}

const LEFT: GarmentSide = GarmentSide::Left;
const RIGHT: GarmentSide = GarmentSide::Right;

fn pinned(id: u128, side: GarmentSide, station: i64, mm: i64) -> Reading {
    let length = |mm| Measure { length: Length::from_mm(mm), unit: crate::length::Unit::Cm };
    let id = Some(Uuid::from_u128(id));
    Reading { id, side, station: length(station), amount: length(mm), how: How::Fold }
}

fn try_on(readings: Vec<Reading>) -> TryOn {
    let alterations = vec![Alteration { readings, ..Alteration::of(Seam::SideSeam) }];
    TryOn { alterations, ..TryOn::on(jiff::civil::date(2026, 10, 10)) }
}

/// One of everything that has a side.
fn full(worn: Worn) -> TryOn {
    let m = |text: &str| text.parse().unwrap();
    TryOn {
        worn,
        darts: vec![DartPins { readings: vec![pinned(9, RIGHT, 80, 12)], ..DartPins::of(Dart::BackWaist) }],
        hem_marks: vec![HemMark {
            id: Uuid::from_u128(20),
            edge: crate::garment::HemEdge::Leg,
            side: Some(LEFT),
            around: Around::Side,
            how: HemHow::TurnUp,
            amount: m("3 cm"),
            again: Some(m("2.5 cm")),
        }],
        observations: vec![Observation {
            id: Uuid::from_u128(30),
            seen: Seen::Strain,
            level: crate::garment::Level::Bust,
            face: Face::Front,
            side: Some(RIGHT),
            verdict: Verdict::Watch,
            words: String::new(),
        }],
        left_out: vec![LeftOut {
            seam: Seam::Outseam,
            side: LEFT,
            level: crate::garment::Level::Knee,
            why: Why::OutOfReach,
        }],
        ..try_on(vec![pinned(1, LEFT, 200, 19), pinned(2, RIGHT, 200, 13)])
    }
}

#[test]
fn worked_example_b_left_there_was_the_wearers_right() {
    let inside_out = full(Worn::InsideOut);
    assert_eq!(inside_out.in_both_words(LEFT), "garment’s left, on the wearer’s right");
    assert_eq!(full(Worn::RightSideOut).in_both_words(LEFT), "garment’s left, on the wearer’s left");
    let on_a_form = TryOn { pinned_by: PinnedBy::DressForm, ..inside_out };
    assert_eq!(on_a_form.in_both_words(RIGHT), "garment’s right, on the form’s left");
}

#[test]
fn turning_the_answer_keeps_what_was_meant() {
    let mut before = full(Worn::RightSideOut);
    before.alterations[0].sides = Some(SidePolicy::Left);
    let sides = |t: &TryOn| t.clone().sides_mut().map(|s| *s).collect::<Vec<_>>();
    let on_wearer = |t: &TryOn| sides(t).into_iter().map(|s| t.worn.on_wearer(s)).collect::<Vec<_>>();

    let of_garment = before.turned(Worn::InsideOut, Meant::SidesOfGarment);
    assert_eq!(sides(&of_garment), sides(&before), "the garment's sides stay");
    assert_ne!(on_wearer(&of_garment), on_wearer(&before));

    let of_wearer = before.turned(Worn::InsideOut, Meant::SidesOfWearer);
    assert_eq!(on_wearer(&of_wearer), on_wearer(&before), "the wearer's sides stay");
    assert!(sides(&of_wearer).iter().zip(sides(&before)).all(|(a, b)| *a == b.other()));
    assert_eq!(of_wearer.alterations[0].sides, Some(SidePolicy::Right), "“use the left” goes with its pins");

    for meant in [Meant::SidesOfGarment, Meant::SidesOfWearer] {
        let there = before.turned(Worn::InsideOut, meant);
        assert_eq!(there.turned(Worn::RightSideOut, meant), before, "and back again");
        assert_eq!(before.turned(Worn::RightSideOut, meant), before, "the same answer changes nothing");
    }
}

fn together(base: &TryOn, mine: &TryOn, theirs: &TryOn) -> Result<TryOn, Vec<Apart>> {
    merge(base, mine, theirs, None, crate::length::Tape::Cm)
}

#[test]
fn two_devices_at_once_keep_what_both_entered() {
    let base = try_on(vec![pinned(1, LEFT, 0, 10), pinned(2, LEFT, 100, 12)]);
    let mut mine = base.clone();
    mine.alterations[0].readings.push(pinned(3, RIGHT, 0, 11));
    mine.alterations[0].readings[0].amount = "1.5 cm".parse().unwrap();
    mine.shoes = "the black ones".into();
    let mut theirs = base.clone();
    theirs.alterations[0].readings.remove(1);
    theirs
        .alterations
        .push(Alteration { readings: vec![pinned(4, LEFT, 50, 8)], ..Alteration::of(Seam::Inseam) });
    theirs.movements.push(MovementTest { movement: Movement::Sit, went: HowItWent::Tight });

    let both = together(&base, &mine, &theirs).unwrap();
    let ids =
        |n: usize| both.alterations[n].readings.iter().map(|r| r.id.unwrap().as_u128()).collect::<Vec<_>>();
    assert_eq!(ids(0), [1, 3], "one was changed, one taken away, one added");
    assert_eq!(both.alterations[0].readings[0].amount.to_string(), "1.5 cm");
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
    let decided = |prefer| merge(&base, &with(15), &with(12), Some(prefer), crate::length::Tape::Cm).unwrap();
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
    more.alterations[0].readings.push(pinned(5, RIGHT, 100, 9));
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
            let merged = merge(&base, &mine, &theirs, Some(prefer), crate::length::Tape::Cm).unwrap();
            let after = amounts(&merged);
            prop_assert_eq!(after.len(), merged.readings().count(), "none is there twice");
            for id in b.keys().chain(m.keys()).chain(t.keys()) {
                let (b, m, t) = (b.get(id), m.get(id), t.get(id));
                let wanted = if m == t || t == b { m } else if m == b { t } else if prefer == Prefer::Mine { m } else { t };
                prop_assert_eq!(after.get(id), wanted);
            }
            // Storing the same again changes nothing.
            let again = merge(&base, &mine, &merged, Some(Prefer::Mine), crate::length::Tape::Cm).unwrap();
            if prefer == Prefer::Mine {
                prop_assert_eq!(amounts(&again), after);
            }
        }
        if let Ok(merged) = together(&base, &mine, &theirs) {
            prop_assert_eq!(amounts(&merged), amounts(&together(&base, &theirs, &mine).unwrap()), "it does not matter who was first");
        }
    }
}
