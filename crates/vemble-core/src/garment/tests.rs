//! Every kind from its template, what its levels and seams have to do with each other, and figures that look like slips.

use super::{Beginning, Kind, Run, Seam, Width, begin, cloth_named, doubts, starting_seam};
use crate::body::Proportions;
use crate::body::{BodyMeasurement as B, Limb, Posture, Taken, Wearer};
use crate::document::{Document, wrong_wearer};
use crate::length::{Length, Measure, Tape, Unit};
use crate::people::asked;
use crate::place::Level;
use crate::solve::{NextStep, glance, solve};
use crate::tests::kit::{Fitted, m, taken, trousers};
use proptest::prelude::*;

fn wearer(figures: &[(B, &str)]) -> Wearer {
    Wearer {
        name: "Juno".into(),
        measurements: figures.iter().map(|(what, text)| taken(*what, text)).collect(),
        ..Default::default()
    }
}

fn begun(kind: Kind, wearer: Wearer) -> Fitted {
    let cloth = cloth_named(kind.template().cloth).unwrap();
    let name = kind.template().name.into();
    let garment = begin(Beginning { name, kind, toile: false, wearer: wearer.clone(), cloth });
    Fitted { garment, wearer }
}

fn document(garment: &Fitted) -> Document {
    garment.document(vec![])
}

#[test]
fn every_kind_begins_as_something_that_can_be() {
    let child = wearer(&[(B::Height, "98 cm")]);
    let tall = wearer(&[(B::Height, "203 cm"), (B::WaistGirth, "120 cm"), (B::InsideLeg, "96 cm")]);
    for wearer in [wearer(&[]), child, tall] {
        for kind in Kind::ALL.iter().copied() {
            let garment = begun(kind, wearer.clone());
            let (name, template) = (template_name(kind), kind.template());
            let whole = document(&garment);
            assert_eq!(whole.faults(), [], "{name}");
            assert!(
                garment.levels.iter().all(|l| l.assumed) && garment.seams.iter().all(|s| s.assumed),
                "{name}"
            );
            assert_eq!(doubts(&garment, &garment.wearer, Tape::Cm), [], "{name} does not doubt itself");
            assert_eq!(glance(&whole, Tape::Cm).unwrap().next_step, NextStep::LookOver);
            let solved = solve(&whole, Tape::In).unwrap();
            let round = template.levels.iter().filter(|l| l.0 != Level::Shoulder).count();
            assert_eq!(solved.levels.len(), round);
            // Whatever may be added to this kind can be.
            for spec in template.may_have.iter().filter(|s| garment.seam(s.seam).is_none()) {
                let mut more = garment.clone();
                more.seams.push(starting_seam(&garment, &Proportions::of(&garment.wearer), spec));
                assert_eq!(document(&more).faults(), [], "{name} with a {}", spec.seam.name());
            }
        }
    }
}

fn template_name(kind: Kind) -> &'static str {
    kind.template().name
}

#[test]
fn a_larger_body_begins_with_a_larger_garment() {
    let girth = |bust: &str, level| {
        let garment = begun(Kind::Dress, wearer(&[(B::Height, "165 cm"), (B::BustGirth, bust)]));
        garment.level(level).unwrap().width.girth()
    };
    // 7.5 cm of ease, the middle of what is usual.
    let near = |a: Length, text: &str| (a - m(text).length).abs() <= Length::from_mm(5);
    assert!(near(girth("90 cm", Level::Bust), "97.5 cm"), "to half a centimetre, laid flat");
    assert!(near(girth("110 cm", Level::Bust), "117.5 cm"));
    assert!(girth("110 cm", Level::Waist) > girth("90 cm", Level::Waist), "what was not measured follows");
}

