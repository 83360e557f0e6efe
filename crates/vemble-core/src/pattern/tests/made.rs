//! Pieces cut in two and joined again, laid on the fold, and made from others.

use super::super::turn::is_measured_from_start;
use super::drawn::drawn;
use super::turned::cloth;
use super::*;
use crate::body::{Proportions, Wearer};
use crate::garment::{Dart, DartFacts, starting_seam};
use crate::pattern::part::split_piece;
use crate::pattern::truing::angle;
use crate::pattern::{FieldEmpty, OfCloth, PieceDart, PieceMay, Pieces, pieces};
use crate::work::{EdgePin, EdgePlace, Fullness, Pattern, PieceDoes, PieceFace, PieceLayer, PieceShare};
use kurbo::Affine;
use std::collections::BTreeSet;

fn measure(mm: f64) -> Measure {
    Measure { length: Length::from_cm(mm / 10.0), unit: Unit::Cm }
}

fn place(edge: &Edge, share: f64) -> EdgePlace {
    let along = edge.length() * share;
    let at = if is_measured_from_start(edge) { along } else { edge.length() - along };
    EdgePlace { edge: edge.name, at: measure(at) }
}

fn near(is: f64, wanted: f64, within: f64, what: &dyn std::fmt::Debug) {
    assert!((is - wanted).abs() < within, "{what:?}: {is} instead of {wanted}");
}

/// Garments as they start; with every seam that their kind may have.
pub(super) fn with_panels(panels: bool) -> impl Iterator<Item = Garment> {
    with_panels_on(demo("pinafore-toile").wearer, panels)
}

/// Those that run down beside the one at the side.
pub(super) const LONG_SEAMS: [Seam; 4] =
    [Seam::PrincessFront, Seam::PanelFront, Seam::PanelBack, Seam::PrincessBack];

/// The same on any wearer.
pub(super) fn with_panels_on(wearer: Wearer, panels: bool) -> impl Iterator<Item = Garment> {
    Kind::ALL.iter().copied().map(move |kind| {
        let template = kind.template();
        let cloth = cloth_named(template.cloth).unwrap();
        let mut garment =
            begin(Beginning { name: "it".into(), kind, toile: true, wearer: wearer.clone(), cloth });
        for spec in template.may_have.iter().filter(|_| panels) {
            let facts = starting_seam(&garment, &Proportions::of(&wearer), spec);
            garment.seams.extend(Some(facts).filter(|f| garment.seam(f.seam).is_none()));
        }
        garment
    })
}

/// Those that have shoulders, with a dart in them.
pub(super) fn with_shoulder_darts() -> impl Iterator<Item = Garment> {
    with_panels(false).filter(Garment::hangs_from_shoulders).map(|mut garment| {
        let dart = Dart::Shoulder;
        let [fold_depth, length, from_centre] = [m("0.7 cm"), m("8 cm"), m("9 cm")];
        garment.darts.push(DartFacts { dart, name: None, fold_depth, length, from_centre, assumed: true });
        garment
    })
}

/// What it takes its seam is cut longer by; the armhole stays as it was found, and so does the shoulder once it is sewn.
#[test]
fn a_shoulder_dart_is_opened_in_its_seam() {
    let wearer = demo("pinafore-toile").wearer;
    let mut seen = 0;
    for garment in with_shoulder_darts() {
        let mut without = garment.clone();
        without.darts.retain(|facts| facts.dart != Dart::Shoulder);
        let [all_is, all_was] = [&garment, &without].map(|garment| unroll(garment, &wearer, None));
        for is in &all_is {
            let what = (garment.kind, is.key);
            let dart = is.darts.iter().find(|dart| dart.dart == Dart::Shoulder);
            if let Some(dart) = dart {
                seen += 1;
                near(dart.takes(), 14.0, 0.01, &what);
                near(dart.legs_apart(), 0.0, 0.01, &what);
            }
            for edge in &is.edges {
                let opens = dart.is_some() && edge.name == EdgeName::Seam(Seam::ShoulderSeam);
                let longer = if opens { 14.0 } else { 0.0 };
                let [now, before] = [&all_is, &all_was].map(|all| sewn(all, is.key, edge.name));
                // Both edges of a yoke end on an armhole that is drawn anew, as long, to a tip that lies further out.
                let within = if edge.name == EdgeName::Seam(Seam::YokeSeam) { 8.0 } else { 1.0 };
                near(now, before, within, &(what, edge.name));
                if edge.name == EdgeName::Seam(Seam::ShoulderSeam) {
                    near(is.taken_of(edge), longer, 1.0, &(what, edge.name));
                }
            }
        }
    }
    assert!(seen > 4, "{seen}");
}

fn panels() -> impl Iterator<Item = (Garment, Vec<Piece>)> {
    let wearer = demo("pinafore-toile").wearer;
    with_panels(true).map(move |garment| {
        let pieces = unroll(&garment, &wearer, None);
        (garment, pieces)
    })
}

/// All edges of a name together, sewn.
fn sewn(pieces: &[Piece], of: PieceKey, name: EdgeName) -> f64 {
    let beside = pieces.iter().filter(|p| PieceKey { share: of.share, ..p.key } == of);
    let edges = beside.flat_map(|p| p.edges.iter().filter(|e| e.name == name).map(|e| p.sewn(e)));
    edges.sum()
}

fn names(pieces: &[Piece]) -> Vec<EdgeName> {
    let mut all: Vec<EdgeName> = pieces.iter().flat_map(|p| p.edges.iter().map(|e| e.name)).collect();
    all.sort_unstable();
    all.dedup();
    all
}

fn area(pieces: &[Piece]) -> f64 {
    pieces.iter().map(Piece::area).sum()
}

/// Between any two edges of any piece: nothing is lost, both parts match along their seam, and joined again they are what they were.
#[test]
fn a_piece_that_is_cut_in_two_is_joined_again() {
    let mut seen = BTreeSet::new();
    let mut count = 0;
    for (name, garment, whole) in garments() {
        for piece in &whole {
            let pairs = piece.edges.iter().flat_map(|a| piece.edges.iter().map(move |b| (a, b)));
            for (a, b) in pairs.filter(|(a, b)| a.name < b.name && !a.second && !b.second) {
                for shares in [[0.5, 0.5], [0.3, 0.7]] {
                    let [from, to] = [place(a, shares[0]), place(b, shares[1])];
                    let change = PieceChange::Split { piece: piece.key, from, to };
                    let mut parts = whole.clone();
                    match apply(&mut parts, &change) {
                        Ok(()) => {}
                        Err(CannotBe::Misses | CannotBe::ThroughDart | CannotBe::NoName) => continue,
                        Err(why) => panic!("{name}, {change:?}: {why:?}"),
                    }
                    count += 1;
                    near(area(&parts), area(&whole), 1.0, &change);
                    let names = |all: &[Piece]| {
                        let is_own = |p: &&Piece| PieceKey { share: piece.key.share, ..p.key } == piece.key;
                        names(&all.iter().filter(is_own).cloned().collect::<Vec<_>>())
                    };
                    for edge in names(&whole) {
                        let [is, was] = [&parts, &whole].map(|all| sewn(all, piece.key, edge));
                        near(is, was, 0.05, &(name, &change, edge));
                    }
                    let seam = names(&parts).into_iter().find(|n| !names(&whole).contains(n)).unwrap();
                    let EdgeName::Seam(seam) = seam else { panic!("{seam:?}") };
                    let n = whole.iter().position(|p| p.key == piece.key).unwrap();
                    let halves = &parts[n..n + 2];
                    seen.insert((halves[0].key.share, halves[1].key.share, seam));
                    assert!(halves.iter().all(|half| half.was == piece.was && !crosses(half)));
                    let is_across = seam == Seam::YokeSeam;
                    let [one, other] = [0, 1].map(|k| halves[k].bounds().center());
                    let in_order = match piece.key.face {
                        PieceFace::Round => halves[0].area() > halves[1].area(),
                        PieceFace::Front | PieceFace::Back if is_across => one.y > other.y,
                        PieceFace::Front | PieceFace::Back => one.x < other.x,
                    };
                    assert!(in_order, "{change:?}");
                    let own: Vec<_> = super::joins(&garment, &parts);
                    let is_own = |j: &&crate::pattern::Join| {
                        j.name == EdgeName::Seam(seam)
                            && j.sides[0].0.iter().all(|at| (n..n + 2).contains(&at.piece))
                    };
                    let own = own.iter().find(is_own).unwrap();
                    near(own.lengths(&parts)[0], own.lengths(&parts)[1], 0.01, &change);
                    let untrue = true_up(&parts, std::slice::from_ref(own));
                    let is_of_seam =
                        |u: &Untrue| matches!(u, Untrue::Lengths { .. } | Untrue::Notches { .. });
                    assert!(!untrue.iter().any(is_of_seam), "{name}, {change:?}: {untrue:?}");

                    let back = PieceChange::Join { piece: halves[0].key, seam };
                    apply(&mut parts, &back).unwrap_or_else(|why| panic!("{name}, {change:?}: {why:?}"));
                    assert_eq!(parts.len(), whole.len());
                    let is = &parts[n];
                    assert_eq!((is.key, is.cut, is.darts.len()), (piece.key, piece.cut, piece.darts.len()));
                    near(is.area(), piece.area(), piece.area() * 1e-3, &change);
                    assert_eq!(is.edges.len(), piece.edges.len(), "{change:?}");
                    for edge in &piece.edges {
                        near(
                            is.edge(edge.name).unwrap().length(),
                            piece.edge(edge.name).unwrap().length(),
                            0.2,
                            &change,
                        );
                        let notches = |p: &Piece| p.edge(edge.name).unwrap().notches.len();
                        assert_eq!(notches(is), notches(piece), "{change:?}, {:?}", edge.name);
                    }
                }
            }
        }
    }
    assert!(count > 60 && seen.len() > 4, "{count}, {seen:?}");
}

