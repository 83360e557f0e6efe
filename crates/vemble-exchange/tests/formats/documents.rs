//! Documents as they are written and read: strictly, in any way that means the same, and wrong at a named place.

use super::DEMO;
use serde_json::Value;
use vemble_core::document::{Document, VERSION};
use vemble_core::judge::Rule;
use vemble_core::length::Tape;
use vemble_core::solve::solve;
use vemble_exchange::document::{Complaint, OneState, read_document, schema};
use vemble_exchange::text::cards_text;

/// Every document of the example, as JSON.
fn examples() -> Vec<Value> {
    let files = std::fs::read_dir("../../demo").unwrap();
    let documents: Vec<Value> =
        files.map(|f| serde_json::from_slice(&std::fs::read(f.unwrap().path()).unwrap()).unwrap()).collect();
    assert!(documents.len() >= 7);
    documents
}

/// Every document of a version that was released, as JSON.
fn released(version: u32) -> Vec<Value> {
    let files = std::fs::read_dir(format!("tests/released/v{version}")).unwrap();
    files.map(|f| serde_json::from_slice(&std::fs::read(f.unwrap().path()).unwrap()).unwrap()).collect()
}

/// A document whose facts are read once for many try-ons; nothing where it has to be read whole.
fn in_one_state(json: &[u8]) -> Option<Document> {
    let one = OneState::read(json)?;
    let (state, wearer) = one.read_facts()?;
    let OneState { try_ons, wishes, log, .. } = one;
    Some(Document { wishes, log, ..Document::of(wearer, state, try_ons) })
}

#[test]
fn one_state_is_the_document_and_anything_else_is_read_whole() {
    let one_state = |example: &Value| example["states"].as_array().unwrap().len() == 1;
    for example in examples().into_iter().filter(one_state) {
        let whole = read_document(example.to_string().as_bytes()).unwrap();
        assert_eq!(in_one_state(example.to_string().as_bytes()).as_ref(), Some(&whole));
        assert_eq!(in_one_state(serde_json::to_string_pretty(&example).unwrap().as_bytes()), Some(whole));
        let state = example["states"][0].clone();
        let spoilt: [(&str, Value); 5] = [
            ("/version", 1.into()),
            ("/version", 3.into()),
            ("/states", serde_json::json!([])),
            ("/states", serde_json::json!([state, state])),
            ("/states/0/garment/seams", "none".into()),
        ];
        for (pointer, value) in spoilt {
            let mut wrong = example.clone();
            *wrong.pointer_mut(pointer).unwrap() = value;
            assert_eq!(in_one_state(wrong.to_string().as_bytes()), None, "{pointer}");
        }
    }
}

/// What was kept under another name or wording of then is the same now: every version that was released gives the same cards.
#[test]
fn every_version_that_was_released_gives_the_same_cards() {
    let now: Vec<Document> =
        released(VERSION).iter().map(|e| read_document(e.to_string().as_bytes()).unwrap()).collect();
    let mut read = 0;
    for old in released(1) {
        let document = read_document(old.to_string().as_bytes()).unwrap();
        assert_eq!((document.version, document.faults()), (VERSION, vec![]));
        let name = &document.states[0].garment.name;
        let same = now.iter().find(|n| &n.states[0].garment.name == name).unwrap();
        for tape in Tape::ALL {
            let [old, new] = [&document, same].map(|d| solve(d, *tape).unwrap());
            assert_eq!(cards_text(&old, None), cards_text(&new, None), "{name}");
            assert_eq!(old.try_ons, new.try_ons, "{name}");
        }
        read += 1;
    }
    assert_eq!(read, now.len());
}

