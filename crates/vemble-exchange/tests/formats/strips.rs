//! What is chalked, at true size: each file is read back by another reader, and measured.

use vemble_core::card::{Block, TableRow};
use vemble_core::change::ChangeKey;
use vemble_core::document::Document;
use vemble_core::length::Tape;
use vemble_core::pattern::{OfCloth, WhichPieces, piece_sheets, pieces};
use vemble_core::solve::{Solved, solve};
use vemble_exchange::document::read_document;
use vemble_exchange::pdf::{Paper, strips_pdf, tiled};
use vemble_exchange::pieces::{PieceFormat, PiecesError, write_pieces};
use vemble_exchange::strips::{StripsError, as_svg, laid_out, strips_dxf, strips_svg};

/// A tenth of a millimetre.
const EXACT: f64 = 0.1;

fn example(name: &str) -> Solved {
    let json = std::fs::read(format!("../../demo/{name}.json")).unwrap();
    let document: Document = read_document(&json).unwrap();
    solve(&document, Tape::Cm).unwrap()
}

fn key(text: &str) -> Option<ChangeKey> {
    Some(text.parse().unwrap())
}

/// The numbers of a path, two by two: ends and what bends it.
fn points(path: &str) -> Vec<(f64, f64)> {
    let numbers: Vec<f64> = path
        .split(|c: char| c.is_ascii_alphabetic() || c == ' ' || c == ',')
        .filter_map(|n| n.parse().ok())
        .collect();
    numbers.chunks_exact(2).map(|pair| (pair[0], pair[1])).collect()
}

fn box_of(points: impl IntoIterator<Item = (f64, f64)>) -> [f64; 4] {
    points.into_iter().fold([f64::MAX, f64::MAX, f64::MIN, f64::MIN], |b, (x, y)| {
        [b[0].min(x), b[1].min(y), b[2].max(x), b[3].max(y)]
    })
}

/// How wide and how high.
fn size([x0, y0, x1, y1]: [f64; 4]) -> (f64, f64) {
    (x1 - x0, y1 - y0)
}

fn is_near((a, b): (f64, f64), (x, y): (f64, f64)) -> bool {
    (a - x).abs() < EXACT && (b - y).abs() < EXACT
}

fn attribute<'s>(line: &'s str, name: &str) -> Option<&'s str> {
    line.split_once(&format!(" {name}=\""))?.1.split('"').next()
}

/// The paths of a class in an SVG.
fn paths<'s>(svg: &'s str, class: &str) -> Vec<&'s str> {
    let of_class = |line: &&str| attribute(line, "class") == Some(class);
    svg.lines().filter(of_class).filter_map(|line| attribute(line, "d")).collect()
}

/// What is sewn of each piece, its edges one after the other.
fn outlines(svg: &str) -> Vec<String> {
    svg.split("<g data-cut=")
        .skip(1)
        .map(|group| {
            let group = group.split("</g>").next().unwrap_or_default();
            paths(group, "new").join(" ")
        })
        .collect()
}

