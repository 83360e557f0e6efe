//! What is turned about a point: darts, and slashes.

use super::super::mouth::lay_flat;
use super::super::piece::is_on;
use super::super::turn::is_measured_from_start;
use super::{DEMO, Untrue, apply, demo, garments, joins, m, pieces_of, runs_smooth, true_up};
use crate::document::Document;
use crate::garment::{Dart, Seam};
use crate::length::{Length, Measure, Tape, Unit};
use crate::pattern::{CannotBe, Edge, OfCloth, Piece, PieceDart, pieces};
use crate::work::{EdgeName, EdgePin, EdgePlace, Fullness, PieceChange, PieceKey};

fn measure(mm: f64) -> Measure {
    Measure { length: Length::from_cm(mm / 10.0), unit: Unit::Cm }
}

fn place(edge: &Edge, along: f64) -> EdgePlace {
    let at = if is_measured_from_start(edge) { along } else { edge.length() - along };
    EdgePlace { edge: edge.name, at: measure(at) }
}

/// Inside the outline without what darts take.
pub(super) fn cloth(piece: &Piece) -> f64 {
    let open = piece.darts.iter().filter(|dart| dart.other.is_none());
    let taken = |d: &PieceDart| (d.mouth[0] - d.point).cross(d.mouth[1] - d.point).abs() / 2.0;
    piece.area() - open.map(taken).sum::<f64>()
}

fn same(a: f64, b: f64, within: f64, what: &dyn std::fmt::Debug) {
    assert!((a - b).abs() < within, "{what:?}: {a} instead of {b}");
}

/// How long every edge is sewn, and how far along it each of its notches.
fn sewn(piece: &Piece) -> Vec<Vec<f64>> {
    let of = |edge: &Edge| {
        let notches = edge.notches.iter().map(|notch| piece.sewn_along(edge, notch.along));
        let mut notches: Vec<f64> = notches.collect();
        notches.sort_by(f64::total_cmp);
        [piece.sewn(edge)].into_iter().chain(notches).collect()
    };
    piece.edges.iter().map(of).collect()
}

fn assert_same(is: &Piece, was: &Piece, change: &PieceChange) {
    for (is, was) in sewn(is).iter().flatten().zip(sewn(was).iter().flatten()) {
        same(*is, *was, 0.2, change);
    }
    same(cloth(is), cloth(was), was.area() * 1e-3, change);
}

/// To every edge and back: cloth, edges, notches and legs stay as they are; what was flare has more hem, and nothing else.
#[test]
fn a_dart_turns_there_and_back() {
    let mut seen = [0; 2];
    for (_, _, pieces) in garments() {
        for (n, piece) in pieces.iter().enumerate() {
            for dart in piece.darts.iter().filter(|dart| dart.other.is_none()) {
                let home = piece.edges.iter().find(|edge| is_on(edge, dart)).unwrap();
                let along =
                    super::super::piece::along_curves(&home.curves, dart.mouth[0].midpoint(dart.mouth[1]));
                let back = along - dart.takes() / 2.0;
                let back =
                    if is_measured_from_start(home) { back } else { home.length() - back - dart.takes() };
                let back = EdgePlace { edge: home.name, at: measure(back) };
                for (edge, share) in piece.edges.iter().flat_map(|e| [(e, 0.3), (e, 0.7)]) {
                    let to = place(edge, edge.length() * share);
                    let turn =
                        |to| PieceChange::TurnDart { piece: piece.key, dart: dart.dart, to, keep: None };
                    let mut turned = pieces.clone();
                    if apply(&mut turned, &turn(to)).is_err() {
                        continue;
                    }
                    let is_flare = edge.name == EdgeName::Hem;
                    seen[usize::from(is_flare)] += 1;
                    for (k, (is, was)) in sewn(&turned[n]).iter().zip(sewn(piece)).enumerate() {
                        let more = is[0] - was[0];
                        if is_flare && piece.edges[k].name == EdgeName::Hem {
                            assert!(more > 5.0, "{to:?}: {more}");
                        } else {
                            is.iter().zip(was).for_each(|(is, was)| same(*is, was, 0.2, &to));
                        }
                    }
                    assert_eq!(turned[n].darts.len() + usize::from(is_flare), piece.darts.len());
                    if is_flare {
                        continue;
                    }
                    same(cloth(&turned[n]), cloth(piece), piece.area() * 1e-3, &to);
                    turned[n].darts.iter().for_each(|dart| same(dart.legs_apart(), 0.0, 0.1, &to));
                    match apply(&mut turned, &turn(back)) {
                        // Where it was it cannot go while its own mouth is beside it.
                        Err(CannotBe::Misses) if edge.name == home.name => continue,
                        done => done.unwrap_or_else(|why| panic!("{to:?}, {back:?}: {why:?}")),
                    }
                    assert_same(&turned[n], piece, &turn(to));
                }
            }
        }
    }
    assert!(seen.iter().all(|seen| *seen > 5), "{seen:?}");
}

