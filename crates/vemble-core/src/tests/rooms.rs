//! The order of the rooms, as ARCHITECTURE.md states it, in the core and in the server: each room knows only those before it.

use std::fs;
use std::path::{Path, PathBuf};

/// What stands after these in ARCHITECTURE.md is the order, each room between backticks.
const ORDERED: [(&str, &str); 2] = [
    ("vemble-core", "Each room of the core knows only those before it: "),
    ("vemble-server", "Each room of the server knows only those before it: "),
];

/// The files of a kind of change stand in the room of their name; those that are not named so are its input and its geometry.
const OF_A_KIND: [(&str, &str); 15] = [
    ("judge", "judge"),
    ("allowance", "judge"),
    ("in_the_way", "judge"),
    ("at_the_edge", "judge"),
    ("lining", "judge"),
    ("panel", "judge"),
    ("panel_card", "card"),
    ("partners", "judge"),
    ("run_out", "judge"),
    ("rows", "chalk"),
    ("merge", "try_on"),
    ("tasks", "plan"),
    ("told", "told"),
    ("drawing", "figure"),
    ("shown", "shown"),
];

fn order(before: &str) -> Vec<String> {
    let page = fs::read_to_string(concat!(env!("CARGO_MANIFEST_DIR"), "/../../ARCHITECTURE.md")).unwrap();
    let line = page.lines().find_map(|line| line.strip_prefix(before));
    let line = line.unwrap_or_else(|| panic!("ARCHITECTURE.md does not say “{before}”"));
    line.split('`').skip(1).step_by(2).map(Into::into).collect()
}

fn files(folder: &Path, found: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            files(&path, found);
        } else if path.extension().is_some_and(|e| e == "rs") {
            found.push(path);
        }
    }
}

/// The room that a file stands in; nothing for what is no room.
fn room_of(path: &Path) -> Option<String> {
    let parts: Vec<&str> =
        path.iter().filter_map(|part| part.to_str()).map(|part| part.trim_end_matches(".rs")).collect();
    if parts.iter().any(|part| ["lib", "tests"].contains(part)) {
        return None;
    }
    if let ["change", _, file] = parts[..] {
        let of_kind = OF_A_KIND.iter().find(|(name, _)| *name == file).map_or("change", |(_, room)| room);
        return Some(if file == "card" { "card".into() } else { of_kind.into() });
    }
    Some(parts[0].into())
}

/// The rooms that a file names.
fn named(text: &str) -> impl Iterator<Item = &str> {
    let code = text.split("#[cfg(test)]\nmod tests {").next().unwrap_or_default();
    code.match_indices("crate::").map(move |(at, _)| {
        let rest = &code[at + "crate::".len()..];
        rest.split(|c: char| !c.is_ascii_lowercase() && c != '_').next().unwrap_or_default()
    })
}

#[test]
fn no_room_knows_one_that_comes_after_it() {
    for (package, before) in ORDERED {
        holds_its_order(package, &order(before));
    }
}

fn holds_its_order(package: &str, order: &[String]) {
    let place = |room: &str| order.iter().position(|r| r == room);
    let source = Path::new(env!("CARGO_MANIFEST_DIR")).with_file_name(package).join("src");
    let mut all = Vec::new();
    files(&source, &mut all);
    let mut wrong = Vec::new();
    for path in all {
        let relative = path.strip_prefix(&source).unwrap();
        let Some(room) = room_of(relative) else { continue };
        let here = place(&room).unwrap_or_else(|| panic!("{room} is in no order: {}", relative.display()));
        for other in named(&fs::read_to_string(&path).unwrap()) {
            if place(other).is_some_and(|there| there > here) {
                wrong.push(format!("{} knows {other}", relative.display()));
            }
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
    assert!(
        order
            .iter()
            .all(|room| { source.join(room).is_dir() || source.join(format!("{room}.rs")).is_file() }),
        "every room that is named is there"
    );
}
