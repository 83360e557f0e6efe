//! Edges that are moved, armholes and shoulders that are drawn anew.

use super::super::turn::is_measured_from_start;
use super::*;
use crate::fitting::End;
use crate::garment::{Neckline, Width};
use crate::pattern::drawn::drawn_of;
use crate::pattern::lay::lay;
use crate::pattern::mouth::lay_flat;
use crate::pattern::piece::is_corner;
use crate::pattern::upper::has_armhole;
use crate::pattern::{OfCloth, pieces};
use crate::work::{Pattern, Wishes};
use kurbo::{ParamCurveArclen, Point};

fn seam(seam: Seam) -> EdgeName {
    EdgeName::Seam(seam)
}

fn ends(piece: &Piece, name: EdgeName) -> [Point; 2] {
    piece.edge(name).map(|edge| [edge.start(), edge.end()]).unwrap()
}

/// Front and back changed alike, wherever both have all of their armhole.
fn both(pieces: &[Piece], change: impl Fn(PieceKey) -> PieceChange) -> Vec<Piece> {
    let mut next = pieces.to_vec();
    for piece in pieces.iter().filter(|piece| has_armhole(piece)) {
        let done = apply(&mut next, &change(piece.key));
        // The shoulder of a panel does not end at the neck.
        let is_panel = piece.edge(EdgeName::Neckline).is_none();
        assert!(done.is_ok() || (is_panel && done == Err(CannotBe::GoesOn)), "{:?}: {done:?}", piece.key);
        if done.is_err() {
            return pieces.to_vec();
        }
    }
    next
}

fn with_armholes() -> impl Iterator<Item = (Garment, Vec<Piece>)> {
    let examples = DEMO.into_iter().map(|name| {
        let (garment, _, pieces) = pieces_of(name);
        (garment, pieces)
    });
    let wearer = demo("pinafore-toile").wearer;
    let begun = made::with_panels(false).map(move |garment| {
        let pieces = unroll(&garment, &wearer, None);
        (garment, pieces)
    });
    examples.chain(begun).filter(|(_, pieces)| pieces.iter().any(has_armhole))
}

/// What does not match of shapes: lengths of armholes may differ from their sleeves, which were not changed.
fn corners(garment: &Garment, pieces: &[Piece]) -> Vec<Untrue> {
    let found = true_up(pieces, &joins(garment, pieces));
    found
        .into_iter()
        .filter(|u| matches!(u, Untrue::Corner { .. } | Untrue::Square { .. } | Untrue::Legs { .. }))
        .collect()
}

/// An armhole is lowered along the side and cut in by its figures, stays on the shoulder, and still runs smooth across both seams.
#[test]
fn an_armhole_is_lowered_and_cut_in_by_its_figures() {
    let mut seen = 0;
    for (garment, old) in with_armholes() {
        for [lower, inwards] in
            [["1.2 cm", "0 cm"], ["-0.8 cm", "0 cm"], ["0 cm", "0.7 cm"], ["0.9 cm", "-0.5 cm"]]
        {
            let [down, into] = [lower, inwards].map(|text| m(text).length.cm() * 10.0);
            let new =
                both(&old, |piece| PieceChange::Armhole { piece, lower: m(lower), inwards: m(inwards) });
            for (new, old) in new.iter().zip(&old).filter(|(_, old)| has_armhole(old)) {
                let what = format!("{:?}, {:?}, {lower}, {inwards}", garment.kind, old.key);
                let side = |piece: &Piece| piece.edge(seam(garment.side_seam())).unwrap().length();
                assert!((side(old) - side(new) - down).abs() < 0.05, "{what}");
                let [is, was] = [new, old].map(|piece| ends(piece, seam(Seam::ShoulderSeam)));
                assert!(is.iter().zip(was).all(|(a, b)| a.distance(b) < 1e-6), "{what}");
                if down == 0.0 {
                    let [is, was] = [new, old].map(|piece| piece.edge(seam(Seam::ArmholeSeam)).unwrap());
                    let (middle, _) = was.at(was.length() / 2.0);
                    let off = is
                        .curves
                        .iter()
                        .map(|c| c.nearest(middle, 1e-6).distance_sq)
                        .fold(f64::INFINITY, f64::min);
                    assert!((off.sqrt() - into.abs()).abs() < 0.1, "{what}: {}", off.sqrt());
                    assert!(new.area() < old.area(), "{what}: further in is less cloth");
                }
                seen += 1;
            }
            assert_eq!(
                corners(&garment, &new),
                corners(&garment, &old),
                "{:?}, {lower}, {inwards}",
                garment.kind
            );
        }
    }
    assert!(seen > 60, "{seen}");
}

