//! The JSON document, read strictly: what is wrong comes back with its JSON path.

use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use utoipa::ToSchema;
use uuid::Uuid;
use vemble_core::body::Wearer;
use vemble_core::document::{Document, Entry, State, VERSION, v1::DocumentV1};
use vemble_core::fault::Fault;
use vemble_core::length::Tape;
use vemble_core::try_on::TryOn;
use vemble_core::work::{Logged, Wishes};

/// One thing wrong in a document.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Complaint {
    /// Where, as a JSON path: `try_ons[0].changes[0].seam.readings[2].amount`.
    pub path: String,
    /// What was found.
    pub found: String,
    /// What would be right.
    pub expected: String,
}

impl Complaint {
    /// A fault of the core in words, with figures on `tape`.
    pub fn of(fault: &Fault, tape: Tape) -> Self {
        Self {
            path: fault.path.clone(),
            found: fault.wrong.found(tape),
            expected: fault.wrong.expected(tape),
        }
    }

    /// All faults in words.
    pub fn all(faults: &[Fault], tape: Tape) -> Vec<Self> {
        faults.iter().map(|f| Self::of(f, tape)).collect()
    }
}

/// Any type of the document from JSON; unknown fields are refused.
///
/// # Errors
/// The first thing that does not have the right shape, with its path.
pub fn read<T: serde::de::DeserializeOwned>(json: &[u8]) -> Result<T, Complaint> {
    // Keeping the path costs as much again as reading: it is kept only once something is known to be wrong. Text that is known to be
    // UTF-8 need not be looked at again string by string.
    if let Some(value) = std::str::from_utf8(json).ok().and_then(|text| serde_json::from_str(text).ok()) {
        return Ok(value);
    }
    let mut reader = serde_json::Deserializer::from_slice(json);
    let value = serde_path_to_error::deserialize(&mut reader).map_err(|error| {
        let path = error.path().to_string();
        let error = error.into_inner();
        let place = format!(" at line {} column {}", error.line(), error.column());
        let message = error.to_string();
        let message = message.strip_suffix(&place).unwrap_or(&message).to_owned();
        let (found, expected) =
            match message.split_once("; expected ").or_else(|| message.split_once(", expected ")) {
                Some((found, expected)) => (found.to_owned(), expected.to_owned()),
                None => (message, "a document as docs/schema/document.schema.json describes it".into()),
            };
        Complaint { path, found, expected }
    })?;
    reader.end().map_err(|error| Complaint {
        path: ".".into(),
        found: error.to_string(),
        expected: "nothing after the document".into(),
    })?;
    Ok(value)
}

/// What is wrong with JSON that holds the character NUL, which no text has and no database keeps: written as JSON it is always escaped.
/// Nothing where it holds none.
pub fn no_text(json: &[u8]) -> Option<Complaint> {
    std::str::from_utf8(json).ok().filter(|text| text.contains("\\u0000"))?;
    fn place(value: &serde_json::Value, path: String) -> Option<String> {
        match value {
            serde_json::Value::String(text) => text.contains('\0').then_some(path),
            serde_json::Value::Array(items) => {
                (0..).zip(items).find_map(|(n, item)| place(item, format!("{path}[{n}]")))
            }
            serde_json::Value::Object(fields) => fields.iter().find_map(|(field, value)| {
                let below = if path.is_empty() { field.clone() } else { format!("{path}.{field}") };
                if field.contains('\0') { Some(path.clone()) } else { place(value, below) }
            }),
            serde_json::Value::Null | serde_json::Value::Bool(_) | serde_json::Value::Number(_) => None,
        }
    }
    let path = place(&serde_json::from_slice(json).ok()?, String::new())?;
    let found = "a character of no text (NUL)".into();
    Some(Complaint { path, found, expected: "text without it".into() })
}

/// A whole document, of this version or any before: an older one is brought up.
///
/// # Errors
/// As [`read`], and a version this code does not know yet.
pub fn read_document(json: &[u8]) -> Result<Document, Complaint> {
    /// The one field that is the same in every version.
    #[derive(Deserialize)]
    struct Versioned {
        version: Option<u32>,
    }
    // What is no object, or names no version, is read as one of today: that says what is wrong with it.
    match serde_json::from_slice(json).ok().and_then(|versioned: Versioned| versioned.version) {
        Some(1) => Ok(read::<DocumentV1>(json)?.brought_up()),
        Some(VERSION) | None => read(json),
        Some(other) => Err(Complaint {
            path: "version".into(),
            found: other.to_string(),
            expected: format!("1 to {VERSION}: a document of a later version needs a newer Vemble"),
        }),
    }
}

/// A document of one state whose facts are still text: while pins are dragged they are the same again and again.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OneState<'a> {
    #[serde(borrow)]
    wearer: &'a RawValue,
    #[serde(borrow)]
    states: [StateText<'a>; 1],
    /// Try-ons, read already.
    pub try_ons: Vec<TryOn>,
    version: u32,
    #[serde(default, rename = "record")]
    _record: Vec<Entry>,
    /// What is wished for the work: how it is sewn.
    #[serde(default)]
    pub wishes: Wishes,
    /// What was done to it.
    #[serde(default)]
    pub log: Vec<Logged>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct StateText<'a> {
    id: Uuid,
    #[serde(default)]
    revision: Option<u32>,
    #[serde(borrow)]
    garment: &'a RawValue,
}

impl<'a> OneState<'a> {
    /// Reads a document of the present version with one state, as far as its try-ons. Nothing where it is anything else;
    /// [`read_document`] says what.
    pub fn read(json: &'a [u8]) -> Option<Self> {
        let one: Self = serde_json::from_str(std::str::from_utf8(json).ok()?).ok()?;
        (one.version == VERSION).then_some(one)
    }

    /// What the state is known by.
    pub const fn key(&self) -> (Uuid, Option<u32>) {
        let [state] = &self.states;
        (state.id, state.revision)
    }

    /// The text that the facts stand in: garment and wearer. Two states of one key may be different ones, of different people.
    pub fn facts(&self) -> [&'a str; 2] {
        let [state] = &self.states;
        [state.garment.get(), self.wearer.get()]
    }

    /// Reads the facts. Nothing where they are wrong.
    pub fn read_facts(&self) -> Option<(State, Wearer)> {
        let [garment, wearer] = self.facts();
        let (id, revision) = self.key();
        let garment = serde_json::from_str(garment).ok()?;
        let state = State { revision: revision.unwrap_or(1), ..State::first(id, garment) };
        Some((state, serde_json::from_str(wearer).ok()?))
    }
}

/// The JSON Schema (2020-12) of the document, from the same definitions that the HTTP interface is described by.
pub fn schema() -> serde_json::Value {
    let mut components = Vec::new();
    <Document as ToSchema>::schemas(&mut components);
    let definitions: serde_json::Map<String, serde_json::Value> = components
        .into_iter()
        .map(|(name, schema)| (name, serde_json::to_value(schema).unwrap_or_default()))
        .collect();
    let document = serde_json::to_value(<Document as utoipa::PartialSchema>::schema()).unwrap_or_default();
    let mut schema = serde_json::json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Vemble document",
        "$defs": definitions,
    });
    if let (Some(schema), serde_json::Value::Object(document)) = (schema.as_object_mut(), document) {
        schema.extend(document);
    }
    let text = schema.to_string().replace("#/components/schemas/", "#/$defs/");
    serde_json::from_str(&text).unwrap_or_default()
}
