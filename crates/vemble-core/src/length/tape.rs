//! The user's tape: at which marks lengths are shown, so that parts add up and products can be followed.

use super::{Length, Measure, Unit, in_64ths};
use serde::{Deserialize, Serialize, Serializer};
use strum::{EnumString, IntoStaticStr, VariantArray};
use utoipa::ToSchema;

/// The user's tape: the unit and the finest mark that figures are shown at.
#[derive(
    Clone,
    Copy,
    Debug,
    PartialEq,
    Eq,
    Hash,
    Default,
    Serialize,
    Deserialize,
    ToSchema,
    VariantArray,
    IntoStaticStr,
    EnumString,
)]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
pub enum Tape {
    /// Centimetres, to the millimetre.
    #[default]
    Cm,
    /// Centimetres, to five millimetres.
    #[serde(alias = "cm-halves")]
    #[strum(to_string = "cm_halves", serialize = "cm-halves")]
    CmHalves,
    /// Inches, to the eighth.
    In,
    /// Inches, to the sixteenth.
    #[serde(alias = "in-sixteenths")]
    #[strum(to_string = "in_sixteenths", serialize = "in-sixteenths")]
    InSixteenths,
}

impl Tape {
    /// All of them.
    pub const ALL: &'static [Self] = Self::VARIANTS;

    /// Its word in documents, the HTTP interface and on the command line; each of them reads it with a hyphen too.
    pub fn word(self) -> &'static str {
        self.into()
    }

    /// The finest mark of this tape.
    pub const fn mark(self) -> Length {
        match self {
            Self::Cm => Length::from_mm(1),
            Self::CmHalves => Length::from_mm(5),
            Self::In => Length::from_64ths(8),
            Self::InSixteenths => Length::from_64ths(4),
        }
    }

    /// The unit that a bare number on this tape's page means.
    pub const fn unit(self) -> Unit {
        match self {
            Self::Cm | Self::CmHalves => Unit::Cm,
            Self::In | Self::InSixteenths => Unit::In,
        }
    }

    /// This tape, or one like it in another unit: what somebody typed in inches is spoken of in inches.
    pub const fn speaking(self, unit: Unit) -> Self {
        match (unit, self.unit()) {
            (Unit::In, Unit::In) | (Unit::Mm | Unit::Cm, Unit::Mm | Unit::Cm) => self,
            (Unit::In, Unit::Mm | Unit::Cm) => Self::In,
            (Unit::Mm | Unit::Cm, Unit::In) => Self::Cm,
        }
    }

    /// The unit as it is written behind a figure.
    pub const fn unit_name(self) -> &'static str {
        match self.unit() {
            Unit::In => "in",
            Unit::Mm | Unit::Cm => "cm",
        }
    }

    /// The unit as a word in a sentence.
    pub const fn unit_word(self) -> &'static str {
        match self.unit() {
            Unit::In => "inches",
            Unit::Mm | Unit::Cm => "cm",
        }
    }

    /// Distance between the marks that a chalk line needs at least: 5 cm or 2 in (teaching value: a hand's
    /// width is as far as the eye keeps a curve between two chalk dots).
    pub const fn chalk_step(self) -> Length {
        match self.unit() {
            Unit::In => Length::from_64ths(128),
            Unit::Mm | Unit::Cm => Length::from_mm(50),
        }
    }

    /// The length at the nearest mark, ties away from zero.
    pub const fn round(self, length: Length) -> Length {
        length.nearest(self.mark())
    }

    /// The figure at the nearest mark without its unit: `4.5`, `1 3/4`, `−0.3`.
    pub fn bare(self, length: Length) -> String {
        let rounded = self.round(length);
        // A solve shows hundreds of figures: this writes digits without the formatting machinery.
        let mut text = String::with_capacity(16);
        if rounded.is_negative() {
            text.push('−');
        }
        match self.unit() {
            Unit::In => text.push_str(&in_64ths(rounded.0.abs() / 396_875)),
            Unit::Mm | Unit::Cm => {
                let mm = rounded.0.abs() / 1_000_000;
                text.push_str(itoa::Buffer::new().format(mm / 10));
                text.push('.');
                text.push(char::from(b'0' + (mm % 10) as u8));
            }
        }
        text
    }

    /// A figure that somebody typed, without its unit: as it was typed where that is finer than the marks of a tape of its unit.
    pub fn as_typed(self, typed: Measure) -> String {
        let text =
            Measure { unit: if typed.unit == Unit::Mm { Unit::Cm } else { typed.unit }, ..typed }.to_string();
        match text.strip_suffix(self.unit_name()) {
            Some(bare) if self.round(typed.length) != typed.length => bare.trim_end().replace('-', "−"),
            Some(_) | None => self.bare(typed.length),
        }
    }

    /// The figure at the nearest mark with its unit: `4.5 cm`, `1 3/4 in`.
    pub fn show(self, length: Length) -> String {
        let mut text = self.bare(length);
        text.push(' ');
        text.push_str(self.unit_name());
        text
    }

    /// A figure for a screen: the exact length and its text on this tape.
    pub const fn figure(self, length: Length) -> Figure {
        Figure { nm: length.0, tape: self }
    }
}

/// How often one length goes into another, to a tenth and never more than it does: `7.9`.
///
/// Computed in whole numbers, so that 9.6 ÷ 1.6 is 6; `each` is more than nought.
pub fn times(long: Length, each: Length) -> String {
    let tenths = (i128::from(long.0) * 10).div_euclid(i128::from(each.0));
    format!("{}.{}", tenths / 10, tenths % 10)
}

/// A teaching value, as people say it on either tape: 3 cm and 1 1/4 in. A pair, never a conversion.
#[derive(Clone, Copy, Debug)]
pub struct Taught {
    cm: Length,
    inches: Length,
}

impl Taught {
    /// So many millimetres, and so many sixty-fourths of an inch.
    pub const fn new(mm: i64, sixty_fourths: i64) -> Self {
        Self { cm: Length::from_mm(mm), inches: Length::from_64ths(sixty_fourths) }
    }

    /// What is said of it on a tape.
    pub const fn on(self, tape: Tape) -> Length {
        match tape.unit() {
            Unit::In => self.inches,
            Unit::Mm | Unit::Cm => self.cm,
        }
    }
}

/// A derived length as screens, cards and files get it: exact, and in words on the user's tape.
///
/// A solve has hundreds of them; their words are made only where they are read.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Figure {
    /// Exact, in nanometres.
    pub nm: i64,
    tape: Tape,
}

impl Figure {
    /// At the nearest mark of the user's tape, with its unit.
    pub fn text(self) -> String {
        self.tape.show(Length(self.nm))
    }

    /// The same without its unit, for columns whose heading has it.
    pub fn bare(self) -> String {
        self.tape.bare(Length(self.nm))
    }

    /// Exactly, as documents hold it: in the unit of the tape.
    pub const fn measure(self) -> Measure {
        Measure { length: Length(self.nm), unit: self.tape.unit() }
    }
}

/// A derived length as screens, cards and files get it.
#[derive(Serialize, ToSchema)]
#[schema(as = Figure)]
struct FigureInWords<'a> {
    /// Exact, in nanometres.
    nm: i64,
    /// At the nearest mark of the user's tape, with its unit behind a space.
    text: &'a str,
    /// Exactly, as documents hold it: this is stored.
    measure: Measure,
}

impl Serialize for Figure {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        FigureInWords { nm: self.nm, text: &self.text(), measure: self.measure() }.serialize(serializer)
    }
}
impl utoipa::PartialSchema for Figure {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        FigureInWords::schema()
    }
}
impl ToSchema for Figure {}
