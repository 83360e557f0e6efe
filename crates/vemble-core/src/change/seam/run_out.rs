//! Run-out and kinks: a line that ends or bends too fast leaves a bubble.

use super::judge::Found;
use super::{AlteredSeam, SeamChange, StitchingLine};
use crate::change::{Change, Pin};
use crate::fitting::{End, EndOf, GarmentSide};
use crate::judge::{Finding, Outcome, Rule, Subject, runs_out};
use crate::length::{Length, Measure, Station};

/// Between two pins a change steeper than 1 : 4 is a kink (teaching value: no iron presses it flat).
const KINK: f64 = 0.25;

/// A line that runs out into the old stitching.
#[derive(Clone, Copy, Debug)]
pub(crate) struct RunOut {
    /// From where the taper starts to where it meets.
    pub run: Length,
    /// What is taken where it starts, per edge.
    pub offset: Length,
    /// Run-out length ÷ offset that lies flat in this cloth.
    pub safe: i64,
    /// Where it would have to meet the old stitching; nothing where the seam is too short for that, or a pin of nought ends it.
    pub wanted: Option<Station>,
    /// A pin of nought ends it.
    pub ends_at_pin: bool,
    /// Down to the datum, not up from it.
    pub downwards: bool,
}

/// The steepest stretch between two pins.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Kink {
    pub steepest: f64,
    pub from: Station,
    pub to: Station,
}

pub(super) fn judge(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    side: Option<GarmentSide>,
    line: &StitchingLine,
) -> Vec<Finding> {
    let run_outs = EndOf::ALL.iter().filter_map(|end| run_out(subject, seam, side, line, *end));
    run_outs.chain(kink(seam, side, line)).collect()
}

/// Run-out length ÷ offset: safe at the cloth's figure, may poke down to half of it, will poke below.
fn run_out(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    side: Option<GarmentSide>,
    line: &StitchingLine,
    end: EndOf,
) -> Option<Finding> {
    let End::MeetsOldStitching { station: meets } = line.ends.of(end) else { return None };
    let (start, up) = (line.taper_from(end)?, end.beyond());
    let tape = subject.tape;
    let offset = line.chalked(start, tape)?.deepest();
    if offset == Length::ZERO {
        return None;
    }
    let safe = subject.garment.cloth.safe_run_out();
    // An end that is set holds for both sides: far enough for each.
    let far_enough = |line: &StitchingLine| {
        let start = line.taper_from(end)?;
        Some((tape.round(start.0) + line.chalked(start, tape)?.deepest() * safe * up) * up)
    };
    let wanted = seam.lines.iter().filter_map(far_enough).max()? * up;
    let set = if end == EndOf::Lower { seam.change.lower } else { seam.change.upper };
    let ends_at_pin = !line.ends.is_assumed(end) && set != Some(line.ends.of(end));
    let fits = !ends_at_pin && !wanted.is_negative() && wanted <= seam.facts.end();
    let run = (tape.round(meets.length) - tape.round(start.0)) * up;
    let wanted = fits.then_some(Station(wanted));
    let facts = RunOut { run, offset, safe, wanted, ends_at_pin, downwards: up < 0 };
    let outcome = runs_out(run, offset, safe);
    let mut key = seam.finding(Rule::RunOut, side);
    key.end = Some(end);
    let mend = || {
        let station = Measure { length: facts.wanted?.0, ..meets };
        let end_there = Some(End::MeetsOldStitching { station });
        let change = seam.change.as_ref().clone();
        Some(Change::Seam(match end {
            EndOf::Lower => SeamChange { lower: end_there, ..change },
            EndOf::Upper => SeamChange { upper: end_there, ..change },
        }))
    };
    Some(Finding::new(key, outcome, Found::RunOut(facts)).at(Station(meets.length)).mended(mend))
}

fn kink(seam: &AlteredSeam<'_>, side: Option<GarmentSide>, line: &StitchingLine) -> Option<Finding> {
    let between = |pins: &[Pin]| {
        let (from, to) = (pins[0].station, pins[1].station);
        let steepest = |edge: &crate::change::Curve| edge.steepest(from.0.cm(), to.0.cm());
        Kink { steepest: steepest(&line.front).max(steepest(&line.back)), from, to }
    };
    let all = line.pins.windows(2).map(between);
    let kink = all.reduce(|a, b| if b.steepest > a.steepest { b } else { a })?;
    let outcome = if kink.steepest > KINK { Outcome::Caution } else { Outcome::Passes };
    Some(Finding::new(seam.finding(Rule::Kink, side), outcome, Found::Kink(kink)).at(kink.from))
}
