//! Another neckline: lower in the middle, wider at the shoulder, in the shape that it has.

use super::carry::shorten;
use super::change::CannotBe;
use super::piece::{Edge, Piece};
use super::turn::CLEAR;
use super::unroll::square;
use crate::garment::Seam;
use crate::work::EdgeName;
use kurbo::{CubicBez, Point};

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
    let old = piece.edges[n].clone();
    let (neck, low) = (old.start(), old.end());
    let mut edge =
        std::mem::replace(&mut piece.edges[shoulder], Edge::new(EdgeName::Fold, Vec::new())).turned();
    shorten(&mut edge, wider);
    piece.edges[shoulder] = edge.turned();
    shorten(&mut piece.edges[middle], lower);
    let (new_neck, new_low) = (piece.edges[shoulder].end(), piece.edges[middle].start());
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
    // Where it came square to the shoulder it does so again.
    let [leaves, _] = old.ways();
    let [_, comes] = piece.edges[shoulder].ways();
    if leaves.dot(comes).abs() < 0.02 {
        square(piece, n, shoulder, false);
    }
    Ok(())
}
