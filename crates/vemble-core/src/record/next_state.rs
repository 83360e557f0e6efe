//! The next state of a garment: its facts after what was done was done. What is chalked is what was sewn; girths follow from that, and what
//! was one line is the old stitching now.

use super::darts::{facts, follow_middle};
use super::heights::{follow_seam, shorten_trunk};
use crate::change::armhole::AlteredArmhole;
use crate::change::gathers::gathered_in;
use crate::change::hem::{AlteredHem, ShortenedAt};
use crate::change::seam::AlteredSeam;
use crate::change::{Drawn, DrawnChange};
use crate::fitting::GarmentSide;
use crate::garment::{
    AllowanceAt, Band, Closure, ClosureFacts, DartFacts, Garment, HemEdge, HemFacts, HemTurn, InTheWay,
    Opening, Seam, SeamFacts, StitchedBy, Width,
};
use crate::judge::{Girth, LevelOf, Subject, girths};
use crate::length::{Length, Measure, Station, Tape};
use crate::place::Level;

/// The facts of a garment after everything that `subject` changes on it was done, with figures at the marks of its tape.
///
/// Stations are measured from the new edges. What is inside each seam is what there was, more by what was taken in, less by what was let out,
/// and what it was trimmed to where it was trimmed.
pub(crate) fn next_state(subject: &Subject<'_>) -> Garment {
    let tape = subject.tape;
    let mut garment = subject.garment.clone();
    let girths = girths(subject);
    let lower = if garment.has_legs() { HemEdge::Leg } else { HemEdge::Body };
    let [body, sleeve] = [lower, HemEdge::Sleeve].map(|edge| rise(subject, edge, None));
    for level in &mut garment.levels {
        let of_sleeve = level.level.is_of_sleeve();
        let own: Vec<&Girth> = girths.iter().filter(|g| g.level.level == level.level).collect();
        if let Some(after) = after(&own, tape)
            && own.iter().any(|g| g.is_changed())
        {
            level.width = width(level.width, after, tape);
        }
        let up = if of_sleeve { sleeve } else { body };
        if up != Length::ZERO && !level.level.is_at_an_edge() {
            let station = (level.station.length - up).max(Length::ZERO);
            level.station = typed(station, tape);
        }
    }
    for facts in &mut garment.seams {
        if let Some(seam) = subject.seams().find(|seam| seam.facts.seam == facts.seam) {
            sewn_along(facts, seam, tape);
        }
        let from = subject.garment.span_of(facts.seam).0;
        let up = match from.is_at_an_edge() {
            true if from.is_of_sleeve() => {
                rise(subject, HemEdge::Sleeve, ends_at(facts.seam, HemEdge::Sleeve))
            }
            true => rise(subject, lower, ends_at(facts.seam, lower)),
            false => Length::ZERO,
        };
        if up != Length::ZERO {
            shorten(facts, up, tape);
        }
    }
    for change in subject.changes.iter().filter(|change| change.is_altered()) {
        match change {
            DrawnChange::Dart(dart) => {
                let facts = facts(dart, tape);
                match garment.darts.iter_mut().find(|known| known.dart == facts.dart) {
                    Some(known) => {
                        let (name, from_centre) = (known.name.take(), known.from_centre);
                        *known = DartFacts { name, from_centre, ..facts };
                    }
                    None => garment.darts.push(facts),
                }
            }
            DrawnChange::Hem(hem) => {
                if let Some(facts) = hem_facts(hem, subject) {
                    match garment.hems.iter_mut().find(|known| known.edge == facts.edge) {
                        Some(known) => *known = facts,
                        None => garment.hems.push(facts),
                    }
                }
                if hem.key() == HemEdge::Sleeve {
                    let off = hem.above.map_or(sleeve, |above| tape.round(above.off));
                    garment.sleeve_length =
                        garment.sleeve_length.map(|m| typed((m.length - off).max(Length::ZERO), tape));
                }
            }
            DrawnChange::Elastic(elastic) => {
                if let Some(sum) = elastic.sum_on(subject) {
                    garment.found.band = Some(Band::Elastic);
                    let cased = ClosureFacts { closure: Closure::Elastic, at: Opening::Waist, count: 1 };
                    if !garment.closures.contains(&cased) {
                        garment.closures.push(cased);
                    }
                    if let Some(waist) = garment.levels.iter_mut().find(|l| l.level == Level::Waist) {
                        let now = waist.width.on(tape);
                        waist.width = width(waist.width, now - sum.excess, tape);
                    }
                }
            }
            DrawnChange::Spacing(spacing) => {
                let count = spacing.sums(subject).map(|sums| sums.placed().len());
                let here = garment
                    .closures
                    .iter_mut()
                    .find(|c| c.at == spacing.key() && c.closure == spacing.closure);
                if let (Some(count), Some(closure)) =
                    (count.and_then(|n| u8::try_from(n).ok()).filter(|n| *n > 0), here)
                {
                    closure.count = count;
                }
            }
            // Below.
            DrawnChange::Gathers(_) => {}
            DrawnChange::Armhole(armhole) => set_in(&mut garment, armhole, tape),
            DrawnChange::Trunk(trunk) => shorten_trunk(&mut garment, trunk, tape),
            DrawnChange::Seam(seam) => follow_seam(&mut garment, seam, tape),
        }
    }
    for gathered in gathered_in(subject) {
        if let Some(level) = garment.levels.iter_mut().find(|l| l.level == gathered.at.level()) {
            level.width = width(level.width, gathered.short, tape);
        }
        garment.gathered.retain(|known| known.at != gathered.at);
        garment.gathered.push(gathered.facts(tape));
    }
    // One that is let out altogether is none any more.
    garment
        .darts
        .retain(|dart| dart.fold_depth.length != Length::ZERO || subject.garment.darts.contains(dart));
    follow_round(&mut garment, subject.garment, tape);
    follow_middle(&mut garment, subject, &girths);
    garment
}

