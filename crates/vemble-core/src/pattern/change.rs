//! What is done to pieces on paper: each a small change with its figure, in order. Between two heights, or two widths, a piece is drawn out or
//! together, most of all in the middle: the same as moving its parts and drawing its edges smooth again. What is above or below, left or right,
//! keeps its shape.

use super::carry::{move_edge, put};
use super::corner::true_corner;
use super::cut::split;
use super::cut_line::cut_line;
use super::joined::{join_pieces, lay_on_fold};
use super::made::{make_facing, make_lining, make_pocket};
use super::mouth::{turns_at, while_flat};
use super::notches::{drill, move_notch};
use super::panels::{Across, across_face, is_across};
use super::part::split_piece;
use super::piece::{Edge, Piece, PieceDart, along_curves, is_on};
use super::truing::DEGREES;
use super::turn::{
    EASED, is_measured_from_start, loosen_dart, move_point, slash, slide_dart, true_dart, turn_dart,
};
use super::upper::{change_armhole, change_neckline, change_shoulder};
use crate::change::Curve;
use crate::garment::Seam;
use crate::length::Measure;
use crate::place::Level;
use crate::work::{
    Eased, EdgeName, EdgePin, Fullness, OpensAt, PieceChange, PieceFace, PieceKey, PiecePart, PieceShare,
    path_crosses, straight,
};
use kurbo::{CubicBez, Line, Point, Shape, Vec2};

/// Why a change cannot be.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum CannotBe {
    /// There is no such piece, or no such edge of it.
    NotThere,
    /// The level does not cross it.
    NoLevel,
    /// It takes away more than there is, or puts in more than the piece has.
    TooMuch,
    /// More than a hand eases in.
    TooFull,
    /// Its outline would cross itself.
    Crosses,
    /// A slash ends beside its edge, or leaves the piece.
    Misses,
    /// A dart is in the way.
    ThroughDart,
    /// It is too little to be sewn, or to be cut.
    TooLittle,
    /// There is one already.
    Twice,
    /// There is no name left for what it becomes.
    NoName,
    /// Both are not sewn together beside each other.
    NotBeside,
    /// What lies between edges that are joined is not the shape of one dart.
    NotOneDart,
    /// Edges that are joined differ in length.
    Unequal,
    /// What lies on a fold is straight.
    NotStraight,
    /// It is not the middle of the piece.
    NotMiddle,
    /// What is changed goes on over the piece beside it.
    GoesOn,
    /// Two figures along an edge stand too near to each other.
    TooNear,
    /// That edge is not faced.
    NotFaced,
    /// An allowance is wider than the bend that it lies in.
    TooWide,
}

/// Of a stretch that is drawn together at least so much stays.
const STAYS: f64 = 0.25;
/// Of a stretch that is drawn out or together such a share at either end fades into what is beside it, or less where more has to go.
const FADES: f64 = 1.0 / 3.0;
/// Figures along an edge stand so far apart, in mm (teaching value: a finger's breadth; nearer, a line would swing between them).
const APART: f64 = 10.0;
/// An allowance that is wider, in mm, may not fit into the bend of its edge (teaching value: twice what is left for a fitting).
const WIDE: f64 = 50.0;
/// Curves that are bent are cut so short first, in mm.
pub(super) const FINE: f64 = 10.0;
/// Which way something changes is found over such a share of it.
pub(super) const SLIGHT: f64 = 1e-4;