/// A shoulder is as much shorter and lower as it says; lowered, it is as long as it was, and so is its armhole.
#[test]
fn a_shoulder_is_shortened_and_sloped_by_its_figures() {
    let mut seen = 0;
    for (garment, old) in with_armholes() {
        for [shorter, lower] in
            [["1.1 cm", "0 cm"], ["-0.6 cm", "0 cm"], ["0 cm", "1 cm"], ["0 cm", "-0.8 cm"]]
        {
            let [less, down] = [shorter, lower].map(|text| m(text).length.cm() * 10.0);
            let new =
                both(&old, |piece| PieceChange::Shoulder { piece, shorter: m(shorter), lower: m(lower) });
            if new == old {
                continue;
            }
            for (new, old) in new.iter().zip(&old).filter(|(_, old)| has_armhole(old)) {
                let what = format!("{:?}, {:?}, {shorter}, {lower}", garment.kind, old.key);
                let long = |name: Seam| [old, new].map(|piece| piece.edge(seam(name)).unwrap().length());
                let [was, is] = long(Seam::ShoulderSeam);
                assert!((was - is - less).abs() < 0.05, "{what}: {was} and {is}");
                let [tip, neck] = ends(old, seam(Seam::ShoulderSeam));
                let [new_tip, new_neck] = ends(new, seam(Seam::ShoulderSeam));
                assert!(new_neck.distance(neck) < 1e-6, "{what}");
                if less == 0.0 {
                    assert!((tip.y - new_tip.y - down).abs() < 0.05, "{what}");
                    let [was, is] = long(Seam::ArmholeSeam);
                    assert!((was - is).abs() < 2.0, "{what}: an armhole of {is} instead of {was}");
                }
                seen += 1;
            }
            assert_eq!(
                corners(&garment, &new),
                corners(&garment, &old),
                "{:?}, {shorter}, {lower}",
                garment.kind
            );
        }
    }
    assert!(seen > 60, "{seen}");
}

/// An edge is moved by what its pins say, at each of them and square to it; between them no further than the deepest. Beside a dart that
/// is closed, where it runs smooth over it, it lies off by no more than it was bent there for that.
#[test]
fn an_edge_is_moved_by_its_pins() {
    let mut seen = 0;
    let without_darts = |piece: &Piece| {
        let mut flat = piece.clone();
        piece.darts.iter().for_each(|dart| lay_flat(&mut flat, dart));
        Piece { darts: Vec::new(), ..flat }
    };
    let both = |(name, _, all): (&'static str, Garment, Vec<Piece>)| {
        let flat = all.iter().map(without_darts).collect();
        [(name, all), (name, flat)]
    };
    for (name, all) in garments().flat_map(both) {
        for piece in &all {
            for edge in piece.edges.iter().filter(|edge| edge.length() > 150.0 && !edge.second) {
                // What turns there of itself is bent no more: it lies off by what it was bent.
                let flat = without_darts(piece);
                let flat = flat.edges.iter().find(|e| e.name == edge.name && !e.second).unwrap();
                let within = |p: Point| 0.2 + flat.nearest(p).distance(p);
                let long = edge.length();
                let figures = [
                    [0.0, 6.0, 0.0],
                    [-4.0, -9.0, 0.0],
                    [5.0, 0.0, -3.0],
                    [11.0, 11.0, 11.0],
                    [-11.0, -11.0, -11.0],
                ];
                for by in figures {
                    let places = [0.2, 0.5, 0.8].map(|share| long * share);
                    let pins = places.iter().zip(by).map(|(at, by)| {
                        let at = if is_measured_from_start(edge) { *at } else { long - at };
                        let mm = |mm: f64| Measure { length: Length::from_cm(mm / 10.0), unit: Unit::Mm };
                        EdgePin { at: mm(at), by: mm(by) }
                    });
                    let change =
                        PieceChange::MoveEdge { piece: piece.key, edge: edge.name, pins: pins.collect() };
                    let mut next = all.clone();
                    if let Err(why) = apply(&mut next, &change) {
                        assert_ne!(
                            why,
                            CannotBe::ThroughDart,
                            "{name}, {change:?}: darts go with their edges"
                        );
                        continue;
                    }
                    let moved = next.iter().find(|p| p.key == piece.key).unwrap().edge(edge.name).unwrap();
                    let off = |p: Point| {
                        moved
                            .curves
                            .iter()
                            .map(|c| c.nearest(p, 1e-6).distance_sq)
                            .fold(f64::INFINITY, f64::min)
                            .sqrt()
                    };
                    for (at, by) in places.into_iter().zip(by) {
                        let (on, way) = edge.at(at);
                        let wanted = on + kurbo::Vec2::new(-way.y, way.x) * by;
                        assert!(
                            off(wanted) < within(on),
                            "{} from its pin {at} {by} {name}, {change:?}",
                            off(wanted)
                        );
                    }
                    let deepest = by.into_iter().map(f64::abs).fold(0.0, f64::max);
                    for p in (0..=20).map(|n| edge.at(long * (0.2 + 0.6 * f64::from(n) / 20.0)).0) {
                        assert!(off(p) < deepest + within(p), "{} for {deepest}: {name}, {change:?}", off(p));
                    }
                    seen += 1;
                }
            }
        }
    }
    assert!(seen > 150, "{seen}");
}

