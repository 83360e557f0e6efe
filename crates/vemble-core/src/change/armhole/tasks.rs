//! What is to be done for an armhole and its sleeve.

use super::AlteredArmhole;
use crate::change::{ChangeKey, Drawn};
use crate::garment::{Lined, Seam, SeamFacts};
use crate::judge::Subject;
use crate::plan::{
    HasTasks, Place, Settings, Stretch, Task, TasksOf, Thing, Tool, Undone, key, put_back, thread, unpicked,
};
use crate::work::Step;

/// Setting a sleeve in, at the machine, and pressing it over a ham: minutes each (teaching values: it is eased, not run through).
const SET_IN: u32 = 15;
const PRESS: u32 = 8;
/// A plain seam that is sewn anew beside it takes so long to set up, and to press: minutes (teaching values of the handbook).
const SET_UP: u32 = 5;
const PRESS_SEAM: u32 = 5;
const OPEN_LINING: u32 = 5;

impl HasTasks for AlteredArmhole<'_> {
    /// The sleeve comes out, both edges are chalked, it is set in again.
    fn tasks(&self, of: &TasksOf<'_>) -> Vec<Task> {
        let (subject, cloth) = (of.subject, of.cloth());
        let Some(facts) = subject.garment.seam(Seam::ArmholeSeam).filter(|_| self.is_altered()) else {
            return Vec::new();
        };
        let change = ChangeKey::Armhole(self.key());
        let times = self.key().sides().len() as u32;
        let along = Stretch { times, each: self.sums(subject.tape).armhole()[1] };
        let mut tasks = Vec::new();
        let is_lined = subject.garment.found.lined == Some(Lined::Fully);
        if is_lined {
            let mut open = Task::new(key(Step::OpenUp, change), Place::Table, OPEN_LINING);
            open.things = vec![Thing::Lining];
            tasks.push(open.with(&[Tool::Ripper]));
        }
        let too: Vec<(Stretch, &SeamFacts)> = self.plain_seams(subject);
        let all = |of: &dyn Fn(Stretch) -> u32| {
            of(along) + too.iter().map(|(stretch, _)| of(*stretch)).sum::<u32>()
        };
        let ripped = too.iter().map(|(stretch, facts)| stretch.minutes(unpicked(facts))).sum::<u32>();
        let unpick =
            Task::new(key(Step::Unpick, change), Place::Table, along.minutes(unpicked(facts)) + ripped);
        let chalk = Task::new(key(Step::Chalk, change), Place::Table, all(&|stretch| stretch.minutes(2)));
        let mut baste =
            Task::new(key(Step::Baste, change), Place::Hand, all(&|stretch| stretch.minutes(3))).along(along);
        baste.settings = Settings::basting(cloth, true);
        baste.supplies.extend(thread(&baste.settings, along));
        let plain = |of: &dyn Fn(Stretch) -> u32| too.iter().map(|(stretch, _)| of(*stretch)).sum::<u32>();
        let sewn = plain(&|stretch| stretch.minutes(1) + SET_UP * stretch.times);
        let mut stitch =
            Task::new(key(Step::Stitch, change), Place::Machine, SET_IN * times + sewn).along(along);
        stitch.settings = Settings::seam(cloth);
        stitch.supplies.extend(thread(&stitch.settings, along));
        stitch.undone = Undone::ByUnpicking;
        let take_out =
            Task::new(key(Step::TakeOut, change), Place::Table, all(&|stretch| stretch.minutes(1)))
                .along(along);
        let pressed = plain(&|stretch| PRESS_SEAM * stretch.times);
        let mut press =
            Task::new(key(Step::Press, change), Place::Iron, PRESS * times + pressed).along(along);
        press.settings = Settings::iron(cloth);
        tasks.extend([
            unpick.along(along).with(&[Tool::Ripper]),
            chalk.along(along).with(&[Tool::Chalk]),
            baste.with(&[Tool::Needle]),
            stitch.with(&[Tool::SewingMachine]),
            take_out.with(&[Tool::Ripper]),
            press.with(&[Tool::IronAndBoard, Tool::Ham]),
        ]);
        if is_lined {
            tasks.push(put_back(of, change, Vec::new()));
        }
        tasks
    }
}

impl AlteredArmhole<'_> {
    /// The plain seams that are unpicked and sewn anew with it: the shoulder seam where its line moves, the seam of the sleeve where that
    /// gets wider or narrower; how often, and how long each.
    pub(super) fn plain_seams<'g>(&self, subject: &Subject<'g>) -> Vec<(Stretch, &'g SeamFacts)> {
        let (tape, times) = (subject.tape, self.key().sides().len() as u32);
        let sewn =
            [(Seam::ShoulderSeam, self.moves_shoulder(tape)), (Seam::SleeveSeam, self.moves_sleeve(tape))];
        let of = |(seam, moves): (Seam, bool)| {
            let facts = subject.garment.seam(seam).filter(|_| moves)?;
            Some((Stretch { times, each: tape.round(facts.length.length) }, facts))
        };
        sewn.into_iter().filter_map(of).collect()
    }
}
