//! Heights and lengths in the next state: what lies above a line across comes down by what is taken out there, and what ends at a seam is cut off where that is
//! sewn anew.

use super::next_state::{typed, width};
use crate::change::armhole::Flat;
use crate::change::seam::AlteredSeam;
use crate::change::trunk::{AlteredTrunk, TrunkAt};
use crate::fitting::GarmentSide;
use crate::garment::{AT_ARMHOLE, AT_SHOULDER, Garment, PANEL, PRINCESS, SLOPE, Seam, SeamFacts};
use crate::length::{Length, Measure, Station, Tape};
use crate::place::Level;

/// A yoke seam is crossed so far below the upper end of another, in cm: about as far as it is drawn.
const BELOW_TOP: f64 = 6.0;
/// One behind ends so far up the armhole, as a share of that.
const YOKE_AT_ARMHOLE: f64 = 0.75;

/// What is taken out across the trunk, from the middle in front to the middle behind.
struct TakenOut<'a> {
    /// From the waist on up; only above it otherwise.
    at_waist: bool,
    /// At a share of the way round, at a mark.
    at: &'a dyn Fn(f64) -> Length,
    tape: Tape,
}

impl TakenOut<'_> {
    /// Levels come down by it, as at the side, and the seams that run down through it are shorter by it, each where it lies.
    fn lower(&self, garment: &mut Garment) {
        let Some(waist) = garment.level(Level::Waist).map(|l| l.station.length) else { return };
        let side = (self.at)(0.5);
        let moves = |station: Length| if self.at_waist { station >= waist } else { station > waist };
        for level in garment.levels.iter_mut().filter(|l| !l.level.is_of_sleeve() && moves(l.station.length))
        {
            level.station = typed((level.station.length - side).max(Length::ZERO), self.tape);
        }
        // One that ends at the waist is none of what is taken out above that.
        let goes_through = |seam: Seam| self.at_waist || garment.span_of(seam).1 < Level::Waist;
        let through: Vec<bool> = garment.seams.iter().map(|facts| goes_through(facts.seam)).collect();
        for (facts, _) in garment.seams.iter_mut().zip(through).filter(|(_, through)| *through) {
            let by = place_of(facts.seam).map(self.at).unwrap_or_default();
            shorten(facts, by, moves, self.tape);
        }
    }
}

/// A seam ends sooner: what lies along it where it moves comes down with its end, and nothing lies beyond that.
fn shorten(facts: &mut SeamFacts, by: Length, moves: impl Fn(Length) -> bool, tape: Tape) {
    if by == Length::ZERO {
        return;
    }
    facts.length = typed((tape.round(facts.length.length) - by).max(tape.mark()), tape);
    let end = facts.end();
    let lies = |m: Measure| typed((if moves(m.length) { m.length - by } else { m.length }).min(end), tape);
    facts.in_the_way.iter_mut().for_each(|thing| (thing.from, thing.to) = (lies(thing.from), lies(thing.to)));
    facts.in_the_way.retain(|thing| thing.from.length < thing.to.length);
    facts.along.iter_mut().for_each(|at| at.station = lies(at.station));
    facts.along.dedup_by_key(|at| at.station.length);
}

/// Where a seam that runs down the trunk lies: the share of the way from the middle in front to the middle behind. Nothing of what runs across, or not up to the
/// waist.
const fn place_of(seam: Seam) -> Option<f64> {
    match seam {
        Seam::CentreFront | Seam::FrontRise => Some(0.0),
        Seam::PrincessFront => Some(PRINCESS / 2.0),
        Seam::PanelFront => Some(PANEL / 2.0),
        Seam::SideSeam | Seam::Outseam => Some(0.5),
        Seam::PanelBack => Some(1.0 - PANEL / 2.0),
        Seam::PrincessBack => Some(1.0 - PRINCESS / 2.0),
        Seam::CentreBack | Seam::SeatSeam => Some(1.0),
        Seam::Inseam | Seam::ShoulderSeam | Seam::ArmholeSeam | Seam::SleeveSeam => None,
        Seam::SleeveBackSeam | Seam::YokeSeam | Seam::WaistSeam | Seam::NeckSeam => None,
    }
}

/// Waist darts begin at the line and are shorter by it, halfway to the side.
fn shorten_darts(garment: &mut Garment, at: &dyn Fn(f64) -> Length, tape: Tape) {
    for facts in garment.darts.iter_mut().filter(|facts| facts.dart.is_at_the_waist()) {
        let by = at(if facts.dart.is_in_front() { 0.25 } else { 0.75 });
        facts.length = typed((tape.round(facts.length.length) - by).max(tape.mark()), tape);
    }
}

