//! What is to be done for gathers and pleats.

use super::GatheredEdge;
use crate::change::ChangeKey;
use crate::garment::GatherHow;
use crate::plan::{HasTasks, Place, Settings, Stretch, Task, TasksOf, Tool, Undone, key, thread};
use crate::work::Step;

/// Setting up a seam, and pressing it: minutes; a pleat marked and folded: minutes (teaching values).
const SET_UP: u32 = 5;
const PRESS: u32 = 8;
const PLEAT: u32 = 2;
const QUARTERS: u32 = 4;

impl HasTasks for GatheredEdge<'_> {
    fn tasks(&self, of: &TasksOf<'_>) -> Vec<Task> {
        let Some(sums) = self.sums(of.subject) else { return Vec::new() };
        let (change, cloth) = (ChangeKey::Gathers(self.key()), of.cloth());
        let [long, short] = [sums.long, sums.short].map(|each| Stretch { times: 1, each });
        let marks = match sums.how {
            GatherHow::Gathers => QUARTERS,
            GatherHow::KnifePleats | GatherHow::BoxPleats => PLEAT * sums.pleats.len() as u32,
        };
        let chalk =
            Task::new(key(Step::Chalk, change), Place::Table, marks.max(1)).along(long).with(&[Tool::Chalk]);
        // Two long rows where it is gathered, one across the folds where it is pleated.
        let rows = Stretch { times: if sums.how == GatherHow::Gathers { 2 } else { 1 }, each: sums.long };
        let mut baste =
            Task::new(key(Step::Baste, change), Place::Machine, rows.minutes(1) + marks).along(rows);
        baste.settings = Settings::basting(cloth, false);
        baste.supplies.extend(thread(&baste.settings, rows));
        let mut stitch =
            Task::new(key(Step::Stitch, change), Place::Machine, short.minutes(2) + SET_UP).along(short);
        stitch.settings = Settings::seam(cloth);
        stitch.supplies.extend(thread(&stitch.settings, short));
        stitch.undone = Undone::ByUnpicking;
        let mut press = Task::new(key(Step::Press, change), Place::Iron, PRESS).along(short);
        press.settings = Settings::iron(cloth);
        vec![
            chalk,
            baste.with(&[Tool::Pins]),
            stitch.with(&[Tool::SewingMachine]),
            press.with(&[Tool::IronAndBoard]),
        ]
    }
}
