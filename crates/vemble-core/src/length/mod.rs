//! Lengths and the tape: every length is held exactly, read as people write it, and shown at a tape mark.
//!
//! A length is a whole number of nanometres in 64 bits. The international inch is defined as exactly
//! 25.4 mm, so 1/64 in is 396 875 nm and both systems are exact: no sum drifts, and rounding is for showing only.
//!
//! ```
//! use vemble_core::length::{Measure, Tape, Unit};
//!
//! let read = Measure::read("2 1/4", Some(Unit::In))?;
//! assert_eq!(read.to_string(), "2 1/4 in", "a fraction stays one");
//! assert_eq!(read.length.nm(), 57_150_000, "and is exact");
//! assert_eq!(Tape::Cm.show(read.length), "5.7 cm", "shown at the nearest mark");
//! assert_eq!(Tape::InSixteenths.show(read.length * 2), "4 1/2 in");
//! # Ok::<(), vemble_core::length::LengthError>(())
//! ```

mod read;
mod tape;

pub use read::LengthError;
pub use tape::{Figure, Tape, Taught, times};

use serde::{Deserialize, Deserializer, Serialize, Serializer};
use std::fmt;
use std::iter::Sum;
use std::ops::{Add, Mul, Neg, Sub};
use std::str::FromStr;
use utoipa::ToSchema;

/// A signed length, exact, in nanometres.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Length(i64);

impl Length {
    /// No length at all.
    pub const ZERO: Length = Length(0);
    /// The longest length anybody types: 100 m. Beyond it a slip of the hand is certain, and sums stay far from overflow.
    pub const LONGEST: Length = Length(100_000_000_000);

    /// From whole nanometres.
    pub const fn from_nm(nm: i64) -> Self {
        Self(nm)
    }

    /// From whole millimetres.
    pub const fn from_mm(mm: i64) -> Self {
        Self(mm * 1_000_000)
    }

    /// From sixty-fourths of an inch.
    pub const fn from_64ths(n: i64) -> Self {
        Self(n * 396_875)
    }

    /// From centimetres as computed by the curve mathematics, which must be finite; rounds to the nearest nanometre.
    pub fn from_cm(cm: f64) -> Self {
        debug_assert!(cm.is_finite(), "{cm} is no length");
        Self((cm * 1e7).round() as i64)
    }

    /// Whole nanometres.
    pub const fn nm(self) -> i64 {
        self.0
    }

    /// Centimetres, for the curve mathematics only.
    pub fn cm(self) -> f64 {
        self.0 as f64 / 1e7
    }

    /// The same length without its sign.
    pub const fn abs(self) -> Self {
        Self(self.0.abs())
    }

    /// True below zero.
    pub const fn is_negative(self) -> bool {
        self.0 < 0
    }

    /// `numerator`/`denominator` of this length to the nearest nanometre, ties away from zero.
    pub const fn fraction(self, numerator: i64, denominator: i64) -> Self {
        Self(round_div(self.0 * numerator, denominator))
    }

    /// The nearest multiple of `step`, ties away from zero.
    pub const fn nearest(self, step: Length) -> Self {
        Self(round_div(self.0, step.0) * step.0)
    }

    /// The next multiple of `step` that is not smaller.
    pub const fn up_to(self, step: Length) -> Self {
        Self(-(-self.0).div_euclid(step.0) * step.0)
    }
}

/// Nearest whole quotient, ties away from zero; `d` > 0.
const fn round_div(n: i64, d: i64) -> i64 {
    if n < 0 { -((-n + d / 2) / d) } else { (n + d / 2) / d }
}

impl Add for Length {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}
impl Sub for Length {
    type Output = Self;
    fn sub(self, other: Self) -> Self {
        Self(self.0 - other.0)
    }
}
impl Neg for Length {
    type Output = Self;
    fn neg(self) -> Self {
        Self(-self.0)
    }
}
impl Mul<i64> for Length {
    type Output = Self;
    fn mul(self, n: i64) -> Self {
        Self(self.0 * n)
    }
}
impl Sum for Length {
    fn sum<I: Iterator<Item = Self>>(lengths: I) -> Self {
        lengths.fold(Self::ZERO, Add::add)
    }
}

/// Distance along a seam from its datum (for a leg: up from the hem). Never a height.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord)]
pub struct Station(pub Length);

/// What comes off one edge of a seam; negative lets out.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord)]
pub struct PerEdge(pub Length);

/// What comes off altogether at one seam: its front edge plus its back edge. Negative lets out.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord)]
pub struct Whole(pub Length);

