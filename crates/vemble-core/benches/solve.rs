//! How long the core takes: one seam with 12 pins by each way of fairing, the whole example document, a hem, and every stand.

use criterion::{BenchmarkId, Criterion, criterion_group, criterion_main};
use std::hint::black_box;
use vemble_core::ahead::{OfGarment, Wanted, ahead, work_of};
use vemble_core::change::Change;
use vemble_core::change::seam::{SeamChange, alter};
use vemble_core::document::{Document, State};
use vemble_core::figure::stand;
use vemble_core::fitting::Reading;
use vemble_core::garment::{Beginning, Kind, Seam, SeamFacts, begin, cloth_named};
use vemble_core::length::{Length, Measure, Tape};
use vemble_core::look_over::look_over;
use vemble_core::method::{WantedFrom, methods};
use vemble_core::pattern::{OfCloth, WhichPieces, piece_sheets, pieces};
use vemble_core::plan::{evenings, plan};
use vemble_core::solve::{For, glance, solve, solve_for};
use vemble_core::work::{PieceChange, Weekly, Workroom};

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

/// A dress with ten long seams and two pairs of darts: everything that could carry a change of its waist and hips.
fn dress_with_ten_seams() -> Document {
    let mut document: Document =
        serde_json::from_str(include_str!("../../../demo/tea-dress.json")).expect("the example");
    let state = document.states.last_mut().expect("a state");
    let garment = &mut state.garment;
    let side = garment.seams.iter().find(|s| s.seam == Seam::SideSeam).expect("a side seam").clone();
    for seam in [Seam::PrincessFront, Seam::PrincessBack, Seam::PanelFront, Seam::PanelBack, Seam::CentreBack]
    {
        garment.seams.retain(|s| s.seam != seam);
        garment.seams.push(SeamFacts { seam, name: None, ..side.clone() });
    }
    garment.darts = serde_json::from_value(serde_json::json!([
        { "dart": "front_fish_eye", "fold_depth": "1.2 cm", "length": "26 cm", "from_centre": "9 cm" },
        { "dart": "back_fish_eye", "fold_depth": "1.5 cm", "length": "30 cm", "from_centre": "9 cm" },
    ]))
    .expect("darts");
    // On whoever it fits: nothing is too tight.
    document.wearer.measurements.clear();
    let id = state.id;
    document.try_ons.retain(|try_on| try_on.state == id);
    let try_on = document.try_ons.last_mut().expect("a try-on");
    try_on.changes.clear();
    try_on.wanted = serde_json::from_value(serde_json::json!([
        { "level": "bust", "by": "-2 cm" }, { "level": "waist", "by": "-5 cm" }, { "level": "hip", "by": "-2 cm" },
    ]))
    .expect("wishes");
    document
}

fn which_way(criterion: &mut Criterion) {
    let document = dress_with_ten_seams();
    assert!(
        methods(&document, WantedFrom::Typed, Tape::Cm).is_ok_and(|m| m.best.len() == 3),
        "there are ways"
    );
    criterion.bench_function("which way, ten seams and four darts", |bench| {
        bench.iter(|| methods(black_box(&document), WantedFrom::Typed, Tape::Cm).expect("no fault"));
    });
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
    document.try_ons.retain(|try_on| !try_on.hem_marks.is_empty());
    document.try_ons.truncate(1);
    document.try_ons[0].changes.retain(|change| matches!(change, Change::Hem(_)));
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

/// Forty-two garments of the example on sixty evenings: some 900 tasks.
fn planned(criterion: &mut Criterion) {
    let names = [
        "corduroys",
        "overcoat",
        "concert-shirt",
        "tea-dress",
        "school-skirt",
        "pinafore-toile",
        "jersey-top",
    ];
    let read = |name: &str| -> Document {
        let path = format!("{}/../../demo/{name}.json", env!("CARGO_MANIFEST_DIR"));
        serde_json::from_str(&std::fs::read_to_string(path).unwrap()).unwrap()
    };
    let documents: Vec<Document> = names.iter().cycle().take(42).map(|name| read(name)).collect();
    let of = |(n, document)| OfGarment { id: uuid::Uuid::from_u128(n), wearer: uuid::Uuid::nil(), document };
    let garments: Vec<OfGarment<'_>> = (0..).zip(&documents).map(of).collect();
    let weekly = (1..=5).map(|day| Weekly {
        id: uuid::Uuid::from_u128(day as u128),
        day,
        start: jiff::civil::time(19, 30, 0, 0),
        minutes: 240,
        helper: if day == 4 { "Bram".into() } else { String::new() },
    });
    let room = Workroom { weekly: weekly.collect(), ..Workroom::default() };
    let now = "2026-10-20T09:00:00Z".parse().unwrap();
    let evenings = evenings(&room, now);
    let works: Vec<_> = garments.iter().filter_map(|of| work_of(*of, &room, Tape::Cm)).collect();
    criterion.bench_function("plan 42 garments", |bench| bench.iter(|| plan(black_box(&works), &evenings)));
    criterion.bench_function("what lies ahead of 42 garments", |bench| {
        bench.iter(|| ahead(black_box(&garments), &room, now, Tape::Cm, Wanted::default()));
    });
}

/// A coat pinned, carried to paper, changed there, trued, and drawn.
fn on_paper(criterion: &mut Criterion) {
    let mut document: Document =
        serde_json::from_str(include_str!("../../../demo/overcoat.json")).expect("the example");
    let piece = pieces(&document, OfCloth::default(), Tape::Cm).expect("pieces").may[0].key;
    let by = "5 mm".parse().expect("a length");
    document.wishes.pattern.changes =
        vec![PieceChange::Width { piece, by }, PieceChange::Flare { piece, by }];
    criterion.bench_function("pieces changed and trued", |bench| {
        bench.iter(|| pieces(black_box(&document), OfCloth::default(), Tape::Cm));
    });
    criterion.bench_function("pieces as sheets", |bench| {
        bench.iter(|| piece_sheets(black_box(&document), WhichPieces::All, Tape::Cm));
    });
}

criterion_group!(benches, one_seam, which_way, whole_document, stands, planned, on_paper);
criterion_main!(benches);