/// Does one thing to the pieces: all of it or nothing.
pub fn apply(pieces: &mut Vec<Piece>, change: &PieceChange) -> Result<(), CannotBe> {
    let mut next = pieces.clone();
    let (mut is_done, mut missing) = (false, CannotBe::NotThere);
    let mut does = |next: &mut Vec<Piece>| {
        for n in (0..pieces.len()).filter(|n| change.is_about(pieces[*n].key)) {
            match one((pieces, next), n, change) {
                Ok(()) => is_done = true,
                // Of a piece that is cut in two across, one part may have the level.
                Err(CannotBe::NoLevel) => missing = CannotBe::NoLevel,
                Err(why) => return Err(why),
            }
        }
        Ok(())
    };
    if bends_edges(change) {
        while_flat(&mut next, |piece| change.is_about(piece.key), does)?;
    } else {
        does(&mut next)?;
    }
    if !is_done {
        return Err(missing);
    }
    let changed: Vec<&Piece> = next.iter().filter(|piece| !pieces.contains(piece)).collect();
    if changed.iter().any(|piece| crosses(piece)) {
        return Err(CannotBe::Crosses);
    }
    // Narrower ones are cut all round, whatever their edge does; a hem is cut as the edges beside it go.
    let is_wide = |edge: &Edge| edge.allowance > WIDE && edge.name != EdgeName::Hem;
    let is_cut = |piece: &Piece| path_crosses(&cut_line(piece)) == Some(false);
    if changed.iter().any(|piece| piece.edges.iter().any(is_wide) && !is_cut(piece)) {
        return Err(CannotBe::TooWide);
    }
    // What is eased in is still there.
    let is_eaten = |piece: &Piece, edge: &Edge| edge.eased.is_some() && piece.sewn(edge) <= 0.0;
    if changed.iter().any(|piece| piece.edges.iter().any(|edge| is_eaten(piece, edge))) {
        return Err(CannotBe::TooMuch);
    }
    // A dart that began on an edge still does.
    let is_off = |piece: &Piece, dart: &PieceDart| {
        dart.other.is_none() && piece.edges.iter().all(|edge| !is_on(edge, dart))
    };
    if changed.iter().any(|piece| piece.darts.iter().any(|dart| is_off(piece, dart))) {
        return Err(CannotBe::ThroughDart);
    }
    // What ran smooth over a dart once it is closed still does.
    let is_bent = |new: &Piece, dart: &PieceDart| {
        let old = pieces.iter().find(|old| old.key == new.key);
        let was =
            old.and_then(|old| old.darts.iter().find(|was| was.dart == dart.dart).map(|was| (old, was)));
        let turns = |piece: &Piece, dart: &PieceDart| turns_at(piece, dart).map_or(0.0, |(_, by)| by.abs());
        was.is_some_and(|(old, was)| turns(new, dart) > DEGREES && turns(old, was) <= DEGREES)
    };
    if changed.iter().any(|piece| piece.darts.iter().any(|dart| is_bent(piece, dart))) {
        return Err(CannotBe::ThroughDart);
    }
    let lies_straight = |piece: &Piece| piece.edge(EdgeName::Fold).is_none_or(Edge::is_straight);
    let did = |new: &Piece| pieces.iter().any(|old| old.key == new.key && lies_straight(old));
    if changed.iter().any(|piece| !lies_straight(piece) && did(piece)) {
        return Err(CannotBe::NotStraight);
    }
    *pieces = next;
    Ok(())
}

/// It draws edges anew, and does not only cut, turn or copy what is there.
fn bends_edges(change: &PieceChange) -> bool {
    !matches!(
        change,
        PieceChange::TurnDart { .. }
            | PieceChange::LooseDart { .. }
            | PieceChange::Slash { .. }
            | PieceChange::Split { .. }
            | PieceChange::Join { .. }
            | PieceChange::OnFold { .. }
            | PieceChange::Facing { .. }
            | PieceChange::Lining { .. }
            | PieceChange::Pocket { .. }
            | PieceChange::Allowance { .. }
            | PieceChange::Eased { .. }
            | PieceChange::Notch { .. }
            | PieceChange::Drill { .. }
    )
}

