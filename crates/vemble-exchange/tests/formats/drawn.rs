//! Pieces out of files: what is written is read again, and what is no piece is named.

use proptest::prelude::*;
use vemble_core::document::Document;
use vemble_core::garment::{Beginning, Kind, begin, cloth_named};
use vemble_core::length::{Length, Measure, Tape, Unit};
use vemble_core::pattern::{OfCloth, PieceMay, Pieces, WhichPieces, pieces};
use vemble_core::work::{EdgeName, EdgePin, EdgePlace, Fullness, OpensAt, PieceChange, PieceDoes};
use vemble_exchange::document::read_document;
use vemble_exchange::drawn::{DrawnFormat, LARGEST, Said, read_drawn};
use vemble_exchange::pdf::Paper;
use vemble_exchange::pieces::{PieceFormat, write_pieces};

const GARMENTS: [&str; 8] = [
    "corduroys",
    "concert-shirt",
    "jersey-top",
    "overcoat",
    "pinafore-toile",
    "school-skirt",
    "summer-trousers",
    "tea-dress",
];

fn garment(name: &str) -> Document {
    let mut document = read_document(&std::fs::read(format!("../../demo/{name}.json")).unwrap()).unwrap();
    // Sides that differ are two pieces of one name: they are read one by one.
    document.try_ons.clear();
    document.wishes = vemble_core::work::Wishes::default();
    document
}

fn m(text: &str) -> Measure {
    Measure::read(text, None).unwrap()
}

fn laid(document: &Document) -> Pieces {
    pieces(document, OfCloth::default(), Tape::Cm).unwrap()
}

/// Writes the pieces of a document and reads them into another one of the same garment, without anything that was done to them.
fn there_and_back(document: &Document, format: DrawnFormat) -> Document {
    let written = match format {
        DrawnFormat::Svg => PieceFormat::Svg,
        DrawnFormat::Dxf => PieceFormat::Dxf,
    };
    let file = write_pieces(document, written, WhichPieces::All, Paper::A4, Tape::Cm).unwrap();
    let mut next = document.clone();
    let read = read_drawn(&file, format, Said::default(), Tape::Cm).unwrap();
    let drawn = read.pieces.iter().map(|piece| piece.drawn().unwrap_or_else(|| panic!("{piece:?}")));
    next.wishes.pattern.drawn = drawn.collect();
    next.wishes.pattern.changes.clear();
    next.wishes.pattern.marks.clear();
    next
}

/// The numbers of a path, from its own corner: pieces lie anywhere.
fn box_of(path: &str) -> (f64, f64) {
    let bounds = kurbo::Shape::bounding_box(&kurbo::BezPath::from_svg(path).unwrap());
    (bounds.width(), bounds.height())
}

fn area(path: &str) -> f64 {
    kurbo::Shape::area(&kurbo::BezPath::from_svg(path).unwrap()).abs()
}

/// A corner is mitred as far as so many allowances; beyond that it is cut off square, one allowance out.
const MITRE: f64 = 3.0;

/// Both have the same pieces: their edges in order as long, with the same allowances; what is enclosed; what matches.
fn assert_same(a: &Pieces, b: &Pieces, of: &str) {
    let key = |set: &vemble_core::pattern::PieceSet| {
        let mut own: Vec<_> = set.pieces.iter().collect();
        own.sort_by_key(|piece| piece.key);
        own.into_iter().cloned().collect::<Vec<_>>()
    };
    let (own, other) = (key(&a.sets[0]), key(&b.sets[0]));
    assert_eq!(own.len(), other.len(), "{of}");
    for (one, two) in own.iter().zip(&other) {
        assert_eq!((one.key, one.cut, one.edges.len()), (two.key, two.cut, two.edges.len()), "{of}");
        let [(w, h), (x, y)] = [one, two].map(|piece| box_of(&piece.outline));
        assert!(
            (w - x).abs() < 0.1 && (h - y).abs() < 0.1,
            "{of}, {}: {w} {h} and {x} {y} {} {}",
            one.name,
            one.outline,
            two.outline
        );
        let [a, b] = [one, two].map(|piece| area(&piece.outline));
        assert!((a - b).abs() < 0.1 * (w + h), "{of}, {}: {a} and {b} mm²", one.name);
        let [c, d] = [one, two].map(|piece| area(&piece.cut_line));
        // A corner that is read a degree off, at either end of a deep hem; one that is as sharp as a mitre may be, cut off square or not.
        let deepest = |edges: &mut dyn Iterator<Item = &vemble_core::pattern::EdgeShown>| {
            edges.map(|edge| edge.allowance.nm as f64 / 1e6).fold(0.0, f64::max)
        };
        let deep = deepest(&mut one.edges.iter());
        let sewn = deepest(&mut one.edges.iter().filter(|edge| edge.name != EdgeName::Hem));
        let leans = if of.contains("Dxf") { 2.0 * deep * deep * 1_f64.to_radians().tan() } else { 0.0 };
        let point = if of.contains("Dxf") { 4.0 * sewn * sewn * MITRE.recip().asin().tan() } else { 0.0 };
        let [off, within] = [(c - d).abs(), 0.2 * (w + h) + leans];
        assert!(off < within || (off - point).abs() < within, "{of}, {}: cut {c} and {d} mm²", one.name);
        for edge in &one.edges {
            // What lies between two marks is told as either.
            let is_it = |e: &&vemble_core::pattern::EdgeShown| {
                e.name == edge.name && (e.long.nm - edge.long.nm).abs() <= 1_000_000
            };
            let found = two.edges.iter().find(is_it);
            assert!(
                found.is_some(),
                "{of}, {}: {} of {} mm: {:?}",
                one.name,
                edge.words,
                edge.long.nm / 1_000_000,
                two.edges.iter().map(|e| (&e.words, e.long.nm / 1_000_000)).collect::<Vec<_>>()
            );
            let is_sewn = |e: &vemble_core::pattern::EdgeShown| {
                let eased = e.words.split_once(", ").filter(|(_, rest)| rest.contains("of it"));
                (e.allowance, eased.map(|(_, eased)| eased.to_owned()))
            };
            assert_eq!(is_sewn(found.unwrap()), is_sewn(edge), "{of}, {}: {}", one.name, edge.words);
        }
        let strokes = |piece: &vemble_core::pattern::PieceShown| piece.marks.matches('M').count();
        assert_eq!(strokes(one), strokes(two), "{of}, {}: {}", one.name, two.marks);
    }
    // Points do not say to less than a degree which way a line comes to its end: corners are compared where curves are written.
    let is_corner = |title: &str| title.contains("comes to a point") || title.contains("is not square to");
    let is_told = |title: &String| !of.contains("Dxf") || !is_corner(title);
    let lines = |p: &Pieces| {
        let titles = p.sets[0].untrue.iter().map(|line| line.title.clone());
        let mut all: Vec<_> = titles.filter(is_told).collect();
        all.sort();
        all
    };
    assert_eq!(lines(a), lines(b), "{of}");
}

