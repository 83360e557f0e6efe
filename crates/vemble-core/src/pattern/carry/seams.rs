//! Seams that are pinned, carried to the pieces: both edges of each move by what they are chalked, at the stations that lie on them.

use super::corners::meet;
use super::moved_by;
use crate::change::seam::AlteredSeam;
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Run, Seam};
use crate::pattern::joins::is_in_front;
use crate::pattern::panels::is_between_panels;
use crate::pattern::piece::{Edge, Piece, along_curves};
use crate::pattern::unroll::passes;
use crate::place::Level;
use crate::work::{EdgeName, PieceFace, PieceKey, PiecePart, PieceShare};
use kurbo::Line;

/// Stations so near to the end of a line lie on it, in cm.
const WITHIN: f64 = 1e-6;

/// Which of a seam's two edges a piece has: the first is in front, nearer the middle, on the garment's left, above the seam, or what a sleeve is set into.
fn is_first(seam: Seam, piece: &Piece, edge: &Edge, side: GarmentSide) -> bool {
    match seam {
        Seam::PrincessFront | Seam::PrincessBack | Seam::PanelFront | Seam::PanelBack => {
            piece.key.share == PieceShare::Centre
                || (piece.key.share == PieceShare::Middle && edge.start().x > piece.bounds().center().x)
        }
        Seam::CentreFront | Seam::CentreBack | Seam::SeatSeam | Seam::FrontRise => side == GarmentSide::Left,
        Seam::SleeveSeam | Seam::SleeveBackSeam => is_in_front(piece, edge),
        Seam::ArmholeSeam => piece.key.part != PiecePart::Sleeve,
        Seam::YokeSeam => piece.key.share == PieceShare::Upper,
        Seam::WaistSeam => piece.key.part == PiecePart::Bodice,
        // The other is the collar's, or the band's, which is no piece.
        Seam::NeckSeam => false,
        Seam::Outseam | Seam::Inseam | Seam::SideSeam | Seam::ShoulderSeam => {
            piece.key.face == PieceFace::Front
        }
    }
}

/// It lies on an edge of a piece: a waist seam on what is named for the waist, but not of a band, and a neck seam on the neckline.
fn lies_on(seam: Seam, piece: &Piece, edge: &Edge) -> bool {
    match edge.name {
        EdgeName::Seam(own) => own == seam,
        EdgeName::Waist => seam == Seam::WaistSeam && piece.key.part != PiecePart::Waistband,
        EdgeName::Neckline => seam == Seam::NeckSeam,
        EdgeName::Hem | EdgeName::Fold | EdgeName::Opening | EdgeName::End => false,
        EdgeName::Top | EdgeName::Inner => false,
    }
}

/// Its stations run on as its edge does: up from the lower edge, and out from the neck.
fn counts_up(seam: Seam, face: PieceFace, edge: &Edge) -> bool {
    match seam.run() {
        // Every piece has its outline against the clock, from under the arm up.
        Run::Across if seam == Seam::ArmholeSeam => true,
        // From the middle in front to the middle behind.
        Run::Across if seam.is_level() && face == PieceFace::Back => edge.start().x > edge.end().x,
        Run::Across => edge.start().x < edge.end().x,
        Run::Down | Run::DownSleeve => edge.start().y < edge.end().y,
    }
}

/// The stations of a seam along an edge of a piece.
struct Stations {
    /// So far along the edge, once its darts are closed, and so far along the seam, in cm.
    at: Vec<(f64, f64)>,
    /// From where to where there is a line.
    line: [f64; 2],
}

impl Stations {
    /// Straight between what is known, and on beyond it as the cloth goes. Beyond its last station a line has none.
    fn at(&self, along: f64) -> f64 {
        let next = self.at.iter().position(|(known, _)| *known >= along);
        let station = match next {
            Some(0) => self.at[0].1 + (along - self.at[0].0) / 10.0,
            Some(n) => {
                let [(from, a), (to, b)] = [self.at[n - 1], self.at[n]];
                a + (b - a) * (along - from) / (to - from)
            }
            None => self.at.last().map_or(0.0, |(known, station)| station + (along - known) / 10.0),
        };
        station.clamp(self.line[0], self.line[1])
    }
}