/// Does one thing to those pieces that do not have it already: all of it or nothing.
pub(super) fn apply_where(
    pieces: &mut Vec<Piece>,
    change: &PieceChange,
    has: &dyn Fn(&Piece) -> bool,
) -> Result<(), CannotBe> {
    if !pieces.iter().any(has) {
        return apply(pieces, change);
    }
    let (having, mut lacking): (Vec<Piece>, Vec<Piece>) = pieces.iter().cloned().partition(has);
    match apply(&mut lacking, change) {
        Err(CannotBe::NotThere) => {}
        done => done?,
    }
    // Where they lie they stay; what is made from one, and is there already, is not made again.
    let place = |key: PieceKey| pieces.iter().position(|piece| piece.key == key).unwrap_or(usize::MAX);
    lacking.retain(|new| having.iter().all(|piece| piece.key != new.key));
    lacking.extend(having);
    lacking.sort_by_key(|piece| place(piece.was.unwrap_or(piece.key)));
    *pieces = lacking;
    Ok(())
}

pub(super) fn mm(measure: Measure) -> f64 {
    measure.length.cm() * 10.0
}

/// Does it to one of them; how they were before any was changed.
fn one((was, pieces): (&[Piece], &mut Vec<Piece>), n: usize, change: &PieceChange) -> Result<(), CannotBe> {
    let piece = &mut pieces[n];
    match *change {
        PieceChange::Split { from, to, .. } => split_piece(pieces, n, [from, to]),
        PieceChange::Join { seam, .. } => join_pieces(pieces, n, seam),
        PieceChange::Facing { edge, wide, .. } => make_facing(pieces, n, edge, mm(wide)),
        PieceChange::Lining { .. } => make_lining(pieces, n),
        PieceChange::Pocket { deep, wide, .. } => make_pocket(pieces, n, mm(deep), wide),
        PieceChange::MoveEdge { edge, ref pins, .. } => move_by_pins(piece, edge, pins),
        PieceChange::Armhole { lower, inwards, .. } => change_armhole(piece, mm(lower), mm(inwards)),
        PieceChange::Shoulder { shorter, lower, .. } => change_shoulder(piece, mm(shorter), mm(lower)),
        PieceChange::LooseDart { dart, into, .. } => loosen_dart(piece, dart, into),
        PieceChange::TurnDart { dart, to, keep, .. } => turn_dart(piece, dart, to, keep),
        PieceChange::DartPoint { dart, by, .. } => move_point(piece, dart, mm(by)),
        PieceChange::SlideDart { dart, by, .. } => slide_dart(piece, dart, mm(by)),
        PieceChange::Slash { from, hinge, by, .. } => slash(piece, from, hinge, mm(by)),
        PieceChange::TrueDart { dart, .. } => true_dart(piece, dart),
        PieceChange::TrueCorner { edge, beside, .. } => true_corner(pieces, n, edge, beside),
        PieceChange::Notch { edge, notch, by, .. } => move_notch(piece, edge, notch, mm(by)),
        PieceChange::Drill { from, by, .. } => drill(piece, from, mm(by)),
        PieceChange::Eased { edge, by, into, .. } => ease(piece, edge, Eased { by_mm: mm(by), into }),
        PieceChange::Neckline { lower, wider, .. } => change_neckline(piece, mm(lower), mm(wider)),
        PieceChange::OnFold { seam, .. } => lay_on_fold(piece, seam),
        PieceChange::Length { below, by, .. } => {
            let band = band_below(was, n, below)?;
            draw_out(piece, band, mm(by), Stays::Above, |_| 1.0)
        }
        PieceChange::Wedge { below, at, by, .. } => open_wedge((was, piece), n, (below, at), mm(by)),
        PieceChange::Width { by, .. } => widen(piece, mm(by), |_| 1.0),
        PieceChange::Flare { by, .. } => {
            let bounds = piece.bounds();
            widen(piece, mm(by), move |y| ((bounds.y1 - y) / bounds.height()).clamp(0.0, 1.0))
        }
        PieceChange::Allowance { edge, width, .. } => {
            let wide = mm(width);
            if !(0.0..=200.0).contains(&wide) {
                return Err(CannotBe::TooMuch);
            }
            let mut found = false;
            for own in piece.edges.iter_mut().filter(|e| e.name == edge) {
                own.allowance = wide;
                found = true;
            }
            if found { Ok(()) } else { Err(CannotBe::NotThere) }
        }
        PieceChange::End { edge, upper, by, .. } => {
            let n = piece.edges.iter().position(|e| e.name == edge).ok_or(CannotBe::NotThere)?;
            let by = mm(by);
            let mut own = piece.edges[n].clone();
            if -by > own.length() * (1.0 - STAYS) || by > own.length() {
                return Err(CannotBe::TooMuch);
            }
            let upwards = if (own.start().y - own.end().y).abs() > 1.0 {
                own.start().y < own.end().y
            } else {
                own.start().x < own.end().x
            };
            let at_end = upwards == upper;
            if !at_end {
                own = own.turned();
            }
            if by < 0.0 {
                own.cut_off_end(-by);
            } else if by > 0.0 {
                let [_, way] = own.ways();
                let end = own.end();
                own.curves.push(straight(end, end + way * by));
            }
            if !at_end {
                own = own.turned();
            }
            let Edge { curves, notches, .. } = own;
            put(piece, n, curves);
            piece.edges[n].notches = notches;
            Ok(())
        }
    }
}

