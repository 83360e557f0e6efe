//! What is cut from the pieces of a toile has the figures of those pieces.

use super::*;

use crate::figure::ViewSide;
use crate::garment::HIGHEST_NECK;
use crate::pattern::as_cut::{cut_from_pieces, height_of, length_of, outer, round_at};
use crate::pattern::lay::{Laid, lay};
use crate::pattern::{PieceMay, pieces};
use crate::work::{EdgePlace, Pattern};
use std::collections::BTreeSet;

/// Levels go round what its pieces go round, to two marks, and seams are as much longer as their edges; unrolled anew from those figures, nothing is far
/// from it, unless a seam is new. How many figures were compared, or those that differ.
fn has_figures_of_its_pieces(document: &Document, laid: &Laid, tape: Tape) -> Result<usize, Vec<String>> {
    let (garment, set) = (&laid.garment, &laid.sets[0]);
    let cut = cut_from_pieces((garment, &document.wearer), &laid.sets, false, tape);
    let again = unroll(&cut, &document.wearer, None);
    let is_new = cut.seams.len() > garment.seams.len();
    let (mut seen, mut wrong) = (0, Vec::new());
    let mut compare = |what: String, is: Option<f64>, said: Option<f64>, beside: f64| {
        if let (Some(is), Some(said)) = (is, said) {
            seen += 1;
            let differs = (is - said).abs() > 2.0 * tape.mark().cm() * 10.0 + beside;
            wrong.extend(differs.then(|| format!("{}, {what}: {said} instead of {is}", garment.name)));
        }
    };
    let old = unroll(&Garment { gathered: cut.gathered.clone(), ..garment.clone() }, &document.wearer, None);
    let [old, is, again] = [&old, &set.pieces, &again].map(|pieces| outer(pieces));
    // Narrowed a great deal it has shoulders that no neckline fits between, however shallow, which is said.
    let front = again.iter().filter(|piece| piece.key.face == PieceFace::Front);
    let mut necks = front.filter_map(|piece| piece.edge(EdgeName::Neckline));
    let is_shallowest = necks.any(|neck| neck.start().y - neck.end().y < HIGHEST_NECK * 10.0 + 0.01);
    let is_at_neck = cut.is_neck_its_edge() && !is_shallowest;
    for level in garment.levels.iter().map(|level| level.level) {
        let all: Vec<Piece> = is.iter().copied().cloned().collect();
        let said = cut.level(level).map(|level| level.width.girth().cm() * 10.0);
        // At a seam two pieces may have been widened by more than two others.
        let is_known = level != Level::Waist || garment.seam(Seam::WaistSeam).is_none();
        compare(
            format!("round the {level:?}"),
            girth_of(garment, &all, level).filter(|_| is_known),
            said,
            1.0,
        );
        if !is_new {
            let of = |pieces: &[&Piece]| {
                [
                    // A front wraps over by a share of the waist.
                    round_at(&cut, pieces, level)
                        .filter(|_| !wraps(&cut) && (level != Level::Neck || is_at_neck)),
                    height_of(pieces, level),
                ]
            };
            for (is, again) in of(&is).into_iter().zip(of(&again)) {
                compare(format!("{level:?}, unrolled anew"), is, again, 0.0);
            }
        }
    }
    for seam in garment.seams.iter().map(|facts| facts.seam) {
        let longer = Some(length_of(garment, &is, seam)).zip(Some(length_of(garment, &old, seam)));
        let longer = longer.and_then(|(is, was)| Some(is? - was?));
        let said = |garment: &Garment| garment.seam(seam).map(|facts| facts.length.length.cm() * 10.0);
        compare(format!("{seam:?}"), longer, said(&cut).zip(said(garment)).map(|(is, was)| is - was), 0.0);
    }
    if wrong.is_empty() { Ok(seen) } else { Err(wrong) }
}

