//! The formats, by the example document: what is printed on a card and written to a file.

use vemble_core::document::Document;
use vemble_core::length::Tape;
use vemble_core::solve::solve;
use vemble_exchange::document::{read_document, schema};
use vemble_exchange::marks_csv::marks_csv;
use vemble_exchange::text::cards_text;

const DEMO: &str = include_str!("../../../demo/corduroys.json");

fn demo() -> Document {
    read_document(DEMO.as_bytes()).unwrap()
}

#[test]
fn the_card_as_text() {
    insta::assert_snapshot!("card_cm", cards_text(&solve(&demo(), Tape::Cm).unwrap()));
    insta::assert_snapshot!("card_in", cards_text(&solve(&demo(), Tape::InSixteenths).unwrap()));
}

#[test]
fn the_card_when_the_sides_differ_and_something_is_trimmed() {
    let mut json: serde_json::Value = serde_json::from_str(DEMO).unwrap();
    let alteration = &mut json["try_ons"][0]["alterations"][0];
    alteration["sides"] = "keep_each".into();
    alteration["trim_to"] = "1.3 cm".into();
    alteration["front_share"] = 60.into();
    for reading in alteration["readings"].as_array_mut().unwrap().iter_mut().skip(3) {
        reading["side"] = "right".into();
    }
    let solved = solve(&read_document(json.to_string().as_bytes()).unwrap(), Tape::Cm).unwrap();
    insta::assert_snapshot!("card_each_side", cards_text(&solved));
    insta::assert_snapshot!("marks_each_side", marks_csv(&solved).unwrap());
}

#[test]
fn a_document_reads_back_to_itself() {
    let written = serde_json::to_vec(&demo()).unwrap();
    assert_eq!(read_document(&written).unwrap(), demo());
}

#[test]
fn what_is_wrong_is_named_by_its_path() {
    let wrong = |from: &str, to: &str| {
        let complaint = read_document(DEMO.replacen(from, to, 1).as_bytes()).unwrap_err();
        (complaint.path, complaint.found, complaint.expected)
    };
    let (path, found, expected) = wrong("\"3.4 cm\"", "\"3,4,1 cm\"");
    assert_eq!(path, "try_ons[0].alterations[0].readings[0].amount");
    assert_eq!(found, "“3,4,1 cm” is not a length");
    assert_eq!(expected, "a length like 4.5 cm, 57 mm, 2 1/4 in, 9/16\" or 1 ft 2 in");
    let (path, found, expected) = wrong("\"kind\": \"trousers\"", "\"kind\": \"cape\"");
    assert_eq!(
        (path.as_str(), found.as_str(), expected.as_str()),
        ("garment.kind", "unknown variant `cape`", "`trousers`")
    );
    assert_eq!(wrong("\"version\": 1", "\"version\": 2").2, "1");
    assert_eq!(wrong("\"2026-09-27\"", "\"2026-09-31\"").0, "try_ons[0].date");
    assert!(read_document(b"{} {}").is_err());
}

#[test]
fn the_schema_knows_every_part_of_the_document() {
    let schema = schema();
    assert_eq!(schema["additionalProperties"], false);
    let definitions = schema["$defs"].as_object().unwrap();
    for name in ["Garment", "Wearer", "TryOn", "Alteration", "Reading", "End", "Measure"] {
        assert!(definitions.contains_key(name), "{name}");
    }
    assert!(!schema.to_string().contains("#/components/"), "every reference is inside the schema");
}
