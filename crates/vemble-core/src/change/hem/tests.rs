//! Hems on small garments: worked examples from marks to card, and what must hold for every hem.

use super::{
    Cutting, FromBody, HemChange, HemLandmark, HemShape, Lengths, LiningWanted, ShortenedAt, Slit, SlitAt,
};
use crate::body::BodyMeasurement;
use crate::card::Block;
use crate::change::{Change, ChangeKey, Input};
use crate::fitting::{Around, GarmentSide, HemHow, HemMark, SidePolicy};
use crate::garment::{
    Closure, ClosureFacts, HemEdge, HemFacts, HemTurn, Kind, Lined, Opening, SpecialEdge, StitchedBy, Washed,
};
use crate::judge::tests::kinds::round;
use crate::judge::{Outcome, Rule};
use crate::length::{Length, Measure, Tape, Unit};
use crate::place::Level;
use crate::solve::{SolvedTryOn, solve};
use crate::tests::kit::{Fitted, m, pin, taken, trousers, try_on, trying};
use crate::try_on::TryOn;
use proptest::prelude::*;
use uuid::Uuid;

const LEFT: Option<GarmentSide> = Some(GarmentSide::Left);
const RIGHT: Option<GarmentSide> = Some(GarmentSide::Right);

fn facts(edge: HemEdge, turn: HemTurn, turn_up: &str, visible: &str) -> HemFacts {
    HemFacts {
        edge,
        turn,
        turn_up: m(turn_up),
        visible: Some(m(visible)),
        vent: None,
        by: StitchedBy::Machine,
        assumed: false,
    }
}

/// A skirt 60 cm long with a hem of 4 cm, of which 3 show; 100 cm round at every level.
fn skirt() -> Fitted {
    let mut skirt = round(Kind::Skirt);
    skirt.hems = vec![facts(HemEdge::Body, HemTurn::Deep, "4 cm", "3 cm")];
    skirt.found.washed = Some(Washed::Often);
    skirt
}

fn hem(off: &str) -> HemChange {
    HemChange {
        off: Some(m(off)),
        turns: vec![m("1 cm"), m("2.5 cm")],
        turn: Some(HemTurn::Deep),
        ..HemChange::of(HemEdge::Body)
    }
}

fn mark(
    n: u128,
    edge: HemEdge,
    side: Option<GarmentSide>,
    around: Around,
    how: HemHow,
    amount: &str,
) -> HemMark {
    HemMark { id: Uuid::from_u128(n), edge, side, around, how, amount: m(amount), again: None }
}

fn marked(marks: Vec<HemMark>, changes: Vec<HemChange>) -> TryOn {
    TryOn { hem_marks: marks, ..trying(changes) }
}

fn solved(garment: &Fitted, try_on: TryOn) -> SolvedTryOn {
    garment.solved(try_on, Tape::Cm)
}

/// The one card, its rows, what it says under them, and its steps.
fn card(result: &SolvedTryOn) -> (Vec<Vec<&str>>, String, String) {
    let card = &result.cards[0];
    (card.figures(), card.sentences().join("\n"), card.steps().join("\n"))
}

#[test]
fn worked_example_e_from_the_length_to_the_card() {
    let skirt = skirt();
    let result = solved(&skirt, trying(vec![hem("6.5 cm")]));
    let (rows, said, steps) = card(&result);
    assert_eq!(rows, [["all round", "6.5", "3.0"]], "up from the present fold");
    assert!(said.contains("4.0 turned up + 6.5 off − 3.5 for the new hem = 7.0 cm cut off"), "{said}");
    assert!(said.contains("up from the present fold") && !steps.contains("Unpick the old hem"), "{steps}");
    assert!(result.check("Cloth for the hem").reason.contains("The old hem falls away"));

    let inches = skirt.solved(trying(vec![hem("6.5 cm")]), Tape::In);
    assert!(card(&inches).1.contains("Figures in inches, up from the present fold"));

    let result = solved(&skirt, trying(vec![hem("2 cm")]));
    let (rows, said, steps) = card(&result);
    assert_eq!(rows, [["all round", "6.0", "2.5"]], "up from the raw edge");
    assert!(said.contains("4.0 turned up + 2.0 off − 3.5 for the new hem = 2.5 cm cut off"), "{said}");
    let order: Vec<usize> =
        ["Unpick the old hem", "Mark the fold", "baste", "Try it on", "Cut 3.5 cm below the fold", "stitch"]
            .iter()
            .map(|step| steps.find(step).unwrap_or_else(|| panic!("{step}: {steps}")))
            .collect();
    assert!(order.is_sorted(), "nothing is cut before a try-on: {steps}");

    let let_down = HemChange { off: Some(m("-2.5 cm")), ..hem("0 cm") };
    let result = solved(&skirt, trying(vec![let_down.clone()]));
    let check = result.check("Cloth for the hem");
    assert_eq!(check.outcome, Outcome::Stop);
    assert!(
        check.figures.ends_with("2.0 cm short") && check.reason.starts_with("1.5 cm are left"),
        "{check:?}"
    );
    assert!(!check.mend.is_empty(), "a narrower turn is offered");
    let single = HemChange { turns: vec![m("1.5 cm")], ..let_down };
    let result = solved(&skirt, trying(vec![single]));
    assert_eq!(result.check("Cloth for the hem").outcome, Outcome::Passes, "a single 1.5 turn just fits");
    assert_eq!(card(&result).0, [["all round", "1.5", "0.0"]]);
    assert_eq!(result.check("Old crease").outcome, Outcome::Caution, "often washed: the fold shows");
}

