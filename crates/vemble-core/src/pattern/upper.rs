//! The upper edges of a piece: another neckline, another armhole, another shoulder.

use super::carry::{displace, fading, inwards, shorten};
use super::change::CannotBe;
use super::piece::{Edge, Piece, is_on};
use super::turn::CLEAR;
use super::unroll::square;
use crate::change::Curve;
use crate::garment::Seam;
use crate::work::EdgeName;
use kurbo::{Affine, CubicBez, Point};

/// Corners that are so near to square stay square: the sine of a degree.
const SQUARE: f64 = 0.02;
/// No shoulder falls or rises more steeply, in radians (teaching value: half a right angle, which none of a body does).
const STEEPEST: f64 = std::f64::consts::FRAC_PI_4;

/// Moves the end of a neckline along the shoulder and along the middle, and draws what is between as it was, wider and deeper.
pub(super) fn change_neckline(piece: &mut Piece, lower: f64, wider: f64) -> Result<(), CannotBe> {
    let n = piece.edges.iter().position(|edge| edge.name == EdgeName::Neckline).ok_or(CannotBe::NotThere)?;
    let count = piece.edges.len();
    let (shoulder, middle) = ((n + count - 1) % count, (n + 1) % count);
    if piece.edges[shoulder].name != EdgeName::Seam(Seam::ShoulderSeam) {
        return Err(CannotBe::NotThere);
    }
    let ends_in_middle = match piece.edges[middle].name {
        EdgeName::Fold | EdgeName::Opening | EdgeName::Seam(Seam::CentreFront | Seam::CentreBack) => true,
        EdgeName::Seam(_) | EdgeName::Waist | EdgeName::Hem | EdgeName::Neckline => false,
        EdgeName::End | EdgeName::Top | EdgeName::Inner => false,
    };
    if !ends_in_middle && lower != 0.0 {
        return Err(CannotBe::NotMiddle);
    }
    let [room, below] = [shoulder, middle].map(|edge| piece.edges[edge].length() - CLEAR);
    if wider > room || lower > below || [wider, lower].iter().any(|by| -by > room.max(below)) {
        return Err(CannotBe::TooMuch);
    }
    if [lower, wider] == [0.0; 2] {
        return Ok(());
    }
    let old = piece.edges[n].clone();
    let (neck, low) = (old.start(), old.end());
    let is_square = square_at(piece, n);
    let [new_neck, new_low] = cut_beside(piece, n, [wider, lower]);
    let stretched = |was: [f64; 2], is: [f64; 2], at: f64| {
        let share = if (was[1] - was[0]).abs() > 1.0 { (at - was[0]) / (was[1] - was[0]) } else { 0.5 };
        is[0] + (is[1] - is[0]) * share
    };
    let to = |p: Point| {
        Point::new(
            stretched([low.x, neck.x], [new_low.x, new_neck.x], p.x),
            stretched([low.y, neck.y], [new_low.y, new_neck.y], p.y),
        )
    };
    let edge = &mut piece.edges[n];
    edge.curves = edge.curves.iter().map(|c| CubicBez::new(to(c.p0), to(c.p1), to(c.p2), to(c.p3))).collect();
    edge.set_start(new_neck);
    edge.set_end(new_low);
    let share = edge.length() / old.length().max(1e-9);
    edge.notches.iter_mut().for_each(|notch| notch.along *= share);
    square_again(piece, n, [is_square[0], false]);
    Ok(())
}

/// The armhole of a piece, from the side to the shoulder; nothing of one that has it in part, beside another piece.
fn armhole_of(piece: &Piece) -> Option<usize> {
    let count = piece.edges.len();
    (0..count).find(|n| {
        let [side, hole, shoulder] = [count - 1, 0, 1].map(|by| piece.edges[(n + by) % count].name);
        side.is_side() && [hole, shoulder] == [Seam::ArmholeSeam, Seam::ShoulderSeam].map(EdgeName::Seam)
    })
}

/// It has all of the armhole of its side, and so the shoulder beside it.
pub(super) fn has_armhole(piece: &Piece) -> bool {
    armhole_of(piece).is_some()
}

/// Lowers the armhole along the side, and cuts it further in, to nothing at both ends.
pub(super) fn change_armhole(piece: &mut Piece, lower: f64, further_in: f64) -> Result<(), CannotBe> {
    let n = armhole_of(piece).ok_or(CannotBe::NotThere)?;
    let long = piece.edges[n].length();
    if further_in.abs() > long / 4.0 {
        return Err(CannotBe::TooMuch);
    }
    move_ends(piece, n, [lower, 0.0])?;
    let old = piece.edges[n].clone();
    let bulge = Curve::through(&[(0.0, 0.0, 0.0), (0.5, further_in, 0.0), (1.0, 0.0, 0.0)]);
    displace(&mut piece.edges[n], |share| inwards(old.at(share * old.length()).1) * bulge.at(share));
    Ok(())
}

