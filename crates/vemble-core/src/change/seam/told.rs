//! What is said of findings about a seam.

use super::EDGES_MAY_DIFFER;
use super::allowance::{BULKY, Capacity, Kept};
use super::in_the_way::{Crossed, POCKETS_APART, PocketGap};
use super::judge::{Found, Grain, Limb};
use super::partners::{Armhole, BandThere, EdgesApart, LiningThere};
use super::run_out::{Kink, RunOut};
use crate::garment::Band;
use crate::judge::{FindingKey, Outcome};
use crate::length::{Length, times};
use crate::told::{Said, Tell, Teller, edges_sum, without_sign};

impl Tell for Found {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        match self {
            Self::RunOut(facts) => run_out(facts, key, outcome, to),
            Self::Kink(facts) => kink(facts, key, outcome, to),
            Self::Capacity(facts) => capacity(facts, key, outcome, to),
            Self::Kept(facts) => kept(facts, key, outcome, to),
            Self::Grain(facts) => grain(facts, key, outcome, to),
            Self::Crossed(facts) => crossed(facts, key, outcome, to),
            Self::PocketGap(facts) => pocket_gap(facts, key, outcome, to),
            Self::EdgesApart(facts) => edges_apart(facts, key, outcome, to),
            Self::Armhole(facts) => armhole(facts, key, outcome, to),
            Self::Band(facts) => band(facts, key, outcome, to),
            Self::Lining(facts) => lining(facts, key, outcome, to),
        }
    }
}

/// The two edges of the seam by their names.
fn edges(key: &FindingKey) -> [&'static str; 2] {
    key.change.map_or(["front", "back"], crate::change::ChangeKey::edges)
}

/// Where the stations of the seam are measured from.
fn datum(key: &FindingKey) -> &'static str {
    key.change.map_or("hem", |change| change.datum())
}

fn run_out(facts: &RunOut, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let safe = facts.safe;
    let reason = match outcome {
        Outcome::Passes => format!("{safe} or more lies flat in this cloth."),
        Outcome::Caution => format!("Under {safe} it may poke at its tip."),
        Outcome::Stop => format!("Under {} it will poke at its tip.", safe / 2),
    };
    let ratio = times(facts.run, facts.offset);
    let figures = format!("{} long ÷ {} per edge = {ratio}", to.show(facts.run), to.show(facts.offset));
    let title = format!("Run-out of the {}, {}", key.name(to), key.side_words());
    Said::new(title, figures, reason).mended(outcome, || match facts.wanted {
        Some(wanted) => {
            // On the far side of the mark, so that it is long enough.
            let mark = to.tape.mark();
            let at = if facts.downwards { -(-wanted.0).up_to(mark) } else { wanted.0.up_to(mark) };
            format!("Let it meet the old stitching at {}.", to.show(at))
        }
        None if facts.ends_at_pin => {
            "The pin of 0 ends it: take less at the pin beside that, or put it further away.".into()
        }
        None => format!(
            "The seam is too short for {}: take less at the last pin, or run off the edge.",
            to.show(facts.offset * safe)
        ),
    })
}

fn kink(facts: &Kink, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let run = match facts.steepest > 0.0 {
        true => format!("1 : {:.1}", 1.0 / facts.steepest),
        false => "level".into(),
    };
    let figures = format!("steepest {run}, between {} and {}", to.bare(facts.from.0), to.show(facts.to.0));
    let reason = match outcome {
        Outcome::Passes => "No steeper than 1 : 4.",
        Outcome::Caution | Outcome::Stop => "Steeper than 1 : 4 is a kink.",
    };
    let title = format!("Bends of the {}, {}", key.name(to), key.side_words());
    Said::new(title, figures, reason)
        .mended(outcome, || "Look at these two pins again, or let the smooth line pass further beside them.")
}

