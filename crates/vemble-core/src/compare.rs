//! Several try-ons of one garment side by side: what was changed between them.

use crate::change::{Change, ChangeKey};
use crate::document::Document;
use crate::fault::Fault;
use crate::fitting::{GarmentSide, Reading};
use crate::garment::Garment;
use crate::judge::{Subject, girths};
use crate::length::{Length, Tape};
use crate::solve::{For, SolvedTryOn, solve_for};
use crate::told::level_name;
use crate::try_on::TryOn;
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
    let solved = solve_for(document, tape, For::Drag)?;
    let Some(newest) = document.newest() else { return Ok(Comparison { columns: vec![], sections: vec![] }) };
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
    let mut places: Vec<PinnedAt> = try_ons.iter().flat_map(places_of).collect();
    places.sort();
    places.dedup();
    let pinned = places.iter().map(|place| {
        let cells =
            try_ons.iter().map(|t| place.reading(t).map_or(String::new(), |r| tape.show(r.amount.length)));
        Row::new(place.words(&newest.garment, tape), cells.collect())
    });
    let garment = &*newest.garment.with_levels_in_order(&document.wearer);
    let as_it_is = girths(&Subject::as_it_is(garment, &document.wearer, tape));
    let measured = as_it_is.iter().map(|girth| {
        let of = |t: &SolvedTryOn| {
            let after = t.levels.iter().filter(|l| l.level == girth.level.level).map(|l| l.after.text());
            let mut after: Vec<String> = after.collect();
            after.dedup();
            after.join(" / ")
        };
        Row::new(level_name(girth), solved.try_ons.iter().map(of).collect())
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
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
struct PinnedAt {
    change: ChangeKey,
    side: GarmentSide,
    station: Length,
}

fn places_of(try_on: &TryOn) -> Vec<PinnedAt> {
    let place = |change: ChangeKey, r: &Reading| PinnedAt { change, side: r.side, station: r.station.length };
    let of_change =
        |change: &Change| change.readings().iter().map(|r| place(change.key(), r)).collect::<Vec<_>>();
    try_on.changes.iter().flat_map(of_change).collect()
}

impl PinnedAt {
    fn reading<'t>(&self, try_on: &'t TryOn) -> Option<&'t Reading> {
        let mut readings = try_on.change(self.change)?.readings().iter();
        readings.find(|r| r.side == self.side && r.station.length == self.station)
    }

    fn words(&self, garment: &Garment, tape: Tape) -> String {
        let side = match self.change.is_single() {
            true => String::new(),
            false => format!(", garment’s {}", self.side.name()),
        };
        format!("{} at {}{side}", self.change.name(garment), tape.show(self.station))
    }
}
