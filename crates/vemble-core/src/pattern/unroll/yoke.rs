//! Yokes: a back, or a skirt, that is cut in two across.

use super::{Bolt, passes};
use crate::garment::Seam;
use crate::pattern::part::{Spot, split_at};
use crate::pattern::piece::Piece;
use crate::pattern::truing::is_middle;
use crate::work::{EdgeName, PieceFace, PiecePart};
use kurbo::Line;

/// The yoke of a back lies so far below the tip of its shoulder, in mm, as on the stand.
const BELOW_TIP: f64 = 70.0;
/// That of jeans so far below the waist in the middle and at the side; that of a skirt so far in the middle, and level: as on the stand.
const OF_LEGS: [f64; 2] = [70.0, 35.0];
const OF_SKIRT: f64 = 110.0;

/// Cuts what has a yoke seam in two along it: a back, or all of a skirt. What is cut in panels there, or has a dart in the way, stays as it is, and it is said that
/// both are drawn in one.
pub(super) fn cut_yokes(bolt: &Bolt<'_>, pieces: &mut Vec<Piece>) {
    if !bolt.has(Seam::YokeSeam) {
        return;
    }
    let is_cut = |piece: &Piece| match piece.key.part {
        PiecePart::Body | PiecePart::Bodice | PiecePart::Leg => piece.key.face == PieceFace::Back,
        PiecePart::Skirt => !bolt.garment.has_yoke_behind(),
        PiecePart::Sleeve | PiecePart::Waistband => false,
    };
    let mut next = pieces.clone();
    let is_done = pieces.iter().filter(|piece| is_cut(piece)).all(|piece| {
        let n = next.iter().position(|other| other.key == piece.key);
        n.zip(line_of(piece)).is_some_and(|(n, line)| split_at(&mut next, n, line).is_ok())
    });
    if is_done {
        *pieces = next;
    }
}

/// From the middle to the side, or to the armhole.
fn line_of(piece: &Piece) -> Option<[Spot; 2]> {
    let find = |is_it: &dyn Fn(EdgeName) -> bool| piece.edges.iter().position(|edge| is_it(edge.name));
    // So far from its upper end.
    let down = |edge: usize, down: f64| {
        let own = &piece.edges[edge];
        let along = if own.start().y > own.end().y { down } else { own.length() - down };
        (along > 0.0 && along < own.length()).then_some(Spot { edge, along })
    };
    let level = |edge: usize, y: f64| {
        let along = passes(&piece.edges[edge], Line::new((-1e4, y), (1e4, y)))?;
        Some(Spot { edge, along })
    };
    let middle = find(&|name| is_middle(name) || name == EdgeName::Seam(Seam::SeatSeam))?;
    if let Some(armhole) = find(&|name| name == EdgeName::Seam(Seam::ArmholeSeam)) {
        let shoulder = piece.edge(EdgeName::Seam(Seam::ShoulderSeam))?;
        // Where its tip lies once a dart in it is sewn.
        let [tip, neck] = [shoulder.start(), shoulder.end()];
        let tip = neck.lerp(tip, piece.sewn(shoulder) / shoulder.length());
        let y = tip.y - BELOW_TIP;
        return Some([level(middle, y)?, level(armhole, y)?]);
    }
    let side = find(&|name| name.is_side())?;
    if piece.key.part == PiecePart::Leg {
        return Some([down(middle, OF_LEGS[0])?, down(side, OF_LEGS[1])?]);
    }
    let from = down(middle, OF_SKIRT)?;
    Some([from, level(side, piece.edges[middle].at(from.along).0.y)?])
}
