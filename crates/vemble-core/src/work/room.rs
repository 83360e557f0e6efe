//! The workroom: what all garments of an account share. The evenings there are, what is to be worn when, what is in the drawer, and what
//! was learnt.

use super::practised::{Practised, Slip};
use crate::body::BodyMeasurement;
use crate::choice::choice;
use crate::fault::{Fault, Wrong};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// What all garments of an account share.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Workroom {
    /// The time zone of its evenings, by its name in the IANA time zone database: `Europe/London`.
    #[serde(default = "utc")]
    pub time_zone: String,
    /// What the sums of money are in, by its ISO 4217 code.
    #[serde(default = "pounds")]
    pub currency: String,
    /// Evenings that come every week.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub weekly: Vec<Weekly>,
    /// Evenings of a weekly pattern that fall out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub left_out: Vec<LeftOut>,
    /// Evenings by themselves.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub single: Vec<Single>,
    /// What garments are to be worn at.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub events: Vec<Event>,
    /// What is in the drawer.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub stock: Vec<Stocked>,
    /// What was learnt.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub lessons: Vec<Lesson>,
    /// What was practised, slip by slip.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub practised: Vec<Practised>,
}

fn utc() -> String {
    "Etc/UTC".into()
}

fn pounds() -> String {
    "GBP".into()
}

impl Workroom {
    /// Remembers that a slip was made, or not.
    pub fn remember(&mut self, slip: Slip, is_right: bool) {
        let at = self.practised.iter().position(|known| known.slip == slip).unwrap_or_else(|| {
            self.practised.push(Practised { slip, right: 0, wrong: 0 });
            self.practised.len() - 1
        });
        let known = &mut self.practised[at];
        let count = if is_right { &mut known.right } else { &mut known.wrong };
        *count = count.saturating_add(1);
    }
}

impl Default for Workroom {
    fn default() -> Self {
        Self {
            time_zone: utc(),
            currency: pounds(),
            weekly: Vec::new(),
            left_out: Vec::new(),
            single: Vec::new(),
            events: Vec::new(),
            stock: Vec::new(),
            lessons: Vec::new(),
            practised: Vec::new(),
        }
    }
}

/// An evening, or a morning, that comes every week.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Weekly {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// Which day: 1 is Monday, 7 is Sunday (ISO 8601).
    #[schema(minimum = 1, maximum = 7)]
    pub day: i8,
    /// When it begins, by the clock on the wall.
    #[schema(value_type = String, example = "19:30")]
    pub start: jiff::civil::Time,
    /// How long it is, in minutes.
    #[schema(minimum = 1, maximum = 960)]
    pub minutes: u16,
    /// Who is there to help; nobody when empty.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub helper: String,
}

/// One evening of a weekly pattern that falls out.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[schema(as = EveningLeftOut)]
#[serde(deny_unknown_fields)]
pub struct LeftOut {
    /// Which pattern.
    pub weekly: Uuid,
    /// Which day.
    #[schema(value_type = String, format = Date)]
    pub date: jiff::civil::Date,
}

/// One evening.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Single {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// Which day.
    #[schema(value_type = String, format = Date)]
    pub date: jiff::civil::Date,
    /// When it begins, by the clock on the wall.
    #[schema(value_type = String, example = "19:30")]
    pub start: jiff::civil::Time,
    /// How long it is, in minutes.
    #[schema(minimum = 1, maximum = 960)]
    pub minutes: u16,
    /// Who is there to help; nobody when empty.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub helper: String,
}

/// What garments are to be worn at.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[schema(as = WornAt)]
#[serde(deny_unknown_fields)]
pub struct Event {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// What it is called.
    pub name: String,
    /// Which day.
    #[schema(value_type = String, format = Date)]
    pub date: jiff::civil::Date,
    /// When it begins: everything is finished before. At the beginning of its day when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<String>, example = "19:30")]
    pub time: Option<jiff::civil::Time>,
}

/// A sum of money, in hundredths of the workroom's currency.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(transparent)]
pub struct Money(pub i64);

impl Money {
    /// Not negative, and less than ten million.
    pub const fn is_sum(self) -> bool {
        self.0 >= 0 && self.0 < 1_000_000_000
    }
}

choice! {
    /// What is used up.
    SupplyKind {
        Thread => "sewing thread",
        BastingThread => "basting thread",
        OverlockThread => "overlock thread",
        Elastic => "elastic",
        BiasBinding => "bias strip",
        Facing => "facing",
        HemTape => "fusible web",
        Buttons => "buttons",
        Hooks => "hooks and eyes",
        Eyelets => "eyelets",
        Zip => "zip",
        Needles => "machine needle",
        Lining => "lining cloth",
        PanelCloth => "cloth for a panel",
    }
}

choice! {
    /// What supplies are counted in.
    Unit {
        Metres => "m",
        Pieces => "pieces",
    }
}

