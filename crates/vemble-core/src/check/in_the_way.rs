//! Things in the way: what an altered stretch crosses has to be unpicked first.

use super::{Check, Outcome, Rule, Subject};
use crate::fitting::GarmentSide;
use crate::garment::Seam;
use crate::length::{Length, Station, adjusted_words};

/// Between back pockets: 2.5 cm at least (teaching value).
const POCKETS_APART: Length = Length::from_mm(25);

pub(super) fn checks(subject: &Subject<'_>) -> impl Iterator<Item = Check> {
    crossed(subject).chain(back_pockets(subject))
}

/// Back pockets come closer by all that a seam between them takes in.
fn back_pockets(subject: &Subject<'_>) -> Option<Check> {
    let pockets = subject.garment.back_pockets()?;
    let between =
        |s: &&crate::line::AlteredSeam<'_>| matches!(s.facts.seam, Seam::SeatSeam | Seam::CentreBack);
    let seam = subject.seams.iter().find(between)?;
    let (from, to) = seam.span()?;
    let line = seam.line(GarmentSide::Left);
    // They lie in the upper half of the seat.
    let middle = Station((from.0 + seam.facts.length.length).fraction(1, 2).min(to.0));
    let whole = line.whole(middle).0;
    if whole <= Length::from_nm(500_000) {
        return None;
    }
    let title = format!("Gap between the {}", pockets.name());
    let make = |outcome, figures, reason: &str| {
        Check::new(outcome, Rule::InTheWay, title.clone(), figures, reason).at(
            seam.facts.seam,
            middle,
            subject.tape,
        )
    };
    let at = format!("at {} on the {}", subject.show(middle.0), seam.facts.name());
    let pinched = format!("Under {} between them looks pinched.", subject.show(POCKETS_APART));
    let Some(apart) = subject.garment.found.back_pockets_apart.map(|m| m.length) else {
        return Some(
            make(
                Outcome::Caution,
                format!("{} closer, {at}; nobody measured the gap", subject.show(whole)),
                &pinched,
            )
            .remedy(|| {
                format!(
                    "Measure it in the look-over: with less than {} there now, take part of it elsewhere.",
                    subject.show(whole + POCKETS_APART)
                )
            }),
        );
    };
    let (parts, adjusted) = subject.tape.apportion(&[apart, -whole]);
    let figures = format!(
        "{} − {} = {} between them{}, {at}",
        subject.tape.bare(parts[0]),
        subject.tape.bare(-parts[1]),
        subject.show(parts[0] + parts[1]),
        adjusted_words(adjusted)
    );
    Some(match apart - whole < POCKETS_APART {
        true => make(Outcome::Caution, figures, &pinched).remedy(|| {
            format!(
                "Take at most {} here and the rest elsewhere, or move the pockets.",
                subject.show((apart - POCKETS_APART).max(Length::ZERO))
            )
        }),
        false => make(Outcome::Passes, figures, "Enough cloth stays between them."),
    })
}

fn crossed(subject: &Subject<'_>) -> impl Iterator<Item = Check> {
    subject.seams.iter().flat_map(|seam| {
        let span = seam.span();
        let crossed = seam.facts.in_the_way.iter().filter(move |thing| {
            span.is_some_and(|(from, to)| thing.from.length < to.0 && thing.to.length > from.0)
        });
        crossed.map(|thing| {
            let (from, to) = (Station(thing.from.length), thing.to.length);
            let title = format!("In the way: {}", thing.what);
            let figures = format!(
                "from {} to {} on the {}",
                subject.tape.bare(from.0),
                subject.show(to),
                seam.facts.name()
            );
            Check::new(Outcome::Caution, Rule::InTheWay, title, figures, "The altered stretch crosses it.")
                .remedy(|| "Unpick it first and put it back after, or end the line below it.")
                .at(seam.facts.seam, from, subject.tape)
        })
    })
}
