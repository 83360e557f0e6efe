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

    /// A factor of a product: at the nearest mark where that multiplies out to `whole` as it is shown, else as finely as it takes to
    /// follow the sum: a tenth or a hundredth of a millimetre, or 1/64 in.
    pub fn factor(self, each: Length, times: i64, whole: Length) -> String {
        let [each] = self.factors([each], times, whole);
        each
    }

    /// Parts that are added and taken so many times, as finely as it takes to come to `whole` as it is shown: see [`Tape::factor`].
    pub fn factors<const N: usize>(self, parts: [Length; N], times: i64, whole: Length) -> [String; N] {
        let whole = self.round(whole);
        let marks = parts.map(|part| self.round(part));
        if marks.iter().copied().sum::<Length>() * times == whole {
            return marks.map(|part| self.bare(part));
        }
        let finely = |step: Length| apportioned(&parts, step).0;
        let tenths = finely(Length::from_nm(100_000));
        let comes_to = tenths.iter().copied().sum::<Length>() * times;
        let shown = match self.unit() {
            Unit::In => finely(Length::from_64ths(1)),
            _ if (comes_to - whole).abs() * 2 <= self.mark() => tenths,
            Unit::Mm | Unit::Cm => finely(Length::from_nm(10_000)),
        };
        std::array::from_fn(|n| self.fine(shown[n]))
    }

    /// What lies between the marks of the tape: in 64ths, or with as many decimals as it takes.
    fn fine(self, length: Length) -> String {
        let (sign, length) = (if length.is_negative() { "−" } else { "" }, length.abs());
        match self.unit() {
            Unit::In => format!("{sign}{}", in_64ths(length.0 / 396_875)),
            _ if length.0 % 100_000 == 0 => format!("{sign}{:.2}", length.cm()),
            Unit::Mm | Unit::Cm => format!("{sign}{:.3}", length.cm()),
        }
    }

    /// A quotient and its two lengths, as they are shown: at the nearest marks where these divide to it, else in thousandths of the
    /// unit, so that anybody can divide them.
    pub fn quotient(self, long: Length, each: Length) -> [String; 3] {
        let quotient = |long: Length, each: Length| format!("{:.1}", long.cm() / each.cm());
        let exact = quotient(long, each);
        if quotient(self.round(long), self.round(each)) == exact {
            return [self.bare(long), self.bare(each), exact];
        }
        let unit = if self.unit() == Unit::In { 2.54 } else { 1.0 };
        let decimal = |length: Length| {
            let text = format!("{:.3}", length.cm() / unit);
            text.trim_end_matches('0').trim_end_matches('.').to_owned()
        };
        [decimal(long), decimal(each), exact]
    }

    /// The figure at the nearest mark with its unit: `4.5 cm`, `1 3/4 in`.
    pub fn show(self, length: Length) -> String {
        let mut text = self.bare(length);
        text.push(' ');
        text.push_str(self.unit_name());
        text
    }

    /// Parts at tape marks that add up to their exact total, which is rounded once.
    ///
    /// The second value is true where a part had to move off its own nearest mark (largest remainder, Hamilton's method).
    pub fn apportion(self, parts: &[Length]) -> (Vec<Length>, bool) {
        apportioned(parts, self.mark())
    }

    /// A figure for a screen: the exact length and its text on this tape.
    pub const fn figure(self, length: Length) -> Figure {
        Figure { nm: length.0, tape: self }
    }
}

/// Parts at multiples of `step`, as [`Tape::apportion`] has them.
fn apportioned(parts: &[Length], step: Length) -> (Vec<Length>, bool) {
    let mut shown: Vec<Length> = parts.iter().map(|p| p.nearest(step)).collect();
    let total = parts.iter().copied().sum::<Length>().nearest(step);
    let missing = (total - shown.iter().copied().sum()).0 / step.0;
    let mut order: Vec<usize> = (0..parts.len()).collect();
    order.sort_by_key(|&i| -missing.signum() * (parts[i] - shown[i]).0);
    for &i in order.iter().take(missing.unsigned_abs() as usize) {
        shown[i] = shown[i] + step * missing.signum();
    }
    (shown, missing != 0)
}

/// What a sum says where [`Tape::apportion`] moved a part off its own nearest mark.
pub(crate) const fn adjusted_words(adjusted: bool) -> &'static str {
    if adjusted { " (parts rounded so that they add up)" } else { "" }
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
