//! Parts that some garments of a kind have and this one has not: an extra panel seam, a pair of darts, one more level.

use super::{Addition, Part};
use crate::body::{Proportions, Wearer};
use crate::garment::{
    Closure, ClosureFacts, Dart, DartFacts, Garment, GarmentLevel, HemEdge, HemFacts, HemTurn, Opening,
    StitchedBy, Width, starting_seam,
};
use crate::length::{Length, Measure, Unit};
use crate::place::Level;

pub(super) fn additions(garment: &Garment, wearer: &Wearer) -> Vec<Addition> {
    let mut additions = Vec::new();
    let template = garment.kind.template();
    let body = Proportions::of(wearer);
    for spec in template.seams.iter().chain(template.may_have).filter(|s| garment.seam(s.seam).is_none()) {
        additions.push(Addition {
            words: spec.seam.name().into(),
            list: "seams",
            part: Part::Seam(starting_seam(garment, &body, spec)),
        });
    }
    let mm = |mm| Measure { length: Length::from_mm(mm), unit: Unit::Cm };
    for dart in Dart::ALL.iter().filter(|d| garment.darts.iter().all(|other| other.dart != **d)) {
        let has_room = match dart {
            Dart::Shoulder => garment.hangs_from_shoulders(),
            Dart::Bust | Dart::FrontFishEye | Dart::BackFishEye => garment.goes_above_waist(),
            Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => true,
        };
        if !has_room {
            continue;
        }
        let length = if matches!(dart, Dart::FrontFishEye | Dart::BackFishEye) { 280 } else { 110 };
        let part = DartFacts {
            dart: *dart,
            name: None,
            fold_depth: mm(10),
            length: mm(length),
            from_centre: mm(85),
            assumed: true,
        };
        additions.push(Addition {
            words: format!("pair of {}s", dart.name()),
            list: "darts",
            part: Part::Dart(part),
        });
    }
    for level in Level::ALL.iter().copied().filter(|l| garment.level(*l).is_none()) {
        if let Some(part) = level_between(garment, level) {
            additions.push(Addition {
                words: format!("level: {}", level.name()),
                list: "levels",
                part: Part::Level(part),
            });
        }
    }
    for edge in HemEdge::ALL.iter().filter(|e| garment.hems.iter().all(|h| h.edge != **e)) {
        let fits = match edge {
            HemEdge::Body => !garment.has_legs(),
            HemEdge::Leg => garment.has_legs(),
            HemEdge::Sleeve => garment.sleeve_length.is_some(),
        };
        if fits {
            let part = HemFacts {
                visible: None,
                vent: None,
                edge: *edge,
                turn: HemTurn::Double,
                turn_up: mm(20),
                by: StitchedBy::Machine,
                assumed: true,
            };
            additions.push(Addition {
                words: format!("hem, {}", edge.name()),
                list: "hems",
                part: Part::Hem(part),
            });
        }
    }
    let part = ClosureFacts { closure: Closure::Zip, at: Opening::CentreBack, count: 1 };
    additions.push(Addition { words: "closure".into(), list: "closures", part: Part::Closure(part) });
    additions
}

/// A level halfway between its neighbours, as far up as the body has it between theirs.
fn level_between(garment: &Garment, level: Level) -> Option<GarmentLevel> {
    let same = |l: &&GarmentLevel| l.level.is_of_sleeve() == level.is_of_sleeve();
    let above = garment.levels.iter().filter(same).filter(|l| l.level < level).max_by_key(|l| l.level)?;
    let below = garment.levels.iter().filter(same).filter(|l| l.level > level).min_by_key(|l| l.level)?;
    let fits = !matches!(level, Level::Shoulder | Level::Neck)
        && above.level != Level::Shoulder
        && above.level != Level::Neck;
    let half = |a: Length, b: Length| (a + b).fraction(1, 2).nearest(Length::from_mm(5));
    fits.then(|| GarmentLevel {
        level,
        station: Measure {
            length: half(above.station.length, below.station.length),
            unit: above.station.unit,
        },
        width: Width::Girth(Measure {
            length: girth_between(garment, above, below),
            unit: above.station.unit,
        }),
        assumed: true,
    })
}

/// Halfway between two girths; where one goes round both legs and the other round one, near the one below.
fn girth_between(garment: &Garment, above: &GarmentLevel, below: &GarmentLevel) -> Length {
    match garment.round(above.level) == garment.round(below.level) {
        true => (above.width.girth() + below.width.girth()).fraction(1, 2).nearest(Length::from_mm(5)),
        false => below.width.girth(),
    }
}
