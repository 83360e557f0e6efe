//! The allowance: what a seam can give when it is let out, what stays inside when it is taken in, and where it is trimmed.

use super::judge::Found;
use super::{AlteredSeam, SeamChange, StitchingLine};
use crate::change::{Change, ChangeKey, Term};
use crate::fitting::{Edges, FrontShare, GarmentSide, How};
use crate::garment::{Finish, Garment, Round, SeamFacts};
use crate::judge::{Finding, FindingKey, Outcome, Partner, Rule, Subject};
use crate::length::{Length, PerEdge, Station, Tape, Taught};
use crate::place::Level;

/// More than this kept inside shows as bulk: 3.8 cm (teaching value: about an inch and a half).
pub(super) const BULKY: Taught = Taught::new(38, 96);

/// What an edge is trimmed to where nobody said: 1.5 cm, 5/8 in (teaching value: pressed open and finished it holds, and lies flat).
pub(super) const TRIMMED: Taught = Taught::new(15, 40);

/// Less than this outside a stitching line does not hold: 4 mm, 3/16 in (teaching value: the finest finished edge there is).
pub(super) const LEAST_TRIMMED: Taught = Taught::new(4, 12);

/// What an edge has to give, against what is asked of it.
#[derive(Clone, Debug)]
pub(crate) struct Capacity {
    /// The edge that is shorter of what it must give, by its place among both; nothing where both are alike.
    pub edge: Option<usize>,
    pub let_out: Length,
    pub has: Length,
    pub keep: Length,
    /// Cuts were made into it, and nobody looked how far.
    pub is_clipped: bool,
    /// What cuts leave whole, where they leave less than would have to be kept.
    pub clips_leave: Option<Length>,
    pub shows_holes: bool,
    pub finish: Finish,
    /// What both edges can give together, and what is asked of both.
    pub both: [Length; 2],
    /// How much of the whole comes off the front edge where both edges have it to give, in percent.
    pub share: Option<u8>,
    /// How wide a panel in its place is at its widest, where one can be set in.
    pub panel: Option<Length>,
    /// The level where most is asked, and what the whole garment could give there.
    pub level: Option<(Level, Vec<Term>)>,
}

impl Capacity {
    /// What the edge can give.
    pub fn gives(&self) -> Length {
        self.clips_leave.unwrap_or(self.has - self.keep)
    }

    /// What it lacks; negative where it has more than enough.
    pub fn short(&self) -> Length {
        self.let_out - self.gives()
    }
}

/// What stays inside after taking in, on each edge.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Kept {
    /// What there is now.
    pub allowance: [Length; 2],
    pub taken_in: [Length; 2],
    /// It is trimmed to that after the next try-on.
    pub trim: Option<Length>,
}

impl Kept {
    /// What stays inside on each edge.
    pub fn kept(&self) -> [Length; 2] {
        let whole = [0, 1].map(|n| self.allowance[n] + self.taken_in[n]);
        whole.map(|whole| self.trim.unwrap_or(whole))
    }
}

/// Where the cut line lies, against the cloth that is there.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Trimmed {
    pub width: Length,
    pub least: Length,
    /// The least cloth there is outside the new stitching.
    pub there: Length,
}

/// What is chalked at one station, and what both edges have inside there.
#[derive(Clone, Copy)]
struct There {
    edges: Edges,
    has: [Length; 2],
}

impl There {
    /// At every place of a line where either turns: pins, ends, and where the allowance changes.
    fn along(seam: &AlteredSeam<'_>, side: GarmentSide, line: &StitchingLine, tape: Tape) -> Vec<Self> {
        let Some((from, to)) = line.span() else { return Vec::new() };
        let facts = seam.facts;
        let pins = line.pins.iter().map(|pin| pin.station);
        let own = facts.along.iter().map(|at| Station(at.station.length));
        let between = pins.chain(own).filter(|station| from < *station && *station < to);
        let there = |station: Station| {
            let has = facts.allowance_at(station.0, side == GarmentSide::Right, tape);
            Some(Self { edges: line.chalked(station, tape)?, has })
        };
        [from, to].into_iter().chain(between).filter_map(there).collect()
    }

    const fn off(&self, edge: usize) -> Length {
        if edge == 0 { self.edges.front.0 } else { self.edges.back.0 }
    }
}