/// A waist seam and a neck seam grow and shrink with what is sewn into them, from what both were before.
pub(crate) fn follow_round(garment: &mut Garment, before: &Garment, tape: Tape) {
    for (seam, level) in [(Seam::WaistSeam, Level::Waist), (Seam::NeckSeam, Level::Neck)] {
        follow_level(garment, before, (seam, level), tape);
    }
}

fn follow_level(garment: &mut Garment, before: &Garment, (seam, level): (Seam, Level), tape: Tape) {
    let round = |garment: &Garment| garment.level(level).map(|level| level.width.on(tape));
    let (Some(was), Some(will)) = (round(before), round(garment)) else { return };
    let is_moved = was != will && before.seam(seam).is_some();
    let Some(facts) = garment.seams.iter_mut().find(|facts| facts.seam == seam && is_moved) else { return };
    let long = (tape.round(facts.length.length) + will - was).max(tape.mark());
    facts.length = typed(long, tape);
    let end = facts.end();
    facts.along.retain(|at| at.station.length <= end);
    facts.in_the_way.retain(|thing| thing.from.length < end);
    facts
        .in_the_way
        .iter_mut()
        .filter(|thing| thing.to.length > end)
        .for_each(|thing| thing.to = typed(end, tape));
}

/// An armhole with its shoulder and its sleeve. Seams have one length for both sides: where one side alone was altered it lies between
/// both, as a girth does; what is inside is what the shorter of both has.
fn set_in(garment: &mut Garment, armhole: &AlteredArmhole<'_>, tape: Tape) {
    let sides = armhole.key().sides().len() as i64;
    for (seam, longer, out) in armhole.seams_after(garment.side_seam(), tape) {
        let Some(facts) = garment.seams.iter_mut().find(|facts| facts.seam == seam) else { continue };
        let length = tape.round(facts.length.length) + tape.round(longer.fraction(sides, 2));
        facts.length = typed(length.max(tape.mark()), tape);
        let left =
            |inside: Measure, out: Length| typed((tape.round(inside.length) - out).max(Length::ZERO), tape);
        let is_let_out = out != [Length::ZERO; 2];
        if is_let_out {
            let inside = [facts.allowance, facts.allowance_back.unwrap_or(facts.allowance)];
            facts.allowance = left(inside[0], out[0]);
            facts.allowance_back = Some(left(inside[1], out[1])).filter(|back| *back != facts.allowance);
        }
        for at in facts.along.iter_mut().filter(|_| is_let_out) {
            (at.front, at.back) = (left(at.front, out[0]), left(at.back, out[1]));
            at.right_front = at.right_front.map(|m| left(m, out[0]));
            at.right_back = at.right_back.map(|m| left(m, out[1]));
        }
    }
    // A shoulder is measured across both.
    let across = armhole.shortens(tape) * (2 * sides);
    if let Some(level) = garment.levels.iter_mut().find(|l| l.level == Level::Shoulder) {
        level.width = width(level.width, level.width.on(tape) - across, tape);
    }
}

