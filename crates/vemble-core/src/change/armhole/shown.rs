//! An armhole and its sleeve in figures and words.

use super::AlteredArmhole;
use super::facing::{Facing, WIDE};
use super::input::ArmholeField;
use super::sum::at_a_mark;
use super::told::{LEAVES_OUT, armhole_words, ease_words, where_it_goes};
use crate::change::Drawn;
use crate::figure::Picture;
use crate::garment::Seam;
use crate::judge::Subject;
use crate::length::{Figure, Length, Tape};
use crate::shown::{Show, Shown};
use crate::told::Teller;
use serde::Serialize;
use utoipa::ToSchema;

/// An armhole and its sleeve, as they are shown.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SolvedArmhole {
    /// What was typed, field by field, on the tape.
    pub typed: Vec<TypedLength>,
    /// Everything that changes, now and then.
    pub lines: Vec<NowAndThen>,
    /// Where the ease of the cap goes; nothing without a sleeve.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub ease_goes: Option<String>,
    /// What can be entered.
    pub asks: Vec<ArmholeField>,
    /// A sleeve is set into it.
    pub has_sleeve: bool,
    /// How far the arm goes up, now and then; nothing where there is no cap.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lift: Option<String>,
    /// What that is counted from, and what it leaves out.
    pub leaves_out: &'static str,
    /// The armhole and the cap laid flat, old and new.
    pub picture: Picture,
    /// What is cut anew where no sleeve is set in: in front and behind.
    #[serde(skip)]
    pub facings: Vec<Facing>,
    /// There is something to chalk.
    #[serde(skip)]
    is_altered: bool,
}

/// A length that was typed.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct TypedLength {
    /// The field.
    pub field: ArmholeField,
    /// What it shows.
    pub figure: Figure,
}

/// A figure as it is and as it will be.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct NowAndThen {
    /// What.
    pub name: &'static str,
    /// As it is.
    pub now: String,
    /// As it will be.
    pub then: String,
}

impl Shown for SolvedArmhole {
    fn has_card(&self) -> bool {
        self.is_altered
    }
}

impl Show for AlteredArmhole<'_> {
    type Shown = SolvedArmhole;

    fn show(&self, subject: &Subject<'_>, tape: Tape) -> SolvedArmhole {
        let (sums, to, change) = (self.sums(tape), Teller::of(subject.garment, tape), self.change);
        let asks =
            || ArmholeField::ALL.iter().copied().filter(|field| self.has_sleeve || !field.is_of_sleeve());
        let typed = asks()
            .filter_map(|field| Some(TypedLength { field, figure: tape.figure(change.get(field)?.length) }));
        let high = |n: usize| sums.high[n].map_or_else(|| "none".into(), |high| to.show(high));
        let line = |name, of: &dyn Fn(usize) -> String| NowAndThen { name, now: of(0), then: of(1) };
        let shoulder = self.shoulder(subject);
        let mut lines: Vec<NowAndThen> = shoulder
            .map(|seam| {
                let of = |n: usize| {
                    to.show(seam - if n == 0 { Length::ZERO } else { at_a_mark(change.shorten, tape) })
                };
                line("shoulder seam", &of)
            })
            .into_iter()
            .collect();
        lines.push(line("armhole", &|n| armhole_words(&sums, n, &to)));
        if self.has_sleeve {
            lines.extend([
                line("cap and armhole", &|n| ease_words(&sums, n, &to)),
                line("height of the cap", &high),
                line("round the upper arm", &|n| to.show(sums.wide[n])),
            ]);
        }
        lines.push(line("below the hinge of the arm", &|n| to.show(sums.drop[n])));
        let lift = sums.lift[0].zip(sums.lift[1]);
        SolvedArmhole {
            typed: typed.collect(),
            lines,
            ease_goes: self.has_sleeve.then(|| where_it_goes(&sums, self.cap_ease.most.on(tape), &to)),
            asks: asks().collect(),
            has_sleeve: self.has_sleeve,
            lift: lift.map(|(before, after)| {
                format!("The arm goes up to {after}° before the body is dragged, {before}° now.")
            }),
            leaves_out: LEAVES_OUT,
            picture: self.picture(tape),
            facings: self.facings(subject),
            is_altered: self.is_altered(),
        }
    }
}

impl AlteredArmhole<'_> {
    /// The facings of an armhole without a sleeve, for its new edges.
    fn facings(&self, subject: &Subject<'_>) -> Vec<Facing> {
        let Some(seam) = subject.garment.seam(Seam::ArmholeSeam).filter(|_| !self.has_sleeve) else {
            return Vec::new();
        };
        let [wide, allowance] =
            [WIDE.on(subject.tape), subject.tape.round(seam.allowance.length)].map(Length::cm);
        let edges = [("front facing", self.new.front_edge()), ("back facing", self.new.back_edge())];
        edges.into_iter().map(|(name, edge)| Facing::along(name, &edge, wide, allowance)).collect()
    }
}
