//! Example G, the search against brute force, what is flagged, and what its words owe its figures.

use super::{Fits, NARROWEST, SizeLength, Sizes, sizes};
use crate::body::{BodyMeasurement as B, Posture, Wearer};
use crate::garment::{
    Beginning, Closure, ClosureFacts, Garment, Kind, Opening, Seam, Width, begin, cloth_named,
};
use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use crate::tests::kit::{edges_counted, m, taken};
use crate::work::{Chart, ChartRow, ChartSays, Chosen, Held, LevelEase, Pattern, SizeAt, wrong_chart};
use proptest::prelude::*;

fn wearer(figures: &[(B, &str)]) -> Wearer {
    let measurements = figures.iter().map(|(what, text)| taken(*what, text)).collect();
    Wearer { name: "Odile".into(), measurements, ..Wearer::default() }
}

fn garment(kind: Kind, wearer: &Wearer) -> Garment {
    let cloth = cloth_named(kind.template().cloth).unwrap();
    begin(Beginning { name: "it".into(), kind, toile: true, wearer: wearer.clone(), cloth })
}

fn row(what: B, says: ChartSays, figures: &[&str]) -> ChartRow {
    ChartRow { what, says, figures: figures.iter().map(|text| m(text)).collect() }
}

fn chart(name: &str, sizes: &[&str], rows: Vec<ChartRow>) -> Chart {
    Chart {
        name: name.into(),
        sizes: sizes.iter().map(|s| (*s).to_owned()).collect(),
        rows,
        long: Vec::new(),
    }
}

fn ease(level: Level, text: &str) -> LevelEase {
    LevelEase { level, ease: m(text) }
}

/// A dress with side seams and a zip at centre back, and nothing else that runs down.
fn dress(wearer: &Wearer) -> Garment {
    let mut dress = garment(Kind::Dress, wearer);
    dress.seams.retain(|s| matches!(s.seam, Seam::SideSeam | Seam::CentreBack | Seam::ShoulderSeam));
    dress.closures = vec![ClosureFacts { closure: Closure::Zip, at: Opening::CentreBack, count: 1 }];
    assert!(dress.seam(Seam::CentreBack).is_some(), "{:?}", dress.seams);
    dress
}

#[test]
fn worked_example_g_half_an_inch_by_narrower_allowances() {
    let wearer = wearer(&[(B::Height, "64 in"), (B::BustGirth, "37 in")]);
    let pattern = Pattern {
        charts: vec![chart(
            "",
            &["S", "M", "L"],
            vec![row(B::BustGirth, ChartSays::Finished, &["37 3/4 in", "39 in", "41 1/4 in"])],
        )],
        allowance: Some(m("5/8 in")),
        ease: vec![ease(Level::Bust, "2 1/2 in")],
        ..Pattern::default()
    };
    let found = sizes(&dress(&wearer), &wearer, &pattern, &[], Tape::In);
    assert_eq!(found.wanted[0].sum, "37 + 2 1/2 = 39 1/2 in");
    let best = &found.candidates[0];
    assert_eq!(best.title, "M, with allowances of 1/2 in");
    assert_eq!(
        best.levels[0].sum,
        "size M: 39; 2 side seams × 2 edges × 1/8 in = 1/2 in; the centre-back seam has the zip and is left alone; 39 + 1/2 = 39 1/2 in"
    );
    assert_eq!((best.closeness.as_str(), best.operations.len()), ("exact at every level", 1));
    assert_eq!(best.flags, Vec::<String>::new());
    // The same order as in the reference: M as drawn is half an inch short, L an inch and three quarters wide.
    let beside: Vec<(&str, &str)> =
        found.candidates.iter().map(|c| (c.title.as_str(), c.levels[0].beside.as_str())).collect();
    assert_eq!(beside[1], ("M", "1/2 in narrower than wanted"));
    assert!(beside.contains(&("L", "1 3/4 in wider than wanted")), "{beside:?}");
    let small = found.candidates.iter().find(|c| c.title == "S").unwrap();
    assert_eq!(small.flags, ["Bust has 3/4 in ease, less than the 1 1/2 in that it needs at least"]);
}

