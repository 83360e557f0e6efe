//! Standing adjustments: what garment after garment of one wearer needs in the same place is where the next one begins.

use crate::change::DrawnChange;
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Seam};
use crate::length::{Length, Tape};
use crate::place::Level;
use std::collections::BTreeMap;

/// From so many garments on (handbook 17: three or more).
const GARMENTS: usize = 3;

/// What the garments of a wearer needed in one place.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct StandingAdjustment {
    /// At which seam.
    pub seam: Seam,
    /// At which level.
    pub level: Level,
    /// The median of what came off each edge, at a mark; negative where it was let out.
    pub per_edge: Length,
    /// The names of the garments.
    pub garments: Vec<String>,
}

/// At which seam and level, and how much off each edge.
pub type TakenAt = (Seam, Level, Length);

/// What came off each edge at a level of a seam of one garment: the mean of its edges and sides.
pub(crate) fn taken_at(
    garment: &Garment,
    changes: &[DrawnChange<'_>],
    tape: Tape,
) -> Vec<(Seam, Level, Length)> {
    let mut all = Vec::new();
    for change in changes {
        let DrawnChange::Seam(seam) = change else { continue };
        for level in &garment.levels {
            let edges = GarmentSide::BOTH.map(|side| {
                seam.chalked_at(garment, level.level, Length::ZERO, side, tape).map(|edges| edges.whole().0)
            });
            if let [Some(left), Some(right)] = edges {
                let each = tape.round((left + right).fraction(1, 4));
                if each != Length::ZERO {
                    all.push((seam.facts.seam, level.level, each));
                }
            }
        }
    }
    all
}

/// Where three or more garments needed the same, in the same direction, the median of it: a pin to begin with. `taken` has each garment's
/// name and what came off it.
pub fn standing(taken: &[(String, Vec<TakenAt>)], tape: Tape) -> Vec<StandingAdjustment> {
    // Taken in and let out are different needs.
    type Place = (Seam, Level, bool);
    let mut by_place: BTreeMap<Place, Vec<(Length, &str)>> = BTreeMap::new();
    for (name, all) in taken {
        for (seam, level, each) in all {
            by_place.entry((*seam, *level, each.is_negative())).or_default().push((*each, name));
        }
    }
    let enough = by_place.into_iter().filter(|(_, all)| all.len() >= GARMENTS);
    enough
        .map(|((seam, level, _), mut all)| {
            all.sort_unstable();
            let middle = all.len() / 2;
            let median = match all.len() % 2 {
                0 => (all[middle - 1].0 + all[middle].0).fraction(1, 2),
                _ => all[middle].0,
            };
            let garments = all.iter().map(|(_, name)| (*name).to_owned()).collect();
            StandingAdjustment { seam, level, per_edge: tape.round(median), garments }
        })
        .collect()
}
