//! The figures of a garment that is cut from these pieces.

use super::lay::Set;
use super::panels::{from_middle, is_between_panels};
use super::piece::{Edge, Piece, is_on};
use super::unroll::{gathered_edges, unroll};
use crate::body::{Proportions, Wearer};
use crate::garment::{
    DartFacts, Garment, GarmentLevel, GatherHow, GatheredFacts, LongEdge, Round, Run, Seam, Width,
    starting_seam,
};
use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use crate::work::{Eased, EdgeName, Fullness, PieceFace, PiecePart, PieceShare};

/// A garment that would be unrolled to these pieces, with its figures at the marks of a tape: what goes round it, how high its levels lie, how long
/// its seams are, what its darts take. Where left and right differ it has what lies in the middle between them. Of pieces that were drawn elsewhere
/// nobody knows how far their shoulders lie from the middle.
pub(super) fn cut_from_pieces(
    (garment, wearer): (&Garment, &Wearer),
    sets: &[Set],
    is_drawn: bool,
    tape: Tape,
) -> Garment {
    let mut cut = garment.clone();
    // A dart that was turned to a hem is none any more, nor is one that is not stitched.
    let has = |pieces: &[Piece], dart| {
        pieces.iter().flat_map(|piece| &piece.darts).any(|d| d.dart == dart && d.loose.is_none())
    };
    let is_gone =
        |dart| sets.iter().any(|set| has(&set.old, dart)) && !sets.iter().any(|set| has(&set.pieces, dart));
    cut.darts.retain(|facts| !is_gone(facts.dart));
    // One that is new is one of its own.
    let darts = sets.iter().flat_map(|set| set.pieces.iter().map(move |piece| (set, piece)));
    for (set, dart) in darts.flat_map(|(set, piece)| piece.darts.iter().map(move |d| (set, d))) {
        let is_known = cut.darts.iter().any(|facts| facts.dart == dart.dart) || is_gone(dart.dart);
        if !is_known && dart.loose.is_none() {
            let [fold_depth, length, from_centre] = [
                dart.takes() / 2.0,
                dart.long(),
                from_middle(&outer(&set.pieces), dart.dart).unwrap_or_default(),
            ]
            .map(|mm| Measure { length: Length::from_cm(mm / 10.0), unit: tape.unit() });
            let facts =
                DartFacts { dart: dart.dart, name: None, fold_depth, length, from_centre, assumed: true };
            cut.darts.push(facts);
        }
    }
    // So it is with a seam that was left out.
    let is_sewn = |pieces: &[Piece], seam| pieces.iter().any(|p| p.edge(EdgeName::Seam(seam)).is_some());
    let is_left_out = |seam| {
        sets.iter().any(|set| is_sewn(&set.old, seam)) && !sets.iter().any(|set| is_sewn(&set.pieces, seam))
    };
    cut.seams.retain(|facts| !is_left_out(facts.seam));
    // And with one that a piece was cut in two by.
    let body = Proportions::of(wearer);
    let is_new = |seam| {
        sets.iter().any(|set| !is_sewn(&set.old, seam)) && sets.iter().any(|set| is_sewn(&set.pieces, seam))
    };
    for spec in garment.kind.template().may_have {
        if garment.seam(spec.seam).is_none() && is_new(spec.seam) {
            cut.seams.push(starting_seam(garment, &body, spec));
        }
    }
    cut.gathered = gathered_of(&cut, sets, tape);
    // Everything is as much more as these pieces have more than those that the garment is unrolled to as it is.
    // An edge that is gathered is cut at another slant, which is no matter of heights.
    let as_it_is = unroll(&Garment { gathered: cut.gathered.clone(), ..garment.clone() }, wearer, None);
    let wanted = |of: &dyn Fn(&[&Piece]) -> Option<f64>| -> Option<f64> {
        let all: Option<Vec<f64>> = sets.iter().map(|set| of(&outer(&set.pieces))).collect();
        all.and_then(|all| mean(&all))
    };
    let more = |of: &dyn Fn(&[&Piece]) -> Option<f64>| Some(wanted(of)? - of(&outer(&as_it_is))?);
    let add = |to: &mut Measure, mm: f64| to.length = to.length + Length::from_cm(mm / 10.0);
    for facts in &mut cut.seams {
        let of = |pieces: &[&Piece]| length_of(garment, pieces, facts.seam);
        match (more(&of), wanted(&of)) {
            (Some(longer), _) => add(&mut facts.length, longer),
            (None, Some(long)) => facts.length.length = Length::from_cm(long / 10.0),
            (None, None) => {}
        }
    }
    // Neck and shoulders have no notch: what lies above goes with what lies below it.
    let found: Vec<Option<f64>> =
        cut.levels.iter().map(|level| more(&|pieces| height_of(pieces, level.level))).collect();
    let below = |level: &GarmentLevel| {
        let on_same = |other: &GarmentLevel| other.level.is_of_sleeve() == level.level.is_of_sleeve();
        let known = cut.levels.iter().zip(&found).filter(|(other, higher)| {
            higher.is_some() && on_same(other) && other.station.length <= level.station.length
        });
        known.max_by_key(|(other, _)| other.station.length).and_then(|(_, higher)| *higher)
    };
    let higher: Vec<f64> = cut
        .levels
        .iter()
        .zip(&found)
        .map(|(level, higher)| higher.or_else(|| below(level)).unwrap_or(0.0))
        .collect();
    for (level, higher) in cut.levels.iter_mut().zip(higher) {
        let name = level.level;
        if name != Level::Shoulder || !is_drawn {
            let wider = more(&|pieces| round_at(garment, pieces, name)).unwrap_or(0.0);
            match &mut level.width {
                Width::LaidFlat(measure) => add(measure, wider / 2.0),
                Width::Girth(measure) => add(measure, wider),
            }
        }
        add(&mut level.station, higher);
    }
    for facts in &mut cut.darts {
        let dart = facts.dart;
        let of = |pieces: &[&Piece]| pieces.iter().flat_map(|p| &p.darts).find(|d| d.dart == dart).copied();
        let [deep, long] =
            [more(&|pieces| Some(of(pieces)?.takes() / 2.0)), more(&|pieces| Some(of(pieces)?.long()))]
                .map(|more| more.unwrap_or(0.0));
        let out = more(&|pieces| from_middle(pieces, dart)).unwrap_or(0.0);
        add(&mut facts.fold_depth, deep);
        add(&mut facts.length, long);
        add(&mut facts.from_centre, out);
    }
    // At a mark; what is the same there stays as it was measured.
    let settle = |is: &mut Measure, was: Option<Measure>| {
        let same = was.filter(|was| tape.round(is.length) == tape.round(was.length));
        *is = same.unwrap_or_else(|| tape.figure(tape.round(is.length)).measure());
    };
    for (is, was) in cut.levels.iter_mut().zip(&garment.levels) {
        match &mut is.width {
            Width::LaidFlat(measure) | Width::Girth(measure) => settle(measure, Some(was.width.measure())),
        }
        settle(&mut is.station, Some(was.station));
    }
    for is in &mut cut.seams {
        settle(&mut is.length, garment.seam(is.seam).map(|was| was.length));
    }
    for is in &mut cut.darts {
        let was = garment.darts.iter().find(|was| was.dart == is.dart);
        settle(&mut is.fold_depth, was.map(|was| was.fold_depth));
        settle(&mut is.length, was.map(|was| was.length));
        settle(&mut is.from_centre, was.map(|was| was.from_centre));
    }
    cut
}