/// Says how much of an edge is gathered or eased in.
fn ease(piece: &mut Piece, name: EdgeName, eased: Eased) -> Result<(), CannotBe> {
    let n = piece.edges.iter().position(|edge| edge.name == name).ok_or(CannotBe::NotThere)?;
    let edge = &piece.edges[n];
    let sewn = edge.length() - piece.taken_of(edge) - eased.by_mm;
    match eased.into {
        _ if eased.by_mm < 0.0 || name == EdgeName::Fold => return Err(CannotBe::TooLittle),
        Fullness::Ease if eased.by_mm > sewn * EASED => return Err(CannotBe::TooFull),
        Fullness::Gathers | Fullness::Pleats | Fullness::BoxPleats if sewn < edge.length() * STAYS => {
            return Err(CannotBe::TooMuch);
        }
        Fullness::Ease | Fullness::Gathers | Fullness::Pleats | Fullness::BoxPleats => {}
    }
    piece.edges[n].eased = Some(eased).filter(|eased| eased.by_mm > 0.0);
    Ok(())
}

/// Moves an edge by a line through figures along it.
fn move_by_pins(piece: &mut Piece, name: EdgeName, pins: &[EdgePin]) -> Result<(), CannotBe> {
    let n = piece.edges.iter().position(|edge| edge.name == name).ok_or(CannotBe::NotThere)?;
    let edge = &piece.edges[n];
    let long = edge.length();
    let from_start = is_measured_from_start(edge);
    let mut all: Vec<(f64, f64)> = pins
        .iter()
        .map(|pin| (if from_start { mm(pin.at) } else { long - mm(pin.at) } / 10.0, mm(pin.by) / 10.0))
        .collect();
    all.sort_by(|a, b| a.0.total_cmp(&b.0));
    let most = long / 10.0;
    if all.iter().any(|(at, _)| !(-1e-6..=most + 1e-6).contains(at)) {
        return Err(CannotBe::Misses);
    }
    if all.windows(2).any(|two| two[1].0 - two[0].0 < APART / 10.0 - 1e-6) {
        return Err(CannotBe::TooNear);
    }
    if all.iter().any(|(_, by)| by.abs() > most) {
        return Err(CannotBe::TooMuch);
    }
    let line = Curve::fair_through(&all, most);
    move_edge(piece, n, |along| line.at((along / 10.0).clamp(0.0, most)) * 10.0);
    Ok(())
}

/// Levels below which a piece has a line to be lengthened at: a waist at its upper edge crosses nothing, and may be one.
pub(super) fn lines_of(piece: &Piece) -> Vec<Level> {
    let is_at_top = top_edge(piece).is_some() && piece.levels.iter().all(|(level, _)| *level != Level::Waist);
    is_at_top.then_some(Level::Waist).into_iter().chain(piece.levels.iter().map(|(l, _)| *l)).collect()
}