fn capacity(facts: &Capacity, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let edge = match facts.edge {
        Some(n) => format!("on the {} edge", edges(key)[n]),
        None => "per edge".into(),
    };
    let figures = format!(
        "{} allowance − {} to keep = {} to give {edge}; let out by {}",
        to.bare(facts.has),
        to.bare(facts.keep),
        to.show(facts.gives()),
        to.show(facts.let_out)
    );
    let reason = match outcome {
        Outcome::Stop => format!("Short by {} {edge}.", to.show_at_least(facts.short())),
        Outcome::Caution if facts.is_clipped => "The allowance is clipped: it gives only to the clip.".into(),
        Outcome::Caution => "The seam has it to give, but the old stitch holes stay visible.".into(),
        Outcome::Passes => "The seam has it to give.".into(),
    };
    let title = format!("Letting out the {}, {}", key.name(to), key.side_words());
    Said::new(title, figures, reason).mended(outcome, || match outcome {
        Outcome::Stop => format!(
            "Set in a strip {} wide plus two allowances, or let out other seams too.",
            to.show_at_least(facts.short() * 2)
        ),
        Outcome::Caution | Outcome::Passes => "Unpick a hidden stretch first and look at the line.".into(),
    })
}

fn kept(facts: &Kept, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let figures = match facts.is_trimmed {
        true => format!("trimmed to {} per edge, after the next try-on", to.show(facts.kept)),
        false => format!(
            "{} allowance + {} taken in = {} kept per edge",
            to.bare(facts.allowance),
            to.bare(facts.taken_in),
            to.show(facts.kept)
        ),
    };
    let reason = match (outcome, facts.is_trimmed) {
        (Outcome::Caution | Outcome::Stop, _) => {
            format!("Over {} kept inside shows as bulk.", to.show(BULKY.on(to.tape)))
        }
        (Outcome::Passes, true) => "What is trimmed cannot be let out again.".into(),
        (Outcome::Passes, false) => "All of it can be let out again.".into(),
    };
    let title = format!("What stays inside the {}, {}", key.name(to), key.side_words());
    Said::new(title, figures, reason).mended(outcome, || "Trim it after the next try-on, not before.")
}

fn grain(facts: &Grain, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let (limb, other) = match facts.limb {
        Limb::Leg { other } => ("leg", other.name()),
        Limb::Sleeve => ("sleeve", "sleeve's other seam"),
    };
    let most = to.show(facts.most);
    let reason = match outcome {
        Outcome::Passes => format!("Up to {most} per edge the {limb} hangs straight."),
        Outcome::Caution | Outcome::Stop => {
            format!("Over {most} per edge the grain tips and the {limb} twists.")
        }
    };
    let figures = format!("{} per edge from one seam of the {limb}", to.show(facts.deepest));
    let title = format!("Grain of the {limb} at the {}, {}", key.name(to), key.side_words());
    Said::new(title, figures, reason).mended(outcome, || {
        format!("Split it with the {other}: {} per edge on each.", to.show(facts.deepest.fraction(1, 2)))
    })
}

fn crossed(facts: &Crossed, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let figures = format!("from {} to {} on the {}", to.bare(facts.from), to.show(facts.to), key.name(to));
    Said::new(format!("In the way: {}", facts.what), figures, "The altered stretch crosses it.")
        .mended(outcome, || "Unpick it first and put it back after, or end the line below it.")
}

fn pocket_gap(facts: &PocketGap, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let title = format!("Gap between the {}", facts.pockets.name());
    let at = format!("at {} on the {}", to.show(facts.at.0), key.name(to));
    let pinched = format!("Under {} between them looks pinched.", to.show(POCKETS_APART.on(to.tape)));
    let Some(apart) = facts.apart else {
        let figures = format!("{} closer, {at}; nobody measured the gap", to.show(facts.whole));
        return Said::new(title, figures, pinched).mended(outcome, || {
            format!(
                "Measure it in the look-over: with less than {} there now, take part of it elsewhere.",
                to.show(facts.whole + POCKETS_APART.on(to.tape))
            )
        });
    };
    let figures = format!(
        "{} − {} = {} between them, {at}",
        to.bare(apart),
        to.bare(facts.whole),
        to.show(apart - facts.whole)
    );
    let reason = match outcome {
        Outcome::Passes => "Enough cloth stays between them.".into(),
        Outcome::Caution | Outcome::Stop => pinched,
    };
    Said::new(title, figures, reason).mended(outcome, || {
        format!(
            "Take at most {} here and the rest elsewhere, or move the pockets.",
            to.show((apart - POCKETS_APART.on(to.tape)).max(Length::ZERO))
        )
    })
}

