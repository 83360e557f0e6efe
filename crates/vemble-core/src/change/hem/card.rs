//! The card of a hem: where to fold and where to cut, all round, in the order of the hand.

use super::at_the_edge::{Facing, FacingCut};
use super::input::ShortenedAt;
use super::judge::HemSums;
use super::regime::{KeptEdge, Regime};
use super::told::{balance, off_words, stitched, turns_words};
use super::{AlteredHem, Cutting, Ring};
use crate::card::{Block, CardOf, Cell, Column, Emphasis, HasCard, Table, TableRow};
use crate::change::{ChangeKey, Drawn};
use crate::fitting::GarmentSide;
use crate::garment::{ClosureFacts, Garment, HemEdge, HemTurn, Opening};
use crate::length::{Length, Measure, Tape, Taught, Unit};
use crate::told::{Teller, capital};

impl HasCard for AlteredHem<'_> {
    /// After everything above it.
    const TURN: u8 = 4;

    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)> {
        let to = Teller::of(of.subject.garment, of.tape);
        let key = ChangeKey::Hem(self.key());
        let name = capital(&key.name(of.subject.garment));
        let mut blocks = Vec::new();
        let title = match self.above {
            Some(above) => {
                let off = of.tape.round(above.off);
                blocks.extend(taken_above(self, of, above.at, off, &to));
                blocks.extend(lining(self, of, off, &to));
                format!("{name}, {}", above.at.name())
            }
            None => {
                let sums = self.sums(of.subject);
                let first = sums.first()?;
                blocks.extend(self.turned_up(of, &sums, &to));
                blocks.extend(slit(self, of, first.off[1], &to));
                blocks.extend(lining(self, of, first.off[1], &to));
                let both = match (self.key(), self.sides_agree()) {
                    (HemEdge::Body, _) => "",
                    (HemEdge::Leg, true) => ", both legs the same",
                    (HemEdge::Sleeve, true) => ", both sleeves the same",
                    (_, false) => ", each its own",
                };
                format!("{name}{both}")
            }
        };
        blocks.extend(of.cautions(key, false));
        blocks.extend(of.afterwards());
        Some((title, blocks))
    }
}

impl AlteredHem<'_> {
    /// Where it is folded and cut, and how: once for both where they are the same, else each by itself, since whatever follows may differ too.
    fn turned_up(&self, of: &CardOf<'_>, sums: &[HemSums], to: &Teller<'_>) -> Vec<Block> {
        let mut blocks = Vec::new();
        if let Some(longer) = self.change.longer_by {
            let longer = to.show(longer.length);
            blocks.push(Block::Note(format!("All of it {longer} longer than marked: washing takes that.")));
        }
        blocks.extend(of.inside_out());
        let mut first = self.done_first(of, to.garment);
        if sums.len() > 1 && !first.is_empty() {
            blocks.push(Block::Steps(std::mem::take(&mut first)));
        }
        for (sums, ring) in sums.iter().zip(&self.rings) {
            if let Some(side) = sums.side {
                blocks.push(Block::Heading(capital(side.name())));
            }
            let turned = match turns_words(sums, to) {
                turns if turns.is_empty() => capital(sums.turn.name()),
                turns => format!("Turned as {}: {turns}", sums.turn.name()),
            };
            blocks.push(Block::Text(format!("{turned}. {}", measured_from(sums, of.tape))));
            blocks.push(Block::Table(table(of, sums, ring, to)));
            blocks.push(Block::Note(capital(&if sums.kept.is_some() {
                off_words(sums.off[1], to)
            } else {
                balance(sums, to)
            })));
            let facing = self.facing(of.subject, sums, ring);
            blocks.extend(facing.map(|facing| Block::Line(facing.words(to))));
            first.extend(steps(self, sums, to));
            blocks.push(Block::Steps(std::mem::take(&mut first)));
        }
        blocks
    }

    /// What is done before it is turned up: seams across it are sewn, and what drops or is carried is marked in another way.
    fn done_first(&self, of: &CardOf<'_>, garment: &Garment) -> Vec<String> {
        let seams = self.seams_that_move(of.subject).into_iter().map(|(seam, _)| {
            let name = ChangeKey::Seam(seam).name(garment);
            format!("Sew the {name} first: the hem goes across it, and its allowance mirrors the new line.")
        });
        seams.chain(self.marked_otherwise(garment)).collect()
    }

    /// How it is marked where it drops or is carried.
    fn marked_otherwise(&self, garment: &Garment) -> Vec<String> {
        let mut steps = Vec::new();
        if self.drops(garment) {
            steps.push(
                "Let it hang for a day and a night, on a hanger, then mark it anew from the floor.".into(),
            );
        }
        if self.change.over_petticoat {
            steps.push("Mark it on the body over what it is worn with; then measure down from the waist to every mark with it on a hanger.".into());
        }
        steps
    }
}