/// The edge that a skirt or a leg has for its waist: below a yoke the one at that.
fn top_edge(piece: &Piece) -> Option<&Edge> {
    let name = match piece.key.share {
        PieceShare::Upper => return None,
        PieceShare::Lower => EdgeName::Seam(Seam::YokeSeam),
        PieceShare::Whole | PieceShare::Centre | PieceShare::Middle | PieceShare::Side => EdgeName::Waist,
    };
    piece.edge(name).filter(|_| matches!(piece.key.part, PiecePart::Skirt | PiecePart::Leg))
}

/// Where the seam between the legs of a face ends, whichever of its panels has that.
fn crotch_of(pieces: &[Piece], key: PieceKey) -> Option<f64> {
    let inseam = |piece: &Piece| piece.edge(EdgeName::Seam(Seam::Inseam)).map(|e| e.start().y.max(e.end().y));
    pieces.iter().filter(|piece| key.goes_on_in(piece.key)).find_map(inseam)
}

/// From a level down to the next one, or to the crotch; from below all of an upper edge that rises to one side.
fn stretch_below(pieces: &[Piece], piece: &Piece, level: Level) -> Result<[f64; 2], CannotBe> {
    let bounds = piece.bounds();
    let own = piece.levels.iter().find(|(l, _)| *l == level).map(|(_, y)| *y);
    let waists =
        pieces.iter().filter(|other| piece.key.goes_on_in(other.key) && lines_of(other).contains(&level));
    let curves = waists.filter_map(top_edge).flat_map(|edge| &edge.curves);
    let lowest = curves.map(|c| c.bounding_box().y0).reduce(f64::min);
    let high = own.or(lowest.filter(|_| lines_of(piece).contains(&level))).ok_or(CannotBe::NoLevel)?;
    let crotch = crotch_of(pieces, piece.key);
    let below = piece.levels.iter().map(|(_, y)| *y).chain(crotch).filter(|y| *y < high - 1.0);
    Ok([below.fold(bounds.y0, f64::max), high])
}

/// What of the stretch below a level is drawn out: all of it but its lowest twentieth, below what darts reach into it from above; no less than its lower half. On
/// every piece of a part the same share of it: what is sewn together is drawn out alike.
pub(super) fn band_below(pieces: &[Piece], n: usize, level: Level) -> Result<[f64; 2], CannotBe> {
    let [low, high] = stretch_below(pieces, &pieces[n], level)?;
    let clear = |piece: &Piece| {
        let [low, high] = stretch_below(pieces, piece, level).ok()?;
        let ends = |dart: &PieceDart| dart.mouth.into_iter().chain([dart.point]).chain(dart.other);
        let lowest = piece.darts.iter().map(|dart| ends(dart).map(|p| p.y).fold(high, f64::min));
        Some((lowest.filter(|y| *y > low).fold(high, f64::min) - low) / (high - low))
    };
    let own = pieces.iter().filter(|piece| piece.key.part == pieces[n].key.part);
    let share = own.filter_map(clear).fold(1.0, f64::min).max(0.5);
    Ok([low + (high - low) * 0.05, low + (high - low) * share])
}

/// Opens a stretch from so much at one side to nothing at the other, through all panels beside each other: each takes its share of the way across, so that their
/// seams stay as equal as they are. Above the crotch of a leg what lies above goes away, so that the leg stays as it is; anywhere else what lies below.
fn open_wedge(
    (was, piece): (&[Piece], &mut Piece),
    n: usize,
    (level, at): (Level, OpensAt),
    by: f64,
) -> Result<(), CannotBe> {
    let band = band_below(was, n, level)?;
    let is_above_crotch = crotch_of(was, piece.key).is_some_and(|crotch| crotch <= band[0]);
    let stays = if is_above_crotch { Stays::Below } else { Stays::Above };
    // Seams end at the edge that goes away: there they are to be as long as before.
    let edge = if stays == Stays::Below { Across::Upper } else { Across::Lower };
    let out = across_face(was, piece, edge);
    let share = move |x: f64| if at == OpensAt::Side { out(x) } else { 1.0 - out(x) };
    draw_out(piece, band, by, stays, share)
}

