//! The garment: its kind, seams, levels and cloth, as it was found in the look-over.

use crate::body::{BodyMeasurement, Wearer};
use crate::length::{Length, Measure};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What sort of garment it is; decides which seams and levels it has.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Kind {
    /// Trousers with a waistband, an outseam and an inseam on each leg.
    Trousers,
}

/// A seam of a garment. Each joins a front edge to a back edge and exists on both sides.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Seam {
    /// The outer leg seam, hem to waist.
    Outseam,
    /// The inner leg seam, hem to crotch.
    Inseam,
}

impl Seam {
    /// Its name in a sentence.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Outseam => "outseam",
            Self::Inseam => "inseam",
        }
    }

    /// Where it ends, away from its datum.
    pub const fn top(self) -> &'static str {
        match self {
            Self::Outseam => "waist",
            Self::Inseam => "crotch",
        }
    }
}

/// Where girths are compared, from the top down.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Level {
    /// The natural waist.
    Waist,
    /// The fullest part of the seat.
    Hip,
    /// The fullest part of the thigh, just below the crotch.
    Thigh,
    /// The knee.
    Knee,
    /// The fullest part of the calf.
    Calf,
    /// The finished edge of the leg.
    Hem,
}

impl Level {
    /// Its name in a sentence.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Waist => "waist",
            Self::Hip => "hip",
            Self::Thigh => "thigh",
            Self::Knee => "knee",
            Self::Calf => "calf",
            Self::Hem => "hem",
        }
    }

    /// True where the girth is one leg's, false where it goes round the whole body.
    pub const fn is_of_one_leg(self) -> bool {
        matches!(self, Self::Thigh | Self::Knee | Self::Calf | Self::Hem)
    }

    /// The body girth this level of the garment goes round.
    pub const fn body(self) -> Option<BodyMeasurement> {
        Some(match self {
            Self::Waist => BodyMeasurement::WaistGirth,
            Self::Hip => BodyMeasurement::HipGirth,
            Self::Thigh => BodyMeasurement::ThighGirth,
            Self::Knee => BodyMeasurement::KneeGirth,
            Self::Calf => BodyMeasurement::CalfGirth,
            Self::Hem => return None,
        })
    }
}

/// How the cloth is made.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Structure {
    /// Warp and weft.
    Woven,
    /// Loops.
    Knit,
}

/// How the cloth falls.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Drape {
    /// Stands by itself.
    Crisp,
    /// Follows a fold.
    Soft,
    /// Pours.
    Fluid,
}

/// How much a cut edge frays.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Frays {
    /// Hardly.
    Little,
    /// Loses a few threads.
    Some,
    /// Comes apart.
    Badly,
}

/// What the garment is made of.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Cloth {
    /// What it is called: corduroy, denim, wool flannel.
    pub name: String,
    /// Woven or knit.
    pub structure: Structure,
    /// Crisp, soft or fluid.
    pub drape: Drape,
    /// How far it stretches across, in percent.
    #[serde(default)]
    pub stretch_percent: u8,
    /// How much it frays.
    pub frays: Frays,
    /// Its colour as `#rrggbb`, for the drawings.
    pub colour: Colour,
}

impl Cloth {
    /// Run-out length ÷ offset at which an altered seam lies flat: 8 in stable woven cloth, 6 in soft or fluid
    /// cloth, 4 in knits. Teaching values: stiffer cloth hides less of a bend.
    pub const fn safe_run_out(&self) -> i64 {
        match (self.structure, self.drape) {
            (Structure::Knit, _) => 4,
            (Structure::Woven, Drape::Crisp) => 8,
            (Structure::Woven, Drape::Soft | Drape::Fluid) => 6,
        }
    }

    /// How much allowance must stay beyond a stitching line that is let out, per edge: 4 mm for a serged knit,
    /// 10 mm where it frays, 6 mm in tight weaves (teaching values: what a finished edge needs to hold).
    pub const fn keep(&self) -> Length {
        match (self.structure, self.frays) {
            (Structure::Knit, _) => Length::from_mm(4),
            (_, Frays::Little) => Length::from_mm(6),
            (_, Frays::Some | Frays::Badly) => Length::from_mm(10),
        }
    }
}

