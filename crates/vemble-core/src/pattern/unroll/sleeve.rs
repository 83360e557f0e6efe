//! A sleeve: as wide as at its levels, with a cap as long as its armhole and the usual ease.

use super::{Bolt, FIXES, TRUE};
use crate::change::Curve;
use crate::change::armhole::{CapEase, cap, cap_height};
use crate::garment::{GarmentLevel, LongEdge, Seam};
use crate::length::Tape;
use crate::pattern::part::{Spot, cut_from, part};
use crate::pattern::piece::{Edge, Piece};
use crate::place::Level;
use crate::work::{EdgeName, PieceFace, PieceKey, PiecePart, PieceShare, straight};
use kurbo::{CubicBez, Point};

/// So far below the arm a sleeve goes straight down (teaching value: an armhole runs level there), and of a short one no more than such a share.
const UPRIGHT: f64 = 40.0;
const UPRIGHT_SHARE: f64 = 0.1;

/// A sleeve with a seam behind is cut in two there, so large a share of its width from its seam (teaching value: where the elbow bends).
pub(crate) const BEHIND: f64 = 0.25;

/// Its hem is as long as it is to be once it is trued. In two pieces where it has a seam behind.
pub(super) fn sleeve(bolt: &Bolt<'_>) -> Vec<Piece> {
    let one = || {
        let edge = bolt.garment.sleeve_levels_up().first()?.width.girth().cm() * 10.0;
        let wanted = edge + bolt.more(LongEdge::SleeveHem);
        let mut fix = 0.0;
        let mut piece = drawn(bolt, fix)?;
        for _ in 0..FIXES {
            let left = wanted - piece.edges[0].length();
            if left.abs() < TRUE {
                break;
            }
            fix += left;
            piece = drawn(bolt, fix)?;
        }
        Some(piece)
    };
    match one() {
        Some(whole) if bolt.has(Seam::SleeveBackSeam) => in_two(&whole),
        piece => piece.into_iter().collect(),
    }
}

/// An upper sleeve, and the one under the arm, behind.
fn in_two(whole: &Piece) -> Vec<Piece> {
    let [hem, cap] = [0, 2].map(|edge| {
        let long = whole.edges[edge].length();
        // The hem runs from behind, the cap towards it.
        let along = if edge == 0 { long * BEHIND } else { long * (1.0 - BEHIND) };
        Spot { edge, along }
    });
    let [from, to] = [hem, cap].map(|spot| whole.edges[spot.edge].at(spot.along).0);
    let [upper, under] = part(whole, [hem, cap], &[straight(from, to)], EdgeName::Seam(Seam::SleeveBackSeam));
    let key = |share| PieceKey { share, ..whole.key };
    let halves = [(upper, PieceShare::Upper), (under, PieceShare::Lower)];
    halves.map(|(edges, share)| cut_from(whole, key(share), edges, whole.cut)).into()
}

/// The sleeve with its hem so much wider than a straight across.
fn drawn(bolt: &Bolt<'_>, fix: f64) -> Option<Piece> {
    let garment = bolt.garment;
    let [armhole, _] = bolt.armholes?;
    let wider = |at: f64| {
        let known = bolt.sleeve.and_then(|new| new.wider.iter().find(|(station, _)| *station == at));
        known.map_or(0.0, |(_, wider)| *wider)
    };
    let levels = garment.sleeve_levels_up();
    let widest = levels.last().filter(|l| l.level == Level::UpperArm)?;
    let of = |l: &GarmentLevel| {
        let station = l.station.length.cm() * 10.0;
        (station, l.width.girth().cm() * 10.0 + wider(station))
    };
    let (_, wide) = of(widest);
    let longer = bolt.sleeve.map_or(0.0, |new| new.longer);
    let under = garment.seam(Seam::SleeveSeam).map(|f| f.length.length.cm() * 10.0)? + longer;
    let mut points: Vec<(f64, f64)> = levels.iter().map(of).filter(|p| p.0 < under - 1.0).collect();
    // Upright under the arm, where it meets the armhole.
    let before = under - UPRIGHT.min(under * UPRIGHT_SHARE);
    points.retain(|p| p.0 < before - 1.0);
    points.extend([(before, wide), (under, wide)]);
    if points[0].0 > 1.0 {
        points.insert(0, (0.0, points[0].1));
    }
    points[0].1 += fix;
    let curve = Curve::straight_above_an_edge(&points);
    let side = |towards: f64| -> Vec<CubicBez> {
        let path = curve.path(|y, wide| Point::new(towards * wide / 2.0, y));
        path.segments().map(|s| s.to_cubic()).collect()
    };
    // In cm: as it is chalked, else as long as its armhole and the usual ease.
    let usual = || armhole.lengths().iter().sum::<f64>() + CapEase::of(garment).usual(Tape::Cm).cm();
    let length = bolt.sleeve.map_or_else(usual, |new| new.cap / 10.0);
    let high = cap_height(wide / 10.0, length)?;
    let lift = |p: Point| Point::new(p.x * 10.0 - wide / 2.0, p.y * 10.0 + under);
    let top = cap(wide / 10.0, high).map(|c| CubicBez::new(lift(c.p3), lift(c.p2), lift(c.p1), lift(c.p0)));
    let (left, right) = (side(-1.0), side(1.0));
    let (low_left, low_right) = (left.first()?.p0, right.first()?.p0);
    let mut other = Edge::new(EdgeName::Seam(Seam::SleeveSeam), left).turned();
    other.second = true;
    let edges = vec![
        Edge::line(EdgeName::Hem, low_left, low_right),
        Edge::new(EdgeName::Seam(Seam::SleeveSeam), right),
        Edge::new(EdgeName::Seam(Seam::ArmholeSeam), vec![top[1], top[0]]),
        other,
    ];
    let at = |level: Level| garment.level(level).map(|l| (level, l.station.length.cm() * 10.0));
    let inside = |(_, y): &(Level, f64)| *y > 5.0 && *y < under;
    let mut piece = Piece {
        drills: Vec::new(),
        key: PieceKey::outer(PiecePart::Sleeve, PieceFace::Round, PieceShare::Whole),
        was: None,
        edges,
        darts: Vec::new(),
        grain: [Point::new(0.0, under * 0.25), Point::new(0.0, under * 0.85)],
        cut: 2,
        levels: [Level::Wrist, Level::Elbow, Level::UpperArm]
            .into_iter()
            .filter_map(at)
            .filter(inside)
            .collect(),
    };
    super::square(&mut piece, 0, 1, true);
    super::square(&mut piece, 0, 3, true);
    Some(piece)
}
