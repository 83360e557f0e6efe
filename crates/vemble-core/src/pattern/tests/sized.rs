//! What the sum of a size counts is there on paper.

use super::*;
use crate::body::BodyMeasurement;
use crate::garment::{Closure, ClosureFacts, Collar, Lined, Opening, Round, Run};
use crate::size::sizes;
use crate::tests::kit::edges_counted;
use crate::work::{Chart, ChartRow, ChartSays, LevelEase, Pattern, PieceChange, PieceFace, PieceShare};
use kurbo::Point;

const MM: fn(i64) -> Measure = |mm| Measure { length: Length::from_mm(mm), unit: crate::length::Unit::Cm };

/// A pattern in one size, of which every level is 2 cm narrower than is wanted: allowances of 1.5 cm have to give it.
fn narrow(garment: &Garment, wearer: &Wearer) -> Pattern {
    let of =
        |level: &Level| Some((*level, garment.body_at(*level)?)).filter(|_| garment.level(*level).is_some());
    let all: Vec<(Level, BodyMeasurement)> = Level::ALL.iter().filter_map(of).collect();
    let body = |what| wearer.get(what).map_or(MM(300), |length| Measure { length, ..MM(0) });
    let row = |(_, what): &(Level, BodyMeasurement)| ChartRow {
        what: *what,
        says: ChartSays::Finished,
        figures: vec![body(*what)],
    };
    let chart = Chart {
        name: "one".into(),
        sizes: vec!["12".into()],
        rows: all.iter().map(row).collect(),
        long: Vec::new(),
    };
    let ease = all.iter().map(|(level, _)| LevelEase { level: *level, ease: MM(20) });
    Pattern { charts: vec![chart], allowance: Some(MM(15)), ease: ease.collect(), ..Pattern::default() }
}

fn seam_of(edge: &Edge) -> Option<Seam> {
    if let EdgeName::Seam(seam) = edge.name { Some(seam) } else { None }
}

/// Edges of lengthwise seams that cross a level on the pieces of a garment, all round; but for seams that are opened.
fn edges_at(garment: &Garment, pieces: &[Piece], level: Level, opened: Option<Opening>) -> usize {
    let own = pieces.iter().filter(|p| level.is_of_sleeve() == (p.key.part == PiecePart::Sleeve));
    let run = if level.is_of_sleeve() { Run::DownSleeve } else { Run::Down };
    // What is sewn together at the waist goes round it once.
    let has_bodice = pieces.iter().any(|p| p.key.part == PiecePart::Bodice);
    let is_twice = |p: &Piece| level == Level::Waist && has_bodice && p.key.part != PiecePart::Bodice;
    let edges = own.filter(|p| p.key.part != PiecePart::Waistband && !is_twice(p)).flat_map(|piece| {
        let y = piece.levels.iter().find(|(l, _)| *l == level).map(|(_, y)| *y);
        let crosses = move |edge: &&Edge| {
            let (low, high) = (edge.start().y.min(edge.end().y), edge.start().y.max(edge.end().y));
            // What lies at an edge is crossed by what ends in it.
            let at = match level {
                Level::Neck => Some(EdgeName::Neckline),
                Level::UpperArm => Some(EdgeName::Seam(Seam::ArmholeSeam)),
                Level::Waist => Some(EdgeName::Waist),
                _ => None,
            };
            let ends = at.and_then(|at| piece.edge(at)).map(|at| [at.start(), at.end()]);
            let ends_there = |ends: [Point; 2]| {
                ends.iter().any(|p| [edge.start(), edge.end()].iter().any(|end| end.distance(*p) < 0.1))
            };
            y.is_some_and(|y| low - 1.0 < y && y < high + 1.0) || ends.is_some_and(ends_there)
        };
        piece.edges.iter().filter(crosses).filter_map(seam_of).collect::<Vec<_>>()
    });
    let narrowed = edges.filter(|seam| seam.run() == run && !opened.is_some_and(|at| at.is_in(*seam)));
    let all = narrowed.count();
    if garment.round(level) == Round::Whole { 2 * all } else { all }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    /// Narrower allowances are counted at as many edges as there are on the pieces, at every level of every kind, and a seam that opens at none.
    #[test]
    fn the_edges_of_a_sum_are_edges_of_the_pieces(
        (wearer, seams) in any_body(), opened in prop::option::of(prop::sample::select(Opening::ALL)),
    ) {
        let mut seen = 0;
        for mut garment in begun_on(&wearer, &seams) {
            let zip = |at| ClosureFacts { closure: Closure::Zip, at, count: 1 };
            garment.closures = opened.map(zip).into_iter().collect();
            let pieces = unroll(&garment, &wearer, None);
            let found = sizes(&garment, &wearer, &narrow(&garment, &wearer), &[], Tape::Cm);
            let narrowed = found.candidates.iter().find(|candidate| candidate.choice.allowance != MM(15));
            for level in narrowed.iter().flat_map(|candidate| &candidate.levels) {
                let there = edges_at(&garment, &pieces, level.level, opened.filter(|at| *at != Opening::Cuff));
                prop_assert_eq!(edges_counted(&level.sum), there, "{:?}, {:?}, {:?}: {}", garment.kind, opened, level.level, &level.sum);
                seen += there;
            }
        }
        prop_assert!(seen > 100, "{} edges", seen);
    }

    /// Whatever size is chosen, on every tape: once the garment has its figures, pieces go round what was chosen, what is sewn to a waist or a neckline is as much longer as it, and
    /// nothing is untrue that was true.
    #[test]
    fn what_is_chosen_is_what_pieces_go_round((wearer, seams) in any_body(), more in -30_i64..80, tape in prop::sample::select(Tape::ALL), closed in any_closure()) {
        let mut seen = 0;
        for mut garment in begun_on(&wearer, &seams) {
            close_in_front(&mut garment, closed);
            let mut pattern = narrow(&garment, &wearer);
            for row in pattern.charts.iter_mut().flat_map(|chart| &mut chart.rows) {
                row.figures.iter_mut().for_each(|figure| figure.length = figure.length + Length::from_mm(60 + more));
            }
            let found = sizes(&garment, &wearer, &pattern, &[], tape);
            let Some(candidate) = found.candidates.into_iter().next() else { continue };
            pattern.chosen = Some(candidate.choice);
            let Some(cut) = sizes(&garment, &wearer, &pattern, &[], tape).as_cut else { continue };
            let own = Garment { levels: cut.levels, seams: cut.seams, ..garment.clone() };
            // What nobody sees on a tape stays as it is.
            let within = 1.0 + tape.mark().cm() * 5.0;
            let [pieces, before] = [&own, &garment].map(|garment| unroll(garment, &wearer, None));
            for level in candidate.levels.iter().filter(|level| level.level != Level::Bust || own.darts.is_empty()) {
                let (is, wanted) = (girth_of(&own, &pieces, level.level), level.girth.nm as f64 / 1e6);
                seen += 1;
                prop_assert!(is.is_none_or(|is| (is - wanted).abs() < within), "{:?}, {:?}: {:?}, not {}", own.kind, level.level, is, wanted);
            }
            for (seam, level) in [(Seam::WaistSeam, Level::Waist), (Seam::NeckSeam, Level::Neck)] {
                let more = |of: &dyn Fn(&Garment) -> Option<Length>| Some(of(&own)? - of(&garment)?);
                let sewn = more(&|garment| Some(tape.round(garment.seam(seam)?.length.length)));
                let round = more(&|garment| Some(garment.level(level)?.width.on(tape)));
                prop_assert!(sewn.is_none() || sewn == round, "{:?}, {:?}: {:?}, not {:?}", own.kind, seam, sewn, round);
            }
            let untrue = |garment: &Garment, pieces: &[Piece]| true_up(pieces, &joins(garment, pieces)).len();
            prop_assert_eq!(untrue(&own, &pieces), untrue(&garment, &before), "{:?}", own.kind);
        }
        prop_assert!(seen > 10, "{}", seen);
    }
}

