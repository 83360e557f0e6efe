//! Parts of a piece turned about a point: a dart closed where it is and opened somewhere else, or a slash spread to nothing at its other end.

use super::change::{CannotBe, mm};
use super::mouth::true_mouth;
use super::piece::{EXACT, Edge, Piece, PieceDart, along_curves, is_on, way_of, within};
use crate::garment::Dart;
use crate::length::Measure;
use crate::work::{EdgeName, EdgePlace, Fullness, meet, straight};
use kurbo::{Affine, BezPath, CubicBez, Line, ParamCurveArclen, ParamCurveNearest, Point, Vec2};

/// So near to a corner, or to another cut, nothing is cut, in mm (teaching value: paper tears there).
pub(super) const CLEAR: f64 = 5.0;
/// Nothing is turned further, in radians (teaching value: a third of half a turn, beyond which parts fall on each other).
const MOST: f64 = std::f64::consts::FRAC_PI_3;
/// A point of a dart stays so far from its mouth, in mm (teaching value: what a hand can still press).
const SHORTEST: f64 = 20.0;
/// A slash meets the edge that it opens at no flatter, in radians (teaching value: half a right angle; flatter, paper tears and the edge swings).
const FLATTEST: f64 = std::f64::consts::FRAC_PI_4;
/// What is folded out is found in so many tries: each leaves at most half of what was off.
const TRIES: usize = 24;
/// A slash runs straight into its edge to so many radians (teaching value: an eighth of a right angle, which nobody sees in a line as short).
const ASKEW: f64 = std::f64::consts::FRAC_PI_8 / 2.0;
/// So much of an edge a hand can ease in without a fold (teaching value: a tenth; what is more is gathered).
pub(super) const EASED: f64 = 0.1;
/// An edge is drawn anew so far beside a step, in mm (teaching value: a hand's width).
const STEP: f64 = 50.0;
/// But no further than so many times the step itself, so that the less there is of one, the less is drawn anew (teaching value: a step of 2 mm over all of that).
const SWINGS: f64 = 25.0;
/// Ends so near to each other are one point, in mm.
pub(super) const ONE_POINT: f64 = 0.01;

/// Where the outline is cut, in mm along an edge; what lies between both goes out.
#[derive(Clone, Copy)]
pub(super) struct Cut {
    pub edge: usize,
    pub from: f64,
    to: f64,
}

/// A stretch of an edge between cuts.
struct Stretch {
    edge: usize,
    from: f64,
    to: f64,
    curves: Vec<CubicBez>,
    part: Part,
}

#[derive(Clone, Copy, PartialEq)]
enum Part {
    /// After the first cut, up to the second one.
    One,
    /// After the second cut.
    Other,
    /// Inside a cut.
    Out,
}

/// Turns a dart about its point to another edge; so much of it may be kept. At a hem nothing is sewn: it becomes flare.
pub(super) fn turn_dart(
    piece: &mut Piece,
    dart: Dart,
    to: EdgePlace,
    keep: Option<Measure>,
) -> Result<(), CannotBe> {
    let (n, own, home) = dart_on_edge(piece, dart)?;
    let mouth = along_mouth(&piece.edges[home], &own);
    let first = Cut { edge: home, from: mouth[0], to: mouth[1] };
    let second = cut_at(piece, to)?;
    if second.edge == home && (mouth[0] - CLEAR..mouth[1] + CLEAR).contains(&second.from) {
        return Err(CannotBe::Misses);
    }
    let kept = keep.map_or(0.0, mm);
    if !(0.0..own.takes()).contains(&kept) {
        return Err(CannotBe::TooMuch);
    }
    let pivot = own.point;
    let ends = mouth.map(|along| piece.edges[home].at(along).0);
    let by = angle_at(pivot, ends) - angle_of(pivot, ends, kept);
    let target = piece.edges[second.edge].at(second.from).0;
    slash_lies_inside(piece, Line::new(pivot, target))?;
    piece.darts.remove(n);
    let [kept_mouth, new_mouth] = turn(piece, pivot, [first, second], by, false)?;
    if kept > 0.0 {
        piece.darts.push(PieceDart { mouth: kept_mouth, ..own });
    }
    if to.edge != EdgeName::Hem {
        piece.darts.push(PieceDart { mouth: new_mouth, ..own });
    }
    Ok(())
}

