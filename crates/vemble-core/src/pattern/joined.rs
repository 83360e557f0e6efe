//! Pieces joined along the seam between them, and a middle laid on the fold.

use super::change::CannotBe;
use super::panels::rank;
use super::part::put_grain;
use super::piece::{Edge, Piece, PieceDart, is_on};
use super::truing::DIFFER;
use super::turn::{ONE_POINT, filled};
use crate::garment::{Dart, Seam};
use crate::place::Level;
use crate::work::{EdgeName, PieceFace, PieceKey, PieceShare, straight};
use kurbo::{Affine, Point, Vec2};

/// Edges that are joined are looked at in so many places.
const PLACES: usize = 96;
/// They are laid along each other in so many tries; that a joined piece is as wide as both were says that they are enough.
const TRIES: usize = 6;
/// What is no less of the widest place than such a share of it is as good as the widest.
const NEARLY: f64 = 0.8;
/// A fold is straight to so many mm (teaching value: what pressing straightens).
const STRAIGHT: f64 = 1.0;

/// The piece that a piece may be joined to along a seam, by its place: a panel beside it, or what is above or below a yoke seam.
pub(super) fn joined_to(pieces: &[Piece], piece: &Piece, seam: Seam) -> Option<usize> {
    let is_beside = match seam {
        Seam::PrincessFront | Seam::PrincessBack | Seam::PanelFront | Seam::PanelBack => true,
        Seam::YokeSeam | Seam::SleeveBackSeam => true,
        Seam::SideSeam | Seam::Outseam | Seam::Inseam | Seam::SeatSeam | Seam::FrontRise => false,
        Seam::CentreFront | Seam::CentreBack | Seam::ShoulderSeam | Seam::ArmholeSeam => false,
        Seam::SleeveSeam | Seam::WaistSeam | Seam::NeckSeam => false,
    };
    let (key, name) = (piece.key, EdgeName::Seam(seam));
    let is_other = |other: &Piece| {
        other.key != key && PieceKey { share: key.share, ..other.key } == key && other.edge(name).is_some()
    };
    pieces.iter().position(is_other).filter(|_| is_beside)
}

/// A seam that lies in the middle of the body, and straight: one that may be laid on a fold.
pub(super) const fn lies_in_middle(seam: Seam) -> bool {
    matches!(seam, Seam::CentreFront | Seam::CentreBack)
}

/// Joins a piece to the one that is sewn to it. Both edges are laid along each other so that they touch and nowhere run over each other, with as
/// little between them as can be; what lies between them is taken by darts, or at a hem becomes flare.
pub(super) fn join_pieces(pieces: &mut Vec<Piece>, own: usize, seam: Seam) -> Result<(), CannotBe> {
    let name = EdgeName::Seam(seam);
    if pieces[own].edge(name).is_none() {
        return Err(CannotBe::NotThere);
    }
    let other = joined_to(pieces, &pieces[own], seam).ok_or(CannotBe::NotBeside)?;
    // What is nearer the middle stays where it is.
    let is_nearer = rank(pieces[own].key.share) <= rank(pieces[other].key.share);
    let (kept, other) = if is_nearer { (own, other) } else { (other, own) };
    let has_middle = [kept, other].iter().any(|n| pieces[*n].key.share == PieceShare::Middle);
    let has_side = [kept, other].iter().any(|n| pieces[*n].key.share == PieceShare::Side);
    let share = match (has_middle, has_side) {
        (true, false) => PieceShare::Centre,
        (true, true) => PieceShare::Side,
        (false, _) => PieceShare::Whole,
    };
    let mut joined = joined(&pieces[kept], &pieces[other], name)?;
    joined.key.share = share;
    let is_straight = joined.edges.iter().filter(|e| e.name == EdgeName::Fold).all(is_straight_edge);
    if !is_straight {
        return Err(CannotBe::NotStraight);
    }
    pieces[kept.min(other)] = joined;
    pieces.remove(kept.max(other));
    Ok(())
}

fn is_straight_edge(edge: &Edge) -> bool {
    let chord = kurbo::Line::new(edge.start(), edge.end());
    let off = |p: Point| kurbo::ParamCurveNearest::nearest(&chord, p, 1e-6).distance_sq;
    let long = edge.length();
    (0..=PLACES).all(|n| off(edge.at(long * n as f64 / PLACES as f64).0) <= STRAIGHT * STRAIGHT)
}

