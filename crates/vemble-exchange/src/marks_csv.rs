//! The tables of cards as CSV (RFC 4180, UTF-8, the unit in the header).

use vemble_core::card::{Block, Card, Cell, Table};
use vemble_core::change::ChangeKey;
use vemble_core::solve::Solved;

/// One row for each row of each table: try-on, change, its name, note, and then every column that any of the cards has. With a key only of
/// that change.
///
/// # Errors
/// Only what the writer reports; writing to memory does not fail.
pub fn marks_csv(solved: &Solved, key: Option<ChangeKey>) -> Result<String, csv::Error> {
    let of_try_on = (1..).zip(&solved.try_ons);
    let cards: Vec<(usize, &Card)> =
        of_try_on.flat_map(|(n, t)| t.cards.iter().map(move |c| (n, c))).collect();
    let wanted = cards.iter().filter(|(_, card)| key.is_none_or(|key| key == card.key));
    let tables: Vec<(usize, &Card, &Table)> = wanted
        .flat_map(|(n, card)| card.blocks.iter().map(move |block| (*n, *card, block)))
        .filter_map(|(n, card, block)| match block {
            Block::Table(table) => Some((n, card, table)),
            Block::Heading(_) | Block::Text(_) | Block::Note(_) | Block::Caution(_) => None,
            Block::Line(_) | Block::Steps(_) | Block::Drawing(_) => None,
        })
        .collect();
    let mut headings: Vec<&str> = Vec::new();
    for column in tables.iter().flat_map(|(_, _, table)| &table.columns) {
        if !headings.contains(&column.heading.as_str()) {
            headings.push(&column.heading);
        }
    }
    let mut writer = csv::WriterBuilder::new().terminator(csv::Terminator::CRLF).from_writer(Vec::new());
    writer.write_record(["try_on", "change", "name", "note"].iter().chain(&headings))?;
    for (number, card, table) in tables {
        for row in &table.rows {
            let mut record =
                vec![number.to_string(), card.key.to_string(), card.name.clone(), row.note.clone()];
            record.extend(headings.iter().map(|heading| {
                let column = table.columns.iter().position(|c| c.heading == *heading);
                column.map_or_else(String::new, |column| plain(&row.cells[column]))
            }));
            writer.write_record(&record)?;
        }
    }
    let bytes = writer.into_inner().map_err(|e| csv::Error::from(e.into_error()))?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}

/// A figure for other programs, which read an ASCII minus and nothing for nothing.
fn plain(cell: &Cell) -> String {
    cell.figure.map_or_else(String::new, |figure| figure.bare().replace('−', "-"))
}