/// A seam that is moved on paper by some figures runs where it does when it is pinned by them on the body.
#[test]
fn an_edge_is_moved_along_the_line_that_is_sewn_on_cloth() {
    let mut document = demo("jersey-top");
    document.wishes.pattern = Pattern::default();
    document.try_ons.clear();
    document.record.clear();
    let state = document.newest().unwrap();
    let mut try_on = crate::try_on::TryOn::on(state.id, jiff::civil::Date::default());
    let whole = state.garment.seam(Seam::SideSeam).unwrap().length.length;
    let told = |document: &Document| pieces(document, OfCloth::default(), Tape::Cm).unwrap();
    let bare = told(&document);
    let is_of = |name: EdgeName| name == seam(Seam::SideSeam);
    let long = bare.sets[0].joins.iter().find(|join| join.name == "Side seam").unwrap().walked[0].long_mm;
    let by = [[0.15, 0.4], [0.3, 0.9], [0.45, 1.2], [0.6, 1.0], [0.75, 0.5], [0.88, 0.0]];
    let place = |share: f64, cm: f64| Measure { length: Length::from_cm(cm * share), unit: Unit::Mm };
    let depth = |cm: f64| Measure { length: Length::from_cm(cm), unit: Unit::Cm };
    // Measured down from the underarm on paper, up from the hem on the body.
    let pins = by.map(|[up, by]| EdgePin { at: place(1.0 - up, long / 10.0), by: depth(by) });
    let mut moved = document.clone();
    let sides = bare.may.iter().filter(|may| may.edges.iter().any(|edge| is_of(edge.name)));
    let change =
        |piece: PieceKey| PieceChange::MoveEdge { piece, edge: seam(Seam::SideSeam), pins: pins.to_vec() };
    moved.wishes.pattern.changes = sides.map(|may| change(may.key)).collect();
    let readings = GarmentSide::BOTH.into_iter().flat_map(|side| {
        let reading = pin(side, "0 cm", "0 cm");
        by.map(|[up, by]| Reading { station: place(up, whole.cm()), amount: depth(by), ..reading.clone() })
    });
    let lower = Some(End::RunsOff {});
    let change = SeamChange { readings: readings.collect(), lower, ..SeamChange::of(Seam::SideSeam) };
    try_on.changes = vec![change.into()];
    document.try_ons = vec![try_on];
    let [moved, pinned] = [moved, document].map(|document| told(&document).sets[0].pieces.clone());
    let mut seen = 0;
    for (moved, pinned) in moved.iter().zip(&pinned) {
        for (a, b) in moved.edges.iter().zip(&pinned.edges) {
            let [one, other] = [a, b].map(|edge| kurbo::BezPath::from_svg(&edge.path).unwrap());
            let far = one.segments().map(|s| {
                let p = s.eval(0.5);
                other.segments().map(|s| s.nearest(p, 1e-6).distance_sq).fold(f64::INFINITY, f64::min).sqrt()
            });
            let far = far.fold(0.0, f64::max);
            assert!(far < 0.5, "{}, {}: {far} mm apart", moved.name, a.words);
            seen += usize::from(is_of(a.name) && moved.old.is_some());
        }
    }
    assert_eq!(seen, 2);
}