#[test]
fn svg_says_its_size_and_holds_the_lines_that_are_chalked() {
    let solved = example("corduroys");
    let svg = strips_svg(&solved, key("seam.outseam")).unwrap();
    let head = svg.lines().next().unwrap();
    let view: Vec<f64> = attribute(head, "viewBox").unwrap().split(' ').map(|n| n.parse().unwrap()).collect();
    let mm = |name: &str| attribute(head, name).unwrap().trim_end_matches("mm").parse::<f64>().unwrap();
    assert!(is_near((mm("width"), mm("height")), (view[2], view[3])), "a unit of it is a millimetre");
    let squares: Vec<(f64, f64)> =
        paths(&svg, "test-square").iter().map(|d| size(box_of(points(d)))).collect();
    assert!(is_near(squares[0], (50.0, 50.0)) && is_near(squares[1], (50.8, 50.8)), "{squares:?}");
    // The old stitching is as long as the seam; at every row of the card the new line is as deep as is chalked there, to half a mark of the
    // tape, which is what chalk rounds.
    let try_on = &solved.try_ons[0];
    let change = try_on.changes.iter().find(|change| change.key.to_string() == "seam.outseam").unwrap();
    let length = change.line().unwrap().strip.length_mm;
    let old = paths(&svg, "old");
    assert!((size(box_of(points(old[0]))).0 - length).abs() < EXACT);
    let new = kurbo::BezPath::from_svg(paths(&svg, "new")[0]).unwrap();
    let axis = points(old[0])[0];
    let card = try_on.cards.iter().find(|card| card.key == change.key).unwrap();
    let rows = card.blocks.iter().find_map(|block| match block {
        Block::Table(table) => Some(&table.rows),
        _ => None,
    });
    let mm = |row: &TableRow, n: usize| row.cells[n].figure.map(|figure| figure.measure().length.cm() * 10.0);
    let mut met = 0;
    for (station, deep) in rows.unwrap().iter().filter_map(|row| Some((mm(row, 0)?, mm(row, 1)?))) {
        // Right at an end a line is met only just inside.
        let x = axis.0 + station.clamp(0.01, length - 0.01);
        let upright = kurbo::Line::new((x, -1e4), (x, 1e4));
        let Some(hit) = new.segments().find_map(|s| s.intersect_line(upright).first().copied()) else {
            continue;
        };
        let there = (-1e4 + 2e4 * hit.line_t - axis.1).abs();
        assert!((there - deep).abs() < 0.5 + EXACT, "{station}: {there}, chalked {deep}");
        met += 1;
    }
    assert!(met > 8, "{met} rows");
}

#[test]
fn dxf_is_read_again_on_its_layers_in_millimetres() {
    for (name, of) in [("corduroys", "seam.outseam"), ("pinafore-toile", "armhole.both")] {
        let solved = example(name);
        let bytes = strips_dxf(&solved, key(of)).unwrap();
        let drawing = dxf::Drawing::load(&mut &bytes[..]).unwrap();
        assert_eq!(drawing.header.default_drawing_units, dxf::enums::Units::Millimeters);
        let of_layer = |layer: &str| -> Vec<[f64; 4]> {
            let entities = drawing.entities().filter(|entity| entity.common.layer == layer);
            entities
                .filter_map(|entity| match &entity.specific {
                    dxf::entities::EntityType::LwPolyline(line) => {
                        Some(box_of(line.vertices.iter().map(|v| (v.x, v.y))))
                    }
                    _ => None,
                })
                .collect()
        };
        assert!(
            is_near(size(of_layer("1")[0]), (50.0, 50.0)) && is_near(size(of_layer("1")[1]), (50.8, 50.8))
        );
        // The same lines as in the SVG, the other way up.
        let svg = strips_svg(&solved, key(of)).unwrap();
        for (layer, class) in [("8", "old"), ("14", "new"), ("11", "cut"), ("4", "mark")] {
            let there = of_layer(layer);
            let here: Vec<[f64; 4]> = paths(&svg, class)
                .iter()
                .map(|d| {
                    let b = kurbo::Shape::bounding_box(&kurbo::BezPath::from_svg(d).unwrap());
                    [b.x0, -b.y1, b.x1, -b.y0]
                })
                .collect();
            // A path of several strokes is several polylines: all of a layer together.
            let all = |boxes: &[[f64; 4]]| box_of(boxes.iter().flat_map(|b| [(b[0], b[1]), (b[2], b[3])]));
            assert_eq!(there.is_empty(), here.is_empty(), "{layer}");
            let (a, b) = (all(&there), all(&here));
            assert!(
                a.iter().zip(b).all(|(a, b)| here.is_empty() || (a - b).abs() < EXACT),
                "{layer}: {a:?} {b:?}"
            );
        }
    }
}

