//! Marks of worn toiles: what each moves, that it goes back, that it is done when it is settled and not before.

use super::*;
use crate::body::BodyMeasurement as B;
use crate::change::Change;
use crate::fitting::{GarmentSide, Reading};
use crate::garment::Dart;
use crate::judge::LevelOf;
use crate::pattern::lay::lay;
use crate::pattern::marks::{carry_marks, changes_of};
use crate::pattern::piece::PieceDart;
use crate::pattern::{CutFromToile, OfCloth, PieceSet, PieceShown, Pieces, pieces};
use crate::tests::kit::taken;
use crate::told::LevelResult;
use crate::work::{
    Chart, ChartRow, ChartSays, DrawnPiece, Fullness, Held, MarkSettled, Marked, Pattern, PieceDoes,
    PieceShare, ToileMark, ToileStage, Wishes,
};

fn marked(mark: ToileMark, by: &str, settled: Option<MarkSettled>) -> Marked {
    Marked { mark, stage: ToileStage::Bare, toile: 1, by: m(by), settled }
}

fn done(marks: &[Marked], all: &mut Vec<Piece>, tape: Tape) -> Vec<Option<CannotBe>> {
    let pattern = Pattern { marks: marks.to_vec(), ..Pattern::default() };
    carry_marks(&pattern, all, |_, _| false, tape).into_iter().map(|carried| carried.cannot).collect()
}

/// What a mark moves by its figure, and what it leaves: widths, heights and edges of pieces, in mm, in one order.
fn figures(mark: ToileMark, pieces: &[Piece]) -> [Vec<f64>; 2] {
    let outer = || pieces.iter().filter(|p| p.key.layer.is_outer());
    let of = |parts: &'static [PiecePart]| outer().filter(|p| parts.contains(&p.key.part));
    let (upper, lower) = (
        || of(&[PiecePart::Body, PiecePart::Bodice]),
        || of(&[PiecePart::Body, PiecePart::Skirt, PiecePart::Leg]),
    );
    let has_hem = || lower().filter(|p| p.edge(EdgeName::Hem).is_some());
    let sleeves = || of(&[PiecePart::Sleeve]);
    // All panels of a face together.
    let long = |names: &[EdgeName]| -> Vec<f64> {
        let of_face = |face: PieceFace| upper().filter(move |p| p.key.face == face).flat_map(|p| &p.edges);
        let sum = |face| of_face(face).filter(|e| names.contains(&e.name)).map(Edge::length).sum::<f64>();
        PieceFace::ALL.iter().map(|face| sum(*face)).filter(|sum| *sum > 0.0).collect()
    };
    let seams = |seams: &[Seam]| long(&seams.iter().map(|seam| EdgeName::Seam(*seam)).collect::<Vec<_>>());
    let up = |edge: &Edge| (edge.start().y - edge.end().y).abs();
    let ups = |face: PieceFace, names: &[EdgeName]| -> Vec<f64> {
        let edges = lower().filter(|p| p.key.face == face).flat_map(|p| &p.edges);
        edges.filter(|edge| names.contains(&edge.name)).map(up).collect()
    };
    let sides = [Seam::SideSeam, Seam::Outseam];
    let in_middle =
        [Seam::CentreFront, Seam::CentreBack, Seam::FrontRise, Seam::SeatSeam].map(EdgeName::Seam);
    let in_middle = [&in_middle[..], &[EdgeName::Fold, EdgeName::Opening]].concat();
    let balance = |face| {
        // Of what is cut in two across both together.
        [
            vec![ups(face, &in_middle).iter().sum()],
            ups(face, &[Seam::SideSeam, Seam::Outseam, Seam::Inseam].map(EdgeName::Seam)),
        ]
    };
    let heights = |of: &mut dyn Iterator<Item = &Piece>| of.map(|p| p.bounds().height()).collect::<Vec<_>>();
    let levels = |of: &mut dyn Iterator<Item = &Piece>| -> Vec<f64> {
        of.flat_map(|p| p.levels.iter().map(|(_, y)| p.bounds().y1 - y)).collect()
    };
    let darts = || upper().flat_map(|p| &p.darts);
    let less = |all: Vec<f64>| all.into_iter().map(|figure| -figure).collect();
    match mark {
        ToileMark::ShoulderTip => [seams(&[Seam::ShoulderSeam]), seams(&sides)],
        ToileMark::ArmholeHinge => [less(seams(&sides)), seams(&[Seam::ShoulderSeam])],
        ToileMark::NecklineGape => {
            let panels = [Seam::PrincessFront, Seam::PanelFront, Seam::ShoulderSeam, Seam::SideSeam];
            [less(long(&[EdgeName::Neckline])[..1].to_vec()), seams(&panels)]
        }
        ToileMark::BustPoint => {
            let is_of_bust =
                |d: &&PieceDart| matches!(d.dart, Dart::Bust | Dart::FrontWaist) && d.is_turnable();
            [darts().filter(is_of_bust).map(|d| -d.point.y).collect(), seams(&[Seam::ShoulderSeam])]
        }
        // A yoke lies above.
        ToileMark::Waist => {
            let below = upper().filter(|p| p.key.share != PieceShare::Upper);
            [below.map(|p| p.bounds().height()).collect(), seams(&[Seam::ShoulderSeam, Seam::ArmholeSeam])]
        }
        ToileMark::Hem => [heights(&mut has_hem()), levels(&mut has_hem())],
        ToileMark::BalanceFront => balance(PieceFace::Front),
        ToileMark::BalanceBack => {
            let [moves, stays] = balance(PieceFace::Back);
            [less(moves), stays]
        }
        ToileMark::UpperArm => {
            let widened = sleeves().filter(|p| p.key.share != PieceShare::Lower);
            [widened.map(|p| p.bounds().width()).collect(), heights(&mut sleeves())]
        }
        ToileMark::Wrist => [heights(&mut sleeves()), levels(&mut sleeves())],
    }
}

