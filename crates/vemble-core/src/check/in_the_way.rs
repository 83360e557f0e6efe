//! Things in the way: what an altered stretch crosses has to be unpicked first.

use super::{Check, Outcome, Rule, Subject};
use crate::length::Station;

pub(super) fn checks(subject: &Subject<'_>) -> impl Iterator<Item = Check> {
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
                .remedy("Unpick it first and put it back after, or end the line below it.")
                .at(seam.facts.seam, from, subject.tape)
        })
    })
}