/// Shortens the shoulder at its tip, and turns it about the neck until its tip is so much lower; the armhole goes down as far, so that it stays
/// as large.
pub(super) fn change_shoulder(piece: &mut Piece, shorter: f64, lower: f64) -> Result<(), CannotBe> {
    let n = armhole_of(piece).ok_or(CannotBe::NotThere)?;
    if [shorter, lower] == [0.0; 2] {
        return Ok(());
    }
    let shoulder = (n + 1) % piece.edges.len();
    let neckline = (shoulder + 1) % piece.edges.len();
    if lower != 0.0 && piece.edges[neckline].name != EdgeName::Neckline {
        return Err(CannotBe::GoesOn);
    }
    let was_square = [n, neckline].map(|edge| square_at(piece, edge));
    let (tip, neck) = (piece.edges[shoulder].start(), piece.edges[shoulder].end());
    let (reach, rise) = (tip.distance(neck), neck.y - tip.y);
    if ((rise + lower) / reach).abs() > STEEPEST.sin() {
        return Err(CannotBe::TooMuch);
    }
    let turn = Affine::rotate_about((rise / reach).asin() - ((rise + lower) / reach).asin(), neck);
    let own = piece.edges[shoulder].clone();
    for dart in piece.darts.iter_mut().filter(|dart| dart.other.is_none() && is_on(&own, dart)) {
        dart.mouth = dart.mouth.map(|p| turn * p);
        dart.point = turn * dart.point;
    }
    piece.edges[shoulder].curves.iter_mut().for_each(|curve| *curve = turn * *curve);
    // As far as the tip went, all of the armhole goes down.
    let down = Affine::translate((0.0, -lower));
    let armhole: Vec<CubicBez> = piece.edges[n].curves.iter().map(|curve| down * *curve).collect();
    let side = (n + piece.edges.len() - 1) % piece.edges.len();
    let room = piece.edges[side].length() - CLEAR;
    if lower > room || -lower > room {
        return Err(CannotBe::TooMuch);
    }
    let [at_side, at_tip] = cut_beside(piece, n, [lower, 0.0]);
    piece.edges[n].curves = armhole;
    blend(&mut piece.edges[n], [at_side, at_tip]);
    move_ends(piece, n, [0.0, shorter])?;
    square_again(piece, n, was_square[0]);
    square_again(piece, neckline, [was_square[1][0], false]);
    Ok(())
}

/// Moves both ends of an edge along the edges beside it, and draws it anew: at each end as it ran there.
fn move_ends(piece: &mut Piece, n: usize, by: [f64; 2]) -> Result<(), CannotBe> {
    let count = piece.edges.len();
    let beside = [(n + count - 1) % count, (n + 1) % count];
    let is_more = |(edge, by): (&usize, &f64)| by.abs() > piece.edges[*edge].length() - CLEAR;
    if beside.iter().zip(&by).any(is_more) {
        return Err(CannotBe::TooMuch);
    }
    if by != [0.0; 2] {
        let is_square = square_at(piece, n);
        let to = cut_beside(piece, n, by);
        blend(&mut piece.edges[n], to);
        square_again(piece, n, is_square);
    }
    Ok(())
}

/// Cuts so much off the edges before and after an edge, where they meet it, or lets them go on: where they end now.
fn cut_beside(piece: &mut Piece, n: usize, [before, after]: [f64; 2]) -> [Point; 2] {
    let count = piece.edges.len();
    let (one, other) = ((n + count - 1) % count, (n + 1) % count);
    let mut edge = piece.edges[one].clone().turned();
    shorten(&mut edge, before);
    piece.edges[one] = edge.turned();
    shorten(&mut piece.edges[other], after);
    [piece.edges[one].end(), piece.edges[other].start()]
}

/// Draws an edge between other ends: what each end is moved by fades towards the other.
fn blend(edge: &mut Edge, to: [Point; 2]) {
    let by = [to[0] - edge.start(), to[1] - edge.end()];
    displace(edge, |share| by[0] * (1.0 - fading(share)) + by[1] * fading(share));
}

/// Whether an edge is square to the one before it, and to the one after.
fn square_at(piece: &Piece, n: usize) -> [bool; 2] {
    let count = piece.edges.len();
    let [starts, ends] = piece.edges[n].ways();
    let ([_, comes], [leaves, _]) =
        (piece.edges[(n + count - 1) % count].ways(), piece.edges[(n + 1) % count].ways());
    [comes.dot(starts), ends.dot(leaves)].map(|lean: f64| lean.abs() < SQUARE)
}

/// Makes corners square that were.
fn square_again(piece: &mut Piece, n: usize, was: [bool; 2]) {
    let count = piece.edges.len();
    for (other, _) in [(n + count - 1) % count, (n + 1) % count].into_iter().zip(was).filter(|(_, was)| *was)
    {
        square(piece, n, other, false);
    }
}
