//! What is sewn is what was promised; what is left inside is never less than nothing; and what was taken back is as it was.

use super::*;
use crate::change::armhole::{ArmholeAt, ArmholeChange};
use crate::change::seam::SeamChange;
use crate::change::trunk::{TrunkAt, TrunkChange};
use crate::change::{Change, Input};
use crate::fitting::{GarmentSide, How, Reading};
use crate::garment::Seam;
use crate::solve::solve;
use crate::tests::anything::{is_well_said, sensible_document};
use crate::tests::kit::{document_of, m, meets, outseam, pin, trousers};
use crate::work::{Did, Logged, Money};
use proptest::prelude::*;

fn id(n: u128) -> Uuid {
    Uuid::from_u128(n)
}

fn shirt() -> Document {
    let mut document: Document =
        serde_json::from_str(include_str!("../../../../demo/concert-shirt.json")).unwrap();
    document.states[0].garment.toile = true;
    document.try_ons.truncate(1);
    document.try_ons[0].hem_marks.clear();
    document
}

/// The document after everything that it changes was sewn and entered.
fn sewn(document: &Document, as_sewn: &AsSewn, tape: Tape) -> Option<Document> {
    let proposal = history(document, as_sewn, tape, "GBP").ok()?.proposal?;
    let to = id(77);
    let mut after = document.clone();
    let entry = Entry {
        id: id(78),
        date: jiff::civil::date(2026, 11, 1),
        what: Happened::Sewn {
            from: proposal.from,
            to,
            try_on: proposal.try_on,
            changes: proposal.changes.iter().filter(|c| c.is_entered).map(|c| c.key).collect(),
            otherwise: as_sewn.otherwise.clone(),
            measured: as_sewn.measured.clone(),
            cut: proposal.changes.iter().filter(|c| c.is_cut).map(|c| c.key).collect(),
        },
        why: String::new(),
    };
    after.record.push(entry);
    after.states.push(State::first(to, proposal.garment));
    Some(after)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 1000, failure_persistence: None, ..ProptestConfig::default() })]

    /// A state that the record makes measures what the try-on promised, within a mark of the tape; it can be worked on; and nothing inside it
    /// is less than nothing.
    #[test]
    fn what_is_sewn_is_what_was_promised(seed: u64, tape in proptest::sample::select(Tape::ALL)) {
        let document = sensible_document(seed);
        let Ok(solved) = solve(&document, tape) else { return Ok(()) };
        let newest = document.newest().unwrap().id;
        let at = document.try_ons.iter().rposition(|t| t.state == newest).unwrap();
        let promised = &solved.try_ons[at].levels;
        // What is more than there is was refused, and is not sewn.
        if solved.try_ons[at].checks.iter().any(crate::told::Check::stands_in_the_way) {
            return Ok(());
        }
        let Some(after) = sewn(&document, &AsSewn::default(), tape) else { return Ok(()) };
        let now = solve(&Document { try_ons: vec![], ..after.clone() }, tape).map_err(|f| TestCaseError::fail(format!("{f:?}")))?;
        for level in &now.levels {
            let same: Vec<i64> = promised.iter().filter(|p| p.level == level.level).map(|p| p.after.nm).collect();
            let is_special = document.try_ons[at].changes.iter().any(|c| matches!(c, Change::Elastic(_) | Change::Gathers(_)));
            if same.is_empty() || is_special {
                continue;
            }
            let mean = same.iter().sum::<i64>() / same.len() as i64;
            prop_assert!((mean - level.before.nm).abs() <= tape.mark().nm(), "{}: {same:?} {}", level.name, level.before.nm);
        }
        let garment = &after.newest().unwrap().garment;
        for reserve in reserve(garment, tape) {
            for gives in &reserve.gives {
                prop_assert!(gives.inside >= Length::ZERO && gives.each >= Length::ZERO && gives.each <= gives.inside);
            }
        }
        prop_assert_eq!(after.faults(), vec![]);
        is_well_said(&history(&after, &AsSewn::default(), tape, "GBP").unwrap());
        is_well_said(&history(&document, &AsSewn::default(), tape, "GBP").unwrap());
    }

    /// Taken in and let out again by as much, what is inside is what it was, and so are the girths; taken back it is the same in every word.
    #[test]
    fn sewn_and_taken_back_is_as_before(amount in 2_i64..30, station in 20_i64..90) {
        let pins = |how: How| {
            let both = GarmentSide::BOTH.map(|side| {
                let per = if how == How::Gap { 2 } else { 1 };
                let pin = pin(side, &format!("{station} cm"), &format!("{} mm", amount * per));
                crate::fitting::Reading { how, ..pin }
            });
            SeamChange { lower: meets("10 cm"), ..outseam(both.into(), meets("100 cm")) }
        };
        let before = document_of(&trousers(), vec![pins(How::Fold)]);
        let Some(mut taken_in) = sewn(&before, &AsSewn::default(), Tape::Cm) else { return Ok(()) };
        let first = before.states[0].garment.clone();
        prop_assert_eq!(taken_back(&taken_in, id(78)).unwrap(), first.clone());
        let mut again = before.try_ons[0].clone();
        again.state = id(77);
        again.changes = vec![pins(How::Gap).into()];
        taken_in.try_ons.push(again);
        let proposal = history(&taken_in, &AsSewn::default(), Tape::Cm, "GBP").unwrap().proposal.unwrap();
        let close = |a: Length, b: Length| (a - b).abs() <= Length::from_mm(1);
        let [old, new] = [&first, &proposal.garment].map(|g| g.seam(Seam::Outseam).unwrap());
        for cm in (0..110).step_by(3) {
            let at = Length::from_mm(cm * 10);
            for edge in 0..2 {
                prop_assert!(close(old.allowance_at(at, false, Tape::Cm)[edge], new.allowance_at(at, false, Tape::Cm)[edge]), "{cm}");
            }
        }
        for level in &first.levels {
            let now = proposal.garment.level(level.level).unwrap();
            prop_assert!(close(level.width.on(Tape::Cm), now.width.on(Tape::Cm)), "{:?}", level.level);
        }
    }

    /// What is taken out across the trunk and put in again is as it was, to a mark: the seams that run through it, and what lies above it.
    #[test]
    fn a_trunk_is_shortened_and_lengthened_again(front in -15_i64..25, side in -15_i64..25, back in -15_i64..25, tape in proptest::sample::select(Tape::ALL)) {
        let mm = |n: i64| Some(tape.figure(tape.round(Length::from_mm(n))).measure());
        let change = |sign: i64| TrunkChange {
            front: mm(front * sign),
            side: mm(side * sign),
            back: mm(back * sign),
            ..TrunkChange::of(TrunkAt::AboveWaist)
        };
        let mut before = shirt();
        before.try_ons[0].changes = vec![change(1).into()];
        let of = |garment: &crate::garment::Garment| {
            let seams: Vec<Length> = garment.seams.iter().map(|s| s.length.length).collect();
            let levels: Vec<Length> = garment.levels.iter().map(|l| l.station.length).collect();
            (seams, levels)
        };
        let Some(mut after) = sewn(&before, &AsSewn::default(), tape) else { return Ok(()) };
        let (garment, first) = (after.newest().unwrap().garment.clone(), before.newest().unwrap().garment.clone());
        let by = first.seam(Seam::SideSeam).unwrap().length.length - garment.seam(Seam::SideSeam).unwrap().length.length;
        prop_assert!((by - mm(side).unwrap().length).abs() <= tape.mark());
        let bust = |g: &crate::garment::Garment| g.level(Level::Bust).unwrap().station.length;
        prop_assert!((bust(&first) - bust(&garment) - by).abs() <= tape.mark());
        prop_assert_eq!(first.level(Level::Waist), garment.level(Level::Waist));
        let mut again = before.try_ons[0].clone();
        again.state = id(77);
        again.changes = vec![change(-1).into()];
        after.try_ons.push(again);
        let back_again = history(&after, &AsSewn::default(), tape, "GBP").unwrap().proposal.unwrap().garment;
        let ((seams, levels), (was, were)) = (of(&back_again), of(&first));
        for (now, then) in seams.iter().chain(&levels).zip(was.iter().chain(&were)) {
            prop_assert!((*now - *then).abs() <= tape.mark(), "{now:?} {then:?}");
        }
    }

    /// An armhole that is sewn higher and then lower by as much is as it was, with the seams that end in it: to 3 mm, since in between it is
    /// drawn anew from its length. One side alone moves what both share by half.
    #[test]
    fn an_armhole_goes_up_and_down_again(raise in -20_i64..25, widen in -15_i64..25, tape in proptest::sample::select(Tape::ALL)) {
        let mm = |n: i64| Some(tape.figure(tape.round(Length::from_mm(n))).measure());
        let change = |at, sign: i64| ArmholeChange {
            raise: mm(raise * sign),
            widen: mm(widen * sign),
            ..ArmholeChange::of(at)
        };
        let seams = [Seam::ArmholeSeam, Seam::SideSeam, Seam::ShoulderSeam];
        let of = |document: &Document| {
            let garment = &document.newest().unwrap().garment;
            let lengths = seams.map(|seam| garment.seam(seam).unwrap().length.length);
            (lengths, garment.level(Level::UpperArm).unwrap().width.on(tape))
        };
        let mut before = shirt();
        before.try_ons[0].changes = vec![change(ArmholeAt::Both, 1).into()];
        let Some(mut raised) = sewn(&before, &AsSewn::default(), tape) else { return Ok(()) };
        let mut one = before.clone();
        one.try_ons[0].changes = vec![change(ArmholeAt::OnLeft, 1).into()];
        let one = sewn(&one, &AsSewn::default(), tape).unwrap();
        let ((first, arm), (then, wider)) = (of(&before), of(&raised));
        prop_assert!((then[1] - first[1] - mm(raise).unwrap().length).abs() <= tape.mark(), "the side seam ends higher");
        for (both, half) in then.iter().zip(of(&one).0).zip(first).map(|((both, one), first)| (*both - first, one - first)) {
            prop_assert!((both.fraction(1, 2) - half).abs() <= tape.mark(), "{both:?} {half:?}");
        }
        let mut again = before.try_ons[0].clone();
        again.state = id(77);
        again.changes = vec![change(ArmholeAt::Both, -1).into()];
        raised.try_ons.push(again);
        let proposal = history(&raised, &AsSewn::default(), tape, "GBP").unwrap().proposal.unwrap();
        raised.states.push(State::first(id(79), proposal.garment));
        let (last, narrower) = of(&raised);
        for (first, last) in first.iter().zip(last) {
            prop_assert!((*first - last).abs() <= Length::from_mm(3) + tape.mark(), "{first:?} {last:?}");
        }
        prop_assert!((wider - arm - mm(widen).unwrap().length).abs() <= tape.mark());
        prop_assert!((arm - narrower).abs() <= tape.mark());
    }
}

