//! Marks on a worn toile, carried to named edges of its pieces.

use super::change::{CannotBe, apply_where, lines_of, mm};
use super::piece::{Edge, Piece, PieceDart};
use super::turn::{is_measured_from_start, move_point, slash_goes_across, slide_dart};
use crate::garment::{Dart, Seam};
use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use crate::work::{
    EdgeName, EdgePlace, MarkSettled, Marked, OpensAt, Pattern, PieceChange, PieceFace, PieceKey, PiecePart,
    PieceShare, ToileMark,
};

/// What a mark does to pieces.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Carried {
    /// The changes that it becomes, as far as there are edges for them.
    pub changes: Vec<PieceChange>,
    /// Why it is not done, though it was to be now.
    pub cannot: Option<CannotBe>,
}

/// What a mark becomes on these pieces. Nothing where no piece has such an edge.
pub(super) fn changes_of(marked: &Marked, pieces: &[Piece], tape: Tape) -> Vec<PieceChange> {
    // What is made from a piece is made anew from it.
    let pieces: Vec<&Piece> = pieces.iter().filter(|piece| piece.key.layer.is_outer()).collect();
    let by = marked.by;
    let back = Measure { length: -by.length, ..by };
    let has = |piece: &Piece, edge: EdgeName| piece.edge(edge).is_some();
    let is_upper = |key: PieceKey| matches!(key.part, PiecePart::Body | PiecePart::Bodice);
    let is_lower = |key: PieceKey| matches!(key.part, PiecePart::Body | PiecePart::Skirt | PiecePart::Leg);
    let on = |of: &dyn Fn(&Piece) -> bool, change: &dyn Fn(PieceKey) -> PieceChange| -> Vec<PieceChange> {
        pieces.iter().filter(|piece| of(piece)).map(|piece| change(piece.key)).collect()
    };
    let lengths = |level: Level, of: &dyn Fn(PieceKey) -> bool| -> Vec<PieceChange> {
        let mut all: Vec<PieceChange> = Vec::new();
        for piece in pieces.iter().filter(|piece| of(piece.key)) {
            let change =
                PieceChange::Length { part: piece.key.part, face: Some(piece.key.face), below: level, by };
            if !all.contains(&change) {
                all.push(change);
            }
        }
        all
    };
    // What is longer at a lower edge is longer below the lowest line that all of its pieces have: all lines above it stay where they are.
    let at_lower_edge = |part: PiecePart| {
        let own = || pieces.iter().filter(|p| p.key.part == part);
        let high = |level: Level| own().filter_map(move |p| p.levels.iter().find(|(l, _)| *l == level));
        let is_of_all = |level: &Level| own().all(|p| lines_of(p).contains(level));
        let lines = own().next().map(|p| lines_of(p)).unwrap_or_default();
        let y = |level: &Level| high(*level).map(|(_, y)| *y).fold(f64::INFINITY, f64::min);
        let lowest = lines.into_iter().filter(is_of_all).min_by(|a, b| y(a).total_cmp(&y(b)));
        lowest.map(|level| lengths(level, &|key| key.part == part)).unwrap_or_default()
    };
    // Of panels beside each other one wedge goes through all.
    let across_lower = |face: PieceFace, by: Measure| -> Vec<PieceChange> {
        // Of what is cut in two across, through the one that has the line.
        let has_line = |p: &Piece| match p.key.share {
            PieceShare::Upper | PieceShare::Lower => lines_of(p).contains(&Level::Waist),
            PieceShare::Whole | PieceShare::Centre | PieceShare::Middle | PieceShare::Side => true,
        };
        let all = on(&|p| is_lower(p.key) && p.key.face == face && has_line(p), &|piece| {
            PieceChange::Wedge { piece: piece.across(), below: Level::Waist, at: OpensAt::Middle, by }
        });
        all.iter()
            .enumerate()
            .filter(|(n, change)| !all[..*n].contains(change))
            .map(|(_, c)| c.clone())
            .collect()
    };
    let shoulder = EdgeName::Seam(Seam::ShoulderSeam);
    let armhole = EdgeName::Seam(Seam::ArmholeSeam);
    match marked.mark {
        // Where a seam goes down from the shoulder, its tip is on the panel that has the armhole.
        ToileMark::ShoulderTip => on(&|p| is_upper(p.key) && has(p, shoulder) && has(p, armhole), &|piece| {
            PieceChange::End { piece, edge: shoulder, upper: false, by }
        }),
        ToileMark::ArmholeHinge => {
            let own = pieces.iter().filter(|piece| is_upper(piece.key) && has(piece, armhole));
            let sides = own.filter_map(|piece| {
                Some((piece.key, piece.edges.iter().map(|edge| edge.name).find(|name| name.is_side())?))
            });
            sides.map(|(piece, edge)| PieceChange::End { piece, edge, upper: true, by: back }).collect()
        }
        ToileMark::NecklineGape => {
            let is_it =
                |p: &&&Piece| is_upper(p.key) && p.key.face == PieceFace::Front && has(p, EdgeName::Neckline);
            pieces.iter().find(is_it).and_then(|p| taken_out_of_neckline(p, back, tape)).into_iter().collect()
        }
        ToileMark::BustPoint => {
            let upper = pieces.iter().filter(|piece| is_upper(piece.key));
            let darts = upper.flat_map(|piece| piece.darts.iter().map(move |dart| (*piece, dart)));
            let is_of_bust = |dart: &PieceDart| matches!(dart.dart, Dart::Bust | Dart::FrontWaist);
            let own = darts.filter(|(_, dart)| is_of_bust(dart) && dart.is_turnable());
            own.map(|(piece, dart)| point_lower(piece, dart, by, tape)).collect()
        }
        ToileMark::Waist => lengths(Level::Bust, &is_upper),
        ToileMark::Hem => [PiecePart::Body, PiecePart::Skirt, PiecePart::Leg]
            .into_iter()
            .filter(|part| pieces.iter().any(|p| p.key.part == *part && has(p, EdgeName::Hem)))
            .flat_map(at_lower_edge)
            .collect(),
        ToileMark::BalanceFront => across_lower(PieceFace::Front, by),
        ToileMark::BalanceBack => across_lower(PieceFace::Back, back),
        ToileMark::UpperArm => {
            // Of two pieces the upper one is widened: the other stays under the arm.
            let is_it = |p: &Piece| p.key.part == PiecePart::Sleeve && p.key.share != PieceShare::Lower;
            on(&is_it, &|piece| PieceChange::Width { piece, by })
        }
        ToileMark::Wrist => at_lower_edge(PiecePart::Sleeve),
    }
}