impl Add for PerEdge {
    type Output = Whole;
    /// Two edges make a whole; there is no other way to get one from an edge.
    fn add(self, other: Self) -> Whole {
        Whole(self.0 + other.0)
    }
}

/// The unit a length was written in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Unit {
    /// Millimetres.
    Mm,
    /// Centimetres.
    Cm,
    /// Inches of exactly 25.4 mm.
    In,
}

impl Unit {
    const fn nm(self) -> i64 {
        match self {
            Self::Mm => 1_000_000,
            Self::Cm => 10_000_000,
            Self::In => 25_400_000,
        }
    }
}

/// A length as somebody wrote it: exact, and with the unit it was written in.
///
/// In JSON it is text that reads back to the same length: `"4.5 cm"`, `"1 3/4 in"`.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Measure {
    /// How long.
    pub length: Length,
    /// The unit it was written in.
    pub unit: Unit,
}

impl Measure {
    /// Reads `text`; a bare number takes `page`, or is refused when there is no such unit.
    ///
    /// Reads `57mm`, `5.7 cm`, `5,7cm`, `2 1/4`, `2-1/4"`, `2¼in`, `9/16`, `.75"`, `1ft 2in`, with an optional sign.
    pub fn read(text: &str, page: Option<Unit>) -> Result<Self, LengthError> {
        read::read(text, page)
    }
}

impl FromStr for Measure {
    type Err = LengthError;
    fn from_str(text: &str) -> Result<Self, LengthError> {
        Self::read(text, None)
    }
}

impl fmt::Display for Measure {
    /// The shortest text in its own unit that reads back to the same length; falls back to millimetres.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let nm = self.length.0;
        let sign = if nm < 0 { "-" } else { "" };
        let (text, unit) = match self.unit {
            Unit::In if nm % 396_875 == 0 => (in_64ths(nm.abs() / 396_875), " in"),
            Unit::In if nm % 254 == 0 => (decimal(nm.abs() / 254, 5), " in"),
            Unit::Cm => (decimal(nm.abs(), 7), " cm"),
            Unit::Mm | Unit::In => (decimal(nm.abs(), 6), " mm"),
        };
        f.write_str(sign)?;
        f.write_str(&text)?;
        f.write_str(unit)
    }
}

/// `n` ten-to-the-minus-`places`, without trailing noughts. An answer holds hundreds of them: without the formatting machinery.
fn decimal(n: i64, places: u32) -> String {
    let unit = 10_i64.pow(places);
    let (whole, mut rest, mut below) = (n / unit, n % unit, unit);
    let mut text = String::with_capacity(16);
    text.push_str(itoa::Buffer::new().format(whole));
    if rest > 0 {
        text.push('.');
    }
    while rest > 0 {
        below /= 10;
        text.push(char::from(b'0' + (rest / below) as u8));
        rest %= below;
    }
    text
}

/// `n` sixty-fourths as a whole number and a reduced fraction.
fn in_64ths(n: i64) -> String {
    let (whole, mut over, mut under) = (n / 64, n % 64, 64);
    if over == 0 {
        return whole.to_string();
    }
    while over % 2 == 0 {
        over /= 2;
        under /= 2;
    }
    if whole == 0 { format!("{over}/{under}") } else { format!("{whole} {over}/{under}") }
}

impl Serialize for Measure {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(self)
    }
}
impl<'de> Deserialize<'de> for Measure {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let text = String::deserialize(deserializer)?;
        text.parse()
            .map_err(|e: LengthError| serde::de::Error::custom(format!("{e}; expected {}", e.expected())))
    }
}
/// How a length is written where it is stored. What people type is read more widely, and stored so.
const PATTERN: &str =
    "^-?([0-9]{1,9}([.,][0-9]{1,7})?|([0-9]{1,7} )?[0-9]{1,2}/[1-9][0-9]?) ?(mm|cm|m|in|ft)$";

