//! What is said of an armhole and its sleeve.

use super::judge::{Found, Needs};
use super::sum::ArmholeSums;
use crate::change::ChangeKey;
use crate::garment::{Collar, Seam};
use crate::judge::{FindingKey, Outcome};
use crate::length::Length;
use crate::told::{Said, Tell, Teller, capital};

/// `cap 46.8 − armhole 44.6 = 2.2 cm of ease`; a cap that is shorter is so much too short.
pub(super) fn ease_words(sums: &ArmholeSums, then: usize, to: &Teller<'_>) -> String {
    let [cap, armhole, ease] = [sums.cap[then], sums.armhole()[then], sums.ease()[then]];
    let sum = format!("cap {} − armhole {} = {}", to.bare(cap), to.bare(armhole), to.show(ease));
    if ease.is_negative() { format!("{sum}: too short") } else { format!("{sum} of ease") }
}

/// `front 21.2 + back 22.4 = 43.6 cm`.
pub(super) fn armhole_words(sums: &ArmholeSums, then: usize, to: &Teller<'_>) -> String {
    let [front, back] = sums.edges[then];
    format!("front {} + back {} = {}", to.bare(front), to.bare(back), to.show(front + back))
}

/// Where ease is eased in, or a fuller cap is gathered.
pub(super) fn where_it_goes(sums: &ArmholeSums, most: Length, to: &Teller<'_>) -> String {
    let ease = sums.ease()[1];
    let third = to.tape.round(sums.cap[1].fraction(1, 3));
    match ease {
        ease if ease <= Length::ZERO => "Nothing is eased in: stretch the cap to the armhole as it is sewn.".into(),
        ease if ease > most => {
            let from = to.tape.round((sums.cap[1] - third).fraction(1, 2));
            format!(
                "Gather it over the middle third of the cap, from {} to {} along its edge, and not in a bunch at the notch.",
                to.show(from),
                to.show(from + third)
            )
        }
        _ => "Ease it in over the top of the cap, as much before the notch as behind it, and nothing under the arm.".into(),
    }
}

/// What the angle is made of.
pub(super) const LEAVES_OUT: &str = "Counted from how low the seam lies and how high the cap is; how the cloth stretches, the width of the back, pads and the length of the sleeve are left out.";