/// Carried now, a mark moves all that it moves by its figure and leaves the rest; before that it moves nothing, and nothing that it is not about. Whether it was
/// done, and the pieces then.
fn carried(pieces: &[Piece], now: Marked, tape: Tape) -> Result<Option<Vec<Piece>>, String> {
    for settled in [None, Some(MarkSettled::RealCloth), Some(MarkSettled::NextTime)] {
        let mut all = pieces.to_vec();
        done(&[Marked { settled, ..now }], &mut all, tape);
        if all != pieces {
            return Err(format!("{settled:?} waits"));
        }
    }
    let mut all = pieces.to_vec();
    let said = done(&[now], &mut all, tape);
    let changes = changes_of(&now, pieces, tape);
    if changes.is_empty() || said[0].is_some() {
        return if all == pieces { Ok(None) } else { Err(format!("all of it or nothing: {said:?}")) };
    }
    for (old, new) in pieces.iter().zip(&all) {
        if old != new && !changes.iter().any(|change| change.is_about(old.key)) {
            return Err(format!("{} is not of it", old.key.name()));
        }
    }
    let wanted = now.by.length.cm() * 10.0;
    // A dart slides along a side that leans: its point comes to lie where the nearest mark of the tape has it, and the mouth is
    // drawn smooth beside it.
    let mark = tape.speaking(now.by.unit).mark().cm() * 5.0;
    let most = if now.mark == ToileMark::BustPoint { mark + 0.3 } else { 0.6 };
    for (which, by) in [(0, wanted), (1, 0.0)] {
        let [was, is] = [pieces, &all[..]].map(|pieces| figures(now.mark, pieces)[which].clone());
        let off = is
            .iter()
            .zip(&was)
            .map(|(is, was)| is - was - by)
            .fold(0.0_f64, |a, b| if b.abs() > a.abs() { b } else { a });
        if is.len() != was.len() || off.abs() > most {
            return Err(format!("{which}: {was:.1?} to {is:.1?}"));
        }
    }
    Ok(Some(all))
}