fn edges_apart(facts: &EdgesApart, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let lengths = &facts.lengths;
    let apart = lengths.mismatch();
    let [one, other] = edges(key);
    let longer = if apart.is_negative() { other } else { one };
    let figures = format!(
        "{one} edge {}, {other} edge {}: {} apart (old stitching {})",
        to.bare(lengths.front),
        to.show(lengths.back),
        to.show(apart.abs()),
        to.show(lengths.old)
    );
    let reason = match (outcome, apart.abs() <= EDGES_MAY_DIFFER.on(to.tape)) {
        (Outcome::Passes, true) => format!("Up to {} need nothing.", to.show(EDGES_MAY_DIFFER.on(to.tape))),
        (Outcome::Passes, false) => format!("Up to 1 %: ease the {longer} edge in."),
        (Outcome::Caution | Outcome::Stop, _) => "More than eases in.".into(),
    };
    let title = format!("Edges of the {}, {}", key.name(to), key.side_words());
    Said::new(title, figures, reason).mended(outcome, || {
        format!(
            "Trim {} off the {longer} edge at the {}, redraw it, or gather it {:.2} to 1.",
            to.show(apart.abs()),
            datum(key),
            lengths.front.max(lengths.back).cm() / lengths.front.min(lengths.back).cm()
        )
    })
}

fn armhole(facts: &Armhole, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let changes = if facts.edges.whole().0.is_negative() { "grow" } else { "shrink" };
    let figures = format!(
        "the armhole {changes}s by {}; the sleeve by {}",
        edges_sum(without_sign(facts.edges), 1, edges(key), to.tape),
        to.show(facts.of_sleeve.abs())
    );
    let reason = match outcome {
        Outcome::Passes => "Armhole and sleeve change together: they still fit each other.",
        Outcome::Caution | Outcome::Stop => "The sleeve no longer fits its armhole.",
    };
    Said::new(format!("Sleeve and armhole, {}", key.side_words()), figures, reason).mended(
        outcome,
        || "Let the line carry on into the sleeve seam in one pass, or meet the old stitching below the arm.",
    )
}

fn band(facts: &BandThere, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let does = if facts.edges.whole().0.is_negative() { "longer" } else { "shorter" };
    let sum = edges_sum(without_sign(facts.edges), facts.seams, edges(key), to.tape);
    let title = format!("Waistband and {}, {}", key.name(to), key.side_words());
    let reason = "The line goes through the waist: band and facing change by as much.";
    let is_centre = key
        .change
        .is_some_and(|change| matches!(change, crate::change::ChangeKey::Seam(seam) if seam.is_single()));
    Said::new(title, format!("{sum} {does}"), reason).mended(outcome, || match facts.band {
        Some(Band::CentreBackSeam) if is_centre => {
            "Open the band's own seam and resew it in one pass with this one."
        }
        Some(Band::Separate) => "Open outer and inner band there; cut and rejoin the inner one, or fold it.",
        Some(Band::OnePiece | Band::CentreBackSeam | Band::Elastic) | None => {
            "Cut the band there: sew the short level seams first, then the upright one in one pass, allowances open."
        }
    })
}

fn lining(facts: &LiningThere, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let opens = facts.opens.map_or("not looked at yet where it opens", |o| o.name());
    let reason = format!("It is {}; the lining opens {opens}.", facts.lined.name());
    let figures = format!("up to {} per edge on the outer", to.show(facts.most));
    Said::new(format!("Lining and {}", key.name(to)), figures, reason).mended(
        outcome,
        || "Take the same off the lining's seam, a little less: it must never be the tighter one.",
    )
}
