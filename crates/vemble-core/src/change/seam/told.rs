//! What is said of findings about a seam.

use super::EDGES_MAY_DIFFER;
use super::allowance::{BULKY, Capacity, Kept, TRIMMED, Trimmed};
use super::in_the_way::{Crossed, POCKETS_APART, PocketGap, Thing};
use super::judge::{Found, Grain, Limb};
use super::panel::{Below, Panel};
use super::partners::{Armhole, BandThere, EdgesApart, EndsIn, LiningThere, MetEdge};
use super::run_out::{Kink, RunOut};
use crate::change::{ChangeKey, Term};
use crate::fitting::EndOf;
use crate::garment::Band;
use crate::judge::{FindingKey, Outcome};
use crate::length::{Length, times};
use crate::place::Level;
use crate::told::{Said, Tell, Teller, edges_sum, term_words, without_sign};

/// What is sewn to a neckline does not change with it.
const AT_THE_NECK: &str = "Collar, band or facing keep their length.";

impl Tell for Found {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        match self {
            Self::RunOut(facts) => run_out(facts, key, outcome, to),
            Self::Kink(facts) => kink(facts, key, outcome, to),
            Self::Capacity(facts) => capacity(facts, key, outcome, to),
            Self::Panel { panel, is_needed } => {
                let reason = match is_needed {
                    true => "Sewn along the old lines: nothing comes out of the allowances.",
                    false => "Its allowances would give as much by themselves.",
                };
                let figures = format!("up to {} altogether, between the old lines", to.show(panel.widest));
                Said::new(panel_title(key, to), figures, reason)
            }
            Self::PanelCloth(panel) => {
                let title = format!("Cloth for the panel in the {}{}", key.name(to), key.and_side());
                let reason = "Other cloth hangs and washes otherwise.";
                Said::new(title, panel_words(*panel, to), reason).mended(outcome, || {
                    "Take cloth of the same weight, stretch and nap, washed as it was, its grain along the panel."
                })
            }
            Self::PanelTakesIn(by) => {
                let figures = format!("taken in by up to {} per edge", to.show(*by));
                Said::new(panel_title(key, to), figures, "A panel only lets out.")
                    .mended(outcome, || "Leave the panel out, or bring those pins to nothing.")
            }
            Self::Kept(facts) => kept(facts, key, outcome, to),
            Self::Trimmed(facts) => trimmed(facts, key, outcome, to),
            Self::Grain(facts) => grain(facts, key, outcome, to),
            Self::Crossed(facts) => crossed(facts, key, outcome, to),
            Self::Opened(things) => opened(things, key, outcome, to),
            Self::PocketGap(facts) => pocket_gap(facts, key, outcome, to),
            Self::EdgesApart(facts) => edges_apart(facts, key, outcome, to),
            Self::Armhole(facts) => armhole(facts, key, outcome, to),
            Self::Band(facts) => band(facts, key, outcome, to),
            Self::Lining(facts) => lining(facts, key, outcome, to),
            Self::RoundTheNeck { longer } => round_the_neck(*longer, key, outcome, to),
            Self::EndsIn(facts) => ends_in(facts, key, outcome, to),
        }
    }
}

/// The two edges of the seam by their names.
fn edges(key: &FindingKey) -> [&'static str; 2] {
    key.change.map_or(["front", "back"], ChangeKey::edges)
}

/// Where the stations of the seam are measured from.
fn datum(key: &FindingKey) -> &'static str {
    key.change.map_or("hem", |change| change.datum())
}

fn panel_title(key: &FindingKey, to: &Teller<'_>) -> String {
    format!("A panel in the {}{}", key.name(to), key.and_side())
}