/// Every garment as it is chalked and marked, and with each change that goes all round.
#[test]
fn what_is_cut_from_pieces_has_their_figures() {
    let mut seen = 0;
    let mut wrong = Vec::new();
    for name in DEMO {
        let whole = demo(name);
        let may = crate::pattern::pieces(&whole, crate::pattern::OfCloth::default(), Tape::Cm).unwrap().may;
        let wider = may.iter().map(|may| PieceChange::Width { piece: may.key, by: m("0.6 cm") });
        let longer = may.iter().filter_map(|may| {
            let level = *may.levels.first()?;
            Some(PieceChange::Length {
                part: may.key.part,
                face: Some(may.key.face),
                below: level,
                by: m("1.5 cm"),
            })
        });
        let mut longer: Vec<PieceChange> = longer.collect();
        longer.dedup();
        let of = |change: &dyn Fn(&PieceMay) -> Option<PieceChange>| may.iter().filter_map(change).collect();
        let on_fold = of(&|may| Some(PieceChange::OnFold { piece: may.key, seam: *may.folds.first()? }));
        let in_two = of(&|may| {
            let has = |edge| may.edges.iter().any(|e| e.name == edge);
            let [from, to] = [(EdgeName::Waist, "4 cm"), (EdgeName::Hem, "6 cm")]
                .map(|(edge, at)| EdgePlace { edge, at: m(at) });
            (has(EdgeName::Waist) && has(EdgeName::Hem)).then_some(PieceChange::Split {
                piece: may.key,
                from,
                to,
            })
        });
        for changes in [Vec::new(), wider.collect(), longer, on_fold, in_two] {
            let mut document = whole.clone();
            document.wishes.pattern.changes = changes;
            let laid = lay(&document, Tape::Cm).unwrap();
            // Where sides differ there is no one piece for both.
            let [set] = &laid.sets[..] else { continue };
            assert!(laid.cannot.iter().all(Option::is_none), "{name}: {:?}", laid.cannot);
            let cut = cut_from_pieces((&laid.garment, &document.wearer), &laid.sets, false, Tape::Cm);
            assert_eq!(
                cut_from_pieces((&laid.garment, &document.wearer), &[], false, Tape::Cm),
                laid.garment,
                "from none it stays"
            );
            for facts in &laid.garment.seams {
                let name = EdgeName::Seam(facts.seam);
                let [was, is] = [&set.old, &set.pieces].map(|all| all.iter().any(|p| p.edge(name).is_some()));
                let is_kept = cut.seam(facts.seam).is_some();
                assert_eq!(is_kept, is || !was, "{name:?}: a seam that is left out is none");
            }
            match has_figures_of_its_pieces(&document, &laid, Tape::Cm) {
                Ok(compared) => seen += compared,
                Err(differ) => wrong.extend(differ),
            }
        }
    }
    let mut higher = 0;
    // Shortened at its hem everything lies lower, its shoulders and its upper arm too: by as much.
    for name in DEMO {
        let mut document = demo(name);
        document.try_ons.clear();
        document.wishes.pattern = Pattern::default();
        let may = pieces(&document, OfCloth::default(), Tape::Cm).unwrap().may;
        let lowest = may.iter().filter_map(|may| {
            let (part, face) = (may.key.part, Some(may.key.face));
            let below = *may.levels.iter().filter(|l| !l.is_at_an_edge()).min_by_key(|l| {
                document.newest().and_then(|s| s.garment.level(**l)).map(|l| l.station.length)
            })?;
            Some(PieceChange::Length { part, face, below, by: m("-3 cm") })
        });
        let mut lowest: Vec<PieceChange> = lowest.collect();
        lowest.dedup();
        document.wishes.pattern.changes = lowest;
        let laid = lay(&document, Tape::Cm).unwrap();
        if laid.cannot.iter().any(Option::is_some) {
            continue;
        }
        let cut = cut_from_pieces((&laid.garment, &document.wearer), &laid.sets, false, Tape::Cm);
        let down = |level: Level| -> Option<f64> {
            let [was, is] = [&laid.garment, &cut].map(|g| g.level(level).map(|l| l.station.length.cm()));
            Some(was? - is?)
        };
        for [upper, lower] in
            [[Level::Shoulder, Level::Bust], [Level::Neck, Level::Bust], [Level::UpperArm, Level::Elbow]]
        {
            if let (Some(upper), Some(lower)) = (down(upper), down(lower)) {
                assert!((upper - lower).abs() < 0.11 && lower > 2.5, "{name}: {upper} and {lower}");
                higher += 1;
            }
        }
    }
    // As if they had been drawn elsewhere, wherever on their paper: all the same but for the shoulders.
    for name in DEMO {
        let document = demo(name);
        let mut laid = lay(&document, Tape::Cm).unwrap();
        let [set] = &mut laid.sets[..] else { continue };
        for piece in &mut set.pieces {
            let bounds = piece.bounds();
            piece.lay(kurbo::Affine::translate((-bounds.x0, 0.0)));
        }
        let figures = |is_drawn| {
            let of = (&laid.garment, &document.wearer);
            cut_from_pieces(of, &laid.sets, is_drawn, Tape::Cm).levels
        };
        let (drawn, found) = (figures(true), laid.garment.level(Level::Shoulder).copied());
        assert_eq!(
            drawn.iter().find(|l| l.level == Level::Shoulder).map(|l| l.width),
            found.map(|l| l.width),
            "{name}"
        );
    }
    assert_eq!(wrong, Vec::<String>::new());
    assert!(seen > 100 && higher > 3, "{seen}, {higher}");
}

