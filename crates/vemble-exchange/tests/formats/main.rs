//! The formats, by the example document: what is printed on a card and written to a file.

mod calendars;
mod cases;
mod documents;
mod drawn;
mod mutated;
mod redrawn;
mod strips;

use image::{ImageFormat, Rgb, RgbImage};
use std::io::Cursor;
use vemble_core::card::{Block, Card, Table, TableRow};
use vemble_core::change::ChangeKey;
use vemble_core::document::Document;
use vemble_core::judge::Outcome;
use vemble_core::length::Tape;
use vemble_core::solve::{Solved, glance, solve};
use vemble_exchange::document::read_document;
use vemble_exchange::marks_csv::marks_csv;
use vemble_exchange::measurements_csv::{measurements_csv, read_measurements_csv};
use vemble_exchange::pdf::{CardsError, Paper, cards_pdf};
use vemble_exchange::photo::{PhotoError, clean_photo};
use vemble_exchange::text::cards_text;

const DEMO: &str = include_str!("../../../../demo/corduroys.json");

fn demo() -> Document {
    read_document(DEMO.as_bytes()).unwrap()
}

#[test]
fn the_card_as_text() {
    insta::assert_snapshot!("card_cm", cards_text(&solve(&demo(), Tape::Cm).unwrap(), None));
    insta::assert_snapshot!("card_in", cards_text(&solve(&demo(), Tape::InSixteenths).unwrap(), None));
}

const PAPERS: [Paper; 3] = [Paper::A5, Paper::A4, Paper::Letter];

/// A page of a PDF; all in points.
struct Page {
    /// Its words, without the space between them.
    text: String,
    /// Where everything on it stands.
    placed: Vec<(f32, f32)>,
    /// Width and height.
    size: (f32, f32),
}

fn pages(pdf: &[u8]) -> Vec<Page> {
    let pdf = lopdf::Document::load_mem(pdf).unwrap();
    let page = |(number, id): (u32, lopdf::ObjectId)| {
        let text = pdf.extract_text(&[number]).unwrap().split_whitespace().collect();
        let size = pdf.get_dictionary(id).unwrap().get(b"MediaBox").unwrap().as_array().unwrap();
        let size = (size[2].as_float().unwrap(), size[3].as_float().unwrap());
        let content = lopdf::content::Content::decode(&pdf.get_page_content(id)).unwrap();
        let placed = content.operations.iter().filter(|o| matches!(&o.operator[..], "m" | "l" | "c" | "Tm"));
        let at = |o: &lopdf::content::Operation| {
            let numbers: Vec<f32> = o.operands.iter().map(|n| n.as_float().unwrap()).collect();
            (numbers[numbers.len() - 2], numbers[numbers.len() - 1])
        };
        Page { text, placed: placed.map(at).collect(), size }
    };
    pdf.get_pages().into_iter().map(page).collect()
}

/// The PDF has what the card has, in its order, and nothing of it beyond the paper.
fn says_the_card(solved: &Solved, paper: Paper) {
    let try_on = &solved.try_ons[0];
    for card in &try_on.cards {
        let pages = pages(&cards_pdf(solved, Some(card.key), paper).unwrap());
        let foot = |n: usize| format!("{} · page {} of {}", card.title, n + 1, pages.len());
        let mut rest = String::new();
        for (number, Page { text, placed, size: (width, height) }) in pages.iter().enumerate() {
            let foot: String = foot(number).split_whitespace().collect();
            assert_eq!(pages.len() > 1, text.ends_with(&foot), "{text}");
            rest += text.strip_suffix(&foot).unwrap_or(text);
            let inside =
                |(x, y): &(f32, f32)| (20.0..=width - 20.0).contains(x) && (20.0..=height - 20.0).contains(y);
            let outside: Vec<_> = placed.iter().filter(|at| !inside(at)).collect();
            assert!(placed.len() > 10 && outside.is_empty(), "{paper:?} {}: {outside:?}", card.key);
        }
        // Fractions are set with the stroke that belongs to them.
        let plain = |text: &str| text.replace('\u{2044}', "/").split_whitespace().collect::<String>();
        let rest = plain(&rest);
        let said_in_order = |parts: &[String]| {
            let mut rest = &rest[..];
            parts.iter().all(|said| match rest.split_once(&plain(said)) {
                Some((_, after)) => {
                    rest = after;
                    true
                }
                None => false,
            })
        };
        // Where all columns do not fit beside each other, their groups stand one below the other.
        assert!(
            said_in_order(&written(card, false)) || said_in_order(&written(card, true)),
            "{paper:?} {}: {rest}",
            card.key
        );
    }
}