/// The point of a dart goes down by so much: at a side the dart slides along it, from above or below it becomes longer or shorter. Where that way leans, it goes
/// by a few marks more, or less.
fn point_lower(piece: &Piece, own: &PieceDart, by: Measure, tape: Tape) -> PieceChange {
    let [across, along] = [own.mouth[1] - own.mouth[0], own.point - own.mouth[0].midpoint(own.mouth[1])];
    let (key, dart, mark) = (piece.key, own.dart, tape.speaking(by.unit).mark());
    let (slides, points_down) = (across.y.abs() > across.x.abs(), along.y < 0.0);
    let further = |marks: i64| {
        let length = by.length + mark * marks;
        Measure { length: if slides || points_down { length } else { -length }, ..by }
    };
    // How far beside its place the point comes to lie.
    let off = |marks: &i64| {
        let mut next = piece.clone();
        let done = match slides {
            true => slide_dart(&mut next, dart, mm(further(*marks))),
            false => move_point(&mut next, dart, mm(further(*marks))),
        };
        let is = next.darts.iter().find(|other| other.dart == dart && done.is_ok());
        is.map_or(f64::INFINITY, |is| (own.point.y - is.point.y - mm(by)).abs())
    };
    // What cannot be is left as it was marked, and refused.
    let nearest = [0, 1, -1, 2, -2].into_iter().min_by(|a, b| off(a).total_cmp(&off(b)));
    let by = further(nearest.filter(|_| off(&0).is_finite()).unwrap_or(0));
    if slides {
        PieceChange::SlideDart { piece: key, dart, by }
    } else {
        PieceChange::DartPoint { piece: key, dart, by }
    }
}

/// What stands off a neckline, taken out of its middle to nothing outside of the shoulder: in the middle of the armhole, or of what a seam that comes down from the
/// shoulder has above the bust, where the slash is rather square to the neckline.
fn taken_out_of_neckline(piece: &Piece, by: Measure, tape: Tape) -> Option<PieceChange> {
    let place = |edge: &Edge, along: f64| {
        let at = if is_measured_from_start(edge) { along } else { edge.length() - along };
        EdgePlace { edge: edge.name, at: tape.figure(Length::from_cm(at / 10.0)).measure() }
    };
    let shoulder = piece.edges.iter().position(|edge| edge.name == EdgeName::Seam(Seam::ShoulderSeam))?;
    let outside = &piece.edges[(shoulder + piece.edges.len() - 1) % piece.edges.len()];
    let at_bust = outside.notches.iter().find(|notch| notch.level == Some(Level::Bust));
    let lower = at_bust.map_or(0.0, |notch| notch.along);
    let to = lower.midpoint(outside.length());
    let neckline = piece.edge(EdgeName::Neckline)?;
    // One that goes far down, as where a front wraps over, is cut nearer to the shoulder, from where the way goes straight over the cloth.
    let shares = [0.5, 0.4, 0.3, 0.2].map(|share| neckline.length() * share);
    let is_straight = |from: &&f64| slash_goes_across(piece, neckline.at(**from), outside.at(to).0).is_ok();
    let from = *shares.iter().find(is_straight).unwrap_or(&shares[0]);
    Some(PieceChange::Slash { piece: piece.key, from: place(neckline, from), hinge: place(outside, to), by })
}

/// Does the marks of a pattern that are settled now to pieces, one after the other: each whole or not at all, none that is of a toile before, and none to a piece
/// that has it already.
pub(super) fn carry_marks(
    pattern: &Pattern,
    pieces: &mut Vec<Piece>,
    has: impl Fn(&Piece, &Marked) -> bool,
    tape: Tape,
) -> Vec<Carried> {
    let mut carry = |marked: &Marked| {
        let changes = changes_of(marked, pieces, tape);
        if marked.settled != Some(MarkSettled::Now) || pattern.is_past(marked) {
            return Carried { changes, cannot: None };
        }
        if changes.is_empty() {
            return Carried { changes, cannot: Some(CannotBe::NotThere) };
        }
        let mut next = pieces.clone();
        let has = |piece: &Piece| has(piece, marked);
        let done = changes.iter().try_for_each(|change| apply_where(&mut next, change, &has));
        if done.is_ok() {
            *pieces = next;
        }
        Carried { changes, cannot: done.err() }
    };
    pattern.marks.iter().map(&mut carry).collect()
}
