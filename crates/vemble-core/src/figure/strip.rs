//! The seam strip: one seam laid straight, station along it, offsets to either side of the old stitching.
//!
//! x is the station in mm from the hem; y is the offset in mm from the old stitching of that side, positive into
//! the panel. The wearer's left comes first.

use super::{hundredths, svg};
use crate::alteration::AlteredDart;
use crate::fitting::{GarmentSide, WearerSide, Worn};
use crate::garment::Garment;
use crate::length::{Length, Station, Tape};
use crate::line::{AlteredSeam, Curve, StitchingLine};
use kurbo::Point;
use serde::Serialize;
use utoipa::ToSchema;

/// One seam, both sides.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Strip {
    /// Length of the seam in mm.
    pub length_mm: f64,
    /// Allowance beyond the old stitching on each edge, in mm.
    pub allowance_mm: f64,
    /// Largest offset drawn, in mm: how much room each side needs.
    pub deepest_mm: f64,
    /// The wearer's left, then the wearer's right.
    pub sides: Vec<StripSide>,
    /// What is drawn on each of them; once where both are the same.
    pub lines: Vec<StripLines>,
    /// What lies across the seam.
    pub blocks: Vec<StripBlock>,
    /// The levels that cross it.
    pub levels: Vec<StripLevel>,
}

/// A level that crosses the seam.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StripLevel {
    /// Its name.
    pub name: String,
    /// Its station, in mm.
    pub at_mm: f64,
}

/// One side of a seam strip.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StripSide {
    /// The garment's side.
    pub side: GarmentSide,
    /// Whose side that was on the wearer.
    pub wearer_side: WearerSide,
    /// There is more room for its name at its datum than at its other end.
    pub is_quiet_at_datum: bool,
}

/// The lines of a side, or of both.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StripLines {
    /// The new stitching of the front edge, or of both where they are the same.
    pub line: Option<String>,
    /// The new stitching of the back edge, where it differs.
    pub back_line: Option<String>,
    /// The old fold of a dart, which is no axis.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub old_line: Option<String>,
    /// How far a smooth line may pass beside the pins: a closed band.
    pub tolerance: Option<String>,
    /// The cut line of the front edge, where it is trimmed.
    pub cut: Option<String>,
}

/// Something across the seam.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StripBlock {
    /// What it is.
    pub what: String,
    /// From this station, in mm.
    pub from_mm: f64,
    /// To this station, in mm.
    pub to_mm: f64,
    /// Where, in words.
    pub place: String,
}

/// Draws a seam with its new lines.
pub fn strip(garment: &Garment, seam: &AlteredSeam<'_>, worn: Worn, tape: Tape) -> Strip {
    let (sides, lines) = sides(worn, seam.sides_agree(), seam.facts.length.length, |side| {
        let line = seam.line(side);
        (&line.front, lines(seam, line))
    });
    let pins =
        seam.alteration.readings.iter().map(|r| r.edges(seam.alteration.front_share.unwrap_or_default()));
    let deepest = pins.map(|e| e.front.0.abs().max(e.back.0.abs())).max().unwrap_or_default();
    // A line that carries on to an edge goes further than its pins.
    let length = seam.facts.length.length;
    let [left, right] = [0, 1].map(|n| seam.lines[n].deepest_between(Station(Length::ZERO), Station(length)));
    let deepest = deepest.max(left).max(right);
    let blocks = seam.facts.in_the_way.iter().map(|thing| StripBlock {
        what: thing.what.clone(),
        from_mm: hundredths(thing.from.length.cm() * 10.0),
        to_mm: hundredths(thing.to.length.cm() * 10.0),
        place: format!("{} to {}", tape.bare(thing.from.length), tape.show(thing.to.length)),
    });
    let levels = garment.levels.iter().filter_map(|l| {
        let station = garment.station_on(seam.facts.seam, l.level)?;
        Some(StripLevel { name: l.level.name().into(), at_mm: hundredths(station.cm() * 10.0) })
    });
    Strip {
        length_mm: hundredths(length.cm() * 10.0),
        allowance_mm: hundredths(seam.facts.allowance.length.cm() * 10.0),
        deepest_mm: hundredths((deepest + seam.tolerance).cm() * 10.0),
        sides,
        lines,
        blocks: blocks.collect(),
        levels: levels.collect(),
    }
}