/// Every mark on every toile that has such an edge: its figure moves by as much as was marked, on every piece it is of; taken back, it is as it was;
/// by nought nothing moves; and nothing moves before somebody says that it is settled now.
#[test]
fn a_mark_moves_its_edge_by_its_figure_and_back() {
    let mut seen = std::collections::BTreeSet::new();
    for (name, _, pieces) in garments() {
        for mark in ToileMark::ALL.iter().copied() {
            for by in ["0.8 cm", "-0.6 cm", "1/4 in", "0 cm"] {
                let now = marked(mark, by, Some(MarkSettled::Now));
                let of = format!("{name}, {mark:?} {by}");
                let Some(mut all) =
                    carried(&pieces, now, Tape::Cm).unwrap_or_else(|wrong| panic!("{of}: {wrong}"))
                else {
                    continue;
                };
                seen.insert(mark);
                let back = Marked { by: Measure { length: -now.by.length, ..now.by }, toile: 2, ..now };
                if done(&[back], &mut all, Tape::Cm)[0].is_none() {
                    for (old, new) in pieces.iter().zip(&all) {
                        let off = (old.area() - new.area()).abs();
                        let most = if now.by.length == Length::ZERO { 0.5 } else { old.area() * 0.003 };
                        assert!(off < most, "{of}: {} by {off} mm²", old.key.name());
                    }
                }
            }
        }
    }
    assert_eq!(seen.len(), ToileMark::ALL.len(), "{seen:?}");
}

fn told(document: &Document) -> Pieces {
    pieces(document, OfCloth::default(), Tape::Cm).unwrap()
}

fn real(told: &Pieces) -> CutFromToile {
    told.toile.begins.iter().find(|begun| !begun.garment.toile).unwrap().clone()
}

/// A document of what is begun from a toile.
fn begun(begun: CutFromToile, document: &Document) -> Document {
    let mut next = Document { wishes: Wishes::default(), ..document.clone() };
    next.states.truncate(1);
    next.states[0].garment = begun.garment;
    (next.try_ons, next.record) = (Vec::new(), Vec::new());
    next.wishes.pattern = begun.pattern;
    assert_eq!(next.faults(), Vec::new());
    next
}

/// What is begun has the pieces of its toile as they were left: gathered darts, facings, lines that were moved and all; they match as those do. In its real cloth
/// more is left where it is fitted, and nowhere less. How many edges were compared.
fn has_pieces_of(is: &Pieces, was: &Pieces, is_real: bool, (of, tape): (&str, Tape)) -> usize {
    let chips: Vec<&str> = is.chips.iter().map(|chip| &*chip.words).collect();
    assert!(chips.iter().all(|words| words.ends_with("as its toile was left")), "{of}: {chips:?}");
    let [is, was] = [is, was].map(|told| &told.sets[0]);
    assert_eq!(is.pieces.len(), was.pieces.len(), "{of}");
    let mut seen = 0;
    for was in &was.pieces {
        let is = is.pieces.iter().find(|piece| piece.key == was.key).unwrap();
        let area = |piece: &PieceShown| kurbo::BezPath::from_svg(&piece.outline).unwrap().area().abs();
        assert!((area(is) - area(was)).abs() < area(was) * 1e-3, "{of}, {}", was.name);
        assert_eq!(is.darts, was.darts, "{of}, {}", was.name);
        let is_outer = was.key.layer.is_outer();
        for (is, was) in is.edges.iter().zip(&was.edges) {
            assert!(!was.words.contains(" 0.0 cm") && !was.words.contains(" 0 in"), "{of}, {}", was.words);
            let differ = (is.long.nm - was.long.nm).abs();
            let mark = tape.mark().nm().min(1_000_000);
            assert!(is.name == was.name && differ <= mark, "{of}, {}: {differ}", was.words);
            assert_eq!(is.words, was.words, "{of}");
            let is_fitted = matches!(
                is.name,
                EdgeName::Seam(Seam::SideSeam | Seam::Outseam | Seam::ShoulderSeam | Seam::Inseam)
            );
            let left = is_real && is_fitted && is_outer && was.allowance.nm < 25_000_000;
            let wide = if tape.unit() == Unit::In { 25_400_000 } else { 25_000_000 };
            let wanted = if left { wide } else { was.allowance.nm };
            assert_eq!(is.allowance.nm, wanted, "{of}, {}", was.words);
            seen += 1;
        }
    }
    let titles = |set: &PieceSet| set.untrue.iter().map(|line| line.title.clone()).collect::<Vec<_>>();
    assert_eq!(titles(is), titles(was), "{of}");
    seen
}

