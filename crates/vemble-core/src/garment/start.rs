//! Starting measurements: a garment of a kind as it usually is on a wearer, every figure assumed until it is measured.

use super::kind::{HemAt, Kind, SleeveTo, Start};
use super::parts::{ClosureFacts, Dart, DartFacts, HemFacts};
use super::seam::{Seam, SeamFacts, SeamSpec};
use super::{Cloth, Garment, GarmentLevel, Width};
use crate::body::{BodyMeasurement, Landmark, Proportions, Wearer};
use crate::length::{Length, Measure, Tape, Unit};
use crate::place::Level;
use serde::{Deserialize, Serialize};
use std::borrow::Cow;
use utoipa::ToSchema;

/// What one has to say to begin a garment.
#[derive(Clone, Debug, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Beginning {
    /// What it is called on the rail.
    pub name: String,
    /// What sort of garment it is.
    pub kind: Kind,
    /// A trial garment in cheap cloth.
    #[serde(default)]
    pub toile: bool,
    /// Who will wear it: levels start from their body.
    pub wearer: Wearer,
    /// What it is made of.
    pub cloth: Cloth,
}

/// An underarm lies so far above the bust level (drawing value).
pub(crate) const UNDERARM_ABOVE_BUST: f64 = 3.0;
/// A dart in front that nobody placed ends so far below the bust: 3 cm (teaching value: on every tape more than it has to stay off the bust point).
pub(crate) const BELOW_BUST: Length = Length::from_mm(30);
/// And no dart is shorter, in mm (teaching value).
const SHORTEST: i64 = 50;
/// A neckline that goes round so much more than the neck, in cm, still lies at its foot (teaching value: what a shirt has).
const NECK_EASE: f64 = 3.0;
/// A crotch lies so far above the thigh level (drawing value).
const CROTCH_ABOVE_THIGH: f64 = 2.0;

/// A garment of a kind as it usually is on its wearer: girths are the body's with the usual ease, stations follow the
/// wearer's own landmarks, allowances and hems are what is usual. All of it is marked as assumed.
pub fn begin(beginning: Beginning) -> Garment {
    let Beginning { name, kind, toile, wearer, cloth } = beginning;
    let template = kind.template();
    let mut garment = Garment {
        name,
        kind,
        toile,
        cloth,
        levels: Vec::new(),
        waistband_depth: template.waistband_mm.map(mm),
        belt_loops: if toile { 0 } else { template.loops },
        sleeve_length: None,
        across_back: None,
        neckline: None,
        collar: None,
        seams: Vec::new(),
        darts: Vec::new(),
        hems: Vec::new(),
        gathered: Vec::new(),
        closures: Vec::new(),
        pockets: if toile { Vec::new() } else { template.pockets.to_vec() },
        found: Default::default(),
    };
    let body = Proportions::of(&wearer);
    let sleeve = template.sleeve.map(|to| sleeve_length(&body, to));
    let levels = template.levels.iter().map(|&(level, start)| GarmentLevel {
        level,
        station: cm(station(&body, template.hem, sleeve, level).max(0.0)),
        width: width(&body, &garment, level, start),
        assumed: true,
    });
    garment.levels = levels.collect();
    garment.sleeve_length = sleeve.map(cm);
    let seams = template.seams.iter().map(|spec| starting_seam(&garment, &body, spec));
    garment.seams = seams.collect();
    let darts = template.darts.iter().map(|&(dart, [fold_depth, length, from_centre])| DartFacts {
        dart,
        name: None,
        fold_depth: mm(fold_depth),
        length: mm(length.min(longest(&garment, dart).unwrap_or(length))),
        from_centre: mm(from_centre),
        assumed: true,
    });
    garment.darts = darts.collect();
    let hems = template.hems.iter().map(|&(edge, turn, by)| HemFacts {
        visible: None,
        vent: None,
        edge,
        turn,
        turn_up: mm(turn.turn_up_mm()),
        by,
        assumed: true,
    });
    garment.hems = hems.collect();
    let closures = template.closures.iter().map(|&(closure, at, count)| ClosureFacts { closure, at, count });
    garment.closures = closures.collect();
    garment
}

