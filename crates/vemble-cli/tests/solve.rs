//! `vemble solve` as a shell sees it: output, exit codes, words.

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
fn solves_a_document_from_standard_input_in_three_formats() {
    let json = vemble(&["solve", "-"], DEMO);
    assert!(json.status.success());
    let solved: serde_json::Value = serde_json::from_slice(&json.stdout).unwrap();
    assert_eq!(solved["try_ons"][0]["levels"][5]["after"]["text"], "41.2 cm");
    let text = vemble(&["solve", "-", "--format", "text", "--tape", "in"], DEMO);
    assert!(
        String::from_utf8_lossy(&text.stdout).contains("Hem, each leg: opening 16 1/4 in (now 18 7/8 in)")
    );
    let csv = vemble(&["solve", "-", "--format", "csv"], DEMO);
    assert!(String::from_utf8_lossy(&csv.stdout).starts_with("try_on,seam,garment_side,note,station_cm,"));
}

#[test]
fn a_bad_document_exits_with_2_and_names_the_place() {
    for (from, to, said) in [
        (
            "\"3.4 cm\"",
            "\"4 1/\"",
            "try_ons[0].alterations[0].readings[0].amount: found “4 1/” has an unfinished fraction; expected both numbers of the fraction, like 4 1/2\n",
        ),
        (
            "\"66 cm\"",
            "\"50 cm\"",
            "try_ons[0].alterations[0].upper: found 50 cm, but a pin stands at 58.0 cm; expected an end beyond the outermost pin\n",
        ),
    ] {
        let output = vemble(&["solve", "-"], &DEMO.replacen(from, to, 1));
        assert_eq!(output.status.code(), Some(2));
        assert_eq!(String::from_utf8_lossy(&output.stderr), said);
        assert!(output.stdout.is_empty(), "nothing half");
    }
    assert_eq!(vemble(&["solve", "/nowhere.json"], "").status.code(), Some(1));
}
