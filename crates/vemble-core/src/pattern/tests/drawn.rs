//! Pieces however they were drawn, and documents of them that are wrong.

use super::*;
use crate::fault::Wrong;
use crate::pattern::OfCloth;
use crate::pattern::drawn::{drawn_of, upright, with_drawn};
use crate::work::{
    DrawnLevel, DrawnNotch, DrawnPiece, MarkSettled, Marked, Pattern, ToileMark, ToileStage, Wishes,
    wrong_wishes, xy,
};
use kurbo::{Affine, BezPath, Point};

/// A piece as if it had been drawn elsewhere, and laid there like this.
pub(super) fn drawn(piece: &Piece, place: Affine) -> DrawnPiece {
    let mut placed = piece.clone();
    placed.lay_as_is(place);
    let levels = piece
        .levels
        .iter()
        .map(|(level, y)| DrawnLevel { level: *level, at_mm: xy(place * Point::new(0.0, *y)) });
    DrawnPiece { levels: levels.collect(), ..drawn_of(&placed) }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// Panels of whatever body and kind, however narrow or wide, are laid with their middle to the left and their hem below, however they were drawn; but one
    /// between two panels has neither middle nor side, and is mirrored as it comes. What laps over goes as far beyond the middle as it is unrolled.
    #[test]
    fn panels_of_every_body_lie_as_they_should(
        (wearer, seams) in any_body(), quarters in 0i32..4, mirrored in any::<bool>(), closed in any_closure(), has_darts in any::<bool>(),
    ) {
        for mut garment in begun_on(&wearer, &seams) {
            close_in_front(&mut garment, closed);
            // Without them a skirt has its yoke.
            garment.darts.retain(|_| has_darts);
            let pieces = unroll(&garment, &wearer, None);
            let elsewhere: Vec<DrawnPiece> = pieces.iter().map(|piece| drawn(piece, Affine::translate((31.0, -7.0)))).collect();
            let read = with_drawn(&garment, pieces.clone(), &elsewhere);
            for lapped in pieces.iter().filter(|piece| piece.laps()) {
                let own = read.iter().find(|piece| piece.key == lapped.key).unwrap();
                let off = own.bounds().x0 - lapped.bounds().x0;
                prop_assert!(off.abs() < 0.01, "{:?}, {}: its middle lies {} mm off", garment.kind, own.key.name(), off);
            }
            for piece in pieces {
                let has_sides = piece.key.face != crate::work::PieceFace::Round && piece.key.share != crate::work::PieceShare::Middle;
                let mirror = if mirrored && has_sides { Affine::FLIP_X } else { Affine::IDENTITY };
                let turn = Affine::rotate(std::f64::consts::FRAC_PI_2 * f64::from(quarters));
                let drawn = drawn(&piece, Affine::translate((31.0, -7.0)) * turn * mirror);
                let read = with_drawn(&garment, Vec::new(), &[drawn]).remove(0);
                let off = piece.bounds().origin() - read.bounds().origin();
                for edge in &piece.edges {
                    let ends = |e: &&Edge| {
                        let beside = [(e.start(), edge.start()), (e.end(), edge.end())];
                        e.name == edge.name && beside.iter().all(|(is, was)| (*is + off).distance(*was) < 0.01)
                    };
                    prop_assert!(read.edges.iter().any(|e| ends(&e)), "{:?}, {}, {} quarters, {}: {:?}", garment.kind, piece.key.name(), quarters, mirrored, edge.name);
                }
            }
        }
    }
}

