//! What two devices changed on one armhole, part by part.

use super::ArmholeChange;
use crate::change::Input;
use crate::try_on::{Merging, Parts};

impl Parts for ArmholeChange {
    fn of_what(&self) -> String {
        format!("shoulder, armhole and sleeve, {}", self.key().name())
    }

    fn merged(m: &mut Merging, what: &str, [base, mine, theirs]: [&Self; 3]) -> Self {
        macro_rules! part {
            ($field:ident, $words:literal, $usual:literal) => {
                m.length(&format!("{what}: {}", $words), $usual, [&base.$field, &mine.$field, &theirs.$field])
            };
        }
        Self {
            at: base.at,
            hinge: part!(hinge, "hinge of the arm", "as usual"),
            shorten: part!(shorten, "shoulder shortened", "not"),
            slope: part!(slope, "shoulder sloped", "not"),
            forward: part!(forward, "shoulder moved forward", "not"),
            pads_out: part!(pads_out, "pads taken out", "not"),
            gape: part!(gape, "pinched out of the neckline", "not"),
            raise: part!(raise, "raised", "not"),
            front_in: part!(front_in, "front brought in", "not"),
            back_in: part!(back_in, "back brought in", "not"),
            widen: part!(widen, "widened", "not"),
            widen_elbow: part!(widen_elbow, "widened at the elbow", "not"),
            cap: part!(cap, "edge of the cap", "not measured"),
            cap_ease: part!(cap_ease, "ease of the cap", "its edge stays"),
            pitch: part!(pitch, "notch turned", "not"),
        }
    }
}
