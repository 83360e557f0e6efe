//! Pieces against the garment they come from; what is done to them; whether they match.

use super::carry::carried;
use super::change::{CannotBe, apply, crosses};
use super::cut_line::cut_line;
use super::joins::joins;
use super::mouth::turns_at;
use super::panels::rank;
use super::piece::{Edge, Piece, along_curves, is_on, way_of, within};
use super::sheets::{WhichPieces, piece_sheets};
use super::truing::{Untrue, true_up};
use super::unroll::unroll;
use super::{EdgeShownName, OfCloth, PieceSet, Pieces, UntrueLine};
use crate::body::Wearer;
use crate::change::seam::SeamChange;
use crate::change::{Change, Drawn, On, draw};
use crate::document::Document;
use crate::fitting::{GarmentSide, How, Reading, SidePolicy};
use crate::garment::{
    Beginning, Closure, ClosureFacts, Garment, Kind, LongEdge, Neckline, Opening, Round, Seam, begin,
    cloth_named,
};
use crate::length::{Length, Measure, Tape, Unit};
use crate::paper::PaperInk;
use crate::place::Level;
use crate::size::sizes;
use crate::tests::kit::{m, pin};
use crate::work::path_crosses;
use crate::work::{EdgeName, EdgePin, Fullness, OpensAt, PieceChange, PieceFace, PieceKey, PiecePart};
use kurbo::{ParamCurve, ParamCurveArclen, ParamCurveNearest, PathSeg, Shape, Vec2};
use proptest::prelude::*;
use std::collections::HashSet;

mod agree;
mod as_cut;
mod drawn;
mod gathered;
mod made;
mod marks;
mod sized;
mod turned;
mod upper;

const DEMO: [&str; 8] = [
    "corduroys",
    "concert-shirt",
    "jersey-top",
    "overcoat",
    "pinafore-toile",
    "school-skirt",
    "tea-dress",
    "summer-trousers",
];

pub(super) fn demo(name: &str) -> Document {
    let path = format!("{}/../../demo/{name}.json", env!("CARGO_MANIFEST_DIR"));
    serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap()
}

pub(super) fn pieces_of(name: &str) -> (Garment, Wearer, Vec<Piece>) {
    let document = demo(name);
    let (garment, wearer) = (document.newest().unwrap().garment.clone(), document.wearer);
    let pieces = unroll(&garment, &wearer, None);
    (garment, wearer, pieces)
}

/// What goes round at a level as the pieces have it, in mm: nothing where they do not go round it.
fn girth_of(garment: &Garment, pieces: &[Piece], level: Level) -> Option<f64> {
    let there: Vec<&Piece> = pieces.iter().filter(|p| p.key.part != PiecePart::Waistband).collect();
    let at = |piece: &Piece| {
        let y = piece.levels.iter().find(|(l, _)| *l == level).map(|(_, y)| *y);
        let is_its_own = level.is_of_sleeve() == (piece.key.part == PiecePart::Sleeve);
        let is_bodice = piece.key.part == PiecePart::Bodice;
        // What is trued is as long as it is to be.
        let sewn = |name| piece.edge(name).map(|edge| piece.sewn(edge)).filter(|_| !is_bodice);
        // What laps over the middle goes round twice: a button stand, or a front that wraps over as far as it does there.
        let is_at_middle = piece.key.face == PieceFace::Front && rank(piece.key.share) == 0;
        let is_wrapped = wraps(garment) && is_at_middle && piece.key.part != PiecePart::Leg;
        let lap = match piece.edge(EdgeName::Opening) {
            _ if is_wrapped => {
                let edge = if level.is_at_an_edge() { EdgeName::Hem } else { EdgeName::Waist };
                let least = || piece.edge(edge).map(|edge| edge.start().x.min(edge.end().x));
                // Above where its two fronts cross it goes round nothing.
                y.and_then(|y| Some(piece.reach(y)?[0]))
                    .or_else(least)
                    .map(|x| if x > 0.0 { f64::NAN } else { -x })?
            }
            edge => edge.map_or(0.0, |edge| -edge.start().x.max(edge.end().x)),
        };
        let round = match level {
            _ if !is_its_own => None,
            Level::Neck => {
                piece.edge(EdgeName::Neckline).map(|e| piece.sewn(e)).filter(|_| garment.is_neck_its_edge())
            }
            _ if level.is_at_an_edge() => sewn(EdgeName::Hem),
            _ => y
                .and_then(|y| piece.across(y))
                .or_else(|| (level == Level::Waist).then(|| sewn(EdgeName::Waist))?),
        };
        Some(round? - lap)
    };
    let widths: Vec<f64> = there.iter().filter_map(|p| at(p)).collect();
    let times = match garment.round(level) {
        crate::garment::Round::Whole => 2.0,
        crate::garment::Round::Leg | crate::garment::Round::Sleeve => 1.0,
    };
    Some(times * widths.iter().sum::<f64>()).filter(|round| *round > 0.0)
}

/// A front that wraps over slants across the middle.
fn wraps(garment: &Garment) -> bool {
    garment.closures.iter().any(|c| c.closure == Closure::Wrap)
}

#[test]
fn pieces_sewn_together_give_back_the_girths_of_the_garment() {
    let mut seen = HashSet::new();
    for name in DEMO {
        let (garment, _, pieces) = pieces_of(name);
        assert!(!pieces.is_empty(), "{name}");
        for level in &garment.levels {
            let Some(girth) = girth_of(&garment, &pieces, level.level) else { continue };
            let wanted = level.width.girth().cm() * 10.0;
            seen.insert(level.level);
            assert!((girth - wanted).abs() < 1.0, "{name}, {:?}: {girth} instead of {wanted}", level.level);
        }
    }
    let wanted = [Level::Neck, Level::Bust, Level::Waist, Level::Hip, Level::Hem, Level::Elbow];
    assert!(wanted.iter().all(|level| seen.contains(level)), "{seen:?}");
}

/// What is unrolled matches in every pair, and each seam is as long as it was found: to 1 mm, but for what truing its ends takes.
#[test]
fn what_is_unrolled_is_true() {
    let mut wrong = Vec::new();
    for name in DEMO {
        let (garment, _, pieces) = pieces_of(name);
        let joins = joins(&garment, &pieces);
        assert!(!joins.is_empty());
        wrong.extend(true_up(&pieces, &joins).into_iter().map(|w| format!("{name}: {w:?}")));
        for join in joins.iter().filter(|j| !j.is_eased()) {
            let [one, other] = join.lengths(&pieces);
            if (one - other).abs() > 1.0 {
                wrong.push(format!("{name}, {:?}: {one} and {other}", join.name));
            }
        }
        let [hole, found] = [
            joins.iter().find(|j| j.name == EdgeName::Seam(Seam::ArmholeSeam)).map(|j| j.lengths(&pieces)[0]),
            garment.seam(Seam::ArmholeSeam).map(|f| f.length.length.cm() * 10.0),
        ];
        if let (Some(hole), Some(found)) = (hole, found)
            && (hole - found).abs() > 1.0
        {
            wrong.push(format!("{name}: an armhole of {hole} instead of {found}"));
        }
    }
    assert_eq!(wrong, Vec::<String>::new());
}

/// Those of the demo, and two that it does not have as they begin: without straps, and with legs and shoulders.
fn garments() -> impl Iterator<Item = (&'static str, Garment, Vec<Piece>)> {
    let of_demo = DEMO.into_iter().map(|name| {
        let (garment, _, pieces) = pieces_of(name);
        (name, garment, pieces)
    });
    let begun = [("boned bodice", Kind::BonedBodice), ("coverall", Kind::Coverall)].map(|(name, kind)| {
        let garment = made::with_panels(false).find(|garment| garment.kind == kind).unwrap();
        let pieces = unroll(&garment, &demo("pinafore-toile").wearer, None);
        (name, garment, pieces)
    });
    of_demo.chain(begun)
}