/// Panels of every kind that has them: joined they take what they took before at every edge but a hem, which may have flare; nothing of either
/// is lost, and what was between is in darts.
#[test]
fn panels_that_are_joined_keep_their_edges() {
    let (mut seen, mut darts) = (0, BTreeSet::new());
    for (garment, panels) in panels() {
        for piece in &panels {
            for edge in &piece.edges {
                let EdgeName::Seam(seam) = edge.name else { continue };
                let change = PieceChange::Join { piece: piece.key, seam };
                let mut joined = panels.clone();
                match apply(&mut joined, &change) {
                    Ok(()) => {}
                    Err(CannotBe::NotBeside | CannotBe::NoName | CannotBe::ThroughDart) => continue,
                    // Waist and under bust go round alike: no dart is as wide at both.
                    Err(CannotBe::NotOneDart) if garment.kind == Kind::BonedBodice => continue,
                    Err(why) => panic!("{:?}, {change:?}: {why:?}", garment.kind),
                }
                seen += 1;
                assert_eq!(joined.len(), panels.len() - 1);
                let is = joined.iter().find(|p| !panels.contains(p)).unwrap();
                assert!(!crosses(is), "{change:?}");
                for name in names(&panels).into_iter().filter(|n| *n != edge.name) {
                    let [now, was] = [&joined, &panels].map(|all| sewn(all, piece.key, name));
                    let more = now - was;
                    match name {
                        EdgeName::Hem => assert!(more > -0.5, "{:?}, {change:?}: {more}", garment.kind),
                        _ => near(now, was, 3.1, &(garment.kind, &change, name)),
                    }
                }
                assert!(area(&joined) > area(&panels) - 1.0, "{:?}, {change:?}", garment.kind);
                // At every level it goes as far across as both did.
                let across = |pieces: &[Piece], y: f64| -> Option<f64> {
                    let beside =
                        pieces.iter().filter(|p| PieceKey { share: piece.key.share, ..p.key } == piece.key);
                    beside.map(|p| p.across(y)).sum()
                };
                for (level, y) in &is.levels {
                    let (Some(now), Some(was)) = (across(&joined, *y), across(&panels, *y)) else { continue };
                    near(now, was, 2.5, &(garment.kind, &change, level));
                }
                let new = |d: &&PieceDart| panels.iter().all(|p| !p.darts.iter().any(|o| o.dart == d.dart));
                for dart in is.darts.iter().filter(new) {
                    darts.insert(dart.dart);
                    assert!(dart.takes() > 3.0 && dart.legs_apart() < 3.0, "{:?}, {dart:?}", garment.kind);
                }
            }
        }
    }
    assert!(seen >= 16 && darts.len() > 2, "{seen}, {darts:?}");
}

fn facings(piece: &Piece) -> impl Iterator<Item = EdgeName> {
    let is_faced =
        |name: &EdgeName| crate::pattern::made::is_faced(piece, *name) && piece.edge(*name).is_some();
    EdgeName::FACED.into_iter().filter(is_faced)
}

/// Every edge that may be faced, of every piece: its facing is as long as that edge is sewn, as wide as it was said everywhere, lies within its
/// piece, and matches its neighbours; a lining made afterwards is what is left, and sewn to it.
#[test]
fn a_facing_fits_its_edge_and_a_lining_its_facing() {
    let (mut seen, mut linings) = (BTreeSet::new(), [0; 2]);
    for (name, garment, all) in garments() {
        for piece in &all {
            for edge in facings(piece) {
                let mut made = all.clone();
                let change = PieceChange::Facing { piece: piece.key, edge, wide: m("4 cm") };
                match apply(&mut made, &change) {
                    Ok(()) => {}
                    // A shoulder, a band or an edge beside it that is no wider than that.
                    Err(CannotBe::TooMuch | CannotBe::ThroughDart) => continue,
                    Err(why) => panic!("{name}, {change:?}: {why:?}"),
                }
                seen.insert(edge);
                // Narrower it can be as well.
                for narrower in 1..30 {
                    let wide = measure(40.0 - f64::from(narrower) * 0.83);
                    let change = PieceChange::Facing { piece: piece.key, edge, wide };
                    let mut made = all.clone();
                    assert_eq!(apply(&mut made, &change), Ok(()), "{name}, {change:?}");
                    // Where a dart is closed, the edge that it began on comes to a point, as it will when it is sewn.
                    let mut facing = made.pop().unwrap();
                    facing.edges.retain(|own| own.name != edge);
                    runs_smooth(&facing, 5.0).unwrap_or_else(|wrong| panic!("{name}, {change:?}: {wrong}"));
                }
                for (is, was) in made.iter().zip(&all) {
                    let mut is = is.clone();
                    // A hem that is faced is sewn there, on both.
                    if let (EdgeName::Hem, true) = (edge, is.key == piece.key) {
                        let own = is.edges.iter_mut().zip(&was.edges).filter(|(e, _)| e.name == edge);
                        own.for_each(|(e, was)| {
                            assert_eq!(e.allowance, 15.0);
                            e.allowance = was.allowance;
                        });
                        assert!(made.last().unwrap().edge(edge).unwrap().allowance == 15.0);
                    }
                    assert_eq!(&is, was, "what it is made from stays");
                }
                let facing = made.last().unwrap();
                assert_eq!((facing.key, facing.was), (piece.key.of(PieceLayer::Facing(edge)), None));
                let long = |p: &Piece| p.sewn(p.edge(edge).unwrap());
                near(long(facing), long(piece), 0.1, &(name, &change));
                let [outer, inner] = [edge, EdgeName::Inner].map(|name| facing.edge(name).unwrap());
                for n in 1..20 {
                    let at = inner.at(inner.length() * f64::from(n) / 20.0).0;
                    let off = outer.curves.iter().map(|c| c.nearest(at, 1e-6).distance_sq.sqrt());
                    let off = off.fold(f64::INFINITY, f64::min);
                    // Where an edge comes to a corner it is further off, nowhere nearer.
                    assert!(off > 39.5, "{name}, {change:?}: {off}");
                }
                let joins = super::joins(&garment, &made);
                let own: Vec<_> = joins.into_iter().filter(|j| j.is_faced).collect();
                assert_eq!(own.len(), 1, "{name}, {change:?}");
                assert_eq!(true_up(&made, &own), vec![], "{name}, {change:?}");

                let whole = cloth(piece);
                let facing = cloth(facing);
                apply(&mut made, &PieceChange::Lining { piece: piece.key })
                    .unwrap_or_else(|why| panic!("{name}, {change:?}: {why:?}"));
                let is_darted = piece.taken_of(piece.edge(edge).unwrap()) > 0.0;
                linings[usize::from(is_darted)] += 1;
                let lining = made.last().unwrap();
                assert!(!crosses(lining) && lining.edge(EdgeName::Inner).is_some(), "{name}, {change:?}");
                let hem = lining.edge(EdgeName::Hem).map_or(0.0, |hem| hem.length() * 25.0);
                near(cloth(lining) + facing + hem, whole, whole * 0.012, &(name, &change));
                for dart in lining.darts.iter().filter(|d| d.other.is_none()) {
                    near(dart.legs_apart(), 0.0, 0.5, &(name, &change));
                }
                let inside: Vec<_> = super::joins(&garment, &made);
                let inside: Vec<_> = inside.into_iter().filter(|j| j.name == EdgeName::Inner).collect();
                // Beside a hem it ends above its facing.
                if edge != EdgeName::Hem && made[all.len()].edge(EdgeName::Hem).is_some() {
                    assert!(inside.is_empty());
                    continue;
                }
                assert_eq!(inside.len(), 1, "{name}, {change:?}");
                assert_eq!(true_up(&made, &inside), vec![], "{name}, {change:?}");
                let [one, other] = inside[0].lengths(&made);
                near(one, other, if is_darted { 1.0 } else { 0.05 }, &(name, &change));
            }
        }
    }
    assert!(seen.len() > 4 && linings[0] > 15 && linings[1] > 3, "{seen:?}, {linings:?}");
}