#[test]
fn what_is_written_is_read_again() {
    for name in GARMENTS {
        let document = garment(name);
        for format in [DrawnFormat::Svg, DrawnFormat::Dxf] {
            let again = there_and_back(&document, format);
            assert!(again.faults().is_empty(), "{name}: {:?}", again.faults());
            assert_same(&laid(&document), &laid(&again), &format!("{name}, {format:?}"));
            // What was read is kept as JSON, and read from there.
            let json = serde_json::to_vec(&again).unwrap();
            assert_eq!(read_document(&json).unwrap(), again, "{name}");
        }
    }
}

/// Darts that are gathered, armholes and shoulders that were drawn anew, and edges that were moved are in a file as they are.
#[test]
fn what_is_changed_is_written_as_it_is() {
    let mut seen = std::collections::BTreeSet::new();
    for name in GARMENTS {
        let mut document = garment(name);
        let (nought, by) = (m("0 cm"), m("0.8 cm"));
        for (n, may) in laid(&document).may.into_iter().enumerate() {
            let (piece, into) = (may.key, Fullness::ALL[n % Fullness::ALL.len()]);
            let own = may.does.iter().filter_map(|does| match does {
                PieceDoes::LooseDart => Some(PieceChange::LooseDart { piece, dart: may.darts[0], into }),
                PieceDoes::Armhole => Some(PieceChange::Armhole { piece, lower: by, inwards: by }),
                PieceDoes::Shoulder => Some(PieceChange::Shoulder { piece, shorter: by, lower: nought }),
                PieceDoes::MoveEdge => {
                    let pins = vec![EdgePin { at: m("4 cm"), by }, EdgePin { at: m("8 cm"), by: nought }];
                    Some(PieceChange::MoveEdge { piece, edge: EdgeName::Hem, pins })
                }
                _ => None,
            });
            document.wishes.pattern.changes.extend(own);
            seen.extend(may.does);
        }
        let changed = laid(&document);
        assert!(changed.chips.iter().filter(|chip| chip.cannot.is_none()).count() > 1, "{name}");
        for format in [DrawnFormat::Svg, DrawnFormat::Dxf] {
            assert_same(&changed, &laid(&there_and_back(&document, format)), &format!("{name}, {format:?}"));
        }
    }
    assert!([PieceDoes::LooseDart, PieceDoes::Shoulder].iter().all(|does| seen.contains(does)));
}

