//! The pieces between the seams of a garment, laid flat: by its levels, lengths, darts and armholes.
//!
//! **The model.** From the middle in front to the middle behind runs half of what goes round. Every seam that runs down takes the same off both
//! its edges, and every such seam as much as the others, so that the edges of a seam are mirror images and equally long. What darts take is
//! added before. Front and back are equally wide where no dart makes them differ. Girths are the garment's own at its levels and at the ends of
//! its darts, and go smoothly between. A yoke is cut off last: it changes nothing of that.

mod gathered;
mod legs;
mod sleeve;
mod trunk;
mod yoke;

pub(super) use gathered::{gather, gathered_edges, length_before};
pub(super) use sleeve::BEHIND;
pub(super) use trunk::BELOW_BUST;

use super::mouth::true_mouth;
use super::piece::{EXACT, Edge, Notch, Piece, is_corner};
use crate::body::Wearer;
use crate::change::armhole::{AlteredArmhole, Flat};
use crate::garment::{Garment, HemEdge, LongEdge, Seam};
use crate::length::{Length, Tape};
use crate::place::Level;
use crate::work::{EdgeName, PieceFace, PieceKey, PiecePart, PieceShare, straight};
use kurbo::{CubicBez, ParamCurveArclen, Point, Vec2};

/// Cloth around an edge that nobody said anything of, in mm (teaching value: what most home patterns are drawn with).
pub(super) const ALLOWANCE: f64 = 15.0;

/// A garment that is unrolled, and the armholes it has.
pub(super) struct Bolt<'a> {
    pub garment: &'a Garment,
    /// As it is and as it will be; nothing where it has none.
    pub armholes: Option<[Flat; 2]>,
    /// What becomes of its sleeves.
    pub sleeve: Option<&'a SetIn>,
}

/// An armhole that is chalked anew, with what becomes of its sleeve.
pub(super) struct SetIn {
    pub flat: Flat,
    /// How much wider the sleeve is at heights above its edge, and how much longer its seam, as its cap comes down, in mm.
    pub wider: Vec<(f64, f64)>,
    pub longer: f64,
    /// How long the edge of its cap is, in mm.
    pub cap: f64,
}

impl SetIn {
    /// At the marks of a tape.
    pub(super) fn of(garment: &Garment, armhole: &AlteredArmhole<'_>, tape: Tape) -> Self {
        let mm = |length: Length| length.cm() * 10.0;
        let sums = armhole.sums(tape);
        let levels = garment.sleeve_levels_up();
        let wider = levels.iter().map(|level| {
            let station = level.station.length;
            (mm(station), -2.0 * mm(armhole.off_sleeve(garment, station, tape)))
        });
        let [was, is] = sums.high.map(|high| high.map_or(0.0, mm));
        Self { flat: armhole.laid_flat(), wider: wider.collect(), longer: was - is, cap: mm(sums.cap[1]) }
    }
}

/// The pieces of a garment on its wearer, from the front to the back and from the middle to the side. None where too few of its levels are
/// known; with an armhole
/// as it will be, where one is changed.
pub(super) fn unroll(garment: &Garment, wearer: &Wearer, new: Option<&SetIn>) -> Vec<Piece> {
    let garment = &*garment.with_levels_in_order(wearer);
    let armhole = Flat::of(garment).filter(|_| garment.hangs_from_shoulders());
    let armholes = armhole.map(|flat| [flat, new.map_or(flat, |new| new.flat)]);
    let bolt = Bolt { garment, armholes, sleeve: new };
    let mut pieces = match (garment.has_legs(), garment.goes_above_waist()) {
        (true, false) => legs::legs(&bolt),
        (false, _) => trunk::trunk(&bolt),
        // A coverall is a bodice on legs.
        (true, true) if garment.seam(Seam::WaistSeam).is_some() => {
            let mut bodice = trunk::trunk(&bolt);
            bodice.retain(|piece| piece.key.part == PiecePart::Bodice);
            bodice.extend(legs::legs(&bolt));
            bodice
        }
        // Without a seam at the waist both are cut in one, and nothing is known of how.
        (true, true) => return Vec::new(),
    };
    yoke::cut_yokes(&bolt, &mut pieces);
    pieces.extend(sleeve::sleeve(&bolt));
    pieces.extend(band(&bolt, &pieces));
    for piece in &mut pieces {
        finish(garment, piece);
    }
    for facts in garment.gathered.iter().filter(|facts| bolt.more(facts.at) != 0.0) {
        gather(&mut pieces, facts.at, facts.by.length.cm() * 10.0, facts.how);
    }
    pieces
}