/// How long a dart may be that goes up from the waist, in mm: to below the bust in front, to the bust line behind. Nothing of any other.
fn longest(garment: &Garment, dart: Dart) -> Option<i64> {
    let [bust, waist] =
        [Level::Bust, Level::Waist].map(|level| garment.level(level).map(|l| l.station.length));
    let below = if dart.is_in_front() { BELOW_BUST } else { Length::ZERO };
    let room = ((bust? - waist? - below).cm() * 10.0) as i64;
    match dart {
        Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => {
            Some(room.max(SHORTEST))
        }
        Dart::FrontFishEye | Dart::BackFishEye => Some(2 * room.max(SHORTEST)),
        Dart::Bust | Dart::Shoulder => None,
    }
}

/// A seam that a kind has, as it usually is on this garment.
pub(crate) fn starting_seam(garment: &Garment, body: &Proportions<'_>, spec: &SeamSpec) -> SeamFacts {
    SeamFacts {
        seam: spec.seam,
        name: None,
        length: cm(seam_length(garment, body, spec)),
        along: Vec::new(),
        allowance: mm(spec.allowance_mm),
        allowance_back: None,
        clipped: false,
        clips_leave: None,
        graded: false,
        finish: spec.finish,
        topstitched: garment.kind.template().topstitched.contains(&spec.seam),
        in_the_way: Vec::new(),
        assumed: true,
    }
}

impl Garment {
    /// The garment with its assumed levels out of the way of its measured ones: whoever measures from the top down must not
    /// be told that a shoulder lies above a neck nobody measured.
    ///
    /// An assumed level that lies between what is below it and the next measured one stays. Others are spread evenly below
    /// that one; above the last measured one they lie as far up as on the body.
    pub fn with_levels_in_order(&self, wearer: &Wearer) -> Cow<'_, Self> {
        if self.levels.iter().all(|l| l.assumed) || self.levels.iter().all(|l| !l.assumed) {
            return Cow::Borrowed(self);
        }
        let body = Proportions::of(wearer);
        let mut garment = self.clone();
        for of_sleeve in [false, true] {
            let mut column: Vec<&mut GarmentLevel> =
                garment.levels.iter_mut().filter(|l| l.level.is_of_sleeve() == of_sleeve).collect();
            column.sort_by_key(|l| std::cmp::Reverse(l.level));
            for n in 1..column.len() {
                let (below, station) = (column[n - 1].station.length, column[n].station.length);
                let next = column[n..].iter().position(|l| !l.assumed);
                let above = next.map(|up| (up, column[n + up].station.length));
                let fits = below < station && above.is_none_or(|(_, above)| station < above);
                if !column[n].assumed || fits {
                    continue;
                }
                column[n].station.length = match above {
                    Some((assumed, above)) => below + (above - below).fraction(1, assumed as i64 + 1),
                    None => {
                        let up = |level| body.up_at(level);
                        let gap = up(column[n].level).zip(up(column[n - 1].level)).map(|(a, b)| a - b);
                        below + Length::from_cm(gap.filter(|g| *g > 0.5).unwrap_or(4.0))
                    }
                };
            }
        }
        Cow::Owned(garment)
    }
}

fn mm(mm: i64) -> Measure {
    Measure { length: Length::from_mm(mm), unit: Unit::Cm }
}

/// To the nearest half centimetre: nobody should take an assumed figure for a measured one.
fn cm(cm: f64) -> Measure {
    Measure { length: Length::from_cm(cm).nearest(Length::from_mm(5)), unit: Unit::Cm }
}

fn sleeve_length(body: &Proportions<'_>, to: SleeveTo) -> f64 {
    let arm = body.cm(BodyMeasurement::ArmLength);
    match to {
        SleeveTo::UpperArm => 0.38 * arm,
        SleeveTo::Wrist(past) => arm + past as f64 / 10.0,
    }
}

/// How far up from its hem a level lies, in cm.
fn station(body: &Proportions<'_>, hem: HemAt, sleeve: Option<f64>, level: Level) -> f64 {
    if let Some(length) = sleeve.filter(|_| level.is_of_sleeve()) {
        let arm = body.cm(BodyMeasurement::ArmLength);
        // The fullest part of the arm lies at a quarter of its length, the elbow at 0.57 (drawing values).
        return match level {
            Level::UpperArm => length - 0.26 * arm,
            Level::Elbow => length - 0.57 * arm,
            Level::Wrist => length - arm,
            Level::Neck
            | Level::Shoulder
            | Level::Bust
            | Level::UnderBust
            | Level::Waist
            | Level::Hip
            | Level::Thigh
            | Level::Knee
            | Level::Calf
            | Level::Ankle
            | Level::Hem
            | Level::SleeveHem => 0.0,
        };
    }
    let hem = match hem {
        HemAt::Floor(mm) => mm as f64 / 10.0,
        HemAt::Landmark(landmark, mm) => body.up(landmark) + mm as f64 / 10.0,
    };
    body.up_at(level).map_or(0.0, |up| up - hem)
}

