//! What the cloth says: its signs by place, each drawn on a garment and its wearer; what it may come from, likeliest first; what tells one
//! cause from another; and the change it leads to. A suggestion: nothing is ever changed by a sign itself.

mod causes;
mod lead;

#[cfg(test)]
mod tests;

use crate::body::Wearer;
use crate::change::{Change, ChangeKey};
use crate::choice::choice;
use crate::figure::{Picture, ViewSide, body_picture, place_spot, sign_picture};
use crate::fitting::{Face, Seen, Sign, SignPlace};
use crate::garment::{Beginning, Garment, Kind, Lined, begin, cloth_named};
use crate::judge::{EaseWord, Girth, Subject, girths};
use crate::length::Tape;
use crate::place::Level;
use causes::{Cause, Confirm, causes};
use serde::Serialize;
use utoipa::ToSchema;

/// Everything that cloth says, by place.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Signs {
    /// The wearer, small: to look for a place on.
    pub body: Picture,
    /// Place by place, from the top down; those where something can be seen.
    pub places: Vec<PlaceOfSigns>,
}

/// The signs of one place.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PlaceOfSigns {
    /// Which.
    pub place: SignPlace,
    /// In words.
    pub name: &'static str,
    /// Where it lies on the small body: across and down, in mm.
    pub spot_mm: [f64; 2],
    /// What is seen there.
    pub signs: Vec<SignLine>,
}

/// One sign, as it is shown.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SignLine {
    /// Which.
    pub sign: Sign,
    /// In words.
    pub name: &'static str,
    /// What the cloth does: an observation of it is filled in with this, the level and the face.
    pub seen: Seen,
    /// At which level.
    pub level: Level,
    /// From where.
    pub face: Face,
    /// The garment on its wearer, with it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub picture: Option<Picture>,
    /// What it may come from, likeliest first.
    pub causes: Vec<CauseLine>,
}

choice! {
    /// What the figures that are known say to a cause.
    Speaks {
        For => "your figures say so too",
        Against => "your figures say otherwise",
        Unknown => "look",
    }
}

/// What a sign may come from.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CauseLine {
    /// Why.
    pub why: &'static str,
    /// What to try first.
    pub first: &'static str,
    /// What confirms it, with the figures that are known.
    pub confirms: String,
    /// What those say.
    pub speaks: Speaks,
    /// The same in words; nothing where nothing is known.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub spoken: Option<&'static str>,
    /// The change that it leads to, on a garment that can be changed so.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lead: Option<LeadLine>,
}

/// A change that a sign leads to.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LeadLine {
    /// What is tried.
    pub says: String,
    /// Which change.
    pub key: ChangeKey,
    /// The change, begun with a figure to try.
    pub change: Change,
}

/// The signs that a garment can show, drawn on it and its wearer.
///
/// Draws the garment once for each sign: some milliseconds.
pub fn signs(garment: &Garment, wearer: &Wearer, tape: Tape) -> Signs {
    let shown = |sign: Sign| sign.can_show_on(garment).then(|| line(sign, garment, wearer, tape));
    by_place(wearer, shown)
}

/// Every sign, each on a garment as such garments usually are on a wearer.
pub fn every_sign(wearer: &Wearer, tape: Tape) -> Signs {
    let examples: Vec<Garment> =
        EXAMPLES.iter().filter_map(|(kind, lined)| example(*kind, *lined, wearer)).collect();
    let shown = |sign: Sign| {
        let can_show = |garment: &&Garment| sign.can_show_on(garment);
        // A long sleeve shows more than a short one.
        let garment = match sign.place() {
            SignPlace::Sleeve => examples.iter().rev().find(can_show),
            SignPlace::NeckAndShoulders
            | SignPlace::Bust
            | SignPlace::Waist
            | SignPlace::Seat
            | SignPlace::Legs
            | SignPlace::Openings
            | SignPlace::Edges => examples.iter().find(can_show),
        }?;
        Some(line(sign, garment, wearer, tape))
    };
    by_place(wearer, shown)
}

/// What signs are drawn on where no garment is at hand, the first that can show one.
const EXAMPLES: [(Kind, bool); 4] = [
    (Kind::DressWithWaistSeam, false),
    (Kind::Trousers, false),
    (Kind::Shirt, false),
    (Kind::LinedCoat, true),
];