/// What is chalked in a try-on is in a file that was written with it: it is not carried to those pieces again, and is to others.
#[test]
fn what_is_chalked_is_carried_to_paper_once() {
    let mut document = read_document(&std::fs::read("../../demo/pinafore-toile.json").unwrap()).unwrap();
    let id = uuid::Uuid::from_u128(7);
    document.try_ons[0].id = Some(id);
    let fitted = laid(&document);
    let mut again = there_and_back(&document, DrawnFormat::Svg);
    again.wishes.pattern.changes.clone_from(&document.wishes.pattern.changes);
    again.wishes.pattern.marks.clone_from(&document.wishes.pattern.marks);
    assert!(again.wishes.pattern.marks.len() > 1, "it was marked too");
    let area_of =
        |pieces: &Pieces| pieces.sets[0].pieces.iter().map(|piece| area(&piece.outline)).sum::<f64>();
    let twice = area_of(&laid(&again));
    for piece in &mut again.wishes.pattern.drawn {
        (piece.has, piece.has_try_on) = (document.wishes.pattern.changes.clone(), Some(id));
        piece.has_marks.clone_from(&document.wishes.pattern.marks);
    }
    assert_same(&fitted, &laid(&again), "in it already");
    assert!((twice - area_of(&fitted)).abs() > 100.0, "otherwise it is carried there");
    again.try_ons[0].id = Some(uuid::Uuid::from_u128(8));
    let other = area_of(&laid(&again));
    assert!((other - area_of(&fitted)).abs() > 100.0, "another try-on's is not in it");
}

/// Every piece is changed once it was read, written, and read again: as if it had been changed where it came from.
#[test]
fn what_was_read_is_changed_written_and_read_again() {
    for name in GARMENTS {
        let document = garment(name);
        for format in [DrawnFormat::Svg, DrawnFormat::Dxf] {
            let mut read = there_and_back(&document, format);
            let mut there = document.clone();
            // Nothing is gathered into a fold.
            let sewn = |may: &PieceMay| may.edges.iter().map(|e| e.name).find(|name| *name != EdgeName::Fold);
            let keys: Vec<_> =
                laid(&document).may.iter().filter_map(|may| Some((may.key, sewn(may)?))).collect();
            let changes: Vec<PieceChange> = keys
                .iter()
                .enumerate()
                .flat_map(|(n, (piece, edge))| {
                    let into = Fullness::ALL[n % Fullness::ALL.len()];
                    [
                        PieceChange::Width { piece: *piece, by: m("1.2 cm") },
                        PieceChange::Flare { piece: *piece, by: m("-0.8 cm") },
                        PieceChange::Allowance { piece: *piece, edge: *edge, width: m("2 cm") },
                        PieceChange::Eased { piece: *piece, edge: *edge, by: m("0.6 cm"), into },
                    ]
                })
                .collect();
            read.wishes.pattern.changes.clone_from(&changes);
            there.wishes.pattern.changes = changes;
            let of = format!("{name}, {format:?}");
            let refused: Vec<_> =
                laid(&read).chips.into_iter().filter(|chip| chip.cannot.is_some()).collect();
            assert!(refused.is_empty(), "{of}: {refused:?}");
            assert_same(&laid(&there), &laid(&read), &of);
            let mut again = there_and_back(&read, format);
            assert_same(&laid(&read), &laid(&again), &format!("{of}, again"));
            // Left in the list and said to be in the file already, they are not done a second time.
            let kept = read.wishes.pattern.changes.clone();
            again.wishes.pattern.drawn.iter_mut().for_each(|piece| piece.has.clone_from(&kept));
            again.wishes.pattern.changes = kept;
            assert_same(&laid(&read), &laid(&again), &format!("{of}, in it already"));
        }
    }
}

/// Whatever is made from pieces, and pieces that are cut in two, are written by their names and read again; said to be in the file already, nothing
/// of it is made twice.
#[test]
fn what_is_made_of_pieces_is_written_and_read_again() {
    let mut seen = 0;
    for name in GARMENTS {
        let mut document = garment(name);
        let mut changes = Vec::new();
        for may in laid(&document).may {
            let piece = may.key;
            changes.extend(may.faced.iter().map(|edge| PieceChange::Facing {
                piece,
                edge: edge.name,
                wide: m("3 cm"),
            }));
            changes.push(PieceChange::Lining { piece });
            changes.push(PieceChange::Pocket { piece, deep: m("16 cm"), wide: Some(m("9 cm")) });
            let across = may.edges.iter().filter(|edge| matches!(edge.name, EdgeName::Hem | EdgeName::Waist));
            if let [from, to] =
                across.map(|edge| EdgePlace { edge: edge.name, at: m("6 cm") }).collect::<Vec<_>>()[..]
            {
                changes.push(PieceChange::Split { piece, from, to });
            }
        }
        document.wishes.pattern.changes = changes;
        let told = laid(&document).chips;
        let refused: Vec<_> =
            told.iter().filter(|chip| chip.cannot.is_some()).filter_map(|chip| chip.entered).collect();
        let kept = document.wishes.pattern.changes.iter().enumerate().filter(|(n, _)| !refused.contains(n));
        document.wishes.pattern.changes = kept.map(|(_, change)| change.clone()).collect();
        let made = laid(&document);
        seen += made.may.iter().filter(|may| !may.key.layer.is_outer()).count();
        for format in [DrawnFormat::Svg, DrawnFormat::Dxf] {
            let mut again = there_and_back(&document, format);
            assert!(again.faults().is_empty(), "{name}: {:?}", again.faults());
            assert_same(&made, &laid(&again), &format!("{name}, {format:?}"));
            again.wishes.pattern.changes.clone_from(&document.wishes.pattern.changes);
            for piece in &mut again.wishes.pattern.drawn {
                piece.has.clone_from(&document.wishes.pattern.changes);
            }
            assert_same(&made, &laid(&again), &format!("{name}, {format:?}, in it already"));
        }
    }
    assert!(seen > 30, "{seen}");
}

