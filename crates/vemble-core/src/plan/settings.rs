//! How machine, needle, thread and iron are set, by the cloth and by what is sewn. Teaching values of the handbook: size by thread, point by
//! cloth; stitch numbers are those of ISO 4915.

use crate::choice::choice;
use crate::garment::{Cloth, Drape, Heat, Weight};
use crate::place::Structure;

choice! {
    /// A stitch, in plain words.
    StitchKind {
        Lockstitch => "straight stitch",
        BastingStitch => "long straight stitch, to be pulled out",
        Zigzag => "zigzag",
        Overlock => "overlock",
        Coverstitch => "coverstitch",
        NarrowZigzag => "narrow zigzag, which gives",
        Running => "running stitch by hand",
        Slip => "slip stitch by hand",
    }
}

impl StitchKind {
    /// Its number in ISO 4915. A slip stitch by hand has none.
    pub const fn iso_4915(self) -> Option<u16> {
        match self {
            Self::Lockstitch | Self::BastingStitch => Some(301),
            Self::Zigzag | Self::NarrowZigzag => Some(304),
            Self::Overlock => Some(504),
            Self::Coverstitch => Some(406),
            Self::Running => Some(209),
            Self::Slip => None,
        }
    }

    /// Centimetres of thread for a centimetre of seam (teaching values: needle and bobbin or loopers, with a tenth for ends).
    pub const fn thread_per_cm(self) -> f64 {
        match self {
            Self::Lockstitch => 2.9,
            Self::BastingStitch => 2.3,
            Self::Zigzag | Self::NarrowZigzag => 5.0,
            Self::Overlock => 14.0,
            Self::Coverstitch => 18.0,
            Self::Running => 1.5,
            Self::Slip => 2.0,
        }
    }
}

choice! {
    /// The point of a machine needle.
    NeedlePoint {
        Universal => "universal point",
        Ballpoint => "ballpoint or stretch",
        Denim => "denim point",
        Leather => "leather point",
    }
}

choice! {
    /// What thread.
    ThreadKind {
        Polyester => "polyester, which gives with the seam",
        FineCotton => "silk or fine cotton, for basting",
        Matching => "polyester in the cloth’s colour",
    }
}

choice! {
    /// Which foot.
    Foot {
        Standard => "standard foot",
        ZipFoot => "zip foot",
        Buttonhole => "buttonhole foot",
        Walking => "walking foot",
    }
}

choice! {
    /// How it is ironed.
    IronUse {
        Cool => "cool, without steam",
        WarmSteamCloth => "warm, with steam and a press cloth",
        Warm => "warm",
        Hot => "hot, with steam",
        Knit => "warm, lifted and set down; the knit lies unfolded, no crease",
    }
}

/// How machine, needle, thread and iron are set for one task; nothing of what it does not need.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Settings {
    /// The stitch, and how long it is in tenths of a millimetre; a range where two are usual.
    pub stitch: Option<(StitchKind, [u8; 2])>,
    /// The needle: its size in hundredths of a millimetre, a range where two are usual, and its point.
    pub needle: Option<([u8; 2], NeedlePoint)>,
    /// The thread.
    pub thread: Option<ThreadKind>,
    /// The foot.
    pub foot: Option<Foot>,
    /// The iron.
    pub iron: Option<IronUse>,
}

impl Settings {
    /// Nothing is set.
    pub const NONE: Self = Self { stitch: None, needle: None, thread: None, foot: None, iron: None };

    /// At the machine: size by how heavy the cloth is, point by how it is made.
    fn machine(cloth: &Cloth, stitch: (StitchKind, [u8; 2]), thread: ThreadKind) -> Self {
        let size = match (cloth.weight, cloth.structure) {
            (Weight::Light, _) => [60, 70],
            (Weight::Medium, Structure::Knit) => [75, 80],
            (Weight::Medium, Structure::Woven) => [80, 90],
            (Weight::Heavy, _) => [100, 110],
        };
        let named = |part: &str| cloth.name.contains(part);
        let point = match cloth.structure {
            _ if named("leather") => NeedlePoint::Leather,
            Structure::Knit => NeedlePoint::Ballpoint,
            Structure::Woven if named("denim") => NeedlePoint::Denim,
            Structure::Woven => NeedlePoint::Universal,
        };
        let foot = if cloth.weight == Weight::Heavy { Foot::Walking } else { Foot::Standard };
        Self {
            stitch: Some(stitch),
            needle: Some((size, point)),
            thread: Some(thread),
            foot: Some(foot),
            iron: None,
        }
    }

