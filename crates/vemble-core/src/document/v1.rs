//! Version 1 of the document, as it was released, and how it is brought up: one garment in one state, changes in three lists, and checks
//! that are passed over known by their words of then. What stands here follows no later wording.

use super::{Document, State};
use crate::body::Wearer;
use crate::change::dart::DartChange;
use crate::change::elastic::{ElasticAt, ElasticChange};
use crate::change::seam::SeamChange;
use crate::change::{Change, ChangeKey, On, draw};
use crate::choice::choice;
use crate::fitting::{EndOf, GarmentSide, HemMark, MovementTest, Observation, PinnedBy, Reading, Shut, Worn};
use crate::garment::{
    ClosureFacts, Cloth, Collar, Dart, DartFacts, Found, Garment, GarmentLevel, HemFacts, Kind, Neckline,
    Pocket, Round, Run, Seam, SeamFacts,
};
use crate::judge::{FindingKey, Partner, Rule, Subject, girths, judge_in_turn};
use crate::length::{Measure, Tape};
use crate::place::Level;
use crate::try_on::{LeftOut, PassedOver, TryOn, Version, Why};
use serde::Deserialize;
use uuid::Uuid;

/// A document of version 1.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct DocumentV1 {
    #[expect(dead_code, reason = "whoever reads it knows it already; it has to be there")]
    version: u32,
    garment: GarmentV1,
    #[serde(default)]
    try_ons: Vec<TryOnV1>,
}

#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct GarmentV1 {
    name: String,
    kind: Kind,
    #[serde(default)]
    toile: bool,
    wearer: Wearer,
    cloth: Cloth,
    levels: Vec<GarmentLevel>,
    #[serde(default)]
    waistband_depth: Option<Measure>,
    #[serde(default)]
    belt_loops: u8,
    #[serde(default)]
    sleeve_length: Option<Measure>,
    #[serde(default)]
    neckline: Option<Neckline>,
    #[serde(default)]
    collar: Option<Collar>,
    seams: Vec<SeamFacts>,
    #[serde(default)]
    darts: Vec<DartFacts>,
    #[serde(default)]
    hems: Vec<HemFacts>,
    #[serde(default)]
    closures: Vec<ClosureFacts>,
    #[serde(default)]
    pockets: Vec<Pocket>,
    #[serde(default)]
    found: Found,
}

/// A try-on of version 1.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct TryOnV1 {
    #[serde(default)]
    id: Option<Uuid>,
    date: jiff::civil::Date,
    #[serde(default)]
    worn: Worn,
    #[serde(default)]
    pinned_by: PinnedBy,
    #[serde(default)]
    layers: String,
    #[serde(default)]
    shoes: String,
    #[serde(default)]
    shut: Option<Shut>,
    #[serde(default)]
    posture: String,
    #[serde(default)]
    conditions: String,
    #[serde(default)]
    alterations: Vec<SeamChange>,
    #[serde(default)]
    darts: Vec<DartChange>,
    #[serde(default)]
    elastic: Option<ElasticV1>,
    #[serde(default)]
    versions: Vec<VersionV1>,
    #[serde(default)]
    passed_over: Vec<PassedOverV1>,
    #[serde(default)]
    hem_marks: Vec<HemMark>,
    #[serde(default)]
    observations: Vec<Observation>,
    #[serde(default)]
    movements: Vec<MovementTest>,
    #[serde(default)]
    left_out: Vec<LeftOutV1>,
    #[serde(default)]
    closed: bool,
}

#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct ElasticV1 {
    casing: Measure,
    #[serde(default)]
    hold_percent: Option<u8>,
}

#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct VersionV1 {
    name: String,
    #[serde(default)]
    alterations: Vec<SeamChange>,
    #[serde(default)]
    darts: Vec<DartChange>,
    #[serde(default)]
    elastic: Option<ElasticV1>,
}

#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct PassedOverV1 {
    check: String,
    why: String,
}

#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct LeftOutV1 {
    seam: Seam,
    side: GarmentSide,
    level: Level,
    why: Why,
}

choice! {
    /// The rules of version 1, by which its checks were told apart.
    RuleV1 {
        Sides => "sides",
        Turned => "turned",
        Ease => "ease",
        Movement => "movement",
        Opening => "opening",
        RunOut => "run_out",
        Kink => "kink",
        CarriedOn => "carried_on",
        Capacity => "capacity",
        Kept => "kept",
        InTheWay => "in_the_way",
        Hang => "hang",
        Partners => "partners",
        Dart => "dart",
        Elastic => "elastic",
    }
}

