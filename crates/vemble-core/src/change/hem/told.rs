//! What is said of findings about a hem.

use super::Cutting;
use super::at_the_edge::{Near, SlitSums};
use super::input::ShortenedAt;
use super::judge::{Found, HemSums, lies_flat_by};
use super::lining::{Against, LiningHem};
use super::regime::{KeptEdge, Regime};
use crate::change::ChangeKey;
use crate::garment::{HemEdge, HemTurn, LiningOpens, SpecialEdge};
use crate::judge::{FindingKey, Outcome};
use crate::length::Length;
use crate::told::{Said, Tell, Teller, capital};

/// What the hem is called, and which leg or sleeve where both are not the same.
fn name(key: &FindingKey, to: &Teller<'_>) -> String {
    let name = key.change.map_or_else(|| "hem".to_owned(), |change| change.name(to.garment));
    key.side.map_or(name.clone(), |side| format!("{name}, {}", side.name()))
}

/// `take off 2.0 cm`, `let down 2.5 cm`, `keep its length`.
pub(super) fn off_words(off: Length, to: &Teller<'_>) -> String {
    match off {
        Length::ZERO => "keep its length".into(),
        down if down.is_negative() => format!("let down {}", to.show(-down)),
        up => format!("take off {}", to.show(up)),
    }
}

/// `1.0 + 2.5 = 3.5 cm`.
pub(super) fn turns_words(sums: &HemSums, to: &Teller<'_>) -> String {
    let turns: Vec<String> = sums.turns.iter().map(|turn| to.bare(*turn)).collect();
    match &turns[..] {
        [] => String::new(),
        [_] => to.show(sums.allowance),
        turns => format!("{} = {}", turns.join(" + "), to.show(sums.allowance)),
    }
}

/// `4.0 turned up + 2.0 off − 3.5 for the new hem = 2.5 cm cut off`: all round, or where least and where most comes off.
pub(super) fn balance(sums: &HemSums, to: &Teller<'_>) -> String {
    match sums.is_level() {
        true => balance_at(sums, 0, to),
        false => {
            format!(
                "where least comes off {}; where most {}",
                balance_at(sums, 0, to),
                balance_at(sums, 1, to)
            )
        }
    }
}

fn balance_at(sums: &HemSums, at: usize, to: &Teller<'_>) -> String {
    let (off, bare) = (sums.off[at], |length: Length| to.bare(length));
    let taken = match off.is_negative() {
        true => format!("− {} let down", bare(-off)),
        false => format!("+ {} off", bare(off)),
    };
    let sum = format!("{} turned up {taken} − {} for the new hem", bare(sums.turn_up), bare(sums.allowance));
    match sums.regimes[at] {
        Regime::Short { by, .. } => format!("{sum}: {} short", to.show(by)),
        Regime::AboveOldFold { cut, .. } | Regime::FromTurnUp { cut } => {
            let what = match sums.cutting {
                Cutting::AfterTryOn | Cutting::First => "cut off",
                Cutting::StitchThenTrim => "trimmed above the stitching",
                Cutting::Never => "more stay inside",
            };
            format!("{sum} = {} {what}", to.show(cut))
        }
    }
}

