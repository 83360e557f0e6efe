//! What is to be done for fastenings that are spaced anew.

use super::SpacedFastenings;
use crate::change::ChangeKey;
use crate::garment::Closure;
use crate::plan::{Foot, HasTasks, Place, Settings, Supply, Task, TasksOf, Tool, Undone, key};
use crate::work::{Step, SupplyKind};

/// For each: taken off, marked on both edges, a buttonhole, cut open, sewn on, an eyelet: minutes (teaching values).
const TAKEN_OFF: u32 = 2;
const MARKED: u32 = 1;
const BUTTONHOLE: u32 = 4;
const CUT_OPEN: u32 = 1;
const SEWN_ON: u32 = 4;
const EYELET: u32 = 3;

impl HasTasks for SpacedFastenings<'_> {
    fn tasks(&self, of: &TasksOf<'_>) -> Vec<Task> {
        let count = self.sums(of.subject).map_or(0, |sums| sums.placed().len() as u32);
        if count == 0 {
            return Vec::new();
        }
        let change = ChangeKey::Spacing(self.key());
        let task = |step, place, minutes: u32| Task::new(key(step, change), place, minutes * count);
        let mut tasks = vec![
            task(Step::Unpick, Place::Table, TAKEN_OFF).with(&[Tool::Ripper]),
            task(Step::Chalk, Place::Table, MARKED).with(&[Tool::Chalk]),
        ];
        let mut sewn_on = task(Step::PutBack, Place::Hand, SEWN_ON).with(&[Tool::Needle]);
        sewn_on.settings = Settings::hand();
        match self.closure {
            Closure::Lacing => {
                let mut set = task(Step::Cut, Place::Table, EYELET).with(&[Tool::Awl]).for_good();
                set.supplies.push(Supply::of(SupplyKind::Eyelets, count * 2));
                tasks.push(set);
            }
            Closure::Hooks => {
                sewn_on.supplies.push(Supply::of(SupplyKind::Hooks, count));
                tasks.push(sewn_on);
            }
            Closure::Buttons
            | Closure::Zip
            | Closure::InvisibleZip
            | Closure::Elastic
            | Closure::Wrap
            | Closure::Ties => {
                let mut holes = task(Step::Stitch, Place::Machine, BUTTONHOLE).with(&[Tool::SewingMachine]);
                holes.settings = Settings::seam(of.cloth()).under(Foot::Buttonhole);
                holes.undone = Undone::ByUnpicking;
                tasks.push(holes);
                tasks.push(task(Step::Cut, Place::Table, CUT_OPEN).with(&[Tool::Scissors]).for_good());
                let has = of
                    .subject
                    .garment
                    .closures
                    .iter()
                    .filter(|c| c.at == self.key())
                    .map(|c| u32::from(c.count));
                let more = count.saturating_sub(has.max().unwrap_or(0));
                if more > 0 {
                    sewn_on.supplies.push(Supply::of(SupplyKind::Buttons, more));
                }
                tasks.push(sewn_on);
            }
        }
        tasks
    }
}
