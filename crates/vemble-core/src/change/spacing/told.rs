//! What is said of fastenings along an opening.

use super::judge::Found;
use super::spaced::{SpacingSums, Unspaced};
use crate::garment::Closure;
use crate::judge::{FindingKey, Outcome};
use crate::length::Length;
use crate::told::{Said, Tell, Teller, capital};

/// `54.0 − 1.5 for the first − 8.0 for the last = 44.5 cm`, with what the hem takes off said first.
pub(super) fn run_words(sums: &SpacingSums, to: &Teller<'_>) -> String {
    let hem = match sums.off {
        off if off == Length::ZERO => String::new(),
        off if off.is_negative() => format!(" + {} let down", to.bare(-off)),
        off => format!(" − {} off at the hem", to.bare(off)),
    };
    format!(
        "edge {}{hem} − {} to the first − {} below the last = {} to space",
        to.bare(sums.edge),
        to.bare(sums.first),
        to.bare(sums.last),
        to.show(sums.run())
    )
}

/// `7 on each edge, 7.4 to 7.5 cm apart`.
pub(super) fn apart_words(sums: &SpacingSums, to: &Teller<'_>) -> String {
    let count = sums.placed().len();
    match sums.apart() {
        None => format!("{count} on each edge"),
        Some([least, most]) if least == most => format!("{count} on each edge, {} apart", to.show(least)),
        Some([least, most]) => {
            format!("{count} on each edge, {} to {} apart", to.bare(least), to.show(most))
        }
    }
}

impl Tell for Found {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let name = key.change.map_or_else(|| "fastenings".into(), |change| change.name(to.garment));
        match self {
            Self::Comes { sums, closure } => {
                let figures = apart_words(sums, to);
                let reason = match (outcome, closure) {
                    (Outcome::Passes, _) => "Near enough to hold, and far enough to be worked.".into(),
                    (_, Closure::Lacing) => {
                        format!("Over {} apart the cord pulls the edge into points.", to.show(sums.widest))
                    }
                    _ => format!("Over {} apart the edge gapes between them.", to.show(sums.widest)),
                };
                Said::new(format!("Spacing of the {name}"), figures, reason).mended(outcome, || {
                    match to.mends {
                        true => "Take as many as keep it closed.",
                        false => "Set more of them, or space them evenly.",
                    }
                })
            }
            Self::Cannot { sums, why } => cannot(sums, *why, &name, outcome, to),
            Self::HalfAstride { line } => {
                let figures = format!("the waist line lies {} below the top", to.show(*line));
                Said::new(
                    format!("{} about the waist", capital(&name)),
                    figures,
                    "One of the two beside it falls outside.",
                )
                .mended(outcome, || "Let the last stand nearer to the end, or space them evenly.")
            }
            Self::Gapes { line, nearest } => {
                let near = match *nearest {
                    Length::ZERO => "one of them on it".into(),
                    nearest => format!("the nearest {} from it", to.show(nearest)),
                };
                let figures = format!("the bust line lies {} below the top, {near}", to.show(*line));
                let reason = match outcome {
                    Outcome::Passes => "A button so near holds it closed where it is drawn tightest.",
                    Outcome::Caution | Outcome::Stop => {
                        "Between two buttons a front gapes where it is drawn tightest."
                    }
                };
                Said::new(format!("{} at the bust", capital(&name)), figures, reason).mended(outcome, || {
                    match to.mends {
                        true => "Set one on the bust line, and the others from there.",
                        false => "Measure again where the bust line lies, or sew a hidden snap there.",
                    }
                })
            }
        }
    }
}

fn cannot(sums: &SpacingSums, why: Unspaced, name: &str, outcome: Outcome, to: &Teller<'_>) -> Said {
    let title = format!("Spacing of the {name}");
    match why {
        Unspaced::NoRoom => {
            let reason = "Nothing is left between the first and the last.";
            Said::new(title, run_words(sums, to), reason)
                .mended(outcome, || "Let the first or the last stand nearer to its end, or shorten it less.")
        }
        Unspaced::NoLine => {
            let reason = "Where the line of the body lies is not known along this edge.";
            Said::new(title, format!("edge {}", to.show(sums.edge)), reason)
                .mended(outcome, || "Measure how far below the top it lies, with the garment on.")
        }
        Unspaced::LineOutside(line) => {
            let figures = format!(
                "the line lies {} below the top, the first {}, the last {}",
                to.show(line),
                to.show(sums.first),
                to.show(sums.new_edge() - sums.last)
            );
            Said::new(title, figures, "It does not lie between the first and the last.")
                .mended(outcome, || "Measure it again, or space them evenly.")
        }
        Unspaced::TooClose { apart, closest, most } => {
            let figures = format!("{} apart", to.show(apart));
            let reason = format!("Closer than {} they cannot be worked: {most} fit.", to.show(closest));
            Said::new(title, figures, reason).mended(outcome, || match to.mends {
                true => format!("Take {most} of them."),
                false => "Take fewer of them, or set them further apart.".into(),
            })
        }
    }
}
