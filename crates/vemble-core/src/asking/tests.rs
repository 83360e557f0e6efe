//! What is asked of every kind of garment, and that every answer fits.

use super::*;
use crate::body::BodyMeasurement;
use crate::body::{Posture, Wearer};
use crate::change::{Change, ChangeKey};
use crate::compare::compare;
use crate::fitting::{GarmentSide, How, Reading, Worn};
use crate::garment::{Beginning, Kind, Seam, begin, cloth_named};
use crate::solve::solve;
use crate::tests::kit::{Fitted, m, taken, trousers, try_on, trying};
use crate::try_on::{LeftOut, TryOn};
use uuid::Uuid;

fn odile() -> Wearer {
    use BodyMeasurement as B;
    let figures =
        [(B::Height, "168 cm"), (B::BustGirth, "94 cm"), (B::WaistGirth, "76 cm"), (B::HipGirth, "102 cm")];
    let measurements = figures.map(|(what, text)| taken(what, text)).into();
    Wearer {
        name: "Odile".into(),
        measurements,
        posture: vec![Posture::LeftShoulderLower],
        ..Wearer::default()
    }
}

fn document(kind: Kind) -> Document {
    let cloth = cloth_named(kind.template().cloth).unwrap();
    let wearer = odile();
    let garment = begin(Beginning { name: "it".into(), kind, toile: false, wearer: wearer.clone(), cloth });
    Fitted { garment, wearer }.document(vec![try_on()])
}

fn titles(asking: &Asking) -> Vec<&str> {
    asking.steps.iter().map(|s| s.title.as_str()).collect()
}

#[test]
fn from_the_shoulders_down_and_lengths_last() {
    let dress = asking(&document(Kind::Dress), Tape::Cm);
    assert_eq!(
        titles(&dress),
        [
            "Shoulders",
            "Armholes",
            "Bust",
            "Waist",
            "Hip",
            "Lower edge",
            "Upper arm",
            "Wrist",
            "Hem",
            "Sleeve hems",
            "Moving"
        ]
    );
    let trousers = asking(&document(Kind::Trousers), Tape::Cm);
    assert_eq!(titles(&trousers), ["Waist", "Hip", "Thigh", "Knee", "Lower edge", "Leg hems", "Moving"]);
    let waist = &trousers.steps[0];
    let names: Vec<&str> = waist.pins.iter().map(|p| p.name.as_str()).collect();
    assert_eq!(names, ["outseam", "seat seam", "front rise", "back waist dart"]);
    let of_dress = |n: usize| dress.steps[3].pins.iter().rev().nth(n).map(|p| p.name.as_str());
    assert_eq!(of_dress(0), Some("new back fish-eye dart"), "where one is commonly set");
    let shoulders = &dress.steps[0];
    assert!(
        shoulders.suggested
            && shoulders.hints[0].contains("Odile: left shoulder lower: pin each side for itself")
    );
}

/// Every place that is asked about takes a pin on either side, and the answer comes back where it was asked.
#[test]
fn whatever_is_asked_can_be_answered_for_every_kind() {
    for kind in Kind::ALL.iter().copied() {
        for (worn, tape) in [(Worn::RightSideOut, Tape::Cm), (Worn::InsideOut, Tape::In)] {
            let mut document = document(kind);
            document.try_ons[0].worn = worn;
            let empty = asking(&document, tape);
            let keys: Vec<&String> = empty.steps.iter().map(|s| &s.key).collect();
            assert!((1..keys.len()).all(|n| !keys[..n].contains(&keys[n])), "{kind:?}: {keys:?}");
            let try_on = &mut document.try_ons[0];
            for (n, place) in empty.steps.iter().flat_map(|s| &s.pins).enumerate() {
                for side in &place.sides {
                    assert_eq!(worn.on_wearer(side.side), side.wearer_side);
                    assert!(
                        !matches!(place.change, ChangeKey::Seam(seam) if seam != Seam::YokeSeam)
                            || side.spot.is_some(),
                        "{kind:?} {}",
                        place.name
                    );
                    let reading = Reading {
                        id: Some(Uuid::from_u128(2 * n as u128 + side.side as u128)),
                        side: side.side,
                        station: place.station,
                        amount: m("5 mm"),
                        how: How::Fold,
                    };
                    let place_of = |t: &TryOn| t.changes.iter().position(|c| c.key() == place.change);
                    let at = place_of(try_on).unwrap_or_else(|| {
                        try_on.changes.push(Change::of(place.change));
                        try_on.changes.len() - 1
                    });
                    let change = &mut try_on.changes[at];
                    change.set_readings([change.readings(), &[reading]].concat());
                }
            }
            solve(&document, tape).unwrap_or_else(|f| panic!("{kind:?}: {f:?}"));
            let full = asking(&document, tape);
            for side in full.steps.iter().flat_map(|s| &s.pins).flat_map(|p| &p.sides) {
                let pin = side.pin.as_ref().unwrap_or_else(|| panic!("{kind:?}: {}", side.words));
                let shown = [pin.read.text(), pin.whole.text()];
                assert!(
                    [["0.5 cm", "1.0 cm"], ["1/4 in", "3/8 in"]]
                        .contains(&shown.each_ref().map(String::as_str)),
                    "{shown:?}"
                );
            }
        }
    }
}

