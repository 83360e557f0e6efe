//! The garment: its kind, seams, darts, hems, levels and cloth, as it was found in the look-over.

mod cloth;
mod doubt;
mod ease;
mod faces;
mod gathered;
mod kind;
mod kinds;
mod neckline;
mod parts;
mod seam;
mod start;
mod width;

#[cfg(test)]
mod tests;

pub use crate::place::EaseClass;
pub use cloth::{Cloth, Colour, Drape, Frays, Heat, Weight, cloth_named, named_cloths};
pub use doubt::{Doubt, Instead, doubts, of_wearer as doubts_of_wearer};
pub use ease::{EaseBand, ease_band, moving_adds, stretch_in_use};
pub(crate) use faces::{AT_ARMHOLE, AT_SHOULDER, AT_SIDE, BACK_HIP, PANEL, PRINCESS, SLOPE};
pub use gathered::{GatherHow, GatheredFacts, LongEdge};
pub use kind::{HemAt, Kind, SleeveTo, Start, Template};
pub(crate) use neckline::{BACK_NECK, HIGHEST_NECK, neck_edge};
pub use parts::{
    Band, Closure, ClosureFacts, Collar, Dart, DartFacts, Found, HemEdge, HemFacts, HemTurn, Lined,
    LiningOpens, Neckline, Opening, Origin, Pocket, SpecialEdge, StitchedBy, Washed,
};
pub use seam::{AllowanceAt, Finish, InTheWay, Run, Seam, SeamFacts, SeamSpec};
pub(crate) use start::{BELOW_BUST, UNDERARM_ABOVE_BUST, across_shoulders, starting_seam};
pub use start::{Beginning, begin};
pub use width::{GarmentLevel, Width};

use crate::body::BodyMeasurement;
use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The facts of a garment, as they were found in one look-over.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Garment {
    /// What it is called on the rail.
    pub name: String,
    /// What sort of garment it is.
    pub kind: Kind,
    /// A trial garment in cheap cloth for something still to be made.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub toile: bool,
    /// What it is made of.
    pub cloth: Cloth,
    /// Measured levels, in any order.
    pub levels: Vec<GarmentLevel>,
    /// How deep the waistband is; no band when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub waistband_depth: Option<Measure>,
    /// How many belt loops.
    #[serde(default)]
    pub belt_loops: u8,
    /// From shoulder tip to the edge of the sleeve; no sleeve when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sleeve_length: Option<Measure>,
    /// Across the back from armhole seam to armhole seam, halfway down the armhole, lying flat; nothing when nobody measured it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub across_back: Option<Measure>,
    /// The edge at the neck; the kind's usual one when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub neckline: Option<Neckline>,
    /// What stands round the neck; the kind's usual one when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub collar: Option<Collar>,
    /// Its seams as found inside.
    pub seams: Vec<SeamFacts>,
    /// Its darts, in pairs.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub darts: Vec<DartFacts>,
    /// Its hems.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub hems: Vec<HemFacts>,
    /// Edges of it that were gathered or pleated when it was sewn.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub gathered: Vec<GatheredFacts>,
    /// What opens and closes.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub closures: Vec<ClosureFacts>,
    /// Its pockets.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub pockets: Vec<Pocket>,
    /// What was found out about the whole of it.
    #[serde(default)]
    pub found: Found,
}

/// What goes round at a level: the whole garment, or one of a pair.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Round {
    /// The whole garment.
    Whole,
    /// Each leg.
    Leg,
    /// Each sleeve.
    Sleeve,
}

impl Garment {
    /// The pair of pockets on the seat, if it has one.
    pub fn back_pockets(&self) -> Option<Pocket> {
        let behind = |p: &Pocket| matches!(p, Pocket::BackPatch | Pocket::BackWelt);
        self.pockets.iter().copied().find(behind)
    }

    /// The seam as found, if it was looked over.
    pub fn seam(&self, seam: Seam) -> Option<&SeamFacts> {
        self.seams.iter().find(|s| s.seam == seam)
    }

    /// The level as measured or assumed. Nothing where the garment has no such level.
    pub fn level(&self, level: Level) -> Option<&GarmentLevel> {
        self.levels.iter().find(|l| l.level == level)
    }

    /// It has two legs.
    pub const fn has_legs(&self) -> bool {
        self.kind.template().legs
    }

    /// It hangs from the shoulders, not from the waist.
    pub fn hangs_from_shoulders(&self) -> bool {
        self.level(Level::Shoulder).is_some()
    }

