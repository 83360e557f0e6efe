//! Pieces of a garment whose body is one tube: bodices, skirts, dresses, shirts, coats.

mod darts;

pub(in crate::pattern) use darts::BELOW_BUST;

use super::{Bolt, FIXES, TRUE, girth_at};
use crate::change::Curve;
use crate::change::armhole::{Flat, solved};
use crate::garment::{
    AT_ARMHOLE, AT_SHOULDER, BACK_NECK, Closure, HIGHEST_NECK, LongEdge, Neckline, Opening, PANEL, PRINCESS,
    SLOPE, Seam, neck_edge,
};
use crate::pattern::carry::inwards;
use crate::pattern::part::put_grain;
use crate::pattern::piece::{EXACT, Edge, Piece};
use crate::place::Level;
use crate::work::{EdgeName, PieceFace, PieceKey, PiecePart, PieceShare, straight};
use kurbo::{CubicBez, ParamCurveArclen, Point, Vec2};

/// No panel is narrower, in mm (teaching value: two fingers, so that its seams can be pressed open).
pub(super) const NARROW: f64 = 25.0;
/// A front that laps over for buttons goes so far beyond the middle, and one that wraps over so large a share of the way to the side
/// (teaching values).
const LAP: f64 = 20.0;
const WRAP: f64 = 0.6;
/// How far the curve of an armhole may reach out from the tip of the shoulder, against a usual one.
const REACHES: [f64; 2] = [0.05, 6.0];

/// One storey: between the waist seam and an edge, or all of it.
struct Storey<'a> {
    bolt: &'a Bolt<'a>,
    part: PiecePart,
    /// Lowest and highest: of the highest there is none where it goes up to the shoulders.
    from: f64,
    to: Option<f64>,
    /// From the middle to the side, before anything is taken off edges.
    quarter: f64,
    /// Its seams between the middle and the side, the outermost first, and how far from the middle they lie before that.
    places: Vec<(Seam, f64)>,
    /// What each edge of a seam loses, over the height, in mm.
    loses: Curve,
    /// What its lower and its upper edge are cut wider than a straight across, so that they are as long as they are to be.
    fix: [f64; 2],
    /// How far below the neck point its front neckline lies in the middle, so that all of it is as long as it is to be; as its style has it where nobody knows.
    neck: Option<f64>,
}

pub(super) fn trunk(bolt: &Bolt<'_>) -> Vec<Piece> {
    let garment = bolt.garment;
    let top = if garment.goes_above_waist() { None } else { bolt.up(Level::Waist) };
    let waist = bolt.up(Level::Waist).filter(|_| bolt.has(Seam::WaistSeam));
    let storeys = match (waist, top) {
        (Some(waist), None) => {
            vec![(PiecePart::Bodice, waist, None), (PiecePart::Skirt, 0.0, Some(waist))]
        }
        (_, Some(waist)) => vec![(PiecePart::Skirt, 0.0, Some(waist))],
        (None, None) => vec![(PiecePart::Body, 0.0, None)],
    };
    let mut built: Vec<Storey<'_>> = Vec::new();
    for (part, from, to) in storeys {
        let storey = Storey::of(bolt, (part, from, to), built.first());
        built.extend(storey);
    }
    let mut pieces: Vec<Piece> = built.iter().flat_map(Storey::pieces).collect();
    pieces.iter_mut().for_each(put_grain);
    pieces
}

