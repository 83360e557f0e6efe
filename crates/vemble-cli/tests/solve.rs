//! `vemble solve` and `vemble pieces` as a shell sees it: output, exit codes, words.

use std::io::Write;
use std::process::{Command, Output, Stdio};

const DEMO: &str = include_str!("../../../demo/corduroys.json");

fn vemble(arguments: &[&str], input: &str) -> Output {
    let mut child = Command::new(env!("CARGO_BIN_EXE_vemble"))
        .args(arguments)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    child.stdin.take().unwrap().write_all(input.as_bytes()).unwrap();
    child.wait_with_output().unwrap()
}

#[test]
fn solves_a_document_from_standard_input_in_four_formats() {
    let json = vemble(&["solve", "-"], DEMO);
    assert!(json.status.success());
    let solved: serde_json::Value = serde_json::from_slice(&json.stdout).unwrap();
    assert_eq!(solved["try_ons"][0]["levels"][5]["after"]["text"], "41.5 cm");
    let text = vemble(&["solve", "-", "--format", "text", "--tape", "in"], DEMO);
    assert!(String::from_utf8_lossy(&text.stdout).contains("Hem, left leg: opening 16 1/4 in (now 19 in)"));
    let csv = vemble(&["solve", "-", "--format", "csv"], DEMO);
    assert!(String::from_utf8_lossy(&csv.stdout).starts_with("try_on,change,name,note,"));
    let pdf = vemble(&["solve", "-", "--format", "pdf", "--paper", "letter", "--card", "seam.outseam"], DEMO);
    assert!(pdf.stdout.starts_with(b"%PDF-"));
    let none = vemble(&["solve", "-", "--format", "pdf", "--card", "seam.inseam"], DEMO);
    assert_eq!(
        String::from_utf8_lossy(&none.stderr),
        "vemble: no card seam.inseam; there are: seam.outseam, hem.leg\n"
    );
    assert!(none.stdout.is_empty() && none.status.code() == Some(1));
}

#[test]
fn pieces_of_a_document_are_written() {
    let toile = include_str!("../../../demo/pinafore-toile.json");
    let written = |format: &str, more: &[&str]| {
        let output = vemble(&[&["pieces", "-", "--format", format], more].concat(), toile);
        assert!(output.status.success(), "{format}: {}", String::from_utf8_lossy(&output.stderr));
        output.stdout
    };
    let list = String::from_utf8(written("text", &["--tape", "in"])).unwrap();
    assert!(list.contains("Bodice, back: cut 1 on the fold\n  waist edge: "), "{list}");
    assert!(written("pdf", &["--paper", "letter"]).starts_with(b"%PDF-"));
    let pieces: serde_json::Value = serde_json::from_slice(&written("json", &[])).unwrap();
    assert_eq!(pieces["sets"][0]["pieces"].as_array().unwrap().len(), list.matches(": cut ").count());
    // The waistband of the corduroys stays as it is, and is drawn once though left and right differ.
    let drawn = |more: &[&str]| {
        let svg = vemble(&[&["pieces", "-", "--format", "svg"], more].concat(), DEMO).stdout;
        String::from_utf8(svg).unwrap().matches("<g data-cut=").count()
    };
    assert_eq!((drawn(&[]), drawn(&["--changed"])), (5, 4));
    // What was written is read again, whole; what does not say how large it is, is asked about.
    let file = std::env::temp_dir().join(format!("vemble-pieces-{}.svg", std::process::id()));
    let path = file.to_str().unwrap();
    std::fs::write(&file, written("svg", &[])).unwrap();
    let read = vemble(&["pieces", "-", "--read", path], toile);
    assert!(read.status.success(), "{}", String::from_utf8_lossy(&read.stderr));
    let document: serde_json::Value = serde_json::from_slice(&read.stdout).unwrap();
    let drawn = document["wishes"]["pattern"]["drawn"].as_array().unwrap();
    assert_eq!(drawn.len(), pieces["sets"][0]["pieces"].as_array().unwrap().len());
    std::fs::write(
        &file,
        "<svg xmlns='http://www.w3.org/2000/svg'><g id='front'><path d='M0 0H99V99Z'/></g></svg>",
    )
    .unwrap();
    let unsaid = vemble(&["pieces", "-", "--read", path], toile);
    assert_eq!(unsaid.status.code(), Some(2));
    assert!(
        String::from_utf8_lossy(&unsaid.stderr)
            .starts_with("unit: found a file that does not say how large it is"),
        "{unsaid:?}"
    );
    let unnamed = vemble(&["pieces", "-", "--read", path, "--unit", "cm"], toile);
    assert!(
        String::from_utf8_lossy(&unnamed.stderr).contains("“front”: name it, and its edges"),
        "{unnamed:?}"
    );
    std::fs::remove_file(&file).unwrap();
    let nothing = vemble(
        &["pieces", "-", "--changed", "--format", "dxf"],
        include_str!("../../../demo/summer-trousers.json"),
    );
    assert_eq!(nothing.status.code(), Some(1));
    assert_eq!(
        String::from_utf8_lossy(&nothing.stderr),
        "vemble: nothing of it has a line to print at true size\n"
    );
}

