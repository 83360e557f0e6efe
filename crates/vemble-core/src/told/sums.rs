//! Sums that a person can follow: how edges come to a whole.

use crate::fitting::Edges;
use crate::length::{PerEdge, Tape};

/// Edges as a sewist says them where a word tells in from out.
pub(crate) fn without_sign(edges: Edges) -> Edges {
    let turned = |edge: PerEdge| if edges.whole().0.is_negative() { PerEdge(-edge.0) } else { edge };
    Edges { front: turned(edges.front), back: turned(edges.back) }
}

/// How so many seams come to their whole, from what is chalked: `2 edges × 1.6 = 3.2 cm`, `2 × 2 edges × 1.6 = 6.4 cm`, and with the
/// names of its edges where they differ `front 1.0 + back 0.6 = 1.6 cm`.
pub(crate) fn edges_sum(edges: Edges, seams: i64, [one, other]: [&str; 2], tape: Tape) -> String {
    let edges = edges.chalked(tape);
    let [front, back] = [tape.bare(edges.front.0), tape.bare(edges.back.0)];
    let product = match (edges.front == edges.back, seams) {
        (true, 1) => format!("2 edges × {front}"),
        (true, _) => format!("{seams} × 2 edges × {front}"),
        (false, 1) => format!("{one} {front} + {other} {back}"),
        (false, _) => format!("{seams} × ({one} {front} + {other} {back})"),
    };
    format!("{product} = {}", tape.show(edges.whole().0 * seams))
}