#[test]
fn each_level_knows_what_it_goes_round_and_which_seams_cross_it() {
    let coverall = begun(Kind::Coverall, wearer(&[]));
    let crosses = |garment: &Fitted, seam, level| garment.station_on(seam, level).is_some();
    assert!(crosses(&coverall, Seam::Outseam, Level::Waist) && crosses(&coverall, Seam::Outseam, Level::Hem));
    assert!(crosses(&coverall, Seam::Inseam, Level::Knee) && !crosses(&coverall, Seam::Inseam, Level::Hip));
    assert!(
        crosses(&coverall, Seam::SleeveSeam, Level::Elbow)
            && !crosses(&coverall, Seam::Outseam, Level::Elbow)
    );
    assert!(!crosses(&coverall, Seam::WaistSeam, Level::Waist), "it runs along the level, not across it");
    let seat = |level| coverall.station_on(Seam::SeatSeam, level);
    assert_eq!(seat(Level::Thigh), None, "it begins at the crotch, where no level is");
    let long = coverall.seam(Seam::SeatSeam).map(|facts| facts.length.length);
    assert_eq!(
        seat(coverall.span_of(Seam::SeatSeam).1),
        long,
        "its stations are measured down from where it ends"
    );
    assert!(seat(Level::Waist) > seat(Level::Hip));

    // One leg at the knee, half of the whole at the hip.
    let whole = |garment: &Fitted, level| garment.level(level).unwrap().width.girth();
    let one_side = |level| {
        let station = coverall.station_on(Seam::Outseam, level).unwrap();
        coverall.girth_of_one_side(Seam::Outseam, station).unwrap()
    };
    assert_eq!(one_side(Level::Knee), whole(&coverall, Level::Knee));
    assert_eq!(one_side(Level::Hip), whole(&coverall, Level::Hip).fraction(1, 2));
    let sleeve = coverall.station_on(Seam::SleeveSeam, Level::Elbow).unwrap();
    assert_eq!(coverall.girth_of_one_side(Seam::SleeveSeam, sleeve), Some(whole(&coverall, Level::Elbow)));
    for seam in Seam::ALL.iter().copied() {
        let from = coverall.span_of(seam).0;
        let begins_at_a_level = seam.run() != Run::Across && from.is_at_an_edge();
        assert_eq!(crosses(&coverall, seam, from), begins_at_a_level, "{seam:?}");
    }
}

#[test]
fn a_flat_width_typed_as_a_girth_is_asked_about() {
    let mut garment = trousers();
    garment.levels[3].width = Width::Girth(m("52 cm"));
    let asked = doubts(&garment, &garment.wearer, Tape::Cm);
    assert_eq!(asked.len(), 1);
    assert_eq!(asked[0].path, "levels[3].width");
    assert_eq!(
        asked[0].question,
        "52.0 cm all round the hip is much less than the body’s 100.0 cm. Is that the width laid flat?"
    );
    let instead = asked[0].instead.as_ref().unwrap();
    assert_eq!(instead.words, "Yes: laid flat, 104.0 cm all round");
    garment.levels[3].width = instead.width;
    assert_eq!(doubts(&garment, &garment.wearer, Tape::Cm), [], "and taken at its word");
    // The other way round: a girth typed as a flat width.
    garment.levels[3].width = Width::LaidFlat(m("104 cm"));
    assert_eq!(
        doubts(&garment, &garment.wearer, Tape::Cm)[0].instead.as_ref().unwrap().width,
        Width::Girth(m("104 cm"))
    );
}

#[test]
fn impossible_bodies_are_refused_and_unlikely_ones_asked_about() {
    let refused = |figures: &[(B, &str)]| {
        let faults = wrong_wearer(&wearer(figures));
        faults.first().map(|f| (f.path.clone(), f.wrong.found(Tape::Cm)))
    };
    assert_eq!(refused(&[(B::Height, "165 cm"), (B::WaistGirth, "80 cm")]), None);
    let (path, found) = refused(&[(B::Height, "165 cm"), (B::WaistGirth, "170 cm")]).unwrap();
    assert_eq!(
        (path.as_str(), found.as_str()),
        ("measurements[1].value", "170 cm as waist girth of somebody 165.0 cm tall")
    );
    assert_eq!(refused(&[(B::Height, "17 cm")]).unwrap().1, "17 cm as height");
    assert_eq!(refused(&[(B::HipGirth, "-4 cm")]).unwrap().1, "-4 cm");
    let mut empty = wearer(&[]);
    empty.measurements.push(Taken { what: B::HipGirth, date: None, value: None, left: None, right: None });
    assert_eq!(wrong_wearer(&empty)[0].wrong.found(Tape::Cm), "the hip girth without a figure");

    let asked = |figures: &[(B, &str)]| -> Vec<String> {
        super::doubts_of_wearer(&wearer(figures), Tape::Cm).into_iter().map(|d| d.question).collect()
    };
    assert_eq!(
        asked(&[(B::HipGirth, "100 cm"), (B::HipGirthSeated, "96 cm")]),
        [
            "The hip girth seated (96.0 cm) is less than the hip girth (100.0 cm). Are the two the wrong way round?"
        ]
    );
    let mut apart = wearer(&[]);
    let side = |text| Some(m(text));
    apart.measurements.push(Taken {
        what: B::ThighGirth,
        date: None,
        value: None,
        left: side("55 cm"),
        right: side("59 cm"),
    });
    assert_eq!(super::doubts_of_wearer(&apart, Tape::Cm).len(), 1);
}

