//! What the cloth says: folds, gapes and strains with names, and where each is seen.

use super::{Face, Seen};
use crate::choice::choice;
use crate::garment::{Closure, Dart, Garment, Lined, Seam};
use crate::place::Level;

choice! {
    /// Where on a body one looks for it.
    SignPlace {
        NeckAndShoulders => "neck and shoulders",
        Bust => "bust and armholes",
        Sleeve => "sleeve",
        Waist => "waist and back",
        Seat => "hip and seat",
        Legs => "crotch and legs",
        Openings => "closures and pockets",
        Edges => "hem and lining",
    }
}

choice! {
    /// What the cloth does where a garment does not fit.
    Sign {
        FoldsAcrossUpperBack => "level folds across the upper back",
        FoldsFromNeckToTip => "slanting folds from the neck to the shoulder tip",
        FoldsBelowBackNeck => "a roll of cloth below the back neck",
        NecklineGapes => "the neckline stands away in front",
        ShoulderSeamBehind => "the shoulder seam pulls to the back",
        StrainFromBust => "strain lines from the bust",
        ArmholeGapesInFront => "the armhole stands away in front",
        ArmholeGapesBehind => "the armhole stands away behind",
        DartAboveBustPoint => "the dart ends above the bust point",
        DartBelowBustPoint => "the dart points below the bust point",
        DartPokes => "the end of the dart pokes out",
        BodyRisesWithArms => "the body of it rises with the arms",
        CapWrinkles => "wrinkles on both sides of the cap",
        SleeveFoldsInFront => "slanting folds on the front of the sleeve",
        SleeveFoldsBehind => "slanting folds on the back of the sleeve",
        UpperArmPulls => "level pull lines round the upper arm",
        SleeveTwists => "the sleeve twists round the arm",
        PoolAboveWaist => "a pool of cloth above the waist behind",
        WaistSeamRidesUp => "the waist seam lies above the waist",
        WaistSeamSinks => "the waist seam lies below the waist",
        SideSeamForward => "the side seam swings forward",
        SideSeamBack => "the side seam swings back",
        WaistGapesBehind => "the waist stands away behind",
        WaistSlides => "the waistband slides down",
        WaistDigsIn => "the waist digs in",
        HipPulls => "level pull lines at the hip",
        HipFolds => "upright folds at the hip",
        CrotchWhiskers => "whiskers from the crotch",
        SmilesUnderSeat => "smiling folds under the seat",
        LegTwists => "a leg twists round",
        CreaseSwings => "the crease of the leg swings",
        ThighPulls => "level pull lines at the thigh",
        PocketGapes => "a pocket stands open",
        ButtonsPull => "it gapes between the buttons",
        ZipBuckles => "the zip buckles",
        HemRisesInFront => "the hem rises in front",
        HemRisesBehind => "the hem rises behind",
        HemDipsAtSeam => "the hem dips at a seam",
        HemFlaresOnOneSide => "the hem flares on one side",
        LiningPulls => "the lining pulls the outer up",
        LiningShows => "the lining shows below the edge",
    }
}

/// What a garment must have to show a sign.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Has {
    Shoulders,
    Armhole,
    Sleeve,
    BustDart,
    Waist,
    WaistSeam,
    /// A waist that nothing hangs it from but itself.
    WaistAlone,
    Side,
    Hip,
    Legs,
    Pockets,
    Buttons,
    Zip,
    Hem,
    Lining,
}

