//! How long the core takes: one seam with 12 pins, by each way of fairing, and the whole example document.

use criterion::{BenchmarkId, Criterion, criterion_group, criterion_main};
use std::hint::black_box;
use vemble_core::document::Document;
use vemble_core::length::Tape;
use vemble_core::line::alter;
use vemble_core::solve::solve;

fn demo() -> Document {
    serde_json::from_str(include_str!("../../../demo/corduroys.json")).expect("the example")
}

/// Twelve pins that wobble, 5 cm apart, on the example's outseam.
fn twelve_pins() -> Document {
    let mut document = demo();
    let alteration = &mut document.try_ons[0].alterations[0];
    let first = alteration.readings[0].clone();
    let wobble = [34, 36, 31, 33, 27, 30, 24, 21, 22, 15, 12, 6];
    alteration.readings = (0..)
        .zip(wobble)
        .map(|(n, mm)| {
            let mut reading = first.clone();
            reading.id = None;
            reading.station = format!("{} cm", n * 5).parse().expect("a station");
            reading.amount = format!("{mm} mm").parse().expect("an amount");
            reading
        })
        .collect();
    document
}

fn one_seam(criterion: &mut Criterion) {
    let mut group = criterion.benchmark_group("one seam, 12 pins");
    for way in ["smooth", "every_pin", "straight"] {
        let mut document = twelve_pins();
        document.try_ons[0].alterations[0].fairing = serde_json::from_value(way.into()).expect("a way");
        let alteration = &document.try_ons[0].alterations[0];
        group.bench_function(BenchmarkId::from_parameter(way), |bench| {
            bench.iter(|| alter(black_box(&document.garment), black_box(alteration), Tape::Cm));
        });
    }
    group.finish();
}

fn whole_document(criterion: &mut Criterion) {
    for (name, document) in [("example document", demo()), ("document, 12 pins", twelve_pins())] {
        criterion.bench_function(name, |bench| bench.iter(|| solve(black_box(&document), Tape::Cm)));
    }
}

criterion_group!(benches, one_seam, whole_document);
criterion_main!(benches);