impl<'a> Storey<'a> {
    /// A skirt's seams go on where those of the bodice end.
    fn of(
        bolt: &'a Bolt<'a>,
        (part, from, to): (PiecePart, f64, Option<f64>),
        bodice: Option<&Self>,
    ) -> Option<Self> {
        let garment = bolt.garment;
        let all = garment.body_levels_up();
        // What is gathered to a bodice or a band is cut longer.
        let is_upper_edge = |level: Level| to.is_some() && level == Level::Waist;
        let more = |level: Level| if is_upper_edge(level) { bolt.more(LongEdge::Waist) } else { 0.0 };
        let girths: Vec<(f64, f64)> = all
            .iter()
            .filter(|l| l.level != Level::Shoulder && l.level != Level::Neck)
            .map(|l| (l.station.length.cm() * 10.0, l.width.girth().cm() * 10.0 + more(l.level)))
            .collect();
        if girths.len() < 2 {
            return None;
        }
        let (quarter, loses, fix, places) = (0.0, Curve::default(), [0.0; 2], Vec::new());
        let mut storey = Self { bolt, part, from, to, quarter, places, loses, fix, neck: None };
        let top = storey.top_of_side()?;
        let inside = |y: f64| y > from + 0.5 && y < top - 0.5;
        let mut heights: Vec<f64> = vec![from, top];
        heights.extend(girths.iter().map(|g| g.0).filter(|y| inside(*y)));
        heights.extend(storey.darts().flat_map(|d| storey.spans(d)).filter(|y| inside(*y)));
        heights.sort_by(f64::total_cmp);
        heights.dedup_by(|a, b| (*a - *b).abs() < 1.0);
        // Half of what goes round, cut: with what darts take on one side.
        let half =
            |y: f64| girth_at(&girths, y) / 2.0 + storey.darts().map(|d| storey.takes(d, y)).sum::<f64>();
        // What is narrow there is wider below: a skirt is laid out at its waist, whatever goes up to the shoulders at the bust.
        let quarter = half(to.or(bolt.up(Level::Bust)).unwrap_or(top)) / 2.0;
        let edges = 2.0 * storey.divisions().len() as f64;
        let last = heights.len() - 1;
        let halves: Vec<f64> = heights.iter().map(|y| half(*y)).collect();
        storey.quarter = quarter;
        let most = halves.iter().map(|half| (2.0 * quarter - half) / edges).fold(0.0, f64::max);
        storey.places = storey.laid_out(bodice, most);
        // Edges that are trued are as long as half of what goes round only once their ends are set right.
        for _ in 0..FIXES {
            let fixed = |n: usize| match n {
                0 => storey.fix[0],
                n if n == last && to.is_some() => storey.fix[1],
                _ => 0.0,
            };
            let points: Vec<(f64, f64)> = heights
                .iter()
                .enumerate()
                .map(|(n, y)| (*y, (2.0 * quarter - halves[n] - fixed(n)) / edges))
                .collect();
            storey.loses = Curve::straight_above_an_edge(&points);
            let [lower, upper] = storey.ends();
            let left = [halves[0] - lower, if to.is_some() { halves[last] - upper } else { 0.0 }];
            if left.iter().all(|mm| mm.abs() < TRUE) {
                break;
            }
            storey.fix = [storey.fix[0] + left[0], storey.fix[1] + left[1]];
        }
        storey.lower_neck();
        Some(storey)
    }

    /// Lowers or raises its front neckline until all of it goes round what was measured along its edge; as near as that comes between a straight across and the bust.
    fn lower_neck(&mut self) {
        let garment = self.bolt.garment;
        let girth = self.bolt.girth(Level::Neck).filter(|_| self.to.is_none() && garment.is_neck_its_edge());
        let long = |storey: &Self, face: PieceFace| -> Option<f64> {
            let piece = storey.innermost(face)?;
            let edge = piece.edge(EdgeName::Neckline)?;
            Some(piece.sewn(edge) - storey.middle(face).1)
        };
        let (Some(girth), Some(back)) = (girth, long(self, PieceFace::Back)) else { return };
        let wanted = girth / 2.0 - back;
        let point = self.innermost(PieceFace::Front).and_then(|p| Some(p.edge(EdgeName::Neckline)?.start()));
        let Some(point) = point else { return };
        let lowest = self.bolt.up(Level::Bust).unwrap_or(self.from).max(self.from + 20.0);
        let mut deep = garment.neck_depth(point.x / 10.0) * 10.0;
        let mut before: Option<[f64; 2]> = None;
        for _ in 0..FIXES {
            self.neck = Some(deep);
            let missing = wanted - long(self, PieceFace::Front).unwrap_or(wanted);
            let next = match before {
                Some([was, missed]) if (missed - missing) * (deep - was) > 0.0 => {
                    deep + missing * (deep - was) / (missed - missing)
                }
                _ => deep + missing,
            };
            before = Some([deep, missing]);
            let highest = HIGHEST_NECK * 10.0;
            let next = next.clamp(highest, (point.y - lowest).max(highest));
            if missing.abs() < TRUE || next == deep {
                break;
            }
            deep = next;
        }
    }