/// By nought it stays, by its figures it moves, back it is what it was; a straight stays straight, and the other edges stay.
#[test]
fn a_neckline_moves_by_its_figures_and_back() {
    let mut seen = 0;
    for (name, _, all) in garments() {
        for (n, piece) in all.iter().enumerate().filter(|(_, p)| p.edge(EdgeName::Neckline).is_some()) {
            let change =
                |lower, wider| PieceChange::Neckline { piece: piece.key, lower: m(lower), wider: m(wider) };
            let long = |p: &Piece, edge| p.edge(edge).map_or(0.0, Edge::length);
            let mut same = all.clone();
            apply(&mut same, &change("0 cm", "0 cm")).unwrap();
            near(same[n].area(), piece.area(), 1.0, &name);
            let is_straight = |p: &Piece| {
                let edge = p.edge(EdgeName::Neckline).unwrap();
                (edge.length() - edge.start().distance(edge.end())).abs() < 0.01
            };
            for [lower, wider, back_lower, back_wider] in [
                ["0 cm", "1.2 cm", "0 cm", "-1.2 cm"],
                ["1.5 cm", "0 cm", "-1.5 cm", "0 cm"],
                ["2 cm", "1 cm", "-2 cm", "-1 cm"],
            ] {
                let mut moved = all.clone();
                let change_there = change(lower, wider);
                match apply(&mut moved, &change_there) {
                    Ok(()) => {}
                    // A front that wraps over has no middle there.
                    Err(CannotBe::NotMiddle) if piece.edge(EdgeName::Opening).is_none() => continue,
                    Err(why) => panic!("{name}, {change_there:?}: {why:?}"),
                }
                seen += 1;
                let shoulder = EdgeName::Seam(Seam::ShoulderSeam);
                let by = m(wider).length.cm() * 10.0;
                near(long(piece, shoulder) - long(&moved[n], shoulder), by, 0.05, &(name, &change_there));
                let low = |p: &Piece| p.edge(EdgeName::Neckline).unwrap().end().y;
                near(low(piece) - low(&moved[n]), m(lower).length.cm() * 10.0, 0.05, &(name, &change_there));
                assert!(moved[n].area() < piece.area());
                assert_eq!(is_straight(&moved[n]), is_straight(piece), "{name}");
                for edge in [EdgeName::Hem, EdgeName::Waist, EdgeName::Seam(Seam::SideSeam)] {
                    near(long(&moved[n], edge), long(piece, edge), 0.01, &(name, edge));
                }
                apply(&mut moved, &change(back_lower, back_wider)).unwrap();
                // To a mm along it.
                let along = long(piece, EdgeName::Neckline);
                near(moved[n].area(), piece.area(), along, &(name, &change_there));
                near(long(&moved[n], shoulder), long(piece, shoulder), 0.1, &name);
            }
        }
    }
    assert!(seen > 15, "{seen}");
}

/// The bag of a pocket has the waist and the side of its piece for as far as it was said; extended, it reaches the middle.
#[test]
fn a_pocket_has_the_edges_that_it_is_sewn_in() {
    let mut seen = [0; 2];
    for (name, _, all) in garments() {
        for piece in all.iter().filter(|p| p.edge(EdgeName::Waist).is_some()) {
            for (k, wide) in [Some(m("11 cm")), None].into_iter().enumerate() {
                let mut made = all.clone();
                let change = PieceChange::Pocket { piece: piece.key, deep: m("18 cm"), wide };
                if let Err(why) = apply(&mut made, &change) {
                    let is_no_side = matches!(piece.key.part, PiecePart::Bodice | PiecePart::Waistband);
                    assert!(
                        is_no_side || piece.key.share == PieceShare::Centre,
                        "{name}, {change:?}: {why:?}"
                    );
                    continue;
                }
                seen[k] += 1;
                let bag = made.last().unwrap();
                assert!(!crosses(bag));
                let side = [Seam::SideSeam, Seam::Outseam].map(EdgeName::Seam);
                let side = bag.edges.iter().find(|e| side.contains(&e.name)).unwrap();
                near(side.length(), 180.0, 0.05, &(name, &change));
                let waist = bag.sewn(bag.edge(EdgeName::Waist).unwrap());
                let whole = piece.sewn(piece.edge(EdgeName::Waist).unwrap());
                near(waist, if wide.is_some() { 110.0 } else { whole }, 0.1, &(name, &change));
                assert_eq!(
                    bag.cut,
                    if wide.is_none() && piece.edge(EdgeName::Fold).is_some() { 1 } else { 2 }
                );
            }
        }
    }
    assert!(seen.iter().all(|seen| *seen > 4), "{seen:?}");
}

#[test]
fn a_middle_is_laid_on_the_fold_and_legs_are_made_equal() {
    let mut seen = 0;
    for (garment, all) in panels() {
        for (n, piece) in all.iter().enumerate() {
            for seam in [Seam::CentreFront, Seam::CentreBack] {
                let Some(edge) = piece.edge(EdgeName::Seam(seam)) else { continue };
                let mut on_fold = all.clone();
                let change = PieceChange::OnFold { piece: piece.key, seam };
                match apply(&mut on_fold, &change) {
                    Ok(()) => {}
                    Err(CannotBe::NotStraight)
                        if edge.length() - edge.start().distance(edge.end()) > 0.01 =>
                    {
                        continue;
                    }
                    Err(why) => panic!("{:?}, {change:?}: {why:?}", garment.kind),
                }
                seen += 1;
                assert_eq!(on_fold[n].cut, 1);
                near(on_fold[n].edge(EdgeName::Fold).unwrap().length(), edge.length(), 0.1, &change);
                near(on_fold[n].area(), piece.area(), 1.0 + piece.area() * 1e-3, &change);
            }
        }
    }
    let mut evened = 0;
    for (name, _, all) in garments() {
        for (n, piece) in all.iter().enumerate() {
            for (k, dart) in piece.darts.iter().enumerate().filter(|(_, dart)| dart.other.is_none()) {
                let mut uneven = all.clone();
                let askew = (dart.mouth[1] - dart.mouth[0]).normalize() * 25.0;
                uneven[n].darts[k].point += askew;
                // Of a narrow one they hardly differ.
                if uneven[n].darts[k].legs_apart() <= 3.0 {
                    continue;
                }
                evened += 1;
                let found = true_up(&uneven, &[]);
                let is_it = |u: &Untrue| matches!(u, Untrue::Legs { piece, dart: d, .. } if *piece == n && *d == dart.dart);
                assert!(found.iter().any(is_it), "{name}");
                apply(&mut uneven, &PieceChange::TrueDart { piece: piece.key, dart: dart.dart }).unwrap();
                near(uneven[n].darts[k].legs_apart(), 0.0, 0.001, &name);
                near(uneven[n].darts[k].point.distance(dart.point), 0.0, 0.2, &name);
            }
        }
    }
    assert!(seen > 5 && evened > 1, "{seen}, {evened}");
}

