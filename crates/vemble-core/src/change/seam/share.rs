//! One amount spread over several seams: each takes its share of the line, and the shares add up to what was pinned.
//!
//! Pins of half the depth, made fair with half the tolerance, give half the curve: so each share is drawn like the whole, with its
//! tolerance and its ends, and the sum holds between the pins too.

use super::ends::Ends;
use super::input::SeamShare;
use super::line::Draft;
use crate::change::sides::between;
use crate::change::{Pin, SidesFrom, Wrongs};
use crate::fault::Wrong;
use crate::fitting::{Edges, End, EndOf, GarmentSide};
use crate::garment::{Garment, Seam, SeamFacts};
use crate::length::{Length, Measure, PerEdge, Station, Unit};

/// Ends of two seams so near the same height lie on one edge: 5 mm.
const ONE_EDGE: Length = Length::from_mm(5);

/// Gives other seams their shares of what is pinned; the pinned seam keeps the rest. Gives what is wrong, with the number of the
/// change.
pub(super) fn share_out<'a>(garment: &'a Garment, drafts: &mut Vec<Draft<'a>>) -> Wrongs {
    let mut faults = Vec::new();
    for n in 0..drafts.len() {
        let spread = drafts[n].change.spread.clone();
        if spread.is_empty() {
            continue;
        }
        let given: u32 = spread.iter().map(|s| u32::from(s.percent)).sum();
        let twice = spread.iter().enumerate().any(|(i, s)| {
            s.percent == 0 || s.seam == drafts[n].facts.seam || spread[..i].iter().any(|o| o.seam == s.seam)
        });
        if given > 100 || twice {
            faults.push((drafts[n].number, "spread".into(), Wrong::NotAShare { percent: given }));
            continue;
        }
        let (ends, tolerance) = (drafts[n].ends(garment), drafts[n].tolerance());
        let whole = drafts[n].sides.pins.clone();
        let mut kept = whole.clone();
        for (i, share) in spread.iter().enumerate() {
            match give(garment, drafts, n, *share, &whole) {
                Ok(given) => take_away(&mut kept, &given),
                Err(wrong) => faults.push((drafts[n].number, format!("spread[{i}]"), wrong)),
            }
        }
        let keeps = 100 - given;
        drafts[n].sides.pins = kept;
        drafts[n].keeps_percent = keeps as u8;
        drafts[n].given = Some((ends, tolerance.fraction(i64::from(keeps.max(1)), 100)));
    }
    faults
}

fn take_away(kept: &mut [Vec<Pin>; 2], given: &[Vec<Edges>; 2]) {
    for (pin, edges) in kept.iter_mut().flatten().zip(given.iter().flatten()) {
        let (front, back) = (pin.edges.front.0 - edges.front.0, pin.edges.back.0 - edges.back.0);
        pin.edges = Edges { front: PerEdge(front), back: PerEdge(back) };
    }
}

/// Gives another seam its share of the pins of seam `n`, whose whole is `whole`. Gives what that is, pin by pin.
fn give<'a>(
    garment: &'a Garment,
    drafts: &mut Vec<Draft<'a>>,
    n: usize,
    share: SeamShare,
    whole: &[Vec<Pin>; 2],
) -> Result<[Vec<Edges>; 2], Wrong> {
    let (from, to) = (drafts[n].facts.seam, share.seam);
    let found = drafts.iter().position(|d| d.facts.seam == to);
    let at = match found {
        Some(at) if drafts[at].sides.pins.iter().any(|p| !p.is_empty()) => {
            return Err(Wrong::PinsOfItsOwn { seam: to });
        }
        Some(at) => at,
        None => {
            let number = drafts[n].number;
            drafts.push(Draft::empty(garment, number, to)?);
            drafts.len() - 1
        }
    };
    let up = garment.height_of_datum(from) - garment.height_of_datum(to);
    if let Some(pin) = not_beside(garment, whole, from, drafts[at].facts) {
        let found = Measure { length: pin.station.0, unit: Unit::Cm };
        return Err(Wrong::OffOtherSeam { station: found, seam: to });
    }
    // Front and back mean nothing on a seam down the middle: it takes its share evenly.
    let shared = |edges: Edges| match from.edges() == to.edges() {
        true => edges,
        false => {
            let front = PerEdge(edges.whole().0.fraction(1, 2));
            Edges { front, back: PerEdge(edges.whole().0 - front.0) }
        }
    };
    let part = |edge: PerEdge| PerEdge(edge.0.fraction(i64::from(share.percent), 100));
    let part = |edges: Edges| Edges { front: part(edges.front), back: part(edges.back) };
    let mut given = [Vec::new(), Vec::new()];
    let mut pins = [Vec::new(), Vec::new()];
    for side in GarmentSide::BOTH.map(|s| s as usize) {
        for pin in &whole[side] {
            let station = pin.station.0 + up;
            given[side].push(part(pin.edges));
            pins[side].push(Pin { station: Station(station), edges: part(shared(pin.edges)) });
        }
    }
    // A seam that exists once takes the shares of both sides; a pair takes half of that of a single one each.
    let (pins, halves) = match (from.is_single(), to.is_single()) {
        (false, true) => {
            let both = together(&pins);
            ([both.clone(), both], 4)
        }
        (true, false) => (pins.map(|pins| pins.into_iter().map(halved).collect()), 1),
        _ => (pins, 2),
    };
    let mut ends = ends_on(garment, &drafts[n], &drafts[at], up);
    if to.is_single() {
        // It has the pins of both sides, and so one line.
        let [left, right] = ends;
        ends = [[further(left[0], right[0], EndOf::Lower), further(left[1], right[1], EndOf::Upper)]; 2];
    }
    let tolerance = drafts[n].tolerance().fraction(i64::from(share.percent) * halves, 200);
    let fairing = drafts[n].change.fairing;
    let draft = &mut drafts[at];
    draft.sides.pins = pins;
    draft.sides.from = SidesFrom::Shared(from, share.percent);
    draft.change.to_mut().fairing = fairing;
    let own = draft.ends(garment);
    let on = |n: usize| {
        let ([lower, upper], own) = (ends[n], own[n]);
        let (lower, lower_is_assumed) = lower.unwrap_or((own.lower, own.lower_is_assumed));
        let (upper, upper_is_assumed) = upper.unwrap_or((own.upper, own.upper_is_assumed));
        Ends { lower, upper, lower_is_assumed, upper_is_assumed }
    };
    draft.given = Some(([on(0), on(1)], tolerance));
    Ok(given)
}

