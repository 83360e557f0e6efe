//! The legs of trousers: front and back lie around a crease, the back wider, with a curve to the crotch as long as its seam was found.

use super::trunk::NARROW;
use super::{Bolt, FIXES, TRUE, girth_at, passes};
use crate::change::Curve;
use crate::change::armhole::solved;
use crate::garment::{AT_SIDE, BACK_HIP, Dart, DartFacts, GarmentLevel, LongEdge, PANEL, Seam};
use crate::pattern::carry::inwards;
use crate::pattern::corner::true_corner;
use crate::pattern::part::{Spot, split_at};
use crate::pattern::piece::{Edge, Piece, PieceDart, way_of};
use crate::place::Level;
use crate::work::{EdgeName, PieceFace, PieceKey, PiecePart, PieceShare, straight};
use kurbo::{Affine, CubicBez, Line, ParamCurveArclen, Point, Vec2};

/// A back leg is so much wider than a front one on each side of its crease (teaching value: the seat wants more than the front).
const BACK_WIDER: f64 = 10.0;
/// A leg is wider than half the hip by so much where it is joined to the other, in mm, whatever its thigh: what goes between the legs (teaching value).
const FORK: f64 = 30.0;
/// The seam between panels makes room for a dart by no more, in mm: as wide as the largest dart and its clearance.
const ASIDE: i32 = 100;
/// How full a crotch curve may be, and how far its upper end may be raised or lowered, in mm.
const FULL: [f64; 2] = [0.2, 0.75];
const RAISED: f64 = 60.0;

struct Leg<'a> {
    bolt: &'a Bolt<'a>,
    crotch: f64,
    hip: (f64, f64),
    waist: (f64, f64),
    /// From the crease to either edge in front, up to the crotch.
    half: Vec<(f64, f64)>,
}

/// Front and back. None where hip, waist or legs are not known.
pub(super) fn legs(bolt: &Bolt<'_>) -> Vec<Piece> {
    let garment = bolt.garment;
    let at = |level: Level| Some((bolt.up(level)?, bolt.girth(level)?));
    let (Some(hip), Some(waist)) = (at(Level::Hip), at(Level::Waist)) else { return Vec::new() };
    let inseam = garment.seam(Seam::Inseam).map(|f| f.length.length.cm() * 10.0);
    let mut points: Vec<(f64, f64)> = garment
        .body_levels_up()
        .iter()
        .filter(|l| l.level.is_below_crotch())
        .map(|l| (l.station.length.cm() * 10.0, l.width.girth().cm() * 10.0))
        .collect();
    let Some(thigh) = points.last().copied().filter(|_| points.len() > 1) else { return Vec::new() };
    let crotch = inseam.unwrap_or(thigh.0).max(thigh.0).min(hip.0 - 20.0);
    points.retain(|p| p.0 < crotch - 1.0);
    points.push((crotch, thigh.1.max(hip.1 / 2.0 + FORK)));
    if points[0].0 > 1.0 {
        points.insert(0, (0.0, girth_at(&points, 0.0)));
    }
    let half = points.iter().map(|(y, leg)| (*y, (leg / 2.0 - BACK_WIDER) / 2.0)).collect();
    let leg = Leg { bolt, crotch, hip, waist, half };
    let mut legs: Vec<Piece> =
        [PieceFace::Front, PieceFace::Back].into_iter().filter_map(|face| leg.piece(face)).collect();
    // The seam between the legs is the middle: it lies to the left, as every middle does.
    legs.iter_mut().for_each(|leg| leg.lay(Affine::FLIP_X));
    for (face, seam) in [(PieceFace::Front, Seam::PanelFront), (PieceFace::Back, Seam::PanelBack)] {
        if bolt.has(seam) {
            cut_in_panels(&mut legs, face);
        }
    }
    legs
}

