//! Drawings: that they follow the numbers, on every kind of garment and on bodies of every sort.

use super::{Hanging, Stand, View, ViewSide, hanging, stand, stand_changes};
use crate::body::{BodyMeasurement as B, Posture, Wearer};
use crate::change::DrawnChange;
use crate::change::seam::{SeamChange, alter};
use crate::fitting::GarmentSide;
use crate::fitting::{End, SidePolicy};
use crate::garment::{Beginning, Kind, Width, begin, cloth_named};
use crate::judge::{Subject, girths};
use crate::length::{Length, Measure, Tape, Unit};
use crate::place::Level;
use crate::tests::kit::{Fitted, meets, outseam, pin, taken, trousers};
use kurbo::{BezPath, ParamCurve, Rect, Shape};
use proptest::prelude::*;

fn wearer(figures: &[(B, &str)], posture: &[Posture]) -> Wearer {
    Wearer {
        name: "Odile".into(),
        measurements: figures.iter().map(|(what, text)| taken(*what, text)).collect(),
        posture: posture.to_vec(),
        notes: vec![],
        taste: Vec::new(),
    }
}

fn stood(of: &Fitted) -> Stand {
    stand(of, &of.wearer, Tape::Cm)
}

fn hung(of: &Fitted) -> Option<Hanging> {
    hanging(of, &of.wearer)
}

/// A violist, a cellist, and a child.
fn three_bodies() -> [Wearer; 3] {
    [
        wearer(
            &[
                (B::Height, "162 cm"),
                (B::BustGirth, "94 cm"),
                (B::WaistGirth, "77 cm"),
                (B::HipGirth, "101 cm"),
            ],
            &[Posture::LeftShoulderLower, Posture::ShortWaist],
        ),
        wearer(
            &[(B::Height, "186 cm"), (B::BustGirth, "118 cm"), (B::WaistGirth, "114 cm")],
            &[Posture::FullAbdomen],
        ),
        wearer(&[(B::Height, "118 cm"), (B::HipGirth, "62 cm")], &[]),
    ]
}

fn garment_of(kind: Kind, wearer: Wearer) -> Fitted {
    let cloth = cloth_named(kind.template().cloth).unwrap();
    let name = kind.template().name.into();
    let garment = begin(Beginning { name, kind, toile: false, wearer: wearer.clone(), cloth });
    Fitted { garment, wearer }
}

fn view(stand: &Stand, side: ViewSide) -> &View {
    stand.views.iter().find(|v| v.view == side).unwrap()
}

fn bounds(path: &str) -> Rect {
    BezPath::from_svg(path).unwrap_or_else(|e| panic!("{path}: {e}")).bounding_box()
}

fn cloth_bounds(view: &View) -> Rect {
    view.cloth.iter().map(|path| bounds(path)).reduce(|a, b| a.union(b)).unwrap()
}

#[test]
fn every_kind_has_its_own_picture() {
    let [violist, ..] = three_bodies();
    let drawn: Vec<(Kind, Hanging)> =
        Kind::ALL.iter().map(|kind| (*kind, hung(&garment_of(*kind, violist.clone())).unwrap())).collect();
    for (n, (kind, picture)) in drawn.iter().enumerate() {
        assert!(
            drawn[..n].iter().all(|(_, other)| other.cloth != picture.cloth || other.edges != picture.edges)
        );
        insta::assert_json_snapshot!(format!("{kind:?}"), picture);
    }
}

#[test]
fn every_kind_stays_on_the_paper_on_every_body() {
    for body in three_bodies() {
        for kind in Kind::ALL.iter().copied() {
            let garment = garment_of(kind, body.clone());
            let drawing = stood(&garment);
            assert_eq!(drawing.views.len(), 3, "{kind:?}");
            let half = drawing.width_mm / 2.0;
            let paper = Rect::new(-half, -1.0, half, drawing.height_mm + 1.0);
            for view in &drawing.views {
                let cloth = cloth_bounds(view);
                assert!(paper.contains_rect(cloth), "{kind:?} {:?}: {cloth:?} in {paper:?}", view.view);
                let on_cloth = cloth.inflate(60.0, 70.0);
                for part in &view.parts {
                    let part_bounds = bounds(&part.path);
                    assert!(on_cloth.contains_rect(part_bounds), "{kind:?} {:?}: {}", view.view, part.name);
                }
                for path in &view.body {
                    assert!(bounds(path).is_finite());
                }
            }
        }
    }
}