impl Tell for Found {
    fn tell(&self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>) -> Said {
        let name = name(key, to);
        match self {
            Self::Sides { apart, undecided } => {
                let figures = match apart {
                    Some(apart) => format!("{} apart at most", to.show(*apart)),
                    None => "marked nowhere beside each other".into(),
                };
                let reason = match (undecided, outcome) {
                    (true, _) => "They differ by more than marks wobble, and nobody has decided.",
                    (false, _) => "They were made to agree, or somebody decided.",
                };
                Said::new(format!("Left and right of the {name}"), figures, reason).mended(outcome, || {
                    match to.mends {
                        true => "What was noted of the wearer explains it: keep each.",
                        false => "Mark them again, standing upright; else choose what both are to be.",
                    }
                })
            }
            Self::Uneven { least, most, is_far } => {
                let figures = format!(
                    "from {} to {}: {} apart",
                    to.bare(*least),
                    to.show(*most),
                    to.show(*most - *least)
                );
                let reason = match (is_far, outcome) {
                    (true, _) => "So far apart is a slope that is wanted, or a misreading.",
                    (false, Outcome::Stop) => "Marks of a level edge agree better than that.",
                    (false, _) => "Somebody said how it is to be.",
                };
                Said::new(format!("Level of the {name}"), figures, reason).mended(outcome, || {
                    "Say whether the edge is to be level or to follow the marks, or mark it again."
                })
            }
            Self::NoClearance => Said::new(
                format!("Marks of the {name}"),
                "read from the floor",
                "Nobody said yet how far above the floor the edge is to be.",
            )
            .mended(outcome, || "Say how far above the floor the new edge is to hang."),
            Self::TooHigh { read, hangs } => {
                let figures = format!("read {} above the floor, it hangs from {}", to.bare(*read), to.show(*hangs));
                Said::new(format!("A mark of the {name}"), figures, "Nothing of it can lie so high: a tape that slipped reads so.")
                    .mended(outcome, || "Mark it again, from the floor up to the present edge.")
            }
            Self::NoPlace => Said::new(
                format!("A mark inside the {name}"),
                "at the inside of a leg",
                "An edge that goes round both legs has no such place: it is not counted.",
            )
            .mended(outcome, || "Mark it in front, at the sides or behind."),
            Self::BentOver { bent, upright } => {
                let figures =
                    format!("{} at first, {} standing upright", to.bare(*bent), to.show(*upright));
                let reason = "Bending to look drops the front edge: the upright reading counts.";
                Said::new(format!("Readings of the {name}"), figures, reason)
            }
            Self::Cloth(sums) => cloth(sums, &name, outcome, to),
            Self::Crease { let_down, shows } => {
                let reason = match shows {
                    true => "The old fold, its faded edge and its stitch holes stay visible in this cloth.",
                    false => "The old fold presses out.",
                };
                let figures = format!("the old fold comes to lie {} above the new edge", to.show(*let_down));
                Said::new(format!("Old crease of the {name}"), figures, reason).mended(outcome, || {
                    "Try steam with a little vinegar on a hidden place first; else cover the line with a row of stitching, braid or a tuck."
                })
            }
            Self::Full { fullness, is_pair } => {
                let figures = format!(
                    "{} round the edge, {} where it lies, {} deep: {} {}",
                    to.bare(fullness.edge),
                    to.bare(fullness.landing),
                    to.show(fullness.depth),
                    to.show(fullness.excess().abs()),
                    if fullness.excess().is_negative() { "too short" } else { "too long" }
                );
                let short = fullness.excess().is_negative();
                let reason = match (short, is_pair) {
                    (true, _) => format!(
                        "It narrows: let the allowance mirror the shape above the fold, {} wider round at its edge.",
                        to.show(-fullness.excess())
                    ),
                    (false, _) => format!("{} %: {}.", fullness.percent(), lies_flat_by(fullness.percent())),
                };
                Said::new(format!("Fullness of the {name}"), figures, reason).mended(outcome, || match to.mends {
                    true => "Face it: a shaped strip follows the curve.",
                    false => "Turn a narrower hem, or follow the curve with a shaped facing.",
                })
            }
            Self::Tuck { kept, wider, is_trimmed } => {
                let figures = format!(
                    "tuck {} deep; it is {} {} where it is stitched above",
                    to.show(kept.tuck),
                    to.show(wider.abs()),
                    if wider.is_negative() { "narrower" } else { "wider" }
                );
                let trim = if *is_trimmed { " Trim the tuck after the try-on, and not before." } else { "" };
                let reason = match outcome {
                    Outcome::Passes => format!("So much eases in.{trim}"),
                    Outcome::Caution | Outcome::Stop => format!("More than eases in.{trim}"),
                };
                Said::new(format!("Tuck behind the {name}"), figures, reason)
                    .mended(outcome, || "Take the difference out of the seams above first.")
            }
            Self::Heavy { turns } => Said::new(
                format!("Bulk of the {name}"),
                format!("{turns} turns and the cloth itself in heavy cloth"),
                "Turned twice, heavy cloth makes a ridge that shows and breaks needles at the seams.",
            )
            .mended(outcome, || "Turn it once, with a finished edge."),
            Self::Shrinks { length, percent, loses, longer } => {
                let figures = format!("{percent} % of {} = {}", to.show(*length), to.show(*loses));
                let reason = match outcome {
                    Outcome::Passes => {
                        format!("It is left {} longer: washing takes that.", to.show(*longer))
                    }
                    Outcome::Caution | Outcome::Stop => {
                        "It was never washed, or nobody knows: the finished length will lose that.".into()
                    }
                };
                Said::new(format!("Shrinkage before the {name}"), figures, reason).mended(outcome, || {
                    match to.mends {
                        true => format!("Leave it {} longer; or wash it two or three times first.", to.show(*loses)),
                        false => "Wash it two or three times first.".into(),
                    }
                })
            }
            Self::AtTheCuff { off } => Said::new(
                format!("What closes at the {name}"),
                format!("{} taken off", to.show(*off)),
                "Buttons, plackets, tabs and vents so near the edge come to lie too low.",
            )
            .mended(outcome, || {
                format!(
                    "Move them up by {}; where they cannot move, shorten the sleeve from its cap, a much bigger job.",
                    to.show(*off)
                )
            }),
            Self::Uncuttable { edge, off, excess } => {
                let figures = match excess {
                    Some(excess) if !excess.is_negative() => format!(
                        "{} off at the waist instead: it is {} wider there than the waist",
                        to.show(*off),
                        to.show(*excess)
                    ),
                    _ => format!("{} off", to.show(*off)),
                };
                let reason = format!("Its edge is {}: cut, it would be lost.", edge.name());
                Said::new(format!("Edge of the {name}"), figures, reason).mended(outcome, || {
                    match (to.mends, edge) {
                        (true, SpecialEdge::Border | SpecialEdge::Scallops | SpecialEdge::Sequins)
                            if excess.is_some() =>
                        {
                            "Shorten it at the waist seam; or fold a tuck above the edge."
                        }
                        (true, _) => "Keep the edge, and fold a tuck behind it.",
                        (false, _) => "Fold a tuck above the edge, or shorten it higher up.",
                    }
                })
            }
            Self::Vent { has, off, left } => {
                let sign = if off.is_negative() { "+" } else { "−" };
                let figures = format!("{} {sign} {} = {} left", to.bare(*has), to.bare(off.abs()), to.show(*left));
                let reason = match (outcome, *left <= Length::ZERO) {
                    (Outcome::Passes, _) => "Long enough to walk in.",
                    (_, true) => "Nothing of it is left: the edge is closed, and steps need another way.",
                    (_, false) => "So short a vent pulls open and hinders walking.",
                };
                Said::new(format!("Vent at the {name}"), figures, reason)
                    .mended(outcome, || "Open its seam higher and turn the vent again, or close it and cut a slit.")
            }
            Self::Slit(slit) => slit_said(slit, &name, outcome, to),
            Self::Near { near, up } => {
                let figures = format!("the new hem reaches {} above the present edge", to.show(*up));
                let (what, reason) = match near {
                    Near::Pocket(pocket) => (pocket.name(), "The bags of its pockets end about there, and are caught in the hem."),
                    Near::Zip(_) => ("zip", "The zip ends about there, and is caught in the hem."),
                    Near::Knee => ("knee", "What is patched or padded at the knee lies there."),
                };
                Said::new(format!("The {what} above the {name}"), figures, reason)
                    .mended(outcome, || "Look how far it reaches before anything is cut; shorten it first.")
            }
            Self::Wider { before, after, per_edge, seams, to: level } => {
                let figures = format!(
                    "{} round now, {} at the new edge: {} wider",
                    to.bare(*before),
                    to.bare(*after),
                    to.show(*after - *before)
                );
                let names: Vec<&str> = seams.iter().map(|seam| seam.name()).collect();
                let reason = match outcome {
                    Outcome::Passes => "So little is not seen.",
                    Outcome::Caution | Outcome::Stop => "A shortened taper flaps where it was narrow.",
                };
                Said::new(format!("Opening of the {name}"), figures, reason).mended(outcome, || {
                    let taper = format!(
                        "{} per edge at the {}, to nothing at the {}",
                        to.show(*per_edge),
                        names.join(" and the "),
                        level.name()
                    );
                    match to.mends {
                        true => format!("Taper it again: {taper}."),
                        false => "Taper it again at its seams, or leave it wider.".into(),
                    }
                })
            }
            Self::Drops => {
                let reason = "Cut on the bias or in a circle, an edge drops while it hangs, and not evenly.";
                Said::new(format!("Hang of the {name}"), "bias or circle", reason)
                    .mended(outcome, || "Let it hang for a day and a night, then mark it anew from the floor.")
            }
            Self::Beneath => {
                let reason = "What carries it lifts its edge: it is marked over that, and measured on a hanger, from the waist down.";
                Said::new(format!("Beneath the {name}"), "over a petticoat or a hoop", reason)
            }
            Self::TakenAbove { at, off, excess, has, moves } => {
                let wider = excess.filter(|excess| *excess > Length::ZERO);
                let figures = match wider {
                    Some(wider) => format!("{}: {} wider there than the waist", off_words(*off, to), to.show(wider)),
                    None => off_words(*off, to),
                };
                let reason = match (has, at) {
                    (Some(has), _) => format!("Its seam has {} to let down.", to.show(*has)),
                    (None, ShortenedAt::Cap) => {
                        "The sleeve is taken out and its cap cut anew, a much bigger job; what closes its edge stays.".into()
                    }
                    (None, _) => {
                        let mut moving = vec!["the lining apart"];
                        moving.extend(moves.zip.then_some("the zip moves"));
                        moving.extend(moves.pockets.then_some("pockets move"));
                        format!("The edge stays; {}.", moving.join(", "))
                    }
                };
                Said::new(format!("Length of the {name}, {}", at.name()), figures, reason).mended(outcome, || {
                    match (has, wider) {
                        (Some(_), _) => "Let it down at the edge, or set in a yoke or a band.",
                        (None, Some(_)) => "Take what is too wide out in darts and seams, each as a change of its own, until the waist measures what it did.",
                        (None, None) => "Baste it and try it on before anything is cut.",
                    }
                })
            }
            Self::Crossed { hem, most } => {
                let (seam, name) = (name, ChangeKey::Hem(*hem).name(to.garment));
                let figures = format!("the {seam} moves by up to {} per edge at this edge", to.show(*most));
                let reason = "The seam is sewn first: the hem goes across it, and its allowance mirrors the new line.";
                Said::new(format!("The {seam} and the {name}"), figures, reason)
            }
            Self::Lining(lining) => lining.said(key, outcome, to, &name),
        }
    }
}