/// What is cut from a toile has its pieces, and so has what is cut from that: the next toile, the garment in its real cloth, that of the next toile, which
/// fits and of which nothing is changed. What goes round it is what its pieces have.
#[test]
fn what_is_cut_from_a_toile_has_its_pieces() {
    let mut seen = 0;
    for (name, tape) in
        ["pinafore-toile", "summer-trousers"].into_iter().flat_map(|n| Tape::ALL.iter().map(move |t| (n, *t)))
    {
        let of = format!("{name}, {tape:?}");
        let told = |document: &Document| pieces(document, OfCloth::default(), tape).unwrap();
        let mut document = demo(name);
        let fresh = told(&Document { try_ons: Vec::new(), wishes: Wishes::default(), ..document.clone() });
        assert_eq!(real(&fresh).pattern, Pattern::default(), "{of}: it follows from its figures");
        assert_eq!(fresh.toile.begins.len(), 1, "{of}: nothing is changed");
        for may in told(&document).may {
            let piece = may.key;
            let own = may.does.iter().filter_map(|does| match does {
                PieceDoes::LooseDart => {
                    Some(PieceChange::LooseDart { piece, dart: may.darts[0], into: Fullness::Gathers })
                }
                PieceDoes::Facing => {
                    Some(PieceChange::Facing { piece, edge: may.faced[0].name, wide: m("3 cm") })
                }
                PieceDoes::Armhole => {
                    Some(PieceChange::Armhole { piece, lower: m("1 cm"), inwards: m("0.4 cm") })
                }
                PieceDoes::Width => Some(PieceChange::Width { piece, by: m("0.5 cm") }),
                PieceDoes::Eased => {
                    let edge = may.edges.iter().find(|edge| matches!(edge.name, EdgeName::Seam(_)))?.name;
                    Some(PieceChange::Eased { piece, edge, by: m("0.5 cm"), into: Fullness::Gathers })
                }
                _ => None,
            });
            document.wishes.pattern.changes.extend(own);
        }
        let toile = told(&document);
        let next_of = |told: &Pieces| {
            let next = told.toile.begins.iter().find(|begun| begun.garment.toile);
            next.unwrap_or_else(|| panic!("{of}")).clone()
        };
        let untrue = toile.sets[0].untrue.len();
        let says = next_of(&toile).says;
        assert_eq!(says.contains("not match yet"), untrue > 0, "{of}: {says}");
        assert!(untrue < 2 || says.contains(&format!("{untrue} things")), "{of}: {says}");
        let second = begun(next_of(&toile), &document);
        assert!(second.newest().unwrap().garment.name.ends_with(", toile 2"), "{of}");
        let of_real = told(&begun(real(&toile), &document));
        seen += has_pieces_of(&of_real, &toile, true, (&of, tape));
        let found = told(&second);
        seen += has_pieces_of(&found, &toile, false, (&of, tape));
        assert_eq!(found.toile.begins.len(), 1, "{of}: nothing is changed on it");
        seen += has_pieces_of(&told(&begun(real(&found), &second)), &found, true, (&of, tape));
        // It goes round what was told to go round it on paper, or as it was chalked.
        let [before, after] = [&document, &second].map(|document| lay(document, tape).unwrap().levels);
        // A neckline is no girth.
        for (was, is) in before.iter().zip(&after).filter(|(was, _)| was.level != Level::Neck) {
            let all_round = if was.of == LevelOf::Garment { ", all round" } else { "" };
            let on_paper = toile.round.iter().find(|row| row.name == format!("{}{all_round}", was.name));
            let wanted = on_paper.map_or(was.after, |row| row.on_paper);
            assert_eq!((is.level, is.after), (was.level, wanted), "{of}");
        }
        // A waist seam is as much longer as what is sewn into it.
        let longer = |of: &dyn Fn(&Garment) -> Option<Length>| {
            let [was, is] = [&document, &second].map(|d| of(&d.newest().unwrap().garment));
            was.zip(is).map(|(was, is)| is - was)
        };
        let seam =
            longer(&|garment| garment.seam(Seam::WaistSeam).map(|facts| tape.round(facts.length.length)));
        let waist = longer(&|garment| garment.level(Level::Waist).map(|level| level.width.on(tape)));
        assert!(seam.is_none() || seam == waist, "{of}: {seam:?} and {waist:?}");
        // And the third from the second.
        let mut third = second.clone();
        third.wishes.pattern.changes = vec![PieceChange::Width { piece: found.may[0].key, by: m("0.6 cm") }];
        let third = next_of(&told(&third));
        let own = &document.newest().unwrap().garment.name;
        assert_eq!(third.garment.name, format!("{own}, toile 3"));
        assert_eq!(third.pattern.toiles_before, 2, "{of}");
        // What was done on the first stays done, on whatever toile.
        assert_eq!(third.pattern.marks, second.wishes.pattern.marks, "{of}");
        assert_eq!(third.pattern.marks, document.wishes.pattern.marks, "{of}");
    }
    assert!(seen > 200, "{seen}");
}

