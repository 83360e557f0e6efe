//! Seams: each joins two edges, and most exist left and right.

use crate::choice::choice;
use crate::length::{Length, Measure, Tape};
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// A seam of a garment.
    Seam {
        /// The outer leg seam, hem to waist.
        Outseam => "outseam",
        /// The inner leg seam, hem to crotch.
        Inseam => "inseam",
        /// The seam between the legs behind, crotch to waist.
        SeatSeam => "seat seam",
        /// The seam between the legs in front, crotch to waist or fly.
        FrontRise => "front rise",
        /// Under the arm, hem to armhole.
        SideSeam => "side seam",
        /// Down the middle in front.
        CentreFront => "centre-front seam",
        /// Down the middle behind.
        CentreBack => "centre-back seam",
        /// Over the bust, in front.
        PrincessFront => "front princess seam",
        /// Over the shoulder blade, behind.
        PrincessBack => "back princess seam",
        /// Any other long seam in front.
        PanelFront => "front panel seam",
        /// Any other long seam behind.
        PanelBack => "back panel seam",
        /// From neck to shoulder tip.
        ShoulderSeam => "shoulder seam",
        /// Where the sleeve is set in.
        ArmholeSeam => "armhole seam",
        /// Along the under side of the sleeve.
        SleeveSeam => "sleeve seam",
        /// Along the outer back of a two-piece sleeve.
        SleeveBackSeam => "sleeve back seam",
        /// Across the back or the seat, below a yoke.
        YokeSeam => "yoke seam",
        /// Round the waist, between bodice and skirt.
        WaistSeam => "waist seam",
        /// Round the neck, where a collar or band is set on.
        NeckSeam => "neck seam",
    }
}

/// Which way a seam runs, and on what.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Run {
    /// Down the trunk or a leg: what it gives or takes changes girths.
    Down,
    /// Down a sleeve.
    DownSleeve,
    /// Across or around: it changes lengths and edges.
    Across,
}

impl Seam {
    /// The two edges it joins, by what each is part of. What a document calls front comes first, and is the one nearer the centre
    /// of a seam within the front or the back, the garment's left of a seam down the middle, the upper of one across.
    pub const fn edges(self) -> [&'static str; 2] {
        match self {
            Self::PrincessFront | Self::PrincessBack | Self::PanelFront | Self::PanelBack => {
                ["centre panel", "side panel"]
            }
            Self::SeatSeam | Self::FrontRise | Self::CentreFront | Self::CentreBack => ["left", "right"],
            Self::SleeveBackSeam => ["upper sleeve", "under sleeve"],
            Self::ArmholeSeam => ["armhole", "sleeve"],
            Self::YokeSeam | Self::WaistSeam | Self::NeckSeam => ["upper", "lower"],
            Self::Outseam | Self::Inseam | Self::SideSeam | Self::ShoulderSeam | Self::SleeveSeam => {
                ["front", "back"]
            }
        }
    }

    /// It exists once, not left and right.
    pub const fn is_single(self) -> bool {
        match self {
            Self::SeatSeam
            | Self::FrontRise
            | Self::CentreFront
            | Self::CentreBack
            | Self::YokeSeam
            | Self::WaistSeam
            | Self::NeckSeam => true,
            Self::Outseam
            | Self::Inseam
            | Self::SideSeam
            | Self::PrincessFront
            | Self::PrincessBack
            | Self::PanelFront
            | Self::PanelBack
            | Self::ShoulderSeam
            | Self::ArmholeSeam
            | Self::SleeveSeam
            | Self::SleeveBackSeam => false,
        }
    }

    /// It has a left and a right: it exists twice, or lies across and has two halves.
    pub const fn has_sides(self) -> bool {
        !self.is_single() || matches!(self.run(), Run::Across)
    }

    /// It runs level round the body: each half from the middle in front to the middle behind.
    pub const fn is_level(self) -> bool {
        self.is_single() && matches!(self.run(), Run::Across)
    }

    /// Its length is measured all round, while stations are of each half.
    pub const fn goes_round(self) -> bool {
        matches!(self, Self::WaistSeam | Self::NeckSeam)
    }