#[test]
fn a_panel_leaves_what_is_inside_and_is_found_again() {
    let gap = |side| Reading { id: None, side, station: m("45 cm"), amount: m("4 cm"), how: How::Gap };
    let change = SeamChange { set_in: true, ..outseam(GarmentSide::BOTH.map(gap).into(), None) };
    let document = document_of(&trousers(), vec![change]);
    let solved = solve(&document, Tape::Cm).unwrap();
    let knee = |levels: &[crate::told::LevelResult]| {
        levels
            .iter()
            .find(|l| l.level == crate::place::Level::Knee)
            .map(|l| (l.before.nm, l.after.nm))
            .unwrap()
    };
    let promised = knee(&solved.try_ons[0].levels).1;
    let after = sewn(&document, &AsSewn::default(), Tape::Cm).unwrap();
    let (before, garment) = (trousers(), &after.newest().unwrap().garment);
    let (old, new) = (before.seam(Seam::Outseam).unwrap(), garment.seam(Seam::Outseam).unwrap());
    assert_eq!((old.allowance, &old.along), (new.allowance, &new.along));
    assert_eq!(new.in_the_way[0].what, "set-in panel");
    assert_eq!(
        knee(&solve(&Document { try_ons: vec![], ..after.clone() }, Tape::Cm).unwrap().levels).0,
        promised
    );
}