#[test]
fn one_case_of_each_flag_and_length() {
    let wearer = wearer(&[
        (B::Height, "162 cm"),
        (B::WaistGirth, "77 cm"),
        (B::HipGirth, "131 cm"),
        (B::BodyRise, "28 cm"),
        (B::InsideLeg, "74 cm"),
    ]);
    let trousers = garment(Kind::Trousers, &wearer);
    let pattern = Pattern {
        charts: vec![
            chart(
                "regular",
                &["10", "12"],
                vec![
                    row(B::WaistGirth, ChartSays::Body, &["70 cm", "76 cm"]),
                    row(B::WaistGirth, ChartSays::Finished, &["72 cm", "77 cm"]),
                    row(B::WaistGirth, ChartSays::Ease, &["2 cm", "2 cm"]),
                    row(B::HipGirth, ChartSays::Body, &["96 cm", "100 cm"]),
                    row(B::HipGirth, ChartSays::Finished, &["102 cm", "106 cm"]),
                    row(B::BodyRise, ChartSays::Body, &["26 cm", "27 cm"]),
                    row(B::InsideLeg, ChartSays::Finished, &["75 cm", "75.5 cm"]),
                ],
            ),
            chart(
                "fuller",
                &["20"],
                vec![
                    row(B::WaistGirth, ChartSays::Body, &["102 cm"]),
                    row(B::WaistGirth, ChartSays::Finished, &["104 cm"]),
                    row(B::HipGirth, ChartSays::Body, &["124 cm"]),
                    row(B::HipGirth, ChartSays::Ease, &["-2 cm"]),
                ],
            ),
        ],
        allowance: Some(m("0.8 cm")),
        held: vec![Held { what: B::InsideLeg, by: m("-1.5 cm") }],
        chosen: Some(Chosen {
            chart: "regular".into(),
            sizes: vec![
                SizeAt { level: Level::Waist, size: "12".into() },
                SizeAt { level: Level::Hip, size: "12".into() },
            ],
            allowance: m("0.8 cm"),
        }),
        ..Pattern::default()
    };
    let found = sizes(&trousers, &wearer, &pattern, &[], Tape::Cm);
    assert_eq!(
        found.flags,
        [
            "The hip girth of 131.0 cm is larger than any chart goes: the largest body is 124.0 cm. Take the nearest size as a start, and change the pieces",
            "Fuller charts less than no ease at the hip girth for woven cloth (size 20): not to be trusted",
            "An allowance of 0.8 cm is under 1.0 cm: it frays into its stitches",
        ]
    );
    let chosen = found.candidates.iter().chain(&found.chosen).find(|c| c.is_chosen).unwrap();
    assert_eq!(chosen.title, "regular 12");
    assert_eq!(
        chosen.flags[..2],
        [
            "Waist has no ease: 77.0 cm round, on a body of 77.0 cm; woven cloth does not close there",
            "The chart says 2.0 cm ease for the waist girth of size 12, but 77.0 − 76.0 = 1.0 cm: measure the paper before trusting either"
        ]
    );
    let lengths: Vec<(&str, &str)> =
        chosen.lengths.iter().map(|l| (l.does.as_str(), l.sum.as_str())).collect();
    assert_eq!(
        lengths,
        [
            (
                "lengthen by 1.0 cm between hip and crotch, front and back",
                "body 28.0 − drawn for 27.0 = 1.0 cm"
            ),
            (
                "shorten by 1.5 cm between knee and hem, front and back",
                "held to the body it was 1.5 cm too long"
            ),
            ("the hem lands on the floor", "body 74.0 − finished 75.5 + shortened 1.5 = 0.0 cm"),
        ]
    );
    // With allowances under the least there is nothing to narrow.
    assert!(found.candidates.iter().all(|c| !c.title.contains("allowances")));
    let nothing = sizes(&trousers, &wearer, &Pattern::default(), &[], Tape::Cm);
    assert_eq!((nothing.candidates.len(), nothing.needs.len()), (0, 1));
}