/// Where the stations of a seam lie on an edge as it was found: at its notches as high as their levels are, and at its ends, since an edge slants. A
/// seam that ends where pieces are cut to end is not as long there as it was measured.
fn stations(
    garment: &Garment,
    all: &[Piece],
    found: &Piece,
    n: usize,
    altered: &AlteredSeam<'_>,
) -> Stations {
    let (seam, whole) = (altered.facts.seam, altered.facts.end().cm());
    let line = [WITHIN, (whole - WITHIN).max(WITHIN)];
    let Some(edge) = found.edges.get(n) else { return Stations { at: Vec::new(), line } };
    let (upwards, long) = (counts_up(seam, found.key.face, edge), found.sewn(edge));
    if seam == Seam::ArmholeSeam && found.key.part == PiecePart::Sleeve {
        return Stations { at: around_cap(all, found, n, whole), line };
    }
    if seam.is_level() {
        return Stations { at: around_body(all, found, n, seam, whole), line };
    }
    let datum = garment.height_of_datum(seam);
    let of_level = |level: Level| Some((garment.level(level)?.station.length - datum).cm());
    let waist = of_level(Level::Waist);
    let is_split = seam.run() == Run::Down && garment.seam(Seam::WaistSeam).is_some();
    let [base, top] = match found.key.part {
        PiecePart::Bodice if is_split => [waist.unwrap_or(0.0), whole],
        PiecePart::Skirt if is_split => [0.0, waist.unwrap_or(whole)],
        PiecePart::Bodice
        | PiecePart::Skirt
        | PiecePart::Body
        | PiecePart::Leg
        | PiecePart::Sleeve
        | PiecePart::Waistband => [0.0, whole],
    };
    let [from, to] = share_of_seam(all, found, edge, seam);
    let [base, top] = [from, to].map(|share| base + (top - base) * share);
    let is_cut_to_end = match seam.run() {
        // It ends where a shoulder, an armhole or a waist that rises is cut.
        Run::Down => found.key.part != PiecePart::Skirt && is_between_panels(seam),
        Run::DownSleeve => seam == Seam::SleeveBackSeam,
        Run::Across => false,
    };
    let notches = edge.notches.iter().filter_map(|notch| {
        let sewn = found.sewn_along(edge, notch.along);
        Some((if upwards { sewn } else { long - sewn }, of_level(notch.level?)?))
    });
    let mut at: Vec<(f64, f64)> = notches.filter(|(_, s)| (base..top).contains(s)).collect();
    at.push((0.0, base));
    if !is_cut_to_end {
        at.push((long, top));
    }
    at.sort_by(|a, b| a.0.total_cmp(&b.0));
    at.dedup_by(|b, a| b.0 - a.0 < 1.0 || b.1 <= a.1);
    Stations { at, line }
}

/// From where to where an edge has the seam of its side, as shares of it: less than all of it where a yoke, or a panel that ends in an armhole or at the shoulder, has
/// the rest.
fn share_of_seam(all: &[Piece], own: &Piece, edge: &Edge, seam: Seam) -> [f64; 2] {
    if own.key.face == PieceFace::Round || is_between_panels(seam) {
        return [0.0, 1.0];
    }
    let is_beside = |piece: &&Piece| PieceKey { share: own.key.share, ..piece.key } == own.key;
    let middle = |edge: &Edge| edge.start().midpoint(edge.end());
    let is_before = |one: &Edge, other: &Edge| match seam.run() {
        Run::Across if seam != Seam::ArmholeSeam => middle(one).x < middle(other).x,
        Run::Across | Run::Down | Run::DownSleeve => middle(one).y < middle(other).y,
    };
    let (mut before, mut whole) = (0.0, 0.0);
    for piece in all.iter().filter(is_beside) {
        // What is drawn elsewhere lies each for itself: a yoke is above what it is sewn to wherever they lie.
        let [is_upper, own_is_upper] = [piece, own].map(|p| p.key.share == PieceShare::Upper);
        for other in piece.edges.iter().filter(|other| other.name == edge.name) {
            let long = piece.sewn(other);
            whole += long;
            let comes_first = if is_upper == own_is_upper { is_before(other, edge) } else { own_is_upper };
            before += if comes_first { long } else { 0.0 };
        }
    }
    [before / whole, (before + own.sewn(edge)) / whole]
}