#[test]
fn what_cannot_be_made_says_why() {
    let (_, _, all) = pieces_of("pinafore-toile");
    let (_, _, coat) = pieces_of("overcoat");
    let bodice =
        all.iter().find(|p| p.key.part == PiecePart::Bodice && p.key.face == PieceFace::Back).unwrap().key;
    let skirt = all.iter().find(|p| p.key.part == PiecePart::Skirt).unwrap().key;
    let at = |edge, text: &str| EdgePlace { edge, at: m(text) };
    let side = EdgeName::Seam(Seam::SideSeam);
    let facing = |piece, edge, wide: &str| PieceChange::Facing { piece, edge, wide: m(wide) };
    let neckline = |piece, lower: &str| PieceChange::Neckline { piece, lower: m(lower), wider: m("0 cm") };
    let pocket = |deep: &str, wide: Option<&str>| PieceChange::Pocket {
        piece: skirt,
        deep: m(deep),
        wide: wide.map(m),
    };
    let split = |from, to| PieceChange::Split { piece: skirt, from, to };
    let eased = |edge, by: &str, into| PieceChange::Eased { piece: skirt, edge, by: m(by), into };
    let notch = |notch, by: &str| PieceChange::Notch { piece: skirt, edge: side, notch, by: m(by) };
    let corner = |edge, beside| PieceChange::TrueCorner { piece: skirt, edge, beside };
    for (change, why) in [
        (facing(bodice, EdgeName::Neckline, "60 cm"), CannotBe::TooMuch),
        (facing(bodice, EdgeName::Neckline, "0.1 cm"), CannotBe::TooLittle),
        (facing(bodice, EdgeName::Neckline, "-5 cm"), CannotBe::TooLittle),
        (facing(bodice, side, "5 cm"), CannotBe::NotFaced),
        (facing(bodice, EdgeName::End, "5 cm"), CannotBe::NotFaced),
        (facing(skirt, EdgeName::Neckline, "5 cm"), CannotBe::NotThere),
        (neckline(bodice, "90 cm"), CannotBe::TooMuch),
        (neckline(bodice, "-90 cm"), CannotBe::TooMuch),
        (neckline(skirt, "1 cm"), CannotBe::NotThere),
        (pocket("300 cm", None), CannotBe::TooMuch),
        (pocket("20 cm", Some("300 cm")), CannotBe::TooMuch),
        (pocket("-20 cm", None), CannotBe::TooLittle),
        (split(at(side, "0.1 cm"), at(EdgeName::Hem, "9 cm")), CannotBe::Misses),
        (split(at(side, "9 cm"), at(side, "9.5 cm")), CannotBe::Misses),
        (split(at(EdgeName::End, "9 cm"), at(side, "9.5 cm")), CannotBe::NotThere),
        (PieceChange::Join { piece: skirt, seam: Seam::SideSeam }, CannotBe::NotBeside),
        (PieceChange::Join { piece: skirt, seam: Seam::PanelFront }, CannotBe::NotThere),
        (PieceChange::OnFold { piece: skirt, seam: Seam::SideSeam }, CannotBe::NotMiddle),
        (PieceChange::TrueDart { piece: skirt, dart: Dart::Shoulder }, CannotBe::NotThere),
        (eased(side, "7 cm", Fullness::Ease), CannotBe::TooFull),
        (eased(side, "60 cm", Fullness::Gathers), CannotBe::TooMuch),
        (eased(side, "-1 cm", Fullness::Gathers), CannotBe::TooLittle),
        (eased(EdgeName::Neckline, "1 cm", Fullness::Gathers), CannotBe::NotThere),
        (notch(0, "1 cm"), CannotBe::NotThere),
        (notch(200, "1 cm"), CannotBe::NotThere),
        (notch(1, "300 cm"), CannotBe::Misses),
        (notch(1, "-300 cm"), CannotBe::Misses),
        (corner(EdgeName::Hem, EdgeName::Waist), CannotBe::NotThere),
        (corner(EdgeName::Neckline, side), CannotBe::NotThere),
    ] {
        for pieces in [&all, &coat].into_iter().take(if change.is_about(skirt) { 1 } else { 2 }) {
            let mut is = pieces.clone();
            if !pieces.iter().any(|p| change.is_about(p.key)) {
                continue;
            }
            assert_eq!(apply(&mut is, &change), Err(why), "{change:?}");
            assert_eq!(&is, pieces, "all of it or nothing");
        }
    }
    let mut twice = all.clone();
    let once = facing(bodice, EdgeName::Neckline, "2.5 cm");
    apply(&mut twice, &once).unwrap();
    assert_eq!(apply(&mut twice, &once), Err(CannotBe::Twice));
    let facing_of = twice.last().unwrap().key;
    assert_eq!(apply(&mut twice, &PieceChange::Lining { piece: facing_of }), Err(CannotBe::NotThere));
}

fn shown(
    name: &str,
    changes: impl Fn(&dyn Fn(PiecePart, PieceFace) -> PieceKey) -> Vec<PieceChange>,
) -> Pieces {
    let mut document = demo(name);
    document.wishes.pattern.marks.clear();
    document.wishes.pattern.changes = changes(&|part, face| PieceKey::outer(part, face, PieceShare::Whole));
    pieces(&document, OfCloth::default(), Tape::Cm).unwrap()
}

/// All of it as it is told: what was done, what is cut, and of which cloth.
#[test]
fn what_is_made_is_told_with_its_figures() {
    let skirt = shown("school-skirt", |key| {
        let [front, back] = [PieceFace::Front, PieceFace::Back].map(|face| key(PiecePart::Skirt, face));
        let side = EdgeName::Seam(Seam::SideSeam);
        vec![
            PieceChange::Facing { piece: back, edge: EdgeName::Waist, wide: m("5 cm") },
            PieceChange::Lining { piece: back },
            PieceChange::Pocket { piece: front, deep: m("22 cm"), wide: None },
            PieceChange::Split {
                piece: front,
                from: EdgePlace { edge: EdgeName::Fold, at: m("25 cm") },
                to: EdgePlace { edge: side, at: m("25 cm") },
            },
            PieceChange::Join { piece: back, seam: Seam::SideSeam },
        ]
    });
    let dress = shown("tea-dress", |key| {
        let front = PieceKey { share: PieceShare::Centre, ..key(PiecePart::Body, PieceFace::Front) };
        vec![
            PieceChange::Neckline { piece: front, lower: m("1.5 cm"), wider: m("-0.5 cm") },
            PieceChange::Join { piece: front, seam: Seam::PrincessFront },
        ]
    });
    let told = [skirt, dress].map(|found| {
        let chips: Vec<_> = found.chips.iter().map(|chip| (chip.words.clone(), chip.cannot)).collect();
        let untrue: Vec<_> =
            found.sets[0].untrue.iter().map(|u| (u.title.clone(), u.figures.clone())).collect();
        (chips, untrue, found.cutting_list())
    });
    insta::assert_debug_snapshot!(told);
}

/// A change that is offered, with figures of no great size.
fn typical(does: PieceDoes, may: &PieceMay) -> PieceChange {
    typical_by(does, may, m("0.6 cm"))
}