#[test]
fn worked_example_f_keeps_the_worn_edge() {
    let mut jeans = trousers();
    jeans.hems = vec![facts(HemEdge::Leg, HemTurn::Double, "3 cm", "1.5 cm")];
    jeans.found.edge = Some(SpecialEdge::Worn);
    let off = HemChange { off: Some(m("7 cm")), ..HemChange::of(HemEdge::Leg) };
    let result = solved(&jeans, trying(vec![off]));
    let (rows, said, steps) = card(&result);
    assert_eq!(rows, [["all round", "5.0", "8.5"]]);
    assert!(said.contains("up from the edge that stays"), "{said}");
    assert!(steps.contains("Mark two lines, 1.5 cm and 8.5 cm above the edge that stays"), "{steps}");
    assert!(steps.find("Try it on").unwrap() < steps.find("Trim the tuck").unwrap(), "{steps}");
    assert_eq!(result.check("Tuck behind").outcome, Outcome::Passes);
    // A leg that widens fast is wider where the tuck is stitched than the band that stays.
    jeans.levels[1].width = crate::garment::Width::Girth(m("60 cm"));
    let off = HemChange { off: Some(m("7 cm")), ..HemChange::of(HemEdge::Leg) };
    let result = solved(&jeans, trying(vec![off]));
    assert_eq!(result.check("Tuck behind").outcome, Outcome::Caution);
    // It can only be taken up.
    let down = HemChange { off: Some(m("-1 cm")), turn: Some(HemTurn::Kept), ..HemChange::of(HemEdge::Leg) };
    let check = solved(&jeans, trying(vec![down])).check("Cloth for the leg hems").clone();
    assert!(check.outcome == Outcome::Stop && !check.mend.is_empty(), "{check:?}");
    // Followed around, every place has its own fold and line; halves of an odd figure fall on marks and still make it up.
    let leg = |n, around, amount: &str| mark(n, HemEdge::Leg, LEFT, around, HemHow::TurnUp, amount);
    let marks = vec![leg(1, Around::Front, "7.1 cm"), leg(2, Around::Back, "4 cm")];
    let follows = HemChange { shape: Some(HemShape::FollowMarks), ..HemChange::of(HemEdge::Leg) };
    let result = solved(&jeans, marked(marks, vec![follows]));
    assert_eq!(card(&result).0, [["front", "5.1", "8.6"], ["back", "3.5", "5.5"]]);
    let odd = HemChange { off: Some(m("7.1 cm")), ..HemChange::of(HemEdge::Leg) };
    let result = solved(&jeans, trying(vec![odd]));
    assert!(result.check("Tuck behind").figures.starts_with("tuck 3.6 cm deep"), "5.1 − 1.5");
    // Little is folded, nothing trimmed.
    let off = HemChange { off: Some(m("2 cm")), ..HemChange::of(HemEdge::Leg) };
    assert!(!card(&solved(&jeans, trying(vec![off]))).2.contains("Trim the tuck"));
}

#[test]
fn marks_make_a_level_edge_or_ask() {
    let skirt = skirt();
    let mark =
        |n, side, around, amount: &str| self::mark(n, HemEdge::Body, side, around, HemHow::TurnUp, amount);
    let level = vec![
        mark(1, None, Around::Front, "2.2 cm"),
        mark(2, LEFT, Around::Side, "2.0 cm"),
        mark(3, RIGHT, Around::Side, "1.6 cm"),
        mark(4, None, Around::Back, "1.4 cm"),
    ];
    let result = solved(&skirt, marked(level.clone(), vec![]));
    // Sides 1.8, so (2.2 + 1.8 + 1.8 + 1.4) ÷ 4.
    assert_eq!(card(&result).0[0][0], "all round");
    assert_eq!(result.check("Left and right of the hem").figures, "0.4 cm apart at most");
    assert!(result.check("Cloth").figures.contains("+ 1.8 off"), "{}", result.check("Cloth").figures);

    let mut sloping = level.clone();
    sloping[3].amount = m("5 cm");
    let result = solved(&skirt, marked(sloping.clone(), vec![]));
    assert_eq!(result.check("Level of the hem").outcome, Outcome::Stop);
    let places: Vec<String> = card(&result).0.iter().map(|row| row[0].to_owned()).collect();
    assert_eq!(places, ["front", "side, left", "back", "side, right"]);
    // Sides 1.8, front 2.2 and back 5.0: of 4.0 and those, less what is turned up again.
    let cloth = &result.check("Cloth for the hem").figures;
    assert!(cloth.starts_with("where least comes off 4.0 turned up + 1.8 off"), "{cloth}");
    assert!(cloth.contains("; where most 4.0 turned up + 5.0 off"), "{cloth}");
    let follows = HemChange { shape: Some(HemShape::FollowMarks), ..HemChange::of(HemEdge::Body) };
    let result = solved(&skirt, marked(sloping.clone(), vec![follows]));
    assert_eq!(result.check("Level of the hem").outcome, Outcome::Passes);
    sloping[3].amount = m("10.5 cm");
    let follows = HemChange { shape: Some(HemShape::FollowMarks), ..HemChange::of(HemEdge::Body) };
    let result = solved(&skirt, marked(sloping, vec![follows]));
    let far = result.check("Level of the hem");
    assert!(far.outcome == Outcome::Caution && far.reason.contains("misreading"), "{far:?}");

    // The upright reading counts, and what bending made of it is said.
    let mut again = vec![mark(1, None, Around::Front, "3 cm")];
    again[0].again = Some(m("2 cm"));
    let result = solved(&skirt, marked(again, vec![]));
    assert!(result.check("Cloth").figures.contains("+ 2.0 off"));
    assert_eq!(result.check("Readings of the hem").figures, "3.0 at first, 2.0 cm standing upright");
}

#[test]
fn marks_from_the_floor_want_a_height() {
    let skirt = skirt();
    let floor = |n, around, amount: &str| mark(n, HemEdge::Body, None, around, HemHow::FromFloor, amount);
    let marks = vec![floor(1, Around::Front, "31 cm"), floor(2, Around::Back, "30.4 cm")];
    let result = solved(&skirt, marked(marks.clone(), vec![]));
    assert_eq!(result.check("Marks of the hem").outcome, Outcome::Stop);
    assert!(result.cards.is_empty(), "nothing is chalked of what is not known");
    let wanted = HemChange { clearance: Some(m("33 cm")), ..HemChange::of(HemEdge::Body) };
    let result = solved(&skirt, marked(marks, vec![wanted]));
    // A short skirt hangs higher above the floor than it is long; what is read above the waist is a slip.
    let high = |clearance: &str| {
        let change = HemChange { clearance: Some(m(clearance)), ..HemChange::of(HemEdge::Body) };
        let document = skirt.document(vec![marked(vec![floor(1, Around::Front, "58 cm")], vec![change])]);
        solve(&document, Tape::Cm).map_err(|faults| faults[0].path.clone())
    };
    assert!(high("70 cm").is_ok());
    assert_eq!(high("170 cm").unwrap_err(), "try_ons[0].changes[0].hem.clearance");
    // 33 − 31 = 2.0 and 33 − 30.4 = 2.6: the mean.
    assert!(result.check("Cloth").figures.contains("+ 2.3 off"), "{}", result.check("Cloth").figures);
}