    /// Which way it runs.
    pub const fn run(self) -> Run {
        match self {
            Self::ShoulderSeam | Self::ArmholeSeam | Self::YokeSeam | Self::WaistSeam | Self::NeckSeam => {
                Run::Across
            }
            Self::SleeveSeam | Self::SleeveBackSeam => Run::DownSleeve,
            Self::Outseam
            | Self::Inseam
            | Self::SeatSeam
            | Self::FrontRise
            | Self::SideSeam
            | Self::CentreFront
            | Self::CentreBack
            | Self::PrincessFront
            | Self::PrincessBack
            | Self::PanelFront
            | Self::PanelBack => Run::Down,
        }
    }

    /// Where its stations are measured from.
    pub const fn datum(self) -> &'static str {
        match self {
            Self::SeatSeam | Self::FrontRise => "crotch",
            Self::ShoulderSeam => "neck",
            Self::ArmholeSeam => "underarm",
            Self::SleeveSeam | Self::SleeveBackSeam => "sleeve hem",
            Self::YokeSeam | Self::WaistSeam | Self::NeckSeam => "centre front",
            Self::Outseam
            | Self::Inseam
            | Self::SideSeam
            | Self::CentreFront
            | Self::CentreBack
            | Self::PrincessFront
            | Self::PrincessBack
            | Self::PanelFront
            | Self::PanelBack => "hem",
        }
    }

    /// Where it ends, away from its datum.
    pub const fn top(self) -> &'static str {
        match self {
            Self::Outseam | Self::SeatSeam | Self::FrontRise => "waist",
            Self::Inseam => "crotch",
            Self::SideSeam | Self::SleeveSeam => "underarm",
            Self::CentreFront | Self::CentreBack => "neck",
            Self::PrincessFront | Self::PrincessBack | Self::PanelFront | Self::PanelBack => "top",
            Self::ShoulderSeam => "shoulder tip",
            Self::ArmholeSeam => "shoulder tip",
            Self::SleeveBackSeam => "armhole",
            Self::YokeSeam | Self::WaistSeam | Self::NeckSeam => "centre back",
        }
    }
}

choice! {
    /// How the raw edges of a seam are finished.
    #[derive(Default)]
    Finish {
        /// Pressed open, edges raw or pinked.
        #[default]
        Open => "open, raw or pinked",
        /// Both edges overcast together.
        SergedTogether => "overcast together",
        /// Each edge overcast by itself, pressed open.
        SergedOpen => "overcast, pressed open",
        /// Edges wrapped in a strip.
        Bound => "bound",
        /// Folded into each other and stitched flat.
        FlatFelled => "flat-felled",
        /// Sewn twice, raw edges inside.
        French => "French",
    }
}

impl Finish {
    /// Both allowances lie on one side.
    pub const fn is_to_one_side(self) -> bool {
        match self {
            Self::SergedTogether | Self::FlatFelled | Self::French | Self::Bound => true,
            Self::Open | Self::SergedOpen => false,
        }
    }

    /// It gives nothing before it is opened flat.
    pub const fn must_be_opened(self) -> bool {
        match self {
            Self::FlatFelled | Self::French | Self::Bound => true,
            Self::Open | Self::SergedTogether | Self::SergedOpen => false,
        }
    }
}

/// Something that an altered seam may run into.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct InTheWay {
    /// What it is: pocket opening, belt loop, label, topstitching.
    pub what: String,
    /// Where it begins on the seam.
    pub from: Measure,
    /// Where it ends on the seam.
    pub to: Measure,
}

/// What is inside at one place of a seam.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AllowanceAt {
    /// Where, from the datum.
    pub station: Measure,
    /// On the front edge, of the garment's left or of both.
    pub front: Measure,
    /// On the back edge.
    pub back: Measure,
    /// On the front edge of the garment's right, where that is another.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right_front: Option<Measure>,
    /// On the back edge of the garment's right, where that is another.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right_back: Option<Measure>,
}

impl AllowanceAt {
    /// On both edges of the left, or of the right.
    fn edges(&self, right: bool) -> [Length; 2] {
        let of = |own: Measure, other: Option<Measure>| other.filter(|_| right).unwrap_or(own).length;
        [of(self.front, self.right_front), of(self.back, self.right_back)]
    }
}