/// Slashes a piece from one place to a hinge at another, and spreads it by so much at the first; by less than nought it is folded out.
pub(super) fn slash(piece: &mut Piece, from: EdgePlace, hinge: EdgePlace, by: f64) -> Result<(), CannotBe> {
    let (cut, hinge) = (cut_at(piece, from)?, cut_at(piece, hinge)?);
    let pivot = piece.edges[hinge.edge].at(hinge.from).0;
    let opens = piece.edges[cut.edge].at(cut.from);
    slash_goes_across(piece, opens, pivot)?;
    let reach = pivot.distance(opens.0);
    if by.abs() > reach {
        return Err(CannotBe::TooMuch);
    }
    if by >= 0.0 {
        let angle = 2.0 * (by / (2.0 * reach)).asin();
        return turn(piece, pivot, [hinge, cut], angle, true).map(drop);
    }
    // What a spread of as much would have put in, measured from the same end. Where the slash runs askew, both ends meet in their middle, and a
    // little more goes out: as much as makes the edge shorter by the figure.
    let edge = piece.edges[cut.edge].clone();
    let long = edge.length();
    let mut out = -by;
    for _ in 0..TRIES {
        let other = away_from(&edge, cut.from, if is_measured_from_start(&edge) { out } else { -out });
        if !(CLEAR..long - CLEAR).contains(&other) {
            return Err(CannotBe::TooMuch);
        }
        let folded = Cut { from: cut.from.min(other), to: cut.from.max(other), ..cut };
        let angle = angle_at(pivot, [folded.from, folded.to].map(|along| edge.at(along).0));
        let mut next = piece.clone();
        turn(&mut next, pivot, [folded, hinge], angle, true)?;
        let off = long - next.edges[cut.edge].length() + by;
        if off.abs() <= ONE_POINT {
            *piece = next;
            return Ok(());
        }
        out -= off;
    }
    Err(CannotBe::TooMuch)
}

/// Makes a dart longer, or shorter: its point goes along its middle, so that its legs stay equal.
pub(super) fn move_point(piece: &mut Piece, dart: Dart, by: f64) -> Result<(), CannotBe> {
    let (n, own, _) = dart_on_edge(piece, dart)?;
    let middle = own.mouth[0].midpoint(own.mouth[1]);
    let way = own.point - middle;
    let long = way.hypot() + by;
    let point = middle + way.normalize() * long;
    if long < SHORTEST || !within(&piece.outline())(point) {
        return Err(CannotBe::TooMuch);
    }
    piece.darts[n].point = point;
    darts_are_apart(piece)
}

/// Moves a dart along its edge, down or outwards; it keeps what it takes, and points as far beyond its mouth as before.
pub(super) fn slide_dart(piece: &mut Piece, dart: Dart, by: f64) -> Result<(), CannotBe> {
    let (n, own, home) = dart_on_edge(piece, dart)?;
    let edge = &piece.edges[home];
    let by = if is_measured_from_start(edge) { by } else { -by };
    let first = along_mouth(edge, &own)[0] + by;
    let mouth = [first, away_from(edge, first, own.takes())];
    if mouth[0] < CLEAR || mouth[1] > edge.length() - CLEAR {
        return Err(CannotBe::TooMuch);
    }
    // Its point goes as far as the middle of its mouth, so that a lowered dart points to a lower place and no other way.
    let [was, is] = [along_mouth(edge, &own), mouth].map(|ends| ends.map(|along| edge.at(along).0));
    let point = own.point + (is[0].midpoint(is[1]) - was[0].midpoint(was[1]));
    if !within(&piece.outline())(point) {
        return Err(CannotBe::TooMuch);
    }
    piece.darts[n] = PieceDart { mouth: is, point, ..own };
    darts_are_apart(piece)
}