impl DocumentV1 {
    /// The same in the present version: its garment is the one state of it, which everything was measured on.
    pub fn brought_up(self) -> Document {
        let GarmentV1 {
            name,
            kind,
            toile,
            wearer,
            cloth,
            levels,
            waistband_depth,
            belt_loops,
            sleeve_length,
            neckline,
            collar,
            seams,
            darts,
            hems,
            closures,
            pockets,
            found,
        } = self.garment;
        let garment = Garment {
            name,
            kind,
            toile,
            cloth,
            levels,
            waistband_depth,
            belt_loops,
            sleeve_length,
            across_back: None,
            neckline,
            collar,
            seams,
            darts,
            hems,
            gathered: Vec::new(),
            closures,
            pockets,
            found,
        };
        let up = |try_on: TryOnV1| try_on.brought_up(Uuid::nil(), &garment, &wearer);
        let try_ons = self.try_ons.into_iter().map(up).collect();
        let states = vec![State::first(Uuid::nil(), garment)];
        Document { try_ons, ..Document::of_states(wearer, states) }
    }
}

impl TryOnV1 {
    /// Puts back the readings of its seams, where they were kept elsewhere: those of the seam of each number.
    ///
    /// # Errors
    /// What `readings` fails with.
    pub fn with_readings<E>(
        mut self,
        readings: impl Fn(usize) -> Result<Vec<Reading>, E>,
    ) -> Result<Self, E> {
        for (number, alteration) in self.alterations.iter_mut().enumerate() {
            alteration.readings = readings(number)?;
        }
        Ok(self)
    }

    /// The same in the present version, measured on `state`, which is this garment on this wearer. Seams keep their numbers.
    pub fn brought_up(self, state: Uuid, garment: &Garment, wearer: &Wearer) -> TryOn {
        let Self { alterations, darts, elastic, versions, passed_over, left_out, .. } = self;
        let version =
            |v: VersionV1| Version { name: v.name, changes: changes(v.alterations, v.darts, v.elastic) };
        let out = |l: LeftOutV1| LeftOut {
            change: ChangeKey::Seam(l.seam),
            side: l.side,
            level: l.level,
            why: l.why,
        };
        let mut try_on = TryOn {
            id: self.id,
            state,
            date: self.date,
            worn: self.worn,
            pinned_by: self.pinned_by,
            layers: self.layers,
            shoes: self.shoes,
            shut: self.shut,
            posture: self.posture,
            conditions: self.conditions,
            wanted: Vec::new(),
            changes: changes(alterations, darts, elastic),
            versions: versions.into_iter().map(version).collect(),
            passed_over: Vec::new(),
            chalked: Vec::new(),
            hem_marks: self.hem_marks,
            observations: self.observations,
            movements: self.movements,
            left_out: left_out.into_iter().map(out).collect(),
            closed: self.closed,
        };
        if !passed_over.is_empty() {
            let keys = keys(&try_on, garment, wearer);
            let found =
                passed_over.into_iter().filter_map(|p| Some((finding(&p.check, garment, &keys)?, p.why)));
            try_on.passed_over = found.map(|(finding, why)| PassedOver { finding, why }).collect();
        }
        try_on
    }
}

/// The three lists of version 1 as one.
fn changes(seams: Vec<SeamChange>, darts: Vec<DartChange>, elastic: Option<ElasticV1>) -> Vec<Change> {
    let elastic = elastic.map(|e| ElasticChange {
        at: ElasticAt::Waistband,
        casing: Some(e.casing),
        hold_percent: e.hold_percent,
    });
    let seams = seams.into_iter().map(Change::Seam);
    seams.chain(darts.into_iter().map(Change::Dart)).chain(elastic.map(Change::Elastic)).collect()
}