fn svg(head: &str, lines: &str) -> String {
    format!("<svg xmlns=\"http://www.w3.org/2000/svg\" {head}><g id=\"skirt-front\">{lines}</g></svg>")
}

const MM: &str = "width=\"400mm\" height=\"700mm\" viewBox=\"0 0 400 700\"";
const SQUARE: &str = "<path id=\"fold\" d=\"M0 0 V600\"/><line id=\"hem\" x1=\"0\" y1=\"600\" x2=\"300\" y2=\"600\"/>\
    <polyline id=\"side-seam\" points=\"300,600 300,0\"/><path id=\"waist_edge\" d=\"M0 0.4 H300\"/>";

/// By hand, as a drawing program leaves it: lines in any direction, ends that nearly meet, names as ids, groups that are moved and turned.
#[test]
fn what_was_drawn_by_hand_is_read() {
    let read = |text: &str, unit| {
        let said = Said { unit, ..Said::default() };
        read_drawn(text.as_bytes(), DrawnFormat::Svg, said, Tape::Cm)
    };
    let long = |text: &str, unit| {
        let piece = read(text, unit).unwrap().pieces.remove(0);
        let mut all: Vec<_> = piece.edges.iter().map(|e| (e.name.unwrap().name(), e.long.text())).collect();
        all.sort();
        (piece.drawn().unwrap(), all)
    };
    let (piece, edges) = long(&svg(MM, SQUARE), None);
    let wanted = ["fold 60.0", "hem 30.0", "side seam 60.0", "waist edge 30.0"];
    assert_eq!(
        edges.iter().map(|(name, long)| format!("{name} {long}").replace(" cm", "")).collect::<Vec<_>>(),
        wanted
    );
    assert_eq!(piece.piece.name(), "skirt, front");
    // The same drawn in inches of 25.4 units, moved, turned upside down, on its side and mirrored.
    let inches = MM.replace("400mm", "4in").replace("700mm", "7in").replace("400 700", "101.6 177.8");
    assert_eq!(long(&svg(&inches, SQUARE), None).1, edges);
    let mut document = garment("school-skirt");
    document.wishes.pattern.drawn = vec![piece];
    let flat = laid(&document);
    let shown = flat.sets[0].pieces.iter().find(|shown| shown.name == "Skirt, front").unwrap();
    assert_eq!(shown.cut, "cut 1 on the fold", "what a file does not say is as the garment has it");
    let [hem, fold] =
        ["hem", "fold"].map(|name| shown.edges.iter().find(|e| e.words == name).unwrap().allowance.nm);
    assert!(hem > 10_000_000 && fold == 0, "{hem}, {fold}");
    for turn in
        ["rotate(90)", "rotate(180 20 30)", "scale(-1 1)", "rotate(270) scale(1 -1)", "translate(40,-9)"]
    {
        let grain = "<path id=\"grain\" d=\"M150 500 V100\"/>";
        let lines = format!("<g id=\"skirt-front\" transform=\"{turn}\">{SQUARE}{grain}</g>");
        let (piece, _) = long(&svg(MM, &lines).replace("<g id=\"skirt-front\"><g", "<g><g"), None);
        document.wishes.pattern.drawn = vec![piece];
        assert_same(&flat, &laid(&document), turn);
    }
    // Without its size nobody knows what a unit is, until it is said.
    let bare = svg("", SQUARE);
    assert_eq!(read(&bare, None).unwrap_err().path, "unit");
    assert_eq!(
        read(&svg("width=\"400\" height=\"700px\" viewBox=\"0 0 400 700\"", SQUARE), None).unwrap_err().path,
        "unit"
    );
    assert_eq!(long(&bare, Some(Unit::Mm)).1, edges);
    assert_eq!(
        read(&svg("", &SQUARE.replace("0.4", "0")), Some(Unit::Cm)).unwrap().pieces[0].edges[0].long.text(),
        "600.0 cm"
    );
    // A size that is rounded: all of it is fitted in, as any reader does it.
    for rounded in [("400mm", "402mm"), ("700mm", "703mm")] {
        let piece = read(&svg(&MM.replace(rounded.0, rounded.1), SQUARE), None).unwrap().pieces.remove(0);
        assert_eq!(piece.edges.iter().map(|e| e.long.nm).max(), Some(600_000_000), "{rounded:?}");
    }
    let rect = read(&svg(MM, "<rect x=\"20\" y=\"10\" width=\"300\" height=\"600\"/>"), None).unwrap();
    assert!((area(&rect.pieces[0].outline) - 180_000.0).abs() < 0.01 && rect.pieces[0].edges.len() == 4);
    // One outline is cut at its corners, and somebody says what they are.
    let outline = "<path d=\"M0 0 V600 H300 C310 400 280 200 300 0 Z\"/>";
    let piece = read(&svg(MM, outline), None).unwrap().pieces.remove(0);
    assert_eq!(piece.edges.len(), 4);
    assert!(piece.edges.iter().all(|edge| edge.name.is_none()) && piece.drawn().is_none());
}

