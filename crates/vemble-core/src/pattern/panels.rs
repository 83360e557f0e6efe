//! Panels of one face beside each other: in which order they lie, and how far across it a place of one of them is.

use super::piece::{Edge, Piece, PieceDart, along_curves, is_on, taken_at};
use crate::garment::{Dart, Seam};
use crate::place::Level;
use crate::work::{EdgeName, PiecePart, PieceShare};
use kurbo::{Affine, Point};

/// From the middle out, and from above down.
pub(super) const fn rank(share: PieceShare) -> u8 {
    match share {
        PieceShare::Whole | PieceShare::Centre | PieceShare::Upper => 0,
        PieceShare::Middle => 1,
        PieceShare::Side | PieceShare::Lower => 2,
    }
}

/// It runs down between the panels of a face.
pub(super) const fn is_between_panels(seam: Seam) -> bool {
    matches!(seam, Seam::PrincessFront | Seam::PrincessBack | Seam::PanelFront | Seam::PanelBack)
}

/// It runs rather across than up.
pub(super) fn is_across(edge: &Edge) -> bool {
    let way = edge.end() - edge.start();
    way.x.abs() > way.y.abs()
}

/// An edge of a piece that runs across.
#[derive(Clone, Copy, PartialEq)]
pub(super) enum Across {
    Upper,
    Lower,
}

/// Its upper or lower edge.
pub(super) fn edge_of(piece: &Piece, across: Across) -> Option<&Edge> {
    let high = |edge: &&Edge| edge.start().y + edge.end().y;
    let edges = piece.edges.iter().filter(|edge| is_across(edge));
    match across {
        Across::Upper => edges.max_by(|a, b| high(a).total_cmp(&high(b))),
        Across::Lower => edges.min_by(|a, b| high(a).total_cmp(&high(b))),
    }
}

/// From where to where that edge reaches across; what laps over the middle is not counted.
pub(super) fn ends_of(piece: &Piece, across: Across) -> [f64; 2] {
    let bounds = piece.bounds();
    let [a, b] = edge_of(piece, across).map_or([bounds.x0, bounds.x1], |e| [e.start().x, e.end().x]);
    [if piece.laps() { a.min(b).max(0.0) } else { a.min(b) }, a.max(b)]
}

/// How far across its face a place of a panel lies at that edge, by its `x`: from nought in the middle to one at the side. Where the edges of two panels meet it
/// is the same on both, so that what moves by it leaves their seams as equal as they are.
pub(super) fn across_face(
    all: &[Piece],
    piece: &Piece,
    across: Across,
) -> impl Fn(f64) -> f64 + Copy + use<> {
    let (mut inside, mut whole) = (0.0, 0.0);
    for other in all.iter().filter(|other| piece.key.goes_on_in(other.key)) {
        let [from, to] = ends_of(other, across);
        whole += to - from;
        inside += if rank(other.key.share) < rank(piece.key.share) { to - from } else { 0.0 };
    }
    let [from, to] = ends_of(piece, across);
    move |x| (inside + (x.min(to) - from).max(0.0)) / whole
}

/// A line across a face: along the edge of a waist, or level at a height.
#[derive(Clone, Copy)]
pub(super) enum Line {
    Waist,
    Level(f64),
}

/// What of such a line lies on one of the panels.
pub(super) struct Strip {
    /// Which of the pieces.
    pub piece: usize,
    /// How wide it is cut, in mm.
    pub wide: f64,
    /// Where its darts lie, in mm from its inner side, the innermost first.
    pub darts: Vec<(Dart, [f64; 2])>,
}

impl Strip {
    /// How wide it is sewn, up to a place.
    fn sewn_to(&self, place: f64) -> f64 {
        let before = self.darts.iter().map(|(_, [from, to])| (place - from).clamp(0.0, to - from));
        place - before.sum::<f64>()
    }

    /// How wide it is sewn.
    pub fn sewn(&self) -> f64 {
        self.sewn_to(self.wide)
    }

    /// Where so much of it is sewn, from its inner side.
    pub fn place_of(&self, sewn: f64) -> f64 {
        let past = |place: f64, (_, [from, to]): &(Dart, [f64; 2])| {
            if place > *from { place + to - from } else { place }
        };
        self.darts.iter().fold(sewn, past)
    }