    /// How long its lower and its upper edges are, without what goes beyond the middle.
    fn ends(&self) -> [f64; 2] {
        let mut ends = [0.0; 2];
        for piece in self.pieces() {
            let (_, beyond) = if piece.key.share == PieceShare::Whole || piece.key.share == PieceShare::Centre
            {
                self.middle(piece.key.face)
            } else {
                (EdgeName::Fold, 0.0)
            };
            ends[0] += piece.edges[0].length() - beyond;
            ends[1] += piece.edge(EdgeName::Waist).map_or(0.0, Edge::length) - beyond;
        }
        ends
    }

    /// Where the seam at the side ends.
    fn top_of_side(&self) -> Option<f64> {
        let side = self.bolt.garment.seam(self.bolt.garment.side_seam()).map(|f| f.length.length.cm() * 10.0);
        self.to.or(side).filter(|top| *top > self.from + 10.0)
    }

    /// The seams of half of it that run down, from the middle in front to the middle behind, but for those in the middles.
    fn divisions(&self) -> Vec<Seam> {
        self.bolt.garment.divisions(self.part == PiecePart::Bodice)
    }

    fn pieces(&self) -> Vec<Piece> {
        let of = |face| {
            let seams = self.seams_of(face);
            (0..=seams.len()).filter_map(move |n| self.nth_piece(face, &seams, n))
        };
        of(PieceFace::Front).chain(of(PieceFace::Back)).collect()
    }

    /// The seams of a face between its middle and the side, from the middle on.
    fn seams_of(&self, face: PieceFace) -> Vec<Seam> {
        let divisions = self.divisions();
        let side = divisions.iter().position(|s| *s == self.bolt.garment.side_seam()).unwrap_or(0);
        match face {
            PieceFace::Front => divisions[..side].to_vec(),
            PieceFace::Back | PieceFace::Round => divisions[side + 1..].iter().rev().copied().collect(),
        }
    }

    /// The piece of a face that lies in the middle.
    fn innermost(&self, face: PieceFace) -> Option<Piece> {
        self.nth_piece(face, &self.seams_of(face), 0)
    }

    fn nth_piece(&self, face: PieceFace, seams: &[Seam], n: usize) -> Option<Piece> {
        let count = seams.len() + 1;
        let share = match (count, n) {
            (1, _) => PieceShare::Whole,
            (_, 0) => PieceShare::Centre,
            (_, n) if n + 1 == count => PieceShare::Side,
            _ => PieceShare::Middle,
        };
        let inner = n.checked_sub(1).map(|before| seams[before]);
        let outer = seams.get(n).copied().unwrap_or(self.bolt.garment.side_seam());
        self.piece(face, share, inner, outer)
    }

    /// Where its seams lie: so large a share of the way to the side, or below a bodice where those of the bodice end; nearer the middle where a
    /// panel would be too narrow, once as much as this is taken off each of its edges.
    fn laid_out(&self, bodice: Option<&Self>, most: f64) -> Vec<(Seam, f64)> {
        let place = |seam: Seam| match bodice {
            Some(bodice) => {
                let up_to = |x: f64| bodice.lower_edge(is_in_front(seam), x);
                self.quarter * up_to(bodice.place(seam)) / up_to(bodice.quarter)
            }
            None if is_panel(seam) => PANEL * self.quarter,
            None => PRINCESS * self.quarter,
        };
        let inner = self.divisions().into_iter().filter(|seam| *seam != self.bolt.garment.side_seam());
        let mut all: Vec<(Seam, f64)> = inner.map(|seam| (seam, place(seam))).collect();
        all.sort_by(|one, other| other.1.total_cmp(&one.1));
        let mut outer = [self.quarter; 2];
        for (seam, at) in &mut all {
            let outer = &mut outer[usize::from(is_in_front(*seam))];
            *at = at.min(*outer - 2.0 * most - NARROW);
            *outer = *at;
        }
        all
    }

