//! Small pictures of what is hidden inside: how a hem is turned and how a seam's edges are finished, cut through.

use super::{Ink, Picture, Stroke};
use crate::garment::{Finish, HemTurn};
use crate::length::Length;

/// Layers lie so far apart that the eye can follow them, in mm of the drawing.
const APART: f64 = 5.0;

fn stroke(ink: Ink, path: impl Into<String>) -> Stroke {
    Stroke { ink, path: path.into() }
}

/// A hem cut through: the right side on the left, the cloth folded up inside as far as `turn_up`, true to its turns.
pub fn turn_up_picture(turn: HemTurn, turn_up: Length) -> Picture {
    let all = (turn_up.cm() * 10.0).clamp(4.0, 80.0);
    let usual = turn.turn_up_mm().max(1) as f64;
    let turns: Vec<f64> = turn.turns_mm().iter().map(|t| *t as f64 * all / usual).collect();
    turned_picture(turn, &turns, all)
}

/// A hem cut through, turned in these lengths, inner first; behind an edge that stays, a tuck as deep as `tuck`.
pub fn hem_picture(turn: HemTurn, turns: &[Length], tuck: Length) -> Picture {
    let whole: Length = turns.iter().copied().sum();
    let all = (if turn == HemTurn::Kept { tuck } else { whole }).cm() * 10.0;
    // More than 8 cm are drawn smaller, and of three turns the two that hold it.
    let scale = (80.0 / all.max(1.0)).min(1.0);
    let turns: Vec<f64> = turns.iter().rev().take(2).rev().map(|t| t.cm() * 10.0 * scale).collect();
    turned_picture(turn, &turns, (all * scale).max(4.0))
}

fn turned_picture(turn: HemTurn, turns: &[f64], all: f64) -> Picture {
    let top = -(all.max(24.0) + 22.0);
    let mut strokes = Vec::new();
    let outer = turns.last().copied().unwrap_or(0.0);
    let mut edge = format!("M0,{top:.1} V-2 ");
    let a = APART;
    match (turn, turns) {
        (HemTurn::Bound, _) => {
            edge.push_str("V2");
            strokes.push(stroke(Ink::Tape, "M-3,-9 V4 Q0,9 3,4 V-9 M-3,-9 h1 M3,-9 h-1"));
            strokes.push(stroke(Ink::Stitching, "M-6,-6 H6"));
        }
        (HemTurn::Faced, _) => {
            edge.push_str(&format!("Q0,3 {0},3 V-5", a / 2.0));
            strokes.push(stroke(Ink::Tape, format!("M{a},1 V-34 M{a},1 h-2")));
            strokes.push(stroke(Ink::Stitching, format!("M-3,-31 H{}", a + 3.0)));
        }
        (HemTurn::Kept, _) => {
            // The band that stays hangs before the crease; behind it lies the tuck.
            let tuck = all.clamp(8.0, 40.0);
            edge = format!(
                "M0,{top:.1} V-{0:.1} Q0,-{1:.1} {a},-{1:.1} Q{a},-{1:.1} {a},-{0:.1} V-{0:.1}",
                12.0, 10.0
            );
            edge.push_str(&format!(
                " M{a},-10 V-{0:.1} Q{1},-{2:.1} {3},-{0:.1} V0",
                10.0 + tuck,
                a * 1.5,
                13.0 + tuck,
                a * 2.0
            ));
            strokes.push(stroke(Ink::Stitching, format!("M-3,-11 H{}", a * 2.0 + 3.0)));
        }
        (HemTurn::Band, _) => {
            edge = format!("M0,{top:.1} V-26");
            strokes.push(stroke(Ink::Tape, "M-3,-30 V0 Q0,5 3,0 V-30 M-3,-30 h2 M3,-30 h-2"));
            strokes.push(stroke(Ink::Stitching, "M-7,-27 H7"));
        }
        (HemTurn::Cuff, [_, outside]) => {
            let depth = outside.min(32.0);
            edge.push_str(&format!("Q0,3 {0},3 Q{a},3 {a},-2 V-{d:.1} ", a / 2.0, d = depth - 2.0));
            strokes
                .push(stroke(Ink::Edge, format!("M0,-2 Q0,3 -{0},3 Q-{a},3 -{a},-2 V-{depth:.1}", a / 2.0)));
            strokes.push(stroke(Ink::Stitching, format!("M-2,-{0:.1} H{1}", depth - 4.0, a + 3.0)));
        }
        (_, [single]) => {
            edge.push_str(&format!("Q0,3 {0},3 Q{a},3 {a},-2 V-{single:.1}", a / 2.0));
            strokes.push(stroke(
                Ink::Stitching,
                match turn {
                    HemTurn::Coverstitched => {
                        format!("M-3,-{0:.1} H{2} M-3,-{1:.1} H{2}", single - 3.0, single - 8.0, a + 3.0)
                    }
                    HemTurn::Fused => format!("M{0},-{1:.1} V-{2:.1}", a / 2.0, single * 0.3, single * 0.8),
                    HemTurn::NarrowDouble
                    | HemTurn::Double
                    | HemTurn::Deep
                    | HemTurn::SingleFinished
                    | HemTurn::Blind
                    | HemTurn::Rolled
                    | HemTurn::Faced
                    | HemTurn::Bound
                    | HemTurn::Cuff
                    | HemTurn::Kept
                    | HemTurn::Band => format!("M-3,-{0:.1} H{1}", single - 3.0, a + 3.0),
                },
            ));
        }
        (_, [inner, _]) => {
            let (w, up) = (2.0 * a, outer);
            edge.push_str(&format!(
                "Q0,3 {a},3 Q{w},3 {w},-2 V-{0:.1} Q{w},-{1:.1} {a},-{1:.1} Q{2},-{1:.1} {a},-{3:.1} V-{4:.1}",
                up - 2.0,
                up + 2.5,
                a * 0.7,
                up - 3.0,
                (up - inner).max(1.0)
            ));
            strokes.push(stroke(
                Ink::Stitching,
                if turn == HemTurn::Blind {
                    format!("M-1,-{0:.1} L{w},-{1:.1}", up + 4.0, up)
                } else {
                    format!("M-3,-{0:.1} H{1}", up - 2.5, w + 3.0)
                },
            ));
        }
        _ => {}
    }
    strokes.insert(0, stroke(Ink::Edge, edge));
    Picture { view: [-14.0, top - 2.0, 40.0, -top + 12.0], strokes }
}

