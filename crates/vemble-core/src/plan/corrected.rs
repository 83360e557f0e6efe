//! Corrections of a line that was basted or sewn: that line is the datum, and what is asked for is added to it. What comes out are pins
//! again, from the old stitching, so that everything else follows as ever.

use crate::change::dart::DartChange;
use crate::change::hem::HemChange;
use crate::change::seam::SeamChange;
use crate::change::{Change, ChangeKey, DrawnChange, Input};
use crate::fault::Wrong;
use crate::fitting::{GarmentSide, HemHow, How, Reading, SidePolicy};
use crate::judge::Subject;
use crate::length::{Length, Measure, Station, Tape, Unit};
use crate::try_on::TryOn;
use crate::work::Correction;

/// The try-on with its lines corrected: at each station as much more comes off each edge as was asked for, straight from one to the next, and
/// nothing beyond the outermost. `subject` is that try-on as it is drawn.
///
/// # Errors
/// The number of the correction that is about no line, or lies off it, and why.
pub(crate) fn corrected(
    subject: &Subject<'_>,
    try_on: &TryOn,
    corrections: &[Correction],
) -> Result<TryOn, Vec<(usize, Wrong)>> {
    let mut wrong = Vec::new();
    let mut result = try_on.clone();
    let mut keys: Vec<ChangeKey> = corrections.iter().map(|c| c.change).collect();
    keys.sort_unstable();
    keys.dedup();
    for key in keys {
        let own: Vec<(usize, &Correction)> =
            corrections.iter().enumerate().filter(|(_, c)| c.change == key).collect();
        let drawn = subject.changes.iter().find(|change| change.key() == key);
        let change = match drawn {
            Some(DrawnChange::Seam(seam)) => corrected_seam(seam, &own, subject.tape),
            Some(DrawnChange::Dart(dart)) => corrected_dart(dart, &own, subject.tape),
            Some(DrawnChange::Hem(hem)) => {
                let more =
                    own.iter().map(|(_, c)| c.per_edge.length).sum::<Length>().fraction(1, own.len() as i64);
                corrected_hem(hem, more, subject.tape, &mut result)
            }
            Some(
                DrawnChange::Elastic(_)
                | DrawnChange::Spacing(_)
                | DrawnChange::Gathers(_)
                | DrawnChange::Trunk(_)
                | DrawnChange::Armhole(_),
            )
            | None => Err(own.iter().map(|(n, c)| (*n, Wrong::OffTheLine { found: c.station })).collect()),
        };
        match change {
            Ok(change) => change.put_among(&mut result.changes),
            Err(all) => wrong.extend(all),
        }
    }
    // What was chalked is no longer where it is sewn.
    result.chalked.retain(|chalked| corrections.iter().all(|c| c.change != chalked.change));
    if wrong.is_empty() { Ok(result) } else { Err(wrong) }
}

/// What is asked for at a station of one side: straight between corrections, nothing beyond them.
fn asked(own: &[(usize, &Correction)], side: GarmentSide, at: Length) -> Length {
    let mut here: Vec<(Length, Length)> = own
        .iter()
        .filter(|(_, c)| c.side.is_none_or(|s| s == side))
        .map(|(_, c)| (c.station.length, c.per_edge.length))
        .collect();
    here.sort_unstable();
    here.dedup_by_key(|(station, _)| *station);
    let above = here.partition_point(|(station, _)| *station < at);
    match (above.checked_sub(1).map(|n| here[n]), here.get(above)) {
        (_, Some((station, more))) if *station == at => *more,
        (Some((low, from)), Some((high, to))) => {
            let share = (at - low).cm() / (*high - low).cm();
            from + Length::from_cm((*to - from).cm() * share)
        }
        _ => Length::ZERO,
    }
}

/// A figure of the tape, as somebody would have typed it.
const fn typed(length: Length, tape: Tape) -> Measure {
    tape.figure(length).measure()
}

/// How close to what was asked for the corrected line passes: half a millimetre, which is less than half a mark of any tape.
const CLOSE: Measure = Measure { length: Length::from_nm(500_000), unit: Unit::Mm };

