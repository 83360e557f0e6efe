//! What is to be done for elastic in a band.

use super::CasedElastic;
use crate::change::ChangeKey;
use crate::plan::{HasTasks, Place, Settings, Supply, Task, TasksOf, Tool, Undone, key};
use crate::work::{Step, SupplyKind};

/// Two slits, drawing it in, two ends, two slits closed: minutes (teaching values).
const MARK: u32 = 4;
const SLIT: u32 = 5;
const DRAW_IN: u32 = 10;
const SEW: u32 = 10;
const CLOSE: u32 = 8;

impl HasTasks for CasedElastic<'_> {
    fn tasks(&self, of: &TasksOf<'_>) -> Vec<Task> {
        let Some(sum) = self.sum_on(of.subject) else { return Vec::new() };
        let change = ChangeKey::Elastic(self.key());
        let task = |step, place, minutes| Task::new(key(step, change), place, minutes);
        let mut draw_in = task(Step::Baste, Place::Table, DRAW_IN).with(&[Tool::Bodkin, Tool::Pins]);
        draw_in.supplies.push(Supply::of(SupplyKind::Elastic, sum.cut.cm().ceil() as u32));
        let mut sew = task(Step::Stitch, Place::Machine, SEW).with(&[Tool::SewingMachine]);
        sew.settings = Settings::seam(of.cloth());
        sew.undone = Undone::ByUnpicking;
        let mut close = task(Step::PutBack, Place::Hand, CLOSE).with(&[Tool::Needle]);
        close.settings = Settings::hand();
        vec![
            task(Step::OpenUp, Place::Table, MARK + SLIT).with(&[Tool::Chalk, Tool::Ripper]),
            draw_in,
            sew,
            close,
        ]
    }
}
