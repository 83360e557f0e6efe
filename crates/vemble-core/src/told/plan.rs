//! Tasks, gates, evenings and ways out, in words.

use super::{Teller, capital};
use crate::change::ChangeKey;
use crate::fitting::GarmentSide;
use crate::garment::{Garment, HemEdge};
use crate::plan::{Minutes, PIECE, Settings, Simpler, Stretch, Supply, Task, Thing, WayOut, WhyNot};
use crate::work::{Money, Step, SupplyKind, TaskKey, TaskOf, Unit, Wishes};

/// A leg or sleeve of a pair: "left leg".
fn one_of(change: ChangeKey, side: GarmentSide) -> String {
    let limb = match change {
        ChangeKey::Hem(HemEdge::Sleeve) | ChangeKey::Armhole(_) => "sleeve",
        ChangeKey::Hem(HemEdge::Leg | HemEdge::Body)
        | ChangeKey::Seam(_)
        | ChangeKey::Dart(_)
        | ChangeKey::Elastic(_)
        | ChangeKey::Spacing(_)
        | ChangeKey::Trunk(_)
        | ChangeKey::Gathers(_) => "leg",
    };
    format!("{} {limb}", side.name())
}

/// What is done to the whole garment; nothing of what is called as its step is.
const fn whole_words(step: Step) -> Option<&'static str> {
    Some(match step {
        Step::TryBasted => "Try it on, basted",
        Step::TryStitched => "Try it on before anything is cut",
        Step::FinalPress => "Press all of it",
        Step::FinalTryOn => "Try it on, finished",
        Step::EnterRecord => "Write down what was done",
        Step::Wash
        | Step::OpenUp
        | Step::Unpick
        | Step::Hang
        | Step::Chalk
        | Step::ThreadTrace
        | Step::Baste
        | Step::Stitch
        | Step::TakeOut
        | Step::Cut
        | Step::Finish
        | Step::Press
        | Step::PutBack
        | Step::LineIt
        | Step::Own => return None,
    })
}

/// What a task is called: "Stitch the outseam", "Cut the hem, left leg". Own tasks are called as they were written.
pub(crate) fn title(key: TaskKey, garment: &Garment, wishes: &Wishes) -> String {
    let step = key.step;
    let (of, side) = match key.of {
        TaskOf::Own(id) => {
            let own = wishes.own.iter().find(|own| own.id == id);
            return own.map_or_else(|| capital(step.name()), |own| own.title.clone());
        }
        TaskOf::Garment => {
            if let Some(words) = whole_words(step) {
                return words.into();
            }
            return capital(step.name());
        }
        TaskOf::Change(change, side) => (change, side),
    };
    // Of a pair of hems one is spoken of.
    let name = match of.name(garment) {
        both if side.is_some() && both.ends_with("hems") => both[..both.len() - 1].to_owned(),
        name => name,
    };
    let is_hem = matches!(of, ChangeKey::Hem(_));
    let words = match (of, step) {
        (ChangeKey::Elastic(_), Step::Baste) => "Draw the elastic in and pin it".into(),
        (ChangeKey::Elastic(_), Step::OpenUp) => "Open two slits for the elastic".into(),
        (ChangeKey::Elastic(_), Step::Stitch) => "Sew the ends of the elastic down".into(),
        (ChangeKey::Elastic(_), Step::PutBack) => "Close the slits".into(),
        (ChangeKey::Spacing(_), Step::Unpick) => format!("Take off the {name}"),
        (ChangeKey::Spacing(_), Step::Chalk) => format!("Mark the {name}"),
        (ChangeKey::Spacing(_), Step::Stitch) => "Work the buttonholes".into(),
        (ChangeKey::Spacing(_), Step::Cut) => format!("Open the holes: {name}"),
        (ChangeKey::Spacing(_), Step::PutBack) => format!("Sew on the {name}"),
        (_, Step::OpenUp) => format!("Open what lies over the {name}"),
        (_, Step::Unpick) => format!("Unpick the {name}"),
        (_, Step::Chalk) => format!("Chalk the {name}"),
        (_, Step::ThreadTrace) => format!("Thread-trace the {name}"),
        (_, Step::Baste) if is_hem => format!("Turn up and baste the {name}"),
        (_, Step::Baste) => format!("Baste the {name}"),
        (_, Step::TryBasted | Step::TryStitched) => format!("Try it on: {name}"),
        (_, Step::Stitch) => format!("Stitch the {name}"),
        (_, Step::TakeOut) => format!("Take out the old stitching: {name}"),
        (_, Step::Cut) if is_hem => format!("Cut the {name}"),
        (_, Step::Cut) => format!("Trim the {name}"),
        (_, Step::Finish) => format!("Finish the edges: {name}"),
        (_, Step::Press) => format!("Press the {name}"),
        (_, Step::PutBack) => format!("Put back what was opened: {name}"),
        (_, Step::Hang) => "Let it hang, a day and a night".into(),
        (_, Step::LineIt) => format!("Hem the lining: {name}"),
        (_, Step::Wash | Step::FinalPress | Step::FinalTryOn | Step::EnterRecord | Step::Own) => {
            capital(step.name())
        }
    };
    side.map_or(words.clone(), |side| format!("{words}, {}", one_of(of, side)))
}

/// "about 9 min (6 to 14)".
pub(crate) fn minutes_words(minutes: Minutes) -> String {
    let Minutes { least, likely, most } = minutes;
    if least == most {
        format!("about {likely} min")
    } else {
        format!("about {likely} min ({least} to {most})")
    }
}