/// The stations of a level seam along an edge: half of them in front, from the middle to the side, and half behind, from the side to the middle; of a neck seam as many as the
/// neckline has there. What laps over the middle has none of its own.
fn around_body(all: &[Piece], own: &Piece, n: usize, seam: Seam, whole: f64) -> Vec<(f64, f64)> {
    // How long it is sewn, and how much of that laps over.
    let long = |piece: &Piece, edge: &Edge| {
        let is_out = edge.start().x < edge.end().x;
        let middle = Line::new((0.0, -1e4), (0.0, 1e4));
        let over =
            Some(edge).filter(|_| piece.key.part != PiecePart::Leg).and_then(|edge| passes(edge, middle));
        let over = over.map_or(0.0, |along| piece.sewn_along(edge, along));
        let sewn = piece.sewn(edge);
        (sewn, if is_out || over == 0.0 { over } else { sewn - over })
    };
    let is_beside = |piece: &&Piece| {
        let share = if seam == Seam::YokeSeam { piece.key.share } else { own.key.share };
        PieceKey { share, ..piece.key } == own.key
    };
    let edges = all.iter().filter(is_beside).flat_map(|p| p.edges.iter().map(move |e| (p, e)));
    let edge = &own.edges[n];
    let middle = |edge: &Edge| edge.start().midpoint(edge.end()).x;
    let (mut before, mut face) = (0.0, 0.0);
    for (piece, other) in edges.filter(|(piece, other)| lies_on(seam, piece, other)) {
        let (sewn, over) = long(piece, other);
        face += sewn - over;
        before += if middle(other) < middle(edge) { sewn - over } else { 0.0 };
    }
    let (sewn, over) = long(own, edge);
    let on_face = |at: PieceFace| -> f64 {
        let pieces = all.iter().filter(|piece| piece.key.face == at && piece.key.layer.is_outer());
        let edges = pieces.flat_map(|p| p.edges.iter().filter(|e| lies_on(seam, p, e)).map(move |e| (p, e)));
        edges.map(|(piece, edge)| long(piece, edge)).map(|(sewn, over)| sewn - over).sum()
    };
    let share = if seam == Seam::NeckSeam {
        on_face(own.key.face) / (on_face(PieceFace::Front) + on_face(PieceFace::Back))
    } else {
        0.5
    };
    let [inner, outer] = [before, before + sewn - over].map(|out| out / face * whole * share);
    match own.key.face {
        PieceFace::Front => vec![(over, inner), (sewn, outer)],
        PieceFace::Back | PieceFace::Round => vec![(0.0, whole - outer), (sewn - over, whole - inner)],
    }
}

/// The stations of an armhole along the cap of a sleeve: from under the arm up to its middle, and down again; of two pieces the under one has the beginning of it
/// behind, from the sleeve seam to the sleeve back seam.
fn around_cap(all: &[Piece], own: &Piece, n: usize, whole: f64) -> Vec<(f64, f64)> {
    let edge = &own.edges[n];
    let is_beside = |piece: &&Piece| PieceKey { share: own.key.share, ..piece.key } == own.key;
    let edges = all.iter().filter(is_beside).flat_map(|p| p.edges.iter().map(move |e| (p, e)));
    let cap: f64 = edges.filter(|(_, e)| e.name == edge.name).map(|(p, e)| p.sewn(e)).sum();
    let (long, half) = (own.sewn(edge), cap / 2.0);
    let behind = |long: f64| long / half * whole;
    let mut at = match own.key.share {
        PieceShare::Lower => vec![(0.0, 0.0), (long, behind(long))],
        PieceShare::Whole
        | PieceShare::Upper
        | PieceShare::Centre
        | PieceShare::Middle
        | PieceShare::Side => {
            vec![(0.0, 0.0), (half, whole), (long, behind(cap - long))]
        }
    };
    // Counted from the sleeve seam.
    let before = own.edges[(n + own.edges.len() - 1) % own.edges.len()].name;
    if before == EdgeName::Seam(Seam::SleeveBackSeam) {
        at = at.into_iter().rev().map(|(along, station)| (long - along, station)).collect();
    }
    at
}

/// Both edges of a seam, moved by what they are chalked. False where no piece has them.
pub(super) fn carry(
    garment: &Garment,
    (pieces, all): (&mut [Piece], &[Piece]),
    altered: &AlteredSeam<'_>,
    side: GarmentSide,
) -> bool {
    // A panel is a piece of its own, and is sewn along the old lines.
    if altered.change.set_in {
        return false;
    }
    let seam = altered.facts.seam;
    let line = altered.line(side);
    let mut done = false;
    for (piece, found) in pieces.iter_mut().zip(all) {
        for n in 0..piece.edges.len() {
            if !lies_on(seam, piece, &piece.edges[n]) {
                continue;
            }
            done = true;
            let curve = if is_first(seam, piece, &piece.edges[n], side) { &line.front } else { &line.back };
            let stations = stations(garment, all, found, n, altered);
            // It lies where it was found, but for what was cut off beside it, or a dart bent.
            let (edge, now) = (&found.edges[n], piece.edges[n].clone());
            let (upwards, long) = (counts_up(seam, found.key.face, edge), found.sewn(edge));
            let station = |along: f64| {
                let sewn = found.sewn_along(edge, along_curves(&edge.curves, now.at(along).0));
                stations.at(if upwards { sewn } else { long - sewn })
            };
            let by = |along: f64| curve.at(station(along)) * 10.0;
            let moved = moved_by(piece, n, by);
            meet(piece, n, moved);
        }
    }
    done
}
