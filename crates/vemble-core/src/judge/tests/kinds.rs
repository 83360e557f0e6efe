//! The rules on garments other than trousers: seams that exist once, sleeves, several seams at one level.

use crate::body::{BodyMeasurement as B, Wearer};
use crate::change::seam::SeamChange;
use crate::fitting::{End, Fairing, GarmentSide, How, Reading, SidePolicy};
use crate::garment::{Beginning, Garment, Kind, Opening, Seam, Width, begin, cloth_named};
use crate::judge::{LevelOf, Outcome, Rule};
use crate::length::{Length, Measure, Tape, Unit};
use crate::place::Level;
use crate::solve::SolvedTryOn;
use crate::tests::kit::{Fitted, m, outseam, pin, taken, trying};
use proptest::prelude::*;

const LEFT: GarmentSide = GarmentSide::Left;

pub(crate) fn odile() -> Wearer {
    let figures = [
        (B::Height, "162 cm"),
        (B::BustGirth, "94 cm"),
        (B::WaistGirth, "77 cm"),
        (B::HipGirth, "101 cm"),
        (B::UpperArmGirth, "29 cm"),
        (B::HandGirth, "20 cm"),
    ];
    Wearer {
        name: "Odile".into(),
        measurements: figures.map(|(what, text)| taken(what, text)).into(),
        ..Default::default()
    }
}

/// A garment of a kind with round figures: every body level 100 cm round, every sleeve level 36.
pub(crate) fn round(kind: Kind) -> Fitted {
    let cloth = cloth_named(kind.template().cloth).unwrap();
    let wearer = odile();
    let mut garment =
        begin(Beginning { name: "it".into(), kind, toile: false, wearer: wearer.clone(), cloth });
    for level in &mut garment.levels {
        let girth = if level.level.is_of_sleeve() { 360 } else { 1000 };
        level.width = Width::Girth(Measure { length: Length::from_mm(girth), unit: Unit::Cm });
        level.assumed = false;
    }
    Fitted { garment, wearer }
}

/// The same amount from the datum to the other end.
pub(crate) fn all_along(garment: &Garment, seam: Seam, amount: &str) -> SeamChange {
    let top = garment.seam(seam).unwrap().length.to_string();
    let pins = vec![pin(LEFT, "0 cm", amount), pin(LEFT, &top, amount)];
    SeamChange { seam, fairing: Fairing::Straight, ..outseam(pins, Some(End::RunsOff {})) }
}

fn solved(garment: &Fitted, changes: Vec<SeamChange>) -> SolvedTryOn {
    garment.solved(trying(changes), Tape::Cm)
}

pub(crate) fn sum_at(result: &SolvedTryOn, level: Level) -> &str {
    &result.levels.iter().find(|l| l.level == level).unwrap().sum
}

#[test]
fn a_centre_seam_is_there_once_and_side_seams_twice() {
    let dress = round(Kind::Dress);
    let both = vec![all_along(&dress, Seam::SideSeam, "1 cm"), all_along(&dress, Seam::CentreBack, "0.5 cm")];
    let result = solved(&dress, both);
    assert_eq!(
        sum_at(&result, Level::Waist),
        "100.0 cm as measured round; 100.0 − 4.0 (2 side seams × 2 edges × 1.0) − 1.0 (centre-back seam: 2 edges × 0.5) = 95.0 cm"
    );
    // The centre back runs on to the neck, the sides end at the underarm.
    assert_eq!(
        sum_at(&result, Level::Neck),
        "100.0 cm as measured round; 100.0 − 1.0 (centre-back seam: 2 edges × 0.5) = 99.0 cm"
    );
    assert_eq!(result.cards[0].title, "Side seam, both sides the same");
    assert_eq!(result.cards[1].title, "Centre-back seam");
    assert!(result.cards[0].sentences()[0].contains("up from the hem along the side seam"));
}