/// What a garment has beside its pieces is named beside the cloth, and is not once it is drawn.
#[test]
fn what_is_not_among_the_pieces_is_named() {
    let wearer = demo("pinafore-toile").wearer;
    let said = |garment: &Garment, changes: &[PieceChange]| {
        let mut document = super::agree::of_garment(garment.clone(), &wearer, Vec::new());
        document.wishes.pattern.changes = changes.to_vec();
        let told = crate::pattern::pieces(&document, OfCloth::default(), Tape::Cm).unwrap();
        assert!(told.chips.iter().all(|chip| chip.cannot.is_none()), "{:?}", told.chips);
        assert!(told.cutting_list().ends_with(&format!("{}\n", told.not_drawn.join("\n"))));
        told.not_drawn.join("; ")
    };
    let every: Vec<String> = begun_on(&wearer, &[])
        .map(|mut garment| {
            garment.belt_loops = garment.kind.template().loops;
            garment.pockets = garment.kind.template().pockets.to_vec();
            format!("{:?}: {}", garment.kind, said(&garment, &[]))
        })
        .collect();
    insta::assert_snapshot!(every.join("\n"));
    let mut shirt = begun_on(&wearer, &[]).find(|garment| garment.kind == Kind::Shirt).unwrap();
    (shirt.collar, shirt.hems) = (Some(Collar::None), Vec::new());
    shirt.found.lined = Some(Lined::Fully);
    let [yoke_is, lining_is] = [
        "Drawn in one with what it is sewn to: the piece above the yoke seam",
        "Not among these pieces, nor in that cloth: lining",
    ];
    assert_eq!(said(&shirt, &[]), lining_is);
    let back = PieceKey::outer(PiecePart::Body, PieceFace::Back, PieceShare::Lower);
    assert_eq!(said(&shirt, &[PieceChange::Lining { piece: back }]), "");
    // In panels, which no yoke is cut across, or with a dart in the way.
    let panels =
        begun_on(&wearer, &[Seam::PrincessBack]).find(|garment| garment.kind == Kind::Shirt).unwrap();
    shirt.seams = panels.seams;
    assert_eq!(said(&shirt, &[]), format!("{yoke_is}; {lining_is}"));
}
