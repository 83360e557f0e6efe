//! Pieces that were drawn elsewhere, laid as pieces lie here: upright by their grain, hem below, middle to the left, against the clock.

use super::panels::{is_between_panels, lay_beside};
use super::piece::{Edge, Notch, Piece, PieceDart, is_middle};
use super::unroll::usual_allowance;
use crate::garment::{Garment, Seam};
use crate::length::{Length, Measure, Unit};
use crate::place::Level;
use crate::work::{
    DrawnDart, DrawnEdge, DrawnLevel, DrawnNotch, DrawnPiece, Eased, EdgeName, PieceFace, PieceKey,
    PiecePart, PieceShare, kept, point, xy,
};
use kurbo::{Affine, Point, Shape};

/// The pieces with those that were drawn: what is drawn of a part, in front or behind, stands for all that the garment is unrolled to there. What laps over is taken
/// to go as far beyond the middle as there: a drawing does not say where that is.
pub(super) fn with_drawn(garment: &Garment, unrolled: Vec<Piece>, drawn: &[DrawnPiece]) -> Vec<Piece> {
    let stands_for = |piece: &Piece| {
        drawn.iter().any(|d| {
            d.piece.layer.is_outer() && (d.piece.part, d.piece.face) == (piece.key.part, piece.key.face)
        })
    };
    let (stood_for, mut pieces): (Vec<Piece>, Vec<Piece>) = unrolled.into_iter().partition(stands_for);
    let mut own: Vec<Piece> = drawn.iter().filter_map(|drawn| piece_of(garment, drawn)).collect();
    // The same one, or where it was cut into other panels the one in the middle.
    let lapped = |key: PieceKey| {
        let laps = || stood_for.iter().filter(|piece| piece.laps());
        let is_beside = |piece: &&Piece| PieceKey { share: key.share, ..piece.key } == key;
        let is_outside = matches!(key.share, PieceShare::Middle | PieceShare::Side);
        let in_the_middle = || laps().find(is_beside).filter(|_| !is_outside);
        laps().find(|piece| piece.key == key).or_else(in_the_middle)
    };
    for piece in &mut own {
        if let Some(lapped) = lapped(piece.key) {
            piece.lay(Affine::translate((lapped.bounds().x0, 0.0)));
        }
    }
    lay_beside(&mut own);
    pieces.extend(own);
    pieces.iter_mut().for_each(|piece| piece.was = Some(piece.key));
    pieces
}

/// A piece as it was drawn, laid as pieces lie here. Nothing where it has no lines: such a document is refused.
fn piece_of(garment: &Garment, drawn: &DrawnPiece) -> Option<Piece> {
    let mut edges: Vec<Edge> = Vec::with_capacity(drawn.edges.len());
    for edge in &drawn.edges {
        let notch = |n: &DrawnNotch| Notch { along: n.along_mm, level: n.level };
        let usual = || usual_allowance(garment, drawn.piece.part, drawn.piece.face, edge.name);
        edges.push(Edge {
            name: edge.name,
            second: edge.second || edges.iter().any(|before| before.name == edge.name && !before.second),
            curves: edge.curves()?,
            allowance: edge.allowance.map_or_else(usual, super::change::mm),
            notches: edge.notches.iter().map(notch).collect(),
            eased: edge.eased,
        });
    }
    let darts = drawn.darts.iter().map(|d| PieceDart {
        dart: d.dart,
        mouth: d.mouth_mm.map(point),
        point: point(d.point_mm),
        other: d.other_mm.map(point),
        loose: d.loose,
    });
    let is_one = drawn.piece.part == PiecePart::Waistband || edges.iter().any(|e| e.name == EdgeName::Fold);
    let mut piece = Piece {
        key: drawn.piece,
        was: None,
        edges,
        darts: darts.collect(),
        grain: drawn.grain_mm.unwrap_or_default().map(point),
        cut: drawn.cut.unwrap_or(if is_one { 1 } else { 2 }),
        levels: Vec::new(),
        drills: drawn.drills_mm.iter().copied().map(point).collect(),
    };
    let bounds = piece.bounds();
    if drawn.grain_mm.is_none() {
        let (x, tall) = (bounds.center().x, bounds.height());
        piece.grain = [Point::new(x, bounds.y0 + tall * 0.2), Point::new(x, bounds.y0 + tall * 0.8)];
    }
    let place = upright(&piece);
    piece.lay(place);
    let heights = drawn.levels.iter().map(|l| (l.level, (place * point(l.at_mm)).y));
    piece.levels = heights.collect();
    Some(piece)
}

/// A piece as it would be drawn.
pub(super) fn drawn_of(piece: &Piece) -> DrawnPiece {
    let edge = |edge: &Edge| DrawnEdge {
        name: edge.name,
        second: edge.second,
        path_mm: edge.path_data(),
        allowance: Some(Measure { length: Length::from_cm(edge.allowance / 10.0), unit: Unit::Mm }),
        notches: edge
            .notches
            .iter()
            .map(|n| DrawnNotch { along_mm: kept(n.along), level: n.level })
            .collect(),
        eased: edge.eased.map(|eased| Eased { by_mm: kept(eased.by_mm), ..eased }),
    };
    let dart = |d: &PieceDart| DrawnDart {
        dart: d.dart,
        mouth_mm: d.mouth.map(xy),
        point_mm: xy(d.point),
        other_mm: d.other.map(xy),
        loose: d.loose,
    };
    let level = |(level, y): &(Level, f64)| DrawnLevel { level: *level, at_mm: [0.0, kept(*y)] };
    DrawnPiece {
        piece: piece.key,
        cut: Some(piece.cut),
        edges: piece.edges.iter().map(edge).collect(),
        darts: piece.darts.iter().map(dart).collect(),
        grain_mm: Some(piece.grain.map(xy)),
        drills_mm: piece.drills.iter().copied().map(xy).collect(),
        levels: piece.levels.iter().map(level).collect(),
        has: Vec::new(),
        has_marks: Vec::new(),
        has_try_on: None,
        of_toile: false,
    }
}