/// Between any two edges: it opens by its figure, moves nothing else, and is folded out again.
#[test]
fn a_slash_spreads_by_its_figure_and_is_folded_out_again() {
    let mut seen = 0;
    for (_, _, pieces) in garments() {
        for (n, piece) in pieces.iter().enumerate() {
            let pairs = piece.edges.iter().flat_map(|from| piece.edges.iter().map(move |to| (from, to)));
            for (from, to) in pairs.filter(|(from, to)| !from.second && !to.second && from.name != to.name) {
                let [from, hinge] = [(from, 0.6), (to, 0.35)].map(|(e, share)| place(e, e.length() * share));
                let slash = |by| PieceChange::Slash { piece: piece.key, from, hinge, by: m(by) };
                let mut spread = pieces.clone();
                if apply(&mut spread, &slash("1.2 cm")).is_err() {
                    continue;
                }
                seen += 1;
                for (edge, (is, was)) in piece.edges.iter().zip(sewn(&spread[n]).iter().zip(sewn(piece))) {
                    let opens = edge.name == from.edge && !edge.second;
                    same(is[0] - was[0], if opens { 12.0 } else { 0.0 }, 0.3, &slash("1.2 cm"));
                }
                assert!(spread[n].area() > piece.area());
                apply(&mut spread, &slash("-1.2 cm"))
                    .unwrap_or_else(|why| panic!("{from:?}, {hinge:?}: {why:?}"));
                assert_same(&spread[n], piece, &slash("-1.2 cm"));
                let mut folded = pieces.clone();
                if apply(&mut folded, &slash("-0.9 cm")).is_ok() {
                    for (edge, (is, was)) in piece.edges.iter().zip(sewn(&folded[n]).iter().zip(sewn(piece)))
                    {
                        let closes = edge.name == from.edge && !edge.second;
                        same(is[0] - was[0], if closes { -9.0 } else { 0.0 }, 0.3, &slash("-0.9 cm"));
                    }
                }
                let mut same = pieces.clone();
                apply(&mut same, &slash("0 cm")).unwrap();
                assert_same(&same[n], piece, &slash("0 cm"));
            }
        }
    }
    assert!(seen > 60, "{seen}");
}

#[test]
fn a_dart_is_moved_by_its_figure_and_back() {
    let mut seen = 0;
    for (_, _, pieces) in garments() {
        for (n, piece) in pieces.iter().enumerate() {
            for dart in piece.darts.iter().filter(|dart| dart.other.is_none()) {
                let (piece, dart) = (piece.key, dart.dart);
                for [there, back] in [["1 cm", "-1 cm"], ["-0.7 cm", "0.7 cm"]] {
                    let ways: [fn(PieceKey, Dart, Measure) -> PieceChange; 2] = [
                        |piece, dart, by| PieceChange::DartPoint { piece, dart, by },
                        |piece, dart, by| PieceChange::SlideDart { piece, dart, by },
                    ];
                    for way in ways {
                        let mut all = pieces.clone();
                        if apply(&mut all, &way(piece, dart, m(there))).is_err() {
                            continue;
                        }
                        seen += 1;
                        let of = |piece: &Piece| *piece.darts.iter().find(|d| d.dart == dart).unwrap();
                        let (was, is) = (of(&pieces[n]), of(&all[n]));
                        let change = way(piece, dart, m(there));
                        let by = m(there).length.cm().abs() * 10.0;
                        same(is.takes(), was.takes(), 0.01, &change);
                        same(is.point.distance(was.point), by, 0.5, &change);
                        if matches!(change, PieceChange::DartPoint { .. }) {
                            same(is.legs_apart(), was.legs_apart(), 0.1, &change);
                        }
                        runs_smooth(&all[n], 2.5).unwrap_or_else(|wrong| panic!("{change:?}: {wrong}"));
                        apply(&mut all, &way(piece, dart, m(back))).unwrap();
                        same(of(&all[n]).point.distance(was.point), 0.0, 0.5, &there);
                    }
                }
            }
        }
    }
    assert!(seen > 10, "{seen}");
}

