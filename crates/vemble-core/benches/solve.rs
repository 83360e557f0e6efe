//! How long the core takes: one seam with 12 pins by each way of fairing, the whole example document, a hem, and every stand.

use criterion::{BenchmarkId, Criterion, criterion_group, criterion_main};
use std::hint::black_box;
use vemble_core::change::Change;
use vemble_core::change::seam::{SeamChange, alter};
use vemble_core::document::{Document, State};
use vemble_core::figure::stand;
use vemble_core::fitting::Reading;
use vemble_core::garment::{Beginning, Kind, Seam, SeamFacts, begin, cloth_named};
use vemble_core::length::{Length, Measure, Tape};
use vemble_core::look_over::look_over;
use vemble_core::solve::{For, glance, solve, solve_for};

/// What the program allocates with.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn demo() -> Document {
    serde_json::from_str(include_str!("../../../demo/corduroys.json")).expect("the example")
}

/// The seam that is changed first.
fn first_seam(document: &mut Document) -> &mut SeamChange {
    match &mut document.try_ons[0].changes[0] {
        Change::Seam(seam) => seam,
        other => panic!("the example begins with a seam, not {other:?}"),
    }
}

/// Twelve pins that wobble, 5 cm apart, on the example's outseam.
fn twelve_pins() -> Document {
    let mut document = demo();
    let alteration = first_seam(&mut document);
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
        let seam = first_seam(&mut document);
        seam.fairing = serde_json::from_value(way.into()).expect("a way");
        let (seam, garment) = (seam.clone(), &document.states[0].garment);
        group.bench_function(BenchmarkId::from_parameter(way), |bench| {
            bench.iter(|| alter(black_box(garment), black_box(&seam)));
        });
    }
    group.finish();
}

/// Twelve altered seams with seven pins each, on a garment that has them all.
fn twelve_seams() -> Document {
    let mut document = twelve_pins();
    let reading = first_seam(&mut document).readings[0].clone();
    let Document { wearer, mut states, mut try_ons, .. } = document;
    let state = states.remove(0);
    let cloth = cloth_named("cotton drill").unwrap_or(state.garment.cloth);
    let kind = Kind::LinedCoat;
    let mut garment =
        begin(Beginning { name: "it".into(), kind, toile: false, wearer: wearer.clone(), cloth });
    let like = garment.seams[0].clone();
    for seam in Seam::ALL {
        if garment.seam(*seam).is_none() {
            garment.seams.push(SeamFacts { seam: *seam, ..like.clone() });
        }
    }
    let altered = garment.seams.iter().take(12).map(|facts| {
        let pin = |n: i64| Reading {
            station: Measure { length: facts.length.length.fraction(n, 8), ..reading.station },
            amount: Measure { length: Length::from_mm(4 + (n * 5) % 7), ..reading.amount },
            ..reading.clone()
        };
        Change::Seam(SeamChange { readings: (1..=7).map(pin).collect(), ..SeamChange::of(facts.seam) })
    });
    try_ons[0].changes = altered.collect();
    Document::of(wearer, State::first(state.id, garment), try_ons)
}

/// A skirt of which only the hem is marked, all round.
fn marked_hem() -> Document {
    let text = include_str!("../../../demo/school-skirt.json");
    let mut document: Document = serde_json::from_str(text).expect("the example");
    document.try_ons.drain(1..);
    document.try_ons[0].changes.clear();
    document
}

fn whole_document(criterion: &mut Criterion) {
    let seams = twelve_seams();
    assert!(solve(&seams, Tape::Cm).is_ok_and(|s| s.try_ons[0].cards.len() == 12), "it can be solved");
    for (name, document) in
        [("example document", demo()), ("document, 12 pins", twelve_pins()), ("12 seams, 84 pins", seams)]
    {
        criterion.bench_function(name, |bench| bench.iter(|| solve(black_box(&document), Tape::Cm)));
    }
    let hem = marked_hem();
    assert!(solve(&hem, Tape::Cm).is_ok_and(|s| s.try_ons[0].cards.len() == 1), "it has a card");
    criterion.bench_function("a hem, 4 marks", |bench| bench.iter(|| solve(black_box(&hem), Tape::Cm)));
    let dragged = twelve_pins();
    criterion.bench_function("a drag, 12 pins", |bench| {
        bench.iter(|| solve_for(black_box(&dragged), Tape::Cm, For::Drag));
    });
}

/// The stand of every kind, from three sides; and what the rail shows of it.
fn stands(criterion: &mut Criterion) {
    let mut group = criterion.benchmark_group("stand");
    for kind in Kind::ALL.iter().copied() {
        let cloth = cloth_named(kind.template().cloth).expect("a cloth of that name");
        let wearer = demo().wearer;
        let garment =
            begin(Beginning { name: "it".into(), kind, toile: false, wearer: wearer.clone(), cloth });
        group.bench_function(BenchmarkId::from_parameter(kind.template().name), |bench| {
            bench.iter(|| stand(black_box(&garment), &wearer, Tape::Cm));
        });
    }
    group.finish();
    criterion.bench_function("look-over of the example", |bench| {
        let document = demo();
        let garment = &document.states[0].garment;
        bench.iter(|| look_over(black_box(garment), &document.wearer, Tape::Cm));
    });
    criterion.bench_function("glance at the example", |bench| {
        let document = demo();
        bench.iter(|| glance(black_box(&document), Tape::Cm));
    });
}

criterion_group!(benches, one_seam, whole_document, stands);
criterion_main!(benches);