#[test]
fn ten_centimetres_more_hip_look_like_it() {
    for kind in [Kind::Trousers, Kind::Skirt, Kind::Dress, Kind::Coverall] {
        let garment = garment_of(kind, three_bodies()[0].clone());
        let mut wider = garment.clone();
        let hip = wider.levels.iter_mut().find(|l| l.level == Level::Hip).unwrap();
        hip.width =
            Width::Girth(Measure { length: hip.width.girth() + Length::from_mm(100), unit: Unit::Cm });
        let edges = |garment: &Fitted, side| {
            let drawing = stood(garment);
            view(&drawing, side).levels.iter().find(|l| l.level == Level::Hip).unwrap().edges_mm
        };
        for side in [ViewSide::Front, ViewSide::Back, ViewSide::Side] {
            let ([a, b], [c, d]) = (edges(&garment, side), edges(&wider, side));
            assert!((d - c) - (b - a) > 20.0, "{kind:?} {side:?}");
        }
    }
}

#[test]
fn posture_is_seen_from_where_it_shows() {
    let figures = [(B::Height, "170 cm"), (B::WaistGirth, "90 cm"), (B::HipGirth, "104 cm")];
    let trunk = |posture: &[Posture], side| {
        let drawing = stood(&garment_of(Kind::Shirt, wearer(&figures, posture)));
        let body = &view(&drawing, side).body;
        // The largest shape is the trunk with its legs.
        body.iter()
            .map(|p| BezPath::from_svg(p).unwrap())
            .max_by_key(|p| p.bounding_box().height() as i64)
            .unwrap()
    };
    // From the side the front lies on the left: how far it reaches at a height.
    let reach = |posture: &[Posture], from_top: f64, forwards: bool| {
        let path = trunk(posture, ViewSide::Side);
        let points = path.segments().flat_map(|s| (0..=100).map(move |n| s.eval(f64::from(n) / 100.0)));
        let xs = points.filter(|p| (p.y - from_top).abs() < 8.0).map(|p| -p.x);
        xs.reduce(if forwards { f64::max } else { f64::min }).unwrap()
    };
    let (waist, abdomen) = (0.387 * 1700.0, 0.445 * 1700.0);
    let more = |posture, at, forwards| reach(&[posture], at, forwards) - reach(&[], at, forwards);
    assert!(more(Posture::FullAbdomen, abdomen, true) > 25.0, "the abdomen stands out");
    assert!(more(Posture::SwayBack, waist, false) > 12.0, "the back is hollow at the waist");
    let neck = 0.165 * 1700.0;
    assert!(more(Posture::ForwardShoulder, neck, true) > 10.0, "the shoulders come forward");

    // One shoulder lower: on the wearer's left, which is on the right of the front view and on the left of the back's.
    let lower = garment_of(Kind::Shirt, wearer(&figures, &[Posture::LeftShoulderLower]));
    let drawing = stood(&lower);
    let shoulder = |side, of: GarmentSide| {
        let parts = &view(&drawing, side).parts;
        let part = parts.iter().find(|p| p.name.starts_with("shoulder seam") && p.side == Some(of)).unwrap();
        bounds(&part.path)
    };
    for side in [ViewSide::Front, ViewSide::Back] {
        let (left, right) = (shoulder(side, GarmentSide::Left), shoulder(side, GarmentSide::Right));
        assert_eq!(left.center().x > 0.0, side == ViewSide::Front);
        assert!((left.center().x + right.center().x).abs() < 1.0);
        assert!(left.y1 - right.y1 > 10.0, "1.5 cm lower at the tip");
    }
}

