//! Elastic in figures and words.

use super::{ANCHOR, CasedElastic, HOLD_PERCENT, HOLDS_PERCENT, elastic_sum};
use crate::judge::Subject;
use crate::length::{Figure, Tape};
use crate::shown::{Show, Shown};
use serde::Serialize;
use utoipa::ToSchema;

/// Elastic drawn into a stretch of waistband.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedElastic {
    /// From slit to slit, once somebody said so.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub casing: Option<Figure>,
    /// Stretched ÷ relaxed, in percent: as chosen, or the usual one.
    pub hold_percent: u8,
    /// The holds that can be chosen, from and to.
    pub holds_percent: [u8; 2],
    /// What it spans when worn; nothing where the casing is too short or a girth is not known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub spans: Option<Figure>,
    /// What to cut, anchors and all.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cut: Option<Figure>,
    /// How that comes about.
    pub sum: String,
}

impl Shown for SolvedElastic {
    fn has_card(&self) -> bool {
        self.cut.is_some()
    }
}

impl Show for CasedElastic<'_> {
    type Shown = SolvedElastic;

    fn show(&self, subject: &Subject<'_>, tape: Tape) -> SolvedElastic {
        let known = self.waist(subject);
        let sum = known.and_then(|(garment, body)| {
            Some((elastic_sum(self.change, garment, body, subject.tape)?, garment, body))
        });
        SolvedElastic {
            casing: self.change.casing.map(|casing| tape.figure(casing.length)),
            hold_percent: self.change.hold_percent.unwrap_or(HOLD_PERCENT),
            holds_percent: HOLDS_PERCENT,
            spans: sum.map(|(s, ..)| tape.figure(s.spans)),
            cut: sum.map(|(s, ..)| tape.figure(s.cut)),
            sum: sum.map_or_else(String::new, |(s, garment, body)| {
                format!(
                    "{} − ({} − {}) = {} spans; {} ÷ {}.{:02} + 2 anchors × {} = {} to cut",
                    tape.bare(s.casing),
                    tape.bare(garment),
                    tape.bare(body),
                    tape.show(s.spans),
                    tape.bare(s.spans),
                    s.hold_percent / 100,
                    s.hold_percent % 100,
                    tape.bare(ANCHOR.on(tape)),
                    tape.show(s.cut)
                )
            }),
        }
    }
}