/// A seam as it was found.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SeamFacts {
    /// Which seam.
    pub seam: Seam,
    /// What it is called on this garment, where that is not its usual name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Its length from its datum to its other end; all round of a waist seam and a neck seam.
    pub length: Measure,
    /// The allowance found inside, on each edge; on the front edge where `allowance_back` differs.
    pub allowance: Measure,
    /// The allowance on the back edge, where it is another.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub allowance_back: Option<Measure>,
    /// What is inside along it where that is not the same everywhere: after it was taken in, let out or trimmed. Straight from place to
    /// place, and as everywhere beyond the outermost. From the datum on.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub along: Vec<AllowanceAt>,
    /// Cuts were made into the allowance: it gives only to the clip.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub clipped: bool,
    /// Of clipped allowances: what the cuts leave whole, from the stitching to where they end.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clips_leave: Option<Measure>,
    /// The two allowances were trimmed to different widths.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub graded: bool,
    /// How its raw edges are finished.
    #[serde(default)]
    pub finish: Finish,
    /// Stitched again on the right side.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub topstitched: bool,
    /// What lies across it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub in_the_way: Vec<InTheWay>,
    /// Nobody looked inside yet.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub assumed: bool,
}

impl SeamFacts {
    /// What it is called on this garment.
    pub fn name(&self) -> &str {
        self.name.as_deref().unwrap_or_else(|| self.seam.name())
    }

    /// Its last station, from the datum: all of its length, and half of that where it goes all round and each half has stations of its own: the last mark of the tape
    /// that it was measured with, so that nothing is shown beyond it.
    pub fn end(&self) -> Length {
        if !self.seam.goes_round() {
            return self.length.length;
        }
        let (half, mark) =
            (self.length.length.fraction(1, 2), Tape::default().speaking(self.length.unit).mark());
        let near = half.nearest(mark);
        if near > half { near - mark } else { near }
    }

    /// The smaller of the two allowances where it has least: what letting out by equal edges may count on.
    pub fn least_allowance(&self) -> Measure {
        let along =
            self.along.iter().flat_map(|at| [Some(at.front), Some(at.back), at.right_front, at.right_back]);
        let all = [Some(self.allowance), self.allowance_back].into_iter().chain(along).flatten();
        all.min_by_key(|m| m.length).unwrap_or(self.allowance)
    }

    /// The most that is inside anywhere.
    pub fn most_allowance(&self) -> Length {
        let along = self.along.iter().flat_map(|at| at.edges(false).into_iter().chain(at.edges(true)));
        along.chain([self.allowance.length]).max().unwrap_or_default()
    }

    /// What is inside on both edges at a station, of the garment's left or right, at the marks of a tape: no more than there is.
    pub fn allowance_at(&self, station: Length, right: bool, tape: Tape) -> [Length; 2] {
        let everywhere =
            [self.allowance, self.allowance_back.unwrap_or(self.allowance)].map(|m| tape.round(m.length));
        let above = self.along.partition_point(|at| at.station.length < station);
        let at = |n: usize| self.along.get(n).map(|at| (at.station.length, at.edges(right)));
        match (above.checked_sub(1).and_then(at), at(above)) {
            (_, Some((there, edges))) if there == station => edges.map(|edge| tape.round(edge)),
            (Some((low, from)), Some((high, to))) => [0, 1].map(|edge| {
                let share = (station - low).cm() / (high - low).cm();
                let exact = from[edge] + Length::from_cm((to[edge] - from[edge]).cm() * share);
                -(-exact).up_to(tape.mark())
            }),
            _ => everywhere,
        }
    }
}

/// A seam of a kind: from its datum level up to where it ends.
#[derive(Clone, Copy, Debug)]
pub struct SeamSpec {
    /// Which seam.
    pub seam: Seam,
    /// The level at its datum.
    pub from: Level,
    /// The level at its other end.
    pub to: Level,
    /// Usual allowance on each edge in mm, until somebody looks inside.
    pub allowance_mm: i64,
    /// Usual finish.
    pub finish: Finish,
}

/// A row of a kind's seams.
pub const fn seam(seam: Seam, from: Level, to: Level, allowance_mm: i64, finish: Finish) -> SeamSpec {
    SeamSpec { seam, from, to, allowance_mm, finish }
}