#[test]
fn a_length_from_the_body_needs_no_marks() {
    let skirt = skirt();
    let waist = skirt.level(Level::Waist).unwrap().station.length.cm();
    let up = crate::body::Proportions::of(&skirt.wearer);
    let knee = FromBody { landmark: HemLandmark::Knee, above: m("-3 cm"), heel: None };
    let change = HemChange { from_body: Some(knee), ..HemChange::of(HemEdge::Body) };
    let result = solved(&skirt, trying(vec![change.clone()]));
    let hangs_at = up.up_at(Level::Waist).unwrap() - waist;
    let wanted = up.up_at(Level::Knee).unwrap() - 3.0 - hangs_at;
    let shown = match &result.changes[0].shows {
        crate::shown::Shows::Hem(shown) => shown.clone(),
        other => panic!("{other:?}"),
    };
    assert_eq!(shown.from, "from the body, as it is drawn here");
    let said = Tape::Cm.show(Length::from_cm(wanted.abs()));
    assert!(shown.edges[0].off.ends_with(&said), "{} {said}", shown.edges[0].off);
    // Heels raise body and hem alike; the floor stays where it is.
    let on = |landmark, heel: Option<&str>| {
        let from_body = Some(FromBody { landmark, above: m("2 cm"), heel: heel.map(m) });
        let result = solved(&skirt, trying(vec![HemChange { from_body, ..change.clone() }]));
        result.check("Cloth").figures.clone()
    };
    assert_eq!(on(HemLandmark::Knee, Some("7 cm")), on(HemLandmark::Knee, None));
    assert_ne!(on(HemLandmark::Floor, Some("7 cm")), on(HemLandmark::Floor, None));
}

#[test]
fn legs_are_compared_and_the_opening_is_read_off_the_new_edge() {
    let mut trousers = trousers();
    trousers.hems = vec![facts(HemEdge::Leg, HemTurn::Double, "4 cm", "2 cm")];
    let leg = |n, side, amount: &str| mark(n, HemEdge::Leg, side, Around::Front, HemHow::TurnUp, amount);
    // 48 at the hem, 52 at the knee 45 up: 48.8 where it is 9 shorter.
    let result = solved(&trousers, marked(vec![leg(1, LEFT, "9 cm")], vec![]));
    let level = result.levels.iter().find(|l| l.level == Level::Hem).unwrap();
    assert_eq!(level.after.text(), "48.8 cm");
    assert_eq!(level.sum, "48.0 cm as measured round; the new edge lies 9.0 cm higher, 48.8 cm round there");
    assert_eq!(result.check("Foot through the hem").outcome, Outcome::Passes);
    assert!(result.cards[0].title.ends_with("both legs the same"));

    let apart = vec![leg(1, LEFT, "9 cm"), leg(2, RIGHT, "10 cm")];
    let result = solved(&trousers, marked(apart.clone(), vec![]));
    assert_eq!(result.check("Left and right of the leg hems").outcome, Outcome::Stop);
    let keep = HemChange { sides: Some(SidePolicy::KeepEach), ..HemChange::of(HemEdge::Leg) };
    let result = solved(&trousers, marked(apart, vec![keep]));
    let girths: Vec<String> = result
        .levels
        .iter()
        .filter(|l| l.level == Level::Hem)
        .map(|l| format!("{} {}", l.name, l.after.text()))
        .collect();
    assert_eq!(girths, ["hem, left leg 48.8 cm", "hem, right leg 48.9 cm"]);
    assert!(result.cards[0].title.ends_with("each its own"));
    // A taper of the side seam goes on to the new edge: both are counted there.
    let taper = crate::change::seam::SeamChange {
        readings: vec![pin(GarmentSide::Left, "0 cm", "2 cm"), pin(GarmentSide::Left, "40 cm", "2 cm")],
        ..crate::change::seam::SeamChange::of(crate::garment::Seam::Outseam)
    };
    let changes = vec![
        Change::Seam(taper),
        Change::Hem(HemChange { off: Some(m("9 cm")), ..HemChange::of(HemEdge::Leg) }),
    ];
    let result = solved(&trousers, trying(changes));
    let level = result.levels.iter().find(|l| l.level == Level::Hem).unwrap();
    let crossed = result.check("The outseam and the leg hems");
    assert_eq!(crossed.figures, "the outseam moves by up to 2.0 cm per edge at this edge");
    let says =
        |block: &Block| matches!(block, Block::Text(text) if text.starts_with("Sew the outseam first"));
    assert!(result.cards[1].blocks.iter().any(says));
    assert!(
        level.sum.ends_with("48.8 cm round there; 48.8 − 4.0 (outseam: 2 edges × 2.0) = 44.8 cm"),
        "{}",
        level.sum
    );
}

