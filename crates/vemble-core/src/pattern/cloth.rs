//! How much cloth the pieces need, and what a border asks of them.

use super::cut_line::cut_line;
use super::lay::Set;
use super::piece::Piece;
use crate::choice::choice;
use crate::fitting::GarmentSide;
use crate::garment::{Collar, Garment, HemTurn, Lined, LongEdge, Seam};
use crate::length::{Length, Tape, Taught};
use crate::told::capital;
use crate::work::{EdgeName, PieceLayer};
use kurbo::{BezPath, ParamCurve, Shape};

choice! {
    /// How pieces may lie on their cloth.
    ClothLies {
        OneWay => "nap or a print: every piece the same way up",
        Either => "plain: a piece may lie upside down",
        Border => "a border along one selvedge, for the hems",
    }
}

/// Cloth is so wide where nobody says otherwise: 140 cm, 55 in (teaching value: most cloth for clothes).
pub(super) const USUAL_WIDTH: Taught = Taught::new(1400, 3520);
/// Cloth is bought by so much: 5 cm, 2 in (teaching value).
const BOUGHT_BY: Taught = Taught::new(50, 128);
/// Pieces lie so far apart on the cloth, in mm.
const APART: f64 = 10.0;
/// A hem lies along a border where it leaves a straight by no more than so many mm (teaching value: what a hem is eased by).
const STRAIGHT: f64 = 3.0;
/// Where two pieces lie beside each other, they are looked at so far apart, in mm.
const LOOKED_AT: f64 = 5.0;

/// What a garment has beside these pieces, in sentences: what is drawn in one with others, and what is not drawn at all, of which the cloth is not counted.
pub(super) fn not_drawn(garment: &Garment, sets: &[Set]) -> Vec<String> {
    let pieces = || sets.iter().flat_map(|set| &set.pieces);
    let has_layer = |layer| pieces().any(|piece| piece.key.layer == layer);
    let (mut in_one, mut missing): (Vec<String>, Vec<String>) = (Vec::new(), Vec::new());
    let yoke = EdgeName::Seam(Seam::YokeSeam);
    if garment.seam(Seam::YokeSeam).is_some() && pieces().all(|piece| piece.edge(yoke).is_none()) {
        in_one.push("the piece above the yoke seam".into());
    }
    let bands = garment.hems.iter().filter(|hem| hem.turn == HemTurn::Band);
    in_one.extend(bands.map(|hem| format!("{} ({})", hem.turn.name(), hem.edge.name())));
    missing.extend(Some(garment.collar()).filter(|c| *c != Collar::None).map(|c| c.name().into()));
    if !has_layer(PieceLayer::Pocket) {
        missing.extend(garment.pockets.iter().map(|pocket| pocket.name().into()));
    }
    let flounce = garment.gathered.iter().filter(|facts| facts.at == LongEdge::Flounce);
    missing.extend(flounce.map(|_| "the flounce at the hem".into()));
    if garment.belt_loops > 0 {
        missing.push(format!("{} belt loops", garment.belt_loops));
    }
    if garment.found.lined.is_some_and(|lined| lined != Lined::No) && !has_layer(PieceLayer::Lining) {
        missing.push("lining".into());
    }
    let told = [
        (in_one, "Drawn in one with what it is sewn to"),
        (missing, "Not among these pieces, nor in that cloth"),
    ];
    let told = told.into_iter().filter(|(all, _)| !all.is_empty() && pieces().next().is_some());
    told.map(|(all, how)| format!("{how}: {}", all.join(", "))).collect()
}

/// What lies on the cloth together: how wide and how tall, and whether its hem lies on a border.
struct Block {
    across: f64,
    tall: f64,
    has_hem: bool,
}

/// Everything that is cut of a layer: what is cut in one is laid with its other half, two of a piece head to foot or each for itself.
fn blocks(sets: &[Set], of: OfLayer, head_to_foot: bool) -> Vec<Block> {
    let mut all = Vec::new();
    for set in sets {
        for (n, piece) in set.pieces.iter().enumerate().filter(|(_, piece)| of.has(piece)) {
            let is_on_fold = piece.edge(EdgeName::Fold).is_some();
            if set.is_cut_already(n) || is_on_fold && set.side == Some(GarmentSide::Right) {
                continue;
            }
            let line = cut_line(piece);
            let cut = line.bounding_box();
            let has_hem = piece.edge(EdgeName::Hem).is_some();
            let half = sets.last().and_then(|set| set.pieces.iter().find(|other| other.key == piece.key));
            let other = half.filter(|_| is_on_fold).map(|half| cut_line(half).bounding_box());
            let (wide, tall) = other.map_or((0.0, 0.0), |half| (half.width(), half.height()));
            let one = Block { across: cut.width() + wide, tall: cut.height().max(tall), has_hem };
            let is_pair = set.side.is_none() && piece.cut > 1;
            match (is_pair, head_to_foot) {
                (true, true) => all.push(Block { across: pair_across(&line), ..one }),
                (true, false) => all.extend([Block { ..one }, one]),
                (false, _) => all.push(one),
            }
        }
    }
    all
}

