//! Cloth: what it is made like, and what that means for an alteration.

use crate::choice::choice;
use crate::length::Taught;
use crate::place::Structure;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// How the cloth falls.
    Drape {
        /// Stands by itself.
        Crisp => "crisp",
        /// Follows a fold.
        Soft => "soft",
        /// Pours.
        Fluid => "fluid",
    }
}

choice! {
    /// How much a cut edge frays.
    Frays {
        /// Hardly.
        Little => "little",
        /// Loses a few threads.
        Some => "some",
        /// Comes apart.
        Badly => "badly",
    }
}

choice! {
    /// How heavy the cloth is.
    #[derive(Default)]
    Weight {
        /// Lawn, voile, chiffon.
        Light => "light",
        /// Shirting, poplin, jersey.
        #[default]
        Medium => "medium",
        /// Denim, coating.
        Heavy => "heavy",
    }
}

choice! {
    /// How hot an iron it takes.
    #[derive(Default)]
    Heat {
        /// A cool iron: synthetics.
        Cool => "cool",
        /// A warm iron: wool, silk.
        #[default]
        Warm => "warm",
        /// A hot iron: cotton, linen.
        Hot => "hot",
    }
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
    /// Light, medium or heavy.
    #[serde(default)]
    pub weight: Weight,
    /// Old stitch holes and fold lines stay visible when a seam is let out.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub shows_holes: bool,
    /// How hot an iron it takes.
    #[serde(default)]
    pub heat: Heat,
    /// What it still loses along its length when first washed, in percent.
    #[serde(default)]
    pub shrinks_along_percent: u8,
    /// What it still loses across, in percent.
    #[serde(default)]
    pub shrinks_across_percent: u8,
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
    pub const fn keep(&self) -> Taught {
        match (self.structure, self.frays) {
            (Structure::Knit, _) => Taught::new(4, 8),
            (_, Frays::Little) => Taught::new(6, 16),
            (_, Frays::Some | Frays::Badly) => Taught::new(10, 24),
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

/// Name, structure, drape, stretch %, frays, weight, shows holes, heat, shrinkage along and across in %, colour.
type Row = (&'static str, Structure, Drape, u8, Frays, Weight, bool, Heat, (u8, u8), &'static str);

/// Cloths by name, with what is usual for them: a start that anybody may change. Teaching values throughout; shrinkage
/// is what an unwashed piece still loses (cotton and denim 3 and 1, linen 4 and 2, rayon 5 and 2, steamed wool 3 and 2,
/// synthetics none).
#[rustfmt::skip]
const CLOTHS: [Row; 38] = {
    use Drape::{Crisp, Fluid, Soft};
    use Frays::{Badly, Little, Some};
    use Heat::{Cool, Hot, Warm};
    use Structure::{Knit, Woven};
    use Weight::{Heavy, Light, Medium};
    [
        ("calico", Woven, Crisp, 0, Some, Medium, false, Hot, (3, 1), "#e8dcc0"),
        ("cotton lawn", Woven, Soft, 0, Some, Light, false, Hot, (3, 1), "#c9d3c4"),
        ("cotton poplin", Woven, Crisp, 0, Some, Medium, false, Hot, (3, 1), "#dfe3e2"),
        ("cotton voile", Woven, Fluid, 0, Some, Light, false, Hot, (3, 1), "#e6d9d2"),
        ("cotton sateen", Woven, Soft, 0, Some, Medium, true, Hot, (3, 1), "#b8a7ad"),
        ("cotton twill", Woven, Crisp, 0, Some, Medium, false, Hot, (3, 1), "#a08b62"),
        ("canvas", Woven, Crisp, 0, Some, Heavy, false, Hot, (3, 1), "#b5a27c"),
        ("chambray", Woven, Soft, 0, Some, Light, false, Hot, (3, 1), "#8ea3b5"),
        ("corduroy", Woven, Crisp, 0, Some, Medium, false, Warm, (3, 1), "#8a6a3f"),
        ("denim", Woven, Crisp, 0, Some, Heavy, true, Hot, (3, 1), "#3f5570"),
        ("denim with elastane", Woven, Crisp, 15, Some, Heavy, true, Warm, (3, 1), "#46607d"),
        ("drill", Woven, Crisp, 0, Some, Heavy, false, Hot, (3, 1), "#6f6a58"),
        ("flannelette", Woven, Soft, 0, Some, Medium, false, Hot, (3, 1), "#a9908b"),
        ("gingham", Woven, Crisp, 0, Some, Medium, false, Hot, (3, 1), "#9fb3a3"),
        ("seersucker", Woven, Crisp, 0, Some, Light, false, Warm, (3, 1), "#b9c6cf"),
        ("velveteen", Woven, Soft, 0, Some, Medium, true, Warm, (3, 1), "#5d3f4a"),
        ("linen", Woven, Crisp, 0, Badly, Medium, false, Hot, (4, 2), "#c2b58e"),
        ("linen and cotton", Woven, Soft, 0, Some, Medium, false, Hot, (4, 2), "#b7b39a"),
        ("wool flannel", Woven, Soft, 0, Little, Medium, false, Warm, (3, 2), "#6d6a66"),
        ("wool gabardine", Woven, Crisp, 0, Some, Medium, false, Warm, (3, 2), "#545049"),
        ("wool crepe", Woven, Fluid, 0, Some, Medium, false, Warm, (3, 2), "#43454d"),
        ("herringbone tweed", Woven, Crisp, 0, Some, Heavy, false, Warm, (3, 2), "#77705f"),
        ("coating", Woven, Crisp, 0, Little, Heavy, false, Warm, (3, 2), "#4f4a44"),
        ("rayon challis", Woven, Fluid, 0, Some, Light, false, Warm, (5, 2), "#7f8f7a"),
        ("viscose crepe", Woven, Fluid, 0, Some, Light, false, Warm, (5, 2), "#86636c"),
        ("silk habotai", Woven, Fluid, 0, Badly, Light, true, Warm, (0, 0), "#d8c7b0"),
        ("silk dupion", Woven, Crisp, 0, Badly, Medium, true, Warm, (0, 0), "#9c6b4e"),
        ("satin", Woven, Fluid, 0, Badly, Medium, true, Cool, (0, 0), "#a88f96"),
        ("taffeta", Woven, Crisp, 0, Badly, Light, true, Cool, (0, 0), "#6a5a72"),
        ("chiffon", Woven, Fluid, 0, Badly, Light, true, Cool, (0, 0), "#c9b9c2"),
        ("polyester crepe", Woven, Fluid, 0, Some, Medium, false, Cool, (0, 0), "#596172"),
        ("velvet", Woven, Soft, 0, Badly, Medium, true, Cool, (0, 0), "#4a2f3a"),
        ("leather", Woven, Soft, 0, Little, Heavy, true, Cool, (0, 0), "#5b4032"),
        ("jersey", Knit, Soft, 40, Little, Light, false, Warm, (3, 1), "#7d8794"),
        ("interlock", Knit, Soft, 25, Little, Medium, false, Warm, (3, 1), "#94808a"),
        ("ponte", Knit, Crisp, 20, Little, Medium, false, Warm, (0, 0), "#3c3f46"),
        ("sweatshirt fleece", Knit, Soft, 20, Little, Medium, false, Warm, (3, 1), "#8c8a83"),
        ("rib knit", Knit, Soft, 70, Little, Medium, false, Warm, (3, 1), "#6e7468"),
    ]
};

/// Every cloth known by name, with its usual properties.
pub fn named_cloths() -> impl Iterator<Item = Cloth> {
    CLOTHS.iter().map(|&(name, structure, drape, stretch, frays, weight, holes, heat, shrinks, colour)| {
        Cloth {
            name: name.into(),
            structure,
            drape,
            stretch_percent: stretch,
            frays,
            weight,
            shows_holes: holes,
            heat,
            shrinks_along_percent: shrinks.0,
            shrinks_across_percent: shrinks.1,
            colour: Colour(colour.into()),
        }
    })
}

/// The cloth of that name. Nothing where no such cloth is known.
pub fn cloth_named(name: &str) -> Option<Cloth> {
    named_cloths().find(|c| c.name == name)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_named_cloth_is_told_apart_and_has_a_colour() {
        let cloths: Vec<Cloth> = named_cloths().collect();
        assert!(cloths.len() >= 30);
        for (n, cloth) in cloths.iter().enumerate() {
            assert!(cloths[..n].iter().all(|other| other.name != cloth.name), "{}", cloth.name);
            assert!(Colour::try_from(cloth.colour.0.clone()).is_ok(), "{}", cloth.name);
            assert_eq!(cloth.structure == Structure::Knit, cloth.safe_run_out() == 4, "{}", cloth.name);
        }
        let holes = |name| cloth_named(name).unwrap().shows_holes;
        assert!(holes("satin") && holes("leather") && holes("velvet") && holes("taffeta"));
        assert!(!holes("wool flannel"));
    }
}