impl utoipa::PartialSchema for Measure {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        utoipa::openapi::ObjectBuilder::new()
            .schema_type(utoipa::openapi::schema::Type::String)
            .description(Some("A length with its unit, exactly as written: mm, cm, m, in, ft."))
            .examples(["4.5 cm", "1 3/4 in"])
            .pattern(Some(PATTERN))
            .into()
    }
}
impl ToSchema for Measure {}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn nm(text: &str) -> i64 {
        Measure::read(text, Some(Unit::In)).unwrap().length.nm()
    }

    #[test]
    fn reads_what_people_write() {
        for (text, expected) in [
            ("57mm", 57_000_000),
            ("5.7 cm", 57_000_000),
            ("5,7cm", 57_000_000),
            ("1.2 m", 1_200_000_000),
            ("2 1/4", 57_150_000),
            ("2-1/4\"", 57_150_000),
            ("2¼in", 57_150_000),
            ("2 1⁄4 ″", 57_150_000),
            ("9/16", 14_287_500),
            (".75\"", 19_050_000),
            ("1ft 2in", 355_600_000),
            ("1' 2 1/2\"", 368_300_000),
            ("−3 cm", -30_000_000),
            ("1/64", 396_875),
        ] {
            assert_eq!(nm(text), expected, "{text}");
        }
    }

    #[test]
    fn refuses_nonsense_by_name() {
        use LengthError as E;
        let read = |text: &str| Measure::read(text, Some(Unit::Cm)).unwrap_err();
        assert_eq!(read("4 1/"), E::UnfinishedFraction("4 1/".into()));
        assert_eq!(read("4 1/0"), E::UnfinishedFraction("4 1/0".into()));
        assert_eq!(read("1/3 in"), E::TooFine("1/3 in".into()));
        assert_eq!(read("  "), E::Empty);
        assert_eq!(read("101 m"), E::TooLong("101 m".into()));
        for text in ["four", "4 5", "4 cm 5", "4..5", "1.2.3", "4.5/2", "4 kg", ".", "--4", "4-5", "💧"] {
            assert!(matches!(read(text), E::NotALength(_)), "{text}");
        }
        assert_eq!(Measure::read("4.5", None).unwrap_err(), E::NoUnit("4.5".into()));
    }

    #[test]
    fn shows_at_the_nearest_mark_with_ties_away_from_zero() {
        let show = |tape: Tape, nm| tape.show(Length::from_nm(nm));
        assert_eq!(show(Tape::Cm, 45_500_000), "4.6 cm");
        assert_eq!(show(Tape::Cm, -45_500_000), "−4.6 cm");
        assert_eq!(show(Tape::CmHalves, 42_500_000), "4.5 cm");
        assert_eq!(show(Tape::In, 25_400_000 * 7 / 4), "1 3/4 in");
        assert_eq!(show(Tape::InSixteenths, 396_875 * 4), "1/16 in");
        assert_eq!(show(Tape::Cm, -400_000), "0.0 cm");
    }

    #[test]
    fn what_was_typed_finer_than_the_tape_is_shown_as_it_was_typed() {
        let typed = |text: &str, tape: Tape| tape.as_typed(text.parse().unwrap());
        assert_eq!(typed("24.25 cm", Tape::Cm), "24.25");
        assert_eq!(typed("242.5 mm", Tape::Cm), "24.25");
        assert_eq!(typed("24.3 cm", Tape::CmHalves), "24.3");
        assert_eq!(typed("3 5/16 in", Tape::In), "3 5/16");
        assert_eq!(typed("3 5/16 in", Tape::InSixteenths), "3 5/16");
        assert_eq!(typed("24.25 cm", Tape::In), "9 1/2", "in another unit it is read off the tape");
        assert_eq!(typed("3.4 cm", Tape::Cm), "3.4");
    }

    #[test]
    fn a_teaching_value_is_what_people_say_on_either_tape() {
        let start = Taught::new(30, 80);
        assert_eq!(
            Tape::ALL.iter().map(|tape| tape.show(start.on(*tape))).collect::<Vec<_>>(),
            ["3.0 cm", "3.0 cm", "1 1/4 in", "1 1/4 in"]
        );
    }

    proptest! {
        #[test]
        fn what_is_written_reads_back(n in -1_000_000_000_i64..1_000_000_000, unit in prop_oneof![Just(Unit::Mm), Just(Unit::Cm), Just(Unit::In)], sixty_fourths: bool) {
            let length = if sixty_fourths { Length::from_64ths(n / 500_000) } else { Length::from_nm(n) };
            let text = Measure { length, unit }.to_string();
            prop_assert_eq!(Measure::read(&text, None).unwrap().length, length, "{}", text);
        }

        #[test]
        fn reading_never_panics(text in "\\PC{0,24}") {
            let _ = Measure::read(&text, Some(Unit::Cm));
        }

        /// Never more than it is: what is just not enough does not read as if it were.
        #[test]
        fn a_quotient_never_says_too_much(long in 0_i64..2_000, each in 1_i64..300, tape in prop_oneof![Just(Tape::Cm), Just(Tape::In)]) {
            let said = times(tape.mark() * long, tape.mark() * each);
            let exact = long as f64 / each as f64;
            let said: f64 = said.parse().unwrap();
            prop_assert!(said <= exact + 1e-9 && exact < said + 0.1 + 1e-9, "{said} of {exact}");
            prop_assert_eq!(long % each == 0, said.fract() == 0.0 && exact - said < 1e-12);
        }
    }
}
