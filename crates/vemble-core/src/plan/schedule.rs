//! All garments' tasks laid over the evenings there are.
//!
//! **What is sought**, one after the other: as few minutes as possible of work that comes too late for its day; then as few tasks as possible
//! that find no place; then that try-ons with help come as early as they can; then that what is wanted first is finished first; then as few changes of thread, needle, foot and place as possible.
//!
//! **How**: garments in the order of their days; of each its tasks in the order of its chain, every one at the first time that is free after
//! what it needs (serial schedule generation, Kolisch 1996). Once garment by garment, and once all garments up to their first try-on with
//! help, then all up to the next, so that nobody’s evening of help goes by unused; the better of both is kept. Then late garments are tried
//! earlier, as long as that helps; then what is done at one place is put together within each evening, where nothing else moves. Nothing is left to chance: the same input gives the
//! same plan. One pair of hands means that more time can put one garment off for the sake of another, never without saying which.

use super::chain::Chain;
use super::evenings::{Evening, MinuteOfTime};
use super::progress::{Progress, StandsAt};
use super::settings::{NeedlePoint, StitchKind};
use super::task::{Minutes, Place, Task};
use crate::work::{Step, TaskKey};
use std::collections::BTreeSet;
use uuid::Uuid;

/// The work on one garment.
#[derive(Clone)]
pub struct GarmentWork {
    /// Which garment.
    pub id: Uuid,
    /// Its tasks.
    pub(crate) chain: Chain,
    /// How they stand.
    pub(crate) progress: Progress,
    /// How long each takes, in the order of its chain.
    pub(crate) minutes: Vec<Minutes>,
    /// When it has to be finished; nothing where there is no hurry.
    pub due: Option<MinuteOfTime>,
    /// Its cloth is heavy: a machine has to cool.
    pub(crate) heavy: bool,
    /// The colour of its thread.
    pub(crate) thread: String,
    /// Tasks that cannot begin before a moment.
    pub(crate) not_before: Vec<(TaskKey, MinuteOfTime)>,
}

impl GarmentWork {
    /// What is left to do, in the order of its chain.
    pub(crate) fn left(&self) -> impl Iterator<Item = (usize, &Task)> {
        self.chain.tasks.iter().enumerate().filter(|(_, task)| !self.progress.is_settled(task.key))
    }

    /// How long all that is left takes.
    pub fn minutes_left(&self) -> Minutes {
        self.left().map(|(at, _)| self.minutes[at]).sum()
    }
}

/// A task, or a piece of it, in an evening.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Placed {
    /// The place of its garment among those that were planned.
    pub garment: usize,
    /// Which task of it.
    pub task: TaskKey,
    /// The place of the evening among all.
    pub evening: usize,
    /// When it begins.
    pub start: MinuteOfTime,
    /// How long.
    pub minutes: u32,
    /// Which piece of how many.
    pub piece: (u16, u16),
}

impl Placed {
    /// When it is over.
    pub const fn end(&self) -> MinuteOfTime {
        self.start + self.minutes as i64
    }
}

/// Why a task has no place.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum WhyNot {
    /// There are no evenings.
    NoEvenings,
    /// It is done in one go, and longer than any evening; the longest there is.
    LongerThanAny(u32),
    /// Not even a piece of it fits into the longest there is.
    NoPieceFits(u32),
    /// It needs help, and nobody is there on any evening that is left.
    NobodyHelps,
    /// All evenings are full.
    NoTimeLeft,
    /// What it needs has no place.
    After(TaskKey),
}

/// How the work on one garment comes out.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct GarmentPlan {
    /// Which garment.
    pub id: Uuid,
    /// When all of it is finished; nothing where not all of it has a place.
    pub finish: Option<MinuteOfTime>,
    /// When it has to be.
    pub due: Option<MinuteOfTime>,
    /// Minutes of its work that come too late, or have no place, where it has a day.
    pub late: u32,
    /// Minutes of evenings before its day that nothing needs; nothing where it has no day.
    pub slack: Option<u32>,
    /// What would put its finish off if it took longer: the longest way through what is left.
    pub critical: Vec<TaskKey>,
    /// What has no place, and why.
    pub unplaced: Vec<(TaskKey, WhyNot)>,
}

