//! What is entered for a shoulder, its armhole and its sleeve, as it is read on the body.

use crate::change::Input;
use crate::choice::choice;
use crate::fitting::GarmentSide;
use crate::garment::{Garment, Seam};
use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// Which armhole.
    ArmholeAt {
        Both => "both",
        OnLeft => "left",
        OnRight => "right",
    }
}

impl ArmholeAt {
    /// `left ` before what is on one side; nothing before what is on both.
    pub(super) const fn which(self) -> &'static str {
        match self {
            Self::Both => "",
            Self::OnLeft => "left ",
            Self::OnRight => "right ",
        }
    }

    /// The sides of the garment that it is about.
    pub const fn sides(self) -> &'static [GarmentSide] {
        match self {
            Self::Both => &GarmentSide::BOTH,
            Self::OnLeft => &[GarmentSide::Left],
            Self::OnRight => &[GarmentSide::Right],
        }
    }
}

/// What is done to a shoulder, its armhole, and the sleeve that is set into it where there is one: one change, since none of them moves alone.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ArmholeChange {
    /// Which.
    pub at: ArmholeAt,
    /// How far below the hinge of the arm the seam under the arm lies, as it was read on the body; as usual when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hinge: Option<Measure>,
    /// How much narrower the shoulder becomes at its tip; negative wider.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shorten: Option<Measure>,
    /// A wedge along the shoulder seam, from nothing at the neck to so much off each edge at the tip; negative for square shoulders. The whole
    /// armhole goes down with it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slope: Option<Measure>,
    /// How far the tip of the shoulder seam moves forward; negative back.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub forward: Option<Measure>,
    /// How thick the pads are that are taken out; negative those that are put in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pads_out: Option<Measure>,
    /// What is pinched out of the neckline in front on either side: a wedge at the neck end of the shoulder seam, off its front edge.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gape: Option<Measure>,
    /// How far the armhole comes up under the arm; negative goes down.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub raise: Option<Measure>,
    /// How far its front edge comes in, halfway down; negative goes out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub front_in: Option<Measure>,
    /// The same behind.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub back_in: Option<Measure>,
    /// How much wider each sleeve becomes at the upper arm; negative narrower.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub widen: Option<Measure>,
    /// How much wider at the elbow; it runs out there when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub widen_elbow: Option<Measure>,
    /// How long the edge of the cap is, from underarm over the top to underarm; as usual for the armhole when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cap: Option<Measure>,
    /// How much longer the cap is to be than the armhole: it is shaped anew. It keeps its edge when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cap_ease: Option<Measure>,
    /// How far the notch of the cap is turned to the front; negative to the back.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pitch: Option<Measure>,
}

choice! {
    /// A length that is entered of an armhole.
    ArmholeField {
        Hinge => "seam below the hinge of the arm",
        Cap => "edge of the cap, underarm to underarm",
        Shorten => "shorten at the tip (− widens)",
        Slope => "slope at the tip, each edge (− square)",
        Forward => "seam forward at the tip (− back)",
        PadsOut => "pads out, so thick (− pads in)",
        Gape => "pinched out of the neckline, each side",
        Raise => "raise it (− lowers)",
        FrontIn => "bring the front in (− out)",
        BackIn => "bring the back in (− out)",
        Widen => "widen at the upper arm, all round",
        WidenElbow => "widen at the elbow, all round",
        CapEase => "shape the cap to an ease of",
        Pitch => "turn the notch to the front (− back)",
    }
}

impl ArmholeField {
    /// It is of the sleeve: nothing to ask where there is none.
    pub const fn is_of_sleeve(self) -> bool {
        match self {
            Self::Cap | Self::Widen | Self::WidenElbow | Self::CapEase | Self::Pitch => true,
            Self::Hinge | Self::Shorten | Self::Slope | Self::Forward | Self::PadsOut | Self::Gape => false,
            Self::Raise | Self::FrontIn | Self::BackIn => false,
        }
    }
}

impl ArmholeChange {
    /// What was entered of a field.
    pub const fn get(&self, field: ArmholeField) -> Option<Measure> {
        match field {
            ArmholeField::Hinge => self.hinge,
            ArmholeField::Cap => self.cap,
            ArmholeField::Shorten => self.shorten,
            ArmholeField::Slope => self.slope,
            ArmholeField::Forward => self.forward,
            ArmholeField::PadsOut => self.pads_out,
            ArmholeField::Gape => self.gape,
            ArmholeField::Raise => self.raise,
            ArmholeField::FrontIn => self.front_in,
            ArmholeField::BackIn => self.back_in,
            ArmholeField::Widen => self.widen,
            ArmholeField::WidenElbow => self.widen_elbow,
            ArmholeField::CapEase => self.cap_ease,
            ArmholeField::Pitch => self.pitch,
        }
    }
}

impl Input for ArmholeChange {
    type Key = ArmholeAt;

    const HAS_PANELS: bool = false;

    fn of(at: ArmholeAt) -> Self {
        let none = None;
        Self {
            at,
            hinge: none,
            shorten: none,
            slope: none,
            forward: none,
            pads_out: none,
            gape: none,
            raise: none,
            front_in: none,
            back_in: none,
            widen: none,
            widen_elbow: none,
            cap: none,
            cap_ease: none,
            pitch: none,
        }
    }

    fn key(&self) -> ArmholeAt {
        self.at
    }

    fn name(garment: &Garment, at: ArmholeAt) -> String {
        let has_sleeve = garment.level(Level::UpperArm).is_some();
        match at {
            ArmholeAt::Both if has_sleeve => "shoulders, armholes and sleeves".into(),
            ArmholeAt::Both => "shoulders and armholes".into(),
            ArmholeAt::OnLeft | ArmholeAt::OnRight if has_sleeve => {
                format!("{} shoulder, armhole and sleeve", at.name())
            }
            ArmholeAt::OnLeft | ArmholeAt::OnRight => format!("{} shoulder and armhole", at.name()),
        }
    }

    /// Where there is an armhole that can be drawn, with or without a sleeve.
    fn fits(garment: &Garment, _: ArmholeAt) -> bool {
        let has = |level| garment.level(level).is_some();
        garment.seam(Seam::ArmholeSeam).is_some() && has(Level::Bust) && has(Level::Shoulder)
    }

    fn reads_from(_: ArmholeAt) -> (&'static str, [&'static str; 2]) {
        ("underarm", ["armhole", "sleeve"])
    }
}
