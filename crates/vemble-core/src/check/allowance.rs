//! The allowance: what a seam can give when it is let out, and what stays inside when it is taken in.

use super::{Check, Outcome, Rule, Subject};
use crate::length::Length;

/// More than this kept inside shows as bulk: 3.8 cm (teaching value: about an inch and a half).
const BULKY: Length = Length::from_mm(38);

pub(super) fn checks(subject: &Subject<'_>) -> impl Iterator<Item = Check> {
    subject.lines().filter_map(|(seam, line, side)| {
        let (from, to) = line.span()?;
        let [front, back] = line.ranges(from, to);
        let most = Length::from_cm(front.1.max(back.1));
        let allowance = seam.facts.least_allowance().length;
        let name = seam.facts.name();
        let [one, other] = seam.facts.seam.edges().map(|edge| format!("on the {edge} edge"));
        let of_edge = [
            (&one[..], front.0, seam.facts.allowance),
            (&other[..], back.0, seam.facts.allowance_back.unwrap_or(seam.facts.allowance)),
        ];
        // The edge that is shorter of what it must give decides; where both are alike it is "per edge".
        let out = of_edge.map(|(edge, least, has)| (edge, -Length::from_cm(least), has.length));
        let alike = out[0].1 == out[1].1 && out[0].2 == out[1].2;
        let worst = if out[1].1 - out[1].2 > out[0].1 - out[0].2 { out[1] } else { out[0] };
        let (edge, let_out, has) = worst;
        let edge = if alike { "per edge" } else { edge };
        if let_out > Length::from_nm(50_000) {
            return Some(letting_out(subject, seam, (edge, let_out, has), side, from));
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
                .remedy(|| "Trim it after the next try-on, not before.")
                .at(seam.facts.seam, from, subject.tape),
        )
    })
}

/// What an edge has to give, against what is asked of it.
fn letting_out(
    subject: &Subject<'_>,
    seam: &crate::line::AlteredSeam<'_>,
    (edge, let_out, has): (&str, Length, Length),
    side: &str,
    from: crate::length::Station,
) -> Check {
    let cloth = &subject.garment.cloth;
    let gives = has - cloth.keep();
    let short = let_out - gives;
    let figures = format!(
        "{} allowance − {} to keep = {} to give {edge}; let out by {}",
        subject.tape.bare(has),
        subject.tape.bare(cloth.keep()),
        subject.show(gives),
        subject.show(let_out)
    );
    let (outcome, reason) = match short > Length::ZERO {
        true => {
            (Outcome::Stop, format!("Short by {} {edge}.", subject.show(short.up_to(subject.tape.mark()))))
        }
        false if seam.facts.clipped => {
            (Outcome::Caution, "The allowance is clipped: it gives only to the clip.".into())
        }
        false if cloth.shows_holes => {
            (Outcome::Caution, "The seam has it to give, but the old stitch holes stay visible.".into())
        }
        false => (Outcome::Passes, "The seam has it to give.".into()),
    };
    let panel = (short * 2).up_to(subject.tape.mark());
    let remedy = || match short > Length::ZERO {
        true => format!(
            "Set in a strip {} wide plus two allowances, or let out other seams too.",
            subject.show(panel)
        ),
        false => "Unpick a hidden stretch first and look at the line.".into(),
    };
    let title = format!("Letting out the {}, {side}", seam.facts.name());
    Check::new(outcome, Rule::Capacity, title, figures, reason).remedy(remedy).at(
        seam.facts.seam,
        from,
        subject.tape,
    )
}
