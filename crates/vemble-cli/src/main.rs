//! The `vemble` program.
use std::io::Read;
fn main() {
    let mut t = Vec::new();
    std::io::stdin().read_to_end(&mut t).unwrap();
    let d = vemble_exchange::document::read_document(&t).unwrap();
    let s = vemble_core::solve::solve(&d, Default::default()).unwrap();
    println!("{}", vemble_exchange::text::cards_text(&s));
    println!("{}", vemble_exchange::marks_csv::marks_csv(&s).unwrap());
    for c in &s.try_ons[0].checks {
        println!("{c:#?}");
    }
    for c in &s.try_ons[0].levels {
        println!(
            "{} | {} | {:?} {:?}",
            c.name(),
            c.sum,
            c.ease_after.as_ref().map(|f| &f.text),
            c.comfort.as_ref().map(|c| c.after)
        );
    }
    std::fs::write("/tmp/solved.json", serde_json::to_string_pretty(&s).unwrap()).unwrap();
}
