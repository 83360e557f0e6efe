//! Documents that once gave something wrong, and what each must give.

use vemble_core::card::{Block, Card};
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
    /// The check whose title begins so says this among its figures or its remedy.
    Say(&'static str, &'static str),
    /// The check whose title begins so can be mended by a change.
    Mend(&'static str),
    /// Its first line moves the seam so.
    Move(&'static str),
    /// Its first card says this among its steps.
    Step(&'static str),
    /// Neither its cards nor its checks say this anywhere.
    Never(&'static str),
}

use Must::{End, Find, Lack, Measure, Mend, Move, Never, Pass, Say, Step};

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
            End(["meets the old stitching at 51.0 cm", "goes straight through from 56.0 cm to the waist"]),
            Find("Run-out", Outcome::Passes),
        ],
    ),
    (
        "M_band_5_1.2_soft",
        &[
            End(["meets the old stitching at 50.0 cm", "goes straight through from 55.0 cm to the waist"]),
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
    (
        "B1_front_share_100",
        &[Move("the seam moves up to 1.0 cm towards the front"), Measure("waist", "73.0 cm")],
    ),
    ("B2_share_panel", &[Move("the seam moves up to 1.5 cm towards the front"), Measure("waist", "71.0 cm")]),
    ("B3_panel_no_share", &[Move("the seam moves up to 1.5 cm towards the front")]),
    (
        "B4_spread_share_cb",
        &[
            Move("the seam moves up to 0.4 cm towards the front"),
            Measure("waist", "69.0 cm"),
            Lack("Edges of the centre-back"),
        ],
    ),
    (
        "B7_grain6_remedy",
        &[
            Find("Grain of the leg at the outseam", Outcome::Caution),
            Say("Grain of the leg at the inseam", "at most here"),
        ],
    ),
    (
        "B8_sleeve_grain",
        &[Find("Grain of the sleeve", Outcome::Caution), Say("Grain of the sleeve", "at most here")],
    ),
    (
        "C10b_negative_girth",
        &[
            Find("Ease at the hem, each leg", Outcome::Stop),
            Say("Ease at the hem, each leg", "= −2.0 cm altogether"),
        ],
    ),
    (
        "C6_allowance_back_kept",
        &[Say("What stays inside", "back edge: 3.5 allowance + 0.6 taken in = 4.1 cm kept")],
    ),
    (
        "C7_letout_unequal",
        &[
            Find("Letting out", Outcome::Stop),
            Say("Letting out", "take 27 % of it from the front edge"),
            Mend("Letting out"),
        ],
    ),
    ("C8_trim_wider_than_allowance", &[Find("Cut line", Outcome::Caution), Mend("Cut line")]),
    ("C8b_trim_1mm", &[Find("Cut line", Outcome::Stop), Mend("Cut line")]),
    ("C9_trim_letout", &[Find("Cut line", Outcome::Caution), Mend("Cut line")]),
    (
        "D10",
        &[
            Find("Depth of the back waist dart", Outcome::Passes),
            Find("Waistband and back waist dart", Outcome::Caution),
        ],
    ),
    (
        "D1_fisheye_let_out",
        &[Measure("waist", "86.0 cm"), Say("Depth of the back fish-eye", "0.0 cm folded"), Never("−0.")],
    ),
    ("D2_dart_waistband", &[Say("Waistband and back waist dart", "2.4 cm shorter altogether")]),
    (
        "D3_bust_dart_partner",
        &[Say("The bust dart and the side seam", "the front edge of the side seam gets 1.6 cm shorter")],
    ),
    (
        "E1_corner_sides",
        &[
            Step("left: The line turns the corner"),
            Step("chalk both with 0.5 cm"),
            Step("chalk both with 1.5 cm"),
        ],
    ),
    ("E1b_corner_right_only", &[Step("chalk both with 1.5 cm")]),
    ("E1c_corner_share", &[Step("chalk both with 1.6 front, 0.4 cm back")]),
    (
        "E2b_single_right_only_keep",
        &[Measure("waist", "78.0 cm"), Never("both sides"), Never("right side only")],
    ),
    ("E3_neck_head", &[Find("Head through the neck", Outcome::Stop)]),
    (
        "E4_waist_seam",
        &[
            Step("of each half with 0 at the centre front"),
            Say("Bends of the waist seam", "steepest hardly any"),
        ],
    ),
    ("E4_shoulder_seam", &[Say("Bends of the shoulder seam", "steepest hardly any")]),
    ("EL_dress", &[Find("Elastic", Outcome::Stop), Say("Elastic", "how deep the waistband is")]),
    ("EL_longer_than_waist", &[Find("Elastic", Outcome::Stop), Say("Elastic", "88.0 cm at most")]),
    (
        "I1_zip_pocket_topstitch_hem",
        &[
            Find("Opened first on the side seam", Outcome::Caution),
            Say("Opened first", "the zip (left side), the pockets in the seam, the topstitching, the hem"),
            Step("Open first: "),
        ],
    ),
    ("I2_cb_zip", &[Say("Opened first on the centre-back seam", "the zip (centre back)")]),
    ("I3_waist_seam_crossing", &[Say("Opened first on the side seam", "the waist seam")]),
    ("I7_lined_letout", &[Say("Lining and side seam", "at least as much")]),
    ("I8_clipped", &[Find("Letting out", Outcome::Caution), Step("the basting holds it")]),
    ("J1b_bust_above_side_seam", &[Measure("bust", "94.0 cm"), Find("Ease at the bust", Outcome::Stop)]),
    (
        "K2_no_overlap",
        &[
            Find("Left and right of the outseam", Outcome::Stop),
            Say("Left and right", "left pinned from 0.0 to 20.0 cm, right from 45.0 to 60.0 cm"),
        ],
    ),
    ("K4_unrelated", &[Say("Left and right", "Pin again")]),
    ("L6_yoke", &[Never("belt loop"), Never("the band")]),
    ("N2_letout_hip", &[Measure("hip", "107.2 cm"), Pass(0.0)]),
    (
        "O6_lining_two",
        &[
            Find("Lining and side seam", Outcome::Caution),
            Find("Lining and centre-back seam", Outcome::Caution),
        ],
    ),
    (
        "Q1_pass_over_lower",
        &[
            Find("Run-out of the outseam at its lower end", Outcome::Stop),
            Find("Run-out of the outseam at its upper end", Outcome::Stop),
        ],
    ),
    ("Q1_pass_over_shifted", &[Find("Run-out of the outseam at its upper end", Outcome::Stop)]),
    ("U2_trim_sign", &[Step("its − lies out in the allowance, outside the old stitching")]),
];

/// What is refused, by the end of its path and a word of what would be right.
const REFUSED: &[(&str, &str, &str)] = &[
    ("B6_grain_remedy", "seam.spread[0]", "no share for the inseam"),
    ("D11", "readings[0].how", "the same from both of its sides"),
    ("D7_fisheye_open_hem", "readings[3].amount", "is that end open?"),
    ("E2_single_keep_each", "readings[2].station", "has edges, no sides"),
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
        Say(title, words) => {
            let check = found(title).ok_or(format!("nothing of {title}"))?;
            let said = format!("{} {}", check.figures, check.remedy.as_deref().unwrap_or_default());
            (said.clone(), said.contains(words))
        }
        Mend(title) => {
            let check = found(title).ok_or(format!("nothing of {title}"))?;
            (format!("{title}: {:?}", check.remedy), !check.mend.is_empty())
        }
        Move(words) => (format!("{:?}", first()?.moves), first()?.moves.as_deref() == Some(words)),
        Step(words) => {
            let steps = solved.cards.first().map(steps_of).unwrap_or_default();
            (steps.clone(), steps.contains(words))
        }
        Never(words) => {
            let said = format!("{:?} {:?}", solved.cards, solved.checks);
            (words.to_string(), !said.contains(words))
        }
    };
    if wanted { Ok(()) } else { Err(is) }
}

fn steps_of(card: &Card) -> String {
    let of = |block: &Block| {
        if let Block::Steps(steps) = block {
            steps.iter().map(|step| &step.text[..]).collect::<Vec<_>>().join(" ")
        } else {
            String::new()
        }
    };
    card.blocks.iter().map(of).collect()
}

#[test]
fn what_contradicts_itself_is_refused_with_a_way_out() {
    for (name, path, expected) in REFUSED {
        let json = std::fs::read(format!("tests/cases/{name}.json")).unwrap();
        let faults = solve(&read_document(&json).unwrap(), Tape::Cm).expect_err(name);
        let fault = &faults[0];
        assert!(fault.path.ends_with(path), "{name}: {}", fault.path);
        assert!(
            fault.wrong.expected(Tape::Cm).contains(expected),
            "{name}: {}",
            fault.wrong.expected(Tape::Cm)
        );
    }
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
