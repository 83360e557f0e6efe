//! Fastenings: whether they fit, and whether the edge stays closed between them.

use super::input::{Spaced, SpacingChange};
use super::spaced::{SpacedFastenings, SpacingSums, Unspaced};
use crate::change::{Change, ChangeKey};
use crate::fitting::GarmentSide;
use crate::garment::{Closure, HemEdge, Opening};
use crate::judge::{Finding, FindingKey, Judge, Outcome, Rule, Subject};
use crate::length::{Length, Taught};
use crate::place::Level;

/// So near the bust line a button holds it closed: 2 cm, 3/4 in (teaching value).
const AT_THE_BUST: Taught = Taught::new(20, 48);

/// The figures that findings about fastenings rest on.
#[derive(Clone, Debug)]
pub(crate) enum Found {
    /// Where they come to stand.
    Comes { sums: SpacingSums, closure: Closure },
    /// Nothing can be spaced.
    Cannot { sums: SpacingSums, why: Unspaced },
    /// Of two that were to stand astride a line one alone does.
    HalfAstride { line: Length },
    /// No button near the bust line.
    Gapes { line: Length, nearest: Length },
}

impl Judge for SpacedFastenings<'_> {
    fn judge(&self, subject: &Subject<'_>) -> Vec<Finding> {
        let Some(sums) = self.sums(subject) else { return Vec::new() };
        let mut all = Vec::new();
        let finding = |rule, outcome, found| {
            Finding::new(FindingKey::about(rule, ChangeKey::Spacing(self.key())), outcome, found)
        };
        match &sums.places {
            Err(why) => {
                let found = Found::Cannot { sums: sums.clone(), why: *why };
                let evenly = self.change.how == Spaced::Evenly;
                let fewer = if let Unspaced::TooClose { most, .. } = why { Some(*most) } else { None };
                let fewer = fewer.filter(|_| evenly);
                all.push(finding(Rule::Spacing, Outcome::Stop, found).mended(|| {
                    fewer.map(|most| self.with(|change| (change.count, change.apart) = (Some(most), None)))
                }));
            }
            Ok(_) => {
                let wide = sums.apart().is_some_and(|[_, most]| most > sums.widest);
                let outcome = if wide { Outcome::Caution } else { Outcome::Passes };
                let found = Found::Comes { sums: sums.clone(), closure: self.closure };
                let more = self.change.how == Spaced::Evenly && wide;
                all.push(finding(Rule::Spacing, outcome, found).mended(|| {
                    let wanted = super::places::gaps(sums.run(), sums.widest);
                    let needed = wanted + i64::from(sums.run() > sums.widest * wanted);
                    let count = u8::try_from(needed + 1).ok().filter(|_| more);
                    count.map(|count| self.with(|change| (change.count, change.apart) = (Some(count), None)))
                }));
                all.extend(self.astride(&sums, &finding));
                all.extend(self.gapes(subject, &sums, &finding));
            }
        }
        all
    }
}

impl SpacedFastenings<'_> {
    /// What the hem takes off the edge.
    fn off(&self, subject: &Subject<'_>) -> Length {
        let part = match self.key() {
            Opening::CentreFront => 0.0,
            Opening::LeftSide => 0.25,
            Opening::CentreBack | Opening::Waist | Opening::Cuff => 0.5,
        };
        let hem =
            subject.hems().find(|hem| hem.key() == HemEdge::Body && self.ends_in_the_hem(subject.garment));
        hem.and_then(|hem| Some(hem.ring(GarmentSide::Left)?.chalked(part, subject.tape))).unwrap_or_default()
    }

    /// How far below the top a level of the body lies, where the edge ends in the hem.
    fn line_of(&self, level: Level, subject: &Subject<'_>) -> Option<Length> {
        let at = |level| subject.garment.level(level).map(|l| subject.tape.round(l.station.length));
        let edge = subject.tape.round(self.change.edge?.length);
        let line = edge - (at(level)? - at(Level::Hem)?);
        (self.ends_in_the_hem(subject.garment) && !line.is_negative()).then_some(line)
    }

    /// What it comes to; nothing while nobody said how long the edge is.
    pub(crate) fn sums(&self, subject: &Subject<'_>) -> Option<SpacingSums> {
        let level = match self.change.how {
            Spaced::Evenly | Spaced::Kept => None,
            Spaced::OnTheLine => Some(Level::Bust),
            Spaced::Straddling => Some(Level::Waist),
        };
        let typed = self.change.line.map(|m| subject.tape.round(m.length));
        let line = level.and_then(|level| typed.or_else(|| self.line_of(level, subject)));
        self.on(subject.garment, self.off(subject), line, subject.tape)
    }

    fn with(&self, set: impl FnOnce(&mut SpacingChange)) -> Change {
        let mut change = self.change.clone();
        set(&mut change);
        Change::Spacing(change)
    }

    fn astride(
        &self,
        sums: &SpacingSums,
        finding: &dyn Fn(Rule, Outcome, Found) -> Finding,
    ) -> Option<Finding> {
        let line = sums.line.filter(|_| self.change.how == Spaced::Straddling)?;
        let placed = sums.placed();
        let astride = placed.windows(2).any(|pair| pair[0] < line && line < pair[1]);
        (!astride).then(|| finding(Rule::Placement, Outcome::Caution, Found::HalfAstride { line }))
    }

    /// Between buttons a front gapes where it is drawn tightest.
    fn gapes(
        &self,
        subject: &Subject<'_>,
        sums: &SpacingSums,
        finding: &dyn Fn(Rule, Outcome, Found) -> Finding,
    ) -> Option<Finding> {
        let buttons = self.closure == Closure::Buttons && self.key() == Opening::CentreFront;
        let line = self.line_of(Level::Bust, subject).filter(|_| buttons)?;
        let placed = sums.placed();
        let within = placed.first()? < &line && line <= sums.new_edge() - sums.last;
        let nearest = placed.iter().map(|place| (*place - line).abs()).min()?;
        let near = nearest <= AT_THE_BUST.on(subject.tape);
        let outcome = if near { Outcome::Passes } else { Outcome::Caution };
        within.then(|| {
            finding(Rule::Placement, outcome, Found::Gapes { line, nearest }).mended(|| {
                let anchored = self.with(|change| (change.how, change.line) = (Spaced::OnTheLine, None));
                (self.change.how != Spaced::OnTheLine).then_some(anchored)
            })
        })
    }
}