#[test]
fn a_line_taken_in_narrows_the_garment_where_it_runs() {
    let garment = trousers();
    let pins = vec![pin(GarmentSide::Left, "0 cm", "4 cm"), pin(GarmentSide::Left, "40 cm", "2 cm")];
    let alteration = outseam(pins, meets("65 cm"));
    let drawn = [DrawnChange::Seam(alter(&garment, &alteration).unwrap())];
    let subject = Subject { changes: &drawn, ..Subject::as_it_is(&garment, &garment.wearer, Tape::Cm) };
    let levels = girths(&subject);
    let (as_it_is, changes) = (
        stand(&garment, &garment.wearer, Tape::Cm),
        stand_changes(&garment, &garment.wearer, &drawn, &levels),
    );
    let area = |path: &str| BezPath::from_svg(path).unwrap().area().abs();
    assert_eq!(
        changes.views.len(),
        1,
        "from behind it is the mirror image, from the side an outseam is seen edge-on"
    );
    for changed in &changes.views {
        let trunk = view(&as_it_is, changed.view).cloth.last().unwrap();
        let after = changed.trunk.as_ref().unwrap();
        assert!(area(after) < area(trunk));
        assert!((bounds(after).height() - bounds(trunk).height()).abs() < 0.1);
        assert_eq!(changed.moved.len(), 2, "both outseams and nothing else");
        // From the hem to the station where it meets the old stitching, and no further.
        let height = bounds(&changed.moved[0].path).height();
        assert!((height - 650.0).abs() < 1.0, "{height}");
        // What moves is a part that can be picked on the stand, under the same seam and side.
        let parts = &view(&as_it_is, changed.view).parts;
        for moved in &changed.moved {
            assert!(parts.iter().any(|p| p.change == Some(moved.change) && p.side == Some(moved.side)));
        }
        assert!(changed.shades.iter().any(|s| s.level == Level::Hip));
    }
}

#[test]
fn nothing_is_drawn_that_is_not_known() {
    let mut unmeasured = trousers();
    unmeasured.wearer.measurements.clear();
    assert!(stood(&unmeasured).figure_is_assumed, "a figure by proportion says so");
    assert!(!stood(&trousers()).figure_is_assumed);
    unmeasured.levels.clear();
    assert!(stood(&unmeasured).views.is_empty());
    assert_eq!(hung(&unmeasured), None);
}

#[test]
fn removing_a_part_removes_its_line_and_a_new_seam_has_one() {
    let garment = garment_of(Kind::Skirt, three_bodies()[0].clone());
    let keys = |garment: &Fitted| -> Vec<String> {
        let drawing = stood(garment);
        drawing.views.iter().flat_map(|v| &v.parts).filter_map(|p| p.key.clone()).collect()
    };
    let has = |garment: &Fitted, key: &str| keys(garment).iter().any(|k| k == key);
    assert!(has(&garment, "dart.back_waist") && !has(&garment, "seam.panel_front"));
    let mut changed = garment.clone();
    changed.darts.retain(|d| d.dart != crate::garment::Dart::BackWaist);
    let panel =
        changed.kind.template().may_have.iter().find(|s| s.seam == crate::garment::Seam::PanelFront).unwrap();
    let body = crate::body::Proportions::of(&changed.wearer);
    let panel = crate::garment::starting_seam(&changed, &body, panel);
    changed.seams.push(panel);
    assert!(!has(&changed, "dart.back_waist") && has(&changed, "seam.panel_front"));
}

#[test]
fn the_tape_lies_where_the_measurement_is_taken() {
    let body = three_bodies()[0].clone();
    let tape = |what| {
        let picture = super::taking_picture(what, &body);
        let stroke = picture.strokes.last().unwrap().clone();
        assert_eq!(stroke.ink, super::Ink::Tape);
        bounds(&stroke.path)
    };
    assert!(tape(B::BustGirth).center().y < tape(B::WaistGirth).center().y);
    assert!(tape(B::WaistGirth).center().y < tape(B::HipGirth).center().y);
    assert!(tape(B::HipGirth).width() > tape(B::WaistGirth).width());
    assert!((tape(B::Height).height() - 1620.0).abs() < 2.0);
    assert!(tape(B::AcrossBackWidth).width() > tape(B::AcrossBackWidth).height());
    for what in B::ALL {
        assert!(tape(*what).is_finite(), "{what:?}");
    }
}