/// However a piece lies on its paper, it lies here as the unrolled ones do: middle to the left, hem below, against the clock.
#[test]
fn a_piece_lies_as_it_should_however_it_was_drawn() {
    let mut seen = 0;
    for name in DEMO {
        let (garment, _, pieces) = pieces_of(name);
        for piece in &pieces {
            let mut wanted = piece.clone();
            let bounds = piece.bounds();
            let flat = Affine::translate((-bounds.x0, -bounds.y0));
            assert_eq!(upright(piece), flat, "{name}, {}: what is unrolled lies so", piece.key.name());
            wanted.lay(flat);
            for turns in 0..4 {
                for mirror in [Affine::IDENTITY, Affine::FLIP_X] {
                    let has_sides = piece.edges.iter().any(|edge| edge.name != EdgeName::Waist)
                        && piece.key.face != crate::work::PieceFace::Round;
                    if mirror == Affine::FLIP_X && !has_sides {
                        continue;
                    }
                    let turn = Affine::rotate(std::f64::consts::FRAC_PI_2 * f64::from(turns));
                    let place = Affine::translate((31.0, -7.0)) * turn * mirror;
                    let read = with_drawn(&garment, Vec::new(), &[drawn(piece, place)]).remove(0);
                    seen += 1;
                    let of = format!("{name}, {}, {turns} quarters, {mirror:?}", piece.key.name());
                    assert!((read.area() - wanted.area()).abs() < 1.0, "{of}");
                    assert!(read.outline().area() > 0.0, "{of}: against the clock");
                    for edge in &wanted.edges {
                        let near = |e: &&Edge| {
                            e.name == edge.name
                                && e.at(e.length() / 2.0).0.distance(edge.at(edge.length() / 2.0).0) < 0.01
                        };
                        let own =
                            read.edges.iter().find(near).unwrap_or_else(|| panic!("{of}: {:?}", edge.name));
                        assert!(
                            own.start().distance(edge.start()) < 0.01
                                || own.start().distance(edge.end()) < 0.01
                        );
                        assert_eq!(own.notches.len(), edge.notches.len(), "{of}");
                        for notch in &edge.notches {
                            let at = edge.at(notch.along).0;
                            let is_there = |n: &crate::pattern::Notch| {
                                n.level == notch.level && own.at(n.along).0.distance(at) < 0.01
                            };
                            assert!(own.notches.iter().any(is_there), "{of}: {notch:?}");
                        }
                    }
                    for (own, dart) in read.darts.iter().zip(&wanted.darts) {
                        assert!(
                            own.point.distance(dart.point) < 0.01
                                && (own.takes() - dart.takes()).abs() < 0.01,
                            "{of}"
                        );
                    }
                    for ((level, y), (other, wanted)) in read.levels.iter().zip(&piece.levels) {
                        assert_eq!(level, other);
                        assert!((y + bounds.y0 - wanted).abs() < 0.01, "{of}: {level:?} at {y}");
                    }
                }
            }
        }
    }
    assert!(seen > 150, "{seen}");
}

/// What is drawn of a part in front stands for all of it there, and is sewn to what is unrolled behind.
#[test]
fn a_drawn_front_is_sewn_to_the_back_as_it_is_unrolled() {
    let (garment, _, pieces) = pieces_of("pinafore-toile");
    let front =
        pieces.iter().find(|p| p.key.part == PiecePart::Skirt && p.edge(EdgeName::Fold).is_some()).unwrap();
    let mut all = with_drawn(&garment, pieces.clone(), &[drawn(front, Affine::FLIP_X)]);
    assert_eq!(all.len(), pieces.len());
    let joined = joins(&garment, &all);
    assert_eq!(true_up(&all, &joined), Vec::new());
    let by = PieceChange::Width { piece: front.key, by: m("1 cm") };
    apply(&mut all, &by).unwrap();
    assert!(!true_up(&all, &joins(&garment, &all)).is_empty(), "its waist is longer than what it is sewn to");
}

