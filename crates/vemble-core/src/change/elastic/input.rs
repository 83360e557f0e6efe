//! What is entered for elastic: where it is drawn in, how long its casing runs, and how tightly it holds.

use crate::change::Input;
use crate::choice::choice;
use crate::garment::Garment;
use crate::length::Measure;
use crate::place::Level;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

choice! {
    /// Where elastic is drawn in.
    #[derive(Default)]
    ElasticAt {
        #[default]
        Waistband => "waistband",
    }
}

/// Elastic drawn into a stretch of a band, between two slits on its inside.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ElasticChange {
    /// Where it is drawn in.
    #[serde(default)]
    pub at: ElasticAt,
    /// How long the casing runs, from slit to slit; nothing until somebody says so.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub casing: Option<Measure>,
    /// Stretched ÷ relaxed, in percent: 110 to 125, 115 when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hold_percent: Option<u8>,
}

impl Input for ElasticChange {
    type Key = ElasticAt;

    fn of(at: ElasticAt) -> Self {
        Self { at, casing: None, hold_percent: None }
    }

    fn key(&self) -> ElasticAt {
        self.at
    }

    fn name(_: &Garment, at: ElasticAt) -> String {
        format!("elastic in the {}", at.name())
    }

    /// Where there is a waist to hold; whether there is a band to draw it into is judged once it is wanted.
    fn fits(garment: &Garment, at: ElasticAt) -> bool {
        match at {
            ElasticAt::Waistband => garment.level(Level::Waist).is_some(),
        }
    }

    fn reads_from(_: ElasticAt) -> (&'static str, [&'static str; 2]) {
        ("slit", ["one", "other"])
    }
}