/// How wide two of a piece are, one of them upside down, when they lie as close as they can; its line is of straights.
pub(super) fn pair_across(line: &BezPath) -> f64 {
    let own = line.bounding_box();
    let steps = (own.height() / LOOKED_AT).ceil().max(1.0);
    let tall = own.height() / steps;
    // How far to the right it reaches at each height.
    let mut right = vec![f64::NEG_INFINITY; steps as usize + 1];
    let at = |y: f64| (y - own.y0) / tall;
    for straight in line.segments() {
        let (a, b) = (straight.start(), straight.end());
        let [from, past] = [at(a.y.min(b.y)).ceil().max(0.0), at(a.y.max(b.y)).floor() + 1.0];
        for (n, most) in right.iter_mut().enumerate().take(past as usize).skip(from as usize) {
            let share = (own.y0 + n as f64 * tall - a.y) / (b.y - a.y);
            let x = if share.is_finite() { a.lerp(b, share).x } else { a.x.max(b.x) };
            *most = most.max(x);
        }
    }
    // Upside down its left lies where its right was, as far from its own middle.
    let near = right.iter().zip(right.iter().rev()).map(|(one, other)| one + other - 2.0 * own.center().x);
    let apart = near.fold(0.0, f64::max) + APART;
    (own.width() + apart).min(2.0 * own.width() + APART)
}

/// How long a cloth so wide they need, in mm, laid in rows, the tallest first. Nothing where one is too wide.
fn in_rows(mut blocks: Vec<Block>, wide: f64) -> Option<f64> {
    blocks.sort_by(|a, b| b.tall.total_cmp(&a.tall));
    let mut rows: Vec<(f64, f64)> = Vec::new();
    for block in blocks {
        match rows.iter_mut().find(|(used, _)| used + APART + block.across <= wide) {
            Some(row) => row.0 += APART + block.across,
            None if block.across > wide => return None,
            None => rows.push((block.across, block.tall)),
        }
    }
    Some(rows.iter().map(|(_, tall)| tall + APART).sum())
}

/// Which pieces are cut from one cloth.
#[derive(Clone, Copy, PartialEq)]
enum OfLayer {
    /// Facings and pockets too: they are cut from what is seen.
    Outer,
    Lining,
}

impl OfLayer {
    fn has(self, piece: &Piece) -> bool {
        (piece.key.layer == PieceLayer::Lining) == (self == Self::Lining)
    }
}

/// How long a cloth they need, and how long a lining of the same width; that has no nap and no border.
pub(super) fn cloth_words(sets: &[Set], width: Length, lies: ClothLies, tape: Tape) -> String {
    let outer = words_of(sets, OfLayer::Outer, width, lies, tape);
    let lining = words_of(sets, OfLayer::Lining, width, ClothLies::Either, tape);
    match lining.is_empty() {
        true => outer,
        false => format!("{outer}. Of lining: {}{}", lining[..1].to_lowercase(), &lining[1..]),
    }
}

/// How long a cloth they need; on a border the hems lie along it one after the other, the grain across the cloth.
fn words_of(sets: &[Set], of: OfLayer, width: Length, lies: ClothLies, tape: Tape) -> String {
    let wide = width.cm() * 10.0;
    let all = blocks(sets, of, false);
    if all.is_empty() {
        return String::new();
    }
    let show_up = |mm: f64| tape.show(Length::from_cm(mm / 10.0).up_to(tape.mark()));
    let (on_border, others): (Vec<Block>, Vec<Block>) =
        all.into_iter().partition(|block| lies == ClothLies::Border && block.has_hem);
    if let Some(block) = on_border.iter().find(|block| block.tall > wide) {
        return format!("A piece is {} from hem to top: more than this cloth is wide", show_up(block.tall));
    }
    let along: f64 = on_border.iter().map(|block| block.across + APART).sum();
    let widest = others.iter().map(|block| block.across).fold(0.0, f64::max);
    let Some(long) = in_rows(others, wide) else {
        return format!("A piece is {} across: wider than this cloth", show_up(widest));
    };
    let pairs = if lies == ClothLies::Either { in_rows(blocks(sets, of, true), wide) } else { None };
    let (long, how) = match (lies, pairs.filter(|pairs| *pairs < long)) {
        (_, Some(pairs)) => (pairs, "pairs head to foot"),
        (ClothLies::Border, None) => (along + long, "hems along the border, the grain across the cloth"),
        (ClothLies::OneWay | ClothLies::Either, None) => (long, "every piece the same way up"),
    };
    let long = tape.show(Length::from_cm(long / 10.0).up_to(BOUGHT_BY.on(tape)));
    format!("About {long} of cloth {} wide, {how}, allowances and all", tape.show(width))
}

/// Hems that do not lie straight along a border, by their pieces: "Skirt, back: its hem leaves a straight by 1.8 cm".
pub(super) fn off_border(pieces: &[Piece], tape: Tape) -> Vec<String> {
    let rise = |piece: &Piece| {
        let hem = piece.edge(EdgeName::Hem)?;
        let (start, end) = (hem.start(), hem.end());
        let way = (end - start).normalize();
        let points =
            hem.curves.iter().flat_map(|c| (0..=8).map(|n| kurbo::ParamCurve::eval(c, f64::from(n) / 8.0)));
        let off = points.map(|p| way.cross(p - start));
        let (least, most) = off.fold((0.0_f64, 0.0_f64), |(a, b), x| (a.min(x), b.max(x)));
        Some(most - least)
    };
    let named = |piece: &Piece| {
        let off = rise(piece).filter(|off| *off > STRAIGHT)?;
        let show = tape.show(Length::from_cm(off / 10.0));
        Some(format!("{}: its hem leaves a straight by {show}", capital(&piece.key.name())))
    };
    pieces.iter().filter_map(named).collect()
}
