//! What is said of findings about a pair of darts.

use super::judge::{Edge, Found, OFF_BUST, ONE_FOLD};
use crate::change::ChangeKey;
use crate::garment::Band;
use crate::judge::{FindingKey, Outcome};
use crate::length::{Length, times};
use crate::told::{Said, Tell, Teller};

impl Tell for Found {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let name = key.name(to);
        match self {
            &Self::Depth { deepest } => {
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
                    match to.mends {
                        true => "Split it over two pairs of darts, the second nearer the side seams.".into(),
                        false => format!("Take {most} at most in one fold, and the rest at a seam."),
                    }
                })
            }
            &Self::RunOut { run, depth, safe } => {
                let reason = match outcome {
                    Outcome::Passes => format!("{safe} or more lies flat in this cloth."),
                    Outcome::Caution => format!("Under {safe} it may poke at its point."),
                    Outcome::Stop => format!("Under {} it will poke at its point.", safe / 2),
                };
                let figures =
                    format!("{} long ÷ {} folded = {}", to.show(run), to.show(depth), times(run, depth));
                Said::new(format!("Point of the {name}"), figures, reason).mended(outcome, || {
                    format!(
                        "Let the last stretch be {} long: put its point further away, or take less at the pin beside it.",
                        to.show_at_least(depth * safe)
                    )
                })
            }
            &Self::BelowBust { away, bust } => {
                let figures = format!("its point lies {} below the bust line", to.show(away));
                let reason =
                    format!("{} or more below it the point does not show.", to.show(OFF_BUST.on(to.tape)));
                Said::new(format!("Where the {name} ends"), figures, reason)
                    .mended(outcome, || end_at(bust - OFF_BUST.on(to.tape), to))
            }
            &Self::AboveHip { free, hip } => {
                let figures = format!(
                    "its {} lies {} above the hem, the fullest hip {}",
                    if key.change.is_some_and(has_two_points) { "lower point" } else { "point" },
                    to.show(free),
                    to.show(hip)
                );
                let reason = "Below the fullest hip a dart takes where the body is widest.";
                Said::new(format!("Where the {name} ends"), figures, reason)
                    .mended(outcome, || end_at(hip, to))
            }
            &Self::LetOut { depth, left, shows_holes } => {
                let is_flat = left == Length::ZERO;
                let reason = match shows_holes {
                    _ if is_flat => "Nothing is left of it: cloth lies flat there, and the body does not.",
                    true => "The old stitch holes and the fold stay visible in this cloth.",
                    false => "The old line presses out.",
                };
                let figures = format!("it is {} deep now, {} afterwards", to.bare(depth), to.show(left));
                Said::new(format!("Letting out the {name}"), figures, reason).mended(
                    outcome,
                    || match is_flat {
                        true => "Leave some of it, and let out a seam by the rest.",
                        false => "Try steam on a hidden place first, or cover the line with topstitching.",
                    },
                )
            }
            &Self::IntoSeam { seam, most } => {
                let seam = ChangeKey::Seam(seam).name(to.garment);
                let figures = format!("the {seam} moves by up to {} per edge at that end", to.show(most));
                let reason = "The dart ends in an altered seam: what is cut off the seam shortens the dart.";
                Said::new(format!("The {name} and the {seam}"), figures, reason)
                    .mended(outcome, || "Sew and press the dart first, then chalk the seam across its fold.")
            }
            &Self::IntoEdge { edge, off } => {
                let does = if off.is_negative() { "longer" } else { "shorter" };
                let off = to.show(off.abs());
                match edge {
                    Edge::Band(band) => Said::new(
                        format!("Waistband and {name}"),
                        format!("the waist gets {off} {does} altogether"),
                        "The dart begins in the waist: band and facing change by as much.",
                    )
                    .mended(outcome, || match band {
                        Some(Band::CentreBackSeam) => {
                            "Open the band at its centre-back seam and take it in there."
                        }
                        Some(Band::Separate) => {
                            "Open outer and inner band; cut and rejoin the inner one, or fold it."
                        }
                        Some(Band::OnePiece | Band::Elastic) | None => {
                            "Take off the band that far, and shorten or lengthen it at a seam of its own."
                        }
                    }),
                    Edge::Of(seam, n) => {
                        let edges = ChangeKey::Seam(seam).edges();
                        let (edge, other) = (edges[n], edges[1 - n]);
                        let seam = ChangeKey::Seam(seam).name(to.garment);
                        let each =
                            if key.change.is_some_and(is_across) { "on each side" } else { "altogether" };
                        Said::new(
                            format!("The {name} and the {seam}"),
                            format!("the {edge} edge of the {seam} gets {off} {does} {each}"),
                            format!("The dart begins in that edge; the {other} edge keeps its length."),
                        )
                        .mended(outcome, || {
                            format!("Change the {other} edge by {off} as well, or ease the difference in.")
                        })
                    }
                }
            }
            Self::Lining(there) => {
                let figures = match (there.taken_in > Length::ZERO, there.let_out > Length::ZERO) {
                    (_, false) => format!("the outer is folded by up to {} more", to.show(there.taken_in)),
                    (false, true) => {
                        format!("the outer is let out by up to {} of fold", to.show(there.let_out))
                    }
                    (true, true) => format!(
                        "the outer is folded by up to {} more, and let out by up to {}",
                        to.show(there.taken_in),
                        to.show(there.let_out)
                    ),
                };
                Said::new(format!("Lining and {name}"), figures, there.reason()).mended(
                    outcome,
                    || "Change the lining’s dart or pleat by as much: it must never be the tighter one.",
                )
            }
        }
    }
}

fn has_two_points(change: ChangeKey) -> bool {
    matches!(change, ChangeKey::Dart(dart) if dart.has_two_points())
}

/// Where a dart should end, above the hem; pins that lie beyond are in its way.
fn end_at(height: Length, to: &Teller<'_>) -> String {
    let height = to.show(height);
    match to.mends {
        true => format!("Let it end {height} above the hem."),
        false => format!("Move what is pinned beyond {height} above the hem, then let it end there."),
    }
}

/// A dart that lies across takes from the length of an edge on each side.
fn is_across(change: ChangeKey) -> bool {
    matches!(change, ChangeKey::Dart(dart) if !dart.runs_up_and_down())
}