/// Whatever edge is moved, what is cut stays beside what is sewn: no corner runs out further than a mitre does.
#[test]
fn what_is_cut_stays_beside_an_edge_that_is_moved() {
    let mut seen = 0;
    for (name, _, all) in garments() {
        for piece in &all {
            let most = piece.edges.iter().map(|edge| edge.allowance).fold(0.0, f64::max);
            for edge in &piece.edges {
                for pins in [
                    &[("4 cm", "0.8 cm"), ("8 cm", "0 cm")][..],
                    &[("5 cm", "1.1 cm")],
                    &[("5 cm", "2.5 cm")],
                    &[("5 cm", "-1.1 cm")],
                ] {
                    let pins = pins.iter().map(|(at, by)| EdgePin { at: m(at), by: m(by) }).collect();
                    let change = PieceChange::MoveEdge { piece: piece.key, edge: edge.name, pins };
                    let mut next = all.clone();
                    if apply(&mut next, &change).is_err() {
                        continue;
                    }
                    let moved = next.iter().find(|p| p.key == piece.key).unwrap();
                    let (cut, sewn) = (cut_line(moved).bounding_box(), moved.bounds());
                    let room = sewn.inflate(3.2 * most, 3.2 * most);
                    assert!(room.union(cut) == room, "{name}, {change:?}: {cut:?} beside {sewn:?}");
                    seen += 1;
                }
            }
        }
    }
    assert!(seen > 200, "{seen}");
}

/// However finely an edge was drawn, the corner of an edge beside it takes it along: what is chalked on pieces of short curves, as points in a file
/// give them, comes to the same as on long ones.
#[test]
fn pieces_of_short_curves_are_moved_as_those_of_long_ones() {
    let mut seen = 0;
    for name in DEMO {
        let mut document = demo(name);
        document.wishes.pattern = Pattern::default();
        let state = document.try_ons.last().map_or(document.newest().unwrap().id, |try_on| try_on.state);
        let garment = document.state(state).unwrap().garment.clone();
        let long = unroll(&garment, &document.wearer, None);
        let mut short = long.clone();
        for edge in short.iter_mut().flat_map(|piece| &mut piece.edges) {
            let parts = |c: &kurbo::CubicBez| {
                let (c, count) = (*c, (c.arclen(0.01) / 3.0).ceil().max(1.0) as usize);
                (0..count).map(move |n| c.subsegment(n as f64 / count as f64..(n + 1) as f64 / count as f64))
            };
            edge.curves = edge.curves.iter().flat_map(parts).collect();
        }
        let told = |all: &[Piece]| {
            let mut document = document.clone();
            document.wishes.pattern.drawn = all.iter().map(drawn_of).collect();
            pieces(&document, OfCloth::default(), Tape::Cm).unwrap()
        };
        let [long, short] = [told(&long), told(&short)];
        for (one, other) in
            long.sets.iter().zip(&short.sets).flat_map(|(a, b)| a.pieces.iter().zip(&b.pieces))
        {
            let paths = [&one.outline, &other.outline].map(|path| kurbo::BezPath::from_svg(path).unwrap());
            for (a, b) in [[0, 1], [1, 0]].map(|[a, b]| (&paths[a], &paths[b])) {
                for segment in a.segments() {
                    let p = segment.eval(0.5);
                    let far =
                        b.segments().map(|s| s.nearest(p, 1e-6).distance_sq).fold(f64::INFINITY, f64::min);
                    assert!(far.sqrt() < 1.0, "{name}, {}: {} mm apart at {p:?}", one.name, far.sqrt());
                    seen += 1;
                }
            }
        }
    }
    assert!(seen > 500, "{seen}");
}

