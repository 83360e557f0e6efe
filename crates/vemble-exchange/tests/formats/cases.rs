//! Documents that once gave something wrong, and what each must give.

use vemble_core::judge::Outcome;
use vemble_core::length::Tape;
use vemble_core::solve::{SolvedTryOn, solve};
use vemble_exchange::document::read_document;

/// What a try-on must give.
enum Must {
    /// This level measures so much afterwards, at the marks of a tape of centimetres.
    Measure(&'static str, &'static str),
    /// Its first line ends so.
    End([&'static str; 2]),
    /// The check whose title begins so has this outcome.
    Find(&'static str, Outcome),
    /// Nothing is found whose title begins so.
    Lack(&'static str),
    /// Every pin of its first line is passed by so much at most, in mm.
    Pass(f64),
}

use Must::{End, Find, Lack, Measure, Pass};

const CASES: &[(&str, &[Must])] = &[
    ("A1_cb_waist", &[Measure("waist", "76.0 cm"), Measure("hip", "108.0 cm")]),
    ("R3_seat_hip", &[Measure("waist", "78.0 cm"), Measure("hip", "106.0 cm")]),
    (
        "I5_back_pockets",
        &[
            Measure("waist", "74.0 cm"),
            Find("Ease at the waist", Outcome::Stop),
            Find("Hang of the waist", Outcome::Caution),
        ],
    ),
    ("S3_spread_outseam_to_seat", &[Measure("waist", "76.0 cm"), Measure("hip", "106.0 cm")]),
    ("B5_spread_seat_outseam", &[Measure("waist", "75.0 cm"), Measure("hip", "108.0 cm")]),
    (
        "M_band_4_1.2_soft",
        &[
            End(["meets the old stitching at 51.0 cm", "straight through from 56.0 cm to the waist"]),
            Find("Run-out", Outcome::Passes),
        ],
    ),
    (
        "M_band_5_1.2_soft",
        &[
            End(["meets the old stitching at 50.0 cm", "straight through from 55.0 cm to the waist"]),
            Find("Run-out", Outcome::Passes),
        ],
    ),
    ("P1_cliff_2.7", &[End(["meets the old stitching at 0.4 cm", "runs off at the underarm"])]),
    ("P1_cliff_2.8", &[End(["meets the old stitching at 0.0 cm", "runs off at the underarm"])]),
    (
        "P2_cliff_lone_15",
        &[End(["meets the old stitching at 0.0 cm", "meets the old stitching at 31.0 cm"]), Pass(0.0)],
    ),
    (
        "P2_cliff_lone_16",
        &[End(["meets the old stitching at 0.0 cm", "meets the old stitching at 32.0 cm"]), Pass(0.0)],
    ),
    ("F5_zero_around", &[End(["meets the old stitching at 40.0 cm", "meets the old stitching at 80.0 cm"])]),
    ("N1_shallow", &[Pass(0.0)]),
    ("G4_jersey_two_pins", &[Pass(0.0), Measure("knee, each leg", "44.6 cm")]),
    ("K1_larger_gaps", &[Measure("waist", "81.8 cm"), Measure("hip", "110.8 cm")]),
    ("K3_quarter", &[Lack("Left and right of the outseam")]),
    ("K2b_overlap", &[Measure("hem, each leg", "40.0 cm"), Measure("knee, each leg", "44.4 cm")]),
    ("O1_calf", &[Find("Ease at the calf", Outcome::Stop)]),
    ("N6_jacket_waist", &[Find("Ease at the waist", Outcome::Stop)]),
    ("PANIC_1_min", &[]),
];

fn holds(solved: &SolvedTryOn, must: &Must) -> Result<(), String> {
    let first = || solved.changes.first().and_then(|change| change.shows.line()).ok_or("no line".to_owned());
    let found = |title: &str| solved.checks.iter().find(|check| check.title.starts_with(title));
    let (is, wanted) = match must {
        Measure(level, after) => {
            let level = solved.levels.iter().find(|l| l.name == *level).ok_or(format!("no {level}"))?;
            (level.sum.clone(), level.after.text() == *after)
        }
        End(ends) => (format!("{:?}", first()?.ends), first()?.ends == *ends),
        Find(title, outcome) => {
            let check = found(title).ok_or(format!("nothing of {title}"))?;
            (format!("{title}: {:?}, {}", check.outcome, check.figures), check.outcome == *outcome)
        }
        Lack(title) => {
            let stands = found(title).filter(|check| check.outcome != Outcome::Passes);
            (format!("{:?}", stands.map(|check| &check.figures)), stands.is_none())
        }
        Pass(mm) => {
            let most =
                first()?.pins.iter().map(|pin| pin.beside.nm.abs()).max().unwrap_or_default() as f64 / 1e6;
            (format!("{most} mm beside a pin"), most <= *mm)
        }
    };
    if wanted { Ok(()) } else { Err(is) }
}

#[test]
fn what_went_wrong_once_is_right() {
    let mut wrong = Vec::new();
    for (name, musts) in CASES {
        let json = std::fs::read(format!("tests/cases/{name}.json")).unwrap();
        let document = read_document(&json).unwrap();
        for tape in Tape::ALL {
            assert!(solve(&document, *tape).is_ok(), "{name} on {tape:?}");
        }
        let solved = solve(&document, Tape::Cm).unwrap();
        let newest = solved.try_ons.last().unwrap();
        wrong.extend(
            musts.iter().filter_map(|must| holds(newest, must).err()).map(|is| format!("{name}: {is}")),
        );
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}