#[test]
fn inside_out_the_wearers_left_comes_first_and_is_the_garments_right() {
    let mut document = trousers().document(vec![try_on()]);
    document.try_ons[0].worn = Worn::InsideOut;
    document.try_ons[0].left_out = vec![LeftOut {
        change: ChangeKey::Seam(Seam::Outseam),
        side: GarmentSide::Left,
        level: Level::Knee,
        why: Why::CopyLater,
    }];
    let asking = asking(&document, Tape::Cm);
    let knee = asking.steps.iter().find(|s| s.title == "Knee").unwrap();
    let sides: Vec<_> = knee.pins[0].sides.iter().map(|s| (s.words.as_str(), s.left_out)).collect();
    assert_eq!(
        sides,
        [
            ("garment’s right, on the wearer’s left", None),
            ("garment’s left, on the wearer’s right", Some(Why::CopyLater)),
        ]
    );
    // From the front the wearer's left is on the right of the picture, whichever way out the garment is.
    let spot = |n: usize| knee.pins[0].sides[n].spot.unwrap();
    assert!(spot(0).x_mm > 0.0 && spot(1).x_mm < 0.0);
    assert!(knee.settled, "nobody forgot it");
    assert!(asking.one_side, "alone in a mirror");
}

#[test]
fn forty_five_where_four_and_a_half_was_meant() {
    let mut document = trousers().document(vec![try_on()]);
    let pin = |amount: &str| Reading {
        id: Some(Uuid::from_u128(1)),
        ..crate::tests::kit::pin(GarmentSide::Left, "0 cm", amount)
    };
    let doubt_at = |document: &mut Document, amount: &str| {
        document.try_ons[0].changes = vec![crate::tests::kit::outseam(vec![pin(amount)], None).into()];
        asking(document, Tape::Cm).doubts
    };
    let doubts = doubt_at(&mut document, "45 cm");
    assert_eq!(
        doubts[0].question,
        "45.0 cm here takes out 90.0 cm altogether, of 48.0 cm on this side. Is that so?"
    );
    assert_eq!(doubts[0].instead, Some(m("4.5 cm")));
    assert_eq!(doubt_at(&mut document, "4.5 cm"), []);
    // A third of a side is a lot, but a tenth of it would not be a mark on the tape: it is only asked about.
    assert_eq!(doubt_at(&mut document, "9.3 cm")[0].instead, None);
}

#[test]
fn the_last_try_on_is_remembered_and_compared() {
    let with = |date, amount: &str| TryOn {
        date,
        ..trying(vec![crate::tests::kit::outseam(
            vec![crate::tests::kit::pin(GarmentSide::Left, "45 cm", amount)],
            None,
        )])
    };
    let mut document = trousers().document(vec![try_on()]);
    document.try_ons =
        vec![with(jiff::civil::date(2026, 9, 6), "2 cm"), with(jiff::civil::date(2026, 9, 20), "1.4 cm")];
    document.try_ons[1].worn = Worn::InsideOut;
    document.try_ons[1].shoes = "concert shoes".into();
    let asked = asking(&document, Tape::Cm);
    let knee = asked.steps.iter().find(|s| s.title == "Knee").unwrap();
    assert!(knee.suggested && knee.hints.iter().any(|h| h == "Last time at the knee: 2.0 cm, outseam."));
    insta::assert_json_snapshot!(compare(&document, Tape::Cm).unwrap());
}