/// Everything that stands on a card, in its order; groups of columns beside each other or one below the other.
fn written(card: &Card, below: bool) -> Vec<String> {
    let mut all = vec![card.title.clone(), card.garment.clone()];
    for block in &card.blocks {
        match block {
            Block::Heading(text)
            | Block::Text(text)
            | Block::Note(text)
            | Block::Caution(text)
            | Block::Line(text) => all.push(text.clone()),
            Block::Steps(steps) => all.extend(steps.iter().map(|step| step.text.clone())),
            Block::Table(table) => all.extend(figures(table, below)),
            Block::Drawing(_) => {}
        }
    }
    all
}

fn figures(table: &Table, below: bool) -> Vec<String> {
    let groups = table.columns.iter().map(|c| c.group).max().unwrap_or(0);
    let in_group = |wanted: u8| -> Vec<usize> {
        let columns = table.columns.iter().enumerate().skip(1);
        let own = columns.filter(|(_, c)| !below || c.group == wanted).map(|(n, _)| n);
        std::iter::once(0).chain(own).collect()
    };
    let tables: Vec<Vec<usize>> =
        if below { (0..=groups).map(in_group).collect() } else { vec![in_group(0)] };
    let rows = |columns: &Vec<usize>| {
        let cells = |row: &TableRow| columns.iter().map(|n| row.cells[*n].text.clone()).collect::<Vec<_>>();
        table.rows.iter().flat_map(cells).collect::<Vec<_>>()
    };
    tables.iter().filter(|columns| columns.len() > 1).flat_map(rows).collect()
}

#[test]
fn the_card_when_the_sides_differ_and_something_is_trimmed() {
    let mut json: serde_json::Value = serde_json::from_str(DEMO).unwrap();
    let alteration = &mut json["try_ons"][0]["changes"][0]["seam"];
    alteration["sides"] = "keep_each".into();
    alteration["trim_to"] = "1.3 cm".into();
    alteration["front_share"] = 60.into();
    for reading in alteration["readings"].as_array_mut().unwrap().iter_mut().skip(3) {
        reading["side"] = "right".into();
    }
    let document = read_document(json.to_string().as_bytes()).unwrap();
    let solved = solve(&document, Tape::Cm).unwrap();
    insta::assert_snapshot!("card_each_side", cards_text(&solved, None));
    insta::assert_snapshot!("marks_each_side", marks_csv(&solved, None).unwrap());
    // Ten columns in sixteenths: the widest table there is.
    let solved = solve(&document, Tape::InSixteenths).unwrap();
    for paper in PAPERS {
        says_the_card(&solved, paper);
    }
}

/// A share, darts, a line in one pass and elastic in one document: every card, in the order of the hand, in inches.
#[test]
fn the_cards_of_a_shirt_with_everything() {
    let shirt = include_str!("../../../../demo/concert-shirt.json");
    let mut json: serde_json::Value = serde_json::from_str(shirt).unwrap();
    let try_on = &mut json["try_ons"][0];
    let changes = try_on["changes"].as_array_mut().unwrap();
    changes[0]["seam"]["upper"] = serde_json::json!({ "end": "carries_on", "into": "sleeve_seam" });
    let dart = changes.iter_mut().find_map(|c| c.get_mut("dart")).unwrap();
    dart["point"] = "15 in".into();
    dart["base"] = "4 in".into();
    dart["from_side_seam"] = "5 1/4 in".into();
    changes.push(serde_json::json!({ "elastic": { "casing": "14 in", "hold_percent": 120 } }));
    let document = read_document(json.to_string().as_bytes()).unwrap();
    let solved = solve(&document, Tape::In).unwrap();
    insta::assert_snapshot!("cards_of_a_shirt", cards_text(&solved, None));
    insta::assert_snapshot!("marks_of_a_shirt", marks_csv(&solved, None).unwrap());
    for paper in PAPERS {
        says_the_card(&solved, paper);
    }
    // One card of several.
    let key = |text: &str| text.parse::<ChangeKey>().unwrap();
    let elastic = key("elastic.waistband");
    let text = cards_text(&solved, Some(elastic));
    assert!(text.starts_with("Elastic in the waistband\n") && !text.contains("Side seam"));
    assert_eq!(pages(&cards_pdf(&solved, Some(elastic), Paper::A4).unwrap()).len(), 1);
    assert!(
        marks_csv(&solved, Some(key("seam.side_seam")))
            .unwrap()
            .lines()
            .skip(1)
            .all(|l| l.contains("side seam"))
    );
    assert!(matches!(cards_pdf(&solved, Some(key("seam.yoke_seam")), Paper::A4), Err(CardsError::NoCard)));
    // Whatever a document can hold reads back to itself.
    let written = serde_json::to_vec(&document).unwrap();
    assert_eq!(read_document(&written).unwrap(), document);
}