/// Sides that differ are written as two pieces by their sides: the first of a name is taken, of the other somebody says what it is.
#[test]
fn pieces_of_sides_that_differ_are_told_apart() {
    let document = read_document(&std::fs::read("../../demo/corduroys.json").unwrap()).unwrap();
    for (written, format) in [(PieceFormat::Svg, DrawnFormat::Svg), (PieceFormat::Dxf, DrawnFormat::Dxf)] {
        let file = write_pieces(&document, written, WhichPieces::All, Paper::A4, Tape::Cm).unwrap();
        let read = read_drawn(&file, format, Said::default(), Tape::Cm).unwrap();
        let says: Vec<(&str, bool)> = read.pieces.iter().map(|p| (&*p.says, p.piece.is_some())).collect();
        let wanted = [
            ("leg, front, left side", true),
            ("leg, back, left side", true),
            ("waistband, left side", true),
            ("leg, front, right side", false),
            ("leg, back, right side", false),
        ];
        assert_eq!(says, wanted, "{format:?}");
    }
}

#[test]
fn what_is_no_piece_is_named() {
    let found = |file: &[u8], format| {
        let complaint = read_drawn(file, format, Said::default(), Tape::Cm).unwrap_err();
        format!("{}: {}", complaint.path, complaint.found)
    };
    let bad = |lines: &str| found(svg(MM, lines).as_bytes(), DrawnFormat::Svg);
    let open = SQUARE.replace("M0 0.4 H300", "M5 0.4 H300");
    let more = |line: &str| format!("{SQUARE}{line}");
    let deep = format!("{}{}", "<g>".repeat(60), "</g>".repeat(60));
    for (lines, wanted) in [
        (open, "skirt-front: an outline that is not closed: after “waist_edge” there are 5.0 mm"),
        (
            more("<path id=\"pleat\" d=\"M50 50 V90\"/>"),
            "skirt-front: the line “pleat”, which is no part of the outline",
        ),
        (more("<path id=\"notch\" d=\"M50 50 V90\"/>"), "skirt-front: “notch” beside every edge"),
        (
            more("<path data-name=\"dart: side\" d=\"M50 0 L60 90 L70 0\"/>"),
            "skirt-front: the dart “dart: side”",
        ),
        (
            more("<path data-name=\"dart: front waist dart\" d=\"M50 0 L60 90\"/>"),
            "skirt-front: the dart “dart: front waist dart”",
        ),
        ("<path d=\"M0 0 L300 600 H0 L300 0 Z\"/>".into(), "skirt-front: an outline that crosses itself"),
        ("<path id=\"hem\" d=\"M0 0 H9 M20 0 H90\"/>".into(), "skirt-front: “hem”, which is no one line"),
        ("<path id=\"hem\" d=\"M0 0 H\"/>".into(), "hem: "),
        ("<path id=\"hem\" transform=\"turn(3)\" d=\"M0 0 H9\"/>".into(), "hem: "),
        (SQUARE.replace("<path id=\"fold\"", "<path id=\"fold\" data-allowance=\"2\""), "fold: 2"),
        (
            "<path d=\"M0 0 C400 0 400 300 0 300 C-400 300 -400 0 0 0 Z\"/>".into(),
            "skirt-front: an outline without a corner",
        ),
        (
            "<path id=\"hem\" d=\"M1e308 0 L5 5 Z\"/>".into(),
            "skirt-front: “hem”, further off than cloth is long",
        ),
        (
            "<path id=\"hem\" transform=\"scale(1e300)\" d=\"M1 0 L5 5 Z\"/>".into(),
            "skirt-front: “hem”, further off",
        ),
        (
            format!("<path d=\"M0 0{}\"/>", " L1 1 L2 0".repeat(1_600)),
            "skirt-front: more pieces or lines than a pattern has",
        ),
        (
            format!("<path d=\"M0 0{}\"/>", " L1 1 L2 0".repeat(1_000)).repeat(40),
            "skirt-front: more pieces or lines",
        ),
        (String::new(), "file: no piece"),
        (deep, "file: groups too deep in each other"),
    ] {
        let says = bad(&lines);
        assert!(says.starts_with(wanted), "{says}, not {wanted}");
    }
    let stretched = svg(&MM.replace("400mm", "200mm"), SQUARE);
    assert!(found(stretched.as_bytes(), DrawnFormat::Svg).starts_with("file: a drawing that is stretched"));
    assert!(found(b"\xff\xfe", DrawnFormat::Svg).starts_with("file: what is no text"));
    assert!(found(b"<html/>", DrawnFormat::Svg).starts_with("file: <html>"));
    assert!(found(b"no such thing", DrawnFormat::Dxf).starts_with("file: "));
    for format in [DrawnFormat::Svg, DrawnFormat::Dxf] {
        assert_eq!(found(&vec![b' '; LARGEST + 1], format), "file: a file that is too large");
    }
}

