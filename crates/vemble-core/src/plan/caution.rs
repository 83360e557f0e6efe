//! Cautions: short, where they matter, once in a plan.

use crate::choice::choice;

choice! {
    /// What to know before something is done.
    Caution {
        Pins => "Pins point away from the body. Count them in and count them out; nobody sits or bends while it is pinned at the seat or thigh.",
        Child => "Stay with a child while it is pinned; no pins in the mouth. Drawstrings, small parts and nightwear are regulated: follow local rules, and keep loose nightwear from flames.",
        Lacing => "Stop lacing at numbness, pain or short breath.",
        RotaryCutter => "With a rotary cutter: guard on between cuts, and cut away from the hand.",
        Awl => "With awl and hammer: protect your eyes, and work on a solid bench.",
        MachineOff => "Switch the machine off before you change its needle or clean it. A hot lamp, a hot motor, a worn flex: stop at a burning smell, and have it looked at by somebody who is qualified.",
        Iron => "Steam burns, and an iron is never left alone. Try its heat and the stitch on a trimmed scrap first; pins near it have glass heads.",
        Rest => "Good light. Rest hands and eyes every 40 minutes.",
        WashFirst => "Second-hand clothes are washed before anybody puts them on.",
    }
}