fn cloth(sums: &HemSums, name: &str, outcome: Outcome, to: &Teller<'_>) -> Said {
    let title = format!("Cloth for the {name}");
    if sums.is_gone {
        let reason = "That is all there is of it, or more.";
        return Said::new(title, off_words(sums.off[1], to), reason)
            .mended(outcome, || "Mark it again: a tape that slipped reads so.");
    }
    if let Some(KeptEdge { tuck, .. }) = sums.kept {
        let figures =
            format!("nothing is cut; {} folded away in a tuck {} deep", to.show(sums.off[1]), to.show(tuck));
        return Said::new(title, figures, "The edge stays.");
    }
    if sums.turn == HemTurn::Kept {
        let figures = off_words(sums.off[0], to);
        let reason = "An edge that stays can only be taken up: what is too long is folded away behind it.";
        return Said::new(title, figures, reason).mended(outcome, || match to.mends {
            true => "Turn it another way.",
            false => "Take something off, or turn it another way.",
        });
    }
    let reason = match (sums.short(), sums.regimes[0]) {
        (Some((_, deepest)), _) if deepest > Length::ZERO => {
            format!("{} are left to turn up.", to.show(deepest))
        }
        (Some(_), _) => "There is no cloth there at all.".into(),
        (None, Regime::AboveOldFold { falls_away: true, .. }) => "The old hem falls away with it.".into(),
        (None, _) => "The old hem is unpicked and pressed out first.".into(),
    };
    Said::new(title, balance(sums, to), reason).mended(outcome, || {
        let (_, deepest) = sums.short().unwrap_or_default();
        match to.mends {
            true => "Turn it narrower: there is cloth for that.".to_owned(),
            false if deepest >= super::regime::FACED.on(to.tape) => {
                format!("Sew on a facing at {}, or take less off.", to.show(deepest))
            }
            false => "Let it down less, or set on a band.".into(),
        }
    })
}