    /// How long its lower edge is once it is sewn, from the middle up to a seam at this place, or to the side.
    fn lower_edge(&self, front: bool, x: f64) -> f64 {
        let before = self.places.iter().filter(|(seam, at)| is_in_front(*seam) == front && *at < x).count();
        let is_before = |at: f64| at < x || x >= self.quarter;
        let darts = self.lying(front).into_iter().filter(|(_, at)| is_before(*at));
        let taken: f64 = darts.map(|(dart, _)| self.takes(dart, self.from)).sum();
        x - (2 * before + 1) as f64 * self.loses.at(self.from) - taken
    }

    /// It is one of its seams between the middle and the side.
    fn is_inner(&self, edge: EdgeName) -> bool {
        self.places.iter().any(|(seam, _)| edge == EdgeName::Seam(*seam))
    }

    /// Where a seam lies from the middle before anything is taken off its edges.
    fn place(&self, seam: Seam) -> f64 {
        self.places.iter().find(|(own, _)| *own == seam).map_or(self.quarter, |(_, at)| *at)
    }

    /// An edge of a seam, from below up: beside its place by what it loses.
    fn edge(&self, seam: Seam, towards: f64, to: f64) -> Vec<CubicBez> {
        let at = self.place(seam);
        let path = self.loses.cut(self.from, to).path(|y, loses| Point::new(at + towards * loses, y));
        path.segments().map(|s| s.to_cubic()).collect()
    }

    fn piece(&self, face: PieceFace, share: PieceShare, inner: Option<Seam>, outer: Seam) -> Option<Piece> {
        let top = self.top_of_side()?;
        let is_side = outer == self.bolt.garment.side_seam();
        let right = self.edge(outer, -1.0, top);
        let left = inner.map(|seam| self.edge(seam, 1.0, top));
        let mut edges = Vec::new();
        let (corner, lower) =
            (right.first()?.p0, left.as_ref().map_or(0.0, |l| l.first().map_or(0.0, |c| c.p0.x)));
        let middle = self.middle(face);
        let beyond = if inner.is_none() { middle.1 } else { 0.0 };
        let lower_name = if self.part == PiecePart::Bodice { EdgeName::Waist } else { EdgeName::Hem };
        edges.push(Edge::line(lower_name, Point::new(lower - beyond, self.from), corner));
        edges.push(Edge::new(EdgeName::Seam(outer), right));
        let first = edges[0].start();
        match (self.to, self.bolt.armholes) {
            // Up to the waist.
            (Some(to), _) => {
                let end = left.as_ref().map_or(-beyond, |l| l.last().map_or(0.0, |c| c.p3.x));
                let end = Point::new(end, to);
                edges.push(Edge::line(EdgeName::Waist, edges[1].end(), end));
                edges.push(match (left, inner) {
                    (Some(left), Some(seam)) => Edge::new(EdgeName::Seam(seam), left).turned(),
                    _ => Edge::line(middle.0, end, first),
                });
            }
            (None, Some(armholes)) => {
                self.upper(face, (inner, left), is_side, &armholes, &mut edges);
            }
            // Nothing is known of its shoulders: it ends level under the arm.
            (None, None) => {
                let end = left.as_ref().map_or(-beyond, |l| l.last().map_or(0.0, |c| c.p3.x));
                let end = Point::new(end, top);
                edges.push(Edge::line(EdgeName::Top, edges[1].end(), end));
                edges.push(match (left, inner) {
                    (Some(left), Some(seam)) => Edge::new(EdgeName::Seam(seam), left).turned(),
                    _ => Edge::line(middle.0, end, first),
                });
            }
        }
        let is_on_fold = edges.iter().any(|edge| edge.name == EdgeName::Fold);
        let mut piece = Piece {
            drills: Vec::new(),
            key: PieceKey::outer(self.part, face, share),
            was: None,
            cut: if is_on_fold { 1 } else { 2 },
            darts: Vec::new(),
            grain: [Point::ZERO, Point::new(0.0, 1.0)],
            levels: self.levels(top),
            edges,
        };
        self.true_corners(&mut piece, inner.is_some());
        self.add_darts(&mut piece, inner, outer);
        self.open_shoulder_dart(&mut piece);
        true_neckline(&mut piece);
        Some(piece)
    }

