//! Lengths as people write them: `57mm`, `5,7 cm`, `2-1/4"`, `1ft 2in`.

use super::{Length, Measure, Unit};

/// What is wrong with a written length.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum LengthError {
    /// Nothing was written.
    #[error("nothing was written")]
    Empty,
    /// A fraction lacks its lower number, or it is zero.
    #[error("“{0}” has an unfinished fraction")]
    UnfinishedFraction(String),
    /// No tape has such a mark, and it has no exact value.
    #[error("“{0}” is finer than any tape")]
    TooFine(String),
    /// Over 100 m.
    #[error("“{0}” is over 100 m")]
    TooLong(String),
    /// A number without a unit where none is understood.
    #[error("“{0}” has no unit")]
    NoUnit(String),
    /// Anything else.
    #[error("“{0}” is not a length")]
    NotALength(String),
}

impl LengthError {
    /// What would be accepted instead.
    pub fn expected(&self) -> &'static str {
        match self {
            Self::UnfinishedFraction(_) => "both numbers of the fraction, like 4 1/2",
            Self::TooFine(_) => {
                "halves, quarters, eighths … sixty-fourths, or a decimal with at most five places"
            }
            Self::TooLong(_) => "a length up to 100 m",
            Self::NoUnit(_) => "a unit after the number, like 4.5 cm or 1 3/4 in",
            Self::Empty | Self::NotALength(_) => "a length like 4.5 cm, 57 mm, 2 1/4 in, 9/16\" or 1 ft 2 in",
        }
    }
}

/// Reads `text`; a bare number takes `page`, or is refused when there is no such unit.
pub(super) fn read(text: &str, page: Option<Unit>) -> Result<Measure, LengthError> {
    Reader::new(text).measure(page)
}

/// Words between numbers in a written length.
#[derive(Clone, Debug, PartialEq)]
enum Token {
    /// Digits with a decimal point: the digits as one number, and how many stand after the point.
    Number(i128, u32),
    Slash,
    Hyphen,
    Word(String),
}

struct Reader<'a> {
    text: &'a str,
    tokens: Vec<Token>,
    at: usize,
}

/// Digits of one number at most: more than the longest length has in nanometres.
const MOST_DIGITS: u32 = 18;

impl<'a> Reader<'a> {
    fn new(text: &'a str) -> Self {
        Self { text, tokens: Vec::new(), at: 0 }
    }

    fn wrong<T>(&self, error: fn(String) -> LengthError) -> Result<T, LengthError> {
        Err(error(self.text.trim().chars().take(40).collect()))
    }

    fn measure(mut self, page: Option<Unit>) -> Result<Measure, LengthError> {
        let trimmed = self.text.trim();
        if trimmed.is_empty() {
            return Err(LengthError::Empty);
        }
        let (sign, body) = match trimmed.strip_prefix(['-', '−']) {
            Some(rest) => (-1, rest),
            None => (1, trimmed.strip_prefix('+').unwrap_or(trimmed)),
        };
        self.tokens = self.split(body)?;
        let (numerator, denominator) = self.number()?;
        let word = self.word();
        let (nm_over, nm_under, unit) = match word.as_deref() {
            Some("ft" | "'" | "foot" | "feet") => {
                let feet = numerator * 12;
                let inches = match self.at < self.tokens.len() {
                    true => self.number()?,
                    false => (0, 1),
                };
                if !matches!(self.word().as_deref(), None | Some("in" | "\"")) {
                    return self.wrong(LengthError::NotALength);
                }
                let over = feet * inches.1 + inches.0 * denominator;
                (over * i128::from(Unit::In.nm()), denominator * inches.1, Unit::In)
            }
            Some("m") => (numerator * 1_000_000_000, denominator, Unit::Cm),
            other => {
                let unit = match other {
                    Some("mm") => Unit::Mm,
                    Some("cm") => Unit::Cm,
                    Some("in" | "\"" | "inch" | "inches") => Unit::In,
                    Some(_) => return self.wrong(LengthError::NotALength),
                    None => match page {
                        Some(unit) => unit,
                        None => return self.wrong(LengthError::NoUnit),
                    },
                };
                (numerator * i128::from(unit.nm()), denominator, unit)
            }
        };
        if self.at < self.tokens.len() {
            return self.wrong(LengthError::NotALength);
        }
        if nm_over % nm_under != 0 {
            return self.wrong(LengthError::TooFine);
        }
        match i64::try_from(nm_over / nm_under) {
            Ok(nm) if nm <= Length::LONGEST.0 => Ok(Measure { length: Length(sign * nm), unit }),
            _ => self.wrong(LengthError::TooLong),
        }
    }