/// Every change there is of a piece, by so much.
fn changes(piece: &Piece, by: &str) -> Vec<PieceChange> {
    let (key, by) = (piece.key, m(by));
    let mut all = vec![PieceChange::Width { piece: key, by }, PieceChange::Flare { piece: key, by }];
    for (below, _) in &piece.levels {
        all.push(PieceChange::Length { part: key.part, face: Some(key.face), below: *below, by });
        for at in [OpensAt::Middle, OpensAt::Side] {
            all.push(PieceChange::Wedge { piece: key, below: *below, at, by });
        }
    }
    if super::upper::has_armhole(piece) {
        all.push(PieceChange::Armhole { piece: key, lower: by, inwards: by });
        all.push(PieceChange::Shoulder { piece: key, shorter: by, lower: by });
    }
    if all.len() > 2 && piece.edge(EdgeName::Neckline).is_some() && piece.edge(EdgeName::Fold).is_some() {
        all.push(PieceChange::Neckline { piece: key, lower: by, wider: by });
    }
    for edge in piece.edges.iter().filter(|edge| edge.length() > 60.0) {
        let pins = vec![EdgePin { at: m("5 cm"), by }];
        all.push(PieceChange::MoveEdge { piece: key, edge: edge.name, pins });
        all.extend([true, false].map(|upper| PieceChange::End { piece: key, edge: edge.name, upper, by }));
    }
    all
}

fn lengths(pieces: &[Piece]) -> Vec<f64> {
    pieces.iter().flat_map(|p| p.edges.iter().map(Edge::length)).collect()
}

#[test]
fn a_change_by_nought_is_none_and_one_by_less_than_nought_takes_it_back() {
    for (name, _, pieces) in garments() {
        for piece in &pieces {
            for change in changes(piece, "0 cm") {
                let mut same = pieces.clone();
                apply(&mut same, &change).unwrap_or_else(|e| panic!("{name}, {change:?}: {e:?}"));
                for (a, b) in lengths(&same).into_iter().zip(lengths(&pieces)) {
                    assert!((a - b).abs() < 0.01, "{name}, {change:?}: {a} instead of {b}");
                }
            }
            let there = changes(piece, "1.3 cm").into_iter().zip(changes(piece, "-1.3 cm"));
            for (change, back) in there {
                let is_exact = matches!(change, PieceChange::Length { .. } | PieceChange::Width { .. });
                // What is turned, or trimmed, leaves other lines beside it.
                let is_drawn_back = is_exact
                    || matches!(change, PieceChange::Armhole { .. } | PieceChange::Shoulder { .. })
                    || matches!(change, PieceChange::Neckline { .. });
                let mut both = pieces.clone();
                let done = apply(&mut both, &change).and_then(|()| apply(&mut both, &back));
                if done.is_err() || !is_drawn_back {
                    continue;
                }
                for (a, b) in both.iter().zip(&pieces) {
                    // What lies below went down and came up again.
                    assert!((a.area() - b.area()).abs() < b.area() * 0.01, "{name}, {change:?}");
                    let [a, b] = [a.bounds(), b.bounds()].map(|bounds| [bounds.width(), bounds.height()]);
                    let near = if is_exact { 0.01 } else { 1.5 };
                    assert!(
                        a.iter().zip(b).all(|(a, b)| (a - b).abs() < near),
                        "{name}, {change:?}: {a:?} and {b:?}"
                    );
                }
            }
        }
    }
}

#[test]
fn a_change_is_by_its_figure_where_it_says_so() {
    let (_, _, pieces) = pieces_of("school-skirt");
    let (front, by) = (pieces[0].key, m("2 cm"));
    let done = |change: PieceChange| {
        let mut all = pieces.clone();
        apply(&mut all, &change).unwrap();
        let more =
            |name: EdgeName| all[0].edge(name).unwrap().length() - pieces[0].edge(name).unwrap().length();
        let back = all[1] == pieces[1];
        ([EdgeName::Fold, EdgeName::Hem, EdgeName::Waist].map(more), back)
    };
    let near = |is: [f64; 3], wanted: [f64; 3]| {
        assert!(is.iter().zip(wanted).all(|(a, b)| (a - b).abs() < 0.5), "{is:?} instead of {wanted:?}");
    };
    let below = Level::Hip;
    let (more, is_front_alone) =
        done(PieceChange::Length { part: front.part, face: Some(front.face), below, by });
    near(more, [20.0, 0.0, 0.0]);
    assert!(is_front_alone, "front alone where only the front changes");
    near(done(PieceChange::Width { piece: front, by }).0, [0.0, 20.0, 20.0]);
    near(done(PieceChange::Flare { piece: front, by }).0, [0.0, 20.0, 0.0]);
    near(done(PieceChange::Wedge { piece: front, below, at: OpensAt::Middle, by }).0, [20.0, 1.0, 0.0]);
    let hem = EdgeName::Hem;
    near(done(PieceChange::End { piece: front, edge: hem, upper: true, by }).0, [0.0, 20.0, 0.0]);
}

/// In front and behind it goes alike: what is sewn together is as equal as it was, and its notches meet.
#[test]
fn what_is_lengthened_still_matches() {
    let mut seen = 0;
    for (name, garment, pieces) in garments() {
        let off = |pieces: &[Piece]| -> Vec<f64> {
            let all = joins(&garment, pieces).into_iter().map(|join| join.lengths(pieces));
            all.map(|[one, other]| other - one).collect()
        };
        let parts: std::collections::BTreeSet<PiecePart> =
            pieces.iter().map(|piece| piece.key.part).collect();
        for part in parts {
            let levels =
                pieces.iter().filter(|piece| piece.key.part == part).flat_map(super::change::lines_of);
            for (below, by) in levels.flat_map(|level| ["3 cm", "-2 cm"].map(|by| (level, m(by)))) {
                let mut all = pieces.clone();
                let change = PieceChange::Length { part, face: None, below, by };
                if apply(&mut all, &change).is_err() {
                    continue;
                }
                for (is, was) in off(&all).into_iter().zip(off(&pieces)) {
                    assert!((is - was).abs() < 0.5, "{name}, {change:?}: {was} became {is}");
                    seen += 1;
                }
                let parted = true_up(&all, &joins(&garment, &all));
                assert!(!parted.iter().any(|u| matches!(u, Untrue::Notches { .. })), "{name}, {change:?}");
            }
        }
    }
    assert!(seen > 200, "{seen}");
}

/// Above the crotch a leg is made shorter in its rise, and its inseam stays.
#[test]
fn a_rise_is_shortened_above_the_crotch() {
    for name in ["corduroys", "summer-trousers"] {
        let (_, _, pieces) = pieces_of(name);
        for (below, by) in [Level::Waist, Level::Hip].into_iter().flat_map(|l| [(l, -20.0), (l, 15.0)]) {
            let mut all = pieces.clone();
            let measure = m(&format!("{by} mm"));
            let change = PieceChange::Length { part: PiecePart::Leg, face: None, below, by: measure };
            apply(&mut all, &change).unwrap();
            for (was, is) in pieces.iter().zip(&all).filter(|(was, _)| was.key.part == PiecePart::Leg) {
                assert!(super::change::lines_of(was).contains(&below));
                let high = |piece: &Piece| piece.bounds().height();
                assert!((high(is) - high(was) - by).abs() < 0.01, "{name}, {change:?}");
                let more = |seam: Seam| {
                    let [was, is] = [was, is].map(|piece| piece.edge(EdgeName::Seam(seam)).unwrap().length());
                    is - was
                };
                assert!(more(Seam::Inseam).abs() < 0.01, "{name}, {change:?}: {}", more(Seam::Inseam));
                let rise = if was.edge(EdgeName::Seam(Seam::FrontRise)).is_some() {
                    Seam::FrontRise
                } else {
                    Seam::SeatSeam
                };
                for seam in [rise, Seam::Outseam] {
                    assert!((more(seam) - by).abs() < 4.0, "{name}, {change:?}: {}", more(seam));
                }
            }
        }
    }
}