    /// It goes up beyond the waist: to the shoulders, or without straps to the underarm.
    pub fn goes_above_waist(&self) -> bool {
        self.hangs_from_shoulders() || self.level(Level::Bust).is_some()
    }

    /// The edge at the neck.
    pub fn neckline(&self) -> Neckline {
        self.neckline.unwrap_or(self.kind.template().neckline)
    }

    /// What stands round the neck.
    pub fn collar(&self) -> Collar {
        self.collar.unwrap_or(self.kind.template().collar)
    }

    /// A band is known to go round its waist.
    pub fn has_band(&self) -> bool {
        self.waistband_depth.is_some() || self.found.band.is_some()
    }

    /// Nothing unfastens: it is pulled over the head or up the legs.
    pub fn is_pulled_on(&self) -> bool {
        !self.closures.iter().any(|c| c.at != Opening::Cuff && c.closure != Closure::Elastic)
    }

    /// How high above the hem the back is measured across: halfway between shoulder and bust. Nothing where it has not both.
    pub fn height_across_back(&self) -> Option<Length> {
        let [shoulder, bust] = [Level::Shoulder, Level::Bust].map(|level| self.level(level));
        Some((shoulder?.station.length + bust?.station.length).fraction(1, 2))
    }

    /// What a level goes round.
    pub const fn round(&self, level: Level) -> Round {
        if level.is_of_sleeve() {
            Round::Sleeve
        } else if self.has_legs() && level.is_below_crotch() {
            Round::Leg
        } else {
            Round::Whole
        }
    }

    /// The body girth that a level of this garment goes round. Nothing where it goes round no girth that is measured.
    pub fn body_at(&self, level: Level) -> Option<BodyMeasurement> {
        use BodyMeasurement as B;
        let legs = self.has_legs();
        Some(match level {
            Level::Bust => B::BustGirth,
            Level::UnderBust => B::UnderBustGirth,
            Level::Waist => B::WaistGirth,
            Level::Hip => B::HipGirth,
            Level::Thigh if legs => B::ThighGirth,
            Level::Knee if legs => B::KneeGirth,
            Level::Calf if legs => B::CalfGirth,
            Level::Ankle if legs => B::AnkleGirth,
            Level::UpperArm => B::UpperArmGirth,
            Level::Elbow => B::ElbowGirth,
            Level::Wrist => B::WristGirth,
            Level::Thigh | Level::Knee | Level::Calf | Level::Ankle => return None,
            Level::Neck if matches!(self.collar(), Collar::Stand | Collar::Shirt) => B::NeckGirth,
            Level::Neck | Level::Shoulder | Level::Hem | Level::SleeveHem => return None,
        })
    }

    /// The ease wanted at a level over a body girth, at the marks of a tape, where one is taught for this kind and cloth.
    pub fn ease_wanted(&self, level: Level, body: Length, tape: Tape) -> Option<EaseBand> {
        let cloth = &self.cloth;
        ease_band(level, self.kind.template().ease, cloth.structure, cloth.stretch_percent, body, tape)
    }

    /// Levels of the body and legs, or of the sleeve, from the hem up.
    fn levels_up(&self, of_sleeve: bool) -> Vec<GarmentLevel> {
        let mut levels: Vec<GarmentLevel> =
            self.levels.iter().filter(|l| l.level.is_of_sleeve() == of_sleeve).copied().collect();
        levels.sort_by_key(|l| l.station.length);
        levels
    }

    /// Levels of the body and legs from the hem up.
    pub fn body_levels_up(&self) -> Vec<GarmentLevel> {
        self.levels_up(false)
    }

    /// Levels of the sleeve from its hem up.
    pub fn sleeve_levels_up(&self) -> Vec<GarmentLevel> {
        self.levels_up(true)
    }

    /// The levels a seam runs between: its datum and its other end.
    pub fn span_of(&self, seam: Seam) -> (Level, Level) {
        let template = self.kind.template();
        let spec = template.seams.iter().chain(template.may_have).find(|s| s.seam == seam);
        spec.map_or_else(
            || match seam.run() {
                Run::DownSleeve => (Level::SleeveHem, Level::UpperArm),
                Run::Down | Run::Across => {
                    (Level::Hem, if self.goes_above_waist() { Level::Bust } else { Level::Waist })
                }
            },
            |s| (s.from, s.to),
        )
    }