/// Cuts a leg in two from its hem up to its waist, along its crease, as far towards the outseam as other panel seams lie; where a dart is in the way,
/// beside it.
fn cut_in_panels(legs: &mut Vec<Piece>, face: PieceFace) {
    let Some(n) = legs.iter().position(|leg| leg.key.face == face) else { return };
    let spot = |name: EdgeName, x: f64| {
        let edge = legs[n].edges.iter().position(|edge| edge.name == name)?;
        let along = passes(&legs[n].edges[edge], Line::new((x, -1e4), (x, 1e4)))?;
        let left = legs[n].edges[edge].length() - along;
        (along.min(left) > NARROW).then_some(Spot { edge, along })
    };
    let Some(hem) = legs[n].edge(EdgeName::Hem) else { return };
    let (from, long) = (hem.start().x.min(hem.end().x), hem.length());
    let x = from + (PANEL * long).min(long - NARROW - 1.0);
    let ways = (0..ASIDE).flat_map(|mm| [f64::from(mm), -f64::from(mm)]);
    let lines: Vec<[Spot; 2]> = ways
        .filter_map(|aside| Some([spot(EdgeName::Hem, x + aside)?, spot(EdgeName::Waist, x + aside)?]))
        .collect();
    let _ = lines.into_iter().find(|line| split_at(legs, n, *line).is_ok());
}

