//! The order of the hand: a graph with a reason on every arrow (petgraph), and the one order of steps within a change that cards and plan
//! share.

use super::chain::{TasksOf, gate_for, height, waits_to_be_cut};
use super::task::Task;
use crate::change::ChangeKey;
use crate::change::hem::Cutting;
use crate::choice::choice;
use crate::fitting::GarmentSide;
use crate::garment::Seam;
use crate::work::{SleeveSet, Step, TaskKey, TaskOf};
use petgraph::algo::tarjan_scc;
use petgraph::graph::{DiGraph, NodeIndex};
use petgraph::visit::EdgeRef;
use std::cmp::Reverse;
use std::collections::BinaryHeap;

choice! {
    /// Why one task comes before another.
    Because {
        WashSettles => "washing settles the cloth: everything is measured after it",
        OpenedFirst => "what lies over it is opened first",
        HangsFirst => "it drops while it hangs, a day and a night",
        ChalkedFirst => "it is sewn where it is chalked",
        BastedFirst => "basting holds it for the try-on",
        TriedFirst => "nothing is sewn for good before it was tried on",
        NothingIsCutBefore => "cloth cannot be put back: nothing is cut before it was tried on",
        CutFirst => "it is cut along its mark, then sewn",
        NewHoldsOld => "the new line holds before the old one comes out",
        SewnThenTrimmed => "it is trimmed close to the stitching",
        EdgeAfterCut => "a raw edge is finished once it is cut",
        PressedAsSewn => "each seam is pressed before another crosses it",
        ClosedLast => "what was opened is closed again, the last first",
        DartsFirst => "darts are sewn before the seams they run into",
        UpperFirst => "what hangs from above is done first",
        SleeveFlat => "the sleeve is sewn in flat, before the side is closed",
        HemAfterSeams => "a hem is marked once everything above it is done",
        EdgeAfterHem => "the lower end of the edge is the new hem",
        WaistFirst => "elastic takes what the seams leave",
        OneOfAPair => "one of a pair is finished before the other is begun: it shows how it was made",
        OuterFirst => "the lining follows its outer",
        LastOfAll => "it looks at all of it",
        Wished => "you wished it so",
    }
}

/// What goes round in a circle: every task of it, in the order of their keys.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Circle(pub Vec<TaskKey>);

/// The place of a step among those of its change, by when cloth is cut. Cards say their steps in this order, and plans do them.
pub(crate) const fn place_of(step: Step, cutting: Cutting) -> u8 {
    match step {
        Step::Wash => 0,
        Step::OpenUp => 1,
        // A hem is unpicked before it is marked; a seam that is let out is held by its basting first, and says so itself.
        Step::Hang => 3,
        Step::Chalk => 4,
        Step::ThreadTrace => 5,
        Step::Baste => 6,
        Step::Unpick => 7,
        Step::TryBasted => 8,
        Step::Cut if matches!(cutting, Cutting::First) => 9,
        Step::Stitch => 10,
        Step::TakeOut => 11,
        Step::TryStitched => 12,
        Step::Cut => 13,
        Step::Finish => 14,
        Step::Press => 15,
        Step::PutBack => 16,
        Step::LineIt => 17,
        Step::FinalPress => 18,
        Step::FinalTryOn => 19,
        Step::EnterRecord => 20,
        Step::Own => 21,
    }
}

/// The same for a change: a hem and a sleeve are unpicked before they are marked; a hem is cut before it is stitched; fastenings are worked, then cut open.
pub(crate) fn place_in(change: ChangeKey, step: Step, cutting: Cutting) -> u8 {
    match (change, step) {
        (ChangeKey::Hem(_), Step::Hang) => 2,
        (ChangeKey::Hem(_) | ChangeKey::Armhole(_) | ChangeKey::Trunk(_), Step::Unpick) => 3,
        (ChangeKey::Hem(_), Step::Cut) if cutting == Cutting::AfterTryOn => 9,
        // Cut before it is turned up: then it is tried on pinned at its marks.
        (ChangeKey::Hem(_), Step::TryBasted) if cutting == Cutting::First => 5,
        (ChangeKey::Hem(_), Step::Cut) if cutting == Cutting::First => 6,
        (ChangeKey::Hem(_), Step::Baste) if cutting == Cutting::First => 7,
        _ => place_of(step, cutting),
    }
}

/// Puts what is said of a change into the order of the hand; what is of one step stays as it is.
pub(crate) fn in_order_of_the_hand<T>(
    said: &mut [T],
    change: ChangeKey,
    cutting: Cutting,
    step: impl Fn(&T) -> Step,
) {
    said.sort_by_key(|part| place_in(change, step(part), cutting));
}