#[test]
fn what_lies_at_an_edge_is_named() {
    let mut coat = round(Kind::LinedCoat);
    coat.hems = vec![facts(HemEdge::Sleeve, HemTurn::SingleFinished, "4 cm", "4 cm")];
    coat.closures = vec![ClosureFacts { closure: Closure::Buttons, at: Opening::Cuff, count: 3 }];
    coat.found.lined = Some(Lined::Fully);
    coat.sleeve_length = Some(m("62 cm"));
    let sleeve = |off: &str| HemChange { off: Some(m(off)), ..HemChange::of(HemEdge::Sleeve) };
    let result = solved(&coat, trying(vec![sleeve("3 cm")]));
    assert!(result.check("What closes at the sleeve hems").remedy.as_ref().unwrap().contains("up by 3.0 cm"));
    let lining = result.check("Lining and sleeve hems");
    assert_eq!(
        lining.figures,
        "its fold 1.3 cm above the outer’s, 1.0 cm of slack along it, 2.0 cm for its own turns; cut it 62.0 − 3.0 − 1.3 + 2.0 + 1.0 = 60.7 cm long from the shoulder tip"
    );
    let steps = card(&result).2;
    assert!(
        steps.starts_with("Open the lining")
            && steps.contains("Let the outer hang, finished, and the lining inside it"),
        "{steps}"
    );

    let mut border = skirt();
    border.found.edge = Some(SpecialEdge::Border);
    border.found.washed = None;
    border.cloth.shrinks_along_percent = 3;
    let result = solved(&border, trying(vec![hem("5 cm")]));
    let edge = result.check("Edge of the hem");
    assert!(edge.outcome == Outcome::Stop && edge.remedy.as_ref().unwrap().contains("at the waist seam"));
    let shrinks = result.check("Shrinkage");
    // 52.5 − 5 are wanted: 47.5 ÷ 0.97 = 49.0 before it is washed.
    assert_eq!(shrinks.figures, "3 % of 49.0 cm = 1.5 cm");
    let longer = solved(&border, trying(shrinks.mend.clone()));
    assert_eq!(longer.check("Shrinkage").outcome, Outcome::Passes);
    assert!(longer.check("Edge of the hem").figures.starts_with("3.5 cm off at the waist"), "5 less 1.5");
    let marks = vec![mark(1, HemEdge::Body, None, Around::Front, HemHow::TurnUp, "70 cm")];
    let gone = solved(&skirt(), marked(marks, vec![]));
    assert_eq!(gone.check("Cloth for the hem").outcome, Outcome::Stop, "more than there is");
    let of_leg = FromBody { landmark: HemLandmark::Knee, above: m("1 cm"), heel: None };
    let sleeve = HemChange { from_body: Some(of_leg), ..sleeve("1 cm") };
    assert!(solve(&coat.document(vec![trying(vec![sleeve])]), Tape::Cm).is_err(), "a sleeve has no knee");
    let longer = border.document(vec![trying(vec![HemChange { off: Some(m("300 cm")), ..hem("1 cm") }])]);
    assert_eq!(solve(&longer, Tape::Cm).unwrap_err()[0].path, "try_ons[0].changes[0].hem.off");
}

#[test]
fn a_flared_edge_is_full_and_a_tapered_one_short() {
    let mut skirt = skirt();
    let hem_at = skirt.levels.iter().position(|l| l.level == Level::Hem).unwrap();
    skirt.levels[hem_at].width = crate::garment::Width::Girth(m("180 cm"));
    let deep = HemChange { turns: vec![], turn: Some(HemTurn::SingleFinished), ..hem("2 cm") };
    let full = solved(&skirt, trying(vec![deep.clone()]));
    let check = full.check("Fullness of the hem");
    assert_eq!(check.outcome, Outcome::Caution);
    assert!(check.figures.contains("too long") && !check.mend.is_empty(), "{check:?}");
    // What is recommended follows from that, with its reason.
    let asked = HemChange { turn: None, turns: vec![], ..hem("2 cm") };
    let crate::shown::Shows::Hem(shown) = &solved(&skirt, trying(vec![asked])).changes[0].shows.clone()
    else {
        panic!()
    };
    assert_eq!(shown.turn, HemTurn::Faced);
    assert!(shown.because.contains("shaped facing"));
    skirt.levels[hem_at].width = crate::garment::Width::Girth(m("90 cm"));
    let narrow = solved(&skirt, trying(vec![deep]));
    let check = narrow.check("Fullness of the hem");
    assert!(check.outcome == Outcome::Passes && check.reason.contains("mirror the shape"), "{check:?}");
}

#[test]
fn cutting_follows_the_school_and_a_hem_is_named_for_what_it_is() {
    let skirt = skirt();
    let mut raw = skirt.clone();
    raw.hems[0] = facts(HemEdge::Body, HemTurn::Double, "0 cm", "0 cm");
    let result = solved(&raw, trying(vec![hem("2 cm")]));
    assert!(
        !format!("{:?}", result.cards[0]).to_lowercase().contains("unpick"),
        "nothing is turned up there"
    );
    let steps = |cutting| {
        let result = solved(&skirt, trying(vec![HemChange { cutting, ..hem("2 cm") }]));
        card(&result).2
    };
    let at = |steps: &str, what: &str| steps.find(what);
    let first = steps(Cutting::First);
    assert!(at(&first, "try it on") < at(&first, "Cut 3.5"));
    assert!(at(&first, "Cut 3.5") < at(&first, "Press the fold"));
    let trims = steps(Cutting::StitchThenTrim);
    assert!(at(&trims, "Cut 3.5").is_none() && at(&trims, "Trim what is left").is_some());
    assert!(at(&steps(Cutting::Never), "Cut").is_none());
    // What is not cut has no figure to cut at, and its sum says where the cloth stays; an edge that is bound ends at its mark.
    for (cutting, said) in
        [(Cutting::Never, "2.5 cm more stay inside"), (Cutting::StitchThenTrim, "2.5 cm trimmed")]
    {
        let result = solved(&skirt, trying(vec![HemChange { cutting, ..hem("2 cm") }]));
        let (rows, sentences, _) = card(&result);
        assert_eq!(rows, [["all round", "6.0", "–"]]);
        assert!(sentences.contains(said) && result.check("Cloth").figures.contains(said), "{sentences}");
        let bound = HemChange { cutting, turn: Some(HemTurn::Bound), turns: vec![], ..hem("2 cm") };
        let result = solved(&skirt, trying(vec![bound]));
        let (rows, _, steps) = card(&result);
        assert_eq!(rows, [["all round", "6.0", "6.0"]]);
        assert!(
            at(&steps, "Try it on") < at(&steps, "Cut along the mark")
                && at(&steps, "Press the fold").is_none()
        );
    }
    assert!(!ChangeKey::Hem(HemEdge::Leg).fits(&skirt) && ChangeKey::Hem(HemEdge::Body).fits(&skirt));
    let elsewhere = mark(1, HemEdge::Leg, LEFT, Around::Side, HemHow::TurnUp, "2 cm");
    assert!(
        solved(&skirt, marked(vec![elsewhere], vec![])).changes.is_empty(),
        "a skirt has no legs to be marked"
    );
    let many = HemChange { turns: vec![m("1 cm"); 4], ..hem("1 cm") };
    assert!(solve(&skirt.document(vec![trying(vec![many])]), Tape::Cm).is_err());
    let mut wearer = trousers();
    wearer.wearer.measurements.push(taken(BodyMeasurement::OutsideLeg, "104 cm"));
    assert!(ChangeKey::Hem(HemEdge::Leg).fits(&wearer) && !ChangeKey::Hem(HemEdge::Sleeve).fits(&wearer));
    assert_eq!(try_on().hem_marks, []);
}