/// What of a piece stays where it is when a stretch of it is drawn out.
#[derive(Clone, Copy, PartialEq)]
pub(super) enum Stays {
    Above,
    Below,
}

/// Draws a stretch between two heights out by so much, at each place by its share: what lies on one side of it stays, the rest goes away from it.
pub(super) fn draw_out(
    piece: &mut Piece,
    [low, high]: [f64; 2],
    by: f64,
    stays: Stays,
    share: impl Fn(f64) -> f64,
) -> Result<(), CannotBe> {
    let tall = high - low;
    // A level that slants then is told by where it is at the side: what goes across there is what did. All round it nothing is a middle, and above a leg both its
    // sides lean.
    let side = |(_, y): &(Level, f64)| match (piece.reach(*y), piece.key.face) {
        (Some([x0, x1]), PieceFace::Round) => share(x0).midpoint(share(x1)),
        (Some([x0, x1]), _) if stays == Stays::Below => share(x0).midpoint(share(x1)),
        (Some([_, x1]), PieceFace::Front | PieceFace::Back) => share(x1),
        (None, _) => 1.0,
    };
    let sides: Vec<f64> = piece.levels.iter().map(side).collect();
    if -by > tall * (1.0 - STAYS) || by > piece.bounds().height() {
        return Err(CannotBe::TooMuch);
    }
    cut_at(piece, &[low, high], false);
    let fixed = if stays == Stays::Below { 1.0 } else { 0.0 };
    let down = move |y: f64| drawn(((high - y) / tall).clamp(0.0, 1.0), by / tall) - fixed;
    bend(piece, move |p| Point::new(p.x, p.y - by * share(p.x) * down(p.y)));
    for ((_, y), side) in piece.levels.iter_mut().zip(sides) {
        *y -= by * side * down(*y);
    }
    Ok(())
}

/// Draws the middle third of what a piece has at all its levels out sideways, at each height by its share: what lies to the right goes right. An edge
/// that runs across is drawn out evenly from corner to corner, as a hand draws a shoulder anew.
fn widen(piece: &mut Piece, by: f64, share: impl Fn(f64) -> f64) -> Result<(), CannotBe> {
    let bounds = piece.bounds();
    let [mut x0, mut x1] = [bounds.x0, bounds.x1];
    for [least, most] in piece.levels.iter().filter_map(|(_, y)| piece.reach(*y)) {
        if most.min(x1) > least.max(x0) {
            (x0, x1) = (least.max(x0), most.min(x1));
        }
    }
    let wide = (x1 - x0) / 3.0;
    let left = x0 + wide;
    if -by > wide * (1.0 - STAYS) || by > bounds.width() {
        return Err(CannotBe::TooMuch);
    }
    let before = piece.edges.clone();
    cut_at(piece, &[left, left + wide], true);
    bend(piece, move |p| {
        let out = drawn(((p.x - left) / wide).clamp(0.0, 1.0), by / wide);
        Point::new(p.x + by * share(p.y) * out, p.y)
    });
    for (n, was) in before.iter().enumerate().filter(|(_, was)| is_across(was)) {
        let [from, to] = [was.start().x, was.end().x];
        let [start, end] = [piece.edges[n].start().x, piece.edges[n].end().x];
        redraw(piece, n, was, |p| Point::new(start + (p.x - from) * (end - start) / (to - from), p.y));
    }
    Ok(())
}

/// Draws an edge anew from what it was: its notches keep their share, and darts that begin on it stay on it.
fn redraw(piece: &mut Piece, n: usize, was: &Edge, to: impl Fn(Point) -> Point) {
    let edge = &mut piece.edges[n];
    let on: Vec<bool> = piece.darts.iter().map(|dart| dart.other.is_none() && is_on(edge, dart)).collect();
    let long = edge.length();
    edge.curves = was.curves.iter().map(|c| CubicBez::new(to(c.p0), to(c.p1), to(c.p2), to(c.p3))).collect();
    let share = edge.length() / long.max(1e-9);
    edge.notches.iter_mut().for_each(|notch| notch.along *= share);
    for (dart, _) in piece.darts.iter_mut().zip(on).filter(|(_, on)| *on) {
        dart.mouth = dart.mouth.map(|end| edge.nearest(end));
    }
}