/// Moves the point of a dart across, square to its mouth, so that both legs are equally long, and draws its edge smooth over it.
pub(super) fn true_dart(piece: &mut Piece, dart: Dart) -> Result<(), CannotBe> {
    let (n, own, _) = dart_on_edge(piece, dart)?;
    let [a, b] = own.mouth;
    let (middle, along) = (a.midpoint(b), (b - a).normalize());
    let point = own.point - along * (own.point - middle).dot(along);
    if !within(&piece.outline())(point) {
        return Err(CannotBe::TooMuch);
    }
    piece.darts[n].point = point;
    true_mouth(piece, &PieceDart { point, ..own });
    darts_are_apart(piece)
}

/// Leaves a dart unstitched: what it takes is gathered where it begins, or eased in.
pub(super) fn loosen_dart(piece: &mut Piece, dart: Dart, into: Fullness) -> Result<(), CannotBe> {
    let (n, own, home) = dart_on_edge(piece, dart)?;
    if into == Fullness::Ease && own.takes() > piece.sewn(&piece.edges[home]) * EASED {
        return Err(CannotBe::TooFull);
    }
    piece.darts[n].loose = Some(into);
    Ok(())
}

/// A dart that begins on an edge: its place among the darts, itself, and its edge.
fn dart_on_edge(piece: &Piece, dart: Dart) -> Result<(usize, PieceDart, usize), CannotBe> {
    let n = piece.darts.iter().position(|d| d.dart == dart && d.is_turnable());
    let n = n.ok_or(CannotBe::NotThere)?;
    let home = piece.edges.iter().position(|edge| is_on(edge, &piece.darts[n]));
    Ok((n, piece.darts[n], home.ok_or(CannotBe::NotThere)?))
}

/// The place on an edge that lies so far from another as the crow flies: further along it, or back where that is less than nought.
fn away_from(edge: &Edge, along: f64, apart: f64) -> f64 {
    let from = edge.at(along).0;
    let (mut near, mut far) = (0.0, 2.0);
    for _ in 0..60 {
        let middle = f64::midpoint(near, far);
        let is_short = edge.at(along + apart * middle).0.distance(from) < apart.abs();
        if is_short { near = middle } else { far = middle }
    }
    along + apart * far
}

/// Where both ends of its mouth lie along its edge, the first one first.
pub(super) fn along_mouth(edge: &Edge, dart: &PieceDart) -> [f64; 2] {
    let [a, b] = dart.mouth.map(|end| {
        // Where one of its curves begins, exactly there.
        let mut before = 0.0;
        for curve in &edge.curves {
            if curve.p0.distance(end) < ONE_POINT {
                return before;
            }
            before += curve.arclen(EXACT);
        }
        along_curves(&edge.curves, end)
    });
    [a.min(b), a.max(b)]
}

/// Places along an edge are measured from its upper end; where it runs across, or neither end is clearly higher as of a sleeve's cap, from the
/// end nearer the middle, which of a piece that goes all round is the left one.
pub(super) fn is_measured_from_start(edge: &Edge) -> bool {
    let (start, end) = (edge.start(), edge.end());
    let is_level = (start.y - end.y).abs() < edge.length() / 8.0;
    if edge.name.runs_across() || is_level { start.x <= end.x } else { start.y > end.y }
}

/// Where an edge is cut, clear of its corners.
pub(super) fn cut_at(piece: &Piece, place: EdgePlace) -> Result<Cut, CannotBe> {
    let n = piece.edges.iter().position(|e| e.name == place.edge).ok_or(CannotBe::NotThere)?;
    let edge = &piece.edges[n];
    let (long, at) = (edge.length(), mm(place.at));
    if !(CLEAR..=long - CLEAR).contains(&at) {
        return Err(CannotBe::Misses);
    }
    let along = if is_measured_from_start(edge) { at } else { long - at };
    Ok(Cut { edge: n, from: along, to: along })
}