#[test]
fn what_a_piece_does_not_have_is_not_taken_from_it() {
    let (_, _, pieces) = pieces_of("school-skirt");
    let front = pieces[0].key;
    let refused = |change: PieceChange| {
        let mut all = pieces.clone();
        let why = apply(&mut all, &change).unwrap_err();
        assert_eq!(all, pieces, "all of it or nothing");
        why
    };
    let sleeve = PieceKey { part: PiecePart::Sleeve, ..front };
    let by = |text: &str| m(text);
    assert_eq!(refused(PieceChange::Width { piece: sleeve, by: by("1 cm") }), CannotBe::NotThere);
    assert_eq!(refused(PieceChange::Width { piece: front, by: by("-20 cm") }), CannotBe::TooMuch);
    assert_eq!(refused(PieceChange::Flare { piece: front, by: by("2 m") }), CannotBe::TooMuch);
    let below = Level::Bust;
    let at = OpensAt::Side;
    assert_eq!(refused(PieceChange::Wedge { piece: front, below, at, by: by("1 cm") }), CannotBe::NoLevel);
    let edge = EdgeName::Neckline;
    assert_eq!(refused(PieceChange::Allowance { piece: front, edge, width: by("1 cm") }), CannotBe::NotThere);
}

#[test]
fn truing_finds_whatever_is_planted_in_any_pair() {
    let mut counted = 0;
    for (name, garment, pieces) in garments() {
        let joins = joins(&garment, &pieces);
        for (n, join) in joins.iter().enumerate() {
            for (which, (edges, times)) in join.sides.iter().enumerate() {
                for at in edges {
                    let piece = &pieces[at.piece];
                    let (key, edge) = (piece.key, piece.edges[at.edge].name);
                    if piece.edges[at.edge].second {
                        continue;
                    }
                    // What a hand eases in is no fault, on either tape; a mark more is one.
                    let is_plain = *times == 1 && !join.is_eased() && join.off(&pieces).abs() < 0.02;
                    let to_a_mark = [("3 mm", false), ("1/8 in", false), ("4 mm", true), ("3/16 in", true)];
                    counted += usize::from(is_plain);
                    let close = to_a_mark.iter().copied().filter(|_| is_plain);
                    for (by, is_found) in close.chain([("1 mm", false), ("35 mm", true)]) {
                        let mut longer = pieces.clone();
                        let by = m(by);
                        let change = PieceChange::End { piece: key, edge, upper: false, by };
                        apply(&mut longer, &change).unwrap();
                        let [was, is] = [&pieces, &longer].map(|p| join.lengths(p)[which]);
                        let planted = f64::from(*times) * by.length.cm() * 10.0;
                        assert!((is - was - planted).abs() < 0.1, "{name}, {edge:?}: {was} became {is}");
                        let found = true_up(&longer, &joins);
                        let has =
                            found.iter().any(|u| matches!(u, Untrue::Lengths { join, .. } if *join == n));
                        assert_eq!(has, is_found, "{name}, {edge:?} of {key:?}: {by:?}");
                    }
                }
            }
        }
    }
    assert!(counted > 40, "{counted}");
}

/// Parallel to every edge, with corners that meet: so far outside everywhere, but for so many mm, and never across itself.
pub(super) fn is_cut_outside(piece: &Piece, within: f64) -> Result<(), String> {
    let cut = cut_line(piece);
    if path_crosses(&cut) != Some(false) {
        return Err(format!("{:?}: its cut line crosses itself: {}", piece.key, cut.to_svg()));
    }
    if cut.area().abs() <= piece.area() {
        return Err(format!("{:?}: what is cut is no larger than what is sewn", piece.key));
    }
    let count = piece.edges.len();
    for (n, edge) in piece.edges.iter().enumerate() {
        let beside = [&piece.edges[(n + count - 1) % count], edge, &piece.edges[(n + 1) % count]];
        let [least, most] = [f64::min, f64::max]
            .map(|of| beside.iter().map(|edge| edge.allowance).reduce(of).unwrap_or_default());
        let long = edge.length();
        for share in (0..=20).map(|n| f64::from(n) / 20.0) {
            let (at, way) = edge.at(long * share);
            let out = |by: f64| at + Vec2::new(way.y, -way.x) * by;
            let off = |curve: PathSeg| curve.nearest(at, 1e-4).distance_sq.sqrt();
            let nearest = |all: &mut dyn Iterator<Item = PathSeg>| all.map(off).fold(f64::INFINITY, f64::min);
            // Away from its corners just so far; at them no nearer; a narrow piece may have another edge there.
            let is_right = if long * share.min(1.0 - share) > 3.0 * most {
                let off = nearest(&mut cut.segments()) - edge.allowance;
                // In a hollow of the edge itself its two sides meet further out.
                let ways = [-1.0, 1.0].map(|by| edge.at(long * share + by * edge.allowance.max(1.0)).1);
                let hollow = (1.0 - ways[0].dot(ways[1])) * edge.allowance;
                (-within..within + hollow).contains(&off)
                    || cut.contains(out(edge.allowance - within))
                        && !cut.contains(out(edge.allowance + within))
            } else {
                let others = piece.edges.iter().filter(|e| beside.iter().all(|own| !std::ptr::eq(*own, *e)));
                let mut others = others.flat_map(|e| &e.curves).map(|c| PathSeg::Cubic(*c));
                nearest(&mut others) < 2.0 * most || nearest(&mut cut.segments()) > least - within
            };
            if !is_right {
                return Err(format!("{:?}, {:?}, at {share}: {}", piece.key, edge.name, cut.to_svg()));
            }
        }
    }
    Ok(())
}

#[test]
fn what_is_cut_lies_outside_what_is_sewn_by_its_allowance() {
    for (name, _, pieces) in garments() {
        for piece in &pieces {
            is_cut_outside(piece, 0.1).unwrap_or_else(|wrong| panic!("{name}, {wrong}"));
        }
    }
}

/// No edge turns in itself by more than so many degrees, but in the mouths of darts: they are closed.
pub(super) fn runs_smooth(piece: &Piece, degrees: f64) -> Result<(), String> {
    for dart in &piece.darts {
        if let Some((on, turns)) = turns_at(piece, dart).filter(|(_, turns)| turns.abs() > degrees) {
            return Err(format!("{on:?} of {:?}: {turns:.1}° over {:?}", piece.key, dart.dart));
        }
    }
    for edge in &piece.edges {
        let on = piece.darts.iter().filter(|dart| dart.other.is_none() && is_on(edge, dart));
        let mouths: Vec<_> = on.map(|dart| dart.mouth.map(|p| along_curves(&edge.curves, p))).collect();
        let curves: Vec<_> = edge.curves.iter().filter(|c| c.arclen(1e-3) > 0.01).collect();
        for pair in curves.windows(2) {
            let [into, on] = [way_of(pair[0], 1.0), way_of(pair[1], 0.0)];
            let turn = into.cross(on).atan2(into.dot(on)).to_degrees();
            if turn.abs() <= degrees {
                continue;
            }
            let along = along_curves(&edge.curves, pair[1].p0);
            let is_closed = |[a, b]: &[f64; 2]| (a.min(*b) - 1.0..a.max(*b) + 1.0).contains(&along);
            if !mouths.iter().any(is_closed) {
                return Err(format!("{:?} of {:?}: {turn:.1}° at {along:.0}", edge.name, piece.key));
            }
        }
    }
    Ok(())
}