/// What is said of the lengths of the only candidate, each with how it comes about.
fn lengths(kind: Kind, body: &[(B, &str)], (rows, long): (Vec<ChartRow>, &str), tape: Tape) -> Vec<String> {
    let wearer = wearer(body);
    let one =
        Chart { long: (!long.is_empty()).then(|| m(long)).into_iter().collect(), ..chart("", &["12"], rows) };
    let pattern = Pattern { charts: vec![one], ..Pattern::default() };
    let found = sizes(&garment(kind, &wearer), &wearer, &pattern, &[], tape);
    let lengths = found.candidates[0].lengths.iter();
    let on_paper = |l: &SizeLength| l.on_paper.clone().unwrap_or(format!("{} to do", l.changes.len()));
    lengths
        .map(|l| format!("{}: {} ({}); {}", l.name, l.does, l.sum, on_paper(l)))
        .chain(found.needs)
        .collect()
}

#[test]
fn lengths_are_said_of_every_sort_of_garment_and_where_its_hem_lands() {
    let odile = [
        (B::Height, "162 cm"),
        (B::BustGirth, "94.5 cm"),
        (B::WaistGirth, "77.5 cm"),
        (B::HipGirth, "101.5 cm"),
        (B::BackNeckToWaist, "37.5 cm"),
        (B::BodyRise, "27 cm"),
        (B::ArmLength, "56 cm"),
        (B::OutsideLeg, "101.5 cm"),
    ];
    let of = |what, says, text: &str| row(what, says, &[text]);
    let bust = || of(B::BustGirth, ChartSays::Finished, "101 cm");
    let hip = || of(B::HipGirth, ChartSays::Finished, "108 cm");
    let dress = vec![
        bust(),
        of(B::BackNeckToWaist, ChartSays::Body, "41 cm"),
        of(B::ArmLength, ChartSays::Finished, "24 cm"),
    ];
    let bodice = vec![bust(), of(B::BackNeckToWaist, ChartSays::Finished, "37 cm")];
    let rise = |text| {
        vec![
            hip(),
            of(B::BodyRise, ChartSays::Finished, text),
            of(B::OutsideLeg, ChartSays::Finished, "100 cm"),
        ]
    };
    // A whole leg has its rise in it: that is not made longer twice.
    let whole_leg = |rise| {
        let drawn = |what, text| of(what, ChartSays::Body, text);
        vec![hip(), drawn(B::BodyRise, rise), drawn(B::OutsideLeg, "100 cm")]
    };
    // A skirt has no back neck, whatever its chart says.
    let skirt = vec![hip(), of(B::BackNeckToWaist, ChartSays::Body, "41 cm")];
    let all: Vec<Vec<String>> = vec![
        lengths(Kind::DressWithWaistSeam, &odile, (dress.clone(), "104 cm"), Tape::Cm),
        lengths(Kind::Dress, &odile, (bodice, ""), Tape::Cm),
        lengths(Kind::Trousers, &odile, (rise("28.5 cm"), ""), Tape::Cm),
        lengths(Kind::Trousers, &odile, (rise("26 cm"), ""), Tape::Cm),
        lengths(Kind::Trousers, &odile, (whole_leg("26 cm"), "97 cm"), Tape::Cm),
        lengths(Kind::Trousers, &odile, (whole_leg("29 cm"), "97 cm"), Tape::Cm),
        lengths(Kind::Skirt, &odile, (skirt.clone(), "62 cm"), Tape::Cm),
        lengths(Kind::Skirt, &odile, (skirt.clone(), "24 1/2 in"), Tape::In),
        lengths(Kind::Skirt, &odile, (skirt.clone(), "103 cm"), Tape::Cm),
        lengths(Kind::Skirt, &odile[..4], (skirt, "62 cm"), Tape::Cm),
        lengths(Kind::DressWithWaistSeam, &odile[..4], (dress, "104 cm"), Tape::Cm),
    ];
    insta::assert_debug_snapshot!(all);
}

