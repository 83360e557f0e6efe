//! What the cards say and what the plan does is one thing.

use super::*;
use crate::solve::solve;
use crate::tests::anything::sensible_document;
use crate::work::Step;
use proptest::prelude::*;
use std::collections::BTreeSet;

proptest! {
    #![proptest_config(ProptestConfig { cases: 5000, failure_persistence: None, ..ProptestConfig::default() })]

    /// Every task of a change is said on its card, and whatever the card says is a task or the try-on it waits for.
    #[test]
    fn what_a_card_says_is_what_the_plan_does(seed: u64) {
        let document = sensible_document(seed);
        if solve(&document, Tape::Cm).is_err() {
            return Ok(());
        }
        let of = OfGarment { id: Uuid::nil(), wearer: Uuid::nil(), document: &document };
        let bench = Bench::new(of, Tape::Cm).unwrap();
        prop_assert!(bench.circle.is_none(), "{:?}", bench.circle);
        if bench.is_refused() {
            return Ok(());
        }
        for change in &bench.changes {
            let said: BTreeSet<Step> = bench
                .hand
                .iter()
                .filter(|(key, _)| key == change)
                .flat_map(|(_, steps)| steps.iter().map(|said| said.step))
                .filter(|step| !step.is_gate())
                .collect();
            let done: BTreeSet<Step> =
                bench.chain.tasks.iter().filter(|task| task.key.change() == Some(*change) && !task.key.step.is_gate()).map(|task| task.key.step).collect();
            prop_assert_eq!(&said, &done, "{} {:?} on {:?}", change, bench.stops, bench.garment.kind);
        }
    }
}