fn typical_by(does: PieceDoes, may: &PieceMay, by: Measure) -> PieceChange {
    let piece = may.key;
    let at = |n: usize| EdgePlace { edge: may.edges[n % may.edges.len()].name, at: m("5 cm") };
    match does {
        PieceDoes::Length => {
            PieceChange::Length { part: piece.part, face: Some(piece.face), below: may.levels[0], by }
        }
        PieceDoes::Wedge => PieceChange::Wedge { piece, below: may.levels[0], at: OpensAt::Side, by },
        PieceDoes::Width => PieceChange::Width { piece, by },
        PieceDoes::Flare => PieceChange::Flare { piece, by },
        PieceDoes::Allowance => PieceChange::Allowance { piece, edge: at(0).edge, width: by },
        PieceDoes::End => PieceChange::End { piece, edge: at(1).edge, upper: true, by },
        PieceDoes::Slash => PieceChange::Slash { piece, from: at(0), hinge: at(2), by },
        PieceDoes::TurnDart => PieceChange::TurnDart { piece, dart: may.darts[0], to: at(0), keep: None },
        PieceDoes::DartPoint => PieceChange::DartPoint { piece, dart: may.darts[0], by },
        PieceDoes::SlideDart => PieceChange::SlideDart { piece, dart: may.darts[0], by },
        PieceDoes::Eased => PieceChange::Eased {
            piece,
            edge: at(1).edge,
            by: Measure { length: by.length.abs(), ..by },
            into: Fullness::Ease,
        },
        PieceDoes::Notch => {
            let edge = may.edges.iter().find(|edge| !edge.notches.is_empty()).unwrap().name;
            PieceChange::Notch { piece, edge, notch: 1, by }
        }
        PieceDoes::Drill => {
            PieceChange::Drill { piece, from: at(0), by: Measure { length: by.length.abs(), ..by } }
        }
        PieceDoes::TrueCorner => {
            let edge = may.edges.iter().find(|edge| !edge.beside.is_empty()).unwrap();
            PieceChange::TrueCorner { piece, edge: edge.name, beside: edge.beside[0] }
        }
        PieceDoes::TrueDart => PieceChange::TrueDart { piece, dart: may.darts[0] },
        PieceDoes::Neckline => PieceChange::Neckline { piece, lower: m("0 cm"), wider: by },
        PieceDoes::MoveEdge => {
            PieceChange::MoveEdge { piece, edge: at(1).edge, pins: vec![EdgePin { at: at(1).at, by }] }
        }
        PieceDoes::Armhole => PieceChange::Armhole { piece, lower: by, inwards: m("0 cm") },
        PieceDoes::Shoulder => PieceChange::Shoulder { piece, shorter: by, lower: by },
        PieceDoes::LooseDart => PieceChange::LooseDart { piece, dart: may.darts[0], into: Fullness::Gathers },
        PieceDoes::Split => PieceChange::Split { piece, from: at(0), to: at(2) },
        PieceDoes::Join => PieceChange::Join { piece, seam: may.joins[0] },
        PieceDoes::OnFold => PieceChange::OnFold { piece, seam: may.folds[0] },
        PieceDoes::Facing => PieceChange::Facing { piece, edge: may.faced[0].name, wide: m("2 cm") },
        PieceDoes::Lining => PieceChange::Lining { piece },
        PieceDoes::Pocket => PieceChange::Pocket { piece, deep: m("12 cm"), wide: None },
    }
}

/// From any edge to any other, and along itself: a piece is cut in two that can be cut out and turned out, or not at all.
#[test]
fn whatever_is_cut_in_two_can_be_cut_out() {
    let (mut cut, mut refused) = (0, 0);
    for (name, _, pieces) in garments() {
        for (n, piece) in pieces.iter().enumerate() {
            let names: BTreeSet<EdgeName> = piece.edges.iter().map(|edge| edge.name).collect();
            let places = [["3 cm", "8 cm"], ["5 cm", "3 cm"]];
            let all = names.iter().flat_map(|from| names.iter().map(move |to| (*from, *to)));
            for ((from, to), at) in all.flat_map(|ends| places.map(|at| (ends, at))) {
                let ends = [(from, at[0]), (to, at[1])].map(|(edge, at)| EdgePlace { edge, at: m(at) });
                let mut parted = pieces.clone();
                if split_piece(&mut parted, n, ends).is_err() {
                    refused += 1;
                    continue;
                }
                cut += 1;
                let halves = &parted[n..=n + 1];
                let area: f64 = halves.iter().map(Piece::area).sum();
                near(area, piece.area(), 1.0, &(name, piece.key, ends));
                for half in halves {
                    is_cut_outside(half, 0.1).unwrap_or_else(|wrong| panic!("{name}, {ends:?}, {wrong}"));
                    let count = half.edges.len();
                    for (n, edge) in half.edges.iter().enumerate() {
                        let next = &half.edges[(n + 1) % count];
                        let corner = angle(edge.ways()[1], next.ways()[0]);
                        let is_old = [edge, next].iter().all(|edge| names.contains(&edge.name));
                        assert!(is_old || (14.0..346.0).contains(&corner), "{name}, {ends:?}: {corner}°");
                    }
                }
            }
        }
    }
    assert!(cut > 100 && refused > 50, "{cut}, {refused}");
}

/// By nought nothing changes: no edge, and no cut line.
#[test]
fn by_nought_nothing_changes() {
    use PieceDoes as D;
    let by_so_much = [
        D::Length,
        D::Wedge,
        D::Width,
        D::Flare,
        D::End,
        D::Slash,
        D::DartPoint,
        D::SlideDart,
        D::MoveEdge,
        D::Armhole,
        D::Shoulder,
        D::Neckline,
        D::Eased,
        D::Notch,
    ];
    let mut seen = BTreeSet::new();
    for name in DEMO {
        let mut document = demo(name);
        document.wishes.pattern.changes.clear();
        let may = pieces(&document, OfCloth::default(), Tape::Cm).unwrap().may;
        let lay = |document: &Document| crate::pattern::lay::lay(document, Tape::Cm).unwrap();
        let as_it_is = lay(&document);
        for (may, does) in may.iter().flat_map(|may| may.does.iter().map(move |does| (may, *does))) {
            if !by_so_much.contains(&does) {
                continue;
            }
            let change = typical_by(does, may, m("0 cm"));
            document.wishes.pattern.changes = vec![change.clone()];
            let laid = lay(&document);
            for (is, was) in
                laid.sets.iter().zip(&as_it_is.sets).flat_map(|(is, was)| is.pieces.iter().zip(&was.pieces))
            {
                let area = |piece: &Piece| cut_line(piece).area();
                // To a hundredth of a mm along its line.
                let along = cut_line(was).perimeter(0.1) * 0.01;
                near(area(is), area(was), along, &(name, &change, is.key));
                for (is, was) in is.edges.iter().zip(&was.edges) {
                    near(is.length(), was.length(), 1e-6, &(name, &change, is.name));
                }
            }
            seen.insert(does);
        }
    }
    assert_eq!(seen.len(), by_so_much.len(), "{seen:?}");
}