/// Draws a pair of darts: the axis is the middle of the fold, the old fold lies beside it.
pub fn dart_strip(garment: &Garment, dart: &AlteredDart<'_>, worn: Worn) -> Strip {
    let (sides, lines) = sides(worn, dart.new[0] == dart.new[1], dart.length, |side| {
        let fold = &dart.new[side as usize];
        let lines = StripLines {
            line: path(fold),
            back_line: None,
            old_line: path(&dart.old),
            tolerance: None,
            cut: None,
        };
        (fold, lines)
    });
    let deepest = dart.new.iter().map(|curve| curve.range(0.0, dart.length.cm()).1).fold(0.0, f64::max);
    let levels = garment.body_levels_up().into_iter().filter_map(|l| {
        let station = dart.station_at(l.station.length)?;
        Some(StripLevel { name: l.level.name().into(), at_mm: hundredths(station.0.cm() * 10.0) })
    });
    Strip {
        length_mm: hundredths(dart.length.cm() * 10.0),
        allowance_mm: 0.0,
        deepest_mm: hundredths(deepest * 10.0),
        sides,
        lines,
        blocks: Vec::new(),
        levels: levels.collect(),
    }
}

/// Both sides of a strip, the wearer's left first, and what is drawn on them: once where they `agree`.
fn sides<'a>(
    worn: Worn,
    agree: bool,
    length: Length,
    drawn: impl Fn(GarmentSide) -> (&'a Curve, StripLines),
) -> (Vec<StripSide>, Vec<StripLines>) {
    let mut order = GarmentSide::BOTH;
    order.sort_by_key(|side| worn.on_wearer(*side) == WearerSide::Right);
    let of = |side| {
        let (curve, lines) = drawn(side);
        (is_quiet_at_datum(curve, length.cm()), lines)
    };
    let (quiet, lines): (Vec<_>, Vec<_>) = order[..if agree { 1 } else { 2 }].iter().map(|s| of(*s)).unzip();
    let side = |(n, side)| StripSide {
        side,
        wearer_side: worn.on_wearer(side),
        is_quiet_at_datum: quiet[if agree { 0 } else { n }],
    };
    (order.into_iter().enumerate().map(side).collect(), lines)
}

fn path(curve: &Curve) -> Option<String> {
    (!curve.pieces.is_empty()).then(|| svg(&curve.path(mm)))
}

/// Station and offset in cm, in mm.
fn mm(station: f64, offset: f64) -> Point {
    Point::new(station * 10.0, offset * 10.0)
}

fn lines(seam: &AlteredSeam<'_>, line: &StitchingLine) -> StripLines {
    let tolerance = seam.tolerance.cm();
    let band = || {
        let mut band = line.front.shifted(tolerance).path(mm);
        let below = line.front.shifted(-tolerance).path(mm).reverse_subpaths();
        band.extend(below.into_iter().map(|element| match element {
            kurbo::PathEl::MoveTo(p) => kurbo::PathEl::LineTo(p),
            other => other,
        }));
        band.close_path();
        svg(&band)
    };
    StripLines {
        line: path(&line.front),
        back_line: path(&line.back).filter(|_| !line.has_equal_edges()),
        old_line: None,
        tolerance: (!line.front.pieces.is_empty()).then(band),
        cut: seam.alteration.trim_to.and_then(|w| path(&line.front.shifted(-w.length.cm()))),
    }
}

/// Whether a curve stays nearer to nought in the first half of a seam than in the second.
fn is_quiet_at_datum(curve: &Curve, length: f64) -> bool {
    let deepest = |(low, high): (f64, f64)| high.max(-low);
    deepest(curve.range(0.0, length * 0.4)) < deepest(curve.range(length * 0.6, length))
}