impl Bolt<'_> {
    /// How high a level lies, in mm.
    fn up(&self, level: Level) -> Option<f64> {
        self.garment.level(level).map(|l| l.station.length.cm() * 10.0)
    }

    /// What goes round at a level, in mm.
    fn girth(&self, level: Level) -> Option<f64> {
        self.garment.level(level).map(|l| l.width.girth().cm() * 10.0)
    }

    /// How much longer than what it is sewn to an edge is cut, in mm, altogether. Nothing at a waist that belongs to a yoke.
    fn more(&self, at: LongEdge) -> f64 {
        let garment = self.garment;
        let has_yoke = self.has(Seam::YokeSeam) && (garment.has_legs() || !garment.has_yoke_behind());
        let is_drawn = at != LongEdge::Waist || !has_yoke;
        let facts = garment.gathered.iter().find(|facts| facts.at == at && is_drawn);
        facts.map_or(0.0, |facts| facts.by.length.cm() * 10.0)
    }

    fn has(&self, seam: Seam) -> bool {
        self.garment.seam(seam).is_some()
    }
}

/// A level as it is said of the whole garment; heights between levels straight.
fn girth_at(points: &[(f64, f64)], y: f64) -> f64 {
    let above = points.partition_point(|p| p.0 < y);
    match (above.checked_sub(1).and_then(|n| points.get(n)), points.get(above)) {
        (Some(a), Some(b)) => a.1 + (b.1 - a.1) * (y - a.0) / (b.0 - a.0),
        (a, b) => a.or(b).map_or(0.0, |p| p.1),
    }
}

/// The ends of pieces are set right so often, each time within a tenth of what was left, or until nobody sees what is left, in mm.
const FIXES: usize = 8;
const TRUE: f64 = 1e-4;
/// Lines that meet at a seam run smooth across it: an edge turns square to its neighbour over the last 5 cm (teaching value: a hand's width
/// is what a curve is trued over).
const TRUED: f64 = 50.0;

/// Makes the corner at the end of one edge and the start of the next square: `turns` is curved; its end is moved along the other, which is cut
/// off or goes on straight, or stays where it is.
pub(super) fn square(piece: &mut Piece, turns: usize, other: usize, moves: bool) {
    let room = piece.edges[turns].length();
    squared(piece, [turns, other], moves, (room, 0.0));
}

/// The same over no more than there is room for on both pieces, so that the other edge is moved along alike on both.
fn square_over(piece: &mut Piece, turns: usize, other: usize, room: f64) {
    squared(piece, [turns, other], true, (room, 0.0));
}

/// The same of an edge that slants there, in radians, towards the other one where it is more than nought: on the piece beside it that slants away, and both
/// together run smooth across their seam.
pub(super) fn slant(piece: &mut Piece, [turns, other]: [usize; 2], (room, by): (f64, f64)) {
    squared(piece, [turns, other], true, (room, by));
}

/// How long an edge is behind its last corner, where it has one: a neckline.
fn last_run(edge: &Edge) -> f64 {
    if edge.name != EdgeName::Neckline {
        return edge.length();
    }
    let corner = edge.curves.windows(2).rposition(|pair| is_corner(&pair[0], &pair[1])).map_or(0, |n| n + 1);
    edge.curves[corner..].iter().map(|curve| curve.arclen(EXACT)).sum()
}

fn squared(piece: &mut Piece, [turns, other]: [usize; 2], moves: bool, (room, slant): (f64, f64)) {
    let is_end = (turns + 1) % piece.edges.len() == other;
    // As if the edge ended at the corner, and the other began there, or ended there.
    let edge = piece.edges[turns].clone();
    let edge = if is_end { edge } else { edge.turned() };
    let beside = piece.edges[other].clone();
    let beside = if is_end { beside } else { beside.turned() };
    let (corner, [_, comes], [away, _]) = (edge.end(), edge.ways(), beside.ways());
    // How far from square, or from how it slants, as it turns towards the other edge.
    let lean = comes.dot(away).clamp(-1.0, 1.0).asin() - slant;
    let run = TRUED.min(room * 0.4).min(last_run(&edge) * 0.9);
    let by = if moves { -run * (lean / 2.0).tan() } else { 0.0 };
    if lean.abs() < 1e-4 {
        return;
    }
    let new = if by > 0.0 { beside.at(by).0 } else { corner + away * by };
    let mut beside = beside;
    if by > 0.0 {
        beside.cut_off(by);
    } else if by < 0.0 {
        beside.curves.insert(0, straight(new, corner));
        beside.notches.iter_mut().for_each(|notch| notch.along -= by);
    }
    let mut edge = edge;
    edge.cut_off_end(run);
    let [_, from] = edge.ways();
    let [to, _] = beside.ways();
    // Square to the other edge, on the side it comes from.
    let mut end = Vec2::new(-to.y, to.x);
    if end.dot(from) < 0.0 {
        end = -end;
    }
    let end = end * slant.cos() + to * slant.sin();
    let start = edge.end();
    let reach = start.distance(new) / 3.0;
    edge.curves.push(CubicBez::new(start, start + from * reach, new - end * reach, new));
    piece.edges[turns] = if is_end { edge } else { edge.turned() };
    piece.edges[other] = if is_end { beside } else { beside.turned() };
}