/// What is done on paper is seen on the stand: wider pieces make it wider there, longer ones longer, and nothing is drawn where nothing is done.
#[test]
fn what_is_done_on_paper_is_seen_on_the_stand() {
    let mut seen = 0;
    for name in DEMO {
        let mut document = demo(name);
        document.wishes.pattern = Pattern::default();
        document.try_ons.clear();
        let told = |document: &Document| pieces(document, OfCloth::default(), Tape::Cm).unwrap();
        let bare = told(&document);
        assert_eq!(bare.stand, None, "{name}");
        for may in bare.may.iter().filter(|may| may.key.part != PiecePart::Waistband) {
            let by = m("4 cm");
            let wider = PieceChange::Width { piece: may.key, by };
            let is_sleeve = may.key.part == PiecePart::Sleeve;
            document.wishes.pattern.changes = vec![wider];
            let stand = told(&document).stand.unwrap();
            for (view, was) in stand.after.views.iter().zip(&stand.before.views) {
                let large = |path: &str| kurbo::BezPath::from_svg(path).unwrap().area().abs();
                if view.view == ViewSide::Front && !is_sleeve {
                    let [is, was] = [view.trunk.as_deref().unwrap(), was.cloth.last().unwrap()].map(large);
                    assert!(is > was * 1.002, "{name}, {:?}: {is} instead of {was}", may.key);
                    assert!(view.moved.iter().all(|moved| !moved.path.is_empty()));
                    seen += 1;
                }
            }
        }
    }
    assert!(seen > 15, "{seen}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(12))]

    /// The same of garments that are begun, on whatever body, made wider and longer by whatever, on every tape.
    #[test]
    fn what_is_cut_from_pieces_of_every_body_has_their_figures(
        (wearer, seams) in any_body(), tape in prop::sample::select(Tape::ALL),
        wider in prop::option::of(-12i64..=20), longer in prop::option::of(-20i64..=30), closed in any_closure(),
    ) {
        for mut garment in begun_on(&wearer, &seams) {
            close_in_front(&mut garment, closed);
            let mut document = agree::of_garment(garment, &wearer, Vec::new());
            document.try_ons.clear();
            let may = pieces(&document, OfCloth::default(), tape).unwrap().may;
            let of = |mm: i64| Measure { length: tape.round(Length::from_mm(mm)), unit: tape.unit() };
            let own = || may.iter().filter(|may| may.key.part != PiecePart::Waistband);
            let wider = wider.iter().flat_map(|by| own().map(|may| PieceChange::Width { piece: may.key, by: of(*by) }));
            let lines = own().filter_map(|may| Some((may.key.part, may.key.face, *may.levels.first()?)));
            let lines: BTreeSet<_> = lines.collect();
            let longer = longer.iter().flat_map(|by| {
                lines.iter().map(|(part, face, below)| PieceChange::Length { part: *part, face: Some(*face), below: *below, by: of(*by) })
            });
            document.wishes.pattern.changes = wider.chain(longer).collect();
            let laid = lay(&document, tape).unwrap();
            if laid.cannot.iter().all(Option::is_none) {
                let compared = has_figures_of_its_pieces(&document, &laid, tape);
                prop_assert!(compared.as_ref().is_ok_and(|seen| *seen > 5), "{:?}: {:?}", laid.garment.kind, compared);
            }
        }
    }
}
