//! The card of a hem: where to fold and where to cut, all round, in the order of the hand.

use super::judge::HemSums;
use super::regime::{KeptEdge, Regime};
use super::told::{balance, off_words, stitched, turns_words};
use super::{AlteredHem, Cutting, Ring};
use crate::card::{Block, CardOf, Cell, Column, Emphasis, HasCard, Table, TableRow};
use crate::change::{ChangeKey, Drawn};
use crate::fitting::GarmentSide;
use crate::garment::{HemEdge, HemTurn};
use crate::length::{Length, Measure, Tape, Taught, Unit};
use crate::told::{Teller, capital};

impl HasCard for AlteredHem<'_> {
    /// After everything above it.
    const TURN: u8 = 4;

    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)> {
        let sums = self.sums(of.subject);
        let first = sums.first()?;
        let to = Teller::of(of.subject.garment, of.tape);
        let name = ChangeKey::Hem(self.key()).name(of.subject.garment);
        let both = match (self.key(), self.sides_agree()) {
            (HemEdge::Body, _) => "",
            (HemEdge::Leg, true) => ", both legs the same",
            (HemEdge::Sleeve, true) => ", both sleeves the same",
            (_, false) => ", each its own",
        };
        let turned = match turns_words(first, &to) {
            turns if turns.is_empty() => capital(first.turn.name()),
            turns => format!("Turned as {}: {turns}", first.turn.name()),
        };
        let mut blocks = vec![Block::Text(format!("{turned}. {}", measured_from(first, of.tape)))];
        for (sums, ring) in sums.iter().zip(&self.rings) {
            if let Some(side) = sums.side {
                blocks.push(Block::Heading(capital(side.name())));
            }
            blocks.push(Block::Table(table(of, sums, ring, &to)));
            blocks.push(Block::Note(capital(&if sums.kept.is_some() {
                off_words(sums.off[1], &to)
            } else {
                balance(sums, &to)
            })));
        }
        blocks.extend(of.inside_out());
        let seams = self.seams_that_move(of.subject).into_iter();
        let first_sewn = seams.map(|(seam, _)| {
            let name = ChangeKey::Seam(seam).name(of.subject.garment);
            format!("Sew the {name} first: the hem goes across it, and its allowance mirrors the new line.")
        });
        blocks.push(Block::Steps(first_sewn.chain(steps(self, first, &to)).collect()));
        blocks.extend(of.cautions(ChangeKey::Hem(self.key()), false));
        blocks.extend(of.afterwards());
        Some((format!("{}{both}", capital(&name)), blocks))
    }
}

/// What every figure below is measured from.
pub(super) fn measured_from(sums: &HemSums, tape: Tape) -> String {
    let unit = tape.unit_word();
    match (sums.kept, sums.is_cut_above()) {
        (Some(_), _) => format!("Figures in {unit}, up from the worn edge."),
        (None, true) => format!("Figures in {unit}, up from the present fold, which stays until it is cut."),
        (None, false) if sums.turn_up == Length::ZERO => format!("Figures in {unit}, up from the raw edge."),
        (None, false) => {
            format!("Figures in {unit}, up from the raw edge, once the old hem is unpicked and pressed flat.")
        }
    }
}

/// A tuck that is too deep is trimmed to this: 0.8 cm, 3/8 in (teaching value: enough to overcast, too little to be felt).
const TRIMMED_TUCK: Taught = Taught::new(8, 24);

/// Where the fold and the cut lie at a place, from what the card measures from: the raw edge lies so far below the present fold as is turned
/// up.
pub(super) fn fold_and_cut(sums: &HemSums, off: Length, tape: Tape) -> [Length; 2] {
    match sums.kept {
        Some(kept) => {
            let kept = KeptEdge::of(off, kept.stitch[0]).on(tape);
            [kept.crease, kept.stitch[1]]
        }
        None => {
            let from = if sums.is_cut_above() { Length::ZERO } else { sums.turn_up };
            [from + off, from + off - sums.allowance]
        }
    }
}

