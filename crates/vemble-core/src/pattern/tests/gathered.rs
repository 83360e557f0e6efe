//! Edges that are gathered or pleated: cut as long as they are entered, and sewn as long as what they are sewn to.

use super::agree::{of_garment, pinned_all_along};
use super::*;
use crate::change::Input;
use crate::change::gathers::GathersChange;
use crate::garment::{GatherHow, GatheredFacts};
use crate::judge::Subject;
use crate::pattern::as_cut::cut_from_pieces;
use crate::pattern::drawn::drawn_of;
use crate::pattern::lay::{Laid, lay};
use crate::pattern::unroll::{gathered_edges, length_before};
use crate::record::next_state;
use crate::solve::drawn_on;
use crate::work::{DrawnPiece, Schools};
use serde_json::{Value, json};
use std::collections::BTreeSet;

/// So much of an edge, in cm, gathered.
pub(super) fn facts(at: LongEdge, cm: f64) -> GatheredFacts {
    let by = Measure { length: Tape::Cm.round(Length::from_cm(cm)), unit: Unit::Cm };
    GatheredFacts { at, by, how: GatherHow::Gathers }
}

/// Of both sides together: how long an edge is cut, and how much of that is taken together, in mm; of sleeves what lies between them.
fn cut_and_taken<'a>(sides: impl ExactSizeIterator<Item = &'a [Piece]>, at: LongEdge) -> [f64; 2] {
    let times = if at == LongEdge::Waist { 2.0 } else { 1.0 } / sides.len() as f64;
    let all = sides.flat_map(|pieces| {
        gathered_edges(pieces, at).into_iter().map(move |at| {
            let eased = pieces[at.piece].edges[at.edge].eased;
            [length_before(pieces, at), eased.map_or(0.0, |eased| eased.by_mm)]
        })
    });
    all.fold([0.0; 2], |[cut, taken], [long, by]| [cut + times * long, taken + times * by])
}

/// What is pinned beside it: nothing, both sides, one, a dart above or below, a shorter trunk, a raised hem.
fn beside(garment: &Garment) -> Vec<Vec<Change>> {
    let mut all = vec![Vec::new()];
    for facts in garment.seams.iter().filter(|facts| {
        matches!(
            facts.seam,
            Seam::SideSeam | Seam::Outseam | Seam::PrincessBack | Seam::SleeveSeam | Seam::CentreBack
        )
    }) {
        all.extend(pinned_all_along(facts.seam, facts.end().cm(), ["left", "right"].as_slice()));
        all.extend(pinned_all_along(facts.seam, facts.end().cm(), ["left"].as_slice()));
    }
    let also: [Value; 4] = [
        json!({"dart": {"dart": "back_waist", "readings": [
            {"side": "left", "station": "4 cm", "amount": "0.8 cm", "how": "fold"},
            {"side": "right", "station": "4 cm", "amount": "0.8 cm", "how": "fold"}]}}),
        json!({"trunk": {"at": "above_waist", "side": "1.5 cm"}}),
        json!({"hem": {"hem": "sleeve", "off": "2 cm"}}),
        json!({"armhole": {"at": "both", "raise": "1 cm"}}),
    ];
    all.extend(also.into_iter().map(|change| vec![serde_json::from_value(change).unwrap()]));
    all
}