/// Two pieces as one.
fn joined(kept: &Piece, other: &Piece, name: EdgeName) -> Result<Piece, CannotBe> {
    let at = |piece: &Piece| piece.edges.iter().position(|edge| edge.name == name);
    let (Some(own), Some(beside)) = (at(kept), at(other)) else { return Err(CannotBe::NotThere) };
    let (edge, next) = (&kept.edges[own], &other.edges[beside]);
    let begins_there =
        |piece: &Piece, edge: &Edge| piece.darts.iter().any(|d| d.other.is_none() && is_on(edge, d));
    if begins_there(kept, edge) || begins_there(other, next) {
        return Err(CannotBe::ThroughDart);
    }
    let [long, beside_long] = [edge.length(), next.length()];
    if (long - beside_long).abs() > DIFFER {
        return Err(CannotBe::Unequal);
    }
    let share = |n: usize| n as f64 / PLACES as f64;
    let points: Vec<[Point; 2]> = (0..=PLACES)
        .map(|n| [edge.at(long * share(n)).0, next.at(beside_long * (1.0 - share(n))).0])
        .collect();
    let (place, touch) = laid_along(&points);
    let points: Vec<[Point; 2]> = points.iter().map(|[p, q]| [*p, place * *q]).collect();
    let mut moved = other.clone();
    moved.lay_as_is(place);

    let rest = |piece: &Piece, n: usize| -> Vec<Edge> {
        piece.edges[n + 1..].iter().chain(&piece.edges[..n]).cloned().collect()
    };
    let mut edges = rest(kept, own);
    let mut darts = [&kept.darts[..], &moved.darts[..]].concat();
    let drills = [&kept.drills[..], &moved.drills[..]].concat();
    // Its edge begins where the one beside it ends.
    let first = open_at(&mut edges, rest(&moved, beside));
    let last = close_at(&mut edges);
    for (is_open, from, to) in [(first, 0, touch[0]), (last, PLACES, touch[1])] {
        let mouth = points[from];
        if is_open {
            let on = edges.iter().find(|edge| is_on(edge, &mouth_only(mouth))).map(|edge| edge.name);
            let dart = named(kept.key.face, on, &darts)?;
            darts.push(PieceDart {
                dart,
                mouth,
                point: end_of(&points, [from, to], &kept.levels),
                other: None,
                loose: None,
            });
        }
    }
    let between = between(&points, touch, &kept.levels);
    if let Some((mouth, ends)) = between {
        let dart = match kept.key.face {
            PieceFace::Back => Dart::BackFishEye,
            PieceFace::Front | PieceFace::Round => Dart::FrontFishEye,
        };
        if darts.iter().any(|d| d.dart == dart) {
            return Err(CannotBe::NoName);
        }
        let [below, point] = if ends[0].y < ends[1].y { ends } else { [ends[1], ends[0]] };
        darts.push(PieceDart { dart, mouth, point, other: Some(below), loose: None });
    }
    // A sleeve is sewn to itself again.
    for n in 0..edges.len() {
        let name = edges[n].name;
        edges[n].second |= edges[..n].iter().any(|edge| edge.name == name);
    }
    let cut = if edges.iter().any(|edge| edge.name == EdgeName::Fold) { 1 } else { kept.cut };
    let mut piece = Piece { edges, darts, drills, cut, ..kept.clone() };
    put_grain(&mut piece);
    // Its legs are straight: at every level it takes what lay between.
    let wide = |piece: &Piece, of: Level| {
        piece.levels.iter().find(|(level, _)| *level == of).and_then(|(_, y)| piece.across(*y))
    };
    let differs = |of: Level| Some((wide(&piece, of)? - wide(kept, of)? - wide(other, of)?).abs() > DIFFER);
    if between.is_some() && kept.levels.iter().any(|(level, _)| differs(*level) == Some(true)) {
        return Err(CannotBe::NotOneDart);
    }
    Ok(piece)
}

/// What lies between both edges where they do not touch, as a fish-eye dart: its widest place, and its points. Nothing where a hand
/// eases it in.
fn between(
    points: &[[Point; 2]],
    touch: [usize; 2],
    levels: &[(Level, f64)],
) -> Option<([Point; 2], [Point; 2])> {
    let gap = |n: usize| points[n][0].distance(points[n][1]);
    let most = |of: &dyn Fn(&usize) -> bool| {
        (touch[0]..=touch[1]).filter(of).max_by(|a, b| gap(*a).total_cmp(&gap(*b)))
    };
    let widest = most(&|_| true)?;
    // What goes round is measured at a level: it is widest there, where it nearly is.
    let widest =
        most(&|n| is_level(points, levels, *n)).filter(|n| gap(*n) > NEARLY * gap(widest)).unwrap_or(widest);
    let deep = gap(widest);
    if deep <= DIFFER {
        return None;
    }
    Some((points[widest], touch.map(|to| end_of(points, [widest, to], levels))))
}