/// A piece that was drawn the other way round, and lying on its side, becomes by every change what it would have become as it lies here.
#[test]
fn a_change_does_the_same_to_a_mirror_image() {
    let mut seen = BTreeSet::new();
    for name in DEMO {
        let (_, _, pieces_of_it) = pieces_of(name);
        let placed = [
            Affine::IDENTITY,
            Affine::translate((40.0, 9.0)) * Affine::rotate(std::f64::consts::FRAC_PI_2) * Affine::FLIP_X,
        ];
        let documents = placed.map(|place| {
            let mut document = demo(name);
            document.try_ons.clear();
            // What goes round has no middle that would say which way it lies.
            let place =
                |piece: &Piece| if piece.key.face == PieceFace::Round { Affine::IDENTITY } else { place };
            let drawn = pieces_of_it.iter().map(|piece| drawn(piece, place(piece))).collect();
            document.wishes.pattern = Pattern { drawn, ..Pattern::default() };
            document
        });
        let may = pieces(&documents[0], OfCloth::default(), Tape::Cm).unwrap().may;
        for (may, does) in may.iter().take(2).flat_map(|may| may.does.iter().map(move |does| (may, *does))) {
            let change = typical(does, may);
            let [here, there] = documents.clone().map(|mut document| {
                document.wishes.pattern.changes = vec![change.clone()];
                crate::pattern::lay::lay(&document, Tape::Cm).unwrap()
            });
            assert_eq!(here.cannot, there.cannot, "{name}, {change:?}");
            for (one, other) in here.sets[0].pieces.iter().zip(&there.sets[0].pieces) {
                assert_eq!((one.key, one.edges.len()), (other.key, other.edges.len()), "{name}, {change:?}");
                near(one.area(), other.area(), 1.0, &(name, &change, one.key));
                let sorted = |piece: &Piece| {
                    let mut all: Vec<(EdgeName, f64)> =
                        piece.edges.iter().map(|e| (e.name, e.length())).collect();
                    all.sort_by(|a, b| a.0.cmp(&b.0).then(a.1.total_cmp(&b.1)));
                    all
                };
                for ((edge, long), (_, other)) in sorted(one).into_iter().zip(sorted(other)) {
                    near(long, other, 0.1, &(name, &change, one.key, edge));
                }
                for (dart, other) in one.darts.iter().zip(&other.darts) {
                    near(dart.takes(), other.takes(), 0.01, &(name, &change, dart.dart));
                    near(dart.long(), other.long(), 0.01, &(name, &change, dart.dart));
                }
            }
            seen.insert(does);
        }
    }
    assert!(seen.len() > 18, "{seen:?}");
}

/// Whatever is offered for a piece is there to be done, for those that are made from others too: it may be refused for its figure, and for
/// nothing that was known before.
#[test]
fn what_is_offered_can_be_done() {
    let all: Vec<_> = std::thread::scope(|scope| {
        let threads: Vec<_> = DEMO.iter().map(|name| scope.spawn(|| done_of_what_is_offered(name))).collect();
        threads.into_iter().map(|thread| thread.join().unwrap()).collect()
    });
    let seen: BTreeSet<PieceDoes> = all.iter().flat_map(|(seen, _)| seen).copied().collect();
    let made: usize = all.iter().map(|(_, made)| made).sum();
    assert!(seen.len() == PieceDoes::ALL.len() && made > 20, "{seen:?}, {made}");
}

/// What of it was done on the pieces of one garment, and how many of those were made from others.
fn done_of_what_is_offered(name: &str) -> (BTreeSet<PieceDoes>, usize) {
    let was_known = [
        CannotBe::NotThere,
        CannotBe::NoLevel,
        CannotBe::Twice,
        CannotBe::NotBeside,
        CannotBe::NotMiddle,
        CannotBe::NotFaced,
    ];
    let (mut seen, mut made) = (BTreeSet::new(), 0);
    let mut document = demo(name);
    document.wishes.pattern.changes.clear();
    let told = |document: &Document| pieces(document, OfCloth::default(), Tape::Cm).unwrap().may;
    let first = told(&document);
    let makes = [PieceDoes::Split, PieceDoes::Pocket, PieceDoes::Facing, PieceDoes::Lining];
    // Made one by one, so that each is still offered when it is; of the first two pieces, which are a front and a back.
    for piece in first.iter().take(2).map(|may| may.key) {
        for does in makes.iter().rev() {
            let now = told(&document);
            let Some(may) = now.iter().find(|may| may.key == piece && may.does.contains(does)) else {
                continue;
            };
            document.wishes.pattern.changes.push(typical(*does, may));
        }
    }
    let setup = std::mem::take(&mut document.wishes.pattern.changes);
    for setup in [Vec::new(), setup] {
        document.wishes.pattern.changes.clone_from(&setup);
        let may = told(&document);
        made += may.iter().filter(|may| !may.key.layer.is_outer()).count();
        for may in &may {
            for does in &may.does {
                let change = typical(*does, may);
                document.wishes.pattern.changes.clone_from(&setup);
                document.wishes.pattern.changes.push(change.clone());
                let laid = crate::pattern::lay::lay(&document, Tape::Cm).unwrap();
                let cannot = *laid.cannot.last().unwrap();
                let is_known = cannot.is_some_and(|why| was_known.contains(&why));
                assert!(!is_known, "{name}, {change:?}: {cannot:?}");
                if cannot.is_none() {
                    seen.insert(*does);
                    // Beside the step of a slash that is opened askew it is as near as that is sharp.
                    let within = if *does == PieceDoes::Slash { 0.5 } else { 0.1 };
                    for piece in laid.sets[0].pieces.iter().filter(|piece| piece.key == may.key) {
                        is_cut_outside(piece, within)
                            .unwrap_or_else(|wrong| panic!("{name}, {change:?}, {wrong}"));
                    }
                }
            }
        }
    }
    (seen, made)
}

/// What is asked for is what a change has: each field by its name, and none besides.
#[test]
fn what_is_asked_for_is_what_a_change_is() {
    let mut seen = BTreeSet::new();
    for name in DEMO {
        let told = pieces(&demo(name), OfCloth::default(), Tape::Cm).unwrap();
        for (may, does) in told.may.iter().flat_map(|may| may.does.iter().map(move |does| (may, *does))) {
            let asks = told.asks.iter().find(|asks| asks.does == does).unwrap();
            let written = serde_json::to_value(typical(does, may)).unwrap();
            let (kind, fields) = written.as_object().unwrap().iter().next().unwrap();
            assert_eq!(kind, does.word(), "{does:?}");
            let of = if asks.of_part { "part" } else { "piece" };
            let has: Vec<&str> = fields.as_object().unwrap().keys().map(|key| &key[..]).collect();
            let asked = || asks.fields.iter().map(|field| field.name);
            assert!(
                has.iter().all(|key| *key == of || asked().any(|name| name == *key)),
                "{does:?}: {has:?}"
            );
            let must = asks.fields.iter().filter(|field| field.empty != FieldEmpty::LeftOut);
            let mut must = must.map(|field| field.name).chain([of]);
            assert!(must.all(|name| has.contains(&name)), "{does:?}: {has:?}");
            seen.insert(does);
        }
    }
    assert!(seen.len() > 18, "{seen:?}");
}

/// A length that goes right across a skirt goes through the part of its front that has the level, and does not fail for the other.
#[test]
fn a_length_goes_through_what_was_cut_in_two() {
    let (_, _, all) = pieces_of("school-skirt");
    let front = all[0].key;
    let [from, to] =
        [EdgeName::Fold, EdgeName::Seam(Seam::SideSeam)].map(|edge| EdgePlace { edge, at: m("30 cm") });
    let mut parts = all.clone();
    apply(&mut parts, &PieceChange::Split { piece: front, from, to }).unwrap();
    let length = |below| PieceChange::Length { part: front.part, face: None, below, by: m("2 cm") };
    let tall = |pieces: &[Piece]| pieces.iter().map(|piece| piece.bounds().height()).collect::<Vec<_>>();
    let before = tall(&parts);
    apply(&mut parts, &length(Level::Hip)).unwrap();
    let grown: Vec<f64> = tall(&parts).iter().zip(before).map(|(is, was)| is - was).collect();
    near(grown[0], 20.0, 0.01, &"the upper front");
    near(grown[1], 0.0, 0.01, &"the lower front");
    near(grown[2], 20.0, 0.01, &"the back");
    assert_eq!(apply(&mut parts, &length(Level::Elbow)), Err(CannotBe::NoLevel));
}

/// Whichever of two panels comes first, the one nearer the middle stays.
#[test]
fn panels_are_joined_alike_in_any_order() {
    let mut seen = 0;
    for (garment, all) in panels() {
        for piece in &all {
            for edge in &piece.edges {
                let EdgeName::Seam(seam) = edge.name else { continue };
                let (mut one, mut other) = (all.clone(), all.clone());
                other.reverse();
                let change = PieceChange::Join { piece: piece.key, seam };
                let done = apply(&mut one, &change);
                assert_eq!(done, apply(&mut other, &change), "{:?}", garment.kind);
                if done.is_ok() {
                    seen += 1;
                    let new = |pieces: &[Piece]| pieces.iter().find(|p| !all.contains(p)).cloned();
                    assert_eq!(new(&one), new(&other), "{:?}, {change:?}", garment.kind);
                }
            }
        }
    }
    assert!(seen > 10, "{seen}");
}

