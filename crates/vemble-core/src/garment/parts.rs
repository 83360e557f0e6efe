//! Parts of a garment other than its seams: darts, hems, closures, pockets, neckline, lining; and what was found out.

use super::seam::Seam;
use crate::choice::choice;
use crate::length::Measure;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// Where a dart is. Darts come in pairs, left and right.
    Dart {
        FrontWaist => "front waist dart",
        BackWaist => "back waist dart",
        FrontFishEye => "front fish-eye dart",
        BackFishEye => "back fish-eye dart",
        Bust => "bust dart",
        Shoulder => "back shoulder dart",
        OuterFrontWaist => "outer front waist dart",
        OuterBackWaist => "outer back waist dart",
    }
}

impl Dart {
    /// The second pair beside it, nearer the side seams, of those that come in two pairs.
    pub const fn outer(self) -> Option<Self> {
        match self {
            Self::FrontWaist => Some(Self::OuterFrontWaist),
            Self::BackWaist => Some(Self::OuterBackWaist),
            Self::OuterFrontWaist
            | Self::OuterBackWaist
            | Self::FrontFishEye
            | Self::BackFishEye
            | Self::Bust
            | Self::Shoulder => None,
        }
    }

    /// It begins at the waist and has one point.
    pub const fn is_of_the_waist(self) -> bool {
        matches!(self, Self::FrontWaist | Self::BackWaist | Self::OuterFrontWaist | Self::OuterBackWaist)
    }

    /// It takes from girths: a bust or shoulder dart runs across and takes from lengths.
    pub const fn runs_up_and_down(self) -> bool {
        !matches!(self, Self::Bust | Self::Shoulder)
    }

    /// Both its ends are free.
    pub const fn has_two_points(self) -> bool {
        matches!(self, Self::FrontFishEye | Self::BackFishEye)
    }

    /// It ends in the seam or the edge at the waist.
    pub const fn is_at_the_waist(self) -> bool {
        matches!(self, Self::FrontWaist | Self::BackWaist | Self::OuterFrontWaist | Self::OuterBackWaist)
    }

    /// It lies in front.
    pub const fn is_in_front(self) -> bool {
        matches!(self, Self::FrontWaist | Self::OuterFrontWaist | Self::FrontFishEye | Self::Bust)
    }
}

/// A pair of darts as found.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DartFacts {
    /// Which pair.
    pub dart: Dart,
    /// What it is called on this garment, where that is not its usual name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Half of what each dart takes in at its widest: measured folded.
    pub fold_depth: Measure,
    /// From its seam to its point, or from point to point.
    pub length: Measure,
    /// How far from the middle of the garment it is sewn, at its widest.
    pub from_centre: Measure,
    /// Nobody measured it yet.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub assumed: bool,
}

impl DartFacts {
    /// What it is called on this garment.
    pub fn name(&self) -> &str {
        self.name.as_deref().unwrap_or_else(|| self.dart.name())
    }
}

choice! {
    /// The edge that a hem finishes.
    HemEdge {
        Body => "lower edge",
        Leg => "each leg",
        Sleeve => "each sleeve",
    }
}

choice! {
    /// How a hem is turned and held.
    HemTurn {
        NarrowDouble => "narrow double turn",
        Double => "double turn",
        Deep => "deep turn, raw edge tucked in",
        SingleFinished => "single turn, edge finished",
        Blind => "blind hem",
        Rolled => "rolled hem",
        Faced => "faced",
        Bound => "bound edge",
        Coverstitched => "two rows, as on knits",
        Fused => "held with fusible web",
        Cuff => "turned-up cuff",
        Band => "set-on band or cuff",
        Kept => "original edge kept, with a tuck behind it",
    }
}

impl HemTurn {
    /// Its turns in mm, inner first (teaching values of hem schemes): the picture of the turn-up is drawn from these.
    pub const fn turns_mm(self) -> &'static [i64] {
        match self {
            Self::NarrowDouble => &[6, 6],
            Self::Double => &[10, 10],
            Self::Deep => &[10, 30],
            Self::SingleFinished | Self::Fused => &[30],
            Self::Blind => &[10, 40],
            Self::Rolled => &[3, 3],
            Self::Faced => &[6],
            Self::Bound | Self::Kept => &[],
            Self::Coverstitched => &[22],
            Self::Cuff => &[40, 35],
            Self::Band => &[10],
        }
    }

    /// How much cloth is folded up inside, inner turn and all.
    pub fn turn_up_mm(self) -> i64 {
        self.turns_mm().iter().sum()
    }
}

choice! {
    /// What holds a hem.
    StitchedBy {
        Hand => "by hand",
        Machine => "by machine",
    }
}

/// A hem as found.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HemFacts {
    /// Which edge.
    pub edge: HemEdge,
    /// How it is turned.
    pub turn: HemTurn,
    /// Cloth folded up inside, with any inner turn.
    pub turn_up: Measure,
    /// How far its stitching lies above the fold; by how it is turned when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub visible: Option<Measure>,
    /// How high a vent or slit goes that is there, up from the fold; none when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub vent: Option<Measure>,
    /// How it is stitched.
    pub by: StitchedBy,
    /// Nobody looked at it yet.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub assumed: bool,
}