fn width(body: &Proportions<'_>, garment: &Garment, level: Level, start: Start) -> Width {
    // Whoever measures will lay it flat; only a neck is measured along its edge.
    let round = |girth: f64| {
        if level == Level::Neck { Width::Girth(cm(girth)) } else { Width::LaidFlat(cm(girth / 2.0)) }
    };
    match start {
        Start::UsualEase => {
            let Some(what) = garment.body_at(level) else { return round(40.0) };
            let girth = Length::from_cm(body.cm(what));
            let ease =
                garment.ease_wanted(level, girth, Tape::default()).map_or(Length::ZERO, |band| band.middle());
            round((girth + ease).cm())
        }
        Start::Over(what, mm) => round(body.cm(what) + mm as f64 / 10.0),
        Start::AcrossShoulders(mm) => Width::LaidFlat(cm(across_shoulders(body) + mm as f64 / 10.0)),
    }
}

/// From shoulder tip to shoulder tip, straight across, in cm: twice the shoulder length, lying at about 20°, and the
/// neck between.
pub(crate) fn across_shoulders(body: &Proportions<'_>) -> f64 {
    let neck = body.cm(BodyMeasurement::NeckGirth) / std::f64::consts::PI;
    2.0 * 0.94 * body.cm(BodyMeasurement::ShoulderLength) + neck + 2.0
}

/// How much shorter a shoulder seam is where the neckline is cut wider than a neck, in cm: of what it goes round more, about a seventh (teaching value: the rest lies
/// lower in front).
fn wider_neck(garment: &Garment, body: &Proportions<'_>) -> f64 {
    let round = garment.level(Level::Neck).filter(|_| garment.is_neck_its_edge());
    let more = round.map_or(0.0, |level| level.width.girth().cm() - body.cm(BodyMeasurement::NeckGirth));
    (0.15 * (more - NECK_EASE)).clamp(0.0, body.cm(BodyMeasurement::ShoulderLength) / 2.0)
}

/// The usual length of a seam on this garment, in cm.
fn seam_length(garment: &Garment, body: &Proportions<'_>, spec: &SeamSpec) -> f64 {
    let at = |level| garment.level(level).map_or(0.0, |l| l.station.length.cm());
    let girth = |level| garment.level(level).map_or(40.0, |l| l.width.girth().cm());
    let above_crotch = || at(spec.to) - body.up(Landmark::Crotch).min(at(spec.from));
    match spec.seam {
        Seam::ShoulderSeam => body.cm(BodyMeasurement::ShoulderLength) - wider_neck(garment, body),
        Seam::ArmholeSeam => 0.46 * girth(Level::Bust),
        Seam::WaistSeam => girth(Level::Waist),
        Seam::NeckSeam => girth(Level::Neck),
        Seam::YokeSeam if garment.hangs_from_shoulders() => girth(Level::Shoulder) / 2.0,
        Seam::YokeSeam => girth(Level::Waist) / 2.0,
        Seam::SeatSeam => above_crotch() + 12.0,
        Seam::FrontRise => above_crotch() + 4.0,
        Seam::SleeveSeam | Seam::SleeveBackSeam => at(spec.to).max(3.0),
        Seam::Outseam
        | Seam::Inseam
        | Seam::SideSeam
        | Seam::CentreFront
        | Seam::CentreBack
        | Seam::PrincessFront
        | Seam::PrincessBack
        | Seam::PanelFront
        | Seam::PanelBack => {
            let beyond = if spec.to == Level::Bust {
                UNDERARM_ABOVE_BUST
            } else if spec.to == Level::Thigh {
                CROTCH_ABOVE_THIGH
            } else {
                0.0
            };
            at(spec.to) - at(spec.from) + beyond
        }
    }
    .max(1.0)
}
