//! What is pinned and chalked, carried to the pieces: each edge of a seam moves by what it is chalked, a dart opens as far as it is folded, an
//! armhole is drawn as it will be, hems and lengths go with theirs.

mod corners;
mod darts;
mod gathers;
mod seams;

use super::change::{FINE, SLIGHT, Stays, band_below, bend, draw_out};
use super::drawn::with_drawn;
use super::mouth::while_flat;
use super::panels::{Across, across_face, edge_of, ends_of};
use super::piece::{EXACT, Edge, Notch, Piece, PieceDart, along_curves, is_corner, is_on};
use super::unroll::{BEHIND, SetIn, slant, unroll};
use crate::body::Wearer;
use crate::change::gathers::Gathered;
use crate::change::hem::AlteredHem;
use crate::change::trunk::{AlteredTrunk, TrunkAt};
use crate::change::{ChangeKey, Curve, DrawnChange};
use crate::fitting::GarmentSide;
use crate::garment::{Garment, HemEdge, Seam};
use crate::length::{Length, Tape};
use crate::place::Level;
use crate::work::{DrawnPiece, EdgeName, PieceFace, PiecePart, PieceShare, straight};
use kurbo::{CubicBez, ParamCurve, ParamCurveArclen, Point, Vec2};
use uuid::Uuid;

/// An edge that moves is drawn anew through points so far apart, in mm.
const STEP: f64 = 8.0;
/// On either side of a corner an edge is looked at so far from it, in mm.
const BESIDE: f64 = 1.0;
/// A corner takes a stretch of its edge along that is so many times as long as it goes along it: shorter, the edge would fold back on itself.
const FADES: f64 = 3.0;
/// And so many times as long as it goes square to it (teaching value: the edge swings by a sixth of a right angle at most).
const SWINGS: f64 = 6.0;
/// And no shorter a stretch, in mm (teaching value: three fingers; over more of an armhole, it would lose less than is taken in beside it).
const FADES_OVER: f64 = 30.0;

