//! What is flagged: of a candidate, and of what is printed with the pattern.

use super::search::Candidate;
use super::{NARROWEST, Table, Wanted};
use crate::body::BodyMeasurement;
use crate::garment::Seam;
use crate::length::{Length, Measure};
use crate::place::Structure;
use crate::told::capital;
use crate::work::{Chart, ChartSays};

pub(super) fn flags_of(table: &Table<'_>, wanted: &[Wanted], candidate: &Candidate) -> Vec<String> {
    let chart = &table.pattern.charts[candidate.chart];
    let narrower = table.allowance() - candidate.allowance;
    let mut all = Vec::new();
    for (w, size) in wanted.iter().zip(&candidate.sizes) {
        let girth = table.finished(chart, w.what, *size).unwrap_or_default() + w.gain(narrower);
        let (ease, name) = (girth - w.body, w.level.name());
        let is_held_by_it = w.least.is_some_and(|least| least < w.body);
        if table.garment.cloth.structure == Structure::Woven && ease <= Length::ZERO && !is_held_by_it {
            all.push(format!(
                "{} has no ease: {} round, on a body of {}; woven cloth does not close there",
                capital(name),
                table.show(girth),
                table.show(w.body)
            ));
        } else if let Some(least) = w.least.filter(|least| girth < *least) {
            all.push(format!(
                "{} has {} ease, less than the {} that it needs at least",
                capital(name),
                table.show(ease),
                table.show(least - w.body)
            ));
        }
        all.extend(contradiction(table, chart, w.what, *size));
    }
    if candidate.allowance < NARROWEST.on(table.tape) {
        all.push(too_narrow(table, candidate.allowance));
    }
    all
}

fn too_narrow(table: &Table<'_>, allowance: Length) -> String {
    let least = table.show(NARROWEST.on(table.tape));
    format!("An allowance of {} is under {least}: it frays into its stitches", table.show(allowance))
}

/// A chart whose own figures do not agree.
fn contradiction(table: &Table<'_>, chart: &Chart, what: BodyMeasurement, size: usize) -> Option<String> {
    let figure = |says| table.figure(chart, what, says, size);
    let [body, finished, ease] = [ChartSays::Body, ChartSays::Finished, ChartSays::Ease].map(figure);
    let (body, finished, ease) = (body?, finished?, ease?);
    let is = finished - body;
    (is != ease).then(|| {
        format!(
            "The chart says {} ease for the {} of size {}, but {} − {} = {}: measure the paper before trusting either",
            table.show(ease),
            what.name(),
            chart.sizes[size],
            table.bare(finished),
            table.bare(body),
            table.show(is)
        )
    })
}

/// What is flagged whichever size is taken.
pub(super) fn flags(table: &Table<'_>, wanted: &[Wanted]) -> Vec<String> {
    let mut all = Vec::new();
    let charts = &table.pattern.charts;
    for w in wanted {
        let rows = charts.iter().filter_map(|chart| chart.row(w.what, ChartSays::Body));
        let figures: Vec<Length> = rows.flatten().map(|typed| table.read(*typed)).collect();
        let (Some(least), Some(most)) = (figures.iter().min(), figures.iter().max()) else { continue };
        let beyond = match () {
            () if w.body > *most => Some(("larger", "largest", most)),
            () if w.body < *least => Some(("smaller", "smallest", least)),
            () => None,
        };
        if let Some((way, end, figure)) = beyond {
            all.push(format!(
                "The {} of {} is {way} than any chart goes: the {end} body is {}. Take the nearest size as a start, and change the pieces",
                w.what.name(),
                table.show(w.body),
                table.show(*figure)
            ));
        }
    }
    for chart in charts {
        let rows = chart.rows.iter().filter(|row| row.says == ChartSays::Ease);
        let known = rows.filter(|row| wanted.iter().any(|w| w.what == row.what));
        for row in known {
            let is_less = |(n, typed): (usize, &Measure)| typed.length.is_negative().then_some(n);
            let sizes: Vec<&str> =
                row.figures.iter().enumerate().filter_map(is_less).map(|n| chart.sizes[n].as_str()).collect();
            if !sizes.is_empty() && table.garment.cloth.structure == Structure::Woven {
                all.push(format!(
                    "{} charts less than no ease at the {} for woven cloth (size {}): not to be trusted",
                    capital(if chart.name.is_empty() { "the chart" } else { &chart.name }),
                    row.what.name(),
                    sizes.join(", ")
                ));
            }
        }
    }
    if table.allowance() < NARROWEST.on(table.tape) {
        all.push(too_narrow(table, table.allowance()));
    }
    if table.pattern.layers > 0 && table.garment.hangs_from_shoulders() {
        let seam =
            table.garment.seam(Seam::NeckSeam).map_or_else(|| table.allowance(), |f| table.read(f.allowance));
        all.push(format!(
            "A faced neckline drops by its seam once it is lined: {}, all round",
            table.show(seam)
        ));
    }
    if table.pattern.drapes {
        all.push(
            "Thinner cloth that falls softly lies closer than its toile: take no ease out that the toile has"
                .into(),
        );
    }
    all
}
