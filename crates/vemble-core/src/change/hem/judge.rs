//! Hems: whether there is cloth, whether marks agree, how full the turned-up edge is, and what lies in its way.

use super::at_the_edge::{Near, SlitSums};
use super::input::ShortenedAt;
use super::lining::LiningHem;
use super::marked::{LEVEL_EXACTLY, hangs_from, length_of, spread};
use super::regime::{FACED, KeptEdge, Regime, regime};
use super::scheme::{Because, EASED_IN, PRESSED_IN, recommended, turns};
use super::{AlteredHem, Cutting};
use crate::change::{ChangeKey, Drawn};
use crate::fitting::{Around, GarmentSide, HemHow, HemMark, SidePolicy};
use crate::garment::{
    ClosureFacts, HemEdge, HemTurn, Lined, Opening, Seam, SpecialEdge, StitchedBy, Washed, Weight,
};
use crate::judge::{Finding, FindingKey, Judge, Outcome, Partner, Rule, Subject, girth_at};
use crate::length::{Length, Measure, Tape, Taught};
use crate::place::Level;
use crate::work::SewnBy;

/// Marks this far apart are a slope that is wanted or a misreading: 8 cm, 3 in (teaching value).
const FAR_APART: Taught = Taught::new(80, 192);
/// A single turn under a lining: 4 cm, 1 5/8 in (teaching value: its weight lets the edge hang).
const UNDER_A_LINING: Taught = Taught::new(40, 104);
/// A worn edge of which the stitching was not measured: 1.5 cm, 5/8 in.
const USUAL_BAND: Taught = Taught::new(15, 40);

/// What a hem comes to on a tape, on one of its edges: all of it at marks, so that what follows is plain arithmetic.
#[derive(Clone, Debug)]
pub(crate) struct HemSums {
    /// Which leg or sleeve; nothing where both are the same.
    pub side: Option<GarmentSide>,
    /// Least and greatest that is taken off around it.
    pub off: [Length; 2],
    pub turn: HemTurn,
    /// How it is best turned, and why.
    pub recommended: (HemTurn, Because),
    /// Its turns, inner first.
    pub turns: Vec<Length>,
    pub allowance: Length,
    /// Cloth folded up inside now.
    pub turn_up: Length,
    /// Where least and where most is taken off.
    pub regimes: [Regime; 2],
    /// The worn edge that stays, where most is taken off.
    pub kept: Option<KeptEdge>,
    /// Somebody cuts it, before or after it is turned up; else what is too much stays, or is trimmed above the stitching.
    pub is_cut: bool,
    pub cutting: Cutting,
    /// Nothing of the garment is left there.
    pub is_gone: bool,
    pub fullness: Option<Fullness>,
    /// It is sewn by hand.
    pub by_hand: bool,
}

impl HemSums {
    /// The same all round.
    pub fn is_level(&self) -> bool {
        self.off[0] == self.off[1]
    }

    /// All of the present hem lies below every new cut and falls away with it; else it is unpicked, and everything measured from the raw
    /// edge.
    pub fn is_cut_above(&self) -> bool {
        self.is_cut && self.regimes.iter().all(|r| matches!(r, Regime::AboveOldFold { falls_away: true, .. }))
    }

    /// What is missing where least is taken off.
    pub fn short(&self) -> Option<(Length, Length)> {
        match self.regimes[0] {
            Regime::Short { by, deepest } => Some((by, deepest)),
            Regime::AboveOldFold { .. } | Regime::FromTurnUp { .. } => None,
        }
    }
}

/// How full a turned-up edge is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Fullness {
    /// Round the edge that is turned up.
    pub edge: Length,
    /// Round where it comes to lie.
    pub landing: Length,
    /// How deep that is turned.
    pub depth: Length,
}

impl Fullness {
    /// How much longer the edge is, negative where it is shorter.
    pub fn excess(self) -> Length {
        self.edge - self.landing
    }

    /// In percent of where it lies, upwards.
    pub fn percent(self) -> i64 {
        let landing = self.landing.nm().max(1);
        (self.excess().nm() * 100).div_euclid(landing) + i64::from((self.excess().nm() * 100) % landing != 0)
    }
}