    /// Hem and waist run smooth across the seams.
    fn true_corners(&self, piece: &mut Piece, has_inner: bool) {
        let last = piece.edges.len() - 1;
        let ends = [(0, Some(self.from)), (2, self.to)];
        let seams = [Some(1), has_inner.then_some(last)];
        for beside in seams.into_iter().flatten() {
            let EdgeName::Seam(seam) = piece.edges[beside].name else { continue };
            for (n, at) in ends {
                if let Some(y) = at {
                    super::square_over(piece, n, beside, self.room(seam, y));
                }
            }
        }
    }

    /// How wide the narrower of the pieces is that are sewn together in a seam, at a height.
    fn room(&self, seam: Seam, y: f64) -> f64 {
        let (place, loses) = (self.place(seam), self.loses.at(y));
        let widths = [true, false].into_iter().flat_map(|front| {
            // From the middle, where nothing is taken off, to the side.
            let inner = self.places.iter().rev().filter(|(own, _)| is_in_front(*own) == front);
            let mut at = vec![-loses];
            at.extend(inner.map(|(_, at)| *at));
            at.push(self.quarter);
            let beside = at.windows(2).filter(|pair| pair.contains(&place));
            beside.map(|pair| pair[1] - pair[0] - 2.0 * loses).collect::<Vec<_>>()
        });
        widths.fold(f64::INFINITY, f64::min)
    }

    /// Levels that cross it.
    fn levels(&self, top: f64) -> Vec<(Level, f64)> {
        let inside = |y: f64| y > self.from + 5.0 && y < top;
        let all = self.bolt.garment.body_levels_up();
        let levels = all.iter().filter(|l| l.level != Level::Hem);
        levels.map(|l| (l.level, l.station.length.cm() * 10.0)).filter(|(_, y)| inside(*y)).collect()
    }

    /// What the middle of a face is, and how far it goes beyond.
    fn middle(&self, face: PieceFace) -> (EdgeName, f64) {
        let garment = self.bolt.garment;
        let at = if face == PieceFace::Front { Opening::CentreFront } else { Opening::CentreBack };
        let seam = if face == PieceFace::Front { Seam::CentreFront } else { Seam::CentreBack };
        let closure = garment.closures.iter().find(|c| c.at == at && c.closure != Closure::Elastic);
        match closure.map(|c| c.closure) {
            Some(Closure::Wrap) => {
                let round = self.bolt.girth(Level::Waist).or(self.bolt.girth(Level::Bust));
                (EdgeName::Opening, WRAP * round.map_or(self.quarter, |g| g / 4.0))
            }
            Some(Closure::Buttons) if !self.bolt.has(seam) => (EdgeName::Opening, LAP),
            Some(_) => (EdgeName::Seam(seam), 0.0),
            None if self.bolt.has(seam) => (EdgeName::Seam(seam), 0.0),
            None => (EdgeName::Fold, 0.0),
        }
    }