#[test]
fn every_document_of_the_example_reads_back_to_itself() {
    for file in std::fs::read_dir("../../demo").unwrap() {
        let document = read_document(&std::fs::read(file.unwrap().path()).unwrap()).unwrap();
        let written = serde_json::to_vec(&document).unwrap();
        assert_eq!(read_document(&written).unwrap(), document, "{}", document.states[0].garment.name);
        // The rail says what its page says.
        let next = solve(&document, Tape::default()).unwrap().next_step;
        assert_eq!(
            glance(&document, Tape::default()).unwrap().next_step.words(),
            next,
            "{}",
            document.states[0].garment.name
        );
    }
}

/// What each garment of the example says at its newest try-on, word for word, and its cards on the smallest paper.
#[test]
fn every_garment_of_the_example_goes_from_its_pins_to_its_cards() {
    for (name, tape) in [
        ("overcoat", Tape::Cm),
        ("concert-shirt", Tape::Cm),
        ("tea-dress", Tape::In),
        ("school-skirt", Tape::Cm),
        ("pinafore-toile", Tape::InSixteenths),
        ("jersey-top", Tape::Cm),
    ] {
        let json = std::fs::read(format!("../../demo/{name}.json")).unwrap();
        let mut document = read_document(&json).unwrap();
        document.try_ons.drain(..document.try_ons.len() - 1);
        let solved = solve(&document, tape).unwrap();
        let try_on = &solved.try_ons[0];
        let checks = try_on.checks.iter().map(|c| {
            let reason = if c.outcome == Outcome::Passes { "" } else { &c.reason };
            format!("{:?} {}: {} {reason}", c.outcome, c.title, c.figures)
        });
        let levels = try_on.levels.iter().map(|l| format!("{:?}, {:?}: {}", l.level, l.of, l.sum));
        let said: Vec<_> = levels.chain(checks).map(|line| line.trim_end().to_owned()).collect();
        let cards = cards_text(&solved, None);
        insta::assert_snapshot!(
            format!("from_pins_to_cards_{name}"),
            format!("{}\n\n{cards}", said.join("\n"))
        );
        says_the_card(&solved, Paper::A5);
    }
}

#[test]
fn measurements_come_back_exactly_from_csv() {
    let wearer = &demo().wearer;
    for tape in [Tape::Cm, Tape::In] {
        let csv = measurements_csv(&wearer.measurements, tape).unwrap();
        let read = read_measurements_csv(csv.as_bytes()).unwrap();
        assert_eq!(read.len(), wearer.measurements.len());
        for taken in &wearer.measurements {
            let same = read.iter().find(|t| t.what == taken.what && t.date == taken.date).unwrap();
            assert_eq!(same.figure().unwrap().length, taken.figure().unwrap().length, "{:?}", taken.what);
        }
    }
    insta::assert_snapshot!("measurements", measurements_csv(&wearer.measurements, Tape::Cm).unwrap());
}

#[test]
fn a_wrong_measurement_names_its_line_and_nothing_is_taken() {
    let wrong = |csv: &str| {
        let complaint = read_measurements_csv(csv.as_bytes()).unwrap_err();
        assert!(!complaint.expected.is_empty());
        (complaint.path, complaint.found)
    };
    let good = "measurement,date,value_cm\nwaist girth,2026-08-22,77.5\nhip_girth,,40 in\n";
    assert_eq!(
        read_measurements_csv(good.as_bytes()).unwrap().len(),
        2,
        "names or words, units of their own"
    );
    let bom = format!("\u{feff}{good}");
    assert_eq!(read_measurements_csv(bom.as_bytes()).unwrap().len(), 2);
    for (csv, line, found) in [
        ("measurement,value_ell\nwaist_girth,2\n", "line 1", "the unit “ell” of “value_ell”"),
        ("measurement,width_cm\nwaist_girth,2\n", "line 1", "a column “width_cm”"),
        ("date,value_cm\n2026-01-01,2\n", "line 1", "no column “measurement” with figures beside it"),
        ("measurement,value_cm\nwaist_girth,77\nnose_girth,9\n", "line 3", "a measurement “nose_girth”"),
        ("measurement,value_cm\nwaist_girth,seventy\n", "line 2", "“seventy” is not a length"),
        ("measurement,date,value_cm\nwaist_girth,yesterday,77\n", "line 2", "the date “yesterday”"),
        ("measurement,value_cm\nwaist_girth,\n", "line 2", "the waist girth without a figure"),
    ] {
        assert_eq!(wrong(csv), (line.to_owned(), found.to_owned()));
    }
    assert_eq!(wrong("measurement,value_cm\nwaist_girth,77,78\n").0, "line 2");
}

