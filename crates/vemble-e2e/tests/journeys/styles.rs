//! Style sheets and who uses them, read as text: a class or a colour that is misspelt paints nothing, and says nothing.

use regex::Regex;
use std::collections::BTreeSet;
use std::fs;
use std::path::{Path, PathBuf};

const WEB: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/src");
const API: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/schema/openapi.json");

/// The texts of all files below `folder` whose names end so.
fn read(folder: &Path, ending: &str) -> Vec<(PathBuf, String)> {
    let below = |path: PathBuf| {
        if path.is_dir() {
            return read(&path, ending);
        }
        let is_asked_for = path.to_str().unwrap().ends_with(ending);
        if is_asked_for { vec![(path.clone(), fs::read_to_string(path).unwrap())] } else { Vec::new() }
    };
    fs::read_dir(folder).unwrap().flat_map(|entry| below(entry.unwrap().path())).collect()
}

/// The first group of each match.
fn names(text: &str, pattern: &str) -> BTreeSet<String> {
    Regex::new(pattern).unwrap().captures_iter(text).map(|found| found[1].to_string()).collect()
}

/// The classes of a sheet: those of its selectors that are its own.
fn classes(sheet: &str) -> BTreeSet<String> {
    let own = Regex::new(r"(?s)/\*.*?\*/|:global\([^)]*\)").unwrap().replace_all(sheet, "");
    let selectors = names(&own, r"([^{}]*)\{").into_iter().collect::<Vec<_>>().join("\n");
    names(&selectors, r"\.([a-zA-Z][\w-]*)")
}

#[test]
fn every_class_asked_for_is_in_its_sheet_and_every_class_there_is_asked_for() {
    let words_of_the_core = names(&fs::read_to_string(API).unwrap(), r#"^?"([a-z_]+)",?\s"#);
    let mut wrong = Vec::new();
    let users = read(Path::new(WEB), ".tsx");
    for (path, sheet) in read(Path::new(WEB), ".module.css") {
        let there = classes(&sheet);
        let file = path.file_name().unwrap().to_str().unwrap();
        let mut unused = there.clone();
        let import = Regex::new(&format!(r#"import (\w+) from "[^"]*/{file}""#)).unwrap();
        for (user, text) in &users {
            let Some(name) = import.captures(text).map(|found| found[1].to_string()) else { continue };
            let asked = names(text, &format!(r#"\b{name}\["([\w-]+)"\]"#));
            wrong.extend(asked.difference(&there).map(|c| format!("{c}: {} asks {file}", user.display())));
            // Begun here and finished by the core, or the core's altogether.
            let begun = names(text, &format!(r"\b{name}\[`([\w-]+)\$"));
            let is_told = !names(text, &format!(r#"\b{name}\[([^"`])"#)).is_empty();
            unused.retain(|class| {
                let is_begun = begun.iter().any(|begun| class.starts_with(begun.as_str()));
                !(asked.contains(class) || is_begun || (is_told && words_of_the_core.contains(class)))
            });
        }
        wrong.extend(unused.into_iter().map(|class| format!("{class}: nobody asks {file}")));
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn every_colour_is_in_the_palette() {
    let all = [".css", ".tsx", ".ts"].map(|ending| read(Path::new(WEB), ending)).concat();
    let palette = fs::read_to_string(format!("{WEB}/palette.ts")).unwrap();
    let mut known = names(&palette, r##"(?m)^  "?([\w-]+)"?: \["#"##);
    assert!(known.contains("walnut"));
    known.extend(all.iter().flat_map(|(_, text)| names(text, r"(?m)^\s*--([\w-]+):")));
    for (path, text) in all {
        let asked = names(&text, r"var\(--([\w-]+)");
        let unknown = asked.difference(&known).collect::<Vec<_>>();
        assert!(unknown.is_empty(), "{}: {unknown:?}", path.display());
    }
}
