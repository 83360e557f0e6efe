//! Run-out and kinks: a line that ends or bends too fast leaves a bubble.

use super::{Check, Outcome, Rule, Subject};
use crate::length::{Length, Station};
use crate::line::{AlteredSeam, End, StitchingLine};

/// Between two pins a change steeper than 1 : 4 is a kink (teaching value: no iron presses it flat).
const KINK: f64 = 0.25;

pub(super) fn checks(subject: &Subject<'_>) -> impl Iterator<Item = Check> {
    subject.lines().flat_map(|(seam, line, side)| {
        let ends = [(seam.ends.lower, line.pins.first(), -1), (seam.ends.upper, line.pins.last(), 1)];
        let run_outs = ends.into_iter().filter_map(|(end, pin, up)| {
            let End::MeetsOldStitching { station } = end else { return None };
            run_out(subject, seam, line, side, (pin?.station, Station(station.length), up))
        });
        let all =
            run_outs.chain(kink(subject, seam, line, side)).chain(carried_on(subject, seam, line, side));
        all.collect::<Vec<_>>()
    })
}

/// Run-out length ÷ offset: safe at the cloth's figure, may poke down to half of it, will poke below.
fn run_out(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    line: &StitchingLine,
    side: &str,
    (pin, meets, up): (Station, Station, i64),
) -> Option<Check> {
    let offset = line.deepest(pin);
    if offset < Length::from_nm(50_000) {
        return None;
    }
    let cloth = &subject.garment.cloth;
    let run = (meets.0 - pin.0) * up;
    let ratio = run.cm() / offset.cm();
    let safe = cloth.safe_run_out();
    let (outcome, reason) = match ratio {
        r if r >= safe as f64 => (Outcome::Passes, format!("{safe} or more lies flat in this cloth.")),
        r if r * 2.0 >= safe as f64 => (Outcome::Caution, format!("Under {safe} it may poke at its tip.")),
        _ => (Outcome::Stop, format!("Under {} it will poke at its tip.", safe / 2)),
    };
    let [long, each, times] = subject.tape.quotient(run, offset);
    let unit = subject.tape.unit_name();
    let figures = format!("{long} {unit} long ÷ {each} {unit} per edge = {times}");
    let wanted = pin.0 + (offset * safe).up_to(subject.tape.mark()) * up;
    let fits = !wanted.is_negative() && wanted <= seam.facts.length.length;
    let remedy = || match fits {
        true => format!("Let it meet the old stitching at {}.", subject.show(wanted)),
        false => format!(
            "The seam is too short for {}: take less at the last pin, or run off the edge.",
            subject.show(offset * safe)
        ),
    };
    let title = format!("Run-out of the {}, {side}", seam.facts.name());
    let check = Check::new(outcome, Rule::RunOut, title, figures, reason).remedy(remedy);
    Some(check.at(seam.facts.seam, meets, subject.tape))
}

fn kink(subject: &Subject<'_>, seam: &AlteredSeam<'_>, line: &StitchingLine, side: &str) -> Option<Check> {
    let steepness = |w: &[crate::line::Pin]| {
        let (from, to) = (w[0].station.0.cm(), w[1].station.0.cm());
        (line.front.steepest(from, to).max(line.back.steepest(from, to)), w[0].station, w[1].station)
    };
    let (steepest, from, to) =
        line.pins.windows(2).map(steepness).reduce(|a, b| if b.0 > a.0 { b } else { a })?;
    let outcome = if steepest > KINK { Outcome::Caution } else { Outcome::Passes };
    let run = if steepest > 0.0 { format!("1 : {:.1}", 1.0 / steepest) } else { "level".into() };
    let figures = format!("steepest {run}, between {} and {}", subject.tape.bare(from.0), subject.show(to.0));
    let reason = if steepest > KINK { "Steeper than 1 : 4 is a kink." } else { "No steeper than 1 : 4." };
    let title = format!("Bends of the {}, {side}", seam.facts.name());
    let check = Check::new(outcome, Rule::Kink, title, figures, reason);
    let remedy = "Look at these two pins again, or let the smooth line pass further beside them.";
    Some(check.remedy(|| remedy).at(seam.facts.seam, from, subject.tape))
}

/// Where the slope carries on to an edge nobody pinned, and passes the largest pin on its way.
fn carried_on(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    line: &StitchingLine,
    side: &str,
) -> Option<Check> {
    let (from, to) = line.span()?;
    let largest = line.pins.iter().map(|p| p.edges.front.0.abs().max(p.edges.back.0.abs())).max()?;
    let ends = [(seam.ends.lower, from, line.pins.first()?), (seam.ends.upper, to, line.pins.last()?)];
    let (edge, pin) = ends.into_iter().find_map(|(end, edge, pin)| {
        let beyond = matches!(end, End::RunsOff {}) && line.deepest(edge) > largest + seam.tolerance;
        beyond.then_some((edge, pin))
    })?;
    let title = format!("Carried on to the edge, {side}");
    let figures = format!(
        "{} per edge at {}; the last pin, at {}, has {}",
        subject.show(line.deepest(edge)),
        subject.show(edge.0),
        subject.show(pin.station.0),
        subject.show(line.deepest(pin.station))
    );
    let reason = "Nobody pinned there: the slope of the last pins is carried on.";
    let check = Check::new(Outcome::Caution, Rule::CarriedOn, title, figures, reason);
    Some(check.remedy(|| "Put a pin at the edge.").at(seam.facts.seam, edge, subject.tape))
}