/// A figure of the tape, as somebody would have typed it.
pub(super) const fn typed(length: Length, tape: Tape) -> Measure {
    tape.figure(length).measure()
}

/// Measured as it was: flat where half of it lies on a mark, else all round.
pub(crate) fn width(was: Width, girth: Length, tape: Tape) -> Width {
    let girth = girth.max(tape.mark());
    let half = girth.fraction(1, 2);
    match was {
        Width::LaidFlat(_) if tape.round(half) == half => Width::LaidFlat(typed(half, tape)),
        Width::LaidFlat(_) | Width::Girth(_) => Width::Girth(typed(girth, tape)),
    }
}

/// What goes round a level afterwards; of a pair that differs what is between both, at a mark.
fn after(own: &[&Girth], tape: Tape) -> Option<Length> {
    match own {
        [] => None,
        [one] => Some(one.after),
        [one, other, ..] => {
            debug_assert!(one.of != LevelOf::Garment);
            Some(tape.round((one.after + other.after).fraction(1, 2)))
        }
    }
}

/// Where around its edge a seam ends: one in the middle there, one between the middle and the side halfway, those of a leg outside and inside, those of a
/// sleeve inside and behind. Nothing where it ends at both sides alike.
const fn ends_at(seam: Seam, edge: HemEdge) -> Option<&'static [f64]> {
    match seam {
        // A leg has each of them once.
        Seam::PanelFront if matches!(edge, HemEdge::Leg) => Some(&[0.125]),
        Seam::PanelBack if matches!(edge, HemEdge::Leg) => Some(&[0.375]),
        Seam::CentreFront => Some(&[0.0]),
        Seam::PrincessFront | Seam::PanelFront => Some(&[0.125, 0.875]),
        Seam::PanelBack | Seam::PrincessBack => Some(&[0.375, 0.625]),
        Seam::CentreBack | Seam::SleeveBackSeam => Some(&[0.5]),
        Seam::Outseam => Some(&[0.25]),
        Seam::Inseam | Seam::SleeveSeam => Some(&[0.75]),
        Seam::SideSeam | Seam::SeatSeam | Seam::FrontRise | Seam::ShoulderSeam | Seam::ArmholeSeam => None,
        Seam::YokeSeam | Seam::WaistSeam | Seam::NeckSeam => None,
    }
}

/// How far an edge lies above the present one afterwards: as it is chalked there, else at its sides on the whole; or where all of it is taken off higher up.
fn rise(subject: &Subject<'_>, edge: HemEdge, at: Option<&[f64]>) -> Length {
    let Some(hem) = subject.hems().find(|hem| hem.key() == edge) else { return Length::ZERO };
    let tape = subject.tape;
    if let Some(above) = hem.above {
        // At the cap the sleeve is set in higher: its levels stay where they are on the cloth, the arm goes further into it.
        return if above.at == ShortenedAt::Cap { Length::ZERO } else { tape.round(above.off) };
    }
    let all: Vec<Length> = match at {
        Some(at) => hem.rings.iter().flat_map(|r| at.iter().map(|part| r.chalked(*part, tape))).collect(),
        None => hem.rings.iter().map(|ring| ring.at_the_sides(tape)).collect(),
    };
    let count = all.len().max(1) as i64;
    tape.round(all.into_iter().sum::<Length>().fraction(1, count))
}