/// Of sides that differ the next toile has one figure for both, says so, and does nothing twice that was marked.
#[test]
fn uneven_sides_begin_with_what_lies_between_them() {
    let mut document = demo("pinafore-toile");
    for change in &mut document.try_ons.last_mut().unwrap().changes {
        if let Change::Seam(seam) = change
            && seam.seam == Seam::SideSeam
        {
            seam.sides = Some(SidePolicy::KeepEach);
            let right = |reading: &&mut Reading| reading.side == GarmentSide::Right;
            seam.readings.iter_mut().filter(right).for_each(|reading| reading.amount = m("0 cm"));
        }
    }
    let uneven = told(&document);
    assert_eq!(uneven.sets.len(), 2);
    assert!(
        uneven.toile.begins.len() == 2
            && uneven.toile.begins.iter().all(|begun| begun.says.contains("differ"))
    );
    let second = begun(uneven.toile.begins[0].clone(), &document);
    let [was, is] = [&document, &second].map(|document| lay(document, Tape::Cm).unwrap().levels);
    let at = |all: &[LevelResult], level| all.iter().find(|l| l.level == level).unwrap().after;
    for level in [Level::Bust, Level::Waist, Level::Hip] {
        assert_eq!(at(&is, level), at(&was, level), "{level:?}");
    }
    let found = told(&second);
    assert_eq!((found.chips, found.sets.len()), (Vec::new(), 1));
    let set = lay(&second, Tape::Cm).unwrap().sets.remove(0);
    assert!(second.wishes.pattern.marks.len() > 1 && set.pieces == set.old, "nothing is done twice");
}