/// Whether a level passes between a place and the next one.
fn is_level(points: &[[Point; 2]], levels: &[(Level, f64)], n: usize) -> bool {
    let Some([a, b]) = points.get(n..n + 2).map(|pair| [pair[0][0].y, pair[1][0].y]) else { return false };
    levels.iter().any(|(_, y)| (a.min(b)..a.max(b)).contains(y))
}

/// Where a dart ends that is widest at one place, towards another where both edges touch. Its legs are straight where the edges were curved, so it ends
/// where it takes as much at the next level as was between them there; where there is no level, so that it takes as much altogether.
fn end_of(points: &[[Point; 2]], [widest, to]: [usize; 2], levels: &[(Level, f64)]) -> Point {
    let gap = |n: usize| points[n][0].distance(points[n][1]);
    let middle = |n: usize| points[n][0].midpoint(points[n][1]);
    let deep = gap(widest);
    let is_level = |n: usize| is_level(points, levels, n);
    let away: Vec<usize> =
        if to < widest { (to..widest).rev().collect() } else { (widest + 1..=to).collect() };
    let far = |n: usize| middle(n).distance(middle(widest));
    let whole = far(to);
    let at_level = away.iter().filter(|n| **n > 0 && **n < PLACES && (is_level(**n) || is_level(**n - 1)));
    // Not the level that it is widest at.
    let at_level = at_level.copied().find(|n| gap(*n) < deep * NEARLY);
    let long = match at_level {
        Some(n) => far(n) / (1.0 - gap(n) / deep),
        None => {
            let taken = away
                .windows(2)
                .map(|pair| (gap(pair[0]) + gap(pair[1])) / 2.0 * middle(pair[0]).distance(middle(pair[1])));
            2.0 * taken.sum::<f64>() / deep
        }
    };
    let long = long.min(whole);
    let beyond = away.iter().copied().find(|n| far(*n) >= long).unwrap_or(to);
    let before = if beyond < widest { beyond + 1 } else { beyond - 1 };
    let [near, next] = [far(before), far(beyond)];
    middle(before).lerp(middle(beyond), ((long - near) / (next - near).max(1e-9)).clamp(0.0, 1.0))
}

const fn mouth_only(mouth: [Point; 2]) -> PieceDart {
    PieceDart { dart: Dart::Bust, mouth, point: mouth[0], other: None, loose: None }
}

/// Where a piece is laid so that its points lie along those of the other: it touches them in two places and lies beside them in all others, with
/// least between them altogether. Those are the two between which the lower hull of what is between them passes its middle.
fn laid_along(points: &[[Point; 2]]) -> (Affine, [usize; 2]) {
    let ([first, there], [last, other]) = (points[0], points[points.len() - 1]);
    let (along, beside) = (last - first, other - there);
    let turn = beside.cross(along).atan2(beside.dot(along));
    let mut place =
        Affine::translate(first.to_vec2()) * Affine::rotate(turn) * Affine::translate(-there.to_vec2());
    let along = along.normalize();
    // Against the clock the other piece lies to the right.
    let out = Vec2::new(along.y, -along.x);
    let mut touch = [0, points.len() - 1];
    for _ in 0..TRIES {
        let gaps: Vec<(f64, f64)> =
            points.iter().map(|[p, q]| ((*p - first).dot(along), (place * *q - *p).dot(out))).collect();
        touch = lowest(&gaps);
        let [(from, gap), (to, other_gap)] = touch.map(|n| gaps[n]);
        let leans = (other_gap - gap) / (to - from);
        let at = points[touch[0]][0];
        let onto = at - place * points[touch[0]][1];
        place = Affine::rotate_about(leans.atan(), at) * Affine::translate(onto) * place;
    }
    (place, touch)
}

