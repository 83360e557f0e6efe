//! Lines that carry on into another seam in one pass: side seam, armhole and sleeve under the arm. The offset is the same on both
//! at the corner.

use super::line::{AlteredSeam, Draft};
use crate::change::{Pin, SidesFrom, Wrongs};
use crate::fault::Wrong;
use crate::fitting::{End, GarmentSide};
use crate::garment::{Garment, Seam};
use crate::length::Station;

/// Draws all lines, those first that others carry on from.
pub(super) fn drawn<'a>(
    garment: &'a Garment,
    mut drafts: Vec<Draft<'a>>,
) -> Result<Vec<AlteredSeam<'a>>, Wrongs> {
    let mut faults = Vec::new();
    // From which seam into which, by number; one that is brought something by two would have two offsets at its corner.
    let mut carried: Vec<(usize, usize)> = Vec::new();
    for n in 0..drafts.len() {
        let (number, seam) = (drafts[n].number, drafts[n].facts.seam);
        let meets = garment.goes_on_into(seam);
        if let Some(End::CarriesOn { into }) = drafts[n].change.lower {
            faults.push((number, "lower".into(), Wrong::NotInOnePass { seam, into, meets }));
        }
        let Some(End::CarriesOn { into }) = drafts[n].change.upper else { continue };
        if meets != Some(into) {
            faults.push((number, "upper".into(), Wrong::NotInOnePass { seam, into, meets }));
            continue;
        }
        let found = drafts.iter().position(|d| d.facts.seam == into);
        // Where both say so, the side seam leads.
        if carried.iter().any(|(from, to)| (Some(*from), *to) == (found, n)) {
            continue;
        }
        let to = match found {
            Some(to) => to,
            None => match Draft::empty(garment, number, into) {
                Ok(draft) => {
                    drafts.push(draft);
                    drafts.len() - 1
                }
                Err(wrong) => {
                    faults.push((number, "upper".into(), wrong));
                    continue;
                }
            },
        };
        carried.push((n, to));
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let count = drafts.len();
    let mut waiting: Vec<Option<Draft<'a>>> = drafts.into_iter().map(Some).collect();
    let mut seams: Vec<Option<AlteredSeam<'a>>> = (0..count).map(|_| None).collect();
    let comes_from = |n: usize| carried.iter().find(|c| c.1 == n).map(|c| c.0);
    let leads_first = (0..count).filter(|n| comes_from(*n).is_none());
    for n in leads_first.chain((0..count).filter(|n| comes_from(*n).is_some())) {
        let Some(mut draft) = waiting[n].take() else { continue };
        if let Some(lead) = comes_from(n).and_then(|from| seams[from].as_ref()) {
            turn_the_corner(lead, &mut draft);
        }
        match draft.drawn(garment) {
            Ok(seam) => seams[n] = Some(seam),
            Err(wrong) => faults.extend(wrong),
        }
    }
    if faults.is_empty() { Ok(seams.into_iter().flatten().collect()) } else { Err(faults) }
}

/// Puts what `lead` has at the corner on the seam that it carries on into.
fn turn_the_corner(lead: &AlteredSeam<'_>, draft: &mut Draft<'_>) {
    let (corner, end) = (Station(lead.facts.end()), Station(draft.facts.end()));
    for side in GarmentSide::BOTH {
        let pins = &mut draft.sides.pins[side as usize];
        pins.retain(|pin| pin.station < end);
        pins.push(Pin { station: end, edges: lead.line(side).at(corner) });
    }
    let from: Seam = lead.facts.seam;
    draft.change.to_mut().upper = Some(End::CarriesOn { into: from });
    if draft.sides.from == SidesFrom::Nothing {
        draft.sides.from = SidesFrom::Carried(from);
    }
}