/// The keys of every finding there is on a try-on, in the order in which version 1 numbered checks of one title; then of every other
/// there could be: what is passed over stays so though nothing is found there today.
pub(super) fn keys(try_on: &TryOn, garment: &Garment, wearer: &Wearer) -> Vec<FindingKey> {
    let garment = &*garment.with_levels_in_order(wearer);
    let drawn = draw(On { garment, wearer, hem_marks: &try_on.hem_marks, keeps_all: false }, &try_on.changes)
        .unwrap_or_default();
    let subject = Subject {
        changes: &drawn,
        put_on: try_on.put_on(),
        ..Subject::as_it_is(garment, wearer, Tape::default())
    };
    let mut keys: Vec<FindingKey> =
        judge_in_turn(&subject, &girths(&subject)).into_iter().map(|finding| finding.key).collect();
    let sides = [None, Some(GarmentSide::Left), Some(GarmentSide::Right)];
    for rule in Rule::ALL.iter().copied() {
        for side in sides {
            for level in Level::ALL {
                keys.push(FindingKey { level: Some(*level), side, ..FindingKey::of(rule) });
            }
            for change in ChangeKey::all() {
                let key = FindingKey { side, ..FindingKey::about(rule, change) };
                keys.push(key);
                keys.extend(EndOf::ALL.iter().map(|end| FindingKey { end: Some(*end), ..key }));
                keys.extend(Partner::ALL.iter().map(|partner| FindingKey { partner: Some(*partner), ..key }));
            }
        }
    }
    let things = garment.seams.iter().flat_map(|s| s.in_the_way.iter().map(|thing| (s.seam, thing.from)));
    keys.extend(things.map(|(seam, from)| FindingKey {
        at: Some(from),
        ..FindingKey::about(Rule::InTheWay, ChangeKey::Seam(seam))
    }));
    keys
}

/// The finding that a check of version 1 was about: `run_out: Run-out of the outseam, both sides (2)`.
pub(super) fn finding(check: &str, garment: &Garment, keys: &[FindingKey]) -> Option<FindingKey> {
    let (name, number) = match check.strip_suffix(')').and_then(|check| check.rsplit_once(" (")) {
        Some((name, number)) => number.parse::<usize>().map_or((check, 1), |number| (name, number)),
        None => (check, 1),
    };
    let mut matching: Vec<&FindingKey> = Vec::new();
    for key in keys {
        let is_it = name_v1(key, garment).is_some_and(|(rule, title)| {
            name.split_once(": ").is_some_and(|(word, rest)| word == rule.word() && rest == title)
        });
        if is_it && !matching.iter().any(|known| known.is(key)) {
            matching.push(key);
        }
    }
    matching.get(number.saturating_sub(1)).or(matching.last()).map(|key| **key)
}