impl HemFacts {
    /// How far its stitching lies above the fold: as measured, or what its turns make of the turn-up.
    pub fn shows(&self) -> crate::length::Length {
        let turns = self.turn.turns_mm();
        let outer = turns.last().copied().unwrap_or(0);
        let by_turns = self.turn_up.length.fraction(outer, self.turn.turn_up_mm().max(1));
        self.visible.map_or(by_turns, |visible| visible.length).min(self.turn_up.length)
    }
}

choice! {
    /// What opens and closes.
    Closure {
        Zip => "zip",
        InvisibleZip => "concealed zip",
        Buttons => "buttons",
        Hooks => "hooks and eyes",
        Lacing => "lacing",
        Elastic => "elastic",
        Wrap => "wraps over",
        Ties => "ties",
    }
}

impl Closure {
    /// What it is fastened by, one after the other.
    pub const fn fastenings(self) -> &'static str {
        match self {
            Self::Lacing => "eyelets",
            Self::Zip
            | Self::InvisibleZip
            | Self::Buttons
            | Self::Hooks
            | Self::Elastic
            | Self::Wrap
            | Self::Ties => self.name(),
        }
    }
}

choice! {
    /// Where it opens.
    Opening {
        CentreFront => "centre front",
        CentreBack => "centre back",
        LeftSide => "left side",
        Waist => "round the waist",
        Cuff => "at the cuffs",
    }
}

impl Opening {
    /// What opens there opens in this seam.
    pub const fn is_in(self, seam: Seam) -> bool {
        match self {
            Self::CentreFront => matches!(seam, Seam::CentreFront | Seam::FrontRise),
            Self::CentreBack => matches!(seam, Seam::CentreBack | Seam::SeatSeam),
            Self::LeftSide => matches!(seam, Seam::SideSeam | Seam::Outseam),
            Self::Cuff => matches!(seam, Seam::SleeveSeam),
            Self::Waist => false,
        }
    }
}

/// A closure.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClosureFacts {
    /// What it is.
    pub closure: Closure,
    /// Where it is.
    pub at: Opening,
    /// How many buttons, hooks or eyelets.
    #[serde(default)]
    pub count: u8,
}

choice! {
    /// A pocket. Pockets come in pairs but for the breast pocket.
    Pocket {
        Slant => "slant pockets",
        InSeam => "pockets in the seam",
        Patch => "patch pockets",
        FrontScoop => "curved front pockets",
        BackPatch => "back patch pockets",
        BackWelt => "back welt pockets",
        Welt => "welt pockets",
        Flap => "flap pockets",
        Breast => "breast pocket",
    }
}

choice! {
    /// The edge at the neck.
    Neckline {
        None => "none: it hangs from the waist",
        Round => "round",
        High => "high",
        Boat => "wide",
        V => "V",
        Square => "square",
        Wrap => "wrapped over",
        Strapless => "no straps",
    }
}

choice! {
    /// What stands round the neck.
    Collar {
        None => "no collar",
        Band => "knitted or cut band",
        Stand => "stand-up collar",
        Shirt => "shirt collar on a stand",
        Flat => "flat round collar",
        Notched => "notched lapels",
    }
}

choice! {
    /// How far it is lined.
    Lined {
        No => "not lined",
        Partly => "partly lined",
        Fully => "fully lined",
    }
}

choice! {
    /// Where a lining can be opened to get inside.
    LiningOpens {
        AtHem => "at the hem, stitched by hand",
        InSleeve => "a closed gap in one sleeve lining",
        AtFacing => "along a facing",
        Nowhere => "nowhere yet: one must be made",
    }
}

choice! {
    /// How it came here.
    Origin {
        NewlyBought => "bought new",
        Thrifted => "second-hand",
        Inherited => "inherited",
        HomeMade => "made at home",
    }
}

choice! {
    /// How often it was washed.
    Washed {
        Never => "never",
        Once => "once",
        Often => "three times or more",
    }
}

choice! {
    /// An edge that cannot simply be cut.
    SpecialEdge {
        Plain => "plain",
        Border => "a border print",
        Scallops => "scallops",
        Sequins => "sequins or beads",
        Worn => "worn, to be kept",
    }
}

choice! {
    /// How a waistband is made.
    Band {
        OnePiece => "one piece all round",
        CentreBackSeam => "with a seam at the centre back",
        Separate => "soft outside, a stiffened band inside",
        Elastic => "elastic in a casing",
    }
}

/// What was found out about the whole garment. Everything may be unknown.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Found {
    /// How it came here.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub origin: Option<Origin>,
    /// How often it was washed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub washed: Option<Washed>,
    /// How far it is lined.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lined: Option<Lined>,
    /// Where its lining can be opened.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lining_opens: Option<LiningOpens>,
    /// What its lower edge is like.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub edge: Option<SpecialEdge>,
    /// Its print, nap or check runs one way or must match.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub one_way: Option<bool>,
    /// It is cut on the bias, or in a circle.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub on_the_bias: Option<bool>,
    /// It protects: flame-resistant, high-visibility, motorcycle or life-saving gear, a harness.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub protective: Option<bool>,
    /// How its waistband is made.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub band: Option<Band>,
    /// From the inner edge of one back pocket to the other.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub back_pockets_apart: Option<Measure>,
    /// Stains, faded places, old fold lines, repairs, in the sewist's words.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub remarks: String,
}