proptest! {
    /// Marks that are drawn level are judged level, and those that are followed are asked about, on every tape.
    #[test]
    fn what_is_drawn_level_is_judged_level(front in 0_i64..400, apart in 0_i64..30, tape in prop::sample::select(Tape::ALL)) {
        let at = |n, around, tenths| HemMark {
            amount: Measure { length: Length::from_nm(tenths * 1_000_000), unit: Unit::Mm },
            ..mark(n, HemEdge::Body, None, around, HemHow::TurnUp, "0 cm")
        };
        let marks = vec![at(1, Around::Front, front), at(2, Around::Back, front + apart)];
        let result = skirt().solved(marked(marks, vec![]), tape);
        let is_level = result.cards[0].figures()[0][0] == "all round";
        let is_asked = result.checks.iter().any(|c| c.key.rule == Rule::Level && c.outcome == Outcome::Stop);
        let differ = result.cards[0].figures().iter().any(|row| row[1] != result.cards[0].figures()[0][1]);
        prop_assert_eq!(is_asked, apart > 10);
        prop_assert!(!is_level || !differ);
    }

    /// Levels may stand at one height, below and above: something is read off there, or nothing.
    #[test]
    fn levels_at_one_height_break_nothing(stations in prop::collection::vec(0_i64..4, 4), up in -60_i64..80) {
        let mut skirt = skirt();
        for (level, station) in skirt.levels.iter_mut().zip(stations) {
            level.station = Measure { length: Length::from_mm(200 * station), unit: Unit::Cm };
        }
        let girth = skirt.girth_above(Level::Hem, Length::from_mm(10 * up));
        prop_assert!(girth.is_none_or(|girth| girth == Length::from_mm(1000)));
    }

    /// Whatever is found and wanted, on every tape: between fold and cut lies the new allowance, all the cloth there was is cut off or turned
    /// up, level stays level, and the same on both sides stays so.
    #[test]
    fn cloth_and_figures_balance_on_every_card(
        turn_up in 0_i64..90,
        off in -60_i64..200,
        turns in prop::collection::vec(3_i64..45, 1..3),
        tape in prop::sample::select(Tape::ALL),
    ) {
        let mut skirt = skirt();
        skirt.hems[0].turn_up = Measure { length: Length::from_mm(turn_up), unit: Unit::Mm };
        skirt.hems[0].visible = None;
        let mm = |mm| Measure { length: Length::from_mm(mm), unit: Unit::Mm };
        let change = HemChange { off: Some(mm(off)), turns: turns.into_iter().map(mm).collect(), ..hem("0 cm") };
        let document = skirt.document(vec![trying(vec![change.clone()])]);
        let drawn = crate::change::draw(
            crate::change::On { garment: &skirt, wearer: &skirt.wearer, hem_marks: &[], keeps_all: false },
            &document.try_ons[0].changes,
        ).unwrap();
        let subject = crate::judge::Subject { changes: &drawn, ..crate::judge::Subject::as_it_is(&skirt, &skirt.wearer, tape) };
        let hem = subject.hems().next().unwrap();
        let sums = hem.sums(&subject).remove(0);
        prop_assert!(sums.is_level());
        let [fold, cut] = super::card::fold_and_cut(&sums, sums.off[0], tape);
        prop_assert_eq!(fold - cut, sums.allowance);
        let solved = skirt.solved(document.try_ons[0].clone(), tape);
        let check = solved.check("Cloth for the hem");
        match sums.short() {
            Some((by, deepest)) => {
                prop_assert_eq!(check.outcome, Outcome::Stop);
                prop_assert_eq!(deepest.max(sums.turn_up + sums.off[0]) + by, sums.allowance.max(deepest + by));
            }
            None => {
                prop_assert_eq!(check.outcome, Outcome::Passes);
                // From the raw edge, whatever the card measures from.
                let from = if sums.is_cut_above() { sums.turn_up } else { Length::ZERO };
                prop_assert!(cut + from >= Length::ZERO, "never below the raw edge");
                prop_assert_eq!(cut + from + sums.allowance, sums.turn_up + sums.off[0]);
            }
        }
        // Everything is on marks of the tape.
        for length in [fold, cut, sums.allowance, sums.turn_up] {
            prop_assert_eq!(length, tape.round(length));
        }
        prop_assert!(solved.checks.iter().filter(|c| c.key.rule == Rule::Capacity).count() == 1);
    }
}