#[test]
fn a_bad_document_exits_with_2_and_names_the_place() {
    for (from, to, said) in [
        (
            "\"3.4 cm\"",
            "\"4 1/\"",
            "try_ons[0].changes[0].seam.readings[0].amount: found “4 1/” has an unfinished fraction; expected both numbers of the fraction, like 4 1/2\n",
        ),
        (
            "\"66 cm\"",
            "\"50 cm\"",
            "try_ons[0].changes[0].seam.upper: found 50 cm, but a pin stands at 58.0 cm; expected an end beyond the outermost pin\n",
        ),
    ] {
        let output = vemble(&["solve", "-"], &DEMO.replacen(from, to, 1));
        assert_eq!(output.status.code(), Some(2));
        assert_eq!(String::from_utf8_lossy(&output.stderr), said);
        assert!(output.stdout.is_empty(), "nothing half");
    }
    assert_eq!(vemble(&["solve", "/nowhere.json"], "").status.code(), Some(1));
}

#[test]
fn a_household_is_never_served_beyond_loopback() {
    let url = std::env::var("DATABASE_URL").expect("DATABASE_URL; `cargo xtask test` sets it");
    let served = Command::new(env!("CARGO_BIN_EXE_vemble"))
        .args(["serve", "--household", "--host", "0.0.0.0", "--port", "0", "--migrate"])
        .env("DATABASE_URL", url)
        .output()
        .unwrap();
    assert_eq!(served.status.code(), Some(1));
    let said = String::from_utf8_lossy(&served.stderr);
    assert!(said.contains("a household is served on loopback only"), "{said}");
}

#[test]
fn every_document_of_the_example_solves() {
    for entry in std::fs::read_dir(concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo")).unwrap() {
        let path = entry.unwrap().path();
        let json = std::fs::read_to_string(&path).unwrap();
        let solved = vemble(&["solve", "-", "--tape", "in_sixteenths"], &json);
        assert!(solved.status.success(), "{}: {}", path.display(), String::from_utf8_lossy(&solved.stderr));
        let solved: serde_json::Value = serde_json::from_slice(&solved.stdout).unwrap();
        // One that is still to be made was tried on by nobody: its levels stand as it starts.
        let levels = solved["try_ons"].get(0).unwrap_or(&solved)["levels"].as_array().unwrap();
        assert!(levels.len() >= 3, "{}", path.display());
        assert_eq!(solved["unit"], "in");
        let with_hyphen = vemble(&["solve", "-", "--tape", "in-sixteenths"], &json);
        assert_eq!(serde_json::from_slice::<serde_json::Value>(&with_hyphen.stdout).unwrap(), solved);
    }
}