    /// A seam: 2.5 mm in general, 2 to 2.5 in light cloth, 3 in heavy; what gives in a knit.
    pub fn seam(cloth: &Cloth) -> Self {
        let stitch = match (cloth.structure, cloth.weight) {
            (Structure::Knit, _) => (StitchKind::NarrowZigzag, [25, 25]),
            (Structure::Woven, Weight::Light) => (StitchKind::Lockstitch, [20, 25]),
            (Structure::Woven, Weight::Medium) => (StitchKind::Lockstitch, [25, 25]),
            (Structure::Woven, Weight::Heavy) => (StitchKind::Lockstitch, [30, 30]),
        };
        let thread =
            if cloth.structure == Structure::Knit { ThreadKind::Polyester } else { ThreadKind::Matching };
        Self::machine(cloth, stitch, thread)
    }

    /// Basting: 4 to 5 mm by machine, or running stitches by hand.
    pub fn basting(cloth: &Cloth, by_hand: bool) -> Self {
        match by_hand {
            true => Self {
                stitch: Some((StitchKind::Running, [80, 100])),
                thread: Some(ThreadKind::FineCotton),
                ..Self::NONE
            },
            false => Self::machine(cloth, (StitchKind::BastingStitch, [40, 50]), ThreadKind::FineCotton),
        }
    }

    /// A raw edge: overlocked in a knit, else a zigzag, widest in heavy cloth.
    pub fn finish(cloth: &Cloth) -> Self {
        match cloth.structure {
            Structure::Knit => Self::machine(cloth, (StitchKind::Overlock, [25, 25]), ThreadKind::Polyester),
            Structure::Woven => Self::machine(cloth, (StitchKind::Zigzag, [20, 30]), ThreadKind::Matching),
        }
    }

    /// A hem: two rows in a knit, by hand, or a straight stitch.
    pub fn hem(cloth: &Cloth, by_hand: bool) -> Self {
        match (cloth.structure, by_hand) {
            (_, true) => Self {
                stitch: Some((StitchKind::Slip, [60, 100])),
                thread: Some(ThreadKind::Matching),
                ..Self::NONE
            },
            (Structure::Knit, false) => {
                Self::machine(cloth, (StitchKind::Coverstitch, [30, 30]), ThreadKind::Polyester)
            }
            (Structure::Woven, false) => Self::seam(cloth),
        }
    }

    /// By hand with matching thread.
    pub fn hand() -> Self {
        Self { thread: Some(ThreadKind::Matching), ..Self::NONE }
    }

    /// With another foot.
    #[must_use]
    pub fn under(self, foot: Foot) -> Self {
        Self { foot: Some(foot), ..self }
    }

    /// At the iron: by what the cloth takes; wool, which is warm and not light, with steam and a cloth.
    pub fn iron(cloth: &Cloth) -> Self {
        let iron = match (cloth.structure, cloth.heat) {
            (_, Heat::Cool) => IronUse::Cool,
            (Structure::Knit, _) => IronUse::Knit,
            (Structure::Woven, Heat::Warm) if cloth.weight != Weight::Light => IronUse::WarmSteamCloth,
            (Structure::Woven, Heat::Warm) => IronUse::Warm,
            (Structure::Woven, Heat::Hot) => IronUse::Hot,
        };
        Self { iron: Some(iron), ..Self::NONE }
    }
}

/// It slides, or shows every hole: it is basted by hand (teaching value: a machine's basting drags fluid cloth and marks what shows holes).
pub fn is_basted_by_hand(cloth: &Cloth) -> bool {
    cloth.drape == Drape::Fluid || cloth.shows_holes
}