#[test]
fn an_edge_that_cannot_be_cut_is_shortened_at_the_waist() {
    let mut border = skirt();
    border.found.edge = Some(SpecialEdge::Border);
    // 100 at the waist, 160 at the hem 60 below: 1 wider for each cm down.
    border.levels.retain(|l| matches!(l.level, Level::Waist | Level::Hem));
    border.levels.iter_mut().find(|l| l.level == Level::Hem).unwrap().width =
        crate::garment::Width::Girth(m("160 cm"));
    border.levels.iter_mut().find(|l| l.level == Level::Waist).unwrap().station = m("60 cm");
    border.closures = vec![ClosureFacts { closure: Closure::Zip, at: Opening::CentreBack, count: 0 }];
    let result = solved(&border, trying(vec![hem("6 cm")]));
    let edge = result.check("Edge of the hem");
    assert_eq!(edge.figures, "6.0 cm off at the waist instead: it is 6.0 cm wider there than the waist");
    let waist = solved(&border, trying(edge.mend.clone()));
    let length = waist.check("Length of the hem, at the waist seam");
    assert_eq!(length.figures, "take off 6.0 cm: 6.0 cm wider there than the waist");
    assert_eq!(length.reason, "The edge stays; the lining apart, the zip moves.");
    let at = |level: Level| waist.levels.iter().find(|l| l.level == level).unwrap();
    assert_eq!(
        (at(Level::Waist).after.text(), at(Level::Hem).after.text()),
        ("106.0 cm".into(), "160.0 cm".into())
    );
    assert!(at(Level::Waist).sum.ends_with("the new waist seam lies 6.0 cm lower, 106.0 cm round there"));
    let (rows, _, steps) = card(&waist);
    assert_eq!(
        (waist.cards[0].title.as_str(), &rows[..]),
        ("Hem, at the waist seam", &[vec!["all round", "6.0"]][..])
    );
    assert!(steps.find("try it on") < steps.find("Trim"), "{steps}");
    // Kept whole, its edge is folded away in a tuck as far above it as is wanted.
    let tuck = HemChange { turn: Some(HemTurn::Kept), turns: vec![m("9 cm")], ..hem("6 cm") };
    let result = solved(&border, trying(vec![tuck]));
    assert_eq!(card(&result).0, [["all round", "12.0", "15.0"]], "stitched from 9 to 15, folded at 12");
    assert!(result.checks.iter().all(|c| !c.title.starts_with("Edge of")));
    // A sleeve is shortened at its cap where what closes it cannot move; nothing is where it has no seam.
    let mut coat = round(Kind::LinedCoat);
    coat.sleeve_length = Some(m("62 cm"));
    let cap =
        HemChange { off: Some(m("3 cm")), shortened_at: ShortenedAt::Cap, ..HemChange::of(HemEdge::Sleeve) };
    let result = solved(&coat, trying(vec![cap.clone()]));
    assert!(result.check("Length of the sleeve hems, at the cap").reason.contains("much bigger job"));
    let wrong = HemChange { hem: HemEdge::Body, ..cap };
    let fault = solve(&coat.document(vec![trying(vec![wrong])]), Tape::Cm).unwrap_err();
    assert_eq!(fault[0].path, "try_ons[0].changes[0].hem.shortened_at");
    // Let down at the waist it needs an allowance there.
    let down = HemChange { shortened_at: ShortenedAt::Waist, ..hem("-2 cm") };
    assert_eq!(solved(&border, trying(vec![down])).check("Length of the hem").outcome, Outcome::Stop);
}

#[test]
fn vents_and_slits_are_measured_from_the_new_edge() {
    let mut skirt = skirt();
    skirt.hems[0].vent = Some(m("18 cm"));
    let at = |off: &str| solved(&skirt, trying(vec![hem(off)]));
    for (off, outcome, figures) in [
        ("6 cm", Outcome::Passes, "18.0 − 6.0 = 12.0 cm left"),
        ("6.1 cm", Outcome::Caution, "18.0 − 6.1 = 11.9 cm left"),
        ("18 cm", Outcome::Caution, "18.0 − 18.0 = 0.0 cm left"),
    ] {
        let check = at(off);
        let check = check.check("Vent at the hem");
        assert_eq!((check.outcome, check.figures.as_str()), (outcome, figures));
    }
    let steps = card(&at("6 cm")).2;
    assert!(steps.contains("Open the vent 7.0 cm up from the new fold, twice what is turned up"), "{steps}");
    let slit = |at, height: &str, width: Option<&str>| HemChange {
        slit: Some(Slit { at, height: m(height), width: width.map(m) }),
        ..hem("5 cm")
    };
    let under = solved(&skirt, trying(vec![slit(SlitAt::UnderBackDart, "18 cm", Some("4 cm"))]));
    let from = skirt.darts.iter().find(|d| d.dart == crate::garment::Dart::BackWaist).unwrap().from_centre;
    let steps = card(&under).2;
    let line = format!("Mark its line, {} from the middle of the garment", Tape::Cm.show(from.length));
    assert!(steps.contains(&line) && steps.contains("Stitch from 2.0 cm beside the line"), "{steps}");
    assert_eq!(under.check("Slit in the hem").outcome, Outcome::Passes);
    let between = solved(&skirt, trying(vec![slit(SlitAt::BetweenBackDarts, "18 cm", None)]));
    assert!(card(&between).2.contains("on the middle of the garment"));
    // Up to 10 below the hip, less what is taken off.
    let high = solved(&skirt, trying(vec![slit(SlitAt::CentreBack, "40 cm", None)]));
    let check = high.check("Slit in the hem");
    assert_eq!(check.outcome, Outcome::Caution);
    let mended = solved(&skirt, trying(check.mend.clone()));
    assert_eq!(mended.check("Slit in the hem").outcome, Outcome::Passes);
    for (change, path) in [
        (slit(SlitAt::CentreBack, "61 cm", None), "slit.height"),
        (slit(SlitAt::CentreBack, "0 cm", None), "slit.height"),
        (slit(SlitAt::CentreBack, "10 cm", Some("11 cm")), "slit.width"),
        (HemChange { longer_by: Some(m("-1 cm")), ..hem("1 cm") }, "longer_by"),
    ] {
        let fault = solve(&skirt.document(vec![trying(vec![change])]), Tape::Cm).unwrap_err();
        assert_eq!(fault[0].path, format!("try_ons[0].changes[0].hem.{path}"));
    }
}

#[test]
fn a_shaped_edge_has_its_lengths_and_blends_between_the_panel_seams() {
    let mut skirt = skirt();
    skirt.levels.iter_mut().find(|l| l.level == Level::Waist).unwrap().station = m("60 cm");
    let lengths = Lengths { front: m("52 cm"), side: m("55 cm"), back: m("60 cm") };
    let shaped =
        HemChange { off: None, shape: Some(HemShape::Shaped), lengths: Some(lengths), ..hem("1 cm") };
    let result = solved(&skirt, trying(vec![shaped.clone()]));
    let rows = card(&result).0;
    let at = |place: &str| rows.iter().find(|row| row[0] == place).unwrap()[1].to_owned();
    // 60 − 52 = 8 off in front, and the 4 that are turned up.
    assert_eq!([at("front"), at("side, left"), at("side, right"), at("back")], ["12.0", "9.0", "9.0", "4.0"]);
    assert_eq!(rows.len(), 4);
    let mut facts = skirt.seams[0].clone();
    facts.seam = crate::garment::Seam::PanelFront;
    skirt.seams.push(facts);
    let result = solved(&skirt, trying(vec![shaped]));
    let rows = card(&result).0;
    let flat = rows.iter().filter(|row| row[0].starts_with("side front")).all(|row| row[1] == "12.0");
    assert!(flat && rows.len() == 6, "level as far as the panel seams: {rows:?}");
}

