//! The card of a hem: where to fold and where to cut, all round, in the order of the hand.

use super::at_the_edge::{Facing, FacingCut};
use super::input::ShortenedAt;
use super::judge::HemSums;
use super::regime::KeptEdge;
use super::told::{balance, off_words, stitched, turns_words};
use super::{AlteredHem, Cutting, Ring};
use crate::card::{Block, CardOf, Cell, Column, Emphasis, Hand, HasCard, Table, TableRow};
use crate::change::{ChangeKey, Drawn};
use crate::fitting::GarmentSide;
use crate::garment::{Garment, HemEdge, HemTurn};
use crate::judge::Subject;
use crate::length::{Length, Measure, Tape, Taught, Unit};
use crate::told::{Teller, capital};
use crate::work::Step;

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
        for (seam, _) in self.seams_that_move(of.subject) {
            let name = ChangeKey::Seam(seam).name(to.garment);
            blocks.push(Block::Text(format!(
                "Sew the {name} first: the hem goes across it, and its allowance mirrors the new line."
            )));
        }
        let cutting = self.cuts(of.subject);
        let mut first = Hand::default();
        self.marked_otherwise(to.garment, &mut first);
        if sums.len() > 1 && !first.is_empty() {
            blocks.push(std::mem::take(&mut first).block(ChangeKey::Hem(self.key()), cutting));
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
            say_turned(self, of.subject, sums, to, &mut first);
            blocks.push(std::mem::take(&mut first).block(ChangeKey::Hem(self.key()), self.cuts_of(sums)));
        }
        blocks
    }

    /// How it is marked where it drops or is carried.
    fn marked_otherwise(&self, garment: &Garment, hand: &mut Hand) {
        if self.drops(garment) {
            hand.say(
                Step::Hang,
                "Let it hang for a day and a night, on a hanger, then mark it anew from the floor.",
            );
        }
        if self.change.over_petticoat {
            hand.say(Step::Chalk, "Mark it on the body over what it is worn with; then measure down from the waist to every mark with it on a hanger.");
        }
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
    let mut hand = Hand::default();
    hand.say_all(
        Step::OpenUp,
        of.lining_to_open().map(|lining| format!("Open {lining}, and free it at the {seam}.")),
    );
    hand.say(
        Step::Unpick,
        format!("Unpick the {seam} seam; thread-trace the old line and its notches on the {piece}."),
    );
    hand.say(Step::Chalk, match at {
        ShortenedAt::Cap => format!(
            "Draw the whole cap anew {} {way} the old one, notches and all; its length along the seam must stay what it was.",
            to.show(off.abs())
        ),
        ShortenedAt::Waist | ShortenedAt::Edge => {
            format!("Draw the new seam line {} {way} the old one, all round, level with it.", to.show(off.abs()))
        }
    });
    hand.say(
        Step::Baste,
        "Take what is too wide there out in darts and seams, each by its own card, and baste.",
    );
    hand.say(Step::TryBasted, "Baste it on and try it on. Nothing is cut before.");
    hand.say(Step::Stitch, format!("Sew the {seam}."));
    if off > Length::ZERO {
        hand.say(Step::Cut, "Trim what stands above it to the old allowance.");
    }
    hand.say(Step::Press, format!("Press the {seam}, and put back what came off."));
    vec![
        Block::Text(format!("{} {}. The edge stays as it is.", capital(&off_words(off, to)), at.name())),
        Block::Table(table),
        hand.block(ChangeKey::Hem(hem.key()), hem.cuts(of.subject)),
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
    let mut hand = Hand::default();
    hand.say(Step::Chalk, format!("Mark its line, {from}; from the new edge {} up.", to.show(slit.height)));
    hand.say(Step::Baste, match slit.width {
        Length::ZERO => "Stitch round it close to the line, one stitch across at the top.".into(),
        _ => format!(
            "Stitch from {} beside the line at the edge up to a point at its top, and down the other side.",
            to.show(half)
        ),
    });
    hand.say(Step::TryBasted, "Try it on and walk before it is cut.");
    hand.say(
        Step::Cut,
        "Cut between the stitching right up to the point, turn both edges in, and bar the top by hand.",
    );
    let words = format!("{}, {} up from the new edge.", capital(slit.at.name()), to.show(slit.height));
    let steps = hand.block(ChangeKey::Hem(hem.key()), hem.cuts(of.subject));
    vec![Block::Heading("Slit".into()), Block::Line(words), steps]
}

/// The lining has a hem of its own.
fn lining(hem: &AlteredHem<'_>, of: &CardOf<'_>, off: Length, to: &Teller<'_>) -> Vec<Block> {
    let Some(lining) = hem.lining(of.subject, off) else { return Vec::new() };
    let mut words = format!("{} of the lining as well: {}.", capital(&off_words(off, to)), lining.words(to));
    if off == Length::ZERO {
        words = format!("{}.", capital(&lining.words(to)));
    }
    let cut = lining.cut_words(to).filter(|_| !lining.is_folded_up);
    let mut hand = Hand::default();
    hand.say_all(
        Step::LineIt,
        [
            "Let the outer hang, finished, and the lining inside it; mark its fold from the outer’s.".to_owned(),
            match lining.is_folded_up {
                true => "Fold up what is too long, inner turn first; nothing is cut.".into(),
                false => format!("Cut it {} below its fold, and turn it twice.", to.show(lining.turn)),
            },
            match (lining.is_free, hem.key()) {
                (true, _) => "Hem it by itself, and hold it to the outer at each seam with a thread chain.".into(),
                (false, HemEdge::Sleeve) => "Baste it, try it on, bend the arm; then slip-stitch, shallow, 1 cm apart at most.".into(),
                (false, _) => "Pin it with its slack in a fold, look at both hanging, then slip-stitch, shallow, 1 cm apart at most.".into(),
            },
        ],
    );
    let mut blocks = vec![Block::Heading("Lining".into()), Block::Line(words)];
    blocks.extend(cut.map(|cut| Block::Line(format!("{}.", capital(&cut)))));
    blocks.push(hand.block(ChangeKey::Hem(hem.key()), hem.cuts(of.subject)));
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

/// What the hand does where the edge is turned up, step by step of the plan.
fn say_turned(hem: &AlteredHem<'_>, subject: &Subject<'_>, sums: &HemSums, to: &Teller<'_>, hand: &mut Hand) {
    let lined = hem.is_lined(subject);
    if lined {
        hand.say(
            Step::OpenUp,
            "Open the lining from the outer along the whole hem, and keep it out of the scissors’ way.",
        );
    }
    // A facing or vent is folded back as deep as it is turned, twice: once with the hem, once over it.
    if let Some(what) = hem.opens(subject, sums) {
        hand.say(
            Step::OpenUp,
            format!(
                "Open {what} {} up from the new fold, twice what is turned up.",
                to.show(sums.allowance * 2)
            ),
        );
    }
    let begin = match hem.key() {
        HemEdge::Leg => "Begin at the inside leg, never on a thick crossing; trim or hammer the seams first.",
        HemEdge::Body | HemEdge::Sleeve => "Begin at a side or back seam, never on a thick crossing.",
    };
    if let Some(kept) = sums.kept {
        let band = to.show(kept.stitch[0]);
        hand.say(
            Step::Chalk,
            match sums.is_level() {
                true => {
                    format!(
                        "Mark two lines, {band} and {} above the edge that stays.",
                        to.show(kept.stitch[1])
                    )
                }
                false => {
                    format!("Mark a line {band} above the edge that stays, and a second one at each place.")
                }
            },
        );
        hand.say(Step::Baste, "Fold between them so that both lines meet, right sides together, and baste.");
        hand.say(Step::TryBasted, "Try it on. Nothing is cut before.");
        hand.say(Step::Stitch, stitched(HemTurn::Kept, lined, sums.by_hand));
        hand.say_all(Step::Stitch, [begin, "Thread matches the cloth, not the topstitching."]);
        hand.say(Step::Press, "Press the tuck up, from inside.");
        if AlteredHem::falls_off(sums, to.tape) {
            hand.say(
                Step::Cut,
                format!(
                    "Trim the tuck to {} and overcast it.",
                    to.show(to.tape.round(TRIMMED_TUCK.on(to.tape)))
                ),
            );
        }
        return;
    }
    if AlteredHem::is_unpicked(sums) {
        hand.say(Step::Unpick, "Unpick the old hem and press it out.");
    }
    let is_bound = sums.turn == HemTurn::Bound;
    let edge = if is_bound { "new edge" } else { "fold" };
    hand.say(
        Step::Chalk,
        match sums.is_level() {
            true => {
                let up = fold_and_cut(sums, sums.off[0], to.tape)[0];
                format!("Mark the {edge} all round, {} up.", to.show(up))
            }
            false => {
                format!(
                    "Mark the {edge} at each place, and join the marks with a smooth line, closed all round."
                )
            }
        },
    );
    let falls_off = AlteredHem::falls_off(sums, to.tape);
    hand.say(
        Step::Baste,
        match is_bound {
            true => "Baste or pin along the mark.",
            false => "Press the fold, and baste or pin it.",
        },
    );
    hand.say(
        Step::TryBasted,
        match hem.change.cutting {
            Cutting::First => "Pin it up at the marks and try it on, in the shoes it is worn with.",
            Cutting::AfterTryOn | Cutting::StitchThenTrim | Cutting::Never => {
                "Try it on, in the shoes it is worn with."
            }
        },
    );
    if falls_off && sums.is_cut {
        let scrap = "keep what falls off to test iron and stitch on";
        hand.say(
            Step::Cut,
            match is_bound {
                true => format!("Cut along the mark, all round; {scrap}."),
                false => format!("Cut {} below the fold, all round; {scrap}.", to.show(sums.allowance)),
            },
        );
    }
    hand.say_all(Step::Stitch, [stitched(sums.turn, lined, sums.by_hand), begin]);
    if falls_off && !sums.is_cut {
        hand.say(Step::Cut, "Trim what is left above the stitching.");
    }
    hand.say(Step::Press, "Press it from inside, up to the stitching and not over it.");
}