/// Why a step of a change comes after the one before it.
const fn why(first: Step, then: Step) -> Because {
    match (first, then) {
        (Step::OpenUp, _) => Because::OpenedFirst,
        (Step::Hang, _) => Because::HangsFirst,
        (_, Step::Finish) => Because::EdgeAfterCut,
        (_, Step::PutBack | Step::LineIt) => Because::ClosedLast,
        (_, Step::Press) => Because::PressedAsSewn,
        (Step::TryBasted | Step::TryStitched, Step::Cut) => Because::NothingIsCutBefore,
        (Step::TryBasted | Step::TryStitched, _) => Because::TriedFirst,
        (Step::Cut, _) => Because::CutFirst,
        (_, Step::Cut) => Because::SewnThenTrimmed,
        (Step::Stitch, _) => Because::NewHoldsOld,
        (Step::Baste, _) => Because::BastedFirst,
        (Step::Unpick, _) => Because::OpenedFirst,
        _ => Because::ChalkedFirst,
    }
}

/// Orders the tasks, so that each comes after all it needs, and gives the arrows between their places.
///
/// Takes n log n of tasks and arrows.
///
/// # Errors
/// A circle, with all that is in it.
pub(super) fn arrows(
    of: &TasksOf<'_>,
    tasks: &mut Vec<Task>,
) -> Result<Vec<(usize, usize, Because)>, Circle> {
    let mut graph: DiGraph<TaskKey, Because> = DiGraph::new();
    let nodes: Vec<NodeIndex> = tasks.iter().map(|task| graph.add_node(task.key)).collect();
    let at = |key: TaskKey| tasks.iter().position(|task| task.key == key).map(|at| nodes[at]);
    let mut arrow = |first: Option<NodeIndex>, then: Option<NodeIndex>, why: Because| {
        if let (Some(first), Some(then)) = (first, then)
            && first != then
            && graph.find_edge(first, then).is_none()
        {
            graph.add_edge(first, then, why);
        }
    };
    let mut changes: Vec<ChangeKey> = tasks.iter().filter_map(|task| task.key.change()).collect();
    changes.sort_unstable();
    changes.dedup();
    for change in &changes {
        within(of, tasks, *change, &nodes, &mut arrow);
    }
    between(of, tasks, &changes, &nodes, &mut arrow);
    for own in &of.wishes.own {
        let key = TaskKey { step: Step::Own, of: TaskOf::Own(own.id) };
        own.after.iter().for_each(|first| arrow(at(*first), at(key), Because::Wished));
        own.before.iter().for_each(|then| arrow(at(key), at(*then), Because::Wished));
    }
    for wish in &of.wishes.first {
        arrow(at(wish.first), at(wish.then), Because::Wished);
    }
    let order = topological(of, &graph, tasks)?;
    let mut place = vec![0; tasks.len()];
    order.iter().enumerate().for_each(|(to, from)| place[*from] = to);
    let mut arrows: Vec<(usize, usize, Because)> = graph
        .edge_references()
        .map(|edge| (place[edge.source().index()], place[edge.target().index()], *edge.weight()))
        .collect();
    arrows.sort_unstable();
    let mut all: Vec<Option<Task>> = std::mem::take(tasks).into_iter().map(Some).collect();
    tasks.extend(order.into_iter().filter_map(|from| all[from].take()));
    Ok(arrows)
}

/// The steps of one change after one another, through its gates.
fn within(
    of: &TasksOf<'_>,
    tasks: &[Task],
    change: ChangeKey,
    nodes: &[NodeIndex],
    arrow: &mut impl FnMut(Option<NodeIndex>, Option<NodeIndex>, Because),
) {
    let cutting = match of.subject.changes.iter().find(|c| c.key() == change) {
        Some(crate::change::DrawnChange::Hem(hem)) => hem.cuts(of.subject),
        _ => of.cutting(),
    };
    let basted = gate_for(change);
    let stitched = TaskKey::whole(Step::TryStitched);
    let waits = waits_to_be_cut(of, tasks, change);
    let goes_there = |task: &Task| {
        task.key.change() == Some(change) || task.key == basted || task.key == stitched && waits
    };
    let own = |side: Option<GarmentSide>| {
        let mut own: Vec<usize> = (0..tasks.len())
            .filter(|at| goes_there(&tasks[*at]))
            .filter(|at| match tasks[*at].key.of {
                TaskOf::Change(_, of) => of.is_none() || of == side,
                TaskOf::Garment | TaskOf::Own(_) => true,
            })
            .collect();
        own.sort_by_key(|at| place_in(change, tasks[*at].key.step, cutting));
        own
    };
    let is_of =
        |task: &Task, side: GarmentSide| matches!(task.key.of, TaskOf::Change(_, Some(s)) if s == side);
    let is_paired =
        tasks.iter().any(|task| task.key.change() == Some(change) && is_of(task, GarmentSide::Left));
    let sides: &[Option<GarmentSide>] =
        if is_paired { &[Some(GarmentSide::Left), Some(GarmentSide::Right)] } else { &[None] };
    for side in sides {
        for pair in own(*side).windows(2) {
            let [first, then] = [pair[0], pair[1]];
            arrow(Some(nodes[first]), Some(nodes[then]), why(tasks[first].key.step, tasks[then].key.step));
        }
    }
    if is_paired {
        // From what both share on: a pair that is cut before it is turned up is cut together.
        let of_side = |side: GarmentSide| -> Vec<usize> {
            let own = own(Some(side)).into_iter().rev();
            let after = own.skip_while(|at| !is_of(&tasks[*at], side));
            after.take_while(|at| is_of(&tasks[*at], side)).collect()
        };
        let (last, first) =
            (of_side(GarmentSide::Left).first().copied(), of_side(GarmentSide::Right).last().copied());
        arrow(last.map(|at| nodes[at]), first.map(|at| nodes[at]), Because::OneOfAPair);
    }
}