/// A piece that is changed after its facing was made no longer matches it: truing says so, and it matches again once the facing is made last.
#[test]
fn a_facing_that_no_longer_fits_is_found() {
    let (garment, _, all) = pieces_of("jersey-top");
    for piece in all.iter().filter(|p| p.edge(EdgeName::Neckline).is_some()) {
        let facing = PieceChange::Facing { piece: piece.key, edge: EdgeName::Neckline, wide: m("4 cm") };
        let neckline = PieceChange::Neckline { piece: piece.key, lower: m("3 cm"), wider: m("1 cm") };
        let found = |changes: [&PieceChange; 2]| {
            let mut made = all.clone();
            changes.iter().for_each(|change| apply(&mut made, change).unwrap());
            let joins = super::joins(&garment, &made);
            let faced = joins.iter().position(|join| join.is_faced).unwrap();
            true_up(&made, &joins).iter().any(|u| matches!(u, Untrue::Lengths { join, .. } if *join == faced))
        };
        assert!(found([&facing, &neckline]) && !found([&neckline, &facing]), "{:?}", piece.key);
    }
}

/// What paper adds goes round: by as much as its pieces are wider, on every level, and nothing is said where nothing is done.
#[test]
fn what_goes_round_on_paper_is_what_its_pieces_have() {
    let mut seen = 0;
    for name in DEMO {
        let mut document = demo(name);
        document.wishes.pattern.marks.clear();
        document.wishes.pattern.changes.clear();
        let told = |document: &Document| pieces(document, OfCloth::default(), Tape::Cm).unwrap();
        let before = told(&document);
        assert_eq!(before.round, vec![], "{name}");
        for may in &before.may {
            let is_round = may.key.face == PieceFace::Round;
            document.wishes.pattern.changes = vec![PieceChange::Width { piece: may.key, by: m("1 cm") }];
            for round in told(&document).round {
                let more = round.on_paper.nm - round.chalked.nm;
                // On a sleeve and a leg by itself, otherwise on both sides.
                let is_whole = round.name.ends_with(", all round");
                let wanted = if is_round || !is_whole { 10_000_000 } else { 20_000_000 };
                // A waist that slants grows by less than what goes straight across, and so does a neckline, which is curved.
                let is_so = more > 0 && more <= wanted + 1_000_000;
                let is_slanted = round.name.starts_with("waist") && may.key.part == PiecePart::Leg
                    || round.name.starts_with("neck");
                assert!(
                    is_so && (is_slanted || more >= wanted - 1_000_000),
                    "{name}, {:?}: {round:?}",
                    may.key
                );
                seen += 1;
            }
        }
    }
    assert!(seen > 30, "{seen}");
}

/// A piece is drawn out beside its darts: they take what they took, and at every level it has gained the whole of the figure.
#[test]
fn what_is_drawn_out_is_cloth_and_not_a_dart() {
    let mut seen = 0;
    let examples = DEMO.into_iter().map(|name| {
        let (garment, _, pieces) = pieces_of(name);
        (garment, pieces)
    });
    for (garment, all) in panels().chain(examples) {
        for piece in &all {
            let by = m("0.7 cm");
            let darts = |pieces: &[Piece]| -> Vec<f64> {
                pieces.iter().flat_map(|piece| &piece.darts).map(PieceDart::takes).collect()
            };
            let across = |pieces: &[Piece]| -> Vec<f64> {
                let own = pieces.iter().filter(|own| own.key == piece.key);
                own.flat_map(|own| own.levels.iter().filter_map(|(_, y)| own.across(*y))).collect()
            };
            let done = |change: PieceChange| {
                let mut pieces = all.clone();
                apply(&mut pieces, &change).map(|()| pieces)
            };
            let mut changes = vec![
                PieceChange::Width { piece: piece.key, by },
                PieceChange::Flare { piece: piece.key, by },
            ];
            changes.extend(piece.levels.iter().map(|(level, _)| PieceChange::Length {
                part: piece.key.part,
                face: Some(piece.key.face),
                below: *level,
                by,
            }));
            for change in changes {
                let Ok(pieces) = done(change.clone()) else { continue };
                for (is, was) in darts(&pieces).iter().zip(darts(&all)) {
                    near(*is, was, 0.25, &(garment.kind, &change));
                    seen += 1;
                }
            }
            // What slants because of a wedge is as wide as it was, and every other level.
            for (below, _) in &piece.levels {
                for at in OpensAt::ALL {
                    let wedge = PieceChange::Wedge { piece: piece.key, below: *below, at: *at, by };
                    let Ok(pieces) = done(wedge.clone()) else { continue };
                    for (is, was) in across(&pieces).iter().zip(across(&all)) {
                        near(*is, was, 1.0, &(garment.kind, &wedge));
                    }
                }
            }
            let wider = done(PieceChange::Width { piece: piece.key, by }).unwrap();
            for (is, was) in across(&wider).iter().zip(across(&all)) {
                near(*is, was + 7.0, 0.1, &(garment.kind, piece.key));
            }
        }
    }
    assert!(seen > 50, "{seen}");
}

/// What is longer on one edge is eased in or gathered by a tap: then both match and are walked so, and it is said of the edge, of the seam, in the
/// list and on paper; cut in two each part has its share.
#[test]
fn what_is_eased_in_is_said_wherever_its_edge_is() {
    let mut cut = 0;
    for (name, part, more, does) in [
        ("pinafore-toile", PiecePart::Bodice, "0.9 cm", "eased in"),
        ("summer-trousers", PiecePart::Leg, "1.4 cm", "eased in"),
        ("school-skirt", PiecePart::Skirt, "9 cm", "gathered"),
    ] {
        let mut document = demo(name);
        document.try_ons.clear();
        document.wishes.pattern.marks.clear();
        let piece = PieceKey::outer(part, PieceFace::Back, PieceShare::Whole);
        let seam = if part == PiecePart::Leg { Seam::Outseam } else { Seam::SideSeam };
        let edge = EdgeName::Seam(seam);
        let longer = PieceChange::End { piece, edge, upper: false, by: m(more) };
        document.wishes.pattern.changes = vec![longer.clone()];
        let title = format!("The {} does not match", seam.name());
        let found = pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
        let line = found.sets[0].untrue.iter().find(|line| line.title == title).unwrap();
        let is_eased = |mend: &&crate::pattern::PieceMend| matches!(mend.change, PieceChange::Eased { .. });
        let mends: Vec<_> = line.mends.iter().filter(is_eased).collect();
        let [mend] = mends[..] else { panic!("{:?}", line.mends) };
        document.wishes.pattern.changes.push(mend.change.clone());
        let found = pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
        let set = &found.sets[0];
        assert!(set.untrue.iter().all(|line| line.title != title), "{name}: {:?}", set.untrue);
        let says = format!("of it {does}");
        let join = set
            .joins
            .iter()
            .find(|j| j.walked.iter().any(|w| w.piece == piece.name()) && j.says.contains(&says));
        let [one, other] = &join.unwrap().walked[..] else { panic!("{name}: two edges are walked") };
        assert!((one.long_mm - other.long_mm).abs() <= 3.0, "{name}");
        let shown = set.pieces.iter().find(|p| p.key == piece).unwrap();
        assert!(shown.edges.iter().any(|e| e.name == edge && e.words.ends_with(&says)), "{name}");
        assert!(found.cutting_list().contains(&says), "{name}");
        let sheets =
            crate::pattern::piece_sheets(&document, crate::pattern::WhichPieces::All, Tape::Cm).unwrap();
        assert_eq!(
            sheets.iter().flat_map(|s| &s.words).filter(|(_, w)| w.ends_with(&says)).count(),
            1,
            "{name}"
        );
        // By hand: a piece with it, cut across.
        let (_, _, mut all) = pieces_of(name);
        for change in &document.wishes.pattern.changes {
            apply(&mut all, change).unwrap();
        }
        let n = all.iter().position(|p| p.key == piece).unwrap();
        let whole = all[n].edge(edge).unwrap().clone();
        let from = EdgePlace { edge, at: m("30 cm") };
        let middle = all[n].edges.iter().find(|e| {
            e.name == EdgeName::Fold
                || e.name == EdgeName::Seam(Seam::CentreBack)
                || e.name == EdgeName::Seam(Seam::Inseam)
        });
        let to = EdgePlace { edge: middle.unwrap().name, at: m("20 cm") };
        if split_piece(&mut all, n, [from, to]).is_ok() {
            let parts = all.iter().flat_map(|p| &p.edges).filter(|e| e.name == edge);
            let sum: f64 = parts.filter_map(|e| e.eased).map(|eased| eased.by_mm).sum();
            near(sum, whole.eased.unwrap().by_mm, 0.01, &name);
            cut += 1;
        }
        // Said anew it is as long as before, and nothing is left of it.
        document.wishes.pattern.changes.push(PieceChange::Eased {
            piece,
            edge,
            by: m("0 cm"),
            into: Fullness::Ease,
        });
        let again = pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
        assert!(again.sets[0].untrue.iter().any(|line| line.title == title));
    }
    assert!(cut > 1, "{cut} were cut in two");
}

