//! A seam on its strip, on the stand, and on its card.

use super::fair::SHARE_OF_DEPTH;
use super::{AlteredSeam, StitchingLine};
use crate::chalk::Row;
use crate::change::{ChangeKey, Drawn};
use crate::figure::{
    CardDrawing, Chalk, Drawing, Half, Moved, MovedLook, OnStand, Strip, StripBlock, StripLevel, StripLines,
    StripSide, ViewSide, chalk_drawing, curve_path, hundredths, mm, on_side, part_of, seam_line, share_of,
    strip_sides, svg,
};
use crate::fitting::{GarmentSide, PutOn};
use crate::garment::{Garment, Run, Seam};
use crate::length::{Length, Station, Tape};
use kurbo::PathEl;

impl AlteredSeam<'_> {
    /// The seam laid straight, with its new lines.
    pub(super) fn strip(&self, garment: &Garment, put_on: PutOn, tape: Tape) -> Strip {
        let length = self.facts.end();
        let (sides, lines) = strip_sides(put_on, &self.change.readings, self.sides_agree(), length, |side| {
            let line = self.line(side);
            (&line.front, self.strip_lines(garment, line, tape))
        });
        let sides = sides.into_iter().map(|side| match self.facts.seam.has_sides() {
            true => side,
            // Its pins lie on the one line there is, whichever side they were entered on: above and below lie its two edges.
            false => {
                let words = match lines.iter().all(|lines| lines.back_line.is_none()) {
                    true => format!("{} edge", side.side.name()),
                    false => "both edges".to_owned(),
                };
                StripSide { short_words: words.clone(), words, is_copied: true, ..side }
            }
        });
        let share = self.change.front_share.unwrap_or_default();
        let pins = self.change.readings.iter().map(|r| r.edges(share));
        let deepest = pins.map(|e| e.front.0.abs().max(e.back.0.abs())).max().unwrap_or_default();
        // A line that carries on to an edge goes further than its pins.
        let whole = (Station::default(), Station(length));
        let [left, right] = [0, 1].map(|n| self.lines[n].deepest_between(whole.0, whole.1));
        let deepest = deepest.max(left).max(right);
        let ranges = self.lines.iter().flat_map(|line| line.ranges(whole.0, whole.1));
        let outside = ranges.map(|(least, _)| -least).fold(self.facts.most_allowance().cm(), f64::max);
        let blocks = self.facts.in_the_way.iter().map(|thing| StripBlock {
            what: thing.what.clone(),
            from_mm: hundredths(thing.from.length.cm() * 10.0),
            to_mm: hundredths(thing.to.length.cm() * 10.0),
            place: format!("{} to {}", tape.bare(thing.from.length), tape.show(thing.to.length)),
        });
        let levels = garment.levels.iter().filter_map(|l| {
            let station = garment.station_on(self.facts.seam, l.level)?;
            Some(StripLevel { name: l.level.name().into(), at_mm: hundredths(station.cm() * 10.0) })
        });
        Strip {
            length_mm: hundredths(length.cm() * 10.0),
            allowance_mm: hundredths(self.facts.most_allowance().cm() * 10.0),
            outside_mm: hundredths(outside * 10.0),
            deepest_mm: hundredths((deepest + self.tolerance).cm() * 10.0),
            sides: sides.collect(),
            lines,
            blocks: blocks.collect(),
            levels: levels.collect(),
        }
    }

    fn strip_lines(&self, garment: &Garment, line: &StitchingLine, tape: Tape) -> StripLines {
        let band = || {
            // As wide as where it is deepest, in proportion: nowhere wider than a pin may move.
            let (least, most) = line.front.span().map_or((0.0, 0.0), |(from, to)| line.front.range(from, to));
            let share = SHARE_OF_DEPTH.min(self.tolerance.cm() / most.max(-least));
            let mut band = line.front.plus(share, &line.front).path(mm);
            let below = line.front.plus(-share, &line.front).path(mm).reverse_subpaths();
            band.extend(below.into_iter().map(|element| match element {
                PathEl::MoveTo(p) => PathEl::LineTo(p),
                other
                @ (PathEl::LineTo(_) | PathEl::QuadTo(..) | PathEl::CurveTo(..) | PathEl::ClosePath) => other,
            }));
            band.close_path();
            svg(&band)
        };
        StripLines {
            line: curve_path(&line.front),
            back_line: curve_path(&line.back).filter(|_| !line.has_equal_edges()),
            old_line: None,
            panel_mm: self.change.set_in.then(|| self.cut_mm(garment, line, tape).map(hundredths)),
            tolerance: (!line.front.pieces.is_empty()).then(band),
            cut: self.change.trim_to.and_then(|w| curve_path(&line.front.shifted(-w.length.cm()))),
        }
    }

    /// The drawings of its card: one, or one for each side and edge that differs.
    pub(super) fn card_drawings(&self, rows: &[Row], ends: [&str; 2]) -> Vec<CardDrawing> {
        let edges_equal = self.lines.iter().all(StitchingLine::has_equal_edges);
        let mut drawings = Vec::new();
        for side in self.told_sides() {
            let line = self.line(*side);
            let edges = [&line.front, &line.back].into_iter().zip(self.facts.seam.edges());
            for (edge, (curve, name)) in edges.enumerate().take(if edges_equal { 1 } else { 2 }) {
                let of: Vec<String> = [
                    (!self.sides_agree()).then(|| format!("garment’s {}", side.name())),
                    (!edges_equal).then(|| format!("{name} edge")),
                    self.change.set_in.then(|| "half of the panel, from its middle line".to_owned()),
                ]
                .into_iter()
                .flatten()
                .collect();
                let mark = |row: &Row| {
                    let (from, to) = line.span()?;
                    let at = Station(row.of(*side).map(|_| row.station)?.0.clamp(from.0, to.0));
                    let edges = line.at(at);
                    Some((row.station.0, if edge == 0 { edges.front.0 } else { edges.back.0 }))
                };
                drawings.extend(chalk_drawing(&Chalk {
                    length: self.facts.end(),
                    old: None,
                    new: curve,
                    cut: self.change.trim_to.map(|w| curve.shifted(-w.length.cm())),
                    of: (!of.is_empty()).then(|| of.join(", ")),
                    ends,
                    marks: rows.iter().filter_map(mark).collect::<Vec<(Length, Length)>>(),
                }));
            }
        }
        drawings
    }
}