/// What comes before what among different changes, and what is of the whole garment.
fn between(
    of: &TasksOf<'_>,
    tasks: &[Task],
    changes: &[ChangeKey],
    nodes: &[NodeIndex],
    arrow: &mut impl FnMut(Option<NodeIndex>, Option<NodeIndex>, Because),
) {
    let node = |at: usize| Some(nodes[at]);
    let places = |wanted: &dyn Fn(&Task) -> bool| -> Vec<usize> {
        (0..tasks.len()).filter(|at| wanted(&tasks[*at])).collect()
    };
    let of_change =
        |change: ChangeKey, step: Step| places(&|t| t.key.step == step && t.key.change() == Some(change));
    let last_of = |change: ChangeKey| -> Vec<usize> {
        let own = places(&|t| t.key.change() == Some(change));
        let last = own.iter().map(|at| place_in(change, tasks[*at].key.step, of.cutting())).max();
        own.into_iter()
            .filter(|at| Some(place_in(change, tasks[*at].key.step, of.cutting())) == last)
            .collect()
    };
    let mut all_before = |first: &[usize], then: &[usize], why: Because| {
        for first in first {
            then.iter().for_each(|then| arrow(node(*first), node(*then), why));
        }
    };
    let whole = |step: Step| places(&|t| t.key == TaskKey::whole(step));
    let begins = |change: ChangeKey| {
        let own = places(&|t| t.key.change() == Some(change));
        own.into_iter().min_by_key(|at| place_in(change, tasks[*at].key.step, of.cutting()))
    };
    let firsts: Vec<usize> = changes.iter().filter_map(|change| begins(*change)).collect();
    all_before(&whole(Step::Wash), &firsts, Because::WashSettles);
    for change in changes {
        match change {
            ChangeKey::Dart(_) => {
                for seam in changes.iter().filter(|c| matches!(c, ChangeKey::Seam(_))) {
                    all_before(
                        &of_change(*change, Step::Press),
                        &of_change(*seam, Step::Stitch),
                        Because::DartsFirst,
                    );
                }
            }
            // From lower to higher turns only, so that seams never wait for each other.
            ChangeKey::Seam(seam) => {
                for other in changes.iter().filter(|c| turn_of(of, **c) > turn_of(of, *change)) {
                    let ChangeKey::Seam(then) = other else { continue };
                    let is_sleeve = matches!(then, Seam::SideSeam | Seam::Outseam | Seam::SleeveSeam);
                    let (first, why) = match (seam, then) {
                        (Seam::ArmholeSeam, _) if is_sleeve => (Step::Stitch, Because::SleeveFlat),
                        // What is cut later, at a try-on of all seams, is pressed once more after that.
                        _ if waits_to_be_cut(of, tasks, *change) => (Step::TakeOut, Because::UpperFirst),
                        (_, Seam::ArmholeSeam) => (Step::Press, Because::PressedAsSewn),
                        _ => (Step::Press, Because::UpperFirst),
                    };
                    all_before(&of_change(*change, first), &of_change(*other, Step::Stitch), why);
                }
            }
            ChangeKey::Hem(_)
            | ChangeKey::Elastic(_)
            | ChangeKey::Spacing(_)
            | ChangeKey::Gathers(_)
            | ChangeKey::Trunk(_)
            | ChangeKey::Armhole(_) => {}
        }
        for other in changes {
            let (first, why) = match (change, other) {
                (
                    ChangeKey::Seam(_)
                    | ChangeKey::Dart(_)
                    | ChangeKey::Gathers(_)
                    | ChangeKey::Elastic(_)
                    | ChangeKey::Trunk(_)
                    | ChangeKey::Armhole(_),
                    ChangeKey::Hem(_),
                ) => (true, Because::HemAfterSeams),
                (ChangeKey::Hem(_), ChangeKey::Spacing(_)) => (true, Because::EdgeAfterHem),
                (ChangeKey::Seam(_) | ChangeKey::Dart(_), ChangeKey::Elastic(_)) => {
                    (true, Because::WaistFirst)
                }
                _ => (false, Because::Wished),
            };
            if first {
                let begin: Vec<usize> = begins(*other).into_iter().collect();
                all_before(&last_of(*change), &begin, why);
            }
        }
    }
    let is_of_the_end = |t: &Task| {
        matches!(
            t.key.step,
            Step::LineIt | Step::FinalPress | Step::FinalTryOn | Step::EnterRecord | Step::Own
        ) && !matches!(t.key.of, TaskOf::Change(..))
    };
    let work = places(&|t| !is_of_the_end(t));
    let ends = [Step::LineIt, Step::FinalPress, Step::FinalTryOn, Step::EnterRecord];
    let mut before = work;
    for step in ends {
        let here = whole(step);
        let why = if step == Step::LineIt { Because::OuterFirst } else { Because::LastOfAll };
        // Only from what nothing else follows: the rest follows from that.
        let followed = |at: &usize| before.iter().any(|other| leads_to(tasks, *at, *other));
        let open: Vec<usize> = before.iter().copied().filter(|at| !followed(at)).collect();
        all_before(&open, &here, why);
        if !here.is_empty() {
            before = here;
        }
    }
}