#[test]
fn a_renamed_seam_is_called_so_everywhere() {
    let mut dress = round(Kind::Dress);
    dress.seams.iter_mut().find(|s| s.seam == Seam::PrincessFront).unwrap().name = Some("leaf seam".into());
    let result = solved(&dress, vec![all_along(&dress, Seam::PrincessFront, "0.6 cm")]);
    assert!(sum_at(&result, Level::Bust).contains("− 2.4 (2 leaf seams × 2 edges × 0.6)"));
    assert_eq!(result.cards[0].title, "Leaf seam, both sides the same");
    let stand = crate::figure::stand(&dress, &dress.wearer, Tape::Cm);
    assert!(stand.views[0].parts.iter().any(|p| p.name == "leaf seam, garment's right"));
}

#[test]
fn a_sleeve_has_girths_and_an_opening_of_its_own() {
    let dress = round(Kind::Dress);
    let result = solved(&dress, vec![all_along(&dress, Seam::SleeveSeam, "2 cm")]);
    let changed: Vec<_> = result.levels.iter().filter(|l| l.is_changed).map(|l| (l.level, l.of)).collect();
    assert_eq!(
        changed,
        [(Level::UpperArm, LevelOf::EachSleeve), (Level::SleeveHem, LevelOf::EachSleeve)],
        "the trunk stays as it is"
    );
    let of = |rule: Rule| result.checks.iter().find(|c| c.key.rule == rule).unwrap();
    let ease = of(Rule::Ease);
    assert_eq!(ease.figures, "32.0 − 29.0 (upper arm body) = 3.0 cm ease altogether");
    assert_eq!(ease.outcome, Outcome::Passes);
    assert_eq!(
        of(Rule::Opening).figures,
        "hand girth 20.0 + 1.0 = 21.0 cm needed; the opening measures 32.0 cm"
    );
    assert!(of(Rule::Hang).title.starts_with("Grain of the sleeve"));
    // Each sleeve for itself where they differ.
    let mut one = all_along(&dress, Seam::SleeveSeam, "2 cm");
    one.sides = Some(SidePolicy::KeepEach);
    let result = solved(&dress, vec![one]);
    assert!(result.levels.iter().any(|l| l.of == LevelOf::LeftSleeve && l.is_changed));
    assert!(result.levels.iter().any(|l| l.of == LevelOf::RightSleeve && !l.is_changed));
}

#[test]
fn an_open_cuff_lets_any_hand_through() {
    let mut shirt = round(Kind::Shirt);
    assert!(shirt.closures.iter().any(|c| c.at == Opening::Cuff));
    let opening = |shirt: &Fitted| {
        let result = solved(shirt, vec![all_along(shirt, Seam::SleeveSeam, "7.8 cm")]);
        result.checks.iter().find(|c| c.key.rule == Rule::Opening).map(|c| c.outcome)
    };
    assert_eq!(opening(&shirt), None);
    shirt.closures.retain(|c| c.at != Opening::Cuff);
    assert_eq!(opening(&shirt), Some(Outcome::Stop));
}

#[test]
fn a_coat_wants_more_ease_than_a_dress_of_the_same_girth() {
    let outcome = |kind| {
        let garment = round(kind);
        let result = solved(&garment, vec![all_along(&garment, Seam::SideSeam, "0.1 cm")]);
        result
            .checks
            .into_iter()
            .find(|c| c.key.rule == Rule::Ease && c.key.level == Some(Level::Bust))
            .unwrap()
    };
    // 99.6 − 94: 5.6 cm of ease.
    assert_eq!(outcome(Kind::Dress).outcome, Outcome::Passes);
    assert_eq!(outcome(Kind::LinedCoat).outcome, Outcome::Stop);
    assert_eq!(outcome(Kind::LinedCoat).reason, "Less than the least ease of 12.0 cm: it would bind.");
}

