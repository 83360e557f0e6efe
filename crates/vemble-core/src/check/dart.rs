//! Darts: not too deep for one fold, run out gently, and end short of what they shape.

use super::{Check, Outcome, Rule, Subject};
use crate::alteration::AlteredDart;
use crate::fitting::GarmentSide;
use crate::garment::Level;
use crate::length::{Length, Station};

/// Deeper than this one fold stands off: 1.9 cm (teaching value: three quarters of an inch).
const ONE_FOLD: Length = Length::from_mm(19);
/// A front dart ends at least so far from the bust point: 2.5 cm (teaching value: a point on the point shows).
const OFF_BUST: Length = Length::from_mm(25);

pub(super) fn checks(subject: &Subject<'_>) -> Vec<Check> {
    let mut all = Vec::new();
    for dart in subject.darts {
        all.extend(depth(subject, dart));
        all.extend(run_outs(subject, dart));
        all.extend(points(subject, dart));
        all.extend(let_out(subject, dart));
        all.extend(into_seam(subject, dart));
        all.extend(sides(subject, dart));
    }
    for check in &mut all {
        check.level.get_or_insert(Level::Waist);
    }
    all
}

/// The deeper of both sides, and where.
fn deepest(dart: &AlteredDart<'_>) -> Option<(Length, Station)> {
    let at = |side: GarmentSide| {
        let pins = dart.sides.pins[side as usize].iter().map(|p| p.station);
        pins.chain([Station(dart.length)]).map(move |s| (dart.depth(side, s), s))
    };
    GarmentSide::BOTH.into_iter().flat_map(at).max_by_key(|d| d.0)
}

fn check(dart: &AlteredDart<'_>, outcome: Outcome, title: String, figures: String, reason: String) -> Check {
    let mut check = Check::new(outcome, Rule::Dart, title, figures, reason);
    check.dart = Some(dart.dart());
    check
}

fn depth(subject: &Subject<'_>, dart: &AlteredDart<'_>) -> Option<Check> {
    let (deepest, _) = deepest(dart)?;
    let outcome = if deepest > ONE_FOLD { Outcome::Caution } else { Outcome::Passes };
    let figures = format!(
        "{} folded, {} taken by each, {} by the pair",
        subject.show(deepest),
        subject.show(deepest * 2),
        subject.show(deepest * 4)
    );
    let reason = match outcome {
        Outcome::Passes => format!("Up to {} one fold lies flat.", subject.show(ONE_FOLD)),
        _ => format!("Over {} one fold stands off.", subject.show(ONE_FOLD)),
    };
    let half = deepest.fraction(1, 2);
    let title = format!("Depth of the {}", dart.name());
    Some(
        check(dart, outcome, title, figures, reason)
            .remedy(|| format!("Split it in two, {} deep each.", subject.show(half))),
    )
}

/// Towards each point the fold runs out from the pin next to it.
fn run_outs(subject: &Subject<'_>, dart: &AlteredDart<'_>) -> Option<Check> {
    let safe = subject.garment.cloth.safe_run_out();
    let ends = |side: GarmentSide| {
        let pins = &dart.sides.pins[side as usize];
        let first = pins.first().map(|p| (p.station, p.station.0));
        let last = pins.last().filter(|_| dart.dart().has_two_points());
        let last = last.map(|p| (p.station, dart.length - p.station.0));
        first.into_iter().chain(last).map(move |(station, run)| (run, dart.depth(side, station)))
    };
    let steepest = GarmentSide::BOTH.into_iter().flat_map(ends).filter(|e| e.1 > Length::from_nm(50_000));
    let (run, depth) = steepest.min_by(|a, b| (a.0.cm() / a.1.cm()).total_cmp(&(b.0.cm() / b.1.cm())))?;
    let ratio = run.cm() / depth.cm();
    let (outcome, reason) = match ratio {
        r if r >= safe as f64 => (Outcome::Passes, format!("{safe} or more lies flat in this cloth.")),
        r if r * 2.0 >= safe as f64 => (Outcome::Caution, format!("Under {safe} it may poke at its point.")),
        _ => (Outcome::Stop, format!("Under {} it will poke at its point.", safe / 2)),
    };
    let [long, folded, times] = subject.tape.quotient(run, depth);
    let unit = subject.tape.unit_name();
    let figures = format!("{long} {unit} long ÷ {folded} {unit} folded = {times}");
    let wanted = (depth * safe).up_to(subject.tape.mark());
    let title = format!("Point of the {}", dart.name());
    Some(
        check(dart, outcome, title, figures, reason)
            .remedy(|| format!("Let the last stretch be {} long.", subject.show(wanted))),
    )
}

