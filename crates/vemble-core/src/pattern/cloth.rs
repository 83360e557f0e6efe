//! How much cloth the pieces need.

use super::cut_line::cut_line;
use super::lay::Set;
use crate::fitting::GarmentSide;
use crate::length::{Length, Tape, Taught};
use crate::work::EdgeName;
use kurbo::Shape;

/// Cloth is so wide where nobody says otherwise: 140 cm, 55 in (teaching value: most cloth for clothes).
pub(super) const USUAL_WIDTH: Taught = Taught::new(1400, 3520);
/// Cloth is bought by so much: 5 cm, 2 in (teaching value).
const BOUGHT_BY: Taught = Taught::new(50, 128);
/// Pieces lie so far apart on the cloth, in mm.
const APART: f64 = 10.0;

/// How long a cloth they need: laid in rows, the tallest first, every piece the same way up.
pub(super) fn cloth_words(sets: &[Set], width: Length, tape: Tape) -> String {
    let wide = width.cm() * 10.0;
    let mut boxes: Vec<(f64, f64)> = Vec::new();
    for set in sets {
        for (n, piece) in set.pieces.iter().enumerate() {
            let is_on_fold = piece.edge(EdgeName::Fold).is_some();
            // What is cut in one is laid with its other half.
            if set.is_cut_already(n) || is_on_fold && set.side == Some(GarmentSide::Right) {
                continue;
            }
            let cut = cut_line(piece).bounding_box();
            let other = sets.last().filter(|_| is_on_fold).map(|set| cut_line(&set.pieces[n]).bounding_box());
            let (wide, tall) = other.map_or((0.0, 0.0), |half| (half.width(), half.height()));
            // Of one side one, of both sides two.
            let count = if set.side.is_some() || piece.cut == 1 { 1 } else { 2 };
            boxes.extend((0..count).map(|_| (cut.width() + wide, cut.height().max(tall))));
        }
    }
    if boxes.is_empty() {
        return String::new();
    }
    if let Some((across, _)) = boxes.iter().find(|(across, _)| *across > wide) {
        let needs = tape.show(Length::from_cm(across / 10.0).up_to(tape.mark()));
        return format!("A piece is {needs} across: wider than this cloth");
    }
    boxes.sort_by(|a, b| b.1.total_cmp(&a.1));
    let mut rows: Vec<(f64, f64)> = Vec::new();
    for (across, tall) in boxes {
        match rows.iter_mut().find(|(used, _)| used + APART + across <= wide) {
            Some(row) => row.0 += APART + across,
            None => rows.push((across, tall)),
        }
    }
    let long: f64 = rows.iter().map(|(_, tall)| tall + APART).sum();
    let long = Length::from_cm(long / 10.0).up_to(BOUGHT_BY.on(tape));
    format!(
        "About {} of cloth {} wide, every piece the same way up, allowances and all",
        tape.show(long),
        tape.show(width)
    )
}