/// In two stages, on two toiles: what is on paper, what waits, what the toile before said; and edges that match still do.
#[test]
fn a_toile_is_marked_in_two_stages_and_what_waits_is_kept() {
    let mut document = demo("pinafore-toile");
    (document.try_ons, document.wishes.pattern) = (Vec::new(), crate::work::Pattern::default());
    let fresh = told(&document);
    assert_eq!(fresh.toile.stands, "Nothing is marked yet.");
    assert!(fresh.toile.before.iter().any(|line| line.contains("5 mm")), "{:?}", fresh.toile.before);
    let tip = marked(ToileMark::ShoulderTip, "1.2 cm", Some(MarkSettled::Now));
    let again = Marked { toile: 2, by: m("-0.3 cm"), ..tip };
    let gape = marked(ToileMark::NecklineGape, "0.8 cm", Some(MarkSettled::RealCloth));
    let hem = Marked { stage: ToileStage::Sleeved, ..marked(ToileMark::Hem, "2 cm", None) };
    document.wishes.pattern.marks = vec![tip, gape, hem, again];
    assert_eq!(document.faults(), Vec::new());
    let shown = told(&document);
    assert_eq!(
        shown.toile.stands,
        "4 marks: 1 is not settled yet, 2 are on paper, 1 waits for the real cloth."
    );
    assert_eq!(shown.toile.waiting, ["Neckline gape: 0.8 cm"]);
    // What waits goes with the garment, and nothing else; its figures are not measured yet. On no tape is a mark another figure than it was entered.
    let real = real(&shown);
    assert!(real.garment.seams.iter().all(|facts| facts.assumed));
    assert_eq!((real.pattern.marks, real.garment.toile), (vec![gape], false));
    assert!(real.garment.levels.iter().all(|level| level.assumed));
    for tape in Tape::ALL.iter().copied() {
        let shown = pieces(&document, OfCloth::default(), tape).unwrap().toile;
        assert!(shown.marks.iter().all(|mark| mark.says.ends_with(&mark.by)), "{tape:?}");
    }
    let chips: Vec<&str> = shown.chips.iter().map(|chip| &*chip.words).collect();
    assert_eq!(
        chips,
        [
            "Shoulder tip: 1.2 cm, as it was marked on toile 1",
            "Shoulder tip: −0.3 cm, as it was marked on toile 2"
        ]
    );
    let earlier = |told: &Pieces, of: ToileMark, toile: usize| {
        let mark = told.toile.stages[0].marks.iter().find(|offered| offered.mark == of).unwrap();
        mark.earlier[toile - 1].clone().unwrap_or_default()
    };
    let of_tip = [1, 2, 3].map(|toile| earlier(&shown, ToileMark::ShoulderTip, toile));
    assert_eq!(of_tip, ["", "1.2 cm on toile 1", "−0.3 cm on toile 2"]);
    assert_eq!(earlier(&shown, ToileMark::NecklineGape, 3), "0.8 cm on toile 1");
    let wanted = [
        "Bodice, front: shoulder seam 1.2 cm longer at its outer end",
        "Bodice, back: shoulder seam 1.2 cm longer at its outer end",
    ];
    assert_eq!(shown.toile.marks[0].becomes, wanted);
    let shoulder = |p: &Pieces| {
        let edge = |piece: &crate::pattern::PieceShown| {
            piece.edges.iter().find(|e| e.words == "shoulder seam").map(|e| e.long.nm)
        };
        p.sets[0].pieces.iter().filter_map(edge).collect::<Vec<_>>()
    };
    let longer: Vec<i64> =
        shoulder(&shown).iter().zip(shoulder(&fresh)).map(|(is, was)| (is - was) / 1_000_000).collect();
    assert_eq!(longer, [9, 9], "1.2 and −0.3 cm, each shoulder");
    let lengths =
        |p: &Pieces| p.sets[0].untrue.iter().any(|line| line.title == "The shoulder seam does not match");
    assert!(!lengths(&shown), "front and back go together");
    // The next toile has them in its pieces, and nothing is done again; what waits is what was marked last, and what was never settled is left at that.
    let next = shown.toile.begins.iter().find(|begun| begun.garment.toile).unwrap();
    let mut third = begun(next.clone(), &document);
    third.wishes.pattern.marks.extend([
        Marked { toile: 3, by: m("0.5 cm"), ..gape },
        Marked { toile: 3, by: m("0.2 cm"), settled: None, ..tip },
    ]);
    let found = told(&third);
    assert_eq!(shoulder(&found), shoulder(&shown));
    assert!(found.chips.iter().all(|chip| chip.words.ends_with("as its toile was left")));
    assert_eq!((found.toile.newest, found.toile.before_it), (3, 2));
    assert_eq!(found.toile.waiting, ["Neckline gape: 0.5 cm"]);
    let past: Vec<&str> = found.toile.marks.iter().filter_map(|mark| mark.past).collect();
    assert_eq!(past, ["was done on paper", "left for the real cloth", "never settled", "was done on paper"]);
    assert_eq!(
        found.toile.stands,
        "4 marks: 1 is not settled yet, 2 are in its pieces, 1 waits for the real cloth."
    );
    assert_eq!(earlier(&found, ToileMark::ShoulderTip, 3), "−0.3 cm on toile 2");
    // What could not be done is not in its pieces, and does not say so.
    document.wishes.pattern.marks = vec![tip, Marked { by: m("30 cm"), ..gape }];
    document.wishes.pattern.marks[1].settled = Some(MarkSettled::Now);
    let shown = told(&document);
    assert!(shown.toile.marks[1].cannot.is_some());
    let second = begun(shown.toile.begins[0].clone(), &document);
    let past: Vec<&str> = told(&second).toile.marks.iter().filter_map(|mark| mark.past).collect();
    assert_eq!(past, ["was done on paper", "never settled"]);
    document.wishes.pattern.marks = vec![tip, gape, hem, again];
    third.wishes.pattern.toiles_before = 4;
    assert_eq!(third.faults()[0].path, "wishes.pattern.toiles_before");
    // A drawn piece that has a mark in it already is not moved again.
    let front = shown.may.iter().find(|may| may.name == "Bodice, front").unwrap().key;
    let piece = unroll(&document.newest().unwrap().garment, &document.wearer, None)
        .into_iter()
        .find(|p| p.key == front)
        .unwrap();
    let drawn = super::drawn::drawn(&piece, kurbo::Affine::IDENTITY);
    document.wishes.pattern.drawn = vec![DrawnPiece { has_marks: vec![tip], ..drawn }];
    let mixed = told(&document);
    let mut longer: Vec<i64> =
        shoulder(&mixed).iter().zip(shoulder(&fresh)).map(|(is, was)| (is - was) / 1_000_000).collect();
    longer.sort_unstable();
    assert_eq!(longer, [-3, 9], "the front has the first mark in it");
    document.wishes.pattern.marks.push(Marked { toile: 9, ..tip });
    document.wishes.pattern.marks.push(tip);
    let paths: Vec<String> = document.faults().into_iter().map(|fault| fault.path).collect();
    assert_eq!(paths, ["wishes.pattern.marks[4].toile", "wishes.pattern.marks[5].mark"]);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(32))]

    /// On whatever body, with whichever long seams: every mark that is offered moves its figure and leaves the rest, whatever no longer matches then can be mended,
    /// and only what is sewn to an edge that was moved no longer does.
    #[test]
    fn marks_of_every_body_are_carried(
        (wearer, seams) in any_body(), kind in prop::sample::select(Kind::ALL), tape in prop::sample::select(Tape::ALL), by in -12i64..=20,
        closed in any_closure(),
    ) {
        let mut garment = begun_on(&wearer, &seams).find(|garment| garment.kind == kind).unwrap();
        close_in_front(&mut garment, closed);
        let mut document = super::agree::of_garment(garment.clone(), &wearer, Vec::new());
        document.try_ons.clear();
        let show = |document: &Document| pieces(document, OfCloth::default(), tape).unwrap();
        let by = Measure { length: tape.round(Length::from_mm(by)), unit: tape.unit() };
        for offered in show(&document).toile.stages.iter().flat_map(|stage| &stage.marks) {
            let now = Marked { mark: offered.mark, stage: ToileStage::Sleeved, toile: 1, by, settled: Some(MarkSettled::Now) };
            let done = carried(&unroll(&garment, &wearer, None), now, tape);
            prop_assert!(done.is_ok(), "{:?} {}: {:?}", offered.mark, by, done.err());
            prop_assert!(done.unwrap().is_some(), "{:?} {} is done", offered.mark, by);
            document.wishes.pattern.marks = vec![now];
            super::made::can_be_mended(&document, tape)?;
            let sewn_to: &[&str] = match offered.mark {
                ToileMark::ArmholeHinge | ToileMark::UpperArm => &["armhole seam"],
                ToileMark::BalanceFront | ToileMark::BalanceBack => &["waist edge", "notch"],
                ToileMark::BustPoint => &["legs of the"],
                _ => &[],
            };
            for line in &show(&document).sets[0].untrue {
                prop_assert!(sewn_to.iter().any(|to| line.title.contains(to)), "{:?} {}: {}", offered.mark, by, line.title);
            }
        }
    }
}

