//! The change that a sign leads to: begun with a figure to try, which the next pins replace.

use crate::change::armhole::{ArmholeAt, ArmholeChange};
use crate::change::dart::DartChange;
use crate::change::elastic::{ElasticAt, ElasticChange};
use crate::change::hem::HemChange;
use crate::change::seam::SeamChange;
use crate::change::spacing::SpacingChange;
use crate::change::trunk::{TrunkAt, TrunkChange};
use crate::change::{Change, ChangeKey, Input};
use crate::fitting::{FrontShare, GarmentSide, How, Reading};
use crate::garment::{Closure, Dart, Garment, HemEdge, Seam};
use crate::length::{Length, Measure, Tape, Taught};
use crate::place::Level;

/// So much is tried first, off each edge or at a shoulder: 6 mm, 1/4 in (teaching value: what one sees at once and loses nothing by).
const FIRST: Taught = Taught::new(6, 16);

/// Where a sign leads.
#[derive(Clone, Copy, Debug)]
pub(super) enum Lead {
    /// The first of these seams that the garment has is taken in at a level.
    Takes(&'static [Seam], Level),
    /// It is let out there.
    Lets(&'static [Seam], Level),
    /// It is let out there on its front edge alone.
    LetsFront(&'static [Seam], Level),
    /// On its back edge alone.
    LetsBack(&'static [Seam], Level),
    /// A pair of darts is taken deeper.
    Darts(Dart),
    /// The first of these pairs that the garment has is let out.
    DartsOut(&'static [Dart]),
    /// Shoulder, armhole or sleeve.
    Armhole(Move),
    /// A fold across the trunk, or an edge at the waist that is moved.
    Trunk(Across),
    /// The lower edge is marked anew.
    HemLevel,
    /// The waist is drawn in.
    Elastic,
    /// Fastenings are spaced anew.
    Spaced,
}

/// What is done across the trunk.
#[derive(Clone, Copy, Debug)]
pub(super) enum Across {
    /// A fold above the waist, most in the middle behind.
    Wedge,
    /// Shorter above the waist, all round.
    Shorter,
    Longer,
    /// More or less between waist and crotch.
    HigherRise,
    LowerRise,
}

/// What is done to a shoulder, an armhole or a sleeve.
#[derive(Clone, Copy, Debug)]
pub(super) enum Move {
    Slope,
    Square,
    PadsIn,
    Shorten,
    Forward,
    Gape,
    FrontIn,
    BackIn,
    BackOut,
    Raise,
    Widen,
    CapEase,
    PitchForward,
    PitchBack,
}

impl Lead {
    /// The change on a garment, with the figure that is tried first. Nothing where the garment cannot be changed so.
    pub fn change(self, garment: &Garment, tape: Tape) -> Option<Change> {
        let first = FIRST.on(tape);
        let typed = |length: Length| tape.figure(length).measure();
        match self {
            Self::Takes(seams, level) => {
                pinned(garment, seams, level, How::Fold, typed(first)).map(Into::into)
            }
            Self::Lets(seams, level) => {
                pinned(garment, seams, level, How::Gap, typed(first * 2)).map(Into::into)
            }
            Self::LetsFront(seams, level) | Self::LetsBack(seams, level) => {
                let share =
                    if matches!(self, Self::LetsFront(..)) { FrontShare::ALL } else { FrontShare::NONE };
                let change = pinned(garment, seams, level, How::Gap, typed(first))?;
                Some(SeamChange { front_share: Some(share), ..change }.into())
            }
            Self::Darts(dart) => folded(garment, &[dart], How::Fold, typed(fold(tape))),
            Self::DartsOut(darts) => folded(garment, darts, How::Gap, typed(fold(tape) * 2)),
            Self::Armhole(step) => {
                let fits = ArmholeChange::fits(garment, ArmholeAt::Both);
                let has_sleeve = garment.level(Level::UpperArm).is_some();
                fits.then(|| step.of(typed(first), typed(-first), has_sleeve)).flatten().map(Into::into)
            }
            Self::Trunk(across) => {
                let at = across.at();
                let (more, less) = (Some(typed(first * 2)), Some(typed(-first)));
                let none = TrunkChange::of(at);
                let change = match across {
                    Across::Wedge => TrunkChange { back: more, ..none },
                    Across::Shorter | Across::LowerRise => TrunkChange { side: Some(typed(first)), ..none },
                    Across::Longer | Across::HigherRise => TrunkChange { side: less, ..none },
                };
                TrunkChange::fits(garment, at).then_some(change.into())
            }
            Self::HemLevel => {
                let edge =
                    [HemEdge::Body, HemEdge::Leg].into_iter().find(|edge| HemChange::fits(garment, *edge))?;
                Some(HemChange::of(edge).into())
            }
            Self::Elastic => ElasticChange::fits(garment, ElasticAt::default())
                .then(|| ElasticChange::of(ElasticAt::default()).into()),
            Self::Spaced => {
                let closes = |closure: Closure| matches!(closure, Closure::Buttons | Closure::Hooks);
                let at = garment
                    .closures
                    .iter()
                    .find(|c| closes(c.closure) && SpacingChange::fits(garment, c.at))?
                    .at;
                Some(SpacingChange::of(at).into())
            }
        }
    }

    /// What is tried, in words.
    pub fn says(self, garment: &Garment, key: ChangeKey, tape: Tape) -> String {
        let name = key.name(garment);
        let [first, twice] = [1, 2].map(|n| tape.show(FIRST.on(tape) * n));
        let fold = tape.show(fold(tape));
        match self {
            Self::Takes(_, level) => {
                format!("Take the {name} in by {first} per edge at the {}, and see", level.name())
            }
            Self::Lets(_, level) => {
                format!("Let the {name} out by {first} per edge at the {}, and see", level.name())
            }
            Self::LetsFront(_, level) => {
                format!("Let the front edge of the {name} out by {first} at the {}, and see", level.name())
            }
            Self::LetsBack(_, level) => {
                format!("Let the back edge of the {name} out by {first} at the {}, and see", level.name())
            }
            Self::Darts(_) => format!("Fold each {name} {fold} deeper, and see"),
            Self::DartsOut(_) => format!("Fold each {name} {fold} less deep, and see"),
            Self::Armhole(step) => format!("{}, and see", step.says(&first)),
            Self::Trunk(Across::Wedge) => format!("Take {twice} out behind, above the waist, and see"),
            Self::Trunk(Across::Shorter) => format!("Shorten it by {first} above the waist, and see"),
            Self::Trunk(Across::Longer) => format!("Lengthen it by {first} above the waist, and see"),
            Self::Trunk(Across::HigherRise) => format!("Raise its upper edge by {first}, and see"),
            Self::Trunk(Across::LowerRise) => format!("Lower its upper edge by {first}, and see"),
            Self::HemLevel => format!("Mark the {name} anew"),
            Self::Elastic => format!("Try {name}"),
            Self::Spaced => format!("Space the {name} anew"),
        }
    }
}

impl Across {
    const fn at(self) -> TrunkAt {
        match self {
            Self::Wedge | Self::Shorter | Self::Longer => TrunkAt::AboveWaist,
            Self::HigherRise | Self::LowerRise => TrunkAt::Rise,
        }
    }
}

impl Move {
    fn says(self, first: &str) -> String {
        match self {
            Self::Slope => format!("Take {first} off each edge of the shoulder seams at the tip"),
            Self::Square => format!("Let the shoulder seams out by {first} per edge at the tip"),
            Self::PadsIn => format!("Put pads in, {first} thick"),
            Self::Shorten => format!("Shorten the shoulders by {first}"),
            Self::Forward => format!("Move the shoulder seams {first} forward at the tip"),
            Self::Gape => format!("Pinch {first} out of the neckline on each side"),
            Self::FrontIn => format!("Bring the armholes in by {first} in front"),
            Self::BackIn => format!("Bring the armholes in by {first} behind"),
            Self::BackOut => format!("Let the armholes out by {first} behind"),
            Self::Raise => format!("Raise the armholes by {first}"),
            Self::Widen => format!("Widen the sleeves by {first} all round at the upper arm"),
            Self::CapEase => format!("Shape the caps to {first} of ease"),
            Self::PitchForward => format!("Turn the notch of the caps {first} to the front"),
            Self::PitchBack => format!("Turn the notch of the caps {first} to the back"),
        }
    }

    fn of(self, first: Measure, back: Measure, has_sleeve: bool) -> Option<ArmholeChange> {
        let none = ArmholeChange::of(ArmholeAt::Both);
        let (more, less) = (Some(first), Some(back));
        let needs_sleeve = matches!(self, Self::Widen | Self::CapEase | Self::PitchForward | Self::PitchBack);
        if needs_sleeve && !has_sleeve {
            return None;
        }
        Some(match self {
            Self::Slope => ArmholeChange { slope: more, ..none },
            Self::Square => ArmholeChange { slope: less, ..none },
            Self::PadsIn => ArmholeChange { pads_out: less, ..none },
            Self::Shorten => ArmholeChange { shorten: more, ..none },
            Self::Forward => ArmholeChange { forward: more, ..none },
            Self::Gape => ArmholeChange { gape: more, ..none },
            Self::FrontIn => ArmholeChange { front_in: more, ..none },
            Self::BackIn => ArmholeChange { back_in: more, ..none },
            Self::BackOut => ArmholeChange { back_in: less, ..none },
            Self::Raise => ArmholeChange { raise: more, ..none },
            Self::Widen => ArmholeChange { widen: more, ..none },
            Self::CapEase => ArmholeChange { cap_ease: more, ..none },
            Self::PitchForward => ArmholeChange { pitch: more, ..none },
            Self::PitchBack => ArmholeChange { pitch: less, ..none },
        })
    }
}

const fn reading(side: GarmentSide, station: Measure, how: How, amount: Measure) -> Reading {
    Reading { id: None, side, station, amount, how }
}

/// What the fold of a dart is changed by first: half of that, and a mark at least.
fn fold(tape: Tape) -> Length {
    tape.round(FIRST.on(tape).fraction(1, 2)).max(tape.mark())
}

/// The first of the pairs of darts that the garment has, pinned at its base.
fn folded(garment: &Garment, darts: &[Dart], how: How, amount: Measure) -> Option<Change> {
    let own = |dart: &Dart| garment.darts.iter().find(|facts| facts.dart == *dart);
    let facts = darts.iter().find_map(own)?;
    let readings = GarmentSide::BOTH.map(|side| reading(side, facts.length, how, amount)).into();
    Some(DartChange { readings, ..DartChange::of(facts.dart) }.into())
}

/// A pin on the first of the seams that reaches a level: on both sides, or one where it is a single seam.
fn pinned(garment: &Garment, seams: &[Seam], level: Level, how: How, amount: Measure) -> Option<SeamChange> {
    garment.level(level)?;
    let reaches = |seam: Seam| {
        let facts = garment.seam(seam)?;
        let station = garment.station_on(seam, level)?.clamp(Length::ZERO, facts.end());
        SeamChange::fits(garment, seam).then_some((seam, station))
    };
    let (seam, station) = seams.iter().find_map(|seam| reaches(*seam))?;
    let station = Measure { length: station, unit: amount.unit };
    let sides = if seam.is_single() { &GarmentSide::BOTH[..1] } else { &GarmentSide::BOTH[..] };
    let readings = sides.iter().map(|side| reading(*side, station, how, amount)).collect();
    Some(SeamChange { readings, ..SeamChange::of(seam) })
}
