//! Partners: what is sewn to an altered edge still fits it. Front and back of the seam itself, sleeve and armhole, band and waist,
//! lining and outer.

use super::{Check, Outcome, Rule, Subject};
use crate::fitting::GarmentSide;
use crate::garment::{Level, Lined, Run, Seam};
use crate::length::{Length, Station};
use crate::line::{AlteredSeam, EDGES_MAY_DIFFER, End, StitchingLine, edge_lengths};

pub(super) fn checks(subject: &Subject<'_>) -> Vec<Check> {
    let mut all = Vec::new();
    for (seam, line, side) in subject.lines() {
        all.extend(edges(subject, seam, side));
        all.extend(under_the_arm(subject, seam, line, side));
        all.extend(band(subject, seam, line, side));
    }
    all.extend(lining(subject));
    all
}

/// The two edges of one seam, along the real edges.
fn edges(subject: &Subject<'_>, seam: &AlteredSeam<'_>, side: &'static str) -> Option<Check> {
    let of = if side.ends_with("right") { GarmentSide::Right } else { GarmentSide::Left };
    let lengths = edge_lengths(subject.garment, seam, of)?;
    let apart = lengths.mismatch();
    let [one, other] = seam.facts.seam.edges();
    let longer = if apart.is_negative() { other } else { one };
    let figures = format!(
        "{one} edge {}, {other} edge {}: {} apart (old stitching {})",
        subject.tape.bare(lengths.front),
        subject.show(lengths.back),
        subject.show(apart.abs()),
        subject.show(lengths.old)
    );
    let (outcome, reason) = match apart.abs() {
        by if by <= EDGES_MAY_DIFFER => {
            (Outcome::Passes, format!("Up to {} need nothing.", subject.show(EDGES_MAY_DIFFER)))
        }
        _ if lengths.eases_in() => (Outcome::Passes, format!("Up to 1 %: ease the {longer} edge in.")),
        _ => (Outcome::Caution, "More than eases in.".into()),
    };
    let title = format!("Edges of the {}, {side}", seam.facts.name());
    let check = Check::new(outcome, Rule::Partners, title, figures, reason);
    let remedy = || {
        format!(
            "Trim {} off the {longer} edge at the {}, redraw it, or gather it {:.2} to 1.",
            subject.show(apart.abs()),
            seam.facts.seam.datum(),
            lengths.front.max(lengths.back).cm() / lengths.front.min(lengths.back).cm()
        )
    };
    Some(check.remedy(remedy).at(seam.facts.seam, seam.line(of).span()?.0, subject.tape))
}

/// A side seam that runs off under the arm makes the armhole smaller by twice its offset; a sleeve that stays no longer fits.
fn under_the_arm(
    subject: &Subject<'_>,
    seam: &AlteredSeam<'_>,
    line: &StitchingLine,
    side: &str,
) -> Option<Check> {
    let into = seam.facts.seam.goes_on_into()?;
    if !matches!(seam.facts.seam, Seam::SideSeam) || subject.garment.top_of(Seam::SideSeam) == "waist" {
        return None;
    }
    let top = Station(seam.facts.length.length);
    let whole = line.whole(top).0;
    if whole.abs() < Length::from_nm(100_000) {
        return None;
    }
    let sleeve = subject.garment.seam(into)?;
    let changes = if whole.is_negative() { "grow" } else { "shrink" };
    let partner = subject.seams.iter().find(|s| s.facts.seam == into);
    let of = if side.ends_with("right") { GarmentSide::Right } else { GarmentSide::Left };
    let of_sleeve = partner.map_or(Length::ZERO, |s| s.line(of).whole(Station(sleeve.length.length)).0);
    let figures = format!(
        "the armhole {changes}s by {}; the sleeve by {}",
        line.at(top).without_sign().sum(1, seam.facts.seam.edges(), subject.tape),
        subject.show(of_sleeve.abs())
    );
    let fits = (whole - of_sleeve).abs() <= EDGES_MAY_DIFFER;
    let (outcome, reason) = match fits {
        true => (Outcome::Passes, "Armhole and sleeve change together: they still fit each other."),
        false => (Outcome::Caution, "The sleeve no longer fits its armhole."),
    };
    let title = format!("Sleeve and armhole, {side}");
    let check = Check::new(outcome, Rule::Partners, title, figures, reason);
    let remedy =
        "Let the line carry on into the sleeve seam in one pass, or meet the old stitching below the arm.";
    Some(check.remedy(|| remedy).at(Seam::SideSeam, top, subject.tape))
}

/// A line that goes through or off the waist changes the band, or what stands in its place, by as much.
fn band(subject: &Subject<'_>, seam: &AlteredSeam<'_>, line: &StitchingLine, side: &str) -> Option<Check> {
    let garment = subject.garment;
    if seam.facts.seam.run() != Run::Down
        || garment.span_of(seam.facts.seam).1 != Level::Waist
        || matches!(seam.ends.upper, End::MeetsOldStitching { .. })
    {
        return None;
    }
    let top = Station(seam.facts.length.length);
    let whole = line.whole(top).0;
    if whole.abs() < Length::from_nm(100_000) {
        return None;
    }
    let seams = if seam.facts.seam.is_single() || !seam.sides_agree() { 1 } else { 2 };
    let does = if whole.is_negative() { "longer" } else { "shorter" };
    let figures =
        format!("{} {does}", line.at(top).without_sign().sum(seams, seam.facts.seam.edges(), subject.tape));
    let title = format!("Waistband and {}, {side}", seam.facts.name());
    let reason = "The line goes through the waist: band and facing change by as much.";
    let how = match garment.found.band {
        Some(crate::garment::Band::CentreBackSeam) if seam.facts.seam.is_single() => {
            "Open the band's own seam and resew it in one pass with this one."
        }
        Some(crate::garment::Band::Separate) => {
            "Open outer and inner band there; cut and rejoin the inner one, or fold it."
        }
        _ => {
            "Cut the band there: sew the short level seams first, then the upright one in one pass, allowances open."
        }
    };
    let check = Check::new(Outcome::Caution, Rule::Partners, title, figures, reason).remedy(|| how);
    Some(check.at(seam.facts.seam, top, subject.tape))
}

/// A lining is taken in with its outer; let out only as far as it has allowance of its own.
fn lining(subject: &Subject<'_>) -> Option<Check> {
    let lined = subject.garment.found.lined.filter(|l| *l != Lined::No)?;
    let seam = subject.seams.iter().find(|s| s.span().is_some())?;
    let most = subject.lines().filter_map(|(s, line, _)| {
        let (from, to) = s.span()?;
        Some(line.deepest_between(from, to))
    });
    let figures = format!("up to {} per edge on the outer", subject.show(most.max()?));
    let opens = subject.garment.found.lining_opens.map_or("not looked at yet where it opens", |o| o.name());
    let reason = format!("It is {}; the lining opens {opens}.", lined.name());
    let title = format!("Lining and {}", seam.facts.name());
    let check = Check::new(Outcome::Caution, Rule::Partners, title, figures, reason);
    Some(
        check.remedy(
            || "Take the same off the lining's seam, a little less: it must never be the tighter one.",
        ),
    )
}