/// A line that is moved at the waist or at the cap instead of the edge.
fn taken_above(
    hem: &AlteredHem<'_>,
    of: &CardOf<'_>,
    at: ShortenedAt,
    off: Length,
    to: &Teller<'_>,
) -> Vec<Block> {
    let unit = to.tape.unit_name();
    let column = |heading: String, emphasis| Column { heading, emphasis, group: 0 };
    let (seam, piece) = match at {
        ShortenedAt::Cap => ("cap", "sleeve"),
        ShortenedAt::Waist | ShortenedAt::Edge if hem.key() == HemEdge::Leg => ("waist", "trousers"),
        ShortenedAt::Waist | ShortenedAt::Edge => ("waist", "skirt"),
    };
    let way = if off.is_negative() { "above" } else { "below" };
    let places = vec![Measure { length: Length::ZERO, unit: Unit::Mm }];
    let cells = vec![
        Cell { figure: None, text: "all round".into(), sum: None },
        Cell::of(Some(of.tape.figure(off.abs())), Some(off_words(off, to))),
    ];
    let table = Table {
        columns: vec![
            column("where".into(), Emphasis::Station),
            column(format!("{way} the old {seam} seam, {unit}"), Emphasis::Chalked),
        ],
        rows: vec![TableRow { is_chalked: of.is_chalked(&places), at: places, cells, note: String::new() }],
    };
    let mut steps = Vec::new();
    steps.extend(of.lining_to_open().map(|lining| format!("Open {lining}, and free it at the {seam}.")));
    steps.push(format!("Unpick the {seam} seam; thread-trace the old line and its notches on the {piece}."));
    steps.push(match at {
        ShortenedAt::Cap => format!(
            "Draw the whole cap anew {} {way} the old one, notches and all; its length along the seam must stay what it was.",
            to.show(off.abs())
        ),
        ShortenedAt::Waist | ShortenedAt::Edge => format!("Draw the new seam line {} {way} the old one, all round, level with it.", to.show(off.abs())),
    });
    steps.push("Take what is too wide there out in darts and seams, each by its own card, and baste.".into());
    steps.push("Baste it on and try it on. Nothing is cut before.".into());
    steps.push(format!(
        "Sew the {seam}, trim what stands above it to the old allowance, and put back what came off."
    ));
    vec![
        Block::Text(format!("{} {}. The edge stays as it is.", capital(&off_words(off, to)), at.name())),
        Block::Table(table),
        Block::Steps(steps),
    ]
}

/// A slit that is new: where it stands, how high, and how it is made.
fn slit(hem: &AlteredHem<'_>, of: &CardOf<'_>, off: Length, to: &Teller<'_>) -> Vec<Block> {
    let Some(slit) = hem.slit(of.subject, off).filter(|slit| !slit.lacks_dart) else { return Vec::new() };
    let from = match slit.from_centre {
        None => "in the seam".to_owned(),
        Some(Length::ZERO) => "on the middle of the garment".into(),
        Some(from) => format!("{} from the middle of the garment, on both sides", to.show(from)),
    };
    let half = to.tape.round(slit.width.fraction(1, 2));
    let steps = vec![
        format!("Mark its line, {from}; from the new edge {} up.", to.show(slit.height)),
        match slit.width {
            Length::ZERO => "Stitch round it close to the line, one stitch across at the top.".into(),
            _ => format!(
                "Stitch from {} beside the line at the edge up to a point at its top, and down the other side.",
                to.show(half)
            ),
        },
        "Try it on and walk before it is cut.".into(),
        "Cut between the stitching right up to the point, turn both edges in, and bar the top by hand."
            .into(),
    ];
    let words = format!("{}, {} up from the new edge.", capital(slit.at.name()), to.show(slit.height));
    vec![Block::Heading("Slit".into()), Block::Line(words), Block::Steps(steps)]
}

