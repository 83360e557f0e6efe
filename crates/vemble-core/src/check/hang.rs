//! Grain and hang: too much from one seam tips the cloth's grain or drags other seams round.

use super::{Check, Outcome, Rule, Subject};
use crate::fitting::GarmentSide;
use crate::garment::Level;
use crate::length::{Length, Station};

/// From one seam of a leg or sleeve, per edge (teaching value: beyond it the grain visibly tips).
const LEG_EDGE: Length = Length::from_mm(25);
/// At one seam of a waist, whole (teaching value: beyond it pockets and side seams are dragged to it).
const WAIST_WHOLE: Length = Length::from_mm(40);
/// At bust or hip altogether, whole (teaching value: two sizes).
const RECUT_WHOLE: Length = Length::from_mm(60);

pub(super) fn checks(subject: &Subject<'_>) -> impl Iterator<Item = Check> {
    let grain = subject.lines().filter_map(|(seam, line, side)| {
        let (from, to) = line.span()?;
        let crotch = subject.garment.levels.iter().find(|l| l.level == Level::Thigh);
        let top = crotch.map_or(to, |l| to.min(Station(l.station.length)));
        if from >= top {
            return None;
        }
        let (low, high) = line.front.range(from.0.cm(), top.0.cm());
        let (low_back, high_back) = line.back.range(from.0.cm(), top.0.cm());
        let deepest = Length::from_cm(high.max(high_back).max(-low).max(-low_back));
        let outcome = if deepest > LEG_EDGE { Outcome::Caution } else { Outcome::Passes };
        let figures = format!("{} per edge from one seam of the leg", subject.show(deepest));
        let reason = match outcome {
            Outcome::Passes => format!("Up to {} per edge the leg hangs straight.", subject.show(LEG_EDGE)),
            _ => format!("Over {} per edge the grain tips and the leg twists.", subject.show(LEG_EDGE)),
        };
        let other = match seam.facts.seam {
            crate::garment::Seam::Outseam => "inseam",
            crate::garment::Seam::Inseam => "outseam",
        };
        let title = format!("Grain of the leg, {side}");
        let check = Check::new(outcome, Rule::Hang, title, figures, reason);
        let half = subject.show(deepest.fraction(1, 2));
        Some(check.remedy(format!("Split it with the {other}: {half} per edge on each.")).at(
            seam.facts.seam,
            from,
            subject.tape,
        ))
    });
    let whole = subject.garment.levels.iter().filter_map(|level| {
        let station = Station(level.station.length);
        let at = |side| subject.seams.iter().map(move |s| s.line(side).whole(station).0);
        let (most, title, remedy) = match level.level {
            Level::Waist => (WAIST_WHOLE, "Hang of the waist", "Split it over more seams."),
            Level::Hip => (RECUT_WHOLE, "Hang at the hip", "Consider recutting: this is about two sizes."),
            _ => return None,
        };
        let off: Length = match level.level {
            Level::Waist => at(GarmentSide::Left).chain(at(GarmentSide::Right)).max()?,
            _ => at(GarmentSide::Left).chain(at(GarmentSide::Right)).sum(),
        };
        let figures = format!("{} altogether", subject.show(off));
        let reason = format!("Over {} drags pockets and seams out of place.", subject.show(most));
        (off > most)
            .then(|| Check::new(Outcome::Caution, Rule::Hang, title.into(), figures, reason).remedy(remedy))
    });
    grain.chain(whole)
}
