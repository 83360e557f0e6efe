//! Several try-ons of one garment side by side: what was changed between them.

use crate::check::{Subject, levels};
use crate::document::Document;
use crate::fault::Fault;
use crate::fitting::{GarmentSide, Reading, TryOn};
use crate::garment::{Dart, Seam};
use crate::length::{Length, Tape};
use crate::solve::SoundGarment;
use serde::Serialize;
use utoipa::ToSchema;

/// A table: a column for each try-on, a row for each place.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Comparison {
    /// What each column is called: the day.
    pub columns: Vec<String>,
    /// How each was worn, what was pinned, what it will measure.
    pub sections: Vec<Section>,
}

/// Rows of one sort.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Section {
    /// What they are.
    pub title: String,
    /// The rows.
    pub rows: Vec<Row>,
}

/// One place, in every try-on.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Row {
    /// Which place.
    pub what: String,
    /// What each try-on has there; empty where it has nothing.
    pub cells: Vec<String>,
    /// They are not all the same.
    pub changed: bool,
}

impl Row {
    fn new(what: String, cells: Vec<String>) -> Self {
        let changed = cells.windows(2).any(|w| w[0] != w[1]);
        Self { what, cells, changed }
    }
}

/// Compares all try-ons of `document`, with figures on `tape`.
///
/// # Errors
/// What cannot be solved.
pub fn compare(document: &Document, tape: Tape) -> Result<Comparison, Vec<Fault>> {
    let solved = SoundGarment::new(&document.garment)?.solve(&document.try_ons, tape, false)?;
    let try_ons = &document.try_ons;
    let row = |what: &str, cell: &dyn Fn(&TryOn) -> String| {
        Row::new(what.into(), try_ons.iter().map(cell).collect())
    };
    let mut conditions = vec![
        row("worn", &|t| t.worn.name().into()),
        row("pinned by", &|t| t.pinned_by.name().into()),
        row("beneath", &|t| t.layers.clone()),
        row("shoes", &|t| t.shoes.clone()),
        row("closed", &|t| t.shut.map_or("", |s| s.name()).into()),
    ];
    conditions.retain(|r| r.cells.iter().any(|c| !c.is_empty()));
    let mut places: Vec<Place> = try_ons.iter().flat_map(places_of).collect();
    places.sort();
    places.dedup();
    let pinned = places.iter().map(|place| {
        let cells =
            try_ons.iter().map(|t| place.reading(t).map_or(String::new(), |r| tape.show(r.amount.length)));
        Row::new(place.words(document, tape), cells.collect())
    });
    let garment = &*document.garment.with_levels_in_order();
    let as_it_is = levels(&Subject::as_it_is(garment, tape));
    let measured = as_it_is.iter().map(|level| {
        let of = |t: &crate::solve::SolvedTryOn| {
            let after = t.levels.iter().filter(|l| l.level == level.level).map(|l| l.after.text());
            let mut after: Vec<String> = after.collect();
            after.dedup();
            after.join(" / ")
        };
        Row::new(level.name(), solved.try_ons.iter().map(of).collect())
    });
    let section = |title: &str, rows: Vec<Row>| Section { title: title.into(), rows };
    Ok(Comparison {
        columns: try_ons.iter().map(|t| t.date.strftime("%-d %B %Y").to_string()).collect(),
        sections: vec![
            section("How it was worn", conditions),
            section("What was pinned", pinned.collect()),
            section("What it will measure, all round", measured.collect()),
        ],
    })
}

/// Where a pin may be, in the order in which places are listed.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
struct Place {
    seam: Option<Seam>,
    dart: Option<usize>,
    side: GarmentSide,
    station: Length,
}

fn places_of(try_on: &TryOn) -> Vec<Place> {
    let seams = try_on.alterations.iter().flat_map(|a| a.readings.iter().map(|r| (Some(a.seam), None, r)));
    let darts = try_on.darts.iter().flat_map(|d| {
        d.readings.iter().map(|r| (None, Dart::ALL.iter().position(|known| *known == d.dart), r))
    });
    let place = |(seam, dart, r): (Option<Seam>, Option<usize>, &Reading)| Place {
        seam,
        dart,
        side: r.side,
        station: r.station.length,
    };
    seams.chain(darts).map(place).collect()
}

impl Place {
    fn reading<'t>(&self, try_on: &'t TryOn) -> Option<&'t Reading> {
        let of_seam =
            try_on.alterations.iter().filter(|a| Some(a.seam) == self.seam).flat_map(|a| &a.readings);
        let dart = self.dart.map(|n| Dart::ALL[n]);
        let of_dart = try_on.darts.iter().filter(|d| Some(d.dart) == dart).flat_map(|d| &d.readings);
        of_seam.chain(of_dart).find(|r| r.side == self.side && r.station.length == self.station)
    }

    fn words(&self, document: &Document, tape: Tape) -> String {
        let garment = &document.garment;
        let name = match (self.seam, self.dart) {
            (Some(seam), _) => garment.seam(seam).map_or(seam.name(), |s| s.name()),
            (None, Some(dart)) => Dart::ALL[dart].name(),
            (None, None) => "",
        };
        let side = match self.seam {
            Some(seam) if seam.is_single() => String::new(),
            _ => format!(", garment’s {}", self.side.name()),
        };
        format!("{name} at {}{side}", tape.show(self.station))
    }
}