/// A change of several pieces of which some have it already is done to the others, and its failing on those that have it hides nothing: of changes and
/// of marks, on either side.
#[test]
fn what_some_pieces_have_is_done_to_the_others() {
    let mut document = demo("pinafore-toile");
    (document.try_ons, document.wishes.pattern) = (Vec::new(), Pattern::default());
    let (_, _, unrolled) = pieces_of("pinafore-toile");
    let skirt =
        |face| unrolled.iter().find(|p| p.key.part == PiecePart::Skirt && p.key.face == face).unwrap();
    let (front, back) = (skirt(crate::work::PieceFace::Front), skirt(crate::work::PieceFace::Back));
    let high = |found: &crate::pattern::Pieces, key| {
        found.sets[0]
            .pieces
            .iter()
            .find(|p| p.key == key)
            .map(|p| BezPath::from_svg(&p.outline).unwrap().bounding_box().height())
            .unwrap()
    };
    // So much that a second time it is more than the piece has.
    let change =
        |by: &str| PieceChange::Length { part: PiecePart::Skirt, face: None, below: Level::Hip, by: m(by) };
    let hem = Marked {
        mark: ToileMark::Hem,
        stage: ToileStage::Bare,
        toile: 1,
        by: m("-5 cm"),
        settled: Some(MarkSettled::Now),
    };
    for by in ["3 cm", "-9 cm", "-12 cm", "-14 cm"] {
        let change = change(by);
        let mut once = unrolled.clone();
        if apply(&mut once, &change).is_err() {
            continue;
        }
        let cut = once.iter().find(|p| p.key == front.key).unwrap();
        document.wishes.pattern.changes = vec![change.clone()];
        document.wishes.pattern.drawn =
            vec![DrawnPiece { has: vec![change], ..drawn(cut, Affine::IDENTITY) }];
        let found = crate::pattern::pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
        assert_eq!(found.chips[1].cannot, None, "{by}");
        let wanted = once.iter().find(|p| p.key == back.key).unwrap().bounds().height();
        assert!((high(&found, back.key) - wanted).abs() < 0.1, "{by}: the back has it not yet");
        assert!((high(&found, front.key) - cut.bounds().height()).abs() < 0.1, "{by}: the front has it");
    }
    // So it is with marks.
    document.wishes.pattern = Pattern::default();
    document.wishes.pattern.marks = vec![hem];
    document.wishes.pattern.drawn =
        vec![DrawnPiece { has_marks: vec![hem], ..drawn(front, Affine::IDENTITY) }];
    let found = crate::pattern::pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
    assert!((high(&found, front.key) - front.bounds().height()).abs() < 0.1);
    assert!((high(&found, back.key) - back.bounds().height() + 50.0).abs() < 0.5);
    // On one side there is enough to take away, on the other there is not: that is said.
    let mut skirt = demo("school-skirt");
    skirt.try_ons.remove(0);
    let pins = vec![pin(GarmentSide::Left, "45 cm", "0.2 cm"), pin(GarmentSide::Right, "45 cm", "3 cm")];
    for pins in
        [pins.clone(), pins.into_iter().rev().map(|pin| Reading { side: pin.side.other(), ..pin }).collect()]
    {
        let change = SeamChange {
            sides: Some(SidePolicy::KeepEach),
            readings: pins,
            ..SeamChange::of(Seam::SideSeam)
        };
        skirt.try_ons[0].changes = vec![change.into()];
        skirt.wishes.pattern = Pattern::default();
        let found = crate::pattern::pieces(&skirt, OfCloth::default(), Tape::Cm).unwrap();
        assert_eq!(found.sets.len(), 2, "sides differ");
        let shown = |set: usize| {
            found.sets[set].pieces.iter().find(|p| p.key.face == crate::work::PieceFace::Front).unwrap()
        };
        let waist = |set: usize| {
            shown(set).edges.iter().find(|e| e.name == EdgeName::Waist).unwrap().long.nm as f64 / 1e7
        };
        let (less, more) = (waist(0).min(waist(1)), waist(0).max(waist(1)));
        assert!(more - less > 0.5, "{less} and {more}");
        let by = Measure { length: Length::from_cm(-0.75 * f64::midpoint(less, more)), unit: Unit::Cm };
        skirt.wishes.pattern.changes =
            vec![PieceChange::End { piece: shown(0).key, edge: EdgeName::Waist, upper: true, by }];
        let found = crate::pattern::pieces(&skirt, OfCloth::default(), Tape::Cm).unwrap();
        let chip = found.chips.iter().find(|chip| chip.entered == Some(0)).unwrap();
        assert!(chip.cannot.is_some(), "on one side it cannot be: {chip:?}");
    }
}