pub(super) fn judge(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    side: Option<GarmentSide>,
    line: &StitchingLine,
) -> Vec<Finding> {
    let Some((from, _)) = line.span() else { return Vec::new() };
    let tape = subject.tape;
    let all_along = There::along(seam, side.unwrap_or(GarmentSide::Left), line, tape);
    let lets_out = all_along.iter().any(|there| [0, 1].into_iter().any(|edge| there.off(edge).is_negative()));
    let mut all = Vec::new();
    if lets_out {
        all.push(capacity(subject, seam, side, &all_along));
    } else {
        // Where most is left inside.
        let most = [0, 1]
            .map(|edge| all_along.iter().copied().max_by_key(|there| there.off(edge) + there.has[edge]));
        let taken_in = [0, 1].map(|edge| most[edge].map_or(Length::ZERO, |there| there.off(edge)));
        let has = [0, 1].map(|edge| most[edge].map_or(Length::ZERO, |there| there.has[edge]));
        let trim = seam.change.trim_to.map(|trim| tape.round(trim.length));
        let found = Kept { allowance: has, taken_in, trim };
        let bulky = found.kept().into_iter().any(|kept| kept > BULKY.on(tape));
        let outcome = if bulky { Outcome::Caution } else { Outcome::Passes };
        let trimmed = || {
            let trim_to = Some(tape.figure(TRIMMED.on(tape)).measure());
            Some(Change::Seam(SeamChange { trim_to, ..seam.change.as_ref().clone() }))
        };
        let finding = Finding::new(seam.finding(Rule::Kept, side), outcome, Found::Kept(found));
        all.push(finding.at(from).mended(trimmed));
    }
    all.extend(trimmed(seam, side, &all_along, tape).map(|finding| finding.at(from)));
    all
}

/// What the shorter edge has to give, and both together.
fn capacity(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    side: Option<GarmentSide>,
    all_along: &[There],
) -> Finding {
    let (facts, cloth, tape) = (seam.facts, &subject.garment.cloth, subject.tape);
    // Of each edge the place where it is shortest of what it must give.
    let worst_of = |edge: usize| all_along.iter().max_by_key(|there| -there.off(edge) - there.has[edge]);
    let asked = [0, 1].map(|edge| worst_of(edge).map_or(Length::ZERO, |there| -there.off(edge)));
    let has = [0, 1].map(|edge| worst_of(edge).map_or(Length::ZERO, |there| there.has[edge]));
    // The edge that is shorter of what it must give decides; where both are alike it is "per edge".
    let worst = usize::from(asked[1] - has[1] > asked[0] - has[0]);
    let alike = asked[0] == asked[1] && has[0] == has[1];
    let keep = cloth.keep().on(tape);
    let clips_leave = facts.clips_leave.filter(|_| facts.clipped).map(|m| tape.round(m.length));
    let gives = has.map(|has| given(has, keep, clips_leave));
    let whole = all_along.iter().map(|there| -there.edges.whole().0).max().unwrap_or_default();
    let needs_sharing = !alike && asked[worst] > gives[worst] && gives[0] + gives[1] >= whole;
    let share = needs_sharing.then(|| share_by(gives, whole, seam, tape)).flatten();
    let asked_at = |level: Level| {
        let sides = [side.unwrap_or(GarmentSide::Left)];
        let edges = seam.chalked_at(subject.garment, level, Length::ZERO, sides[0], tape)?;
        Some((edges.whole().0, level))
    };
    let least = subject.garment.levels.iter().filter_map(|l| asked_at(l.level)).min();
    let level = least.filter(|(whole, _)| whole.is_negative());
    // Where both edges have too little, cloth is set in between; a panel cannot take in.
    let rows = seam.rows(subject.garment, tape);
    let rows = || rows.iter().filter_map(|row| row.of(side.unwrap_or(GarmentSide::Left)));
    let takes_in = seam.takes_in(subject.garment, tape);
    let widest = rows().map(|row| -row.edges.whole().0).max().filter(|_| !takes_in);
    let found = Capacity {
        edge: (!alike).then_some(worst),
        let_out: asked[worst],
        has: has[worst],
        keep,
        is_clipped: facts.clipped && clips_leave.is_none(),
        clips_leave: clips_leave.filter(|leave| *leave < has[worst] - keep),
        shows_holes: cloth.shows_holes,
        finish: facts.finish,
        both: [gives[0] + gives[1], whole],
        share: share.as_ref().map(|(percent, _)| *percent),
        panel: widest,
        level: level.map(|(_, level)| (level, gives_at(subject.garment, level, tape))),
    };
    let outcome = match found.short() > Length::ZERO {
        true => Outcome::Stop,
        false if found.is_clipped || found.shows_holes || found.finish.must_be_opened() => Outcome::Caution,
        false => Outcome::Passes,
    };
    let key = seam.finding(Rule::Capacity, side);
    let set_in = || SeamChange { set_in: true, ..seam.change.as_ref().clone() };
    let mend =
        share.map(|(_, change)| change).or_else(|| (outcome == Outcome::Stop && !takes_in).then(set_in));
    let shared = mend.map(Change::Seam);
    let finding = Finding::new(key, outcome, Found::Capacity(found));
    finding.mended(|| shared)
}

