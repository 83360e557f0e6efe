//! Elastic drawn into a stretch of waistband, where no seam can take the waist in: small amounts, casual cloth.

use super::input::{ElasticAt, ElasticChange};
use crate::change::{Drawn, On, Term, Wrongs};
use crate::fault::Wrong;
use crate::fitting::GarmentSide;
use crate::garment::Garment;
use crate::length::{Length, Tape, Taught};
use crate::place::Level;

/// Stretched ÷ relaxed when nobody says otherwise: 1.15 (teaching value: holds without digging in).
pub const HOLD_PERCENT: u8 = 115;
/// The holds that can be chosen: below 1.10 it does not hold, above 1.25 it digs in (teaching values).
pub const HOLDS_PERCENT: [u8; 2] = [110, 125];
/// What each end needs to be sewn down: 1 cm (teaching value).
pub const ANCHOR: Taught = Taught::new(10, 24);

/// Elastic as it was entered: what it comes to depends on what the waist will measure, so it is worked out once that is known.
#[derive(Clone, Copy, Debug)]
pub struct CasedElastic<'a> {
    /// What was entered.
    pub change: &'a ElasticChange,
}

impl CasedElastic<'_> {
    /// Where it is.
    pub const fn key(&self) -> ElasticAt {
        self.change.at
    }
}

impl Drawn for CasedElastic<'_> {
    fn is_altered(&self) -> bool {
        self.change.casing.is_some()
    }

    /// It gathers cloth and takes none away.
    fn takes(&self, _: &Garment, _: Level, _: Length, _: &[GarmentSide], _: Tape) -> Vec<Term> {
        Vec::new()
    }
}

/// Every elastic that was entered.
///
/// # Errors
/// Each with the number of its change and the field that is wrong.
pub(crate) fn draw<'a>(
    _: On<'a>,
    changes: &[(usize, &'a ElasticChange)],
) -> Result<Vec<CasedElastic<'a>>, Wrongs> {
    let mut faults = Vec::new();
    for &(number, change) in changes {
        if let Some(found) = change.casing.filter(|casing| casing.length <= Length::ZERO) {
            faults.push((number, "casing".into(), Wrong::NotPositive { found }));
        }
        let [least, most] = HOLDS_PERCENT;
        if let Some(percent) = change.hold_percent.filter(|percent| !(least..=most).contains(percent)) {
            faults.push((number, "hold_percent".into(), Wrong::NotAHold { percent }));
        }
    }
    let drawn = changes.iter().map(|&(_, change)| CasedElastic { change });
    if faults.is_empty() { Ok(drawn.collect()) } else { Err(faults) }
}

/// What the elastic comes to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct ElasticSum {
    /// From slit to slit.
    pub casing: Length,
    /// How much wider the waist is than the body.
    pub excess: Length,
    /// What the elastic spans when worn: casing − excess.
    pub spans: Length,
    /// What to cut: spans ÷ hold, and an anchor at each end.
    pub cut: Length,
    /// Stretched ÷ relaxed, in percent.
    pub hold_percent: u8,
}

impl ElasticSum {
    /// How much cloth the casing gathers: casing ÷ span.
    pub fn gathers(&self) -> f64 {
        self.casing.cm() / self.spans.cm()
    }

    /// Up to 1.25 the gathers lie flat under a belt (teaching value).
    pub fn gathers_too_much(&self) -> bool {
        self.casing * 4 > self.spans * 5
    }
}

/// What elastic to cut, at the marks of a tape, for a waist of `garment` girth on a `body` girth. Nothing where the casing is no longer than what is too wide: it
/// would have to shrink to nought.
pub fn elastic_sum(change: &ElasticChange, garment: Length, body: Length, tape: Tape) -> Option<ElasticSum> {
    let casing = tape.round(change.casing?.length);
    let excess = garment - body;
    let spans = casing - excess;
    if spans <= Length::ZERO {
        return None;
    }
    let hold_percent = change.hold_percent.unwrap_or(HOLD_PERCENT);
    let cut = tape.round(spans.fraction(100, i64::from(hold_percent)) + ANCHOR.on(tape) * 2);
    Some(ElasticSum { casing, excess, spans, cut, hold_percent })
}

#[cfg(test)]
mod tests {
    use super::*;

    use crate::length::Measure;

    fn m(text: &str) -> Measure {
        text.parse().unwrap()
    }

    #[test]
    fn worked_example_c() {
        let plan = ElasticChange { at: ElasticAt::Waistband, casing: Some(m("42 cm")), hold_percent: None };
        let sum = elastic_sum(&plan, m("88 cm").length, m("83 cm").length, Tape::Cm).unwrap();
        assert_eq!(sum.spans, m("37 cm").length);
        assert_eq!(crate::length::Tape::Cm.show(sum.cut), "34.2 cm");
        assert_eq!(format!("{:.2}", sum.gathers()), "1.14");
        assert!(!sum.gathers_too_much());
    }

    #[test]
    fn a_casing_no_longer_than_the_excess_is_refused() {
        let with = |casing: &str| {
            let plan =
                ElasticChange { at: ElasticAt::Waistband, casing: Some(m(casing)), hold_percent: Some(110) };
            elastic_sum(&plan, m("96 cm").length, m("83 cm").length, Tape::Cm)
        };
        assert!(with("13 cm").is_none());
        assert!(with("20 cm").unwrap().gathers_too_much());
    }
}