#[test]
fn a_chart_with_a_figure_missing_or_falling_is_refused_at_its_place() {
    let places = |rows: Vec<ChartRow>| {
        let chart = chart("", &["10", "12"], rows);
        wrong_chart(&chart).into_iter().map(|f| (f.path, f.wrong.found(Tape::Cm))).collect::<Vec<_>>()
    };
    let finished = |figures: &[&str]| row(B::HipGirth, ChartSays::Finished, figures);
    let one = |path: &str, found: &str| vec![(path.to_owned(), found.to_owned())];
    assert_eq!(places(vec![finished(&["90 cm"])]), one("rows[0].figures", "1 figures for 2 sizes"));
    assert_eq!(
        places(vec![finished(&["40 in", "39 in"])]),
        one("rows[0].figures[1]", "39 in, which is less than the 40 in of the size before")
    );
    assert_eq!(places(vec![finished(&["90 cm", "94 cm"])]), vec![]);
    assert_eq!(
        places(vec![finished(&["90 cm", "94 cm"]), finished(&["90 cm", "94 cm"])]),
        one("rows[1].what", "the row stands here a second time")
    );
}

/// What a document might say of a garment of some kind, in marks of its tape.
#[derive(Clone, Debug)]
struct Case {
    kind: Kind,
    tape: Tape,
    /// By chart, by size, by level.
    finished: Vec<Vec<Vec<i64>>>,
    /// By level.
    bodies: Vec<i64>,
    eases: Vec<i64>,
    allowance: i64,
    short: bool,
    opened: Option<Opening>,
}

/// More levels than any kind has that are compared.
const MOST: usize = 12;

fn case() -> impl Strategy<Value = Case> {
    let size = || prop::collection::vec(0_i64..24, MOST);
    let charts = prop::collection::vec(prop::collection::vec(size(), 1..4), 1..3);
    let bodies = prop::collection::vec(-10_i64..20, MOST);
    let eases = prop::collection::vec(-8_i64..40, MOST);
    let of = (prop::sample::select(Kind::ALL), prop::sample::select(Tape::ALL), any::<bool>());
    let opened = prop::option::of(prop::sample::select(Opening::ALL));
    (of, charts, bodies, eases, 2_i64..8, opened).prop_map(
        |((kind, tape, short), steps, bodies, eases, wider, opened)| {
            // Every size is wider than the one before, from a body of 300 marks on.
            let chart = |steps: Vec<Vec<i64>>| {
                let mut last = vec![300; MOST];
                let next = |step: Vec<i64>| {
                    last = last.iter().zip(step).map(|(figure, step)| figure + step).collect();
                    last.clone()
                };
                steps.into_iter().map(next).collect()
            };
            let finished = steps.into_iter().map(chart).collect();
            let bodies = bodies.into_iter().map(|by| 300 + by).collect();
            let allowance = NARROWEST.on(tape).nm() / tape.mark().nm() + wider - 4;
            Case { kind, tape, finished, bodies, eases, allowance, short, opened }
        },
    )
}

impl Case {
    fn marks(&self, marks: i64) -> Measure {
        Measure { length: self.tape.mark() * marks, unit: self.tape.unit() }
    }