proptest! {
    /// What paper held to the body says is done at lines that the pieces of every kind have, adds up to what was read, and once it is on
    /// the pieces is not offered again.
    #[test]
    fn what_was_held_to_the_body_is_done_on_the_pieces(
        kind in prop::sample::select(Kind::ALL), what in prop::sample::select(vec![B::BackNeckToWaist, B::BodyRise, B::InsideLeg, B::ArmLength]),
        marks in -12i64..=12, tape in prop::sample::select(vec![Tape::Cm, Tape::In]),
    ) {
        let figures = [(B::Height, "162 cm"), (B::BustGirth, "94.5 cm"), (B::WaistGirth, "77.5 cm"), (B::HipGirth, "101.5 cm")];
        let measurements = figures.map(|(what, text)| taken(what, text)).to_vec();
        let wearer = Wearer { name: "Odile".into(), measurements, ..Wearer::default() };
        let cloth = cloth_named(kind.template().cloth).unwrap();
        let garment = begin(Beginning { name: "it".into(), kind, toile: true, wearer: wearer.clone(), cloth });
        let of_level = |level: &Level| {
            Some(ChartRow { what: garment.body_at(*level)?, says: ChartSays::Finished, figures: vec![m("110 cm")] })
        };
        let rows: Vec<ChartRow> = [Level::Bust, Level::Waist, Level::Hip].iter().filter_map(of_level).collect();
        let by = Measure { length: tape.mark() * marks, unit: tape.unit() };
        let one = Chart { name: String::new(), sizes: vec!["12".into()], rows, long: Vec::new() };
        let mut pattern = Pattern { charts: vec![one], held: vec![Held { what, by }], ..Pattern::default() };
        let lengths = |pattern: &Pattern| sizes(&garment, &wearer, pattern, &[], tape).candidates.remove(0).lengths;
        let found = lengths(&pattern);
        let can_hold = sizes(&garment, &wearer, &pattern, &[], tape).held.iter().any(|held| held.what == what);
        prop_assert_eq!(found.len(), usize::from(can_hold));
        for of in &found {
            let sum = of.changes.iter().fold(Length::ZERO, |sum, change| match change {
                PieceChange::Length { by, .. } => sum + by.length,
                _ => panic!("{change:?}"),
            });
            // A sleeve may have no line below the arm: then it is only said.
            let pieces = unroll(&garment, &wearer, None);
            let is_line = |level: &Level| matches!(level, Level::UpperArm | Level::Elbow);
            let has_line = pieces.iter().flat_map(|p| &p.levels).any(|(level, _)| is_line(level));
            if what == B::ArmLength && !has_line {
                prop_assert!(of.changes.is_empty());
                continue;
            }
            prop_assert_eq!(sum, by.length, "{:?}", of);
            let mut pieces = unroll(&garment, &wearer, None);
            for change in &of.changes {
                if !pieces.is_empty() {
                    prop_assert_eq!(apply(&mut pieces, change), Ok(()), "{:?}", change);
                }
            }
            pattern.changes = of.changes.clone();
            let after = lengths(&pattern).remove(0);
            prop_assert!(after.changes.is_empty());
            prop_assert_eq!(after.on_paper.is_some(), marks != 0);
        }
    }
}
