//! What is to be done for a hem. One of a pair is finished before the other is begun.

use super::AlteredHem;
use super::judge::HemSums;
use crate::change::{ChangeKey, Drawn};
use crate::fitting::GarmentSide;
use crate::garment::{HemTurn, StitchedBy};
use crate::judge::girth_at;
use crate::length::Length;
use crate::plan::{
    HasTasks, Place, Settings, Stretch, Supply, Task, TasksOf, Thing, Tool, Undone, key, thread,
};
use crate::work::{Step, SupplyKind, TaskKey, TaskOf};

/// Setting up at the machine, pressing, folding a lining back, a slit, marking: minutes (teaching values); a day and a night on a hanger.
const SET_UP: u32 = 5;
const PRESS: u32 = 5;
const OPEN: u32 = 6;
const SLIT: u32 = 12;
const MARK: u32 = 5;
const HANGS: u32 = 24 * 60;
/// For 10 cm: unpicked by hand stitches and by machine stitches, turned and basted, slip-stitched (teaching values of the handbook).
const UNPICK_HAND: u32 = 4;
const UNPICK_MACHINE: u32 = 3;
const TURN: u32 = 2;
const SLIP: u32 = 5;

impl HasTasks for AlteredHem<'_> {
    fn tasks(&self, of: &TasksOf<'_>) -> Vec<Task> {
        if !self.is_altered() {
            return Vec::new();
        }
        match (self.above, &self.sums(of.subject)[..]) {
            (Some(above), _) => self.tasks_above(of, of.subject.tape.round(above.off)),
            (None, [both]) => self.turned(of, [both, both]),
            (None, [left, right, ..]) => self.turned(of, [left, right]),
            (None, []) => Vec::new(),
        }
    }
}

impl AlteredHem<'_> {
    /// The edge as it will be, once for each leg or sleeve.
    fn new_edge(&self, of: &TasksOf<'_>, off: Length) -> Stretch {
        let around = girth_at(of.subject, self.level(), off, GarmentSide::Left);
        let each = around.unwrap_or(Length::from_mm(1000)).max(Length::from_mm(100));
        Stretch { times: if self.is_pair() { 2 } else { 1 }, each: of.subject.tape.round(each) }
    }

    /// Turned up, by what each side comes to.
    fn turned(&self, of: &TasksOf<'_>, each: [&HemSums; 2]) -> Vec<Task> {
        let (change, cloth) = (ChangeKey::Hem(self.key()), of.cloth());
        let along = self.new_edge(of, each[0].off[1]);
        let (mut tasks, is_lined) = (Vec::new(), self.is_lined(of.subject));
        if is_lined || each.iter().any(|sums| self.opens(of.subject, sums).is_some()) {
            let mut open =
                Task::new(key(Step::OpenUp, change), Place::Table, OPEN).along(along).with(&[Tool::Ripper]);
            open.things.extend(is_lined.then_some(Thing::Lining));
            tasks.push(open);
        }
        if each.iter().any(|sums| Self::is_unpicked(sums)) {
            let pace = match self.facts.map(|facts| facts.by) {
                Some(StitchedBy::Hand) => UNPICK_HAND,
                Some(StitchedBy::Machine) | None => UNPICK_MACHINE,
            };
            let unpick = Task::new(key(Step::Unpick, change), Place::Table, along.minutes(pace)).along(along);
            tasks.push(unpick.with(&[Tool::Ripper]));
        }
        if self.drops(of.subject.garment) {
            let mut hang = Task::new(key(Step::Hang, change), Place::Desk, 2).with(&[Tool::Hanger]);
            hang.waits = HANGS;
            tasks.push(hang);
        }
        let chalk = Task::new(key(Step::Chalk, change), Place::Table, MARK + along.minutes(1));
        tasks.push(chalk.along(along).with(&[Tool::Chalk]));
        let mut turn = Task::new(key(Step::Baste, change), Place::Hand, along.minutes(TURN)).along(along);
        turn.settings = Settings::basting(cloth, true);
        turn.supplies.extend(thread(&turn.settings, along));
        tasks.push(turn.with(&[Tool::Pins, Tool::Needle]));
        let sides: &[Option<GarmentSide>] =
            if self.is_pair() { &[Some(GarmentSide::Left), Some(GarmentSide::Right)] } else { &[None] };
        let one = Stretch { times: 1, ..along };
        let has_slit = self.slit(of.subject, each[0].off[1]).is_some_and(|slit| !slit.lacks_dart);
        for (side, sums) in sides.iter().zip(each) {
            let of_side = |step| TaskKey { step, of: TaskOf::Change(change, *side) };
            if Self::falls_off(sums, of.subject.tape) || has_slit {
                let slit = if has_slit { SLIT } else { 0 };
                let cut = Task::new(of_side(Step::Cut), Place::Table, one.minutes(1) + slit).along(one);
                tasks.push(cut.with(&[Tool::Scissors]).for_good());
            }
            tasks.push(stitched(of, sums, of_side(Step::Stitch), one));
            let mut press = Task::new(of_side(Step::Press), Place::Iron, PRESS).along(one);
            press.settings = Settings::iron(cloth);
            tasks.push(press.with(&[Tool::IronAndBoard]));
        }
        tasks.extend(self.lining_hemmed(of, along));
        tasks
    }

    /// Moved at the waist or the cap, where the edge stays.
    fn tasks_above(&self, of: &TasksOf<'_>, off: Length) -> Vec<Task> {
        let (change, cloth) = (ChangeKey::Hem(self.key()), of.cloth());
        let along = self.new_edge(of, Length::ZERO);
        let task = |step, place, minutes| Task::new(key(step, change), place, minutes).along(along);
        let mut baste = task(Step::Baste, Place::Hand, along.minutes(3));
        baste.settings = Settings::basting(cloth, true);
        baste.supplies.extend(thread(&baste.settings, along));
        let mut stitch = task(Step::Stitch, Place::Machine, along.minutes(1) + SET_UP * along.times);
        stitch.settings = Settings::seam(cloth);
        stitch.supplies.extend(thread(&stitch.settings, along));
        stitch.undone = Undone::ByUnpicking;
        let mut press = task(Step::Press, Place::Iron, PRESS * along.times);
        press.settings = Settings::iron(cloth);
        let mut tasks = Vec::new();
        if of.is_lined() {
            let mut open = task(Step::OpenUp, Place::Table, OPEN).with(&[Tool::Ripper]);
            open.things = vec![Thing::Lining];
            tasks.push(open);
        }
        tasks.extend([
            task(Step::Unpick, Place::Table, along.minutes(UNPICK_MACHINE)).with(&[Tool::Ripper]),
            task(Step::Chalk, Place::Table, MARK + along.minutes(1)).with(&[Tool::Chalk]),
            baste,
            stitch.with(&[Tool::SewingMachine]),
        ]);
        if off > Length::ZERO {
            tasks.push(task(Step::Cut, Place::Table, along.minutes(1)).with(&[Tool::Scissors]).for_good());
        }
        tasks.push(press.with(&[Tool::IronAndBoard]));
        tasks.extend(self.lining_hemmed(of, along));
        tasks
    }

    /// The lining's own hem.
    fn lining_hemmed(&self, of: &TasksOf<'_>, along: Stretch) -> Option<Task> {
        self.is_lined(of.subject).then(|| {
            let change = ChangeKey::Hem(self.key());
            let mut line =
                Task::new(key(Step::LineIt, change), Place::Hand, along.minutes(SLIP)).along(along);
            line.settings = Settings::hem(of.cloth(), true);
            line.supplies.extend(thread(&line.settings, along));
            line.with(&[Tool::Needle])
        })
    }
}

