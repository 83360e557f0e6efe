//! What each sign may come from, likeliest first: what to try, what confirms it, and which change it leads to. Teaching values of the craft:
//! the order is the one in which it is cheapest to be wrong.

use super::lead::{Across, Lead, Move};
use crate::body::{BodyMeasurement as B, Posture};
use crate::fitting::Sign;
use crate::garment::{Dart, Seam};
use crate::place::Level as L;

/// Something that a sign may come from.
#[derive(Clone, Copy, Debug)]
pub(super) struct Cause {
    pub why: &'static str,
    pub first: &'static str,
    pub confirms: Confirm,
    pub lead: Option<Lead>,
}

/// What tells one cause from another.
#[derive(Clone, Copy, Debug)]
pub(super) enum Confirm {
    /// There is too little ease at a level.
    Tight(L),
    /// There is more than is usual.
    Loose(L),
    /// A measurement of the body, held against the garment.
    Body(B),
    /// How the wearer stands.
    Stands(Posture),
    /// Something that is tried on the body.
    Try(&'static str),
}

use Confirm::{Body, Loose, Stands, Tight, Try};
use Lead::{Armhole, Darts, DartsOut, Elastic, HemLevel, Lets, LetsBack, LetsFront, Spaced, Takes, Trunk};

const fn c(why: &'static str, first: &'static str, confirms: Confirm, lead: Lead) -> Cause {
    Cause { why, first, confirms, lead: Some(lead) }
}

/// Something that no seam cures, or that is of one side only: which one, the pins say.
const fn no_seam(why: &'static str, first: &'static str, confirms: Confirm) -> Cause {
    Cause { why, first, confirms, lead: None }
}

const SIDES: &[Seam] = &[Seam::SideSeam, Seam::Outseam];
const DOWN_BACK: &[Seam] = &[Seam::CentreBack, Seam::SeatSeam, Seam::PrincessBack, Seam::SideSeam];
const LEGS: &[Seam] = &[Seam::Inseam, Seam::Outseam];
const IN_FRONT: &[Seam] = &[Seam::CentreFront, Seam::PrincessFront, Seam::SideSeam, Seam::Outseam];

pub(super) const fn causes(sign: Sign) -> &'static [Cause] {
    match sign {
        Sign::FoldsAcrossUpperBack => {
            const {
                &[
                    c(
                        "It is too tight across the back.",
                        "Open the back armhole seam between notch and underarm and see by how much it parts.",
                        Body(B::AcrossBackWidth),
                        Armhole(Move::BackOut),
                    ),
                    c(
                        "The shoulders are squarer than the garment’s.",
                        "Pin nothing: lift the shoulder seam at its tip and see whether the folds go.",
                        Try("The folds go when the tips are lifted."),
                        Armhole(Move::Square),
                    ),
                ]
            }
        }
        Sign::FoldsFromNeckToTip => {
            const {
                &[
                    c(
                        "The shoulders slope more than the garment’s.",
                        "Pin a wedge along the shoulder seam, nothing at the neck, most at the tip.",
                        Try("The folds go while a finger lifts the cloth at the tip."),
                        Armhole(Move::Slope),
                    ),
                    c(
                        "A shoulder pad is missing that the garment was cut for.",
                        "Slip a folded cloth under the seam.",
                        Try("With a pad it lies smooth."),
                        Armhole(Move::PadsIn),
                    ),
                    c(
                        "The shoulder seam is too long.",
                        "Feel for the tip of the bone and mark it.",
                        Body(B::ShoulderLength),
                        Armhole(Move::Shorten),
                    ),
                ]
            }
        }
        Sign::FoldsBelowBackNeck => {
            const {
                &[
                    c(
                        "The shoulders are square: the tips carry the cloth, and it heaps up at the neck.",
                        "Let the seam out at the tip.",
                        Try("It lies flat when the shoulder seam is opened at its tip."),
                        Armhole(Move::Square),
                    ),
                    no_seam(
                        "The neckline is cut too high behind.",
                        "Clip into its allowance, a few mm at a time, before anything is cut off.",
                        Try("It lies flat once it is clipped."),
                    ),
                ]
            }
        }
        Sign::NecklineGapes => {
            const {
                &[
                    c(
                        "The neckline is longer than the chest under it.",
                        "Pinch a wedge at the neck end of the shoulder seam, off the front edge.",
                        Try("A pinch of so much lets the edge lie close."),
                        Armhole(Move::Gape),
                    ),
                    c(
                        "The bust is fuller than the garment allows, and pulls the front away.",
                        "Pin the bust dart deeper.",
                        Tight(L::Bust),
                        Darts(Dart::Bust),
                    ),
                    c(
                        "The garment is too wide at the top.",
                        "Pin the centre or princess seam.",
                        Loose(L::Bust),
                        Takes(IN_FRONT, L::Bust),
                    ),
                ]
            }
        }
        Sign::ShoulderSeamBehind => {
            const {
                &[
                    c(
                        "The shoulders lie forward of the seam.",
                        "Mark where the seam should lie, from the neck to the tip.",
                        Stands(Posture::ForwardShoulder),
                        Armhole(Move::Forward),
                    ),
                    c(
                        "The front pulls: it is too tight over the bust.",
                        "Open the side seams at the bust.",
                        Tight(L::Bust),
                        Lets(SIDES, L::Bust),
                    ),
                ]
            }
        }
        Sign::StrainFromBust => {
            const {
                &[
                    c(
                        "There is too little width at the bust.",
                        "Open the side seams at the bust and let the gap show how much.",
                        Tight(L::Bust),
                        Lets(SIDES, L::Bust),
                    ),
                    c(
                        "There is too little length over the bust: its dart is too shallow.",
                        "Pin the dart deeper, from below.",
                        Try("The lines go when the hem is lifted in front."),
                        Darts(Dart::Bust),
                    ),
                ]
            }
        }
        Sign::ArmholeGapesInFront => {
            const {
                &[
                    c(
                        "The bust takes the cloth that the armhole would need.",
                        "Pinch a dart from the armhole to the bust point; sew it into the bust dart.",
                        Tight(L::Bust),
                        Darts(Dart::Bust),
                    ),
                    c(
                        "The armhole is cut too far out in front.",
                        "Pin its edge in, halfway down.",
                        Try("Pinned in, the arm still comes forward."),
                        Armhole(Move::FrontIn),
                    ),
                ]
            }
        }
        Sign::ArmholeGapesBehind => {
            const {
                &[
                    c(
                        "The upper back is rounder than the garment’s.",
                        "Pinch at the armhole; take it into the shoulder seam as a wedge.",
                        Stands(Posture::ForwardShoulder),
                        Armhole(Move::Slope),
                    ),
                    c(
                        "The armhole is cut too far out behind.",
                        "Pin its edge in, halfway down.",
                        Body(B::AcrossBackWidth),
                        Armhole(Move::BackIn),
                    ),
                ]
            }
        }
        Sign::DartAboveBustPoint => {
            const {
                &[
                    c(
                        "The bodice hangs too high: the shoulder seam takes up too much.",
                        "Open the shoulder seam and let the front down until the dart points at the bust point.",
                        Try("The dart comes right when the shoulder is let out."),
                        Armhole(Move::Square),
                    ),
                    no_seam(
                        "The dart was drawn too high.",
                        "On a toile mark the bust point: the dart is moved on paper, and for the real cloth.",
                        Try("Mark the bust point and measure down from the dart’s end."),
                    ),
                ]
            }
        }
        Sign::DartBelowBustPoint => {
            const {
                &[
                    c(
                        "The bodice hangs too low: the shoulder is too long down the front.",
                        "Pin the shoulder seam up until the dart points at the bust point.",
                        Try("The dart comes right when the shoulder is lifted."),
                        Armhole(Move::Slope),
                    ),
                    no_seam(
                        "The dart was drawn too low.",
                        "On a toile mark the bust point: the dart is moved on paper, and for the real cloth.",
                        Try("Mark the bust point and measure up from the dart’s end."),
                    ),
                ]
            }
        }
        Sign::DartPokes => {
            const {
                &[
                    c(
                        "The dart is deeper than the bust under it is full.",
                        "Let the dart out a little, and take the width in at the side.",
                        Loose(L::Bust),
                        DartsOut(&[Dart::Bust]),
                    ),
                    no_seam(
                        "Its end is sewn too bluntly.",
                        "Unpick the last 3 cm and run them out to nothing along the fold.",
                        Try("Look at the last stitches: they run along the fold for a thumb’s breadth."),
                    ),
                ]
            }
        }
        Sign::BodyRisesWithArms => {
            const {
                &[
                    c(
                        "The armhole is too low: the sleeve drags the body up.",
                        "Pin the armhole up under the arm; never cut it lower.",
                        Try("Measure from the hinge of the arm down to the seam."),
                        Armhole(Move::Raise),
                    ),
                    c(
                        "The cap is too flat for so tight a sleeve.",
                        "Open the sleeve seam under the arm.",
                        Tight(L::UpperArm),
                        Armhole(Move::Widen),
                    ),
                ]
            }
        }
        Sign::CapWrinkles => {
            const {
                &[
                    c(
                        "The cap is too narrow for the arm.",
                        "Open the sleeve seam at the upper arm.",
                        Tight(L::UpperArm),
                        Armhole(Move::Widen),
                    ),
                    c(
                        "The cap is too short: it pulls down from the tip.",
                        "Unpick the top of the cap and let it rise.",
                        Try("The wrinkles go where the cap is unpicked at its top."),
                        Armhole(Move::CapEase),
                    ),
                ]
            }
        }
        Sign::SleeveFoldsInFront => {
            const {
                &[c(
                    "The arm hangs further back than the sleeve is set.",
                    "Unpick the cap and turn its notch back.",
                    Try("Turned back by a finger’s breadth the folds go."),
                    Armhole(Move::PitchBack),
                )]
            }
        }
        Sign::SleeveFoldsBehind => {
            const {
                &[c(
                    "The arm hangs further forward than the sleeve is set.",
                    "Unpick the cap and turn its notch to the front.",
                    Stands(Posture::ForwardShoulder),
                    Armhole(Move::PitchForward),
                )]
            }
        }
        Sign::UpperArmPulls => {
            const {
                &[c(
                    "The sleeve is too tight round the upper arm.",
                    "Open its seam there, and let the gap show how much.",
                    Tight(L::UpperArm),
                    Armhole(Move::Widen),
                )]
            }
        }
        Sign::SleeveTwists => {
            const {
                &[
                    c(
                        "The sleeve is set in turned.",
                        "Unpick the cap and turn it until the lengthwise thread hangs straight.",
                        Try("Hang it: the lengthwise thread runs straight to the elbow."),
                        Armhole(Move::PitchForward),
                    ),
                    no_seam(
                        "It was cut off the grain.",
                        "Nothing cures that: cut it anew.",
                        Try("Pull a thread lengthwise: it leaves the middle of the sleeve."),
                    ),
                ]
            }
        }
        Sign::PoolAboveWaist => {
            const {
                &[
                    c(
                        "The back is longer than the wearer’s: a hollow back.",
                        "Pin a level fold above the waist, most in the middle, nothing at the sides.",
                        Stands(Posture::SwayBack),
                        Trunk(Across::Wedge),
                    ),
                    c(
                        "It is too tight at the hip and rides up.",
                        "Open the side seams at the hip and let it fall.",
                        Tight(L::Hip),
                        Lets(SIDES, L::Hip),
                    ),
                ]
            }
        }
        Sign::WaistSeamRidesUp => {
            const {
                &[
                    c(
                        "The bodice is too short.",
                        "Open the waist seam and see how far it falls short.",
                        Body(B::BackNeckToWaist),
                        Trunk(Across::Longer),
                    ),
                    c(
                        "It is too tight at the bust and is held up.",
                        "Open the side seams at the bust.",
                        Tight(L::Bust),
                        Lets(SIDES, L::Bust),
                    ),
                ]
            }
        }
        Sign::WaistSeamSinks => {
            const {
                &[
                    c(
                        "The bodice is too long for a short waist.",
                        "Pin a level fold above the waist seam, all round.",
                        Stands(Posture::ShortWaist),
                        Trunk(Across::Shorter),
                    ),
                    c(
                        "It is too loose at the waist and slides.",
                        "Pin the sides in at the waist.",
                        Loose(L::Waist),
                        Takes(SIDES, L::Waist),
                    ),
                ]
            }
        }
        Sign::SideSeamForward => {
            const {
                &[
                    c(
                        "The front is too narrow: a full abdomen takes its cloth.",
                        "Open the side seam and let out the front edge.",
                        Stands(Posture::FullAbdomen),
                        LetsFront(SIDES, L::Hip),
                    ),
                    c(
                        "The back is too wide.",
                        "Pin the back seam or its darts.",
                        Loose(L::Waist),
                        Takes(DOWN_BACK, L::Waist),
                    ),
                ]
            }
        }
        Sign::SideSeamBack => {
            const {
                &[
                    c(
                        "The back is too narrow: a full seat takes its cloth.",
                        "Open the side seam and let out the back edge.",
                        Tight(L::Hip),
                        LetsBack(SIDES, L::Hip),
                    ),
                    c(
                        "The front is too wide.",
                        "Pin a pair of darts, or the centre front seam.",
                        Loose(L::Waist),
                        Takes(IN_FRONT, L::Waist),
                    ),
                ]
            }
        }
        Sign::WaistGapesBehind => {
            const {
                &[
                    c(
                        "The back is straighter than the hollow above the seat.",
                        "Pinch the centre back, most at the top, out to nothing before the seat curves.",
                        Loose(L::Waist),
                        Takes(DOWN_BACK, L::Waist),
                    ),
                    c(
                        "Its darts are too shallow.",
                        "Pin the back darts deeper.",
                        Loose(L::Waist),
                        Darts(Dart::BackWaist),
                    ),
                    c(
                        "It is casual cloth with no seam to use.",
                        "Draw elastic into the back of the band.",
                        Try("A belt pulled close does the same."),
                        Elastic,
                    ),
                ]
            }
        }
        Sign::WaistSlides => {
            const {
                &[
                    c(
                        "The waistband is too wide.",
                        "Pin the sides or the back.",
                        Loose(L::Waist),
                        Takes(DOWN_BACK, L::Waist),
                    ),
                    c(
                        "It holds only while something draws it in.",
                        "Elastic in the band.",
                        Try("It stays up with a belt."),
                        Elastic,
                    ),
                ]
            }
        }
        Sign::WaistDigsIn => {
            const {
                &[
                    c(
                        "The waist is too tight.",
                        "Open the sides at the waist, and let the gap show how much.",
                        Tight(L::Waist),
                        Lets(SIDES, L::Waist),
                    ),
                    c(
                        "Darts take too much at the waist.",
                        "Let the darts out.",
                        Tight(L::Waist),
                        DartsOut(&[Dart::BackWaist, Dart::FrontWaist]),
                    ),
                ]
            }
        }
        Sign::HipPulls => {
            const {
                &[
                    c(
                        "It is too tight round the hip.",
                        "Open the side seams at the hip, and let the gap show how much.",
                        Tight(L::Hip),
                        Lets(SIDES, L::Hip),
                    ),
                    c(
                        "The seat needs more room than the sides.",
                        "Open the centre back seam.",
                        Body(B::HipGirthSeated),
                        Lets(DOWN_BACK, L::Hip),
                    ),
                ]
            }
        }
        Sign::HipFolds => {
            const {
                &[c(
                    "It is too wide at the hip.",
                    "Pinch the fold at the side seam.",
                    Loose(L::Hip),
                    Takes(SIDES, L::Hip),
                )]
            }
        }
        Sign::CrotchWhiskers => {
            const {
                &[
                    c(
                        "It is too tight round the thigh.",
                        "Open the inseams at the thigh.",
                        Tight(L::Thigh),
                        Lets(LEGS, L::Thigh),
                    ),
                    c(
                        "The rise is too short.",
                        "Undo the band and let it down: the whiskers go.",
                        Body(B::BodyRise),
                        Trunk(Across::HigherRise),
                    ),
                ]
            }
        }
        Sign::SmilesUnderSeat => {
            const {
                &[
                    c(
                        "The seat is flatter than the garment’s.",
                        "Pinch the inseam behind, just below the crotch.",
                        Loose(L::Thigh),
                        Takes(LEGS, L::Thigh),
                    ),
                    c(
                        "The crotch hangs too low.",
                        "Pull it up at the band: the folds go.",
                        Body(B::BodyRise),
                        Trunk(Across::LowerRise),
                    ),
                ]
            }
        }
        Sign::LegTwists => {
            const {
                &[
                    c(
                        "One edge of the leg was stretched as it was sewn, or one is longer.",
                        "Unpick the inseam below the knee and let the leg hang; pin it as it falls.",
                        Try("Unpicked below the knee the leg hangs straight."),
                        Takes(&[Seam::Inseam], L::Knee),
                    ),
                    no_seam(
                        "The leg was cut off the grain.",
                        "Nothing cures that in cloth that was cut.",
                        Try("Follow a lengthwise thread from the hem: it leaves the crease."),
                    ),
                ]
            }
        }
        Sign::CreaseSwings => {
            const {
                &[
                    c(
                        "The inseam is too tight: the crease swings in.",
                        "Open the inseam at the thigh.",
                        Tight(L::Thigh),
                        Lets(LEGS, L::Thigh),
                    ),
                    c(
                        "The outseam is too full: the crease swings out.",
                        "Pin the outseam in at the hip.",
                        Loose(L::Hip),
                        Takes(SIDES, L::Hip),
                    ),
                ]
            }
        }
        Sign::ThighPulls => {
            const {
                &[c(
                    "It is too tight round the thigh.",
                    "Open the inseam there, and let the gap show how much.",
                    Tight(L::Thigh),
                    Lets(LEGS, L::Thigh),
                )]
            }
        }
        Sign::PocketGapes => {
            const {
                &[
                    c(
                        "It is too tight at the hip, and the mouth is pulled open.",
                        "Open the side seams below the pocket.",
                        Tight(L::Hip),
                        Lets(SIDES, L::Hip),
                    ),
                    c(
                        "The mouth was stretched.",
                        "Take the slack in at the side seam, and stay the edge with tape.",
                        Try("The mouth is longer than the cloth behind it."),
                        Takes(SIDES, L::Hip),
                    ),
                ]
            }
        }
        Sign::ButtonsPull => {
            const {
                &[
                    c(
                        "It is too tight at the bust.",
                        "Let the sides out at the bust.",
                        Tight(L::Bust),
                        Lets(SIDES, L::Bust),
                    ),
                    c(
                        "No button sits at the fullest place.",
                        "Set one on the bust line, and space the others from it.",
                        Try("Pinned shut at the bust line it lies flat."),
                        Spaced,
                    ),
                ]
            }
        }
        Sign::ZipBuckles => {
            const {
                &[
                    no_seam(
                        "The seam was stretched as the zip was sewn in.",
                        "Unpick the zip, steam the seam back, baste the zip in.",
                        Try("Undone, the edges of the opening are longer than the zip."),
                    ),
                    c(
                        "The back is too long above the waist and folds where the zip is.",
                        "Pin a level fold above the waist.",
                        Stands(Posture::SwayBack),
                        Trunk(Across::Wedge),
                    ),
                ]
            }
        }
        Sign::HemRisesInFront => {
            const {
                &[
                    c(
                        "A full abdomen or bust takes up length in front.",
                        "Mark the edge from the floor all round.",
                        Stands(Posture::FullAbdomen),
                        HemLevel,
                    ),
                    c(
                        "The bust takes up length.",
                        "Open the bust dart and let the front down.",
                        Tight(L::Bust),
                        DartsOut(&[Dart::Bust]),
                    ),
                ]
            }
        }
        Sign::HemRisesBehind => {
            const {
                &[
                    c(
                        "The seat takes up length behind.",
                        "Mark the edge from the floor all round.",
                        Tight(L::Hip),
                        HemLevel,
                    ),
                    c(
                        "The back is pulled up by a round upper back.",
                        "Let it hang a day, then mark it from the floor.",
                        Stands(Posture::ForwardShoulder),
                        HemLevel,
                    ),
                ]
            }
        }
        Sign::HemDipsAtSeam => {
            const {
                &[c(
                    "Cloth on the bias has dropped there.",
                    "Let it hang a day, then mark it from the floor.",
                    Try("The dip lies where the threads run aslant."),
                    HemLevel,
                )]
            }
        }
        Sign::HemFlaresOnOneSide => {
            const {
                &[
                    no_seam(
                        "One hip is higher, or stands out more.",
                        "Pin the side seam of that side by itself.",
                        Body(B::WaistToHip),
                    ),
                    no_seam(
                        "One shoulder is lower.",
                        "Look at the shoulders first: pin a wedge on that side.",
                        Try("In a mirror one shoulder stands lower."),
                    ),
                    c(
                        "One leg is longer.",
                        "Mark the edge from the floor, on both sides.",
                        Try("Barefoot, the hip bones do not stand level."),
                        HemLevel,
                    ),
                ]
            }
        }
        Sign::LiningPulls => {
            const {
                &[c(
                    "The lining is too short for its outer.",
                    "Open its hem and let it down: slack of a finger’s breadth.",
                    Try("Hang it up: the lining shows no slack at its edge."),
                    HemLevel,
                )]
            }
        }
        Sign::LiningShows => {
            const {
                &[c(
                    "The lining is longer than its outer.",
                    "Turn it up while it hangs on the body.",
                    Try("Look while it hangs, not on the table."),
                    HemLevel,
                )]
            }
        }
    }
}