/// The two points of a lower hull between which it passes the middle of their places.
fn lowest(points: &[(f64, f64)]) -> [usize; 2] {
    let mut hull: Vec<usize> = Vec::new();
    for n in 0..points.len() {
        while let [.., a, b] = hull[..] {
            let ((ax, ay), (bx, by), (x, y)) = (points[a], points[b], points[n]);
            // Within rounding of a straight it is one: its far ends are kept.
            if (bx - ax) * (y - ay) - (by - ay) * (x - ax) > 1e-6 {
                break;
            }
            hull.pop();
        }
        hull.push(n);
    }
    let middle = points.iter().map(|p| p.0).sum::<f64>() / points.len() as f64;
    let facet = hull.windows(2).find(|pair| points[pair[1]].0 >= middle);
    facet.map_or([0, points.len() - 1], |pair| [pair[0], pair[1]])
}

/// Goes on with the edges of another piece. True where both ends are so far from each other that a dart closes them.
fn open_at(edges: &mut Vec<Edge>, others: Vec<Edge>) -> bool {
    let mut is_open = false;
    for (n, next) in others.into_iter().enumerate() {
        match edges.last_mut().filter(|_| n == 0) {
            Some(last) => match bridge(last, next) {
                (true, next) => {
                    is_open = true;
                    edges.extend(next);
                }
                (false, next) => edges.extend(next),
            },
            None => edges.push(next),
        }
    }
    is_open
}

/// The same where the last edge comes to the first one.
fn close_at(edges: &mut Vec<Edge>) -> bool {
    let first = edges.remove(0);
    let Some(last) = edges.last_mut() else { return false };
    let (is_open, next) = bridge(last, first);
    match next {
        Some(first) => edges.insert(0, first),
        None => edges.rotate_right(1),
    }
    is_open
}

/// From the end of one edge to the beginning of the next, which becomes one with it where both have one name. True where a dart closes what is
/// between; a hem has flare instead.
fn bridge(last: &mut Edge, mut next: Edge) -> (bool, Option<Edge>) {
    let apart = last.end().distance(next.start());
    let is_one = last.name == next.name;
    let is_hem = is_one && last.name == EdgeName::Hem;
    // What a hand eases in comes to one point.
    if apart <= if is_hem { ONE_POINT } else { DIFFER } {
        let middle = last.end().midpoint(next.start());
        last.set_end(middle);
        next.set_start(middle);
    } else if let (Some(from), Some(to), true) = (last.curves.last(), next.curves.first(), is_hem) {
        let curve = filled(from, to);
        last.curves.push(curve);
    } else {
        last.curves.push(straight(last.end(), next.start()));
    }
    let is_open = apart > DIFFER && !is_hem;
    if !is_one {
        return (is_open, Some(next));
    }
    let long = last.length();
    last.notches.extend(next.notches.iter().map(|n| super::piece::Notch { along: long + n.along, ..*n }));
    last.curves.extend(next.curves);
    (is_open, None)
}

/// What a dart is called that begins on an edge: of those that the piece does not have yet.
fn named(face: PieceFace, on: Option<EdgeName>, darts: &[PieceDart]) -> Result<Dart, CannotBe> {
    let is_back = face == PieceFace::Back;
    let names = match (on, is_back) {
        (Some(EdgeName::Waist), false) => [Dart::FrontWaist, Dart::OuterFrontWaist],
        (Some(EdgeName::Waist), true) => [Dart::BackWaist, Dart::OuterBackWaist],
        (_, false) => [Dart::Bust, Dart::FrontWaist],
        (_, true) => [Dart::Shoulder, Dart::BackWaist],
    };
    let is_free = |dart: &Dart| darts.iter().all(|other| other.dart != *dart);
    names.into_iter().find(is_free).ok_or(CannotBe::NoName)
}

/// Lays the middle of a piece on the fold where it was a seam.
pub(super) fn lay_on_fold(piece: &mut Piece, seam: Seam) -> Result<(), CannotBe> {
    let edge = piece.edges.iter_mut().find(|edge| edge.name == EdgeName::Seam(seam));
    let edge = edge.ok_or(CannotBe::NotThere)?;
    if !lies_in_middle(seam) {
        return Err(CannotBe::NotMiddle);
    }
    if !is_straight_edge(edge) {
        return Err(CannotBe::NotStraight);
    }
    let (start, end) = (edge.start(), edge.end());
    *edge = Edge::line(EdgeName::Fold, start, end);
    piece.cut = 1;
    // What lies on the fold lies along the warp.
    let way = if end.y > start.y { end - start } else { start - end };
    piece.grain = [Point::ZERO, Point::ZERO + way];
    put_grain(piece);
    Ok(())
}
