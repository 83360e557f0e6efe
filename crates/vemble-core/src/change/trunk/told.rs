//! What is said of a length of the trunk.

use super::input::TrunkAt;
use super::judge::Found;
use super::sum::TrunkSums;
use crate::change::ChangeKey;
use crate::garment::Closure;
use crate::judge::{FindingKey, Outcome};
use crate::length::Length;
use crate::told::{Said, Tell, Teller, capital};

/// `1.0 in front, 1.0 at the sides, 2.5 cm behind`.
pub(super) fn places_words(sums: TrunkSums, to: &Teller<'_>) -> String {
    let [front, side, back] = sums.all();
    if front == side && side == back {
        return format!("{} all round", to.show(side.abs()));
    }
    let way = |by: Length| if by.is_negative() { "put in " } else { "" };
    format!(
        "{}{} in front, {}{} at the sides, {}{} behind",
        way(front),
        to.bare(front.abs()),
        way(side),
        to.bare(side.abs()),
        way(back),
        to.show(back.abs())
    )
}

/// What is done, with its figures.
pub(super) fn what_words(at: TrunkAt, sums: TrunkSums, to: &Teller<'_>) -> String {
    let is_longer = sums.all().into_iter().all(|by| by <= Length::ZERO);
    let (verb, what) = match (at, is_longer) {
        (TrunkAt::AboveWaist, false) => ("Shorten", "it above the waist"),
        (TrunkAt::AboveWaist, true) => ("Lengthen", "it above the waist"),
        (TrunkAt::Rise, false) => ("Lower", "the upper edge"),
        (TrunkAt::Rise, true) => ("Raise", "the upper edge"),
    };
    let sums = if is_longer { sums.turned() } else { sums };
    format!("{verb} {what}: {}", places_words(sums, to))
}

impl TrunkSums {
    /// The same the other way.
    pub(super) fn turned(self) -> Self {
        Self { front: -self.front, side: -self.side, back: -self.back, ..self }
    }
}

impl Tell for Found {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let name = key.change.map_or_else(|| "length".into(), |change: ChangeKey| change.name(to.garment));
        match self {
            Self::NoSeam { is_longer } => {
                let reason = match is_longer {
                    true => "It is cut apart there, and what is missing is set in between.",
                    false => "What is folded away is sewn across, and shows as a seam.",
                };
                Said::new(format!("A seam for the {name}"), "no seam runs across at the waist", reason)
                    .mended(
                        outcome,
                        || "On a toile fold it away, and change the pattern; here try the side seams first.",
                    )
            }
            Self::Cloth { needs, has, keep } => {
                let title = format!("Cloth for the {name}");
                let has_words = match has {
                    Some(has) if *has > *keep => {
                        format!(
                            "{} allowance − {} to keep = {} to give",
                            to.bare(*has),
                            to.bare(*keep),
                            to.bare(*has - *keep)
                        )
                    }
                    Some(has) => {
                        format!("{} allowance, {} to keep: nothing to give", to.bare(*has), to.bare(*keep))
                    }
                    None => "no allowance above the edge is known".into(),
                };
                let reason = if outcome == Outcome::Passes {
                    "There is cloth for it."
                } else {
                    "The cloth ends before that."
                };
                Said::new(title, format!("{has_words}; it needs {}", to.show(*needs)), reason).mended(
                    outcome,
                    || {
                        let allowance = has.unwrap_or(*keep);
                        let wide = *needs + allowance * 2;
                        format!(
                            "Set in a band {} wide: {} and 2 allowances of {}.",
                            to.show(wide),
                            to.bare(*needs),
                            to.show(allowance)
                        )
                    },
                )
            }
            Self::Edge { edge, to: other, eased } => {
                let apart = *edge - *other;
                let figures = format!(
                    "edge {} − {} that it is sewn to = {}",
                    to.bare(*edge),
                    to.bare(*other),
                    to.show(apart)
                );
                let reason = match outcome {
                    Outcome::Passes => "So little is eased in.",
                    Outcome::Caution | Outcome::Stop => {
                        "Higher or lower on the cloth another girth goes round."
                    }
                };
                Said::new("The edge at the waist", figures, reason).mended(outcome, || {
                    let (way, rest) = match apart.is_negative() {
                        true => ("Let", "out of its seams, and stretch"),
                        false => ("Take", "out in its seams and darts, and ease"),
                    };
                    format!(
                        "{way} {} altogether {rest} the other {} as it is sewn.",
                        to.show(apart.abs() - *eased),
                        to.show(*eased)
                    )
                })
            }
            Self::Opens { closure, by } => {
                let way = if by.is_negative() { "longer" } else { "shorter" };
                let figures = format!("its opening gets {} {way}", to.show(by.abs()));
                let reason = "It is opened there, and set in again.";
                Said::new(capital(closure.name()), figures, reason).mended(outcome, || {
                    let is_zip = matches!(closure, Closure::Zip | Closure::InvisibleZip);
                    match (is_zip, by.is_negative()) {
                        (true, true) => "Begin it lower, or set in a longer one.",
                        (true, false) => "Shorten it at its lower end, never at its slider.",
                        (false, _) => "Space its fastenings anew.",
                    }
                })
            }
            Self::Darts { front, back } => {
                let of = |by: &Length, what: &str| {
                    let way = if by.is_negative() { "longer" } else { "shorter" };
                    (*by != Length::ZERO).then(|| format!("{what} darts {} {way}", to.show(by.abs())))
                };
                let all: Vec<String> = [of(front, "front"), of(back, "back")].into_iter().flatten().collect();
                let reason = "Their points stay; they end at the new edge, as deep as there is wanted.";
                Said::new("Darts that end at the waist", all.join(", "), reason)
            }
            Self::Hangs { sums, hem_is_reckoned } => {
                let figures = match sums.all() {
                    [front, side, back] if front == side && side == back => {
                        let way = if side.is_negative() { "lower" } else { "higher" };
                        format!("its hem hangs {} {way} all round", to.show(side.abs()))
                    }
                    _ => format!("its hem goes up with it: {}", places_words(*sums, to)),
                };
                let (reason, remedy) = match hem_is_reckoned {
                    true => (
                        "The hem of this try-on was read as it hangs now.",
                        "Sew this first, and mark the hem anew before it is cut.",
                    ),
                    false => (
                        "What hangs below the waist goes with it.",
                        "Let the skirt down by as much where it is joined, or mark the hem anew.",
                    ),
                };
                Said::new("How it hangs then", figures, reason).mended(outcome, || remedy)
            }
            Self::Back { garment, body } => {
                let [now, then] = *garment;
                let way = if then > now { "+" } else { "−" };
                let figures = format!(
                    "{} {way} {} = {}; the wearer’s {}",
                    to.bare(now),
                    to.bare((now - then).abs()),
                    to.bare(then),
                    to.show(*body)
                );
                let reason = match then - *body {
                    by if by.is_negative() => "Shorter than the wearer’s: it rides up.",
                    by if by > Length::from_mm(20) => "Longer than the wearer’s: some of it still folds.",
                    _ => "As long as the wearer’s, with a little to move in.",
                };
                Said::new("Back neck to waist", figures, reason)
            }
        }
    }
}
