//! What is done to pieces, in words and figures, and why it cannot be.

use super::change::CannotBe;
use super::piece::Edge;
use super::truing::is_mirrored;
use crate::garment::Seam;
use crate::length::{Length, Measure, Tape};
use crate::told::capital;
use crate::work::{
    Eased, EdgeName, EdgePin, EdgePlace, PieceChange, PieceFace, PieceKey, PieceLayer, PiecePart, PieceShare,
};

/// Where places along an edge are measured from. Of a piece that goes all round no end is nearer the middle.
pub(super) fn measured_from(piece: PieceKey, edge: EdgeName) -> &'static str {
    // Of a sleeve in two pieces a cap has an upper end.
    let is_cap = edge == EdgeName::Seam(Seam::ArmholeSeam) && piece.share == PieceShare::Whole;
    match piece.face {
        _ if edge == EdgeName::Inner => "from its left end on paper",
        PieceFace::Round if edge.runs_across() || is_cap => "from its left end on paper",
        PieceFace::Front | PieceFace::Back if edge.runs_across() => "from the middle",
        PieceFace::Front | PieceFace::Back | PieceFace::Round => "from its upper end",
    }
}

/// What of an edge is gathered or eased in: "0.9 cm of it eased in". Nothing where none is.
pub(super) fn eased_words(edge: &Edge, tape: Tape) -> Option<String> {
    let words = |eased: Eased| {
        let by = tape.round(Length::from_cm(eased.by_mm / 10.0));
        (by != Length::ZERO).then(|| format!("{} of it {}", tape.show(by), eased.into.name()))
    };
    edge.eased.and_then(words)
}

/// Words of an edge, and behind them what of it is gathered or eased in.
pub(super) fn with_eased(words: String, edge: &Edge, tape: Tape) -> String {
    match eased_words(edge, tape) {
        Some(eased) => format!("{words}, {eased}"),
        None => words,
    }
}

/// What a piece becomes that is drawn out across the grain: a band is as long as it goes round.
pub(super) const fn wider_words(piece: PieceKey, by: Length) -> &'static str {
    match (piece.part, by.is_negative()) {
        (PiecePart::Waistband, true) => "shorter",
        (PiecePart::Waistband, false) => "longer",
        (_, true) => "narrower",
        (_, false) => "wider",
    }
}

/// An end of an edge.
pub(super) const fn end_words(edge: EdgeName, upper: bool) -> &'static str {
    match (edge, upper) {
        (EdgeName::Seam(Seam::ShoulderSeam), true) => "neck end",
        (EdgeName::Seam(Seam::ShoulderSeam), false) => "outer end",
        (_, true) => "upper end",
        (_, false) => "lower end",
    }
}

pub(super) const fn cannot_words(why: CannotBe) -> &'static str {
    match why {
        CannotBe::NotThere => "there is no such piece, or no such edge of it",
        CannotBe::NoLevel => "that level does not cross the piece",
        CannotBe::TooMuch => "that is more than the piece has there",
        CannotBe::TooFull => "that is more than a hand eases in: gather it",
        CannotBe::Crosses => "its outline would cross itself",
        CannotBe::Misses => {
            "the line misses: it ends beside its edge or at a corner, runs along its edge, or leaves the piece"
        }
        CannotBe::ThroughDart => "a dart is in the way: turn it elsewhere first",
        CannotBe::TooLittle => "that is too little to cut or to sew",
        CannotBe::Twice => "there is one already",
        CannotBe::NotOneDart => {
            "both edges bend more than once beside each other: no one dart takes what would be left between them"
        }
        CannotBe::NoName => "there are as many pieces or darts beside each other as can be",
        CannotBe::NotBeside => "only panels beside each other, and a yoke with what is below it, are joined",
        CannotBe::Unequal => "the two edges are not equally long: true them first",
        CannotBe::NotStraight => "what lies on a fold has to be straight",
        CannotBe::NotMiddle => "that is not in the middle of the piece",
        CannotBe::GoesOn => "the shoulder goes on over the piece beside it: join them first",
        CannotBe::TooNear => "two figures along an edge stand at least a finger’s breadth apart",
        CannotBe::TooWide => "an allowance does not fit into the bend of its edge: leave less",
        CannotBe::NotFaced => "that edge is not faced: it is sewn to another, or lies on a fold",
    }
}