    /// A garment of this kind with at most this opening, its wearer, and the levels that are compared.
    fn begun(&self) -> (Garment, Wearer, Vec<(Level, B)>) {
        let mut wearer = wearer(&[(B::Height, "168 cm")]);
        let mut begun = garment(self.kind, &wearer);
        let zip = |at| ClosureFacts { closure: Closure::Zip, at, count: 1 };
        begun.closures = self.opened.map(zip).into_iter().collect();
        let is_there = |level: &&Level| begun.level(**level).is_some();
        let of = |level: &Level| Some((*level, begun.body_at(*level)?));
        let levels: Vec<(Level, B)> = Level::ALL.iter().filter(is_there).filter_map(of).collect();
        for ((_, what), body) in levels.iter().zip(&self.bodies) {
            wearer.measurements.push(taken(*what, &self.marks(*body).to_string()));
        }
        wearer.posture.extend(self.short.then_some(Posture::ShortWaist));
        (begun, wearer, levels)
    }

    fn asked(&self, wearer: &Wearer, garment: &Garment, levels: &[(Level, B)]) -> Sizes {
        let chart = |(n, sizes): (usize, &Vec<Vec<i64>>)| Chart {
            name: format!("chart {n}"),
            sizes: (0..sizes.len()).map(|size| size.to_string()).collect(),
            rows: levels
                .iter()
                .enumerate()
                .map(|(at, (_, what))| ChartRow {
                    what: *what,
                    says: ChartSays::Finished,
                    figures: sizes.iter().map(|size| self.marks(size[at])).collect(),
                })
                .collect(),
            long: Vec::new(),
        };
        let ease =
            |((level, _), ease): (&(Level, B), &i64)| LevelEase { level: *level, ease: self.marks(*ease) };
        let pattern = Pattern {
            charts: self.finished.iter().enumerate().map(chart).collect(),
            allowance: Some(self.marks(self.allowance)),
            ease: levels.iter().zip(&self.eases).map(ease).collect(),
            ..Pattern::default()
        };
        sizes(garment, wearer, &pattern, &[], self.tape)
    }

    /// Which level each goes on from, as a tailor would say it: down the body, down the sleeve, and the sleeve from the bust.
    fn goes_on_from(levels: &[(Level, B)], at: usize) -> Option<usize> {
        let place = |wanted: Level| levels.iter().position(|(level, _)| *level == wanted);
        match levels[at].0 {
            Level::UpperArm => place(Level::Bust),
            _ => at.checked_sub(1),
        }
    }

    /// Every choice there is, by brute force; what is reckoned of it, the best first.
    fn by_force(&self, garment: &Garment, levels: &[(Level, B)], edges: &[i64]) -> Vec<Forced> {
        let mark = self.tape.mark().nm();
        let least = |at: usize| {
            let body = self.tape.mark() * self.bodies[at];
            let band = garment.ease_wanted(levels[at].0, body, self.tape);
            band.map(|band| self.bodies[at] * mark + band.least.nm())
        };
        let least: Vec<Option<i64>> = (0..levels.len()).map(least).collect();
        let height = |at: usize| garment.level(levels[at].0).unwrap().station.length;
        let apart = |at: usize, from: usize| {
            let is_far = (height(at) - height(from)).abs() >= Length::from_mm(150);
            if is_far && !self.short && levels[at].0 != Level::UpperArm { 2 } else { 1 }
        };
        let mut all = Vec::new();
        for (chart, sizes) in self.finished.iter().enumerate() {
            let mut picks: Vec<Vec<usize>> = vec![Vec::new()];
            for at in 0..levels.len() {
                let with = |pick: &Vec<usize>| {
                    (0..sizes.len()).map(|size| [&pick[..], &[size]].concat()).collect::<Vec<_>>()
                };
                picks = picks.iter().flat_map(with).collect();
                if let Some(from) = Self::goes_on_from(levels, at) {
                    picks.retain(|pick| pick[at].abs_diff(pick[from]) <= apart(at, from));
                }
            }
            let narrowest = NARROWEST.on(self.tape).nm() / mark;
            for (pick, allowance) in picks.iter().flat_map(|pick| {
                (narrowest.min(self.allowance)..=self.allowance).map(move |allowance| (pick, allowance))
            }) {
                let girth = |at: usize| sizes[pick[at]][at] + edges[at] * (self.allowance - allowance);
                let of = 0..levels.len();
                let miss: i64 =
                    of.clone().map(|at| (girth(at) - self.bodies[at] - self.eases[at]).abs()).sum();
                let below = of.filter(|at| least[*at].is_some_and(|least| girth(*at) * mark < least)).count();
                let is_blended = pick.iter().any(|size| *size != pick[0]);
                let operations = usize::from(is_blended) + usize::from(allowance != self.allowance);
                all.push(((below, miss, operations), (chart, pick.clone()), allowance));
            }
        }
        all.sort();
        all
    }
}

