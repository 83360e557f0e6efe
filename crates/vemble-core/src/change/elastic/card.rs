//! The card of elastic in a waistband.

use super::{ANCHOR, CasedElastic};
use crate::card::{Block, CardOf, Hand, HasCard};
use crate::change::ChangeKey;
use crate::change::hem::Cutting;
use crate::length::Figure;
use crate::shown::Show;
use crate::told::capital;
use crate::work::Step;

impl HasCard for CasedElastic<'_> {
    /// Last: seams take what they can first.
    const TURN: u8 = 3;

    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)> {
        let shown = self.show(of.subject, of.tape);
        let (cut, spans, casing) = (shown.cut?, shown.spans?, shown.casing?);
        let mut blocks = vec![
            Block::Text(format!("Cut {}, anchors and all. {}.", cut.text(), capital(&shown.sum))),
            hand(cut, casing, &of.tape.show(ANCHOR.on(of.tape)))
                .block(ChangeKey::Elastic(self.key()), Cutting::default()),
        ];
        blocks.extend(of.cautions(ChangeKey::Elastic(self.key()), false));
        blocks.push(Block::Heading("Afterwards it should measure".into()));
        blocks.push(Block::Line(format!("Worn, the elastic spans {}.", spans.text())));
        Some(("Elastic in the waistband".into(), blocks))
    }
}

fn hand(cut: Figure, casing: Figure, anchor: &str) -> Hand {
    let mut hand = Hand::default();
    hand.say(
        Step::OpenUp,
        format!(
            "Mark two slits on the inside of the band, {} apart, alike on both sides of the centre back and clear of loops.",
            casing.text()
        ),
    );
    hand.say(Step::OpenUp, "Open the slits in the inner band only.");
    hand.say(
        Step::Baste,
        format!(
            "Cut the elastic {} long. Draw it from slit to slit; hop out before a label that is sewn through, and in again after it.",
            cut.text()
        ),
    );
    hand.say(Step::Baste, format!("Pin each end {anchor} deep."));
    hand.say(Step::TryBasted, "Try it on: it should hold without digging in.");
    hand.say(Step::Stitch, "Sew two short rows across each end; they show on the outside.");
    hand.say(Step::PutBack, "Close the slits by hand.");
    hand
}
