//! What is said of gathers and pleats.

use super::judge::{Against, Found};
use super::pleats::GatherSums;
use crate::garment::GatherHow;
use crate::judge::{FindingKey, Outcome};
use crate::told::{Said, Tell, Teller, capital};

/// `150.0 − 70.0 = 80.0 cm to take up; 150.0 ÷ 70.0 = 2.14 to 1`.
pub(super) fn excess_words(sums: &GatherSums, to: &Teller<'_>) -> String {
    let (long, short) = (to.bare(sums.long), to.bare(sums.short));
    format!(
        "{long} − {short} = {} to take up; {long} ÷ {short} = {:.2} to 1",
        to.show(sums.excess()),
        sums.ratio()
    )
}

/// `16 pleats, each takes 5.0 cm`.
pub(super) fn pleats_words(sums: &GatherSums, to: &Teller<'_>) -> Option<String> {
    let [least, most] = sums.takes()?;
    let count = sums.pleats.len();
    let pleats = if count == 1 { "pleat" } else { "pleats" };
    Some(if least == most {
        let folded = sums.how.depths().map(|depths| least.fraction(1, depths));
        let depth = folded.filter(|depth| to.tape.round(*depth) == *depth);
        let depth = depth.map_or_else(String::new, |depth| format!(": {} deep", to.show(depth)));
        format!("{count} {pleats}, each takes {}{depth}", to.show(least))
    } else {
        let more = sums.pleats.iter().filter(|pleat| pleat.to - pleat.from == most).count();
        let fewer = count - more;
        format!("{count} {pleats}: {more} take {}, {fewer} take {}", to.bare(most), to.show(least))
    })
}

impl Tell for Found {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let name = key.change.map_or_else(|| "gathers".into(), |change| change.name(to.garment));
        let title = capital(&name);
        match self {
            Self::Unknown { long } => {
                let reason = "What it is brought to is not known.";
                Said::new(title, format!("the edge is {} long", to.show(*long)), reason)
                    .mended(outcome, || "Say how long the edge is that it is sewn to.")
            }
            Self::Nothing { long, short } => {
                let figures = format!("{} to be brought to {}", to.bare(*long), to.show(*short));
                Said::new(title, figures, "It is no longer than that: nothing can be taken together.")
                    .mended(outcome, || "Measure both edges again, or set in a longer one.")
            }
            Self::Comes { sums, against } => {
                let pleats = pleats_words(sums, to).map_or_else(String::new, |words| format!("; {words}"));
                let figures = format!("{}{pleats}", excess_words(sums, to));
                let narrows = |hip| {
                    let hip = to.show(hip);
                    format!("The hip goes round {hip}, less than this edge: below it the cloth would narrow.")
                };
                let reason = match against {
                    Some(Against::Narrows { hip }) => narrows(*hip),
                    None if sums.how == GatherHow::Gathers => "It lies well so.".into(),
                    None => "All of them alike, and they lie well so.".into(),
                    Some(Against::Unlike) => "Those nearest the middle take a little more.".into(),
                    Some(Against::Little) => "So little looks eased by mistake.".into(),
                    Some(Against::Much) => "So much cloth stands up, and is hard to sew through.".into(),
                    Some(Against::Overlap) => "Over 3 to 1 one pleat lies on the next.".into(),
                };
                Said::new(title, figures, reason).mended(outcome, || match against {
                    Some(Against::Narrows { .. }) => "Let the hip out, or cut the edge shorter.",
                    Some(Against::Little) => "Ease it in with an ease-stitch, or cut the edge longer.",
                    _ => "Cut the edge shorter, or take part of it out in its seams.",
                })
            }
        }
    }
}
