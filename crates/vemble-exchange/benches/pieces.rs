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

/// A coat, both sides alike, with linings and facings until there are twelve pieces, and two more changes.
fn coat() -> Document {
    let mut document = read_document(include_bytes!("../../../demo/overcoat.json")).expect("the example");
    document.try_ons.clear();
    document.wishes.pattern.changes.clear();
    let laid = |document: &Document| pieces(document, OfCloth::default(), Tape::Cm).expect("pieces");
    let may = laid(&document).may;
    let length = |text: &str| text.parse().expect("a length");
    let linings = may.iter().map(|may| PieceChange::Lining { piece: may.key });
    let facings = may.iter().flat_map(|may| {
        may.faced.iter().map(|edge| PieceChange::Facing {
            piece: may.key,
            edge: edge.name,
            wide: length("4 cm"),
        })
    });
    for made in linings.chain(facings) {
        if laid(&document).may.len() < 12 {
            document.wishes.pattern.changes.push(made);
        }
    }
    let (piece, by) = (may[0].key, length("5 mm"));
    let changes = [PieceChange::Width { piece, by }, PieceChange::Flare { piece, by }];
    document.wishes.pattern.changes.extend(changes);
    assert_eq!(laid(&document).may.len(), 12);
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