/// What edges of these pieces are gathered or pleated, at a mark; where sides differ what lies between. What is eased in is not. A flounce is no piece of theirs.
fn gathered_of(garment: &Garment, sets: &[Set], tape: Tape) -> Vec<GatheredFacts> {
    let of = |at: LongEdge| {
        let known = garment.gathered.iter().find(|facts| facts.at == at).copied();
        let times = if at == LongEdge::Waist { 2.0 } else { 1.0 };
        let taken = |set: &Set| -> Vec<Eased> {
            let edges = gathered_edges(&set.pieces, at).into_iter();
            let eased = edges.filter_map(|at| set.pieces[at.piece].edges[at.edge].eased);
            eased.filter(|eased| eased.into != Fullness::Ease).collect()
        };
        let has_it = sets.iter().any(|set| !gathered_edges(&set.pieces, at).is_empty());
        let eased: Vec<Eased> = sets.iter().flat_map(taken).collect();
        let all: f64 = eased.iter().map(|eased| eased.by_mm).sum();
        let by = tape.round(Length::from_cm(all * times / sets.len().max(1) as f64 / 10.0));
        let how = match eased.first().map(|eased| eased.into) {
            Some(Fullness::Pleats) => GatherHow::KnifePleats,
            Some(Fullness::BoxPleats) => GatherHow::BoxPleats,
            Some(Fullness::Gathers | Fullness::Ease) | None => GatherHow::Gathers,
        };
        match has_it {
            true if by == Length::ZERO => None,
            true => {
                let same = known.filter(|facts| tape.round(facts.by.length) == by && facts.how == how);
                same.or(Some(GatheredFacts { at, by: tape.figure(by).measure(), how }))
            }
            false => known,
        }
    };
    LongEdge::ALL.iter().copied().filter_map(of).collect()
}