/// "1 h 25 min", "40 min".
pub(crate) fn long_words(minutes: u32) -> String {
    match (minutes / 60, minutes % 60) {
        (0, minutes) => format!("{minutes} min"),
        (hours, 0) => format!("{hours} h"),
        (hours, minutes) => format!("{hours} h {minutes} min"),
    }
}

/// "2 × 62.0 cm = 124.0 cm".
pub(crate) fn along_words(along: Stretch, to: &Teller<'_>) -> String {
    match along.times {
        1 => to.show(along.each),
        times => format!("{times} × {} = {}", to.bare(along.each), to.show(along.whole())),
    }
}

/// What is opened or put back, as this garment calls it.
pub(crate) fn thing_words(garment: &Garment, thing: Thing) -> String {
    let name = |seam| ChangeKey::Seam(seam).name(garment);
    match thing {
        Thing::Band => "the waistband there".into(),
        Thing::LoopAndLabel => "belt loop and label".into(),
        Thing::Closure(closure) => format!("the {}", closure.name()),
        Thing::Pockets(pocket) => format!("the {}", pocket.name()),
        Thing::Topstitching => "the topstitching".into(),
        Thing::Crossing(seam) => format!("the {} where it crosses", name(seam)),
        Thing::Hem => "the hem there".into(),
        Thing::Lining => "the lining".into(),
        Thing::Itself(seam) => format!("the {} itself, as far as the panel goes", name(seam)),
        Thing::Named => "what is named in the look-over".into(),
    }
}

/// How things are set: what, and how.
pub(crate) fn settings_words(settings: &Settings) -> Vec<(&'static str, String)> {
    let mut all = Vec::new();
    if let Some((stitch, [short, long])) = settings.stitch {
        let mm = |tenths: u8| format!("{}.{}", tenths / 10, tenths % 10);
        let length = if short == long { mm(short) } else { format!("{} to {}", mm(short), mm(long)) };
        let number = stitch.iso_4915().map_or_else(String::new, |iso| format!(" (ISO 4915: {iso})"));
        all.push(("stitch", format!("{}{number}, {length} mm", stitch.name())));
    }
    if let Some(([fine, thick], point)) = settings.needle {
        let size = if fine == thick { fine.to_string() } else { format!("{fine} to {thick}") };
        all.push(("needle", format!("{size}, {}", point.name())));
    }
    all.extend(settings.thread.map(|thread| ("thread", thread.name().to_owned())));
    all.extend(settings.foot.map(|foot| ("foot", foot.name().to_owned())));
    all.extend(settings.iron.map(|iron| ("iron", iron.name().to_owned())));
    all
}

/// "3.4 m", "7 pieces".
pub(crate) fn amount_words(kind: SupplyKind, amount: u32) -> String {
    match kind.unit() {
        Unit::Metres => {
            let tenths = amount.div_ceil(10);
            format!("{}.{} m", tenths / 10, tenths % 10)
        }
        Unit::Pieces if amount == 1 => "1 piece".into(),
        Unit::Pieces => format!("{amount} pieces"),
    }
}

/// "sewing thread, 3.4 m".
pub(crate) fn supply_words(supply: &Supply) -> String {
    let which = if supply.which.is_empty() { String::new() } else { format!(", {}", supply.which) };
    format!("{}{which}, {}", supply.kind.name(), amount_words(supply.kind, supply.amount))
}

/// "12.50 GBP".
pub(crate) fn money_words(money: Money, currency: &str) -> String {
    let sign = if money.0 < 0 { "−" } else { "" };
    format!("{sign}{}.{:02} {currency}", money.0.abs() / 100, money.0.abs() % 100)
}

/// Why a task has no place.
pub(crate) fn why_not_words(why: WhyNot, garment: &Garment, wishes: &Wishes) -> String {
    match why {
        WhyNot::NoEvenings => "there are no evenings".into(),
        WhyNot::LongerThanAny(longest) => {
            format!("it is done in one go, and the longest evening has {}", long_words(longest))
        }
        WhyNot::NoPieceFits(longest) => {
            format!(
                "a piece of it takes {PIECE} min at least, and the longest evening has {}",
                long_words(longest)
            )
        }
        WhyNot::NobodyHelps => "it needs help, and nobody is there on any evening".into(),
        WhyNot::NoTimeLeft => "every evening is full".into(),
        WhyNot::After(task) => {
            format!("it comes after “{}”, which has no place", title(task, garment, wishes))
        }
    }
}

/// A way out, as something to do; garments by their names, evenings by how they are called.
pub(crate) fn way_words(way: &WayOut, garment: &Garment, evening: &str) -> String {
    let name = &garment.name;
    match way {
        WayOut::Drop { change, .. } => {
            format!("Leave the {} of the {name} for another time", change.name(garment))
        }
        WayOut::Simplify { by: Simpler::HemsByMachine, .. } => format!("Hem the {name} by machine"),
        WayOut::Simplify { by: Simpler::NothingTrimmed, .. } => {
            format!("Trim nothing of the {name}: all of it stays inside, and lets out again")
        }
        WayOut::Another { minutes, .. } => {
            format!("Sew one more evening, {evening}, {}", long_words(*minutes))
        }
        WayOut::AskForHelp { .. } => format!("Ask somebody to help on {evening}"),
        WayOut::Later { .. } => format!("Leave the {name} for another time"),
    }
}

/// What a task is about besides its title: what is opened, how long the edge is, what is used.
pub(crate) fn about_words(task: &Task, to: &Teller<'_>) -> Vec<String> {
    let mut all = Vec::new();
    if !task.things.is_empty() {
        let things: Vec<String> = task.things.iter().map(|thing| thing_words(to.garment, *thing)).collect();
        all.push(capital(&things.join(", ")));
    }
    all.extend(task.along.map(|along| along_words(along, to)));
    all
}
