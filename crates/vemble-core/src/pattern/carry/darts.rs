//! Darts that are pinned, carried to the pieces: one that is there opens as far as it is folded and lies where it is moved to; a new one is drawn
//! in the cloth that is there, as it is folded on the body, and nothing is opened for it.

use super::inwards;
use crate::change::dart::AlteredDart;
use crate::fitting::GarmentSide;
use crate::garment::{Dart, Garment, Seam};
use crate::length::{Length, Station};
use crate::pattern::panels::{Line, Strip, rank, strips};
use crate::pattern::piece::{Edge, Piece, PieceDart, along_curves, is_on, within};
use crate::pattern::unroll::BELOW_BUST;
use crate::place::Level;
use crate::work::{EdgeName, PieceFace, PiecePart};
use kurbo::{Point, Vec2};

/// So much of a piece is left beside a dart, in mm: less cannot be sewn (teaching value).
const BESIDE: f64 = 10.0;

/// False where no piece has it, and none has a place for a new one.
pub(super) fn carry(
    garment: &Garment,
    pieces: &mut [Piece],
    altered: &AlteredDart<'_>,
    side: GarmentSide,
) -> bool {
    let heights = [altered.point, altered.base];
    let mut done = false;
    for piece in pieces.iter_mut() {
        let at = heights.map(|height| height_on(garment, piece, height?));
        let edges = piece.edges.clone();
        for dart in piece.darts.iter_mut().filter(|dart| dart.dart == altered.key()) {
            done = true;
            open(dart, &edges, take_of(garment, altered, side));
            if let (true, [Some(point), Some(base)]) = (altered.is_moved(), at) {
                // One with a single point keeps the edge that it begins at.
                dart.point.y = point;
                dart.other.iter_mut().for_each(|other| other.y = base);
            }
        }
    }
    if done || altered.facts.is_some() {
        return done;
    }
    let drawn = new(garment, pieces, altered, side);
    if let Some((n, dart)) = drawn {
        pieces[n].darts.push(dart);
    }
    drawn.is_some()
}

/// Half of what it takes at its mouth, in mm.
fn take_of(garment: &Garment, altered: &AlteredDart<'_>, side: GarmentSide) -> f64 {
    altered.depth(side, mouth_of(garment, altered, side)).cm() * 10.0
}

/// How far from its point its mouth lies: where it begins, and of one with two points at the waist, where it goes across it.
fn mouth_of(garment: &Garment, altered: &AlteredDart<'_>, side: GarmentSide) -> Station {
    let long = altered.length;
    if altered.key().has_two_points() {
        let waist = garment.level(Level::Waist).and_then(|level| altered.station_at(level.station.length));
        return waist.unwrap_or(Station(long.fraction(1, 2)));
    }
    let reaches = altered.new[side as usize].span().map_or(long, |(_, to)| Length::from_cm(to));
    Station(long.min(reaches))
}

/// How high a height above the hem lies on a piece: as far from the waist as on the garment.
fn height_on(garment: &Garment, piece: &Piece, height: Length) -> Option<f64> {
    let own = piece.levels.iter().find(|(level, _)| *level == Level::Waist).map(|(_, y)| *y);
    let waist = garment.level(Level::Waist)?.station.length;
    let edge = || Some(piece.edge(EdgeName::Waist)?.start().y);
    Some(own.or_else(edge)? + (height - waist).cm() * 10.0)
}

/// Makes its mouth twice so wide about its middle.
fn open(dart: &mut PieceDart, edges: &[Edge], half: f64) {
    let middle = dart.mouth[0].midpoint(dart.mouth[1]);
    dart.mouth = match edges.iter().find(|edge| dart.other.is_none() && is_on(edge, dart)) {
        // Its legs end on the edge that it begins at.
        Some(edge) => {
            let [a, b] = dart.mouth.map(|p| along_curves(&edge.curves, p));
            let (at, way) = (f64::midpoint(a, b), if a < b { 1.0 } else { -1.0 });
            [edge.at(at - way * half).0, edge.at(at + way * half).0]
        }
        None => {
            let way = dart.mouth[1] - dart.mouth[0];
            let way = if way.hypot() > 0.0 { way.normalize() } else { Vec2::new(1.0, 0.0) };
            [middle - way * half, middle + way * half]
        }
    };
}