impl Leg<'_> {
    fn darts(&self, face: PieceFace) -> impl Iterator<Item = &DartFacts> {
        let is_front = face == PieceFace::Front;
        self.bolt.garment.darts.iter().filter(move |d| {
            let at_waist = matches!(
                d.dart,
                Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist
            );
            // Those of a coverall are in its bodice.
            at_waist && d.dart.is_in_front() == is_front && !self.bolt.garment.goes_above_waist()
        })
    }

    /// Darts begin on the waist, which runs from the rise to the outseam. Their places are measured sewn: what those nearer the rise take is added.
    fn add_darts(&self, piece: &mut Piece) {
        let mut own: Vec<&DartFacts> = self.darts(piece.key.face).collect();
        own.sort_by_key(|dart| dart.from_centre.length);
        let mut taken = 0.0;
        for dart in own {
            let Some(waist) = piece.edge(EdgeName::Waist) else { return };
            let [half, from, long] =
                [dart.fold_depth, dart.from_centre, dart.length].map(|measure| measure.length.cm() * 10.0);
            let most = (waist.length() - half - 10.0).max(half + 10.0);
            let along = (from + taken + half).clamp(half + 10.0, most);
            let mouth = [along + half, along - half].map(|along| waist.at(along).0);
            let point = mouth[0].midpoint(mouth[1]) + inwards(mouth[0] - mouth[1]).normalize() * long;
            piece.darts.push(PieceDart { dart: dart.dart, mouth, point, other: None, loose: None });
            taken += 2.0 * half;
        }
    }

    /// Hem and waist are trued, and as long as they are to be once that is done.
    fn piece(&self, face: PieceFace) -> Option<Piece> {
        let mut fix = [0.0; 2];
        let (mut piece, wide) = self.drawn(face, fix)?;
        let wider = if face == PieceFace::Back { BACK_WIDER } else { 0.0 };
        let hem = 2.0 * (self.half.first()?.1 + wider);
        for _ in 0..FIXES {
            let left = [hem - piece.edges[0].length(), wide - piece.edge(EdgeName::Waist)?.length()];
            if left.iter().all(|mm| mm.abs() < TRUE) {
                break;
            }
            fix = [fix[0] + left[0], fix[1] + left[1]];
            piece = self.drawn(face, fix)?.0;
        }
        Some(piece)
    }

    /// The piece with its hem and its waist so much wider than a straight across, and how long its waist is to be.
    fn drawn(&self, face: PieceFace, fix: [f64; 2]) -> Option<(Piece, f64)> {
        let is_back = face == PieceFace::Back;
        let wider = if is_back { BACK_WIDER } else { 0.0 };
        let garment = self.bolt.garment;
        // What is gathered there comes in by less.
        let gathered = self.bolt.more(LongEdge::Waist) / 2.0;
        let fall = garment.falls()? * 10.0 - gathered;
        let top = self.half.last()?.1;
        // The outseam: as the inseam up to the crotch, upright to the hip, in to the waist.
        let mut half = self.half.clone();
        half.first_mut()?.1 += fix[0] / 2.0;
        let mut outer = half.clone();
        outer.push((self.hip.0, top));
        outer.push((self.waist.0, top - AT_SIDE * fall));
        let side = |points: &[(f64, f64)], towards: f64| -> Vec<CubicBez> {
            let curve = Curve::straight_above_an_edge(points);
            let path = curve.path(|y, half| Point::new(towards * (half + wider), y));
            path.segments().map(|s| s.to_cubic()).collect()
        };
        let (outseam, inseam) = (side(&outer, -1.0), side(&half, 1.0));
        let (crotch, corner) = (inseam.last()?.p3, outseam.last()?.p3);
        // Between the legs it runs on from the front to the back: square to the seam there.
        let up = way_of(inseam.last()?, 1.0);
        let square = Vec2::new(-up.y, up.x);
        let hip = if is_back { BACK_HIP } else { -BACK_HIP } * 10.0;
        let middle = -(top + wider) + self.hip.1 / 4.0 + hip;
        let wide = garment.leg_at_waist(!is_back, gathered / 10.0)? * 10.0;
        let seam = if is_back { Seam::SeatSeam } else { Seam::FrontRise };
        let straight_across = wide + fix[1];
        let rise = |full: f64, raised: f64| -> [CubicBez; 2] {
            let joint = Point::new(middle, self.hip.0);
            let up = raised.clamp(-wide * 0.8, wide * 0.8);
            let end = Point::new(
                corner.x + (straight_across * straight_across - up * up).max(0.0).sqrt(),
                self.waist.0 + up,
            );
            let out = crotch.x - joint.x;
            // It runs on as the straight above it comes down.
            let down = (joint - end).normalize() * (full * (joint.y - crotch.y));
            let curve = CubicBez::new(crotch, crotch + square * (full * out), joint + down, joint);
            [curve, straight(joint, end)]
        };
        let long = |full: f64, raised: f64| -> f64 {
            rise(full, raised).iter().map(|c| c.arclen(crate::pattern::piece::EXACT)).sum()
        };
        let (mut full, mut raised) = (0.6, 0.0);
        if let Some(wanted) = self.bolt.garment.seam(seam).map(|f| f.length.length.cm() * 10.0) {
            full = solved(FULL, wanted, |full| long(full, 0.0));
            if (long(full, 0.0) - wanted).abs() > 0.01 {
                raised = solved([-RAISED, RAISED], wanted, |raised| long(full, raised));
            }
        }
        let rise = rise(full, raised);
        let end = rise[1].p3;
        let edges = vec![
            Edge::line(EdgeName::Hem, outseam.first()?.p0, inseam.first()?.p0),
            Edge::new(EdgeName::Seam(Seam::Inseam), inseam),
            Edge::new(EdgeName::Seam(seam), rise.to_vec()),
            Edge::line(EdgeName::Waist, end, corner),
            Edge::new(EdgeName::Seam(Seam::Outseam), outseam).turned(),
        ];

        let levels = garment.body_levels_up();
        // Also where a bodice is sewn to them.
        let is_here =
            |l: &&GarmentLevel| !l.level.is_at_an_edge() && l.station.length.cm() * 10.0 < self.waist.0;
        let levels = levels.iter().filter(is_here);
        let mut piece = Piece {
            drills: Vec::new(),
            key: PieceKey::outer(PiecePart::Leg, face, PieceShare::Whole),
            was: None,
            edges,
            darts: Vec::new(),
            grain: [Point::new(0.0, self.crotch * 0.35), Point::new(0.0, self.crotch * 0.85)],
            cut: 2,
            levels: levels.map(|l| (l.level, l.station.length.cm() * 10.0)).collect(),
        };
        super::square(&mut piece, 0, 1, true);
        super::square(&mut piece, 0, 4, true);
        super::square(&mut piece, 3, 4, false);
        self.add_darts(&mut piece);
        // Where a dart begins too near the rise for that, truing says so.
        let _ = true_corner(std::slice::from_mut(&mut piece), 0, EdgeName::Waist, EdgeName::Seam(seam));
        Some((piece, wide))
    }
}
