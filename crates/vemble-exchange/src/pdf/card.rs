//! A chalk card on paper: title, the small drawing, the figures large, the steps of the hand.

use super::sheet::{Line, MARGIN, Sheets};
use super::typeset::{Style, Words};
use kurbo::{Affine, BezPath, Point};
use vemble_core::card::{Card, Column};
use vemble_core::figure::CardDrawing;
use vemble_core::length::Figure;
use vemble_core::solve::MarkResult;

/// Sizes of type that are tried: smaller ones where they save a page, so that a card does not end with three lines on a second.
const SIZES: [f32; 3] = [1.0, 0.93, 0.86];

/// Puts a card on pages of its own.
pub fn put(sheets: &mut Sheets, card: &Card) {
    put_at_size(sheets, card, SIZES[0]);
    let usual = sheets.pages();
    if usual == 1 {
        return;
    }
    for scale in &SIZES[1..] {
        sheets.discard();
        put_at_size(sheets, card, *scale);
        if sheets.pages() < usual {
            return;
        }
    }
    sheets.discard();
    put_at_size(sheets, card, SIZES[0]);
}

fn put_at_size(sheets: &mut Sheets, card: &Card, scale: f32) {
    sheets.begin(&card.title, scale);
    let size = sheets.size();
    let text = Style::plain(size);
    sheets.paragraph(&card.title, Style::plain(size * 1.65).bold(), 0.0, 0.0);
    sheets.paragraph(&card.garment, text, 0.0, size * 0.6);
    for drawing in &card.drawings {
        draw(sheets, drawing);
    }
    sheets.paragraph(&card.measured, text, 0.0, size * 0.6);
    if !card.marks.is_empty() {
        table(sheets, card);
    }
    for note in &card.notes {
        sheets.paragraph(note, Style::plain(size * 0.88), 0.0, size * 0.3);
    }
    sheets.y += size * 0.6;
    for (index, step) in card.steps.iter().enumerate() {
        item(sheets, &format!("{}.", index + 1), step);
    }
    section(sheets, "Know first", &card.cautions, true);
    section(sheets, "Afterwards it should measure", &card.afterwards, false);
}

fn section(sheets: &mut Sheets, heading: &str, items: &[String], warns: bool) {
    if items.is_empty() {
        return;
    }
    let size = sheets.size();
    sheets.y += size * 0.7;
    // A heading does not stand alone at the foot of a page.
    sheets.make_room(size * 5.0);
    sheets.paragraph(heading, Style::plain(size * 1.15).bold(), 0.0, size * 0.2);
    for text in items {
        match warns {
            true => item(sheets, "!", text),
            false => sheets.paragraph(text, Style::plain(size), 0.0, size * 0.25),
        }
    }
}

/// Words behind a number, or behind a triangle with an exclamation mark.
fn item(sheets: &mut Sheets, sign: &str, text: &str) {
    let size = sheets.size();
    let indent = size * 1.9;
    let words = sheets.typesetter.set(text, Style::plain(size), Some(sheets.width() - indent));
    sheets.make_room(words.height());
    let top = sheets.y;
    let is_warning = sign == "!";
    let sign_style = Style::plain(if is_warning { size * 0.75 } else { size });
    let sign = sheets.typesetter.set(sign, if is_warning { sign_style.bold() } else { sign_style }, None);
    if is_warning {
        let (left, base) = (f64::from(MARGIN), f64::from(top + words.baseline() + size * 0.1));
        let high = f64::from(size);
        let mut triangle = BezPath::new();
        triangle.move_to((left, base));
        triangle.line_to((left + high * 1.15, base));
        triangle.line_to((left + high * 0.575, base - high));
        triangle.close_path();
        sheets.draw(triangle, Line::Outline);
        let x = size * 0.575 - sign.widths().1 / 2.0;
        let y = top + words.baseline() - sign.baseline();
        sheets.put(sign, x, y);
    } else {
        sheets.put(sign, 0.0, top);
    }
    sheets.y += words.height() + size * 0.35;
    sheets.put(words, indent, top);
}

/// Old line dashed, new line solid, cut line in long dashes, the marks as dots.
fn draw(sheets: &mut Sheets, drawing: &CardDrawing) {
    let size = sheets.size();
    let width = sheets.width().min(size * 42.0);
    let scale = f64::from(width) / drawing.width;
    let high = (drawing.height * scale) as f32;
    sheets.make_room(high + size * 1.6);
    let onto = Affine::translate((f64::from(MARGIN), f64::from(sheets.y))) * Affine::scale(scale);
    let lines =
        [(Some(&drawing.old), Line::Old), (drawing.cut.as_ref(), Line::Cut), (Some(&drawing.new), Line::New)];
    for (path, line) in lines {
        if let Some(path) = path.and_then(|d| BezPath::from_svg(d).ok()) {
            sheets.draw(onto * path, line);
        }
    }
    for [x, y] in &drawing.dots {
        sheets.dot(onto * Point::new(*x, *y));
    }
    let y = sheets.y + high;
    let label = Style::plain(size * 0.88);
    let from = sheets.typesetter.set(&drawing.from, label, None);
    let to = sheets.typesetter.set(&drawing.to, label.right(), Some(width));
    sheets.put(from, 0.0, y);
    sheets.put(to, 0.0, y);
    if let Some(of) = &drawing.of {
        let of = sheets.typesetter.set(of, label, None);
        let x = (width - of.widths().1) / 2.0;
        sheets.put(of, x, y);
    }
    sheets.y = y + size * 1.5;
}

/// Below this share of their size figures could not be read at arm's length: then each side has a table of its own.
const LEAST: f32 = 0.75;