/// What lies between two directions as seen from a point, against the clock, in radians.
fn angle_at(pivot: Point, [from, to]: [Point; 2]) -> f64 {
    let (from, to) = (from - pivot, to - pivot);
    from.cross(to).atan2(from.dot(to))
}

/// The angle between two legs whose ends lie so far apart.
fn angle_of(pivot: Point, ends: [Point; 2], apart: f64) -> f64 {
    let [a, b] = ends.map(|p| p.distance(pivot));
    ((a * a + b * b - apart * apart) / (2.0 * a * b)).clamp(-1.0, 1.0).acos()
}

/// A slash from a place on an edge, which runs that way there, is long enough, rather square to it, and runs inside the piece to its hinge.
pub(super) fn slash_goes_across(
    piece: &Piece,
    (opens, way): (Point, Vec2),
    hinge: Point,
) -> Result<(), CannotBe> {
    let is_along = way.dot((opens - hinge).normalize()).abs() > FLATTEST.cos();
    if hinge.distance(opens) < 2.0 * CLEAR || is_along {
        return Err(CannotBe::Misses);
    }
    slash_lies_inside(piece, Line::new(hinge, opens))
}

/// A slash runs inside the piece from end to end.
pub(super) fn slash_lies_inside(piece: &Piece, line: Line) -> Result<(), CannotBe> {
    let holds = within(&piece.outline());
    let is_inside = (1..20).all(|n| holds(line.p0.lerp(line.p1, f64::from(n) / 20.0)));
    if is_inside { Ok(()) } else { Err(CannotBe::Misses) }
}

pub(super) fn legs(dart: &PieceDart) -> impl Iterator<Item = Line> {
    let points = [dart.loose.is_none().then_some(dart.point), dart.other].into_iter().flatten();
    points.flat_map(|point| dart.mouth.map(|end| Line::new(end, point)))
}

fn darts_are_apart(piece: &Piece) -> Result<(), CannotBe> {
    let darts = &piece.darts;
    let is_met = |n: usize| {
        let others = darts[n + 1..].iter().flat_map(legs);
        others.into_iter().any(|other| legs(&darts[n]).any(|own| meet(own, other)))
    };
    if (0..darts.len()).any(is_met) { Err(CannotBe::ThroughDart) } else { Ok(()) }
}