/// What is inside a seam that was sewn anew, and how far cuts go into it.
fn sewn_along(facts: &mut SeamFacts, seam: &AlteredSeam<'_>, tape: Tape) {
    if seam.change.set_in && seam.is_altered() {
        // Sewn along the old lines: what is inside stays, and whoever opens it again finds a panel.
        facts.in_the_way.extend(panel(seam, tape));
        return;
    }
    facts.along = along(seam, tape);
    if seam.change.trim_to.is_some() {
        facts.clipped = false;
        facts.clips_leave = None;
    } else if let Some(leave) = facts.clips_leave {
        facts.clips_leave = Some(typed((leave.length - deepest_let_out(seam, tape)).max(Length::ZERO), tape));
    }
}

/// The panel that lies in a seam afterwards.
fn panel(seam: &AlteredSeam<'_>, tape: Tape) -> Option<InTheWay> {
    let spans = seam.lines.iter().filter_map(crate::change::seam::StitchingLine::span);
    let (from, to) = spans.reduce(|(from, to), (a, b)| (from.min(a), to.max(b)))?;
    let at = |station: Station| typed(tape.round(station.0).min(seam.facts.end()), tape);
    Some(InTheWay { what: "set-in panel".into(), from: at(from), to: at(to) })
}

/// What is inside along a seam afterwards: at every row that was chalked, and at what was known of it before.
fn along(seam: &AlteredSeam<'_>, tape: Tape) -> Vec<AllowanceAt> {
    let facts = seam.facts;
    let trim = seam.change.trim_to.map(|m| tape.round(m.length));
    let spans = seam.lines.iter().filter_map(crate::change::seam::StitchingLine::span);
    let (mut from, mut to) = (facts.end(), Length::ZERO);
    spans.for_each(|(a, b)| (from, to) = (from.min(a.0), to.max(b.0)));
    let mut stations: Vec<Length> = facts.along.iter().map(|at| at.station.length).collect();
    if from <= to {
        let mut at = tape.round(from);
        let last = tape.round(to).min(facts.end());
        while at < last {
            stations.push(at);
            at = at + STEP.on(tape);
        }
        stations.push(last);
        // Right beside the ends it is as it was.
        let beside = [tape.round(from) - tape.mark(), last + tape.mark()];
        stations.extend(beside.into_iter().filter(|at| !at.is_negative() && *at <= facts.end()));
        stations.extend(seam.lines.iter().flat_map(|line| &line.pins).map(|pin| tape.round(pin.station.0)));
    }
    stations.retain(|at| !at.is_negative() && *at <= facts.end());
    stations.sort_unstable();
    stations.dedup();
    let edges = |side: GarmentSide, at: Length| {
        let has = facts.allowance_at(at, side == GarmentSide::Right, tape);
        let line = seam.line(side);
        let is_on = line.span().is_some_and(|(from, to)| from.0 <= at && at <= to.0);
        match line.chalked(Station(at), tape).filter(|_| is_on) {
            None => has,
            Some(edges) => {
                let left = [has[0] + edges.front.0, has[1] + edges.back.0].map(|left| left.max(Length::ZERO));
                trim.map_or(left, |trim| left.map(|left| left.min(trim)))
            }
        }
    };
    let at = |station: Length| {
        let ([front, back], right) = (edges(GarmentSide::Left, station), edges(GarmentSide::Right, station));
        let other = |right: Length, left: Length| (right != left).then(|| typed(right, tape));
        AllowanceAt {
            station: typed(station, tape),
            front: typed(front, tape),
            back: typed(back, tape),
            right_front: other(right[0], front),
            right_back: other(right[1], back),
        }
    };
    let all: Vec<AllowanceAt> = stations.into_iter().map(at).collect();
    let everywhere =
        [facts.allowance, facts.allowance_back.unwrap_or(facts.allowance)].map(|m| tape.round(m.length));
    let is_plain = |at: &AllowanceAt| {
        [at.front.length, at.back.length] == everywhere && at.right_front.is_none() && at.right_back.is_none()
    };
    if all.iter().all(is_plain) { Vec::new() } else { all }
}