/// Levels below the least, marks beside what is wanted, operations; chart and sizes; allowance in marks.
type Forced = ((usize, i64, usize), (usize, Vec<usize>), i64);

proptest! {
    #![proptest_config(ProptestConfig { cases: 200, failure_persistence: None, ..ProptestConfig::default() })]

    /// On every kind, tape and opening, between two charts: the best of each sort is the best of all there are, each is named once, and its words have its figures.
    #[test]
    fn the_search_finds_what_brute_force_finds(case in case()) {
        let (garment, wearer, levels) = case.begun();
        let found = case.asked(&wearer, &garment, &levels);
        let mark = case.tape.mark().nm();
        let told = |c: &super::SizeCandidate| {
            let chart = c.choice.chart.strip_prefix("chart ").unwrap().parse::<usize>().unwrap();
            let pick: Vec<usize> = c.choice.sizes.iter().map(|s| s.size.parse().unwrap()).collect();
            ((chart, pick), c.choice.allowance.length.nm() / mark)
        };
        // What a seam gains is held against the edges of the pieces elsewhere.
        let is_narrowed = |c: &&super::SizeCandidate| told(c).1 != case.allowance;
        let narrowed = found.candidates.iter().find(is_narrowed);
        let edges: Vec<i64> = (0..levels.len()).map(|at| narrowed.map_or(0, |c| edges_counted(&c.levels[at].sum) as i64)).collect();
        let all = case.by_force(&garment, &levels, &edges);
        let cost = |c: &super::SizeCandidate| {
            let (pick, allowance) = told(c);
            all.iter().find(|a| a.1 == pick && a.2 == allowance).map(|a| a.0)
        };
        let costs: Vec<_> = found.candidates.iter().map(cost).collect();
        prop_assert!(costs.iter().all(Option::is_some), "every one is allowed: {costs:?}");
        prop_assert!(costs.windows(2).all(|pair| pair[0] <= pair[1]), "{costs:?}");
        prop_assert_eq!(costs[0], all.first().map(|a| a.0));
        // Of every sort the best is among them.
        for sort in [(false, false), (false, true), (true, false), (true, true)] {
            let is_sort = |(_, pick): &(usize, Vec<usize>), allowance: i64| {
                (pick.iter().any(|p| *p != pick[0]), allowance != case.allowance) == sort
            };
            let best = all.iter().find(|a| is_sort(&a.1, a.2)).map(|a| a.0);
            let shown = found.candidates.iter().find(|c| { let (p, a) = told(c); is_sort(&p, a) });
            prop_assert_eq!(shown.and_then(cost), best, "{:?}", sort);
        }
        let mut keys: Vec<&str> = found.candidates.iter().map(|c| c.key.as_str()).collect();
        keys.sort_unstable();
        keys.dedup();
        prop_assert_eq!(keys.len(), found.candidates.len(), "each is named once");
        for candidate in &found.candidates {
            let ((_, pick), _) = told(candidate);
            let (of_lines, joins): (Vec<&String>, usize) = (
                candidate.operations.iter().filter(|says| says.starts_with("draw ")).collect(),
                (0..levels.len()).filter(|at| Case::goes_on_from(&levels, *at).is_some_and(|from| pick[from] != pick[*at])).count(),
            );
            prop_assert_eq!(of_lines.len(), joins, "a line wherever the size changes: {:?}", of_lines);
            for level in &candidate.levels {
                let ends = level.girth.text();
                prop_assert!(level.sum.ends_with(&ends), "{} / {}", level.sum, ends);
                prop_assert_eq!(level.is_exact, level.beside == "as wanted");
            }
        }
    }
}

