//! What is to be done for an altered seam.

use super::AlteredSeam;
use super::in_the_way::Thing as Found;
use crate::chalk::Way;
use crate::change::hem::Cutting;
use crate::change::{ChangeKey, Drawn};
use crate::garment::Lined;
use crate::plan::{HasTasks, Place, Settings, Stretch, Supply, Task, TasksOf, Thing, Tool, key, unpicked};
use crate::plan::{is_basted_by_hand, is_traced, put_back, thread};
use crate::work::{Step, SupplyKind};

/// Each seam takes so long to set up at the machine, and so long to press: minutes (teaching values of the handbook).
const SET_UP: u32 = 5;
const PRESS: u32 = 5;
/// Opening a lining: minutes.
const OPEN_LINING: u32 = 5;

impl HasTasks for AlteredSeam<'_> {
    fn tasks(&self, of: &TasksOf<'_>) -> Vec<Task> {
        let change = ChangeKey::Seam(self.key());
        let Some(along) = self.stretch(of).filter(|_| self.is_altered()) else { return Vec::new() };
        let (subject, cloth) = (of.subject, of.cloth());
        let rows = self.rows(subject.garment, subject.tape);
        let way = Way::of(&rows);
        let mut tasks = Vec::new();
        let (things, is_panel) = (self.things(of), self.change.set_in);
        // Either edge of a panel is sewn.
        let sewn = if is_panel { Stretch { times: along.times * 2, ..along } } else { along };
        let old = along.minutes(unpicked(self.facts));
        if !things.is_empty() {
            let lining = if things.contains(&Thing::Lining) { OPEN_LINING } else { 0 };
            let minutes = things.iter().map(|thing| thing.minutes()).sum::<u32>().div_ceil(2)
                + lining
                + if is_panel { old } else { 0 };
            let mut open =
                Task::new(key(Step::OpenUp, change), Place::Table, minutes.max(2)).with(&[Tool::Ripper]);
            open.things.clone_from(&things);
            tasks.push(open);
        }
        let mut chalk = Task::new(key(Step::Chalk, change), Place::Table, 2 * along.times + along.minutes(1));
        for (_, panel) in self.panels(subject.garment, &rows, subject.tape) {
            let cm = (panel.cut_long() * i64::from(panel.pieces)).cm().ceil() as u32;
            chalk.supplies.push(Supply::of(SupplyKind::PanelCloth, cm));
        }
        tasks.push(chalk.along(along).with(&[Tool::Chalk]));
        if is_traced(subject.garment.kind) && !is_panel {
            let mut trace =
                Task::new(key(Step::ThreadTrace, change), Place::Hand, along.minutes(3)).along(along);
            trace.settings = Settings::basting(cloth, true);
            trace.supplies.extend(thread(&trace.settings, along));
            tasks.push(trace.with(&[Tool::Needle]));
        }
        let by_hand = is_basted_by_hand(cloth);
        let (place, pace) = if by_hand { (Place::Hand, 3) } else { (Place::Machine, 1) };
        let mut baste = Task::new(key(Step::Baste, change), place, sewn.minutes(pace)).along(sewn);
        baste.settings = Settings::basting(cloth, by_hand);
        baste.supplies.extend(thread(&baste.settings, sewn));
        tasks.push(baste);
        if way != Way::In && !is_panel {
            tasks.push(
                Task::new(key(Step::Unpick, change), Place::Table, old).along(along).with(&[Tool::Ripper]),
            );
        }
        let mut stitch =
            Task::new(key(Step::Stitch, change), Place::Machine, sewn.minutes(1) + SET_UP * sewn.times)
                .along(sewn);
        stitch.settings = Settings::seam(cloth);
        stitch.supplies.extend(thread(&stitch.settings, sewn));
        stitch.undone = crate::plan::Undone::ByUnpicking;
        tasks.push(stitch.with(&[Tool::SewingMachine]));
        let out = sewn.minutes(1) + if way == Way::Out { 0 } else { old };
        tasks
            .push(Task::new(key(Step::TakeOut, change), Place::Table, out).along(sewn).with(&[Tool::Ripper]));
        if self.change.trim_to.is_some() && of.cutting() != Cutting::Never {
            let edges = Stretch { times: along.times * 2, ..along };
            let cut = Task::new(key(Step::Cut, change), Place::Table, edges.minutes(1)).along(edges);
            tasks.push(cut.with(&[Tool::Scissors]).for_good());
            tasks.push(finish(change, edges, of));
        } else if is_panel {
            tasks.push(finish(change, sewn, of));
        }
        let mut press = Task::new(key(Step::Press, change), Place::Iron, PRESS * sewn.times).along(sewn);
        press.settings = Settings::iron(cloth);
        tasks.push(press.with(&[Tool::IronAndBoard]));
        // The panel closes its own seam.
        let is_closed = |thing: &Thing| matches!(thing, Thing::Itself(_));
        if things.iter().any(|thing| !is_closed(thing)) {
            let back =
                things.into_iter().filter(|thing| *thing != Thing::Lining && !is_closed(thing)).collect();
            tasks.push(put_back(of, change, back));
        }
        tasks
    }
}

/// Finishing edges that were cut.
fn finish(change: ChangeKey, edges: Stretch, of: &TasksOf<'_>) -> Task {
    let mut finish = Task::new(key(Step::Finish, change), Place::Overlocker, edges.minutes(1)).along(edges);
    finish.settings = Settings::finish(of.cloth());
    finish.supplies.extend(thread(&finish.settings, edges));
    finish
}

impl AlteredSeam<'_> {
    /// How often it is sewn, and how long each stretch is at marks of the tape; nothing where nothing is.
    fn stretch(&self, of: &TasksOf<'_>) -> Option<Stretch> {
        let tape = of.subject.tape;
        let spans = self.lines.iter().filter_map(super::StitchingLine::span);
        let lengths = spans.map(|(from, to)| tape.round(to.0) - tape.round(from.0));
        let times = if self.facts.seam.has_sides() { lengths.clone().count() as u32 } else { 1 };
        Some(Stretch { times, each: lengths.max()? })
    }

    /// What is opened before it is chalked, and closed at the end.
    fn things(&self, of: &TasksOf<'_>) -> Vec<Thing> {
        let garment = of.subject.garment;
        let mut things = Vec::new();
        if self.change.set_in {
            things.push(Thing::Itself(self.key()));
        }
        if garment.found.lined == Some(Lined::Fully) {
            things.push(Thing::Lining);
        }
        if self.goes_through_the_waist(garment) && garment.has_band() {
            things.push(Thing::Band);
            if garment.belt_loops > 0 {
                things.push(Thing::LoopAndLabel);
            }
        }
        things.extend(self.things_to_open(garment).into_iter().map(|thing| match thing {
            Found::Closure(closure, _) => Thing::Closure(closure),
            Found::Pockets(pocket) => Thing::Pockets(pocket),
            Found::Topstitching => Thing::Topstitching,
            Found::Crossing(seam) => Thing::Crossing(seam),
            Found::Hem | Found::Edge(_) => Thing::Hem,
        }));
        if let Some((from, to)) = self.span()
            && self.facts.in_the_way.iter().any(|t| t.from.length < to.0 && t.to.length > from.0)
        {
            things.push(Thing::Named);
        }
        things
    }
}