/// What is drawn on a page, stroke by stroke, in mm.
fn strokes(pdf: &lopdf::Document, page: lopdf::ObjectId) -> Vec<Vec<(f64, f64)>> {
    let content = lopdf::content::Content::decode(&pdf.get_page_content(page)).unwrap();
    let mm = |n: &lopdf::Object| f64::from(n.as_float().unwrap()) * 25.4 / 72.0;
    let mut strokes: Vec<Vec<(f64, f64)>> = Vec::new();
    for operation in &content.operations {
        if !matches!(&operation.operator[..], "m" | "l" | "c") {
            continue;
        }
        if operation.operator == "m" {
            strokes.push(Vec::new());
        }
        let numbers: Vec<f64> = operation.operands.iter().map(mm).collect();
        strokes.last_mut().unwrap().extend(numbers.chunks_exact(2).map(|pair| (pair[0], pair[1])));
    }
    strokes
}

#[test]
fn pages_laid_edge_to_edge_give_back_what_is_drawn() {
    let solved = example("corduroys");
    let of = key("seam.outseam");
    let svg = strips_svg(&solved, of).unwrap();
    for paper in [Paper::A4, Paper::Letter] {
        let pdf = lopdf::Document::load_mem(&strips_pdf(&solved, of, paper).unwrap()).unwrap();
        let pages: Vec<Vec<Vec<(f64, f64)>>> =
            pdf.get_pages().values().map(|id| strokes(&pdf, *id)).collect();
        assert!(pages.len() > 2, "a leg is longer than a page");
        let all = || pages.iter().flatten();
        let has =
            |wanted: (f64, f64)| all().any(|stroke| is_near(size(box_of(stroke.iter().copied())), wanted));
        assert!(has((50.0, 50.0)) && has((50.8, 50.8)), "test squares on {paper:?}");
        // The frame is what a page is cut to; what lies on several pages is drawn on each, a frame further left every time, and the frames
        // together cover all of it.
        let frame = box_of(pages[0][0].iter().copied());
        let wide = size(frame).0;
        for class in ["old", "new"] {
            let wanted = size(box_of(points(paths(&svg, class)[0])));
            let own = |page: &Vec<Vec<(f64, f64)>>| {
                let boxes = page.iter().map(|stroke| box_of(stroke.iter().copied()));
                boxes.into_iter().find(|b| is_near(size(*b), wanted))
            };
            let there: Vec<[f64; 4]> = pages.iter().filter_map(own).collect();
            assert!(there.len() > 1, "{class} on {paper:?}");
            for pair in there.windows(2) {
                assert!(
                    (pair[0][0] - pair[1][0] - wide).abs() < EXACT && (pair[0][1] - pair[1][1]).abs() < EXACT
                );
            }
            assert!(
                there[0][0] > frame[0] && there[there.len() - 1][2] < frame[2],
                "{class}: nothing is lost at either end"
            );
        }
    }
    let nothing = strips_pdf(&solved, key("hem.leg"), Paper::A4);
    assert!(matches!(nothing, Err(StripsError::Nothing)));
}

#[test]
fn a_panel_is_cut_as_its_card_says() {
    let json = std::fs::read("../../demo/tea-dress.json").unwrap();
    let mut dress: Document = read_document(&json).unwrap();
    dress.try_ons.truncate(1);
    let change = serde_json::json!({ "seam": { "seam": "centre_back", "set_in": true, "readings": [
        { "side": "left", "station": "60 cm", "amount": "6 cm", "how": "gap" },
        { "side": "left", "station": "0 cm", "amount": "2 cm", "how": "gap" },
    ] } });
    dress.try_ons[0].changes = vec![serde_json::from_value(change).unwrap()];
    let solved = solve(&dress, Tape::Cm).unwrap();
    let cloth = solved.try_ons[0].checks.iter().find(|c| c.title.starts_with("Cloth for the panel")).unwrap();
    // "1 piece 6.0 + 2 allowances × 1.5 = 9.0 cm wide, … + 1 allowance of 1.5 + 5.0 turned up = 83.6 cm long"
    let said: Vec<f64> = cloth
        .figures
        .match_indices(" = ")
        .map(|(at, _)| cloth.figures[at + 3..].split(' ').next().unwrap().parse::<f64>().unwrap() * 10.0)
        .collect();
    let svg = strips_svg(&solved, key("seam.centre_back")).unwrap();
    let (long, wide) = size(box_of(points(paths(&svg, "cut")[0])));
    // Both are said at marks of the tape: half a mark at either end, and half a mark on either edge.
    assert!(
        (wide - said[0]).abs() <= 1.0 + EXACT && (long - said[1]).abs() <= 1.0 + EXACT,
        "{said:?} {wide} {long}"
    );
    let dxf = strips_dxf(&solved, key("seam.centre_back")).unwrap();
    assert!(!dxf.is_empty());
}