/// What version 1 called a finding: its rule and its title of then. Nothing for what it did not know.
pub(super) fn name_v1(key: &FindingKey, garment: &Garment) -> Option<(RuleV1, String)> {
    use RuleV1 as V;
    let side = match key.side {
        None => "both sides",
        Some(GarmentSide::Left) => "the garment's left",
        Some(GarmentSide::Right) => "the garment's right",
    };
    let of_level = || {
        let level = key.level?;
        let limb = match (garment.round(level), key.side) {
            (Round::Whole, _) => return Some(level.name().to_owned()),
            (Round::Leg, None) => "each leg",
            (Round::Leg, Some(GarmentSide::Left)) => "left leg",
            (Round::Leg, Some(GarmentSide::Right)) => "right leg",
            (Round::Sleeve, None) => "each sleeve",
            (Round::Sleeve, Some(GarmentSide::Left)) => "left sleeve",
            (Round::Sleeve, Some(GarmentSide::Right)) => "right sleeve",
        };
        Some(format!("{}, {limb}", level.name()))
    };
    let name = || Some(key.change?.name(garment));
    let seam = || if let ChangeKey::Seam(seam) = key.change? { Some((seam, name()?)) } else { None };
    let dart = || if let ChangeKey::Dart(_) = key.change? { name() } else { None };
    let of_seam = |words: &str| Some(format!("{words} the {}, {side}", seam()?.1));
    Some(match (key.rule, key.partner) {
        (Rule::Sides, _) => (
            V::Sides,
            match dart() {
                Some(dart) => format!("Left and right {dart}"),
                None => format!("Left and right of the {}", seam()?.1),
            },
        ),
        (Rule::Turned, _) => (V::Turned, format!("The {}, pinned inside out on an uneven body", seam()?.1)),
        (Rule::Ease, _) => (V::Ease, format!("Ease at the {}", of_level()?)),
        (Rule::Movement, _) => {
            let doing = if key.level? == Level::UpperArm { "Bending the elbow" } else { "Sitting" };
            (V::Movement, format!("{doing}, at the {}", of_level()?))
        }
        (Rule::Opening, _) => {
            let over = if garment.hangs_from_shoulders() { "head and shoulders" } else { "hips" };
            let title = match key.level? {
                Level::Hem => format!("Foot through the {}", of_level()?),
                Level::SleeveHem => format!("Hand through the {}", of_level()?),
                Level::Waist => format!("Pulling it on over the {over}"),
                Level::Neck
                | Level::Shoulder
                | Level::Bust
                | Level::UnderBust
                | Level::Hip
                | Level::Thigh
                | Level::Knee
                | Level::Calf
                | Level::Ankle
                | Level::UpperArm
                | Level::Elbow
                | Level::Wrist => return None,
            };
            (V::Opening, title)
        }
        (Rule::RunOut, _) => match dart() {
            Some(dart) => (V::Dart, format!("Point of the {dart}")),
            None if key.end.is_some() => (V::RunOut, of_seam("Run-out of")?),
            None => return None,
        },
        (Rule::Kink, _) => (V::Kink, of_seam("Bends of")?),
        (Rule::CarriedOn, _) if key.end.is_none() || seam().is_none() => return None,
        (Rule::CarriedOn, _) => (V::CarriedOn, format!("Carried on to the edge, {side}")),
        (Rule::Capacity, _) => match dart() {
            Some(dart) => (V::Dart, format!("Letting out the {dart}")),
            None => (V::Capacity, of_seam("Letting out")?),
        },
        (Rule::Kept, Some(Partner::CutLine)) => return None,
        (Rule::Kept, _) => (V::Kept, of_seam("What stays inside")?),
        (Rule::InTheWay, Some(Partner::Pockets)) => {
            (V::InTheWay, format!("Gap between the {}", garment.back_pockets()?.name()))
        }
        (Rule::InTheWay, _) => {
            let (at, seam) = (key.at?.length, garment.seam(seam()?.0)?);
            let thing = seam.in_the_way.iter().find(|thing| thing.from.length == at)?;
            (V::InTheWay, format!("In the way: {}", thing.what))
        }
        (Rule::Hang, _) => match (key.change, key.level) {
            (Some(_), _) => {
                let (seam, name) = seam()?;
                let limb = if seam.run() == Run::DownSleeve { "sleeve" } else { "leg" };
                (V::Hang, format!("Grain of the {limb} at the {name}, {side}"))
            }
            (None, Some(Level::Waist)) => (V::Hang, "Hang of the waist".into()),
            (None, level) => (V::Hang, format!("Hang at the {}", level?.name())),
        },
        (Rule::Partners, Some(Partner::OtherEdge)) => (V::Partners, of_seam("Edges of")?),
        (Rule::Partners, Some(Partner::Sleeve)) => (V::Partners, format!("Sleeve and armhole, {side}")),
        (Rule::Partners, Some(Partner::Band)) => {
            (V::Partners, format!("Waistband and {}, {side}", seam()?.1))
        }
        (Rule::Partners, Some(Partner::Lining)) => (V::Partners, format!("Lining and {}", seam()?.1)),
        (Rule::Partners, Some(Partner::Seam)) => {
            let of = |seam| {
                format!("The {} and the {}", dart().unwrap_or_default(), ChangeKey::Seam(seam).name(garment))
            };
            let ChangeKey::Dart(dart) = key.change? else { return None };
            let ends_in = match dart {
                Dart::Bust => Seam::SideSeam,
                Dart::Shoulder => Seam::ShoulderSeam,
                Dart::FrontWaist | Dart::BackWaist | Dart::OuterFrontWaist | Dart::OuterBackWaist => {
                    return None;
                }
                Dart::FrontFishEye | Dart::BackFishEye => return None,
            };
            (V::Dart, of(ends_in))
        }
        (Rule::Partners, Some(Partner::Pockets | Partner::CutLine | Partner::EndsIn) | None) => return None,
        (Rule::Partners, Some(Partner::AtTheEdge | Partner::TheEdge | Partner::AboveTheEdge)) => return None,
        (Rule::Partners, Some(Partner::Vent | Partner::Slit | Partner::Beneath | Partner::Cap)) => {
            return None;
        }
        // There were no hems then.
        (
            Rule::Level
            | Rule::Marks
            | Rule::Readings
            | Rule::Fullness
            | Rule::Shrinkage
            | Rule::Bulk
            | Rule::Crease
            | Rule::Spacing,
            _,
        ) => {
            return None;
        }
        (Rule::Depth, _) => (V::Dart, format!("Depth of the {}", dart()?)),
        (Rule::Placement, _) => (V::Dart, format!("Where the {} ends", dart()?)),
        (Rule::Gathers, _) => (V::Elastic, "Elastic in the waistband".into()),
    })
}