#[test]
fn what_cannot_be_turned_says_why() {
    let (_, _, pieces) = pieces_of("pinafore-toile");
    let piece = pieces.iter().find(|piece| piece.darts.iter().any(|dart| dart.dart == Dart::Bust)).unwrap();
    let (key, dart) = (piece.key, Dart::Bust);
    let at = |edge, text: &str| EdgePlace { edge, at: m(text) };
    let (shoulder, side) = (EdgeName::Seam(Seam::ShoulderSeam), EdgeName::Seam(Seam::SideSeam));
    let turn = |to, keep: Option<&str>| PieceChange::TurnDart { piece: key, dart, to, keep: keep.map(m) };
    let slash = |from, hinge, by: &str| PieceChange::Slash { piece: key, from, hinge, by: m(by) };
    for (change, why) in [
        (turn(at(shoulder, "0.2 cm"), None), CannotBe::Misses),
        (turn(at(shoulder, "90 cm"), None), CannotBe::Misses),
        (turn(at(shoulder, "-3 cm"), None), CannotBe::Misses),
        (turn(at(EdgeName::End, "3 cm"), None), CannotBe::NotThere),
        (turn(at(shoulder, "4 cm"), Some("30 cm")), CannotBe::TooMuch),
        (slash(at(shoulder, "4 cm"), at(side, "400 cm"), "1 cm"), CannotBe::Misses),
        (slash(at(shoulder, "4 cm"), at(EdgeName::Waist, "10 cm"), "90 cm"), CannotBe::TooMuch),
        (PieceChange::DartPoint { piece: key, dart, by: m("-60 cm") }, CannotBe::TooMuch),
        (PieceChange::SlideDart { piece: key, dart, by: m("60 cm") }, CannotBe::TooMuch),
        (PieceChange::DartPoint { piece: key, dart: Dart::BackFishEye, by: m("1 cm") }, CannotBe::NotThere),
    ] {
        let mut all = pieces.clone();
        assert_eq!(apply(&mut all, &change), Err(why), "{change:?}");
        assert_eq!(all, pieces, "all of it or nothing");
    }
}

/// Slashed from it or to it, opened by a dart, or moved unevenly: what lies on a fold is straight afterwards, or nothing is done.
#[test]
fn what_lies_on_a_fold_stays_straight() {
    let (mut done, mut refused) = (0, 0);
    for (name, _, pieces) in garments() {
        for piece in &pieces {
            let Some(fold) = piece.edge(EdgeName::Fold).filter(|fold| fold.length() > 130.0) else {
                continue;
            };
            let on_fold = place(fold, fold.length() * 0.4);
            let pin = |at: &str, by: &str| EdgePin { at: m(at), by: m(by) };
            let moved = |last: &str| {
                let pins = vec![pin("4 cm", "1 cm"), pin("12 cm", last)];
                PieceChange::MoveEdge { piece: piece.key, edge: EdgeName::Fold, pins }
            };
            let turned = piece.darts.iter().map(|dart| PieceChange::TurnDart {
                piece: piece.key,
                dart: dart.dart,
                to: on_fold,
                keep: None,
            });
            let slashed = piece.edges.iter().filter(|edge| edge.name != EdgeName::Fold).flat_map(|edge| {
                let other = place(edge, edge.length() * 0.5);
                let ways = [(on_fold, other, "1 cm"), (other, on_fold, "1 cm"), (on_fold, other, "-1 cm")];
                ways.map(|(from, hinge, by)| PieceChange::Slash { piece: piece.key, from, hinge, by: m(by) })
            });
            for change in [moved("1 cm"), moved("0 cm")].into_iter().chain(turned).chain(slashed) {
                let mut all = pieces.clone();
                match apply(&mut all, &change) {
                    Ok(()) => {
                        let is = all.iter().find(|is| is.key == piece.key).unwrap();
                        assert!(is.edge(EdgeName::Fold).unwrap().is_straight(), "{name}, {change:?}");
                        done += 1;
                    }
                    Err(why) => {
                        assert_eq!(all, pieces, "all of it or nothing");
                        refused += usize::from(why == CannotBe::NotStraight);
                    }
                }
            }
        }
    }
    assert!(done > 5 && refused > 30, "{done}, {refused}");
}

