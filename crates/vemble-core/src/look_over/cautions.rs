//! What to know before going on, by what was found out.

use super::Caution;
use crate::body::Wearer;
use crate::garment::{Garment, Origin, Washed};
use crate::length::Length;

pub(super) fn cautions(garment: &Garment, wearer: &Wearer) -> Vec<Caution> {
    let mut cautions = Vec::new();
    let found = &garment.found;
    if found.protective == Some(true) {
        cautions.push(Caution {
            grave: true,
            title: "Do not alter this",
            says: "Altering protective clothing voids its protection. Ask the maker.".into(),
        });
    }
    let second_hand = matches!(found.origin, Some(Origin::Thrifted | Origin::Inherited));
    if second_hand && !matches!(found.washed, Some(Washed::Once | Washed::Often)) {
        cautions.push(Caution {
            grave: false,
            title: "Wash it first",
            says: "Second-hand clothes are washed before they are tried on.".into(),
        });
    }
    let cloth = &garment.cloth;
    if found.washed == Some(Washed::Never) && cloth.shrinks_along_percent > 0 {
        cautions.push(Caution {
            grave: false,
            title: "It will shrink",
            says: format!(
                "Unwashed {} still loses about {} % along and {} % across (teaching values). Wash it two or three times before a hem is cut.",
                cloth.name, cloth.shrinks_along_percent, cloth.shrinks_across_percent
            ),
        });
    }
    let height = wearer.get(crate::body::BodyMeasurement::Height);
    if height.is_some_and(|h| h < Length::from_mm(1500)) {
        cautions.push(Caution {
            grave: false,
            title: "Worn by a child",
            says: "Drawstrings, small parts and nightwear are regulated: follow local rules. No pins in mouths, and stay with the child while it is pinned.".into(),
        });
    }
    if cloth.shows_holes {
        cautions.push(Caution {
            grave: false,
            title: "Old stitch holes will show",
            says: format!("In {} a seam that is let out leaves its old line behind.", cloth.name),
        });
    }
    cautions
}