/// A block with lines to cut along only, in inches by its own words, or in nothing.
#[test]
fn what_is_cut_only_is_asked_about_and_moved_in() {
    use dxf::entities::{Entity, EntityType, LwPolyline, Text};
    let make = |units: &str, round: &[(f64, f64)]| {
        let mut drawing = dxf::Drawing::new();
        drawing.header.version = dxf::enums::AcadVersion::R2000;
        let vertices =
            round.iter().map(|(x, y)| dxf::LwPolylineVertex { x: *x, y: *y, ..Default::default() });
        let mut line = LwPolyline { vertices: vertices.collect(), ..LwPolyline::default() };
        line.set_is_closed(true);
        let on = |layer: &str, kind| {
            let mut entity = Entity::new(kind);
            entity.common.layer = layer.into();
            entity
        };
        let words = Text { value: units.into(), ..Text::default() };
        let entities = vec![on("1", EntityType::LwPolyline(line)), on("1", EntityType::Text(words))];
        drawing.add_block(dxf::Block { name: "SKIRT-FRONT".into(), entities, ..dxf::Block::default() });
        let mut file = Vec::new();
        drawing.save(&mut file).unwrap();
        file
    };
    let read = |file: &[u8], said| read_drawn(file, DrawnFormat::Dxf, said, Tape::Cm);
    let square = [(0.0, 0.0), (10.0, 0.0), (10.0, 20.0), (0.0, 20.0)];
    let said = |unit, allowance: Option<&str>| Said { unit, allowance: allowance.map(m) };
    let file = make("Units: ENGLISH", &square);
    assert_eq!(read(&file, said(None, None)).unwrap_err().path, "allowance");
    assert_eq!(read(&make("", &square), said(None, Some("0 cm"))).unwrap_err().path, "unit");
    let shown = |file: &[u8], said| {
        let piece = read(file, said).unwrap().pieces.remove(0);
        assert_eq!(piece.piece.unwrap().name(), "skirt, front");
        (
            piece.edges.iter().map(|e| e.long.nm / 10_000).collect::<Vec<_>>(),
            piece.edges[0].allowance,
            piece.outline,
        )
    };
    // A file that says its unit keeps it, whatever is said beside.
    assert_eq!(shown(&file, said(Some(Unit::Mm), Some("0 cm"))).0, [25_400, 50_800, 25_400, 50_800]);
    let (long, allowance, _) = shown(&file, said(None, Some("1/2 in")));
    assert_eq!((long, allowance), (vec![22_860, 48_260, 22_860, 48_260], Some(m("1/2 in"))));
    // A round one, and one with a hollow corner: moved in and cut again it is what it was.
    let arc = |n: usize| {
        let turn = std::f64::consts::FRAC_PI_2 * n as f64 / 60.0;
        (200.0 * turn.cos(), 200.0 * turn.sin())
    };
    let hollow = [(0.0, 0.0), (300.0, 0.0), (300.0, 150.0), (120.0, 150.0), (120.0, 400.0), (0.0, 400.0)];
    let quarter: Vec<(f64, f64)> = std::iter::once((0.0, 0.0)).chain((0..=60).map(arc)).collect();
    for round in [&quarter[..], &hollow[..]] {
        let file = make("Units: METRIC", round);
        let whole = shown(&file, said(None, Some("0 cm"))).2;
        let piece = read(&file, said(None, Some("15 mm"))).unwrap().pieces.remove(0);
        let mut drawn = piece.clone();
        let names = [
            EdgeName::Waist,
            EdgeName::Fold,
            EdgeName::Opening,
            EdgeName::Top,
            EdgeName::End,
            EdgeName::Neckline,
        ];
        drawn.edges.iter_mut().zip(names).for_each(|(edge, name)| edge.name = Some(name));
        let mut document = garment("school-skirt");
        document.wishes.pattern.drawn = vec![drawn.drawn().unwrap()];
        let laid = laid(&document);
        let again = laid.sets[0].pieces.iter().find(|p| Some(p.key) == piece.piece).unwrap();
        let [a, b] = [&whole, &again.cut_line].map(|path| area(path));
        assert!((a - b).abs() < 40.0, "{a} and {b} mm²");
    }
    assert!(read(&file, said(None, Some("6 in"))).is_err(), "more than it is wide");
    assert_eq!(read(&file, said(None, Some("-1 cm"))).unwrap_err().path, "allowance");
}