/// Pinned deeper in one fold than in the other, its legs differ: closed for good, its edge runs through the middle between them, and is as long as it was but for half of that.
#[test]
fn an_uneven_dart_leaves_no_jag_where_it_was() {
    let mut document: Document = super::demo("pinafore-toile");
    document.wishes.pattern.marks.clear();
    let side = |document: &Document| {
        let found = crate::pattern::pieces(document, OfCloth::default(), Tape::Cm).unwrap();
        let edge = found.sets[0].pieces[0].edges.iter().find(|e| e.name == EdgeName::Seam(Seam::SideSeam));
        (
            edge.unwrap().long.nm,
            found.sets[0].untrue.iter().any(|u| u.title.contains("legs of the bust dart")),
        )
    };
    let (long, is_uneven) = side(&document);
    assert!(is_uneven);
    let piece = crate::pattern::pieces(&document, OfCloth::default(), Tape::Cm).unwrap().may[0].key;
    let to = EdgePlace { edge: EdgeName::Seam(Seam::ShoulderSeam), at: m("2.5 cm") };
    document.wishes.pattern.changes = vec![PieceChange::TurnDart { piece, dart: Dart::Bust, to, keep: None }];
    let (after, is_uneven) = side(&document);
    let half = 2_500_000;
    assert!(!is_uneven && ((after - long).abs() - half).abs() <= 1_000_000, "{long} became {after}");
}

/// An edge that lies flat beside a dart dips there by the angle between its legs once that is closed: truing says so, its mend draws it as it was
/// unrolled, and closed for good by turning it away the edge runs smooth.
#[test]
fn an_edge_runs_smooth_over_a_closed_dart_or_is_said_not_to() {
    let (mut seen, mut moved) = (0, 0);
    for (name, _, pieces) in garments() {
        for (n, piece) in pieces.iter().enumerate() {
            for dart in piece.darts.iter().filter(|dart| dart.is_turnable()) {
                let mut all = pieces.clone();
                lay_flat(&mut all[n], dart);
                let own = all[n].darts.iter().find(|own| own.dart == dart.dart).unwrap();
                let legs = 2.0 * (own.takes() / 2.0 / own.mouth[0].distance(own.point)).asin().to_degrees();
                let points = |pieces: &[Piece]| -> Vec<f64> {
                    let found = true_up(pieces, &[]).into_iter();
                    found
                        .filter_map(|u| if let Untrue::Mouth { turns, .. } = u { Some(turns) } else { None })
                        .collect()
                };
                let found = points(&all);
                assert!(found.len() == usize::from(legs > 3.0), "{name}, {:?}: {found:?}", dart.dart);
                assert!(
                    found.iter().all(|turns| (turns + legs).abs() < 0.5),
                    "{name}: {found:?}, not {legs}"
                );
                // As documents had it when only its legs were made equal.
                let change = serde_json::json!({ "even_legs": { "piece": piece.key, "dart": dart.dart } });
                apply(&mut all, &serde_json::from_value(change).unwrap()).unwrap();
                assert_eq!(points(&all), Vec::<f64>::new(), "{name}, {:?}", dart.dart);
                for (is, was) in all[n].edges.iter().zip(&piece.edges) {
                    let off = (0..=40).map(|k| was.at(was.length() * f64::from(k) / 40.0).0);
                    let off = off.map(|p| is.nearest(p).distance(p)).fold(0.0, f64::max);
                    assert!(off < 0.01, "{name}, {:?}, {:?}: {off}", dart.dart, was.name);
                }
                let long = piece.edges[0].length();
                let to = EdgePlace {
                    edge: piece.edges[0].name,
                    at: Measure { length: Length::from_cm(long / 15.0), unit: Unit::Mm },
                };
                let turn = PieceChange::TurnDart { piece: piece.key, dart: dart.dart, to, keep: None };
                if apply(&mut all, &turn).is_ok() {
                    runs_smooth(&all[n], 2.0).unwrap_or_else(|wrong| panic!("{name}, {turn:?}: {wrong}"));
                    seen += 1;
                }
                // Turned to any other edge, and then moved along it, it leaves nothing behind.
                for to in piece.edges.iter().filter(|edge| edge.length() > 150.0) {
                    let to = EdgePlace { edge: to.name, at: m("7 cm") };
                    let turn = PieceChange::TurnDart { piece: piece.key, dart: dart.dart, to, keep: None };
                    let slide =
                        |by: &str| PieceChange::SlideDart { piece: piece.key, dart: dart.dart, by: m(by) };
                    for by in ["1.4 cm", "4 cm", "-0.9 cm"] {
                        let mut all = pieces.clone();
                        if apply(&mut all, &turn).and_then(|()| apply(&mut all, &slide(by))).is_ok() {
                            runs_smooth(&all[n], 2.5)
                                .unwrap_or_else(|wrong| panic!("{name}, {turn:?}, {by}: {wrong}"));
                            moved += 1;
                        }
                    }
                }
            }
        }
    }
    assert!(seen > 3 && moved > 9, "{seen}, {moved}");
}