/// A new one, and on which of the pieces; nothing where none has a place for it.
fn new(
    garment: &Garment,
    pieces: &[Piece],
    altered: &AlteredDart<'_>,
    side: GarmentSide,
) -> Option<(usize, PieceDart)> {
    let dart = altered.key();
    let half = take_of(garment, altered, side);
    let long = altered.length.cm() * 10.0;
    let face = if dart.is_in_front() { PieceFace::Front } else { PieceFace::Back };
    // Above a seam at the waist, or below it.
    let has_room = |part: PiecePart| match part {
        PiecePart::Skirt | PiecePart::Leg => altered.point <= altered.base,
        PiecePart::Bodice => altered.point >= altered.base,
        PiecePart::Body => true,
        PiecePart::Sleeve | PiecePart::Waistband => false,
    };
    let is_own = |n: &usize| pieces[*n].key.face == face && has_room(pieces[*n].key.part);
    let all: Vec<&Piece> = pieces.iter().collect();
    let mut own: Vec<usize> = (0..pieces.len()).filter(is_own).collect();
    own.sort_by_key(|n| rank(pieces[*n].key.share));
    if dart.has_two_points() {
        let at = altered.height_of(mouth_of(garment, altered, side))?;
        let height = |n: usize, h: Option<Length>| height_on(garment, &pieces[n], h?);
        // A yoke has no waist.
        own.retain(|n| height(*n, Some(at)).is_some());
        let line = Line::Level(height(*own.first()?, Some(at))?);
        let (n, out) = across(&strips(&all, own.into_iter(), line), half, altered, garment)?;
        let (point, y, base) = (height(n, altered.point)?, height(n, Some(at))?, height(n, altered.base)?);
        let ([from, _], outline) = (pieces[n].reach(y)?, pieces[n].outline());
        let x = if pieces[n].laps() { 0.0 } else { from } + out;
        let mouth = [Point::new(x - half, y), Point::new(x + half, y)];
        let [point, base] = [point, base].map(|y| Point::new(x, y));
        let whole = PieceDart { dart, mouth, point, other: Some(base), loose: None };
        let is_here = [point, base].iter().all(|end| within(&outline)(*end));
        return is_here.then_some((n, whole));
    }
    let on = match dart {
        Dart::Bust => EdgeName::Seam(garment.side_seam()),
        Dart::Shoulder => EdgeName::Seam(Seam::ShoulderSeam),
        Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => EdgeName::Waist,
        Dart::FrontFishEye | Dart::BackFishEye => return None,
    };
    own.retain(|n| pieces[*n].edge(on).is_some());
    let (n, along) = match dart {
        Dart::Bust => {
            let n = *own.first()?;
            let (_, bust) = pieces[n].levels.iter().find(|(level, _)| *level == Level::Bust)?;
            let [_, out] = pieces[n].reach(bust - BELOW_BUST)?;
            (n, along_curves(&pieces[n].edge(on)?.curves, Point::new(out, bust - BELOW_BUST)))
        }
        Dart::Shoulder => {
            let n = *own.first()?;
            (n, pieces[n].edge(on)?.length() / 2.0)
        }
        Dart::FrontWaist
        | Dart::BackWaist
        | Dart::OuterFrontWaist
        | Dart::OuterBackWaist
        | Dart::FrontFishEye
        | Dart::BackFishEye => {
            // One that begins elsewhere than at the waist begins on no edge.
            garment.level(Level::Waist).filter(|level| Some(level.station.length) == altered.base)?;
            let strips = strips(&all, own.into_iter(), Line::Waist);
            let (n, out) = across(&strips, half, altered, garment)?;
            let edge = pieces[n].edge(on)?;
            // What laps over the middle lies beyond it.
            let out = out + edge.length() - strips.iter().find(|strip| strip.piece == n)?.wide;
            (n, if edge.start().x < edge.end().x { out } else { edge.length() - out })
        }
    };
    let edge = pieces[n].edge(on)?;
    let fits = along - half > BESIDE && along + half < edge.length() - BESIDE;
    let mouth = [edge.at(along - half).0, edge.at(along + half).0];
    let point = mouth[0].midpoint(mouth[1]) + inwards(mouth[1] - mouth[0]).normalize() * long;
    // Nor does it run out of its piece, over a yoke seam.
    let fits = fits && within(&pieces[n].outline())(point);
    fits.then_some((n, PieceDart { dart, mouth, point, other: None, loose: None }))
}

/// On which of the pieces, and how far across it: as far from the side as somebody placed it, or from the middle as such darts lie. Seams and darts between are
/// sewn there. Nothing where a seam or another dart is too near for a mouth twice so wide.
fn across(strips: &[Strip], half: f64, altered: &AlteredDart<'_>, garment: &Garment) -> Option<(usize, f64)> {
    let all: f64 = strips.iter().map(Strip::sewn).sum();
    let placed = altered.change.from_side_seam.map(|from| all - from.length.cm() * 10.0);
    let mut out = placed.unwrap_or(altered.from_centre(garment).cm() * 10.0);
    for strip in strips {
        if out < strip.sewn() {
            let place = strip.place_of(out);
            let clear = |[from, to]: [f64; 2]| place + half + BESIDE < from || place - half - BESIDE > to;
            let edges = [[strip.wide, f64::INFINITY], [f64::NEG_INFINITY, 0.0]];
            let mouths = strip.darts.iter().map(|(_, mouth)| *mouth);
            return mouths.chain(edges).all(clear).then_some((strip.piece, place));
        }
        out -= strip.sewn();
    }
    None
}