#[test]
fn a_lining_has_a_hem_of_its_own() {
    let mut coat = round(Kind::LinedCoat);
    coat.hems = vec![facts(HemEdge::Body, HemTurn::SingleFinished, "5 cm", "5 cm")];
    coat.found.lined = Some(Lined::Fully);
    let with = |lining| {
        let change = HemChange { off: Some(m("3 cm")), lining: Some(lining), ..HemChange::of(HemEdge::Body) };
        solved(&coat, trying(vec![change]))
    };
    let lining = |above: Option<&str>, slack: Option<&str>, free| LiningWanted {
        above: above.map(m),
        slack: slack.map(m),
        free,
        folded_up: false,
    };
    for (wanted, outcome, words) in [
        (
            lining(None, None, false),
            Outcome::Caution,
            "its fold 1.0 cm above the outer’s, 1.0 cm of slack along it",
        ),
        (lining(None, None, true), Outcome::Caution, "its fold 2.5 cm above the outer’s, hanging free"),
        (lining(Some("-0.5 cm"), None, false), Outcome::Stop, "its fold 0.5 cm below the outer’s"),
        (lining(None, Some("0.2 cm"), false), Outcome::Caution, "0.2 cm of slack along it"),
    ] {
        let result = with(wanted);
        let check = result.check("Lining and hem");
        assert!(check.outcome == outcome && check.figures.contains(words), "{check:?}");
    }
    // Whatever was typed is shown on the tape that is asked for.
    let typed = HemChange {
        off: Some(m("3 cm")),
        lining: Some(lining(Some("2 cm"), Some("1 cm"), false)),
        turns: vec![m("4 cm")],
        ..HemChange::of(HemEdge::Body)
    };
    let inches = coat.solved(trying(vec![typed]), Tape::In);
    let crate::shown::Shows::Hem(shown) = &inches.changes[0].shows else { panic!() };
    let all = [shown.lining_above, shown.lining_slack, Some(shown.own_turns[0])];
    assert_eq!(all.map(|figure| figure.unwrap().text()), ["3/4 in", "3/8 in", "1 5/8 in"]);
    assert_eq!(shown.slit_usual.to_string(), "7 in");
    let folded = with(LiningWanted { folded_up: true, ..lining(None, None, true) });
    let steps = card(&folded).2;
    assert!(steps.contains("nothing is cut") && steps.contains("thread chain"), "{steps}");
    assert!(steps.contains("Open the front facings 10.0 cm up from the new fold"), "{steps}");
}

#[test]
fn what_drops_or_is_carried_is_marked_in_another_way() {
    let mut circle = skirt();
    circle.levels.iter_mut().find(|l| l.level == Level::Hem).unwrap().width =
        crate::garment::Width::Girth(m("330 cm"));
    let result = solved(&circle, trying(vec![hem("3 cm")]));
    assert_eq!(result.check("Hang of the hem").outcome, Outcome::Caution);
    assert!(card(&result).2.starts_with("Let it hang for a day and a night"));
    circle.found.on_the_bias = Some(false);
    let result = solved(&circle, trying(vec![hem("3 cm")]));
    assert!(result.checks.iter().all(|c| !c.title.starts_with("Hang of the hem")));
    let over = solved(&skirt(), trying(vec![HemChange { over_petticoat: true, ..hem("3 cm") }]));
    assert_eq!(over.check("Beneath the hem").outcome, Outcome::Passes);
    assert!(card(&over).2.contains("with it on a hanger"));
    // A facing is as long as the new edge, straight where that is.
    let faced = HemChange { turn: Some(HemTurn::Faced), turns: vec![], ..hem("3 cm") };
    let result = solved(&skirt(), trying(vec![faced.clone()]));
    let said = card(&result).1;
    assert!(said.contains("Facing: 103.0 cm long with what joins it, 6.6 cm wide, 5.0 cm deep when finished; a straight strip"), "{said}");
    let result = solved(&circle, trying(vec![faced]));
    assert!(card(&result).1.contains("traced from the garment"));
    // Between hip and edge lie pockets, and what is patched on a knee.
    let mut shirt = round(Kind::Jacket);
    shirt.pockets = vec![crate::garment::Pocket::Patch];
    let hip = shirt.level(Level::Hip).map(|l| l.station.length);
    if let Some(hip) = hip {
        let off = Measure { length: hip - Length::from_mm(30), unit: Unit::Cm };
        let change = HemChange { off: Some(off), ..HemChange::of(HemEdge::Body) };
        let result = solved(&shirt, trying(vec![change]));
        assert_eq!(result.check("The patch pockets above").outcome, Outcome::Caution);
    }
    // From the body: past the fingertips, and down to a low shoe.
    for landmark in [HemLandmark::Fingertips, HemLandmark::ShoeTop] {
        let wanted = HemChange {
            off: None,
            from_body: Some(FromBody { landmark, above: m("0 cm"), heel: None }),
            ..hem("1 cm")
        };
        let result = solved(&skirt(), trying(vec![wanted]));
        assert!(!result.checks.is_empty(), "{landmark:?}");
    }
}