/// Of two figures those that do something.
fn said(does: [(Measure, String); 2]) -> String {
    let does = does.into_iter().filter(|(by, _)| by.length != Length::ZERO).map(|(_, words)| words);
    let does: Vec<String> = does.collect();
    if does.is_empty() { "as it is".into() } else { does.join(", ") }
}

/// "Side front 1.0 cm longer below the waist".
pub(super) fn change_words(change: &PieceChange, tape: Tape) -> String {
    let show = |by: Measure| tape.speaking(by.unit).as_typed(Measure { length: by.length.abs(), ..by });
    let unit = |by: Measure| tape.speaking(by.unit).unit_name();
    let than = |by: Measure, more: &str, less: &str| {
        format!("{} {} {}", show(by), unit(by), if by.length.is_negative() { less } else { more })
    };
    // Less than nought as it was typed: it is named, and cannot be.
    let typed = |far: Measure| format!("{} {}", tape.speaking(far.unit).as_typed(far), unit(far));
    let place = |piece: PieceKey, at: EdgePlace| {
        format!("{}, {} {}", at.edge.name(), typed(at.at), measured_from(piece, at.edge))
    };
    match change {
        PieceChange::Length { part, face, below, by } => {
            let which = match face {
                Some(face) => format!("{}, {} only", part.name(), face.name()),
                None if matches!(part, PiecePart::Sleeve | PiecePart::Waistband) => part.name().into(),
                None => format!("{}, front and back", part.name()),
            };
            format!("{} {} below the {}", capital(&which), than(*by, "longer", "shorter"), below.name())
        }
        PieceChange::Width { piece, by } => {
            let wider = wider_words(*piece, by.length);
            format!("{} {} {} {wider}, on the piece", capital(&piece.name()), show(*by), unit(*by))
        }
        PieceChange::Wedge { piece, below, at, by } => format!(
            "{} {} below the {}, from {} to nothing",
            capital(&piece.across().name()),
            than(*by, "opened", "folded out"),
            below.name(),
            at.name()
        ),
        PieceChange::Flare { piece, by } => {
            format!("{} {} at its lower edge", capital(&piece.name()), than(*by, "opened", "closed"))
        }
        PieceChange::Allowance { piece, edge, width } => {
            format!(
                "{}: {} {} allowance at the {}",
                capital(&piece.name()),
                show(*width),
                unit(*width),
                edge.name()
            )
        }
        PieceChange::End { piece, edge, upper, by } => format!(
            "{}: {} {} at its {}",
            capital(&piece.name()),
            edge.name(),
            than(*by, "longer", "shorter"),
            end_words(*edge, *upper)
        ),
        PieceChange::MoveEdge { piece, edge, pins } => {
            let pin = |pin: &EdgePin| match pin.by.length == Length::ZERO {
                true => format!("as it is {} {}", typed(pin.at), measured_from(*piece, *edge)),
                false => format!(
                    "{} {} {}",
                    than(pin.by, "in", "out"),
                    typed(pin.at),
                    measured_from(*piece, *edge)
                ),
            };
            let pins: Vec<String> = pins.iter().map(pin).collect();
            format!("{}: {} moved, per edge: {}", capital(&piece.name()), edge.name(), pins.join("; "))
        }
        PieceChange::Armhole { piece, lower, inwards } => {
            let does = said([
                (*lower, than(*lower, "lower at the underarm", "raised at the underarm")),
                (*inwards, than(*inwards, "further in", "filled up")),
            ]);
            format!("{}: armhole {does}, on the piece", capital(&piece.name()))
        }
        PieceChange::Shoulder { piece, shorter, lower } => {
            let does = said([
                (*shorter, than(*shorter, "shorter at the tip", "longer at the tip")),
                (
                    *lower,
                    than(
                        *lower,
                        "lower at the tip, and the armhole with it",
                        "squarer at the tip, and the armhole with it",
                    ),
                ),
            ]);
            format!("{}: shoulder {does}, on the piece", capital(&piece.name()))
        }
        PieceChange::LooseDart { piece, dart, into } => {
            format!("{}: {} {}, and not stitched", capital(&piece.name()), dart.name(), into.name())
        }
        PieceChange::TurnDart { piece, dart, to, keep } => {
            let becomes = if to.edge == EdgeName::Hem { "made flare at" } else { "turned to" };
            let kept = keep.filter(|kept| kept.length != Length::ZERO);
            let kept = kept
                .map_or_else(String::new, |kept| format!("; {} {} of it are kept", show(kept), unit(kept)));
            format!("{}: {} {becomes} the {}{kept}", capital(&piece.name()), dart.name(), place(*piece, *to))
        }
        PieceChange::DartPoint { piece, dart, by } => {
            format!("{}: {} {}", capital(&piece.name()), dart.name(), than(*by, "longer", "shorter"))
        }
        PieceChange::SlideDart { piece, dart, by } => {
            let than = than(*by, "further down or out", "further up or in");
            format!("{}: {} {than}, along its edge", capital(&piece.name()), dart.name())
        }
        PieceChange::Slash { piece, from, hinge, by } => format!(
            "{}: {} at the {}, to nothing at the {}",
            capital(&piece.name()),
            than(*by, "spread", "folded out"),
            place(*piece, *from),
            place(*piece, *hinge)
        ),
        PieceChange::Eased { piece, edge, by, into } => {
            format!("{}: {} of the {} {}", capital(&piece.name()), typed(*by), edge.name(), into.name())
        }
        PieceChange::Notch { piece, edge, notch, by } => format!(
            "{}: notch {notch} of the {} {} {} further towards its {}",
            capital(&piece.name()),
            edge.name(),
            show(*by),
            unit(*by),
            end_words(*edge, !by.length.is_negative())
        ),
        PieceChange::Drill { piece, from, by } => format!(
            "{}: drill mark {} in from the {}",
            capital(&piece.name()),
            typed(*by),
            place(*piece, *from)
        ),
        PieceChange::TrueCorner { piece, edge, beside } => {
            let how = if is_mirrored(*beside, *edge) { "square to" } else { "smooth across" };
            format!("{}: {} drawn {how} the {}", capital(&piece.name()), edge.name(), beside.name())
        }
        PieceChange::TrueDart { piece, dart } => {
            format!(
                "{}: {} trued, its legs equally long and its edge smooth over it",
                capital(&piece.name()),
                dart.name()
            )
        }
        PieceChange::Neckline { piece, lower, wider } => {
            let does = said([
                (*lower, than(*lower, "lower in the middle", "higher in the middle")),
                (*wider, than(*wider, "wider at the shoulder", "narrower at the shoulder")),
            ]);
            format!("{}: neckline {does}, on the piece", capital(&piece.name()))
        }
        PieceChange::Split { piece, from, to } => {
            let [from, to] = [from, to].map(|at| place(*piece, *at));
            format!("{}: cut in two, from the {from}, to the {to}", capital(&piece.name()))
        }
        PieceChange::Join { piece, seam } => {
            format!("{}: joined to the piece beside it, without the {}", capital(&piece.name()), seam.name())
        }
        PieceChange::OnFold { piece, seam } => {
            format!("{}: on the fold, without the {}", capital(&piece.name()), seam.name())
        }
        PieceChange::Facing { piece, edge, wide } => {
            let made = piece.of(PieceLayer::Facing(*edge));
            format!("{}: made from the {}, {} wide", capital(&made.name()), piece.name(), typed(*wide))
        }
        PieceChange::Lining { piece } => {
            let made = piece.of(PieceLayer::Lining);
            format!("{}: made from the {}", capital(&made.name()), piece.name())
        }
        PieceChange::Pocket { piece, deep, wide } => {
            let wide =
                wide.map_or_else(|| "extended to the middle".into(), |wide| format!("{} wide", typed(wide)));
            format!(
                "{}: {} deep along the side, {wide}",
                capital(&piece.of(PieceLayer::Pocket).name()),
                typed(*deep)
            )
        }
    }
}