fn slit_said(slit: &SlitSums, name: &str, outcome: Outcome, to: &Teller<'_>) -> Said {
    let wide = match slit.width {
        Length::ZERO => String::new(),
        width => format!(", {} wide there", to.show(width)),
    };
    let figures = format!("{}: {} up from the new edge{wide}", slit.at.name(), to.show(slit.height));
    let reason = match (slit.lacks_dart, slit.at_most, slit.is_lined) {
        (true, ..) => "No such dart is known.",
        (_, Some(_), _) => "So high it shows what is worn beneath when sitting.",
        (.., true) => "The lining has to open there as well: the slit is no wider than that allows.",
        _ => "Widest at the edge, a point at its top.",
    };
    Said::new(format!("Slit in the {name}"), figures, reason).mended(outcome, || match slit.at_most {
        _ if slit.lacks_dart => "Enter the darts in the look-over, or put it elsewhere.".to_owned(),
        Some(most) if to.mends => format!("Let it go {} up.", to.show(most)),
        _ if slit.is_lined => "Slit the lining as high, and turn its edges away from the opening.".into(),
        _ => "Let it end lower.".into(),
    })
}

impl LiningHem {
    /// `its fold 1.0 above the outer’s, 1.0 of slack along it, 2.0 cm for its own turns`.
    pub(super) fn words(self, to: &Teller<'_>) -> String {
        let above = match self.above {
            above if above.is_negative() => format!("its fold {} below the outer’s", to.show(-above)),
            above => format!("its fold {} above the outer’s", to.show(above)),
        };
        let slack = match self.is_free {
            true => "hanging free".into(),
            false => format!("{} of slack along it", to.show(self.slack)),
        };
        format!("{above}, {slack}, {} for its own turns", to.show(self.turn))
    }