/// Garments of every kind with an edge that is gathered or pleated, and whatever is pinned beside it, each on the next tape; without and with that.
fn gathered_beside(at: LongEdge) -> Vec<(GathersChange, Tape, [Document; 2])> {
    let wearer = demo("pinafore-toile").wearer;
    let of = |garment: Garment| -> Vec<(GathersChange, Tape, [Document; 2])> {
        let Some(level) = garment.level(at.level()) else { return Vec::new() };
        let each = beside(&garment).into_iter().enumerate().map(|(n, beside)| {
            let tape = Tape::ALL[n % Tape::ALL.len()];
            let round = level.width.on(tape);
            let typed = |length: Length| Some(tape.figure(tape.round(length)).measure());
            let how = GatherHow::ALL[n % GatherHow::ALL.len()];
            // A leg, and a sleeve, is not three times as wide at one end.
            let most = if garment.has_legs() || at == LongEdge::SleeveHem { 160 } else { 240 };
            let long = typed(round.fraction([105, 130, 145, most, 120][n % 5], 100));
            // A cuff is typed; a waist is what it will be.
            let short = if at == LongEdge::SleeveHem { typed(round.fraction(3, 4)) } else { None };
            let gathers = GathersChange { long, short, how, ..GathersChange::of(at) };
            let with = |gathers: Option<GathersChange>| {
                let changes = beside.iter().cloned().chain(gathers.map(Change::from)).collect();
                of_garment(garment.clone(), &wearer, changes)
            };
            (gathers.clone(), tape, [with(None), with(Some(gathers))])
        });
        each.collect()
    };
    let all = begun_on(&wearer, &made::LONG_SEAMS).flat_map(|mut garment| {
        let whole = garment.clone();
        garment.seams.retain(|facts| facts.seam != Seam::YokeSeam);
        [Some(whole).filter(|whole| *whole != garment), Some(garment)].into_iter().flatten()
    });
    all.flat_map(of).collect()
}

/// Whatever is pinned beside it: as the card has it, to half a mark for every edge that is pinned; what lies below stays, everything matches that did, and once it is
/// sewn the garment has it.
#[test]
fn what_is_gathered_is_cut_as_long_as_it_is_entered_and_sewn_as_long_as_what_it_is_sewn_to() {
    let (mut seen, mut left, mut wrong) = (0, BTreeSet::new(), Vec::new());
    for (gathers, tape, documents) in
        [LongEdge::Waist, LongEdge::SleeveHem].into_iter().flat_map(gathered_beside)
    {
        let [Ok(before), Ok(laid)] = documents.each_ref().map(|document| lay(document, tape)) else {
            continue;
        };
        let (at, Document { wearer, try_ons, .. }) = (gathers.at, &documents[1]);
        let changes = &try_ons[0].changes;
        let of = format!("{:?}, {tape:?}, {}", laid.garment.kind, serde_json::to_string(changes).unwrap());
        if laid.left.len() > before.left.len() {
            let has = |seam| laid.garment.seam(seam).is_some();
            let is_in_one = laid.garment.goes_above_waist() && !has(Seam::WaistSeam);
            left.insert((format!("{:?}", laid.garment.kind), is_in_one, has(Seam::YokeSeam)));
            continue;
        }
        seen += 1;
        let drawn = drawn_on(&laid.garment, wearer, &try_ons[0], Schools::default()).unwrap();
        let as_it_is = Subject::as_it_is(&laid.garment, wearer, tape);
        let next = next_state(&Subject { changes: &drawn, put_on: try_ons[0].put_on(), ..as_it_is });
        let mm = |length: Length| length.cm() * 10.0;
        let taken = mm(next.gathered.iter().find(|facts| facts.at == at).unwrap().by.length);
        let again = unroll(&next, wearer, None);
        let [cut, is_taken] = cut_and_taken(laid.sets.iter().map(|set| &set.pieces[..]), at);
        let [cut_again, taken_again] = cut_and_taken(std::iter::once(&again[..]), at);
        // What laps over goes round twice.
        let found = cut_and_taken(std::iter::once(&laid.sets[0].old[..]), at)[0];
        let laps = found - mm(laid.garment.level(at.level()).unwrap().width.girth());
        let edges = (changes.len() * 8 - 7) as f64;
        let rounded = 1.0 + edges * mm(tape.mark()) / 2.0;
        let mut figures = vec![
            ("cut".to_owned(), cut - laps, mm(gathers.long.unwrap().length), rounded),
            ("taken together".to_owned(), is_taken, taken, 0.01),
            ("cut afterwards".to_owned(), cut_again, cut, rounded),
            ("taken together afterwards".to_owned(), taken_again, taken, 0.01),
        ];
        // Pins lie square to a seam, which slants more.
        for level in laid.garment.levels.iter().map(|level| level.level).filter(|level| *level != at.level())
        {
            let [is, was] = [&laid, &before].map(|laid| girth_of(&laid.garment, &laid.sets[0].pieces, level));
            figures.extend(is.zip(was).map(|(is, was)| (format!("round the {level:?}"), is, was, 1.0)));
        }
        // So has a garment that is cut from these pieces.
        let begun = cut_from_pieces((&laid.garment, wearer), &laid.sets, false, tape);
        let own = begun.gathered.iter().find(|facts| facts.at == at).unwrap();
        figures.push(("taken together of it begun".to_owned(), mm(own.by.length), taken, mm(tape.mark())));
        wrong.extend((own.how != gathers.how).then(|| format!("{of}: begun {:?}", own.how)));
        let differ = figures.into_iter().filter(|(_, is, wanted, within)| (is - wanted).abs() > *within);
        wrong.extend(differ.map(|(what, is, wanted, _)| format!("{of}: {what} {is:.2}, not {wanted:.2}")));
        for (set, was) in laid.sets.iter().zip(&before.sets) {
            let [is, was] = [set, was].map(|set| true_up(&set.pieces, &set.joins));
            wrong.extend((is.len() > was.len()).then(|| format!("{of}: {is:?}")));
        }
    }
    assert_eq!(wrong, Vec::<String>::new(), "{seen}");
    assert!(seen > 100, "{seen}");
    // What is cut in one has no edge there, and a yoke is not gathered along its upper edge.
    let drawn = left.iter().filter(|(_, is_in_one, has_yoke)| !is_in_one && !has_yoke).collect::<Vec<_>>();
    assert_eq!(drawn, Vec::<&(String, bool, bool)>::new());
    assert_eq!(left.iter().filter(|(_, is_in_one, _)| !is_in_one).count(), 2, "{left:?}");
}

