//! Every sign is drawn on every body, says something of every cause, and leads to a change that can be made.

use super::*;
use crate::document::{Document, State};
use crate::length::{Length, Measure};
use crate::shown::SolvedChange;
use crate::solve::solve;
use crate::tests::anything::{is_well_said, sensible_document};
use crate::tests::kit::{m, taken, trying};
use kurbo::Shape;
use proptest::prelude::*;
use std::collections::BTreeSet;
use uuid::Uuid;

fn wearer(demo: &str) -> Wearer {
    let path = format!("{}/../../demo/{demo}.json", env!("CARGO_MANIFEST_DIR"));
    serde_json::from_str::<Document>(&std::fs::read_to_string(path).unwrap()).unwrap().wearer
}

fn all(signs: &Signs) -> Vec<&SignLine> {
    signs.places.iter().flat_map(|place| &place.signs).collect()
}

#[test]
fn the_book_has_every_sign_drawn_on_whoever_looks_at_it() {
    let bodies = ["concert-shirt", "tea-dress", "school-skirt"].map(wearer);
    let drawn: Vec<Signs> = bodies.iter().map(|body| every_sign(body, Tape::Cm)).collect();
    for signs in &drawn {
        let known: BTreeSet<Sign> = all(signs).iter().map(|line| line.sign).collect();
        assert_eq!(known, Sign::ALL.iter().copied().collect());
        is_well_said(signs);
        for line in all(signs) {
            let picture = line.picture.as_ref().unwrap();
            let [left, top, wide, tall] = picture.view;
            let view = kurbo::Rect::new(left, top, left + wide, top + tall);
            let folds = picture.strokes.iter().filter(|stroke| stroke.ink == crate::figure::Ink::Fold);
            let mut count = 0;
            for fold in folds {
                let path = kurbo::BezPath::from_svg(&fold.path).unwrap();
                assert!(view.contains_rect(path.bounding_box()), "{}: {:?}", line.name, path.bounding_box());
                count += 1;
            }
            assert!(count > 0, "{}", line.name);
        }
    }
    // Nothing is drawn that does not follow from the body: on another one every fold lies elsewhere.
    let pictures =
        |signs: &Signs| all(signs).iter().map(|line| (line.sign, line.picture.clone())).collect::<Vec<_>>();
    for (one, other) in pictures(&drawn[0]).iter().zip(pictures(&drawn[1])) {
        assert_ne!(one.1, other.1, "{:?}", one.0);
    }
}

#[test]
fn every_sign_leads_to_a_change_that_can_be_made() {
    let body = wearer("tea-dress");
    for line in all(&every_sign(&body, Tape::Cm)) {
        assert!(line.causes.iter().any(|cause| cause.lead.is_some()), "{} leads nowhere", line.name);
    }
    // What it leads to is drawn and judged like anything else, on either tape.
    for tape in Tape::ALL.iter().copied() {
        for (kind, lined) in EXAMPLES {
            let garment = example(kind, lined, &body).unwrap();
            for line in all(&signs(&garment, &body, tape)) {
                for lead in line.causes.iter().filter_map(|cause| cause.lead.as_ref()) {
                    let document = Document::of(
                        body.clone(),
                        State::first(Uuid::nil(), garment.clone()),
                        vec![trying(vec![lead.change.clone()])],
                    );
                    let solved =
                        solve(&document, tape).unwrap_or_else(|faults| panic!("{}: {faults:?}", lead.says));
                    let try_on = &solved.try_ons[0];
                    let change = try_on.changes.iter().find(|change| change.key == lead.key).unwrap();
                    does_what_it_says(&lead.says, change, tape);
                }
            }
        }
    }
}

/// A seam or a dart: what is said of its edges is what comes off them, in the same direction.
fn does_what_it_says(says: &str, change: &SolvedChange, tape: Tape) {
    let Some(pin) = change.line().and_then(|line| line.pins.first()) else { return };
    let [front, back] = [&pin.front, &pin.back].map(|figure| tape.round(figure.measure().length));
    let said = |length: Length| says.contains(&format!(" {} ", tape.show(length.abs())));
    match says {
        says if says.starts_with("Let the front edge") => {
            assert!(front < back && back == Length::ZERO && said(front), "{says}");
        }
        says if says.starts_with("Let the back edge") => {
            assert!(back < front && front == Length::ZERO && said(back), "{says}");
        }
        says if says.starts_with("Let") || says.contains(" less deep") => {
            assert!(front == back && front < Length::ZERO && said(front), "{says}: {front:?} {back:?}");
        }
        _ => assert!(front == back && front > Length::ZERO && said(front), "{says}: {front:?} {back:?}"),
    }
}

/// Which way a seam is pulled: to where there is too little cloth.
#[test]
fn a_side_seam_swings_to_the_side_that_is_too_narrow() {
    let body = wearer("tea-dress");
    let book = every_sign(&body, Tape::Cm);
    for (sign, edge) in [(Sign::SideSeamForward, "front"), (Sign::SideSeamBack, "back")] {
        let causes = &all(&book).into_iter().find(|line| line.sign == sign).unwrap().causes;
        assert!(causes[0].why.starts_with(&format!("The {edge} is too narrow")), "{}", causes[0].why);
        let lead = causes[0].lead.as_ref().unwrap();
        assert!(lead.says.starts_with(&format!("Let the {edge} edge of the side seam out")), "{}", lead.says);
    }
}

#[test]
fn the_figures_that_are_known_speak_for_a_cause_or_against_it() {
    let mut body = wearer("corduroys");
    let garment = example(Kind::Trousers, false, &body).unwrap();
    let hip = garment.level(Level::Hip).unwrap().width.girth();
    let says = |body: &Wearer| {
        let signs = signs(&garment, body, Tape::Cm);
        let pulls = all(&signs).into_iter().find(|line| line.sign == Sign::HipPulls).unwrap().clone();
        (pulls.causes[0].speaks, pulls.causes[0].confirms.clone())
    };
    let set = |body: &mut Wearer, ease: &str| {
        let girth = Measure { length: hip - m(ease).length, unit: crate::length::Unit::Cm };
        body.measurements.retain(|taken| taken.what != crate::body::BodyMeasurement::HipGirth);
        body.measurements.push(taken(crate::body::BodyMeasurement::HipGirth, &girth.to_string()));
    };
    set(&mut body, "1 cm");
    let (speaks, words) = says(&body);
    assert_eq!(speaks, Speaks::For);
    assert!(words.starts_with("Hip: ") && words.ends_with("= 1.0 cm of ease, too tight."), "{words}");
    set(&mut body, "12 cm");
    assert_eq!(says(&body).0, Speaks::Against);
    body.measurements.clear();
    assert_eq!(says(&body), (Speaks::Unknown, "Measure the wearer at the hip.".into()));
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 60, failure_persistence: None, ..ProptestConfig::default() })]

    /// Whatever a garment is, what it can show is said in plain words, and what that leads to fits it.
    #[test]
    fn signs_of_any_garment_are_its_own(seed: u64) {
        let document = sensible_document(seed);
        let garment = &document.newest().unwrap().garment;
        let found = signs(garment, &document.wearer, Tape::In);
        is_well_said(&found);
        for line in all(&found) {
            prop_assert!(line.sign.can_show_on(garment));
            for lead in line.causes.iter().filter_map(|cause| cause.lead.as_ref()) {
                prop_assert!(lead.key.fits(garment), "{} on {:?}", lead.says, garment.kind);
            }
        }
    }
}
