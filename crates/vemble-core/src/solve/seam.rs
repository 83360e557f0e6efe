//! One altered seam in figures and words.

use super::result::{MarkResult, MarkSide, PinResult, SidesResult, SolvedSeam};
use crate::check::{Subject, suggestion};
use crate::figure::strip;
use crate::fitting::{Edges, FrontShare, GarmentSide, How, Reading};
use crate::garment::word;
use crate::length::{Length, PerEdge, Station, Tape};
use crate::line::{AlteredSeam, End, Mark, Place, Sides, Taken, edge_lengths, marks};

pub(super) fn solve_seam(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> SolvedSeam {
    let tape = subject.tape;
    let is_altered = seam.span().is_some();
    // Without a pin nothing can be assumed of its ends.
    let station = |end, is_assumed: bool| match end {
        End::MeetsOldStitching { station } | End::StraightThrough { from: station } => {
            (is_altered || !is_assumed).then(|| tape.figure(station.length))
        }
        End::RunsOff {} | End::CarriesOn { .. } => None,
    };
    SolvedSeam {
        key: word(&seam.facts.seam),
        seam: Some(seam.facts.seam),
        dart: None,
        name: seam.facts.name().into(),
        datum: seam.facts.seam.datum().into(),
        edges: seam.facts.seam.edges().map(Into::into),
        top: subject.garment.top_of(seam.facts.seam).into(),
        length: tape.figure(seam.facts.length.length),
        allowance: tape.figure(seam.facts.least_allowance().length),
        sides: sides(subject, &seam.sides),
        ends: [
            end_words(seam.ends.lower, seam.facts.seam.datum(), tape),
            end_words(seam.ends.upper, subject.garment.top_of(seam.facts.seam), tape),
        ],
        lower_is_assumed: is_altered && seam.ends.lower_is_assumed,
        upper_is_assumed: is_altered && seam.ends.upper_is_assumed,
        lower_station: station(seam.ends.lower, seam.ends.lower_is_assumed),
        upper_station: station(seam.ends.upper, seam.ends.upper_is_assumed),
        tolerance: tape.figure(seam.alteration.tolerance.map_or(seam.tolerance, |t| t.length)),
        moves: moves(seam, tape),
        keeps_percent: seam.keeps_percent,
        goes_on_into: seam.facts.seam.goes_on_into().filter(|into| subject.garment.seam(*into).is_some()),
        place: None,
        lengths: lengths(subject, seam),
        pins: pins(subject, seam),
        is_altered,
        sides_agree: seam.sides_agree(),
        edges_equal: seam.lines.iter().all(crate::line::StitchingLine::has_equal_edges),
        strip: strip(subject.garment, seam, subject.worn, tape),
    }
}

pub(super) fn sides(subject: &Subject<'_>, sides: &Sides) -> SidesResult {
    use crate::line::SidePolicy as P;
    let words = match sides.taken {
        Taken::Nothing => "no pins yet".into(),
        Taken::Shared(from, percent) => format!("{percent} % of what is pinned on the {}", from.name()),
        Taken::Carried(from) => format!("carries on from the {}", from.name()),
        Taken::Copied(side) => {
            let other = GarmentSide::BOTH[1 - side as usize];
            format!("{} pinned, {} copied from it", side.name(), other.name())
        }
        Taken::By(_) if sides.undecided => "left and right disagree; each kept until you decide".into(),
        Taken::By(policy) => match policy {
            P::Mean => "the mean of left and right on both",
            P::Larger => "the larger of left and right on both",
            P::Smaller => "the smaller of left and right on both",
            P::Left => "the left on both",
            P::Right => "the right on both",
            P::KeepEach => "each side as it was pinned",
        }
        .into(),
    };
    SidesResult {
        words,
        apart: sides.apart.map(|(by, _)| subject.tape.figure(by)),
        suggestion: sides.undecided.then(|| suggestion(subject.garment)),
    }
}

fn end_words(end: End, edge: &str, tape: Tape) -> String {
    match end {
        End::MeetsOldStitching { station } => {
            format!("meets the old stitching at {}", tape.show(station.length))
        }
        End::RunsOff {} => format!("runs off at the {edge}"),
        End::CarriesOn { into } => format!("carries on into the {} in one pass", into.name()),
        End::StraightThrough { from } => {
            format!("straight through from {} to the {edge}", tape.show(from.length))
        }
    }
}

fn moves(seam: &AlteredSeam<'_>, tape: Tape) -> Option<String> {
    let share = seam.alteration.front_share?;
    let pins = seam.lines.iter().flat_map(|l| &l.pins);
    let most = pins.map(|p| share.moves(p.edges.whole())).max_by_key(|m| m.abs())?;
    let [one, other] = seam.facts.seam.edges();
    let to = if most.is_negative() { one } else { other };
    (most != Length::ZERO).then(|| format!("the seam moves up to {} towards the {to}", tape.show(most.abs())))
}

fn pins(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> Vec<PinResult> {
    let share = seam.alteration.front_share.unwrap_or_default();
    let of_seam = |reading: &Reading| {
        let line = seam.line(reading.side).at(reading.at());
        pin(subject, reading, (share, seam.facts.seam.edges()), seam.keeps_percent, line, seam.tolerance)
    };
    seam.alteration.readings.iter().map(of_seam).collect()
}

/// A pin against the line that was drawn, on edges with these names. `keeps` percent of it stay on its seam.
pub(super) fn pin(
    subject: &Subject<'_>,
    reading: &Reading,
    (share, edges): (FrontShare, [&str; 2]),
    keeps: u8,
    line: Edges,
    tolerance: Length,
) -> PinResult {
    let tape = subject.tape;
    let wanted = reading.edges(share);
    let kept = |edge: PerEdge| edge.0.fraction(i64::from(keeps), 100);
    let (front, back) = (line.front.0 - kept(wanted.front), line.back.0 - kept(wanted.back));
    let beside = if front.abs() >= back.abs() { front } else { back };
    PinResult {
        side: reading.side,
        wearer_side: subject.worn.on_wearer(reading.side),
        station: tape.figure(reading.station.length),
        amount: tape.figure(reading.amount.length),
        drawn: tape.figure(if reading.how == How::BackPanel { wanted.back.0 } else { wanted.front.0 }),
        amount_per_drawn: reading.how.amount_per_edge(),
        front: tape.figure(wanted.front.0),
        back: tape.figure(wanted.back.0),
        whole: tape.figure(wanted.whole().0),
        beside: tape.figure(beside),
        // A hundredth of a millimetre is rounding.
        stands_off: beside.abs() > tolerance + Length::from_nm(10_000),
        sum: pin_sum(reading, wanted, edges, tape),
    }
}

/// `1.6 from the old seam to the pin, folded: 2 edges × 1.6 = 3.2 cm altogether`.
fn pin_sum(reading: &Reading, edges: Edges, names: [&str; 2], tape: Tape) -> String {
    let [one, other] = names;
    let read = tape.bare(reading.amount.length);
    let how = match reading.how {
        How::Fold => "from the old seam to the pin, folded",
        How::Whole => "pinched out",
        How::FrontPanel => &format!("off the {one} edge only"),
        How::BackPanel => &format!("off the {other} edge only"),
        How::Gap => "gap of the opened seam, let out",
    };
    format!("{read} {how}: {} altogether", edges.sum(1, names, tape))
}

/// How long both edges are afterwards; one entry where both sides are the same.
fn lengths(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> Vec<String> {
    let tape = subject.tape;
    let sides = if seam.sides_agree() { &GarmentSide::BOTH[..1] } else { &GarmentSide::BOTH };
    let [one, other] = seam.facts.seam.edges();
    let of = |side: &GarmentSide| {
        let l = edge_lengths(subject.garment, seam, *side)?;
        let whose = if seam.sides_agree() { String::new() } else { format!("{}: ", side.name()) };
        let now = tape.bare(l.old);
        Some(match l.front == l.back {
            true => format!(
                "{whose}the altered stretch is {} long on each edge, {now} before",
                tape.show(l.front)
            ),
            false => format!(
                "{whose}the altered stretch is {} long on the {one} edge and {} on the {other} edge, {now} before",
                tape.bare(l.front),
                tape.show(l.back)
            ),
        })
    };
    sides.iter().filter_map(of).collect()
}

/// The rows of its card.
pub(crate) fn seam_rows(subject: &Subject<'_>, seam: &AlteredSeam<'_>) -> Vec<MarkResult> {
    let tape = subject.tape;
    marks(subject.garment, seam, tape).iter().map(|m| mark(seam, m, tape)).collect()
}

fn mark(seam: &AlteredSeam<'_>, mark: &Mark, tape: Tape) -> MarkResult {
    let side = |side: GarmentSide| {
        let line = seam.line(side);
        let (from, to) = line.span()?;
        let reach = tape.mark();
        if mark.station.0 < from.0 - reach || mark.station.0 > to.0 + reach {
            return None;
        }
        // A mark lies on the tape: at an end it may lie a little beyond the line, which has the end's offset there.
        let Edges { front, back } = line.at(Station(mark.station.0.clamp(from.0, to.0)));
        // Equal edges show the same figure; unequal ones are adjusted so that they add up.
        let shown = match front == back {
            true => vec![front.0, back.0],
            false => tape.apportion(&[front.0, back.0]).0,
        };
        let cut = seam.alteration.trim_to.map(|w| [front, back].map(|edge| tape.figure(edge.0 - w.length)));
        Some(MarkSide {
            front: tape.figure(shown[0]),
            back: tape.figure(shown[1]),
            whole: tape.figure((front + back).0),
            sum: mark_sum(seam, side, mark, Edges { front, back }, tape),
            cut,
        })
    };
    let notes: Vec<&str> = mark.places.iter().filter_map(place_words).collect();
    MarkResult {
        station: tape.figure(mark.station.0),
        note: notes.join(", "),
        left: side(GarmentSide::Left),
        right: if seam.sides_agree() { None } else { side(GarmentSide::Right) },
    }
}

/// `pinned left 6.8, right 7.2 altogether, taken as 7.0; 50 % of it stays on this seam; the line here: 2 edges × 1.7 = 3.4 cm altogether`.
fn mark_sum(seam: &AlteredSeam<'_>, side: GarmentSide, mark: &Mark, edges: Edges, tape: Tape) -> String {
    let on_mark = |station: Station| tape.round(station.0) == mark.station.0;
    let share = seam.alteration.front_share.unwrap_or_default();
    let pinned = seam.alteration.readings.iter().filter(|r| on_mark(r.at()));
    let read = |r: &Reading| format!("{} {}", r.side.name(), tape.bare(r.edges(share).whole().0));
    let pinned: Vec<String> = pinned.map(read).collect();
    let mut sum = String::new();
    if !pinned.is_empty() {
        sum = format!("pinned {} altogether", pinned.join(", "));
        let taken = seam.line(side).pins.iter().find(|p| on_mark(p.station));
        if let Some(pin) = taken.filter(|_| pinned.len() > 1 && seam.keeps_percent == 100) {
            sum += &format!(", taken as {}", tape.bare(pin.edges.whole().0));
        }
        if seam.keeps_percent < 100 {
            sum += &format!("; {} % of it stays on this seam", seam.keeps_percent);
        }
        sum += "; ";
    }
    sum += &format!("the line here: {} altogether", edges.sum(1, seam.facts.seam.edges(), tape));
    if let Some(trim) = seam.alteration.trim_to {
        sum += &format!("; cut {} outside the new stitching", tape.show(trim.length));
    }
    sum
}

pub(super) fn place_words(place: &Place) -> Option<&'static str> {
    Some(match place {
        Place::Edge => "edge",
        Place::MeetsOldStitching => "meets the old line",
        Place::StraightFromHere => "straight from here",
        Place::Point => "point",
        Place::Corner => "turns the corner",
        Place::Pin => "pin",
        Place::Level(name) => name,
        Place::Between => return None,
    })
}
