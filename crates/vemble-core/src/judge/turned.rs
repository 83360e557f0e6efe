//! Turned: the asymmetry of a body flips when the garment is. A difference that was pinned inside out, and that the wearer's own sides
//! explain, would be sewn into the side that does not need it. One of the garment itself stays where it is.

use super::{Facts, Finding, FindingKey, Outcome, Rule, Subject};
use crate::change::seam::AlteredSeam;
use crate::change::{ChangeKey, Drawn};
use crate::fitting::{GarmentSide, PutOn, Worn};
use crate::length::Length;

/// The most that was pinned on each side, and why the body is uneven.
#[derive(Clone, Debug)]
pub(crate) struct Turned {
    pub most: [(Length, GarmentSide); 2],
    pub put_on: PutOn,
    pub uneven: String,
    pub wearer: String,
}

pub(super) fn judge(subject: &Subject<'_>) -> Option<Finding> {
    let explained = |seam: &AlteredSeam<'_>| {
        let change = ChangeKey::Seam(seam.facts.seam);
        Some((change, subject.wearer.explains_a_difference(subject.limb_of(change))?))
    };
    let uneven = subject.seams().filter(|s| !s.sides_agree() && subject.put_on.worn == Worn::InsideOut);
    let (seam, (change, uneven)) = uneven.filter_map(|seam| Some((seam, explained(seam)?))).next()?;
    let most = GarmentSide::BOTH.map(|side| {
        let most = seam
            .line(side)
            .pins
            .iter()
            .map(|p| p.edges.chalked(subject.tape).whole().0)
            .max()
            .unwrap_or_default();
        (most, side)
    });
    let key = FindingKey::about(Rule::Turned, change);
    Some(Finding::new(
        key,
        Outcome::Caution,
        Facts::Turned(Turned { most, put_on: subject.put_on, uneven, wearer: subject.wearer.name.clone() }),
    ))
}