    /// Splits into numbers, marks and unit words; true fractions such as ¼ become `1/4`.
    fn split(&self, body: &str) -> Result<Vec<Token>, LengthError> {
        let mut tokens = Vec::new();
        let mut chars = body.chars().peekable();
        while let Some(c) = chars.next() {
            match c {
                '0'..='9' | '.' | ',' => {
                    let (mut digits, mut places, mut point, mut count) = (0_i128, 0, false, 0);
                    let mut next = Some(c);
                    while let Some(c) = next {
                        match c.to_digit(10) {
                            Some(d) => {
                                // More digits than that are refused below, however many there are.
                                if count < MOST_DIGITS {
                                    digits = digits * 10 + i128::from(d);
                                }
                                places += u32::from(point);
                                count += 1;
                            }
                            None if point => return self.wrong(LengthError::NotALength),
                            None => point = true,
                        }
                        next = chars.next_if(|c| c.is_ascii_digit() || matches!(c, '.' | ','));
                    }
                    match count {
                        0 => return self.wrong(LengthError::NotALength),
                        1..=MOST_DIGITS => tokens.push(Token::Number(digits, places)),
                        _ => return self.wrong(LengthError::TooLong),
                    }
                }
                '/' | '⁄' => tokens.push(Token::Slash),
                '-' => tokens.push(Token::Hyphen),
                '"' | '″' | '”' => tokens.push(Token::Word("\"".into())),
                '\'' | '′' | '’' => tokens.push(Token::Word("'".into())),
                c if c.is_whitespace() => {}
                c if c.is_alphabetic() => {
                    let mut word = c.to_lowercase().to_string();
                    while let Some(c) = chars.next_if(|c| c.is_alphabetic()) {
                        word.extend(c.to_lowercase());
                    }
                    tokens.push(Token::Word(word));
                }
                c => match true_fraction(c) {
                    Some((over, under)) => {
                        tokens.extend([Token::Number(over, 0), Token::Slash, Token::Number(under, 0)]);
                    }
                    None => return self.wrong(LengthError::NotALength),
                },
            }
        }
        Ok(tokens)
    }

    /// `2`, `2.25`, `9/16`, `2 1/4` or `2-1/4` as numerator and denominator.
    fn number(&mut self) -> Result<(i128, i128), LengthError> {
        let Some(&Token::Number(digits, places)) = self.tokens.get(self.at) else {
            return self.wrong(LengthError::NotALength);
        };
        self.at += 1;
        if self.tokens.get(self.at) == Some(&Token::Slash) {
            return if places == 0 { self.under(digits) } else { self.wrong(LengthError::NotALength) };
        }
        let hyphen = self.tokens.get(self.at) == Some(&Token::Hyphen);
        self.at += usize::from(hyphen);
        match (self.tokens.get(self.at), self.tokens.get(self.at + 1)) {
            (Some(&Token::Number(over, 0)), Some(Token::Slash)) if places == 0 => {
                self.at += 1;
                let (over, under) = self.under(over)?;
                Ok((digits * under + over, under))
            }
            _ if hyphen => self.wrong(LengthError::NotALength),
            _ => Ok((digits, 10_i128.pow(places))),
        }
    }

    /// The lower number of a fraction whose upper one was just read.
    fn under(&mut self, over: i128) -> Result<(i128, i128), LengthError> {
        self.at += 1;
        match self.tokens.get(self.at) {
            Some(&Token::Number(under @ 1..=1_000_000, 0)) if over < 1_000_000 => {
                self.at += 1;
                Ok((over, under))
            }
            _ => self.wrong(LengthError::UnfinishedFraction),
        }
    }

    fn word(&mut self) -> Option<String> {
        match self.tokens.get(self.at) {
            Some(Token::Word(word)) => {
                self.at += 1;
                Some(word.clone())
            }
            _ => None,
        }
    }
}

const fn true_fraction(c: char) -> Option<(i128, i128)> {
    Some(match c {
        '½' => (1, 2),
        '¼' => (1, 4),
        '¾' => (3, 4),
        '⅛' => (1, 8),
        '⅜' => (3, 8),
        '⅝' => (5, 8),
        '⅞' => (7, 8),
        _ => return None,
    })
}