/// A plan of everything.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Planned {
    /// The evenings it was laid over.
    pub evenings: Vec<Evening>,
    /// Every piece, in the order of time.
    pub placed: Vec<Placed>,
    /// Each garment, in the order that was given.
    pub garments: Vec<GarmentPlan>,
    /// How often thread, needle, foot or place change.
    pub set_ups: usize,
}

impl Planned {
    /// Minutes that come too late, over all.
    pub fn late(&self) -> u32 {
        self.garments.iter().map(|g| g.late).sum()
    }

    /// The pieces of one garment.
    pub fn of(&self, garment: usize) -> impl Iterator<Item = &Placed> {
        self.placed.iter().filter(move |placed| placed.garment == garment)
    }
}

/// A piece of a task is no shorter, unless it is the rest: 15 minutes (teaching value: less is spent on finding where one was).
pub(crate) const PIECE: u32 = 15;
/// A machine on heavy cloth rests after so many minutes, and for so long (teaching values).
const MACHINE_RUNS: u32 = 40;
const MACHINE_COOLS: i64 = 20;
/// How often orders of garments are tried.
const TRIES: usize = 48;

/// A task as it is laid.
struct Job<'a> {
    garment: usize,
    task: &'a Task,
    minutes: u32,
    /// Jobs it needs.
    needs: Vec<usize>,
    /// Not before this: what it needs that is done and waits, and what was wished.
    release: MinuteOfTime,
    /// Its machine has to cool.
    heavy: bool,
    batch: Batch,
}

/// What is set up for a task: tasks with the same are done after one another.
#[derive(Clone, Copy, PartialEq, Eq)]
struct Batch {
    place: Place,
    unpicks: bool,
    stitch: Option<StitchKind>,
    needle: Option<([u8; 2], NeedlePoint)>,
    thread: usize,
}

/// One try: pieces by job, and why not.
struct Laid {
    /// Evening, start, minutes.
    pieces: Vec<Vec<(usize, MinuteOfTime, u32)>>,
    why_not: Vec<Option<WhyNot>>,
}

/// How good a try is: the smaller the better, in this order.
type Score = (u64, usize, i64, i64);

/// Lays the tasks of `works` over `evenings`, which are in order and not over one another.
///
/// Takes tries × tasks × evenings at worst, much less where evenings fill from the front: some milliseconds for 900 tasks.
pub fn plan(works: &[GarmentWork], evenings: &[Evening]) -> Planned {
    let jobs = jobs(works);
    let mut order: Vec<usize> = (0..works.len()).collect();
    order.sort_by_key(|g| {
        (works[*g].due.unwrap_or(MinuteOfTime::MAX), works[*g].minutes_left().likely, works[*g].id)
    });
    let better_of_both = |order: &[usize]| {
        let both = [false, true].map(|by_try_on| {
            let laid = lay(&jobs, order, evenings, by_try_on);
            (scored(works, &jobs, &laid), laid)
        });
        let [alone, together] = both;
        if together.0 < alone.0 { together } else { alone }
    };
    let (mut score, mut best) = better_of_both(&order);
    let mut tries = 0;
    let mut moved = score.0 > 0;
    while moved && tries < TRIES {
        moved = false;
        for at in 1..order.len() {
            if tries == TRIES {
                break;
            }
            if late_of(works, &jobs, &best, order[at]) == 0 {
                continue;
            }
            tries += 1;
            order.swap(at - 1, at);
            let (better, tried) = better_of_both(&order);
            if better < score {
                (best, score, moved) = (tried, better, true);
            } else {
                order.swap(at - 1, at);
            }
        }
    }
    put_together(&jobs, &mut best, evenings);
    told(works, &jobs, &best, evenings)
}

/// What to do in so many minutes from now on, with or without help: what the plan would do first that can be done then.
pub fn right_now(works: &[GarmentWork], now: MinuteOfTime, minutes: u32, helper: bool) -> Planned {
    let helper = if helper { "somebody".to_owned() } else { String::new() };
    let evening = Evening {
        source: Uuid::nil(),
        date: jiff::civil::Date::default(),
        is_weekly: false,
        start: now,
        minutes,
        helper,
    };
    plan(works, &[evening])
}