impl Tell for Found {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let which = match key.change {
            Some(ChangeKey::Armhole(at)) => at.which(),
            _ => "",
        };
        match self {
            Self::Cap { sums, wanted, is_knit } => {
                let title = format!("Cap of the {which}sleeve");
                let usual = format!("{} to {}", to.bare(wanted[0]), to.show(wanted[1]));
                let figures = format!("{}; {usual} is usual here", ease_words(sums, 1, to));
                let ease = sums.ease()[1];
                let reason = match ease {
                    ease if ease.is_negative() && !is_knit => {
                        "A cap shorter than its armhole cannot be sewn in."
                    }
                    ease if ease < wanted[0] => "It pulls across the top of the arm.",
                    ease if ease > wanted[1] => {
                        "More than can be eased in: it puckers, or is gathered on purpose."
                    }
                    _ => "It is eased in without a tuck.",
                };
                let assumed = if sums.cap_is_assumed {
                    " Nobody measured the cap: it is assumed as usual."
                } else {
                    ""
                };
                Said::new(title, figures, format!("{reason}{assumed}")).mended(outcome, || {
                    let (way, wanted) =
                        if ease < wanted[0] { ("longer", wanted[0]) } else { ("shorter", wanted[1]) };
                    format!(
                        "Shape the cap {} {way}: {} of ease.",
                        to.show((wanted - ease).abs()),
                        to.show(wanted)
                    )
                })
            }
            Self::NoCap { cap, wide } => {
                let figures =
                    format!("the cap’s edge is {} long, the sleeve {} round", to.bare(*cap), to.show(*wide));
                let reason = "An edge that is no longer than the sleeve is wide has no cap.";
                Said::new(format!("Cap of the {which}sleeve"), figures, reason).mended(
                    outcome,
                    || "Measure the cap from underarm to underarm over its top, or widen the sleeve less.",
                )
            }
            Self::Cloth { edge, needs, has, keep } => {
                let gives = *has - *keep;
                let (title, of) = match edge {
                    Needs::Armhole => (format!("Cloth at the {which}armhole"), "the armhole"),
                    Needs::Sleeve { .. } => (format!("Cloth at the {which}sleeve’s seam"), "each edge"),
                    Needs::Cap => (format!("Cloth over the {which}cap"), "the top of the cap"),
                    Needs::Shoulder => (format!("Cloth at the {which}shoulder seam"), "each edge at the tip"),
                };
                let [has, keep] = [to.bare(*has), to.bare(*keep)];
                let gives_words = match gives > Length::ZERO {
                    true => format!("{has} allowance − {keep} to keep = {} to give", to.bare(gives)),
                    false => format!("{has} allowance, {keep} to keep: nothing to give"),
                };
                let figures = format!("{gives_words}; {of} needs {}", to.show(*needs));
                let reason =
                    if *needs > gives { "The cloth ends before that." } else { "There is cloth for it." };
                Said::new(title, figures, reason).mended(outcome, || match edge {
                    Needs::Armhole => "Set a gusset in under the arm, or take the shoulders up.".to_owned(),
                    Needs::Sleeve { gusset } => format!(
                        "Set a gusset in under the arm: {} wide with its allowances, and as long as the sleeve is let out.",
                        to.show(*gusset)
                    ),
                    Needs::Shoulder => "Let the slope up less, or leave the pads out.".into(),
                    Needs::Cap => "Widen the sleeve less, or keep the edge of the cap as it is.".into(),
                })
            }
            Self::Lift { sums } => {
                let [before, after] = sums.lift.map(Option::unwrap_or_default);
                let figures =
                    format!("the arm goes up to {after}° before the body is dragged; {before}° now");
                let reason = match after {
                    after if after > before => "It moves more freely.",
                    after if after < before => "It is tied down more than now.",
                    _ => "It moves as it does now.",
                };
                Said::new(format!("Lifting the {which}arm"), figures, format!("{reason} {LEAVES_OUT}"))
                    .mended(outcome, || "Raise the armhole, or widen the sleeve and let its cap come down.")
            }
            Self::Shoulder { seam, body, within } => {
                let (then, by) = (seam[1], seam[1] - *body);
                let figures = format!(
                    "seam {} − shoulder {} = {}; {} to {} fits a sleeve that is set in",
                    to.bare(then),
                    to.bare(*body),
                    to.show(by),
                    to.bare(within[0]),
                    to.show(within[1])
                );
                let reason = match by {
                    by if by < within[0] => "So narrow the sleeve pulls at the top of the arm.",
                    by if by > within[1] => {
                        "The sleeve hangs from beyond the tip: that is a dropped shoulder."
                    }
                    _ => "It ends where the arm begins.",
                };
                Said::new(format!("Length of the {which}shoulder"), figures, reason).mended(outcome, || {
                    let most = seam[0] - *body;
                    let [least, most] = [most - within[1], most - within[0]];
                    match (least > Length::ZERO, most > Length::ZERO) {
                        (true, _) => format!("Shorten it by {} to {}.", to.bare(least), to.show(most)),
                        (false, true) => format!("Shorten it by {} at most.", to.show(most)),
                        (false, false) => "Leave it as long as it is.".into(),
                    }
                })
            }
            Self::Neck { collar, gape, sides } => {
                let whole = *gape * *sides;
                let figures = match sides {
                    1 => format!("{} off the neckline", to.show(whole)),
                    _ => format!("{sides} sides × {} = {} off the neckline", to.bare(*gape), to.show(whole)),
                };
                let (reason, remedy) = match collar {
                    Collar::None => {
                        ("Its facing or binding is shortened by the same.", "Shorten the facing.")
                    }
                    Collar::Band | Collar::Stand | Collar::Shirt | Collar::Flat | Collar::Notched => (
                        "The collar and its facing no longer fit.",
                        "Take as much out of collar and facing, in the middle behind, and set them on again.",
                    ),
                };
                Said::new("What is sewn to the neck", figures, reason).mended(outcome, || remedy)
            }
            Self::Beside { seams } => {
                let names: Vec<String> =
                    seams.iter().map(|seam| ChangeKey::Seam(*seam).name(to.garment)).collect();
                let in_sleeve = |seam: &Seam| matches!(seam, Seam::SleeveSeam | Seam::SleeveBackSeam);
                let reason = match (seams.iter().any(in_sleeve), seams.iter().all(in_sleeve)) {
                    (false, _) => "What it takes off the armhole is not in these lengths.",
                    (true, true) => "What it takes off the cap is not in these lengths.",
                    (true, false) => "What they take off armhole and cap is not in these lengths.",
                };
                Said::new(
                    format!("Altered beside the {which}armhole"),
                    format!("the {}", names.join(", the ")),
                    reason,
                )
                .mended(outcome, || "Sew that first, measure the armhole again, and chalk it then.")
            }
            Self::Hinge { drop, raise, chafes } => {
                let way = if raise.is_negative() { "+" } else { "−" };
                let figures = format!(
                    "{} below the hinge of the arm {way} {} = {}",
                    to.bare(drop[0]),
                    to.bare(raise.abs()),
                    to.show(drop[1])
                );
                let reason = match drop[1] {
                    drop if drop.is_negative() => "That lies above the arm.",
                    drop if drop < *chafes => "So near it chafes.",
                    _ => "It stays clear of the arm.",
                };
                Said::new(format!("Under the {which}arm"), figures, reason).mended(outcome, || {
                    let most = drop[0] - *chafes;
                    match most > Length::ZERO {
                        true => format!("Raise it by {} at most.", to.show(most)),
                        false => "Leave it as high as it is.".into(),
                    }
                })
            }
        }
    }
}

/// A name as it begins a sentence.
pub(super) fn title(name: &str) -> String {
    capital(name)
}
