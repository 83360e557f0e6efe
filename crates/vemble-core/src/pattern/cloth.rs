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
        for piece in &set.pieces {
            let cut = cut_line(piece).bounding_box();
            let on_fold = piece.edge(EdgeName::Fold).is_some();
            // Of one side one, of both sides two.
            let count = if sets.len() > 1 || piece.cut == 1 { 1 } else { 2 };
            let once =
                (sets.len() == 2 && piece.cut == 1 && set.side == Some(GarmentSide::Right)).then_some(0);
            let across = if on_fold { 2.0 * cut.width() } else { cut.width() };
            boxes.extend((0..once.unwrap_or(count)).map(|_| (across, cut.height())));
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