/// The lining has a hem of its own.
fn lining(hem: &AlteredHem<'_>, of: &CardOf<'_>, off: Length, to: &Teller<'_>) -> Vec<Block> {
    let Some(lining) = hem.lining(of.subject, off) else { return Vec::new() };
    let mut words = format!("{} of the lining as well: {}.", capital(&off_words(off, to)), lining.words(to));
    if off == Length::ZERO {
        words = format!("{}.", capital(&lining.words(to)));
    }
    let cut = lining.cut_words(to).filter(|_| !lining.is_folded_up);
    let mut steps = vec![
        "Let the outer hang, finished, and the lining inside it; mark its fold from the outer’s.".to_owned(),
    ];
    steps.push(match lining.is_folded_up {
        true => "Fold up what is too long, inner turn first; nothing is cut.".into(),
        false => format!("Cut it {} below its fold, and turn it twice.", to.show(lining.turn)),
    });
    steps.push(match (lining.is_free, hem.key()) {
        (true, _) => "Hem it by itself, and hold it to the outer at each seam with a thread chain.".into(),
        (false, HemEdge::Sleeve) => "Baste it, try it on, bend the arm; then slip-stitch, shallow, 1 cm apart at most.".into(),
        (false, _) => "Pin it with its slack in a fold, look at both hanging, then slip-stitch, shallow, 1 cm apart at most.".into(),
    });
    let mut blocks = vec![Block::Heading("Lining".into()), Block::Line(words)];
    blocks.extend(cut.map(|cut| Block::Line(format!("{}.", capital(&cut)))));
    blocks.push(Block::Steps(steps));
    blocks
}

impl Facing {
    /// `Facing: 103.0 long, joins and all, 6.6 cm wide, 5.0 deep when finished; cut on the bias, from a square of 26.1 cm`.
    pub(super) fn words(self, to: &Teller<'_>) -> String {
        let cut = match self.cut {
            FacingCut::Straight => "a straight strip".into(),
            FacingCut::Bias { square } => format!("on the bias, from a square of {}", to.show(square)),
            FacingCut::Shaped => "traced from the garment along its edge, in pieces from seam to seam".into(),
        };
        format!(
            "Facing: {} long with what joins it, {} wide, {} deep when finished; {cut}.",
            to.show(self.length),
            to.show(self.width),
            to.show(self.depth)
        )
    }
}

/// What every figure below is measured from.
pub(super) fn measured_from(sums: &HemSums, tape: Tape) -> String {
    let unit = tape.unit_word();
    match (sums.kept, sums.is_cut_above()) {
        (Some(_), _) => format!("Figures in {unit}, up from the edge that stays."),
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
    // A facing or vent is folded back as deep as it is turned, twice: once with the hem, once over it.
    let has_vent = hem.facts.is_some_and(|facts| facts.vent.is_some());
    let opens = |c: &ClosureFacts| c.at == Opening::CentreFront;
    let has_facings = hem.key() == HemEdge::Body && garment.closures.iter().any(opens);
    if sums.kept.is_none() && (has_vent || has_facings && lined) && sums.allowance > Length::ZERO {
        let what = match (has_facings && lined, has_vent) {
            (true, true) => "the front facings and the vent",
            (true, false) => "the front facings",
            (false, _) => "the vent",
        };
        steps.push(format!(
            "Open {what} {} up from the new fold, twice what is turned up.",
            to.show(sums.allowance * 2)
        ));
    }
    let begin = match hem.key() {
        HemEdge::Leg => "Begin at the inside leg, never on a thick crossing; trim or hammer the seams first.",
        HemEdge::Body | HemEdge::Sleeve => "Begin at a side or back seam, never on a thick crossing.",
    };
    if let Some(kept) = sums.kept {
        let band = to.show(kept.stitch[0]);
        steps.push(match sums.is_level() {
            true => {
                format!("Mark two lines, {band} and {} above the edge that stays.", to.show(kept.stitch[1]))
            }
            false => format!("Mark a line {band} above the edge that stays, and a second one at each place."),
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
    steps.push("Press it from inside, up to the stitching and not over it.".into());
    steps
}
