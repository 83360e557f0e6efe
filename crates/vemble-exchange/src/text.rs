//! The chalk card as plain text, for a terminal or a printer without pictures.

use std::fmt::Write;
use vemble_core::card::{Block, Card, Table};
use vemble_core::change::ChangeKey;
use vemble_core::solve::Solved;

/// Every card of every try-on one under the other, or the one with a key.
pub fn cards_text(solved: &Solved, key: Option<ChangeKey>) -> String {
    let cards = solved.try_ons.iter().flat_map(|t| &t.cards);
    let cards: Vec<String> = cards.filter(|c| key.is_none_or(|k| k == c.key)).map(card_text).collect();
    match cards.is_empty() {
        true => "No pins yet: nothing to chalk.\n".into(),
        false => cards.join("\n"),
    }
}

fn card_text(card: &Card) -> String {
    let mut text = format!("{}\n{}\n", card.title, card.garment);
    let mut before: Option<&Block> = None;
    for block in &card.blocks {
        // Like follows like without a gap, and what belongs to a heading follows it at once.
        let goes_on = before.is_some_and(|before| {
            matches!(before, Block::Heading(_))
                || std::mem::discriminant(before) == std::mem::discriminant(block)
        });
        match block {
            Block::Drawing(_) => continue,
            _ if goes_on => {}
            _ => text.push('\n'),
        }
        let _ = match block {
            Block::Heading(heading) => writeln!(text, "{heading}:"),
            Block::Text(sentence) => writeln!(text, "{sentence}"),
            Block::Note(item) | Block::Caution(item) | Block::Line(item) => writeln!(text, "  - {item}"),
            Block::Steps(steps) => {
                let numbered = (1..).zip(steps).map(|(n, step)| format!("  {n}. {}\n", step.text));
                write!(text, "Steps:\n{}", numbered.collect::<String>())
            }
            Block::Table(table) => write!(text, "{}", table_text(table)),
            Block::Drawing(_) => Ok(()),
        };
        before = Some(block);
    }
    text
}

/// Figures to the right of their columns, notes behind them.
fn table_text(table: &Table) -> String {
    let heading = table.columns.iter().map(|c| c.heading.clone()).collect::<Vec<_>>();
    let mut lines = vec![(heading, "")];
    for row in &table.rows {
        lines.push((row.cells.iter().map(|cell| cell.text.clone()).collect(), &row.note));
    }
    let width = |n: usize| lines.iter().map(|(cells, _)| cells[n].chars().count()).max().unwrap_or(0);
    let widths: Vec<usize> = (0..table.columns.len()).map(width).collect();
    let line = |(cells, note): &(Vec<String>, &str)| {
        let cells = cells.iter().zip(&widths).map(|(cell, width)| format!("{cell:>width$}"));
        let line = format!("{}   {note}", cells.collect::<Vec<_>>().join("   "));
        format!("{}\n", line.trim_end())
    };
    lines.iter().map(line).collect()
}