/// A JPEG of a wide white picture with a black left half, with what a telephone writes before it: turn it a quarter to the
/// right, and where it was taken.
fn telephone_jpeg() -> Vec<u8> {
    let picture =
        RgbImage::from_fn(80, 40, |x, _| if x < 40 { Rgb([0, 0, 0]) } else { Rgb([255, 255, 255]) });
    let mut jpeg = Vec::new();
    picture.write_to(&mut Cursor::new(&mut jpeg), ImageFormat::Jpeg).unwrap();
    // TIFF, big-endian: one directory with orientation 6 (EXIF 2.32, tag 0x0112) and a GPS pointer (0x8825).
    let mut exif = b"Exif\0\0MM\0\x2a\0\0\0\x08\0\x02".to_vec();
    exif.extend(b"\x01\x12\0\x03\0\0\0\x01\0\x06\0\0");
    exif.extend(b"\x88\x25\0\x04\0\0\0\x01\0\0\0\x26");
    exif.extend(b"\0\0\0\0GPS-POSITION-48N-11E");
    let length = u16::try_from(exif.len() + 2).unwrap().to_be_bytes();
    let mut file = jpeg[..2].to_vec();
    file.extend([0xff, 0xe1]);
    file.extend(length);
    file.extend(exif);
    file.extend(&jpeg[2..]);
    file
}

#[test]
fn a_photo_is_turned_upright_and_loses_where_it_was_taken() {
    let file = telephone_jpeg();
    let has_position = |bytes: &[u8]| bytes.windows(12).any(|w| w == b"GPS-POSITION");
    assert!(has_position(&file));
    let clean = clean_photo(&file).unwrap();
    assert_eq!((clean.size, clean.media_type), ((40, 80), "image/jpeg"));
    assert!(!has_position(&clean.image) && !clean.image.windows(4).any(|w| w == b"Exif"));
    let upright = image::load_from_memory(&clean.image).unwrap().to_luma8();
    assert!(upright.get_pixel(20, 10)[0] < 40 && upright.get_pixel(20, 70)[0] > 215, "black above white");
    let thumbnail = image::load_from_memory(&clean.thumbnail).unwrap();
    assert!(thumbnail.width() <= 480 && thumbnail.height() <= 480);
}

#[test]
fn what_is_no_photo_or_too_much_of_one_is_refused() {
    let png = |width: u32, height: u32| {
        let mut bytes = Vec::new();
        RgbImage::new(4, 4).write_to(&mut Cursor::new(&mut bytes), ImageFormat::Png).unwrap();
        // Width and height stand behind the signature, the length and the name of the first chunk.
        bytes[16..20].copy_from_slice(&width.to_be_bytes());
        bytes[20..24].copy_from_slice(&height.to_be_bytes());
        // The decoder looks at the check sum: CRC-32 (ISO 3309) of the chunk.
        let sum = bytes[12..29].iter().fold(!0_u32, |sum, byte| {
            (0..8)
                .fold(sum ^ u32::from(*byte), |s, _| if s & 1 == 1 { (s >> 1) ^ 0xedb8_8320 } else { s >> 1 })
        });
        bytes[29..33].copy_from_slice(&(!sum).to_be_bytes());
        bytes
    };
    let refused = |file: &[u8]| clean_photo(file).map(|_| ()).unwrap_err();
    assert!(clean_photo(&png(4, 4)).is_ok());
    assert!(matches!(refused(&png(20_000, 20_000)), PhotoError::TooManyPixels(20_000, 20_000)));
    assert!(matches!(refused(&png(12_000, 12_000)), PhotoError::TooManyPixels(..)));
    assert!(matches!(refused(b"GIF89a not really"), PhotoError::NotAPhoto));
    assert!(matches!(refused(b"<svg onload='x'/>"), PhotoError::NotAPhoto));
    assert!(matches!(refused(&vec![0; 15_000_001]), PhotoError::TooLarge));
    let whole = telephone_jpeg();
    let mut webp = Vec::new();
    RgbImage::new(9, 7).write_to(&mut Cursor::new(&mut webp), ImageFormat::WebP).unwrap();
    assert_eq!(clean_photo(&webp).unwrap().size, (9, 7));
    assert!(matches!(refused(&webp[..webp.len() - 8]), PhotoError::Damaged));
    assert!(matches!(refused(&whole[..60]), PhotoError::Damaged));
}
