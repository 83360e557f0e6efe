//! What is said of findings about a pair of darts.

use super::judge::{Found, OFF_BUST, ONE_FOLD};
use crate::change::ChangeKey;
use crate::judge::{FindingKey, Outcome};
use crate::length::times;
use crate::told::{Said, Tell, Teller};

impl Tell for Found {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let name = key.name(to);
        match *self {
            Self::Depth { deepest } => {
                let figures = format!(
                    "{} folded, {} taken by each, {} by the pair",
                    to.show(deepest),
                    to.show(deepest * 2),
                    to.show(deepest * 4)
                );
                let most = to.show(ONE_FOLD.on(to.tape));
                let reason = match outcome {
                    Outcome::Passes => format!("Up to {most} one fold lies flat."),
                    Outcome::Caution | Outcome::Stop => format!("Over {most} one fold stands off."),
                };
                Said::new(format!("Depth of the {name}"), figures, reason).mended(outcome, || {
                    format!("Split it in two, {} deep each.", to.show(deepest.fraction(1, 2)))
                })
            }
            Self::RunOut { run, depth, safe } => {
                let reason = match outcome {
                    Outcome::Passes => format!("{safe} or more lies flat in this cloth."),
                    Outcome::Caution => format!("Under {safe} it may poke at its point."),
                    Outcome::Stop => format!("Under {} it will poke at its point.", safe / 2),
                };
                let figures =
                    format!("{} long ÷ {} folded = {}", to.show(run), to.show(depth), times(run, depth));
                Said::new(format!("Point of the {name}"), figures, reason).mended(outcome, || {
                    format!("Let the last stretch be {} long.", to.show_at_least(depth * safe))
                })
            }
            Self::BelowBust { away, bust } => {
                let figures = format!("its point lies {} below the bust line", to.show(away));
                let reason =
                    format!("{} or more below it the point does not show.", to.show(OFF_BUST.on(to.tape)));
                Said::new(format!("Where the {name} ends"), figures, reason).mended(outcome, || {
                    format!("Let it end {} above the hem.", to.show(bust - OFF_BUST.on(to.tape)))
                })
            }
            Self::AboveHip { free, hip } => {
                let figures = format!(
                    "its lower point lies {} above the hem, the fullest hip {}",
                    to.show(free),
                    to.show(hip)
                );
                let reason = "Below the fullest hip a dart takes where the body is widest.";
                Said::new(format!("Where the {name} ends"), figures, reason)
                    .mended(outcome, || format!("Let it end {} above the hem.", to.show(hip)))
            }
            Self::LetOut { depth, shows_holes } => {
                let reason = match shows_holes {
                    true => "The old stitch holes and the fold stay visible in this cloth.",
                    false => "The old line presses out.",
                };
                let figures = format!("it is {} deep now", to.show(depth));
                Said::new(format!("Letting out the {name}"), figures, reason).mended(
                    outcome,
                    || "Try steam on a hidden place first, or cover the line with topstitching.",
                )
            }
            Self::IntoSeam { seam, most } => {
                let seam = ChangeKey::Seam(seam).name(to.garment);
                let figures = format!("the {seam} moves by up to {} per edge at that end", to.show(most));
                let reason = "The dart ends in an altered seam: what is cut off the seam shortens the dart.";
                Said::new(format!("The {name} and the {seam}"), figures, reason)
                    .mended(outcome, || "Sew and press the dart first, then chalk the seam across its fold.")
            }
        }
    }
}