#[test]
fn a_turn_up_is_as_deep_as_it_was_measured() {
    use crate::garment::{Finish, HemTurn};
    let edge = |turn, mm| {
        let picture = super::turn_up_picture(turn, Length::from_mm(mm));
        picture.strokes.iter().map(|s| s.path.clone()).collect::<Vec<_>>()
    };
    assert_ne!(edge(HemTurn::Deep, 40), edge(HemTurn::Deep, 60));
    // Told apart at a glance, each with the turn-up that is usual for it.
    let turns: Vec<_> = HemTurn::ALL.iter().map(|turn| edge(*turn, turn.turn_up_mm())).collect();
    let finishes: Vec<_> = Finish::ALL.iter().map(|f| super::finish_picture(*f).strokes).collect();
    for n in 0..turns.len() {
        assert!(!turns[..n].contains(&turns[n]), "{:?}", HemTurn::ALL[n]);
    }
    for n in 0..finishes.len() {
        assert!(!finishes[..n].contains(&finishes[n]), "{:?}", Finish::ALL[n]);
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    /// However a garment is measured, as long as its levels are in order, its drawing is made of numbers.
    #[test]
    fn any_measured_garment_can_be_drawn(kind in prop::sample::select(Kind::ALL.to_vec()), scales in prop::collection::vec(0.4_f64..2.2, 15), body in 0_usize..3) {
        let mut garment = garment_of(kind, three_bodies()[body].clone());
        for (level, scale) in garment.levels.iter_mut().zip(scales) {
            level.width = Width::Girth(Measure { length: Length::from_cm(level.width.girth().cm() * scale), unit: Unit::Cm });
        }
        let drawing = stood(&garment);
        for view in &drawing.views {
            let paths = view.body.iter().chain(&view.cloth).chain(view.parts.iter().map(|p| &p.path));
            for path in paths {
                prop_assert!(!path.contains("NaN") && bounds(path).is_finite(), "{}", path);
            }
        }
        prop_assert!(hung(&garment).is_some());
    }
}

/// A stretch that moves is drawn between the heights of its two ends, on every kind of seam that runs down.
#[test]
fn what_moves_is_drawn_where_it_moves() {
    let garment = garment_of(Kind::Dress, three_bodies()[0].clone());
    for facts in garment.seams.iter().filter(|s| s.seam.run() == crate::garment::Run::Down) {
        let (low, high) = (facts.length.length.fraction(1, 5), facts.length.length.fraction(2, 5));
        let cm = |length: Length| Measure { length, unit: Unit::Cm };
        let pins = vec![pin(GarmentSide::Left, &cm(facts.length.length.fraction(3, 10)).to_string(), "1 cm")];
        let ends = [low, high].map(|station| Some(End::MeetsOldStitching { station: cm(station) }));
        let alteration = SeamChange { seam: facts.seam, lower: ends[0], ..outseam(pins, ends[1]) };
        let drawn = [DrawnChange::Seam(alter(&garment, &alteration).unwrap())];
        let changes = stand_changes(&garment, &garment.wearer, &drawn, &[]);
        let moved: Vec<_> = changes.views.iter().flat_map(|v| &v.moved).collect();
        assert!(!moved.is_empty(), "{:?}", facts.seam);
        for stretch in moved {
            let height = bounds(&stretch.path).height();
            let wanted = (high - low).cm() * 10.0;
            assert!((height - wanted).abs() < 2.0, "{:?}: {height} for {wanted}", facts.seam);
        }
    }
}

/// Whatever kind it is, whichever seam moves, and however its sides differ: what is not told of the back is the front, mirrored.
#[test]
fn what_is_not_told_from_behind_is_the_mirror_image_of_the_front() {
    let mirrored = |path: &str| super::svg(&super::mirrored(&BezPath::from_svg(path).unwrap()));
    let mut left_out = Vec::new();
    for kind in Kind::ALL.iter().copied() {
        let garment = garment_of(kind, three_bodies()[0].clone());
        for facts in &garment.seams {
            let station = Measure { length: facts.end().fraction(1, 2), unit: Unit::Cm }.to_string();
            let mut pins =
                vec![pin(GarmentSide::Left, &station, "1 cm"), pin(GarmentSide::Right, &station, "2 cm")];
            pins.truncate(if facts.seam.has_sides() { 2 } else { 1 });
            let alteration = SeamChange {
                readings: pins,
                sides: Some(SidePolicy::KeepEach),
                ..SeamChange::of(facts.seam)
            };
            let drawn = [DrawnChange::Seam(alter(&garment, &alteration).unwrap())];
            let levels = girths(&Subject {
                changes: &drawn,
                ..Subject::as_it_is(&garment, &garment.wearer, Tape::Cm)
            });
            let told = stand_changes(&garment, &garment.wearer, &drawn, &levels).views;
            let pose = super::pose::Pose::of(crate::body::Proportions::of(&garment.wearer));
            let drape = super::drape::Drape::new(&garment, &pose).unwrap();
            let drawing = super::drawing::Drawing::new(&drape, &drawn);
            let back = super::stand::view_changes(&drawing, ViewSide::Back, &drawn, &levels);
            // Each stretch lies on a line of its own, of its side.
            for view in &told {
                let lines = drawing.lines(view.view);
                let has_line = |moved: &super::Moved| {
                    let is_it = |side: GarmentSide| side == moved.side;
                    lines.iter().any(|l| l.change == Some(moved.change) && l.side.is_none_or(is_it))
                };
                assert!(view.moved.iter().all(has_line), "{kind:?} {:?}", facts.seam);
                let halves = view.moved.iter().filter(|m| m.side == GarmentSide::Right).count();
                assert!(
                    halves * 2 == view.moved.len() || !facts.seam.has_sides(),
                    "{kind:?} {:?}",
                    facts.seam
                );
            }
            if let Some(told) = told.get(1) {
                assert_eq!(*told, back);
                continue;
            }
            left_out.push(format!("{kind:?} {:?}", facts.seam));
            let front = &told[0];
            assert_eq!(back.trunk, front.trunk.as_deref().map(mirrored), "{left_out:?}");
            let moved = front.moved.iter().map(|m| super::Moved { path: mirrored(&m.path), ..m.clone() });
            assert_eq!(back.moved, moved.collect::<Vec<_>>(), "{left_out:?}");
            // Boxes are rounded to hundredths on either side: mirrored, they lie within one of each other.
            let boxes = |shades: &[super::Shade], mirror: bool| {
                let left = |[x, _, width, _]: [f64; 4]| if mirror { -x - width } else { x };
                let tenths = |mm: f64| (mm * 10.0).round() as i64;
                let of = |s: &super::Shade| {
                    (
                        s.level,
                        tenths(left(s.box_mm)),
                        s.word,
                        s.box_mm[1..].iter().map(|mm| tenths(*mm)).collect(),
                    )
                };
                let mut boxes: Vec<(_, _, _, Vec<i64>)> = shades.iter().map(of).collect();
                boxes.sort_by_key(|b| (b.0, b.1));
                boxes
            };
            assert_eq!(boxes(&back.shades, false), boxes(&front.shades, true), "{left_out:?}");
        }
    }
    insta::assert_debug_snapshot!(left_out);
}

/// The stations of a level seam run from the middle in front to the middle behind: near either they lie near the middle of their view, halfway at the side; what only
/// the back has lies behind.
#[test]
fn stations_of_a_level_seam_run_from_front_to_back() {
    use crate::garment::Seam;
    let seams = [
        (Kind::Shirt, Seam::YokeSeam, false),
        (Kind::Jeans, Seam::YokeSeam, false),
        (Kind::DressWithWaistSeam, Seam::WaistSeam, true),
        (Kind::Coverall, Seam::WaistSeam, true),
        (Kind::Shirt, Seam::NeckSeam, true),
        (Kind::KnitTop, Seam::NeckSeam, true),
    ];
    for wearer in three_bodies() {
        for (kind, seam, is_in_front) in seams {
            let (name, cloth) = ("it".into(), cloth_named("calico").unwrap());
            let garment = begin(Beginning { name, kind, toile: true, cloth, wearer: wearer.clone() });
            let end = garment.seam(seam).unwrap().end().cm();
            let in_front = garment.share_in_front(seam);
            let out = |view: ViewSide, share: f64| {
                let station = Length::from_cm(end * share);
                let spot = super::spots(&garment, &wearer, &[(seam, GarmentSide::Left, station)]);
                spot[0].filter(|spot| spot.view == view).unwrap().x_mm.abs()
            };
            let behind = |share: f64| in_front + (1.0 - in_front) * share;
            let mut views = vec![[0.1, 0.5, 0.9].map(|share| out(ViewSide::Back, behind(share)))];
            views.extend(
                is_in_front.then(|| [0.9, 0.5, 0.1].map(|share| out(ViewSide::Front, in_front * share))),
            );
            for out in views {
                assert!(out[0] > out[1] && out[1] > out[2] && out[2] < out[0] * 0.4, "{kind:?}: {out:?}");
            }
        }
    }
}