#[test]
fn a_facing_is_as_long_as_its_edge_and_as_wide_everywhere() {
    use kurbo::{ParamCurveArclen, ParamCurveNearest};
    let solved = example("pinafore-toile");
    let svg = strips_svg(&solved, key("armhole.both")).unwrap();
    let read = |class: &str| -> Vec<kurbo::BezPath> {
        paths(&svg, class).iter().map(|d| kurbo::BezPath::from_svg(d).unwrap()).collect()
    };
    // The armhole as it will be, both edges on one drawing, then front and back facing.
    let (new, cut) = (read("new"), read("cut"));
    let long = |path: &kurbo::BezPath| path.segments().map(|s| s.arclen(1e-6)).sum::<f64>();
    assert_eq!((new.len(), cut.len()), (3, 2));
    assert!((long(&new[0]) - long(&new[1]) - long(&new[2])).abs() < EXACT);
    let seam = solved.try_ons.last().unwrap();
    let card = seam.cards.iter().find(|card| card.key.to_string() == "armhole.both").unwrap();
    assert!(
        card.blocks
            .iter()
            .any(|b| matches!(b, Block::Steps(s) if s.iter().any(|s| s.text.contains("6.0 cm wide"))))
    );
    for (stitching, cut) in new[1..].iter().zip(&cut) {
        let off = |at: kurbo::Point| {
            let near = stitching.segments().map(|s| s.nearest(at, 1e-6).distance_sq);
            near.fold(f64::MAX, f64::min).sqrt()
        };
        // Whatever is cut lies one allowance from the stitching, or 6 cm; where the edge turns the free one lies nearer to its next part.
        let curved = cut.segments().filter(|s| matches!(s, kurbo::PathSeg::Cubic(_)));
        let beside: Vec<f64> = curved.map(|s| off(kurbo::ParamCurve::eval(&s, 0.5))).collect();
        assert!(
            beside.iter().all(|off| (off - 60.0).abs() < 0.5 || (off - 15.0).abs() < EXACT),
            "{beside:?}"
        );
        assert!(beside.iter().any(|off| *off > 30.0) && beside.iter().any(|off| *off < 30.0));
    }
}

/// A document of the example, whose pieces are drawn.
fn toile() -> Document {
    read_document(&std::fs::read("../../demo/pinafore-toile.json").unwrap()).unwrap()
}

/// Only what is not as it was: nothing of a garment that nobody changed, one piece where one was.
#[test]
fn pieces_that_changed_are_printed_alone() {
    let mut document = toile();
    document.try_ons.clear();
    document.wishes = vemble_core::work::Wishes::default();
    let written = |document: &Document, which| {
        write_pieces(document, PieceFormat::Svg, which, Paper::A4, Tape::Cm)
            .map(|svg| outlines(std::str::from_utf8(&svg).unwrap()).len())
    };
    let all = written(&document, WhichPieces::All).unwrap();
    let none = written(&document, WhichPieces::Changed);
    assert!(matches!(none, Err(PiecesError::Strips(StripsError::Nothing))), "{none:?}");
    let piece = pieces(&document, OfCloth::default(), Tape::Cm).unwrap().may[0].key;
    let by = vemble_core::length::Measure::read("1 cm", None).unwrap();
    document.wishes.pattern.changes = vec![vemble_core::work::PieceChange::Width { piece, by }];
    assert_eq!(written(&document, WhichPieces::Changed).unwrap(), 1);
    assert_eq!(written(&document, WhichPieces::All).unwrap(), all);
}