#[test]
fn a_clipped_allowance_and_an_uneven_one_are_taken_at_their_least() {
    let mut dress = round(Kind::Dress);
    let seam = dress.seams.iter_mut().find(|s| s.seam == Seam::SideSeam).unwrap();
    (seam.allowance, seam.allowance_back) = (m("2 cm"), Some(m("1.4 cm")));
    let gap = |dress: &Fitted, amount: &str| {
        let reading = Reading { how: How::Gap, ..pin(LEFT, "30 cm", amount) };
        let let_out = SeamChange {
            seam: Seam::SideSeam,
            fairing: Fairing::EveryPin,
            lower: Some(End::MeetsOldStitching { station: m("10 cm") }),
            ..outseam(vec![reading], Some(End::MeetsOldStitching { station: m("50 cm") }))
        };
        let result = solved(dress, vec![let_out]);
        result.checks.into_iter().find(|c| c.key.rule == Rule::Capacity).unwrap()
    };
    // 1.4 − 1.0 to keep in cloth that frays: 0.4 per edge, a gap of 0.8.
    assert_eq!(gap(&dress, "0.8 cm").outcome, Outcome::Passes);
    assert_eq!(gap(&dress, "1 cm").outcome, Outcome::Stop);
    let mut clipped = |leave: Option<&str>| {
        let seam = dress.seams.iter_mut().find(|s| s.seam == Seam::SideSeam).unwrap();
        (seam.clipped, seam.clips_leave) = (true, leave.map(m));
        gap(&dress, "0.8 cm")
    };
    assert_eq!(clipped(None).outcome, Outcome::Caution, "nobody looked how far");
    assert_eq!(clipped(Some("0.4 cm")).outcome, Outcome::Passes);
    let short = clipped(Some("0.3 cm"));
    assert_eq!(
        (short.outcome, short.figures.as_str()),
        (Outcome::Stop, "the clips leave 0.3 cm to give on the back edge; let out by 0.4 cm")
    );
}

/// What has to be opened follows from where the line reaches, not from what a datum is called: hems of body and sleeve, a cuff's buttons.
#[test]
fn what_a_line_reaches_is_opened_first() {
    let shirt = round(Kind::Shirt);
    let opened = |seam: Seam, lower: &str| {
        let readings = vec![pin(LEFT, lower, "0.5 cm"), pin(LEFT, "20 cm", "0.5 cm")];
        let fairing = Fairing::EveryPin;
        let upper = Some(End::MeetsOldStitching { station: m("30 cm") });
        let result = solved(&shirt, vec![SeamChange { seam, fairing, ..outseam(readings, upper) }]);
        let check = result.checks.into_iter().find(|c| c.title.starts_with("Opened first"));
        check.map(|c| c.figures).unwrap_or_default()
    };
    assert_eq!(opened(Seam::SleeveSeam, "0 cm"), "the buttons (at the cuffs), the hem");
    assert_eq!(opened(Seam::SleeveSeam, "15 cm"), "");
    assert_eq!(opened(Seam::SideSeam, "0 cm"), "the hem");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// Whatever long seam of whatever kind is altered: what comes off a level is what its seams take off, in the result, in the
    /// words and on the stand; and in by the same as out is nothing.
    #[test]
    fn girths_are_what_the_seams_take_off(kind in prop::sample::select(Kind::ALL.to_vec()), which in any::<prop::sample::Index>(), tenths in 1_i64..12) {
        let garment = round(kind);
        let long: Vec<Seam> = garment.seams.iter().map(|s| s.seam).filter(|s| s.run() != crate::garment::Run::Across).collect();
        let seam = *which.get(&long);
        let amount = Measure { length: Length::from_mm(tenths), unit: Unit::Mm }.to_string();
        let result = solved(&garment, vec![all_along(&garment, seam, &amount)]);
        for level in &result.levels {
            let crosses = garment.station_on(seam, level.level).is_some();
            let seams = if seam.is_single() || level.of != LevelOf::Garment { 1 } else { 2 };
            let off = if crosses { 2 * seams * tenths } else { 0 };
            prop_assert_eq!(level.off.nm, Length::from_mm(off).nm(), "{:?} at {:?}", seam, level.level);
            prop_assert_eq!(level.before.nm - level.off.nm, level.after.nm);
        }
        let on_the_stand = |v: &crate::figure::ViewChanges| {
            v.trunk.is_some() && v.moved.iter().any(|m| m.change == crate::change::ChangeKey::Seam(seam))
        };
        prop_assert!(result.stand.views.iter().any(on_the_stand), "{:?}", seam);
        let card = &result.cards[0];
        let table = card.table();
        prop_assert!(table.columns[0].heading.contains(seam.datum()), "{}", table.columns[0].heading);
        let at = |row: &crate::card::TableRow| row.cells[0].figure.as_ref().unwrap().nm;
        prop_assert!(table.rows.windows(2).all(|w| at(&w[0]) < at(&w[1])));
    }
}