/// The pieces of one side with everything that is drawn on the garment, and with the edges that it gathers; and what of it cannot be carried to paper.
pub(super) fn carried(
    (garment, wearer): (&Garment, &Wearer),
    on_file: (&[DrawnPiece], Option<Uuid>),
    (drawn, gathered): (&[DrawnChange<'_>], &[Gathered]),
    side: GarmentSide,
    tape: Tape,
) -> (Vec<Piece>, Vec<ChangeKey>) {
    gathers::carry(garment, on_file, gathered, |garment| {
        carried_on((garment, wearer), on_file, drawn, side, tape)
    })
}

/// The same without what it gathers.
fn carried_on(
    (garment, wearer): (&Garment, &Wearer),
    (on_file, try_on): (&[DrawnPiece], Option<Uuid>),
    drawn: &[DrawnChange<'_>],
    side: GarmentSide,
    tape: Tape,
) -> (Vec<Piece>, Vec<ChangeKey>) {
    let hole = drawn.iter().find_map(|change| match change {
        DrawnChange::Armhole(hole) if hole.key().sides().contains(&side) => Some(hole),
        DrawnChange::Armhole(_) | DrawnChange::Seam(_) | DrawnChange::Dart(_) | DrawnChange::Elastic(_) => {
            None
        }
        DrawnChange::Hem(_) | DrawnChange::Spacing(_) | DrawnChange::Trunk(_) | DrawnChange::Gathers(_) => {
            None
        }
    });
    // Stations count along the cloth as it was found: without what an armhole adds, and with the darts that it has.
    let found = with_drawn(garment, unroll(garment, wearer, None), on_file);
    // One that was drawn elsewhere keeps its armhole, unless what is chalked is in its file already.
    let has_armhole = |d: &DrawnPiece| d.edges.iter().any(|e| e.name == EdgeName::Seam(Seam::ArmholeSeam));
    let is_kept = on_file.iter().any(|d| !has_in_file(d, try_on) && has_armhole(d));
    let set_in = hole.filter(|_| !is_kept).map(|hole| {
        let new = SetIn::of(garment, hole, tape);
        let mut pieces = with_drawn(garment, unroll(garment, wearer, Some(&new)), on_file);
        pinch_neckline(&mut pieces, hole.off_shoulder(tape)[0][0]);
        pieces
    });
    // A sleeve whose cap is shorter than it is wide cannot be drawn.
    let keys = |pieces: &[Piece]| pieces.iter().map(|piece| piece.key).collect::<Vec<_>>();
    let set_in = set_in.filter(|pieces| keys(pieces) == keys(&found));
    let is_set_in = set_in.is_some();
    let mut pieces = set_in.unwrap_or_else(|| found.clone());
    let mut left = Vec::new();
    while_flat(
        &mut pieces,
        |_| true,
        |pieces| {
            // From the inside out: darts on the edges as they are, then edges, then what goes across.
            for change in drawn {
                let done = match change {
                    DrawnChange::Dart(dart) => darts::carry(garment, pieces, dart, side),
                    DrawnChange::Seam(seam) => seams::carry(garment, (pieces, &found), seam, side),
                    DrawnChange::Armhole(_) => is_set_in || hole.is_none(),
                    DrawnChange::Hem(_) | DrawnChange::Trunk(_) => continue,
                    DrawnChange::Elastic(_) | DrawnChange::Spacing(_) | DrawnChange::Gathers(_) => false,
                };
                if !done {
                    left.push(change.key());
                }
            }
            for change in drawn {
                let done = match change {
                    DrawnChange::Hem(hem) => move_hem(pieces, hem, side),
                    DrawnChange::Trunk(trunk) => move_trunk(pieces, trunk, tape),
                    DrawnChange::Armhole(_) | DrawnChange::Seam(_) | DrawnChange::Dart(_) => continue,
                    DrawnChange::Elastic(_) | DrawnChange::Spacing(_) | DrawnChange::Gathers(_) => continue,
                };
                if !done {
                    left.push(change.key());
                }
            }
        },
    );
    // What is in a file already is not done again.
    for (piece, before) in pieces.iter_mut().zip(found) {
        if on_file.iter().any(|d| d.piece == piece.key && has_in_file(d, try_on)) {
            *piece = before;
        }
    }
    (pieces, left)
}

/// Moves an edge inwards by so much at every place along it; the mouths of darts go with the edge that they lie on, and what lies beside it is drawn to its corners.
pub(super) fn move_edge(piece: &mut Piece, n: usize, by: impl Fn(f64) -> f64) {
    let moved = moved_by(piece, n, by);
    put(piece, n, moved);
}

/// Where an edge lies that is moved so; mouths are moved already.
fn moved_by(piece: &mut Piece, n: usize, by: impl Fn(f64) -> f64) -> Vec<CubicBez> {
    let edge = &piece.edges[n];
    let moved = beside(piece, n, &by);
    let line = Edge::new(edge.name, moved.clone());
    let mouth = |p: Point| {
        let along = along_curves(&edge.curves, p);
        // At a corner between what lies on both sides of it.
        let [before, after] = [along - BESIDE, along + BESIDE].map(|along| edge.at(along).1);
        line.nearest(p + inwards(before + after).normalize() * by(along))
    };
    let darts = piece.darts.iter().map(|dart| match dart.other.is_none() && is_on(edge, dart) {
        true => PieceDart { mouth: dart.mouth.map(mouth), ..*dart },
        false => *dart,
    });
    piece.darts = darts.collect();
    moved
}

/// Against the clock the inside lies to the left.
pub(super) fn inwards(way: Vec2) -> Vec2 {
    Vec2::new(-way.y, way.x)
}

/// An edge moved inwards by so much at every place along it. What is a corner of a neckline stays one; any other edge runs smooth.
fn beside(piece: &Piece, n: usize, by: impl Fn(f64) -> f64) -> Vec<CubicBez> {
    let edge = &piece.edges[n];
    let mut moved: Option<Edge> = None;
    let mut before = 0.0;
    for run in runs(piece, edge) {
        let own = Edge::new(edge.name, moved_run(&run, |along| by(before + along)));
        moved = Some(match moved {
            Some(moved) => corners::joined(moved, own, by(before).abs()),
            None => own,
        });
        before += run.length();
    }
    moved.map_or_else(Vec::new, |moved| moved.curves)
}

/// The parts of a neckline between its corners. Where a dart opens there is none once it is closed, and what is shorter than a step is none of its own.
fn runs(piece: &Piece, edge: &Edge) -> Vec<Edge> {
    let is_mouth =
        |at: Point| piece.darts.iter().flat_map(|dart| dart.mouth).any(|mouth| mouth.distance(at) <= BESIDE);
    let long = |curves: &[CubicBez]| curves.iter().map(|curve| curve.arclen(EXACT)).sum::<f64>();
    let (mut runs, mut from) = (Vec::new(), 0);
    for n in 1..edge.curves.len() {
        let (before, after) = (&edge.curves[from..n], &edge.curves[n..]);
        let turns = edge.name == EdgeName::Neckline
            && is_corner(&edge.curves[n - 1], &edge.curves[n])
            && !is_mouth(edge.curves[n].p0);
        if turns && long(before) > STEP && long(after) > STEP {
            runs.push(Edge::new(edge.name, before.to_vec()));
            from = n;
        }
    }
    runs.push(Edge::new(edge.name, edge.curves[from..].to_vec()));
    runs
}

fn moved_run(edge: &Edge, by: impl Fn(f64) -> f64) -> Vec<CubicBez> {
    let long = edge.length();
    let steps = (long / STEP).ceil().max(1.0) as usize;
    let points: Vec<(Point, f64)> = (0..=steps)
        .map(|n| {
            let along = long * n as f64 / steps as f64;
            let (at, way) = edge.at(along);
            let by = by(along);
            (at + inwards(way) * by, by)
        })
        .collect();
    if points.iter().all(|(_, by)| by.abs() < 1e-9) {
        return edge.curves.clone();
    }
    let points: Vec<Point> = points.into_iter().map(|(p, _)| p).collect();
    smooth(&points)
}

/// A smooth line through points, at each as the parabola through it and its neighbours runs (Catmull and Rom 1974, over the lengths of the chords as Barry
/// and Goldman 1988), as cubics.
pub(super) fn smooth(points: &[Point]) -> Vec<CubicBez> {
    let last = points.len().saturating_sub(1);
    let long: Vec<f64> = points.windows(2).map(|pair| pair[0].distance(pair[1]).max(1e-9)).collect();
    let slope = |n: usize| (points[n + 1] - points[n]) / long[n];
    // Which way it runs at a point: between two chords, or before the first and after the last of two.
    let way = |n: usize| match last {
        0 | 1 => slope(0),
        _ => {
            let [before, after] = if n == 0 { [0, 1] } else { [n.min(last - 1) - 1, n.min(last - 1)] };
            let (a, b) = (long[before], long[after]);
            let bend = (slope(after) - slope(before)) / (a + b);
            match n {
                0 => slope(0) - bend * a,
                n if n == last => slope(after) + bend * b,
                _ => slope(before) + bend * a,
            }
        }
    };
    let curve = |n: usize| {
        let (a, b, third) = (points[n], points[n + 1], long[n] / 3.0);
        CubicBez::new(a, a + way(n) * third, b - way(n + 1) * third, b)
    };
    (0..last).map(curve).collect()
}

/// Moves the first corner of an edge, and what is beside it, as if it had been drawn in one curve or in many: a straight stays one.
fn drag_start(edge: &mut Edge, to: Point) {
    let by = to - edge.start();
    if edge.is_straight() {
        let share = to.distance(edge.end()) / edge.length().max(1e-9);
        edge.notches.iter_mut().for_each(|notch| notch.along *= share);
        edge.curves = vec![straight(to, edge.end())];
        return;
    }
    let long = edge.length();
    let [way, _] = edge.ways();
    let along = way * by.dot(way);
    let across = by - along;
    let over = |by: Vec2, fades: f64| (by.hypot() * fades).max(FADES_OVER).min(long);
    let [short, far] = [over(along, FADES), over(across, SWINGS)];
    let over = short.max(far);
    // What lies beyond is left as it was drawn.
    let (mut near, mut beyond) = (edge.clone(), edge.clone());
    if over < long {
        near.cut_off_end(long - over);
        beyond.cut_off(over);
    } else {
        beyond.curves.clear();
    }
    let left = |share: f64, of: f64| 1.0 - fading((share * over / of).min(1.0));
    displace(&mut near, |share| along * left(share, short) + across * left(share, far));
    let (is, share) = (near.length(), near.length() / over);
    edge.notches.iter_mut().for_each(|notch| {
        notch.along = if notch.along < over { notch.along * share } else { notch.along - over + is };
    });
    near.curves.append(&mut beyond.curves);
    edge.curves = near.curves;
}

/// From nought to one, level at both ends.
pub(super) const fn fading(share: f64) -> f64 {
    share * share * (3.0 - 2.0 * share)
}

/// Moves an edge at each place by so much, by the share of its length that lies before it. It runs as smoothly as it did.
pub(super) fn displace(edge: &mut Edge, by: impl Fn(f64) -> Vec2) {
    let (long, mut done) = (edge.length(), 0.0);
    let more = |share: f64| {
        let [before, after] = [(share - SLIGHT).max(0.0), (share + SLIGHT).min(1.0)];
        (by(after) - by(before)) / ((after - before) * long)
    };
    let mut curves = Vec::new();
    for curve in &edge.curves {
        let own = curve.arclen(EXACT);
        let count = (own / FINE).ceil().max(1.0);
        for n in 0..count as usize {
            let part = curve.subsegment(n as f64 / count..(n + 1) as f64 / count);
            let from = (done / long).min(1.0);
            done += part.arclen(EXACT);
            let to = (done / long).min(1.0);
            let [start, end] = [by(from), by(to)];
            curves.push(CubicBez::new(
                part.p0 + start,
                part.p1 + start + more(from) * part.p0.distance(part.p1),
                part.p2 + end - more(to) * part.p3.distance(part.p2),
                part.p3 + end,
            ));
        }
    }
    edge.curves = curves;
    let share = edge.length() / long.max(1e-9);
    edge.notches.iter_mut().for_each(|notch| notch.along *= share);
}

/// Puts an edge where it is moved to; its neighbours go with its corners, and darts that begin on them with them.
pub(super) fn put(piece: &mut Piece, edge: usize, curves: Vec<CubicBez>) {
    let count = piece.edges.len();
    let old_length = piece.edges[edge].length();
    let (before, after) = ((edge + count - 1) % count, (edge + 1) % count);
    piece.edges[edge].curves = curves;
    let (start, end) = (piece.edges[edge].start(), piece.edges[edge].end());
    drag_with_darts(piece, after, |edge| drag_start(edge, end));
    drag_with_darts(piece, before, |edge| {
        let mut turned = edge.clone().turned();
        drag_start(&mut turned, start);
        *edge = turned.turned();
    });
    // Notches keep their place from either end.
    let share = piece.edges[edge].length() / old_length.max(1e-9);
    piece.edges[edge].notches.iter_mut().for_each(|notch| notch.along *= share);
}

/// Drags an edge; the middles of the mouths that lie on it go with it as notches do, and mouths stay as wide.
fn drag_with_darts(piece: &mut Piece, edge: usize, drag: impl FnOnce(&mut Edge)) {
    let own = &mut piece.edges[edge];
    let on = |dart: &&mut PieceDart| dart.other.is_none() && is_on(own, dart);
    let mut darts: Vec<&mut PieceDart> = piece.darts.iter_mut().filter(on).collect();
    let mouths: Vec<[f64; 2]> =
        darts.iter().map(|dart| dart.mouth.map(|end| along_curves(&own.curves, end))).collect();
    let kept = own.notches.len();
    own.notches.extend(mouths.iter().map(|[a, b]| Notch { along: f64::midpoint(*a, *b), level: None }));
    drag(own);
    let middles = own.notches.split_off(kept);
    for ((dart, [a, b]), middle) in darts.iter_mut().zip(mouths).zip(middles) {
        let half = (b - a) / 2.0;
        dart.mouth = [-half, half].map(|by| own.at(middle.along + by).0);
    }
}

/// What is chalked in a try-on is in the file of a piece already.
fn has_in_file(drawn: &DrawnPiece, try_on: Option<Uuid>) -> bool {
    drawn.has_try_on.is_some() && drawn.has_try_on == try_on
}

/// What is pinched out of the neckline comes off the front edge of the shoulder seam: all of it at the neck, and nothing at the tip.
fn pinch_neckline(pieces: &mut [Piece], off: Length) {
    let shoulder = EdgeName::Seam(Seam::ShoulderSeam);
    let is_own = |piece: &&mut Piece| piece.key.face == PieceFace::Front && off != Length::ZERO;
    let mut own: Vec<&mut Piece> = pieces.iter_mut().filter(is_own).collect();
    let edges = own.iter().filter_map(|piece| piece.edge(shoulder));
    let ends: Vec<f64> = edges.flat_map(|edge| [edge.start().x, edge.end().x]).collect();
    let [neck, tip] = [f64::min, f64::max].map(|of| ends.iter().copied().reduce(of).unwrap_or_default());
    for piece in &mut own {
        let Some(n) = piece.edges.iter().position(|edge| edge.name == shoulder) else { continue };
        let edge = piece.edges[n].clone();
        let share = |along: f64| (tip - edge.at(along).0.x) / (tip - neck);
        move_edge(piece, n, |along| off.cm() * 10.0 * share(along));
    }
}

/// How far around a lower edge a place of a piece lies: from the front over the left side, or the outside of a leg or sleeve, to the back, and on.
fn around(pieces: &[Piece], piece: &Piece, x: f64, side: GarmentSide) -> f64 {
    let own = across_face(pieces, piece, Across::Lower)(x);
    let is_front = piece.key.face == PieceFace::Front;
    let part = match piece.key.part {
        // A sleeve begins and ends inside, its back first.
        PiecePart::Sleeve => {
            let out = match piece.key.share {
                PieceShare::Lower => own * BEHIND,
                PieceShare::Upper => BEHIND + own * (1.0 - BEHIND),
                PieceShare::Whole | PieceShare::Centre | PieceShare::Middle | PieceShare::Side => own,
            };
            return 0.75 - out;
        }
        // A leg lies about its crease, from the inside to the outside.
        PiecePart::Leg => return if is_front { own * 0.5 - 0.25 } else { 0.75 - own * 0.5 },
        PiecePart::Body | PiecePart::Bodice | PiecePart::Skirt | PiecePart::Waistband => {
            if is_front {
                own * 0.25
            } else {
                0.5 - own * 0.25
            }
        }
    };
    if side == GarmentSide::Left { part } else { 1.0 - part }
}

/// A hem comes up, or goes down. False where it is taken off elsewhere.
fn move_hem(pieces: &mut [Piece], altered: &AlteredHem<'_>, side: GarmentSide) -> bool {
    let (Some(ring), None) = (altered.ring(side), altered.above) else { return false };
    let is_of = |part: PiecePart| match altered.key() {
        HemEdge::Body => matches!(part, PiecePart::Body | PiecePart::Skirt),
        HemEdge::Leg => part == PiecePart::Leg,
        HemEdge::Sleeve => part == PiecePart::Sleeve,
    };
    let as_it_was = pieces.to_vec();
    let hems = as_it_was.iter().filter(|p| is_of(p.key.part)).filter_map(|p| p.edge(EdgeName::Hem));
    let room = hems.map(Edge::length).fold(f64::INFINITY, f64::min);
    for (piece, own) in pieces.iter_mut().zip(&as_it_was).filter(|(p, _)| is_of(p.key.part)) {
        let Some(n) = piece.edges.iter().position(|edge| edge.name == EdgeName::Hem) else { continue };
        move_hem_in(piece, (n, room), |x| ring.at(around(&as_it_was, own, x, side)).cm() * 10.0);
    }
    true
}

/// Moves a hem inwards, at each place from the middle by so much: the edges beside it are cut off, or go on straight. At its ends it is trued over no more than there
/// is room for on all pieces, so that it comes up alike where two of them are sewn together.
pub(super) fn move_hem_in(piece: &mut Piece, (n, room): (usize, f64), off: impl Fn(f64) -> f64) {
    let hem = piece.edges[n].clone();
    let (start, end) = (off(hem.start().x), off(hem.end().x));
    let by = |along: f64| off(hem.at(along).0.x);
    let moved = beside(piece, n, by);
    let long = hem.length();
    let step = 1.0_f64.min(long / 2.0);
    let slants =
        [(0.0, step), (long, long - step)].map(|(end, inside)| ((by(end) - by(inside)) / step).atan());
    let count = piece.edges.len();
    let (before, after) = ((n + count - 1) % count, (n + 1) % count);
    shorten(&mut piece.edges[after], end);
    let mut edge = piece.edges[before].clone().turned();
    shorten(&mut edge, start);
    piece.edges[before] = edge.turned();
    let (from, to) = (piece.edges[before].end(), piece.edges[after].start());
    piece.edges[n].curves = moved;
    piece.edges[n].set_start(from);
    piece.edges[n].set_end(to);
    for (beside, by) in [before, after].into_iter().zip(slants) {
        if matches!(piece.edges[beside].name, EdgeName::Seam(_)) {
            slant(piece, [n, beside], (room, by));
        }
    }
}

/// Cuts so much off the beginning of an edge, or lets it begin so much before, straight on.
pub(super) fn shorten(edge: &mut Edge, by: f64) {
    if by > 0.0 {
        edge.cut_off(by.min(edge.length() - 1.0));
    } else if by < 0.0 {
        let [way, _] = edge.ways();
        let (from, to) = (edge.start() + way * by, edge.start());
        edge.curves.insert(0, crate::work::straight(from, to));
        edge.notches.iter_mut().for_each(|notch| notch.along -= by);
    }
}

/// How often an edge that comes down unevenly is drawn, to be as long as before to a hundredth of a millimetre.
const TRIES: usize = 3;

/// A length is taken out across, or put in, from the middle in front to the middle behind: what lies above comes down. False where no piece is long enough there.
fn move_trunk(pieces: &mut [Piece], altered: &AlteredTrunk<'_>, tape: Tape) -> bool {
    let sums = altered.sums(tape);
    let (is_above, run) = (altered.key() == TrunkAt::AboveWaist, sums.quarter.cm());
    let below = if is_above { Level::Bust } else { Level::Waist };
    let has_yoke = pieces.iter().any(|piece| piece.key.share == PieceShare::Upper);
    let mut moved = pieces.to_vec();
    let mut done = false;
    for (n, piece) in moved.iter_mut().enumerate() {
        let is_there = match piece.key.part {
            PiecePart::Body => true,
            PiecePart::Bodice => is_above,
            PiecePart::Skirt | PiecePart::Leg => !is_above,
            PiecePart::Sleeve | PiecePart::Waistband => false,
        };
        // Above a yoke seam nothing of it is taken out: a yoke at a waist comes down as the edge does that it is sewn to, one at the shoulders stays.
        let is_yoke = piece.key.share == PieceShare::Upper;
        if !is_there || is_yoke && matches!(piece.key.part, PiecePart::Body | PiecePart::Bodice) {
            continue;
        }
        // A leg lies about its crease, everything else from its middle.
        let edge = if is_yoke { Across::Lower } else { Across::Upper };
        let (across, is_leg) = (across_face(pieces, piece, edge), piece.key.part == PiecePart::Leg);
        let curve: Curve = sums.curve(piece.key.face == PieceFace::Front);
        let out = |x: f64| if is_leg { across(x) } else { x / (run * 10.0) };
        let off = |x: f64| curve.at(out(x).clamp(0.0, 1.0) * run) * 10.0;
        if is_yoke {
            bend(piece, |p| Point::new(p.x, p.y - off(p.x)));
            continue;
        }
        // Drawn out by so much where that is shortest.
        let [a, b] = [curve.at(0.0), curve.at(run)].map(|cm| cm * -10.0);
        let by = if a.min(b).abs() > 1e-9 { a.min(b) } else { a.max(b) };
        let share = |x: f64| if by.abs() > 1e-9 { -off(x) / by } else { 0.0 };
        let Ok(band) = band_below(pieces, n, below) else { return false };
        // At a rise its edge runs at another slant then, yet stays as long as it is: what that takes of it is put in before, towards the side. Beside a yoke, which
        // comes down as it is, the edge is as wide as it was.
        let along = |piece: &Piece| edge_of(piece, edge).map_or(0.0, Edge::length);
        let share_of = |at: f64, [from, to]: [f64; 2]| ((at - from) / (to - from)).clamp(0.0, 1.0);
        let (flat, ends, mut more) = (piece.clone(), ends_of(piece, edge), 0.0);
        for _ in 0..if is_above || has_yoke { 1 } else { TRIES } {
            *piece = flat.clone();
            if more != 0.0 {
                bend(piece, |p| {
                    Point::new(p.x + more * share_of(p.x, ends) * fading(share_of(p.y, band)), p.y)
                });
            }
            // At its new width each place of the edge comes down by what it does at the old one.
            let [from, to] = ends;
            let before = |x: f64| if x > from { from + (x - from) / (1.0 + more / (to - from)) } else { x };
            if draw_out(piece, band, by, Stays::Below, |x| share(before(x))).is_err() {
                return false;
            }
            more += along(&flat) - along(piece);
        }
        done = true;
    }
    pieces.clone_from_slice(&moved);
    done
}