/// The figures that findings about a hem rest on.
#[derive(Clone, Debug)]
pub(crate) enum Found {
    /// Left and right, where both were marked: how far apart at most.
    Sides { apart: Option<Length>, undecided: bool },
    /// Marks of one edge that lie so far apart.
    Uneven { least: Length, most: Length, is_far: bool },
    /// A mark from the floor, and no height that is wanted.
    NoClearance,
    /// A mark read higher above the floor than the garment hangs.
    TooHigh { read: Length, hangs: Length },
    /// A mark at the inside of a leg, on an edge that goes round both: it is not counted.
    NoPlace,
    /// The upright reading differs from the one before it.
    BentOver { bent: Length, upright: Length },
    /// Whether the cloth reaches.
    Cloth(HemSums),
    /// What is let down shows its old fold.
    Crease { let_down: Length, shows: bool },
    /// How full the new edge is.
    Full { fullness: Fullness, is_pair: bool },
    /// A tuck behind the worn edge.
    Tuck { kept: KeptEdge, wider: Length, is_trimmed: bool },
    /// Two turns in heavy cloth.
    Heavy { turns: usize },
    /// What an unwashed garment loses of its length, and how much longer it is left for that.
    Shrinks { length: Length, percent: u8, loses: Length, longer: Length },
    /// A cuff's buttons, plackets or tabs within what is taken off.
    AtTheCuff { off: Length },
    /// An edge that cannot be cut.
    Uncuttable { edge: SpecialEdge, off: Length, excess: Option<Length> },
    /// A seam that moves at the edge of a hem, by how much on each edge at most.
    Crossed { hem: HemEdge, most: Length },
    /// The lining's own hem.
    Lining(LiningHem),
    /// What shortening leaves of a vent.
    Vent { has: Length, off: Length, left: Length },
    /// A new slit.
    Slit(SlitSums),
    /// What the turned-up hem reaches, `up` from the present edge.
    Near { near: Near, up: Length },
    /// A leg or sleeve opens wider where it is shortened; what a taper takes off each edge of these seams from there to that level.
    Wider { before: Length, after: Length, per_edge: Length, seams: &'static [Seam], to: Level },
    /// It drops while it hangs.
    Drops,
    /// It is worn over a petticoat or a hoop.
    Beneath,
    /// Taken off higher up; how far there is cloth to let down, where that is too little.
    TakenAbove { at: ShortenedAt, off: Length, excess: Option<Length>, has: Option<Length>, moves: Moves },
}

/// What moves along where a skirt is shortened at its waist.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Moves {
    pub zip: bool,
    pub pockets: bool,
}

impl Judge for AlteredHem<'_> {
    fn judge(&self, subject: &Subject<'_>) -> Vec<Finding> {
        let mut all: Vec<Finding> = self.marks_found(subject);
        if !self.is_altered() {
            return all;
        }
        all.extend(self.sides_found(subject));
        all.extend(self.hangs_found(subject));
        if let Some(above) = self.above {
            all.push(self.above_found(subject, above));
            all.extend(self.lining_found(subject, subject.tape.round(above.off)));
            return all;
        }
        all.extend(self.uneven(subject));
        let sums = self.sums(subject);
        for (sums, ring) in sums.iter().zip(&self.rings) {
            all.extend(self.wider_found(subject, sums, ring));
            all.push(self.cloth_found(subject, sums));
            all.extend(self.fullness_found(sums));
            all.extend(self.tuck_found(subject, sums));
        }
        let Some(first) = sums.first() else { return all };
        let off = first.off;
        all.extend(self.crease_found(subject, off[0]));
        all.extend(self.bulk_found(subject, first));
        all.extend(self.shrinkage_found(subject, off[1]));
        all.extend(self.at_the_edge(subject, first));
        all.extend(self.seams_that_move(subject).into_iter().map(|(seam, most)| {
            // Known by the seam that it is about.
            let about = FindingKey::about(Rule::Partners, ChangeKey::Seam(seam));
            let key = FindingKey { partner: Some(Partner::AtTheEdge), ..about };
            Finding::new(key, Outcome::Passes, Found::Crossed { hem: self.key(), most })
        }));
        all.extend(self.lining_found(subject, off[1]));
        all
    }
}