fn corrected_seam(
    seam: &crate::change::seam::AlteredSeam<'_>,
    own: &[(usize, &Correction)],
    tape: Tape,
) -> Result<Change, Vec<(usize, Wrong)>> {
    let length = seam.facts.end();
    let off = |c: &Correction| c.station.length.is_negative() || c.station.length > length;
    let wrong: Vec<(usize, Wrong)> = own
        .iter()
        .filter(|(_, c)| off(c))
        .map(|(n, c)| (*n, Wrong::OffTheLine { found: c.station }))
        .collect();
    if !wrong.is_empty() {
        return Err(wrong);
    }
    let has_sides = seam.facts.seam.has_sides();
    let sides: &[GarmentSide] = if has_sides { &GarmentSide::BOTH } else { &GarmentSide::BOTH[..1] };
    let before = seam.change.as_ref();
    let panel = match &before.readings[..] {
        all if !all.is_empty() && all.iter().all(|r| r.how == How::FrontPanel) => Some(How::FrontPanel),
        all if !all.is_empty() && all.iter().all(|r| r.how == How::BackPanel) => Some(How::BackPanel),
        _ => None,
    };
    let mut readings = Vec::new();
    for side in sides {
        let line = seam.line(*side);
        let pins = line.pins.iter().map(|pin| pin.station.0);
        let asked_at =
            own.iter().filter(|(_, c)| c.side.is_none_or(|s| s == *side)).map(|(_, c)| c.station.length);
        let mut stations: Vec<Length> =
            pins.chain(asked_at).map(|at| tape.round(at).clamp(Length::ZERO, length)).collect();
        stations.sort_unstable();
        stations.dedup();
        for station in stations {
            let basted = line.chalked(Station(station), tape).unwrap_or_default();
            let more = asked(own, *side, station);
            let (how, amount) = match panel {
                Some(How::FrontPanel) => (How::FrontPanel, basted.front.0 + more),
                Some(_) => (How::BackPanel, basted.back.0 + more),
                None => (How::Whole, basted.whole().0 + more * 2),
            };
            // A panel cannot be let out alone: then both edges give.
            let how = if amount.is_negative() { How::Gap } else { how };
            readings.push(Reading {
                id: None,
                side: *side,
                station: typed(station, tape),
                amount: typed(amount.abs(), tape),
                how,
            });
        }
    }
    let differ = readings.iter().any(|r| {
        has_sides
            && !readings.iter().any(|other| {
                other.side != r.side
                    && (other.station, other.amount, other.how) == (r.station, r.amount, r.how)
            })
    });
    let sides = if differ { Some(SidePolicy::KeepEach) } else { None };
    Ok(Change::Seam(SeamChange {
        readings,
        sides,
        tolerance: Some(CLOSE),
        spread: Vec::new(),
        ..before.clone()
    }))
}

fn corrected_dart(
    dart: &crate::change::dart::AlteredDart<'_>,
    own: &[(usize, &Correction)],
    tape: Tape,
) -> Result<Change, Vec<(usize, Wrong)>> {
    let off = |c: &Correction| c.station.length.is_negative() || c.station.length > dart.length;
    let wrong: Vec<(usize, Wrong)> = own
        .iter()
        .filter(|(_, c)| off(c))
        .map(|(n, c)| (*n, Wrong::OffTheLine { found: c.station }))
        .collect();
    if !wrong.is_empty() {
        return Err(wrong);
    }
    let mut readings = Vec::new();
    for side in GarmentSide::BOTH {
        let pins = dart.change.readings.iter().map(|r| r.station.length);
        let asked_at =
            own.iter().filter(|(_, c)| c.side.is_none_or(|s| s == side)).map(|(_, c)| c.station.length);
        let mut stations: Vec<Length> =
            pins.chain(asked_at).map(|at| tape.round(at).min(dart.length)).collect();
        stations.sort_unstable();
        stations.dedup();
        for station in stations {
            let amount = dart.chalked_more(side, Station(station), tape) + asked(own, side, station);
            let (how, amount) = match amount.is_negative() {
                true => (How::Gap, -amount * 2),
                false => (How::Fold, amount),
            };
            let at_an_end = station == Length::ZERO || dart.key().has_two_points() && station == dart.length;
            if !(at_an_end && amount == Length::ZERO) {
                readings.push(Reading {
                    id: None,
                    side,
                    station: typed(station, tape),
                    amount: typed(amount, tape),
                    how,
                });
            }
        }
    }
    let one_sided = own.iter().any(|(_, c)| c.side.is_some());
    let sides = if one_sided || dart.new[0] != dart.new[1] { Some(SidePolicy::KeepEach) } else { None };
    Ok(Change::Dart(DartChange { readings, sides, ..dart.change.clone() }))
}

/// An edge that was level stays so, so much higher; one that follows its marks has each mark moved.
fn corrected_hem(
    hem: &crate::change::hem::AlteredHem<'_>,
    more: Length,
    tape: Tape,
    try_on: &mut TryOn,
) -> Result<Change, Vec<(usize, Wrong)>> {
    let mut change: HemChange = hem.change.as_ref().clone();
    let level = hem.rings.iter().find_map(|ring| ring.level);
    let above = hem.above.map(|above| above.off);
    match above.or(level.filter(|_| hem.rings.iter().all(|ring| ring.level == level))) {
        Some(off) => {
            let longer = change.longer_by.map_or(Length::ZERO, |m| m.length);
            change.off = Some(typed(tape.round(off) + more + longer, tape));
            change.from_body = None;
        }
        None => {
            for mark in try_on.hem_marks.iter_mut().filter(|mark| mark.edge == hem.key()) {
                for read in std::iter::once(&mut mark.amount).chain(&mut mark.again) {
                    let signed = match mark.how {
                        HemHow::TurnUp => read.length + more,
                        HemHow::LetDown | HemHow::FromFloor => read.length - more,
                    };
                    *read = typed(signed.max(Length::ZERO), tape);
                }
            }
        }
    }
    Ok(Change::Hem(HemChange { hem: Input::key(&change), ..change }))
}