/// As pieces are unrolled, and after every change of them; the grain runs as it did, and a shoulder or a hem that was straight is straight in a piece
/// that gets wider.
#[test]
fn edges_run_smooth_after_every_change() {
    let (mut seen, mut straights) = (0, 0);
    for (name, _, pieces) in garments() {
        for piece in &pieces {
            runs_smooth(piece, 2.0).unwrap_or_else(|wrong| panic!("{name}: {wrong}"));
            for change in ["2 cm", "-2 cm", "0.6 cm"].iter().flat_map(|by| changes(piece, by)) {
                let mut all = pieces.clone();
                if apply(&mut all, &change).is_err() {
                    continue;
                }
                let is_wider = matches!(change, PieceChange::Width { .. } | PieceChange::Flare { .. });
                for (was, is) in pieces.iter().zip(&all) {
                    runs_smooth(is, 2.0).unwrap_or_else(|wrong| panic!("{name}, {change:?}: {wrong}"));
                    let [old, new] = [was, is].map(|piece| piece.grain[1] - piece.grain[0]);
                    assert!(old.cross(new).abs() < 1e-6 && old.dot(new) > 0.0, "{name}, {change:?}");
                    for (was, is) in was.edges.iter().zip(&is.edges).filter(|(was, _)| was.is_straight()) {
                        let way = was.end() - was.start();
                        if is_wider && way.x.abs() > way.y.abs() {
                            assert!(is.is_straight(), "{name}, {change:?}");
                            straights += 1;
                        }
                    }
                    seen += 1;
                }
            }
        }
    }
    assert!(seen > 5000 && straights > 400, "{seen}, {straights}");
}

/// However wide an allowance is, what is cut never crosses itself: one that does not fit is refused, and none up to 5 cm is.
#[test]
fn an_allowance_fits_into_its_bend_or_is_refused() {
    let mut refused = 0;
    for (name, _, pieces) in garments() {
        for piece in &pieces {
            for (wide, edge) in
                [3, 5, 8, 12, 20].iter().flat_map(|w| piece.edges.iter().map(move |e| (*w, e)))
            {
                let mut all = pieces.clone();
                let change = PieceChange::Allowance {
                    piece: piece.key,
                    edge: edge.name,
                    width: m(&format!("{wide} cm")),
                };
                match apply(&mut all, &change) {
                    Ok(()) => {
                        let own = all.iter().find(|own| own.key == piece.key).unwrap();
                        assert_eq!(path_crosses(&cut_line(own)), Some(false), "{name}, {change:?}");
                    }
                    Err(why) => {
                        assert!(why == CannotBe::TooWide && wide > 5, "{name}, {change:?}: {why:?}");
                        refused += 1;
                    }
                }
            }
        }
    }
    assert!((5..100).contains(&refused), "{refused}");
}

/// A level is marked from where its piece begins there: no mark lies beside its piece, and no words begin there.
#[test]
fn levels_are_marked_and_words_written_on_their_piece() {
    let mut seen = 0;
    for name in DEMO {
        for sheet in piece_sheets(&demo(name), WhichPieces::All, Tape::Cm).unwrap() {
            let outline = &sheet.lines.iter().find(|(ink, _)| *ink == PaperInk::New).unwrap().1;
            for (at, words) in &sheet.words {
                assert!(within(outline)(*at), "{name}, {}, {words}: {at:?}", sheet.title);
            }
            let named = sheet.piece.as_ref().unwrap();
            for line in named.lines.iter().filter(|line| line.name.starts_with("level: ")) {
                let mark = line.path.segments().next().unwrap();
                let off = outline
                    .segments()
                    .map(|s| s.nearest(mark.start(), 1e-3).distance_sq)
                    .fold(f64::INFINITY, f64::min);
                assert!(off < 0.01, "{name}, {}, {}: {off}", sheet.title, line.name);
                assert!(within(outline)(mark.end()), "{name}, {}, {}", sheet.title, line.name);
                seen += 1;
            }
        }
    }
    assert!(seen > 50, "{seen}");
}

/// An edge that is cut off is as much shorter, whichever end it is, and never runs back; cut off whole, a hair of it is left.
#[test]
fn an_edge_is_as_long_as_it_is_cut_to() {
    for (name, _, pieces) in garments() {
        for edge in pieces.iter().flat_map(|piece| &piece.edges) {
            let long = edge.length();
            for share in [0.0, 0.1, 0.5, 0.999, 1.0, 1.2] {
                let mut cut = [edge.clone(), edge.clone()];
                cut[0].cut_off(long * share);
                cut[1].cut_off_end(long * share);
                let left = (long * (1.0 - share)).max(0.001);
                for is in cut.map(|cut| cut.length()) {
                    assert!((is - left).abs() < 0.001, "{name}, {:?}, {share}: {is}, not {left}", edge.name);
                }
            }
        }
    }
}

/// What is chalked on the cloth is what is sewn on paper: girths after, level by level, of every try-on of the example.
#[test]
fn pieces_follow_the_lines_that_are_chalked() {
    let mut seen = 0;
    for name in DEMO {
        let document = demo(name);
        let Some(try_on) = document.try_ons.last() else { continue };
        let garment = &document.state(try_on.state).unwrap().garment;
        let seams: Vec<Change> =
            try_on.changes.iter().filter(|c| matches!(c, Change::Seam(_))).cloned().collect();
        let on = On { garment, wearer: &document.wearer, hem_marks: &[], keeps_all: false };
        let drawn = draw(on, &seams).unwrap();
        for side in GarmentSide::BOTH {
            let (pieces, left) =
                carried((garment, &document.wearer), (&[], try_on.id), (&drawn, &[]), side, Tape::Cm);
            assert_eq!(left, vec![], "{name}");
            let before = unroll(garment, &document.wearer, None);
            for level in garment.levels.iter().filter(|l| !l.level.is_at_an_edge()) {
                let [was, is] = [&before, &pieces].map(|p| girth_of(garment, p, level.level));
                let (Some(was), Some(is)) = (was, is) else { continue };
                let whole = garment.round(level.level) == Round::Whole;
                if whole && !drawn.iter().all(Drawn::sides_agree) {
                    continue;
                }
                let sides = if whole { &GarmentSide::BOTH[..] } else { &[side] };
                let off: f64 = drawn
                    .iter()
                    .flat_map(|d| d.takes(garment, level.level, Length::ZERO, sides, Tape::Cm))
                    .map(|term| term.off().cm() * 10.0)
                    .sum();
                let got = was - is;
                assert!(
                    (got - off).abs() < 3.0,
                    "{name}, {:?}, {side:?}: {got} instead of {off}, {sides:?}",
                    level.level
                );
                seen += usize::from(off > 0.0);
            }
        }
    }
    assert!(seen > 4, "{seen}");
}