impl SupplyKind {
    /// What it is counted in.
    pub const fn unit(self) -> Unit {
        match self {
            Self::Thread
            | Self::BastingThread
            | Self::OverlockThread
            | Self::Elastic
            | Self::BiasBinding
            | Self::Facing
            | Self::HemTape
            | Self::Lining
            | Self::PanelCloth => Unit::Metres,
            Self::Buttons | Self::Hooks | Self::Eyelets | Self::Zip | Self::Needles => Unit::Pieces,
        }
    }
}

/// Something in the drawer, as it was counted on a day; what was used since goes off.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Stocked {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// What.
    pub kind: SupplyKind,
    /// Which: a colour, a width.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub which: String,
    /// How much there was: centimetres, or pieces.
    pub amount: u32,
    /// When it was counted.
    #[schema(value_type = String, format = DateTime)]
    pub counted: jiff::Timestamp,
    /// What a metre or a piece cost.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<Money>,
}

/// What a lesson is about.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum LessonOn {
    /// A wearer: offered with everything of theirs.
    Wearer(Uuid),
    /// A garment: offered when it is altered again.
    Garment(Uuid),
    /// A cloth, by its name: offered with everything made of it.
    Cloth(String),
    /// A way of working: a step, wherever it comes up.
    Method(super::key::Step),
    /// A measurement of the body, wherever it is taken.
    Measurement(BodyMeasurement),
}

/// Something that was learnt.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Lesson {
    /// Made by whoever entered it.
    pub id: Uuid,
    /// The day.
    #[schema(value_type = String, format = Date)]
    pub date: jiff::civil::Date,
    /// What about.
    pub on: LessonOn,
    /// In the sewist's words.
    pub words: String,
}

/// Most entries of each list.
const MOST: usize = 400;
/// The longest name or text, in letters.
const LONGEST: usize = 400;
/// The longest evening, in minutes.
const LONGEST_EVENING: u16 = 960;

/// What is wrong with a workroom, as paths below it.
pub fn wrong_workroom(room: &Workroom) -> Vec<Fault> {
    let mut faults = Vec::new();
    let mut fault = |path: String, wrong| faults.push(Fault { path, wrong });
    if jiff::tz::TimeZoneDatabase::bundled().get(&room.time_zone).is_err() {
        fault("time_zone".into(), Wrong::NoTimeZone { found: room.time_zone.chars().take(60).collect() });
    }
    if room.currency.len() != 3 || !room.currency.bytes().all(|b| b.is_ascii_uppercase()) {
        fault("currency".into(), Wrong::NoCurrency);
    }
    let lists = [
        ("weekly", room.weekly.len()),
        ("left_out", room.left_out.len()),
        ("single", room.single.len()),
        ("events", room.events.len()),
        ("stock", room.stock.len()),
        ("lessons", room.lessons.len()),
        ("practised", room.practised.len()),
    ];
    for (field, _) in lists.into_iter().filter(|(_, count)| *count > MOST) {
        fault(field.into(), Wrong::TooMany { what: "entries", most: MOST });
    }
    let mut text = |path: String, text: &str, may_be_empty: bool| match text.chars().count() {
        _ if text.trim().is_empty() && !may_be_empty => fault(path, Wrong::Blank),
        letters if letters > LONGEST => fault(path, Wrong::TooLong { most: LONGEST }),
        _ => {}
    };
    for (n, event) in room.events.iter().enumerate() {
        text(format!("events[{n}].name"), &event.name, false);
    }
    for (n, lesson) in room.lessons.iter().enumerate() {
        text(format!("lessons[{n}].words"), &lesson.words, false);
        if let LessonOn::Cloth(name) = &lesson.on {
            text(format!("lessons[{n}].on.cloth"), name, false);
        }
    }
    for (n, stocked) in room.stock.iter().enumerate() {
        text(format!("stock[{n}].which"), &stocked.which, true);
    }
    for (n, weekly) in room.weekly.iter().enumerate() {
        text(format!("weekly[{n}].helper"), &weekly.helper, true);
    }
    for (n, single) in room.single.iter().enumerate() {
        text(format!("single[{n}].helper"), &single.helper, true);
    }
    let long = |minutes: u16| minutes == 0 || minutes > LONGEST_EVENING;
    let minutes = |minutes: u16| Wrong::NotMinutes { found: minutes.into(), most: LONGEST_EVENING.into() };
    for (n, weekly) in room.weekly.iter().enumerate() {
        if !(1..=7).contains(&weekly.day) {
            fault(format!("weekly[{n}].day"), Wrong::NotADay { found: weekly.day });
        }
        if long(weekly.minutes) {
            fault(format!("weekly[{n}].minutes"), minutes(weekly.minutes));
        }
    }
    for (n, single) in room.single.iter().enumerate() {
        if long(single.minutes) {
            fault(format!("single[{n}].minutes"), minutes(single.minutes));
        }
    }
    for (n, stocked) in room.stock.iter().enumerate() {
        if stocked.price.is_some_and(|price| !price.is_sum()) {
            fault(format!("stock[{n}].price"), Wrong::NotASum);
        }
    }
    faults
}