#[test]
fn a_second_alteration_uses_what_the_first_left_inside() {
    let both = |amount: &str, how: How| {
        GarmentSide::BOTH.map(|side| crate::fitting::Reading { how, ..pin(side, "60 cm", amount) }).into()
    };
    let change = |amount: &str, how| SeamChange {
        lower: meets("20 cm"),
        ..outseam(both(amount, how), meets("100 cm"))
    };
    let mut loose = trousers();
    loose.seams.iter_mut().for_each(|facts| facts.allowance = m("1.5 cm"));
    let before = document_of(&loose, vec![change("2 cm", How::Fold)]);
    let after = sewn(&before, &AsSewn::default(), Tape::Cm).unwrap();
    let facts = after.newest().unwrap().garment.seam(Seam::Outseam).unwrap().clone();
    let inside = |facts: &crate::garment::SeamFacts, cm: i64| {
        facts.allowance_at(Length::from_mm(cm * 10), false, Tape::Cm)[0]
    };
    assert_eq!((inside(&facts, 60), inside(&facts, 105)), (Length::from_mm(35), Length::from_mm(15)));
    // 3.5 inside less what must stay: letting out 2.0 works where the untouched seam would give half a centimetre.
    let again = |document: &Document| {
        let mut document = document.clone();
        let mut try_on = document.try_ons[0].clone();
        try_on.state = document.newest().unwrap().id;
        try_on.changes = vec![change("4 cm", How::Gap).into()];
        document.try_ons.push(try_on);
        let solved = solve(&document, Tape::Cm).unwrap();
        let check = solved.try_ons.last().unwrap().check("Letting out the outseam").clone();
        check.outcome
    };
    assert_eq!(again(&after), crate::judge::Outcome::Passes);
    assert_eq!(again(&before), crate::judge::Outcome::Stop);
}