/// The example's toile, pinned on the body, is carried to paper and still matches but for what its hem comes to at the sides.
#[test]
fn what_is_chalked_on_the_toile_is_carried_to_its_pieces() {
    let found = super::pieces(&demo("pinafore-toile"), OfCloth::default(), Tape::Cm).unwrap();
    let chips: Vec<&str> = found.chips.iter().map(|chip| &chip.words[..]).collect();
    assert_eq!(
        chips,
        [
            "Side seam, as it is chalked",
            "Shoulder seam, as it is chalked",
            "Bust dart, as it is chalked",
            "Shoulders and armholes, as it is chalked",
            "Hem, as it is chalked",
            "Gathers or pleats at the waist, as it is chalked",
            "Bust point: 1.0 cm, as it was marked on toile 1",
            "Balance line behind: 0.7 cm, as it was marked on toile 1"
        ]
    );
    assert_eq!(found.left, Vec::<String>::new());
    let set = &found.sets[0];
    assert!(set.pieces.iter().all(|piece| piece.old.is_some()));
    let untrue: Vec<String> =
        set.untrue.iter().map(|line| format!("{}: {}", line.title, line.figures)).collect();
    insta::assert_snapshot!("toile_untrue", untrue.join("\n"));
}

/// What is still untrue of a line: of notches the same one, of a length whatever it is now.
pub(super) fn still<'a>(set: &'a PieceSet, line: &UntrueLine) -> Option<&'a UntrueLine> {
    let of_it = |line: &UntrueLine| {
        let notch =
            line.figures.strip_prefix("notch ").and_then(|rest| rest.split(' ').next().map(String::from));
        (line.title.clone(), line.pieces.clone(), notch)
    };
    set.untrue.iter().find(|other| of_it(other) == of_it(line))
}

/// Whatever is planted that makes lines come to a point at a seam, or no longer square to a fold: each is said with a mend of one tap, and that
/// leaves every edge as long as it is, to 2 mm.
#[test]
fn corners_are_trued_by_a_tap() {
    let (mut tried, mut lacking) = (0, Vec::new());
    for name in
        ["overcoat", "tea-dress", "summer-trousers", "school-skirt", "concert-shirt", "pinafore-toile"]
    {
        let mut document = demo(name);
        document.try_ons.clear();
        document.wishes.pattern.marks.clear();
        let sound = super::pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
        for piece in sound.may.iter().filter(|may| may.key.part != PiecePart::Waistband) {
            let tilted = |edge: EdgeName, from: bool, out: f64| {
                let long =
                    sound.sets[0].pieces.iter().find(|p| p.key == piece.key).and_then(|p| {
                        p.edges.iter().find(|e| e.name == edge).map(|e| e.long.nm as f64 / 1e7)
                    });
                let at = |cm: f64| Measure { length: Length::from_cm(cm), unit: Unit::Cm };
                let (end, before) = (long.unwrap(), (long.unwrap() - 6.0).max(0.0));
                let places =
                    if from { [(6.0_f64.min(end), 0.0), (0.0, out)] } else { [(before, 0.0), (end, out)] };
                let pins = places.map(|(place, by)| EdgePin { at: at(place), by: at(by) }).to_vec();
                PieceChange::MoveEdge { piece: piece.key, edge, pins }
            };
            let edges = piece.edges.iter().filter(|edge| !edge.beside.is_empty());
            let ends = [(true, 1.0), (true, -1.0), (false, 1.0), (false, -1.0)];
            for planted in edges.flat_map(|edge| ends.map(|(from, out)| tilted(edge.name, from, out))) {
                document.wishes.pattern.changes = vec![planted.clone()];
                let found = super::pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
                let is_corner = |line: &&UntrueLine| {
                    line.title.contains("comes to a point at") || line.title.contains("is not square")
                };
                for line in found.sets[0].untrue.iter().filter(is_corner) {
                    let [mend] = &line.mends[..] else {
                        lacking.push(format!("{name}: {}, {}", line.title, line.figures));
                        continue;
                    };
                    document.wishes.pattern.changes = vec![planted.clone(), mend.change.clone()];
                    let after = super::pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
                    assert_eq!(still(&after.sets[0], line), None, "{name}, {planted:?}");
                    let edges = |found: &Pieces| -> Vec<i64> {
                        let pieces = found.sets[0].pieces.iter();
                        pieces.flat_map(|piece| piece.edges.iter().map(|edge| edge.long.nm)).collect()
                    };
                    let bent = edges(&found).into_iter().zip(edges(&after)).filter(|(was, is)| was != is);
                    let off = bent.map(|(was, is)| (was - is).abs()).max().unwrap_or(0);
                    assert!(off <= 2_000_000, "{name}, {planted:?}: an edge is {off} nm longer");
                    let lines = |found: &Pieces| found.sets[0].untrue.len();
                    assert!(lines(&after) < lines(&found), "{name}, {planted:?}: {:?}", after.sets[0].untrue);
                    tried += 1;
                }
            }
        }
    }
    assert_eq!(lacking, Vec::<String>::new());
    assert!(tried > 30, "{tried}");
}

/// Every mend that is offered, taken as it stands, can be and mends what it is offered for, on whichever tape: whichever edge was made longer or
/// shorter, eased in or gathered.
#[test]
fn what_is_offered_mends() {
    let (mut tried, mut less, mut planted_so_far, mut lacking) = (0, 0, 0, Vec::new());
    for name in ["overcoat", "tea-dress", "summer-trousers", "school-skirt", "pinafore-toile"] {
        let mut document = demo(name);
        document.try_ons.clear();
        document.wishes.pattern.marks.clear();
        let sound = super::pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
        assert_eq!(sound.sets[0].untrue, vec![], "{name}");
        for piece in &sound.may {
            let is_sewn = |edge: &&EdgeShownName| matches!(edge.name, EdgeName::Seam(_) | EdgeName::Waist);
            for edge in piece.edges.iter().filter(is_sewn) {
                let (piece, edge) = (piece.key, edge.name);
                let end = |by: &str, upper| PieceChange::End { piece, edge, upper, by: m(by) };
                let eased = |by: &str, into| PieceChange::Eased { piece, edge, by: m(by), into };
                for planted in [
                    end("1.3 cm", true),
                    end("-0.9 cm", false),
                    eased("7 cm", Fullness::Gathers),
                    eased("1.2 cm", Fullness::Ease),
                ] {
                    // Each on another tape.
                    let tape = Tape::ALL[planted_so_far % Tape::ALL.len()];
                    planted_so_far += 1;
                    document.wishes.pattern.changes = vec![planted.clone()];
                    let found = super::pieces(&document, OfCloth::default(), tape).unwrap();
                    for line in &found.sets[0].untrue {
                        if line.title.ends_with("does not match") && line.mends.is_empty() {
                            lacking.push(format!("{name}, {planted:?}: {}", line.figures));
                        }
                    }
                    let mends = found.sets[0]
                        .untrue
                        .iter()
                        .flat_map(|line| line.mends.iter().map(move |m| (line, m)));
                    for (line, mend) in mends {
                        document.wishes.pattern.changes = vec![planted.clone(), mend.change.clone()];
                        let after = super::pieces(&document, OfCloth::default(), tape).unwrap();
                        assert_eq!(still(&after.sets[0], line), None, "{name}, {planted:?}: {}", mend.words);
                        let cannot = after
                            .chips
                            .iter()
                            .filter(|chip| chip.entered == Some(1) && chip.cannot.is_some());
                        assert_eq!(cannot.count(), 0, "{name}, {planted:?}: {}", mend.words);
                        tried += 1;
                        // What was planted, taken back as far as need be.
                        let is_eased = |change: &PieceChange| matches!(change, PieceChange::Eased { piece: p, edge: e, .. } if (*p, *e) == (piece, edge));
                        less += usize::from(is_eased(&planted) && is_eased(&mend.change));
                    }
                }
            }
        }
    }
    assert!(tried > 60 && less > 20, "{tried}, {less}");
    assert_eq!(lacking, Vec::<String>::new());
}