impl OnStand for AlteredSeam<'_> {
    /// The stretches that move.
    fn moved(&self, drawing: &Drawing<'_>, view: ViewSide) -> Vec<Moved> {
        let drape = drawing.drape;
        let stretch = |side: GarmentSide| {
            let (from, to) = self.line(side).span()?;
            let half = drawing.half(side);
            let path = if self.facts.seam.run() == Run::Down {
                let up = |station: Station| drape.up_on(self.facts.seam, station.0.cm());
                let outer = half.outer.cut(up(from), up(to));
                let inner = half.inner.map(|i| i.cut(up(from), up(to)));
                let stretch = Half { side, outer: &outer, inner: inner.as_ref() };
                seam_line(drape, self.facts, view, stretch)?
            } else {
                let path = seam_line(drape, self.facts, view, half)?;
                let in_front = drape.garment.share_in_front(self.facts.seam);
                let [from, to] = [from, to].map(|station| share_of((self.facts, in_front), station.0, view));
                part_of(&path, from, to)
            };
            if path.is_empty() {
                return None;
            }
            Some(svg(&drawing.canvas(view).place(&on_side(side, path))))
        };
        let sides = &GarmentSide::BOTH[..if self.facts.seam.has_sides() { 2 } else { 1 }];
        let change = ChangeKey::Seam(self.facts.seam);
        let moved =
            |&side: &GarmentSide| Some(Moved { change, side, look: MovedLook::Line, path: stretch(side)? });
        sides.iter().filter_map(moved).collect()
    }

    fn is_alike_from_behind(&self) -> bool {
        matches!(self.facts.seam, Seam::Outseam | Seam::SideSeam | Seam::Inseam)
    }
}
