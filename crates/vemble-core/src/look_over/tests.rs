//! The look-over of every kind: that it asks about all there is, and that its answers fit.

use super::*;
use crate::body::Wearer;
use crate::garment::{Beginning, begin, cloth_named};
use crate::garment::{Kind, Lined, Origin, Washed, Width};
use crate::tests::kit::{Fitted, m, taken};

fn begun(kind: Kind) -> Fitted {
    let wearer = Wearer { name: "Odile".into(), ..Default::default() };
    let cloth = cloth_named(kind.template().cloth).unwrap();
    let garment = begin(Beginning { name: "it".into(), kind, toile: false, wearer: wearer.clone(), cloth });
    Fitted { garment, wearer }
}

fn over(of: &Fitted) -> LookOver {
    look_over(of, &of.wearer, Tape::Cm)
}

fn keys(over: &LookOver) -> Vec<&str> {
    over.places.iter().flat_map(|p| &p.questions).map(|q| q.key.as_str()).collect()
}

#[test]
fn everything_that_can_be_picked_on_the_stand_can_be_asked_about() {
    for kind in Kind::ALL.iter().copied() {
        let over = over(&begun(kind));
        let keys = keys(&over);
        for part in crate::figure::stand(&begun(kind), &begun(kind).wearer, Tape::Cm)
            .views
            .iter()
            .flat_map(|v| &v.parts)
        {
            let Some(key) = &part.key else { continue };
            assert!(keys.contains(&key.as_str()), "{kind:?}: {key}");
        }
        for (n, key) in keys.iter().enumerate() {
            assert!(!keys[..n].contains(key), "{kind:?} asks twice about {key}");
        }
        let whys = over.places.iter().flat_map(|p| &p.questions);
        assert!(
            whys.clone().all(|q| !q.why.is_empty() && !q.fields.is_empty()),
            "every answer says what it is for"
        );
    }
}

#[test]
fn whatever_is_added_fits_the_garment_and_is_asked_about() {
    for kind in Kind::ALL.iter().copied() {
        let garment = begun(kind);
        for addition in over(&garment).additions {
            let mut more = garment.clone();
            match addition.part.clone() {
                Part::Level(level) => more.levels.push(level),
                Part::Seam(seam) => more.seams.push(seam),
                Part::Dart(dart) => more.darts.push(dart),
                Part::Hem(hem) => more.hems.push(hem),
                Part::Closure(closure) => more.closures.push(closure),
            }
            assert_eq!(more.document(vec![]).faults(), [], "{kind:?} with {}", addition.words);
            let before = over(&garment).of;
            assert!(over(&more).of > before, "{kind:?} with {}", addition.words);
        }
    }
}

#[test]
fn an_answer_settles_its_question_and_opens_the_next() {
    let mut coat = begun(Kind::LinedCoat);
    let before = over(&coat);
    coat.found.lined = Some(Lined::Fully);
    let lined = over(&coat);
    assert!(keys(&lined).contains(&"whole.lining_opens") && !keys(&before).contains(&"whole.lining_opens"));
    assert_eq!((lined.settled, lined.of), (before.settled + 1, before.of + 1));
    coat.levels[0].assumed = false;
    coat.levels[0].width = Width::LaidFlat(m("9 1/2 in"));
    let measured = look_over(&coat, &coat.wearer, Tape::In);
    assert_eq!(measured.settled, lined.settled + 1);
    let neck = measured.places.iter().flat_map(|p| &p.questions).find(|q| q.key == "level.neck").unwrap();
    let Field::Width { shown, girth, laid_flat, .. } = &neck.fields[0] else { panic!("a width") };
    assert_eq!((shown.text().as_str(), girth.as_str(), *laid_flat), ("9 1/2 in", "19 in", true));
}

#[test]
fn cautions_come_with_what_was_found() {
    let titles = |change: fn(&mut Fitted)| -> Vec<&'static str> {
        let mut garment = begun(Kind::Coverall);
        change(&mut garment);
        over(&garment).cautions.into_iter().map(|c| c.title).collect()
    };
    assert!(titles(|_| ()).is_empty());
    assert_eq!(titles(|g| g.found.protective = Some(true)), ["Do not alter this"]);
    assert_eq!(titles(|g| g.found.origin = Some(Origin::Thrifted)), ["Wash it first"]);
    let washed = |g: &mut Fitted| {
        g.found.origin = Some(Origin::Thrifted);
        g.found.washed = Some(Washed::Often);
    };
    assert!(titles(washed).is_empty());
    assert_eq!(titles(|g| g.found.washed = Some(Washed::Never)), ["It will shrink"]);
    assert_eq!(titles(|g| g.cloth = cloth_named("satin").unwrap()), ["Old stitch holes will show"]);
    let child = |g: &mut Fitted| {
        g.wearer.measurements = vec![taken(crate::body::BodyMeasurement::Height, "120 cm")];
    };
    assert_eq!(titles(child), ["Worn by a child"]);
}
