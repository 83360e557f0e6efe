//! Documents that somebody could send: one that is right, with a few of its figures, words and parts exchanged for others. Whatever is not
//! refused is solved, drawn, carded and printed; nothing is ever broken by it.

use proptest::prelude::*;
use serde_json::{Map, Value};
use vemble_core::asking::asking;
use vemble_core::compare::compare;
use vemble_core::document::Document;
use vemble_core::figure::{hanging, stand};
use vemble_core::length::Tape;
use vemble_core::look_over::look_over;
use vemble_core::people::person;
use vemble_core::solve::{glance, solve, stages};
use vemble_exchange::document::read_document;
use vemble_exchange::marks_csv::marks_csv;
use vemble_exchange::pdf::{Paper, cards_pdf};
use vemble_exchange::text::cards_text;

/// So many in the gate; `cargo xtask fuzz` asks for more.
const CASES: u32 = 150;

/// The example's garments, and what once went wrong.
fn seeds() -> Vec<Value> {
    let of = |folder: &str| {
        let mut files: Vec<_> = std::fs::read_dir(folder).unwrap().map(|file| file.unwrap().path()).collect();
        files.retain(|path| path.extension().is_some_and(|extension| extension == "json"));
        files.sort();
        files
    };
    let all = of("../../demo").into_iter().chain(of("tests/cases"));
    let read = |path| read_document(&std::fs::read(path).unwrap()).ok();
    all.filter_map(read).map(|document| serde_json::to_value(document).unwrap()).collect()
}

/// What may stand in place of a length: nothing, almost nothing, little, much, and the most there is.
const LENGTHS: [&str; 14] = [
    "0 cm",
    "0.0000001 cm",
    "0.001 mm",
    "1 mm",
    "1/64 in",
    "4 cm",
    "12 cm",
    "1 in",
    "60 cm",
    "3 m",
    "100 m",
    "99.9999999 m",
    "-1 cm",
    "-100 m",
];

/// Exchanges a few leaves and parts of a document, each by two numbers.
fn mutated(mut value: Value, picks: &[(u64, u64)]) -> Value {
    for (place, with) in picks {
        let count = leaves(&mut value, &mut |_| {});
        let (mut at, wanted) = (0, *place as usize % count.max(1));
        leaves(&mut value, &mut |leaf| {
            if at == wanted {
                exchange(leaf, *with as usize);
            }
            at += 1;
        });
    }
    value
}

/// Does something with every leaf and every part of a list, in order; gives how many there are.
fn leaves(value: &mut Value, with: &mut dyn FnMut(&mut Value)) -> usize {
    match value {
        Value::Object(fields) => fields.values_mut().map(|field| leaves(field, with)).sum(),
        Value::Array(items) => {
            let inner: usize = items.iter_mut().map(|item| leaves(item, with)).sum();
            with(value);
            inner + 1
        }
        Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => {
            with(value);
            1
        }
    }
}

fn exchange(leaf: &mut Value, with: usize) {
    match leaf {
        Value::String(text) if text.parse::<vemble_core::length::Measure>().is_ok() => {
            *text = LENGTHS[with % LENGTHS.len()].into();
        }
        Value::String(text) => *text = ["", "x", "NaN", "…\u{202e}", "hem"][with % 5].into(),
        Value::Number(number) => *number = [0, 1, 2, 50, 100, 255, 4_294_967_295_u64][with % 7].into(),
        Value::Bool(is) => *is = !*is,
        Value::Array(items) if !items.is_empty() => {
            let at = with % items.len();
            match with % 3 {
                0 => drop(items.remove(at)),
                1 => items.push(items[at].clone()),
                _ => items.reverse(),
            }
        }
        Value::Array(_) | Value::Null => *leaf = Value::Null,
        Value::Object(_) => *leaf = Value::Object(Map::new()),
    }
}

/// Everything that is derived of a document: whatever validation lets through is drawn.
fn derive_all(document: &Document, tape: Tape) {
    let solved = solve(document, tape);
    let _ = (stages(document, tape), compare(document, tape));
    if !document.faults().is_empty() {
        return;
    }
    let _ = (glance(document, tape), asking(document, tape));
    for state in &document.states {
        let _ = stand(&state.garment, &document.wearer, tape);
        let _ = hanging(&state.garment, &document.wearer);
        let _ = look_over(&state.garment, &document.wearer, tape);
    }
    let garments: Vec<_> = document.states.iter().map(|state| &state.garment).collect();
    let _ = person(&document.wearer, &garments, tape);
    let Ok(solved) = solved else { return };
    let _ = (cards_text(&solved, None), marks_csv(&solved, None));
    serde_json::to_string(&solved).unwrap();
    // Setting type is the slowest of all: one card of each.
    if let Some(card) = solved.try_ons.first().and_then(|t| t.cards.first()) {
        let _ = cards_pdf(&solved, Some(card.key), Paper::A5);
    }
}

#[test]
fn nothing_that_can_be_sent_breaks_anything() {
    let seeds = seeds();
    let cases = std::env::var("VEMBLE_FUZZ").ok().and_then(|n| n.parse().ok()).unwrap_or(CASES);
    let config = ProptestConfig { cases, failure_persistence: None, ..ProptestConfig::default() };
    let picks = prop::collection::vec(any::<(u64, u64)>(), 1..5);
    proptest!(config, |(seed in 0..seeds.len(), picks in picks, tape in prop::sample::select(Tape::ALL))| {
        let sent = mutated(seeds[seed].clone(), &picks);
        if let Ok(document) = read_document(sent.to_string().as_bytes()) {
            derive_all(&document, tape);
        }
    });
}