/// What was made from a piece that is changed afterwards, a facing of any of its edges: each edge that no longer matches has a mend that does it.
#[test]
fn what_was_made_before_its_piece_was_changed_can_be_mended() {
    let mut mended = std::collections::BTreeSet::new();
    for name in ["tea-dress", "school-skirt", "pinafore-toile"] {
        let mut document = demo(name);
        (document.try_ons, document.wishes.pattern) = (Vec::new(), crate::work::Pattern::default());
        for may in &super::pieces(&document, OfCloth::default(), Tape::Cm).unwrap().may {
            let piece = may.key;
            let wedge = may.levels.first().map(|below| {
                let at = crate::work::OpensAt::Middle;
                PieceChange::Wedge { piece, below: *below, at, by: m("0.8 cm") }
            });
            let after: Vec<PieceChange> =
                [Some(PieceChange::Width { piece, by: m("0.8 cm") }), wedge].into_iter().flatten().collect();
            for (faced, after) in may.faced.iter().flat_map(|faced| after.iter().map(move |a| (faced, a))) {
                let facing = PieceChange::Facing { piece, edge: faced.name, wide: m("3 cm") };
                let mut solve = |mend: Option<&PieceChange>| {
                    document.wishes.pattern.changes = vec![facing.clone(), after.clone()];
                    document.wishes.pattern.changes.extend(mend.cloned());
                    super::pieces(&document, OfCloth::default(), Tape::Cm).unwrap().sets.remove(0)
                };
                let found = solve(None);
                let is_faced = |p: &usize| found.pieces[*p].name.contains("facing");
                for line in found
                    .untrue
                    .iter()
                    .filter(|line| line.title.ends_with("does not match") && line.pieces.iter().any(is_faced))
                {
                    assert!(!line.mends.is_empty(), "{name}, {facing:?}, {after:?}: {}", line.figures);
                    for mend in &line.mends {
                        assert_eq!(still(&solve(Some(&mend.change)), line), None, "{name}: {}", mend.words);
                        mended.insert(faced.name);
                    }
                }
            }
        }
    }
    assert!(mended.contains(&EdgeName::Seam(Seam::ArmholeSeam)) && mended.len() > 3, "{mended:?}");
}

/// Notches of a seam that is moved, or whose hem is, still meet.
#[test]
fn notches_meet_after_everything_that_is_chalked() {
    for name in ["overcoat", "tea-dress", "corduroys", "concert-shirt", "jersey-top", "school-skirt"] {
        let found = super::pieces(&demo(name), OfCloth::default(), Tape::Cm).unwrap();
        for set in &found.sets {
            let apart: Vec<&str> = set
                .untrue
                .iter()
                .filter(|u| u.title.starts_with("A notch"))
                .map(|u| &u.figures[..])
                .collect();
            assert_eq!(apart, Vec::<&str>::new(), "{name}");
        }
    }
}

/// Whatever is cut by somebody, as it starts on its wearer: its pieces go round what it goes round, and match.
#[test]
fn garments_of_every_kind_are_unrolled_true() {
    let wearer = demo("pinafore-toile").wearer;
    let mut wrong = Vec::new();
    for garment in made::with_panels(true).chain(made::with_panels(false)).chain(made::with_shoulder_darts())
    {
        let kind = garment.kind;
        let pieces = unroll(&garment, &wearer, None);
        let joins = joins(&garment, &pieces);
        wrong.extend(pieces.is_empty().then(|| format!("{kind:?} has no pieces")));
        wrong.extend(true_up(&pieces, &joins).into_iter().map(|u| format!("{kind:?}: {u:?}")));
        wrong.extend(pieces.iter().filter(|p| crosses(p)).map(|p| format!("{kind:?}: {:?} crosses", p.key)));
        for level in &garment.levels {
            let wanted = level.width.girth().cm() * 10.0;
            let girth = girth_of(&garment, &pieces, level.level).filter(|girth| (girth - wanted).abs() > 1.0);
            wrong.extend(girth.map(|g| format!("{kind:?}, {:?}: {g} instead of {wanted}", level.level)));
        }
    }
    assert_eq!(wrong, Vec::<String>::new());
    let cloth = cloth_named(Kind::Coverall.template().cloth).unwrap();
    let beginning =
        Beginning { name: "it".into(), kind: Kind::Coverall, toile: true, wearer: wearer.clone(), cloth };
    let mut coverall = begin(beginning);
    coverall.seams.retain(|facts| facts.seam != Seam::WaistSeam);
    assert_eq!(unroll(&coverall, &wearer, None), vec![], "legs and shoulders cut in one: which is said");
}

/// A wearer whose every figure is another, and some of the long seams.
pub(super) fn any_body() -> impl Strategy<Value = (Wearer, Vec<Seam>)> {
    let scales = proptest::collection::vec(0.9..1.12f64, 40);
    let seams = proptest::sample::subsequence(made::LONG_SEAMS.to_vec(), 0..=4);
    (scales, seams).prop_map(|(scales, seams)| {
        let mut wearer = demo("pinafore-toile").wearer;
        for (taken, by) in wearer.measurements.iter_mut().zip(&scales) {
            let scaled =
                |value: &mut Measure| value.length = Tape::Cm.round(Length::from_cm(value.length.cm() * by));
            taken.value.as_mut().map(scaled);
        }
        (wearer, seams)
    })
}

/// Garments of every kind on a wearer, with these long seams of those that they may have.
pub(super) fn begun_on<'a>(wearer: &Wearer, seams: &'a [Seam]) -> impl Iterator<Item = Garment> + 'a {
    made::with_panels_on(wearer.clone(), true).map(|mut garment| {
        garment.seams.retain(|facts| !made::LONG_SEAMS.contains(&facts.seam) || seams.contains(&facts.seam));
        garment
    })
}

/// What laps over in front, where something does.
fn any_closure() -> impl proptest::strategy::Strategy<Value = Option<Closure>> {
    proptest::option::of(proptest::sample::select(vec![Closure::Wrap, Closure::Buttons]))
}

