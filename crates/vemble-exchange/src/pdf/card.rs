//! A chalk card on paper: title, the small drawing, the figures large, the steps of the hand.

use super::sheet::{MARGIN, Pen, Sheets};
use super::typeset::{Style, Words};
use kurbo::{Affine, BezPath, Point};
use vemble_core::card::{Block, Card, Emphasis, Table, TableRow};
use vemble_core::figure::CardDrawing;

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
    sheets.paragraph(&card.title, Style::plain(size * 1.65).bold(), 0.0, 0.0);
    sheets.paragraph(&card.garment, Style::plain(size), 0.0, size * 0.6);
    for block in &card.blocks {
        put_block(sheets, block);
    }
}

fn put_block(sheets: &mut Sheets, block: &Block) {
    let size = sheets.size();
    match block {
        Block::Drawing(drawing) => draw(sheets, drawing),
        Block::Text(text) => sheets.paragraph(text, Style::plain(size), 0.0, size * 0.6),
        Block::Table(figures) => table(sheets, figures),
        Block::Note(note) => sheets.paragraph(note, Style::plain(size * 0.88), 0.0, size * 0.3),
        Block::Steps(steps) => {
            sheets.y += size * 0.6;
            for (number, step) in (1..).zip(steps) {
                item(sheets, &format!("{number}."), &step.text);
            }
        }
        Block::Heading(heading) => {
            sheets.y += size * 0.7;
            // A heading does not stand alone at the foot of a page.
            sheets.make_room(size * 5.0);
            sheets.paragraph(heading, Style::plain(size * 1.15).bold(), 0.0, size * 0.2);
        }
        Block::Caution(caution) => item(sheets, "!", caution),
        Block::Line(line) => sheets.paragraph(line, Style::plain(size), 0.0, size * 0.25),
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
        sheets.draw(triangle, Pen::Outline);
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
        [(Some(&drawing.old), Pen::Old), (drawing.cut.as_ref(), Pen::Cut), (Some(&drawing.new), Pen::New)];
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

/// The figures: as large as the paper allows, all groups of columns beside each other where there is room.
fn table(sheets: &mut Sheets, table: &Table) {
    let all: Vec<usize> = (0..table.columns.len()).collect();
    if fitting(sheets, table, &all).is_some() {
        return columns(sheets, table, &all);
    }
    let mut groups: Vec<u8> = table.columns.iter().map(|c| c.group).collect();
    groups.dedup();
    let station = groups.first().copied();
    for group in groups.into_iter().skip(1) {
        // What names the rows stands before each.
        let of_group =
            |n: &usize| Some(table.columns[*n].group) == station || table.columns[*n].group == group;
        columns(sheets, table, &all.iter().copied().filter(of_group).collect::<Vec<_>>());
    }
}

/// How wide the columns are where the figures fit, and how much smaller than usual they are for that.
fn fitting(sheets: &mut Sheets, table: &Table, shown: &[usize]) -> Option<(f32, Vec<f32>)> {
    let full = sheets.width();
    [1.0, 0.9, 0.8, LEAST].into_iter().find_map(|smaller| {
        let widths = widths(sheets, table, shown, smaller);
        (widths.iter().sum::<f32>() <= full).then_some((smaller, widths))
    })
}

fn columns(sheets: &mut Sheets, table: &Table, shown: &[usize]) {
    let size = sheets.size();
    let (smaller, widths) =
        fitting(sheets, table, shown).unwrap_or_else(|| (LEAST, widths(sheets, table, shown, LEAST)));
    heading(sheets, table, shown, &widths);
    let note_left: f32 = widths[..widths.len() - 1].iter().sum();
    let note_width = (sheets.width() - note_left).max(size * 4.0);
    for row in &table.rows {
        let mut cells = row_cells(sheets, table, shown, row, smaller);
        cells.push(sheets.typesetter.set(&row.note, Style::plain(size * 0.95), Some(note_width)));
        let baseline = cells.iter().map(Words::baseline).fold(0.0, f32::max);
        let down = cells.iter().map(|words| baseline - words.baseline() + words.height());
        let height = down.fold(0.0, f32::max) + size * 0.15;
        if sheets.make_room(height) {
            heading(sheets, table, shown, &widths);
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

fn row_cells(
    sheets: &mut Sheets,
    table: &Table,
    shown: &[usize],
    row: &TableRow,
    smaller: f32,
) -> Vec<Words> {
    let size = sheets.size() * smaller;
    let style = |emphasis: Emphasis| match emphasis {
        Emphasis::Station => Style::plain(size * 1.5),
        Emphasis::Sum => Style::plain(size * 1.25),
        Emphasis::Chalked => Style::plain(size * 1.95).bold(),
    };
    let mut set =
        |n: &usize| sheets.typesetter.set(&row.cells[*n].text, style(table.columns[*n].emphasis), None);
    shown.iter().map(&mut set).collect()
}

/// How wide each column has to be, gap and all; the last is the notes'.
fn widths(sheets: &mut Sheets, table: &Table, shown: &[usize], smaller: f32) -> Vec<f32> {
    let size = sheets.size();
    let mut widths = vec![0.0_f32; shown.len() + 1];
    for row in &table.rows {
        let note = sheets.typesetter.set(&row.note, Style::plain(size * 0.95), None).widths().0;
        let cells = row_cells(sheets, table, shown, row, smaller);
        let figures = cells.iter().map(|words| words.widths().1 + size * GAP);
        for (width, wanted) in widths.iter_mut().zip(figures.chain([note])) {
            *width = width.max(wanted);
        }
    }
    for (width, text) in widths.iter_mut().zip(headings(table, shown)) {
        let words = sheets.typesetter.set(text, heading_style(sheets), None);
        *width = width.max(words.widths().0 + size * GAP);
    }
    widths
}

fn headings<'a>(table: &'a Table, shown: &'a [usize]) -> impl Iterator<Item = &'a str> {
    shown.iter().map(|n| table.columns[*n].heading.as_str())
}

fn heading_style(sheets: &Sheets) -> Style {
    Style::plain(sheets.size() * 0.85).right()
}

/// The headings of the columns, their last lines level.
fn heading(sheets: &mut Sheets, table: &Table, shown: &[usize], widths: &[f32]) {
    let size = sheets.size();
    let style = heading_style(sheets);
    let set = |(text, width): (&str, &f32)| sheets.typesetter.set(text, style, Some(width - size * GAP));
    let set: Vec<Words> = headings(table, shown).zip(widths).map(set).collect();
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
    sheets.draw(path, Pen::Rule);
}
