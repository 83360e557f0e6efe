//! The allowance: what a seam can give when it is let out, and what stays inside when it is taken in.

use super::{Check, Outcome, Rule, Subject};
use crate::length::Length;

/// More than this kept inside shows as bulk: 3.8 cm (teaching value: about an inch and a half).
const BULKY: Length = Length::from_mm(38);

pub(super) fn checks(subject: &Subject<'_>) -> impl Iterator<Item = Check> {
    subject.lines().filter_map(|(seam, line, side)| {
        let (from, to) = line.span()?;
        let (front, back) =
            (line.front.range(from.0.cm(), to.0.cm()), line.back.range(from.0.cm(), to.0.cm()));
        let least = Length::from_cm(front.0.min(back.0));
        let most = Length::from_cm(front.1.max(back.1));
        let allowance = seam.facts.least_allowance().length;
        let name = seam.facts.name();
        if least < -Length::from_nm(50_000) {
            let gives = allowance - subject.garment.cloth.keep();
            let short = -least - gives;
            let figures = format!(
                "{} allowance − {} to keep = {} to give per edge; let out by {}",
                subject.tape.bare(allowance),
                subject.tape.bare(subject.garment.cloth.keep()),
                subject.show(gives),
                subject.show(-least)
            );
            let (outcome, reason) = match short > Length::ZERO {
                true => (
                    Outcome::Stop,
                    format!("Short by {} per edge.", subject.show(short.up_to(subject.tape.mark()))),
                ),
                false if seam.facts.clipped => {
                    (Outcome::Caution, "The allowance is clipped: it gives only to the clip.".into())
                }
                false => (Outcome::Passes, "The seam has it to give.".into()),
            };
            let panel = (short * 2).up_to(subject.tape.mark());
            return Some(
                Check::new(
                    outcome,
                    Rule::Capacity,
                    format!("Letting out the {name}, {side}"),
                    figures,
                    reason,
                )
                .remedy(format!(
                    "Set in a strip {} wide plus two allowances, or let out other seams too.",
                    subject.show(panel)
                ))
                .at(seam.facts.seam, from, subject.tape),
            );
        }
        let kept = match seam.alteration.trim_to {
            Some(trim) => trim.length,
            None => allowance + most,
        };
        let figures = match seam.alteration.trim_to {
            Some(trim) => format!("trimmed to {} per edge, after the next try-on", subject.show(trim.length)),
            None => format!(
                "{} allowance + {} taken in = {} kept per edge",
                subject.tape.bare(allowance),
                subject.tape.bare(most),
                subject.show(kept)
            ),
        };
        let (outcome, reason) = match (kept > BULKY, seam.alteration.trim_to.is_some()) {
            (true, _) => {
                (Outcome::Caution, format!("Over {} kept inside shows as bulk.", subject.show(BULKY)))
            }
            (false, true) => (Outcome::Passes, "What is trimmed cannot be let out again.".into()),
            (false, false) => (Outcome::Passes, "All of it can be let out again.".into()),
        };
        Some(
            Check::new(outcome, Rule::Kept, format!("What stays inside the {name}, {side}"), figures, reason)
                .remedy("Trim it after the next try-on, not before.")
                .at(seam.facts.seam, from, subject.tape),
        )
    })
}
