//! The card of elastic in a waistband.

use super::{ANCHOR, CasedElastic};
use crate::card::{Block, CardOf, HasCard};
use crate::change::ChangeKey;
use crate::length::Figure;
use crate::shown::Show;
use crate::told::capital;

impl HasCard for CasedElastic<'_> {
    /// Last: seams take what they can first.
    const TURN: u8 = 3;

    fn card(&self, of: &CardOf<'_>) -> Option<(String, Vec<Block>)> {
        let shown = self.show(of.subject, of.tape);
        let (cut, spans, casing) = (shown.cut?, shown.spans?, shown.casing?);
        let mut blocks = vec![
            Block::Text(format!("Cut {}, anchors and all. {}.", cut.text(), capital(&shown.sum))),
            Block::Steps(steps(cut, casing, &of.tape.show(ANCHOR.on(of.tape)))),
        ];
        blocks.extend(of.cautions(ChangeKey::Elastic(self.key()), false));
        blocks.push(Block::Heading("Afterwards it should measure".into()));
        blocks.push(Block::Line(format!("Worn, the elastic spans {}.", spans.text())));
        Some(("Elastic in the waistband".into(), blocks))
    }
}

fn steps(cut: Figure, casing: Figure, anchor: &str) -> Vec<String> {
    vec![
        format!(
            "Mark two slits on the inside of the band, {} apart, alike on both sides of the centre back and clear of loops.",
            casing.text()
        ),
        "Open the slits in the inner band only.".into(),
        format!(
            "Cut the elastic {} long. Draw it from slit to slit; hop out before a label that is sewn through, and in again after it.",
            cut.text()
        ),
        format!("Pin each end {anchor} deep, and try it on: it should hold without digging in."),
        "Sew two short rows across each end; they show on the outside. Close the slits by hand.".into(),
    ]
}