/// A colour written `#rrggbb`.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(try_from = "String", into = "String")]
#[schema(value_type = String, pattern = "^#[0-9a-fA-F]{6}$", example = "#7a5c3e")]
pub struct Colour(String);

impl TryFrom<String> for Colour {
    type Error = String;
    fn try_from(text: String) -> Result<Self, String> {
        let hex =
            text.strip_prefix('#').is_some_and(|h| h.len() == 6 && h.bytes().all(|b| b.is_ascii_hexdigit()));
        if hex {
            Ok(Self(text))
        } else {
            Err(format!("“{text}” is not a colour; expected #rrggbb, like #7a5c3e"))
        }
    }
}
impl From<Colour> for String {
    fn from(colour: Colour) -> String {
        colour.0
    }
}

/// How wide the garment is at a level, in one of the two ways it is measured.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Width {
    /// The width of the garment lying flat: half its girth.
    LaidFlat(Measure),
    /// All the way round.
    Girth(Measure),
}

impl Width {
    /// All the way round.
    pub fn girth(self) -> Length {
        match self {
            Self::LaidFlat(m) => m.length * 2,
            Self::Girth(m) => m.length,
        }
    }

    /// As it was written.
    pub const fn measure(self) -> Measure {
        match self {
            Self::LaidFlat(m) | Self::Girth(m) => m,
        }
    }
}

/// A measured level of the garment.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GarmentLevel {
    /// Which level.
    pub level: Level,
    /// How far up from the hem, along the outseam.
    pub station: Measure,
    /// How wide it is there.
    pub width: Width,
}

/// Something that an altered seam may run into.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct InTheWay {
    /// What it is: pocket opening, belt loop, label, topstitching.
    pub what: String,
    /// Where it begins on the seam.
    pub from: Measure,
    /// Where it ends on the seam.
    pub to: Measure,
}

/// A seam as it was found.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SeamFacts {
    /// Which seam.
    pub seam: Seam,
    /// Its length from the hem to its other end.
    pub length: Measure,
    /// The allowance found inside, on each edge.
    pub allowance: Measure,
    /// What lies across it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub in_the_way: Vec<InTheWay>,
}

/// A garment and who wears it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Garment {
    /// What it is called on the rail.
    pub name: String,
    /// What sort of garment it is.
    pub kind: Kind,
    /// Who wears it.
    pub wearer: Wearer,
    /// What it is made of.
    pub cloth: Cloth,
    /// Measured levels, in any order.
    pub levels: Vec<GarmentLevel>,
    /// How deep the waistband is; no band when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub waistband_depth: Option<Measure>,
    /// Its seams as found inside.
    pub seams: Vec<SeamFacts>,
}

impl Garment {
    /// The seam as found, if it was looked over.
    pub fn seam(&self, seam: Seam) -> Option<&SeamFacts> {
        self.seams.iter().find(|s| s.seam == seam)
    }

    /// Measured levels from the hem up.
    pub fn levels_up(&self) -> Vec<GarmentLevel> {
        let mut levels = self.levels.clone();
        levels.sort_by_key(|l| l.station.length);
        levels
    }

    /// What goes round one side at `station`: a leg's girth, and half of what goes round the whole body.
    ///
    /// Straight between measured levels, and as the nearest one beyond them; nothing when no level is measured.
    pub fn girth_of_one_side(&self, station: Length) -> Option<Length> {
        let one_side = |l: &GarmentLevel| match l.level.is_of_one_leg() {
            true => l.width.girth(),
            false => l.width.girth().fraction(1, 2),
        };
        let levels = self.levels_up();
        let above = levels.iter().position(|l| l.station.length >= station).unwrap_or(levels.len());
        match (above.checked_sub(1).map(|below| &levels[below]), levels.get(above)) {
            (Some(low), Some(high)) => {
                let run = high.station.length - low.station.length;
                let share = (station - low.station.length).cm() / run.cm();
                Some(one_side(low) + Length::from_cm((one_side(high) - one_side(low)).cm() * share))
            }
            (low, high) => low.or(high).map(one_side),
        }
    }
}