#[test]
fn a_wearer_is_fitted_by_the_newest_and_the_larger_figure() {
    let day = |text: &str| Some(text.parse().unwrap());
    let mut odile = wearer(&[]);
    let waist =
        |date, value| Taken { what: B::WaistGirth, date, value: Some(m(value)), left: None, right: None };
    odile.measurements = vec![
        waist(day("2026-08-22"), "77.5 cm"),
        waist(day("2025-03-09"), "75.5 cm"),
        waist(None, "70 cm"),
        Taken {
            what: B::ShoulderLength,
            date: None,
            value: None,
            left: Some(m("12 cm")),
            right: Some(m("12.6 cm")),
        },
    ];
    assert_eq!(odile.get(B::WaistGirth), Some(m("77.5 cm").length));
    assert_eq!(odile.get(B::ShoulderLength), Some(m("12.6 cm").length));
    assert_eq!(odile.get(B::HipGirth), None);
    assert_eq!(
        odile.explains_a_difference(Limb::Shoulder).as_deref(),
        Some("shoulder length differs between left and right")
    );
    for limb in [Limb::Arm, Limb::Trunk, Limb::Leg] {
        assert_eq!(odile.explains_a_difference(limb), None, "a shoulder says nothing about {limb:?}");
    }
    odile.posture.push(Posture::LeftLegLonger);
    let explained = |limb| odile.explains_a_difference(limb).is_some();
    assert_eq!([Limb::Leg, Limb::Trunk, Limb::Arm].map(explained), [true, true, false]);
    assert_eq!(wearer(&[]).explains_a_difference(Limb::Shoulder), None);
}

#[test]
fn nothing_is_asked_for_that_nothing_needs() {
    let juno = wearer(&[]);
    let names = |garments: &[Fitted]| -> Vec<B> {
        asked(&garments.iter().map(|g| &g.garment).collect::<Vec<_>>()).into_iter().map(|a| a.what).collect()
    };
    assert_eq!(names(&[]), []);
    let skirt = names(&[begun(Kind::Skirt, juno.clone())]);
    assert!(skirt.contains(&B::WaistGirth) && skirt.contains(&B::HipGirthSeated));
    assert!(
        !skirt.contains(&B::BustGirth) && !skirt.contains(&B::HeelGirth) && !skirt.contains(&B::ArmLength)
    );
    let top = names(&[begun(Kind::KnitTop, juno.clone())]);
    assert!(top.contains(&B::HeadGirth), "it is pulled over the head");
    assert!(!names(&[begun(Kind::Shirt, juno.clone())]).contains(&B::HeadGirth), "a shirt is buttoned");
    let both = asked(&[&begun(Kind::Skirt, juno.clone()), &begun(Kind::Jeans, juno)]);
    let hip = both.iter().find(|a| a.what == B::HipGirth).unwrap();
    assert_eq!(hip.unlocks, ["ease at the hip (skirt, jeans)", "sitting, at the hip (skirt, jeans)"]);
}

#[test]
fn a_garment_begun_in_inches_is_as_large_as_in_centimetres() {
    let inches = |what, inches: i64| Taken {
        what,
        date: None,
        value: Some(Measure { length: Length::from_64ths(inches * 64), unit: Unit::In }),
        left: None,
        right: None,
    };
    let mut american = wearer(&[]);
    american.measurements = vec![inches(B::Height, 65), inches(B::WaistGirth, 30)];
    let metric = wearer(&[(B::Height, "1651 mm"), (B::WaistGirth, "762 mm")]);
    assert_eq!(begun(Kind::Skirt, american).levels, begun(Kind::Skirt, metric).levels);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// In whatever order a garment is measured, and however far from what was assumed: no level that nobody measured stands in
    /// the way, and every measured one stays where it was put.
    #[test]
    fn assumed_levels_give_way(kind in prop::sample::select(Kind::ALL.to_vec()), scale in 0.5_f64..1.6, measured in prop::collection::vec(any::<bool>(), 15)) {
        let mut garment = begun(kind, wearer(&[]));
        for (level, measured) in garment.levels.iter_mut().zip(measured) {
            if measured {
                level.assumed = false;
                level.station.length = Length::from_cm(level.station.length.cm() * scale);
            }
        }
        prop_assert_eq!(document(&garment).faults(), []);
        let ordered = garment.with_levels_in_order(&garment.wearer);
        for of_sleeve in [false, true] {
            let mut column: Vec<_> = ordered.levels.iter().filter(|l| l.level.is_of_sleeve() == of_sleeve).collect();
            column.sort_by_key(|l| l.level);
            for pair in column.windows(2) {
                prop_assert!(pair[0].station.length > pair[1].station.length, "{:?} {:?}", pair[0], pair[1]);
            }
        }
        for (before, after) in garment.levels.iter().zip(&ordered.levels) {
            prop_assert!(before.assumed || before == after);
        }
        prop_assert_eq!(crate::figure::stand(&garment, &garment.wearer, Tape::Cm).views.len(), 3);
        prop_assert!(solve(&document(&garment), Tape::Cm).is_ok());
    }
}