/// The share of the front edge by which both edges give what they have, and the change with it; nothing where a pin is of one panel only, or
/// a mark would be missing.
fn share_by(
    gives: [Length; 2],
    whole: Length,
    seam: &AlteredSeam<'_>,
    tape: Tape,
) -> Option<(u8, SeamChange)> {
    let of_one = |how: How| matches!(how, How::FrontPanel | How::BackPanel);
    if seam.change.readings.iter().any(|reading| of_one(reading.how)) {
        return None;
    }
    let hundredth = (gives[0] + gives[1]).nm().max(1);
    let percent = u8::try_from((gives[0] * 100).fraction(1, hundredth).nm()).ok()?;
    let front = tape.round(whole.fraction(i64::from(percent), 100));
    let back = tape.round(whole.fraction(100 - i64::from(percent), 100));
    let share = FrontShare::try_from(percent).ok().filter(|_| front <= gives[0] && back <= gives[1])?;
    Some((percent, SeamChange { front_share: Some(share), ..seam.change.as_ref().clone() }))
}

/// What an edge gives: what it has beyond what must stay, and no further than to where cuts into it end.
fn given(has: Length, keep: Length, clips_leave: Option<Length>) -> Length {
    let beyond = (has - keep).max(Length::ZERO);
    clips_leave.map_or(beyond, |leave| leave.min(beyond))
}

/// What every seam could give at a level, as far as somebody looked inside: what is inside beyond what must stay. Nothing of a
/// clipped seam whose cuts nobody followed.
pub(crate) fn gives_at(garment: &Garment, level: Level, tape: Tape) -> Vec<Term> {
    let keep = garment.cloth.keep().on(tape);
    let whole = garment.round(level) == Round::Whole;
    let of_seam = |facts: &SeamFacts| {
        let at = garment.station_on(facts.seam, level)?;
        let clips_leave = facts.clips_leave.filter(|_| facts.clipped).map(|m| tape.round(m.length));
        if facts.clipped && clips_leave.is_none() || at > facts.end() {
            return None;
        }
        let gives = facts.allowance_at(at, false, tape).map(|has| PerEdge(given(has, keep, clips_leave)));
        let edges = Edges { front: gives[0], back: gives[1] };
        let times = if facts.seam.is_single() || !whole { 1 } else { 2 };
        let gives = Term { change: ChangeKey::Seam(facts.seam), side: None, times, edges };
        (gives.off() > Length::ZERO).then_some(gives)
    };
    garment.seams.iter().filter_map(of_seam).collect()
}

/// The cut line: on the cloth that is there, and far enough from the stitching to hold.
fn trimmed(
    seam: &AlteredSeam<'_>,
    side: Option<GarmentSide>,
    all_along: &[There],
    tape: Tape,
) -> Option<Finding> {
    let width = tape.round(seam.change.trim_to?.length);
    let outside = |there: &There| (there.off(0) + there.has[0]).min(there.off(1) + there.has[1]);
    let there = all_along.iter().map(outside).min()?;
    let found = Trimmed { width, least: LEAST_TRIMMED.on(tape), there };
    let outcome = match () {
        () if width < found.least => Outcome::Stop,
        () if width > there => Outcome::Caution,
        () => Outcome::Passes,
    };
    let key = FindingKey { partner: Some(Partner::CutLine), ..seam.finding(Rule::Kept, side) };
    let mend = || {
        let width = if width < found.least { TRIMMED.on(tape).min(there) } else { there };
        let trim_to = (width >= found.least).then(|| tape.figure(width).measure())?;
        Some(Change::Seam(SeamChange { trim_to: Some(trim_to), ..seam.change.as_ref().clone() }))
    };
    Some(Finding::new(key, outcome, Found::Trimmed(found)).mended(mend))
}