fn table(of: &CardOf<'_>, sums: &HemSums, ring: &Ring, to: &Teller<'_>) -> Table {
    let column = |heading: String, emphasis| Column { heading, emphasis, group: 0 };
    let unit = to.tape.unit_name();
    let second = match sums.kept {
        Some(_) => format!("stitch to, {unit}"),
        None => format!("cut, {unit}"),
    };
    let columns = vec![
        column("where".into(), Emphasis::Station),
        column(
            format!("{}, {unit}", if sums.turn == HemTurn::Bound { "edge" } else { "fold" }),
            Emphasis::Chalked,
        ),
        column(second, Emphasis::Chalked),
    ];
    let row = |part: f64, words: String, off: Length| {
        let [fold, cut] = fold_and_cut(sums, off, to.tape).map(|at| to.tape.figure(at));
        let place = Cell { figure: None, text: words, sum: None };
        let cut = match sums.short() {
            Some(_) if sums.kept.is_none() => Cell::of(None, None),
            _ if sums.kept.is_none() && !sums.is_cut => Cell::of(None, None),
            _ => Cell::of(Some(cut), None),
        };
        let cells = vec![place, Cell::of(Some(fold), Some(off_words(off, to))), cut];
        // A place is known by how far around it lies, in thousandths, and by its leg or sleeve.
        let around =
            (part * 1000.0).round() as i64 + if ring.side == Some(GarmentSide::Right) { 2000 } else { 0 };
        let at = vec![Measure { length: Length::from_mm(around), unit: Unit::Mm }];
        TableRow { is_chalked: of.is_chalked(&at), at, cells, note: String::new() }
    };
    let rows = match sums.is_level() {
        true => vec![row(0.0, "all round".into(), sums.off[0])],
        false => {
            ring.places.iter().map(|p| row(p.part, place_words(p), ring.chalked(p.part, to.tape))).collect()
        }
    };
    Table { columns, rows }
}

/// Where around: "side, left".
pub(super) fn place_words(place: &super::Place) -> String {
    match place.side {
        Some(side) => format!("{}, {}", place.around.name(), side.name()),
        None => place.around.name().into(),
    }
}

fn steps(hem: &AlteredHem<'_>, sums: &HemSums, to: &Teller<'_>) -> Vec<String> {
    let mut steps = Vec::new();
    let garment = to.garment;
    let lined = garment.found.lined.is_some_and(|lined| lined != crate::garment::Lined::No);
    if lined {
        steps.push(
            "Open the lining from the outer along the whole hem, and keep it out of the scissors’ way."
                .into(),
        );
    }
    let begin = match hem.key() {
        HemEdge::Leg => "Begin at the inside leg, never on a thick crossing; trim or hammer the seams first.",
        HemEdge::Body | HemEdge::Sleeve => "Begin at a side or back seam, never on a thick crossing.",
    };
    if let Some(kept) = sums.kept {
        let band = to.show(kept.stitch[0]);
        steps.push(match sums.is_level() {
            true => format!("Mark two lines, {band} and {} above the worn edge.", to.show(kept.stitch[1])),
            false => format!("Mark a line {band} above the worn edge, and a second one at each place."),
        });
        steps.push("Fold between them so that both lines meet, right sides together, and baste.".into());
        steps.push("Try it on. Nothing is cut before.".into());
        steps.push(stitched(HemTurn::Kept, lined).into());
        if kept.is_trimmed(to.tape) {
            steps.push(format!(
                "Trim the tuck to {} and overcast it.",
                to.show(to.tape.round(TRIMMED_TUCK.on(to.tape)))
            ));
        }
        steps.push(begin.into());
        steps.push("Thread matches the cloth, not the topstitching.".into());
        return steps;
    }
    if !sums.is_cut_above() && sums.turn_up > Length::ZERO {
        steps.push("Unpick the old hem and press it out.".into());
    }
    let is_bound = sums.turn == HemTurn::Bound;
    let edge = if is_bound { "new edge" } else { "fold" };
    steps.push(match sums.is_level() {
        true => {
            let up = fold_and_cut(sums, sums.off[0], to.tape)[0];
            format!("Mark the {edge} all round, {} up.", to.show(up))
        }
        false => {
            format!("Mark the {edge} at each place, and join the marks with a smooth line, closed all round.")
        }
    });
    let nothing_to_cut = sums.regimes.iter().all(|r| matches!(r, Regime::FromTurnUp { cut: Length::ZERO }));
    let has_more = sums.short().is_none() && !nothing_to_cut;
    let cut = (has_more && sums.is_cut).then(|| {
        let scrap = "keep what falls off to test iron and stitch on";
        match is_bound {
            true => format!("Cut along the mark, all round; {scrap}."),
            false => format!("Cut {} below the fold, all round; {scrap}.", to.show(sums.allowance)),
        }
    });
    let is_cut_first = sums.cutting == Cutting::First;
    steps.extend(cut.clone().filter(|_| is_cut_first));
    steps.push(match is_bound {
        true => "Baste or pin along the mark.".into(),
        false => "Press the fold, and baste or pin it.".to_owned(),
    });
    steps.push("Try it on, in the shoes it is worn with.".into());
    steps.extend(cut.filter(|_| !is_cut_first));
    steps.push(stitched(sums.turn, lined).into());
    if has_more && !sums.is_cut && sums.cutting == Cutting::StitchThenTrim {
        steps.push("Trim what is left above the stitching.".into());
    }
    steps.push(begin.into());
    if lined {
        steps.push("Hem the lining, let both hang, and slip-stitch it down.".into());
    }
    steps.push("Press it from inside, up to the stitching and not over it.".into());
    steps
}
