//! What was kept under the words of version 1 is found again.

use super::v1::{finding, keys, name_v1};
use crate::change::dart::DartChange;
use crate::change::elastic::{ElasticAt, ElasticChange};
use crate::change::seam::SeamChange;
use crate::change::{Change, draw};
use crate::fitting::{GarmentSide, SidePolicy};
use crate::garment::{Dart, Kind, Run};
use crate::judge::tests::kinds::round;
use crate::judge::{FindingKey, Subject, girths, judge_in_turn};
use crate::length::Tape;
use crate::tests::kit::{Fitted, m, pin, try_on};
use crate::try_on::TryOn;

/// A try-on with something on every long seam, a dart and elastic, its sides alike or not.
fn with_everything(garment: &Fitted, apart: bool) -> TryOn {
    let long = garment.seams.iter().filter(|facts| facts.seam.run() != Run::Across);
    let seams = long.map(|facts| {
        let station = crate::length::Measure { length: facts.length.length.fraction(2, 5), ..facts.length };
        let mut readings = vec![pin(GarmentSide::Left, &station.to_string(), "1.4 cm")];
        if apart && !facts.seam.is_single() {
            readings.push(pin(GarmentSide::Right, &station.to_string(), "0.4 cm"));
        }
        let sides = apart.then_some(SidePolicy::KeepEach);
        Change::Seam(SeamChange { readings, sides, ..SeamChange::of(facts.seam) })
    });
    let mut changes: Vec<Change> = seams.collect();
    let dart = if garment.hangs_from_shoulders() { Dart::BackFishEye } else { Dart::BackWaist };
    let readings = vec![pin(GarmentSide::Left, "6 cm", "1 cm")];
    changes.push(DartChange { readings, ..DartChange::of(dart) }.into());
    let casing = Some(m("40 cm"));
    changes.push(ElasticChange { at: ElasticAt::Waistband, casing, hold_percent: None }.into());
    TryOn { changes, ..try_on() }
}

/// Every finding, whatever it is about: by its rule and title of then, numbered where several had the same, it is found again.
#[test]
fn every_finding_is_known_by_what_version_1_called_it() {
    let mut found = 0;
    for kind in Kind::ALL.iter().copied() {
        for apart in [false, true] {
            let garment = round(kind);
            let try_on = with_everything(&garment, apart);
            let ordered = garment.with_levels_in_order(&garment.wearer);
            let Ok(drawn) = draw(
                crate::change::On {
                    garment: &ordered,
                    wearer: &garment.wearer,
                    hem_marks: &try_on.hem_marks,
                    keeps_all: false,
                },
                &try_on.changes,
            ) else {
                continue;
            };
            let subject = Subject {
                changes: &drawn,
                put_on: try_on.put_on(),
                ..Subject::as_it_is(&ordered, &garment.wearer, Tape::default())
            };
            let all = keys(&try_on, &garment, &garment.wearer);
            let mut called: Vec<String> = Vec::new();
            let mut seen: Vec<FindingKey> = Vec::new();
            for key in judge_in_turn(&subject, &girths(&subject)).into_iter().map(|finding| finding.key) {
                if seen.iter().any(|known| known.is(&key)) {
                    continue;
                }
                seen.push(key);
                let Some((rule, title)) = name_v1(&key, &ordered) else { continue };
                let name = format!("{}: {title}", rule.word());
                let number = 1 + called.iter().filter(|other| **other == name).count();
                let check = if number == 1 { name.clone() } else { format!("{name} ({number})") };
                called.push(name);
                let again = finding(&check, &ordered, &all).unwrap_or_else(|| panic!("{kind:?}: {check}"));
                assert!(again.is(&key), "{kind:?}: {check} is {again:?}, not {key:?}");
                found += 1;
            }
        }
    }
    assert!(found > 300, "{found}");
}

/// What was passed over and is not found just now stays passed over; what nobody ever said goes.
#[test]
fn what_is_not_found_today_is_known_all_the_same() {
    let garment = round(Kind::Dress);
    let all = keys(&try_on(), &garment, &garment.wearer);
    for check in [
        "ease: Ease at the waist",
        "run_out: Run-out of the side seam, the garment's left",
        "capacity: Letting out the side seam, both sides",
        "partners: Sleeve and armhole, both sides",
        "dart: Depth of the new bust darts",
        "elastic: Elastic in the waistband",
    ] {
        let is_known = finding(check, &garment, &all).is_some();
        assert_eq!(is_known, !check.contains("bust darts"), "{check}");
    }
    for check in [
        "",
        "ease",
        "ease: ",
        "ease:Ease at the waist",
        "hem: Ease at the waist",
        "ease: Ease at the knee of a horse",
    ] {
        assert_eq!(finding(check, &garment, &all), None, "{check}");
    }
}