fn jobs(works: &[GarmentWork]) -> Vec<Job<'_>> {
    let mut jobs: Vec<Job<'_>> = Vec::new();
    let threads: BTreeSet<&str> = works.iter().map(|work| &*work.thread).collect();
    for (garment, work) in works.iter().enumerate() {
        let first = jobs.len();
        let place: Vec<Option<usize>> = {
            let mut next = first;
            let settled = |task: &Task| work.progress.is_settled(task.key);
            work.chain
                .tasks
                .iter()
                .map(|t| {
                    (!settled(t)).then(|| {
                        next += 1;
                        next - 1
                    })
                })
                .collect()
        };
        let thread = threads.iter().position(|thread| *thread == work.thread).unwrap_or_default();
        for (at, task) in work.left() {
            let wished = work.not_before.iter().filter(|(key, _)| *key == task.key).map(|(_, from)| *from);
            let waits = work.chain.needs(at).filter_map(|(before, _)| {
                let before = &work.chain.tasks[before];
                match work.progress.of(before.key).at {
                    StandsAt::Done(done) if before.waits > 0 => {
                        Some(super::evenings::minute(done) + i64::from(before.waits))
                    }
                    StandsAt::Done(_) | StandsAt::Open | StandsAt::Begun(_) | StandsAt::Skipped => None,
                }
            });
            jobs.push(Job {
                garment,
                task,
                minutes: work.minutes[at].likely.max(1),
                needs: work.chain.needs(at).filter_map(|(before, _)| place[before]).collect(),
                release: wished.chain(waits).max().unwrap_or(MinuteOfTime::MIN),
                heavy: work.heavy && task.is_of_a_machine(),
                batch: Batch {
                    place: task.place,
                    unpicks: matches!(task.key.step, Step::Unpick | Step::TakeOut),
                    stitch: task.settings.stitch.map(|(kind, _)| kind),
                    needle: task.settings.needle,
                    thread: if task.settings.thread.is_some() { thread } else { usize::MAX },
                },
            });
        }
    }
    jobs
}

