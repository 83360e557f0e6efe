//! The JSON document, read strictly: what is wrong comes back with its JSON path.

use memchr::memmem;
use serde::{Deserialize, Deserializer, Serialize};
use utoipa::ToSchema;
use vemble_core::document::{Document, VERSION};
use vemble_core::fault::Fault;
use vemble_core::fitting::TryOn;
use vemble_core::garment::Garment;
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

/// The text of a document before its try-ons, and from there on: while pins are dragged the first is the same again and again.
///
/// Both are objects but for a brace, or the document is none: a quote within a string is escaped, so what is looked for is a
/// name, and nothing in a garment has it. Nothing where a document is written another way; [`read_document`] reads it.
pub fn halves(json: &[u8]) -> Option<(&str, &str)> {
    let comma = memmem::find(json, b",\"try_ons\":")?;
    let text = std::str::from_utf8(json).ok()?;
    Some((&text[..comma], &text[comma + 1..]))
}

/// A version that a half may leave out to the other, but not name as nothing.
fn named<'de, D: Deserializer<'de>>(version: D) -> Result<Option<u32>, D::Error> {
    u32::deserialize(version).map(Some)
}

/// The garment in the first half of a document, and the version if it stands there.
///
/// Nothing where anything is not as it should be; [`read_document`] says what.
pub fn read_beginning(half: &str) -> Option<(Garment, Option<u32>)> {
    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Beginning {
        #[serde(default, deserialize_with = "named")]
        version: Option<u32>,
        garment: Garment,
    }
    let Beginning { version, garment } = serde_json::from_str(&format!("{half}}}")).ok()?;
    Some((garment, version))
}

/// The try-ons in the second half of a document, whose first half had this version or none.
///
/// Nothing where anything is not as it should be; [`read_document`] says what.
pub fn read_try_ons(half: &str, version_before: Option<u32>) -> Option<Vec<TryOn>> {
    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Rest {
        #[serde(default, deserialize_with = "named")]
        version: Option<u32>,
        try_ons: Vec<TryOn>,
    }
    let Rest { version, try_ons } = serde_json::from_str(&format!("{{{half}")).ok()?;
    (version_before.xor(version) == Some(VERSION)).then_some(try_ons)
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