/// How a piece is turned and moved to lie as pieces do here. Grain is turned by quarters: what leans stays leaning.
pub(super) fn upright(piece: &Piece) -> Affine {
    let [low, high] = piece.grain;
    let (way, is_band) = (high - low, piece.key.part == PiecePart::Waistband);
    let mut place = Affine::IDENTITY;
    if (way.x.abs() > way.y.abs()) != is_band {
        place = Affine::rotate(std::f64::consts::FRAC_PI_2);
    }
    let centre = |place: Affine| place * piece.bounds().center();
    let middle_of = |place: Affine, is_of: &dyn Fn(EdgeName) -> bool| {
        let of: Vec<Point> =
            piece.edges.iter().filter(|e| is_of(e.name)).map(|e| e.at(e.length() / 2.0).0).collect();
        let sum = of.iter().fold(Point::ZERO, |sum, p| sum + (place * *p).to_vec2());
        (!of.is_empty()).then(|| Point::new(sum.x / of.len() as f64, sum.y / of.len() as f64))
    };
    let key = piece.key;
    let (over, under) =
        (middle_of(place, &|name| is_upper(key, name)), middle_of(place, &|name| is_lower(key, name)));
    let over_y = over.unwrap_or(centre(place)).y;
    if over_y < under.unwrap_or(centre(place)).y {
        place = Affine::rotate(std::f64::consts::PI) * place;
    }
    // What runs between panels lies inside of one at the side, and outside of one in the middle.
    let is_beside = |share: PieceShare, name: EdgeName| matches!(name, EdgeName::Seam(seam) if piece.key.share == share && is_between_panels(seam));
    let inner = middle_of(place, &|name| is_middle(name) || is_beside(PieceShare::Side, name));
    let outer = middle_of(place, &|name| name.is_side() || is_beside(PieceShare::Centre, name));
    let has_sides = piece.key.face != PieceFace::Round && (inner.is_some() || outer.is_some());
    if has_sides && inner.unwrap_or(centre(place)).x > outer.unwrap_or(centre(place)).x {
        place = Affine::FLIP_X * place;
    }
    let box_of = |place: Affine| place.transform_rect_bbox(piece.bounds());
    let laid = if place.as_coeffs()[1].abs() < 1e-9 {
        box_of(place)
    } else {
        (place * piece.outline()).bounding_box()
    };
    Affine::translate((-laid.x0, -laid.y0)) * place
}

/// It lies above the others of its piece.
fn is_upper(key: PieceKey, name: EdgeName) -> bool {
    match name {
        EdgeName::Waist => matches!(key.part, PiecePart::Skirt | PiecePart::Leg),
        EdgeName::Seam(Seam::YokeSeam) => key.share != PieceShare::Upper,
        EdgeName::Neckline | EdgeName::Top => true,
        EdgeName::Seam(seam) => matches!(seam, Seam::ShoulderSeam | Seam::ArmholeSeam),
        EdgeName::Hem | EdgeName::Fold | EdgeName::Opening | EdgeName::End | EdgeName::Inner => false,
    }
}

/// It lies below the others of its piece.
fn is_lower(key: PieceKey, name: EdgeName) -> bool {
    match name {
        EdgeName::Hem => true,
        EdgeName::Seam(Seam::YokeSeam) => key.share == PieceShare::Upper,
        EdgeName::Waist => matches!(key.part, PiecePart::Bodice | PiecePart::Waistband),
        EdgeName::Neckline | EdgeName::Top | EdgeName::Fold | EdgeName::Opening | EdgeName::End => false,
        EdgeName::Seam(_) | EdgeName::Inner => false,
    }
}

impl Piece {
    /// Turns and moves all of it but its levels; its edges go round against the clock afterwards.
    pub(super) fn lay(&mut self, place: Affine) {
        self.lay_as_is(place);
        if (self.grain[1] - self.grain[0]).y < -1e-6 {
            self.grain.reverse();
        }
        if self.outline().area() < 0.0 {
            self.edges.reverse();
            self.edges = std::mem::take(&mut self.edges).into_iter().map(Edge::turned).collect();
        }
    }

    /// Turns and moves all of it but its levels.
    pub(super) fn lay_as_is(&mut self, place: Affine) {
        for edge in &mut self.edges {
            edge.curves.iter_mut().for_each(|c| *c = place * *c);
        }
        for dart in &mut self.darts {
            dart.mouth = dart.mouth.map(|p| place * p);
            dart.point = place * dart.point;
            dart.other = dart.other.map(|p| place * p);
        }
        self.drills.iter_mut().for_each(|p| *p = place * *p);
        self.grain = self.grain.map(|p| place * p);
    }
}