/// Pieces that were drawn elsewhere stay as they are, and it is said, unless they were written from this try-on: what is in their file is not left.
#[test]
fn what_is_in_a_file_is_not_gathered_anew() {
    let mut document = demo("pinafore-toile");
    let laid = lay(&document, Tape::Cm).unwrap();
    assert_eq!(laid.left, Vec::<String>::new());
    let try_on = Some(uuid::Uuid::from_u128(7));
    document.try_ons[0].id = try_on;
    let skirt = |laid: &Laid| -> Vec<Piece> {
        let own = laid.sets[0].chalked.iter().filter(|piece| piece.key.part == PiecePart::Skirt);
        own.cloned().collect()
    };
    let [front, back] = &skirt(&laid)[..] else { panic!("a front and a back") };
    for (has, count, is_left) in [(try_on, 2, false), (try_on, 1, true), (None, 2, true)] {
        let drawn = [front, back]
            .into_iter()
            .take(count)
            .map(|piece| DrawnPiece { has_try_on: has, ..drawn_of(piece) });
        document.wishes.pattern.drawn = drawn.collect();
        let laid = lay(&document, Tape::Cm).unwrap();
        let told = laid.left.iter().any(|name| name == "gathers or pleats at the waist");
        assert_eq!(told, is_left, "{has:?}, {count}: {:?}", laid.left);
        let taken =
            |piece: &Piece| piece.edge(EdgeName::Waist).unwrap().eased.map(|e| (e.by_mm.round(), e.into));
        let own = skirt(&laid);
        let read = |piece: &&Piece| document.wishes.pattern.drawn.iter().any(|d| d.piece == piece.key);
        for piece in own.iter().filter(read) {
            let was = [front, back].into_iter().find(|was| was.key == piece.key).unwrap();
            assert_eq!(taken(piece), taken(was), "as it was drawn");
        }
    }
}