/// Closes what has no legs so in front, where it then has no seam.
fn close_in_front(garment: &mut Garment, closed: Option<Closure>) {
    if let Some(closure) = closed.filter(|_| !garment.has_legs()) {
        garment.closures = vec![ClosureFacts { closure, at: Opening::CentreFront, count: 0 }];
        garment.seams.retain(|facts| facts.seam != Seam::CentreFront);
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(100))]

    /// On whatever body and with whichever long seams and neckline, gathered at the waist and the sleeve hems or not: pieces match, go round what the garment goes round, and
    /// the seams of a skirt go on where those of its bodice end.
    #[test]
    fn garments_of_every_body_are_unrolled_true(
        (wearer, seams) in any_body(),
        fuller in proptest::option::of((proptest::sample::select(vec![LongEdge::Waist, LongEdge::SleeveHem]), 0.05..1.2f64)),
        neckline in proptest::option::of(proptest::sample::select(Neckline::ALL)),
        closed in any_closure(), has_darts in proptest::prelude::any::<bool>(),
    ) {
        for mut garment in begun_on(&wearer, &seams) {
            garment.neckline = neckline.filter(|_| garment.hangs_from_shoulders());
            close_in_front(&mut garment, closed);
            // Without them a skirt has its yoke.
            garment.darts.retain(|_| has_darts);
            let round = |level: Level| garment.level(level).map(|level| level.width.girth().cm());
            // What is a fifth wider at its waist than at its hip is no leg.
            let most = round(Level::Hip).filter(|_| garment.has_legs()).map_or(f64::INFINITY, |hip| hip * 1.2);
            let gathered = fuller.and_then(|(at, share)| {
                let round = round(at.level())?;
                Some(gathered::facts(at, (round * share).min(most - round)))
            });
            garment.gathered = gathered.into_iter().collect();
            let kind = garment.kind;
            let pieces = unroll(&garment, &wearer, None);
            let joins = joins(&garment, &pieces);
            prop_assert_eq!(true_up(&pieces, &joins), vec![], "{:?}, {:?}", kind, joins);
            let crossing: Vec<PieceKey> = pieces.iter().filter(|piece| crosses(piece)).map(|piece| piece.key).collect();
            prop_assert!(!pieces.is_empty() && crossing.is_empty(), "{:?}: {:?}", kind, crossing);
            for piece in &pieces {
                let outline = piece.outline();
                let points = piece.darts.iter().flat_map(|dart| [Some(dart.point), dart.other]).flatten();
                prop_assert!(points.into_iter().all(|p| within(&outline)(p)), "{:?}, {:?}: a dart leaves it", kind, piece.key);
                prop_assert!(piece.grain.iter().all(|p| within(&outline)(*p)), "{:?}, {:?}: its grain leaves it", kind, piece.key);
            }
            // A dart that reaches above the bust line is lowered with its bodice by the dart at the side, and takes less there than it did.
            let high = |level: Level| garment.level(level).map_or(0.0, |l| l.station.length.cm());
            let reach = garment.darts.iter().map(|dart| high(Level::Waist) + dart.length.length.cm()).fold(0.0, f64::max);
            let is_clear = |level: Level| level != Level::Bust || reach < high(Level::Bust);
            for level in garment.levels.iter().filter(|l| is_clear(l.level)) {
                let wanted = level.width.girth().cm() * 10.0;
                let girth = girth_of(&garment, &pieces, level.level).unwrap_or(wanted);
                prop_assert!((girth - wanted).abs() <= 1.0, "{:?}, {:?}: {} not {}", kind, level.level, girth, wanted);
            }
            // From the middle on, as far as each seam.
            let waist = |part: PiecePart, face: PieceFace| {
                let of = pieces.iter().filter(move |piece| piece.key.part == part && piece.key.face == face);
                of.filter_map(|piece| Some(piece.sewn(piece.edge(EdgeName::Waist)?))).collect::<Vec<_>>()
            };
            let laps = pieces.iter().any(|piece| piece.edge(EdgeName::Opening).is_some());
            for face in [PieceFace::Front, PieceFace::Back].into_iter().filter(|_| !laps) {
                let [above, below] = [PiecePart::Bodice, PiecePart::Skirt].map(|part| waist(part, face));
                let share = |of: &[f64]| of.iter().map(|long| long / of.iter().sum::<f64>()).collect::<Vec<_>>();
                for (one, other) in share(&above).into_iter().zip(share(&below)) {
                    prop_assert!((one - other).abs() < 0.01, "{:?}, {:?}: {:?} and {:?}", kind, face, above, below);
                }
            }
        }
    }
}

/// What is said of two edges is a sum: on every tape the lengths that are shown differ by the figure beside them, and what is offered is that
/// figure.
#[test]
fn no_two_figures_of_a_mismatch_disagree() {
    let read = |text: &str| Measure::read(text.trim(), None).unwrap().length;
    let mut seen = 0;
    let mut document = demo("school-skirt");
    document.try_ons.clear();
    let may = super::pieces(&document, OfCloth::default(), Tape::Cm).unwrap().may;
    for tape in Tape::ALL.iter().copied() {
        for (n, by) in (33..90).step_by(3).enumerate() {
            let by = Measure { length: Length::from_nm(by * 100_000), unit: Unit::Mm };
            let piece = may[n % 2].key;
            let edge = EdgeName::Seam(Seam::SideSeam);
            document.wishes.pattern.changes = vec![PieceChange::End { piece, edge, upper: n % 3 == 0, by }];
            let found = super::pieces(&document, OfCloth::default(), tape).unwrap();
            let line = found.sets[0].untrue.iter().find(|u| u.title.contains("side seam does not")).unwrap();
            let (lengths, by) = line.figures.split_once(": ").unwrap();
            let by = read(by.split(" too long").next().unwrap());
            let lengths: Vec<Length> = lengths
                .split(" skirt, ")
                .flat_map(|part| part.split(", "))
                .filter_map(|part| part.split_once(" on the").map(|(length, _)| read(length)))
                .collect();
            if let [one, other] = lengths[..] {
                assert_eq!((one - other).abs(), by, "{tape:?}: {}", line.figures);
                seen += 1;
            }
            for mend in &line.mends {
                let (PieceChange::End { by: mends, .. } | PieceChange::Eased { by: mends, .. }) = mend.change
                else {
                    panic!("{mend:?}")
                };
                assert_eq!(mends.length.abs(), by, "{tape:?}: {}", mend.words);
                assert!(mend.words.contains(&tape.show(by)), "{tape:?}: {}", mend.words);
            }
        }
    }
    assert!(seen > 50, "{seen}");
}

/// Where left and right differ, each side has its own pieces, and nothing is cut twice too often.
#[test]
fn sides_that_differ_are_cut_apart() {
    let mut skirt = demo("school-skirt");
    skirt.try_ons.remove(0);
    let pins = vec![pin(GarmentSide::Left, "45 cm", "1 cm"), pin(GarmentSide::Right, "45 cm", "2.5 cm")];
    let change =
        SeamChange { sides: Some(SidePolicy::KeepEach), readings: pins, ..SeamChange::of(Seam::SideSeam) };
    skirt.try_ons[0].changes = vec![change.into()];
    let found = super::pieces(&skirt, OfCloth::default(), Tape::Cm).unwrap();
    let cut = |n: usize| -> Vec<&str> { found.sets[n].pieces.iter().map(|piece| piece.cut).collect() };
    let in_one = "cut in one with its other half, which is not the same";
    assert_eq!(cut(0), [in_one, "cut 1", "cut 1"]);
    assert_eq!(cut(1), [in_one, "cut 1, mirrored", "cut already, for the left side"]);
    let long =
        |n: usize| found.sets[n].pieces[0].edges.iter().find(|e| e.name == EdgeName::Waist).unwrap().long;
    assert_eq!(long(0).nm - long(1).nm, 15_000_000);
    // A hair apart they take the cloth that they take alike.
    let cloth = |right: &str| {
        let mut skirt = skirt.clone();
        let pins = vec![pin(GarmentSide::Left, "45 cm", "1 cm"), pin(GarmentSide::Right, "45 cm", right)];
        let change = SeamChange {
            sides: Some(SidePolicy::KeepEach),
            readings: pins,
            ..SeamChange::of(Seam::SideSeam)
        };
        skirt.try_ons[0].changes = vec![change.into()];
        let found = super::pieces(&skirt, OfCloth::default(), Tape::Cm).unwrap();
        (found.sets.len(), found.cloth)
    };
    let (alike, apart) = (cloth("1 cm"), cloth("1.1 cm"));
    assert_eq!((alike.0, apart.0, alike.1), (1, 2, apart.1));
}

