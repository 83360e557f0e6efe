//! Elastic drawn into a stretch of waistband, where no seam can take the waist in: small amounts, casual cloth.

use crate::fitting::ElasticPlan;
use crate::length::{Length, Measure, Tape, adjusted_words};

/// Stretched ÷ relaxed when nobody says otherwise: 1.15 (teaching value: holds without digging in).
pub const HOLD_PERCENT: u8 = 115;
/// The holds that can be chosen: below 1.10 it does not hold, above 1.25 it digs in (teaching values).
pub const HOLDS_PERCENT: [u8; 2] = [110, 125];
/// What each end needs to be sewn down: 1 cm (teaching value).
pub const ANCHOR: Length = Length::from_mm(10);

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

/// Casing, garment and body as they are shown, so that casing − (garment − body) is what is shown of the span; the last is a word
/// where that took an adjustment.
pub(crate) fn shown(sum: &ElasticSum, garment: Length, body: Length, tape: Tape) -> [String; 5] {
    let (parts, adjusted) = tape.apportion(&[sum.casing, -garment, body]);
    let spans = parts.iter().copied().sum();
    [
        tape.bare(parts[0]),
        tape.bare(-parts[1]),
        tape.bare(parts[2]),
        tape.show(spans),
        adjusted_words(adjusted).into(),
    ]
}

/// What elastic to cut for a waist of `garment` girth on a `body` girth. Nothing where the casing is no longer than what is too wide: it
/// would have to shrink to nought.
pub fn elastic_sum(plan: &ElasticPlan, garment: Length, body: Length) -> Option<ElasticSum> {
    let Measure { length: casing, .. } = plan.casing;
    let excess = garment - body;
    let spans = casing - excess;
    if spans <= Length::ZERO {
        return None;
    }
    let hold_percent = plan.hold_percent.unwrap_or(HOLD_PERCENT);
    let cut = spans.fraction(100, i64::from(hold_percent)) + ANCHOR * 2;
    Some(ElasticSum { casing, excess, spans, cut, hold_percent })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn m(text: &str) -> Measure {
        text.parse().unwrap()
    }

    #[test]
    fn worked_example_c() {
        let plan = ElasticPlan { casing: m("42 cm"), hold_percent: None };
        let sum = elastic_sum(&plan, m("88 cm").length, m("83 cm").length).unwrap();
        assert_eq!(sum.spans, m("37 cm").length);
        assert_eq!(crate::length::Tape::Cm.show(sum.cut), "34.2 cm");
        assert_eq!(format!("{:.2}", sum.gathers()), "1.14");
        assert!(!sum.gathers_too_much());
    }

    #[test]
    fn a_casing_no_longer_than_the_excess_is_refused() {
        let with = |casing: &str| {
            let plan = ElasticPlan { casing: m(casing), hold_percent: Some(110) };
            elastic_sum(&plan, m("96 cm").length, m("83 cm").length)
        };
        assert!(with("13 cm").is_none());
        assert!(with("20 cm").unwrap().gathers_too_much());
    }
}