/// A drill mark lies so far in from its place as it was said, square to its edge and inside the piece; there is one of it, none outside, and no line
/// changes by it.
#[test]
fn drill_marks_are_measured_from_an_edge() {
    let mut made = 0;
    for name in
        ["overcoat", "tea-dress", "summer-trousers", "school-skirt", "concert-shirt", "pinafore-toile"]
    {
        let (_, _, sound) = pieces_of(name);
        for (n, piece) in sound.iter().enumerate() {
            for edge in piece.edges.iter().filter(|edge| !edge.second && edge.length() > 80.0) {
                let drill =
                    |from: EdgePlace, by: f64| PieceChange::Drill { piece: piece.key, from, by: measure(by) };
                let (at, way) = edge.at(edge.length() * 0.3);
                let from = place(edge, 0.3);
                let of = (name, piece.key, edge.name);
                let mut all = sound.clone();
                let beyond = EdgePlace { edge: edge.name, at: measure(edge.length() + 1.0) };
                for (from, by) in [(from, -20.0), (from, 0.0), (from, 5000.0), (beyond, 20.0)] {
                    assert_eq!(apply(&mut all, &drill(from, by)), Err(CannotBe::Misses), "{of:?}");
                }
                apply(&mut all, &drill(from, 20.0)).unwrap();
                assert_eq!(apply(&mut all, &drill(from, 20.0)), Err(CannotBe::Twice), "{of:?}");
                let [hole] = all[n].drills[..] else { panic!("{of:?}: one hole") };
                near(at.distance(hole), 20.0, 1e-3, &of);
                near((hole - at).dot(way), 0.0, 1e-3, &of);
                assert!(within(&piece.outline())(hole) && all[n].drill_marks().contains(&hole), "{of:?}");
                all[n].drills.clear();
                assert_eq!(all, sound, "{of:?}");
                made += 1;
            }
        }
    }
    assert!(made > 60, "{made}");
}

/// A drill mark goes wherever the cloth it lies on goes: one at the point of a dart stays there, whatever is done to the piece and not to the dart.
#[test]
fn drill_marks_go_with_their_cloth() {
    let mut tried = 0;
    for name in DEMO {
        let (_, _, mut all) = pieces_of(name);
        for piece in &mut all {
            piece.drills = piece.darts.iter().map(|dart| dart.point).collect();
            assert_eq!(
                piece.drill_marks().len(),
                2 * piece.darts.len() + piece.darts.iter().filter(|d| d.other.is_some()).count(),
                "{name}: those of its darts and its own"
            );
        }
        for (n, may) in all.iter().map(|piece| crate::pattern::may::may(piece, &all)).enumerate() {
            let about_darts =
                [PieceDoes::TurnDart, PieceDoes::DartPoint, PieceDoes::SlideDart, PieceDoes::TrueDart];
            for does in may.does.iter().filter(|does| !about_darts.contains(does) && !all[n].darts.is_empty())
            {
                let mut after = all.clone();
                if apply(&mut after, &typical(*does, &may)).is_err() {
                    continue;
                }
                let drills: Vec<_> = after.iter().flat_map(|p| &p.drills).collect();
                for (piece, dart) in after.iter().flat_map(|p| p.darts.iter().map(move |dart| (p, dart))) {
                    let is_kept = all
                        .iter()
                        .any(|old| old.key == piece.key && old.darts.iter().any(|d| d.dart == dart.dart));
                    let off = drills.iter().map(|p| p.distance(dart.point)).fold(f64::INFINITY, f64::min);
                    assert!(!is_kept || off < 0.01, "{name}, {does:?} of the {}: {off}", may.name);
                    tried += usize::from(is_kept);
                }
            }
        }
    }
    assert!(tried > 150, "{tried}");
}

/// Nothing of outer pieces is untrue without a mend (a lining or a facing is made anew from what its piece became), and every mend mends.
pub(super) fn can_be_mended(document: &Document, tape: Tape) -> Result<(), TestCaseError> {
    let show = |document: &Document| pieces(document, OfCloth::default(), tape).unwrap();
    let (after, done) = (show(document), &document.wishes.pattern);
    let done = (&done.marks, &done.changes);
    for line in &after.sets[0].untrue {
        let is_outer = line.pieces.iter().all(|n| after.sets[0].pieces[*n].key.layer.is_outer());
        prop_assert!(!line.mends.is_empty() || !is_outer, "{:?}: {:?}", done, line);
        for mend in &line.mends {
            let mut mended = document.clone();
            mended.wishes.pattern.changes.push(mend.change.clone());
            prop_assert_eq!(mended.faults(), vec![], "{:?}: {}", done, mend.words);
            let after = show(&mended);
            prop_assert_eq!(super::still(&after.sets[0], line), None, "{:?}: {}", done, mend.words);
            prop_assert!(
                after.chips.last().is_some_and(|chip| chip.cannot.is_none()),
                "{:?}: {}",
                done,
                mend.words
            );
        }
    }
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Whatever is offered, one thing after another, on whatever body: nothing crosses itself, what cannot be is not done by half, nothing of outer pieces is
    /// untrue without a mend (a lining or a facing is made anew from what its piece became), and every mend mends.
    #[test]
    fn whatever_is_done_to_pieces_of_every_body_can_be_mended(
        (wearer, seams) in any_body(), kind in prop::sample::select(Kind::ALL), tape in prop::sample::select(Tape::ALL),
        picked in prop::collection::vec((any::<prop::sample::Index>(), any::<prop::sample::Index>(), -15i64..=20), 1..=3),
        closed in any_closure(),
    ) {
        let mut garment = begun_on(&wearer, &seams).find(|garment| garment.kind == kind).unwrap();
        close_in_front(&mut garment, closed);
        let mut document = agree::of_garment(garment, &wearer, Vec::new());
        document.try_ons.clear();
        let show = |document: &Document| pieces(document, OfCloth::default(), tape).unwrap();
        let laid = |document: &Document| crate::pattern::lay::lay(document, tape).unwrap();
        for (which, does, by) in picked {
            let (shown, before) = (show(&document), document.clone());
            let may = which.get(&shown.may);
            let by = Measure { length: tape.round(Length::from_mm(by)), unit: tape.unit() };
            document.wishes.pattern.changes.push(typical_by(*does.get(&may.does), may, by));
            let done = document.wishes.pattern.changes.clone();
            if !document.faults().is_empty() || laid(&document).cannot.last().unwrap().is_some() {
                if document.faults().is_empty() {
                    prop_assert_eq!(&laid(&document).sets[0].pieces, &laid(&before).sets[0].pieces, "{:?}", done);
                }
                document = before;
                continue;
            }
            prop_assert!(!laid(&document).sets[0].pieces.iter().any(crosses), "{:?}", done);
            can_be_mended(&document, tape)?;
        }
    }
}