/// A panel is a piece of its own: what it is sewn to is cut as it was.
#[test]
fn a_panel_moves_no_edge() {
    let mut dress = demo("tea-dress");
    dress.try_ons.truncate(1);
    let gap = Reading { how: How::Gap, ..pin(GarmentSide::Left, "60 cm", "6 cm") };
    let change = SeamChange { set_in: true, readings: vec![gap], ..SeamChange::of(Seam::CentreBack) };
    dress.try_ons[0].changes = vec![change.into()];
    let found = super::pieces(&dress, OfCloth::default(), Tape::Cm).unwrap();
    assert_eq!((found.chips.len(), found.left.len()), (0, 1));
    assert!(found.sets[0].pieces.iter().all(|piece| piece.old.is_none()));
}

/// Beside a hem the cut line mirrors the edge above: what is folded up lies on it.
#[test]
fn a_hem_that_is_turned_up_lies_on_the_edge_above_it() {
    let (_, _, pieces) = pieces_of("school-skirt");
    let cut = cut_line(&pieces[0]);
    let at = |y: f64| {
        let line = kurbo::Line::new((0.0, y), (1e4, y));
        cut.segments()
            .flat_map(|s| s.intersect_line(line).iter().map(|i| s.eval(i.segment_t).x).collect::<Vec<_>>())
            .fold(0.0, f64::max)
    };
    let corner = pieces[0].edge(EdgeName::Hem).unwrap().end();
    // At the side the fold runs square to the edge, over a slope of some degrees: near enough level.
    for depth in [15.0, 30.0, 50.0] {
        let (above, below) = (at(corner.y + depth), at(corner.y - depth));
        let flare = at(corner.y) - above;
        assert!(flare > 0.5 && (above - below).abs() < flare + depth * 0.4, "{depth}: {above} and {below}");
        assert!(below < at(corner.y) + depth * 0.3);
    }
}

/// A size that is chosen is what is unrolled, once the garment has its figures; what was measured stays.
#[test]
fn pieces_have_the_figures_of_the_size_that_is_cut() {
    let document = demo("summer-trousers");
    let (wearer, mut pattern) = (document.wearer.clone(), document.wishes.pattern.clone());
    let mut garment = document.newest().unwrap().garment.clone();
    // Every size of both charts is as long, and not as long as what nobody measured.
    for chart in &mut pattern.charts {
        chart.long = vec![m("91.5 cm"); chart.sizes.len()];
    }
    let before = sizes(&garment, &wearer, &pattern, &[], Tape::Cm);
    assert_eq!(before.as_cut, None, "nothing is chosen");
    let longest = |pieces: &[Piece]| pieces.iter().map(|p| p.bounds().height()).fold(0.0, f64::max);
    let was = longest(&unroll(&garment, &wearer, None));
    for candidate in &before.candidates {
        pattern.chosen = Some(candidate.choice.clone());
        let found = sizes(&garment, &wearer, &pattern, &[], Tape::Cm);
        let cut = found.as_cut.unwrap();
        let mut own = garment.clone();
        (own.levels, own.seams) = (cut.levels, cut.seams);
        // On every tape: taken over it is told no more, and what is told differs as it is told.
        for tape in Tape::ALL.iter().copied() {
            let Some(cut) = sizes(&garment, &wearer, &pattern, &[], tape).as_cut else { continue };
            for line in &cut.differs {
                let words = ["all round", "each leg", "per edge", "length from the waist"];
                assert!(words.iter().any(|words| line.of.ends_with(words)), "{}", line.of);
                assert_ne!(line.is, line.cut, "{tape:?}: {}", line.of);
            }
            let mut other = garment.clone();
            (other.levels, other.seams) = (cut.levels, cut.seams);
            assert_eq!(sizes(&other, &wearer, &pattern, &[], tape).as_cut, None, "{}", candidate.title);
        }
        let pieces = unroll(&own, &wearer, None);
        for level in &candidate.levels {
            let girth = girth_of(&own, &pieces, level.level).unwrap();
            let wanted = level.girth.nm as f64 / 1e6;
            assert!((girth - wanted).abs() < 1.0, "{}, {}: {girth}", candidate.title, level.name);
        }
        let [found, cut] = [&garment, &own].map(|g| g.level(Level::Waist).unwrap().station.length.cm());
        assert!((cut - 91.5).abs() < 1e-9, "{cut}");
        assert!((longest(&pieces) - was - (cut - found) * 10.0).abs() < 5.0, "{was}, {found} to {cut}");
        let allowance = pieces[0].edge(EdgeName::Seam(Seam::Outseam)).unwrap().allowance;
        assert!((allowance - candidate.choice.allowance.length.cm() * 10.0).abs() < 1e-9);
    }
    garment.levels.iter_mut().for_each(|level| level.assumed = false);
    garment.seams.iter_mut().for_each(|seam| seam.assumed = false);
    assert_eq!(sizes(&garment, &wearer, &pattern, &[], Tape::Cm).as_cut, None, "somebody measured it");
}

/// Cloth for pieces that may lie upside down is never more than for those that may not; two of a piece that narrows lie closer head to foot, and
/// never so close that they overlap; hems along a border take what they measure along it, and the one that is not straight is named.
#[test]
fn cloth_follows_from_how_pieces_may_lie_on_it() {
    use crate::pattern::ClothLies;
    let long = |document: &Document, lies: ClothLies, width: i64| {
        let cloth = OfCloth { width: Some(Length::from_mm(width)), lies: Some(lies) };
        let found = super::pieces(document, cloth, Tape::Cm).unwrap();
        let words = found.cloth.clone();
        let metres =
            words.strip_prefix("About ").and_then(|rest| rest.split(' ').next()?.parse::<f64>().ok());
        (metres, words, found.off_border)
    };
    let path = |text: &str| kurbo::BezPath::from_svg(text).unwrap();
    for (outline, across) in
        [("M0 0H100V100H0Z", 210.0), ("M0 0H100L0 200Z", 110.0), ("M0 0H100L75 200H25Z", 185.0)]
    {
        let pair = super::cloth::pair_across(&path(outline));
        assert!((pair - across).abs() < 1.0, "{outline}: {pair} instead of {across}");
    }
    let mut saved = 0;
    for name in DEMO {
        let document = demo(name);
        for width in [900, 1150, 1400, 1500] {
            let [one, either] =
                [ClothLies::OneWay, ClothLies::Either].map(|lies| long(&document, lies, width));
            if let (Some(one), Some(either)) = (one.0, either.0) {
                assert!(either <= one, "{name} on {width}: {either} and {one} cm");
                saved += usize::from(either < one);
            }
            assert!(one.2.is_empty() && either.2.is_empty(), "{name}: no border");
        }
    }
    assert!(saved > 2, "{saved}");
    // A skirt from four to a hem: alone on a border it takes its hems and what lies between.
    let mut skirt = demo("pinafore-toile");
    (skirt.try_ons, skirt.wishes.pattern) = (Vec::new(), crate::work::Pattern::default());
    let (border, words, off) = long(&skirt, ClothLies::Border, 1400);
    assert!(words.contains("the grain across the cloth"), "{words}");
    let (one, ..) = long(&skirt, ClothLies::OneWay, 1400);
    assert!(border > one, "hems one after the other: {border:?} and {one:?}");
    assert!(
        off.iter().any(|says| says.starts_with("Skirt, front: its hem leaves a straight by ")),
        "{off:?}"
    );
    let narrow = long(&skirt, ClothLies::Border, 500).1;
    assert!(narrow.starts_with("A piece is ") && narrow.contains("from hem to top"), "{narrow}");
    assert!(long(&skirt, ClothLies::OneWay, 300).1.contains("wider than this cloth"));
}
