//! What is to be done for a length of the trunk.

use super::AlteredTrunk;
use super::input::TrunkAt;
use crate::change::{ChangeKey, Drawn};
use crate::garment::Seam;
use crate::plan::{
    HasTasks, Place, Settings, Stretch, Task, TasksOf, Thing, Tool, Undone, is_basted_by_hand, key, put_back,
    thread, unpicked,
};
use crate::work::Step;

/// Setting it up at the machine with what opens there, and pressing it: minutes (teaching values).
const SET_UP: u32 = 10;
const PRESS: u32 = 8;
/// An edge whose stitching nobody looked at takes so many minutes for 10 cm to unpick: lockstitch (teaching value of the handbook).
const LOCKSTITCH: u32 = 3;
const OPEN_LINING: u32 = 5;

impl HasTasks for AlteredTrunk<'_> {
    fn tasks(&self, of: &TasksOf<'_>) -> Vec<Task> {
        if !self.is_altered() {
            return Vec::new();
        }
        let (subject, cloth) = (of.subject, of.cloth());
        let change = ChangeKey::Trunk(self.key());
        let along = Stretch { times: 1, each: self.waist.on(subject.tape) };
        let seam = subject.garment.seam(Seam::WaistSeam).filter(|_| self.key() == TrunkAt::AboveWaist);
        let pace = seam.map_or(LOCKSTITCH, unpicked);
        let mut tasks = Vec::new();
        if of.is_lined() {
            let mut open = Task::new(key(Step::OpenUp, change), Place::Table, OPEN_LINING);
            open.things = vec![Thing::Lining];
            tasks.push(open.with(&[Tool::Ripper]));
        }
        let unpick = Task::new(key(Step::Unpick, change), Place::Table, along.minutes(pace)).along(along);
        let chalk = Task::new(key(Step::Chalk, change), Place::Table, along.minutes(1)).along(along);
        let by_hand = is_basted_by_hand(cloth);
        let (place, minutes) = if by_hand { (Place::Hand, 3) } else { (Place::Machine, 1) };
        let mut baste = Task::new(key(Step::Baste, change), place, along.minutes(minutes)).along(along);
        baste.settings = Settings::basting(cloth, by_hand);
        baste.supplies.extend(thread(&baste.settings, along));
        let mut stitch =
            Task::new(key(Step::Stitch, change), Place::Machine, along.minutes(1) + SET_UP).along(along);
        stitch.settings = Settings::seam(cloth);
        stitch.supplies.extend(thread(&stitch.settings, along));
        stitch.undone = Undone::ByUnpicking;
        let take_out = Task::new(key(Step::TakeOut, change), Place::Table, along.minutes(1)).along(along);
        let mut press = Task::new(key(Step::Press, change), Place::Iron, PRESS).along(along);
        press.settings = Settings::iron(cloth);
        tasks.extend([
            unpick.with(&[Tool::Ripper]),
            chalk.with(&[Tool::Chalk]),
            baste,
            stitch.with(&[Tool::SewingMachine]),
            take_out.with(&[Tool::Ripper]),
            press.with(&[Tool::IronAndBoard]),
        ]);
        if of.is_lined() {
            tasks.push(put_back(of, change, Vec::new()));
        }
        tasks
    }
}