/// An edge that is an arc, of either kind of polyline or of its own, is as long as an arc is; what is no line or arc is named.
#[test]
fn arcs_are_read_as_they_are_and_other_curves_are_named() {
    use dxf::entities::{Arc, Entity, EntityType, Line, LwPolyline, Polyline, Spline, Vertex};
    let read = |entities: Vec<EntityType>| {
        let mut drawing = dxf::Drawing::new();
        drawing.header.version = dxf::enums::AcadVersion::R2000;
        drawing.header.default_drawing_units = dxf::enums::Units::Millimeters;
        let on = |kind| {
            let mut entity = Entity::new(kind);
            entity.common.layer = "14".into();
            entity
        };
        let entities = entities.into_iter().map(on).collect();
        drawing.add_block(dxf::Block { name: "SKIRT-FRONT".into(), entities, ..dxf::Block::default() });
        let mut file = Vec::new();
        drawing.save(&mut file).unwrap();
        read_drawn(&file, DrawnFormat::Dxf, Said::default(), Tape::Cm)
    };
    let corners = [(0.0, 0.0), (300.0, 0.0), (300.0, 500.0), (0.0, 500.0)];
    let at = |n: usize| dxf::Point::new(corners[n % 4].0, corners[n % 4].1, 0.0);
    for turns in [-170.0, -90.0, -20.0, 0.5, 45.0, 120.0, 179.0_f64] {
        let bulge = |n: usize| if n == 0 { (turns.to_radians() / 4.0).tan() } else { 0.0 };
        let vertices = (0..4).map(|n| dxf::LwPolylineVertex {
            x: at(n).x,
            y: at(n).y,
            bulge: bulge(n),
            ..Default::default()
        });
        let mut light = LwPolyline { vertices: vertices.collect(), ..LwPolyline::default() };
        light.set_is_closed(true);
        let mut heavy = Polyline::default();
        for n in 0..4 {
            let vertex = Vertex { location: at(n), bulge: bulge(n), ..Vertex::default() };
            heavy.add_vertex(&mut dxf::Drawing::new(), vertex);
        }
        heavy.set_is_closed(true);
        // Of an arc of its own the centre is known, and the way it turns is to the left.
        let half = turns.to_radians() / 2.0;
        let (radius, off) = ((150.0 / half.sin()).abs(), 150.0 / half.tan());
        let centre = dxf::Point::new(150.0, off, 0.0);
        let angle = |n: usize| (at(n).y - centre.y).atan2(at(n).x - centre.x).to_degrees();
        let [from, to] = if turns > 0.0 { [0, 1] } else { [1, 0] };
        let arc = Arc {
            center: centre.clone(),
            radius,
            start_angle: angle(from),
            end_angle: angle(to),
            ..Arc::default()
        };
        let lines = (1..4).map(|n| EntityType::Line(Line { p1: at(n), p2: at(n + 1), ..Line::default() }));
        let kinds = [
            vec![EntityType::LwPolyline(light)],
            vec![EntityType::Polyline(heavy)],
            lines.chain([EntityType::Arc(arc)]).collect(),
        ];
        let long = radius * 2.0 * half.abs();
        let cloth = 150_000.0 + radius * radius * (2.0 * half - (2.0 * half).sin()) / 2.0;
        for (n, entities) in kinds.into_iter().enumerate() {
            let piece = read(entities).unwrap_or_else(|why| panic!("{turns}, {n}: {why:?}")).pieces.remove(0);
            let outline = kurbo::BezPath::from_svg(&piece.outline).unwrap();
            let round = kurbo::Shape::perimeter(&outline, 1e-6);
            assert!((round - 1_300.0 - long).abs() < 0.01, "{turns}°, {n}: {round}, not {}", 1_300.0 + long);
            let is = area(&piece.outline);
            assert!((is - cloth).abs() < 0.5, "{turns}°, {n}: {is}, not {cloth} mm²");
        }
    }
    let mut fitted = Polyline::default();
    fitted.set_spline_fit_vertices_added(true);
    for (kind, wanted) in [
        (EntityType::Spline(Spline::default()), "a spline"),
        (EntityType::Ellipse(dxf::entities::Ellipse::default()), "an ellipse"),
        (EntityType::Polyline(fitted), "a polyline with a spline"),
    ] {
        let why = read(vec![kind]).unwrap_err();
        assert!(why.path == "SKIRT-FRONT" && why.found.starts_with(wanted), "{why:?}");
    }
}