/// Cuts a piece from one cut to the pivot and on to the other, and turns its two parts so that the first cut closes by an angle and the second
/// opens by it: the part with the middle stays. Gives what is open at both cuts afterwards.
fn turn(
    piece: &mut Piece,
    pivot: Point,
    cuts: [Cut; 2],
    by: f64,
    is_slash: bool,
) -> Result<[[Point; 2]; 2], CannotBe> {
    if by.abs() > MOST {
        return Err(CannotBe::TooMuch);
    }
    let [first, second] = cuts;
    let ends = cuts.map(|cut| [cut.from, cut.to].map(|along| piece.edges[cut.edge].at(along).0));
    let slashes = ends.map(|[end, _]| Line::new(pivot, end));
    let is_in_mouth = |dart: &PieceDart, cut: &Cut| {
        let edge = &piece.edges[cut.edge];
        let [from, to] = along_mouth(edge, dart);
        dart.other.is_none() && is_on(edge, dart) && cut.to > from - CLEAR && cut.from < to + CLEAR
    };
    let in_mouth = piece.darts.iter().any(|dart| cuts.iter().any(|cut| is_in_mouth(dart, cut)));
    if in_mouth || piece.darts.iter().flat_map(legs).any(|leg| slashes.iter().any(|slash| meet(leg, *slash)))
    {
        return Err(CannotBe::ThroughDart);
    }
    let lengths: Vec<f64> = piece.edges.iter().map(Edge::length).collect();
    let whole: f64 = lengths.iter().sum();
    // How far along the outline a place lies after the first cut.
    let after = |edge: usize, along: f64| {
        let before = |n: usize| lengths[..n].iter().sum::<f64>();
        (before(edge) + along - before(first.edge) - first.to).rem_euclid(whole)
    };
    let part_of = |place: f64| match place {
        p if p < after(second.edge, second.from) => Part::One,
        p if p < after(second.edge, second.to) => Part::Out,
        p if p < whole - (first.to - first.from) => Part::Other,
        _ => Part::Out,
    };
    let mut stretches: Vec<Stretch> = Vec::new();
    for (n, edge) in piece.edges.iter().enumerate() {
        let on = cuts.iter().filter(|cut| cut.edge == n).flat_map(|cut| [cut.from, cut.to]);
        let mut places: Vec<f64> = on.chain([0.0, lengths[n]]).collect();
        places.sort_by(f64::total_cmp);
        for ends in places.windows(2).filter(|ends| ends[1] - ends[0] > EXACT) {
            let mut part = edge.clone();
            part.cut_off_end(lengths[n] - ends[1]);
            part.cut_off(ends[0]);
            let (from, to) = (ends[0], ends[1]);
            let of = part_of(after(n, f64::midpoint(from, to)));
            stretches.push(Stretch { edge: n, from, to, curves: part.curves, part: of });
        }
    }
    let middle = Point::new(piece.bounds().x0, piece.bounds().center().y);
    let far = |s: &Stretch| {
        s.curves.iter().map(|c| c.nearest(middle, 1e-3).distance_sq).fold(f64::INFINITY, f64::min)
    };
    let stays = stretches.iter().filter(|s| s.part != Part::Out).min_by(|a, b| far(a).total_cmp(&far(b)));
    let stays = stays.map_or(Part::Other, |s| s.part);
    let turned = if stays == Part::Other { Part::One } else { Part::Other };
    let angle = if turned == Part::One { -by } else { by };
    let to = |part: Part| if part == turned { Affine::rotate_about(angle, pivot) } else { Affine::IDENTITY };

    let on_first: Vec<bool> = piece
        .darts
        .iter()
        .map(|dart| dart.other.is_none() && is_on(&piece.edges[first.edge], dart))
        .collect();
    let holds = within(&region(&stretches, pivot, after));
    for dart in &mut piece.darts {
        let mouth = dart.mouth[0].midpoint(dart.mouth[1]);
        let is_one = holds(mouth.lerp(dart.point, 0.1));
        let to = to(if is_one { Part::One } else { Part::Other });
        dart.mouth = dart.mouth.map(|p| to * p);
        dart.point = to * dart.point;
        dart.other = dart.other.map(|p| to * p);
    }
    for drill in &mut piece.drills {
        let is_one = holds(*drill);
        *drill = to(if is_one { Part::One } else { Part::Other }) * *drill;
    }
    // Where legs differ that close, something is left between them.
    let [one, other] = ends[0].map(|end| end.distance(pivot));
    let closed = (one - other).abs() + ONE_POINT;
    for (n, edge) in piece.edges.iter_mut().enumerate() {
        let old = std::mem::take(&mut edge.notches);
        edge.curves.clear();
        for stretch in stretches.iter().filter(|s| s.edge == n && s.part != Part::Out) {
            let mut curves: Vec<CubicBez> = stretch.curves.iter().map(|c| to(stretch.part) * *c).collect();
            let is_closing = n == first.edge && stretch.from == first.to;
            let mut skipped = 0.0;
            if let Some((last, next)) = edge.curves.last().copied().zip(curves.first().copied()) {
                match last.p3.distance(next.p0) {
                    gap if gap <= ONE_POINT => curves[0].p0 = last.p3,
                    // Drawn smooth over the step: legs that differ and are closed, and a hem that opens askew, to which nothing is sewn.
                    gap if is_closing && gap <= closed || !is_slash && edge.name == EdgeName::Hem => {
                        let mut rest = Edge::new(edge.name, curves);
                        // But not past the mouth of another dart.
                        let ends: Vec<Point> = piece
                            .darts
                            .iter()
                            .filter(|dart| dart.other.is_none())
                            .flat_map(|dart| dart.mouth)
                            .collect();
                        let runs = [edge.clone().turned(), rest.clone()].map(|part| {
                            let on =
                                ends.iter().filter(|end| part.nearest(**end).distance(**end) < ONE_POINT);
                            let step = STEP.min(gap * SWINGS);
                            let room = on.map(|end| along_curves(&part.curves, *end)).fold(step, f64::min);
                            room.min(part.length() * 0.4)
                        });
                        let notches = std::mem::take(&mut edge.notches);
                        edge.cut_off_end(runs[0]);
                        edge.notches = notches;
                        rest.cut_off(runs[1]);
                        skipped = runs[1];
                        let [leaves, comes] = [edge.ways()[1], rest.ways()[0]];
                        edge.curves.push(blended([edge.end(), rest.start()], [leaves, comes]));
                        curves = rest.curves;
                    }
                    _ if is_slash => edge.curves.push(filled(&last, &next)),
                    _ => edge.curves.push(straight(last.p3, next.p0)),
                }
            }
            let done = edge.length() - skipped;
            let within =
                |along: f64| along >= stretch.from && (along < stretch.to || stretch.to >= lengths[n]);
            edge.notches.extend(old.iter().filter(|notch| within(notch.along)).map(|notch| {
                let along = done + notch.along - stretch.from;
                super::piece::Notch { along, ..*notch }
            }));
            edge.curves.extend(curves);
        }
    }
    // What began on the edge that was drawn anew begins on it again.
    let edge = &piece.edges[first.edge];
    for (dart, _) in piece.darts.iter_mut().zip(on_first).filter(|(_, is_on)| *is_on) {
        dart.mouth = dart.mouth.map(|p| edge.at(along_curves(&edge.curves, p)).0);
    }
    darts_are_apart(piece)?;
    // The outline comes to the first cut with the other part, and to the second with the one.
    let [[a, b], [c, d]] = ends;
    Ok([[to(Part::Other) * a, to(Part::One) * b], [to(Part::One) * c, to(Part::Other) * d]])
}

