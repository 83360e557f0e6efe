//! What is entered for one pair of darts: its pins, and where a new one lies.

use crate::change::Input;
use crate::fitting::{Reading, SidePolicy};
use crate::garment::{Dart, Garment};
use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What was pinned on a pair of darts: what is added to the fold depth, with the point as it will lie at 0. Of a dart with two points it is the upper
/// one. A dart that is let out has gaps.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DartChange {
    /// Which pair; one that the garment does not have yet is a new one.
    pub dart: Dart,
    /// The pins, in the order they were read.
    #[serde(default)]
    pub readings: Vec<Reading>,
    /// How the two sides are made to agree; chosen from the readings when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sides: Option<SidePolicy>,
    /// How high above the hem its point lies, the upper one of two; of a pair that is there only where it is moved.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub point: Option<Measure>,
    /// How high above the hem its other end lies, at a seam or edge, or the lower point of two; of a pair that is there only where it is
    /// moved.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub base: Option<Measure>,
    /// Of a new pair: how far each lies from its side seam.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from_side_seam: Option<Measure>,
}

impl DartChange {
    /// A pair of darts with nothing pinned on it yet.
    pub const fn of(dart: Dart) -> Self {
        Self { dart, readings: Vec::new(), sides: None, point: None, base: None, from_side_seam: None }
    }
}

impl Input for DartChange {
    type Key = Dart;

    const EDGES: &'static str = "sides of the fold";
    const HAS_PANELS: bool = false;

    fn of(dart: Dart) -> Self {
        Self::of(dart)
    }

    fn key(&self) -> Dart {
        self.dart
    }

    fn name(garment: &Garment, dart: Dart) -> String {
        match garment.darts.iter().find(|facts| facts.dart == dart) {
            Some(facts) => facts.name().into(),
            None => format!("new {}", dart.name()),
        }
    }

    /// Those it has; and new ones where there is something for them to shape: a bust or a shoulder blade only on what hangs from the
    /// shoulders, a waist only where there is one.
    fn fits(garment: &Garment, dart: Dart) -> bool {
        let has = |level| garment.level(level).is_some();
        garment.darts.iter().any(|facts| facts.dart == dart)
            || match dart {
                Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => {
                    has(Level::Waist)
                }
                Dart::FrontFishEye | Dart::BackFishEye => has(Level::Waist) && garment.goes_above_waist(),
                Dart::Bust => has(Level::Bust),
                Dart::Shoulder => garment.hangs_from_shoulders(),
            }
    }

    fn from_words(_: Dart) -> String {
        "its point".into()
    }

    fn reads_from(dart: Dart) -> (&'static str, [&'static str; 2]) {
        // A fold has no front and back.
        (if dart.has_two_points() { "upper point" } else { "point" }, ["one side", "other side"])
    }

    fn readings(&self) -> &[Reading] {
        &self.readings
    }

    fn readings_mut(&mut self) -> &mut [Reading] {
        &mut self.readings
    }

    fn set_readings(&mut self, readings: Vec<Reading>) {
        self.readings = readings;
    }

    fn policy_mut(&mut self) -> Option<&mut SidePolicy> {
        self.sides.as_mut()
    }
}
