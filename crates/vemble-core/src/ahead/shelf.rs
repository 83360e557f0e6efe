//! What is needed against what is there, and what a garment costs and saves.

use super::Bench;
use crate::document::Happened;
use crate::plan::{GarmentWork, Supply, on_the_shelf};
use crate::told::{amount_words, long_words, money_words};
use crate::work::{Logged, Money, SupplyKind, Workroom};
use serde::Serialize;
use utoipa::ToSchema;

/// One thing that is needed, or is there.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct ShelfLine {
    /// What.
    pub kind: SupplyKind,
    /// In words.
    pub name: String,
    /// How much is needed for everything that is left to do.
    pub needed: String,
    /// How much there is left.
    pub has: String,
    /// How much has to be bought; nothing where it is there.
    pub buy: Option<String>,
    /// What that costs, where a price is known.
    pub costs: Option<String>,
}

/// What all garments together need, each thing once.
pub(super) fn lines(works: &[GarmentWork], benches: &[Bench<'_>], room: &Workroom) -> Vec<ShelfLine> {
    let needed: Vec<Supply> = works
        .iter()
        .zip(benches)
        .flat_map(|(work, bench)| {
            work.left().flat_map(move |(_, task)| task.supplies.iter().map(move |s| coloured(s, bench)))
        })
        .collect();
    let logs: Vec<&[Logged]> = benches.iter().map(|bench| &bench.document.log[..]).collect();
    on_the_shelf(&needed, &room.stock, &logs)
        .into_iter()
        .map(|shelf| {
            let which = if shelf.which.is_empty() { String::new() } else { format!(", {}", shelf.which) };
            ShelfLine {
                kind: shelf.kind,
                name: format!("{}{which}", shelf.kind.name()),
                needed: amount_words(shelf.kind, shelf.needed),
                has: amount_words(shelf.kind, shelf.has),
                buy: (shelf.buy() > 0).then(|| amount_words(shelf.kind, shelf.buy())),
                costs: shelf.costs.map(|costs| money_words(Money(costs), &room.currency)),
            }
        })
        .collect()
}

/// Thread is of its garment's cloth: another garment's will not do.
pub(super) fn coloured(supply: &Supply, bench: &Bench<'_>) -> Supply {
    let is_coloured = matches!(
        supply.kind,
        SupplyKind::Thread
            | SupplyKind::Facing
            | SupplyKind::BiasBinding
            | SupplyKind::Buttons
            | SupplyKind::PanelCloth
    );
    match is_coloured && supply.which.is_empty() {
        true => Supply { which: format!("for {}", bench.garment.cloth.name), ..supply.clone() },
        false => supply.clone(),
    }
}

/// What a garment costs and saves.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct MoneyLine {
    /// What it cost: itself and what was spent on it.
    pub spent: String,
    /// What a shop would take.
    pub quote: Option<String>,
    /// What is saved against that, and for how long one sat there.
    pub saved: Option<String>,
    /// How often it was worn.
    pub worn: u32,
    /// What one wearing cost so far.
    pub per_wear: Option<String>,
}

/// What a garment costs and saves; nothing where nothing is known of it.
pub(super) fn money(bench: &Bench<'_>, room: &Workroom) -> Option<MoneyLine> {
    let mut spent = bench.wishes.paid.map_or(0, |paid| paid.0);
    let (mut on_work, mut worn) = (0_i64, 0_u32);
    for entry in &bench.document.record {
        match &entry.what {
            Happened::Spent { money, .. } => on_work = on_work.saturating_add(money.0),
            Happened::Worn { times } => worn = worn.saturating_add(u32::from(*times)),
            Happened::Sewn { .. } | Happened::TakenBack { .. } => {}
        }
    }
    spent = spent.saturating_add(on_work);
    let quote = bench.wishes.quote;
    if spent == 0 && quote.is_none() && worn == 0 {
        return None;
    }
    let words = |hundredths: i64| money_words(Money(hundredths), &room.currency);
    let minutes = bench.progress.minutes()
        + bench.earlier().iter().map(|(_, progress)| progress.minutes()).sum::<u32>();
    let saved = quote.map(|quote| {
        let saved = quote.0 - on_work;
        match minutes {
            0 => words(saved),
            minutes => {
                let an_hour = saved * 60 / i64::from(minutes);
                format!("{} for {} of sewing: {} an hour", words(saved), long_words(minutes), words(an_hour))
            }
        }
    });
    Some(MoneyLine {
        spent: words(spent),
        quote: quote.map(|quote| words(quote.0)),
        saved,
        worn,
        per_wear: (worn > 0).then(|| words(spent / i64::from(worn))),
    })
}
