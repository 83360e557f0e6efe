//! What the tests of every room begin with: small garments on their wearers, pins, and what stands on a card.

use crate::body::{BodyMeasurement, Taken, Wearer};
use crate::card::{Block, Card, Table};
use crate::change::Change;
use crate::change::seam::SeamChange;
use crate::document::{Document, State};
use crate::figure::CardDrawing;
use crate::fitting::{End, GarmentSide, How, Reading, Worn};
use crate::garment::{
    Closure, ClosureFacts, Cloth, Drape, Finish, Frays, Garment, GarmentLevel, Kind, Opening, Seam,
    SeamFacts, Width,
};
use crate::length::{Measure, Tape};
use crate::place::{Level, Structure};
use crate::shown::SolvedLine;
use crate::solve::{SolvedTryOn, solve};
use crate::told::Check;
use crate::try_on::TryOn;
use std::ops::{Deref, DerefMut};
use uuid::Uuid;

pub(crate) fn m(text: &str) -> Measure {
    text.parse().unwrap()
}

/// One figure for both sides, taken on no particular day.
pub(crate) fn taken(what: BodyMeasurement, text: &str) -> Taken {
    Taken { what, date: None, value: Some(m(text)), left: None, right: None }
}

/// A seam looked at inside, with nothing special about it.
/// The edges that the sum of a level counts: "2 side seams × 2 edges × 0.5 cm = 2.0 cm" are four.
pub(crate) fn edges_counted(sum: &str) -> usize {
    let parts = sum.split("; ").filter(|part| part.contains(" × 2 edges × "));
    parts.map(|part| 2 * part.split(' ').next().unwrap().parse::<usize>().unwrap()).sum()
}

pub(crate) fn seam_facts(seam: Seam, length: &str, allowance: &str) -> SeamFacts {
    SeamFacts {
        seam,
        name: None,
        length: m(length),
        allowance: m(allowance),
        allowance_back: None,
        along: vec![],
        clipped: false,
        clips_leave: None,
        graded: false,
        finish: Finish::Open,
        topstitched: false,
        in_the_way: vec![],
        assumed: false,
    }
}

pub(crate) fn pin(side: GarmentSide, station: &str, amount: &str) -> Reading {
    Reading { id: None, side, station: m(station), amount: m(amount), how: How::Fold }
}

pub(crate) fn outseam(readings: Vec<Reading>, upper: Option<End>) -> SeamChange {
    SeamChange { readings, upper, ..SeamChange::of(Seam::Outseam) }
}

pub(crate) fn meets(station: &str) -> Option<End> {
    Some(End::MeetsOldStitching { station: m(station) })
}

/// A garment on its wearer. It is used as the garment that it is.
#[derive(Clone, Debug)]
pub(crate) struct Fitted {
    pub garment: Garment,
    pub wearer: Wearer,
}

impl Deref for Fitted {
    type Target = Garment;
    fn deref(&self) -> &Garment {
        &self.garment
    }
}

impl DerefMut for Fitted {
    fn deref_mut(&mut self) -> &mut Garment {
        &mut self.garment
    }
}

impl Fitted {
    /// A document of it, in one state.
    pub fn document(&self, try_ons: Vec<TryOn>) -> Document {
        Document::of(self.wearer.clone(), State::first(Uuid::nil(), self.garment.clone()), try_ons)
    }

    /// What follows from one try-on of it.
    pub fn solved(&self, try_on: TryOn, tape: Tape) -> SolvedTryOn {
        solve(&self.document(vec![try_on]), tape).unwrap_or_else(|f| panic!("{f:?}")).try_ons.remove(0)
    }
}

/// A try-on of a garment in its only state.
pub(crate) fn try_on() -> TryOn {
    TryOn::on(Uuid::nil(), jiff::civil::date(2026, 10, 3))
}

/// A try-on with these changes.
pub(crate) fn trying<C: Into<Change>>(changes: Vec<C>) -> TryOn {
    TryOn { changes: changes.into_iter().map(Into::into).collect(), ..try_on() }
}

/// A document with one try-on of a garment, right side out.
pub(crate) fn document_of<C: Into<Change>>(garment: &Fitted, changes: Vec<C>) -> Document {
    garment.document(vec![TryOn { worn: Worn::RightSideOut, ..trying(changes) }])
}