/// Everything that a document of version 1 was ever allowed to say.
#[test]
fn odd_things_of_version_1_are_brought_up() {
    let mut old = released(1).into_iter().find(|d| d["garment"]["kind"] == "shirt").unwrap();
    let try_on = &mut old["try_ons"][0];
    try_on["elastic"] = serde_json::json!({ "casing": "42 cm" });
    try_on["alterations"].as_array_mut().unwrap().retain(|a| a["seam"] == "side_seam");
    try_on["darts"] =
        serde_json::json!([{ "dart": "back_fish_eye", "point": "40 cm", "base": "20 cm", "readings": [] }]);
    try_on["versions"] =
        serde_json::json!([{ "name": "as it was", "darts": [{ "dart": "back_fish_eye", "readings": [] }] }]);
    try_on["left_out"] = serde_json::json!([
        { "seam": "side_seam", "side": "left", "level": "waist", "why": "out_of_reach" },
        { "seam": "side_seam", "side": "right", "level": "waist", "why": "copy_later" },
    ]);
    try_on["passed_over"] = serde_json::json!([
        { "check": "ease: Ease at the waist", "why": "She likes it so." },
        { "check": "elastic: Elastic in the waistband", "why": "It is only for an evening." },
        { "check": "hang: nobody ever said that", "why": "It was renamed." },
    ]);
    try_on["closed"] = true.into();
    let document = read_document(old.to_string().as_bytes()).unwrap();
    let try_on = &document.try_ons[0];
    let keys: Vec<String> = try_on.changes.iter().map(|c| c.key().to_string()).collect();
    assert_eq!(keys, ["seam.side_seam", "dart.back_fish_eye", "elastic.waistband"]);
    assert_eq!((try_on.versions[0].changes.len(), try_on.left_out.len(), try_on.closed), (1, 2, true));
    let passed: Vec<_> = try_on.passed_over.iter().map(|p| (p.finding.rule, &p.why[..])).collect();
    assert_eq!(passed, [(Rule::Ease, "She likes it so."), (Rule::Gathers, "It is only for an evening.")]);
    assert_eq!(read_document(&serde_json::to_vec(&document).unwrap()).unwrap(), document);
    // A field that version 1 did not have is not taken for one.
    for (pointer, field) in [("", "states"), ("/garment", "revision"), ("/try_ons/0", "changes")] {
        let mut wrong = old.clone();
        wrong.pointer_mut(pointer).unwrap()[field] = serde_json::json!([]);
        assert!(read_document(wrong.to_string().as_bytes()).unwrap_err().found.contains(field), "{field}");
    }
}

#[test]
fn a_later_version_and_a_state_that_is_not_there_say_so() {
    let mut later = examples().remove(0);
    later["version"] = 3.into();
    let complaint = read_document(later.to_string().as_bytes()).unwrap_err();
    assert_eq!((&complaint.path[..], &complaint.found[..]), ("version", "3"));
    assert!(complaint.expected.contains("newer Vemble"), "{}", complaint.expected);
    let mut nowhere = examples().remove(0);
    nowhere["try_ons"][0]["state"] = "0199d1c2-7a00-7000-8000-00000000ffff".into();
    let document = read_document(nowhere.to_string().as_bytes()).unwrap();
    let faults = Complaint::all(&solve(&document, Tape::Cm).unwrap_err(), Tape::Cm);
    assert_eq!(faults[0].path, "try_ons[0].state");
    assert!(faults[0].found.contains("0000ffff"), "{}", faults[0].found);
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
    assert_eq!(path, "try_ons[0].changes[0].seam.readings[0].amount");
    assert_eq!(found, "“3,4,1 cm” is not a length");
    assert_eq!(expected, "a length like 4.5 cm, 57 mm, 2 1/4 in, 9/16\" or 1 ft 2 in");
    let (path, found, expected) = wrong("\"kind\": \"trousers\"", "\"kind\": \"cape\"");
    assert_eq!((path.as_str(), found.as_str()), ("states[0].garment.kind", "unknown variant `cape`"));
    assert!(expected.starts_with("one of `trousers`, `jeans`,"), "{expected}");
    assert!(wrong("\"version\": 2", "\"version\": 9").2.starts_with("1 to 2"));
    assert_eq!(wrong("\"2026-09-27\"", "\"2026-09-31\"").0, "try_ons[0].date");
    assert!(read_document(b"{} {}").is_err());
}

#[test]
fn the_schema_knows_every_part_of_the_document() {
    let schema = schema();
    assert_eq!(schema["additionalProperties"], false);
    let definitions = schema["$defs"].as_object().unwrap();
    for name in ["Garment", "Wearer", "TryOn", "State", "Change", "SeamChange", "Reading", "End", "Measure"] {
        assert!(definitions.contains_key(name), "{name}");
    }
    assert!(!schema.to_string().contains("#/components/"), "every reference is inside the schema");
}