/// The figures: as large as the paper allows, both sides beside each other where there is room.
fn table(sheets: &mut Sheets, card: &Card) {
    let all: Vec<&Column> = card.columns.iter().collect();
    if fitting(sheets, card, &all).is_some() {
        return columns(sheets, card, &all);
    }
    let (left, right): (Vec<&Column>, Vec<&Column>) = all.iter().partition(|c| c.shows.is_left());
    for side in [left, right].into_iter().filter(|side| !side.is_empty()) {
        columns(sheets, card, &side);
    }
}

/// How wide the columns are where the figures fit, and how much smaller than usual they are for that.
fn fitting(sheets: &mut Sheets, card: &Card, shown: &[&Column]) -> Option<(f32, Vec<f32>)> {
    let full = sheets.width();
    [1.0, 0.9, 0.8, LEAST].into_iter().find_map(|smaller| {
        let widths = widths(sheets, card, shown, smaller);
        (widths.iter().sum::<f32>() <= full).then_some((smaller, widths))
    })
}

fn columns(sheets: &mut Sheets, card: &Card, shown: &[&Column]) {
    let size = sheets.size();
    let (smaller, widths) =
        fitting(sheets, card, shown).unwrap_or_else(|| (LEAST, widths(sheets, card, shown, LEAST)));
    heading(sheets, card, shown, &widths);
    let note_left: f32 = widths[..widths.len() - 1].iter().sum();
    let note_width = (sheets.width() - note_left).max(size * 4.0);
    for row in &card.marks {
        let mut cells = row_cells(sheets, shown, row, smaller);
        cells.push(sheets.typesetter.set(&row.note, Style::plain(size * 0.95), Some(note_width)));
        let baseline = cells.iter().map(Words::baseline).fold(0.0, f32::max);
        let down = cells.iter().map(|words| baseline - words.baseline() + words.height());
        let height = down.fold(0.0, f32::max) + size * 0.15;
        if sheets.make_room(height) {
            heading(sheets, card, shown, &widths);
        }
        rule(sheets);
        let (mut left, last) = (0.0, cells.len() - 1);
        for (index, (words, width)) in cells.into_iter().zip(&widths).enumerate() {
            // Figures stand to the right of their column, with a gap before the next.
            let indent = if index == last { 0.0 } else { width - size * GAP - words.widths().1 };
            let y = sheets.y + baseline - words.baseline();
            sheets.put(words, left + indent, y);
            left += width;
        }
        sheets.y += height;
    }
    sheets.y += size * 0.6;
}

/// Between two columns, as a share of the type size.
const GAP: f32 = 1.3;

fn row_cells(sheets: &mut Sheets, shown: &[&Column], row: &MarkResult, smaller: f32) -> Vec<Words> {
    let size = sheets.size() * smaller;
    let mut cells = vec![sheets.typesetter.set(&row.station.bare(), Style::plain(size * 1.5), None)];
    for column in shown {
        let figure = column.shows.of(row).map_or("–".into(), Figure::bare);
        let style = match column.shows.is_whole() {
            true => Style::plain(size * 1.25),
            false => Style::plain(size * 1.95).bold(),
        };
        cells.push(sheets.typesetter.set(&figure, style, None));
    }
    cells
}

/// How wide each column has to be, gap and all; the last is the notes'.
fn widths(sheets: &mut Sheets, card: &Card, shown: &[&Column], smaller: f32) -> Vec<f32> {
    let size = sheets.size();
    let mut widths = vec![0.0_f32; shown.len() + 2];
    for row in &card.marks {
        let note = sheets.typesetter.set(&row.note, Style::plain(size * 0.95), None).widths().0;
        let cells = row_cells(sheets, shown, row, smaller);
        let figures = cells.iter().map(|words| words.widths().1 + size * GAP);
        for (width, wanted) in widths.iter_mut().zip(figures.chain([note])) {
            *width = width.max(wanted);
        }
    }
    for (width, text) in widths.iter_mut().zip(headings(card, shown)) {
        let words = sheets.typesetter.set(text, heading_style(sheets), None);
        *width = width.max(words.widths().0 + size * GAP);
    }
    widths
}

fn headings<'a>(card: &'a Card, shown: &[&'a Column]) -> impl Iterator<Item = &'a str> {
    std::iter::once(card.station_heading.as_str()).chain(shown.iter().map(|c| c.heading.as_str()))
}

fn heading_style(sheets: &Sheets) -> Style {
    Style::plain(sheets.size() * 0.85).right()
}

/// The headings of the columns, their last lines level.
fn heading(sheets: &mut Sheets, card: &Card, shown: &[&Column], widths: &[f32]) {
    let size = sheets.size();
    let style = heading_style(sheets);
    let set = |(text, width): (&str, &f32)| sheets.typesetter.set(text, style, Some(width - size * GAP));
    let set: Vec<Words> = headings(card, shown).zip(widths).map(set).collect();
    let height = set.iter().map(Words::height).fold(0.0, f32::max);
    // The first rows stay with their headings.
    sheets.make_room(height + size * 8.0);
    let mut left = 0.0;
    for (words, width) in set.into_iter().zip(widths) {
        let y = sheets.y + height - words.height();
        sheets.put(words, left, y);
        left += width;
    }
    sheets.y += height + size * 0.2;
}

fn rule(sheets: &mut Sheets) {
    let (left, y) = (f64::from(MARGIN), f64::from(sheets.y));
    let mut path = BezPath::new();
    path.move_to((left, y));
    path.line_to((left + f64::from(sheets.width()), y));
    sheets.draw(path, Line::Rule);
}