/// A length of the trunk: what lies above the line comes down, with the seams and darts that end in it; a rise is lower at its upper edge.
pub(super) fn shorten_trunk(garment: &mut Garment, trunk: &AlteredTrunk<'_>, tape: Tape) {
    let (sums, is_rise) = (trunk.sums(tape), trunk.key() == TrunkAt::Rise);
    let at = |share: f64| trunk.takes_at(share, tape);
    TakenOut { at_waist: is_rise, at: &at, tape }.lower(garment);
    // What comes off the bodice lies in the waist seam; what it was let down by came out of it.
    let waist = garment.seams.iter_mut().find(|facts| facts.seam == Seam::WaistSeam && !is_rise);
    if let Some(facts) = waist {
        let least = sums.all().into_iter().min().unwrap_or_default();
        let below = facts.allowance_back.unwrap_or(facts.allowance);
        facts.allowance = typed((tape.round(facts.allowance.length) + least).max(Length::ZERO), tape);
        facts.allowance_back = Some(below).filter(|below| below.length != facts.allowance.length);
    }
    shorten_darts(garment, &at, tape);
}

/// What goes off a seam, on its first edge and on its other: of two sides, or halves, that differ what lies between.
struct Off<'a> {
    seam: &'a AlteredSeam<'a>,
    tape: Tape,
}

impl Off<'_> {
    /// At a share of the way along it, at marks.
    fn edges(&self, share: f64) -> [Length; 2] {
        let station = Station(Length::from_cm(self.seam.facts.end().cm() * share));
        let of = |side| self.seam.line(side).chalked(station, self.tape).unwrap_or_default();
        let [left, right] = GarmentSide::BOTH.map(of);
        [left.front.0 + right.front.0, left.back.0 + right.back.0]
            .map(|both| self.tape.round(both.fraction(1, 2)))
    }

    /// On its first edge, as the line is drawn, in cm.
    fn first(&self, share: f64) -> f64 {
        let station = self.seam.facts.end().cm() * share;
        GarmentSide::BOTH.iter().map(|side| self.seam.line(*side).front.at(station) / 2.0).sum()
    }

    fn both(&self, share: f64) -> Length {
        self.edges(share).into_iter().sum()
    }
}

/// What ends at a seam, or lies above it, once so much went off its edges: everything beside it stays as it lies, and is cut off where the new line crosses it.
pub(super) fn follow_seam(garment: &mut Garment, seam: &AlteredSeam<'_>, tape: Tape) {
    let off = Off { seam, tape };
    let sooner: Vec<(Seam, Length)> = match seam.facts.seam {
        Seam::SideSeam | Seam::Outseam if garment.hangs_from_shoulders() => {
            vec![(Seam::ArmholeSeam, off.both(1.0))]
        }
        own @ (Seam::PanelFront | Seam::PanelBack) if ends_in_armhole(garment, own) => {
            // It meets the armhole aslant.
            let slants = Flat::of(garment).map_or(1.0, |flat| flat.way_at(AT_ARMHOLE).x.abs());
            vec![(Seam::ArmholeSeam, tape.round(Length::from_cm(off.both(1.0).cm() / slants)))]
        }
        // Of one face: what a seam has that joins it to another lies between both.
        Seam::PrincessFront | Seam::PrincessBack if garment.span_of(seam.facts.seam).1 < Level::Bust => {
            vec![(Seam::ShoulderSeam, off.both(1.0).fraction(1, 2))]
        }
        Seam::FrontRise | Seam::SeatSeam => vec![(Seam::Inseam, off.both(0.0).fraction(1, 4))],
        Seam::Inseam => {
            let [front, back] = off.edges(1.0);
            vec![(Seam::FrontRise, front), (Seam::SeatSeam, back)]
        }
        Seam::NeckSeam => {
            let shoulder = garment.share_in_front(Seam::NeckSeam);
            let ends = [(Seam::CentreFront, 0.0), (Seam::ShoulderSeam, shoulder), (Seam::CentreBack, 1.0)];
            ends.map(|(seam, share)| (seam, off.edges(share)[1])).to_vec()
        }
        Seam::ShoulderSeam => {
            lower_shoulder(garment, &off);
            let [front, back] = off.edges(AT_SHOULDER);
            let panels = [(Seam::PrincessFront, front), (Seam::PrincessBack, back)];
            let there = panels.into_iter().filter(|(seam, _)| garment.span_of(*seam).1 < Level::Bust);
            there.chain([(Seam::ArmholeSeam, off.both(1.0))]).collect()
        }
        Seam::ArmholeSeam => follow_armhole(garment, &off),
        Seam::WaistSeam => {
            lower_above_waist(garment, &off);
            Vec::new()
        }
        // Of legs it shortens one edge of the outseam.
        Seam::YokeSeam if garment.has_yoke_behind() => vec![
            (Seam::Outseam, off.both(0.5).fraction(1, 2)),
            (Seam::ArmholeSeam, off.both(0.5)),
            (Seam::SeatSeam, off.both(1.0)),
            (Seam::CentreBack, off.both(1.0)),
        ],
        Seam::YokeSeam => {
            TakenOut { at_waist: true, at: &|share| off.both(share), tape }.lower(garment);
            Vec::new()
        }
        Seam::SideSeam | Seam::Outseam | Seam::PanelFront | Seam::PanelBack => Vec::new(),
        Seam::PrincessFront | Seam::PrincessBack | Seam::CentreFront | Seam::CentreBack => Vec::new(),
        Seam::SleeveSeam | Seam::SleeveBackSeam => Vec::new(),
    };
    for (seam, by) in sooner.into_iter().chain(across_yoke(garment, &off)) {
        if let Some(facts) = garment.seams.iter_mut().find(|facts| facts.seam == seam) {
            shorten(facts, tape.round(by), |_| false, tape);
        }
    }
}

