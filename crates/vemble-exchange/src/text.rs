//! The chalk card as plain text, for a terminal or a printer without pictures.

use std::fmt::Write;
use vemble_core::card::Card;
use vemble_core::length::Figure;
use vemble_core::solve::Solved;

/// Every card of every try-on one under the other, or the one with a key.
pub fn cards_text(solved: &Solved, key: Option<&str>) -> String {
    let cards = solved.try_ons.iter().flat_map(|t| &t.cards);
    let cards: Vec<String> = cards.filter(|c| key.is_none_or(|k| k == c.key)).map(card_text).collect();
    match cards.is_empty() {
        true => "No pins yet: nothing to chalk.\n".into(),
        false => cards.join("\n"),
    }
}

fn card_text(card: &Card) -> String {
    let mut text = format!("{}\n{}\n\n{}\n\n", card.title, card.garment, card.measured);
    let mut lines = vec![vec![card.station_heading.clone()]];
    lines[0].extend(card.columns.iter().map(|c| c.heading.clone()));
    lines[0].push(String::new());
    for row in &card.marks {
        let mut line = vec![row.station.bare()];
        line.extend(card.columns.iter().map(|c| c.shows.of(row).map_or("–".into(), Figure::bare)));
        line.push(row.note.clone());
        lines.push(line);
    }
    let width = |column: usize| lines.iter().map(|l| l[column].chars().count()).max().unwrap_or(0);
    let widths: Vec<usize> = (0..lines[0].len()).map(width).collect();
    for line in lines.iter().filter(|_| !card.columns.is_empty()) {
        let (note, figures) = line.split_last().map_or(("", &line[..]), |(n, f)| (n.as_str(), f));
        let cells = figures.iter().zip(&widths).map(|(cell, width)| format!("{cell:>width$}"));
        let _ =
            writeln!(text, "{}", format!("{}   {note}", cells.collect::<Vec<_>>().join("   ")).trim_end());
    }
    for (heading, items, numbered) in [
        ("", &card.notes, false),
        ("Steps", &card.steps, true),
        ("Know first", &card.cautions, false),
        ("Afterwards", &card.afterwards, false),
    ] {
        if !items.is_empty() {
            let _ = writeln!(text, "\n{heading}{}", if heading.is_empty() { "" } else { ":" });
        }
        for (i, item) in items.iter().enumerate() {
            let bullet = if numbered { format!("{}.", i + 1) } else { "-".into() };
            let _ = writeln!(text, "  {bullet} {item}");
        }
    }
    text
}