/// How long one edge takes to sew, by how it is turned and by what.
fn stitched(of: &TasksOf<'_>, sums: &HemSums, key: TaskKey, along: Stretch) -> Task {
    let cloth = of.cloth();
    let minutes = match (sums.turn, sums.by_hand) {
        (HemTurn::Kept, _) => along.minutes(1) + SET_UP,
        (HemTurn::Faced | HemTurn::Bound | HemTurn::Band, _) => along.minutes(4) + SET_UP,
        (HemTurn::Fused, _) => along.minutes(1),
        (_, true) => along.minutes(SLIP),
        (HemTurn::SingleFinished, false) => along.minutes(2) + SET_UP,
        (
            HemTurn::NarrowDouble
            | HemTurn::Double
            | HemTurn::Deep
            | HemTurn::Blind
            | HemTurn::Rolled
            | HemTurn::Coverstitched
            | HemTurn::Cuff,
            false,
        ) => along.minutes(1) + SET_UP,
    };
    let by_hand = sums.by_hand && sums.turn != HemTurn::Kept;
    let place = match by_hand {
        _ if sums.turn == HemTurn::Fused => Place::Iron,
        true => Place::Hand,
        false => Place::Machine,
    };
    let mut task = Task::new(key, place, minutes).along(along);
    task.settings =
        if sums.turn == HemTurn::Fused { Settings::iron(cloth) } else { Settings::hem(cloth, by_hand) };
    task.supplies.extend(thread(&task.settings, along));
    let cm = along.whole().cm().ceil() as u32 + 4;
    match sums.turn {
        HemTurn::Faced => task.supplies.push(Supply::of(SupplyKind::Facing, cm)),
        HemTurn::Bound => task.supplies.push(Supply::of(SupplyKind::BiasBinding, cm)),
        HemTurn::Fused => task.supplies.push(Supply::of(SupplyKind::HemTape, cm)),
        HemTurn::NarrowDouble
        | HemTurn::Double
        | HemTurn::Deep
        | HemTurn::SingleFinished
        | HemTurn::Blind
        | HemTurn::Rolled
        | HemTurn::Coverstitched
        | HemTurn::Cuff
        | HemTurn::Band
        | HemTurn::Kept => {}
    }
    task.undone = Undone::ByUnpicking;
    task.with(if by_hand { &[Tool::Needle] } else { &[Tool::SewingMachine] })
}