/// Reaching forward wants its room across the back, whatever the seam that takes it, on every tape.
#[test]
fn a_back_taken_in_leaves_room_to_reach() {
    let mut dress = round(Kind::Dress);
    dress.wearer.measurements.push(taken(B::AcrossBackWidth, "34 cm"));
    let reaching = |dress: &Fitted, seam: Seam, amount: &str| {
        let result = solved(dress, vec![all_along(dress, seam, amount)]);
        let check = result.checks.into_iter().find(|c| c.title.starts_with("Reaching"));
        check.map(|c| (c.outcome, c.figures, c.remedy))
    };
    assert_eq!(reaching(&dress, Seam::CentreBack, "0.5 cm"), None, "nobody measured the garment there");
    dress.across_back = Some(m("40 cm"));
    assert_eq!(reaching(&dress, Seam::SideSeam, "0.5 cm"), None, "it ends under the arm");
    let (outcome, figures, _) = reaching(&dress, Seam::CentreBack, "0.5 cm").unwrap();
    assert_eq!(
        (outcome, figures.as_str()),
        (
            Outcome::Passes,
            "40.0 − 1.0 − 34.0 of back = 5.0 cm of room; reaching forward adds 4.4 cm (a teaching value)"
        )
    );
    let (outcome, _, remedy) = reaching(&dress, Seam::CentreBack, "1 cm").unwrap();
    assert_eq!(outcome, Outcome::Caution);
    assert!(remedy.unwrap().starts_with("Take 0.4 cm less across the back"));
    assert_eq!(reaching(&dress, Seam::CentreBack, "3.5 cm").unwrap().0, Outcome::Stop);
    dress.wearer.measurements.push(taken(B::AcrossBackReaching, "40 cm"));
    let (outcome, figures, remedy) = reaching(&dress, Seam::CentreBack, "0.1 cm").unwrap();
    assert!(figures.ends_with("6.0 cm (as measured on this wearer)"), "{figures}");
    assert_eq!((outcome, &remedy.unwrap()[..26]), (Outcome::Caution, "Take 0.2 cm less across th"));
}

/// An elbow is judged as soon as it is known.
#[test]
fn an_elbow_is_measured_bent() {
    let mut shirt = round(Kind::Shirt);
    let elbow = |shirt: &Fitted| {
        let result = solved(shirt, vec![all_along(shirt, Seam::SleeveSeam, "1 cm")]);
        result.checks.into_iter().find(|c| c.key.rule == Rule::Ease && c.key.level == Some(Level::Elbow))
    };
    assert_eq!(elbow(&shirt), None);
    shirt.wearer.measurements.push(taken(B::ElbowGirth, "32 cm"));
    let check = elbow(&shirt).unwrap();
    assert_eq!(check.outcome, Outcome::Stop, "{}", check.figures);
}
