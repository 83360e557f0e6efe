//! A wearer as their page shows them: every measurement in body order, what it was before, what it would unlock.

mod needs;

pub use needs::{Asked, asked};

use crate::body::{BodyMeasurement, Posture, Taken, Taste, Wearer};
use crate::figure::{Picture, ViewSide, body_picture};
use crate::garment::{Doubt, Garment, doubts_of_wearer};
use crate::length::{Figure, Measure, Tape};
use crate::told::capital;
use serde::Serialize;
use utoipa::ToSchema;

/// A wearer with everything that follows from what was measured.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Person {
    /// Every measurement, in body order.
    pub measurements: Vec<MeasurementLine>,
    /// What could be noted of the posture.
    pub postures: Vec<PostureLine>,
    /// What is kept of how much ease they like, in the order of the wearer's.
    pub taste: Vec<String>,
    /// Figures that look like a slip.
    pub doubts: Vec<Doubt>,
    /// The body from the front and from the side, by proportion where it was not measured.
    pub figure: [Picture; 2],
}

/// One measurement of a wearer.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct MeasurementLine {
    /// Which.
    pub what: BodyMeasurement,
    /// Its term.
    pub name: &'static str,
    /// How to take it.
    pub how: &'static str,
    /// It may differ between left and right.
    pub sided: bool,
    /// It is taken in movement.
    pub moving: bool,
    /// Every time it was taken, the newest first.
    pub taken: Vec<TakenLine>,
    /// What it unlocks for the garments of this wearer; empty where nothing needs it.
    pub unlocks: Vec<String>,
}

/// A measurement on one day.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct TakenLine {
    /// Its place in the wearer's list.
    pub index: usize,
    /// The day, where it is known.
    pub date: Option<String>,
    /// The figure that garments are fitted to.
    pub figure: Figure,
    /// On the left, where the sides were taken apart.
    pub left: Option<Figure>,
    /// On the right.
    pub right: Option<Figure>,
}

/// A standing note that can be made.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PostureLine {
    /// Which.
    pub posture: Posture,
    /// In words.
    pub name: &'static str,
    /// What to look for.
    pub sign: &'static str,
}

/// Everything about a wearer and what their garments ask for, with figures on `tape`.
pub fn person(wearer: &Wearer, garments: &[&Garment], tape: Tape) -> Person {
    let asked: Vec<Asked> = asked(garments);
    let line = |what: BodyMeasurement| {
        let facts = what.facts();
        let mut taken: Vec<(usize, &Taken)> =
            wearer.measurements.iter().enumerate().filter(|t| t.1.what == what).collect();
        taken.sort_by_key(|(n, t)| std::cmp::Reverse((t.date, *n)));
        let figure = |m: Measure| tape.figure(m.length);
        let lines = taken.into_iter().filter_map(|(index, t)| {
            Some(TakenLine {
                index,
                date: t.date.map(|d| d.to_string()),
                figure: figure(t.figure()?),
                left: t.left.map(figure),
                right: t.right.map(figure),
            })
        });
        MeasurementLine {
            what,
            name: facts.name,
            how: facts.how,
            sided: facts.sided,
            moving: facts.moving,
            taken: lines.collect(),
            unlocks: asked.iter().find(|a| a.what == what).map_or_else(Vec::new, |a| a.unlocks.clone()),
        }
    };
    let posture = |posture: Posture| PostureLine { posture, name: posture.name(), sign: posture.sign() };
    let taste = |taste: &Taste| {
        let tape = tape.speaking(taste.ease.unit);
        format!("{}: {} {} ease", capital(&taste.name()), tape.as_typed(taste.ease), tape.unit_name())
    };
    Person {
        measurements: BodyMeasurement::ALL.iter().copied().map(line).collect(),
        postures: Posture::ALL.iter().copied().map(posture).collect(),
        taste: wearer.taste.iter().map(taste).collect(),
        doubts: doubts_of_wearer(wearer, tape),
        figure: [ViewSide::Front, ViewSide::Side].map(|view| body_picture(wearer, view)),
    }
}