/// The turn of each job: garment by garment, or all garments up to their first try-on with help, then all up to the next. A job never
/// comes before what it needs.
fn turns(jobs: &[Job<'_>], order: &[usize], by_try_on: bool) -> Vec<usize> {
    let mut place = vec![0; order.len()];
    order.iter().enumerate().for_each(|(turn, garment)| place[*garment] = turn);
    // How many try-ons with help have to be done before.
    let mut helped = vec![0_usize; jobs.len()];
    for n in 0..jobs.len() {
        let before = jobs[n].needs.iter().map(|need| helped[*need] + usize::from(jobs[*need].task.helper));
        helped[n] = before.max().unwrap_or(0);
    }
    let mut turns: Vec<usize> = (0..jobs.len()).collect();
    turns.sort_by_key(|n| (if by_try_on { helped[*n] } else { 0 }, place[jobs[*n].garment], *n));
    turns
}

/// Lays jobs in their turn, each at the first time that is free for it.
fn lay(jobs: &[Job<'_>], order: &[usize], evenings: &[Evening], by_try_on: bool) -> Laid {
    let mut free: Vec<Vec<(MinuteOfTime, MinuteOfTime)>> =
        evenings.iter().map(|evening| vec![(evening.start, evening.end())]).collect();
    let longest = |helped: bool| {
        let there = evenings.iter().filter(|e| !helped || !e.helper.is_empty());
        there.map(|evening| evening.minutes).max()
    };
    let longest = [longest(false), longest(true)];
    let mut laid = Laid { pieces: vec![Vec::new(); jobs.len()], why_not: vec![None; jobs.len()] };
    for n in turns(jobs, order, by_try_on) {
        let job = &jobs[n];
        if let Some(missing) = job.needs.iter().find(|need| laid.why_not[**need].is_some()) {
            laid.why_not[n] = Some(WhyNot::After(jobs[*missing].task.key));
            continue;
        }
        let after = job.needs.iter().map(|need| {
            let end = laid.pieces[*need]
                .last()
                .map_or(MinuteOfTime::MIN, |(_, start, minutes)| start + i64::from(*minutes));
            end.saturating_add(i64::from(jobs[*need].task.waits))
        });
        let from = after.max().unwrap_or(MinuteOfTime::MIN).max(job.release);
        match longest[usize::from(job.task.helper)] {
            None if evenings.is_empty() => laid.why_not[n] = Some(WhyNot::NoEvenings),
            None => laid.why_not[n] = Some(WhyNot::NobodyHelps),
            Some(longest) if !job.task.splits && longest < job.minutes => {
                laid.why_not[n] = Some(WhyNot::LongerThanAny(longest));
            }
            Some(longest) if longest < job.minutes.min(PIECE) => {
                laid.why_not[n] = Some(WhyNot::NoPieceFits(longest));
            }
            Some(_) => match place(job, from, evenings, &free) {
                Some(pieces) => {
                    for &(evening, start, minutes) in &pieces {
                        take(&mut free[evening], start, start + i64::from(minutes));
                    }
                    laid.pieces[n] = pieces;
                }
                None => laid.why_not[n] = Some(WhyNot::NoTimeLeft),
            },
        }
    }
    laid
}

/// The first pieces of free time from a moment on that a job fits into; nothing where there are not enough.
fn place(
    job: &Job<'_>,
    from: MinuteOfTime,
    evenings: &[Evening],
    free: &[Vec<(MinuteOfTime, MinuteOfTime)>],
) -> Option<Vec<(usize, MinuteOfTime, u32)>> {
    let (mut from, mut left, mut pieces) = (from, job.minutes, Vec::new());
    let first = evenings.partition_point(|evening| evening.end() <= from);
    for (n, evening) in evenings.iter().enumerate().skip(first) {
        if job.task.helper && evening.helper.is_empty() {
            continue;
        }
        for &(begin, end) in &free[n] {
            let mut begin = begin.max(from);
            while begin < end {
                let there = (end - begin) as u32;
                let run = if job.heavy { left.min(MACHINE_RUNS) } else { left };
                let piece = there.min(run);
                let is_rest = piece == left;
                let fits = is_rest || job.task.splits && piece >= PIECE;
                if !fits {
                    break;
                }
                pieces.push((n, begin, piece));
                left -= piece;
                if left == 0 {
                    return Some(pieces);
                }
                from = begin + i64::from(piece) + if job.heavy { MACHINE_COOLS } else { 0 };
                begin = from;
            }
        }
    }
    None
}

/// Takes time out of what is free.
fn take(free: &mut Vec<(MinuteOfTime, MinuteOfTime)>, start: MinuteOfTime, end: MinuteOfTime) {
    let Some(at) = free.iter().position(|(from, to)| *from <= start && end <= *to) else { return };
    let (from, to) = free[at];
    let rest = [(from, start), (end, to)].into_iter().filter(|(from, to)| from < to);
    free.splice(at..=at, rest);
}

/// Minutes of one job that come after its garment's day, or have no place.
fn late_minutes(works: &[GarmentWork], job: &Job<'_>, laid: &Laid, n: usize) -> u32 {
    let Some(due) = works[job.garment].due else { return 0 };
    if laid.why_not[n].is_some() {
        return job.minutes;
    }
    let after = |(_, start, minutes): &(usize, MinuteOfTime, u32)| {
        let end = start + i64::from(*minutes);
        (end - due.max(*start)).clamp(0, i64::from(*minutes)) as u32
    };
    laid.pieces[n].iter().map(after).sum()
}

fn late_of(works: &[GarmentWork], jobs: &[Job<'_>], laid: &Laid, garment: usize) -> u32 {
    let own = jobs.iter().enumerate().filter(|(_, job)| job.garment == garment);
    own.map(|(n, job)| late_minutes(works, job, laid, n)).sum()
}

fn scored(works: &[GarmentWork], jobs: &[Job<'_>], laid: &Laid) -> Score {
    let late = jobs.iter().enumerate().map(|(n, job)| u64::from(late_minutes(works, job, laid, n))).sum();
    let missing = laid.why_not.iter().flatten().count();
    let ends = laid.pieces.iter().filter_map(|pieces| pieces.last()).map(|(_, start, _)| *start);
    let with_help = jobs.iter().zip(&laid.pieces).filter(|(job, _)| job.task.helper);
    let helped = with_help.filter_map(|(_, pieces)| pieces.first()).map(|(_, start, _)| *start);
    (late, missing, helped.fold(0, i64::saturating_add), ends.fold(0, i64::saturating_add))
}

/// Within each evening, puts together what is done at one place with the same thread, needle and foot, where that moves nothing else.
fn put_together(jobs: &[Job<'_>], laid: &mut Laid, evenings: &[Evening]) {
    let mut followers: Vec<Vec<usize>> = vec![Vec::new(); jobs.len()];
    for (n, job) in jobs.iter().enumerate() {
        job.needs.iter().for_each(|need| followers[*need].push(n));
    }
    let mut in_evening: Vec<Vec<(MinuteOfTime, u32, usize, usize)>> = vec![Vec::new(); evenings.len()];
    for (n, pieces) in laid.pieces.iter().enumerate() {
        for (piece, (evening, start, minutes)) in pieces.iter().enumerate() {
            in_evening[*evening].push((*start, *minutes, n, piece));
        }
    }
    for here in &mut in_evening {
        here.sort_unstable();
        // Where something waits within the evening, or a machine cools, it stays as it is.
        let is_whole = here.windows(2).all(|two| two[0].0 + i64::from(two[0].1) == two[1].0);
        if !is_whole || here.len() < 3 {
            continue;
        }
        let regrouped = regrouped(jobs, here);
        let before: Vec<(usize, usize, MinuteOfTime)> = here.iter().map(|p| (p.2, p.3, p.0)).collect();
        let mut start = here[0].0;
        for &(_, minutes, n, piece) in &regrouped {
            laid.pieces[n][piece].1 = start;
            start += i64::from(minutes);
        }
        let holds = here.iter().all(|p| holds(jobs, &followers, laid, p.2));
        if !holds {
            before.into_iter().for_each(|(n, piece, start)| laid.pieces[n][piece].1 = start);
        }
    }
}

/// The pieces of an evening in another order: what can go on with the same set-up goes on.
fn regrouped(
    jobs: &[Job<'_>],
    here: &[(MinuteOfTime, u32, usize, usize)],
) -> Vec<(MinuteOfTime, u32, usize, usize)> {
    let mut left: Vec<(MinuteOfTime, u32, usize, usize)> = here.to_vec();
    let mut order = Vec::with_capacity(left.len());
    let mut set_up: Option<Batch> = None;
    while !left.is_empty() {
        let is_ready = |p: &(MinuteOfTime, u32, usize, usize)| {
            !left.iter().any(|other| jobs[p.2].needs.contains(&other.2) || other.2 == p.2 && other.3 < p.3)
        };
        let same = left.iter().position(|p| is_ready(p) && Some(jobs[p.2].batch) == set_up);
        let next = same.or_else(|| left.iter().position(is_ready)).unwrap_or_default();
        let piece = left.remove(next);
        set_up = Some(jobs[piece.2].batch);
        order.push(piece);
    }
    order
}

/// A job still comes after what it needs and before what needs it.
fn holds(jobs: &[Job<'_>], followers: &[Vec<usize>], laid: &Laid, n: usize) -> bool {
    let starts = |n: usize| laid.pieces[n].first().map(|(_, start, _)| *start);
    let ends = |n: usize| laid.pieces[n].last().map(|(_, start, minutes)| start + i64::from(*minutes));
    let after = |first: usize, then: usize| match (ends(first), starts(then)) {
        (Some(end), Some(start)) => end + i64::from(jobs[first].task.waits) <= start,
        _ => true,
    };
    let in_order = laid.pieces[n].windows(2).all(|two| two[0].1 + i64::from(two[0].2) <= two[1].1);
    in_order
        && starts(n).is_none_or(|start| start >= jobs[n].release)
        && jobs[n].needs.iter().all(|need| after(*need, n))
        && followers[n].iter().all(|next| after(n, *next))
}

/// What came of it.
fn told(works: &[GarmentWork], jobs: &[Job<'_>], laid: &Laid, evenings: &[Evening]) -> Planned {
    let mut placed: Vec<(Placed, Batch)> = Vec::new();
    for (n, job) in jobs.iter().enumerate() {
        let count = laid.pieces[n].len() as u16;
        placed.extend((1..).zip(&laid.pieces[n]).map(|(piece, &(evening, start, minutes))| {
            let placed = Placed {
                garment: job.garment,
                task: job.task.key,
                evening,
                start,
                minutes,
                piece: (piece, count),
            };
            (placed, job.batch)
        }));
    }
    placed.sort_by_key(|(placed, _)| placed.start);
    let set_ups =
        placed.windows(2).filter(|two| two[0].0.evening == two[1].0.evening && two[0].1 != two[1].1).count();
    let garments = works.iter().enumerate().map(|(garment, work)| {
        let own = || jobs.iter().enumerate().filter(move |(_, job)| job.garment == garment);
        let unplaced: Vec<(TaskKey, WhyNot)> =
            own().filter_map(|(n, job)| Some((job.task.key, laid.why_not[n]?))).collect();
        let ends = own().filter_map(|(n, job)| {
            let (_, start, minutes) = laid.pieces[n].last()?;
            Some(start + i64::from(*minutes) + i64::from(job.task.waits))
        });
        let finish = ends.max().filter(|_| unplaced.is_empty());
        let slack = work.due.map(|due| free_before(due, evenings, &placed));
        GarmentPlan {
            id: work.id,
            finish,
            due: work.due,
            late: late_of(works, jobs, laid, garment),
            slack,
            critical: critical(work),
            unplaced,
        }
    });
    let garments = garments.collect();
    let placed = placed.into_iter().map(|(placed, _)| placed).collect();
    Planned { evenings: evenings.to_vec(), placed, garments, set_ups }
}

/// Minutes of evenings before a moment that nothing is laid on.
fn free_before(due: MinuteOfTime, evenings: &[Evening], placed: &[(Placed, Batch)]) -> u32 {
    let before = |start: MinuteOfTime, end: MinuteOfTime| (end.min(due) - start).max(0) as u32;
    let there: u32 = evenings.iter().map(|evening| before(evening.start, evening.end())).sum();
    let used: u32 = placed.iter().map(|(placed, _)| before(placed.start, placed.end())).sum();
    there.saturating_sub(used)
}

/// The longest way through what is left of a garment, waiting and all.
fn critical(work: &GarmentWork) -> Vec<TaskKey> {
    let tasks = &work.chain.tasks;
    let mut tail: Vec<(u64, Option<usize>)> = vec![(0, None); tasks.len()];
    let is_left: Vec<bool> = tasks.iter().map(|task| !work.progress.is_settled(task.key)).collect();
    // The chain is in order: what follows stands behind.
    for at in (0..tasks.len()).rev().filter(|at| is_left[*at]) {
        let next = work.chain.arrows.iter().filter(|(first, then, _)| *first == at && is_left[*then]);
        let longest = next.map(|(_, then, _)| (tail[*then].0, Some(*then))).max().unwrap_or((0, None));
        let own = u64::from(work.minutes[at].likely) + u64::from(tasks[at].waits);
        tail[at] = (own + longest.0, longest.1);
    }
    let first =
        (0..tasks.len()).filter(|at| is_left[*at]).max_by_key(|at| (tail[*at].0, std::cmp::Reverse(*at)));
    std::iter::successors(first, |at| tail[*at].1).map(|at| tasks[at].key).collect()
}

/// Which garments one plan finishes later than another, and for the sake of which others: those that take evenings it had before; where none
/// does, those that have something earlier than before, itself among them: a try-on with help comes before an early end.
pub fn moved_by(before: &Planned, after: &Planned) -> Vec<(usize, Vec<usize>)> {
    let later = |garment: usize| {
        let finish = |plan: &Planned| plan.garments[garment].finish.unwrap_or(MinuteOfTime::MAX);
        finish(after) > finish(before)
    };
    let for_whom = |garment: usize| {
        let had: Vec<(MinuteOfTime, MinuteOfTime)> = before.of(garment).map(|p| (p.start, p.end())).collect();
        let takes = |p: &&Placed| {
            p.garment != garment && had.iter().any(|(start, end)| p.start < *end && *start < p.end())
        };
        let mut others: Vec<usize> = after.placed.iter().filter(takes).map(|p| p.garment).collect();
        if others.is_empty() {
            let begins = |plan: &Planned, p: &Placed| {
                plan.of(p.garment).find(|q| q.task == p.task).map(|first| first.start)
            };
            let is_earlier = |p: &&Placed| begins(after, p) < begins(before, p);
            others.extend(after.placed.iter().filter(is_earlier).map(|p| p.garment));
        }
        others.sort_unstable();
        others.dedup();
        others
    };
    (0..before.garments.len()).filter(|garment| later(*garment)).map(|g| (g, for_whom(g))).collect()
}