/// What lies between the outline of the one part and the pivot.
fn region(stretches: &[Stretch], pivot: Point, after: impl Fn(usize, f64) -> f64) -> BezPath {
    let mut own: Vec<&Stretch> = stretches.iter().filter(|s| s.part == Part::One).collect();
    let middle = |s: &Stretch| after(s.edge, f64::midpoint(s.from, s.to));
    own.sort_by(|a, b| middle(a).total_cmp(&middle(b)));
    let mut path = BezPath::new();
    path.move_to(pivot);
    for curve in own.iter().flat_map(|s| &s.curves) {
        path.line_to(curve.p0);
        path.curve_to(curve.p1, curve.p2, curve.p3);
    }
    path.close_path();
    path
}

/// From the end of one curve to the beginning of another: without a corner at either, or straight where the slash ran so askew to its edge that
/// there would be a swing.
pub(super) fn filled(last: &CubicBez, next: &CubicBez) -> CubicBez {
    let (from, to) = (last.p3, next.p0);
    let across = to - from;
    let [leaves, comes] = [way_of(last, 1.0), way_of(next, 0.0)];
    if [leaves, comes].iter().any(|way| way.dot(across) < across.hypot() * ASKEW.cos()) {
        return straight(from, to);
    }
    blended([from, to], [leaves, comes])
}

/// From one point to another, as an edge leaves the one and comes to the other.
pub(super) fn blended([from, to]: [Point; 2], [leaves, comes]: [Vec2; 2]) -> CubicBez {
    let third = from.distance(to) / 3.0;
    CubicBez::new(from, from + leaves * third, to - comes * third, to)
}