/// A band goes round the waist, and over what laps there, folded along its upper edge.
fn band(bolt: &Bolt<'_>, pieces: &[Piece]) -> Option<Piece> {
    let deep = bolt.garment.waistband_depth?.length.cm() * 20.0;
    let own = pieces.iter().filter(|p| matches!(p.key.part, PiecePart::Body | PiecePart::Skirt));
    let laps = own.filter(|p| p.edge(EdgeName::Opening).is_some()).filter_map(|p| p.edge(EdgeName::Waist));
    let lapped: f64 = laps.map(|edge| -edge.start().x.min(edge.end().x)).sum();
    let long = bolt.girth(Level::Waist)? + 2.0 * lapped;
    let corner = |x: f64, y: f64| Point::new(x, y);
    let (a, b, c, d) = (corner(0.0, 0.0), corner(long, 0.0), corner(long, deep), corner(0.0, deep));
    let mut ends = [Edge::line(EdgeName::End, b, c), Edge::line(EdgeName::End, d, a)];
    ends[1].second = true;
    let [right, left] = ends;
    let mut inner = Edge::line(EdgeName::Top, c, d);
    inner.second = false;
    Some(Piece {
        drills: Vec::new(),
        key: PieceKey::outer(PiecePart::Waistband, PieceFace::Round, PieceShare::Whole),
        was: None,
        edges: vec![Edge::line(EdgeName::Waist, a, b), right, inner, left],
        darts: Vec::new(),
        grain: [corner(long * 0.2, deep / 2.0), corner(long * 0.8, deep / 2.0)],
        cut: 1,
        levels: Vec::new(),
    })
}

/// The allowance of an edge as it was found on the garment, in mm, or as is usual.
pub(super) fn usual_allowance(garment: &Garment, part: PiecePart, face: PieceFace, edge: EdgeName) -> f64 {
    let mm = |length: Length| length.cm() * 10.0;
    let hem_of = match part {
        PiecePart::Leg => HemEdge::Leg,
        PiecePart::Sleeve => HemEdge::Sleeve,
        PiecePart::Body | PiecePart::Bodice | PiecePart::Skirt | PiecePart::Waistband => HemEdge::Body,
    };
    match edge {
        EdgeName::Fold => 0.0,
        EdgeName::Hem => {
            let hem = garment.hems.iter().find(|hem| hem.edge == hem_of);
            hem.map_or(ALLOWANCE, |hem| mm(hem.turn_up.length))
        }
        EdgeName::Seam(seam) => garment.seam(seam).map_or(ALLOWANCE, |facts| {
            let behind = facts.allowance_back.filter(|_| face == PieceFace::Back);
            mm(behind.unwrap_or(facts.allowance).length)
        }),
        EdgeName::Waist => garment.seam(Seam::WaistSeam).map_or(ALLOWANCE, |f| mm(f.allowance.length)),
        EdgeName::Neckline => garment.seam(Seam::NeckSeam).map_or(ALLOWANCE, |f| mm(f.allowance.length)),
        EdgeName::Opening | EdgeName::End | EdgeName::Top | EdgeName::Inner => ALLOWANCE,
    }
}

/// Allowances, a notch wherever a level crosses a seam that runs down, and edges that run smooth over closed darts.
fn finish(garment: &Garment, piece: &mut Piece) {
    let (key, levels) = (piece.key, piece.levels.clone());
    for edge in &mut piece.edges {
        edge.allowance = usual_allowance(garment, key.part, key.face, edge.name);
        let runs_down =
            matches!(edge.name, EdgeName::Seam(seam) if seam.run() != crate::garment::Run::Across);
        if runs_down {
            edge.notches = levels.iter().filter_map(|(level, y)| notch(edge, *level, *y)).collect();
        }
    }
    for dart in piece.darts.clone() {
        true_mouth(piece, &dart);
    }
}

/// Where an edge passes a height, but for its ends.
pub(super) fn notch(edge: &Edge, level: Level, y: f64) -> Option<Notch> {
    let along = passes(edge, kurbo::Line::new((-1e4, y), (1e4, y)))?;
    let inside = along > 10.0 && along < edge.length() - 10.0;
    inside.then_some(Notch { along, level: Some(level) })
}

/// How far along it an edge first passes a line.
pub(super) fn passes(edge: &Edge, line: kurbo::Line) -> Option<f64> {
    use kurbo::{ParamCurve, ParamCurveArclen};
    let mut before = 0.0;
    for curve in &edge.curves {
        if let Some([t, _]) = super::piece::meetings(curve, line).first() {
            return Some(before + curve.subsegment(0.0..*t).arclen(super::piece::EXACT));
        }
        before += curve.arclen(super::piece::EXACT);
    }
    None
}