#[test]
fn what_was_measured_replaces_what_was_derived_and_what_was_cut_stays_cut() {
    let pins = GarmentSide::BOTH.map(|side| pin(side, "60 cm", "2 cm"));
    let trimmed = SeamChange {
        trim_to: Some(m("1 cm")),
        lower: meets("20 cm"),
        ..outseam(pins.into(), meets("100 cm"))
    };
    let document = document_of(&trousers(), vec![trimmed]);
    let knee = document.states[0].garment.levels.iter().find(|l| l.level == Level::Knee).copied();
    let Some(knee) = knee else { panic!("trousers have a knee") };
    let measured = GarmentLevel { width: crate::garment::Width::Girth(m("41 cm")), ..knee };
    let as_sewn = AsSewn { measured: vec![measured], ..AsSewn::default() };
    let mut after = sewn(&document, &as_sewn, Tape::Cm).unwrap();
    let garment = &after.newest().unwrap().garment;
    assert_eq!(garment.level(Level::Knee).unwrap().width, measured.width);
    assert_eq!(
        garment.seam(Seam::Outseam).unwrap().allowance_at(Length::from_mm(600), false, Tape::Cm),
        [Length::from_mm(10); 2]
    );
    assert_eq!(taken_back(&after, id(78)).unwrap_err()[0].wrong, Wrong::CutAway);
    after.record.push(Entry {
        id: id(80),
        date: jiff::civil::date(2026, 12, 1),
        what: Happened::Worn { times: 3 },
        why: String::new(),
    });
    after.record.push(Entry {
        id: id(81),
        date: jiff::civil::date(2026, 12, 1),
        what: Happened::Spent { on: "a zip".into(), money: Money(450) },
        why: String::new(),
    });
    let told = history(&after, &AsSewn::default(), Tape::Cm, "GBP").unwrap();
    let says: Vec<&str> = told.entries.iter().map(|entry| &entry.says[..]).collect();
    assert_eq!(says[..2], ["Spent 4.50 GBP on a zip.", "Worn 3 times."]);
    assert!(says[2].contains("measured afterwards; cut: outseam") && told.entries[2].why_not.is_some());
    assert_eq!(told.states[0].name, "after 1 November 2026");
}