impl AlteredHem<'_> {
    pub(super) fn finding(
        &self,
        rule: Rule,
        side: Option<GarmentSide>,
        outcome: Outcome,
        found: Found,
    ) -> Finding {
        let key = FindingKey { side, ..FindingKey::about(rule, ChangeKey::Hem(self.key())) };
        Finding::new(key, outcome, found)
    }

    pub(super) fn is_lined(&self, subject: &Subject<'_>) -> bool {
        subject.garment.found.lined.is_some_and(|lined| lined != Lined::No)
    }

    /// What it comes to on each edge, one for both where they are the same.
    pub(crate) fn sums(&self, subject: &Subject<'_>) -> Vec<HemSums> {
        let agree = self.sides_agree();
        let rings = self.rings.iter().take(if agree { 1 } else { 2 });
        rings.map(|ring| self.sums_of(subject, ring, if agree { None } else { ring.side })).collect()
    }

    fn sums_of(&self, subject: &Subject<'_>, ring: &super::Ring, side: Option<GarmentSide>) -> HemSums {
        let tape = subject.tape;
        let of = ring.side.unwrap_or(GarmentSide::Left);
        let off = ring.range(tape);
        let turn_up = self.facts.map_or(Length::ZERO, |f| tape.round(f.turn_up.length));
        let visible = self.facts.map_or(Length::ZERO, |f| tape.round(f.shows())).min(turn_up);
        let as_found = self.facts.map(|f| f.turn);
        // Turned as it is now: what is recommended follows from how full that would be.
        let usual = match as_found {
            Some(HemTurn::Kept | HemTurn::Bound | HemTurn::Faced | HemTurn::Band) | None => HemTurn::Double,
            Some(turn) => turn,
        };
        let deep = turns(usual, &[], tape).last().copied().unwrap_or_default();
        let keeps_edge = subject.garment.found.edge == Some(SpecialEdge::Worn)
            && off[0] > Length::ZERO
            && self.key() != HemEdge::Sleeve;
        let may_show = self.change.may_show.unwrap_or_else(|| {
            self.facts.is_none_or(|f| f.by == StitchedBy::Machine && f.turn != HemTurn::Blind)
        });
        let percent = self.full(subject, ring, of, deep).map_or(0, Fullness::percent);
        let recommended =
            recommended(&subject.garment.cloth, percent, keeps_edge, self.is_lined(subject), may_show, usual);
        let turn = self.change.turn.unwrap_or(recommended.0);
        let own: Vec<Length> = self.change.turns.iter().map(|m| m.length).collect();
        let turns = match self.facts.filter(|f| f.turn == turn && own.is_empty() && !f.assumed) {
            // Turned again as it was, where nothing is let down: as deep as it was.
            Some(_) if turn_up > Length::ZERO && !off[0].is_negative() && turn != HemTurn::Cuff => {
                [turn_up - visible, visible].into_iter().filter(|turn| *turn > Length::ZERO).collect()
            }
            None if turn == HemTurn::SingleFinished && own.is_empty() && self.is_lined(subject) => {
                vec![tape.round(UNDER_A_LINING.on(tape))]
            }
            // What is typed there is how far above the edge the tuck lies.
            _ if turn == HemTurn::Kept => Vec::new(),
            _ => turns(turn, &own, tape),
        };
        let allowance = turns.iter().copied().sum();
        let kept = (turn == HemTurn::Kept && off[0] > Length::ZERO).then(|| {
            let usual = if visible > Length::ZERO { visible } else { tape.round(USUAL_BAND.on(tape)) };
            let band = own.first().map_or(usual, |band| tape.round(*band));
            KeptEdge::of(off[1], band).on(tape)
        });
        let (outer, cutting) = (turns.last().copied().unwrap_or_default(), self.change.cutting);
        // As somebody wants it, else by how it is turned: blind, and under a lining, by hand; or as it was.
        let by_hand = match subject.schools.hem {
            Some(by) => by == SewnBy::Hand,
            None => turn == HemTurn::Blind || turn == HemTurn::SingleFinished && self.is_lined(subject),
        };
        HemSums {
            side,
            off,
            turn,
            recommended,
            allowance,
            turn_up,
            // An edge that is bound ends where it is bound.
            is_cut: kept.is_none()
                && (turn == HemTurn::Bound || matches!(cutting, Cutting::AfterTryOn | Cutting::First)),
            cutting,
            is_gone: length_of(subject.garment, self.key())
                .is_some_and(|length| off[1] >= tape.round(length)),
            regimes: off.map(|off| regime(turn_up, visible, off, allowance)),
            kept,
            by_hand,
            fullness: self.full(subject, ring, of, outer).filter(|_| kept.is_none() && outer > Length::ZERO),
            turns,
        }
    }

    /// What of its facings and vent is opened to turn it up: as deep as that, twice.
    pub(crate) fn opens(&self, subject: &Subject<'_>, sums: &HemSums) -> Option<&'static str> {
        let has_vent = self.facts.is_some_and(|facts| facts.vent.is_some());
        let opens = |c: &ClosureFacts| c.at == Opening::CentreFront;
        let has_facings = self.key() == HemEdge::Body
            && self.is_lined(subject)
            && subject.garment.closures.iter().any(opens);
        match (has_facings, has_vent) {
            _ if sums.kept.is_some() || sums.allowance == Length::ZERO => None,
            (true, true) => Some("the front facings and the vent"),
            (true, false) => Some("the front facings"),
            (false, true) => Some("the vent"),
            (false, false) => None,
        }
    }

    /// The old hem is unpicked and pressed out before it is marked.
    pub(crate) fn is_unpicked(sums: &HemSums) -> bool {
        sums.kept.is_none() && !sums.is_cut_above() && sums.turn_up > Length::ZERO
    }

    /// Cloth falls off along one of its edges: what lies below the new allowance, what stands above the stitching, or a tuck that is too deep.
    pub(crate) fn falls_off(sums: &HemSums, tape: Tape) -> bool {
        let nothing = sums.regimes.iter().all(|r| matches!(r, Regime::FromTurnUp { cut: Length::ZERO }));
        match sums.kept {
            Some(kept) => kept.is_trimmed(tape),
            None => {
                let has_more = sums.short().is_none() && !nothing;
                has_more && (sums.is_cut || sums.cutting == Cutting::StitchThenTrim)
            }
        }
    }

    /// When cloth is cut: a tuck behind an edge that stays, and what stands above a seam, is trimmed once it is stitched.
    pub(crate) fn cuts(&self, subject: &Subject<'_>) -> Cutting {
        let all = self.sums(subject);
        all.iter()
            .map(|sums| self.cuts_of(sums))
            .max()
            .filter(|_| self.above.is_none())
            .unwrap_or(Cutting::StitchThenTrim)
    }

    /// The same for one of its edges.
    pub(super) fn cuts_of(&self, sums: &HemSums) -> Cutting {
        match self.change.cutting {
            _ if sums.kept.is_some() => Cutting::StitchThenTrim,
            // What is bound ends at its cut edge.
            Cutting::StitchThenTrim | Cutting::Never if sums.turn == HemTurn::Bound => Cutting::AfterTryOn,
            own @ (Cutting::AfterTryOn | Cutting::First | Cutting::StitchThenTrim | Cutting::Never) => own,
        }
    }

    /// How full the edge is when it is turned so deep, at its sides.
    pub(super) fn full(
        &self,
        subject: &Subject<'_>,
        ring: &super::Ring,
        side: GarmentSide,
        depth: Length,
    ) -> Option<Fullness> {
        let off = ring.at_the_sides(subject.tape);
        let at = |up: Length| girth_at(subject, self.level(), up, side);
        Some(Fullness { edge: at(off - depth)?, landing: at(off + depth)?, depth })
    }

    fn marks_found(&self, subject: &Subject<'_>) -> Vec<Finding> {
        let tape = subject.tape;
        let mut all = Vec::new();
        if self.lacks_clearance {
            all.push(self.finding(Rule::Marks, None, Outcome::Stop, Found::NoClearance));
        }
        // What is read higher above the floor than it hangs is a slip of the tape.
        let hangs = Length::from_cm(hangs_from(subject.garment, subject.wearer));
        let too_high = |mark: &&&HemMark| {
            mark.how == HemHow::FromFloor && mark.again.unwrap_or(mark.amount).length >= hangs
        };
        if let Some(mark) = self.marks.iter().find(too_high) {
            let read = tape.round(mark.again.unwrap_or(mark.amount).length);
            let found = Found::TooHigh { read, hangs: tape.round(hangs) };
            let mut finding = self.finding(Rule::Marks, None, Outcome::Stop, found);
            finding.key.partner = Some(Partner::AboveTheEdge);
            all.push(finding);
        }
        if !self.is_pair() && self.marks.iter().any(|mark| mark.around == Around::Inside) {
            let mut finding = self.finding(Rule::Marks, None, Outcome::Caution, Found::NoPlace);
            finding.key.partner = Some(Partner::TheEdge);
            all.push(finding);
        }
        let apart =
            |mark: &&HemMark| (tape.round(mark.amount.length), mark.again.map(|m| tape.round(m.length)));
        let most = self.marks.iter().map(apart).filter_map(|(bent, upright)| Some((bent, upright?)));
        let most = most
            .filter(|(bent, upright)| bent != upright)
            .max_by_key(|(bent, upright)| (*bent - *upright).abs());
        if let Some((bent, upright)) = most {
            all.push(self.finding(Rule::Readings, None, Outcome::Passes, Found::BentOver { bent, upright }));
        }
        all
    }

    fn sides_found(&self, subject: &Subject<'_>) -> Option<Finding> {
        if self.apart.is_none() && !self.undecided {
            return None;
        }
        let outcome = if self.undecided { Outcome::Stop } else { Outcome::Passes };
        let apart = self.apart.map(|apart| subject.tape.round(apart));
        let found =
            self.finding(Rule::Sides, None, outcome, Found::Sides { apart, undecided: self.undecided });
        let explained =
            subject.wearer.explains_a_difference(subject.limb_of(ChangeKey::Hem(self.key()))).is_some();
        Some(found.mended(|| match explained {
            true => self.with(|change| change.sides = Some(SidePolicy::KeepEach)),
            false => Vec::new(),
        }))
    }

    /// Marks of one edge that do not agree: whether the slope is wanted is for the sewist to say.
    fn uneven(&self, subject: &Subject<'_>) -> Option<Finding> {
        let uneven = self.rings.iter().max_by_key(|ring| spread(&ring.places))?;
        if spread(&uneven.places) <= LEVEL_EXACTLY {
            return None;
        }
        let offs = || uneven.places.iter().map(|place| subject.tape.round(place.off));
        let (least, most) = (offs().min()?, offs().max()?);
        let is_far = most - least >= FAR_APART.on(subject.tape);
        let outcome = match self.change.shape {
            None => Outcome::Stop,
            Some(_) if is_far => Outcome::Caution,
            Some(_) => Outcome::Passes,
        };
        Some(self.finding(Rule::Level, None, outcome, Found::Uneven { least, most, is_far }))
    }

    fn cloth_found(&self, subject: &Subject<'_>, sums: &HemSums) -> Finding {
        // A worn edge can only be taken up: the tuck behind it is what is too long.
        let is_let_down = sums.turn == HemTurn::Kept && sums.kept.is_none();
        let reaches = sums.short().is_none() || sums.kept.is_some();
        let outcome = if reaches && !is_let_down && !sums.is_gone { Outcome::Passes } else { Outcome::Stop };
        let found = self.finding(Rule::Capacity, sums.side, outcome, Found::Cloth(sums.clone()));
        // The deepest narrower scheme that there is cloth for; bound, where there is none.
        found.mended(|| {
            if sums.is_gone {
                return Vec::new();
            }
            if is_let_down {
                return self.with(|change| change.turn = None);
            }
            let Some((_, deepest)) = sums.short() else { return Vec::new() };
            let tape = subject.tape;
            let depth = |turn: HemTurn| turns(turn, &[], tape).into_iter().sum::<Length>();
            let smaller = [HemTurn::Double, HemTurn::NarrowDouble, HemTurn::Faced, HemTurn::Bound];
            let fits = smaller.into_iter().find(|turn| {
                let least = if *turn == HemTurn::Faced { FACED.on(tape) } else { depth(*turn) };
                depth(*turn).max(least) <= deepest
            });
            let let_down_too_far = sums.turn_up + sums.off[0] < Length::ZERO;
            match fits.filter(|_| !let_down_too_far) {
                Some(turn) => self.with(|change| {
                    change.turn = Some(turn);
                    change.turns = Vec::new();
                }),
                None => Vec::new(),
            }
        })
    }

    fn crease_found(&self, subject: &Subject<'_>, least: Length) -> Option<Finding> {
        let shows = subject.garment.cloth.shows_holes || subject.garment.found.washed == Some(Washed::Often);
        let outcome = if shows { Outcome::Caution } else { Outcome::Passes };
        let found = Found::Crease { let_down: -least, shows };
        least.is_negative().then(|| self.finding(Rule::Crease, None, outcome, found))
    }

    fn fullness_found(&self, sums: &HemSums) -> Option<Finding> {
        let fullness = sums.fullness.filter(|f| f.excess() != Length::ZERO)?;
        let outcome = if fullness.percent() <= EASED_IN { Outcome::Passes } else { Outcome::Caution };
        let is_pair = self.is_pair();
        let narrower = sums.turn != HemTurn::Faced && sums.turn != HemTurn::NarrowDouble;
        let found = self.finding(Rule::Fullness, sums.side, outcome, Found::Full { fullness, is_pair });
        Some(found.mended(|| match narrower {
            true => self.with(|change| {
                change.turn = Some(HemTurn::Faced);
                change.turns = Vec::new();
            }),
            false => Vec::new(),
        }))
    }

    /// The leg where the tuck is stitched may be wider than the band that stays.
    fn tuck_found(&self, subject: &Subject<'_>, sums: &HemSums) -> Option<Finding> {
        let kept = sums.kept?;
        let side = sums.side.unwrap_or(GarmentSide::Left);
        let at = |up: Length| girth_at(subject, self.level(), up, side);
        let wider = at(kept.stitch[1]).zip(at(kept.stitch[0])).map_or(Length::ZERO, |(up, down)| up - down);
        let is_trimmed = kept.is_trimmed(subject.tape);
        let eases = wider.abs() <= super::marked::LEVEL_WITHIN.on(subject.tape);
        let outcome = if eases { Outcome::Passes } else { Outcome::Caution };
        Some(self.finding(Rule::Kept, sums.side, outcome, Found::Tuck { kept, wider, is_trimmed }))
    }

    fn bulk_found(&self, subject: &Subject<'_>, sums: &HemSums) -> Option<Finding> {
        let heavy = subject.garment.cloth.weight == Weight::Heavy && sums.turns.len() > 1;
        heavy.then(|| {
            let found = Found::Heavy { turns: sums.turns.len() };
            self.finding(Rule::Bulk, None, Outcome::Caution, found).mended(|| {
                self.with(|change| {
                    change.turn = Some(HemTurn::SingleFinished);
                    change.turns = Vec::new();
                })
            })
        })
    }

    fn shrinkage_found(&self, subject: &Subject<'_>, off: Length) -> Option<Finding> {
        let garment = subject.garment;
        let percent = garment.cloth.shrinks_along_percent;
        let washed = matches!(garment.found.washed, Some(Washed::Once | Washed::Often));
        let tape = subject.tape;
        let longer = self.change.longer_by.map_or(Length::ZERO, |m| tape.round(m.length));
        let wanted = tape.round(length_of(garment, self.key())?) - off - longer;
        // So much longer that what is left after washing is what is wanted.
        let loses = tape.round(wanted.fraction(i64::from(percent), 100 - i64::from(percent.min(50))));
        let found = Found::Shrinks { length: wanted + loses, percent, loses, longer };
        let outcome = if longer >= loses { Outcome::Passes } else { Outcome::Caution };
        let is_asked = percent > 0 && !washed && loses > Length::ZERO;
        is_asked.then(|| {
            self.finding(Rule::Shrinkage, None, outcome, found).mended(|| {
                let longer = Measure { length: loses, unit: tape.unit() };
                self.with(|change| change.longer_by = Some(longer))
            })
        })
    }

    /// Seams that are altered at this edge, with the most that is taken there on either edge.
    pub(super) fn seams_that_move(&self, subject: &Subject<'_>) -> Vec<(Seam, Length)> {
        let at_the_edge = |seam: &crate::change::seam::AlteredSeam<'_>| {
            let chalked = |side: GarmentSide| {
                let edges =
                    seam.chalked_at(subject.garment, self.level(), Length::ZERO, side, subject.tape)?;
                Some(edges.deepest())
            };
            let most = GarmentSide::BOTH.into_iter().filter_map(chalked).max()?;
            (most != Length::ZERO).then_some((seam.facts.seam, most))
        };
        subject.seams().filter_map(at_the_edge).collect()
    }
}

/// Pressed in, eased in, or too full for either.
pub(super) const fn lies_flat_by(percent: i64) -> &'static str {
    if percent <= PRESSED_IN {
        "press it in with steam"
    } else if percent <= EASED_IN {
        "run an ease-stitch along its edge and draw it up"
    } else {
        "turn a narrower hem, take small darts in what is turned up, or sew on a shaped facing"
    }
}