/// Taken in at the underarm, an armhole shrinks by as much on each of its edges, and let out it grows: it is the seam that goes in, not the curve.
/// As that is drawn anew so that the underarm stays smooth, it may be a chalk's breadth off where it turns soonest.
#[test]
fn an_armhole_shrinks_by_what_is_taken_in_at_the_underarm() {
    let mut seen = 0;
    for (garment, old) in with_armholes() {
        for by in ["0.6 cm", "1.1 cm", "-0.8 cm"] {
            let pins = vec![EdgePin { at: m("5 cm"), by: m(by) }];
            let new = both(&old, |piece| PieceChange::MoveEdge {
                piece,
                edge: seam(garment.side_seam()),
                pins: pins.clone(),
            });
            for (new, old) in new.iter().zip(&old).filter(|(_, old)| has_armhole(old)) {
                let [is, was] = [new, old].map(|piece| piece.edge(seam(Seam::ArmholeSeam)).unwrap().length());
                let by = m(by).length.cm() * 10.0;
                assert!(
                    (was - is - by).abs() < 1.5,
                    "{:?}, {:?}: {} instead of {by}",
                    garment.kind,
                    old.key,
                    was - is
                );
                seen += 1;
            }
        }
    }
    assert!(seen > 50, "{seen}");
}

/// Shoulders that leave no room for the neck, or too much of it, are told with what a neckline between them goes round; those that were measured right are not.
#[test]
fn shoulders_that_no_neckline_fits_between_are_told() {
    let told = |name: &str, change: &dyn Fn(&mut Garment)| {
        let mut document = demo(name);
        (document.try_ons, document.wishes) = (Vec::new(), Wishes::default());
        change(&mut document.states.last_mut().unwrap().garment);
        let found = pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
        let mut lines = found.not_drawn.into_iter().filter(|line| line.contains("neckline"));
        lines.next().map(|line| line.split(": measure").next().unwrap().to_owned())
    };
    for name in DEMO {
        assert_eq!(told(name, &|_| {}), None, "{name}");
    }
    let shorter = |garment: &mut Garment| {
        let seam = garment.seams.iter_mut().find(|facts| facts.seam == Seam::ShoulderSeam).unwrap();
        seam.length = m("14 cm");
    };
    let wide = |garment: &mut Garment| {
        let neck = garment.levels.iter_mut().find(|level| level.level == Level::Neck).unwrap();
        neck.width = Width::Girth(m("95 cm"));
    };
    insta::assert_debug_snapshot!([
        told("concert-shirt", &shorter),
        told("concert-shirt", &wide),
        told("jersey-top", &wide),
        // What wraps over goes on below what was measured.
        told("pinafore-toile", &wide),
    ]);
}

/// The corner of a square neckline stays one, however it is moved: lowered alike all along, it is the same neckline, lower and wider.
#[test]
fn the_corner_of_a_square_neckline_stays_one() {
    for (kind, seam_of_it) in [("jersey-top", true), ("tea-dress", false)] {
        let mut document = demo(kind);
        (document.try_ons, document.wishes) = (Vec::new(), Wishes::default());
        document.states.last_mut().unwrap().garment.neckline = Some(Neckline::Square);
        let laid = lay(&document, Tape::Cm).unwrap();
        let piece = laid.sets[0]
            .pieces
            .iter()
            .find(|p| p.key.face == PieceFace::Front && p.edge(EdgeName::Neckline).is_some());
        let old = piece.unwrap().clone();
        assert_eq!(seam_of_it, laid.garment.seam(Seam::NeckSeam).is_some());
        for by in ["1 cm", "-0.7 cm", "2.5 cm"] {
            let pins = vec![EdgePin { at: m("0 cm"), by: m(by) }, EdgePin { at: m("16 cm"), by: m(by) }];
            let mut new = vec![old.clone()];
            apply(&mut new, &PieceChange::MoveEdge { piece: old.key, edge: EdgeName::Neckline, pins })
                .unwrap();
            let corner = |piece: &Piece| {
                let curves = &piece.edge(EdgeName::Neckline).unwrap().curves;
                let mut all =
                    curves.windows(2).filter(|pair| is_corner(&pair[0], &pair[1])).map(|pair| pair[1].p0);
                let only = all.next();
                assert_eq!(all.next(), None, "one corner, {kind}, {by}");
                only.unwrap_or_else(|| panic!("no corner, {kind}, {by}"))
            };
            let moved = corner(&new[0]) - corner(&old);
            let mm = m(by).length.cm() * 10.0;
            // Its bottom lies level, its side leans a little.
            assert!(
                (moved.y + mm).abs() < 0.3 && (moved.x - mm).abs() < 0.15 * mm.abs(),
                "{kind}, {by}: {moved:?}"
            );
        }
    }
}