    /// Where a seam ends on this garment, away from its datum: the side seam of a skirt has no underarm.
    pub fn top_of(&self, seam: Seam) -> &'static str {
        if seam.run() == Run::Down && self.span_of(seam).1 == Level::Waist {
            "waist"
        } else if self.goes_on_into(seam).is_some() {
            "underarm"
        } else {
            seam.top()
        }
    }

    /// The seam at its side: the outseam of what has legs, also where it goes up to the underarm.
    pub fn side_seam(&self) -> Seam {
        if self.seam(Seam::Outseam).is_some() { Seam::Outseam } else { Seam::SideSeam }
    }

    /// The seam that a seam meets at its top, where both are sewn in one pass: under the arm, the one at the side and that of the sleeve.
    pub fn goes_on_into(&self, seam: Seam) -> Option<Seam> {
        let side = Some(self.side_seam()).filter(|_| self.hangs_from_shoulders())?;
        if seam == Seam::SleeveSeam { Some(side) } else { Some(Seam::SleeveSeam).filter(|_| seam == side) }
    }

    /// Where a level crosses a seam that runs down, as a station of that seam; nothing where it does not.
    pub fn station_on(&self, seam: Seam, level: Level) -> Option<Length> {
        let (from, to) = self.span_of(seam);
        let runs = match seam.run() {
            Run::Down => !level.is_of_sleeve(),
            Run::DownSleeve => level.is_of_sleeve(),
            Run::Across => false,
        };
        // A garment whose waist was not measured still lets its outseam pass whatever level is there. A seam from the crotch begins
        // somewhere above the thigh.
        let is_crossed = to <= level && (level < from || (level == from && from.is_at_an_edge()));
        let height = |l: &GarmentLevel| l.station.length - self.height_of_datum(seam);
        (runs && is_crossed).then(|| self.level(level).map(height)).flatten()
    }

    /// How high above the hem, or the sleeve's, the stations of a seam begin. One that begins where no level is, at the crotch, is
    /// measured down from the level that it ends at.
    pub fn height_of_datum(&self, seam: Seam) -> Length {
        let (from, to) = self.span_of(seam);
        let at = |level: Level| self.level(level).map(|l| l.station.length);
        let ends = || Some(at(to)? - self.seam(seam)?.length.length);
        let begins = || at(from);
        let height = if from.is_at_an_edge() { begins() } else { ends().or_else(begins) };
        height.unwrap_or_default()
    }

    /// What goes round so far above an edge, straight between measured levels and straight on below it: the whole lower edge, or one leg or
    /// sleeve. Nothing where fewer than two levels are known that go round the same.
    pub fn girth_above(&self, edge: Level, up: Length) -> Option<Length> {
        let same = |l: &&GarmentLevel| {
            l.level.is_of_sleeve() == edge.is_of_sleeve()
                && self.round(l.level) == self.round(edge)
                && l.level != Level::Shoulder
        };
        let mut levels: Vec<&GarmentLevel> = self.levels.iter().filter(same).collect();
        levels.sort_by_key(|l| l.station.length);
        levels.dedup_by_key(|l| l.station.length);
        let height = self.level(edge)?.station.length + up;
        let next = levels.iter().position(|l| l.station.length > height).unwrap_or(levels.len());
        let [low, high] = levels
            .get(next.clamp(1, levels.len().checked_sub(1)?.max(1)) - 1..)?
            .get(..2)?
            .try_into()
            .ok()?;
        let run = high.station.length - low.station.length;
        let share = (height - low.station.length).cm() / run.cm();
        let (below, above): (Length, Length) = (low.width.girth(), high.width.girth());
        Some(below + Length::from_cm((above - below).cm() * share.min(1.0)))
    }

    /// What goes round one side at a station of a seam: a leg's or sleeve's girth, and half of what goes round the whole
    /// body.
    ///
    /// Straight between measured levels, and as the nearest one beyond them; nothing when no level is measured.
    pub fn girth_of_one_side(&self, seam: Seam, station: Length) -> Option<Length> {
        let one_side = |l: &GarmentLevel| match self.round(l.level) {
            Round::Whole => l.width.girth().fraction(1, 2),
            Round::Leg | Round::Sleeve => l.width.girth(),
        };
        let of_sleeve = seam.run() == Run::DownSleeve;
        let levels = || self.levels.iter().filter(|l| l.level.is_of_sleeve() == of_sleeve);
        let station = station + self.height_of_datum(seam);
        let below = levels().filter(|l| l.station.length < station).max_by_key(|l| l.station.length);
        let above = levels().filter(|l| l.station.length >= station).min_by_key(|l| l.station.length);
        match (below, above) {
            (Some(low), Some(high)) => {
                let run = high.station.length - low.station.length;
                let share = (station - low.station.length).cm() / run.cm();
                Some(one_side(low) + Length::from_cm((one_side(high) - one_side(low)).cm() * share))
            }
            (low, high) => low.or(high).map(one_side),
        }
    }
}