/// Every piece measured in the files: its outline, and its edges as long as is said of them. Those with a dart are longer by what it takes.
#[test]
fn pieces_are_printed_at_true_size() {
    let sheets = piece_sheets(&toile(), WhichPieces::All, Tape::Cm).unwrap();
    assert!(sheets.len() > 3, "{}", sheets.len());
    let pieces = pieces(&toile(), OfCloth::default(), Tape::Cm).unwrap();
    let list = pieces.cutting_list();
    assert!(list.contains("Bodice, back: cut 1 on the fold\n  waist edge: "), "{list}");
    assert!(list.lines().last().unwrap().starts_with("About "), "{list}");
    let laid = laid_out(sheets).unwrap();
    let svg = as_svg(&laid);
    let outlines = outlines(&svg);
    let shown: Vec<_> = pieces.sets.iter().flat_map(|set| &set.pieces).collect();
    assert_eq!(outlines.len(), shown.len());
    for (outline, piece) in outlines.iter().zip(&shown) {
        let [drawn, wanted] = [outline, &piece.outline].map(|path| size(box_of(points(path))));
        assert!(is_near(drawn, wanted), "{}: {drawn:?} instead of {wanted:?}", piece.name);
        // Edge by edge they are as long as is said, with what is said of it to be gathered, but for what darts take.
        for edge in &piece.edges {
            let path = kurbo::BezPath::from_svg(&edge.path).unwrap();
            let long: f64 = path.segments().map(|s| kurbo::ParamCurveArclen::arclen(&s, 1e-4)).sum();
            let gathered = edge.words.split_once(", ").map(|(_, of_it)| {
                let figure = of_it.strip_suffix(" cm of it gathered");
                10.0 * figure.and_then(|cm| cm.parse::<f64>().ok()).unwrap_or_else(|| panic!("{of_it}"))
            });
            let said = edge.long.nm as f64 / 1e6 + gathered.unwrap_or(0.0);
            let has_dart =
                piece.name.starts_with("Bodice") && ["waist edge", "side seam"].contains(&&edge.words[..]);
            // To half a mark for each figure, and what is left off the figures of its path.
            let half = if gathered.is_some() { 1.0 } else { 0.5 } + 0.01;
            let is_as_said = if has_dart { long > said - half } else { (long - said).abs() <= half };
            assert!(is_as_said, "{}, {}: {long} instead of {said}", piece.name, edge.words);
        }
    }
    // The same outlines in DXF, read by another reader.
    let dxf = write_pieces(&toile(), PieceFormat::Dxf, WhichPieces::All, Paper::A4, Tape::Cm).unwrap();
    let drawing = dxf::Drawing::load(&mut std::io::Cursor::new(dxf)).unwrap();
    let vertices = |entity: &dxf::entities::Entity| match &entity.specific {
        dxf::entities::EntityType::LwPolyline(line) if entity.common.layer == "14" => {
            line.vertices.iter().map(|v| (v.x, v.y)).collect()
        }
        _ => Vec::new(),
    };
    let blocks = drawing.blocks().filter(|block| !block.name.starts_with('*'));
    let sewn: Vec<(f64, f64)> =
        blocks.map(|block| size(box_of(block.entities.iter().flat_map(vertices)))).collect();
    assert_eq!(sewn.len(), shown.len());
    for (sewn, outline) in sewn.iter().zip(&outlines) {
        let path = kurbo::BezPath::from_svg(outline).unwrap();
        let wanted = kurbo::Shape::bounding_box(&path);
        assert!(is_near(*sewn, (wanted.width(), wanted.height())), "{sewn:?} instead of {wanted:?}");
    }
    // Over pages, with both squares.
    for paper in [Paper::A4, Paper::Letter] {
        let pdf = lopdf::Document::load_mem(&tiled(&laid, paper).unwrap()).unwrap();
        let pages: Vec<_> = pdf.get_pages().values().map(|id| strokes(&pdf, *id)).collect();
        let all = || pages.iter().flatten();
        let has =
            |wanted: (f64, f64)| all().any(|stroke| is_near(size(box_of(stroke.iter().copied())), wanted));
        assert!(has((50.0, 50.0)) && has((50.8, 50.8)), "test squares on {paper:?}");
        for outline in &outlines {
            let wanted = size(box_of(points(outline)));
            assert!(has(wanted), "an outline of {wanted:?} mm on {paper:?}");
        }
    }
}
