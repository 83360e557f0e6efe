//! What is chalked, at true size, over as many pages as it takes: cut them at the frame and lay them edge to edge.

use super::sheet::{Pen, Sheets};
use super::typeset::Style;
use super::{CardsError, Paper};
use crate::strips::{Laid, StripsError, laid};
use kurbo::{Affine, Rect, Shape};
use vemble_core::change::ChangeKey;
use vemble_core::paper::PaperInk;
use vemble_core::solve::Solved;

/// Points in a millimetre.
const MM: f64 = 72.0 / 25.4;
/// What printers leave free around a tile: mm.
const FREE: f64 = 12.0;

/// The lines of all changes, or of the one with a key, at true size.
///
/// # Errors
/// Where nothing has a line; otherwise what the writer reports.
pub fn strips_pdf(solved: &Solved, key: Option<ChangeKey>, paper: Paper) -> Result<Vec<u8>, StripsError> {
    tiled(&laid(solved, key)?, paper)
}

/// What is laid out, over as many pages as it takes.
///
/// # Errors
/// What the writer reports.
pub fn tiled(Laid { lines, words, bounds, .. }: &Laid, paper: Paper) -> Result<Vec<u8>, StripsError> {
    let (width, height) = paper.size();
    let tile = kurbo::Size::new(f64::from(width) / MM - 2.0 * FREE, f64::from(height) / MM - 2.0 * FREE);
    let count = |whole: f64, one: f64| (whole / one).ceil().max(1.0) as u32;
    let (columns, rows) = (count(bounds.width(), tile.width), count(bounds.height(), tile.height));
    let mut sheets = Sheets::new(paper);
    for row in 0..rows {
        for column in 0..columns {
            let corner = bounds.origin()
                + kurbo::Vec2::new(tile.width * f64::from(column), tile.height * f64::from(row));
            let here = Rect::from_origin_size(corner, tile);
            let near = here.inflate(1.0, 1.0);
            if !lines.iter().any(|(_, path)| touches(path.bounding_box(), near)) {
                continue;
            }
            let title = format!("row {} of {rows}, column {} of {columns}", row + 1, column + 1);
            sheets.begin(&title, 1.0);
            let place =
                Affine::scale(MM) * Affine::translate(-corner.to_vec2() + kurbo::Vec2::new(FREE, FREE));
            sheets.draw(place * here.to_path(0.01), Pen::Rule);
            sheets.clip((place.transform_rect_bbox(here)).to_path(0.01));
            for (ink, path) in lines.iter().filter(|(_, path)| touches(path.bounding_box(), near)) {
                let pen = match ink {
                    Some(PaperInk::Old) => Pen::Old,
                    Some(PaperInk::New) => Pen::New,
                    Some(PaperInk::Cut) => Pen::Cut,
                    Some(PaperInk::Mark) | None => Pen::Outline,
                };
                sheets.draw(place * path.clone(), pen);
            }
            let style = Style::plain(paper.type_size());
            for (at, says) in words.iter().filter(|(at, _)| here.contains(*at)) {
                let at = place * *at;
                let set = sheets.typesetter.set(says, style, None);
                sheets.put_at(set, (at.x as f32, at.y as f32));
            }
            sheets.unclip();
            let set = sheets.typesetter.set(&title, style, None);
            // Between the edge of the paper and the frame.
            let y = (FREE * MM) as f32 * 0.45;
            sheets.put_at(set, ((FREE * MM) as f32, y));
        }
    }
    sheets.finish_as("At true size").map_err(|e: CardsError| StripsError::Write(e.to_string()))
}

/// Two boxes meet, however thin either is.
fn touches(a: Rect, b: Rect) -> bool {
    a.x0 <= b.x1 && b.x0 <= a.x1 && a.y0 <= b.y1 && b.y0 <= a.y1
}