    /// From the seam under the arm up to the neck, and down the middle or the inner seam again.
    fn upper(
        &self,
        face: PieceFace,
        (inner, left): (Option<Seam>, Option<Vec<CubicBez>>),
        is_side: bool,
        [old, flat]: &[Flat; 2],
        edges: &mut Vec<Edge>,
    ) {
        let under = self.top_of_side().unwrap_or(0.0);
        let first = edges[0].start();
        let (middle, beyond) = self.middle(face);
        let place = |p: Point| Point::new(p.x * 10.0, p.y * 10.0 + under);
        let scaled = |c: &CubicBez| CubicBez::new(place(c.p0), place(c.p1), place(c.p2), place(c.p3));
        let hole = if face == PieceFace::Front { flat.front_edge() } else { flat.back_edge() };
        let mut hole: Vec<CubicBez> = hole.iter().map(scaled).collect();
        let long_of = |hole: &[CubicBez]| hole.iter().map(|c| c.arclen(EXACT)).sum::<f64>();
        let found = long_of(&hole);
        // Where darts make front and back differ under the arm, the armhole goes with its side.
        let off = edges[1].end() - place(old.underarm);
        let shift = |c: &CubicBez| CubicBez::new(c.p0 + off, c.p1 + off, c.p2 + off, c.p3 + off);
        if is_side {
            hole = hole.iter().map(shift).collect();
            // It begins square to the side, also where that leans.
            let [_, up] = edges[1].ways();
            if let Some(first) = hole.first_mut() {
                first.p1 = first.p0 + inwards(up) * first.p0.distance(first.p1);
            }
            // The seam at the side goes up to where it is brought.
            let (end, to) = (edges[1].end(), hole[0].p0);
            if to.y > end.y + 0.01 {
                edges[1].curves.push(straight(end, to));
            } else if to.y < end.y - 0.01 {
                edges[1].cut_off_end(end.y - to.y);
                edges[1].set_end(to);
            }
        }
        let tip = hole.last().map(|c| c.p3).unwrap_or_default();
        let was = place(old.tip) + if is_side { off } else { Vec2::ZERO };
        let long = self.bolt.garment.seam(Seam::ShoulderSeam).map_or(120.0, |f| f.length.length.cm() * 10.0);
        let run = (long * SLOPE.cos()).min(was.x - 25.0).max(20.0);
        let neck = was + Vec2::new(-run, (long * long - run * run).max(0.0).sqrt().min(long * SLOPE.sin()));
        // A dart in the shoulder is sewn out of it: until then the tip lies so much further out.
        let opens = self.shoulder_dart(face).map_or(0.0, |dart| dart.fold_depth.length.cm() * 20.0);
        // A shoulder that comes down is turned about the neck until its tip lies as low as it is to: it is as long as it was, but for what it is shortened
        // by.
        let shorter = (old.tip.x - flat.tip.x) * 10.0;
        let [long, falls] = [was.distance(neck) - shorter, neck.y - tip.y];
        let tip =
            neck + Vec2::new((long * long - falls * falls).max(0.0).sqrt(), -falls) * ((long + opens) / long);
        if let Some(last) = hole.last_mut() {
            last.p3 = tip;
        }
        let split = neck.lerp(tip, AT_SHOULDER);
        // Square to the shoulder, upwards.
        let along = (tip - neck).normalize();
        let across = Vec2::new(-along.y, along.x);
        let before = long_of(&hole[..hole.len().saturating_sub(1)]);
        if let Some(last) = hole.last_mut() {
            let (mut curve, reach) = (*last, last.p2.distance(last.p3));
            let mut of = |share: f64| {
                curve.p2 = curve.p3 - across * (reach * share);
                curve
            };
            // All of it as long as it was found.
            let share = solved(REACHES, found - before, |share| of(share).arclen(EXACT));
            *last = of(share);
        }
        // A panel seam ends in the armhole.
        let mut armhole = Edge::new(EdgeName::Seam(Seam::ArmholeSeam), hole);
        let under_panel = armhole.length() * AT_ARMHOLE;
        let in_armhole = armhole.at(under_panel).0;
        // From the bust up to the shoulder, or to the armhole, in a curve that both pieces share; from above the darts, where they reach further.
        let bust = self.bolt.up(Level::Bust).unwrap_or(under);
        let bust = self.darts().flat_map(|dart| self.spans(dart)).fold(bust, f64::max);
        let rise = |seam: Seam, towards: f64| {
            let mut curves = self.edge(seam, towards, bust);
            let at = curves.last().map_or(Point::new(self.place(seam), bust), |c| c.p3);
            let end = if is_panel(seam) { in_armhole } else { split };
            let up = Vec2::new(0.0, (end.y - at.y) / 3.0);
            curves.push(CubicBez::new(at, at + up, end - up, end));
            curves
        };
        let shoulder = |from: Point, to: Point| Edge::line(EdgeName::Seam(Seam::ShoulderSeam), from, to);
        let inner_end = if inner.is_some_and(|seam| !is_panel(seam)) { split } else { neck };
        let outer =
            if let (EdgeName::Seam(seam), false) = (edges[1].name, is_side) { Some(seam) } else { None };
        match outer {
            // Between two seams that run up to the shoulder, or from one to the neck.
            Some(seam) if !is_panel(seam) => {
                edges[1].curves = rise(seam, -1.0);
                edges.push(shoulder(split, inner_end));
            }
            Some(seam) => {
                edges[1].curves = rise(seam, -1.0);
                armhole.cut_off(under_panel);
                edges.push(armhole);
                edges.push(shoulder(tip, inner_end));
            }
            None if inner.is_some_and(is_panel) => {
                armhole.cut_off_end(armhole.length() - under_panel);
                edges.push(armhole);
            }
            None => {
                edges.push(armhole);
                edges.push(shoulder(tip, inner_end));
            }
        }
        match (inner, left) {
            (Some(seam), Some(_)) => {
                edges.push(Edge::new(EdgeName::Seam(seam), rise(seam, 1.0)).turned());
            }
            _ => {
                let neckline = self.neckline(face, (neck, across), first, beyond);
                let low = neckline.last().map(|c| c.p3).unwrap_or(first);
                edges.push(Edge::new(EdgeName::Neckline, neckline));
                if low.distance(first) > 1.0 {
                    edges.push(Edge::line(middle, low, first));
                }
            }
        }
    }