impl Sign {
    const fn facts(self) -> (SignPlace, Has, Seen, Level, Face) {
        use Face::{Back, Front, Side};
        use Level as L;
        use Seen::{Gape, Other, Slide, Strain, Wrinkle};
        use SignPlace as P;
        match self {
            Self::FoldsAcrossUpperBack => (P::NeckAndShoulders, Has::Shoulders, Strain, L::Shoulder, Back),
            Self::FoldsFromNeckToTip => (P::NeckAndShoulders, Has::Shoulders, Wrinkle, L::Shoulder, Front),
            Self::FoldsBelowBackNeck => (P::NeckAndShoulders, Has::Shoulders, Wrinkle, L::Neck, Back),
            Self::NecklineGapes => (P::NeckAndShoulders, Has::Shoulders, Gape, L::Neck, Front),
            Self::ShoulderSeamBehind => (P::NeckAndShoulders, Has::Shoulders, Slide, L::Shoulder, Back),
            Self::StrainFromBust => (P::Bust, Has::Shoulders, Strain, L::Bust, Front),
            Self::ArmholeGapesInFront => (P::Bust, Has::Armhole, Gape, L::Bust, Front),
            Self::ArmholeGapesBehind => (P::Bust, Has::Armhole, Gape, L::Bust, Back),
            Self::DartAboveBustPoint => (P::Bust, Has::BustDart, Other, L::Bust, Front),
            Self::DartBelowBustPoint => (P::Bust, Has::BustDart, Other, L::Bust, Front),
            Self::DartPokes => (P::Bust, Has::BustDart, Other, L::Bust, Front),
            Self::BodyRisesWithArms => (P::Bust, Has::Sleeve, Strain, L::Bust, Front),
            Self::CapWrinkles => (P::Sleeve, Has::Sleeve, Wrinkle, L::UpperArm, Front),
            Self::SleeveFoldsInFront => (P::Sleeve, Has::Sleeve, Wrinkle, L::UpperArm, Front),
            Self::SleeveFoldsBehind => (P::Sleeve, Has::Sleeve, Wrinkle, L::UpperArm, Back),
            Self::UpperArmPulls => (P::Sleeve, Has::Sleeve, Strain, L::UpperArm, Front),
            Self::SleeveTwists => (P::Sleeve, Has::Sleeve, Other, L::UpperArm, Front),
            Self::PoolAboveWaist => (P::Waist, Has::Shoulders, Wrinkle, L::Waist, Back),
            Self::WaistSeamRidesUp | Self::WaistSeamSinks => {
                (P::Waist, Has::WaistSeam, Slide, L::Waist, Front)
            }
            Self::SideSeamForward | Self::SideSeamBack => (P::Waist, Has::Side, Slide, L::Hip, Side),
            Self::WaistGapesBehind => (P::Waist, Has::WaistAlone, Gape, L::Waist, Back),
            Self::WaistSlides => (P::Waist, Has::WaistAlone, Slide, L::Waist, Front),
            Self::WaistDigsIn => (P::Waist, Has::Waist, Strain, L::Waist, Front),
            Self::HipPulls => (P::Seat, Has::Hip, Strain, L::Hip, Front),
            Self::HipFolds => (P::Seat, Has::Hip, Wrinkle, L::Hip, Front),
            Self::CrotchWhiskers => (P::Legs, Has::Legs, Strain, L::Thigh, Front),
            Self::SmilesUnderSeat => (P::Legs, Has::Legs, Wrinkle, L::Thigh, Back),
            Self::LegTwists => (P::Legs, Has::Legs, Other, L::Hem, Front),
            Self::CreaseSwings => (P::Legs, Has::Legs, Other, L::Thigh, Front),
            Self::ThighPulls => (P::Legs, Has::Legs, Strain, L::Thigh, Front),
            Self::PocketGapes => (P::Openings, Has::Pockets, Gape, L::Hip, Front),
            Self::ButtonsPull => (P::Openings, Has::Buttons, Gape, L::Bust, Front),
            Self::ZipBuckles => (P::Openings, Has::Zip, Wrinkle, L::Waist, Back),
            Self::HemRisesInFront | Self::HemRisesBehind => (P::Edges, Has::Hem, Other, L::Hem, Side),
            Self::HemDipsAtSeam | Self::HemFlaresOnOneSide => (P::Edges, Has::Hem, Other, L::Hem, Front),
            Self::LiningPulls => (P::Edges, Has::Lining, Wrinkle, L::Hem, Front),
            Self::LiningShows => (P::Edges, Has::Lining, Other, L::Hem, Front),
        }
    }

    /// Where on a body one looks for it.
    pub const fn place(self) -> SignPlace {
        self.facts().0
    }

    /// What the cloth does, at which level, and from where it is seen: what an observation of it is filled in with.
    pub const fn seen(self) -> (Seen, Level, Face) {
        let (_, _, seen, level, face) = self.facts();
        (seen, level, face)
    }

    /// A garment has what it takes to show it.
    pub fn can_show_on(self, garment: &Garment) -> bool {
        let has = |level| garment.level(level).is_some();
        let closes = |what: &[Closure]| garment.closures.iter().any(|c| what.contains(&c.closure));
        match self.facts().1 {
            Has::Shoulders => garment.hangs_from_shoulders() && has(Level::Shoulder),
            Has::Armhole => garment.seam(Seam::ArmholeSeam).is_some() && has(Level::Bust),
            Has::Sleeve => garment.seam(Seam::ArmholeSeam).is_some() && has(Level::UpperArm),
            Has::BustDart => garment.darts.iter().any(|facts| facts.dart == Dart::Bust),
            Has::Waist => has(Level::Waist),
            Has::WaistSeam => garment.seam(Seam::WaistSeam).is_some(),
            Has::WaistAlone => has(Level::Waist) && !garment.goes_above_waist(),
            Has::Side => {
                [Seam::SideSeam, Seam::Outseam].into_iter().any(|seam| garment.seam(seam).is_some())
                    && has(Level::Hip)
            }
            Has::Hip => has(Level::Hip),
            Has::Legs => garment.has_legs() && has(Level::Thigh),
            Has::Pockets => !garment.pockets.is_empty() && has(Level::Hip),
            Has::Buttons => closes(&[Closure::Buttons, Closure::Hooks]) && has(Level::Bust),
            Has::Zip => closes(&[Closure::Zip, Closure::InvisibleZip]),
            Has::Hem => garment.hems.iter().any(|hem| hem.edge != crate::garment::HemEdge::Sleeve),
            Has::Lining => matches!(garment.found.lined, Some(Lined::Fully)) && !garment.hems.is_empty(),
        }
    }
}