/// In front the point stays off the bust point; behind the lower one ends at the fullest hip or above it.
fn points(subject: &Subject<'_>, dart: &AlteredDart<'_>) -> Option<Check> {
    let level = if dart.dart().is_in_front() { Level::Bust } else { Level::Hip };
    let height = subject.garment.level(level)?.station.length;
    let (point, base) = (dart.point?, dart.base?);
    let title = format!("Where the {} ends", dart.name());
    let (outcome, figures, reason, remedy) = if level == Level::Bust {
        let away = height - point;
        let outcome = if away >= OFF_BUST { Outcome::Passes } else { Outcome::Caution };
        let figures = format!("its point lies {} below the bust line", subject.show(away));
        let reason = format!("{} or more below it the point does not show.", subject.show(OFF_BUST));
        let remedy = format!("Let it end {} above the hem.", subject.show(height - OFF_BUST));
        (outcome, figures, reason, remedy)
    } else {
        let free = if dart.dart().has_two_points() { base } else { point };
        // From a seam or edge below the hip upwards nothing ends free down there.
        if base < point && !dart.dart().has_two_points() {
            return None;
        }
        let outcome = if free >= height { Outcome::Passes } else { Outcome::Caution };
        let figures = format!(
            "its lower point lies {} above the hem, the fullest hip {}",
            subject.show(free),
            subject.show(height)
        );
        let reason = "Below the fullest hip a dart takes where the body is widest.".to_owned();
        (outcome, figures, reason, format!("Let it end {} above the hem.", subject.show(height)))
    };
    Some(check(dart, outcome, title, figures, reason).remedy(|| remedy))
}

fn let_out(subject: &Subject<'_>, dart: &AlteredDart<'_>) -> Option<Check> {
    let facts = dart.facts?;
    let gives = GarmentSide::BOTH.into_iter().any(|side| {
        dart.sides.pins[side as usize].iter().any(|p| dart.added(side, p.station) < -Length::from_nm(50_000))
    });
    let figures = format!("it is {} deep now", subject.show(facts.fold_depth.length));
    let shows = subject.garment.cloth.shows_holes;
    let outcome = if shows { Outcome::Caution } else { Outcome::Passes };
    let reason = match shows {
        true => "The old stitch holes and the fold stay visible in this cloth.",
        false => "The old line presses out.",
    };
    let title = format!("Letting out the {}", dart.name());
    gives.then(|| {
        check(dart, outcome, title, figures, reason.into())
            .remedy(|| "Try steam on a hidden place first, or cover the line with topstitching.")
    })
}

/// A dart that ends in a side seam which is altered there changes what the seam crosses.
fn into_seam(subject: &Subject<'_>, dart: &AlteredDart<'_>) -> Option<Check> {
    use crate::garment::{Dart, Seam};
    let (seam, level) = match dart.dart() {
        Dart::Bust => (Seam::SideSeam, Level::Bust),
        Dart::Shoulder => (Seam::ShoulderSeam, Level::Shoulder),
        _ => return None,
    };
    let altered = subject.seams.iter().find(|s| s.facts.seam == seam)?;
    let moves =
        GarmentSide::BOTH.map(|side| altered.line(side).span().map(|s| altered.line(side).deepest(s.1)));
    let most = moves.into_iter().flatten().max().filter(|m| *m > Length::from_nm(50_000))?;
    let figures =
        format!("the {} moves by up to {} per edge at that end", altered.facts.name(), subject.show(most));
    let reason = "The dart ends in an altered seam: what is cut off the seam shortens the dart.".to_owned();
    let title = format!("The {} and the {}", dart.name(), altered.facts.name());
    let mut found = check(dart, Outcome::Caution, title, figures, reason)
        .remedy(|| "Sew and press the dart first, then chalk the seam across its fold.");
    found.level = Some(level);
    Some(found)
}

fn sides(subject: &Subject<'_>, dart: &AlteredDart<'_>) -> Option<Check> {
    let (apart, station) = dart.sides.apart?;
    let title = format!("Left and right {}", dart.name());
    let figures = format!("{} apart, {} from the point", subject.show(apart), subject.show(station.0));
    let (outcome, reason) = match dart.sides.undecided {
        true => (Outcome::Stop, "The sides differ by more than pins wobble, and nobody has decided."),
        false if apart <= crate::line::AGREE_WITHIN => (Outcome::Passes, "No more than pins wobble."),
        false => (Outcome::Passes, "Decided by hand."),
    };
    let mut found = Check::new(outcome, Rule::Sides, title, figures, reason);
    found.dart = Some(dart.dart());
    Some(found.remedy(|| "Pin again, or choose the mean, the larger, the smaller or one side for both."))
}
