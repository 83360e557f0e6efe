//! The JSON document, read strictly: what is wrong comes back with its JSON path.

use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use utoipa::ToSchema;
use vemble_core::document::{Document, VERSION};
use vemble_core::fault::Fault;
use vemble_core::fitting::TryOn;
use vemble_core::length::Tape;

/// One thing wrong in a document.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct Complaint {
    /// Where, as a JSON path: `try_ons[0].alterations[0].readings[2].amount`.
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

/// A whole document.
///
/// # Errors
/// As [`read`], and a version this code does not know.
pub fn read_document(json: &[u8]) -> Result<Document, Complaint> {
    let document: Document = read(json)?;
    if document.version != VERSION {
        return Err(Complaint {
            path: "version".into(),
            found: document.version.to_string(),
            expected: VERSION.to_string(),
        });
    }
    Ok(document)
}

/// A document whose garment is still text.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Outline<'a> {
    version: u32,
    #[serde(borrow)]
    garment: &'a RawValue,
    #[serde(default)]
    try_ons: Vec<TryOn>,
}

/// The try-ons of a document and its garment, as `sound` finds it by its text: while pins are dragged it is the same again and again.
///
/// Nothing where anything is not as it should be; [`read_document`] says what.
pub fn read_try_ons<G>(json: &[u8], sound: impl FnOnce(&str) -> Option<G>) -> Option<(G, Vec<TryOn>)> {
    let Outline { version, garment, try_ons } = serde_json::from_str(std::str::from_utf8(json).ok()?).ok()?;
    (version == VERSION).then_some((sound(garment.get())?, try_ons))
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
