//! Sums that a person can follow: how edges come to a whole.

use crate::fitting::Edges;
use crate::length::{PerEdge, Tape, adjusted_words};

/// Edges as a sewist says them where a word tells in from out.
pub(crate) fn without_sign(edges: Edges) -> Edges {
    let turned = |edge: PerEdge| if edges.whole().0.is_negative() { PerEdge(-edge.0) } else { edge };
    Edges { front: turned(edges.front), back: turned(edges.back) }
}

/// How so many seams come to their whole: `2 edges × 1.6 = 3.2 cm`, `2 × 2 edges × 1.6 = 6.4 cm`, and with
/// the names of its edges where they differ `front 1.0 + back 0.6 = 1.6 cm`.
pub(crate) fn edges_sum(edges: Edges, seams: i64, names: [&str; 2], tape: Tape) -> String {
    format!("{} = {}", product(edges, seams, names, tape), tape.show(edges.whole().0 * seams))
}

/// The left side of [`edges_sum`].
fn product(edges: Edges, seams: i64, [one, other]: [&str; 2], tape: Tape) -> String {
    let Edges { front, back } = edges;
    let whole = edges.whole().0;
    if front == back {
        let each = tape.factor(front.0, 2 * seams, whole * seams);
        return if seams == 1 {
            format!("2 edges × {each}")
        } else {
            format!("{seams} × 2 edges × {each}")
        };
    }
    if seams == 1 {
        let (parts, adjusted) = tape.apportion(&[front.0, back.0]);
        let [front, back] = [tape.bare(parts[0]), tape.bare(parts[1])];
        format!("{one} {front} + {other} {back}{}", adjusted_words(adjusted))
    } else {
        let [front, back] = tape.factors([front.0, back.0], seams, whole * seams);
        format!("{seams} × ({one} {front} + {other} {back})")
    }
}