    /// What lies on one piece; nothing where the line misses it. What laps over the middle is not counted.
    fn of(pieces: &[&Piece], piece: usize, line: Line) -> Option<Self> {
        let own = pieces[piece];
        let laps = own.laps();
        let stitched = own.darts.iter().filter(|dart| dart.loose.is_none());
        let (wide, mut darts): (f64, Vec<(Dart, [f64; 2])>) = match line {
            Line::Waist => {
                let edge = own.edge(EdgeName::Waist)?;
                let (long, runs_out) = (edge.length(), edge.start().x < edge.end().x);
                let beyond = if laps { (-edge.start().x.min(edge.end().x)).max(0.0) } else { 0.0 };
                let place = |p: Point| {
                    let along = along_curves(&edge.curves, p);
                    if runs_out { along - beyond } else { long - along - beyond }
                };
                let on = stitched.filter(|dart| dart.other.is_none() && is_on(edge, dart));
                (long - beyond, on.map(|dart| (dart.dart, dart.mouth.map(place))).collect())
            }
            Line::Level(y) => {
                let [from, to] = own.reach(y)?;
                let from = if laps { 0.0 } else { from };
                let on = stitched.map(|dart| (dart, taken_at(dart, y))).filter(|(_, takes)| *takes > 0.0);
                let place = |(dart, takes): (&PieceDart, f64)| {
                    let middle = f64::midpoint(dart.mouth[0].x, dart.mouth[1].x) - from;
                    (dart.dart, [middle - takes / 2.0, middle + takes / 2.0])
                };
                (to - from, on.map(place).collect())
            }
        };
        darts.iter_mut().for_each(|(_, [a, b])| (*a, *b) = (a.min(*b), a.max(*b)));
        darts.sort_by(|(_, one), (_, other)| one[0].total_cmp(&other[0]));
        Some(Self { piece, wide, darts })
    }
}

/// What lies of a line on each of these pieces, from the middle out.
pub(super) fn strips(pieces: &[&Piece], own: impl Iterator<Item = usize>, line: Line) -> Vec<Strip> {
    let mut own: Vec<usize> = own.collect();
    own.sort_by_key(|n| rank(pieces[*n].key.share));
    own.into_iter().filter_map(|n| Strip::of(pieces, n, line)).collect()
}

/// How far from the middle of its face a dart is sewn, in mm, whatever seams and darts there are between; of one that begins at another seam how far out it
/// begins. Nothing where no piece has it.
pub(super) fn from_middle(pieces: &[&Piece], dart: Dart) -> Option<f64> {
    let (own, lies) = pieces.iter().find_map(|p| Some((p, p.darts.iter().find(|d| d.dart == dart)?)))?;
    let is_on_waist = |edge: &Edge| lies.other.is_none() && is_on(edge, lies);
    let line = match own.edge(EdgeName::Waist).is_some_and(is_on_waist) {
        true => Line::Waist,
        false => Line::Level(lies.mouth[0].midpoint(lies.mouth[1]).y),
    };
    let beside = (0..pieces.len()).filter(|n| own.key.goes_on_in(pieces[*n].key));
    let mut inside = 0.0;
    for strip in strips(pieces, beside, line) {
        if let Some((_, [from, _])) = strip.darts.iter().find(|(other, _)| *other == dart) {
            return Some(inside + strip.sewn_to(*from));
        }
        inside += strip.sewn();
    }
    Some(lies.mouth[0].x.min(lies.mouth[1].x))
}

/// Lays panels that were drawn each for itself beside each other: each begins where the one inside of it ends, at the bust or at the edge of a waist.
pub(super) fn lay_beside(pieces: &mut [Piece]) {
    let reach = |piece: &Piece| {
        let bust = piece.levels.iter().find(|(level, _)| *level == Level::Bust);
        let is_below = piece.key.part == PiecePart::Skirt;
        let edge = || ends_of(piece, if is_below { Across::Upper } else { Across::Lower });
        bust.and_then(|(_, y)| piece.reach(*y)).unwrap_or_else(edge)
    };
    let mut order: Vec<usize> = (0..pieces.len()).collect();
    order.sort_by_key(|n| rank(pieces[*n].key.share));
    for (at, &n) in order.iter().enumerate() {
        let is_inside = |other: &&usize| pieces[n].key.goes_on_in(pieces[**other].key);
        if let Some(inside) = order[..at].iter().rfind(is_inside) {
            let by = reach(&pieces[*inside])[1] - reach(&pieces[n])[0];
            pieces[n].lay(Affine::translate((by, 0.0)));
        }
    }
}