proptest! {
    /// Where left and right differ, whatever the card says of either is of that one: its turns, from where it is measured, and its steps.
    #[test]
    fn each_of_two_that_differ_is_told_by_itself(left in -30_i64..120, right in -30_i64..120, turn_up in 0_i64..50, worn: bool) {
        let mut trousers = round(Kind::Trousers);
        let turn_up = format!("{turn_up} mm");
        trousers.hems = vec![facts(HemEdge::Leg, HemTurn::Double, &turn_up, "10 mm")];
        trousers.found.edge = worn.then_some(SpecialEdge::Worn);
        let of = |left: i64, right: i64| {
            let marks = [(LEFT, left), (RIGHT, right)].map(|(side, off)| {
                let how = if off < 0 { HemHow::LetDown } else { HemHow::TurnUp };
                mark(off.unsigned_abs().into(), HemEdge::Leg, side, Around::Side, how, &format!("{} mm", off.abs()))
            });
            let each = HemChange { sides: Some(SidePolicy::KeepEach), ..HemChange::of(HemEdge::Leg) };
            let result = solved(&trousers, marked(marks.into(), vec![each]));
            result.cards.into_iter().find(|card| card.key == ChangeKey::Hem(HemEdge::Leg))
        };
        let text = |card: &crate::card::Card, from: &str, to: &str| {
            let blocks: Vec<String> = card.blocks.iter().map(|b| format!("{b:?}")).collect();
            let at = |name: &str| blocks.iter().position(|b| b.starts_with(&format!("Heading({name:?}")));
            let begins = at(from).map_or(0, |n| n + 1);
            let ends = [at(to), at("Know first"), at("Afterwards it should measure")].into_iter().flatten().filter(|n| *n >= begins).min();
            blocks[begins..ends.unwrap_or(blocks.len())].join("\n")
        };
        // What ticks its only row is known by its side.
        let rows = |text: String| {
            let at = text.find("at: [").unwrap_or_default();
            let end = text[at..].find("], is_chalked").map_or(at, |n| at + n);
            format!("{}{}", &text[..at], &text[end..])
        };
        if let (Some(both), Some(one), Some(other)) = (of(left, right), of(left, left), of(right, right)) {
            prop_assume!(left != right);
            prop_assert_eq!(rows(text(&both, "Left", "Right")), rows(text(&one, "", "Left")));
            prop_assert_eq!(rows(text(&both, "Right", "Left")), rows(text(&other, "", "Left")));
        }
    }
}

#[test]
fn a_shortened_taper_is_taken_back_on_request() {
    let mut trousers = round(Kind::Trousers);
    let girth = |level: Level, girth: &str, garment: &mut Fitted| {
        let there = garment.levels.iter_mut().find(|l| l.level == level).unwrap();
        there.width = crate::garment::Width::Girth(m(girth));
    };
    trousers.levels.retain(|l| !matches!(l.level, Level::Calf | Level::Ankle));
    girth(Level::Hem, "36 cm", &mut trousers);
    girth(Level::Knee, "50 cm", &mut trousers);
    let knee = trousers.level(Level::Knee).unwrap().station.length.cm();
    let off = |cm: f64| HemChange { off: Some(m(&format!("{cm} cm"))), ..HemChange::of(HemEdge::Leg) };
    let result = solved(&trousers, trying(vec![off(12.0)]));
    let check = result.check("Opening of the leg hems");
    // 14 wider at the knee: so much of it in 12.
    let wider = (14.0 * 12.0 / knee * 10.0).round() / 10.0;
    assert_eq!(check.outcome, Outcome::Caution);
    assert!(check.figures.ends_with(&format!(": {wider:.1} cm wider")), "{}", check.figures);
    assert_eq!(check.mend.len(), 2, "outseam and inseam: {check:?}");
    let mut changes = check.mend.clone();
    changes.push(off(12.0).into());
    let tapered = solved(&trousers, trying(changes));
    let opening = tapered.levels.iter().find(|l| l.level == Level::Hem).unwrap();
    assert!((opening.after.measure().length.cm() - 36.0).abs() < 0.25, "{}", opening.sum);
    assert!(
        tapered.checks.iter().all(|c| !c.title.starts_with("Opening of the") || c.outcome == Outcome::Passes)
    );
    // Where it hangs on the wearer is drawn, and so is the allowance that mirrors the leg.
    let crate::shown::Shows::Hem(shown) = &result.changes[0].shows else { panic!() };
    let figure = shown.figure.as_ref().unwrap();
    assert!(figure.lines.windows(2).all(|pair| pair[0].y_mm <= pair[1].y_mm));
    let named = |is| figure.lines.iter().find(|line| line.is == is).unwrap();
    use crate::figure::Across;
    assert!((named(Across::Now).y_mm - named(Across::New).y_mm - 120.0).abs() < 0.5);
    assert!(named(Across::New).name.starts_with("after, ") && named(Across::New).name.ends_with(" cm"));
    assert!(shown.edges[0].unrolled.splay.is_some());
    let little = solved(&trousers, trying(vec![off(1.0)]));
    assert!(little.checks.iter().all(|c| !c.title.starts_with("Opening of the")));
}

#[test]
fn a_hem_cut_through_is_drawn_from_its_own_turns() {
    let drawn = |turns: &[&str], turn| {
        let turns = turns.iter().copied().map(m).collect();
        let change = HemChange { turn: Some(turn), turns, ..hem("3 cm") };
        let crate::shown::Shows::Hem(shown) =
            &solved(&skirt(), trying(vec![change])).changes[0].shows.clone()
        else {
            panic!()
        };
        shown.picture.strokes[0].path.clone()
    };
    // The outer turn goes 25 mm up, less its bend; the inner comes down again by 10.
    let path = drawn(&["1 cm", "2.5 cm"], HemTurn::Deep);
    assert!(path.contains("V-23.0") && path.ends_with("V-15.0"), "{path}");
    assert_ne!(drawn(&["0.5 cm", "3 cm"], HemTurn::Deep), path);
    assert!(
        drawn(&["1 cm", "1 cm", "2.5 cm"], HemTurn::Double).ends_with("V-15.0"),
        "of three the two that hold it"
    );
    for turn in HemTurn::ALL.iter().copied() {
        assert!(!drawn(&[], turn).contains("NaN"), "{turn:?}");
    }
}

#[test]
fn a_mark_that_cannot_be_is_named() {
    let skirt = skirt();
    let floor = HemChange { clearance: Some(m("40 cm")), ..HemChange::of(HemEdge::Body) };
    let read = |how, around, amount| {
        let marks = vec![mark(1, HemEdge::Body, None, around, how, amount)];
        solved(&skirt, marked(marks, vec![floor.clone()]))
    };
    let slipped = read(HemHow::FromFloor, Around::Front, "140 cm");
    let check = slipped.check("A mark of the hem");
    assert!(
        check.outcome == Outcome::Stop && check.figures.starts_with("read 140.0 above the floor"),
        "{check:?}"
    );
    let low = read(HemHow::FromFloor, Around::Front, "38 cm");
    assert!(low.checks.iter().all(|c| !c.title.starts_with("A mark")));
    let inside = read(HemHow::TurnUp, Around::Inside, "3 cm");
    assert_eq!(inside.check("A mark inside the hem").outcome, Outcome::Caution);
}