/// Ease that nobody typed is that of finished garments of the same sort: the middle one, by its name; what is of another sort or assumed says
/// nothing.
#[test]
fn ease_is_learnt_from_what_fits() {
    let wearer = wearer(&[(B::Height, "162 cm"), (B::WaistGirth, "77 cm"), (B::HipGirth, "101 cm")]);
    let worn = |kind: Kind, name: &str, hip: &str, assumed: bool| {
        let mut garment = garment(kind, &wearer);
        garment.name = name.into();
        for level in garment.levels.iter_mut().filter(|l| l.level == Level::Hip) {
            level.width = Width::Girth(m(hip));
            level.assumed = assumed;
        }
        garment
    };
    let all = [
        worn(Kind::Trousers, "close", "105 cm", false),
        worn(Kind::Skirt, "middle", "108 cm", false),
        worn(Kind::Jeans, "wide", "113 cm", false),
        worn(Kind::Trousers, "never measured", "120 cm", true),
        worn(Kind::Jacket, "of another sort", "125 cm", false),
    ];
    let fit: Vec<Fits<'_>> = all.iter().map(|garment| Fits { garment, wearer: &wearer }).collect();
    let hip = row(B::HipGirth, ChartSays::Finished, &["104 cm", "108 cm"]);
    let mut pattern = Pattern { charts: vec![chart("", &["14", "16"], vec![hip])], ..Pattern::default() };
    let wanted = |pattern: &Pattern, fit: &[Fits<'_>]| {
        let found = sizes(&garment(Kind::Trousers, &wearer), &wearer, pattern, fit, Tape::Cm);
        (found.wanted[0].sum.clone(), found.wanted[0].from.clone())
    };
    let of = |(sum, from): (String, String)| format!("{sum}, {from}");
    assert_eq!(of(wanted(&pattern, &fit)), "101.0 + 7.0 = 108.0 cm, as in what fits: close, middle, wide");
    assert_eq!(of(wanted(&pattern, &[])), "101.0 + 6.5 = 107.5 cm, the middle of what is usual, trousers");
    pattern.ease = vec![ease(Level::Hip, "3 cm")];
    assert_eq!(of(wanted(&pattern, &fit)), "101.0 + 3.0 = 104.0 cm, as you said");
}