/// How much of what a stretch is drawn out by lies before a share of it: even in the middle, fading at both ends, so that lines run on as they did.
fn drawn(share: f64, by: f64) -> f64 {
    // Drawn together most in the middle, none of it may turn over.
    let ends = FADES.min(1.0 + by / (1.0 - STAYS / 2.0));
    let near = share.min(1.0 - share);
    let out = if near < ends { near * near / (2.0 * ends) } else { near - ends / 2.0 } / (1.0 - ends);
    if share < 0.5 { out } else { 1.0 - out }
}

/// Cuts every edge at heights, or at widths, so that each of its curves lies between two of them.
fn cut_at(piece: &mut Piece, places: &[f64], upright: bool) {
    for place in places {
        let line = match upright {
            true => Line::new((*place, -1e5), (*place, 1e5)),
            false => Line::new((-1e5, *place), (1e5, *place)),
        };
        let of = |p: Point| if upright { p.x - place } else { p.y - place };
        piece.edges.iter_mut().for_each(|edge| split(edge, of, line));
    }
}

/// Moves every point of a piece; curves are cut short first, so that they follow what is no straight map. Notches keep their share, darts take what
/// they took, cloth is drawn out beside them, and the grain keeps its way.
pub(super) fn bend(piece: &mut Piece, to: impl Fn(Point) -> Point) {
    use kurbo::{ParamCurve, ParamCurveArclen};
    let on = |dart: &PieceDart| piece.edges.iter().position(|edge| dart.other.is_none() && is_on(edge, dart));
    let on_edge: Vec<Option<usize>> = piece.darts.iter().map(on).collect();
    // Which way something that runs that way there will run.
    let along = |p: Point, way: Vec2| (to(p + way * SLIGHT) - to(p - way * SLIGHT)) / (2.0 * SLIGHT);
    for edge in &mut piece.edges {
        let old = edge.clone();
        let mut curves: Vec<CubicBez> = Vec::new();
        for curve in &edge.curves {
            let parts = (curve.arclen(0.01) / FINE).ceil().max(1.0);
            let count = parts as usize;
            curves.extend((0..count).map(|n| {
                let part = curve.subsegment(n as f64 / parts..(n + 1) as f64 / parts);
                let [start, end] = [to(part.p0), to(part.p3)];
                CubicBez::new(
                    start,
                    start + along(part.p0, part.p1 - part.p0),
                    end + along(part.p3, part.p2 - part.p3),
                    end,
                )
            }));
        }
        edge.curves = curves;
        for notch in &mut edge.notches {
            let at = to(old.at(notch.along).0);
            notch.along = along_curves(&edge.curves, at);
        }
    }
    for (dart, on) in piece.darts.iter_mut().zip(on_edge) {
        let middle = dart.mouth[0].midpoint(dart.mouth[1]);
        let by = to(middle) - middle;
        dart.mouth = dart.mouth.map(|end| on.map_or(end + by, |n| piece.edges[n].nearest(end + by)));
        dart.point = to(dart.point);
        dart.other = dart.other.map(&to);
    }
    piece.drills.iter_mut().for_each(|p| *p = to(*p));
    // The warp runs as it did.
    let way = (piece.grain[1] - piece.grain[0]).normalize();
    let [from, up] = piece.grain.map(&to);
    let (middle, half) = (from.midpoint(up), (up - from).dot(way) / 2.0);
    piece.grain = [middle - way * half, middle + way * half];
}

/// Whether an outline crosses itself, as far as it can be looked at.
pub(super) fn crosses(piece: &Piece) -> bool {
    path_crosses(&piece.outline()).unwrap_or(true)
}
