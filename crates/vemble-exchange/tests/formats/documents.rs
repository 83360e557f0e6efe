//! Documents as they are written and read: strictly, in any way that means the same, and wrong at a named place.

use super::DEMO;
use proptest::prelude::*;
use serde_json::Value;
use vemble_core::document::Document;
use vemble_exchange::document::{halves, read_beginning, read_document, read_try_ons, schema};

/// Every document of the example, as JSON.
fn examples() -> Vec<Value> {
    let files = std::fs::read_dir("../../demo").unwrap();
    let documents: Vec<Value> =
        files.map(|f| serde_json::from_slice(&std::fs::read(f.unwrap().path()).unwrap()).unwrap()).collect();
    assert!(documents.len() >= 7);
    documents
}

/// A document read in two halves, as while pins are dragged; nothing where it has to be read whole.
fn in_halves(json: &[u8]) -> Option<Document> {
    let (beginning, rest) = halves(json)?;
    let (garment, version) = read_beginning(beginning)?;
    Some(Document { version: 1, garment, try_ons: read_try_ons(rest, version)? })
}

#[test]
fn two_halves_make_the_document_whichever_way_round_it_is_written() {
    for example in examples() {
        let whole = read_document(example.to_string().as_bytes()).unwrap();
        assert_eq!(in_halves(&serde_json::to_vec(&whole).unwrap()).as_ref(), Some(&whole));
        let [version, garment, try_ons] = ["version", "garment", "try_ons"].map(|k| example[k].to_string());
        for (text, is_halved) in [
            (format!(r#"{{"version":{version},"garment":{garment},"try_ons":{try_ons}}}"#), true),
            (format!(r#"{{"garment":{garment},"try_ons":{try_ons},"version":{version}}}"#), true),
            (format!(r#"{{"try_ons":{try_ons},"garment":{garment},"version":{version}}}"#), false),
            (serde_json::to_string_pretty(&example).unwrap(), false),
        ] {
            assert_eq!(read_document(text.as_bytes()).as_ref(), Ok(&whole));
            assert_eq!(in_halves(text.as_bytes()), is_halved.then(|| whole.clone()));
        }
        // What looks like the second half but is not: the name of a garment, a field no garment has, a second version.
        let mut named = example.clone();
        named["garment"]["name"] = r#"x","try_ons":[]"#.into();
        assert_eq!(in_halves(named.to_string().as_bytes()), read_document(named.to_string().as_bytes()).ok());
        let cut = format!(r#"{{"garment":{{"a":1,"try_ons":{try_ons}}},"version":{version}}}"#);
        let twice = format!(r#"{{"version":1,"garment":{garment},"try_ons":{try_ons},"version":1}}"#);
        let nothing = format!(r#"{{"version":null,"garment":{garment},"try_ons":{try_ons},"version":1}}"#);
        let unknown = format!(r#"{{"version":9,"garment":{garment},"try_ons":{try_ons}}}"#);
        let trailing = format!(r#"{{"version":1,"garment":{garment},"try_ons":{try_ons}}} {{}}"#);
        for text in [cut, twice, nothing, unknown, trailing, format!(r#"{{,"try_ons":{try_ons}}}"#)] {
            assert_eq!(in_halves(text.as_bytes()), None);
            assert!(read_document(text.as_bytes()).is_err());
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 600, failure_persistence: None, ..ProptestConfig::default() })]

    /// Whatever happens to a text, halves never read what the whole refuses, nor anything else than the whole.
    #[test]
    fn halves_read_only_what_the_whole_reads(
        at in any::<prop::sample::Index>(),
        taken in 0_usize..40,
        put in prop_oneof![
            Just(""), Just(","), Just("}"), Just("{"), Just("\""), Just("\\"), Just("]"), Just(" "), Just("0"),
            Just("\"try_ons\":[],"), Just(",\"try_ons\":"), Just(",\"try_ons\":[]}"), Just("\"version\":1,"), Just("\"version\":null,"),
            Just("\u{fc}"), Just("\u{0}"),
        ],
    ) {
        let text = serde_json::to_string(&read_document(DEMO.as_bytes()).unwrap()).unwrap();
        let mut bytes = text.into_bytes();
        let from = at.index(bytes.len());
        let to = (from + taken).min(bytes.len());
        bytes.splice(from..to, put.bytes());
        if let Some(document) = in_halves(&bytes) {
            prop_assert_eq!(read_document(&bytes), Ok(document));
        }
    }
}

/// Every place of a JSON value: its path as complaints name it, and its JSON pointer.
fn places(value: &Value, path: &str, pointer: &str, found: &mut Vec<(String, String)>) {
    found.push((path.to_owned(), pointer.to_owned()));
    match value {
        Value::Object(fields) => {
            for (name, field) in fields {
                let below = if path.is_empty() { name.clone() } else { format!("{path}.{name}") };
                places(field, &below, &format!("{pointer}/{name}"), found);
            }
        }
        Value::Array(items) => {
            for (n, item) in items.iter().enumerate() {
                places(item, &format!("{path}[{n}]"), &format!("{pointer}/{n}"), found);
            }
        }
        _ => {}
    }
}

/// At every single place of every document: something of another type, and where there are fields one that nobody knows.
#[test]
fn whatever_is_wrong_is_named_by_its_path() {
    let mut tried = 0;
    for example in examples() {
        let mut all = Vec::new();
        places(&example, "", "", &mut all);
        for (path, pointer) in &all {
            let mut wrong = example.clone();
            let there = wrong.pointer_mut(pointer).unwrap();
            *there = if there.is_boolean() { "perhaps".into() } else { true.into() };
            let complaint = read_document(wrong.to_string().as_bytes()).expect_err(path);
            // A choice with a value of its own, such as a width, is read as one: it is named where it stands.
            let named = if complaint.path == "." { "" } else { &complaint.path };
            let rest = path.strip_prefix(named);
            assert!(rest.is_some_and(|rest| rest.matches(['.', '[']).count() <= 1), "{path}: {complaint:?}");

            let mut more = example.clone();
            if let Value::Object(fields) = more.pointer_mut(pointer).unwrap() {
                fields.insert("colour_of_the_thread".into(), "ecru".into());
                let complaint = read_document(more.to_string().as_bytes()).expect_err(path);
                assert!(complaint.path.starts_with(path.as_str()), "{path}: {complaint:?}");
            }
            tried += 1;
        }
    }
    assert!(tried > 1900, "{tried}");
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
    assert_eq!((path.as_str(), found.as_str()), ("garment.kind", "unknown variant `cape`"));
    assert!(expected.starts_with("one of `trousers`, `jeans`,"), "{expected}");
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