pub(super) fn outer(pieces: &[Piece]) -> Vec<&Piece> {
    pieces.iter().filter(|piece| piece.key.layer.is_outer()).collect()
}

pub(super) fn mean(all: &[f64]) -> Option<f64> {
    (!all.is_empty()).then(|| all.iter().sum::<f64>() / all.len() as f64)
}

/// All edges of a name together, sewn; nothing where there is none.
fn sewn(pieces: &[&Piece], name: EdgeName) -> Option<f64> {
    let edges = pieces.iter().flat_map(|p| p.edges.iter().filter(move |e| e.name == name).map(|e| p.sewn(e)));
    let all: Vec<f64> = edges.collect();
    (!all.is_empty()).then(|| all.iter().sum())
}

/// What goes round at a level, in mm, as far as pieces have it.
pub(super) fn round_at(garment: &Garment, pieces: &[&Piece], level: Level) -> Option<f64> {
    let is_of = |piece: &&&Piece| {
        level.is_of_sleeve() == (piece.key.part == PiecePart::Sleeve)
            && piece.key.part != PiecePart::Waistband
    };
    let own: Vec<&Piece> = pieces.iter().filter(is_of).copied().collect();
    let half = if level == Level::Neck {
        sewn(&own, EdgeName::Neckline)
    } else if level == Level::Shoulder {
        let shoulders = own.iter().filter_map(|p| p.edge(EdgeName::Seam(Seam::ShoulderSeam)));
        shoulders.map(|edge| edge.start().x.max(edge.end().x)).reduce(f64::max).map(|tip| 2.0 * tip)
    } else if level.is_at_an_edge() {
        sewn(&own, EdgeName::Hem)
    } else {
        let at = |piece: &&Piece| piece.across(piece.levels.iter().find(|(l, _)| *l == level)?.1);
        let across: Vec<f64> = own.iter().filter_map(at).collect();
        // What is sewn to a bodice is as wide there, or is gathered to it.
        let bodice: Vec<&Piece> = own.iter().filter(|p| p.key.part == PiecePart::Bodice).copied().collect();
        match across.is_empty() {
            false => Some(across.iter().sum()),
            true if level == Level::Waist => {
                sewn(if bodice.is_empty() { &own } else { &bodice }, EdgeName::Waist)
            }
            true => None,
        }
    };
    let times = match garment.round(level) {
        Round::Whole => 2.0,
        Round::Leg | Round::Sleeve => 1.0,
    };
    half.map(|half| half * times)
}