/// Of its usual cloth.
fn example(kind: Kind, lined: bool, wearer: &Wearer) -> Option<Garment> {
    let cloth = cloth_named(kind.template().cloth)?;
    let mut garment = begin(Beginning {
        name: kind.template().name.into(),
        kind,
        toile: false,
        wearer: wearer.clone(),
        cloth,
    });
    garment.found.lined = lined.then_some(Lined::Fully);
    Some(garment)
}

fn by_place(wearer: &Wearer, shown: impl Fn(Sign) -> Option<SignLine>) -> Signs {
    let of = |place: SignPlace| {
        let signs: Vec<SignLine> =
            Sign::ALL.iter().filter(|sign| sign.place() == place).filter_map(|sign| shown(*sign)).collect();
        PlaceOfSigns { place, name: place.name(), spot_mm: place_spot(place, wearer), signs }
    };
    Signs {
        body: body_picture(wearer, ViewSide::Front),
        places: SignPlace::ALL
            .iter()
            .map(|place| of(*place))
            .filter(|place| !place.signs.is_empty())
            .collect(),
    }
}

fn line(sign: Sign, garment: &Garment, wearer: &Wearer, tape: Tape) -> SignLine {
    let (seen, level, face) = sign.seen();
    let all = girths(&Subject::as_it_is(garment, wearer, tape));
    let cause = |cause: &Cause| cause_line(cause, garment, wearer, &all, tape);
    SignLine {
        sign,
        name: sign.name(),
        seen,
        level,
        face,
        picture: sign_picture(sign, garment, wearer),
        causes: causes(sign).iter().map(cause).collect(),
    }
}

fn cause_line(cause: &Cause, garment: &Garment, wearer: &Wearer, all: &[Girth], tape: Tape) -> CauseLine {
    let (confirms, speaks) = confirmed(cause.confirms, wearer, all, tape);
    let lead = cause.lead.and_then(|lead| {
        let change = lead.change(garment, tape)?;
        let key = change.key();
        Some(LeadLine { says: lead.says(garment, key, tape), key, change })
    });
    CauseLine {
        why: cause.why,
        first: cause.first,
        confirms,
        speaks,
        spoken: (speaks != Speaks::Unknown).then(|| speaks.name()),
        lead,
    }
}

/// What confirms a cause, and what is known of it.
fn confirmed(confirm: Confirm, wearer: &Wearer, all: &[Girth], tape: Tape) -> (String, Speaks) {
    match confirm {
        Confirm::Tight(level) => by_ease(level, all, tape, |word| match word {
            EaseWord::TooTight | EaseWord::Close => Speaks::For,
            EaseWord::Usual | EaseWord::Roomy | EaseWord::Loose => Speaks::Against,
        }),
        Confirm::Loose(level) => by_ease(level, all, tape, |word| match word {
            EaseWord::Roomy | EaseWord::Loose => Speaks::For,
            EaseWord::TooTight | EaseWord::Close | EaseWord::Usual => Speaks::Against,
        }),
        Confirm::Body(what) => match wearer.get(what) {
            Some(length) => (
                format!("Hold the wearer’s {} of {} against the garment.", what.name(), tape.show(length)),
                Speaks::Unknown,
            ),
            None => (format!("Measure the wearer’s {}.", what.name()), Speaks::Unknown),
        },
        Confirm::Stands(posture) if wearer.stands(posture) => {
            (format!("Noted of the wearer: {}.", posture.name()), Speaks::For)
        }
        Confirm::Stands(posture) => (posture.sign().into(), Speaks::Unknown),
        Confirm::Try(what) => (what.into(), Speaks::Unknown),
    }
}

/// The ease at a level as a sum, and whether its word speaks for a cause.
fn by_ease(level: Level, all: &[Girth], tape: Tape, says: impl Fn(EaseWord) -> Speaks) -> (String, Speaks) {
    let name = level.name();
    let Some(girth) = all.iter().find(|girth| girth.level.level == level) else {
        return (format!("Measure the garment and the wearer at the {name}."), Speaks::Unknown);
    };
    let (Some(body), Some(ease)) = (girth.body, girth.ease_before()) else {
        return (format!("Measure the wearer at the {name}."), Speaks::Unknown);
    };
    let sum = format!(
        "{}: {} − {} = {} of ease",
        name,
        tape.bare(girth.before()),
        tape.bare(body),
        tape.show(ease)
    );
    match girth.words() {
        Some([word, _]) => (crate::told::capital(&format!("{sum}, {}.", word.name())), says(word)),
        None => (crate::told::capital(&format!("{sum}.")), Speaks::Unknown),
    }
}