/// Each layer inside takes 3 mm, or an eighth, where it lies close, and nothing elsewhere; what somebody typed stays; the sum is the whole of it.
#[test]
fn layers_inside_take_ease_where_they_lie_close() {
    let wearer = wearer(&[
        (B::Height, "168 cm"),
        (B::BustGirth, "92 cm"),
        (B::WaistGirth, "74 cm"),
        (B::HipGirth, "98 cm"),
    ]);
    let garment = dress(&wearer);
    let finished = |what, figures| row(what, ChartSays::Finished, figures);
    let rows = vec![
        finished(B::BustGirth, &["94 cm", "98 cm", "102 cm"]),
        finished(B::WaistGirth, &["76 cm", "80 cm", "84 cm"]),
        finished(B::HipGirth, &["100 cm", "104 cm", "108 cm"]),
    ];
    let mut pattern = Pattern { charts: vec![chart("one", &["10", "12", "14"], rows)], ..Pattern::default() };
    for (tape, each) in [(Tape::Cm, Length::from_mm(3)), (Tape::InSixteenths, Length::from_64ths(8))] {
        let wanted = |pattern: &Pattern| -> Vec<(Level, Length, String, String)> {
            let found = sizes(&garment, &wearer, pattern, &[], tape);
            found.wanted.into_iter().map(|w| (w.level, Length::from_nm(w.ease.nm), w.from, w.sum)).collect()
        };
        (pattern.layers, pattern.ease) = (0, Vec::new());
        let bare = wanted(&pattern);
        for layers in 1..=3 {
            (pattern.layers, pattern.ease) = (layers, Vec::new());
            for ((level, was, ..), (_, is, from, sum)) in bare.iter().zip(wanted(&pattern)) {
                let is_close = matches!(level, Level::Bust | Level::Waist);
                let more = if is_close { each * i64::from(layers) } else { Length::ZERO };
                assert_eq!(is, *was + more, "{level:?}, {layers}");
                assert_eq!(from.contains("inside"), is_close, "{from}");
                assert!(sum.contains(&tape.bare(is)), "{sum}");
            }
            pattern.ease = vec![ease(Level::Waist, "4 cm")];
            let typed = wanted(&pattern).into_iter().find(|w| w.0 == Level::Waist).unwrap();
            assert_eq!((tape.round(typed.1), &*typed.2), (tape.round(Length::from_mm(40)), "as you said"));
        }
    }
    pattern.drapes = true;
    let flags = sizes(&garment, &wearer, &pattern, &[], Tape::Cm).flags;
    assert!(
        flags.iter().any(|f| f.contains("drops by its seam"))
            && flags.iter().any(|f| f.contains("lies closer")),
        "{flags:?}"
    );
}

/// What was typed may be kept of the wearer; kept, it is wanted of every garment of the sort before what fits tells or what is taught, and of no other.
#[test]
fn what_is_liked_is_kept_and_wanted_again() {
    let mut wearer = wearer(&[(B::Height, "168 cm"), (B::WaistGirth, "74 cm"), (B::HipGirth, "98 cm")]);
    let rows = vec![row(B::HipGirth, ChartSays::Finished, &["102 cm", "106 cm"])];
    let mut pattern = Pattern { charts: vec![chart("", &["14", "16"], rows)], ..Pattern::default() };
    let hip = |garment: &Garment, wearer: &Wearer, pattern: &Pattern, fit: &[super::Fits<'_>]| {
        let found = sizes(garment, wearer, pattern, fit, Tape::Cm);
        found.wanted.into_iter().find(|w| w.level == Level::Hip).unwrap()
    };
    let skirt = garment(Kind::Skirt, &wearer);
    pattern.ease = vec![ease(Level::Hip, "7 cm")];
    let taste = hip(&skirt, &wearer, &pattern, &[]).may_keep.unwrap();
    assert_eq!(taste.name(), "hip, held by a waistband, woven");
    wearer.taste.push(taste);
    assert_eq!(hip(&skirt, &wearer, &pattern, &[]).may_keep, None, "it is kept");
    pattern.ease.clear();
    let mut fits = skirt.clone();
    fits.levels.iter_mut().for_each(|level| level.assumed = false);
    let fit = [super::Fits { garment: &fits, wearer: &wearer }];
    for (garment, is_liked) in
        [(&skirt, true), (&garment(Kind::Trousers, &wearer), true), (&dress(&wearer), false)]
    {
        let wanted = hip(garment, &wearer, &pattern, &fit);
        assert_eq!(wanted.from == "as Odile likes it", is_liked, "{:?}: {}", garment.kind, wanted.from);
        assert_eq!(wanted.ease.nm == 70_000_000, is_liked, "{:?}", garment.kind);
    }
    let faults = |wearer: &Wearer| {
        crate::document::wrong_wearer(wearer).into_iter().map(|f| f.path).collect::<Vec<_>>()
    };
    assert_eq!(faults(&wearer), Vec::<String>::new());
    wearer.taste.push(taste);
    wearer.taste[0].ease = Measure::read("2 m", None).unwrap();
    assert_eq!(faults(&wearer), ["taste[0].ease", "taste[1].level"]);
}
