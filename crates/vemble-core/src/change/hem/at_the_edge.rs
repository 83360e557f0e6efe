//! What lies at an edge or just above it: cuffs, vents, slits, pockets and zips; an edge that cannot be cut; and a facing for one that is too
//! full to be turned.

use super::input::{HemChange, ShortenedAt, SlitAt};
use super::judge::{Found, HemSums};
use super::marked::TakenAbove;
use super::scheme::{EASED_IN, PRESSED_IN};
use super::{AlteredHem, Ring};
use crate::change::Change;
use crate::change::seam::SeamChange;
use crate::fitting::{End, GarmentSide, How, Reading};
use crate::garment::{Closure, Dart, Garment, HemEdge, HemTurn, Lined, Opening, Pocket, Seam, SpecialEdge};
use crate::judge::{Finding, Outcome, Partner, Rule, Subject, girth_at};
use crate::length::{Length, Measure, Taught};
use crate::place::Level;

/// A vent shorter than this pulls open: 12 cm, 4 3/4 in (teaching value).
const LEAST_VENT: Taught = Taught::new(120, 304);
/// A slit ends at least so far below the hip: 10 cm, 4 in (teaching value: what is worn beneath stays unseen when sitting).
const BELOW_THE_HIP: Taught = Taught::new(100, 256);
/// So near under a pocket or a zip a hem catches it: 2 cm, 3/4 in (teaching value: a presser foot and its seam).
const NEAR: Taught = Taught::new(20, 48);
/// A facing is so deep when it is finished: 5 cm, 2 in; and is cut so much more: 0.6 and 1 cm, 1/4 and 3/8 in (teaching values).
const FACING: [Taught; 2] = [Taught::new(50, 128), Taught::new(16, 40)];
/// What the ends of a facing need to be joined: 3 cm, 1 1/4 in.
const JOINED: Taught = Taught::new(30, 80);
/// An opening that gets wider by more than this is seen: 2 cm, 3/4 in (teaching value).
const WIDER: Taught = Taught::new(20, 48);
/// A skirt that widens like half a circle or more drops while it hangs: in thousandths of its length, so much does its edge outgrow it
/// (teaching value: a half circle widens by π for each length).
const HALF_CIRCLE: i64 = 3_000;

/// What a hem comes too near to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Near {
    Pocket(Pocket),
    Zip(Opening),
    Knee,
}

/// A new slit.
#[derive(Clone, Copy, Debug)]
pub(crate) struct SlitSums {
    pub at: SlitAt,
    /// From the middle of the garment to its line; nothing at a side seam.
    pub from_centre: Option<Length>,
    /// Up from the new edge, and how wide it opens there.
    pub height: Length,
    pub width: Length,
    /// The dart that it was to stand under is not there.
    pub lacks_dart: bool,
    /// How high it may go at most, where it goes higher.
    pub at_most: Option<Length>,
    pub is_lined: bool,
}

/// How a facing is cut.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum FacingCut {
    /// The edge is straight.
    Straight,
    /// A bias strip follows a gentle curve; cut from a square with such a side.
    Bias { square: Length },
    /// Traced from the garment along its edge.
    Shaped,
}

/// A facing along an edge.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Facing {
    /// How long it is cut, joins and all.
    pub length: Length,
    /// How wide it is cut.
    pub width: Length,
    /// How deep it is when it is finished.
    pub depth: Length,
    pub cut: FacingCut,
}