#[test]
fn only_what_was_sewn_is_entered_and_otherwise_where_it_was_otherwise() {
    let pins = GarmentSide::BOTH.map(|side| pin(side, "60 cm", "2 cm"));
    let seam = |seam| SeamChange {
        seam,
        readings: pins.to_vec(),
        lower: meets("20 cm"),
        upper: meets("75 cm"),
        ..SeamChange::of(seam)
    };
    let mut document = document_of(&trousers(), vec![seam(Seam::Outseam), seam(Seam::Inseam)]);
    let done = |n: u128, task: &str| Logged {
        id: id(n),
        state: Uuid::nil(),
        at: "2026-10-20T09:00:00Z".parse().unwrap(),
        task: task.parse().unwrap(),
        did: Did::Done,
        minutes: None,
        note: String::new(),
        used: vec![],
    };
    document.log = vec![done(1, "stitch.seam.outseam")];
    let proposal = history(&document, &AsSewn::default(), Tape::Cm, "GBP").unwrap().proposal.unwrap();
    let entered: Vec<ChangeKey> = proposal.changes.iter().filter(|c| c.is_entered).map(|c| c.key).collect();
    let has_more = proposal.changes.iter().any(|c| c.key == ChangeKey::Seam(Seam::Outseam) && !c.is_sewn);
    assert!(entered == [ChangeKey::Seam(Seam::Outseam)] || has_more, "{:?}", proposal.changes);
    let only = AsSewn { changes: Some(vec![ChangeKey::Seam(Seam::Outseam)]), ..AsSewn::default() };
    let plain = history(&document, &only, Tape::Cm, "GBP").unwrap().proposal.unwrap();
    let inside = |proposal: &Proposal, seam| {
        proposal.garment.seam(seam).unwrap().allowance_at(Length::from_mm(600), false, Tape::Cm)[0]
    };
    assert!(inside(&plain, Seam::Outseam) > inside(&plain, Seam::Inseam));
    let more = Correction {
        change: ChangeKey::Seam(Seam::Outseam),
        side: None,
        station: m("60 cm"),
        per_edge: m("-0.5 cm"),
    };
    let otherwise = AsSewn { otherwise: vec![more], ..only };
    let other = history(&document, &otherwise, Tape::Cm, "GBP").unwrap().proposal.unwrap();
    assert_eq!(inside(&plain, Seam::Outseam) - inside(&other, Seam::Outseam), Length::from_mm(5));
}

#[test]
fn what_three_garments_needed_is_where_the_next_begins() {
    let of = |amount: &str| {
        let pins = GarmentSide::BOTH.map(|side| pin(side, "60 cm", amount));
        document_of(
            &trousers(),
            vec![SeamChange { lower: meets("20 cm"), ..outseam(pins.into(), meets("100 cm")) }],
        )
    };
    let all = [of("1 cm"), of("1.4 cm"), of("2.2 cm")];
    let two: Vec<&Document> = all.iter().take(2).collect();
    assert!(standing_adjustments(&two, Tape::Cm).is_empty());
    let three: Vec<&Document> = all.iter().collect();
    let offered = standing_adjustments(&three, Tape::Cm);
    let thigh = offered.iter().find(|line| line.change == ChangeKey::Seam(Seam::Outseam)).unwrap();
    assert!(!thigh.lets_out && thigh.says.starts_with("3 garments"), "{}", thigh.says);
}
