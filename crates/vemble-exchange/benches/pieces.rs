//! Twelve pieces of a coat: changed and trued, and over as many pages as they take.

use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;
use vemble_core::document::Document;
use vemble_core::length::Tape;
use vemble_core::pattern::{OfCloth, WhichPieces, pieces};
use vemble_core::work::PieceChange;
use vemble_exchange::document::read_document;
use vemble_exchange::pdf::Paper;
use vemble_exchange::pieces::{PieceFormat, write_pieces};

/// A coat, both sides alike, with linings until there are twelve pieces, and two more changes.
fn coat() -> Document {
    let mut document = read_document(include_bytes!("../../../demo/overcoat.json")).expect("the example");
    document.try_ons.clear();
    let may = pieces(&document, OfCloth::default(), Tape::Cm).expect("pieces").may;
    let by = "5 mm".parse().expect("a length");
    let missing = 12 - may.len();
    let linings = may.iter().take(missing).map(|may| PieceChange::Lining { piece: may.key });
    let piece = may[0].key;
    let changes = [PieceChange::Width { piece, by }, PieceChange::Flare { piece, by }];
    document.wishes.pattern.changes = linings.chain(changes).collect();
    let count = pieces(&document, OfCloth::default(), Tape::Cm).expect("pieces").may.len();
    assert_eq!(count, 12);
    document
}

fn twelve_pieces(criterion: &mut Criterion) {
    let document = coat();
    criterion.bench_function("12 pieces changed and trued", |bench| {
        bench.iter(|| pieces(black_box(&document), OfCloth::default(), Tape::Cm));
    });
    criterion.bench_function("12 pieces on A4", |bench| {
        bench.iter(|| {
            write_pieces(black_box(&document), PieceFormat::Pdf, WhichPieces::All, Paper::A4, Tape::Cm)
        });
    });
}

criterion_group!(benches, twelve_pieces);
criterion_main!(benches);