/// "2 pieces, each 4.0 + 2 allowances × 1.5 = 7.0 cm wide, 31.0 + 2 allowances × 1.5 = 34.0 cm long".
pub(super) fn panel_words(panel: Panel, to: &Teller<'_>) -> String {
    let pieces = match panel.pieces {
        1 => "1 piece".to_owned(),
        n => format!("{n} pieces, each"),
    };
    let (wide, long, each) = (to.bare(panel.room), to.bare(panel.long), to.bare(panel.allowance));
    let (ends, and_hem) = match panel.below {
        Below::Allowance => (format!("2 allowances × {each}"), ""),
        Below::Hem(Some(up)) => (format!("1 allowance of {each} + {} turned up", to.bare(up)), ""),
        Below::Hem(None) => (format!("1 allowance of {each}"), ", and what the hem turns up"),
    };
    format!(
        "{pieces} {wide} + 2 allowances × {each} = {} wide, {long} + {ends} = {} long{and_hem}",
        to.show(panel.cut_wide()),
        to.show(panel.cut_long())
    )
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
    let title = format!(
        "Run-out of the {} at its {}{}",
        key.name(to),
        key.end.map_or("end", EndOf::name),
        key.and_side()
    );
    Said::new(title, figures, reason).mended(outcome, || match facts.wanted {
        Some(wanted) if to.mends => {
            // On the far side of the mark, so that it is long enough.
            let mark = to.tape.mark();
            let at = if facts.downwards { -(-wanted.0).up_to(mark) } else { wanted.0.up_to(mark) };
            format!("Let it meet the old stitching at {}.", to.show(at))
        }
        Some(_) => "Take less at the last pin: something else stands where it would have to run out.".into(),
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
    // A line that hardly rises has no ratio that anybody could picture.
    let run = match facts.steepest > 0.01 {
        true => format!("1 : {:.1}", 1.0 / facts.steepest),
        false => "hardly any".into(),
    };
    let figures = format!("steepest {run}, between {} and {}", to.bare(facts.from.0), to.show(facts.to.0));
    let reason = match outcome {
        Outcome::Passes => "No steeper than 1 : 4.",
        Outcome::Caution | Outcome::Stop => "Steeper than 1 : 4 is a kink.",
    };
    let title = format!("Bends of the {}{}", key.name(to), key.and_side());
    Said::new(title, figures, reason)
        .mended(outcome, || "Look at these two pins again, or let the smooth line pass further beside them.")
}

fn capacity(facts: &Capacity, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let edge = match facts.edge {
        Some(n) => format!("on the {} edge", edges(key)[n]),
        None => "per edge".into(),
    };
    let let_out = to.show(facts.let_out);
    let figures = match facts.clips_leave {
        Some(leave) => format!("the clips leave {} to give {edge}; let out by {let_out}", to.show(leave)),
        None => format!(
            "{} allowance − {} to keep = {} to give {edge}; let out by {let_out}",
            to.bare(facts.has),
            to.bare(facts.keep),
            to.show(facts.gives())
        ),
    };
    let reason = match outcome {
        Outcome::Stop => format!("Short by {} {edge}.", to.show_at_least(facts.short())),
        Outcome::Caution if facts.is_clipped => "The allowance is clipped: it gives only to the clip.".into(),
        Outcome::Caution if facts.finish.must_be_opened() => {
            format!("A {} seam gives only after it is opened flat.", facts.finish.name())
        }
        Outcome::Caution => "The seam has it to give, but the old stitch holes stay visible.".into(),
        Outcome::Passes => "The seam has it to give.".into(),
    };
    let title = format!("Letting out the {}{}", key.name(to), key.and_side());
    Said::new(title, figures, reason).mended(outcome, || match outcome {
        Outcome::Stop => short_of(facts, key, to),
        Outcome::Caution | Outcome::Passes if facts.is_clipped => {
            "Look how far the clips go, and say it in the look-over: let out no further.".into()
        }
        Outcome::Caution | Outcome::Passes => {
            "Unpick a hidden stretch first and look at the line.".to_owned()
        }
    })
}

/// What to do about a seam that has too little to give.
fn short_of(facts: &Capacity, key: &FindingKey, to: &Teller<'_>) -> String {
    if let Some(percent) = facts.share.filter(|_| to.mends) {
        let [both, whole] = facts.both;
        let [one, _] = edges(key);
        return format!(
            "Both edges together have {} for {}: take {percent} % of it from the {one} edge.",
            to.show(both),
            to.show(whole)
        );
    }
    let set_in = match facts.panel.filter(|_| to.mends) {
        Some(widest) => format!(
            "Set in a panel {} wide at its widest between the old lines, or let out other seams too.",
            to.show(widest)
        ),
        None => {
            let strip = to.show_at_least(facts.short() * 2);
            format!("Set in a strip {strip} wide plus two allowances, or let out other seams too.")
        }
    };
    let Some((level, gives)) = facts.level.as_ref().filter(|(_, gives)| !gives.is_empty()) else {
        return set_in;
    };
    let all: Length = gives.iter().map(Term::off).sum();
    let sums: Vec<String> = gives.iter().map(|term| term_words(to.garment, term, to.tape)).collect();
    format!(
        "{set_in} At the {} all seams together can give {}: {}.",
        level.name(),
        to.show(all),
        sums.join("; ")
    )
}

fn kept(facts: &Kept, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let kept = facts.kept();
    let sum = |n: usize| {
        format!(
            "{} allowance + {} taken in = {} kept",
            to.bare(facts.allowance[n]),
            to.bare(facts.taken_in[n]),
            to.show(kept[n])
        )
    };
    let alike = facts.allowance[0] == facts.allowance[1] && facts.taken_in[0] == facts.taken_in[1];
    let figures = match (facts.trim, alike) {
        (Some(trim), _) => format!("trimmed to {} per edge, after the next try-on", to.show(trim)),
        (None, true) => format!("{} per edge", sum(0)),
        (None, false) => {
            let [one, other] = edges(key);
            format!("{one} edge: {}; {other} edge: {}", sum(0), sum(1))
        }
    };
    let reason = match (outcome, facts.trim) {
        (Outcome::Caution | Outcome::Stop, _) => {
            format!("Over {} kept inside shows as bulk.", to.show(BULKY.on(to.tape)))
        }
        (Outcome::Passes, Some(_)) => "What is trimmed cannot be let out again.".into(),
        (Outcome::Passes, None) => "All of it can be let out again.".into(),
    };
    let title = format!("What stays inside the {}{}", key.name(to), key.and_side());
    Said::new(title, figures, reason).mended(outcome, || {
        format!("Trim it to {} after the next try-on, and not before.", to.show(TRIMMED.on(to.tape)))
    })
}

fn trimmed(facts: &Trimmed, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let (width, there) = (to.show(facts.width), to.show(facts.there));
    let figures = format!("cut {width} outside the new stitching; {there} of cloth there at the least");
    let is_narrow = facts.width < facts.least;
    let reason = match outcome {
        Outcome::Passes => "The cut line lies on the cloth.".into(),
        Outcome::Caution | Outcome::Stop if is_narrow => {
            format!("Under {} no finished edge holds.", to.show(facts.least))
        }
        Outcome::Caution | Outcome::Stop => "The cut line lies off the cloth in places.".into(),
    };
    let title = format!("Cut line of the {}{}", key.name(to), key.and_side());
    Said::new(title, figures, reason).mended(outcome, || match is_narrow {
        true => format!("Trim it to {} or more, or keep all.", to.show(facts.least)),
        false if facts.there >= facts.least => format!("Trim it to {there}: so much there is everywhere."),
        false => "Keep all of it: there is nothing to trim in places.".into(),
    })
}

fn grain(facts: &Grain, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let limb = match facts.limb {
        Limb::Leg { .. } => "leg",
        Limb::Sleeve => "sleeve",
    };
    let most = to.show(facts.most);
    let reason = match outcome {
        Outcome::Passes => format!("Up to {most} per edge the {limb} hangs straight."),
        Outcome::Caution | Outcome::Stop => {
            format!("Over {most} per edge the grain tips and the {limb} twists.")
        }
    };
    let figures = format!("{} per edge from one seam of the {limb}", to.show(facts.deepest));
    let title = format!("Grain of the {limb} at the {}{}", key.name(to), key.and_side());
    Said::new(title, figures, reason).mended(outcome, || match facts.limb {
        Limb::Leg { other } if to.mends => {
            format!("Split it with the {}: half of it on each.", ChangeKey::Seam(other).name(to.garment))
        }
        Limb::Leg { .. } | Limb::Sleeve => {
            format!("Take {most} per edge at most here, and leave the rest as ease.")
        }
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
    let title = format!("Edges of the {}{}", key.name(to), key.and_side());
    Said::new(title, figures, reason).mended(outcome, || {
        let ratio = lengths.front.max(lengths.back).cm() / lengths.front.min(lengths.back).cm();
        // Less than a twentieth gathers nothing that anybody sees.
        let gather = if ratio >= 1.05 { format!(", or gather it {ratio:.2} to 1") } else { String::new() };
        format!(
            "Trim {} off the {longer} edge at the {}, redraw it{gather}.",
            to.show(apart.abs()),
            datum(key)
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
    Said::new(format!("Sleeve and armhole{}", key.and_side()), figures, reason).mended(
        outcome,
        || match facts.can_carry_on {
            true => "Let the line carry on into the sleeve seam in one pass, or meet the old stitching below the arm.",
            false => "Pin the sleeve seam by as much at its top, or meet the old stitching below the arm.",
        },
    )
}

fn band(facts: &BandThere, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let does = if facts.edges.whole().0.is_negative() { "longer" } else { "shorter" };
    let sum = edges_sum(without_sign(facts.edges), facts.seams, edges(key), to.tape);
    let title = format!("Waistband and {}{}", key.name(to), key.and_side());
    let reason = "The line goes through the waist: band and facing change by as much.";
    let is_centre =
        key.change.is_some_and(|change| matches!(change, ChangeKey::Seam(seam) if seam.is_single()));
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

fn round_the_neck(longer: Length, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let (more, remedy) = match longer.is_negative() {
        false => {
            ("more", "Lengthen collar, band or facing by as much, or cut it anew, before it is sewn on.")
        }
        true => ("less", "Shorten collar, band or facing by as much, or cut it anew, before it is sewn on."),
    };
    let figures = match longer {
        Length::ZERO => "the neckline goes round as much as before".to_owned(),
        _ => format!("the neckline goes round {} {more} altogether", to.show(longer.abs())),
    };
    let reason = match outcome {
        Outcome::Passes => format!("Up to {} are eased in.", to.show(EDGES_MAY_DIFFER.on(to.tape))),
        Outcome::Caution | Outcome::Stop => AT_THE_NECK.to_owned(),
    };
    Said::new(format!("Collar, band or facing, and the {}", key.name(to)), figures, reason)
        .mended(outcome, || remedy)
}

fn opened(things: &[Thing], key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let named: Vec<String> = things.iter().map(|thing| thing.name(to)).collect();
    let title = format!("Opened first on the {}", key.name(to));
    let reason = match outcome {
        Outcome::Passes => "Opened and closed again, it is as before.",
        Outcome::Caution | Outcome::Stop => {
            "The altered stretch meets it: it has to come apart first, and go back."
        }
    };
    Said::new(title, named.join(", "), reason).mended(
        outcome,
        || "Unpick it before the seam and put it back after; a line that ends before it leaves it alone.",
    )
}

impl Thing {
    /// What it is called on this garment.
    pub(super) fn name(self, to: &Teller<'_>) -> String {
        match self {
            Self::Closure(closure, at) => format!("the {} ({})", closure.name(), at.name()),
            Self::Pockets(pockets) => format!("the {}", pockets.name()),
            Self::Topstitching => "the topstitching".into(),
            Self::Crossing(seam) => format!("the {}", ChangeKey::Seam(seam).name(to.garment)),
            Self::Hem => "the hem".into(),
            Self::Edge(edge) => format!("the lower edge ({})", edge.name()),
        }
    }
}

fn ends_in(facts: &EndsIn, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let (edge, partner, remedy) = match facts.edge {
        MetEdge::Neck => (
            "neck edge",
            AT_THE_NECK,
            "Shorten or lengthen collar or facing by as much, or meet the old stitching before the neck.",
        ),
        MetEdge::Armhole if to.garment.level(Level::UpperArm).is_none() => (
            "armhole",
            "What finishes it, facing or binding, keeps its length.",
            "Shorten or lengthen facing or binding by as much, or meet the old stitching before the armhole.",
        ),
        MetEdge::Armhole => (
            "armhole",
            "The sleeve’s cap keeps its length.",
            "Ease the cap in, set the sleeve anew, or meet the old stitching before the armhole.",
        ),
        MetEdge::ArmholeOrShoulder => (
            "edge at its top",
            "What is sewn to it, sleeve or shoulder, keeps its length.",
            "Meet the old stitching before the top, or ease in what is sewn to it.",
        ),
        MetEdge::Rise => (
            "edge between the legs",
            "Seat seam and front rise meet the inseams there, and move with them.",
            "Open that crossing, sew the inseams first, then seat seam and front rise in one pass.",
        ),
        MetEdge::Inseams => (
            "edge between the legs",
            "The inseams meet it there, and move with it.",
            "Open that crossing, and sew it again after the inseams, in one pass.",
        ),
    };
    let does = if facts.edges.whole().0.is_negative() { "longer" } else { "shorter" };
    let sum = edges_sum(without_sign(facts.edges), 1, edges(key), to.tape);
    let title = format!("The {} and the {edge}{}", key.name(to), key.and_side());
    Said::new(title, format!("the {edge} gets {does}: {sum}"), partner).mended(outcome, || remedy)
}

fn lining(facts: &LiningThere, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
    let figures = match (facts.taken_in > Length::ZERO, facts.let_out > Length::ZERO) {
        (true, true) => format!(
            "the outer is taken in by up to {} and let out by up to {} per edge",
            to.show(facts.taken_in),
            to.show(facts.let_out)
        ),
        (false, true) => format!("the outer is let out by up to {} per edge", to.show(facts.let_out)),
        (true | false, false) => {
            format!("the outer is taken in by up to {} per edge", to.show(facts.taken_in))
        }
    };
    Said::new(format!("Lining and {}", key.name(to)), figures, facts.reason())
        .mended(outcome, || facts.remedy())
}

impl LiningThere {
    /// How far it is lined, and where that opens.
    pub fn reason(&self) -> String {
        let opens = self.opens.map_or("not looked at yet where it opens", |o| o.name());
        format!("It is {}; the lining opens {opens}.", self.lined.name())
    }

    /// What follows for the lining.
    pub fn remedy(&self) -> &'static str {
        match (self.taken_in > Length::ZERO, self.let_out > Length::ZERO) {
            (true, true) => {
                "Follow it with the lining’s seam: a little less where it is taken in, at least as much where it is let out, as far as its own allowance goes."
            }
            (false, true) => {
                "Let the lining’s seam out at least as much; look first whether its own allowance has it."
            }
            (true | false, false) => {
                "Take the same off the lining’s seam, a little less: it must never be the tighter one."
            }
        }
    }
}