/// Straight trousers: 48 cm round at the hem, on a wearer whose heel measures 33 cm round.
pub(crate) fn trousers() -> Fitted {
    let level = |level, station: &str, girth: &str| GarmentLevel {
        level,
        station: m(station),
        width: Width::Girth(m(girth)),
        assumed: false,
    };
    let garment = Garment {
        name: "Straight trousers".into(),
        kind: Kind::Trousers,
        toile: false,
        cloth: Cloth {
            name: "drill".into(),
            structure: Structure::Woven,
            drape: Drape::Crisp,
            stretch_percent: 0,
            frays: Frays::Some,
            weight: Default::default(),
            shows_holes: false,
            heat: Default::default(),
            shrinks_along_percent: 0,
            shrinks_across_percent: 0,
            colour: "#666666".to_owned().try_into().unwrap(),
        },
        levels: vec![
            level(Level::Hem, "0 cm", "48 cm"),
            level(Level::Knee, "45 cm", "52 cm"),
            level(Level::Thigh, "74 cm", "64 cm"),
            level(Level::Hip, "84 cm", "108 cm"),
            level(Level::Waist, "104 cm", "86 cm"),
        ],
        waistband_depth: None,
        belt_loops: 0,
        sleeve_length: None,
        across_back: None,
        neckline: None,
        collar: None,
        seams: vec![
            seam_facts(Seam::Outseam, "104 cm", "1.5 cm"),
            seam_facts(Seam::Inseam, "76 cm", "1.5 cm"),
        ],
        darts: vec![],
        hems: vec![],
        gathered: vec![],
        closures: vec![ClosureFacts { closure: Closure::Zip, at: Opening::CentreFront, count: 1 }],
        pockets: vec![],
        found: Default::default(),
    };
    let wearer = Wearer {
        name: "Bram".into(),
        measurements: vec![
            taken(BodyMeasurement::HeelGirth, "33 cm"),
            taken(BodyMeasurement::KneeGirth, "40 cm"),
            taken(BodyMeasurement::HipGirth, "100 cm"),
        ],
        posture: vec![],
        notes: vec![],
        taste: Vec::new(),
    };
    Fitted { garment, wearer }
}

impl SolvedTryOn {
    /// The lines there are, in order.
    pub fn lines(&self) -> Vec<&SolvedLine> {
        self.changes.iter().filter_map(|change| change.line()).collect()
    }

    /// The line of that number.
    pub fn line(&self, number: usize) -> &SolvedLine {
        self.lines()[number]
    }

    /// The check whose title begins so.
    pub fn check(&self, title: &str) -> &Check {
        let titles = || self.checks.iter().map(|c| &c.title).collect::<Vec<_>>();
        self.checks
            .iter()
            .find(|c| c.title.starts_with(title))
            .unwrap_or_else(|| panic!("{title}: {:?}", titles()))
    }
}

impl Card {
    /// Its table.
    pub fn table(&self) -> &Table {
        let table =
            self.blocks.iter().find_map(|b| if let Block::Table(table) = b { Some(table) } else { None });
        table.unwrap_or_else(|| panic!("no table on {}", self.title))
    }

    /// The figures of its table as they are written, row by row.
    pub fn figures(&self) -> Vec<Vec<&str>> {
        self.table().rows.iter().map(|row| row.cells.iter().map(|cell| &cell.text[..]).collect()).collect()
    }

    /// Its steps.
    pub fn steps(&self) -> Vec<&str> {
        let steps =
            self.blocks.iter().filter_map(|b| if let Block::Steps(steps) = b { Some(steps) } else { None });
        steps.flatten().map(|step| &step.text[..]).collect()
    }

    /// Its drawings.
    pub fn drawings(&self) -> Vec<&CardDrawing> {
        self.blocks
            .iter()
            .filter_map(|b| if let Block::Drawing(drawing) = b { Some(drawing) } else { None })
            .collect()
    }

    /// Every sentence on it.
    pub fn sentences(&self) -> Vec<&str> {
        self.blocks
            .iter()
            .flat_map(|block| match block {
                Block::Heading(text)
                | Block::Text(text)
                | Block::Note(text)
                | Block::Caution(text)
                | Block::Line(text) => vec![&text[..]],
                Block::Steps(steps) => steps.iter().map(|step| &step.text[..]).collect(),
                Block::Table(_) | Block::Drawing(_) => vec![],
            })
            .collect()
    }
}