#[test]
fn a_drawing_that_is_no_piece_is_refused() {
    let (_, _, pieces) = pieces_of("school-skirt");
    let good = drawn(&pieces[0], Affine::IDENTITY);
    let found = |change: &dyn Fn(&mut DrawnPiece)| {
        let mut piece = good.clone();
        change(&mut piece);
        let wishes =
            Wishes { pattern: Pattern { drawn: vec![piece], ..Pattern::default() }, ..Wishes::default() };
        let mut faults = wrong_wishes(&wishes);
        assert!(faults.len() < 2, "{faults:?}");
        faults.pop().map(|fault| (fault.path, fault.wrong))
    };
    let at = |path: &str, wrong| Some((format!("pattern.drawn[0].{path}"), wrong));
    assert_eq!(found(&|_| {}), None);
    assert_eq!(found(&|p| p.cut = Some(3)), at("cut", Wrong::NotACount { most: 2 }));
    assert_eq!(found(&|p| p.edges.truncate(1)), at("edges", Wrong::NotClosed { apart_mm: None }));
    assert_eq!(found(&|p| p.edges[0].path_mm = "M0 0".into()), at("edges[0].path_mm", Wrong::NotALine));
    assert_eq!(found(&|p| p.edges[0].path_mm = "no path".into()), at("edges[0].path_mm", Wrong::NotALine));
    assert_eq!(
        found(&|p| p.edges[1].path_mm = "M0 0 L1e9 3".into()),
        at("edges[1].path_mm", Wrong::TooFarOff)
    );
    assert_eq!(
        found(&|p| p.edges[0].path_mm = format!("M0 0{}", " L1 1".repeat(9_000))),
        at("edges[0].path_mm", Wrong::TooLong { most: 40_000 })
    );
    assert_eq!(found(&|p| p.grain_mm = Some([[3.0, 3.0]; 2])), at("grain_mm", Wrong::NotALine));
    assert_eq!(found(&|p| p.grain_mm = Some([[3.0, 1e6], [0.0, 0.0]])), at("darts", Wrong::TooFarOff));
    let beyond = DrawnNotch { along_mm: 1e4, level: None };
    assert_eq!(found(&|p| p.edges[0].notches.push(beyond)), at("edges[0].notches[0]", Wrong::OffEdge));
    let found_allowance = found(&|p| p.edges[0].allowance = Some(m("-1 cm")));
    assert_eq!(found_allowance, at("edges[0].allowance", Wrong::Negative { found: m("-1 cm") }));
    assert!(matches!(
        found(&|p| p.edges[0].allowance = Some(m("30 cm"))),
        Some((_, Wrong::WiderThan { .. }))
    ));
    assert!(matches!(found(&|p| p.edges.swap(0, 1)), Some((_, Wrong::NotClosed { apart_mm: Some(_) }))));
    let knot = |p: &mut DrawnPiece| {
        p.edges.truncate(2);
        p.edges[0].path_mm = "M0 0 L100 100 L0 100".into();
        p.edges[1].path_mm = "M0 100 L100 0 L0 0".into();
        p.edges.iter_mut().for_each(|edge| edge.notches.clear());
    };
    assert_eq!(found(&knot), at("edges", Wrong::CrossesItself));
    let wishes = |drawn| Wishes { pattern: Pattern { drawn, ..Pattern::default() }, ..Wishes::default() };
    let twice = wrong_wishes(&wishes(vec![good.clone(), good.clone()]));
    assert_eq!(twice[0].wrong, Wrong::Twice { what: "piece" });
    assert_eq!(
        wrong_wishes(&wishes(vec![good.clone(); 41]))[0].wrong,
        Wrong::TooMany { what: "pieces", most: 40 }
    );
}