    /// How long the lining of a sleeve is cut: as long as the outer will be, less what it stays above, with its turns and slack.
    pub(super) fn cut_words(self, to: &Teller<'_>) -> Option<String> {
        let sleeve = self.sleeve?;
        let off = if self.off.is_negative() { "+" } else { "−" };
        Some(format!(
            "cut it {} {off} {} − {} + {} + {} = {} long from the shoulder tip",
            to.bare(sleeve),
            to.bare(self.off.abs()),
            to.bare(self.above),
            to.bare(self.turn),
            to.bare(self.slack),
            to.show(sleeve - self.off - self.above + self.turn + self.slack)
        ))
    }

    fn said(self, key: &FindingKey, outcome: Outcome, to: &Teller<'_>, name: &str) -> Said {
        let cut = self.cut_words(to).map_or_else(String::new, |cut| format!("; {cut}"));
        let opens = self.opens.map_or("not looked at yet where it opens", LiningOpens::name);
        let reason = match self.against {
            Some(Against::HangsOut) => "It would be longer than the outer and hang out below it.".into(),
            Some(Against::Pulls) => "Without slack it pulls the outer up.".into(),
            Some(Against::TooShort) => "So short it lets the outer’s inside be seen.".into(),
            None => {
                format!("Too short it pulls the outer up, too long it hangs out; the lining opens {opens}.")
            }
        };
        let of_sleeve = matches!(key.change, Some(ChangeKey::Hem(HemEdge::Sleeve)));
        Said::new(format!("Lining and {name}"), self.words(to) + &cut, reason).mended(outcome, || {
            let words = capital(&off_words(self.off, to));
            match (self.against, of_sleeve) {
                (Some(Against::HangsOut), _) => "Let its fold end above the outer’s.".to_owned(),
                (Some(Against::Pulls), _) => "Give it slack along its length.".into(),
                (Some(Against::TooShort), _) => "Let its fold end nearer to the outer’s.".into(),
                (None, true) => {
                    format!("{words} of the lining as well; baste it, try it on, then slip-stitch.")
                }
                (None, false) => {
                    format!("{words} of the lining as well, and look at both hanging before it is stitched.")
                }
            }
        })
    }
}

/// How it is turned, in words of the hand.
pub(super) const fn stitched(turn: HemTurn, is_lined: bool, by_hand: bool) -> &'static str {
    match (turn, by_hand) {
        (HemTurn::SingleFinished, true) if is_lined => {
            "Fold it up once and catch it down by hand, shallow, not through to the outside."
        }
        (HemTurn::NarrowDouble | HemTurn::Double | HemTurn::Deep | HemTurn::Rolled, false) => {
            "Fold the inner turn, then the outer; stitch close to the upper fold."
        }
        (HemTurn::NarrowDouble | HemTurn::Double | HemTurn::Deep | HemTurn::Rolled, true) => {
            "Fold the inner turn, then the outer; slip-stitch along the upper fold."
        }
        (HemTurn::SingleFinished, false) => {
            "Finish the raw edge, fold it up once, and stitch below the finished edge."
        }
        (HemTurn::SingleFinished, true) => {
            "Finish the raw edge, fold it up once, and slip-stitch behind the finished edge."
        }
        (HemTurn::Blind, true) => "Fold the edge in and the hem up; slip-stitch shallow, 1 cm apart at most.",
        (HemTurn::Blind, false) => {
            "Fold the edge in and the hem up; fold it back under the needle and stitch it blind by machine."
        }
        (HemTurn::Faced, _) => {
            "Sew the facing on along the fold, turn it inside, and catch its upper edge down."
        }
        (HemTurn::Bound, _) => "Bind the raw edge all round.",
        (HemTurn::Coverstitched, false) => {
            "Fold it up once and stitch two rows from the right side; trim close above them."
        }
        (HemTurn::Coverstitched, true) => {
            "Fold it up once and catch it down by hand with stitches that give."
        }
        (HemTurn::Fused, _) => "Fold it up once over fusible web and press, without sliding the iron.",
        (HemTurn::Cuff, _) => "Fold it up inside, then outside, and catch it at the seams.",
        (HemTurn::Band, _) => "Sew the band on, right sides together.",
        (HemTurn::Kept, _) => "Stitch both lines together right against the edge that stays.",
    }
}