/// Drill marks are written and read as points or circles; those of darts are never more than the darts are.
#[test]
fn drill_marks_are_written_and_read() {
    let far = |[a, b]: [[f64; 2]; 2]| (a[0] - b[0]).hypot(a[1] - b[1]);
    for name in GARMENTS {
        for format in [DrawnFormat::Svg, DrawnFormat::Dxf] {
            let mut once = there_and_back(&garment(name), format);
            assert!(
                once.wishes.pattern.drawn.iter().all(|piece| piece.drills_mm.is_empty()),
                "{name}: of darts"
            );
            for piece in &mut once.wishes.pattern.drawn {
                let grain = piece.grain_mm.unwrap();
                let at = |share: f64, out: f64| {
                    [0, 1].map(|n| {
                        grain[0][n] + (grain[1][n] - grain[0][n]) * share + out * (n as f64 * 2.0 - 1.0)
                    })
                };
                piece.drills_mm = vec![at(0.4, 1.0), at(0.6, -2.0)];
            }
            let twice = there_and_back(&once, format);
            for (was, is) in once.wishes.pattern.drawn.iter().zip(&twice.wishes.pattern.drawn) {
                assert_eq!(was.piece, is.piece);
                let ([a, b], [c, d]) = (&was.drills_mm[..], &is.drills_mm[..]) else {
                    panic!("{name}: {is:?}")
                };
                let both = [(was.grain_mm.unwrap(), [a, b]), (is.grain_mm.unwrap(), [c, d])];
                let [x, y] =
                    both.map(|(grain, [a, b])| [far([grain[0], *a]), far([grain[1], *b]), far([*a, *b])]);
                assert!(
                    x.iter().zip(y).all(|(x, y)| (x - y).abs() < 0.01),
                    "{name}, {format:?}: {x:?} {y:?}"
                );
            }
        }
    }
    // As other programs draw them: circles.
    let file =
        write_pieces(&garment("pinafore-toile"), PieceFormat::Dxf, WhichPieces::All, Paper::A4, Tape::Cm);
    let mut drawing = dxf::Drawing::load(&mut &file.unwrap()[..]).unwrap();
    let is_hole = |entity: &&mut dxf::entities::Entity| entity.common.layer == "13";
    let mut holes = 0;
    for hole in drawing.blocks_mut().flat_map(|block| &mut block.entities).filter(is_hole) {
        let dxf::entities::EntityType::ModelPoint(point) = &hole.specific else { panic!("{hole:?}") };
        let center = dxf::Point::new(point.location.x + 30.0, point.location.y, 0.0);
        hole.specific = dxf::entities::EntityType::Circle(dxf::entities::Circle {
            center,
            radius: 1.5,
            ..Default::default()
        });
        holes += 1;
    }
    let mut moved = Vec::new();
    drawing.save(&mut moved).unwrap();
    let read = read_drawn(&moved, DrawnFormat::Dxf, Said::default(), Tape::Cm).unwrap();
    assert_eq!((read.pieces.iter().map(|piece| piece.drills_mm.len()).sum::<usize>(), holes), (3, 3));
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 24, failure_persistence: None, ..ProptestConfig::default() })]

    /// What is begun, of every kind on whatever body, with whatever is done to its pieces: written and read again it is the same.
    #[test]
    fn whatever_is_begun_on_every_body_is_written_and_read_again(
        scales in prop::collection::vec(0.9..1.12f64, 40), kind in prop::sample::select(Kind::ALL),
        format in prop::sample::select(vec![DrawnFormat::Svg, DrawnFormat::Dxf]),
        picked in prop::collection::vec((any::<prop::sample::Index>(), 0usize..7, 3i64..=18), 0..4),
    ) {
        let mut document = garment("pinafore-toile");
        for (taken, by) in document.wearer.measurements.iter_mut().zip(&scales) {
            let scaled = |value: &mut Measure| value.length = Tape::Cm.round(Length::from_cm(value.length.cm() * by));
            taken.value.as_mut().map(scaled);
        }
        let cloth = cloth_named(kind.template().cloth).unwrap();
        let wearer = document.wearer.clone();
        document.states.truncate(1);
        document.states[0].garment = begin(Beginning { name: "it".into(), kind, toile: true, wearer, cloth });
        document.record = Vec::new();
        for (which, does, by) in picked {
            let may = laid(&document).may;
            let may = which.get(&may);
            let (piece, by) = (may.key, Measure { length: Length::from_mm(by), unit: Unit::Cm });
            let at = |edge: &EdgeName| EdgePlace { edge: *edge, at: m("6 cm") };
            let across: Vec<EdgePlace> = [EdgeName::Hem, EdgeName::Waist, EdgeName::Top].iter().filter(|name| may.edges.iter().any(|e| e.name == **name)).map(at).collect();
            let change = match (does, may.levels.first(), may.faced.first(), &across[..]) {
                (0, Some(below), ..) => PieceChange::Wedge { piece, below: *below, at: OpensAt::Middle, by },
                (1, _, Some(edge), _) => PieceChange::Facing { piece, edge: edge.name, wide: m("3 cm") },
                (2, .., [from, to, ..]) => PieceChange::Split { piece, from: *from, to: *to },
                (3, ..) => PieceChange::Lining { piece },
                (4, ..) => PieceChange::Armhole { piece, lower: by, inwards: by },
                (5, ..) => PieceChange::Flare { piece, by },
                _ => PieceChange::Allowance { piece, edge: may.edges[0].name, width: by },
            };
            document.wishes.pattern.changes.push(change);
            let is_refused = laid(&document).chips.iter().any(|chip| chip.cannot.is_some());
            if is_refused || !document.faults().is_empty() {
                document.wishes.pattern.changes.pop();
            }
        }
        let again = there_and_back(&document, format);
        prop_assert_eq!(again.faults(), vec![]);
        assert_same(&laid(&document), &laid(&again), &format!("{kind:?}, {format:?}"));
    }
}