/// When the turn of a change comes: what lies higher first. A sleeve that is set in round comes after every other seam, since side and sleeve are
/// closed by then.
fn turn_of(of: &TasksOf<'_>, change: ChangeKey) -> u8 {
    let is_round = of.wishes.schools.sleeve != Some(SleeveSet::Flat);
    if is_round && change == ChangeKey::Seam(Seam::ArmholeSeam) {
        return u8::MAX;
    }
    height(of.subject.garment, change)
}

/// Of one change, and later in it: no arrow from the earlier one to the end is needed.
fn leads_to(tasks: &[Task], first: usize, then: usize) -> bool {
    let (first, then) = (&tasks[first].key, &tasks[then].key);
    match (first.change(), then.change()) {
        (Some(one), Some(other)) if one == other => {
            place_in(one, first.step, Cutting::AfterTryOn) < place_in(one, then.step, Cutting::AfterTryOn)
        }
        _ => first.step.is_gate() && then.change().is_some(),
    }
}

/// What decides among tasks that can come: a hem last, then its step, its height, its key.
type Rank = (u8, u8, u8, TaskKey);

/// All tasks so that each comes after what it needs; among those that can come, by their step, then what lies higher, then by key.
fn topological(
    of: &TasksOf<'_>,
    graph: &DiGraph<TaskKey, Because>,
    tasks: &[Task],
) -> Result<Vec<usize>, Circle> {
    let garment = of.subject.garment;
    let rank = |at: usize| {
        let key = tasks[at].key;
        let height = key.change().map_or(0, |change| height(garment, change));
        let is_hem = u8::from(height == u8::MAX);
        (is_hem, place_of(key.step, of.cutting()), height, key)
    };
    let mut missing: Vec<usize> = vec![0; tasks.len()];
    graph.edge_references().for_each(|edge| missing[edge.target().index()] += 1);
    let mut ready: BinaryHeap<Reverse<(Rank, usize)>> =
        (0..tasks.len()).filter(|at| missing[*at] == 0).map(|at| Reverse((rank(at), at))).collect();
    let mut order = Vec::with_capacity(tasks.len());
    while let Some(Reverse((_, at))) = ready.pop() {
        order.push(at);
        for next in graph.neighbors(NodeIndex::new(at)) {
            missing[next.index()] -= 1;
            if missing[next.index()] == 0 {
                ready.push(Reverse((rank(next.index()), next.index())));
            }
        }
    }
    if order.len() == tasks.len() {
        return Ok(order);
    }
    let circle = tarjan_scc(graph).into_iter().filter(|all| all.len() > 1);
    let mut keys: Vec<TaskKey> = circle.flatten().map(|node| graph[node]).collect();
    keys.sort_unstable();
    Err(Circle(keys))
}

/// Cut cloth waits for its gate: every task that cannot be undone has one before it.
#[cfg(test)]
pub(super) fn is_gated(chain: &super::chain::Chain) -> bool {
    (0..chain.tasks.len())
        .all(|at| chain.tasks[at].undone != super::task::Undone::Never || chain.gate_of(at).is_some())
}