/// What is inside is written down every so far: 2 cm, 3/4 in (teaching value: nearer than the rows that were chalked, so that no bend lies
/// between).
const STEP: crate::length::Taught = crate::length::Taught::new(20, 48);

/// The deepest that a seam was let out anywhere.
fn deepest_let_out(seam: &AlteredSeam<'_>, tape: Tape) -> Length {
    let deepest = |line: &crate::change::seam::StitchingLine| {
        let (from, to) = line.span()?;
        let edges = line.chalked_between(from, to, tape).into_iter();
        edges.map(|edges| -edges.front.0.min(edges.back.0)).max()
    };
    seam.lines.iter().filter_map(deepest).max().unwrap_or_default().max(Length::ZERO)
}

/// A seam whose lower edge lies `up` higher: it is as much shorter, and everything on it lies as much nearer to its datum.
fn shorten(facts: &mut SeamFacts, up: Length, tape: Tape) {
    let moved = |m: Measure| typed((m.length - up).max(Length::ZERO), tape);
    facts.length = typed((facts.length.length - up).max(tape.mark()), tape);
    facts.in_the_way.retain(|thing| thing.to.length > up);
    for thing in &mut facts.in_the_way {
        (thing.from, thing.to) = (moved(thing.from), moved(thing.to));
    }
    if !facts.along.is_empty() {
        let at_the_edge = {
            let [front, back] = facts.allowance_at(up, false, tape);
            let right = facts.allowance_at(up, true, tape);
            let other = |right: Length, left: Length| (right != left).then(|| typed(right, tape));
            AllowanceAt {
                station: typed(Length::ZERO, tape),
                front: typed(front, tape),
                back: typed(back, tape),
                right_front: other(right[0], front),
                right_back: other(right[1], back),
            }
        };
        facts.along.retain(|at| at.station.length > up);
        facts.along.iter_mut().for_each(|at| at.station = moved(at.station));
        facts.along.insert(0, at_the_edge);
    }
}

/// A hem as it is turned then; nothing where the edge stays.
fn hem_facts(hem: &AlteredHem<'_>, subject: &Subject<'_>) -> Option<HemFacts> {
    let tape = subject.tape;
    let all = hem.sums(subject);
    let first = all.first()?;
    // Of two that differ what both have.
    let inside = all.iter().map(|sums| match sums.kept {
        Some(kept) if kept.is_trimmed(tape) => Length::ZERO,
        Some(kept) => kept.stitch[1] - kept.stitch[0],
        None if sums.short().is_some() => (sums.turn_up + sums.off[0]).max(Length::ZERO),
        None if sums.is_cut => sums.allowance,
        None if sums.cutting == crate::change::hem::Cutting::StitchThenTrim => sums.allowance,
        None => (sums.turn_up + sums.off[0]).max(Length::ZERO),
    });
    let turn_up = inside.min().unwrap_or_default();
    let visible = match first.kept {
        Some(kept) => Some(kept.stitch[0]),
        None => first.turns.last().copied().filter(|outer| *outer <= turn_up),
    };
    let vent = hem.facts.and_then(|facts| facts.vent).map(|vent| vent.length - first.off[1]);
    Some(HemFacts {
        edge: hem.key(),
        turn: if first.kept.is_some() { HemTurn::Kept } else { first.turn },
        turn_up: typed(turn_up, tape),
        visible: visible.map(|visible| typed(visible, tape)),
        vent: vent.filter(|vent| *vent > Length::ZERO).map(|vent| typed(tape.round(vent), tape)),
        by: if first.by_hand { StitchedBy::Hand } else { StitchedBy::Machine },
        assumed: false,
    })
}