/// What a yoke seam loses where another crosses it: one behind, from side to side, and one all round, of which half is measured.
fn across_yoke(garment: &Garment, off: &Off<'_>) -> Option<(Seam, Length)> {
    let end = off.seam.facts.end().cm();
    let [front, back] = off.edges(((end - BELOW_TOP) / end).max(0.0));
    let (seam, both) = (off.seam.facts.seam, front + back);
    let by = match garment.has_yoke_behind() {
        true if matches!(seam, Seam::SeatSeam | Seam::CentreBack) => both,
        true if seam == Seam::Outseam => back * 2,
        false if seam == Seam::SideSeam => both,
        false if matches!(seam, Seam::CentreFront | Seam::CentreBack) => both.fraction(1, 2),
        true | false => return None,
    };
    Some((Seam::YokeSeam, by))
}

/// A panel seam of a bodice; those of legs end at the waist.
fn ends_in_armhole(garment: &Garment, seam: Seam) -> bool {
    garment.hangs_from_shoulders() && garment.span_of(seam).1 < Level::Waist
}

/// What is above a waist seam comes down by what goes off both its edges, the waist by what goes off the lower one, and so does what ends there.
fn lower_above_waist(garment: &mut Garment, off: &Off<'_>) {
    let tape = off.tape;
    let ends_there = |seam: Seam| garment.span_of(seam).1 == Level::Waist;
    let below: Vec<Seam> = garment.seams.iter().map(|f| f.seam).filter(|seam| ends_there(*seam)).collect();
    for facts in garment.seams.iter_mut().filter(|facts| below.contains(&facts.seam)) {
        let by = place_of(facts.seam).map_or(Length::ZERO, |share| off.edges(share)[1]);
        shorten(facts, by, |_| false, tape);
    }
    TakenOut { at_waist: false, at: &|share| off.both(share), tape }.lower(garment);
    for level in garment.levels.iter_mut().filter(|l| l.level == Level::Waist) {
        level.station = typed((level.station.length - off.edges(0.5)[1]).max(Length::ZERO), tape);
    }
    // They lie in the bodice.
    shorten_darts(garment, &|share| off.edges(share)[0], tape);
}

/// Neck and shoulders come down by what lies between what goes off both edges.
fn lower_shoulder(garment: &mut Garment, off: &Off<'_>) {
    for (level, share) in [(Level::Neck, 0.0), (Level::Shoulder, 1.0)] {
        let by = off.both(share).fraction(1, 2);
        for level in garment.levels.iter_mut().filter(|l| l.level == level) {
            level.station = typed(off.tape.round(level.station.length - by).max(Length::ZERO), off.tape);
        }
    }
}

/// An armhole that is sewn further in is longer and lies nearer the middle; by how much each seam that ends in it is shorter.
fn follow_armhole(garment: &mut Garment, off: &Off<'_>) -> Vec<(Seam, Length)> {
    let (tape, [under, sleeve]) = (off.tape, off.edges(0.0));
    let tip = off.edges(1.0)[0];
    let mut sooner = vec![
        (garment.side_seam(), under),
        (Seam::ShoulderSeam, tip),
        (Seam::SleeveSeam, sleeve),
        // It ends there on both sides, most of the way up.
        (Seam::YokeSeam, off.edges(YOKE_AT_ARMHOLE)[0] * 2),
    ];
    if let Some(flat) = Flat::of(garment) {
        let aslant = off.edges(AT_ARMHOLE)[0].cm() / flat.way_at(AT_ARMHOLE).x.abs();
        let panels = [Seam::PanelFront, Seam::PanelBack].into_iter();
        let panels = panels.filter(|seam| ends_in_armhole(garment, *seam));
        sooner.extend(panels.map(|seam| (seam, Length::from_cm(aslant))));
        // At its tips it goes on up to the shoulder, which falls.
        let longer = flat.longer_by(|share| off.first(share)) + 2.0 * off.first(1.0) * SLOPE.tan();
        sooner.push((Seam::ArmholeSeam, Length::from_cm(-longer)));
    }
    let nearer = Length::from_cm(4.0 * tip.cm() * SLOPE.cos());
    for level in garment.levels.iter_mut().filter(|l| l.level == Level::Shoulder) {
        level.width = width(level.width, tape.round(level.width.on(tape) - nearer), tape);
    }
    sooner
}