impl AlteredHem<'_> {
    pub(super) fn at_the_edge(&self, subject: &Subject<'_>, sums: &HemSums) -> Vec<Finding> {
        let mut all: Vec<Finding> = Vec::new();
        all.extend(self.cuff_found(subject, sums));
        all.extend(self.uncuttable_found(subject, sums));
        all.extend(self.vent_found(subject, sums));
        all.extend(self.slit_found(subject, sums));
        all.extend(self.near_found(subject, sums));
        all
    }

    fn partner(&self, rule: Rule, partner: Partner, outcome: Outcome, found: Found) -> Finding {
        let mut finding = self.finding(rule, None, outcome, found);
        finding.key.partner = Some(partner);
        finding
    }

    fn cuff_found(&self, subject: &Subject<'_>, sums: &HemSums) -> Option<Finding> {
        let at_cuff = subject.garment.closures.iter().any(|c| c.at == Opening::Cuff);
        let off = sums.off[1];
        let is_shortened = self.key() == HemEdge::Sleeve && at_cuff && off > Length::ZERO;
        is_shortened.then(|| {
            self.partner(Rule::InTheWay, Partner::AtTheEdge, Outcome::Caution, Found::AtTheCuff { off })
        })
    }

    fn uncuttable_found(&self, subject: &Subject<'_>, sums: &HemSums) -> Option<Finding> {
        let (garment, off) = (subject.garment, sums.off[1]);
        let edge = garment.found.edge.filter(|edge| *edge != SpecialEdge::Plain && sums.kept.is_none())?;
        if self.key() == HemEdge::Sleeve || off <= Length::ZERO {
            return None;
        }
        let excess = self.excess_at_the_waist(subject, off);
        let outcome = if edge == SpecialEdge::Worn { Outcome::Caution } else { Outcome::Stop };
        let found = Found::Uncuttable { edge, off, excess };
        let at_the_waist = self.key() == HemEdge::Body && excess.is_some();
        Some(self.partner(Rule::InTheWay, Partner::TheEdge, outcome, found).mended(|| {
            self.with(|change| match at_the_waist && edge != SpecialEdge::Worn {
                true => change.shortened_at = ShortenedAt::Waist,
                false => (change.turn, change.turns) = (Some(HemTurn::Kept), Vec::new()),
            })
        }))
    }

    /// How much wider a skirt is where its new waist comes to lie, as its waist is told; nothing of legs, and where it has no waist.
    fn excess_at_the_waist(&self, subject: &Subject<'_>, off: Length) -> Option<Length> {
        let garment = subject.garment;
        let waist = garment.level(Level::Waist).filter(|_| !garment.has_legs())?;
        let there = subject.tape.round(garment.girth_above(Level::Waist, -off)?);
        Some(there - waist.width.on(subject.tape))
    }

    fn vent_found(&self, subject: &Subject<'_>, sums: &HemSums) -> Option<Finding> {
        let has = subject.tape.round(self.facts?.vent?.length);
        let left = has - sums.off[1];
        let outcome = if left >= LEAST_VENT.on(subject.tape) { Outcome::Passes } else { Outcome::Caution };
        let found = Found::Vent { has, off: sums.off[1], left };
        Some(self.partner(Rule::InTheWay, Partner::Vent, outcome, found))
    }

    /// The new slit on a tape, if one is wanted.
    pub(super) fn slit(&self, subject: &Subject<'_>, off: Length) -> Option<SlitSums> {
        let (slit, garment, tape) = (self.change.slit?, subject.garment, subject.tape);
        let height = tape.round(slit.height.length);
        let from = |dart: Dart| garment.darts.iter().find(|d| d.dart == dart).map(|d| d.from_centre.length);
        let under = |dart: Dart| from(dart).map(Some);
        // Between both of a side where there are two, else between left and right.
        let between = |dart: Dart| {
            let outer = dart.outer().and_then(from);
            from(dart)
                .map(|inner| outer.map_or(Length::ZERO, |outer| (inner + outer).fraction(1, 2)))
                .map(Some)
        };
        let place = match slit.at {
            SlitAt::CentreFront | SlitAt::CentreBack => Some(Some(Length::ZERO)),
            SlitAt::Sides => Some(None),
            SlitAt::UnderFrontDart => under(Dart::FrontWaist),
            SlitAt::UnderBackDart => under(Dart::BackWaist),
            SlitAt::BetweenFrontDarts => between(Dart::FrontWaist),
            SlitAt::BetweenBackDarts => between(Dart::BackWaist),
        };
        let hip = garment.level(Level::Hip).map(|l| tape.round(l.station.length));
        let at_most = hip.map(|hip| hip - BELOW_THE_HIP.on(tape) - off).filter(|most| height > *most);
        Some(SlitSums {
            at: slit.at,
            from_centre: place.flatten().map(|from| tape.round(from)),
            height,
            width: slit.width.map_or(Length::ZERO, |width| tape.round(width.length)),
            lacks_dart: place.is_none(),
            at_most,
            is_lined: garment.found.lined.is_some_and(|lined| lined != Lined::No),
        })
    }

    fn slit_found(&self, subject: &Subject<'_>, sums: &HemSums) -> Option<Finding> {
        let slit = self.slit(subject, sums.off[1])?;
        let outcome = match () {
            () if slit.lacks_dart => Outcome::Stop,
            () if slit.at_most.is_some() || slit.is_lined => Outcome::Caution,
            () => Outcome::Passes,
        };
        let at_most = slit.at_most.filter(|most| *most > Length::ZERO && !slit.is_lined);
        Some(self.partner(Rule::InTheWay, Partner::Slit, outcome, Found::Slit(slit)).mended(
            || match at_most {
                Some(most) => self.with(|change| {
                    if let Some(slit) = &mut change.slit {
                        slit.height.length = most;
                        slit.width = slit.width.filter(|width| width.length <= most);
                    }
                }),
                None => Vec::new(),
            },
        ))
    }

    /// Pockets and zips end about at the hip, and what is patched on a leg lies at its knee.
    fn near_found(&self, subject: &Subject<'_>, sums: &HemSums) -> Option<Finding> {
        let garment = subject.garment;
        let up = sums.off[1] + sums.turns.last().copied().unwrap_or_default() + NEAR.on(subject.tape);
        let reaches = |level: Level| {
            let of = garment.level(level)?.station.length - garment.level(self.level())?.station.length;
            (sums.off[1] > Length::ZERO && up >= subject.tape.round(of)).then_some(())
        };
        let near = match self.key() {
            HemEdge::Sleeve => None,
            HemEdge::Leg => reaches(Level::Knee).map(|()| Near::Knee),
            HemEdge::Body => {
                reaches(Level::Hip)?;
                let low = |p: &&Pocket| !matches!(p, Pocket::Breast | Pocket::BackPatch | Pocket::BackWelt);
                let pocket = garment.pockets.iter().find(low).map(|pocket| Near::Pocket(*pocket));
                let is_zip = |c: Closure| matches!(c, Closure::Zip | Closure::InvisibleZip);
                let zip = garment.closures.iter().find(|c| is_zip(c.closure)).map(|c| Near::Zip(c.at));
                pocket.or(zip)
            }
        }?;
        let found = Found::Near { near, up: up - NEAR.on(subject.tape) };
        Some(self.partner(Rule::InTheWay, Partner::AboveTheEdge, Outcome::Caution, found))
    }

    /// What drops while it hangs, and what is worn over something that carries it: both are marked in another way.
    pub(super) fn hangs_found(&self, subject: &Subject<'_>) -> Vec<Finding> {
        let mut all = Vec::new();
        if self.drops(subject.garment) {
            all.push(self.finding(Rule::Hang, None, Outcome::Caution, Found::Drops));
        }
        if self.change.over_petticoat {
            all.push(self.partner(Rule::Readings, Partner::Beneath, Outcome::Passes, Found::Beneath));
        }
        all
    }

    /// It is cut on the bias or in a circle: somebody said so, or it widens like one.
    pub(super) fn drops(&self, garment: &Garment) -> bool {
        let widens = || {
            let [hem, waist] = [Level::Hem, Level::Waist].map(|level| garment.level(level));
            let (hem, waist) = (hem?, waist?);
            let long = waist.station.length - hem.station.length;
            let more = hem.width.girth() - waist.width.girth();
            Some(long > Length::ZERO && more.nm() / (long.nm() / 1_000).max(1) >= HALF_CIRCLE)
        };
        let usual = || !garment.has_legs() && widens() == Some(true);
        self.key() == HemEdge::Body && garment.found.on_the_bias.unwrap_or_else(usual)
    }

    /// What is taken off at the waist or at the cap, and what that brings.
    pub(super) fn above_found(&self, subject: &Subject<'_>, above: TakenAbove) -> Finding {
        let (tape, garment) = (subject.tape, subject.garment);
        let off = tape.round(above.off);
        let excess = match above.at {
            ShortenedAt::Waist => self.excess_at_the_waist(subject, off),
            ShortenedAt::Edge | ShortenedAt::Cap => None,
        };
        let seam = match above.at {
            ShortenedAt::Cap => Seam::ArmholeSeam,
            ShortenedAt::Waist | ShortenedAt::Edge => Seam::WaistSeam,
        };
        let allowance = garment.seam(seam).map(|facts| facts.allowance_at(Length::ZERO, false, tape)[0]);
        let kept = tape.round(Taught::new(10, 24).on(tape));
        let has = allowance.map_or(Length::ZERO, |has| (has - kept).max(Length::ZERO));
        let is_short = -off > has;
        let outcome = match () {
            () if is_short => Outcome::Stop,
            () if off == Length::ZERO => Outcome::Passes,
            () => Outcome::Caution,
        };
        let has_zip =
            garment.closures.iter().any(|c| matches!(c.closure, Closure::Zip | Closure::InvisibleZip));
        let moves = super::judge::Moves { zip: has_zip, pockets: !garment.pockets.is_empty() };
        let found = Found::TakenAbove { at: above.at, off, excess, has: is_short.then_some(has), moves };
        self.finding(Rule::Capacity, None, outcome, found)
    }

    /// Shortened, a tapered leg or sleeve opens wider: whether that is to be taken back by a taper is for the sewist to say.
    pub(super) fn wider_found(&self, subject: &Subject<'_>, sums: &HemSums, ring: &Ring) -> Option<Finding> {
        let (tape, side) = (subject.tape, ring.side?);
        let up = ring.at_the_sides(tape);
        let before = subject.garment.level(self.level())?.width.on(tape);
        let after = girth_at(subject, self.level(), up, side)?;
        let wider = after - before;
        if up <= Length::ZERO || wider < super::marked::LEVEL_WITHIN.on(tape) || sums.kept.is_some() {
            return None;
        }
        let outcome = if wider > WIDER.on(tape) { Outcome::Caution } else { Outcome::Passes };
        let (seams, to) = match self.key() {
            HemEdge::Leg => (&[Seam::Outseam, Seam::Inseam][..], Level::Knee),
            HemEdge::Sleeve | HemEdge::Body => (&[Seam::SleeveSeam][..], Level::Elbow),
        };
        let per_edge = tape.round(wider.fraction(1, 2 * seams.len() as i64));
        let found = Found::Wider { before, after, per_edge, seams, to };
        let mut finding = self.finding(Rule::Opening, sums.side, outcome, found);
        finding.key.partner = Some(Partner::TheEdge);
        let is_free = |seam: &Seam| subject.seams().all(|altered| altered.facts.seam != *seam);
        let is_known = |seam: &Seam| subject.garment.station_on(*seam, to).is_some_and(|at| at > up);
        let offered = sums.side.is_none() && seams.iter().all(|seam| is_free(seam) && is_known(seam));
        Some(finding.mended(|| {
            let taper = |seam: &Seam| {
                let knee = subject.garment.station_on(*seam, to)?;
                let measure = |length| Measure { length, unit: tape.unit() };
                let pin = |side| Reading {
                    id: None,
                    side,
                    station: measure(up),
                    amount: measure(per_edge),
                    how: How::Fold,
                };
                let mut change = SeamChange::of(*seam);
                change.readings = GarmentSide::BOTH.map(pin).into();
                change.lower = Some(End::RunsOff {});
                change.upper = Some(End::MeetsOldStitching { station: measure(knee) });
                Some(Change::Seam(change))
            };
            if offered { seams.iter().filter_map(taper).collect() } else { Vec::new() }
        }))
    }

    /// A facing along the new edge, where it is faced.
    pub(super) fn facing(&self, subject: &Subject<'_>, sums: &HemSums, ring: &Ring) -> Option<Facing> {
        if sums.turn != HemTurn::Faced {
            return None;
        }
        let tape = subject.tape;
        let side = ring.side.unwrap_or(GarmentSide::Left);
        let girth = girth_at(subject, self.level(), ring.at_the_sides(tape), side)?;
        let [depth, more] = FACING.map(|taught| tape.round(taught.on(tape)));
        let (length, width) = (girth + JOINED.on(tape), depth + more);
        let percent = self.full(subject, ring, side, depth).map_or(0, super::judge::Fullness::percent);
        let cut = match percent {
            percent if percent <= PRESSED_IN => FacingCut::Straight,
            percent if percent <= EASED_IN => {
                // As large as the strip, joins lost at its corners: the usual way to cut bias from a square.
                let side = Length::from_cm((length.cm() * width.cm()).sqrt());
                FacingCut::Bias { square: side.up_to(tape.mark()) }
            }
            _ => FacingCut::Shaped,
        };
        Some(Facing { length: tape.round(length), width, depth, cut })
    }
}

/// A change with something else set.
impl AlteredHem<'_> {
    pub(super) fn with(&self, set: impl FnOnce(&mut HemChange)) -> Vec<Change> {
        let mut change = self.change.clone().into_owned();
        set(&mut change);
        vec![Change::Hem(change)]
    }
}
