//! What is entered for fastenings along an opening.

use crate::change::Input;
use crate::choice::choice;
use crate::garment::{Closure, Garment, Opening};
use crate::length::Measure;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// How fastenings are spaced.
    #[derive(Default)]
    Spaced {
        /// The first and the last stand where they are to, the others between them.
        #[default]
        Evenly => "evenly from the first to the last",
        /// One stands on a line of the body, and the others at even distances from the first on.
        OnTheLine => "one on the bust line, the others from there",
        /// Half a distance above and below a line of the body, and on from there.
        Straddling => "two astride the waist line, the others from there",
        /// They stay where they are; what comes to lie below the new edge is left out.
        Kept => "left where they are, the last dropped",
    }
}

/// How the fastenings of an opening are spaced.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SpacingChange {
    /// Which opening.
    pub at: Opening,
    /// How long its edge is now, from its top down.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub edge: Option<Measure>,
    /// Its edge ends in the hem, and is shortened with it; what such openings do, when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub to_hem: Option<bool>,
    /// The first, below the top.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub first: Option<Measure>,
    /// The last, above the lower end.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub last: Option<Measure>,
    /// How far apart they are wanted; by their number when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub apart: Option<Measure>,
    /// How many along the edge; as many as there are when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub count: Option<u8>,
    /// How they are spaced.
    #[serde(default)]
    pub how: Spaced,
    /// How far below the top the line of the body lies that they are spaced about; by the garment's levels when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub line: Option<Measure>,
}

impl Input for SpacingChange {
    type Key = Opening;

    fn of(at: Opening) -> Self {
        Self {
            at,
            edge: None,
            to_hem: None,
            first: None,
            last: None,
            apart: None,
            count: None,
            how: Spaced::default(),
            line: None,
        }
    }

    fn key(&self) -> Opening {
        self.at
    }

    fn name(garment: &Garment, at: Opening) -> String {
        let what = fastened_by(garment, at).map_or("fastenings", Closure::fastenings);
        format!("{what}, {}", at.name())
    }

    fn fits(garment: &Garment, at: Opening) -> bool {
        fastened_by(garment, at).is_some()
    }

    fn reads_from(_: Opening) -> (&'static str, [&'static str; 2]) {
        ("top of the opening", ["one", "other"])
    }

    const HAS_PANELS: bool = false;
}

/// What an opening up or down the body is fastened by one after the other; nothing of a zip, and of what goes round.
pub(super) fn fastened_by(garment: &Garment, at: Opening) -> Option<Closure> {
    let along = matches!(at, Opening::CentreFront | Opening::CentreBack | Opening::LeftSide);
    let spaced = |c: &Closure| matches!(c, Closure::Buttons | Closure::Hooks | Closure::Lacing);
    garment.closures.iter().filter(|c| along && c.at == at).map(|c| c.closure).find(spaced)
}
