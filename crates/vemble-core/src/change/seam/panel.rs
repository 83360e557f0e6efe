//! A panel that is set in: as wide as what both edges of a seam let out, and sewn along its old lines. Nothing comes out of the allowances.

use super::allowance::TRIMMED;
use super::judge::Found;
use super::{AlteredSeam, SeamChange, StitchingLine, allowance};
use crate::chalk::{Row, RowSide};
use crate::change::Change;
use crate::fitting::{End, GarmentSide};
use crate::garment::{Garment, HemEdge};
use crate::judge::{Finding, FindingKey, Outcome, Partner, Rule, Subject};
use crate::length::{Length, Tape};

/// One panel, finished, and as it is cut. All at marks.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Panel {
    /// How often it is cut: once for each seam that is like this.
    pub pieces: u32,
    /// Where it is widest, from stitching to stitching.
    pub widest: Length,
    /// What the strip has room for: either edge at its furthest, which need not be at one place.
    pub room: Length,
    /// From end to end of the altered stretch.
    pub long: Length,
    /// Outside its stitching all round, but for a hem: what an edge is trimmed to holds, and lies flat.
    pub allowance: Length,
    /// What is cut beyond its lower end.
    pub below: Below,
}

/// What a panel has beyond its lower end.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Below {
    /// An allowance, as above.
    Allowance,
    /// It runs into the hem, which turns up so much; nobody measured it where that is nothing.
    Hem(Option<Length>),
}

impl Below {
    /// How far that is, with such an allowance; as far as it is known.
    pub fn of(self, allowance: Length) -> Length {
        match self {
            Self::Allowance => allowance,
            Self::Hem(turn_up) => turn_up.unwrap_or_default(),
        }
    }
}

impl Panel {
    /// How wide the strip is that it is cut from.
    pub fn cut_wide(&self) -> Length {
        self.room + self.allowance * 2
    }

    /// How long it is, as far as that is known.
    pub fn cut_long(&self) -> Length {
        self.long + self.allowance + self.below.of(self.allowance)
    }
}

/// What there is to say of a panel on one side, or on both where they are the same.
pub(super) fn judge(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    side: Option<GarmentSide>,
    line: &StitchingLine,
) -> Vec<Finding> {
    let rows = seam.rows(subject.garment, subject.tape);
    let Some((from, _)) = line.span() else { return Vec::new() };
    let Some(panel) = seam.panel_of(subject.garment, &rows, side, subject.tape) else { return Vec::new() };
    let there = rows.iter().filter_map(|row| row.of(side.unwrap_or(GarmentSide::Left)));
    let taken_in = there.map(|row| row.edges.front.0.max(row.edges.back.0)).max().unwrap_or_default();
    let key = seam.finding(Rule::Capacity, side);
    if taken_in > Length::ZERO {
        let without = || Some(Change::Seam(SeamChange { set_in: false, ..seam.change.as_ref().clone() }));
        let found = Found::PanelTakesIn(taken_in);
        return vec![Finding::new(key, Outcome::Stop, found).at(from).mended(without)];
    }
    let stops = |finding: &Finding| finding.outcome == Outcome::Stop;
    let is_needed = allowance::judge(subject, seam, side, line).iter().any(stops);
    let lets_out = Finding::new(key, Outcome::Passes, Found::Panel { panel, is_needed }).at(from);
    // A toile is pieced with whatever there is.
    let outcome = if subject.garment.toile { Outcome::Passes } else { Outcome::Caution };
    let key = FindingKey { partner: Some(Partner::OtherEdge), ..seam.finding(Rule::Partners, side) };
    vec![lets_out, Finding::new(key, outcome, Found::PanelCloth(panel)).at(from)]
}

impl AlteredSeam<'_> {
    /// The panel of one side, or of both where they are the same. Nothing where it nowhere moves by a mark.
    fn panel_of(
        &self,
        garment: &Garment,
        rows: &[Row],
        side: Option<GarmentSide>,
        tape: Tape,
    ) -> Option<Panel> {
        let of = side.unwrap_or(GarmentSide::Left);
        let line = self.line(of);
        let (from, to) = line.span()?;
        let moves = |row: &RowSide| row.edges.front.0 != Length::ZERO || row.edges.back.0 != Length::ZERO;
        if !rows.iter().filter_map(|row| row.of(of)).any(moves) {
            return None;
        }
        let most = |wide: fn(&RowSide) -> Length| rows.iter().filter_map(|row| row.of(of)).map(wide).max();
        Some(Panel {
            pieces: if side.is_none() && self.facts.seam.has_sides() { 2 } else { 1 },
            widest: most(|row| -row.edges.whole().0)?,
            room: most(|row| -row.edges.front.0)? + most(|row| -row.edges.back.0)?,
            long: tape.round(to.0) - tape.round(from.0),
            allowance: TRIMMED.on(tape),
            below: self.below(garment, line, tape),
        })
    }

    /// Something is taken in along it, at the marks that are chalked.
    pub(super) fn takes_in(&self, garment: &Garment, tape: Tape) -> bool {
        let rows = self.rows(garment, tape);
        rows.iter().flat_map(Row::sides).any(|row| row.edges.front.0.max(row.edges.back.0) > Length::ZERO)
    }

    /// What a panel on that line has beyond its lower end.
    pub(super) fn below(&self, garment: &Garment, line: &StitchingLine, tape: Tape) -> Below {
        let from = garment.span_of(self.facts.seam).0;
        if !from.is_at_an_edge() || matches!(line.ends.lower, End::MeetsOldStitching { .. }) {
            return Below::Allowance;
        }
        let edge = match from.is_of_sleeve() {
            true => HemEdge::Sleeve,
            false if garment.has_legs() => HemEdge::Leg,
            false => HemEdge::Body,
        };
        let hem = garment.hems.iter().find(|hem| hem.edge == edge);
        Below::Hem(hem.map(|hem| tape.round(hem.turn_up.length)))
    }

    /// What is cut outside its lines and beyond their upper end, and beyond their lower one, for its drawing.
    pub(super) fn cut_mm(&self, garment: &Garment, line: &StitchingLine, tape: Tape) -> [f64; 2] {
        let allowance = TRIMMED.on(tape);
        [allowance, self.below(garment, line, tape).of(allowance)].map(|length| length.cm() * 10.0)
    }

    /// Every panel that is cut for it, with its side where both are not the same; none where nothing is set in.
    pub(super) fn panels(
        &self,
        garment: &Garment,
        rows: &[Row],
        tape: Tape,
    ) -> Vec<(Option<GarmentSide>, Panel)> {
        if !self.change.set_in {
            return Vec::new();
        }
        let panel = |(side, _)| Some((side, self.panel_of(garment, rows, side, tape)?));
        self.each_line().filter_map(panel).collect()
    }
}
