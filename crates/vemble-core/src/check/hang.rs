//! Grain and hang: too much from one seam tips the cloth's grain or drags other seams round.

use super::{Check, Outcome, Rule, Subject};
use crate::fitting::GarmentSide;
use crate::garment::{Level, Run, Seam};
use crate::length::{Length, Station};

/// From one seam of a leg or sleeve, per edge (teaching value: beyond it the grain visibly tips).
const LIMB_EDGE: Length = Length::from_mm(25);
/// At one seam of a waist, whole (teaching value: beyond it pockets and side seams are dragged to it).
const WAIST_WHOLE: Length = Length::from_mm(40);
/// At bust or hip altogether, whole (teaching value: two sizes).
const RECUT_WHOLE: Length = Length::from_mm(60);

pub(super) fn checks(subject: &Subject<'_>) -> impl Iterator<Item = Check> {
    let grain = subject.lines().filter_map(|(seam, line, side)| {
        let (from, to) = line.span()?;
        let (limb, top, other) = limb(subject, seam.facts.seam)?;
        let top = to.min(top.unwrap_or(to));
        if from >= top {
            return None;
        }
        let deepest = line.deepest_between(from, top);
        let outcome = if deepest > LIMB_EDGE { Outcome::Caution } else { Outcome::Passes };
        let figures = format!("{} per edge from one seam of the {limb}", subject.show(deepest));
        let reason = match outcome {
            Outcome::Passes => {
                format!("Up to {} per edge the {limb} hangs straight.", subject.show(LIMB_EDGE))
            }
            _ => format!("Over {} per edge the grain tips and the {limb} twists.", subject.show(LIMB_EDGE)),
        };
        let check = Check::new(
            outcome,
            Rule::Hang,
            format!("Grain of the {limb} at the {}, {side}", seam.facts.name()),
            figures,
            reason,
        );
        let half = deepest.fraction(1, 2);
        Some(
            check
                .remedy(|| format!("Split it with the {other}: {} per edge on each.", subject.show(half)))
                .at(seam.facts.seam, from, subject.tape),
        )
    });
    let whole = subject.garment.levels.iter().filter_map(move |level| {
        let at = |side| {
            subject
                .seams
                .iter()
                .filter(move |s| side == GarmentSide::Left || !s.facts.seam.is_single())
                .filter_map(move |s| {
                    let station = subject.garment.station_on(s.facts.seam, level.level)?;
                    Some(s.line(side).whole(Station(station)).0)
                })
        };
        let (most, title, remedy) = match level.level {
            Level::Waist => (WAIST_WHOLE, "Hang of the waist", "Split it over more seams."),
            Level::Hip => (RECUT_WHOLE, "Hang at the hip", "Consider recutting: this is about two sizes."),
            Level::Bust => (RECUT_WHOLE, "Hang at the bust", "Consider recutting: this is about two sizes."),
            _ => return None,
        };
        let off: Length = match level.level {
            Level::Waist => at(GarmentSide::Left).chain(at(GarmentSide::Right)).max()?,
            _ => at(GarmentSide::Left).chain(at(GarmentSide::Right)).sum(),
        };
        (off > most).then(|| {
            let figures = format!("{} altogether", subject.show(off));
            let reason = format!("Over {} drags pockets and seams out of place.", subject.show(most));
            Check::new(Outcome::Caution, Rule::Hang, title.into(), figures, reason).remedy(|| remedy)
        })
    });
    grain.chain(whole)
}

/// Which limb a seam belongs to, how far up it that counts, and the seam it can be shared with.
fn limb(subject: &Subject<'_>, seam: Seam) -> Option<(&'static str, Option<Station>, &'static str)> {
    let crotch = || subject.garment.station_on(seam, Level::Thigh).map(Station);
    Some(match seam {
        Seam::Outseam if subject.garment.has_legs() => ("leg", crotch(), Seam::Inseam.name()),
        Seam::Inseam => ("leg", crotch(), Seam::Outseam.name()),
        _ if seam.run() == Run::DownSleeve => ("sleeve", None, "sleeve's other seam"),
        _ => return None,
    })
}
