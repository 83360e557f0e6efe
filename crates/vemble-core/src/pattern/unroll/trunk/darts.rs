//! The darts of a bodice, a skirt or a dress, laid flat.

use super::{Storey, is_in_front};
use crate::garment::{Dart, DartFacts, Seam};
use crate::pattern::change::{Stays, draw_out};
use crate::pattern::cut::open_across;
use crate::pattern::piece::{Piece, PieceDart};
use crate::place::Level;
use crate::work::{EdgeName, PieceFace, PiecePart, straight};
use kurbo::{CubicBez, Point, Vec2};

/// A bust dart begins so far below the bust line, as on the stand.
pub(in crate::pattern) const BELOW_BUST: f64 = 30.0;

impl<'a> Storey<'a> {
    /// Darts that lie in this storey.
    pub(super) fn darts(&self) -> impl Iterator<Item = &'a DartFacts> {
        let (part, below) = (self.part, !self.bolt.garment.goes_above_waist());
        self.bolt.garment.darts.iter().filter(move |d| match d.dart {
            Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => {
                part != PiecePart::Skirt || below
            }
            Dart::FrontFishEye | Dart::BackFishEye => part == PiecePart::Body,
            Dart::Bust => part != PiecePart::Skirt,
            // It takes of no girth.
            Dart::Shoulder => false,
        })
    }

    /// The dart in the shoulder of a face, where no seam ends there instead.
    pub(super) fn shoulder_dart(&self, face: PieceFace) -> Option<&'a DartFacts> {
        let is_there = face == PieceFace::Back && !self.bolt.has(Seam::PrincessBack);
        self.bolt.garment.darts.iter().find(|facts| facts.dart == Dart::Shoulder && is_there)
    }

    /// Opens it: it runs square into its seam.
    pub(super) fn open_shoulder_dart(&self, piece: &mut Piece) {
        let edge = piece.edge(EdgeName::Seam(Seam::ShoulderSeam));
        let (Some(facts), Some(edge)) = (self.shoulder_dart(piece.key.face), edge) else { return };
        let [half, long, out] =
            [facts.fold_depth, facts.length, facts.from_centre].map(|measure| measure.length.cm() * 10.0);
        let (tip, neck, whole) = (edge.start(), edge.end(), edge.length());
        let way = (neck - tip).normalize();
        // One whose place nobody measured still lies on the seam.
        let along = (tip.x - out) / (tip.x - neck.x) * whole - half;
        let along = along.max(half + 10.0).min(whole - half - 10.0);
        let middle = tip + way * along;
        let point = middle + Vec2::new(-way.y, way.x) * long;
        let mouth = [middle - way * half, middle + way * half];
        piece.darts.push(PieceDart { dart: Dart::Shoulder, mouth, point, other: None, loose: None });
    }

    /// Heights between which a dart takes of the width: its wide end first. None of one from the side.
    pub(super) fn spans(&self, dart: &DartFacts) -> Vec<f64> {
        self.bolt.garment.spans_of(dart).into_iter().map(|cm| cm * 10.0).collect()
    }

    /// What a dart takes of the width at a height.
    pub(super) fn takes(&self, dart: &DartFacts, y: f64) -> f64 {
        self.bolt.garment.taken_by(dart, y / 10.0) * 10.0
    }

    /// Where the darts of a face lie at the waist before anything is taken off edges, from the middle out: the middle of each. Their places are measured
    /// sewn, so that what seams and darts nearer the middle take is added.
    pub(super) fn lying(&self, front: bool) -> Vec<(&'a DartFacts, f64)> {
        let waist = self.bolt.up(Level::Waist).unwrap_or(0.0);
        let runs_up = |d: &&DartFacts| d.dart.is_in_front() == front && !self.spans(d).is_empty();
        let mut darts: Vec<&DartFacts> = self.darts().filter(runs_up).collect();
        darts.sort_by_key(|dart| dart.from_centre.length);
        let loses = self.loses.at(waist);
        let mut seams: Vec<f64> =
            self.places.iter().filter(|(seam, _)| is_in_front(*seam) == front).map(|(_, at)| *at).collect();
        seams.sort_by(f64::total_cmp);
        // How much further out it lies than it is measured, and where its panel begins and ends.
        let (mut more, mut from, mut seams) = (0.0, 0.0, seams.into_iter().peekable());
        let mut lying = Vec::new();
        for dart in darts {
            let [half, out] = [dart.fold_depth, dart.from_centre].map(|measure| measure.length.cm() * 10.0);
            while let Some(seam) = seams.next_if(|seam| out + more >= seam - loses) {
                (more, from) = (more + 2.0 * loses, seam + loses);
            }
            // One whose place nobody measured still lies on one of the pieces.
            let to = seams.peek().unwrap_or(&self.quarter) - loses;
            lying.push((dart, (out + more + half).min(to - half - 10.0).max(from + half + 10.0)));
            more += 2.0 * half;
        }
        lying
    }

    /// Darts that begin or lie on this piece.
    pub(super) fn add_darts(&self, piece: &mut Piece, inner: Option<Seam>, outer: Seam) {
        let is_front = piece.key.face == PieceFace::Front;
        let (from, to) = (inner.map_or(0.0, |s| self.place(s)), self.place(outer));
        let own = self.lying(is_front).into_iter().filter(|(_, x)| (from..to).contains(x));
        for (dart, x) in own {
            let Some(waist) = self.bolt.up(Level::Waist) else { continue };
            let half = dart.fold_depth.length.cm() * 10.0;
            // Where the waist is an edge, on it.
            let on = |p: Point| piece.edge(EdgeName::Waist).map_or(p, |edge| edge.nearest(p));
            let mouth = [Point::new(x - half, waist), Point::new(x + half, waist)].map(on);
            let at = |y: f64| Point::new(x, y);
            piece.darts.push(match self.spans(dart)[..] {
                [_, up, down] => {
                    PieceDart { dart: dart.dart, mouth, point: at(up), other: Some(at(down)), loose: None }
                }
                [_, point] => {
                    PieceDart { dart: dart.dart, mouth, point: at(point), other: None, loose: None }
                }
                _ => continue,
            });
        }
        let is_side = outer == self.bolt.garment.side_seam();
        let bust = self.darts().find(|d| d.dart == Dart::Bust).filter(|_| is_front);
        if let (Some(dart), Some(bust)) = (bust, self.bolt.up(Level::Bust)) {
            self.open_bust_dart(piece, dart, bust, (inner, is_side));
        }
    }

    /// A dart from the side gives the front the length that goes over the bust: everything below it lies lower by what it takes.
    fn open_bust_dart(
        &self,
        piece: &mut Piece,
        dart: &DartFacts,
        bust: f64,
        (inner, is_side): (Option<Seam>, bool),
    ) {
        let half = dart.fold_depth.length.cm() * 10.0;
        let long = dart.length.length.cm() * 10.0;
        let height = bust - BELOW_BUST;
        let reaches: Vec<Vec2> =
            piece.darts.iter().map(|d| d.point - d.mouth[0].midpoint(d.mouth[1])).collect();
        // Its seams are drawn out between the bust and the next level below, so that they run on smoothly.
        let below = piece.levels.iter().map(|(_, y)| *y).filter(|y| *y < height).fold(self.from, f64::max);
        let mut drawn = piece.clone();
        let is_drawn = draw_out(&mut drawn, [below, bust], 2.0 * half, Stays::Above, |_| 1.0).is_ok();
        open_across(piece, height, 2.0 * half, false);
        let seams =
            piece.edges.iter_mut().zip(drawn.edges).filter(|(edge, _)| is_drawn && self.is_inner(edge.name));
        seams.for_each(|(edge, drawn)| *edge = drawn);
        // A dart from the waist is as long as it is measured, also where it reaches above this one.
        for (dart, reach) in piece.darts.iter_mut().zip(reaches) {
            dart.point = dart.mouth[0].midpoint(dart.mouth[1]) + reach;
        }
        // A straight neckline stays straight.
        let first = piece.edges[0].start();
        if let Some(edge) =
            piece.edges.iter_mut().find(|e| e.name == EdgeName::Neckline && e.end().distance(first) < 1.0)
        {
            edge.curves = vec![straight(edge.start(), edge.end())];
        }
        let low = height - 2.0 * half;
        let Some(edge) = piece.edges.iter().find(|e| e.name == EdgeName::Seam(self.bolt.garment.side_seam()))
        else {
            return;
        };
        if !is_side {
            return;
        }
        let on = |y: f64| {
            let near = |c: &&CubicBez| (c.p0.y - y).abs() < 0.01;
            edge.curves.iter().find(near).map(|c| c.p0)
        };
        if let (Some(a), Some(b)) = (on(low), on(height)) {
            let mouth = [a, b];
            let middle = a.midpoint(b);
            // No further than its panel.
            let inner =
                inner.map_or(0.0, |seam| self.place(seam) + self.loses.at(height).max(self.loses.at(low)));
            let out = (middle.x - long).max(inner + 10.0);
            // Both legs are equally long: its point lies square to its mouth.
            let point = Point::new(out, middle.y);
            piece.darts.push(PieceDart { dart: dart.dart, mouth, point, other: None, loose: None });
        }
    }
}