/// How high a level lies, in mm: straight up from the middle of a hem, as pieces are unrolled; of a sleeve from its
/// lowest place.
pub(super) fn height_of(pieces: &[&Piece], level: Level) -> Option<f64> {
    if level.is_of_sleeve() {
        let sleeve = pieces.iter().find(|piece| piece.key.part == PiecePart::Sleeve)?;
        let (_, y) = sleeve.levels.iter().find(|(l, _)| *l == level)?;
        return Some(y - sleeve.bounds().y0);
    }
    let on_face = |face: PieceFace| -> Option<f64> {
        // From below up: what is below a yoke, the yoke, a bodice.
        let storey = |piece: &Piece| match (piece.key.part, piece.key.share) {
            (PiecePart::Bodice, _) => 2,
            (_, PieceShare::Upper) => 1,
            _ => 0,
        };
        let sides: Vec<(&Piece, &Edge)> = pieces
            .iter()
            .filter(|p| p.key.face == face)
            .filter_map(|p| Some((*p, p.edges.iter().find(|edge| edge.name.is_side())?)))
            .collect();
        // Up to a place at the side of one storey, without what its darts take.
        let rise = |piece: &Piece, edge: &Edge, to: f64| {
            let own = piece
                .darts
                .iter()
                .filter(|dart| is_on(edge, dart) && dart.mouth[0].y.max(dart.mouth[1].y) <= to);
            let taken: f64 = own.map(|dart| (dart.mouth[0].y - dart.mouth[1].y).abs()).sum();
            let hem = piece.edge(EdgeName::Hem).map(|hem| hem.at(hem.length() / 2.0).0.y);
            to - hem.unwrap_or(edge.start().y.min(edge.end().y)) - taken
        };
        let (mut below, mut is_body) = (0.0, true);
        for n in 0..3 {
            if n == 2
                && level == Level::Waist
                && !sides.is_empty()
                && (!is_body || sides.iter().any(|(p, _)| storey(p) == n))
            {
                return Some(below);
            }
            let Some((piece, edge)) = sides.iter().find(|(piece, _)| storey(piece) == n) else { continue };
            if let Some(notch) = edge.notches.iter().find(|notch| notch.level == Some(level)) {
                return Some(below + rise(piece, edge, edge.at(notch.along).0.y));
            }
            is_body &= piece.key.part == PiecePart::Body;
            below += rise(piece, edge, edge.start().y.max(edge.end().y));
        }
        None
    };
    let both: Vec<f64> = [PieceFace::Front, PieceFace::Back].into_iter().filter_map(on_face).collect();
    mean(&both)
}

/// How long a seam is, in mm: of its edges on both sides of it the middle, from storey to storey.
pub(super) fn length_of(garment: &Garment, pieces: &[&Piece], seam: Seam) -> Option<f64> {
    let name = EdgeName::Seam(seam);
    if seam == Seam::WaistSeam {
        return round_at(garment, pieces, Level::Waist);
    }
    if seam == Seam::ArmholeSeam {
        let body: Vec<&Piece> = pieces.iter().filter(|p| p.key.part != PiecePart::Sleeve).copied().collect();
        return sewn(&body, name);
    }
    if seam.run() == Run::Across {
        let of = |face| pieces.iter().filter(|p| p.key.face == face).copied().collect::<Vec<&Piece>>();
        let faces = [PieceFace::Front, PieceFace::Back].map(|face| sewn(&of(face), name));
        return mean(&faces.into_iter().flatten().collect::<Vec<f64>>());
    }
    // Below a yoke it goes on.
    let goes_on = |part: PiecePart| part != PiecePart::Sleeve && !is_between_panels(seam);
    let of_part = |part: &PiecePart| {
        let own = |face: &PieceFace| {
            let own: Vec<&Piece> =
                pieces.iter().filter(|p| p.key.part == *part && p.key.face == *face).copied().collect();
            match goes_on(*part) {
                true => sewn(&own, name),
                false => mean(
                    &own.iter()
                        .flat_map(|p| p.edges.iter().filter(|e| e.name == name).map(|e| p.sewn(e)))
                        .collect::<Vec<f64>>(),
                ),
            }
        };
        mean(&PieceFace::ALL.iter().filter_map(own).collect::<Vec<f64>>())
    };
    let storeys: Vec<f64> = PiecePart::ALL.iter().filter_map(of_part).collect();
    (!storeys.is_empty()).then(|| storeys.iter().sum())
}