/// A seam cut through, right side down: two panels, their allowances, and what holds the raw edges.
pub fn finish_picture(finish: Finish) -> Picture {
    let row = |x: f64| stroke(Ink::Stitching, format!("M{x},-12 V5"));
    let overcast = |x: f64, y: f64, h: f64| {
        stroke(Ink::Tape, format!("M{x},{y} l-2,{h} l-2,-{h} l-2,{h} M{x},{y} l2,{h}"))
    };
    let strokes = match finish {
        Finish::Open | Finish::SergedOpen => {
            let mut strokes = vec![
                stroke(Ink::Edge, "M-46,0 H-2 Q0,0 0,-2.5 Q0,-5 -2,-5 H-20"),
                stroke(Ink::Edge, "M46,0 H2 Q0,0 0,-2.5 Q0,-5 2,-5 H20"),
                row(0.0),
            ];
            if finish == Finish::SergedOpen {
                strokes.extend([overcast(-19.0, -8.0, 6.0), overcast(21.0, -8.0, 6.0)]);
            }
            strokes
        }
        Finish::SergedTogether => vec![
            stroke(Ink::Edge, "M-46,0 H-2 Q2,0 2,-5 Q2,-9 6,-9 H20"),
            stroke(Ink::Edge, "M46,0 H6 Q2,0 2,-2.5 Q2,-5 6,-5 H20"),
            row(4.0),
            overcast(20.0, -12.0, 10.0),
        ],
        Finish::Bound => vec![
            stroke(Ink::Edge, "M-46,0 H-2 Q0,0 0,-2.5 Q0,-5 -2,-5 H-20"),
            stroke(Ink::Edge, "M46,0 H2 Q0,0 0,-2.5 Q0,-5 2,-5 H20"),
            row(0.0),
            stroke(Ink::Tape, "M-13,-8 H-20 Q-24,-5 -20,-2.5 H-13 M13,-8 H20 Q24,-5 20,-2.5 H13"),
        ],
        Finish::FlatFelled => vec![
            stroke(Ink::Edge, "M-46,0 H12 Q15,0 15,-2.5 Q15,-5 12,-5 H-8"),
            stroke(Ink::Edge, "M46,-5 H20 M46,-5 H-10 Q-14,-7.5 -10,-10 H10"),
            row(-6.0),
            row(9.0),
        ],
        Finish::French => vec![
            stroke(Ink::Edge, "M-46,0 H-2 Q0,0 0,-2 V-14 Q0,-17 3,-17 Q5,-17 5,-14 V-6"),
            stroke(Ink::Edge, "M46,0 H12 Q10,0 10,-2 V-14 Q10,-17 7,-17 Q5,-17 5,-14"),
            stroke(Ink::Stitching, "M-5,-4 H15 M2,-13 H8"),
        ],
    };
    Picture { view: [-48.0, -22.0, 96.0, 30.0], strokes }
}