/// Closed for good, a dart whose legs differ leaves another one that begins beside it as it was.
#[test]
fn a_dart_beside_one_that_is_closed_takes_what_it_took() {
    let mut seen = 0;
    for (name, _, pieces) in garments() {
        for (n, piece) in pieces.iter().enumerate() {
            let Some(dart) = piece.darts.iter().find(|dart| dart.is_turnable()).copied() else { continue };
            let home = piece.edges.iter().find(|edge| is_on(edge, &dart)).unwrap();
            for beside in [25.0, -25.0, 40.0, -40.0] {
                let mut all = pieces.clone();
                let way = dart.mouth[1] - dart.mouth[0];
                let ends = [0.3, 0.7].map(|share| {
                    let middle = dart.mouth[0].lerp(dart.mouth[1], share);
                    home.nearest(middle + way.normalize() * beside)
                });
                let point =
                    ends[0].midpoint(ends[1]) + (dart.point - dart.mouth[0].midpoint(dart.mouth[1])) * 0.4;
                let other = PieceDart { dart: Dart::Shoulder, mouth: ends, point, ..dart };
                all[n].darts.push(other);
                all[n]
                    .darts
                    .iter_mut()
                    .filter(|own| own.dart == dart.dart)
                    .for_each(|own| own.point += way * 0.2);
                let long = piece.edges[0].length();
                let at = Measure { length: Length::from_cm(long / 15.0), unit: Unit::Mm };
                let to = EdgePlace { edge: piece.edges[0].name, at };
                let turn = PieceChange::TurnDart { piece: piece.key, dart: dart.dart, to, keep: None };
                if apply(&mut all, &turn).is_ok() {
                    let is = all[n].darts.iter().find(|own| own.dart == Dart::Shoulder).unwrap();
                    assert!(
                        (is.takes() - other.takes()).abs() < 0.05,
                        "{name}, {beside}: {}, not {}",
                        is.takes(),
                        other.takes()
                    );
                    seen += 1;
                }
            }
        }
    }
    assert!(seen > 3, "{seen}");
}

/// Where a place is measured from is where the words say, of every edge of every piece.
#[test]
fn places_are_measured_from_where_it_is_said() {
    let mut seen = std::collections::BTreeSet::new();
    for (name, _, pieces) in garments() {
        for (piece, edge) in pieces.iter().flat_map(|piece| piece.edges.iter().map(move |edge| (piece, edge)))
        {
            let says = super::super::words::measured_from(piece.key, edge.name);
            let [from, other] = match is_measured_from_start(edge) {
                true => [edge.start(), edge.end()],
                false => [edge.end(), edge.start()],
            };
            let is_so = if says == "from its upper end" { from.y > other.y } else { from.x < other.x };
            assert!(is_so, "{name}, {:?}, {:?}: {says}, {from:?} and not {other:?}", piece.key, edge.name);
            seen.insert(says);
        }
    }
    assert_eq!(seen.len(), 3);
}