/// The first pin of a seam beside which another seam does not run: it can take no share there.
pub(super) fn not_beside<'p>(
    garment: &Garment,
    pins: &'p [Vec<Pin>; 2],
    from: Seam,
    to: &SeamFacts,
) -> Option<&'p Pin> {
    let up = garment.height_of_datum(from) - garment.height_of_datum(to.seam);
    pins.iter().flatten().find(|pin| {
        let station = pin.station.0 + up;
        station.is_negative() || station > to.end()
    })
}

/// An end of a line, with whether it was assumed.
type EndThere = (End, bool);

/// The ends of the lines of `from`, on the seam of `to`, where they can be the same there: lower and upper for each side.
fn ends_on(garment: &Garment, from: &Draft<'_>, to: &Draft<'_>, up: Length) -> [[Option<EndThere>; 2]; 2] {
    let length = to.facts.end();
    let on = |end: End, is_one_edge: bool| match end {
        End::MeetsOldStitching { station } => {
            let at = station.length + up;
            let there = !at.is_negative() && at <= length;
            there.then_some(End::MeetsOldStitching { station: Measure { length: at, ..station } })
        }
        End::StraightThrough { from } if is_one_edge => {
            Some(End::StraightThrough { from: Measure { length: from.length + up, ..from } })
        }
        End::RunsOff {} | End::CarriesOn { .. } if is_one_edge => Some(End::RunsOff {}),
        End::RunsOff {} | End::CarriesOn { .. } | End::StraightThrough { .. } => None,
    };
    let top = from.facts.end() + up - length;
    from.ends(garment).map(|ends| {
        let lower = on(ends.lower, up.abs() <= ONE_EDGE).map(|end| (end, ends.lower_is_assumed));
        let upper = on(ends.upper, top.abs() <= ONE_EDGE).map(|end| (end, ends.upper_is_assumed));
        [lower, upper]
    })
}

/// Of two ends of one line the one that lies further out.
fn further(one: Option<EndThere>, other: Option<EndThere>, of: EndOf) -> Option<EndThere> {
    let meets = |end: Option<EndThere>| match end {
        Some((End::MeetsOldStitching { station }, _)) => Some(station.length),
        _ => None,
    };
    match (meets(one), meets(other)) {
        (Some(a), Some(b)) if (of == EndOf::Lower) == (a <= b) => one,
        (Some(_), _) => other,
        (None, _) => one,
    }
}

fn halved(pin: Pin) -> Pin {
    let half = |edge: PerEdge| PerEdge(edge.0.fraction(1, 2));
    Pin { edges: Edges { front: half(pin.edges.front), back: half(pin.edges.back) }, ..pin }
}

/// Both sides' shares in one seam. Where only one side has a pin, the other is read off between its own.
fn together([left, right]: &[Vec<Pin>; 2]) -> Vec<Pin> {
    let mut both: Vec<Pin> = Vec::new();
    for pin in left.iter().chain(right) {
        if both.iter().any(|p| p.station == pin.station) {
            continue;
        }
        let at = |pins: &[Pin]| between(pins, pin.station).unwrap_or_default();
        let (a, b) = (at(left), at(right));
        let edges = Edges { front: PerEdge(a.front.0 + b.front.0), back: PerEdge(a.back.0 + b.back.0) };
        both.push(Pin { station: pin.station, edges });
    }
    both.sort_by_key(|p| p.station);
    both
}