    /// From the neck point to the middle, or across it where the front wraps over.
    fn neckline(
        &self,
        face: PieceFace,
        (neck, across): (Point, Vec2),
        first: Point,
        beyond: f64,
    ) -> Vec<CubicBez> {
        let garment = self.bolt.garment;
        if face == PieceFace::Front && beyond > LAP {
            // Straight across to the waist, or where there is none to midway below the bust; from there it goes down.
            let bust = self.bolt.up(Level::Bust).unwrap_or(first.y);
            let waist = self.bolt.up(Level::Waist).unwrap_or(bust.midpoint(first.y));
            return vec![straight(neck, Point::new(first.x, waist.max(first.y)))];
        }
        let (style, deep) = match face {
            PieceFace::Back | PieceFace::Round => (Neckline::Round, BACK_NECK * 10.0),
            PieceFace::Front => {
                let deep = self.neck.unwrap_or_else(|| garment.neck_depth(neck.x / 10.0) * 10.0);
                (garment.neckline(), deep)
            }
        };
        let low = Point::new(-beyond, (neck.y - deep).max(self.from + 20.0));
        neck_edge(style, (neck, across), low)
    }
}

const fn is_in_front(seam: Seam) -> bool {
    matches!(seam, Seam::PrincessFront | Seam::PanelFront)
}

/// It ends in the armhole where there is one, and not at the shoulder.
const fn is_panel(seam: Seam) -> bool {
    matches!(seam, Seam::PanelFront | Seam::PanelBack)
}

/// A neckline that comes straight up runs square into the shoulder seam.
fn true_neckline(piece: &mut Piece) {
    let neck = piece.edges.iter().position(|edge| edge.name == EdgeName::Neckline);
    if let Some(neck) = neck.filter(|n| *n > 0) {
        super::square(piece, neck, neck - 1, false);
    }
}
