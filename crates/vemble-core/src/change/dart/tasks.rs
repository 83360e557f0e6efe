//! What is to be done for a pair of darts.

use super::AlteredDart;
use super::judge::Edge;
use crate::change::{ChangeKey, Drawn};
use crate::plan::{HasTasks, Place, Settings, Stretch, Task, TasksOf, Thing, Tool, key, put_back, thread};
use crate::plan::{Undone, is_basted_by_hand};
use crate::work::Step;

/// Each dart takes so long to set up, and to press over a ham: minutes (teaching values).
const SET_UP: u32 = 5;
const PRESS: u32 = 5;
/// Drawing its middle and folding it: minutes for each.
const FOLD: u32 = 3;

impl HasTasks for AlteredDart<'_> {
    fn tasks(&self, of: &TasksOf<'_>) -> Vec<Task> {
        if !self.is_altered() {
            return Vec::new();
        }
        let (change, cloth, tape) = (ChangeKey::Dart(self.key()), of.cloth(), of.subject.tape);
        let along = Stretch { times: 2, each: tape.round(self.length) };
        let mut tasks = Vec::new();
        let edge = self.edge_found(of.subject).map(|(edge, _)| match edge {
            Edge::Band(_) => Thing::Band,
            Edge::Of(seam, _) => Thing::Crossing(seam),
        });
        let mut things = Vec::new();
        if of.is_lined() {
            things.push(Thing::Lining);
        }
        things.extend(edge);
        if !things.is_empty() {
            let minutes = things.iter().map(|t| t.minutes()).sum::<u32>().div_ceil(2).max(5);
            let mut open = Task::new(key(Step::OpenUp, change), Place::Table, minutes).with(&[Tool::Ripper]);
            open.things.clone_from(&things);
            tasks.push(open);
        }
        let chalk = Task::new(key(Step::Chalk, change), Place::Table, FOLD * 2 + along.minutes(1));
        tasks.push(chalk.along(along).with(&[Tool::Chalk, Tool::Pins]));
        let by_hand = is_basted_by_hand(cloth);
        let (place, pace) = if by_hand { (Place::Hand, 3) } else { (Place::Machine, 1) };
        let mut baste = Task::new(key(Step::Baste, change), place, along.minutes(pace)).along(along);
        baste.settings = Settings::basting(cloth, by_hand);
        baste.supplies.extend(thread(&baste.settings, along));
        tasks.push(baste);
        let comes_apart = self.lets_out() || self.is_moved();
        if comes_apart {
            tasks.push(
                Task::new(key(Step::Unpick, change), Place::Table, along.minutes(3))
                    .along(along)
                    .with(&[Tool::Ripper]),
            );
        }
        let mut stitch =
            Task::new(key(Step::Stitch, change), Place::Machine, along.minutes(1) + SET_UP * 2).along(along);
        stitch.settings = Settings::seam(cloth);
        stitch.supplies.extend(thread(&stitch.settings, along));
        stitch.undone = Undone::ByUnpicking;
        tasks.push(stitch.with(&[Tool::SewingMachine]));
        let old = if self.facts.is_some() && !comes_apart { along.minutes(3) } else { 0 };
        tasks.push(
            Task::new(key(Step::TakeOut, change), Place::Table, along.minutes(1) + old)
                .along(along)
                .with(&[Tool::Ripper]),
        );
        let mut press = Task::new(key(Step::Press, change), Place::Iron, PRESS * 2).along(along);
        press.settings = Settings::iron(cloth);
        tasks.push(press.with(&[Tool::IronAndBoard, Tool::Ham]));
        if !things.is_empty() {
            tasks.push(put_back(of, change, edge.into_iter().collect()));
        }
        tasks
    }
}
