//! Darts as they are found in the next state: as deep as they were sewn, and as far from the middle as is left once everything between is taken in.

use super::next_state::typed;
use crate::change::dart::AlteredDart;
use crate::change::{ChangeKey, Drawn};
use crate::fitting::GarmentSide;
use crate::garment::{Dart, DartFacts, Garment, PANEL, PRINCESS, Seam};
use crate::judge::{Girth, Subject};
use crate::length::{Length, Station, Tape};
use crate::place::Level;

/// A pair as deep as it is chalked: of two sides that differ what lies between.
pub(super) fn facts(dart: &AlteredDart<'_>, tape: Tape) -> DartFacts {
    let deepest = |side: GarmentSide| {
        let stations = dart.new[side as usize].pieces.iter().flat_map(|piece| piece.s);
        stations.map(|s| dart.chalked(side, Station(Length::from_cm(s)), tape)).max().unwrap_or_default()
    };
    let [left, right] = GarmentSide::BOTH.map(deepest);
    DartFacts {
        dart: dart.key(),
        name: None,
        fold_depth: typed(tape.round((left + right).fraction(1, 2)), tape),
        length: typed(tape.round(dart.length), tape),
        from_centre: typed(Length::ZERO, tape),
        assumed: false,
    }
}

/// Says of every dart how far from the middle it is sewn then: half of what it takes itself, and what darts and seams nearer the middle take, no longer lies between.
pub(super) fn follow_middle(garment: &mut Garment, subject: &Subject<'_>, girths: &[Girth]) {
    let before = subject.garment;
    let lies = |dart: Dart| {
        let facts = before.darts.iter().find(|facts| facts.dart == dart).map(|f| f.from_centre.length);
        facts.or_else(|| {
            subject
                .darts()
                .find(|new| new.key() == dart && new.is_altered())
                .map(|new| new.from_centre(before))
        })
    };
    let terms: Vec<_> = girths
        .iter()
        .filter(|girth| girth.level.level == Level::Waist)
        .flat_map(|girth| &girth.terms)
        .collect();
    for facts in &mut garment.darts {
        let (dart, is_front) = (facts.dart, facts.dart.is_in_front());
        let Some(out) = lies(dart) else { continue };
        let to_side = before.face_at_waist(is_front).unwrap_or_default();
        let is_inside = |share: f64| Length::from_cm(to_side.cm() * share) < out;
        // What is taken on both sides, of which one half lies on this one.
        let nearer = terms.iter().map(|term| match term.change {
            ChangeKey::Dart(own) if own == dart => term.off().fraction(1, 4),
            ChangeKey::Dart(other) if other.is_in_front() == is_front && lies(other) < Some(out) => {
                term.off().fraction(1, 2)
            }
            ChangeKey::Seam(seam) if is_between(seam, is_front, is_inside) => term.off().fraction(1, 2),
            ChangeKey::Dart(_) | ChangeKey::Seam(_) | ChangeKey::Elastic(_) | ChangeKey::Hem(_) => {
                Length::ZERO
            }
            ChangeKey::Spacing(_) | ChangeKey::Gathers(_) | ChangeKey::Armhole(_) | ChangeKey::Trunk(_) => {
                Length::ZERO
            }
        });
        let left = (out - nearer.sum::<Length>()).max(Length::ZERO);
        if left != facts.from_centre.length {
            facts.from_centre = typed(subject.tape.round(left), subject.tape);
        }
    }
}

/// A seam runs down between the middle of a face and what lies further out.
fn is_between(seam: Seam, is_front: bool, is_inside: impl Fn(f64) -> bool) -> bool {
    match seam {
        Seam::CentreFront | Seam::FrontRise => is_front,
        Seam::CentreBack | Seam::SeatSeam => !is_front,
        Seam::PrincessFront => is_front && is_inside(PRINCESS),
        Seam::PrincessBack => !is_front && is_inside(PRINCESS),
        Seam::PanelFront => is_front && is_inside(PANEL),
        Seam::PanelBack => !is_front && is_inside(PANEL),
        Seam::Outseam | Seam::Inseam | Seam::SideSeam | Seam::SleeveSeam | Seam::SleeveBackSeam => false,
        Seam::ShoulderSeam | Seam::ArmholeSeam | Seam::YokeSeam | Seam::WaistSeam | Seam::NeckSeam => false,
    }
}