/// Each says in its chip what it does, with its figures, on either tape.
#[test]
fn turning_is_told_with_its_figures() {
    let mut document: Document = super::demo("pinafore-toile");
    let may = crate::pattern::pieces(&document, OfCloth::default(), Tape::Cm).unwrap().may;
    let piece = may.iter().find(|piece| piece.darts.contains(&Dart::Bust)).unwrap().key;
    let dart = Dart::Bust;
    let at = |edge, text: &str| EdgePlace { edge, at: m(text) };
    let shoulder = at(EdgeName::Seam(Seam::ShoulderSeam), "2.5 cm");
    document.wishes.pattern.changes = vec![
        PieceChange::SlideDart { piece, dart, by: m("-1 cm") },
        PieceChange::DartPoint { piece, dart, by: m("-1.5 cm") },
        PieceChange::TurnDart { piece, dart, to: shoulder, keep: Some(m("1 cm")) },
        PieceChange::Slash {
            piece,
            from: at(EdgeName::Waist, "3 cm"),
            hinge: at(EdgeName::Neckline, "4 cm"),
            by: m("2 cm"),
        },
    ];
    let found = crate::pattern::pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
    let entered: Vec<_> = found.chips.iter().filter(|chip| chip.entered.is_some()).collect();
    insta::assert_debug_snapshot!(entered.iter().map(|c| (&c.words[..], c.cannot)).collect::<Vec<_>>());
}

/// A dart that is gathered, or eased in, is sewn as it was along its edge and takes nothing beside it; it is no dart to be turned any more, and
/// files keep it as it is.
#[test]
fn a_dart_that_is_not_stitched_is_drawn_up_along_its_edge() {
    let (mut seen, mut too_full) = (0, 0);
    for name in DEMO {
        let (garment, _, all) = pieces_of(name);
        for piece in &all {
            for dart in piece.darts.iter().filter(|dart| dart.is_turnable()) {
                let loosen = |into| {
                    let mut next = all.clone();
                    let change = PieceChange::LooseDart { piece: piece.key, dart: dart.dart, into };
                    apply(&mut next, &change).map(|()| next)
                };
                let loose = loosen(Fullness::Gathers).unwrap();
                let is = loose.iter().find(|p| p.key == piece.key).unwrap();
                for (a, b) in is.edges.iter().zip(&piece.edges) {
                    assert!(
                        (is.sewn(a) - piece.sewn(b)).abs() < 1e-9,
                        "{name}, {:?}, {:?}",
                        piece.key,
                        a.name
                    );
                }
                for (level, y) in &piece.levels {
                    let [now, was] = [is, piece].map(|piece| piece.across(*y).unwrap());
                    assert!(now >= was - 1e-9, "{name}, {level:?}");
                }
                let untrue = |pieces: &[Piece]| true_up(pieces, &joins(&garment, pieces));
                let stays = |found: &Untrue| !matches!(found, Untrue::Legs { .. });
                let was: Vec<Untrue> = untrue(&all).into_iter().filter(stays).collect();
                assert_eq!(untrue(&loose), was, "{name}, {:?}", dart.dart);
                let mut again = loose.clone();
                let turn = PieceChange::DartPoint { piece: piece.key, dart: dart.dart, by: m("-1 cm") };
                assert_eq!(apply(&mut again, &turn), Err(CannotBe::NotThere));
                let home = piece.edges.iter().find(|edge| is_on(edge, dart)).unwrap();
                let is_full = dart.takes() > piece.sewn(home) / 10.0;
                assert_eq!(loosen(Fullness::Ease).err(), is_full.then_some(CannotBe::TooFull), "{name}");
                too_full += usize::from(is_full);
                seen += 1;
            }
        }
    }
    assert!(seen > 5 && too_full > 0 && too_full < seen, "{seen}, {too_full}");
}

/// What is gathered is told as such, everywhere.
#[test]
fn what_is_gathered_is_told() {
    let mut document = demo("school-skirt");
    document.try_ons.clear();
    let bare = pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
    let (piece, dart) = bare.may.iter().find_map(|may| Some((may.key, *may.darts.first()?))).unwrap();
    document.wishes.pattern.changes = vec![PieceChange::LooseDart { piece, dart, into: Fullness::Gathers }];
    let told = pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
    let words: Vec<String> = told.chips.iter().map(|chip| chip.words.clone()).collect();
    let list = told.cutting_list();
    let list: Vec<&str> = list.lines().filter(|line| line.contains("gathered")).collect();
    let joins = told.sets[0].joins.iter().map(|join| format!("{}: {}", join.name, join.says));
    insta::assert_debug_snapshot!((words, list, joins.collect::<Vec<_>>(), &told.round));
}
